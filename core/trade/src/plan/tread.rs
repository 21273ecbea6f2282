//! From a plan's answer to the states its tyres run in: as found, not set, set, at every height, and as a mix of heights.

use super::states::StateResult;
use super::words::state_named;
use crate::plan::result::PlanResult;
use bold_stance_car::vehicle::HeightShare;
use bold_stance_car::vehicle::{Axles, Sides, StateKind};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_kinematics::wheel::Alignment;
use bold_stance_tread::{AxleScene, Run, Scenes, leading};
use bold_stance_units::said::{Said, said};

fn run(left: &Alignment, right: &Alignment, share: f64) -> Run {
    // Running straight the car crabs until both slip alike: each tyre gets half the total.
    let toe_deg = 0.5 * (left.toe_deg + right.toe_deg);
    Run { camber_deg: Sides { left: left.camber_deg, right: right.camber_deg }, toe_deg, share }
}

fn state(id: &str, title: Said, left: &Alignment, right: &Alignment) -> AxleScene {
    AxleScene {
        id: id.into(),
        title,
        runs: vec![run(left, right, 1.0)],
        caster_deg: Sides { left: left.caster_deg, right: right.caster_deg },
    }
}

/// The mix of heights the axle is driven at, as set; none where no shares were told.
fn mixed(states: &[StateResult], heights: &[HeightShare]) -> Option<AxleScene> {
    let mut runs: Vec<Run> = Vec::new();
    let mut caster = Sides { left: 0.0, right: 0.0 };
    for s in states.iter().filter(|s| s.kind != StateKind::Arrived) {
        let (Some(l), Some(r)) = (&s.left, &s.right) else { continue };
        let named = heights.iter().filter(|h| h.state.eq_ignore_ascii_case(&s.name));
        let share: f64 = named.map(|h| h.share).sum();
        if share > 0.0 {
            runs.push(run(&l.angles, &r.angles, share));
            caster.left += share * l.angles.caster_deg;
            caster.right += share * r.angles.caster_deg;
        }
    }
    let total: f64 = runs.iter().map(|m| m.share).sum();
    (total > 0.0).then(|| {
        runs.iter_mut().for_each(|m| m.share /= total);
        AxleScene {
            id: "mix".into(),
            title: said("scene-driven"),
            runs,
            caster_deg: caster.map(|c| c / total),
        }
    })
}

/// How a set axle is driven: the mix of heights where shares were told, else as set.
pub(crate) fn driven(
    states: &[StateResult],
    heights: &[HeightShare],
    left: &Alignment,
    right: &Alignment,
) -> AxleScene {
    mixed(states, heights).unwrap_or_else(|| state("set", said("scene-set"), left, right))
}

/// Found, not set, set, every other height as set, and the mix of heights where shares were told, in this order.
fn axle_scenes(p: &PlanResult, heights: &[HeightShare]) -> Vec<AxleScene> {
    let mut out = vec![
        state("found", said("scene-found"), &p.left.before, &p.right.before),
        state("unset", said("scene-unset"), &p.left.after, &p.right.after),
        state("set", said("scene-set"), &p.left.set, &p.right.set),
    ];
    for s in p.states.iter().filter(|s| s.kind != StateKind::Arrived && !s.judged) {
        let (Some(l), Some(r)) = (&s.left, &s.right) else { continue };
        let name = s.name.to_lowercase();
        out.push(state(
            &format!("at-{name}"),
            said("scene-set-at").say("state", state_named(&name)),
            &l.angles,
            &r.angles,
        ));
    }
    out.extend(mixed(&p.states, heights));
    out
}

/// A second plan of the same car, to compare with.
#[derive(Debug, Clone, Copy)]
pub struct OtherAnswer<'a> {
    /// What it is called.
    pub name: &'a str,
    /// Its axles.
    pub axles: Axles<Option<&'a PlanResult>>,
}

/// The states a car's tyres run in under a plan, beside those of another where one is given.
#[must_use]
pub fn scenes_of(
    car: Axles<Option<&PlanResult>>,
    other: Option<OtherAnswer<'_>>,
    heights: &[HeightShare],
) -> Scenes {
    let second = |a: Axle| {
        let o = other?;
        let mut list = axle_scenes(o.axles[a]?, heights);
        let lead = leading(&list);
        Some(AxleScene { id: "other".into(), title: Said::text(o.name), ..list.swap_remove(lead) })
    };
    let first = car.front.or(car.rear);
    let whole = |s: &&StateResult| s.kind != StateKind::Arrived && s.left.is_some() && s.right.is_some();
    Scenes {
        axles: car.map(|p| p.map(|p| axle_scenes(p, heights))),
        other: Axles::of(second),
        heights: first.iter().flat_map(|p| p.states.iter().filter(whole).map(|s| s.name.clone())).collect(),
    }
}
