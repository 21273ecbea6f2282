//! Camber: gauge, plumb line, laser, level and gap, calliper, offset form, half-turn pair.

use super::entries::Given;
use super::raw::{Correction, CorrectionKind, Raw};
use super::wheel::circle;
use bold_stance_kinematics::geometry::Side;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// Standard deviation of a slope of the floor as somebody measured it, degrees: a millimetre or so of water level or straight
/// edge over the track (judgement, no source).
pub const FLOOR_SIGMA_DEG: f64 = 0.05;

/// What a floor falling to the left by `slope_deg` adds to a gauge on this side: the car leans left with it,
/// so left tops go out and right tops in.
#[must_use]
pub fn floor_lean(slope_deg: f64, side: Side) -> f64 {
    if side == Side::Left { slope_deg } else { -slope_deg }
}

/// The correction for a floor that falls to the left by `slope_deg`.
#[must_use]
pub fn floor_correction(slope_deg: f64, side: Side, zeroed: bool) -> Correction {
    let kind = CorrectionKind::FloorSlope;
    if zeroed {
        return Correction::left_out(kind, said("left-zeroed"), said("left-zeroed-why"));
    }
    let amount = -floor_lean(slope_deg, side);
    let word = if slope_deg >= 0.0 { "left" } else { "right" };
    Correction::applied(
        kind,
        amount,
        said("corrected-floor").deg("slope", slope_deg.abs(), 2),
        said("corrected-floor-why")
            .word("way", word)
            .word("side", side.word())
            .word("lean", if amount < 0.0 { "out" } else { "in" }),
    )
}

/// A gauge on the hub or a bar: the value less the floor slope seen along the axle, unless zeroed there.
pub fn gauge(g: &Given, side: Option<Side>) -> Result<Raw, Problem> {
    let angle = g.num("angle")?;
    let zeroed = g.word("zeroed-on-floor") == Some("true");
    let side = match g.word("side") {
        Some("left") => Some(Side::Left),
        Some(_) => Some(Side::Right),
        None => side,
    };
    let mut out = Raw::of(angle);
    match (g.opt("floor-slope"), side) {
        (Some(slope), Some(side)) => {
            let c = floor_correction(slope, side, zeroed);
            out.value += c.amount;
            out.notes.push(c.label.clone());
            out.corrections.push(c);
        }
        (Some(slope), None) if slope != 0.0 && !zeroed => {
            return Err(Problem::new("side", said("floor-needs-side"), said("floor-needs-side-right")));
        }
        _ if zeroed => out.notes.push(said("note-zeroed")),
        _ => out.notes.push(said("note-floor-unknown")),
    }
    Ok(out)
}

/// Distances from a vertical line to the upper and lower lip over a span:
/// camber = −atan((top − bottom)/span) from an outside line; from an inside line the sign turns.
pub fn offsets(g: &Given) -> Result<Raw, Problem> {
    let (top, bottom, span) = (g.num("top")?, g.num("bottom")?, g.num("span")?);
    let sign = if g.word("reference") == Some("inside") { 1.0 } else { -1.0 };
    Ok(Raw::of(sign * lean("top", top - bottom, span)?))
}

/// A level touching low down and the gap at the top: the same with the bulge as the lower distance.
pub fn gap(g: &Given) -> Result<Raw, Problem> {
    let (top, span) = (g.num("top-gap")?, g.num("span")?);
    let plain = -lean("top-gap", top, span)?;
    let Some(bulge) = g.opt("bulge").filter(|b| *b != 0.0) else {
        return Ok(Raw::of(plain).noting(said("note-no-bulge")));
    };
    let mut out = Raw::of(-lean("top-gap", top - bulge, span)?);
    out.corrections.push(Correction::applied(
        CorrectionKind::Bulge,
        out.value - plain,
        said("corrected-bulge").fine_mm("bulge", bulge),
        said("corrected-bulge-why"),
    ));
    Ok(out)
}

/// A length across a circle of known diameter, as a calliper chart or an offset form has it: asin(length/D).
pub fn over_circle(g: &Given, name: &str, sign: f64) -> Result<Raw, Problem> {
    let (d, corrections, notes) = circle(g)?;
    let v = g.num(name)?;
    let s = v / d;
    if s.abs() > 0.35 {
        return Err(Problem::new(
            name,
            said("too-much-camber").fine_mm("off", v).mm("over", d).deg("most", 20.0, 0),
            said("too-much-camber-right"),
        ));
    }
    let mut out = Raw::of(sign * s.asin().to_degrees()).with("diameter_mm", said("also-across"), d);
    out.corrections = corrections
        .into_iter()
        .map(|(nominal, mut c)| {
            c.amount = out.value - sign * (v / nominal).asin().to_degrees();
            c
        })
        .collect();
    out.notes = notes;
    Ok(out)
}

/// Two readings half a turn apart: the mean is the wheel's camber, half the difference the rim's run-out.
pub fn runout(g: &Given) -> Result<Raw, Problem> {
    let (a, b) = (g.num("first")?, g.num("second")?);
    Ok(Raw::of(f64::midpoint(a, b)).with("run_out_deg", said("also-half-is-rims"), (a - b).abs() / 2.0))
}

/// A level or protractor that counts from horizontal: 87.6 is a wheel 2.4° off upright, and does not say which way.
pub fn level(g: &Given) -> Result<Raw, Problem> {
    let off = (90.0 - g.num("angle")?).abs();
    let sign = match g.word("leans") {
        Some("top in") => -1.0,
        Some("top out") => 1.0,
        // Upright leans neither way.
        _ if off < 0.05 => 1.0,
        _ => {
            let wrong = said("level-leans").deg("by", off, 1);
            return Err(Problem::new("leans", wrong, said("level-leans-right")));
        }
    };
    Ok(Raw::of(sign * off))
}

fn lean(field: &str, difference: f64, span: f64) -> Result<f64, Problem> {
    if span <= 0.0 {
        return Err(Problem::new("span", said("just-mm").fine_mm("value", span), said("span-right")));
    }
    let v = (difference / span).atan().to_degrees();
    if v.abs() > 20.0 {
        return Err(Problem::new(
            field,
            said("too-much-lean").fine_mm("off", difference).mm("over", span).deg("lean", v.abs(), 0),
            said("too-much-lean-right").deg("most", 20.0, 0),
        ));
    }
    Ok(v)
}
