//! Parts as the shop enters or imports them: what is taken fits or does not, and comes back the same from a table.

use crate::edited::{edited, same_as_a_table_has_it};
use arbitrary::Unstructured;
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_kinematics::geometry::Geometry;
use bold_stance_trade::part::{
    part_problems, parts_for, parts_from_csv, parts_from_json, parts_to_csv, shipped_parts,
};
use serde_json::{Value, json, to_string, to_value};
use std::sync::LazyLock;

static PARTS: LazyLock<Vec<Value>> =
    LazyLock::new(|| shipped_parts().into_iter().flatten().filter_map(|p| to_value(p).ok()).collect());
static SHAPES: LazyLock<Vec<Geometry>> =
    LazyLock::new(|| shipped_archetypes().into_iter().flatten().map(|a| a.geometry).collect());

/// A part with values changed.
pub fn parts(data: &[u8]) {
    let mut u = Unstructured::new(data);
    let (Ok(base), Ok(shape)) = (u.choose(&PARTS), u.choose(&SHAPES)) else { return };
    let list = json!([edited(base, &mut u)]);
    let Ok(list) = parts_from_json(&to_string(&list).unwrap_or_default()) else { return };
    for p in &list {
        assert!(part_problems(p).is_empty(), "taken with a fault");
        for v in p.variants() {
            assert_eq!(v.family(), p.family());
        }
    }
    let _ = parts_for(&list, shape);
    let table = parts_to_csv(&list).unwrap_or_default();
    match parts_from_csv(table.as_bytes()) {
        Ok(back) => same_as_a_table_has_it(&back, &list, &table),
        Err(e) => assert!(e.is_empty(), "its own table is refused: {e:?}\n{table}"),
    }
}
