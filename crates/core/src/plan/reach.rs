//! Reach: every camber and caster two cams can give at a height, traced with exact kinematics.

use super::solver::Bench;
use crate::part::AdjusterKind;
use serde::{Deserialize, Serialize};

/// Points per edge of the outline.
const EDGE: usize = 16;

/// Outline, threads (one a notch) and whole-notch dots; every point is `[camber, caster]` in degrees.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Reach {
    /// Closed outline, last point joins the first.
    pub outline: Vec<[f64; 2]>,
    /// One polyline per inner notch of each cam.
    pub threads: Vec<Vec<[f64; 2]>>,
    /// Whole-notch settings.
    pub dots: Vec<[f64; 2]>,
}

/// Traces the first two cams of the bench, the others where `positions` has them. `woven` adds
/// threads and dots. `None` without two cams; settings that do not close are left out.
#[must_use]
pub fn reach(bench: &Bench, positions: &[f64], woven: bool) -> Option<Reach> {
    let cams: Vec<usize> = bench
        .adjusters
        .iter()
        .enumerate()
        .filter(|(_, a)| matches!(a.kind, AdjusterKind::Eccentric { .. }))
        .map(|(i, _)| i)
        .take(2)
        .collect();
    let &[a, b] = cams.as_slice() else { return None };
    let at = |pa: f64, pb: f64| {
        let mut p = positions.to_vec();
        p[a] = pa;
        p[b] = pb;
        bench.angles(&p).ok().map(|x| [x.camber_deg, x.caster_deg])
    };
    let ([al, ah], [bl, bh]) = (bench.adjusters[a].range(), bench.adjusters[b].range());
    let t = |i: usize, l: f64, h: f64| l + (h - l) * i as f64 / EDGE as f64;
    let mut outline = Vec::with_capacity(4 * EDGE);
    outline.extend((0..EDGE).filter_map(|i| at(ah, t(i, bh, bl))));
    outline.extend((0..EDGE).filter_map(|i| at(t(i, ah, al), bl)));
    outline.extend((0..EDGE).filter_map(|i| at(al, t(i, bl, bh))));
    outline.extend((0..EDGE).filter_map(|i| at(t(i, al, ah), bh)));
    let (mut threads, mut dots) = (Vec::new(), Vec::new());
    if woven {
        let notches = |i: usize| -> Vec<f64> {
            let [l, h] = bench.adjusters[i].range();
            let s = bench.adjusters[i].step().unwrap_or((h - l) / 8.0);
            let (first, last) = ((l / s - 1e-9).ceil() as i64, (h / s + 1e-9).floor() as i64);
            (first..=last).map(|k| k as f64 * s).collect()
        };
        let (na, nb) = (notches(a), notches(b));
        for pa in na.iter().filter(|p| **p > al + 1e-6 && **p < ah - 1e-6) {
            threads.push((0..=EDGE).filter_map(|i| at(*pa, t(i, bl, bh))).collect());
        }
        for pb in nb.iter().filter(|p| **p > bl + 1e-6 && **p < bh - 1e-6) {
            threads.push((0..=EDGE).filter_map(|i| at(t(i, al, ah), *pb)).collect());
        }
        for pa in &na {
            dots.extend(nb.iter().filter_map(|pb| at(*pa, *pb)));
        }
    }
    Some(Reach { outline, threads, dots })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::tests::sample;
    use crate::linkage::Corner;
    use crate::part::default_adjusters;
    use crate::vehicle::Attitude;

    fn inside(p: [f64; 2], ring: &[[f64; 2]]) -> bool {
        let mut hit = false;
        for (i, a) in ring.iter().enumerate() {
            let b = ring[(i + 1) % ring.len()];
            if (a[1] > p[1]) != (b[1] > p[1]) && p[0] < (b[0] - a[0]) * (p[1] - a[1]) / (b[1] - a[1]) + a[0] {
                hit = !hit;
            }
        }
        hit
    }

    #[test]
    fn every_inner_setting_lies_inside_the_outline() {
        let g = sample();
        let bench = Bench {
            corner: Corner::new(&g.points, &g.wheel),
            adjusters: default_adjusters(6.0),
            travel_mm: -40.0,
            attitude: Attitude::default(),
        };
        let r = reach(&bench, &bench.start(), true).unwrap();
        assert_eq!(r.outline.len(), 64);
        assert_eq!(r.dots.len(), 81);
        assert_eq!(r.threads.len(), 14);
        for f in [-80.0, -40.0, 3.0, 61.0] {
            for q in [-75.0, -11.0, 44.0] {
                let a = bench.angles(&[f, q, 0.0]).unwrap();
                assert!(inside([a.camber_deg, a.caster_deg], &r.outline), "{f} {q}");
            }
        }
        assert!(!inside([5.0, 5.0], &r.outline));
    }
}
