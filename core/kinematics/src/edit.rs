//! What a part moves. Lengths in mm, left-hand coordinates; the right side is the mirror image.

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

/// Upper or lower arm.
#[derive(Debug, Clone, Copy, PartialEq, Eq, serde::Serialize, serde::Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Arm {
    /// Upper arm.
    Upper,
    /// Lower arm.
    Lower,
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
