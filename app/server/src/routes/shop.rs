//! The shop: its name, shipped aims, ways to change height.

use crate::AppState;
use crate::problem::ApiError;
use actix_web::{HttpResponse, get, web};
use bold_stance_kinematics::geometry::Layout;
use bold_stance_trade::aim::Aim;
use bold_stance_trade::job::VehicleFacts;
use bold_stance_trade::plan::WayKind;
use bold_stance_trade::reading::{TicketKind, TicketOffer};
use serde::Serialize;
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
    /// What a new vehicle starts from: usual values, called so until they are typed over.
    pub starter: VehicleFacts,
}

/// Name, aims, ways to change height.
#[utoipa::path(get, path = "/api/v1/shop", operation_id = "shop", responses((status = 200, body = ShopInfo)))]
#[get("/api/v1/shop")]
pub async fn shop(state: web::Data<AppState>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(ShopInfo {
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
