//! The page for the owner of the car.

use super::plans::{SheetNow, sheet_now};
use super::wear;
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::{HttpResponse, get, web};
use bold_stance_store::plan;
use bold_stance_trade::job::{Done, Handover, HandoverOf};
use uuid::Uuid;

/// What the owner is told of a plan as its job stands.
#[utoipa::path(get, path = "/api/v1/plans/{id}/handover", operation_id = "handover", params(("id" = Uuid, Path)),
    responses((status = 200, body = Handover), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[get("/api/v1/plans/{id}/handover")]
pub async fn handover(state: Here, id: web::Path<Uuid>, peer: Peer) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    let p = plan::get(&mut tx, *id).await?;
    let SheetNow { ticket: t, input, sheet } = sheet_now(&state, &mut tx, &p, &peer).await?;
    let log = wear::log_of(&mut tx, t.job.vehicle_id).await?;
    let page = state.pool.run(&peer, move |_| {
        let done: Vec<&Done> = t.done.iter().filter(|d| d.plan_id == p.id).collect();
        let of = HandoverOf {
            facts: &t.vehicle.facts,
            readings: &t.readings,
            done: &done,
            care: &t.job.aftercare,
            input: &input,
            sheet: &sheet,
            tyres: &t.tyres,
            log: &log,
        };
        of.page()
    });
    Ok(HttpResponse::Ok().json(page.await?))
}
