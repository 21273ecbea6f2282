//! What a shop hands to another as a file, and what it takes in from one.

use crate::catalogue::Origin;
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::speech::AsKept;
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, delete, get, web};
use bold_stance_store::lent::{self, Lender};
use bold_stance_store::{done, event, shop_aim, shop_part, shop_shape};
use bold_stance_trade::offer::{OFFER_FORMAT, ShopOffer, offered_cars};
use bold_stance_trade::part::list_problems;
use bold_stance_units::problem::Problem;
use chrono::Utc;
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;

/// What goes into the file.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct OfferAsked {
    /// The shop's own parts and those it changed.
    #[serde(default = "yes")]
    pub parts: bool,
    /// Its own aims.
    #[serde(default = "yes")]
    pub aims: bool,
    /// Shapes it measured.
    #[serde(default = "yes")]
    pub shapes: bool,
    /// What its cars taught.
    #[serde(default = "yes")]
    pub memory: bool,
}

fn yes() -> bool {
    true
}

/// What a shop is known by in its files: it leads back to nothing.
fn origin_of(shop: Uuid) -> String {
    let hash = Sha256::new().chain_update("handed to another shop").chain_update(shop.as_bytes()).finalize();
    hash.iter().take(12).map(|b| format!("{b:02x}")).collect()
}

/// What this shop hands to another: parts, aims, shapes, what its cars taught. Nothing of a customer.
#[utoipa::path(get, path = "/api/v1/shop/offer.json", operation_id = "shopOffer", params(OfferAsked),
    responses((status = 200, body = ShopOffer), (status = 422, body = ProblemDocument)))]
#[get("/api/v1/shop/offer.json")]
pub async fn offer(state: Here, asked: web::Query<OfferAsked>) -> Result<HttpResponse, ApiError> {
    let shelf = state.shelf().await?;
    let mut tx = state.tx().await?;
    let own = |s: &&crate::catalogue::ShelfPart| s.origin != Origin::Shipped && !s.retired;
    let aims = shop_aim::all(&mut tx).await?.into_iter().map(|(_, aim)| aim);
    let shapes = shop_shape::all(&mut tx).await?;
    let (proved, heights) = (done::taught(&mut tx).await?, done::taught_of_height(&mut tx).await?);
    let o = ShopOffer {
        format: OFFER_FORMAT.into(),
        written_by: env!("CARGO_PKG_VERSION").into(),
        at: Utc::now(),
        shop: state.shop.name.clone(),
        origin: origin_of(state.shop.id),
        parts: if asked.parts {
            shelf.parts.iter().filter(own).map(|s| s.part.clone()).collect()
        } else {
            Vec::new()
        },
        aims: if asked.aims { aims.collect() } else { Vec::new() },
        shapes: if asked.shapes { shapes } else { Vec::new() },
        cars: if asked.memory { offered_cars(&proved) } else { Vec::new() },
        heights: if asked.memory { heights } else { Vec::new() },
    };
    let name = "attachment; filename=\"for-another-shop.json\"";
    let mut res = HttpResponse::Ok().insert_header(("content-disposition", name)).json(o);
    res.extensions_mut().insert(AsKept);
    Ok(res)
}

/// What was taken in, and what stayed as it is here.
#[derive(Debug, Serialize, ToSchema)]
pub struct OfferTaken {
    /// The shop it came from.
    pub shop: String,
    /// New parts.
    pub parts: usize,
    /// New aims.
    pub aims: usize,
    /// New shapes.
    pub shapes: usize,
    /// Cars whose teaching counts here now.
    pub cars: usize,
    /// Names of what is here already and is different: it stays as it is here.
    pub kept: Vec<String>,
}

/// Takes in what another shop handed over: all that is right or nothing; what is here stays as it is.
#[utoipa::path(post, path = "/api/v1/shop/offer", operation_id = "takeOffer", request_body = ShopOffer,
    responses((status = 200, body = OfferTaken), (status = 422, body = ProblemDocument)))]
pub async fn take(
    state: Here,
    body: Result<web::Bytes, actix_web::Error>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let body = body.map_err(|_| ApiError::TooLarge)?;
    let once = once.of(&body);
    let o = ShopOffer::from_json(&body)?;
    let shelf = state.shelf().await?;
    let mut merged: Vec<_> = shelf.parts.iter().map(|s| s.part.clone()).collect();
    merged.extend(o.parts.iter().filter(|p| !shelf.parts.iter().any(|s| s.part.id == p.id)).cloned());
    if let Some(p) = list_problems(&merged).into_iter().next() {
        return Err(Problem { field: "parts".into(), ..p }.into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let shop = state.shop.id;
    let mut t = OfferTaken { shop: o.shop.clone(), parts: 0, aims: 0, shapes: 0, cars: 0, kept: Vec::new() };
    for p in &o.parts {
        match shelf.parts.iter().find(|s| s.part.id == p.id) {
            None => {
                shop_part::save(&mut tx, shop, 0, p, false).await?;
                t.parts += 1;
            }
            Some(s) if s.part != *p => t.kept.push(p.name.clone()),
            Some(_) => {}
        }
    }
    let here = shop_aim::all(&mut tx).await?;
    for a in &o.aims {
        let there = here.iter().map(|(_, aim)| aim).chain(&state.aims).find(|h| h.id == a.id);
        match there {
            None => {
                shop_aim::save(&mut tx, shop, 0, a).await?;
                t.aims += 1;
            }
            Some(h) if h != a => t.kept.push(a.name.clone()),
            Some(_) => {}
        }
    }
    let here = shop_shape::all(&mut tx).await?;
    for s in &o.shapes {
        match here.iter().chain(&state.archetypes).find(|h| h.id == s.id) {
            None => {
                t.shapes += usize::from(shop_shape::add(&mut tx, shop, s).await?);
            }
            Some(h) if h != s => t.kept.push(s.name.clone()),
            Some(_) => {}
        }
    }
    // Its own cars count here already.
    if o.origin != origin_of(shop) && !(o.cars.is_empty() && o.heights.is_empty()) {
        lent::take(&mut tx, shop, state.name(), &o).await?;
        t.cars = o.cars.len();
    }
    let detail = serde_json::json!({"from": o.shop, "parts": t.parts, "aims": t.aims, "shapes": t.shapes, "cars": t.cars});
    event::record(&mut tx, shop, None, state.name(), "taken in from another shop", detail).await?;
    let answer = once.answer(tx, StatusCode::OK, &t).await?;
    state.shelf_cache.forget(shop);
    Ok(answer)
}

/// Shops whose cars count here.
#[utoipa::path(get, path = "/api/v1/shop/lenders", operation_id = "lenders", responses((status = 200, body = [Lender])))]
#[get("/api/v1/shop/lenders")]
pub async fn lenders(state: Here) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    Ok(HttpResponse::Ok().json(lent::lenders(&mut tx).await?))
}

/// Puts out what another shop's cars taught.
#[utoipa::path(delete, path = "/api/v1/shop/lenders/{origin}", operation_id = "putOut", params(("origin" = String, Path)),
    responses((status = 204, description = "Gone"), (status = 404, body = ProblemDocument)))]
#[delete("/api/v1/shop/lenders/{origin}")]
pub async fn put_out(state: Here, origin: web::Path<String>, once: Once) -> Result<HttpResponse, ApiError> {
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    if !lent::put_out(&mut tx, &origin).await? {
        return Err(ApiError::NoRoute);
    }
    let detail = serde_json::json!({"origin": *origin});
    event::record(&mut tx, state.shop.id, None, state.name(), "put out again", detail).await?;
    once.done(tx, StatusCode::NO_CONTENT).await?;
    state.shelf_cache.forget(state.shop.id);
    Ok(HttpResponse::NoContent().finish())
}
