//! What was typed at the gauge → a value with its standard deviation, and what looks odd about it.

use crate::problem::{Problem, in_range};
use crate::units::{LengthUnit, parse_angle_deg, parse_length_mm};
use serde::{Deserialize, Serialize};

/// Front quantities of a baseline.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Taken<'a> {
    /// Hub centre to arch lip.
    Height {
        /// As typed.
        value: &'a str,
    },
    /// Camber straight off a gauge.
    Camber {
        /// As typed.
        value: &'a str,
    },
    /// Caster straight off a gauge on the joint line.
    Caster {
        /// As typed.
        value: &'a str,
    },
    /// Caster from the cambers at two steer angles.
    CasterSweep {
        /// Camber with the wheel's nose swung outboard.
        out: &'a str,
        /// Camber with the wheel's nose swung inboard.
        inward: &'a str,
        /// Swing each way.
        steer: &'a str,
    },
    /// Toe of one wheel, an angle, or rear minus front over a diameter.
    Toe {
        /// As typed.
        value: &'a str,
        /// Where a length was measured across, mm.
        diameter_mm: f64,
    },
}

/// A converted reading.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Converted {
    /// mm for a height, degrees else.
    pub value: f64,
    /// Standard deviation in the same unit.
    pub sigma: f64,
    /// What it means, short.
    pub words: String,
    /// What looks odd, and what would settle it.
    pub suspicion: Option<String>,
}

/// σ of a hub-to-arch tape reading, mm (common practice, no source).
const HEIGHT_SIGMA: f64 = 1.0;
/// σ of a bubble or digital gauge, degrees (common practice, no source).
const GAUGE_SIGMA: f64 = 0.1;
/// σ of an angle gauge on the joint line, degrees (common practice, no source).
const JOINT_LINE_SIGMA: f64 = 0.3;
/// σ of a turning plate, degrees.
const PLATE_SIGMA: f64 = 0.5;
/// Model error of the sweep formula without a geometry, degrees.
const SWEEP_MODEL_SIGMA: f64 = 0.15;
/// σ of a toe difference by tape, mm a reading.
const TOE_TAPE_SIGMA: f64 = 0.8;

/// Converts a reading; bare numbers are degrees, or `unit` for lengths.
///
/// # Errors
/// A [`Problem`] at the entry's name: `value`, `camber_out`, `camber_in`, `steer`, `diameter`.
pub fn convert(taken: &Taken<'_>, unit: LengthUnit) -> Result<Converted, Problem> {
    match taken {
        Taken::Height { value } => height(value, unit),
        Taken::Camber { value } => {
            let v = small_angle("value", value, 12.0)?;
            let words = lean(v, "top leans out", "top leans in");
            let suspicion = (v.abs() > 4.0).then(|| {
                "More than 4° on a front wheel: was it typed in minutes, or is the gauge zeroed? One more reading settles it.".to_owned()
            });
            Ok(Converted { value: v, sigma: GAUGE_SIGMA, words, suspicion })
        }
        Taken::Caster { value } => {
            let v = small_angle("value", value, 15.0)?;
            Ok(Converted {
                value: v,
                sigma: JOINT_LINE_SIGMA,
                words: lean(v, "top leans back", "top leans forward"),
                suspicion: odd_caster(v),
            })
        }
        Taken::CasterSweep { out, inward, steer } => sweep(out, inward, steer),
        Taken::Toe { value, diameter_mm } => toe(value, *diameter_mm, unit),
    }
}

fn height(value: &str, unit: LengthUnit) -> Result<Converted, Problem> {
    let v = parse_length_mm("value", value, unit)?;
    if !(150.0..=1200.0).contains(&v) {
        let hint = if unit == LengthUnit::Mm && (6.0..=47.0).contains(&v) {
            "an inch reading typed as mm? write it with in, such as 19 5/8in"
        } else {
            "hub centre to arch lip, 150 to 1200 mm"
        };
        return Err(Problem::new("value", format!("{v:.1} mm is no hub-to-arch height"), hint));
    }
    Ok(Converted { value: v, sigma: HEIGHT_SIGMA, words: "hub centre to arch lip".into(), suspicion: None })
}

fn small_angle(field: &str, text: &str, limit: f64) -> Result<f64, Problem> {
    let v = parse_angle_deg(field, text)?;
    if v.abs() <= limit {
        return Ok(v);
    }
    let hint = if v.abs() <= 60.0 * limit {
        format!("from −{limit:.0}° to {limit:.0}°; minutes are written {:.0}'", v.abs())
    } else {
        format!("from −{limit:.0}° to {limit:.0}°")
    };
    Err(Problem::new(field, format!("{v}° is outside what a wheel can have"), hint))
}

fn lean(v: f64, positive: &str, negative: &str) -> String {
    if v.abs() < 0.05 {
        "upright".into()
    } else if v > 0.0 {
        positive.into()
    } else {
        negative.into()
    }
}

fn odd_caster(v: f64) -> Option<String> {
    (!(-1.0..=10.0).contains(&v))
        .then(|| "Unusual caster: was the sign flipped? A sweep settles it.".to_owned())
}

fn sweep(out: &str, inward: &str, steer: &str) -> Result<Converted, Problem> {
    let out = small_angle("camber_out", out, 25.0)?;
    let inward = small_angle("camber_in", inward, 25.0)?;
    let steer = parse_angle_deg("steer", steer)?;
    in_range("steer", steer, 5.0, 35.0, "°")?;
    let reach = 2.0 * steer.to_radians().sin();
    let v = (out - inward) / reach;
    if (out - inward).abs() < 1e-9 {
        return Err(Problem::new(
            "camber_in",
            "out and in are the same: was it turned?",
            "the camber with the wheel swung in",
        ));
    }
    // Two gauge readings, two plates, and what the formula leaves out.
    let gauge = GAUGE_SIGMA * std::f64::consts::SQRT_2 / reach;
    let plate = v * PLATE_SIGMA.to_radians() * steer.to_radians().cos() * std::f64::consts::SQRT_2 / reach;
    let sigma = (gauge * gauge + plate * plate + SWEEP_MODEL_SIGMA * SWEEP_MODEL_SIGMA).sqrt();
    in_range("camber_out", v, -15.0, 15.0, "° of caster")?;
    let words = format!("{:.2} × the camber difference", 1.0 / reach);
    Ok(Converted { value: v, sigma, words, suspicion: odd_caster(v) })
}

/// One wheel far off straight is more often a turned steering wheel than toe.
fn odd_toe(v: f64) -> Option<String> {
    (v.abs() > 1.5).then(|| {
        "More than 1.5° on one wheel: is the steering wheel straight? Read the other side.".to_owned()
    })
}

fn toe(value: &str, diameter_mm: f64, unit: LengthUnit) -> Result<Converted, Problem> {
    let words = |v: f64| lean(v, "toes in", "toes out");
    // A bare number or a degree sign is an angle; a length unit makes it rear minus front.
    if let Ok(v) = parse_angle_deg("value", value) {
        let v = if v.abs() <= 5.0 { v } else { small_angle("value", value, 5.0)? };
        return Ok(Converted {
            value: v,
            sigma: 0.05,
            words: words(v).replace("upright", "straight"),
            suspicion: odd_toe(v),
        });
    }
    let mm = parse_length_mm("value", value, unit)?;
    in_range("diameter", diameter_mm, 250.0, 1200.0, "mm")?;
    let s = mm / diameter_mm;
    if s.abs() > 0.09 {
        return Err(Problem::new(
            "value",
            format!("{mm:.1} mm over {diameter_mm:.0} mm is more than 5° of toe"),
            "rear minus front at the diameter given",
        ));
    }
    let v = s.asin().to_degrees();
    let sigma = (TOE_TAPE_SIGMA * std::f64::consts::SQRT_2 / diameter_mm).to_degrees();
    Ok(Converted { value: v, sigma, words: words(v).replace("upright", "straight"), suspicion: odd_toe(v) })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn mm(t: &Taken<'_>) -> Converted {
        convert(t, LengthUnit::Mm).unwrap()
    }

    #[test]
    fn a_twenty_degree_sweep_is_one_and_a_half_times_the_difference() {
        // Gauge arithmetic: exactly 1/(2 sin 20°) = 1.462.
        let c = mm(&Taken::CasterSweep { out: "1.796384", inward: "-0.930328", steer: "20" });
        assert!((c.value - 2.726712 * 1.4619022).abs() < 1e-5, "{}", c.value);
        assert!(c.sigma > 0.2 && c.sigma < 0.4);
    }

    #[test]
    fn toe_by_tape_needs_its_diameter() {
        // CP6, common practice: 3 mm over 17 in is 24′.
        let c = mm(&Taken::Toe { value: "3mm", diameter_mm: 431.8 });
        assert!((c.value * 60.0 - 24.0).abs() < 0.5);
        let c = mm(&Taken::Toe { value: "0°24'", diameter_mm: 0.0 });
        assert!((c.value - 0.4).abs() < 1e-12);
        assert_eq!(
            convert(&Taken::Toe { value: "3mm", diameter_mm: f64::NAN }, LengthUnit::Mm).unwrap_err().field,
            "diameter"
        );
    }

    #[test]
    fn units_that_are_probably_wrong_are_asked_about() {
        let p = convert(&Taken::Height { value: "19.6" }, LengthUnit::Mm).unwrap_err();
        assert!(p.right.contains("inch"), "{p}");
        assert!(
            (convert(&Taken::Height { value: "19 5/8" }, LengthUnit::In).unwrap().value - 498.475).abs()
                < 1e-9
        );
        let p = convert(&Taken::Camber { value: "24" }, LengthUnit::Mm).unwrap_err();
        assert!(p.right.contains("24'"), "{p}");
        assert!(mm(&Taken::Camber { value: "5" }).suspicion.is_some());
        assert!(mm(&Taken::Camber { value: "-0.4" }).suspicion.is_none());
    }

    #[test]
    fn an_unturned_wheel_is_noticed() {
        let p = convert(&Taken::CasterSweep { out: "0.5", inward: "0.5", steer: "20" }, LengthUnit::Mm)
            .unwrap_err();
        assert!(p.wrong.contains("was it turned"));
        for (t, field) in [
            (Taken::CasterSweep { out: "", inward: "1", steer: "20" }, "camber_out"),
            (Taken::CasterSweep { out: "1", inward: "nan", steer: "20" }, "camber_in"),
            (Taken::CasterSweep { out: "1", inward: "0", steer: "90" }, "steer"),
            (Taken::Camber { value: "12345678901" }, "value"),
        ] {
            assert_eq!(convert(&t, LengthUnit::Mm).unwrap_err().field, field);
        }
    }
}
