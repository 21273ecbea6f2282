//! Saving over a version: every document that is edited is locked, its version compared, and written with the next one.

use crate::{Result, StoreError};
use uuid::Uuid;

/// The version a save over `yours` will have, where `now` is the one that is stored (locked until the transaction ends;
/// none where there is no row).
///
/// # Errors
/// [`StoreError::Missing`] without a row, [`StoreError::Stale`] when somebody saved first.
pub(crate) fn next(what: &'static str, id: Uuid, yours: i32, now: Option<i32>) -> Result<i32> {
    match now {
        None => Err(StoreError::Missing { what, id }),
        Some(now) => follows(what, yours, now),
    }
}

/// The same where a document that was never saved has version 0.
///
/// # Errors
/// [`StoreError::Stale`] when somebody saved first.
pub(crate) fn follows(what: &'static str, yours: i32, now: i32) -> Result<i32> {
    if now == yours { Ok(yours + 1) } else { Err(StoreError::Stale { what, yours, now }) }
}
