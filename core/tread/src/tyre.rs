//! The tyre as the wear model sees it.

use bold_stance_units::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// Tread compound and construction, by purpose.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TyreClass {
    /// Hard touring tread.
    LongLife,
    /// All-season road tread.
    AllSeason,
    /// Soft summer tread.
    SoftSummer,
    /// All-terrain tread.
    AllTerrain,
}

impl TyreClass {
    /// Slip stiffness over load, 1/deg; base life, km; new depth, mm (hand-set, no source).
    #[must_use]
    pub fn constants(self) -> (f64, f64, f64) {
        match self {
            Self::LongLife => (0.15, 95_000.0, 8.0),
            Self::AllSeason => (0.16, 72_000.0, 8.0),
            Self::SoftSummer => (0.19, 42_000.0, 7.5),
            Self::AllTerrain => (0.13, 75_000.0, 11.0),
        }
    }
}

/// A tyre of a wear case.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Tyre {
    /// Section width, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 105.0, maximum = 405.0))]
    pub section_mm: f64,
    /// Section height over width, %.
    #[cfg_attr(feature = "openapi", schema(minimum = 20.0, maximum = 95.0))]
    pub aspect: f64,
    /// Rim diameter, inches.
    #[cfg_attr(feature = "openapi", schema(minimum = 10.0, maximum = 26.0))]
    pub rim_in: f64,
    /// Compound.
    pub class: TyreClass,
    /// Tread depth when new, mm; of the class when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub new_depth_mm: Option<f64>,
    /// Tread width, mm; fitted from the size when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(minimum = 60.0, maximum = 400.0))]
    pub tread_width_mm: Option<f64>,
}

/// Dimensions in metres that the forward model needs.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Tread {
    /// Outside diameter, m.
    pub od: f64,
    /// Tread width, m.
    pub w: f64,
    /// Slip stiffness over load, 1/rad.
    pub c: f64,
    section: f64,
    aspect: f64,
}

/// Dimensions of a tyre.
#[must_use]
pub fn tread_of(t: &Tyre) -> Tread {
    let od = 0.0254 * t.rim_in + 2.0 * t.section_mm * t.aspect * 1e-5;
    let fitted = 1e-3 * t.section_mm * (1.03 - 0.0035 * t.aspect);
    let (c_class, _, _) = t.class.constants();
    Tread {
        od,
        w: t.tread_width_mm.map_or(fitted, |w| w * 1e-3),
        c: c_class.to_degrees(),
        section: t.section_mm,
        aspect: t.aspect,
    }
}

impl Tread {
    /// Vertical stiffness at pressure `p` kPa, N/m (a published empirical fit, from memory).
    #[must_use]
    pub fn stiffness(&self, p: f64) -> f64 {
        let flat = (1.03 - 0.004 * self.aspect) * self.section * 1000.0 * self.od;
        9806.65 * (0.00028 * p * flat.max(1.0).sqrt() + 3.45)
    }
}

impl Tyre {
    /// Depth when new, mm.
    #[must_use]
    pub fn new_depth(&self) -> f64 {
        self.new_depth_mm.unwrap_or(self.class.constants().2)
    }

    /// What is wrong with it, by field under `tyre`.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        let mut check = |r: Result<(), Problem>| out.extend(r.err());
        check(in_range("tyre.section_mm", self.section_mm, 105.0, 405.0, "mm"));
        check(in_range("tyre.aspect", self.aspect, 20.0, 95.0, "%"));
        check(in_range("tyre.rim_in", self.rim_in, 10.0, 26.0, "in"));
        check(in_range("tyre.new_depth_mm", self.new_depth(), 2.0, 25.0, "mm"));
        check(in_range("tyre.tread_width_mm", self.tread_width_mm.unwrap_or(200.0), 60.0, 400.0, "mm"));
        out
    }
}
