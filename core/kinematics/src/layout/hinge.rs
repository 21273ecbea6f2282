//! Trailing, semi-trailing and swing arms, and a twist beam in parallel travel: one rotation about one
//! line of the chassis, exact.

use super::arm_driven::{self, ArmDriven, At};
use super::tape::{Measure, middle, rise};
use super::{LayoutCorner, LayoutPoints, OnIt, paths, words};
use crate::Vec3;
use crate::edit::{EccentricPoint, Edit};
use crate::geometry::basics::{Point, WheelAtDesign};
use crate::geometry::parts::FileParts;
use crate::geometry::say::{Say, gap, off_line};
use crate::linkage::{Bar, BarKind};
use crate::linkage::{Linkage, Loop, Unreachable};
use crate::wheel::{Pose, spin_axis};
use bold_stance_units::problem::{Problem, in_range};
use nalgebra::{Rotation3, Unit};

/// A hinge on the body: the wheel turns about the line through both points.
#[derive(Debug, Clone, PartialEq)]
pub struct ArmPoints {
    /// Hinge, inboard end.
    pub arm_inner: Point,
    /// Hinge, outboard end.
    pub arm_outer: Point,
}

/// A twist beam: the hinge points of both arms and where the beam twists.
#[derive(Debug, Clone, PartialEq)]
pub struct BeamPoints {
    /// Left hinge.
    pub pivot_left: Point,
    /// Right hinge, y negative.
    pub pivot_right: Point,
    /// x and z of the beam's shear centre; needed in roll only.
    pub shear_center: Option<[f64; 2]>,
}

/// A wheel on one hinge.
#[derive(Debug, Clone, PartialEq)]
pub struct HingeCorner {
    /// Both ends of the hinge on the body.
    pub hinge: [Vec3; 2],
    axis: Unit<Vec3>,
    /// Wheel centre with the arm where it is drawn, and where travel counts from.
    centre: Vec3,
    design: Vec3,
    spin: Vec3,
    loaded_radius: f64,
    slope: (f64, f64),
    /// Set when the wheel centre lies on the hinge.
    stuck: bool,
}

impl HingeCorner {
    /// A wheel that turns about the line through `inner` and `outer`.
    #[must_use]
    pub fn new(inner: [f64; 3], outer: [f64; 3], wheel: &WheelAtDesign) -> Self {
        let hinge = [Vec3::from(inner), Vec3::from(outer)];
        let centre = Vec3::from(wheel.center);
        let mut line = hinge[1] - hinge[0];
        // Positive rotation lifts the wheel.
        if line.cross(&(centre - hinge[0])).z < 0.0 {
            line = -line;
        }
        let (axis, stuck) = Unit::try_new_and_get(line, 1e-6)
            .map_or((Vec3::y_axis(), true), |(a, _)| (a, a.cross(&(centre - hinge[0])).z < 1e-6));
        let mut out = Self {
            hinge,
            axis,
            centre,
            design: centre,
            spin: spin_axis(wheel.camber_deg.to_radians(), wheel.toe_deg.to_radians()),
            loaded_radius: wheel.loaded_radius_mm,
            slope: (1.0, 0.0),
            stuck,
        };
        out.slope = arm_driven::slope_and_bend(&out, 1.0);
        out
    }

    /// Moves the wheel centre against the arm (wheel offset, spindle), mm in design axes.
    pub(crate) fn move_wheel(&mut self, by: Vec3) {
        self.centre += by;
        self.slope = arm_driven::slope_and_bend(self, 1.0);
    }

    /// Turns the spin axis in the arm (shims), radians.
    pub(crate) fn turn_wheel(&mut self, camber: f64, toe: f64) {
        self.spin = spin_axis(crate::wheel::camber(&self.spin) + camber, crate::wheel::toe(&self.spin) + toe);
    }

    /// Moves one end of the hinge on the car; the arm keeps its size, so the wheel moves with it.
    pub(crate) fn move_hinge(&mut self, which: usize, by: Vec3) {
        let before = self.axis;
        if let Some(p) = self.hinge.get_mut(which) {
            *p += by;
        }
        let mut line = self.hinge[1] - self.hinge[0];
        if line.dot(&before) < 0.0 {
            line = -line;
        }
        let Some((axis, _)) = Unit::try_new_and_get(line, 1e-6) else {
            self.stuck = true;
            return;
        };
        // The arm stays square to its hinge and turns with the line; the middle of the line is where its middle is, so
        // that two ends moved alike, one after the other, carry the wheel by just as much.
        let middle = (self.hinge[0] + self.hinge[1]) * 0.5;
        let turn = Rotation3::rotation_between(&before, &axis).unwrap_or_else(Rotation3::identity);
        self.centre = middle + turn * (self.centre - (middle - by * 0.5));
        self.spin = turn * self.spin;
        self.axis = axis;
        self.slope = arm_driven::slope_and_bend(self, 1.0);
    }
}

impl ArmDriven for HingeCorner {
    fn at(&self, theta: f64, _rack: f64) -> Result<At, Loop> {
        if self.stuck {
            return Err(Loop::DeadPoint);
        }
        let r = Rotation3::from_axis_angle(&self.axis, theta);
        let arm = r * (self.centre - self.hinge[0]);
        let rate = self.axis.cross(&arm).z;
        let up = r * Vec3::z();
        Ok(At { pose: Pose { centre: self.hinge[0] + arm, spin: r * self.spin, up, axis: None }, rate })
    }
    fn slope_and_bend(&self) -> (f64, f64) {
        self.slope
    }
    fn design_z(&self) -> f64 {
        self.design.z
    }
}

impl Linkage for HingeCorner {
    fn pose(&self, travel: f64, rack: f64) -> Result<Pose, Unreachable> {
        if !travel.is_finite() {
            return Err(Unreachable::at(Loop::DeadPoint, 0.0));
        }
        arm_driven::solve(self, travel, rack)
    }
    fn loaded_radius(&self) -> f64 {
        self.loaded_radius
    }
    fn design_x(&self) -> f64 {
        self.design.x
    }
}

impl LayoutPoints for ArmPoints {
    const KNUCKLE: bool = false;

    fn bracket(&self) -> Vec<EccentricPoint> {
        vec![EccentricPoint::LowerFront, EccentricPoint::LowerRear]
    }

    fn taped(&self, what: Measure, wheel: &WheelAtDesign) -> Option<f64> {
        let hinge = middle(self.arm_inner, self.arm_outer);
        match what {
            Measure::SwingArm => Some(gap(hinge, wheel.center)),
            Measure::SwingArmAngle => Some(rise(hinge, wheel.center)),
            Measure::HingeLength => Some(gap(self.arm_inner, self.arm_outer)),
            _ => None,
        }
    }

    fn all_mut(&mut self) -> Vec<&mut Point> {
        vec![&mut self.arm_inner, &mut self.arm_outer]
    }

    fn names(&self) -> Vec<(String, u8)> {
        paths(&[("arm_inner", 0), ("arm_outer", 0)])
    }

    fn read(at: &str, mut f: FileParts) -> Result<Self, Problem> {
        let mut p = f.only_points(at)?;
        let out = Self { arm_inner: p.take("arm_inner")?, arm_outer: p.take("arm_outer")? };
        p.nothing_left("arm_inner, arm_outer")?;
        Ok(out)
    }

    fn write(&self) -> FileParts {
        let mut out = FileParts::default();
        out.put_points(vec![("arm_inner".into(), self.arm_inner), ("arm_outer".into(), self.arm_outer)]);
        out
    }

    fn faults(&self, wheel: &WheelAtDesign, say: &mut Say<'_>) {
        say.near("points.arm_outer", gap(self.arm_inner, self.arm_outer), "fault-hinge-one");
        let d = off_line(wheel.center, self.arm_inner, self.arm_outer);
        say.flat("points.arm_outer", d, "fault-hinge-through-wheel");
    }

    fn likeliest(&self, _: Loop) -> &'static str {
        "points.arm_outer"
    }

    fn on_it(&self) -> OnIt {
        hinges()
    }
}

/// The two ends of a hinge go by the names of a lower arm's pivots.
fn hinges() -> OnIt {
    OnIt { pivots: words(&["lower_front", "lower_rear"]), tie_pivot: "tie_inner", ..OnIt::default() }
}

impl LayoutPoints for BeamPoints {
    const KNUCKLE: bool = false;

    fn bracket(&self) -> Vec<EccentricPoint> {
        vec![EccentricPoint::LowerFront, EccentricPoint::LowerRear]
    }

    fn taped(&self, what: Measure, wheel: &WheelAtDesign) -> Option<f64> {
        match what {
            Measure::SwingArm => Some(gap(self.pivot_left, wheel.center)),
            Measure::SwingArmAngle => Some(rise(self.pivot_left, wheel.center)),
            Measure::HingeLength => Some(gap(self.pivot_left, self.pivot_right)),
            _ => None,
        }
    }

    fn all_mut(&mut self) -> Vec<&mut Point> {
        vec![&mut self.pivot_left, &mut self.pivot_right]
    }

    fn names(&self) -> Vec<(String, u8)> {
        paths(&[("pivot_left", 0), ("pivot_right", 0)])
    }

    fn read(at: &str, mut f: FileParts) -> Result<Self, Problem> {
        let mut p = f.only_points(at)?;
        let (pivot_left, pivot_right) = (p.take("pivot_left")?, p.take("pivot_right")?);
        let among = p.map.remove("shear_center").map(|s| [s[0], s[2]]);
        p.nothing_left("pivot_left, pivot_right, shear_center")?;
        Ok(Self { pivot_left, pivot_right, shear_center: f.shear_center.or(among) })
    }

    fn write(&self) -> FileParts {
        let mut out = FileParts { shear_center: self.shear_center, ..FileParts::default() };
        out.put_points(vec![
            ("pivot_left".into(), self.pivot_left),
            ("pivot_right".into(), self.pivot_right),
        ]);
        out
    }

    fn ranges(&self) -> Vec<Result<(), Problem>> {
        let Some([x, z]) = self.shear_center else { return Vec::new() };
        vec![
            in_range("shear_center.0", x, -6000.0, 6000.0, "mm"),
            in_range("shear_center.1", z, -50.0, 6000.0, "mm"),
        ]
    }

    fn faults(&self, wheel: &WheelAtDesign, say: &mut Say<'_>) {
        say.near("points.pivot_right", gap(self.pivot_left, self.pivot_right), "fault-hinges-one");
        let d = off_line(wheel.center, self.pivot_left, self.pivot_right);
        say.flat("points.pivot_left", d, "fault-hinges-through-wheel");
    }

    fn likeliest(&self, _: Loop) -> &'static str {
        "points.pivot_left"
    }

    fn swap_sides(&mut self) {
        std::mem::swap(&mut self.pivot_left, &mut self.pivot_right);
    }

    fn on_it(&self) -> OnIt {
        hinges()
    }
}

impl LayoutCorner for HingeCorner {
    fn turn_spin(&mut self, camber: f64, toe: f64) {
        self.turn_wheel(camber, toe);
    }

    fn set_loaded_radius(&mut self, mm: f64) {
        self.loaded_radius = mm;
    }

    fn edit(&mut self, e: &Edit) {
        match e {
            Edit::MovePivot { point: EccentricPoint::LowerFront, by } => self.move_hinge(0, Vec3::from(*by)),
            Edit::MovePivot { point: EccentricPoint::LowerRear, by } => self.move_hinge(1, Vec3::from(*by)),
            Edit::TurnSpin { camber_deg, toe_deg } | Edit::KnuckleTilt { camber_deg, toe_deg } => {
                self.turn_wheel(camber_deg.to_radians(), toe_deg.to_radians());
            }
            Edit::ShiftWheel { by } => self.move_wheel(Vec3::from(*by)),
            Edit::MovePivot { .. }
            | Edit::ShiftKnucklePoint { .. }
            | Edit::ReshapeArm { .. }
            | Edit::LengthenLinks { .. }
            | Edit::LengthenTie { .. }
            | Edit::LengthenLink { .. }
            | Edit::OffsetUpperJoint { .. }
            | Edit::LeanKingpin { .. }
            | Edit::MoveWheelEnd { .. }
            | Edit::FreeEccentrics { .. }
            | Edit::ReplaceEccentric { .. } => {}
        }
    }

    fn bars(&self, travel: f64, rack: f64) -> Result<(Pose, Vec<Bar>), Unreachable> {
        let pose = self.pose(travel, rack)?;
        let hub = pose.centre - pose.spin * 120.0;
        let bars = vec![
            Bar::new("hinge_inner", BarKind::SwingArm, &self.hinge[0], &hub, true),
            Bar::new("hinge_outer", BarKind::SwingArm, &self.hinge[1], &hub, true),
            Bar::new("hub", BarKind::Knuckle, &hub, &pose.centre, false),
        ];
        Ok((pose, bars))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn wheel() -> WheelAtDesign {
        WheelAtDesign {
            center: [-2600.0, 740.0, 310.0],
            camber_deg: -1.0,
            toe_deg: 0.1,
            loaded_radius_mm: 310.0,
        }
    }

    proptest! {
        /// A single arm equals exact rotation: nalgebra's quaternion, angle from the height by the arc sine.
        #[test]
        fn is_the_exact_rotation_of_a_general_library(travel in -110.0f64..110.0, sweep in -0.45f64..0.45) {
            let w = wheel();
            let (inner, outer) = ([-2180.0, 300.0, 300.0], [-2180.0 - 350.0 * sweep, 650.0, 300.0]);
            let c = HingeCorner::new(inner, outer, &w);
            let got = c.pose(travel, 0.0).unwrap();
            let axis = Unit::new_normalize(Vec3::from(outer) - Vec3::from(inner));
            let (mut low, mut high) = (-0.6f64, 0.6f64);
            let height = |a: f64| {
                let q = nalgebra::UnitQuaternion::from_axis_angle(&axis, a);
                (q * (Vec3::from(w.center) - Vec3::from(inner)) + Vec3::from(inner)).z
            };
            let up = height(0.1) > height(0.0);
            for _ in 0..200 {
                let mid = f64::midpoint(low, high);
                if (height(mid) < w.center[2] + travel) == up { low = mid } else { high = mid }
            }
            let q = nalgebra::UnitQuaternion::from_axis_angle(&axis, low);
            let spin = q * spin_axis((-1f64).to_radians(), 0.1f64.to_radians());
            prop_assert!((got.spin - spin).norm() < 1e-9, "{:?} {:?}", got.spin, spin);
        }
    }

    #[test]
    fn a_pure_trailing_arm_keeps_camber_and_toe_of_an_upright_wheel() {
        let w = WheelAtDesign { camber_deg: 0.0, toe_deg: 0.0, ..wheel() };
        let c = HingeCorner::new([-2180.0, 300.0, 300.0], [-2180.0, 650.0, 300.0], &w);
        for t in [-90.0, 40.0, 100.0] {
            let s = c.wheel(t, 0.0).unwrap();
            assert!(s.camber_deg.abs() < 1e-12 && s.toe_deg.abs() < 1e-12);
        }
    }

    #[test]
    fn the_end_of_the_arc_is_said() {
        let c = HingeCorner::new([-2180.0, 300.0, 300.0], [-2180.0, 650.0, 300.0], &wheel());
        let e = c.pose(500.0, 0.0).unwrap_err();
        assert!(
            e.blocked == Loop::DeadPoint && e.limit_travel_mm > 300.0 && e.limit_travel_mm < 421.0,
            "{e}"
        );
    }

    #[test]
    fn both_ends_moved_alike_carry_the_wheel_by_just_as_much() {
        let mut c = HingeCorner::new([-2180.0, 300.0, 300.0], [-2350.0, 650.0, 290.0], &wheel());
        let before = c.pose(0.0, 0.0).unwrap();
        let drop = Vec3::new(-12.0, 4.0, -40.0);
        c.move_hinge(0, drop);
        c.move_hinge(1, drop);
        // The wheel stays on the ground while its pivots come down: as drawn it stands that much lower under the body.
        let after = c.pose(drop.z, 0.0).unwrap();
        assert!((after.spin - before.spin).norm() < 1e-12);
        assert!(
            (after.centre - before.centre - drop).norm() < 1e-9,
            "{:?}",
            after.centre - before.centre - drop
        );
    }
}
