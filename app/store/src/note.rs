//! Notes of a job with their photos.

use crate::word::Word;
use crate::{Result, StoreError, Tx};
use bold_stance_trade::job::{Note, PhotoSize};
use bold_stance_trade::reading::{Place, ReadAxle, ReadSide};
use uuid::Uuid;

/// Writes a note, with its photo as JPEG where it has one.
///
/// # Errors
/// Database errors.
pub async fn add(tx: &mut Tx, shop: Uuid, job: Uuid, n: &Note, jpeg: Option<&[u8]>) -> Result<()> {
    sqlx::query!(
        "insert into note (id, shop_id, job_id, axle, side, text, author, written_at)
         values ($1, $2, $3, $4, $5, $6, $7, $8)",
        n.id,
        shop,
        job,
        Word(n.place.axle) as _,
        Word(n.place.side) as _,
        n.text,
        n.author,
        n.written_at
    )
    .execute(&mut **tx)
    .await?;
    if let (Some(size), Some(jpeg)) = (n.photo, jpeg) {
        let side = |v: u32| i32::try_from(v).unwrap_or(i32::MAX);
        sqlx::query!(
            "insert into photo (note_id, shop_id, jpeg, width, height) values ($1, $2, $3, $4, $5)",
            n.id,
            shop,
            jpeg,
            side(size.width),
            side(size.height)
        )
        .execute(&mut **tx)
        .await?;
    }
    Ok(())
}

/// Every note of a job that stands, oldest first, without the photos themselves.
///
/// # Errors
/// Database errors.
pub async fn of_job(tx: &mut Tx, job: Uuid) -> Result<Vec<Note>> {
    let rows = sqlx::query!(
        r#"select n.id, n.axle as "axle: Word<ReadAxle>", n.side as "side: Word<ReadSide>", n.text, n.author, n.written_at,
             p.width as "width?", p.height as "height?"
           from note n left join photo p on p.note_id = n.id where n.job_id = $1 and not n.struck order by n.n"#,
        job
    )
    .fetch_all(&mut **tx)
    .await?;
    let side = |v: i32| u32::try_from(v).unwrap_or(0);
    Ok(rows
        .into_iter()
        .map(|r| Note {
            id: r.id,
            place: Place { axle: r.axle.0, side: r.side.0 },
            text: r.text,
            photo: r.width.zip(r.height).map(|(w, h)| PhotoSize { width: side(w), height: side(h) }),
            jpeg: None,
            author: r.author,
            written_at: r.written_at,
        })
        .collect())
}

/// The photo of a note as JPEG.
///
/// # Errors
/// [`StoreError::Missing`] where there is none.
pub async fn photo(tx: &mut Tx, job: Uuid, note: Uuid) -> Result<Vec<u8>> {
    sqlx::query_scalar!(
        "select p.jpeg from photo p join note n on n.id = p.note_id where n.id = $1 and n.job_id = $2 and not n.struck",
        note,
        job
    )
    .fetch_optional(&mut **tx)
    .await?
    .ok_or(StoreError::Missing { what: "photo", id: note })
}

/// Strikes a note out; its photo is gone.
///
/// # Errors
/// [`StoreError::Missing`] where it does not stand.
pub async fn strike(tx: &mut Tx, job: Uuid, note: Uuid) -> Result<()> {
    let done =
        sqlx::query!("update note set struck = true where id = $1 and job_id = $2 and not struck", note, job)
            .execute(&mut **tx)
            .await?;
    if done.rows_affected() == 0 {
        return Err(StoreError::Missing { what: "note", id: note });
    }
    sqlx::query!("delete from photo where note_id = $1", note).execute(&mut **tx).await?;
    Ok(())
}
