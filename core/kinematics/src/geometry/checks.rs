//! What is wrong with an axle that can be seen without moving it.

use super::points::{AxlePoints, Point, Points, StrutPoints, WishbonePoints};
use super::{Geometry, WheelAtDesign};
use crate::Vec3;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};

fn gap(a: Point, b: Point) -> f64 {
    (Vec3::from(a) - Vec3::from(b)).norm()
}

fn off_line(p: Point, a: Point, b: Point) -> f64 {
    let axis = Vec3::from(b) - Vec3::from(a);
    axis.cross(&(Vec3::from(p) - Vec3::from(a))).norm() / axis.norm().max(1e-9)
}

/// Shortest distance that two joints of one part may have, mm.
const APART: f64 = 20.0;

struct Say<'a> {
    at: &'a str,
    out: &'a mut Vec<Problem>,
}

impl Say<'_> {
    fn near(&mut self, field: &str, distance: f64, wrong: &str) {
        if distance < APART {
            let field = format!("{}{field}", self.at);
            self.out.push(Problem::new(field, wrong, said("fault-at-least-20-mm-between")));
        }
    }
    fn flat(&mut self, field: &str, distance: f64, wrong: &str) {
        if distance < APART {
            let field = format!("{}{field}", self.at);
            self.out.push(Problem::new(field, wrong, said("fault-point-at-least-20-mm")));
        }
    }
    fn above(&mut self, field: &str, upper: Point, lower: Point, wrong: &str, right: &str) {
        if upper[2] <= lower[2] {
            self.out.push(Problem::new(format!("{}{field}", self.at), wrong, right));
        }
    }
}

/// Problems of one side; `at` is put before every field.
pub(super) fn side_problems(at: &str, points: &Points, w: &WheelAtDesign, out: &mut Vec<Problem>) {
    let before = out.len();
    let whole = points.layout().is_whole_axle();
    let mut check = |r: Result<(), Problem>| out.extend(r.err());
    for (name, v) in points.named() {
        for (axis, c) in ["x", "y", "z"].iter().zip(v) {
            let low = if *axis == "x" || (whole && *axis == "y") { -6000.0 } else { -50.0 };
            check(in_range(&format!("{at}{name}.{axis}"), c, low, 6000.0, "mm"));
        }
    }
    for (axis, c) in ["x", "y", "z"].iter().zip(w.center) {
        let low = if *axis == "x" { -6000.0 } else { 50.0 };
        check(in_range(&format!("{at}wheel.center.{axis}"), c, low, 6000.0, "mm"));
    }
    check(in_range(&format!("{at}wheel.camber_deg"), w.camber_deg, -20.0, 20.0, "°"));
    check(in_range(&format!("{at}wheel.toe_deg"), w.toe_deg, -20.0, 20.0, "°"));
    check(in_range(&format!("{at}wheel.loaded_radius_mm"), w.loaded_radius_mm, 100.0, 1000.0, "mm"));
    if let Points::SolidAxle(AxlePoints { steering_axis: Some(s), .. }) = points {
        check(in_range("steering_axis.caster_deg", s.caster_deg, -30.0, 30.0, "°"));
        check(in_range("steering_axis.sai_deg", s.sai_deg, -10.0, 40.0, "°"));
    }
    if let Points::TwistBeam(b) = points
        && let Some([x, z]) = b.shear_center
    {
        check(in_range("shear_center.0", x, -6000.0, 6000.0, "mm"));
        check(in_range("shear_center.1", z, -50.0, 6000.0, "mm"));
    }
    if out.len() > before {
        return;
    }
    let mut say = Say { at, out };
    match points {
        Points::DoubleWishbone(p) => wishbone(p, &mut say),
        Points::Strut(p) => strut(p, &mut say),
        Points::FiveLink(f) => {
            for r in &f.rods {
                say.near(&format!("links.{}.outer", r.name), gap(r.inner, r.outer), "the link has no length");
            }
        }
        Points::SingleArm(a) => {
            say.near("points.arm_outer", gap(a.arm_inner, a.arm_outer), "the hinge's two ends are one point");
            let d = off_line(w.center, a.arm_inner, a.arm_outer);
            say.flat("points.arm_outer", d, "the wheel centre lies on the hinge: it cannot rise");
        }
        Points::SolidAxle(a) => {
            for l in &a.links {
                say.near(&format!("links.{}.axle", l.name), gap(l.chassis, l.axle), "the link has no length");
            }
            if let Some([l, r]) = a.tie_rod {
                say.near("tie_rod.right", gap(l, r), "the tie rod has no length");
            }
            if let Some(d) = &a.drag_link {
                say.near("drag_link.axle", gap(d.chassis, d.axle), "the drag link has no length");
            }
        }
        Points::TwistBeam(b) => {
            let d = gap(b.pivot_left, b.pivot_right);
            say.near("points.pivot_right", d, "the two hinges are one point");
            let d = off_line(w.center, b.pivot_left, b.pivot_right);
            say.flat("points.pivot_left", d, "the wheel centre lies on the hinge line: it cannot rise");
        }
    }
}

fn lower_arm(front: Point, rear: Point, joint: Point, say: &mut Say<'_>) {
    say.near("points.lower_rear", gap(front, rear), "the lower arm's two pivots are one point");
    say.flat(
        "points.lower_outer",
        off_line(joint, front, rear),
        "the lower loop does not close: its ball joint lies on the pivot axis",
    );
}

fn tie_rod(inner: Point, outer: Point, axis: [Point; 2], say: &mut Say<'_>) {
    say.near("points.tie_outer", gap(inner, outer), "the tie rod has no length");
    say.flat(
        "points.tie_outer",
        off_line(outer, axis[0], axis[1]),
        "the tie-rod loop does not close: its joint lies on the steering axis, so it cannot steer",
    );
}

fn wishbone(p: &WishbonePoints, say: &mut Say<'_>) {
    lower_arm(p.lower_front, p.lower_rear, p.lower_outer, say);
    say.near(
        "points.upper_rear",
        gap(p.upper_front, p.upper_rear),
        "the upper arm's two pivots are one point",
    );
    say.near("points.upper_outer", gap(p.upper_outer, p.lower_outer), "the two ball joints are one point");
    say.flat(
        "points.upper_outer",
        off_line(p.upper_outer, p.upper_front, p.upper_rear),
        "the upper loop does not close: its ball joint lies on the pivot axis",
    );
    tie_rod(p.tie_inner, p.tie_outer, [p.lower_outer, p.upper_outer], say);
    say.above(
        "points.upper_outer",
        p.upper_outer,
        p.lower_outer,
        "the upper ball joint is not above the lower one",
        "z above the lower ball joint's",
    );
}

fn strut(p: &StrutPoints, say: &mut Say<'_>) {
    lower_arm(p.lower_front, p.lower_rear, p.lower_outer, say);
    say.near("points.strut_bottom", gap(p.strut_top, p.strut_bottom), "the strut has no length");
    tie_rod(p.tie_inner, p.tie_outer, [p.lower_outer, p.strut_top], say);
    say.above(
        "points.strut_top",
        p.strut_top,
        p.lower_outer,
        "the strut's top is not above the lower ball joint",
        "z above the lower ball joint's",
    );
}

impl Geometry {
    /// A tyre that does not meet z = 0 within 1 mm, as a remark.
    #[must_use]
    pub fn remarks(&self) -> Vec<Said> {
        let w = &self.wheel;
        let spin = crate::wheel::spin_axis(w.camber_deg.to_radians(), w.toe_deg.to_radians());
        let z = crate::wheel::contact_point(&Vec3::from(w.center), &spin, w.loaded_radius_mm).z;
        if z.abs() > 1.0 { vec![said("remark-off-ground").fine_mm("z", z)] } else { Vec::new() }
    }
}
