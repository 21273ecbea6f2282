//! Tickets from a table: cars that were here before, booked again by their plate or name. All rows or none.

use super::jobs::ticket_problems;
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument, bay_taken};
use crate::routes::desk::{JOB_COLUMNS, open_again};
use crate::rows::rows;
use crate::who::Here;
use crate::workbook::table_in;
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, post, web};
use bold_stance_store::job::{self, NewJob};
use bold_stance_store::{StoreError, Tx, event, vehicle};
use bold_stance_trade::reading::TicketKind;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// A car that is booked.
#[derive(Debug)]
struct Booking {
    line: u64,
    /// Its number, where the table has one: a ticket that is there already is left as it is.
    ticket: Option<i32>,
    vehicle: String,
    new: NewJob,
}

/// What a table of tickets did.
#[derive(Debug, Serialize, ToSchema)]
pub struct Booked {
    /// Rows of the table.
    pub rows: usize,
    /// Tickets that were opened.
    pub new: usize,
    /// Their numbers, in the order of the rows.
    pub tickets: Vec<i32>,
}

fn kind_of(text: &str) -> Option<TicketKind> {
    serde_json::from_value(serde_json::Value::String(text.to_owned())).ok()
}

/// Rows of a table of tickets. Columns are those of the table of jobs; what a ticket becomes by being worked on (`stage`, `plan`,
/// `came`, `closed`, `put_away`) is not taken from it.
fn bookings(bytes: &[u8]) -> Result<Vec<Booking>, Vec<Problem>> {
    let (mut out, mut problems) = (Vec::new(), Vec::new());
    for r in rows(bytes, &JOB_COLUMNS, &["plate", "vehicle"])? {
        let [ticket, bay] = ["ticket", "bay"].map(|column| or_none(r.whole(column), &mut problems));
        let odometer_km = or_none(r.number("odometer_km"), &mut problems);
        let kind = match (r.cell("for"), kind_of(r.cell("for"))) {
            ("", _) => TicketKind::default(),
            (_, Some(k)) => k,
            (text, None) => {
                let wrong = said("fault-no-kind-of-ticket").name("text", text);
                problems.push(Problem::new(r.at("for"), wrong, said("fault-kinds-of-ticket")));
                TicketKind::default()
            }
        };
        let (complaint, plate) = (r.cell("wish").to_owned(), r.cell("plate").to_owned());
        let new = NewJob { complaint, bay, kind, plate, odometer_km };
        problems.extend(ticket_problems(&new).into_iter().map(|p| {
            let column = match p.field.rsplit('.').next() {
                Some("complaint") | None => "wish",
                Some(other) => other,
            };
            Problem { field: r.at(column), ..p }
        }));
        out.push(Booking { line: r.line, ticket, vehicle: r.cell("vehicle").to_owned(), new });
    }
    if problems.is_empty() { Ok(out) } else { Err(problems) }
}

/// What was read of a cell; its fault goes to the others.
fn or_none<T>(read: Result<Option<T>, Problem>, problems: &mut Vec<Problem>) -> Option<T> {
    read.unwrap_or_else(|p| {
        problems.push(p);
        None
    })
}

/// What the car of a job is called.
async fn name_of(tx: &mut Tx, job: Uuid) -> Result<String, ApiError> {
    let of = job::get(tx, job).await?;
    Ok(vehicle::get(tx, of.vehicle_id).await?.facts.name)
}

/// Opens a ticket for each row of a table: of the car with that plate, else of that name, as it was known last, with the plan that was
/// the one to set. Rows whose ticket is there already are left as they are. All of them or none.
#[utoipa::path(post, path = "/api/v1/jobs.csv", operation_id = "bookJobs", request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = Booked), (status = 413, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs.csv")]
pub async fn book(
    state: Here,
    body: Result<web::Bytes, actix_web::Error>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let body = body.map_err(|_| ApiError::TooLarge)?;
    let once = once.of(&body);
    let rows = bookings(&table_in(&body)?)?;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let mut out = Booked { rows: rows.len(), new: 0, tickets: Vec::new() };
    let mut problems = Vec::new();
    for r in rows {
        // Whether the row names a car as it is called here; where it names none, it is meant.
        let meant = |name: &str| r.vehicle.is_empty() || r.vehicle.to_lowercase() == name.to_lowercase();
        if let Some(n) = r.ticket
            && let Some(id) = job::of_ticket(&mut tx, n).await?
        {
            let name = name_of(&mut tx, id).await?;
            // The number of another shop's ticket: nothing is passed over in silence.
            if !meant(&name) {
                let wrong =
                    said("fault-ticket-another-car").name("ticket", format!("{n:04}")).name("vehicle", name);
                let at = format!("line {}, ticket", r.line);
                problems.push(Problem::new(at, wrong, said("fault-row-without-ticket")));
            }
            continue;
        }
        let Some(of) = job::last_of(&mut tx, &r.new.plate, &r.vehicle).await? else {
            let column = if r.new.plate.is_empty() { "vehicle" } else { "plate" };
            let at = format!("line {}, {column}", r.line);
            problems.push(Problem::new(at, said("fault-no-car-of-plate"), said("fault-new-arrival-once")));
            continue;
        };
        let name = name_of(&mut tx, of).await?;
        if !meant(&name) {
            let wrong = said("fault-plate-another-car").name("vehicle", name);
            problems.push(Problem::new(
                format!("line {}, vehicle", r.line),
                wrong,
                said("fault-plate-or-name"),
            ));
            continue;
        }
        match open_again(&state, &mut tx, of, r.new).await {
            Ok((_, ticket)) => {
                out.new += 1;
                out.tickets.push(ticket);
            }
            Err(ApiError::Store(StoreError::BayTaken { bay, ticket })) => {
                let p = bay_taken(bay, ticket);
                problems.push(Problem { field: format!("line {}, bay", r.line), ..p });
            }
            Err(e) => return Err(e),
        }
    }
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let detail = serde_json::json!({"rows": out.rows, "new": out.new});
    event::record(&mut tx, state.shop.id, None, state.name(), "tickets from a table", detail).await?;
    once.answer(tx, StatusCode::OK, &out).await
}
