//! How good a setting is, in the order in which it is asked: no angle outside that can be inside; then no knob
//! moved that need not move; then near the windows' middle; then little movement.

use std::cmp::Ordering;

/// One setting's score; smaller is better.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(crate) struct Score {
    /// Weighed degrees outside the windows (and the cross limits, where two sides are scored together).
    pub over: f64,
    /// Knobs moved from where they stand.
    pub knobs: u32,
    /// Squared distance to the windows' middles, in half widths.
    pub centre: f64,
    /// Movement in parts of each range.
    pub movement: f64,
}

/// Degrees and half widths below which two settings are alike.
const GRAIN: f64 = 1e-6;

impl Score {
    /// Which is better: `Less` is.
    pub fn order(&self, other: &Self) -> Ordering {
        let coarse = |v: f64| (v / GRAIN).round();
        coarse(self.over)
            .total_cmp(&coarse(other.over))
            .then(self.knobs.cmp(&other.knobs))
            .then(coarse(self.centre).total_cmp(&coarse(other.centre)))
            .then(self.movement.total_cmp(&other.movement))
    }

    /// Whether it is better.
    pub fn beats(&self, other: &Self) -> bool {
        self.order(other).is_lt()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn inside_goes_before_leaving_alone_and_that_before_the_middle() {
        let s = |over, knobs, centre, movement| Score { over, knobs, centre, movement };
        assert!(s(0.0, 3, 9.0, 9.0).beats(&s(0.01, 0, 0.0, 0.0)));
        assert!(s(0.0, 1, 9.0, 9.0).beats(&s(0.0, 2, 0.0, 0.0)));
        assert!(s(0.0, 1, 0.1, 9.0).beats(&s(0.0, 1, 0.2, 0.0)));
        assert!(s(0.0, 1, 0.1, 0.1).beats(&s(0.0, 1, 0.1, 0.2)));
        assert!(!s(0.0, 1, 0.1, 0.1).beats(&s(0.0, 1, 0.1, 0.1)));
    }
}
