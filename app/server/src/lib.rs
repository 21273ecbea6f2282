//! Actix Web over store and core: thin routes, problem documents, OpenAPI, the embedded front end.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod api;
mod assets;
mod catalogue;
mod cookies;
mod described;
mod guard;
mod limits;
mod metrics;
mod once;
mod paging;
mod photo;
mod pool;
mod problem;
mod rights;
mod routes;
mod rows;
mod secrets;
mod speech;
mod tls;
mod who;
mod workbook;

pub use api::openapi_json;
pub use guard::{Exposure, is_loopback_host};
pub use problem::ApiError;
pub use secrets::{KeptSecret, as_letters, keep, new_slip};
pub use tls::TlsFault;

use actix_web::cookie::Key;
use actix_web::dev::Server;
use actix_web::middleware::Compress;
use actix_web::{App, HttpServer, web};
use bold_stance_car::archetype::{Archetype, shipped_archetypes};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_store::live::Live;
use bold_stance_store::web_session;
use bold_stance_store::{Store, StoreError};
use bold_stance_trade::aim::{Aim, shipped_aims};
use bold_stance_trade::job::Rules;
use bold_stance_trade::job::VehicleFacts;
use bold_stance_trade::part::{Part, shipped_parts};
use bold_stance_trade::reading::{MethodInfo, PrepareItem, shipped_methods, shipped_prepare};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use sha2::{Digest, Sha512};
use std::net::{SocketAddr, TcpListener};
use std::path::PathBuf;

/// Largest body a request may have, bytes.
pub const BODY_LIMIT: usize = 256 * 1024;

/// What every route needs. Server processes keep no state of their own beyond shipped data.
#[derive(Debug, Clone)]
pub struct AppState {
    /// The database.
    pub store: Store,
    /// What happens on other screens.
    pub live: Live,
    /// Who reaches this server.
    pub exposure: Exposure,
    /// What tokens, codes and slips are made with.
    pub handing: [u8; 64],
    /// Who was found lately.
    pub whos: who::WhoCache,
    /// What is counted.
    pub metrics: metrics::Metrics,
    /// How often somebody may.
    pub limits: limits::Limits,
    /// The shipped parts.
    pub parts: Vec<Part>,
    /// Each shop's parts as last looked at.
    pub shelf_cache: catalogue::ShelfCache,
    /// The aims.
    pub aims: Vec<Aim>,
    /// Methods people read with.
    pub methods: Vec<MethodInfo>,
    /// Items of the prepare list.
    pub prepare: Vec<PrepareItem>,
    /// Where an angle gauge serves its lines, when there is one.
    pub gauge: Option<SocketAddr>,
    /// Generic axles a new vehicle starts from.
    pub archetypes: Vec<Archetype>,
    /// What a new vehicle starts from.
    pub starter: VehicleFacts,
    /// Places for computation.
    pub pool: pool::Pool,
    /// Addresses and what they take.
    pub addresses: described::Addresses,
}

impl AppState {
    /// The data files readings are looked at with.
    #[must_use]
    pub fn rules(&self) -> Rules<'_> {
        Rules { methods: &self.methods, items: &self.prepare }
    }
}

/// Why the server did not start.
#[derive(Debug, thiserror::Error)]
pub enum StartError {
    /// The address is taken or not allowed.
    #[error("listen: {0}")]
    Listen(#[from] std::io::Error),
    /// The database did not tell what cookies are sealed with.
    #[error("{0}")]
    Store(#[from] StoreError),
    /// The certificate.
    #[error("{0}")]
    Tls(#[from] TlsFault),
    /// Shipped data is wrong.
    #[error("shipped data: {0}")]
    Data(#[from] bold_stance_units::problem::Problem),
}

/// What a server is started with.
#[derive(Debug)]
pub struct Start {
    /// The database.
    pub store: Store,
    /// Address to listen on.
    pub listen: SocketAddr,
    /// Where an angle gauge serves its lines.
    pub gauge: Option<SocketAddr>,
    /// Who reaches it.
    pub exposure: Exposure,
    /// Certificate and key, PEM, where it speaks TLS itself.
    pub tls: Option<(PathBuf, PathBuf)>,
    /// What cookies are sealed with; the database's own secret when absent.
    pub cookie_secret: Option<String>,
}

/// Seconds a client may take over the head of a request.
const SLOW_S: u64 = 10;

/// Binds and runs; answers the address it listens on and the server to await.
///
/// # Errors
/// [`StartError`].
pub async fn start(s: Start) -> Result<(SocketAddr, Server), StartError> {
    let listener = TcpListener::bind(s.listen)?;
    listener.set_nonblocking(true)?;
    let address = listener.local_addr()?;
    let archetypes = shipped_archetypes()?;
    let front = archetypes.iter().map(|a| &a.geometry).find(|g| g.axle == Axle::Front);
    let front =
        front.ok_or_else(|| Problem::new("archetypes", said("fault-unknown"), said("fault-geometry")))?;
    let starter = VehicleFacts::starting_on(front.clone());
    let secret = match s.cookie_secret {
        Some(own) => own.into_bytes(),
        None => web_session::cookie_secret(&s.store).await?,
    };
    let handing = Sha512::new().chain_update("handed out").chain_update(&secret).finalize().into();
    let key = Key::from(&Sha512::digest(secret));
    let tls = s.tls.as_ref().map(|(cert, key)| tls::config(cert, key)).transpose()?;
    let (store, exposure) = (s.store, s.exposure);
    let state = web::Data::new(AppState {
        live: Live::begin(&store),
        store: store.clone(),
        exposure: exposure.clone(),
        handing,
        whos: who::WhoCache::default(),
        limits: limits::Limits::default(),
        metrics: metrics::Metrics::new().map_err(|e| std::io::Error::other(e.to_string()))?,
        parts: shipped_parts()?,
        shelf_cache: catalogue::ShelfCache::default(),
        aims: shipped_aims()?,
        gauge: s.gauge,
        methods: shipped_methods()?,
        prepare: shipped_prepare()?,
        archetypes,
        starter,
        pool: pool::Pool::default(),
        addresses: described::Addresses::kept().map_err(std::io::Error::other)?,
    });
    let let_go = store.clone();
    tokio::spawn(async move {
        // Once a day, and soon after a start: what each owner lets go.
        loop {
            if let Err(e) = bold_stance_store::audit::let_go_due(&let_go).await {
                tracing::warn!("what is due to go: {e}");
            }
            tokio::time::sleep(std::time::Duration::from_secs(24 * 3600)).await;
        }
    });
    let server = HttpServer::new(move || {
        App::new()
            .app_data(state.clone())
            .app_data(web::PayloadConfig::new(BODY_LIMIT))
            .app_data(web::PathConfig::default().error_handler(|e, _| problem::not_an_id(&e).into()))
            .app_data(web::QueryConfig::default().error_handler(|e, _| problem::bad_query(&e).into()))
            .wrap(actix_web::middleware::from_fn(who::admit))
            .wrap(cookies::sessions(store.clone(), key.clone(), exposure.is_secure()))
            .wrap(actix_web::middleware::from_fn(guard::in_time))
            .wrap(actix_web::middleware::from_fn(guard::well_asked))
            .wrap(actix_web::middleware::from_fn(guard::well_met))
            .wrap(actix_web::middleware::from_fn(guard::told_plainly))
            .wrap(actix_web::middleware::from_fn(speech::speak))
            .wrap(guard::headers(&exposure))
            .wrap(Compress::default())
            .configure(routes::mount)
            .default_service(web::to(assets::serve))
    })
    .on_connect(pool::Peer::meet)
    .workers(2)
    .client_request_timeout(std::time::Duration::from_secs(SLOW_S))
    .client_disconnect_timeout(std::time::Duration::from_secs(2))
    .max_connections(4096)
    .shutdown_timeout(5);
    let server = match tls {
        Some(config) => server.listen_rustls_0_23(listener, config)?,
        None => server.listen(listener)?,
    };
    Ok((address, server.run()))
}
