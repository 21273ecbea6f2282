//! What is told of a vehicle, and what can be wrong with it.

use bold_stance_car::adjuster::{Adjuster, adjuster_problems, adjusters_not_there, default_adjusters};
use bold_stance_car::fit::Knowledge;
use bold_stance_car::vehicle::Use;
use bold_stance_car::vehicle::{CarFacts, TyreSize};
use bold_stance_kinematics::geometry::{Axle, Geometry};
use bold_stance_kinematics::linkage::{steering_problem, travel_problems};
use bold_stance_tread::TyreClass;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// Stages of the work, in order.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Stage {
    /// Facts and geometry.
    Arrive,
    /// Readings as found.
    Read,
    /// Height and correction.
    Plan,
    /// Tread forecast.
    Wear,
    /// Setting sheet.
    Set,
    /// Final re-read.
    Prove,
    /// Settled re-check.
    Return,
}

/// Which axle drives.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Drive {
    /// Front axle.
    Front,
    /// Rear axle.
    Rear,
    /// Both.
    Both,
}

/// Outline drawn for it.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Silhouette {
    /// Cab and bed.
    Pickup,
    /// Estate car.
    Wagon,
    /// Boxy off-roader.
    Box,
    /// Panel van.
    Van,
    /// Coupe.
    Coupe,
}

/// What is told of a vehicle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct VehicleFacts {
    /// What the shop calls it.
    pub name: String,
    /// Outline.
    pub silhouette: Silhouette,
    /// Axle to axle, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 1000.0, maximum = 8000.0))]
    pub wheelbase_mm: f64,
    /// Front track, contact to contact, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 800.0, maximum = 2600.0))]
    pub track_front_mm: f64,
    /// Rear track, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 800.0, maximum = 2600.0))]
    pub track_rear_mm: f64,
    /// Nominal size, e.g. `285/70R17`.
    pub tyre_size: String,
    /// Tread compound.
    pub tyre_class: TyreClass,
    /// Depth the forecast starts from, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 2.0, maximum = 25.0))]
    pub tread_depth_mm: f64,
    /// Driven axle.
    pub drive: Drive,
    /// How it is driven.
    #[serde(rename = "use")]
    pub use_: Use,
    /// Load on one front wheel, N.
    #[cfg_attr(feature = "openapi", schema(minimum = 500.0, maximum = 40000.0))]
    pub front_load_n: f64,
    /// Front pressure, kPa.
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 900.0))]
    pub pressure_kpa: f64,
    /// Placard pressure, kPa.
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 900.0))]
    pub placard_kpa: f64,
    /// Front hub-to-arch height at which the geometry was taken, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 150.0, maximum = 1200.0))]
    pub design_height_mm: f64,
    /// Rear hub-to-arch height as found, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 150.0, maximum = 1200.0))]
    pub rear_height_mm: f64,
    /// How well the points are known.
    #[serde(default)]
    pub knowledge: Knowledge,
    /// Front axle.
    pub geometry: Geometry,
    /// Rear axle, when it is known.
    #[serde(default)]
    pub rear_geometry: Option<Geometry>,
    /// How well the rear points are known.
    #[serde(default)]
    pub rear_knowledge: Knowledge,
    /// Facts of the whole car.
    #[serde(default)]
    pub car: CarFacts,
    /// What can be turned on each front side.
    pub adjusters: Vec<Adjuster>,
}

/// Throw of a cam nobody measured, mm (common practice, no source).
const USUAL_THROW_MM: f64 = 3.2;

impl VehicleFacts {
    /// What a new vehicle starts from before anything of it is told, on this front axle: usual values of a four-wheel-drive
    /// pickup, which every form calls usual until they are typed over (common practice, no source).
    #[must_use]
    pub fn starting_on(geometry: Geometry) -> Self {
        Self {
            name: String::new(),
            silhouette: Silhouette::Pickup,
            wheelbase_mm: 3200.0,
            track_front_mm: 1600.0,
            track_rear_mm: 1600.0,
            tyre_size: "265/70R17".into(),
            tyre_class: TyreClass::AllTerrain,
            tread_depth_mm: 11.0,
            drive: Drive::Both,
            use_: Use::Mixed,
            front_load_n: 6500.0,
            pressure_kpa: 240.0,
            placard_kpa: 240.0,
            design_height_mm: 500.0,
            rear_height_mm: 560.0,
            knowledge: Knowledge::Archetype,
            geometry,
            rear_geometry: None,
            rear_knowledge: Knowledge::Archetype,
            car: CarFacts::default(),
            adjusters: default_adjusters(USUAL_THROW_MM),
        }
    }

    /// Everything wrong with them, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        let name = self.name.trim();
        if name.is_empty() || name.chars().count() > 120 {
            let wrong = if name.is_empty() { "nothing was entered" } else { "longer than 120 characters" };
            out.push(Problem::new("name", wrong, said("fault-what-shop-calls")));
        }
        out.extend(TyreSize::parse("tyre_size", &self.tyre_size).err());
        for (field, v, low, high, unit) in [
            ("wheelbase_mm", self.wheelbase_mm, 1000.0, 8000.0, "mm"),
            ("track_front_mm", self.track_front_mm, 800.0, 2600.0, "mm"),
            ("track_rear_mm", self.track_rear_mm, 800.0, 2600.0, "mm"),
            ("tread_depth_mm", self.tread_depth_mm, 2.0, 25.0, "mm"),
            ("front_load_n", self.front_load_n, 500.0, 40_000.0, "N"),
            ("pressure_kpa", self.pressure_kpa, 50.0, 900.0, "kPa"),
            ("placard_kpa", self.placard_kpa, 50.0, 900.0, "kPa"),
            ("design_height_mm", self.design_height_mm, 150.0, 1200.0, "mm"),
            ("rear_height_mm", self.rear_height_mm, 150.0, 1200.0, "mm"),
        ] {
            out.extend(in_range(field, v, low, high, unit).err());
        }
        out.extend(under("geometry", self.geometry.problems()));
        if let Some(r) = &self.rear_geometry {
            out.extend(under("rear_geometry", r.problems()));
            if r.axle != Axle::Rear {
                out.push(Problem::new("rear_geometry.axle", said("fault-front-axle"), said("fault-rear")));
            }
        }
        if self.geometry.axle != Axle::Front {
            out.push(Problem::new("geometry.axle", said("fault-rear-axle"), said("fault-front")));
        }
        let rear_size = self.car.wear.rear_tyre_size.as_deref().unwrap_or(&self.tyre_size);
        let shapes = [
            ("geometry", Some(&self.geometry), self.tyre_size.as_str()),
            ("rear_geometry", self.rear_geometry.as_ref(), rear_size),
        ];
        for (at, g, size) in shapes {
            if let (Some(g), Ok(size)) = (g, TyreSize::parse(at, size)) {
                let field = format!("{at}.wheel.loaded_radius_mm");
                out.extend(size.loaded_radius_problem(&field, g.wheel.loaded_radius_mm));
            }
        }
        out.extend(self.car.problems("car."));
        out.extend(adjuster_problems(&self.adjusters));
        if out.is_empty() {
            out.extend(travel_problems(&self.geometry, "geometry."));
            out.extend(self.rear_geometry.iter().flat_map(|r| travel_problems(r, "rear_geometry.")));
        }
        if out.is_empty() {
            out.extend(steering_problem(&self.geometry, "geometry."));
        }
        if !out.is_empty() {
            return out;
        }
        out.extend(adjusters_not_there(&self.adjusters, &self.geometry.points));
        if let Some(r) = &self.rear_geometry {
            for p in adjusters_not_there(&self.car.rear_adjusters, &r.points) {
                out.push(Problem::new(format!("car.rear_{}", p.field), p.wrong, p.right));
            }
        }
        out
    }
}

fn under(prefix: &str, found: Vec<Problem>) -> Vec<Problem> {
    found
        .into_iter()
        .map(|mut p| {
            p.field = format!("{prefix}.{}", p.field);
            p
        })
        .collect()
}
