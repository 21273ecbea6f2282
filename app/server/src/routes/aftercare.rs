//! After the setting: the car comes back, is trimmed, is looked at again on a day, is closed and reopened.

use super::plans::{no_longer_accepted, sheet_now};
use super::{Doc, jobs};
use crate::once::{Begun, Once, again};
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, post, web};
use bold_stance_store::job::{self, Stage};
use bold_stance_store::{event, plan, visit};
use bold_stance_trade::job::{AfterAct, Sheet};
use bold_stance_trade::reading::Visit;
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// Something done after the setting.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DoAfter {
    /// Version of the ticket it is based on.
    pub version: i32,
    /// What.
    pub what: AfterAct,
}

/// Keeps something that was done after the setting.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/aftercare", operation_id = "doAfter", params(("id" = Uuid, Path)), request_body = DoAfter,
    responses((status = 200, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/aftercare")]
pub async fn do_after(
    state: Here,
    id: web::Path<Uuid>,
    Doc(d): Doc<DoAfter>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let of = job::get(&mut tx, *id).await?;
    // A trim is ordered by how the car settled or came back, which hangs on its plan.
    // So does what it taught.
    let sheet = match of.plan_id {
        Some(plan) if matches!(d.what, AfterAct::Trimmed { .. }) => {
            let p = plan::get(&mut tx, plan).await?;
            Some(sheet_now(&state, &mut tx, &p, &Peer::default()).await?.sheet)
        }
        // A look is set and a job closed whether or not its plan can still be worked out.
        Some(plan) if d.what.teaches() => {
            let p = plan::get(&mut tx, plan).await?;
            sheet_now(&state, &mut tx, &p, &Peer::default()).await.ok().map(|s| s.sheet)
        }
        _ => None,
    };
    let to_do = sheet.as_ref().map(Sheet::trims_to_do).unwrap_or_default();
    let now = event::now(&mut tx, *id).await?;
    let mut care = of.aftercare.after(&d.what, &to_do, (now, state.name()))?;
    if let Some(s) = sheet.filter(|_| d.what.teaches()) {
        care = care.having_taught(s.taught, now);
        state.shelf_cache.forget(state.shop.id);
    }
    job::keep_aftercare(&mut tx, *id, d.version, &care).await?;
    if matches!(d.what, AfterAct::CameBack { .. }) {
        visit::open_again(&mut tx, state.shop.id, *id, Visit::Returned, state.name()).await?;
        job::reach_stage(&mut tx, *id, Stage::Return).await?;
    }
    if let (AfterAct::WheelTurned, Some(plan)) = (&d.what, of.plan_id) {
        let p = plan::get(&mut tx, plan).await?;
        no_longer_accepted(&state, &mut tx, &p).await?;
    }
    let detail = serde_json::to_value(&d.what).unwrap_or_default();
    event::record(&mut tx, state.shop.id, Some(*id), state.name(), d.what.event(), detail).await?;
    let t = jobs::ticket(&state, &mut tx, *id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}
