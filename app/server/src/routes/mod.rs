//! Routes: a dozen lines each over store and core.

pub mod aftercare;
pub mod aims;
pub mod booked;
pub mod bundles;
pub mod car;
pub mod compute;
pub mod customers;
pub mod desk;
pub mod devices;
pub mod door;
pub mod events;
pub mod first_run;
pub mod gauge;
pub mod handover;
pub mod jig;
pub mod jobs;
pub mod memory;
pub mod notes;
pub mod offers;
pub mod orders;
pub mod parts;
pub mod people;
pub mod plans;
pub mod plans_table;
pub mod readings;
pub mod records;
pub mod search;
pub mod shapes;
pub mod shop;
pub mod visits;
pub mod wear;

use crate::once::{BodyHash, hash_of};
use crate::problem::ApiError;
use crate::{AppState, openapi_json};
use actix_web::dev::Payload;
use actix_web::{FromRequest, HttpMessage, HttpRequest, HttpResponse, get, web};
use bold_stance_units::problem::{Problem, parse_json};
use bold_stance_units::said::said;
use serde::de::DeserializeOwned;
use std::future::Future;
use std::pin::Pin;

/// A JSON body, refused with the path of the field that is wrong.
pub struct Doc<T>(pub T);

impl<T: DeserializeOwned + 'static> FromRequest for Doc<T> {
    type Error = ApiError;
    type Future = Pin<Box<dyn Future<Output = Result<Self, ApiError>>>>;

    fn from_request(req: &HttpRequest, payload: &mut Payload) -> Self::Future {
        let bytes = web::Bytes::from_request(req, payload);
        let req = req.clone();
        Box::pin(async move {
            let bytes = bytes.await.map_err(|e| {
                if e.as_response_error().status_code() == actix_web::http::StatusCode::PAYLOAD_TOO_LARGE {
                    ApiError::TooLarge
                } else {
                    ApiError::Body(Problem::new("body", e.to_string(), said("fault-json-document")))
                }
            })?;
            req.extensions_mut().insert(BodyHash(hash_of(&bytes)));
            if let Some(p) = zero_byte(&bytes) {
                return Err(p.into());
            }
            parse_json(&bytes).map(Self).map_err(ApiError::Body)
        })
    }
}

/// A text with a zero character in it, which the database cannot keep, by its field.
fn zero_byte(bytes: &[u8]) -> Option<Problem> {
    // Written out it is an escape; most bodies have none and are not looked at twice.
    if !bytes.windows(6).any(|w| w.eq_ignore_ascii_case(b"\\u0000")) {
        return None;
    }
    fn find(v: &serde_json::Value, at: &str) -> Option<String> {
        let under = |k: &str| if at.is_empty() { k.to_owned() } else { format!("{at}.{k}") };
        match v {
            serde_json::Value::String(t) if t.contains('\0') => Some(at.to_owned()),
            serde_json::Value::Array(a) => {
                a.iter().enumerate().find_map(|(i, v)| find(v, &under(&i.to_string())))
            }
            serde_json::Value::Object(o) => o
                .iter()
                .find_map(|(k, v)| if k.contains('\0') { Some(under("name")) } else { find(v, &under(k)) }),
            _ => None,
        }
    }
    let field = find(&serde_json::from_slice(bytes).ok()?, "")?;
    Some(Problem::new(field, said("fault-character-cannot-kept-zero"), said("fault-text-without")))
}

/// Whether the server and its database answer.
#[utoipa::path(get, path = "/api/v1/health", operation_id = "health", responses((status = 200, description = "Both answer", body = String, content_type = "application/json")))]
#[get("/api/v1/health")]
pub async fn health(state: web::Data<AppState>) -> Result<HttpResponse, ApiError> {
    state.store.ping().await?;
    Ok(HttpResponse::Ok().json("ok"))
}

#[get("/api/openapi.json")]
async fn openapi() -> HttpResponse {
    HttpResponse::Ok().content_type("application/json").body(openapi_json())
}

/// A file to keep under a name.
pub(crate) fn attachment(
    name: &str,
    kind: &'static str,
    body: impl actix_web::body::MessageBody + 'static,
) -> HttpResponse {
    HttpResponse::Ok()
        .content_type(kind)
        .insert_header(("content-disposition", format!("attachment; filename=\"{name}\"")))
        .body(body)
}

/// Media type of every table.
pub(crate) const CSV: &str = "text/csv; charset=utf-8";

/// Adds every route.
pub fn mount(cfg: &mut web::ServiceConfig) {
    cfg.service(health)
        .service(openapi)
        .route("/metrics", web::get().to(crate::metrics::told))
        .route("/healthz", web::get().to(crate::metrics::alive))
        .service(door::who_is_there)
        .service(door::by_pin)
        .service(door::by_passphrase)
        .service(door::leave_bench)
        .service(door::pick_member)
        .service(first_run::claim_shop)
        .service(first_run::by_slip)
        .service(door::own_pin)
        .service(door::own_units)
        .service(devices::make_code)
        .service(devices::by_code)
        .service(devices::here)
        .service(devices::remove)
        .service(devices::sheet_code)
        .service(people::list)
        .service(people::add)
        .service(people::save)
        .service(people::set_pin)
        .service(people::set_passphrase)
        .service(people::end_sessions)
        .service(people::sessions)
        .service(people::end_session)
        .service(people::save_trust)
        .service(records::list)
        .service(records::csv)
        .service(records::erase_personal)
        .service(customers::tickets)
        .service(customers::file)
        .service(customers::erase)
        .service(events::follow)
        .service(shop::info)
        .service(shop::save_settings)
        .service(jobs::list)
        .service(jobs::create)
        .service(
            web::resource("/api/v1/jobs/import")
                .app_data(web::PayloadConfig::new(bundles::BUNDLE_LIMIT))
                .route(web::post().to(bundles::import)),
        )
        .service(bundles::export)
        .service(desk::jobs_table)
        .service(desk::jobs_workbook)
        .service(booked::book)
        .service(desk::away)
        .service(desk::same_car_again)
        .service(desk::story)
        .service(jobs::get)
        .service(jobs::save_vehicle)
        .service(notes::save_ticket)
        .service(
            web::resource("/api/v1/jobs/{id}/notes")
                .app_data(web::PayloadConfig::new(notes::NOTE_LIMIT))
                .route(web::post().to(notes::add)),
        )
        .service(notes::strike)
        .service(notes::picture)
        .service(readings::add)
        .service(readings::preview)
        .service(readings::form)
        .service(readings::methods)
        .service(visits::open)
        .service(gauge::info)
        .service(gauge::stream)
        .service(gauge::tell)
        .service(visits::save)
        .service(visits::put_right)
        .service(visits::export)
        .service(visits::export_xlsx)
        .service(visits::import)
        .service(plans::create)
        .service(plans::save)
        .service(plans_table::csv)
        .service(plans_table::xlsx)
        .service(plans_table::import)
        .service(plans::copy)
        .service(plans::remove)
        .service(plans::choose)
        .service(plans::mark)
        .service(plans::turned)
        .service(plans::jacked)
        .service(aftercare::do_after)
        .service(memory::memory)
        .service(handover::handover)
        .service(parts::list)
        .service(parts::look)
        .service(parts::made)
        .service(
            web::resource("/api/v1/parts/import")
                .app_data(web::PayloadConfig::new(parts::TABLE_LIMIT))
                .route(web::post().to(parts::import)),
        )
        .service(parts::csv)
        .service(parts::xlsx)
        .service(orders::list)
        .service(orders::csv)
        .service(orders::xlsx)
        .service(parts::json)
        .service(parts::keep)
        .service(aims::list)
        .service(aims::window)
        .service(aims::keep)
        .service(aims::remove)
        .service(search::plans)
        .service(search::whole_car)
        .service(search::height_ladders)
        .service(search::height_target)
        .service(compute::predict)
        .service(compute::geometry)
        .service(wear::forecast)
        .service(jig::turn)
        .service(wear::patches)
        .service(wear::data)
        .service(wear::diagnosis)
        .service(wear::tread_log)
        .service(wear::write)
        .service(wear::strike)
        .service(wear::export)
        .service(wear::export_xlsx)
        .service(wear::import)
        .service(plans::sheet)
        .service(offers::offer)
        .service(
            web::resource("/api/v1/shop/offer")
                .app_data(web::PayloadConfig::new(bundles::BUNDLE_LIMIT))
                .route(web::post().to(offers::take)),
        )
        .service(offers::lenders)
        .service(offers::put_out)
        .service(shapes::look)
        .service(shapes::keep)
        .service(shapes::remove)
        .service(car::archetypes)
        .service(car::fit)
        .service(car::what_turns)
        .service(car::inspection)
        .service(car::drawing)
        .service(car::file);
}
