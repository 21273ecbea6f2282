//! Readings: kept as typed, never changed.

use crate::word::Word;
use crate::{Result, Tx};
use bold_stance_trade::job::Reading;
use bold_stance_trade::reading::{
    Also, Correction, DoubtPart, Jack, Method, Quantity, RawEntry, ReadAxle, ReadSide, Visit,
};
use bold_stance_units::LengthUnit;
use bold_stance_units::said::Said;
use sqlx::types::Json;
use uuid::Uuid;

/// Adds a reading. Without a reading it names as replaced, the newest of the same quantity, place and visit is
/// the one it stands for. Sending the same id twice stores once; answers whether it was new.
///
/// # Errors
/// Database errors.
pub async fn add(tx: &mut Tx, shop: Uuid, job: Uuid, n: &Reading) -> Result<bool> {
    let done = sqlx::query!(
        "insert into reading (id, shop_id, job_id, visit, quantity, axle, side, method, raw, unit, value, sigma,
             corrections, also, doubt, notes, jack, jacked_height, height_mm, author, taken_at, replaces)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20, $21,
             coalesce($22, (select id from reading
                 where job_id = $3 and visit = $4 and quantity = $5 and axle = $6 and side = $7
                 order by seq desc limit 1)))
         on conflict (id) do nothing",
        n.id,
        shop,
        job,
        Word(n.visit) as _,
        Word(n.quantity) as _,
        Word(n.axle) as _,
        Word(n.side) as _,
        Word(n.method) as _,
        Json(&n.raw) as _,
        Word(n.unit) as _,
        n.value,
        n.sigma,
        Json(&n.corrections) as _,
        Json(&n.also) as _,
        Json(&n.doubt) as _,
        Json(&n.notes) as _,
        Word(n.jack) as _,
        n.jacked_height,
        n.height_mm,
        n.author,
        n.taken_at,
        n.replaces,
    )
    .execute(&mut **tx)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Every reading of a job in the order in which they came, whatever their clocks said.
///
/// # Errors
/// Database errors.
pub async fn of_job(tx: &mut Tx, job: Uuid) -> Result<Vec<Reading>> {
    let rows = sqlx::query!(
        r#"select id, visit as "visit: Word<Visit>", quantity as "quantity: Word<Quantity>",
             axle as "axle: Word<ReadAxle>", side as "side: Word<ReadSide>", method as "method: Word<Method>", raw as "raw: Json<Vec<RawEntry>>", unit, value, sigma,
             corrections as "corrections: Json<Vec<Correction>>", also as "also: Json<Vec<Also>>",
             doubt as "doubt: Json<Vec<DoubtPart>>", notes as "notes: Json<Vec<Said>>", jack as "jack: Word<Jack>",
             jacked_height, height_mm, author, replaces, taken_at
           from reading where job_id = $1 order by seq"#,
        job
    )
    .fetch_all(&mut **tx)
    .await?;
    Ok(rows
        .into_iter()
        .map(|r| Reading {
            id: r.id,
            visit: r.visit.0,
            quantity: r.quantity.0,
            axle: r.axle.0,
            side: r.side.0,
            method: r.method.0,
            raw: r.raw.0,
            // Rows of the first version name an angle's unit here; lengths were typed in mm then.
            unit: if r.unit == "in" { LengthUnit::In } else { LengthUnit::Mm },
            value: r.value,
            sigma: r.sigma,
            corrections: r.corrections.0,
            also: r.also.0,
            doubt: r.doubt.0,
            notes: r.notes.0,
            jack: r.jack.0,
            jacked_height: r.jacked_height,
            height_mm: r.height_mm,
            author: r.author,
            replaces: r.replaces,
            taken_at: r.taken_at,
        })
        .collect())
}

/// Whether a reading with this id is anywhere in the shop, and in which job.
///
/// # Errors
/// Database errors.
pub async fn job_of(tx: &mut Tx, id: Uuid) -> Result<Option<Uuid>> {
    Ok(sqlx::query_scalar!("select job_id from reading where id = $1", id).fetch_optional(&mut **tx).await?)
}
