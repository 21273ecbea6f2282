//! Ways to change ride height, and what each one really moves.

use bold_stance_car::vehicle::{Axles, StateKind};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Layout, Points};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// How height is gained.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum WayKind {
    /// Springs of another length or rate.
    Spring,
    /// Collar of a coilover.
    Collar,
    /// Torsion bar, by bolt or re-indexed.
    TorsionBar,
    /// Spacer on top of a strut or coil.
    Spacer,
    /// Level of an air suspension.
    Air,
    /// Leaf added to the pack.
    AddALeaf,
    /// Longer or shorter shackle at the rear of the leaf.
    Shackle,
    /// Blocks between leaf and axle.
    LeafBlock,
    /// Knuckle with the wheel lower or higher on it.
    Knuckle,
    /// Brackets or subframe that move every inner pivot together.
    Bracket,
    /// Body raised on its frame.
    BodyLift,
}

/// Half the usual length of a leaf spring, mm (common practice, no source): the axle turns by the height gained
/// over it when one eye moves.
const HALF_LEAF: f64 = 700.0;

/// Height gained one way at hub-to-arch, mm; lower is negative.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Way {
    /// How.
    pub kind: WayKind,
    /// mm.
    #[cfg_attr(feature = "openapi", schema(minimum = -300.0, maximum = 300.0))]
    pub gain_mm: f64,
}

impl WayKind {
    /// Every way, in the order they are offered.
    pub const ALL: [Self; 11] = [
        Self::Spring,
        Self::Collar,
        Self::TorsionBar,
        Self::Spacer,
        Self::Air,
        Self::AddALeaf,
        Self::Shackle,
        Self::LeafBlock,
        Self::Knuckle,
        Self::Bracket,
        Self::BodyLift,
    ];

    /// Whether the suspension moves along its own travel.
    #[must_use]
    pub fn uses_travel(self) -> bool {
        !matches!(self, Self::LeafBlock | Self::Knuckle | Self::Bracket | Self::BodyLift)
    }

    /// Whether an axle of a layout can have it.
    #[must_use]
    pub fn fits(self, layout: Layout) -> bool {
        match self {
            Self::AddALeaf | Self::Shackle | Self::LeafBlock => layout == Layout::SolidAxle,
            Self::Knuckle => layout.has_knuckle(),
            _ => true,
        }
    }

    /// Whether the axle has to stand on leaf springs for it.
    #[must_use]
    pub fn needs_leaves(self) -> bool {
        matches!(self, Self::AddALeaf | Self::Shackle | Self::LeafBlock)
    }

    /// Its word in a file.
    #[must_use]
    pub fn id(self) -> &'static str {
        match self {
            Self::Spring => "spring",
            Self::Collar => "collar",
            Self::TorsionBar => "torsion_bar",
            Self::Spacer => "spacer",
            Self::Air => "air",
            Self::AddALeaf => "add_a_leaf",
            Self::Shackle => "shackle",
            Self::LeafBlock => "leaf_block",
            Self::Knuckle => "knuckle",
            Self::Bracket => "bracket",
            Self::BodyLift => "body_lift",
        }
    }

    /// The name of it in workshop words.
    #[must_use]
    pub fn words(self) -> &'static str {
        match self {
            Self::Spring => "springs",
            Self::Collar => "coilover collars",
            Self::TorsionBar => "torsion bars",
            Self::Spacer => "spring or strut spacers",
            Self::Air => "air level",
            Self::AddALeaf => "an added leaf",
            Self::Shackle => "shackles",
            Self::LeafBlock => "leaf blocks",
            Self::Knuckle => "lift or drop knuckles",
            Self::Bracket => "bracket or subframe drop",
            Self::BodyLift => "body lift",
        }
    }
}

impl Way {
    /// What of the geometry it changes beyond travel.
    #[must_use]
    pub fn edits(&self, points: &Points) -> Vec<Edit> {
        let down = [0.0, 0.0, -self.gain_mm];
        match self.kind {
            WayKind::Knuckle => vec![Edit::ShiftWheel { by: down }],
            WayKind::LeafBlock => {
                vec![Edit::MoveWheelEnd { link: "all".into(), by: [0.0, 0.0, self.gain_mm] }]
            }
            WayKind::Shackle => {
                vec![Edit::LeanKingpin { caster_deg: -(self.gain_mm / HALF_LEAF).atan().to_degrees() }]
            }
            WayKind::Bracket => {
                points.bracket().into_iter().map(|point| Edit::MovePivot { point, by: down }).collect()
            }
            _ => Vec::new(),
        }
    }
}

/// Hub-to-arch gain of a list of ways, mm.
#[must_use]
pub fn gain(ways: &[Way], of: impl Fn(WayKind) -> bool) -> f64 {
    ways.iter().filter(|w| of(w.kind)).map(|w| w.gain_mm).sum()
}

/// What is wrong with a list of ways on a layout, by field under `at`.
pub(crate) fn way_problems(at: &str, ways: &[Way], points: &Points, out: &mut Vec<Problem>) {
    if ways.len() > 8 {
        out.push(Problem::new(at, said("fault-more-than-eight-ways"), said("fault-eight-fewer")));
    }
    let layout = points.layout();
    for (i, w) in ways.iter().enumerate() {
        out.extend(in_range(&format!("{at}.{i}.gain_mm"), w.gain_mm, -300.0, 300.0, "mm").err());
        if w.kind.needs_leaves() && layout == Layout::SolidAxle && !points.on_leaves() {
            let wrong = said("fault-no-leaves").word("way", w.kind.id());
            out.push(Problem::new(format!("{at}.{i}.kind"), wrong, said("fault-way-this-axle")));
        } else if !w.kind.fits(layout) {
            let wrong = said("fault-layout-no-way").word("layout", layout.word()).word("way", w.kind.id());
            out.push(Problem::new(format!("{at}.{i}.kind"), wrong, said("fault-way-this-axle")));
        }
    }
}

/// A height of the car that angles are worked out at.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PlanState {
    /// Which.
    pub kind: StateKind,
    /// What the screen calls it.
    pub name: String,
    /// Gain of this axle from as found at hub-to-arch, mm.
    pub own_mm: f64,
    /// Gains of both axles, mm.
    pub gain_mm: Axles<f64>,
}

impl PlanState {
    /// The same with the axle that is planned at another gain, mm.
    #[must_use]
    pub fn at_own(&self, axle: Axle, own_mm: f64) -> Self {
        let mut out = self.clone();
        out.own_mm = own_mm;
        out.gain_mm[axle] = own_mm;
        out
    }
}
