//! Vehicles: their facts as one document; what a list asks about stands in columns made from it.

use crate::{Result, StoreError, Tx, version};
use bold_stance_trade::job::VehicleFacts;
use serde::{Deserialize, Serialize};
use sqlx::types::Json;
use uuid::Uuid;

/// A stored vehicle.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
pub struct Vehicle {
    /// Its id.
    pub id: Uuid,
    /// Goes up with every save.
    pub version: i32,
    /// What is told of it.
    pub facts: VehicleFacts,
}

/// Stores a new vehicle.
///
/// # Errors
/// Database errors.
pub async fn insert(tx: &mut Tx, shop: Uuid, f: &VehicleFacts) -> Result<Uuid> {
    let id = Uuid::new_v4();
    sqlx::query!("insert into vehicle (id, shop_id, document) values ($1, $2, $3)", id, shop, Json(f) as _)
        .execute(&mut **tx)
        .await?;
    Ok(id)
}

/// One vehicle.
///
/// # Errors
/// [`StoreError::Missing`] when it is not this shop's.
pub async fn get(tx: &mut Tx, id: Uuid) -> Result<Vehicle> {
    let r = sqlx::query!(
        r#"select version, document as "document: Json<VehicleFacts>" from vehicle where id = $1"#,
        id
    )
    .fetch_optional(&mut **tx)
    .await?
    .ok_or(StoreError::Missing { what: "vehicle", id })?;
    Ok(Vehicle { id, version: r.version, facts: r.document.0 })
}

/// Saves facts over version `yours`; answers the new version.
///
/// # Errors
/// [`StoreError::Missing`]; [`StoreError::Stale`] when somebody saved first.
pub async fn update(tx: &mut Tx, id: Uuid, yours: i32, f: &VehicleFacts) -> Result<i32> {
    let now = sqlx::query_scalar!("select version from vehicle where id = $1 for update", id)
        .fetch_optional(&mut **tx)
        .await?;
    let next = version::next("vehicle", id, yours, now)?;
    sqlx::query!("update vehicle set document = $2, version = $3 where id = $1", id, Json(f) as _, next)
        .execute(&mut **tx)
        .await?;
    Ok(next)
}
