//! What a wheel has to show while it hangs on the jack, so that it stands in its window once it is down.

use super::begin::begin;
use super::budget::Budget;
use super::input::PlanInput;
use super::result::PlanResult;
use crate::aim::Window;
use crate::part::Part;
use bold_stance_car::vehicle::{Attitude, Measured, StateKind};
use bold_stance_kinematics::geometry::Side;
use bold_stance_kinematics::linkage::Corner;
use bold_stance_kinematics::wheel::Alignment;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// How a wheel stands on the jack.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct OnJack {
    /// Which wheel.
    pub side: Side,
    /// Hub to arch there, mm.
    pub height_mm: f64,
    /// How far the body leans, degrees, this side up positive; 0 where it was raised level.
    pub lean_deg: f64,
}

/// A wheel on the jack against the same wheel on the floor, as set.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct JackAim {
    /// Angles on the floor at the planned height as set, degrees.
    pub floor: Measured,
    /// The same on the jack, degrees.
    pub jack: Measured,
    /// Window of camber on the jack, degrees.
    pub camber_deg: [f64; 2],
    /// Window of caster on the jack, degrees; none where it does not steer.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub caster_deg: Option<[f64; 2]>,
    /// Window of one wheel's toe on the jack, degrees.
    pub toe_deg: [f64; 2],
}

/// Farthest a body leans on a jack, degrees (judgement, no source).
const MOST_LEAN_DEG: f64 = 20.0;

/// What a wheel has to show on the jack. The body's lean is read against gravity, as camber is: an independent wheel leans
/// with the body, a live axle stands on its other wheel and does not.
///
/// # Errors
/// A [`Problem`] at `height` where the wheel cannot hang there, at `lean` beyond what a jack does, and those of the plan.
pub fn on_jack(
    input: &PlanInput,
    catalogue: &[Part],
    result: &PlanResult,
    at: &OnJack,
) -> Result<JackAim, Vec<Problem>> {
    in_range("lean", at.lean_deg, -MOST_LEAN_DEG, MOST_LEAN_DEG, "°").map_err(|p| vec![p])?;
    let (work, parts) = begin(input, catalogue, &Budget::default())?;
    let fitted = work.named(&input.fitted, &parts);
    let i = usize::from(at.side == Side::Right);
    let plan = if at.side == Side::Left { &result.left } else { &result.right };
    let hangs = |height_mm: f64| {
        let right = said("jack-hangs-right").mm("from", plan.planned_height_mm);
        vec![Problem::new("height", said("jack-no-height").mm("height", height_mm), right)]
    };
    let states = input.states();
    let Some(planned) = states.iter().find(|s| s.kind == StateKind::Planned) else {
        return Err(hangs(at.height_mm));
    };
    let mut bench = work.bench_at(i, &fitted, planned);
    let set: Vec<f64> = bench
        .adjusters
        .iter()
        .map(|a| plan.setting.iter().find(|l| l.name == a.name).map_or(a.position, |l| l.position))
        .collect();
    let floor = bench.angles(&set).map_err(|_| hangs(plan.planned_height_mm))?;
    bench.travel_mm -= at.height_mm - plan.planned_height_mm;
    if !matches!(bench.corner, Corner::Axle(_)) {
        let roll = bench.attitude.roll + at.lean_deg.to_radians();
        bench.attitude = Attitude { roll, ..bench.attitude };
    }
    let jack = bench.angles(&set).map_err(|_| hangs(at.height_mm))?;
    let t = input.target(at.side);
    // The aim counts at one height and the car comes down to another: what the plan says of both, then the jack's own. One
    // wheel of a live axle carries all its tie rod does in a pose, half of it in a plan: so only like is taken from like.
    let state = result.states.iter().find(|s| s.kind == StateKind::Planned);
    let down = state.and_then(|s| if at.side == Side::Left { s.left.as_ref() } else { s.right.as_ref() });
    let down = down.map_or(plan.set, |s| s.angles);
    let moved = |w: Window, of: fn(&Alignment) -> f64| {
        w.map(|v| v + of(&down) - of(&plan.set) + of(&jack) - of(&floor))
    };
    Ok(JackAim {
        floor: Measured {
            camber_deg: floor.camber_deg,
            caster_deg: floor.caster_deg,
            toe_deg: floor.toe_deg,
        },
        jack: Measured { camber_deg: jack.camber_deg, caster_deg: jack.caster_deg, toe_deg: jack.toe_deg },
        camber_deg: moved(t.camber, |a| a.camber_deg),
        caster_deg: input.steered().then(|| moved(t.caster, |a| a.caster_deg)),
        toe_deg: moved(t.toe, |a| a.toe_deg),
    })
}
