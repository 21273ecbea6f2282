//! Lines of the sheet.

use super::ids::{StepId, Tick};
use crate::plan::{Order, Way};
use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::said::Said;
use serde::{Deserialize, Serialize};

/// A step is work; a gate is a reading without which the next step means nothing.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum StepKind {
    /// Work.
    Step,
    /// Shut until its readings are in.
    Gate,
}

/// What a gate waits for.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum GateReading {
    /// Hub-to-arch height.
    Height,
    /// Caster swept again.
    Caster,
    /// Camber.
    Camber,
    /// Toe.
    Toe,
    /// Wheelbase of a side, hub to hub.
    Wheelbase,
    /// How far a live axle has to go to the left to stand central; one reading of the axle.
    Centre,
}

impl GateReading {
    /// Whether it is one reading of the axle and not one of each wheel.
    #[must_use]
    pub fn of_axle(self) -> bool {
        self == Self::Centre
    }

    /// What it is called.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Height => "height",
            Self::Caster => "caster",
            Self::Camber => "camber",
            Self::Toe => "toe",
            Self::Wheelbase => "wheelbase",
            Self::Centre => "centre",
        }
    }
}

/// What a gate waits for at both wheels of an axle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct GateNeed {
    /// Which axle.
    pub axle: Axle,
    /// What.
    pub quantity: GateReading,
}

/// Something ticked by hand at a gate.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TickLine {
    /// Which.
    pub id: Tick,
    /// What it says.
    pub words: Said,
}

/// Heights a step sets on an axle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StepHeight {
    /// Hub to arch of each side, mm.
    pub target_mm: Sides<f64>,
    /// From as read, mm.
    pub change_mm: Sides<f64>,
    /// Ways in which it is had; what they leave is the suspension's own travel.
    pub ways: Vec<Way>,
}

/// One line of the sheet.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SheetStep {
    /// Which; kept with the record of what was done.
    pub id: StepId,
    /// Work or gate.
    pub kind: StepKind,
    /// Axle it works on; none for the whole car.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub axle: Option<Axle>,
    /// What to do, short.
    pub title: Said,
    /// How, short.
    pub detail: Said,
    /// What is turned in it, every order that was found.
    pub orders: Vec<Order>,
    /// Heights it sets.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height: Option<StepHeight>,
    /// Things ticked by hand at a gate.
    pub ticks: Vec<TickLine>,
    /// Readings a gate waits for.
    pub needs: Vec<GateNeed>,
    /// Readings that are worth taking there and that it does not wait for or judge: what is turned next goes by them.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub helps: Vec<GateNeed>,
    /// Wheels whose reading of those taught nothing, being odder than once in a hundred: their turns stay as foreseen until it was
    /// read again.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub read_again: Vec<Side>,
    /// Cautions that apply here.
    pub cautions: Vec<Said>,
    /// How it is reached, with which sockets, and torques, as the shop typed them at the parts.
    #[serde(default)]
    pub notes: Vec<Said>,
}
