//! Server and demo commands.

use crate::Failure;
use bold_stance_server::{is_loopback_host, start};
use bold_stance_store::{Store, demo as demo_data, shop};
use std::future::Future;
use std::net::SocketAddr;

fn block<T>(work: impl Future<Output = Result<T, Failure>>) -> Result<T, Failure> {
    tokio::runtime::Builder::new_multi_thread()
        .worker_threads(2)
        .enable_all()
        .build()
        .map_err(|e| Failure::System(e.to_string()))?
        .block_on(work)
}

async fn open(url: &str) -> Result<Store, Failure> {
    let fail = |e: bold_stance_store::StoreError| {
        Failure::System(format!("--database-url: {e}; a PostgreSQL that answers"))
    };
    let store = Store::connect(url).await.map_err(fail)?;
    store.migrate().await.map_err(fail)?;
    Ok(store)
}

/// `serve`.
pub fn serve(
    url: &str,
    listen: SocketAddr,
    public: bool,
    with_demo: bool,
    gauge: Option<SocketAddr>,
) -> Result<(), Failure> {
    tracing_subscriber::fmt()
        .with_env_filter(
            tracing_subscriber::EnvFilter::try_from_default_env().unwrap_or_else(|_| "warn".into()),
        )
        .with_writer(std::io::stderr)
        .init();
    // There are no accounts yet: whoever reaches the server reads and writes everything.
    if public {
        return Err(Failure::Input(
            "--public: the server knows no accounts yet, so anyone who reaches it could read and write everything; leave it out and listen on a loopback address".into(),
        ));
    }
    if !is_loopback_host(&listen.to_string()) {
        return Err(Failure::Input(format!(
            "--listen: {listen} can be reached by other machines; a loopback address such as 127.0.0.1:8080"
        )));
    }
    block(async {
        let store = open(url).await?;
        let fail = |e: bold_stance_store::StoreError| Failure::System(e.to_string());
        if with_demo {
            demo_data::load(&store, false).await.map_err(fail)?;
        }
        let shop = match shop::first(&store).await.map_err(fail)? {
            Some(s) => s,
            None => shop::ensure(&store, "My shop").await.map_err(fail)?,
        };
        let (address, server) =
            start(store, shop, listen, gauge).map_err(|e| Failure::System(e.to_string()))?;
        println!("Bold Stance is at http://{address}/");
        server.await.map_err(|e| Failure::System(e.to_string()))
    })
}

/// `demo`.
pub fn demo(url: &str, reset: bool) -> Result<(), Failure> {
    block(async {
        let store = open(url).await?;
        let s = demo_data::load(&store, reset).await.map_err(|e| Failure::System(e.to_string()))?;
        println!("{} is loaded", s.name);
        Ok(())
    })
}
