//! How sure a figure is: a standard deviation and the half width of what holds nine in ten are two types, so that one is never
//! taken for the other.

use std::ops::Mul;

/// Of a standard normal, nine in ten lie within this many standard deviations either way (Φ⁻¹(0.95)).
const Z90: f64 = 1.6449;

/// A standard deviation, in the unit of its figure.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Default)]
pub struct Sigma(pub f64);

/// Half width of the band that holds nine in ten, in the unit of its figure.
#[derive(Debug, Clone, Copy, PartialEq, PartialOrd, Default)]
pub struct HalfWidth(pub f64);

impl Sigma {
    /// The band of a normal error.
    #[must_use]
    pub const fn half_width(self) -> HalfWidth {
        HalfWidth(Z90 * self.0)
    }

    /// Of the sum or difference of two independent errors: the root of the sum of squares (JCGM 100:2008, 5.1.2).
    #[must_use]
    pub fn and(self, other: Self) -> Self {
        Self(self.0.hypot(other.0))
    }

    /// Out of a variance.
    #[must_use]
    pub fn of_variance(variance: f64) -> Self {
        Self(variance.sqrt())
    }
}

impl HalfWidth {
    /// The standard deviation of the normal error whose band this is.
    #[must_use]
    pub const fn sigma(self) -> Sigma {
        Sigma(self.0 / Z90)
    }

    /// Of the sum or difference of two independent errors.
    #[must_use]
    pub fn and(self, other: Self) -> Self {
        Self(self.0.hypot(other.0))
    }

    /// Never narrower than this.
    #[must_use]
    pub fn at_least(self, least: f64) -> Self {
        Self(self.0.max(least))
    }
}

impl Mul<f64> for Sigma {
    type Output = Self;
    fn mul(self, by: f64) -> Self {
        Self(self.0 * by)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// Φ(1.6449) = 0.9500 (tables of the standard normal); 3-4-5 for independent errors.
    #[test]
    fn bands_and_deviations_come_back_as_they_were() {
        assert!((Sigma(0.1).half_width().0 - 0.164_49).abs() < 1e-12);
        assert!((Sigma(0.37).half_width().sigma().0 - 0.37).abs() < 1e-12);
        assert_eq!(Sigma(3.0).and(Sigma(4.0)), Sigma(5.0));
        assert_eq!(HalfWidth(3.0).and(HalfWidth(4.0)).at_least(6.0), HalfWidth(6.0));
        let both = Sigma(3.0).and(Sigma(4.0)).half_width();
        assert!((both.0 - Sigma(3.0).half_width().and(Sigma(4.0).half_width()).0).abs() < 1e-12);
        assert_eq!(Sigma::of_variance(0.09) * 2.0, Sigma(0.6));
    }
}
