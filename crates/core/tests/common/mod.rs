//! The invented demo truck, shared by tests.
#![allow(clippy::unwrap_used, dead_code, missing_docs)]

use bold_stance_core::fit::Doubt;
use bold_stance_core::geometry::Geometry;
use bold_stance_core::part::default_adjusters;
use bold_stance_core::plan::{PlanInput, SideReadings, shipped_aims};
use bold_stance_core::vehicle::Measured;

pub fn truck() -> PlanInput {
    let geometry = Geometry::from_json(include_bytes!("../cases/sample_wishbone.json")).unwrap();
    let read = |height_mm, camber_deg, caster_deg| SideReadings {
        height_mm,
        angles: Measured { camber_deg, caster_deg, toe_deg: 0.05 },
        sigma: Doubt { camber_deg: 0.1, caster_deg: 0.15, toe_deg: 0.05 },
    };
    PlanInput {
        geometry,
        knowledge: Default::default(),
        wheelbase_mm: 3220.0,
        design_height_mm: 498.0,
        adjusters: default_adjusters(3.2),
        left: read(496.0, -0.15, 3.35),
        right: read(500.0, 0.0, 3.5),
        height_change_mm: 65.0,
        rear_change_mm: 0.0,
        settle_mm: 9.0,
        load_mm: 20.0,
        fitted: Vec::new(),
        aim: shipped_aims().unwrap().remove(0),
    }
}
