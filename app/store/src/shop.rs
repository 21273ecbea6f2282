//! Shops: whose rows they are.

use crate::{Result, Store};
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
