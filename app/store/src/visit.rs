//! Visits: opened at a point of the work, with the answers of their prepare list.

use crate::vehicle::{from_word, word};
use crate::{Result, StoreError, Tx};
use bold_stance_trade::job::OpenVisit;
use bold_stance_trade::reading::{Answers, Visit};
use sqlx::types::Json;
use uuid::Uuid;

/// Opens a visit; one that is open stays as it is.
///
/// # Errors
/// Database errors.
pub async fn open(tx: &mut Tx, shop: Uuid, job: Uuid, kind: Visit, author: &str) -> Result<()> {
    sqlx::query!(
        "insert into visit (shop_id, job_id, kind, author) values ($1, $2, $3, $4) on conflict do nothing",
        shop,
        job,
        word(&kind)?,
        author
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// Saves the answers over a version.
///
/// # Errors
/// [`StoreError::Missing`] for a visit that was not opened, [`StoreError::Stale`] when somebody saved first.
pub async fn save(tx: &mut Tx, job: Uuid, kind: Visit, version: i32, answers: &Answers) -> Result<()> {
    let now = sqlx::query_scalar!(
        "select version from visit where job_id = $1 and kind = $2 for update",
        job,
        word(&kind)?
    )
    .fetch_optional(&mut **tx)
    .await?
    .ok_or(StoreError::Missing { what: "visit", id: job })?;
    if now != version {
        return Err(StoreError::Stale { what: "prepare list", yours: version, now });
    }
    sqlx::query!(
        "update visit set answers = $3, version = version + 1 where job_id = $1 and kind = $2",
        job,
        word(&kind)?,
        Json(answers) as _
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// Every open visit of a job.
///
/// # Errors
/// Database errors.
pub async fn of_job(tx: &mut Tx, job: Uuid) -> Result<Vec<OpenVisit>> {
    let rows = sqlx::query!(
        r#"select kind, version, answers as "answers: Json<Answers>", author, opened_at
           from visit where job_id = $1 order by opened_at, kind"#,
        job
    )
    .fetch_all(&mut **tx)
    .await?;
    rows.into_iter()
        .map(|r| {
            Ok(OpenVisit {
                kind: from_word(r.kind)?,
                version: r.version,
                answers: r.answers.0,
                author: r.author,
                opened_at: r.opened_at,
            })
        })
        .collect()
}
