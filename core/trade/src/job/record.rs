//! Rows of a job as they are kept: readings, visits, what was done.

use crate::reading::{
    Also, Answers, Correction, DoubtPart, Jack, Method, Place, Quantity, RawEntry, ReadAxle, ReadSide, Seen,
    Visit,
};
use crate::sheet::{DoneRecord, Mark};
use bold_stance_units::LengthUnit;
use bold_stance_units::said::Said;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};
use uuid::Uuid;

/// A stored reading.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Reading {
    /// Its id.
    pub id: Uuid,
    /// When in the work.
    pub visit: Visit,
    /// What.
    pub quantity: Quantity,
    /// Axle.
    pub axle: ReadAxle,
    /// Side.
    pub side: ReadSide,
    /// How.
    pub method: Method,
    /// Every entry as typed, by name.
    pub raw: Vec<RawEntry>,
    /// Unit the entries were typed in when they named none.
    pub unit: LengthUnit,
    /// Converted and corrected value: mm, degrees or kPa.
    pub value: f64,
    /// Standard deviation in the same unit.
    pub sigma: f64,
    /// What was taken out or put in, each with the version of its arithmetic.
    pub corrections: Vec<Correction>,
    /// Further figures.
    pub also: Vec<Also>,
    /// What the doubt is made of.
    pub doubt: Vec<DoubtPart>,
    /// Remarks.
    pub notes: Vec<Said>,
    /// How the wheel stood.
    pub jack: Jack,
    /// Hub to arch as it stood on the jack, as typed.
    pub jacked_height: String,
    /// Hub-to-arch height it was read at, mm.
    pub height_mm: Option<f64>,
    /// Who read it.
    pub author: String,
    /// The reading this one corrects.
    pub replaces: Option<Uuid>,
    /// When, UTC.
    pub taken_at: DateTime<Utc>,
}

impl Reading {
    /// Where it was read.
    #[must_use]
    pub fn place(&self) -> Place {
        Place { axle: self.axle, side: self.side }
    }

    /// As the rules look at it.
    #[must_use]
    pub fn seen(&self) -> Seen {
        Seen {
            id: self.id.to_string(),
            visit: self.visit,
            quantity: self.quantity,
            place: self.place(),
            method: self.method,
            raw: self.raw.clone(),
            unit: self.unit,
            value: self.value,
            sigma: self.sigma,
            also: self.also.clone(),
            corrections: self.corrections.clone(),
            jack: self.jack,
            height_mm: self.height_mm,
            at: self.taken_at.timestamp(),
        }
    }
}

/// A stored visit.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OpenVisit {
    /// Which.
    pub kind: Visit,
    /// Goes up with every save of the answers.
    pub version: i32,
    /// Answers of the prepare list, as typed, by item.
    pub answers: Answers,
    /// Who opened it.
    pub author: String,
    /// When, UTC.
    pub opened_at: DateTime<Utc>,
}

/// A step done, or a tick at a gate.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Done {
    /// Its plan.
    pub plan_id: Uuid,
    /// Which step, or tick at a gate.
    pub step: Mark,
    /// When, UTC.
    pub done_at: DateTime<Utc>,
    /// Who.
    pub author: String,
    /// What it said when it was done; empty for a tick.
    pub record: DoneRecord,
}

impl Done {
    /// When it was last worked on: marked, or turned again.
    #[must_use]
    pub fn last_at(&self) -> DateTime<Utc> {
        self.record.rounds.iter().map(|r| r.at).chain([self.done_at]).max().unwrap_or(self.done_at)
    }
}

/// The newest reading of a quantity and place at a visit.
#[must_use]
pub fn standing(all: &[Reading], visit: Visit, quantity: Quantity, place: Place) -> Option<&Reading> {
    all.iter().rev().find(|r| r.visit == visit && r.quantity == quantity && r.place() == place)
}
