//! The record: who changed what, from where, what stood there before; and what is personal, taken out.

use super::{CSV, attachment};
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, get, post, web};
use bold_stance_store::audit::{self, Change};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::Deserialize;
use utoipa::IntoParams;
use uuid::Uuid;

/// Lines of the record.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct RecordAsked {
    /// Only of this job.
    pub job: Option<Uuid>,
    /// Only by this member.
    pub member: Option<Uuid>,
    /// Only what is older than this line: the next page.
    pub before: Option<i64>,
    /// How many: 1 to 500; 200 when absent.
    pub limit: Option<u32>,
}

/// Who changed what, newest first.
#[utoipa::path(get, path = "/api/v1/record", operation_id = "record", params(RecordAsked), responses((status = 200, body = Vec<Change>)))]
#[get("/api/v1/record")]
pub async fn list(state: Here, asked: web::Query<RecordAsked>) -> Result<HttpResponse, ApiError> {
    let limit = asked.limit.unwrap_or(200);
    in_range("limit", f64::from(limit), 1.0, 500.0, "lines")?;
    let mut tx = state.tx().await?;
    let all =
        audit::list(&mut tx, asked.job, asked.member, asked.before.unwrap_or(i64::MAX), limit.into()).await?;
    Ok(HttpResponse::Ok().json(all))
}

/// A table of the record.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct RecordTable {
    /// Only of this job.
    pub job: Option<Uuid>,
    /// Only by this member.
    pub member: Option<Uuid>,
}

/// Most lines a table of the record carries.
const TABLE_LINES: i64 = 20_000;

/// The same as a table.
#[utoipa::path(get, path = "/api/v1/record.csv", operation_id = "recordCsv", params(RecordTable),
    responses((status = 200, body = String, content_type = "text/csv")))]
#[get("/api/v1/record.csv")]
pub async fn csv(state: Here, asked: web::Query<RecordTable>) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    let all = audit::list(&mut tx, asked.job, asked.member, i64::MAX, TABLE_LINES).await?;
    let fault = |e: String| ApiError::from(Problem::new("table", e, said("fault-answer-can-written")));
    let mut out = ::csv::Writer::from_writer(Vec::new());
    out.write_record(["id", "at", "ticket", "member", "device", "what", "row", "change", "before", "after"])
        .map_err(|e| fault(e.to_string()))?;
    let text = |v: &Option<serde_json::Value>| v.as_ref().map(ToString::to_string).unwrap_or_default();
    for c in &all {
        out.write_record([
            c.id.to_string(),
            c.at.to_rfc3339(),
            c.ticket.map(|t| format!("{t:04}")).unwrap_or_default(),
            c.member.clone().unwrap_or_default(),
            c.device.clone().unwrap_or_default(),
            c.what.clone(),
            c.row_id.clone(),
            c.change.clone(),
            text(&c.before),
            text(&c.after),
        ])
        .map_err(|e| fault(e.to_string()))?;
    }
    let body = out.into_inner().map_err(|e| fault(e.to_string()))?;
    Ok(attachment("record.csv", CSV, body))
}

/// Takes out what is personal of a job: words, plate, photos, and the same in the record. Figures stay.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/erase-personal", operation_id = "erasePersonal", params(("id" = Uuid, Path)),
    responses((status = 200, body = String, content_type = "application/json"), (status = 404, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/erase-personal")]
pub async fn erase_personal(state: Here, id: web::Path<Uuid>, once: Once) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    if !audit::erase_personal(&mut tx, *id).await? {
        return Err(bold_stance_store::StoreError::Missing { what: "job", id: *id }.into());
    }
    once.answer(tx, StatusCode::OK, &"ok").await
}
