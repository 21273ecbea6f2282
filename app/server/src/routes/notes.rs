//! Notes and photos of a job; what its ticket says and is for.

use super::{Doc, jobs};
use crate::once::{Begun, Once, again};
use crate::photo::picture_of;
use crate::problem::{ApiError, ProblemDocument};
use crate::who::Here;
use actix_web::http::StatusCode;
use actix_web::http::header::{CACHE_CONTROL, CONTENT_TYPE, X_CONTENT_TYPE_OPTIONS};
use actix_web::{HttpResponse, delete, get, put, web};
use base64::Engine;
use base64::prelude::BASE64_STANDARD;
use bold_stance_store::job::NewJob;
use bold_stance_store::{event, job, note};
use bold_stance_trade::job::{MOST_PHOTO_BYTES, Note, note_problems};
use bold_stance_trade::reading::Place;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::Deserialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// Largest note with a photo that is taken in, bytes.
pub const NOTE_LIMIT: usize = MOST_PHOTO_BYTES * 4 / 3 + 16_384;

/// A note to write.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewNote {
    /// Where on the car.
    pub place: Place,
    /// What was seen.
    #[serde(default)]
    #[schema(max_length = 600)]
    pub text: String,
    /// A photo as JPEG in base 64, resized by the sender.
    #[serde(default)]
    pub photo: Option<String>,
}

/// A ticket over a version.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SaveTicket {
    /// Version the edit is based on.
    pub version: i32,
    /// What it says and is for.
    pub job: NewJob,
}

/// Saves what a ticket says and is for.
#[utoipa::path(put, path = "/api/v1/jobs/{id}/ticket", operation_id = "saveTicket", params(("id" = Uuid, Path)), request_body = SaveTicket,
    responses((status = 200, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 409, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
#[put("/api/v1/jobs/{id}/ticket")]
pub async fn save_ticket(
    state: Here,
    id: web::Path<Uuid>,
    Doc(s): Doc<SaveTicket>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let problems = jobs::ticket_problems(&s.job);
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    job::save(&mut tx, state.shop.id, *id, s.version, &s.job).await?;
    let detail = serde_json::json!({"kind": s.job.kind});
    event::record(&mut tx, state.shop.id, Some(*id), state.name(), "ticket saved", detail).await?;
    let t = jobs::ticket(&state, &mut tx, *id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}

/// Writes a note, with or without a photo.
#[utoipa::path(post, path = "/api/v1/jobs/{id}/notes", operation_id = "addNote", params(("id" = Uuid, Path)), request_body = NewNote,
    responses((status = 201, body = jobs::Ticket), (status = 404, body = ProblemDocument), (status = 413, body = ProblemDocument), (status = 422, body = ProblemDocument)))]
pub async fn add(
    state: Here,
    id: web::Path<Uuid>,
    Doc(n): Doc<NewNote>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let photo = match &n.photo {
        None => None,
        Some(t) => {
            let bytes = BASE64_STANDARD
                .decode(t)
                .map_err(|_| Problem::new("photo", said("fault-no-jpeg"), said("fault-jpeg-right")))?;
            Some(picture_of(&bytes)?)
        }
    };
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    // Two that write at once are counted one after the other.
    job::hold(&mut tx, *id).await?;
    let there = note::of_job(&mut tx, *id).await?;
    let problems = note_problems(&n.text, photo.is_some(), &there);
    if !problems.is_empty() {
        return Err(problems.into());
    }
    let written_at = event::now(&mut tx, *id).await?;
    let new = Note {
        id: Uuid::new_v4(),
        place: n.place,
        text: n.text.trim().to_owned(),
        photo: photo.as_ref().map(|(_, size)| *size),
        jpeg: None,
        author: state.name().into(),
        written_at,
    };
    note::add(&mut tx, state.shop.id, *id, &new, photo.as_ref().map(|(b, _)| b.as_slice())).await?;
    let detail = serde_json::json!({"note": new.id, "photo": photo.is_some()});
    event::record(&mut tx, state.shop.id, Some(*id), state.name(), "note written", detail).await?;
    let t = jobs::ticket(&state, &mut tx, *id).await?;
    once.answer(tx, StatusCode::CREATED, &t).await
}

/// Strikes a note out; its photo is gone.
#[utoipa::path(delete, path = "/api/v1/jobs/{id}/notes/{note}", operation_id = "strikeNote",
    params(("id" = Uuid, Path), ("note" = Uuid, Path)),
    responses((status = 200, body = jobs::Ticket), (status = 404, body = ProblemDocument)))]
#[delete("/api/v1/jobs/{id}/notes/{note}")]
pub async fn strike(
    state: Here,
    path: web::Path<(Uuid, Uuid)>,
    once: Once,
) -> Result<HttpResponse, ApiError> {
    let (id, which) = path.into_inner();
    let mut tx = match once.begin(&state).await? {
        Begun::New(tx) => tx,
        Begun::Before(status, body) => return Ok(again(status, body)),
    };
    note::strike(&mut tx, id, which).await?;
    let detail = serde_json::json!({"note": which});
    event::record(&mut tx, state.shop.id, Some(id), state.name(), "note struck out", detail).await?;
    let t = jobs::ticket(&state, &mut tx, id).await?;
    once.answer(tx, StatusCode::OK, &t).await
}

/// The photo of a note.
#[utoipa::path(get, path = "/api/v1/jobs/{id}/notes/{note}/photo.jpg", operation_id = "notePhoto",
    params(("id" = Uuid, Path), ("note" = Uuid, Path)),
    responses((status = 200, description = "The picture", body = Vec<u8>, content_type = "image/jpeg"), (status = 404, body = ProblemDocument)))]
#[get("/api/v1/jobs/{id}/notes/{note}/photo.jpg")]
pub async fn picture(state: Here, path: web::Path<(Uuid, Uuid)>) -> Result<HttpResponse, ApiError> {
    let (id, which) = path.into_inner();
    let mut tx = state.tx().await?;
    let jpeg = note::photo(&mut tx, id, which).await?;
    // A photo never changes under its address; only this browser keeps it.
    Ok(HttpResponse::Ok()
        .insert_header((CONTENT_TYPE, "image/jpeg"))
        .insert_header((CACHE_CONTROL, "private, max-age=86400, immutable"))
        .insert_header((X_CONTENT_TYPE_OPTIONS, "nosniff"))
        .body(jpeg))
}
