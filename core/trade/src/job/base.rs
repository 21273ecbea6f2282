//! From facts and readings to what a plan hangs on, and to what the forecast of its tyres needs.

use super::facts::{Drive, Silhouette, VehicleFacts};
use super::record::{Reading, standing};
use crate::plan::{AxleBase, CarBase, SideReadings};
use crate::reading::{Place, Quantity, ReadAxle, ReadSide, Seen, Visit, toe_of};
use bold_stance_car::fit::Sigmas;
use bold_stance_car::metrics::RearRead;
use bold_stance_car::vehicle::{Axles, Measured, Sides};
use bold_stance_kinematics::geometry::{Axle, Geometry, Layout, Side};
use bold_stance_tread::{CarTyres, UseMix};

/// What was read on one wheel as found; none while a height, camber, toe or, in front, caster is missing.
fn side_read(readings: &[Reading], seen: &[Seen], axle: Axle, side: Side) -> Option<SideReadings> {
    let r = |q| standing(readings, Visit::Found, q, Place::wheel(axle, side));
    let (h, camber) = (r(Quantity::Height)?, r(Quantity::Camber)?);
    let (toe_deg, toe_sigma, _) = toe_of(seen, Visit::Found, axle, side)?;
    let caster = match axle {
        Axle::Front => Some(r(Quantity::Caster)?),
        Axle::Rear => None,
    };
    Some(SideReadings {
        height_mm: h.value,
        angles: Measured { camber_deg: camber.value, caster_deg: caster.map_or(0.0, |c| c.value), toe_deg },
        sigma: Sigmas {
            camber_deg: camber.sigma,
            caster_deg: caster.map_or(0.0, |c| c.sigma),
            toe_deg: toe_sigma,
        },
    })
}

fn axle_base(f: &VehicleFacts, readings: &[Reading], seen: &[Seen], axle: Axle) -> Option<AxleBase> {
    let read = Sides::of(|s| side_read(readings, seen, axle, s)).both()?;
    let c = &f.car;
    let (geometry, height, adjusters, mut limits, shaft, knowledge, at) = match axle {
        Axle::Front => (
            f.geometry.clone(),
            f.design_height_mm,
            f.adjusters.clone(),
            c.limits,
            c.front_shaft_inner,
            f.knowledge,
            ReadAxle::Front,
        ),
        Axle::Rear => (
            f.rear_geometry.clone()?,
            f.rear_height_mm,
            c.rear_adjusters.clone(),
            c.rear_limits,
            c.rear_shaft_inner,
            f.rear_knowledge,
            ReadAxle::Rear,
        ),
    };
    limits.shaft_inner = limits.shaft_inner.or(shaft);
    let both = Place { axle: at, side: ReadSide::Both };
    let offset = standing(readings, Visit::Found, Quantity::AxleOffset, both);
    Some(AxleBase {
        geometry,
        knowledge,
        jack_sweep: Vec::new(),
        design_height_mm: height,
        adjusters,
        read,
        axle_offset_mm: offset.map(|r| r.value),
        limits,
    })
}

/// What a job gives a plan.
#[must_use]
pub fn base_of(f: &VehicleFacts, readings: &[Reading], seen: &[Seen]) -> CarBase {
    let c = &f.car;
    CarBase {
        wheelbase_mm: f.wheelbase_mm,
        lock_deg: c.lock_deg,
        levels: c.levels.clone(),
        tyre_gain_mm: Axles { front: c.front_tyre_gain_mm, rear: c.rear_tyre_gain_mm },
        axles: Axles::of(|a| axle_base(f, readings, seen, a)),
    }
}

/// Rear wheels as found, for the corner file.
#[must_use]
pub fn rear_read(readings: &[Reading], seen: &[Seen]) -> Option<[RearRead; 2]> {
    let side = |s: Side| {
        let camber = standing(readings, Visit::Found, Quantity::Camber, Place::wheel(Axle::Rear, s))?;
        let (toe_deg, toe_sigma_deg, _) = toe_of(seen, Visit::Found, Axle::Rear, s)?;
        Some(RearRead { camber_deg: camber.value, toe_deg, camber_sigma_deg: camber.sigma, toe_sigma_deg })
    };
    Sides::of(side).both().map(Sides::into_pair)
}

/// Load transfer per g of lateral acceleration, by how high the body stands (common practice, no source).
fn load_transfer(s: Silhouette) -> f64 {
    match s {
        Silhouette::Pickup | Silhouette::Box => 0.85,
        Silhouette::Coupe => 0.6,
        Silhouette::Wagon | Silhouette::Van => 0.7,
    }
}

/// Camber of a wheel against the road from roll, degrees per g: a solid axle stays level (common practice, no source).
fn roll_camber(g: Option<&Geometry>) -> f64 {
    if g.is_some_and(|g| g.layout() == Layout::SolidAxle) { 0.0 } else { 2.5 }
}

/// High torque from standstill multiplies the slip of driven wheels by this (common practice, no source).
const HIGH_TORQUE: f64 = 1.5;

/// The tyres of a vehicle as the forecast takes them, done at `limit_mm`.
#[must_use]
pub fn tyres_of(f: &VehicleFacts, limit_mm: f64) -> CarTyres {
    let (c, w) = (&f.car, &f.car.wear);
    CarTyres {
        sizes: [f.tyre_size.clone(), w.rear_tyre_size.clone().unwrap_or_else(|| f.tyre_size.clone())],
        class: f.tyre_class,
        depth_mm: f.tread_depth_mm,
        limit_mm,
        load_n: [f.front_load_n, c.rear_load_n],
        pressure_kpa: [f.pressure_kpa, w.rear_pressure_kpa.unwrap_or(f.pressure_kpa)],
        placard_kpa: [f.placard_kpa, w.rear_placard_kpa.unwrap_or(f.placard_kpa)],
        drive_front: match f.drive {
            Drive::Front => 1.0,
            Drive::Both => 0.5,
            Drive::Rear => 0.0,
        },
        brake_front: c.brake_front_share,
        torque_factor: if w.high_torque { HIGH_TORQUE } else { 1.0 },
        regen: w.regen,
        use_: if w.uses.is_empty() {
            UseMix::One(f.use_)
        } else {
            UseMix::Blend(w.uses.iter().map(|u| (u.use_, u.share)).collect())
        },
        load_transfer_per_g: load_transfer(f.silhouette),
        roll_camber: [roll_camber(Some(&f.geometry)), roll_camber(f.rear_geometry.as_ref())],
        own_life_km: w.own_life_km,
        grade: w.grade,
        heights: w.heights.clone(),
        rotated: w.rotated,
        rotate_every_km: w.rotate_every_km,
        directional: w.directional,
        worn_dampers: w.worn_dampers,
        price: w.price,
        yearly_km: w.yearly_km,
    }
}
