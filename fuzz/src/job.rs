//! Whole jobs: what is taken is written and read the same, and its plan has an answer of numbers, or says what is wrong.

use crate::edited::{all_finite, edited};
use arbitrary::Unstructured;
use bold_stance_trade::job::JobBundle;
use bold_stance_trade::part::{Part, shipped_parts};
use chrono::{DateTime, Utc};
use serde_json::{Value, from_str, to_vec};
use std::sync::LazyLock;

/// Invented jobs of the demo: a strut car, one with five links behind, one with live axles.
static JOBS: LazyLock<Vec<Value>> = LazyLock::new(|| {
    [
        include_str!("../seeds/strut_car.json"),
        include_str!("../seeds/multilink_car.json"),
        include_str!("../seeds/live_axle_car.json"),
    ]
    .into_iter()
    .filter_map(|t| from_str(t).ok())
    .collect()
});
static PARTS: LazyLock<Vec<Part>> = LazyLock::new(|| shipped_parts().unwrap_or_default());

fn taken(u: &mut Unstructured<'_>) -> Option<JobBundle> {
    let base = u.choose(&JOBS).ok()?;
    JobBundle::from_json(&to_vec(&edited(base, u)).ok()?).ok()
}

/// A job's file with values changed.
pub fn bundle(data: &[u8]) {
    let Some(b) = taken(&mut Unstructured::new(data)) else { return };
    let again = to_vec(&b).unwrap_or_default();
    match JobBundle::from_json(&again) {
        Ok(back) => assert_eq!(back, b, "comes back as it was"),
        Err(e) => assert!(e.is_empty(), "its own file is refused: {e:?}"),
    }
}

/// The plan of a job's file with values changed.
pub fn plan(data: &[u8]) {
    let Some(b) = taken(&mut Unstructured::new(data)) else { return };
    let Ok(e) = b.evaluate(None, &PARTS, DateTime::<Utc>::UNIX_EPOCH) else { return };
    let answer = serde_json::to_value(&e.plan).unwrap_or_default();
    for r in [&e.plan.axles.front, &e.plan.axles.rear].into_iter().flatten() {
        for side in [&r.left, &r.right] {
            for a in [side.before, side.after, side.set] {
                all_finite("planned angle", [a.camber_deg, a.toe_deg, a.caster_deg]);
            }
            all_finite("planned height", [side.planned_height_mm]);
        }
    }
    assert!(answer.is_object());
}
