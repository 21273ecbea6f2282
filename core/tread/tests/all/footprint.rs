//! The contact patch against the load it has to carry, against fine quadrature of the pressures it is made of, and in the
//! directions a chalk line on the tread shows.

use bold_stance_car::vehicle::{Axles, Use};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_tread::{
    AxlePatches, AxleSetting, Bend, CarTyres, Footprint, TyreClass, UseMix, axle_patches,
};

fn tyres() -> CarTyres {
    serde_json::from_value(serde_json::json!({
        "sizes": {"front": "225/45R17", "rear": "225/45R17"}, "class": TyreClass::AllSeason, "depth_mm": 7.0,
        "limit_mm": 3.0, "load_n": {"front": 4200.0, "rear": 3600.0},
        "pressure_kpa": {"front": 230.0, "rear": 230.0}, "placard_kpa": {"front": 230.0, "rear": 230.0},
        "drive_front": 1.0, "brake_front": 0.65, "torque_factor": 1.0, "regen": false,
        "use": UseMix::One(Use::Mixed), "load_transfer_per_g": 0.6, "roll_camber": Axles {front: 2.5, rear: 2.5}
    }))
    .unwrap_or_else(|e| panic!("{e}"))
}

fn at(camber_deg: f64, caster_deg: f64, ay_g: f64, steer_deg: f64) -> AxlePatches {
    let s = AxleSetting { camber_deg, toe_deg: 0.0, caster_deg };
    axle_patches(&tyres(), Axle::Front, &s, &Bend { ay_g, steer_deg }).unwrap()
}

/// Load the strips carry, by pressure times area.
fn carried(f: &Footprint) -> f64 {
    let strip = f.width_mm / f.strips.len() as f64;
    f.strips.iter().map(|s| s.pressure_kpa * 1e-3 * s.length_mm * strip).sum()
}

#[test]
fn pressure_times_area_is_the_load() {
    for camber in [-2.6, -0.5, 0.0, 2.5] {
        let p = at(camber, 5.0, 0.7, 6.0);
        for f in [&p.straight, &p.outside, &p.inside] {
            assert!((carried(f) - f.load_n).abs() < 1e-6 * f.load_n, "{camber}: {} {}", carried(f), f.load_n);
            assert!((f.thirds.iter().sum::<f64>() - 1.0).abs() < 1e-12);
        }
        // What one wheel gains the other loses.
        assert!((p.outside.load_n + p.inside.load_n - 2.0 * p.straight.load_n).abs() < 1e-9);
        assert!((p.outside.load_n - 4200.0 * (1.0 + 0.6 * 0.7)).abs() < 1e-9);
    }
}

#[test]
fn thirds_are_those_of_fine_quadrature() {
    // Straight ahead at placard pressure nothing bulges: max(0, 1 + tilt·η), tilt of camber alone.
    for camber in [-2.6, -1.0, 0.6, 2.5] {
        let p = at(camber, 0.0, 0.0, 0.0).straight;
        let edge = |k: usize| p.strips[k].pressure_kpa * p.strips[k].length_mm;
        // The slope of the strips that touch gives the tilt back.
        let (a, b) = if camber < 0.0 { (0, 3) } else { (17, 20) };
        let slope = (edge(b) - edge(a)) / (p.strips[b].eta - p.strips[a].eta);
        let middle = edge(a) - slope * p.strips[a].eta;
        let tilt = slope / middle;
        let density = |eta: f64| (1.0 + tilt * eta).max(0.0);
        let n = 30_000;
        let simpson = |from: f64, to: f64| {
            let h = (to - from) / f64::from(n);
            let inner: f64 =
                (1..n).map(|i| f64::from(2 + 2 * (i % 2)) * density(from + f64::from(i) * h)).sum();
            h / 3.0 * (density(from) + inner + density(to))
        };
        let whole = simpson(-1.0, 1.0);
        for (k, (from, to)) in
            [(-1.0, -1.0 / 3.0), (-1.0 / 3.0, 1.0 / 3.0), (1.0 / 3.0, 1.0)].into_iter().enumerate()
        {
            let fine = simpson(from, to) / whole;
            assert!((p.thirds[k] - fine).abs() < 0.01, "{camber} {k}: {} {fine}", p.thirds[k]);
        }
    }
}

#[test]
fn camber_against_roll_and_caster_against_steer_lay_the_outside_tyre_flat() {
    // Common practice, no source: a track car at −2.6 runs on its inner edge straight ahead and flat in the bend; at +2.5 the
    // outside tyre rolls onto its shoulder.
    let uneven = |f: &Footprint| (f.thirds[2] - f.thirds[0]).abs();
    let (track, upright, out) = (at(-2.6, 5.0, 0.8, 4.0), at(0.0, 5.0, 0.8, 4.0), at(2.5, 5.0, 0.8, 4.0));
    assert!(track.straight.thirds[0] > track.straight.thirds[2] + 0.1);
    assert!(uneven(&track.outside) < uneven(&upright.outside), "{:?}", track.outside.thirds);
    assert!(uneven(&upright.outside) < uneven(&out.outside));
    assert!(out.outside.thirds[2] > 0.6, "{:?}", out.outside.thirds);
    // Straight ahead the upright one is even.
    assert!(uneven(&upright.straight) < 1e-9);
    // More caster leans the outside wheel in as it is steered, and the inside one out.
    let (little, much) = (at(-0.5, 2.0, 0.5, 15.0), at(-0.5, 8.0, 0.5, 15.0));
    assert!(much.outside.camber_deg < little.outside.camber_deg - 1.0);
    assert!(much.inside.camber_deg > little.inside.camber_deg + 1.0);
    let by_hand = -0.5 + (2.5 * 0.5 - 8.0 * 15f64.to_radians().sin());
    assert!((much.outside.camber_deg - by_hand).abs() < 1e-12);
}

#[test]
fn what_is_out_of_range_is_told_at_its_field() {
    let s = AxleSetting { camber_deg: 40.0, toe_deg: 0.0, caster_deg: 0.0 };
    let fields: Vec<String> = axle_patches(&tyres(), Axle::Front, &s, &Bend { ay_g: 3.0, steer_deg: -2.0 })
        .unwrap_err()
        .into_iter()
        .map(|p| p.field)
        .collect();
    for f in ["setting.camber_deg", "bend.ay_g", "bend.steer_deg"] {
        assert!(fields.iter().any(|x| x == f), "{fields:?}");
    }
}
