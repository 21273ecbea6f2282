//! Live previews: stateless posts over the core.

use super::Doc;
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::header::ContentEncoding;
use actix_web::{HttpResponse, post, web};
use bold_stance_car::draw::{Drawing, draw};
use bold_stance_car::vehicle::Attitude;
use bold_stance_kinematics::geometry::{Geometry, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage, travel_problems};
use bold_stance_kinematics::wheel::WheelState;
use bold_stance_trade::plan::{CarAnswer, CarInput, Pictures, plan_car_within};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::Said;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

/// A geometry looked at while it is typed.
#[derive(Debug, Serialize, ToSchema)]
pub struct GeometryLook {
    /// What is wrong, by field under `points` or `wheel`.
    pub problems: Vec<Problem>,
    /// What is worth knowing.
    pub remarks: Vec<Said>,
    /// The left wheel at design, when it closes.
    pub wheel: Option<WheelState>,
    /// Drawing at design, when it closes.
    pub drawing: Option<Drawing>,
    /// Lowest travel that closes, mm (droop negative).
    pub droop_mm: Option<f64>,
    /// Highest travel that closes, mm.
    pub bump_mm: Option<f64>,
}

/// What of an answer is looked at.
#[derive(Debug, Deserialize, IntoParams)]
#[serde(deny_unknown_fields)]
#[into_params(parameter_in = Query)]
pub struct LookedAt {
    /// Whose weaves and outlines are sent, to 0.0001 degrees; everything, to the last digit, when absent.
    #[param(inline)]
    pictures: Option<Pictures>,
}

/// The Plan answer of a car.
#[utoipa::path(post, path = "/api/v1/predict", operation_id = "predict", params(LookedAt), request_body = CarInput,
    responses((status = 200, body = CarAnswer), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/predict")]
pub async fn predict(
    state: Here,
    peer: Peer,
    looked_at: web::Query<LookedAt>,
    Doc(input): Doc<CarInput>,
) -> Result<HttpResponse, ApiError> {
    let parts = state.shelf().await?.offered(&input.plan.fitted(), &input);
    let mut answer = state.pool.run(&peer, move |budget| plan_car_within(&input, &parts, budget)).await??;
    if let Some(of) = looked_at.pictures {
        answer = answer.pictured(of);
    }
    let mut out = HttpResponse::Ok();
    // Asked for many times a second: on the same machine packing it costs more than sending it, over a bay's radio less.
    if peer.is_here() {
        out.insert_header(ContentEncoding::Identity);
    }
    Ok(out.json(answer))
}

/// A geometry while it is typed.
#[utoipa::path(post, path = "/api/v1/geometry", operation_id = "lookAtGeometry", request_body = Geometry,
    responses((status = 200, body = GeometryLook), (status = 400, body = ProblemDocument)))]
#[post("/api/v1/geometry")]
pub async fn geometry(Doc(g): Doc<Geometry>) -> HttpResponse {
    let mut problems = g.problems();
    let mut look = GeometryLook {
        problems: Vec::new(),
        remarks: Vec::new(),
        wheel: None,
        drawing: None,
        droop_mm: None,
        bump_mm: None,
    };
    if problems.is_empty() {
        let c = Corner::of(&g, Side::Left);
        look.remarks = g.remarks();
        look.wheel = c.wheel(0.0, 0.0).ok();
        look.drawing = draw(&c, 0.0, Attitude::default()).ok();
        let [droop, bump] = c.travel_range(250.0);
        look.droop_mm = Some(droop);
        look.bump_mm = Some(bump);
        problems.extend(travel_problems(&g, ""));
    }
    look.problems = problems;
    HttpResponse::Ok().json(look)
}
