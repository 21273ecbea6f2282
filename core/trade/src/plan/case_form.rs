//! A plan's case as it was first written (this axle's height and the other's by the names of fields, pairs as lists),
//! brought into the present form before it is read: cases that were saved stay readable.

use super::case::PlanCase;
use bold_stance_units::problem::{Problem, parse_json};
use serde_json::{Map, Value};

/// Fields of [`super::input::Moves`], with what they were called for the other axle.
const MOVES: [(&str, &str); 3] =
    [("height_change_mm", "other_change_mm"), ("settle_mm", "other_settle_mm"), ("load_mm", "other_load_mm")];
/// Fields of the tyres that were a front and a rear value in a list.
const PAIRS: [&str; 5] = ["sizes", "load_n", "pressure_kpa", "placard_kpa", "roll_camber"];

impl PlanCase {
    /// Reads a case in the present or the first form.
    ///
    /// # Errors
    /// A [`Problem`] at the first field that is wrong.
    pub fn read(text: &[u8]) -> Result<Self, Problem> {
        match serde_json::from_slice::<Value>(text) {
            Ok(Value::Object(case)) => parse_json(Value::Object(present(case)).to_string().as_bytes()),
            _ => parse_json(text),
        }
    }
}

/// A list of two as an object of two names; anything else as it is.
fn named(v: Value, names: [&str; 2]) -> Value {
    match v {
        Value::Array(pair) if pair.len() == 2 => names.map(str::to_owned).into_iter().zip(pair).collect(),
        other => other,
    }
}

fn rename(of: &mut Map<String, Value>, key: &str, f: impl FnOnce(Value) -> Value) {
    if let Some(v) = of.remove(key) {
        of.insert(key.to_owned(), f(v));
    }
}

fn present(mut case: Map<String, Value>) -> Map<String, Value> {
    if let Some(Value::Object(tyres)) = case.get_mut("tyres") {
        for key in PAIRS {
            rename(tyres, key, |v| named(v, ["front", "rear"]));
        }
    }
    let Some(Value::Object(input)) = case.get_mut("input") else { return case };
    // A list of adjusters is that of both sides.
    rename(input, "adjusters", |v| match v {
        Value::Array(list) => {
            ["left", "right"].map(|s| (s.to_owned(), Value::Array(list.clone()))).into_iter().collect()
        }
        other => other,
    });
    rename(input, "trim_mm", |v| named(v, ["left", "right"]));
    rename(input, "picked", |v| match named(v, ["left", "right"]) {
        Value::Object(sides) => {
            let angles = |(side, v): (String, Value)| (side, named(v, ["camber_deg", "second_deg"]));
            Value::Object(sides.into_iter().map(angles).collect())
        }
        other => other,
    });
    if input.contains_key("moves") {
        return case;
    }
    let rear = input.get("geometry").and_then(|g| g.get("axle")).is_some_and(|a| a == "rear");
    let (mut own, mut off) = (Map::new(), Map::new());
    for (key, other) in MOVES {
        own.extend(input.remove(key).map(|v| (key.to_owned(), v)));
        off.extend(input.remove(other).map(|v| (key.to_owned(), v)));
    }
    if let Some(Value::Array(pair)) = input.remove("tyre_gain_mm") {
        for (of, v) in [&mut own, &mut off].into_iter().zip(pair) {
            of.insert("tyre_gain_mm".to_owned(), v);
        }
    }
    let (front, rear) = if rear { (off, own) } else { (own, off) };
    let moves = [("front", front), ("rear", rear)];
    let moves = moves.map(|(axle, m)| (axle.to_owned(), Value::Object(m))).into_iter().collect();
    input.insert("moves".to_owned(), Value::Object(moves));
    case
}
