//! The shop's parts: kept, copied, retired, looked at, brought in and taken out.

use super::{CSV, Doc, attachment};
use crate::catalogue::ShelfPart;
use crate::once::{Begun, Once, again};
use crate::paging::KeyPage;
use crate::pool::Peer;
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use crate::workbook::{XLSX, table_in, workbook};
use actix_web::http::StatusCode;
use actix_web::{HttpRequest, HttpResponse, get, post, put, web};
use bold_stance_car::draw::{Drawing, draw};
use bold_stance_car::metrics::{AID_TRAVEL_MM, aids};
use bold_stance_car::vehicle::Attitude;
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{self, Corner, Linkage};
use bold_stance_kinematics::wheel::WheelState;
use bold_stance_store::{event, shop_part};
use bold_stance_trade::part::{
    Made, Part, list_problems, made_parts, part_problems, parts_for, parts_from_csv, parts_from_json,
    parts_to_csv,
};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

/// Largest table of parts, bytes.
pub const TABLE_LIMIT: usize = 8 * 1024 * 1024;

/// A part over a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SavePart {
    /// Version the edit is based on; 0 for a part the shop has not kept yet.
    pub version: i32,
    /// The part.
    pub part: Part,
    /// Not offered any more.
    #[serde(default)]
    pub retired: bool,
}

/// A part looked at on a corner.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LookAtPart {
    /// The part.
    pub part: Part,
    /// The axle it is looked at on; the shipped shape of its first layout when absent.
    #[serde(default)]
    pub geometry: Option<Geometry>,
    /// Position of its first adjuster within its range, 0 to 1.
    #[serde(default)]
    pub turned: Option<f64>,
    /// Which of its sizes.
    #[serde(default)]
    pub size: Option<f64>,
}

/// What a part moves.
#[derive(Debug, Serialize, ToSchema)]
pub struct PartLook {
    /// What is wrong with it, by field.
    pub problems: Vec<Problem>,
    /// The shape it is drawn on.
    pub on: String,
    /// The corner without it.
    pub before: Option<Drawing>,
    /// The corner with it.
    pub after: Option<Drawing>,
    /// Angles without it.
    pub before_wheel: Option<WheelState>,
    /// Angles with it.
    pub after_wheel: Option<WheelState>,
    /// Why it cannot be drawn.
    pub note: String,
}

/// What came in.
#[derive(Debug, Serialize, ToSchema)]
pub struct PartsTaken {
    /// Parts in the table.
    pub rows: usize,
    /// Of them new to the shop.
    pub new: usize,
}

/// Parts of the shop, those that ship first, by pages.
#[utoipa::path(get, path = "/api/v1/parts", operation_id = "parts", params(KeyPage),
    responses((status = 200, body = [ShelfPart]), (status = 422, body = ProblemDocument)))]
#[get("/api/v1/parts")]
pub async fn list(state: Here, page: web::Query<KeyPage>) -> Result<HttpResponse, ApiError> {
    Ok(HttpResponse::Ok().json(page.of(&state.shelf().await?.parts, |s| &s.part.id)?))
}

/// The part of an id as the shop has it now.
async fn as_it_is(state: &Here, id: &str) -> Result<HttpResponse, ApiError> {
    let shelf = state.shelf().await?;
    let part = shelf.parts.iter().find(|s| s.part.id == id).ok_or(ApiError::NoRoute)?;
    Ok(HttpResponse::Ok().json(part))
}

/// Keeps a part: a new one, a changed one, one retired or brought back.
#[utoipa::path(put, path = "/api/v1/parts/{id}", operation_id = "keepPart", params(("id" = String, Path)), request_body = SavePart,
    responses((status = 200, body = ShelfPart), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/parts/{id}")]
pub async fn keep(
    state: Here,
    id: web::Path<String>,
    Doc(s): Doc<SavePart>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let mut problems = part_problems(&s.part);
    if *id != s.part.id {
        problems.push(Problem::new(
            "id",
            said("fault-other-address").name("id", s.part.id.clone()).name("address", id.as_str()),
            said("fault-one-id"),
        ));
    }
    if problems.is_empty() {
        // The whole list has to hold with it: no ring of parts that need each other.
        let shelf = state.shelf().await?;
        let mut all: Vec<Part> =
            shelf.parts.iter().map(|p| p.part.clone()).filter(|p| p.id != s.part.id).collect();
        all.push(s.part.clone());
        let last = all.len() - 1;
        problems.extend(list_problems(&all).into_iter().map(|p| {
            let field = p.field.strip_prefix(&format!("{last}.")).unwrap_or("requires").to_owned();
            Problem { field, ..p }
        }));
    }
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        // Kept already: the part as it is now, whatever was on the shelf before. The answer was lost, or another process gave it.
        Begun::Before(..) => {
            state.shelf_cache.forget(state.shop.id);
            return as_it_is(&state, &id).await;
        }
    };
    shop_part::save(&mut tx, state.shop.id, s.version, &s.part, s.retired).await?;
    let detail = serde_json::json!({"part": s.part.id, "retired": s.retired});
    event::record(&mut tx, state.shop.id, None, state.name(), "part kept", detail).await?;
    once.done(tx, StatusCode::OK).await?;
    state.shelf_cache.forget(state.shop.id);
    as_it_is(&state, &id).await
}

/// What a part moves, drawn, while it is typed.
#[utoipa::path(post, path = "/api/v1/parts/look", operation_id = "lookAtPart", request_body = LookAtPart,
    responses((status = 200, body = PartLook), (status = 400, body = ProblemDocument)))]
#[post("/api/v1/parts/look")]
pub async fn look(state: Here, Doc(l): Doc<LookAtPart>) -> HttpResponse {
    let problems = part_problems(&l.part);
    let mut out = PartLook {
        problems,
        on: String::new(),
        before: None,
        after: None,
        before_wheel: None,
        after_wheel: None,
        note: String::new(),
    };
    let rear = l.part.fits.axles == [Axle::Rear];
    let shape = l.geometry.clone().or_else(|| {
        let fits = |g: &Geometry| l.part.fits.layouts.contains(&g.layout()) && (g.axle == Axle::Rear) == rear;
        let any = |g: &Geometry| l.part.fits.layouts.contains(&g.layout());
        let shapes = || state.archetypes.iter().map(|a| &a.geometry);
        // One that has what the part goes on: leaf springs, a link of its name.
        let takes = |g: &Geometry| !parts_for(std::slice::from_ref(&l.part), g).is_empty();
        let best = shapes().find(|g| fits(g) && takes(g)).or_else(|| shapes().find(|g| any(g) && takes(g)));
        best.or_else(|| shapes().find(|g| fits(g))).or_else(|| shapes().find(|g| any(g))).cloned()
    });
    let Some(mut g) = shape else {
        "fits no layout yet: choose one to see it move".clone_into(&mut out.note);
        return HttpResponse::Ok().json(out);
    };
    if !l.part.fits.axles.contains(&g.axle) {
        g.axle = if rear { Axle::Rear } else { Axle::Front };
    }
    out.on.clone_from(&g.name);
    if !g.problems().is_empty() {
        "the points do not make a corner".clone_into(&mut out.note);
        return HttpResponse::Ok().json(out);
    }
    let base = Corner::of(&g, Side::Left);
    out.before = draw(&base, 0.0, Attitude::default()).ok();
    out.before_wheel = base.wheel(0.0, 0.0).ok();
    let sizes = parts_for(std::slice::from_ref(&l.part), &g);
    let wanted = l.size.map(|s| format!("{}@{s}", l.part.id));
    let part = sizes.iter().find(|p| Some(&p.id) == wanted.as_ref()).or_else(|| sizes.last());
    let Some(part) = part else {
        "this axle has no such link: name one that the geometry has".clone_into(&mut out.note);
        return HttpResponse::Ok().json(out);
    };
    let mut edits = part.edits.clone();
    if let Some(a) = part.adjusters.first() {
        let [low, high] = a.built_range();
        let t = l.turned.unwrap_or(1.0).clamp(0.0, 1.0);
        edits.extend(a.edits_at(low + (high - low) * t));
    }
    let c = base.edited(&edits);
    match draw(&c, 0.0, Attitude::default()) {
        Ok(d) => {
            out.after = Some(d);
            out.after_wheel = c.wheel(0.0, 0.0).ok();
        }
        Err(e) => out.note = format!("with it the corner does not close: {e}"),
    }
    HttpResponse::Ok().json(out)
}

/// All parts as CSV.
#[utoipa::path(get, path = "/api/v1/parts.csv", operation_id = "exportPartsCsv", responses((status = 200, body = String, content_type = "text/csv")))]
#[get("/api/v1/parts.csv")]
pub async fn csv(state: Here) -> Result<HttpResponse, ApiError> {
    let parts: Vec<Part> = state.shelf().await?.parts.iter().map(|p| p.part.clone()).collect();
    Ok(attachment("parts.csv", CSV, parts_to_csv(&parts)?))
}

/// All parts as a workbook.
#[utoipa::path(get, path = "/api/v1/parts.xlsx", operation_id = "exportPartsXlsx",
    responses((status = 200, body = Vec<u8>, content_type = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet")))]
#[get("/api/v1/parts.xlsx")]
pub async fn xlsx(state: Here) -> Result<HttpResponse, ApiError> {
    let parts: Vec<Part> = state.shelf().await?.parts.iter().map(|p| p.part.clone()).collect();
    Ok(attachment("parts.xlsx", XLSX, workbook("Parts", &parts_to_csv(&parts)?)?))
}

/// All parts as JSON.
#[utoipa::path(get, path = "/api/v1/parts.json", operation_id = "exportPartsJson", responses((status = 200, body = [Part])))]
#[get("/api/v1/parts.json")]
pub async fn json(state: Here) -> Result<HttpResponse, ApiError> {
    let parts: Vec<Part> = state.shelf().await?.parts.iter().map(|p| p.part.clone()).collect();
    let text = serde_json::to_string_pretty(&parts)
        .map_err(|e| Problem::new("parts", e.to_string(), said("fault-parts-can-written")))?;
    Ok(attachment("parts.json", "application/json", text))
}

/// Brings parts in, as CSV, as a workbook or as a JSON list: all of them or none. Parts that are there already are changed.
#[utoipa::path(post, path = "/api/v1/parts/import", operation_id = "importParts", request_body(content = String, content_type = "text/plain"),
    responses((status = 200, body = PartsTaken), (status = 413, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
pub async fn import(
    state: Here,
    request: HttpRequest,
    body: Result<web::Bytes, actix_web::Error>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let body = body.map_err(|_| ApiError::TooLarge)?;
    let once = once.of(&body);
    let body = table_in(&body)?;
    let is_json =
        request.headers().get("content-type").is_some_and(|t| t.as_bytes().starts_with(b"application/json"))
            || body.iter().find(|b| !b.is_ascii_whitespace()) == Some(&b'[');
    let parts = if is_json {
        let text = std::str::from_utf8(&body).map_err(|e| {
            Problem::new(
                "document",
                said("fault-utf8-at").name("at", e.valid_up_to().to_string()),
                said("fault-json-utf-8"),
            )
        })?;
        parts_from_json(text)?
    } else {
        parts_from_csv(&body)?
    };
    let shelf = state.shelf().await?;
    let mut merged: Vec<Part> = parts.clone();
    merged.extend(shelf.parts.iter().map(|s| s.part.clone()).filter(|p| !parts.iter().any(|q| q.id == p.id)));
    if let Some(p) = list_problems(&merged).into_iter().next() {
        return Err(Problem { field: "requires".into(), ..p }.into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    let mut new = 0;
    for p in &parts {
        let there = shelf.parts.iter().find(|s| s.part.id == p.id);
        new += usize::from(there.is_none());
        if there.is_some_and(|s| s.part == *p) {
            continue;
        }
        let (version, retired) = there.map_or((0, false), |s| (s.version, s.retired));
        shop_part::save(&mut tx, state.shop.id, version, p, retired).await?;
    }
    let detail = serde_json::json!({"rows": parts.len(), "new": new});
    event::record(&mut tx, state.shop.id, None, state.name(), "parts imported", detail).await?;
    let answer = once.answer(tx, StatusCode::OK, &PartsTaken { rows: parts.len(), new }).await?;
    state.shelf_cache.forget(state.shop.id);
    Ok(answer)
}

/// A front axle that parts are made for.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MadeFor {
    /// Its points.
    pub geometry: Geometry,
    /// Axle to axle, mm.
    #[schema(minimum = 1000.0, maximum = 8000.0)]
    pub wheelbase_mm: f64,
    /// Largest turn of the inner front wheel, degrees.
    #[schema(minimum = 5.0, maximum = 70.0)]
    pub lock_deg: f64,
    /// Number of the ticket they are made for: tells them from those of another.
    pub ticket: u32,
}

/// Parts that construction aids can be made into: places, lengths, and what is left over. Their words are the sender's.
#[utoipa::path(post, path = "/api/v1/parts/made", operation_id = "madeParts", request_body = MadeFor,
    responses((status = 200, body = Vec<Made>), (status = 422, body = ProblemDocument)))]
#[post("/api/v1/parts/made")]
pub async fn made(state: Here, peer: Peer, Doc(m): Doc<MadeFor>) -> Result<HttpResponse, ApiError> {
    let under = |p: Problem| Problem { field: format!("geometry.{}", p.field), ..p };
    let mut out: Vec<Problem> = linkage::problems(&m.geometry).into_iter().map(under).collect();
    out.extend(in_range("wheelbase_mm", m.wheelbase_mm, 1000.0, 8000.0, "mm").err());
    out.extend(in_range("lock_deg", m.lock_deg, 5.0, 70.0, "°").err());
    if !out.is_empty() {
        return Err(out.into());
    }
    let worked = state.pool.run(&peer, move |_| {
        let (g, lock, base) = (&m.geometry, m.lock_deg, m.wheelbase_mm);
        let (points, wheel) = g.side(Side::Left);
        made_parts(g, &aids(&points, &wheel, AID_TRAVEL_MM, lock, base), m.ticket)
    });
    Ok(HttpResponse::Ok().json(worked.await?))
}
