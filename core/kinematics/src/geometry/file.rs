//! The file as it is written: which fields each layout has, and back.

use super::points::{
    ArmPoints, AxleLink, AxlePoints, BeamPoints, FiveLinkPoints, Layout, Point, Points, Rod, SteeringAxis,
    StrutPoints, WishbonePoints,
};
use super::{Axle, Geometry, OtherSide, WheelAtDesign};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// One link: `inner`/`outer` of a rod, `chassis`/`axle` of a solid axle's link.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct LinkFile {
    /// Joint on the body of a five-link rod, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub inner: Option<[f64; 3]>,
    /// Joint on the knuckle of a five-link rod, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub outer: Option<[f64; 3]>,
    /// Joint on the body of a solid axle's link, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub chassis: Option<[f64; 3]>,
    /// Joint on the axle, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub axle: Option<[f64; 3]>,
}

/// Both ends of a tie rod.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TieRodFile {
    /// Left end, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub left: [f64; 3],
    /// Right end, y negative, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub right: [f64; 3],
}

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

/// Takes points out of a file by name; what is left over was unknown.
struct Named {
    at: String,
    map: BTreeMap<String, Point>,
}

impl Named {
    fn new(at: &str, map: Option<BTreeMap<String, Point>>) -> Self {
        Self { at: format!("{at}points"), map: map.unwrap_or_default() }
    }

    fn take(&mut self, name: &str) -> Result<Point, Problem> {
        self.map.remove(name).ok_or_else(|| {
            Problem::new(
                format!("{}.{name}", self.at),
                said("fault-this-point-missing"),
                said("fault-x-y-z-mm"),
            )
        })
    }

    fn nothing_left(&self, known: &str) -> Result<(), Problem> {
        match self.map.keys().next() {
            Some(k) => Err(Problem::new(
                format!("{}.{k}", self.at),
                said("fault-unknown-field-this-layout-no"),
                known,
            )),
            None => Ok(()),
        }
    }
}

fn no_links(at: &str, links: Option<&BTreeMap<String, LinkFile>>) -> Result<(), Problem> {
    match links {
        Some(_) => Err(Problem::new(
            format!("{at}links"),
            said("fault-unknown-field-this-layout-points"),
            said("fault-points"),
        )),
        None => Ok(()),
    }
}

fn ends(field: &str, l: &LinkFile, axle: bool) -> Result<(Point, Point), Problem> {
    let (a, b, x, y, right) = if axle {
        (l.chassis, l.axle, l.inner, l.outer, "\"chassis\" and \"axle\", each [x, y, z] in mm")
    } else {
        (l.inner, l.outer, l.chassis, l.axle, "\"inner\" and \"outer\", each [x, y, z] in mm")
    };
    match (a, b, x, y) {
        (Some(a), Some(b), None, None) => Ok((a, b)),
        _ => Err(Problem::new(field, said("fault-two-ends-this-link-not"), right)),
    }
}

/// Most links a file may have; more is a mistake and would cost time.
const MOST_LINKS: usize = 12;

fn points_of(
    at: &str,
    layout: Layout,
    points: Option<BTreeMap<String, Point>>,
    links: Option<BTreeMap<String, LinkFile>>,
) -> Result<Points, Problem> {
    let mut p = Named::new(at, points);
    Ok(match layout {
        Layout::DoubleWishbone => {
            no_links(at, links.as_ref())?;
            let w = WishbonePoints {
                lower_front: p.take("lower_front")?,
                lower_rear: p.take("lower_rear")?,
                lower_outer: p.take("lower_outer")?,
                upper_front: p.take("upper_front")?,
                upper_rear: p.take("upper_rear")?,
                upper_outer: p.take("upper_outer")?,
                tie_inner: p.take("tie_inner")?,
                tie_outer: p.take("tie_outer")?,
            };
            p.nothing_left(
                "lower_front, lower_rear, lower_outer, upper_front, upper_rear, upper_outer, tie_inner, tie_outer",
            )?;
            Points::DoubleWishbone(w)
        }
        Layout::Strut => {
            no_links(at, links.as_ref())?;
            let s = StrutPoints {
                lower_front: p.take("lower_front")?,
                lower_rear: p.take("lower_rear")?,
                lower_outer: p.take("lower_outer")?,
                strut_top: p.take("strut_top")?,
                strut_bottom: p.take("strut_bottom")?,
                tie_inner: p.take("tie_inner")?,
                tie_outer: p.take("tie_outer")?,
            };
            p.nothing_left(
                "lower_front, lower_rear, lower_outer, strut_top, strut_bottom, tie_inner, tie_outer",
            )?;
            Points::Strut(s)
        }
        Layout::SingleArm => {
            no_links(at, links.as_ref())?;
            let a = ArmPoints { arm_inner: p.take("arm_inner")?, arm_outer: p.take("arm_outer")? };
            p.nothing_left("arm_inner, arm_outer")?;
            Points::SingleArm(a)
        }
        Layout::TwistBeam => {
            no_links(at, links.as_ref())?;
            let pivot_left = p.take("pivot_left")?;
            let pivot_right = p.take("pivot_right")?;
            let shear_center = p.map.remove("shear_center").map(|s| [s[0], s[2]]);
            p.nothing_left("pivot_left, pivot_right, shear_center")?;
            Points::TwistBeam(BeamPoints { pivot_left, pivot_right, shear_center })
        }
        Layout::FiveLink => {
            p.nothing_left("\"links\" instead of points")?;
            let links = links.unwrap_or_default();
            if links.len() != 5 {
                return Err(Problem::new(
                    format!("{at}links"),
                    format!("{} links", links.len()),
                    said("fault-exactly-five-each-inner-outer"),
                ));
            }
            let mut rods = Vec::with_capacity(5);
            for (name, l) in links {
                let (inner, outer) = ends(&format!("{at}links.{name}"), &l, false)?;
                rods.push(Rod { name, inner, outer });
            }
            Points::FiveLink(FiveLinkPoints { rods })
        }
        Layout::SolidAxle => {
            p.nothing_left("\"links\" instead of points")?;
            let mut links = links.unwrap_or_default();
            let mut drag_link = None;
            if let Some(l) = links.remove("drag_link") {
                let (chassis, axle) = ends(&format!("{at}links.drag_link"), &l, true)?;
                drag_link = Some(AxleLink { name: "drag_link".into(), chassis, axle });
            }
            let mut tie_rod = None;
            if let Some(l) = links.remove("tie_rod") {
                // Both ends ride on the axle: it steers, it does not locate.
                let (left, right) = ends(&format!("{at}links.tie_rod"), &l, true)?;
                tie_rod = Some([left, right]);
            }
            if !(4..=MOST_LINKS).contains(&links.len()) {
                return Err(Problem::new(
                    format!("{at}links"),
                    format!("{} links locate the axle", links.len()),
                    said("fault-four-twelve-lower-left-lower"),
                ));
            }
            let mut found = Vec::with_capacity(links.len());
            for (name, l) in links {
                let (chassis, axle) = ends(&format!("{at}links.{name}"), &l, true)?;
                found.push(AxleLink { name, chassis, axle });
            }
            Points::SolidAxle(AxlePoints { links: found, steering_axis: None, drag_link, tie_rod })
        }
    })
}

fn only_for(layout: Layout, wanted: Layout, there: bool, field: &str) -> Result<(), Problem> {
    if there && layout != wanted {
        return Err(Problem::new(
            field,
            format!("unknown field: a {} has none", layout.word()),
            format!("leave it out, or \"layout\": \"{}\"", wanted.word()),
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
        let mut points = points_of("", f.layout, f.points, f.links)?;
        if let Points::SolidAxle(a) = &mut points {
            a.steering_axis = f.steering_axis;
            if let Some(l) = &f.drag_link {
                let (chassis, axle) = ends("drag_link", l, true)?;
                a.drag_link = Some(AxleLink { name: "drag_link".into(), chassis, axle });
            }
            a.tie_rod = f.tie_rod.map(|t| [t.left, t.right]).or(a.tie_rod);
        }
        if let Points::TwistBeam(b) = &mut points {
            b.shear_center = f.shear_center.or(b.shear_center);
        }
        let right = match f.right {
            Some(_) if f.layout.is_whole_axle() => {
                return Err(Problem::new(
                    "right",
                    said("fault-unknown-field-this-layout-holds"),
                    said("fault-points-right-side-under-their"),
                ));
            }
            Some(s) => {
                Some(OtherSide { points: points_of("right.", f.layout, s.points, s.links)?, wheel: s.wheel })
            }
            None => None,
        };
        Ok(Self { format: f.format, name: f.name, axle: f.axle, points, wheel: f.wheel, right, note: f.note })
    }
}

type Maps = (Option<BTreeMap<String, Point>>, Option<BTreeMap<String, LinkFile>>);

fn maps_of(points: &Points) -> Maps {
    match points {
        Points::FiveLink(f) => {
            let rod =
                |r: &Rod| LinkFile { inner: Some(r.inner), outer: Some(r.outer), chassis: None, axle: None };
            (None, Some(f.rods.iter().map(|r| (r.name.clone(), rod(r))).collect()))
        }
        Points::SolidAxle(a) => {
            (None, Some(a.links.iter().map(|l| (l.name.clone(), axle_link(l))).collect()))
        }
        _ => {
            let map = points.named().into_iter();
            (Some(map.map(|(n, p)| (n.trim_start_matches("points.").to_owned(), p)).collect()), None)
        }
    }
}

fn axle_link(l: &AxleLink) -> LinkFile {
    LinkFile { inner: None, outer: None, chassis: Some(l.chassis), axle: Some(l.axle) }
}

impl From<Geometry> for GeometryFile {
    fn from(g: Geometry) -> Self {
        let (points, links) = maps_of(&g.points);
        let mut out = Self {
            format: g.format,
            name: g.name,
            layout: g.points.layout(),
            axle: g.axle,
            points,
            links,
            wheel: g.wheel,
            steering_axis: None,
            drag_link: None,
            tie_rod: None,
            shear_center: None,
            right: g.right.map(|r| {
                let (points, links) = maps_of(&r.points);
                SideFile { points, links, wheel: r.wheel }
            }),
            note: g.note,
        };
        match g.points {
            Points::SolidAxle(a) => {
                out.steering_axis = a.steering_axis;
                out.drag_link = a.drag_link.as_ref().map(axle_link);
                out.tie_rod = a.tie_rod.map(|[left, right]| TieRodFile { left, right });
            }
            Points::TwistBeam(b) => out.shear_center = b.shear_center,
            _ => {}
        }
        out
    }
}
