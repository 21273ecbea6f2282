//! A live axle as one thing: both wheels hang on the same arms, so what one wheel's reading taught of them belongs to the
//! other; what only squares, centres or steers it is no angle of a wheel.

use super::learner::Learner;
use super::work_loop::WorkLoop;
use crate::plan::{Bench, Square, locates_only};
use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::geometry::Side;
use nalgebra::{DMatrix, DVector};

/// The bench without what only squares, centres or steers the axle.
pub(super) fn of_angles(mut bench: Bench) -> Bench {
    let toe = bench.toe_by.map(|i| bench.adjusters[i].name.clone());
    bench.adjusters.retain(|a| !locates_only(a));
    bench.toe_by = toe.and_then(|name| bench.adjusters.iter().position(|a| a.name == name));
    bench
}

/// Where an adjuster of the whole axle stands: a pair of arms that squares it besides stands where both arms' mean is once
/// squaring is taken out.
pub(super) fn stands_of_both(l: &WorkLoop, r: &WorkLoop, square: Option<&Square>, name: &str) -> Option<f64> {
    let of = |side: Side, w: &WorkLoop| w.stands.get(name).map(|p| p - squares(square, name, side));
    match (of(Side::Left, l), of(Side::Right, r)) {
        (Some(a), Some(b)) => Some(f64::midpoint(a, b)),
        (a, b) => a.or(b),
    }
}

/// What squaring alone turns one side's thread of the pair by.
pub(super) fn squares(square: Option<&Square>, name: &str, side: Side) -> f64 {
    let of = square.filter(|s| s.pair.as_deref() == Some(name)).and_then(|s| s.arms[side].as_ref());
    of.map_or(0.0, |l| l.movement)
}

/// Loops of both wheels as the axle has them: the pair without squaring; toe of a steered one half of the total, as
/// whoever reads it does not hold the wheel to a hundredth.
pub(super) fn as_one(
    loops: &Sides<Vec<WorkLoop>>,
    square: Option<&Square>,
    steered: bool,
) -> Sides<Vec<WorkLoop>> {
    let mut out = loops.clone();
    let pair = square.and_then(|s| s.pair.clone());
    for side in Side::BOTH {
        for w in &mut out[side] {
            // What stands at the other wheel after as many rounds; before its first reading as it was turned here.
            let across = loops[side.other()].iter().rev().find(|o| o.rounds <= w.rounds);
            let there = across.cloned().unwrap_or_else(|| w.clone());
            if let Some(name) = &pair {
                let (l, r) = if side == Side::Left { (&*w, &there) } else { (&there, &*w) };
                if let Some(p) = stands_of_both(l, r, square, name) {
                    w.stands.insert(name.clone(), p);
                }
            }
            let other = across.filter(|o| o.rounds == w.rounds);
            if let Some((own, its)) =
                w.read.value[2].zip(other.and_then(|o| o.read.value[2])).filter(|_| steered)
            {
                let sigma = other.map_or(0.0, |o| o.read.sigma[2]);
                w.read.value[2] = Some(f64::midpoint(own, its));
                w.read.sigma[2] = 0.5 * w.read.sigma[2].hypot(sigma);
            }
        }
    }
    out
}

/// What one wheel's reading taught of the arms both hang on, told to the other wheel: as a reading of each gain, of which
/// the message is what is believed now over what was believed before (product of Gaussians).
pub(super) fn tell(before: &Learner<'_>, after: &Learner<'_>, to: &mut Learner<'_>) {
    for (k, a) in after.bench.adjusters.iter().enumerate() {
        if !a.is_shared_on_axle() {
            continue;
        }
        let Some(j) = to.bench.adjusters.iter().position(|b| b.name == a.name) else { continue };
        let of = |l: &Learner<'_>| (l.belief.mean[3 + k], l.belief.cov[(3 + k, 3 + k)].max(1e-12));
        let ((was, var_was), (mean, var)) = (of(before), of(after));
        let precision = 1.0 / var - 1.0 / var_was;
        if precision < 1e-6 {
            continue;
        }
        let z = DVector::from_element(1, (mean / var - was / var_was) / precision);
        let row = |x: &DVector<f64>| {
            let mut h = DMatrix::zeros(1, x.len());
            h[(0, 3 + j)] = 1.0;
            Some((DVector::from_element(1, x[3 + j]), h))
        };
        if let Some(b) = to.belief.updated(&z, &[1.0 / precision], row) {
            to.belief = b;
        }
    }
}
