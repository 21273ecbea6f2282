//! JSON Schemas of the files people keep, out of the same description the server gives.

use crate::Failure;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde_json::{Map, Value, json};

/// Turns references into the description's components to references into the schema's own definitions.
fn local(v: &mut Value) {
    match v {
        Value::String(s) => {
            if let Some(name) = s.strip_prefix("#/components/schemas/") {
                *s = format!("#/$defs/{name}");
            }
        }
        Value::Array(a) => a.iter_mut().for_each(local),
        Value::Object(o) => o.values_mut().for_each(local),
        _ => {}
    }
}

/// Names of definitions that a value refers to.
fn named(v: &Value, out: &mut Vec<String>) {
    match v {
        Value::Object(o) => {
            if let Some(Value::String(r)) = o.get("$ref")
                && let Some(name) = r.strip_prefix("#/$defs/")
                && !out.iter().any(|n| n == name)
            {
                out.push(name.to_owned());
            }
            o.values().for_each(|v| named(v, out));
        }
        Value::Array(a) => a.iter().for_each(|v| named(v, out)),
        _ => {}
    }
}

/// A message: data that is spoken where it is read, or text kept before messages were data.
fn message() -> Value {
    json!({
        "description": "A message by its id with what it speaks of, or plain text.",
        "oneOf": [
            {"type": "string"},
            {
                "type": "object",
                "required": ["say"],
                "properties": {"say": {"type": "string"}, "with": {"type": "object"}},
                "additionalProperties": false,
            },
        ],
    })
}

/// The schema of a document by its name in the description.
fn schema_of(root: &str, title: &str) -> Result<Value, Failure> {
    let mut api: Value = serde_json::from_str(&bold_stance_server::openapi_json())
        .map_err(|e| Failure::System(e.to_string()))?;
    local(&mut api);
    let all = api["components"]["schemas"].as_object().cloned().unwrap_or_default();
    let (mut defs, mut wanted, mut at) = (Map::new(), vec![root.to_owned()], 0);
    while let Some(name) = wanted.get(at).cloned() {
        // Over the wire a message is spoken; in a file it stands as it is kept.
        let def =
            if name == "Said" { message() } else { all.get(&name).cloned().unwrap_or(Value::Bool(true)) };
        named(&def, &mut wanted);
        defs.insert(name, def);
        at += 1;
    }
    Ok(json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": title,
        "$ref": format!("#/$defs/{root}"),
        "$defs": defs,
    }))
}

/// Prints a schema.
pub fn print(name: &str) -> Result<(), Failure> {
    let schema = match name {
        "job" => schema_of("JobBundle", "bold-stance.job/1")?,
        _ => return Err(Problem::new("name", said("fault-no-schema").name("name", name), "job").into()),
    };
    let text = serde_json::to_string_pretty(&schema).map_err(|e| Failure::System(e.to_string()))?;
    println!("{text}");
    Ok(())
}
