//! The door: who is there, letting in, leaving, and what is one's own.

use super::Doc;
use crate::AppState;
use crate::cookies::device_of;
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::secrets::{Handed, keep, new_token, proof, step_of_code};
use crate::who::{CSRF_KEPT, Here, PICKED, TOKEN, find};
use actix_session::Session;
use actix_web::http::StatusCode;
use actix_web::{HttpRequest, HttpResponse, delete, get, post, put, web};
use bold_stance_people::{Act, Role, pin_problem};
use bold_stance_store::people;
use bold_stance_store::sign_in::{self, Tried};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use chrono::Utc;
use serde::{Deserialize, Serialize};
use serde_json::Value;
use utoipa::ToSchema;
use uuid::Uuid;

/// Somebody at the bench.
#[derive(Debug, Serialize, ToSchema)]
pub struct Sits {
    /// The member; absent where a shop without an owner has none.
    pub member: Option<Uuid>,
    /// What they are called.
    pub name: String,
    /// What they are: the owner's rights are everybody's where the shop has none.
    pub role: Role,
    /// Which way their mark is turned.
    pub mark: i32,
    /// What they may.
    pub acts: Vec<Act>,
    /// Signed in; absent where the shop has no owner.
    pub session: Option<Uuid>,
    /// Units they read in, as they kept them.
    #[schema(value_type = Option<Object>)]
    pub units: Option<Value>,
}

/// A name on the bench.
#[derive(Debug, Serialize, ToSchema)]
pub struct Name {
    /// The member.
    pub member: Uuid,
    /// What they are called.
    pub name: String,
    /// What they are.
    pub role: Role,
    /// Which way their mark is turned.
    pub mark: i32,
    /// Whether they can sign in here.
    pub has_pin: bool,
    /// Seconds until they may try again.
    pub wait_s: f64,
}

/// What a page may know of who is there.
#[derive(Debug, Serialize, ToSchema)]
pub struct SessionInfo {
    /// The shop; absent where this browser belongs to none.
    pub shop: Option<String>,
    /// Nobody has to sign in: the shop has no owner yet.
    pub open: bool,
    /// Who is there.
    pub who: Option<Sits>,
    /// Names to choose from: of the device's shop, or of one without an owner.
    pub names: Vec<Name>,
    /// Name of the device, where it is one of the shop's.
    pub device: Option<String>,
    /// What every write has to carry back.
    pub csrf: Option<String>,
    /// Minutes after which the bench locks.
    pub lock_minutes: u16,
}

fn names_of(members: Vec<sign_in::AtBench>) -> Vec<Name> {
    members
        .into_iter()
        .map(|m| Name {
            member: m.member,
            name: m.name,
            role: m.role,
            mark: m.mark,
            has_pin: m.has_pin,
            wait_s: m.wait_s,
        })
        .collect()
}

/// Who is there, by a session and the device's token.
pub(super) async fn info_of(
    state: &AppState,
    session: &Session,
    token: Option<&str>,
) -> Result<SessionInfo, ApiError> {
    let who = find(state, session).await?;
    let bench = match token {
        Some(t) => sign_in::bench(&state.store, t).await?,
        None => None,
    };
    let mut out = SessionInfo {
        shop: who.as_ref().map(|w| w.shop.name.clone()),
        open: false,
        who: None,
        names: Vec::new(),
        device: None,
        csrf: session.get::<String>(CSRF_KEPT).ok().flatten(),
        lock_minutes: who.as_ref().map_or(5, |w| w.trust.lock_minutes),
    };
    if let Some(w) = &who {
        let mut tx = state.store.sit(&w.seat).await?;
        let units = match w.member {
            Some(m) => people::own_units(&mut tx, m).await?,
            None => None,
        };
        if w.session.is_none() {
            out.open = true;
            let all = people::members(&mut tx).await?;
            out.names = all
                .into_iter()
                .filter(|m| m.left_at.is_none())
                .map(|m| Name {
                    member: m.id,
                    name: m.name,
                    role: m.role,
                    mark: m.mark,
                    has_pin: m.has_pin,
                    wait_s: 0.0,
                })
                .collect();
        }
        out.who = Some(Sits {
            member: w.member,
            name: w.name.clone(),
            role: w.role,
            mark: w.mark,
            acts: w.role.acts(),
            session: w.session,
            units,
        });
    }
    if let Some(b) = bench {
        // A device of another shop than who sits there says nothing of it.
        if who.as_ref().is_none_or(|w| w.shop.id == b.shop) {
            out.shop = Some(b.shop_name);
            out.device = Some(b.device_name);
            if who.is_none() {
                out.names = names_of(b.members);
            }
        }
    }
    Ok(out)
}

/// Who is there.
#[utoipa::path(get, path = "/api/v1/session", operation_id = "session", responses((status = 200, body = SessionInfo)))]
#[get("/api/v1/session")]
pub async fn who_is_there(
    state: web::Data<AppState>,
    session: Session,
    req: HttpRequest,
) -> Result<HttpResponse, ApiError> {
    let info = info_of(&state, &session, device_of(&req).as_deref()).await?;
    Ok(HttpResponse::Ok().insert_header(("cache-control", "no-store")).json(info))
}

/// Puts a new seat under a new cookie: what the old one was known by is gone.
pub(super) fn seated(session: &Session, token: &str) -> Result<(), ApiError> {
    session.clear();
    session.renew();
    let put = |name: &str, v: &str| session.insert(name, v).map_err(|_| ApiError::Busy);
    put(TOKEN, token)?;
    put(CSRF_KEPT, &new_token())
}

fn refused(field: &str, tried: Tried) -> ApiError {
    match tried {
        Tried::Wait(s) => ApiError::TooMany(s.ceil() as u64),
        Tried::Wrong(Some(left)) if field == "pin" => {
            let wrong = said("fault-pin-wrong").count("left", left as usize);
            Problem::new(field, wrong, said("fault-pin-wrong-right")).into()
        }
        Tried::Unknown if field == "pin" => {
            Problem::new("member", said("fault-not-at-bench"), said("fault-not-at-bench-right")).into()
        }
        _ => Problem::new(field, said("fault-not-let-in"), said("fault-not-let-in-right")).into(),
    }
}

/// A name and its PIN.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ByPin {
    /// Who.
    pub member: Uuid,
    /// Four to eight digits.
    pub pin: String,
}

/// Signs in at the bench, on a device of the shop.
#[utoipa::path(post, path = "/api/v1/session/pin", operation_id = "signInPin", request_body = ByPin,
    responses((status = 200, body = SessionInfo), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/session/pin")]
pub async fn by_pin(
    state: web::Data<AppState>,
    session: Session,
    req: HttpRequest,
    Doc(b): Doc<ByPin>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let Some(at) = device_of(&req) else {
        return Err(
            Problem::new("device", said("fault-not-a-device"), said("fault-not-a-device-right")).into()
        );
    };
    let handed = once.handed(&state);
    if let Some(info) = seated_before(&state, &session, &handed, Some(&at)).await? {
        return Ok(HttpResponse::Ok().json(info));
    }
    let salt = sign_in::pin_salt(&state.store, &at, b.member).await?;
    let salt = salt.ok_or_else(|| refused("pin", Tried::Unknown))?;
    let proof = proof(b.pin, salt).await?;
    let token = handed.session();
    match sign_in::by_pin(&state.store, &at, b.member, &proof, &token).await? {
        Tried::In => {}
        other => return Err(refused("pin", other)),
    }
    leave(&state, &session).await?;
    seated(&session, &token)?;
    Ok(HttpResponse::Ok().json(info_of(&state, &session, Some(&at)).await?))
}

/// Who sits here by an answer that was lost on its way: the same request let them in before.
pub(super) async fn seated_before(
    state: &AppState,
    session: &Session,
    handed: &Handed,
    at: Option<&str>,
) -> Result<Option<SessionInfo>, ApiError> {
    let token = handed.session();
    if !handed.may_be_again() || sign_in::whose(&state.store, &token).await?.is_none() {
        return Ok(None);
    }
    seated(session, &token)?;
    Ok(Some(info_of(state, session, at).await?))
}

/// Ends the session that was there, if one was.
pub(super) async fn leave(state: &AppState, session: &Session) -> Result<(), ApiError> {
    if let Some(old) = session.get::<String>(TOKEN).ok().flatten() {
        sign_in::out(&state.store, &old).await?;
        state.whos.forget();
    }
    Ok(())
}

/// A name, its passphrase, and what belongs to them.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ByPassphrase {
    /// The name to sign in with.
    pub login: String,
    /// The passphrase.
    pub passphrase: String,
    /// Six digits, where a second factor is set.
    #[serde(default)]
    pub code: Option<String>,
    /// Which shop, for a member of several.
    #[serde(default)]
    pub shop: Option<Uuid>,
}

/// A shop to choose.
#[derive(Debug, Serialize, ToSchema)]
pub struct ShopChoice {
    /// The shop.
    pub id: Uuid,
    /// Its name.
    pub name: String,
}

/// What a right passphrase led to.
#[derive(Debug, Serialize, ToSchema)]
pub struct PassphraseAnswer {
    /// Let in.
    pub session: Option<SessionInfo>,
    /// The code of the second factor is wanted.
    pub code_wanted: bool,
    /// One of these is to be chosen.
    pub shops: Vec<ShopChoice>,
}

/// Signs in from anywhere.
#[utoipa::path(post, path = "/api/v1/session/passphrase", operation_id = "signInPassphrase", request_body = ByPassphrase,
    responses((status = 200, body = PassphraseAnswer), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/session/passphrase")]
pub async fn by_passphrase(
    state: web::Data<AppState>,
    session: Session,
    req: HttpRequest,
    Doc(b): Doc<ByPassphrase>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let inside = |info| {
        let a = PassphraseAnswer { session: Some(info), code_wanted: false, shops: Vec::new() };
        HttpResponse::Ok().json(a)
    };
    let (at, handed) = (device_of(&req), once.handed(&state));
    // A code of a second factor counts once: the same request is not asked for it again.
    if let Some(info) = seated_before(&state, &session, &handed, at.as_deref()).await? {
        return Ok(inside(info));
    }
    let login = b.login.trim();
    let salt = sign_in::passphrase_salt(&state.store, login).await?;
    let proof = proof(b.passphrase, salt).await?;
    let right = match sign_in::passphrase(&state.store, login, &proof).await? {
        Ok(right) => right,
        Err(tried) => return Err(refused("passphrase", tried)),
    };
    let asks = |code_wanted, shops| PassphraseAnswer { session: None, code_wanted, shops };
    let mut step = None;
    if let Some(secret) = &right.totp {
        let Some(code) = b.code.as_deref().map(str::trim).filter(|c| !c.is_empty()) else {
            return Ok(HttpResponse::Ok().json(asks(true, Vec::new())));
        };
        let now = u64::try_from(Utc::now().timestamp()).unwrap_or(0);
        step = step_of_code(secret, code, now).filter(|s| *s > right.used_step);
        if step.is_none() {
            return Err(Problem::new("code", said("fault-code-wrong"), said("fault-code-wrong-right")).into());
        }
    }
    let shop = match (b.shop, right.shops.as_slice()) {
        (_, []) => return Err(refused("passphrase", Tried::Unknown)),
        (None, [(only, _)]) => *only,
        (Some(s), all) if all.iter().any(|(id, _)| *id == s) => s,
        (_, all) => {
            let shops = all.iter().map(|(id, name)| ShopChoice { id: *id, name: name.clone() }).collect();
            return Ok(HttpResponse::Ok().json(asks(false, shops)));
        }
    };
    let token = handed.session();
    if !sign_in::by_passphrase(&state.store, (login, &proof), shop, step, at.as_deref(), &token).await? {
        return Err(refused("passphrase", Tried::Unknown));
    }
    leave(&state, &session).await?;
    seated(&session, &token)?;
    Ok(inside(info_of(&state, &session, at.as_deref()).await?))
}

/// Leaves the bench.
#[utoipa::path(delete, path = "/api/v1/session", operation_id = "signOut", responses((status = 200, body = SessionInfo)))]
#[delete("/api/v1/session")]
pub async fn leave_bench(
    state: web::Data<AppState>,
    session: Session,
    req: HttpRequest,
) -> Result<HttpResponse, ApiError> {
    leave(&state, &session).await?;
    session.purge();
    session.clear();
    let info = info_of(&state, &session, device_of(&req).as_deref()).await?;
    Ok(HttpResponse::Ok().json(info))
}

/// Who is at the bench of a shop without an owner.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Picked {
    /// Who.
    pub member: Uuid,
}

/// Says who is at the bench, where the shop has no owner.
#[utoipa::path(post, path = "/api/v1/session/pick", operation_id = "pickMember", request_body = Picked,
    responses((status = 200, body = SessionInfo), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/session/pick")]
pub async fn pick_member(
    state: web::Data<AppState>,
    session: Session,
    req: HttpRequest,
    Doc(p): Doc<Picked>,
) -> Result<HttpResponse, ApiError> {
    let who = find(&state, &session).await?;
    let Some(open) = who.filter(|w| w.session.is_none()) else { return Err(ApiError::Nobody) };
    let mut tx = state.store.sit(&open.seat).await?;
    let known = people::members(&mut tx).await?.iter().any(|m| m.id == p.member && m.left_at.is_none());
    if !known {
        return Err(refused("pin", Tried::Unknown));
    }
    session.insert(PICKED, p.member.to_string()).map_err(|_| ApiError::Busy)?;
    Ok(HttpResponse::Ok().json(info_of(&state, &session, device_of(&req).as_deref()).await?))
}

/// One's own PIN.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnPin {
    /// The one there is.
    pub old: String,
    /// The one from now on.
    pub new: String,
}

/// Changes one's own PIN; one's other sessions end.
#[utoipa::path(put, path = "/api/v1/session/pin", operation_id = "setOwnPin", request_body = OwnPin,
    responses((status = 200, body = String, content_type = "application/json"), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/session/pin")]
pub async fn own_pin(state: Here, Doc(p): Doc<OwnPin>, once: Once) -> Result<HttpResponse, ApiError> {
    if let Some(p) = pin_problem("new", &p.new) {
        return Err(p.into());
    }
    let (Some(member), Some(_)) = (state.who.member, state.who.session) else { return Err(ApiError::Nobody) };
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let wrong = || ApiError::from(Problem::new("old", said("fault-not-let-in"), said("fault-pin-right")));
    let salt = sign_in::own_pin_salt(&mut tx).await?.ok_or_else(wrong)?;
    let old = proof(p.old, salt).await?;
    let new = keep(p.new).await?;
    if !sign_in::set_pin(&mut tx, member, Some(&old), new.as_kept()).await? {
        return Err(wrong());
    }
    once.answer(tx, StatusCode::OK, &"ok").await
}

/// Units somebody reads in.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OwnUnits {
    /// As the screen keeps them; at most 2000 characters.
    #[schema(value_type = Object)]
    pub units: serde_json::Map<String, Value>,
}

/// Keeps the units somebody reads in with their name.
#[utoipa::path(put, path = "/api/v1/session/units", operation_id = "ownUnits", request_body = OwnUnits,
    responses((status = 200, body = String, content_type = "application/json"), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/session/units")]
pub async fn own_units(state: Here, Doc(u): Doc<OwnUnits>, once: Once) -> Result<HttpResponse, ApiError> {
    let units = Value::Object(u.units);
    let n = units.to_string().len();
    if n > 2000 {
        let right = said("fault-characters-right").count("n", 2000);
        return Err(Problem::new("units", said("fault-characters").count("n", n), right).into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    people::set_own_units(&mut tx, &units).await?;
    once.answer(tx, StatusCode::OK, &"ok").await
}
