//! How far each hardpoint may be from where it is said to be.

use super::Knowledge;
use bold_stance_kinematics::geometry::Points;

/// Share of an archetype's variance that the points of one part have in common: a generic arm is off as a
/// whole about as much as its ends are off against each other (judgement, no source).
const TOGETHER: f64 = 0.5;

/// Axis inclination of an arm in which builds of a kind differ most, degrees: upper arm, lower arm. It decides how
/// caster goes with height (anti-dive, anti-squat).
const TILT_DEG: [f64; 2] = [4.0, 2.5];
/// Height of the tie rod as a whole, in which builds of a kind differ, mm.
const TIE_HEIGHT_MM: f64 = 20.0;

/// A length along one axis: 0 x, 1 y, 2 z.
fn along(axis: usize, share: f64) -> [f64; 3] {
    std::array::from_fn(|k| if k == axis { share } else { 0.0 })
}

/// What an error is about.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum SpreadOf {
    /// A coordinate of a point, or of the points of one part together.
    Coordinate,
    /// Inclination of an arm's axis.
    Tilt,
    /// Height of the tie rod.
    TieHeight,
    /// What readings at several heights left of all of them.
    Left,
}

/// One independent error: some points move together, each along its own direction.
#[derive(Debug, Clone, PartialEq)]
pub struct Spread {
    /// Indices of the points, in the order of [`Points::named_mut`], and how far each moves along x, y and z, mm, when
    /// the error is 1 mm.
    pub points: Vec<(usize, [f64; 3])>,
    /// Standard deviation, mm.
    pub sigma_mm: f64,
    /// What it is about.
    pub of: SpreadOf,
}

impl Spread {
    /// The same error seen from the other side of a whole axle: `mirrors` holds each point's image (itself where it has
    /// none), and y changes its sign.
    pub fn mirrored(&self, mirrors: &[Option<usize>]) -> Self {
        if mirrors.iter().all(Option::is_none) {
            return self.clone();
        }
        let image = |i: usize| mirrors.get(i).copied().flatten().unwrap_or(i);
        let points = self.points.iter().map(|(i, [x, y, z])| (image(*i), [*x, -y, *z])).collect();
        Self { points, ..self.clone() }
    }

    /// Moves the points by an error of `mm`.
    pub fn shift(&self, points: &mut Points, mm: f64) {
        let mut all = points.all_mut();
        for (i, way) in &self.points {
            if let Some(p) = all.get_mut(*i) {
                for (c, w) in p.iter_mut().zip(way) {
                    *c += mm * w;
                }
            }
        }
    }
}

/// Every independent error of these points at a level of knowledge. The variances of one coordinate add up
/// to [`Knowledge::sigma_mm`] squared; a generic shape has a common tilt of each arm's axis and a common height of
/// the tie rod besides.
#[must_use]
pub fn spreads(points: &Points, knowledge: Knowledge) -> Vec<Spread> {
    let sigma = knowledge.sigma_mm();
    let groups: Vec<u8> = points.names().into_iter().map(|(_, g)| g).collect();
    let mut out = Vec::with_capacity(groups.len() * 4);
    let mut own = sigma;
    let of = SpreadOf::Coordinate;
    if knowledge == Knowledge::Archetype {
        own = sigma * (1.0 - TOGETHER).sqrt();
        let mut names = groups.clone();
        names.dedup();
        for g in names {
            for axis in 0..3 {
                let points =
                    (0..groups.len()).filter(|i| groups[*i] == g).map(|i| (i, along(axis, 1.0))).collect();
                out.push(Spread { points, sigma_mm: sigma * TOGETHER.sqrt(), of });
            }
        }
        out.extend(builds_differ(points));
    }
    for i in 0..groups.len() {
        for axis in 0..3 {
            out.push(Spread { points: vec![(i, along(axis, 1.0))], sigma_mm: own, of });
        }
    }
    out
}

/// What builds of one kind differ in as wholes.
fn builds_differ(points: &Points) -> Vec<Spread> {
    let names: Vec<String> = points.names().into_iter().map(|(n, _)| n).collect();
    let at = |name: &str| names.iter().position(|n| n.ends_with(&format!(".{name}")));
    let mut copy = points.clone();
    let x: Vec<f64> = copy.all_mut().into_iter().map(|p| p[0]).collect();
    let mut out = Vec::new();
    for (arm, deg) in [("upper", TILT_DEG[0]), ("lower", TILT_DEG[1])] {
        let (Some(f), Some(r)) = (at(&format!("{arm}_front")), at(&format!("{arm}_rear"))) else { continue };
        let half = 0.5 * (x[f] - x[r]).abs();
        out.push(Spread {
            points: vec![(f, along(2, 1.0)), (r, along(2, -1.0))],
            sigma_mm: half * deg.to_radians().tan(),
            of: SpreadOf::Tilt,
        });
    }
    if let (Some(i), Some(o)) = (at("tie_inner"), at("tie_outer")) {
        let points = vec![(i, along(2, 1.0)), (o, along(2, 1.0))];
        out.push(Spread { points, sigma_mm: TIE_HEIGHT_MM, of: SpreadOf::TieHeight });
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sample::sample;

    #[test]
    fn variances_of_a_coordinate_add_up() {
        let g = sample();
        for (k, sigma) in [(Knowledge::Archetype, 12.0), (Knowledge::Taped, 4.0), (Knowledge::Surveyed, 1.5)]
        {
            let all = spreads(&g.points, k);
            for point in 0..8 {
                let sum: f64 = all
                    .iter()
                    .filter(|s| s.of == SpreadOf::Coordinate)
                    .filter(|s| s.points.iter().any(|(i, way)| *i == point && way[2] != 0.0))
                    .map(|s| s.sigma_mm * s.sigma_mm)
                    .sum();
                assert!((sum - sigma * sigma).abs() < 1e-9);
            }
        }
    }

    #[test]
    fn a_generic_shape_has_a_tilt_of_each_arm_and_a_height_of_the_tie_rod() {
        let g = sample();
        let extra: Vec<Spread> = spreads(&g.points, Knowledge::Archetype)
            .into_iter()
            .filter(|s| s.of != SpreadOf::Coordinate)
            .collect();
        assert_eq!(extra.len(), 3);
        let mut p = g.points.clone();
        extra[0].shift(&mut p, extra[0].sigma_mm);
        let (a, b) = (g.points.wishbone().unwrap(), p.wishbone().unwrap());
        let tilt = |w: &bold_stance_kinematics::geometry::WishbonePoints| {
            let d = (w.upper_front[2] - w.upper_rear[2]) / (w.upper_front[0] - w.upper_rear[0]);
            d.atan().to_degrees()
        };
        assert!((tilt(b) - tilt(a) - 4.0).abs() < 0.3, "{} {}", tilt(a), tilt(b));
        assert!(spreads(&g.points, Knowledge::Taped).iter().all(|s| s.of == SpreadOf::Coordinate));
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
