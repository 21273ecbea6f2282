//! What a part moves. Lengths in mm, left-hand coordinates; the right side is the mirror image.

use crate::Vec3;
use crate::linkage::{Arm, WishboneCorner};
use serde::{Deserialize, Serialize};

/// A chassis point that an eccentric, shim or bracket can move.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum EccentricPoint {
    /// Lower arm, front pivot.
    LowerFront,
    /// Lower arm, rear pivot.
    LowerRear,
    /// Upper arm, front pivot.
    UpperFront,
    /// Upper arm, rear pivot.
    UpperRear,
    /// Inner tie-rod joint.
    TieInner,
}

/// A joint carried by the knuckle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum JointPoint {
    /// Lower ball joint.
    Lower,
    /// Upper ball joint.
    Upper,
    /// Outer tie-rod joint.
    Tie,
}

/// One change to the geometry.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Edit {
    /// Moves a pivot on the car; every part keeps its size and the wheel moves.
    MovePivot {
        /// Which pivot.
        point: EccentricPoint,
        /// x forward, y outboard, z up, mm.
        by: [f64; 3],
    },
    /// Moves a joint against the knuckle (ball-joint spacer, tie-rod-end spacer).
    ShiftKnucklePoint {
        /// Which joint.
        point: JointPoint,
        /// x forward, y outboard, z up, mm.
        by: [f64; 3],
    },
    /// A different arm: longer off its pivot axis, joint set forward or rearward along it.
    ReshapeArm {
        /// Which arm.
        arm: Arm,
        /// Off the pivot axis, mm, longer positive.
        longer_mm: f64,
        /// Along the pivot axis, mm, forward positive (rearward adds caster on an upper arm).
        forward_mm: f64,
    },
    /// Longer links from the two pivots of an arm to its joint (threaded rod ends).
    LengthenLinks {
        /// Which arm.
        arm: Arm,
        /// Front link, mm.
        front_mm: f64,
        /// Rear link, mm.
        rear_mm: f64,
    },
    /// A longer tie rod.
    LengthenTie {
        /// Longer positive, mm.
        by_mm: f64,
    },
    /// Eccentrics of another throw in place of the vehicle's own at these pivots.
    ReplaceEccentric {
        /// Pivots whose eccentrics are exchanged.
        points: Vec<EccentricPoint>,
        /// New eccentricity, mm.
        eccentricity_mm: f64,
        /// New notches in half a turn.
        notches_per_half_turn: u32,
    },
}

impl Edit {
    /// Applies the edit; [`WishboneCorner::edited`] is the way in, which also renews the corner's
    /// worked-out values. [`Edit::ReplaceEccentric`] changes the adjusters, not the corner.
    pub(crate) fn apply(&self, c: &mut WishboneCorner) {
        match self {
            Self::MovePivot { point, by } => {
                let by = Vec3::from(*by);
                match point {
                    EccentricPoint::LowerFront => c.move_lower_pivot(0, by),
                    EccentricPoint::LowerRear => c.move_lower_pivot(1, by),
                    EccentricPoint::UpperFront => c.move_upper_pivot(0, by),
                    EccentricPoint::UpperRear => c.move_upper_pivot(1, by),
                    EccentricPoint::TieInner => c.move_tie_inner(by),
                }
            }
            Self::ShiftKnucklePoint { point, by } => {
                let by = Vec3::from(*by);
                match point {
                    JointPoint::Lower => c.move_knuckle_lower(by),
                    JointPoint::Upper => c.move_knuckle_upper(by),
                    JointPoint::Tie => c.move_knuckle_tie(by),
                }
            }
            Self::ReshapeArm { arm, longer_mm, forward_mm } => {
                c.reshape_arm(*arm, *longer_mm, *forward_mm);
            }
            Self::LengthenLinks { arm, front_mm, rear_mm } => {
                c.lengthen_links(*arm, [*front_mm, *rear_mm]);
            }
            Self::LengthenTie { by_mm } => c.lengthen_tie(*by_mm),
            Self::ReplaceEccentric { .. } => {}
        }
    }
}
