//! What an axle's height is turned by, as found.

use super::Sides;
use crate::adjuster::Held;
use bold_stance_units::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// What is turned for height.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum HeightKind {
    /// Nothing: springs, spacers or blocks are changed.
    Nothing,
    /// Adjusting bolt of a torsion bar.
    TorsionBolt,
    /// Threaded collar under a coil spring.
    Collar,
    /// Levels of an air suspension.
    Air,
    /// Holes of a shackle or hanger.
    Shackle,
}

/// How it is turned for height.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct HeightBy {
    /// What is turned.
    pub kind: HeightKind,
    /// Thread of a collar, mm a turn, where it was measured.
    #[serde(default)]
    pub pitch_mm: Option<f64>,
    /// Thread that shows as found, mm: of a bolt above its block, of a body above its collar.
    #[serde(default)]
    pub shows_mm: Sides<Option<f64>>,
    /// What holds it on a side.
    #[serde(default)]
    pub held: Sides<Option<Held>>,
}

impl HeightBy {
    /// Everything out of range, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        out.extend(
            self.pitch_mm.and_then(|v| in_range(&format!("{at}pitch_mm"), v, 0.5, 6.0, "mm a turn").err()),
        );
        for (side, v) in self.shows_mm.each() {
            let field = format!("{at}shows_mm.{}", side.word());
            out.extend(v.and_then(|v| in_range(&field, v, 0.0, 300.0, "mm").err()));
        }
        out
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_wild_thread_is_named_on_its_side() {
        let shows_mm = Sides { left: Some(31.0), right: Some(900.0) };
        let h =
            HeightBy { kind: HeightKind::TorsionBolt, pitch_mm: Some(9.0), shows_mm, held: Sides::default() };
        let fields: Vec<_> = h.problems("x.").into_iter().map(|p| p.field).collect();
        assert_eq!(fields, ["x.pitch_mm", "x.shows_mm.right"]);
    }
}
