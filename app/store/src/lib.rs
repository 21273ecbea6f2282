//! PostgreSQL through SQLx. One module per aggregate; every query of the role that serves runs inside a transaction that
//! names a session, or a shop without an owner, and row-level security refuses the rest. The role that owns the tables
//! ([`Owner`]) migrates, makes shops, backs up and restores.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

pub mod audit;
pub mod backup;
pub mod bundle;
pub mod demo;
pub mod done;
pub mod event;
pub mod job;
pub mod lent;
pub mod live;
pub mod note;
mod owner;
pub mod people;
pub mod plan;
pub mod reading;
pub mod shop;
pub mod shop_aim;
pub mod shop_part;
pub mod shop_shape;
pub mod sign_in;
pub mod tread;
pub mod vehicle;
mod version;
pub mod visit;
pub mod web_session;
mod word;
pub mod write_key;

pub use owner::{NewShop, Owner};

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
    /// The session has ended, or the shop that is named has an owner by now.
    #[error("nobody is signed in here, or not any more: sign in")]
    Unseated,
    /// The database does not answer.
    #[error("the database does not answer")]
    Away,
    /// The connection was cut while a change was being committed: it may be there or not.
    #[error("commit: {0}")]
    Unsure(sqlx::Error),
    /// Another member has the name.
    #[error("somebody here has this name already")]
    NameTaken,
    /// Nobody who owns the shop would be left.
    #[error("a shop keeps one owner")]
    LastOwner,
    /// The role that serves could do what it must not.
    #[error("{0}")]
    Role(&'static str),
    /// The schema is not the one this program was made with.
    #[error(
        "the schema is at {found}, this program wants {wanted}: start once with the address of the role that owns the tables (--owner-database-url)"
    )]
    Schema {
        /// Newest migration of the database; 0 without any.
        found: i64,
        /// Newest migration of the program.
        wanted: i64,
    },
    /// A migration did not go through.
    #[error("migration: {0}")]
    Migrate(#[from] sqlx::migrate::MigrateError),
    /// Shipped demo data is wrong.
    #[error("demo data: {0}")]
    Demo(String),
}

impl StoreError {
    fn code(&self) -> Option<String> {
        match self {
            Self::Database(sqlx::Error::Database(e))
            | Self::Migrate(
                sqlx::migrate::MigrateError::Execute(sqlx::Error::Database(e))
                | sqlx::migrate::MigrateError::ExecuteMigration(sqlx::Error::Database(e), _),
            ) => e.code().map(|c| c.into_owned()),
            _ => None,
        }
    }

    /// A commit that failed: what the database itself refuses is not there; where no answer came nobody knows.
    #[must_use]
    pub fn at_commit(e: sqlx::Error) -> Self {
        if matches!(e, sqlx::Error::Database(_)) { Self::Database(e) } else { Self::Unsure(e) }
    }

    /// Whether row-level security or a missing right refused it (SQLSTATE 42501).
    #[must_use]
    pub fn is_refused(&self) -> bool {
        self.code().as_deref() == Some("42501")
    }

    /// Whether there is no room left where the database writes (SQLSTATE 53100).
    #[must_use]
    pub fn is_full(&self) -> bool {
        self.code().as_deref() == Some("53100")
    }

    /// Whether the database takes no writes: a standby, or one that is looked after (25006).
    #[must_use]
    pub fn reads_only(&self) -> bool {
        self.code().as_deref() == Some("25006")
    }

    /// Whether the database is there and has no place or time now: no connection was free, a lock was held or a statement
    /// ran too long (55P03, 57014, 53300, and the two kinds of serialisation fault 40001 and 40P01).
    #[must_use]
    pub fn is_busy(&self) -> bool {
        matches!(self, Self::Database(sqlx::Error::PoolTimedOut))
            || self
                .code()
                .is_some_and(|c| ["55P03", "57014", "53300", "40001", "40P01"].contains(&c.as_str()))
    }
}

/// Result of the store.
pub type Result<T> = std::result::Result<T, StoreError>;

/// A transaction bound to one shop.
pub type Tx = Transaction<'static, Postgres>;

/// Who a transaction is for.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Seat {
    /// A shop without an owner: it has no sessions, whoever asks names it.
    Open {
        /// The shop.
        shop: Uuid,
        /// The member that was picked, when one was.
        member: Option<Uuid>,
    },
    /// A session, by its token: the database finds out whose it is.
    Session(String),
}

/// Longest a statement may run, and wait for a lock, ms: a lock somebody holds, or a database that is frozen, ends in a
/// refusal, and the places of the pool come back.
const STATEMENT_MS: u32 = 15_000;
/// See [`STATEMENT_MS`].
const LOCK_MS: u32 = 4_000;

/// Handle on the database under the role that serves.
#[derive(Debug, Clone)]
pub struct Store {
    pool: PgPool,
}

/// The newest migration of this program.
#[must_use]
pub fn newest_migration() -> i64 {
    sqlx::migrate!().iter().map(|m| m.version).max().unwrap_or(0)
}

/// Most connections of a server process.
const MOST: u32 = 12;

async fn pool_of(url: &str, most: u32) -> Result<PgPool> {
    let options = PgConnectOptions::from_str(url)?.application_name("bold-stance");
    let pool = PgPoolOptions::new().max_connections(most).acquire_timeout(Duration::from_secs(5));
    Ok(pool.connect_with(options).await?)
}

impl Store {
    /// Connects; `url` as PostgreSQL writes it.
    ///
    /// # Errors
    /// [`StoreError::Database`] when it does not answer within five seconds.
    pub async fn connect(url: &str) -> Result<Self> {
        Ok(Self { pool: pool_of(url, MOST).await? })
    }

    /// Whether this role may serve: it owns no table, goes by no policy's side, and the schema is the program's.
    ///
    /// # Errors
    /// [`StoreError::Role`], [`StoreError::Schema`].
    pub async fn fit_to_serve(&self) -> Result<()> {
        let r = sqlx::query!(
            r#"select (select rolsuper or rolbypassrls from pg_roles where rolname = current_user) as "above!",
                 exists (select 1 from pg_tables where schemaname = 'public' and tableowner = current_user) as "owns!",
                 to_regclass('public._sqlx_migrations') is not null as "made!""#
        )
        .fetch_one(&self.pool)
        .await?;
        if r.above {
            return Err(StoreError::Role(
                "the role that serves goes by row-level security: it must be no superuser and not bypassrls",
            ));
        }
        if r.owns {
            return Err(StoreError::Role(
                "the role that serves owns the tables and could rewrite what happened: one role owns them (--owner-database-url), another serves; docs/OPERATIONS.md says how",
            ));
        }
        let wanted = newest_migration();
        let found = if r.made {
            sqlx::query_scalar("select coalesce(max(version), 0) from _sqlx_migrations where success")
                .fetch_one(&self.pool)
                .await?
        } else {
            0
        };
        if found == wanted { Ok(()) } else { Err(StoreError::Schema { found, wanted }) }
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

    /// A connection that was not to be had: all are taken, or there is nobody to connect to.
    fn why(&self, e: sqlx::Error) -> StoreError {
        match e {
            sqlx::Error::PoolTimedOut if self.pool.size() < MOST => StoreError::Away,
            sqlx::Error::Io(_) => StoreError::Away,
            other => StoreError::Database(other),
        }
    }

    /// Opens a transaction for a seat: it sees the rows of its shop, and changes what its member may.
    ///
    /// # Errors
    /// [`StoreError::Unseated`] where it is nobody's (any more); [`StoreError::Away`], [`StoreError::Database`].
    pub async fn sit(&self, seat: &Seat) -> Result<Tx> {
        let (token, shop, member) = match seat {
            Seat::Session(token) => (token.clone(), String::new(), String::new()),
            Seat::Open { shop, member } => {
                (String::new(), shop.to_string(), member.map(|m| m.to_string()).unwrap_or_default())
            }
        };
        let mut tx = self.pool.begin().await.map_err(|e| self.why(e))?;
        // Set first, then asked: a session that ended meanwhile is told as such, and is not a shop without rows.
        let seated = sqlx::query_scalar!(
            r#"with told as materialized (select set_config('app.session', $1, true), set_config('app.shop', $2, true) as b,
                 set_config('app.member', $3, true) as c, set_config('statement_timeout', $4, true) as d,
                 set_config('lock_timeout', $5, true) as e)
               select (case when told.b is not null then here() end) is not null as "seated!" from told"#,
            token,
            shop,
            member,
            STATEMENT_MS.to_string(),
            LOCK_MS.to_string()
        )
        .fetch_one(&mut *tx)
        .await?;
        if !seated {
            return Err(StoreError::Unseated);
        }
        Ok(tx)
    }

    /// Opens a transaction in a shop without an owner.
    ///
    /// # Errors
    /// [`StoreError::Database`].
    pub async fn tx(&self, shop: Uuid) -> Result<Tx> {
        self.sit(&Seat::Open { shop, member: None }).await
    }
}
