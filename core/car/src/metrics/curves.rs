//! Curves of an axle over body height and over steering.

use super::motion::{RollCentre, axle_roll_centre};
use super::steering::{rack_for_lock, steering};
use bold_stance_kinematics::geometry::{Geometry, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_kinematics::wheel::{contact_point, toe};
use serde::{Deserialize, Serialize};

/// One body height; relative to the chassis, both wheels of the axle at the same travel.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HeightPoint {
    /// Body height gained over design, mm.
    pub height_mm: f64,
    /// Degrees.
    pub camber_deg: f64,
    /// Degrees, when it steers.
    pub caster_deg: Option<f64>,
    /// Degrees against design, one wheel: bump steer.
    pub toe_change_deg: f64,
    /// Contact point outward of design, mm: bump scrub.
    pub scrub_mm: f64,
    /// Wheel forward of design, mm.
    pub wheel_x_mm: f64,
    /// Roll centre over the ground, mm.
    pub roll_centre_mm: Option<f64>,
}

/// One steering position, turned left.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SteerPoint {
    /// Mean turn of both wheels, degrees.
    pub turn_deg: f64,
    /// Inner wheel, degrees.
    pub inner_deg: f64,
    /// Inner turn without scrub, degrees.
    pub ideal_inner_deg: f64,
    /// Outer wheel, degrees.
    pub outer_deg: f64,
    /// Camber of the inner wheel, degrees.
    pub inner_camber_deg: f64,
    /// Camber of the outer wheel, degrees.
    pub outer_camber_deg: f64,
    /// Body rise over the inner wheel, mm.
    pub inner_lift_mm: f64,
}

/// Curves of one axle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AxleCurves {
    /// Left wheel over height; heights that do not close are left out.
    pub left: Vec<HeightPoint>,
    /// Right wheel over height.
    pub right: Vec<HeightPoint>,
}

/// Curves of both wheels over body heights (mm gained over design). The roll centre comes from the
/// neighbouring heights, so the heights should be evenly spaced.
#[must_use]
pub fn axle_curves(g: &Geometry, corners: [&Corner; 2], heights: &[f64]) -> AxleCurves {
    let left = one_side(g, corners[0], Side::Left, heights, None);
    let right =
        one_side(g, corners[1], Side::Right, heights, g.layout().is_whole_axle().then_some(left.as_slice()));
    AxleCurves { left, right }
}

/// `twin` is the other wheel of a whole axle, whose roll centre is this one's.
fn one_side(
    g: &Geometry,
    c: &Corner,
    side: Side,
    heights: &[f64],
    twin: Option<&[HeightPoint]>,
) -> Vec<HeightPoint> {
    let Ok(design) = c.pose(0.0, 0.0) else { return Vec::new() };
    let (radius, x0) = (c.loaded_radius(), c.design_x());
    let (toe0, y0) = (toe(&design.spin), contact_point(&design.centre, &design.spin, radius).y);
    let own_rule = g.layout().is_whole_axle();
    let (points, wheel) = if own_rule { g.side(side) } else { (g.points.clone(), g.wheel.clone()) };
    let poses: Vec<_> = heights
        .iter()
        .map(|h| c.pose(-h, 0.0).ok().map(|p| (p, contact_point(&p.centre, &p.spin, radius))))
        .collect();
    let mut out = Vec::with_capacity(heights.len());
    for (i, h) in heights.iter().enumerate() {
        let Some((p, contact)) = &poses[i] else { continue };
        let roll_centre_mm = if let Some(twin) = twin {
            twin.iter().find(|p| p.height_mm == *h).and_then(|p| p.roll_centre_mm)
        } else if own_rule {
            axle_roll_centre([c, c], &points, &wheel, [-h, -h]).ok().flatten().map(|r: RollCentre| r.z_mm)
        } else {
            // Quadratic through three neighbours: the slope at this height.
            let near = |j: usize| poses.get(j).and_then(|q| q.as_ref().map(|(_, c)| *c));
            let (a, b) = (if i > 0 { near(i - 1) } else { None }, near(i + 1));
            let slope = |a: bold_stance_kinematics::Vec3, b: bold_stance_kinematics::Vec3| {
                let d = b - a;
                (d.z.abs() > 1e-9).then(|| contact.y * d.y / d.z)
            };
            match (a, b) {
                (Some(a), Some(b)) => slope(a, b),
                (Some(a), None) => slope(a, *contact),
                (None, Some(b)) => slope(*contact, b),
                (None, None) => None,
            }
        };
        let w = p.wheel(radius, x0);
        out.push(HeightPoint {
            height_mm: *h,
            camber_deg: w.camber_deg,
            caster_deg: w.steer.map(|s| s.caster_deg),
            toe_change_deg: (toe(&p.spin) - toe0).to_degrees(),
            scrub_mm: contact.y - y0,
            wheel_x_mm: w.wheel_x_mm,
            roll_centre_mm,
        });
    }
    out
}

/// Both front wheels from straight ahead to full left lock in `steps` steps; empty when they do not steer.
#[must_use]
pub fn steer_curve(
    corners: [&Corner; 2],
    travels: [f64; 2],
    lock_deg: f64,
    wheelbase: f64,
    steps: usize,
) -> Vec<SteerPoint> {
    let Some(rack) = rack_for_lock(corners[0], travels[0], lock_deg) else { return Vec::new() };
    let (Ok(l), Ok(r)) = (corners[0].pose(travels[0], 0.0), corners[1].pose(travels[1], 0.0)) else {
        return Vec::new();
    };
    let radius = corners[0].loaded_radius();
    let ground = |p: &bold_stance_kinematics::wheel::Pose| contact_point(&p.centre, &p.spin, radius).z;
    (0..=steps)
        .filter_map(|i| {
            let s = steering(corners, travels, rack * i as f64 / steps.max(1) as f64, wheelbase).ok()?;
            let inner = l.turned_to((-s.inner_deg).to_radians());
            let outer = r.turned_to(s.outer_deg.to_radians());
            let camber = |p: &bold_stance_kinematics::wheel::Pose| {
                bold_stance_kinematics::wheel::camber(&p.spin).to_degrees()
            };
            Some(SteerPoint {
                turn_deg: f64::midpoint(s.inner_deg, s.outer_deg),
                inner_deg: s.inner_deg,
                ideal_inner_deg: s.ideal_inner_deg,
                outer_deg: s.outer_deg,
                inner_camber_deg: camber(&inner),
                outer_camber_deg: camber(&outer),
                inner_lift_mm: ground(&l) - ground(&inner),
            })
        })
        .collect()
}
