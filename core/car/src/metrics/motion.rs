//! Velocities of a wheel under travel, and what follows from them: instant centres and roll centre.

use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::geometry::{Points, WheelAtDesign};
use bold_stance_kinematics::linkage::{Corner, HingeCorner, Linkage, SolidAxleCorner, Unreachable};
use bold_stance_kinematics::wheel::{Pose, camber, contact_point};
use serde::{Deserialize, Serialize};

/// Half step of the central differences, mm: error about 1e-7 of the rate, rounding about 1e-12.
const STEP: f64 = 0.05;

/// A wheel and its rates per mm of travel, chassis axes of the left side.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Motion {
    /// The pose.
    pub pose: Pose,
    /// Tyre on the ground, mm.
    pub contact: Vec3,
    /// Velocity of the contact point.
    pub contact_rate: Vec3,
    /// Velocity of the wheel centre.
    pub centre_rate: Vec3,
    /// Rotation rate of the knuckle about the lateral axis, rad/mm (rolling the top forward positive).
    pub pitch_rate: f64,
    /// Camber rate, rad/mm.
    pub camber_rate: f64,
}

/// Rates at a travel.
///
/// # Errors
/// [`Unreachable`] when the corner does not close just above and below it.
pub fn motion(c: &impl Linkage, travel: f64) -> Result<Motion, Unreachable> {
    rates(
        c.loaded_radius(),
        c.pose(travel, 0.0)?,
        c.pose(travel - STEP, 0.0)?,
        c.pose(travel + STEP, 0.0)?,
        STEP,
    )
}

fn rates(radius: f64, pose: Pose, low: Pose, high: Pose, step: f64) -> Result<Motion, Unreachable> {
    let at = |p: &Pose| contact_point(&p.centre, &p.spin, radius);
    let per = 1.0 / (2.0 * step);
    Ok(Motion {
        pose,
        contact: at(&pose),
        contact_rate: (at(&high) - at(&low)) * per,
        centre_rate: (high.centre - low.centre) * per,
        pitch_rate: (high.up.x - low.up.x) * per,
        camber_rate: (camber(&high.spin) - camber(&low.spin)) * per,
    })
}

impl Motion {
    /// Front-view instant centre `[y, z]` over the contact point's ground, mm; `None` when the wheel moves
    /// without turning.
    #[must_use]
    pub fn front_view_centre(&self) -> Option<[f64; 2]> {
        // Rotation about +x is minus the camber rate.
        let omega = -self.camber_rate;
        (omega.abs() > 1e-9)
            .then(|| [self.contact.y - self.contact_rate.z / omega, self.contact_rate.y / omega])
    }

    /// Forward movement of the contact point per mm of travel with the wheel held by its brake.
    #[must_use]
    pub fn braked_slope(&self) -> f64 {
        self.centre_rate.x - (self.pose.centre.z - self.contact.z) * self.pitch_rate
    }

    /// Side-view instant centre `[x, z]` over the ground, mm, with the wheel held by its brake; `None` when
    /// the knuckle does not turn in the side view.
    #[must_use]
    pub fn side_view_centre(&self) -> Option<[f64; 2]> {
        let w = self.pitch_rate;
        // In x–z a turn w about +y moves a point by (w·z, −w·x).
        (w.abs() > 1e-9).then(|| [self.contact.x + 1.0 / w, -self.braked_slope() / w])
    }
}

/// Roll centre of an axle over the ground, mm; y left positive, 0 on a symmetric car.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RollCentre {
    /// Left of the centre line, mm.
    pub y_mm: f64,
    /// Over the ground, mm.
    pub z_mm: f64,
}

/// Where the lines through both contact points, square to their velocities, meet. Heights are over each
/// wheel's own contact point. `None` when the lines are parallel.
#[must_use]
pub fn roll_centre(left: &Motion, right: &Motion) -> Option<RollCentre> {
    let (l, r) = (left.contact_rate, right.contact_rate);
    // dy·(y − c) + dz·z = 0 on the left, its mirror image on the right.
    let det = l.y * r.z + r.y * l.z;
    if det.abs() < 1e-12 {
        // Parallel lines: both horizontal through the ground (symmetric, no sideways movement) or none.
        return (l.y.abs() < 1e-9 && r.y.abs() < 1e-9).then_some(RollCentre { y_mm: 0.0, z_mm: 0.0 });
    }
    let (bl, br) = (l.y * left.contact.y, r.y * right.contact.y);
    Some(RollCentre { y_mm: (bl * r.z - br * l.z) / det, z_mm: (l.y * br + r.y * bl) / det })
}

/// Roll centre of a solid axle: where a point of the axle stands still as the body rolls over it.
///
/// # Errors
/// [`Unreachable`] when the links bind there.
pub fn live_roll_centre(c: &SolidAxleCorner, heave: f64) -> Result<RollCentre, Unreachable> {
    let a = 1e-4;
    let (low, high) = (c.axle_pose(heave, -a)?, c.axle_pose(heave, a)?);
    let here = c.axle_pose(heave, 0.0)?;
    let rate = (high.midpoint.y - low.midpoint.y) / (2.0 * a);
    Ok(RollCentre { y_mm: here.midpoint.y, z_mm: c.loaded_radius() + rate })
}

/// Motion of a twist beam's left wheel in roll: about the line from its hinge to the beam's shear centre.
/// `None` for another layout or without a shear centre.
#[must_use]
pub fn beam_roll_motion(points: &Points, wheel: &WheelAtDesign, travel: f64) -> Option<Motion> {
    let Points::TwistBeam(b) = points else { return None };
    let [x, z] = b.shear_center?;
    // The beam has come along with the arms in parallel travel; its line is taken there.
    let parallel = HingeCorner::new(b.pivot_right, b.pivot_left, wheel);
    let pose = parallel.pose(travel, 0.0).ok()?;
    let pivot = Vec3::from(b.pivot_left);
    let axis = nalgebra::Unit::try_new(pivot - Vec3::from(b.pivot_right), 1e-6)?;
    let arm0 = Vec3::from(wheel.center) - pivot;
    let arm1 = pose.centre - pivot;
    let flat = |v: &Vec3| v - axis.into_inner() * axis.dot(v);
    let angle = flat(&arm0).cross(&flat(&arm1)).dot(&axis).atan2(flat(&arm0).dot(&flat(&arm1)));
    let turn = nalgebra::Rotation3::from_axis_angle(&axis, angle);
    let shear = pivot + turn * (Vec3::new(x, 0.0, z) - pivot);
    let line = (shear - pivot).try_normalize(1e-6)?;
    // Positive turn lifts the wheel; scaled to one mm of wheel travel.
    let speed = line.cross(&arm1);
    if speed.z.abs() < 1e-6 {
        return None;
    }
    let omega = line / speed.z;
    let radius = wheel.loaded_radius_mm;
    let contact = contact_point(&pose.centre, &pose.spin, radius);
    let spin_rate = omega.cross(&pose.spin);
    Some(Motion {
        pose,
        contact,
        contact_rate: omega.cross(&(contact - pivot)),
        centre_rate: omega.cross(&arm1),
        pitch_rate: omega.cross(&pose.up).x,
        camber_rate: -spin_rate.z,
    })
}

/// Roll centre of an axle at travels of its two wheels.
///
/// # Errors
/// [`Unreachable`] when a side does not close there.
pub fn axle_roll_centre(
    corners: [&Corner; 2],
    points: &Points,
    wheel: &WheelAtDesign,
    travels: [f64; 2],
) -> Result<Option<RollCentre>, Unreachable> {
    if let Corner::Axle(a) = corners[0] {
        return live_roll_centre(a, f64::midpoint(travels[0], travels[1])).map(Some);
    }
    if let Points::TwistBeam(_) = points {
        let at = f64::midpoint(travels[0], travels[1]);
        return Ok(beam_roll_motion(points, wheel, at).and_then(|m| roll_centre(&m, &m)));
    }
    Ok(roll_centre(&motion(corners[0], travels[0])?, &motion(corners[1], travels[1])?))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sample::sample;
    use bold_stance_kinematics::geometry::{BeamPoints, Side, WishbonePoints};
    use bold_stance_kinematics::linkage::WishboneCorner;

    /// A wishbone with pivot axes along x, so that the paper construction is exact.
    fn planar() -> (WishbonePoints, WheelAtDesign) {
        let p = WishbonePoints {
            lower_front: [150.0, 350.0, 260.0],
            lower_rear: [-150.0, 350.0, 260.0],
            lower_outer: [0.0, 700.0, 240.0],
            upper_front: [120.0, 430.0, 480.0],
            upper_rear: [-120.0, 430.0, 480.0],
            upper_outer: [0.0, 670.0, 520.0],
            tie_inner: [-140.0, 350.0, 260.0],
            tie_outer: [-140.0, 700.0, 240.0],
        };
        let w = WheelAtDesign {
            center: [0.0, 760.0, 380.0],
            camber_deg: 0.0,
            toe_deg: 0.0,
            loaded_radius_mm: 380.0,
        };
        (p, w)
    }

    #[test]
    fn roll_centre_is_the_textbook_construction() {
        // Instant centre where both arm lines meet, then the line from contact to it at the centre plane
        // (e.g. Milliken & Milliken, Race Car Vehicle Dynamics; Gillespie, Fundamentals of Vehicle Dynamics).
        let (p, w) = planar();
        let m = motion(&WishboneCorner::new(&p, &w), 0.0).unwrap();
        let line = |a: [f64; 3], b: [f64; 3]| {
            let k = (b[2] - a[2]) / (b[1] - a[1]);
            (k, a[2] - k * a[1])
        };
        let (kl, ml) = line(p.lower_front, p.lower_outer);
        let (ku, mu) = line(p.upper_front, p.upper_outer);
        let y = (mu - ml) / (kl - ku);
        let z = kl * y + ml;
        let ic = m.front_view_centre().unwrap();
        assert!((ic[0] - y).abs() < 0.05 && (ic[1] - z).abs() < 0.05, "{ic:?} {y} {z}");
        let paper = 760.0 * z / (760.0 - y);
        let rc = roll_centre(&m, &m).unwrap();
        assert!((rc.z_mm - paper).abs() < 0.01 && rc.y_mm.abs() < 1e-9, "{rc:?} {paper}");
    }

    #[test]
    fn two_sides_that_differ_move_it_off_the_middle() {
        let (p, w) = planar();
        let a = motion(&WishboneCorner::new(&p, &w), 20.0).unwrap();
        let b = motion(&WishboneCorner::new(&p, &w), -20.0).unwrap();
        let rc = roll_centre(&a, &b).unwrap();
        let back = roll_centre(&b, &a).unwrap();
        assert!(rc.y_mm.abs() > 1.0 && (rc.y_mm + back.y_mm).abs() < 1e-9);
        assert!((rc.z_mm - back.z_mm).abs() < 1e-9);
        // It lies on both lines.
        let l = a.contact_rate;
        assert!((l.y * (rc.y_mm - a.contact.y) + l.z * rc.z_mm).abs() < 1e-9);
    }

    #[test]
    fn a_parallelogram_has_its_roll_centre_on_the_ground_and_no_instant_centre() {
        let (mut p, w) = planar();
        for q in [&mut p.upper_front, &mut p.upper_rear] {
            (q[1], q[2]) = (350.0, 480.0);
        }
        p.lower_outer = [0.0, 700.0, 260.0];
        p.upper_outer = [0.0, 700.0, 480.0];
        p.tie_outer = [-140.0, 700.0, 260.0];
        let m = motion(&WishboneCorner::new(&p, &w), 0.0).unwrap();
        assert!(m.camber_rate.abs() < 1e-9);
        assert!(roll_centre(&m, &m).unwrap().z_mm.abs() < 1e-3);
    }

    #[test]
    fn a_twist_beam_rolls_about_its_hinge_and_shear_centre() {
        let b = Points::TwistBeam(BeamPoints {
            pivot_left: [-2200.0, 560.0, 320.0],
            pivot_right: [-2200.0, -560.0, 320.0],
            shear_center: Some([-2350.0, 330.0]),
        });
        let w = WheelAtDesign {
            center: [-2620.0, 740.0, 305.0],
            camber_deg: 0.0,
            toe_deg: 0.0,
            loaded_radius_mm: 305.0,
        };
        let m = beam_roll_motion(&b, &w, 0.0).unwrap();
        assert!((m.centre_rate.z - 1.0).abs() < 1e-12, "one mm a mm");
        // The wheel gains negative camber in bump: between a trailing and a swing arm.
        assert!(m.camber_rate < 0.0);
        let rc = roll_centre(&m, &m).unwrap();
        assert!(rc.z_mm > 20.0 && rc.z_mm < 400.0, "{rc:?}");
    }

    #[test]
    fn side_view_centre_is_where_the_knuckle_turns() {
        let g = sample();
        let m = motion(&Corner::of(&g, Side::Left), 0.0).unwrap();
        if let Some([x, z]) = m.side_view_centre() {
            // The velocity of the contact point is square to the line from the centre.
            let (dx, dz) = (m.contact.x - x, -z);
            assert!((m.braked_slope() * dx + dz).abs() < 1e-3 * dx.abs().max(1.0));
        }
    }
}
