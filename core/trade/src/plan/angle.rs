//! Angles, and differences of them from side to side, that have a window.

use serde::{Deserialize, Serialize};

/// An angle of a wheel, or a difference left minus right.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum AngleName {
    /// Camber.
    Camber,
    /// Caster.
    Caster,
    /// Toe of one wheel, running straight.
    Toe,
    /// Left minus right camber.
    CrossCamber,
    /// Left minus right caster.
    CrossCaster,
}

impl AngleName {
    /// What it is called.
    #[must_use]
    pub fn word(self) -> &'static str {
        match self {
            Self::Camber => "camber",
            Self::Caster => "caster",
            Self::Toe => "toe",
            Self::CrossCamber => "cross-camber",
            Self::CrossCaster => "cross-caster",
        }
    }
}
