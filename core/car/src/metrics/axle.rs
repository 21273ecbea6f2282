//! Quantities of one axle at two heights.

use super::motion::{Motion, RollCentre, axle_roll_centre, motion};
use super::steering::{FullLock, full_lock, rack_for_lock, steering};
use crate::vehicle::Attitude;
use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{Bar, BarKind, Corner, Linkage, Unreachable};
use bold_stance_kinematics::wheel::WheelState;
use serde::{Deserialize, Serialize};

/// Facts of the body that an axle's quantities need.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct BodyFacts {
    /// Axle to axle, mm.
    pub wheelbase_mm: f64,
    /// Centre of gravity over the ground, mm.
    pub cg_height_mm: f64,
    /// Share of braking at the front, 0 to 1.
    pub brake_front_share: f64,
    /// Largest turn of the inner wheel, degrees.
    pub lock_deg: f64,
    /// Inner joint of the left drive shaft, mm.
    pub shaft_inner: Option<[f64; 3]>,
    /// How the body stands over the ground, seen from the left.
    pub attitude: Attitude,
}

/// How far a ball joint has swung in its arm against design.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct JointSwing {
    /// `upper` or `lower`.
    pub joint: String,
    /// Angle between arm and steering axis, degrees.
    pub angle_deg: f64,
    /// Against design, degrees.
    pub change_deg: f64,
}

/// A drive shaft between its joints.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ShaftAngles {
    /// At the inner joint, degrees from straight across the car.
    pub inner_deg: f64,
    /// At the outer joint, degrees from the wheel's spin axis.
    pub outer_deg: f64,
    /// Length against design, mm, longer positive.
    pub plunge_mm: f64,
}

/// One axle at two heights. Null where the layout has no such thing.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AxleMetrics {
    /// Layout word.
    pub layout: String,
    /// Front or rear.
    pub axle: Axle,
    /// Left wheel: angles, scrub and trail over the ground, places in the chassis.
    pub left: WheelState,
    /// Right wheel, the same.
    pub right: WheelState,
    /// SAI plus camber, left, degrees.
    pub included_angle_deg: Option<f64>,
    /// SAI plus camber, right, degrees.
    pub included_angle_right_deg: Option<f64>,
    /// Contact to contact, mm.
    pub track_mm: f64,
    /// Roll centre.
    pub roll_centre: Option<RollCentre>,
    /// Front-view instant centre of the left wheel, y and z, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub front_view_centre_mm: Option<[f64; 2]>,
    /// Side-view instant centre of the left wheel with its brake held, x and z, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub side_view_centre_mm: Option<[f64; 2]>,
    /// Camber per 50 mm of bump, degrees, slope here.
    pub camber_gain_deg_per_50mm: f64,
    /// Toe per 50 mm of bump, degrees per wheel, slope here.
    pub bump_steer_deg_per_50mm: f64,
    /// Toe at 50 mm of bump against here, degrees per wheel.
    pub bump_steer_bump_deg: Option<f64>,
    /// Toe at 50 mm of droop against here, degrees per wheel.
    pub bump_steer_droop_deg: Option<f64>,
    /// Sideways movement of the tyre's contact per 50 mm of bump, mm, outward positive, slope here.
    pub bump_scrub_mm_per_50mm: f64,
    /// Share of brake dive taken by the links, percent: anti-dive in front, anti-lift at the rear.
    pub anti_brake_percent: f64,
    /// Share of drive squat (rear) or lift (front) taken by the links, percent, when this axle drives.
    pub anti_drive_percent: f64,
    /// Swing of the ball joints.
    pub joints: Vec<JointSwing>,
    /// Drive shaft, when its inner joint is known.
    pub shaft: Option<ShaftAngles>,
    /// Ackermann at half lock, percent.
    pub ackermann_percent: Option<f64>,
    /// Inner wheel against its ideal at half lock, degrees.
    pub ackermann_error_deg: Option<f64>,
    /// Both wheels at full lock.
    pub full_lock: Option<FullLock>,
    /// Lowest and highest travel of the left wheel, mm, within 250.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub travel_range_mm: [f64; 2],
}

fn middle(bars: &[Bar], kind: BarKind) -> Option<(Vec3, Vec3)> {
    let arm: Vec<&Bar> = bars.iter().filter(|b| b.kind == kind).collect();
    let first = arm.first()?;
    let sum = arm.iter().fold(Vec3::zeros(), |s, b| s + Vec3::from(b.from));
    Some((sum / arm.len() as f64, Vec3::from(first.to)))
}

/// Angle between each arm and the steering axis, degrees.
fn joint_angles(c: &Corner, travel: f64) -> Result<Vec<(&'static str, f64)>, Unreachable> {
    let (pose, bars) = c.bars(travel, 0.0)?;
    let Some(axis) = pose.axis else { return Ok(Vec::new()) };
    let along = axis.direction();
    Ok([("upper", BarKind::UpperArm), ("lower", BarKind::LowerArm)]
        .into_iter()
        .filter_map(|(name, kind)| {
            let (from, to) = middle(&bars, kind)?;
            let arm = (to - from).try_normalize(1e-6)?;
            Some((name, arm.dot(&along).clamp(-1.0, 1.0).acos().to_degrees()))
        })
        .collect())
}

/// Distance of the outer joint inboard of the wheel centre, mm (common practice, no source).
const OUTER_JOINT_INSET: f64 = 60.0;

fn shaft(c: &Corner, inner: [f64; 3], travel: f64) -> Result<ShaftAngles, Unreachable> {
    let inner = Vec3::from(inner);
    let line = |t: f64| -> Result<(Vec3, Vec3), Unreachable> {
        let p = c.pose(t, 0.0)?;
        Ok((p.centre - p.spin * OUTER_JOINT_INSET - inner, p.spin))
    };
    let ((now, spin), (design, _)) = (line(travel)?, line(0.0)?);
    let angle = |a: &Vec3, b: &Vec3| (a.dot(b) / (a.norm() * b.norm())).clamp(-1.0, 1.0).acos().to_degrees();
    Ok(ShaftAngles {
        inner_deg: angle(&now, &Vec3::y()),
        outer_deg: angle(&now, &spin),
        plunge_mm: now.norm() - design.norm(),
    })
}

/// Anti percentages from the side-view slopes: link slope × share × wheelbase ÷ centre-of-gravity height
/// (e.g. Gillespie; Milliken & Milliken). Brakes are taken as outboard; drive torque is carried by the body
/// except on a live axle, which carries it itself.
fn antis(m: &Motion, axle: Axle, live: bool, b: &BodyFacts) -> (f64, f64) {
    let lever = b.wheelbase_mm / b.cg_height_mm;
    let drive = if live { m.braked_slope() } else { m.centre_rate.x };
    match axle {
        Axle::Front => (100.0 * m.braked_slope() * b.brake_front_share * lever, 100.0 * drive * lever),
        Axle::Rear => {
            (-100.0 * m.braked_slope() * (1.0 - b.brake_front_share) * lever, -100.0 * drive * lever)
        }
    }
}

/// A wheel with the body as it stands; where it is stays in the body's own axes.
fn over_ground(c: &Corner, travel: f64, attitude: Attitude) -> Result<WheelState, Unreachable> {
    let pose = c.pose(travel, 0.0)?;
    let own = pose.wheel(c.loaded_radius(), c.design_x());
    let seen = attitude.apply(&pose).wheel(c.loaded_radius(), c.design_x());
    Ok(WheelState { half_track_mm: own.half_track_mm, wheel_x_mm: own.wheel_x_mm, ..seen })
}

/// Quantities of an axle with its wheels at `travels` (left, right; mm, bump positive).
///
/// # Errors
/// [`Unreachable`] when a side does not close there.
pub fn axle_metrics(
    g: &Geometry,
    corners: [&Corner; 2],
    travels: [f64; 2],
    body: &BodyFacts,
) -> Result<AxleMetrics, Unreachable> {
    let (c, t) = (corners[0], travels[0]);
    let here = c.wheel(t, 0.0)?;
    let left = over_ground(c, t, body.attitude)?;
    let right = over_ground(corners[1], travels[1], body.attitude.other_side())?;
    let m = motion(c, t)?;
    let toe_at = |d: f64| c.wheel(t + d, 0.0).ok().map(|w| w.toe_deg - here.toe_deg);
    let slope = |h: f64| Some((toe_at(h)? - toe_at(-h)?) / (2.0 * h));
    let design = joint_angles(c, 0.0).unwrap_or_default();
    let joints = joint_angles(c, t)?
        .into_iter()
        .zip(design)
        .map(|((name, now), (_, was))| JointSwing {
            joint: name.into(),
            angle_deg: now,
            change_deg: now - was,
        })
        .collect();
    let (anti_brake_percent, anti_drive_percent) = antis(&m, g.axle, matches!(c, Corner::Axle(_)), body);
    let steers = g.axle == Axle::Front && left.steer.is_some();
    let lock = steers.then(|| full_lock(corners, travels, body.lock_deg, body.wheelbase_mm).ok()).flatten();
    let half = steers
        .then(|| {
            let rack = rack_for_lock(c, t, body.lock_deg / 2.0)?;
            steering(corners, travels, rack, body.wheelbase_mm).ok()
        })
        .flatten();
    let (points, wheel) = g.side(Side::Left);
    Ok(AxleMetrics {
        layout: g.layout().word().into(),
        axle: g.axle,
        included_angle_deg: left.steer.map(|s| s.sai_deg + left.camber_deg),
        included_angle_right_deg: right.steer.map(|s| s.sai_deg + right.camber_deg),
        track_mm: left.half_track_mm + right.half_track_mm,
        roll_centre: axle_roll_centre(corners, &points, &wheel, travels)?,
        front_view_centre_mm: m.front_view_centre(),
        side_view_centre_mm: m.side_view_centre(),
        camber_gain_deg_per_50mm: 50.0 * m.camber_rate.to_degrees(),
        bump_steer_deg_per_50mm: 50.0 * slope(0.5).unwrap_or(0.0),
        bump_steer_bump_deg: toe_at(50.0),
        bump_steer_droop_deg: toe_at(-50.0),
        bump_scrub_mm_per_50mm: 50.0 * m.contact_rate.y,
        anti_brake_percent,
        anti_drive_percent,
        joints,
        shaft: body.shaft_inner.and_then(|i| shaft(c, i, t).ok()),
        ackermann_percent: half.map(|s| s.ackermann_percent),
        ackermann_error_deg: half.map(|s| s.inner_deg - s.ideal_inner_deg),
        full_lock: lock,
        travel_range_mm: c.travel_range(250.0),
        left,
        right,
    })
}
