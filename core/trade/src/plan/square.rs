//! A live axle that stands askew: what its two lower arms are turned so that both wheelbases come to their mean.
//!
//! One pair of links squares an axle, the lower one; each side's arm drags the other side, so both are solved together on
//! the exact axle (common practice, no source: the mean of both wheelbases is what is aimed at).

use super::input::PlanInput;
use super::line::{SettingLine, line};
use super::locates::{is_one_arm, lower_arm};
use bold_stance_car::adjuster::{Adjuster, AdjusterKind};
use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, SolidAxleCorner};
use bold_stance_units::said::{Said, said};
use nalgebra::{Matrix2, Vector2};
use serde::{Deserialize, Serialize};

/// Difference of two taped wheelbases that is left alone, mm (common practice, no source).
pub const SQUARE_MM: f64 = 4.0;
/// How far off the middle a live axle may stand, mm (common practice, no source: an eighth of an inch).
pub const CENTRE_MM: f64 = 3.2;
/// How near to their mean turned arms bring both wheelbases, mm.
const LANDS_MM: f64 = 0.5;
/// Links that would have to give more than this bind, mm (common practice, no source).
const GIVES_MM: f64 = 4.0;
/// Longest change of an arm that is looked at, mm.
const FAR_MM: f64 = 120.0;

/// How an axle is squared.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Square {
    /// Wheelbases as read, mm.
    pub read_mm: Sides<f64>,
    /// What both should come to, mm.
    pub to_mm: f64,
    /// What they come to with the arms turned as ordered, mm.
    pub come_mm: Sides<f64>,
    /// Turn of the axle seen from above, degrees, its left end rearward positive.
    pub yaw_deg: f64,
    /// Most that any link gives for it, mm; beyond a few its bushings bind.
    pub gives_mm: f64,
    /// Whether both wheelbases come to one length.
    pub squared: bool,
    /// What is turned; none of a side that nothing turns.
    pub arms: Sides<Option<SettingLine>>,
    /// The adjuster of both arms that these orders stand for, by its name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub pair: Option<String>,
    /// In words.
    pub says: Said,
}

impl Square {
    /// Takes from the pair's thread the turns that squaring uses up.
    pub(crate) fn leave_room(&self, a: &mut Adjuster) {
        if self.pair.as_ref() != Some(&a.name) {
            return;
        }
        if let AdjusterKind::Thread { turns: [low, high], .. } = &mut a.kind {
            let by: Vec<f64> =
                self.arms.each().iter().filter_map(|(_, l)| Some(l.as_ref()?.movement)).collect();
            let least = by.iter().fold(0.0f64, |m, v| m.min(*v));
            let most = by.iter().fold(0.0f64, |m, v| m.max(*v));
            *low = (*low - least).min(a.position);
            *high = (*high - most).max(a.position);
        }
    }

    /// What squaring turns one side's thread of the pair by; nothing of any other adjuster. The axle is worked out as
    /// squared already, so the pair stands without it.
    pub(crate) fn turned_by(&self, a: &Adjuster, side: Side) -> f64 {
        let pair = self.pair.as_ref() == Some(&a.name);
        self.arms[side].as_ref().filter(|_| pair).map_or(0.0, |l| l.movement)
    }

    /// The orders of its arms with what the pair is turned for besides, caster or pinion.
    pub(crate) fn with_pair(mut self, pair: &Adjuster, position: f64) -> Self {
        if self.pair.as_ref() == Some(&pair.name) {
            for l in self.arms.each_mut().into_iter().flatten() {
                let at = pair.position + l.movement + (position - pair.position);
                *l = SettingLine { shared: false, ..line(pair, at) };
            }
        }
        self
    }

    /// The same with each arm's order made anew.
    pub(crate) fn with_arms(mut self, of: impl Fn(Side, SettingLine) -> SettingLine) -> Self {
        for side in Side::BOTH {
            self.arms[side] = self.arms[side].take().map(|l| of(side, l));
        }
        self
    }

    /// Lengths of the arms as ordered, as edits of the axle; the same for both wheels of it.
    pub(crate) fn edits(&self) -> Vec<Edit> {
        let one = |side: Side| {
            let by_mm = self.arms[side].as_ref()?.movement_mm;
            Some(Edit::LengthenLink { name: lower_arm(side).into(), by_mm })
        };
        Side::BOTH.into_iter().filter_map(one).collect()
    }
}

/// The thread that turns a side's lower arm: its own, or that of the pair.
fn thread(input: &PlanInput, side: Side) -> Option<&Adjuster> {
    let of = |word: &str| {
        input.adjusters[side].iter().find(|a| {
            matches!(&a.kind, AdjusterKind::Thread { link, .. } if link.word() == word) && !a.is_fixed()
        })
    };
    of(lower_arm(side)).or_else(|| of("lower"))
}

/// Where both ends of the axle stand along the car with its lower arms longer by so much, mm forward; and how it lies.
fn ends(c: &SolidAxleCorner, travel: f64, by: Sides<f64>) -> Option<(Vector2<f64>, f64, f64)> {
    let edits: Vec<Edit> = by
        .each()
        .into_iter()
        .map(|(s, mm)| Edit::LengthenLink { name: lower_arm(s).into(), by_mm: *mm })
        .collect();
    let Corner::Axle(c) = Corner::Axle(c.clone()).edited(&edits) else { return None };
    let a = c.axle_pose(travel, 0.0).ok()?;
    let left = c.left_wheel(&a).centre;
    let right = a.midpoint * 2.0 - left;
    Some((Vector2::new(left.x, right.x), a.yaw, a.stretch))
}

/// Lengths by which the arms that turn bring both ends to `want` (mm forward); with one arm alone, to each other.
fn lengths(c: &SolidAxleCorner, travel: f64, want: Vector2<f64>, free: Sides<bool>) -> Option<Sides<f64>> {
    let (start, _, _) = ends(c, travel, Sides::default())?;
    let mut by = Vector2::zeros();
    let of = |v: Vector2<f64>| Sides { left: v.x, right: v.y };
    for _ in 0..12 {
        let (at, _, _) = ends(c, travel, of(by))?;
        let miss = at - start - want;
        let slope = |d: Vector2<f64>| Some((ends(c, travel, of(by + d))?.0 - at) / 0.01);
        let step = match (free.left, free.right) {
            (true, true) => {
                let (l, r) = (slope(Vector2::new(0.01, 0.0))?, slope(Vector2::new(0.0, 0.01))?);
                Matrix2::from_columns(&[l, r]).try_inverse()? * miss
            }
            (left, _) => {
                let axis = if left { Vector2::x() } else { Vector2::y() };
                let s = slope(axis * 0.01)?;
                axis * ((miss.x - miss.y) / (s.x - s.y))
            }
        };
        by -= step;
        if !by.iter().all(|v| v.abs() < FAR_MM) {
            return None;
        }
        if step.amax() < 1e-9 {
            return Some(of(by));
        }
    }
    None
}

/// What squares the axle as found; none of an axle that is square, was not taped on both sides, or is no live axle.
pub(crate) fn square(input: &PlanInput, found: &Corner, travel: f64) -> Option<Square> {
    let read_mm = input.wheelbases_mm?;
    let Corner::Axle(c) = found else { return None };
    let apart = read_mm.left - read_mm.right;
    if apart.abs() <= SQUARE_MM {
        return None;
    }
    let to_mm = f64::midpoint(read_mm.left, read_mm.right);
    // A front axle farther forward makes the wheelbase longer, a rear axle shorter.
    let forward = if input.geometry.axle == Axle::Front { 1.0 } else { -1.0 };
    let want = Vector2::new(to_mm - read_mm.left, to_mm - read_mm.right) * forward;
    let threads = Sides::of(|s| thread(input, s));
    let free = threads.as_ref().map(Option::is_some);
    let nothing = |says: Said| Square {
        read_mm,
        to_mm,
        come_mm: read_mm,
        yaw_deg: 0.0,
        gives_mm: 0.0,
        squared: false,
        arms: Sides::default(),
        pair: None,
        says: says.mm("by", apart.abs()).word("side", if apart < 0.0 { "left" } else { "right" }),
    };
    if !free.left && !free.right {
        return Some(nothing(said("square-nothing-turns")));
    }
    let Some(exact) = lengths(c, travel, want, free) else {
        return Some(nothing(said("square-too-far")));
    };
    let turned = |per_turn: f64| -> Option<(Sides<f64>, Sides<f64>, f64, f64)> {
        let (start, yaw, _) = ends(c, travel, Sides::default())?;
        let to = |s: Side| {
            let (Some(a), mm) = (threads[s], exact[s]) else { return 0.0 };
            let turn_mm = a.displacement_mm(a.position + 1.0) - a.displacement_mm(a.position);
            let [low, high] = a.range();
            let turns = (mm / turn_mm * per_turn).round() / per_turn;
            (a.position + turns).clamp(low, high)
        };
        let at = Sides::of(to);
        let mm =
            |s: Side| threads[s].map_or(0.0, |a| a.displacement_mm(at[s]) - a.displacement_mm(a.position));
        let (there, yawed, gives) = ends(c, travel, Sides::of(mm))?;
        let moved = (there - start) * forward;
        let come = Sides { left: read_mm.left + moved.x, right: read_mm.right + moved.y };
        Some((at, come, yawed - yaw, gives))
    };
    let lands = |come: &Sides<f64>| {
        let both = free.left && free.right;
        let near = |v: f64| (v - to_mm).abs() <= LANDS_MM;
        if both {
            near(come.left) && near(come.right)
        } else {
            (come.left - come.right).abs() <= 2.0 * LANDS_MM
        }
    };
    // The coarsest fraction of a turn that lands.
    let tried: Vec<_> = [4.0, 6.0, 12.0, 24.0].into_iter().filter_map(turned).collect();
    let (at, come_mm, yaw, gives_mm) =
        tried.iter().find(|(_, come, _, _)| lands(come)).or_else(|| tried.last()).copied()?;
    let squared = (come_mm.left - come_mm.right).abs() <= SQUARE_MM;
    let arms = Sides::of(|s| threads[s].map(|a| SettingLine { shared: is_one_arm(a), ..line(a, at[s]) }));
    let pair = Side::BOTH.iter().find_map(|s| threads[*s].filter(|a| !is_one_arm(a)).map(|a| a.name.clone()));
    let words = match (squared, gives_mm > GIVES_MM) {
        (false, _) => said("square-short").mm("left-over", (come_mm.left - come_mm.right).abs()),
        (true, true) => said("square-binds").mm("gives", gives_mm),
        (true, false) => said("square-lands"),
    };
    let says = words
        .mm("by", apart.abs())
        .word("side", if apart < 0.0 { "left" } else { "right" })
        .mm("to", f64::midpoint(come_mm.left, come_mm.right));
    Some(Square { read_mm, to_mm, come_mm, yaw_deg: yaw.to_degrees(), gives_mm, squared, arms, pair, says })
}
