//! A job as the reading rules look at it: its car, its readings and what was done, put together from the store.

use crate::AppState;
use bold_stance_core::plan::Aim;
use bold_stance_core::problem::Problem;
use bold_stance_core::reading::{
    Answers, Change, ChangeKind, Jack, Method, Picture, Place, Prepared, RawEntry, ReadingCar, Scene, Seen,
    Suspicion, Take, Taken, Visit, answers_of_day, picture, suspicions, take, taped_heights_of,
};
use bold_stance_core::units::LengthUnit;
use bold_stance_core::vehicle::{Car, TyreSize};
use bold_stance_store::done::Done;
use bold_stance_store::reading::Reading;
use bold_stance_store::vehicle::VehicleFacts;
use bold_stance_store::visit::OpenVisit;
use chrono::{DateTime, Utc};
use serde::Serialize;
use utoipa::ToSchema;
use uuid::Uuid;

/// A visit as the screen shows it.
#[derive(Debug, Serialize, ToSchema)]
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

/// A reading as it was typed, wherever it came from.
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

/// What the rules need of one job.
pub struct JobBench<'a> {
    state: &'a AppState,
    facts: &'a VehicleFacts,
    /// The car.
    pub car: ReadingCar,
    /// Readings, oldest first.
    pub seen: Vec<Seen>,
    changes: Vec<Change>,
    /// Visits, with when they were opened (s) and what was answered.
    open: Vec<(Visit, i64, Answers)>,
    /// Ticks at gates that answer an item of the prepare list.
    ticked: Vec<(Visit, &'static str)>,
}

/// The gate of a visit, and the item of the prepare list that its ticks answer when all of them are there.
const GATE_TICKS: [(Visit, &str, &[&str], &str); 4] = [
    (Visit::Settled, "settled", &["Roll 3 m", "Bounce three times"], "settled"),
    (Visit::Reswept, "reswept", &["Roll 3 m", "Bounce three times"], "settled"),
    (Visit::Proved, "proved", &["Roll 3 m"], "settled"),
    (Visit::Proved, "proved", &["Steering wheel straight"], "steering"),
];

/// The car of a vehicle's facts, as readings need it.
///
/// # Errors
/// A problem at `tyre_size`.
pub fn reading_car(f: &VehicleFacts) -> Result<ReadingCar, Problem> {
    Ok(ReadingCar {
        car: Car {
            front: f.geometry.clone(),
            rear: f.rear_geometry.clone(),
            wheelbase_mm: f.wheelbase_mm,
            facts: f.car.clone(),
        },
        design_height_mm: [f.design_height_mm, f.rear_height_mm],
        tyre: TyreSize::parse("tyre_size", &f.tyre_size)?,
        track_mm: [f.track_front_mm, f.track_rear_mm],
    })
}

/// What a ticked step changed on the car.
fn change(d: &Done) -> Option<Change> {
    let kind = match d.step.as_str() {
        "height" => ChangeKind::Height,
        "cams" => ChangeKind::Cams,
        "tie-rods" => ChangeKind::TieRods,
        s if s.starts_with("fit-") => ChangeKind::Parts,
        _ => return None,
    };
    Some(Change { kind, at: d.done_at.timestamp() })
}

impl<'a> JobBench<'a> {
    /// Puts a job together.
    ///
    /// # Errors
    /// A problem of the vehicle's tyre size.
    pub fn of(
        state: &'a AppState,
        facts: &'a VehicleFacts,
        readings: &[Reading],
        done: &[Done],
        visits: &[OpenVisit],
    ) -> Result<Self, Problem> {
        let mut changes: Vec<Change> = done.iter().filter_map(change).collect();
        changes.sort_by_key(|c| c.at);
        let seen = readings.iter().map(Reading::seen).collect();
        let open = visits.iter().map(|v| (v.kind, v.opened_at.timestamp(), v.answers.clone())).collect();
        let marked = |gate: &str, tick: &&str| done.iter().any(|d| d.step == format!("{gate}/{tick}"));
        let ticked = GATE_TICKS
            .iter()
            .filter(|(_, gate, ticks, _)| ticks.iter().all(|t| marked(gate, t)))
            .map(|(visit, _, _, item)| (*visit, *item))
            .collect();
        Ok(Self { state, facts, car: reading_car(facts)?, seen, changes, open, ticked })
    }

    /// Works a reading out as the car stood at its visit.
    ///
    /// # Errors
    /// Every problem, each at its entry.
    pub fn take(&self, a: &Asked<'_>, aim: Option<&Aim>) -> Result<Taken, Vec<Problem>> {
        let Some(method) = self.state.methods.iter().find(|m| m.id == a.method) else {
            return Err(vec![Problem::new("method", "no data for it", "one of the methods listed")]);
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
            prepared: &self.prepared_at(a.visit),
            items: &self.state.prepare,
            aim,
        })
    }

    /// What holds at a visit, opened or not yet: the day's answers, its own, and the ticks of its gate.
    pub fn holding_at(&self, kind: Visit) -> Answers {
        let own = self.open.iter().find(|(k, ..)| *k == kind);
        let at = own.map_or_else(|| Utc::now().timestamp(), |(_, at, _)| *at);
        let order = |k: Visit| Visit::ALL.iter().position(|v| *v == k);
        let mut earlier: Vec<&(Visit, i64, Answers)> =
            self.open.iter().filter(|(k, ..)| order(*k) < order(kind)).collect();
        earlier.sort_by_key(|(k, ..)| order(*k));
        let none = Answers::new();
        let mut out = answers_of_day(
            earlier.into_iter().map(|(_, at, a)| (*at, a)),
            own.map_or(&none, |(_, _, a)| a),
            at,
            &self.state.prepare,
        );
        for (_, item) in self.ticked.iter().filter(|(v, _)| *v == kind) {
            out.entry((*item).to_owned()).or_insert_with(|| "yes".to_owned());
        }
        out
    }

    /// The same understood.
    pub fn prepared_at(&self, kind: Visit) -> Prepared {
        self.prepared(&self.holding_at(kind))
    }

    /// Answers understood; a stored list that no longer parses counts as unanswered.
    fn prepared(&self, answers: &Answers) -> Prepared {
        Prepared::of(answers, &self.state.prepare).unwrap_or_default()
    }

    /// Runs `f` on the scene of a visit.
    pub fn scene<T>(&self, visit: Visit, prepared: &Prepared, f: impl FnOnce(&Scene<'_>) -> T) -> T {
        f(&Scene {
            visit,
            readings: &self.seen,
            changes: &self.changes,
            prepared,
            items: &self.state.prepare,
            car: Some(&self.car),
            knowledge: [self.facts.knowledge, self.facts.rear_knowledge],
            same_marks: prepared.yes_no("marks") == Some(true),
        })
    }

    /// Every visit that is open, and the first one always.
    pub fn views(&self, open: &[OpenVisit]) -> Vec<VisitView> {
        Visit::ALL
            .into_iter()
            .filter_map(|kind| {
                let stored = open.iter().find(|v| v.kind == kind);
                if stored.is_none() && kind != Visit::Found {
                    return None;
                }
                let answers = stored.map(|v| v.answers.clone()).unwrap_or_default();
                let holding = self.holding_at(kind);
                let prepared = self.prepared(&holding);
                let (picture, suspicions) =
                    self.scene(kind, &prepared, |s| (picture(s), suspicions(s, &self.state.methods)));
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
