//! Facts of the whole car that no single axle holds, their usual values and what can be wrong with them.

use super::{AxleFacts, Axles, WearFacts};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// Turns of the steering wheel for one of the road wheels where nobody told (common practice, no source).
pub const USUAL_STEERING_RATIO: f64 = 16.0;

/// A level of an air suspension against as arrived, mm higher.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AirLevel {
    /// What the car calls it.
    pub name: String,
    /// Of each axle, mm.
    pub mm: Axles<f64>,
}

/// A usual payload and where it lies.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Payload {
    /// kg.
    pub mass_kg: f64,
    /// Its centre behind the front axle, mm.
    pub behind_front_axle_mm: f64,
    /// Left of the centre line positive, mm.
    #[serde(default)]
    pub left_of_centre_mm: f64,
}

/// Turns of a bolt or collar and what they did.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TurnRecord {
    /// Up positive.
    pub turns: f64,
    /// Settled height gained, mm.
    pub height_change_mm: f64,
}

/// Facts of the whole car that no single axle holds. Every one has a usual value (common practice, no
/// source) and can be overwritten.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct CarFacts {
    /// Centre of gravity over the ground, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 150.0, maximum = 2000.0))]
    pub cg_height_mm: f64,
    /// Share of braking done by the front axle, 0 to 1.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 1.0))]
    pub brake_front_share: f64,
    /// Turns of the steering wheel per turn of the road wheels.
    #[cfg_attr(feature = "openapi", schema(minimum = 5.0, maximum = 40.0))]
    pub steering_ratio: f64,
    /// Largest turn of the inner front wheel, degrees.
    #[cfg_attr(feature = "openapi", schema(minimum = 5.0, maximum = 60.0))]
    pub lock_deg: f64,
    /// Tyre section width, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 80.0, maximum = 600.0))]
    pub tyre_width_mm: f64,
    /// Usual payload.
    pub payload: Option<Payload>,
    /// Heights of an air suspension.
    pub levels: Vec<AirLevel>,
    /// Turns of a torsion bolt or collar and the settled height that came of them.
    pub turns: Vec<TurnRecord>,
    /// What is told of each axle beside its points.
    pub axles: Axles<AxleFacts>,
    /// What is told of the tyres beside size and compound.
    pub wear: WearFacts,
    /// Aim such a car is usually set to, by its id; the first plan starts from it.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub usual_aim: Option<String>,
}

impl Default for CarFacts {
    fn default() -> Self {
        Self {
            cg_height_mm: 620.0,
            brake_front_share: 0.65,
            steering_ratio: USUAL_STEERING_RATIO,
            lock_deg: 35.0,
            tyre_width_mm: 265.0,
            payload: None,
            levels: Vec::new(),
            turns: Vec::new(),
            axles: Axles { front: AxleFacts::carrying(6000.0), rear: AxleFacts::carrying(5000.0) },
            wear: WearFacts::default(),
            usual_aim: None,
        }
    }
}

impl CarFacts {
    /// Everything out of range, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        let mut check = |f: &str, v: f64, low: f64, high: f64, unit: &str| {
            out.extend(in_range(&format!("{at}{f}"), v, low, high, unit).err());
        };
        check("cg_height_mm", self.cg_height_mm, 150.0, 2000.0, "mm");
        check("brake_front_share", self.brake_front_share, 0.0, 1.0, "of the braking");
        check("steering_ratio", self.steering_ratio, 5.0, 40.0, "to one");
        check("lock_deg", self.lock_deg, 5.0, 60.0, "°");
        check("tyre_width_mm", self.tyre_width_mm, 80.0, 600.0, "mm");
        if let Some(p) = &self.payload {
            check("payload.mass_kg", p.mass_kg, 0.0, 5000.0, "kg");
            check("payload.behind_front_axle_mm", p.behind_front_axle_mm, -3000.0, 12_000.0, "mm");
            check("payload.left_of_centre_mm", p.left_of_centre_mm, -1500.0, 1500.0, "mm");
        }
        for (i, l) in self.levels.iter().enumerate() {
            for (axle, mm) in l.mm.each() {
                check(&format!("levels.{i}.mm.{}", axle.word()), *mm, -200.0, 200.0, "mm");
            }
        }
        for (i, t) in self.turns.iter().enumerate() {
            check(&format!("turns.{i}.turns"), t.turns, -40.0, 40.0, "turns");
            check(&format!("turns.{i}.height_change_mm"), t.height_change_mm, -200.0, 200.0, "mm");
        }
        for (name, long) in [("levels", self.levels.len() > 8), ("turns", self.turns.len() > 40)] {
            if long {
                out.push(Problem::new(
                    format!("{at}{name}"),
                    said("fault-too-many"),
                    said("fault-8-levels-40-turns-at"),
                ));
            }
        }
        for (axle, f) in self.axles.each() {
            out.extend(f.problems(&format!("{at}axles.{}.", axle.word())));
        }
        for (i, l) in self.levels.iter().enumerate() {
            let n = l.name.trim().chars().count();
            if !(1..=40).contains(&n) {
                out.push(Problem::new(
                    format!("{at}levels.{i}.name"),
                    said("fault-characters").count("n", n),
                    said("fault-name-1-40-characters"),
                ));
            }
        }
        out.extend(self.wear.problems(&format!("{at}wear.")));
        out
    }
}
