//! Aims: the shipped schools and the shop's own.

use super::{AUTHOR, Doc};
use crate::AppState;
use crate::catalogue::ShelfAim;
use crate::once::{Begun, Once};
use crate::problem::{ApiError, ProblemDocument};
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, delete, get, put, web};
use bold_stance_store::{event, shop_aim};
use bold_stance_trade::aim::Aim;
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

/// Every aim to choose from.
#[utoipa::path(get, path = "/api/v1/aims", operation_id = "aims", responses((status = 200, body = [ShelfAim])))]
#[get("/api/v1/aims")]
pub async fn list(state: web::Data<AppState>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(state.all_aims().await?))
}

/// Keeps an aim of the shop.
#[utoipa::path(put, path = "/api/v1/aims/{id}", operation_id = "keepAim", params(("id" = String, Path)), request_body = SaveAim,
    responses((status = 200, body = [ShelfAim]), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/aims/{id}")]
pub async fn keep(
    state: web::Data<AppState>,
    id: web::Path<String>,
    Doc(s): Doc<SaveAim>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut problems = s.aim.problems();
    if *id != s.aim.id {
        problems.push(Problem::new("aim.id", format!("\"{}\"", s.aim.id), said("fault-id-address")));
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
        // Kept already: the list as it is now.
        Begun::Before(..) => return Ok(HttpResponse::Ok().json(state.all_aims().await?)),
    };
    shop_aim::save(&mut tx, state.shop.id, s.version, &s.aim).await?;
    event::record(&mut tx, state.shop.id, None, AUTHOR, "aim kept", serde_json::json!({"aim": s.aim.id}))
        .await?;
    once.done(tx, StatusCode::OK).await?;
    Ok(HttpResponse::Ok().json(state.all_aims().await?))
}

/// Removes an aim of the shop; plans keep their windows.
#[utoipa::path(delete, path = "/api/v1/aims/{id}", operation_id = "removeAim", params(("id" = String, Path)),
    responses((status = 200, body = [ShelfAim]), (status = 404, body = ProblemDocument)))]
#[delete("/api/v1/aims/{id}")]
pub async fn remove(
    state: web::Data<AppState>,
    id: web::Path<String>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        // Kept already: the list as it is now.
        Begun::Before(..) => return Ok(HttpResponse::Ok().json(state.all_aims().await?)),
    };
    if !shop_aim::remove(&mut tx, &id).await? {
        return Err(ApiError::NoRoute);
    }
    event::record(&mut tx, state.shop.id, None, AUTHOR, "aim removed", serde_json::json!({"aim": *id}))
        .await?;
    once.done(tx, StatusCode::OK).await?;
    Ok(HttpResponse::Ok().json(state.all_aims().await?))
}
