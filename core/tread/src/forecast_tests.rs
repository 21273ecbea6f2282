//! The brush against the textbook and against its own bristles, strip loads, and properties that need the constants.

use super::*;
use crate::UseMix;
use bold_stance_car::vehicle::Use;
use proptest::prelude::*;

const CAR: Wheel = Wheel {
    load_n: 4600.0,
    pressure_kpa: 230.0,
    placard_kpa: 230.0,
    placard_load_n: None,
    axle_share: 0.6,
    drive_share: 1.0,
    brake_share: 0.7,
    torque_factor: 1.5,
    regen: false,
    load_transfer_per_g: 0.7,
    roll_camber_deg_per_g: 2.5,
    caster_deg: 5.0,
    loaded_radius_mm: None,
};

fn tread(class: TyreClass) -> Tread {
    tread_of(&Tyre {
        section_mm: 215.0,
        aspect: 55.0,
        rim_in: 17.0,
        class,
        new_depth_mm: None,
        tread_width_mm: None,
    })
}

fn setup(camber_deg: f64, toe_deg: f64) -> [Setup; 1] {
    [Setup { camber_deg, toe_deg, share: 1.0 }]
}

/// Force of a brush tyre worked out bristle by bristle with scipy's quadrature (`reference/tread.py`), and the
/// textbook's polynomial: mu (3 q − 3 q² + q³), q = c s / 3 mu, full sliding from q = 1 (Pacejka, Tire and Vehicle
/// Dynamics, brush model with a parabolic pressure; from memory).
#[test]
fn the_brush_is_its_bristles_and_the_textbook_formula() {
    let table = include_str!("../../../reference/results/brush.csv");
    let mut rows = 0;
    for line in table.lines().skip(1) {
        let v: Vec<f64> = line.split(',').map(|x| x.parse().unwrap()).collect();
        let [c, mu, s, want] = v[..] else { panic!("{line}") };
        let got = brush(c, mu, s);
        assert!((got / want - 1.0).abs() < 2e-9, "c {c} mu {mu} slip {s}: {got} is not {want}");
        let q = (c * s / (3.0 * mu)).min(1.0);
        let textbook = mu * (3.0 * q - 3.0 * q * q + q * q * q);
        assert!((got - textbook).abs() < 1e-12);
        rows += 1;
    }
    assert_eq!(rows, 72);
    // Limits: the slip stiffness when small, friction when large.
    assert!((brush(9.2, 0.95, 1e-7) / (9.2 * 1e-7) - 1.0).abs() < 1e-6);
    assert_eq!(brush(9.2, 0.95, 5.0), 0.95);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// 9: the inverse undoes the brush below nine tenths of friction. 10: it rises and never passes friction.
    #[test]
    fn p9_p10_the_inverse_undoes_the_brush(c in 5.0f64..13.0, mu in 0.6f64..1.2, part in 0.0f64..0.9, s in 0.0f64..2.0) {
        let d = part * mu;
        prop_assert!((brush(c, mu, brush_inverse(c, mu, d)) - d).abs() < 1e-12);
        prop_assert!(brush(c, mu, s) <= mu && brush(c, mu, s) <= c * s + 1e-15);
        prop_assert!(brush(c, mu, s + 0.01) >= brush(c, mu, s));
    }

    /// 6: loads of the strips are never negative, their mean is 1, and at least eleven of 21 stay down whatever the
    /// tilt (a linear load can never lose more than half).
    #[test]
    fn p6_strip_loads(tilt in -20.0f64..20.0, bulge in -0.6f64..1.0) {
        let etas: [f64; STRIPS] = std::array::from_fn(eta);
        let mean = |l: &[f64; STRIPS]| l.iter().sum::<f64>() / STRIPS as f64;
        let flat = strip_loads(&etas, 0.0, tilt);
        prop_assert!(flat.iter().all(|v| *v >= 0.0) && (mean(&flat) - 1.0).abs() < 1e-12);
        prop_assert!(flat.iter().filter(|v| **v > 0.0).count() >= 11);
        let both = strip_loads(&etas, bulge, tilt);
        prop_assert!(both.iter().all(|v| *v >= 0.0) && (mean(&both) - 1.0).abs() < 1e-12);
    }

    /// 11: with n = 1, no spin and straight running, what the strips take up is the work of the tyre: force times slip.
    #[test]
    fn p11_work_balance(camber in -4.0f64..3.0, toe in -0.8f64..0.8, load in 2500.0f64..6500.0) {
        let t = tread(TyreClass::AllSeason);
        let p = Parameters { n: 1.0, spin: 0.0, ..Parameters::default() };
        // No drive, no drag, no bends: rows of any use with their accelerations taken to nothing.
        let w = Wheel { load_n: load, drive_share: 0.0, brake_share: 0.0, load_transfer_per_g: 0.0,
            roll_camber_deg_per_g: 0.0, caster_deg: 0.0, ..CAR };
        let still = Parameters { sev: 0.0, ..p };
        let r = raw(&t, &w, &setup(camber, toe), &UseMix::One(Use::Mixed), &still);
        let mean = r.energy.iter().sum::<f64>() / STRIPS as f64;
        let s = toe.to_radians().hypot(p.sig_free_deg.to_radians());
        let work = load * brush(t.c, p.mu, s) * s;
        prop_assert!((t.w * mean / work - 1.0).abs() < 1e-12);
        // n = 1: damage is that energy.
        prop_assert!(r.damage.iter().zip(r.energy).all(|(d, e)| (d * E0 - e).abs() <= 1e-12 * mean));
    }

    /// 19b: continuous and rising in the severity of use, also where events begin to count as such.
    #[test]
    fn p19b_harder_is_never_less(sev in 0.4f64..1.8, camber in -3.0f64..1.0, toe in -0.3f64..0.3) {
        let t = tread(TyreClass::SoftSummer);
        let at = |sev: f64| {
            let p = Parameters { sev, ..Parameters::default() };
            let r = raw(&t, &CAR, &setup(camber, toe), &UseMix::One(Use::CornerHeavy), &p).rate(1.0);
            r.iter().sum::<f64>() / STRIPS as f64
        };
        let (a, b) = (at(sev), at(sev + 1e-5));
        prop_assert!(b >= a && (b / a - 1.0) < 2e-4, "{} {}", a, b);
    }

    /// 4 where it is exact: small slip, no tilt, no spin, n = 1: the mean rate goes with slip squared.
    #[test]
    fn p4_small_slip_goes_with_the_square(toe in 0.001f64..0.02) {
        let t = tread(TyreClass::AllSeason);
        let p = Parameters { n: 1.0, spin: 0.0, kappa_g: 0.0, k_f: 0.0, sig_free_deg: 1e-4, sev: 0.0, ..Parameters::default() };
        let w = Wheel { load_transfer_per_g: 0.0, drive_share: 0.0, brake_share: 0.0, ..CAR };
        let m = |x: f64| {
            let r = raw(&t, &w, &setup(0.0, x), &UseMix::One(Use::Highway), &p);
            r.energy.iter().sum::<f64>()
        };
        prop_assert!((m(2.0 * toe) / m(toe) / 4.0 - 1.0).abs() < 0.01);
    }
}

/// The score of a case that says nothing, and twenty points for worn dampers (specification, section 1).
#[test]
fn irregular_wear_counts_upkeep() {
    let tyre = Tyre {
        section_mm: 215.0,
        aspect: 55.0,
        rim_in: 17.0,
        class: TyreClass::AllSeason,
        new_depth_mm: None,
        tread_width_mm: None,
    };
    let score = |u: &Upkeep| irregular(&tyre, &CAR, &setup(0.0, 0.0), &UseMix::One(Use::Mixed), u);
    assert!((score(&Upkeep::default()).points - 7.0).abs() < 1e-9);
    let of = |rotated, worn_dampers| score(&Upkeep { rotated, worn_dampers });
    assert!((of(Rotated::Never, false).points - 15.0).abs() < 1e-9);
    let worn = of(Rotated::Regular, true);
    assert!((worn.points - 20.0).abs() < 1e-9);
    assert_eq!((worn.word.as_str(), worn.parts[0].0.as_str()), ("watch", "worn dampers"));
}

/// What a straight road asks of a tyre without any toe, put together from what is published (all from memory): radial car
/// tyres give 0.15 to 0.20 of their load sideways per degree of slip (Gillespie, Fundamentals of Vehicle Dynamics, cornering
/// coefficient); a normal crown is 1.5 to 2 % (AASHTO, A Policy on Geometric Design); ply steer and conicity leave 1 to 2.5 %
/// of the load (Gillespie; tyre uniformity practice); a driver who keeps a motorway lane does so with 0.02 to 0.04 g rms
/// (order of Le Maitre et al., SAE 980256, mildest use). `sig_free` and its band have to hold that.
#[test]
fn the_free_slip_is_what_a_straight_road_asks_for() {
    let slip =
        |share: [f64; 3], per_degree: f64| share.iter().map(|s| (s / per_degree).powi(2)).sum::<f64>().sqrt();
    let (low, high) = (slip([0.015, 0.01, 0.02], 0.20), slip([0.02, 0.025, 0.04], 0.15));
    assert!((low - 0.135).abs() < 0.01 && (high - 0.34).abs() < 0.02, "{low:.3} {high:.3}");
    let p = Parameters::default();
    assert!(p.sig_free_deg > low && p.sig_free_deg < high, "{}", p.sig_free_deg);
    // What a tenth of a degree of toe costs on the motorway, at both ends of that and as set.
    let t = tread(TyreClass::AllSeason);
    let rate = |toe: f64, sig_free_deg: f64| {
        let p = Parameters { sig_free_deg, ..p };
        let r = raw(&t, &CAR, &setup(0.0, toe), &UseMix::One(Use::Highway), &p).rate(1.0);
        r.iter().copied().fold(0.0, f64::max)
    };
    let cost = |sig: f64| rate(0.1, sig) / rate(0.0, sig) - 1.0;
    let [most, set, least] = [low, p.sig_free_deg, high].map(cost);
    println!(
        "0.1 degree a wheel on the motorway: {most:.3} at {low:.2}, {set:.3} as set, {least:.3} at {high:.2}"
    );
    assert!(most > set && set > least && least > 0.0, "{most} {set} {least}");
}
