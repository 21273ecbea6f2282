//! Hidden cars for the closed loop: points, gains, hand and gauge off by as much as the program itself states, or farther; and
//! four who set them.
#![allow(dead_code)]

use bold_stance_car::adjuster::{Adjuster, AdjusterKind};
use bold_stance_car::archetype::Archetype;
use bold_stance_car::fit::{Knowledge, spreads};
use bold_stance_car::vehicle::{Attitude, Measured, anchor, anchor_wheel};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::Points;
use bold_stance_kinematics::linkage::Corner;
use bold_stance_trade::aim::Target;
use bold_stance_trade::plan::{Bench, READABLE_DEG, READABLE_TOE_DEG};
use bold_stance_trade::prove::{AnglesRead, Learner};
use rand::SeedableRng;
use rand_distr::{Distribution, StandardNormal, Uniform};
use rand_pcg::Pcg64Mcg;

pub fn normal(rng: &mut Pcg64Mcg) -> f64 {
    StandardNormal.sample(rng)
}

pub fn between(rng: &mut Pcg64Mcg, low: f64, high: f64) -> f64 {
    Uniform::new_inclusive(low, high).unwrap().sample(rng)
}

pub fn steers(shape: &Archetype) -> bool {
    Corner::new(&shape.geometry.points, &shape.geometry.wheel).is_steered()
}

/// What a car is like, and how well it is read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Like {
    /// Gains between these, unknown to everybody; else spread as the program says they are.
    pub gains: Option<[f64; 2]>,
    /// Gauge and sweep against what a mean of three readings leaves.
    pub noise: f64,
    /// Notches in half a turn of every cam: as the shape has them, none, or so many.
    pub notches: Notches,
    /// How a cycle goes.
    pub walk: Walk,
}

/// How a cycle of orders goes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Walk {
    /// Everything is turned, then read.
    AtOnce,
    /// As the sheet has it: camber and caster, read with toe (later toe alone), then what sets toe by what was read.
    ToeLast,
}

/// Notches of a car's cams.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Notches {
    /// As its shape has them.
    Own,
    /// Any angle.
    Free,
    /// So many in half a turn.
    Of(u32),
}

/// As the program itself states.
pub const STATED: Like = Like { gains: None, noise: 1.0, notches: Notches::Own, walk: Walk::ToeLast };

/// A shape's corner with its usual adjusters, bent to what was read.
pub fn bench_of(shape: &Archetype, points: &Points, read: &Measured) -> Option<Bench> {
    bench_with(shape, points, read, Notches::Own)
}

fn bench_with(shape: &Archetype, points: &Points, read: &Measured, notches: Notches) -> Option<Bench> {
    let mut list: Vec<Adjuster> = shape.usual_adjusters().into_iter().map(|o| o.adjuster).collect();
    for a in &mut list {
        if let AdjusterKind::Eccentric { notches_per_half_turn: n, .. }
        | AdjusterKind::CamBolt { notches_per_half_turn: n, .. } = &mut a.kind
        {
            *n = match notches {
                Notches::Own => *n,
                Notches::Free => None,
                Notches::Of(k) => Some(k),
            };
        }
    }
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
pub const SIGMA: [f64; 3] = [0.06, 0.16, 0.03];

/// A car as it really is.
pub struct Hidden {
    pub bench: Bench,
    pub gains: Vec<f64>,
    pub travel: f64,
}

impl Hidden {
    /// Camber, caster, toe with every adjuster at a position, degrees.
    pub fn angles(&self, positions: &[f64]) -> Option<[f64; 3]> {
        let each = self.bench.adjusters.iter().zip(positions).zip(&self.gains);
        let edits: Vec<Edit> = each.flat_map(|((a, p), g)| a.edits_with_gain(*p, *g)).collect();
        let a = self.bench.angles_at(&self.bench.corner.edited(&edits), self.travel).ok()?;
        Some([a.camber_deg, a.caster_deg, a.toe_deg])
    }
}

/// What the hand makes of an order.
pub fn by_hand(a: &Adjuster, from: f64, to: f64, rng: &mut Pcg64Mcg) -> f64 {
    let sd = match a.kind {
        AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. } => 1.5,
        AdjusterKind::Thread { .. } => 1.0 / 48.0,
        AdjusterKind::Slide { .. } => 0.2,
        AdjusterKind::Tilt { step_deg: None, .. } => 0.1,
        _ => 0.0,
    };
    if (to - from).abs() < 1e-9 { from } else { to + sd * normal(rng) }
}

/// The model's own doubt of what a height and settings change, from the spread of many such cars: variances of camber, caster,
/// toe, degrees². `other` is the model with other points.
pub fn doubt_of_change(
    points: &Points,
    model: &Bench,
    other: impl Fn(&Points) -> Option<Bench>,
    at: &[f64],
    travel: f64,
) -> [f64; 3] {
    let mut change = [0.0f64; 3];
    for s in spreads(points, Knowledge::Taped) {
        let mut p = points.clone();
        s.shift(&mut p, s.sigma_mm);
        let Some(other) = other(&p) else { continue };
        let posed = |b: &Bench| b.angles_at(&b.set(at), travel).ok();
        let (Some(a), Some(b)) = (posed(model), posed(&other)) else { continue };
        let d = [b.camber_deg - a.camber_deg, b.caster_deg - a.caster_deg, b.toe_deg - a.toe_deg];
        (0..3).for_each(|i| change[i] += d[i] * d[i]);
    }
    change
}

/// What came of many cars.
#[derive(Default, Debug)]
pub struct Tally {
    /// Cars.
    pub cars: u32,
    /// Landed after one to four cycles: learning, the newest reading alone, told points and gains, a hand on a live gauge.
    pub landed: [[u32; 4]; 4],
    /// Readings inside their 90 % band, of those that were read.
    pub inside: u32,
    /// Readings.
    pub read: u32,
    /// Gains inside their 90 % band, of those there are.
    pub gains_in: u32,
    /// Gains.
    pub gains: u32,
    /// Readings that nothing was learned from, which were read again.
    pub refused: u32,
    /// Of those the ones that nothing was learned from the second time.
    pub refused_again: u32,
}

/// Whether angles are in their windows, as well as a shop can read them.
fn lands(a: &[f64; 3], t: &Target, steers: bool) -> bool {
    let inside = |v: f64, w: [f64; 2], r: f64| v > w[0] - r && v < w[1] + r;
    inside(a[0], t.camber, READABLE_DEG)
        && (!steers || inside(a[1], t.caster, READABLE_DEG))
        && inside(a[2], t.toe, READABLE_TOE_DEG)
}

/// Where one adjuster alone brings an angle to `to` on the car as it really is, on its own comb; none where it moves it not.
fn live(hidden: &Hidden, at: &[f64], k: usize, angle: usize, to: f64) -> Option<f64> {
    let a = &hidden.bench.adjusters[k];
    let [low, high] = a.range();
    let on = |p: f64| {
        let mut at = at.to_vec();
        at[k] = p;
        hidden.angles(&at).map(|x| x[angle] - to)
    };
    let n = 48;
    let comb = (0..=n).map(|i| low + (high - low) * f64::from(i) / f64::from(n));
    let best = comb.filter_map(|p| Some((p, on(p)?.abs()))).min_by(|a, b| a.1.total_cmp(&b.1))?.0;
    // Between the comb's teeth by halving.
    let w = (high - low) / f64::from(n);
    let (mut l, mut r) = ((best - w).max(low), (best + w).min(high));
    for _ in 0..30 {
        let (m1, m2) = (l + (r - l) / 3.0, r - (r - l) / 3.0);
        if on(m1)?.abs() < on(m2)?.abs() { r = m2 } else { l = m1 }
    }
    let p = f64::midpoint(l, r);
    Some(a.step().map_or(p, |s| ((p / s).round() * s).clamp(low, high)))
}

/// One cycle of a hand on a live gauge: caster by what the last sweep was off, by the book; then camber and toe turned until the
/// gauge reads the middle of the window.
fn by_gauge(
    hidden: &Hidden,
    book: &Bench,
    at: &mut [f64],
    target: &Target,
    caster_read: Option<f64>,
    sigma: [f64; 3],
    rng: &mut Pcg64Mcg,
) -> Option<()> {
    let middle = |w: [f64; 2]| f64::midpoint(w[0], w[1]);
    let start = at.to_vec();
    let slopes: Vec<[f64; 3]> = book
        .adjusters
        .iter()
        .map(|a| {
            let does = book.sensitivity(&start).into_iter().find(|s| s.name == a.name);
            does.map_or([0.0; 3], |s| [s.camber_deg, s.caster_deg, s.toe_deg])
        })
        .collect();
    let most = |angle: usize, not: Option<usize>| {
        (0..slopes.len())
            .filter(|k| Some(*k) != not && slopes[*k][angle].abs() > 1e-4)
            .max_by(|a, b| slopes[*a][angle].abs().total_cmp(&slopes[*b][angle].abs()))
    };
    let mut taken = None;
    if let (Some(read), Some(k)) = (caster_read, most(1, book.toe_by)) {
        let off = middle(target.caster) - read;
        if off.abs() > 0.25 {
            let [low, high] = book.adjusters[k].range();
            let unit = book.adjusters[k].step().unwrap_or(match book.adjusters[k].kind {
                AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. } => 5.0,
                AdjusterKind::Tilt { .. } | AdjusterKind::Wedge { .. } => 0.25,
                _ => 1.0,
            });
            let n = off / slopes[k][1];
            let n = if book.adjusters[k].step().is_some() { n.round() } else { n };
            at[k] = (at[k] + n * unit).clamp(low, high);
        }
        taken = Some(k);
    }
    let camber_by = most(0, book.toe_by).filter(|k| Some(*k) != taken).or(most(0, book.toe_by));
    for (angle, by, window) in [(0, camber_by, target.camber), (2, book.toe_by.or(most(2, None)), target.toe)]
    {
        let Some(k) = by else { continue };
        let to = middle(window) + sigma[angle] * normal(rng);
        at[k] = live(hidden, at, k, angle, to)?;
    }
    Some(())
}

/// One car, set in four cycles by one of four: learning, the newest reading alone, told points and gains, a hand on a live
/// gauge.
pub fn one_car(shape: &Archetype, seed: u64, like: Like, tally: &mut Tally) -> Option<()> {
    let sigma = SIGMA.map(|s| s * like.noise);
    let mut rng = Pcg64Mcg::seed_from_u64(seed);
    let g = &shape.geometry;
    let steered = steers(shape);
    let mut points = g.points.clone();
    for s in spreads(&g.points, Knowledge::Taped) {
        s.shift(&mut points, s.sigma_mm * normal(&mut rng));
    }
    let found = [between(&mut rng, -1.0, 0.5), between(&mut rng, 2.0, 4.0), between(&mut rng, -0.2, 0.3)];
    let of = |a: [f64; 3]| Measured { camber_deg: a[0], caster_deg: a[1], toe_deg: a[2] };
    let bench_of = |points: &Points, read: &Measured| bench_with(shape, points, read, like.notches);
    let bench = bench_of(&points, &of(found))?;
    if bench.adjusters.is_empty() {
        return None;
    }
    // As far from what they are said to do as the program says that they are.
    let gains = bench
        .adjusters
        .iter()
        .map(|a| match like.gains {
            Some([low, high]) => between(&mut rng, low, high),
            None => (a.gain_sd() * normal(&mut rng)).exp().clamp(0.6, 1.7),
        })
        .collect();
    let hidden = Hidden { bench, gains, travel: -between(&mut rng, -15.0, 40.0) };
    let mut noisy = |a: [f64; 3]| [0, 1, 2].map(|i| a[i] + sigma[i] * normal(&mut rng));
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
    let model = bench_of(&g.points, &of(read))?;
    let change = doubt_of_change(&g.points, &model, |p| bench_of(p, &of(read)), &some, hidden.travel);
    let knowing = bench_of(&points, &of(read))?;
    let told: Vec<(f64, f64)> = hidden.gains.iter().map(|g| (g.ln(), 1e-6)).collect();
    let variance = sigma.map(|s| s * s);
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
            // What is read after work: expected by one, learned from by the others.
            let read = |l: &mut Learner<'_>,
                        (real, all): ([f64; 3], bool),
                        rng: &mut Pcg64Mcg,
                        tally: &mut Tally| {
                let z = [0, 1, 2].map(|i| real[i] + sigma[i] * normal(rng));
                let value = [all.then_some(z[0]), (all && steered).then_some(z[1]), Some(z[2])];
                let seen = AnglesRead { value, sigma };
                if planner == 1 {
                    // No learning: everything off is an offset, known by the newest reading alone.
                    let e = l.expected()?;
                    for (i, v) in value.iter().enumerate() {
                        l.belief.mean[i] += v.map_or(0.0, |v| v - e.value[i]);
                    }
                    return Some(());
                }
                let mut came = l.read(&seen)?;
                if planner == 0 {
                    for i in 0..3 {
                        if let Some(yes) = came.as_predicted(i) {
                            (tally.inside, tally.read) = (tally.inside + u32::from(yes), tally.read + 1);
                        }
                    }
                    tally.refused += u32::from(!came.learned);
                }
                // What is odder than once in a hundred is read again before anything is turned.
                if !came.learned {
                    let z = [0, 1, 2].map(|i| real[i] + sigma[i] * normal(rng));
                    let value = [0, 1, 2].map(|i| value[i].map(|_| z[i]));
                    came = l.read(&AnglesRead { value, sigma })?;
                    tally.refused_again += u32::from(planner == 0 && !came.learned);
                }
                Some(())
            };
            let turn = |l: &mut Learner<'_>, at: &mut [f64], to: &[f64], rng: &mut Pcg64Mcg| {
                // What is not ordered is not touched.
                for (k, a) in model.adjusters.iter().enumerate() {
                    if (to[k] - l.at[k]).abs() > 1e-9 {
                        at[k] = by_hand(a, at[k], to[k], rng);
                    }
                }
                // What is written down is what was ordered.
                l.turned(to, hidden.travel);
                hidden.angles(at)
            };
            let mut to = l.next(&target, hidden.travel)?.positions;
            if let (Walk::ToeLast, Some(toe)) = (like.walk, model.toe_by) {
                to[toe] = l.at[toe];
                let moves = (0..to.len()).any(|k| (to[k] - l.at[k]).abs() > 1e-9);
                if moves || cycle == 0 {
                    let real = turn(&mut l, &mut at, &to, &mut rng)?;
                    // Behind new heights and the cams everything is read; later it is toe alone.
                    read(&mut l, (real, cycle == 0), &mut rng, tally)?;
                }
                to = l.next_of_toe(&target, hidden.travel)?.positions;
            }
            let real = turn(&mut l, &mut at, &to, &mut rng)?;
            if lands(&real, &target, steered) {
                tally.landed[planner][cycle] += 1;
            }
            read(&mut l, (real, true), &mut rng, tally)?;
        }
        if planner == 0 {
            for (k, g) in hidden.gains.iter().enumerate() {
                let half = 1.6449 * l.gain_sd(k);
                tally.gains += 1;
                tally.gains_in += u32::from((l.belief.mean[3 + k] - g.ln()).abs() <= half);
            }
        }
    }
    let mut rng = Pcg64Mcg::seed_from_u64(seed ^ 0x77);
    let (mut at, mut caster) = (model.start(), steered.then_some(read[1]));
    for cycle in 0..4 {
        by_gauge(&hidden, &model, &mut at, &target, caster, sigma, &mut rng)?;
        let real = hidden.angles(&at)?;
        tally.landed[3][cycle] += u32::from(lands(&real, &target, steered));
        caster = steered.then(|| real[1] + sigma[1] * normal(&mut rng));
    }
    tally.cars += 1;
    Some(())
}
