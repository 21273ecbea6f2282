//! What a tape and a level can tell about an axle.

use crate::Vec3;
use crate::geometry::{Point, Points, WheelAtDesign};
use crate::wheel::{contact_point, spin_axis};
use serde::{Deserialize, Serialize};

/// One measurement. Lengths in mm, angles in degrees (the wheel end higher is positive).
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Measure {
    /// Middle of one tyre to middle of the other, on the ground.
    Track,
    /// Hub centre over the ground.
    WheelRadius,
    /// Pivot line to ball joint.
    LowerArm,
    /// Rise of the lower arm outward.
    LowerArmAngle,
    /// Pivot line to ball joint.
    UpperArm,
    /// Rise of the upper arm outward.
    UpperArmAngle,
    /// Lower to upper ball joint.
    JointSpacing,
    /// Lower ball joint to upper mount.
    StrutHeight,
    /// Tie rod, joint to joint.
    TieRod,
    /// Longest lower link, joint to joint.
    LowerLink,
    /// Rise of that link toward the wheel.
    LowerLinkAngle,
    /// Longest upper link, joint to joint.
    UpperLink,
    /// Rise of that link toward the wheel.
    UpperLinkAngle,
    /// Track bar, joint to joint.
    TrackBar,
    /// Slope of the track bar: its axle end higher is positive.
    TrackBarAngle,
    /// Middle of the hinge to hub centre.
    SwingArm,
    /// Hub centre over the middle of the hinge, as an angle.
    SwingArmAngle,
    /// Hinge joint to hinge joint.
    HingeLength,
}

/// The point half way.
pub(super) fn middle(a: Point, b: Point) -> Point {
    [0, 1, 2].map(|i| f64::midpoint(a[i], b[i]))
}

/// Rise from `from` to `to`, degrees.
pub(super) fn rise(from: Point, to: Point) -> f64 {
    let d = Vec3::from(to) - Vec3::from(from);
    d.z.atan2(d.x.hypot(d.y)).to_degrees()
}

impl Measure {
    /// Every measurement, in the order they are asked for.
    pub const ALL: [Self; 18] = [
        Self::Track,
        Self::WheelRadius,
        Self::LowerArm,
        Self::LowerArmAngle,
        Self::UpperArm,
        Self::UpperArmAngle,
        Self::JointSpacing,
        Self::StrutHeight,
        Self::TieRod,
        Self::LowerLink,
        Self::LowerLinkAngle,
        Self::UpperLink,
        Self::UpperLinkAngle,
        Self::TrackBar,
        Self::TrackBarAngle,
        Self::SwingArm,
        Self::SwingArmAngle,
        Self::HingeLength,
    ];

    /// Whether it is an angle in degrees; else a length in mm.
    #[must_use]
    pub fn is_angle(self) -> bool {
        matches!(
            self,
            Self::LowerArmAngle
                | Self::UpperArmAngle
                | Self::LowerLinkAngle
                | Self::UpperLinkAngle
                | Self::TrackBarAngle
                | Self::SwingArmAngle
        )
    }

    /// Standard deviation with a tape or a level, mm or degrees (common practice, no source).
    #[must_use]
    pub fn sigma(self) -> f64 {
        match self {
            Self::Track => 5.0,
            _ if self.is_angle() => 0.7,
            _ => 3.0,
        }
    }

    /// What to measure, in the shop's words.
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::Track => "Track, middle of tyre to middle of tyre",
            Self::WheelRadius => "Hub centre over the floor",
            Self::LowerArm => "Lower arm, pivot line to ball joint",
            Self::LowerArmAngle => "Lower arm rises outward",
            Self::UpperArm => "Upper arm, pivot line to ball joint",
            Self::UpperArmAngle => "Upper arm rises outward",
            Self::JointSpacing => "Ball joint to ball joint",
            Self::StrutHeight => "Lower ball joint to strut mount",
            Self::TieRod => "Tie rod, joint to joint",
            Self::LowerLink => "Longest lower link, joint to joint",
            Self::LowerLinkAngle => "That link rises toward the wheel",
            Self::UpperLink => "Longest upper link, joint to joint",
            Self::UpperLinkAngle => "That link rises toward the wheel",
            Self::TrackBar => "Track bar, joint to joint",
            Self::TrackBarAngle => "Track bar rises toward the axle",
            Self::SwingArm => "Middle of the hinge to hub centre",
            Self::SwingArmAngle => "Arm rises toward the hub",
            Self::HingeLength => "Hinge joint to hinge joint",
        }
    }

    /// Its value on a geometry; `None` where the layout has no such part.
    #[must_use]
    pub fn of(self, points: &Points, wheel: &WheelAtDesign) -> Option<f64> {
        match self {
            Self::Track => {
                let spin = spin_axis(wheel.camber_deg.to_radians(), wheel.toe_deg.to_radians());
                Some(2.0 * contact_point(&Vec3::from(wheel.center), &spin, wheel.loaded_radius_mm).y)
            }
            Self::WheelRadius => Some(wheel.center[2]),
            _ => points.taped(self, wheel),
        }
    }
}
