//! Checks of the core against textbook formulas, published sizes and general-purpose libraries.

use crate::common;
use bold_stance_car::vehicle::TyreSize;
use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Geometry, WheelAtDesign, WishbonePoints};
use bold_stance_kinematics::linkage::{Corner, Linkage, WishboneCorner};
use nalgebra::{Rotation3, Unit};

fn sample() -> Geometry {
    common::truck().geometry
}

/// A wishbone flattened into the y–z plane: pivot axes along x.
fn planar() -> (WishbonePoints, WheelAtDesign) {
    let p = WishbonePoints {
        lower_front: [150.0, 350.0, 300.0],
        lower_rear: [-150.0, 350.0, 300.0],
        lower_outer: [0.0, 700.0, 280.0],
        upper_front: [120.0, 430.0, 560.0],
        upper_rear: [-120.0, 430.0, 560.0],
        upper_outer: [0.0, 670.0, 570.0],
        tie_inner: [-140.0, 350.0, 300.0],
        tie_outer: [-140.0, 700.0, 280.0],
    };
    (p, WheelAtDesign { center: [0.0, 760.0, 400.0], camber_deg: 0.0, toe_deg: 0.0, loaded_radius_mm: 400.0 })
}

/// Freudenstein's closed form of the four-bar linkage (F. Freudenstein, "Approximate synthesis of
/// four-bar linkages", Trans. ASME 77, 1955; any kinematics textbook): output angle from input angle.
fn freudenstein(a: f64, b: f64, c: f64, d: f64, theta2: f64) -> [f64; 2] {
    let (k1, k2) = (d / a, d / c);
    let k3 = (a * a - b * b + c * c + d * d) / (2.0 * a * c);
    let (s, co) = theta2.sin_cos();
    let (ka, kb, kc) = (co - k1 - k2 * co + k3, -2.0 * s, k1 - (k2 + 1.0) * co + k3);
    let root = (kb * kb - 4.0 * ka * kc).sqrt();
    [2.0 * (-kb - root).atan2(2.0 * ka), 2.0 * (-kb + root).atan2(2.0 * ka)]
}

#[test]
fn a_flat_wishbone_is_the_textbook_four_bar() {
    let (p, w) = planar();
    let c = WishboneCorner::new(&p, &w);
    let yz = |v: [f64; 3]| (v[1], v[2]);
    let ((ay, az), (by, bz)) = (yz(p.lower_front), yz(p.upper_front));
    let ((ly, lz), (uy, uz)) = (yz(p.lower_outer), yz(p.upper_outer));
    let ground = (by - ay).hypot(bz - az);
    let tilt = (bz - az).atan2(by - ay);
    let (input, coupler, output) =
        ((ly - ay).hypot(lz - az), (uy - ly).hypot(uz - lz), (uy - by).hypot(uz - bz));
    for travel in [-90.0, -45.0, 0.0, 30.0, 80.0] {
        let pose = c.pose(travel, 0.0).unwrap();
        let axis = pose.axis.unwrap();
        let theta2 = (axis.lower.z - az).atan2(axis.lower.y - ay) - tilt;
        let got = (axis.upper.z - bz).atan2(axis.upper.y - by) - tilt;
        let near = freudenstein(input, coupler, output, ground, theta2)
            .into_iter()
            .map(|t| (t - got).sin().abs().max(1.0 - (t - got).cos()))
            .fold(f64::MAX, f64::min);
        assert!(near < 1e-9, "{travel}: {near}");
        // Camber is the coupler's own turn.
        let lean0 = (uy - ly).atan2(uz - lz);
        let lean = (axis.upper.y - axis.lower.y).atan2(axis.upper.z - axis.lower.z);
        let camber = pose.wheel(400.0, 0.0).camber_deg;
        assert!((camber - (lean - lean0).to_degrees()).abs() < 1e-9);
    }
}

#[test]
fn steering_is_the_exact_rotation_about_the_axis() {
    // nalgebra: turning the knuckle about the steering axis carries spin axis and wheel centre along.
    let g = sample();
    let c = WishboneCorner::new(g.points.wishbone().unwrap(), &g.wheel);
    // With the wheel centre allowed to move in height the lower arm swings a little; hold the arm by
    // comparing at the travel the steered centre has with the arm at rest.
    let p0 = c.pose(0.0, 0.0).unwrap();
    let a0 = p0.axis.unwrap();
    let axis = Unit::new_normalize(a0.upper - a0.lower);
    for degrees in [-25.0f64, -8.0, 8.0, 25.0] {
        let r = Rotation3::from_axis_angle(&axis, degrees.to_radians());
        let tie = a0.lower + r * (a0.tie - a0.lower);
        let centre = a0.lower + r * (p0.centre - a0.lower);
        let rod = c.tie_length();
        let inner = Vec3::from(g.points.wishbone().unwrap().tie_inner);
        let d = tie - inner;
        // Rack position that puts the rod's end there (|tie - inner - rack·y| = rod).
        let (b, k) = (d.y, d.norm_squared() - rod * rod);
        let rack = [b - (b * b - k).sqrt(), b + (b * b - k).sqrt()]
            .into_iter()
            .min_by(|x, y| x.abs().total_cmp(&y.abs()))
            .unwrap();
        let pose = c.pose(centre.z - p0.centre.z, rack).unwrap();
        assert!((pose.axis.unwrap().lower - a0.lower).norm() < 1e-6, "arm stays");
        assert!((pose.spin - r * p0.spin).norm() < 1e-9);
        assert!((pose.centre - centre).norm() < 1e-6);
    }
}

#[test]
fn caster_is_one_and_a_half_camber_differences_at_twenty_degrees() {
    // Gauge arithmetic: 1/(2 sin 20°) = 1.462; common practice says 1.5.
    assert!((1.0 / (2.0 * 20f64.to_radians().sin()) - 1.4619).abs() < 1e-4);
    let g = sample();
    let c = WishboneCorner::new(g.points.wishbone().unwrap(), &g.wheel);
    let steer_to = |target: f64| {
        let (mut low, mut high) = (-70.0, 70.0);
        let toe = |rack: f64| c.alignment(0.0, rack).unwrap().toe_deg;
        let rising = toe(high) > toe(low);
        for _ in 0..60 {
            let mid = 0.5 * (low + high);
            if (toe(mid) < target) == rising { low = mid } else { high = mid }
        }
        c.alignment(0.0, 0.5 * (low + high)).unwrap().camber_deg
    };
    // Left wheel: toe-in 20° is turned right (in), toe-out 20° is turned left (out).
    let (right, left) = (steer_to(20.0), steer_to(-20.0));
    let estimate = (left - right).abs() * 1.4619;
    let truth = c.alignment(0.0, 0.0).unwrap().caster_deg;
    assert!((estimate - truth).abs() < 0.25, "{estimate} {truth}");
}

#[test]
fn plumb_line_and_gap_arithmetic_of_common_practice() {
    // CP1: 15 mm over 320 mm is 2.684°. CP2: 10 mm over 20.5 in is 1.1°. Common practice, no source.
    assert!(((15f64 / 320.0).atan().to_degrees() - 2.684).abs() < 1e-3);
    assert!(((10.0 / (20.5 * 25.4f64)).atan().to_degrees() - 1.1).abs() < 0.01);
    // CP6: 3 mm over 17 in is 24′. Common practice, no source.
    assert!(((3.0 / (17.0 * 25.4f64)).asin().to_degrees() * 60.0 - 24.0).abs() < 0.5);
}

#[test]
fn a_jacked_arm_reads_more_positive_camber_than_the_settled_car_by_the_common_order() {
    // CP8, common practice, no source: about 0.5° when jacked by the arm. With the wheel hanging
    // lighter it sits at droop; on the sample, 10–40 mm of droop changes camber by some tenths.
    let g = sample();
    let c = WishboneCorner::new(g.points.wishbone().unwrap(), &g.wheel);
    let at = |t: f64| c.alignment(t, 0.0).unwrap().camber_deg;
    let span = [10.0, 20.0, 40.0].map(|t: f64| (at(t) - at(0.0)).abs().max((at(-t) - at(0.0)).abs()));
    assert!(span[2] > 0.1 && span[2] < 1.5, "{span:?}");
}

#[test]
fn published_tyre_sizes() {
    // ETRTO / TRA nominal arithmetic: rim·25.4 + 2·aspect·section.
    for (size, d) in [("265/70R17", 802.8), ("205/55R16", 631.9), ("225/45R17", 634.3)] {
        assert!((TyreSize::parse("tyre", size).unwrap().diameter_mm() - d).abs() < 1e-9, "{size}");
    }
}

#[test]
fn opposite_pivots_on_upper_and_lower_arms_act_opposite_ways() {
    // Handbook section 9, common practice: lower front pivot outboard lowers caster and makes camber
    // more negative; for an upper arm everything is the other way round.
    let g = sample();
    let c = Corner::new(&g.points, &g.wheel);
    let base = c.alignment(0.0, 0.0).unwrap();
    let moved = |point, y: f64| {
        let a = c.edited(&[Edit::MovePivot { point, by: [0.0, y, 0.0] }]).alignment(0.0, 0.0).unwrap();
        (a.camber_deg - base.camber_deg, a.caster_deg - base.caster_deg)
    };
    use bold_stance_kinematics::edit::EccentricPoint::*;
    let (lf, lr, uf) = (moved(LowerFront, 3.0), moved(LowerRear, -3.0), moved(UpperFront, 3.0));
    assert!(lf.0 < 0.0 && lr.0 > 0.0 && uf.0 > 0.0, "{lf:?} {lr:?} {uf:?}");
    assert!(lf.1.signum() == lr.1.signum() && uf.1.signum() == -lf.1.signum());
}
