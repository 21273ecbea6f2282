//! The jig: one corner to play with.

use super::Doc;
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::{HttpResponse, post};
use bold_stance_practice::{JigAsked, JigStands, jig};

/// One corner, set in one or two ways and held as asked: over the ground, over the turn of the steering, on its tread.
#[utoipa::path(post, path = "/api/v1/jig", operation_id = "jig", request_body = JigAsked,
    responses((status = 200, body = Vec<JigStands>), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jig")]
pub async fn turn(state: Here, peer: Peer, Doc(asked): Doc<JigAsked>) -> Result<HttpResponse, ApiError> {
    let stands = state.pool.run(&peer, move |_| jig(&asked)).await??;
    Ok(HttpResponse::Ok().json(stands))
}
