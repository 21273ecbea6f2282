//! Parts made in a shop from a construction aid: where a point goes, and how long the arm or rod becomes so that the wheel
//! stands at design as it did. What is called how is the screen's to say.

use super::{Fits, Part, PartGroup, PartLimits, Purpose, Rule};
use bold_stance_car::metrics::Aids;
use bold_stance_kinematics::edit::{EccentricPoint, Edit, JointPoint};
use bold_stance_kinematics::geometry::{Axle, Geometry, Points, Side};
use bold_stance_kinematics::linkage::Arm;
use serde::{Deserialize, Serialize};

/// Which point is placed.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Aid {
    /// Upper-arm pivot: the contact does not move sideways.
    UpperPivot,
    /// Inner tie-rod joint: toe does not change with height.
    TieRod,
    /// Outer tie-rod joint on the steering arm: Ackermann.
    Ackermann,
}

/// By which way its place was found.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PlacedBy {
    /// On the drawing board: perpendicular bisectors, or the line to the middle of the rear axle.
    Bisector,
    /// Least squares over the travel or the lock.
    Exact,
}

/// A part made here.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Made {
    /// Which point.
    pub aid: Aid,
    /// Which way.
    pub by: PlacedBy,
    /// Length to cut to, mm: of the rod joint to joint, of the arm pivot axis to joint in the plane of the wheel.
    pub length_mm: f64,
    /// The same as it is now, mm.
    pub was_mm: f64,
    /// Travel either way from design over which the upper pivot and the tie rod are judged, mm.
    pub travel_mm: f64,
    /// What is left over as it is: mm of contact, degrees of toe, degrees of the inner wheel's error.
    pub left_over_now: f64,
    /// The same with the part.
    pub left_over: f64,
    /// The part, without name and other words.
    pub part: Part,
}

/// What a fabricator takes for one of them, minutes (judgement, no source).
const MINUTES: u32 = 240;

type P = [f64; 3];

fn apart(a: P, b: P) -> f64 {
    a.iter().zip(b).map(|(a, b)| (a - b) * (a - b)).sum::<f64>().sqrt()
}

fn moved(p: P, by: P) -> P {
    std::array::from_fn(|i| p[i] + by[i])
}

/// Every part that the aids of a front axle can be made into, each by both ways. `no` tells the parts of one ticket from those
/// of another.
#[must_use]
pub fn made_parts(g: &Geometry, aids: &Aids, no: u32) -> Vec<Made> {
    let (joint, inner, tie) = match &g.side(Side::Left).0 {
        Points::DoubleWishbone(p) => {
            (Some((p.upper_front, p.upper_rear, p.upper_outer)), p.tie_inner, p.tie_outer)
        }
        Points::Strut(p) => (None, p.tie_inner, p.tie_outer),
        _ => return Vec::new(),
    };
    let mut out = Vec::new();
    for by in [PlacedBy::Bisector, PlacedBy::Exact] {
        let exact = by == PlacedBy::Exact;
        let pick = |exactly: f64, bisector: f64| if exact { exactly } else { bisector };
        if let (Some(a), Some((front, rear, outer))) = (&aids.upper_pivot, joint) {
            let place = if exact { a.exact } else { a.bisector };
            let shift = [0.0, place[0] - a.now[0], place[1] - a.now[1]];
            let pivot = |point| Edit::MovePivot { point, by: shift };
            // Both links as long as the joint wants them where it stands at design.
            let longer = |from: P| apart(outer, moved(from, shift)) - apart(outer, from);
            let flat = |p: [f64; 2]| (outer[1] - p[0]).hypot(outer[2] - p[1]);
            let edits = vec![
                pivot(EccentricPoint::UpperFront),
                pivot(EccentricPoint::UpperRear),
                Edit::LengthenLinks { arm: Arm::Upper, front_mm: longer(front), rear_mm: longer(rear) },
            ];
            out.push(Made {
                length_mm: flat(place),
                travel_mm: aids.travel_mm,
                was_mm: flat(a.now),
                left_over_now: a.scrub_now_mm,
                left_over: pick(a.scrub_exact_mm, a.scrub_bisector_mm),
                ..made(g, Aid::UpperPivot, by, no, edits)
            });
        }
        if let Some(t) = &aids.tie_rod {
            let place = if exact { t.exact } else { t.bisector };
            let shift = [0.0, place[0] - inner[1], place[1] - inner[2]];
            let (was_mm, length_mm) = (apart(tie, inner), apart(tie, moved(inner, shift)));
            let edits = vec![
                Edit::MovePivot { point: EccentricPoint::TieInner, by: shift },
                Edit::LengthenTie { by_mm: length_mm - was_mm },
            ];
            out.push(Made {
                length_mm,
                travel_mm: aids.travel_mm,
                was_mm,
                left_over_now: t.steer_now_deg,
                left_over: pick(t.steer_exact_deg, t.steer_bisector_deg),
                ..made(g, Aid::TieRod, by, no, edits)
            });
        }
        if let Some(k) = &aids.ackermann {
            let shift = [0.0, pick(k.exact_y, k.construction_y) - tie[1], 0.0];
            let (was_mm, length_mm) = (apart(tie, inner), apart(moved(tie, shift), inner));
            let edits = vec![
                Edit::ShiftKnucklePoint { point: JointPoint::Tie, by: shift },
                Edit::LengthenTie { by_mm: length_mm - was_mm },
            ];
            out.push(Made {
                length_mm,
                travel_mm: aids.travel_mm,
                was_mm,
                left_over_now: k.error_now_deg,
                left_over: pick(k.error_exact_deg, k.error_construction_deg),
                ..made(g, Aid::Ackermann, by, no, edits)
            });
        }
    }
    // Both ways of a place beside each other.
    out.sort_by_key(|m| m.aid);
    out
}

fn made(g: &Geometry, aid: Aid, by: PlacedBy, no: u32, edits: Vec<Edit>) -> Made {
    let (word, group, purpose, rules) = match aid {
        Aid::UpperPivot => (
            "upper-pivot",
            PartGroup::UpperArm,
            Purpose::RollCentre,
            vec![Rule::Welding, Rule::Cutting, Rule::MovesPivots, Rule::AftermarketArms],
        ),
        Aid::TieRod => (
            "tie-rod",
            PartGroup::Steering,
            Purpose::BumpSteer,
            vec![Rule::Welding, Rule::Cutting, Rule::MovesPivots],
        ),
        Aid::Ackermann => ("steering-arm", PartGroup::Steering, Purpose::BumpSteer, vec![Rule::Knuckle]),
    };
    let way = if by == PlacedBy::Exact { "exact" } else { "bisector" };
    let place = format!("made-{word}");
    let part = Part {
        id: format!("{place}-{way}-{no:04}"),
        name: String::new(),
        summary: String::new(),
        group,
        purposes: vec![purpose],
        // By either way it is the same place on the car: one of them goes on.
        fits: Fits {
            layouts: vec![g.layout()],
            axles: vec![Axle::Front],
            replaces: place.replace('-', "_"),
            springs: None,
            place: None,
        },
        edits,
        adjusters: Vec::new(),
        sizes: None,
        limits: PartLimits::default(),
        requires: Vec::new(),
        provides: Vec::new(),
        conflicts: Vec::new(),
        side_effect: String::new(),
        labour_minutes: MINUTES,
        cost: 0.0,
        only: None,
        rules,
        access: String::new(),
        sockets: String::new(),
        torque: String::new(),
        order_number: String::new(),
        cautions: Vec::new(),
    };
    Made { aid, by, length_mm: 0.0, was_mm: 0.0, travel_mm: 0.0, left_over_now: 0.0, left_over: 0.0, part }
}
