//! The desk: a job put away, the same car again, its story, and every job as a table.

use super::jobs::{self, Ticket};
use super::{CSV, Doc, attachment};
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::rows::written;
use crate::who::Here;
use crate::workbook::{XLSX, workbook};
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, get, post, web};
use bold_stance_store::job::{self, Asked, JobLine, NewJob, Sort, Which};
use bold_stance_store::{Tx, event, plan, vehicle};
use bold_stance_trade::job::Event;
use bold_stance_units::csv_text::guarded;
use bold_stance_units::problem::Problem;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A job put away, or taken out again.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PutAway {
    /// Version of the ticket it is based on.
    pub version: i32,
    /// Whether it is put away.
    pub away: bool,
}

/// Puts a job away or takes it out again.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/away", operation_id = "putAway", params(("id" = Uuid, Path)), request_body = PutAway,
    responses((status = 200, body = Ticket), (status = 404, body = ProblemDocument), (status = 409, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/away")]
pub async fn away(
    state: Here,
    id: web::Path<Uuid>,
    Doc(p): Doc<PutAway>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    job::archive(&mut tx, *id, p.version, p.away).await?;
    let what = if p.away { "put away" } else { "taken out again" };
    event::record(&mut tx, state.shop.id, Some(*id), state.name(), what, serde_json::json!({})).await?;
    let t = jobs::ticket(&state, &mut tx, *id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}

/// A new ticket for the car of another: its facts as they are now and the plan that was the one to set. Its id and number.
pub async fn open_again(state: &Here, tx: &mut Tx, of: Uuid, new: NewJob) -> Result<(Uuid, i32), ApiError> {
    let shop = state.shop.id;
    let of = job::get(tx, of).await?;
    let facts = vehicle::get(tx, of.vehicle_id).await?.facts;
    let car = vehicle::insert(tx, shop, &facts).await?;
    let made = job::insert(tx, shop, car, &new).await?;
    if let Some(p) = of.plan_id {
        let p = plan::get(tx, p).await?;
        plan::insert(tx, shop, made, &p.name, &p.document).await?;
    }
    let detail = serde_json::json!({"ticket": of.ticket});
    event::record(tx, shop, Some(made), state.name(), "same car again", detail).await?;
    Ok((made, job::get(tx, made).await?.ticket))
}

/// Opens the same car again: its facts as they are now and the plan that is the one to set; nothing that was read or done.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/again", operation_id = "sameCarAgain", params(("id" = Uuid, Path)),
    responses((status = 201, body = Ticket), (status = 404, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/again")]
pub async fn same_car_again(state: Here, id: web::Path<Uuid>, once: Once) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let of = job::get(&mut tx, *id).await?;
    // Its odometer is another one by now.
    let new =
        NewJob { complaint: of.complaint, bay: None, kind: of.kind, plate: of.plate, odometer_km: None };
    let (made, _) = open_again(&state, &mut tx, *id, new).await?;
    let t = jobs::ticket(&state, &mut tx, made).await?;
    once.answer(tx, StatusCode::CREATED, &t).await
}

/// What happened on a job, oldest first.
#[derive(Debug, Serialize, ToSchema)]
pub struct Story {
    /// Each as it was written down, at the time of the change it tells of.
    pub events: Vec<Event>,
}

/// Everything that happened on a job, in order.
#[utoipa::path(get, path = "/api/v1/jobs/{id}/story", operation_id = "jobStory", params(("id" = Uuid, Path)),
    responses((status = 200, body = Story), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}/story")]
pub async fn story(state: Here, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    job::get(&mut tx, *id).await?;
    Ok(HttpResponse::Ok().json(Story { events: event::of_job(&mut tx, *id).await? }))
}

/// Columns of the table of jobs: `ticket`, `vehicle`, `plate`, `odometer_km` (when it came), `for` (what the ticket is for),
/// `stage` (furthest reached), `bay`, `wish`, `plan` (the one to set), `came`, `closed`, `put_away` (times, UTC).
pub const JOB_COLUMNS: [&str; 12] = [
    "ticket",
    "vehicle",
    "plate",
    "odometer_km",
    "for",
    "stage",
    "bay",
    "wish",
    "plan",
    "came",
    "closed",
    "put_away",
];

/// A word as the API has it.
fn word(v: &impl Serialize) -> String {
    serde_json::to_value(v).ok().and_then(|v| v.as_str().map(str::to_owned)).unwrap_or_default()
}

fn jobs_csv(lines: &[JobLine]) -> Result<String, Problem> {
    let row = |l: &JobLine| {
        let j = &l.job;
        let closed = j.aftercare.closed.as_ref().map(|c| c.at.to_rfc3339());
        vec![
            format!("{:04}", j.ticket),
            guarded(&l.vehicle),
            guarded(&j.plate),
            j.odometer_km.map(|v| v.to_string()).unwrap_or_default(),
            word(&j.kind),
            word(&j.stage),
            j.bay.map(|b| b.to_string()).unwrap_or_default(),
            guarded(&j.complaint),
            guarded(l.plan.as_deref().unwrap_or_default()),
            j.created_at.to_rfc3339(),
            closed.unwrap_or_default(),
            j.archived_at.map(|t| t.to_rfc3339()).unwrap_or_default(),
        ]
    };
    written(&JOB_COLUMNS, lines.iter().map(row))
}

/// Jobs of a page of the table.
const PAGE: i64 = 200;

/// Every job of the shop: open, closed, put away.
async fn every_job(tx: &mut Tx) -> Result<Vec<JobLine>, ApiError> {
    let mut out: Vec<JobLine> = Vec::new();
    for which in [Which::Open, Which::Closed, Which::Archived] {
        let mut after = None;
        loop {
            let asked = Asked { after, which, sort: Sort::Oldest, ..Asked::default() };
            let page = job::list(tx, asked, PAGE).await?;
            after = page.last().map(|l| l.job.id);
            let last = (page.len() as i64) < PAGE;
            out.extend(page);
            if last {
                break;
            }
        }
    }
    out.sort_by_key(|l| l.job.ticket);
    Ok(out)
}

/// Every job as CSV.
#[utoipa::path(get, path = "/api/v1/jobs.csv", operation_id = "exportJobs", responses((status = 200, body = String, content_type = "text/csv")))]
#[get("/api/v1/jobs.csv")]
pub async fn jobs_table(state: Here) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    Ok(attachment("jobs.csv", CSV, jobs_csv(&every_job(&mut tx).await?)?))
}

/// Every job as a workbook.
#[utoipa::path(get, path = "/api/v1/jobs.xlsx", operation_id = "exportJobsXlsx",
    responses((status = 200, body = Vec<u8>, content_type = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet")))]
#[get("/api/v1/jobs.xlsx")]
pub async fn jobs_workbook(state: Here) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    let text = jobs_csv(&every_job(&mut tx).await?)?;
    Ok(attachment("jobs.xlsx", XLSX, workbook("Jobs", &text)?))
}
