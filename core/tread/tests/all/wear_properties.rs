//! Properties of the tread-wear specification (section 3), by its numbers, and of the belief update.

use bold_stance_car::vehicle::Use;
use bold_stance_tread::*;
use proptest::prelude::*;

fn tyre(class: TyreClass) -> Tyre {
    Tyre {
        section_mm: 245.0,
        aspect: 50.0,
        rim_in: 18.0,
        class,
        new_depth_mm: Some(8.0),
        tread_width_mm: None,
    }
}

fn wheel() -> Wheel {
    serde_json::from_str(
        r#"{"load_n":4800,"pressure_kpa":240,"placard_kpa":240,"axle_share":0.55,"drive_share":0.5,"brake_share":0.6,
        "load_transfer_per_g":0.7,"roll_camber_deg_per_g":2.5,"caster_deg":4}"#,
    )
    .unwrap()
}

fn plain(mut w: Wheel) -> Wheel {
    w.load_transfer_per_g = 0.0;
    w.roll_camber_deg_per_g = 0.0;
    w.caster_deg = 0.0;
    w
}

fn rates(w: &Wheel, camber: f64, toe: f64, u: Use) -> Vec<f64> {
    let s = [Setup { camber_deg: camber, toe_deg: toe, share: 1.0 }];
    forecast(&tyre(TyreClass::AllSeason), w, &s, &UseMix::One(u), calibrate(TyreClass::AllSeason), 1.6)
        .rate_mm_per_1000km
}

fn mean(r: &[f64]) -> f64 {
    r.iter().sum::<f64>() / r.len() as f64
}

const USES: [Use; 4] = [Use::Highway, Use::Mixed, Use::CornerHeavy, Use::Trail];

#[test]
fn p1_without_lean_or_transfer_the_profile_is_even_side_to_side() {
    for u in USES {
        let r = rates(&plain(wheel()), 0.0, 0.0, u);
        for i in 0..10 {
            assert!((r[i] / r[20 - i] - 1.0).abs() < 1e-12, "{u:?} {i}");
        }
    }
}

#[test]
fn p8_the_reference_car_reaches_the_class_life() {
    for (class, life) in [
        (TyreClass::LongLife, 95_000.0),
        (TyreClass::AllSeason, 72_000.0),
        (TyreClass::SoftSummer, 42_000.0),
        (TyreClass::AllTerrain, 75_000.0),
    ] {
        let t = Tyre {
            section_mm: 215.0,
            aspect: 55.0,
            rim_in: 17.0,
            class,
            new_depth_mm: None,
            tread_width_mm: None,
        };
        let front: Wheel = serde_json::from_str(
            r#"{"load_n":4600,"pressure_kpa":230,"placard_kpa":230,"axle_share":0.6,"drive_share":1,"brake_share":0.7,
            "load_transfer_per_g":0.7,"roll_camber_deg_per_g":2.5,"caster_deg":5}"#,
        )
        .unwrap();
        let rear = Wheel {
            load_n: 3070.0,
            axle_share: 0.4,
            drive_share: 0.0,
            brake_share: 0.3,
            caster_deg: 0.0,
            ..front.clone()
        };
        let s = [Setup { camber_deg: 0.0, toe_deg: 0.0, share: 1.0 }];
        let mix = UseMix::One(Use::Mixed);
        let k = calibrate(class);
        let (a, b) = (forecast(&t, &front, &s, &mix, k, 1.6), forecast(&t, &rear, &s, &mix, k, 1.6));
        let worst = (0..STRIPS)
            .map(|i| 0.5 * (a.rate_mm_per_1000km[i] + b.rate_mm_per_1000km[i]))
            .fold(0.0, f64::max);
        assert!((1000.0 * (t.new_depth() - 1.6) / worst / life - 1.0).abs() < 1e-12);
    }
}

#[test]
fn p14_harder_use_and_softer_tread_wear_faster() {
    let worst = |u| rates(&wheel(), 0.0, 0.0, u).into_iter().fold(0.0, f64::max);
    assert!(worst(Use::Highway) < worst(Use::Mixed) && worst(Use::Mixed) < worst(Use::CornerHeavy));
    let life = |c| {
        let s = [Setup { camber_deg: -1.0, toe_deg: 0.1, share: 1.0 }];
        forecast(&tyre(c), &wheel(), &s, &UseMix::One(Use::Mixed), calibrate(c), 1.6).life_km
    };
    assert!(life(TyreClass::SoftSummer) < life(TyreClass::AllSeason));
    assert!(life(TyreClass::AllSeason) < life(TyreClass::LongLife));
}

#[test]
fn p17_life_goes_with_one_over_the_wear_constant() {
    let life = |k: f64| {
        let s = [Setup { camber_deg: -1.0, toe_deg: 0.1, share: 1.0 }];
        forecast(&tyre(TyreClass::AllSeason), &wheel(), &s, &UseMix::One(Use::Mixed), k, 1.6).life_km
    };
    assert!((life(1e-8) / life(2e-8) - 2.0).abs() < 1e-12);
}

#[test]
fn a_setup_against_itself_is_one_and_a_named_blend_is_its_parts() {
    let s = vec![Setup { camber_deg: -1.0, toe_deg: 0.1, share: 1.0 }];
    let b = Belief::prior(&tyre(TyreClass::AllSeason), &wheel(), &s, &UseMix::One(Use::Mixed), 1.6);
    let q = ratio_band(&b, &b);
    assert!((q.ratio - 1.0).abs() < 1e-12 && q.low < 1.0 && q.high > 1.0);
    let k = calibrate(TyreClass::AllSeason);
    let of = |m: &UseMix| forecast(&tyre(TyreClass::AllSeason), &wheel(), &s, m, k, 1.6).rate_mm_per_1000km;
    let blend = of(&UseMix::Blend(vec![(Use::Mixed, 7.0), (Use::Highway, 3.0)]));
    let (a, b) = (of(&UseMix::One(Use::Mixed)), of(&UseMix::One(Use::Highway)));
    for i in 0..STRIPS {
        assert!((blend[i] - 0.7 * a[i] - 0.3 * b[i]).abs() < 1e-12);
    }
}

#[test]
fn p18_readings_never_widen_and_exact_ones_pull_to_the_truth() {
    let s = vec![Setup { camber_deg: -1.0, toe_deg: 0.1, share: 1.0 }];
    let t = tyre(TyreClass::AllSeason);
    let b = Belief::prior(&t, &wheel(), &s, &UseMix::One(Use::Mixed), 1.6);
    assert_eq!(update(&b, &[]).mean(), b.mean());
    let rate = rates(&wheel(), -1.0, 0.1, Use::Mixed);
    // The truth wears 30 % faster than the model, evenly.
    let depth = |i: usize, km: f64| 8.0 - 1.3 * rate[i] * km / 1000.0;
    let at = |km: f64| TreadReading { km, depths_mm: [depth(3, km), depth(10, km), depth(17, km)] };
    let few = update(&b, &[at(10_000.0)]);
    let many = update(&b, &[at(10_000.0), at(18_000.0), at(26_000.0), at(34_000.0)]);
    for i in 0..4 {
        assert!(few.sd()[i] <= b.sd()[i] + 1e-12 && many.sd()[i] <= few.sd()[i] + 1e-12);
    }
    let truth = 1.3f64.ln();
    assert!((many.mean()[0] - truth).abs() < (few.mean()[0] - truth).abs());
    assert!((many.mean()[0] - truth).abs() < 0.06, "{}", many.mean()[0]);
    let (p, q) = (band_km(&b), band_km(&many));
    assert!(q.high / q.low < p.high / p.low, "the band narrows");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(32))]

    /// 2: negating camber, toe and load transfer reverses the profile, in any use.
    #[test]
    fn p2_mirror(camber in -4.0f64..4.0, toe in -1.0f64..1.0, which in 0usize..4) {
        let w = wheel();
        let a = rates(&w, camber, toe, USES[which]);
        let b = rates(&Wheel { load_transfer_per_g: -w.load_transfer_per_g, ..w }, -camber, -toe, USES[which]);
        for i in 0..STRIPS {
            prop_assert!((a[i] / b[20 - i] - 1.0).abs() < 1e-10);
        }
    }

    /// 4: the mean rate never falls with the size of toe.
    #[test]
    fn p4_more_toe_is_never_less_wear(camber in -3.0f64..2.0, toe in 0.0f64..1.4, which in 0usize..4) {
        let m = |t: f64| mean(&rates(&plain(wheel()), camber, t, USES[which]));
        prop_assert!(m(toe + 0.1) >= m(toe) * (1.0 - 1e-9));
    }

    /// 7: a 1e-5 step moves no strip by more than 2e-4 of the mean.
    #[test]
    fn p7_continuous(camber in -5.0f64..4.0, toe in -1.5f64..1.5) {
        let a = rates(&wheel(), camber, toe, Use::Mixed);
        let b = rates(&wheel(), camber + 1e-5, toe + 1e-5, Use::Mixed);
        let m = mean(&a);
        for i in 0..STRIPS {
            prop_assert!((a[i] - b[i]).abs() <= 2e-4 * m);
        }
    }

    /// 13: shoulders over centre rises as pressure falls.
    #[test]
    fn p13_low_pressure_wears_shoulders(p in 150.0f64..300.0) {
        let ratio = |p: f64| { let r = rates(&Wheel { pressure_kpa: p, ..plain(wheel()) }, 0.0, 0.0, Use::Mixed); (r[0] + r[20]) / r[10] };
        prop_assert!(ratio(p - 10.0) > ratio(p));
    }
}
