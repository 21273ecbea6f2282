//! What can be done in the bay, what a hand feels of it, and what it costs on the clock.

use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::reading::{Method, Place, Quantity};
use serde::{Deserialize, Serialize};

/// A wheel of a car.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct At {
    /// Axle.
    pub axle: Axle,
    /// Side.
    pub side: Side,
}

/// What is put right before reading.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Ready {
    /// Rolled and bounced.
    Roll,
    /// Pressures read and set.
    Pressures,
    /// What lies in the car or under it taken away.
    Empty,
    /// Steering wheel straight and locked.
    CentreSteering,
    /// Plates cleaned and greased.
    FreePlates,
    /// Gauge zeroed on a bar over this floor.
    ZeroOnFloor,
    /// Gauge set on one face, then turned round: half the difference is its own.
    ReverseGauge,
    /// Lip to lip measured.
    MeasureLips,
    /// Both tracks measured, and the string hung by them.
    Tracks,
    /// Sizes read off all four tyres.
    LookAtTyres,
    /// Tabs knocked out of the slots.
    TabsOut,
}

/// One thing done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(rename_all = "snake_case")]
pub enum Act {
    /// A tool read at a place.
    Read {
        /// With what.
        method: Method,
        /// What it is about.
        quantity: Quantity,
        /// Where.
        place: Place,
        /// How far the wheel was rolled since, degrees.
        rolled_deg: f64,
    },
    /// Something put right.
    Ready(Ready),
    /// Joints of a wheel shaken.
    Joints(At),
    /// A wheel spun in the air.
    SpinWheel(At),
    /// An adjuster turned by so much of its own positions.
    Turn {
        /// Where.
        at: At,
        /// Which, from the front of the axle's list.
        adjuster: usize,
        /// By how much: degrees of a cam, turns, mm.
        by: f64,
    },
    /// An axle's height changed, mm.
    Height {
        /// Whose.
        axle: Axle,
        /// By how much.
        by_mm: Sides<f64>,
    },
}

/// What a hand felt.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Felt {
    /// As it should.
    Done,
    /// It does not move.
    Seized,
    /// Something holds it in its slot.
    Held,
    /// It is at its end, and went that far.
    AtEnd,
    /// There is play.
    Play,
    /// There is none.
    Tight,
    /// It runs true.
    True,
    /// It wobbles.
    Wobbles,
    /// Something was wrong and is right now.
    PutRight,
}

/// Minutes of a first reading with a method (common practice, no source).
#[must_use]
pub fn minutes_of(m: Method) -> f64 {
    match m {
        Method::HeightHub | Method::HeightFloor | Method::HeightFrame => 1.5,
        Method::CamberGauge | Method::CamberForm | Method::ToeConvert => 2.0,
        Method::CamberBar | Method::CamberLevel => 3.0,
        Method::CamberOffsets | Method::CamberGap | Method::CamberCalliper | Method::CamberRunout => 4.0,
        Method::CamberLaser => 5.0,
        Method::CasterSweep => 9.0,
        Method::CasterScale => 6.0,
        Method::CasterJointLine => 25.0,
        Method::ToeDistance | Method::ToeRimGauge => 7.0,
        Method::ToeScribed => 10.0,
        Method::ToeBars | Method::ToePlates => 9.0,
        Method::ToeString => 7.0,
        Method::RimRunout | Method::TreadDepth => 3.0,
        Method::Pressure | Method::RimCircle => 1.0,
        Method::AxleCentring | Method::SetBack => 6.0,
        Method::Wheelbase | Method::Diagonal => 4.0,
        Method::FloorSlope => 3.0,
        Method::Thrust => 0.0,
    }
}

impl Ready {
    /// Minutes (common practice, no source).
    #[must_use]
    pub fn minutes(self) -> f64 {
        match self {
            Self::Roll => 3.0,
            Self::Pressures => 4.0,
            Self::Empty | Self::CentreSteering | Self::ReverseGauge | Self::LookAtTyres => 2.0,
            Self::FreePlates => 8.0,
            Self::ZeroOnFloor | Self::MeasureLips => 3.0,
            Self::Tracks => 5.0,
            Self::TabsOut => 20.0,
        }
    }
}
