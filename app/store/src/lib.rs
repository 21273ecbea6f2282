//! PostgreSQL through SQLx. One module per aggregate; every query runs inside a transaction that
//! names the shop, and row-level security refuses the rest.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

pub mod bundle;
pub mod demo;
pub mod done;
pub mod event;
pub mod job;
pub mod note;
pub mod plan;
pub mod reading;
pub mod shop;
pub mod shop_aim;
pub mod shop_part;
pub mod shop_shape;
pub mod tread;
pub mod vehicle;
mod version;
pub mod visit;
mod word;
pub mod write_key;

use sqlx::postgres::{PgConnectOptions, PgPoolOptions};
use sqlx::{PgPool, Postgres, Transaction};
use std::str::FromStr;
use std::time::Duration;
use uuid::Uuid;

/// Why the store refused.
#[derive(Debug, thiserror::Error)]
pub enum StoreError {
    /// No such row in this shop.
    #[error("{what} {id} is not there")]
    Missing {
        /// Kind of row.
        what: &'static str,
        /// Its id.
        id: Uuid,
    },
    /// Somebody saved first.
    #[error("{what} was saved by somebody else: yours is version {yours}, it is now version {now}")]
    Stale {
        /// Kind of row.
        what: &'static str,
        /// Version the edit was based on.
        yours: i32,
        /// Version in the database.
        now: i32,
    },
    /// Another car stands there.
    #[error("bay {bay} holds ticket {ticket:04}")]
    BayTaken {
        /// The bay.
        bay: i32,
        /// Ticket of the car that stands in it.
        ticket: i32,
    },
    /// The database itself.
    #[error("database: {0}")]
    Database(#[from] sqlx::Error),
    /// The connection was cut while a change was being committed: it may be there or not.
    #[error("commit: {0}")]
    Unsure(sqlx::Error),
    /// A migration did not go through.
    #[error("migration: {0}")]
    Migrate(#[from] sqlx::migrate::MigrateError),
    /// Shipped demo data is wrong.
    #[error("demo data: {0}")]
    Demo(String),
}

/// Result of the store.
pub type Result<T> = std::result::Result<T, StoreError>;

/// A transaction bound to one shop.
pub type Tx = Transaction<'static, Postgres>;

/// Handle on the database.
#[derive(Debug, Clone)]
pub struct Store {
    pool: PgPool,
}

impl Store {
    /// Connects; `url` as PostgreSQL writes it.
    ///
    /// # Errors
    /// [`StoreError::Database`] when it does not answer within five seconds.
    pub async fn connect(url: &str) -> Result<Self> {
        let options = PgConnectOptions::from_str(url)?.application_name("bold-stance");
        let pool = PgPoolOptions::new()
            .max_connections(12)
            .acquire_timeout(Duration::from_secs(5))
            .connect_with(options)
            .await?;
        Ok(Self { pool })
    }

    /// Brings the schema up to date.
    ///
    /// # Errors
    /// [`StoreError::Migrate`].
    pub async fn migrate(&self) -> Result<()> {
        Ok(sqlx::migrate!().run(&self.pool).await?)
    }

    /// Whether the database answers.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub async fn ping(&self) -> Result<()> {
        sqlx::query("select 1").execute(&self.pool).await?;
        Ok(())
    }

    /// The pool, for what lies outside any shop.
    #[must_use]
    pub fn pool(&self) -> &PgPool {
        &self.pool
    }

    /// Opens a transaction that sees only one shop's rows.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub async fn tx(&self, shop: Uuid) -> Result<Tx> {
        let mut tx = self.pool.begin().await?;
        sqlx::query!("select set_config('app.shop', $1, true)", shop.to_string()).fetch_one(&mut *tx).await?;
        Ok(tx)
    }
}
