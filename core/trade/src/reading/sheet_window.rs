//! A window as a maker's sheet has it: `7/16 ± 1/4 in over 17 in`, `1/16 to 1/8 in`, `2 ± 1 mm`, `0°30' ± 45'`, `3.2 to 4.7`.

use super::convert::value;
use super::entries::Given;
use super::method::Method;
use super::quantity::Quantity;
use super::raw::Known;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use bold_stance_units::{LengthUnit, MM_PER_INCH, parse_angle_deg, parse_length_mm};
use serde::{Deserialize, Serialize};

/// A window to read.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SheetWindow {
    /// Camber, caster or total toe.
    pub quantity: Quantity,
    /// As the sheet has it.
    #[cfg_attr(feature = "openapi", schema(max_length = 60))]
    pub text: String,
    /// Circle toe is told over where the text names none, mm: the tyre's.
    #[cfg_attr(feature = "openapi", schema(minimum = 300.0, maximum = 1300.0))]
    pub tyre_diameter_mm: f64,
}

fn no(id: &'static str, right: &'static str) -> Problem {
    Problem::new("text", said(id), said(right))
}

/// The unit a text ends in.
fn unit_of(text: &str) -> Option<&'static str> {
    ["mm", "cm", "in", "\"", "°", "deg", "min", "'"].into_iter().find(|u| text.trim_end().ends_with(u))
}

/// One end or half of a window, as `mm` of length or degrees.
enum End {
    Deg(f64),
    Mm(f64),
}

fn end(text: &str) -> Result<End, Problem> {
    match unit_of(text) {
        Some("mm" | "cm" | "in" | "\"") => parse_length_mm("text", text, LengthUnit::Mm).map(End::Mm),
        _ => parse_angle_deg("text", text).map(End::Deg),
    }
}

/// Low and high end, degrees.
///
/// # Errors
/// A [`Problem`] at `text` that says what a window looks like, or which circle an offset is told over.
pub fn sheet_window(w: &SheetWindow) -> Result<[f64; 2], Problem> {
    if w.text.chars().count() > 60 {
        return Err(no("fault-no-window", "fault-window-like"));
    }
    in_range("tyre_diameter_mm", w.tyre_diameter_mm, 300.0, 1300.0, "mm")?;
    let text = w.text.trim().to_lowercase().replace("+/-", "±").replace("+-", "±").replace('–', " to ");
    let (body, circle) = match [" over ", " across ", " on "].iter().find_map(|s| text.rsplit_once(s)) {
        Some((b, c)) => (b.trim(), Some(c.trim())),
        None => (text.as_str(), None),
    };
    let about = body.split_once('±');
    let Some((a, b)) = about.or_else(|| body.split_once(" to ")) else {
        return Err(no("fault-no-window", "fault-window-like"));
    };
    // A unit told once holds for both.
    let (a, b) = (a.trim(), b.trim());
    let with = |t: &str, other: &str| match (unit_of(t), unit_of(other)) {
        (None, Some(u)) => format!("{t}{}{u}", if u.len() == 2 && u != "°" { " " } else { "" }),
        _ => t.to_owned(),
    };
    let ends = (end(&with(a, b))?, end(&with(b, a))?);
    let pair =
        |x: f64, y: f64| if about.is_some() { [x - y.abs(), x + y.abs()] } else { [x.min(y), x.max(y)] };
    match ends {
        (End::Deg(x), End::Deg(y)) if circle.is_none() => Ok(pair(x, y)),
        (End::Deg(_), End::Deg(_)) => Err(no("fault-angle-over-circle", "fault-window-like")),
        (End::Mm(x), End::Mm(y)) => {
            let [low, high] = pair(x, y);
            let of = |mm: f64| offset_deg(w, mm, circle);
            Ok([of(low)?, of(high)?])
        }
        _ => Err(no("fault-angles-lengths-mixed", "fault-window-like")),
    }
}

/// A length over a circle as the readings convert it, degrees.
fn offset_deg(w: &SheetWindow, mm: f64, circle: Option<&str>) -> Result<f64, Problem> {
    let mut g = Given::default();
    let across = circle.map(|c| parse_length_mm("text", c, LengthUnit::In)).transpose()?;
    let method = match w.quantity {
        Quantity::Camber => {
            g.put("offset", mm, 0.0);
            let d = across.ok_or_else(|| no("fault-offset-no-circle", "fault-offset-circle"))?;
            let inches = d / MM_PER_INCH;
            // A whole number of inches is what is stamped on the rim; the lip is larger.
            if (8.0..=30.0).contains(&inches) && (inches - inches.round()).abs() < 1e-6 {
                g.put("nominal", inches, 0.0);
            } else {
                g.put("diameter", d, 0.0);
            }
            Method::CamberForm
        }
        Quantity::TotalToe => {
            g.put("difference", mm, 0.0);
            g.put("diameter", across.unwrap_or(w.tyre_diameter_mm), 0.0);
            Method::ToeRimGauge
        }
        _ => return Err(no("fault-caster-length", "fault-caster-angle")),
    };
    value(method, &g, &Known::default()).map(|r| r.value).map_err(|p| Problem { field: "text".into(), ..p })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn read(quantity: Quantity, text: &str) -> Result<[f64; 2], Problem> {
        sheet_window(&SheetWindow { quantity, text: text.into(), tyre_diameter_mm: 700.0 })
    }

    fn near(got: [f64; 2], want: [f64; 2]) {
        assert!((got[0] - want[0]).abs() < 1e-9 && (got[1] - want[1]).abs() < 1e-9, "{got:?} {want:?}");
    }

    #[test]
    fn angles_are_read_in_every_notation() {
        near(read(Quantity::Caster, "3.2 to 4.7").unwrap(), [3.2, 4.7]);
        near(read(Quantity::Caster, "4.7 to 3.2").unwrap(), [3.2, 4.7]);
        near(read(Quantity::Camber, "-0°30' ± 45'").unwrap(), [-1.25, 0.25]);
        near(read(Quantity::Camber, "-0.5 +/- 0.75").unwrap(), [-1.25, 0.25]);
        near(read(Quantity::TotalToe, "0.1 ± 0.05°").unwrap(), [0.05, 0.15]);
    }

    /// asin(length / circle), by hand: 1 mm over 700 mm is 0.081 85°.
    #[test]
    fn lengths_are_told_over_a_circle() {
        let per_mm = (1.0f64 / 700.0).asin().to_degrees();
        near(read(Quantity::TotalToe, "2 ± 1 mm").unwrap(), [per_mm, (3.0f64 / 700.0).asin().to_degrees()]);
        let at = |inches: f64, d: f64| (inches / d).asin().to_degrees();
        near(
            read(Quantity::TotalToe, "1/16 to 1/8 in over 28 in").unwrap(),
            [at(0.0625, 28.0), at(0.125, 28.0)],
        );
        // 7/16 ± 1/4 in over a stamped 17 in: the lip is what is touched, as the readings have it (`wheel::lip_circle_mm`).
        let lip = super::super::wheel::lip_circle_mm(17.0, false) / MM_PER_INCH;
        assert!((17.9..18.5).contains(&lip), "{lip}");
        near(read(Quantity::Camber, "7/16 ± 1/4 in over 17 in").unwrap(), [at(0.1875, lip), at(0.6875, lip)]);
        // A circle that is no stamped size is the circle itself.
        near(
            read(Quantity::Camber, "-2 to 2 mm over 432 mm").unwrap(),
            [-(2.0f64 / 432.0).asin().to_degrees(), (2.0f64 / 432.0).asin().to_degrees()],
        );
    }

    #[test]
    fn what_is_no_window_says_what_one_looks_like() {
        for bad in ["", "3", "a to b", "1 mm to 2°", "0.1 to 0.2 over 17 in", "1 in ± 2 mm over x"] {
            assert!(read(Quantity::Camber, bad).is_err(), "{bad}");
        }
        assert!(read(Quantity::Camber, "1 ± 1 mm").unwrap_err().wrong.id == "fault-offset-no-circle");
        assert!(read(Quantity::Caster, "1 ± 1 mm").is_err());
        assert!(read(Quantity::Camber, &"1".repeat(80)).is_err());
    }
}
