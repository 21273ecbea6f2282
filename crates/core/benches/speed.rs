//! Speed of what is asked for many times a second: `cargo bench -p bold-stance-core --bench speed`.
#![allow(missing_docs, clippy::unwrap_used)]

#[path = "../tests/common/mod.rs"]
mod common;

use bold_stance_core::linkage::{Corner, Linkage};
use bold_stance_core::part::shipped_parts;
use bold_stance_core::plan::plan;
use bold_stance_core::wear::{Setup, TyreClass, calibrate, forecast};
use criterion::{Criterion, criterion_group, criterion_main};
use std::hint::black_box;

fn speed(c: &mut Criterion) {
    let input = common::truck();
    let corner = Corner::new(&input.geometry.points, &input.geometry.wheel);
    let travels: Vec<f64> = (0..64).map(|i| -100.0 + 3.0 * f64::from(i)).collect();
    let mut i = 0;
    c.bench_function("wishbone position", |b| {
        b.iter(|| {
            i = (i + 1) % travels.len();
            corner.pose(black_box(travels[i]), 0.0)
        });
    });
    c.bench_function("wishbone position, steered", |b| {
        b.iter(|| {
            i = (i + 1) % travels.len();
            corner.pose(black_box(travels[i]), 30.0)
        });
    });
    let parts = shipped_parts().unwrap();
    c.bench_function("whole plan answer, both sides, five parts", |b| {
        b.iter(|| plan(black_box(&input), &parts).unwrap());
    });
    let answer = plan(&input, &parts).unwrap();
    c.bench_function("plan answer to JSON", |b| b.iter(|| serde_json::to_vec(black_box(&answer)).unwrap()));
    let tyre = bold_stance_core::wear::Tyre {
        section_mm: 285.0,
        aspect: 70.0,
        rim_in: 17.0,
        class: TyreClass::AllTerrain,
        new_depth_mm: None,
        tread_width_mm: None,
    };
    let wheel = serde_json::from_str(
        r#"{"load_n":7000,"pressure_kpa":240,"placard_kpa":260,"axle_share":0.57,"drive_share":0.5,"brake_share":0.68,
        "load_transfer_per_g":0.85,"roll_camber_deg_per_g":2.5,"caster_deg":4}"#,
    )
    .unwrap();
    let k = calibrate(TyreClass::AllTerrain);
    let mix = bold_stance_core::wear::UseMix::One(bold_stance_core::wear::Use::Trail);
    c.bench_function("wear forecast, one tyre", |b| {
        b.iter(|| {
            forecast(
                &tyre,
                &wheel,
                black_box(&[Setup { camber_deg: -0.5, toe_deg: 0.1, share: 1.0 }]),
                &mix,
                k,
                3.0,
            )
        });
    });
}

criterion_group!(benches, speed);
criterion_main!(benches);
