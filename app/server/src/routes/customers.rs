//! One customer's: every ticket of a plate or fleet number, as a file, and taken out of all of them.

use super::Doc;
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, get, post, web};
use bold_stance_store::{StoreError, audit, bundle, event, job};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use std::io::{Cursor, Write};
use utoipa::{IntoParams, ToSchema};
use uuid::Uuid;
use zip::ZipWriter;
use zip::write::SimpleFileOptions;

/// Whose.
#[derive(Debug, Deserialize, IntoParams, ToSchema)]
#[into_params(parameter_in = Query)]
#[serde(deny_unknown_fields)]
pub struct OfPlate {
    /// Plate or fleet number; capitals do not matter.
    #[schema(min_length = 1, max_length = 40)]
    #[param(min_length = 1, max_length = 40)]
    pub plate: String,
}

/// A ticket of a plate.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlateTicket {
    /// Its job.
    pub id: Uuid,
    /// Its number.
    pub ticket: i32,
}

impl OfPlate {
    fn checked(&self) -> Result<&str, ApiError> {
        let plate = self.plate.trim();
        if (1..=40).contains(&plate.chars().count()) && !plate.contains('\0') {
            return Ok(plate);
        }
        Err(Problem::new("plate", said("nothing-entered"), said("fault-characters-right").count("n", 40))
            .into())
    }
}

/// Every ticket of a plate.
#[utoipa::path(get, path = "/api/v1/customer", operation_id = "ticketsOfPlate", params(OfPlate),
    responses((status = 200, body = [PlateTicket]), (status = 422, body = ProblemDocument)))]
#[get("/api/v1/customer")]
pub async fn tickets(state: Here, of: web::Query<OfPlate>) -> Result<HttpResponse, ApiError> {
    let mut tx = state.tx().await?;
    let all = job::of_plate(&mut tx, of.checked()?).await?;
    let all: Vec<PlateTicket> = all.into_iter().map(|(id, ticket)| PlateTicket { id, ticket }).collect();
    Ok(HttpResponse::Ok().json(all))
}

/// Everything kept of a customer: a file of each ticket of the plate with its words, photos, readings, plans and events, and what
/// the record has of it, in one archive.
#[utoipa::path(get, path = "/api/v1/customer.zip", operation_id = "customerFile", params(OfPlate),
    responses((status = 200, content_type = "application/zip", body = String), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[get("/api/v1/customer.zip")]
pub async fn file(state: Here, of: web::Query<OfPlate>) -> Result<HttpResponse, ApiError> {
    let plate = of.checked()?;
    let shelf = state.shelf().await?;
    let mut tx = state.tx().await?;
    let all = job::of_plate(&mut tx, plate).await?;
    if all.is_empty() {
        return Err(ApiError::NoRoute);
    }
    let fault = |e: String| ApiError::from(Problem::new("file", e, said("fault-rows-can-written")));
    let mut out = ZipWriter::new(Cursor::new(Vec::new()));
    for (id, ticket) in all {
        let (parts, withdrawn) = shelf.to_carry();
        let b = bundle::of_job(&mut tx, id, parts, withdrawn, |since| shelf.memory(since)).await?;
        let record = audit::list(&mut tx, Some(id), None, i64::MAX, RECORD_LINES).await?;
        for (name, text) in
            [("job", serde_json::to_vec_pretty(&b)), ("record", serde_json::to_vec_pretty(&record))]
        {
            let text = text.map_err(|e| fault(e.to_string()))?;
            let named = format!("{name}-{ticket:04}.json");
            out.start_file(named, SimpleFileOptions::default()).map_err(|e| fault(e.to_string()))?;
            out.write_all(&text).map_err(|e| fault(e.to_string()))?;
        }
    }
    let body = out.finish().map_err(|e| fault(e.to_string()))?.into_inner();
    let name = ("content-disposition", "attachment; filename=\"customer.zip\"");
    Ok(HttpResponse::Ok().insert_header(name).content_type("application/zip").body(body))
}

/// Lines of the record of one ticket that go into a file.
const RECORD_LINES: i64 = 100_000;

/// How many tickets what is personal was taken out of.
#[derive(Debug, Serialize, ToSchema)]
pub struct CustomerErased {
    /// Tickets.
    pub tickets: usize,
}

/// Takes what is personal out of every ticket of a plate. Figures stay.
#[utoipa::path(post, path = "/api/v1/customer/erase", operation_id = "eraseCustomer", request_body = OfPlate,
    responses((status = 200, body = CustomerErased), (status = 404, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/customer/erase")]
pub async fn erase(state: Here, Doc(of): Doc<OfPlate>, once: Once) -> Result<HttpResponse, ApiError> {
    let plate = of.checked()?;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let all = job::of_plate(&mut tx, plate).await?;
    if all.is_empty() {
        return Err(ApiError::NoRoute);
    }
    for (id, _) in &all {
        if !audit::erase_personal(&mut tx, *id).await? {
            return Err(StoreError::Missing { what: "job", id: *id }.into());
        }
    }
    // How many, and not whose.
    let detail = serde_json::json!({"tickets": all.len()});
    event::record(&mut tx, state.shop.id, None, state.name(), "customer taken out", detail).await?;
    once.answer(tx, StatusCode::OK, &CustomerErased { tickets: all.len() }).await
}
