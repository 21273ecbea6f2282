//! How much work one plan may take, counted in poses, not by the clock: the same question gets the same answer on
//! every machine, and none keeps the others waiting.

use std::sync::Arc;
use std::sync::atomic::{AtomicBool, AtomicI64, Ordering};

/// Poses of one plan with its candidates: about three seconds on two cores. A usual plan takes 1 000 to 60 000.
const MOST: i64 = 600_000;
/// What a pose that cannot be reached costs: the branch is followed to its end to say so.
pub(crate) const UNREACHED: i64 = 15;

/// What is left to spend, shared by every copy, and whether anybody still waits for what it is spent on.
#[derive(Debug, Clone)]
pub struct Budget {
    left: Arc<AtomicI64>,
    ended: Arc<AtomicBool>,
}

impl Default for Budget {
    fn default() -> Self {
        Self::of(MOST)
    }
}

impl Budget {
    fn of(poses: i64) -> Self {
        Self { left: Arc::new(AtomicI64::new(poses)), ended: Arc::default() }
    }

    /// For one side with one of the many sets of a search.
    pub(crate) fn of_a_set() -> Self {
        Self::of(MOST / 20)
    }

    /// A full one that ends with this one.
    #[must_use]
    pub fn another(&self) -> Self {
        Self { ended: self.ended.clone(), ..Self::default() }
    }

    /// Takes so many poses; `false` when there are none left.
    pub(crate) fn spend(&self, poses: i64) -> bool {
        !self.ended.load(Ordering::Relaxed) && self.left.fetch_sub(poses, Ordering::Relaxed) >= poses
    }

    /// Nobody waits for the answer any more: nothing is left to spend, in any copy.
    pub fn end(&self) {
        self.ended.store(true, Ordering::Relaxed);
    }

    /// Whether more was asked for than there was.
    #[must_use]
    pub fn is_spent(&self) -> bool {
        self.ended.load(Ordering::Relaxed) || self.left.load(Ordering::Relaxed) < 0
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_ended_is_spent_in_every_copy_and_in_its_next_of_kin() {
        let a = Budget::default();
        let (b, c) = (a.clone(), a.another());
        assert!(a.spend(MOST) && !a.spend(1) && b.is_spent());
        assert!(c.spend(10) && !c.is_spent());
        b.end();
        assert!(!c.spend(1) && c.is_spent());
    }
}
