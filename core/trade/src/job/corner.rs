//! The corner file of a planned car: the car bent to its readings, with each axle's parts, ways, trim and adjusters as set.

use super::base::wheel_read;
use super::facts::VehicleFacts;
use super::record::{Reading, standing};
use super::stance::stance_at;
use crate::part::Part;
use crate::plan::{Budget, CarInput, WayKind, plan_within, set_edits};
use crate::reading::{Place, Quantity, ReadAxle, ReadSide, Seen, Visit};
use bold_stance_car::metrics::{CornerFile, CornerFileRequest, corner_file};
use bold_stance_car::vehicle::{Axles, Gains, Sides};
use bold_stance_kinematics::edit::SetEdits;
use bold_stance_kinematics::geometry::{Axle, Layout, Side};
use bold_stance_units::problem::Problem;

/// What the corner file of a job is asked with: the car as it came, and what was read on it.
///
/// # Errors
/// A problem at the front axle's points while there are none.
pub fn corner_request(
    f: &VehicleFacts,
    readings: &[Reading],
    seen: &[Seen],
) -> Result<CornerFileRequest, Problem> {
    let found = |q, place| standing(readings, Visit::Found, q, place).map(|r| r.value);
    let stood = stance_at(f, readings, Visit::Found);
    // A height nobody read is the one the points were taken at.
    let gain =
        |axle: Axle, side: Side| stood.axles[axle].sides[side].map_or(0.0, |h| h - f.axles[axle].height_mm);
    // A live axle alone stands beside the middle; one in front comes before one behind.
    let live = |a: &Axle| f.axles[*a].geometry.as_ref().is_some_and(|g| g.layout() == Layout::SolidAxle);
    let beside = match [Axle::Front, Axle::Rear].into_iter().find(live) {
        Some(Axle::Rear) => ReadAxle::Rear,
        _ => ReadAxle::Front,
    };
    let base = |side| found(Quantity::Wheelbase, Place { axle: ReadAxle::Both, side });
    let left_and_right = Sides { left: base(ReadSide::Left), right: base(ReadSide::Right) };
    Ok(CornerFileRequest {
        car: f.to_car()?,
        arrived: Gains {
            left_front: gain(Axle::Front, Side::Left),
            right_front: gain(Axle::Front, Side::Right),
            left_rear: gain(Axle::Rear, Side::Left),
            right_rear: gain(Axle::Rear, Side::Right),
        },
        planned: None,
        read: Axles::of(|a| Sides::of(|s| wheel_read(readings, seen, a, s)).both()),
        axle_offset_mm: found(Quantity::AxleOffset, Place { axle: beside, side: ReadSide::Both }),
        wheelbases_mm: left_and_right.both(),
        set: Axles::default(),
        knowledge: f.axles.as_ref().map(|a| a.knowledge),
    })
}

/// What a plan does to an axle, as the corner file takes it.
struct AxleSet {
    edits: Sides<SetEdits>,
    gain_mm: f64,
    body_mm: f64,
}

/// A corner file whose planned column is the plan's.
///
/// # Errors
/// Every [`Problem`], by field under `car` or `file`.
pub fn planned_corner_file(
    mut page: CornerFileRequest,
    car: &CarInput,
    parts: &[Part],
    budget: &Budget,
) -> Result<CornerFile, Vec<Problem>> {
    let under = |at: &str, list: Vec<Problem>| -> Vec<Problem> {
        list.into_iter().map(|p| Problem { field: format!("{at}.{}", p.field), ..p }).collect()
    };
    let faults = car.problems();
    if !faults.is_empty() {
        return Err(under("car", faults));
    }
    let set = |axle: Axle| -> Result<Option<AxleSet>, Vec<Problem>> {
        let Some(input) = car.axle(axle) else { return Ok(None) };
        let home =
            |list: Vec<Problem>| under("car", list.into_iter().map(|p| CarInput::at_home(axle, p)).collect());
        let result = plan_within(&input, parts, &budget.another()).map_err(home)?;
        let gain_mm = result.stop.as_ref().map_or(input.own().height_change_mm, |s| s.used_mm);
        let lifted = input.ways.iter().filter(|w| w.kind == WayKind::BodyLift);
        let body_mm = lifted.map(|w| w.gain_mm).sum::<f64>();
        let [left, right] = set_edits(&input, parts, &result).map_err(home)?;
        let edits = Sides { left, right };
        Ok(Some(AxleSet { edits, gain_mm, body_mm }))
    };
    let mut planned = page.planned.unwrap_or_default();
    for axle in [Axle::Front, Axle::Rear] {
        let (decided, height) = (&car.plan.axles[axle], &mut planned.axles[axle]);
        height.gain_mm = decided.height_change_mm;
        height.trim_mm = decided.trim_mm;
        (height.settle_mm, height.load_mm) = (decided.settle_mm, decided.load_mm);
        if let Some(s) = set(axle)? {
            (page.set[axle], height.gain_mm, height.body_mm) = (Some(s.edits), s.gain_mm, s.body_mm);
        }
    }
    page.planned = Some(planned);
    corner_file(&page).map_err(|list| under("file", list))
}
