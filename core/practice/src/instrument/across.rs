//! Where the axles stand under the body, and the floor under them.

use super::{Bench, Blind};
use crate::hand::Face;
use bold_stance_kinematics::geometry::Side;

/// Plumb lines from the same point of both arches, line to tyre.
pub fn centring(b: &mut Bench<'_>) -> Result<(), Blind> {
    let right = b.car.right_of_body_mm[b.axle()?];
    let clear = 70.0;
    b.reads("left", clear + right, Face::Rule);
    b.reads("right", clear - right, Face::Rule);
    Ok(())
}

/// Hub to hub.
pub fn wheelbase(b: &mut Bench<'_>) -> Result<(), Blind> {
    let v = b.car.wheelbase_mm[b.side()?];
    b.reads("value", v, Face::Tape);
    Ok(())
}

/// Corner to corner.
pub fn diagonal(b: &mut Bench<'_>) -> Result<(), Blind> {
    let v = b.car.diagonal_mm[b.side()?];
    b.reads("value", v, Face::Tape);
    Ok(())
}

/// One line over the frame to both front hubs.
pub fn set_back(b: &mut Bench<'_>) -> Result<(), Blind> {
    let to = b.car.to_front_hub_mm;
    b.reads("left", to[Side::Left], Face::Tape);
    b.reads("right", to[Side::Right], Face::Tape);
    Ok(())
}

/// A water level under an axle, or from axle to axle.
pub fn floor(b: &mut Bench<'_>) -> Result<(), Blind> {
    let (run, slope) = match b.look.place.one_axle() {
        Some(axle) => (b.car.track_mm[axle].round(), b.car.floor.under(axle, b.car.track_mm[axle])),
        None => (b.car.wheelbase_mm[Side::Left].round(), b.car.floor.along_deg),
    };
    b.reads("drop", run * slope.to_radians().tan(), Face::Rule);
    b.laid("run", run, Face::Tape);
    Ok(())
}
