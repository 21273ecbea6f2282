//! How a shop gets its owner, and how an owner who lost the PIN comes back.

use super::Doc;
use super::door::{SessionInfo, info_of, leave, seated, seated_before};
use crate::AppState;
use crate::cookies::{device, device_of};
use crate::once::Once;
use crate::problem::{ApiError, ProblemDocument};
use crate::secrets::{KeptSecret, as_letters, keep, proof};
use actix_session::Session;
use actix_web::cookie::Cookie;
use actix_web::{HttpRequest, HttpResponse, post, web};
use bold_stance_people::{Role, name_problem, pin_problem};
use bold_stance_store::sign_in::{self, Claim, NewDevice};
use bold_stance_store::{people, shop};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use uuid::Uuid;

/// The first run.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ClaimShop {
    /// Name of the shop.
    pub name: String,
    /// Its bays, 1 to 99.
    #[schema(minimum = 1, maximum = 99)]
    pub bays: i32,
    /// The owner's name.
    pub owner: String,
    /// Their PIN.
    pub pin: String,
    /// What this device is called.
    pub device: String,
}

/// What is printed once, and who is there now.
#[derive(Debug, Serialize, ToSchema)]
pub struct Claimed {
    /// The slip: brings a lost PIN back, once.
    pub slip: String,
    /// Who is there.
    pub session: SessionInfo,
}

/// A fault under its field, where there is one.
fn all(list: [Option<Problem>; 4]) -> Result<(), ApiError> {
    let found: Vec<Problem> = list.into_iter().flatten().collect();
    if found.is_empty() { Ok(()) } else { Err(found.into()) }
}

fn with_device(answer: &impl Serialize, cookie: Cookie<'static>) -> HttpResponse {
    HttpResponse::Created().cookie(cookie).json(answer)
}

/// Makes an owner where there is none; the shop is open to nobody without a session from then on.
#[utoipa::path(post, path = "/api/v1/shop/claim", operation_id = "claimShop", request_body = ClaimShop,
    responses((status = 201, body = Claimed), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/shop/claim")]
pub async fn claim_shop(
    state: web::Data<AppState>,
    session: Session,
    Doc(c): Doc<ClaimShop>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let (name, owner, place) = (c.name.trim(), c.owner.trim(), c.device.trim());
    let bays = bold_stance_units::problem::in_range("bays", f64::from(c.bays), 1.0, 99.0, "bays").err();
    all([name_problem("name", name), bays, name_problem("owner", owner), name_problem("device", place)])?;
    all([pin_problem("pin", &c.pin), None, None, None])?;
    if state.exposure.is_public() {
        return Err(ApiError::Forbidden("a shop on a network is made by its operator: bold-stance shop"));
    }
    let handed = once.handed(&state);
    let (slip, at, token) = (handed.slip(), handed.device(), handed.session());
    if let Some(info) = seated_before(&state, &session, &handed, Some(&at)).await? {
        return Ok(with_device(&Claimed { slip, session: info }, device(&at, state.exposure.is_secure())));
    }
    let Some(first) = shop::door(&state.store, None).await?.filter(|d| !d.locked) else {
        return Err(Problem::new("name", said("fault-has-an-owner"), said("fault-has-an-owner-right")).into());
    };
    let mut tx = state.store.tx(first.shop.id).await?;
    let members = people::members(&mut tx).await?;
    drop(tx);
    // Somebody who stands on the bench under that name becomes the owner; so does an owner who has no PIN yet.
    let named = members.iter().find(|m| m.left_at.is_none() && m.name.eq_ignore_ascii_case(owner));
    let named = named.or_else(|| members.iter().find(|m| m.left_at.is_none() && m.role == Role::Owner));
    let (pin, slip_kept) = (keep(c.pin).await?, keep(as_letters(&slip)).await?);
    let claimed = sign_in::claim(
        &state.store,
        &Claim {
            shop: first.shop.id,
            name,
            bays: c.bays,
            owner: named.map_or_else(Uuid::new_v4, |m| m.id),
            owner_name: owner,
            pin: pin.as_kept(),
            slip: slip_kept.as_kept(),
            device: NewDevice { id: Uuid::new_v4(), name: place, token: &at },
            token: &token,
        },
    )
    .await?;
    if !claimed {
        return Err(Problem::new("name", said("fault-has-an-owner"), said("fault-has-an-owner-right")).into());
    }
    state.whos.forget();
    seated(&session, &token)?;
    let info = info_of(&state, &session, Some(&at)).await?;
    Ok(with_device(&Claimed { slip, session: info }, device(&at, state.exposure.is_secure())))
}

/// A slip, and what it is used for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UseSlip {
    /// As printed; what stands between the letters does not matter.
    pub slip: String,
    /// The owner's new PIN.
    pub pin: String,
    /// What this device is called.
    pub device: String,
}

/// Brings the owner back who lost the PIN, and prints the next slip.
#[utoipa::path(post, path = "/api/v1/shop/slip", operation_id = "useSlip", request_body = UseSlip,
    responses((status = 201, body = Claimed), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/shop/slip")]
pub async fn by_slip(
    state: web::Data<AppState>,
    session: Session,
    req: HttpRequest,
    Doc(u): Doc<UseSlip>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let place = u.device.trim();
    all([pin_problem("pin", &u.pin), name_problem("device", place), None, None])?;
    let wrong =
        || ApiError::from(Problem::new("slip", said("fault-slip-wrong"), said("fault-slip-wrong-right")));
    let handed = once.handed(&state);
    let (slip, at, token) = (handed.slip(), handed.device(), handed.session());
    if let Some(info) = seated_before(&state, &session, &handed, Some(&at)).await? {
        return Ok(with_device(&Claimed { slip, session: info }, device(&at, state.exposure.is_secure())));
    }
    let bench = match device_of(&req) {
        Some(t) => sign_in::bench(&state.store, &t).await?,
        None => None,
    };
    // The shop of the device; else the first of this server.
    let shop = match bench {
        Some(b) => b.shop,
        None => shop::door(&state.store, None).await?.map(|d| d.shop.id).ok_or_else(wrong)?,
    };
    let salt = sign_in::slip_salt(&state.store, shop).await?.ok_or_else(wrong)?;
    let shown = proof(as_letters(&u.slip), salt).await?;
    let (pin, next): (KeptSecret, KeptSecret) = (keep(u.pin).await?, keep(as_letters(&slip)).await?);
    let new = NewDevice { id: Uuid::new_v4(), name: place, token: &at };
    let ok =
        sign_in::by_slip(&state.store, (shop, &shown), pin.as_kept(), new, &token, next.as_kept()).await?;
    if !ok {
        return Err(wrong());
    }
    // Whoever sat there as the owner is out.
    state.whos.forget();
    leave(&state, &session).await?;
    seated(&session, &token)?;
    let info = info_of(&state, &session, Some(&at)).await?;
    Ok(with_device(&Claimed { slip, session: info }, device(&at, state.exposure.is_secure())))
}
