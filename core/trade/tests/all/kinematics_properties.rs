//! Identities that hold for any wishbone: reversals, mirrors, small motions, adjusters and their inverses.

use crate::common;
use bold_stance_car::adjuster::default_adjusters;
use bold_stance_car::vehicle::{Measured, anchor};
use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::edit::{EccentricPoint, Edit};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use nalgebra::{Rotation3, Unit};
use proptest::prelude::*;

fn corner() -> Corner {
    let g = common::truck().geometry;
    Corner::new(&g.points, &g.wheel)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]

    /// Path independence: a pose depends on travel and rack only, not on what was asked before.
    #[test]
    fn up_down_up_returns(t in -100.0f64..100.0, via in -100.0f64..100.0) {
        let c = corner();
        let a = c.pose(t, 0.0).unwrap();
        let _ = c.pose(via, 20.0).unwrap();
        prop_assert_eq!(a, c.pose(t, 0.0).unwrap());
    }

    /// Moving a pivot out and back is no change at all.
    #[test]
    fn an_edit_and_its_inverse_cancel(x in -6.0f64..6.0, y in -6.0f64..6.0, z in -6.0f64..6.0, t in -80.0f64..80.0) {
        let e = |s: f64| Edit::MovePivot { point: EccentricPoint::UpperRear, by: [s * x, s * y, s * z] };
        let a = corner().alignment(t, 0.0).unwrap();
        let b = corner().edited(&[e(1.0), e(-1.0)]).alignment(t, 0.0).unwrap();
        prop_assert!((a.camber_deg - b.camber_deg).abs() < 1e-8 && (a.caster_deg - b.caster_deg).abs() < 1e-8);
    }

    /// The knuckle is rigid: angles between its directions never change (nalgebra's rotation found from two of them).
    #[test]
    fn the_knuckle_moves_as_one_rigid_body(t in -100.0f64..100.0, rack in -40.0f64..40.0) {
        let c = corner();
        let (a, b) = (c.pose(0.0, 0.0).unwrap(), c.pose(t, rack).unwrap());
        let frame = |p: &bold_stance_kinematics::wheel::Pose| {
            let p = p.axis.unwrap();
            let x = Unit::new_normalize(p.upper - p.lower);
            let y = Unit::new_normalize((p.tie - p.lower) - x.into_inner() * x.dot(&(p.tie - p.lower)));
            Rotation3::from_basis_unchecked(&[x.into_inner(), y.into_inner(), x.cross(&y)])
        };
        let turn = frame(&b) * frame(&a).inverse();
        prop_assert!((turn * a.spin - b.spin).norm() < 1e-9);
        let carried: Vec3 = b.axis.unwrap().lower + turn * (a.centre - a.axis.unwrap().lower);
        prop_assert!((carried - b.centre).norm() < 1e-7);
    }

    /// Anchoring then reading back is the identity, at any height within travel and any cam position.
    #[test]
    fn anchoring_reproduces_any_gauge(camber in -1.4f64..1.4, caster in 2.0f64..4.8, toe in -0.5f64..0.5, t in -60.0f64..60.0, cam in -90.0f64..90.0) {
        let g = common::truck().geometry;
        let start = default_adjusters(3.2)[0].edits_at(cam);
        let m = Measured { camber_deg: camber, caster_deg: caster, toe_deg: toe };
        let got = anchor(&g.points, &g.wheel, t, &start, &m).unwrap().corner.edited(&start).alignment(t, 0.0).unwrap();
        prop_assert!((got.camber_deg - camber).abs() < 1e-8);
        prop_assert!((got.caster_deg - caster).abs() < 1e-8);
        prop_assert!((got.toe_deg - toe).abs() < 1e-8);
    }

    /// Rate of camber from the curve equals the slope of the exact solution (central differences of two sizes agree).
    #[test]
    fn curves_are_smooth(t in -90.0f64..90.0) {
        let c = corner();
        let f = |t: f64| c.alignment(t, 0.0).unwrap().camber_deg;
        let slope = |h: f64| (f(t + h) - f(t - h)) / (2.0 * h);
        prop_assert!((slope(0.5) - slope(0.05)).abs() < 1e-5);
    }
}

#[test]
fn a_longer_tie_rod_behind_the_axle_toes_in() {
    let c = corner();
    let a = c.alignment(0.0, 0.0).unwrap().toe_deg;
    let b = c.edited(&[Edit::LengthenTie { by_mm: 1.5 }]).alignment(0.0, 0.0).unwrap().toe_deg;
    // One turn of 1.5 mm on a 145 mm steering arm: atan(1.5/145) = 0.59°, by hand.
    assert!((b - a - 0.59).abs() < 0.06, "{}", b - a);
}

#[test]
fn textbook_swing_arm_limit_of_camber_gain() {
    // Camber gain in degrees per mm at design is 1 over the front-view swing-arm length (Milliken & Milliken, RCVD):
    // the arm is from the contact patch's wheel to the instant centre where both arms' lines meet.
    let g = common::truck().geometry;
    let p = g.points.wishbone().unwrap();
    let c = corner();
    let line = |front: [f64; 3], rear: [f64; 3], outer: [f64; 3]| {
        // Where the pivot axis passes the plane of the wheel centre, x = 0.
        let s = (0.0 - rear[0]) / (front[0] - rear[0]);
        let p = [rear[1] + s * (front[1] - rear[1]), rear[2] + s * (front[2] - rear[2])];
        (p, (outer[2] - p[1]) / (outer[1] - p[0]))
    };
    let (pl, ml) = line(p.lower_front, p.lower_rear, p.lower_outer);
    let (pu, mu) = line(p.upper_front, p.upper_rear, p.upper_outer);
    let y = (pu[1] - pl[1] + ml * pl[0] - mu * pu[0]) / (ml - mu);
    let arm = g.wheel.center[1] - y;
    let rate = (c.alignment(1.0, 0.0).unwrap().camber_deg - c.alignment(-1.0, 0.0).unwrap().camber_deg) / 2.0;
    let textbook = -(1.0 / arm).to_degrees();
    // The planar rule leaves out the inclination of the axes in the side view: it agrees to a tenth of a degree per 100 mm.
    assert!((rate - textbook).abs() < 0.002, "{rate} {textbook}");
}
