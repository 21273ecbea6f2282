//! Camber, caster and toe over the adjusters to second order, through exact poses.
//!
//! A cam's sine is taken out first (the pivot's displacement is what the angles follow), so the second order is
//! good to a few thousandths of a degree over the whole range of usual adjusters; it only picks what is then posed
//! exactly.

use super::bench::Bench;
use super::foul::Foul;
use super::score::Score;
use crate::aim::Target;
use crate::plan::judge::{combinations, knob, off_centre, outside};

/// Combinations ranked in the time of one pose, about.
const RANKED_A_POSE: usize = 16;

type Triple = [f64; 3];

/// How far one watched figure is past its limit.
struct Past {
    base: f64,
    slope: Vec<f64>,
    bend: Vec<f64>,
}

/// Slope and bend of a parabola through the middle and two places; a line where one of them is the middle.
fn parabola(ua: f64, ya: f64, ub: f64, yb: f64) -> (f64, f64) {
    let (sa, sb) = (ya / ua, yb / ub);
    if ua.abs() < 1e-12 {
        (sb, 0.0)
    } else if ub.abs() < 1e-12 {
        (sa, 0.0)
    } else {
        let curve = (sb - sa) / (ub - ua);
        (sa - curve * ua, curve)
    }
}

/// Second-order model over the free adjusters.
pub(crate) struct Surrogate {
    free: Vec<usize>,
    at: Vec<f64>,
    base: Triple,
    slope: Vec<Triple>,
    bend: Vec<Vec<Triple>>,
    /// Past each watched limit: where everything stands at its middle, and by adjuster to second order.
    past: Vec<Past>,
    /// Whether toe counts: it is solved with the rest.
    with_toe: bool,
}

impl Surrogate {
    /// Fits it about `start`; `None` when the corner does not close there. Adjusters that cannot be posed away
    /// from their place count as fixed.
    pub(crate) fn of(bench: &Bench, start: &[f64], free: &[usize], with_toe: bool) -> Option<Self> {
        let angles = |p: &[f64]| bench.angles(p).ok().map(|a| [a.camber_deg, a.caster_deg, a.toe_deg]);
        let middle = |i: usize| {
            let [low, high] = bench.adjusters[i].range();
            f64::midpoint(low, high)
        };
        let mut centre = start.to_vec();
        free.iter().for_each(|i| centre[*i] = middle(*i));
        let base = angles(&centre).or_else(|| {
            centre = start.to_vec();
            angles(&centre)
        })?;
        let amount = |i: usize, p: f64| bench.adjusters[i].amount(p);
        let at: Vec<f64> = free.iter().map(|i| amount(*i, centre[*i])).collect();
        // Two thirds of the way to either end, less where that does not close.
        let step = |i: usize| {
            let [low, high] = bench.adjusters[i].range();
            let mut part = 2.0 / 3.0;
            while part > 0.05 {
                let (a, b) = (centre[i] + part * (low - centre[i]), centre[i] + part * (high - centre[i]));
                let with = |v: f64| {
                    let mut p = centre.clone();
                    p[i] = v;
                    angles(&p)
                };
                if let (Some(fa), Some(fb)) = (with(a), with(b)) {
                    return Some((a, fa, b, fb));
                }
                part *= 0.5;
            }
            None
        };
        let n = free.len();
        let mut slope = vec![[0.0; 3]; n];
        let mut bend = vec![vec![[0.0; 3]; n]; n];
        let mut far = vec![None; n];
        let watched = bench.guard.as_ref().map(|g| g.past(bench, &centre)).unwrap_or_default();
        let mut past: Vec<Past> =
            watched.into_iter().map(|base| Past { base, slope: vec![0.0; n], bend: vec![0.0; n] }).collect();
        for (k, i) in free.iter().enumerate() {
            let Some((a, fa, b, fb)) = step(*i) else { continue };
            let (ua, ub) = (amount(*i, a) - at[k], amount(*i, b) - at[k]);
            if (ub - ua).abs() < 1e-12 {
                continue;
            }
            let (mut line, mut curve) = ([0.0; 3], [0.0; 3]);
            for (c, (line, curve)) in line.iter_mut().zip(&mut curve).enumerate() {
                (*line, *curve) = parabola(ua, fa[c] - base[c], ub, fb[c] - base[c]);
            }
            if let Some(g) = &bench.guard {
                let with = |v: f64| {
                    let mut p = centre.clone();
                    p[*i] = v;
                    g.past(bench, &p)
                };
                for ((p, ya), yb) in past.iter_mut().zip(with(a)).zip(with(b)) {
                    (p.slope[k], p.bend[k]) = parabola(ua, ya - p.base, ub, yb - p.base);
                }
            }
            slope[k] = line;
            bend[k][k] = curve;
            far[k] = Some((b, ub));
        }
        let mut out = Self { free: free.to_vec(), at, base, slope, bend, past, with_toe };
        for k in 0..n {
            for l in 0..k {
                let (Some((bk, uk)), Some((bl, ul))) = (far[k], far[l]) else { continue };
                if (uk * ul).abs() < 1e-12 {
                    continue;
                }
                let mut p = centre.clone();
                (p[free[k]], p[free[l]]) = (bk, bl);
                let Some(both) = angles(&p) else { continue };
                let mut u = vec![0.0; n];
                (u[k], u[l]) = (uk, ul);
                let plain = out.value(&u);
                for c in 0..3 {
                    out.bend[k][l][c] = (both[c] - plain[c]) / (uk * ul);
                }
            }
        }
        Some(out)
    }

    /// Camber, caster, toe at amounts from the middle.
    fn value(&self, u: &[f64]) -> Triple {
        let mut out = self.base;
        for (k, a) in u.iter().enumerate() {
            for (c, out) in out.iter_mut().enumerate() {
                let mut rate = self.slope[k][c] + self.bend[k][k][c] * a;
                for (l, b) in u.iter().enumerate().take(k) {
                    rate += self.bend[k][l][c] * b;
                }
                *out += rate * a;
            }
        }
        out
    }

    fn score(&self, bench: &Bench, t: &Target, u: &[f64], pick: &[f64]) -> Score {
        let [camber, caster, toe] = self.value(u);
        let mut over = 2.0 * outside(camber, t.camber) + outside(caster, t.caster);
        let mut centre = off_centre(camber, t.camber) + off_centre(caster, t.caster);
        if self.with_toe {
            over += 2.0 * outside(toe, t.toe);
            centre += off_centre(toe, t.toe);
        }
        let picked = || self.free.iter().zip(pick).map(|(i, p)| (&bench.adjusters[*i], *p));
        let movement = picked()
            .map(|(a, p)| {
                let [low, high] = a.built_range();
                (p - a.position).abs() / (high - low).max(1e-9)
            })
            .sum::<f64>();
        let knobs = self.free.iter().zip(pick).map(|(i, p)| knob(bench, *i, *p)).sum();
        // A hundredth of a degree is beyond what this model can rank.
        let foul = bench.guard.as_ref().map_or_else(Foul::default, |g| {
            g.sum(&mut self.past.iter().map(|p| {
                let each = u.iter().zip(p.slope.iter().zip(&p.bend));
                each.fold(p.base, |sum, (u, (slope, bend))| sum + (slope + bend * u) * u)
            }))
        });
        Score { foul, over: (over / 0.01).round() * 0.01, knobs, centre, movement }
    }

    fn amounts(&self, bench: &Bench, pick: &[f64], out: &mut Vec<f64>) {
        out.clear();
        out.extend(
            self.free.iter().zip(pick).zip(&self.at).map(|((i, p), at)| bench.adjusters[*i].amount(*p) - at),
        );
    }

    /// The best value of each list in turn until nothing moves, from the middle and from where each stands.
    pub(crate) fn descend(&self, bench: &Bench, t: &Target, lists: &[Vec<f64>]) -> Vec<f64> {
        let nearest = |list: &[f64], v: f64| {
            list.iter().copied().min_by(|a, b| (a - v).abs().total_cmp(&(b - v).abs())).unwrap_or(v)
        };
        let stands: Vec<f64> =
            self.free.iter().zip(lists).map(|(i, l)| nearest(l, bench.adjusters[*i].position)).collect();
        let middle: Vec<f64> = lists.iter().map(|l| l[l.len() / 2]).collect();
        let mut u = Vec::new();
        let mut best: Option<(Score, Vec<f64>)> = None;
        for mut p in [stands, middle] {
            let mut now = {
                self.amounts(bench, &p, &mut u);
                self.score(bench, t, &u, &p)
            };
            for _ in 0..20 {
                let before = now;
                for (k, list) in lists.iter().enumerate() {
                    let mut keep = p[k];
                    for v in list {
                        p[k] = *v;
                        self.amounts(bench, &p, &mut u);
                        let s = self.score(bench, t, &u, &p);
                        if s < now {
                            (now, keep) = (s, *v);
                        }
                    }
                    p[k] = keep;
                }
                if now == before {
                    break;
                }
            }
            if best.as_ref().is_none_or(|(b, _)| now < *b) {
                best = Some((now, p));
            }
        }
        best.map(|b| b.1).unwrap_or_default()
    }

    /// The `keep` best combinations of the lists.
    pub(crate) fn best_of(&self, bench: &Bench, t: &Target, lists: &[&[f64]], keep: usize) -> Vec<Vec<f64>> {
        let mut found: Vec<(Score, Vec<f64>)> = Vec::new();
        let mut u = Vec::new();
        let count = lists.iter().fold(1usize, |n, l| n.saturating_mul(l.len()));
        if !bench.budget.spend((count / RANKED_A_POSE) as i64) {
            return Vec::new();
        }
        combinations(lists, |pick| {
            self.amounts(bench, pick, &mut u);
            let s = self.score(bench, t, &u, pick);
            if found.len() < keep || found.last().is_some_and(|(worst, _)| s < *worst) {
                let at = found.partition_point(|(x, _)| *x <= s);
                found.insert(at, (s, pick.to_vec()));
                found.truncate(keep);
            }
        });
        found.into_iter().map(|(_, p)| p).collect()
    }
}
