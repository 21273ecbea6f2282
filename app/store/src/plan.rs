//! Plans of a job: saved, renamed, duplicated, compared.

use crate::{Result, StoreError, Tx, version};
use bold_stance_trade::plan::CarPlan;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use sqlx::types::Json;
use uuid::Uuid;

/// A stored plan.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
pub struct Plan {
    /// Its id.
    pub id: Uuid,
    /// Its job.
    pub job_id: Uuid,
    /// Goes up with every save.
    pub version: i32,
    /// What it is called.
    pub name: String,
    /// What was decided.
    pub document: CarPlan,
    /// Last save, UTC.
    pub updated_at: DateTime<Utc>,
}

/// Stores a new plan.
///
/// # Errors
/// Database errors.
pub async fn insert(tx: &mut Tx, shop: Uuid, job: Uuid, name: &str, d: &CarPlan) -> Result<Uuid> {
    let id = Uuid::new_v4();
    sqlx::query!(
        // Not now(): plans of one transaction keep the order they were made in.
        "insert into plan (id, shop_id, job_id, name, document, created_at, updated_at) values ($1, $2, $3, $4, $5, clock_timestamp(), clock_timestamp())",
        id,
        shop,
        job,
        name,
        Json(d) as _
    )
    .execute(&mut **tx)
    .await?;
    Ok(id)
}

/// One plan.
///
/// # Errors
/// [`StoreError::Missing`].
pub async fn get(tx: &mut Tx, id: Uuid) -> Result<Plan> {
    let r = sqlx::query!(
        r#"select id, job_id, version, name, document as "document: Json<CarPlan>", updated_at from plan where id = $1"#,
        id
    )
    .fetch_optional(&mut **tx)
    .await?
    .ok_or(StoreError::Missing { what: "plan", id })?;
    Ok(Plan {
        id: r.id,
        job_id: r.job_id,
        version: r.version,
        name: r.name,
        document: r.document.0,
        updated_at: r.updated_at,
    })
}

/// Plans of a job, oldest first.
///
/// # Errors
/// Database errors.
pub async fn of_job(tx: &mut Tx, job: Uuid) -> Result<Vec<Plan>> {
    let rows = sqlx::query!(
        r#"select id, job_id, version, name, document as "document: Json<CarPlan>", updated_at
           from plan where job_id = $1 order by created_at, id"#,
        job
    )
    .fetch_all(&mut **tx)
    .await?;
    Ok(rows
        .into_iter()
        .map(|r| Plan {
            id: r.id,
            job_id: r.job_id,
            version: r.version,
            name: r.name,
            document: r.document.0,
            updated_at: r.updated_at,
        })
        .collect())
}

/// Saves over version `yours`; answers the new version.
///
/// # Errors
/// [`StoreError::Missing`]; [`StoreError::Stale`] when somebody saved first.
pub async fn update(tx: &mut Tx, id: Uuid, yours: i32, name: &str, d: &CarPlan) -> Result<i32> {
    let now = sqlx::query_scalar!("select version from plan where id = $1 for update", id)
        .fetch_optional(&mut **tx)
        .await?;
    let next = version::next("plan", id, yours, now)?;
    sqlx::query!(
        "update plan set name = $2, document = $3, version = $4, updated_at = now() where id = $1",
        id,
        name,
        Json(d) as _,
        next
    )
    .execute(&mut **tx)
    .await?;
    Ok(next)
}

/// Removes a plan; its done steps go with it.
///
/// # Errors
/// [`StoreError::Missing`].
pub async fn remove(tx: &mut Tx, id: Uuid) -> Result<()> {
    let n = sqlx::query!("delete from plan where id = $1", id).execute(&mut **tx).await?.rows_affected();
    if n == 0 { Err(StoreError::Missing { what: "plan", id }) } else { Ok(()) }
}
