//! The closed loop on hidden cars: points, gains, hand and gauge all off by as much as the program itself states.

use bold_stance_car::adjuster::{Adjuster, AdjusterKind};
use bold_stance_car::archetype::{Archetype, shipped_archetypes};
use bold_stance_car::fit::{Knowledge, spreads};
use bold_stance_car::vehicle::{Attitude, Measured, anchor, anchor_wheel};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::Points;
use bold_stance_kinematics::linkage::Corner;
use bold_stance_trade::aim::Target;
use bold_stance_trade::plan::{Bench, READABLE_DEG, READABLE_TOE_DEG};
use bold_stance_trade::prove::{AnglesRead, Belief, Learner, ProveCase, explain, run_prove};
use bold_stance_words::English;
use nalgebra::{DMatrix, DVector};
use rand::SeedableRng;
use rand_distr::{Distribution, StandardNormal, Uniform};
use rand_pcg::Pcg64Mcg;

fn normal(rng: &mut Pcg64Mcg) -> f64 {
    StandardNormal.sample(rng)
}

fn between(rng: &mut Pcg64Mcg, low: f64, high: f64) -> f64 {
    Uniform::new_inclusive(low, high).unwrap().sample(rng)
}

fn steers(shape: &Archetype) -> bool {
    Corner::new(&shape.geometry.points, &shape.geometry.wheel).is_steered()
}

/// A shape's corner with its usual adjusters, bent to what was read.
fn bench_of(shape: &Archetype, points: &Points, read: &Measured) -> Option<Bench> {
    let list: Vec<Adjuster> = shape.usual_adjusters().into_iter().map(|o| o.adjuster).collect();
    let start: Vec<Edit> = list.iter().flat_map(|a| a.edits_at(a.position)).collect();
    let wheel = &shape.geometry.wheel;
    let anchored = if steers(shape) {
        anchor(points, wheel, 0.0, &start, read)
    } else {
        anchor_wheel(points, wheel, 0.0, &start, read.camber_deg, read.toe_deg)
    };
    Some(Bench::new(anchored.ok()?.corner, list, 0.0, Attitude::default()))
}

/// What a mean of three readings leaves, degrees of camber, caster, toe.
const SIGMA: [f64; 3] = [0.06, 0.16, 0.03];

/// A car as it really is.
struct Hidden {
    bench: Bench,
    gains: Vec<f64>,
    travel: f64,
}

impl Hidden {
    fn angles(&self, positions: &[f64]) -> Option<[f64; 3]> {
        let each = self.bench.adjusters.iter().zip(positions).zip(&self.gains);
        let edits: Vec<Edit> = each.flat_map(|((a, p), g)| a.edits_with_gain(*p, *g)).collect();
        let a = self.bench.angles_at(&self.bench.corner.edited(&edits), self.travel).ok()?;
        Some([a.camber_deg, a.caster_deg, a.toe_deg])
    }
}

/// What the hand makes of an order.
fn by_hand(a: &Adjuster, from: f64, to: f64, rng: &mut Pcg64Mcg) -> f64 {
    let sd = match a.kind {
        AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. } => 1.5,
        AdjusterKind::Thread { .. } => 1.0 / 48.0,
        AdjusterKind::Slide { .. } => 0.2,
        AdjusterKind::Tilt { step_deg: None, .. } => 0.1,
        _ => 0.0,
    };
    if (to - from).abs() < 1e-9 { from } else { to + sd * normal(rng) }
}

#[derive(Default, Debug)]
struct Tally {
    cars: u32,
    landed: [[u32; 4]; 3],
    inside: u32,
    read: u32,
    gains_in: u32,
    gains: u32,
    refused: u32,
}

/// Whether angles are in their windows, as well as a shop can read them.
fn lands(a: &[f64; 3], t: &Target, steers: bool) -> bool {
    let inside = |v: f64, w: [f64; 2], r: f64| v > w[0] - r && v < w[1] + r;
    inside(a[0], t.camber, READABLE_DEG)
        && (!steers || inside(a[1], t.caster, READABLE_DEG))
        && inside(a[2], t.toe, READABLE_TOE_DEG)
}

/// One car, set in four cycles by one of three planners: learning, the newest reading alone, told points and gains.
fn one_car(shape: &Archetype, seed: u64, tally: &mut Tally) -> Option<()> {
    let mut rng = Pcg64Mcg::seed_from_u64(seed);
    let g = &shape.geometry;
    let steered = steers(shape);
    let mut points = g.points.clone();
    for s in spreads(&g.points, Knowledge::Taped) {
        s.shift(&mut points, s.sigma_mm * normal(&mut rng));
    }
    let found = [between(&mut rng, -1.0, 0.5), between(&mut rng, 2.0, 4.0), between(&mut rng, -0.2, 0.3)];
    let of = |a: [f64; 3]| Measured { camber_deg: a[0], caster_deg: a[1], toe_deg: a[2] };
    let bench = bench_of(shape, &points, &of(found))?;
    if bench.adjusters.is_empty() {
        return None;
    }
    // As far from what they are said to do as the program says that they are.
    let gains =
        bench.adjusters.iter().map(|a| (a.gain_sd() * normal(&mut rng)).exp().clamp(0.6, 1.7)).collect();
    let hidden = Hidden { bench, gains, travel: -between(&mut rng, -15.0, 40.0) };
    let mut noisy = |a: [f64; 3]| [0, 1, 2].map(|i| a[i] + SIGMA[i] * normal(&mut rng));
    let read = noisy(found);
    // An aim that this car can reach: where some setting of it stands.
    let mut rng = Pcg64Mcg::seed_from_u64(seed ^ 0xabcd);
    let some: Vec<f64> = hidden
        .bench
        .adjusters
        .iter()
        .map(|a| {
            let [low, high] = a.range();
            let p = between(&mut rng, 0.75 * low, 0.75 * high);
            a.step().map_or(p, |s| ((p / s).round() * s).clamp(low, high))
        })
        .collect();
    let there = hidden.angles(&some)?;
    let near = |v: f64, h: f64| [v - h, v + h];
    let target =
        Target { camber: near(there[0], 0.25), caster: near(there[1], 0.5), toe: near(there[2], 0.08) };
    let model = bench_of(shape, &g.points, &of(read))?;
    // The model's own doubt of what height and settings change, from the spread of many such cars.
    let mut change = [0.0f64; 3];
    for s in spreads(&g.points, Knowledge::Taped) {
        let mut p = g.points.clone();
        s.shift(&mut p, s.sigma_mm);
        let Some(other) = bench_of(shape, &p, &of(read)) else { continue };
        let at = |b: &Bench| b.angles_at(&b.set(&some), hidden.travel).ok();
        let (Some(a), Some(b)) = (at(&model), at(&other)) else { continue };
        for (c, d) in change.iter_mut().zip([
            b.camber_deg - a.camber_deg,
            b.caster_deg - a.caster_deg,
            b.toe_deg - a.toe_deg,
        ]) {
            *c += d * d;
        }
    }
    let knowing = bench_of(shape, &points, &of(read))?;
    let told: Vec<(f64, f64)> = hidden.gains.iter().map(|g| (g.ln(), 1e-6)).collect();
    let variance = SIGMA.map(|s| s * s);
    let with_change = [0, 1, 2].map(|i| variance[i] + change[i]);
    // The same noise for each planner.
    for planner in 0..3 {
        let mut rng = Pcg64Mcg::seed_from_u64(seed ^ 0x77);
        let mut l = match planner {
            0 | 1 => Learner::new(&model, with_change, &Learner::usual_gains(&model)),
            _ => Learner::new(&knowing, variance, &told),
        };
        l.travel_mm = hidden.travel;
        let mut at = model.start();
        for cycle in 0..4 {
            let next = l.next(&target, hidden.travel)?;
            for (k, a) in model.adjusters.iter().enumerate() {
                at[k] = by_hand(a, at[k], next.positions[k], &mut rng);
            }
            let real = hidden.angles(&at)?;
            if lands(&real, &target, steered) {
                tally.landed[planner][cycle] += 1;
            }
            let z = [0, 1, 2].map(|i| real[i] + SIGMA[i] * normal(&mut rng));
            // What is written down is what was ordered.
            l.turned(&next.positions, hidden.travel);
            let seen = AnglesRead { value: [Some(z[0]), steered.then_some(z[1]), Some(z[2])], sigma: SIGMA };
            if planner == 1 {
                // No learning: everything off is an offset, known by the newest reading alone.
                let e = l.expected()?;
                for (i, v) in z.iter().enumerate() {
                    l.belief.mean[i] += v - e.value[i];
                }
                continue;
            }
            let came = l.read(&seen)?;
            if planner == 0 {
                for i in 0..3 {
                    if let Some(yes) = came.as_predicted(i) {
                        (tally.inside, tally.read) = (tally.inside + u32::from(yes), tally.read + 1);
                    }
                }
                tally.refused += u32::from(!came.learned);
            }
        }
        if planner == 0 {
            for (k, g) in hidden.gains.iter().enumerate() {
                let half = 1.6449 * l.belief.cov[(3 + k, 3 + k)].sqrt();
                tally.gains += 1;
                tally.gains_in += u32::from((l.belief.mean[3 + k] - g.ln()).abs() <= half);
            }
        }
    }
    tally.cars += 1;
    Some(())
}

#[test]
fn after_two_readings_it_lands_as_often_as_one_who_was_told_the_car() {
    let mut tally = Tally::default();
    let shapes: Vec<Archetype> =
        shipped_archetypes().unwrap().into_iter().filter(|s| !s.usual_adjusters().is_empty()).collect();
    for n in 0..8 {
        for (k, s) in shapes.iter().enumerate() {
            one_car(s, 1000 * n + k as u64, &mut tally);
        }
    }
    let share = |p: usize| tally.landed[p].map(|n| f64::from(n) / f64::from(tally.cars));
    let (learning, newest, told) = (share(0), share(1), share(2));
    let (bands, gains) =
        (f64::from(tally.inside) / f64::from(tally.read), f64::from(tally.gains_in) / f64::from(tally.gains));
    println!(
        "{} cars of {} shapes: learning {learning:.2?}, newest reading alone {newest:.2?}, told {told:.2?}; in the band {bands:.3}, gains {gains:.3}, not learned from {}",
        tally.cars,
        shapes.len(),
        tally.refused
    );
    assert!(tally.cars > 100);
    assert!(learning[2] >= 0.97 * told[2] && learning[3] >= 0.97 * told[3]);
    assert!(learning[1] > newest[1] && learning[1] >= 0.98 * told[1]);
    assert!((0.85..0.97).contains(&bands));
    assert!((0.82..0.98).contains(&gains));
}

/// Bar-Shalom's recursion against all readings at once by normal equations.
#[test]
fn on_a_straight_model_it_is_least_squares() {
    let mut rng = Pcg64Mcg::seed_from_u64(5);
    let n = 6;
    let mut b = Belief::of([0.04, 0.09, 0.01], &[(0.0, 0.2), (0.1, 0.3), (0.0, 0.05)]);
    let prior = b.clone();
    let (mut info, mut right) =
        (prior.cov.clone().try_inverse().unwrap(), prior.cov.clone().try_inverse().unwrap() * &prior.mean);
    for _ in 0..12 {
        let h = DMatrix::from_fn(3, n, |i, j| if j < 3 { f64::from(i == j) } else { normal(&mut rng) });
        let z = DVector::from_fn(3, |_, _| normal(&mut rng));
        let r = [0.01, 0.04, 0.0025];
        b = b.updated(&z, &r, |x| Some((&h * x, h.clone()))).unwrap();
        let w = DMatrix::from_diagonal(&DVector::from_iterator(3, r.iter().map(|v| 1.0 / v)));
        info += h.transpose() * &w * &h;
        right += h.transpose() * &w * &z;
    }
    let svd = info.clone().svd(true, true);
    let batch = svd.solve(&right, 1e-14).unwrap();
    assert!((&b.mean - batch).amax() < 1e-9);
    assert!((&b.cov - info.try_inverse().unwrap()).amax() < 1e-9);
}

fn wishbone() -> (Archetype, Bench) {
    let shape = shipped_archetypes()
        .unwrap()
        .into_iter()
        .find(|s| {
            let cams = |o: &Adjuster| matches!(o.kind, AdjusterKind::Eccentric { .. });
            steers(s) && s.usual_adjusters().iter().filter(|o| cams(&o.adjuster)).count() == 2
        })
        .unwrap();
    let read = Measured { camber_deg: -0.4, caster_deg: 3.0, toe_deg: 0.05 };
    let bench = bench_of(&shape, &shape.geometry.points, &read).unwrap();
    (shape, bench)
}

/// Camber and caster of what was done wrong, against what was told; toe as if the rod had been set by a tape meanwhile.
fn likeliest(done: impl Fn(&[f64]) -> Vec<f64>, travel_off: f64) -> (String, f64) {
    let (_, bench) = wishbone();
    let cams: Vec<usize> = (0..bench.adjusters.len())
        .filter(|k| matches!(bench.adjusters[*k].kind, AdjusterKind::Eccentric { .. }))
        .collect();
    let mut told = bench.start();
    let top = bench.adjusters[cams[0]].range()[1];
    (told[cams[0]], told[cams[1]]) = (0.9 * top, -0.5 * top);
    let l = Learner::new(&bench, SIGMA.map(|s| 2.0 * s * s), &Learner::usual_gains(&bench));
    let a = bench.angles_at(&bench.set(&done(&told)), travel_off).unwrap();
    let read = AnglesRead {
        value: [Some(a.camber_deg + 0.03), Some(a.caster_deg - 0.1), Some(a.toe_deg + 0.01)],
        sigma: SIGMA,
    };
    let list = explain(&l, &told, 0.0, &read, [Some(-0.4), Some(3.0), Some(0.05)]);
    assert!((list.iter().map(|e| e.odds).sum::<f64>() - 1.0).abs() < 1e-9);
    (list[0].what.en(), list[0].odds)
}

#[test]
fn a_cam_turned_the_wrong_way_is_named_and_a_clean_reading_is_nothing_odd() {
    let (_, bench) = wishbone();
    let first = (0..bench.adjusters.len())
        .find(|k| matches!(bench.adjusters[*k].kind, AdjusterKind::Eccentric { .. }))
        .unwrap();
    let name = bench.adjusters[first].name.clone();
    let (what, odds) = likeliest(|t| t.to_vec(), 0.0);
    assert!(what.starts_with("Nothing odd") && odds > 0.5, "{what} {odds}");
    let (what, odds) = likeliest(
        |t| {
            let mut t = t.to_vec();
            t[first] = -t[first];
            t
        },
        0.0,
    );
    assert!(what.contains(&name) && what.contains("the other way") && odds > 0.5, "{what} {odds}");
    let second = (first + 1..bench.adjusters.len())
        .find(|k| matches!(bench.adjusters[*k].kind, AdjusterKind::Eccentric { .. }))
        .unwrap();
    let (what, odds) = likeliest(
        |t| {
            let mut t = t.to_vec();
            t.swap(first, second);
            t
        },
        0.0,
    );
    assert!(what.contains("mixed up") && odds > 0.4, "{what} {odds}");
}

/// A bolt that moves 1.4 times what it is said to: the second order already goes by what the first one did, and followed
/// to the letter it lands.
#[test]
fn the_second_order_goes_by_what_the_first_one_did() {
    let (shape, mut bench) = wishbone();
    for a in &mut bench.adjusters {
        if let AdjusterKind::Eccentric { notches_per_half_turn, .. } = &mut a.kind {
            *notches_per_half_turn = None;
        }
    }
    let real = Hidden {
        gains: bench
            .adjusters
            .iter()
            .map(|a| if matches!(a.kind, AdjusterKind::Eccentric { .. }) { 1.4 } else { 1.0 })
            .collect(),
        bench: bench.clone(),
        travel: 0.0,
    };
    let mut case: ProveCase = serde_json::from_value(serde_json::json!({
        "format": "bold-stance.prove/1", "geometry": shape.geometry, "wheelbase_mm": 2800.0,
        "adjusters": bench.adjusters, "knowledge": "surveyed",
        "aim": {"camber_deg": [0.0, 0.1], "caster_deg": [3.2, 3.5], "toe_deg": [0.03, 0.1]},
        "anchor": {"height_mm": 0.0, "readings": {"camber_deg": -0.4, "caster_deg": 3.0, "toe_deg": 0.05},
                   "sigma": {"camber_deg": 0.03, "caster_deg": 0.05, "toe_deg": 0.01}},
    }))
    .unwrap();
    let first = run_prove(&case).unwrap();
    assert!(first.next.reaches && first.predicted.is_empty());
    for turn in 0..3 {
        let next = run_prove(&case).unwrap().next;
        let a = real.angles(&next.positions).unwrap();
        case.cycles.push(
            serde_json::from_value(serde_json::json!({
                "as_done": next.positions, "height_mm": 0.0,
                "readings": {"camber_deg": a[0], "caster_deg": a[1], "toe_deg": a[2]},
                "sigma": {"camber_deg": 0.03, "caster_deg": 0.05, "toe_deg": 0.01},
            }))
            .unwrap(),
        );
        if turn == 2 {
            assert!((-0.06..0.16).contains(&a[0]) && (3.1..3.6).contains(&a[1]), "{a:?}");
        }
    }
    let r = run_prove(&case).unwrap();
    let cam =
        r.gains.iter().zip(&bench.adjusters).find(|(_, a)| matches!(a.kind, AdjusterKind::Eccentric { .. }));
    assert!(cam.unwrap().0.gain > 1.15, "{:?}", r.gains);
    // What is in is left alone.
    let at = &case.cycles[2].as_done;
    assert!(r.next.positions.iter().zip(at).all(|(p, q)| (p - q).abs() < 1e-9), "{:?}", r.next);
    assert!(r.next.orders.iter().all(|o| o.en().contains("leave")));
}

#[test]
fn a_learned_adjuster_does_what_its_gain_says() {
    for shape in shipped_archetypes().unwrap() {
        let read = Measured { camber_deg: -0.4, caster_deg: 3.0, toe_deg: 0.05 };
        let Some(bench) = bench_of(&shape, &shape.geometry.points, &read) else { continue };
        for (k, a) in bench.adjusters.iter().enumerate() {
            let [low, high] = a.range();
            let mut a = a.clone();
            a.position = low + 0.3 * (high - low);
            let to = low + 0.6 * (high - low);
            let learned = a.learned(1.3);
            let with = |edits: Vec<Edit>| bench.angles_at(&bench.corner.edited(&edits), 0.0).ok();
            let by_gain = with(a.edits_with_gain(to, 1.3));
            let by_itself =
                with([learned.rest.clone(), learned.adjuster.edits_at(to * learned.scale)].concat());
            let (Some(x), Some(y)) = (by_gain, by_itself) else { continue };
            let off = (x.camber_deg - y.camber_deg).abs().max((x.toe_deg - y.toe_deg).abs());
            assert!(off < 2e-4 && (x.caster_deg - y.caster_deg).abs() < 2e-3, "{} {k}: {off}", shape.id);
        }
    }
}
