//! What a conversion is given and gives back.

use bold_stance_kinematics::geometry::{Points, Side, WheelAtDesign};
use bold_stance_units::said::Said;
use serde::{Deserialize, Serialize};

/// What was taken out of a reading or put in, and why.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CorrectionKind {
    /// Slope of the floor across the car.
    FloorSlope,
    /// Slope of the floor along the car.
    FloorAlong,
    /// Wheel hanging as the jack left it.
    Jacked,
    /// Bulge of the tyre under the level.
    Bulge,
    /// Tape below the axle: a shorter chord.
    BelowAxle,
    /// Rim lip against the stamped size.
    RimLip,
    /// String between axles of different track.
    StringTracks,
    /// Body nose up while the joint line was read.
    BodyPitch,
    /// Fuel, people and cargo.
    Weight,
}

/// Version of the arithmetic of the corrections; goes up when one of them changes.
pub const CORRECTION_VERSION: u8 = 1;

/// A correction of a reading. Every one can be opened.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Correction {
    /// Which.
    pub kind: CorrectionKind,
    /// Version of its arithmetic.
    pub version: u8,
    /// What it added to the value, in the value's unit; 0 when it was not needed.
    pub amount: f64,
    /// Whether it is in the value.
    pub applied: bool,
    /// Short; plain text in readings kept before.
    pub label: Said,
    /// How it was worked out, or why it was left out.
    pub why: Said,
}

impl Correction {
    /// A correction that is in the value.
    #[must_use]
    pub fn applied(kind: CorrectionKind, amount: f64, label: Said, why: Said) -> Self {
        Self { kind, version: CORRECTION_VERSION, amount, applied: true, label, why }
    }

    /// One that is not, and why.
    #[must_use]
    pub fn left_out(kind: CorrectionKind, label: Said, why: Said) -> Self {
        Self { kind, version: CORRECTION_VERSION, amount: 0.0, applied: false, label, why }
    }
}

/// A further figure that comes with a value.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Also {
    /// Stable word, with its unit, e.g. `run_out_deg`.
    pub name: String,
    /// What it is; plain text in readings kept before.
    pub label: Said,
    /// Its value.
    pub value: f64,
}

/// A value before its doubt is known.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Raw {
    /// Degrees, mm or kPa.
    pub value: f64,
    /// Doubt of the formula itself, same unit.
    pub model_sigma: f64,
    /// What the formula leaves out, when `model_sigma` is not 0.
    pub model_words: Option<Said>,
    /// Further figures.
    pub also: Vec<Also>,
    /// Remarks.
    pub notes: Vec<Said>,
    /// Corrections within the formula.
    pub corrections: Vec<Correction>,
}

impl Raw {
    /// A plain value.
    #[must_use]
    pub fn of(value: f64) -> Self {
        Self { value, ..Self::default() }
    }

    /// Adds a figure.
    #[must_use]
    pub fn with(mut self, name: &str, label: Said, value: f64) -> Self {
        self.also.push(Also { name: name.into(), label, value });
        self
    }

    /// Adds a remark.
    #[must_use]
    pub fn noting(mut self, note: Said) -> Self {
        self.notes.push(note);
        self
    }
}

/// The linkage of the wheel that was swept, as it stands.
#[derive(Debug, Clone, PartialEq)]
pub struct SweptCar {
    /// Its points at design.
    pub points: Points,
    /// Its wheel at design.
    pub wheel: WheelAtDesign,
    /// Travel it stands at, mm, bump positive.
    pub travel_mm: f64,
    /// Toe straight ahead, degrees.
    pub toe_deg: f64,
}

/// What is known besides the numbers.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Known {
    /// Which wheel.
    pub side: Option<Side>,
    /// Its linkage, when the car's geometry is there.
    pub swept: Option<SweptCar>,
}
