//! A whole job as a file: out of this shop, into it.

use super::jobs;
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::speech::AsKept;
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, get, web};
use bold_stance_store::{bundle, event, job};
use bold_stance_trade::job::JobBundle;
use bold_stance_trade::part::Part;
use uuid::Uuid;

/// Largest bundle that is taken in, bytes.
pub const BUNDLE_LIMIT: usize = 12 * 1024 * 1024;

/// A job with everything that belongs to it.
#[utoipa::path(get, path = "/api/v1/jobs/{id}/bundle.json", operation_id = "exportJob", params(("id" = Uuid, Path)),
    responses((status = 200, body = Object, description = "`bold-stance.job/1`, as docs/schema/job.schema.json has it"),
        (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}/bundle.json")]
pub async fn export(state: Here, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let shelf = state.shelf().await?;
    let (parts, withdrawn) = shelf.to_carry();
    let mut tx = state.tx().await?;
    let j = job::get(&mut tx, *id).await?;
    let b = bundle::of_job(&mut tx, *id, parts, withdrawn, |since| shelf.memory(since)).await?;
    let name = format!("attachment; filename=\"job-{:04}.json\"", j.ticket);
    let mut res = HttpResponse::Ok().insert_header(("content-disposition", name)).json(b);
    res.extensions_mut().insert(AsKept);
    Ok(res)
}

/// Takes a job in as a new one of this shop: all of it or nothing.
#[utoipa::path(post, path = "/api/v1/jobs/import", operation_id = "importJob", request_body = JobBundle,
    responses((status = 201, body = jobs::Ticket), (status = 422, body = ProblemDocument)))]
pub async fn import(
    state: Here,
    body: Result<web::Bytes, actix_web::Error>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let body = body.map_err(|_| ApiError::TooLarge)?;
    let once = once.of(&body);
    let b = JobBundle::from_json(&body)?;
    let shelf: Vec<Part> = state.shelf().await?.parts.iter().map(|s| s.part.clone()).collect();
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let id = bundle::insert(&mut tx, state.shop.id, &b, &shelf).await?;
    let detail = serde_json::json!({"written_by": b.written_by});
    event::record(&mut tx, state.shop.id, Some(id), state.name(), "job imported", detail).await?;
    let t = jobs::ticket(&state, &mut tx, id).await?;
    let answer = once.answer(tx, StatusCode::CREATED, &t).await?;
    state.shelf_cache.forget(state.shop.id);
    Ok(answer)
}
