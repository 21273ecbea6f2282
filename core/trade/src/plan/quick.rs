//! A set of parts judged in a handful of poses: exact kinematics, adjusters taken as continuous.

use super::bench::Bench;
use super::locates::locates_only;
use super::solver::grid;
use super::work::Work;
use crate::aim::Target;
use crate::part::Part;
use crate::plan::judge::outside;
use bold_stance_car::adjuster::AdjusterKind;
use bold_stance_kinematics::wheel::Alignment;

/// Weight of each angle in a miss: as in the setting solver, a tenth of camber or toe matters as two of caster.
pub(crate) const WEIGHT: [f64; 3] = [2.0, 1.0, 2.0];
/// Pull to the window's middle beside staying inside.
const CENTRE: f64 = 1e-3;

/// One side judged.
#[derive(Debug, Clone)]
pub(crate) struct QuickSide {
    /// Degrees outside each window: camber, caster, toe.
    pub out: [f64; 3],
}

/// Both sides judged.
#[derive(Debug, Clone)]
pub(crate) struct Quick {
    pub sides: [QuickSide; 2],
}

impl Quick {
    /// Weighed miss of both sides, degrees.
    pub(crate) fn short(&self) -> f64 {
        self.sides.iter().map(QuickSide::short).sum()
    }
}

/// Angles and what each adjuster does to them, about where it stands: amounts, and degrees per amount.
#[derive(Debug, Clone)]
pub(crate) struct Linear {
    pub here: [f64; 3],
    pub slopes: Vec<[f64; 3]>,
    /// Lowest and highest amount from here.
    pub room: Vec<[f64; 2]>,
    /// Which adjusters.
    pub which: Vec<usize>,
    /// What is clocked goes round and has no slope: each of its positions is looked at.
    pub clocked: Vec<Clocked>,
}

/// A sleeve that is clocked to one of a few positions.
#[derive(Debug, Clone)]
pub(crate) struct Clocked {
    /// Which adjuster.
    pub which: usize,
    /// Each position, and what it changes from where the sleeve stands, degrees.
    pub places: Vec<(f64, [f64; 3])>,
}

fn three(a: &Alignment) -> [f64; 3] {
    [a.camber_deg, a.caster_deg, a.toe_deg]
}

/// Linearises a bench; `None` when it does not close.
pub(crate) fn linear(bench: &Bench) -> Option<Linear> {
    let start = bench.start();
    let here = three(&bench.angles(&start).ok()?);
    let (mut slopes, mut room, mut which) = (Vec::new(), Vec::new(), Vec::new());
    let mut clocked = Vec::new();
    for (i, a) in bench.adjusters.iter().enumerate() {
        if a.is_fixed() || locates_only(a) {
            continue;
        }
        if matches!(a.kind, AdjusterKind::Sleeve { .. }) {
            let place = |p: f64| {
                let mut q = start.clone();
                q[i] = p;
                let there = three(&bench.angles(&q).ok()?);
                Some((p, std::array::from_fn(|k| there[k] - here[k])))
            };
            clocked.push(Clocked { which: i, places: grid(a).0.into_iter().filter_map(place).collect() });
            continue;
        }
        let [low, high] = a.range();
        let to = if high - start[i] > start[i] - low {
            start[i] + 0.3 * (high - start[i])
        } else {
            start[i] + 0.3 * (low - start[i])
        };
        let du = a.amount(to) - a.amount(start[i]);
        if du.abs() < 1e-9 {
            continue;
        }
        let mut p = start.clone();
        p[i] = to;
        let Ok(there) = bench.angles(&p) else { continue };
        let there = three(&there);
        slopes.push(std::array::from_fn(|k| (there[k] - here[k]) / du));
        let (a0, a1) = (a.amount(low) - a.amount(start[i]), a.amount(high) - a.amount(start[i]));
        room.push([a0.min(a1), a0.max(a1)]);
        which.push(i);
    }
    Some(Linear { here, slopes, room, which, clocked })
}

/// Amounts within their room that bring `here` nearest the windows: a convex problem, solved by steps along each
/// coordinate that never overshoot (the curvature used bounds the true one).
pub(crate) fn nearest(
    here: &[f64; 3],
    slopes: &[[f64; 3]],
    room: &[[f64; 2]],
    t: &Target,
) -> (Vec<f64>, [f64; 3]) {
    let windows = [t.camber, t.caster, t.toe];
    let half: [f64; 3] = std::array::from_fn(|k| (0.5 * (windows[k][1] - windows[k][0])).max(0.05));
    let middle: [f64; 3] = std::array::from_fn(|k| 0.5 * (windows[k][0] + windows[k][1]));
    let mut u = vec![0.0; slopes.len()];
    let mut r = *here;
    for _ in 0..60 {
        let mut moved = 0.0f64;
        for (i, s) in slopes.iter().enumerate() {
            let (mut g, mut h) = (0.0, 1e-12);
            for k in 0..3 {
                let w = WEIGHT[k] * WEIGHT[k];
                let over = (r[k] - windows[k][1]).max(0.0) - (windows[k][0] - r[k]).max(0.0);
                let pull = CENTRE / (half[k] * half[k]);
                g += w * (over + pull * (r[k] - middle[k])) * s[k];
                h += w * (1.0 + pull) * s[k] * s[k];
            }
            let next = (u[i] - g / h).clamp(room[i][0], room[i][1]);
            let d = next - u[i];
            u[i] = next;
            (0..3).for_each(|k| r[k] += s[k] * d);
            moved = moved.max((d * s[0]).abs()).max((d * s[1]).abs()).max((d * s[2]).abs());
        }
        if moved < 1e-4 {
            break;
        }
    }
    (u, r)
}

/// Degrees outside each window.
pub(crate) fn misses(r: &[f64; 3], t: &Target) -> [f64; 3] {
    [outside(r[0], t.camber), outside(r[1], t.caster), outside(r[2], t.toe)]
}

/// Weighed miss of angles, degrees.
fn miss(r: &[f64; 3], t: &Target) -> f64 {
    misses(r, t).iter().zip(WEIGHT).map(|(o, w)| o * w).sum()
}

/// The positions of what is clocked that serve best with everything else turned freely, one after the other until none
/// changes; and what they change together.
fn clock(l: &Linear, t: &Target) -> (Vec<(usize, f64)>, [f64; 3]) {
    let mut at: Vec<usize> = vec![0; l.clocked.len()];
    let sum = |at: &[usize]| -> [f64; 3] {
        let given = |k: usize| -> f64 {
            l.clocked.iter().zip(at).filter_map(|(c, n)| c.places.get(*n)).map(|(_, d)| d[k]).sum()
        };
        std::array::from_fn(given)
    };
    let judged = |at: &[usize]| {
        let by = sum(at);
        let here = std::array::from_fn(|k| l.here[k] + by[k]);
        miss(&nearest(&here, &l.slopes, &l.room, t).1, t)
    };
    let mut best = judged(&at);
    for _ in 0..3 {
        let before = at.clone();
        for (c, one) in l.clocked.iter().enumerate() {
            for n in 0..one.places.len() {
                let mut tried = at.clone();
                tried[c] = n;
                let m = judged(&tried);
                if m < best - 1e-9 {
                    (best, at) = (m, tried);
                }
            }
        }
        if at == before {
            break;
        }
    }
    let by = sum(&at);
    let places =
        l.clocked.iter().zip(&at).filter_map(|(c, n)| Some((c.which, c.places.get(*n)?.0))).collect();
    (places, by)
}

/// What a setting leaves: degrees outside each window, and the angles themselves.
#[derive(Debug, Clone)]
pub(crate) struct Settled {
    pub out: [f64; 3],
    pub at: [f64; 3],
    /// Of every adjuster.
    pub positions: Vec<f64>,
}

/// The setting nearest to the windows, adjusters taken as continuous: the slopes are kept, the angles are posed anew; none
/// where the bench does not close there.
pub(crate) fn settle(bench: &Bench, l: &Linear, t: &Target) -> Option<Settled> {
    let mut start = bench.start();
    let (mut here, mut room) = (l.here, l.room.clone());
    if !l.clocked.is_empty() {
        let (places, by) = clock(l, t);
        places.iter().for_each(|(i, p)| start[*i] = *p);
        here = std::array::from_fn(|k| here[k] + by[k]);
    }
    let mut at: Vec<f64> = vec![0.0; l.which.len()];
    let mut best: Option<Settled> = None;
    // Three corrections; the nearest of them counts.
    for _ in 0..3 {
        let (u, _) = nearest(&here, &l.slopes, &room, t);
        at.iter_mut().zip(&u).for_each(|(a, d)| *a += d);
        room.iter_mut().zip(&u).for_each(|(r, d)| {
            r[0] -= d;
            r[1] -= d;
        });
        let mut p = start.clone();
        for (i, amount) in l.which.iter().zip(&at) {
            let a = &bench.adjusters[*i];
            p[*i] = a.position_of(a.amount(start[*i]) + amount);
        }
        here = three(&bench.angles(&p).ok()?);
        let out = misses(&here, t);
        if best.as_ref().is_none_or(|b| miss(&here, t) < short(&b.out)) {
            best = Some(Settled { out, at: here, positions: p });
        }
        if miss(&here, t) == 0.0 {
            break;
        }
    }
    best
}

/// Weighed degrees.
fn short(out: &[f64; 3]) -> f64 {
    out.iter().zip(WEIGHT).map(|(o, w)| o * w).sum()
}

fn side(bench: &Bench, t: &Target) -> Option<QuickSide> {
    let l = linear(bench)?;
    settle(bench, &l, t).map(|s| QuickSide { out: s.out })
}

impl QuickSide {
    fn short(&self) -> f64 {
        short(&self.out)
    }
}

/// Judges a set of parts on both sides; `None` when it does not close.
pub(crate) fn quick(work: &Work<'_>, parts: &[&Part]) -> Option<Quick> {
    Some(Quick {
        sides: [
            side(&work.bench(0, parts), &work.targets[0])?,
            side(&work.bench(1, parts), &work.targets[1])?,
        ],
    })
}
