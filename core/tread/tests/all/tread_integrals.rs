//! Strips across the tread against adaptive quadrature: `reference/tread.py` does the same integrals without strips with
//! scipy (QUADPACK); its results are committed.

use bold_stance_tread::{Setup, Tyre, UseMix, Wheel, forecast};
use serde::Deserialize;
use std::path::Path;

#[derive(Deserialize)]
struct Row {
    section_mm: f64,
    aspect: f64,
    rim_in: f64,
    class: String,
    #[serde(rename = "use")]
    use_: String,
    load_n: f64,
    placard_kpa: f64,
    pressure_kpa: f64,
    axle_share: f64,
    drive_share: f64,
    brake_share: f64,
    torque_factor: f64,
    regen: bool,
    load_transfer_per_g: f64,
    roll_camber_deg_per_g: f64,
    caster_deg: f64,
    camber_deg: f64,
    toe_deg: f64,
    radius_m: f64,
    mean_rate: f64,
    energy_j_m2: f64,
    feather: f64,
}

fn word<T: for<'a> Deserialize<'a>>(w: &str) -> T {
    serde_json::from_value(serde_json::Value::String(w.to_owned())).unwrap()
}

#[test]
fn twenty_one_strips_agree_with_adaptive_quadrature() {
    let path = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../reference/results/tread.csv");
    let mut rows = 0;
    let mut worst = 0.0f64;
    for r in csv::Reader::from_path(path).unwrap().deserialize() {
        let r: Row = r.unwrap();
        let tyre = Tyre {
            section_mm: r.section_mm,
            aspect: r.aspect,
            rim_in: r.rim_in,
            class: word(&r.class),
            new_depth_mm: None,
            tread_width_mm: None,
        };
        let w = Wheel {
            load_n: r.load_n,
            pressure_kpa: r.pressure_kpa,
            placard_kpa: r.placard_kpa,
            placard_load_n: None,
            axle_share: r.axle_share,
            drive_share: r.drive_share,
            brake_share: r.brake_share,
            torque_factor: r.torque_factor,
            regen: r.regen,
            load_transfer_per_g: r.load_transfer_per_g,
            roll_camber_deg_per_g: r.roll_camber_deg_per_g,
            caster_deg: r.caster_deg,
            loaded_radius_mm: None,
        };
        let setups = [Setup { camber_deg: r.camber_deg, toe_deg: r.toe_deg, share: 1.0 }];
        let f = forecast(&tyre, &w, &setups, &UseMix::One(word(&r.use_)), 1.0, 1.6);
        let mean = f.rate_mm_per_1000km.iter().sum::<f64>() / f.rate_mm_per_1000km.len() as f64;
        assert!((f.loaded_radius_m - r.radius_m).abs() < 1e-8, "row {rows}");
        // The specification allows one in a hundred for the mean (property 20).
        let off = (mean / r.mean_rate - 1.0).abs().max((f.mean_energy_j_m2 / r.energy_j_m2 - 1.0).abs());
        worst = worst.max(off);
        assert!(off < 0.01, "row {rows}: {mean} is not {}", r.mean_rate);
        assert!((f.feather - r.feather).abs() < 0.004, "row {rows}: {} is not {}", f.feather, r.feather);
        rows += 1;
    }
    assert_eq!(rows, 48);
    assert!(worst > 0.0, "strips are an approximation: equal would mean that nothing was compared");
}
