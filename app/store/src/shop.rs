//! Shops: whose rows they are.

use crate::{Result, Store, Tx, version};
use bold_stance_people::TrustSettings;
use bold_stance_trade::shop::ShopSettings;
use sqlx::types::Json;
use uuid::Uuid;

/// A shop.
#[derive(Debug, Clone, serde::Serialize, utoipa::ToSchema)]
pub struct Shop {
    /// Its id.
    pub id: Uuid,
    /// Its name.
    pub name: String,
}

/// A shop, by its id or the first one made, and whether it has an owner.
#[derive(Debug, Clone)]
pub struct Door {
    /// The shop.
    pub shop: Shop,
    /// Nobody works in it without a session.
    pub locked: bool,
}

/// The shop of that id; the first one made where none is named.
///
/// # Errors
/// Database errors.
pub async fn door(store: &Store, id: Option<Uuid>) -> Result<Option<Door>> {
    let r = sqlx::query!(r#"select id as "id!", name as "name!", locked as "locked!" from the_shop($1)"#, id)
        .fetch_optional(store.pool())
        .await?;
    Ok(r.map(|r| Door { shop: Shop { id: r.id, name: r.name }, locked: r.locked }))
}

/// Settings of a shop with their version.
///
/// # Errors
/// [`crate::StoreError::Missing`].
pub async fn settings(tx: &mut Tx, id: Uuid) -> Result<(i32, ShopSettings)> {
    let r = sqlx::query!(
        r#"select version, settings as "settings: Json<ShopSettings>" from shop where id = $1"#,
        id
    )
    .fetch_optional(&mut **tx)
    .await?
    .ok_or(crate::StoreError::Missing { what: "shop", id })?;
    Ok((r.version, r.settings.0))
}

/// Saves the settings of a shop over version `yours`; answers the new version.
///
/// # Errors
/// [`crate::StoreError::Missing`]; [`crate::StoreError::Stale`] when somebody saved first.
pub async fn save_settings(tx: &mut Tx, id: Uuid, yours: i32, s: &ShopSettings) -> Result<i32> {
    let now = sqlx::query_scalar!("select version from shop where id = $1 for update", id)
        .fetch_optional(&mut **tx)
        .await?;
    let next = version::next("settings", id, yours, now)?;
    sqlx::query!("update shop set settings = $2, version = $3 where id = $1", id, Json(s) as _, next)
        .execute(&mut **tx)
        .await?;
    Ok(next)
}

/// Bays of a shop, and what its owner set about trust, with the version they share with the settings.
///
/// # Errors
/// [`crate::StoreError::Missing`].
pub async fn trust(tx: &mut Tx, id: Uuid) -> Result<(i32, TrustSettings)> {
    let r = sqlx::query!(r#"select bays, trust as "trust: Json<TrustSettings>" from shop where id = $1"#, id)
        .fetch_optional(&mut **tx)
        .await?
        .ok_or(crate::StoreError::Missing { what: "shop", id })?;
    Ok((r.bays, r.trust.0))
}

/// Keeps what the owner set about trust.
///
/// # Errors
/// [`crate::StoreError::Missing`] where it may not be changed.
pub async fn save_trust(tx: &mut Tx, id: Uuid, t: &TrustSettings) -> Result<()> {
    let n =
        sqlx::query!("update shop set trust = $2 where id = $1", id, Json(t) as _).execute(&mut **tx).await?;
    if n.rows_affected() == 1 { Ok(()) } else { Err(crate::StoreError::Missing { what: "shop", id }) }
}
