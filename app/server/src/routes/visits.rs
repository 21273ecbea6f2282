//! Visits and their prepare lists; readings as CSV.

use super::{CSV, Doc, attachment, jobs, readings};
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::speech::TableUnits;
use crate::who::Here;
use crate::workbook::{XLSX, table_in, workbook};
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, get, post, put, web};
use bold_stance_store::reading;
use bold_stance_store::visit;
use bold_stance_store::{event, job};
use bold_stance_trade::job::{Asked, JobBench, Reading};
use bold_stance_trade::reading::{
    Answers, Correction, Prepared, Quantity, Row, Taken, Visit, read_table, write_table,
};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use chrono::{DateTime, Datelike, Utc};
use serde::Deserialize;
use std::collections::HashMap;
use utoipa::ToSchema;
use uuid::Uuid;

/// A visit to open.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewVisit {
    /// Which.
    pub kind: Visit,
}

/// Answers over a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveAnswers {
    /// Version the edit is based on; 0 for a visit that was not opened.
    pub version: i32,
    /// All answers, as typed.
    pub answers: Answers,
}

/// Opens a visit; one that is open stays as it is.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/visits", operation_id = "openVisit", params(("id" = Uuid, Path)), request_body = NewVisit,
    responses((status = 201, body = jobs::Ticket), (status = 404, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/visits")]
pub async fn open(
    state: Here,
    id: web::Path<Uuid>,
    Doc(v): Doc<NewVisit>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let shop = state.shop.id;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    job::get(&mut tx, *id).await?;
    visit::open(&mut tx, shop, *id, v.kind, state.name()).await?;
    event::record(
        &mut tx,
        shop,
        Some(*id),
        state.name(),
        "visit opened",
        serde_json::json!({"visit": v.kind}),
    )
    .await?;
    let t = jobs::ticket(&state, &mut tx, *id).await?;
    once.answer(tx, StatusCode::CREATED, &t).await
}

/// Saves the answers of a prepare list. Readings already kept stay as they were corrected then.
#[utoipa::path(put, path = "/api/v1/jobs/{id}/visits/{kind}", operation_id = "saveAnswers",
    params(("id" = Uuid, Path), ("kind" = Visit, Path)), request_body = SaveAnswers,
    responses((status = 200, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/jobs/{id}/visits/{kind}")]
pub async fn save(
    state: Here,
    path: web::Path<(Uuid, Visit)>,
    Doc(s): Doc<SaveAnswers>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let (id, kind) = path.into_inner();
    if s.answers.values().any(|a| a.chars().count() > 64) {
        return Err(Problem::new(
            "answers",
            said("fault-longer-than-64-characters"),
            said("fault-short-answer"),
        )
        .into());
    }
    Prepared::of(&s.answers, &state.prepare)?;
    let shop = state.shop.id;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    job::get(&mut tx, id).await?;
    let mut version = s.version;
    if version == 0 {
        visit::open(&mut tx, shop, id, kind, state.name()).await?;
        version = 1;
    }
    visit::save(&mut tx, id, kind, version, &s.answers).await?;
    event::record(&mut tx, shop, Some(id), state.name(), "prepare list", serde_json::json!({"visit": kind}))
        .await?;
    let t = jobs::ticket(&state, &mut tx, id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}

/// Works out anew, from what was typed, every reading of a visit that its prepare list as answered now touches; each is kept
/// as a new reading that replaces the old one.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/visits/{kind}/put-right", operation_id = "putRight",
    params(("id" = Uuid, Path), ("kind" = Visit, Path)),
    responses((status = 200, body = jobs::Ticket), (status = 404, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/visits/{kind}/put-right")]
pub async fn put_right(
    state: Here,
    path: web::Path<(Uuid, Visit)>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let (id, kind) = path.into_inner();
    let shop = state.shop.id;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    job::hold(&mut tx, id).await?;
    let t = jobs::ticket(&state, &mut tx, id).await?;
    let opened = visit::of_job(&mut tx, id).await?;
    let now = event::now(&mut tx, id).await?;
    let bench = JobBench::of(state.rules(), &t.vehicle.facts, &t.readings, &t.done, &opened, now)?
        .of_job(t.job.kind, &t.job.aftercare);
    let anew = bench.put_right(&t.readings, kind, Uuid::new_v4);
    for r in &anew {
        reading::add(&mut tx, shop, id, r).await?;
    }
    let detail = serde_json::json!({"visit": kind, "readings": anew.len()});
    event::record(&mut tx, shop, Some(id), state.name(), "readings put right", detail).await?;
    let t = jobs::ticket(&state, &mut tx, id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}

/// A job's ticket and its readings as a table, in the units asked for.
async fn table_of(state: &Here, id: Uuid, asked: &TableUnits) -> Result<(i32, String), ApiError> {
    let mut tx = state.tx().await?;
    let job = job::get(&mut tx, id).await?;
    let rows: Vec<Row> = reading::of_job(&mut tx, id).await?.iter().map(row).collect();
    Ok((job.ticket, write_table(&rows, asked.units().length)?))
}

/// Every reading of a job as CSV.
#[utoipa::path(get, path = "/api/v1/jobs/{id}/readings.csv", operation_id = "exportReadings", params(("id" = Uuid, Path), TableUnits),
    responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}/readings.csv")]
pub async fn export(
    state: Here,
    id: web::Path<Uuid>,
    asked: web::Query<TableUnits>,
) -> Result<HttpResponse, ApiError> {
    let (ticket, text) = table_of(&state, *id, &asked).await?;
    Ok(attachment(&format!("readings-{ticket:04}.csv"), CSV, text))
}

/// Every reading of a job as a workbook.
#[utoipa::path(get, path = "/api/v1/jobs/{id}/readings.xlsx", operation_id = "exportReadingsXlsx", params(("id" = Uuid, Path), TableUnits),
    responses((status = 200, body = Vec<u8>, content_type = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}/readings.xlsx")]
pub async fn export_xlsx(
    state: Here,
    id: web::Path<Uuid>,
    asked: web::Query<TableUnits>,
) -> Result<HttpResponse, ApiError> {
    let (ticket, text) = table_of(&state, *id, &asked).await?;
    Ok(attachment(&format!("readings-{ticket:04}.xlsx"), XLSX, workbook("Readings", &text)?))
}

fn row(r: &Reading) -> Row {
    Row {
        id: r.id.to_string(),
        visit: r.visit,
        quantity: r.quantity,
        place: r.place(),
        method: r.method,
        typed: r.raw.clone(),
        unit: r.unit,
        value: Some((r.value, r.sigma)),
        corrections: r.corrections.clone(),
        also: r.also.clone(),
        jack: r.jack,
        jacked_height: r.jacked_height.clone(),
        height_mm: r.height_mm,
        author: r.author.clone(),
        taken_at: r.taken_at.to_rfc3339_opts(chrono::SecondsFormat::Micros, true),
        replaces: r.replaces.map_or_else(String::new, |u| u.to_string()),
    }
}

/// Readings from CSV or a workbook into a job: all rows or none. A row whose id is on this job already is left as it is; one
/// whose id is on another job gets an id of its own.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/readings.csv", operation_id = "importReadings", params(("id" = Uuid, Path)),
    request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/readings.csv")]
pub async fn import(
    state: Here,
    id: web::Path<Uuid>,
    body: Result<web::Bytes, actix_web::Error>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let body = body.map_err(|_| ApiError::TooLarge)?;
    let once = once.of(&body);
    let body = table_in(&body)?;
    let text = std::str::from_utf8(&body).map_err(|e| {
        Problem::new(
            "table",
            said("fault-utf8-at").name("at", e.valid_up_to().to_string()),
            said("fault-csv-utf-8"),
        )
    })?;
    let rows = read_table(text, &state.methods)?;
    let shop = state.shop.id;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    job::hold(&mut tx, *id).await?;
    let t = jobs::ticket(&state, &mut tx, *id).await?;
    let opened = visit::of_job(&mut tx, *id).await?;
    let now = event::now(&mut tx, *id).await?;
    let bench = JobBench::of(state.rules(), &t.vehicle.facts, &t.readings, &t.done, &opened, now)?
        .of_job(t.job.kind, &t.job.aftercare);
    let mut ids: HashMap<String, Uuid> = HashMap::new();
    let mut new = 0;
    for (i, r) in rows.iter().enumerate() {
        let line = i + 2;
        let at = |field: &str| format!("line {line}, {field}");
        let parsed = if r.id.is_empty() {
            Uuid::new_v4()
        } else {
            Uuid::parse_str(&r.id)
                .map_err(|_| Problem::new(at("id"), said("fault-not-id"), said("fault-exported-empty")))?
        };
        let own = match reading::job_of(&mut tx, parsed).await? {
            Some(j) if j != *id => Uuid::new_v4(),
            _ => parsed,
        };
        ids.insert(r.id.clone(), own);
        let taken_at = if r.taken_at.is_empty() {
            now
        } else {
            DateTime::parse_from_rfc3339(&r.taken_at)
                .map_err(|_| {
                    Problem::new(at("taken_at"), said("fault-not-time"), said("fault-rfc-3339-empty"))
                })?
                .with_timezone(&Utc)
        };
        if let Some(p) = odd_time(&at("taken_at"), taken_at, now) {
            return Err(p.into());
        }
        let stored = stored(&bench, r, (own, taken_at), state.name()).map_err(|list| {
            list.into_iter().map(|p| Problem { field: at(&p.field), ..p }).collect::<Vec<_>>()
        })?;
        let replaces = ids.get(&r.replaces).copied().filter(|_| !r.replaces.is_empty());
        visit::open(&mut tx, shop, *id, r.visit, state.name()).await?;
        new += i32::from(reading::add(&mut tx, shop, *id, &Reading { replaces, ..stored }).await?);
    }
    event::record(
        &mut tx,
        shop,
        Some(*id),
        state.name(),
        "readings imported",
        serde_json::json!({"rows": rows.len(), "new": new}),
    )
    .await?;
    let ticket = readings::after(&state, &mut tx, *id).await?;
    once.answer(tx, StatusCode::OK, &ticket).await
}

/// How far a clock may run ahead before a time is asked about, minutes.
const AHEAD_MIN: i64 = 5;
/// Before this year nobody read anything with this program's methods.
const FIRST_YEAR: i32 = 1990;

/// A time that cannot be: ahead of this server's clock, or long before the trade kept such tables.
fn odd_time(field: &str, t: DateTime<Utc>, now: DateTime<Utc>) -> Option<Problem> {
    let ahead = t.signed_duration_since(now);
    if ahead.num_minutes() > AHEAD_MIN {
        let wrong = match ahead.num_hours() {
            0 => said("fault-clock-minutes").name("n", ahead.num_minutes().to_string()),
            h => said("fault-clock-hours").name("n", h.to_string()),
        };
        return Some(Problem::new(field, wrong, said("fault-time-been-empty-now-set")));
    }
    (t.year() < FIRST_YEAR).then(|| {
        Problem::new(field, said("fault-year").name("year", t.year().to_string()), said("fault-time-been"))
    })
}

/// A value in the table against what was typed, both without corrections. A sweep is solved on the car it was read on, so
/// it may differ more.
fn contradicts(r: &Row, value: f64, worked: &Taken) -> Option<Problem> {
    let plain =
        |v: f64, list: &[Correction]| v - list.iter().filter(|c| c.applied).map(|c| c.amount).sum::<f64>();
    let (told, typed) = (plain(value, &r.corrections), plain(worked.value, &worked.corrections));
    let least = match r.quantity {
        Quantity::Caster => 1.0,
        Quantity::Camber | Quantity::Toe | Quantity::TotalToe | Quantity::Thrust | Quantity::FloorSlope => {
            0.05
        }
        _ => 0.6,
    };
    let apart = (told - typed).abs();
    (apart.is_nan() || apart > least).then(|| {
        Problem::new(
            "value",
            said("fault-value-typed").plain("told", value, 3).plain("typed", worked.value, 3),
            said("fault-value-exported-empty-cell-worked"),
        )
    })
}

/// A row as it is stored: as exported, or worked out from what was typed when it names no value.
fn stored(
    bench: &JobBench<'_>,
    r: &Row,
    (id, taken_at): (Uuid, DateTime<Utc>),
    who: &str,
) -> Result<Reading, Vec<Problem>> {
    let author = if r.author.is_empty() { who } else { &r.author };
    let asked = Asked {
        visit: r.visit,
        method: r.method,
        raw: &r.typed,
        unit: r.unit,
        place: r.place,
        jack: r.jack,
        jacked_height: &r.jacked_height,
    };
    let worked = bench.take(&asked, None)?;
    let taken = match r.value {
        None => worked,
        Some((value, _)) if contradicts(r, value, &worked).is_some() => {
            return Err(contradicts(r, value, &worked).into_iter().collect());
        }
        Some((value, sigma)) => Taken {
            quantity: r.quantity,
            value,
            sigma,
            corrections: r.corrections.clone(),
            also: r.also.clone(),
            height_mm: r.height_mm,
            ..Taken::default()
        },
    };
    Ok(asked.stored(id, taken, author, taken_at))
}
