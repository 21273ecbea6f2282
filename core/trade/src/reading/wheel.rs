//! Rims, treads: the circle that is touched, run-out, groove depths.

use super::entries::Given;
use super::raw::{Correction, CorrectionKind, Raw};
use bold_stance_units::MM_PER_INCH;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};

/// Height of a passenger rim's flange over the bead seat, mm: J contour, 17.3 mm (ETRTO Standards Manual,
/// rims; from memory). The lip is touched on both sides of the circle.
pub const FLANGE_MM: f64 = 17.3;

/// The circle a lip makes on a rim of nominal size: the published flange height twice, or the shop's inch.
#[must_use]
pub fn lip_circle_mm(nominal_in: f64, shop_rule: bool) -> f64 {
    nominal_in * MM_PER_INCH + if shop_rule { MM_PER_INCH } else { 2.0 * FLANGE_MM }
}

/// A stamped rim size: inches in every shop, so that no unit stands beside it.
pub(super) fn stamped(size_in: f64) -> Said {
    said("stamped").plain("size", size_in, u8::from(size_in.fract() != 0.0))
}

/// The diameter to use: as measured, else from the stamped size, with the correction that makes.
type Circle = (f64, Option<(f64, Correction)>, Vec<Said>);

/// The circle of a method with `diameter` or `nominal`.
pub(super) fn circle(g: &Given) -> Result<Circle, Problem> {
    if let Some(d) = g.opt("diameter") {
        return Ok((d, None, Vec::new()));
    }
    let nominal =
        g.num("nominal").map_err(|_| Problem::new("diameter", said("no-circle"), said("no-circle-right")))?;
    let d = lip_circle_mm(nominal, false);
    let seat = nominal * MM_PER_INCH;
    let c = Correction::applied(
        CorrectionKind::RimLip,
        0.0,
        said("corrected-lip").mm("lip", d).mm("seat", seat),
        said("corrected-lip-why").say("stamped", stamped(nominal)).fine_mm("flange", FLANGE_MM),
    );
    Ok((d, Some((seat, c)), vec![said("note-lip-better").mm("circle", d)]))
}

/// The circle as a reading of its own.
pub fn rim_circle(g: &Given) -> Result<Raw, Problem> {
    let nominal = g.num("nominal")?;
    let shop = g.word("rule") == Some("shop");
    let mut out = Raw::of(lip_circle_mm(nominal, shop));
    out.model_sigma = if shop { 5.0 } else { 1.5 };
    out.model_words = Some(said("doubt-rule"));
    let rule = if shop { said("rule-shop") } else { said("rule-flange").fine_mm("flange", FLANGE_MM) };
    Ok(out.noting(said("note-rule").say("rule", rule)))
}

/// Highest minus lowest of a dial over one turn.
pub fn rim_runout(g: &Given) -> Result<Raw, Problem> {
    let (high, low) = (g.num("high")?, g.num("low")?);
    if high < low {
        return Err(Problem::new(
            "high",
            said("below-lowest").plain("high", high, 2).plain("low", low, 2),
            said("below-lowest-right"),
        ));
    }
    Ok(Raw::of(high - low))
}

/// Three grooves; the value is the shallowest.
pub fn tread(g: &Given) -> Result<Raw, Problem> {
    let (i, c, o) = (g.num("inner")?, g.num("centre")?, g.num("outer")?);
    let mut out = Raw::of(i.min(c).min(o))
        .with("inner_mm", said("also-inner"), i)
        .with("centre_mm", said("also-centre"), c)
        .with("outer_mm", said("also-outer"), o);
    if let Some(f) = g.word("feather") {
        out.notes.push(Said::text(f));
    }
    Ok(out)
}
