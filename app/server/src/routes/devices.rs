//! Devices of a shop: how one becomes its own, how it stops to be, and the code that opens a sheet on another.

use super::Doc;
use crate::AppState;
use crate::cookies::device;
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::secrets::as_letters;
use crate::who::{Here, TOKEN};
use actix_session::Session;
use actix_web::http::StatusCode;
use actix_web::{HttpRequest, HttpResponse, delete, get, post, web};
use bold_stance_people::{Act, name_problem};
use bold_stance_store::sign_in::{self, NewDevice};
use bold_stance_store::{event, people};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use qrcode::{QrCode, render::svg};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// A code for a new device.
#[derive(Debug, Serialize, ToSchema)]
pub struct DeviceCode {
    /// Eight letters.
    pub code: String,
    /// Seconds it is good for.
    pub good_s: u32,
}

/// A code that makes one new device the shop's, within ten minutes.
#[utoipa::path(post, path = "/api/v1/devices/code", operation_id = "makeCode", responses((status = 201, body = DeviceCode)))]
#[post("/api/v1/devices/code")]
pub async fn make_code(state: Here, once: Once) -> Result<HttpResponse, ApiError> {
    let answer = DeviceCode { code: once.handed(&state).code(), good_s: 600 };
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(..) => return Ok(HttpResponse::Created().json(answer)),
    };
    if !sign_in::make_code(&mut tx, &as_letters(&answer.code)).await? {
        return Err(ApiError::NotYours(Act::Enrol));
    }
    event::record(&mut tx, state.shop.id, None, state.name(), "device code made", serde_json::json!({}))
        .await?;
    // Its answer is not kept: the code is made anew of the key.
    once.done(tx, StatusCode::CREATED).await?;
    Ok(HttpResponse::Created().json(answer))
}

/// A code, and what the new device is called.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UseCode {
    /// As shown; capitals do not matter.
    pub code: String,
    /// What it is called: `Bay 2 tablet`.
    pub name: String,
}

/// A device that is the shop's now.
#[derive(Debug, Serialize, ToSchema)]
pub struct Enrolled {
    /// The shop.
    pub shop: String,
}

/// Makes this device the shop's by a code.
#[utoipa::path(post, path = "/api/v1/devices/enrol", operation_id = "useCode", request_body = UseCode,
    responses((status = 201, body = Enrolled), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/devices/enrol")]
pub async fn by_code(
    state: web::Data<AppState>,
    Doc(u): Doc<UseCode>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let name = u.name.trim();
    if let Some(p) = name_problem("name", name) {
        return Err(p.into());
    }
    let handed = once.handed(&state);
    let token = handed.device();
    let enrolled = |shop| {
        HttpResponse::Created().cookie(device(&token, state.exposure.is_secure())).json(Enrolled { shop })
    };
    // A code counts once: the same request is let in again by what it was handed.
    if handed.may_be_again()
        && let Some(b) = sign_in::bench(&state.store, &token).await?
    {
        return Ok(enrolled(b.shop_name));
    }
    let new = NewDevice { id: Uuid::new_v4(), name, token: &token };
    let Some(shop) = sign_in::by_code(&state.store, &as_letters(&u.code), new).await? else {
        return Err(Problem::new("code", said("fault-device-code"), said("fault-device-code-right")).into());
    };
    Ok(enrolled(shop))
}

/// What this device is called.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EnrolHere {
    /// `Bay 2 tablet`.
    pub name: String,
}

/// Makes the device somebody sits at the shop's.
#[utoipa::path(post, path = "/api/v1/devices/here", operation_id = "enrolHere", request_body = EnrolHere,
    responses((status = 201, body = Enrolled), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/devices/here")]
pub async fn here(
    state: Here,
    session: Session,
    Doc(e): Doc<EnrolHere>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let name = e.name.trim();
    if let Some(p) = name_problem("name", name) {
        return Err(p.into());
    }
    let Some(seat) = session.get::<String>(TOKEN).ok().flatten() else { return Err(ApiError::Nobody) };
    let token = once.handed(&state).device();
    let enrolled = || {
        let cookie = device(&token, state.exposure.is_secure());
        HttpResponse::Created().cookie(cookie).json(Enrolled { shop: state.shop.name.clone() })
    };
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(..) => return Ok(enrolled()),
    };
    let new = NewDevice { id: Uuid::new_v4(), name, token: &token };
    if !sign_in::enrol_here(&mut tx, new, &seat).await? {
        return Err(ApiError::NotYours(Act::Enrol));
    }
    event::record(
        &mut tx,
        state.shop.id,
        None,
        state.name(),
        "device added",
        serde_json::json!({"name": name}),
    )
    .await?;
    once.done(tx, StatusCode::CREATED).await?;
    state.whos.forget();
    Ok(enrolled())
}

/// Takes a device out of the shop; whoever sits at it is signed out.
#[utoipa::path(delete, path = "/api/v1/devices/{id}", operation_id = "removeDevice", params(("id" = Uuid, Path)),
    responses((status = 200, body = String, content_type = "application/json"), (status = 404, body = ProblemDocument)))]
#[delete("/api/v1/devices/{id}")]
pub async fn remove(state: Here, id: web::Path<Uuid>, once: Once) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    people::remove_device(&mut tx, *id).await?;
    event::record(
        &mut tx,
        state.shop.id,
        None,
        state.name(),
        "device removed",
        serde_json::json!({"device": *id}),
    )
    .await?;
    state.whos.forget();
    once.answer(tx, StatusCode::OK, &"ok").await
}

/// A page of this server.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct PageAsked {
    /// Its path: `/job/…/set`.
    pub path: String,
}

/// Longest path a code carries.
const PATH_LIMIT: usize = 200;

/// A code to hold a camera to, which opens a page of this server on another device, as a picture.
#[utoipa::path(get, path = "/api/v1/sheet-code.svg", operation_id = "sheetCode", params(PageAsked),
    responses((status = 200, body = String, content_type = "image/svg+xml"), (status = 422, body = ProblemDocument)))]
#[get("/api/v1/sheet-code.svg")]
pub async fn sheet_code(
    state: Here,
    req: HttpRequest,
    page: web::Query<PageAsked>,
) -> Result<HttpResponse, ApiError> {
    let fine = page.path.starts_with('/')
        && !page.path.starts_with("//")
        && page.path.len() <= PATH_LIMIT
        && page.path.bytes().all(|b| b.is_ascii_graphic());
    let wrong = || ApiError::from(Problem::new("path", said("fault-no-page"), said("fault-page-of-here")));
    if !fine {
        return Err(wrong());
    }
    let at = req.connection_info().host().to_owned();
    let scheme = if state.exposure.is_secure() { "https" } else { "http" };
    let code = QrCode::new(format!("{scheme}://{at}{}", page.path)).map_err(|_| wrong())?;
    let picture = code.render::<svg::Color<'_>>().min_dimensions(240, 240).build();
    Ok(HttpResponse::Ok().content_type("image/svg+xml").body(picture))
}
