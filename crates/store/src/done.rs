//! What was done of a plan's sheet.

use crate::{Result, Tx};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// A step done, or a tick at a gate.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
pub struct Done {
    /// Its plan.
    pub plan_id: Uuid,
    /// Step id, or `gate/tick`.
    pub step: String,
    /// When, UTC.
    pub done_at: DateTime<Utc>,
    /// Who.
    pub author: String,
}

/// Marks or unmarks a step.
///
/// # Errors
/// Database errors.
pub async fn mark(tx: &mut Tx, shop: Uuid, plan: Uuid, step: &str, done: bool, author: &str) -> Result<()> {
    if done {
        sqlx::query!(
            "insert into done_step (shop_id, plan_id, step, author) values ($1, $2, $3, $4) on conflict do nothing",
            shop,
            plan,
            step,
            author
        )
        .execute(&mut **tx)
        .await?;
    } else {
        sqlx::query!("delete from done_step where plan_id = $1 and step = $2", plan, step)
            .execute(&mut **tx)
            .await?;
    }
    Ok(())
}

/// Everything done on a job's plans.
///
/// # Errors
/// Database errors.
pub async fn of_job(tx: &mut Tx, job: Uuid) -> Result<Vec<Done>> {
    Ok(sqlx::query_as!(
        Done,
        "select d.plan_id, d.step, d.done_at, d.author from done_step d join plan p on p.id = d.plan_id
         where p.job_id = $1 order by d.done_at",
        job
    )
    .fetch_all(&mut **tx)
    .await?)
}
