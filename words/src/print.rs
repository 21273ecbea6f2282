//! One way to print a quantity: one minus sign (U+2212), never a negative zero, the unit always beside the number.

use crate::units::{AngleForm, DecimalSign, DistanceUnit, LoadUnit, PressureUnit, TreadUnit, Units};
use bold_stance_units::KM_PER_MILE;
use bold_stance_units::said::{Measure, Quantity};
use bold_stance_units::{KG_PER_LB, KPA_PER_PSI, LengthUnit, MM_PER_INCH, print_minutes};

/// Standard gravity, m/s² (3rd CGPM, 1901): a load in N as the mass that weighs it.
const GRAVITY: f64 = 9.806_65;

fn sign(negative: bool, signed: bool, zero: bool) -> &'static str {
    match (zero, negative, signed) {
        (true, ..) | (false, false, false) => "",
        (false, true, _) => "−",
        (false, false, true) => "+",
    }
}

/// A number with its sign; thousands parted by a space that never breaks.
fn number(u: &Units, v: f64, digits: u8, signed: bool) -> String {
    let body = format!("{:.*}", usize::from(digits), v.abs());
    let zero = body.chars().all(|c| c == '0' || c == '.');
    let (whole, part) = body.split_once('.').map_or((body.as_str(), ""), |(w, p)| (w, p));
    let mut out = String::new();
    for (i, c) in whole.chars().enumerate() {
        if i > 0 && whole.len() > 4 && (whole.len() - i).is_multiple_of(3) {
            out.push('\u{a0}');
        }
        out.push(c);
    }
    let point = match (part.is_empty(), u.decimal) {
        (true, _) => "",
        (false, DecimalSign::Point) => ".",
        (false, DecimalSign::Comma) => ",",
    };
    format!("{}{out}{point}{part}", sign(v < 0.0, signed, zero))
}

/// Inches in parts of `den`: `19 5/8`, `3/16`.
fn fraction(mm: f64, den: i64, signed: bool) -> String {
    let n = (mm.abs() / MM_PER_INCH * den as f64).round() as i64;
    let (whole, mut num, mut den) = (n / den, n % den, den);
    while num > 0 && num % 2 == 0 {
        num /= 2;
        den /= 2;
    }
    let sign = sign(mm < 0.0, signed, n == 0);
    match (whole, num) {
        (w, 0) => format!("{sign}{w}"),
        (0, n) => format!("{sign}{n}/{den}"),
        (w, n) => format!("{sign}{w} {n}/{den}"),
    }
}

/// Prints a quantity with its unit.
#[must_use]
pub fn print(q: &Quantity, u: &Units) -> String {
    let Quantity { of, value: v, digits, signed } = *q;
    if !v.is_finite() {
        return "—".into();
    }
    match of {
        Measure::Plain => number(u, v, digits, signed),
        Measure::Mm => match u.length {
            LengthUnit::Mm => format!("{} mm", number(u, v, digits, signed)),
            // What is told to a tenth of a millimetre is told to a thirty-second.
            LengthUnit::In => format!("{} in", fraction(v, if digits == 0 { 16 } else { 32 }, signed)),
        },
        Measure::SetMm => match u.length {
            LengthUnit::Mm => format!("{} mm", number(u, v, digits, signed)),
            LengthUnit::In => format!("{} in", number(u, v / MM_PER_INCH, 3, signed)),
        },
        Measure::TravelMm => match u.length {
            LengthUnit::Mm => format!("{} mm", number(u, v, digits, signed)),
            LengthUnit::In => format!("{} in", number(u, v / MM_PER_INCH, 2, signed)),
        },
        Measure::Deg => match u.angle {
            AngleForm::Decimal => format!("{}°", number(u, v, digits, signed)),
            AngleForm::Minutes => {
                let plus = if signed && (v * 60.0).round() > 0.0 { "+" } else { "" };
                format!("{plus}{}", print_minutes(v))
            }
        },
        Measure::N => match u.load {
            LoadUnit::Newton => format!("{} N", number(u, v, digits, signed)),
            LoadUnit::Kg => format!("{} kg", number(u, v / GRAVITY, digits, signed)),
            LoadUnit::Lb => format!("{} lb", number(u, v / GRAVITY / KG_PER_LB, digits, signed)),
        },
        Measure::Kg => match u.load {
            LoadUnit::Newton | LoadUnit::Kg => format!("{} kg", number(u, v, digits, signed)),
            LoadUnit::Lb => format!("{} lb", number(u, v / KG_PER_LB, digits, signed)),
        },
        Measure::Kpa => match u.pressure {
            PressureUnit::Kpa => format!("{} kPa", number(u, v, digits, signed)),
            PressureUnit::Bar => format!("{} bar", number(u, v / 100.0, digits + 2, signed)),
            PressureUnit::Psi => format!("{} psi", number(u, v / KPA_PER_PSI, digits, signed)),
        },
        Measure::Nm => match u.load {
            LoadUnit::Newton | LoadUnit::Kg => format!("{} N·m", number(u, v, digits, signed)),
            LoadUnit::Lb => {
                format!(
                    "{} lb·ft",
                    number(u, v / (GRAVITY * KG_PER_LB * MM_PER_INCH * 0.012), digits, signed)
                )
            }
        },
        Measure::M => match u.length {
            LengthUnit::Mm => format!("{} m", number(u, v, digits, signed)),
            LengthUnit::In => format!("{} ft", number(u, v * 1000.0 / MM_PER_INCH / 12.0, 0, signed)),
        },
        Measure::Km => match u.distance {
            DistanceUnit::Km => format!("{} km", number(u, v, digits, signed)),
            DistanceUnit::Miles => format!("{} miles", number(u, v / KM_PER_MILE, digits, signed)),
        },
        Measure::TreadMm => match u.tread {
            TreadUnit::Mm => format!("{} mm", number(u, v, digits, signed)),
            TreadUnit::In32 => format!("{}/32 in", number(u, v / MM_PER_INCH * 32.0, 0, signed)),
        },
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    fn q(of: Measure, value: f64, digits: u8, signed: bool) -> Quantity {
        Quantity { of, value, digits, signed }
    }

    #[test]
    fn quantities_read_as_a_shop_writes_them() {
        let (m, i) = (Units::default(), Units::inches());
        let minutes = Units { angle: AngleForm::Minutes, ..m };
        for (x, metric, inch) in [
            (q(Measure::Mm, 65.0, 0, true), "+65 mm", "+2 9/16 in"),
            (q(Measure::Mm, -12.7, 1, false), "−12.7 mm", "−1/2 in"),
            (q(Measure::Mm, 498.475, 0, false), "498 mm", "19 5/8 in"),
            (q(Measure::Mm, 1.6, 1, false), "1.6 mm", "1/16 in"),
            (q(Measure::Mm, -0.2, 0, true), "0 mm", "0 in"),
            (q(Measure::SetMm, 6.0, 1, false), "6.0 mm", "0.236 in"),
            (q(Measure::TravelMm, 50.0, 0, false), "50 mm", "1.97 in"),
            (q(Measure::Deg, -0.04, 1, true), "0.0°", "0.0°"),
            (q(Measure::Deg, 1.8, 1, false), "1.8°", "1.8°"),
            (q(Measure::N, 5200.0, 0, false), "5200 N", "1169 lb"),
            (q(Measure::Kg, 100.0, 0, false), "100 kg", "220 lb"),
            (q(Measure::Kpa, 240.0, 0, false), "240 kPa", "35 psi"),
            (q(Measure::Km, 38_600.0, 0, false), "38\u{a0}600 km", "23\u{a0}985 miles"),
            (q(Measure::TreadMm, 1.5875, 1, false), "1.6 mm", "2/32 in"),
            (q(Measure::Plain, -2.5, 1, true), "−2.5", "−2.5"),
            (q(Measure::Deg, f64::NAN, 1, true), "—", "—"),
        ] {
            assert_eq!((print(&x, &m).as_str(), print(&x, &i).as_str()), (metric, inch));
        }
        assert_eq!(print(&q(Measure::Deg, 1.8, 1, true), &minutes), "+1°48′");
        assert_eq!(print(&q(Measure::Deg, -0.001, 1, true), &minutes), "0°00′");
        assert_eq!(
            print(&q(Measure::Kpa, 240.0, 0, false), &Units { pressure: PressureUnit::Bar, ..m }),
            "2.40 bar"
        );
        assert_eq!(print(&q(Measure::N, 5200.0, 0, false), &Units { load: LoadUnit::Kg, ..m }), "530 kg");
        let comma = |u: Units| Units { decimal: DecimalSign::Comma, ..u };
        assert_eq!(print(&q(Measure::Deg, -1.25, 2, true), &comma(m)), "−1,25°");
        assert_eq!(print(&q(Measure::SetMm, 6.0, 1, false), &comma(i)), "0,236 in");
        assert_eq!(print(&q(Measure::Km, 38_600.0, 0, false), &comma(m)), "38\u{a0}600 km");
    }

    proptest! {
        #[test]
        fn no_unit_of_the_other_kind_is_left(v in -2000.0f64..2000.0, digits in 0u8..3, signed: bool) {
            let inch = print(&q(Measure::Mm, v, digits, signed), &Units::inches());
            prop_assert!(inch.ends_with(" in") && !inch.contains("mm") && !inch.contains('-'), "{}", inch);
            let mm = print(&q(Measure::Mm, v, digits, signed), &Units::default());
            prop_assert!(mm.ends_with(" mm") && !mm.contains('-') && !mm.starts_with("−0 "), "{}", mm);
            let m = print(&q(Measure::Deg, v / 100.0, digits, signed), &Units { angle: AngleForm::Minutes, ..Units::default() });
            prop_assert!(m.contains('′') && !m.contains('.'), "{}", m);
        }
    }
}
