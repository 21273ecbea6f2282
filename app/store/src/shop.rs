//! Shops: whose rows they are.

use crate::{Result, Store, Tx, version};
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

/// The shop of that name, made when it is not there.
///
/// # Errors
/// Database errors.
pub async fn ensure(store: &Store, name: &str) -> Result<Shop> {
    let id = Uuid::new_v4();
    let row = sqlx::query_as!(
        Shop,
        "insert into shop (id, name) values ($1, $2)
         on conflict (name) do update set name = excluded.name returning id, name",
        id,
        name
    )
    .fetch_one(store.pool())
    .await?;
    Ok(row)
}

/// The first shop made.
///
/// # Errors
/// Database errors.
pub async fn first(store: &Store) -> Result<Option<Shop>> {
    Ok(sqlx::query_as!(Shop, "select id, name from shop order by created_at, id limit 1")
        .fetch_optional(store.pool())
        .await?)
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

/// Removes a shop and everything of it.
///
/// # Errors
/// Database errors.
pub async fn remove(store: &Store, id: Uuid) -> Result<()> {
    let mut tx = store.tx(id).await?;
    sqlx::query!("update reading set replaces = null where replaces is not null").execute(&mut *tx).await?;
    sqlx::query!("delete from shop where id = $1", id).execute(&mut *tx).await?;
    tx.commit().await?;
    Ok(())
}
