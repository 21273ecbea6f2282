//! Plans: saved, renamed, duplicated, removed; their sheets, and what was done of them.

use super::{Doc, jobs};
use crate::catalogue::Shelf;
use crate::once::{Begun, Once, again};
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, delete, get, post, put, web};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_people::Act;
use bold_stance_store::job::{self, Stage};
use bold_stance_store::plan::{self, Plan};
use bold_stance_store::{Tx, done, event, vehicle, visit};
use bold_stance_trade::job::{
    AsDone, Done, JobBench, Sheet, as_it_settled, as_turned_before, loops_of, mark_step, sheet_of,
    turned_again,
};
use bold_stance_trade::plan::{
    CarInput, CarPlan, JackAim, OnJack, car_fitted_parts, on_jack, plan_car_within,
};
use bold_stance_trade::prove::left_to_turn;
use bold_stance_trade::sheet::{Mark, StepId};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use bold_stance_units::{LengthUnit, parse_angle_deg, parse_length_mm};
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// A plan to store.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewPlan {
    /// What it is called.
    pub name: String,
    /// What was decided; a plan that changes nothing yet, with the shop's first aim, when absent.
    #[serde(default)]
    pub document: Option<CarPlan>,
}

/// A plan over a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SavePlan {
    /// Version the edit is based on.
    pub version: i32,
    /// What it is called.
    pub name: String,
    /// What was decided.
    pub document: CarPlan,
}

/// A step done or not.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MarkStep {
    /// Which step, or tick at a gate.
    pub step: Mark,
    /// Done or taken back.
    pub done: bool,
    /// Why a gate is opened although something is off.
    #[serde(default)]
    pub reason: Option<String>,
    /// Who stands for a gate that is opened against what is off, and for the proved car.
    #[serde(default)]
    pub signed: Option<String>,
    /// What of the step's orders was done otherwise; the rest was done as ordered.
    #[serde(default)]
    pub as_done: Vec<AsDone>,
}

/// What was left to turn on an axle, turned.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TurnedAgain {
    /// Which axle.
    pub axle: Axle,
    /// What of the orders was done otherwise; the rest was done as ordered.
    #[serde(default)]
    pub as_done: Vec<AsDone>,
}

/// What is wrong with a plan of this name.
pub fn problems_of(shelf: &Shelf, name: &str, d: &CarPlan) -> Vec<Problem> {
    let mut out = Vec::new();
    let n = name.trim().chars().count();
    if n == 0 || n > 120 {
        let wrong = said(if n == 0 { "nothing-entered" } else { "fault-longer-than-120-characters" });
        out.push(Problem::new("name", wrong, said("fault-name-up-120-characters")));
    }
    out.extend(d.problems("document."));
    for (axle, p) in d.axles.each() {
        for (i, id) in p.fitted.iter().enumerate() {
            let is =
                |p: &bold_stance_trade::part::Part| p.id == *id || p.variants().iter().any(|v| v.id == *id);
            if !shelf.parts.iter().any(|s| is(&s.part)) {
                let field = format!("document.axles.{}.fitted.{i}", axle.word());
                out.push(Problem::new(
                    field,
                    said("fault-no-part-id").name("id", id.clone()),
                    said("fault-part-catalogue"),
                ));
            }
        }
    }
    out
}

async fn check(state: &Here, name: &str, d: &CarPlan) -> Result<(), ApiError> {
    let out = problems_of(&*state.shelf().await?, name, d);
    if out.is_empty() { Ok(()) } else { Err(out.into()) }
}

async fn answer(
    state: &Here,
    id: Uuid,
    what: &str,
    mut tx: bold_stance_store::Tx,
    once: &Once,
    status: StatusCode,
) -> Result<HttpResponse, ApiError> {
    let p = plan::get(&mut tx, id).await?;
    let detail = serde_json::json!({"plan": id, "version": p.version});
    event::record(&mut tx, state.shop.id, Some(p.job_id), state.name(), what, detail).await?;
    once.answer(tx, status, &p).await
}

/// Stores a plan.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/plans", operation_id = "createPlan", params(("id" = Uuid, Path)), request_body = NewPlan,
    responses((status = 201, body = Plan), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/plans")]
pub async fn create(
    state: Here,
    id: web::Path<Uuid>,
    Doc(n): Doc<NewPlan>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    if let Some(d) = &n.document {
        check(&state, &n.name, d).await?;
    }
    let mut aims = state.all_aims().await?;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let of = job::get(&mut tx, *id).await?;
    let document = match n.document {
        Some(d) => d,
        None => {
            // What such a car is usually set to, else the first of the shop's aims.
            let usual = vehicle::get(&mut tx, of.vehicle_id).await?.facts.car.usual_aim;
            let at = aims.iter().position(|a| Some(&a.aim.id) == usual.as_ref()).unwrap_or(0);
            let d = CarPlan::unchanged(aims.swap_remove(at).aim);
            check(&state, &n.name, &d).await?;
            d
        }
    };
    let p = plan::insert(&mut tx, state.shop.id, *id, n.name.trim(), &document).await?;
    answer(&state, p, "plan saved", tx, &once, StatusCode::CREATED).await
}

/// Saves a plan over a version.
#[utoipa::path(put, path = "/api/v1/plans/{id}", operation_id = "savePlan", params(("id" = Uuid, Path)), request_body = SavePlan,
    responses((status = 200, body = Plan), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/plans/{id}")]
pub async fn save(
    state: Here,
    id: web::Path<Uuid>,
    Doc(s): Doc<SavePlan>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    check(&state, &s.name, &s.document).await?;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    plan::update(&mut tx, *id, s.version, s.name.trim(), &s.document).await?;
    answer(&state, *id, "plan saved", tx, &once, StatusCode::OK).await
}

/// Duplicates a plan.
#[utoipa::path(post, path = "/api/v1/plans/{id}/copy", operation_id = "copyPlan", params(("id" = Uuid, Path)),
    responses((status = 201, body = Plan), (status = 404, body = ProblemDocument)))]
#[post("/api/v1/plans/{id}/copy")]
pub async fn copy(state: Here, id: web::Path<Uuid>, once: Once) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let p = plan::get(&mut tx, *id).await?;
    let name: String = format!("{} (copy)", p.name).chars().take(120).collect();
    let new = plan::insert(&mut tx, state.shop.id, p.job_id, &name, &p.document).await?;
    answer(&state, new, "plan duplicated", tx, &once, StatusCode::CREATED).await
}

/// Removes a plan.
#[utoipa::path(delete, path = "/api/v1/plans/{id}", operation_id = "removePlan", params(("id" = Uuid, Path)),
    responses((status = 204, description = "Gone"), (status = 404, body = ProblemDocument)))]
#[delete("/api/v1/plans/{id}")]
pub async fn remove(state: Here, id: web::Path<Uuid>, once: Once) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let p = plan::get(&mut tx, *id).await?;
    plan::remove(&mut tx, *id).await?;
    event::record(
        &mut tx,
        state.shop.id,
        Some(p.job_id),
        state.name(),
        "plan removed",
        serde_json::json!({"name": p.name}),
    )
    .await?;
    once.done(tx, StatusCode::NO_CONTENT).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Which plan is the one to set.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ChoosePlan {
    /// Version of the ticket the choice is based on.
    pub version: i32,
    /// The plan.
    pub plan_id: Uuid,
}

/// Chooses the plan of a job that is the one to set. What was done of another plan stays with it.
#[utoipa::path(put, path = "/api/v1/jobs/{id}/plan", operation_id = "choosePlan", params(("id" = Uuid, Path)), request_body = ChoosePlan,
    responses((status = 200, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 409, body = ProblemDocument)))]
#[put("/api/v1/jobs/{id}/plan")]
pub async fn choose(
    state: Here,
    id: web::Path<Uuid>,
    Doc(c): Doc<ChoosePlan>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let was = job::get(&mut tx, *id).await?.plan_id;
    job::choose_plan(&mut tx, *id, c.version, c.plan_id).await?;
    let left = done::of_job(&mut tx, *id).await?.iter().filter(|d| Some(d.plan_id) == was).count();
    let detail = serde_json::json!({"plan": c.plan_id, "before": was, "done_of_it": left});
    event::record(&mut tx, state.shop.id, Some(*id), state.name(), "plan chosen", detail).await?;
    let t = jobs::ticket(&state, &mut tx, *id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}

/// The sheet of a plan, with what it was made from.
pub(super) struct SheetNow {
    pub ticket: jobs::Ticket,
    pub input: CarInput,
    pub sheet: Sheet,
}

/// The sheet of a plan as its job stands.
pub(super) async fn sheet_now(
    state: &Here,
    tx: &mut Tx,
    p: &Plan,
    peer: &Peer,
) -> Result<SheetNow, ApiError> {
    let t = jobs::ticket(state, tx, p.job_id).await?;
    let open = visit::of_job(tx, p.job_id).await?;
    let time = event::now(tx, p.job_id).await?;
    let input = CarInput { base: t.base.clone(), plan: p.document.clone() };
    if input.base.axles.each().iter().all(|(_, b)| b.is_none()) {
        return Err(Problem::new(
            "plan",
            said("fault-job-no-plan-set-yet"),
            said("fault-readings-plan-waits"),
        )
        .into());
    }
    let shelf = state.shelf().await?;
    let parts = shelf.offered(&input.plan.fitted(), &input);
    let bench = JobBench::of(state.rules(), &t.vehicle.facts, &t.readings, &t.done, &open, time)?
        .of_job(t.job.kind, &t.job.aftercare)
        .knowing(shelf.heights_for(&input));
    let done: Vec<&Done> = t.done.iter().filter(|d| d.plan_id == p.id).collect();
    let input = as_turned_before(&t.done, p.id, input);
    let input = as_it_settled(&t.vehicle.facts, &t.readings, &done, input);
    let all: Vec<&Done> = t.done.iter().collect();
    let loops = loops_of(&bench, &t.readings, &all, &input);
    let worked = state.pool.run(peer, move |budget| {
        let answer = plan_car_within(&input, &parts, budget)?;
        let fitted = car_fitted_parts(&input, &parts);
        let left = left_to_turn(&input, &parts, &loops);
        Ok::<_, Vec<Problem>>((input, answer, fitted, left))
    });
    let (input, answer, fitted, left) = worked.await??;
    let judged = sheet_of(&bench, &t.readings, (&done, &t.job.aftercare), &input, answer, &fitted, left);
    Ok(SheetNow { ticket: t, input, sheet: judged })
}

/// The setting sheet of a plan: every step, and every gate judged on what was read.
#[utoipa::path(get, path = "/api/v1/plans/{id}/sheet", operation_id = "settingSheet", params(("id" = Uuid, Path)),
    responses((status = 200, body = Sheet), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[get("/api/v1/plans/{id}/sheet")]
pub async fn sheet(state: Here, id: web::Path<Uuid>, peer: Peer) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    let p = plan::get(&mut tx, *id).await?;
    Ok(HttpResponse::Ok().json(sheet_now(&state, &mut tx, &p, &peer).await?.sheet))
}

/// A wheel on the jack.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JackedWheel {
    /// Which axle.
    pub axle: Axle,
    /// Which side.
    pub side: Side,
    /// Hub to arch there, as typed.
    #[schema(max_length = 40)]
    pub height: String,
    /// Unit of a bare length.
    pub unit: LengthUnit,
    /// How far the body leans, this side up positive, as typed; level when empty.
    #[serde(default)]
    #[schema(max_length = 40)]
    pub lean: String,
}

/// What a wheel has to show on the jack, so that it stands in its window once it is down.
#[utoipa::path(post, path = "/api/v1/plans/{id}/jacked", operation_id = "onJack", params(("id" = Uuid, Path)), request_body = JackedWheel,
    responses((status = 200, body = JackAim), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/plans/{id}/jacked")]
pub async fn jacked(
    state: Here,
    id: web::Path<Uuid>,
    peer: Peer,
    Doc(r): Doc<JackedWheel>,
) -> Result<HttpResponse, ApiError> {
    let height_mm = parse_length_mm("height", &r.height, r.unit)?;
    let lean_deg = if r.lean.trim().is_empty() { 0.0 } else { parse_angle_deg("lean", &r.lean)? };
    let mut tx = state.tx().await?;
    let p = plan::get(&mut tx, *id).await?;
    let now = sheet_now(&state, &mut tx, &p, &peer).await?;
    let not_read =
        || Problem::new("axle", said("fault-no-axle-was-read-yet"), said("fault-readings-plan-waits"));
    let input = now.input.axle(r.axle).ok_or_else(not_read)?;
    let result = now.sheet.answer.axles[r.axle].clone().ok_or_else(not_read)?;
    let parts = state.shelf().await?.offered(&now.input.plan.fitted(), &now.input);
    let at = OnJack { side: r.side, height_mm, lean_deg };
    let aim = state.pool.run(&peer, move |_| on_jack(&input, &parts, &result, &at)).await??;
    Ok(HttpResponse::Ok().json(aim))
}

/// A car that is worked on again is nobody's word any more; that it was stays among its events.
pub(super) async fn no_longer_accepted(state: &Here, tx: &mut Tx, p: &Plan) -> Result<(), ApiError> {
    let proved = Mark::Step(StepId::Proved);
    if done::of_job(tx, p.job_id).await?.iter().any(|d| d.plan_id == p.id && d.step == proved) {
        done::mark(tx, state.shop.id, p.id, &proved, None, state.name()).await?;
        let detail = serde_json::json!({"plan": p.id});
        event::record(tx, state.shop.id, Some(p.job_id), state.name(), "no longer accepted", detail).await?;
    }
    Ok(())
}

/// Marks a step of the sheet: what it says now is kept with it. A gate opens on its readings, and on a reason where one
/// of them is off.
#[utoipa::path(put, path = "/api/v1/plans/{id}/done", operation_id = "markStep", params(("id" = Uuid, Path)), request_body = MarkStep,
    responses((status = 200, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/plans/{id}/done")]
pub async fn mark(
    state: Here,
    id: web::Path<Uuid>,
    Doc(m): Doc<MarkStep>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    // A gate is a step of the sheet like any other by its address, and not everybody's to open.
    if m.done && matches!(&m.step, Mark::Step(s) if s.is_gate()) {
        state.may(Act::Gate)?;
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let p = plan::get(&mut tx, *id).await?;
    let was_done =
        done::of_job(&mut tx, p.job_id).await?.iter().any(|d| d.plan_id == p.id && d.step == m.step);
    if m.done && was_done && !m.as_done.is_empty() {
        // Another tablet was first: what it kept stays, and this one is told.
        let wrong = said("as-done-before").name("step", m.step.to_string());
        return Err(Problem::new("step", wrong, said("as-done-before-right")).into());
    }
    if m.done {
        // A mark is to be kept, whether or not somebody still looks.
        let now = sheet_now(&state, &mut tx, &p, &Peer::default()).await?.sheet;
        let by = (m.reason.as_deref(), m.signed.as_deref());
        let time = event::now(&mut tx, p.job_id).await?;
        let record = mark_step(&now, &m.step, by, &m.as_done, (time, state.name()))?;
        done::mark(&mut tx, state.shop.id, *id, &m.step, Some(&record), state.name()).await?;
        let reached = if m.step == Mark::Step(StepId::Proved) { Stage::Prove } else { Stage::Set };
        job::reach_stage(&mut tx, p.job_id, reached).await?;
    } else if was_done {
        // What was turned last is taken back first; the step itself once nothing more was turned after it.
        if !done::take_back_round(&mut tx, *id, &m.step).await? {
            done::mark(&mut tx, state.shop.id, *id, &m.step, None, state.name()).await?;
        }
    } else {
        return Err(Problem::new(
            "step",
            said("fault-step-not-done").name("step", m.step.to_string()),
            said("fault-step-was-done"),
        )
        .into());
    }
    if matches!(&m.step, Mark::Step(s) if s.reopens()) {
        no_longer_accepted(&state, &mut tx, &p).await?;
    }
    let detail = serde_json::json!({"step": m.step, "done": m.done, "reason": m.reason, "signed": m.signed});
    event::record(&mut tx, state.shop.id, Some(p.job_id), state.name(), "step", detail).await?;
    let t = jobs::ticket(&state, &mut tx, p.job_id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}

/// Keeps that what was left to turn on an axle was turned, as ordered or as told.
#[utoipa::path(post, path = "/api/v1/plans/{id}/turned", operation_id = "turnedAgain", params(("id" = Uuid, Path)), request_body = TurnedAgain,
    responses((status = 200, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/plans/{id}/turned")]
pub async fn turned(
    state: Here,
    id: web::Path<Uuid>,
    Doc(t): Doc<TurnedAgain>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let p = plan::get(&mut tx, *id).await?;
    let all = done::of_job(&mut tx, p.job_id).await?;
    let own: Vec<&Done> = all.iter().filter(|d| d.plan_id == p.id).collect();
    let now = sheet_now(&state, &mut tx, &p, &Peer::default()).await?.sheet;
    let time = event::now(&mut tx, p.job_id).await?;
    let (step, round) = turned_again(&now, &own, t.axle, &t.as_done, (time, state.name()))?;
    no_longer_accepted(&state, &mut tx, &p).await?;
    let detail = serde_json::json!({"step": step, "turned": round.turned});
    done::add_round(&mut tx, *id, &Mark::Step(step), &round).await?;
    event::record(&mut tx, state.shop.id, Some(p.job_id), state.name(), "turned again", detail).await?;
    let t = jobs::ticket(&state, &mut tx, p.job_id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}
