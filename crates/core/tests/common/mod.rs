//! The invented demo truck, shared by tests.
#![allow(clippy::unwrap_used, dead_code, missing_docs)]

use bold_stance_core::archetype::shipped_archetypes;
use bold_stance_core::fit::Doubt;
use bold_stance_core::geometry::Geometry;
use bold_stance_core::part::default_adjusters;
use bold_stance_core::plan::{PlanInput, SideReadings, shipped_aims};
use bold_stance_core::reading::ReadingCar;
use bold_stance_core::vehicle::{Car, CarFacts, Measured, TyreSize};

pub fn truck() -> PlanInput {
    let geometry = Geometry::from_json(include_bytes!("../cases/sample_wishbone.json")).unwrap();
    let read = |height_mm, camber_deg, caster_deg| SideReadings {
        height_mm,
        angles: Measured { camber_deg, caster_deg, toe_deg: 0.05 },
        sigma: Doubt { camber_deg: 0.1, caster_deg: 0.15, toe_deg: 0.05 },
    };
    let sides = [read(496.0, -0.15, 3.35), read(500.0, 0.0, 3.5)];
    let aim = shipped_aims().unwrap().remove(0);
    PlanInput {
        height_change_mm: 65.0,
        settle_mm: 9.0,
        load_mm: 20.0,
        ..PlanInput::unchanged(geometry, 3220.0, 498.0, default_adjusters(3.2), sides, aim)
    }
}

/// The electric car's rear, lowered, camber too far in.
pub fn electric_rear() -> PlanInput {
    let shape = shipped_archetypes().unwrap().into_iter().find(|a| a.id == "ev_multilink_rear").unwrap();
    let aim = shipped_aims().unwrap().into_iter().find(|a| a.id == "distance").unwrap();
    let read = |height_mm, camber_deg, toe_deg| SideReadings {
        height_mm,
        angles: Measured { camber_deg, caster_deg: 0.0, toe_deg },
        sigma: Doubt { camber_deg: 0.1, caster_deg: 0.0, toe_deg: 0.05 },
    };
    PlanInput {
        height_change_mm: -25.0,
        other_change_mm: -25.0,
        ..PlanInput::unchanged(
            shape.geometry,
            2900.0,
            368.0,
            Vec::new(),
            [read(366.0, -1.2, 0.12), read(367.0, -1.0, 0.1)],
            aim,
        )
    }
}

/// A truck to read on: wishbones in front, a leaf axle behind, at 500 and 560 mm hub to arch.
pub fn reading_truck(facts: CarFacts, track_mm: [f64; 2]) -> ReadingCar {
    let shapes = shipped_archetypes().unwrap();
    let get = |id: &str| shapes.iter().find(|a| a.id == id).unwrap().geometry.clone();
    ReadingCar {
        car: Car { front: get("half_ton_front"), rear: Some(get("leaf_rear")), wheelbase_mm: 3300.0, facts },
        design_height_mm: [500.0, 560.0],
        tyre: TyreSize::parse("t", "265/70R17").unwrap(),
        track_mm,
    }
}
