//! What a car taught of height once it left: written down when its next look is set or its job is closed.

use super::trim::{Look, turned_by};
use crate::memory::{HeightsTaught, SettleTrial, TurnTrial, most_of};
use crate::plan::CarInput;
use bold_stance_kinematics::geometry::{Axle, Side};

/// What turns gave on this car, and how far the corners whose height was changed settled before it came back first.
#[must_use]
pub(super) fn heights_taught(look: &Look<'_>, input: &CarInput) -> HeightsTaught {
    let axles = [Axle::Front, Axle::Rear];
    let turns = axles.into_iter().filter_map(|axle| {
        let by = turned_by(look.facts, look.care, input, axle)?;
        TurnTrial::of(by, axle, &look.records(axle))
    });
    let changed = axles.into_iter().filter(|a| input.plan.axles[*a].changes_height());
    let settled = changed.flat_map(|axle| {
        let way = most_of(&input.plan.axles[axle].ways);
        Side::BOTH.into_iter().filter_map(move |side| {
            let mm = look.settled_first((axle, side))?;
            Some(SettleTrial { way, axle, side, mm })
        })
    });
    HeightsTaught { turns: turns.collect(), settled: settled.collect(), ..HeightsTaught::default() }
}
