//! How much work one plan may take, counted in poses, not by the clock: the same question gets the same answer on
//! every machine, and none keeps the others waiting.

use std::sync::Arc;
use std::sync::atomic::{AtomicI64, Ordering};

/// Poses of one plan with its candidates: about three seconds on two cores. A usual plan takes 1 000 to 60 000.
const MOST: i64 = 600_000;
/// What a pose that cannot be reached costs: the branch is followed to its end to say so.
pub(crate) const UNREACHED: i64 = 15;

/// What is left to spend, shared by every copy.
#[derive(Debug, Clone)]
pub struct Budget(Arc<AtomicI64>);

impl Default for Budget {
    fn default() -> Self {
        Self(Arc::new(AtomicI64::new(MOST)))
    }
}

impl Budget {
    /// For one side with one of the many sets of a search.
    pub(crate) fn of_a_set() -> Self {
        Self(Arc::new(AtomicI64::new(MOST / 20)))
    }

    /// Takes so many poses; `false` when there are none left.
    pub(crate) fn spend(&self, poses: i64) -> bool {
        self.0.fetch_sub(poses, Ordering::Relaxed) >= poses
    }

    /// Whether more was asked for than there was.
    pub(crate) fn is_spent(&self) -> bool {
        self.0.load(Ordering::Relaxed) < 0
    }
}
