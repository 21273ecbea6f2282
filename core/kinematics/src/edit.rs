//! What a part moves. Lengths in mm, left-hand coordinates; the right side is the mirror image.

use crate::Vec3;
use crate::linkage::{Arm, Corner};
use serde::{Deserialize, Serialize};

/// A chassis point that an eccentric, shim or bracket can move.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[serde(from = "String", into = "String")]
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
    /// Body end of a link of a multi-link or solid axle, by its name in the file (or of a left and right pair
    /// by their common name).
    Link(String),
}

impl From<String> for EccentricPoint {
    fn from(s: String) -> Self {
        match s.as_str() {
            "lower_front" => Self::LowerFront,
            "lower_rear" => Self::LowerRear,
            "upper_front" => Self::UpperFront,
            "upper_rear" => Self::UpperRear,
            "tie_inner" => Self::TieInner,
            "strut_top" => Self::StrutTop,
            _ => Self::Link(s),
        }
    }
}

impl From<EccentricPoint> for String {
    fn from(p: EccentricPoint) -> Self {
        p.word().to_owned()
    }
}

impl EccentricPoint {
    /// The word in a file.
    #[must_use]
    pub fn word(&self) -> &str {
        match self {
            Self::LowerFront => "lower_front",
            Self::LowerRear => "lower_rear",
            Self::UpperFront => "upper_front",
            Self::UpperRear => "upper_rear",
            Self::TieInner => "tie_inner",
            Self::StrutTop => "strut_top",
            Self::Link(name) => name,
        }
    }
}

#[cfg(feature = "openapi")]
impl utoipa::PartialSchema for EccentricPoint {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::Schema> {
        String::schema()
    }
}

#[cfg(feature = "openapi")]
impl utoipa::ToSchema for EccentricPoint {
    fn name() -> std::borrow::Cow<'static, str> {
        "EccentricPoint".into()
    }
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
        #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
        by: [f64; 3],
    },
    /// Moves a joint against the knuckle (ball-joint spacer, tie-rod-end spacer).
    ShiftKnucklePoint {
        /// Which joint.
        point: JointPoint,
        /// x forward, y outboard, z up, mm.
        #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
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
    /// Turns what is clamped: on a strut the whole knuckle in its clamp, steering arm included (cam bolt, slotted
    /// holes), so that toe follows from the tie rod; elsewhere the wheel alone at its hub.
    KnuckleTilt {
        /// Degrees between knuckle and what holds it, top out positive.
        camber_deg: f64,
        /// Degrees of toe-in a hub shim adds by where it is thick; 0 at a strut.
        #[serde(default)]
        toe_deg: f64,
    },
    /// Offsets the upper ball joint of a live axle (clocked sleeve); the knuckle goes with it, steering arm included.
    OffsetUpperJoint {
        /// Degrees the kingpin's top leans outboard: camber goes up and SAI down by it.
        out_deg: f64,
        /// Degrees it leans rearward: caster goes up by it.
        back_deg: f64,
    },
    /// Turns the wheel alone in its knuckle, arm or axle (shim between hub and knuckle or stub axle).
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
    /// Moves the wheel end of a link against the knuckle or axle (leaf block, bracket, offset bushing).
    MoveWheelEnd {
        /// Link by name, a left and right pair by their common name, or `all` but a track bar.
        link: String,
        /// x forward, y outboard, z up, mm.
        #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
        by: [f64; 3],
    },
    /// Moves the wheel centre against the joints (drop or lift knuckle, wheel offset or spacer).
    ShiftWheel {
        /// x forward, y outboard, z up, mm.
        #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
        by: [f64; 3],
    },
    /// Takes the knock-out tabs or plates out of the slots, so that the cams can turn.
    FreeEccentrics {
        /// Pivots that become free.
        points: Vec<EccentricPoint>,
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

/// What is done to one corner by a plan: what was there when it was read, and what is there once it is set.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SetEdits {
    /// Adjusters where they stood when it was read.
    pub start: Vec<Edit>,
    /// Ways to height, parts, and adjusters as set.
    pub set: Vec<Edit>,
}

impl Edit {
    /// Applies the edit; [`Corner::edited`] is the way in, which also renews the corner's worked-out values.
    /// What a layout has not stays as it is; [`Edit::ReplaceEccentric`] changes the adjusters, not the corner.
    pub(crate) fn apply(&self, corner: &mut Corner) {
        match self {
            Self::MovePivot { point, by } => move_pivot(corner, point, Vec3::from(*by)),
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
                (Corner::FiveLink(c), _) => {
                    let at = if *arm == Arm::Upper { "upper" } else { "lower" };
                    c.lengthen(&format!("{at}_front"), *front_mm);
                    c.lengthen(&format!("{at}_rear"), *rear_mm);
                }
                (Corner::Axle(c), _) => {
                    // Both arms of a live axle: one length each side, front and rear alike.
                    c.lengthen(if *arm == Arm::Upper { "upper" } else { "lower" }, *front_mm);
                }
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
                Corner::Wishbone(_) | Corner::Strut(_) | Corner::Hinge(_) => {}
            },
            Self::TurnSpin { camber_deg, toe_deg } => {
                corner.turn_spin(camber_deg.to_radians(), toe_deg.to_radians());
            }
            Self::KnuckleTilt { camber_deg, toe_deg } => {
                let (camber, toe) = (camber_deg.to_radians(), toe_deg.to_radians());
                if let Corner::Strut(c) = corner {
                    c.tilt_knuckle(camber);
                    c.turn_spin(0.0, toe);
                } else {
                    corner.turn_spin(camber, toe);
                }
            }
            Self::OffsetUpperJoint { out_deg, back_deg } => {
                if let Corner::Axle(c) = corner {
                    c.offset_upper_joint(*out_deg, *back_deg);
                }
            }
            Self::LeanKingpin { caster_deg } => {
                if let Corner::Axle(c) = corner {
                    c.lean_kingpin(*caster_deg);
                }
            }
            Self::MoveWheelEnd { link, by } => match corner {
                Corner::FiveLink(c) => c.move_outer(link, Vec3::from(*by)),
                Corner::Axle(c) => c.move_axle_end(link, Vec3::from(*by)),
                Corner::Wishbone(_) | Corner::Strut(_) | Corner::Hinge(_) => {}
            },
            Self::ShiftWheel { by } => {
                let by = Vec3::from(*by);
                match corner {
                    Corner::Wishbone(c) => c.move_wheel(by),
                    Corner::Strut(c) => c.move_wheel(by),
                    Corner::FiveLink(c) => c.move_wheel(by),
                    Corner::Hinge(c) => c.move_wheel(by),
                    Corner::Axle(c) => c.move_wheel(by),
                }
            }
            Self::ReplaceEccentric { .. } | Self::FreeEccentrics { .. } => {}
        }
    }
}

fn move_pivot(corner: &mut Corner, point: &EccentricPoint, by: Vec3) {
    match corner {
        Corner::Wishbone(c) => match point {
            EccentricPoint::LowerFront => c.move_lower_pivot(0, by),
            EccentricPoint::LowerRear => c.move_lower_pivot(1, by),
            EccentricPoint::UpperFront => c.move_upper_pivot(0, by),
            EccentricPoint::UpperRear => c.move_upper_pivot(1, by),
            EccentricPoint::TieInner => c.move_tie_inner(by),
            EccentricPoint::StrutTop | EccentricPoint::Link(_) => {}
        },
        Corner::Strut(c) => match point {
            EccentricPoint::LowerFront => c.move_lower_pivot(0, by),
            EccentricPoint::LowerRear => c.move_lower_pivot(1, by),
            EccentricPoint::TieInner => c.move_tie_inner(by),
            EccentricPoint::StrutTop => c.move_top(by),
            EccentricPoint::UpperFront | EccentricPoint::UpperRear | EccentricPoint::Link(_) => {}
        },
        Corner::Hinge(c) => match point {
            EccentricPoint::LowerFront => c.move_hinge(0, by),
            EccentricPoint::LowerRear => c.move_hinge(1, by),
            _ => {}
        },
        Corner::FiveLink(c) => {
            let name = if *point == EccentricPoint::TieInner { "tie" } else { point.word() };
            c.move_inner(name, by);
        }
        Corner::Axle(c) => c.move_chassis_end(point.word(), by),
    }
}
