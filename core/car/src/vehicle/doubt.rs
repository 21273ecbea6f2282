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

/// What a hub gauge, a sweep and a toe gauge usually leave, degrees (as the methods have them; common practice, no source).
pub const USUAL_SIGMAS: Sigmas = Sigmas { camber_deg: 0.1, caster_deg: 0.25, toe_deg: 0.05 };

/// Standard deviations as far as they are known, degrees: a figure read on the pad brings its own, one typed by hand has none.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct ToldSigmas {
    /// Camber.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub camber_deg: Option<f64>,
    /// Caster.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub caster_deg: Option<f64>,
    /// Toe, one wheel.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub toe_deg: Option<f64>,
}

impl ToldSigmas {
    /// The usual one where none is known.
    #[must_use]
    pub fn or_usual(self) -> Sigmas {
        Sigmas {
            camber_deg: self.camber_deg.unwrap_or(USUAL_SIGMAS.camber_deg),
            caster_deg: self.caster_deg.unwrap_or(USUAL_SIGMAS.caster_deg),
            toe_deg: self.toe_deg.unwrap_or(USUAL_SIGMAS.toe_deg),
        }
    }
}

impl From<Sigmas> for ToldSigmas {
    fn from(s: Sigmas) -> Self {
        Self { camber_deg: Some(s.camber_deg), caster_deg: Some(s.caster_deg), toe_deg: Some(s.toe_deg) }
    }
}
