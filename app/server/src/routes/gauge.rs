//! The angle gauge: what is there, its angle as it moves, and its buttons. Each request has a line of its own to
//! the gauge, so that the server keeps no state.

use super::Doc;
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::header::ContentEncoding;
use actix_web::{HttpResponse, get, post, web};
use bold_stance_gauge::{Command, Gauge, GaugeError, GaugePlace, Line, Looking};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use std::net::SocketAddr;
use tokio_stream::wrappers::ReceiverStream;
use utoipa::ToSchema;

/// Whether a gauge is there.
#[derive(Debug, Serialize, ToSchema)]
pub struct GaugeInfo {
    /// It answers.
    pub present: bool,
    /// What it calls itself.
    pub name: String,
    /// Smallest step it shows, degrees.
    pub step_deg: f64,
    /// Stands on a simulated car.
    pub simulated: bool,
}

/// An angle as it comes.
#[derive(Debug, Serialize, ToSchema)]
pub struct GaugeAngle {
    /// Degrees as shown.
    pub deg: f64,
    /// Held with its button.
    pub held: bool,
    /// Counts from a zero of the user's own.
    pub zeroed: bool,
}

/// A button of the gauge.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum GaugeButton {
    /// Count from here.
    Zero,
    /// Count from gravity again.
    Unzero,
    /// Keep this angle.
    Hold,
    /// Follow again.
    Release,
}

/// What the gauge is told: a button, or, for a simulated one, where it is held.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TellGauge {
    /// A button.
    #[serde(default)]
    pub button: Option<GaugeButton>,
    /// Where a simulated gauge is held.
    #[serde(default)]
    pub place: Option<GaugeSpot>,
}

/// Where a simulated gauge is held.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct GaugeSpot {
    /// Front axle, else rear.
    pub front: bool,
    /// Left side, else right.
    pub left: bool,
    /// Looks fore and aft, else along the axle.
    #[serde(default)]
    pub fore_aft: bool,
    /// Swing, degrees, left positive.
    #[serde(default)]
    pub steer_deg: f64,
    /// Height above design, mm.
    #[serde(default)]
    pub gain_mm: f64,
}

fn address(state: &Here) -> Result<SocketAddr, ApiError> {
    state.gauge.ok_or_else(|| {
        Problem::new("gauge", said("fault-no-gauge-connected"), said("fault-start-server-gauge-its-address"))
            .into()
    })
}

fn refused(e: &GaugeError) -> ApiError {
    Problem::new("gauge", e.to_string(), said("fault-gauge-within-reach-type-angle")).into()
}

/// Runs `work` on a connection of its own, off the server's own threads.
async fn with_gauge<T: Send + 'static>(
    at: SocketAddr,
    work: impl FnOnce(&mut Gauge) -> Result<T, GaugeError> + Send + 'static,
) -> Result<T, ApiError> {
    web::block(move || Gauge::connect(at).and_then(|mut g| work(&mut g)))
        .await
        .map_err(|e| ApiError::from(Problem::new("gauge", e.to_string(), said("fault-try-again"))))?
        .map_err(|e| refused(&e))
}

/// Whether a gauge is there, and what it is.
#[utoipa::path(get, path = "/api/v1/gauge", operation_id = "gauge", responses((status = 200, body = GaugeInfo)))]
#[get("/api/v1/gauge")]
pub async fn info(state: Here) -> HttpResponse {
    let none = GaugeInfo { present: false, name: String::new(), step_deg: 0.0, simulated: false };
    let Some(at) = state.gauge else { return HttpResponse::Ok().json(none) };
    match with_gauge(at, |g| Ok(g.hello.clone())).await {
        Ok(Line::Hello { name, resolution_deg, simulated }) => {
            HttpResponse::Ok().json(GaugeInfo { present: true, name, step_deg: resolution_deg, simulated })
        }
        _ => HttpResponse::Ok().json(none),
    }
}

/// Its angle as it moves, as server-sent events of `GaugeAngle`.
#[utoipa::path(get, path = "/api/v1/gauge/stream", operation_id = "gaugeStream",
    responses((status = 200, body = GaugeAngle, content_type = "text/event-stream"), (status = 422, body = ProblemDocument)))]
#[get("/api/v1/gauge/stream")]
pub async fn stream(state: Here) -> Result<HttpResponse, ApiError> {
    let at = address(&state)?;
    let mut gauge = web::block(move || Gauge::connect(at))
        .await
        .map_err(|e| ApiError::from(Problem::new("gauge", e.to_string(), said("fault-try-again"))))?
        .map_err(|e| refused(&e))?;
    let (tx, rx) = tokio::sync::mpsc::channel::<Result<web::Bytes, std::convert::Infallible>>(4);
    std::thread::spawn(move || {
        // Ends with the gauge, or with the page: then nobody takes the next angle.
        while let Ok(line) = gauge.line() {
            let Line::Angle { deg, held, zeroed, .. } = line else { continue };
            let Ok(json) = serde_json::to_string(&GaugeAngle { deg, held, zeroed }) else { return };
            if tx.blocking_send(Ok(format!("data: {json}\n\n").into())).is_err() {
                return;
            }
        }
    });
    Ok(HttpResponse::Ok()
        .content_type("text/event-stream")
        .insert_header(ContentEncoding::Identity)
        .insert_header(("cache-control", "no-store"))
        .streaming(ReceiverStream::new(rx)))
}

/// Presses a button of the gauge, or holds a simulated one somewhere else.
#[utoipa::path(post, path = "/api/v1/gauge/tell", operation_id = "tellGauge", request_body = TellGauge,
    responses((status = 200, body = String, content_type = "application/json"), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/gauge/tell")]
pub async fn tell(state: Here, Doc(t): Doc<TellGauge>) -> Result<HttpResponse, ApiError> {
    let command = match (t.button, t.place) {
        (Some(GaugeButton::Zero), None) => Command::Zero,
        (Some(GaugeButton::Unzero), None) => Command::Unzero,
        (Some(GaugeButton::Hold), None) => Command::Hold,
        (Some(GaugeButton::Release), None) => Command::Release,
        (None, Some(p)) => {
            let looking = if p.fore_aft { Looking::ForeAft } else { Looking::Camber };
            let place = GaugePlace {
                front: p.front,
                left: p.left,
                looking,
                steer_deg: p.steer_deg,
                gain_mm: p.gain_mm,
            };
            // The line it becomes has limits of its own.
            Command::parse(&Command::Place(place).to_string())
                .map_err(|e| Problem::new("place", e.wrong, e.right))?
        }
        _ => {
            return Err(Problem::new(
                "button",
                said("fault-neither-both"),
                said("fault-one-button-one-place"),
            )
            .into());
        }
    };
    with_gauge(address(&state)?, move |g| g.tell(&command)).await?;
    Ok(HttpResponse::Ok().json("ok"))
}
