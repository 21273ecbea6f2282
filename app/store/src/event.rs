//! What happened: who, when, what.

use crate::live::Told;
use crate::{Result, Tx};
use bold_stance_trade::job::Event;
use chrono::{DateTime, Utc};
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

/// The time for what is done to a job now: never before what happened to it already, whatever a clock was set to.
///
/// # Errors
/// Database errors.
pub async fn now(tx: &mut Tx, job: Uuid) -> Result<DateTime<Utc>> {
    Ok(sqlx::query_scalar!("select job_now($1) as \"now!\"", job).fetch_one(&mut **tx).await?)
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

/// Everything that happened on a job, oldest first.
///
/// # Errors
/// Database errors.
pub async fn of_job(tx: &mut Tx, job: Uuid) -> Result<Vec<Event>> {
    let rows = sqlx::query!("select at, who, what, detail from event where job_id = $1 order by id", job)
        .fetch_all(&mut **tx)
        .await?;
    Ok(rows.into_iter().map(|r| Event { at: r.at, author: r.who, what: r.what, detail: r.detail }).collect())
}

/// Adds an event as it was told elsewhere.
///
/// # Errors
/// Database errors.
pub async fn add(tx: &mut Tx, shop: Uuid, job: Uuid, e: &Event) -> Result<()> {
    sqlx::query!(
        "insert into event (shop_id, job_id, at, who, what, detail) values ($1, $2, $3, $4, $5, $6)",
        shop,
        job,
        e.at,
        e.author,
        e.what,
        e.detail
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// The newest event of the shop; 0 without any.
///
/// # Errors
/// Database errors.
pub async fn newest(tx: &mut Tx) -> Result<i64> {
    Ok(sqlx::query_scalar!("select coalesce(max(id), 0) as \"n!\" from event").fetch_one(&mut **tx).await?)
}

/// Events of the shop behind one, oldest first.
///
/// # Errors
/// Database errors.
pub async fn since(tx: &mut Tx, after: i64, limit: i64) -> Result<Vec<Told>> {
    Ok(sqlx::query_as!(
        Told,
        "select id, shop_id as shop, job_id as job, member_id as member, what from event where id > $1 order by id limit $2",
        after,
        limit
    )
    .fetch_all(&mut **tx)
    .await?)
}
