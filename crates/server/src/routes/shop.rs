//! The shop: its name, aims and catalogue.

use crate::AppState;
use actix_web::{HttpResponse, get, web};
use bold_stance_core::part::{Adjuster, Part, default_adjusters};
use bold_stance_core::plan::Aim;
use serde::Serialize;
use utoipa::ToSchema;

/// What every screen needs once.
#[derive(Debug, Serialize, ToSchema)]
pub struct ShopInfo {
    /// Name on the strip.
    pub name: String,
    /// Version of the program.
    pub version: String,
    /// Aims to choose from.
    pub aims: Vec<Aim>,
    /// Parts to choose from.
    pub parts: Vec<Part>,
    /// Adjusters a new vehicle starts from.
    pub starter_adjusters: Vec<Adjuster>,
}

/// Name, aims and catalogue.
#[utoipa::path(get, path = "/api/v1/shop", operation_id = "shop", responses((status = 200, body = ShopInfo)))]
#[get("/api/v1/shop")]
pub async fn shop(state: web::Data<AppState>) -> HttpResponse {
    HttpResponse::Ok().json(ShopInfo {
        name: state.shop.name.clone(),
        version: env!("CARGO_PKG_VERSION").into(),
        aims: state.aims.clone(),
        parts: state.parts.clone(),
        starter_adjusters: default_adjusters(3.2),
    })
}
