//! The units somebody works in.

use bold_stance_units::LengthUnit;
pub use bold_stance_units::{DistanceUnit, TreadUnit};

/// How an angle is written.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Default)]
pub enum AngleForm {
    /// `1.8°`.
    #[default]
    Decimal,
    /// `1°48′`.
    Minutes,
}

/// What a pressure is told in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Default)]
pub enum PressureUnit {
    /// Kilopascals.
    #[default]
    Kpa,
    /// Bar.
    Bar,
    /// Pounds a square inch.
    Psi,
}

/// What a load or a mass is told in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Default)]
pub enum LoadUnit {
    /// Newtons, and kilograms of mass.
    #[default]
    Newton,
    /// Kilograms, of load as well.
    Kg,
    /// Pounds.
    Lb,
}

/// What parts a whole number from its decimals.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Default)]
pub enum DecimalSign {
    /// `1.5`.
    #[default]
    Point,
    /// `1,5`.
    Comma,
}

/// Every unit somebody works in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Units {
    /// Lengths: whole inches with sixteenths, or mm.
    pub length: LengthUnit,
    /// Angles.
    pub angle: AngleForm,
    /// Pressures.
    pub pressure: PressureUnit,
    /// Loads and masses.
    pub load: LoadUnit,
    /// Distances driven.
    pub distance: DistanceUnit,
    /// Depths of tread.
    pub tread: TreadUnit,
    /// Numbers.
    pub decimal: DecimalSign,
}

impl Default for Units {
    fn default() -> Self {
        Self {
            length: LengthUnit::Mm,
            angle: AngleForm::Decimal,
            pressure: PressureUnit::Kpa,
            load: LoadUnit::Newton,
            distance: DistanceUnit::Km,
            tread: TreadUnit::Mm,
            decimal: DecimalSign::Point,
        }
    }
}

impl Units {
    /// Inches, decimal degrees, pounds, miles and thirty-seconds.
    #[must_use]
    pub fn inches() -> Self {
        Self {
            length: LengthUnit::In,
            angle: AngleForm::Decimal,
            pressure: PressureUnit::Psi,
            load: LoadUnit::Lb,
            distance: DistanceUnit::Miles,
            tread: TreadUnit::In32,
            decimal: DecimalSign::Point,
        }
    }

    /// Every combination that changes how a sentence reads; the sign between decimals changes no more than itself.
    #[must_use]
    pub fn all() -> Vec<Self> {
        let mut out = Vec::new();
        for length in [LengthUnit::Mm, LengthUnit::In] {
            for angle in [AngleForm::Decimal, AngleForm::Minutes] {
                for pressure in [PressureUnit::Kpa, PressureUnit::Bar, PressureUnit::Psi] {
                    for load in [LoadUnit::Newton, LoadUnit::Kg, LoadUnit::Lb] {
                        for (distance, tread) in
                            [(DistanceUnit::Km, TreadUnit::Mm), (DistanceUnit::Miles, TreadUnit::In32)]
                        {
                            let decimal = DecimalSign::Point;
                            out.push(Self { length, angle, pressure, load, distance, tread, decimal });
                        }
                    }
                }
            }
        }
        out
    }

    /// Reads `length=in; angle=minutes; pressure=psi; load=lb; distance=miles; tread=in32; decimal=comma`; what is not told
    /// or not known stays metric, with a point.
    #[must_use]
    pub fn parse(text: &str) -> Self {
        let mut out = Self::default();
        for pair in text.split(';') {
            let Some((k, v)) = pair.split_once('=') else { continue };
            match (k.trim(), v.trim()) {
                ("length", "in") => out.length = LengthUnit::In,
                ("angle", "minutes") => out.angle = AngleForm::Minutes,
                ("pressure", "psi") => out.pressure = PressureUnit::Psi,
                ("pressure", "bar") => out.pressure = PressureUnit::Bar,
                ("load", "lb") => out.load = LoadUnit::Lb,
                ("load", "kg") => out.load = LoadUnit::Kg,
                ("distance", "miles") => out.distance = DistanceUnit::Miles,
                ("tread", "in32") => out.tread = TreadUnit::In32,
                ("decimal", "comma") => out.decimal = DecimalSign::Comma,
                _ => {}
            }
        }
        out
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn told_units_are_read_and_the_rest_stays_metric() {
        let all = "length=in; angle=minutes; pressure=psi; load=lb; distance=miles; tread=in32";
        assert_eq!(Units::parse(all), Units { angle: AngleForm::Minutes, ..Units::inches() });
        for odd in ["", "length=furlong", "in", ";;=", "length", "angle = decimal"] {
            assert_eq!(Units::parse(odd), Units::default(), "{odd}");
        }
        assert_eq!(Units::parse(" angle = minutes ").angle, AngleForm::Minutes);
        assert_eq!(Units::parse("decimal=comma").decimal, DecimalSign::Comma);
        assert_eq!(Units::all().len(), 72);
    }
}
