//! The plan search: every compatible set of up to four parts, the best of them set exactly, and why.
//!
//! All sets are screened to first order (`linear_search`); those worth it are posed (`quick`); the front of those is
//! set in whole notches with exact kinematics, checked, worn and doubted.

use super::answer::{begin, toe_swing};
use super::bench::SettingLine;
use super::curves::doubt_at;
use super::input::PlanInput;
use super::linear_search::{Effects, effects};
use super::quick::{Quick, quick};
use super::reach::LockCamber;
use super::reasons;
use super::solver::Shortfall;
use super::states::states;
use super::work::{Work, frees_nothing, misfits, provided};
use crate::fit::Doubt;
use crate::part::{Part, PartGroup, Rule};
use crate::problem::{Problem, in_range};
use crate::wear::{AxleWearCase, Band, life_of};
use crate::wheel::Alignment;
use rayon::prelude::*;
use serde::{Deserialize, Serialize};
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};

/// Most sets screened one by one; beyond them only the promising ones grow.
const SCREENED: usize = 600_000;
/// Sets kept of each size when there are too many.
const BEAM: usize = 600;
/// Sets posed.
const POSED: usize = 900;
/// Sets set in whole notches.
const SOLVED: usize = 28;
/// Plans answered with bands.
const ANSWERED: usize = 12;
/// What an hour of labour weighs against money, in the shop's currency (invented, for ranking only).
const HOUR: f64 = 90.0;

/// What the search may use.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct Filters {
    /// Most that parts may cost together.
    pub budget: Option<f64>,
    /// Most labour, minutes.
    pub labour_minutes: Option<u32>,
    /// What a rule book or the owner forbids.
    pub forbid: Vec<Rule>,
    /// Parts that must be in, by id or without their size.
    pub pinned: Vec<String>,
    /// Parts that must not, by id or without their size.
    pub excluded: Vec<String>,
    /// Most parts on the axle, 1 to 4; 4 when absent.
    pub most_parts: Option<usize>,
}

/// How far a search is.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Progress {
    /// What it does: `screening`, `posing`, `setting`, `wear and doubt`.
    pub doing: String,
    /// Done of it.
    pub done: usize,
    /// Of how many.
    pub of: usize,
}

/// One side of a found plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SetSide {
    /// Set, over the ground.
    pub angles: Alignment,
    /// Degrees outside the windows.
    pub shortfall: Shortfall,
    /// Half widths of the 90 % bands.
    pub doubt: Doubt,
    /// Orders.
    pub setting: Vec<SettingLine>,
    /// Positions of the vehicle's adjusters and then the parts', in their order.
    pub positions: Vec<f64>,
    /// Camber at full lock.
    pub lock: Option<LockCamber>,
}

/// A part of a found plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SetPart {
    /// Its id, with size.
    pub id: String,
    /// What it is called.
    pub name: String,
}

/// One found plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SetPlan {
    /// Its parts; none when the car as built does it.
    pub parts: Vec<SetPart>,
    /// Price of the parts.
    pub cost: f64,
    /// Labour of the parts, minutes.
    pub labour_minutes: u32,
    /// Both sides inside every window and the cross limits.
    pub reached: bool,
    /// Largest miss of either side, degrees.
    pub short_deg: f64,
    /// Left.
    pub left: SetSide,
    /// Right.
    pub right: SetSide,
    /// Range of toe over ±30 mm of travel, degrees, mean of both sides.
    pub bump_toe_deg: f64,
    /// Change of steering-axis inclination against as found, degrees.
    pub sai_change_deg: f64,
    /// Change of scrub radius against as found, mm.
    pub scrub_change_mm: f64,
    /// Wheel centre forward in the arch against as found, mm.
    pub wheel_x_mm: f64,
    /// Largest miss at each other height state, by its name, degrees.
    pub elsewhere: Vec<(String, f64)>,
    /// Distance of the shorter-lived tyre, 80 % band, km; none when no tyre was given.
    pub life_km: Option<Band>,
    /// Checks that fail.
    pub fouls: Vec<String>,
    /// What it is best at.
    pub best_at: Vec<String>,
    /// Why, one sentence each.
    pub reasons: Vec<String>,
}

/// What a search found.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SearchResult {
    /// Best first.
    pub plans: Vec<SetPlan>,
    /// Sets looked at.
    pub considered: usize,
    /// Sets posed exactly.
    pub posed: usize,
    /// Sets set in whole notches.
    pub solved: usize,
    /// Whether every allowed set was looked at.
    pub exhaustive: bool,
    /// One line.
    pub headline: String,
    /// What to do about it.
    pub sentence: String,
    /// How cars set alike in different ways would differ at full lock.
    pub ways_differ: Vec<String>,
    /// It was stopped before its end.
    pub cancelled: bool,
}

impl Filters {
    /// What is out of range, by field under `filters`.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        let budget = self.budget.unwrap_or(0.0);
        out.extend(in_range("filters.budget", budget, 0.0, 1e6, "in the shop's currency").err());
        let most = self.most_parts.unwrap_or(4) as f64;
        out.extend(in_range("filters.most_parts", most, 1.0, 4.0, "parts").err());
        for (i, p) in self.pinned.iter().enumerate().filter(|(_, p)| self.excluded.contains(p)) {
            let wrong = format!("\"{p}\" is pinned and excluded at once");
            out.push(Problem::new(format!("filters.pinned.{i}"), wrong, "one or the other"));
        }
        if self.pinned.len() > 4 {
            out.push(Problem::new("filters.pinned", "more than four parts", "four parts an axle at most"));
        }
        out
    }

    fn allows(&self, p: &Part) -> bool {
        let named = |list: &[String]| list.iter().any(|n| *n == p.id || n == p.family());
        let pinned = named(&self.pinned);
        let ruled_out = named(&self.excluded) || p.rules.iter().any(|r| self.forbid.contains(r));
        // Wheels and spacers never help, and a part that moves nothing changes nothing.
        let idle = p.group == PartGroup::Wheel || (p.edits.is_empty() && p.adjusters.is_empty());
        pinned || !(ruled_out || idle)
    }

    fn affords(&self, cost: f64, minutes: u32) -> bool {
        self.budget.is_none_or(|b| cost <= b) && self.labour_minutes.is_none_or(|l| minutes <= l)
    }
}

/// A set of parts: indexes into the pool, ascending, at most four.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Default)]
struct Ids {
    count: u8,
    at: [u16; 4],
}

impl Ids {
    fn list(&self) -> &[u16] {
        &self.at[..usize::from(self.count)]
    }

    /// With one more part in its place; the caller sees to room and order of growth.
    fn with(&self, part: u16) -> Self {
        let mut out = *self;
        let n = usize::from(self.count);
        out.at[n] = part;
        out.count += 1;
        out.at[..=n].sort_unstable();
        out
    }
}

/// A set with its first-order figures.
#[derive(Debug, Clone, Copy)]
struct Set {
    parts: Ids,
    gap: f64,
    money: f64,
    bump: f64,
    axis: f64,
}

struct Pool<'a> {
    parts: Vec<Part>,
    filters: &'a Filters,
    effects: Effects,
    /// Which pairs cannot stand together.
    clash: Vec<Vec<bool>>,
    /// For each part, groups of parts of which one has to be there too; empty where the vehicle brings it.
    needs: Vec<Vec<Vec<u16>>>,
    /// For each pin, the parts that stand for it.
    pins: Vec<Vec<u16>>,
}

/// Searches. `say` is told how far it is and answers whether to go on.
///
/// # Errors
/// Every [`Problem`] of the document or the filters.
pub fn search(
    input: &PlanInput,
    filters: &Filters,
    tyres: Option<&AxleWearCase>,
    catalogue: &[Part],
    say: &(dyn Fn(&Progress) -> bool + Sync),
) -> Result<SearchResult, Vec<Problem>> {
    let mut problems = filters.problems();
    let unfitted = PlanInput { fitted: Vec::new(), picked: [None, None], ..input.clone() };
    let (mut work, all) = begin(&unfitted, catalogue)?;
    let parts: Vec<Part> =
        all.into_iter().filter(|p| filters.allows(p) && !frees_nothing(p, input)).collect();
    for (i, n) in filters.pinned.iter().enumerate() {
        if !parts.iter().any(|p| p.id == *n || p.family() == n) {
            let field = format!("filters.pinned.{i}");
            problems.push(Problem::new(field, format!("no part \"{n}\" fits this axle"), "a part that fits"));
        }
    }
    if !problems.is_empty() {
        return Err(problems);
    }
    let stop = work.hold_within_travel(&[]);
    let work = &work;
    let cancelled = AtomicBool::new(false);
    let tell = |doing: &str, done: usize, of: usize| {
        if !say(&Progress { doing: doing.into(), done, of }) {
            cancelled.store(true, Ordering::Relaxed);
        }
    };
    let Some(effects) = effects(work, &parts, &[]) else {
        let wrong = "the car does not close at this height";
        return Err(vec![Problem::new("height_change_mm", wrong, "a height at which both sides close")]);
    };
    let has_toe = work.bench(0, &[]).toe_by.is_some();
    let pool = Pool::new(parts, filters, effects, &provided(input, has_toe));
    tell("screening", 0, pool.parts.len());
    let (sets, considered, exhaustive) = pool.screen(&cancelled);
    let chosen = worth_posing(sets);
    let posed: Vec<(Set, Quick)> =
        over(&chosen, "posing", &tell, &cancelled, |s| quick(work, &pool.of(&s.parts)).map(|q| (*s, q)));
    let posed_count = posed.len();
    let (finalists, rest) = front(posed, SOLVED, &pool);
    let set = |(s, _): &(Set, Quick)| set_plan(work, &pool.of(&s.parts), tyres).map(|p| (s.parts, p));
    let mut solved = over(&finalists, "setting", &tell, &cancelled, set);
    // Whole steps may keep a set from what it reaches where everything turns freely: the next cheapest are set too,
    // but for those that are a set that does reach with something on top.
    let reached: Vec<Ids> = solved.iter().filter(|(_, p)| p.reached).map(|(s, _)| *s).collect();
    let on_top = |s: &Ids| reached.iter().any(|r| r.list().iter().all(|x| s.list().contains(x)));
    let next: Vec<(Set, Quick)> =
        rest.into_iter().filter(|(s, q)| q.short() < 0.03 && !on_top(&s.parts)).take(SOLVED).collect();
    solved.extend(over(&next, "setting", &tell, &cancelled, set));
    let solved: Vec<SetPlan> = solved.into_iter().map(|(_, p)| p).collect();
    let solved_count = solved.len();
    let mut plans = ranked(solved);
    plans.truncate(ANSWERED);
    let mut plans =
        over(&plans, "wear and doubt", &tell, &cancelled, |p| Some(with_bands(work, p, &pool.parts, tyres)));
    plans.sort_by(|a, b| order(a).total_cmp(&order(b)));
    name_the_best(&mut plans);
    let base = quick(work, &[]);
    for p in &mut plans {
        p.reasons = reasons::of(work, p, base.as_ref());
    }
    let (headline, sentence) = reasons::verdict(&plans, stop.as_ref());
    Ok(SearchResult {
        ways_differ: reasons::ways_differ(&plans),
        plans,
        considered,
        posed: posed_count,
        solved: solved_count,
        exhaustive,
        headline,
        sentence,
        cancelled: cancelled.load(Ordering::Relaxed),
    })
}

/// Runs `f` over a list on every core, telling how far it is and leaving the rest out once cancelled.
fn over<T: Sync, R: Send>(
    list: &[T],
    doing: &str,
    tell: &(dyn Fn(&str, usize, usize) + Sync),
    cancelled: &AtomicBool,
    f: impl Fn(&T) -> Option<R> + Sync,
) -> Vec<R> {
    let done = AtomicUsize::new(0);
    let every = (list.len() / 20).max(1);
    list.par_iter()
        .filter_map(|x| {
            if cancelled.load(Ordering::Relaxed) {
                return None;
            }
            let out = f(x);
            let n = done.fetch_add(1, Ordering::Relaxed) + 1;
            if n.is_multiple_of(every) {
                tell(doing, n, list.len());
            }
            out
        })
        .collect()
}

impl<'a> Pool<'a> {
    fn new(parts: Vec<Part>, filters: &'a Filters, effects: Effects, has: &dyn Fn(&str) -> bool) -> Self {
        let rules_out = |p: &Part, q: &Part| {
            p.fits.replaces == q.fits.replaces
                || p.conflicts.iter().any(|c| c == q.family())
                || q.conflicts.iter().any(|c| c == p.family())
        };
        let clash = parts.iter().map(|p| parts.iter().map(|q| rules_out(p, q)).collect()).collect();
        let which = |f: &dyn Fn(&Part) -> bool| -> Vec<u16> {
            parts.iter().enumerate().filter(|(_, q)| f(q)).map(|(i, _)| i as u16).collect()
        };
        let needs = parts
            .iter()
            .map(|p| {
                let given = |t: &str| {
                    which(&|q| q.id != p.id && (q.family() == t || q.provides.iter().any(|x| x == t)))
                };
                p.requires.iter().filter(|t| !has(t)).map(|t| given(t)).collect()
            })
            .collect();
        let pins = filters.pinned.iter().map(|n| which(&|p| p.id == *n || p.family() == n)).collect();
        Self { filters, effects, clash, needs, pins, parts }
    }

    fn of(&self, set: &Ids) -> Vec<&Part> {
        set.list().iter().map(|i| &self.parts[usize::from(*i)]).collect()
    }

    /// The set with its figures, when it is whole: pins in it, needs met, money and time enough.
    fn set(&self, parts: &Ids) -> Option<Set> {
        let list = parts.list();
        let one_of = |group: &Vec<u16>| group.iter().any(|g| list.contains(g));
        if !self.pins.iter().all(one_of)
            || !list.iter().all(|i| self.needs[usize::from(*i)].iter().all(one_of))
        {
            return None;
        }
        let (mut cost, mut minutes, mut bump, mut scrub, mut sai) = (0.0, 0, 0.0, 0.0, 0.0);
        for i in list {
            let p = &self.parts[usize::from(*i)];
            cost += p.cost;
            minutes += p.labour_minutes;
            if let Some(d) = &self.effects.parts[usize::from(*i)] {
                bump += d.bump;
                scrub += d.scrub_mm;
                sai += d.sai_deg;
            }
        }
        self.filters.affords(cost, minutes).then(|| Set {
            gap: self.effects.gap(list),
            money: cost + HOUR * f64::from(minutes) / 60.0,
            bump,
            axis: f64::abs(scrub) / 10.0 + f64::abs(sai),
            parts: *parts,
        })
    }

    /// Every allowed set with its first-order figures, how many were looked at, and whether they were all.
    fn screen(&self, cancelled: &AtomicBool) -> (Vec<Set>, usize, bool) {
        let usable: Vec<u16> =
            (0..self.parts.len()).filter(|i| self.effects.parts[*i].is_some()).map(|i| i as u16).collect();
        let most = self.filters.most_parts.unwrap_or(4).min(4);
        let mut level: Vec<Ids> = vec![Ids::default()];
        let mut out: Vec<Set> = Vec::new();
        let (mut considered, mut exhaustive) = (0usize, true);
        for size in 0..=most {
            if cancelled.load(Ordering::Relaxed) {
                break;
            }
            considered += level.len();
            out.par_extend(level.par_iter().filter_map(|s| self.set(s)));
            if size == most {
                break;
            }
            if level.len().saturating_mul(usable.len()) / (size + 1) > SCREENED {
                // Too many to look at all: only the most promising ones grow.
                exhaustive = false;
                level.par_sort_by_cached_key(|s| ((self.effects.gap(s.list()) / 0.05).round() as i64, *s));
                level.truncate(BEAM);
            }
            // Parts after the last of a set, so that each set comes once; any of them once sets were left out.
            let grow_all = !exhaustive;
            let grown = |s: &Ids| -> Vec<Ids> {
                let last = s.list().last().copied();
                usable
                    .iter()
                    .filter(|p| grow_all || last.is_none_or(|l| **p > l))
                    .filter(|p| !s.list().iter().any(|q| self.clash[usize::from(*q)][usize::from(**p)]))
                    .map(|p| s.with(*p))
                    .collect()
            };
            let mut next: Vec<Ids> = level.par_iter().flat_map_iter(grown).collect();
            if grow_all {
                next.par_sort_unstable();
                next.dedup();
            }
            level = next;
        }
        (out, considered, exhaustive)
    }
}

/// The sets to pose: nearest first, and among those that reach alike the cheapest, the least bump steer, the least
/// change of the axis, the fewest parts. Single parts come in any case: what is simple must not be missed by a
/// first-order screen.
fn worth_posing(mut sets: Vec<Set>) -> Vec<Set> {
    type Key = fn(&Set) -> f64;
    let keys: [(usize, Key); 4] = [
        (POSED / 2, |s| s.money),
        (POSED / 6, |s| s.bump + 1e-6 * s.money),
        (POSED / 6, |s| s.axis + 1e-6 * s.money),
        (POSED / 6, |s| f64::from(s.parts.count) * 1e6 + s.money),
    ];
    let mut out: Vec<Set> = sets.iter().filter(|s| s.parts.count <= 1).copied().collect();
    let mut seen: std::collections::HashSet<Ids> = out.iter().map(|s| s.parts).collect();
    for (count, key) in keys {
        let near = |s: &Set| (s.gap / 0.05).round();
        let cmp = |a: &Set, b: &Set| {
            near(a).total_cmp(&near(b)).then(key(a).total_cmp(&key(b))).then(a.parts.cmp(&b.parts))
        };
        let count = count.min(sets.len());
        if sets.len() > count {
            sets.select_nth_unstable_by(count, cmp);
        }
        out.extend(sets.iter().take(count).filter(|s| seen.insert(s.parts)).copied());
    }
    out.sort_by_key(|s| s.parts);
    out
}

/// A set and how it was judged.
type Posed = (Set, Quick);

/// The sets nobody beats on everything at once, nearest first, and every single part that reaches: another way to
/// the same angles is a choice even when it costs more (of each part the size that moves the axis least). The second
/// list is what was left, in the same order.
fn front(mut posed: Vec<(Set, Quick)>, most: usize, pool: &Pool<'_>) -> (Vec<Posed>, Vec<Posed>) {
    let figures = |(s, q): &(Set, Quick)| {
        [(q.short() / 0.02).round(), s.money, (s.bump / 0.02).round(), (s.axis / 0.25).round()]
    };
    posed.sort_by(|a, b| {
        let (x, y) = (figures(a), figures(b));
        x[0].total_cmp(&y[0]).then(x[1].total_cmp(&y[1])).then(a.0.parts.cmp(&b.0.parts))
    });
    let mut out: Vec<(Set, Quick)> = Vec::new();
    let mut families: Vec<&str> = Vec::new();
    let mut singles: Vec<usize> =
        (0..posed.len()).filter(|i| posed[*i].0.parts.count == 1 && figures(&posed[*i])[0] < 1.5).collect();
    singles.sort_by(|a, b| posed[*a].0.axis.total_cmp(&posed[*b].0.axis));
    singles.retain(|i| {
        let family = pool.of(&posed[*i].0.parts).first().map_or("", |p| p.family());
        let new = !families.contains(&family);
        families.push(family);
        new
    });
    let mut rest: Vec<(Set, Quick)> = Vec::new();
    for (i, p) in posed.into_iter().enumerate() {
        let mine = figures(&p);
        let beaten = out.iter().any(|o| figures(o).iter().zip(&mine).all(|(a, b)| a <= b));
        if singles.contains(&i) || p.0.parts.count == 0 || (!beaten && out.len() < most) {
            out.push(p);
        } else {
            rest.push(p);
        }
    }
    (out, rest)
}

/// Sets the parts exactly.
fn set_plan(work: &Work<'_>, parts: &[&Part], tyres: Option<&AxleWearCase>) -> Option<SetPlan> {
    let (benches, set) = work.settings(parts, false)?;
    let turn = work.lock_turn();
    let side = |i: usize| SetSide {
        angles: set[i].angles,
        shortfall: set[i].shortfall,
        doubt: Doubt::default(),
        setting: benches[i].lines(&set[i].positions),
        positions: set[i].positions.clone(),
        lock: turn.as_ref().and_then(|t| benches[i].at_lock(&set[i].positions, t)),
    };
    let mut fouls: Vec<String> = (0..2)
        .flat_map(|i| work.checks(i, parts, &set[i].positions))
        .filter(|c| !c.ok)
        .map(|c| c.words)
        .collect();
    fouls.sort();
    fouls.dedup();
    let has = provided(work.input, benches[0].toe_by.is_some());
    fouls.extend(misfits(parts, &has));
    let short_deg = set.iter().map(|s| s.shortfall.worst()).fold(0.0, f64::max);
    let aim = work.aim();
    let cross_ok = (set[0].angles.camber_deg - set[1].angles.camber_deg).abs() <= aim.cross_camber_deg
        && (!work.input.steered()
            || (set[0].angles.caster_deg - set[1].angles.caster_deg).abs() <= aim.cross_caster_deg);
    let mean = |f: &dyn Fn(&Alignment) -> f64| {
        use crate::linkage::Linkage;
        let was = |i: usize| {
            work.sides[i].found.wheel(work.sides[i].travel, 0.0).ok().map(|w| f(&w.or_unsteered()))
        };
        let now = 0.5 * (f(&set[0].angles) + f(&set[1].angles));
        now - 0.5 * (was(0).unwrap_or(now) + was(1).unwrap_or(now))
    };
    let positions = [set[0].positions.clone(), set[1].positions.clone()];
    let elsewhere = states(work, parts, &positions)
        .into_iter()
        .filter(|s| !s.judged && s.kind != crate::vehicle::StateKind::Arrived)
        .map(|s| {
            let off = |x: &Option<super::states::StateSide>| {
                x.as_ref().map_or(0.0, |x| x.verdicts.iter().map(|v| v.off_deg.abs()).fold(0.0, f64::max))
            };
            (s.name, off(&s.left).max(off(&s.right)))
        })
        .collect();
    let life = tyres.and_then(|t| {
        let toe = 0.5 * (set[0].angles.toe_deg + set[1].angles.toe_deg);
        let km = set
            .iter()
            .filter_map(|s| life_of(t, s.angles.camber_deg, toe, s.angles.caster_deg))
            .fold(f64::MAX, f64::min);
        (km < f64::MAX).then_some(Band { low: km, median: km, high: km })
    });
    Some(SetPlan {
        parts: parts.iter().map(|p| SetPart { id: p.id.clone(), name: p.name.clone() }).collect(),
        cost: parts.iter().map(|p| p.cost).fold(0.0, |a, b| a + b),
        labour_minutes: parts.iter().map(|p| p.labour_minutes).sum(),
        reached: short_deg < 1e-6 && cross_ok,
        short_deg,
        left: side(0),
        right: side(1),
        bump_toe_deg: 0.5 * (0..2).map(|i| toe_swing(&benches[i], &set[i].positions)).sum::<f64>(),
        sai_change_deg: mean(&|a| a.sai_deg),
        scrub_change_mm: mean(&|a| a.scrub_radius_mm),
        wheel_x_mm: mean(&|a| a.wheel_x_mm),
        elsewhere,
        life_km: life,
        fouls,
        best_at: Vec::new(),
        reasons: Vec::new(),
    })
}

/// What reaches and fouls nothing first, then what reaches, then by what is left; among equals less money, fewer parts.
fn order(p: &SetPlan) -> f64 {
    let money = p.cost + HOUR * f64::from(p.labour_minutes) / 60.0;
    let foul = p.fouls.len() as f64;
    let short = if p.reached { 0.0 } else { 0.2 + p.short_deg };
    1e6 * short + 3e5 * foul.min(3.0) + money + 5.0 * p.parts.len() as f64 + 40.0 * p.bump_toe_deg
}

/// Drops plans that another beats in everything, and orders the rest.
fn ranked(mut plans: Vec<SetPlan>) -> Vec<SetPlan> {
    plans.sort_by(|a, b| order(a).total_cmp(&order(b)));
    let figures = |p: &SetPlan| {
        let life = p.life_km.as_ref().map_or(0.0, |l| l.median);
        [
            if p.reached { 0.0 } else { (p.short_deg / 0.05).ceil() },
            p.fouls.len() as f64,
            p.cost,
            f64::from(p.labour_minutes),
            (p.bump_toe_deg / 0.02).round(),
            (p.scrub_change_mm.abs() / 5.0).round() + (p.sai_change_deg.abs() / 0.5).round(),
            (p.wheel_x_mm.abs() / 5.0).round(),
            -(life / 1000.0).round(),
        ]
    };
    let mut out: Vec<SetPlan> = Vec::new();
    for p in plans {
        let mine = figures(&p);
        let beaten = out.iter().any(|o| figures(o).iter().zip(&mine).all(|(a, b)| a <= b));
        let single = p.parts.len() == 1 && p.reached;
        if single || !beaten {
            out.push(p);
        }
    }
    // Enough ways reach: what does not is left out, but the car as built stays to be compared with.
    if out.iter().filter(|p| p.reached && p.fouls.is_empty()).count() >= 3 {
        out.retain(|p| p.reached || p.parts.is_empty());
    }
    out
}

/// Bands of the angles and of the tyre's distance.
fn with_bands(work: &Work<'_>, p: &SetPlan, pool: &[Part], tyres: Option<&AxleWearCase>) -> SetPlan {
    let mut out = p.clone();
    let parts: Vec<&Part> = p.parts.iter().filter_map(|n| pool.iter().find(|q| q.id == n.id)).collect();
    let at = work.state.own_mm;
    for i in 0..2 {
        let bench = work.bench(i, &parts);
        let d = work.doubts(i, &bench, &parts, at, at + 1e-6).map(|d| doubt_at(&d, at)).unwrap_or_default();
        if i == 0 { out.left.doubt = d } else { out.right.doubt = d }
    }
    out.life_km = tyres.and_then(|t| {
        let toe = 0.5 * (p.left.angles.toe_deg + p.right.angles.toe_deg);
        [&p.left, &p.right]
            .into_iter()
            .filter_map(|s| crate::wear::life_band(t, s.angles.camber_deg, toe, s.angles.caster_deg))
            .min_by(|a, b| a.median.total_cmp(&b.median))
    });
    out
}

fn name_the_best(plans: &mut [SetPlan]) {
    let good: Vec<usize> =
        (0..plans.len()).filter(|i| plans[*i].reached && plans[*i].fouls.is_empty()).collect();
    if good.len() < 2 {
        return;
    }
    let least = |f: &dyn Fn(&SetPlan) -> f64| {
        let best = good.iter().copied().min_by(|a, b| f(&plans[*a]).total_cmp(&f(&plans[*b])))?;
        let alone = good.iter().all(|i| *i == best || f(&plans[*i]) > f(&plans[best]) + 1e-9);
        alone.then_some(best)
    };
    let titles: [(&str, Option<usize>); 6] = [
        ("least money", least(&|p| p.cost)),
        ("least labour", least(&|p| f64::from(p.labour_minutes))),
        ("least bump steer", least(&|p| (p.bump_toe_deg / 0.01).round())),
        ("axis changed least", least(&|p| p.sai_change_deg.abs() + p.scrub_change_mm.abs() / 10.0)),
        ("wheel most central in the arch", least(&|p| p.wheel_x_mm.abs())),
        ("longest tyre life", least(&|p| -p.life_km.as_ref().map_or(0.0, |l| (l.median / 200.0).round()))),
    ];
    for (title, at) in titles {
        if let Some(i) = at {
            plans[i].best_at.push(title.to_owned());
        }
    }
}
