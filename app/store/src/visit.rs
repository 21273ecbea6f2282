//! Visits: opened at a point of the work, with the answers of their prepare list.

use crate::word::Word;
use crate::{Result, Tx, version};
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
        "insert into visit (shop_id, job_id, kind, author, opened_at) values ($1, $2, $3, $4, job_now($2)) on conflict do nothing",
        shop,
        job,
        Word(kind) as _,
        author
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// Opens a visit anew: its answers are those of another day.
///
/// # Errors
/// Database errors.
pub async fn open_again(tx: &mut Tx, shop: Uuid, job: Uuid, kind: Visit, author: &str) -> Result<()> {
    sqlx::query!(
        "insert into visit (shop_id, job_id, kind, author, opened_at) values ($1, $2, $3, $4, job_now($2))
         on conflict (job_id, kind) do update
         set answers = '{}', version = visit.version + 1, opened_at = excluded.opened_at, author = $4",
        shop,
        job,
        Word(kind) as _,
        author
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// Saves the answers over a version.
///
/// # Errors
/// [`crate::StoreError::Missing`] for a visit that was not opened, [`crate::StoreError::Stale`] when somebody saved first.
pub async fn save(tx: &mut Tx, job: Uuid, kind: Visit, yours: i32, answers: &Answers) -> Result<()> {
    let now = sqlx::query_scalar!(
        "select version from visit where job_id = $1 and kind = $2 for update",
        job,
        Word(kind) as _
    )
    .fetch_optional(&mut **tx)
    .await?;
    let next = version::next("prepare list", job, yours, now)?;
    sqlx::query!(
        "update visit set answers = $3, version = $4 where job_id = $1 and kind = $2",
        job,
        Word(kind) as _,
        Json(answers) as _,
        next
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
        r#"select kind as "kind: Word<Visit>", version, answers as "answers: Json<Answers>", author, opened_at
           from visit where job_id = $1 order by opened_at, kind"#,
        job
    )
    .fetch_all(&mut **tx)
    .await?;
    Ok(rows
        .into_iter()
        .map(|r| OpenVisit {
            kind: r.kind.0,
            version: r.version,
            answers: r.answers.0,
            author: r.author,
            opened_at: r.opened_at,
        })
        .collect())
}
