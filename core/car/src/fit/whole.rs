//! Whether readings and points go together as a whole, besides each reading by itself.

use super::Spread;
use super::estimate::Estimate;
use bold_stance_kinematics::geometry::Points;
use bold_stance_units::said::{Said, said};
use nalgebra::DVector;
use serde::{Deserialize, Serialize};

/// 99 % of a normal lies below this many standard deviations: one car in a hundred that is as told costs more.
const Z99: f64 = 2.3263;
/// How far, in standard deviations of what readings teach, a way in which builds differ may come out: seven cars in a
/// thousand that are as told exceed it in each.
const ODD_BUILD: f64 = 2.7;

/// A way in which builds of one layout differ.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Build {
    /// Inclination of the upper arm's axis, degrees, front end up positive.
    UpperArmAxis,
    /// Inclination of the lower arm's axis, degrees, front end up positive.
    LowerArmAxis,
    /// Inner end of the tie rod over its outer end, mm.
    TieRodSlope,
}

/// How this car differs from what was told, beyond its doubt.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Difference {
    /// In what.
    pub build: Build,
    /// By how much, in the build's own unit.
    pub by: f64,
}

/// How well the readings and what was told of the points go together, as a whole.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Whole {
    /// Squares of what is left of each reading over its σ, and of how far the points moved over theirs.
    pub cost: f64,
    /// Degrees of freedom: the readings, less what the wheel itself was free to follow.
    pub freedoms: usize,
    /// One car in a hundred that is as told costs more (χ²).
    pub most: f64,
    /// Ways in which builds differ and this car does from what was told.
    pub differs: Vec<Difference>,
    /// Whether it fits.
    pub fits: bool,
}

/// Judges an estimate whose first parameters are the errors `ways` of the points, each with its prior `sigma`: by linear
/// theory the whole cost of a car that is as told is χ², and what readings move a way in which builds differ by is normal
/// with the variance that they take from it. The second is looked at by itself, since a sum over all readings drowns it.
pub(super) fn judge(points: &Points, ways: &[Spread], sigma: &[f64], e: &Estimate, freedoms: usize) -> Whole {
    let cost = e.data_cost + e.prior_cost().take(ways.len()).sum::<f64>();
    let most = most_cost(freedoms);
    let differs: Vec<Difference> = builds(points, ways)
        .into_iter()
        .filter_map(|(build, rates)| {
            let rates = DVector::from_fn(e.theta.len(), |k, _| rates.get(k).copied().unwrap_or(0.0));
            let before: f64 = rates.iter().zip(sigma).map(|(r, s)| (r * s).powi(2)).sum();
            let taught = (before - e.variance(&rates)).sqrt();
            let by = rates.dot(&e.theta);
            (taught > 1e-9 && by.abs() > ODD_BUILD * taught).then_some(Difference { build, by })
        })
        .collect();
    let fits = differs.is_empty() && (freedoms == 0 || cost <= most);
    Whole { cost, freedoms, most, differs, fits }
}

/// Each way in which builds differ that the layout has, with its rates against the errors of the points.
fn builds(points: &Points, ways: &[Spread]) -> Vec<(Build, Vec<f64>)> {
    let named = points.named();
    let at = |name: &str| named.iter().position(|(n, _)| n.ends_with(&format!(".{name}")));
    let lift =
        |s: &Spread, i: usize| s.points.iter().filter(|(k, _)| *k == i).map(|(_, d)| d[2]).sum::<f64>();
    let between = |a: usize, b: usize, scale: f64| -> Vec<f64> {
        ways.iter().map(|s| scale * (lift(s, a) - lift(s, b))).collect()
    };
    let mut out = Vec::new();
    for (build, arm) in [(Build::UpperArmAxis, "upper"), (Build::LowerArmAxis, "lower")] {
        if let (Some(f), Some(r)) = (at(&format!("{arm}_front")), at(&format!("{arm}_rear"))) {
            let base = named[f].1[0] - named[r].1[0];
            out.push((build, between(f, r, 1f64.to_degrees() / base)));
        }
    }
    if let (Some(i), Some(o)) = (at("tie_inner"), at("tie_outer")) {
        out.push((Build::TieRodSlope, between(i, o, 1.0)));
    }
    out
}

/// Percentage point 99 of χ² (Wilson and Hilferty 1931: its cube root is nearly normal).
fn most_cost(freedoms: usize) -> f64 {
    let n = freedoms.max(1) as f64;
    n * (1.0 - 2.0 / (9.0 * n) + Z99 * (2.0 / (9.0 * n)).sqrt()).powi(3)
}

impl Difference {
    fn words(self) -> Said {
        let by = self.by.abs();
        let up = |more, less| if self.by > 0.0 { more } else { less };
        match self.build {
            Build::UpperArmAxis => {
                said("fit-arm").word("arm", "upper").deg("by", by, 1).word("way", up("up", "down"))
            }
            Build::LowerArmAxis => {
                said("fit-arm").word("arm", "lower").deg("by", by, 1).word("way", up("up", "down"))
            }
            Build::TieRodSlope => said("fit-tie-rod").mm("by", by).word("way", up("up", "down")),
        }
    }
}

impl Whole {
    /// What does not go together; empty when it fits.
    pub(super) fn words(&self) -> Vec<Said> {
        let cost = (self.freedoms > 0 && self.cost > self.most)
            .then(|| said("fit-cost").plain("cost", self.cost, 0).plain("most", self.most, 0));
        cost.into_iter().chain(self.differs.iter().map(|d| d.words())).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// χ² of printed tables (e.g. Abramowitz and Stegun, table 26.8, 99 % points, from memory).
    #[test]
    fn the_most_of_a_fit_is_that_of_the_tables() {
        for (n, point) in [(1, 6.635), (2, 9.210), (5, 15.086), (10, 23.209), (20, 37.566)] {
            assert!((most_cost(n) / point - 1.0).abs() < 0.02, "{n}: {}", most_cost(n));
        }
    }
}
