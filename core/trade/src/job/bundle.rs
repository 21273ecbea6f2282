//! A whole job as one file: exported from a shop, taken in by another, evaluated with no server.

use super::aftercare::Aftercare;
use super::base::{base_of, tyres_of};
use super::bench::{JobBench, Rules};
use super::facts::VehicleFacts;
use super::first_form::present_form;
use super::gates::{Sheet, sheet_of};
use super::note::{LONGEST_NOTE, MOST_NOTES, MOST_PHOTOS, Note};
use super::proved::{Proved, taught_of};
use super::record::{Done, OpenVisit, Reading};
use super::settled::as_it_settled;
use super::turned::{as_turned_before, loops_of};
use crate::memory::{KnownHeights, Memory, Taught};
use crate::part::{Part, part_problems};
use crate::plan::{CarAnswer, CarInput, CarPlan, car_fitted_parts, plan_car};
use crate::prove::{AxleLeft, left_to_turn};
use crate::reading::{Stage, TicketKind, shipped_methods, shipped_prepare};
use bold_stance_tread::{CarTyres, LoggedTyre};
use bold_stance_units::problem::{Problem, parse_json};
use bold_stance_units::said::{Said, said};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use serde_json::Value;
use uuid::Uuid;

/// What a bundle calls itself.
pub const JOB_FORMAT: &str = "bold-stance.job/1";

/// A plan of a job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct BundlePlan {
    /// Its id within the bundle.
    pub id: Uuid,
    /// What it is called.
    pub name: String,
    /// What was decided.
    pub document: CarPlan,
}

/// Something that happened.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Event {
    /// When, UTC.
    pub at: DateTime<Utc>,
    /// Who.
    pub author: String,
    /// What.
    pub what: String,
    /// Its details.
    pub detail: serde_json::Value,
}

/// A whole job.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct JobBundle {
    /// `bold-stance.job/1`.
    pub format: String,
    /// Version of the program that wrote it.
    pub written_by: String,
    /// When the car came, UTC.
    pub arrived_at: DateTime<Utc>,
    /// Complaint or wish.
    pub complaint: String,
    /// What the ticket is for.
    #[serde(default)]
    pub kind: TicketKind,
    /// Furthest stage reached.
    pub stage: Stage,
    /// The vehicle, with its axles and adjusters.
    pub vehicle: VehicleFacts,
    /// Visits with the answers of their prepare lists.
    pub visits: Vec<OpenVisit>,
    /// Readings in the order in which they came: raw as typed, corrections, value, doubt.
    pub readings: Vec<Reading>,
    /// Plans, oldest first.
    pub plans: Vec<BundlePlan>,
    /// The plan that is the one to set; the oldest when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub chosen_plan: Option<Uuid>,
    /// What was done of them, with the orders as they were.
    pub done: Vec<Done>,
    /// Parts that the shop planned with and that do not ship so, whole, in the order of its shelf.
    pub parts: Vec<Part>,
    /// Shipped parts that the shop did not offer any more.
    #[serde(default)]
    pub withdrawn: Vec<String>,
    /// Tyres with their logs.
    pub tyres: Vec<LoggedTyre>,
    /// Notes, with their photos in them.
    #[serde(default)]
    pub notes: Vec<Note>,
    /// Every time it came back, when it is looked at next, whether it is closed.
    #[serde(default)]
    pub aftercare: Aftercare,
    /// What the shop knew of the parts it planned with.
    #[serde(default, skip_serializing_if = "Memory::is_empty")]
    pub memory: Memory,
    /// What happened, oldest first.
    pub events: Vec<Event>,
}

/// What a job comes to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Evaluated {
    /// Name of the plan that was evaluated: the one asked for, else the one to set.
    pub name: String,
    /// Its answer.
    pub plan: CarAnswer,
    /// Its sheet, gates judged.
    pub sheet: Sheet,
    /// Its tyres as the forecast takes them.
    pub tyres: CarTyres,
    /// Every wheel against what was said of it, once something was read after work.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub proved: Option<Proved>,
    /// What this car taught of its adjusters, and how well it was said; none while nothing was read after work.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub learned: Option<Taught>,
    /// What is left to turn; none where nothing was read after work.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub next_orders: Option<Vec<AxleLeft>>,
}

impl JobBundle {
    /// Parses a bundle, each fault with its path.
    ///
    /// # Errors
    /// Every [`Problem`] found.
    pub fn from_json(text: &[u8]) -> Result<Self, Vec<Problem>> {
        // Written before axles stood by their place: the facts are brought into this form first. A text that is no JSON, or
        // is in this form already, is read as it is, so that a fault is named where it stands.
        let older = serde_json::from_slice::<Value>(text).ok().and_then(|mut v| {
            let facts = v.get_mut("vehicle").filter(|f| f.is_object() && f.get("axles").is_none())?;
            *facts = present_form(facts.take());
            serde_json::to_vec(&v).ok()
        });
        let out: Self = parse_json(older.as_deref().unwrap_or(text)).map_err(|p| vec![p])?;
        let problems = out.problems();
        if problems.is_empty() { Ok(out) } else { Err(problems) }
    }

    /// Everything wrong with it, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.format != JOB_FORMAT {
            let wrong = said("fault-another-format").name("value", self.format.clone());
            out.push(Problem::new("format", wrong, said("fault-quoted").name("value", JOB_FORMAT)));
        }
        if self.complaint.chars().count() > 500 {
            out.push(Problem::new(
                "complaint",
                said("fault-longer-than-500-characters"),
                said("fault-wish-few-words"),
            ));
        }
        let photos = self.notes.iter().filter(|n| n.photo.is_some()).count();
        if self.notes.len() > MOST_NOTES || photos > MOST_PHOTOS {
            let right = said("fault-photos-most").count("n", MOST_PHOTOS);
            out.push(Problem::new("notes", said("fault-too-many"), right));
        }
        for (i, n) in self.notes.iter().enumerate() {
            if n.text.chars().count() > LONGEST_NOTE || n.text.contains('\0') {
                let right = said("fault-characters-right").count("n", LONGEST_NOTE);
                out.push(Problem::new(format!("notes.{i}.text"), said("fault-more-than-reading"), right));
            }
            if n.photo.is_some() != n.jpeg.is_some() {
                let (wrong, right) = (said("fault-photo-half"), said("fault-photo-whole"));
                out.push(Problem::new(format!("notes.{i}.jpeg"), wrong, right));
            }
        }
        let at = |prefix: String, p: Problem| Problem { field: format!("{prefix}{}", p.field), ..p };
        out.extend(self.vehicle.problems().into_iter().map(|p| at("vehicle.".into(), p)));
        for (i, p) in self.plans.iter().enumerate() {
            out.extend(p.document.problems(&format!("plans.{i}.document.")));
            if self.plans[..i].iter().any(|q| q.id == p.id) {
                out.push(Problem::new(
                    format!("plans.{i}.id"),
                    said("fault-named-twice"),
                    said("fault-id-its-own"),
                ));
            }
        }
        for (i, r) in self.readings.iter().enumerate() {
            if !(r.value.is_finite() && r.sigma.is_finite() && r.sigma >= 0.0) {
                out.push(Problem::new(
                    format!("readings.{i}.value"),
                    said("fault-not-number"),
                    said("fault-what-was-read"),
                ));
            }
            if self.readings[..i].iter().any(|q| q.id == r.id) {
                out.push(Problem::new(
                    format!("readings.{i}.id"),
                    said("fault-named-twice"),
                    said("fault-id-its-own"),
                ));
            }
            if let Some(id) = r.replaces
                && !self.readings[..i].iter().any(|q| q.id == id)
            {
                let right = said("fault-reading-before");
                out.push(Problem::new(format!("readings.{i}.replaces"), said("fault-no-reading"), right));
            }
        }
        for (i, d) in self.done.iter().enumerate() {
            if !self.plans.iter().any(|p| p.id == d.plan_id) {
                let right = said("fault-plan-of-job");
                out.push(Problem::new(format!("done.{i}.plan_id"), said("fault-no-plan"), right));
            }
        }
        out.extend(self.aftercare.problems("aftercare"));
        for (i, t) in self.tyres.iter().enumerate() {
            out.extend(t.problems(&format!("tyres.{i}")));
        }
        for (i, p) in self.parts.iter().enumerate() {
            out.extend(part_problems(p).into_iter().map(|p| at(format!("parts.{i}."), p)));
        }
        out
    }

    /// The catalogue a plan of this job chooses from: what ships, the shop's own in the place of those of their id or
    /// behind them, without what was withdrawn and is not `fitted`.
    #[must_use]
    pub fn catalogue(&self, shipped: &[Part], fitted: &[String]) -> Vec<Part> {
        let own = |id: &str| self.parts.iter().find(|q| q.id == id);
        let ships = |id: &str| shipped.iter().any(|p| p.id == id);
        let on = |p: &Part| fitted.iter().any(|f| f.split('@').next() == Some(p.id.as_str()));
        let placed = shipped.iter().map(|p| own(&p.id).unwrap_or(p));
        let behind = self.parts.iter().filter(|p| !ships(&p.id));
        placed.chain(behind).filter(|p| !self.withdrawn.contains(&p.id) || on(p)).cloned().collect()
    }

    /// Evaluates a plan of the job, by id or name; the one to set when none is named. `now` stands for today.
    ///
    /// # Errors
    /// Every [`Problem`]; also when it has no plan, or the readings a plan hangs on are not there.
    pub fn evaluate(
        &self,
        plan: Option<&str>,
        shipped: &[Part],
        now: DateTime<Utc>,
    ) -> Result<Evaluated, Vec<Problem>> {
        let named = |p: &&BundlePlan| match plan {
            Some(n) => p.name == n || p.id.to_string() == n,
            None => self.chosen_plan.is_none_or(|id| p.id == id),
        };
        let Some(chosen) = self.plans.iter().find(named) else {
            let names: Vec<&str> = self.plans.iter().map(|p| p.name.as_str()).collect();
            let right =
                if names.is_empty() { said("fault-job-with-plan") } else { Said::text(names.join(", ")) };
            return Err(vec![Problem::new("plans", said("fault-no-plan"), right)]);
        };
        let (methods, items) =
            (shipped_methods().map_err(|p| vec![p])?, shipped_prepare().map_err(|p| vec![p])?);
        let rules = Rules { methods: &methods, items: &items };
        let bench = JobBench::of(rules, &self.vehicle, &self.readings, &self.done, &self.visits, now)
            .map_err(|p| vec![p])?
            .of_job(self.kind, &self.aftercare)
            .knowing(if chosen.document.as_sold {
                KnownHeights::default()
            } else {
                self.memory.heights.clone()
            });
        let base = base_of(&self.vehicle, &self.readings, &self.done, &bench.seen);
        let input = CarInput { base, plan: chosen.document.clone() };
        let catalogue = self.catalogue(shipped, &chosen.document.fitted());
        let catalogue: Vec<Part> = if chosen.document.as_sold {
            catalogue
        } else {
            catalogue.iter().map(|p| self.memory.known_part(p)).collect()
        };
        let done: Vec<&Done> = self.done.iter().filter(|d| d.plan_id == chosen.id).collect();
        let input = as_turned_before(&self.done, chosen.id, input);
        let input = as_it_settled(&self.vehicle, &self.readings, &done, input);
        let answer = plan_car(&input, &catalogue)?;
        let fitted = car_fitted_parts(&input, &catalogue);
        let all: Vec<&Done> = self.done.iter().collect();
        let loops = loops_of(&bench, &self.readings, &all, &input);
        let left = left_to_turn(&input, &catalogue, &loops);
        let sheet =
            sheet_of(&bench, &self.readings, (&done, &self.aftercare), &input, answer.clone(), &fitted, left);
        let tyres = tyres_of(&self.vehicle, chosen.document.limit_mm);
        let learned = (!sheet.left.is_empty()).then(|| taught_of(&sheet.left, &sheet.proved));
        Ok(Evaluated {
            name: chosen.name.clone(),
            plan: answer,
            proved: learned.is_some().then(|| sheet.proved.clone()),
            next_orders: learned.is_some().then(|| sheet.left.clone()),
            learned,
            sheet,
            tyres,
        })
    }
}
