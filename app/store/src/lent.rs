//! What cars of other shops taught, as it was taken in from their files.

use crate::{Result, Tx};
use bold_stance_trade::memory::HeightsTaught;
use bold_stance_trade::offer::{OfferedCar, ShopOffer};
use chrono::{DateTime, Utc};
use serde::Serialize;
use sqlx::types::Json;
use uuid::Uuid;

/// Where something came from.
#[derive(Debug, Clone, Serialize, utoipa::ToSchema)]
pub struct Lender {
    /// What the other shop is known by.
    pub origin: String,
    /// Its name.
    pub name: String,
    /// When its file was taken in, UTC.
    pub taken_at: DateTime<Utc>,
    /// By whom.
    pub author: String,
    /// Cars that taught of parts.
    pub cars: i32,
    /// Cars that taught of height.
    pub heights: i32,
}

/// Every shop something was taken in from, newest first.
///
/// # Errors
/// Database errors.
pub async fn lenders(tx: &mut Tx) -> Result<Vec<Lender>> {
    Ok(sqlx::query_as!(
        Lender,
        r#"select origin, name, taken_at, author, jsonb_array_length(cars) as "cars!", jsonb_array_length(heights) as "heights!"
           from lent order by taken_at desc, origin"#
    )
    .fetch_all(&mut **tx)
    .await?)
}

/// What all of it taught.
///
/// # Errors
/// Database errors.
pub async fn taught(tx: &mut Tx) -> Result<(Vec<OfferedCar>, Vec<HeightsTaught>)> {
    let rows = sqlx::query!(
        r#"select cars as "cars: Json<Vec<OfferedCar>>", heights as "heights: Json<Vec<HeightsTaught>>" from lent order by origin"#
    )
    .fetch_all(&mut **tx)
    .await?;
    let (mut cars, mut heights) = (Vec::new(), Vec::new());
    for r in rows {
        cars.extend(r.cars.0);
        heights.extend(r.heights.0);
    }
    Ok((cars, heights))
}

/// Takes in what a file has; a later file of the same shop stands for the earlier one.
///
/// # Errors
/// Database errors.
pub async fn take(tx: &mut Tx, shop: Uuid, author: &str, o: &ShopOffer) -> Result<()> {
    sqlx::query!(
        "insert into lent (shop_id, origin, name, author, cars, heights) values ($1, $2, $3, $4, $5, $6)
         on conflict (shop_id, origin) do update
         set name = excluded.name, author = excluded.author, cars = excluded.cars, heights = excluded.heights, taken_at = now()",
        shop,
        o.origin,
        o.shop,
        author,
        Json(&o.cars) as _,
        Json(&o.heights) as _
    )
    .execute(&mut **tx)
    .await?;
    Ok(())
}

/// Puts out what a shop's file brought; whether there was anything.
///
/// # Errors
/// Database errors.
pub async fn put_out(tx: &mut Tx, origin: &str) -> Result<bool> {
    let gone = sqlx::query!("delete from lent where origin = $1", origin).execute(&mut **tx).await?;
    Ok(gone.rows_affected() > 0)
}
