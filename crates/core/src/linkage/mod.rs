//! One file per layout behind one trait: where the wheel is at a travel and a rack position.

mod double_wishbone;

pub use double_wishbone::{Arm, WishboneCorner};

use crate::wheel::{Alignment, Pose};
use serde::{Deserialize, Serialize};

/// Which closed chain cannot follow.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Loop {
    /// Lower arm: its own three points form no triangle.
    LowerArm,
    /// Upper arm, knuckle and lower arm.
    UpperArm,
    /// Tie rod and knuckle.
    TieRod,
    /// The wheel centre stops rising or falling: arm fully extended.
    DeadPoint,
}

impl Loop {
    /// Words for the loop.
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::LowerArm => "lower arm does not close",
            Self::UpperArm => "upper arm and knuckle fully extended",
            Self::TieRod => "tie rod fully extended",
            Self::DeadPoint => "arm at its dead point",
        }
    }

    /// The point a specialist would correct first.
    #[must_use]
    pub fn field(self) -> &'static str {
        match self {
            Self::LowerArm | Self::DeadPoint => "points.lower_outer",
            Self::UpperArm => "points.upper_outer",
            Self::TieRod => "points.tie_outer",
        }
    }
}

/// The position asked for cannot be reached, and why.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize, thiserror::Error)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[error("{} at travel {limit_travel_mm:.0} mm", .blocked.words())]
pub struct Unreachable {
    /// The loop that stops.
    pub blocked: Loop,
    /// The last travel that closes, mm, bump positive.
    pub limit_travel_mm: f64,
}

/// A suspension corner that can be posed. Left-hand coordinates.
pub trait Linkage {
    /// Wheel and steering axis at `travel` (mm of wheel-centre rise relative to the chassis, bump
    /// positive) with the inner tie-rod joint displaced by `rack` mm in +y.
    ///
    /// # Errors
    /// [`Unreachable`] with the loop and the last travel that closes.
    fn pose(&self, travel: f64, rack: f64) -> Result<Pose, Unreachable>;

    /// Wheel centre above the ground, mm.
    fn loaded_radius(&self) -> f64;

    /// x of the wheel centre at design, mm.
    fn design_x(&self) -> f64;

    /// Angles relative to the chassis at a travel and rack position.
    ///
    /// # Errors
    /// As [`Linkage::pose`].
    fn alignment(&self, travel: f64, rack: f64) -> Result<Alignment, Unreachable> {
        Ok(self.pose(travel, rack)?.measure(self.loaded_radius(), self.design_x()))
    }
}
