//! From what is wanted to the gain of an axle, and to turns of a collar or bolt.

use super::car::{CarInput, other};
use bold_stance_car::archetype::Measure;
use bold_stance_car::vehicle::{PerTurn, Spring, TORSION_BOLT, TurnRecord, learn_per_turn};
use bold_stance_kinematics::geometry::{Axle, Side, WheelAtDesign};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_units::Sigma;
use bold_stance_units::numbers::Secant;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// What is wanted.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TargetKind {
    /// Hub centre to arch lip, mm.
    HubToArch,
    /// Floor to arch lip, mm.
    FloorToArch,
    /// Nose-down angle of the body, degrees: rear arch over front arch, by the wheelbase.
    Rake,
    /// Front and rear arches at one height over the floor.
    Level,
    /// Floor to frame, mm.
    FloorToFrame,
    /// Frame as high over the floor as at the other axle.
    FrameLevel,
    /// Rise of the lower arm (lower link, swing arm) toward the wheel, degrees, mean of both sides; over a level frame.
    ArmAngle,
}

/// What is turned for height. Nothing is said of turns until it is known: a bolt and a collar differ threefold.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "kind", rename_all = "snake_case", deny_unknown_fields)]
pub enum Turned {
    /// Adjusting bolt of a torsion bar.
    TorsionBolt,
    /// Threaded collar under a coil spring.
    Collar {
        /// Thread, mm a turn; [`USUAL_PITCH_MM`] when it was not measured.
        #[serde(default)]
        pitch_mm: Option<f64>,
        /// Spring travel over wheel travel; [`USUAL_MOTION_RATIO`] when it was not told.
        #[serde(default)]
        motion_ratio: Option<f64>,
    },
}

/// Thread of a collar nobody measured, mm a turn (common practice, no source).
pub const USUAL_PITCH_MM: f64 = 2.0;
/// Spring travel over wheel travel where nobody told it: a strut's; less on an arm (common practice, no source).
pub const USUAL_MOTION_RATIO: f64 = 1.0;

/// What turns of a collar were reckoned with.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CollarTaken {
    /// Thread, mm a turn.
    pub pitch_mm: f64,
    /// Whether it is the usual one, because none was told.
    pub usual_pitch: bool,
    /// Spring travel over wheel travel.
    pub motion_ratio: f64,
    /// Whether it is the usual one, because none was told of this car.
    pub usual_ratio: bool,
}

impl Turned {
    /// What a collar is reckoned with: as told, or as usual.
    fn collar(self) -> Option<CollarTaken> {
        let Self::Collar { pitch_mm, motion_ratio } = self else { return None };
        Some(CollarTaken {
            pitch_mm: pitch_mm.unwrap_or(USUAL_PITCH_MM),
            usual_pitch: pitch_mm.is_none(),
            motion_ratio: motion_ratio.unwrap_or(USUAL_MOTION_RATIO),
            usual_ratio: motion_ratio.is_none(),
        })
    }

    /// Whether what it gives is told: a collar's ratio is.
    #[must_use]
    pub fn is_told(self) -> bool {
        !matches!(self, Self::Collar { motion_ratio: None, .. })
    }

    /// Settled height a turn usually gives, mm.
    #[must_use]
    pub fn usual_mm(self) -> f64 {
        Self::usual(self.collar()).0
    }

    /// Settled height a turn gives before any was recorded, mm, with its standard deviation. A bolt: two turns gave about
    /// 3/8 in (common practice, no source). A collar: pitch over motion ratio, a tenth of it in doubt for what springs
    /// and bushings keep, a third where nobody told the ratio: a strut's is near 1, an arm's 0.5 to 0.8 (judgement, no source).
    fn usual(collar: Option<CollarTaken>) -> (f64, f64) {
        collar.map_or(TORSION_BOLT, |c| {
            let spring = Spring { rate_n_mm: 1.0, motion_ratio: c.motion_ratio };
            let per = spring.collar_height(1.0, c.pitch_mm);
            (per, if c.usual_ratio { 0.35 * per } else { 0.1 * per })
        })
    }
}

/// A wanted height of one axle, the other staying as planned.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct HeightTarget {
    /// The car and its plan.
    pub car: CarInput,
    /// What kind.
    pub kind: TargetKind,
    /// Which axle moves.
    pub axle: Axle,
    /// mm, or degrees for a rake; not looked at for level.
    pub value: f64,
    /// What is turned; no turns are told while it is not known and none were recorded.
    #[serde(default)]
    pub turned: Option<Turned>,
}

/// The gain and the turns to get there.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HeightAnswer {
    /// Hub-to-arch gain of the axle from as found, mm.
    pub gain_mm: f64,
    /// How far to turn.
    pub by_turning: Option<ByTurning>,
}

/// Turns that make a gain.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ByTurning {
    /// Turns of the bolt or collar, up positive.
    pub turns: f64,
    /// Half width of the 90 % band of the turns.
    pub turns_band: f64,
    /// Settled height a turn gives, mm.
    pub mm_per_turn: f64,
    /// Recorded turns it rests on; 0 is the usual value alone.
    pub records: usize,
    /// Cars of the shop it rests on besides.
    pub cars: u32,
    /// What a collar was reckoned with.
    pub collar: Option<CollarTaken>,
}

/// What a turn was found to give on cars of the shop, against what is usual for it.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TurnKnown {
    /// Times what is usual.
    pub times: f64,
    /// Standard deviation of ln of the next car's.
    pub sd: f64,
    /// Ends of nine in ten of the next car.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub between: [f64; 2],
    /// Cars it rests on.
    pub cars: u32,
}

/// The same by what is turned.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct TurnsKnown {
    /// A collar's thread.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub collar: Option<TurnKnown>,
    /// A torsion bar's bolt.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub torsion_bolt: Option<TurnKnown>,
}

impl TurnsKnown {
    /// What is known of what is turned.
    #[must_use]
    pub fn of(&self, turned: Turned) -> Option<TurnKnown> {
        match turned {
            // What other cars' ratios were tells nothing of one that nobody told.
            Turned::Collar { .. } => self.collar.filter(|_| turned.is_told()),
            Turned::TorsionBolt => self.torsion_bolt,
        }
    }
}

/// Works a target out, with what the shop knows of turns.
///
/// # Errors
/// The first [`Problem`] by field.
pub fn height_for(t: &HeightTarget, turns: &TurnsKnown) -> Result<HeightAnswer, Problem> {
    let (low, high, unit) = match t.kind {
        TargetKind::Rake => (-15.0, 15.0, "°"),
        TargetKind::ArmAngle => (-45.0, 45.0, "°"),
        _ => (0.0, 2500.0, "mm"),
    };
    in_range("value", t.value, low, high, unit)?;
    let base = &t.car.base;
    in_range("car.base.wheelbase_mm", base.wheelbase_mm, 1000.0, 8000.0, "mm")?;
    if base.turns.len() > 40 {
        return Err(Problem::new(
            "car.base.turns",
            said("fault-more-than-forty-records"),
            said("fault-40-at-most"),
        ));
    }
    let known = |axle: Axle, name: &str, v: Option<f64>, low: f64, high: f64| {
        let field = format!("car.base.stands.{name}.{}", axle.word());
        let v = v.ok_or_else(|| Problem::new(&field, said("fault-not-read"), said("fault-read-it-first")))?;
        in_range(&field, v, low, high, "mm").map(|()| v)
    };
    let radius = |axle: Axle| {
        let r = known(axle, "radius_mm", base.stands.radius_mm[axle], 100.0, 1000.0)?;
        Ok::<_, Problem>(r + base.tyre_gain_mm[axle])
    };
    // A frame stands higher by what its tyres gain.
    let frame = |axle: Axle| {
        let mm = known(axle, "frame_mm", base.stands.frame_mm[axle], 30.0, 1500.0)?;
        Ok::<_, Problem>(mm + base.tyre_gain_mm[axle])
    };
    let off = other(t.axle);
    // Of the arches: hub to arch over the tyre it will stand on, the other axle where the plan puts it.
    let own =
        || Ok::<_, Problem>((known(t.axle, "mm", base.stands.mm[t.axle], 50.0, 1500.0)?, radius(t.axle)?));
    let beside = || {
        let mm =
            known(off, "mm", base.stands.mm[off], 50.0, 1500.0)? + t.car.plan.axles[off].height_change_mm;
        Ok::<_, Problem>(mm + radius(off)?)
    };
    let to_floor = |floor: f64| own().map(|(mm, radius)| floor - radius - mm);
    let gain_mm = match t.kind {
        TargetKind::HubToArch => t.value - own()?.0,
        TargetKind::FloorToArch => to_floor(t.value)?,
        TargetKind::Level => to_floor(beside()?)?,
        TargetKind::Rake => {
            let rise = base.wheelbase_mm * t.value.to_radians().tan();
            to_floor(beside()? + if t.axle == Axle::Front { -rise } else { rise })?
        }
        TargetKind::FloorToFrame => t.value - frame(t.axle)?,
        TargetKind::FrameLevel => frame(off)? + t.car.plan.axles[off].height_change_mm - frame(t.axle)?,
        TargetKind::ArmAngle => to_arm_angle(t)?,
    };
    turns_for(t, turns, gain_mm)
}

/// Gain at which the lower arm of an axle rises toward its wheel as wanted, mm: mean of both sides as anchored to nothing but
/// the points, which is where an arm lies.
fn to_arm_angle(t: &HeightTarget) -> Result<f64, Problem> {
    let at = |name: &str| format!("car.base.axles.{}.{name}", t.axle.word());
    let b = t.car.base.axles[t.axle]
        .as_ref()
        .ok_or_else(|| Problem::new(at("geometry"), said("fault-not-read"), said("fault-read-it-first")))?;
    let (points, wheel) = b.geometry.side(Side::Left);
    let measures = [Measure::LowerArmAngle, Measure::LowerLinkAngle, Measure::SwingArmAngle];
    let Some(what) = measures.into_iter().find(|m| m.of(&points, &wheel).is_some()) else {
        return Err(Problem::new("kind", said("fault-no-arm-to-level"), said("fault-another-target")));
    };
    let travel = |s: Side| b.design_height_mm - b.read[s].height_mm;
    let risen = |gain: f64| -> Option<f64> {
        let of = |s: Side| {
            let (points, wheel) = b.geometry.side(s);
            let corner = Corner::new(&points, &wheel);
            let at = travel(s) - gain;
            let pose = corner.pose(at, 0.0).ok()?;
            let there = WheelAtDesign { center: pose.centre.into(), ..wheel };
            what.of(&corner.as_points(&pose, at, &points), &there)
        };
        Some(f64::midpoint(of(Side::Left)?, of(Side::Right)?) - t.value)
    };
    let search = Secant::to(1e-6, 1e-6, 40).within(-200.0, 200.0);
    match search.root([0.0, 1.0], |g| risen(g).ok_or(())) {
        Ok(found) if found.miss.abs() < 1e-3 => Ok(found.at),
        _ => Err(Problem::new("value", said("fault-arm-out-of-travel"), said("fault-nearer-level"))),
    }
}

/// Settled height a turn gives on this car: by what is turned, by what it gave on other cars of the shop, and by turns that were
/// recorded with what they gave, mm.
#[must_use]
pub(crate) fn per_turn(turned: Turned, known: Option<TurnKnown>, records: &[(f64, f64)]) -> PerTurn {
    learn_per_turn(as_known(Turned::usual(turned.collar()), known), records)
}

/// What a turn gives before any was recorded, as the shop knows it: mm and standard deviation.
fn as_known((mm, sd): (f64, f64), known: Option<TurnKnown>) -> (f64, f64) {
    known.map_or((mm, sd), |k| (mm * k.times, mm * k.times * k.sd))
}

/// The turns a gain takes.
fn turns_for(t: &HeightTarget, known: &TurnsKnown, gain_mm: f64) -> Result<HeightAnswer, Problem> {
    let base = &t.car.base;
    let collar = t.turned.and_then(Turned::collar);
    if let Some(c) = collar {
        in_range("turned.pitch_mm", c.pitch_mm, 0.5, 6.0, "mm a turn")?;
        in_range("turned.motion_ratio", c.motion_ratio, 0.2, 1.5, "of the wheel's travel")?;
    }
    // Turns are recorded of the front axle.
    let turns: &[TurnRecord] = if t.axle == Axle::Front { &base.turns } else { &[] };
    let records: Vec<(f64, f64)> = turns.iter().map(|r| (r.turns, r.height_change_mm)).collect();
    let usual = match t.turned {
        Some(_) => Some(Turned::usual(collar)),
        None if records.is_empty() => None,
        None => Some(TORSION_BOLT),
    };
    let by_turning = usual.map(|usual| {
        let of_shop = known.of(t.turned.unwrap_or(Turned::TorsionBolt));
        let per = learn_per_turn(as_known(usual, of_shop), &records);
        let turns = gain_mm / per.mm;
        ByTurning {
            turns,
            turns_band: (Sigma(per.sigma_mm / per.mm.abs()) * turns.abs()).half_width().0,
            mm_per_turn: per.mm,
            records: per.records,
            cars: of_shop.map_or(0, |k| k.cars),
            collar,
        }
    });
    Ok(HeightAnswer { gain_mm, by_turning })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::aim::shipped_aims;
    use crate::plan::{AxleBase, CarBase, CarPlan, SideReadings, Stands};
    use crate::sample::sample;
    use bold_stance_car::archetype::shipped_archetypes;
    use bold_stance_car::fit::Knowledge;
    use bold_stance_car::vehicle::{Axles, Limits, Measured, Sides};

    /// The axle that moves at 498 mm, the other at 571 mm, both on 402 mm.
    fn car(axle: Axle) -> CarInput {
        let mut stands =
            Stands { radius_mm: Axles { front: Some(402.0), rear: Some(402.0) }, ..Stands::default() };
        stands.mm[axle] = Some(498.0);
        stands.mm[other(axle)] = Some(571.0);
        let base = CarBase {
            class_rules: None,
            worked_since: None,
            turned: Axles::default(),
            inspected: Axles::default(),
            wheelbase_mm: 3220.0,
            lock_deg: 35.0,
            steering_ratio: bold_stance_car::vehicle::USUAL_STEERING_RATIO,
            levels: Vec::new(),
            tyre_gain_mm: Axles::default(),
            stands,
            turns: Vec::new(),
            axles: Axles::default(),
        };
        CarInput { base, plan: CarPlan::unchanged(shipped_aims().unwrap().remove(0)) }
    }

    fn t(kind: TargetKind, axle: Axle, value: f64) -> HeightTarget {
        HeightTarget { car: car(axle), kind, axle, value, turned: None }
    }

    #[test]
    fn every_kind_of_target_by_hand() {
        let gain = |kind, axle, v| height_for(&t(kind, axle, v), &TurnsKnown::default()).unwrap().gain_mm;
        assert!((gain(TargetKind::HubToArch, Axle::Front, 563.0) - 65.0).abs() < 1e-9);
        assert!((gain(TargetKind::FloorToArch, Axle::Front, 950.0) - 50.0).abs() < 1e-9);
        assert!((gain(TargetKind::Level, Axle::Front, 0.0) - 73.0).abs() < 1e-9);
        // Half a degree nose down over 3220 mm: 28.1 mm.
        assert!((gain(TargetKind::Rake, Axle::Front, 0.5) - (73.0 - 28.1)).abs() < 0.02);
        // The rear from 498 mm over a front at 571 mm: up 73 and 28.1 more.
        assert!((gain(TargetKind::Rake, Axle::Rear, 0.5) - (73.0 + 28.1)).abs() < 0.02);
    }

    #[test]
    fn turns_are_learned_from_what_was_turned() {
        // Common practice, no source (CP9): two turns gave about 3/8 in at the fender after settling.
        let mut x = t(TargetKind::HubToArch, Axle::Front, 508.0);
        assert!(height_for(&x, &TurnsKnown::default()).unwrap().by_turning.is_none(), "nothing is invented");
        x.turned = Some(Turned::TorsionBolt);
        let prior = height_for(&x, &TurnsKnown::default()).unwrap().by_turning.unwrap();
        assert!((prior.mm_per_turn - 9.525 / 2.0).abs() < 0.1 && prior.records == 0);
        x.car.base.turns = vec![
            TurnRecord { turns: 2.0, height_change_mm: 14.0 },
            TurnRecord { turns: 3.0, height_change_mm: 21.0 },
        ];
        let learned = height_for(&x, &TurnsKnown::default()).unwrap().by_turning.unwrap();
        assert!((learned.mm_per_turn - 6.9).abs() < 0.3, "{learned:?}");
        assert!(learned.turns < prior.turns && learned.turns_band < prior.turns_band);
    }

    /// 35 mm down on collars of 2 mm a turn on a strut are seventeen and a half turns, and more where the spring moves
    /// less than the wheel does; pitch and ratio out of range are named.
    #[test]
    fn a_collar_turns_by_its_thread() {
        let mut x = t(TargetKind::HubToArch, Axle::Front, 463.0);
        let turns =
            |x: &HeightTarget| height_for(x, &TurnsKnown::default()).unwrap().by_turning.unwrap().turns;
        x.turned = Some(Turned::Collar { pitch_mm: Some(2.0), motion_ratio: Some(1.0) });
        assert!((turns(&x) + 17.5).abs() < 1e-9, "{}", turns(&x));
        x.turned = Some(Turned::Collar { pitch_mm: None, motion_ratio: Some(0.6) });
        assert!((turns(&x) + 10.5).abs() < 1e-9, "{}", turns(&x));
        // What nobody told is taken as usual, and said to be.
        let taken = height_for(&x, &TurnsKnown::default()).unwrap().by_turning.unwrap().collar.unwrap();
        assert!(taken.usual_pitch && !taken.usual_ratio && taken.pitch_mm == USUAL_PITCH_MM);
        x.turned = Some(Turned::Collar { pitch_mm: Some(0.0), motion_ratio: Some(0.6) });
        assert_eq!(height_for(&x, &TurnsKnown::default()).unwrap_err().field, "turned.pitch_mm");
        x.turned = Some(Turned::Collar { pitch_mm: Some(2.0), motion_ratio: Some(0.0) });
        assert_eq!(height_for(&x, &TurnsKnown::default()).unwrap_err().field, "turned.motion_ratio");
    }

    /// The other axle counts as the plan puts it, each on the tyres it will have.
    #[test]
    fn the_plan_of_the_other_axle_and_the_new_tyres_count() {
        let gain = |x: &HeightTarget| height_for(x, &TurnsKnown::default()).unwrap().gain_mm;
        let mut x = t(TargetKind::Level, Axle::Front, 0.0);
        x.car.plan.axles.rear.height_change_mm = 25.0;
        assert!((gain(&x) - 98.0).abs() < 1e-9);
        x.car.base.tyre_gain_mm = Axles { front: 10.0, rear: 4.0 };
        assert!((gain(&x) - 92.0).abs() < 1e-9);
        x.car.base.stands.mm.rear = None;
        assert_eq!(height_for(&x, &TurnsKnown::default()).unwrap_err().field, "car.base.stands.mm.rear");
    }

    /// A bare chassis: the frame level, and the lower arm as wanted, looked at again on the points as posed there.
    #[test]
    fn a_frame_is_levelled_and_an_arm_laid_as_wanted() {
        let mut x = t(TargetKind::FrameLevel, Axle::Front, 0.0);
        assert_eq!(
            height_for(&x, &TurnsKnown::default()).unwrap_err().field,
            "car.base.stands.frame_mm.rear"
        );
        x.car.base.stands.frame_mm = Axles { front: Some(240.0), rear: Some(262.0) };
        assert!((height_for(&x, &TurnsKnown::default()).unwrap().gain_mm - 22.0).abs() < 1e-9);
        x.kind = TargetKind::FloorToFrame;
        x.value = 250.0;
        assert!((height_for(&x, &TurnsKnown::default()).unwrap().gain_mm - 10.0).abs() < 1e-9);
        x.kind = TargetKind::ArmAngle;
        x.value = 0.0;
        assert_eq!(
            height_for(&x, &TurnsKnown::default()).unwrap_err().field,
            "car.base.axles.front.geometry"
        );
        for g in [sample(), rear()] {
            let axle = g.axle;
            let (points, wheel) = g.side(Side::Left);
            let measures = [Measure::LowerArmAngle, Measure::LowerLinkAngle, Measure::SwingArmAngle];
            let what = measures.into_iter().find(|m| m.of(&points, &wheel).is_some()).unwrap();
            let drawn = what.of(&points, &wheel).unwrap();
            let angles = Measured { camber_deg: 0.0, caster_deg: 0.0, toe_deg: 0.0 };
            let unread = Default::default();
            let side = SideReadings { height_mm: 500.0, angles, sigma: Default::default(), unread };
            x.car.base.axles[axle] = Some(AxleBase {
                upper_shaft: None,
                knowledge: Knowledge::Archetype,
                jack_sweep: Vec::new(),
                design_height_mm: 500.0,
                adjusters: Sides::default(),
                adjusters_told: true,
                read: Sides { left: side, right: side },
                axle_offset_mm: None,
                wheelbases_mm: None,
                limits: Limits::default(),
                geometry: g.clone(),
            });
            (x.axle, x.value) = (axle, drawn + 3.0);
            let gain = height_for(&x, &TurnsKnown::default()).unwrap().gain_mm;
            // The arm hangs less the lower the body stands.
            assert!(gain < 0.0, "{gain}");
            let c = Corner::new(&points, &wheel);
            let pose = c.pose(-gain, 0.0).unwrap();
            let there = WheelAtDesign { center: pose.centre.into(), ..wheel };
            let lies = what.of(&c.as_points(&pose, -gain, &points), &there).unwrap();
            assert!((lies - drawn - 3.0).abs() < 1e-3, "{lies} {drawn}");
            x.value = 44.0;
            assert_eq!(height_for(&x, &TurnsKnown::default()).unwrap_err().field, "value");
        }
    }

    fn rear() -> bold_stance_kinematics::geometry::Geometry {
        shipped_archetypes().unwrap().into_iter().find(|a| a.id == "semi_trailing_rear").unwrap().geometry
    }

    #[test]
    fn a_wild_target_is_named() {
        assert_eq!(
            height_for(&t(TargetKind::Rake, Axle::Front, 40.0), &TurnsKnown::default()).unwrap_err().field,
            "value"
        );
    }
}
