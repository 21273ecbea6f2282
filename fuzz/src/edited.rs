//! A document with some of its values changed, so that most of it stays right and what is wrong is deep inside.

use arbitrary::{Result, Unstructured};
use serde::Serialize;
use serde_json::{Number, Value, to_value};

/// Numbers that are at an edge of something.
const EDGES: [f64; 16] =
    [0.0, -0.0, 1.0, -1.0, 0.5, 90.0, -90.0, 180.0, 360.0, 1e-9, 1e-300, 5e-324, 1e6, 1e15, 1e300, f64::MAX];
/// Texts that are at an edge of something.
pub const TEXTS: [&str; 14] = [
    "",
    " ",
    "0",
    "-0",
    "1e9",
    "nan",
    "inf",
    "\u{0}",
    "=1+1",
    "\u{2212}1",
    "3 1/2",
    "1°30'",
    "ä\u{301}\u{202e}",
    "front",
];

/// As many changes as the bytes ask for, at most eight.
pub fn edited(base: &Value, u: &mut Unstructured<'_>) -> Value {
    let mut out = base.clone();
    let n = u.int_in_range(0..=8u8).unwrap_or(0);
    for _ in 0..n {
        if edit(&mut out, u).is_err() {
            break;
        }
    }
    out
}

/// Goes down by chance and changes what it comes to.
fn edit(v: &mut Value, u: &mut Unstructured<'_>) -> Result<()> {
    // At an inner place seldom: what is cut off there takes everything below it along.
    let stop: bool = u.ratio(1, 12)?;
    match v {
        Value::Object(m) if !m.is_empty() && !stop => {
            let i = u.choose_index(m.len())?;
            m.values_mut().nth(i).map_or(Ok(()), |w| edit(w, u))
        }
        Value::Array(a) if !a.is_empty() && !stop => {
            let i = u.choose_index(a.len())?;
            edit(&mut a[i], u)
        }
        Value::Object(m) => {
            let names: Vec<String> = m.keys().cloned().collect();
            match u.int_in_range(0..=3u8)? {
                0 if !names.is_empty() => {
                    m.remove(u.choose(&names)?);
                }
                1 => {
                    m.insert(text(u)?, scalar(u)?);
                }
                2 if names.len() > 1 => {
                    let (a, b) = (u.choose(&names)?, u.choose(&names)?);
                    let w = m[a].clone();
                    m.insert(b.clone(), w);
                }
                _ => *v = scalar(u)?,
            }
            Ok(())
        }
        Value::Array(a) => {
            match u.int_in_range(0..=3u8)? {
                0 => {
                    a.pop();
                }
                1 if !a.is_empty() => {
                    let i = u.choose_index(a.len())?;
                    let twice = a[i].clone();
                    a.push(twice);
                }
                2 => a.clear(),
                _ => *v = scalar(u)?,
            }
            Ok(())
        }
        Value::Number(n) if u.ratio(7, 8)? => {
            let x = n.as_f64().unwrap_or(0.0);
            *v = number(near(x, u)?);
            Ok(())
        }
        Value::String(_) if u.ratio(7, 8)? => {
            *v = Value::String(text(u)?);
            Ok(())
        }
        Value::Bool(b) => {
            *b = !*b;
            Ok(())
        }
        other => {
            *other = scalar(u)?;
            Ok(())
        }
    }
}

/// A number beside one, or at an edge.
fn near(x: f64, u: &mut Unstructured<'_>) -> Result<f64> {
    Ok(match u.int_in_range(0..=5u8)? {
        0 => x + f64::from(u.arbitrary::<i8>()?),
        1 => x * (1.0 + f64::from(u.arbitrary::<i8>()?) / 640.0),
        2 => x + f64::from(u.arbitrary::<i16>()?) / 10.0,
        3 => -x,
        4 => *u.choose(&EDGES)?,
        _ => u.arbitrary()?,
    })
}

fn number(x: f64) -> Value {
    Number::from_f64(x).map_or(Value::Null, Value::Number)
}

/// A text a hand, a spreadsheet or an enemy might give.
pub fn text(u: &mut Unstructured<'_>) -> Result<String> {
    Ok(match u.int_in_range(0..=2u8)? {
        0 => (*u.choose(&TEXTS)?).to_owned(),
        1 => format!("{}{}", u.arbitrary::<i16>()?, u.choose(&TEXTS)?),
        _ => u.arbitrary::<&str>()?.chars().take(40).collect(),
    })
}

fn scalar(u: &mut Unstructured<'_>) -> Result<Value> {
    Ok(match u.int_in_range(0..=5u8)? {
        0 => Value::Null,
        1 => Value::Bool(u.arbitrary()?),
        2 => number(u.arbitrary()?),
        3 => number(*u.choose(&EDGES)?),
        4 => Value::Array(Vec::new()),
        _ => Value::String(text(u)?),
    })
}

/// Whether every number in what was computed is one: JSON writes what is none as null, so they are looked for before.
pub fn all_finite(what: &str, numbers: impl IntoIterator<Item = f64>) {
    for x in numbers {
        assert!(x.is_finite(), "{what} is {x}");
    }
}

/// Without the spaces round each text and what a price has below a billionth: a table has none of them.
fn trimmed(v: Value) -> Value {
    match v {
        Value::String(t) => Value::String(t.trim().to_owned()),
        Value::Array(a) => a.into_iter().map(trimmed).collect(),
        Value::Object(m) => m.into_iter().map(|(k, w)| (k, trimmed(w))).collect(),
        Value::Number(n) if n.as_f64().is_some_and(|x| x.abs() < 1e-9) => number(0.0),
        other => other,
    }
}

/// That two are the same but for what a table cannot hold.
pub fn same_as_a_table_has_it(one: &impl Serialize, other: &impl Serialize, table: &str) {
    let [one, other] = [to_value(one), to_value(other)].map(|v| trimmed(v.unwrap_or_default()));
    assert_eq!(one, other, "comes back as it was: {table}");
}
