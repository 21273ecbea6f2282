//! What happens, told to every open screen: PostgreSQL's LISTEN, one connection for a server process, handed out to all who
//! listen.

use crate::Store;
use serde::{Deserialize, Serialize};
use sqlx::postgres::PgListener;
use std::time::Duration;
use tokio::sync::broadcast::{Receiver, Sender, channel};
use uuid::Uuid;

/// Events kept for a listener that is slow.
const KEPT: usize = 256;
/// How long to wait before a database that went away is asked again.
const AGAIN: Duration = Duration::from_millis(500);

/// Something that happened.
#[derive(Debug, Clone, Serialize, Deserialize, utoipa::ToSchema)]
pub struct Told {
    /// Its event.
    pub id: i64,
    /// Its shop.
    #[serde(skip_serializing)]
    pub shop: Uuid,
    /// Its job, where it belongs to one.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub job: Option<Uuid>,
    /// Who did it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub member: Option<Uuid>,
    /// What.
    pub what: String,
}

/// Where to listen.
#[derive(Debug, Clone)]
pub struct Live(Sender<Told>);

impl Live {
    /// Begins to listen, and goes on for as long as the process lives: a connection that is lost is made anew.
    #[must_use]
    pub fn begin(store: &Store) -> Self {
        let (tx, _) = channel(KEPT);
        let (pool, out) = (store.pool().clone(), tx.clone());
        tokio::spawn(async move {
            loop {
                if let Ok(mut listener) = PgListener::connect_with(&pool).await
                    && listener.listen("bold_stance").await.is_ok()
                {
                    // What was told while nobody listened is not known: everybody looks anew.
                    let anew = Told {
                        id: i64::MAX,
                        shop: Uuid::nil(),
                        job: None,
                        member: None,
                        what: "anew".into(),
                    };
                    let _ = out.send(anew);
                    while let Ok(Some(n)) = listener.try_recv().await {
                        if let Ok(told) = serde_json::from_str::<Told>(n.payload()) {
                            let _ = out.send(told);
                        }
                    }
                }
                tokio::time::sleep(AGAIN).await;
            }
        });
        Self(tx)
    }

    /// Everything from now on.
    #[must_use]
    pub fn listen(&self) -> Receiver<Told> {
        self.0.subscribe()
    }
}
