//! What explains a reading that came off the prediction: hypotheses, each with its odds before the reading, its free
//! parameter summed over, and how likely it makes what was read. Odds before the reading are judgement, no source.

use super::learner::{AnglesRead, Learner, OTHER_GAIN, POINTS_DEG};
use bold_stance_car::adjuster::{Adjuster, AdjusterKind};
use bold_stance_units::said::{Said, said};
use nalgebra::{DMatrix, DVector};
use serde::{Deserialize, Serialize};

/// An explanation with its odds.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Explained {
    /// What it would be.
    pub what: Said,
    /// Its share of all that could be, 0 to 1.
    pub odds: f64,
    /// What it would have given, at its likeliest: camber, caster, toe, degrees.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub given: [f64; 3],
    /// Whether it is not told apart from the likeliest one, which is such a one too then.
    #[serde(default)]
    pub alike: bool,
}

/// What speaks for one explanation less than so many times as strongly as for another one does not tell them apart
/// (evidence on Jeffreys' scale from ten on is strong, from memory).
const TELLS: f64 = 10.0;

/// Marks what is not told apart from the likeliest: neither by the readings alone nor with how often each happens. `all` each
/// with its odds before a reading, likeliest first.
pub(super) fn mark_alike(all: &mut [(f64, Explained)]) {
    let speaks = |(prior, e): &(f64, Explained)| e.odds / prior.max(1e-12);
    let Some((first, odds)) = all.first().map(|e| (speaks(e), e.1.odds)) else { return };
    let near = |of: f64| (1.0 / TELLS..=TELLS).contains(&of);
    let alike: Vec<bool> = all
        .iter()
        .map(|e| near(speaks(e) / first.max(1e-300)) || near(e.1.odds / odds.max(1e-300)))
        .collect();
    let several = alike.iter().filter(|a| **a).count() > 1;
    for ((_, e), alike) in all.iter_mut().zip(alike) {
        e.alike = several && alike;
    }
}

/// An explanation with its share of all before anything was read.
#[derive(Debug, Clone)]
pub(super) struct Weighed {
    /// With its odds by this wheel's reading.
    pub told: Explained,
    /// Its odds before the reading, 0 to 1.
    pub prior: f64,
}

/// A height that is not what was told, mm: standard deviation.
const UNSETTLED_MM: f64 = 8.0;
/// How far a wheel hangs on a jack, mm.
const JACKED_MM: [f64; 4] = [30.0, 50.0, 70.0, 90.0];
/// How far off the model may be at the height a wheel hangs at: nobody measured it moving there, degrees of camber, caster, toe
/// (judgement, held by the simulated cars of `examples/confusion`).
const JACKED_DEG: [f64; 3] = [0.2, 0.2, 0.25];
/// Another floor or another zero of the gauge, degrees of camber.
const ZERO_DEG: f64 = 0.4;
/// Toe read with the steering off centre, degrees.
const STEERING_DEG: f64 = 0.3;
/// What a hypothesis would have given: means of camber, caster and toe, each with its weight, and what it widens.
struct Would {
    what: Said,
    prior: f64,
    given: Vec<(f64, [f64; 3])>,
    wider: [f64; 3],
    /// A direction in which it widens all three together, degrees.
    along: [f64; 3],
}

/// Unit in which an adjuster is miscounted.
fn one_step(a: &Adjuster) -> f64 {
    a.step().unwrap_or(match a.kind {
        AdjusterKind::Thread { .. } => 1.0,
        AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. } => 10.0,
        _ => 1.0,
    })
}

/// What explains what was read after `before` was turned to `positions` at a travel, likeliest first. `last` is what
/// was read before the work.
#[must_use]
pub fn explain(
    before: &Learner<'_>,
    positions: &[f64],
    travel_mm: f64,
    read: &AnglesRead,
    last: [Option<f64>; 3],
) -> Vec<Explained> {
    let weighed = weigh(before, positions, travel_mm, read, last);
    let mut all: Vec<(f64, Explained)> = weighed.into_iter().map(|w| (w.prior, w.told)).collect();
    mark_alike(&mut all);
    all.into_iter().map(|(_, e)| e).collect()
}

/// The same with the odds before the reading.
pub(super) fn weigh(
    before: &Learner<'_>,
    positions: &[f64],
    travel_mm: f64,
    read: &AnglesRead,
    last: [Option<f64>; 3],
) -> Vec<Weighed> {
    let which: Vec<usize> = (0..3).filter(|i| read.value[*i].is_some()).collect();
    let z = DVector::from_iterator(which.len(), read.value.iter().flatten().copied());
    let mut told = before.clone();
    told.turned(positions, travel_mm);
    let Some(expected) = told.expected() else { return Vec::new() };
    let Some(spread) = told.spread() else { return Vec::new() };
    let at = |p: &[f64], travel: f64| {
        let mut other = before.clone();
        other.turned(p, travel);
        other.expected().map(|e| e.value)
    };
    let moved: Vec<usize> =
        (0..positions.len()).filter(|k| (positions[*k] - before.at[*k]).abs() > 1e-9).collect();
    let name = |id: &'static str, k: usize| said(id).name("name", before.bench.adjusters[k].name.clone());
    let mut all = Vec::new();
    let mut add = |what: Said, prior: f64, given: Vec<[f64; 3]>, wider: [f64; 3], along: [f64; 3]| {
        let w = 1.0 / given.len().max(1) as f64;
        all.push(Would { what, prior, given: given.into_iter().map(|g| (w, g)).collect(), wider, along });
    };
    let none = [0.0; 3];
    add(said("explain-nothing"), 60.0, vec![expected.value], none, none);
    for &k in &moved {
        let by = positions[k] - before.at[k];
        let with = |p: f64| {
            let mut q = positions.to_vec();
            q[k] = p;
            at(&q, travel_mm)
        };
        add(name("explain-reversed", k), 2.0, with(before.at[k] - by).into_iter().collect(), none, none);
        let step = one_step(&before.bench.adjusters[k]);
        let one = [with(positions[k] - step), with(positions[k] + step)];
        add(name("explain-miscounted", k), 2.0, one.into_iter().flatten().collect(), none, none);
        let slipped = (0..5).filter_map(|n| with(before.at[k] + by * f64::from(n) / 5.0)).collect();
        add(name("explain-slipped", k), 1.5, slipped, none, none);
        let gain = told.gain_slope(k).map(|s| s * OTHER_GAIN);
        add(name("explain-gain", k), 3.0, vec![expected.value], none, gain);
    }
    let cams: Vec<usize> = moved
        .iter()
        .copied()
        .filter(|k| matches!(before.bench.adjusters[*k].kind, AdjusterKind::Eccentric { .. }))
        .collect();
    if let [a, b] = cams[..]
        && (positions[a] - before.at[a] - positions[b] + before.at[b]).abs() > 1e-9
    {
        let mut q = positions.to_vec();
        q[a] = before.at[a] + positions[b] - before.at[b];
        q[b] = before.at[b] + positions[a] - before.at[a];
        let what = name("explain-mixed", a).name("other", before.bench.adjusters[b].name.clone());
        add(what, 2.0, at(&q, travel_mm).into_iter().collect(), none, none);
    }
    let slope =
        at(positions, travel_mm + 1.0).map_or(none, |up| [0, 1, 2].map(|i| up[i] - expected.value[i]));
    add(said("explain-height"), 4.0, vec![expected.value], none, slope.map(|s| s * UNSETTLED_MM));
    let hung = JACKED_MM.iter().filter_map(|mm| at(positions, travel_mm - mm)).collect();
    add(said("explain-jacked"), 1.0, hung, JACKED_DEG, none);
    if let (Some(old), Some(_)) = (last[1], read.value[1]) {
        let [camber, _, toe] = expected.value;
        // As near to the old figure as it was written down.
        add(said("explain-caster-old"), 2.0, vec![[camber, old, toe]], none, none);
    }
    let [camber, caster, toe] = expected.value;
    add(said("explain-sign"), 1.0, vec![[-camber, caster, toe], [camber, caster, -toe]], none, none);
    add(said("explain-zero"), 3.0, vec![expected.value], [ZERO_DEG, 0.0, 0.0], none);
    if before.bench.corner_steers() {
        add(said("explain-steering"), 3.0, vec![expected.value], [0.0, 0.0, STEERING_DEG], none);
    }
    add(said("explain-points"), 3.0, vec![expected.value], POINTS_DEG, none);

    let weighed = |w: &Would| -> Option<(f64, [f64; 3])> {
        let mut own = DMatrix::<f64>::zeros(3, 3);
        for i in 0..3 {
            own[(i, i)] += w.wider[i].powi(2);
            for j in 0..3 {
                own[(i, j)] += w.along[i] * w.along[j];
            }
        }
        let mut cov = &spread + &own;
        for i in 0..3 {
            cov[(i, i)] += read.sigma[i].powi(2).max(1e-12);
        }
        let cov = cov.select_rows(&which).select_columns(&which);
        let chol = cov.cholesky()?;
        let half_det: f64 = chol.l().diagonal().iter().map(|v| v.ln()).sum();
        let pull = own.select_columns(&which);
        let each = w.given.iter().map(|(weight, mean)| {
            let off = &z - DVector::from_iterator(which.len(), which.iter().map(|i| mean[*i]));
            let solved = chol.solve(&off);
            let moved = &pull * &solved;
            let log = weight.ln() - 0.5 * off.dot(&solved) - half_det;
            (log, [0, 1, 2].map(|i| mean[i] + moved[i]))
        });
        let each: Vec<(f64, [f64; 3])> = each.collect();
        let likeliest = each.iter().max_by(|a, b| a.0.total_cmp(&b.0))?.1;
        log_sum(each.iter().map(|e| e.0)).map(|l| (l + w.prior.ln(), likeliest))
    };
    let logs: Vec<(f64, [f64; 3], &Would)> =
        all.iter().filter_map(|w| weighed(w).map(|(l, given)| (l, given, w))).collect();
    let Some(total) = log_sum(logs.iter().map(|l| l.0)) else { return Vec::new() };
    let before: f64 = logs.iter().map(|l| l.2.prior).sum();
    let of = |(l, given, w): (f64, [f64; 3], &Would)| {
        let told = Explained { what: w.what.clone(), odds: (l - total).exp(), given, alike: false };
        Weighed { told, prior: w.prior / before }
    };
    let mut out: Vec<Weighed> = logs.into_iter().map(of).collect();
    out.sort_by(|a, b| b.told.odds.total_cmp(&a.told.odds));
    out
}

/// ln of the sum of exponentials; none of nothing.
fn log_sum(each: impl Iterator<Item = f64>) -> Option<f64> {
    let all: Vec<f64> = each.collect();
    let most = all.iter().copied().fold(f64::NEG_INFINITY, f64::max);
    most.is_finite().then(|| most + all.iter().map(|v| (v - most).exp()).sum::<f64>().ln())
}

impl Learner<'_> {
    /// Covariance of what is expected of camber, caster and toe, degrees squared.
    fn spread(&self) -> Option<DMatrix<f64>> {
        let (_, h) = self.slopes(&self.belief.mean, &self.at)?;
        Some(&h * &self.belief.cov * h.transpose())
    }

    /// What ln gain of one adjuster does to camber, caster and toe where it stands, degrees.
    fn gain_slope(&self, k: usize) -> [f64; 3] {
        self.slopes(&self.belief.mean, &self.at).map_or([0.0; 3], |(_, h)| [0, 1, 2].map(|i| h[(i, 3 + k)]))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn told(id: &'static str, prior: f64, odds: f64) -> (f64, Explained) {
        (prior, Explained { what: said(id), odds, given: [0.0; 3], alike: false })
    }

    #[test]
    fn what_is_not_told_apart_is_named_by_the_readings_or_by_the_odds() {
        // Speaks as much for the second as for the first, which happens thirty times as often; sixty times less for the third,
        // whose odds are near all the same; the fourth is ruled out by both.
        let mut all = [
            told("explain-nothing", 0.6, 0.6),
            told("explain-points", 0.01, 0.3),
            told("explain-gain", 0.02, 0.02),
            told("explain-zero", 0.3, 0.001),
        ];
        mark_alike(&mut all);
        assert_eq!(all.each_ref().map(|e| e.1.alike), [true, true, true, false]);
        // One alone is told apart from the rest.
        let mut all = [told("explain-reversed", 0.02, 0.97), told("explain-nothing", 0.6, 0.01)];
        mark_alike(&mut all);
        assert!(all.iter().all(|e| !e.1.alike));
    }
}
