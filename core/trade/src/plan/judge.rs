//! A setting against the windows it is for.

use super::bench::Bench;
use super::score::Score;
use crate::aim::{Target, Window};
use bold_stance_car::adjuster::Adjuster;
use bold_stance_kinematics::wheel::Alignment;
use serde::{Deserialize, Serialize};

/// Distance outside each window, degrees, never negative.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Shortfall {
    /// Camber.
    pub camber_deg: f64,
    /// Caster.
    pub caster_deg: f64,
    /// Toe, per wheel.
    pub toe_deg: f64,
}

impl Shortfall {
    /// Largest of the three.
    #[must_use]
    pub fn worst(&self) -> f64 {
        self.camber_deg.max(self.caster_deg).max(self.toe_deg)
    }
    /// Weighed sum: a tenth of camber or toe matters as much as two of caster (common practice:
    /// caster does not need the precision of camber), so a gap is left to caster where it can be.
    pub(crate) fn sum(&self) -> f64 {
        2.0 * self.camber_deg + self.caster_deg + 2.0 * self.toe_deg
    }
}

/// A setting and what it gives.
#[derive(Debug, Clone)]
pub struct SolvedSetting {
    /// Position of each adjuster, in their order.
    pub positions: Vec<f64>,
    /// Resulting angles, relative to the ground.
    pub angles: Alignment,
    /// How far outside the windows.
    pub shortfall: Shortfall,
    /// Knobs moved from where they stand.
    pub(crate) knobs: u32,
    pub(crate) centre: f64,
    pub(crate) movement: f64,
}

impl SolvedSetting {
    pub(crate) fn score(&self) -> Score {
        Score { over: self.shortfall.sum(), knobs: self.knobs, centre: self.centre, movement: self.movement }
    }
}

/// Whether an adjuster at `p` is moved from where it stands.
pub(crate) fn is_moved(a: &Adjuster, p: f64) -> bool {
    (p - a.position).abs() > 1e-9
}

pub(crate) fn outside(v: f64, w: Window) -> f64 {
    let d = (w[0] - v).max(v - w[1]).max(0.0);
    if d < 1e-9 { 0.0 } else { d }
}

pub(crate) fn off_centre(v: f64, w: Window) -> f64 {
    let half = ((w[1] - w[0]) / 2.0).max(0.05);
    ((v - (w[0] + w[1]) / 2.0) / half).powi(2)
}

pub(crate) fn judge(
    bench: &Bench,
    positions: Vec<f64>,
    angles: Alignment,
    t: &Target,
    with_toe: bool,
) -> SolvedSetting {
    let shortfall = Shortfall {
        camber_deg: outside(angles.camber_deg, t.camber),
        caster_deg: outside(angles.caster_deg, t.caster),
        toe_deg: if with_toe { outside(angles.toe_deg, t.toe) } else { 0.0 },
    };
    let centre = off_centre(angles.camber_deg, t.camber)
        + off_centre(angles.caster_deg, t.caster)
        + if with_toe { off_centre(angles.toe_deg, t.toe) } else { 0.0 };
    let knobs = bench.adjusters.iter().zip(&positions).filter(|(a, p)| is_moved(a, **p)).count() as u32;
    let movement = bench
        .adjusters
        .iter()
        .zip(&positions)
        .map(|(a, p)| {
            let [l, h] = a.range();
            (p - a.position).abs() / (h - l).max(1e-9)
        })
        .sum();
    SolvedSetting { positions, angles, shortfall, knobs, centre, movement }
}

pub(crate) fn better(a: &SolvedSetting, b: &SolvedSetting) -> std::cmp::Ordering {
    a.score().cmp(&b.score())
}

/// Calls `f` with every combination of one value from each list.
pub(crate) fn combinations(lists: &[&[f64]], mut f: impl FnMut(&[f64])) {
    if lists.iter().any(|l| l.is_empty()) {
        return;
    }
    let mut index = vec![0usize; lists.len()];
    let mut pick: Vec<f64> = lists.iter().map(|l| l[0]).collect();
    loop {
        f(&pick);
        let mut k = 0;
        loop {
            if k == lists.len() {
                return;
            }
            index[k] += 1;
            if index[k] < lists[k].len() {
                pick[k] = lists[k][index[k]];
                break;
            }
            index[k] = 0;
            pick[k] = lists[k][0];
            k += 1;
        }
    }
}
