//! What is written by hand and what it means: the vectors of data/notation.json, which the browser's tests read too.

use bold_stance_car::vehicle::TyreSize;
use bold_stance_units::{
    LengthUnit, both_readings, parse_angle_deg, parse_length_mm, parse_mass_kg, parse_number,
    parse_pressure_kpa,
};
use serde_json::Value;

fn cases(kind: &str) -> Vec<Value> {
    let all: Value = serde_json::from_str(include_str!("../../../../data/notation.json")).unwrap();
    let list = all[kind].as_array().unwrap().clone();
    assert!(list.len() >= 7, "{kind}");
    list
}

/// Holds what was read against the value that is meant; none means refused.
fn held(c: &Value, read: Option<f64>, means: &str) {
    match (read, c[means].as_f64()) {
        (None, None) => {}
        (Some(v), Some(want)) => assert!((v - want).abs() <= 1e-7 * want.abs().max(1.0), "{c}: {v}"),
        (read, _) => panic!("{c}: read as {read:?}"),
    }
}

#[test]
fn every_text_is_read_as_it_is_meant_or_refused_at_its_field() {
    for c in cases("length") {
        let unit = if c["unit"] == "in" { LengthUnit::In } else { LengthUnit::Mm };
        held(&c, parse_length_mm("x", c["text"].as_str().unwrap(), unit).ok(), "mm");
    }
    for c in cases("angle") {
        held(&c, parse_angle_deg("x", c["text"].as_str().unwrap()).ok(), "deg");
    }
    for c in cases("number") {
        let text = c["text"].as_str().unwrap();
        held(&c, parse_number("x", text).ok(), "value");
        let either = c["either"].as_array().map(|e| (e[0].as_f64().unwrap(), e[1].as_f64().unwrap()));
        assert_eq!(both_readings(text), either, "{text}");
    }
    for c in cases("pressure") {
        held(&c, parse_pressure_kpa("x", c["text"].as_str().unwrap()).ok(), "kpa");
    }
    for c in cases("mass") {
        held(&c, parse_mass_kg("x", c["text"].as_str().unwrap()).ok(), "kg");
    }
    for c in cases("tyre") {
        let t = TyreSize::parse("x", c["text"].as_str().unwrap()).ok();
        held(&c, t.map(|t| t.section_mm), "section_mm");
        held(&c, t.map(|t| t.aspect), "aspect");
        held(&c, t.map(|t| t.rim_in), "rim_in");
    }
}
