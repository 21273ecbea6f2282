//! Who asks: found once for a request, before its route, and held against the table of rights.

use crate::cookies::AWAY;
use crate::problem::ApiError;
use crate::rights::{Wants, wanted};
use crate::{AppState, limits};
use actix_session::{Session, SessionExt};
use actix_web::body::{BoxBody, MessageBody};
use actix_web::dev::{Payload, ServiceRequest, ServiceResponse};
use actix_web::http::Method;
use actix_web::middleware::Next;
use actix_web::{FromRequest, HttpMessage, HttpRequest, web};
use bold_stance_people::{Act, Role, TrustSettings};
use bold_stance_store::shop::{Shop, door};
use bold_stance_store::{Seat, StoreError, Tx, people, sign_in};
use std::collections::HashMap;
use std::future::{Ready, ready};
use std::ops::Deref;
use std::sync::{Arc, RwLock};
use std::time::{Duration, Instant};
use uuid::Uuid;

/// Header that carries what only a page of ours was told.
pub const CSRF: &str = "x-csrf-token";
/// Where the session keeps the token of a seat.
pub const TOKEN: &str = "token";
/// Where it keeps what [`CSRF`] has to carry.
pub const CSRF_KEPT: &str = "csrf";
/// Where it keeps who was picked in a shop without an owner.
pub const PICKED: &str = "picked";
/// Who works where nobody has a name yet.
const SOMEBODY: &str = "Specialist";

/// Somebody at a bench.
#[derive(Debug, Clone)]
pub struct Who {
    /// What the database is asked as.
    pub seat: Seat,
    /// Their shop.
    pub shop: Shop,
    /// The member; none where a shop has none.
    pub member: Option<Uuid>,
    /// What they are called.
    pub name: String,
    /// What they may: everything where the shop has no owner.
    pub role: Role,
    /// Which way their mark is turned.
    pub mark: i32,
    /// The session; none where the shop has no owner.
    pub session: Option<Uuid>,
    /// What the shop's owner set about trust.
    pub trust: TrustSettings,
}

/// How long it is believed who somebody is: data itself is refused by the database at once.
const FRESH: Duration = Duration::from_secs(2);

type Looked = (Instant, Arc<Who>);

/// Who was found lately, by token or by who was picked.
#[derive(Debug, Clone, Default)]
pub struct WhoCache(Arc<RwLock<HashMap<String, Looked>>>);

impl WhoCache {
    fn fresh(&self, key: &str) -> Option<Arc<Who>> {
        let held = self.0.read().ok()?;
        held.get(key).filter(|(at, _)| at.elapsed() < FRESH).map(|(_, w)| w.clone())
    }

    fn put(&self, key: String, who: &Arc<Who>) {
        if let Ok(mut held) = self.0.write() {
            held.retain(|_, (at, _)| at.elapsed() < FRESH);
            held.insert(key, (Instant::now(), who.clone()));
        }
    }

    /// Forgets everybody: after a change of who is who.
    pub fn forget(&self) {
        if let Ok(mut held) = self.0.write() {
            held.clear();
        }
    }
}

/// Who a session stands for; none where nobody is signed in and the shop has an owner.
///
/// # Errors
/// Database errors.
pub async fn find(state: &AppState, session: &Session) -> Result<Option<Arc<Who>>, ApiError> {
    let kept = |name: &str| session.get::<String>(name).ok().flatten();
    if session.get::<bool>(AWAY).ok().flatten().is_some() {
        return Err(StoreError::Away.into());
    }
    if let Some(token) = kept(TOKEN) {
        if let Some(who) = state.whos.fresh(&token) {
            return Ok(Some(who));
        }
        let Some(w) = sign_in::whose(&state.store, &token).await? else { return Ok(None) };
        let who = Arc::new(Who {
            seat: Seat::Session(token.clone()),
            shop: Shop { id: w.shop, name: w.shop_name },
            member: Some(w.member),
            name: w.name,
            role: w.role,
            mark: w.mark,
            session: Some(w.session),
            trust: w.trust,
        });
        state.whos.put(token, &who);
        return Ok(Some(who));
    }
    // On a network nobody is let in without a session, owner or not.
    if state.exposure.is_public() {
        return Ok(None);
    }
    let picked = kept(PICKED).and_then(|p| Uuid::parse_str(&p).ok());
    let key = format!("open {picked:?}");
    if let Some(who) = state.whos.fresh(&key) {
        return Ok(Some(who));
    }
    let Some(first) = door(&state.store, None).await?.filter(|d| !d.locked) else { return Ok(None) };
    let mut tx = state.store.tx(first.shop.id).await?;
    let members = people::members(&mut tx).await?;
    let here = || members.iter().filter(|m| m.left_at.is_none());
    let who = here().find(|m| Some(m.id) == picked).or_else(|| here().find(|m| m.role == Role::Specialist));
    let who = Arc::new(Who {
        seat: Seat::Open { shop: first.shop.id, member: who.map(|m| m.id) },
        shop: first.shop,
        member: who.map(|m| m.id),
        name: who.map_or_else(|| SOMEBODY.to_owned(), |m| m.name.clone()),
        role: Role::Owner,
        mark: who.map_or(0, |m| m.mark),
        session: None,
        trust: TrustSettings::default(),
    });
    state.whos.put(key, &who);
    Ok(Some(who))
}

/// Middleware: finds who asks, and refuses what they may not before anything is read.
///
/// # Errors
/// [`ApiError::Nobody`], [`ApiError::NotYours`], [`ApiError::TooMany`]; those of the service below it.
pub async fn admit(
    req: ServiceRequest,
    next: Next<impl MessageBody + 'static>,
) -> Result<ServiceResponse<BoxBody>, actix_web::Error> {
    let Some(state) = req.app_data::<web::Data<AppState>>().cloned() else {
        return Err(ApiError::NoRoute.into());
    };
    let Some(operation) = state.addresses.operation_at(req.method(), req.path()) else {
        return Ok(next.call(req).await?.map_into_boxed_body());
    };
    match admitted(&state, &req, &operation).await {
        Ok(who) => {
            if let Some(w) = who {
                req.extensions_mut().insert(w);
            }
            Ok(next.call(req).await?.map_into_boxed_body())
        }
        // As an answer, so that what it says is said in the units asked for.
        Err(e) => Ok(req.error_response(e).map_into_boxed_body()),
    }
}

async fn admitted(
    state: &AppState,
    req: &ServiceRequest,
    operation: &str,
) -> Result<Option<Arc<Who>>, ApiError> {
    let wants = wanted(operation).unwrap_or(Wants::One(Act::People));
    let session = req.get_session();
    let who = match (find(state, &session).await, wants) {
        (Ok(who), _) => who,
        // Whether the server is well needs no answer of the database to be asked.
        (Err(_), Wants::Nobody) if operation == "health" => None,
        (Err(e), _) => return Err(e),
    };
    limits::count(state, req, operation, who.as_ref().and_then(|w| w.member))?;
    match (&who, wants) {
        (_, Wants::Nobody) | (Some(_), Wants::Anybody) => {}
        (None, _) => return Err(ApiError::Nobody),
        (Some(w), Wants::One(act)) if w.role.may(act) => {}
        (Some(_), Wants::One(act)) => return Err(ApiError::NotYours(act)),
    }
    let reads = matches!(*req.method(), Method::GET | Method::HEAD);
    if !reads && who.as_ref().is_some_and(|w| w.session.is_some()) {
        let told = req.headers().get(CSRF).and_then(|v| v.to_str().ok());
        let kept = session.get::<String>(CSRF_KEPT).ok().flatten();
        if kept.is_none() || kept.as_deref() != told {
            return Err(ApiError::OtherSeat);
        }
    }
    Ok(who)
}

/// What a route works with: everything of the server, and who asks. A route that takes it needs somebody.
#[derive(Clone)]
pub struct Here {
    app: web::Data<AppState>,
    /// Who asks.
    pub who: Arc<Who>,
    /// Their shop.
    pub shop: Shop,
}

impl Deref for Here {
    type Target = AppState;

    fn deref(&self) -> &AppState {
        &self.app
    }
}

impl Here {
    /// A transaction of who asks.
    ///
    /// # Errors
    /// Database errors.
    pub async fn tx(&self) -> Result<Tx, ApiError> {
        Ok(self.store.sit(&self.who.seat).await?)
    }

    /// Who did it, as it is kept.
    #[must_use]
    pub fn name(&self) -> &str {
        &self.who.name
    }

    /// Whether they may, for what an address alone does not tell.
    ///
    /// # Errors
    /// [`ApiError::NotYours`].
    pub fn may(&self, act: Act) -> Result<(), ApiError> {
        if self.who.role.may(act) { Ok(()) } else { Err(ApiError::NotYours(act)) }
    }
}

impl FromRequest for Here {
    type Error = ApiError;
    type Future = Ready<Result<Self, ApiError>>;

    fn from_request(req: &HttpRequest, _: &mut Payload) -> Self::Future {
        let app = req.app_data::<web::Data<AppState>>().cloned();
        let who = req.extensions().get::<Arc<Who>>().cloned();
        ready(match (app, who) {
            (Some(app), Some(who)) => Ok(Self { app, shop: who.shop.clone(), who }),
            _ => Err(ApiError::Nobody),
        })
    }
}
