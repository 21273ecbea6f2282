//! Masses as they are told: kilograms or pounds, and fuel by volume.

use crate::number::{decimal, plain, unreadable};
use crate::problem::Problem;
use crate::said::said;

/// One pound in kilograms, exact (international yard and pound agreement, 1959).
pub const KG_PER_LB: f64 = 0.453_592_37;
/// Litres of a US gallon: 231 cubic inches, exact.
const LITRES_PER_GALLON: f64 = 3.785_411_784;
/// Fuel: 6 lb a US gallon (common practice, no source).
pub const KG_PER_LITRE_OF_FUEL: f64 = 6.0 * KG_PER_LB / LITRES_PER_GALLON;

fn scaled(t: &str, units: &[(&str, f64)]) -> Option<f64> {
    for (name, scale) in units {
        if let Some(rest) = t.strip_suffix(name) {
            return decimal(rest).map(|v| v * scale);
        }
    }
    decimal(t)
}

/// Reads a mass into kg: `80`, `80 kg`, `180 lb`.
///
/// # Errors
/// A [`Problem`] at `field`.
pub fn parse_mass_kg(field: &str, text: &str) -> Result<f64, Problem> {
    scaled(&plain(text), &[("kg", 1.0), ("lbs", KG_PER_LB), ("lb", KG_PER_LB)])
        .ok_or_else(|| unreadable(field, text, said("right-mass")))
}

/// Reads a volume of fuel into its mass in kg: `20`, `20 l`, `5 gal`.
///
/// # Errors
/// A [`Problem`] at `field`.
pub fn parse_fuel_kg(field: &str, text: &str) -> Result<f64, Problem> {
    let t = plain(text);
    let gallon = LITRES_PER_GALLON * KG_PER_LITRE_OF_FUEL;
    let units = [
        ("litres", KG_PER_LITRE_OF_FUEL),
        ("gallons", gallon),
        ("gal", gallon),
        ("kg", 1.0),
        ("lb", KG_PER_LB),
        ("l", KG_PER_LITRE_OF_FUEL),
    ];
    let bare = t.chars().last().is_some_and(|c| c.is_ascii_digit());
    let v = if bare { decimal(&t).map(|v| v * KG_PER_LITRE_OF_FUEL) } else { scaled(&t, &units) };
    v.ok_or_else(|| unreadable(field, text, said("right-fuel")))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_gallon_of_fuel_is_six_pounds() {
        let kg = |t: &str| parse_fuel_kg("f", t).unwrap();
        assert!((kg("5 gal") - 30.0 * KG_PER_LB).abs() < 1e-9);
        assert!((kg("20") - kg("20 l")).abs() < 1e-12);
        assert!((kg("20 l") - 14.379).abs() < 1e-3);
        assert!((kg("12 lb") - 12.0 * KG_PER_LB).abs() < 1e-12);
        assert!((parse_mass_kg("m", "180 lb").unwrap() - 81.6466).abs() < 1e-3);
        assert!((parse_mass_kg("m", "80").unwrap() - 80.0).abs() < 1e-12);
        for bad in ["", "full", "half a tank", "-3 l"] {
            assert!(parse_fuel_kg("f", bad).is_err(), "{bad}");
        }
    }
}
