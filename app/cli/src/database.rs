//! The database a command works on, and the role that owns its tables.

use crate::Failure;
use bold_stance_store::Owner;
use std::future::Future;

/// The addresses of a database: of the role that serves, and of the one that owns the tables where it is known.
#[derive(Debug, Clone, clap::Args)]
pub struct Database {
    /// PostgreSQL address of the role that serves
    #[arg(long, env = "DATABASE_URL", default_value = "postgres://bold_stance@127.0.0.1:5432/bold_stance")]
    pub database_url: String,
    /// PostgreSQL address of the role that owns the tables: it migrates and is not used to serve
    #[arg(long, env = "OWNER_DATABASE_URL")]
    pub owner_database_url: Option<String>,
}

/// Runs on both cores until it is done.
pub fn block<T>(work: impl Future<Output = Result<T, Failure>>) -> Result<T, Failure> {
    tokio::runtime::Builder::new_multi_thread()
        .worker_threads(2)
        .enable_all()
        .build()
        .map_err(|e| Failure::System(e.to_string()))?
        .block_on(work)
}

/// The role that owns the tables.
pub async fn owner(d: &Database) -> Result<Owner, Failure> {
    let url = d.owner_database_url.as_deref().ok_or_else(|| {
        Failure::Input(
            "--owner-database-url: nothing was told; the address of the role that owns the tables".into(),
        )
    })?;
    Owner::connect(url)
        .await
        .map_err(|e| Failure::System(format!("--owner-database-url: {e}; a PostgreSQL that answers")))
}
