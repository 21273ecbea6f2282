//! Work on a wheel and what was read of it after.

use super::learner::AnglesRead;
use std::collections::BTreeMap;

/// Work on a wheel, then what was read of it before the next work.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct WorkLoop {
    /// Where every adjuster that was turned stands after it, by name: as really done.
    pub stands: BTreeMap<String, f64>,
    /// Hub to arch as read, mm; as planned when absent.
    pub height_mm: Option<f64>,
    /// What was read.
    pub read: AnglesRead,
    /// What was read before that after the same work, of the same angles.
    pub earlier: AnglesRead,
    /// Whether it was turned otherwise than the plan ordered.
    pub otherwise: bool,
    /// After how many rounds of work on the axle; 0 is before the first.
    pub rounds: u32,
    /// Wheelbase of this side, mm, and its standard deviation.
    pub wheelbase: Option<(f64, f64)>,
    /// How far a live axle has to go to the left to stand central, mm, and its standard deviation.
    pub centre: Option<(f64, f64)>,
}
