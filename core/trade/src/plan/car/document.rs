//! What the specialist decides about a car; geometry and readings come from the job.

use crate::aim::Aim;
use crate::plan::height::Way;
use crate::plan::input::Picked;
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// Version of the document: 1 told front and rear apart by the names of its fields.
pub const PLAN_FORMAT: u32 = 2;

/// What is decided about one axle.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct AxlePlan {
    /// Hub-to-arch gain from as found, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = -300.0, maximum = 300.0))]
    pub height_change_mm: f64,
    /// Height expected to be lost as springs and bushings settle, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 60.0))]
    pub settle_mm: f64,
    /// Height lost under the usual load, mm; a load behind the rear axle lifts the front.
    #[cfg_attr(feature = "openapi", schema(minimum = -100.0, maximum = 250.0))]
    pub load_mm: f64,
    /// Ways in which the gain is had; what is left of it is the suspension's own travel.
    pub ways: Vec<Way>,
    /// Each side on top of the gain, mm.
    pub trim_mm: Sides<f64>,
    /// Fitted parts, by id.
    pub fitted: Vec<String>,
    /// Of those, what goes on one side only; a part that is not named goes on both.
    pub only: BTreeMap<String, Side>,
    /// What was picked by hand on the map.
    pub picked: Sides<Option<Picked>>,
}

/// What is decided about a car.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CarPlan {
    /// Version of this document: 2.
    #[serde(default = "format")]
    pub format: u32,
    /// Both axles.
    #[serde(default)]
    pub axles: Axles<AxlePlan>,
    /// What is wanted.
    pub aim: Aim,
    /// Depth at which a tyre is done, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 10.0))]
    pub limit_mm: f64,
    /// Parts are taken as they are sold, not as the shop found them to be.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub as_sold: bool,
}

fn format() -> u32 {
    PLAN_FORMAT
}

/// Depth at which a tyre of a new plan is done, mm (common practice, no source: under it a wet road is no longer safe).
pub const USUAL_LIMIT_MM: f64 = 3.0;

impl AxlePlan {
    /// Whether its height is changed on either side.
    #[must_use]
    pub fn changes_height(&self) -> bool {
        self.height_change_mm != 0.0 || self.trim_mm != Sides::default()
    }

    /// Everything out of range, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        for (f, v, low, high) in [
            ("height_change_mm", self.height_change_mm, -300.0, 300.0),
            ("settle_mm", self.settle_mm, 0.0, 60.0),
            ("load_mm", self.load_mm, -100.0, 250.0),
            ("trim_mm.left", self.trim_mm.left, -60.0, 60.0),
            ("trim_mm.right", self.trim_mm.right, -60.0, 60.0),
        ] {
            out.extend(in_range(&format!("{at}{f}"), v, low, high, "mm").err());
        }
        for (i, w) in self.ways.iter().enumerate() {
            out.extend(in_range(&format!("{at}ways.{i}.gain_mm"), w.gain_mm, -300.0, 300.0, "mm").err());
        }
        for (side, picked) in self.picked.each() {
            let Some(p) = picked else { continue };
            for (name, v) in [("camber_deg", p.camber_deg), ("second_deg", p.second_deg)] {
                let field = format!("{at}picked.{}.{name}", side.word());
                out.extend(in_range(&field, v, -30.0, 30.0, "°").err());
            }
        }
        if self.ways.len() > 8 {
            out.push(Problem::new(
                format!("{at}ways"),
                said("fault-more-than-eight-ways"),
                said("fault-eight-fewer"),
            ));
        }
        if self.fitted.len() > 8 {
            out.push(Problem::new(
                format!("{at}fitted"),
                said("fault-more-than-eight-parts"),
                said("fault-eight-parts-fewer"),
            ));
        }
        if self.only.len() > 8 {
            out.push(Problem::new(
                format!("{at}only"),
                said("fault-more-than-eight-parts"),
                said("fault-eight-parts-fewer"),
            ));
        }
        out
    }
}

impl CarPlan {
    /// A plan that changes nothing yet.
    #[must_use]
    pub fn unchanged(aim: Aim) -> Self {
        Self { format: PLAN_FORMAT, axles: Axles::default(), aim, limit_mm: USUAL_LIMIT_MM, as_sold: false }
    }

    /// Everything out of range, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.format != PLAN_FORMAT {
            out.push(Problem::new(
                format!("{at}format"),
                said("fault-format-not-known").count("format", self.format as usize),
                said("fault-format-known").count("format", PLAN_FORMAT as usize),
            ));
        }
        for (axle, p) in self.axles.each() {
            out.extend(p.problems(&format!("{at}axles.{}.", axle.word())));
        }
        out.extend(in_range(&format!("{at}limit_mm"), self.limit_mm, 0.0, 10.0, "mm").err());
        out.extend(
            self.aim.problems().into_iter().map(|p| Problem { field: format!("{at}{}", p.field), ..p }),
        );
        out
    }

    /// Parts fitted on both axles, by id.
    #[must_use]
    pub fn fitted(&self) -> Vec<String> {
        self.axles.each().iter().flat_map(|(_, p)| p.fitted.iter().cloned()).collect()
    }

    /// Gain of an axle at hub to arch, mm.
    #[must_use]
    pub fn gain_mm(&self, axle: Axle) -> f64 {
        self.axles[axle].height_change_mm
    }
}
