//! Rims, treads: the circle that is touched, run-out, groove depths.

use super::convert::{Correction, CorrectionKind, Raw};
use super::entries::Given;
use crate::problem::Problem;
use crate::units::MM_PER_INCH;

/// Height of a passenger rim's flange over the bead seat, mm: J contour, 17.3 mm (ETRTO Standards Manual,
/// rims; from memory). The lip is touched on both sides of the circle.
pub const FLANGE_MM: f64 = 17.3;

/// The circle a lip makes on a rim of nominal size: the published flange height twice, or the shop's inch.
#[must_use]
pub fn lip_circle_mm(nominal_in: f64, shop_rule: bool) -> f64 {
    nominal_in * MM_PER_INCH + if shop_rule { MM_PER_INCH } else { 2.0 * FLANGE_MM }
}

/// The diameter to use: as measured, else from the stamped size, with the correction that makes.
type Circle = (f64, Option<(f64, Correction)>, Vec<String>);

/// The circle of a method with `diameter` or `nominal`.
pub(super) fn circle(g: &Given) -> Result<Circle, Problem> {
    if let Some(d) = g.opt("diameter") {
        return Ok((d, None, Vec::new()));
    }
    let nominal = g.num("nominal").map_err(|_| {
        Problem::new(
            "diameter",
            "neither a measured circle nor a rim size",
            "lip to lip, or the stamped rim size",
        )
    })?;
    let d = lip_circle_mm(nominal, false);
    let seat = nominal * MM_PER_INCH;
    let c = Correction::applied(
        CorrectionKind::RimLip,
        0.0,
        format!("Rim lip {d:.0} mm, not {seat:.0}"),
        format!(
            "A stamped {nominal} in is the bead seat. The lip you touch stands {FLANGE_MM} mm over it on both sides."
        ),
    );
    Ok((
        d,
        Some((seat, c)),
        vec![format!("measured lip to lip would be better than {d:.0} mm from the size")],
    ))
}

/// The circle as a reading of its own.
pub fn rim_circle(g: &Given) -> Result<Raw, Problem> {
    let nominal = g.num("nominal")?;
    let shop = g.word("rule") == Some("shop");
    let mut out = Raw::of(lip_circle_mm(nominal, shop));
    out.model_sigma = if shop { 5.0 } else { 1.5 };
    out.model_words = "rule";
    let rule = if shop { "shop rule: one inch larger" } else { "flange height 17.3 mm twice" };
    Ok(out.noting(format!("{rule}; a measured circle is better")))
}

/// Highest minus lowest of a dial over one turn.
pub fn rim_runout(g: &Given) -> Result<Raw, Problem> {
    let (high, low) = (g.num("high")?, g.num("low")?);
    if high < low {
        return Err(Problem::new(
            "high",
            format!("{high} is below the lowest, {low}"),
            "the larger of the two",
        ));
    }
    Ok(Raw::of(high - low))
}

/// Three grooves; the value is the shallowest.
pub fn tread(g: &Given) -> Result<Raw, Problem> {
    let (i, c, o) = (g.num("inner")?, g.num("centre")?, g.num("outer")?);
    let mut out = Raw::of(i.min(c).min(o))
        .with("inner_mm", "inner", i)
        .with("centre_mm", "centre", c)
        .with("outer_mm", "outer", o);
    if let Some(f) = g.word("feather") {
        out.notes.push(f.to_owned());
    }
    Ok(out)
}
