//! Speed of what is asked for many times a second: `cargo bench -p bold-stance-trade --bench speed`.
#![allow(missing_docs, clippy::unwrap_used)]

#[path = "../tests/all/common/mod.rs"]
mod common;

use bold_stance_car::adjuster::default_adjusters;
use bold_stance_car::archetype::{Taped, fit_archetype, shipped_archetypes};
use bold_stance_car::fit::{Doubted, Knowledge, SAMPLES, Sigmas, doubt, sampled_doubt, spreads};
use bold_stance_car::metrics::{CornerFileRequest, axle_curves, corner_file};
use bold_stance_car::vehicle::AirLevel;
use bold_stance_car::vehicle::HeightShare;
use bold_stance_car::vehicle::{Attitude, Axles, Car, CarFacts, Gains, Measured, PlannedHeights};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::aim::Target;
use bold_stance_trade::part::{Part, parts_for, shipped_parts};
use bold_stance_trade::plan::{
    Bench, Budget, Filters, LadderAsked, OtherAxle, Plane, USUAL_SPAN_MM, ladders, plan, reach, search, solve,
};
use bold_stance_trade::reading::{
    Jack, Method, Place, Prepared, RawEntry, Scene, Seen, Take, Visit, picture, shipped_methods,
    shipped_prepare, suspicions, take,
};
use bold_stance_tread::{
    CarTyres, LogEntry, LoggedTyre, Setup, TreadLog, TyreClass, TyrePlace, calibrate, forecast,
};
use bold_stance_units::LengthUnit;
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
    c.bench_function("whole plan answer, both sides, shipped catalogue", |b| {
        b.iter(|| plan(black_box(&input), &parts).unwrap());
    });
    let cams = Bench::new(corner.clone(), default_adjusters(3.2), -60.0, Attitude::default());
    let aim = Target { camber: [-0.3, 0.3], caster: [3.7, 4.7], toe: [0.0, 0.1] };
    c.bench_function("one setting solve, two cams and a tie rod", |b| {
        b.iter(|| solve(black_box(&cams), &aim))
    });
    let mut arm = default_adjusters(3.2);
    for p in parts.iter().filter(|p| p.id == "adjustable-upper-arm") {
        arm.extend(p.adjusters.clone());
    }
    let arm = Bench::new(corner.clone(), arm, -60.0, Attitude::default());
    c.bench_function("one setting solve, two cams, two threads and a tie rod", |b| {
        b.iter(|| solve(black_box(&arm), &aim));
    });
    let eight: Vec<Bench> = parts_for(&parts, &input.geometry)
        .into_iter()
        .take(8)
        .map(|p| Bench::new(corner.edited(&p.edits), default_adjusters(3.2), -60.0, Attitude::default()))
        .collect();
    c.bench_function("reach polygons, one axle, both sides, eight parts", |b| {
        b.iter(|| {
            for x in &eight {
                for _ in Side::BOTH {
                    black_box(reach(x, &x.start(), Plane::CamberCaster, false));
                }
            }
        });
    });
    let tyres: CarTyres = serde_json::from_str(
        r#"{"sizes":{"front":"285/70R17","rear":"285/70R17"},"class":"all_terrain","depth_mm":10.6,"limit_mm":3,"load_n":{"front":7000,"rear":5600},
        "pressure_kpa":{"front":240,"rear":240},"placard_kpa":{"front":260,"rear":260},"drive_front":0.5,"brake_front":0.65,"use":"trail",
        "load_transfer_per_g":0.85,"roll_camber":{"front":2.5,"rear":0}}"#,
    )
    .unwrap();
    let f = Filters::default();
    c.bench_function("plan search, shipped catalogue, wear and bands on the finalists", |b| {
        b.iter(|| search(black_box(&input), &f, Some(&tyres), &parts, &|_| true).unwrap());
    });
    let many: Vec<Part> = (0..10)
        .flat_map(|n| parts.iter().map(move |p| Part { id: format!("{}-{n}", p.id), ..p.clone() }))
        .collect();
    let mut slow = c.benchmark_group("large");
    slow.sample_size(10);
    slow.bench_function("plan search, ten times the catalogue", |b| {
        b.iter(|| search(black_box(&input), &f, Some(&tyres), &many, &|_| true).unwrap());
    });
    slow.finish();
    let answer = plan(&input, &parts).unwrap();
    c.bench_function("plan answer to JSON", |b| b.iter(|| serde_json::to_vec(black_box(&answer)).unwrap()));
    let tyre = bold_stance_tread::Tyre {
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
    let mix = bold_stance_tread::UseMix::One(bold_stance_car::vehicle::Use::Trail);
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

fn layouts(c: &mut Criterion) {
    let all = shipped_archetypes().unwrap();
    let get = |id: &str| all.iter().find(|a| a.id == id).unwrap();
    let travels: Vec<f64> = (0..48).map(|i| -80.0 + 3.2 * f64::from(i)).collect();
    for id in [
        "compact_strut_front",
        "ev_multilink_rear",
        "semi_trailing_rear",
        "live_front",
        "triangulated_rear",
        "twist_beam_rear",
    ] {
        let corner = Corner::of(&get(id).geometry, Side::Left);
        let mut i = 0;
        c.bench_function(&format!("position, {id}"), |b| {
            b.iter(|| {
                i = (i + 1) % travels.len();
                corner.pose(black_box(travels[i]), 0.0)
            });
        });
    }
    let heights: Vec<f64> = (0..41).map(|i| -80.0 + 4.0 * f64::from(i)).collect();
    for (front, rear) in [
        ("half_ton_front", "wishbone_rear"),
        ("compact_strut_front", "ev_multilink_rear"),
        ("live_front", "leaf_rear"),
    ] {
        let pair =
            [get(front), get(rear)].map(|a| (&a.geometry, Side::BOTH.map(|s| Corner::of(&a.geometry, s))));
        c.bench_function(
            &format!("whole-car sweep, curves of four corners, 41 heights: {front} + {rear}"),
            |b| {
                b.iter(|| {
                    for (g, corners) in &pair {
                        black_box(axle_curves(g, [&corners[0], &corners[1]], &heights));
                    }
                });
            },
        );
    }
    let read = Measured { camber_deg: -0.1, caster_deg: 3.7, toe_deg: 0.05 };
    for id in ["half_ton_front", "compact_strut_front", "ev_multilink_rear"] {
        let a = get(id);
        let known = spreads(&a.geometry.points, Knowledge::Taped);
        let d = Doubted {
            points: &a.geometry.points,
            wheel: &a.geometry.wheel,
            read_at: 0.0,
            start: &[],
            planned: &[],
            measured: &read,
            sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.2, toe_deg: 0.05 },
            spreads: &known,
            height_sigma_mm: 0.0,
            throws: &[],
        };
        c.bench_function(&format!("bands from {SAMPLES} samples over 41 heights, {id}"), |b| {
            b.iter(|| sampled_doubt(&d, black_box(&heights), SAMPLES).unwrap());
        });
        c.bench_function(&format!("bands by the linear rule over 41 heights, {id}"), |b| {
            b.iter(|| doubt(&d, black_box(&heights)).unwrap());
        });
    }
    let a = get("half_ton_front");
    let taped: Vec<Taped> =
        a.measures().into_iter().take(5).map(|(measure, v)| Taped { measure, value: v * 1.05 }).collect();
    c.bench_function("archetype fit from five measurements", |b| {
        b.iter(|| fit_archetype(a, black_box(&taped), 3200.0).unwrap());
    });
    let request = CornerFileRequest {
        car: Car {
            front: a.geometry.clone(),
            rear: Some(get("leaf_rear").geometry.clone()),
            wheelbase_mm: 3300.0,
            facts: CarFacts::default(),
        },
        arrived: Gains::default(),
        planned: Some(PlannedHeights::gains(50.0, 0.0).settling(4.0)),
        read: Axles::default(),
        axle_offset_mm: None,
        wheelbases_mm: None,
        set: Axles::default(),
        knowledge: Axles { front: Knowledge::Taped, rear: Knowledge::Archetype },
    };
    c.bench_function("corner file, whole page", |b| b.iter(|| corner_file(black_box(&request)).unwrap()));
}

/// A full visit of sixty readings on a truck whose geometry is known.
fn readings(c: &mut Criterion) {
    let car = common::reading_truck(CarFacts::default(), [1600.0, 1602.0]);
    let (methods, items) = (shipped_methods().unwrap(), shipped_prepare().unwrap());
    let prepared = Prepared::default();
    let taken = |id: Method, place: Place, typed: &[(&str, &str)]| {
        let raw: Vec<RawEntry> = typed.iter().map(|(n, t)| RawEntry::new(n, t)).collect();
        let t = take(&Take {
            method: methods.iter().find(|m| m.id == id).unwrap(),
            raw: &raw,
            unit: LengthUnit::Mm,
            place,
            jack: Jack::Rolled,
            jacked_height: "",
            car: Some(&car),
            heights: [Some(500.0); 4],
            prepared: &prepared,
            items: &items,
            aim: None,
        });
        (raw, t.unwrap())
    };
    let wheel = Place::wheel(Axle::Front, Side::Left);
    let sweep = [("camber-1", "1.8"), ("steer-1", "20"), ("camber-2", "-0.9"), ("steer-2", "-20")];
    c.bench_function("reading: camber by plumb line with its doubt", |b| {
        b.iter(|| taken(Method::CamberOffsets, wheel, &[("top", "60"), ("bottom", "52"), ("span", "430")]));
    });
    c.bench_function("reading: sweep on the car's own linkage with its doubt", |b| {
        b.iter(|| taken(Method::CasterSweep, wheel, black_box(&sweep)));
    });
    let mut seen = Vec::new();
    for round in 0..4 {
        for axle in [Axle::Front, Axle::Rear] {
            for side in Side::BOTH {
                for (id, typed) in [
                    (Method::HeightHub, &[("value", "505")][..]),
                    (Method::CamberGauge, &[("angle", "-0.4")]),
                    (Method::CamberOffsets, &[("top", "60"), ("bottom", "52"), ("span", "430")]),
                    (Method::ToeConvert, &[("value", "0.1")]),
                ] {
                    let place = Place::wheel(axle, side);
                    let (raw, t) = taken(id, place, typed);
                    seen.push(Seen {
                        id: format!("{}", seen.len()),
                        visit: Visit::Found,
                        quantity: t.quantity,
                        place,
                        method: id,
                        raw,
                        unit: LengthUnit::Mm,
                        value: t.value,
                        sigma: t.sigma,
                        also: t.also,
                        corrections: t.corrections,
                        jack: Jack::Rolled,
                        height_mm: t.height_mm,
                        at: 100 * round,
                    });
                }
            }
        }
    }
    let scene = Scene {
        visit: Visit::Found,
        kind: Default::default(),
        readings: &seen,
        changes: &[],
        prepared: &prepared,
        items: &items,
        car: Some(&car),
        knowledge: [Knowledge::Taped; 2],
        same_marks: false,
    };
    c.bench_function("reading: every rule and the picture over 64 readings", |b| {
        b.iter(|| (suspicions(black_box(&scene), &methods), picture(&scene)));
    });
}

/// Four tyres at four heights (planned, settled, loaded, an air level), as found, not set, and as a mix of heights,
/// each with its band; then the same with a log of depths on every tyre.
fn car_tread(c: &mut Criterion) {
    let mut input = common::truck();
    input.own_mut().settle_mm = 9.0;
    input.own_mut().load_mm = 20.0;
    input.levels = vec![AirLevel { name: "Access".into(), mm: Axles { front: -40.0, rear: -40.0 } }];
    let p = plan(&input, &[]).unwrap();
    let both = [Some(&p), Some(&p)];
    let mut tyres: CarTyres = serde_json::from_str(
        r#"{"sizes":{"front":"285/70R17","rear":"285/70R17"},"class":"all_terrain","depth_mm":10.6,"limit_mm":3,"load_n":{"front":7000,"rear":5600},
        "pressure_kpa":{"front":240,"rear":240},"placard_kpa":{"front":260,"rear":260},"drive_front":0.5,"brake_front":0.65,"use":"trail",
        "load_transfer_per_g":0.85,"roll_camber":{"front":2.5,"rear":0},"price":250}"#,
    )
    .unwrap();
    tyres.heights = ["Settled", "Loaded"].map(|s| HeightShare { state: s.into(), share: 50.0 }).to_vec();
    c.bench_function("tread: a car's four tyres, four heights and their mix, bands", |b| {
        b.iter(|| common::worn(black_box(&tyres), both, None, &TreadLog::default()).unwrap());
    });
    let line = |odometer_km: f64, p: TyrePlace, depths_mm| LogEntry {
        odometer_km,
        place: Some(p),
        flipped: false,
        depths_mm,
        day: String::new(),
        note: String::new(),
    };
    let logged = |p: TyrePlace| LoggedTyre {
        mark: p.name().into(),
        new_depth_mm: Some(11.0),
        entries: vec![
            line(0.0, p, None),
            line(6000.0, p, Some([9.8, 10.1, 10.0])),
            line(12_000.0, p, Some([8.7, 9.2, 9.1])),
        ],
    };
    let log = TreadLog { tyres: TyrePlace::ALL.map(logged).to_vec(), set_at_km: Some(6000.0) };
    c.bench_function("tread: the same, learning from depths of all four", |b| {
        b.iter(|| common::worn(black_box(&tyres), both, None, &log).unwrap());
    });
}

/// Both axles of the demo car, as built and with twelve sets each, −60 to +120 mm.
fn how_high(c: &mut Criterion) {
    let car = common::both_axles();
    let parts = shipped_parts().unwrap();
    let sets = |axle: Axle| -> Vec<Vec<String>> {
        let g = &car.base.axles[axle].as_ref().unwrap().geometry;
        let turned = |p: &&Part| !p.edits.is_empty() || !p.adjusters.is_empty();
        parts_for(&parts, g).iter().filter(turned).take(12).map(|p| vec![p.id.clone()]).collect()
    };
    let asked = [Axle::Front, Axle::Rear].map(|axle| LadderAsked {
        car: car.clone(),
        axle,
        other: OtherAxle::AsPlanned,
        sets: sets(axle),
        span_mm: USUAL_SPAN_MM,
    });
    c.bench_function("height ladders, both axles, as built and 12 sets", |b| {
        b.iter(|| asked.each_ref().map(|a| ladders(black_box(a), &parts, &Budget::default()).unwrap()));
    });
}

criterion_group!(benches, speed, layouts, readings, car_tread, how_high);
criterion_main!(benches);
