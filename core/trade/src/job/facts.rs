//! What is told of a vehicle, and what can be wrong with it.

use crate::inspect::inspected_problems;
use crate::part::ClassRules;
use bold_stance_car::adjuster::{USUAL_THROW_MM, adjusters_not_there, default_adjusters};
use bold_stance_car::fit::Knowledge;
use bold_stance_car::vehicle::Use;
use bold_stance_car::vehicle::{Axles, Car, CarFacts, TyreSize};
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{steering_problem, travel_problems};
use bold_stance_tread::TyreClass;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

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

/// What is told of an axle: where its points are and how well they are known, how it stands, and its tyres where they are
/// other than the car's.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AxleShape {
    /// Its points; the front axle's are needed, the rear's once they are known.
    #[serde(default)]
    pub geometry: Option<Geometry>,
    /// How well they are known.
    #[serde(default)]
    pub knowledge: Knowledge,
    /// Track, contact to contact, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 800.0, maximum = 2600.0))]
    pub track_mm: f64,
    /// Hub-to-arch height at which the points were taken, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 150.0, maximum = 1200.0))]
    pub height_mm: f64,
    /// Floor to frame at which the points were taken, mm; where it was not told, as first taped.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(minimum = 40.0, maximum = 1500.0))]
    pub frame_height_mm: Option<f64>,
    /// Size of its tyres where it differs.
    #[serde(default)]
    pub tyre_size: Option<String>,
    /// Their pressure where it differs, kPa.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 900.0))]
    pub pressure_kpa: Option<f64>,
    /// Their placard pressure where it differs, kPa.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 900.0))]
    pub placard_kpa: Option<f64>,
}

impl AxleShape {
    fn standing(geometry: Option<Geometry>, track_mm: f64, height_mm: f64) -> Self {
        let knowledge = Knowledge::Archetype;
        Self {
            geometry,
            knowledge,
            track_mm,
            height_mm,
            frame_height_mm: None,
            tyre_size: None,
            pressure_kpa: None,
            placard_kpa: None,
        }
    }
}

/// What is told of a vehicle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct VehicleFacts {
    /// Form of this document: 2.
    #[serde(default = "format")]
    #[cfg_attr(feature = "openapi", schema(minimum = 2, maximum = 2))]
    pub format: u32,
    /// What the shop calls it.
    pub name: String,
    /// Outline.
    pub silhouette: Silhouette,
    /// Axle to axle, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 1000.0, maximum = 8000.0))]
    pub wheelbase_mm: f64,
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
    /// Pressure, kPa.
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 900.0))]
    pub pressure_kpa: f64,
    /// Placard pressure, kPa.
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 900.0))]
    pub placard_kpa: f64,
    /// The rule book of its class, where it competes.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub class_rules: Option<ClassRules>,
    /// Points, stand and tyres of each axle.
    pub axles: Axles<AxleShape>,
    /// Facts of the whole car, and of its axles beside their points.
    #[serde(default)]
    pub car: CarFacts,
}

/// Form of the document this program writes.
pub const FACTS_FORMAT: u32 = 2;

fn format() -> u32 {
    FACTS_FORMAT
}

impl VehicleFacts {
    /// What a new vehicle starts from before anything of it is told, on this front axle: usual values of a four-wheel-drive
    /// pickup, which every form calls usual until they are typed over (common practice, no source).
    #[must_use]
    pub fn starting_on(geometry: Geometry) -> Self {
        let mut car = CarFacts::default();
        car.axles.front.load_n = 6500.0;
        car.axles.front.adjusters = default_adjusters(USUAL_THROW_MM).into_iter().map(Into::into).collect();
        Self {
            format: FACTS_FORMAT,
            name: String::new(),
            silhouette: Silhouette::Pickup,
            wheelbase_mm: 3200.0,
            tyre_size: "265/70R17".into(),
            tyre_class: TyreClass::AllTerrain,
            tread_depth_mm: 11.0,
            drive: Drive::Both,
            use_: Use::Mixed,
            pressure_kpa: 240.0,
            placard_kpa: 240.0,
            class_rules: None,
            axles: Axles {
                front: AxleShape::standing(Some(geometry), 1600.0, 500.0),
                rear: AxleShape::standing(None, 1600.0, 560.0),
            },
            car,
        }
    }

    /// Size of an axle's tyres.
    #[must_use]
    pub fn tyre_size_of(&self, axle: Axle) -> &str {
        self.axles[axle].tyre_size.as_deref().unwrap_or(&self.tyre_size)
    }

    /// The car as geometry, as wide on the ground as its tyre size says.
    ///
    /// # Errors
    /// A problem at the front axle's points while there are none.
    pub fn to_car(&self) -> Result<Car, Problem> {
        let front = self.axles.front.geometry.clone().ok_or_else(no_front)?;
        let mut facts = self.car.clone();
        if let Ok(size) = TyreSize::parse("tyre_size", &self.tyre_size) {
            facts.tyre_width_mm = size.section_mm;
        }
        Ok(Car { front, rear: self.axles.rear.geometry.clone(), wheelbase_mm: self.wheelbase_mm, facts })
    }

    /// Everything wrong with them, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.format != FACTS_FORMAT {
            out.push(Problem::new(
                "format",
                said("fault-format-not-known").count("format", self.format as usize),
                said("fault-format-known").count("format", FACTS_FORMAT as usize),
            ));
        }
        let name = self.name.trim();
        if name.is_empty() {
            out.push(Problem::new("name", said("nothing-entered"), said("fault-what-shop-calls")));
        } else if name.chars().count() > 120 {
            let wrong = said("fault-longer-than-120-characters");
            out.push(Problem::new("name", wrong, said("fault-what-shop-calls")));
        }
        out.extend(TyreSize::parse("tyre_size", &self.tyre_size).err());
        out.extend(self.class_rules.iter().flat_map(|c| c.problems("class_rules.")));
        let mut check = |field: &str, v: f64, low: f64, high: f64, unit: &str| {
            out.extend(in_range(field, v, low, high, unit).err());
        };
        check("wheelbase_mm", self.wheelbase_mm, 1000.0, 8000.0, "mm");
        check("tread_depth_mm", self.tread_depth_mm, 2.0, 25.0, "mm");
        check("pressure_kpa", self.pressure_kpa, 50.0, 900.0, "kPa");
        check("placard_kpa", self.placard_kpa, 50.0, 900.0, "kPa");
        for (axle, s) in self.axles.each() {
            let mut check = |field: &str, v: Option<f64>, low: f64, high: f64, unit: &str| {
                let field = format!("axles.{}.{field}", axle.word());
                out.extend(v.and_then(|v| in_range(&field, v, low, high, unit).err()));
            };
            check("track_mm", Some(s.track_mm), 800.0, 2600.0, "mm");
            check("height_mm", Some(s.height_mm), 150.0, 1200.0, "mm");
            check("frame_height_mm", s.frame_height_mm, 40.0, 1500.0, "mm");
            check("pressure_kpa", s.pressure_kpa, 50.0, 900.0, "kPa");
            check("placard_kpa", s.placard_kpa, 50.0, 900.0, "kPa");
            if let Some(size) = &s.tyre_size {
                out.extend(TyreSize::parse(&format!("axles.{}.tyre_size", axle.word()), size).err());
            }
        }
        if self.axles.front.geometry.is_none() {
            out.push(no_front());
        }
        for (axle, at, g) in self.shapes() {
            out.extend(under(&at, g.problems()));
            if g.axle != axle {
                let (wrong, right) = match axle {
                    Axle::Front => ("fault-rear-axle", "fault-front"),
                    Axle::Rear => ("fault-front-axle", "fault-rear"),
                };
                out.push(Problem::new(format!("{at}.axle"), said(wrong), said(right)));
            }
            if let Ok(size) = TyreSize::parse(&at, self.tyre_size_of(axle)) {
                let field = format!("{at}.wheel.loaded_radius_mm");
                out.extend(size.loaded_radius_problem(&field, g.wheel.loaded_radius_mm));
            }
        }
        out.extend(self.car.problems("car."));
        for (axle, a) in self.car.axles.each() {
            out.extend(inspected_problems(&format!("car.axles.{}.inspected.", axle.word()), &a.inspected));
        }
        if out.is_empty() {
            for (_, at, g) in self.shapes() {
                out.extend(travel_problems(g, &format!("{at}.")));
            }
        }
        if out.is_empty() {
            let front = self.shapes().into_iter().find(|(a, _, _)| *a == Axle::Front);
            out.extend(front.and_then(|(_, at, g)| steering_problem(g, &format!("{at}."))));
        }
        if !out.is_empty() {
            return out;
        }
        for (axle, _, g) in self.shapes() {
            let list: Vec<_> = self.car.axles[axle].adjusters.iter().map(|f| f.on(Side::Left)).collect();
            let there = adjusters_not_there(&list, &g.points);
            out.extend(under(&format!("car.axles.{}", axle.word()), there));
        }
        out
    }

    /// Points that are known, with where they stand in the document.
    fn shapes(&self) -> Vec<(Axle, String, &Geometry)> {
        let of = |(axle, s)| {
            let s: &AxleShape = s;
            s.geometry.as_ref().map(|g| (axle, format!("axles.{}.geometry", Axle::word(axle)), g))
        };
        self.axles.each().into_iter().filter_map(of).collect()
    }
}

fn no_front() -> Problem {
    Problem::new("axles.front.geometry", said("nothing-entered"), said("fault-points-front-axle"))
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
