//! How good a setting is, in the order in which it is asked: no angle outside that can be inside; then no knob
//! moved that need not move; then near the windows' middle; then little movement.

use std::cmp::Ordering;

/// One setting's score; smaller is better.
#[derive(Debug, Clone, Copy)]
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

impl Ord for Score {
    /// The better one is less.
    fn cmp(&self, other: &Self) -> Ordering {
        let coarse = |v: f64| (v / GRAIN).round();
        coarse(self.over)
            .total_cmp(&coarse(other.over))
            .then(self.knobs.cmp(&other.knobs))
            .then(coarse(self.centre).total_cmp(&coarse(other.centre)))
            .then(self.movement.total_cmp(&other.movement))
    }
}

impl PartialOrd for Score {
    fn partial_cmp(&self, other: &Self) -> Option<Ordering> {
        Some(self.cmp(other))
    }
}

impl PartialEq for Score {
    fn eq(&self, other: &Self) -> bool {
        self.cmp(other).is_eq()
    }
}

impl Eq for Score {}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn inside_goes_before_leaving_alone_and_that_before_the_middle() {
        let s = |over, knobs, centre, movement| Score { over, knobs, centre, movement };
        assert!(s(0.0, 3, 9.0, 9.0) < s(0.01, 0, 0.0, 0.0));
        assert!(s(0.0, 1, 9.0, 9.0) < s(0.0, 2, 0.0, 0.0));
        assert!(s(0.0, 1, 0.1, 9.0) < s(0.0, 1, 0.2, 0.0));
        assert!(s(0.0, 1, 0.1, 0.1) < s(0.0, 1, 0.1, 0.2));
        assert!(s(0.0, 1, 0.1, 0.1) >= s(0.0, 1, 0.1, 0.1));
    }
}
