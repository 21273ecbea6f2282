//! Vehicle facts as the first form of the document told them, front and rear by the names of fields, brought into this one.

use serde_json::{Map, Value, json};

/// Puts the facts of a vehicle that were written in the first form into the present one; what is in it already, or is no
/// object, stays as it is. Unknown fields are kept where they stand, so that reading them names them.
#[must_use]
pub fn present_form(facts: Value) -> Value {
    match facts {
        Value::Object(f) if !f.contains_key("axles") => Value::Object(of_vehicle(f)),
        other => other,
    }
}

/// Moves `from` under `to` when it is there and says something.
fn told(from: &mut Map<String, Value>, key: &str, to: &mut Map<String, Value>, name: &str) {
    if let Some(v) = from.remove(key).filter(|v| !v.is_null()) {
        to.insert(name.to_owned(), v);
    }
}

fn object(v: Option<Value>) -> Map<String, Value> {
    match v {
        Some(Value::Object(o)) => o,
        _ => Map::new(),
    }
}

fn of_vehicle(mut f: Map<String, Value>) -> Map<String, Value> {
    let mut car = object(f.remove("car"));
    let mut wear = object(car.remove("wear"));
    let (mut front, mut rear) = (Map::new(), Map::new());
    for (old, new) in [
        ("geometry", "geometry"),
        ("knowledge", "knowledge"),
        ("track_front_mm", "track_mm"),
        ("design_height_mm", "height_mm"),
    ] {
        told(&mut f, old, &mut front, new);
    }
    for (old, new) in [
        ("rear_geometry", "geometry"),
        ("rear_knowledge", "knowledge"),
        ("track_rear_mm", "track_mm"),
        ("rear_height_mm", "height_mm"),
    ] {
        told(&mut f, old, &mut rear, new);
    }
    for (old, new) in [
        ("rear_tyre_size", "tyre_size"),
        ("rear_pressure_kpa", "pressure_kpa"),
        ("rear_placard_kpa", "placard_kpa"),
    ] {
        told(&mut wear, old, &mut rear, new);
    }
    let mut told_front = Map::from_iter([("load_n".to_owned(), json!(6000.0))]);
    let mut told_rear = Map::from_iter([("load_n".to_owned(), json!(5000.0))]);
    told(&mut car, "front_load_n", &mut told_front, "load_n");
    told(&mut car, "rear_load_n", &mut told_rear, "load_n");
    // The facts of the vehicle had a front load of their own, and that one counted.
    told(&mut f, "front_load_n", &mut told_front, "load_n");
    told(&mut f, "adjusters", &mut told_front, "adjusters");
    told(&mut car, "rear_adjusters", &mut told_rear, "adjusters");
    told(&mut car, "rear_settle_mm", &mut told_rear, "settle_mm");
    for (axle, limits, own) in [("front", "limits", &mut told_front), ("rear", "rear_limits", &mut told_rear)]
    {
        told(&mut car, &format!("{axle}_spring"), own, "spring");
        told(&mut car, &format!("{axle}_tyre_gain_mm"), own, "tyre_gain_mm");
        let mut allowed = object(car.remove(limits));
        let shaft = car.remove(&format!("{axle}_shaft_inner")).filter(|v| !v.is_null());
        if let Some(v) = shaft
            && allowed.get("shaft_inner").is_none_or(Value::is_null)
        {
            allowed.insert("shaft_inner".to_owned(), v);
        }
        own.insert("limits".to_owned(), Value::Object(allowed));
    }
    if let Some(Value::Array(levels)) = car.get_mut("levels") {
        for l in levels.iter_mut().filter_map(Value::as_object_mut) {
            if let (Some(front), Some(rear)) = (l.remove("front_mm"), l.remove("rear_mm")) {
                l.insert("mm".to_owned(), json!({"front": front, "rear": rear}));
            }
        }
    }
    car.insert("axles".to_owned(), json!({"front": told_front, "rear": told_rear}));
    car.insert("wear".to_owned(), Value::Object(wear));
    f.insert("car".to_owned(), Value::Object(car));
    f.insert("axles".to_owned(), json!({"front": front, "rear": rear}));
    f.insert("format".to_owned(), json!(2));
    f
}
