//! Identities that hold for every layout, tried on every shipped shape.

use bold_stance_car::archetype::{Archetype, shipped_archetypes};
use bold_stance_car::fit::{Doubted, Knowledge, Sigmas, SpreadOf, doubt, sampled_doubt, spreads};
use bold_stance_car::metrics::{BodyFacts, CornerFileRequest, WheelRead, axle_metrics, corner_file};
use bold_stance_car::vehicle::{
    Attitude, Axles, Car, CarFacts, Gains, Measured, PlannedHeights, Sides, anchor, anchor_wheel,
};
use bold_stance_kinematics::geometry::{Axle, Geometry, OtherSide, Points, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_kinematics::wheel::WheelState;
use bold_stance_words::English;
use proptest::prelude::*;
use rand::SeedableRng;
use rand_distr::{Distribution, StandardNormal};

fn all() -> Vec<Archetype> {
    shipped_archetypes().unwrap()
}

fn near(a: &WheelState, b: &WheelState, tolerance: f64) -> bool {
    let steer = match (a.steer, b.steer) {
        (Some(a), Some(b)) => {
            (a.caster_deg - b.caster_deg).abs() < tolerance
                && (a.scrub_radius_mm - b.scrub_radius_mm).abs() < 100.0 * tolerance
        }
        (None, None) => true,
        _ => false,
    };
    steer
        && (a.camber_deg - b.camber_deg).abs() < tolerance
        && (a.toe_deg - b.toe_deg).abs() < tolerance
        && (a.wheel_x_mm - b.wheel_x_mm).abs() < 100.0 * tolerance
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    /// Path independence (up, down, up returns) and no memory between questions.
    #[test]
    fn a_pose_depends_on_travel_alone(t in -80.0f64..75.0, via in -80.0f64..75.0) {
        for a in all() {
            let c = Corner::of(&a.geometry, Side::Left);
            let first = c.pose(t, 0.0).unwrap();
            let _ = c.pose(via, 0.0).unwrap();
            prop_assert_eq!(first, c.pose(t, 0.0).unwrap(), "{}", a.id);
        }
    }

    /// Moving the whole car forward changes no angle.
    #[test]
    fn translation_changes_no_angle(dx in -700.0f64..700.0, t in -70.0f64..70.0) {
        for a in all() {
            let mut g = a.geometry.clone();
            for (_, _, p) in g.points.named_mut() {
                p[0] += dx;
            }
            g.wheel.center[0] += dx;
            let (x, y) = (Corner::of(&a.geometry, Side::Left), Corner::of(&g, Side::Left));
            prop_assert!(near(&x.wheel(t, 0.0).unwrap(), &y.wheel(t, 0.0).unwrap(), 1e-7), "{}", a.id);
        }
    }

    /// The right side is the mirror image and reports the same signs; a car written with its right side equal to
    /// its left is symmetric. An axle that walks on a track bar is the exception: there the sides trade places.
    #[test]
    fn mirror_images_read_alike(t in -70.0f64..70.0) {
        for a in all() {
            let l = Corner::of(&a.geometry, Side::Left).wheel(t, 0.0).unwrap();
            let r = Corner::of(&a.geometry, Side::Right).wheel(t, 0.0).unwrap();
            let walks = l.half_track_mm - a.geometry.wheel.center[1];
            if !matches!(a.geometry.points, Points::SolidAxle(_)) {
                prop_assert!(near(&l, &r, 1e-9), "{}", a.id);
                let mut g = a.geometry.clone();
                if !g.layout().is_whole_axle() {
                    g.right = Some(OtherSide { points: g.points.clone(), wheel: g.wheel.clone() });
                    prop_assert!(near(&l, &Corner::of(&g, Side::Right).wheel(t, 0.0).unwrap(), 1e-9), "{}", a.id);
                }
            } else {
                let other = r.half_track_mm - a.geometry.wheel.center[1];
                prop_assert!((walks + other).abs() < 0.6, "{}: {walks} {other}", a.id);
            }
        }
    }

    /// Neighbouring travels give neighbouring angles: no jump of branch anywhere on the way.
    #[test]
    fn curves_have_no_jumps(t in -85.0f64..75.0) {
        for a in all() {
            let c = Corner::of(&a.geometry, Side::Left);
            let (x, y) = (c.wheel(t, 0.0).unwrap(), c.wheel(t + 0.2, 0.0).unwrap());
            prop_assert!((x.camber_deg - y.camber_deg).abs() < 0.03, "{}", a.id);
            prop_assert!((x.toe_deg - y.toe_deg).abs() < 0.03, "{}", a.id);
            prop_assert!((x.half_track_mm - y.half_track_mm).abs() < 0.2, "{}", a.id);
        }
    }

    /// Anchoring reproduces the gauge for every layout at any height.
    #[test]
    fn the_model_never_contradicts_the_gauge(camber in -1.0f64..1.0, toe in -0.3f64..0.3, caster in 2.5f64..6.0, t in -50.0f64..50.0) {
        for a in all() {
            let g = &a.geometry;
            let steers = Corner::of(g, Side::Left).is_steered() && g.axle == Axle::Front;
            let found = if steers {
                anchor(&g.points, &g.wheel, t, &[], &Measured { camber_deg: camber, caster_deg: caster, toe_deg: toe })
            } else {
                anchor_wheel(&g.points, &g.wheel, t, &[], camber, toe)
            };
            let w = found.unwrap_or_else(|e| panic!("{}: {e}", a.id)).corner.wheel(t, 0.0).unwrap();
            prop_assert!((w.camber_deg - camber).abs() < 1e-8 && (w.toe_deg - toe).abs() < 1e-8, "{}", a.id);
            if steers {
                prop_assert!((w.steer.unwrap().caster_deg - caster).abs() < 1e-8, "{}", a.id);
            }
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(60))]

    /// Damaged files: random points in every layout end in an answer or a reason, in bounded time, and
    /// never in a number that is none.
    #[test]
    fn random_points_never_panic_or_hang(v in proptest::collection::vec(-900.0f64..900.0, 48), t in -250.0f64..250.0, rack in -60.0f64..60.0) {
        for a in all() {
            let mut g = a.geometry.clone();
            for (i, (_, _, p)) in g.points.named_mut().into_iter().enumerate() {
                p.copy_from_slice(&v[3 * i % 46..3 * i % 46 + 3 - usize::from(3 * i % 46 > 45)]);
            }
            let _ = g.problems();
            for side in Side::BOTH {
                let c = Corner::of(&g, side);
                if let Ok(p) = c.pose(t, rack) {
                    prop_assert!(p.centre.iter().all(|x| x.is_finite()));
                }
                let _ = c.bars(t, rack);
            }
            let body = BodyFacts { wheelbase_mm: 2800.0, cg_height_mm: 600.0, brake_front_share: 0.6, lock_deg: 35.0, shaft_inner: None, attitude: Attitude::default() };
            let c = Corner::of(&g, Side::Left);
            let _ = axle_metrics(&g, [&c, &c], [t / 4.0, t / 4.0], &body);
        }
    }

    /// The reader takes any bytes: a geometry or a problem, never a panic.
    #[test]
    fn any_bytes_are_a_geometry_or_a_problem(cut in 0usize..1200, at in 0usize..1200, byte in any::<u8>(), which in 0usize..15) {
        let mut text = serde_json::to_vec_pretty(&all()[which % all().len()].geometry).unwrap();
        if let Some(b) = text.get_mut(at) {
            *b = byte;
        }
        text.truncate(text.len().saturating_sub(cut % 97 * usize::from(cut % 3 == 0)));
        if let Ok(g) = Geometry::from_json(&text) {
            let _ = Corner::of(&g, Side::Left).travel_range(100.0);
        }
    }
}

#[test]
fn zero_travel_is_design_and_files_come_back() {
    for a in all() {
        for side in Side::BOTH {
            let w = Corner::of(&a.geometry, side).wheel(0.0, 0.0).unwrap();
            assert!((w.camber_deg - a.geometry.wheel.camber_deg).abs() < 1e-9, "{}", a.id);
            assert!((w.toe_deg - a.geometry.wheel.toe_deg).abs() < 1e-9, "{}", a.id);
            assert!(w.wheel_x_mm.abs() < 1e-9);
        }
        let text = serde_json::to_vec(&a.geometry).unwrap();
        assert_eq!(Geometry::from_json(&text).unwrap(), a.geometry, "{}", a.id);
    }
}

/// On simulated cars the 90 % band holds the truth in 85–95 % of cases, for each layout with much to doubt.
#[test]
fn bands_are_honest_for_other_layouts_too() {
    for (id, knowledge, sigma) in [
        ("compact_strut_front", Knowledge::Taped, 4.0),
        ("ev_multilink_rear", Knowledge::Surveyed, 1.5),
        ("semi_trailing_rear", Knowledge::Archetype, 12.0),
    ] {
        let a = all().into_iter().find(|a| a.id == id).unwrap();
        let g = &a.geometry;
        let design = Corner::of(g, Side::Left).wheel(0.0, 0.0).unwrap();
        let read = Measured {
            camber_deg: design.camber_deg,
            toe_deg: design.toe_deg,
            caster_deg: design.steer.map_or(0.0, |s| s.caster_deg),
        };
        let mut rng = rand_pcg::Pcg64Mcg::seed_from_u64(11);
        let mut normal = || -> f64 { StandardNormal.sample(&mut rng) };
        let (mut hits, mut count) = ([0u32; 2], 0u32);
        let known = spreads(&g.points, knowledge);
        assert!(known.iter().all(|s| s.of != SpreadOf::Coordinate || s.sigma_mm <= sigma));
        for _ in 0..300 {
            let mut p = g.points.clone();
            for s in &known {
                s.shift(&mut p, s.sigma_mm * normal());
            }
            let of = |p: &Points, m: &Measured| {
                let steered = anchor(p, &g.wheel, 0.0, &[], m);
                let found = steered.or_else(|_| anchor_wheel(p, &g.wheel, 0.0, &[], m.camber_deg, m.toe_deg));
                found.unwrap().corner.wheel(-40.0, 0.0).unwrap()
            };
            let truth = of(&p, &read);
            let gauge = Measured {
                camber_deg: read.camber_deg + 0.1 * normal(),
                toe_deg: read.toe_deg + 0.05 * normal(),
                ..read
            };
            let d = Doubted {
                points: &g.points,
                wheel: &g.wheel,
                read_at: 0.0,
                start: &[],
                planned: &[],
                measured: &gauge,
                sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.2, toe_deg: 0.05 },
                spreads: &known,
                height_sigma_mm: 0.0,
                throws: &[],
            };
            let band = doubt(&d, &[-40.0]).unwrap()[0].unwrap();
            let said = of(&g.points, &gauge);
            count += 1;
            hits[0] += u32::from((said.camber_deg - truth.camber_deg).abs() <= band.camber_deg);
            hits[1] += u32::from((said.toe_deg - truth.toe_deg).abs() <= band.toe_deg);
        }
        for h in hits {
            let share = f64::from(h) / f64::from(count);
            assert!((0.85..=0.95).contains(&share), "{id}: {share}");
        }
    }
}

/// Sampled and linear bands agree on a layout without a steering axis as well.
#[test]
fn sampled_bands_agree_for_a_multi_link() {
    let a = all().into_iter().find(|a| a.id == "ev_multilink_rear").unwrap();
    let read = Measured { camber_deg: -1.0, caster_deg: 0.0, toe_deg: 0.1 };
    let d = Doubted {
        points: &a.geometry.points,
        wheel: &a.geometry.wheel,
        read_at: 0.0,
        start: &[],
        planned: &[],
        measured: &read,
        sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.2, toe_deg: 0.05 },
        spreads: &spreads(&a.geometry.points, Knowledge::Taped),
        height_sigma_mm: 0.0,
        throws: &[],
    };
    let (l, s) =
        (doubt(&d, &[-40.0]).unwrap()[0].unwrap(), sampled_doubt(&d, &[-40.0], 3000).unwrap()[0].unwrap());
    assert!(
        (l.camber_deg / s.camber_deg - 1.0).abs() < 0.1 && (l.toe_deg / s.toe_deg - 1.0).abs() < 0.1,
        "{l:?} {s:?}"
    );
}

const GAUGE: Sigmas = Sigmas { camber_deg: 0.1, caster_deg: 0.0, toe_deg: 0.04 };

/// Both wheels of an axle read alike well.
fn both(angles: [Measured; 2], sigma: Sigmas) -> Option<Sides<WheelRead>> {
    let [left, right] = angles.map(|angles| WheelRead { angles, sigma });
    Some(Sides { left, right })
}

fn request(front: &str, rear: &str, lift: f64) -> CornerFileRequest {
    let get = |id: &str| all().into_iter().find(|a| a.id == id).unwrap().geometry;
    CornerFileRequest {
        car: Car {
            front: get(front),
            rear: Some(get(rear)),
            wheelbase_mm: 2950.0,
            facts: CarFacts::default(),
        },
        arrived: Gains::default(),
        planned: Some(PlannedHeights::gains(lift, 0.0).settling(4.0)),
        read: Axles::default(),
        axle_offset_mm: None,
        wheelbases_mm: None,
        set: Axles::default(),
        knowledge: Axles::default(),
    }
}

#[test]
fn the_corner_file_speaks_for_every_pair_of_axles() {
    let fronts: Vec<String> =
        all().iter().filter(|a| a.geometry.axle == Axle::Front).map(|a| a.id.clone()).collect();
    let rears: Vec<String> =
        all().iter().filter(|a| a.geometry.axle == Axle::Rear).map(|a| a.id.clone()).collect();
    for f in &fronts {
        for r in &rears {
            let file = corner_file(&request(f, r, 45.0)).unwrap_or_else(|p| panic!("{f} {r}: {p:?}"));
            assert!(file.quantities.len() > 14, "{f} {r}: {}", file.quantities.len());
            assert_eq!(file.states.len(), 3);
            for q in &file.quantities {
                assert!(
                    q.arrived.is_finite() && q.means.en().ends_with('.') && q.outside == q.caution.is_some(),
                    "{q:?}"
                );
            }
            assert!(file.curves.front.as_ref().unwrap().left.len() == 41, "{f}");
        }
    }
}

#[test]
fn as_arrived_the_page_shows_what_the_gauge_said() {
    for front in ["half_ton_front", "compact_strut_front", "live_front"] {
        let mut r = request(front, "triangulated_rear", 40.0);
        // It came in leaning and nose down.
        r.arrived = Gains { left_front: -14.0, right_front: -4.0, left_rear: 6.0, right_rear: 15.0 };
        let read = [
            Measured { camber_deg: -0.3, caster_deg: 4.1, toe_deg: 0.06 },
            Measured { camber_deg: 0.2, caster_deg: 4.6, toe_deg: 0.03 },
        ];
        r.read.front = both(read, GAUGE);
        let file = corner_file(&r).unwrap();
        for (w, m) in file.states[0].wheels.iter().zip(&read) {
            let got = w.wheel.unwrap();
            assert!((got.camber_deg - m.camber_deg).abs() < 1e-6, "{front} {got:?}");
            assert!((got.toe_deg - m.toe_deg).abs() < 1e-6, "{front} {got:?}");
            assert!((got.steer.unwrap().caster_deg - m.caster_deg).abs() < 1e-6, "{front} {got:?}");
        }
    }
}

#[test]
fn rear_wheels_show_what_was_read_too_and_their_bands_are_the_gauges() {
    for rear in
        ["triangulated_rear", "ev_multilink_rear", "semi_trailing_rear", "twist_beam_rear", "leaf_rear"]
    {
        let mut r = request("half_ton_front", rear, 30.0);
        r.arrived = Gains { left_front: -6.0, right_front: 2.0, left_rear: 5.0, right_rear: 11.0 };
        let wheel = |camber_deg: f64, toe_deg: f64| Measured { camber_deg, caster_deg: 0.0, toe_deg };
        let read = [wheel(-0.9, 0.12), wheel(-0.4, -0.05)];
        r.read.rear = both(read, GAUGE);
        let file = corner_file(&r).unwrap();
        let row = &file.states[0];
        for (w, m) in row.wheels.iter().filter(|w| w.axle == Axle::Rear).zip(&read) {
            let got = w.wheel.unwrap();
            assert!((got.camber_deg - m.camber_deg).abs() < 1e-6, "{rear} {got:?}");
            assert!((got.toe_deg - m.toe_deg).abs() < 1e-6, "{rear} {got:?}");
            assert!(
                w.read && (w.doubt.unwrap().camber_deg - 1.6449 * 0.1).abs() < 2e-3,
                "{rear} {:?}",
                w.doubt
            );
        }
        assert!((row.thrust_deg.unwrap() - 0.5 * (0.12 + 0.05)).abs() < 1e-6, "{rear}");
        // Read far from points that were measured, it is said; far from a generic shape it is no sign of anything.
        r.read.rear = both([wheel(-3.9, 0.1), read[1]], GAUGE);
        r.knowledge.rear = Knowledge::Archetype;
        let file = corner_file(&r).unwrap();
        assert!(!file.watch.iter().any(|w| w.en().contains("bent")), "{rear}: {:?}", file.watch);
        r.knowledge.rear = Knowledge::Surveyed;
        let file = corner_file(&r).unwrap();
        assert!(file.watch.iter().any(|w| w.en().starts_with("Left rear")), "{rear}: {:?}", file.watch);
        r.read.rear = both([wheel(f64::NAN, 0.1), read[1]], GAUGE);
        assert_eq!(corner_file(&r).unwrap_err()[0].field, "read.rear.left.angles.camber_deg");
    }
}

#[test]
fn every_predicted_angle_has_a_band_that_grows_away_from_what_was_read() {
    let mut r = request("half_ton_front", "ev_multilink_rear", 55.0);
    let m = Measured { camber_deg: -0.1, caster_deg: 3.7, toe_deg: 0.05 };
    r.read.front = both([m, m], Sigmas { camber_deg: 0.1, caster_deg: 0.2, toe_deg: 0.05 });
    let file = corner_file(&r).unwrap();
    for row in &file.states {
        for w in &row.wheels {
            assert!(w.doubt.is_some_and(|d| d.camber_deg > 0.0 && d.toe_deg > 0.0), "{row:?}");
            assert_eq!(w.read, w.axle == Axle::Front);
        }
    }
    let camber = |state: usize| file.states[state].wheels[0].doubt.unwrap().camber_deg;
    // As arrived only the gauge is doubted; planned the points are too.
    assert!((camber(0) - 1.6449 * 0.1).abs() < 1e-3 && camber(1) > 1.5 * camber(0));
}

#[test]
fn lifting_the_nose_adds_caster_one_to_one_and_says_so() {
    let file = corner_file(&request("live_front", "leaf_rear", 50.0)).unwrap();
    let planned = &file.states[1];
    let expected = (50.0f64 / 2950.0).atan().to_degrees();
    assert!((planned.pitch_deg - expected).abs() < 1e-9);
    let shift = file.quantities.iter().find(|q| q.id == "axle_shift").unwrap();
    assert!(shift.planned.unwrap().abs() > 3.0, "{shift:?}");
    let wheel = file.quantities.iter().find(|q| q.id == "steering_wheel").unwrap();
    assert!(wheel.planned.is_some());
}

#[test]
fn a_bent_corner_is_said_to_be() {
    let mut r = request("half_ton_front", "leaf_rear", 0.0);
    let good = Measured { camber_deg: -0.1, caster_deg: 3.7, toe_deg: 0.05 };
    r.knowledge.front = Knowledge::Surveyed;
    r.read.front = both([good, Measured { camber_deg: -2.4, ..good }], GAUGE);
    let file = corner_file(&r).unwrap();
    assert!(file.watch.iter().any(|w| w.en().starts_with("Right front")), "{:?}", file.watch);
    // SAI was never read: nothing is said of included angles.
    assert!(!file.watch.iter().any(|w| w.en().to_lowercase().contains("included angle")), "{:?}", file.watch);
    r.read.front = both([good, good], GAUGE);
    assert!(corner_file(&r).unwrap().watch.is_empty(), "nothing to watch");
}
