//! The plans of a job as a table: heights, parts and aim of each, out and in. What has no column (ways of height, points picked on the
//! map) is in the job's file.

use super::plans::problems_of;
use super::{CSV, attachment};
use crate::once::{Begun, Once, again};
use crate::problem::{ApiError, ProblemDocument};
use crate::rows::{Row, rows, written};
use crate::who::Here;
use crate::workbook::{XLSX, table_in, workbook};
use actix_web::http::StatusCode;
use actix_web::{HttpResponse, get, post, web};
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::Side;
use bold_stance_store::{event, job, plan};
use bold_stance_trade::aim::Aim;
use bold_stance_trade::plan::{AxlePlan, CarPlan};
use bold_stance_units::csv_text::guarded;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// Columns: `name`, `aim` (its id), `limit_mm`, `as_sold` (`yes` or nothing), then of each axle `…_height_mm`, `…_settle_mm`,
/// `…_load_mm`, `…_left_mm` and `…_right_mm` (each side on top) and `…_parts` (ids parted by spaces, `:left` or `:right` behind what goes
/// on one side only).
pub const PLAN_COLUMNS: [&str; 16] = [
    "name",
    "aim",
    "limit_mm",
    "as_sold",
    "front_height_mm",
    "front_settle_mm",
    "front_load_mm",
    "front_left_mm",
    "front_right_mm",
    "front_parts",
    "rear_height_mm",
    "rear_settle_mm",
    "rear_load_mm",
    "rear_left_mm",
    "rear_right_mm",
    "rear_parts",
];

/// What a table of plans did.
#[derive(Debug, Serialize, ToSchema)]
pub struct PlansTaken {
    /// Rows of the table.
    pub rows: usize,
    /// Plans that are new.
    pub new: usize,
}

fn axle_cells(p: &AxlePlan) -> Vec<String> {
    let part = |id: &String| match p.only.get(id) {
        Some(Side::Left) => format!("{id}:left"),
        Some(Side::Right) => format!("{id}:right"),
        None => id.clone(),
    };
    let figures = [p.height_change_mm, p.settle_mm, p.load_mm, p.trim_mm.left, p.trim_mm.right];
    let mut out: Vec<String> = figures.iter().map(f64::to_string).collect();
    out.push(p.fitted.iter().map(part).collect::<Vec<_>>().join(" "));
    out
}

fn cells_of(name: &str, d: &CarPlan) -> Vec<String> {
    let mut out = vec![
        guarded(name),
        d.aim.id.clone(),
        d.limit_mm.to_string(),
        if d.as_sold { "yes".into() } else { String::new() },
    ];
    out.extend(axle_cells(&d.axles.front));
    out.extend(axle_cells(&d.axles.rear));
    out
}

fn axle_of(r: &Row, axle: &str) -> Result<AxlePlan, Problem> {
    let mm = |what: &str| Ok(r.number(&format!("{axle}_{what}_mm"))?.unwrap_or(0.0));
    let mut out = AxlePlan {
        height_change_mm: mm("height")?,
        settle_mm: mm("settle")?,
        load_mm: mm("load")?,
        trim_mm: Sides { left: mm("left")?, right: mm("right")? },
        ..AxlePlan::default()
    };
    let column = format!("{axle}_parts");
    for id in r.cell(&column).split_whitespace() {
        let (id, side) = match id.rsplit_once(':') {
            Some((id, "left")) => (id, Some(Side::Left)),
            Some((id, "right")) => (id, Some(Side::Right)),
            Some((_, other)) => {
                let wrong = said("fault-no-side").name("text", other);
                return Err(Problem::new(r.at(&column), wrong, said("fault-side-left-right")));
            }
            None => (id, None),
        };
        if out.fitted.iter().any(|there| there == id) {
            let wrong = said("fault-part-twice").name("id", id);
            return Err(Problem::new(r.at(&column), wrong, said("fault-part-once")));
        }
        out.only.extend(side.map(|s| (id.to_owned(), s)));
        out.fitted.push(id.to_owned());
    }
    Ok(out)
}

/// The column that holds what a field of the document says.
fn column_of(field: &str) -> String {
    let mut path = field.split('.').filter(|p| *p != "document");
    match (path.next(), path.next(), path.next(), path.next()) {
        (Some("axles"), Some(axle), Some("fitted" | "only"), _) => format!("{axle}_parts"),
        (Some("axles"), Some(axle), Some("height_change_mm"), _) => format!("{axle}_height_mm"),
        (Some("axles"), Some(axle), Some("trim_mm"), Some(side)) => format!("{axle}_{side}_mm"),
        (Some("axles"), Some(axle), Some(what), _) => format!("{axle}_{what}"),
        (Some(one), ..) => one.to_owned(),
        (None, ..) => "name".to_owned(),
    }
}

fn plan_of(r: &Row, aims: &[Aim]) -> Result<(String, CarPlan), Problem> {
    let id = r.cell("aim");
    let aim = match id {
        "" => aims.first(),
        _ => aims.iter().find(|a| a.id == id),
    };
    let Some(aim) = aim else {
        let list = aims.iter().map(|a| a.id.as_str()).collect::<Vec<_>>().join(", ");
        let wrong = said("fault-no-aim-id").name("id", id);
        return Err(Problem::new(r.at("aim"), wrong, said("fault-aims-are").name("list", list)));
    };
    let d = CarPlan::unchanged(aim.clone());
    let limit_mm = r.number("limit_mm")?.unwrap_or(d.limit_mm);
    let as_sold = match r.cell("as_sold") {
        "" | "no" => false,
        "yes" => true,
        _ => {
            return Err(Problem::new(
                r.at("as_sold"),
                said("fault-neither-yes-no"),
                said("fault-yes-or-empty"),
            ));
        }
    };
    let axles = Axles { front: axle_of(r, "front")?, rear: axle_of(r, "rear")? };
    Ok((r.cell("name").to_owned(), CarPlan { axles, limit_mm, as_sold, ..d }))
}

async fn table_of(state: &Here, id: Uuid) -> Result<(i32, String), ApiError> {
    let mut tx = state.tx().await?;
    let of = job::get(&mut tx, id).await?;
    let plans = plan::of_job(&mut tx, id).await?;
    Ok((of.ticket, written(&PLAN_COLUMNS, plans.iter().map(|p| cells_of(&p.name, &p.document)))?))
}

/// The plans of a job as CSV.
#[utoipa::path(get, path = "/api/v1/jobs/{id}/plans.csv", operation_id = "exportPlans", params(("id" = Uuid, Path)),
    responses((status = 200, body = String, content_type = "text/csv"), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}/plans.csv")]
pub async fn csv(state: Here, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let (ticket, text) = table_of(&state, *id).await?;
    Ok(attachment(&format!("plans-{ticket:04}.csv"), CSV, text))
}

/// The plans of a job as a workbook.
#[utoipa::path(get, path = "/api/v1/jobs/{id}/plans.xlsx", operation_id = "exportPlansXlsx", params(("id" = Uuid, Path)),
    responses((status = 200, body = Vec<u8>, content_type = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}/plans.xlsx")]
pub async fn xlsx(state: Here, id: web::Path<Uuid>) -> Result<HttpResponse, ApiError> {
    let (ticket, text) = table_of(&state, *id).await?;
    Ok(attachment(&format!("plans-{ticket:04}.xlsx"), XLSX, workbook("Plans", &text)?))
}

/// Plans of a job from a table: all rows or none. A plan of the same name that says the same is left as it is.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/plans.csv", operation_id = "importPlans", params(("id" = Uuid, Path)),
    request_body(content = String, content_type = "text/csv"),
    responses((status = 200, body = PlansTaken), (status = 404, body = ProblemDocument), (status = 413, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/jobs/{id}/plans.csv")]
pub async fn import(
    state: Here,
    id: web::Path<Uuid>,
    body: Result<web::Bytes, actix_web::Error>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let body = body.map_err(|_| ApiError::TooLarge)?;
    let once = once.of(&body);
    let aims: Vec<Aim> = state.all_aims().await?.into_iter().map(|a| a.aim).collect();
    let shelf = state.shelf().await?;
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    job::hold(&mut tx, *id).await?;
    let mut there =
        plan::of_job(&mut tx, *id).await?.into_iter().map(|p| (p.name, p.document)).collect::<Vec<_>>();
    // A plan's own aim may be none of the shop's any more.
    let mut known = aims;
    known.extend(there.iter().map(|(_, d)| d.aim.clone()));
    let table = rows(&table_in(&body)?, &PLAN_COLUMNS, &["name"])?;
    let (mut new, mut problems) = (Vec::new(), Vec::new());
    for r in &table {
        let (name, d) = match plan_of(r, &known) {
            Ok(v) => v,
            Err(p) => {
                problems.push(p);
                continue;
            }
        };
        let own = problems_of(&shelf, &name, &d);
        problems.extend(own.into_iter().map(|p| Problem { field: r.at(&column_of(&p.field)), ..p }));
        match there.iter().find(|(n, _)| *n == name) {
            Some((_, same)) if cells_of(&name, same) == cells_of(&name, &d) => {}
            Some(_) => {
                let wrong = said("fault-plan-says-otherwise").name("name", name.clone());
                problems.push(Problem::new(r.at("name"), wrong, said("fault-plan-other-name")));
            }
            None => {
                new.push((name.clone(), d.clone()));
                there.push((name, d));
            }
        }
    }
    if !problems.is_empty() {
        return Err(problems.into());
    }
    for (name, d) in &new {
        plan::insert(&mut tx, state.shop.id, *id, name, d).await?;
    }
    let taken = PlansTaken { rows: table.len(), new: new.len() };
    let detail = serde_json::json!({"rows": taken.rows, "new": taken.new});
    event::record(&mut tx, state.shop.id, Some(*id), state.name(), "plans from a table", detail).await?;
    once.answer(tx, StatusCode::OK, &taken).await
}
