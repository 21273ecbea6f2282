//! The geometry file `bold-stance.geometry/1`, its double-wishbone part, and what is wrong with one.

use crate::Vec3;
use crate::problem::{Problem, in_range, parse_json};
use crate::wheel::{contact_point, spin_axis};
use serde::{Deserialize, Serialize};

/// The format word of a geometry file.
pub const FORMAT: &str = "bold-stance.geometry/1";

/// The eight points of a double wishbone, left side, mm: x forward, y left (outboard), z up from the ground.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct WishbonePoints {
    /// Lower arm, front pivot.
    pub lower_front: [f64; 3],
    /// Lower arm, rear pivot.
    pub lower_rear: [f64; 3],
    /// Lower ball joint.
    pub lower_outer: [f64; 3],
    /// Upper arm, front pivot.
    pub upper_front: [f64; 3],
    /// Upper arm, rear pivot.
    pub upper_rear: [f64; 3],
    /// Upper ball joint.
    pub upper_outer: [f64; 3],
    /// Tie rod, inner joint.
    pub tie_inner: [f64; 3],
    /// Tie rod, outer joint.
    pub tie_outer: [f64; 3],
}

impl WishbonePoints {
    /// Name and value of each point, in the order of the file.
    #[must_use]
    pub fn named(&self) -> [(&'static str, [f64; 3]); 8] {
        [
            ("lower_front", self.lower_front),
            ("lower_rear", self.lower_rear),
            ("lower_outer", self.lower_outer),
            ("upper_front", self.upper_front),
            ("upper_rear", self.upper_rear),
            ("upper_outer", self.upper_outer),
            ("tie_inner", self.tie_inner),
            ("tie_outer", self.tie_outer),
        ]
    }
}

/// The wheel at design height.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct WheelAtDesign {
    /// Wheel centre, mm.
    pub center: [f64; 3],
    /// Degrees, top out positive.
    pub camber_deg: f64,
    /// Degrees per wheel, toe-in positive.
    pub toe_deg: f64,
    /// Wheel centre above the ground, mm.
    pub loaded_radius_mm: f64,
}

/// The other side of an asymmetric car, in the same left-hand coordinates as the file.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct OtherSide {
    /// Points of the right side, mirrored to the left.
    pub points: WishbonePoints,
    /// Wheel of the right side, mirrored to the left.
    pub wheel: WheelAtDesign,
}

/// Layouts the model solves.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Layout {
    /// Two triangular arms, knuckle, tie rod.
    DoubleWishbone,
}

/// Front or rear.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, Default)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Axle {
    /// Steered axle at x = 0.
    #[default]
    Front,
    /// The other one.
    Rear,
}

/// A geometry file for one axle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Geometry {
    /// Always `bold-stance.geometry/1`.
    pub format: String,
    /// What the axle is called.
    pub name: String,
    /// How it is built.
    pub layout: Layout,
    /// Front when absent.
    #[serde(default)]
    pub axle: Axle,
    /// Left points.
    pub points: WishbonePoints,
    /// Left wheel.
    pub wheel: WheelAtDesign,
    /// Only for asymmetric cars.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub right: Option<OtherSide>,
    /// Free remark.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

impl Geometry {
    /// Reads a file.
    ///
    /// # Errors
    /// The first [`Problem`], with the path of the field.
    pub fn from_json(text: &[u8]) -> Result<Self, Problem> {
        let g: Self = parse_json(text)?;
        match g.problems().into_iter().next() {
            Some(p) => Err(p),
            None => Ok(g),
        }
    }

    /// Everything wrong that can be seen without moving the linkage; empty when it is usable.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.format != FORMAT {
            out.push(Problem::new("format", format!("\"{}\"", self.format), format!("\"{FORMAT}\"")));
        }
        if self.name.chars().count() > 120 {
            out.push(Problem::new("name", "longer than 120 characters", "a shorter name"));
        }
        points_problems("", &self.points, &self.wheel, &mut out);
        if let Some(r) = &self.right {
            points_problems("right.", &r.points, &r.wheel, &mut out);
        }
        out
    }

    /// Remarks that do not stop the work: contact point off the ground by more than 1 mm.
    #[must_use]
    pub fn remarks(&self) -> Vec<String> {
        let w = &self.wheel;
        let spin = spin_axis(w.camber_deg.to_radians(), w.toe_deg.to_radians());
        let z = contact_point(&Vec3::from(w.center), &spin, w.loaded_radius_mm).z;
        if z.abs() > 1.0 {
            vec![format!(
                "wheel: the tyre meets z = {z:.1} mm, not the ground at 0; heights count from z = 0"
            )]
        } else {
            Vec::new()
        }
    }
}

fn gap(a: [f64; 3], b: [f64; 3]) -> f64 {
    (Vec3::from(a) - Vec3::from(b)).norm()
}

fn off_line(p: [f64; 3], a: [f64; 3], b: [f64; 3]) -> f64 {
    let axis = Vec3::from(b) - Vec3::from(a);
    axis.cross(&(Vec3::from(p) - Vec3::from(a))).norm() / axis.norm().max(1e-9)
}

fn points_problems(at: &str, p: &WishbonePoints, w: &WheelAtDesign, out: &mut Vec<Problem>) {
    let before = out.len();
    let mut check = |r: Result<(), Problem>| out.extend(r.err());
    for (name, v) in p.named() {
        for (axis, c) in ["x", "y", "z"].iter().zip(v) {
            let low = if *axis == "x" { -6000.0 } else { -50.0 };
            check(in_range(&format!("{at}points.{name}.{axis}"), c, low, 6000.0, "mm"));
        }
    }
    for (axis, c) in ["x", "y", "z"].iter().zip(w.center) {
        let low = if *axis == "x" { -6000.0 } else { 50.0 };
        check(in_range(&format!("{at}wheel.center.{axis}"), c, low, 6000.0, "mm"));
    }
    check(in_range(&format!("{at}wheel.camber_deg"), w.camber_deg, -20.0, 20.0, "°"));
    check(in_range(&format!("{at}wheel.toe_deg"), w.toe_deg, -20.0, 20.0, "°"));
    check(in_range(&format!("{at}wheel.loaded_radius_mm"), w.loaded_radius_mm, 100.0, 1000.0, "mm"));
    if out.len() > before {
        return;
    }
    let mut say = |field: &str, wrong: &str, right: &str| {
        out.push(Problem::new(format!("{at}points.{field}"), wrong, right));
    };
    let apart = [
        ("lower_rear", gap(p.lower_front, p.lower_rear), "the lower arm's two pivots are one point"),
        ("upper_rear", gap(p.upper_front, p.upper_rear), "the upper arm's two pivots are one point"),
        ("upper_outer", gap(p.upper_outer, p.lower_outer), "the two ball joints are one point"),
        ("tie_outer", gap(p.tie_inner, p.tie_outer), "the tie rod has no length"),
    ];
    for (field, d, wrong) in apart {
        if d < 20.0 {
            say(field, wrong, "at least 20 mm between them");
        }
    }
    let triangles = [
        (
            "lower_outer",
            off_line(p.lower_outer, p.lower_front, p.lower_rear),
            "the lower loop does not close: its ball joint lies on the pivot axis",
        ),
        (
            "upper_outer",
            off_line(p.upper_outer, p.upper_front, p.upper_rear),
            "the upper loop does not close: its ball joint lies on the pivot axis",
        ),
        (
            "tie_outer",
            off_line(p.tie_outer, p.lower_outer, p.upper_outer),
            "the tie-rod loop does not close: its joint lies on the steering axis, so it cannot steer",
        ),
    ];
    for (field, d, wrong) in triangles {
        if d < 20.0 {
            say(field, wrong, "a point at least 20 mm off that line");
        }
    }
    if p.upper_outer[2] <= p.lower_outer[2] {
        say(
            "upper_outer",
            "the upper ball joint is not above the lower one",
            "z above the lower ball joint's",
        );
    }
}

#[cfg(test)]
pub(crate) mod tests {
    use super::*;

    /// An invented wishbone used by unit tests.
    pub(crate) fn sample() -> Geometry {
        Geometry::from_json(include_bytes!("../tests/cases/sample_wishbone.json")).unwrap()
    }

    #[test]
    fn unknown_fields_and_wrong_layouts_are_refused_by_path() {
        let text = include_str!("../tests/cases/sample_wishbone.json");
        let p = Geometry::from_json(text.replace("\"name\"", "\"nmae\"").as_bytes()).unwrap_err();
        assert!(p.wrong.contains("nmae"), "{p}");
        let p = Geometry::from_json(text.replace("double_wishbone", "dobule").as_bytes()).unwrap_err();
        assert_eq!(p.field, "layout");
        let p = Geometry::from_json(&text.as_bytes()[..60]).unwrap_err();
        assert!(!p.wrong.is_empty());
    }

    #[test]
    fn impossible_points_name_the_loop_and_field() {
        let mut g = sample();
        g.points.tie_outer = g.points.lower_outer;
        assert_eq!(g.problems()[0].field, "points.tie_outer");
        let mut g = sample();
        g.points.upper_outer[2] = f64::NAN;
        assert_eq!(g.problems()[0].field, "points.upper_outer.z");
        let mut g = sample();
        g.points.lower_outer[1] = 12_345_678_901.0;
        assert_eq!(g.problems()[0].field, "points.lower_outer.y");
        let mut g = sample();
        let mid = |i: usize| (g.points.upper_front[i] + g.points.upper_rear[i]) / 2.0;
        g.points.upper_outer = [mid(0), mid(1), mid(2)];
        assert!(g.problems().iter().any(|p| p.wrong.contains("upper loop")));
    }

    #[test]
    fn a_floating_tyre_is_a_remark() {
        let mut g = sample();
        assert!(g.remarks().is_empty());
        g.wheel.center[2] += 5.0;
        assert_eq!(g.remarks().len(), 1);
    }
}
