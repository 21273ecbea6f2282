//! The plan search: every compatible set of up to four parts, the best of them set exactly, and why.
//!
//! All sets are screened to first order (`linear`); those worth it are posed (`quick`); the front of those is
//! set in whole notches with exact kinematics, checked, worn and doubted.

#[cfg(test)]
mod brute_tests;
mod finalists;
mod linear;
mod pool;
mod reasons;
mod whole;

use super::angle::AngleName;
use super::begin::begin;
use super::budget::Budget;
use super::car::CarInput;
use super::input::PlanInput;
use super::jack_sweep::fitted_to_sweep;
use super::line::SettingLine;
use super::quick::quick;
use super::reach::LockCamber;
use super::suits::{USUAL_RATE, needed};
use super::work::{frees_nothing, provided};
use crate::part::{Part, PartGroup, Rule};
use crate::plan::judge::Shortfall;
use bold_stance_car::fit::Doubt;
use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_kinematics::wheel::Alignment;
use bold_stance_tread::{Band, CarTyres};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said, sentences};
use finalists::{Posed, front, name_the_best, order, ranked, set_plan, with_bands};
use linear::effects;
use pool::{Ids, Pool, worth_posing};
use rayon::prelude::*;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};
pub use whole::{CarFound, CarSet, CarWish, HeightBand, TradeOff, search_whole};

/// Sets set in whole notches.
const SOLVED: usize = 28;
/// Plans answered with bands.
const ANSWERED: usize = 12;

/// What the search may use.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct Filters {
    /// Most that parts may cost together.
    pub budget: Option<f64>,
    /// Most labour, minutes.
    pub labour_minutes: Option<u32>,
    /// Price of an hour of labour in the shop's currency; a usual one when absent.
    pub labour_rate: Option<f64>,
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
    pub fouls: Vec<Said>,
    /// What it is best at.
    pub best_at: Vec<Said>,
    /// Why, one sentence each.
    pub reasons: Vec<Said>,
    /// What it counts beside price and labour, to order those that do the same.
    #[serde(skip)]
    pub(super) extra: f64,
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
    pub headline: Said,
    /// What to do about it.
    pub sentence: Said,
    /// How cars set alike in different ways would differ at full lock.
    pub ways_differ: Vec<Said>,
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
        let rate = self.rate();
        out.extend(in_range("filters.labour_rate", rate, 0.0, 1e4, "in the shop's currency").err());
        let most = self.most_parts.unwrap_or(4) as f64;
        out.extend(in_range("filters.most_parts", most, 1.0, 4.0, "parts").err());
        for (i, p) in self.pinned.iter().enumerate().filter(|(_, p)| self.excluded.contains(p)) {
            let wrong = format!("\"{p}\" is pinned and excluded at once");
            out.push(Problem::new(format!("filters.pinned.{i}"), wrong, said("fault-one-other")));
        }
        if self.pinned.len() > 4 {
            out.push(Problem::new(
                "filters.pinned",
                said("fault-more-than-four-parts"),
                said("fault-four-parts-axle-at-most"),
            ));
        }
        out
    }

    /// Price of an hour of labour.
    pub(crate) fn rate(&self) -> f64 {
        self.labour_rate.unwrap_or(USUAL_RATE)
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

/// Searches. `say` is told how far it is and answers whether to go on.
///
/// # Errors
/// Every [`Problem`] of the document or the filters.
pub fn search(
    input: &PlanInput,
    filters: &Filters,
    tyres: Option<&CarTyres>,
    catalogue: &[Part],
    say: &(dyn Fn(&Progress) -> bool + Sync),
) -> Result<SearchResult, Vec<Problem>> {
    let mut problems = filters.problems();
    problems.extend(tyres.iter().flat_map(|t| t.problems()));
    let unfitted =
        PlanInput { fitted: Vec::new(), only: BTreeMap::new(), picked: Sides::default(), ..input.clone() };
    let unfitted = fitted_to_sweep(&unfitted).map_err(|p| vec![p])?;
    let (mut work, all) = begin(&unfitted, catalogue, &Budget::default())?;
    let parts: Vec<Part> =
        all.into_iter().filter(|p| filters.allows(p) && !frees_nothing(p, input)).collect();
    for (i, n) in filters.pinned.iter().enumerate() {
        if !parts.iter().any(|p| p.id == *n || p.family() == n) {
            let field = format!("filters.pinned.{i}");
            problems.push(Problem::new(
                field,
                format!("no part \"{n}\" fits this axle"),
                said("fault-part-fits"),
            ));
        }
    }
    if !input.is_judged() {
        problems.push(Problem::new(
            "left.angles",
            said("fault-nothing-to-judge"),
            said("fault-read-an-angle-first"),
        ));
    }
    if !problems.is_empty() {
        return Err(problems);
    }
    let stop = work.hold_within_travel(&[]);
    // What takes too long to set with nothing fitted takes longer with every part.
    let needs = work.settings(&[], false).map(|(_, set)| needed(&unfitted, &set)).unwrap_or_default();
    if let Some(p) = work.too_much() {
        return Err(vec![p]);
    }
    let work = &work.with_work_for_each_set();
    let cancelled = AtomicBool::new(false);
    let tell = |doing: &str, done: usize, of: usize| {
        if !say(&Progress { doing: doing.into(), done, of }) {
            cancelled.store(true, Ordering::Relaxed);
        }
    };
    let Some(effects) = effects(work, &parts) else {
        let wrong = "the car does not close at this height";
        return Err(vec![Problem::new("height_change_mm", wrong, said("fault-height-at-which-both-sides"))]);
    };
    let has_toe = work.bench(0, &[]).toe_by.is_some();
    let pool = Pool::new(parts, filters, effects, &provided(input, has_toe));
    tell("screening", 0, pool.parts.len());
    let (sets, considered, exhaustive) = pool.screen(&cancelled);
    let chosen = worth_posing(sets);
    let posed: Vec<Posed> =
        over(&chosen, "posing", &tell, &cancelled, |s| quick(work, &pool.of(&s.parts)).map(|q| (*s, q)));
    let posed_count = posed.len();
    let (finalists, rest) = front(posed, SOLVED, &pool);
    let turn = work.lock_turn();
    let set = |(s, _): &Posed| {
        set_plan(work, &pool.of(&s.parts), &needs, tyres, turn.as_ref()).map(|p| (s.parts, p))
    };
    let mut solved = over(&finalists, "setting", &tell, &cancelled, set);
    // Whole steps may keep a set from what it reaches where everything turns freely: the next cheapest are set too,
    // but for those that are a set that does reach with something on top.
    let reached: Vec<Ids> = solved.iter().filter(|(_, p)| p.reached).map(|(s, _)| *s).collect();
    let on_top = |s: &Ids| reached.iter().any(|r| r.list().iter().all(|x| s.list().contains(x)));
    let next: Vec<Posed> =
        rest.into_iter().filter(|(s, q)| q.short() < 0.03 && !on_top(&s.parts)).take(SOLVED).collect();
    solved.extend(over(&next, "setting", &tell, &cancelled, set));
    let solved: Vec<SetPlan> = solved.into_iter().map(|(_, p)| p).collect();
    let solved_count = solved.len();
    let mut plans = ranked(solved, filters.rate());
    plans.truncate(ANSWERED);
    let mut plans =
        over(&plans, "wear and doubt", &tell, &cancelled, |p| Some(with_bands(work, p, &pool.parts, tyres)));
    plans.sort_by(|a, b| order(a, filters.rate()).total_cmp(&order(b, filters.rate())));
    name_the_best(&mut plans);
    let base = quick(work, &[]);
    for p in &mut plans {
        p.reasons = reasons::of(work, p, base.as_ref());
    }
    let (headline, sentence) = reasons::verdict(&plans, stop.as_ref());
    // What was not read was not looked for: the sets are told by the rest.
    let all_read =
        [AngleName::Camber, AngleName::Caster, AngleName::Toe].into_iter().all(|a| input.is_read(a));
    let sentence =
        if all_read { sentence } else { sentences(vec![said("search-by-what-was-read"), sentence]) };
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

/// Searches sets of parts for one axle of a car.
///
/// # Errors
/// Every [`Problem`], by field under `car` or `filters`; an axle that was not read.
pub fn search_car(
    car: &CarInput,
    axle: Axle,
    filters: &Filters,
    tyres: Option<&CarTyres>,
    catalogue: &[Part],
    say: &(dyn Fn(&Progress) -> bool + Sync),
) -> Result<SearchResult, Vec<Problem>> {
    let Some(input) = car.axle(axle) else {
        let wrong = format!("the {} axle was not read", axle.word());
        return Err(vec![Problem::new("axle", wrong, said("fault-axle-was-read"))]);
    };
    let under = |p: Problem| Problem { field: format!("car.{}", p.field), ..p };
    let at_home = |p: Problem| match p.field.split('.').next() {
        Some("filters" | "tyres") => p,
        _ => under(CarInput::at_home(axle, p)),
    };
    let mut problems: Vec<Problem> = car.problems().into_iter().map(under).collect();
    if problems.is_empty() {
        return search(&input, filters, tyres, catalogue, say)
            .map_err(|list| list.into_iter().map(at_home).collect());
    }
    problems.extend(filters.problems());
    Err(problems)
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
