//! The corner file of a planned car: the car bent to its readings, with each axle's parts, ways, trim and adjusters as set.

use crate::part::Part;
use crate::plan::{Budget, CarInput, WayKind, plan_within, set_edits};
use bold_stance_car::metrics::{CornerFile, CornerFileRequest, corner_file};
use bold_stance_kinematics::edit::SetEdits;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::problem::Problem;

/// What a plan does to an axle, as the corner file takes it.
struct AxleSet {
    edits: [SetEdits; 2],
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
        let gain_mm = result.stop.as_ref().map_or(input.height_change_mm, |s| s.used_mm);
        let lifted = input.ways.iter().filter(|w| w.kind == WayKind::BodyLift);
        let body_mm = lifted.map(|w| w.gain_mm).sum::<f64>();
        let edits = set_edits(&input, parts, &result).map_err(home)?;
        Ok(Some(AxleSet { edits, gain_mm, body_mm }))
    };
    let (front, rear) = (set(Axle::Front)?, set(Axle::Rear)?);
    let mut planned = page.planned.unwrap_or_default();
    let decided = &car.plan.axles;
    planned.front_mm = decided.front.height_change_mm;
    planned.rear_mm = decided.rear.height_change_mm;
    planned.front_trim_mm = decided.front.trim_mm.into_pair();
    planned.rear_trim_mm = decided.rear.trim_mm.into_pair();
    (planned.settle_mm, planned.load_mm) = (decided.front.settle_mm, decided.front.load_mm);
    if let Some(s) = front {
        (page.front_set, planned.front_mm, planned.body_mm[0]) = (Some(s.edits), s.gain_mm, s.body_mm);
    }
    if let Some(s) = rear {
        (page.rear_set, planned.rear_mm, planned.body_mm[1]) = (Some(s.edits), s.gain_mm, s.body_mm);
    }
    page.planned = Some(planned);
    corner_file(&page).map_err(|list| under("file", list))
}
