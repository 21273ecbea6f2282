//! What cars of other shops taught, as it was taken in from their files.

use crate::{Result, Tx};
use bold_stance_trade::memory::HeightsTaught;
use bold_stance_trade::offer::{Lent, OfferedCar, ShopOffer};
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
           from lent where out_at is null order by taken_at desc, origin"#
    )
    .fetch_all(&mut **tx)
    .await?)
}

/// Every file that was taken in, with when it counts, oldest first.
///
/// # Errors
/// Database errors.
pub async fn all(tx: &mut Tx) -> Result<Vec<Lent>> {
    let rows = sqlx::query!(
        r#"select taken_at, out_at, cars as "cars: Json<Vec<OfferedCar>>", heights as "heights: Json<Vec<HeightsTaught>>"
           from lent order by taken_at, id"#
    )
    .fetch_all(&mut **tx)
    .await?;
    Ok(rows
        .into_iter()
        .map(|r| Lent { from: r.taken_at, until: r.out_at, cars: r.cars.0, heights: r.heights.0 })
        .collect())
}

/// Takes in what a file has; from now on a later file of the same shop stands for the earlier one.
///
/// # Errors
/// Database errors.
pub async fn take(tx: &mut Tx, shop: Uuid, author: &str, o: &ShopOffer) -> Result<()> {
    put_out(tx, &o.origin).await?;
    sqlx::query!(
        "insert into lent (id, shop_id, origin, name, author, cars, heights) values ($1, $2, $3, $4, $5, $6, $7)",
        Uuid::new_v4(),
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
    let ended = sqlx::query!(
        "update lent set out_at = clock_timestamp() where origin = $1 and out_at is null",
        origin
    )
    .execute(&mut **tx)
    .await?;
    Ok(ended.rows_affected() > 0)
}
