//! Any layout behind one type: posed, edited and drawn alike.

use super::{Bar, Linkage, Loop, Unreachable};
use crate::Vec3;
use crate::edit::Edit;
use crate::geometry::{Geometry, Points, Side, WheelAtDesign};
use crate::layout::{
    FiveLinkCorner, HingeCorner, LayoutCorner, SolidAxleCorner, StrutCorner, WishboneCorner,
};
use crate::wheel::Pose;

/// The same asked of whichever corner it is.
macro_rules! each {
    ($corner:expr, $c:ident => $ask:expr) => {
        match $corner {
            Corner::Wishbone($c) => $ask,
            Corner::Strut($c) => $ask,
            Corner::FiveLink($c) => $ask,
            Corner::Hinge($c) => $ask,
            Corner::Axle($c) => $ask,
        }
    };
}

/// One corner of any layout, in left-hand coordinates.
#[derive(Debug, Clone, PartialEq)]
pub enum Corner {
    /// Double wishbone.
    Wishbone(WishboneCorner),
    /// Strut.
    Strut(StrutCorner),
    /// Five rods.
    FiveLink(FiveLinkCorner),
    /// Single arm, or a twist beam in parallel travel.
    Hinge(HingeCorner),
    /// Solid axle with roll held at 0.
    Axle(SolidAxleCorner),
}

impl Corner {
    /// A corner whose loops close at the given points.
    #[must_use]
    pub fn new(points: &Points, wheel: &WheelAtDesign) -> Self {
        match points {
            Points::DoubleWishbone(p) => Self::Wishbone(WishboneCorner::new(p, wheel)),
            Points::Strut(p) => Self::Strut(StrutCorner::new(p, wheel)),
            Points::FiveLink(p) => Self::FiveLink(FiveLinkCorner::new(p, wheel)),
            Points::SingleArm(p) => Self::Hinge(HingeCorner::new(p.arm_inner, p.arm_outer, wheel)),
            Points::SolidAxle(p) => Self::Axle(SolidAxleCorner::new(p, wheel)),
            Points::TwistBeam(p) => Self::Hinge(HingeCorner::new(p.pivot_right, p.pivot_left, wheel)),
        }
    }

    /// One side of an axle.
    #[must_use]
    pub fn of(geometry: &Geometry, side: Side) -> Self {
        let (points, wheel) = geometry.side(side);
        Self::new(&points, &wheel)
    }

    /// Turns the spin axis in its knuckle, arm or axle: radians of camber (top out positive) and of toe (toe-in positive).
    pub fn turn_spin(&mut self, camber: f64, toe: f64) {
        each!(self, c => c.turn_spin(camber, toe));
    }

    /// The same corner on another tyre: wheel centre over the ground, mm. No arm moves.
    #[must_use]
    pub fn on_tyre(&self, loaded_radius_mm: f64) -> Self {
        let mut out = self.clone();
        each!(&mut out, c => c.set_loaded_radius(loaded_radius_mm));
        out
    }

    /// Whether the wheel has a steering axis.
    #[must_use]
    pub fn is_steered(&self) -> bool {
        self.pose(0.0, 0.0).is_ok_and(|p| p.axis.is_some())
    }

    /// The corner with edits made in order. Every part keeps its size unless it is the one that changes;
    /// an edit of a part that this layout has not changes nothing.
    #[must_use]
    pub fn edited(&self, edits: &[Edit]) -> Self {
        let mut out = self.clone();
        if edits.is_empty() {
            return out;
        }
        each!(&mut out, c => {
            edits.iter().for_each(|e| c.edit(e));
            c.refresh();
        });
        out
    }

    /// The points where a pose of this corner puts them: the corner at that travel as a file of its own
    /// (`from` are the points it was made of). A pose has to be one of this corner at `travel`.
    #[must_use]
    pub fn as_points(&self, pose: &Pose, travel: f64, from: &Points) -> Points {
        let mut out = from.clone();
        match (self, &mut out) {
            (Self::Wishbone(c), Points::DoubleWishbone(p)) => c.write_points(pose, p),
            (Self::Strut(c), Points::Strut(p)) => c.write_points(pose, p),
            (Self::FiveLink(c), Points::FiveLink(p)) => c.write_points(travel, p),
            (Self::Hinge(c), Points::SingleArm(p)) => {
                [p.arm_inner, p.arm_outer] = c.hinge.map(Into::into);
            }
            (Self::Hinge(c), Points::TwistBeam(p)) => {
                [p.pivot_right, p.pivot_left] = c.hinge.map(Into::into);
            }
            (Self::Axle(c), Points::SolidAxle(p)) => c.write_points(pose, travel, p),
            // Points of another layout are not this corner's: they stay what they were.
            (Self::Wishbone(_) | Self::Strut(_) | Self::FiveLink(_) | Self::Hinge(_) | Self::Axle(_), _) => {}
        }
        out
    }

    /// Body ends of an upper arm that a spring bucket or frame can stand in the way of; none on a layout without one.
    #[must_use]
    pub fn upper_pivots(&self) -> Option<[Vec3; 2]> {
        each!(self, c => LayoutCorner::upper_pivots(c))
    }

    /// Where a strut meets its knuckle in a pose; none on a layout without one beside its tyre.
    #[must_use]
    pub fn strut_foot(&self, pose: &Pose) -> Option<Vec3> {
        each!(self, c => c.strut_foot(pose))
    }

    /// The pose and every bar of it, in vehicle axes.
    ///
    /// # Errors
    /// As [`Linkage::pose`].
    pub fn bars(&self, travel: f64, rack: f64) -> Result<(Pose, Vec<Bar>), Unreachable> {
        each!(self, c => c.bars(travel, rack))
    }
}

impl Linkage for Corner {
    fn pose(&self, travel: f64, rack: f64) -> Result<Pose, Unreachable> {
        let p = each!(self, c => c.pose(travel, rack))?;
        // Damaged files can close on numbers without a meaning; they are no pose.
        let finite = p.centre.iter().chain(p.spin.iter()).all(|v| v.is_finite());
        if finite { Ok(p) } else { Err(Unreachable::at(Loop::DeadPoint, 0.0)) }
    }
    fn loaded_radius(&self) -> f64 {
        each!(self, c => c.loaded_radius())
    }
    fn design_x(&self) -> f64 {
        each!(self, c => c.design_x())
    }
}
