//! A wheel measured moving: the points follow the readings, bands shrink, and readings that do not fit move nothing.

use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::fit::{Knowledge, Sigmas};
use bold_stance_car::vehicle::{MovedRow, Moving};
use bold_stance_kinematics::geometry::{Axle, Geometry, Points, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::job::{MovingAsked, MovingSaid, VehicleFacts, moving_said, shape_of};

const SIGMA: Sigmas = Sigmas { camber_deg: 0.06, caster_deg: 0.16, toe_deg: 0.03 };
const DESIGN: f64 = 500.0;

fn shape(id: &str) -> Geometry {
    shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry
}

/// The same axle built otherwise: its upper arm's front pivot higher, the tie rod's inner end lower.
fn built(g: &Geometry) -> Geometry {
    let mut out = g.clone();
    match &mut out.points {
        Points::DoubleWishbone(p) => {
            p.upper_front[2] += 9.0;
            p.tie_inner[2] -= 6.0;
        }
        Points::Strut(p) => {
            p.lower_front[2] += 8.0;
            p.tie_inner[2] -= 6.0;
        }
        _ => panic!("no such axle here"),
    }
    out
}

/// Readings of a wheel at heights, to the digit.
fn readings(g: &Geometry, heights: &[f64], toe_sign: f64) -> Moving {
    let c = Corner::new(&g.points, &g.wheel);
    let row = |h: &f64| {
        let w = c.wheel(DESIGN - h, 0.0).unwrap();
        MovedRow {
            height_mm: *h,
            camber_deg: Some(w.camber_deg),
            caster_deg: w.steer.filter(|_| *h == DESIGN).map(|s| s.caster_deg),
            toe_deg: Some(toe_sign * w.toe_deg),
            sigma: SIGMA.into(),
        }
    };
    Moving { side: Side::Left, rows: heights.iter().map(row).collect() }
}

fn asked(g: &Geometry, moving: Moving) -> MovingAsked {
    MovingAsked { geometry: g.clone(), knowledge: Knowledge::Archetype, design_height_mm: DESIGN, moving }
}

const HEIGHTS: [f64; 5] = [450.0, 475.0, 500.0, 530.0, 560.0];

/// Beyond the readings the fitted points are nearer to the car than the shape was, inside their own band, and that band is
/// narrower than before.
#[test]
fn what_was_read_moving_tells_where_it_goes_next() {
    for id in ["half_ton_front", "compact_strut_front"] {
        let g = shape(id);
        let car = built(&g);
        let s: MovingSaid = moving_said(&asked(&g, readings(&car, &HEIGHTS, 1.0))).unwrap();
        assert!(s.fits && s.moved_mm > 1.0, "{id} {:?}", s.says);
        assert!(s.narrower.len() == 3, "{id}");
        // Caster is one reading at one height: its band is what it was there. Camber and toe were read at all of them.
        for n in s.narrower.iter().filter(|n| n.angle.word() != "caster") {
            assert!(n.now_deg < 0.7 * n.before_deg, "{id} {n:?}");
        }
        let truth = Corner::new(&car.points, &car.wheel);
        for p in &s.curve {
            let w = truth.wheel(DESIGN - p.height_mm, 0.0).unwrap();
            let (told, fitted, band) = (p.told_deg.unwrap(), p.fitted_deg.unwrap(), p.band.unwrap());
            let off = |v: f64, t: f64| (v - t).abs();
            assert!(off(fitted[0], w.camber_deg) <= band.camber_deg + 0.02, "{id} {p:?} {}", w.camber_deg);
            assert!(off(fitted[2], w.toe_deg) <= band.toe_deg + 0.02, "{id} {p:?} {}", w.toe_deg);
            if (p.height_mm - DESIGN).abs() > 40.0 {
                assert!(off(fitted[2], w.toe_deg) <= off(told[2], w.toe_deg) + 0.01, "{id} {p:?}");
            }
        }
    }
}

#[test]
fn readings_of_the_other_sign_move_nothing() {
    let g = shape("half_ton_front");
    // A tie rod far off level, so that its bump steer has a sign to get wrong.
    let mut car = g.clone();
    if let Points::DoubleWishbone(p) = &mut car.points {
        p.tie_inner[2] += 45.0;
    }
    let s = moving_said(&asked(&g, readings(&car, &HEIGHTS, -1.0))).unwrap();
    assert!(!s.fits && s.geometry.points == g.points && s.narrower.is_empty(), "{:?}", s.says);
}

#[test]
fn two_heights_and_a_right_wheel_with_points_of_its_own_are_refused_at_their_field() {
    let g = shape("half_ton_front");
    let two = readings(&g, &[480.0, 520.0], 1.0);
    assert_eq!(moving_said(&asked(&g, two)).unwrap_err()[0].field, "moving.rows");
    let mut own = g.clone();
    own.right = Some(bold_stance_kinematics::geometry::OtherSide {
        points: g.points.clone(),
        wheel: g.wheel.clone(),
    });
    let right = Moving { side: Side::Right, ..readings(&g, &HEIGHTS, 1.0) };
    assert_eq!(moving_said(&asked(&own, right)).unwrap_err()[0].field, "moving.side");
}

/// Kept as a shape of the shop it is the fitted axle with what can be turned on it, and every field of its kind.
#[test]
fn a_measured_car_becomes_a_shape_of_the_shop() {
    let g = shape("half_ton_front");
    let mut f = VehicleFacts::starting_on(g.clone());
    f.name = "Quarry pickup".into();
    f.axles.front.height_mm = DESIGN;
    f.car.axles.front.moving = Some(readings(&built(&g), &HEIGHTS, 1.0));
    let a = shape_of(&f, Axle::Front, " Quarry 4x4, front ").unwrap();
    assert_eq!(
        (a.name.as_str(), a.id.as_str(), a.seen.as_str()),
        ("Quarry 4x4, front", "own-quarry-4x4--front", "Quarry pickup")
    );
    assert_ne!(a.geometry.points, g.points);
    assert_eq!(a.usual.adjusters, ["cam lower_front", "cam lower_rear", "thread tie"]);
    assert_eq!(a.usual_adjusters().len(), 3);
    assert_eq!(shape_of(&f, Axle::Front, "  ").unwrap_err()[0].field, "name");
    assert_eq!(shape_of(&f, Axle::Rear, "x").unwrap_err()[0].field, "axles.rear.geometry");
}
