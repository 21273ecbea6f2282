//! Computation off the workers that answer requests, so many at once, and none for somebody who went away.

use crate::problem::ApiError;
use actix_tls::accept::rustls_0_23::TlsStream;
use actix_web::dev::{Extensions, Payload};
use actix_web::rt::time::sleep;
use actix_web::{FromRequest, HttpRequest, web};
use bold_stance_trade::plan::Budget;
use std::any::Any;
use std::future::{Ready, ready};
use std::io::ErrorKind;
use std::net::TcpStream;
use std::os::fd::AsFd;
use std::sync::Arc;
use std::time::Duration;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

/// How often it is looked whether somebody still waits.
const LOOK: Duration = Duration::from_millis(100);

/// Who waits for an answer: the other end of the connection. A request is not dropped when its page is closed, since a
/// closed connection and one that is only done sending look alike; browsers and this program's own tools do not send so.
#[derive(Debug, Clone, Default)]
pub struct Peer(Option<Arc<TcpStream>>);

impl Peer {
    /// Keeps a hand on every new connection, for its requests to find.
    pub fn meet(io: &dyn Any, data: &mut Extensions) {
        let plain = io.downcast_ref::<actix_web::rt::net::TcpStream>();
        let under_tls = || Some(io.downcast_ref::<TlsStream<actix_web::rt::net::TcpStream>>()?.get_ref().0);
        if let Some(s) = plain.or_else(under_tls)
            && let Ok(fd) = s.as_fd().try_clone_to_owned()
        {
            data.insert(Self(Some(Arc::new(TcpStream::from(fd)))));
        }
    }

    /// Whether the other end is this machine: what is sent to it costs nothing, what is packed for it does.
    pub fn is_here(&self) -> bool {
        self.0.as_ref().is_none_or(|s| s.peer_addr().is_ok_and(|a| a.ip().is_loopback()))
    }

    /// The address of the other end.
    pub fn address(&self) -> Option<std::net::IpAddr> {
        self.0.as_ref()?.peer_addr().ok().map(|a| a.ip())
    }

    /// Whether nobody is there any more.
    fn is_gone(&self) -> bool {
        let Some(stream) = &self.0 else { return false };
        match stream.peek(&mut [0; 1]) {
            Ok(read) => read == 0,
            Err(e) => !matches!(e.kind(), ErrorKind::WouldBlock | ErrorKind::Interrupted),
        }
    }

    async fn gone(&self) {
        while !self.is_gone() {
            sleep(LOOK).await;
        }
    }
}

impl FromRequest for Peer {
    type Error = ApiError;
    type Future = Ready<Result<Self, ApiError>>;

    fn from_request(req: &HttpRequest, _: &mut Payload) -> Self::Future {
        ready(Ok(req.conn_data::<Self>().cloned().unwrap_or_default()))
    }
}

/// Places for computation: one plan keeps all cores busy by itself, so a few at once lose nothing.
#[derive(Debug, Clone)]
pub struct Pool(Arc<Semaphore>);

impl Default for Pool {
    fn default() -> Self {
        let cores = std::thread::available_parallelism().map_or(2, usize::from);
        Self(Arc::new(Semaphore::new(2 * cores)))
    }
}

/// Ends a budget when the request it belongs to is gone.
struct Gone(Budget);

impl Drop for Gone {
    fn drop(&mut self) {
        self.0.end();
    }
}

impl Pool {
    /// A place, once one is free.
    ///
    /// # Errors
    /// [`ApiError::Busy`] when the server is shutting down.
    pub async fn place(&self) -> Result<OwnedSemaphorePermit, ApiError> {
        self.0.clone().acquire_owned().await.map_err(|_| ApiError::Busy)
    }

    /// Works something out within a budget, which ends when nobody waits any more.
    ///
    /// # Errors
    /// [`ApiError::Busy`] when the server is shutting down.
    pub async fn run<T: Send + 'static>(
        &self,
        peer: &Peer,
        work: impl FnOnce(&Budget) -> T + Send + 'static,
    ) -> Result<T, ApiError> {
        let place = self.place().await?;
        let budget = Budget::default();
        let _gone = Gone(budget.clone());
        let ended = budget.clone();
        let done = web::block(move || {
            let _place = place;
            work(&budget)
        });
        tokio::pin!(done);
        tokio::select! {
            out = &mut done => return out.map_err(|_| ApiError::Busy),
            () = peer.gone() => ended.end(),
        }
        done.await.map_err(|_| ApiError::Busy)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use std::sync::mpsc;
    use std::time::Duration;

    /// A request that is dropped while it is worked out ends its budget, and gives its place back.
    #[actix_web::test]
    async fn work_for_nobody_stops() {
        let pool = Pool(Arc::new(Semaphore::new(1)));
        let (tx, rx) = mpsc::channel();
        let peer = Peer::default();
        let asked = pool.run(&peer, move |budget| {
            for _ in 0..2000 {
                if budget.is_spent() {
                    let _ = tx.send(());
                    return;
                }
                std::thread::sleep(Duration::from_millis(5));
            }
        });
        assert!(actix_web::rt::time::timeout(Duration::from_millis(50), asked).await.is_err());
        web::block(move || rx.recv_timeout(Duration::from_secs(5))).await.unwrap().unwrap();
        assert_eq!(pool.run(&peer, |_| 7).await.unwrap(), 7);
    }

    /// A connection that is closed ends what was asked over it; one that stays open, or sends more, does not.
    #[actix_web::test]
    async fn a_closed_connection_ends_its_work() {
        use std::io::Write;
        let listener = std::net::TcpListener::bind("127.0.0.1:0").unwrap();
        let mut there = TcpStream::connect(listener.local_addr().unwrap()).unwrap();
        let here = listener.accept().unwrap().0;
        here.set_nonblocking(true).unwrap();
        let peer = Peer(Some(Arc::new(here)));
        assert!(!peer.is_gone());
        there.write_all(b"next").unwrap();
        std::thread::sleep(Duration::from_millis(20));
        assert!(!peer.is_gone(), "more was sent");
        assert!(!Pool::default().run(&peer, Budget::is_spent).await.unwrap());
        // What was sent is read by the server; then the other end goes.
        let mut four = [0; 4];
        std::io::Read::read_exact(&mut peer.0.as_deref().unwrap(), &mut four).unwrap();
        drop(there);
        let pool = Pool::default();
        let worked = pool.run(&peer, |budget| {
            let until = std::time::Instant::now() + Duration::from_secs(5);
            while !budget.is_spent() && std::time::Instant::now() < until {
                std::thread::sleep(Duration::from_millis(5));
            }
            budget.is_spent()
        });
        assert!(worked.await.unwrap());
    }
}
