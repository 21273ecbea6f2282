//! What the corner file is asked with, and the pieces it is made of.

use crate::fit::{Doubt, Knowledge, Sigmas};
use crate::vehicle::{Axles, Car, Gains, Measured, PlannedHeights, Sides, StateKind};
use bold_stance_kinematics::edit::{Edit, SetEdits};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::wheel::WheelState;
use bold_stance_units::said::Said;
use serde::{Deserialize, Serialize};

/// A wheel as read over the ground.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct WheelRead {
    /// Its angles, degrees; caster counts where the wheel steers.
    pub angles: Measured,
    /// Their standard deviations.
    pub sigma: Sigmas,
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
    /// Both wheels of each axle as read, when they were: the model is bent to them.
    #[serde(default)]
    pub read: Axles<Option<Sides<WheelRead>>>,
    /// How far a live axle has to go to the left to stand central, as read, mm.
    #[serde(default)]
    pub axle_offset_mm: Option<f64>,
    /// Hub to hub as read, mm.
    #[serde(default)]
    pub wheelbases_mm: Option<Sides<f64>>,
    /// What the plan does to both corners of each axle.
    #[serde(default)]
    pub set: Axles<Option<Sides<SetEdits>>>,
    /// How well the points of each axle are known.
    #[serde(default)]
    pub knowledge: Axles<Knowledge>,
}

impl CornerFileRequest {
    pub(super) fn edits(&self, axle: Axle, side: Side) -> Option<&SetEdits> {
        self.set[axle].as_ref().map(|both| &both[side])
    }

    pub(super) fn start(&self, axle: Axle, side: Side) -> &[Edit] {
        self.edits(axle, side).map_or(&[], |e| &e.start)
    }

    pub(super) fn reads(&self, axle: Axle) -> bool {
        self.read[axle].is_some()
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
