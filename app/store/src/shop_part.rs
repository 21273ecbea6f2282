//! A shop's own parts: new ones, changed copies of shipped ones, and those it retired.

use crate::{Result, StoreError, Tx};
use bold_stance_trade::part::Part;
use sqlx::types::Json;
use uuid::Uuid;

/// A stored part.
#[derive(Debug, Clone)]
pub struct ShopPart {
    /// Goes up with every save.
    pub version: i32,
    /// The part.
    pub part: Part,
    /// Not offered any more.
    pub retired: bool,
}

/// Every part of the shop, by id.
///
/// # Errors
/// Database errors.
pub async fn all(tx: &mut Tx) -> Result<Vec<ShopPart>> {
    let rows = sqlx::query!(
        r#"select version, document as "document: Json<Part>", retired from shop_part order by id"#
    )
    .fetch_all(&mut **tx)
    .await?;
    Ok(rows
        .into_iter()
        .map(|r| ShopPart { version: r.version, part: r.document.0, retired: r.retired })
        .collect())
}

/// Saves a part over a version; 0 for one the shop has not kept yet.
///
/// # Errors
/// [`StoreError::Stale`] when somebody saved first.
pub async fn save(tx: &mut Tx, shop: Uuid, yours: i32, part: &Part, retired: bool) -> Result<()> {
    let done = if yours == 0 {
        sqlx::query!(
            "insert into shop_part (shop_id, id, document, retired) values ($1, $2, $3, $4) on conflict do nothing",
            shop,
            part.id,
            Json(part) as _,
            retired
        )
        .execute(&mut **tx)
        .await?
    } else {
        sqlx::query!(
            "update shop_part set document = $2, retired = $3, version = version + 1, updated_at = now()
             where id = $1 and version = $4",
            part.id,
            Json(part) as _,
            retired,
            yours
        )
        .execute(&mut **tx)
        .await?
    };
    if done.rows_affected() == 1 {
        return Ok(());
    }
    let now = sqlx::query_scalar!("select version from shop_part where id = $1", part.id)
        .fetch_optional(&mut **tx)
        .await?
        .unwrap_or(0);
    Err(StoreError::Stale { what: "part", yours, now })
}
