//! What was wrong with an input: the field, what is wrong, and what would be right.

use crate::said::{Measure, Said, said};
use serde::de::value::MapAccessDeserializer;
use serde::de::{MapAccess, Visitor};
use serde::{Deserialize, Deserializer, Serialize};
use std::fmt;
use std::marker::PhantomData;

/// One fault in an input, addressed to the field that holds it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Problem {
    /// Dotted path of the field, e.g. `points.upper_outer`.
    pub field: String,
    /// What is wrong.
    pub wrong: Said,
    /// What would be right.
    pub right: Said,
}

impl Problem {
    /// A problem at `field`.
    pub fn new(field: impl Into<String>, wrong: impl Into<Said>, right: impl Into<Said>) -> Self {
        Self { field: field.into(), wrong: wrong.into(), right: right.into() }
    }
}

impl fmt::Display for Problem {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{}: {}; {}", self.field, self.wrong.bare(), self.right.bare())
    }
}

impl std::error::Error for Problem {}

/// Checks that a number is finite and inside `[low, high]`.
///
/// # Errors
/// A [`Problem`] naming the field and the range, in `unit`.
pub fn in_range(field: &str, value: f64, low: f64, high: f64, unit: &str) -> Result<(), Problem> {
    if value.is_finite() && value >= low && value <= high {
        return Ok(());
    }
    let of = match unit {
        "mm" => Some(Measure::Mm),
        "°" => Some(Measure::Deg),
        "N" => Some(Measure::N),
        "kg" => Some(Measure::Kg),
        "kPa" => Some(Measure::Kpa),
        "km" => Some(Measure::Km),
        _ => None,
    };
    let digits = |v: f64| -> u8 {
        let whole = |k: f64| (v * k - (v * k).round()).abs() < 1e-9 * (v * k).abs().max(1.0);
        if whole(1.0) {
            0
        } else if whole(10.0) {
            1
        } else if whole(100.0) {
            2
        } else {
            3
        }
    };
    let put = |s: Said, key: &'static str, v: f64| s.of(key, of.unwrap_or(Measure::Plain), v, digits(v));
    // A unit that people choose is printed as they chose it; any other stands behind its number as it is.
    let told = |id: &'static str, other: &'static str| {
        if of.is_some() { said(id) } else { said(other).name("unit", unit) }
    };
    let wrong = if value.is_finite() {
        put(told("out-of-range", "out-of-range-of"), "value", value)
    } else {
        said("not-a-number")
    };
    let right = put(put(told("range", "range-of"), "low", low), "high", high);
    Err(Problem::new(field, wrong, right))
}

/// Marks a [`Problem`] inside a deserializer's message, so that [`parse_json`] can tell its own field.
const MARK: char = '\u{1}';

/// A problem as a deserializer's message.
#[must_use]
pub fn located(p: &Problem) -> String {
    let json = |s: &Said| serde_json::to_string(s).unwrap_or_default();
    format!("{MARK}{}{MARK}{}{MARK}{}{MARK}", p.field, json(&p.wrong), json(&p.right))
}

/// Parses a JSON document, refusing unknown fields where the type does.
///
/// # Errors
/// A [`Problem`] whose field is the path serde stopped at.
pub fn parse_json<'a, T: Deserialize<'a>>(text: &'a [u8]) -> Result<T, Problem> {
    let mut de = serde_json::Deserializer::from_slice(text);
    let value: T = serde_path_to_error::deserialize(&mut de).map_err(|e| {
        let path = e.path().to_string();
        let field = if path == "." { "document".into() } else { path };
        let told = e.inner().to_string();
        let parts: Vec<&str> = told.split(MARK).collect();
        if let [_, inner, wrong, right, _] = parts.as_slice() {
            let at = if field == "document" { (*inner).to_owned() } else { format!("{field}.{inner}") };
            let read = |t: &str| serde_json::from_str::<Said>(t).unwrap_or_else(|_| Said::text(t));
            return Problem::new(at, read(wrong), read(right));
        }
        Problem::new(field, told, said("fault-fields-kinds-values-documented-format"))
    })?;
    de.end().map_err(|e| Problem::new("document", e.to_string(), said("fault-one-json-document-only")))?;
    Ok(value)
}

/// A record whose fields may all be absent, out of an object only: a derived record also takes a list, in silence.
///
/// # Errors
/// The deserializer's own.
pub fn from_object<'de, D: Deserializer<'de>, T: Deserialize<'de>>(of: D) -> Result<T, D::Error> {
    struct Object<T>(PhantomData<T>);
    impl<'de, T: Deserialize<'de>> Visitor<'de> for Object<T> {
        type Value = T;

        fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
            f.write_str("an object")
        }

        fn visit_map<A: MapAccess<'de>>(self, map: A) -> Result<T, A::Error> {
            T::deserialize(MapAccessDeserializer::new(map))
        }
    }
    of.deserialize_map(Object(PhantomData))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[derive(Debug, Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Doc {
        #[allow(dead_code)]
        a: Inner,
    }
    #[derive(Debug, Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Inner {
        #[allow(dead_code)]
        b: f64,
    }

    #[test]
    fn a_fault_names_its_path() {
        let p = parse_json::<Doc>(br#"{"a":{"b":"x"}}"#).unwrap_err();
        assert_eq!(p.field, "a.b");
        let p = parse_json::<Doc>(br#"{"a":{"b":1,"c":2}}"#).unwrap_err();
        assert!(p.wrong.bare().contains("unknown field"), "{p}");
        assert!(parse_json::<Doc>(br#"{"a":{"b":1}"#).is_err(), "truncated");
        assert!(parse_json::<Doc>(br#"{"a":{"b":1}} x"#).is_err(), "trailing");
    }

    #[test]
    fn a_list_is_no_record_and_a_fault_in_a_record_keeps_its_path() {
        #[derive(Debug, Default, Deserialize)]
        #[serde(default, deny_unknown_fields)]
        struct All {
            b: Option<f64>,
        }
        #[derive(Debug, Deserialize)]
        struct Holder {
            #[serde(default, deserialize_with = "from_object")]
            a: All,
        }
        assert_eq!(parse_json::<Holder>(br#"{"a":{"b":1}}"#).unwrap().a.b, Some(1.0));
        assert_eq!(parse_json::<Holder>(br#"{}"#).unwrap().a.b, None);
        let p = parse_json::<Holder>(br#"{"a":[null]}"#).unwrap_err();
        assert!(p.field == "a" && p.wrong.bare().contains("expected an object"), "{p}");
        assert_eq!(parse_json::<Holder>(br#"{"a":{"b":"x"}}"#).unwrap_err().field, "a.b");
    }

    #[test]
    fn ranges_refuse_nan_and_say_the_range() {
        assert!(in_range("x", f64::NAN, 0.0, 1.0, "mm").is_err());
        let p = in_range("x", 2.0, 0.0, 1.0, "mm").unwrap_err();
        assert_eq!(p.right.id, "range");
        assert_eq!(p.right.quantities().iter().map(|q| q.value).collect::<Vec<_>>(), [1.0, 0.0]);
    }
}
