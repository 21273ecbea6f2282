//! Which axle stands askew and which beside the middle, from wheelbases, set-back and diagonals taped as found.

use super::facts::VehicleFacts;
use super::record::{Reading, standing};
use crate::reading::{Place, Quantity, ReadAxle, ReadSide, Visit};
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::{Axle, Layout};
use bold_stance_units::Sigma;

/// What was taped along and across the car.
struct Taped {
    wheelbase: Sides<(f64, f64)>,
    set_back: Option<f64>,
}

fn taped(readings: &[Reading]) -> Option<Taped> {
    let of = |q, place| standing(readings, Visit::Found, q, place).map(|r| (r.value, r.sigma));
    let base = |side| of(Quantity::Wheelbase, Place { axle: ReadAxle::Both, side });
    let wheelbase = Sides { left: base(ReadSide::Left), right: base(ReadSide::Right) }.both()?;
    let car = Place { axle: ReadAxle::Both, side: ReadSide::Both };
    Some(Taped { wheelbase, set_back: of(Quantity::SetBack, car).map(|(v, _)| v) })
}

fn is_live(f: &VehicleFacts, axle: Axle) -> bool {
    f.axles[axle].geometry.as_ref().is_some_and(|g| g.layout() == Layout::SolidAxle)
}

/// Wheelbases of both sides as each live axle's own stand leaves them, mm; none where the tape cannot tell them apart or no
/// live axle stands askew. What set-back says is the front's, the rest the rear's; not read, all of it belongs to the rear
/// axle, or to the front where that alone is live.
pub(super) fn wheelbases(f: &VehicleFacts, readings: &[Reading]) -> Axles<Option<Sides<f64>>> {
    let Some(t) = taped(readings) else { return Axles::default() };
    let (l, r) = (t.wheelbase.left, t.wheelbase.right);
    let apart = l.0 - r.0;
    let (mean, band) = (f64::midpoint(l.0, r.0), Sigma(l.1).and(Sigma(r.1)).half_width().0);
    let front = match t.set_back {
        Some(s) => s,
        None if is_live(f, Axle::Front) && !is_live(f, Axle::Rear) => apart,
        None => 0.0,
    };
    let of = |axle: Axle, by: f64| {
        (is_live(f, axle) && by.abs() > band)
            .then_some(Sides { left: mean + 0.5 * by, right: mean - 0.5 * by })
    };
    Axles { front: of(Axle::Front, front), rear: of(Axle::Rear, apart - front) }
}

/// How far a live rear axle has to go to the left to stand behind the front wheels, mm, from the diagonals; none where the
/// tape cannot tell.
///
/// With the front hubs at (0, ±f/2) and the rear ones at (l, e + r/2) and (k, e − r/2) for wheelbases l and k, the
/// diagonals are a² = k² + (f/2 + r/2 − e)² from the left front and b² = l² + (f/2 + r/2 + e)² from the right front, so
/// e = ((b² − l²) − (a² − k²)) / (2 (f + r)) (Pythagoras).
pub(super) fn rear_offset(f: &VehicleFacts, readings: &[Reading]) -> Option<f64> {
    if !is_live(f, Axle::Rear) || is_live(f, Axle::Front) {
        return None;
    }
    let at = |side| {
        standing(readings, Visit::Found, Quantity::Diagonal, Place { axle: ReadAxle::Both, side })
            .map(|r| (r.value, r.sigma))
    };
    let (a, b) = (at(ReadSide::Left)?, at(ReadSide::Right)?);
    let base = taped(readings)
        .map_or(Sides { left: f.wheelbase_mm, right: f.wheelbase_mm }, |t| t.wheelbase.map(|w| w.0));
    let across = 2.0 * (f.axles.front.track_mm + f.axles.rear.track_mm);
    let e = ((b.0.powi(2) - base.left.powi(2)) - (a.0.powi(2) - base.right.powi(2))) / across;
    let band = Sigma((2.0 * a.0 * a.1).hypot(2.0 * b.0 * b.1) / across).half_width().0;
    (e.abs() > band).then_some(-e)
}
