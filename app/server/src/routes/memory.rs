//! What the shop learned from cars that were proved.

use crate::problem::ApiError;
use crate::who::Here;
use actix_web::{HttpResponse, get};
use bold_stance_car::adjuster::AdjusterKind;
use bold_stance_trade::memory::{HowWell, KnownHeights, Remembered};
use serde::Serialize;
use utoipa::ToSchema;

/// One thing that was turned, with what it is sold as.
#[derive(Debug, Serialize, ToSchema)]
pub struct MemoryRow {
    /// Name of its part; none for a car's own, and for a part the shop has no more.
    pub name: Option<String>,
    /// Throw it is sold with, mm; none where it is no length.
    pub claim_mm: Option<f64>,
    /// Throw it is sold with, degrees; none where it is no angle.
    pub claim_deg: Option<f64>,
    /// What is known of it.
    pub of: Remembered,
}

/// What the shop learned.
#[derive(Debug, Serialize, ToSchema)]
pub struct MemoryView {
    /// Cars of this shop that were proved.
    pub cars: usize,
    /// Cars of other shops that count.
    pub handed: usize,
    /// What was turned, with most cars first.
    pub parts: Vec<MemoryRow>,
    /// How well was predicted.
    pub how_well: Vec<HowWell>,
    /// What turns give and how far heights settle.
    pub heights: KnownHeights,
}

/// What the shop learned from the cars that were accepted at Prove.
#[utoipa::path(get, path = "/api/v1/shop/memory", operation_id = "shopMemory", responses((status = 200, body = MemoryView)))]
#[get("/api/v1/shop/memory")]
pub async fn memory(state: Here) -> Result<HttpResponse, ApiError> {
    // As it stands now, whatever was looked at a moment ago.
    state.shelf_cache.forget(state.shop.id);
    let shelf = state.shelf().await?;
    let row = |of: &Remembered| {
        let part = shelf.parts.iter().map(|s| &s.part).find(|p| Some(&p.id) == of.part.as_ref());
        let sold = part.and_then(|p| p.adjusters.iter().find(|a| a.name == of.adjuster));
        let (claim_mm, claim_deg) = match sold.map(|a| &a.kind) {
            Some(AdjusterKind::Eccentric { eccentricity_mm, .. }) => (Some(*eccentricity_mm), None),
            Some(AdjusterKind::CamBolt { amplitude_deg, .. }) => (None, Some(*amplitude_deg)),
            Some(AdjusterKind::Sleeve { amount_deg, .. }) => (None, Some(*amount_deg)),
            _ => (None, None),
        };
        MemoryRow { name: part.map(|p| p.name.clone()), claim_mm, claim_deg, of: of.clone() }
    };
    let m = shelf.memory(None);
    let parts = m.parts.iter().map(row).collect();
    let cars = shelf.proved.len();
    let view = MemoryView {
        cars,
        handed: m.cars.saturating_sub(cars),
        parts,
        how_well: m.how_well,
        heights: m.heights,
    };
    Ok(HttpResponse::Ok().json(view))
}
