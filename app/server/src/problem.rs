//! Errors as RFC 9457 problem documents with field paths.

use crate::speech::spoken;
use actix_web::http::{StatusCode, header};
use actix_web::{HttpResponse, ResponseError};
use bold_stance_people::Act;
use bold_stance_store::StoreError;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};
use bold_stance_words::{Units, english};
use serde::Serialize;
use utoipa::ToSchema;

/// Media type of a problem document (RFC 9457).
pub const PROBLEM: &str = "application/problem+json";

/// Kind of a refusal that a page mends by asking who is there.
const OTHER_SEAT: &str = "urn:bold-stance:other-seat";

/// RFC 9457 problem document.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProblemDocument {
    /// Kind of problem.
    #[serde(rename = "type")]
    pub kind: String,
    /// Short and the same for the kind.
    pub title: String,
    /// HTTP status.
    pub status: u16,
    /// What happened here.
    pub detail: Said,
    /// Fields at fault.
    pub problems: Vec<Problem>,
}

/// What a route can fail with.
#[derive(Debug, thiserror::Error)]
pub enum ApiError {
    /// The request's content is wrong.
    #[error("{} faults", .0.len())]
    Input(Vec<Problem>),
    /// The body cannot be read.
    #[error("{0}")]
    Body(Problem),
    /// The body is too large.
    #[error("the body is over {} kB", crate::BODY_LIMIT / 1024)]
    TooLarge,
    /// Not allowed.
    #[error("{0}")]
    Forbidden(&'static str),
    /// A write that carries not what the page of this seat was told: a page of another site, or one of before somebody signed in.
    #[error("this write did not come from a page of whoever is signed in now")]
    OtherSeat,
    /// Nothing answered for so long that nobody waits any more: a database that is frozen.
    #[error("no answer in time")]
    GivenUp,
    /// Nobody is signed in.
    #[error("nobody is signed in here, or not any more: sign in")]
    Nobody,
    /// Signed in, and not theirs to do.
    #[error("not for this member")]
    NotYours(Act),
    /// Too often; so many seconds are to be waited.
    #[error("too often: again in {0} s")]
    TooMany(u64),
    /// The computation was given up.
    #[error("the server is shutting down: ask again")]
    Busy,
    /// Something on the way failed that has no other name.
    #[error("the server could not finish this: try again")]
    Failed,
    /// The address takes other methods.
    #[error("this address takes {}", .0.join(", "))]
    Method(Vec<&'static str>),
    /// No such route.
    #[error("nothing is at this address")]
    NoRoute,
    /// The store refused.
    #[error("{0}")]
    Store(#[from] StoreError),
}

impl From<Vec<Problem>> for ApiError {
    fn from(p: Vec<Problem>) -> Self {
        Self::Input(p)
    }
}

impl From<Problem> for ApiError {
    fn from(p: Problem) -> Self {
        Self::Input(vec![p])
    }
}

/// A path segment that is no id.
pub fn not_an_id(e: &actix_web::error::PathError) -> ApiError {
    ApiError::Body(Problem::new("path", e.to_string(), said("fault-id-something-this-shop")))
}

/// A query string that cannot be read.
pub fn bad_query(e: &actix_web::error::QueryPayloadError) -> ApiError {
    ApiError::Body(Problem::new("query", e.to_string(), said("fault-page-size-whole-numbers")))
}

impl ApiError {
    /// The same with every field under an index, when it came in a list.
    #[must_use]
    pub fn under(self, listed: bool, index: usize) -> Self {
        match self {
            Self::Input(list) if listed => Self::Input(
                list.into_iter().map(|p| Problem { field: format!("{index}.{}", p.field), ..p }).collect(),
            ),
            other => other,
        }
    }

    fn title(&self) -> &'static str {
        match self {
            Self::Input(_)
            | Self::Store(StoreError::BayTaken { .. } | StoreError::NameTaken | StoreError::LastOwner) => {
                "Something typed needs another look"
            }
            Self::Body(_) => "The request cannot be read",
            Self::TooLarge => "Too large",
            Self::Nobody | Self::Store(StoreError::Unseated) => "Nobody is signed in",
            Self::TooMany(_) => "Too often",
            Self::Forbidden(_) | Self::NotYours(_) | Self::OtherSeat => "Not allowed",
            Self::Store(e) if e.is_refused() => "Not allowed",
            Self::Store(e) if e.is_busy() => "Busy",
            Self::Store(e) if e.is_full() => "The disk is full",
            Self::Store(e) if e.reads_only() => "Only to be read now",
            Self::Busy | Self::Failed => "Busy",
            Self::Method(_) => "Not asked like this",
            Self::NoRoute | Self::Store(StoreError::Missing { .. }) => "Not there",
            Self::Store(StoreError::Stale { .. }) => "Saved by somebody else first",
            Self::Store(StoreError::Unsure(_)) => "Not certain that it was saved",
            Self::Store(_) | Self::GivenUp => "The database did not answer",
        }
    }
}

/// What is said at the field of a bay that another car stands in.
pub fn bay_taken(bay: i32, ticket: i32) -> Problem {
    let wrong = said("fault-bay-taken").name("bay", bay.to_string()).name("ticket", format!("{ticket:04}"));
    Problem::new("job.bay", wrong, said("fault-bay-taken-right"))
}

/// What is said at the field of a member.
fn at_name(e: &StoreError) -> Problem {
    match e {
        StoreError::LastOwner => {
            Problem::new("role", said("fault-last-owner"), said("fault-last-owner-right"))
        }
        _ => Problem::new("name", said("fault-name-taken"), said("fault-name-taken-right")),
    }
}

/// A fault in one line.
fn fault(p: &Problem) -> Said {
    said("detail-fault")
        .name("field", p.field.clone())
        .say("wrong", p.wrong.clone())
        .say("right", p.right.clone())
}

impl ResponseError for ApiError {
    fn status_code(&self) -> StatusCode {
        match self {
            Self::Input(_)
            | Self::Store(StoreError::BayTaken { .. } | StoreError::NameTaken | StoreError::LastOwner) => {
                StatusCode::UNPROCESSABLE_ENTITY
            }
            Self::Nobody | Self::Store(StoreError::Unseated) => StatusCode::UNAUTHORIZED,
            Self::NotYours(_) | Self::OtherSeat => StatusCode::FORBIDDEN,
            Self::TooMany(_) => StatusCode::TOO_MANY_REQUESTS,
            Self::Store(e) if e.is_refused() => StatusCode::FORBIDDEN,
            Self::Body(_) => StatusCode::BAD_REQUEST,
            Self::TooLarge => StatusCode::PAYLOAD_TOO_LARGE,
            Self::Forbidden(_) => StatusCode::FORBIDDEN,
            Self::Method(_) => StatusCode::METHOD_NOT_ALLOWED,
            Self::NoRoute | Self::Store(StoreError::Missing { .. }) => StatusCode::NOT_FOUND,
            Self::Store(StoreError::Stale { .. }) => StatusCode::CONFLICT,
            Self::Busy | Self::Failed | Self::GivenUp | Self::Store(_) => StatusCode::SERVICE_UNAVAILABLE,
        }
    }

    fn error_response(&self) -> HttpResponse {
        let status = self.status_code();
        let detail = match self {
            Self::NotYours(act) => said("detail-not-yours").word("act", act.key()),
            Self::Store(e) if e.is_refused() => {
                tracing::warn!("{e}");
                said("detail-refused")
            }
            Self::Store(e) if e.is_busy() => {
                tracing::warn!("{e}");
                said("detail-busy")
            }
            Self::Store(e) if e.is_full() => {
                tracing::error!("{e}");
                said("detail-full")
            }
            Self::Store(e) if e.reads_only() => {
                tracing::error!("{e}");
                said("detail-reads-only")
            }
            // It may come to life and go on with what it was told.
            Self::GivenUp => said("detail-unsure"),
            Self::Store(StoreError::Away) => said("detail-nothing-saved"),
            Self::Store(e @ (StoreError::NameTaken | StoreError::LastOwner)) => fault(&at_name(e)),
            // Inner workings stay in the log.
            Self::Store(e @ (StoreError::Database(_) | StoreError::Migrate(_))) => {
                tracing::error!("{e}");
                said("detail-nothing-saved")
            }
            Self::Store(e @ StoreError::Unsure(_)) => {
                tracing::error!("{e}");
                said("detail-unsure")
            }
            Self::Input(list) => list.first().map_or_else(|| Said::text(""), fault),
            Self::Body(p) => fault(p),
            Self::Store(StoreError::BayTaken { bay, ticket }) => fault(&bay_taken(*bay, *ticket)),
            other => Said::text(other.to_string()),
        };
        let problems = match self {
            Self::Store(StoreError::BayTaken { bay, ticket }) => vec![bay_taken(*bay, *ticket)],
            Self::Store(e @ (StoreError::NameTaken | StoreError::LastOwner)) => vec![at_name(e)],
            Self::Input(p) => p.clone(),
            Self::Body(p) => vec![p.clone()],
            _ => Vec::new(),
        };
        let doc = ProblemDocument {
            kind: if matches!(self, Self::OtherSeat) { OTHER_SEAT } else { "about:blank" }.into(),
            title: self.title().into(),
            status: status.as_u16(),
            detail,
            problems,
        };
        let mut out = HttpResponse::build(status);
        if let Self::Method(allowed) = self {
            out.insert_header((header::ALLOW, allowed.join(", ")));
        }
        if let Self::TooMany(seconds) = self {
            out.insert_header((header::RETRY_AFTER, seconds.to_string()));
        }
        if matches!(self, Self::GivenUp) {
            // Nothing above it has the request any more that would say it in somebody's units; there are none in it.
            let bytes = serde_json::to_vec(&doc).unwrap_or_default();
            return out
                .content_type(PROBLEM)
                .body(spoken(&english(Units::default()), &bytes).unwrap_or(bytes));
        }
        out.content_type(PROBLEM).json(doc)
    }
}
