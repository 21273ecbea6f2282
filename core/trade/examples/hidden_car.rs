//! Hidden-car trial: simulated cars whose geometry, gauge noise and stiction the planner does not know. Its
//! instructions are followed literally in the order of the sheet: cams, settle and read again, then the tie rod, looked
//! at once more and corrected. That is one cycle; what reads well inside at a look is left alone, as the sheet's gates do.
//! Prints the share of cars that land within 0.1° of camber, 0.2° of caster and 0.05° of toe after one cycle and after
//! two, beside a strategy that turns one knob at a time, in the same order with the same readings, and beside a
//! planner that is told the car's true points: what it misses is gauge, hand and settling, and no planner can help it.
//!
//! `cargo run -p bold-stance-trade --release --example hidden_car`
#![allow(clippy::unwrap_used, clippy::print_stdout, missing_docs)]

use bold_stance_car::adjuster::{Adjuster, AdjusterKind, default_adjusters};
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::fit::{Knowledge, spreads};
use bold_stance_car::vehicle::{Attitude, Measured, anchor};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::Geometry;
use bold_stance_kinematics::linkage::Corner;
use bold_stance_kinematics::wheel::Alignment;
use bold_stance_trade::aim::Target;
use bold_stance_trade::plan::{Bench, solve};
use rand::SeedableRng;
use rand_distr::{Distribution, StandardNormal};
use rand_pcg::Pcg64Mcg;

const CARS: usize = 500;
/// Mean of three readings of a digital gauge, degrees: camber, caster, toe of one wheel.
const GAUGE: [f64; 3] = [0.03, 0.06, 0.015];
/// Settled height from one roll to the next, mm.
const SETTLE: f64 = 0.7;
/// A cam is left this far from where it was meant, degrees, and a rod, turns.
const HAND: [f64; 2] = [1.5, 1.0 / 48.0];
/// What counts as landed, degrees.
const LANDED: [f64; 3] = [0.1, 0.2, 0.05];
/// Share of that within which a reading is good enough to leave the knobs alone.
const LEAVE: f64 = 0.5;

struct Car {
    truth: Bench,
    told: Geometry,
    travel: f64,
    positions: Vec<f64>,
}

fn three(a: &Alignment) -> [f64; 3] {
    [a.camber_deg, a.caster_deg, a.toe_deg]
}

fn knobs() -> Vec<Adjuster> {
    let mut out = default_adjusters(6.0);
    for a in &mut out {
        if let AdjusterKind::Eccentric { notches_per_half_turn, .. } = &mut a.kind {
            *notches_per_half_turn = None;
        }
    }
    out
}

/// The planner's own model, bent to what was read at the positions the knobs stand at.
fn planner(car: &Car, read: [f64; 3]) -> Option<Bench> {
    let mut list = knobs();
    list.iter_mut().zip(&car.positions).for_each(|(a, p)| a.position = *p);
    let start: Vec<Edit> = list.iter().flat_map(|a| a.edits_at(a.position)).collect();
    let m = Measured { camber_deg: read[0], caster_deg: read[1], toe_deg: read[2] };
    let bent = anchor(&car.told.points, &car.told.wheel, car.travel, &start, &m).ok()?;
    Some(Bench::new(bent.corner, list, car.travel, Attitude::default()))
}

/// All knobs at once, as the setting solver says.
fn together(b: &Bench, want: [f64; 3]) -> Option<Vec<f64>> {
    let around = |v: f64, w: f64| [v - w, v + w];
    let t =
        Target { camber: around(want[0], 0.02), caster: around(want[1], 0.04), toe: around(want[2], 0.01) };
    solve(b, &t).into_iter().next().map(|s| s.positions)
}

/// One knob after the other by its own effect alone: front cam for camber, rear cam for caster, rod for toe.
fn one_by_one(b: &Bench, want: [f64; 3]) -> Option<Vec<f64>> {
    let mut p = b.start();
    let rates = b.sensitivity(&p);
    let now = three(&b.angles(&p).ok()?);
    for (k, rate) in [(0, rates[0].camber_deg / 5.0), (1, rates[1].caster_deg / 5.0), (2, rates[2].toe_deg)] {
        let [low, high] = b.adjusters[k].range();
        p[k] = (p[k] + (want[k] - now[k]) / rate).clamp(low, high);
    }
    Some(p)
}

type Strategy = fn(&Bench, [f64; 3]) -> Option<Vec<f64>>;

fn main() {
    let shapes = shipped_archetypes().unwrap();
    for (title, knowledge) in [("taped", Knowledge::Taped), ("generic shape", Knowledge::Archetype)] {
        let strategies: [(&str, Strategy, bool); 3] = [
            ("all knobs together", together, false),
            ("one knob at a time", one_by_one, false),
            ("all knobs together, true points told", together, true),
        ];
        for (name, strategy, truth_told) in strategies {
            let mut rng = Pcg64Mcg::seed_from_u64(20_261_123);
            let mut normal = move || -> f64 { StandardNormal.sample(&mut rng) };
            let (mut landed, mut each, mut cars) = ([0usize; 2], [[0usize; 3]; 2], 0usize);
            for n in 0..CARS {
                let id = ["half_ton_front", "one_ton_front", "sports_front"][n % 3];
                let told = shapes.iter().find(|a| a.id == id).unwrap().geometry.clone();
                let mut points = told.points.clone();
                for s in spreads(&told.points, knowledge) {
                    s.shift(&mut points, s.sigma_mm * normal());
                }
                let mut wheel = told.wheel.clone();
                wheel.camber_deg += 0.5 * normal();
                wheel.toe_deg += 0.2 * normal();
                let travel = -30.0 + 15.0 * normal();
                let truth = Bench::new(Corner::new(&points, &wheel), knobs(), travel, Attitude::default());
                let told = if truth_told { Geometry { points, wheel, ..told } } else { told };
                let mut car = Car { truth, told, travel, positions: vec![0.0; 3] };
                // Wanted is a setting the car can have, somewhere in the middle of its reach.
                let spot = [40.0 * normal().clamp(-1.0, 1.0), 40.0 * normal().clamp(-1.0, 1.0), normal()];
                let Ok(want) = car.truth.angles(&spot).map(|a| three(&a)) else { continue };
                cars += 1;
                for (cycle, done) in landed.iter_mut().enumerate() {
                    // Cams first; then, settled and read again, the rod alone.
                    for (rod, settles) in [(false, true), (true, true), (true, false)] {
                        // Toe is live: between the two looks at the rod the car does not move.
                        if settles {
                            car.truth.travel_mm = car.travel + SETTLE * normal();
                        }
                        let now = three(&car.truth.angles(&car.positions).unwrap());
                        let read: [f64; 3] = std::array::from_fn(|k| now[k] + GAUGE[k] * normal());
                        // The rod answers for toe, the cams for camber and caster.
                        let looked_at = if rod { 2..3 } else { 0..2 };
                        let near = |k: usize| (read[k] - want[k]).abs() <= LEAVE * LANDED[k];
                        if looked_at.into_iter().all(near) {
                            continue;
                        }
                        let Some(mut b) = planner(&car, read) else { break };
                        if rod {
                            b.adjusters[0].locked = true;
                            b.adjusters[1].locked = true;
                        }
                        let Some(orders) = strategy(&b, want) else { break };
                        for (k, p) in orders.iter().enumerate() {
                            // A knob that is left alone stays exactly where it was.
                            if (k == 2) == rod && (p - car.positions[k]).abs() > 1e-9 {
                                car.positions[k] = p + HAND[usize::from(rod)] * normal();
                            }
                        }
                    }
                    car.truth.travel_mm = car.travel + SETTLE * normal();
                    let now = three(&car.truth.angles(&car.positions).unwrap());
                    let off: [bool; 3] = std::array::from_fn(|k| (now[k] - want[k]).abs() <= LANDED[k]);
                    *done += usize::from(off.iter().all(|o| *o));
                    for (n, o) in each[cycle].iter_mut().zip(off) {
                        *n += usize::from(o);
                    }
                }
            }
            let share = |n: usize| 100.0 * n as f64 / cars as f64;
            println!(
                "{title}, {name}: {cars} cars, landed {:.1} % after one cycle, {:.1} % after two; camber, caster, toe alone {:?} then {:?}",
                share(landed[0]),
                share(landed[1]),
                each[0].map(share),
                each[1].map(share)
            );
        }
    }
}
