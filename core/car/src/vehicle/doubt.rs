//! How far an angle may be off: standard deviations of readings, half widths of what is told. Two types, never one for the other.

use bold_stance_units::Sigma;
use serde::{Deserialize, Serialize};

/// Half widths of 90 % bands, degrees.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Doubt {
    /// Camber.
    pub camber_deg: f64,
    /// Caster.
    pub caster_deg: f64,
    /// Toe, one wheel.
    pub toe_deg: f64,
}

/// Standard deviations of readings, degrees. Never a half width: [`Sigmas::half_widths`] makes one of the other.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Sigmas {
    /// Camber.
    pub camber_deg: f64,
    /// Caster.
    pub caster_deg: f64,
    /// Toe, one wheel.
    pub toe_deg: f64,
}

impl Sigmas {
    /// The bands that hold nine in ten.
    #[must_use]
    pub fn half_widths(self) -> Doubt {
        let of = |s: f64| Sigma(s).half_width().0;
        Doubt { camber_deg: of(self.camber_deg), caster_deg: of(self.caster_deg), toe_deg: of(self.toe_deg) }
    }
}
