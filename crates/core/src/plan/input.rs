//! The whole document a plan is computed from.

use super::aim::Aim;
use crate::fit::{Doubt, Knowledge};
use crate::geometry::{Geometry, Side};
use crate::linkage::Corner;
use crate::part::{Adjuster, adjuster_problems};
use crate::problem::{Problem, in_range};
use crate::vehicle::Measured;
use serde::{Deserialize, Serialize};

/// What was read on one front wheel.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SideReadings {
    /// Hub centre to arch lip, mm.
    pub height_mm: f64,
    /// Camber, caster, toe of the wheel, degrees.
    pub angles: Measured,
    /// Standard deviations of the angles, degrees.
    pub sigma: Doubt,
}

/// Everything a plan hangs on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PlanInput {
    /// Front axle.
    pub geometry: Geometry,
    /// How well its points are known.
    #[serde(default)]
    pub knowledge: Knowledge,
    /// Axle to axle, mm.
    pub wheelbase_mm: f64,
    /// Hub-to-arch height at which the geometry was taken, mm.
    pub design_height_mm: f64,
    /// What can be turned on each side.
    pub adjusters: Vec<Adjuster>,
    /// Left front as found.
    pub left: SideReadings,
    /// Right front as found.
    pub right: SideReadings,
    /// Front hub-to-arch gain from as found, mm.
    pub height_change_mm: f64,
    /// Rear hub-to-arch gain, mm.
    #[serde(default)]
    pub rear_change_mm: f64,
    /// Height expected to be lost as springs settle, mm.
    #[serde(default)]
    pub settle_mm: f64,
    /// Height lost under the usual load, mm.
    #[serde(default)]
    pub load_mm: f64,
    /// Fitted parts, by id.
    #[serde(default)]
    pub fitted: Vec<String>,
    /// What is wanted.
    pub aim: Aim,
}

impl PlanInput {
    /// Everything wrong with the document, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out: Vec<Problem> = self
            .geometry
            .problems()
            .into_iter()
            .map(|mut p| {
                p.field = format!("geometry.{}", p.field);
                p
            })
            .collect();
        if out.is_empty() && !Corner::of(&self.geometry, Side::Left).is_steered() {
            out.push(Problem::new(
                "geometry.layout",
                "this front axle has no steering axis",
                "a layout that steers: a tie rod, a link named \"tie\", or a solid axle with its steering_axis",
            ));
        }
        let mut check = |f: &str, v: f64, low: f64, high: f64, unit: &str| {
            out.extend(in_range(f, v, low, high, unit).err());
        };
        check("wheelbase_mm", self.wheelbase_mm, 1000.0, 8000.0, "mm");
        check("design_height_mm", self.design_height_mm, 50.0, 1500.0, "mm");
        check("height_change_mm", self.height_change_mm, -300.0, 300.0, "mm");
        check("rear_change_mm", self.rear_change_mm, -300.0, 300.0, "mm");
        check("settle_mm", self.settle_mm, 0.0, 60.0, "mm");
        check("load_mm", self.load_mm, 0.0, 200.0, "mm");
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
        out.extend(self.aim.problems());
        if self.fitted.len() > 8 {
            out.push(Problem::new("fitted", "more than eight parts", "eight parts or fewer"));
        }
        out
    }
}
