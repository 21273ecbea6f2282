//! Hardpoints of one side of an axle, by layout. mm: x forward, y left (outboard), z up from the ground.

use super::basics::{Layout, Point, WheelAtDesign};
use super::parts::FileParts;
use super::say::Say;
use crate::edit::EccentricPoint;
use crate::layout::{
    ArmPoints, AxlePoints, BeamPoints, FiveLinkPoints, LayoutPoints, Measure, OnIt, StrutPoints,
    WishbonePoints,
};
use crate::linkage::Loop;
use bold_stance_units::problem::Problem;

/// The same asked of whichever layout it is: the one list of layouts beside the two enums.
macro_rules! each {
    ($points:expr, $p:ident => $ask:expr) => {
        match $points {
            Points::DoubleWishbone($p) => $ask,
            Points::Strut($p) => $ask,
            Points::FiveLink($p) => $ask,
            Points::SingleArm($p) => $ask,
            Points::SolidAxle($p) => $ask,
            Points::TwistBeam($p) => $ask,
        }
    };
}

/// Hardpoints of one side (of both for a whole axle).
#[derive(Debug, Clone, PartialEq)]
pub enum Points {
    /// Double wishbone.
    DoubleWishbone(WishbonePoints),
    /// Strut.
    Strut(StrutPoints),
    /// Five rods.
    FiveLink(FiveLinkPoints),
    /// One hinge.
    SingleArm(ArmPoints),
    /// Solid axle.
    SolidAxle(AxlePoints),
    /// Twist beam.
    TwistBeam(BeamPoints),
}

impl Points {
    /// Which layout these are.
    #[must_use]
    pub fn layout(&self) -> Layout {
        match self {
            Self::DoubleWishbone(_) => Layout::DoubleWishbone,
            Self::Strut(_) => Layout::Strut,
            Self::FiveLink(_) => Layout::FiveLink,
            Self::SingleArm(_) => Layout::SingleArm,
            Self::SolidAxle(_) => Layout::SolidAxle,
            Self::TwistBeam(_) => Layout::TwistBeam,
        }
    }

    /// The points of a double wishbone, when these are.
    #[must_use]
    pub fn wishbone(&self) -> Option<&WishbonePoints> {
        if let Self::DoubleWishbone(p) = self { Some(p) } else { None }
    }

    /// Every point, always in the same order.
    pub fn all_mut(&mut self) -> Vec<&mut Point> {
        each!(self, p => p.all_mut())
    }

    /// Path of each point in the file and the part it belongs to (points of one part are measured from each
    /// other, so their errors go together), in the order of [`Points::all_mut`].
    #[must_use]
    pub fn names(&self) -> Vec<(String, u8)> {
        each!(self, p => p.names())
    }

    /// What can be moved, lengthened or turned on these points.
    #[must_use]
    pub fn on_it(&self) -> OnIt {
        each!(self, p => p.on_it())
    }

    /// Every pivot that comes down with brackets or a subframe.
    #[must_use]
    pub fn bracket(&self) -> Vec<EccentricPoint> {
        each!(self, p => p.bracket())
    }

    /// What a tape or a level reads on them, mm or degrees; none where the layout has no such part.
    #[must_use]
    pub fn taped(&self, what: Measure, wheel: &WheelAtDesign) -> Option<f64> {
        each!(self, p => p.taped(what, wheel))
    }

    /// Inner and outer joint of a tie rod that construction aids are made for.
    pub fn tie_rod_mut(&mut self) -> Option<[&mut Point; 2]> {
        each!(self, p => p.tie_rod())
    }

    /// The same, where they are.
    #[must_use]
    pub fn tie_rod(&self) -> Option<[Point; 2]> {
        self.clone().tie_rod_mut().map(|t| t.map(|p| *p))
    }

    /// Height of the steering axis between the points a caster correction moves, mm.
    #[must_use]
    pub fn axis_height(&self) -> f64 {
        each!(self, p => p.axis_height())
    }

    /// Moves the upper end of the steering axis by `shift` mm forward; a solid axle's kingpin leans by `lean_deg` instead.
    pub fn lean_axis(&mut self, shift: f64, lean_deg: f64) {
        each!(self, p => p.lean_axis(shift, lean_deg));
    }

    pub(super) fn read(at: &str, layout: Layout, f: FileParts) -> Result<Self, Problem> {
        Ok(match layout {
            Layout::DoubleWishbone => Self::DoubleWishbone(LayoutPoints::read(at, f)?),
            Layout::Strut => Self::Strut(LayoutPoints::read(at, f)?),
            Layout::FiveLink => Self::FiveLink(LayoutPoints::read(at, f)?),
            Layout::SingleArm => Self::SingleArm(LayoutPoints::read(at, f)?),
            Layout::SolidAxle => Self::SolidAxle(LayoutPoints::read(at, f)?),
            Layout::TwistBeam => Self::TwistBeam(LayoutPoints::read(at, f)?),
        })
    }

    pub(super) fn write(&self) -> FileParts {
        each!(self, p => p.write())
    }

    pub(super) fn ranges(&self) -> Vec<Result<(), Problem>> {
        each!(self, p => p.ranges())
    }

    pub(super) fn faults(&self, wheel: &WheelAtDesign, say: &mut Say<'_>) {
        each!(self, p => p.faults(wheel, say));
    }

    /// The point of a loop that is the likeliest to be typed wrong.
    pub(crate) fn likeliest(&self, blocked: Loop) -> &'static str {
        each!(self, p => p.likeliest(blocked))
    }

    /// [`Points::names`] and [`Points::all_mut`] side by side.
    pub fn named_mut(&mut self) -> Vec<(String, u8, &mut Point)> {
        let names = self.names();
        names.into_iter().zip(self.all_mut()).map(|((n, g), p)| (n, g, p)).collect()
    }

    /// Path and place of each point, in the order of [`Points::named_mut`].
    #[must_use]
    pub fn named(&self) -> Vec<(String, Point)> {
        self.clone().named_mut().into_iter().map(|(n, _, p)| (n, *p)).collect()
    }

    /// Index of the mirror image of each point of a whole axle; none for points that have no image, and on layouts that
    /// are drawn one side at a time.
    #[must_use]
    pub fn mirrors(&self) -> Vec<Option<usize>> {
        let names: Vec<String> = self.names().into_iter().map(|(n, _)| n).collect();
        names
            .iter()
            .map(|n| {
                let other = if n.contains("_left") {
                    n.replace("_left", "_right")
                } else if n.contains("_right") {
                    n.replace("_right", "_left")
                } else if n.ends_with(".left") {
                    n.replace(".left", ".right")
                } else if n.ends_with(".right") {
                    n.replace(".right", ".left")
                } else {
                    return None;
                };
                names.iter().position(|m| *m == other)
            })
            .collect()
    }

    /// Whether the axle is carried by leaf springs: a live axle that says so by a link that stands for them sideways.
    #[must_use]
    pub fn on_leaves(&self) -> bool {
        matches!(self, Self::SolidAxle(a) if a.links.iter().any(|l| l.name.starts_with("leaf")))
    }

    /// The same axle seen from the other side: left and right change places and every y its sign.
    /// Points of one side only are mirror images already and stay as they are.
    #[must_use]
    pub fn other_side(&self) -> Self {
        let mut out = self.clone();
        if !self.layout().is_whole_axle() {
            return out;
        }
        for p in out.all_mut() {
            p[1] = -p[1];
        }
        each!(&mut out, p => p.swap_sides());
        out
    }

    /// Points that stay with the wheel when it is moved as a whole (knuckle or axle side).
    #[must_use]
    pub fn is_on_wheel_side(path: &str) -> bool {
        path.ends_with("_outer") && path != "points.arm_outer"
            || path.ends_with(".outer")
            || path.ends_with(".axle")
            || path.ends_with("strut_bottom")
            || path.starts_with("tie_rod.")
    }
}

impl Layout {
    /// Whether the wheel hangs on a knuckle that another one can take the place of.
    #[must_use]
    pub fn has_knuckle(self) -> bool {
        match self {
            Self::DoubleWishbone => WishbonePoints::KNUCKLE,
            Self::Strut => StrutPoints::KNUCKLE,
            Self::FiveLink => FiveLinkPoints::KNUCKLE,
            Self::SingleArm => ArmPoints::KNUCKLE,
            Self::SolidAxle => AxlePoints::KNUCKLE,
            Self::TwistBeam => BeamPoints::KNUCKLE,
        }
    }
}
