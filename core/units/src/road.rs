//! Distance driven and depth of tread as shops tell them.

use crate::length::MM_PER_INCH;

/// One mile in kilometres, exact (international yard and pound agreement, 1959).
pub const KM_PER_MILE: f64 = 1.609_344;
/// A thirty-second of an inch in mm, exact by the same agreement.
pub const MM_PER_32ND: f64 = MM_PER_INCH / 32.0;

/// What a distance driven is told in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Default)]
pub enum DistanceUnit {
    /// Kilometres.
    #[default]
    Km,
    /// Miles.
    Miles,
}

impl DistanceUnit {
    /// Kilometres of one.
    #[must_use]
    pub fn km(self) -> f64 {
        match self {
            Self::Km => 1.0,
            Self::Miles => KM_PER_MILE,
        }
    }
}

/// What a depth of tread is told in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Default)]
pub enum TreadUnit {
    /// Millimetres.
    #[default]
    Mm,
    /// Thirty-seconds of an inch.
    In32,
}

impl TreadUnit {
    /// Millimetres of one.
    #[must_use]
    pub fn mm(self) -> f64 {
        match self {
            Self::Mm => 1.0,
            Self::In32 => MM_PER_32ND,
        }
    }
}

/// A figure to so many significant digits.
fn to_digits(v: f64, digits: usize) -> f64 {
    // What was written as a number reads as one.
    format!("{v:.*e}", digits - 1).parse().unwrap_or(v)
}

/// A figure that was told in a unit `one` of which is so much here, to twelve digits: what went out by [`in_unit`] comes back
/// as it was.
#[must_use]
pub fn told_in(v: f64, one: f64) -> f64 {
    // In its own unit nothing is touched.
    if one.to_bits() == 1.0_f64.to_bits() { v } else { to_digits(v * one, 12) }
}

/// A figure in a unit `one` of which is so much here, without the last bits of the division: 498.475 mm are 19.625 in.
#[must_use]
pub fn in_unit(v: f64, one: f64) -> f64 {
    if one.to_bits() == 1.0_f64.to_bits() { v } else { to_digits(v / one, 15) }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn there_and_back_is_the_same_figure() {
        for v in [7.3, 1.6, 38_600.0, 0.1, 12.345_678, 0.0] {
            for one in [KM_PER_MILE, MM_PER_32ND, MM_PER_INCH, 1.0] {
                assert_eq!(told_in(in_unit(v, one), one), v);
            }
        }
        assert_eq!((in_unit(498.475, MM_PER_INCH), in_unit(7.14375, MM_PER_32ND)), (19.625, 9.0));
        assert_eq!((DistanceUnit::Miles.km(), TreadUnit::In32.mm() * 32.0), (1.609_344, 25.4));
        assert_eq!((DistanceUnit::Km.km(), TreadUnit::Mm.mm()), (1.0, 1.0));
    }
}
