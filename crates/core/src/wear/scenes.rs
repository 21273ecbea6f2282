//! States an axle's tyres run in: as found, not set, set, at every height, and as a mix of heights.

use super::car_tyres::HeightShare;
use super::forecast::Setup;
use crate::plan::{PlanResult, StateResult};
use crate::vehicle::StateKind;
use crate::wheel::Alignment;

/// A state of an axle: camber and caster of both wheels and half the total toe, with shares of the distance.
pub(crate) struct AxleScene {
    pub(crate) id: String,
    pub(crate) title: String,
    /// Camber left and right, half the total toe, share.
    pub(crate) parts: Vec<([f64; 2], f64, f64)>,
    pub(crate) caster: [f64; 2],
}

fn state(id: &str, title: &str, left: &Alignment, right: &Alignment) -> AxleScene {
    // Running straight the car crabs until both slip alike: each tyre gets half the total.
    let toe = 0.5 * (left.toe_deg + right.toe_deg);
    AxleScene {
        id: id.into(),
        title: title.into(),
        parts: vec![([left.camber_deg, right.camber_deg], toe, 1.0)],
        caster: [left.caster_deg, right.caster_deg],
    }
}

/// The mix of heights the axle is driven at, as set; none where no shares were told.
fn mixed(states: &[StateResult], heights: &[HeightShare]) -> Option<AxleScene> {
    let mut parts: Vec<([f64; 2], f64, f64)> = Vec::new();
    let mut caster = [0.0; 2];
    for s in states.iter().filter(|s| s.kind != StateKind::Arrived) {
        let (Some(l), Some(r)) = (&s.left, &s.right) else { continue };
        let named = heights.iter().filter(|h| h.state.eq_ignore_ascii_case(&s.name));
        let share: f64 = named.map(|h| h.share).sum();
        if share > 0.0 {
            let one = state("", "", &l.angles, &r.angles);
            parts.push((one.parts[0].0, one.parts[0].1, share));
            (0..2).for_each(|i| caster[i] += share * one.caster[i]);
        }
    }
    let total: f64 = parts.iter().map(|m| m.2).sum();
    (total > 0.0).then(|| {
        parts.iter_mut().for_each(|m| m.2 /= total);
        AxleScene {
            id: "mix".into(),
            title: "set, as driven".into(),
            parts,
            caster: caster.map(|c| c / total),
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
    mixed(states, heights).unwrap_or_else(|| state("set", "set", left, right))
}

/// Found, not set, set, every other height as set, and the mix of heights where shares were told, in this order.
pub(crate) fn axle_scenes(p: &PlanResult, heights: &[HeightShare]) -> Vec<AxleScene> {
    let mut out = vec![
        state("found", "as found", &p.left.before, &p.right.before),
        state("unset", "at the planned height, not set", &p.left.after, &p.right.after),
        state("set", "set", &p.left.set, &p.right.set),
    ];
    for s in p.states.iter().filter(|s| s.kind != StateKind::Arrived && !s.judged) {
        let (Some(l), Some(r)) = (&s.left, &s.right) else { continue };
        let name = s.name.to_lowercase();
        out.push(state(&format!("at-{name}"), &format!("set, {name}"), &l.angles, &r.angles));
    }
    out.extend(mixed(&p.states, heights));
    out
}

/// The state that leads: the mix of heights, else set.
pub(crate) fn leading(scenes: &[AxleScene]) -> usize {
    let at = |id: &str| scenes.iter().position(|s| s.id == id);
    at("mix").or_else(|| at("set")).unwrap_or(0)
}

impl AxleScene {
    /// What the forward model takes, of the left (0) or right (1) tyre.
    pub(crate) fn setups(&self, side: usize) -> Vec<Setup> {
        self.parts.iter().map(|(c, toe, w)| Setup { camber_deg: c[side], toe_deg: *toe, share: *w }).collect()
    }
}
