//! What went wrong on hidden cars, and what the program says it was: each explanation simulated on cars whose points, gains, hand
//! and gauge are off as the program itself states.
#![allow(dead_code)]

use super::hidden::{Hidden, SIGMA, bench_of, between, by_hand, doubt_of_change, normal, steers};
use bold_stance_car::adjuster::{Adjuster, AdjusterKind};
use bold_stance_car::archetype::Archetype;
use bold_stance_car::fit::{Knowledge, spreads};
use bold_stance_car::vehicle::Measured;
use bold_stance_kinematics::geometry::Points;
use bold_stance_trade::prove::{AnglesRead, Explained, Learner, after_look, explain, looks};
use bold_stance_units::said::{Said, said};
use rand::SeedableRng;
use rand_distr::{Distribution, Uniform};
use rand_pcg::Pcg64Mcg;

/// What really happened.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Happened {
    Nothing,
    Reversed,
    Miscounted,
    Slipped,
    Gain,
    Mixed,
    Height,
    Jacked,
    CasterOld,
    Sign,
    Zero,
    Steering,
    Points,
}

use Happened::*;

/// Each with its odds before the reading, as the program has them (`prove::explain`), and whether it is one for every adjuster
/// that was turned.
pub const ALL: [(Happened, f64, bool); 13] = [
    (Nothing, 60.0, false),
    (Reversed, 2.0, true),
    (Miscounted, 2.0, true),
    (Slipped, 1.5, true),
    (Gain, 3.0, true),
    (Mixed, 2.0, false),
    (Height, 4.0, false),
    (Jacked, 1.0, false),
    (CasterOld, 2.0, false),
    (Sign, 1.0, false),
    (Zero, 3.0, false),
    (Steering, 3.0, false),
    (Points, 3.0, false),
];

fn below(rng: &mut Pcg64Mcg, n: usize) -> usize {
    Uniform::new(0, n).unwrap().sample(rng)
}

/// One wheel turned and read.
pub struct Told {
    /// What happened.
    pub what: Happened,
    /// The same as the program names it.
    pub named: Said,
    /// What the program says, likeliest first.
    pub list: Vec<Explained>,
    /// Whether the reading is odder than once in a hundred.
    pub odd: bool,
    /// Whether any angle came off the prediction: only then is it asked what explains it.
    pub missed: bool,
}

impl Told {
    /// Place of what happened among what is said, from 0.
    pub fn place(&self) -> Option<usize> {
        self.list.iter().position(|e| e.what == self.named)
    }

    /// Whether the program says that the readings cannot tell what happened from what it names first.
    pub fn alike(&self) -> bool {
        self.place().is_some_and(|p| self.list[p].alike)
    }

    /// What is said once the looks that the program asks for were taken one after the other, until something is nine in ten: each
    /// shows what is so nine times in ten, and three times in a hundred what is not.
    pub fn looked(&self, rng: &mut Pcg64Mcg) -> Said {
        let mut list = self.list.clone();
        for look in looks(&self.list) {
            let shows = look.shows(&list);
            let truth = list.iter().position(|e| e.what == self.named).filter(|p| shows.contains(p));
            let luck = between(rng, 0.0, 1.0);
            let other = shows[below(rng, shows.len())];
            let shown = match truth {
                Some(t) => (luck < 0.9).then_some(t),
                None => (luck < 0.03).then_some(other),
            };
            for (e, odds) in list.clone().iter().zip(after_look(&list, &look, shown)) {
                if let Some(own) = list.iter_mut().find(|o| o.what == e.what) {
                    own.odds = odds;
                }
            }
            if list.iter().any(|e| e.odds > 0.9 && e.what.id != "explain-nothing") {
                break;
            }
        }
        let first = list.iter().max_by(|a, b| a.odds.total_cmp(&b.odds));
        first.map_or_else(|| said("explain-nothing"), |e| e.what.clone())
    }
}

/// A wheel of a shape on which something happened; none where the shape has no such thing. `what` none: drawn by the odds the
/// program gives before a reading.
pub fn one(shape: &Archetype, seed: u64, what: Option<Happened>) -> Option<Told> {
    let mut rng = Pcg64Mcg::seed_from_u64(seed);
    if !steers(shape) {
        return None;
    }
    let g = &shape.geometry;
    let of = |a: [f64; 3]| Measured { camber_deg: a[0], caster_deg: a[1], toe_deg: a[2] };
    // Points as far off as a shape taken for the car is, readings as a mean of three leaves them.
    let mut points: Points = g.points.clone();
    for s in spreads(&g.points, Knowledge::Taped) {
        s.shift(&mut points, s.sigma_mm * normal(&mut rng));
    }
    let found = [between(&mut rng, -1.5, 0.5), between(&mut rng, 1.0, 5.0), between(&mut rng, -0.2, 0.3)];
    let real = bench_of(shape, &points, &of(found))?;
    let mut gains: Vec<f64> =
        real.adjusters.iter().map(|a| (a.gain_sd() * normal(&mut rng)).exp().clamp(0.6, 1.7)).collect();
    let read = [0, 1, 2].map(|i| found[i] + SIGMA[i] * normal(&mut rng));
    let model = bench_of(shape, &g.points, &of(read))?;
    let start = model.start();
    // An order: every adjuster somewhere else, on its own notches.
    let told: Vec<f64> = model
        .adjusters
        .iter()
        .map(|a| {
            let [low, high] = a.range();
            let p = between(&mut rng, 0.8 * low, 0.8 * high);
            let p = if a.is_tie_rod() { 0.4 * p } else { p };
            a.step().map_or(p, |s| ((p / s).round() * s).clamp(low, high))
        })
        .collect();
    let moved: Vec<usize> = (0..told.len()).filter(|k| (told[*k] - start[*k]).abs() > 1e-9).collect();
    if moved.is_empty() {
        return None;
    }
    let what = what.unwrap_or_else(|| {
        let weight = |(_, w, each): &(Happened, f64, bool)| if *each { w * moved.len() as f64 } else { *w };
        let mut at = between(&mut rng, 0.0, ALL.iter().map(weight).sum());
        let hit = ALL.iter().find(|a| {
            at -= weight(a);
            at <= 0.0
        });
        hit.map_or(Nothing, |a| a.0)
    });
    let k = moved[below(&mut rng, moved.len())];
    let mut at = told.clone();
    let (mut travel, by) = (0.0, told[k] - start[k]);
    let step = |a: &Adjuster| {
        a.step().unwrap_or(match a.kind {
            AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. } => 10.0,
            _ => 1.0,
        })
    };
    let name = |id: &'static str| said(id).name("name", model.adjusters[k].name.clone());
    let named = match what {
        Nothing => said("explain-nothing"),
        Reversed => {
            at[k] = start[k] - by;
            name("explain-reversed")
        }
        Miscounted => {
            at[k] += step(&model.adjusters[k]) * if below(&mut rng, 2) == 0 { 1.0 } else { -1.0 };
            name("explain-miscounted")
        }
        Slipped => {
            at[k] = start[k] + by * below(&mut rng, 5) as f64 / 5.0;
            name("explain-slipped")
        }
        Gain => {
            gains[k] *= (0.4 * normal(&mut rng)).exp();
            name("explain-gain")
        }
        Mixed => {
            let cams: Vec<usize> = moved
                .iter()
                .copied()
                .filter(|k| matches!(model.adjusters[*k].kind, AdjusterKind::Eccentric { .. }))
                .collect();
            let [a, b] = cams[..] else { return None };
            if (told[a] - start[a] - told[b] + start[b]).abs() < 1e-9 {
                return None;
            }
            (at[a], at[b]) = (start[a] + told[b] - start[b], start[b] + told[a] - start[a]);
            said("explain-mixed")
                .name("name", model.adjusters[a].name.clone())
                .name("other", model.adjusters[b].name.clone())
        }
        Height => {
            travel = 8.0 * normal(&mut rng);
            said("explain-height")
        }
        Jacked => {
            travel = -[30.0, 50.0, 70.0, 90.0][below(&mut rng, 4)];
            said("explain-jacked")
        }
        CasterOld => said("explain-caster-old"),
        Sign => said("explain-sign"),
        Zero => said("explain-zero"),
        Steering => said("explain-steering"),
        Points => said("explain-points"),
    };
    for (p, (a, s)) in at.iter_mut().zip(model.adjusters.iter().zip(&start)) {
        *p = by_hand(a, *s, *p, &mut rng);
    }
    let hidden = Hidden { bench: real, gains, travel };
    let came = hidden.angles(&at)?;
    // The reading, and what settles between two of them.
    let mut z = [0, 1, 2].map(|i| came[i] + SIGMA[i].hypot([0.02, 0.04, 0.01][i]) * normal(&mut rng));
    match what {
        CasterOld => z[1] = read[1],
        Sign if below(&mut rng, 2) == 0 => z[0] = -z[0],
        Sign => z[2] = -z[2],
        Zero => z[0] += 0.4 * normal(&mut rng),
        Steering => z[2] += 0.3 * normal(&mut rng),
        Points => z = [0, 1, 2].map(|i| z[i] + [0.5, 0.8, 0.3][i] * normal(&mut rng)),
        _ => {}
    }
    let change = doubt_of_change(&g.points, &model, |p| bench_of(shape, p, &of(read)), &told, 0.0);
    let variance = [0, 1, 2].map(|i| SIGMA[i] * SIGMA[i] + change[i]);
    let before = Learner::new(&model, variance, &Learner::usual_gains(&model));
    let seen = AnglesRead { value: z.map(Some), sigma: SIGMA };
    let list = explain(&before, &told, 0.0, &seen, read.map(Some));
    let mut learner = before.clone();
    learner.turned(&told, 0.0);
    let came = learner.read(&seen)?;
    let missed = (0..3).any(|i| came.as_predicted(i) == Some(false));
    Some(Told { what, named, list, odd: !came.learned, missed })
}
