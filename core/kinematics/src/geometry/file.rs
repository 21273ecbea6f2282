//! The file as it is written: which fields each layout has, and back.

use super::basics::{Layout, Point, SteeringAxis, WheelAtDesign};
use super::parts::{FileParts, LinkFile, TieRodFile};
use super::points::Points;
use super::{Axle, Geometry, OtherSide};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// The right side of an asymmetric car, in the same left-hand coordinates as the file.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SideFile {
    /// Points by name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub points: Option<BTreeMap<String, [f64; 3]>>,
    /// Links by name.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub links: Option<BTreeMap<String, LinkFile>>,
    /// Wheel of this side.
    pub wheel: WheelAtDesign,
}

/// A geometry file `bold-stance.geometry/1` for one axle. Which points or links it must have depends on
/// `layout`; lengths in mm from the centre line, the front axle and the ground at design height.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[cfg_attr(feature = "openapi", schema(as = Geometry))]
#[serde(deny_unknown_fields)]
pub struct GeometryFile {
    /// Always `bold-stance.geometry/1`.
    pub format: String,
    /// What the axle is called.
    pub name: String,
    /// How it is built.
    pub layout: Layout,
    /// Front when absent.
    #[serde(default)]
    pub axle: Axle,
    /// Points by name (every layout but `five_link` and `solid_axle`).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub points: Option<BTreeMap<String, [f64; 3]>>,
    /// Links by name (`five_link`, `solid_axle`).
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub links: Option<BTreeMap<String, LinkFile>>,
    /// Left wheel.
    pub wheel: WheelAtDesign,
    /// Kingpins of a steered solid axle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub steering_axis: Option<SteeringAxis>,
    /// Drag link of a solid axle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub drag_link: Option<LinkFile>,
    /// Tie rod of a solid axle.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tie_rod: Option<TieRodFile>,
    /// x and z of a twist beam's shear centre, mm (also read: [x, y, z], and {"x": .., "z": ..}).
    #[serde(
        default,
        alias = "shear_centre",
        skip_serializing_if = "Option::is_none",
        deserialize_with = "shear_center"
    )]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub shear_center: Option<[f64; 2]>,
    /// Only for asymmetric cars.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub right: Option<SideFile>,
    /// Free remark.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// The ways a shear centre is written.
#[derive(Deserialize)]
#[serde(untagged)]
enum ShearCenter {
    Flat([f64; 2]),
    Point(Point),
    Named { x: f64, z: f64 },
}

fn shear_center<'de, D: serde::Deserializer<'de>>(d: D) -> Result<Option<[f64; 2]>, D::Error> {
    let read = ShearCenter::deserialize(d)
        .map_err(|_| serde::de::Error::custom("not [x, z] of the beam's shear centre in mm"))?;
    Ok(Some(match read {
        ShearCenter::Flat(p) => p,
        ShearCenter::Point([x, _, z]) | ShearCenter::Named { x, z } => [x, z],
    }))
}

fn only_for(layout: Layout, wanted: Layout, there: bool, field: &str) -> Result<(), Problem> {
    if there && layout != wanted {
        return Err(Problem::new(
            field,
            said("fault-layout-has-none").name("layout", layout.word()),
            said("fault-leave-out-or").name("layout", wanted.word()),
        ));
    }
    Ok(())
}

impl TryFrom<GeometryFile> for Geometry {
    type Error = Problem;

    fn try_from(f: GeometryFile) -> Result<Self, Problem> {
        only_for(f.layout, Layout::SolidAxle, f.steering_axis.is_some(), "steering_axis")?;
        only_for(f.layout, Layout::SolidAxle, f.drag_link.is_some(), "drag_link")?;
        only_for(f.layout, Layout::SolidAxle, f.tie_rod.is_some(), "tie_rod")?;
        only_for(f.layout, Layout::TwistBeam, f.shear_center.is_some(), "shear_center")?;
        let parts = FileParts {
            points: f.points,
            links: f.links,
            steering_axis: f.steering_axis,
            drag_link: f.drag_link,
            tie_rod: f.tie_rod,
            shear_center: f.shear_center,
        };
        let points = Points::read("", f.layout, parts)?;
        let right = match f.right {
            Some(_) if f.layout.is_whole_axle() => {
                return Err(Problem::new(
                    "right",
                    said("fault-unknown-field-this-layout-holds"),
                    said("fault-points-right-side-under-their"),
                ));
            }
            Some(s) => {
                let parts = FileParts { points: s.points, links: s.links, ..FileParts::default() };
                Some(OtherSide { points: Points::read("right.", f.layout, parts)?, wheel: s.wheel })
            }
            None => None,
        };
        Ok(Self { format: f.format, name: f.name, axle: f.axle, points, wheel: f.wheel, right, note: f.note })
    }
}

impl From<Geometry> for GeometryFile {
    fn from(g: Geometry) -> Self {
        let parts = g.points.write();
        Self {
            format: g.format,
            name: g.name,
            layout: g.points.layout(),
            axle: g.axle,
            points: parts.points,
            links: parts.links,
            wheel: g.wheel,
            steering_axis: parts.steering_axis,
            drag_link: parts.drag_link,
            tie_rod: parts.tie_rod,
            shear_center: parts.shear_center,
            right: g.right.map(|r| {
                let parts = r.points.write();
                SideFile { points: parts.points, links: parts.links, wheel: r.wheel }
            }),
            note: g.note,
        }
    }
}
