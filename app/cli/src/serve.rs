//! Server, demo and shop commands.

use crate::Failure;
use crate::database::{Database, block, owner};
use bold_stance_server::{Exposure, Start, is_loopback_host, start};
use bold_stance_store::{Owner, Store, StoreError, demo as demo_data, shop};
use std::net::SocketAddr;
use std::path::PathBuf;

/// Shortest secret cookies are sealed with, characters.
const SECRET: usize = 32;

/// What a server is told.
#[derive(Debug, clap::Args)]
pub struct ServeArgs {
    #[command(flatten)]
    database: Database,
    /// Address to listen on
    #[arg(long, default_value = "127.0.0.1:8080")]
    listen: SocketAddr,
    /// Serve other machines: needs an owner, BOLD_STANCE_SESSION_SECRET, and TLS or a proxy that has it
    #[arg(long)]
    public: bool,
    /// Certificate and those it hangs on, PEM
    #[arg(long, requires = "tls_key")]
    tls_cert: Option<PathBuf>,
    /// Its private key, PEM
    #[arg(long, requires = "tls_cert")]
    tls_key: Option<PathBuf>,
    /// A proxy with TLS stands before it and sets X-Forwarded-For
    #[arg(long)]
    behind_proxy: bool,
    /// Names it is reached by, parted by commas
    #[arg(long, value_delimiter = ',')]
    hosts: Vec<String>,
    /// What cookies are sealed with, 32 characters or more
    #[arg(long, env = "BOLD_STANCE_SESSION_SECRET", hide_env_values = true)]
    session_secret: Option<String>,
    /// Folder a backup is written into every night
    #[arg(long, requires = "owner_database_url")]
    backup_dir: Option<PathBuf>,
    /// How many of them stay
    #[arg(long, default_value_t = 14, value_parser = clap::value_parser!(u16).range(1..))]
    backup_keep: u16,
    /// Load the demo shop when it is not there
    #[arg(long)]
    demo: bool,
    /// Address of an angle gauge that speaks docs/GAUGE.md
    #[arg(long)]
    gauge: Option<SocketAddr>,
}

fn of_url(e: StoreError) -> Failure {
    Failure::System(format!("--database-url: {e}; a PostgreSQL that answers"))
}

/// The role that serves, on a schema that is brought up to date where its owner is known.
async fn open(d: &Database) -> Result<(Store, Option<Owner>), Failure> {
    let by = match &d.owner_database_url {
        Some(_) => {
            let o = owner(d).await?;
            match o.migrate().await {
                // A schema that is up to date is served all the same; whether it is, is looked at below.
                Err(e) if e.reads_only() => {
                    tracing::warn!("--owner-database-url: the database can only be read now: {e}");
                }
                other => other.map_err(|e| Failure::System(format!("--owner-database-url: {e}")))?,
            }
            Some(o)
        }
        None => None,
    };
    let store = Store::connect(&d.database_url).await.map_err(of_url)?;
    store.fit_to_serve().await.map_err(|e| Failure::System(format!("--database-url: {e}")))?;
    Ok((store, by))
}

/// Who will reach it, or why it will not start.
fn exposure(a: &ServeArgs) -> Result<Exposure, Failure> {
    if !a.public {
        if !is_loopback_host(&a.listen.to_string()) {
            return Err(Failure::Input(format!(
                "--listen: {} can be reached by other machines; a loopback address such as 127.0.0.1:8080, or --public",
                a.listen
            )));
        }
        return Ok(Exposure::Here);
    }
    if a.session_secret.as_deref().is_none_or(|s| s.chars().count() < SECRET) {
        return Err(Failure::Input(format!(
            "--public: BOLD_STANCE_SESSION_SECRET is not there or short; {SECRET} characters or more that nobody guesses"
        )));
    }
    match (&a.tls_cert, a.behind_proxy) {
        (Some(_), true) => Err(Failure::Input(
            "--behind-proxy: with --tls-cert it would be told twice who speaks TLS; one of the two".into(),
        )),
        (None, false) => Err(Failure::Input(
            "--public: nothing says who speaks TLS; --tls-cert and --tls-key, or --behind-proxy with --hosts"
                .into(),
        )),
        (None, true) if a.hosts.is_empty() => Err(Failure::Input(
            "--hosts: nothing was told; the names the proxy serves, such as shop.example".into(),
        )),
        (_, proxy) => Ok(Exposure::Public { hosts: a.hosts.clone(), proxy }),
    }
}

/// `serve`.
pub fn serve(a: ServeArgs) -> Result<(), Failure> {
    tracing_subscriber::fmt()
        .with_env_filter(
            tracing_subscriber::EnvFilter::try_from_default_env().unwrap_or_else(|_| "warn".into()),
        )
        .with_writer(std::io::stderr)
        .init();
    let exposure = exposure(&a)?;
    block(async {
        let (store, by) = open(&a.database).await?;
        let fail = |e: StoreError| Failure::System(e.to_string());
        if a.demo {
            let by = by.as_ref().ok_or_else(|| {
                Failure::Input(
                    "--demo: the demo shop is made by the role that owns the tables; --owner-database-url"
                        .into(),
                )
            })?;
            match demo_data::load(by, &store, false).await {
                Err(e) if e.reads_only() => tracing::warn!("--demo: {e}"),
                other => other.map(|_| ()).map_err(fail)?,
            }
        }
        let first = match (shop::door(&store, None).await.map_err(fail)?, &by) {
            (Some(d), _) => Some(d),
            (None, Some(by)) => {
                by.ensure_shop("My shop").await.map_err(fail)?;
                shop::door(&store, None).await.map_err(fail)?
            }
            (None, None) => None,
        };
        match first {
            None => {
                return Err(Failure::Input(
                    "--owner-database-url: there is no shop yet; once with the role that owns the tables"
                        .into(),
                ));
            }
            Some(d) if a.public && !d.locked => {
                return Err(Failure::Input(format!(
                    "--public: {} has no owner, so anyone who reaches it could read and write everything; bold-stance shop makes one, or the first run on this machine",
                    d.shop.name
                )));
            }
            Some(_) => {}
        }
        if let (Some(dir), Some(by)) = (a.backup_dir, by) {
            tokio::spawn(nightly(by, dir, a.backup_keep));
        }
        let scheme = if a.tls_cert.is_some() { "https" } else { "http" };
        let (address, server) = start(Start {
            store,
            listen: a.listen,
            gauge: a.gauge,
            exposure,
            tls: a.tls_cert.zip(a.tls_key),
            cookie_secret: a.session_secret,
        })
        .await
        .map_err(|e| Failure::System(e.to_string()))?;
        println!("Bold Stance is at {scheme}://{address}/");
        server.await.map_err(|e| Failure::System(e.to_string()))
    })
}

/// A backup now, and every night at three by UTC.
async fn nightly(by: Owner, dir: PathBuf, keep: u16) {
    loop {
        match crate::operate::into_folder(&by, &dir, keep).await {
            Ok(to) => tracing::info!("backup {}", to.display()),
            Err(e) => tracing::error!("--backup-dir: {}: {e}", dir.display()),
        }
        let now = chrono::Utc::now().timestamp().rem_euclid(24 * 3600);
        let wait = (3 * 3600 - now).rem_euclid(24 * 3600).max(60);
        tokio::time::sleep(std::time::Duration::from_secs(wait.unsigned_abs())).await;
    }
}

/// `demo`.
pub fn demo(d: &Database, reset: bool) -> Result<(), Failure> {
    block(async {
        let (store, by) = open(d).await?;
        let by = match by {
            Some(b) => b,
            None => owner(d).await?,
        };
        let s = demo_data::load(&by, &store, reset).await.map_err(|e| Failure::System(e.to_string()))?;
        println!("{} is loaded", s.name);
        Ok(())
    })
}
