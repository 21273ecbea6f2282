//! The whole document a plan is computed from.

use super::height::{PlanState, Way, way_problems};
use super::swept::Swept;
use crate::aim::{Aim, JudgedAt};
use bold_stance_car::adjuster::{Adjuster, adjuster_problems, adjusters_not_there};
use bold_stance_car::fit::{Knowledge, Sigmas, SweepReading};
use bold_stance_car::vehicle::{AirLevel, Attitude, Limits, Measured, StateKind};
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{self, Corner};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

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
    /// What can be turned on each side.
    pub adjusters: Vec<Adjuster>,
    /// Left as found.
    pub left: SideReadings,
    /// Right as found.
    pub right: SideReadings,
    /// How far a live axle has to go to the left to stand central, as read as found, mm; not read when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(minimum = -150.0, maximum = 150.0))]
    pub axle_offset_mm: Option<f64>,
    /// Hub-to-arch gain of this axle from as found, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = -300.0, maximum = 300.0))]
    pub height_change_mm: f64,
    /// Hub-to-arch gain of the other axle, mm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = -300.0, maximum = 300.0))]
    pub other_change_mm: f64,
    /// Height this axle is expected to lose as springs settle, mm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 60.0))]
    pub settle_mm: f64,
    /// The same of the other axle, mm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 60.0))]
    pub other_settle_mm: f64,
    /// Height this axle loses under the usual load, mm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = -100.0, maximum = 250.0))]
    pub load_mm: f64,
    /// The same of the other axle, mm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = -100.0, maximum = 250.0))]
    pub other_load_mm: f64,
    /// Ways in which the gain is had; what is left of it is the suspension's own travel.
    #[serde(default)]
    pub ways: Vec<Way>,
    /// Left and right on top of the gain, mm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub trim_mm: [f64; 2],
    /// Loaded radius gained by the tyres of this and the other axle, mm: turns the body, moves no arm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub tyre_gain_mm: [f64; 2],
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
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub picked: [Option<[f64; 2]>; 2],
    /// Fitted parts, by id.
    #[serde(default)]
    pub fitted: Vec<String>,
    /// What is wanted.
    pub aim: Aim,
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
            adjusters,
            left,
            right,
            axle_offset_mm: None,
            height_change_mm: 0.0,
            other_change_mm: 0.0,
            settle_mm: 0.0,
            other_settle_mm: 0.0,
            load_mm: 0.0,
            other_load_mm: 0.0,
            ways: Vec::new(),
            trim_mm: [0.0; 2],
            tyre_gain_mm: [0.0; 2],
            levels: Vec::new(),
            limits: Limits::default(),
            lock_deg: usual_lock(),
            picked: [None, None],
            fitted: Vec::new(),
            aim,
        }
    }

    /// Whether caster is planned: on the front axle.
    #[must_use]
    pub fn steered(&self) -> bool {
        self.geometry.axle == Axle::Front
    }

    /// Pitch of the body at gains of this and the other axle, mm.
    #[must_use]
    pub fn attitude(&self, own_mm: f64, other_mm: f64) -> Attitude {
        let [a, b] = if self.steered() { [own_mm, other_mm] } else { [other_mm, own_mm] };
        Attitude::from_rises(a, b, self.wheelbase_mm)
    }

    /// Height states that exist, as found first.
    #[must_use]
    pub fn states(&self) -> Vec<PlanState> {
        let state = |kind, name: &str, own_mm: f64, other_mm: f64| PlanState {
            kind,
            name: name.to_owned(),
            own_mm,
            other_mm,
        };
        let (mut own, mut other) = (self.height_change_mm, self.other_change_mm);
        let mut out = vec![
            state(StateKind::Arrived, "as found", 0.0, 0.0),
            state(StateKind::Planned, "planned", own, other),
        ];
        if self.settle_mm != 0.0 || self.other_settle_mm != 0.0 {
            own -= self.settle_mm;
            other -= self.other_settle_mm;
            out.push(state(StateKind::Settled, "settled", own, other));
        }
        if self.load_mm != 0.0 || self.other_load_mm != 0.0 {
            out.push(state(StateKind::Loaded, "loaded", own - self.load_mm, other - self.other_load_mm));
        }
        for l in &self.levels {
            let (f, r) = (l.mm.front, l.mm.rear);
            let (o, p) = if self.steered() { (f, r) } else { (r, f) };
            out.push(state(StateKind::Air, &l.name, o, p));
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
        let found = states.iter().find(|s| s.kind == kind).or_else(|| states.get(1));
        found.cloned().unwrap_or(PlanState {
            kind: StateKind::Planned,
            name: "planned".into(),
            own_mm: self.height_change_mm,
            other_mm: self.other_change_mm,
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
        check("height_change_mm", self.height_change_mm, -300.0, 300.0, "mm");
        check("other_change_mm", self.other_change_mm, -300.0, 300.0, "mm");
        check("settle_mm", self.settle_mm, 0.0, 60.0, "mm");
        check("other_settle_mm", self.other_settle_mm, 0.0, 60.0, "mm");
        check("load_mm", self.load_mm, -100.0, 250.0, "mm");
        check("other_load_mm", self.other_load_mm, -100.0, 250.0, "mm");
        check("axle_offset_mm", self.axle_offset_mm.unwrap_or(0.0), -150.0, 150.0, "mm");
        check("lock_deg", self.lock_deg, 5.0, 70.0, "°");
        for (i, name) in ["left", "right"].iter().enumerate() {
            check(&format!("trim_mm.{i}"), self.trim_mm[i], -60.0, 60.0, &format!("mm, {name}"));
            check(&format!("tyre_gain_mm.{i}"), self.tyre_gain_mm[i], -200.0, 200.0, "mm");
            for (k, v) in self.picked[i].iter().flatten().enumerate() {
                check(&format!("picked.{i}.{k}"), *v, -30.0, 30.0, "°");
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
        out.extend(adjuster_problems(&self.adjusters));
        out.extend(adjusters_not_there(&self.adjusters, &self.geometry.points));
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
