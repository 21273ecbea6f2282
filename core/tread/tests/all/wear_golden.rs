//! Golden numbers of an independent implementation of the tread-wear specification (section 7),
//! and the properties of its section 3. Tolerance 1e-6 relative.

use bold_stance_car::vehicle::Use;
use bold_stance_tread::*;
use proptest::prelude::*;

fn near(got: f64, want: f64, digits: f64) {
    assert!((got - want).abs() <= digits, "{got} is not {want}");
}

fn tyre(section_mm: f64, aspect: f64, rim_in: f64, class: TyreClass) -> Tyre {
    Tyre { section_mm, aspect, rim_in, class, new_depth_mm: None, tread_width_mm: None }
}

fn ev_wheel() -> Wheel {
    serde_json::from_str(
        r#"{"load_n":5700,"pressure_kpa":290,"placard_kpa":290,"axle_share":0.52,"drive_share":0.6,"brake_share":0.4,
        "torque_factor":1.5,"regen":true,"load_transfer_per_g":0.7,"roll_camber_deg_per_g":2.5}"#,
    )
    .unwrap()
}

fn case(t: Tyre, wheel: Wheel, use_: Use, camber: f64, toe: f64) -> WearCase {
    WearCase {
        format: "bold-stance.wear/1".into(),
        tyre: t,
        wheel,
        use_: UseMix::One(use_),
        limit_mm: 1.6,
        basis: Basis::Class,
        setups: vec![Setup { camber_deg: camber, toe_deg: toe, share: 1.0 }],
        readings: None,
        compare_to: None,
        rotated: None,
        worn_dampers: false,
        note: None,
    }
}

fn rates(r: &WearResult, want: [f64; 5]) {
    for (i, w) in [0, 5, 10, 15, 20].into_iter().zip(want) {
        near(r.rate_mm_per_1000km[i], w, 1e-8);
    }
}

fn pickup() -> WearCase {
    let w: Wheel = serde_json::from_str(
        r#"{"load_n":7000,"pressure_kpa":182,"placard_kpa":260,"axle_share":0.57,"drive_share":0,"brake_share":0.68,
        "load_transfer_per_g":0.85,"roll_camber_deg_per_g":2.5,"caster_deg":4}"#,
    )
    .unwrap();
    case(tyre(285.0, 70.0, 17.0, TyreClass::AllTerrain), w, Use::Trail, -0.5, -0.15)
}

#[test]
fn wear_constants() {
    for (c, k) in [
        (TyreClass::LongLife, 5.525501322e-08),
        (TyreClass::AllSeason, 7.606003495e-08),
        (TyreClass::SoftSummer, 1.321556736e-07),
        (TyreClass::AllTerrain, 9.253060654e-08),
    ] {
        near(calibrate(c) / k, 1.0, 1e-8);
    }
}

#[test]
fn g1_reference_front() {
    let w: Wheel = serde_json::from_str(
        r#"{"load_n":4600,"pressure_kpa":230,"placard_kpa":230,"axle_share":0.6,"drive_share":1,"brake_share":0.7,
        "load_transfer_per_g":0.7,"roll_camber_deg_per_g":2.5,"caster_deg":5}"#,
    )
    .unwrap();
    let r = run(&case(tyre(215.0, 55.0, 17.0, TyreClass::AllSeason), w, Use::Mixed, 0.0, 0.0)).unwrap();
    rates(&r, [0.12211959, 0.12283548, 0.12362792, 0.12449487, 0.12543608]);
    near(r.loaded_radius_m, 0.315697, 5e-7);
    near(r.life_km, 51022.00, 0.01);
    near(r.groove_life_km, 51256.42, 0.01);
    near(r.feather, 0.044660, 1e-6);
    near(r.mean_energy_j_m2, 25.324753, 1e-6);
}

#[test]
fn g2_heavy_electric_rear_with_readings_and_ratio() {
    let mut c = case(tyre(255.0, 45.0, 19.0, TyreClass::SoftSummer), ev_wheel(), Use::Mixed, -2.0, 0.05);
    c.compare_to = Some(WearOther {
        setups: vec![Setup { camber_deg: -1.0, toe_deg: 0.1, share: 1.0 }],
        realigned: true,
    });
    let r = run(&c).unwrap();
    rates(&r, [0.22647635, 0.19593784, 0.17225552, 0.15077127, 0.12721270]);
    near(r.life_km, 26051.28, 0.01);
    near(r.groove_life_km, 28494.61, 0.01);
    near(r.feather, 0.099627, 1e-6);
    near(r.mean_energy_j_m2, 22.627350, 1e-6);
    near(r.shares.use_, 0.723544, 1e-6);
    near(r.shares.toe, -0.008016, 1e-6);
    near(r.shares.camber, 0.284472, 1e-6);
    near(r.band_km.median, 25015.79, 0.02);
    near(r.band_km.low, 13435.51, 0.02);
    near(r.band_km.high, 46577.29, 0.05);
    let q = r.ratio_band.unwrap();
    near(q.ratio, 1.173530, 2e-6);
    near(q.low, 1.066045, 2e-6);
    near(q.high, 1.291852, 2e-6);
    let b = Belief::prior(&c.tyre, &c.wheel, &c.setups, &c.use_, c.limit_mm);
    for (name, v) in
        [("sev", 0.319551), ("kappa_g", 0.098622), ("n", 0.050374), ("camber", -0.034205), ("toe2", 0.014280)]
    {
        near(b.direction(name, 0).unwrap(), v, 1e-6);
    }
    for (i, m) in [0.00877631, -0.00193711, -0.00060496].into_iter().enumerate() {
        near(b.mean()[i], m, 1e-8);
    }
    for (i, j, v) in [
        (0, 0, 0.18725412),
        (0, 1, -0.00256306),
        (0, 2, 0.00072573),
        (1, 1, 0.04246539),
        (1, 2, 0.01546135),
        (2, 2, 0.01200857),
    ] {
        near(b.covariance(i, j), v, 2e-8);
    }
    c.readings = Some(vec![
        TreadReading { km: 7000.0, depths_mm: [5.6, 6.0, 6.4] },
        TreadReading { km: 13000.0, depths_mm: [4.1, 4.9, 5.6] },
    ]);
    let after = update(&b, c.readings.as_ref().unwrap());
    for (i, m) in [0.134891, -0.130215, -0.042707, -0.040479].into_iter().enumerate() {
        near(after.mean()[i], m, 1e-6);
    }
    for (i, s) in [0.112575, 0.103316, 0.082755, 0.201275].into_iter().enumerate() {
        near(after.sd()[i], s, 1e-6);
    }
    let r = run(&c).unwrap();
    near(r.band_km.median, 20486.98, 0.02);
    near(r.band_km.low, 17770.82, 0.02);
    near(r.band_km.high, 24749.51, 0.02);
    // Carried over to the setup it is realigned to at 13 000 km.
    let other = Belief::prior(&c.tyre, &c.wheel, &c.compare_to.as_ref().unwrap().setups, &c.use_, c.limit_mm);
    let carried = carry(&after, &other, true);
    for (got, want) in carried.mean.into_iter().zip([0.148603, -0.057455, -0.010402]) {
        near(got, want, 1e-6);
    }
    let changed = r.changed_band_km.unwrap();
    assert_eq!(changed, carried.band);
    near(changed.median, 22033.71, 0.02);
    near(changed.low, 18918.61, 0.02);
    near(changed.high, 26788.37, 0.02);
}

#[test]
fn g3_toe_on_an_all_season() {
    let r = run(&case(tyre(255.0, 45.0, 19.0, TyreClass::AllSeason), ev_wheel(), Use::Mixed, -1.0, 0.51))
        .unwrap();
    rates(&r, [0.19836108, 0.19460458, 0.19161627, 0.18917134, 0.18705495]);
    near(r.life_km, 32264.39, 0.01);
    near(r.feather, 0.635240, 1e-6);
    near(r.shares.use_, 0.523820, 1e-6);
    near(r.shares.toe, 0.334333, 1e-6);
    near(r.shares.camber, 0.141847, 1e-6);
}

#[test]
fn g4_soft_pickup_on_the_trail() {
    let r = run(&pickup()).unwrap();
    rates(&r, [0.33663037, 0.22226637, 0.17840999, 0.19914634, 0.28640087]);
    near(r.loaded_radius_m, 0.386762, 1e-6);
    near(r.life_km, 27923.80, 0.01);
    near(r.feather, -0.146320, 1e-6);
    near(r.shares.use_, 0.618362, 1e-6);
    near(r.shares.toe, 0.067010, 1e-6);
    near(r.shares.camber, 0.061720, 1e-6);
    near(r.shares.pressure, 0.252908, 1e-6);
    assert_eq!(r.irregular.word, "high");
}

#[test]
fn a_bad_case_names_its_field() {
    let mut c = pickup();
    c.wheel.load_n = f64::NAN;
    assert_eq!(run(&c).unwrap_err().field, "wheel.load_n");
    let mut c = pickup();
    c.setups.clear();
    assert_eq!(run(&c).unwrap_err().field, "setups");
    let mut c = pickup();
    c.use_ = UseMix::Blend(vec![(Use::Mixed, -1.0)]);
    assert_eq!(run(&c).unwrap_err().field, "use");
    let mut c = pickup();
    c.limit_mm = 99.0;
    assert_eq!(run(&c).unwrap_err().field, "limit_mm");
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(40))]

    /// Properties 13, 15, 16, 18, 19 of the specification.
    #[test]
    fn finite_positive_and_adding_up(camber in -8.0f64..8.0, toe in -2.0f64..2.0, p in 120.0f64..420.0) {
        let mut c = pickup();
        c.wheel.pressure_kpa = p;
        c.setups[0] = Setup { camber_deg: camber, toe_deg: toe, share: 1.0 };
        let r = run(&c).unwrap();
        prop_assert!(r.rate_mm_per_1000km.iter().all(|v| v.is_finite() && *v >= 0.0));
        let s = r.shares;
        prop_assert!((s.use_ + s.toe + s.camber + s.pressure - 1.0).abs() < 1e-9);
        prop_assert!(r.feather.abs() <= 1.0);
        prop_assert!(r.band_km.low < r.band_km.median && r.band_km.median < r.band_km.high);
        if toe.abs() > 0.3 { prop_assert_eq!(r.feather > 0.0, toe > 0.0); }
    }

    /// Property 5: damage adds over setups by weight.
    #[test]
    fn setups_add_by_weight(a in -3.0f64..1.0, b in -3.0f64..1.0, w in 0.1f64..0.9) {
        let rate = |s: Vec<Setup>| { let mut c = pickup(); c.setups = s; run(&c).unwrap().rate_mm_per_1000km };
        let one = |x: f64, share: f64| Setup { camber_deg: x, toe_deg: 0.1, share };
        let (ra, rb) = (rate(vec![one(a, 1.0)]), rate(vec![one(b, 1.0)]));
        let mixed = rate(vec![one(a, w), one(b, 1.0 - w)]);
        for i in 0..21 {
            prop_assert!((mixed[i] - (w * ra[i] + (1.0 - w) * rb[i])).abs() < 1e-12);
        }
    }

    /// Property 12: more negative camber moves wear to the inner edge.
    #[test]
    fn inner_over_outer_rises_as_camber_falls(camber in -4.0f64..3.0) {
        let ratio = |x: f64| { let mut c = pickup(); c.setups[0].camber_deg = x; let r = run(&c).unwrap().rate_mm_per_1000km; r[0] / r[20] };
        prop_assert!(ratio(camber - 0.5) > ratio(camber));
    }
}
