//! The whole document a plan is computed from.

use super::angle::AngleName;
use super::height::{PlanState, Way, way_problems};
use super::swept::Swept;
use crate::aim::{Aim, Cross, JudgedAt, Target};
use crate::part::ClassRules;
use bold_stance_car::adjuster::{Adjuster, adjuster_problems, adjusters_not_there};
use bold_stance_car::fit::{Knowledge, Sigmas, SweepReading};
use bold_stance_car::vehicle::{AirLevel, Attitude, Axles, Limits, Measured, Sides, StateKind};
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{self, Corner};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// What was read on one wheel.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SideReadings {
    /// Hub centre to arch lip, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 1500.0))]
    pub height_mm: f64,
    /// Camber, caster, toe of the wheel, degrees; caster of a rear wheel is not looked at.
    pub angles: Measured,
    /// Standard deviations of the angles, degrees.
    pub sigma: Sigmas,
    /// What of it nobody read: it is what the model itself expects, as wide as that is.
    #[serde(default, skip_serializing_if = "Unread::is_none")]
    pub unread: Unread,
}

/// What was not read of a wheel.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct Unread {
    /// Hub to arch.
    pub height: bool,
    /// Camber.
    pub camber: bool,
    /// Caster; never of a rear wheel.
    pub caster: bool,
    /// Toe.
    pub toe: bool,
}

impl Unread {
    /// Whether everything was read.
    #[must_use]
    pub fn is_none(&self) -> bool {
        *self == Self::default()
    }
}

/// Angles picked by hand on an axle's map.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Picked {
    /// Camber, degrees.
    #[cfg_attr(feature = "openapi", schema(minimum = -30.0, maximum = 30.0))]
    pub camber_deg: f64,
    /// Caster in front, toe of the wheel behind, degrees.
    #[cfg_attr(feature = "openapi", schema(minimum = -30.0, maximum = 30.0))]
    pub second_deg: f64,
}

impl Picked {
    /// Both angles with the names of their fields.
    pub(crate) fn each(&self) -> [(&'static str, f64); 2] {
        [("camber_deg", self.camber_deg), ("second_deg", self.second_deg)]
    }
}

/// A window that holds everything, degrees.
const OPEN_DEG: [f64; 2] = [-90.0, 90.0];

/// What moves the height of an axle, mm.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct Moves {
    /// Hub-to-arch gain from as found, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = -300.0, maximum = 300.0))]
    pub height_change_mm: f64,
    /// Height it is expected to lose as springs settle, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 60.0))]
    pub settle_mm: f64,
    /// Height it loses under the usual load, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = -100.0, maximum = 250.0))]
    pub load_mm: f64,
    /// Loaded radius gained by the tyres, mm: turns the body, moves no arm.
    #[cfg_attr(feature = "openapi", schema(minimum = -200.0, maximum = 200.0))]
    pub tyre_gain_mm: f64,
}

/// Everything a plan hangs on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PlanInput {
    /// The axle.
    pub geometry: Geometry,
    /// How well its points are known.
    #[serde(default)]
    pub knowledge: Knowledge,
    /// Readings of one wheel at several heights: they say where the points are and leave less of them to doubt.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub jack_sweep: Vec<SweepReading>,
    /// What the sweep said, once it was worked out.
    #[serde(skip)]
    pub swept: Option<Swept>,
    /// Axle to axle, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 1000.0, maximum = 8000.0))]
    pub wheelbase_mm: f64,
    /// Hub-to-arch height at which the geometry was taken, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 1500.0))]
    pub design_height_mm: f64,
    /// What can be turned on each side: the same list on both, each as it stands there.
    pub adjusters: Sides<Vec<Adjuster>>,
    /// Whether the specialist said that this is all that can be turned; else it is what such cars usually have.
    #[serde(default = "yes")]
    pub adjusters_told: bool,
    /// Whether the upper arm sits on a cross shaft, behind which shims go; not looked at when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub upper_shaft: Option<bool>,
    /// The rule book of its class, where it competes.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub class_rules: Option<ClassRules>,
    /// Left as found.
    pub left: SideReadings,
    /// Right as found.
    pub right: SideReadings,
    /// How far a live axle has to go to the left to stand central, as read as found, mm; not read when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(minimum = -150.0, maximum = 150.0))]
    pub axle_offset_mm: Option<f64>,
    /// Wheelbases as taped on both sides as found, where this axle is the one they are squared by, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wheelbases_mm: Option<Sides<f64>>,
    /// What moves each axle's height.
    pub moves: Axles<Moves>,
    /// Ways in which the gain is had; what is left of it is the suspension's own travel.
    #[serde(default)]
    pub ways: Vec<Way>,
    /// Left and right on top of the gain, mm.
    #[serde(default)]
    pub trim_mm: Sides<f64>,
    /// Levels of an air suspension against as found.
    #[serde(default)]
    pub levels: Vec<AirLevel>,
    /// What joints, travel and clearances allow, as far as it was measured.
    #[serde(default, deserialize_with = "bold_stance_units::problem::from_object")]
    pub limits: Limits,
    /// Largest turn of the inner wheel, degrees.
    #[serde(default = "usual_lock")]
    #[cfg_attr(feature = "openapi", schema(minimum = 5.0, maximum = 70.0))]
    pub lock_deg: f64,
    /// Camber and caster (camber and toe at the rear) picked by hand on the map, left and right.
    #[serde(default)]
    pub picked: Sides<Option<Picked>>,
    /// Fitted parts, by id.
    #[serde(default)]
    pub fitted: Vec<String>,
    /// Of those, what goes on one side only; a part that is not named goes on both.
    #[serde(default, skip_serializing_if = "BTreeMap::is_empty")]
    pub only: BTreeMap<String, Side>,
    /// Where adjusters stand that were turned since the readings as found, on each side: positions by name.
    #[serde(default, skip_serializing_if = "not_turned")]
    pub turned: Sides<BTreeMap<String, f64>>,
    /// What is wanted.
    pub aim: Aim,
}

fn not_turned(t: &Sides<BTreeMap<String, f64>>) -> bool {
    t.each().iter().all(|(_, m)| m.is_empty())
}

fn yes() -> bool {
    true
}

fn usual_lock() -> f64 {
    35.0
}

impl PlanInput {
    /// A plan that changes nothing yet: no height, no parts.
    #[must_use]
    pub fn unchanged(
        geometry: Geometry,
        wheelbase_mm: f64,
        design_height_mm: f64,
        adjusters: Vec<Adjuster>,
        sides: [SideReadings; 2],
        aim: Aim,
    ) -> Self {
        let [left, right] = sides;
        Self {
            geometry,
            knowledge: Knowledge::default(),
            jack_sweep: Vec::new(),
            swept: None,
            wheelbase_mm,
            design_height_mm,
            adjusters: Sides { left: adjusters.clone(), right: adjusters },
            adjusters_told: true,
            upper_shaft: None,
            class_rules: None,
            left,
            right,
            axle_offset_mm: None,
            wheelbases_mm: None,
            moves: Axles::default(),
            ways: Vec::new(),
            trim_mm: Sides::default(),
            levels: Vec::new(),
            limits: Limits::default(),
            lock_deg: usual_lock(),
            picked: Sides::default(),
            fitted: Vec::new(),
            only: BTreeMap::new(),
            turned: Sides::default(),
            aim,
        }
    }

    /// Whether caster is planned: on the front axle.
    #[must_use]
    pub fn steered(&self) -> bool {
        self.geometry.axle == Axle::Front
    }

    /// The same with the axle that is planned at another gain, mm.
    #[must_use]
    pub fn lifted(mut self, height_change_mm: f64) -> Self {
        self.own_mut().height_change_mm = height_change_mm;
        self
    }

    /// What moves the axle that is planned.
    #[must_use]
    pub fn own(&self) -> &Moves {
        &self.moves[self.geometry.axle]
    }

    /// The same, to be changed.
    pub fn own_mut(&mut self) -> &mut Moves {
        &mut self.moves[self.geometry.axle]
    }

    /// Windows the angles are set into: those of the aim, without bounds for an angle that was not read on both wheels.
    /// Nobody turns a cam for a number nobody read.
    #[must_use]
    pub fn target(&self, side: Side) -> Target {
        let mut t = self.aim.target(self.geometry.axle, side);
        if !self.is_read(AngleName::Camber) {
            t.camber = OPEN_DEG;
        }
        if !self.is_read(AngleName::Caster) {
            t.caster = OPEN_DEG;
        }
        if !self.is_read(AngleName::Toe) {
            t.toe = OPEN_DEG;
        }
        t
    }

    /// Whether an angle was read on both wheels.
    #[must_use]
    pub fn is_read(&self, angle: AngleName) -> bool {
        [&self.left.unread, &self.right.unread].into_iter().all(|u| match angle {
            AngleName::Camber | AngleName::CrossCamber => !u.camber,
            AngleName::Caster | AngleName::CrossCaster => !u.caster,
            AngleName::Toe => !u.toe,
        })
    }

    /// Whether any of its angles was read on both wheels: else nothing can be judged.
    #[must_use]
    pub fn is_judged(&self) -> bool {
        let of: &[AngleName] = if self.steered() {
            &[AngleName::Camber, AngleName::Caster, AngleName::Toe]
        } else {
            &[AngleName::Camber, AngleName::Toe]
        };
        of.iter().any(|a| self.is_read(*a))
    }

    /// Most camber and caster may lie apart from side to side, degrees; without bounds where they were not read.
    #[must_use]
    pub fn cross(&self) -> Cross {
        let of = |angle, most: f64| if self.is_read(angle) { most } else { OPEN_DEG[1] };
        let cross = self.aim.cross(self.geometry.axle);
        Cross {
            camber: of(AngleName::Camber, cross.camber),
            caster: of(AngleName::Caster, cross.caster),
            ..cross
        }
    }

    /// Pitch of the body at these gains, mm.
    #[must_use]
    pub fn attitude(&self, gain_mm: Axles<f64>) -> Attitude {
        Attitude::from_rises(gain_mm.front, gain_mm.rear, self.wheelbase_mm)
    }

    /// Height states that exist, as found first.
    #[must_use]
    pub fn states(&self) -> Vec<PlanState> {
        let own = self.geometry.axle;
        let state = |kind, name: &str, gain_mm: Axles<f64>| PlanState {
            kind,
            name: name.to_owned(),
            own_mm: gain_mm[own],
            gain_mm,
        };
        let of = |f: fn(&Moves) -> f64| self.moves.as_ref().map(f);
        let (settle, load) = (of(|m| m.settle_mm), of(|m| m.load_mm));
        let less = |at: Axles<f64>, by: Axles<f64>| Axles::of(|a| at[a] - by[a]);
        let mut at = of(|m| m.height_change_mm);
        let mut out = vec![
            state(StateKind::Arrived, "as found", Axles::default()),
            state(StateKind::Planned, "planned", at),
        ];
        if settle != Axles::default() {
            at = less(at, settle);
            out.push(state(StateKind::Settled, "settled", at));
        }
        if load != Axles::default() {
            out.push(state(StateKind::Loaded, "loaded", less(at, load)));
        }
        for l in &self.levels {
            out.push(state(StateKind::Air, &l.name, l.mm));
        }
        out
    }

    /// The state the aim is judged at; planned where the one it names does not exist.
    #[must_use]
    pub fn judged(&self) -> PlanState {
        let kind = match self.aim.judged_at {
            JudgedAt::Planned => StateKind::Planned,
            JudgedAt::Settled => StateKind::Settled,
            JudgedAt::Loaded => StateKind::Loaded,
        };
        let states = self.states();
        let level = self.aim.level.as_ref();
        let at_level = |s: &&PlanState| s.kind == StateKind::Air && level == Some(&s.name);
        let found = states
            .iter()
            .find(at_level)
            .or_else(|| states.iter().find(|s| s.kind == kind))
            .or_else(|| states.get(1));
        found.cloned().unwrap_or(PlanState {
            kind: StateKind::Planned,
            name: "planned".into(),
            own_mm: self.own().height_change_mm,
            gain_mm: self.moves.as_ref().map(|m| m.height_change_mm),
        })
    }

    /// Everything wrong with the document, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out: Vec<Problem> = linkage::problems(&self.geometry)
            .into_iter()
            .map(|mut p| {
                p.field = format!("geometry.{}", p.field);
                p
            })
            .collect();
        if out.is_empty() && self.steered() && !Corner::of(&self.geometry, Side::Left).is_steered() {
            out.push(Problem::new(
                "geometry.layout",
                said("fault-this-front-axle-no-steering-2"),
                said("fault-layout-steers-tie-rod-link"),
            ));
        }
        let mut check = |f: &str, v: f64, low: f64, high: f64, unit: &str| {
            out.extend(in_range(f, v, low, high, unit).err());
        };
        check("wheelbase_mm", self.wheelbase_mm, 1000.0, 8000.0, "mm");
        check("design_height_mm", self.design_height_mm, 50.0, 1500.0, "mm");
        for (axle, m) in self.moves.each() {
            for (f, v, low, high) in [
                ("height_change_mm", m.height_change_mm, -300.0, 300.0),
                ("settle_mm", m.settle_mm, 0.0, 60.0),
                ("load_mm", m.load_mm, -100.0, 250.0),
                ("tyre_gain_mm", m.tyre_gain_mm, -200.0, 200.0),
            ] {
                check(&format!("moves.{}.{f}", axle.word()), v, low, high, "mm");
            }
        }
        check("axle_offset_mm", self.axle_offset_mm.unwrap_or(0.0), -150.0, 150.0, "mm");
        for (side, v) in self.wheelbases_mm.iter().flat_map(Sides::each) {
            check(&format!("wheelbases_mm.{}", side.word()), *v, 1000.0, 8000.0, "mm");
        }
        check("lock_deg", self.lock_deg, 5.0, 70.0, "°");
        for (side, trim_mm) in self.trim_mm.each() {
            let name = side.word();
            check(&format!("trim_mm.{name}"), *trim_mm, -60.0, 60.0, &format!("mm, {name}"));
            for (f, v) in self.picked[side].iter().flat_map(Picked::each) {
                check(&format!("picked.{name}.{f}"), v, -30.0, 30.0, "°");
            }
        }
        for (side, r) in [("left", &self.left), ("right", &self.right)] {
            check(&format!("{side}.height_mm"), r.height_mm, 50.0, 1500.0, "mm");
            for (f, v) in [
                ("camber_deg", r.angles.camber_deg),
                ("caster_deg", r.angles.caster_deg),
                ("toe_deg", r.angles.toe_deg),
            ] {
                check(&format!("{side}.angles.{f}"), v, -15.0, 15.0, "°");
            }
            for (f, v) in [
                ("camber_deg", r.sigma.camber_deg),
                ("caster_deg", r.sigma.caster_deg),
                ("toe_deg", r.sigma.toe_deg),
            ] {
                check(&format!("{side}.sigma.{f}"), v, 0.0, 5.0, "°");
            }
        }
        for (side, list) in self.adjusters.each() {
            let found =
                adjuster_problems(list).into_iter().chain(adjusters_not_there(list, &self.geometry.points));
            out.extend(found.map(|p| Problem {
                field: p.field.replacen("adjusters", &format!("adjusters.{}", side.word()), 1),
                ..p
            }));
        }
        let same = |a: &Adjuster, b: &Adjuster| a.name == b.name && a.turns_with(b);
        let alike = self.adjusters.left.len() == self.adjusters.right.len()
            && self.adjusters.left.iter().zip(&self.adjusters.right).all(|(a, b)| same(a, b));
        if !alike {
            out.push(Problem::new("adjusters", said("fault-sides-unlike"), said("fault-sides-unlike-right")));
        }
        way_problems("ways", &self.ways, &self.geometry.points, &mut out);
        out.extend(self.limits.problems("limits."));
        if self.levels.len() > 8 {
            out.push(Problem::new("levels", said("fault-more-than-eight"), said("fault-eight-levels-fewer")));
        }
        out.extend(self.aim.problems());
        if self.jack_sweep.len() > 40 {
            out.push(Problem::new(
                "jack_sweep",
                said("fault-more-than-forty-heights"),
                said("fault-readings-at-40-heights-at"),
            ));
        }
        if self.fitted.len() > 8 {
            out.push(Problem::new(
                "fitted",
                said("fault-more-than-eight-parts"),
                said("fault-eight-parts-fewer"),
            ));
        }
        out
    }
}
