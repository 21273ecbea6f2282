//! How often somebody may: letting in, searching and taking in tables cost more than they look.

use crate::AppState;
use crate::pool::Peer;
use crate::problem::ApiError;
use actix_web::dev::ServiceRequest;
use governor::clock::{Clock, DefaultClock};
use governor::{DefaultKeyedRateLimiter, Quota, RateLimiter};
use std::num::NonZeroU32;
use std::sync::Arc;
use uuid::Uuid;

/// Counters by member or address. Each server process counts for itself; waits after wrong PINs are the database's.
#[derive(Debug, Clone)]
pub struct Limits {
    doors: Arc<DefaultKeyedRateLimiter<String>>,
    searches: Arc<DefaultKeyedRateLimiter<String>>,
    imports: Arc<DefaultKeyedRateLimiter<String>>,
}

const fn per_minute(n: u32) -> Quota {
    match NonZeroU32::new(n) {
        Some(n) => Quota::per_minute(n),
        None => Quota::per_minute(NonZeroU32::MIN),
    }
}

impl Default for Limits {
    /// Judgement, no source: more than hands do, less than a machine would.
    fn default() -> Self {
        Self {
            doors: Arc::new(RateLimiter::keyed(per_minute(40))),
            searches: Arc::new(RateLimiter::keyed(per_minute(120))),
            imports: Arc::new(RateLimiter::keyed(per_minute(120))),
        }
    }
}

/// Where a request comes from: the other end of its connection, or what the stated proxy says.
#[must_use]
pub fn address(state: &AppState, req: &ServiceRequest) -> String {
    if state.exposure.has_proxy()
        && let Some(said) = req.headers().get("x-forwarded-for").and_then(|v| v.to_str().ok())
        && let Some(last) = said.rsplit(',').next()
    {
        return last.trim().to_owned();
    }
    req.conn_data::<Peer>()
        .and_then(Peer::address)
        .or_else(|| req.peer_addr().map(|a| a.ip()))
        .map_or_else(String::new, |a| a.to_string())
}

/// Counts a request where its kind is counted.
///
/// # Errors
/// [`ApiError::TooMany`] with the seconds to wait.
pub fn count(
    state: &AppState,
    req: &ServiceRequest,
    operation: &str,
    member: Option<Uuid>,
) -> Result<(), ApiError> {
    let all = &state.limits;
    let limiter = match operation {
        "signInPin" | "signInPassphrase" | "useSlip" | "useCode" | "claimShop" => &all.doors,
        "searchPlans" | "searchCar" | "ladders" => &all.searches,
        "importJob" | "importPlans" | "importReadings" | "importTread" | "importParts" | "bookJobs" => {
            &all.imports
        }
        _ => return Ok(()),
    };
    let mut keys = vec![address(state, req)];
    keys.extend(member.map(|m| m.to_string()));
    for key in keys {
        if let Err(until) = limiter.check_key(&key) {
            let wait = until.wait_time_from(DefaultClock::default().now());
            return Err(ApiError::TooMany(wait.as_secs() + 1));
        }
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_forty_first_try_of_a_minute_waits() {
        let l = Limits::default();
        let one = "192.0.2.1".to_owned();
        assert!((0..40).all(|_| l.doors.check_key(&one).is_ok()));
        assert!(l.doors.check_key(&one).is_err());
        assert!(l.doors.check_key(&"192.0.2.2".to_owned()).is_ok());
    }
}
