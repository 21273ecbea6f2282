//! Pressures as gauges show them.

use crate::number::{decimal, plain, unreadable};
use crate::problem::Problem;
use crate::said::said;

/// One pound-force per square inch in kPa: 0.45359237 kg · 9.80665 m/s² / (25.4 mm)², exact definitions.
pub const KPA_PER_PSI: f64 = 0.453_592_37 * 9.806_65 / (25.4 * 25.4) * 1000.0;

/// Reads a pressure into kPa: `240`, `240 kPa`, `2.4 bar`, `35 psi`. A bare number below 8 is bar, below
/// 90 psi, else kPa.
///
/// # Errors
/// A [`Problem`] at `field`.
pub fn parse_pressure_kpa(field: &str, text: &str) -> Result<f64, Problem> {
    let t = plain(text);
    for (name, scale) in [("kpa", 1.0), ("bar", 100.0), ("psi", KPA_PER_PSI)] {
        if let Some(rest) = t.strip_suffix(name) {
            return decimal(rest)
                .map(|v| v * scale)
                .ok_or_else(|| unreadable(field, text, said("right-pressure")));
        }
    }
    let v = decimal(&t).ok_or_else(|| unreadable(field, text, said("right-pressure")))?;
    Ok(match v {
        v if v < 8.0 => v * 100.0,
        v if v < 90.0 => v * KPA_PER_PSI,
        v => v,
    })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn three_units_and_bare_numbers() {
        let kpa = |t: &str| parse_pressure_kpa("p", t).unwrap();
        // 1 psi = 6.894757 kPa (exact definitions of pound, inch and standard gravity).
        assert!((kpa("35 psi") - 241.3165).abs() < 1e-3);
        assert!((kpa("2.4 bar") - 240.0).abs() < 1e-9);
        assert!((kpa("240") - 240.0).abs() < 1e-9);
        assert!((kpa("35") - kpa("35psi")).abs() < 1e-9);
        assert!((kpa("2,4") - 240.0).abs() < 1e-9);
        for bad in ["", "psi", "-3 bar", "soft", "2.4 atm"] {
            assert_eq!(parse_pressure_kpa("p", bad).unwrap_err().field, "p", "{bad}");
        }
    }
}
