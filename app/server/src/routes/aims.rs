//! Aims: the shipped schools and the shop's own.

use super::Doc;
use crate::catalogue::ShelfAim;
use crate::once::{Begun, Once, again};
use crate::paging::KeyPage;
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, delete, get, post, put, web};
use bold_stance_store::{event, shop_aim};
use bold_stance_trade::aim::Aim;
use bold_stance_trade::reading::{SheetWindow, sheet_window};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::Deserialize;
use utoipa::ToSchema;

/// An aim over a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveAim {
    /// Version the edit is based on; 0 for a new one.
    pub version: i32,
    /// The aim.
    pub aim: Aim,
}

/// Aims to choose from, those that ship first, by pages.
#[utoipa::path(get, path = "/api/v1/aims", operation_id = "aims", params(KeyPage),
    responses((status = 200, body = [ShelfAim]), (status = 422, body = ProblemDocument)))]
#[get("/api/v1/aims")]
pub async fn list(state: Here, page: web::Query<KeyPage>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(page.of(&state.all_aims().await?, |a| &a.aim.id)?))
}

/// The aim of an id as the shop has it now.
async fn as_it_is(state: &Here, id: &str) -> Result<HttpResponse, ApiError> {
    let aims = state.all_aims().await?;
    Ok(HttpResponse::Ok().json(aims.iter().find(|a| a.aim.id == id).ok_or(ApiError::NoRoute)?))
}

/// Low and high end of a window, degrees.
#[derive(Debug, serde::Serialize, ToSchema)]
pub struct ReadWindow {
    /// Both.
    #[schema(min_items = 2, max_items = 2)]
    pub window_deg: [f64; 2],
}

/// A window as a maker's sheet has it, in degrees.
#[utoipa::path(post, path = "/api/v1/aim-window", operation_id = "readAimWindow", request_body = SheetWindow,
    responses((status = 200, body = ReadWindow), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/aim-window")]
pub async fn window(Doc(w): Doc<SheetWindow>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(ReadWindow { window_deg: sheet_window(&w)? }))
}

/// Keeps an aim of the shop.
#[utoipa::path(put, path = "/api/v1/aims/{id}", operation_id = "keepAim", params(("id" = String, Path)), request_body = SaveAim,
    responses((status = 200, body = ShelfAim), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/aims/{id}")]
pub async fn keep(
    state: Here,
    id: web::Path<String>,
    Doc(s): Doc<SaveAim>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut problems = s.aim.problems();
    if *id != s.aim.id {
        problems.push(Problem::new(
            "aim.id",
            said("fault-quoted").name("value", s.aim.id.clone()),
            said("fault-id-address"),
        ));
    }
    if state.aims.iter().any(|a| a.id == s.aim.id) {
        problems.push(Problem::new(
            "aim.name",
            said("fault-shipped-aim-this-name"),
            said("fault-name-your-own"),
        ));
    }
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        // Kept already: the aim as it is now.
        Begun::Before(..) => return as_it_is(&state, &id).await,
    };
    shop_aim::save(&mut tx, state.shop.id, s.version, &s.aim).await?;
    event::record(
        &mut tx,
        state.shop.id,
        None,
        state.name(),
        "aim kept",
        serde_json::json!({"aim": s.aim.id}),
    )
    .await?;
    once.done(tx, StatusCode::OK).await?;
    as_it_is(&state, &id).await
}

/// Removes an aim of the shop; plans keep their windows.
#[utoipa::path(delete, path = "/api/v1/aims/{id}", operation_id = "removeAim", params(("id" = String, Path)),
    responses((status = 204, description = "Gone"), (status = 404, body = ProblemDocument)))]
#[delete("/api/v1/aims/{id}")]
pub async fn remove(state: Here, id: web::Path<String>, once: Once) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    if !shop_aim::remove(&mut tx, &id).await? {
        return Err(ApiError::NoRoute);
    }
    event::record(&mut tx, state.shop.id, None, state.name(), "aim removed", serde_json::json!({"aim": *id}))
        .await?;
    once.done(tx, StatusCode::NO_CONTENT).await?;
    Ok(HttpResponse::NoContent().finish())
}
