//! What the server counts of itself, for whoever watches it: requests by operation and status, how long they took, how many
//! listen. Told to this machine only, and to nobody through a proxy.

use crate::AppState;
use crate::pool::Peer;
use crate::problem::ApiError;
use actix_web::{HttpRequest, HttpResponse, web};
use prometheus::{HistogramOpts, HistogramVec, IntCounterVec, IntGauge, Opts, Registry, TextEncoder};

/// Seconds the buckets of a histogram end at.
const BUCKETS: [f64; 10] = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1.0, 2.5, 10.0];

/// The counters of a process.
#[derive(Debug, Clone)]
pub struct Metrics {
    registry: Registry,
    requests: IntCounterVec,
    seconds: HistogramVec,
    listeners: IntGauge,
}

impl Metrics {
    /// Fresh ones.
    ///
    /// # Errors
    /// Names that cannot stand together; those below can.
    pub fn new() -> Result<Self, prometheus::Error> {
        let registry = Registry::new();
        let requests = IntCounterVec::new(
            Opts::new("bold_stance_requests_total", "Answers by operation and status"),
            &["operation", "status"],
        )?;
        let seconds = HistogramVec::new(
            HistogramOpts::new(
                "bold_stance_request_seconds",
                "From the first byte of a request to the head of its answer",
            )
            .buckets(BUCKETS.to_vec()),
            &["operation"],
        )?;
        let listeners = IntGauge::new("bold_stance_listeners", "Open lines of live events")?;
        registry.register(Box::new(requests.clone()))?;
        registry.register(Box::new(seconds.clone()))?;
        registry.register(Box::new(listeners.clone()))?;
        Ok(Self { registry, requests, seconds, listeners })
    }

    /// Counts an answer.
    pub fn count(&self, operation: &str, status: u16, seconds: f64) {
        self.requests.with_label_values(&[operation, &status.to_string()]).inc();
        self.seconds.with_label_values(&[operation]).observe(seconds);
    }

    /// Somebody listens, until what is given is dropped.
    #[must_use]
    pub fn listening(&self) -> Listening {
        self.listeners.inc();
        Listening(self.listeners.clone())
    }

    fn text(&self) -> Option<String> {
        TextEncoder::new().encode_to_string(&self.registry.gather()).ok()
    }
}

/// A line that is open.
#[derive(Debug)]
pub struct Listening(IntGauge);

impl Drop for Listening {
    fn drop(&mut self) {
        self.0.dec();
    }
}

/// The counters, in the text form of Prometheus.
pub async fn told(
    state: web::Data<AppState>,
    req: HttpRequest,
    peer: Peer,
) -> Result<HttpResponse, ApiError> {
    let here = peer.address().is_some_and(|a| a.is_loopback());
    if !here || req.headers().contains_key("x-forwarded-for") {
        return Err(ApiError::NoRoute);
    }
    let text = state.metrics.text().ok_or(ApiError::Failed)?;
    Ok(HttpResponse::Ok().content_type("text/plain; version=0.0.4").body(text))
}

/// That the process lives, whatever the database does; `/api/v1/health` is whether it can serve.
pub async fn alive() -> HttpResponse {
    HttpResponse::Ok().body("ok")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_was_counted_is_told() {
        let m = Metrics::new().unwrap();
        m.count("listJobs", 200, 0.004);
        m.count("listJobs", 200, 0.3);
        m.count("predict", 422, 0.02);
        let open = m.listening();
        let text = m.text().unwrap();
        assert!(
            text.contains(r#"bold_stance_requests_total{operation="listJobs",status="200"} 2"#),
            "{text}"
        );
        assert!(
            text.contains(r#"bold_stance_request_seconds_bucket{operation="listJobs",le="0.005"} 1"#),
            "{text}"
        );
        assert!(text.contains("bold_stance_listeners 1"), "{text}");
        drop(open);
        assert!(m.text().unwrap().contains("bold_stance_listeners 0"));
    }
}
