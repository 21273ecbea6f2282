//! Who changed what, from which device, and what stood there before. The database writes it; nobody who serves changes it.

use crate::{Result, Tx};
use chrono::{DateTime, Utc};
use serde::Serialize;
use serde_json::Value;
use uuid::Uuid;

/// One change of one row.
#[derive(Debug, Clone, Serialize, utoipa::ToSchema)]
pub struct Change {
    /// Its place in the record.
    pub id: i64,
    /// When, UTC.
    pub at: DateTime<Utc>,
    /// Its job, where it belongs to one.
    pub job_id: Option<Uuid>,
    /// Ticket of the job.
    pub ticket: Option<i32>,
    /// Who.
    pub member_id: Option<Uuid>,
    /// Their name, as it is now.
    pub member: Option<String>,
    /// Name of the device.
    pub device: Option<String>,
    /// Kind of row.
    pub what: String,
    /// Which one.
    pub row_id: String,
    /// `made`, `changed`, `removed` or `erased`.
    pub change: String,
    /// What stood there, of what is different.
    pub before: Option<Value>,
    /// What stands there.
    pub after: Option<Value>,
}

/// The record of a shop before line `before`, newest first; of one job or one member where they are named.
///
/// # Errors
/// Database errors.
pub async fn list(
    tx: &mut Tx,
    job: Option<Uuid>,
    member: Option<Uuid>,
    before: i64,
    limit: i64,
) -> Result<Vec<Change>> {
    Ok(sqlx::query_as!(
        Change,
        r#"select a.id, a.at, a.job_id, j.ticket as "ticket?", a.member_id, m.name as "member?", d.name as "device?", a.what, a.row_id,
             a.change, a.before, a.after
           from audit a left join job j on j.id = a.job_id left join member m on m.id = a.member_id
           left join device d on d.id = a.device_id
           where a.id < $3 and ($1::uuid is null or a.job_id = $1) and ($2::uuid is null or a.member_id = $2)
           order by a.id desc limit $4"#,
        job,
        member,
        before,
        limit
    )
    .fetch_all(&mut **tx)
    .await?)
}

/// Takes out what is personal of a job: words, plate, photos. False where it may not be, or there is no such job.
///
/// # Errors
/// Database errors.
pub async fn erase_personal(tx: &mut Tx, job: Uuid) -> Result<bool> {
    let ok = sqlx::query_scalar!("select erase_personal($1)", job).fetch_one(&mut **tx).await?;
    Ok(ok.unwrap_or(false))
}

/// Takes out what each shop's owner lets go after so many months; of how many jobs.
///
/// # Errors
/// Database errors.
pub async fn let_go_due(store: &crate::Store) -> Result<i64> {
    Ok(sqlx::query_scalar!("select let_go_due()").fetch_one(store.pool()).await?.unwrap_or(0))
}
