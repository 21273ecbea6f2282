//! The built front end, embedded in the binary.

use crate::AppState;
use crate::problem::ApiError;
use actix_web::http::{Method, header};
use actix_web::{HttpRequest, HttpResponse, web};
use rust_embed::Embed;

#[derive(Embed)]
#[folder = "../../web/dist"]
struct Dist;

/// A file of the front end; any other page address gets the page itself, so that reloads work.
pub async fn serve(req: HttpRequest, state: web::Data<AppState>) -> Result<HttpResponse, ApiError> {
    let path = req.path().trim_start_matches('/');
    let taken = state.addresses.methods_at(req.path());
    if !taken.is_empty() {
        return Err(ApiError::Method(taken));
    }
    if path == "api" || path.starts_with("api/") || !matches!(*req.method(), Method::GET | Method::HEAD) {
        return Err(ApiError::NoRoute);
    }
    let (name, file) = match Dist::get(path) {
        Some(f) if !path.is_empty() => (path, f),
        _ if path.starts_with("assets/") => return Err(ApiError::NoRoute),
        _ => ("index.html", Dist::get("index.html").ok_or(ApiError::NoRoute)?),
    };
    let cache = if name.starts_with("assets/") { "public, max-age=31536000, immutable" } else { "no-cache" };
    Ok(HttpResponse::Ok()
        .content_type(mime_guess::from_path(name).first_or_octet_stream().as_ref())
        .insert_header((header::CACHE_CONTROL, cache))
        .body(file.data.into_owned()))
}
