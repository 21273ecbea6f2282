//! A live or dead beam axle: one rigid body on four or more links.
//!
//! Heave (of the midpoint of the wheel centres) and roll are given; fore-aft place, sideways place, pitch
//! and yaw follow from the link lengths by equal-stiffness least squares, exactly where there are four
//! links. Directions that no link holds keep their design value.

use super::linear::solve;
use super::tape::{Measure, rise};
use super::{LayoutCorner, LayoutPoints, OnIt};
use crate::Vec3;
use crate::edit::EccentricPoint;
use crate::edit::{Arm, Edit};
use crate::geometry::basics::{Point, SteeringAxis, WheelAtDesign};
use crate::geometry::parts::{FileParts, LinkFile, MOST_LINKS, TieRodFile, ends};
use crate::geometry::say::{Say, gap};
use crate::linkage::{Bar, BarKind};
use crate::linkage::{Linkage, Loop, Unreachable};
use crate::wheel::{Axis, Pose, spin_axis};
use bold_stance_units::numbers::Newton;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use nalgebra::{Rotation3, Unit};

/// One link of a solid axle.
#[derive(Debug, Clone, PartialEq)]
pub struct AxleLink {
    /// What the file calls it.
    pub name: String,
    /// Joint on the body.
    pub chassis: Point,
    /// Joint on the axle.
    pub axle: Point,
}

/// A solid axle: points of both sides in vehicle axes (right side y negative).
#[derive(Debug, Clone, PartialEq)]
pub struct AxlePoints {
    /// What locates the axle: at least four links, a track bar among them or not.
    pub links: Vec<AxleLink>,
    /// Only for a steered axle.
    pub steering_axis: Option<SteeringAxis>,
    /// Pitman arm to knuckle or tie rod.
    pub drag_link: Option<AxleLink>,
    /// Left and right ends of the tie rod.
    pub tie_rod: Option<[Point; 2]>,
}

/// Largest stretch of a link that bushings are taken to absorb, mm; beyond it the links bind.
const BIND: f64 = 15.0;
/// Rotations are scaled by this arm, mm.
const ARM: f64 = 300.0;
/// Kingpin to wheel centre along the spindle where the file does not say, mm (common practice, no source).
const KINGPIN_INSET: f64 = 100.0;
/// Ball joints above and below the spindle along the kingpin, mm (common practice, no source).
const KINGPIN_HALF: f64 = 100.0;

#[derive(Debug, Clone, PartialEq)]
struct Link {
    name: String,
    chassis: Vec3,
    /// From the axle's midpoint, in the axes of the design position.
    axle: Vec3,
    length: f64,
}

/// The axle, seen from its left wheel.
#[derive(Debug, Clone, PartialEq)]
pub struct SolidAxleCorner {
    links: Vec<Link>,
    midpoint: Vec3,
    /// Left wheel centre from the midpoint.
    half: Vec3,
    spin: Vec3,
    /// Upward direction of the left kingpin, when it steers.
    kingpin: Option<Vec3>,
    drag: Option<(Vec3, Vec3, f64)>,
    /// Joints of the tie rod from the midpoint: this wheel's, the other wheel's.
    tie: Option<[Vec3; 2]>,
    /// Length of the tie rod as the file has it, mm.
    tie_length: f64,
    tie_longer: f64,
    loaded_radius: f64,
}

/// Where the axle is.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct AxlePose {
    /// Midpoint of the wheel centres, mm.
    pub midpoint: Vec3,
    /// Rotation from design.
    pub turn: Rotation3<f64>,
    /// Rad, nose down positive.
    pub pitch: f64,
    /// Rad, left wheel rearward positive (about the upward axis).
    pub yaw: f64,
    /// Rad, left end up positive.
    pub roll: f64,
    /// Largest difference of a link from its length, mm.
    pub stretch: f64,
}

/// A point of a knuckle after its wheel turned by `turn` (rad; a left wheel's toe-in, so to the right) about a
/// kingpin through `pivot` along `up`.
fn swung(pivot: &Vec3, up: &Vec3, point: &Vec3, turn: f64) -> Vec3 {
    pivot + Rotation3::from_axis_angle(&Unit::new_unchecked(*up), -turn) * (point - pivot)
}

/// A length's miss (mm) over a turn (rad) near 0; no root where the length does not change with the turn.
const TURN: Newton =
    Newton { h: 1e-6, close: 1e-11, flat: 1e-3, longest: 0.2, far: f64::INFINITY, rounds: 40 };
/// The tie rod's sideways miss (mm) over the turn of a kingpin (rad), as far as one turns.
const RACK: Newton =
    Newton { h: 1e-6, close: 1e-12, flat: 1.0, longest: f64::INFINITY, far: 1.2, rounds: 40 };

fn turn_of(yaw: f64, pitch: f64, roll: f64) -> Rotation3<f64> {
    Rotation3::from_axis_angle(&Vec3::z_axis(), yaw)
        * Rotation3::from_axis_angle(&Vec3::y_axis(), pitch)
        * Rotation3::from_axis_angle(&Vec3::x_axis(), roll)
}

impl SolidAxleCorner {
    /// An axle whose links have the lengths between their points.
    #[must_use]
    pub fn new(p: &AxlePoints, wheel: &WheelAtDesign) -> Self {
        let centre = Vec3::from(wheel.center);
        let midpoint = Vec3::new(centre.x, 0.0, centre.z);
        let rel = |q: [f64; 3]| Vec3::from(q) - midpoint;
        let links = p
            .links
            .iter()
            .map(|l| {
                let chassis = Vec3::from(l.chassis);
                let length = (Vec3::from(l.axle) - chassis).norm();
                Link { name: l.name.clone(), chassis, axle: rel(l.axle), length }
            })
            .collect();
        Self {
            links,
            midpoint,
            half: centre - midpoint,
            spin: spin_axis(wheel.camber_deg.to_radians(), wheel.toe_deg.to_radians()),
            kingpin: p.steering_axis.map(|s| {
                Vec3::new(-s.caster_deg.to_radians().tan(), -s.sai_deg.to_radians().tan(), 1.0).normalize()
            }),
            drag: p.drag_link.as_ref().map(|d| {
                let (chassis, axle) = (Vec3::from(d.chassis), Vec3::from(d.axle));
                (chassis, axle - midpoint, (axle - chassis).norm())
            }),
            tie: p.tie_rod.map(|[l, r]| [rel(l), rel(r)]),
            tie_length: p.tie_rod.map_or(0.0, |[l, r]| (Vec3::from(l) - Vec3::from(r)).norm()),
            tie_longer: 0.0,
            loaded_radius: wheel.loaded_radius_mm,
        }
    }

    /// Where the axle is at a heave (mm, bump positive) and a roll against the body (rad, left end up).
    ///
    /// # Errors
    /// [`Unreachable`] with the link that binds.
    pub fn axle_pose(&self, heave: f64, roll: f64) -> Result<AxlePose, Unreachable> {
        if !(heave.is_finite() && roll.is_finite()) {
            return Err(Unreachable::at(Loop::Link, 0.0));
        }
        let start = [0.0; 4];
        if let Ok((v, stretch)) = self.settle(start, heave, roll)
            && heave.abs() < 160.0
        {
            return Ok(self.pose_of(v, heave, roll, stretch));
        }
        // Follow it in steps, so that the branch is design's and the end is found.
        let mut v = start;
        let mut at = 0.0;
        let mut step = 10.0f64.copysign(heave);
        loop {
            let next: f64 = if (heave - at).abs() <= step.abs() { heave } else { at + step };
            let part = if heave == 0.0 { 1.0 } else { next / heave };
            match self.settle(v, next, roll * part) {
                Ok((w, stretch)) => {
                    (v, at) = (w, next);
                    if at == heave {
                        return Ok(self.pose_of(v, heave, roll, stretch));
                    }
                }
                Err(link) => {
                    step *= 0.5;
                    if step.abs() < 1e-3 {
                        return Err(Unreachable { blocked: Loop::Link, limit_travel_mm: at, link });
                    }
                }
            }
        }
    }

    fn pose_of(&self, v: [f64; 4], heave: f64, roll: f64, stretch: f64) -> AxlePose {
        let (pitch, yaw) = (v[2] / ARM, v[3] / ARM);
        AxlePose {
            midpoint: self.midpoint + Vec3::new(v[0], v[1], heave),
            turn: turn_of(yaw, pitch, roll),
            pitch,
            yaw,
            roll,
            stretch,
        }
    }

    /// Gauss–Newton on (x, y, pitch · ARM, yaw · ARM). The error is the link that is farthest off.
    fn settle(&self, from: [f64; 4], heave: f64, roll: f64) -> Result<([f64; 4], f64), Option<String>> {
        let mut v = from;
        let mut worst = (f64::MAX, 0);
        let mut before = f64::MAX;
        for round in 0..40 {
            let (pitch, yaw) = (v[2] / ARM, v[3] / ARM);
            let (rz, ry) = (
                Rotation3::from_axis_angle(&Vec3::z_axis(), yaw),
                Rotation3::from_axis_angle(&Vec3::y_axis(), pitch),
            );
            let turn = rz * ry * Rotation3::from_axis_angle(&Vec3::x_axis(), roll);
            let mid = self.midpoint + Vec3::new(v[0], v[1], heave);
            // Axis the pitch turns about, after yaw.
            let across = rz * Vec3::y();
            let mut normal = [[0.0; 4]; 4];
            let mut rhs = [0.0; 4];
            worst = (0.0, 0);
            for (i, l) in self.links.iter().enumerate() {
                let arm = turn * l.axle;
                let q = mid + arm - l.chassis;
                let length = q.norm();
                if length < 1e-6 {
                    return Err(Some(l.name.clone()));
                }
                let d = q / length;
                let miss = length - l.length;
                if miss.abs() > worst.0 {
                    worst = (miss.abs(), i);
                }
                let row = [d.x, d.y, d.dot(&across.cross(&arm)) / ARM, d.dot(&Vec3::z().cross(&arm)) / ARM];
                for a in 0..4 {
                    rhs[a] -= row[a] * miss;
                    for b in 0..4 {
                        normal[a][b] += row[a] * row[b];
                    }
                }
            }
            // Holds directions no link holds; far below what a link does.
            for (k, row) in normal.iter_mut().enumerate() {
                row[k] += 1e-10;
            }
            let Some(step) = solve(normal, rhs) else { break };
            let size = step.iter().fold(0.0f64, |m, s| m.max(s.abs()));
            // Steps that do not shrink go nowhere: the links bind.
            if !size.is_finite() || size > 400.0 || (round > 6 && size > 0.7 * before) {
                break;
            }
            before = size;
            for (x, s) in v.iter_mut().zip(step) {
                *x += s;
            }
            if size < 1e-10 {
                let stretched = worst.0 > BIND;
                return if stretched { Err(self.name(worst.1)) } else { Ok((v, worst.0)) };
            }
        }
        Err(self.name(worst.1))
    }

    fn name(&self, i: usize) -> Option<String> {
        self.links.get(i).map(|l| l.name.clone())
    }

    /// The left wheel on an axle pose, straight ahead.
    #[must_use]
    pub fn left_wheel(&self, a: &AxlePose) -> Pose {
        let centre = a.midpoint + a.turn * self.half;
        let axis = self.kingpin.map(|k| {
            let hub = self.half - self.spin * KINGPIN_INSET;
            let at = |s: f64| a.midpoint + a.turn * (hub + k * s);
            let tie = self.tie.map_or_else(|| at(-KINGPIN_HALF), |t| a.midpoint + a.turn * t[0]);
            Axis { lower: at(-KINGPIN_HALF), upper: at(KINGPIN_HALF), tie }
        });
        let pose = Pose { centre, spin: a.turn * self.spin, up: a.turn * Vec3::z(), axis };
        match self.turn_of_tie(&pose, a) {
            Some(turn) if turn != 0.0 => pose.steered(turn),
            _ => pose,
        }
    }

    /// Turn of this wheel (rad, toe-in positive) at which the tie rod keeps its length: a joint sleeve carries the
    /// steering arm with the knuckle, a longer rod gives each wheel half. `None` without a tie rod.
    fn turn_of_tie(&self, pose: &Pose, a: &AxlePose) -> Option<f64> {
        let (Some(axis), Some([near, far])) = (pose.axis, self.tie) else { return None };
        let want = self.tie_length + 0.5 * self.tie_longer;
        if ((near - far).norm() - want).abs() < 1e-12 {
            return Some(0.0);
        }
        let far = a.midpoint + a.turn * far;
        TURN.root(0.0, |turn| (swung(&axis.lower, &axis.direction(), &axis.tie, turn) - far).norm() - want)
    }

    /// Turn of the left wheel (rad, toe-in positive) that keeps the drag link's length at an axle pose: the
    /// pitman arm held, what the axle's own movement does to the steering. The link swings the knuckle its
    /// joint sits on about that knuckle's kingpin; the tie rod carries the turn to the other. `None` without
    /// a drag link, or where it comes across its own knuckle.
    #[must_use]
    pub fn drag_link_turn(&self, a: &AxlePose) -> Option<f64> {
        let (chassis, joint, length) = self.drag?;
        let pose = self.left_wheel(a);
        let axis = pose.axis?;
        let at = a.midpoint + a.turn * joint;
        let on_left = joint.y >= 0.0;
        // The other knuckle is this one's mirror image in the axle.
        let mirrored = |p: &Vec3| {
            let q = a.turn.inverse() * (p - a.midpoint);
            a.midpoint + a.turn * Vec3::new(q.x, -q.y, q.z)
        };
        let other =
            Axis { lower: mirrored(&axis.lower), upper: mirrored(&axis.upper), tie: mirrored(&axis.tie) };
        let own = if on_left { &axis } else { &other };
        let turn =
            TURN.root(0.0, |t| (swung(&own.lower, &own.direction(), &at, t) - chassis).norm() - length)?;
        let turn = match self.tie {
            Some([_, far]) if !on_left => {
                let far = a.midpoint + a.turn * far;
                let rod = (axis.tie - far).norm();
                let far = swung(&other.lower, &other.direction(), &far, turn);
                TURN.root(0.0, |t| (swung(&axis.lower, &axis.direction(), &axis.tie, t) - far).norm() - rod)?
            }
            _ => turn,
        };
        (turn.abs() < 1.2).then_some(turn)
    }

    /// Body and axle end of the drag link in a pose, when there is one.
    #[must_use]
    pub fn drag_ends(&self, a: &AxlePose) -> Option<[Vec3; 2]> {
        self.drag.map(|(chassis, joint, _)| [chassis, a.midpoint + a.turn * joint])
    }

    /// Name, body end and axle end of each link in a pose.
    #[must_use]
    pub fn link_ends(&self, a: &AxlePose) -> Vec<(String, Vec3, Vec3)> {
        self.links.iter().map(|l| (l.name.clone(), l.chassis, a.midpoint + a.turn * l.axle)).collect()
    }

    /// Both ends of the tie rod in a pose, when there is one.
    #[must_use]
    pub fn tie_ends(&self, a: &AxlePose) -> Option<[Vec3; 2]> {
        self.tie.map(|t| t.map(|p| a.midpoint + a.turn * p))
    }

    /// The links a name stands for: its own, both of a left and right pair, or for `all` every one but a
    /// track bar.
    fn named<'a>(&'a mut self, name: &'a str) -> impl Iterator<Item = &'a mut Link> {
        self.links.iter_mut().filter(move |l| {
            l.name == name
                || l.name.strip_prefix(name).is_some_and(|r| r == "_left" || r == "_right")
                || (name == "all" && l.name != "track_bar" && l.name != "leaf_sideways")
        })
    }

    /// Lengthens the link of a name or both of a pair, mm.
    pub(crate) fn lengthen(&mut self, name: &str, by: f64) {
        if let ("drag_link", Some((_, _, length))) = (name, &mut self.drag) {
            *length += by;
        }
        self.named(name).for_each(|l| l.length += by);
    }

    /// Moves the body end of a link or both of a pair, mm; y outboard of its own side.
    pub(crate) fn move_chassis_end(&mut self, name: &str, by: Vec3) {
        if let ("drag_link", Some((chassis, _, _))) = (name, &mut self.drag) {
            *chassis += by;
        }
        for l in self.named(name) {
            let y = if l.chassis.y < 0.0 { -by.y } else { by.y };
            l.chassis += Vec3::new(by.x, y, by.z);
        }
    }

    /// Moves the axle end of a link or both of a pair, mm in design axes; y outboard of its own side.
    pub(crate) fn move_axle_end(&mut self, name: &str, by: Vec3) {
        if let ("drag_link", Some((_, joint, _))) = (name, &mut self.drag) {
            *joint += by;
        }
        for l in self.named(name) {
            let y = if l.axle.y < 0.0 { -by.y } else { by.y };
            l.axle += Vec3::new(by.x, y, by.z);
        }
    }

    /// Moves the wheels against the axle (wheel offset, lift knuckle), mm; y outboard of its own side.
    pub(crate) fn move_wheel(&mut self, by: Vec3) {
        self.half += Vec3::new(0.0, by.y, 0.0);
        // Heave is of the wheel centres: raising them in the axle lowers the link ends from them.
        for l in &mut self.links {
            l.axle -= Vec3::new(by.x, 0.0, by.z);
        }
    }

    /// Lengthens the tie rod, mm.
    pub(crate) fn lengthen_tie(&mut self, by: f64) {
        self.tie_longer += by;
    }

    /// Turns the left spin axis against the axle (axle-end sleeve), radians.
    pub(crate) fn turn_wheel(&mut self, camber: f64, toe: f64) {
        self.spin = spin_axis(crate::wheel::camber(&self.spin) + camber, crate::wheel::toe(&self.spin) + toe);
    }

    /// Offsets the upper ball joint in the axle end (clocked sleeve), degrees of kingpin lean: `out_deg` moves it
    /// outboard, `back_deg` rearward. The knuckle goes with it, steering arm included, about the lower joint.
    pub(crate) fn offset_upper_joint(&mut self, out_deg: f64, back_deg: f64) {
        let Some(k) = self.kingpin else { return };
        let moved =
            (k / k.z + Vec3::new(-back_deg.to_radians().tan(), out_deg.to_radians().tan(), 0.0)).normalize();
        let Some(turn) = Rotation3::rotation_between(&k, &moved) else { return };
        let lower = self.half - self.spin * KINGPIN_INSET - k * KINGPIN_HALF;
        let about = |p: &Vec3| lower + turn * (p - lower);
        let centre = about(&self.half);
        // Heave is of the wheel centres: what raises them in the axle lowers everything else from them.
        let down = Vec3::new(0.0, 0.0, centre.z - self.half.z);
        if let Some([near, far]) = &mut self.tie {
            *near = about(near) - down;
            *far -= down;
        }
        if let Some((_, joint, _)) = &mut self.drag {
            *joint -= down;
        }
        self.links.iter_mut().for_each(|l| l.axle -= down);
        self.half = centre - down;
        self.spin = turn * self.spin;
        self.kingpin = Some(moved);
    }

    /// Leans the kingpin against the axle, degrees of caster.
    pub(crate) fn lean_kingpin(&mut self, caster_deg: f64) {
        if let Some(k) = &mut self.kingpin {
            *k = Rotation3::from_axis_angle(&Vec3::y_axis(), -caster_deg.to_radians()) * *k;
        }
    }
}

impl Linkage for SolidAxleCorner {
    /// `rack` is the sideways movement of the tie rod's left end, +y, mm.
    fn pose(&self, travel: f64, rack: f64) -> Result<Pose, Unreachable> {
        let a = self.axle_pose(travel, 0.0)?;
        let pose = self.left_wheel(&a);
        if rack == 0.0 || self.tie.is_none() {
            return Ok(pose);
        }
        let Some(axis) = pose.axis else { return Ok(pose) };
        let y = |t: f64| pose.steered(t).axis.map_or(0.0, |a| a.tie.y);
        RACK.root(0.0, |t| y(t) - axis.tie.y - rack)
            .map(|turn| pose.steered(turn))
            .ok_or_else(|| Unreachable::at(Loop::TieRod, travel))
    }
    fn loaded_radius(&self) -> f64 {
        self.loaded_radius
    }
    fn design_x(&self) -> f64 {
        self.midpoint.x
    }
}

impl AxlePoints {
    /// Links by name, pairs by their common name too, and the drag link.
    fn named_links(&self) -> Vec<String> {
        let mut out: Vec<String> = self.links.iter().map(|l| l.name.clone()).collect();
        for side in ["_left", "_right"] {
            for stem in self.links.iter().filter_map(|l| l.name.strip_suffix(side)) {
                if !out.iter().any(|n| n == stem) {
                    out.push(stem.to_owned());
                }
            }
        }
        if self.drag_link.is_some() {
            out.push("drag_link".into());
        }
        out
    }
}

impl LayoutPoints for AxlePoints {
    const KNUCKLE: bool = false;

    fn bracket(&self) -> Vec<EccentricPoint> {
        ["all", "track_bar", "drag_link"].map(|l| EccentricPoint::Link(l.into())).into()
    }

    fn taped(&self, what: Measure, _: &WheelAtDesign) -> Option<f64> {
        let (link, angle) = match what {
            Measure::LowerLink => ("lower_left", false),
            Measure::LowerLinkAngle => ("lower_left", true),
            Measure::UpperLink => ("upper_left", false),
            Measure::UpperLinkAngle => ("upper_left", true),
            Measure::TrackBar => ("track_bar", false),
            Measure::TrackBarAngle => ("track_bar", true),
            _ => return None,
        };
        let l = self.links.iter().find(|l| l.name == link)?;
        Some(if angle { rise(l.chassis, l.axle) } else { gap(l.chassis, l.axle) })
    }

    fn lean_axis(&mut self, _: f64, lean_deg: f64) {
        if let Some(s) = &mut self.steering_axis {
            s.caster_deg += lean_deg;
        }
    }

    fn all_mut(&mut self) -> Vec<&mut Point> {
        let links = self.links.iter_mut().chain(self.drag_link.iter_mut());
        let mut out: Vec<&mut Point> = links.flat_map(|l| [&mut l.chassis, &mut l.axle]).collect();
        out.extend(self.tie_rod.iter_mut().flatten());
        out
    }

    fn names(&self) -> Vec<(String, u8)> {
        let links = self.links.iter().chain(self.drag_link.iter()).zip(0u8..);
        let mut out: Vec<(String, u8)> = links
            .flat_map(|(l, g)| ["chassis", "axle"].map(|end| (format!("links.{}.{end}", l.name), g)))
            .collect();
        if self.tie_rod.is_some() {
            out.extend([("tie_rod.left".to_owned(), 100), ("tie_rod.right".to_owned(), 100)]);
        }
        out
    }

    fn read(at: &str, mut f: FileParts) -> Result<Self, Problem> {
        let mut links = f.only_links(at)?;
        let drag = |field: &str, l: &LinkFile| -> Result<AxleLink, Problem> {
            let (chassis, axle) = ends(field, l, true)?;
            Ok(AxleLink { name: "drag_link".into(), chassis, axle })
        };
        let among = links.remove("drag_link");
        let mut drag_link = among.map(|l| drag(&format!("{at}links.drag_link"), &l)).transpose()?;
        let mut tie_rod = None;
        if let Some(l) = links.remove("tie_rod") {
            // Both ends ride on the axle: it steers, it does not locate.
            let (left, right) = ends(&format!("{at}links.tie_rod"), &l, true)?;
            tie_rod = Some([left, right]);
        }
        if !(4..=MOST_LINKS).contains(&links.len()) {
            return Err(Problem::new(
                format!("{at}links"),
                said("fault-so-many-locate").count("n", links.len()),
                said("fault-four-twelve-lower-left-lower"),
            ));
        }
        let mut found = Vec::with_capacity(links.len());
        for (name, l) in links {
            let (chassis, axle) = ends(&format!("{at}links.{name}"), &l, true)?;
            found.push(AxleLink { name, chassis, axle });
        }
        if let Some(l) = &f.drag_link {
            drag_link = Some(drag("drag_link", l)?);
        }
        let tie_rod = f.tie_rod.map(|t| [t.left, t.right]).or(tie_rod);
        Ok(Self { links: found, steering_axis: f.steering_axis, drag_link, tie_rod })
    }

    fn write(&self) -> FileParts {
        let link = |l: &AxleLink| LinkFile {
            inner: None,
            outer: None,
            chassis: Some(l.chassis),
            axle: Some(l.axle),
        };
        FileParts {
            links: Some(self.links.iter().map(|l| (l.name.clone(), link(l))).collect()),
            steering_axis: self.steering_axis,
            drag_link: self.drag_link.as_ref().map(link),
            tie_rod: self.tie_rod.map(|[left, right]| TieRodFile { left, right }),
            ..FileParts::default()
        }
    }

    fn ranges(&self) -> Vec<Result<(), Problem>> {
        let Some(s) = self.steering_axis else { return Vec::new() };
        vec![
            in_range("steering_axis.caster_deg", s.caster_deg, -30.0, 30.0, "°"),
            in_range("steering_axis.sai_deg", s.sai_deg, -10.0, 40.0, "°"),
        ]
    }

    fn faults(&self, _: &WheelAtDesign, say: &mut Say<'_>) {
        for l in &self.links {
            say.near(&format!("links.{}.axle", l.name), gap(l.chassis, l.axle), "fault-link-no-length");
        }
        if let Some([l, r]) = self.tie_rod {
            say.near("tie_rod.right", gap(l, r), "fault-tie-no-length");
        }
        if let Some(d) = &self.drag_link {
            say.near("drag_link.axle", gap(d.chassis, d.axle), "fault-drag-no-length");
        }
    }

    fn likeliest(&self, _: Loop) -> &'static str {
        "links"
    }

    fn swap_sides(&mut self) {
        if let Some(t) = &mut self.tie_rod {
            t.swap(0, 1);
        }
    }

    fn on_it(&self) -> OnIt {
        let links = self.named_links();
        let mut threads = links.clone();
        threads.extend(self.tie_rod.is_some().then(|| "tie".to_owned()));
        OnIt {
            pivots: links.clone(),
            tie_pivot: "tie_inner",
            links,
            threads,
            kingpin: true,
            axle_end: self.steering_axis.is_some(),
            one_length: true,
            ..OnIt::default()
        }
    }
}

impl LayoutCorner for SolidAxleCorner {
    fn turn_spin(&mut self, camber: f64, toe: f64) {
        self.turn_wheel(camber, toe);
    }

    fn set_loaded_radius(&mut self, mm: f64) {
        self.loaded_radius = mm;
    }

    fn edit(&mut self, e: &Edit) {
        match e {
            Edit::MovePivot { point, by } => self.move_chassis_end(point.word(), Vec3::from(*by)),
            // Both arms of a live axle: one length each side, front and rear alike.
            Edit::LengthenLinks { arm, front_mm, .. } => {
                self.lengthen(if *arm == Arm::Upper { "upper" } else { "lower" }, *front_mm);
            }
            Edit::LengthenTie { by_mm } => self.lengthen_tie(*by_mm),
            Edit::LengthenLink { name, by_mm } => self.lengthen(name, *by_mm),
            Edit::TurnSpin { camber_deg, toe_deg } | Edit::KnuckleTilt { camber_deg, toe_deg } => {
                self.turn_wheel(camber_deg.to_radians(), toe_deg.to_radians());
            }
            Edit::OffsetUpperJoint { out_deg, back_deg } => self.offset_upper_joint(*out_deg, *back_deg),
            Edit::LeanKingpin { caster_deg } => self.lean_kingpin(*caster_deg),
            Edit::MoveWheelEnd { link, by } => self.move_axle_end(link, Vec3::from(*by)),
            Edit::ShiftWheel { by } => self.move_wheel(Vec3::from(*by)),
            Edit::ShiftKnucklePoint { .. }
            | Edit::ReshapeArm { .. }
            | Edit::FreeEccentrics { .. }
            | Edit::ReplaceEccentric { .. } => {}
        }
    }

    fn bars(&self, travel: f64, rack: f64) -> Result<(Pose, Vec<Bar>), Unreachable> {
        let a = self.axle_pose(travel, 0.0)?;
        let pose = self.pose(travel, rack)?;
        let mut bars = Vec::with_capacity(9);
        for (name, chassis, axle) in self.link_ends(&a) {
            bars.push(Bar::new(&name, BarKind::Link, &chassis, &axle, true));
        }
        if let Some([chassis, joint]) = self.drag_ends(&a) {
            bars.push(Bar::new("drag_link", BarKind::TieRod, &chassis, &joint, true));
        }
        if let Some([left, right]) = self.tie_ends(&a) {
            bars.push(Bar::new("tie_rod", BarKind::TieRod, &right, &left, false));
        }
        let other = a.midpoint * 2.0 - (a.midpoint + (self.left_wheel(&a).centre - a.midpoint));
        bars.push(Bar::new("axle", BarKind::Beam, &other, &pose.centre, false));
        Ok((pose, bars))
    }
}

impl SolidAxleCorner {
    /// The points where a pose at a travel puts them.
    pub(crate) fn write_points(&self, pose: &Pose, travel: f64, p: &mut AxlePoints) {
        let Ok(a) = self.axle_pose(travel, 0.0) else { return };
        for (l, (_, chassis, axle)) in p.links.iter_mut().zip(self.link_ends(&a)) {
            l.chassis = chassis.into();
            l.axle = axle.into();
        }
        if let (Some(d), Some([chassis, axle])) = (&mut p.drag_link, self.drag_ends(&a)) {
            d.chassis = chassis.into();
            d.axle = axle.into();
        }
        p.tie_rod = self.tie_ends(&a).map(|t| t.map(Into::into));
        if let (Some(s), Some(axis)) = (&mut p.steering_axis, pose.axis) {
            let u = axis.direction();
            s.caster_deg = (-u.x).atan2(u.z).to_degrees();
            s.sai_deg = (-u.y).atan2(u.z).to_degrees();
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{AxleLink, SteeringAxis};
    use proptest::prelude::*;

    fn axle(track_bar: bool) -> SolidAxleCorner {
        let l = |name: &str, chassis, axle| AxleLink { name: name.into(), chassis, axle };
        let mut links = vec![
            l("lower_left", [-880.0, 420.0, 455.0], [-40.0, 430.0, 320.0]),
            l("lower_right", [-880.0, -420.0, 455.0], [-40.0, -430.0, 320.0]),
            l("upper_left", [-540.0, 310.0, 520.0], [-50.0, 310.0, 505.0]),
            l("upper_right", [-540.0, -310.0, 520.0], [-50.0, -310.0, 505.0]),
        ];
        if track_bar {
            links.push(l("track_bar", [60.0, 440.0, 560.0], [80.0, -480.0, 450.0]));
        }
        let p = AxlePoints {
            links,
            steering_axis: Some(SteeringAxis { caster_deg: 6.0, sai_deg: 9.0 }),
            drag_link: Some(l("drag_link", [120.0, 430.0, 540.0], [140.0, -560.0, 430.0])),
            tie_rod: Some([[-150.0, 700.0, 380.0], [-150.0, -700.0, 380.0]]),
        };
        let w = WheelAtDesign {
            center: [0.0, 800.0, 390.0],
            camber_deg: 0.0,
            toe_deg: 0.0,
            loaded_radius_mm: 390.0,
        };
        SolidAxleCorner::new(&p, &w)
    }

    #[test]
    fn zero_heave_is_design() {
        let a = axle(true).axle_pose(0.0, 0.0).unwrap();
        assert!((a.midpoint - Vec3::new(0.0, 0.0, 390.0)).norm() < 1e-9);
        assert!(a.pitch.abs() < 1e-12 && a.yaw.abs() < 1e-12);
    }

    #[test]
    fn the_axle_walks_on_the_track_bar_and_stays_without_one() {
        let with = axle(true).axle_pose(-80.0, 0.0).unwrap();
        assert!(with.midpoint.y.abs() > 5.0);
        let without = axle(false).axle_pose(-80.0, 0.0).unwrap();
        assert!(without.midpoint.y.abs() < 1e-9 && without.yaw.abs() < 1e-12);
    }

    proptest! {
        /// Caster turns with the axle one to one: it is one rigid body (small yaw only mixes in SAI).
        #[test]
        fn caster_follows_the_axle(h in -110.0f64..110.0) {
            let c = axle(false);
            let a = c.axle_pose(h, 0.0).unwrap();
            let caster = c.alignment(h, 0.0).unwrap().caster_deg;
            prop_assert!((caster - (6.0 - a.pitch.to_degrees())).abs() < 1e-9);
            prop_assert!((c.alignment(h, 0.0).unwrap().camber_deg).abs() < 1e-9);
        }

        /// The least-squares place is a minimum: no small move lowers the sum of squares (general check).
        #[test]
        fn no_nearby_place_has_less_strain(h in -100.0f64..80.0, d in proptest::array::uniform4(-1.0f64..1.0)) {
            let c = axle(true);
            let a = c.axle_pose(h, 0.0).unwrap();
            let strain = |dx: f64, dy: f64, dp: f64, dw: f64| -> f64 {
                let turn = turn_of(a.yaw + dw, a.pitch + dp, 0.0);
                let mid = a.midpoint + Vec3::new(dx, dy, 0.0);
                c.links.iter().map(|l| ((mid + turn * l.axle - l.chassis).norm() - l.length).powi(2)).sum()
            };
            let here = strain(0.0, 0.0, 0.0, 0.0);
            let there = strain(0.1 * d[0], 0.1 * d[1], 1e-4 * d[2], 1e-4 * d[3]);
            prop_assert!(there >= here - 1e-12);
        }
    }

    #[test]
    fn drag_link_parallel_to_the_track_bar_leaves_the_wheel_straight() {
        let mut c = axle(true);
        // Same direction and length as the bar: both ends walk alike.
        let bar = c.links.iter().find(|l| l.name == "track_bar").unwrap().clone();
        let lift = Vec3::new(60.0, 0.0, -20.0);
        c.drag = Some((bar.chassis + lift, bar.axle + lift, bar.length));
        let level = c.drag_link_turn(&c.axle_pose(-60.0, 0.0).unwrap()).unwrap();
        c.drag = Some((bar.chassis + Vec3::new(60.0, 0.0, -90.0), bar.axle + lift, {
            let p = bar.chassis + Vec3::new(60.0, 0.0, -90.0);
            (c.midpoint + bar.axle + lift - p).norm()
        }));
        let crossed = c.drag_link_turn(&c.axle_pose(-60.0, 0.0).unwrap()).unwrap();
        assert!(crossed.abs() > 4.0 * level.abs(), "{level} {crossed}");
    }

    #[test]
    fn a_longer_tie_rod_behind_the_axle_turns_both_wheels_in() {
        let mut c = axle(true);
        c.lengthen_tie(6.0);
        assert!(c.wheel(0.0, 0.0).unwrap().toe_deg > 0.5);
    }

    #[test]
    fn links_that_bind_are_named() {
        let e = axle(true).axle_pose(-700.0, 0.0).unwrap_err();
        assert!(e.link.is_some() && e.limit_travel_mm < -150.0, "{e}");
    }
}
