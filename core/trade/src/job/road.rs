//! The road test: how far the steering wheel stands off while the car goes straight, and the equal turns of both rods, or of
//! the drag link of a live axle, that bring it there without moving total toe.

use super::aftercare::Aftercare;
use crate::plan::{CarAnswer, CarInput, PlanResult, SettingLine, SidePlan, turns_in_words};
use crate::prove::AxleLeft;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::said::{Said, said};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

/// What one rod is turned to put the steering wheel straight.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WheelOrder {
    /// Which side; none for the drag link that steers both wheels.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// What is turned.
    pub name: String,
    /// Turns, longer positive.
    pub turns: f64,
    /// The order in workshop words.
    pub words: Said,
}

/// The steering wheel after a road test.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WheelStraight {
    /// As it stood on the road, degrees, to the left positive.
    pub off_deg: f64,
    /// In one line.
    pub headline: Said,
    /// Turns of both rods, or of the one drag link; empty where it is straight as well as a hand tells, or nothing turns.
    pub orders: Vec<WheelOrder>,
    /// Whether they were turned since: it is driven again.
    pub turned: bool,
    /// What was felt.
    pub felt: String,
}

/// A steering wheel nearer to straight than this is straight, degrees (common practice, no source: what a driver sees).
const STRAIGHT_DEG: f64 = 2.0;
/// Turns are ordered in twenty-fourths: half a flat of a hex and its half.
const PER_TURN: f64 = 24.0;

/// When both rods were turned for the steering wheel last: toe that was read before is stale.
pub(super) fn rods_turned_at(care: &Aftercare) -> Option<DateTime<Utc>> {
    care.road.iter().filter_map(|r| r.turned_at).max()
}

/// What the rod of a wheel does in a turn: its order as set, and toe of the wheel, degrees.
fn rod(plan: &SidePlan) -> Option<(&SettingLine, f64)> {
    let line = plan.setting.iter().find(|l| l.sets_toe && !l.shared)?;
    let does = plan.sensitivity.iter().find(|s| s.name == line.name)?;
    (does.toe_deg.abs() > 1e-6).then_some((line, does.toe_deg))
}

/// How many times what it is said to do a rod of the car's own was found to do: what the readings say beside what was believed
/// of it before, each by its doubt (product of two Gaussians of ln gain).
fn found_times(left: &[AxleLeft], input: &CarInput, side: Side, name: &str) -> f64 {
    let own = input.base.axles.front.as_ref().and_then(|b| b.adjusters[side].iter().find(|a| a.name == name));
    let wheel = left.iter().find(|l| l.axle == Axle::Front).and_then(|l| l.sides[side].as_ref());
    let found = wheel.and_then(|w| w.found.iter().find(|f| f.name == name));
    let (Some(own), Some(found)) = (own, found) else { return 1.0 };
    let (before, now) = (own.gain_sd().powi(2), found.sd.powi(2));
    (found.ln_times * before / (before + now)).exp()
}

/// The drag link of a live axle: its order as set, and toe of the left wheel in a turn of it, degrees.
fn drag_link(front: &PlanResult) -> Option<(&SettingLine, f64)> {
    let d = front.drag_link.as_ref().filter(|d| d.left_toe_deg.abs() > 1e-6)?;
    Some((front.left.setting.iter().find(|l| l.name == d.name)?, d.left_toe_deg))
}

/// What is left of the last road test; none while the car was not driven.
///
/// Held straight ahead the steering wheel stands `off` to the left: brought to its centre it would point the road wheels
/// `off` over the steering ratio to the right. So both road wheels are turned that far to the left on their rods: the left
/// one out, the right one in, total toe stays.
#[must_use]
pub(super) fn wheel_straight(
    care: &Aftercare,
    input: &CarInput,
    answer: &CarAnswer,
    left: &[AxleLeft],
) -> Option<WheelStraight> {
    let test = care.road.last()?;
    let off_deg = test.wheel_off_deg;
    let (mut orders, mut ends) = (Vec::new(), false);
    let front = answer.axles[Axle::Front].as_ref();
    let drag = front.and_then(drag_link);
    if off_deg.abs() >= STRAIGHT_DEG
        && let Some(front) = front
    {
        let road_deg = off_deg / input.base.steering_ratio;
        let rods = [
            (Some(Side::Left), rod(&front.left), -road_deg),
            (Some(Side::Right), rod(&front.right), road_deg),
        ];
        // One drag link steers both wheels at once.
        let link = [(None, drag, -road_deg)];
        let each: &[_] = if drag.is_some() { &link } else { &rods };
        for (side, rod, toe_deg) in each.iter().copied() {
            let Some((line, per_turn)) = rod else { continue };
            let times = side.map_or(1.0, |s| found_times(left, input, s, &line.name));
            let turns = (toe_deg / (per_turn * times) * PER_TURN).round() / PER_TURN;
            if turns == 0.0 {
                continue;
            }
            let amount = said("amount-turns")
                .name("turns", turns_in_words(turns.abs()))
                .count("n", if turns.abs() > 1.0 { 2 } else { 1 });
            let way = if turns > 0.0 { "longer" } else { "shorter" };
            let words = said("order").say("amount", amount).word("way", way);
            let [low, high] = line.ends;
            ends |= !(low..=high).contains(&(line.position + turns));
            orders.push(WheelOrder { side, name: line.name.clone(), turns, words });
        }
        // One rod alone would move total toe, and none is turned out of its thread.
        if orders.len() < each.len() || ends {
            orders.clear();
        }
    }
    let side = if off_deg > 0.0 { "left" } else { "right" };
    let headline = match (test.turned_at.is_some(), orders.is_empty()) {
        (true, _) if drag.is_some() => said("road-turned-drag"),
        (true, _) => said("road-turned"),
        (_, true) if off_deg.abs() < STRAIGHT_DEG => said("road-straight"),
        (_, true) if ends => said("road-off-ends").plain("deg", off_deg.abs(), 0).word("side", side),
        (_, true) => said("road-off-nothing").plain("deg", off_deg.abs(), 0).word("side", side),
        _ if drag.is_some() => said("road-off-drag").plain("deg", off_deg.abs(), 0).word("side", side),
        _ => said("road-off").plain("deg", off_deg.abs(), 0).word("side", side),
    };
    Some(WheelStraight {
        off_deg,
        headline,
        orders,
        turned: test.turned_at.is_some(),
        felt: test.felt.clone(),
    })
}
