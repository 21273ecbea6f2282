//! Geometries of every layout: what is taken can be posed, or says at which travel it stops.

use crate::edited::{all_finite, edited};
use arbitrary::Unstructured;
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_kinematics::geometry::{Geometry, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage, steering_problem, travel_problems};
use serde_json::{Value, to_value, to_vec};
use std::sync::LazyLock;

/// The shapes that ship: all layouts, front and rear.
static SHAPES: LazyLock<Vec<Value>> = LazyLock::new(|| {
    shipped_archetypes().into_iter().flatten().filter_map(|a| to_value(&a.geometry).ok()).collect()
});

/// A geometry with values changed.
pub fn geometry(data: &[u8]) {
    let mut u = Unstructured::new(data);
    let Ok(base) = u.choose(&SHAPES) else { return };
    let text = to_vec(&edited(base, &mut u)).unwrap_or_default();
    let Ok(g) = Geometry::from_json(&text) else { return };
    let again = to_vec(&g).unwrap_or_default();
    assert_eq!(Geometry::from_json(&again).ok().as_ref(), Some(&g), "comes back as it was");
    let (travels, steering) = (travel_problems(&g, ""), steering_problem(&g, ""));
    let _ = (travels, steering, g.remarks());
    for side in Side::BOTH {
        let c = Corner::of(&g, side);
        for (travel, rack) in [(0.0, 0.0), (40.0, 0.0), (-60.0, 8.0)] {
            match c.wheel(travel, rack) {
                Ok(w) => {
                    let a = w.or_unsteered();
                    all_finite("angle", [a.camber_deg, a.toe_deg, a.caster_deg, a.sai_deg]);
                }
                Err(e) => all_finite("limit", [e.limit_travel_mm]),
            }
        }
        let _ = c.bars(0.0, 0.0);
    }
}
