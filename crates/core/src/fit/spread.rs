//! How far each hardpoint may be from where it is said to be.

use super::Knowledge;
use crate::geometry::Points;

/// Share of an archetype's variance that the points of one part have in common: a generic arm is off as a
/// whole about as much as its ends are off against each other (judgement, no source).
const TOGETHER: f64 = 0.5;

/// One independent error: some points move along one axis together.
#[derive(Debug, Clone, PartialEq)]
pub struct Spread {
    /// Indices of the points, in the order of [`Points::named_mut`].
    pub points: Vec<usize>,
    /// 0 x, 1 y, 2 z.
    pub axis: usize,
    /// Standard deviation, mm.
    pub sigma_mm: f64,
}

impl Spread {
    /// Moves the points by `mm` along the axis.
    pub fn shift(&self, points: &mut Points, mm: f64) {
        let mut all = points.all_mut();
        for i in &self.points {
            if let Some(p) = all.get_mut(*i) {
                p[self.axis] += mm;
            }
        }
    }
}

/// Every independent error of these points at a level of knowledge. The variances of one coordinate add up
/// to [`Knowledge::sigma_mm`] squared.
#[must_use]
pub fn spreads(points: &Points, knowledge: Knowledge) -> Vec<Spread> {
    let sigma = knowledge.sigma_mm();
    let groups: Vec<u8> = points.names().into_iter().map(|(_, g)| g).collect();
    let mut out = Vec::with_capacity(groups.len() * 4);
    let mut own = sigma;
    if knowledge == Knowledge::Archetype {
        own = sigma * (1.0 - TOGETHER).sqrt();
        let mut names = groups.clone();
        names.dedup();
        for g in names {
            let points: Vec<usize> = (0..groups.len()).filter(|i| groups[*i] == g).collect();
            for axis in 0..3 {
                out.push(Spread { points: points.clone(), axis, sigma_mm: sigma * TOGETHER.sqrt() });
            }
        }
    }
    for i in 0..groups.len() {
        for axis in 0..3 {
            out.push(Spread { points: vec![i], axis, sigma_mm: own });
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::tests::sample;

    #[test]
    fn variances_of_a_coordinate_add_up() {
        let g = sample();
        for (k, sigma) in [(Knowledge::Archetype, 12.0), (Knowledge::Taped, 4.0), (Knowledge::Surveyed, 1.5)]
        {
            let all = spreads(&g.points, k);
            for point in 0..8 {
                let sum: f64 = all
                    .iter()
                    .filter(|s| s.axis == 2 && s.points.contains(&point))
                    .map(|s| s.sigma_mm * s.sigma_mm)
                    .sum();
                assert!((sum - sigma * sigma).abs() < 1e-9);
            }
        }
    }

    #[test]
    fn points_of_one_arm_move_together() {
        let g = sample();
        let mut p = g.points.clone();
        let first = &spreads(&g.points, Knowledge::Archetype)[0];
        first.shift(&mut p, 5.0);
        let (a, b) = (g.points.wishbone().unwrap(), p.wishbone().unwrap());
        assert!((b.lower_front[0] - a.lower_front[0] - 5.0).abs() < 1e-12);
        assert!((b.lower_outer[0] - a.lower_outer[0] - 5.0).abs() < 1e-12);
        assert_eq!(a.upper_outer, b.upper_outer);
    }
}
