//! What the car was, beside what was believed: shown once the work is done, never before.

use crate::act::Act;
use crate::bay::Bay;
use crate::trap::Trap;
use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::aim::Target;
use bold_stance_trade::plan::{READABLE_DEG, READABLE_TOE_DEG};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::Said;
use serde::{Deserialize, Serialize};

/// What somebody believes of a front wheel as it leaves: the newest readings; none where it was not read.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct Believed {
    /// Degrees, top out positive.
    pub camber_deg: Option<f64>,
    /// Degrees, top rearward positive.
    pub caster_deg: Option<f64>,
    /// Degrees of this wheel, toe-in positive.
    pub toe_deg: Option<f64>,
}

/// A front wheel as it really leaves.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WheelTruth {
    /// What was believed.
    pub believed: Believed,
    /// Camber, caster, toe on the road, degrees.
    pub was: [f64; 3],
    /// Windows of the three, degrees.
    pub window: [[f64; 2]; 3],
    /// Whether each is in its window, as well as a shop can read it.
    pub inside: [bool; 3],
}

/// A trap, and when it showed.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TrapSeen {
    /// What it was.
    pub title: Said,
    /// Minutes on the clock when something was done that shows it; none where it was walked past.
    pub seen_at_min: Option<f64>,
}

/// The end of a lesson.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Debrief {
    /// Front wheels.
    pub wheels: Sides<WheelTruth>,
    /// Everything in its window.
    pub landed: bool,
    /// Minutes on the clock, and those of somebody who knows.
    pub minutes: [f64; 2],
    /// Rounds of turning, and those of somebody who knows.
    pub cycles: [u32; 2],
    /// What the car hid.
    pub traps: Vec<TrapSeen>,
    /// Of a hundred (judgement, no source): 40 for a car that is not in its windows, 15 for a trap walked past, 10 for a round
    /// more than par, 5 for a hint and 1 for a minute over par, at most 30 of those, are taken off.
    pub points: u32,
}

/// Rounds of turning: what is turned with no reading in between is one.
fn cycles(acts: &[(Act, f64)]) -> u32 {
    let (mut n, mut turning) = (0, false);
    for (a, _) in acts {
        match a {
            Act::Turn { .. } if !turning => (n, turning) = (n + 1, true),
            Act::Read { .. } => turning = false,
            _ => {}
        }
    }
    n
}

fn seen_at(trap: &Trap, acts: &[(Act, f64)]) -> Option<f64> {
    let mut clock = 0.0;
    let mut before: Vec<Act> = Vec::new();
    for (a, minutes) in acts {
        clock += minutes;
        if trap.shown_by(a, &before) {
            return Some(clock);
        }
        before.push(a.clone());
    }
    None
}

/// What the car was.
///
/// # Errors
/// A [`Problem`] of the lesson's aim.
pub fn debrief(bay: &Bay, believed: &Sides<Believed>, hints: u32) -> Result<Debrief, Problem> {
    let s = bay.car().scenario();
    let aim = s.aim()?;
    let road = bay.car().on_the_road(bay.work());
    let wheels = Sides::of(|side: Side| {
        let w = road.wheel(Axle::Front, side);
        let t: Target = aim.target(Axle::Front, side);
        let was = [w.camber_deg, w.caster_deg, w.toe_deg];
        let window = [t.camber, t.caster, t.toe];
        let slack = [READABLE_DEG, READABLE_DEG, READABLE_TOE_DEG];
        let inside = [0, 1, 2].map(|i| was[i] > window[i][0] - slack[i] && was[i] < window[i][1] + slack[i]);
        WheelTruth { believed: believed[side], was, window, inside }
    });
    let landed = wheels.each().iter().all(|(_, w)| w.inside.iter().all(|i| *i));
    let minutes = bay.minutes();
    let rounds = cycles(bay.log());
    let traps: Vec<TrapSeen> =
        s.traps.iter().map(|t| TrapSeen { title: t.title(), seen_at_min: seen_at(t, bay.log()) }).collect();
    let missed = traps.iter().filter(|t| t.seen_at_min.is_none()).count() as f64;
    let off = if landed { 0.0 } else { 40.0 }
        + 15.0 * missed
        + 10.0 * f64::from(rounds.saturating_sub(s.par_cycles))
        + 5.0 * f64::from(hints)
        + (minutes - s.par_minutes).clamp(0.0, 30.0);
    Ok(Debrief {
        wheels,
        landed,
        minutes: [minutes, s.par_minutes],
        cycles: [rounds, s.par_cycles],
        traps,
        points: (100.0 - off).clamp(0.0, 100.0).round() as u32,
    })
}
