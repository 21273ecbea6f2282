//! Keys of writes: a write sent again with the key of the first gets the first answer, and stores nothing twice.

use crate::{Result, Tx};
use uuid::Uuid;

/// Hours an answer is kept for a retry.
const KEPT_HOURS: f64 = 24.0;

/// What a key means now.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Claim {
    /// Not used before: the write goes on, and nobody else gets the key until it ends.
    Mine,
    /// Used by the same write: its status and answer.
    Answered {
        /// HTTP status of the first answer.
        status: i32,
        /// Its body, where one was kept.
        answer: Option<String>,
    },
    /// Used by another write.
    Taken,
}

/// Claims a key in this transaction. A second sender waits here until the first has ended.
///
/// # Errors
/// Database errors.
pub async fn claim(tx: &mut Tx, shop: Uuid, key: Uuid, fingerprint: i64) -> Result<Claim> {
    let new = sqlx::query!(
        "insert into write_key (shop_id, key, fingerprint) values ($1, $2, $3) on conflict do nothing",
        shop,
        key,
        fingerprint
    )
    .execute(&mut **tx)
    .await?
    .rows_affected();
    if new == 1 {
        return Ok(Claim::Mine);
    }
    let r = sqlx::query!("select fingerprint, status, answer from write_key where key = $1", key)
        .fetch_one(&mut **tx)
        .await?;
    Ok(match r.status {
        Some(status) if r.fingerprint == fingerprint => Claim::Answered { status, answer: r.answer },
        _ => Claim::Taken,
    })
}

/// Keeps the answer with the change it tells of, and lets old keys go.
///
/// # Errors
/// Database errors.
pub async fn settle(tx: &mut Tx, key: Uuid, status: i32, answer: Option<&str>) -> Result<()> {
    sqlx::query!("update write_key set status = $2, answer = $3 where key = $1", key, status, answer)
        .execute(&mut **tx)
        .await?;
    sqlx::query!("delete from write_key where at < now() - make_interval(secs => $1)", KEPT_HOURS * 3600.0)
        .execute(&mut **tx)
        .await?;
    Ok(())
}
