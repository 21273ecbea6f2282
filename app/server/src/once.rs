//! Writes that are sent again: the key a sender makes once, and the answer it gets each time.

use crate::AppState;
use crate::problem::ApiError;
use crate::secrets::Handed;
use crate::who::Here;
use actix_web::dev::Payload;
use actix_web::http::StatusCode;
use actix_web::{FromRequest, HttpMessage, HttpRequest, HttpResponse};
use bold_stance_store::write_key::{self, Claim};
use bold_stance_store::{StoreError, Tx};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::Serialize;
use sha2::{Digest, Sha256};
use std::future::{Ready, ready};
use uuid::Uuid;

/// Header that carries the key.
pub const HEADER: &str = "idempotency-key";

/// Hash of a request's body, left by whoever reads it.
#[derive(Clone, Copy)]
pub struct BodyHash(pub u64);

/// First eight bytes of SHA-256: a retry may reach a newer build than the write did, so it is the same in every one.
#[must_use]
pub fn hash_of(bytes: &[u8]) -> u64 {
    Sha256::digest(bytes).iter().take(8).fold(0, |h, b| h << 8 | u64::from(*b))
}

/// A write with its key, when the sender made one.
pub struct Once {
    key: Option<Uuid>,
    req: HttpRequest,
}

/// How a write begins.
pub enum Begun {
    /// The first of its key, or without one.
    New(Tx),
    /// Sent before: the first answer; the body is absent where the handler has a newer one to give.
    Before(StatusCode, Option<String>),
}

/// The key a request carries.
///
/// # Errors
/// [`ApiError::Body`] for one that is no UUID.
pub fn key_of(req: &HttpRequest) -> Result<Option<Uuid>, ApiError> {
    let Some(value) = req.headers().get(HEADER) else { return Ok(None) };
    let key = value.to_str().ok().and_then(|t| Uuid::parse_str(t).ok());
    let wrong = || {
        ApiError::Body(Problem::new(HEADER, said("fault-not-key"), said("fault-uuid-made-once-this-write")))
    };
    key.map(Some).ok_or_else(wrong)
}

impl FromRequest for Once {
    type Error = ApiError;
    type Future = Ready<Result<Self, ApiError>>;

    fn from_request(req: &HttpRequest, _: &mut Payload) -> Self::Future {
        ready(key_of(req).map(|key| Self { key, req: req.clone() }))
    }
}

impl Once {
    /// A body that the handler reads by itself.
    #[must_use]
    pub fn of(self, body: &[u8]) -> Self {
        self.req.extensions_mut().insert(BodyHash(hash_of(body)));
        self
    }

    /// Method, address and body: what a key stands for. The body was read when a write begins.
    fn fingerprint(&self) -> i64 {
        let body = self.req.extensions().get::<BodyHash>().map_or(0, |b| b.0);
        hash_of(format!("{} {} {body:016x}", self.req.method(), self.req.uri()).as_bytes()).cast_signed()
    }

    /// What this request hands out, the same each time it is sent.
    #[must_use]
    pub fn handed(&self, state: &AppState) -> Handed {
        Handed::of(&state.handing, self.key, self.fingerprint())
    }

    /// Opens the transaction of the write, or gives the answer it got before.
    ///
    /// # Errors
    /// [`ApiError`]: the database, or a key that another write carries.
    pub async fn begin(&self, state: &Here) -> Result<Begun, ApiError> {
        let mut tx = state.tx().await?;
        let Some(key) = self.key else { return Ok(Begun::New(tx)) };
        match write_key::claim(&mut tx, state.shop.id, key, self.fingerprint()).await? {
            Claim::Mine => Ok(Begun::New(tx)),
            Claim::Answered { status, answer } => {
                let status = u16::try_from(status).ok().and_then(|s| StatusCode::from_u16(s).ok());
                Ok(Begun::Before(status.unwrap_or(StatusCode::OK), answer))
            }
            Claim::Taken => Err(Problem::new(
                HEADER,
                said("fault-carried-another-write-already"),
                said("fault-key-made-this-one"),
            )
            .into()),
        }
    }

    /// Keeps the answer, commits, and gives it.
    ///
    /// # Errors
    /// [`ApiError`]; a cut connection during the commit is [`StoreError::Unsure`].
    pub async fn answer<T: Serialize>(
        &self,
        mut tx: Tx,
        status: StatusCode,
        body: &T,
    ) -> Result<HttpResponse, ApiError> {
        let text = serde_json::to_string(body)
            .map_err(|e| Problem::new("answer", e.to_string(), said("fault-answer-can-written")))?;
        if let Some(key) = self.key {
            write_key::settle(&mut tx, key, i32::from(status.as_u16()), Some(&text)).await?;
        }
        commit(tx).await?;
        Ok(json(status, text))
    }

    /// Commits a write whose answer is read afterwards.
    ///
    /// # Errors
    /// As [`Once::answer`].
    pub async fn done(&self, mut tx: Tx, status: StatusCode) -> Result<(), ApiError> {
        if let Some(key) = self.key {
            write_key::settle(&mut tx, key, i32::from(status.as_u16()), None).await?;
        }
        commit(tx).await
    }
}

/// The answer given before, when its body was kept.
#[must_use]
pub fn again(status: StatusCode, body: Option<String>) -> HttpResponse {
    match body {
        Some(text) => json(status, text),
        None => HttpResponse::build(status).finish(),
    }
}

fn json(status: StatusCode, text: String) -> HttpResponse {
    HttpResponse::build(status).content_type("application/json").body(text)
}

async fn commit(tx: Tx) -> Result<(), ApiError> {
    tx.commit().await.map_err(|e| StoreError::at_commit(e).into())
}

#[cfg(test)]
mod tests {
    use super::hash_of;

    /// FIPS 180-4, example of SHA-256 for "abc": ba7816bf 8f01cfea ...
    #[test]
    fn a_fingerprint_is_the_same_in_every_build() {
        assert_eq!(hash_of(b"abc"), 0xba78_16bf_8f01_cfea);
        assert_ne!(hash_of(b"abc"), hash_of(b"abd"));
    }
}
