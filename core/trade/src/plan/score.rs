//! How good a setting is, in the order in which it is asked: nothing brought to meet something; no angle outside that
//! can be inside; what meets already freed where it can be; then no knob moved that need not move; then near the
//! windows' middle; then little movement.

use super::foul::Foul;
use std::cmp::Ordering;

/// One setting's score; smaller is better.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Score {
    /// What it brings past a measured limit.
    pub foul: Foul,
    /// Weighed degrees outside the windows (and the cross limits, where two sides are scored together).
    pub over: f64,
    /// Knobs moved from where they stand, as `judge::knob` counts them.
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
        // Gaps are measured to a tenth of a millimetre at best.
        let gap = |v: f64| (v * 10.0).round();
        coarse(self.foul.worse)
            .total_cmp(&coarse(other.foul.worse))
            .then(coarse(self.over).total_cmp(&coarse(other.over)))
            .then(gap(self.foul.left).total_cmp(&gap(other.foul.left)))
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
        let s =
            |over, knobs, centre, movement| Score { foul: Foul::default(), over, knobs, centre, movement };
        assert!(s(0.0, 3, 9.0, 9.0) < s(0.01, 0, 0.0, 0.0));
        assert!(s(0.0, 1, 9.0, 9.0) < s(0.0, 2, 0.0, 0.0));
        assert!(s(0.0, 1, 0.1, 9.0) < s(0.0, 1, 0.2, 0.0));
        assert!(s(0.0, 1, 0.1, 0.1) < s(0.0, 1, 0.1, 0.2));
        assert!(s(0.0, 1, 0.1, 0.1) >= s(0.0, 1, 0.1, 0.1));
        let fouls = |worse, left| Score { foul: Foul { worse, left }, ..s(0.0, 0, 0.0, 0.0) };
        assert!(s(3.0, 9, 9.0, 9.0) < fouls(0.2, 0.2));
        assert!(fouls(0.0, 2.0) < s(0.01, 0, 0.0, 0.0) && s(0.0, 9, 9.0, 9.0) < fouls(0.0, 2.0));
    }
}
