//! What is told of a car's tyres beside size and compound; kept with the vehicle.

use bold_stance_units::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// A named use.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Use {
    /// Mostly motorway.
    Highway,
    /// Town and country.
    Mixed,
    /// Winding roads.
    CornerHeavy,
    /// Gravel and rock.
    Trail,
}

/// A share of the distance at a height.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct HeightShare {
    /// Name of the height state: `Planned`, `Settled`, `Loaded`, or of an air level.
    pub state: String,
    /// Share; they need not sum to 1.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 1e6))]
    pub share: f64,
}

/// How thorough the rotation record is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Rotated {
    /// Never, or nobody knows.
    #[default]
    Never,
    /// Now and then.
    Some,
    /// Every service.
    Regular,
}

/// A use with its weight.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct UseShare {
    /// How it is driven.
    #[serde(rename = "use")]
    pub use_: Use,
    /// Share; they need not sum to 1.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 100.0))]
    pub share: f64,
}

/// Facts of the tyres. Every one has a usual value and can be overwritten.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct WearFacts {
    /// Directional tread.
    pub directional: bool,
    /// Worn dampers.
    pub worn_dampers: bool,
    /// High torque from standstill.
    pub high_torque: bool,
    /// Lifting off brakes through the driven wheels.
    pub regen: bool,
    /// Uses with weights where one word does not do.
    pub uses: Vec<UseShare>,
    /// Distance a set of this car really reached, km.
    #[cfg_attr(feature = "openapi", schema(minimum = 1000.0, maximum = 400_000.0))]
    pub own_life_km: Option<f64>,
    /// Treadwear grade moulded on the tyre.
    #[cfg_attr(feature = "openapi", schema(minimum = 60.0, maximum = 1000.0))]
    pub grade: Option<f64>,
    /// Price of one tyre, in the shop's currency; 0 when it was not told.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 100_000.0))]
    pub price: f64,
    /// Distance a year, km.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 500_000.0))]
    pub yearly_km: f64,
    /// Shares of the distance at the height states.
    pub heights: Vec<HeightShare>,
    /// Rotation record.
    pub rotated: Rotated,
    /// Distance between rotations, km.
    #[cfg_attr(feature = "openapi", schema(minimum = 1000.0, maximum = 100_000.0))]
    pub rotate_every_km: f64,
    /// Odometer at which the car was set as planned, km.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 3_000_000.0))]
    pub set_at_km: Option<f64>,
}

impl Default for WearFacts {
    fn default() -> Self {
        Self {
            directional: false,
            worn_dampers: false,
            high_torque: false,
            regen: false,
            uses: Vec::new(),
            own_life_km: None,
            grade: None,
            price: 0.0,
            yearly_km: 15_000.0,
            heights: Vec::new(),
            rotated: Rotated::Never,
            rotate_every_km: 8_000.0,
            set_at_km: None,
        }
    }
}

impl WearFacts {
    /// What is wrong, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        let mut check = |f: &str, v: Option<f64>, low: f64, high: f64, unit: &str| {
            out.extend(v.and_then(|v| in_range(&format!("{at}{f}"), v, low, high, unit).err()));
        };
        check("own_life_km", self.own_life_km, 1000.0, 400_000.0, "km");
        check("grade", self.grade, 60.0, 1000.0, "points");
        check("price", Some(self.price), 0.0, 100_000.0, "in the shop's currency");
        check("yearly_km", Some(self.yearly_km), 0.0, 500_000.0, "km a year");
        check("rotate_every_km", Some(self.rotate_every_km), 1000.0, 100_000.0, "km");
        check("set_at_km", self.set_at_km, 0.0, 3_000_000.0, "km");
        for (i, h) in self.heights.iter().enumerate() {
            check(&format!("heights.{i}.share"), Some(h.share), 0.0, 100.0, "%");
        }
        for (i, u) in self.uses.iter().enumerate() {
            check(&format!("uses.{i}.share"), Some(u.share), 0.0, 100.0, "%");
        }
        out
    }
}
