//! Camber: what hangs on gravity sees the floor, what touches the rim sees the rim.

use super::{Bench, Blind};
use crate::hand::Face;
use bold_stance_trade::reading::Method;

/// A gauge on the machined hub face, or on a bar over the rim's lips.
pub fn gauge(b: &mut Bench<'_>) -> Result<(), Blind> {
    let on_rim = (b.look.method.id == Method::CamberBar).then_some(b.look.rolled_deg);
    let level = {
        let (w, _) = b.wheel()?;
        w.by_gravity(0.0, &nalgebra::Vector3::z(), on_rim)
    };
    let (w, up) = b.wheel()?;
    let seen = if b.tools.zeroed_on_floor { level } else { w.by_gravity(0.0, &up, on_rim) };
    b.reads("angle", seen + b.tools.zero_off_deg, Face::Digits);
    if b.tools.zeroed_on_floor {
        b.says("zeroed-on-floor", "true");
    }
    Ok(())
}

/// Camber of the rim's lips against a plumb line.
fn hangs(b: &Bench<'_>) -> Result<f64, Blind> {
    let (w, up) = b.wheel()?;
    Ok(w.by_gravity(0.0, &up, Some(b.look.rolled_deg)))
}

/// From lip to lip as it is laid out: measured, or left to what the stamp says.
fn span(b: &mut Bench<'_>, name: &str) -> Result<f64, Blind> {
    let lip = b.wheel()?.0.lip_mm;
    if b.tools.lip_measured {
        b.laid(name, lip, Face::Tape);
    }
    Ok(lip)
}

/// A plumb line or an upright laser line outside the wheel: to the top lip, to the bottom lip.
pub fn line(b: &mut Bench<'_>) -> Result<(), Blind> {
    let lean = hangs(b)?.to_radians().tan();
    let lip = b.wheel()?.0.lip_mm;
    // Beside the tyre's bulge, so that the line hangs free (common practice, no source).
    let bottom = 60.0;
    b.reads("top", bottom - lip * lean, Face::Rule);
    b.reads("bottom", bottom, Face::Rule);
    span(b, "span")?;
    b.says("reference", "outside");
    Ok(())
}

/// A level that touches the tyre low down, and the gap at the top lip.
pub fn gap(b: &mut Bench<'_>) -> Result<(), Blind> {
    let lean = hangs(b)?.to_radians().tan();
    let (lip, bulge) = {
        let w = b.wheel()?.0;
        (w.lip_mm, w.bulge_mm)
    };
    b.reads("top-gap", bulge - lip * lean, Face::Rule);
    span(b, "span")?;
    if b.tools.bulge_measured {
        b.laid("bulge", bulge, Face::Rule);
    }
    Ok(())
}

/// An upright level on the lips, a calliper in the gap at the top.
pub fn calliper(b: &mut Bench<'_>) -> Result<(), Blind> {
    let lean = hangs(b)?.to_radians().sin();
    let w = b.wheel()?.0;
    let (lip, stamped) = (w.lip_mm, w.stamped_in);
    b.reads("gap", -lip * lean, Face::Calliper);
    if b.tools.lip_measured {
        b.laid("diameter", lip, Face::Tape);
    } else {
        b.laid("nominal", stamped, Face::Word);
    }
    Ok(())
}

/// A sheet that gives camber as an offset over the wheel: of the wheel alone, whatever the floor.
pub fn form(b: &mut Bench<'_>) -> Result<(), Blind> {
    let w = b.wheel()?.0;
    let (lip, camber) = (w.lip_mm, w.camber_deg);
    b.reads("offset", lip * camber.to_radians().sin(), Face::Rule);
    b.laid("diameter", lip, Face::Word);
    Ok(())
}

/// Twice at one spot of the rim, half a turn apart.
pub fn half_turn(b: &mut Bench<'_>) -> Result<(), Blind> {
    let off = b.tools.zero_off_deg;
    for (name, more) in [("first", 0.0), ("second", 180.0)] {
        let (w, up) = b.wheel()?;
        let seen = w.by_gravity(0.0, &up, Some(b.look.rolled_deg + more));
        b.reads(name, seen + off, Face::Digits);
    }
    Ok(())
}

/// A level or protractor on the bar that counts from horizontal; which way the top leans is seen, when it leans enough.
pub fn level(b: &mut Bench<'_>) -> Result<(), Blind> {
    let lean = hangs(b)? + b.tools.zero_off_deg;
    b.reads("angle", 90.0 - lean.abs(), Face::Bubble);
    let word = if lean.abs() < 0.3 {
        "not said"
    } else if lean < 0.0 {
        "top in"
    } else {
        "top out"
    };
    b.says("leans", word);
    Ok(())
}
