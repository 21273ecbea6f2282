//! What a live axle does as the body rises over it: sideways walk, steering wheel off centre, pinion.

use bold_stance_kinematics::linkage::{SolidAxleCorner, Unreachable};
use serde::{Deserialize, Serialize};

/// One height of a live axle.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LivePoint {
    /// Body height gained, mm (heave is its negative).
    pub height_mm: f64,
    /// Axle to the left positive, mm.
    pub lateral_shift_mm: f64,
    /// Axle forward positive, mm.
    pub wheel_x_mm: f64,
    /// Turn of the axle, degrees: its nose down positive; the pinion turns with it.
    pub pitch_deg: f64,
    /// Caster, degrees, when it steers.
    pub caster_deg: Option<f64>,
    /// Steering wheel off centre, degrees, right positive, when there is a drag link: turning it back by this
    /// much sets the road wheels straight again.
    pub steering_wheel_deg: Option<f64>,
}

/// A live axle over body heights, mm gained; heights that bind are left out.
#[must_use]
pub fn live_axle_curve(c: &SolidAxleCorner, heights: &[f64], steering_ratio: f64) -> Vec<LivePoint> {
    let Ok(design) = c.axle_pose(0.0, 0.0) else { return Vec::new() };
    let at = |h: f64| -> Result<LivePoint, Unreachable> {
        let a = c.axle_pose(-h, 0.0)?;
        // The drag link turns the road wheels; the driver holds them straight by turning the steering
        // wheel the other way. Toe-in of the left wheel is a turn to the right.
        let steering_wheel_deg = c.drag_link_turn(&a).map(|t| (-t * steering_ratio).to_degrees());
        Ok(LivePoint {
            height_mm: h,
            lateral_shift_mm: a.midpoint.y - design.midpoint.y,
            wheel_x_mm: a.midpoint.x - design.midpoint.x,
            pitch_deg: a.pitch.to_degrees(),
            caster_deg: c.left_wheel(&a).axis.map(|x| x.caster().to_degrees()),
            steering_wheel_deg,
        })
    };
    heights.iter().filter_map(|h| at(*h).ok()).collect()
}
