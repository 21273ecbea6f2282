//! Workshop notation: lengths in mm or inch fractions, angles in degrees or degrees-minutes.

mod angle;
mod length;
mod mass;
mod pressure;

pub use angle::{parse_angle_deg, print_degrees, print_minutes};
pub use length::{LengthUnit, MM_PER_INCH, parse_length_mm, print_inches, print_mm};
pub use mass::{KG_PER_LB, KG_PER_LITRE_OF_FUEL, parse_fuel_kg, parse_mass_kg};
pub use pressure::{KPA_PER_PSI, parse_pressure_kpa};

use crate::problem::Problem;

/// Unicode vulgar fractions a phone keyboard offers, as numerator and denominator.
const VULGAR: [(char, f64); 19] = [
    ('½', 0.5),
    ('⅓', 1.0 / 3.0),
    ('⅔', 2.0 / 3.0),
    ('¼', 0.25),
    ('¾', 0.75),
    ('⅕', 0.2),
    ('⅖', 0.4),
    ('⅗', 0.6),
    ('⅘', 0.8),
    ('⅙', 1.0 / 6.0),
    ('⅚', 5.0 / 6.0),
    ('⅐', 1.0 / 7.0),
    ('⅛', 0.125),
    ('⅜', 0.375),
    ('⅝', 0.625),
    ('⅞', 0.875),
    ('⅑', 1.0 / 9.0),
    ('⅒', 0.1),
    ('↉', 0.0),
];

/// Replaces typographic minus signs and spaces, and trims.
fn plain(text: &str) -> String {
    let s: String = text
        .chars()
        .map(|c| match c {
            '−' | '–' | '—' => '-',
            '\u{2009}' | '\u{202f}' | '\u{a0}' | '\t' => ' ',
            '⁄' => '/',
            other => other,
        })
        .collect();
    s.trim().to_lowercase()
}

/// A decimal number without sign, exponent, `nan` or `inf`; a comma may stand for the point.
fn decimal(text: &str) -> Option<f64> {
    let t = text.trim();
    let ok = !t.is_empty()
        && t.len() <= 12
        && t.chars().all(|c| c.is_ascii_digit() || c == '.' || c == ',')
        && t.chars().any(|c| c.is_ascii_digit());
    if !ok {
        return None;
    }
    t.replace(',', ".").parse().ok().filter(|v: &f64| v.is_finite())
}

/// Whole and fraction, e.g. `37 13/16`, `37-13/16`, `13/16`, `37½`, `2.25`; unsigned.
fn mixed_number(text: &str) -> Option<f64> {
    let t = text.trim();
    if let Some((i, c)) = t.char_indices().find(|(_, c)| VULGAR.iter().any(|(v, _)| v == c)) {
        let part = VULGAR.iter().find(|(v, _)| *v == c).map(|(_, x)| *x)?;
        if !t[i + c.len_utf8()..].trim().is_empty() {
            return None;
        }
        let whole = t[..i].trim();
        return if whole.is_empty() {
            Some(part)
        } else {
            whole.parse::<u32>().ok().map(|w| f64::from(w) + part)
        };
    }
    let Some((left, den)) = t.split_once('/') else { return decimal(t) };
    let den: u32 = den.trim().parse().ok().filter(|d| *d > 0)?;
    let mut words: Vec<&str> = left.split([' ', '-']).filter(|w| !w.is_empty()).collect();
    let num: u32 = words.pop()?.parse().ok()?;
    let whole: u32 = match words.as_slice() {
        [] => 0,
        [w] => w.parse().ok()?,
        _ => return None,
    };
    if num >= den && whole > 0 {
        return None;
    }
    Some(f64::from(whole) + f64::from(num) / f64::from(den))
}

/// Splits a sign off the front.
fn signed(text: &str) -> (f64, &str) {
    if let Some(rest) = text.strip_prefix('-') {
        (-1.0, rest.trim_start())
    } else {
        (1.0, text.strip_prefix('+').unwrap_or(text).trim_start())
    }
}

fn unreadable(field: &str, text: &str, right: &str) -> Problem {
    let shown: String = text.chars().take(24).collect();
    let wrong = if text.trim().is_empty() {
        "nothing was entered".to_owned()
    } else {
        format!("\"{shown}\" cannot be read")
    };
    Problem::new(field, wrong, right)
}
