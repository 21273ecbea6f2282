//! The whole car: archetypes to start from, both axles drawn, the corner file.

use super::Doc;
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::header::ContentEncoding;
use actix_web::{HttpResponse, get, post, web};
use bold_stance_car::adjuster::Offered;
use bold_stance_car::archetype::{Archetype, Fitted, Measure, Taped, UsualCar, fit_archetype};
use bold_stance_car::fit::Knowledge;
use bold_stance_car::metrics::{
    CarDrawing, CarDrawingRequest, CornerFile, CornerFileRequest, car_drawing, corner_file,
};
use bold_stance_car::vehicle::{Car, CarFacts, Gains};
use bold_stance_kinematics::geometry::Geometry;
use bold_stance_store::shop_shape;
use bold_stance_trade::inspect::{InspectItem, shipped_inspection};
use bold_stance_trade::job::{Turnable, TurnableRequest, planned_corner_file, turnable};
use bold_stance_trade::plan::CarInput;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// A measurement that can be taken on an archetype.
#[derive(Debug, Serialize, ToSchema)]
pub struct MeasureInfo {
    /// Which.
    pub measure: Measure,
    /// What to measure, in the shop's words.
    pub words: String,
    /// Degrees, else mm.
    pub is_angle: bool,
    /// On the shape as shipped, mm or degrees.
    pub usual: f64,
}

/// An archetype with what the tape can tell about it.
#[derive(Debug, Serialize, ToSchema)]
pub struct ArchetypeInfo {
    /// Stable word.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What is seen under the car.
    pub seen: String,
    /// What is worth knowing about its kind.
    pub note: String,
    /// The shape.
    pub geometry: Geometry,
    /// Measurements that fit it.
    pub measures: Vec<MeasureInfo>,
    /// Both wheels of it at design.
    pub drawing: Option<CarDrawing>,
    /// What a car of it usually is.
    pub usual: UsualCar,
    /// What can usually be turned on it.
    pub adjusters: Vec<Offered>,
    /// Measured in this shop.
    pub own: bool,
    /// How well the points of a car of it are known to begin with.
    pub knowledge: Knowledge,
}

fn drawn(a: &Archetype) -> Option<CarDrawing> {
    let car = Car {
        front: a.geometry.clone(),
        rear: None,
        wheelbase_mm: (-a.geometry.wheel.center[0]).max(1000.0),
        facts: CarFacts::default(),
    };
    car_drawing(&CarDrawingRequest { car, gains: Gains::default(), turn_deg: 0.0 }).ok()
}

/// What was taped.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FitRequest {
    /// Measurements, any of those listed with the archetype.
    pub taped: Vec<Taped>,
    /// Axle to axle, mm.
    pub wheelbase_mm: f64,
}

/// Generic axles.
#[utoipa::path(get, path = "/api/v1/archetypes", operation_id = "archetypes", responses((status = 200, body = Vec<ArchetypeInfo>)))]
#[get("/api/v1/archetypes")]
pub async fn archetypes(state: Here) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    let own = shop_shape::all(&mut tx).await?;
    let info = |own: bool| {
        move |a: &Archetype| ArchetypeInfo {
            own,
            knowledge: if own { Knowledge::Surveyed } else { Knowledge::Archetype },
            measures: a
                .measures()
                .into_iter()
                .map(|(measure, usual)| MeasureInfo {
                    measure,
                    words: measure.words().into(),
                    is_angle: measure.is_angle(),
                    usual,
                })
                .collect(),
            drawing: drawn(a),
            usual: a.usual.clone(),
            adjusters: a.usual_adjusters(),
            id: a.id.clone(),
            name: a.name.clone(),
            seen: a.seen.clone(),
            note: a.note.clone(),
            geometry: a.geometry.clone(),
        }
    };
    // What the shop measured is nearer to its cars than any generic shape.
    let all = own.iter().map(info(true)).chain(state.archetypes.iter().map(info(false)));
    Ok(HttpResponse::Ok().json(all.collect::<Vec<_>>()))
}

/// An archetype scaled to what was taped.
#[utoipa::path(post, path = "/api/v1/archetypes/{id}/fit", operation_id = "fitArchetype", params(("id" = String, Path)), request_body = FitRequest,
    responses((status = 200, body = Fitted), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/archetypes/{id}/fit")]
pub async fn fit(
    state: Here,
    id: web::Path<String>,
    Doc(r): Doc<FitRequest>,
) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    let own = shop_shape::all(&mut tx).await?;
    let Some(a) = own.iter().chain(&state.archetypes).find(|a| a.id == *id) else {
        let known: Vec<&str> = state.archetypes.iter().map(|a| a.id.as_str()).collect();
        return Err(vec![Problem::new(
            "id",
            said("fault-no-shape").name("id", id.as_str()),
            known.join(", "),
        )]
        .into());
    };
    Ok(HttpResponse::Ok().json(fit_archetype(a, &r.taped, r.wheelbase_mm)?))
}

/// What is looked at before any reading.
#[utoipa::path(get, path = "/api/v1/inspection", operation_id = "inspection", responses((status = 200, body = Vec<InspectItem>)))]
#[get("/api/v1/inspection")]
pub async fn inspection() -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(shipped_inspection()?))
}

/// What can be turned on an axle as found: where it sits, what one step does, what all of it reaches.
#[utoipa::path(post, path = "/api/v1/turnable", operation_id = "turnable", request_body = TurnableRequest,
    responses((status = 200, body = Turnable), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/turnable")]
pub async fn what_turns(Doc(r): Doc<TurnableRequest>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(turnable(&r)?))
}

/// Both axles over the ground at heights and a turn of the steering.
#[utoipa::path(post, path = "/api/v1/car-drawing", operation_id = "drawCar", request_body = CarDrawingRequest,
    responses((status = 200, body = CarDrawing), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/car-drawing")]
pub async fn drawing(Doc(r): Doc<CarDrawingRequest>) -> Result<HttpResponse, ApiError> {
    // Asked for while a slider moves.
    Ok(HttpResponse::Ok().insert_header(ContentEncoding::Identity).json(car_drawing(&r)?))
}

/// A corner file with the car's plan, where it has one.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CornerFileAsked {
    /// The car as it came in. Planned heights and what is set are the plan's where there is one.
    pub file: CornerFileRequest,
    /// The car's plan.
    #[serde(default)]
    pub car: Option<CarInput>,
}

/// Every whole-car quantity with what it means.
#[utoipa::path(post, path = "/api/v1/corner-file", operation_id = "cornerFile", request_body = CornerFileAsked,
    responses((status = 200, body = CornerFile), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/corner-file")]
pub async fn file(
    state: Here,
    peer: Peer,
    Doc(asked): Doc<CornerFileAsked>,
) -> Result<HttpResponse, ApiError> {
    let shelf = state.shelf().await?;
    let file = state.pool.run(&peer, move |budget| match &asked.car {
        Some(car) => planned_corner_file(asked.file, car, &shelf.only(car), budget),
        None => corner_file(&asked.file).map_err(|list| {
            let under = |p: Problem| Problem { field: format!("file.{}", p.field), ..p };
            list.into_iter().map(under).collect()
        }),
    });
    let file = file.await??;
    Ok(HttpResponse::Ok().json(file))
}
