//! Lengths as the workshop writes them.

use crate::number::{mixed_number, plain, signed, unreadable};
use crate::problem::Problem;
use crate::said::said;
use serde::{Deserialize, Serialize};

/// One inch in millimetres, exact (international yard and pound agreement, 1959).
pub const MM_PER_INCH: f64 = 25.4;

/// What a bare number means.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum LengthUnit {
    /// Millimetres.
    Mm,
    /// Inches.
    In,
}

/// Inches of a foot.
const INCHES_PER_FOOT: f64 = 12.0;
/// Units a length may end in, longest first, with their mm.
const UNITS: [(&str, f64); 7] = [
    ("inches", MM_PER_INCH),
    ("inch", MM_PER_INCH),
    ("in", MM_PER_INCH),
    ("\"", MM_PER_INCH),
    ("mm", 1.0),
    ("cm", 10.0),
    ("m", 1000.0),
];

/// Reads a length into mm. A bare number takes `default`; `field` names the input in the error.
///
/// # Errors
/// A [`Problem`] for empty text, unknown units, angles, `nan`, or more than ten characters of digits.
pub fn parse_length_mm(field: &str, text: &str, default: LengthUnit) -> Result<f64, Problem> {
    let t = plain(text);
    let (sign, body) = signed(&t);
    if body.contains('°') || body.ends_with("deg") {
        return Err(Problem::new(
            field,
            said("unread-angle-unit").name("text", t.trim()),
            said("right-length"),
        ));
    }
    unsigned_mm(body, default).map(|v| sign * v).ok_or_else(|| unreadable(field, text, said("right-length")))
}

/// Where the feet of a text end and the rest begins.
fn feet(body: &str) -> Option<(&str, &str)> {
    ["feet", "foot", "ft", "'"].iter().find_map(|name| body.split_once(name))
}

/// A length without a sign, in plain text, mm.
pub(crate) fn unsigned_mm(body: &str, default: LengthUnit) -> Option<f64> {
    if let Some((whole, rest)) = feet(body) {
        let rest = rest.trim();
        let inches = ["inches", "inch", "in", "\""].iter().find_map(|u| rest.strip_suffix(u)).unwrap_or(rest);
        let inches = if inches.trim().is_empty() { 0.0 } else { mixed_number(inches)? };
        let feet = mixed_number(whole)?;
        return (inches < INCHES_PER_FOOT).then_some((INCHES_PER_FOOT * feet + inches) * MM_PER_INCH);
    }
    let (number, scale) = UNITS
        .iter()
        .find_map(|(name, scale)| body.strip_suffix(name).map(|rest| (rest, *scale)))
        .unwrap_or((body, if default == LengthUnit::Mm { 1.0 } else { MM_PER_INCH }));
    mixed_number(number).map(|v| v * scale)
}

/// The unit a plain text of a length names: none for a bare number.
pub(crate) fn unit_named(body: &str) -> Option<LengthUnit> {
    if feet(body).is_some() {
        return Some(LengthUnit::In);
    }
    let named = UNITS.iter().find(|(name, _)| body.ends_with(name))?;
    Some(if named.1 == MM_PER_INCH { LengthUnit::In } else { LengthUnit::Mm })
}

/// `498 mm`, `498.5 mm`: at most one decimal, U+2212 minus.
#[must_use]
pub fn print_mm(mm: f64) -> String {
    let r = (mm * 10.0).round() / 10.0;
    let body =
        if (r - r.round()).abs() < 1e-9 { format!("{:.0}", r.abs()) } else { format!("{:.1}", r.abs()) };
    format!("{}{body} mm", if r < 0.0 { "−" } else { "" })
}

/// Nearest sixteenth: `19 5/8 in`.
#[must_use]
pub fn print_inches(mm: f64) -> String {
    let sixteenths = (mm.abs() / MM_PER_INCH * 16.0).round() as i64;
    let (whole, mut num, mut den) = (sixteenths / 16, sixteenths % 16, 16);
    while num > 0 && num % 2 == 0 {
        num /= 2;
        den /= 2;
    }
    let sign = if mm < 0.0 && sixteenths != 0 { "−" } else { "" };
    match (whole, num) {
        (w, 0) => format!("{sign}{w} in"),
        (0, n) => format!("{sign}{n}/{den} in"),
        (w, n) => format!("{sign}{w} {n}/{den} in"),
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn mm(t: &str) -> f64 {
        parse_length_mm("x", t, LengthUnit::Mm).unwrap()
    }

    #[test]
    fn reads_workshop_notation() {
        // 37 13/16 in = 960.4375 mm exactly (25.4 mm to the inch).
        assert!((mm("37 13/16in") - 960.4375).abs() < 1e-9);
        assert!((mm("37 13/16 \"") - 960.4375).abs() < 1e-9);
        assert!((mm("0.245in") - 6.223).abs() < 1e-9);
        assert!((mm("15mm") - 15.0).abs() < 1e-12);
        assert!((mm("−12,5") + 12.5).abs() < 1e-12);
        assert!((mm("2½ in") - 63.5).abs() < 1e-9);
        assert!((parse_length_mm("x", "19 5/8", LengthUnit::In).unwrap() - 498.475).abs() < 1e-9);
    }

    #[test]
    fn refuses_what_is_not_a_length() {
        for bad in
            ["", " ", "nan", "inf", "1e9", "0°24'", "2deg", "13/0", "3 17/16", "abc", "1234567890123", "--4"]
        {
            let p = parse_length_mm("h", bad, LengthUnit::Mm).unwrap_err();
            assert_eq!(p.field, "h", "{bad}");
        }
    }

    proptest! {
        #[test]
        fn print_then_parse_is_the_same_sixteenth(n in -4000i32..4000) {
            let v = f64::from(n) * MM_PER_INCH / 16.0;
            let back = parse_length_mm("x", &print_inches(v), LengthUnit::Mm).unwrap();
            prop_assert!((back - v).abs() < 1e-9);
        }

        #[test]
        fn print_then_parse_is_the_same_tenth(n in -20000i32..20000) {
            let v = f64::from(n) / 10.0;
            let back = parse_length_mm("x", &print_mm(v), LengthUnit::Mm).unwrap();
            prop_assert!((back - v).abs() < 1e-9);
        }

        #[test]
        fn never_panics(s in ".{0,24}") {
            let _ = parse_length_mm("x", &s, LengthUnit::In);
        }
    }
}
