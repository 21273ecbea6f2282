//! What words cost beside the work they tell of, in one run: `cargo bench -p bold-stance-words --bench speak`.
#![allow(missing_docs, clippy::unwrap_used)]

#[path = "../../core/trade/tests/all/common/mod.rs"]
mod common;

use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::plan_car;
use bold_stance_words::{Units, english};
use criterion::{Criterion, criterion_group, criterion_main};
use serde_json::Value;
use std::hint::black_box;

fn speak(c: &mut Criterion) {
    let (car, parts) = (common::both_axles(), shipped_parts().unwrap());
    let answer = plan_car(&car, &parts).unwrap();
    let body = serde_json::to_vec(&answer).unwrap();
    c.bench_function("plan of a car, every part tried", |b| {
        b.iter(|| plan_car(black_box(&car), &parts));
    });
    c.bench_function("its answer as JSON", |b| b.iter(|| serde_json::to_vec(black_box(&answer))));
    for (name, units) in [("millimetres", Units::default()), ("inches and minutes", Units::inches())] {
        let voice = english(units);
        c.bench_function(&format!("its answer spoken in {name}"), |b| {
            b.iter(|| {
                let mut v: Value = serde_json::from_slice(black_box(&body)).unwrap();
                voice.speak(&mut v);
                serde_json::to_vec(&v)
            });
        });
    }
}

criterion_group!(benches, speak);
criterion_main!(benches);
