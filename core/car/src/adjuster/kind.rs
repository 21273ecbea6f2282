//! What can be turned on the vehicle: cams, threads, plates, shims, slots, wedges, sleeves.

use super::thread::{LeftHand, ThreadLink};
use bold_stance_kinematics::edit::{EccentricPoint, Edit};
use bold_stance_kinematics::linkage::Arm;
use serde::{Deserialize, Serialize};

/// How an adjuster works. A position is degrees of a cam, bolt or sleeve, turns of a thread, mm of a slide or
/// shim stack, degrees of camber of a slot, degrees of caster of a wedge.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum AdjusterKind {
    /// Cam in a slot: displacement = eccentricity · sin(angle) along `direction`.
    Eccentric {
        /// The pivot it carries.
        point: EccentricPoint,
        /// Slot direction (any length), positive = outboard for `[0,1,0]`.
        #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
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
        #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
        turns: [f64; 2],
        /// Thread in engagement at position 0, mm; unknown when absent.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        engaged_mm: Option<f64>,
        /// Least engagement, mm.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        min_engaged_mm: Option<f64>,
        /// Which thread is left-hand, where somebody looked: which way to turn for longer follows from it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        left_hand: Option<LeftHand>,
    },
    /// A plate or bracket that slides: displacement = position, mm, along `direction`.
    Slide {
        /// What it carries.
        point: EccentricPoint,
        /// Positive direction (any length).
        #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
        direction: [f64; 3],
        /// Lowest and highest position, mm.
        #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
        range_mm: [f64; 2],
        /// Marks, mm; any position when absent.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        step_mm: Option<f64>,
    },
    /// Shims behind a pivot: displacement = thickness added, mm, along `direction`.
    Shims {
        /// The pivot they move.
        point: EccentricPoint,
        /// Direction a thicker stack moves it (any length).
        #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
        direction: [f64; 3],
        /// Thinnest and thickest change of the stack, mm.
        #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
        range_mm: [f64; 2],
        /// Thinnest shim, mm.
        step_mm: f64,
    },
    /// Tilts the knuckle in a strut's clamp (slotted holes), or the wheel on its hub (tapered shims).
    Tilt {
        /// Lowest and highest angle, degrees, top out positive: at a strut between knuckle and strut.
        #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
        camber_deg: [f64; 2],
        /// Steps, degrees; any position when absent.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        step_deg: Option<f64>,
        /// Degrees of toe that come with each degree of a hub shim; a strut's follows from its tie rod.
        #[serde(default)]
        toe_per_camber: f64,
    },
    /// Eccentric bolt between strut and knuckle: angle between them = amplitude · sin(angle of the bolt).
    CamBolt {
        /// Angle between knuckle and strut at a quarter turn, degrees.
        amplitude_deg: f64,
        /// Lowest angle, degrees.
        min_deg: f64,
        /// Highest angle, degrees.
        max_deg: f64,
        /// Notches in half a turn; any angle when absent.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        notches_per_half_turn: Option<u32>,
    },
    /// Wedge between axle and spring, or lean of a kingpin: caster added, degrees.
    Wedge {
        /// Lowest and highest caster it adds, degrees.
        #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
        caster_deg: [f64; 2],
        /// Steps, degrees.
        step_deg: f64,
    },
    /// Offset sleeve of an axle end's upper ball joint, clocked: the kingpin's top leans out by amount · cos and back
    /// by amount · sin of the angle; at 0 positions from "out" the whole offset is camber.
    Sleeve {
        /// Offset, degrees.
        amount_deg: f64,
        /// Positions in a full turn.
        positions: u32,
    },
}

/// Why an adjuster that is there cannot be turned.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Held {
    /// Knock-out tabs still in its slot: a part takes them out.
    TabsIn,
    /// Seized: it counts as fixed until it is freed.
    Seized,
    /// This side has none.
    NotHere,
}

/// One adjuster of one side.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Adjuster {
    /// What the specialist calls it.
    pub name: String,
    /// Where it stands now.
    #[serde(default)]
    pub position: f64,
    /// Nobody looked where it stands: the readings and the shape tell the likeliest place.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub unseen: bool,
    /// Cannot be turned as it is (knock-out tabs still in, plate welded).
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub locked: bool,
    /// What holds it where it stands, where that is known; it cannot be turned then either.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub held: Option<Held>,
    /// Whether its throw, range or thread was measured on this car; else it is as usual or as claimed.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub measured: bool,
    /// What the shop learned of it; its throw is then as it was found to be, not as claimed.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub known: Option<Known>,
    /// How it works.
    #[serde(flatten)]
    pub kind: AdjusterKind,
}

/// What proved cars taught of an adjuster.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Known {
    /// Times what it is said to do.
    pub times: f64,
    /// Standard deviation of the next car's, of ln times.
    pub sd: f64,
    /// Cars it rests on.
    pub cars: u32,
}

/// Thread that must stay in engagement where the part says nothing, mm (common practice, no source).
pub const LEAST_ENGAGED_MM: f64 = 15.0;

/// What an adjuster measured on the car does against what was measured, as a share (judgement, no source).
const MEASURED_SD: f64 = 0.08;

/// Whether two directions lie within 45° of one line.
fn along(a: &[f64; 3], b: &[f64; 3]) -> bool {
    let (a, b) = (unit(a), unit(b));
    a.iter().zip(&b).map(|(x, y)| x * y).sum::<f64>().abs() > std::f64::consts::FRAC_1_SQRT_2
}

fn unit(direction: &[f64; 3]) -> [f64; 3] {
    let n = direction.iter().map(|c| c * c).sum::<f64>().sqrt().max(1e-9);
    direction.map(|c| c / n)
}

impl Adjuster {
    /// The geometry edits at a position.
    #[must_use]
    pub fn edits_at(&self, position: f64) -> Vec<Edit> {
        self.edits_with_gain(position, 1.0)
    }

    /// The edits at a position when the adjuster does `gain` times what it is said to do, counted from where it stands.
    #[must_use]
    pub fn edits_with_gain(&self, position: f64, gain: f64) -> Vec<Edit> {
        let from = |of: &dyn Fn(f64) -> f64| {
            let stands = of(self.position);
            stands + (of(position) - stands) * gain
        };
        let mm =
            if gain == 1.0 { self.displacement_mm(position) } else { from(&|p| self.displacement_mm(p)) };
        match &self.kind {
            AdjusterKind::Eccentric { point, direction, .. }
            | AdjusterKind::Slide { point, direction, .. }
            | AdjusterKind::Shims { point, direction, .. } => {
                vec![Edit::MovePivot { point: point.clone(), by: unit(direction).map(|c| c * mm) }]
            }
            AdjusterKind::Thread { link, .. } => {
                let (arm, front_mm, rear_mm) = match link {
                    ThreadLink::Tie => return vec![Edit::LengthenTie { by_mm: mm }],
                    ThreadLink::Named(name) => {
                        return vec![Edit::LengthenLink { name: name.clone(), by_mm: mm }];
                    }
                    ThreadLink::Upper => (Arm::Upper, mm, mm),
                    ThreadLink::UpperFront => (Arm::Upper, mm, 0.0),
                    ThreadLink::UpperRear => (Arm::Upper, 0.0, mm),
                    ThreadLink::Lower => (Arm::Lower, mm, mm),
                    ThreadLink::LowerFront => (Arm::Lower, mm, 0.0),
                    ThreadLink::LowerRear => (Arm::Lower, 0.0, mm),
                };
                vec![Edit::LengthenLinks { arm, front_mm, rear_mm }]
            }
            AdjusterKind::Tilt { toe_per_camber, .. } => {
                let camber_deg = from(&|p| p);
                vec![Edit::KnuckleTilt { camber_deg, toe_deg: camber_deg * toe_per_camber }]
            }
            AdjusterKind::CamBolt { amplitude_deg, .. } => {
                let camber_deg = from(&|p| amplitude_deg * p.to_radians().sin());
                vec![Edit::KnuckleTilt { camber_deg, toe_deg: 0.0 }]
            }
            AdjusterKind::Wedge { .. } => vec![Edit::LeanKingpin { caster_deg: from(&|p| p) }],
            AdjusterKind::Sleeve { amount_deg, .. } => {
                vec![Edit::OffsetUpperJoint {
                    out_deg: from(&|p| amount_deg * p.to_radians().cos()),
                    back_deg: from(&|p| amount_deg * p.to_radians().sin()),
                }]
            }
        }
    }

    /// Standard deviation of what it really does against what it is said to do, as a share: a bolt by its claim, anything else
    /// that nobody measured (judgement, no source). A pitch that was guessed is no better than a throw that was: hidden cars
    /// whose threads do 0.7 to 1.5 of it are not learned under a narrower one (`examples/closed_loop`).
    #[must_use]
    pub fn gain_sd(&self) -> f64 {
        if self.measured {
            return MEASURED_SD;
        }
        if let Some(k) = self.known {
            return k.sd;
        }
        match &self.kind {
            AdjusterKind::CamBolt { .. } => 0.30,
            _ => 0.20,
        }
    }

    /// Displacement of the pivot or growth of the link at a position, mm; 0 for what only turns.
    #[must_use]
    pub fn displacement_mm(&self, position: f64) -> f64 {
        match &self.kind {
            AdjusterKind::Eccentric { eccentricity_mm, .. } => eccentricity_mm * position.to_radians().sin(),
            AdjusterKind::Thread { pitch_mm, ends, .. } => pitch_mm * f64::from(*ends) * position,
            AdjusterKind::Slide { .. } | AdjusterKind::Shims { .. } => position,
            AdjusterKind::Tilt { .. }
            | AdjusterKind::CamBolt { .. }
            | AdjusterKind::Wedge { .. }
            | AdjusterKind::Sleeve { .. } => 0.0,
        }
    }

    /// What a position amounts to in the adjuster's own straight measure: mm moved, degrees of camber or
    /// caster. Angles of the wheel are nearly linear in it.
    pub fn amount(&self, position: f64) -> f64 {
        match &self.kind {
            AdjusterKind::CamBolt { amplitude_deg, .. } => amplitude_deg * position.to_radians().sin(),
            AdjusterKind::Tilt { .. } | AdjusterKind::Wedge { .. } | AdjusterKind::Sleeve { .. } => position,
            _ => self.displacement_mm(position),
        }
    }

    /// The position that amounts to this, within the range.
    pub fn position_of(&self, amount: f64) -> f64 {
        let turn = |throw: f64| (amount / throw).clamp(-1.0, 1.0).asin().to_degrees();
        let p = match &self.kind {
            AdjusterKind::Eccentric { eccentricity_mm, .. } => turn(*eccentricity_mm),
            AdjusterKind::CamBolt { amplitude_deg, .. } => turn(*amplitude_deg),
            AdjusterKind::Thread { pitch_mm, ends, .. } => amount / (pitch_mm * f64::from(*ends)),
            _ => amount,
        };
        let [low, high] = self.range();
        p.clamp(low, high)
    }

    /// Whether it turns the same thing as another: the same pivot, link or clamp. Of two such only one can be on the car.
    #[must_use]
    pub fn turns_with(&self, other: &Self) -> bool {
        use AdjusterKind as K;
        match (&self.kind, &other.kind) {
            (K::Thread { link: a, .. }, K::Thread { link: b, .. }) => a == b,
            (
                K::Eccentric { point: a, direction: d, .. } | K::Slide { point: a, direction: d, .. },
                K::Eccentric { point: b, direction: e, .. } | K::Slide { point: b, direction: e, .. },
            )
            | (K::Shims { point: a, direction: d, .. }, K::Shims { point: b, direction: e, .. }) => {
                a == b && along(d, e)
            }
            (K::CamBolt { .. }, K::CamBolt { .. })
            | (K::Tilt { .. }, K::Tilt { .. })
            | (K::Wedge { .. }, K::Wedge { .. })
            | (K::Sleeve { .. }, K::Sleeve { .. }) => true,
            _ => false,
        }
    }

    /// Whether it sets toe at the tie rod.
    #[must_use]
    pub fn is_tie_rod(&self) -> bool {
        matches!(self.kind, AdjusterKind::Thread { link: ThreadLink::Tie, .. })
    }

    /// Whether a body that lengthens its link is turned clockwise, seen from the wheel; none where nobody told which
    /// thread is left-hand, or where a single thread's place is not known: only a tie rod's is, at its outer end.
    ///
    /// A right-hand nut turned clockwise goes away from whoever looks: a sleeve with its left-hand thread at the wheel
    /// goes inboard over the inner stud, and the outer stud comes in too, so clockwise shortens it.
    #[must_use]
    pub fn longer_clockwise(&self) -> Option<bool> {
        let AdjusterKind::Thread { ends, left_hand, .. } = &self.kind else { return None };
        match (ends, (*left_hand)?) {
            (2, LeftHand::Wheel) => Some(false),
            (2, LeftHand::Inner) => Some(true),
            // The rod turns in its outer end, a screw that is looked at from its point.
            (1, LeftHand::Neither) if self.is_tie_rod() => Some(true),
            (1, LeftHand::Wheel) if self.is_tie_rod() => Some(false),
            _ => None,
        }
    }

    /// Whether it cannot be turned as it is.
    #[must_use]
    pub fn is_fixed(&self) -> bool {
        self.locked || self.held.is_some()
    }

    /// Lowest and highest position; where it stands when it is locked. A thread ends where it would lose its engagement,
    /// as far as that is known; one that has lost it already is never turned farther out.
    #[must_use]
    pub fn range(&self) -> [f64; 2] {
        if self.is_fixed() {
            return [self.position; 2];
        }
        let [low, high] = self.built_range();
        let AdjusterKind::Thread { pitch_mm, engaged_mm: Some(engaged), min_engaged_mm, .. } = &self.kind
        else {
            return [low, high];
        };
        let most = (engaged - min_engaged_mm.unwrap_or(LEAST_ENGAGED_MM)) / pitch_mm;
        [low, high.min(most.max(self.position)).max(low)]
    }

    /// Lowest and highest position as it is built, locked or not.
    #[must_use]
    pub fn built_range(&self) -> [f64; 2] {
        match &self.kind {
            AdjusterKind::Eccentric { min_deg, max_deg, .. }
            | AdjusterKind::CamBolt { min_deg, max_deg, .. } => [*min_deg, *max_deg],
            AdjusterKind::Thread { turns, .. } => *turns,
            AdjusterKind::Slide { range_mm, .. } | AdjusterKind::Shims { range_mm, .. } => *range_mm,
            AdjusterKind::Tilt { camber_deg, .. } => *camber_deg,
            AdjusterKind::Wedge { caster_deg, .. } => *caster_deg,
            AdjusterKind::Sleeve { positions, .. } => [0.0, 360.0 - 360.0 / f64::from(*positions)],
        }
    }

    /// One notch in degrees, a quarter turn, a shim, a mark; `None` where any position can be set.
    #[must_use]
    pub fn step(&self) -> Option<f64> {
        match &self.kind {
            AdjusterKind::Eccentric { notches_per_half_turn, .. }
            | AdjusterKind::CamBolt { notches_per_half_turn, .. } => {
                notches_per_half_turn.map(|n| 180.0 / f64::from(n))
            }
            AdjusterKind::Thread { .. } => Some(0.25),
            AdjusterKind::Slide { step_mm, .. } => *step_mm,
            AdjusterKind::Shims { step_mm, .. } => Some(*step_mm),
            AdjusterKind::Tilt { step_deg, .. } => *step_deg,
            AdjusterKind::Wedge { step_deg, .. } => Some(*step_deg),
            AdjusterKind::Sleeve { positions, .. } => Some(360.0 / f64::from(*positions)),
        }
    }

    /// Whether it is one thing for both wheels of a live axle: arms, track bar, tie rod, wedges.
    #[must_use]
    pub fn is_shared_on_axle(&self) -> bool {
        !matches!(
            self.kind,
            AdjusterKind::Tilt { .. } | AdjusterKind::CamBolt { .. } | AdjusterKind::Sleeve { .. }
        )
    }

    /// Where it comes in the order of setting: slots first, then arms and cams, plates last, toe after all
    /// (common practice, no source).
    #[must_use]
    pub fn turn_order(&self) -> u8 {
        match &self.kind {
            AdjusterKind::Tilt { .. } | AdjusterKind::Wedge { .. } | AdjusterKind::Sleeve { .. } => 0,
            AdjusterKind::Shims { .. } | AdjusterKind::CamBolt { .. } => 1,
            AdjusterKind::Eccentric { .. } => 2,
            AdjusterKind::Slide { .. } => 3,
            AdjusterKind::Thread { link: ThreadLink::Tie, .. } => 5,
            AdjusterKind::Thread { .. } => 2,
        }
    }

    /// The adjuster with other eccentrics fitted or its slots freed, when the edit is about its pivot.
    #[must_use]
    pub fn with_edit(&self, edit: &Edit) -> Self {
        let mut out = self.clone();
        match (edit, &mut out.kind) {
            (
                Edit::ReplaceEccentric { points, eccentricity_mm, notches_per_half_turn },
                AdjusterKind::Eccentric { point, eccentricity_mm: e, notches_per_half_turn: n, .. },
            ) if points.contains(point) => {
                *e = *eccentricity_mm;
                *n = Some(*notches_per_half_turn);
            }
            (Edit::FreeEccentrics { points }, AdjusterKind::Eccentric { point, .. })
                if points.contains(point) && matches!(out.held, None | Some(Held::TabsIn)) =>
            {
                (out.locked, out.held) = (false, None);
            }
            _ => {}
        }
        out
    }

    /// Direction word of a change of position in the shop's terms.
    #[must_use]
    pub fn direction_word(&self, from: f64, to: f64) -> &'static str {
        let moved = self.amount(to) - self.amount(from);
        if moved.abs() < 1e-9 && (to - from).abs() < 1e-9 {
            return "leave";
        }
        let more = moved > 0.0;
        let direction = match &self.kind {
            AdjusterKind::Thread { .. } => return if more { "longer" } else { "shorter" },
            AdjusterKind::Tilt { .. } | AdjusterKind::CamBolt { .. } => {
                return if more { "top out" } else { "top in" };
            }
            AdjusterKind::Wedge { .. } => return if more { "top back" } else { "top forward" },
            AdjusterKind::Sleeve { .. } => return "clockwise from out",
            AdjusterKind::Eccentric { direction, .. }
            | AdjusterKind::Slide { direction, .. }
            | AdjusterKind::Shims { direction, .. } => direction,
        };
        let (axis, along) = direction
            .iter()
            .enumerate()
            .fold((1, 0.0f64), |best, (i, c)| if c.abs() > best.1.abs() { (i, *c) } else { best });
        match (axis, more == (along > 0.0)) {
            (0, true) => "forward",
            (0, false) => "rearward",
            (1, true) => "outboard",
            (1, false) => "inboard",
            (_, true) => "up",
            (_, false) => "down",
        }
    }
}

/// Front and rear lower cams of 8 notches in half a turn, and a tie rod: a usual truck front axle.
#[must_use]
pub fn default_adjusters(eccentricity_mm: f64) -> Vec<Adjuster> {
    let cam = |name: &str, point| Adjuster {
        name: name.into(),
        position: 0.0,
        unseen: false,
        locked: false,
        held: None,
        measured: false,
        known: None,
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
            unseen: false,
            locked: false,
            held: None,
            measured: false,
            known: None,
            kind: AdjusterKind::Thread {
                link: ThreadLink::Tie,
                pitch_mm: 1.5,
                ends: 1,
                turns: [-12.0, 12.0],
                engaged_mm: None,
                min_engaged_mm: None,
                left_hand: None,
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
        assert_eq!(cam.direction_word(0.0, 22.5), "outboard");
        assert_eq!(cam.direction_word(0.0, -22.5), "inboard");
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
        assert_eq!(t.direction_word(0.0, 1.0), "longer");
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
