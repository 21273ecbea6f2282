//! The gate of heights: what each corner came to against the plan, the turns of collar or bolt that bring it there, and the
//! plan as it really stands once somebody goes on at another height.

use super::aftercare::{Aftercare, Trim};
use super::facts::VehicleFacts;
use super::record::{Done, Reading};
use super::returned::{CameToRest, CornerBack, Look, height_at_gate, turned_by};
use crate::plan::{CarAnswer, CarInput};
use crate::sheet::{GateAbout, HEIGHT_MM, Mark, StepId};
use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::geometry::{Axle, Side};
use chrono::{DateTime, Utc};

/// Farthest a side stands from the plan of its axle and is still planned on, mm: as the plan's own trim.
const MOST_TRIM_MM: f64 = 60.0;

/// When a corner was trimmed last at the gate of heights; what could not be turned left its tape as true as it was.
pub(super) fn trimmed_at(care: &Aftercare, axle: Axle) -> Option<DateTime<Utc>> {
    care.at_gate.iter().filter(|t| t.axle == axle && t.moved()).map(|t| t.at).max()
}

fn corner(
    look: &Look<'_>,
    (input, answer): (&CarInput, &CarAnswer),
    (axle, side): (Axle, Side),
) -> Option<CornerBack> {
    let result = answer.axles[axle].as_ref()?;
    let plan = if side == Side::Left { &result.left } else { &result.right };
    let trims: Vec<&Trim> = look.care.at_gate.iter().filter(|t| t.axle == axle && t.side == side).collect();
    let moved: Vec<&&Trim> = trims.iter().filter(|t| t.moved()).collect();
    let at = |span| height_at_gate(look.facts, look.readings, (axle, side), span);
    let back = at((None, moved.first().map(|t| t.at)));
    let now = at((moved.last().map(|t| t.at), None));
    // What a tape cannot tell is no miss: as the gate has it.
    let miss = now.map_or(0.0, |n| n.mm - plan.planned_height_mm);
    let off_mm = if miss.abs() > HEIGHT_MM { miss } else { 0.0 };
    let rest = CameToRest::of(now.map(|_| off_mm), !moved.is_empty());
    let trim = now.filter(|_| off_mm != 0.0);
    let trim =
        trim.and_then(|n| look.trim_order(input, Some(plan), (axle, side), &n, plan.planned_height_mm));
    Some(CornerBack {
        axle,
        side,
        set_mm: None,
        said_mm: Some(plan.planned_height_mm),
        said_band_mm: 0.0,
        ring_mm: HEIGHT_MM,
        back_mm: back.map(|h| h.mm),
        now_mm: now.map(|h| h.mm),
        rest,
        off_mm,
        trim,
        turned_by: turned_by(look.facts, look.care, input, axle),
        trims: trims.into_iter().cloned().collect(),
    })
}

/// Every corner whose height the plan changes, at the gate of heights; none once that gate is behind, or before anything was
/// taped there.
pub(super) fn settled_of(
    look: &Look<'_>,
    done: &[&Done],
    (input, answer): (&CarInput, &CarAnswer),
) -> Vec<CornerBack> {
    if done.iter().any(|d| d.step == Mark::Step(StepId::Settled)) {
        return Vec::new();
    }
    let mut out = Vec::new();
    for axle in [Axle::Front, Axle::Rear].into_iter().filter(|a| input.plan.axles[*a].changes_height()) {
        out.extend(Side::BOTH.into_iter().filter_map(|s| corner(look, (input, answer), (axle, s))));
    }
    if out.iter().all(|c| c.rest == CameToRest::NotRead) { Vec::new() } else { out }
}

/// The plan as the car really stands: where somebody went on at heights that are not as planned, everything after is worked
/// out at those.
#[must_use]
pub fn as_it_settled(
    facts: &VehicleFacts,
    readings: &[Reading],
    done: &[&Done],
    input: CarInput,
) -> CarInput {
    let opened = done.iter().find(|d| d.step == Mark::Step(StepId::Settled));
    let about = |a: GateAbout| matches!(a, GateAbout::Height | GateAbout::HeightApart);
    if !opened.is_some_and(|d| d.record.off.iter().any(|f| about(f.about) && !f.stale)) {
        return input;
    }
    let mut out = input;
    for axle in [Axle::Front, Axle::Rear] {
        if !out.plan.axles[axle].changes_height() {
            continue;
        }
        let Some(base) = out.base.axles[axle].as_ref() else { continue };
        let plan = &out.plan.axles[axle];
        let off = Sides::of(|side| {
            let planned = base.read[side].height_mm + plan.height_change_mm + plan.trim_mm[side];
            height_at_gate(facts, readings, (axle, side), (None, None)).map(|h| h.mm - planned)
        });
        let (Some(l), Some(r)) = (off.left, off.right) else { continue };
        let mean = f64::midpoint(l, r);
        let plan = &mut out.plan.axles[axle];
        plan.height_change_mm += mean;
        for (side, v) in [(Side::Left, l), (Side::Right, r)] {
            plan.trim_mm[side] = (plan.trim_mm[side] + v - mean).clamp(-MOST_TRIM_MM, MOST_TRIM_MM);
        }
    }
    out
}
