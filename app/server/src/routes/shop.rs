//! The shop: its name, shipped aims, ways to change height.

use super::Doc;
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, get, put};
use bold_stance_kinematics::geometry::Layout;
use bold_stance_store::{event, shop};
use bold_stance_trade::aim::Aim;
use bold_stance_trade::job::VehicleFacts;
use bold_stance_trade::plan::WayKind;
use bold_stance_trade::reading::{TicketKind, TicketOffer};
use bold_stance_trade::shop::ShopSettings;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A way to change height.
#[derive(Debug, Serialize, ToSchema)]
pub struct WayInfo {
    /// Which.
    pub kind: WayKind,
    /// In workshop words.
    pub words: String,
    /// Layouts that can have it.
    pub layouts: Vec<Layout>,
    /// Only on an axle that stands on leaf springs.
    pub needs_leaves: bool,
}

/// What every screen needs once.
#[derive(Debug, Serialize, ToSchema)]
pub struct ShopInfo {
    /// Name on the strip.
    pub name: String,
    /// Version of the program.
    pub version: String,
    /// Aims to choose from.
    pub aims: Vec<Aim>,
    /// Ways to change height.
    pub ways: Vec<WayInfo>,
    /// What a ticket can be for.
    pub tickets: Vec<TicketOffer>,
    /// What the shop typed once.
    pub settings: ShopSettings,
    /// Version of it, for whoever saves over it.
    pub settings_version: i32,
    /// What a new vehicle starts from: usual values, called so until they are typed over.
    pub starter: VehicleFacts,
}

/// Name, aims, ways to change height.
#[utoipa::path(get, path = "/api/v1/shop", operation_id = "shop", responses((status = 200, body = ShopInfo)))]
#[get("/api/v1/shop")]
pub async fn info(state: Here) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    let (settings_version, settings) = shop::settings(&mut tx, state.shop.id).await?;
    Ok(HttpResponse::Ok().json(ShopInfo {
        settings,
        settings_version,
        name: state.shop.name.clone(),
        version: env!("CARGO_PKG_VERSION").into(),
        aims: state.aims.clone(),
        ways: WayKind::ALL
            .iter()
            .map(|w| WayInfo {
                kind: *w,
                words: w.words().into(),
                layouts: Layout::ALL.into_iter().filter(|l| w.fits(*l)).collect(),
                needs_leaves: w.needs_leaves(),
            })
            .collect(),
        tickets: TicketKind::ALL.iter().map(|k| k.offer()).collect(),
        starter: state.starter.clone(),
    }))
}

/// Settings over a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveSettings {
    /// Version the edit is based on.
    pub version: i32,
    /// The whole of them.
    pub settings: ShopSettings,
}

/// Settings as they were saved.
#[derive(Debug, Serialize, ToSchema)]
pub struct SavedSettings {
    /// Their version.
    pub version: i32,
    /// They.
    pub settings: ShopSettings,
}

/// Saves what the shop types once.
#[utoipa::path(put, path = "/api/v1/shop/settings", operation_id = "saveShopSettings", request_body = SaveSettings,
    responses((status = 200, body = SavedSettings), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/shop/settings")]
pub async fn save_settings(
    state: Here,
    Doc(s): Doc<SaveSettings>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let problems = s.settings.problems("settings.");
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let version = shop::save_settings(&mut tx, state.shop.id, s.version, &s.settings).await?;
    let detail = serde_json::json!({"version": version});
    event::record(&mut tx, state.shop.id, None, state.name(), "settings saved", detail).await?;
    once.answer(tx, StatusCode::OK, &SavedSettings { version, settings: s.settings }).await
}
