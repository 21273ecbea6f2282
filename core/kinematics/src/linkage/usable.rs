//! What a geometry has to do before a car can be planned on it: close over some travel, steer in front.

use super::{Corner, Linkage};
use crate::geometry::{Geometry, Side};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// Travel every usable corner must close over, mm either way (judgement, no source: less is a point that is wrong).
const USABLE_TRAVEL: f64 = 30.0;

/// Loops that close at design but hardly away from it; `at` is put before every field.
#[must_use]
pub fn travel_problems(g: &Geometry, at: &str) -> Vec<Problem> {
    let stops = |c: &Corner| {
        [-USABLE_TRAVEL, USABLE_TRAVEL].into_iter().filter_map(|t| c.pose(t, 0.0).err()).collect::<Vec<_>>()
    };
    let right = || said("fault-close-over").mm("by", USABLE_TRAVEL);
    let mut out: Vec<Problem> = stops(&Corner::of(g, Side::Left))
        .into_iter()
        .map(|e| {
            let wrong = said("fault-loop-opens").mm("at", e.limit_travel_mm).say("why", e.says());
            Problem::new(format!("{at}{}", e.field()), wrong, right())
        })
        .collect();
    if g.right.is_some() && out.is_empty() {
        out.extend(stops(&Corner::of(g, Side::Right)).into_iter().map(|e| {
            let wrong = said("fault-loop-opens-right").mm("at", e.limit_travel_mm).say("why", e.says());
            Problem::new(format!("{at}right.{}", e.field()), wrong, right())
        }));
    }
    out
}

/// A front axle that cannot steer, as a problem.
#[must_use]
pub fn steering_problem(g: &Geometry, at: &str) -> Option<Problem> {
    (!Corner::of(g, Side::Left).is_steered()).then(|| {
        Problem::new(
            format!("{at}layout"),
            said("fault-this-front-axle-no-steering"),
            said("fault-layout-tie-rod-link-named"),
        )
    })
}
