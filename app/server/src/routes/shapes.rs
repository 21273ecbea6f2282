//! A wheel measured moving, and the shapes a shop keeps of its measured cars.

use super::Doc;
use crate::once::{Begun, Once, again};
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, delete, post, web};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_store::{event, job, shop_shape, vehicle};
use bold_stance_trade::job::{MovingAsked, MovingSaid, moving_said, shape_of};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// An axle to keep as a shape.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KeepShape {
    /// Which axle of the car as saved.
    pub axle: Axle,
    /// What the shape is called.
    #[schema(max_length = 60)]
    pub name: String,
}

/// A shape that was kept.
#[derive(Debug, Serialize, ToSchema)]
pub struct KeptShape {
    /// Its id among the shapes.
    pub id: String,
}

/// What readings of one wheel at several heights say of its axle's points.
#[utoipa::path(post, path = "/api/v1/moving", operation_id = "lookAtMoving", request_body = MovingAsked,
    responses((status = 200, body = MovingSaid), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/moving")]
pub async fn look(state: Here, peer: Peer, Doc(a): Doc<MovingAsked>) -> Result<HttpResponse, ApiError> {
    let said = state.pool.run(&peer, move |_| moving_said(&a)).await??;
    Ok(HttpResponse::Ok().json(said))
}

/// Keeps an axle of a job's car as a shape of the shop.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/shapes", operation_id = "keepShape", params(("id" = Uuid, Path)), request_body = KeepShape,
    responses((status = 201, body = KeptShape), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/shapes")]
pub async fn keep(
    state: Here,
    id: web::Path<Uuid>,
    Doc(k): Doc<KeepShape>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let j = job::get(&mut tx, *id).await?;
    let facts = vehicle::get(&mut tx, j.vehicle_id).await?.facts;
    let shape = shape_of(&facts, k.axle, &k.name)?;
    let free = shop_shape::add(&mut tx, state.shop.id, &shape).await?;
    if !free || state.archetypes.iter().any(|a| a.id == shape.id) {
        return Err(Problem::new("name", said("fault-shape-there"), said("fault-another-name")).into());
    }
    let detail = serde_json::json!({"shape": shape.id});
    event::record(&mut tx, state.shop.id, Some(*id), state.name(), "shape kept", detail).await?;
    once.answer(tx, StatusCode::CREATED, &KeptShape { id: shape.id }).await
}

/// Removes a shape of the shop; cars made of it keep their points.
#[utoipa::path(delete, path = "/api/v1/shapes/{id}", operation_id = "removeShape", params(("id" = String, Path)),
    responses((status = 204, description = "Gone"), (status = 404, body = ProblemDocument)))]
#[delete("/api/v1/shapes/{id}")]
pub async fn remove(state: Here, id: web::Path<String>, once: Once) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    if !shop_shape::remove(&mut tx, &id).await? {
        return Err(ApiError::NoRoute);
    }
    event::record(
        &mut tx,
        state.shop.id,
        None,
        state.name(),
        "shape removed",
        serde_json::json!({"shape": *id}),
    )
    .await?;
    once.done(tx, StatusCode::NO_CONTENT).await?;
    Ok(HttpResponse::NoContent().finish())
}
