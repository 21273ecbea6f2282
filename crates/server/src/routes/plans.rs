//! Plans: saved, renamed, duplicated, removed; and what was done of their sheets.

use super::{AUTHOR, Doc, jobs};
use crate::AppState;
use crate::problem::{ApiError, ProblemDocument};
use actix_web::{HttpResponse, delete, post, put, web};
use bold_stance_core::problem::{Problem, in_range};
use bold_stance_store::job::{self, Stage};
use bold_stance_store::plan::{self, Plan, PlanDocument};
use bold_stance_store::{StoreError, done, event};
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
) -> Result<Plan, ApiError> {
    let p = plan::get(&mut tx, id).await?;
    event::record(
        &mut tx,
        state.shop.id,
        Some(p.job_id),
        AUTHOR,
        what,
        serde_json::json!({"plan": id, "version": p.version}),
    )
    .await?;
    tx.commit().await.map_err(StoreError::from)?;
    Ok(p)
}

/// Stores a plan.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/plans", operation_id = "createPlan", params(("id" = Uuid, Path)), request_body = NewPlan,
    responses((status = 201, body = Plan), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/plans")]
pub async fn create(
    state: web::Data<AppState>,
    id: web::Path<Uuid>,
    Doc(n): Doc<NewPlan>,
) -> Result<HttpResponse, ApiError> {
    check(&state, &n.name, &n.document).await?;
    let mut tx = state.store.tx(state.shop.id).await?;
    job::get(&mut tx, *id).await?;
    let p = plan::insert(&mut tx, state.shop.id, *id, n.name.trim(), &n.document).await?;
    Ok(HttpResponse::Created().json(answer(&state, p, "plan saved", tx).await?))
}

/// Saves a plan over a version.
#[utoipa::path(put, path = "/api/v1/plans/{id}", operation_id = "savePlan", params(("id" = Uuid, Path)), request_body = SavePlan,
    responses((status = 200, body = Plan), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/plans/{id}")]
pub async fn save(
    state: web::Data<AppState>,
    id: web::Path<Uuid>,
    Doc(s): Doc<SavePlan>,
) -> Result<HttpResponse, ApiError> {
    check(&state, &s.name, &s.document).await?;
    let mut tx = state.store.tx(state.shop.id).await?;
    plan::update(&mut tx, *id, s.version, s.name.trim(), &s.document).await?;
    Ok(HttpResponse::Ok().json(answer(&state, *id, "plan saved", tx).await?))
}

/// Duplicates a plan.
#[utoipa::path(post, path = "/api/v1/plans/{id}/copy", operation_id = "copyPlan", params(("id" = Uuid, Path)),
    responses((status = 201, body = Plan), (status = 404, body = ProblemDocument)))]
#[post("/api/v1/plans/{id}/copy")]
pub async fn copy(state: web::Data<AppState>, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let mut tx = state.store.tx(state.shop.id).await?;
    let p = plan::get(&mut tx, *id).await?;
    let name: String = format!("{} (copy)", p.name).chars().take(120).collect();
    let new = plan::insert(&mut tx, state.shop.id, p.job_id, &name, &p.document).await?;
    Ok(HttpResponse::Created().json(answer(&state, new, "plan duplicated", tx).await?))
}

/// Removes a plan.
#[utoipa::path(delete, path = "/api/v1/plans/{id}", operation_id = "removePlan", params(("id" = Uuid, Path)),
    responses((status = 204, description = "Gone"), (status = 404, body = ProblemDocument)))]
#[delete("/api/v1/plans/{id}")]
pub async fn remove(state: web::Data<AppState>, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let mut tx = state.store.tx(state.shop.id).await?;
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
    tx.commit().await.map_err(StoreError::from)?;
    Ok(HttpResponse::NoContent().finish())
}

/// Marks a step of the sheet.
#[utoipa::path(put, path = "/api/v1/plans/{id}/done", operation_id = "markStep", params(("id" = Uuid, Path)), request_body = MarkStep,
    responses((status = 200, body = jobs::Ticket), (status = 404, body = ProblemDocument)))]
#[put("/api/v1/plans/{id}/done")]
pub async fn mark(
    state: web::Data<AppState>,
    id: web::Path<Uuid>,
    Doc(m): Doc<MarkStep>,
) -> Result<HttpResponse, ApiError> {
    if m.step.is_empty() || m.step.len() > 80 {
        return Err(Problem::new("step", "no such step", "a step of the sheet").into());
    }
    let mut tx = state.store.tx(state.shop.id).await?;
    let p = plan::get(&mut tx, *id).await?;
    done::mark(&mut tx, state.shop.id, *id, &m.step, m.done, AUTHOR).await?;
    job::reach_stage(&mut tx, p.job_id, Stage::Set).await?;
    event::record(
        &mut tx,
        state.shop.id,
        Some(p.job_id),
        AUTHOR,
        "step",
        serde_json::json!({"step": m.step, "done": m.done}),
    )
    .await?;
    let t = jobs::ticket(&state, &mut tx, p.job_id).await?;
    tx.commit().await.map_err(StoreError::from)?;
    Ok(HttpResponse::Ok().json(t))
}
