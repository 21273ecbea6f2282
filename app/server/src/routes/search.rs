//! The plan search as a stream of lines: how far it is, then what it found. Closing the page ends it.

use super::Doc;
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use crate::speech::{spoken, voice_of};
use crate::who::Here;
use actix_web::http::header::ContentEncoding;
use actix_web::{HttpRequest, HttpResponse, post, web};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_trade::plan::{
    CarFound, CarInput, CarWish, Filters, HeightAnswer, HeightTarget, LadderAsked, Ladders, Progress,
    SearchResult, height_for, ladders, search_car, search_whole,
};
use bold_stance_tread::CarTyres;
use bold_stance_units::problem::Problem;
use serde::{Deserialize, Serialize};
use std::sync::atomic::{AtomicBool, Ordering};
use tokio::sync::mpsc::error::TrySendError;
use tokio_stream::wrappers::ReceiverStream;
use utoipa::ToSchema;

/// What is searched.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SearchRequest {
    /// The car and its plan; the parts fitted on the axle are not looked at.
    pub car: CarInput,
    /// The axle.
    pub axle: Axle,
    /// What may be used.
    #[serde(default)]
    pub filters: Filters,
    /// Tyres to forecast.
    #[serde(default)]
    pub tyres: Option<CarTyres>,
}

/// One line of the stream: `progress`, then `result` or `problems`.
#[derive(Debug, Serialize, ToSchema)]
pub struct SearchLine {
    /// How far it is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub progress: Option<Progress>,
    /// What it found; the last line.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub result: Option<Box<SearchResult>>,
    /// What is wrong with the request; the last line.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub problems: Option<Vec<Problem>>,
}

/// Searches sets of parts; one JSON line after the other.
#[utoipa::path(post, path = "/api/v1/plans/search", operation_id = "searchPlans", request_body = SearchRequest,
    responses((status = 200, body = SearchLine, content_type = "application/x-ndjson"), (status = 400, body = ProblemDocument)))]
#[post("/api/v1/plans/search")]
pub async fn plans(
    state: Here,
    req: HttpRequest,
    Doc(r): Doc<SearchRequest>,
) -> Result<HttpResponse, ApiError> {
    let parts = state.shelf().await?.offered(&[], &r.car);
    stream(&state, &req, move |say| search_car(&r.car, r.axle, &r.filters, r.tyres.as_ref(), &parts, say))
        .await
}

/// A whole car to search.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CarSearchRequest {
    /// The car and its plan; the parts fitted are not looked at.
    pub car: CarInput,
    /// What is wished of it.
    pub wish: CarWish,
    /// Tyres to forecast.
    #[serde(default)]
    pub tyres: Option<CarTyres>,
}

/// One line of the stream: `progress`, then `result` or `problems`.
#[derive(Debug, Serialize, ToSchema)]
pub struct CarSearchLine {
    /// How far it is.
    pub progress: Option<Progress>,
    /// What it found; the last line.
    pub result: Option<Box<CarFound>>,
    /// What is wrong with the request; the last line.
    pub problems: Option<Vec<Problem>>,
}

/// Searches heights and sets of parts of both axles together; one JSON line after the other.
#[utoipa::path(post, path = "/api/v1/plans/search-car", operation_id = "searchCar", request_body = CarSearchRequest,
    responses((status = 200, body = CarSearchLine, content_type = "application/x-ndjson"), (status = 400, body = ProblemDocument)))]
#[post("/api/v1/plans/search-car")]
pub async fn whole_car(
    state: Here,
    req: HttpRequest,
    Doc(r): Doc<CarSearchRequest>,
) -> Result<HttpResponse, ApiError> {
    let parts = state.shelf().await?.offered(&[], &r.car);
    stream(&state, &req, move |say| search_whole(&r.car, &r.wish, r.tyres.as_ref(), &parts, say)).await
}

/// A line of any search.
#[derive(Serialize)]
struct Line<R> {
    #[serde(skip_serializing_if = "Option::is_none")]
    progress: Option<Progress>,
    #[serde(skip_serializing_if = "Option::is_none")]
    result: Option<R>,
    #[serde(skip_serializing_if = "Option::is_none")]
    problems: Option<Vec<Problem>>,
}

/// Told how far a search is; answers whether to go on.
type Say<'s> = &'s (dyn Fn(&Progress) -> bool + Sync);

/// Runs a search beside the workers and streams what it says.
async fn stream<R: Serialize + Send + 'static>(
    state: &Here,
    req: &HttpRequest,
    run: impl FnOnce(Say<'_>) -> Result<R, Vec<Problem>> + Send + 'static,
) -> Result<HttpResponse, ApiError> {
    let voice = voice_of(req.headers());
    let (tx, rx) = tokio::sync::mpsc::channel::<Result<web::Bytes, std::convert::Infallible>>(64);
    // A search keeps its place to its end, which comes with its listener's.
    let place = state.pool.place().await?;
    std::thread::spawn(move || {
        let _place = place;
        let line = |l: &Line<R>| {
            serde_json::to_vec(l).map(|t| {
                let mut t = spoken(&voice, &t).unwrap_or(t);
                t.push(b'\n');
                web::Bytes::from(t)
            })
        };
        let gone = AtomicBool::new(false);
        let say = |p: &Progress| {
            let l = Line { progress: Some(p.clone()), result: None, problems: None };
            // A full pipe loses a step of progress, a closed one ends the search.
            if let Ok(Err(TrySendError::Closed(_))) = line(&l).map(|b| tx.try_send(Ok(b))) {
                gone.store(true, Ordering::Relaxed);
            }
            !gone.load(Ordering::Relaxed)
        };
        let last = match run(&say) {
            Ok(found) => Line { progress: None, result: Some(found), problems: None },
            Err(list) => Line { progress: None, result: None, problems: Some(list) },
        };
        if let Ok(b) = line(&last) {
            // Nobody may be there to take it.
            let _ = tx.blocking_send(Ok(b));
        }
    });
    Ok(HttpResponse::Ok()
        .content_type("application/x-ndjson")
        .insert_header(ContentEncoding::Identity)
        .insert_header(("cache-control", "no-store"))
        .streaming(ReceiverStream::new(rx)))
}

/// How high and how low an axle can go as built and with each set of parts.
#[utoipa::path(post, path = "/api/v1/ladders", operation_id = "ladders", request_body = LadderAsked,
    responses((status = 200, body = Ladders), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/ladders")]
pub async fn height_ladders(
    state: Here,
    peer: Peer,
    Doc(a): Doc<LadderAsked>,
) -> Result<HttpResponse, ApiError> {
    let parts = state.shelf().await?.offered(&a.sets.concat(), &a.car);
    let found = state.pool.run(&peer, move |budget| ladders(&a, &parts, budget)).await??;
    Ok(HttpResponse::Ok().json(found))
}

/// From a wanted height to the gain, and to turns of a collar or bolt.
#[utoipa::path(post, path = "/api/v1/height-target", operation_id = "heightTarget", request_body = HeightTarget,
    responses((status = 200, body = HeightAnswer), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/height-target")]
pub async fn height_target(state: Here, Doc(t): Doc<HeightTarget>) -> Result<HttpResponse, ApiError> {
    let known = state.shelf().await?.heights_for(&t.car);
    Ok(HttpResponse::Ok().json(height_for(&t, &known.turns)?))
}
