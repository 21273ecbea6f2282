//! What a step said when it was done: later changes of plan or parts leave it as it was.

use super::gate::GateFinding;
use super::step::SheetStep;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::said::Said;
use serde::{Deserialize, Serialize};

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
    /// What was off when a gate was opened.
    pub off: Vec<GateFinding>,
    /// Why it was opened all the same.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub reason: Option<String>,
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
        off: Vec::new(),
        reason: None,
    }
}
