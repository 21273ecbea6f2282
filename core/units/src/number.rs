//! Numbers as they are written by hand: decimals, thousands, fractions, signs; what can be read two ways is refused.

use crate::problem::Problem;
use crate::said::{Said, said};

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
pub(crate) fn plain(text: &str) -> String {
    let s: String = text
        .chars()
        .map(|c| match c {
            '−' | '–' | '—' => '-',
            '\u{2009}' | '\u{202f}' | '\u{a0}' | '\t' => ' ',
            '⁄' => '/',
            '′' | '’' => '\'',
            '″' | '”' => '"',
            'º' => '°',
            other => other,
        })
        .collect();
    s.trim().to_lowercase()
}

/// Longest number that is read, characters: all digits a double can hold, and then some.
const LONGEST: usize = 40;
/// Largest number that is read.
const LARGEST: f64 = 1e9;

/// A decimal number without sign, exponent, `nan` or `inf`. A comma may stand for the point, or part thousands, and so
/// may spaces; where it could be either (`38,600`) it is neither: [`both_readings`] says what it could be.
pub(crate) fn decimal(text: &str) -> Option<f64> {
    let t = text.trim();
    if t.is_empty() || t.chars().count() > LONGEST || both_readings(t).is_some() {
        return None;
    }
    let commas = t.matches(',').count();
    let (whole, part) = match t.split_once('.') {
        Some((_, p)) if p.contains('.') => return None,
        Some((w, p)) => (w, p),
        None if commas == 1 => t.split_once(',')?,
        None => (t, ""),
    };
    let digits = |s: &str| s.chars().all(|c| c.is_ascii_digit());
    let groups: Vec<&str> = whole.split([',', ' ']).collect();
    let grouped = groups.len() == 1
        || (!groups[0].is_empty() && groups[0].len() <= 3 && groups[1..].iter().all(|g| g.len() == 3));
    let all = groups.concat();
    if !(grouped && digits(&all) && digits(part)) || (all.is_empty() && part.is_empty()) {
        return None;
    }
    format!("{all}.{part}0").parse().ok().filter(|v: &f64| *v < LARGEST)
}

/// The two readings of a number whose one comma may be a decimal comma or part thousands (`38,600`: 38.6, 38600).
#[must_use]
pub fn both_readings(text: &str) -> Option<(f64, f64)> {
    let t = text.trim().trim_start_matches(['-', '+', '−']).trim();
    let (whole, part) = t.split_once(',')?;
    let digits = |s: &str| !s.is_empty() && s.chars().all(|c| c.is_ascii_digit());
    if part.len() != 3 || whole.len() > 3 || whole.starts_with('0') || !digits(whole) || !digits(part) {
        return None;
    }
    Some((format!("{whole}.{part}").parse().ok()?, format!("{whole}{part}").parse().ok()?))
}

/// Reads a plain number with its sign, as the number of a length is read.
///
/// # Errors
/// A [`Problem`] at `field` for what is no number, and for one whose comma could be either.
pub fn parse_number(field: &str, text: &str) -> Result<f64, Problem> {
    let t = plain(text);
    let (sign, body) = signed(&t);
    decimal(body).map(|v| sign * v).ok_or_else(|| unreadable(field, text, said("right-number")))
}

/// Reads a count with its sign, whole or with a fraction: `3`, `-2`, `1 3/4`, `½`.
///
/// # Errors
/// A [`Problem`] at `field` for what is none.
pub fn parse_count(field: &str, text: &str) -> Result<f64, Problem> {
    let t = plain(text);
    let (sign, body) = signed(&t);
    mixed_number(body).map(|v| sign * v).ok_or_else(|| unreadable(field, text, said("right-count")))
}

/// Whole and fraction, e.g. `37 13/16`, `37-13/16`, `13/16`, `37½`, `2.25`; unsigned.
pub(crate) fn mixed_number(text: &str) -> Option<f64> {
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
pub(crate) fn signed(text: &str) -> (f64, &str) {
    if let Some(rest) = text.strip_prefix('-') {
        (-1.0, rest.trim_start())
    } else {
        (1.0, text.strip_prefix('+').unwrap_or(text).trim_start())
    }
}

/// A text that cannot be read: what it says, and what would be right.
pub(crate) fn unreadable(field: &str, text: &str, right: Said) -> Problem {
    let shown: String = text.chars().take(24).collect();
    let number: String =
        plain(text).chars().take_while(|c| c.is_ascii_digit() || "-+,".contains(*c)).collect();
    if let Some((point, whole)) = both_readings(&number) {
        let either = |id| said(id).name("point", point.to_string()).name("whole", whole.to_string());
        return Problem::new(
            field,
            either("unread-either").name("text", shown),
            either("unread-either-right"),
        );
    }
    if text.trim().is_empty() {
        return Problem::new(field, said("nothing-entered"), right);
    }
    Problem::new(field, said("unread").name("text", shown), right)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::{LengthUnit, parse_length_mm};

    #[test]
    fn a_comma_is_never_guessed() {
        let read = |t: &str| parse_number("x", t).ok();
        for (t, v) in [
            ("38600", 38600.0),
            ("38 600", 38600.0),
            ("38\u{2009}600", 38600.0),
            ("1,234,567", 1_234_567.0),
            ("38,600.5", 38600.5),
            ("38,6", 38.6),
            ("0,245", 0.245),
            ("38,60", 38.6),
            ("1234,567", 1234.567),
            ("-12,5", -12.5),
            ("−0.123456789012345", -0.123_456_789_012_345),
            (".5", 0.5),
            ("5.", 5.0),
        ] {
            assert_eq!(read(t), Some(v), "{t}");
        }
        for t in ["", "1,23,4", "3,86,00", "1.2.3", "12 34", "1e5", "nan", "1,2,", ",", ".", "9999999999"] {
            assert_eq!(read(t), None, "{t}");
        }
        let p = parse_number("odometer", "38,600").unwrap_err();
        assert_eq!((p.field.as_str(), p.wrong.bare()), ("odometer", "unread-either"));
        // In a length and an angle too.
        assert!(
            parse_length_mm("x", "1,500 mm", LengthUnit::Mm).unwrap_err().wrong.bare() == "unread-either"
        );
        assert!((parse_length_mm("x", "1,5 mm", LengthUnit::Mm).unwrap() - 1.5).abs() < 1e-12);
    }
}
