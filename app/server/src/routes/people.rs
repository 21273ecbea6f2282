//! People of a shop, as its owner sees them: members, their PINs and passphrases, who is signed in where.

use super::Doc;
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::secrets::{base32, keep, new_second_factor};
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, delete, get, post, put, web};
use bold_stance_people::{Act, Role, TrustSettings, name_problem, passphrase_problem, pin_problem};
use bold_stance_store::people::{self, Device, Member, Sitting};
use bold_stance_store::{event, shop, sign_in};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use chrono::Utc;
use qrcode::{QrCode, render::svg};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// A member as the owner sees them.
#[derive(Debug, Serialize, ToSchema)]
pub struct MemberView {
    /// Who.
    pub member: Member,
    /// What they may.
    pub acts: Vec<Act>,
    /// The name they sign in with from elsewhere.
    pub login: Option<String>,
    /// Whether a second factor is asked there.
    pub second_factor: bool,
}

/// Everybody and everything that can reach the shop.
#[derive(Debug, Serialize, ToSchema)]
pub struct People {
    /// Members, also those who left.
    pub members: Vec<MemberView>,
    /// Devices.
    pub devices: Vec<Device>,
    /// Who is signed in.
    pub sitting: Vec<Sitting>,
    /// What the owner set about trust.
    pub trust: TrustSettings,
    /// Bays.
    pub bays: i32,
}

async fn people_of(state: &Here, tx: &mut bold_stance_store::Tx) -> Result<People, ApiError> {
    let mut members = Vec::new();
    for member in people::members(tx).await? {
        let login = sign_in::login_of(tx, member.id).await?;
        let (login, second_factor) = login.map_or((None, false), |(l, s)| (Some(l), s));
        members.push(MemberView { acts: member.role.acts(), member, login, second_factor });
    }
    let (bays, trust) = shop::trust(tx, state.shop.id).await?;
    Ok(People {
        members,
        devices: people::devices(tx).await?,
        sitting: people::sitting(tx).await?,
        trust,
        bays,
    })
}

/// People, devices and sessions of the shop.
#[utoipa::path(get, path = "/api/v1/people", operation_id = "people", responses((status = 200, body = People)))]
#[get("/api/v1/people")]
pub async fn list(state: Here) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    Ok(HttpResponse::Ok().json(people_of(&state, &mut tx).await?))
}

/// A new member.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewMember {
    /// As it stands on the bench.
    pub name: String,
    /// What they are.
    pub role: Role,
    /// Which way their mark is turned.
    #[serde(default)]
    #[schema(minimum = 0, maximum = 15)]
    pub mark: i32,
}

fn member_problems(name: &str, mark: i32) -> Vec<Problem> {
    let mut out: Vec<Problem> = name_problem("name", name).into_iter().collect();
    out.extend(in_range("mark", f64::from(mark), 0.0, 15.0, "sixteenths").err());
    out
}

/// Adds a member.
#[utoipa::path(post, path = "/api/v1/people", operation_id = "addMember", request_body = NewMember,
    responses((status = 201, body = People), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/people")]
pub async fn add(state: Here, Doc(n): Doc<NewMember>, once: Once) -> Result<HttpResponse, ApiError> {
    let problems = member_problems(&n.name, n.mark);
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let (id, name) = (Uuid::new_v4(), n.name.trim());
    people::add(&mut tx, state.shop.id, id, name, n.role, n.mark).await?;
    let detail = serde_json::json!({"member": id, "role": n.role});
    event::record(&mut tx, state.shop.id, None, state.name(), "member added", detail).await?;
    let all = people_of(&state, &mut tx).await?;
    state.whos.forget();
    once.answer(tx, StatusCode::CREATED, &all).await
}

/// A member over a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveMember {
    /// Version the edit is based on.
    pub version: i32,
    /// As it stands on the bench.
    pub name: String,
    /// What they are.
    pub role: Role,
    /// Which way their mark is turned.
    #[schema(minimum = 0, maximum = 15)]
    pub mark: i32,
    /// They work here no more: what they did stays theirs, and they are signed out.
    #[serde(default)]
    pub left: bool,
}

/// Changes a member; one who left is signed out everywhere.
#[utoipa::path(put, path = "/api/v1/people/{id}", operation_id = "saveMember", params(("id" = Uuid, Path)), request_body = SaveMember,
    responses((status = 200, body = People), (status = 404, body = ProblemDocument), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/people/{id}")]
pub async fn save(
    state: Here,
    id: web::Path<Uuid>,
    Doc(s): Doc<SaveMember>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let problems = member_problems(&s.name, s.mark);
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let m = Member {
        id: *id,
        name: s.name.trim().to_owned(),
        role: s.role,
        mark: s.mark,
        has_pin: false,
        version: s.version,
        left_at: s.left.then(Utc::now),
    };
    people::save(&mut tx, &m, s.version).await?;
    if s.left {
        people::end(&mut tx, None, Some(m.id)).await?;
    }
    let detail = serde_json::json!({"member": m.id, "role": s.role, "left": s.left});
    event::record(&mut tx, state.shop.id, None, state.name(), "member changed", detail).await?;
    let all = people_of(&state, &mut tx).await?;
    state.whos.forget();
    once.answer(tx, StatusCode::OK, &all).await
}

/// A PIN.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewPin {
    /// Four to eight digits.
    pub pin: String,
}

/// Gives a member a PIN; they are signed out everywhere.
#[utoipa::path(put, path = "/api/v1/people/{id}/pin", operation_id = "setPin", params(("id" = Uuid, Path)), request_body = NewPin,
    responses((status = 200, body = People), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/people/{id}/pin")]
pub async fn set_pin(
    state: Here,
    id: web::Path<Uuid>,
    Doc(p): Doc<NewPin>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    if let Some(p) = pin_problem("pin", &p.pin) {
        return Err(p.into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let new = keep(p.pin).await?;
    if !sign_in::set_pin(&mut tx, *id, None, new.as_kept()).await? {
        return Err(bold_stance_store::StoreError::Missing { what: "member", id: *id }.into());
    }
    let all = people_of(&state, &mut tx).await?;
    state.whos.forget();
    once.answer(tx, StatusCode::OK, &all).await
}

/// How somebody signs in from elsewhere.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewPassphrase {
    /// The name to sign in with: one on this server.
    pub login: String,
    /// Twelve characters or more.
    pub passphrase: String,
    /// Ask a code of six digits too.
    #[serde(default)]
    pub second_factor: bool,
}

/// What an app for codes is told, once.
#[derive(Debug, Serialize, ToSchema)]
pub struct SecondFactor {
    /// The secret, base 32.
    pub secret: String,
    /// The same to hold a camera to, SVG.
    pub picture: String,
}

/// People, and a second factor that was made.
#[derive(Debug, Serialize, ToSchema)]
pub struct PassphraseKept {
    /// People.
    pub people: People,
    /// The second factor, where one was asked for: shown once.
    pub second_factor: Option<SecondFactor>,
}

/// Lets a member sign in from elsewhere.
#[utoipa::path(put, path = "/api/v1/people/{id}/passphrase", operation_id = "setPassphrase", params(("id" = Uuid, Path)), request_body = NewPassphrase,
    responses((status = 200, body = PassphraseKept), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/people/{id}/passphrase")]
pub async fn set_passphrase(
    state: Here,
    id: web::Path<Uuid>,
    Doc(n): Doc<NewPassphrase>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let login = n.login.trim();
    let mut problems: Vec<Problem> = name_problem("login", login).into_iter().collect();
    problems.extend(passphrase_problem("passphrase", &n.passphrase, login));
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let new = keep(n.passphrase).await?;
    let secret = n.second_factor.then(new_second_factor);
    match sign_in::set_passphrase(&mut tx, *id, login, new.as_kept(), secret.as_ref().map(|s| s.as_slice()))
        .await?
    {
        None => return Err(bold_stance_store::StoreError::Missing { what: "member", id: *id }.into()),
        Some(false) => {
            return Err(
                Problem::new("login", said("fault-login-taken"), said("fault-login-taken-right")).into()
            );
        }
        Some(true) => {}
    }
    let second_factor = secret.and_then(|s| {
        let secret = base32(&s);
        let label: String = login.chars().filter(char::is_ascii_alphanumeric).collect();
        let address = format!("otpauth://totp/{label}?secret={secret}&issuer=BoldStance");
        let picture = QrCode::new(address).ok()?.render::<svg::Color<'_>>().min_dimensions(200, 200).build();
        Some(SecondFactor { secret, picture })
    });
    let people = people_of(&state, &mut tx).await?;
    // What is shown once is kept nowhere: a retry is told that it is done.
    once.done(tx, StatusCode::OK).await?;
    Ok(HttpResponse::Ok().json(PassphraseKept { people, second_factor }))
}

/// Signs a member out everywhere.
#[utoipa::path(post, path = "/api/v1/people/{id}/end-sessions", operation_id = "endSessions", params(("id" = Uuid, Path)),
    responses((status = 200, body = People), (status = 404, body = ProblemDocument)))]
#[post("/api/v1/people/{id}/end-sessions")]
pub async fn end_sessions(state: Here, id: web::Path<Uuid>, once: Once) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    if !people::members(&mut tx).await?.iter().any(|m| m.id == *id) {
        return Err(bold_stance_store::StoreError::Missing { what: "member", id: *id }.into());
    }
    let ended = people::end(&mut tx, None, Some(*id)).await?;
    let detail = serde_json::json!({"member": *id, "sessions": ended});
    event::record(&mut tx, state.shop.id, None, state.name(), "signed out everywhere", detail).await?;
    let all = people_of(&state, &mut tx).await?;
    state.whos.forget();
    once.answer(tx, StatusCode::OK, &all).await
}

/// Who is signed in where; somebody who does not manage people sees their own.
#[utoipa::path(get, path = "/api/v1/sessions", operation_id = "sessions", responses((status = 200, body = Vec<Sitting>)))]
#[get("/api/v1/sessions")]
pub async fn sessions(state: Here) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    Ok(HttpResponse::Ok().json(people::sitting(&mut tx).await?))
}

/// Ends one session.
#[utoipa::path(delete, path = "/api/v1/sessions/{id}", operation_id = "endSession", params(("id" = Uuid, Path)),
    responses((status = 200, body = String, content_type = "application/json"), (status = 404, body = ProblemDocument)))]
#[delete("/api/v1/sessions/{id}")]
pub async fn end_session(state: Here, id: web::Path<Uuid>, once: Once) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    if people::end(&mut tx, Some(*id), None).await? == 0 {
        return Err(bold_stance_store::StoreError::Missing { what: "session", id: *id }.into());
    }
    let detail = serde_json::json!({"session": *id});
    event::record(&mut tx, state.shop.id, None, state.name(), "signed out", detail).await?;
    state.whos.forget();
    once.answer(tx, StatusCode::OK, &"ok").await
}

/// Keeps what the owner sets about trust: how soon the bench locks, how long what is personal is kept.
#[utoipa::path(put, path = "/api/v1/shop/trust", operation_id = "saveTrust", request_body = TrustSettings,
    responses((status = 200, body = TrustSettings), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/shop/trust")]
pub async fn save_trust(
    state: Here,
    Doc(t): Doc<TrustSettings>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let problems = t.problems("");
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    shop::save_trust(&mut tx, state.shop.id, &t).await?;
    let detail = serde_json::json!({"lock_minutes": t.lock_minutes, "keep_months": t.keep_months});
    event::record(&mut tx, state.shop.id, None, state.name(), "trust kept", detail).await?;
    state.whos.forget();
    once.answer(tx, StatusCode::OK, &t).await
}
