//! A corner at a height with its adjusters: what the solver turns, and the orders in workshop words.

use super::budget::{Budget, UNREACHED};
use super::foul::Foul;
use super::line::{SettingLine, line, unit_step};
use super::locates::locates_only;
use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::vehicle::Attitude;
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::linkage::{Corner, Linkage, Loop, Unreachable};
use bold_stance_kinematics::wheel::Alignment;
use bold_stance_units::said::Said;
use serde::{Deserialize, Serialize};
use std::sync::Arc;

/// What one notch or turn does.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Sensitivity {
    /// Adjuster.
    pub name: String,
    /// What the step is.
    pub step: Said,
    /// Degrees of camber.
    pub camber_deg: f64,
    /// Degrees of caster.
    pub caster_deg: f64,
    /// Degrees of toe, one wheel.
    pub toe_deg: f64,
}

/// A corner at a height with its adjusters.
#[derive(Debug, Clone)]
pub struct Bench {
    /// The anchored corner with its parts, adjusters at zero.
    pub corner: Corner,
    /// What can be turned.
    pub adjusters: Vec<Adjuster>,
    /// Wheel-centre travel, mm, bump positive.
    pub travel_mm: f64,
    /// Body pitch.
    pub attitude: Attitude,
    /// Which adjuster sets toe, last of all.
    pub toe_by: Option<usize>,
    /// Where a live axle stands central, mm to the left in the model's own axes: 0 as drawn, else what was read.
    pub centre_mm: f64,
    /// What a setting may not bring past a measured limit; none where nothing is watched.
    pub(crate) guard: Option<Arc<dyn Watch>>,
    /// What posing it may still cost.
    pub(crate) budget: Budget,
}

/// Watches over what a setting of a bench may not foul.
pub(crate) trait Watch: std::fmt::Debug + Send + Sync {
    /// How far each figure is past its limit with the adjusters at `positions`, mm or degrees.
    fn past(&self, bench: &Bench, positions: &[f64]) -> Vec<f64>;

    /// The same summed up.
    fn sum(&self, past: &mut dyn Iterator<Item = f64>) -> Foul;
}

impl Bench {
    /// How far a setting fouls; nothing where nothing is watched.
    pub(crate) fn foul(&self, positions: &[f64]) -> Foul {
        self.guard.as_ref().map_or_else(Foul::default, |g| g.sum(&mut g.past(self, positions).into_iter()))
    }

    /// A bench; on a steered wheel the tie rod sets toe, on another the adjuster that moves toe more than camber,
    /// if there is one.
    #[must_use]
    pub fn new(corner: Corner, adjusters: Vec<Adjuster>, travel_mm: f64, attitude: Attitude) -> Self {
        let (toe_by, budget) = (None, Budget::default());
        let mut out =
            Self { corner, adjusters, travel_mm, attitude, toe_by, centre_mm: 0.0, guard: None, budget };
        out.toe_by = out.adjusters.iter().position(Adjuster::is_tie_rod);
        if out.toe_by.is_none() && !out.corner.is_steered() {
            let start = out.start();
            let share = |i: usize| {
                let [low, high] = out.adjusters[i].range();
                let (mut p, mut q) = (start.clone(), start.clone());
                (p[i], q[i]) = ((start[i] - 0.2).max(low), (start[i] + 0.2).min(high));
                let (a, b) = (out.angles(&p).ok()?, out.angles(&q).ok()?);
                let (camber, toe) = ((b.camber_deg - a.camber_deg).abs(), (b.toe_deg - a.toe_deg).abs());
                // What squares or centres a live axle turns the axle, not its toe.
                (toe > 1e-6 && toe > camber && !locates_only(&out.adjusters[i]))
                    .then_some((i, toe / camber.max(1e-6)))
            };
            let best = (0..start.len()).filter_map(share).max_by(|a, b| a.1.total_cmp(&b.1));
            out.toe_by = best.map(|(i, _)| i);
        }
        out
    }

    /// Whether the wheel steers, and has caster.
    #[must_use]
    pub fn corner_steers(&self) -> bool {
        self.corner.is_steered()
    }

    /// Where every adjuster stands now.
    #[must_use]
    pub fn start(&self) -> Vec<f64> {
        self.adjusters.iter().map(|a| a.position).collect()
    }

    /// The corner with the adjusters at `positions`.
    #[must_use]
    pub fn set(&self, positions: &[f64]) -> Corner {
        let edits: Vec<Edit> =
            self.adjusters.iter().zip(positions).flat_map(|(a, p)| a.edits_at(*p)).collect();
        self.corner.edited(&edits)
    }

    /// Angles relative to the ground with the adjusters at `positions`; caster, SAI, scrub and trail are 0 for
    /// a wheel that does not steer.
    ///
    /// # Errors
    /// [`Unreachable`] when the corner does not close there, or when a plan has had all the work it may take.
    pub fn angles(&self, positions: &[f64]) -> Result<Alignment, Unreachable> {
        if !self.budget.spend(1) {
            return Err(Unreachable::at(Loop::NoSetting, 0.0));
        }
        let out = self.angles_at(&self.set(positions), self.travel_mm);
        if out.is_err() {
            self.budget.spend(UNREACHED);
        }
        out
    }

    /// The same of a corner already set, at a travel.
    ///
    /// # Errors
    /// [`Unreachable`] when the corner does not close there.
    pub fn angles_at(&self, c: &Corner, travel_mm: f64) -> Result<Alignment, Unreachable> {
        let pose = self.attitude.apply(&c.pose(travel_mm, 0.0)?);
        Ok(pose.wheel(c.loaded_radius(), c.design_x()).or_unsteered())
    }

    /// One notch (or 5° of a plain cam, one turn, one shim, one mark) outward of each adjuster from `positions`.
    #[must_use]
    pub fn sensitivity(&self, positions: &[f64]) -> Vec<Sensitivity> {
        let Ok(here) = self.angles(positions) else { return Vec::new() };
        let mut out = Vec::new();
        for (i, a) in self.adjusters.iter().enumerate() {
            let (step, words) = unit_step(a);
            let [_, high] = a.built_range();
            // At the end of its range the step is taken backward, and counted as forward.
            let sign = if positions[i] + step > high + 1e-9 { -1.0 } else { 1.0 };
            let mut p = positions.to_vec();
            p[i] += sign * step;
            if let Ok(there) = self.angles(&p) {
                out.push(Sensitivity {
                    name: a.name.clone(),
                    step: words,
                    camber_deg: sign * (there.camber_deg - here.camber_deg),
                    caster_deg: sign * (there.caster_deg - here.caster_deg),
                    toe_deg: sign * (there.toe_deg - here.toe_deg),
                });
            }
        }
        out
    }

    /// Orders for a setting, in the order in which they are turned.
    #[must_use]
    pub fn lines(&self, positions: &[f64]) -> Vec<SettingLine> {
        let mut out: Vec<(u8, SettingLine)> = self
            .adjusters
            .iter()
            .zip(positions)
            .enumerate()
            .map(|(i, (a, p))| {
                let sets_toe = self.toe_by == Some(i);
                let shared = matches!(self.corner, Corner::Axle(_)) && a.is_shared_on_axle();
                let order = if sets_toe { 9 } else { a.turn_order() };
                (order, SettingLine { sets_toe, shared, ..line(a, *p) })
            })
            .collect();
        out.sort_by_key(|(order, _)| *order);
        out.into_iter().map(|(_, l)| l).collect()
    }
}
