//! A setting against the windows it is for.

use super::bench::Bench;
use super::foul::Foul;
use super::score::Score;
use crate::aim::{Target, Window, off_window};
use bold_stance_car::adjuster::{Adjuster, AdjusterKind};
use bold_stance_kinematics::wheel::Alignment;
use serde::{Deserialize, Serialize};

/// Movement of what is for the fine part counts so much more.
const FINE: f64 = 4.0;

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

/// What a shop can read of camber and caster, degrees; less is no shortfall to spend money on (common practice, no
/// source).
pub const READABLE_DEG: f64 = 0.05;
/// The same of the toe of one wheel.
pub const READABLE_TOE_DEG: f64 = 0.03;

impl Shortfall {
    /// Only what a shop can read of it: less is none.
    #[must_use]
    pub fn readable(self) -> Self {
        let told = |v: f64, least: f64| if v <= least + 1e-9 { 0.0 } else { v };
        Self {
            camber_deg: told(self.camber_deg, READABLE_DEG),
            caster_deg: told(self.caster_deg, READABLE_DEG),
            toe_deg: told(self.toe_deg, READABLE_TOE_DEG),
        }
    }

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
    /// What it brings past a measured limit.
    pub(crate) foul: Foul,
    /// Knobs moved from where they stand, as [`knobs`] counts them.
    pub(crate) knobs: u32,
    pub(crate) centre: f64,
    pub(crate) movement: f64,
}

impl SolvedSetting {
    /// What counts as outside: where nothing is turned, only what a shop can read.
    pub(crate) fn told(&self) -> Shortfall {
        if self.knobs == 0 { self.shortfall.readable() } else { self.shortfall }
    }

    pub(crate) fn score(&self) -> Score {
        Score {
            foul: self.foul,
            over: self.told().sum(),
            knobs: self.knobs,
            centre: self.centre,
            movement: self.movement,
        }
    }
}

/// Whether an adjuster at `p` is moved from where it stands.
pub(crate) fn is_moved(a: &Adjuster, p: f64) -> bool {
    (p - a.position).abs() > 1e-9
}

/// What turning an adjuster to `p` counts: the rod, or whatever sets toe, one, since toe is read last in any case;
/// everything else two, since camber, caster and toe are read again behind it.
pub(crate) fn knob(bench: &Bench, i: usize, p: f64) -> u32 {
    match (is_moved(&bench.adjusters[i], p), bench.toe_by == Some(i)) {
        (false, _) => 0,
        (true, true) => 1,
        (true, false) => 2,
    }
}

pub(crate) fn outside(v: f64, w: Window) -> f64 {
    let d = off_window(v, w).abs();
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
    let knobs = positions.iter().enumerate().map(|(i, p)| knob(bench, i, *p)).sum();
    let movement = bench
        .adjusters
        .iter()
        .zip(&positions)
        .map(|(a, p)| {
            let [l, h] = a.range();
            // Slots and bolts do the coarse part, a plate what is left of it (common practice, no source).
            let fine = if matches!(a.kind, AdjusterKind::Slide { .. }) { FINE } else { 1.0 };
            fine * (p - a.position).abs() / (h - l).max(1e-9)
        })
        .sum();
    let foul = bench.foul(&positions);
    SolvedSetting { positions, angles, shortfall, foul, knobs, centre, movement }
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
