//! A job as the reading rules look at it: its car, its readings and what was done.

use super::aftercare::{Aftercare, Trim};
use super::facts::VehicleFacts;
use super::record::{Done, OpenVisit, Reading, standing};
use crate::aim::Aim;
use crate::memory::KnownHeights;
use crate::reading::{
    Answers, Change, ChangeKind, Correction, CorrectionKind, Jack, Method, MethodInfo, Picture, Place,
    PrepareItem, Prepared, RawEntry, ReadAxle, ReadingCar, Scene, Seen, Suspicion, Take, Taken, TicketKind,
    Visit, answers_of_day, picture, suspicions, take, taped_heights_of,
};
use crate::sheet::{Mark, StepId, Tick};
use bold_stance_car::vehicle::TyreSize;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::LengthUnit;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// A visit as the screen shows it.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct VisitView {
    /// Which.
    pub kind: Visit,
    /// What it is called.
    pub title: String,
    /// Version of its answers; 0 before it was opened.
    pub version: i32,
    /// When it was opened.
    pub opened_at: Option<DateTime<Utc>>,
    /// Answers of the prepare list, as typed.
    pub answers: Answers,
    /// Everything that holds at this visit: its own answers, those of the day's earlier visits that hold for it, and
    /// what was ticked at its gate.
    pub holding: Answers,
    /// Order, what is missing, and the car's current numbers.
    pub picture: Picture,
    /// What looks odd.
    pub suspicions: Vec<Suspicion>,
}

/// An answer of the prepare list that holds at a gate.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HeldAnswer {
    /// What was asked.
    pub ask: String,
    /// As answered.
    pub answer: String,
}

/// A reading as it was typed, wherever it came from.
#[derive(Debug, Clone, Copy)]
pub struct Asked<'a> {
    /// When in the work.
    pub visit: Visit,
    /// How.
    pub method: Method,
    /// As typed.
    pub raw: &'a [RawEntry],
    /// What a bare length means.
    pub unit: LengthUnit,
    /// Where.
    pub place: Place,
    /// How the wheel stood.
    pub jack: Jack,
    /// Hub to arch on the jack, as typed.
    pub jacked_height: &'a str,
}

impl Asked<'_> {
    /// As it is stored, once it was worked out.
    #[must_use]
    pub fn stored(&self, id: Uuid, taken: Taken, author: &str, taken_at: DateTime<Utc>) -> Reading {
        Reading {
            id,
            visit: self.visit,
            quantity: taken.quantity,
            axle: self.place.axle,
            side: self.place.side,
            method: self.method,
            raw: self.raw.to_vec(),
            unit: self.unit,
            value: taken.value,
            sigma: taken.sigma,
            corrections: taken.corrections,
            also: taken.also,
            doubt: taken.doubt,
            notes: taken.notes,
            jack: self.jack,
            jacked_height: self.jacked_height.chars().take(64).collect(),
            height_mm: taken.height_mm,
            author: author.into(),
            replaces: None,
            taken_at,
        }
    }
}

/// The data files readings are looked at with.
#[derive(Debug, Clone, Copy)]
pub struct Rules<'a> {
    /// Methods.
    pub methods: &'a [MethodInfo],
    /// Items of the prepare list.
    pub items: &'a [PrepareItem],
}

/// What the rules need of one job.
#[derive(Debug)]
pub struct JobBench<'a> {
    rules: Rules<'a>,
    kind: TicketKind,
    pub(super) facts: &'a VehicleFacts,
    /// The car.
    pub car: ReadingCar,
    /// Readings, oldest first.
    pub seen: Vec<Seen>,
    changes: Vec<Change>,
    open: &'a [OpenVisit],
    /// Ticks at gates that answer an item of the prepare list.
    ticked: Vec<(Visit, &'static str)>,
    /// The car was rolled and bounced at the rear's gate: says so for rear wheels, as the front is worked on after it.
    rear_rolled: bool,
    /// What was trimmed at a gate of heights, oldest first.
    pub(super) trims: Vec<Trim>,
    /// What the shop knows of turns for height and of settling.
    pub(super) known: KnownHeights,
    /// What time it is: a visit that was not opened would be opened now.
    now: DateTime<Utc>,
}

/// Change of a reading by later answers that is worth a new one, degrees or mm.
const PUT_RIGHT: f64 = 0.005;

/// A gate's ticks and the item of the prepare list that they answer when all of them are there.
const GATE_TICKS: [(StepId, &[Tick], &str); 4] = [
    (StepId::Settled, &[Tick::Roll, Tick::Bounce], "settled"),
    (StepId::Read(Axle::Front), &[Tick::Roll, Tick::Bounce], "settled"),
    (StepId::Proved, &[Tick::Roll], "settled"),
    (StepId::Proved, &[Tick::WheelStraight], "steering"),
];

/// The item of the prepare list that says the same as a tick.
#[must_use]
pub(super) fn item_of(tick: Tick) -> Option<&'static str> {
    match tick {
        Tick::Roll | Tick::Bounce => Some("settled"),
        Tick::WheelStraight => Some("steering"),
        Tick::Resweep => None,
    }
}

/// The visit whose readings open a gate.
#[must_use]
pub(super) fn visit_of(gate: &StepId) -> Option<Visit> {
    match gate {
        StepId::Settled => Some(Visit::Settled),
        StepId::Read(_) | StepId::Toe(_) => Some(Visit::Reswept),
        StepId::Proved => Some(Visit::Proved),
        _ => None,
    }
}

/// The car of a vehicle's facts, as readings need it.
///
/// # Errors
/// A problem at `tyre_size`, or at the front axle's points.
pub fn reading_car(f: &VehicleFacts) -> Result<ReadingCar, Problem> {
    Ok(ReadingCar {
        car: f.to_car()?,
        design_height_mm: f.axles.as_ref().map(|a| a.height_mm).into_pair(),
        tyre: TyreSize::parse("tyre_size", &f.tyre_size)?,
        track_mm: f.axles.as_ref().map(|a| a.track_mm).into_pair(),
    })
}

/// What a ticked step changed on the car.
fn change(d: &Done) -> Option<Change> {
    let Mark::Step(step) = &d.step else { return None };
    let (kind, axle) = match step {
        StepId::Height(a) => (ChangeKind::Height, *a),
        StepId::Arms(a) => (ChangeKind::Cams, *a),
        StepId::Toe(a) => (ChangeKind::TieRods, *a),
        StepId::Fit(a, _) => (ChangeKind::Parts, *a),
        _ => return None,
    };
    Some(Change { kind, axle, at: d.last_at().timestamp() })
}

impl<'a> JobBench<'a> {
    /// Puts a job together as it stands at `now`.
    ///
    /// # Errors
    /// A problem of the vehicle's tyre size.
    pub fn of(
        rules: Rules<'a>,
        facts: &'a VehicleFacts,
        readings: &[Reading],
        done: &[Done],
        open: &'a [OpenVisit],
        now: DateTime<Utc>,
    ) -> Result<Self, Problem> {
        let mut changes: Vec<Change> = done.iter().filter_map(change).collect();
        changes.sort_by_key(|c| c.at);
        let seen = readings.iter().map(Reading::seen).collect();
        let marked =
            |gate: &StepId, tick: Tick| done.iter().any(|d| d.step == Mark::Tick(gate.clone(), tick));
        let ticked = GATE_TICKS
            .iter()
            .filter(|(gate, ticks, _)| ticks.iter().all(|t| marked(gate, *t)))
            .filter_map(|(gate, _, item)| Some((visit_of(gate)?, *item)))
            .collect();
        let rear_rolled =
            [Tick::Roll, Tick::Bounce].into_iter().all(|t| marked(&StepId::Read(Axle::Rear), t));
        let kind = TicketKind::default();
        Ok(Self {
            rules,
            kind,
            facts,
            car: reading_car(facts)?,
            seen,
            changes,
            open,
            ticked,
            rear_rolled,
            trims: Vec::new(),
            known: KnownHeights::default(),
            now,
        })
    }

    /// The same for a ticket of a kind, as it came back last: what was read at a return before is none of this one's.
    #[must_use]
    pub fn of_job(mut self, kind: TicketKind, care: &Aftercare) -> Self {
        self.kind = kind;
        self.trims = care.at_gate.iter().filter(|t| t.moved()).cloned().collect();
        if let Some(back) = care.last() {
            let since = back.at.timestamp();
            self.seen.retain(|r| r.visit != Visit::Returned || r.at >= since);
        }
        self
    }

    /// The same with what the shop knew of heights when work began.
    #[must_use]
    pub fn knowing(mut self, known: KnownHeights) -> Self {
        self.known = known;
        self
    }

    /// Works a reading out as the car stood at its visit.
    ///
    /// # Errors
    /// Every problem, each at its entry.
    pub fn take(&self, a: &Asked<'_>, aim: Option<&Aim>) -> Result<Taken, Vec<Problem>> {
        let Some(method) = self.rules.methods.iter().find(|m| m.id == a.method) else {
            return Err(vec![Problem::new(
                "method",
                said("fault-no-data"),
                said("fault-one-methods-listed"),
            )]);
        };
        take(&Take {
            method,
            raw: a.raw,
            unit: a.unit,
            place: a.place,
            jack: a.jack,
            jacked_height: a.jacked_height,
            car: Some(&self.car),
            heights: taped_heights_of(&self.seen, a.visit),
            prepared: &self.prepared_for(a.visit, a.place),
            items: self.rules.items,
            aim,
        })
    }

    /// Readings of a visit that a later answer of the prepare list touches (floor across and along, fuel, people, cargo), worked
    /// out anew from what was typed: each replaces the one that was kept, and was taken when that was taken.
    #[must_use]
    pub fn put_right(
        &self,
        readings: &[Reading],
        visit: Visit,
        mut id: impl FnMut() -> Uuid,
    ) -> Vec<Reading> {
        let of_list = |k: CorrectionKind| {
            matches!(k, CorrectionKind::FloorSlope | CorrectionKind::FloorAlong | CorrectionKind::Weight)
        };
        let sum = |list: &[Correction]| -> f64 {
            list.iter().filter(|c| c.applied && of_list(c.kind)).map(|c| c.amount).sum()
        };
        let stands =
            |r: &&Reading| standing(readings, visit, r.quantity, r.place()).is_some_and(|now| now.id == r.id);
        let mut out = Vec::new();
        // What was read at a return before is none of this one's.
        let ours = |r: &&Reading| self.seen.iter().any(|s| s.id == r.id.to_string());
        for r in readings.iter().filter(|r| r.visit == visit).filter(stands).filter(ours) {
            let asked = Asked {
                visit,
                method: r.method,
                raw: &r.raw,
                unit: r.unit,
                place: r.place(),
                jack: r.jack,
                jacked_height: &r.jacked_height,
            };
            let Ok(taken) = self.take(&asked, None) else { continue };
            if (sum(&taken.corrections) - sum(&r.corrections)).abs() < PUT_RIGHT {
                continue;
            }
            let mut new = asked.stored(id(), taken, &r.author, r.taken_at);
            new.replaces = Some(r.id);
            out.push(new);
        }
        out
    }

    /// What holds at a visit, opened or not yet: the day's answers, its own, and the ticks of its gate.
    #[must_use]
    pub fn holding_at(&self, kind: Visit) -> Answers {
        let own = self.open.iter().find(|v| v.kind == kind);
        let at = own.map_or(self.now, |v| v.opened_at).timestamp();
        let order = |k: Visit| Visit::ALL.iter().position(|v| *v == k);
        let mut earlier: Vec<&OpenVisit> = self.open.iter().filter(|v| order(v.kind) < order(kind)).collect();
        earlier.sort_by_key(|v| order(v.kind));
        let none = Answers::new();
        let mut out = answers_of_day(
            earlier.into_iter().map(|v| (v.opened_at.timestamp(), &v.answers)),
            own.map_or(&none, |v| &v.answers),
            at,
            self.rules.items,
        );
        for (_, item) in self.ticked.iter().filter(|(v, _)| *v == kind) {
            out.entry((*item).to_owned()).or_insert_with(|| "yes".to_owned());
        }
        out
    }

    /// The same as asked and answered, in the order of the list; what was left empty is not in it.
    #[must_use]
    pub fn held_at(&self, kind: Visit) -> Vec<HeldAnswer> {
        let holding = self.holding_at(kind);
        let of = |i: &PrepareItem| {
            let answer = holding.get(&i.id)?.trim();
            (!answer.is_empty()).then(|| HeldAnswer { ask: i.ask.clone(), answer: answer.to_owned() })
        };
        self.rules.items.iter().filter_map(of).collect()
    }

    /// The same understood.
    #[must_use]
    pub fn prepared_at(&self, kind: Visit) -> Prepared {
        self.prepared(&self.holding_at(kind))
    }

    /// The same for what is read at a place: the rear's gate is ticked for rear wheels alone.
    fn prepared_for(&self, kind: Visit, place: Place) -> Prepared {
        let mut holding = self.holding_at(kind);
        if self.rear_rolled
            && Some(kind) == visit_of(&StepId::Read(Axle::Rear))
            && place.axle == ReadAxle::Rear
        {
            holding.entry("settled".to_owned()).or_insert_with(|| "yes".to_owned());
        }
        self.prepared(&holding)
    }

    /// Answers understood; a stored list that no longer parses counts as unanswered.
    fn prepared(&self, answers: &Answers) -> Prepared {
        Prepared::of(answers, self.rules.items).unwrap_or_default()
    }

    /// Runs `f` on the scene of a visit.
    pub fn scene<T>(&self, visit: Visit, prepared: &Prepared, f: impl FnOnce(&Scene<'_>) -> T) -> T {
        f(&Scene {
            visit,
            kind: self.kind,
            readings: &self.seen,
            changes: &self.changes,
            prepared,
            items: self.rules.items,
            car: Some(&self.car),
            knowledge: self.facts.axles.as_ref().map(|a| a.knowledge).into_pair(),
            same_marks: prepared.yes_no("marks") == Some(true),
        })
    }

    /// Every visit that is open, and the first one always.
    #[must_use]
    pub fn views(&self) -> Vec<VisitView> {
        Visit::ALL
            .into_iter()
            .filter_map(|kind| {
                let stored = self.open.iter().find(|v| v.kind == kind);
                if stored.is_none() && kind != Visit::Found {
                    return None;
                }
                let answers = stored.map(|v| v.answers.clone()).unwrap_or_default();
                let holding = self.holding_at(kind);
                let prepared = self.prepared(&holding);
                let (picture, suspicions) =
                    self.scene(kind, &prepared, |s| (picture(s), suspicions(s, self.rules.methods)));
                Some(VisitView {
                    kind,
                    title: kind.title().into(),
                    version: stored.map_or(0, |v| v.version),
                    opened_at: stored.map(|v| v.opened_at),
                    answers,
                    holding,
                    picture,
                    suspicions,
                })
            })
            .collect()
    }
}
