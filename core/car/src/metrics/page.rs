//! What the corner file is asked with, and the pieces it is made of.

use crate::fit::{Doubt, Knowledge, Sigmas};
use crate::vehicle::{Car, Gains, Measured, PlannedHeights, StateKind};
use bold_stance_kinematics::edit::{Edit, SetEdits};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::wheel::WheelState;
use bold_stance_units::said::Said;
use serde::{Deserialize, Serialize};

/// Camber and toe of a wheel that does not steer, as read, with their standard deviations.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct RearRead {
    /// Degrees over the ground, top out positive.
    pub camber_deg: f64,
    /// Degrees, toe-in positive.
    pub toe_deg: f64,
    /// Degrees.
    pub camber_sigma_deg: f64,
    /// Degrees.
    pub toe_sigma_deg: f64,
}

/// What is asked.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CornerFileRequest {
    /// The car.
    pub car: Car,
    /// Heights as they came in, against design, mm.
    #[serde(default)]
    pub arrived: Gains,
    /// What is planned, when something is.
    #[serde(default)]
    pub planned: Option<PlannedHeights>,
    /// Left and right front wheel as read, when they were: the model is bent to them.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub front_read: Option<[Measured; 2]>,
    /// Standard deviations of those readings.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub front_sigma: Option<[Sigmas; 2]>,
    /// Left and right rear wheel as read, when they were.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub rear_read: Option<[RearRead; 2]>,
    /// How far a live axle has to go to the left to stand central, as read, mm.
    #[serde(default)]
    pub axle_offset_mm: Option<f64>,
    /// Hub to hub as read, left and right, mm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub wheelbases_mm: Option<[f64; 2]>,
    /// What the plan does to the left and right front corner.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub front_set: Option<[SetEdits; 2]>,
    /// What the plan does to the left and right rear corner.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub rear_set: Option<[SetEdits; 2]>,
    /// How well the front points are known.
    #[serde(default)]
    pub knowledge: Knowledge,
    /// How well the rear points are known.
    #[serde(default)]
    pub rear_knowledge: Knowledge,
}

impl CornerFileRequest {
    pub(super) fn edits(&self, axle: Axle, side: Side) -> Option<&SetEdits> {
        let of = if axle == Axle::Front { &self.front_set } else { &self.rear_set };
        of.as_ref().map(|both| &both[usize::from(side == Side::Right)])
    }

    pub(super) fn start(&self, axle: Axle, side: Side) -> &[Edit] {
        self.edits(axle, side).map_or(&[], |e| &e.start)
    }

    pub(super) fn reads(&self, axle: Axle) -> bool {
        if axle == Axle::Front { self.front_read.is_some() } else { self.rear_read.is_some() }
    }
}

/// Which part of the page a quantity belongs to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Area {
    /// Front axle over height.
    Front,
    /// Steering.
    Steering,
    /// Rear axle over height.
    Rear,
    /// The whole car.
    Car,
}

/// One quantity.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CornerQuantity {
    /// Stable word.
    pub id: String,
    /// Where it belongs.
    pub area: Area,
    /// What it is called.
    pub label: Said,
    /// `mm`, `°`, `%`, `N m`.
    pub unit: String,
    /// Digits after the point that mean something.
    pub digits: u8,
    /// As it came in.
    pub arrived: f64,
    /// As planned, when that is another height.
    pub planned: Option<f64>,
    /// Usual range (common practice, no source).
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub usual: [f64; 2],
    /// Whether the planned (or arrived) value is outside the usual range.
    pub outside: bool,
    /// What it means for this job, one sentence.
    pub means: Said,
    /// What to look at when it is outside.
    pub caution: Option<Said>,
}

/// One wheel of a height state.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StateWheel {
    /// Front or rear.
    pub axle: Axle,
    /// Left or right.
    pub side: Side,
    /// Angles relative to the ground; none past the travel.
    pub wheel: Option<WheelState>,
    /// Half widths of the 90 % bands, degrees: points, readings and height together; none where nothing was
    /// read, so that only the change from as arrived is known.
    pub doubt: Option<Doubt>,
    /// Whether this wheel was read; else its angles as arrived are those of the points.
    pub read: bool,
    /// Why there are none.
    pub stops: Option<Said>,
}

/// The car at one named height.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct StateRow {
    /// Which.
    pub kind: StateKind,
    /// What the screen calls it.
    pub name: String,
    /// Gains over as arrived, mm.
    pub gains: Gains,
    /// Half width of the 90 % band of the heights, mm.
    pub band_mm: f64,
    /// Degrees, nose up positive.
    pub pitch_deg: f64,
    /// Direction of the rear axle, degrees, positive to the right.
    pub thrust_deg: Option<f64>,
    /// Wheelbase on the left, mm.
    pub wheelbase_left_mm: f64,
    /// Every wheel.
    pub wheels: Vec<StateWheel>,
}
