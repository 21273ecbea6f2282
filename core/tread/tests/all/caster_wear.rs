//! Caster in the tread forecast: it leans the outside wheel in as it is steered, so it wears the inner edge where there are bends,
//! and next to nothing on the motorway (common practice, no source: handbooks of the trade).

use bold_stance_car::vehicle::Use;
use bold_stance_tread::{Forecast, STRIPS, Setup, Tyre, TyreClass, UseMix, Wheel, forecast};

fn ran(caster_deg: f64, use_: Use) -> Forecast {
    let tyre = Tyre {
        section_mm: 225.0,
        aspect: 50.0,
        rim_in: 17.0,
        class: TyreClass::AllSeason,
        new_depth_mm: Some(8.0),
        tread_width_mm: None,
    };
    let wheel: Wheel = serde_json::from_value(serde_json::json!({
        "load_n": 4200.0, "pressure_kpa": 230.0, "placard_kpa": 230.0, "axle_share": 0.55, "drive_share": 1.0,
        "brake_share": 0.65, "load_transfer_per_g": 0.6, "roll_camber_deg_per_g": 2.5, "caster_deg": caster_deg
    }))
    .unwrap();
    let flat = [Setup { camber_deg: 0.0, toe_deg: 0.05, share: 1.0 }];
    forecast(&tyre, &wheel, &flat, &UseMix::One(use_), 1.0, 3.0)
}

/// Wear of the inner third over that of the outer.
fn inner_over_outer(f: &Forecast) -> f64 {
    let sum = |from: usize, to: usize| f.rate_mm_per_1000km[from..to].iter().sum::<f64>();
    sum(0, 7) / sum(STRIPS - 7, STRIPS)
}

#[test]
fn more_caster_wears_the_inner_edge_in_bends_and_little_on_the_straight() {
    let bends = [0.0, 4.0, 8.0].map(|c| inner_over_outer(&ran(c, Use::CornerHeavy)));
    assert!(bends[0] < bends[1] && bends[1] < bends[2], "{bends:?}");
    let straight = [0.0, 8.0].map(|c| inner_over_outer(&ran(c, Use::Highway)));
    assert!(straight[1] >= straight[0] - 1e-9);
    assert!((straight[1] / straight[0]).ln() < 0.5 * (bends[2] / bends[0]).ln(), "{straight:?} {bends:?}");
}
