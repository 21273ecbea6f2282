//! Everything a plan of a car hangs on: what a job gives and what was decided, and the part of it that one axle is worked
//! out from.

use super::document::{AxlePlan, CarPlan};
use super::stance::{CarStance, Stands};
use crate::part::ClassRules;
use crate::plan::input::{Moves, PlanInput, SideReadings};
use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::fit::{Knowledge, SweepReading};
use bold_stance_car::vehicle::{AirLevel, Axles, Inspected, Limits, Sides, TurnRecord, USUAL_STEERING_RATIO};
use bold_stance_kinematics::geometry::{Axle, Geometry};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// What a job gives of an axle whose points are known and that was read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AxleBase {
    /// The axle.
    pub geometry: Geometry,
    /// How well its points are known.
    #[serde(default)]
    pub knowledge: Knowledge,
    /// Readings of one wheel at several heights.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub jack_sweep: Vec<SweepReading>,
    /// Hub-to-arch height at which the geometry was taken, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 1500.0))]
    pub design_height_mm: f64,
    /// What can be turned on each side, the same list on both.
    #[serde(default)]
    pub adjusters: Sides<Vec<Adjuster>>,
    /// Whether the specialist said that this is all; else it is what such cars usually have.
    #[serde(default = "yes")]
    pub adjusters_told: bool,
    /// Whether its upper arm sits on a cross shaft; not looked at when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub upper_shaft: Option<bool>,
    /// Both wheels as found.
    pub read: Sides<SideReadings>,
    /// How far a live axle has to go to the left to stand central, as read as found, mm; not read when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(minimum = -150.0, maximum = 150.0))]
    pub axle_offset_mm: Option<f64>,
    /// Wheelbases as taped on both sides as found, where this live axle is the one that is squared, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wheelbases_mm: Option<Sides<f64>>,
    /// What joints, travel and clearances allow, as far as it was measured.
    #[serde(default, deserialize_with = "bold_stance_units::problem::from_object")]
    pub limits: Limits,
}

fn usual_steering_ratio() -> f64 {
    USUAL_STEERING_RATIO
}

fn yes() -> bool {
    true
}

/// What a job gives a plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CarBase {
    /// Axle to axle, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 1000.0, maximum = 8000.0))]
    pub wheelbase_mm: f64,
    /// Largest turn of the inner front wheel, degrees.
    #[cfg_attr(feature = "openapi", schema(minimum = 5.0, maximum = 70.0))]
    pub lock_deg: f64,
    /// Turns of the steering wheel for one of the road wheels.
    #[serde(default = "usual_steering_ratio")]
    #[cfg_attr(feature = "openapi", schema(minimum = 5.0, maximum = 40.0))]
    pub steering_ratio: f64,
    /// The rule book of its class, where it competes.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub class_rules: Option<ClassRules>,
    /// Levels of an air suspension against as found.
    #[serde(default)]
    pub levels: Vec<AirLevel>,
    /// Loaded radius gained by the planned tyres, mm: turns the body, moves no arm.
    #[serde(default)]
    pub tyre_gain_mm: Axles<f64>,
    /// How it stands as found.
    #[serde(default)]
    pub stands: Stands,
    /// Turns recorded on it, and the settled heights they gave.
    #[serde(default)]
    pub turns: Vec<TurnRecord>,
    /// What was looked at on each axle before it was read.
    #[serde(default)]
    pub inspected: Axles<Vec<Inspected>>,
    /// When work on it began: parts are known by what cars accepted before that taught, so that what was said of it stays said,
    /// and its own readings count once.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub worked_since: Option<DateTime<Utc>>,
    /// Where adjusters stand that were turned for another plan since the car was read as found: positions by name. Orders go
    /// from there.
    #[serde(default, skip_serializing_if = "nothing_turned")]
    pub turned: Axles<Sides<BTreeMap<String, f64>>>,
    /// Each axle; none until its points are known and it was read.
    pub axles: Axles<Option<AxleBase>>,
}

fn nothing_turned(t: &Axles<Sides<BTreeMap<String, f64>>>) -> bool {
    t.each().iter().all(|(_, s)| s.each().iter().all(|(_, m)| m.is_empty()))
}

/// A car and what is decided about it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CarInput {
    /// What the job gives.
    pub base: CarBase,
    /// What was decided.
    pub plan: CarPlan,
}

/// The axle that is not this one.
pub(crate) fn other(axle: Axle) -> Axle {
    match axle {
        Axle::Front => Axle::Rear,
        Axle::Rear => Axle::Front,
    }
}

impl CarInput {
    /// What one axle is worked out from; none where the job does not give it.
    #[must_use]
    pub fn axle(&self, axle: Axle) -> Option<PlanInput> {
        let b = self.base.axles[axle].as_ref()?;
        let own = &self.plan.axles[axle];
        let moves = Axles::of(|a| {
            let AxlePlan { height_change_mm, settle_mm, load_mm, .. } = self.plan.axles[a];
            Moves { height_change_mm, settle_mm, load_mm, tyre_gain_mm: self.base.tyre_gain_mm[a] }
        });
        Some(PlanInput {
            knowledge: b.knowledge,
            jack_sweep: b.jack_sweep.clone(),
            adjusters: b.adjusters.clone(),
            adjusters_told: b.adjusters_told,
            upper_shaft: b.upper_shaft,
            class_rules: self.base.class_rules.clone(),
            axle_offset_mm: b.axle_offset_mm,
            wheelbases_mm: b.wheelbases_mm,
            moves,
            ways: own.ways.clone(),
            trim_mm: own.trim_mm,
            levels: self.base.levels.clone(),
            limits: b.limits,
            lock_deg: self.base.lock_deg,
            picked: own.picked,
            fitted: own.fitted.clone(),
            only: own.only.clone(),
            turned: self.base.turned[axle].clone(),
            ..PlanInput::unchanged(
                b.geometry.clone(),
                self.base.wheelbase_mm,
                b.design_height_mm,
                Vec::new(),
                b.read.into_pair(),
                self.plan.aim.clone(),
            )
        })
    }

    /// The car as found.
    #[must_use]
    pub fn found(&self) -> CarStance {
        self.base.stands.raised(Axles::default(), Axles::default(), self.base.wheelbase_mm)
    }

    /// The car with each axle higher by `by`, mm, on the planned tyres.
    #[must_use]
    pub fn stands_at(&self, by: Axles<f64>) -> CarStance {
        self.base.stands.raised(by, self.base.tyre_gain_mm, self.base.wheelbase_mm)
    }

    /// What is out of range in the car as a whole, by field; each axle's own faults come with its answer.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = self.plan.problems("plan.");
        out.extend(in_range("base.steering_ratio", self.base.steering_ratio, 5.0, 40.0, "to one").err());
        out.extend(self.base.class_rules.iter().flat_map(|c| c.problems("base.class_rules.")));
        for (axle, b) in self.base.axles.each() {
            if let Some(b) = b
                && b.geometry.axle != axle
            {
                out.push(Problem::new(
                    format!("base.axles.{}.geometry.axle", axle.word()),
                    said("fault-an-axle").word("axle", b.geometry.axle.word()),
                    said("fault-quoted").name("value", axle.word()),
                ));
            }
        }
        if self.base.axles.each().iter().all(|(_, b)| b.is_none()) {
            out.push(Problem::new(
                "base.axles",
                said("fault-no-axle-was-read-yet"),
                said("fault-heights-angles-both-wheels-one"),
            ));
        }
        out
    }

    /// A fault of one axle's document, at its field of the car's.
    pub(crate) fn at_home(axle: Axle, p: Problem) -> Problem {
        let own = axle.word();
        let field = p.field.as_str();
        let (head, rest) = field.split_once('.').unwrap_or((field, ""));
        let field = match head {
            "wheelbase_mm" | "lock_deg" | "levels" => format!("base.{field}"),
            "moves" => match rest.split_once('.') {
                Some((at, what @ "tyre_gain_mm")) => format!("base.{what}.{at}"),
                _ => format!("plan.axles.{rest}"),
            },
            "left" | "right" => format!("base.axles.{own}.read.{field}"),
            "trim_mm" | "picked" | "ways" | "fitted" | "only" => format!("plan.axles.{own}.{field}"),
            "aim" => format!("plan.{field}"),
            _ => format!("base.axles.{own}.{field}"),
        };
        Problem { field, ..p }
    }
}
