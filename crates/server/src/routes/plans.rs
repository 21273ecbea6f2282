//! Plans: saved, renamed, duplicated, removed; and what was done of their sheets.

use super::{AUTHOR, Doc, jobs};
use crate::AppState;
use crate::once::{Begun, Once, again};
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, delete, post, put, web};
use bold_stance_core::geometry::{Axle, Side};
use bold_stance_core::plan::{fitted_parts, plan_within};
use bold_stance_core::problem::{Problem, in_range};
use bold_stance_core::reading::{Place, Quantity, Seen, Visit, toe_of};
use bold_stance_core::sheet::{
    DoneRecord, GateRead, GateSide, SheetStep, StepKind, fouls, judge_gate, record_of, sheet,
};
use bold_stance_store::job::{self, Stage};
use bold_stance_store::plan::{self, Plan, PlanDocument};
use bold_stance_store::reading::{self, Reading};
use bold_stance_store::{done, event};
use chrono::{DateTime, Utc};
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// A plan to store.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewPlan {
    /// What it is called.
    pub name: String,
    /// What was decided.
    pub document: PlanDocument,
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
    pub document: PlanDocument,
}

/// A step done or not.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MarkStep {
    /// Step id, or `gate/tick`.
    pub step: String,
    /// Done or taken back.
    pub done: bool,
    /// Why a gate is opened although something is off.
    #[serde(default)]
    pub reason: Option<String>,
}

async fn check(state: &AppState, name: &str, d: &PlanDocument) -> Result<(), ApiError> {
    let shelf = state.shelf().await?;
    let mut out = Vec::new();
    let n = name.trim().chars().count();
    if n == 0 || n > 120 {
        let wrong = if n == 0 { "nothing was entered" } else { "longer than 120 characters" };
        out.push(Problem::new("name", wrong, "a name of up to 120 characters"));
    }
    for (f, v, low, high) in [
        ("height_change_mm", d.height_change_mm, -300.0, 300.0),
        ("rear_change_mm", d.rear_change_mm, -300.0, 300.0),
        ("settle_mm", d.settle_mm, 0.0, 60.0),
        ("load_mm", d.load_mm, 0.0, 200.0),
        ("limit_mm", d.limit_mm, 0.0, 10.0),
        ("rear_settle_mm", d.rear_settle_mm, 0.0, 60.0),
        ("rear_load_mm", d.rear_load_mm, -100.0, 250.0),
        ("trim_mm.0", d.trim_mm[0], -60.0, 60.0),
        ("trim_mm.1", d.trim_mm[1], -60.0, 60.0),
        ("rear_trim_mm.0", d.rear_trim_mm[0], -60.0, 60.0),
        ("rear_trim_mm.1", d.rear_trim_mm[1], -60.0, 60.0),
    ] {
        out.extend(in_range(&format!("document.{f}"), v, low, high, "mm").err());
    }
    for (list, name) in [(&d.fitted, "fitted"), (&d.rear_fitted, "rear_fitted")] {
        for (i, id) in list.iter().enumerate() {
            let known =
                shelf.parts.iter().any(|p| p.part.variants().iter().any(|v| v.id == *id) || p.part.id == *id);
            if !known {
                let field = format!("document.{name}.{i}");
                out.push(Problem::new(field, format!("no part \"{id}\""), "a part of the catalogue"));
            }
        }
    }
    for (f, ways) in [("ways", &d.ways), ("rear_ways", &d.rear_ways)] {
        for (i, w) in ways.iter().enumerate() {
            out.extend(in_range(&format!("document.{f}.{i}.gain_mm"), w.gain_mm, -300.0, 300.0, "mm").err());
        }
    }
    out.extend(
        d.aim.problems().into_iter().map(|p| Problem::new(format!("document.{}", p.field), p.wrong, p.right)),
    );
    if out.is_empty() { Ok(()) } else { Err(out.into()) }
}

async fn answer(
    state: &AppState,
    id: Uuid,
    what: &str,
    mut tx: bold_stance_store::Tx,
    once: &Once,
    status: StatusCode,
) -> Result<HttpResponse, ApiError> {
    let p = plan::get(&mut tx, id).await?;
    let detail = serde_json::json!({"plan": id, "version": p.version});
    event::record(&mut tx, state.shop.id, Some(p.job_id), AUTHOR, what, detail).await?;
    once.answer(tx, status, &p).await
}

/// Stores a plan.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/plans", operation_id = "createPlan", params(("id" = Uuid, Path)), request_body = NewPlan,
    responses((status = 201, body = Plan), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/plans")]
pub async fn create(
    state: web::Data<AppState>,
    id: web::Path<Uuid>,
    Doc(n): Doc<NewPlan>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    check(&state, &n.name, &n.document).await?;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    job::get(&mut tx, *id).await?;
    let p = plan::insert(&mut tx, state.shop.id, *id, n.name.trim(), &n.document).await?;
    answer(&state, p, "plan saved", tx, &once, StatusCode::CREATED).await
}

/// Saves a plan over a version.
#[utoipa::path(put, path = "/api/v1/plans/{id}", operation_id = "savePlan", params(("id" = Uuid, Path)), request_body = SavePlan,
    responses((status = 200, body = Plan), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/plans/{id}")]
pub async fn save(
    state: web::Data<AppState>,
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
pub async fn copy(
    state: web::Data<AppState>,
    id: web::Path<Uuid>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
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
pub async fn remove(
    state: web::Data<AppState>,
    id: web::Path<Uuid>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
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
        AUTHOR,
        "plan removed",
        serde_json::json!({"name": p.name}),
    )
    .await?;
    once.done(tx, StatusCode::NO_CONTENT).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Readings that a gate of the front axle takes at its visit; those taken before `after` are stale.
fn gate_sides(
    readings: &[Reading],
    seen: &[Seen],
    visit: Visit,
    after: Option<DateTime<Utc>>,
) -> [GateSide; 2] {
    Side::BOTH.map(|side| {
        let at = |q| reading::standing(readings, visit, q, Place::wheel(Axle::Front, side));
        let stale = |t: DateTime<Utc>| after.is_some_and(|a| t < a);
        let of = |q| at(q).map(|r| GateRead { value: r.value, sigma: r.sigma, stale: stale(r.taken_at) });
        let toe = toe_of(seen, visit, Axle::Front, side).map(|(value, sigma, r)| GateRead {
            value,
            sigma,
            stale: after.is_some_and(|a| r.at < a.timestamp()),
        });
        GateSide {
            height: of(Quantity::Height),
            camber: of(Quantity::Camber),
            caster: of(Quantity::Caster),
            toe,
        }
    })
}

/// The visit whose readings open a gate.
fn visit_of(gate: &str) -> Option<Visit> {
    match gate {
        "settled" => Some(Visit::Settled),
        "reswept" => Some(Visit::Reswept),
        "proved" => Some(Visit::Proved),
        _ => None,
    }
}

/// What the sheet says of a step now, checked: a step that is not on it, a gate without its readings, and one that is off
/// without a reason are refused.
async fn looked_at(
    state: &AppState,
    t: &jobs::Ticket,
    p: &Plan,
    m: &MarkStep,
) -> Result<DoneRecord, ApiError> {
    let base = t.base.clone().ok_or_else(|| {
        Problem::new("step", "nothing to set yet: readings are missing", "the readings the plan waits for")
    })?;
    let input = p.document.front_input(base);
    let parts = state.shelf().await?.offered(&input.fitted);
    // A mark is to be kept, whether or not somebody still looks.
    let nobody = Peer::default();
    let worked = state.pool.run(&nobody, move |budget| {
        let result = plan_within(&input, &parts, budget)?;
        let steps = sheet(&input, &result, &fitted_parts(&input, &parts));
        Ok::<_, Vec<Problem>>((input, result, steps))
    });
    let (input, result, steps) = worked.await??;
    let (step, tick) = m.step.split_once('/').map_or((m.step.as_str(), None), |(s, t)| (s, Some(t)));
    let known = |s: &&SheetStep| s.id == step && tick.is_none_or(|t| s.ticks.iter().any(|x| x == t));
    let Some((at, now)) = steps.iter().enumerate().find(|(_, s)| known(s)) else {
        let right: Vec<&str> = steps.iter().map(|s| s.id.as_str()).collect();
        return Err(
            Problem::new("step", format!("no step \"{}\" on this sheet", m.step), right.join(", ")).into()
        );
    };
    if tick.is_some() {
        return Ok(DoneRecord::default());
    }
    let mut record = record_of(now, &result);
    if now.kind == StepKind::Gate {
        let done = |id: &str| t.done.iter().find(|d| d.plan_id == p.id && d.step == id);
        let work = steps[..at].iter().filter(|s| s.kind == StepKind::Step);
        let last = work.filter_map(|s| done(&s.id)).map(|d| d.done_at).max();
        let seen: Vec<Seen> = t.readings.iter().map(Reading::seen).collect();
        let sides = visit_of(step).map(|v| gate_sides(&t.readings, &seen, v, last)).unwrap_or_default();
        // Rolled and bounced may have been said in the prepare list of the visit as well.
        let held = visit_of(step).and_then(|v| t.visits.iter().find(|x| x.kind == v)).map(|v| &v.holding);
        let said = |tick: &str| {
            let item = match tick {
                "Roll 3 m" | "Bounce three times" => "settled",
                "Steering wheel straight" => "steering",
                _ => return false,
            };
            held.is_some_and(|h| h.get(item).is_some_and(|a| a == "yes"))
        };
        let mut shut: Vec<String> = now
            .ticks
            .iter()
            .filter(|x| done(&format!("{step}/{x}")).is_none() && !said(x))
            .cloned()
            .collect();
        for q in &now.needs {
            for (i, side) in Side::BOTH.into_iter().enumerate() {
                if sides[i].of(*q).is_none() {
                    shut.push(format!("{} {} not read", side.word(), q.word()));
                }
            }
        }
        if !shut.is_empty() {
            return Err(Problem::new(
                "step",
                format!("the gate is shut: {}", shut.join(", ")),
                "all of them",
            )
            .into());
        }
        record.off =
            if step == "fouls" { fouls(&result) } else { judge_gate(&input, &result, &now.needs, &sides) };
        let reason = m.reason.as_deref().map(str::trim).unwrap_or_default();
        let n = reason.chars().count();
        if !record.off.is_empty() && !(3..=300).contains(&n) {
            let wrong = if n > 300 {
                "longer than 300 characters"
            } else {
                "something is off and no reason was given"
            };
            return Err(Problem::new(
                "reason",
                wrong,
                "read again, plan again, or why it goes on, in a few words",
            )
            .into());
        }
        record.reason = (!record.off.is_empty()).then(|| reason.to_owned());
    }
    Ok(record)
}

/// Marks a step of the sheet: what it says now is kept with it. A gate opens on its readings, and on a reason where one
/// of them is off.
#[utoipa::path(put, path = "/api/v1/plans/{id}/done", operation_id = "markStep", params(("id" = Uuid, Path)), request_body = MarkStep,
    responses((status = 200, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/plans/{id}/done")]
pub async fn mark(
    state: web::Data<AppState>,
    id: web::Path<Uuid>,
    Doc(m): Doc<MarkStep>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let p = plan::get(&mut tx, *id).await?;
    let t = jobs::ticket(&state, &mut tx, p.job_id).await?;
    let was_done = t.done.iter().any(|d| d.plan_id == p.id && d.step == m.step);
    if m.done {
        let record = looked_at(&state, &t, &p, &m).await?;
        done::mark(&mut tx, state.shop.id, *id, &m.step, Some(&record), AUTHOR).await?;
        job::reach_stage(&mut tx, p.job_id, Stage::Set).await?;
    } else if was_done {
        done::mark(&mut tx, state.shop.id, *id, &m.step, None, AUTHOR).await?;
    } else {
        return Err(
            Problem::new("step", format!("\"{}\" was not done", m.step), "a step that was done").into()
        );
    }
    let detail = serde_json::json!({"step": m.step, "done": m.done, "reason": m.reason});
    event::record(&mut tx, state.shop.id, Some(p.job_id), AUTHOR, "step", detail).await?;
    let t = jobs::ticket(&state, &mut tx, p.job_id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}
