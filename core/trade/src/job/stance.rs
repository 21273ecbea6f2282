//! How the car stands: heights hub to arch of each axle as taped at a visit, and the rake they make.

use super::facts::VehicleFacts;
use super::height::{frame, heights_at, radius};
use super::record::Reading;
use crate::plan::Stands;
use crate::reading::Visit;
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::Axle;
use serde::{Deserialize, Serialize};

/// Heights of an axle, hub centre to arch lip.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AxleStance {
    /// Each side as read, mm; none where it was not.
    pub sides: Sides<Option<f64>>,
    /// Mean of what was read, mm; of a rear axle nobody read the height its facts tell.
    pub mm: Option<f64>,
    /// Left over right, mm; none until both were read.
    pub left_over_right_mm: Option<f64>,
}

/// Heights of a car as read at a visit.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Stance {
    /// Each axle.
    pub axles: Axles<AxleStance>,
    /// Nose down by the arches over the floor, degrees; none until both axles are known.
    pub rake_deg: Option<f64>,
}

impl AxleStance {
    fn of(sides: Sides<Option<f64>>, told: Option<f64>) -> Self {
        let mm = match (sides.left, sides.right) {
            (Some(l), Some(r)) => Some(f64::midpoint(l, r)),
            (one, other) => one.or(other).or(told),
        };
        let left_over_right_mm = sides.both().map(|s| s.left - s.right);
        Self { sides, mm, left_over_right_mm }
    }
}

/// The car as read at a visit. Only what was read there counts, but for the height the facts tell of a rear axle: in front
/// they tell the height the points were taken at, which is not how the car stands.
#[must_use]
pub fn stance_at(f: &VehicleFacts, readings: &[Reading], visit: Visit) -> Stance {
    let axles = Axles::of(|a| {
        let told = (a == Axle::Rear && visit == Visit::Found).then_some(f.axles.rear.height_mm);
        AxleStance::of(heights_at(f, readings, visit, a), told)
    });
    let level = Axles::default();
    let radius_mm = Axles::of(|a| radius(f, a));
    let stands = Stands { mm: axles.map(|a| a.mm), radius_mm, ..Stands::default() };
    Stance { rake_deg: stands.raised(level, level, f.wheelbase_mm).rake_deg, axles }
}

/// What a plan starts from.
#[must_use]
pub(super) fn stands(f: &VehicleFacts, readings: &[Reading]) -> Stands {
    let mm = stance_at(f, readings, Visit::Found).axles.map(|a| a.mm);
    let frame_mm = Axles::of(|a| frame(readings, Visit::Found, a));
    Stands { mm, radius_mm: Axles::of(|a| radius(f, a)), frame_mm }
}
