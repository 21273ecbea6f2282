//! Toe: tapes, bars, plates, rim gauge, strings, and between degrees and lengths.

use super::convert::{Correction, CorrectionKind, Raw};
use super::entries::Given;
use crate::problem::Problem;
use crate::units::print_degrees;

/// asin of a length over a circle, in degrees, refused past 10°.
fn over(field: &str, length: f64, diameter: f64) -> Result<f64, Problem> {
    if diameter <= 0.0 {
        return Err(Problem::new(
            "diameter",
            format!("{diameter} mm"),
            "the circle measured across, above 0",
        ));
    }
    let s = length / diameter;
    if s.abs() > 0.174 {
        return Err(Problem::new(
            field,
            format!("{length:.1} mm over {diameter:.0} mm is more than 10° of toe"),
            "rear minus front across the circle given: check the units",
        ));
    }
    Ok(s.asin().to_degrees())
}

/// The chord at the height of the tape: 2·√(r² − h²), h below or above the axle.
fn chord(g: &Given, d: f64) -> Result<f64, Problem> {
    let (Some(height), Some(axle)) = (g.opt("height"), g.opt("axle-height")) else { return Ok(d) };
    let (r, h) = (d / 2.0, axle - height);
    if h.abs() >= 0.98 * r {
        return Err(Problem::new(
            "height",
            format!("{:.0} mm from the axle is off a circle of {d:.0} mm", h.abs()),
            format!("within {:.0} mm of the axle's height", 0.98 * r),
        ));
    }
    Ok(2.0 * (r * r - h * h).sqrt())
}

/// Rear minus front between both wheels: total = asin((rear − front)/chord).
pub fn distance(g: &Given) -> Result<Raw, Problem> {
    let (front, rear, d) = (g.num("front")?, g.num("rear")?, g.num("diameter")?);
    if let (Some(_), None) = (g.opt("height"), g.opt("axle-height")) {
        return Err(Problem::new(
            "axle-height",
            "nothing was entered",
            "hub centre above the floor, beside height",
        ));
    }
    let c = chord(g, d)?;
    let total = over("rear", rear - front, c)?;
    let mut out = Raw::of(total)
        .with("per_wheel_deg", "each wheel, shared evenly", total / 2.0)
        .with("difference_mm", "rear minus front", rear - front)
        .with("diameter_mm", "across", c);
    if c != d {
        out.corrections.push(Correction::applied(
            CorrectionKind::BelowAxle,
            total - over("rear", rear - front, d)?,
            format!("Chord {c:.0} mm, not {d:.0}"),
            "Away from the axle's height the tape spans a shorter chord of the wheel.".into(),
        ));
    }
    Ok(out)
}

/// The change a rim gauge shows from the rear lips to the front lips.
pub fn rim_gauge(g: &Given) -> Result<Raw, Problem> {
    let (v, d) = (g.num("difference")?, g.num("diameter")?);
    let total = over("difference", v, d)?;
    Ok(Raw::of(total).with("per_wheel_deg", "each wheel, shared evenly", total / 2.0))
}

/// Gaps from a string to the front and rear lip of one wheel. With the string inboard of the lips toe is
/// asin((rear − front)/D); with the string outside the car the sign turns. A string strung from the rear
/// wheels runs off the centre line by atan((rear track − front track)/2/wheelbase).
pub fn string(g: &Given) -> Result<Raw, Problem> {
    let (front, rear, d) = (g.num("front-gap")?, g.num("rear-gap")?, g.num("diameter")?);
    let outside = g.word("reference") == Some("outside");
    let v = over("rear-gap", if outside { front - rear } else { rear - front }, d)?;
    let mut out = Raw::of(v);
    out.notes.push(if outside {
        "string outside the lips: front gap larger is toe-in".into()
    } else {
        "counted rear minus front, as with the string inboard of the lips; reference=outside turns the sign"
            .into()
    });
    if g.word("strung") == Some("rear-wheels") {
        let want = |name: &str| {
            g.num(name).map_err(|p| Problem { right: "needed when strung from the rear wheels".into(), ..p })
        };
        let (tf, tr, wb) = (want("track-front")?, want("track-rear")?, want("wheelbase")?);
        let yaw = ((tr - tf) / 2.0 / wb).atan().to_degrees();
        out.value += yaw;
        out.notes.push(format!("string runs {} off the centre line", print_degrees(yaw.abs(), 2)));
        out.corrections.push(Correction::applied(
            CorrectionKind::StringTracks,
            yaw,
            format!("String {} off straight", print_degrees(yaw.abs(), 2)),
            format!("Rear track {tr:.0} mm, front track {tf:.0} mm: half the difference over the wheelbase."),
        ));
    }
    Ok(out)
}

/// Between an angle and a length over a circle.
pub fn convert(g: &Given) -> Result<Raw, Problem> {
    let d = g.opt("diameter");
    if let Some(mm) = g.opt("value-mm") {
        let d = d.ok_or_else(|| {
            Problem::new("diameter", "nothing was entered", "the circle the length was measured across")
        })?;
        let v = over("value", mm, d)?;
        return Ok(Raw::of(v).with("value_mm", "over the circle", mm).with("diameter_mm", "across", d));
    }
    let v = g.num("value")?;
    let out = Raw::of(v);
    Ok(match d {
        Some(d) => {
            out.with("value_mm", "over the circle", d * v.to_radians().sin()).with("diameter_mm", "across", d)
        }
        None => out,
    })
}
