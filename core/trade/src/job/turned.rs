//! What was really turned, and what was read after it: rounds of work as they are kept, and the loops they make with the
//! readings of a job.

use super::as_done::{AsDone, round_of};
use super::bench::JobBench;
use super::gates::Sheet;
use super::height::height_at;
use super::record::{Done, Reading};
use crate::plan::{CarInput, Order};
use crate::prove::{AnglesRead, WorkLoop};
use crate::reading::{Jack, Place, Quantity, ReadAxle, ReadSide, Visit, toe_of};
use crate::sheet::{AsTurned, Mark, Round, StepId};
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::{Axle, Layout, Side};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use chrono::{DateTime, Utc};
use std::collections::BTreeMap;
use uuid::Uuid;

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
    let orders: Vec<Order> = left.orders().into_iter().filter(|o| toe || !o.line.sets_toe).collect();
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

/// Where work for other plans of the job left the adjusters a plan starts from, positions by name; `done` is everything that
/// was done of the job. What was turned for this plan is among its own rounds.
#[must_use]
pub fn turned_before(done: &[Done], plan_id: Uuid) -> Axles<Sides<BTreeMap<String, f64>>> {
    let mut out = Axles::<Sides<BTreeMap<String, f64>>>::default();
    let others: Vec<&Done> = done.iter().filter(|d| d.plan_id != plan_id).collect();
    for axle in [Axle::Front, Axle::Rear] {
        for turned in turns_of(&others, axle).into_iter().flat_map(|r| r.turned) {
            for side in Side::BOTH {
                if turned.side.is_none_or(|s| s == side) {
                    out[axle][side].insert(turned.name.clone(), turned.position);
                }
            }
        }
    }
    out
}

/// The plan's input with every adjuster where work for other plans of the job left it.
#[must_use]
pub fn as_turned_before(done: &[Done], plan_id: Uuid, mut input: CarInput) -> CarInput {
    input.base.turned = turned_before(done, plan_id);
    input
}

/// What was read of a wheel between two times.
#[derive(Default)]
struct ReadThen {
    angles: AnglesRead,
    earlier: AnglesRead,
    height_mm: Option<f64>,
    wheelbase: Option<(f64, f64)>,
    centre: Option<(f64, f64)>,
}

impl ReadThen {
    /// Whether anything was read that says how the work came out; where it lies is told of a live axle alone.
    fn some(&self, live: bool) -> bool {
        let lies = self.wheelbase.is_some() || self.centre.is_some();
        self.angles.value.iter().any(Option::is_some) || (live && lies)
    }
}

/// Angles of a wheel by the newest of these readings.
fn angles_of(own: &[&Reading], axle: Axle, side: Side) -> AnglesRead {
    let of = |q| own.iter().rev().find(|r| r.quantity == q && r.place() == Place::wheel(axle, side));
    let seen: Vec<_> = own.iter().map(|r| r.seen()).collect();
    let toe = Visit::ALL.into_iter().rev().find_map(|v| toe_of(&seen, v, axle, side).map(|(v, s, _)| (v, s)));
    let (camber, caster) = (of(Quantity::Camber), of(Quantity::Caster).filter(|_| axle == Axle::Front));
    AnglesRead {
        value: [camber.map(|r| r.value), caster.map(|r| r.value), toe.map(|t| t.0)],
        sigma: [camber.map_or(0.0, |r| r.sigma), caster.map_or(0.0, |r| r.sigma), toe.map_or(0.0, |t| t.1)],
    }
}

/// The readings before the newest of each angle of a wheel.
fn without_newest<'a>(own: &[&'a Reading], axle: Axle, side: Side) -> Vec<&'a Reading> {
    let here = |r: &Reading, q: Quantity| {
        let both = Place { axle: axle.into(), side: ReadSide::Both };
        r.quantity == q && (r.place() == Place::wheel(axle, side) || r.place() == both)
    };
    let newest = |q| own.iter().rposition(|r| here(r, q));
    let last = [Quantity::Camber, Quantity::Caster, Quantity::Toe].map(newest);
    let kept = own.iter().enumerate().filter(|(i, _)| !last.contains(&Some(*i)));
    kept.map(|(_, r)| *r).collect()
}

/// What was read of a wheel between two times, the newest of each; not on a jack.
fn read_between(
    bench: &JobBench<'_>,
    readings: &[Reading],
    (axle, side): (Axle, Side),
    from: Option<DateTime<Utc>>,
    to: Option<DateTime<Utc>>,
) -> ReadThen {
    let within = |r: &&Reading| {
        r.visit != Visit::Found
            && r.jack != Jack::Jacked
            && from.is_none_or(|t| r.taken_at >= t)
            && to.is_none_or(|t| r.taken_at < t)
    };
    let own: Vec<&Reading> = readings.iter().filter(within).collect();
    let angles = angles_of(&own, axle, side);
    let trimmed = bench.trims.iter().filter(|t| t.axle == axle).map(|t| t.at);
    let last_trim = trimmed.clone().max();
    let earlier: Vec<&Reading> =
        own.iter().filter(|r| last_trim.is_none_or(|t| r.taken_at >= t)).copied().collect();
    let earlier = angles_of(&without_newest(&earlier, axle, side), axle, side);
    // The height it stood at when its angles were read: read since, else at the newest look before. What was taped once a
    // corner was trimmed is another height.
    let angle = |r: &&&Reading| matches!(r.quantity, Quantity::Camber | Quantity::Caster | Quantity::Toe);
    let read_at = own.iter().filter(angle).filter(|r| r.place() == Place::wheel(axle, side));
    let read_at = read_at.map(|r| r.taken_at).max();
    let before = read_at.and_then(|at| trimmed.filter(|t| *t > at).min());
    let end = [before, to].into_iter().flatten().min();
    let heights: Vec<Reading> =
        readings.iter().filter(|r| end.is_none_or(|t| r.taken_at < t)).cloned().collect();
    let height = Visit::ALL
        .into_iter()
        .rev()
        .filter(|v| *v != Visit::Found)
        .find_map(|v| height_at(bench.facts, &heights, v, axle, side));
    let newest = |q: Quantity, axle: ReadAxle, side: ReadSide| {
        let place = Place { axle, side };
        own.iter().rev().find(|r| r.quantity == q && r.place() == place).map(|r| (r.value, r.sigma))
    };
    let wheelbase = newest(Quantity::Wheelbase, ReadAxle::Both, side.into());
    let centre = newest(Quantity::AxleOffset, axle.into(), ReadSide::Both);
    ReadThen { angles, earlier, height_mm: height.map(|h| h.mm), wheelbase, centre }
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
        let base = input.base.axles[axle].as_ref();
        let live = base.is_some_and(|b| b.geometry.layout() == Layout::SolidAxle);
        Sides::of(|side| {
            if base.is_none() {
                return Vec::new();
            }
            let mut out = Vec::new();
            let mut now = WorkLoop::default();
            // At its new height, before anything of the axle is turned.
            let first = rounds.first().map(|r| r.at);
            let read = read_between(bench, readings, (axle, side), None, first);
            if read.some(false) {
                let ReadThen { angles, earlier, height_mm, .. } = read;
                out.push(WorkLoop { height_mm, read: angles, earlier, ..now.clone() });
            }
            for (k, round) in rounds.iter().enumerate() {
                for t in round.turned.iter().filter(|t| t.side.is_none_or(|s| s == side)) {
                    now.stands.insert(t.name.clone(), t.position);
                    now.otherwise |= (t.position - t.ordered).abs() > 1e-9;
                }
                let next = rounds.get(k + 1).map(|r| r.at);
                let read = read_between(bench, readings, (axle, side), Some(round.at), next);
                now.rounds = k as u32 + 1;
                // Work that nobody read anything after says nothing yet.
                if read.some(live) || next.is_none() {
                    let ReadThen { angles, earlier, height_mm, wheelbase, centre } = read;
                    out.push(WorkLoop { height_mm, read: angles, earlier, wheelbase, centre, ..now.clone() });
                }
            }
            out
        })
    })
}
