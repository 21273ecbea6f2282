//! Construction aids for fabricated arms: by perpendicular bisector, as on the drawing board, and by exact
//! least squares over a travel; each tried in the exact model before and after.

use super::steering::{rack_for_lock, steering};
use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::geometry::{Points, WheelAtDesign};
use bold_stance_kinematics::linkage::{Corner, Linkage, Unreachable};
use bold_stance_kinematics::wheel::{contact_point, toe};
use bold_stance_units::numbers::{Secant, lowest};
use nalgebra::{Matrix2, Vector2};
use serde::{Deserialize, Serialize};

/// Positions that the least squares are taken over.
const PLACES: usize = 21;
/// A pivot farther away than this is no pivot, mm.
const FAR: f64 = 5000.0;

/// Upper-arm pivot that keeps the tyre's contact point from moving sideways.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PivotAid {
    /// Pivot now, y and z in the plane of the wheel, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub now: [f64; 2],
    /// By perpendicular bisectors through three heights, y and z, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub bisector: [f64; 2],
    /// By least squares over the travel, y and z, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub exact: [f64; 2],
    /// Arm length for the least-squares pivot, mm.
    pub arm_mm: f64,
    /// Sideways movement of the contact over the travel now, mm, largest less smallest.
    pub scrub_now_mm: f64,
    /// The same with the bisector's pivot.
    pub scrub_bisector_mm: f64,
    /// The same with the least-squares pivot.
    pub scrub_exact_mm: f64,
}

/// Inner tie-rod point that keeps toe from changing with height.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TieRodAid {
    /// Inner joint now, y and z, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub now: [f64; 2],
    /// By perpendicular bisectors, y and z at the joint's own x, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub bisector: [f64; 2],
    /// By least squares, y and z, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub exact: [f64; 2],
    /// Tie-rod length for the least-squares point, mm.
    pub length_mm: f64,
    /// Height of the inner joint that does best where the rack ends now, mm.
    pub height_only: f64,
    /// Change of toe over the travel now, degrees, one wheel, largest less smallest.
    pub steer_now_deg: f64,
    /// The same with the bisector's point.
    pub steer_bisector_deg: f64,
    /// The same with the least-squares point.
    pub steer_exact_deg: f64,
    /// The same with only the height changed.
    pub steer_height_deg: f64,
}

/// Outer tie-rod point for Ackermann steering.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AckermannAid {
    /// Where the line from kingpin through the tie-rod joint meets the centre line, behind the front axle, mm.
    pub line_meets_mm: Option<f64>,
    /// y of the outer joint now, mm.
    pub now_y: f64,
    /// y on the line from the kingpin to the middle of the rear axle, mm.
    pub construction_y: f64,
    /// y that comes nearest over the whole lock, mm.
    pub exact_y: f64,
    /// Root mean square of the inner wheel's error over the lock now, degrees.
    pub error_now_deg: f64,
    /// The same on the construction.
    pub error_construction_deg: f64,
    /// The same at the best place.
    pub error_exact_deg: f64,
}

/// All aids of an axle; none where the layout has no such part.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Aids {
    /// Half the travel the aids are made for, mm either way.
    pub travel_mm: f64,
    /// Upper-arm pivot.
    pub upper_pivot: Option<PivotAid>,
    /// Inner tie-rod point.
    pub tie_rod: Option<TieRodAid>,
    /// Ackermann point.
    pub ackermann: Option<AckermannAid>,
}

/// Centre of the circle through three points: where two perpendicular bisectors meet.
fn bisectors(p: [[f64; 2]; 3]) -> Option<[f64; 2]> {
    let [a, b, c] = p;
    let row = |u: [f64; 2], v: [f64; 2]| {
        (v[0] - u[0], v[1] - u[1], 0.5 * (v[0] * v[0] - u[0] * u[0] + v[1] * v[1] - u[1] * u[1]))
    };
    let ((a1, b1, c1), (a2, b2, c2)) = (row(a, b), row(b, c));
    let det = a1 * b2 - a2 * b1;
    let centre = [(c1 * b2 - c2 * b1) / det, (a1 * c2 - a2 * c1) / det];
    centre.iter().all(|v| v.is_finite() && v.abs() < FAR).then_some(centre)
}

/// Point (y, z) and radius with the least squares of distance to `places`; `x` is the point's own x. Gauss–
/// Newton from `start`; with `keep_y` only z is free.
fn least_circle(places: &[Vec3], x: f64, start: [f64; 2], keep_y: bool) -> Option<([f64; 2], f64)> {
    let mut c = start;
    let mut radius = 0.0;
    for _ in 0..200 {
        let n = places.len() as f64;
        let away: Vec<(f64, [f64; 2])> = places
            .iter()
            .map(|p| {
                let d = Vec3::new(p.x - x, p.y - c[0], p.z - c[1]);
                let r = d.norm();
                (r, [-d.y / r, -d.z / r])
            })
            .collect();
        radius = away.iter().map(|a| a.0).sum::<f64>() / n;
        let mean = [0, 1].map(|k| away.iter().map(|a| a.1[k]).sum::<f64>() / n);
        // Normal equations with the radius eliminated.
        let (mut m, mut b) = (Matrix2::zeros(), Vector2::zeros());
        for (r, g) in &away {
            let g = Vector2::new(if keep_y { 0.0 } else { g[0] - mean[0] }, g[1] - mean[1]);
            b -= g * (r - radius);
            m += g * g.transpose();
        }
        if keep_y {
            m[(0, 0)] = 1.0;
        }
        let step = m.try_inverse()? * b;
        if !step.iter().all(|s| s.is_finite()) {
            return None;
        }
        // A nearly straight path sends the centre far away: hold the steps.
        let size = step.norm();
        let hold = (300.0 / size.max(1e-12)).min(1.0);
        c = [c[0] + step[0] * hold, c[1] + step[1] * hold];
        if c.iter().any(|v| v.abs() > FAR) {
            return None;
        }
        if size < 1e-9 {
            break;
        }
    }
    Some((c, radius))
}

fn travels(range: f64) -> impl Iterator<Item = f64> {
    (0..PLACES).map(move |i| range * (2.0 * i as f64 / (PLACES - 1) as f64 - 1.0))
}

fn spread(values: impl Iterator<Item = f64>) -> f64 {
    let (low, high) = values.fold((f64::MAX, f64::MIN), |(l, h), v| (l.min(v), h.max(v)));
    high - low
}

/// The upper-arm pivot for zero bump scrub within ±`range` mm. Constructed in the front view: the contact
/// point is led straight up, the lower arm's circle gives the lower joint, both give the upper joint.
#[must_use]
pub fn upper_pivot_aid(points: &Points, wheel: &WheelAtDesign, range: f64) -> Option<PivotAid> {
    let p = points.wishbone()?;
    let yz = |v: [f64; 3]| [v[1], v[2]];
    let at_wheel = |front: [f64; 3], rear: [f64; 3], joint: [f64; 3]| {
        // The pivot axis where it passes the joint's plane.
        let s =
            if (front[0] - rear[0]).abs() < 1e-6 { 0.5 } else { (joint[0] - rear[0]) / (front[0] - rear[0]) };
        [rear[1] + s * (front[1] - rear[1]), rear[2] + s * (front[2] - rear[2])]
    };
    let (lower, upper) = (yz(p.lower_outer), yz(p.upper_outer));
    let pivot = at_wheel(p.lower_front, p.lower_rear, p.lower_outer);
    let now = at_wheel(p.upper_front, p.upper_rear, p.upper_outer);
    let spin =
        bold_stance_kinematics::wheel::spin_axis(wheel.camber_deg.to_radians(), wheel.toe_deg.to_radians());
    let contact = contact_point(&Vec3::from(wheel.center), &spin, wheel.loaded_radius_mm);
    let contact = [contact.y, contact.z];
    let far = |a: [f64; 2], b: [f64; 2]| (a[0] - b[0]).hypot(a[1] - b[1]);
    let (arm, shank) = (far(pivot, lower), far(contact, lower));
    let side = {
        let (u, v) =
            ([contact[0] - pivot[0], contact[1] - pivot[1]], [lower[0] - pivot[0], lower[1] - pivot[1]]);
        (u[0] * v[1] - u[1] * v[0]).signum()
    };
    let place = |t: f64| -> Option<Vec3> {
        let foot = [contact[0], contact[1] + t];
        let d = far(pivot, foot);
        let along = (arm * arm - shank * shank + d * d) / (2.0 * d);
        let off2 = arm * arm - along * along;
        if off2.is_nan() || off2 < 0.0 {
            return None;
        }
        let u = [(foot[0] - pivot[0]) / d, (foot[1] - pivot[1]) / d];
        let off = side * off2.sqrt();
        let joint = [pivot[0] + u[0] * along - u[1] * off, pivot[1] + u[1] * along + u[0] * off];
        // Turn of the knuckle: contact → lower joint, against design.
        let angle = |a: [f64; 2], b: [f64; 2]| (b[1] - a[1]).atan2(b[0] - a[0]);
        let (s, c) = (angle(foot, joint) - angle(contact, lower)).sin_cos();
        let v = [upper[0] - contact[0], upper[1] - contact[1]];
        Some(Vec3::new(0.0, foot[0] + c * v[0] - s * v[1], foot[1] + s * v[0] + c * v[1]))
    };
    let three = [place(-range)?, place(0.0)?, place(range)?].map(|v| [v.y, v.z]);
    let bisector = bisectors(three)?;
    let places: Vec<Vec3> = travels(range).filter_map(place).collect();
    let (exact, arm_mm) = least_circle(&places, 0.0, bisector, false)?;
    let tried = |to: [f64; 2]| {
        let mut p = p.clone();
        for q in [&mut p.upper_front, &mut p.upper_rear] {
            q[1] += to[0] - now[0];
            q[2] += to[1] - now[1];
        }
        let c = Corner::new(&Points::DoubleWishbone(p), wheel);
        let y = |t: f64| c.wheel(t, 0.0).ok().map(|w| w.half_track_mm);
        spread(travels(range).filter_map(y))
    };
    Some(PivotAid {
        now,
        bisector,
        exact,
        arm_mm,
        scrub_now_mm: tried(now),
        scrub_bisector_mm: tried(bisector),
        scrub_exact_mm: tried(exact),
    })
}

/// The inner tie-rod point for zero bump steer within ±`range` mm: the outer joint is followed with the
/// wheel held straight, and the inner one is the middle of its arc.
///
/// # Errors
/// [`Unreachable`] when the corner does not close over the travel.
pub fn tie_rod_aid(
    points: &Points,
    wheel: &WheelAtDesign,
    range: f64,
) -> Result<Option<TieRodAid>, Unreachable> {
    let Some([inner, _]) = points.tie_rod() else { return Ok(None) };
    let c = Corner::new(points, wheel);
    let straight = toe(&c.pose(0.0, 0.0)?.spin);
    let place = |t: f64| -> Result<Option<Vec3>, Unreachable> {
        // The rack until toe is what it was.
        let miss = |r: f64| c.pose(t, r).map(|p| toe(&p.spin) - straight);
        let rack = Secant::to(1e-13, 1e-16, 30).within(-80.0, 80.0).root([0.0, 0.5], miss)?;
        if let Some(e) = rack.stopped {
            return Err(e);
        }
        Ok(c.pose(t, rack.at)?.axis.map(|x| x.tie))
    };
    let three = [place(-range)?, place(0.0)?, place(range)?];
    let [Some(low), Some(mid), Some(high)] = three else { return Ok(None) };
    let mut places = Vec::with_capacity(PLACES);
    for t in travels(range) {
        places.extend(place(t)?);
    }
    let Some(bisector) = bisectors([low, mid, high].map(|v| [v.y, v.z])) else { return Ok(None) };
    let Some((exact, length_mm)) = least_circle(&places, inner[0], bisector, false) else { return Ok(None) };
    let Some((height, _)) = least_circle(&places, inner[0], [inner[1], exact[1]], true) else {
        return Ok(None);
    };
    let tried = |to: [f64; 2]| {
        let mut p = points.clone();
        if let Some([own, _]) = p.tie_rod_mut() {
            *own = [inner[0], to[0], to[1]];
        }
        let c = Corner::new(&p, wheel);
        spread(travels(range).filter_map(|t| c.wheel(t, 0.0).ok().map(|w| w.toe_deg)))
    };
    Ok(Some(TieRodAid {
        now: [inner[1], inner[2]],
        bisector,
        exact,
        length_mm,
        height_only: height[1],
        steer_now_deg: tried([inner[1], inner[2]]),
        steer_bisector_deg: tried(bisector),
        steer_exact_deg: tried(exact),
        steer_height_deg: tried(height),
    }))
}

/// The outer tie-rod point for Ackermann steering up to `lock_deg` of the inner wheel.
#[must_use]
pub fn ackermann_aid(
    points: &Points,
    wheel: &WheelAtDesign,
    lock_deg: f64,
    wheelbase: f64,
) -> Option<AckermannAid> {
    let [_, outer] = points.tie_rod()?;
    let with = |y: f64| {
        let mut p = points.clone();
        if let Some([_, own]) = p.tie_rod_mut() {
            own[1] = y;
        }
        Corner::new(&p, wheel)
    };
    let error = |y: f64| -> Option<f64> {
        let c = with(y);
        let full = rack_for_lock(&c, 0.0, lock_deg)?;
        let mut sum = 0.0;
        for i in 1..=8 {
            let s = steering([&c, &c], [0.0, 0.0], full * f64::from(i) / 8.0, wheelbase).ok()?;
            sum += (s.inner_deg - s.ideal_inner_deg).powi(2);
        }
        Some((sum / 8.0).sqrt())
    };
    let axis = Corner::new(points, wheel).pose(0.0, 0.0).ok()?.axis?;
    let kingpin = axis.pierce(outer[2]);
    let (dx, dy) = (outer[0] - kingpin.x, outer[1] - kingpin.y);
    let line_meets_mm =
        (dy.abs() > 1e-6).then(|| -(kingpin.x - kingpin.y * dx / dy)).filter(|v| v.abs() < 1e5);
    let construction_y = kingpin.y + dx * kingpin.y / (wheelbase + kingpin.x);
    // Between 90 mm either side of the construction.
    let cost = |y: f64| error(y).unwrap_or(f64::MAX);
    let exact_y = lowest(construction_y - 90.0, construction_y + 90.0, 24, cost);
    Some(AckermannAid {
        line_meets_mm,
        now_y: outer[1],
        construction_y,
        exact_y,
        error_now_deg: error(outer[1])?,
        error_construction_deg: error(construction_y)?,
        error_exact_deg: error(exact_y)?,
    })
}

/// Every aid of an axle's left side.
#[must_use]
pub fn aids(points: &Points, wheel: &WheelAtDesign, travel_mm: f64, lock_deg: f64, wheelbase: f64) -> Aids {
    Aids {
        travel_mm,
        upper_pivot: upper_pivot_aid(points, wheel, travel_mm),
        tie_rod: tie_rod_aid(points, wheel, travel_mm).ok().flatten(),
        ackermann: ackermann_aid(points, wheel, lock_deg, wheelbase),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sample::sample;
    use proptest::prelude::*;

    proptest! {
        /// The drawing-board construction finds the centre of a circle; so does the least squares.
        #[test]
        fn bisectors_and_least_squares_agree_on_a_true_circle(y in 100.0f64..600.0, z in 100.0f64..700.0, r in 120.0f64..500.0) {
            let at = |a: f64| Vec3::new(0.0, y + r * a.cos(), z + r * a.sin());
            let c = bisectors([at(-0.3), at(0.02), at(0.35)].map(|v| [v.y, v.z])).unwrap();
            prop_assert!((c[0] - y).abs() < 1e-6 && (c[1] - z).abs() < 1e-6);
            let places: Vec<Vec3> = (0..15).map(|i| at(-0.3 + 0.045 * f64::from(i))).collect();
            let (e, radius) = least_circle(&places, 0.0, [y + 40.0, z - 30.0], false).unwrap();
            prop_assert!((e[0] - y).abs() < 1e-5 && (e[1] - z).abs() < 1e-5 && (radius - r).abs() < 1e-5);
        }
    }

    #[test]
    fn each_aid_does_what_it_promises_in_the_exact_model() {
        let g = sample();
        let a = aids(&g.points, &g.wheel, 50.0, 32.0, 3220.0);
        let p = a.upper_pivot.unwrap();
        assert!(p.scrub_exact_mm < 0.25 * p.scrub_now_mm, "{p:?}");
        assert!(p.scrub_bisector_mm < 0.4 * p.scrub_now_mm, "{p:?}");
        let t = a.tie_rod.unwrap();
        assert!(t.steer_exact_deg < 0.25 * t.steer_now_deg.max(0.04), "{t:?}");
        assert!(t.steer_exact_deg <= t.steer_bisector_deg + 1e-3, "{t:?}");
        assert!(t.steer_height_deg <= t.steer_now_deg + 1e-9, "{t:?}");
        let k = a.ackermann.unwrap();
        assert!(
            k.error_exact_deg <= k.error_construction_deg + 1e-9
                && k.error_exact_deg <= k.error_now_deg + 1e-9,
            "{k:?}"
        );
    }

    #[test]
    fn a_tie_rod_put_on_its_point_steers_no_more() {
        let g = sample();
        let t = tie_rod_aid(&g.points, &g.wheel, 50.0).unwrap().unwrap();
        let mut p = g.points.clone();
        if let Points::DoubleWishbone(w) = &mut p {
            (w.tie_inner[1], w.tie_inner[2]) = (t.exact[0], t.exact[1]);
        }
        let again = tie_rod_aid(&p, &g.wheel, 50.0).unwrap().unwrap();
        assert!(
            (again.exact[0] - again.now[0]).abs() < 0.5 && (again.exact[1] - again.now[1]).abs() < 0.5,
            "{again:?}"
        );
    }

    #[test]
    fn layouts_without_the_part_have_no_aid() {
        let p = Points::SingleArm(bold_stance_kinematics::geometry::ArmPoints {
            arm_inner: [0.0, 200.0, 300.0],
            arm_outer: [0.0, 600.0, 300.0],
        });
        let w = sample().wheel;
        assert!(upper_pivot_aid(&p, &w, 40.0).is_none());
        assert!(tie_rod_aid(&p, &w, 40.0).unwrap().is_none());
    }
}
