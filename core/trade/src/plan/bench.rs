//! A corner at a height with its adjusters: what the solver turns, and the orders in workshop words.

use super::budget::{Budget, UNREACHED};
use super::guard::Guard;
use super::square::is_one_arm;
use bold_stance_car::adjuster::{Adjuster, AdjusterKind, Held};
use bold_stance_car::vehicle::Attitude;
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::linkage::{Corner, Linkage, Loop, Unreachable};
use bold_stance_kinematics::wheel::Alignment;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};
use std::sync::Arc;

/// One adjuster's order.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SettingLine {
    /// What the specialist calls it.
    pub name: String,
    /// Where it ends: degrees of a cam, turns of a thread.
    pub position: f64,
    /// From where it stood: degrees or turns.
    pub movement: f64,
    /// The same in notches or turns, signed.
    pub steps: f64,
    /// Movement of the pivot or growth of the link, mm.
    pub movement_mm: f64,
    /// `outboard`, `inboard`, `longer`, `shorter`, … or `leave`: a word to tell them apart by.
    pub direction: String,
    /// How much: `2 notches`, `1 3/4 turns`.
    pub amount: Said,
    /// Which way, in words.
    pub way: Said,
    /// The whole order in workshop words.
    pub words: Said,
    /// Between where and where it can be turned: degrees of a cam, turns, mm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub ends: [f64; 2],
    /// Whether the last notch or turn is used up.
    pub at_end: bool,
    /// Whether it sets toe, last of all.
    pub sets_toe: bool,
    /// Whether it is a cam that turns between notches or freely.
    pub is_cam: bool,
    /// Degrees of one notch of a cam, when it has notches.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub notch_deg: Option<f64>,
    /// Whether it is one thing for both wheels of a live axle: ordered once.
    #[serde(default)]
    pub shared: bool,
}

impl SettingLine {
    /// Whether anything is turned.
    #[must_use]
    pub fn moves(&self) -> bool {
        self.direction != "leave"
    }
}

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
    pub(crate) guard: Option<Arc<Guard>>,
    /// What posing it may still cost.
    pub(crate) budget: Budget,
}

impl Bench {
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
                // One lower arm of a live axle turns the axle, not its toe.
                (toe > 1e-6 && toe > camber && !is_one_arm(&out.adjusters[i]))
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

/// The step a specialist counts in, and its words.
fn unit_step(a: &Adjuster) -> (f64, Said) {
    match (&a.kind, a.step()) {
        (AdjusterKind::Thread { .. }, _) => (1.0, said("step-turn")),
        (AdjusterKind::Shims { .. }, Some(s)) => (s, said("step-shim").set_mm("mm", s)),
        (AdjusterKind::Slide { .. }, s) => {
            let s = s.unwrap_or(1.0);
            (s, said("step-mm").set_mm("mm", s))
        }
        (AdjusterKind::Tilt { .. } | AdjusterKind::Wedge { .. }, s) => {
            let s = s.unwrap_or(0.25);
            (s, said("step-degrees").plain("deg", s, 2))
        }
        (AdjusterKind::Sleeve { .. }, Some(s)) => (s, said("step-position")),
        (_, Some(s)) => {
            (s, said("step-notch").plain("deg", s, if (s - s.round()).abs() < 1e-9 { 0 } else { 2 }))
        }
        (_, None) => (5.0, said("step-degrees").plain("deg", 5.0, 0)),
    }
}

/// The order that brings an adjuster to a position.
pub(crate) fn line(a: &Adjuster, position: f64) -> SettingLine {
    let movement = position - a.position;
    let movement_mm = a.displacement_mm(position) - a.displacement_mm(a.position);
    let word = a.direction_word(a.position, position);
    let (unit, _) = unit_step(a);
    let stepped = a.step().is_some();
    let steps = match &a.kind {
        AdjusterKind::Thread { .. } => movement,
        _ if stepped => movement / unit,
        _ => movement,
    };
    let counted = |id, n: f64| said(id).count("n", n.abs().round() as usize);
    // Between notches it is ordered to a whole one by name: counting notches from there would be off by the rest.
    let between = stepped && (steps - steps.round()).abs() > 0.02 && is_notched(a);
    let amount = match &a.kind {
        _ if between => said("amount-degrees").plain("deg", movement.abs(), 0),
        AdjusterKind::Thread { .. } => said("amount-turns")
            .name("turns", turns(movement.abs()))
            .count("n", if movement.abs() > 1.0 { 2 } else { 1 }),
        AdjusterKind::Shims { .. } => said("amount-shims").set_mm("mm", movement.abs()),
        AdjusterKind::Slide { .. } => said("amount-mm").set_mm("mm", movement.abs()),
        AdjusterKind::Tilt { .. } | AdjusterKind::Wedge { .. } => {
            said("amount-degrees").plain("deg", movement.abs(), 2)
        }
        AdjusterKind::Sleeve { .. } => counted("amount-positions", steps),
        _ if stepped => counted("amount-notches", steps),
        _ => said("amount-degrees").plain("deg", movement.abs(), 1),
    };
    let way = said("way").word("way", word);
    let order = |id| said(id).say("amount", amount.clone()).word("way", word);
    let words = match (word, &a.kind) {
        ("leave", _) => said(match a.held {
            Some(Held::Seized) => "leave-seized",
            Some(Held::TabsIn) => "leave-tabs",
            Some(Held::NotHere) => "leave-not-here",
            None => "leave",
        }),
        _ if between => order("order-to").say("to", notch_word(a, position, unit)),
        (_, AdjusterKind::Shims { .. }) => order(if movement > 0.0 { "order-add" } else { "order-take-out" }),
        _ => order("order"),
    };
    // A thread ends where its engagement does.
    let [low, high] = if a.is_fixed() { a.built_range() } else { a.range() };
    let margin = a.step().unwrap_or((high - low) / 100.0) / 2.0;
    let at_end = !matches!(a.kind, AdjusterKind::Sleeve { .. })
        && (position - low < margin || high - position < margin);
    let is_cam = matches!(a.kind, AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. });
    SettingLine {
        name: a.name.clone(),
        position,
        movement,
        steps,
        movement_mm,
        direction: word.to_owned(),
        amount,
        way,
        words,
        ends: [low, high],
        at_end,
        sets_toe: false,
        is_cam,
        notch_deg: if is_cam { a.step() } else { None },
        shared: false,
    }
}

/// Whether it is turned from one numbered mark to the next, counted from the centre mark.
fn is_notched(a: &Adjuster) -> bool {
    matches!(
        a.kind,
        AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. } | AdjusterKind::Sleeve { .. }
    )
}

/// `the centre mark`, `notch 3 outboard of centre`.
fn notch_word(a: &Adjuster, position: f64, unit: f64) -> Said {
    let n = (position / unit).round();
    if n == 0.0 {
        return said("centre-mark");
    }
    said("notch-of-centre").count("n", n.abs() as usize).word("way", a.direction_word(0.0, position))
}

/// `1 3/4`, `2/3`, `1/12`, `2`: turns in the fractions a spanner can follow.
#[must_use]
pub(crate) fn turns(t: f64) -> String {
    for den in [1u32, 4, 6, 12, 24] {
        let n = (t * f64::from(den)).round();
        if (t * f64::from(den) - n).abs() < 1e-6 {
            let (n, mut d) = (n as u64, u64::from(den));
            let (whole, mut rest) = (n / d, n % d);
            for p in [2, 3] {
                while rest > 0 && rest % p == 0 && d % p == 0 {
                    rest /= p;
                    d /= p;
                }
            }
            return match (whole, rest) {
                (w, 0) => w.to_string(),
                (0, r) => format!("{r}/{d}"),
                (w, r) => format!("{w} {r}/{d}"),
            };
        }
    }
    format!("{t:.2}")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn turns_read_like_a_workshop() {
        for (t, w) in
            [(1.75, "1 3/4"), (2.0 / 3.0, "2/3"), (0.5, "1/2"), (3.0, "3"), (1.0 / 24.0, "1/24"), (0.0, "0")]
        {
            assert_eq!(turns(t), w);
        }
    }
}
