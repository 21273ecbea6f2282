//! The `bold-stance.plan/1` case of the command line: a plan's document, filters, tyres, and parts of one's own.

use super::begin::begin;
use super::budget::Budget;
use super::input::PlanInput;
use super::jack_sweep::fitted_to_sweep;
use super::search::{Filters, SearchResult, SetPlan, search};
use super::settings_case::as_geometry;
use super::work::Work;
use crate::part::{Part, list_problems, shipped_parts};
use bold_stance_kinematics::geometry::Geometry;
use bold_stance_kinematics::linkage::Linkage;
use bold_stance_tread::CarTyres;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// The case.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PlanCase {
    /// Always `bold-stance.plan/1`.
    pub format: String,
    /// The axle, its readings, heights and aim.
    pub input: PlanInput,
    /// What the search may use.
    #[serde(default)]
    pub filters: Filters,
    /// Tyres to forecast.
    #[serde(default)]
    pub tyres: Option<CarTyres>,
    /// Parts to choose from; the shipped ones when absent.
    #[serde(default)]
    pub parts: Option<Vec<Part>>,
    /// Free remark.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// Angles relative to the chassis, degrees; caster and SAI are absent for a wheel that does not steer.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct ChassisAngles {
    /// Top out positive.
    pub camber_deg: f64,
    /// Top rearward positive.
    pub caster_deg: Option<f64>,
    /// Top inboard positive.
    pub sai_deg: Option<f64>,
    /// Per wheel, toe-in positive.
    pub toe_deg: f64,
}

/// One side as set, as a geometry anyone can solve again.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct SideAfter {
    /// What `geometry_after` gives at travel 0.
    pub angles: ChassisAngles,
    /// Its design height is the planned height.
    pub geometry_after: Geometry,
}

/// One plan of the result.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct CasePlan {
    /// The plan.
    #[serde(flatten)]
    pub plan: SetPlan,
    /// Left as set.
    pub left_after: Option<SideAfter>,
    /// Right as set, in left-hand coordinates.
    pub right_after: Option<SideAfter>,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct PlanCaseResult {
    /// `bold-stance.plan-result/1`.
    pub format: String,
    /// Whether the first plan reaches the aim.
    pub reached: bool,
    /// One line.
    pub headline: Said,
    /// What to do about it.
    pub sentence: Said,
    /// Pitch of the body at the height the aim is judged at, degrees, nose up positive: what the angles of a plan
    /// (over the ground) have over those of `left_after` and `right_after` (relative to the chassis) in caster.
    pub pitch_deg: f64,
    /// Sets looked at.
    pub considered: usize,
    /// Sets posed exactly.
    pub posed: usize,
    /// Sets set in whole notches.
    pub solved: usize,
    /// Whether every allowed set was looked at.
    pub exhaustive: bool,
    /// How cars set alike in different ways would differ at full lock.
    pub ways_differ: Vec<Said>,
    /// What a jack sweep said of the points it was taken on.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub notes: Vec<Said>,
    /// Best first.
    pub plans: Vec<CasePlan>,
}

/// Why a case has no answer.
#[derive(Debug, Clone, thiserror::Error)]
pub enum PlanCaseError {
    /// The case itself is wrong.
    #[error("{0}")]
    Bad(Problem),
    /// It is right, but nothing reaches the aim; the nearest is in the result.
    #[error("no set of parts reaches the aim")]
    NoneReaches(Box<PlanCaseResult>),
}

/// Searches a case.
///
/// # Errors
/// [`PlanCaseError::Bad`] names the field; [`PlanCaseError::NoneReaches`] holds the nearest plans.
pub fn run_plan(case: &PlanCase) -> Result<PlanCaseResult, PlanCaseError> {
    let bad = PlanCaseError::Bad;
    let under = |at: &str, p: Problem| bad(Problem::new(format!("{at}{}", p.field), p.wrong, p.right));
    if case.format != "bold-stance.plan/1" {
        return Err(bad(Problem::new(
            "format",
            said("fault-quoted").name("value", case.format.clone()),
            said("fault-bold-stance-plan-1"),
        )));
    }
    let parts = match &case.parts {
        None => shipped_parts().map_err(bad)?,
        Some(own) => match list_problems(own).into_iter().next() {
            Some(p) => return Err(under("parts.", p)),
            None => own.clone(),
        },
    };
    let input = fitted_to_sweep(&case.input).map_err(|p| under("input.", p))?;
    let found = search(&input, &case.filters, case.tyres.as_ref(), &parts, &|_| true).map_err(|list| {
        match list.into_iter().next() {
            Some(p) if p.field.starts_with("filters") || p.field.starts_with("tyres") => bad(p),
            Some(p) => under("input.", p),
            None => bad(Problem::new("input", said("fault-unusable"), said("fault-plan-can-worked-out"))),
        }
    })?;
    let SearchResult {
        plans, considered, posed, solved, exhaustive, headline, sentence, ways_differ, ..
    } = found;
    let (mut work, all) = begin(&input, &parts, &Budget::default()).map_err(|list| {
        list.into_iter().next().map_or_else(
            || bad(Problem::new("input", Said::text(""), Said::text(""))),
            |p| under("input.", p),
        )
    })?;
    work.hold_within_travel(&[]);
    let reached = plans.first().is_some_and(|p| p.reached);
    let plans = plans
        .into_iter()
        .map(|p| {
            let list: Vec<&Part> = p.parts.iter().filter_map(|n| all.iter().find(|q| q.id == n.id)).collect();
            let left_after = after(&work, 0, &list, &p.left.positions);
            let right_after = after(&work, 1, &list, &p.right.positions);
            CasePlan { plan: p, left_after, right_after }
        })
        .collect();
    let out = PlanCaseResult {
        format: "bold-stance.plan-result/1".into(),
        reached,
        headline,
        sentence,
        pitch_deg: work.pitch(&work.state).pitch.to_degrees(),
        considered,
        posed,
        solved,
        exhaustive,
        ways_differ,
        notes: input.swept.as_ref().map(|s| s.notes.clone()).unwrap_or_default(),
        plans,
    };
    if reached { Ok(out) } else { Err(PlanCaseError::NoneReaches(Box::new(out))) }
}

fn after(work: &Work<'_>, i: usize, parts: &[&Part], positions: &[f64]) -> Option<SideAfter> {
    let bench = work.bench(i, parts);
    let c = bench.set(positions);
    let pose = c.pose(bench.travel_mm, 0.0).ok()?;
    let w = pose.wheel(c.loaded_radius(), c.design_x());
    Some(SideAfter {
        angles: ChassisAngles {
            camber_deg: w.camber_deg,
            caster_deg: w.steer.map(|s| s.caster_deg),
            sai_deg: w.steer.map(|s| s.sai_deg),
            toe_deg: w.toe_deg,
        },
        geometry_after: as_geometry(&work.input.geometry, &c, &pose, bench.travel_mm),
    })
}
