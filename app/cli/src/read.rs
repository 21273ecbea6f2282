//! `read METHOD --name=value...`: one reading conversion, JSON.

use crate::{Failure, headless};
use bold_stance_kinematics::geometry::Side;
use bold_stance_kinematics::linkage::read_geometry;
use bold_stance_trade::reading::{
    EntryKind, Known, Method, MethodInfo, RawEntry, SweptCar, Unit, doubt_parts, parse_entries,
    shipped_methods, together, words,
};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};
use bold_stance_units::{LengthUnit, parse_length_mm};
use bold_stance_words::plain;
use serde_json::{Map, Value, json};
use std::path::Path;

/// Every method with its names, for `read --help`.
fn help(all: &[MethodInfo]) -> String {
    let mut out = String::from(
        "One reading conversion, JSON\n\nUsage: bold-stance read METHOD --name=value...\n\nMethods (names in brackets may be left out; lengths such as 15mm, 37 13/16in, 0.245in; angles such as 2.25, 2.25deg, 0d24m):\n",
    );
    for m in all {
        let names: Vec<String> = m
            .entries
            .iter()
            .map(|e| if e.optional { format!("[{}]", e.name) } else { e.name.clone() })
            .collect();
        out.push_str(&format!("  {:18} {}\n", m.id.word(), names.join(", ")));
    }
    out.push_str("\n`bold-stance read METHOD --help` says what each name is.");
    out
}

fn help_of(m: &MethodInfo) {
    println!("{}: {}\n", m.id.word(), m.how);
    for e in &m.entries {
        let kind = match e.kind {
            EntryKind::Length => "length".to_owned(),
            EntryKind::Angle => "angle".to_owned(),
            EntryKind::Toe => "mm, in or degrees".to_owned(),
            EntryKind::Nominal => "inches".to_owned(),
            EntryKind::Pressure => "kPa, bar or psi".to_owned(),
            EntryKind::Choice => e.choices.join(" or "),
        };
        let optional = if e.optional { ", may be left out" } else { "" };
        println!("  --{:18} {} ({kind}{optional})", format!("{}=", e.name), e.label);
    }
    if m.id == Method::CasterSweep {
        println!("  --geometry=           geometry file of this car: solved on its own linkage");
        println!("  --travel=             wheel travel it stands at, mm, bump positive (with geometry; 0)");
    }
    println!("\nSigns: {}", signs(m));
}

fn signs(m: &MethodInfo) -> String {
    m.quantity
        .leans()
        .map_or_else(|| "none".into(), |(p, n)| format!("plus {}, minus {}", plain(&p), plain(&n)))
}

/// `read`.
pub fn read(method: &str, values: &[String]) -> Result<(), Failure> {
    let all = shipped_methods()?;
    if matches!(method, "--help" | "-h") {
        println!("{}", help(&all));
        return Ok(());
    }
    let id = Method::from_word(method, &all)?;
    let m = all.iter().find(|m| m.id == id).ok_or_else(|| Failure::System("no data".into()))?;
    if values.iter().any(|v| v == "--help" || v == "-h") {
        help_of(m);
        return Ok(());
    }
    let (mut raw, mut geometry, mut travel) = (Vec::new(), None, 0.0);
    let names = || m.entries.iter().map(|e| format!("--{}=", e.name)).collect::<Vec<_>>().join(" ");
    for v in values {
        let Some((name, text)) = v.strip_prefix("--").and_then(|v| v.split_once('=')) else {
            return Err(Problem::new(v.as_str(), said("fault-name-value"), names()).into());
        };
        match (id, name) {
            (Method::CasterSweep, "geometry") => geometry = Some(text.to_owned()),
            (Method::CasterSweep, "travel") => {
                travel = parse_length_mm("travel", text, LengthUnit::Mm)?;
            }
            _ if m.entries.iter().any(|e| e.name == name) => {
                if text.trim().is_empty() {
                    return Err(
                        Problem::new(name, said("nothing-entered"), said("fault-after-equals")).into()
                    );
                }
                raw.push(RawEntry::new(name, text));
            }
            _ => {
                return Err(Problem::new(
                    name,
                    said("fault-no-such-name").name("method", id.word()),
                    names(),
                )
                .into());
            }
        }
    }
    let first = |p: Vec<Problem>| {
        p.into_iter().next().map_or_else(|| Failure::System("refused".into()), Failure::from)
    };
    let (given, _, repeats) = parse_entries(m, &raw, LengthUnit::Mm).map_err(first)?;
    let swept = geometry.map(|path| swept_car(&path, given.word("side"), travel)).transpose()?;
    let known = Known { side: None, swept };
    let label = |n: &str| Said::text(n);
    let (value, doubt) = doubt_parts(id, &given, &known, &label)?;
    let mut out = Map::new();
    out.insert("quantity".into(), json!(m.quantity));
    let key = match m.quantity.unit() {
        Unit::Deg => "value_deg",
        Unit::Mm => "value_mm",
        Unit::Kpa => "value_kpa",
    };
    // Adding zero keeps a negative zero from being printed.
    out.insert(key.into(), json!(value.value + 0.0));
    out.insert("sigma".into(), json!(together(&doubt)));
    for a in &value.also {
        out.insert(a.name.clone(), json!(a.value + 0.0));
    }
    out.insert("words".into(), json!(words(m.quantity, value.value)));
    if !value.corrections.is_empty() {
        out.insert("corrections".into(), json!(value.corrections));
    }
    if repeats.iter().any(|r| r.values.len() > 1) {
        out.insert("repeats".into(), json!(repeats));
    }
    out.insert("notes".into(), json!(value.notes));
    headless::print(&Value::Object(out))
}

fn swept_car(path: &str, side: Option<&str>, travel_mm: f64) -> Result<SweptCar, Failure> {
    let g = read_geometry(&headless::read(Path::new(path))?)?;
    let side = if side == Some("right") { Side::Right } else { Side::Left };
    let (points, wheel) = g.side(side);
    let straight = {
        use bold_stance_kinematics::linkage::{Corner, Linkage};
        Corner::of(&g, side).wheel(travel_mm, 0.0).map_err(|e| Failure::NoAnswer(e.to_string()))?
    };
    Ok(SweptCar { points, wheel, travel_mm, toe_deg: straight.toe_deg })
}
