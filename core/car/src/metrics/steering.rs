//! Both front wheels over the rack: Ackermann, full lock, lift at lock.

use bold_stance_kinematics::linkage::{Corner, Linkage, Unreachable};
use bold_stance_kinematics::wheel::{Pose, contact_point, toe};
use bold_stance_units::numbers::edge;
use serde::{Deserialize, Serialize};

/// Both wheels with the steering turned LEFT (the left wheel is the inner one).
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Steering {
    /// Turn of the inner wheel, degrees, away from straight ahead.
    pub inner_deg: f64,
    /// Turn of the outer wheel, degrees.
    pub outer_deg: f64,
    /// Inner turn that would roll without scrub for this outer turn: cot(outer) − cot(inner) = kingpin
    /// track / wheelbase (Ackermann; any vehicle-dynamics textbook).
    pub ideal_inner_deg: f64,
    /// 100 % is Ackermann, 0 % parallel, negative reverse.
    pub ackermann_percent: f64,
}

/// Both wheels at full lock, standing on their springs.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FullLock {
    /// Turns of both wheels.
    pub steering: Steering,
    /// Camber of the inner wheel, degrees.
    pub inner_camber_deg: f64,
    /// Camber of the outer wheel, degrees.
    pub outer_camber_deg: f64,
    /// Camber of the inner wheel against straight ahead, degrees.
    pub inner_change_deg: f64,
    /// Camber of the outer wheel against straight ahead, degrees.
    pub outer_change_deg: f64,
    /// How far the body rises over the inner wheel, mm (negative sinks): its tyre reaches lower.
    pub inner_lift_mm: f64,
    /// The same over the outer wheel.
    pub outer_lift_mm: f64,
    /// Forward movement of the inner wheel in its arch, mm.
    pub inner_forward_mm: f64,
    /// Forward movement of the outer wheel, mm.
    pub outer_forward_mm: f64,
}

/// Turns of both wheels at a rack position (mm; the sign that turns left is found by the caller).
/// `kingpin_track` is between the steering axes on the ground, mm.
///
/// # Errors
/// [`Unreachable`] when a side does not close.
pub fn steering(
    corners: [&Corner; 2],
    travels: [f64; 2],
    rack: f64,
    wheelbase: f64,
) -> Result<Steering, Unreachable> {
    let turn = |c: &Corner, t: f64, rack: f64| -> Result<(f64, f64, Pose), Unreachable> {
        let (straight, turned) = (c.pose(t, 0.0)?, c.pose(t, rack)?);
        let contact = contact_point(&straight.centre, &straight.spin, c.loaded_radius());
        let kingpin = straight.axis.map_or(contact.y, |a| a.pierce(contact.z).y);
        Ok((toe(&turned.spin) - toe(&straight.spin), kingpin, turned))
    };
    // One rack: +y for the left wheel is −y in the right wheel's mirror image.
    let (left, yl, _) = turn(corners[0], travels[0], rack)?;
    let (right, yr, _) = turn(corners[1], travels[1], -rack)?;
    // Turned left the left wheel goes toe-out and the right one toe-in.
    let (inner, outer) = (-left, right);
    let ideal = ideal_inner(outer, (yl + yr) / wheelbase);
    let gap = ideal - outer;
    Ok(Steering {
        inner_deg: inner.to_degrees(),
        outer_deg: outer.to_degrees(),
        ideal_inner_deg: ideal.to_degrees(),
        ackermann_percent: if gap.abs() < 1e-9 { 100.0 } else { 100.0 * (inner - outer) / gap },
    })
}

/// Inner turn (rad) that satisfies cot(outer) − cot(inner) = `ratio`.
fn ideal_inner(outer: f64, ratio: f64) -> f64 {
    // sin and cos instead of cot keep straight ahead finite.
    outer.sin().atan2(outer.cos() - ratio * outer.sin())
}

/// Rack position (mm) that turns the inner wheel of a left turn by `lock_deg`, or as far as the linkage goes.
/// `None` when the rack does not steer it.
#[must_use]
pub fn rack_for_lock(inner: &Corner, travel: f64, lock_deg: f64) -> Option<f64> {
    let straight = toe(&inner.pose(travel, 0.0).ok()?.spin);
    let turned = |rack: f64| inner.pose(travel, rack).ok().map(|p| straight - toe(&p.spin));
    let sign = if turned(1.0)? > turned(-1.0)? { 1.0 } else { -1.0 };
    if (turned(1.0)? - turned(-1.0)?).abs() < 1e-6 {
        return None;
    }
    let want = lock_deg.to_radians();
    let (mut low, mut high) = (0.0, 4.0);
    while high < 400.0 {
        match turned(sign * high) {
            Some(t) if t < want && t > turned(sign * low).unwrap_or(-1.0) => {
                low = high;
                high += 4.0;
            }
            _ => break,
        }
    }
    let [at, _] = edge(low, high, 50, |r| turned(sign * r).is_some_and(|t| t < want));
    Some(sign * at)
}

/// Both wheels at full left lock: the arms stand still and each knuckle turns about its steering axis, as it
/// does on a standing spring.
///
/// # Errors
/// [`Unreachable`] when a side does not close, or does not steer.
pub fn full_lock(
    corners: [&Corner; 2],
    travels: [f64; 2],
    lock_deg: f64,
    wheelbase: f64,
) -> Result<FullLock, Unreachable> {
    let unsteered = || Unreachable::at(bold_stance_kinematics::linkage::Loop::Unsteered, travels[0]);
    let rack = rack_for_lock(corners[0], travels[0], lock_deg).ok_or_else(unsteered)?;
    let s = steering(corners, travels, rack, wheelbase)?;
    let side = |c: &Corner, t: f64, turn_deg: f64| -> Result<(f64, f64, f64, f64), Unreachable> {
        let p = c.pose(t, 0.0)?;
        let q = p.turned_to(turn_deg.to_radians());
        let (r, x) = (c.loaded_radius(), c.design_x());
        let contact = |p: &Pose| contact_point(&p.centre, &p.spin, r);
        let (a, b) = (p.wheel(r, x), q.wheel(r, x));
        Ok((
            b.camber_deg,
            b.camber_deg - a.camber_deg,
            contact(&p).z - contact(&q).z,
            q.centre.x - p.centre.x,
        ))
    };
    let (inner_camber_deg, inner_change_deg, inner_lift_mm, inner_forward_mm) =
        side(corners[0], travels[0], -s.inner_deg)?;
    let (outer_camber_deg, outer_change_deg, outer_lift_mm, outer_forward_mm) =
        side(corners[1], travels[1], s.outer_deg)?;
    Ok(FullLock {
        steering: s,
        inner_camber_deg,
        outer_camber_deg,
        inner_change_deg,
        outer_change_deg,
        inner_lift_mm,
        outer_lift_mm,
        inner_forward_mm,
        outer_forward_mm,
    })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sample::sample;
    use bold_stance_kinematics::geometry::Side;
    use proptest::prelude::*;

    fn both() -> [Corner; 2] {
        let g = sample();
        [Corner::of(&g, Side::Left), Corner::of(&g, Side::Right)]
    }

    proptest! {
        /// Ackermann relation against the textbook formula, cot by cot.
        #[test]
        fn ideal_inner_satisfies_the_cot_relation(outer in 0.01f64..0.7, ratio in 0.3f64..0.8) {
            let inner = ideal_inner(outer, ratio);
            prop_assert!((1.0 / outer.tan() - 1.0 / inner.tan() - ratio).abs() < 1e-9);
        }
    }

    #[test]
    fn a_rack_turns_one_wheel_in_and_the_other_out() {
        let [l, r] = both();
        let rack = rack_for_lock(&l, 0.0, 30.0).unwrap();
        let s = steering([&l, &r], [0.0, 0.0], rack, 3200.0).unwrap();
        assert!((s.inner_deg - 30.0).abs() < 1e-6 && s.outer_deg > 15.0 && s.outer_deg < 45.0, "{s:?}");
        let mirrored = steering([&r, &l], [0.0, 0.0], rack, 3200.0).unwrap();
        assert!((mirrored.inner_deg - s.inner_deg).abs() < 1e-9);
    }

    #[test]
    fn lift_and_camber_at_lock_have_the_order_of_practice() {
        // Common practice, no source: at 8° caster the inside wheel lifts the body about 1 cm at full turn, the
        // outer wheel gains 1.25–1.5° negative and the inner swings about 5° to positive.
        let mut g = sample();
        if let bold_stance_kinematics::geometry::Points::DoubleWishbone(p) = &mut g.points {
            let spacing = p.upper_outer[2] - p.lower_outer[2];
            p.upper_outer[0] = p.lower_outer[0] - spacing * 8f64.to_radians().tan();
        }
        let c = [Corner::of(&g, Side::Left), Corner::of(&g, Side::Right)];
        let f = full_lock([&c[0], &c[1]], [0.0, 0.0], 33.0, 3000.0).unwrap();
        assert!(f.inner_lift_mm > 3.0 && f.inner_lift_mm < 30.0, "{f:?}");
        assert!(f.inner_change_deg > 3.5 && f.inner_change_deg < 7.5, "{f:?}");
        assert!(f.outer_change_deg < -1.0 && f.outer_change_deg > -4.5, "{f:?}");
    }

    #[test]
    fn standing_on_its_spring_a_steered_wheel_turns_about_one_axis() {
        // With the arms held, the lower and upper joints do not move, so turning is the rigid rotation.
        let [l, _] = both();
        let p = l.pose(0.0, 0.0).unwrap();
        let q = p.turned_to(0.4);
        assert!((toe(&q.spin) - toe(&p.spin) - 0.4).abs() < 1e-10);
        assert_eq!(p.axis.unwrap().upper, q.axis.unwrap().upper);
    }
}
