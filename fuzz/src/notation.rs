//! Numbers as a shop writes them: any text is a number or refused, and what is printed is read as the same again.

use arbitrary::{Result, Unstructured};
use bold_stance_units::{
    LengthUnit, both_readings, parse_angle_deg, parse_count, parse_fuel_kg, parse_length_mm, parse_mass_kg,
    parse_number, parse_pressure_kpa, print_degrees, print_inches, print_minutes, print_mm,
};

/// What texts of a shop are put together from.
const PIECES: [&str; 40] = [
    "0",
    "1",
    "2",
    "5",
    "9",
    "12",
    "60",
    "1000",
    ".",
    ",",
    " ",
    "/",
    "-",
    "+",
    "\u{2212}",
    "\u{2013}",
    "\u{b0}",
    "'",
    "\u{2032}",
    "\"",
    "\u{2033}",
    "\u{bd}",
    "\u{bc}",
    "\u{215b}",
    "1/16",
    "15/16",
    "mm",
    "in",
    "ft",
    "cm",
    "m",
    "deg",
    "min",
    "d",
    "kPa",
    "psi",
    "bar",
    "lb",
    " over ",
    " per foot",
];

fn written(u: &mut Unstructured<'_>) -> Result<String> {
    if u.ratio(1, 6)? {
        return Ok(u.arbitrary::<&str>()?.chars().take(60).collect());
    }
    let n = u.int_in_range(1..=8u8)?;
    (0..n).map(|_| u.choose(&PIECES).copied()).collect()
}

/// One text, read as everything it could be.
pub fn notation(data: &[u8]) {
    let Ok(t) = written(&mut Unstructured::new(data)) else { return };
    let _ = both_readings(&t);
    for v in [
        parse_number("x", &t),
        parse_count("x", &t),
        parse_mass_kg("x", &t),
        parse_fuel_kg("x", &t),
        parse_pressure_kpa("x", &t),
    ] {
        assert!(v.as_ref().is_ok_and(|v| v.is_finite()) || v.is_err_and(|p| p.field == "x"), "{t:?}");
    }
    for unit in [LengthUnit::Mm, LengthUnit::In] {
        if let Ok(v) = parse_length_mm("x", &t, unit) {
            assert!(v.is_finite(), "{t:?} is {v}");
            if v.abs() < 1e5 {
                let back = parse_length_mm("x", &print_mm(v), LengthUnit::Mm);
                assert!(
                    back.as_ref().is_ok_and(|b| (b - v).abs() <= 0.0501),
                    "{t:?}: {v} comes back as {back:?}"
                );
                let back = parse_length_mm("x", &print_inches(v), LengthUnit::In);
                assert!(
                    back.as_ref().is_ok_and(|b| (b - v).abs() <= 0.7939),
                    "{t:?}: {v} comes back as {back:?}"
                );
            }
        }
    }
    if let Ok(v) = parse_angle_deg("x", &t) {
        assert!(v.is_finite(), "{t:?} is {v}");
        if v.abs() < 1e5 {
            for (printed, off) in [(print_degrees(v, 2), 0.00501), (print_minutes(v), 0.00834)] {
                let back = parse_angle_deg("x", &printed);
                assert!(
                    back.as_ref().is_ok_and(|b| (b - v).abs() <= off),
                    "{t:?}: {v} is {printed} and {back:?}"
                );
            }
        }
    }
}
