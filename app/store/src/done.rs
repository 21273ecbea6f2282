//! What was done of a plan's sheet.

use crate::{Result, Tx};
use bold_stance_trade::job::Done;
use bold_stance_trade::memory::{HeightsTaught, ProvedCar, Taught};
use bold_stance_trade::sheet::{DoneRecord, Mark, Round};
use sqlx::types::Json;
use uuid::Uuid;

/// Marks a step with what it said, or unmarks it. A step done already keeps its record.
///
/// # Errors
/// Database errors.
pub async fn mark(
    tx: &mut Tx,
    shop: Uuid,
    plan: Uuid,
    step: &Mark,
    done: Option<&DoneRecord>,
    author: &str,
) -> Result<()> {
    let step = step.to_string();
    if let Some(record) = done {
        sqlx::query!(
            "insert into done_step (shop_id, plan_id, step, author, record, done_at)
             values ($1, $2, $3, $4, $5, job_now((select job_id from plan where id = $2))) on conflict do nothing",
            shop,
            plan,
            step,
            author,
            Json(record) as _
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

/// Work added to a step that is done already.
///
/// # Errors
/// Database errors.
pub async fn add_round(tx: &mut Tx, plan: Uuid, step: &Mark, round: &Round) -> Result<()> {
    sqlx::query!(
        r#"update done_step set record = jsonb_set(record, '{rounds}', coalesce(record->'rounds', '[]'::jsonb) || $3::jsonb)
           where plan_id = $1 and step = $2"#,
        plan,
        step.to_string(),
        Json(vec![round]) as _
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// Takes the newest work of a step back, where it was worked on more than once; whether it was.
///
/// # Errors
/// Database errors.
pub async fn take_back_round(tx: &mut Tx, plan: Uuid, step: &Mark) -> Result<bool> {
    let taken = sqlx::query!(
        r#"update done_step set record = jsonb_set(record, '{rounds}', (record->'rounds') - -1)
           where plan_id = $1 and step = $2 and jsonb_array_length(coalesce(record->'rounds', '[]'::jsonb)) > 1"#,
        plan,
        step.to_string()
    )
    .execute(&mut **tx)
    .await?;
    Ok(taken.rows_affected() > 0)
}

/// What every accepted car of the shop taught, oldest first.
///
/// # Errors
/// Database errors.
pub async fn taught(tx: &mut Tx) -> Result<Vec<ProvedCar>> {
    let rows = sqlx::query!(
        r#"select j.ticket, d.done_at, d.record->'taught' as "taught!: Json<Taught>"
           from done_step d join plan p on p.id = d.plan_id join job j on j.id = p.job_id
           where d.step = 'proved' and jsonb_typeof(d.record->'taught') = 'object' order by d.done_at"#
    )
    .fetch_all(&mut **tx)
    .await?;
    Ok(rows.into_iter().map(|r| ProvedCar { ticket: r.ticket, at: r.done_at, taught: r.taught.0 }).collect())
}

/// What every car of the shop taught of height since it was set, oldest first.
///
/// # Errors
/// Database errors.
pub async fn taught_of_height(tx: &mut Tx) -> Result<Vec<HeightsTaught>> {
    let rows = sqlx::query!(
        r#"select aftercare->'taught' as "taught!: Json<HeightsTaught>" from job
           where jsonb_typeof(aftercare->'taught') = 'object' order by aftercare->'taught'->>'at'"#
    )
    .fetch_all(&mut **tx)
    .await?;
    Ok(rows.into_iter().map(|r| r.taught.0).collect())
}

/// Everything done on a job's plans.
///
/// # Errors
/// Database errors.
pub async fn of_job(tx: &mut Tx, job: Uuid) -> Result<Vec<Done>> {
    let rows = sqlx::query!(
        r#"select d.plan_id, d.step, d.done_at, d.author, d.record as "record: Json<DoneRecord>"
           from done_step d join plan p on p.id = d.plan_id where p.job_id = $1 order by d.done_at"#,
        job
    )
    .fetch_all(&mut **tx)
    .await?;
    // A mark of a sheet nobody knows any more says nothing about this one.
    let known = |r: &str| r.parse::<Mark>().ok();
    Ok(rows
        .into_iter()
        .filter_map(|r| {
            Some(Done {
                plan_id: r.plan_id,
                step: known(&r.step)?,
                done_at: r.done_at,
                author: r.author,
                record: r.record.0,
            })
        })
        .collect())
}
