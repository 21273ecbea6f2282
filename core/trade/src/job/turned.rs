//! What was really turned, and what was read after it: rounds of work as they are kept, and the loops they make with the
//! readings of a job.

use super::bench::JobBench;
use super::gates::Sheet;
use super::height::height_at;
use super::record::{Done, Reading};
use crate::plan::{CarInput, Order, SettingLine};
use crate::prove::{AnglesRead, WorkLoop};
use crate::reading::{Jack, Place, Quantity, Visit, toe_of};
use crate::sheet::{AsTurned, CouldNot, Mark, Round, StepId};
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::parse_count;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

/// What was really done of an order, as typed; an order that is not named was done as ordered.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AsDone {
    /// Side; none for what is one for both wheels.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// What was turned.
    pub name: String,
    /// How far, counted as the order counts, the ordered way; the other way with a minus. Nothing where it could not be
    /// turned at all.
    #[serde(default)]
    pub amount: String,
    /// Why it was not turned as ordered.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub could_not: Option<CouldNot>,
}

/// Where an adjuster stands once so much of an order was done.
fn position(line: &SettingLine, amount: f64) -> f64 {
    let from = line.position - line.movement;
    let whole = matches!(line.amount.id.as_ref(), "amount-notches" | "amount-positions");
    let unit = if whole && line.steps != 0.0 { (line.movement / line.steps).abs() } else { 1.0 };
    from + amount * unit * line.movement.signum()
}

/// The orders that turn something as they were really done.
///
/// # Errors
/// A problem at `as_done.N.amount` for what is no count, at `as_done.N.name` for what was not ordered.
pub(super) fn round_of(
    orders: &[Order],
    as_done: &[AsDone],
    at: DateTime<Utc>,
    author: &str,
) -> Result<Round, Problem> {
    let ordered: Vec<&Order> = orders.iter().filter(|o| o.line.moves()).collect();
    let is = |o: &Order, d: &AsDone| o.side == d.side && o.line.name == d.name;
    for (k, d) in as_done.iter().enumerate() {
        if !ordered.iter().any(|o| is(o, d)) {
            let right: Vec<&str> = ordered.iter().map(|o| o.line.name.as_str()).collect();
            let wrong = said("as-done-not-ordered").name("name", d.name.clone());
            return Err(Problem::new(format!("as_done.{k}.name"), wrong, right.join(", ")));
        }
    }
    let mut turned = Vec::new();
    for o in ordered {
        let from = o.line.position - o.line.movement;
        let mut one = AsTurned {
            axle: o.axle,
            side: o.side,
            name: o.line.name.clone(),
            from,
            ordered: o.line.position,
            position: o.line.position,
            words: o.line.words.clone(),
            typed: None,
            could_not: None,
        };
        if let Some((k, d)) = as_done.iter().enumerate().find(|(_, d)| is(o, d)) {
            let text = d.amount.trim();
            one.could_not = d.could_not;
            one.position = match (text, d.could_not) {
                ("", Some(_)) => from,
                ("", None) => o.line.position,
                _ => position(&o.line, parse_count(&format!("as_done.{k}.amount"), text)?),
            };
            let other = !text.is_empty() && (one.position - one.ordered).abs() > 1e-9;
            one.typed = other.then(|| text.to_owned());
        }
        turned.push(one);
    }
    Ok(Round { at, author: author.to_owned(), turned })
}

/// What is left to turn on an axle as it was really turned, and the step of the sheet that it belongs to.
///
/// # Errors
/// A problem at `axle` where nothing is left to turn, and those of [`AsDone`].
pub fn turned_again(
    sheet: &Sheet,
    done: &[&Done],
    axle: Axle,
    as_done: &[AsDone],
    (now, author): (DateTime<Utc>, &str),
) -> Result<(StepId, Round), Problem> {
    let left = sheet.left.iter().find(|l| l.axle == axle);
    let is_done = |s: &StepId| done.iter().any(|d| d.step == Mark::Step(s.clone()));
    let step = [StepId::Toe(axle), StepId::Arms(axle)].into_iter().find(is_done);
    let (Some(left), Some(step)) = (left, step) else {
        return Err(Problem::new("axle", said("left-not-there"), said("left-not-there-right")));
    };
    // Before toe had its turn it waits for its own step.
    let toe = matches!(step, StepId::Toe(_));
    let orders: Vec<Order> = left
        .sides
        .each()
        .into_iter()
        .flat_map(|(side, s)| s.iter().flat_map(move |s| s.orders.iter().map(move |l| (side, l))))
        .filter(|(_, l)| toe || !l.sets_toe)
        .map(|(side, l)| Order { axle, side: Some(side), line: l.clone() })
        .collect();
    if !orders.iter().any(|o| o.line.moves()) {
        return Err(Problem::new("axle", said("left-not-there"), said("left-not-there-right")));
    }
    Ok((step, round_of(&orders, as_done, now, author)?))
}

/// Rounds of an axle, oldest first; what was marked before rounds were kept was done as ordered.
#[must_use]
pub fn turns_of(done: &[&Done], axle: Axle) -> Vec<Round> {
    let mut out = Vec::new();
    for d in done {
        let Mark::Step(StepId::Arms(a) | StepId::Toe(a)) = &d.step else { continue };
        if *a != axle {
            continue;
        }
        if d.record.rounds.is_empty() {
            let turned = d.record.ordered.iter().map(|o| AsTurned {
                axle: o.axle,
                side: o.side,
                name: o.name.clone(),
                from: o.position,
                ordered: o.position,
                position: o.position,
                words: o.words.clone(),
                typed: None,
                could_not: None,
            });
            out.push(Round { at: d.done_at, author: d.author.clone(), turned: turned.collect() });
        }
        out.extend(d.record.rounds.iter().cloned());
    }
    out.sort_by_key(|r| r.at);
    out
}

/// What was read of a wheel between two times, the newest of each; not on a jack.
fn read_between(
    bench: &JobBench<'_>,
    readings: &[Reading],
    (axle, side): (Axle, Side),
    from: DateTime<Utc>,
    to: Option<DateTime<Utc>>,
) -> (AnglesRead, Option<f64>) {
    let within = |r: &&Reading| {
        r.visit != Visit::Found
            && r.jack != Jack::Jacked
            && r.taken_at >= from
            && to.is_none_or(|t| r.taken_at < t)
    };
    let own: Vec<&Reading> = readings.iter().filter(within).collect();
    let of = |q| own.iter().rev().find(|r| r.quantity == q && r.place() == Place::wheel(axle, side));
    let seen: Vec<_> = own.iter().map(|r| r.seen()).collect();
    let toe = Visit::ALL.into_iter().rev().find_map(|v| toe_of(&seen, v, axle, side).map(|(v, s, _)| (v, s)));
    let (camber, caster) = (of(Quantity::Camber), of(Quantity::Caster).filter(|_| axle == Axle::Front));
    let read = AnglesRead {
        value: [camber.map(|r| r.value), caster.map(|r| r.value), toe.map(|t| t.0)],
        sigma: [camber.map_or(0.0, |r| r.sigma), caster.map_or(0.0, |r| r.sigma), toe.map_or(0.0, |t| t.1)],
    };
    // The height it stood at: read since, else at the newest look before.
    let heights: Vec<Reading> =
        readings.iter().filter(|r| to.is_none_or(|t| r.taken_at < t)).cloned().collect();
    let height = Visit::ALL
        .into_iter()
        .rev()
        .filter(|v| *v != Visit::Found)
        .find_map(|v| height_at(bench.facts, &heights, v, axle, side));
    (read, height.map(|h| h.mm))
}

/// Work and what was read after it, of every wheel of a plan: rounds with no reading in between are one.
#[must_use]
pub fn loops_of(
    bench: &JobBench<'_>,
    readings: &[Reading],
    done: &[&Done],
    input: &CarInput,
) -> Axles<Sides<Vec<WorkLoop>>> {
    Axles::of(|axle| {
        let rounds = turns_of(done, axle);
        Sides::of(|side| {
            if input.base.axles[axle].is_none() {
                return Vec::new();
            }
            let mut out = Vec::new();
            let mut now = WorkLoop::default();
            for (k, round) in rounds.iter().enumerate() {
                for t in round.turned.iter().filter(|t| t.side.is_none_or(|s| s == side)) {
                    now.stands.insert(t.name.clone(), t.position);
                    now.otherwise |= (t.position - t.ordered).abs() > 1e-9;
                }
                let next = rounds.get(k + 1).map(|r| r.at);
                let (read, height_mm) = read_between(bench, readings, (axle, side), round.at, next);
                // Work that nobody read anything after says nothing yet.
                if read.value.iter().any(Option::is_some) || next.is_none() {
                    out.push(WorkLoop { height_mm, read, ..now.clone() });
                }
            }
            out
        })
    })
}
