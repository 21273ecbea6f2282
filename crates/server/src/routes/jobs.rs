//! Jobs and their vehicles.

use super::compute::{steering_problem, travel_problems};
use super::{AUTHOR, Doc};
use crate::AppState;
use crate::bench::{JobBench, VisitView};
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, get, post, put, web};
use bold_stance_core::fit::Doubt;
use bold_stance_core::geometry::{Axle, Side};
use bold_stance_core::metrics::RearRead;
use bold_stance_core::part::{adjuster_problems, adjusters_not_there};
use bold_stance_core::plan::{Aim, PlanInput, SideReadings};
use bold_stance_core::problem::{Problem, in_range};
use bold_stance_core::reading::{Place, Quantity, ReadAxle, ReadSide, Seen, Visit, toe_of};
use bold_stance_core::vehicle::{Measured, TyreSize};
use bold_stance_store::done::{self, Done};
use bold_stance_store::job::{self, Job, JobLine, NewJob, Stage};
use bold_stance_store::plan::{self, Plan};
use bold_stance_store::reading::{self, Reading, standing};
use bold_stance_store::vehicle::{self, Vehicle, VehicleFacts};
use bold_stance_store::{Tx, event, visit};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// Page of a list.
#[derive(Debug, Deserialize, utoipa::IntoParams)]
#[serde(deny_unknown_fields)]
pub struct Page {
    /// Only those waiting with a ticket below this one: the next page.
    pub before: Option<i32>,
    /// Only those whose vehicle, ticket or complaint holds this.
    #[param(max_length = 80)]
    pub find: Option<String>,
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
    /// Its plans, oldest first.
    pub plans: Vec<Plan>,
    /// What was done of the plans' sheets.
    pub done: Vec<Done>,
    /// Visits with their prepare lists, order and suspicions.
    pub visits: Vec<VisitView>,
    /// Readings a plan still waits for, e.g. `left caster`.
    pub missing: Vec<String>,
    /// What a plan is computed from, once nothing is missing.
    pub base: Option<PlanInput>,
    /// The same of the rear axle, once its points are known and heights, camber and toe were read.
    pub rear_base: Option<PlanInput>,
    /// Left and right rear wheel as found, once both were read.
    #[schema(min_items = 2, max_items = 2)]
    pub rear_read: Option<[RearRead; 2]>,
}

/// What is wrong with a vehicle's facts.
pub fn fact_problems(f: &VehicleFacts) -> Vec<Problem> {
    let mut out = Vec::new();
    let name = f.name.trim();
    if name.is_empty() || name.chars().count() > 120 {
        let wrong = if name.is_empty() { "nothing was entered" } else { "longer than 120 characters" };
        out.push(Problem::new("name", wrong, "what the shop calls it"));
    }
    out.extend(TyreSize::parse("tyre_size", &f.tyre_size).err());
    for (field, v, low, high, unit) in [
        ("wheelbase_mm", f.wheelbase_mm, 1000.0, 8000.0, "mm"),
        ("track_front_mm", f.track_front_mm, 800.0, 2600.0, "mm"),
        ("track_rear_mm", f.track_rear_mm, 800.0, 2600.0, "mm"),
        ("tread_depth_mm", f.tread_depth_mm, 2.0, 25.0, "mm"),
        ("front_load_n", f.front_load_n, 500.0, 40_000.0, "N"),
        ("pressure_kpa", f.pressure_kpa, 50.0, 900.0, "kPa"),
        ("placard_kpa", f.placard_kpa, 50.0, 900.0, "kPa"),
        ("design_height_mm", f.design_height_mm, 150.0, 1200.0, "mm"),
        ("rear_height_mm", f.rear_height_mm, 150.0, 1200.0, "mm"),
    ] {
        out.extend(in_range(field, v, low, high, unit).err());
    }
    out.extend(under("geometry", f.geometry.problems()));
    if let Some(r) = &f.rear_geometry {
        out.extend(under("rear_geometry", r.problems()));
        if r.axle != Axle::Rear {
            out.push(Problem::new("rear_geometry.axle", "a front axle", "\"rear\""));
        }
    }
    if f.geometry.axle != Axle::Front {
        out.push(Problem::new("geometry.axle", "a rear axle", "\"front\""));
    }
    let rear_size = f.car.wear.rear_tyre_size.as_deref().unwrap_or(&f.tyre_size);
    let shapes = [
        ("geometry", Some(&f.geometry), f.tyre_size.as_str()),
        ("rear_geometry", f.rear_geometry.as_ref(), rear_size),
    ];
    for (at, g, size) in shapes {
        if let (Some(g), Ok(size)) = (g, TyreSize::parse(at, size)) {
            let field = format!("{at}.wheel.loaded_radius_mm");
            out.extend(size.loaded_radius_problem(&field, g.wheel.loaded_radius_mm));
        }
    }
    out.extend(f.car.problems("car."));
    out.extend(adjuster_problems(&f.adjusters));
    if out.is_empty() {
        out.extend(travel_problems(&f.geometry, "geometry."));
        out.extend(f.rear_geometry.iter().flat_map(|r| travel_problems(r, "rear_geometry.")));
    }
    if out.is_empty() {
        out.extend(steering_problem(&f.geometry, "geometry."));
    }
    if !out.is_empty() {
        return out;
    }
    out.extend(adjusters_not_there(&f.adjusters, &f.geometry.points));
    if let Some(r) = &f.rear_geometry {
        for p in adjusters_not_there(&f.car.rear_adjusters, &r.points) {
            out.push(Problem::new(format!("car.rear_{}", p.field), p.wrong, p.right));
        }
    }
    out
}

fn under(prefix: &str, found: Vec<Problem>) -> Vec<Problem> {
    found
        .into_iter()
        .map(|mut p| {
            p.field = format!("{prefix}.{}", p.field);
            p
        })
        .collect()
}

/// Jobs, bays first, then waiting, newest first.
#[utoipa::path(get, path = "/api/v1/jobs", operation_id = "listJobs", params(Page), responses((status = 200, body = Vec<JobLine>)))]
#[get("/api/v1/jobs")]
pub async fn list(state: web::Data<AppState>, page: web::Query<Page>) -> Result<HttpResponse, ApiError> {
    let mut tx = state.store.tx(state.shop.id).await?;
    let limit = page.limit.unwrap_or(100);
    in_range("limit", f64::from(limit), 1.0, 200.0, "jobs")?;
    let find = page.find.as_deref().map(str::trim).filter(|f| !f.is_empty());
    if find.is_some_and(|f| f.chars().count() > 80 || f.contains('\0')) {
        return Err(Problem::new("find", "longer than 80 characters, or not text", "a few letters").into());
    }
    let asked = job::Asked { before: page.before, find };
    Ok(HttpResponse::Ok().json(job::list(&mut tx, asked, limit.into()).await?))
}

/// Takes in a vehicle with its job.
#[utoipa::path(post, path = "/api/v1/jobs", operation_id = "createJob", request_body = NewArrival,
    responses((status = 201, body = Ticket), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs")]
pub async fn create(
    state: web::Data<AppState>,
    Doc(new): Doc<NewArrival>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut problems = under("vehicle", fact_problems(&new.vehicle));
    if new.job.complaint.chars().count() > 500 {
        problems.push(Problem::new("job.complaint", "longer than 500 characters", "the wish in a few words"));
    }
    if new.job.bay.is_some_and(|b| !(1..=99).contains(&b)) {
        problems.push(Problem::new("job.bay", "no such bay", "a number from 1 to 99, or none"));
    }
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
    event::record(&mut tx, shop, Some(id), AUTHOR, "arrived", serde_json::json!({})).await?;
    let t = ticket(&state, &mut tx, id).await?;
    once.answer(tx, StatusCode::CREATED, &t).await
}

/// Everything on one ticket.
#[utoipa::path(get, path = "/api/v1/jobs/{id}", operation_id = "getJob", params(("id" = Uuid, Path)),
    responses((status = 200, body = Ticket), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}")]
pub async fn get(state: web::Data<AppState>, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let mut tx = state.store.tx(state.shop.id).await?;
    Ok(HttpResponse::Ok().json(ticket(&state, &mut tx, *id).await?))
}

/// Saves a vehicle's facts.
#[utoipa::path(put, path = "/api/v1/jobs/{id}/vehicle", operation_id = "saveVehicle", params(("id" = Uuid, Path)), request_body = SaveVehicle,
    responses((status = 200, body = Ticket), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/jobs/{id}/vehicle")]
pub async fn save_vehicle(
    state: web::Data<AppState>,
    id: web::Path<Uuid>,
    Doc(s): Doc<SaveVehicle>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let problems = under("facts", fact_problems(&s.facts));
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
        AUTHOR,
        "vehicle saved",
        serde_json::json!({"version": s.version + 1}),
    )
    .await?;
    let t = ticket(&state, &mut tx, j.id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}

/// Reads a whole ticket.
pub async fn ticket(state: &AppState, tx: &mut Tx, id: Uuid) -> Result<Ticket, ApiError> {
    let job = job::get(tx, id).await?;
    let vehicle = vehicle::get(tx, job.vehicle_id).await?;
    let readings = reading::of_job(tx, id).await?;
    let done = done::of_job(tx, id).await?;
    let open = visit::of_job(tx, id).await?;
    let (visits, base, rear_base, rear_read) = {
        let bench = JobBench::of(state, &vehicle.facts, &readings, &done, &open)?;
        let aim = state.aims.first().cloned();
        (
            bench.views(&open),
            aim.clone().and_then(|a| base(&vehicle.facts, &readings, &bench.seen, a, Axle::Front)),
            aim.and_then(|a| base(&vehicle.facts, &readings, &bench.seen, a, Axle::Rear)),
            rear_read(&bench.seen, &readings),
        )
    };
    let missing = visits.first().map(|v| v.picture.missing.clone()).unwrap_or_default();
    Ok(Ticket {
        tyre_diameter_mm: TyreSize::parse("tyre_size", &vehicle.facts.tyre_size)?.diameter_mm(),
        plans: plan::of_job(tx, id).await?,
        done,
        job,
        vehicle,
        readings,
        visits,
        missing,
        base,
        rear_base,
        rear_read,
    })
}

/// Rear wheels as found, for the corner file.
fn rear_read(seen: &[Seen], readings: &[Reading]) -> Option<[RearRead; 2]> {
    let side = |s: Side| {
        let camber = standing(readings, Visit::Found, Quantity::Camber, Place::wheel(Axle::Rear, s))?;
        let (toe_deg, toe_sigma_deg, _) = toe_of(seen, Visit::Found, Axle::Rear, s)?;
        Some(RearRead { camber_deg: camber.value, toe_deg, camber_sigma_deg: camber.sigma, toe_sigma_deg })
    };
    Some([side(Side::Left)?, side(Side::Right)?])
}

/// What a plan of one axle is computed from, once its readings are there.
fn base(f: &VehicleFacts, readings: &[Reading], seen: &[Seen], aim: Aim, axle: Axle) -> Option<PlanInput> {
    let front = axle == Axle::Front;
    let side = |s: Side| {
        let r = |q| standing(readings, Visit::Found, q, Place::wheel(axle, s));
        let (h, camber) = (r(Quantity::Height)?, r(Quantity::Camber)?);
        let (toe_deg, toe_sigma, _) = toe_of(seen, Visit::Found, axle, s)?;
        let caster = if front { Some(r(Quantity::Caster)?) } else { None };
        let caster_deg = caster.map_or(0.0, |c| c.value);
        let sigma = caster.map_or(0.0, |c| c.sigma);
        Some(SideReadings {
            height_mm: h.value,
            angles: Measured { camber_deg: camber.value, caster_deg, toe_deg },
            sigma: Doubt { camber_deg: camber.sigma, caster_deg: sigma, toe_deg: toe_sigma },
        })
    };
    let sides = [side(Side::Left)?, side(Side::Right)?];
    let c = &f.car;
    let (geometry, height, adjusters, mut limits, shaft, knowledge) = if front {
        let g = f.geometry.clone();
        (g, f.design_height_mm, f.adjusters.clone(), c.limits, c.front_shaft_inner, f.knowledge)
    } else {
        let g = f.rear_geometry.clone()?;
        (g, f.rear_height_mm, c.rear_adjusters.clone(), c.rear_limits, c.rear_shaft_inner, f.rear_knowledge)
    };
    limits.shaft_inner = limits.shaft_inner.or(shaft);
    let mut tyre_gain_mm = [c.front_tyre_gain_mm, c.rear_tyre_gain_mm];
    if !front {
        tyre_gain_mm.reverse();
    }
    let at = Place { axle: if front { ReadAxle::Front } else { ReadAxle::Rear }, side: ReadSide::Both };
    let offset = standing(readings, Visit::Found, Quantity::AxleOffset, at);
    Some(PlanInput {
        axle_offset_mm: offset.map(|r| r.value),
        knowledge,
        limits,
        tyre_gain_mm,
        levels: c.levels.clone(),
        lock_deg: c.lock_deg,
        ..PlanInput::unchanged(geometry, f.wheelbase_mm, height, adjusters, sides, aim)
    })
}
