//! A shop's own aims.

use crate::{Result, StoreError, Tx, version};
use bold_stance_trade::aim::Aim;
use sqlx::types::Json;
use uuid::Uuid;

/// Every aim of the shop with its version, oldest change first.
///
/// # Errors
/// Database errors.
pub async fn all(tx: &mut Tx) -> Result<Vec<(i32, Aim)>> {
    let rows = sqlx::query!(
        r#"select version, document as "document: Json<Aim>" from shop_aim order by updated_at, id"#
    )
    .fetch_all(&mut **tx)
    .await?;
    Ok(rows.into_iter().map(|r| (r.version, r.document.0)).collect())
}

/// Saves an aim over a version; 0 for a new one.
///
/// # Errors
/// [`StoreError::Stale`] when somebody saved first.
pub async fn save(tx: &mut Tx, shop: Uuid, yours: i32, aim: &Aim) -> Result<()> {
    let now = sqlx::query_scalar!("select version from shop_aim where id = $1 for update", aim.id)
        .fetch_optional(&mut **tx)
        .await?;
    let next = version::follows("aim", yours, now.unwrap_or(0))?;
    let done = sqlx::query!(
        "insert into shop_aim (shop_id, id, document, version) values ($1, $2, $3, $4)
         on conflict (shop_id, id) do update set document = $3, version = $4, updated_at = now()
         where shop_aim.version = $5",
        shop,
        aim.id,
        Json(aim) as _,
        next,
        yours
    )
    .execute(&mut **tx)
    .await?;
    // Two that make it at once find no row to lock: the second one's write changes nothing.
    if done.rows_affected() == 1 { Ok(()) } else { Err(StoreError::Stale { what: "aim", yours, now: next }) }
}

/// Removes an aim; plans keep the windows they were made with. Answers whether it was there.
///
/// # Errors
/// Database errors.
pub async fn remove(tx: &mut Tx, id: &str) -> Result<bool> {
    Ok(sqlx::query!("delete from shop_aim where id = $1", id).execute(&mut **tx).await?.rows_affected() > 0)
}
