//! What every layout is made of: points, the wheel at design, and the name of a layout.

use serde::{Deserialize, Serialize};

/// A point in vehicle axes, mm.
pub type Point = [f64; 3];

/// Layouts the model solves.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Layout {
    /// Two triangular arms, knuckle, tie rod.
    DoubleWishbone,
    /// Lower arm, telescopic strut, tie rod.
    Strut,
    /// Five rods hold the knuckle.
    FiveLink,
    /// Trailing, semi-trailing or swing arm: one hinge.
    SingleArm,
    /// Both wheels on one rigid axle.
    SolidAxle,
    /// Two trailing arms joined by a beam that twists.
    TwistBeam,
}

impl Layout {
    /// Every layout, in the order they are offered.
    pub const ALL: [Self; 6] = [
        Self::DoubleWishbone,
        Self::Strut,
        Self::FiveLink,
        Self::SingleArm,
        Self::SolidAxle,
        Self::TwistBeam,
    ];

    /// The word in a geometry file.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::DoubleWishbone => "double_wishbone",
            Self::Strut => "strut",
            Self::FiveLink => "five_link",
            Self::SingleArm => "single_arm",
            Self::SolidAxle => "solid_axle",
            Self::TwistBeam => "twist_beam",
        }
    }

    /// Whether both wheels hang on one body, so that the file holds points of both sides.
    #[must_use]
    pub fn is_whole_axle(self) -> bool {
        matches!(self, Self::SolidAxle | Self::TwistBeam)
    }
}

/// The wheel at design height.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct WheelAtDesign {
    /// Wheel centre, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub center: [f64; 3],
    /// Degrees, top out positive.
    #[cfg_attr(feature = "openapi", schema(minimum = -20.0, maximum = 20.0))]
    pub camber_deg: f64,
    /// Degrees per wheel, toe-in positive.
    #[cfg_attr(feature = "openapi", schema(minimum = -20.0, maximum = 20.0))]
    pub toe_deg: f64,
    /// Wheel centre above the ground, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 100.0, maximum = 1000.0))]
    pub loaded_radius_mm: f64,
}

/// Inclination of the kingpins of a solid axle at design, degrees.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SteeringAxis {
    /// Top rearward positive.
    pub caster_deg: f64,
    /// Top inboard positive.
    pub sai_deg: f64,
}
