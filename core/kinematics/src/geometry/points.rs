//! Hardpoints of one side of an axle, by layout. mm: x forward, y left (outboard), z up from the ground.

use serde::{Deserialize, Serialize};

/// A point in vehicle axes, mm.
pub type Point = [f64; 3];

/// Layouts the model solves.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Layout {
    /// Two triangular arms, knuckle, tie rod.
    DoubleWishbone,
    /// Lower arm, telescopic strut, tie rod.
    Strut,
    /// Five rods hold the knuckle.
    FiveLink,
    /// Trailing, semi-trailing or swing arm: one hinge.
    SingleArm,
    /// Both wheels on one rigid axle.
    SolidAxle,
    /// Two trailing arms joined by a beam that twists.
    TwistBeam,
}

impl Layout {
    /// Every layout, in the order they are offered.
    pub const ALL: [Self; 6] = [
        Self::DoubleWishbone,
        Self::Strut,
        Self::FiveLink,
        Self::SingleArm,
        Self::SolidAxle,
        Self::TwistBeam,
    ];

    /// The word in a geometry file.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::DoubleWishbone => "double_wishbone",
            Self::Strut => "strut",
            Self::FiveLink => "five_link",
            Self::SingleArm => "single_arm",
            Self::SolidAxle => "solid_axle",
            Self::TwistBeam => "twist_beam",
        }
    }

    /// Whether both wheels hang on one body, so that the file holds points of both sides.
    #[must_use]
    pub fn is_whole_axle(self) -> bool {
        matches!(self, Self::SolidAxle | Self::TwistBeam)
    }
}

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
    /// The rod a rack moves.
    #[must_use]
    pub fn tie(&self) -> Option<usize> {
        self.rods.iter().position(|r| r.name == "tie")
    }
}

/// A hinge on the body: the wheel turns about the line through both points.
#[derive(Debug, Clone, PartialEq)]
pub struct ArmPoints {
    /// Hinge, inboard end.
    pub arm_inner: Point,
    /// Hinge, outboard end.
    pub arm_outer: Point,
}

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

/// Inclination of the kingpins of a solid axle at design, degrees.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SteeringAxis {
    /// Top rearward positive.
    pub caster_deg: f64,
    /// Top inboard positive.
    pub sai_deg: f64,
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

/// A twist beam: the hinge points of both arms and where the beam twists.
#[derive(Debug, Clone, PartialEq)]
pub struct BeamPoints {
    /// Left hinge.
    pub pivot_left: Point,
    /// Right hinge, y negative.
    pub pivot_right: Point,
    /// x and z of the beam's shear centre; needed in roll only.
    pub shear_center: Option<[f64; 2]>,
}

/// Hardpoints of one side (of both for a whole axle).
#[derive(Debug, Clone, PartialEq)]
pub enum Points {
    /// Double wishbone.
    DoubleWishbone(WishbonePoints),
    /// Strut.
    Strut(StrutPoints),
    /// Five rods.
    FiveLink(FiveLinkPoints),
    /// One hinge.
    SingleArm(ArmPoints),
    /// Solid axle.
    SolidAxle(AxlePoints),
    /// Twist beam.
    TwistBeam(BeamPoints),
}

impl Points {
    /// Which layout these are.
    #[must_use]
    pub fn layout(&self) -> Layout {
        match self {
            Self::DoubleWishbone(_) => Layout::DoubleWishbone,
            Self::Strut(_) => Layout::Strut,
            Self::FiveLink(_) => Layout::FiveLink,
            Self::SingleArm(_) => Layout::SingleArm,
            Self::SolidAxle(_) => Layout::SolidAxle,
            Self::TwistBeam(_) => Layout::TwistBeam,
        }
    }

    /// The points of a double wishbone, when these are.
    #[must_use]
    pub fn wishbone(&self) -> Option<&WishbonePoints> {
        if let Self::DoubleWishbone(p) = self { Some(p) } else { None }
    }

    /// Every point, always in the same order.
    pub fn all_mut(&mut self) -> Vec<&mut Point> {
        match self {
            Self::DoubleWishbone(w) => vec![
                &mut w.lower_front,
                &mut w.lower_rear,
                &mut w.lower_outer,
                &mut w.upper_front,
                &mut w.upper_rear,
                &mut w.upper_outer,
                &mut w.tie_inner,
                &mut w.tie_outer,
            ],
            Self::Strut(s) => vec![
                &mut s.lower_front,
                &mut s.lower_rear,
                &mut s.lower_outer,
                &mut s.strut_top,
                &mut s.strut_bottom,
                &mut s.tie_inner,
                &mut s.tie_outer,
            ],
            Self::FiveLink(f) => f.rods.iter_mut().flat_map(|r| [&mut r.inner, &mut r.outer]).collect(),
            Self::SingleArm(a) => vec![&mut a.arm_inner, &mut a.arm_outer],
            Self::SolidAxle(a) => {
                let links = a.links.iter_mut().chain(a.drag_link.iter_mut());
                let mut out: Vec<&mut Point> = links.flat_map(|l| [&mut l.chassis, &mut l.axle]).collect();
                out.extend(a.tie_rod.iter_mut().flatten());
                out
            }
            Self::TwistBeam(b) => vec![&mut b.pivot_left, &mut b.pivot_right],
        }
    }

    /// Path of each point in the file and the part it belongs to (points of one part are measured from each
    /// other, so their errors go together), in the order of [`Points::all_mut`].
    #[must_use]
    pub fn names(&self) -> Vec<(String, u8)> {
        let plain = |list: &[(&str, u8)]| -> Vec<(String, u8)> {
            list.iter().map(|(n, g)| (format!("points.{n}"), *g)).collect()
        };
        match self {
            Self::DoubleWishbone(_) => plain(&[
                ("lower_front", 0),
                ("lower_rear", 0),
                ("lower_outer", 0),
                ("upper_front", 1),
                ("upper_rear", 1),
                ("upper_outer", 1),
                ("tie_inner", 2),
                ("tie_outer", 2),
            ]),
            Self::Strut(_) => plain(&[
                ("lower_front", 0),
                ("lower_rear", 0),
                ("lower_outer", 0),
                ("strut_top", 1),
                ("strut_bottom", 1),
                ("tie_inner", 2),
                ("tie_outer", 2),
            ]),
            Self::FiveLink(f) => f
                .rods
                .iter()
                .zip(0u8..)
                .flat_map(|(r, g)| ["inner", "outer"].map(|end| (format!("links.{}.{end}", r.name), g)))
                .collect(),
            Self::SingleArm(_) => plain(&[("arm_inner", 0), ("arm_outer", 0)]),
            Self::SolidAxle(a) => {
                let links = a.links.iter().chain(a.drag_link.iter()).zip(0u8..);
                let mut out: Vec<(String, u8)> = links
                    .flat_map(|(l, g)| ["chassis", "axle"].map(|end| (format!("links.{}.{end}", l.name), g)))
                    .collect();
                if a.tie_rod.is_some() {
                    out.extend([("tie_rod.left".to_owned(), 100), ("tie_rod.right".to_owned(), 100)]);
                }
                out
            }
            Self::TwistBeam(_) => plain(&[("pivot_left", 0), ("pivot_right", 0)]),
        }
    }

    /// [`Points::names`] and [`Points::all_mut`] side by side.
    pub fn named_mut(&mut self) -> Vec<(String, u8, &mut Point)> {
        let names = self.names();
        names.into_iter().zip(self.all_mut()).map(|((n, g), p)| (n, g, p)).collect()
    }

    /// Path and place of each point, in the order of [`Points::named_mut`].
    #[must_use]
    pub fn named(&self) -> Vec<(String, Point)> {
        self.clone().named_mut().into_iter().map(|(n, _, p)| (n, *p)).collect()
    }

    /// Index of the mirror image of each point of a whole axle; none for points that have no image, and on layouts that
    /// are drawn one side at a time.
    #[must_use]
    pub fn mirrors(&self) -> Vec<Option<usize>> {
        let names: Vec<String> = self.names().into_iter().map(|(n, _)| n).collect();
        names
            .iter()
            .map(|n| {
                let other = if n.contains("_left") {
                    n.replace("_left", "_right")
                } else if n.contains("_right") {
                    n.replace("_right", "_left")
                } else if n.ends_with(".left") {
                    n.replace(".left", ".right")
                } else if n.ends_with(".right") {
                    n.replace(".right", ".left")
                } else {
                    return None;
                };
                names.iter().position(|m| *m == other)
            })
            .collect()
    }

    /// Whether the axle is carried by leaf springs: a live axle that says so by a link that stands for them sideways.
    #[must_use]
    pub fn on_leaves(&self) -> bool {
        matches!(self, Self::SolidAxle(a) if a.links.iter().any(|l| l.name.starts_with("leaf")))
    }

    /// The same axle seen from the other side: left and right change places and every y its sign.
    /// Points of one side only are mirror images already and stay as they are.
    #[must_use]
    pub fn other_side(&self) -> Self {
        let mut out = self.clone();
        if !self.layout().is_whole_axle() {
            return out;
        }
        for p in out.all_mut() {
            p[1] = -p[1];
        }
        match &mut out {
            Self::TwistBeam(b) => std::mem::swap(&mut b.pivot_left, &mut b.pivot_right),
            Self::SolidAxle(a) => {
                if let Some(t) = &mut a.tie_rod {
                    t.swap(0, 1);
                }
            }
            _ => {}
        }
        out
    }

    /// Points that stay with the wheel when it is moved as a whole (knuckle or axle side).
    #[must_use]
    pub fn is_on_wheel_side(path: &str) -> bool {
        path.ends_with("_outer") && path != "points.arm_outer"
            || path.ends_with(".outer")
            || path.ends_with(".axle")
            || path.ends_with("strut_bottom")
            || path.starts_with("tie_rod.")
    }
}
