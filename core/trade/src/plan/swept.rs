//! What a jack sweep said of a plan's points.

use bold_stance_car::fit::Spread;
use bold_stance_kinematics::geometry::{Geometry, Side};
use bold_stance_units::said::Said;

/// What a jack sweep said.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Swept {
    /// What is left to doubt of the points; none when the sweep does not go with them: then they stand as told.
    pub(crate) spreads: Option<Vec<Spread>>,
    /// Suspicions and questions of the fit.
    pub notes: Vec<Said>,
}

impl Swept {
    /// The errors of one side's points, in that side's own left-hand coordinates; none where that side has points of its
    /// own, which the sweep of the other wheel says nothing of.
    pub(crate) fn of_side(&self, geometry: &Geometry, side: Side) -> Option<Vec<Spread>> {
        if side == Side::Right && geometry.right.is_some() {
            return None;
        }
        let mirrors = geometry.points.mirrors();
        let seen = |s: &Spread| match side {
            Side::Left => s.clone(),
            Side::Right => s.mirrored(&mirrors),
        };
        self.spreads.as_ref().map(|all| all.iter().map(seen).collect())
    }
}
