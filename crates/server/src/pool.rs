//! Computation off the workers that answer requests, so many at once, and none for somebody who went away.

use crate::problem::ApiError;
use actix_web::web;
use bold_stance_core::plan::Budget;
use std::sync::Arc;
use tokio::sync::{OwnedSemaphorePermit, Semaphore};

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

    /// Works something out within a budget, which ends with the request.
    ///
    /// # Errors
    /// [`ApiError::Busy`] when the server is shutting down.
    pub async fn run<T: Send + 'static>(
        &self,
        work: impl FnOnce(&Budget) -> T + Send + 'static,
    ) -> Result<T, ApiError> {
        let place = self.place().await?;
        let budget = Budget::default();
        let _gone = Gone(budget.clone());
        let done = web::block(move || {
            let _place = place;
            work(&budget)
        });
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
        let asked = pool.run(move |budget| {
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
        assert_eq!(pool.run(|_| 7).await.unwrap(), 7);
    }
}
