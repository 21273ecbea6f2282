//! A shop's own aims.

use crate::{Result, StoreError, Tx};
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
    let done = if yours == 0 {
        sqlx::query!(
            "insert into shop_aim (shop_id, id, document) values ($1, $2, $3) on conflict do nothing",
            shop,
            aim.id,
            Json(aim) as _
        )
        .execute(&mut **tx)
        .await?
    } else {
        sqlx::query!(
            "update shop_aim set document = $2, version = version + 1, updated_at = now()
             where id = $1 and version = $3",
            aim.id,
            Json(aim) as _,
            yours
        )
        .execute(&mut **tx)
        .await?
    };
    if done.rows_affected() == 1 {
        return Ok(());
    }
    let now = sqlx::query_scalar!("select version from shop_aim where id = $1", aim.id)
        .fetch_optional(&mut **tx)
        .await?
        .unwrap_or(0);
    Err(StoreError::Stale { what: "aim", yours, now })
}

/// Removes an aim; plans keep the windows they were made with. Answers whether it was there.
///
/// # Errors
/// Database errors.
pub async fn remove(tx: &mut Tx, id: &str) -> Result<bool> {
    Ok(sqlx::query!("delete from shop_aim where id = $1", id).execute(&mut **tx).await?.rows_affected() > 0)
}
