//! What changed on other screens, as it happens: server-sent events of the shop, caught up by the id of the last one seen.

use crate::problem::ApiError;
use crate::who::Here;
use actix_web::http::header::ContentEncoding;
use actix_web::{HttpRequest, HttpResponse, get, web};
use bold_stance_store::live::Told;
use bold_stance_store::{StoreError, event};
use serde::Deserialize;
use std::convert::Infallible;
use std::time::Duration;
use tokio::sync::broadcast::error::RecvError;
use tokio_stream::wrappers::ReceiverStream;
use utoipa::IntoParams;
use uuid::Uuid;

/// How often a quiet line says that it is there, so that a connection that died is known.
const BEAT: Duration = Duration::from_secs(20);
/// Most events that are caught up one by one; behind more, everything is to be looked at anew.
const CATCH_UP: i64 = 200;

/// How far a line that comes back looks behind what it saw last; told twice does no harm.
const OVERLAP: i64 = 20;

/// Whose events.
#[derive(Debug, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct EventsAsked {
    /// Only of this job and of no job.
    pub job: Option<Uuid>,
    /// Only behind this event, where no `Last-Event-ID` says so.
    pub after: Option<i64>,
}

const ANEW: &[u8] = b"data: {\"id\":0,\"what\":\"anew\"}\n\n";

/// Whether who listens still sits there.
async fn still_here(state: &Here) -> Result<bool, ApiError> {
    match state.tx().await {
        Ok(_) => Ok(true),
        Err(ApiError::Store(StoreError::Unseated)) => Ok(false),
        Err(e) => Err(e),
    }
}

fn line(t: &Told) -> Option<web::Bytes> {
    let body = serde_json::to_string(t).ok()?;
    Some(format!("id: {}\ndata: {body}\n\n", t.id).into())
}

/// Events of the shop as they happen: `id`, `job`, `member`, `what`. The first line names the newest there is.
#[utoipa::path(get, path = "/api/v1/events", operation_id = "events", params(EventsAsked),
    responses((status = 200, body = Told, content_type = "text/event-stream")))]
#[get("/api/v1/events")]
pub async fn follow(
    state: Here,
    req: HttpRequest,
    asked: web::Query<EventsAsked>,
) -> Result<HttpResponse, ApiError> {
    let mut told = state.live.listen();
    let seen = req.headers().get("last-event-id").and_then(|v| v.to_str().ok()).and_then(|t| t.parse().ok());
    let mut tx = state.tx().await?;
    let missed = match seen.or(asked.after) {
        // Numbers are drawn before they are committed: one that was drawn earlier may have come later.
        Some(after) => event::since(&mut tx, after.saturating_sub(OVERLAP), CATCH_UP).await?,
        None => Vec::new(),
    };
    let newest = event::newest(&mut tx).await?;
    drop(tx);
    let (shop, job) = (state.shop.id, asked.job);
    let wanted = move |t: &Told| t.shop == shop && (job.is_none() || t.job.is_none() || t.job == job);
    let (send, rx) = tokio::sync::mpsc::channel::<Result<web::Bytes, Infallible>>(8);
    let open = state.metrics.listening();
    actix_web::rt::spawn(async move {
        let _open = open;
        let first = format!("retry: 1000\nid: {newest}\ndata: {{\"id\":{newest},\"what\":\"here\"}}\n\n");
        if send.send(Ok(first.into())).await.is_err() {
            return;
        }
        for t in missed.iter().filter(|t| wanted(t)) {
            let Some(bytes) = line(t) else { continue };
            if send.send(Ok(bytes)).await.is_err() {
                return;
            }
        }
        loop {
            let next = tokio::select! {
                t = told.recv() => t,
                () = actix_web::rt::time::sleep(BEAT) => {
                    // Who was signed out hears no more; a database that is away says nothing of it.
                    // Boxed: a thousand quiet lines each keep room for what they wait in, and this is most of it.
                    if matches!(Box::pin(still_here(&state)).await, Ok(false)) {
                        return;
                    }
                    if send.send(Ok(":\n\n".into())).await.is_err() {
                        return;
                    }
                    continue;
                }
                () = send.closed() => return,
            };
            let bytes = match next {
                Ok(t) if wanted(&t) => line(&t),
                // More came than was kept for a slow line, or the database was away: look at everything anew.
                Ok(Told { shop, .. }) if shop.is_nil() => Some(web::Bytes::from_static(ANEW)),
                Err(RecvError::Lagged(_)) => Some(web::Bytes::from_static(ANEW)),
                Ok(_) => None,
                Err(RecvError::Closed) => return,
            };
            if let Some(b) = bytes
                && send.send(Ok(b)).await.is_err()
            {
                return;
            }
        }
    });
    Ok(HttpResponse::Ok()
        .content_type("text/event-stream")
        .insert_header(ContentEncoding::Identity)
        .insert_header(("cache-control", "no-store"))
        .streaming(ReceiverStream::new(rx)))
}
