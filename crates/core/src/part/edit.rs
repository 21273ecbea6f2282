//! What a part moves. Lengths in mm, left-hand coordinates; the right side is the mirror image.

use crate::Vec3;
use crate::linkage::{Arm, Corner};
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
    /// Upper mount of a strut.
    StrutTop,
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
    /// A longer link of a multi-link or solid axle, by its name in the file.
    LengthenLink {
        /// Name of the link.
        name: String,
        /// Longer positive, mm.
        by_mm: f64,
    },
    /// Turns the wheel in its knuckle, arm or axle (cam bolt, slotted strut, axle-end sleeve, shim).
    TurnSpin {
        /// Degrees, top out positive.
        camber_deg: f64,
        /// Degrees, toe-in positive.
        toe_deg: f64,
    },
    /// Leans the kingpin of a solid axle (wedge, sleeve).
    LeanKingpin {
        /// Degrees, top rearward positive.
        caster_deg: f64,
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
    /// Applies the edit; [`Corner::edited`] is the way in, which also renews the corner's worked-out values.
    /// What a layout has not stays as it is; [`Edit::ReplaceEccentric`] changes the adjusters, not the corner.
    pub(crate) fn apply(&self, corner: &mut Corner) {
        match self {
            Self::MovePivot { point, by } => move_pivot(corner, *point, Vec3::from(*by)),
            Self::ShiftKnucklePoint { point, by } => {
                let by = Vec3::from(*by);
                match (corner, point) {
                    (Corner::Wishbone(c), JointPoint::Lower) => c.move_knuckle_lower(by),
                    (Corner::Wishbone(c), JointPoint::Upper) => c.move_knuckle_upper(by),
                    (Corner::Wishbone(c), JointPoint::Tie) => c.move_knuckle_tie(by),
                    (Corner::Strut(c), JointPoint::Lower) => c.move_knuckle_lower(by),
                    (Corner::Strut(c), JointPoint::Tie) => c.move_knuckle_tie(by),
                    _ => {}
                }
            }
            Self::ReshapeArm { arm, longer_mm, forward_mm } => match (corner, arm) {
                (Corner::Wishbone(c), _) => c.reshape_arm(*arm, *longer_mm, *forward_mm),
                (Corner::Strut(c), Arm::Lower) => c.reshape_lower(*longer_mm, *forward_mm),
                _ => {}
            },
            Self::LengthenLinks { arm, front_mm, rear_mm } => match (corner, arm) {
                (Corner::Wishbone(c), _) => c.lengthen_links(*arm, [*front_mm, *rear_mm]),
                (Corner::Strut(c), Arm::Lower) => c.lengthen_lower([*front_mm, *rear_mm]),
                _ => {}
            },
            Self::LengthenTie { by_mm } => match corner {
                Corner::Wishbone(c) => c.lengthen_tie(*by_mm),
                Corner::Strut(c) => c.lengthen_tie(*by_mm),
                Corner::FiveLink(c) => c.lengthen("tie", *by_mm),
                Corner::Axle(c) => c.lengthen_tie(*by_mm),
                Corner::Hinge(_) => {}
            },
            Self::LengthenLink { name, by_mm } => match corner {
                Corner::FiveLink(c) => c.lengthen(name, *by_mm),
                Corner::Axle(c) => c.lengthen(name, *by_mm),
                _ => {}
            },
            Self::TurnSpin { camber_deg, toe_deg } => {
                corner.turn_spin(camber_deg.to_radians(), toe_deg.to_radians());
            }
            Self::LeanKingpin { caster_deg } => {
                if let Corner::Axle(c) = corner {
                    c.lean_kingpin(*caster_deg);
                }
            }
            Self::ReplaceEccentric { .. } => {}
        }
    }
}

fn move_pivot(corner: &mut Corner, point: EccentricPoint, by: Vec3) {
    match corner {
        Corner::Wishbone(c) => match point {
            EccentricPoint::LowerFront => c.move_lower_pivot(0, by),
            EccentricPoint::LowerRear => c.move_lower_pivot(1, by),
            EccentricPoint::UpperFront => c.move_upper_pivot(0, by),
            EccentricPoint::UpperRear => c.move_upper_pivot(1, by),
            EccentricPoint::TieInner => c.move_tie_inner(by),
            EccentricPoint::StrutTop => {}
        },
        Corner::Strut(c) => match point {
            EccentricPoint::LowerFront => c.move_lower_pivot(0, by),
            EccentricPoint::LowerRear => c.move_lower_pivot(1, by),
            EccentricPoint::TieInner => c.move_tie_inner(by),
            EccentricPoint::StrutTop => c.move_top(by),
            EccentricPoint::UpperFront | EccentricPoint::UpperRear => {}
        },
        Corner::Hinge(c) => match point {
            EccentricPoint::LowerFront => c.move_hinge(0, by),
            EccentricPoint::LowerRear => c.move_hinge(1, by),
            _ => {}
        },
        Corner::FiveLink(_) | Corner::Axle(_) => {}
    }
}
