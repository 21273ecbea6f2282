//! Toe: lengths in front of and behind both wheels, or of one wheel to a string.

use super::{Bench, Blind};
use crate::hand::Face;
use crate::standing::WheelStands;
use bold_stance_kinematics::geometry::Axle;

/// By how much both wheels stand closer in front than behind over a circle, mm.
fn closer(l: &WheelStands, r: &WheelStands, circle_mm: f64) -> f64 {
    circle_mm * (l.heading().to_radians().sin() + r.heading().to_radians().sin())
}

/// Tape from tyre to tyre, as high as the underside of the car lets it: on a chord of the tyre, not on its diameter.
pub fn tape(b: &mut Bench<'_>) -> Result<(), Blind> {
    let axle = b.axle()?;
    let track = b.car.track_mm[axle];
    let (front, rear, height, hub, tyre) = {
        let (l, r) = b.pair()?;
        let tyre = f64::midpoint(l.tyre_mm, r.tyre_mm);
        let hub = f64::midpoint(l.hub_mm, r.hub_mm);
        // A hand's breadth under the hub (common practice, no source).
        let height = (hub - 0.25 * tyre).round();
        let under = hub - height;
        let chord = 2.0 * ((tyre / 2.0).powi(2) - under * under).sqrt();
        let c = closer(l, r, chord);
        (track - c / 2.0, track + c / 2.0, height, hub, tyre)
    };
    b.reads("front", front, Face::Tape);
    b.reads("rear", rear, Face::Tape);
    b.laid("diameter", tyre, Face::Tape);
    b.laid("height", height, Face::Tape);
    b.laid("axle-height", hub, Face::Tape);
    Ok(())
}

/// Bars or plates on both wheels, longer than a wheel.
pub fn bars(b: &mut Bench<'_>) -> Result<(), Blind> {
    const LONG: f64 = 1000.0;
    let track = b.car.track_mm[b.axle()?];
    let (l, r) = b.pair()?;
    let c = closer(l, r, LONG);
    b.reads("front", track - c / 2.0, Face::Tape);
    b.reads("rear", track + c / 2.0, Face::Tape);
    b.laid("diameter", LONG, Face::Tape);
    Ok(())
}

/// Set on the rear lips, taken to the front lips.
pub fn rim_gauge(b: &mut Bench<'_>) -> Result<(), Blind> {
    let (l, r) = b.pair()?;
    let lip = f64::midpoint(l.lip_mm, r.lip_mm);
    let c = closer(l, r, lip);
    b.reads("difference", c, Face::Rule);
    if b.tools.lip_measured {
        b.laid("diameter", lip, Face::Tape);
    }
    Ok(())
}

/// A string outside the car at hub height, to the front and the rear lip of one wheel.
pub fn string(b: &mut Bench<'_>) -> Result<(), Blind> {
    let side = b.side()?;
    let (lip, heading) = {
        let w = b.wheel()?.0;
        (w.lip_mm, w.heading())
    };
    let (front_track, rear_track) = (b.car.track_mm[Axle::Front], b.car.track_mm[Axle::Rear]);
    let base = b.car.wheelbase_mm[side];
    // From the rear wheels it runs off the centre line by half the difference of the tracks over the wheelbase, and with them.
    let runs = if b.tools.strung_from_rear {
        ((rear_track - front_track) / 2.0 / base).atan().to_degrees()
    } else {
        0.0
    };
    let half = lip / 2.0 * (heading - runs).to_radians().sin();
    let off = 80.0;
    b.reads("front-gap", off + half, Face::Rule);
    b.reads("rear-gap", off - half, Face::Rule);
    if b.tools.lip_measured {
        b.laid("diameter", lip, Face::Tape);
    }
    b.says("reference", "outside");
    if b.tools.strung_from_rear && b.tools.strung_said {
        b.says("strung", "rear-wheels");
        b.laid("track-front", front_track, Face::Tape);
        b.laid("track-rear", rear_track, Face::Tape);
        b.laid("wheelbase", base, Face::Tape);
    }
    Ok(())
}

/// A gauge that shows the toe of one wheel.
pub fn gauge(b: &mut Bench<'_>) -> Result<(), Blind> {
    let toe = b.wheel()?.0.toe_deg;
    b.reads("value", toe, Face::Digits);
    Ok(())
}
