//! Cookies: the session's, which stands for a row of the database, and a device's.

use actix_session::SessionMiddleware;
use actix_session::config::{BrowserSession, CookieContentSecurity};
use actix_session::storage::{LoadError, SaveError, SessionKey, SessionStore, UpdateError};
use actix_web::HttpRequest;
use actix_web::cookie::{Cookie, Key, SameSite, time::Duration};
use bold_stance_store::{Store, web_session};
use std::collections::HashMap;

/// Name of the session's cookie.
pub const SESSION: &str = "bold-stance";
/// Name of a device's.
pub const DEVICE: &str = "bold-stance-device";
/// Days a device is remembered: browsers keep none longer.
const DEVICE_DAYS: i64 = 400;

/// Stands in a session that could not be read.
pub const AWAY: &str = "away";

type State = HashMap<String, String>;
type Fault = Box<dyn std::error::Error + Send + Sync>;

/// Sessions in PostgreSQL: every server process knows each.
#[derive(Debug, Clone)]
pub struct InDatabase(pub Store);

impl InDatabase {
    async fn put(&self, key: &str, state: &State, ttl: &Duration) -> Result<(), Fault> {
        let text = serde_json::to_string(state)?;
        Ok(web_session::put(&self.0, key, &text, ttl.as_seconds_f64()).await?)
    }
}

impl SessionStore for InDatabase {
    async fn load(&self, key: &SessionKey) -> Result<Option<State>, LoadError> {
        match web_session::get(&self.0, key.as_ref()).await {
            Ok(text) => Ok(text.and_then(|t| serde_json::from_str(&t).ok())),
            // A database that is away ends no session, and says so in our words.
            Err(e) => {
                tracing::warn!("{e}");
                Ok(Some(State::from([(AWAY.to_owned(), "true".to_owned())])))
            }
        }
    }

    async fn save(&self, state: State, ttl: &Duration) -> Result<SessionKey, SaveError> {
        let key = crate::secrets::new_token();
        self.put(&key, &state, ttl).await.map_err(|e| SaveError::Other(anyhow::Error::from_boxed(e)))?;
        SessionKey::try_from(key).map_err(|e| SaveError::Other(e.into()))
    }

    async fn update(&self, key: SessionKey, state: State, ttl: &Duration) -> Result<SessionKey, UpdateError> {
        let put = self.put(key.as_ref(), &state, ttl).await;
        put.map_err(|e| UpdateError::Other(anyhow::Error::from_boxed(e)))?;
        Ok(key)
    }

    /// How long a session lasts is counted from when it was opened.
    async fn update_ttl(&self, _: &SessionKey, _: &Duration) -> Result<(), anyhow::Error> {
        Ok(())
    }

    async fn delete(&self, key: &SessionKey) -> Result<(), anyhow::Error> {
        Ok(web_session::drop(&self.0, key.as_ref()).await?)
    }
}

/// The session's middleware: gone with the browser, unseen by scripts, never sent from another site's page.
pub fn sessions(store: Store, key: Key, secure: bool) -> SessionMiddleware<InDatabase> {
    let hours = bold_stance_store::sign_in::SESSION_HOURS as i64;
    SessionMiddleware::builder(InDatabase(store), key)
        .cookie_name(SESSION.to_owned())
        .cookie_http_only(true)
        .cookie_same_site(SameSite::Strict)
        .cookie_secure(secure)
        .cookie_content_security(CookieContentSecurity::Private)
        .session_lifecycle(BrowserSession::default().state_ttl(Duration::hours(hours)))
        .build()
}

/// A device's cookie.
#[must_use]
pub fn device(token: &str, secure: bool) -> Cookie<'static> {
    Cookie::build(DEVICE, token.to_owned())
        .path("/")
        .http_only(true)
        .same_site(SameSite::Strict)
        .secure(secure)
        .max_age(Duration::days(DEVICE_DAYS))
        .finish()
}

/// The token of the device that asks.
#[must_use]
pub fn device_of(req: &HttpRequest) -> Option<String> {
    req.cookie(DEVICE).map(|c| c.value().to_owned()).filter(|t| !t.is_empty())
}
