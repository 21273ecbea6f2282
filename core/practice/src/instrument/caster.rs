//! Caster: swept on plates, off a gauge's own scale, along the joints.

use super::{Bench, Blind};
use crate::hand::Face;
use crate::standing::Swing;
use bold_stance_kinematics::geometry::Side;

fn steers(b: &Bench<'_>) -> Result<(), Blind> {
    if b.wheel()?.0.swing == Swing::Fixed { Err(Blind::NotThere) } else { Ok(()) }
}

/// Braked, swung one way and the other: camber off the gauge, the swing off the plate. The wheel stands at the swing it really
/// has; what the plate shows of it scatters.
pub fn sweep(b: &mut Bench<'_>) -> Result<(), Blind> {
    steers(b)?;
    let sign = if b.side()? == Side::Left { 1.0 } else { -1.0 };
    let off = b.tools.zero_off_deg;
    let really = 1.0 - b.tools.plates_slip;
    for (k, swing) in b.look.swings_deg.into_iter().enumerate() {
        let seen = {
            let (w, up) = b.wheel()?;
            w.by_gravity(sign * swing * really, &up, None)
        };
        b.reads(["camber-1", "camber-2"][k], seen + off, Face::Digits);
        b.reads(["steer-1", "steer-2"][k], swing, Face::Plate);
    }
    Ok(())
}

/// A gauge that has done the sweep and shows caster itself: nose downhill takes the same angle off.
pub fn scale(b: &mut Bench<'_>) -> Result<(), Blind> {
    steers(b)?;
    let w = b.wheel()?.0;
    let (caster, sai) = (w.caster_deg - b.car.floor.along_deg, w.sai_deg);
    b.reads("angle", caster, Face::Bubble);
    b.reads("sai", sai, Face::Bubble);
    Ok(())
}

/// A straightedge through both joint centres with the wheel off: how the body lies on its stands goes in.
pub fn joint_line(b: &mut Bench<'_>) -> Result<(), Blind> {
    steers(b)?;
    let caster = b.wheel()?.0.caster_deg;
    let pitch = b.car.pitch_deg;
    b.reads("angle", caster + pitch, Face::Digits);
    if pitch != 0.0 {
        b.laid("body-pitch", pitch, Face::Digits);
    }
    Ok(())
}
