//! Who may ask: this machine only, and only pages of this server may write.

use actix_web::body::{BoxBody, MessageBody};
use actix_web::dev::{ServiceRequest, ServiceResponse};
use actix_web::http::{Method, header};
use actix_web::middleware::{DefaultHeaders, Next};
use actix_web::web;

use crate::problem::ApiError;
use crate::{AppState, once};

/// Headers on every answer.
pub fn headers() -> DefaultHeaders {
    DefaultHeaders::new()
        .add(("X-Content-Type-Options", "nosniff"))
        .add(("Referrer-Policy", "no-referrer"))
        .add(("X-Frame-Options", "DENY"))
        .add((
            "Content-Security-Policy",
            "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src 'self' data:",
        ))
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

/// Refuses foreign hosts (DNS rebinding) and writes from other sites' pages.
pub async fn same_machine(
    req: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, actix_web::Error> {
    let text = |name| req.headers().get(name).and_then(|v: &header::HeaderValue| v.to_str().ok());
    let host = text(header::HOST).unwrap_or_default().to_owned();
    if !is_loopback_host(&host) {
        return Err(ApiError::Forbidden("this server answers to this machine only").into());
    }
    let reads = matches!(*req.method(), Method::GET | Method::HEAD);
    let foreign = text(header::ORIGIN).is_some_and(|o| o.split("://").last() != Some(host.as_str()));
    if !reads && foreign {
        return Err(ApiError::Forbidden("another site's page may not write here").into());
    }
    Ok(next.call(req).await?.map_into_boxed_body())
}

/// Refuses a method that an address does not take, where a route for any name would take it for one, and a key of a write
/// that is none.
pub async fn well_asked(
    req: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, actix_web::Error> {
    let taken = req.app_data::<web::Data<AppState>>().map(|s| s.addresses.exactly_at(req.path()));
    if let Some(taken) = taken.filter(|t| !t.is_empty() && !t.contains(&req.method().as_str())) {
        return Err(ApiError::Method(taken).into());
    }
    once::key_of(req.request())?;
    Ok(next.call(req).await?.map_into_boxed_body())
}

#[cfg(test)]
mod tests {
    use super::is_loopback_host;

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
}
