//! Double wishbone in closed form.
//!
//! One unknown, the lower arm's angle; for each value the upper ball joint is a circle–sphere
//! intersection and the tie-rod joint another (textbook constructions), so only the wheel height
//! needs a Newton step, with the exact velocity from rigid-body kinematics as its slope. The branch
//! is fixed at design by the sign of each intersection and is never left without passing a dead point.
//!
//! Each arm is kept as the two distances pivot → ball joint, so a pivot moved on the car (an
//! eccentric) leaves every part its size and the wheel moves.

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
use bold_stance_units::problem::Problem;

/// The eight points of a double wishbone.
#[derive(Debug, Clone, PartialEq)]
pub struct WishbonePoints {
    /// Lower arm, front pivot.
    pub lower_front: Point,
    /// Lower arm, rear pivot.
    pub lower_rear: Point,
    /// Lower ball joint.
    pub lower_outer: Point,
    /// Upper arm, front pivot.
    pub upper_front: Point,
    /// Upper arm, rear pivot.
    pub upper_rear: Point,
    /// Upper ball joint.
    pub upper_outer: Point,
    /// Tie rod, inner joint.
    pub tie_inner: Point,
    /// Tie rod, outer joint.
    pub tie_outer: Point,
}

/// The knuckle in its own frame: the vehicle axes of the design position, mm.
#[derive(Debug, Clone, Copy, PartialEq)]
struct Knuckle {
    lower: Vec3,
    upper: Vec3,
    tie: Vec3,
    centre: Vec3,
    spin: Vec3,
}

/// One corner: pivots on the chassis, sizes of the parts, and the branch.
#[derive(Debug, Clone, PartialEq)]
pub struct WishboneCorner {
    /// Lower arm pivots: front, rear.
    pub lower_pivots: [Vec3; 2],
    /// Upper arm pivots: front, rear.
    pub upper_pivots: [Vec3; 2],
    /// Inner tie-rod joint.
    pub tie_inner: Vec3,
    lower_links: [f64; 2],
    upper_links: [f64; 2],
    tie_length: f64,
    knuckle: Knuckle,
    loaded_radius: f64,
    design_centre: Vec3,
    design_lower: Vec3,
    upper_branch: f64,
    tie_branch: f64,
    solved: Solved,
}

/// What a pose needs again and again, worked out once per set of parts.
type Solved = Result<Ready, Loop>;

#[derive(Debug, Clone, PartialEq)]
struct Ready {
    lower: Circle,
    upper: Circle,
    knuckle_gap: f64,
    tie_along: f64,
    tie_radius: f64,
    centre: Vec3,
    spin: Vec3,
    up: Vec3,
    slope: f64,
    bend: f64,
}

/// Path of a ball joint: centre, unit axis, radius, and two unit directions in its plane.
#[derive(Debug, Clone, PartialEq)]
struct Circle {
    centre: Vec3,
    axis: Vec3,
    radius: f64,
    u: Vec3,
    v: Vec3,
}

/// Frame of the knuckle: along the steering axis, toward the tie-rod joint, and across.
#[derive(Clone, Copy)]
struct Frame {
    e1: Vec3,
    e2: Vec3,
    e3: Vec3,
}

impl Frame {
    fn local(&self, d: &Vec3) -> Vec3 {
        Vec3::new(self.e1.dot(d), self.e2.dot(d), self.e3.dot(d))
    }
    fn global(&self, c: &Vec3) -> Vec3 {
        self.e1 * c.x + self.e2 * c.y + self.e3 * c.z
    }
}

impl WishboneCorner {
    /// A corner whose loops close at the given points.
    #[must_use]
    pub fn new(points: &WishbonePoints, wheel: &WheelAtDesign) -> Self {
        let at = |p: [f64; 3]| Vec3::from(p);
        let lower_pivots = [at(points.lower_front), at(points.lower_rear)];
        let upper_pivots = [at(points.upper_front), at(points.upper_rear)];
        let knuckle = Knuckle {
            lower: at(points.lower_outer),
            upper: at(points.upper_outer),
            tie: at(points.tie_outer),
            centre: at(wheel.center),
            spin: spin_axis(wheel.camber_deg.to_radians(), wheel.toe_deg.to_radians()),
        };
        let mut corner = Self {
            lower_links: links_of(&lower_pivots, &knuckle.lower),
            upper_links: links_of(&upper_pivots, &knuckle.upper),
            tie_length: (at(points.tie_inner) - knuckle.tie).norm(),
            tie_inner: at(points.tie_inner),
            lower_pivots,
            upper_pivots,
            knuckle,
            loaded_radius: wheel.loaded_radius_mm,
            design_centre: knuckle.centre,
            design_lower: knuckle.lower,
            upper_branch: 1.0,
            tie_branch: 1.0,
            solved: Err(Loop::LowerArm),
        };
        corner.fix_branch();
        corner.renew();
        corner
    }

    /// Sign of each circle–sphere intersection at design.
    fn fix_branch(&mut self) {
        let axis = (self.upper_pivots[1] - self.upper_pivots[0]).normalize();
        let foot = self.upper_pivots[0] + axis * axis.dot(&(self.knuckle.upper - self.upper_pivots[0]));
        let toward = self.knuckle.lower - foot;
        self.upper_branch = axis.cross(&toward).dot(&(self.knuckle.upper - foot)).signum();
        let e1 = self.knuckle.upper - self.knuckle.lower;
        let to_inner = self.tie_inner - self.knuckle.lower;
        self.tie_branch = e1.cross(&to_inner).dot(&(self.knuckle.tie - self.knuckle.lower)).signum();
    }

    /// Works out what poses need; call after every edit.
    pub(crate) fn renew(&mut self) {
        self.solved = self.ready().map(|mut r| {
            (r.slope, r.bend) =
                arm_driven::slope_and_bend(&Posed { corner: self, ready: &r }, r.lower.radius);
            r
        });
    }

    fn ready(&self) -> Result<Ready, Loop> {
        let (axis, along, radius) = seat(&self.lower_pivots, self.lower_links).ok_or(Loop::LowerArm)?;
        let centre = self.lower_pivots[0] + axis * along;
        let d = self.design_lower - centre;
        let u = (d - axis * axis.dot(&d)).normalize();
        let mut v = axis.cross(&u);
        if v.z < 0.0 {
            v = -v;
        }
        let lower = Circle { centre, axis, radius, u, v };
        let (axis, along, radius) = seat(&self.upper_pivots, self.upper_links).ok_or(Loop::UpperArm)?;
        let centre = self.upper_pivots[0] + axis * along;
        let upper = Circle { centre, axis, radius, u: Vec3::x(), v: Vec3::y() };
        let k = &self.knuckle;
        let span = k.upper - k.lower;
        let knuckle_gap = span.norm();
        let e1 = span / knuckle_gap;
        let t = k.tie - k.lower;
        let tie_along = e1.dot(&t);
        let off = t - e1 * tie_along;
        let tie_radius = off.norm();
        if !(knuckle_gap > 1.0 && tie_radius > 1.0 && self.tie_length > 1.0) {
            return Err(Loop::TieRod);
        }
        let e2 = off / tie_radius;
        let frame = Frame { e1, e2, e3: e1.cross(&e2) };
        Ok(Ready {
            lower,
            upper,
            knuckle_gap,
            tie_along,
            tie_radius,
            centre: frame.local(&(k.centre - k.lower)),
            spin: frame.local(&k.spin),
            up: frame.local(&Vec3::z()),
            slope: 1.0,
            bend: 0.0,
        })
    }

    /// The pose at lower-arm angle `theta`, with the rate of wheel height per radian.
    fn at(&self, r: &Ready, theta: f64, rack: f64) -> Result<At, Loop> {
        let (sin, cos) = theta.sin_cos();
        let arm = r.lower.u * cos + r.lower.v * sin;
        let lower = r.lower.centre + arm * r.lower.radius;
        // Upper joint: its circle against the sphere of the knuckle round the lower joint.
        let d = lower - r.upper.centre;
        let flat = d - r.upper.axis * r.upper.axis.dot(&d);
        let h = flat.norm();
        let c = (r.upper.radius * r.upper.radius + d.norm_squared() - r.knuckle_gap * r.knuckle_gap)
            / (2.0 * r.upper.radius * h);
        let s2 = 1.0 - c * c;
        if !(h > 1e-6 && s2 > 1e-12) {
            return Err(Loop::UpperArm);
        }
        let u = flat / h;
        let upper_arm = (u * c + r.upper.axis.cross(&u) * (self.upper_branch * s2.sqrt())) * r.upper.radius;
        let upper = r.upper.centre + upper_arm;
        // Tie-rod joint: its circle round the steering axis against the sphere of the tie rod.
        let span = upper - lower;
        let e1 = span / r.knuckle_gap;
        let inner = Vec3::new(self.tie_inner.x, self.tie_inner.y + rack, self.tie_inner.z);
        let hub = lower + e1 * r.tie_along;
        let d = inner - hub;
        let flat = d - e1 * e1.dot(&d);
        let h = flat.norm();
        let c = (r.tie_radius * r.tie_radius + d.norm_squared() - self.tie_length * self.tie_length)
            / (2.0 * r.tie_radius * h);
        let s2 = 1.0 - c * c;
        if !(h > 1e-6 && s2 > 1e-12) {
            return Err(Loop::TieRod);
        }
        let u = flat / h;
        let e2 = u * c + e1.cross(&u) * (self.tie_branch * s2.sqrt());
        let frame = Frame { e1, e2, e3: e1.cross(&e2) };
        let tie = hub + e2 * r.tie_radius;
        let reach = frame.global(&r.centre);
        // Velocities per radian: arm, upper joint, knuckle spin about its axis held by the tie rod.
        let v_lower = (r.lower.v * cos - r.lower.u * sin) * r.lower.radius;
        let swing = r.upper.axis.cross(&upper_arm);
        let v_upper = swing * (span.dot(&v_lower) / span.dot(&swing));
        let turn = span.cross(&(v_upper - v_lower)) / (r.knuckle_gap * r.knuckle_gap);
        let rod = tie - inner;
        let arm_t = tie - lower;
        let about = -rod.dot(&(v_lower + turn.cross(&arm_t))) / rod.dot(&e1.cross(&arm_t));
        let omega = turn + e1 * about;
        let rate = (v_lower + omega.cross(&reach)).z;
        let axis = Some(Axis { lower, upper, tie });
        let (spin, up) = (frame.global(&r.spin), frame.global(&r.up));
        Ok(At { pose: Pose { centre: lower + reach, spin, up, axis }, rate })
    }

    /// Moves a lower pivot on the car (0 front, 1 rear), mm.
    pub(crate) fn move_lower_pivot(&mut self, which: usize, by: Vec3) {
        if let Some(p) = self.lower_pivots.get_mut(which) {
            *p += by;
        }
    }

    /// Moves an upper pivot on the car (0 front, 1 rear), mm.
    pub(crate) fn move_upper_pivot(&mut self, which: usize, by: Vec3) {
        if let Some(p) = self.upper_pivots.get_mut(which) {
            *p += by;
        }
    }

    /// Moves the inner tie-rod joint on the car, mm.
    pub(crate) fn move_tie_inner(&mut self, by: Vec3) {
        self.tie_inner += by;
    }

    /// Moves the lower ball joint in the knuckle, mm in design axes.
    pub(crate) fn move_knuckle_lower(&mut self, by: Vec3) {
        self.knuckle.lower += by;
    }

    /// Moves the upper ball joint in the knuckle (ball-joint spacer), mm in design axes.
    pub(crate) fn move_knuckle_upper(&mut self, by: Vec3) {
        self.knuckle.upper += by;
    }

    /// Moves the outer tie-rod joint in the knuckle (tie-rod-end spacer), mm in design axes.
    pub(crate) fn move_knuckle_tie(&mut self, by: Vec3) {
        self.knuckle.tie += by;
    }

    /// Moves the wheel centre against the joints of the knuckle (drop or lift knuckle, wheel offset), mm.
    pub(crate) fn move_wheel(&mut self, by: Vec3) {
        self.knuckle.centre += by;
    }

    /// Lengthens the tie rod, mm.
    pub(crate) fn lengthen_tie(&mut self, by: f64) {
        self.tie_length += by;
    }

    /// Lengthens one link of an arm (front pivot, rear pivot → joint), mm.
    pub(crate) fn lengthen_links(&mut self, arm: Arm, by: [f64; 2]) {
        let links = match arm {
            Arm::Upper => &mut self.upper_links,
            Arm::Lower => &mut self.lower_links,
        };
        links[0] += by[0];
        links[1] += by[1];
    }

    /// A different arm: joint `longer` mm farther off the pivot axis and `forward` mm along it.
    /// Arm length grows along the perpendicular from the pivot axis to the joint.
    pub(crate) fn reshape_arm(&mut self, arm: Arm, longer: f64, forward: f64) {
        let (pivots, links) = match arm {
            Arm::Upper => (&self.upper_pivots, &mut self.upper_links),
            Arm::Lower => (&self.lower_pivots, &mut self.lower_links),
        };
        *links = reshaped(pivots, *links, longer, forward);
    }

    /// Turns the spin axis in the knuckle, radians.
    pub(crate) fn turn_wheel(&mut self, camber: f64, toe: f64) {
        let spin = self.knuckle.spin;
        self.knuckle.spin = spin_axis(crate::wheel::camber(&spin) + camber, crate::wheel::toe(&spin) + toe);
    }

    /// Length of the tie rod, mm.
    #[must_use]
    pub fn tie_length(&self) -> f64 {
        self.tie_length
    }
}

struct Posed<'a> {
    corner: &'a WishboneCorner,
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

impl Linkage for WishboneCorner {
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

const NAMES: [(&str, u8); 8] = [
    ("lower_front", 0),
    ("lower_rear", 0),
    ("lower_outer", 0),
    ("upper_front", 1),
    ("upper_rear", 1),
    ("upper_outer", 1),
    ("tie_inner", 2),
    ("tie_outer", 2),
];

impl LayoutPoints for WishbonePoints {
    const KNUCKLE: bool = true;

    fn bracket(&self) -> Vec<EccentricPoint> {
        use EccentricPoint::{LowerFront, LowerRear, TieInner, UpperFront, UpperRear};
        vec![LowerFront, LowerRear, UpperFront, UpperRear, TieInner]
    }

    fn taped(&self, what: Measure, _: &WheelAtDesign) -> Option<f64> {
        match what {
            Measure::LowerArm => Some(off_line(self.lower_outer, self.lower_front, self.lower_rear)),
            Measure::LowerArmAngle => Some(rise(middle(self.lower_front, self.lower_rear), self.lower_outer)),
            Measure::UpperArm => Some(off_line(self.upper_outer, self.upper_front, self.upper_rear)),
            Measure::UpperArmAngle => Some(rise(middle(self.upper_front, self.upper_rear), self.upper_outer)),
            Measure::JointSpacing => Some(gap(self.lower_outer, self.upper_outer)),
            Measure::TieRod => Some(gap(self.tie_inner, self.tie_outer)),
            _ => None,
        }
    }

    fn tie_rod(&mut self) -> Option<[&mut Point; 2]> {
        Some([&mut self.tie_inner, &mut self.tie_outer])
    }

    fn axis_height(&self) -> f64 {
        self.upper_outer[2] - self.lower_outer[2]
    }

    fn lean_axis(&mut self, shift: f64, _: f64) {
        self.upper_outer[0] += shift;
    }

    fn all_mut(&mut self) -> Vec<&mut Point> {
        vec![
            &mut self.lower_front,
            &mut self.lower_rear,
            &mut self.lower_outer,
            &mut self.upper_front,
            &mut self.upper_rear,
            &mut self.upper_outer,
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
            upper_front: p.take("upper_front")?,
            upper_rear: p.take("upper_rear")?,
            upper_outer: p.take("upper_outer")?,
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
        say.near("points.upper_rear", gap(self.upper_front, self.upper_rear), "fault-upper-pivots-one");
        say.near("points.upper_outer", gap(self.upper_outer, self.lower_outer), "fault-joints-one");
        say.flat(
            "points.upper_outer",
            off_line(self.upper_outer, self.upper_front, self.upper_rear),
            "fault-upper-open",
        );
        tie_rod(self.tie_inner, self.tie_outer, [self.lower_outer, self.upper_outer], say);
        say.above(
            "points.upper_outer",
            self.upper_outer,
            self.lower_outer,
            "fault-upper-below",
            "fault-above-lower",
        );
    }

    fn likeliest(&self, blocked: Loop) -> &'static str {
        match blocked {
            Loop::UpperArm => "points.upper_outer",
            Loop::TieRod => "points.tie_outer",
            _ => "points.lower_outer",
        }
    }

    fn on_it(&self) -> OnIt {
        OnIt {
            pivots: words(&["lower_front", "lower_rear", "upper_front", "upper_rear", "tie_inner"]),
            tie_pivot: "tie_inner",
            threads: words(&[
                "tie",
                "upper",
                "upper_front",
                "upper_rear",
                "lower",
                "lower_front",
                "lower_rear",
            ]),
            joints: vec![JointPoint::Lower, JointPoint::Upper, JointPoint::Tie],
            arms: vec![Arm::Upper, Arm::Lower],
            ..OnIt::default()
        }
    }
}

impl LayoutCorner for WishboneCorner {
    fn upper_pivots(&self) -> Option<[Vec3; 2]> {
        Some(self.upper_pivots)
    }

    fn turn_spin(&mut self, camber: f64, toe: f64) {
        self.turn_wheel(camber, toe);
        self.renew();
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
                    EccentricPoint::UpperFront => self.move_upper_pivot(0, by),
                    EccentricPoint::UpperRear => self.move_upper_pivot(1, by),
                    EccentricPoint::TieInner => self.move_tie_inner(by),
                    EccentricPoint::StrutTop | EccentricPoint::Link(_) => {}
                }
            }
            Edit::ShiftKnucklePoint { point, by } => {
                let by = Vec3::from(*by);
                match point {
                    JointPoint::Lower => self.move_knuckle_lower(by),
                    JointPoint::Upper => self.move_knuckle_upper(by),
                    JointPoint::Tie => self.move_knuckle_tie(by),
                }
            }
            Edit::ReshapeArm { arm, longer_mm, forward_mm } => {
                self.reshape_arm(*arm, *longer_mm, *forward_mm);
            }
            Edit::LengthenLinks { arm, front_mm, rear_mm } => {
                self.lengthen_links(*arm, [*front_mm, *rear_mm]);
            }
            Edit::LengthenTie { by_mm } => self.lengthen_tie(*by_mm),
            Edit::TurnSpin { camber_deg, toe_deg } | Edit::KnuckleTilt { camber_deg, toe_deg } => {
                self.turn_spin(camber_deg.to_radians(), toe_deg.to_radians());
            }
            Edit::ShiftWheel { by } => self.move_wheel(Vec3::from(*by)),
            Edit::LengthenLink { .. }
            | Edit::OffsetUpperJoint { .. }
            | Edit::LeanKingpin { .. }
            | Edit::MoveWheelEnd { .. }
            | Edit::FreeEccentrics { .. }
            | Edit::ReplaceEccentric { .. } => {}
        }
    }

    fn bars(&self, travel: f64, rack: f64) -> Result<(Pose, Vec<Bar>), Unreachable> {
        let pose = self.pose(travel, rack)?;
        let mut bars = Vec::with_capacity(6);
        if let Some(a) = pose.axis {
            let inner = self.tie_inner + Vec3::new(0.0, rack, 0.0);
            bars.push(Bar::new("lower_front", BarKind::LowerArm, &self.lower_pivots[0], &a.lower, true));
            bars.push(Bar::new("lower_rear", BarKind::LowerArm, &self.lower_pivots[1], &a.lower, true));
            bars.push(Bar::new("upper_front", BarKind::UpperArm, &self.upper_pivots[0], &a.upper, true));
            bars.push(Bar::new("upper_rear", BarKind::UpperArm, &self.upper_pivots[1], &a.upper, true));
            bars.push(Bar::new("tie", BarKind::TieRod, &inner, &a.tie, true));
            bars.push(Bar::new("knuckle", BarKind::Knuckle, &a.lower, &a.upper, false));
        }
        Ok((pose, bars))
    }
}

impl WishboneCorner {
    /// The points where a pose puts them.
    pub(crate) fn write_points(&self, pose: &Pose, p: &mut WishbonePoints) {
        let Some(a) = pose.axis else { return };
        [p.lower_front, p.lower_rear] = self.lower_pivots.map(Into::into);
        [p.upper_front, p.upper_rear] = self.upper_pivots.map(Into::into);
        p.lower_outer = a.lower.into();
        p.upper_outer = a.upper.into();
        p.tie_inner = self.tie_inner.into();
        p.tie_outer = a.tie.into();
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::tests::sample;
    use proptest::prelude::*;

    fn corner() -> WishboneCorner {
        let g = sample();
        WishboneCorner::new(g.points.wishbone().unwrap(), &g.wheel)
    }

    #[test]
    fn zero_travel_returns_design() {
        let g = sample();
        let p = corner().pose(0.0, 0.0).unwrap();
        let (axis, points) = (p.axis.unwrap(), g.points.wishbone().unwrap());
        assert!((p.centre - Vec3::from(g.wheel.center)).norm() < 1e-9);
        assert!((axis.upper - Vec3::from(points.upper_outer)).norm() < 1e-9);
        assert!((axis.tie - Vec3::from(points.tie_outer)).norm() < 1e-9);
    }

    #[test]
    fn fully_extended_is_a_reason_not_a_number() {
        let c = corner();
        let down = c.pose(-400.0, 0.0).unwrap_err();
        let up = c.pose(900.0, 0.0).unwrap_err();
        assert!(down.limit_travel_mm < -100.0 && up.limit_travel_mm > 100.0);
        assert!(c.pose(down.limit_travel_mm + 0.01, 0.0).is_ok());
        assert!(c.pose(down.limit_travel_mm - 0.01, 0.0).is_err());
    }

    #[test]
    fn marching_and_newton_agree() {
        let c = corner();
        let Ok(r) = &c.solved else { panic!("sample closes") };
        for t in [-90.0, -33.0, 1.0, 57.0, 110.0] {
            let z = c.design_centre.z + t;
            let posed = Posed { corner: &c, ready: r };
            let a = arm_driven::newton(&posed, z, 0.0, t).unwrap();
            let b = arm_driven::march(&posed, z, 0.0).unwrap();
            assert!((a.centre - b.centre).norm() < 1e-7 && (a.spin - b.spin).norm() < 1e-10);
        }
    }

    #[test]
    fn equal_parallel_arms_keep_camber() {
        // Textbook: a parallelogram linkage translates the knuckle (e.g. Milliken & Milliken, RCVD ch. 17).
        let g = sample();
        let mut p = g.points.wishbone().unwrap().clone();
        p.lower_front = [150.0, 300.0, 300.0];
        p.lower_rear = [-150.0, 300.0, 300.0];
        p.lower_outer = [0.0, 690.0, 290.0];
        p.upper_front = [150.0, 300.0, 560.0];
        p.upper_rear = [-150.0, 300.0, 560.0];
        p.upper_outer = [0.0, 690.0, 550.0];
        let c = WishboneCorner::new(&p, &g.wheel);
        for t in [-80.0, -20.0, 40.0, 90.0] {
            let a = c.alignment(t, 0.0).unwrap();
            assert!((a.camber_deg - g.wheel.camber_deg).abs() < 0.02, "{t}: {}", a.camber_deg);
        }
    }

    proptest! {
        #[test]
        fn every_part_keeps_its_length(travel in -110.0f64..120.0, rack in -45.0f64..45.0) {
            let c = corner();
            let pose = c.pose(travel, rack).unwrap();
            let p = pose.axis.unwrap();
            let inner = c.tie_inner + Vec3::new(0.0, rack, 0.0);
            prop_assert!(((p.tie - inner).norm() - c.tie_length).abs() < 1e-8);
            prop_assert!(((p.upper - p.lower).norm() - (c.knuckle.upper - c.knuckle.lower).norm()).abs() < 1e-8);
            for i in 0..2 {
                prop_assert!(((p.lower - c.lower_pivots[i]).norm() - c.lower_links[i]).abs() < 1e-8);
                prop_assert!(((p.upper - c.upper_pivots[i]).norm() - c.upper_links[i]).abs() < 1e-8);
            }
            prop_assert!(((pose.centre - p.tie).norm() - (c.knuckle.centre - c.knuckle.tie).norm()).abs() < 1e-8);
            prop_assert!((pose.centre.z - c.design_centre.z - travel).abs() < 1e-8);
        }

        #[test]
        fn moving_the_whole_car_along_changes_no_angle(dx in -500.0f64..500.0, travel in -90.0f64..90.0) {
            let mut g = sample();
            let a = WishboneCorner::new(g.points.wishbone().unwrap(), &g.wheel).alignment(travel, 0.0).unwrap();
            for (_, _, p) in g.points.named_mut() {
                p[0] += dx;
            }
            g.wheel.center[0] += dx;
            let b = WishboneCorner::new(g.points.wishbone().unwrap(), &g.wheel).alignment(travel, 0.0).unwrap();
            prop_assert!((a.camber_deg - b.camber_deg).abs() < 1e-9);
            prop_assert!((a.toe_deg - b.toe_deg).abs() < 1e-9);
            prop_assert!((a.wheel_x_mm - b.wheel_x_mm).abs() < 1e-7);
        }

        #[test]
        fn neighbouring_heights_give_neighbouring_angles(travel in -100.0f64..100.0) {
            let c = corner();
            let a = c.alignment(travel, 0.0).unwrap();
            let b = c.alignment(travel + 0.1, 0.0).unwrap();
            prop_assert!((a.camber_deg - b.camber_deg).abs() < 0.02 && (a.toe_deg - b.toe_deg).abs() < 0.02);
        }

        #[test]
        fn no_points_make_it_panic_or_hang(v in proptest::collection::vec(-900.0f64..900.0, 24), t in -200.0f64..200.0) {
            let mut g = sample();
            for (i, (_, _, p)) in g.points.named_mut().into_iter().enumerate() {
                p.copy_from_slice(&v[3 * i..3 * i + 3]);
            }
            if let Ok(p) = WishboneCorner::new(g.points.wishbone().unwrap(), &g.wheel).pose(t, 0.0) {
                prop_assert!(p.centre.iter().all(|c| c.is_finite()));
            }
        }
    }
}
