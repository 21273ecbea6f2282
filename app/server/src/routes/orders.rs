//! What a plan takes to order, as a table.

use super::{CSV, attachment, jobs};
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use crate::workbook::{XLSX, workbook};
use actix_web::{HttpResponse, get, web};
use bold_stance_store::{plan, shop};
use bold_stance_trade::part::{OrderLine, order_list, order_list_csv};
use bold_stance_trade::plan::{CarInput, car_fitted_parts};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// The parts of a plan to order.
#[derive(Debug, Serialize, ToSchema)]
pub struct ToOrder {
    /// What stands beside an amount of money; nothing when empty.
    pub currency: String,
    /// Each part, front axle first.
    pub rows: Vec<OrderLine>,
}

/// Its ticket, the lines and the shop's currency.
async fn list_of(state: &Here, id: Uuid) -> Result<(i32, Vec<OrderLine>, String), ApiError> {
    let mut tx = state.tx().await?;
    let p = plan::get(&mut tx, id).await?;
    let t = jobs::ticket(state, &mut tx, p.job_id).await?;
    let (_, settings) = shop::settings(&mut tx, state.shop.id).await?;
    let input = CarInput { base: t.base, plan: p.document };
    let parts = state.shelf().await?.offered(&input.plan.fitted(), &input);
    let lines = order_list(&car_fitted_parts(&input, &parts));
    Ok((t.job.ticket, lines, settings.currency))
}

/// The parts of a plan to order.
#[utoipa::path(get, path = "/api/v1/plans/{id}/order", operation_id = "partsToOrder", params(("id" = Uuid, Path)),
    responses((status = 200, body = ToOrder), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/plans/{id}/order")]
pub async fn list(state: Here, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let (_, rows, currency) = list_of(&state, *id).await?;
    Ok(HttpResponse::Ok().json(ToOrder { currency, rows }))
}

/// The parts of a plan to order, as CSV.
#[utoipa::path(get, path = "/api/v1/plans/{id}/order.csv", operation_id = "orderList", params(("id" = Uuid, Path)),
    responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/plans/{id}/order.csv")]
pub async fn csv(state: Here, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let (ticket, lines, currency) = list_of(&state, *id).await?;
    let text = order_list_csv(&lines, &currency)?;
    Ok(attachment(&format!("order-{ticket:04}.csv"), CSV, text))
}

/// The parts of a plan to order, as a workbook.
#[utoipa::path(get, path = "/api/v1/plans/{id}/order.xlsx", operation_id = "orderListXlsx", params(("id" = Uuid, Path)),
    responses((status = 200, body = Vec<u8>, content_type = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/plans/{id}/order.xlsx")]
pub async fn xlsx(state: Here, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let (ticket, lines, currency) = list_of(&state, *id).await?;
    let text = order_list_csv(&lines, &currency)?;
    Ok(attachment(&format!("order-{ticket:04}.xlsx"), XLSX, workbook("Order", &text)?))
}
