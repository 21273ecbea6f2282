//! What is left to turn of a live axle as a whole: the lower arms that square it and the track bar that centres it, by what
//! was taped since they were turned, and what both arms are turned for caster.

use super::learner::GAIN_TOLD;
use super::live::stands_of_both;
use super::work_loop::WorkLoop;
use crate::part::Part;
use crate::plan::{
    Bench, CENTRE_MM, Order, PlanInput, SQUARE_MM, SettingLine, Square, Work, arm_in_hand, in_hand,
    is_drag_link, is_one_arm, is_track_bar, line, recentre, square,
};
use bold_stance_car::adjuster::{Adjuster, Learned};
use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Points, Side};
use bold_stance_kinematics::linkage::Corner;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// What is left to turn of an axle that is one for both wheels.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WholeLeft {
    /// How it stands, a line each: square, central.
    pub says: Vec<Said>,
    /// Everything that is turned for both wheels, from where it stands; arms that stand apart by their side.
    pub orders: Vec<Order>,
    /// What the tape taught of what was turned.
    pub taught: Vec<Said>,
}

/// How well the model knows the sideways arc of an axle when its height changes, standard deviation, mm (judgement, no
/// source).
const ARC_MM: f64 = 2.0;
/// What a tape to a hub or a plumb line leaves where a reading does not say, standard deviation, mm (common practice, no source).
const TAPE_MM: f64 = 1.0;

/// What an adjuster does over what it is said to do, by what was taped: prior and readings as one Gaussian.
#[derive(Debug, Clone, Copy)]
struct Gain {
    mean: f64,
    precision: f64,
}

impl Gain {
    fn said(sd: f64) -> Self {
        Self { mean: 1.0, precision: sd.powi(-2) }
    }

    /// Came `came` where `said` was to come, known to `sigma`.
    fn read(self, said: f64, came: f64, sigma: f64) -> Self {
        let more = (said / sigma).powi(2);
        let precision = self.precision + more;
        let mean = if more > 0.0 {
            (self.mean * self.precision + came / said * more) / precision
        } else {
            self.mean
        };
        Self { mean, precision }
    }

    /// No thread does a fourth or four times of what it says (judgement, no source).
    fn times(self) -> f64 {
        self.mean.clamp(0.25, 4.0)
    }

    fn told(self, a: &Adjuster) -> Option<Said> {
        let (least, sds) = GAIN_TOLD;
        let off = (self.mean - 1.0).abs();
        (off > least && off > sds * self.precision.powf(-0.5))
            .then(|| said("left-gain").name("name", a.name.clone()).plain("times", self.times(), 1))
    }
}

/// The thread of a side's lower arm, as found: its own or that of the pair.
fn arm<'a>(input: &'a PlanInput, s: &Square, side: Side) -> Option<&'a Adjuster> {
    let name = &s.arms[side].as_ref()?.name;
    input.adjusters[side].iter().find(|a| a.name == *name)
}

/// Where an adjuster of a side stands after the last work, as found where it was not turned.
fn stands(loops: &Sides<Vec<WorkLoop>>, side: Side, a: &Adjuster) -> f64 {
    let last = loops[side].last().and_then(|w| w.stands.get(&a.name));
    last.copied().unwrap_or(a.position)
}

/// Both wheelbases as taped after as many rounds.
fn taped(loops: &Sides<Vec<WorkLoop>>, rounds: u32) -> Option<(Sides<f64>, f64)> {
    let of = |side: Side| loops[side].iter().find(|w| w.rounds == rounds).and_then(|w| w.wheelbase);
    let (l, r) = (of(Side::Left)?, of(Side::Right)?);
    Some((Sides { left: l.0, right: r.0 }, l.1.max(TAPE_MM).hypot(r.1.max(TAPE_MM))))
}

/// How the axle is squared on, and what its arms were found to do; none where nothing squares it.
struct SquareLeft {
    /// Movement of each side's arm for squaring alone, in positions.
    by: Sides<f64>,
    says: Said,
    gain: Gain,
}

/// Edits that make the lower arms longer by so many mm.
fn lengths(mm: Sides<f64>) -> [Edit; 2] {
    let of = |name: &str, by_mm| Edit::LengthenLink { name: name.into(), by_mm };
    [of("lower_left", mm.left), of("lower_right", mm.right)]
}

fn square_left(
    input: &PlanInput,
    work: &Work<'_>,
    loops: &Sides<Vec<WorkLoop>>,
    last: u32,
) -> Option<SquareLeft> {
    let was = work.square.as_ref()?;
    let (found, travel) = (&work.sides[0].found, work.sides[0].travel);
    let arms = Sides::of(|s| arm(input, was, s));
    let at = |rounds: u32| {
        Sides::of(|s| {
            let a = arms[s]?;
            let p = loops[s].iter().rev().find(|w| w.rounds <= rounds)?.stands.get(&a.name)?;
            Some(a.displacement_mm(*p) - a.displacement_mm(a.position))
        })
        .map(|v| v.unwrap_or(0.0))
    };
    // Left minus right, as turning is said to change it.
    let apart = |mm: Sides<f64>| {
        let ends = |c: &Corner| {
            let Corner::Axle(c) = c else { return None };
            let pose = c.axle_pose(travel, 0.0).ok()?;
            let left = c.left_wheel(&pose).centre;
            let right = pose.midpoint * 2.0 - left;
            Some(left.x - right.x)
        };
        let forward = if input.geometry.axle == Axle::Front { 1.0 } else { -1.0 };
        Some(forward * (ends(&found.edited(&lengths(mm)))? - ends(found)?))
    };
    let first = arms.each().into_iter().find_map(|(_, a)| *a)?;
    let mut gain = Gain::said(first.gain_sd());
    let start = was.read_mm.left - was.read_mm.right;
    let rounds: Vec<u32> = loops.left.iter().map(|w| w.rounds).collect();
    for n in &rounds {
        if let (Some((w, sigma)), Some(said)) = (taped(loops, *n), apart(at(*n))) {
            gain = gain.read(said, w.left - w.right - start, sigma.hypot(std::f64::consts::SQRT_2 * TAPE_MM));
        }
    }
    let nothing = |says: Said| Some(SquareLeft { by: Sides::default(), says, gain });
    let Some((now, _)) = taped(loops, last) else { return nothing(said("whole-tape-it")) };
    if (now.left - now.right).abs() <= SQUARE_MM {
        return nothing(said("whole-square").mm("apart", (now.left - now.right).abs()).mm("most", SQUARE_MM));
    }
    let g = gain.times();
    let mm = at(last).map(|v| v * g);
    let there = found.edited(&lengths(mm));
    let adjusters = Sides::of(|s| {
        let as_it_stands = |a: &Adjuster| match &arms[s] {
            Some(b) if b.name == a.name => {
                Adjuster { position: stands(loops, s, a), ..a.learned(g).adjuster }
            }
            _ => a.clone(),
        };
        input.adjusters[s].iter().map(as_it_stands).collect()
    });
    let again = PlanInput { wheelbases_mm: Some(now), adjusters, ..input.clone() };
    let next = square(&again, &there, travel)?;
    let by = Sides::of(|s| next.arms[s].as_ref().map_or(0.0, |l| l.movement));
    Some(SquareLeft { by, says: next.says, gain })
}

/// The track bar by what was measured since it was turned, then the drag link after it.
struct CentreLeft {
    lines: Vec<SettingLine>,
    says: Option<Said>,
    taught: Option<Said>,
}

/// Where the middle of the axle stands, mm to the left.
fn midpoint_mm(bench: &Bench, at: &[f64], travel_mm: f64) -> Option<f64> {
    let Corner::Axle(c) = bench.set(at) else { return None };
    Some(c.axle_pose(travel_mm, 0.0).ok()?.midpoint.y)
}

fn centre_left(
    input: &PlanInput,
    work: &Work<'_>,
    (bench, points): (&Bench, &Points),
    loops: &[WorkLoop],
    (now, then): (&[f64], &[f64]),
) -> Option<CentreLeft> {
    let bar = bench.adjusters.iter().position(|a| is_track_bar(a) && !a.is_fixed())?;
    let read = loops.last().and_then(|w| w.centre);
    let turned = loops.iter().any(|w| w.stands.contains_key(&bench.adjusters[bar].name));
    let nothing = |says| Some(CentreLeft { lines: Vec::new(), says, taught: None });
    let Some((off, _)) = read else { return nothing(turned.then(|| said("whole-centre-it"))) };
    // Where it would stand with the bar as found, by the model's arc; what it came to more is the bar's.
    let mut gain = Gain::said(bench.adjusters[bar].gain_sd());
    if let Some(first) = input.axle_offset_mm {
        let Corner::Axle(c) = &work.sides[0].found else { return None };
        let y = c.axle_pose(work.sides[0].travel, 0.0).ok()?.midpoint.y;
        for w in loops {
            let Some(((r, sigma), p)) = w.centre.zip(w.stands.get(&bench.adjusters[bar].name)) else {
                continue;
            };
            let mut without = now.to_vec();
            without[bar] = bench.adjusters[bar].position;
            let mut with = without.clone();
            with[bar] = *p;
            let (a, b) = midpoint_mm(bench, &without, bench.travel_mm).zip(midpoint_mm(
                bench,
                &with,
                bench.travel_mm,
            ))?;
            let plain = first - (a - y);
            gain = gain.read(a - b, r - plain, sigma.max(TAPE_MM).hypot(ARC_MM));
        }
    }
    let taught = gain.told(&bench.adjusters[bar]);
    if off.abs() <= CENTRE_MM {
        let says = said("whole-central").mm("off", off.abs()).mm("most", CENTRE_MM);
        return Some(CentreLeft { lines: Vec::new(), says: Some(says), taught });
    }
    let Learned { adjuster, rest, scale } = bench.adjusters[bar].learned(gain.times());
    let mut learned = bench.clone();
    learned.corner = learned.corner.edited(&rest);
    learned.adjusters[bar] = adjuster;
    for (a, p) in learned.adjusters.iter_mut().zip(now) {
        a.position = *p;
    }
    learned.adjusters[bar].position = now[bar] * scale;
    let mut here = now.to_vec();
    here[bar] *= scale;
    learned.centre_mm = midpoint_mm(&learned, &here, learned.travel_mm)? + off;
    let mut to = then.to_vec();
    to[bar] *= scale;
    to[bar] = recentre(&learned, bar, &to);
    // The wheel follows the axle on its link.
    let drag = learned.adjusters.iter().position(|a| is_drag_link(a) && !a.is_fixed());
    if let Some(d) = drag {
        // As far as it follows what the bar does now: where it stood straight before, it stands.
        let mut before = to.clone();
        before[bar] = here[bar];
        let follows = recentre(&learned, d, &to) - recentre(&learned, d, &before);
        let [low, high] = learned.adjusters[d].range();
        to[d] = (now[d] + follows).clamp(low, high);
    }
    let mut real = bench.clone();
    for (a, p) in real.adjusters.iter_mut().zip(now) {
        a.position = *p;
    }
    to[bar] /= scale;
    let mut lines: Vec<SettingLine> = [Some(bar), drag]
        .into_iter()
        .flatten()
        .map(|i| SettingLine { shared: true, ..line(&real.adjusters[i], to[i]) })
        .filter(SettingLine::moves)
        .collect();
    let bar_moves = lines.iter().any(|l| l.name == real.adjusters[bar].name);
    lines.retain(|_| bar_moves);
    let side = if off > 0.0 { "right" } else { "left" };
    let says = match (bar_moves, drag) {
        (false, _) => "whole-off-centre-ends",
        (true, Some(_)) => "whole-off-centre",
        (true, None) => "whole-off-centre-bar",
    };
    let says = said(says).mm("off", off.abs()).word("side", side);
    let lines = in_hand(&real, points, lines, |_| None);
    Some(CentreLeft { lines, says: Some(says), taught })
}

/// What is left of the axle as one. `next`: where its wheels' angles want the adjusters of `angles`, by name.
pub(super) fn whole_left(
    input: &PlanInput,
    work: &Work<'_>,
    parts: &[&Part],
    loops: &Sides<Vec<WorkLoop>>,
    shared: Vec<SettingLine>,
) -> Option<WholeLeft> {
    let last = loops.each().iter().filter_map(|(_, l)| l.last()).map(|w| w.rounds).max()?;
    let (points, _) = input.geometry.side(Side::Left);
    let bench = work.bench(0, parts);
    let was = work.square.as_ref();
    let pair = was.and_then(|s| s.pair.clone());
    let squared = square_left(input, work, loops, last);
    let end = |side: Side| loops[side].last().cloned().unwrap_or_default();
    let (l, r) = (end(Side::Left), end(Side::Right));
    let now: Vec<f64> =
        bench.adjusters.iter().map(|a| stands_of_both(&l, &r, was, &a.name).unwrap_or(a.position)).collect();
    let then: Vec<f64> = bench
        .adjusters
        .iter()
        .zip(&now)
        .map(|(a, p)| shared.iter().find(|l| l.name == a.name).map_or(*p, |l| l.position))
        .collect();
    let centred = centre_left(input, work, (&bench, &points), &loops.left, (&now, &then));
    let axle = input.geometry.axle;
    let mut orders: Vec<Order> = Vec::new();
    // Arms that stand apart are told each, what both are turned for caster among it.
    if let (Some(s), Some(q)) = (was, &squared) {
        let both =
            pair.as_ref().and_then(|p| shared.iter().find(|l| l.name == *p)).map_or(0.0, |l| l.movement);
        for side in Side::BOTH {
            let Some(a) = arm(input, s, side) else { continue };
            let one = is_one_arm(a);
            let own: BTreeMap<String, f64> = [(a.name.clone(), stands(loops, side, a))].into();
            let to = own[&a.name] + q.by[side] + if one { 0.0 } else { both };
            let [low, high] = a.range();
            let told = SettingLine { shared: one, ..line(a, to.clamp(low, high)) };
            let told = arm_in_hand(&bench, &points, told, &own);
            orders.push(Order { axle, side: (!one).then_some(side), line: told });
        }
    }
    let is_pair = |l: &&SettingLine| pair.as_ref() != Some(&l.name);
    orders.extend(shared.iter().filter(is_pair).map(|l| Order { axle, side: None, line: l.clone() }));
    let (mut says, mut taught) = (Vec::new(), Vec::new());
    if let Some(q) = squared {
        let first = was.and_then(|s| Side::BOTH.into_iter().find_map(|side| arm(input, s, side)));
        says.push(q.says);
        taught.extend(first.and_then(|a| q.gain.told(a)));
    }
    if let Some(c) = centred {
        orders.extend(c.lines.into_iter().map(|line| Order { axle, side: None, line }));
        says.extend(c.says);
        taught.extend(c.taught);
    }
    Some(WholeLeft { says, orders, taught }).filter(|w| !w.says.is_empty() || !w.orders.is_empty())
}
