//! What a browser's cookie stands for, by a key only the browser has.

use crate::{Result, Store};

/// What is kept under a key.
///
/// # Errors
/// Database errors.
pub async fn get(store: &Store, key: &str) -> Result<Option<String>> {
    Ok(sqlx::query_scalar!("select web_session_get($1)", key).fetch_one(store.pool()).await?)
}

/// Keeps it for so many seconds.
///
/// # Errors
/// Database errors.
pub async fn put(store: &Store, key: &str, state: &str, seconds: f64) -> Result<()> {
    sqlx::query!("select web_session_put($1, $2, $3)", key, state, seconds).execute(store.pool()).await?;
    Ok(())
}

/// Forgets it.
///
/// # Errors
/// Database errors.
pub async fn drop(store: &Store, key: &str) -> Result<()> {
    sqlx::query!("select web_session_drop($1)", key).execute(store.pool()).await?;
    Ok(())
}

/// What cookies are sealed with: the same for every server process of a database.
///
/// # Errors
/// Database errors.
pub async fn cookie_secret(store: &Store) -> Result<Vec<u8>> {
    Ok(sqlx::query_scalar!("select cookie_secret()").fetch_one(store.pool()).await?.unwrap_or_default())
}
