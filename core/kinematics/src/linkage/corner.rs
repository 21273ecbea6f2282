//! Any layout behind one type: posed, edited and drawn alike.

use super::{
    FiveLinkCorner, HingeCorner, Linkage, Loop, SolidAxleCorner, StrutCorner, Unreachable, WishboneCorner,
};
use crate::Vec3;
use crate::edit::Edit;
use crate::geometry::{Geometry, Points, Side, WheelAtDesign};
use crate::wheel::Pose;
use serde::{Deserialize, Serialize};

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

/// What a bar of a drawing is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BarKind {
    /// Upper arm: pivot to ball joint.
    UpperArm,
    /// Lower arm: pivot to ball joint.
    LowerArm,
    /// A rod with a joint at each end.
    Link,
    /// Tie rod or drag link.
    TieRod,
    /// Strut: mount to lower end.
    Strut,
    /// Part of the knuckle.
    Knuckle,
    /// Swinging arm: hinge to wheel.
    SwingArm,
    /// Axle tube or twist beam.
    Beam,
}

/// A bar of a drawing: from its body (or inner) end to its wheel end.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Bar {
    /// Name of the part, as in the file.
    pub name: String,
    /// What it is.
    pub kind: BarKind,
    /// x, y, z, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub from: [f64; 3],
    /// x, y, z, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub to: [f64; 3],
    /// Whether `from` is fixed to the body.
    pub on_body: bool,
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
        match self {
            Self::Wishbone(c) => {
                c.turn_spin(camber, toe);
                c.refresh();
            }
            Self::Strut(c) => c.turn_spin(camber, toe),
            Self::FiveLink(c) => c.turn_spin(camber, toe),
            Self::Hinge(c) => c.turn_spin(camber, toe),
            Self::Axle(c) => c.turn_spin(camber, toe),
        }
    }

    /// The same corner on another tyre: wheel centre over the ground, mm. No arm moves.
    #[must_use]
    pub fn on_tyre(&self, loaded_radius_mm: f64) -> Self {
        let mut out = self.clone();
        match &mut out {
            Self::Wishbone(c) => c.set_loaded_radius(loaded_radius_mm),
            Self::Strut(c) => c.set_loaded_radius(loaded_radius_mm),
            Self::FiveLink(c) => c.set_loaded_radius(loaded_radius_mm),
            Self::Hinge(c) => c.set_loaded_radius(loaded_radius_mm),
            Self::Axle(c) => c.set_loaded_radius(loaded_radius_mm),
        }
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
        edits.iter().for_each(|e| e.apply(&mut out));
        match &mut out {
            Self::Wishbone(c) => c.refresh(),
            Self::Strut(c) => c.refresh(),
            Self::FiveLink(c) => c.refresh(),
            Self::Hinge(_) | Self::Axle(_) => {}
        }
        out
    }

    /// The points where a pose of this corner puts them: the corner at that travel as a file of its own
    /// (`from` are the points it was made of). A pose has to be one of this corner at `travel`.
    #[must_use]
    pub fn as_points(&self, pose: &Pose, travel: f64, from: &Points) -> Points {
        let mut out = from.clone();
        match (self, &mut out, pose.axis) {
            (Self::Wishbone(c), Points::DoubleWishbone(p), Some(a)) => {
                [p.lower_front, p.lower_rear] = c.lower_pivots.map(Into::into);
                [p.upper_front, p.upper_rear] = c.upper_pivots.map(Into::into);
                p.lower_outer = a.lower.into();
                p.upper_outer = a.upper.into();
                p.tie_inner = c.tie_inner.into();
                p.tie_outer = a.tie.into();
            }
            (Self::Strut(c), Points::Strut(p), Some(a)) => {
                [p.lower_front, p.lower_rear] = c.lower_pivots.map(Into::into);
                p.lower_outer = a.lower.into();
                p.strut_top = c.top.into();
                p.strut_bottom = c.strut_bottom(pose).into();
                p.tie_inner = c.tie_inner.into();
                p.tie_outer = a.tie.into();
            }
            (Self::FiveLink(c), Points::FiveLink(p), _) => {
                if let Ok((_, rods)) = c.rods(travel, 0.0) {
                    for (r, now) in p.rods.iter_mut().zip(rods) {
                        r.inner = now.inner.into();
                        r.outer = now.outer.into();
                    }
                }
            }
            (Self::Hinge(c), Points::SingleArm(p), _) => [p.arm_inner, p.arm_outer] = c.hinge.map(Into::into),
            (Self::Hinge(c), Points::TwistBeam(p), _) => {
                [p.pivot_right, p.pivot_left] = c.hinge.map(Into::into);
            }
            (Self::Axle(c), Points::SolidAxle(p), _) => {
                if let Ok(a) = c.axle_pose(travel, 0.0) {
                    for (l, (_, chassis, axle)) in p.links.iter_mut().zip(c.link_ends(&a)) {
                        l.chassis = chassis.into();
                        l.axle = axle.into();
                    }
                    if let (Some(d), Some([chassis, axle])) = (&mut p.drag_link, c.drag_ends(&a)) {
                        d.chassis = chassis.into();
                        d.axle = axle.into();
                    }
                    p.tie_rod = c.tie_ends(&a).map(|t| t.map(Into::into));
                    if let (Some(s), Some(axis)) = (&mut p.steering_axis, pose.axis) {
                        let u = axis.direction();
                        s.caster_deg = (-u.x).atan2(u.z).to_degrees();
                        s.sai_deg = (-u.y).atan2(u.z).to_degrees();
                    }
                }
            }
            _ => {}
        }
        out
    }

    /// The pose and every bar of it, in vehicle axes.
    ///
    /// # Errors
    /// As [`Linkage::pose`].
    pub fn bars(&self, travel: f64, rack: f64) -> Result<(Pose, Vec<Bar>), Unreachable> {
        let mut bars = Vec::with_capacity(9);
        let mut put = |name: &str, kind, from: &Vec3, to: &Vec3, on_body| {
            bars.push(Bar { name: name.into(), kind, from: (*from).into(), to: (*to).into(), on_body });
        };
        let pose = match self {
            Self::Wishbone(c) => {
                let pose = c.pose(travel, rack)?;
                if let Some(a) = pose.axis {
                    let inner = c.tie_inner + Vec3::new(0.0, rack, 0.0);
                    put("lower_front", BarKind::LowerArm, &c.lower_pivots[0], &a.lower, true);
                    put("lower_rear", BarKind::LowerArm, &c.lower_pivots[1], &a.lower, true);
                    put("upper_front", BarKind::UpperArm, &c.upper_pivots[0], &a.upper, true);
                    put("upper_rear", BarKind::UpperArm, &c.upper_pivots[1], &a.upper, true);
                    put("tie", BarKind::TieRod, &inner, &a.tie, true);
                    put("knuckle", BarKind::Knuckle, &a.lower, &a.upper, false);
                }
                pose
            }
            Self::Strut(c) => {
                let pose = c.pose(travel, rack)?;
                if let Some(a) = pose.axis {
                    let inner = c.tie_inner + Vec3::new(0.0, rack, 0.0);
                    let bottom = c.strut_bottom(&pose);
                    put("lower_front", BarKind::LowerArm, &c.lower_pivots[0], &a.lower, true);
                    put("lower_rear", BarKind::LowerArm, &c.lower_pivots[1], &a.lower, true);
                    put("strut", BarKind::Strut, &c.top, &bottom, true);
                    put("tie", BarKind::TieRod, &inner, &a.tie, true);
                    put("knuckle", BarKind::Knuckle, &bottom, &a.lower, false);
                }
                pose
            }
            Self::FiveLink(c) => {
                let (pose, rods) = c.rods(travel, rack)?;
                for r in &rods {
                    let kind = if r.name == "tie" { BarKind::TieRod } else { BarKind::Link };
                    put(&r.name, kind, &r.inner, &r.outer, true);
                    put("knuckle", BarKind::Knuckle, &r.outer, &pose.centre, false);
                }
                pose
            }
            Self::Hinge(c) => {
                let pose = c.pose(travel, rack)?;
                let hub = pose.centre - pose.spin * 120.0;
                put("hinge_inner", BarKind::SwingArm, &c.hinge[0], &hub, true);
                put("hinge_outer", BarKind::SwingArm, &c.hinge[1], &hub, true);
                put("hub", BarKind::Knuckle, &hub, &pose.centre, false);
                pose
            }
            Self::Axle(c) => {
                let a = c.axle_pose(travel, 0.0)?;
                let pose = c.pose(travel, rack)?;
                for (name, chassis, axle) in c.link_ends(&a) {
                    put(&name, BarKind::Link, &chassis, &axle, true);
                }
                if let Some([chassis, joint]) = c.drag_ends(&a) {
                    put("drag_link", BarKind::TieRod, &chassis, &joint, true);
                }
                if let Some([left, right]) = c.tie_ends(&a) {
                    put("tie_rod", BarKind::TieRod, &right, &left, false);
                }
                let other = a.midpoint * 2.0 - (a.midpoint + (c.left_wheel(&a).centre - a.midpoint));
                put("axle", BarKind::Beam, &other, &pose.centre, false);
                pose
            }
        };
        Ok((pose, bars))
    }
}

impl Linkage for Corner {
    fn pose(&self, travel: f64, rack: f64) -> Result<Pose, Unreachable> {
        let p = match self {
            Self::Wishbone(c) => c.pose(travel, rack),
            Self::Strut(c) => c.pose(travel, rack),
            Self::FiveLink(c) => c.pose(travel, rack),
            Self::Hinge(c) => c.pose(travel, rack),
            Self::Axle(c) => c.pose(travel, rack),
        }?;
        // Damaged files can close on numbers without a meaning; they are no pose.
        let finite = p.centre.iter().chain(p.spin.iter()).all(|v| v.is_finite());
        if finite { Ok(p) } else { Err(Unreachable::at(Loop::DeadPoint, 0.0)) }
    }
    fn loaded_radius(&self) -> f64 {
        match self {
            Self::Wishbone(c) => c.loaded_radius(),
            Self::Strut(c) => c.loaded_radius(),
            Self::FiveLink(c) => c.loaded_radius(),
            Self::Hinge(c) => c.loaded_radius(),
            Self::Axle(c) => c.loaded_radius(),
        }
    }
    fn design_x(&self) -> f64 {
        match self {
            Self::Wishbone(c) => c.design_x(),
            Self::Strut(c) => c.design_x(),
            Self::FiveLink(c) => c.design_x(),
            Self::Hinge(c) => c.design_x(),
            Self::Axle(c) => c.design_x(),
        }
    }
}
