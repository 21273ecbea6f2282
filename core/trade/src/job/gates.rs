//! The sheet of a stored plan: its steps, and every gate with what was ticked and read at it, what it still waits for and
//! what is off.

use super::aftercare::{Aftercare, TrimToDo};
use super::as_done::{AsDone, round_of};
use super::bench::{HeldAnswer, JobBench, item_of, visit_of};
use super::height::height_at;
use super::lessons::heights_taught;
use super::proved::{Proved, proved_of, taught_of};
use super::record::{Done, Reading, standing};
use super::returned::{Returned, UsualLook, returned_of, usual_look};
use super::road::{WheelStraight, rods_turned_at, wheel_straight};
use super::settled::{settled_of, trimmed_at};
use super::trim::{CornerBack, Look, trim_cautions};
use crate::memory::HeightsTaught;
use crate::part::Part;
use crate::plan::{CarAnswer, CarInput, Order};
use crate::prove::{AxleLeft, SideLeft, side_left};
use crate::reading::{Place, Quantity, ReadAxle, ReadSide, Visit, toe_of};
use crate::sheet::{
    CarRead, DoneRecord, Expectation, GateFinding, GateRead, GateReading, GateSide, Mark, SheetStep, StepId,
    StepKind, TOE_SET_BAND_DEG, Tick, job_cautions, judge, record_of, sheet,
};
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

/// What a gate still waits for.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case")]
pub enum GateMissing {
    /// Something to tick.
    Tick {
        /// Which.
        tick: Tick,
    },
    /// A reading.
    Reading {
        /// Which axle.
        axle: Axle,
        /// Which side.
        side: Side,
        /// What.
        quantity: GateReading,
    },
}

/// A gate as it stands.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct GateView {
    /// Which.
    pub id: StepId,
    /// The visit its readings belong to.
    pub visit: Option<Visit>,
    /// What is ticked, here or by an answer of the visit's prepare list.
    pub ticked: Vec<Tick>,
    /// Answers of the prepare list that hold at it: its visit's, and those of the day that work on the car does not change.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub holds: Vec<HeldAnswer>,
    /// What was read.
    pub read: CarRead,
    /// What it still waits for.
    pub missing: Vec<GateMissing>,
    /// What is off; empty when it may open.
    pub off: Vec<GateFinding>,
}

/// The sheet of a plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Sheet {
    /// The answer the sheet is made from.
    pub answer: CarAnswer,
    /// Steps and gates in order.
    pub steps: Vec<SheetStep>,
    /// Every gate.
    pub gates: Vec<GateView>,
    /// What is left to turn, on what the readings since the work taught; an axle that was not read since is not in it.
    pub left: Vec<AxleLeft>,
    /// Every wheel against what was said of it.
    pub proved: Proved,
    /// Corners at the gate that asks for their heights, with the turns that bring them to the plan; empty once it is behind.
    #[serde(default)]
    pub settled: Vec<CornerBack>,
    /// Cautions where one of them is turned.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub trim_cautions: Vec<Said>,
    /// The steering wheel after the last road test; none while the car was not driven.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub road: Option<WheelStraight>,
    /// How the car came back last; none while it did not.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub returned: Option<Returned>,
    /// When the car is usually looked at next.
    pub next_look: UsualLook,
    /// What the car taught of height, not yet written down: what turns gave, how far it settled.
    #[serde(skip)]
    pub taught: HeightsTaught,
    /// Cautions of the whole job.
    pub cautions: Vec<Said>,
    /// Toe of one wheel as expected after its rod was turned, 90 % half width, degrees.
    pub toe_band_deg: f64,
}

/// What was read at a visit; `since` is when an axle's quantity was last worked on: what was taken before is stale.
fn read_at(
    bench: &JobBench<'_>,
    readings: &[Reading],
    visit: Visit,
    since: impl Fn(Axle, GateReading) -> Option<DateTime<Utc>>,
) -> CarRead {
    let of_axle = |axle: Axle| {
        let stale = |q, t: DateTime<Utc>| since(axle, q).is_some_and(|a| t < a);
        let wheelbase = |side: Side| {
            let place = Place { axle: ReadAxle::Both, side: side.into() };
            let r = standing(readings, visit, Quantity::Wheelbase, place)?;
            let stale = stale(GateReading::Wheelbase, r.taken_at);
            Some(GateRead { value: r.value, sigma: r.sigma, stale })
        };
        let both = Place { axle: axle.into(), side: ReadSide::Both };
        let centre = standing(readings, visit, Quantity::AxleOffset, both).map(|r| GateRead {
            value: r.value,
            sigma: r.sigma,
            stale: stale(GateReading::Centre, r.taken_at),
        });
        Sides::of(|side| {
            let of = |q, gate| {
                let r = standing(readings, visit, q, Place::wheel(axle, side))?;
                Some(GateRead { value: r.value, sigma: r.sigma, stale: stale(gate, r.taken_at) })
            };
            let height = height_at(bench.facts, readings, visit, axle, side);
            let toe = toe_of(&bench.seen, visit, axle, side).map(|(value, sigma, r)| GateRead {
                value,
                sigma,
                stale: since(axle, GateReading::Toe).is_some_and(|a| r.at < a.timestamp()),
            });
            GateSide {
                height: height.map(|h| GateRead {
                    value: h.mm,
                    sigma: h.sigma,
                    stale: stale(GateReading::Height, h.taken_at),
                }),
                camber: of(Quantity::Camber, GateReading::Camber),
                caster: of(Quantity::Caster, GateReading::Caster),
                toe,
                wheelbase: wheelbase(side),
                centre,
            }
        })
    };
    CarRead { front: of_axle(Axle::Front), rear: of_axle(Axle::Rear) }
}

/// What is expected of the wheels that were turned more than once, or otherwise than ordered: the plan knows the first
/// order alone.
fn as_turned(left: &[AxleLeft]) -> Axles<Sides<Option<Expectation>>> {
    let of = |w: &SideLeft| Expectation { value: w.expected, half: w.expected_band };
    Axles::of(|axle| Sides::of(|side| side_left(left, axle, side).filter(|w| w.as_done).map(of)))
}

fn gate_view(
    bench: &JobBench<'_>,
    readings: &[Reading],
    (done, care): (&[&Done], &Aftercare),
    (input, answer): (&CarInput, &CarAnswer),
    left: &[AxleLeft],
    before: &[SheetStep],
    gate: &SheetStep,
) -> GateView {
    let visit = visit_of(&gate.id);
    let marked = |m: &Mark| done.iter().find(|d| d.step == *m);
    let work = before.iter().filter(|s| s.kind == StepKind::Step);
    let at = |s: &SheetStep| marked(&Mark::Step(s.id.clone())).map(|d| d.last_at());
    let last = work.clone().filter_map(at).max();
    // A rod or toe arm leaves the height as it is.
    let heights_last = work.filter(|s| !matches!(s.id, StepId::Toe(_))).filter_map(at).max();
    // A corner that was trimmed moves its axle; rods that were turned after a road test move both front wheels.
    let since = |axle: Axle, q: GateReading| {
        let own = match q {
            GateReading::Height | GateReading::Camber | GateReading::Caster
                if matches!(gate.id, StepId::Settled | StepId::Read(_)) =>
            {
                trimmed_at(care, axle)
            }
            GateReading::Toe if gate.id == StepId::Read(Axle::Rear) => trimmed_at(care, axle),
            GateReading::Toe if axle == Axle::Front => rods_turned_at(care),
            _ => None,
        };
        if q == GateReading::Height { heights_last.max(own) } else { last.max(own) }
    };
    let read = visit.map(|v| read_at(bench, readings, v, since)).unwrap_or_default();
    // Rolled and bounced may have been said in the prepare list of the visit as well; the rear's gate shares its visit
    // with the front's, and is rolled before it.
    let holding = visit
        .filter(|_| gate.id != StepId::Read(Axle::Rear))
        .map(|v| bench.holding_at(v))
        .unwrap_or_default();
    let said = |t: Tick| item_of(t).is_some_and(|i| holding.get(i).is_some_and(|a| a == "yes"));
    let ticked: Vec<Tick> = gate
        .ticks
        .iter()
        .map(|t| t.id)
        .filter(|t| said(*t) || marked(&Mark::Tick(gate.id.clone(), *t)).is_some())
        .collect();
    let mut missing: Vec<GateMissing> = gate
        .ticks
        .iter()
        .filter(|t| !ticked.contains(&t.id))
        .map(|t| GateMissing::Tick { tick: t.id })
        .collect();
    for n in &gate.needs {
        for (side, s) in read.axle(n.axle).each() {
            // One reading of the axle is asked for once.
            let once = n.quantity.of_axle() && side == Side::Right;
            if s.of(n.quantity).is_none() && !once {
                missing.push(GateMissing::Reading { axle: n.axle, side, quantity: n.quantity });
            }
        }
    }
    let off = judge(input, answer, gate, &read, &as_turned(left));
    let holds = visit.map(|v| bench.held_at(v)).unwrap_or_default();
    GateView { id: gate.id.clone(), visit, ticked, holds, read, missing, off }
}

impl Sheet {
    /// What is ordered of corners: as the car came back, else at the gate of heights.
    #[must_use]
    pub fn trims_to_do(&self) -> Vec<TrimToDo> {
        let corners = self.returned.as_ref().map_or(&self.settled, |r| &r.corners);
        let of = |c: &CornerBack| {
            let t = c.trim.as_ref()?;
            Some(TrimToDo { axle: c.axle, side: c.side, turns: t.turns, words: t.words.clone() })
        };
        corners.iter().filter_map(of).collect()
    }
}

/// The sheet of a plan as the job stands; `done` is what was done of this plan, `care` what happened since.
#[must_use]
pub fn sheet_of(
    bench: &JobBench<'_>,
    readings: &[Reading],
    (done, care): (&[&Done], &Aftercare),
    input: &CarInput,
    answer: CarAnswer,
    fitted: &Axles<Vec<Part>>,
    left: Vec<AxleLeft>,
) -> Sheet {
    let mut answer = answer;
    // What was not turned yet goes by what was read since, not by what was planned before: toe after its axle's own work,
    // everything where another plan was worked on.
    let step = |o: &Order| if o.line.sets_toe { StepId::Toe(o.axle) } else { StepId::Arms(o.axle) };
    let turned = |o: &Order| done.iter().any(|d| d.step == Mark::Step(step(o)));
    for o in answer.orders.iter_mut().filter(|o| !turned(o)) {
        // What sets toe is turned when the others stand. A reading that taught nothing changes no other order.
        let again = o.side.is_some_and(|s| side_left(&left, o.axle, s).is_some_and(|w| w.again));
        let named = |l: &Order| l.side == o.side && l.line.name == o.line.name;
        let Some(own) = left.iter().find(|l| l.axle == o.axle) else { continue };
        let orders = own.orders();
        let arms_to_come = !done.iter().any(|d| d.step == Mark::Step(StepId::Arms(o.axle)))
            && orders.iter().any(|l| !l.line.sets_toe && l.line.moves());
        let toe = own.toe.iter().find(|l| o.line.sets_toe && !arms_to_come && named(l)).cloned();
        if let Some(l) = toe.or_else(|| orders.into_iter().find(|l| !again && named(l))) {
            o.line = l.line;
        }
    }
    let mut steps = sheet(input, &answer, fitted);
    for s in steps.iter_mut().filter(|s| !s.helps.is_empty()) {
        let own = left.iter().find(|l| Some(l.axle) == s.axle);
        s.read_again = own.map(|l| l.toe_again.clone()).unwrap_or_default();
    }
    let left: Vec<AxleLeft> = left.into_iter().filter(|l| l.worked).collect();
    let view = |(i, s)| gate_view(bench, readings, (done, care), (input, &answer), &left, &steps[..i], s);
    let gates: Vec<GateView> = steps
        .iter()
        .enumerate()
        .filter(|(_, s)| s.kind == StepKind::Gate || !s.helps.is_empty())
        .map(view)
        .collect();
    let proved = proved_of(readings, (done, care), (input, &answer), &left, &steps);
    // It left when somebody stood for it, else when it was worked on last.
    let accepted = done.iter().find(|d| d.step == Mark::Step(StepId::Proved)).map(|d| d.done_at);
    let left_at = accepted.or_else(|| done.iter().map(|d| d.last_at()).max());
    let look = Look { facts: bench.facts, readings, care, known: &bench.known };
    let returned = returned_of(&look, (input, &answer), left_at);
    let next_look = usual_look(returned.as_ref());
    let road = wheel_straight(care, input, &answer, &left);
    let settled = settled_of(&look, (&steps, done), (input, &answer));
    let taught = heights_taught(&look, input);
    Sheet {
        next_look,
        taught,
        gates,
        steps,
        answer,
        left,
        proved,
        road,
        trim_cautions: trim_cautions(&settled),
        settled,
        returned,
        cautions: job_cautions(),
        toe_band_deg: TOE_SET_BAND_DEG,
    }
}

/// What is kept with a mark: what its step says now. A gate opens on its readings, and on a reason where one of them is
/// off.
///
/// # Errors
/// A step that is not on the sheet, a gate that still waits, one that is off without a reason, one that has to be signed
/// and is not.
pub fn mark_step(
    sheet: &Sheet,
    mark: &Mark,
    (reason, signed): (Option<&str>, Option<&str>),
    as_done: &[AsDone],
    (now_at, author): (DateTime<Utc>, &str),
) -> Result<DoneRecord, Problem> {
    let (id, tick) = match mark {
        Mark::Step(s) => (s, None),
        Mark::Tick(s, t) => (s, Some(*t)),
    };
    let known = |s: &&SheetStep| s.id == *id && tick.is_none_or(|t| s.ticks.iter().any(|x| x.id == t));
    let Some(now) = sheet.steps.iter().find(known) else {
        let right: Vec<String> = sheet.steps.iter().map(|s| s.id.to_string()).collect();
        let wrong = said("no-step").name("step", mark.to_string());
        return Err(Problem::new("step", wrong, right.join(", ")));
    };
    if tick.is_some() {
        return Ok(DoneRecord::default());
    }
    let mut record = record_of(now);
    if !now.orders.is_empty() || !as_done.is_empty() {
        record.rounds = vec![round_of(&now.orders, as_done, now_at, author)?];
    }
    if let Some(gate) = sheet.gates.iter().find(|g| g.id == *id) {
        if !gate.missing.is_empty() {
            let words = |m: &GateMissing| match m {
                GateMissing::Tick { tick } => now
                    .ticks
                    .iter()
                    .find(|t| t.id == *tick)
                    .map_or_else(|| Said::text(tick.word()), |t| t.words.clone()),
                GateMissing::Reading { axle, side, quantity } => said("not-read")
                    .word("side", side.word())
                    .word("axle", axle.word())
                    .word("quantity", quantity.word()),
            };
            let shut = gate.missing.iter().map(words).collect();
            return Err(Problem::new("step", said("gate-shut").list("each", shut), said("gate-shut-right")));
        }
        let reason = reason.map(str::trim).unwrap_or_default();
        let n = reason.chars().count();
        if !gate.off.is_empty() && !(3..=300).contains(&n) {
            let wrong = if n > 300 { said("too-long").count("n", 300) } else { said("no-reason") };
            return Err(Problem::new("reason", wrong, said("no-reason-right")));
        }
        // What goes on against a reading, and the car as a whole, is somebody's word.
        let name = signed.map(str::trim).unwrap_or_default();
        let n = name.chars().count();
        if (!gate.off.is_empty() || *id == StepId::Proved) && !(2..=60).contains(&n) {
            let wrong = if n > 60 { said("too-long").count("n", 60) } else { said("not-signed") };
            return Err(Problem::new("signed", wrong, said("not-signed-right")));
        }
        record.signed = (n > 0).then(|| name.to_owned());
        if *id == StepId::Proved {
            record.taught = Some(taught_of(&sheet.left, &sheet.proved));
        }
        record.off.clone_from(&gate.off);
        record.reason = (!gate.off.is_empty()).then(|| reason.to_owned());
    }
    Ok(record)
}
