//! Five rods and a knuckle: Newton on the pose (two coordinates of the wheel centre and a rotation; the
//! third coordinate is the travel), started from a second-order guess along the design motion. A change of
//! sign of the Jacobian's determinant marks a dead point; past one the pose is refused.

use super::linear::{determinant, solve};
use super::tape::{Measure, rise};
use super::{LayoutCorner, LayoutPoints, OnIt};
use crate::Vec3;
use crate::edit::{Arm, EccentricPoint, Edit};
use crate::geometry::basics::{Point, WheelAtDesign};
use crate::geometry::parts::{FileParts, LinkFile, ends};
use crate::geometry::say::{Say, gap};
use crate::linkage::{Bar, BarKind};
use crate::linkage::{Linkage, Loop, Unreachable};
use crate::wheel::{Axis, Pose, spin_axis};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use nalgebra::Rotation3;

/// One rod from the body to the knuckle.
#[derive(Debug, Clone, PartialEq)]
pub struct Rod {
    /// What the file calls it; `tie` is the one a rack moves.
    pub name: String,
    /// Joint on the body.
    pub inner: Point,
    /// Joint on the knuckle.
    pub outer: Point,
}

/// Five rods, in the order of their names in the file.
#[derive(Debug, Clone, PartialEq)]
pub struct FiveLinkPoints {
    /// Exactly five.
    pub rods: Vec<Rod>,
}

impl FiveLinkPoints {
    /// Heights of the outer joints, lowest first, mm.
    fn heights(&self) -> Vec<f64> {
        let mut z: Vec<f64> = self.rods.iter().map(|r| r.outer[2]).collect();
        z.sort_by(f64::total_cmp);
        z
    }

    /// The rod a rack moves.
    #[must_use]
    pub fn tie(&self) -> Option<usize> {
        self.rods.iter().position(|r| r.name == "tie")
    }
}

/// Links count as met below this length error, mm.
const CLOSE: f64 = 1e-10;
/// Step of the continuation, mm of travel.
const MARCH: f64 = 4.0;
/// Search for the end of the travel stops here, mm.
const FARTHEST: f64 = 1200.0;
/// The rotation unknowns are scaled by this arm (mm) so that all rows of the Jacobian have one size.
const ARM: f64 = 100.0;

#[derive(Debug, Clone, PartialEq)]
struct Link {
    name: String,
    inner: Vec3,
    /// From the wheel centre, in the axes of the design position.
    outer: Vec3,
    length: f64,
}

/// One corner.
#[derive(Debug, Clone, PartialEq)]
pub struct FiveLinkCorner {
    links: [Link; 5],
    tie: Option<usize>,
    centre: Vec3,
    spin: Vec3,
    loaded_radius: f64,
    guess: Option<Guess>,
}

/// Motion per mm of travel at design, and its sign of branch.
#[derive(Debug, Clone, PartialEq)]
struct Guess {
    rate: [f64; 5],
    bend: [f64; 5],
    sign: f64,
}

#[derive(Debug, Clone, Copy)]
struct State {
    centre: Vec3,
    turn: Rotation3<f64>,
}

type Jacobian = [[f64; 5]; 5];

impl FiveLinkCorner {
    /// A corner whose links have the lengths between their points. Exactly five rods; with another
    /// number the corner never poses.
    #[must_use]
    pub fn new(points: &FiveLinkPoints, wheel: &WheelAtDesign) -> Self {
        let centre = Vec3::from(wheel.center);
        let links = std::array::from_fn(|i| {
            let nothing = ([0.0; 3], [0.0; 3], String::new());
            let (inner, outer, name) =
                points.rods.get(i).map_or(nothing, |r| (r.inner, r.outer, r.name.clone()));
            let (inner, outer) = (Vec3::from(inner), Vec3::from(outer));
            Link { name, inner, outer: outer - centre, length: (outer - inner).norm() }
        });
        let mut out = Self {
            links,
            tie: points.tie(),
            centre,
            spin: spin_axis(wheel.camber_deg.to_radians(), wheel.toe_deg.to_radians()),
            loaded_radius: wheel.loaded_radius_mm,
            guess: None,
        };
        out.renew();
        out
    }

    /// Works the first guess out; call after every edit.
    pub(crate) fn renew(&mut self) {
        self.guess = self.motion();
    }

    fn motion(&self) -> Option<Guess> {
        // After an edit the links do not close at the drawn position: start from where they do.
        let start = self.newton(
            State { centre: self.centre, turn: Rotation3::identity() },
            self.centre.z,
            0.0,
            None,
        )?;
        let rate_at = |s: &State| {
            let (j, _) = self.equations(s, 0.0);
            let rhs = std::array::from_fn(|i| -self.direction(s, i, 0.0).z);
            solve(j, rhs).map(|r| (r, determinant(j)))
        };
        let (rate, det) = rate_at(&start)?;
        let h = 2.0;
        let ahead = self.newton(moved(&start, &rate, h), self.centre.z + h, 0.0, None)?;
        let (next, _) = rate_at(&ahead)?;
        let bend = std::array::from_fn(|i| (next[i] - rate[i]) / h);
        (det.abs() > 1e-9 && rate.iter().all(|v| v.is_finite())).then(|| Guess {
            rate,
            bend,
            sign: det.signum(),
        })
    }

    /// Unit vector along a link, inner to outer.
    fn direction(&self, s: &State, i: usize, rack: f64) -> Vec3 {
        let l = &self.links[i];
        let mut inner = l.inner;
        if self.tie == Some(i) {
            inner.y += rack;
        }
        (s.centre + s.turn * l.outer - inner) / l.length
    }

    /// Jacobian over (x, y, rotation · ARM) and length errors, both divided by the link's length.
    fn equations(&self, s: &State, rack: f64) -> (Jacobian, [f64; 5]) {
        let mut j = [[0.0; 5]; 5];
        let mut f = [0.0; 5];
        for (i, l) in self.links.iter().enumerate() {
            let arm = s.turn * l.outer;
            let mut inner = l.inner;
            if self.tie == Some(i) {
                inner.y += rack;
            }
            let q = s.centre + arm - inner;
            let inverse = 1.0 / l.length;
            let d = q * inverse;
            let m = arm.cross(&d) / ARM;
            j[i] = [d.x, d.y, m.x, m.y, m.z];
            f[i] = 0.5 * (q.norm_squared() * inverse - l.length);
        }
        (j, f)
    }

    /// Newton at a wheel height; `None` when it does not settle on the branch `sign`.
    fn newton(&self, from: State, z: f64, rack: f64, sign: Option<f64>) -> Option<State> {
        let mut s = from;
        s.centre.z = z;
        for _ in 0..10 {
            let (j, f) = self.equations(&s, rack);
            let worst = f.iter().fold(0.0f64, |w, v| w.max(v.abs()));
            if worst < CLOSE {
                let same = sign.is_none_or(|g| determinant(j) * g > 0.0);
                return same.then_some(s);
            }
            let step = solve(j, f.map(|v| -v))?;
            // A step that turns the knuckle over is no small motion.
            if !step.iter().all(|v| v.is_finite()) || step[2..].iter().any(|r| r.abs() > ARM) {
                return None;
            }
            s = moved(&s, &step, 1.0);
            s.centre.z = z;
        }
        None
    }

    fn state(&self, travel: f64, rack: f64) -> Result<State, Unreachable> {
        let rack = if self.tie.is_some() { rack } else { 0.0 };
        let stop = |at: f64, s: Option<&State>| {
            let link = s.and_then(|s| self.blocking(s, rack)).map(|i| self.links[i].name.clone());
            Unreachable { blocked: Loop::Link, limit_travel_mm: at, link }
        };
        let Some(g) = &self.guess else { return Err(stop(0.0, None)) };
        let base = State { centre: self.centre, turn: Rotation3::identity() };
        let step: [f64; 5] = std::array::from_fn(|i| g.rate[i] * travel + 0.5 * g.bend[i] * travel * travel);
        // Far from design the direct guess may fall on another branch: march there.
        if travel.abs() < 130.0
            && rack == 0.0
            && let Some(s) = self.newton(moved(&base, &step, 1.0), self.centre.z + travel, 0.0, Some(g.sign))
        {
            return Ok(s);
        }
        let mut good = self.newton(base, self.centre.z, 0.0, Some(g.sign)).ok_or_else(|| stop(0.0, None))?;
        for k in 1..=self.rack_steps(rack) {
            let part = rack * f64::from(k) / f64::from(self.rack_steps(rack));
            good =
                self.newton(good, self.centre.z, part, Some(g.sign)).ok_or_else(|| stop(0.0, Some(&good)))?;
        }
        let mut at = 0.0;
        let mut step = MARCH.copysign(travel);
        loop {
            let next: f64 = if (travel - at).abs() <= step.abs() { travel } else { at + step };
            match self.newton(good, self.centre.z + next, rack, Some(g.sign)) {
                Some(s) => {
                    (good, at) = (s, next);
                    if at == travel {
                        return Ok(good);
                    }
                    if at.abs() > FARTHEST {
                        return Err(stop(at, Some(&good)));
                    }
                }
                None => {
                    step *= 0.5;
                    if step.abs() < 1e-3 {
                        return Err(stop(at, Some(&good)));
                    }
                }
            }
        }
    }

    fn rack_steps(&self, rack: f64) -> u32 {
        (rack.abs() / 10.0).ceil().min(200.0) as u32
    }

    /// The link that takes most part in the dependency where the loops stop closing: largest component of
    /// the Jacobian's left null vector, by inverse iteration on its transpose.
    fn blocking(&self, s: &State, rack: f64) -> Option<usize> {
        let (j, _) = self.equations(s, rack);
        let transposed: Jacobian = std::array::from_fn(|a| std::array::from_fn(|b| j[b][a]));
        let mut v = [1.0; 5];
        for _ in 0..3 {
            let a = solve(transposed, v)?;
            let b = solve(j, a)?;
            let n = b.iter().map(|x| x * x).sum::<f64>().sqrt();
            v = b.map(|x| x / n);
        }
        let left = solve(transposed, v)?;
        (0..5).max_by(|a, b| left[*a].abs().total_cmp(&left[*b].abs()))
    }

    fn posed(&self, s: &State, rack: f64) -> Pose {
        Pose { centre: s.centre, spin: s.turn * self.spin, up: s.turn * Vec3::z(), axis: self.screw(s, rack) }
    }

    /// Instantaneous screw axis of rack motion at this wheel height; none without a tie rod.
    fn screw(&self, s: &State, rack: f64) -> Option<Axis> {
        let tie = self.tie?;
        let (j, _) = self.equations(s, rack);
        let mut rhs = [0.0; 5];
        rhs[tie] = self.direction(s, tie, rack).y;
        let v = solve(j, rhs)?;
        let omega = Vec3::new(v[2], v[3], v[4]) / ARM;
        let speed = omega.norm_squared();
        if speed < 1e-16 {
            return None;
        }
        let velocity = Vec3::new(v[0], v[1], 0.0);
        let near = s.centre + omega.cross(&velocity) / speed;
        let up = if omega.z < 0.0 { -omega } else { omega } / speed.sqrt();
        let tie = s.centre + s.turn * self.links[tie].outer;
        Some(Axis { lower: near - up * 150.0, upper: near + up * 150.0, tie })
    }

    /// Inner and outer end of each link in a pose, with its name.
    pub(crate) fn rods(&self, travel: f64, rack: f64) -> Result<(Pose, Vec<Rod3>), Unreachable> {
        let s = self.state(travel, rack)?;
        let rods = (0..5)
            .map(|i| {
                let l = &self.links[i];
                let mut inner = l.inner;
                if self.tie == Some(i) {
                    inner.y += rack;
                }
                Rod3 { name: l.name.clone(), inner, outer: s.centre + s.turn * l.outer }
            })
            .collect();
        Ok((self.posed(&s, rack), rods))
    }

    /// Lengthens the link of a name, mm.
    pub(crate) fn lengthen(&mut self, name: &str, by: f64) {
        for l in self.links.iter_mut().filter(|l| l.name == name) {
            l.length += by;
        }
    }

    /// Moves the body end of the link of a name (or of `all`), mm.
    pub(crate) fn move_inner(&mut self, name: &str, by: Vec3) {
        for l in self.links.iter_mut().filter(|l| l.name == name || name == "all") {
            l.inner += by;
        }
    }

    /// Moves the knuckle end of the link of a name, mm in design axes.
    pub(crate) fn move_outer(&mut self, name: &str, by: Vec3) {
        for l in self.links.iter_mut().filter(|l| l.name == name) {
            l.outer += by;
        }
    }

    /// Moves the wheel centre against the joints of the knuckle, mm in design axes; travel still counts from
    /// the design height.
    pub(crate) fn move_wheel(&mut self, by: Vec3) {
        for l in &mut self.links {
            l.outer -= by;
        }
        self.centre.x += by.x;
        self.centre.y += by.y;
    }

    /// Turns the spin axis in the knuckle, radians.
    pub(crate) fn turn_wheel(&mut self, camber: f64, toe: f64) {
        self.spin = spin_axis(crate::wheel::camber(&self.spin) + camber, crate::wheel::toe(&self.spin) + toe);
    }
}

/// A link in a pose.
pub(crate) struct Rod3 {
    pub name: String,
    pub inner: Vec3,
    pub outer: Vec3,
}

fn moved(s: &State, step: &[f64; 5], by: f64) -> State {
    let r = Vec3::new(step[2], step[3], step[4]) * (by / ARM);
    State {
        centre: s.centre + Vec3::new(step[0], step[1], 0.0) * by,
        turn: Rotation3::from_scaled_axis(r) * s.turn,
    }
}

impl Linkage for FiveLinkCorner {
    fn pose(&self, travel: f64, rack: f64) -> Result<Pose, Unreachable> {
        if !(travel.is_finite() && rack.is_finite()) {
            return Err(Unreachable::at(Loop::Link, 0.0));
        }
        Ok(self.posed(&self.state(travel, rack)?, rack))
    }
    fn loaded_radius(&self) -> f64 {
        self.loaded_radius
    }
    fn design_x(&self) -> f64 {
        self.centre.x
    }
}

impl LayoutPoints for FiveLinkPoints {
    const KNUCKLE: bool = true;

    fn bracket(&self) -> Vec<EccentricPoint> {
        vec![EccentricPoint::Link("all".into())]
    }

    fn taped(&self, what: Measure, _: &WheelAtDesign) -> Option<f64> {
        let (upper, angle) = match what {
            Measure::LowerLink => (false, false),
            Measure::LowerLinkAngle => (false, true),
            Measure::UpperLink => (true, false),
            Measure::UpperLinkAngle => (true, true),
            _ => return None,
        };
        // The longest rod of its kind.
        let mean = self.rods.iter().map(|r| r.outer[2]).sum::<f64>() / 5.0;
        let of_kind = self.rods.iter().filter(|r| (r.outer[2] > mean) == upper);
        let r = of_kind.max_by(|a, b| gap(a.inner, a.outer).total_cmp(&gap(b.inner, b.outer)))?;
        Some(if angle { rise(r.inner, r.outer) } else { gap(r.inner, r.outer) })
    }

    /// From the middle of the two lowest outer joints to that of the two highest.
    fn axis_height(&self) -> f64 {
        match self.heights().as_slice() {
            [a, b, _, d, e] => 0.5 * (d + e - a - b),
            _ => 1.0,
        }
    }

    fn lean_axis(&mut self, shift: f64, _: f64) {
        let high = self.heights().get(3).copied().unwrap_or(f64::MAX);
        for r in self.rods.iter_mut().filter(|r| r.outer[2] >= high) {
            r.outer[0] += shift;
        }
    }

    fn all_mut(&mut self) -> Vec<&mut Point> {
        self.rods.iter_mut().flat_map(|r| [&mut r.inner, &mut r.outer]).collect()
    }

    fn names(&self) -> Vec<(String, u8)> {
        let rods = self.rods.iter().zip(0u8..);
        rods.flat_map(|(r, g)| ["inner", "outer"].map(|end| (format!("links.{}.{end}", r.name), g))).collect()
    }

    fn read(at: &str, mut f: FileParts) -> Result<Self, Problem> {
        let links = f.only_links(at)?;
        if links.len() != 5 {
            return Err(Problem::new(
                format!("{at}links"),
                said("fault-so-many-links").count("n", links.len()),
                said("fault-exactly-five-each-inner-outer"),
            ));
        }
        let mut rods = Vec::with_capacity(5);
        for (name, l) in links {
            let (inner, outer) = ends(&format!("{at}links.{name}"), &l, false)?;
            rods.push(Rod { name, inner, outer });
        }
        Ok(Self { rods })
    }

    fn write(&self) -> FileParts {
        let rod =
            |r: &Rod| LinkFile { inner: Some(r.inner), outer: Some(r.outer), chassis: None, axle: None };
        let links = self.rods.iter().map(|r| (r.name.clone(), rod(r))).collect();
        FileParts { links: Some(links), ..FileParts::default() }
    }

    fn faults(&self, _: &WheelAtDesign, say: &mut Say<'_>) {
        for r in &self.rods {
            say.near(&format!("links.{}.outer", r.name), gap(r.inner, r.outer), "fault-link-no-length");
        }
    }

    fn likeliest(&self, _: Loop) -> &'static str {
        "links"
    }

    fn on_it(&self) -> OnIt {
        let links: Vec<String> = self.rods.iter().map(|r| r.name.clone()).collect();
        let mut threads = links.clone();
        for arm in ["upper", "lower"] {
            let there = |end: &str| links.contains(&format!("{arm}_{end}"));
            if there("front") || there("rear") {
                threads.push(arm.into());
            }
        }
        // A rod may be asked for as the tie rod.
        OnIt { pivots: links.clone(), tie_pivot: "tie", threads, links, ..OnIt::default() }
    }
}

impl LayoutCorner for FiveLinkCorner {
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
                let name = if *point == EccentricPoint::TieInner { "tie" } else { point.word() };
                self.move_inner(name, Vec3::from(*by));
            }
            Edit::LengthenLinks { arm, front_mm, rear_mm } => {
                let at = if *arm == Arm::Upper { "upper" } else { "lower" };
                self.lengthen(&format!("{at}_front"), *front_mm);
                self.lengthen(&format!("{at}_rear"), *rear_mm);
            }
            Edit::LengthenTie { by_mm } => self.lengthen("tie", *by_mm),
            Edit::LengthenLink { name, by_mm } => self.lengthen(name, *by_mm),
            Edit::TurnSpin { camber_deg, toe_deg } | Edit::KnuckleTilt { camber_deg, toe_deg } => {
                self.turn_wheel(camber_deg.to_radians(), toe_deg.to_radians());
            }
            Edit::MoveWheelEnd { link, by } => self.move_outer(link, Vec3::from(*by)),
            Edit::ShiftWheel { by } => self.move_wheel(Vec3::from(*by)),
            Edit::ShiftKnucklePoint { .. }
            | Edit::ReshapeArm { .. }
            | Edit::OffsetUpperJoint { .. }
            | Edit::LeanKingpin { .. }
            | Edit::FreeEccentrics { .. }
            | Edit::ReplaceEccentric { .. } => {}
        }
    }

    fn bars(&self, travel: f64, rack: f64) -> Result<(Pose, Vec<Bar>), Unreachable> {
        let (pose, rods) = self.rods(travel, rack)?;
        let mut bars = Vec::with_capacity(10);
        for r in &rods {
            let kind = if r.name == "tie" { BarKind::TieRod } else { BarKind::Link };
            bars.push(Bar::new(&r.name, kind, &r.inner, &r.outer, true));
            bars.push(Bar::new("knuckle", BarKind::Knuckle, &r.outer, &pose.centre, false));
        }
        Ok((pose, bars))
    }
}

impl FiveLinkCorner {
    /// The points where the pose at a travel puts them.
    pub(crate) fn write_points(&self, travel: f64, p: &mut FiveLinkPoints) {
        let Ok((_, rods)) = self.rods(travel, 0.0) else { return };
        for (r, now) in p.rods.iter_mut().zip(rods) {
            r.inner = now.inner.into();
            r.outer = now.outer.into();
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::{Rod, WishbonePoints};
    use crate::linkage::WishboneCorner;
    use proptest::prelude::*;

    /// A wishbone's five rods: two to each ball joint, and the tie rod.
    fn as_five(p: &WishbonePoints) -> FiveLinkPoints {
        let rod = |name: &str, inner, outer| Rod { name: name.into(), inner, outer };
        FiveLinkPoints {
            rods: vec![
                rod("lower_front", p.lower_front, p.lower_outer),
                rod("lower_rear", p.lower_rear, p.lower_outer),
                rod("tie", p.tie_inner, p.tie_outer),
                rod("upper_front", p.upper_front, p.upper_outer),
                rod("upper_rear", p.upper_rear, p.upper_outer),
            ],
        }
    }

    proptest! {
        /// A wishbone is a five-link whose rods meet at the ball joints: two solvers, one answer. The screw
        /// axis of rack motion at constant wheel height is not the ball-joint line (the arms move a little),
        /// so only wheel angles and places are compared.
        #[test]
        fn a_wishbone_written_as_five_rods_moves_alike(t in -95.0f64..95.0, rack in -40.0f64..40.0) {
            let g = crate::geometry::tests::sample();
            let p = g.points.wishbone().unwrap();
            let a = WishboneCorner::new(p, &g.wheel).pose(t, rack).unwrap();
            let b = FiveLinkCorner::new(&as_five(p), &g.wheel).pose(t, rack).unwrap();
            prop_assert!((a.centre - b.centre).norm() < 1e-7, "{} {}", a.centre, b.centre);
            prop_assert!((a.spin - b.spin).norm() < 1e-9);
            let tie = (a.axis.unwrap().tie - b.axis.unwrap().tie).norm();
            prop_assert!(tie < 1e-7);
        }

        /// The direct guess and the march from design end on the same pose (path independence).
        #[test]
        fn direct_and_marched_poses_agree(t in -120.0f64..120.0) {
            let g = crate::geometry::tests::sample();
            let c = FiveLinkCorner::new(&as_five(g.points.wishbone().unwrap()), &g.wheel);
            let a = c.pose(t, 0.0).unwrap();
            // A rack of next to nothing takes the long way round.
            let b = c.pose(t, 1e-12).unwrap();
            prop_assert!((a.centre - b.centre).norm() < 1e-7 && (a.spin - b.spin).norm() < 1e-9);
        }
    }

    #[test]
    fn the_end_names_a_link_and_a_travel() {
        let g = crate::geometry::tests::sample();
        let p = g.points.wishbone().unwrap();
        let five = FiveLinkCorner::new(&as_five(p), &g.wheel).pose(-420.0, 0.0).unwrap_err();
        let arms = WishboneCorner::new(p, &g.wheel).pose(-420.0, 0.0).unwrap_err();
        assert!(five.link.is_some(), "{five}");
        assert!((five.limit_travel_mm - arms.limit_travel_mm).abs() < 1.0, "{five} {arms}");
    }

    #[test]
    fn without_a_link_named_tie_it_does_not_steer() {
        let g = crate::geometry::tests::sample();
        let mut p = as_five(g.points.wishbone().unwrap());
        p.rods[2].name = "toe_link".into();
        let c = FiveLinkCorner::new(&p, &g.wheel);
        assert!(c.wheel(30.0, 0.0).unwrap().steer.is_none());
        assert_eq!(c.pose(30.0, 25.0).unwrap(), c.pose(30.0, 0.0).unwrap());
    }
}
