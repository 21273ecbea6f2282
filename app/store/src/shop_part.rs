//! A shop's own parts: new ones, changed copies of shipped ones, and those it retired.

use crate::{Result, StoreError, Tx, version};
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
    let now = sqlx::query_scalar!("select version from shop_part where id = $1 for update", part.id)
        .fetch_optional(&mut **tx)
        .await?;
    let next = version::follows("part", yours, now.unwrap_or(0))?;
    let done = sqlx::query!(
        "insert into shop_part (shop_id, id, document, retired, version) values ($1, $2, $3, $4, $5)
         on conflict (shop_id, id) do update set document = $3, retired = $4, version = $5, updated_at = now()
         where shop_part.version = $6",
        shop,
        part.id,
        Json(part) as _,
        retired,
        next,
        yours
    )
    .execute(&mut **tx)
    .await?;
    // Two that make it at once find no row to lock: the second one's write changes nothing.
    if done.rows_affected() == 1 { Ok(()) } else { Err(StoreError::Stale { what: "part", yours, now: next }) }
}
