//! Plans of a job: saved, renamed, duplicated, compared.

use crate::{Result, StoreError, Tx};
use bold_stance_core::plan::{Aim, PlanInput, Way};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use sqlx::types::Json;
use uuid::Uuid;

/// What the specialist decides; geometry and readings come from the job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, utoipa::ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PlanDocument {
    /// Front hub-to-arch gain from as found, mm.
    pub height_change_mm: f64,
    /// Rear gain, mm.
    #[serde(default)]
    pub rear_change_mm: f64,
    /// Height expected to settle out, mm.
    pub settle_mm: f64,
    /// Height lost under the usual load, mm.
    pub load_mm: f64,
    /// Fitted parts, by id.
    pub fitted: Vec<String>,
    /// What is wanted.
    pub aim: Aim,
    /// Depth at which the tyre is done, mm.
    pub limit_mm: f64,
    /// Ways in which the front gain is had.
    #[serde(default)]
    pub ways: Vec<Way>,
    /// Ways in which the rear gain is had.
    #[serde(default)]
    pub rear_ways: Vec<Way>,
    /// Left and right front on top of the gain, mm.
    #[serde(default)]
    #[schema(min_items = 2, max_items = 2)]
    pub trim_mm: [f64; 2],
    /// Left and right rear on top of the gain, mm.
    #[serde(default)]
    #[schema(min_items = 2, max_items = 2)]
    pub rear_trim_mm: [f64; 2],
    /// Rear height expected to settle out, mm.
    #[serde(default)]
    pub rear_settle_mm: f64,
    /// Rear height lost under the usual load, mm.
    #[serde(default)]
    pub rear_load_mm: f64,
    /// Parts fitted at the rear, by id.
    #[serde(default)]
    pub rear_fitted: Vec<String>,
    /// Camber and caster picked on the front map, left and right.
    #[serde(default)]
    #[schema(min_items = 2, max_items = 2)]
    pub picked: [Option<[f64; 2]>; 2],
    /// Camber and toe picked on the rear map, left and right.
    #[serde(default)]
    #[schema(min_items = 2, max_items = 2)]
    pub rear_picked: [Option<[f64; 2]>; 2],
}

impl PlanDocument {
    /// The whole document the front axle is computed from, out of what the job gives.
    #[must_use]
    pub fn front_input(&self, base: PlanInput) -> PlanInput {
        PlanInput {
            height_change_mm: self.height_change_mm,
            other_change_mm: self.rear_change_mm,
            settle_mm: self.settle_mm,
            other_settle_mm: self.rear_settle_mm,
            load_mm: self.load_mm,
            other_load_mm: self.rear_load_mm,
            ways: self.ways.clone(),
            trim_mm: self.trim_mm,
            fitted: self.fitted.clone(),
            picked: self.picked,
            aim: self.aim.clone(),
            ..base
        }
    }
}

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
    pub document: PlanDocument,
    /// Last save, UTC.
    pub updated_at: DateTime<Utc>,
}

/// Stores a new plan.
///
/// # Errors
/// Database errors.
pub async fn insert(tx: &mut Tx, shop: Uuid, job: Uuid, name: &str, d: &PlanDocument) -> Result<Uuid> {
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
        r#"select id, job_id, version, name, document as "document: Json<PlanDocument>", updated_at from plan where id = $1"#,
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
        r#"select id, job_id, version, name, document as "document: Json<PlanDocument>", updated_at
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
/// [`StoreError::Stale`] when somebody saved first.
pub async fn update(tx: &mut Tx, id: Uuid, yours: i32, name: &str, d: &PlanDocument) -> Result<i32> {
    let now = sqlx::query_scalar!("select version from plan where id = $1 for update", id)
        .fetch_optional(&mut **tx)
        .await?
        .ok_or(StoreError::Missing { what: "plan", id })?;
    if now != yours {
        return Err(StoreError::Stale { what: "plan", yours, now });
    }
    sqlx::query!(
        "update plan set name = $2, document = $3, version = version + 1, updated_at = now() where id = $1",
        id,
        name,
        Json(d) as _
    )
    .execute(&mut **tx)
    .await?;
    Ok(yours + 1)
}

/// Removes a plan; its done steps go with it.
///
/// # Errors
/// [`StoreError::Missing`].
pub async fn remove(tx: &mut Tx, id: Uuid) -> Result<()> {
    let n = sqlx::query!("delete from plan where id = $1", id).execute(&mut **tx).await?.rows_affected();
    if n == 0 { Err(StoreError::Missing { what: "plan", id }) } else { Ok(()) }
}
