//! Readings: previewed as they are typed, stored as typed.

use super::{Doc, jobs};
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, get, post, web};
use bold_stance_store::job::{self, Stage};
use bold_stance_store::reading;
use bold_stance_store::visit;
use bold_stance_store::{Tx, event};
use bold_stance_trade::aim::Aim;
use bold_stance_trade::job::{Asked, JobBench, Reading};
use bold_stance_trade::reading::{
    Expected, Jack, Method, MethodInfo, Place, PrepareItem, RawEntry, ReadAxle, ReadSide, Suspicion, Taken,
    Visit, suspicions,
};
use bold_stance_units::LengthUnit;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A reading as it was typed.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TypedReading {
    /// Chosen by the sender, so that sending twice stores once.
    pub id: Uuid,
    /// When in the work.
    pub visit: Visit,
    /// Axle.
    #[serde(default)]
    pub axle: ReadAxle,
    /// Side.
    pub side: ReadSide,
    /// How.
    pub method: Method,
    /// As typed, by name; the same name again is a repeat.
    pub entries: Vec<RawEntry>,
    /// What a bare length means.
    pub unit: LengthUnit,
    /// How the wheel stood.
    #[serde(default)]
    pub jack: Jack,
    /// Hub to arch as it stood on the jack, as typed.
    #[serde(default)]
    pub jacked_height: String,
}

/// What a reading would mean.
#[derive(Debug, Serialize, ToSchema)]
pub struct Preview {
    /// The reading worked out.
    pub taken: Taken,
    /// What looks odd about it.
    pub suspicions: Vec<Suspicion>,
    /// What the model says this wheel should read.
    pub expected: Option<ExpectedValue>,
}

/// What the model expects.
#[derive(Debug, Serialize, ToSchema)]
pub struct ExpectedValue {
    /// Degrees.
    pub value: f64,
    /// Standard deviation, degrees.
    pub sigma: f64,
    /// From an earlier visit moved to this height, else from the points alone.
    pub anchored: bool,
}

/// Methods and prepare list.
#[derive(Debug, Serialize, ToSchema)]
pub struct ReadingData {
    /// Every method.
    pub methods: Vec<MethodInfo>,
    /// Items of the prepare list.
    pub prepare: Vec<PrepareItem>,
}

/// Methods people own, and the prepare list.
#[utoipa::path(get, path = "/api/v1/methods", operation_id = "methods", responses((status = 200, body = ReadingData)))]
#[get("/api/v1/methods")]
pub async fn methods(state: Here) -> HttpResponse {
    HttpResponse::Ok().json(ReadingData { methods: state.methods.clone(), prepare: state.prepare.clone() })
}

impl TypedReading {
    fn asked(&self) -> Asked<'_> {
        Asked {
            visit: self.visit,
            method: self.method,
            raw: &self.entries,
            unit: self.unit,
            place: Place { axle: self.axle, side: self.side },
            jack: self.jack,
            jacked_height: &self.jacked_height,
        }
    }
}

/// What the front is aimed at on this ticket.
fn aim<'a>(state: &'a Here, t: &'a jobs::Ticket) -> Option<&'a Aim> {
    t.plans.first().map(|p| &p.document.aim).or(state.aims.first())
}

/// What a reading would mean, without keeping it.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/readings/preview", operation_id = "previewReading", params(("id" = Uuid, Path)), request_body = TypedReading,
    responses((status = 200, body = Preview), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/readings/preview")]
pub async fn preview(
    state: Here,
    id: web::Path<Uuid>,
    Doc(r): Doc<TypedReading>,
) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    let t = jobs::ticket(&state, &mut tx, *id).await?;
    let open = visit::of_job(&mut tx, *id).await?;
    let now = event::now(&mut tx, *id).await?;
    let mut bench = JobBench::of(state.rules(), &t.vehicle.facts, &t.readings, &t.done, &open, now)?
        .of_job(t.job.kind, &t.job.aftercare);
    let asked = r.asked();
    let worked = bench.take(&asked, aim(&state, &t))?;
    let candidate = asked.stored(r.id, worked.clone(), state.name(), now);
    bench.seen.push(candidate.seen());
    let prepared = bench.prepared_at(r.visit);
    let (suspicions, expected) = bench.scene(r.visit, &prepared, |s| {
        let own = r.id.to_string();
        let mut odd = suspicions(s, &state.methods);
        odd.retain(|x| x.reading.as_ref() == Some(&own));
        let expected: Option<Expected> =
            candidate.place().as_wheel().and_then(|(axle, side)| s.expected(worked.quantity, axle, side));
        (odd, expected)
    });
    let expected = expected.map(|e| ExpectedValue { value: e.value, sigma: e.sigma, anchored: e.anchored });
    Ok(HttpResponse::Ok().json(Preview { taken: worked, suspicions, expected }))
}

/// Keeps readings in one transaction: all or none.
pub async fn keep(
    state: &Here,
    tx: &mut Tx,
    id: Uuid,
    list: &[TypedReading],
) -> Result<jobs::Ticket, ApiError> {
    // Two tablets at once: what the newest reading is, and what a correction stands for, is decided one after the other.
    job::hold(tx, id).await?;
    let mut t = jobs::ticket(state, tx, id).await?;
    for (i, r) in list.iter().enumerate() {
        let open = visit::of_job(tx, id).await?;
        let now = event::now(tx, id).await?;
        let bench = JobBench::of(state.rules(), &t.vehicle.facts, &t.readings, &t.done, &open, now)?
            .of_job(t.job.kind, &t.job.aftercare);
        let asked = r.asked();
        let taken =
            bench.take(&asked, aim(state, &t)).map_err(|p| ApiError::from(p).under(list.len() > 1, i))?;
        let new = asked.stored(r.id, taken, state.name(), now);
        visit::open(tx, state.shop.id, id, r.visit, state.name()).await?;
        if let Some(other) = reading::job_of(tx, r.id).await?
            && other != id
        {
            return Err(
                Problem::new("id", said("fault-reading-another-job"), said("fault-id-its-own")).into()
            );
        }
        // Sent twice is stored once; the same id with something else typed would be lost without a word.
        let changed = |k: &&Reading| {
            let same = k.raw == new.raw
                && k.method == new.method
                && k.place() == new.place()
                && (k.unit, k.visit, k.jack) == (new.unit, new.visit, new.jack)
                && k.jacked_height == new.jacked_height;
            k.id == r.id && !same
        };
        if t.readings.iter().any(|k| changed(&k)) {
            return Err(Problem::new(
                "id",
                said("fault-kept-already-something-else-typed"),
                said("fault-id-its-own"),
            )
            .into());
        }
        if !reading::add(tx, state.shop.id, id, &new).await? {
            continue;
        }
        event::record(
            tx,
            state.shop.id,
            Some(id),
            state.name(),
            "reading kept",
            serde_json::json!({"reading": r.id}),
        )
        .await?;
        t.readings.push(new);
    }
    after(state, tx, id).await
}

/// Moves the job on after readings came in and reads the ticket anew.
pub async fn after(state: &Here, tx: &mut Tx, id: Uuid) -> Result<jobs::Ticket, ApiError> {
    let t = jobs::ticket(state, tx, id).await?;
    let stage = if t.missing.is_empty() { Stage::Plan } else { Stage::Read };
    job::reach_stage(tx, id, stage).await?;
    jobs::ticket(state, tx, id).await
}

/// Keeps a reading.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/readings", operation_id = "addReading", params(("id" = Uuid, Path)), request_body = TypedReading,
    responses((status = 201, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/readings")]
pub async fn add(
    state: Here,
    id: web::Path<Uuid>,
    Doc(r): Doc<TypedReading>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let ticket = keep(&state, &mut tx, *id, std::slice::from_ref(&r)).await?;
    once.answer(tx, StatusCode::CREATED, &ticket).await
}

/// Keeps what a paper form says: all of it or nothing.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/readings/form", operation_id = "addForm", params(("id" = Uuid, Path)), request_body = Vec<TypedReading>,
    responses((status = 201, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/readings/form")]
pub async fn form(
    state: Here,
    id: web::Path<Uuid>,
    Doc(list): Doc<Vec<TypedReading>>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    if list.is_empty() || list.len() > 60 {
        let wrong = said("fault-readings").count("n", list.len());
        return Err(Problem::new("readings", wrong, said("fault-1-60-them")).into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let ticket = keep(&state, &mut tx, *id, &list).await?;
    once.answer(tx, StatusCode::CREATED, &ticket).await
}
