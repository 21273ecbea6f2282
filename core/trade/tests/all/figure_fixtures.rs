//! Plan answers that the front end's drawings are tested with (`web/fixtures`), computed by the real model and held
//! to it here. After a change of the model that is meant:
//! `BOLD_STANCE_FIXTURES=write cargo test -p bold-stance-trade --test all figure_fixtures`.

use crate::common;
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::job::VehicleFacts;
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::{PlanInput, plan};
use bold_stance_words::{Units, english};
use common::{electric_rear, truck};
use serde_json::{Value, json};
use std::path::Path;

/// Five decimals are more than any drawing needs, and less than machines differ by.
fn rounded(v: Value) -> Value {
    match v {
        Value::Number(n) if n.is_f64() => {
            let x = (n.as_f64().unwrap() * 1e5).round() / 1e5;
            json!(if x == 0.0 { 0.0 } else { x })
        }
        Value::Array(a) => a.into_iter().map(rounded).collect(),
        Value::Object(o) => o.into_iter().map(|(k, v)| (k, rounded(v))).collect(),
        v => v,
    }
}

fn near(a: &Value, b: &Value, at: &str) {
    match (a, b) {
        (Value::Number(x), Value::Number(y)) => {
            let (x, y) = (x.as_f64().unwrap(), y.as_f64().unwrap());
            assert!((x - y).abs() < 1e-4 * (1.0 + x.abs()), "{at}: {x} is not {y}");
        }
        (Value::Array(x), Value::Array(y)) => {
            assert_eq!(x.len(), y.len(), "{at}");
            x.iter().zip(y).enumerate().for_each(|(i, (a, b))| near(a, b, &format!("{at}.{i}")));
        }
        (Value::Object(x), Value::Object(y)) => {
            assert_eq!(x.keys().collect::<Vec<_>>(), y.keys().collect::<Vec<_>>(), "{at}");
            x.iter().for_each(|(k, a)| near(a, &y[k], &format!("{at}.{k}")));
        }
        _ => assert_eq!(a, b, "{at}"),
    }
}

/// An input with its aim and answer; of the candidates only the first two.
fn case(input: &PlanInput) -> Value {
    let mut result = serde_json::to_value(plan(input, &shipped_parts().unwrap()).unwrap()).unwrap();
    result["candidates"].as_array_mut().unwrap().truncate(2);
    // As it reaches the screen.
    english(Units::default()).speak(&mut result);
    rounded(json!({"aim": input.aim, "planned": input.own().height_change_mm, "result": result}))
}

#[test]
fn fixtures_of_the_drawings_are_what_the_model_says() {
    let short = truck();
    let fitted = PlanInput { fitted: vec!["offset-upper-arm@7".into()], ..truck() };
    let stopped = truck().lifted(220.0);
    let drift =
        PlanInput { aim: shipped_aims().unwrap().into_iter().find(|a| a.id == "drift").unwrap(), ..truck() };
    let dir = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web/fixtures");
    let rear = PlanInput { fitted: vec!["rear-camber-arm".into(), "rear-toe-arm".into()], ..electric_rear() };
    let front = shipped_archetypes().unwrap().into_iter().find(|a| a.geometry.axle == Axle::Front).unwrap();
    let starter = rounded(serde_json::to_value(VehicleFacts::starting_on(front.geometry)).unwrap());
    let cases =
        [("short", short), ("fitted", fitted), ("stopped", stopped), ("drift", drift), ("rear", rear)];
    let all = cases.into_iter().map(|(n, i)| (n, case(&i))).chain([("starter", starter)]);
    for (name, now) in all {
        let path = dir.join(format!("{name}.json"));
        if std::env::var("BOLD_STANCE_FIXTURES").is_ok_and(|v| v == "write") {
            std::fs::create_dir_all(&dir).unwrap();
            std::fs::write(&path, format!("{now}\n")).unwrap();
        }
        let text = std::fs::read_to_string(&path)
            .unwrap_or_else(|e| panic!("{}: {e}; see the top of this file", path.display()));
        near(&serde_json::from_str(&text).unwrap(), &now, name);
    }
}
