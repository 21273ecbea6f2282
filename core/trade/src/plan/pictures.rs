//! An answer with only the pictures that are looked at.
//!
//! Weaves and outlines are nine tenths of what is drawn and two thirds of an answer's bytes; a page shows those of one axle, most
//! pages none. What the words and verdicts say hangs on none of them.

use super::car::CarAnswer;
use super::result::PlanResult;
use serde::{Deserialize, Serialize};

/// Whose maps are looked at.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Pictures {
    /// No map is on the page.
    None,
    /// The front axle's.
    Front,
    /// The rear axle's.
    Rear,
    /// Those of both axles.
    Both,
}

/// A tenth of a thousandth of a degree: a map of ten degrees would have to be 100 000 px wide to show it.
fn drawn(points: &mut [[f64; 2]]) {
    for v in points.iter_mut().flatten() {
        *v = (*v * 1e4).round() / 1e4;
    }
}

fn pictured(result: &mut PlanResult, looked_at: bool) {
    for side in [&mut result.left, &mut result.right] {
        for reach in [side.reach.as_mut(), side.bare_reach.as_mut()].into_iter().flatten() {
            if looked_at {
                drawn(&mut reach.outline);
                drawn(&mut reach.dots);
                reach.threads.iter_mut().for_each(|t| drawn(t));
            } else {
                reach.outline.clear();
                reach.dots.clear();
                reach.threads.clear();
            }
        }
    }
    for c in &mut result.candidates {
        for outline in [&mut c.left_outline, &mut c.right_outline] {
            if looked_at { drawn(outline) } else { outline.clear() }
        }
    }
}

impl CarAnswer {
    /// The same answer with the maps of these axles to the ten thousandth of a degree, and without the others'.
    #[must_use]
    pub fn pictured(mut self, of: Pictures) -> Self {
        if let Some(front) = &mut self.axles.front {
            pictured(front, matches!(of, Pictures::Front | Pictures::Both));
        }
        if let Some(rear) = &mut self.axles.rear {
            pictured(rear, matches!(of, Pictures::Rear | Pictures::Both));
        }
        self
    }
}
