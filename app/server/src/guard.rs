//! Who may ask: this machine only, and only pages of this server may write.

use actix_web::body::{BoxBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::{Method, header};
use actix_web::middleware::{DefaultHeaders, Next};
use actix_web::{ResponseError, web};

use crate::problem::ApiError;
use crate::{AppState, once};
use std::time::Duration;

/// Longest a request is worked on before its answer begins, seconds: more than a statement and a lock may take together.
const LONGEST_S: u64 = 30;

/// Middleware: a database that is frozen takes no request along for good. What is asked for is given up, told, and its
/// connection let go.
///
/// # Errors
/// Those of the service below it.
pub async fn in_time(
    req: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, actix_web::Error> {
    match actix_web::rt::time::timeout(Duration::from_secs(LONGEST_S), next.call(req)).await {
        Ok(answer) => Ok(answer?.map_into_boxed_body()),
        Err(_) => {
            tracing::error!("no answer within {LONGEST_S} s: given up");
            Err(ApiError::GivenUp.into())
        }
    }
}

/// Who reaches this server.
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub enum Exposure {
    /// This machine alone.
    #[default]
    Here,
    /// A network: by a certificate of its own, or behind a proxy that has one.
    Public {
        /// Names it is reached by; empty: any, where the certificate is its own.
        hosts: Vec<String>,
        /// A proxy stands before it, says where requests come from, and speaks TLS with them.
        proxy: bool,
    },
}

impl Exposure {
    /// Whether anybody but this machine reaches it.
    #[must_use]
    pub fn is_public(&self) -> bool {
        matches!(self, Self::Public { .. })
    }

    /// Whether browsers speak TLS with it: cookies go nowhere else then.
    #[must_use]
    pub fn is_secure(&self) -> bool {
        self.is_public()
    }

    /// Whether a proxy stands before it.
    #[must_use]
    pub fn has_proxy(&self) -> bool {
        matches!(self, Self::Public { proxy: true, .. })
    }

    /// Whether it answers under a Host.
    #[must_use]
    pub fn answers_to(&self, host: &str) -> bool {
        match self {
            Self::Here => is_loopback_host(host),
            Self::Public { hosts, .. } => {
                let name = host.rsplit_once(':').map_or(host, |(h, port)| {
                    if port.bytes().all(|b| b.is_ascii_digit()) { h } else { host }
                });
                !name.is_empty() && (hosts.is_empty() || hosts.iter().any(|h| h.eq_ignore_ascii_case(name)))
            }
        }
    }
}

/// Headers on every answer.
pub fn headers(exposure: &Exposure) -> DefaultHeaders {
    let all = DefaultHeaders::new()
        .add(("X-Content-Type-Options", "nosniff"))
        .add(("Referrer-Policy", "no-referrer"))
        .add(("X-Frame-Options", "DENY"))
        .add(("Cross-Origin-Opener-Policy", "same-origin"))
        .add(("Cross-Origin-Resource-Policy", "same-origin"))
        .add(("Permissions-Policy", "geolocation=(), microphone=(), payment=()"))
        .add((
            "Content-Security-Policy",
            "default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; font-src 'self' data:; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'",
        ));
    match exposure {
        Exposure::Here => all,
        Exposure::Public { .. } => all.add(("Strict-Transport-Security", "max-age=63072000")),
    }
}

/// Whether a Host or Origin value names this machine.
#[must_use]
pub fn is_loopback_host(value: &str) -> bool {
    let host = value.split("://").last().unwrap_or(value);
    let name = match host.strip_prefix('[') {
        Some(rest) => rest.split(']').next().unwrap_or_default(),
        None => host.rsplit_once(':').map_or(host, |(h, _)| h),
    };
    name == "localhost" || name == "::1" || name.parse::<std::net::Ipv4Addr>().is_ok_and(|a| a.is_loopback())
}

/// A refusal as an answer, so that what it says is said in the units asked for.
fn answered(req: ServiceRequest, e: ApiError) -> ServiceResponse<BoxBody> {
    req.error_response(e).map_into_boxed_body()
}

/// Refuses foreign hosts (DNS rebinding) and writes from other sites' pages.
pub async fn well_met(
    req: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, actix_web::Error> {
    let text = |name| req.headers().get(name).and_then(|v: &header::HeaderValue| v.to_str().ok());
    let exposure = req.app_data::<web::Data<AppState>>().map(|s| s.exposure.clone()).unwrap_or_default();
    let host = text(header::HOST).map(str::to_owned).or_else(|| req.uri().authority().map(|a| a.to_string()));
    let host = host.unwrap_or_default();
    if !exposure.answers_to(&host) {
        let why = match exposure {
            Exposure::Here => "this server answers to this machine only",
            Exposure::Public { .. } => "this server is not called that",
        };
        return Ok(answered(req, ApiError::Forbidden(why)));
    }
    let reads = matches!(*req.method(), Method::GET | Method::HEAD);
    let foreign = text(header::ORIGIN).is_some_and(|o| o.split("://").last() != Some(host.as_str()));
    if !reads && foreign {
        return Ok(answered(req, ApiError::Forbidden("another site's page may not write here")));
    }
    Ok(next.call(req).await?.map_into_boxed_body())
}

/// Gives every answer the id its log line has, and makes whatever failed on the way an answer of ours: no inner word of it
/// leaves.
pub async fn told_plainly(
    req: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, actix_web::Error> {
    let id = uuid::Uuid::new_v4();
    let method = req.method().clone();
    let state = req.app_data::<web::Data<AppState>>().cloned();
    // What an address holds is somebody's: the log has its operation.
    let operation = state.as_ref().and_then(|s| s.addresses.operation_at(req.method(), req.path()));
    let began = std::time::Instant::now();
    let ours = |h: &header::HeaderMap| {
        h.get(header::CONTENT_TYPE)
            .is_some_and(|t| t.as_bytes().starts_with(crate::problem::PROBLEM.as_bytes()))
    };
    let mut res = match next.call(req).await {
        Ok(r) => r.map_into_boxed_body(),
        Err(e)
            if ours(e.error_response().headers())
                || !e.as_response_error().status_code().is_server_error() =>
        {
            let status = e.as_response_error().status_code().as_u16();
            let operation = operation.as_deref().unwrap_or("page");
            if let Some(s) = state {
                s.metrics.count(operation, status, began.elapsed().as_secs_f64());
            }
            tracing::info!(target: "access", %id, %method, operation, status, ms = began.elapsed().as_millis());
            return Err(e);
        }
        Err(e) => {
            tracing::error!(%id, "{e}");
            return Err(ApiError::Failed.into());
        }
    };
    let status = res.status();
    if status.is_server_error() && !ours(res.headers()) {
        tracing::error!(%id, %status, "an answer that was none of ours");
        res = ServiceResponse::new(res.request().clone(), ApiError::Failed.error_response());
    }
    let (ms, seconds) = (began.elapsed().as_millis(), began.elapsed().as_secs_f64());
    let operation = operation.as_deref().unwrap_or("page");
    if let Some(s) = state {
        s.metrics.count(operation, res.status().as_u16(), seconds);
    }
    tracing::info!(target: "access", %id, %method, operation, status = res.status().as_u16(), ms);
    if let Ok(v) = header::HeaderValue::from_str(&id.to_string()) {
        res.headers_mut().insert(header::HeaderName::from_static("x-request-id"), v);
    }
    Ok(res)
}

/// Refuses a method that an address does not take, where a route for any name would take it for one, and a key of a write
/// that is none.
pub async fn well_asked(
    req: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, actix_web::Error> {
    let taken = req.app_data::<web::Data<AppState>>().map(|s| s.addresses.exactly_at(req.path()));
    if let Some(taken) = taken.filter(|t| !t.is_empty() && !t.contains(&req.method().as_str())) {
        return Ok(answered(req, ApiError::Method(taken)));
    }
    if let Err(e) = once::key_of(req.request()) {
        return Ok(answered(req, e));
    }
    Ok(next.call(req).await?.map_into_boxed_body())
}

#[cfg(test)]
mod tests {
    use super::{Exposure, is_loopback_host};

    #[test]
    fn only_this_machine() {
        for ok in ["127.0.0.1:8080", "localhost", "localhost:1", "[::1]:8080", "http://127.0.0.1:9"] {
            assert!(is_loopback_host(ok), "{ok}");
        }
        for no in ["", "example.test", "127.0.0.1.example.test:80", "10.0.0.1:8080", "localhost.example.test"]
        {
            assert!(!is_loopback_host(no), "{no}");
        }
    }

    #[test]
    fn on_a_network_it_answers_to_its_names() {
        let named = Exposure::Public { hosts: vec!["shop.example".into()], proxy: true };
        for ok in ["shop.example", "SHOP.example:8443"] {
            assert!(named.answers_to(ok), "{ok}");
        }
        for no in ["", "other.example", "shop.example.other", "127.0.0.1:8080", "shop.example:x"] {
            assert!(!named.answers_to(no), "{no}");
        }
        assert!(Exposure::Public { hosts: vec![], proxy: false }.answers_to("10.0.0.7:8443"));
        assert!(!Exposure::Here.is_secure() && named.is_secure() && named.has_proxy());
    }
}
