//! Faults of points that can be seen without moving them: joints too near, arms too flat.

use super::basics::Point;
use crate::Vec3;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

pub(crate) fn gap(a: Point, b: Point) -> f64 {
    (Vec3::from(a) - Vec3::from(b)).norm()
}

pub(crate) fn off_line(p: Point, a: Point, b: Point) -> f64 {
    let axis = Vec3::from(b) - Vec3::from(a);
    axis.cross(&(Vec3::from(p) - Vec3::from(a))).norm() / axis.norm().max(1e-9)
}

/// Shortest distance that two joints of one part may have, mm.
const APART: f64 = 20.0;

pub(crate) struct Say<'a> {
    pub(crate) at: &'a str,
    pub(crate) out: &'a mut Vec<Problem>,
}

impl Say<'_> {
    pub(crate) fn near(&mut self, field: &str, distance: f64, wrong: &'static str) {
        if distance < APART {
            let field = format!("{}{field}", self.at);
            self.out.push(Problem::new(field, said(wrong), said("fault-apart").mm("by", APART)));
        }
    }
    pub(crate) fn flat(&mut self, field: &str, distance: f64, wrong: &'static str) {
        if distance < APART {
            let field = format!("{}{field}", self.at);
            self.out.push(Problem::new(field, said(wrong), said("fault-off-line").mm("by", APART)));
        }
    }
    pub(crate) fn above(
        &mut self,
        field: &str,
        upper: Point,
        lower: Point,
        wrong: &'static str,
        right: &'static str,
    ) {
        if upper[2] <= lower[2] {
            self.out.push(Problem::new(format!("{}{field}", self.at), said(wrong), said(right)));
        }
    }
}

pub(crate) fn lower_arm(front: Point, rear: Point, joint: Point, say: &mut Say<'_>) {
    say.near("points.lower_rear", gap(front, rear), "fault-lower-pivots-one");
    say.flat("points.lower_outer", off_line(joint, front, rear), "fault-lower-open");
}

pub(crate) fn tie_rod(inner: Point, outer: Point, axis: [Point; 2], say: &mut Say<'_>) {
    say.near("points.tie_outer", gap(inner, outer), "fault-tie-no-length");
    say.flat("points.tie_outer", off_line(outer, axis[0], axis[1]), "fault-tie-open");
}
