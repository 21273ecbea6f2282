//! Actix Web over store and core: thin routes, problem documents, OpenAPI, the embedded front end.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod api;
mod assets;
mod catalogue;
mod described;
mod guard;
mod once;
mod paging;
mod photo;
mod pool;
mod problem;
mod routes;
mod rows;
mod speech;
mod workbook;

pub use api::openapi_json;
pub use guard::is_loopback_host;

use actix_web::dev::Server;
use actix_web::middleware::Compress;
use actix_web::{App, HttpServer, web};
use bold_stance_car::archetype::{Archetype, shipped_archetypes};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_store::Store;
use bold_stance_store::shop::Shop;
use bold_stance_trade::aim::{Aim, shipped_aims};
use bold_stance_trade::job::Rules;
use bold_stance_trade::job::VehicleFacts;
use bold_stance_trade::part::{Part, shipped_parts};
use bold_stance_trade::reading::{MethodInfo, PrepareItem, shipped_methods, shipped_prepare};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use std::net::{SocketAddr, TcpListener};

/// Largest body a request may have, bytes.
pub const BODY_LIMIT: usize = 256 * 1024;

/// What every route needs. Server processes keep no state of their own beyond shipped data.
#[derive(Debug, Clone)]
pub struct AppState {
    /// The database.
    pub store: Store,
    /// The shop this server works for.
    pub shop: Shop,
    /// The shipped parts.
    pub parts: Vec<Part>,
    /// The shop's parts as last looked at.
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
    /// Shipped data is wrong.
    #[error("shipped data: {0}")]
    Data(#[from] bold_stance_units::problem::Problem),
}

/// Binds and runs; answers the address it listens on and the server to await.
///
/// # Errors
/// [`StartError`].
pub fn start(
    store: Store,
    shop: Shop,
    listen: SocketAddr,
    gauge: Option<SocketAddr>,
) -> Result<(SocketAddr, Server), StartError> {
    let listener = TcpListener::bind(listen)?;
    listener.set_nonblocking(true)?;
    let address = listener.local_addr()?;
    let archetypes = shipped_archetypes()?;
    let front = archetypes.iter().map(|a| &a.geometry).find(|g| g.axle == Axle::Front);
    let front =
        front.ok_or_else(|| Problem::new("archetypes", said("fault-unknown"), said("fault-geometry")))?;
    let starter = VehicleFacts::starting_on(front.clone());
    let state = web::Data::new(AppState {
        store,
        shop,
        parts: shipped_parts()?,
        shelf_cache: catalogue::ShelfCache::default(),
        aims: shipped_aims()?,
        gauge,
        methods: shipped_methods()?,
        prepare: shipped_prepare()?,
        archetypes,
        starter,
        pool: pool::Pool::default(),
        addresses: described::Addresses::of(&api::description()),
    });
    let server = HttpServer::new(move || {
        App::new()
            .app_data(state.clone())
            .app_data(web::PayloadConfig::new(BODY_LIMIT))
            .app_data(web::PathConfig::default().error_handler(|e, _| problem::not_an_id(&e).into()))
            .app_data(web::QueryConfig::default().error_handler(|e, _| problem::bad_query(&e).into()))
            .wrap(actix_web::middleware::from_fn(speech::speak))
            .wrap(guard::headers())
            .wrap(actix_web::middleware::from_fn(guard::well_asked))
            .wrap(actix_web::middleware::from_fn(guard::same_machine))
            .wrap(Compress::default())
            .configure(routes::mount)
            .default_service(web::to(assets::serve))
    })
    .on_connect(pool::Peer::meet)
    .workers(2)
    .shutdown_timeout(5)
    .listen(listener)?
    .run();
    Ok((address, server))
}
