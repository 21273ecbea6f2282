//! The gates that read heights (once it settled, and behind arms that can have moved them): what each corner came to against
//! the plan, the turns of collar or bolt that bring it there, and the plan as it really stands once somebody goes on at
//! another height.

use super::aftercare::{Aftercare, Trim};
use super::bench::visit_of;
use super::facts::VehicleFacts;
use super::record::{Done, Reading};
use super::trim::{CameToRest, CornerBack, Look, height_at_gate, turned_by};
use crate::plan::{CarAnswer, CarInput};
use crate::reading::Visit;
use crate::sheet::{GateAbout, GateReading, HEIGHT_MM, Mark, SheetStep, StepId};
use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::geometry::{Axle, Side};
use chrono::{DateTime, Utc};

/// Farthest a side stands from the plan of its axle and is still planned on, mm: as the plan's own trim.
const MOST_TRIM_MM: f64 = 60.0;

/// When a corner was trimmed last at a gate of heights; what could not be turned left its tape as true as it was.
pub(super) fn trimmed_at(care: &Aftercare, axle: Axle) -> Option<DateTime<Utc>> {
    care.at_gate.iter().filter(|t| t.axle == axle && t.moved()).map(|t| t.at).max()
}

fn corner(
    look: &Look<'_>,
    (input, answer): (&CarInput, &CarAnswer),
    (axle, side): (Axle, Side),
    visit: Visit,
) -> Option<CornerBack> {
    let result = answer.axles[axle].as_ref()?;
    let plan = if side == Side::Left { &result.left } else { &result.right };
    let trims = look.at_gate((axle, side), visit);
    let moved: Vec<&&Trim> = trims.iter().filter(|t| t.moved()).collect();
    let at = |span| height_at_gate(look.facts, look.readings, visit, (axle, side), span);
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

/// The gate that asks for the heights of an axle now, by the visit they are taped at.
fn asking(steps: &[SheetStep], done: &[&Done], axle: Axle) -> Option<Visit> {
    let behind = |id: &StepId| done.iter().any(|d| d.step == Mark::Step(id.clone()));
    let asks = |id: &StepId| {
        let of = steps.iter().find(|s| s.id == *id);
        of.is_some_and(|s| s.needs.iter().any(|n| n.axle == axle && n.quantity == GateReading::Height))
    };
    let now = if behind(&StepId::Settled) { StepId::Read(axle) } else { StepId::Settled };
    (asks(&now) && !behind(&now)).then(|| visit_of(&now)).flatten()
}

/// Every corner whose height is asked for by a gate that is not behind yet; none before anything was taped at it.
pub(super) fn settled_of(
    look: &Look<'_>,
    (steps, done): (&[SheetStep], &[&Done]),
    (input, answer): (&CarInput, &CarAnswer),
) -> Vec<CornerBack> {
    let mut out = Vec::new();
    for axle in [Axle::Front, Axle::Rear] {
        let Some(visit) = asking(steps, done, axle) else { continue };
        let own = Side::BOTH.into_iter().filter_map(|s| corner(look, (input, answer), (axle, s), visit));
        let own: Vec<CornerBack> = own.collect();
        // Behind its arms an axle is told of once its own tapes are there.
        if visit == Visit::Settled || own.iter().any(|c| c.rest != CameToRest::NotRead) {
            out.extend(own);
        }
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
    let about = |a: GateAbout| matches!(a, GateAbout::Height | GateAbout::HeightApart);
    // Gone on from at heights that are off.
    let gone_on = |id: StepId, axle: Axle| {
        let opened = done.iter().find(|d| d.step == Mark::Step(id.clone()));
        let off = |d: &&&Done| {
            d.record.off.iter().any(|f| about(f.about) && !f.stale && f.axle.is_none_or(|a| a == axle))
        };
        opened.filter(off).and_then(|_| visit_of(&id))
    };
    let mut out = input;
    for axle in [Axle::Front, Axle::Rear] {
        let visit = gone_on(StepId::Read(axle), axle).or_else(|| {
            // Heights of either axle turn the body: all of them count as they were read there.
            [Axle::Front, Axle::Rear].into_iter().find_map(|a| gone_on(StepId::Settled, a))
        });
        let Some(visit) = visit.filter(|_| out.plan.axles[axle].changes_height()) else { continue };
        let Some(base) = out.base.axles[axle].as_ref() else { continue };
        let plan = &out.plan.axles[axle];
        let off = Sides::of(|side| {
            let planned = base.read[side].height_mm + plan.height_change_mm + plan.trim_mm[side];
            height_at_gate(facts, readings, visit, (axle, side), (None, None)).map(|h| h.mm - planned)
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
