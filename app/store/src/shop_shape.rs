//! Shapes measured in a shop.

use crate::{Result, Tx};
use bold_stance_car::archetype::Archetype;
use sqlx::types::Json;
use uuid::Uuid;

/// Every shape of the shop, oldest first.
///
/// # Errors
/// Database errors.
pub async fn all(tx: &mut Tx) -> Result<Vec<Archetype>> {
    let rows = sqlx::query!(
        r#"select document as "document: Json<Archetype>" from shop_shape order by updated_at, id"#
    )
    .fetch_all(&mut **tx)
    .await?;
    Ok(rows.into_iter().map(|r| r.document.0).collect())
}

/// Keeps a shape; answers whether its id was free.
///
/// # Errors
/// Database errors.
pub async fn add(tx: &mut Tx, shop: Uuid, a: &Archetype) -> Result<bool> {
    let done = sqlx::query!(
        "insert into shop_shape (shop_id, id, document) values ($1, $2, $3) on conflict do nothing",
        shop,
        a.id,
        Json(a) as _
    )
    .execute(&mut **tx)
    .await?;
    Ok(done.rows_affected() == 1)
}

/// Removes a shape; cars made of it keep their points. Answers whether it was there.
///
/// # Errors
/// Database errors.
pub async fn remove(tx: &mut Tx, id: &str) -> Result<bool> {
    Ok(sqlx::query!("delete from shop_shape where id = $1", id).execute(&mut **tx).await?.rows_affected() > 0)
}
