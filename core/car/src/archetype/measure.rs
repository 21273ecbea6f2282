//! What a tape and a level can tell about an axle.

use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::geometry::{AxlePoints, FiveLinkPoints, Point, Points, WheelAtDesign};
use bold_stance_kinematics::wheel::{contact_point, spin_axis};
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

fn far(a: Point, b: Point) -> f64 {
    (Vec3::from(a) - Vec3::from(b)).norm()
}

fn middle(a: Point, b: Point) -> Point {
    [0, 1, 2].map(|i| f64::midpoint(a[i], b[i]))
}

fn off_line(p: Point, a: Point, b: Point) -> f64 {
    let axis = Vec3::from(b) - Vec3::from(a);
    axis.cross(&(Vec3::from(p) - Vec3::from(a))).norm() / axis.norm().max(1e-9)
}

/// Rise from `from` to `to`, degrees.
fn rise(from: Point, to: Point) -> f64 {
    let d = Vec3::from(to) - Vec3::from(from);
    d.z.atan2(d.x.hypot(d.y)).to_degrees()
}

/// Body and wheel end of the longest lower or upper rod of a multi-link.
fn rod(f: &FiveLinkPoints, upper: bool) -> Option<(Point, Point)> {
    let mean = f.rods.iter().map(|r| r.outer[2]).sum::<f64>() / 5.0;
    f.rods
        .iter()
        .filter(|r| (r.outer[2] > mean) == upper)
        .max_by(|a, b| far(a.inner, a.outer).total_cmp(&far(b.inner, b.outer)))
        .map(|r| (r.inner, r.outer))
}

fn axle_link(a: &AxlePoints, name: &str) -> Option<(Point, Point)> {
    a.links.iter().find(|l| l.name == name).map(|l| (l.chassis, l.axle))
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
                return Some(2.0 * contact_point(&Vec3::from(wheel.center), &spin, wheel.loaded_radius_mm).y);
            }
            Self::WheelRadius => return Some(wheel.center[2]),
            _ => {}
        }
        match points {
            Points::DoubleWishbone(p) => match self {
                Self::LowerArm => Some(off_line(p.lower_outer, p.lower_front, p.lower_rear)),
                Self::LowerArmAngle => Some(rise(middle(p.lower_front, p.lower_rear), p.lower_outer)),
                Self::UpperArm => Some(off_line(p.upper_outer, p.upper_front, p.upper_rear)),
                Self::UpperArmAngle => Some(rise(middle(p.upper_front, p.upper_rear), p.upper_outer)),
                Self::JointSpacing => Some(far(p.lower_outer, p.upper_outer)),
                Self::TieRod => Some(far(p.tie_inner, p.tie_outer)),
                _ => None,
            },
            Points::Strut(p) => match self {
                Self::LowerArm => Some(off_line(p.lower_outer, p.lower_front, p.lower_rear)),
                Self::LowerArmAngle => Some(rise(middle(p.lower_front, p.lower_rear), p.lower_outer)),
                Self::StrutHeight => Some(far(p.lower_outer, p.strut_top)),
                Self::TieRod => Some(far(p.tie_inner, p.tie_outer)),
                _ => None,
            },
            Points::FiveLink(f) => match self {
                Self::LowerLink => rod(f, false).map(|(a, b)| far(a, b)),
                Self::LowerLinkAngle => rod(f, false).map(|(a, b)| rise(a, b)),
                Self::UpperLink => rod(f, true).map(|(a, b)| far(a, b)),
                Self::UpperLinkAngle => rod(f, true).map(|(a, b)| rise(a, b)),
                _ => None,
            },
            Points::SolidAxle(a) => match self {
                Self::LowerLink => axle_link(a, "lower_left").map(|(c, x)| far(c, x)),
                Self::LowerLinkAngle => axle_link(a, "lower_left").map(|(c, x)| rise(c, x)),
                Self::UpperLink => axle_link(a, "upper_left").map(|(c, x)| far(c, x)),
                Self::UpperLinkAngle => axle_link(a, "upper_left").map(|(c, x)| rise(c, x)),
                Self::TrackBar => axle_link(a, "track_bar").map(|(c, x)| far(c, x)),
                Self::TrackBarAngle => axle_link(a, "track_bar").map(|(c, x)| rise(c, x)),
                _ => None,
            },
            Points::SingleArm(a) => {
                let hinge = middle(a.arm_inner, a.arm_outer);
                match self {
                    Self::SwingArm => Some(far(hinge, wheel.center)),
                    Self::SwingArmAngle => Some(rise(hinge, wheel.center)),
                    Self::HingeLength => Some(far(a.arm_inner, a.arm_outer)),
                    _ => None,
                }
            }
            Points::TwistBeam(b) => match self {
                Self::SwingArm => Some(far(b.pivot_left, wheel.center)),
                Self::SwingArmAngle => Some(rise(b.pivot_left, wheel.center)),
                Self::HingeLength => Some(far(b.pivot_left, b.pivot_right)),
                _ => None,
            },
        }
    }
}
