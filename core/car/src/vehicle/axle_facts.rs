//! What is told of an axle beside its points, and what can be wrong with it.

use super::HeightBy;
use super::{Limits, Moving, Spring};
use crate::adjuster::{FoundAdjuster, found_problems};
use bold_stance_kinematics::geometry::Side;
use bold_stance_units::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// Facts of one axle of a car.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AxleFacts {
    /// Load of one of its wheels, N.
    #[cfg_attr(feature = "openapi", schema(minimum = 300.0, maximum = 60_000.0))]
    pub load_n: f64,
    /// Its springs.
    #[serde(default)]
    pub spring: Option<Spring>,
    /// Height expected to be lost as new springs and bushings settle, mm, where the plan says nothing of it.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 60.0))]
    pub settle_mm: f64,
    /// Loaded radius gained by the planned tyres over those the points were taken on, mm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = -200.0, maximum = 200.0))]
    pub tyre_gain_mm: f64,
    /// What its joints, travel and clearances allow.
    #[serde(default, deserialize_with = "bold_stance_units::problem::from_object")]
    pub limits: Limits,
    /// What can be turned at each of its wheels, as found.
    #[serde(default)]
    pub adjusters: Vec<FoundAdjuster>,
    /// Whether the specialist looked and said that this is all that can be turned; until then it is what such cars
    /// usually have.
    #[serde(default)]
    pub adjusters_told: bool,
    /// Whether its upper arm sits on a cross shaft, behind which shims go; not looked at when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub upper_shaft: Option<bool>,
    /// What was looked at before it was read: worn, bent, broken.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub inspected: Vec<Inspected>,
    /// One of its wheels measured at several heights on a jack.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub moving: Option<Moving>,
    /// What its height is turned by, where that was looked at.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height_by: Option<HeightBy>,
}

/// What was looked at on an axle before it was read.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Inspected {
    /// Which item of the list.
    pub item: String,
    /// On which side; none where it is of both.
    #[serde(default)]
    pub side: Option<Side>,
    /// Which of its answers.
    pub answer: String,
}

impl AxleFacts {
    /// Nothing told but the load of one wheel, N.
    #[must_use]
    pub fn carrying(load_n: f64) -> Self {
        Self {
            load_n,
            spring: None,
            settle_mm: 0.0,
            tyre_gain_mm: 0.0,
            limits: Limits::default(),
            adjusters: Vec::new(),
            adjusters_told: false,
            upper_shaft: None,
            height_by: None,
            inspected: Vec::new(),
            moving: None,
        }
    }

    /// Everything out of range, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        let mut check = |f: &str, v: f64, low: f64, high: f64, unit: &str| {
            out.extend(in_range(&format!("{at}{f}"), v, low, high, unit).err());
        };
        check("load_n", self.load_n, 300.0, 60_000.0, "N");
        check("settle_mm", self.settle_mm, 0.0, 60.0, "mm");
        check("tyre_gain_mm", self.tyre_gain_mm, -200.0, 200.0, "mm");
        if let Some(s) = &self.spring {
            check("spring.rate_n_mm", s.rate_n_mm, 1.0, 2000.0, "N/mm");
            check("spring.motion_ratio", s.motion_ratio, 0.1, 2.0, "spring over wheel");
        }
        out.extend(self.height_by.iter().flat_map(|h| h.problems(&format!("{at}height_by."))));
        out.extend(self.moving.iter().flat_map(|m| m.problems(&format!("{at}moving."))));
        out.extend(self.limits.problems(&format!("{at}limits.")));
        out.extend(
            found_problems(&self.adjusters)
                .into_iter()
                .map(|p| Problem::new(format!("{at}{}", p.field), p.wrong, p.right)),
        );
        out
    }
}
