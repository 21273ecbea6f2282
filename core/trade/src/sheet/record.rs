//! What a step said when it was done: later changes of plan or parts leave it as it was.

use super::gate::GateFinding;
use super::step::SheetStep;
use crate::memory::Taught;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::said::Said;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

/// Why something was not turned as ordered.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CouldNot {
    /// It does not move.
    Seized,
    /// Something is in its way.
    NoRoom,
    /// It is at its end.
    AtEnd,
}

/// One thing as it was really turned.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AsTurned {
    /// Axle.
    pub axle: Axle,
    /// Side; none for what is one for both wheels.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// What was turned.
    pub name: String,
    /// Where it stood before: degrees of a cam, turns, mm.
    pub from: f64,
    /// Where it was ordered to.
    pub ordered: f64,
    /// Where it stands.
    pub position: f64,
    /// The order in workshop words.
    pub words: Said,
    /// What was typed where it was not done as ordered.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub typed: Option<String>,
    /// Why it was not.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub could_not: Option<CouldNot>,
}

/// Work at one time: what was turned before the next look.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Round {
    /// When, UTC.
    pub at: DateTime<Utc>,
    /// Who.
    pub author: String,
    /// What.
    pub turned: Vec<AsTurned>,
}

/// One order as it stood when its step was done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct OrderedLine {
    /// Axle; the front in records that knew no rear.
    #[serde(default)]
    pub axle: Axle,
    /// Side; none for what is one for both wheels.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// What was turned.
    pub name: String,
    /// The order in workshop words; plain text in records of before.
    pub words: Said,
    /// Where it was to end: degrees of a cam, turns, mm.
    pub position: f64,
}

/// What a step said when it was done.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default)]
pub struct DoneRecord {
    /// Its title.
    #[cfg_attr(feature = "openapi", schema(default = ""))]
    pub title: Said,
    /// Its line.
    #[cfg_attr(feature = "openapi", schema(default = ""))]
    pub detail: Said,
    /// Its orders.
    pub ordered: Vec<OrderedLine>,
    /// What was really turned, oldest first: nothing later rewrites it. Empty in records of before it was kept: then it
    /// was done as ordered.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub rounds: Vec<Round>,
    /// What was off when a gate was opened.
    pub off: Vec<GateFinding>,
    /// Why it was opened all the same.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub reason: Option<String>,
    /// Who stands for it, as typed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub signed: Option<String>,
    /// What a car taught when it was accepted.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub taught: Option<Taught>,
}

/// What a step says now, to be kept with it.
#[must_use]
pub fn record_of(s: &SheetStep) -> DoneRecord {
    let line = |o: &crate::plan::Order| OrderedLine {
        axle: o.axle,
        side: o.side,
        name: o.line.name.clone(),
        words: o.line.words.clone(),
        position: o.line.position,
    };
    DoneRecord {
        title: s.title.clone(),
        detail: s.detail.clone(),
        ordered: s.orders.iter().map(line).collect(),
        rounds: Vec::new(),
        off: Vec::new(),
        reason: None,
        signed: None,
        taught: None,
    }
}
