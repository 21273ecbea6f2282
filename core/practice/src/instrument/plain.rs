//! What is read straight off: heights, pressures, grooves, rims.

use super::{Bench, Blind};
use crate::hand::Face;
use bold_stance_trade::reading::Method;

/// Tapes of height.
pub fn height(b: &mut Bench<'_>) -> Result<(), Blind> {
    let w = b.wheel()?.0;
    let v = match b.look.method.id {
        Method::HeightHub => w.height_mm,
        Method::HeightFloor => w.height_mm + w.hub_mm,
        _ => w.frame_mm,
    };
    b.reads("value", v, Face::Tape);
    Ok(())
}

/// A dial at the rim's side over one turn.
pub fn dial(b: &mut Bench<'_>) -> Result<(), Blind> {
    let w = b.wheel()?.0;
    let half = w.lip_mm * w.run_out.deg.abs().to_radians().sin() / 2.0;
    b.reads("high", half, Face::Dial);
    b.reads("low", -half, Face::Dial);
    Ok(())
}

/// Three grooves, and a flat hand over the tread.
pub fn tread(b: &mut Bench<'_>) -> Result<(), Blind> {
    let w = b.wheel()?.0;
    let (tread, feels) = (w.tread_mm, w.feels);
    for (name, v) in ["inner", "centre", "outer"].into_iter().zip(tread) {
        b.reads(name, v, Face::Depth);
    }
    b.says("feather", feels);
    Ok(())
}

/// Cold.
pub fn pressure(b: &mut Bench<'_>) -> Result<(), Blind> {
    let v = b.wheel()?.0.pressure_kpa;
    b.reads("value", v, Face::Pressure);
    Ok(())
}

/// What is stamped on the rim.
pub fn stamp(b: &mut Bench<'_>) -> Result<(), Blind> {
    let v = b.wheel()?.0.stamped_in;
    b.laid("nominal", v, Face::Word);
    Ok(())
}
