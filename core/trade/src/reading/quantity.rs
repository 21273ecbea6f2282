//! What is read, where on the car, and at which visit.

use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// Unit a quantity is kept in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Unit {
    /// Degrees.
    Deg,
    /// Millimetres.
    Mm,
    /// Kilopascal.
    Kpa,
}

/// What is read.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Quantity {
    /// Hub centre to arch lip, mm.
    #[default]
    Height,
    /// Floor to arch lip, mm.
    FloorToArch,
    /// Floor to frame, mm.
    FloorToFrame,
    /// Degrees, top out positive.
    Camber,
    /// Degrees, top rearward positive.
    Caster,
    /// Degrees of one wheel, toe-in positive.
    Toe,
    /// Degrees of both wheels of an axle, toe-in positive.
    TotalToe,
    /// Direction of the rear axle, degrees, positive to the right.
    Thrust,
    /// Right front hub behind the left one positive, mm.
    SetBack,
    /// Hub to hub on one side, mm.
    Wheelbase,
    /// Corner to corner, mm; left is left front to right rear.
    Diagonal,
    /// How far the axle must go to the left to stand central, mm.
    AxleOffset,
    /// Side to side of a rim over one turn, mm.
    RimRunout,
    /// Circle to measure across, mm.
    RimCircle,
    /// Shallowest groove, mm.
    TreadDepth,
    /// Cold pressure, kPa.
    Pressure,
    /// Degrees, falls to the left positive.
    FloorSlope,
}

/// Which part of the car a quantity belongs to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Spot {
    /// One wheel.
    Wheel,
    /// One axle.
    Axle,
    /// One side of the car.
    Side,
    /// The whole car.
    Car,
}

impl Quantity {
    /// Unit it is kept in.
    #[must_use]
    pub fn unit(self) -> Unit {
        match self {
            Self::Camber | Self::Caster | Self::Toe | Self::TotalToe | Self::Thrust | Self::FloorSlope => {
                Unit::Deg
            }
            Self::Pressure => Unit::Kpa,
            _ => Unit::Mm,
        }
    }

    /// Part of the car it belongs to.
    #[must_use]
    pub fn spot(self) -> Spot {
        match self {
            Self::TotalToe | Self::AxleOffset => Spot::Axle,
            Self::Wheelbase | Self::Diagonal => Spot::Side,
            Self::Thrust | Self::SetBack | Self::FloorSlope | Self::RimCircle => Spot::Car,
            _ => Spot::Wheel,
        }
    }

    /// The word it has in a sentence.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Height => "height",
            Self::FloorToArch => "floor-to-arch",
            Self::FloorToFrame => "floor-to-frame",
            Self::Camber => "camber",
            Self::Caster => "caster",
            Self::Toe | Self::TotalToe => "toe",
            Self::Thrust => "thrust",
            Self::SetBack => "set-back",
            Self::Wheelbase => "wheelbase",
            Self::Diagonal => "diagonal",
            Self::AxleOffset => "axle-offset",
            Self::RimRunout => "rim-runout",
            Self::RimCircle => "rim-circle",
            Self::TreadDepth => "tread-depth",
            Self::Pressure => "pressure",
            Self::FloorSlope => "floor-slope",
        }
    }

    /// What it is called.
    #[must_use]
    pub fn title(self) -> &'static str {
        match self {
            Self::Height => "Height, hub to arch",
            Self::FloorToArch => "Height, floor to arch",
            Self::FloorToFrame => "Height, floor to frame",
            Self::Camber => "Camber",
            Self::Caster => "Caster",
            Self::Toe => "Toe, this wheel",
            Self::TotalToe => "Toe, both wheels",
            Self::Thrust => "Thrust angle",
            Self::SetBack => "Set-back",
            Self::Wheelbase => "Wheelbase",
            Self::Diagonal => "Diagonal",
            Self::AxleOffset => "Axle off centre",
            Self::RimRunout => "Rim run-out",
            Self::RimCircle => "Rim circle",
            Self::TreadDepth => "Tread depth",
            Self::Pressure => "Pressure",
            Self::FloorSlope => "Floor slope",
        }
    }

    /// What a positive and a negative value mean.
    #[must_use]
    pub fn leans(self) -> Option<(Said, Said)> {
        let (positive, negative) = match self {
            Self::Camber => (said("lean-top-out"), said("lean-top-in")),
            Self::Caster => (said("lean-top-back"), said("lean-top-forward")),
            Self::Toe | Self::TotalToe => (said("lean-toe-in"), said("lean-toe-out")),
            Self::Thrust => (said("lean-points-right"), said("lean-points-left")),
            Self::SetBack => (said("lean-right-behind"), said("lean-left-behind")),
            Self::AxleOffset => (said("lean-to-left"), said("lean-to-right")),
            Self::FloorSlope => (said("lean-falls-left"), said("lean-falls-right")),
            _ => return None,
        };
        Some((positive, negative))
    }
}

/// Axle of a reading; `both` for what belongs to the whole car or one side of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum ReadAxle {
    /// Front.
    #[default]
    Front,
    /// Rear.
    Rear,
    /// Neither or both.
    Both,
}

/// Side of a reading; `both` for what belongs to an axle or the whole car.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum ReadSide {
    /// Left.
    Left,
    /// Right.
    Right,
    /// Neither or both.
    Both,
}

impl From<Axle> for ReadAxle {
    fn from(a: Axle) -> Self {
        match a {
            Axle::Front => Self::Front,
            Axle::Rear => Self::Rear,
        }
    }
}

impl From<Side> for ReadSide {
    fn from(s: Side) -> Self {
        match s {
            Side::Left => Self::Left,
            Side::Right => Self::Right,
        }
    }
}

/// Where a reading was taken.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Place {
    /// Axle.
    pub axle: ReadAxle,
    /// Side.
    pub side: ReadSide,
}

impl Place {
    /// A wheel.
    #[must_use]
    pub fn wheel(axle: Axle, side: Side) -> Self {
        let axle = if axle == Axle::Front { ReadAxle::Front } else { ReadAxle::Rear };
        Self { axle, side: if side == Side::Left { ReadSide::Left } else { ReadSide::Right } }
    }

    /// Axle and side, when this is a wheel.
    #[must_use]
    pub fn as_wheel(self) -> Option<(Axle, Side)> {
        Some((self.one_axle()?, self.one_side()?))
    }

    /// The axle, when it is one.
    #[must_use]
    pub fn one_axle(self) -> Option<Axle> {
        match self.axle {
            ReadAxle::Front => Some(Axle::Front),
            ReadAxle::Rear => Some(Axle::Rear),
            ReadAxle::Both => None,
        }
    }

    /// The side, when it is one.
    #[must_use]
    pub fn one_side(self) -> Option<Side> {
        match self.side {
            ReadSide::Left => Some(Side::Left),
            ReadSide::Right => Some(Side::Right),
            ReadSide::Both => None,
        }
    }

    /// `left front`, `front axle`, `left side`, `car`.
    #[must_use]
    pub fn said(self) -> Said {
        let axle = match self.axle {
            ReadAxle::Front => "front",
            ReadAxle::Rear => "rear",
            ReadAxle::Both => "both",
        };
        said("place").word("axle", axle).word("side", self.one_side().map_or("both", Side::word))
    }

    /// What is read here: `left front camber`.
    #[must_use]
    pub fn reading(self, q: Quantity) -> Said {
        said("reading-of").say("place", self.said()).word("quantity", q.word())
    }

    /// Whether a quantity can be read here.
    #[must_use]
    pub fn fits(self, q: Quantity) -> bool {
        let (axle, side) = (self.one_axle().is_some(), self.one_side().is_some());
        match q.spot() {
            Spot::Wheel => axle && side,
            Spot::Axle => axle && !side,
            Spot::Side => !axle && side,
            Spot::Car => !axle && !side,
        }
    }
}

/// At which point of the work.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Visit {
    /// Before anything is touched.
    Found,
    /// After the height was set and settled.
    Settled,
    /// After the cams were set, before the tie rods.
    Reswept,
    /// After everything was set.
    Proved,
    /// When it comes back after some distance.
    Returned,
}

impl Visit {
    /// Every visit, in order.
    pub const ALL: [Self; 5] = [Self::Found, Self::Settled, Self::Reswept, Self::Proved, Self::Returned];

    /// What the screen calls it.
    #[must_use]
    pub fn title(self) -> &'static str {
        match self {
            Self::Found => "Before",
            Self::Settled => "After height",
            Self::Reswept => "After cams",
            Self::Proved => "After setting",
            Self::Returned => "Return",
        }
    }
}
