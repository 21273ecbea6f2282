//! Where a wheel is at a travel and a rack position, or which loop stops it.

use crate::wheel::{Alignment, Pose, WheelState};
use bold_stance_units::said::{Said, said};
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
    /// The strut lies across its own line: the lower arm is farther from the mount than it can slide.
    Strut,
    /// One of the links that locate the wheel or axle.
    Link,
    /// The wheel does not steer, so it has no caster.
    Unsteered,
    /// It closes as it stands, but at no setting of its adjusters.
    NoSetting,
}

impl Loop {
    /// Word of the loop, by which the messages choose.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::LowerArm => "lower_arm",
            Self::UpperArm => "upper_arm",
            Self::TieRod => "tie_rod",
            Self::DeadPoint => "dead_point",
            Self::Strut => "strut",
            Self::Link => "link",
            Self::Unsteered => "unsteered",
            Self::NoSetting => "no_setting",
        }
    }

    /// Words for the loop in a log.
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::LowerArm => "lower arm does not close",
            Self::UpperArm => "upper arm and knuckle fully extended",
            Self::TieRod => "tie rod fully extended",
            Self::DeadPoint => "arm at its dead point",
            Self::Strut => "strut and lower arm in line",
            Self::Link => "link fully extended",
            Self::Unsteered => "no steering axis",
            Self::NoSetting => "no setting of the adjusters closes",
        }
    }

    /// The point a specialist would correct first.
    #[must_use]
    pub fn field(self) -> &'static str {
        match self {
            Self::LowerArm | Self::DeadPoint => "points.lower_outer",
            Self::UpperArm => "points.upper_outer",
            Self::TieRod => "points.tie_outer",
            Self::Strut => "points.strut_top",
            Self::Link => "links",
            Self::Unsteered => "layout",
            Self::NoSetting => "adjusters",
        }
    }
}

/// The position asked for cannot be reached, and why.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize, thiserror::Error)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[error("{}{} at travel {limit_travel_mm:.0} mm", .link.as_ref().map(|l| format!("{l}: ")).unwrap_or_default(), .blocked.words())]
pub struct Unreachable {
    /// The loop that stops.
    pub blocked: Loop,
    /// The last travel that closes, mm, bump positive.
    pub limit_travel_mm: f64,
    /// Which link, by its name in the file, where several could be meant.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub link: Option<String>,
}

impl Unreachable {
    /// A loop that stops at a travel.
    #[must_use]
    pub fn at(blocked: Loop, limit_travel_mm: f64) -> Self {
        Self { blocked, limit_travel_mm, link: None }
    }

    /// Which loop stops and where, to be said.
    #[must_use]
    pub fn says(&self) -> Said {
        let why = said("unreachable").word("what", self.blocked.word()).mm("at", self.limit_travel_mm);
        match &self.link {
            Some(l) => said("unreachable-link").name("link", l.clone()).say("why", why),
            None => why,
        }
    }

    /// The field a specialist would correct first.
    #[must_use]
    pub fn field(&self) -> String {
        match &self.link {
            Some(l) => format!("links.{l}"),
            None => self.blocked.field().to_owned(),
        }
    }
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

    /// Wheel relative to the chassis at a travel and rack position.
    ///
    /// # Errors
    /// As [`Linkage::pose`].
    fn wheel(&self, travel: f64, rack: f64) -> Result<WheelState, Unreachable> {
        Ok(self.pose(travel, rack)?.wheel(self.loaded_radius(), self.design_x()))
    }

    /// Angles of a steered wheel relative to the chassis at a travel and rack position.
    ///
    /// # Errors
    /// As [`Linkage::pose`]; [`Loop::Unsteered`] for a wheel without a steering axis.
    fn alignment(&self, travel: f64, rack: f64) -> Result<Alignment, Unreachable> {
        self.wheel(travel, rack)?.alignment().ok_or_else(|| Unreachable::at(Loop::Unsteered, travel))
    }

    /// Lowest and highest travel that close, looked for within `reach` mm either way.
    fn travel_range(&self, reach: f64) -> [f64; 2] {
        let end = |t: f64| self.pose(t, 0.0).map_or_else(|e| e.limit_travel_mm, |_| t);
        [end(-reach), end(reach)]
    }
}
