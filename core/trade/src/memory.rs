//! What the shop learned from cars that were proved: what each part really does against its claim, and how well its own
//! predictions held.
//!
//! Trials of one quantity on several cars, y_i ~ N(θ_i, v_i) with θ_i ~ N(μ, τ²): τ by the moments of DerSimonian and Laird
//! (Meta-analysis in clinical trials, Controlled Clinical Trials 7, 1986), μ with a wide belief about the claim before it.

mod heights;

pub use heights::{HeightsTaught, KnownHeights, KnownSettle, SettleTrial, TurnTrial, most_of};

use crate::part::Part;
use crate::plan::AngleName;
use bold_stance_car::adjuster::Known;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::said::Said;
use bold_stance_units::{HalfWidth, Sigma};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// What is believed of a quantity before it was tried, standard deviations in its own measure.
#[derive(Debug, Clone, Copy)]
struct Beliefs {
    /// How far its mean may lie off what is claimed.
    about: f64,
    /// What one car's differs by from another's before three were tried.
    apart: f64,
    /// The same at least.
    least: f64,
}

/// How far a part's mean may lie off its claim before anybody tried it, standard deviation of ln times (judgement, no source).
const CLAIM_SD: f64 = 0.5;
/// A part, and what a turn gives: of ln times (judgement, no source).
const PART: Beliefs = Beliefs { about: CLAIM_SD, apart: 0.15, least: 0.05 };
/// A trial wider than this says nothing worth a line: standard deviation of ln times (judgement, no source).
const DUMB_SD: f64 = 0.35;

/// What one adjuster of one wheel was found to do.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Trial {
    /// The part it belongs to, by the id of its family; none for the car's own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub part: Option<String>,
    /// The adjuster.
    pub adjuster: String,
    /// Axle.
    pub axle: Axle,
    /// Side.
    pub side: Side,
    /// ln of what it does over what it is said to do, by this car's readings alone.
    pub ln_times: f64,
    /// Standard deviation of that.
    pub sd: f64,
    /// What explains the readings better than what it does; then it does not count.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub explained: Option<Said>,
}

/// What was said of an angle against what came.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SaidCame {
    /// Axle.
    pub axle: Axle,
    /// Side.
    pub side: Side,
    /// Which.
    pub angle: AngleName,
    /// Came less said, degrees.
    pub miss_deg: f64,
    /// 90 % half width of saying and reading together, degrees.
    pub band_deg: f64,
}

/// What a proved car taught.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct Taught {
    /// What was turned, and what it did.
    pub trials: Vec<Trial>,
    /// What was said, and what came.
    pub said: Vec<SaidCame>,
}

/// A car that was accepted.
#[derive(Debug, Clone, PartialEq)]
pub struct ProvedCar {
    /// Its ticket.
    pub ticket: i32,
    /// When it was accepted, UTC.
    pub at: DateTime<Utc>,
    /// What it taught.
    pub taught: Taught,
}

/// Trials of one quantity, pooled.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pooled {
    /// Mean of ln times.
    pub mean: f64,
    /// Standard deviation of that mean.
    pub mean_sd: f64,
    /// What one car's differs by from another's.
    pub apart: f64,
}

impl Pooled {
    /// What is believed of the next car: standard deviation of ln times.
    #[must_use]
    pub fn next_sd(&self) -> f64 {
        self.mean_sd.hypot(self.apart)
    }
}

/// Pools trials of several cars, value and standard deviation each; none of nothing.
#[must_use]
pub fn pooled(trials: &[(f64, f64)]) -> Option<Pooled> {
    pooled_by(trials, PART)
}

fn pooled_by(trials: &[(f64, f64)], beliefs: Beliefs) -> Option<Pooled> {
    if trials.is_empty() {
        return None;
    }
    let Beliefs { about, apart: usual, least } = beliefs;
    let sum = |f: &dyn Fn(f64, f64) -> f64| trials.iter().map(|(y, sd)| f(*y, sd.powi(-2))).sum::<f64>();
    let apart = if trials.len() < 3 {
        usual
    } else {
        let (w, wy, ww) = (sum(&|_, w| w), sum(&|y, w| w * y), sum(&|_, w| w * w));
        let mean = wy / w;
        let q = sum(&|y, w| w * (y - mean).powi(2));
        let tau2 = (q - (trials.len() - 1) as f64) / (w - ww / w);
        tau2.max(0.0).sqrt().max(least)
    };
    let weight = |sd: f64| 1.0 / (sd * sd + apart * apart);
    let precision: f64 = about.powi(-2) + trials.iter().map(|t| weight(t.1)).sum::<f64>();
    let mean = trials.iter().map(|t| weight(t.1) * t.0).sum::<f64>() / precision;
    Some(Pooled { mean, mean_sd: precision.powf(-0.5), apart })
}

/// Both wheels of one car say one thing: value and standard deviation by their weights.
fn of_one_car(wheels: &[(f64, f64)]) -> (f64, f64) {
    let w: f64 = wheels.iter().map(|t| t.1.powi(-2)).sum();
    let mean = wheels.iter().map(|t| t.0 * t.1.powi(-2)).sum::<f64>() / w;
    (mean, w.powf(-0.5))
}

/// One car among the trials of a part.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CarTrial {
    /// Its ticket.
    pub ticket: i32,
    /// Times what it is said to do.
    pub times: f64,
    /// Ends of nine in ten.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub between: [f64; 2],
    /// What explains it otherwise; then it does not count.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub explained: Option<Said>,
}

/// What the shop knows of one adjuster.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Remembered {
    /// The part it belongs to, by the id of its family; none for a car's own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub part: Option<String>,
    /// The adjuster.
    pub adjuster: String,
    /// Times what it is said to do, the mean of the cars that count; 1 where none does.
    pub times: f64,
    /// Ends of nine in ten of the next car.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub between: [f64; 2],
    /// What is used for the next car; none where no car counts.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub known: Option<Known>,
    /// Every car that tried it, oldest first.
    pub cars: Vec<CarTrial>,
}

/// How the predictions of an angle held.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HowWell {
    /// Axle.
    pub axle: Axle,
    /// Which angle.
    pub angle: AngleName,
    /// Whether each came inside its ring, oldest first.
    pub inside: Vec<bool>,
    /// Share of them, of 100.
    pub share: f64,
    /// Ends of nine in ten of that share (Wilson 1927).
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub between: [f64; 2],
    /// The middle miss, degrees.
    pub middle_deg: f64,
    /// What it comes to.
    pub held: HowHeld,
}

/// What a share of predictions comes to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum HowHeld {
    /// Ninety in a hundred is among what it may be.
    Holds,
    /// Fewer came inside than said.
    TooSure,
    /// More did: its rings are wider than they need be.
    TooCareful,
}

/// What the shop learned.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Memory {
    /// Cars that were proved.
    pub cars: usize,
    /// Parts and adjusters, those with most cars first.
    pub parts: Vec<Remembered>,
    /// How well was predicted.
    pub how_well: Vec<HowWell>,
    /// What turns give and how far heights settle.
    #[serde(default, skip_serializing_if = "KnownHeights::is_empty")]
    pub heights: KnownHeights,
}

/// Ends of nine in ten of a share (Wilson's score interval, 1927, from memory), of 1.
#[must_use]
pub fn wilson(inside: usize, all: usize) -> [f64; 2] {
    if all == 0 {
        return [0.0, 1.0];
    }
    let (n, z) = (all as f64, Sigma(1.0).half_width().0);
    let p = inside as f64 / n;
    let middle = (p + z * z / (2.0 * n)) / (1.0 + z * z / n);
    let half = z / (1.0 + z * z / n) * (p * (1.0 - p) / n + z * z / (4.0 * n * n)).sqrt();
    [(middle - half).max(0.0), (middle + half).min(1.0)]
}

fn middle(mut all: Vec<f64>) -> f64 {
    all.sort_by(f64::total_cmp);
    match all.len() {
        0 => 0.0,
        n if n % 2 == 1 => all[n / 2],
        n => f64::midpoint(all[n / 2 - 1], all[n / 2]),
    }
}

fn between(mean: f64, sd: f64) -> [f64; 2] {
    let HalfWidth(h) = Sigma(sd).half_width();
    [(mean - h).exp(), (mean + h).exp()]
}

type PartKey = (Option<String>, String);

impl Memory {
    /// What the cars taught that were accepted before a time, oldest first; all of them where none is told.
    #[must_use]
    pub fn of(cars: &[ProvedCar], before: Option<DateTime<Utc>>) -> Self {
        let cars: Vec<&ProvedCar> = cars.iter().filter(|c| before.is_none_or(|t| c.at < t)).collect();
        let mut by_part: BTreeMap<PartKey, Vec<CarTrial>> = BTreeMap::new();
        let mut counted: BTreeMap<PartKey, Vec<(f64, f64)>> = BTreeMap::new();
        for ProvedCar { ticket, taught, .. } in &cars {
            let mut own: BTreeMap<PartKey, Vec<&Trial>> = BTreeMap::new();
            // A car's own cams are another car's: only what is sold is known from one to the next.
            for t in taught.trials.iter().filter(|t| t.part.is_some() && t.sd > 0.0 && t.sd < DUMB_SD) {
                own.entry((t.part.clone(), t.adjuster.clone())).or_default().push(t);
            }
            for (key, wheels) in own {
                let (odd, plain): (Vec<&Trial>, Vec<&Trial>) =
                    wheels.into_iter().partition(|t| t.explained.is_some());
                let of = |list: &[&Trial]| {
                    of_one_car(&list.iter().map(|t| (t.ln_times, t.sd)).collect::<Vec<_>>())
                };
                if !plain.is_empty() {
                    let (mean, sd) = of(&plain);
                    counted.entry(key.clone()).or_default().push((mean, sd));
                    let car = CarTrial {
                        ticket: *ticket,
                        times: mean.exp(),
                        between: between(mean, sd),
                        explained: None,
                    };
                    by_part.entry(key.clone()).or_default().push(car);
                }
                if !odd.is_empty() {
                    let (mean, sd) = of(&odd);
                    let explained = odd.iter().find_map(|t| t.explained.clone());
                    let car = CarTrial {
                        ticket: *ticket,
                        times: mean.exp(),
                        between: between(mean, sd),
                        explained,
                    };
                    by_part.entry(key).or_default().push(car);
                }
            }
        }
        let mut parts: Vec<Remembered> = by_part
            .into_iter()
            .map(|(key, cars)| {
                let own = counted.get(&key).map_or(&[][..], Vec::as_slice);
                let p = pooled(own);
                let (mean, sd) = p.map_or((0.0, CLAIM_SD), |p| (p.mean, p.next_sd()));
                Remembered {
                    known: p.map(|p| Known { times: p.mean.exp(), sd: p.next_sd(), cars: own.len() as u32 }),
                    times: mean.exp(),
                    between: between(mean, sd),
                    part: key.0,
                    adjuster: key.1,
                    cars,
                }
            })
            .collect();
        parts.sort_by_key(|p| std::cmp::Reverse(p.cars.len()));
        Self { cars: cars.len(), parts, how_well: how_well(&cars), heights: KnownHeights::default() }
    }

    /// Whether nothing was learned.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        self.cars == 0 && self.parts.is_empty() && self.how_well.is_empty() && self.heights.is_empty()
    }

    /// The same with what is known of heights.
    #[must_use]
    pub fn with_heights(mut self, cars: &[HeightsTaught], before: Option<DateTime<Utc>>) -> Self {
        self.heights = KnownHeights::of(cars, before);
        self
    }

    /// A part as the shop knows it: its throws as they were found to be.
    #[must_use]
    pub fn known_part(&self, p: &Part) -> Part {
        let mut out = p.clone();
        let family = p.id.split('@').next().unwrap_or(&p.id);
        for a in &mut out.adjusters {
            let of = self.parts.iter().find(|r| r.part.as_deref() == Some(family) && r.adjuster == a.name);
            if let Some(k) = of.and_then(|r| r.known) {
                *a = a.as_known(k);
            }
        }
        out
    }
}

fn how_well(cars: &[&ProvedCar]) -> Vec<HowWell> {
    let mut out = Vec::new();
    for axle in [Axle::Front, Axle::Rear] {
        for angle in [AngleName::Camber, AngleName::Caster, AngleName::Toe] {
            let own: Vec<&SaidCame> = cars
                .iter()
                .flat_map(|c| &c.taught.said)
                .filter(|s| s.axle == axle && s.angle == angle)
                .collect();
            if own.is_empty() {
                continue;
            }
            let inside: Vec<bool> = own.iter().map(|s| s.miss_deg.abs() <= s.band_deg + 1e-9).collect();
            let n = inside.iter().filter(|i| **i).count();
            let ends = wilson(n, inside.len());
            let held = match ends {
                [_, high] if high < 0.9 => HowHeld::TooSure,
                [low, _] if low > 0.9 => HowHeld::TooCareful,
                _ => HowHeld::Holds,
            };
            out.push(HowWell {
                axle,
                angle,
                share: 100.0 * n as f64 / inside.len() as f64,
                between: ends.map(|e| 100.0 * e),
                middle_deg: middle(own.iter().map(|s| s.miss_deg.abs()).collect()),
                inside,
                held,
            });
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn pooling_follows_dersimonian_and_laird() {
        // Worked by hand: y 0.1, 0.3, 0.5 with variances 0.01, 0.02, 0.01. w 100, 50, 100; mean 0.3; Q 100·0.04·2 = 8;
        // c = 250 − 22500/250 = 160; τ² = (8 − 2)/160 = 0.0375.
        let p = pooled(&[(0.1, 0.1), (0.3, 0.02f64.sqrt()), (0.5, 0.1)]).unwrap();
        assert!((p.apart - 0.0375f64.sqrt()).abs() < 1e-12, "{p:?}");
        let w = [1.0 / 0.0475, 1.0 / 0.0575, 1.0 / 0.0475];
        let precision = 4.0 + w.iter().sum::<f64>();
        let mean = (w[0] * 0.1 + w[1] * 0.3 + w[2] * 0.5) / precision;
        assert!((p.mean - mean).abs() < 1e-12 && (p.mean_sd - precision.powf(-0.5)).abs() < 1e-12);
        // Trials that agree leave the least that one car differs by from another.
        assert_eq!(pooled(&[(0.2, 0.1); 4]).unwrap().apart, 0.05);
        // Before three it is not taken from them.
        assert_eq!(pooled(&[(0.0, 0.1), (0.9, 0.1)]).unwrap().apart, 0.15);
        assert!(pooled(&[]).is_none());
    }

    #[test]
    fn a_share_has_the_ends_of_wilsons_interval() {
        // By the formula worked with a calculator: 8 of 10 at 90 %.
        let [low, high] = wilson(8, 10);
        assert!((low - 0.541).abs() < 2e-3 && (high - 0.931).abs() < 2e-3, "{low} {high}");
        assert_eq!(wilson(0, 0), [0.0, 1.0]);
        let [low, high] = wilson(10, 10);
        assert!(low > 0.75 && high == 1.0);
    }
}
