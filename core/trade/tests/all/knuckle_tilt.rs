//! What is turned at a strut's clamp or in an axle end carries the steering arm: toe follows with the rod's length
//! kept. Held to rotations of nalgebra about the ball joint and the steering axis, none of the program's own code.

use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Geometry, Points, Side, StrutPoints};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::plan::{PartCase, PartResult, SettingsError, run_part};
use nalgebra::{Rotation3, Unit, Vector3};

type V = Vector3<f64>;

fn shape(id: &str) -> Geometry {
    shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry
}

fn strut_files() -> Vec<Geometry> {
    let file = |t: &[u8]| Geometry::from_json(t).unwrap();
    vec![
        shape("compact_strut_front"),
        shape("strut_coupe_front"),
        file(include_bytes!("../../../../reference/geometries/strut_ahead.json")),
        file(include_bytes!("../../../../reference/geometries/strut_leaning.json")),
    ]
}

/// Root by bisection; the ends must differ in sign.
fn root(f: impl Fn(f64) -> f64, mut a: f64, mut b: f64) -> f64 {
    let fa = f(a);
    assert!(fa * f(b) < 0.0, "no sign change");
    for _ in 0..200 {
        let m = 0.5 * (a + b);
        if f(m) * fa > 0.0 { a = m } else { b = m }
    }
    0.5 * (a + b)
}

fn deg(v: f64) -> f64 {
    v.to_degrees()
}

struct Turned {
    camber: f64,
    toe: f64,
    caster: f64,
    sai: f64,
    centre: V,
}

/// The knuckle turned by hand: about the fore-aft line through the ball joint until strut and knuckle enclose the
/// ordered angle, then about ball joint to mount until the rod has its length again.
fn by_hand(p: &StrutPoints, g: &Geometry, ordered_deg: f64) -> Turned {
    let v = |a: [f64; 3]| V::from(a);
    let (lower, top, clamp) = (v(p.lower_outer), v(p.strut_top), v(p.strut_bottom));
    let (tie, inner, centre) = (v(p.tie_outer), v(p.tie_inner), v(g.wheel.center));
    let (c, t) = (g.wheel.camber_deg.to_radians(), g.wheel.toe_deg.to_radians());
    let spin = V::new(c.cos() * t.sin(), c.cos() * t.cos(), -c.sin());
    let about_x = |d: f64| Rotation3::from_axis_angle(&V::x_axis(), -d);
    let front_view = |d: V| d.y.atan2(d.z);
    let enclosed = |d: f64| {
        let r = about_x(d);
        let strut = front_view(top - (lower + r * (clamp - lower)));
        // The strut leans one way as the knuckle leans the other; top out is positive.
        d - (strut - front_view(top - clamp)) - ordered_deg.to_radians()
    };
    let delta = root(enclosed, -0.2, 0.2);
    let r = about_x(delta);
    let axis = Unit::new_normalize(top - lower);
    let full = |s: f64| Rotation3::from_axis_angle(&axis, s) * r;
    let rod = (tie - inner).norm();
    let s = root(|s| (lower + full(s) * (tie - lower) - inner).norm() - rod, -0.12, 0.12);
    let spin = full(s) * spin;
    let u = top - lower;
    Turned {
        camber: deg(-spin.z.asin()),
        toe: deg(spin.x.atan2(spin.y)),
        caster: deg((-u.x).atan2(u.z)),
        sai: deg((-u.y).atan2(u.z)),
        centre: lower + full(s) * (centre - lower),
    }
}

#[test]
fn a_strut_bolt_is_the_rotation_about_the_ball_joint_with_the_rods_length_kept() {
    for g in strut_files() {
        let Points::Strut(p) = &g.points else { panic!("a strut") };
        let corner = Corner::of(&g, Side::Left);
        for ordered in [-2.5, -1.0, -0.3, 0.4, 1.75] {
            let hand = by_hand(p, &g, ordered);
            let set = corner.edited(&[Edit::KnuckleTilt { camber_deg: ordered, toe_deg: 0.0 }]);
            // The ball joint stays: that is the height at which the wheel centre is where the hand put it.
            let travel = hand.centre.z - g.wheel.center[2];
            let a = set.alignment(travel, 0.0).unwrap();
            for (name, got, want) in [
                ("camber", a.camber_deg, hand.camber),
                ("toe", a.toe_deg, hand.toe),
                ("caster", a.caster_deg, hand.caster),
                ("SAI", a.sai_deg, hand.sai),
            ] {
                assert!((got - want).abs() < 0.001, "{} {ordered}: {name} {got} {want}", g.name);
            }
        }
    }
}

#[test]
fn a_compact_strut_toes_half_a_degree_a_degree_and_its_sai_hardly_moves() {
    // Common practice, no source: a bolt that moves 1.7–2.5° of camber puts 7–8 mm of toe out at the rim; about 0.5
    // to 0.6° of toe a degree of camber on a compact strut.
    let r = part("compact_strut_front", Some("strut-cam-bolt"), Some(-1.75), None).unwrap();
    let ratio = (r.toe_deg / r.camber_deg).abs();
    assert!((0.3..0.9).contains(&ratio), "{ratio}");
    assert!(r.toe_deg.abs() > 0.3, "{}", r.toe_deg);
    assert!(r.sai_deg.unwrap().abs() < 0.15 && r.caster_deg.unwrap().abs() < 0.15, "{r:?}");
    // δ = ordered · (1 − h/L).
    let Points::Strut(p) = shape("compact_strut_front").points else { panic!() };
    let (h, l) = (p.strut_bottom[2] - p.lower_outer[2], p.strut_top[2] - p.lower_outer[2]);
    assert!((r.camber_deg / -1.75 - (1.0 - h / l)).abs() < 0.05, "{}", r.camber_deg);
}

fn part(
    shape_id: &str,
    id: Option<&str>,
    size: Option<f64>,
    adjuster: Option<(&str, f64)>,
) -> Result<PartResult, SettingsError> {
    run_part(&PartCase {
        format: "bold-stance.part/1".into(),
        geometry: shape(shape_id),
        height_change_mm: 0.0,
        part: id.map(Into::into),
        size,
        adjuster: adjuster.map(|(text, _)| serde_json::from_str::<Adjuster>(text).unwrap()),
        position: adjuster.map(|(_, p)| p),
        note: None,
    })
}

#[test]
fn geometry_after_gives_the_angles_again() {
    for (id, p, size) in [
        ("compact_strut_front", "strut-cam-bolt", Some(1.0)),
        ("compact_strut_front", "slotted-strut", Some(-1.2)),
        ("live_front", "axle-end-sleeves", Some(1.0)),
        ("half_ton_front", "upper-joint-spacer", Some(20.0)),
    ] {
        let Ok(r) = part(id, Some(p), size, None) else {
            let sizes = bold_stance_trade::part::shipped_parts().unwrap();
            panic!("{p}: {:?}", sizes.iter().find(|x| x.id == p).unwrap().sizes)
        };
        let before = Corner::of(&shape(id), Side::Left).alignment(0.0, 0.0).unwrap();
        let after = Corner::of(&r.geometry_after, Side::Left).alignment(0.0, 0.0).unwrap();
        assert!((after.camber_deg - before.camber_deg - r.camber_deg).abs() < 1e-7, "{p}");
        assert!(
            (after.toe_deg - before.toe_deg - r.toe_deg).abs() < 1e-7,
            "{p} {} {}",
            after.toe_deg,
            r.toe_deg
        );
        assert!((after.caster_deg - before.caster_deg - r.caster_deg.unwrap()).abs() < 1e-7, "{p}");
    }
}

#[test]
fn an_axle_end_sleeve_turns_the_kingpin_and_the_steering_arm_with_it() {
    let g = shape("live_front");
    let Points::SolidAxle(p) = &g.points else { panic!("a live axle") };
    let (s, tie) = (p.steering_axis.unwrap(), p.tie_rod.unwrap());
    let corner = Corner::of(&g, Side::Left);
    for clock in [0.0f64, 30.0, 90.0, 150.0, 240.0] {
        // By hand: kingpin, spindle and steering arm turn together about the lower joint; then about the kingpin
        // until the rod to the other wheel has its length.
        let (out_deg, back_deg) = (1.5 * clock.to_radians().cos(), 1.5 * clock.to_radians().sin());
        let (out, back) = (out_deg.to_radians(), back_deg.to_radians());
        let k = V::new(-s.caster_deg.to_radians().tan(), -s.sai_deg.to_radians().tan(), 1.0);
        let moved = k + V::new(-back.tan(), out.tan(), 0.0);
        let r1 = Rotation3::rotation_between(&k, &moved).unwrap();
        let centre = V::from(g.wheel.center);
        let lower = centre - V::y() * 100.0 - k.normalize() * 100.0;
        let (near, far) = (V::from(tie[0]), V::from(tie[1]));
        let axis = Unit::new_normalize(moved);
        let full = |t: f64| Rotation3::from_axis_angle(&axis, t) * r1;
        let rod = (near - far).norm();
        let t = root(|t| (lower + full(t) * (near - lower) - far).norm() - rod, -0.1, 0.1);
        let spin = full(t) * V::y();
        let want = [
            deg(-spin.z.asin()),
            deg(spin.x.atan2(spin.y)),
            deg((-moved.x).atan2(moved.z)),
            deg((-moved.y).atan2(moved.z)),
        ];
        // The tube stays where it is: the wheel centre rises in it by this much.
        let travel = (lower + r1 * (centre - lower)).z - centre.z;
        let set = corner.edited(&[Edit::OffsetUpperJoint { out_deg, back_deg }]);
        let a = set.alignment(travel, 0.0).unwrap();
        for (got, want) in [a.camber_deg, a.toe_deg, a.caster_deg, a.sai_deg].into_iter().zip(want) {
            assert!((got - want).abs() < 0.001, "{clock} {got} {want}");
        }
    }
    // On the command line: from where it stands to another position.
    let text = r#"{"name":"sleeve","kind":"sleeve","amount_deg":1.5,"positions":12}"#;
    let r = part("live_front", None, None, Some((text, 180.0))).unwrap();
    assert!((r.camber_deg + 3.0).abs() < 0.1 && r.toe_deg.abs() > 0.5, "{r:?}");
}

#[test]
fn bad_part_cases_are_named_at_their_field() {
    let bad = |r: Result<PartResult, SettingsError>, field: &str| match r {
        Err(SettingsError::Bad(p)) => assert_eq!(p.field, field, "{p}"),
        other => panic!("{field}: {other:?}"),
    };
    bad(part("compact_strut_front", None, None, None), "part");
    bad(part("compact_strut_front", Some("no-such-part"), None, None), "part");
    bad(part("half_ton_front", Some("strut-cam-bolt"), Some(1.0), None), "part");
    bad(part("compact_strut_front", Some("strut-cam-bolt"), Some(3.0), None), "size");
    bad(part("half_ton_front", Some("upper-joint-spacer"), Some(1.7), None), "size");
    let bolt = r#"{"name":"b","kind":"cam_bolt","amplitude_deg":1.75,"min_deg":-90,"max_deg":90}"#;
    bad(part("half_ton_front", None, None, Some((bolt, 10.0))), "adjuster.kind");
    bad(part("compact_strut_front", None, None, Some((bolt, 120.0))), "position");
}
