//! Readings: previewed as they are typed, stored as typed.

use super::{AUTHOR, Doc, jobs};
use crate::AppState;
use crate::problem::{ApiError, ProblemDocument};
use actix_web::{HttpResponse, post, web};
use bold_stance_core::problem::Problem;
use bold_stance_core::reading::{Converted, Taken, convert};
use bold_stance_core::units::LengthUnit;
use bold_stance_store::job::{self, Stage};
use bold_stance_store::reading::{self, Method, NewReading, Quantity, RawEntry, Side, Visit};
use bold_stance_store::{StoreError, event};
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// A reading as it was typed.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TypedReading {
    /// Chosen by the sender, so that sending twice stores once.
    pub id: Uuid,
    /// When in the work.
    pub visit: Visit,
    /// What.
    pub quantity: Quantity,
    /// Where.
    pub side: Side,
    /// How.
    pub method: Method,
    /// As typed: `value`, or `camber_out`, `camber_in`, `steer`.
    pub entries: Vec<RawEntry>,
    /// What a bare length means.
    pub unit: LengthUnit,
    /// Where a toe length was measured across, mm.
    #[serde(default)]
    pub diameter_mm: Option<f64>,
}

fn converted(t: &TypedReading) -> Result<Converted, Problem> {
    let entry = |name: &str| t.entries.iter().find(|e| e.name == name).map_or("", |e| e.text.as_str());
    if t.entries.len() > 8 || t.entries.iter().any(|e| e.text.len() > 64 || e.name.len() > 32) {
        return Err(Problem::new("entries", "more than a reading has", "up to eight short entries"));
    }
    let value = entry("value");
    let taken = match (t.quantity, t.method) {
        (Quantity::Height, Method::Direct) => Taken::Height { value },
        (Quantity::Camber, Method::Direct) => Taken::Camber { value },
        (Quantity::Caster, Method::Direct) => Taken::Caster { value },
        (Quantity::Caster, Method::Sweep) => {
            Taken::CasterSweep { out: entry("camber_out"), inward: entry("camber_in"), steer: entry("steer") }
        }
        (Quantity::Toe, Method::Direct) => {
            Taken::Toe { value, diameter_mm: t.diameter_mm.unwrap_or(f64::NAN) }
        }
        (_, Method::Sweep) => return Err(Problem::new("method", "only caster is swept", "direct")),
    };
    convert(&taken, t.unit)
}

/// What a reading would mean, without keeping it.
#[utoipa::path(post, path = "/api/v1/readings/preview", operation_id = "previewReading", request_body = TypedReading,
    responses((status = 200, body = Converted), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/readings/preview")]
pub async fn preview(Doc(t): Doc<TypedReading>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(converted(&t)?))
}

/// Keeps a reading.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/readings", operation_id = "addReading", params(("id" = Uuid, Path)), request_body = TypedReading,
    responses((status = 201, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/readings")]
pub async fn add(
    state: web::Data<AppState>,
    id: web::Path<Uuid>,
    Doc(t): Doc<TypedReading>,
) -> Result<HttpResponse, ApiError> {
    let c = converted(&t)?;
    let shop = state.shop.id;
    let mut tx = state.store.tx(shop).await?;
    job::get(&mut tx, *id).await?;
    let new = NewReading {
        id: t.id,
        visit: t.visit,
        quantity: t.quantity,
        side: t.side,
        method: t.method,
        raw: t.entries,
        unit: if t.unit == LengthUnit::In { "in".into() } else { "mm".into() },
        value: c.value,
        sigma: c.sigma,
        author: AUTHOR.into(),
    };
    reading::add(&mut tx, shop, *id, &new).await?;
    event::record(&mut tx, shop, Some(*id), AUTHOR, "reading kept", serde_json::json!({"reading": t.id}))
        .await?;
    let ticket = jobs::ticket(&state, &mut tx, *id).await?;
    if ticket.missing.is_empty() {
        job::reach_stage(&mut tx, *id, Stage::Plan).await?;
    } else {
        job::reach_stage(&mut tx, *id, Stage::Read).await?;
    }
    let ticket = jobs::ticket(&state, &mut tx, *id).await?;
    tx.commit().await.map_err(StoreError::from)?;
    Ok(HttpResponse::Created().json(ticket))
}
