//! Jobs and their vehicles.

use super::Doc;
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, get, post, put, web};
use bold_stance_car::metrics::CornerFileRequest;
use bold_stance_car::vehicle::{Axles, Sides, TyreSize};
use bold_stance_store::job::{self, Job, JobLine, NewJob, Sort, Stage, Which};
use bold_stance_store::plan::{self, Plan};
use bold_stance_store::vehicle::{self, Vehicle};
use bold_stance_store::{Tx, done, event, note, reading, visit};
use bold_stance_trade::job::{
    Done, JobBench, Note, Reading, Stance, VehicleFacts, VisitView, base_of, corner_request, stance_at,
    turned_before, tyres_of,
};
use bold_stance_trade::plan::{CarBase, USUAL_LIMIT_MM};
use bold_stance_trade::reading::{TicketKind, Visit};
use bold_stance_tread::CarTyres;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;
use uuid::Uuid;

/// Page of a list.
#[derive(Debug, Deserialize, utoipa::IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Page {
    /// Only those behind this one, the last of the page before: the next page.
    pub after: Option<Uuid>,
    /// Only those whose vehicle, plate, ticket, tyres, plan or complaint holds this.
    #[param(max_length = 80)]
    pub find: Option<String>,
    /// Only those that are closed; those that are open when absent. What is looked for is looked for in both.
    pub closed: Option<bool>,
    /// Only those that were put away.
    pub archived: Option<bool>,
    /// Only those that are for this.
    #[param(inline)]
    pub kind: Option<TicketKind>,
    /// Only those that reached this stage and no other.
    #[param(inline)]
    pub stage: Option<Stage>,
    /// In which order; bays, then the newest, when absent.
    #[param(inline)]
    pub sort: Option<Sort>,
    /// Rows, at most 200; 100 when absent.
    #[param(minimum = 1, maximum = 200)]
    pub limit: Option<u32>,
}

/// A vehicle and its job, from nothing.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewArrival {
    /// The vehicle.
    pub vehicle: VehicleFacts,
    /// The job.
    pub job: NewJob,
}

/// Facts over a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveVehicle {
    /// Version the edit is based on.
    pub version: i32,
    /// The whole of it.
    pub facts: VehicleFacts,
}

/// Everything on one ticket.
#[derive(Debug, Serialize, ToSchema)]
pub struct Ticket {
    /// The job.
    pub job: Job,
    /// Its vehicle.
    pub vehicle: Vehicle,
    /// Unloaded tyre diameter, mm.
    pub tyre_diameter_mm: f64,
    /// Every reading, oldest first.
    pub readings: Vec<Reading>,
    /// Its notes, oldest first.
    pub notes: Vec<Note>,
    /// Its plans, oldest first.
    pub plans: Vec<Plan>,
    /// What was done of the plans' sheets.
    pub done: Vec<Done>,
    /// Visits with their prepare lists, order and suspicions.
    pub visits: Vec<VisitView>,
    /// Readings a plan still waits for, e.g. `left caster`.
    pub missing: Vec<Said>,
    /// What a plan is computed from; each axle once its points are known and it was read.
    pub base: CarBase,
    /// Where work for other plans left the adjusters each plan starts from; only plans that start elsewhere than as found.
    pub turned: Vec<TurnedBefore>,
    /// Its tyres as the forecast takes them, done at the limit of the plan that is the one to set.
    pub tyres: CarTyres,
    /// How it stands as found.
    pub found: Stance,
    /// How it stood when it was read after settling.
    pub settled: Stance,
    /// What its corner file is asked with.
    pub corner_file: CornerFileRequest,
}

fn under(prefix: &str, found: Vec<Problem>) -> Vec<Problem> {
    found.into_iter().map(|p| Problem { field: format!("{prefix}.{}", p.field), ..p }).collect()
}

/// Jobs, bays first, then waiting, newest first.
#[utoipa::path(get, path = "/api/v1/jobs", operation_id = "listJobs", params(Page),
    responses((status = 200, body = Vec<JobLine>), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs")]
pub async fn list(state: Here, page: web::Query<Page>) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    let limit = page.limit.unwrap_or(100);
    in_range("limit", f64::from(limit), 1.0, 200.0, "jobs")?;
    let find = page.find.as_deref().map(str::trim).filter(|f| !f.is_empty());
    if find.is_some_and(|f| f.chars().count() > 80 || f.contains('\0')) {
        return Err(Problem::new(
            "find",
            said("fault-longer-than-80-characters-not"),
            said("fault-few-letters"),
        )
        .into());
    }
    let which = match (page.archived, page.closed) {
        (Some(true), _) => Which::Archived,
        (_, Some(true)) => Which::Closed,
        _ => Which::Open,
    };
    let sort = page.sort.unwrap_or_default();
    let asked = job::Asked { after: page.after, find, which, kind: page.kind, stage: page.stage, sort };
    Ok(HttpResponse::Ok().json(job::list(&mut tx, asked, limit.into()).await?))
}

/// Takes in a vehicle with its job.
#[utoipa::path(post, path = "/api/v1/jobs", operation_id = "createJob", request_body = NewArrival,
    responses((status = 201, body = Ticket), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs")]
pub async fn create(state: Here, Doc(new): Doc<NewArrival>, once: Once) -> Result<HttpResponse, ApiError> {
    let mut problems = under("vehicle", new.vehicle.problems());
    problems.extend(ticket_problems(&new.job));
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let shop = state.shop.id;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let v = vehicle::insert(&mut tx, shop, &new.vehicle).await?;
    let id = job::insert(&mut tx, shop, v, &new.job).await?;
    event::record(&mut tx, shop, Some(id), state.name(), "arrived", serde_json::json!({})).await?;
    let t = ticket(&state, &mut tx, id).await?;
    once.answer(tx, StatusCode::CREATED, &t).await
}

/// Everything on one ticket.
#[utoipa::path(get, path = "/api/v1/jobs/{id}", operation_id = "getJob", params(("id" = Uuid, Path)),
    responses((status = 200, body = Ticket), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}")]
pub async fn get(state: Here, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    Ok(HttpResponse::Ok().json(ticket(&state, &mut tx, *id).await?))
}

/// Saves a vehicle's facts.
#[utoipa::path(put, path = "/api/v1/jobs/{id}/vehicle", operation_id = "saveVehicle", params(("id" = Uuid, Path)), request_body = SaveVehicle,
    responses((status = 200, body = Ticket), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/jobs/{id}/vehicle")]
pub async fn save_vehicle(
    state: Here,
    id: web::Path<Uuid>,
    Doc(s): Doc<SaveVehicle>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let problems = under("facts", s.facts.problems());
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let shop = state.shop.id;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let j = job::get(&mut tx, *id).await?;
    vehicle::update(&mut tx, j.vehicle_id, s.version, &s.facts).await?;
    job::reach_stage(&mut tx, j.id, Stage::Read).await?;
    event::record(
        &mut tx,
        shop,
        Some(j.id),
        state.name(),
        "vehicle saved",
        serde_json::json!({"version": s.version + 1}),
    )
    .await?;
    let t = ticket(&state, &mut tx, j.id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}

/// Where the adjusters stand that a plan starts from.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct TurnedBefore {
    /// The plan.
    pub plan_id: Uuid,
    /// Positions by name of the adjusters that work for other plans turned.
    pub turned: Axles<Sides<BTreeMap<String, f64>>>,
}

/// Reads a whole ticket.
pub async fn ticket(state: &Here, tx: &mut Tx, id: Uuid) -> Result<Ticket, ApiError> {
    let job = job::get(tx, id).await?;
    let vehicle = vehicle::get(tx, job.vehicle_id).await?;
    let readings = reading::of_job(tx, id).await?;
    let done = done::of_job(tx, id).await?;
    let open = visit::of_job(tx, id).await?;
    let now = event::now(tx, id).await?;
    let (visits, base, corner_file) = {
        let bench = JobBench::of(state.rules(), &vehicle.facts, &readings, &done, &open, now)?
            .of_job(job.kind, &job.aftercare);
        let base = base_of(&vehicle.facts, &readings, &done, &bench.seen);
        (bench.views(), base, corner_request(&vehicle.facts, &readings, &bench.seen)?)
    };
    let stood = |visit| stance_at(&vehicle.facts, &readings, visit);
    let (found, settled) = (stood(Visit::Found), stood(Visit::Settled));
    let plans = plan::of_job(tx, id).await?;
    let notes = note::of_job(tx, id).await?;
    let chosen = plans.iter().find(|p| Some(p.id) == job.plan_id);
    let limit_mm = chosen.map_or(USUAL_LIMIT_MM, |p| p.document.limit_mm);
    let turned = plans
        .iter()
        .map(|p| TurnedBefore { plan_id: p.id, turned: turned_before(&done, p.id) })
        .filter(|t| t.turned != Axles::default())
        .collect();
    let missing = visits.first().map(|v| v.picture.missing.clone()).unwrap_or_default();
    Ok(Ticket {
        tyre_diameter_mm: TyreSize::parse("tyre_size", &vehicle.facts.tyre_size)?.diameter_mm(),
        tyres: tyres_of(&vehicle.facts, limit_mm),
        notes,
        plans,
        done,
        job,
        vehicle,
        readings,
        visits,
        missing,
        base,
        turned,
        found,
        settled,
        corner_file,
    })
}

/// What is wrong with what a ticket says, by field under `job`.
#[must_use]
pub fn ticket_problems(j: &NewJob) -> Vec<Problem> {
    let mut out = Vec::new();
    if j.complaint.chars().count() > 500 {
        let wrong = said("fault-longer-than-500-characters");
        out.push(Problem::new("job.complaint", wrong, said("fault-wish-few-words")));
    }
    if j.bay.is_some_and(|b| !(1..=99).contains(&b)) {
        out.push(Problem::new("job.bay", said("fault-no-bay"), said("fault-number-from-1-99-none")));
    }
    if j.plate.chars().count() > 20 {
        out.push(Problem::new("job.plate", said("fault-plate"), said("fault-plate-right")));
    }
    if let Some(km) = j.odometer_km {
        out.extend(in_range("job.odometer_km", km, 0.0, 5e6, "km").err());
    }
    out
}
