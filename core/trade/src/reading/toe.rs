//! Toe: tapes, bars, plates, rim gauge, strings, and between degrees and lengths.

use super::entries::Given;
use super::raw::{Correction, CorrectionKind, Raw};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// asin of a length over a circle, in degrees, refused past 10°.
fn over(field: &str, length: f64, diameter: f64) -> Result<f64, Problem> {
    if diameter <= 0.0 {
        return Err(Problem::new(
            "diameter",
            said("just-mm").fine_mm("value", diameter),
            said("circle-right"),
        ));
    }
    let s = length / diameter;
    if s.abs() > 0.174 {
        return Err(Problem::new(
            field,
            said("too-much-toe").fine_mm("off", length).mm("over", diameter).deg("most", 10.0, 0),
            said("too-much-toe-right"),
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
            said("off-the-circle").mm("from", h.abs()).mm("circle", d),
            said("off-the-circle-right").mm("within", 0.98 * r),
        ));
    }
    Ok(2.0 * (r * r - h * h).sqrt())
}

/// Rear minus front between both wheels: total = asin((rear − front)/chord).
pub fn distance(g: &Given) -> Result<Raw, Problem> {
    let (front, rear, d) = (g.num("front")?, g.num("rear")?, g.num("diameter")?);
    if let (Some(_), None) = (g.opt("height"), g.opt("axle-height")) {
        return Err(Problem::new("axle-height", said("nothing-entered"), said("axle-height-right")));
    }
    let c = chord(g, d)?;
    let total = over("rear", rear - front, c)?;
    let mut out = Raw::of(total)
        .with("per_wheel_deg", said("also-each-wheel"), total / 2.0)
        .with("difference_mm", said("also-rear-less-front"), rear - front)
        .with("diameter_mm", said("also-across"), c);
    if c != d {
        out.corrections.push(Correction::applied(
            CorrectionKind::BelowAxle,
            total - over("rear", rear - front, d)?,
            said("corrected-chord").mm("chord", c).mm("circle", d),
            said("corrected-chord-why"),
        ));
    }
    Ok(out)
}

/// The change a rim gauge shows from the rear lips to the front lips.
pub fn rim_gauge(g: &Given) -> Result<Raw, Problem> {
    let (v, d) = (g.num("difference")?, g.num("diameter")?);
    let total = over("difference", v, d)?;
    Ok(Raw::of(total).with("per_wheel_deg", said("also-each-wheel"), total / 2.0))
}

/// Gaps from a string to the front and rear lip of one wheel. With the string inboard of the lips toe is
/// asin((rear − front)/D); with the string outside the car the sign turns. A string strung from the rear
/// wheels runs off the centre line by atan((rear track − front track)/2/wheelbase).
pub fn string(g: &Given) -> Result<Raw, Problem> {
    let (front, rear, d) = (g.num("front-gap")?, g.num("rear-gap")?, g.num("diameter")?);
    let outside = g.word("reference") == Some("outside");
    let v = over("rear-gap", if outside { front - rear } else { rear - front }, d)?;
    let mut out = Raw::of(v);
    out.notes.push(if outside { said("note-string-outside") } else { said("note-string-inboard") });
    if g.word("strung") == Some("rear-wheels") {
        let want = |name: &str| g.num(name).map_err(|p| Problem { right: said("strung-needs"), ..p });
        let (tf, tr, wb) = (want("track-front")?, want("track-rear")?, want("wheelbase")?);
        let yaw = ((tr - tf) / 2.0 / wb).atan().to_degrees();
        out.value += yaw;
        out.notes.push(said("note-string-runs").deg("yaw", yaw.abs(), 2));
        out.corrections.push(Correction::applied(
            CorrectionKind::StringTracks,
            yaw,
            said("corrected-string").deg("yaw", yaw.abs(), 2),
            said("corrected-string-why").mm("rear", tr).mm("front", tf),
        ));
    }
    Ok(out)
}

/// Between an angle and a length over a circle.
pub fn convert(g: &Given) -> Result<Raw, Problem> {
    let d = g.opt("diameter");
    if let Some(mm) = g.opt("value-mm") {
        let d =
            d.ok_or_else(|| Problem::new("diameter", said("nothing-entered"), said("circle-across-right")))?;
        let v = over("value", mm, d)?;
        return Ok(Raw::of(v).with("value_mm", said("also-over-circle"), mm).with(
            "diameter_mm",
            said("also-across"),
            d,
        ));
    }
    let v = g.num("value")?;
    let out = Raw::of(v);
    Ok(match d {
        Some(d) => out.with("value_mm", said("also-over-circle"), d * v.to_radians().sin()).with(
            "diameter_mm",
            said("also-across"),
            d,
        ),
        None => out,
    })
}
