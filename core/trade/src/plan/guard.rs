//! What a setting may not do: bring something measured on this car past its limit. A condition of the setting solver,
//! before the aim is looked at.

use super::bench::{Bench, Watch};
use super::checks::{Checked, Past};
use super::foul::Foul;
use crate::part::PartLimits;
use bold_stance_car::vehicle::Limits;
use bold_stance_kinematics::linkage::Corner;

/// Where a joint stands past its limit before anything is turned, so much more is let pass: less than anyone measures,
/// degrees (judgement, no source). A gap that is too small already may close but not more: it is told of, and the aim is
/// not given up for what fouls anyway.
const SLACK: f64 = 0.5;

/// What was measured on one corner and how it stands with nothing turned.
#[derive(Debug, Clone)]
pub(crate) struct Guard {
    found: Corner,
    found_travel: f64,
    /// Travel at the planned height, mm.
    travel_mm: f64,
    free_gain: f64,
    limits: Limits,
    parts: PartLimits,
    tyre_gain: f64,
    /// Past each limit with nothing turned.
    start: Vec<Past>,
}

impl Guard {
    /// What is watched on a bench; `None` where nothing was measured that a setting can foul.
    pub(crate) fn of(checked: &Checked<'_>) -> Option<Self> {
        if !Checked::can_foul(checked.limits, &checked.parts) {
            return None;
        }
        Some(Self {
            found: checked.found.clone(),
            found_travel: checked.found_travel,
            travel_mm: checked.travel_mm,
            free_gain: checked.free_gain,
            limits: *checked.limits,
            parts: checked.parts,
            tyre_gain: checked.tyre_gain,
            start: checked.past(),
        })
    }

    fn checked<'a>(&'a self, bench: &'a Bench, positions: &'a [f64]) -> Checked<'a> {
        bench.budget.spend(2);
        Checked {
            found: &self.found,
            found_travel: self.found_travel,
            bench,
            travel_mm: self.travel_mm,
            positions,
            free_gain: self.free_gain,
            limits: &self.limits,
            parts: self.parts,
            tyre_gain: self.tyre_gain,
        }
    }
}

impl Watch for Guard {
    fn past(&self, bench: &Bench, positions: &[f64]) -> Vec<f64> {
        self.checked(bench, positions).past().into_iter().map(|p| p.by).collect()
    }

    fn sum(&self, past: &mut dyn Iterator<Item = f64>) -> Foul {
        let mut out = Foul::default();
        for (now, stood) in past.zip(&self.start) {
            let allowed = if stood.by > 0.0 { stood.touches.max(stood.by + SLACK) } else { 0.0 };
            out.worse += (now - allowed).max(0.0);
            out.left += now.max(0.0);
        }
        out
    }
}
