//! Strut in closed form.
//!
//! The strut's line is fixed in the knuckle and slides through the mount. For an angle of the lower arm
//! the ball joint is known; its distance from the line is constant, so the place of the mount along the
//! line follows from Pythagoras, and the tie-rod joint is a circle–sphere intersection as in a wishbone.

use super::arm::{links_of, reshaped, seat};
use super::arm_driven::{self, ArmDriven, At};
use super::tape::{Measure, middle, rise};
use super::{LayoutCorner, LayoutPoints, OnIt, paths, words};
use crate::Vec3;
use crate::edit::{Arm, EccentricPoint, Edit, JointPoint};
use crate::geometry::basics::{Point, WheelAtDesign};
use crate::geometry::parts::FileParts;
use crate::geometry::say::{Say, gap, lower_arm, off_line, tie_rod};
use crate::linkage::{Bar, BarKind};
use crate::linkage::{Linkage, Loop, Unreachable};
use crate::wheel::{Axis, Pose, spin_axis};
use bold_stance_units::numbers::Secant;
use bold_stance_units::problem::Problem;
use std::convert::Infallible;

/// A strut: the line from `strut_top` to `strut_bottom` is fixed in the knuckle and slides through the
/// fixed `strut_top`.
#[derive(Debug, Clone, PartialEq)]
pub struct StrutPoints {
    /// Lower arm, front pivot.
    pub lower_front: Point,
    /// Lower arm, rear pivot.
    pub lower_rear: Point,
    /// Lower ball joint.
    pub lower_outer: Point,
    /// Upper mount, on the body.
    pub strut_top: Point,
    /// A second point of the strut's line, low on the strut.
    pub strut_bottom: Point,
    /// Tie rod, inner joint.
    pub tie_inner: Point,
    /// Tie rod, outer joint.
    pub tie_outer: Point,
}

/// One corner: pivots on the chassis, sizes of the parts, and the branch.
#[derive(Debug, Clone, PartialEq)]
pub struct StrutCorner {
    /// Lower arm pivots: front, rear.
    pub lower_pivots: [Vec3; 2],
    /// Upper mount.
    pub top: Vec3,
    /// Inner tie-rod joint.
    pub tie_inner: Vec3,
    lower_links: [f64; 2],
    tie_length: f64,
    /// The knuckle in the axes of the design position.
    lower: Vec3,
    line_point: Vec3,
    line: Vec3,
    tie: Vec3,
    centre: Vec3,
    spin: Vec3,
    loaded_radius: f64,
    design_centre: Vec3,
    design_lower: Vec3,
    tie_branch: f64,
    solved: Result<Ready, Loop>,
}

#[derive(Debug, Clone, PartialEq)]
struct Ready {
    hub: Vec3,
    radius: f64,
    u: Vec3,
    v: Vec3,
    /// From the ball joint square onto the strut's line, in the knuckle.
    foot: Vec3,
    slope: f64,
    bend: f64,
}

impl StrutCorner {
    /// A corner whose loops close at the given points.
    #[must_use]
    pub fn new(p: &StrutPoints, wheel: &WheelAtDesign) -> Self {
        let at = |p: [f64; 3]| Vec3::from(p);
        let lower_pivots = [at(p.lower_front), at(p.lower_rear)];
        let lower = at(p.lower_outer);
        let (top, bottom) = (at(p.strut_top), at(p.strut_bottom));
        let (tie_inner, tie) = (at(p.tie_inner), at(p.tie_outer));
        let centre = at(wheel.center);
        let mut out = Self {
            lower_links: links_of(&lower_pivots, &lower),
            tie_length: (tie - tie_inner).norm(),
            tie_branch: (top - lower).cross(&(tie_inner - lower)).dot(&(tie - lower)).signum(),
            lower_pivots,
            top,
            tie_inner,
            lower,
            line_point: bottom,
            line: (top - bottom).try_normalize(1e-9).unwrap_or_else(Vec3::z),
            tie,
            centre,
            spin: spin_axis(wheel.camber_deg.to_radians(), wheel.toe_deg.to_radians()),
            loaded_radius: wheel.loaded_radius_mm,
            design_centre: centre,
            design_lower: lower,
            solved: Err(Loop::LowerArm),
        };
        out.renew();
        out
    }

    /// Works out what poses need; call after every edit.
    pub(crate) fn renew(&mut self) {
        self.solved = self.ready().map(|mut r| {
            (r.slope, r.bend) = arm_driven::slope_and_bend(&Posed { corner: self, ready: &r }, r.radius);
            r
        });
    }

    fn ready(&self) -> Result<Ready, Loop> {
        let (axis, along, radius) = seat(&self.lower_pivots, self.lower_links).ok_or(Loop::LowerArm)?;
        let hub = self.lower_pivots[0] + axis * along;
        let d = self.design_lower - hub;
        let u = (d - axis * axis.dot(&d)).try_normalize(1e-9).ok_or(Loop::LowerArm)?;
        let v = axis.cross(&u);
        let v = if v.z < 0.0 { -v } else { v };
        let b = self.line_point - self.lower;
        let foot = b - self.line * self.line.dot(&b);
        if self.tie_length <= 1.0 {
            return Err(Loop::TieRod);
        }
        Ok(Ready { hub, radius, u, v, foot, slope: 1.0, bend: 0.0 })
    }

    fn at(&self, r: &Ready, theta: f64, rack: f64) -> Result<At, Loop> {
        let (sin, cos) = theta.sin_cos();
        let lower = r.hub + (r.u * cos + r.v * sin) * r.radius;
        let d = self.top - lower;
        let gap2 = d.norm_squared();
        let slide2 = gap2 - r.foot.norm_squared();
        if slide2.is_nan() || slide2 < 1.0 {
            return Err(Loop::Strut);
        }
        let gap = gap2.sqrt();
        // Where the mount is in the knuckle, seen from the ball joint.
        let mount = r.foot + self.line * slide2.sqrt();
        let k1 = mount / gap;
        let e1 = d / gap;
        let t = self.tie - self.lower;
        let along = k1.dot(&t);
        let off = t - k1 * along;
        let radius = off.norm();
        let inner = Vec3::new(self.tie_inner.x, self.tie_inner.y + rack, self.tie_inner.z);
        let hub = lower + e1 * along;
        let d_in = inner - hub;
        let flat = d_in - e1 * e1.dot(&d_in);
        let h = flat.norm();
        let c =
            (radius * radius + d_in.norm_squared() - self.tie_length * self.tie_length) / (2.0 * radius * h);
        let s2 = 1.0 - c * c;
        if !(radius > 1.0 && h > 1e-6 && s2 > 1e-12) {
            return Err(Loop::TieRod);
        }
        let w = flat / h;
        let e2 = w * c + e1.cross(&w) * (self.tie_branch * s2.sqrt());
        let e3 = e1.cross(&e2);
        let k2 = off / radius;
        let k3 = k1.cross(&k2);
        let map = |v: &Vec3| e1 * k1.dot(v) + e2 * k2.dot(v) + e3 * k3.dot(v);
        let reach = map(&(self.centre - self.lower));
        let tie = hub + e2 * radius;
        // Velocity per radian: the point of the strut in the mount may only slide along the line.
        let v_lower = (r.v * cos - r.u * sin) * r.radius;
        let s = map(&self.line);
        let n1 = s.cross(&if s.x.abs() < 0.9 { Vec3::x() } else { Vec3::y() }).normalize();
        let n2 = s.cross(&n1);
        let rod = tie - inner;
        let (m1, m2, m3) = (d.cross(&n1), d.cross(&n2), (tie - lower).cross(&rod));
        let (b1, b2, b3) = (-v_lower.dot(&n1), -v_lower.dot(&n2), -v_lower.dot(&rod));
        let det = m1.dot(&m2.cross(&m3));
        let omega = (m2.cross(&m3) * b1 + m3.cross(&m1) * b2 + m1.cross(&m2) * b3) / det;
        let rate = (v_lower + omega.cross(&reach)).z;
        let axis = Some(Axis { lower, upper: self.top, tie });
        let pose = Pose { centre: lower + reach, spin: map(&self.spin), up: map(&Vec3::z()), axis };
        Ok(At { pose, rate })
    }

    /// Where the lower point of the strut is in a pose of this corner (straight or steered).
    #[must_use]
    pub fn strut_bottom(&self, pose: &Pose) -> Vec3 {
        let Some(axis) = pose.axis else { return self.line_point };
        // The strut keeps its distance from ball joint, tie-rod joint and wheel centre: rebuild the frame.
        let frame = |a: &Vec3, b: &Vec3, c: &Vec3| {
            let x = (b - a).normalize();
            let y = ((c - a) - x * x.dot(&(c - a))).normalize();
            (x, y, x.cross(&y))
        };
        let (k1, k2, k3) = frame(&self.lower, &self.tie, &self.centre);
        let (e1, e2, e3) = frame(&axis.lower, &axis.tie, &pose.centre);
        let v = self.line_point - self.lower;
        axis.lower + e1 * k1.dot(&v) + e2 * k2.dot(&v) + e3 * k3.dot(&v)
    }

    /// Moves a lower pivot on the car (0 front, 1 rear), mm.
    pub(crate) fn move_lower_pivot(&mut self, which: usize, by: Vec3) {
        if let Some(p) = self.lower_pivots.get_mut(which) {
            *p += by;
        }
    }

    /// Moves the upper mount on the car, mm.
    pub(crate) fn move_top(&mut self, by: Vec3) {
        self.top += by;
    }

    /// Moves the inner tie-rod joint on the car, mm.
    pub(crate) fn move_tie_inner(&mut self, by: Vec3) {
        self.tie_inner += by;
    }

    /// Moves the lower ball joint in the knuckle, mm in design axes.
    pub(crate) fn move_knuckle_lower(&mut self, by: Vec3) {
        self.lower += by;
    }

    /// Moves the outer tie-rod joint in the knuckle, mm in design axes.
    pub(crate) fn move_knuckle_tie(&mut self, by: Vec3) {
        self.tie += by;
    }

    /// Moves the wheel centre against the joints of the knuckle, mm in design axes.
    pub(crate) fn move_wheel(&mut self, by: Vec3) {
        self.centre += by;
    }

    /// Lengthens the tie rod, mm.
    pub(crate) fn lengthen_tie(&mut self, by: f64) {
        self.tie_length += by;
    }

    /// Lengthens the links of the lower arm (front pivot, rear pivot → joint), mm.
    pub(crate) fn lengthen_lower(&mut self, by: [f64; 2]) {
        self.lower_links[0] += by[0];
        self.lower_links[1] += by[1];
    }

    /// A different lower arm: joint `longer` mm farther off the pivot axis and `forward` mm along it.
    pub(crate) fn reshape_lower(&mut self, longer: f64, forward: f64) {
        self.lower_links = reshaped(&self.lower_pivots, self.lower_links, longer, forward);
    }

    /// Turns the whole knuckle, steering arm included, in the strut's clamp (cam bolt, slotted holes): `angle` is
    /// the one between knuckle and strut about the fore-aft axis, radians, top out positive. Ball joint and mount
    /// stay where they are, the clamp goes with the knuckle and the strut's line with the clamp, so of the ordered
    /// angle the wheel gets about 1 − h/L (h the clamp's height over the ball joint, L the mount's).
    pub(crate) fn tilt_knuckle(&mut self, angle: f64) {
        let b = self.line_point - self.lower;
        let foot = b - self.line * self.line.dot(&b);
        let slide2 = (self.top - self.design_lower).norm_squared() - foot.norm_squared();
        if slide2.is_nan() || slide2 < 1.0 {
            return;
        }
        // Where the mount is in the knuckle, from the ball joint; the knuckle turned by δ sees it turned back.
        let mount = foot + self.line * slide2.sqrt();
        let turned = |delta: f64| {
            // Top out is a turn from up to outboard: negative about the forward axis.
            let (s, c) = delta.sin_cos();
            Vec3::new(mount.x, mount.y * c - mount.z * s, mount.z * c + mount.y * s) - b
        };
        let lean = |d: &Vec3| d.y.atan2(d.z);
        let before = lean(&turned(0.0));
        let miss = |delta: f64| before - lean(&turned(delta)) - angle;
        let search = Secant::to(1e-14, 1e-16, 30);
        let Ok(delta) = search.root([0.0, 0.7 * angle], |d| Ok::<_, Infallible>(miss(d)));
        if let Some(line) = turned(delta.at).try_normalize(1e-9) {
            self.line = line;
        }
    }

    /// Turns the spin axis in the knuckle, radians: a shim between hub and knuckle, or what readings ask for.
    pub(crate) fn turn_wheel(&mut self, camber: f64, toe: f64) {
        self.spin = spin_axis(crate::wheel::camber(&self.spin) + camber, crate::wheel::toe(&self.spin) + toe);
    }
}

struct Posed<'a> {
    corner: &'a StrutCorner,
    ready: &'a Ready,
}

impl ArmDriven for Posed<'_> {
    fn at(&self, theta: f64, rack: f64) -> Result<At, Loop> {
        self.corner.at(self.ready, theta, rack)
    }
    fn slope_and_bend(&self) -> (f64, f64) {
        (self.ready.slope, self.ready.bend)
    }
    fn design_z(&self) -> f64 {
        self.corner.design_centre.z
    }
}

impl Linkage for StrutCorner {
    fn pose(&self, travel: f64, rack: f64) -> Result<Pose, Unreachable> {
        match &self.solved {
            Ok(ready) => arm_driven::solve(&Posed { corner: self, ready }, travel, rack),
            Err(l) => Err(Unreachable::at(*l, 0.0)),
        }
    }
    fn loaded_radius(&self) -> f64 {
        self.loaded_radius
    }
    fn design_x(&self) -> f64 {
        self.design_centre.x
    }
}

const NAMES: [(&str, u8); 7] = [
    ("lower_front", 0),
    ("lower_rear", 0),
    ("lower_outer", 0),
    ("strut_top", 1),
    ("strut_bottom", 1),
    ("tie_inner", 2),
    ("tie_outer", 2),
];

impl LayoutPoints for StrutPoints {
    const KNUCKLE: bool = true;

    fn bracket(&self) -> Vec<EccentricPoint> {
        use EccentricPoint::{LowerFront, LowerRear, StrutTop, TieInner};
        // The strut gets a spacer of the same height.
        vec![LowerFront, LowerRear, StrutTop, TieInner]
    }

    fn taped(&self, what: Measure, _: &WheelAtDesign) -> Option<f64> {
        match what {
            Measure::LowerArm => Some(off_line(self.lower_outer, self.lower_front, self.lower_rear)),
            Measure::LowerArmAngle => Some(rise(middle(self.lower_front, self.lower_rear), self.lower_outer)),
            Measure::StrutHeight => Some(gap(self.lower_outer, self.strut_top)),
            Measure::TieRod => Some(gap(self.tie_inner, self.tie_outer)),
            _ => None,
        }
    }

    fn tie_rod(&mut self) -> Option<[&mut Point; 2]> {
        Some([&mut self.tie_inner, &mut self.tie_outer])
    }

    fn axis_height(&self) -> f64 {
        self.strut_top[2] - self.lower_outer[2]
    }

    fn lean_axis(&mut self, shift: f64, _: f64) {
        self.strut_top[0] += shift;
    }

    fn all_mut(&mut self) -> Vec<&mut Point> {
        vec![
            &mut self.lower_front,
            &mut self.lower_rear,
            &mut self.lower_outer,
            &mut self.strut_top,
            &mut self.strut_bottom,
            &mut self.tie_inner,
            &mut self.tie_outer,
        ]
    }

    fn names(&self) -> Vec<(String, u8)> {
        paths(&NAMES)
    }

    fn read(at: &str, mut f: FileParts) -> Result<Self, Problem> {
        let mut p = f.only_points(at)?;
        let out = Self {
            lower_front: p.take("lower_front")?,
            lower_rear: p.take("lower_rear")?,
            lower_outer: p.take("lower_outer")?,
            strut_top: p.take("strut_top")?,
            strut_bottom: p.take("strut_bottom")?,
            tie_inner: p.take("tie_inner")?,
            tie_outer: p.take("tie_outer")?,
        };
        p.nothing_left(&NAMES.map(|n| n.0).join(", "))?;
        Ok(out)
    }

    fn write(&self) -> FileParts {
        let mut out = FileParts::default();
        let points: Vec<Point> = self.clone().all_mut().into_iter().map(|p| *p).collect();
        out.put_points(NAMES.iter().map(|n| n.0.to_owned()).zip(points).collect());
        out
    }

    fn faults(&self, _: &WheelAtDesign, say: &mut Say<'_>) {
        lower_arm(self.lower_front, self.lower_rear, self.lower_outer, say);
        say.near("points.strut_bottom", gap(self.strut_top, self.strut_bottom), "fault-strut-no-length");
        tie_rod(self.tie_inner, self.tie_outer, [self.lower_outer, self.strut_top], say);
        say.above(
            "points.strut_top",
            self.strut_top,
            self.lower_outer,
            "fault-strut-below",
            "fault-above-lower",
        );
    }

    fn likeliest(&self, blocked: Loop) -> &'static str {
        if blocked == Loop::TieRod { "points.tie_outer" } else { "points.lower_outer" }
    }

    fn on_it(&self) -> OnIt {
        OnIt {
            pivots: words(&["lower_front", "lower_rear", "strut_top", "tie_inner"]),
            tie_pivot: "tie_inner",
            threads: words(&["tie", "lower", "lower_front", "lower_rear"]),
            joints: vec![JointPoint::Lower, JointPoint::Tie],
            arms: vec![Arm::Lower],
            clamp: true,
            ..OnIt::default()
        }
    }
}

impl LayoutCorner for StrutCorner {
    fn strut_foot(&self, pose: &Pose) -> Option<Vec3> {
        Some(self.strut_bottom(pose))
    }

    fn turn_spin(&mut self, camber: f64, toe: f64) {
        self.turn_wheel(camber, toe);
    }

    fn set_loaded_radius(&mut self, mm: f64) {
        self.loaded_radius = mm;
    }

    fn refresh(&mut self) {
        self.renew();
    }

    fn edit(&mut self, e: &Edit) {
        match e {
            Edit::MovePivot { point, by } => {
                let by = Vec3::from(*by);
                match point {
                    EccentricPoint::LowerFront => self.move_lower_pivot(0, by),
                    EccentricPoint::LowerRear => self.move_lower_pivot(1, by),
                    EccentricPoint::TieInner => self.move_tie_inner(by),
                    EccentricPoint::StrutTop => self.move_top(by),
                    EccentricPoint::UpperFront | EccentricPoint::UpperRear | EccentricPoint::Link(_) => {}
                }
            }
            Edit::ShiftKnucklePoint { point: JointPoint::Lower, by } => {
                self.move_knuckle_lower(Vec3::from(*by));
            }
            Edit::ShiftKnucklePoint { point: JointPoint::Tie, by } => self.move_knuckle_tie(Vec3::from(*by)),
            Edit::ReshapeArm { arm: Arm::Lower, longer_mm, forward_mm } => {
                self.reshape_lower(*longer_mm, *forward_mm);
            }
            Edit::LengthenLinks { arm: Arm::Lower, front_mm, rear_mm } => {
                self.lengthen_lower([*front_mm, *rear_mm]);
            }
            Edit::LengthenTie { by_mm } => self.lengthen_tie(*by_mm),
            Edit::TurnSpin { camber_deg, toe_deg } => {
                self.turn_wheel(camber_deg.to_radians(), toe_deg.to_radians());
            }
            Edit::KnuckleTilt { camber_deg, toe_deg } => {
                self.tilt_knuckle(camber_deg.to_radians());
                self.turn_wheel(0.0, toe_deg.to_radians());
            }
            Edit::ShiftWheel { by } => self.move_wheel(Vec3::from(*by)),
            Edit::ShiftKnucklePoint { point: JointPoint::Upper, .. }
            | Edit::ReshapeArm { arm: Arm::Upper, .. }
            | Edit::LengthenLinks { arm: Arm::Upper, .. }
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
        let mut bars = Vec::with_capacity(5);
        if let Some(a) = pose.axis {
            let inner = self.tie_inner + Vec3::new(0.0, rack, 0.0);
            let bottom = self.strut_bottom(&pose);
            bars.push(Bar::new("lower_front", BarKind::LowerArm, &self.lower_pivots[0], &a.lower, true));
            bars.push(Bar::new("lower_rear", BarKind::LowerArm, &self.lower_pivots[1], &a.lower, true));
            bars.push(Bar::new("strut", BarKind::Strut, &self.top, &bottom, true));
            bars.push(Bar::new("tie", BarKind::TieRod, &inner, &a.tie, true));
            bars.push(Bar::new("knuckle", BarKind::Knuckle, &bottom, &a.lower, false));
        }
        Ok((pose, bars))
    }
}

impl StrutCorner {
    /// The points where a pose puts them.
    pub(crate) fn write_points(&self, pose: &Pose, p: &mut StrutPoints) {
        let Some(a) = pose.axis else { return };
        [p.lower_front, p.lower_rear] = self.lower_pivots.map(Into::into);
        p.lower_outer = a.lower.into();
        p.strut_top = self.top.into();
        p.strut_bottom = self.strut_bottom(pose).into();
        p.tie_inner = self.tie_inner.into();
        p.tie_outer = a.tie.into();
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn sample() -> (StrutPoints, WheelAtDesign) {
        let p = StrutPoints {
            lower_front: [12.0, 350.0, 205.0],
            lower_rear: [-280.0, 345.0, 208.0],
            lower_outer: [4.0, 695.0, 188.0],
            strut_top: [-34.0, 560.0, 815.0],
            strut_bottom: [-8.0, 622.0, 380.0],
            tie_inner: [-138.0, 330.0, 262.0],
            tie_outer: [-126.0, 672.0, 252.0],
        };
        let w = WheelAtDesign {
            center: [0.0, 735.0, 305.0],
            camber_deg: -0.3,
            toe_deg: 0.05,
            loaded_radius_mm: 305.0,
        };
        (p, w)
    }

    #[test]
    fn zero_travel_returns_design() {
        let (p, w) = sample();
        let c = StrutCorner::new(&p, &w);
        let pose = c.pose(0.0, 0.0).unwrap();
        assert!((pose.centre - Vec3::from(w.center)).norm() < 1e-9);
        assert!((pose.axis.unwrap().tie - Vec3::from(p.tie_outer)).norm() < 1e-9);
        assert!((c.strut_bottom(&pose) - Vec3::from(p.strut_bottom)).norm() < 1e-9);
    }

    proptest! {
        /// The three things a strut keeps: arm lengths, tie-rod length, and the mount on the strut's line.
        #[test]
        fn every_part_keeps_its_size_and_the_mount_its_line(t in -95.0f64..95.0, rack in -45.0f64..45.0) {
            let (p, w) = sample();
            let c = StrutCorner::new(&p, &w);
            let pose = c.pose(t, rack).unwrap();
            let axis = pose.axis.unwrap();
            for i in 0..2 {
                prop_assert!(((axis.lower - c.lower_pivots[i]).norm() - c.lower_links[i]).abs() < 1e-8);
            }
            prop_assert!(((axis.tie - c.tie_inner - Vec3::new(0.0, rack, 0.0)).norm() - c.tie_length).abs() < 1e-8);
            let r = c.solved.as_ref().unwrap();
            prop_assert!((pose.centre.z - w.center[2] - t).abs() < 1e-8);
            // Distance of the ball joint from the line through mount and strut bottom is the design's.
            let bottom = c.strut_bottom(&pose);
            let line = (c.top - bottom).normalize();
            let d = axis.lower - bottom;
            prop_assert!(((d - line * line.dot(&d)).norm() - r.foot.norm()).abs() < 1e-8);
            // The knuckle is rigid: wheel centre, joints and strut keep their distances.
            let far = |a: Vec3, b: Vec3, c: Vec3, d: Vec3| ((a - b).norm() - (c - d).norm()).abs();
            prop_assert!(far(pose.centre, axis.tie, c.centre, c.tie) < 1e-8);
            prop_assert!(far(pose.centre, axis.lower, c.centre, c.lower) < 1e-8);
            prop_assert!(far(axis.tie, bottom, c.tie, c.line_point) < 1e-8);
        }
    }

    #[test]
    fn an_arm_that_cannot_reach_is_a_reason() {
        let (p, w) = sample();
        let c = StrutCorner::new(&p, &w);
        let e = c.pose(-800.0, 0.0).unwrap_err();
        assert!(e.limit_travel_mm < -120.0 && c.pose(e.limit_travel_mm + 0.01, 0.0).is_ok(), "{e}");
        assert!(c.pose(900.0, 0.0).is_err());
    }
}
