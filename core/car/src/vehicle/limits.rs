//! What joints, travel and clearances of an axle allow, as far as it was measured.

use bold_stance_units::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// What was measured on the car, as found.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields, default)]
pub struct Limits {
    /// Most an upper ball joint may lean from its middle, degrees.
    pub upper_joint_deg: Option<f64>,
    /// The same of the lower, degrees.
    pub lower_joint_deg: Option<f64>,
    /// Most a drive-shaft joint may bend running straight, degrees.
    pub shaft_deg: Option<f64>,
    /// Inner joint of the drive shaft, left side, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub shaft_inner: Option<[f64; 3]>,
    /// Droop left at the wheel as found, mm.
    pub droop_mm: Option<f64>,
    /// Bump travel left at the wheel as found, mm.
    pub bump_mm: Option<f64>,
    /// Tyre to arch ahead of it as found, mm.
    pub arch_front_mm: Option<f64>,
    /// Tyre to arch behind it as found, mm.
    pub arch_rear_mm: Option<f64>,
    /// Brake hose and sensor wire left slack at full droop as found, mm.
    pub hose_mm: Option<f64>,
    /// Tyre to strut as found, mm.
    pub strut_gap_mm: Option<f64>,
    /// Point of the spring bucket or frame nearest the upper arm, left side, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub bucket: Option<[f64; 3]>,
}

impl Limits {
    /// What is out of range, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        for (f, v, low, high, unit) in [
            ("upper_joint_deg", self.upper_joint_deg, 5.0, 60.0, "°"),
            ("lower_joint_deg", self.lower_joint_deg, 5.0, 60.0, "°"),
            ("shaft_deg", self.shaft_deg, 5.0, 55.0, "°"),
            ("droop_mm", self.droop_mm, 0.0, 500.0, "mm"),
            ("bump_mm", self.bump_mm, 0.0, 500.0, "mm"),
            ("arch_front_mm", self.arch_front_mm, 0.0, 500.0, "mm"),
            ("arch_rear_mm", self.arch_rear_mm, 0.0, 500.0, "mm"),
            ("strut_gap_mm", self.strut_gap_mm, 0.0, 200.0, "mm"),
            ("hose_mm", self.hose_mm, 0.0, 300.0, "mm"),
        ] {
            out.extend(v.and_then(|v| in_range(&format!("{at}{f}"), v, low, high, unit).err()));
        }
        for (f, p) in [("shaft_inner", self.shaft_inner), ("bucket", self.bucket)] {
            for (axis, v) in ["x", "y", "z"].iter().zip(p.unwrap_or_default()) {
                out.extend(in_range(&format!("{at}{f}.{axis}"), v, -6000.0, 6000.0, "mm").err());
            }
        }
        out
    }
}
