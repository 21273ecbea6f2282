//! On its way out what the core said becomes words, in the units the request asks for.

use actix_web::body::{self, BodySize, BoxBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::header::{CONTENT_TYPE, HeaderMap};
use actix_web::middleware::Next;
use bold_stance_words::{Units, Voice, english};
use serde::Deserialize;
use std::sync::Arc;

/// The header that names the units somebody works in.
pub const UNITS: &str = "x-units";

/// The voice a request asks for.
#[must_use]
pub fn voice_of(headers: &HeaderMap) -> Arc<Voice> {
    let asked = headers.get(UNITS).and_then(|v| v.to_str().ok()).unwrap_or_default();
    english(Units::parse(asked))
}

/// The units a table is asked for in: a download is a link and carries no header.
#[derive(Debug, Default, Deserialize, utoipa::IntoParams)]
#[into_params(parameter_in = Query)]
pub struct TableUnits {
    /// As in the header: `length=in; distance=miles; tread=in32`; what is not told is metric.
    #[serde(default)]
    pub units: String,
}

impl TableUnits {
    /// As asked.
    #[must_use]
    pub fn units(&self) -> Units {
        Units::parse(&self.units)
    }
}

/// Marks an answer that leaves as it is kept: a file, whose messages another shop reads in its own units.
#[derive(Debug, Clone, Copy)]
pub struct AsKept;

/// What a message looks like in a body; a body without one is passed on as it is.
const MARK: &[u8] = br#"{"say":"#;

/// Says every message of a JSON text.
pub fn spoken(voice: &Voice, text: &[u8]) -> Option<Vec<u8>> {
    if !text.windows(MARK.len()).any(|w| w == MARK) {
        return None;
    }
    let mut v = serde_json::from_slice(text).ok()?;
    voice.speak(&mut v);
    serde_json::to_vec(&v).ok()
}

/// Middleware: speaks JSON bodies. What is streamed speaks for itself.
///
/// # Errors
/// Those of the service below it.
pub async fn speak<B: MessageBody + 'static>(
    req: ServiceRequest,
    next: Next<B>,
) -> Result<ServiceResponse<BoxBody>, actix_web::Error> {
    let voice = voice_of(req.headers());
    let res = next.call(req).await?;
    let json = res
        .headers()
        .get(CONTENT_TYPE)
        .and_then(|t| t.to_str().ok())
        .is_some_and(|t| t.starts_with("application/json") || t.starts_with("application/problem+json"));
    let kept = res.response().extensions().contains::<AsKept>();
    if kept || !json || !matches!(res.response().body().size(), BodySize::Sized(_)) {
        return Ok(res.map_into_boxed_body());
    }
    let (req, res) = res.into_parts();
    let (res, body) = res.into_parts();
    let bytes = body::to_bytes(body).await.map_err(|_| actix_web::error::ErrorInternalServerError("body"))?;
    let out = match spoken(&voice, &bytes) {
        Some(words) => BoxBody::new(words),
        None => BoxBody::new(bytes),
    };
    Ok(ServiceResponse::new(req, res.set_body(out)))
}
