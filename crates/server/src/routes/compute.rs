//! Live previews: stateless posts over the core.

use super::Doc;
use crate::AppState;
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use actix_web::http::header::ContentEncoding;
use actix_web::{HttpResponse, post, web};
use bold_stance_core::geometry::{Geometry, Side};
use bold_stance_core::linkage::{Corner, Linkage};
use bold_stance_core::plan::{Drawing, PlanInput, PlanResult, draw, fitted_parts, plan_within};
use bold_stance_core::problem::Problem;
use bold_stance_core::sheet::{
    GateFinding, GateSide, SheetStep, StepKind, TOE_SET_BAND_DEG, fouls, job_cautions, judge_gate,
    sheet as sheet_of,
};
use bold_stance_core::vehicle::Attitude;
use bold_stance_core::wheel::WheelState;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use utoipa::ToSchema;

/// Travel every usable corner must close over, mm either way.
const USABLE_TRAVEL: f64 = 30.0;

/// A geometry looked at while it is typed.
#[derive(Debug, Serialize, ToSchema)]
pub struct GeometryLook {
    /// What is wrong, by field under `points` or `wheel`.
    pub problems: Vec<Problem>,
    /// What is worth knowing.
    pub remarks: Vec<String>,
    /// The left wheel at design, when it closes.
    pub wheel: Option<WheelState>,
    /// Drawing at design, when it closes.
    pub drawing: Option<Drawing>,
    /// Lowest travel that closes, mm (droop negative).
    pub droop_mm: Option<f64>,
    /// Highest travel that closes, mm.
    pub bump_mm: Option<f64>,
}

/// A plan with what was read at the gates of its sheet.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SheetRequest {
    /// The plan's document.
    pub input: PlanInput,
    /// Readings at gates, by the step's id, left and right.
    #[serde(default)]
    pub read: BTreeMap<String, [GateSide; 2]>,
}

/// What keeps a gate shut.
#[derive(Debug, Serialize, ToSchema)]
pub struct GateJudged {
    /// The gate's id.
    pub id: String,
    /// What is off; empty when it may open.
    pub off: Vec<GateFinding>,
}

/// The sheet of a plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct Sheet {
    /// The answer the sheet is made from.
    pub result: PlanResult,
    /// Steps and gates in order.
    pub steps: Vec<SheetStep>,
    /// Every gate, judged on the readings that were sent with the plan.
    pub gates: Vec<GateJudged>,
    /// Cautions of the whole job.
    pub cautions: Vec<String>,
    /// Toe of one wheel as expected after its rod was turned, 90 % half width, degrees.
    pub toe_band_deg: f64,
}

/// Loops that close at design but hardly away from it; `at` is put before every field.
pub fn travel_problems(g: &Geometry, at: &str) -> Vec<Problem> {
    let stops = |c: &Corner| {
        [-USABLE_TRAVEL, USABLE_TRAVEL].into_iter().filter_map(|t| c.pose(t, 0.0).err()).collect::<Vec<_>>()
    };
    let mut out: Vec<Problem> = stops(&Corner::of(g, Side::Left))
        .into_iter()
        .map(|e| {
            Problem::new(
                format!("{at}{}", e.field()),
                format!("the loop opens at {:.0} mm of travel: {e}", e.limit_travel_mm),
                "points that close over at least 30 mm up and down; measure that joint again",
            )
        })
        .collect();
    if g.right.is_some() && out.is_empty() {
        out.extend(stops(&Corner::of(g, Side::Right)).into_iter().map(|e| {
            Problem::new(
                format!("{at}right.{}", e.field()),
                format!("on the right the loop opens at {:.0} mm of travel: {e}", e.limit_travel_mm),
                "points that close over at least 30 mm up and down; measure that joint again",
            )
        }));
    }
    out
}

/// A front axle that cannot steer, as a problem.
pub fn steering_problem(g: &Geometry, at: &str) -> Option<Problem> {
    (!Corner::of(g, Side::Left).is_steered()).then(|| {
        Problem::new(
            format!("{at}layout"),
            "this front axle has no steering axis: nothing in it is turned by the steering",
            "a layout with a tie rod, a link named \"tie\", or a solid axle with its steering_axis",
        )
    })
}

/// The Plan answer.
#[utoipa::path(post, path = "/api/v1/predict", operation_id = "predict", request_body = PlanInput,
    responses((status = 200, body = PlanResult), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/predict")]
pub async fn predict(
    state: web::Data<AppState>,
    peer: Peer,
    Doc(input): Doc<PlanInput>,
) -> Result<HttpResponse, ApiError> {
    let parts = state.shelf().await?.offered(&input.fitted);
    let result = state.pool.run(&peer, move |budget| plan_within(&input, &parts, budget)).await??;
    // Asked for many times a second from the same machine: compressing would cost more than sending.
    Ok(HttpResponse::Ok().insert_header(ContentEncoding::Identity).json(result))
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

/// The setting sheet of a plan.
#[utoipa::path(post, path = "/api/v1/sheet", operation_id = "settingSheet", request_body = SheetRequest,
    responses((status = 200, body = Sheet), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/sheet")]
pub async fn sheet(
    state: web::Data<AppState>,
    peer: Peer,
    Doc(SheetRequest { input, read }): Doc<SheetRequest>,
) -> Result<HttpResponse, ApiError> {
    let parts = state.shelf().await?.offered(&input.fitted);
    let worked = state.pool.run(&peer, move |budget| {
        let result = plan_within(&input, &parts, budget)?;
        let steps = sheet_of(&input, &result, &fitted_parts(&input, &parts));
        Ok::<_, Vec<Problem>>((input, result, steps))
    });
    let (input, result, steps) = worked.await??;
    let gates = steps
        .iter()
        .filter(|s| s.kind == StepKind::Gate)
        .map(|s| {
            let off = match (s.id.as_str(), read.get(&s.id)) {
                ("fouls", _) => fouls(&result),
                (_, Some(sides)) => judge_gate(&input, &result, &s.needs, sides),
                (_, None) => Vec::new(),
            };
            GateJudged { id: s.id.clone(), off }
        })
        .collect();
    Ok(HttpResponse::Ok().json(Sheet {
        result,
        steps,
        gates,
        cautions: job_cautions(),
        toe_band_deg: TOE_SET_BAND_DEG,
    }))
}
