//! What can be turned on the vehicle: eccentric cams and threads.

use super::{EccentricPoint, Edit};
use crate::linkage::Arm;
use crate::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// Which link a thread lengthens.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum ThreadLink {
    /// Tie rod: toe, always set last.
    Tie,
    /// Both links of the upper arm.
    Upper,
    /// Upper arm, front link.
    UpperFront,
    /// Upper arm, rear link.
    UpperRear,
    /// Both links of the lower arm.
    Lower,
    /// Lower arm, front link.
    LowerFront,
    /// Lower arm, rear link.
    LowerRear,
}

/// How an adjuster works.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum AdjusterKind {
    /// Cam in a slot: displacement = eccentricity · sin(angle) along `direction`.
    Eccentric {
        /// The pivot it carries.
        point: EccentricPoint,
        /// Slot direction (any length), positive = outboard for `[0,1,0]`.
        direction: [f64; 3],
        /// Throw, mm.
        eccentricity_mm: f64,
        /// Lowest angle, degrees.
        min_deg: f64,
        /// Highest angle, degrees.
        max_deg: f64,
        /// Notches in half a turn; any angle when absent.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        notches_per_half_turn: Option<u32>,
    },
    /// Threaded link: length = pitch · ends · turns.
    Thread {
        /// The link it lengthens.
        link: ThreadLink,
        /// Thread pitch, mm per turn.
        pitch_mm: f64,
        /// 1, or 2 for a left/right-hand sleeve.
        ends: u32,
        /// Fewest and most turns from where it stands.
        turns: [f64; 2],
    },
}

/// One adjuster of one side.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Adjuster {
    /// What the specialist calls it.
    pub name: String,
    /// Where it stands now: degrees of a cam, turns of a thread.
    #[serde(default)]
    pub position: f64,
    /// How it works.
    #[serde(flatten)]
    pub kind: AdjusterKind,
}

impl Adjuster {
    /// The geometry edit at a position (degrees or turns).
    #[must_use]
    pub fn edit_at(&self, position: f64) -> Edit {
        match &self.kind {
            AdjusterKind::Eccentric { point, .. } => {
                let mm = self.displacement_mm(position);
                let d = self.unit_direction();
                Edit::MovePivot { point: *point, by: [d[0] * mm, d[1] * mm, d[2] * mm] }
            }
            AdjusterKind::Thread { link, .. } => {
                let mm = self.displacement_mm(position);
                let (arm, front_mm, rear_mm) = match link {
                    ThreadLink::Tie => return Edit::LengthenTie { by_mm: mm },
                    ThreadLink::Upper => (Arm::Upper, mm, mm),
                    ThreadLink::UpperFront => (Arm::Upper, mm, 0.0),
                    ThreadLink::UpperRear => (Arm::Upper, 0.0, mm),
                    ThreadLink::Lower => (Arm::Lower, mm, mm),
                    ThreadLink::LowerFront => (Arm::Lower, mm, 0.0),
                    ThreadLink::LowerRear => (Arm::Lower, 0.0, mm),
                };
                Edit::LengthenLinks { arm, front_mm, rear_mm }
            }
        }
    }

    /// Displacement of the pivot or growth of the link at a position, mm.
    #[must_use]
    pub fn displacement_mm(&self, position: f64) -> f64 {
        match &self.kind {
            AdjusterKind::Eccentric { eccentricity_mm, .. } => eccentricity_mm * position.to_radians().sin(),
            AdjusterKind::Thread { pitch_mm, ends, .. } => pitch_mm * f64::from(*ends) * position,
        }
    }

    fn unit_direction(&self) -> [f64; 3] {
        match &self.kind {
            AdjusterKind::Eccentric { direction, .. } => {
                let n = direction.iter().map(|c| c * c).sum::<f64>().sqrt().max(1e-9);
                [direction[0] / n, direction[1] / n, direction[2] / n]
            }
            AdjusterKind::Thread { .. } => [0.0; 3],
        }
    }

    /// Whether it sets toe at the tie rod.
    #[must_use]
    pub fn is_tie_rod(&self) -> bool {
        matches!(self.kind, AdjusterKind::Thread { link: ThreadLink::Tie, .. })
    }

    /// Lowest and highest position (degrees or turns).
    #[must_use]
    pub fn range(&self) -> [f64; 2] {
        match &self.kind {
            AdjusterKind::Eccentric { min_deg, max_deg, .. } => [*min_deg, *max_deg],
            AdjusterKind::Thread { turns, .. } => *turns,
        }
    }

    /// One notch in degrees, a quarter turn for a thread; `None` for a cam without notches.
    #[must_use]
    pub fn step(&self) -> Option<f64> {
        match &self.kind {
            AdjusterKind::Eccentric { notches_per_half_turn, .. } => {
                notches_per_half_turn.map(|n| 180.0 / f64::from(n))
            }
            AdjusterKind::Thread { .. } => Some(0.25),
        }
    }

    /// The adjuster with other eccentrics fitted, when the edit is about its pivot.
    #[must_use]
    pub fn with_edit(&self, edit: &Edit) -> Self {
        let mut out = self.clone();
        if let (
            Edit::ReplaceEccentric { points, eccentricity_mm, notches_per_half_turn },
            AdjusterKind::Eccentric { point, eccentricity_mm: e, notches_per_half_turn: n, .. },
        ) = (edit, &mut out.kind)
            && points.contains(point)
        {
            *e = *eccentricity_mm;
            *n = Some(*notches_per_half_turn);
        }
        out
    }

    /// Direction word of a movement in the shop's terms.
    #[must_use]
    pub fn direction_word(&self, movement_mm: f64) -> &'static str {
        if movement_mm.abs() < 1e-9 {
            return "leave";
        }
        let forward = movement_mm > 0.0;
        if matches!(self.kind, AdjusterKind::Thread { .. }) {
            return if forward { "longer" } else { "shorter" };
        }
        let d = self.unit_direction();
        let (axis, along) = d
            .iter()
            .enumerate()
            .fold((1, 0.0f64), |best, (i, c)| if c.abs() > best.1.abs() { (i, *c) } else { best });
        match (axis, forward == (along > 0.0)) {
            (0, true) => "forward",
            (0, false) => "rearward",
            (1, true) => "outboard",
            (1, false) => "inboard",
            (_, true) => "up",
            (_, false) => "down",
        }
    }
}

/// What is wrong with a list of adjusters, by field.
#[must_use]
pub fn adjuster_problems(list: &[Adjuster]) -> Vec<Problem> {
    let mut out = Vec::new();
    if list.len() > 8 {
        out.push(Problem::new("adjusters", "more than eight", "eight adjusters or fewer"));
    }
    for (i, a) in list.iter().enumerate() {
        let at = |f: &str| format!("adjusters.{i}.{f}");
        let mut check = |r: Result<(), Problem>| out.extend(r.err());
        check(in_range(&at("position"), a.position, -360.0, 360.0, "° or turns"));
        let [low, high] = a.range();
        match &a.kind {
            AdjusterKind::Eccentric { direction, eccentricity_mm, notches_per_half_turn, .. } => {
                check(in_range(&at("eccentricity_mm"), *eccentricity_mm, 0.1, 60.0, "mm"));
                check(in_range(&at("min_deg"), low, -180.0, 180.0, "°"));
                check(in_range(&at("max_deg"), high, -180.0, 180.0, "°"));
                let n = f64::from(notches_per_half_turn.unwrap_or(8));
                check(in_range(&at("notches_per_half_turn"), n, 1.0, 90.0, "notches"));
                let norm = direction.iter().map(|c| c * c).sum::<f64>().sqrt();
                check(in_range(&at("direction"), norm, 1e-6, 1e6, "long"));
            }
            AdjusterKind::Thread { pitch_mm, ends, .. } => {
                check(in_range(&at("pitch_mm"), *pitch_mm, 0.1, 10.0, "mm a turn"));
                check(in_range(&at("ends"), f64::from(*ends), 1.0, 2.0, "threaded ends"));
                check(in_range(&at("turns"), low, -60.0, 60.0, "turns"));
                check(in_range(&at("turns"), high, -60.0, 60.0, "turns"));
            }
        }
        if low >= high {
            let f = if matches!(a.kind, AdjusterKind::Thread { .. }) { "turns" } else { "max_deg" };
            out.push(Problem::new(at(f), "the range is empty", "a highest value above the lowest"));
        }
    }
    out
}

/// Front and rear lower cams of 8 notches in half a turn, and a tie rod: a usual truck front axle.
#[must_use]
pub fn default_adjusters(eccentricity_mm: f64) -> Vec<Adjuster> {
    let cam = |name: &str, point| Adjuster {
        name: name.into(),
        position: 0.0,
        kind: AdjusterKind::Eccentric {
            point,
            direction: [0.0, 1.0, 0.0],
            eccentricity_mm,
            min_deg: -90.0,
            max_deg: 90.0,
            notches_per_half_turn: Some(8),
        },
    };
    vec![
        cam("Front cam", EccentricPoint::LowerFront),
        cam("Rear cam", EccentricPoint::LowerRear),
        Adjuster {
            name: "Tie rod".into(),
            position: 0.0,
            kind: AdjusterKind::Thread {
                link: ThreadLink::Tie,
                pitch_mm: 1.5,
                ends: 1,
                turns: [-12.0, 12.0],
            },
        },
    ]
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn displacement_is_e_sin_phi() {
        let cam = &default_adjusters(8.0)[0];
        assert!((cam.displacement_mm(30.0) - 4.0).abs() < 1e-12);
        assert_eq!(cam.step(), Some(22.5));
        assert_eq!(cam.direction_word(1.0), "outboard");
        assert_eq!(cam.direction_word(-1.0), "inboard");
    }

    #[test]
    fn a_left_right_sleeve_moves_two_pitches_a_turn() {
        // Common practice, no source: handbook of the trade, rod ends.
        let mut t = default_adjusters(8.0)[2].clone();
        assert!((t.displacement_mm(1.0) - 1.5).abs() < 1e-12);
        if let AdjusterKind::Thread { ends, .. } = &mut t.kind {
            *ends = 2;
        }
        assert!((t.displacement_mm(1.0) - 3.0).abs() < 1e-12);
        assert_eq!(t.direction_word(1.0), "longer");
    }

    #[test]
    fn empty_ranges_and_wild_numbers_are_named() {
        let mut a = default_adjusters(8.0);
        if let AdjusterKind::Eccentric { max_deg, eccentricity_mm, .. } = &mut a[1].kind {
            *max_deg = -90.0;
            *eccentricity_mm = f64::NAN;
        }
        let fields: Vec<_> = adjuster_problems(&a).into_iter().map(|p| p.field).collect();
        assert_eq!(fields, ["adjusters.1.eccentricity_mm", "adjusters.1.max_deg"]);
    }

    #[test]
    fn wider_eccentrics_replace_only_their_pivots() {
        let edit = Edit::ReplaceEccentric {
            points: vec![EccentricPoint::LowerFront],
            eccentricity_mm: 12.0,
            notches_per_half_turn: 8,
        };
        let a = default_adjusters(8.0);
        assert!((a[0].with_edit(&edit).displacement_mm(90.0) - 12.0).abs() < 1e-12);
        assert_eq!(a[1].with_edit(&edit), a[1]);
        assert_eq!(a[2].with_edit(&edit), a[2]);
    }
}
