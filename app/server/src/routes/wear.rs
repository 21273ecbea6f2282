//! Tread: the forecast of all four tyres, diagnosis, and the tread log of a job's vehicle.

use super::{CSV, Doc, attachment};
use crate::catalogue::Shelf;
use crate::once::{Begun, Once, again};
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use crate::speech::TableUnits;
use crate::who::Here;
use crate::workbook::{XLSX, table_in, workbook};
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, get, post, web};
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_store::tread::{self, StoredTyre};
use bold_stance_store::{Tx, event, job, vehicle};
use bold_stance_trade::inspect::comes_first;
use bold_stance_trade::plan::{
    Budget, CarAnswer, CarBase, CarInput, CarPlan, OtherAnswer, plan_car_within, scenes_of,
};
use bold_stance_tread::{
    AskedTyre, AxlePatches, AxleSetting, Bend, CarTyres, CarWear, Diagnosis, DiagnosisData, LogEntry,
    LogUnits, LogWarning, LoggedTyre, Seen, TreadLimit, TreadLog, axle_patches, car_wear, diagnose, known,
    log_from_csv, log_to_csv, place_warnings, pressed_over, shipped_diagnosis, shipped_limits,
};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;
use uuid::Uuid;

/// Another plan of the same car to compare with.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OtherPlan {
    /// What it is called.
    pub name: String,
    /// What it decides.
    pub plan: CarPlan,
    /// Where work for other plans left the adjusters it starts from; as found when absent.
    #[serde(default)]
    pub turned: Axles<Sides<BTreeMap<String, f64>>>,
}

/// Everything a forecast hangs on.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CarWearRequest {
    /// The car and its plan.
    pub car: CarInput,
    /// A second plan.
    #[serde(default)]
    pub other: Option<OtherPlan>,
    /// The tyres.
    pub tyres: CarTyres,
    /// Their logs.
    #[serde(default)]
    pub log: TreadLog,
}

/// What was seen.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DiagnoseRequest {
    /// Answers pressed, by question; they stand over what the job knows.
    pub seen: Seen,
    /// Questions whose known answer was taken out.
    #[serde(default)]
    pub taken_out: Vec<String>,
    /// The tyre asked about, as the job tells it.
    #[serde(default)]
    pub asked: Option<AskedTyre>,
    /// Inner, centre and outer main groove as last read, mm: they stand in for the pattern where none was pressed.
    #[serde(default)]
    #[schema(min_items = 3, max_items = 3)]
    pub depths_mm: Option<[f64; 3]>,
}

/// What comes of it, and what the job knew already.
#[derive(Debug, Serialize, ToSchema)]
pub struct DiagnosisAnswer {
    /// Answers the job gives by itself, taken out or not.
    pub known: Seen,
    /// Causes, ranked.
    #[serde(flatten)]
    pub diagnosis: Diagnosis,
}

/// Questions, causes and limits.
#[derive(Debug, Serialize, ToSchema)]
pub struct WearData {
    /// Rules of diagnosis.
    pub diagnosis: DiagnosisData,
    /// Tread limits by region.
    pub limits: Vec<TreadLimit>,
}

/// The tread log of a job's vehicle.
#[derive(Debug, Serialize, ToSchema)]
pub struct TreadView {
    /// Tyres with the lines that stand.
    pub tyres: Vec<StoredTyre>,
    /// The same as the forecast takes it.
    pub log: TreadLog,
    /// What does not agree, before any forecast.
    pub warnings: Vec<LogWarning>,
}

/// A line to write.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewLine {
    /// Serial or chalk mark; a new one makes a new tyre.
    pub mark: String,
    /// Depth when new, mm.
    #[serde(default)]
    pub new_depth_mm: Option<f64>,
    /// What it says.
    pub entry: LogEntry,
    /// The line it corrects.
    #[serde(default)]
    pub replaces: Option<Uuid>,
}

/// A line to strike out.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct StrikeLine {
    /// Which.
    pub id: Uuid,
}

/// The forecast of every tyre of a planned car.
#[utoipa::path(post, path = "/api/v1/wear", operation_id = "forecastWear", request_body = CarWearRequest,
    responses((status = 200, body = CarWear), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/wear")]
pub async fn forecast(
    state: Here,
    peer: Peer,
    Doc(r): Doc<CarWearRequest>,
) -> Result<HttpResponse, ApiError> {
    let shelf = state.shelf().await?;
    let wear = state.pool.run(&peer, move |budget| worn(&r, &shelf, budget)).await??;
    Ok(HttpResponse::Ok().json(wear))
}

fn worn(r: &CarWearRequest, shelf: &Shelf, budget: &Budget) -> Result<CarWear, Vec<Problem>> {
    let answer = |car: &CarInput, at: &str| -> Result<CarAnswer, Vec<Problem>> {
        // Only what is fitted: the rest of the catalogue says nothing about wear.
        let parts = shelf.only(car);
        // Each plan of the forecast has a budget of its own; all end with the request.
        plan_car_within(car, &parts, &budget.another()).map_err(|list| {
            let under = |p: Problem| Problem { field: format!("{at}.{}", p.field), ..p };
            list.into_iter().map(under).collect()
        })
    };
    let own = answer(&r.car, "car")?;
    let other = match &r.other {
        None => None,
        Some(o) => {
            let base = CarBase { turned: o.turned.clone(), ..r.car.base.clone() };
            let car = CarInput { base, plan: o.plan.clone() };
            Some((o.name.as_str(), answer(&car, "other")?.axles))
        }
    };
    let second =
        other.as_ref().map(|(name, axles)| OtherAnswer { name, axles: axles.as_ref().map(Option::as_ref) });
    let scenes = scenes_of(own.axles.as_ref().map(Option::as_ref), second, &r.tyres.heights);
    // A forecast over a loose joint or showing cords says so before any distance.
    Ok(CarWear { first: comes_first(&r.car.base.inspected), ..car_wear(&r.tyres, &scenes, &r.log)? })
}

/// Rules of diagnosis and tread limits.
#[utoipa::path(get, path = "/api/v1/wear-data", operation_id = "wearData", responses((status = 200, body = WearData)))]
#[get("/api/v1/wear-data")]
pub async fn data() -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(WearData { diagnosis: shipped_diagnosis()?, limits: shipped_limits()? }))
}

/// Causes of what was seen, likeliest first.
#[utoipa::path(post, path = "/api/v1/diagnose", operation_id = "diagnose", request_body = DiagnoseRequest,
    responses((status = 200, body = DiagnosisAnswer), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/diagnose")]
pub async fn diagnosis(Doc(r): Doc<DiagnoseRequest>) -> Result<HttpResponse, ApiError> {
    let asked = r.asked.iter().flat_map(AskedTyre::problems);
    let faults: Vec<Problem> = asked.map(|p| Problem { field: format!("asked.{}", p.field), ..p }).collect();
    if !faults.is_empty() {
        return Err(faults.into());
    }
    let known = r.asked.as_ref().map(known).unwrap_or_default();
    let seen = pressed_over(&known, &r.seen, &r.taken_out);
    let diagnosis = diagnose(&shipped_diagnosis()?, &seen, r.depths_mm)?;
    Ok(HttpResponse::Ok().json(DiagnosisAnswer { known, diagnosis }))
}

fn logged(tyres: &[StoredTyre], set_at_km: Option<f64>) -> TreadLog {
    let tyres = tyres.iter().filter(|t| !t.lines.is_empty()).map(StoredTyre::logged).collect();
    TreadLog { tyres, set_at_km }
}

/// The tread log of a vehicle.
pub(super) async fn log_of(tx: &mut Tx, vehicle: Uuid) -> Result<TreadLog, ApiError> {
    let set_at_km = vehicle::get(tx, vehicle).await?.facts.car.wear.set_at_km;
    Ok(logged(&tread::of_vehicle(tx, vehicle).await?, set_at_km))
}

async fn view(tx: &mut Tx, vehicle: Uuid) -> Result<TreadView, ApiError> {
    let facts = vehicle::get(tx, vehicle).await?.facts;
    let tyres = tread::of_vehicle(tx, vehicle).await?;
    let log = logged(&tyres, facts.car.wear.set_at_km);
    let new_depth = facts.tyre_class.constants().2.max(facts.tread_depth_mm);
    let mut warnings = place_warnings(&log);
    warnings.extend(log.tyres.iter().flat_map(|t| t.warnings(t.new_depth_mm.unwrap_or(new_depth))));
    Ok(TreadView { tyres, log, warnings })
}

/// The tread log of a job's vehicle.
#[utoipa::path(get, path = "/api/v1/jobs/{id}/tread", operation_id = "treadLog", params(("id" = Uuid, Path)),
    responses((status = 200, body = TreadView), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}/tread")]
pub async fn tread_log(state: Here, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    let job = job::get(&mut tx, *id).await?;
    Ok(HttpResponse::Ok().json(view(&mut tx, job.vehicle_id).await?))
}

/// Writes a line of a tyre's log, or corrects one.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/tread", operation_id = "writeTread", params(("id" = Uuid, Path)), request_body = NewLine,
    responses((status = 201, body = TreadView), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/tread")]
pub async fn write(
    state: Here,
    id: web::Path<Uuid>,
    Doc(l): Doc<NewLine>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mark = l.mark.trim().to_owned();
    let asked =
        LoggedTyre { mark: mark.clone(), new_depth_mm: l.new_depth_mm, entries: vec![l.entry.clone()] };
    let mut problems = asked.problems("line");
    if l.entry.note.chars().count() > 200 {
        problems.push(Problem::new(
            "line.entries.0.note",
            said("fault-longer-than-200-characters"),
            said("fault-short-remark"),
        ));
    }
    if !problems.is_empty() {
        let short = |p: Problem| {
            let field = p.field.trim_start_matches("line.").trim_start_matches("entries.0.").to_owned();
            Problem { field, ..p }
        };
        return Err(problems.into_iter().map(short).collect::<Vec<_>>().into());
    }
    let shop = state.shop.id;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let job = job::get(&mut tx, *id).await?;
    let tyre = tread::tyre(&mut tx, shop, job.vehicle_id, &mark, l.new_depth_mm).await?;
    tread::write(&mut tx, shop, tyre, &l.entry, l.replaces, state.name()).await?;
    let what = if l.replaces.is_some() { "tread corrected" } else { "tread read" };
    event::record(&mut tx, shop, Some(*id), state.name(), what, serde_json::json!({"tyre": mark})).await?;
    let v = view(&mut tx, job.vehicle_id).await?;
    once.answer(tx, StatusCode::CREATED, &v).await
}

/// Strikes a line out.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/tread/strike", operation_id = "strikeTread", params(("id" = Uuid, Path)), request_body = StrikeLine,
    responses((status = 200, body = TreadView), (status = 404, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/tread/strike")]
pub async fn strike(
    state: Here,
    id: web::Path<Uuid>,
    Doc(s): Doc<StrikeLine>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let shop = state.shop.id;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let job = job::get(&mut tx, *id).await?;
    tread::strike(&mut tx, shop, job.vehicle_id, s.id, state.name()).await?;
    event::record(
        &mut tx,
        shop,
        Some(*id),
        state.name(),
        "tread struck out",
        serde_json::json!({"line": s.id}),
    )
    .await?;
    let v = view(&mut tx, job.vehicle_id).await?;
    once.answer(tx, StatusCode::OK, &v).await
}

/// A job's ticket and the tread log of its vehicle as a table, in the units asked for.
async fn table_of(state: &Here, id: Uuid, asked: &TableUnits) -> Result<(i32, String), ApiError> {
    let mut tx = state.tx().await?;
    let job = job::get(&mut tx, id).await?;
    let units = asked.units();
    let units = LogUnits { tread: units.tread, distance: units.distance };
    Ok((job.ticket, log_to_csv(&view(&mut tx, job.vehicle_id).await?.log, units)?))
}

/// The tread log as CSV.
#[utoipa::path(get, path = "/api/v1/jobs/{id}/tread.csv", operation_id = "exportTread", params(("id" = Uuid, Path), TableUnits),
    responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}/tread.csv")]
pub async fn export(
    state: Here,
    id: web::Path<Uuid>,
    asked: web::Query<TableUnits>,
) -> Result<HttpResponse, ApiError> {
    let (ticket, text) = table_of(&state, *id, &asked).await?;
    Ok(attachment(&format!("tread-{ticket:04}.csv"), CSV, text))
}

/// The tread log of a job's vehicle as a workbook.
#[utoipa::path(get, path = "/api/v1/jobs/{id}/tread.xlsx", operation_id = "exportTreadXlsx", params(("id" = Uuid, Path), TableUnits),
    responses((status = 200, body = Vec<u8>, content_type = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}/tread.xlsx")]
pub async fn export_xlsx(
    state: Here,
    id: web::Path<Uuid>,
    asked: web::Query<TableUnits>,
) -> Result<HttpResponse, ApiError> {
    let (ticket, text) = table_of(&state, *id, &asked).await?;
    Ok(attachment(&format!("tread-{ticket:04}.xlsx"), XLSX, workbook("Tread", &text)?))
}

/// Lines from CSV into the log: all or none; lines that are there already are left as they are.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/tread.csv", operation_id = "importTread", params(("id" = Uuid, Path)),
    request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = TreadView), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/tread.csv")]
pub async fn import(
    state: Here,
    id: web::Path<Uuid>,
    body: Result<web::Bytes, actix_web::Error>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let body = body.map_err(|_| ApiError::TooLarge)?;
    let once = once.of(&body);
    let read = log_from_csv(&table_in(&body)?)?;
    let shop = state.shop.id;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let job = job::get(&mut tx, *id).await?;
    let known = tread::of_vehicle(&mut tx, job.vehicle_id).await?;
    let mut new = 0;
    for t in &read.tyres {
        let tyre = tread::tyre(&mut tx, shop, job.vehicle_id, &t.mark, t.new_depth_mm).await?;
        let there = known.iter().find(|k| k.mark == t.mark);
        for e in &t.entries {
            if !there.is_some_and(|k| k.lines.iter().any(|l| l.entry == *e)) {
                tread::write(&mut tx, shop, tyre, e, None, state.name()).await?;
                new += 1;
            }
        }
    }
    event::record(&mut tx, shop, Some(*id), state.name(), "tread imported", serde_json::json!({"new": new}))
        .await?;
    let v = view(&mut tx, job.vehicle_id).await?;
    once.answer(tx, StatusCode::OK, &v).await
}

/// Settings of an axle in one bend.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PatchRequest {
    /// The car's tyres.
    pub tyres: CarTyres,
    /// Which axle.
    pub axle: Axle,
    /// How it is set, one after the other; at most eight.
    pub settings: Vec<AxleSetting>,
    /// The bend.
    pub bend: Bend,
}

/// Contact patches of settings compared: straight ahead, outside and inside a bend.
#[utoipa::path(post, path = "/api/v1/contact-patches", operation_id = "contactPatches", request_body = PatchRequest,
    responses((status = 200, body = Vec<AxlePatches>), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/contact-patches")]
pub async fn patches(Doc(r): Doc<PatchRequest>) -> Result<HttpResponse, ApiError> {
    if r.settings.len() > 8 {
        let wrong = said("fault-too-many");
        return Err(Problem::new("settings", wrong, said("fault-shorter-list")).into());
    }
    // Without a setting there is nothing to draw, and what is wrong is told all the same.
    let faults: Vec<Problem> = r.tyres.problems().into_iter().chain(r.bend.problems()).collect();
    if !faults.is_empty() {
        return Err(faults.into());
    }
    let each = r.settings.iter().map(|s| axle_patches(&r.tyres, r.axle, s, &r.bend));
    let all: Result<Vec<AxlePatches>, Vec<Problem>> = each.collect();
    Ok(HttpResponse::Ok().json(all?))
}
