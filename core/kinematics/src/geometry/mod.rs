//! The geometry of one axle: hardpoints by layout, the file they come in, and what is wrong with one.

pub(crate) mod basics;
mod checks;
mod file;
pub(crate) mod parts;
mod points;
pub(crate) mod say;

pub use crate::layout::{
    ArmPoints, AxleLink, AxlePoints, BeamPoints, FiveLinkPoints, Measure, OnIt, Rod, StrutPoints,
    WishbonePoints,
};
pub use basics::{Layout, Point, SteeringAxis, WheelAtDesign};
pub use file::{GeometryFile, SideFile};
pub use parts::{LinkFile, TieRodFile};
pub use points::Points;

use bold_stance_units::problem::{Problem, located, parse_json};
use bold_stance_units::said::said;
use serde::{Deserialize, Deserializer, Serialize, Serializer};

/// The format word of a geometry file.
pub const FORMAT: &str = "bold-stance.geometry/1";

/// The other side of an asymmetric car, in the same left-hand coordinates as the file.
#[derive(Debug, Clone, PartialEq)]
pub struct OtherSide {
    /// Points of the right side, mirrored to the left.
    pub points: Points,
    /// Wheel of the right side, mirrored to the left.
    pub wheel: WheelAtDesign,
}

/// Front or rear.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize, Default)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Axle {
    /// Steered axle at x = 0.
    #[default]
    Front,
    /// The other one.
    Rear,
}

impl Axle {
    /// `front` or `rear`.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Front => "front",
            Self::Rear => "rear",
        }
    }
}

/// Left or right of the vehicle.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Side {
    /// y positive.
    Left,
    /// y negative.
    Right,
}

impl Side {
    /// Both, left first.
    pub const BOTH: [Self; 2] = [Self::Left, Self::Right];

    /// The other one.
    #[must_use]
    pub fn other(self) -> Self {
        match self {
            Self::Left => Self::Right,
            Self::Right => Self::Left,
        }
    }

    /// `left` or `right`.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Left => "left",
            Self::Right => "right",
        }
    }
}

/// One axle, as [`GeometryFile`] writes it.
#[derive(Debug, Clone, PartialEq)]
pub struct Geometry {
    /// Always `bold-stance.geometry/1`.
    pub format: String,
    /// What the axle is called.
    pub name: String,
    /// Front or rear.
    pub axle: Axle,
    /// Left points (points of both sides for a whole axle).
    pub points: Points,
    /// Left wheel.
    pub wheel: WheelAtDesign,
    /// Only for asymmetric cars.
    pub right: Option<OtherSide>,
    /// Free remark.
    pub note: Option<String>,
}

impl<'de> Deserialize<'de> for Geometry {
    fn deserialize<D: Deserializer<'de>>(d: D) -> Result<Self, D::Error> {
        let f = GeometryFile::deserialize(d)?;
        Self::try_from(f).map_err(|p| serde::de::Error::custom(located(&p)))
    }
}

impl Serialize for Geometry {
    fn serialize<S: Serializer>(&self, s: S) -> Result<S::Ok, S::Error> {
        GeometryFile::from(self.clone()).serialize(s)
    }
}

#[cfg(feature = "openapi")]
impl utoipa::PartialSchema for Geometry {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::schema::Schema> {
        GeometryFile::schema()
    }
}

#[cfg(feature = "openapi")]
impl utoipa::ToSchema for Geometry {
    fn name() -> std::borrow::Cow<'static, str> {
        "Geometry".into()
    }
    fn schemas(out: &mut Vec<(String, utoipa::openapi::RefOr<utoipa::openapi::schema::Schema>)>) {
        GeometryFile::schemas(out);
    }
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
            out.push(Problem::new(
                "format",
                said("fault-quoted").name("value", self.format.clone()),
                said("fault-quoted").name("value", FORMAT),
            ));
        }
        if self.name.chars().count() > 120 {
            out.push(Problem::new(
                "name",
                said("fault-longer-than-120-characters"),
                said("fault-shorter-name"),
            ));
        }
        checks::side_problems("", &self.points, &self.wheel, &mut out);
        if let Some(r) = &self.right {
            checks::side_problems("right.", &r.points, &r.wheel, &mut out);
        }
        out
    }

    /// How it is built.
    #[must_use]
    pub fn layout(&self) -> Layout {
        self.points.layout()
    }

    /// Points and wheel of a side, in left-hand coordinates.
    #[must_use]
    pub fn side(&self, side: Side) -> (Points, WheelAtDesign) {
        match (side, &self.right) {
            (Side::Left, _) => (self.points.clone(), self.wheel.clone()),
            (Side::Right, Some(r)) => (r.points.clone(), r.wheel.clone()),
            (Side::Right, None) => (self.points.other_side(), self.wheel.clone()),
        }
    }
}

#[cfg(test)]
pub(crate) mod tests {
    use super::*;

    /// An invented wishbone used by unit tests.
    pub(crate) fn sample() -> Geometry {
        Geometry::from_json(include_bytes!("../../tests/cases/sample_wishbone.json")).unwrap()
    }

    #[test]
    fn unknown_fields_and_wrong_layouts_are_refused_by_path() {
        let text = include_str!("../../tests/cases/sample_wishbone.json");
        let p = Geometry::from_json(text.replace("\"name\"", "\"nmae\"").as_bytes()).unwrap_err();
        assert!(p.wrong.bare().contains("nmae"), "{p}");
        let p = Geometry::from_json(text.replace("double_wishbone", "dobule").as_bytes()).unwrap_err();
        assert_eq!(p.field, "layout");
        let p = Geometry::from_json(&text.as_bytes()[..60]).unwrap_err();
        assert!(!p.wrong.bare().is_empty());
    }

    #[test]
    fn impossible_points_name_the_loop_and_field() {
        let fault = |change: &dyn Fn(&mut WishbonePoints)| {
            let mut g = sample();
            let Points::DoubleWishbone(p) = &mut g.points else { panic!("a wishbone") };
            change(p);
            g.problems()[0].clone()
        };
        assert_eq!(fault(&|p| p.tie_outer = p.lower_outer).field, "points.tie_outer");
        assert_eq!(fault(&|p| p.upper_outer[2] = f64::NAN).field, "points.upper_outer.z");
        assert_eq!(fault(&|p| p.lower_outer[1] = 12_345_678_901.0).field, "points.lower_outer.y");
        let flat = fault(&|p| {
            for i in 0..3 {
                p.upper_outer[i] = f64::midpoint(p.upper_front[i], p.upper_rear[i]);
            }
        });
        assert_eq!(flat.wrong.bare(), "fault-upper-open", "{flat}");
    }

    #[test]
    fn a_layout_has_its_own_points_and_says_which_is_missing() {
        let text = include_str!("../../tests/cases/sample_wishbone.json");
        let p = Geometry::from_json(text.replace("upper_outer", "upper_otuer").as_bytes()).unwrap_err();
        assert_eq!(p.field, "points.upper_outer");
        let p = Geometry::from_json(text.replace("double_wishbone", "strut").as_bytes()).unwrap_err();
        assert_eq!(p.field, "points.strut_top");
        let p = Geometry::from_json(text.replace("double_wishbone", "five_link").as_bytes()).unwrap_err();
        assert!(p.field.starts_with("points.") && p.right.bare().contains("links"), "{p}");
        let nested = format!("{{\"geometry\":{}}}", text.replace("upper_outer", "upper_otuer"));
        #[derive(Debug, Deserialize)]
        struct Holder {
            #[allow(dead_code)]
            geometry: Geometry,
        }
        let p = parse_json::<Holder>(nested.as_bytes()).unwrap_err();
        assert_eq!(p.field, "geometry.points.upper_outer");
    }

    #[test]
    fn steering_parts_among_the_links_locate_nothing() {
        let text = include_str!("../../../../reference/geometries/axle_track_bar.json");
        let plain = Geometry::from_json(text.as_bytes()).unwrap();
        let more = text.replacen(
            "\"track_bar\"",
            "\"drag_link\":{\"chassis\":[120,400,560],\"axle\":[140,-560,430]},
             \"tie_rod\":{\"chassis\":[-150,700,380],\"axle\":[-150,-700,380]},\"track_bar\"",
            1,
        );
        let g = Geometry::from_json(more.as_bytes()).unwrap();
        let (Points::SolidAxle(a), Points::SolidAxle(b)) = (&plain.points, &g.points) else {
            panic!("axles")
        };
        assert_eq!(a.links, b.links);
        assert!(b.drag_link.is_some() && b.tie_rod.is_some());
    }

    #[test]
    fn a_shear_centre_is_read_in_its_usual_forms() {
        let text = include_str!("../../../../reference/geometries/beam_twist.json");
        let mut v: serde_json::Value = serde_json::from_str(text).unwrap();
        let read = |v: &serde_json::Value| Geometry::from_json(v.to_string().as_bytes());
        let plain = read(&v).unwrap();
        for form in [serde_json::json!([-2301, 0, 341]), serde_json::json!({"x": -2301, "z": 341})] {
            v["shear_center"] = form;
            assert_eq!(read(&v).unwrap(), plain);
        }
        v["shear_center"] = serde_json::json!("low");
        assert_eq!(read(&v).unwrap_err().field, "shear_center");
    }

    #[test]
    fn a_file_written_is_the_file_read() {
        let g = sample();
        let text = serde_json::to_vec(&g).unwrap();
        assert_eq!(Geometry::from_json(&text).unwrap(), g);
    }

    #[test]
    fn a_floating_tyre_is_a_remark() {
        let mut g = sample();
        assert!(g.remarks().is_empty());
        g.wheel.center[2] += 5.0;
        assert_eq!(g.remarks().len(), 1);
    }
}
