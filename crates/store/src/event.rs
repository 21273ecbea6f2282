//! What happened: who, when, what.

use crate::{Result, Tx};
use serde_json::Value;
use uuid::Uuid;

/// Records an event in the same transaction as the change it tells of.
///
/// # Errors
/// Database errors.
pub async fn record(
    tx: &mut Tx,
    shop: Uuid,
    job: Option<Uuid>,
    who: &str,
    what: &str,
    detail: Value,
) -> Result<()> {
    sqlx::query!(
        "insert into event (shop_id, job_id, who, what, detail) values ($1, $2, $3, $4, $5)",
        shop,
        job,
        who,
        what,
        detail
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// How many events a job has.
///
/// # Errors
/// Database errors.
pub async fn count(tx: &mut Tx, job: Uuid) -> Result<i64> {
    Ok(sqlx::query_scalar!("select count(*) as \"n!\" from event where job_id = $1", job)
        .fetch_one(&mut **tx)
        .await?)
}
