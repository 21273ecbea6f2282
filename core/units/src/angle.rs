//! Angles as gauges show them: decimal degrees or degrees and minutes.

use crate::length::{LengthUnit, unit_named, unsigned_mm};
use crate::number::{both_readings, mixed_number, plain, signed, unreadable};
use crate::problem::Problem;
use crate::said::said;

/// Reads an angle into degrees: `2.25`, `2.25deg`, `2.25°`, `2½°`, `0°24'`, `0d24m`, `24'`, `24min`; or a rise over a run,
/// `5/8 in over 5 ft 6`, `1/8 in per foot`.
///
/// # Errors
/// A [`Problem`] at `field` for empty text, lengths, minutes of 60 and over beside degrees, or `nan`.
pub fn parse_angle_deg(field: &str, text: &str) -> Result<f64, Problem> {
    let t = plain(text);
    let (sign, body) = signed(&t);
    if let Some((rise, run)) = body.split_once(" over ").or_else(|| body.split_once(" per ")) {
        let slope = slope_deg(rise.trim(), run.trim());
        return slope.map(|v| sign * v).ok_or_else(|| unreadable(field, text, said("right-angle")));
    }
    let minutes = body.ends_with("min");
    if !minutes && (body.ends_with("mm") || body.ends_with("in") || body.ends_with('"')) {
        return Err(Problem::new(
            field,
            said("unread-is-length").name("text", t.clone()),
            said("right-angle"),
        ));
    }
    value(body).map(|v| sign * v).ok_or_else(|| unreadable(field, text, said("right-angle")))
}

/// A rise over a run, degrees: atan(rise / run). Where one of the two names a unit, the other bare number is in it too.
fn slope_deg(rise: &str, run: &str) -> Option<f64> {
    let one = ["foot", "ft", "inch", "in", "m", "cm"].contains(&run);
    let run = if one { format!("1 {run}") } else { run.to_owned() };
    let bare = unit_named(rise).or_else(|| unit_named(&run)).unwrap_or(LengthUnit::Mm);
    let (up, along) = (unsigned_mm(rise, bare)?, unsigned_mm(&run, bare)?);
    (along > 0.0).then(|| (up / along).atan().to_degrees())
}

/// No angle has thousands of degrees, so a comma is the point whatever follows it.
fn decimal(text: &str) -> Option<f64> {
    both_readings(text).map_or_else(|| crate::number::decimal(text), |(point, _)| Some(point))
}

fn value(body: &str) -> Option<f64> {
    let minutes_of = |m: &str| {
        let m = m.trim();
        let m = m.strip_suffix("min").or_else(|| m.strip_suffix('m')).unwrap_or(m);
        decimal(m.strip_suffix('\'').unwrap_or(m))
    };
    if let Some((d, m)) = body.split_once(['°', 'd']) {
        let m = m.trim_start_matches("eg").trim();
        if m.is_empty() {
            return decimal(d).or_else(|| mixed_number(d));
        }
        let degrees = decimal(d)?;
        let minutes = minutes_of(m).filter(|m| *m < 60.0)?;
        return (degrees.fract() == 0.0).then_some(degrees + minutes / 60.0);
    }
    if body.ends_with('\'') || body.ends_with("min") || body.ends_with('m') {
        return minutes_of(body).map(|m| m / 60.0);
    }
    decimal(body)
}

/// `−0.8°` with the given decimals, U+2212 minus, never `−0.0°`.
#[must_use]
pub fn print_degrees(deg: f64, decimals: usize) -> String {
    let body = format!("{:.*}", decimals, deg.abs());
    let zero = body.chars().all(|c| c == '0' || c == '.');
    format!("{}{body}°", if deg < 0.0 && !zero { "−" } else { "" })
}

/// `1°50′`, to the nearest minute.
#[must_use]
pub fn print_minutes(deg: f64) -> String {
    let m = (deg.abs() * 60.0).round() as i64;
    format!("{}{}°{:02}′", if deg < 0.0 && m != 0 { "−" } else { "" }, m / 60, m % 60)
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn deg(t: &str) -> f64 {
        parse_angle_deg("a", t).unwrap()
    }

    #[test]
    fn reads_gauge_notation() {
        assert!((deg("0°24'") - 0.4).abs() < 1e-12);
        assert!((deg("0d24m") - 0.4).abs() < 1e-12);
        assert!((deg("-0°24′") + 0.4).abs() < 1e-12);
        assert!((deg("24'") - 0.4).abs() < 1e-12);
        assert!((deg("2.25") - 2.25).abs() < 1e-12);
        assert!((deg("2.25deg") - 2.25).abs() < 1e-12);
        assert!((deg("−0,8°") + 0.8).abs() < 1e-12);
    }

    #[test]
    fn refuses_lengths_and_nonsense() {
        for bad in ["", "nan", "3mm", "1/8 in", "1°75'", "1.5°10'", "x", "0°2°", "°"] {
            assert!(parse_angle_deg("a", bad).is_err(), "{bad}");
        }
    }

    #[test]
    fn prints_no_negative_zero() {
        assert_eq!(print_degrees(-0.04, 1), "0.0°");
        assert_eq!(print_minutes(-0.001), "0°00′");
        assert_eq!(print_degrees(-0.25, 2), "−0.25°");
    }

    proptest! {
        #[test]
        fn minutes_round_trip(n in -900i32..900) {
            let v = f64::from(n) / 60.0;
            prop_assert!((deg(&print_minutes(v)) - v).abs() < 1e-9);
        }

        #[test]
        fn degrees_round_trip(n in -1500i32..1500) {
            let v = f64::from(n) / 100.0;
            prop_assert!((deg(&print_degrees(v, 2)) - v).abs() < 1e-9);
        }

        #[test]
        fn never_panics(s in ".{0,20}") {
            let _ = parse_angle_deg("a", &s);
        }
    }
}
