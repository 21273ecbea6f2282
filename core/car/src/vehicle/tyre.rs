//! Tyre size arithmetic of ETRTO / TRA nominal sizes.

use bold_stance_units::MM_PER_INCH;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// A nominal size such as `285/70R17`.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TyreSize {
    /// Section width, mm.
    pub section_mm: f64,
    /// Section height over width, %.
    pub aspect: f64,
    /// Rim diameter, inches.
    pub rim_in: f64,
}

/// A short decimal number, point or comma.
fn number(s: &str) -> Option<f64> {
    let s = s.trim();
    let digits = !s.is_empty() && s.len() <= 5 && s.starts_with(|c: char| c.is_ascii_digit());
    digits.then(|| s.replace(',', ".").parse().ok()).flatten()
}

/// The rim diameter a text begins with, after its construction letters.
fn rim(rest: &str) -> Option<f64> {
    let rim = rest.trim_start_matches(['Z', 'R', 'D', 'B', '-', ' ']);
    let end = rim.find(|c: char| !(c.is_ascii_digit() || c == '.')).unwrap_or(rim.len());
    number(&rim[..end])
}

/// Section mm, aspect %, rim inches of `285/70R17`.
fn metric(t: &str) -> Option<(f64, f64, f64)> {
    let digits = t.trim_start_matches(|c: char| c.is_ascii_alphabetic() || c == ' ');
    let (section, rest) = digits.split_once('/')?;
    let rest = rest.trim_start();
    let (aspect, rest) = rest.split_at(rest.find(|c: char| !c.is_ascii_digit())?);
    Some((number(section)?, number(aspect)?, rim(rest)?))
}

/// The same of `33x12.50R15`: diameter and section in inches, from which the aspect follows.
fn flotation(t: &str) -> Option<(f64, f64, f64)> {
    let (across, rest) = t.split_once(['X', '×'])?;
    let rest = rest.trim_start();
    let (wide, rest) = rest.split_at(rest.find(|c: char| !(c.is_ascii_digit() || c == '.' || c == ','))?);
    let (across, wide, rim) = (number(across)?, number(wide)?, rim(rest)?);
    Some((wide * MM_PER_INCH, 100.0 * (across - rim) / (2.0 * wide), rim))
}

impl TyreSize {
    /// Reads a size, `285/70R17` or by its diameter, `33x12.50R15`; a service prefix (P, LT) and anything after the rim
    /// diameter are ignored.
    ///
    /// # Errors
    /// A [`Problem`] at `field` for unreadable text or sizes no tyre has.
    pub fn parse(field: &str, text: &str) -> Result<Self, Problem> {
        let bad = |wrong: Said| Problem::new(field, wrong, said("right-tyre"));
        let t = text.trim().to_uppercase();
        if t.is_empty() {
            return Err(bad(said("nothing-entered")));
        }
        let unreadable = || bad(said("unread-tyre").name("text", text.chars().take(20).collect::<String>()));
        let (section_mm, aspect, rim_in) = metric(&t).or_else(|| flotation(&t)).ok_or_else(unreadable)?;
        if !(105.0..=405.0).contains(&section_mm) {
            return Err(bad(said("tyre-section").mm("value", section_mm).mm("low", 105.0).mm("high", 405.0)));
        }
        if !(20.0..=95.0).contains(&aspect) {
            return Err(bad(said("tyre-aspect").plain("value", aspect, 0)));
        }
        if !(10.0..=26.0).contains(&rim_in) {
            return Err(bad(said("tyre-rim").plain("value", rim_in, 1)));
        }
        Ok(Self { section_mm, aspect, rim_in })
    }

    /// Unloaded outside diameter, mm: rim + 2 · aspect · section.
    #[must_use]
    pub fn diameter_mm(&self) -> f64 {
        self.rim_in * MM_PER_INCH + 2.0 * self.section_mm * self.aspect / 100.0
    }
}

impl TyreSize {
    /// A loaded radius that no tyre of this size has: a slack tyre stands at a third of its diameter, and a shape measured on
    /// much larger tyres is another car's (judgement, no source).
    #[must_use]
    pub fn loaded_radius_problem(&self, field: &str, radius_mm: f64) -> Option<Problem> {
        let d = self.diameter_mm();
        let (low, high) = (0.33 * d, 0.68 * d);
        (!(low..=high).contains(&radius_mm)).then(|| {
            let usual = loaded_radius_mm(self);
            Problem::new(
                field,
                said("tyre-radius").mm("radius", radius_mm).mm("across", d),
                said("tyre-radius-right").mm("low", low).mm("high", high).mm("usual", usual),
            )
        })
    }
}

/// Wheel centre above the ground under a usual load, mm: 3.5 % of the diameter of deflection taken
/// off the free radius (common practice, no source); overwrite it with a measured value.
#[must_use]
pub fn loaded_radius_mm(size: &TyreSize) -> f64 {
    size.diameter_mm() * (0.5 - 0.035 * 0.5)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn nominal_size_arithmetic() {
        // ETRTO Standards Manual / TRA Year Book nominal sizes: 265/70R17 is 431.8 + 2·0.70·265 = 802.8 mm.
        let t = TyreSize::parse("tyre", "265/70R17").unwrap();
        assert!((t.diameter_mm() - 802.8).abs() < 1e-9);
        let t = TyreSize::parse("tyre", "LT285/70 R17 121S").unwrap();
        assert!((t.diameter_mm() - 830.8).abs() < 1e-9);
        let r = loaded_radius_mm(&t);
        assert!(r > 395.0 && r < 412.0);
    }

    /// 100 mm under a tyre of 712 mm is no car; a slack one and a shape taken on other tyres are.
    #[test]
    fn a_loaded_radius_that_no_tyre_of_the_size_has_is_named() {
        let t = TyreSize::parse("tyre", "255/55R17").unwrap();
        assert!((t.diameter_mm() - 712.3).abs() < 0.1);
        let p = t.loaded_radius_problem("r", 100.0).unwrap();
        let told = |s: &Said| s.quantities().iter().map(|q| q.value.round()).collect::<Vec<_>>();
        assert!(told(&p.wrong).contains(&712.0) && told(&p.right).contains(&344.0), "{p}");
        for r in [250.0, loaded_radius_mm(&t), 402.0] {
            assert!(t.loaded_radius_problem("r", r).is_none(), "{r}");
        }
        assert!(t.loaded_radius_problem("r", f64::NAN).is_some());
    }

    #[test]
    fn refuses_what_is_not_a_tyre() {
        for bad in
            ["", "285", "285/70", "R17", "9999999999/70R17", "285/700R17", "285/70R99", "nan/70R17", "a/b"]
        {
            assert_eq!(TyreSize::parse("tyre_size", bad).unwrap_err().field, "tyre_size", "{bad}");
        }
    }
}
