//! The hub-to-arch height of a wheel by whatever tape told it: hub to arch itself, floor to arch over the tyre's loaded radius,
//! or floor to frame against the frame height at which the points were taken.

use super::facts::VehicleFacts;
use super::record::{Reading, standing};
use crate::reading::{Place, Quantity, Visit, shipped_prepare};
use bold_stance_car::vehicle::{Sides, TyreSize, loaded_radius_mm};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::said::{Said, said};
use chrono::{DateTime, Utc};
use std::sync::OnceLock;

/// A height as some tape told it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub(super) struct HeightRead {
    /// Hub centre to arch lip, mm.
    pub mm: f64,
    /// Standard deviation, mm.
    pub sigma: f64,
    /// The same against another tape of this car, mm: fuel, load and floor nobody told of are the same at both.
    pub against_sigma: f64,
    /// When it was taped.
    pub taken_at: DateTime<Utc>,
}

/// Doubt of a loaded radius nobody measured, standard deviation, mm (common practice, no source).
const RADIUS_SD_MM: f64 = 4.0;

/// Standard deviation of a tape against another of the same car, mm. Left out is what nobody told of and stays as it is from
/// one to the other (tank, load, floor; judgement, no source); whether it was settled is not such.
fn against(r: &Reading) -> f64 {
    static SETTLED: OnceLock<Option<Said>> = OnceLock::new();
    let settled = SETTLED.get_or_init(|| {
        let items = shipped_prepare().ok()?;
        let ask = items.into_iter().find(|i| i.id == "settled")?.ask;
        Some(said("doubt-not-answered").name("ask", ask))
    });
    let stays = |name: &Said| name.id == "doubt-not-answered" && settled.as_ref() != Some(name);
    let common: f64 = r.doubt.iter().filter(|p| stays(&p.name)).map(|p| p.sigma.powi(2)).sum();
    (r.sigma.powi(2) - common).max(0.0).sqrt()
}

/// Loaded radius of an axle's tyres, mm: that of its points, else what its size usually has.
pub(super) fn radius(f: &VehicleFacts, axle: Axle) -> Option<f64> {
    let drawn = f.axles[axle].geometry.as_ref().map(|g| g.wheel.loaded_radius_mm);
    let size = || TyreSize::parse("tyre_size", f.tyre_size_of(axle)).ok();
    drawn.or_else(|| size().map(|s| loaded_radius_mm(&s)))
}

/// Floor to frame of an axle at a visit, mean of what was read, mm.
pub(super) fn frame(readings: &[Reading], visit: Visit, axle: Axle) -> Option<f64> {
    let at =
        |side| standing(readings, visit, Quantity::FloorToFrame, Place::wheel(axle, side)).map(|r| r.value);
    match (at(Side::Left), at(Side::Right)) {
        (Some(l), Some(r)) => Some(f64::midpoint(l, r)),
        (one, other) => one.or(other),
    }
}

/// The height of a wheel at a visit; none where no tape told it. A frame whose height with the points was not told stood there
/// as found: what was taped first is where they were taken.
pub(super) fn height_at(
    f: &VehicleFacts,
    readings: &[Reading],
    visit: Visit,
    axle: Axle,
    side: Side,
) -> Option<HeightRead> {
    let of = |q| standing(readings, visit, q, Place::wheel(axle, side));
    if let Some(r) = of(Quantity::Height) {
        return Some(HeightRead {
            mm: r.value,
            sigma: r.sigma,
            against_sigma: against(r),
            taken_at: r.taken_at,
        });
    }
    if let Some(r) = of(Quantity::FloorToArch) {
        let mm = r.value - radius(f, axle)?;
        // The same tyres stand under it both times.
        let sigma = r.sigma.hypot(RADIUS_SD_MM);
        return Some(HeightRead { mm, sigma, against_sigma: against(r), taken_at: r.taken_at });
    }
    let r = of(Quantity::FloorToFrame)?;
    let shape = &f.axles[axle];
    let drawn = shape.frame_height_mm.or_else(|| frame(readings, Visit::Found, axle))?;
    let mm = shape.height_mm + r.value - drawn;
    Some(HeightRead { mm, sigma: r.sigma, against_sigma: against(r), taken_at: r.taken_at })
}

/// Both sides of an axle at a visit, mm.
pub(super) fn heights_at(
    f: &VehicleFacts,
    readings: &[Reading],
    visit: Visit,
    axle: Axle,
) -> Sides<Option<f64>> {
    Sides::of(|s| height_at(f, readings, visit, axle, s).map(|h| h.mm))
}
