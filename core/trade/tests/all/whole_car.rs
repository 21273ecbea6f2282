//! Whole-car quantities against textbook constructions, one idea a test.

use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::metrics::{
    BodyFacts, axle_curves, axle_metrics, full_lock, live_axle_curve, steer_curve,
};
use bold_stance_car::vehicle::Attitude;
use bold_stance_kinematics::edit::{EccentricPoint, Edit};
use bold_stance_kinematics::geometry::{
    ArmPoints, Axle, AxleLink, AxlePoints, FORMAT, Geometry, Points, Side, SteeringAxis, WheelAtDesign,
    WishbonePoints,
};
use bold_stance_kinematics::linkage::{Corner, Linkage};

fn wheel(x: f64, y: f64, r: f64) -> WheelAtDesign {
    WheelAtDesign { center: [x, y, r], camber_deg: 0.0, toe_deg: 0.0, loaded_radius_mm: r }
}

fn geometry(points: Points, axle: Axle, wheel: WheelAtDesign) -> Geometry {
    Geometry { format: FORMAT.into(), name: "case".into(), axle, points, wheel, right: None, note: None }
}

fn body() -> BodyFacts {
    BodyFacts {
        wheelbase_mm: 2800.0,
        cg_height_mm: 560.0,
        brake_front_share: 0.7,
        lock_deg: 35.0,
        shaft_inner: None,
        attitude: Attitude::default(),
    }
}

fn metrics(g: &Geometry, b: &BodyFacts) -> bold_stance_car::metrics::AxleMetrics {
    let c = [Corner::of(g, Side::Left), Corner::of(g, Side::Right)];
    axle_metrics(g, [&c[0], &c[1]], [0.0, 0.0], b).unwrap()
}

/// A pure trailing arm: its hinge is the side-view instant centre, so anti-lift is the slope of the line from
/// contact to hinge × rear brake share × wheelbase ÷ cg height (e.g. Gillespie, Fundamentals of Vehicle
/// Dynamics, ch. 7; Milliken & Milliken, RCVD, ch. 17).
#[test]
fn anti_lift_of_a_trailing_arm_is_the_slope_to_its_hinge() {
    let g = geometry(
        Points::SingleArm(ArmPoints {
            arm_inner: [-2350.0, 300.0, 280.0],
            arm_outer: [-2350.0, 600.0, 280.0],
        }),
        Axle::Rear,
        wheel(-2800.0, 740.0, 310.0),
    );
    let m = metrics(&g, &body());
    let slope = 280.0 / 450.0;
    assert!(
        (m.anti_brake_percent - 100.0 * slope * 0.3 * 2800.0 / 560.0).abs() < 0.01,
        "{}",
        m.anti_brake_percent
    );
    // Driven through shafts the wheel centre counts: the hinge is 30 mm below it.
    let centre = -30.0 / 450.0;
    assert!(
        (m.anti_drive_percent - 100.0 * centre * 2800.0 / 560.0).abs() < 0.01,
        "{}",
        m.anti_drive_percent
    );
    let ic = m.side_view_centre_mm.unwrap();
    assert!((ic[0] + 2350.0).abs() < 0.01 && (ic[1] - 280.0).abs() < 0.01, "{ic:?}");
    // Both wheels move alike: no camber, no scrub, roll centre on the ground.
    assert!(m.camber_gain_deg_per_50mm.abs() < 1e-9 && m.bump_scrub_mm_per_50mm.abs() < 1e-9);
    assert!(m.roll_centre.unwrap().z_mm.abs() < 1e-6);
}

/// A pure swing arm (hinge along x): the front-view instant centre is the hinge, camber gain 1/length.
#[test]
fn camber_gain_of_a_swing_arm_is_one_over_its_length() {
    let g = geometry(
        Points::SingleArm(ArmPoints {
            arm_inner: [-2900.0, 120.0, 260.0],
            arm_outer: [-2600.0, 120.0, 260.0],
        }),
        Axle::Rear,
        wheel(-2750.0, 720.0, 300.0),
    );
    let m = metrics(&g, &body());
    assert!((m.camber_gain_deg_per_50mm + 50.0 * (1.0f64 / 600.0).to_degrees()).abs() < 1e-4);
    let ic = m.front_view_centre_mm.unwrap();
    assert!((ic[0] - 120.0).abs() < 1e-3 && (ic[1] - 260.0).abs() < 1e-3, "{ic:?}");
    // The line from the contact through the hinge meets the centre line at the roll centre.
    let paper = 260.0 * 720.0 / 600.0;
    assert!((m.roll_centre.unwrap().z_mm - paper).abs() < 0.01);
}

fn axle_links(extra: Vec<AxleLink>) -> AxlePoints {
    let link = |name: &str, chassis, axle| AxleLink { name: name.into(), chassis, axle };
    let mut links = vec![
        link("lower_left", [-2000.0, 450.0, 340.0], [-2800.0, 450.0, 340.0]),
        link("lower_right", [-2000.0, -450.0, 340.0], [-2800.0, -450.0, 340.0]),
    ];
    links.extend(extra);
    AxlePoints { links, steering_axis: None, drag_link: None, tie_rod: None }
}

/// A track bar between level arms: the roll centre is where the bar crosses the middle of the car.
#[test]
fn a_track_bar_sets_the_roll_centre_where_it_crosses_the_middle() {
    let link = |name: &str, chassis, axle| AxleLink { name: name.into(), chassis, axle };
    let p = axle_links(vec![
        link("upper_left", [-2200.0, 400.0, 520.0], [-2800.0, 400.0, 520.0]),
        link("upper_right", [-2200.0, -400.0, 520.0], [-2800.0, -400.0, 520.0]),
        link("track_bar", [-2850.0, 500.0, 480.0], [-2850.0, -500.0, 380.0]),
    ]);
    let m = metrics(&geometry(Points::SolidAxle(p), Axle::Rear, wheel(-2800.0, 780.0, 370.0)), &body());
    assert!((m.roll_centre.unwrap().z_mm - 430.0).abs() < 1.5, "{:?}", m.roll_centre);
    // Level arms: the axle neither turns nor moves along at first.
    assert!(m.left.wheel_x_mm.abs() < 1e-9 && m.anti_brake_percent.abs() < 0.5, "{}", m.anti_brake_percent);
}

/// Upper arms that meet over the middle: with level lower arms the roll centre is at their meeting height
/// (textbook construction: a line through the meeting point, parallel to the lower arms in the side view).
#[test]
fn triangulated_arms_set_the_roll_centre_where_they_meet() {
    let link = |name: &str, chassis, axle| AxleLink { name: name.into(), chassis, axle };
    // Lines through (−2300, ±400) and (−2700, ±80) meet at x = −2800, over the axle, z = 560.
    let p = axle_links(vec![
        link("upper_left", [-2300.0, 400.0, 560.0], [-2700.0, 80.0, 560.0]),
        link("upper_right", [-2300.0, -400.0, 560.0], [-2700.0, -80.0, 560.0]),
    ]);
    let m = metrics(&geometry(Points::SolidAxle(p), Axle::Rear, wheel(-2800.0, 780.0, 370.0)), &body());
    assert!((m.roll_centre.unwrap().z_mm - 560.0).abs() < 1.5, "{:?}", m.roll_centre);
}

/// A live axle turns on its links as a four-bar in the side view: with equal parallel arms it keeps its angle.
#[test]
fn parallel_equal_arms_keep_a_live_axles_angle() {
    let link = |name: &str, chassis, axle| AxleLink { name: name.into(), chassis, axle };
    let p = axle_links(vec![
        link("upper_left", [-2000.0, 400.0, 520.0], [-2800.0, 400.0, 520.0]),
        link("upper_right", [-2000.0, -400.0, 520.0], [-2800.0, -400.0, 520.0]),
    ]);
    let p = AxlePoints { steering_axis: Some(SteeringAxis { caster_deg: 4.0, sai_deg: 8.0 }), ..p };
    let g = geometry(Points::SolidAxle(p), Axle::Rear, wheel(-2800.0, 780.0, 370.0));
    let Corner::Axle(c) = Corner::of(&g, Side::Left) else { panic!("an axle") };
    for q in live_axle_curve(&c, &[-80.0, -30.0, 40.0, 90.0], 16.0) {
        assert!(q.pitch_deg.abs() < 1e-9 && (q.caster_deg.unwrap() - 4.0).abs() < 1e-9, "{q:?}");
        // 800 mm arms swing on a circle: x = 800 − √(800² − h²), forward.
        let along = 800.0 - (800.0f64.powi(2) - q.height_mm.powi(2)).sqrt();
        assert!((q.wheel_x_mm - along).abs() < 1e-6, "{q:?}");
        assert!(q.steering_wheel_deg.is_none());
    }
}

fn planar() -> (WishbonePoints, WheelAtDesign) {
    let p = WishbonePoints {
        lower_front: [150.0, 350.0, 260.0],
        lower_rear: [-150.0, 350.0, 260.0],
        lower_outer: [0.0, 700.0, 260.0],
        upper_front: [120.0, 430.0, 500.0],
        upper_rear: [-120.0, 430.0, 500.0],
        upper_outer: [0.0, 670.0, 500.0],
        tie_inner: [-140.0, 350.0, 260.0],
        tie_outer: [-140.0, 700.0, 260.0],
    };
    (p, wheel(0.0, 760.0, 380.0))
}

/// In the plane a ball joint swings by the arm's own angle less the knuckle's lean.
#[test]
fn a_ball_joint_swings_by_arm_and_knuckle_together() {
    let (p, w) = planar();
    let g = geometry(Points::DoubleWishbone(p), Axle::Front, w);
    let c = [Corner::of(&g, Side::Left), Corner::of(&g, Side::Right)];
    let travel = 40.0;
    let m = axle_metrics(&g, [&c[0], &c[1]], [travel, travel], &body()).unwrap();
    let axis = c[0].pose(travel, 0.0).unwrap().axis.unwrap();
    let arm = (axis.lower.z - 260.0).atan2(axis.lower.y - 350.0).to_degrees();
    let lean = (axis.lower.y - axis.upper.y).atan2(axis.upper.z - axis.lower.z).to_degrees();
    let lean0 = (30.0f64).atan2(240.0).to_degrees();
    let lower = m.joints.iter().find(|j| j.joint == "lower").unwrap();
    assert!(
        (lower.change_deg.abs() - (arm - (lean - lean0)).abs()).abs() < 0.02,
        "{lower:?} {arm} {lean} {lean0}"
    );
}

/// Angles of a drive shaft by hand: level at design, atan(h / run) lifted.
#[test]
fn drive_shaft_angles_are_the_triangle() {
    let (p, w) = planar();
    let g = geometry(Points::DoubleWishbone(p), Axle::Front, w);
    let c = [Corner::of(&g, Side::Left), Corner::of(&g, Side::Right)];
    let b = BodyFacts { shaft_inner: Some([0.0, 200.0, 380.0]), ..body() };
    let at = |t: f64| axle_metrics(&g, [&c[0], &c[1]], [t, t], &b).unwrap().shaft.unwrap();
    assert!(at(0.0).inner_deg.abs() < 1e-9 && at(0.0).plunge_mm.abs() < 1e-9);
    let s = at(-60.0);
    let y = c[0].pose(-60.0, 0.0).unwrap();
    let run = y.centre.y - 60.0 * y.spin.y - 200.0;
    let drop = y.centre.z - 60.0 * y.spin.z - 380.0;
    assert!((s.inner_deg - (drop / run).atan().abs().to_degrees()).abs() < 1e-6, "{s:?}");
    assert!((s.plunge_mm - (run.hypot(drop) - 500.0)).abs() < 1e-6, "{s:?}");
}

/// Turning about an inclined axis: spin axis a rotated by Rodrigues' formula, sin γ = −a_z.
#[test]
fn full_lock_camber_is_rodrigues_formula() {
    let (mut p, w) = planar();
    p.upper_outer = [-34.0, 655.0, 500.0];
    let g = geometry(Points::DoubleWishbone(p.clone()), Axle::Front, w);
    let c = [Corner::of(&g, Side::Left), Corner::of(&g, Side::Right)];
    let f = full_lock([&c[0], &c[1]], [0.0, 0.0], 30.0, 2800.0).unwrap();
    let k = {
        let u = [-34.0, 655.0 - 700.0, 240.0f64];
        let n = u.iter().map(|v| v * v).sum::<f64>().sqrt();
        u.map(|v| v / n)
    };
    // Spin axis (0, 1, 0) turned by θ about k; θ found so that the heading has turned 30° to the left.
    let turned = |t: f64| {
        let (s, co) = t.sin_cos();
        let cross = [-k[2], 0.0, k[0]];
        let dot = k[1];
        [0, 1, 2].map(|i| [0.0, 1.0, 0.0][i] * co + cross[i] * s + k[i] * dot * (1.0 - co))
    };
    let (mut low, mut high) = (0.0, 1.0);
    for _ in 0..80 {
        let mid = f64::midpoint(low, high);
        let a = turned(mid);
        if -a[0].atan2(a[1]) < 30f64.to_radians() { low = mid } else { high = mid }
    }
    let camber = -turned(low)[2].asin().to_degrees();
    assert!((f.inner_camber_deg - camber).abs() < 1e-6, "{} {camber}", f.inner_camber_deg);
    // With caster and lean the inner wheel goes positive, the outer one negative of it by caster.
    assert!(f.inner_camber_deg > 3.0 && f.outer_camber_deg < f.inner_camber_deg - 3.0, "{f:?}");
}

/// The steering curve starts straight, ends at the lock and follows the same rack all the way.
#[test]
fn the_steering_curve_runs_from_straight_to_lock() {
    let (p, w) = planar();
    let g = geometry(Points::DoubleWishbone(p), Axle::Front, w);
    let c = Corner::of(&g, Side::Left);
    let s = steer_curve([&c, &c], [0.0, 0.0], 32.0, 2800.0, 16);
    assert_eq!(s.len(), 17);
    assert!(s[0].inner_deg.abs() < 1e-9 && s[0].inner_lift_mm.abs() < 1e-9);
    assert!((s[16].inner_deg - 32.0).abs() < 1e-6);
    assert!(s.windows(2).all(|w| w[1].inner_deg > w[0].inner_deg && w[1].outer_deg > w[0].outer_deg));
}

/// Curves hold what the single questions answer.
#[test]
fn curves_agree_with_single_answers() {
    for a in shipped_archetypes().unwrap() {
        let g = &a.geometry;
        let c = [Corner::of(g, Side::Left), Corner::of(g, Side::Right)];
        let heights: Vec<f64> = (-10..=10).map(|i| 5.0 * f64::from(i)).collect();
        let curves = axle_curves(g, [&c[0], &c[1]], &heights);
        for p in &curves.left {
            let w = c[0].wheel(-p.height_mm, 0.0).unwrap();
            assert!((w.camber_deg - p.camber_deg).abs() < 1e-12, "{}", a.id);
        }
        let m = axle_metrics(g, [&c[0], &c[1]], [0.0, 0.0], &body()).unwrap();
        let mid = curves.left[10].roll_centre_mm.unwrap();
        assert!((mid - m.roll_centre.unwrap().z_mm).abs() < 2.0, "{}: {mid} {:?}", a.id, m.roll_centre);
    }
}

/// Edits of every layout do what their name says, and what a layout has not changes nothing.
#[test]
fn edits_change_only_what_a_layout_has() {
    for a in shipped_archetypes().unwrap() {
        let c = Corner::of(&a.geometry, Side::Left);
        let base = c.wheel(0.0, 0.0).unwrap();
        let after = |e: Edit| c.edited(&[e]).wheel(0.0, 0.0).unwrap();
        let turned = after(Edit::TurnSpin { camber_deg: 0.5, toe_deg: -0.2 });
        assert!((turned.camber_deg - base.camber_deg - 0.5).abs() < 0.02, "{}", a.id);
        assert!((turned.toe_deg - base.toe_deg + 0.2).abs() < 0.02, "{}", a.id);
        let same = after(Edit::LengthenLink { name: "no such link".into(), by_mm: 9.0 });
        assert!((same.camber_deg - base.camber_deg).abs() < 1e-9);
        let leaned = after(Edit::LeanKingpin { caster_deg: 1.0 });
        match (&a.geometry.points, leaned.steer, base.steer) {
            (Points::SolidAxle(_), Some(l), Some(b)) => {
                assert!((l.caster_deg - b.caster_deg - 1.0).abs() < 1e-6, "{}", a.id);
            }
            (_, l, b) => assert_eq!(l, b),
        }
        let top = after(Edit::MovePivot { point: EccentricPoint::StrutTop, by: [-10.0, 0.0, 0.0] });
        let moved = matches!(a.geometry.points, Points::Strut(_));
        assert_eq!((top.steer.map(|s| s.caster_deg) != base.steer.map(|s| s.caster_deg)), moved, "{}", a.id);
    }
    // A longer camber link of a multi-link leans the top out, and toe goes with it: why a toe link is fitted too.
    let all = shipped_archetypes().unwrap();
    let ev = all.iter().find(|a| a.id == "ev_multilink_rear").unwrap();
    let c = Corner::of(&ev.geometry, Side::Left);
    let longer = c.edited(&[Edit::LengthenLink { name: "upper_rear".into(), by_mm: 4.0 }]);
    let (a, b) = (c.wheel(0.0, 0.0).unwrap(), longer.wheel(0.0, 0.0).unwrap());
    assert!(b.camber_deg > a.camber_deg + 0.2, "{} {}", a.camber_deg, b.camber_deg);
    assert!((b.toe_deg - a.toe_deg).abs() > 0.02, "a camber arm alone always shifts toe");
}
