//! One generic correction part: data, not code.

use bold_stance_car::adjuster::{Adjuster, AdjusterKind, ThreadLink};
use bold_stance_kinematics::edit::{EccentricPoint, Edit};
use bold_stance_kinematics::geometry::{Axle, Layout, Side};
use serde::{Deserialize, Serialize};

/// Which family a part belongs to, for lists and drawings.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PartGroup {
    /// Upper arms.
    UpperArm,
    /// Lower arms.
    LowerArm,
    /// Ball-joint spacers and extended joints.
    BallJoint,
    /// Cams and their plates.
    Cams,
    /// Shims and offset shafts.
    Shims,
    /// Strut bolts, slots and top plates.
    Strut,
    /// Offset bushings and mounts.
    Bushing,
    /// Tie rods, tie-rod ends, rack.
    Steering,
    /// Camber, toe and trailing links.
    Link,
    /// Arms, brackets, bars and sleeves of a live axle.
    LiveAxle,
    /// Springs, spacers, blocks, knuckles and brackets that change height.
    Height,
    /// Wheels and spacers.
    Wheel,
}

/// Something a rule book or an owner may forbid.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Rule {
    /// Needs welding.
    Welding,
    /// Needs cutting or drilling of the body or a bracket.
    Cutting,
    /// Takes the place of a factory arm.
    AftermarketArms,
    /// Metal joints instead of rubber.
    SphericalJoints,
    /// Moves a pivot on the body or frame.
    MovesPivots,
    /// Changes knuckle or axle.
    Knuckle,
}

impl Rule {
    /// Its word in a file.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Welding => "welding",
            Self::Cutting => "cutting",
            Self::AftermarketArms => "aftermarket_arms",
            Self::SphericalJoints => "spherical_joints",
            Self::MovesPivots => "moves_pivots",
            Self::Knuckle => "knuckle",
        }
    }
}

/// What a part fits.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Fits {
    /// Layouts.
    pub layouts: Vec<Layout>,
    /// Front, rear or both.
    pub axles: Vec<Axle>,
    /// What it takes the place of, so that two cannot be fitted at once.
    pub replaces: String,
    /// Springs the axle has to stand on; absent where it does not matter.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub springs: Option<Springs>,
    /// What the car has to be built with for it to have a place; absent where any has.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub place: Option<BuiltWith>,
}

/// How a car is built, as far as a part has to know.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BuiltWith {
    /// Upper arm on a cross shaft bolted to the frame, behind which shims go.
    UpperShaft,
}

/// What a part is for; what else it moves is a side effect.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Purpose {
    /// To bring camber back.
    Camber,
    /// To bring caster back.
    Caster,
    /// To bring toe back.
    Toe,
    /// To keep toe while the wheel moves.
    BumpSteer,
    /// To put the roll centre back.
    RollCentre,
    /// To gain or lose height.
    Height,
    /// To bring a live axle back under the middle, or the steering wheel straight.
    Centring,
}

/// What an axle stands on, as far as a part has to know.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Springs {
    /// Leaf springs that carry the axle: wedges, blocks, shackles.
    Leaf,
}

/// Sizes a part comes in: its edits are written for one unit and multiplied by the size.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Sizes {
    /// `mm` or `°`.
    pub unit: String,
    /// What can be bought, ascending.
    pub values: Vec<f64>,
}

/// What a part can stand, degrees from its middle; what is absent stays the car's.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct PartLimits {
    /// Upper ball joint.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub upper_joint_deg: Option<f64>,
    /// Lower ball joint.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub lower_joint_deg: Option<f64>,
    /// Drive-shaft joint.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub shaft_deg: Option<f64>,
    /// Clearance it takes from the spring bucket, mm.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub bucket_mm: Option<f64>,
    /// Droop travel it adds (longer damper or strap), mm.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub droop_mm: Option<f64>,
}

/// One generic correction part.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Part {
    /// Stable word for plans and requests; a part that comes in sizes is asked for as `id@size`.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What it moves, in a few words.
    pub summary: String,
    /// Family.
    pub group: PartGroup,
    /// What it is for; anything it can do where nothing is said.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub purposes: Vec<Purpose>,
    /// What it fits.
    pub fits: Fits,
    /// What it moves as fitted.
    #[serde(default)]
    pub edits: Vec<Edit>,
    /// What can be turned on it.
    #[serde(default)]
    pub adjusters: Vec<Adjuster>,
    /// Sizes it comes in; one size when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub sizes: Option<Sizes>,
    /// What it can stand.
    #[serde(default, deserialize_with = "bold_stance_units::problem::from_object")]
    pub limits: PartLimits,
    /// What has to be there beside it: `toe_adjuster`, `cams`, or what another part provides.
    #[serde(default)]
    pub requires: Vec<String>,
    /// What it brings for others.
    #[serde(default)]
    pub provides: Vec<String>,
    /// Parts it cannot stand beside, by id.
    #[serde(default)]
    pub conflicts: Vec<String>,
    /// The cost that the geometry does not show, one sentence.
    pub side_effect: String,
    /// Minutes of labour for the axle.
    pub labour_minutes: u32,
    /// Price for the axle in the shop's currency (invented).
    pub cost: f64,
    /// The one side it is fitted on; both where none is named. A plan says it, never the catalogue.
    #[serde(skip)]
    pub only: Option<Side>,
    /// What a rule book may forbid.
    #[serde(default)]
    pub rules: Vec<Rule>,
    /// How it is reached on the car, one sentence.
    #[serde(default)]
    pub access: String,
    /// Spanners and sockets it takes, as the shop typed them.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub sockets: String,
    /// Torque of each of its fasteners, as its maker gives it and the shop typed it: never made up here.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub torque: String,
    /// Number it is ordered by, as the shop typed it.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub order_number: String,
    /// Cautions of this part.
    #[serde(default)]
    pub cautions: Vec<String>,
}

impl Part {
    /// Whether it goes on a side: on both, where its plan names none.
    #[must_use]
    pub fn is_on(&self, side: Side) -> bool {
        self.only.is_none_or(|s| s == side)
    }

    /// The id without a size.
    #[must_use]
    pub fn family(&self) -> &str {
        self.id.split('@').next().unwrap_or(&self.id)
    }

    /// Every size of it as a part of its own; itself when it has no sizes.
    #[must_use]
    pub fn variants(&self) -> Vec<Self> {
        let Some(sizes) = &self.sizes else { return vec![self.clone()] };
        sizes
            .values
            .iter()
            .map(|v| {
                let gap = if sizes.unit.starts_with('°') { "" } else { " " };
                Self {
                    id: format!("{}@{v}", self.id),
                    name: format!("{}, {v}{gap}{}", self.name, sizes.unit),
                    edits: self.edits.iter().map(|e| scaled(e, *v)).collect(),
                    adjusters: self.adjusters.iter().map(|a| sized(a, *v)).collect(),
                    sizes: None,
                    ..self.clone()
                }
            })
            .collect()
    }

    /// Every link name of a multi-link or solid axle the part speaks of.
    pub(crate) fn links_mut(&mut self) -> Vec<&mut String> {
        let mut out = Vec::new();
        for e in &mut self.edits {
            match e {
                Edit::LengthenLink { name, .. } | Edit::MoveWheelEnd { link: name, .. } => out.push(name),
                Edit::MovePivot { point: EccentricPoint::Link(name), .. } => out.push(name),
                _ => {}
            }
        }
        for a in &mut self.adjusters {
            match &mut a.kind {
                AdjusterKind::Thread { link: ThreadLink::Named(name), .. }
                | AdjusterKind::Eccentric { point: EccentricPoint::Link(name), .. }
                | AdjusterKind::Slide { point: EccentricPoint::Link(name), .. }
                | AdjusterKind::Shims { point: EccentricPoint::Link(name), .. } => out.push(name),
                _ => {}
            }
        }
        out
    }
}

/// The adjuster in a size: an offset sleeve comes in offsets, what else can be turned on a part is alike in every size.
fn sized(a: &Adjuster, k: f64) -> Adjuster {
    let mut out = a.clone();
    if let AdjusterKind::Sleeve { amount_deg, .. } = &mut out.kind {
        *amount_deg *= k;
    }
    out
}

/// The edit with every amount multiplied.
fn scaled(e: &Edit, k: f64) -> Edit {
    let mut out = e.clone();
    let all = |v: &mut [f64; 3]| v.iter_mut().for_each(|c| *c *= k);
    match &mut out {
        Edit::MovePivot { by, .. }
        | Edit::ShiftKnucklePoint { by, .. }
        | Edit::MoveWheelEnd { by, .. }
        | Edit::ShiftWheel { by } => all(by),
        Edit::ReshapeArm { longer_mm, forward_mm, .. } => {
            *longer_mm *= k;
            *forward_mm *= k;
        }
        Edit::LengthenLinks { front_mm, rear_mm, .. } => {
            *front_mm *= k;
            *rear_mm *= k;
        }
        Edit::LengthenTie { by_mm } | Edit::LengthenLink { by_mm, .. } => *by_mm *= k,
        Edit::TurnSpin { camber_deg, toe_deg } | Edit::KnuckleTilt { camber_deg, toe_deg } => {
            *camber_deg *= k;
            *toe_deg *= k;
        }
        Edit::OffsetUpperJoint { out_deg, back_deg } => {
            *out_deg *= k;
            *back_deg *= k;
        }
        Edit::LeanKingpin { caster_deg } => *caster_deg *= k,
        Edit::ReplaceEccentric { eccentricity_mm, .. } => *eccentricity_mm *= k,
        Edit::FreeEccentrics { .. } => {}
    }
    out
}
