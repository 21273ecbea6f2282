//! How high, and how low, an axle can go with what is on it, and with each set of parts: over the height axis, how much of
//! the aim stays within reach of each side, where it ends, and what ends it.

use super::angle::AngleName;
use super::begin::begin;
use super::budget::Budget;
use super::car::CarInput;
use super::height::PlanState;
use super::input::PlanInput;
use super::jack_sweep::fitted_to_sweep;
use super::quick::{Linear, Settled, WEIGHT, linear, settle};
use super::reach::Plane;
use super::work::{Work, misfits, provided};
use crate::aim::Target;
use crate::part::Part;
use bold_stance_car::fit::Doubt;
use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};
use rayon::prelude::*;
use serde::{Deserialize, Serialize};

/// Most sets of one ladder besides as built.
pub const MOST_SETS: usize = 12;
/// Distance of two rungs, mm.
const RUNG_MM: f64 = 5.0;
/// Usual ends of the height axis from as found, mm.
pub const USUAL_SPAN_MM: [f64; 2] = [-60.0, 120.0];

/// What a ladder is asked for.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct LadderAsked {
    /// The car and its plan; the other axle stays as planned.
    pub car: CarInput,
    /// Which axle.
    pub axle: Axle,
    /// What the other axle does while this one goes up and down.
    #[serde(default)]
    pub other: OtherAxle,
    /// Sets of parts by id; as built comes first by itself.
    #[serde(default)]
    pub sets: Vec<Vec<String>>,
    /// Ends of the height axis, mm gained from as found.
    #[serde(default = "usual_span")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub span_mm: [f64; 2],
}

/// What the other axle does while one goes up and down.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum OtherAxle {
    /// It stays as planned: the body pitches.
    #[default]
    AsPlanned,
    /// It goes along: the rake of the plan is kept.
    KeepsRake,
}

fn usual_span() -> [f64; 2] {
    USUAL_SPAN_MM
}

/// One height of one set.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Rung {
    /// Gained from as found, mm.
    pub gain_mm: f64,
    /// Share of the aim's window that each side can be set into, 0 to 1.
    pub share: Sides<f64>,
    /// Whether both sides can be set inside every window, as the model has it.
    pub may: bool,
    /// Whether half the doubt still fits inside.
    pub sure: bool,
}

/// What ends a ladder.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LadderEnd {
    /// The angle that gives out first; none where something else ends it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub angle: Option<AngleName>,
    /// In words: the angle, a check that fails, or that the axle goes no farther.
    pub words: Said,
}

/// One set over the height axis.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Ladder {
    /// Its parts, by id; empty as built.
    pub parts: Vec<String>,
    /// Their names.
    pub names: Vec<String>,
    /// Labour they take, minutes.
    pub labour_minutes: u32,
    /// From the lowest height to the highest that the axle reaches.
    pub rungs: Vec<Rung>,
    /// Lowest and highest height that is sure, next to as found, mm; none where none is.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub sure_mm: Option<[f64; 2]>,
    /// The same as the model has it, without doubt.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub may_mm: Option<[f64; 2]>,
    /// What ends it above; none where it goes beyond the axis.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub above: Option<LadderEnd>,
    /// What ends it below.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub below: Option<LadderEnd>,
}

/// Every set of an axle over the height axis.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Ladders {
    /// Which axle.
    pub axle: Axle,
    /// As built first.
    pub ladders: Vec<Ladder>,
    /// Highest height that any of them surely reaches, mm; none where none does.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub highest_mm: Option<f64>,
    /// In one line: as built to, each set to, nothing above.
    pub says: Said,
}

/// Works the ladders of an axle out.
///
/// # Errors
/// Every [`Problem`], by field of the car's document; an axle the job does not give.
pub fn ladders(a: &LadderAsked, catalogue: &[Part], budget: &Budget) -> Result<Ladders, Vec<Problem>> {
    let mut wrong: Vec<Problem> = a.car.problems().into_iter().map(|p| under(&p)).collect();
    let [low, high] = a.span_mm;
    wrong.extend(in_range("span_mm.0", low, -200.0, 0.0, "mm").err());
    wrong.extend(in_range("span_mm.1", high, 0.0, 250.0, "mm").err());
    if a.sets.len() > MOST_SETS {
        let right = said("fault-sets-most").count("n", MOST_SETS);
        wrong.push(Problem::new("sets", said("fault-too-many"), right));
    }
    let Some(input) = a.car.axle(a.axle) else {
        wrong.push(Problem::new("axle", said("fault-no-axle-was-read-yet"), said("fault-read-it-first")));
        return Err(wrong);
    };
    if !wrong.is_empty() {
        return Err(wrong);
    }
    let bare = PlanInput { fitted: Vec::new(), picked: Sides::default(), ..input };
    let at_home = |list: Vec<Problem>| -> Vec<Problem> {
        list.into_iter().map(|p| under(&CarInput::at_home(a.axle, p))).collect()
    };
    let bare = fitted_to_sweep(&bare).map_err(|p| at_home(vec![p]))?;
    let (work, parts) = begin(&bare, catalogue, budget).map_err(at_home)?;
    let work = work.with_work_for_each_set();
    let has_toe = work.bench(0, &[]).toe_by.is_some();
    let mut sets: Vec<Vec<&Part>> = vec![Vec::new()];
    for (i, ids) in a.sets.iter().enumerate() {
        let list = work.named(ids, &parts);
        if list.len() != ids.len() {
            let known = |id: &&String| !list.iter().any(|p| p.id == **id || p.family() == id.as_str());
            let id = ids.iter().find(known).cloned().unwrap_or_default();
            let (wrong, right) = (said("fault-no-part-id").name("id", id), said("fault-id-part-catalogue"));
            return Err(vec![Problem::new(format!("sets.{i}"), wrong, right)]);
        }
        // What cannot stand together is no set.
        if misfits(&list, &bare, &provided(&bare, has_toe)).is_empty() {
            sets.push(list);
        }
    }
    let n = ((high - low) / RUNG_MM).round() as usize;
    let heights: Vec<f64> = (0..=n).map(|k| low + (high - low) * k as f64 / n.max(1) as f64).collect();
    let doubts = doubts(&work, &heights);
    let along = Along { work: &work, other: a.other };
    let ladders: Vec<Ladder> = sets.par_iter().map(|s| one(&along, s, &heights, &doubts)).collect();
    let highest_mm = ladders.iter().filter_map(|l| Some(l.sure_mm?[1])).reduce(f64::max);
    let says = says(&ladders, highest_mm, high);
    Ok(Ladders { axle: a.axle, ladders, highest_mm, says })
}

fn under(p: &Problem) -> Problem {
    Problem { field: format!("car.{}", p.field), ..p.clone() }
}

/// Half widths as built over the heights, each side; parts widen them little beside that.
fn doubts(work: &Work<'_>, heights: &[f64]) -> [Vec<Doubt>; 2] {
    let (low, high) = (heights.first().copied().unwrap_or(0.0), heights.last().copied().unwrap_or(0.0));
    [0, 1].map(|i| {
        let at = |low: f64, high: f64| {
            let bench = work.bench(i, &[]);
            work.doubts(i, &bench, &bench.start(), &[], low, high).ok()
        };
        // Where the axle does not reach all of the axis, as far as its middle does.
        let list =
            at(low, high).or_else(|| at(0.5 * low, 0.5 * high)).or_else(|| at(0.0, 0.0)).unwrap_or_default();
        let near = |h: f64| {
            let known = list.iter().filter_map(|(g, d)| Some((g, (*d)?)));
            known
                .min_by(|a, b| (a.0 - h).abs().total_cmp(&(b.0 - h).abs()))
                .map_or_else(Doubt::default, |(_, d)| d)
        };
        heights.iter().map(|h| near(*h)).collect()
    })
}

/// An axle going up and down.
struct Along<'w, 'a> {
    work: &'w Work<'a>,
    other: OtherAxle,
}

impl Along<'_, '_> {
    /// The height state at a gain; the aim may count at another than the planned one.
    fn state(&self, gain_mm: f64) -> PlanState {
        let work = self.work;
        let (own, planned) = (work.input.geometry.axle, work.input.own().height_change_mm);
        let mut out = work.state.at_own(own, gain_mm + work.state.own_mm - planned);
        if self.other == OtherAxle::KeepsRake {
            let far = super::car::other(own);
            out.gain_mm[far] += gain_mm - planned;
        }
        out
    }
}

/// What one side can do at a height.
struct At {
    share: f64,
    /// Degrees outside each window.
    out: [f64; 3],
}

/// What both can.
struct Both {
    sides: [At; 2],
    may: bool,
    sure: bool,
}

fn shrunk(t: &Target, d: &Doubt) -> Target {
    let of = |w: [f64; 2], d: f64| {
        let by = (0.5 * d).min(0.5 * (w[1] - w[0]));
        [w[0] + by, w[1] - by]
    };
    // Toe is set last with the gauge beside it: its doubt is the reading's, not the height's.
    Target { camber: of(t.camber, d.camber_deg), caster: of(t.caster, d.caster_deg), toe: t.toe }
}

/// Degrees outside a window that nobody reads, and that the search for a setting may leave.
const NOTHING: f64 = 0.01;

/// The part of a window about a value; the end nearest to it where there is none.
fn about(w: [f64; 2], v: f64, by: f64) -> [f64; 2] {
    let out = [w[0].max(v - by), w[1].min(v + by)];
    if out[0] <= out[1] { out } else { [v.clamp(w[0], w[1]); 2] }
}

/// Both sides at a height: each by itself, then no farther apart than the aim allows.
fn both(along: &Along<'_, '_>, parts: &[&Part], gain_mm: f64, d: [&Doubt; 2]) -> Option<Both> {
    let (work, state) = (along.work, along.state(gain_mm));
    let benches = [0, 1].map(|i| work.bench_at(i, parts, &state));
    let [l, r] = [0, 1].map(|i| linear(&benches[i]));
    let reach = [l?, r?];
    let inside = |s: &Settled| s.out.iter().sum::<f64>() < NOTHING;
    // Near the edge what the adjusters do has changed on the way there: it is looked at anew from where they came to.
    let settled = |i: usize, t: &Target| -> Option<Settled> {
        let mut s = settle(&benches[i], &reach[i], t)?;
        for _ in 0..ANEW {
            if inside(&s) || s.out.iter().sum::<f64>() > NEAR_DEG {
                break;
            }
            let mut there = benches[i].clone();
            there.adjusters.iter_mut().zip(&s.positions).for_each(|(a, p)| a.position = *p);
            let again = linear(&there).and_then(|l| settle(&there, &l, t));
            match again.filter(|n| n.out.iter().sum::<f64>() < s.out.iter().sum::<f64>()) {
                Some(n) => s = n,
                None => break,
            }
        }
        Some(s)
    };
    let cross = work.input.cross();
    let together = |l: &Settled, r: &Settled| {
        let off = cross.off(l.at[0] - r.at[0], l.at[1] - r.at[1]);
        off[0].abs() <= cross.camber + NOTHING && off[1].abs() <= cross.caster + NOTHING
    };
    // One side brought as near to the other as the limits want it.
    let beside = |i: usize, t: &Target, other: &Settled| {
        let sign = if i == 0 { 1.0 } else { -1.0 };
        let near = |k: usize| other.at[k] + sign * cross.middle[k];
        Target {
            camber: about(t.camber, near(0), 0.98 * cross.camber),
            caster: about(t.caster, near(1), 0.98 * cross.caster),
            toe: t.toe,
        }
    };
    let lands = |t: &[Target; 2]| -> Option<([Settled; 2], bool)> {
        let (l, r) = (settled(0, &t[0])?, settled(1, &t[1])?);
        if !(inside(&l) && inside(&r)) {
            return Some(([l, r], false));
        }
        if together(&l, &r) {
            return Some(([l, r], true));
        }
        let right = settled(1, &beside(1, &t[1], &l)).filter(|s| inside(s) && together(&l, s));
        let left = || settled(0, &beside(0, &t[0], &r)).filter(|s| inside(s) && together(s, &r));
        let near = right.is_some() || left().is_some();
        Some(([l, r], near))
    };
    let (found, may) = lands(&work.targets)?;
    let tight = [shrunk(&work.targets[0], d[0]), shrunk(&work.targets[1], d[1])];
    let sure = may && lands(&tight).is_some_and(|(_, ok)| ok);
    let of = |i: usize| {
        let share = if inside(&found[i]) {
            share(&reach[i], &work.targets[i], work.plane).max(LEAST_SHARE)
        } else {
            0.0
        };
        At { share, out: found[i].out }
    };
    Some(Both { sides: [of(0), of(1)], may, sure })
}

/// How often adjusters near the edge of a window are looked at anew, and how near, degrees.
const ANEW: usize = 3;
const NEAR_DEG: f64 = 1.5;
/// What is drawn of a side that just reaches.
const LEAST_SHARE: f64 = 0.03;

fn one(along: &Along<'_, '_>, parts: &[&Part], heights: &[f64], doubts: &[Vec<Doubt>; 2]) -> Ladder {
    let at = |k: usize| both(along, parts, heights[k], [&doubts[0][k], &doubts[1][k]]);
    let all: Vec<Option<Both>> = (0..heights.len()).map(at).collect();
    let may: Vec<bool> = all.iter().map(|a| a.as_ref().is_some_and(|s| s.may)).collect();
    let sure: Vec<bool> = all.iter().map(|a| a.as_ref().is_some_and(|s| s.sure)).collect();
    let mut rungs: Vec<Rung> = all
        .iter()
        .enumerate()
        .filter_map(|(k, a)| {
            let [l, r] = &a.as_ref()?.sides;
            let share = Sides { left: l.share, right: r.share };
            Some(Rung { gain_mm: heights[k], share, may: may[k], sure: sure[k] })
        })
        .collect();
    let near = |h: f64| {
        let off = |k: &usize| (heights[*k] - h).abs();
        (0..heights.len()).min_by(|a, b| off(a).total_cmp(&off(b))).unwrap_or(0)
    };
    let holds = |h: f64, sure: bool| {
        let k = near(h);
        both(along, parts, h, [&doubts[0][k], &doubts[1][k]])
            .is_some_and(|s| if sure { s.sure } else { s.may })
    };
    // The angle that is farthest out, or that the sides are too far apart.
    let gives_out = |s: &Both| {
        let of = |k: usize| s.sides.iter().map(|a| a.out[k] * WEIGHT[k]).fold(0.0, f64::max);
        let worst = (0..3).max_by(|a, b| of(*a).total_cmp(&of(*b))).unwrap_or(0);
        if of(worst) < NOTHING {
            return LadderEnd { angle: None, words: said("ladder-apart") };
        }
        let angle = [AngleName::Camber, AngleName::Caster, AngleName::Toe][worst];
        LadderEnd { angle: Some(angle), words: said("ladder-angle").word("angle", angle.word()) }
    };
    let mut sure_mm = interval(heights, &sure, |h| holds(h, true));
    let mut may_mm = interval(heights, &may, |h| holds(h, false));
    let end = |up: bool, edge: f64| -> Option<LadderEnd> {
        let last = if up { *heights.last()? } else { *heights.first()? };
        if (edge - last).abs() < 0.5 {
            return None;
        }
        // The first rung past the edge says what gives out.
        let mut past = heights.iter().enumerate();
        let k = if up {
            past.position(|(_, h)| *h > edge + 0.25)?
        } else {
            past.rposition(|(_, h)| *h < edge - 0.25)?
        };
        Some(match &all[k] {
            None => LadderEnd { angle: None, words: said("ladder-travel") },
            Some(s) => gives_out(s),
        })
    };
    let (mut above, mut below) = (None, None);
    if let Some([l, h]) = may_mm {
        (above, below) = (end(true, h), end(false, l));
    } else if let Some(k) = nearest_to_found(heights) {
        // Out of reach where it stands: what is out there.
        above = all[k].as_ref().map(gives_out);
    }
    // What meets something caps it, whatever the angles do.
    if let Some([bottom, top]) = may_mm
        && let Some((free, words)) = cap(along, parts, [bottom, top])
    {
        let cut = |w: Option<[f64; 2]>| w.and_then(|[l, h]| free.filter(|f| *f > l).map(|f| [l, h.min(f)]));
        (sure_mm, may_mm) = (cut(sure_mm), cut(may_mm));
        above = Some(LadderEnd { angle: None, words });
        // Above it nothing holds.
        let ends = may_mm.map_or(f64::MIN, |m| m[1]);
        for r in rungs.iter_mut().filter(|r| r.gain_mm > ends + 1e-9) {
            (r.may, r.sure, r.share) = (false, false, Sides::default());
        }
    }
    Ladder {
        parts: parts.iter().map(|p| p.id.clone()).collect(),
        names: parts.iter().map(|p| p.name.clone()).collect(),
        labour_minutes: parts.iter().map(|p| p.labour_minutes).sum(),
        rungs,
        sure_mm,
        may_mm,
        above,
        below,
    }
}

fn nearest_to_found(heights: &[f64]) -> Option<usize> {
    heights.iter().enumerate().min_by(|a, b| a.1.abs().total_cmp(&b.1.abs())).map(|(k, _)| k)
}

/// The stretch of heights that hold next to as found, its ends to half a millimetre.
fn interval(heights: &[f64], holds: &[bool], at: impl Fn(f64) -> bool) -> Option<[f64; 2]> {
    let home = (0..heights.len())
        .filter(|k| holds[*k])
        .min_by(|a, b| heights[*a].abs().total_cmp(&heights[*b].abs()))?;
    let (mut low, mut high) = (home, home);
    while low > 0 && holds[low - 1] {
        low -= 1;
    }
    while high + 1 < heights.len() && holds[high + 1] {
        high += 1;
    }
    let edge = |inside: f64, outside: f64| {
        let (mut a, mut b) = (inside, outside);
        while (a - b).abs() > 0.5 {
            let mid = f64::midpoint(a, b);
            if at(mid) { a = mid } else { b = mid }
        }
        a
    };
    let bottom = if low == 0 { heights[0] } else { edge(heights[low], heights[low - 1]) };
    let top = if high + 1 == heights.len() { heights[high] } else { edge(heights[high], heights[high + 1]) };
    Some([bottom, top])
}

/// The highest height with nothing met on either side (none where something is met at all of them), and what is met above it;
/// nothing where nothing is met up to the top.
fn cap(along: &Along<'_, '_>, parts: &[&Part], [bottom, top]: [f64; 2]) -> Option<(Option<f64>, Said)> {
    let met = |h: f64| -> Option<Said> {
        (0..2).find_map(|i| {
            let (work, state) = (along.work, along.state(h));
            let bench = work.bench_at(i, parts, &state);
            let at = bench.start();
            let found = work.checks_on(i, parts, &bench, &at);
            found.into_iter().find(|c| c.fouls()).map(|c| c.words)
        })
    };
    let mut words = met(top)?;
    let (mut free, mut fouls) = (bottom, top);
    if let Some(words) = met(free) {
        return Some((None, words));
    }
    while fouls - free > 1.0 {
        let mid = f64::midpoint(free, fouls);
        match met(mid) {
            Some(w) => (fouls, words) = (mid, w),
            None => free = mid,
        }
    }
    Some((Some(free), words))
}

/// Share of the window that the adjusters reach: the reach to first order, a zonotope of what each of them brings, cut with
/// the window (Sutherland and Hodgman, Reentrant Polygon Clipping, 1974), by area. An angle nobody read counts as wide as
/// the reach itself.
fn share(l: &Linear, t: &Target, plane: Plane) -> f64 {
    let second = if plane == Plane::CamberCaster { 1 } else { 2 };
    let windows = [t.camber, t.caster, t.toe];
    let mut at = [l.here[0], l.here[second]];
    let mut ways: Vec<[f64; 2]> = Vec::new();
    for (s, room) in l.slopes.iter().zip(&l.room) {
        let v = [s[0] * (room[1] - room[0]), s[second] * (room[1] - room[0])];
        (at[0], at[1]) = (at[0] + s[0] * room[0], at[1] + s[second] * room[0]);
        // All pointing up, so that they go round once.
        if v[1] < 0.0 || (v[1] == 0.0 && v[0] < 0.0) {
            (at[0], at[1]) = (at[0] + v[0], at[1] + v[1]);
            ways.push([-v[0], -v[1]]);
        } else {
            ways.push(v);
        }
    }
    ways.retain(|v| v[0].hypot(v[1]) > 1e-9);
    ways.sort_by(|a, b| a[1].atan2(a[0]).total_cmp(&b[1].atan2(b[0])));
    let mut ring = vec![at];
    let mut go = |by: [f64; 2]| {
        at = [at[0] + by[0], at[1] + by[1]];
        ring.push(at);
    };
    ways.iter().for_each(|v| go(*v));
    ways.iter().for_each(|v| go([-v[0], -v[1]]));
    let open = |w: [f64; 2]| w[1] - w[0] > 40.0;
    let bound = |k: usize, w: [f64; 2]| -> [f64; 2] {
        if open(w) {
            let v = ring.iter().map(|p| p[k]);
            [v.clone().fold(f64::MAX, f64::min) - 0.01, v.fold(f64::MIN, f64::max) + 0.01]
        } else {
            w
        }
    };
    let (x, y) = (bound(0, windows[0]), bound(1, windows[second]));
    let whole = (x[1] - x[0]) * (y[1] - y[0]);
    if whole <= 0.0 {
        return 0.0;
    }
    let mut cut = ring.clone();
    for (k, edge, keep_above) in [(0, x[0], true), (0, x[1], false), (1, y[0], true), (1, y[1], false)] {
        cut = clip(&cut, k, edge, keep_above);
    }
    let area = |ring: &[[f64; 2]]| -> f64 {
        let turn = |(i, p): (usize, &[f64; 2])| {
            let q = ring[(i + 1) % ring.len()];
            p[0] * q[1] - q[0] * p[1]
        };
        0.5 * ring.iter().enumerate().map(turn).sum::<f64>().abs()
    };
    if cut.is_empty() { 0.0 } else { (area(&cut) / whole).min(1.0) }
}

fn clip(ring: &[[f64; 2]], k: usize, edge: f64, keep_above: bool) -> Vec<[f64; 2]> {
    let inside = |p: &[f64; 2]| if keep_above { p[k] >= edge } else { p[k] <= edge };
    let mut out = Vec::with_capacity(ring.len() + 2);
    for (i, p) in ring.iter().enumerate() {
        let q = &ring[(i + 1) % ring.len()];
        if inside(p) {
            out.push(*p);
        }
        if inside(p) != inside(q) {
            let s = (edge - p[k]) / (q[k] - p[k]);
            out.push([p[0] + s * (q[0] - p[0]), p[1] + s * (q[1] - p[1])]);
        }
    }
    out
}

/// Each set's top in one line, lowest first, and that nothing is above the highest.
fn says(list: &[Ladder], highest: Option<f64>, top: f64) -> Said {
    let mut tops: Vec<(f64, Said)> = list
        .iter()
        .filter_map(|l| {
            let [_, high] = l.sure_mm?;
            let name = match l.names.as_slice() {
                [] => said("ladder-as-built"),
                names => {
                    said("ladder-set").list("each", names.iter().map(|n| Said::text(n.clone())).collect())
                }
            };
            Some((high, said("ladder-to").say("set", name).change_mm("top", high)))
        })
        .collect();
    tops.sort_by(|a, b| a.0.total_cmp(&b.0));
    let each: Vec<Said> = tops.into_iter().map(|(_, s)| s).collect();
    match highest {
        None => said("ladder-nothing"),
        Some(h) if h > top - 0.5 => said("ladder-says").list("each", each),
        Some(_) => said("ladder-says-nothing-above").list("each", each),
    }
}
