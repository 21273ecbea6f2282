//! From facts and readings to what a plan hangs on, and to what the forecast of its tyres needs.

use super::askew::{rear_offset, wheelbases};
use super::expect::{WheelSeen, side_with};
use super::facts::{Drive, Silhouette, VehicleFacts};
use super::height::height_at;
use super::moving::sweep_of;
use super::record::{Done, Reading, standing};
use super::stance::stands;
use crate::inspect::widened;
use crate::plan::{AxleBase, CarBase};
use crate::reading::{Place, Quantity, ReadSide, Seen, Visit, toe_of};
use bold_stance_car::fit::Sigmas;
use bold_stance_car::metrics::WheelRead;
use bold_stance_car::vehicle::{Axles, Measured, Sides};
use bold_stance_kinematics::geometry::{Axle, Geometry, Layout, Side};
use bold_stance_tread::{CarTyres, UseMix};

/// The angles of one wheel as found; none while a camber, toe or, in front, caster is missing.
pub(super) fn wheel_read(readings: &[Reading], seen: &[Seen], axle: Axle, side: Side) -> Option<WheelRead> {
    let r = |q| standing(readings, Visit::Found, q, Place::wheel(axle, side));
    let camber = r(Quantity::Camber)?;
    let (toe_deg, toe_sigma, _) = toe_of(seen, Visit::Found, axle, side)?;
    let caster = match axle {
        Axle::Front => Some(r(Quantity::Caster)?),
        Axle::Rear => None,
    };
    Some(WheelRead {
        angles: Measured { camber_deg: camber.value, caster_deg: caster.map_or(0.0, |c| c.value), toe_deg },
        sigma: Sigmas {
            camber_deg: camber.sigma,
            caster_deg: caster.map_or(0.0, |c| c.sigma),
            toe_deg: toe_sigma,
        },
    })
}

/// What was read of one wheel.
fn wheel_seen(f: &VehicleFacts, readings: &[Reading], seen: &[Seen], axle: Axle, side: Side) -> WheelSeen {
    let r = |q| standing(readings, Visit::Found, q, Place::wheel(axle, side));
    let of = |q| r(q).map(|r| (r.value, r.sigma));
    WheelSeen {
        height: height_at(f, readings, Visit::Found, axle, side).map(|h| h.mm),
        camber: of(Quantity::Camber),
        caster: of(Quantity::Caster),
        toe: toe_of(seen, Visit::Found, axle, side).map(|(v, s, _)| (v, s)),
    }
}

fn axle_base(f: &VehicleFacts, readings: &[Reading], seen: &[Seen], axle: Axle) -> Option<AxleBase> {
    let (shape, told) = (&f.axles[axle], &f.car.axles[axle]);
    let geometry = shape.geometry.clone()?;
    let adjusters: Sides<Vec<_>> = Sides::of(|s| told.adjusters.iter().map(|f| f.on(s)).collect());
    let wheels = Sides::of(|s| wheel_seen(f, readings, seen, axle, s));
    let both = Place { axle: axle.into(), side: ReadSide::Both };
    let offset = standing(readings, Visit::Found, Quantity::AxleOffset, both);
    // A plan needs only what it uses: one reading of the axle opens it, what is missing is as wide as the model's doubt.
    let nothing = |w: &WheelSeen| *w == WheelSeen::default();
    let wheelbases_mm = wheelbases(f, readings)[axle];
    let beside = offset.map(|r| r.value);
    let axle_offset_mm = beside.or_else(|| (axle == Axle::Rear).then(|| rear_offset(f, readings)).flatten());
    let placed = axle_offset_mm.is_some() || wheelbases_mm.is_some();
    if nothing(&wheels.left) && nothing(&wheels.right) && !placed {
        return None;
    }
    // What is worn under it widens the doubt of what was read over it.
    let side = |s| {
        let mut read = side_with(f, &geometry, &adjusters[s], (axle, s), &wheels[s])?;
        read.sigma = widened(read.sigma, &told.inspected, s);
        Some(read)
    };
    let read = Sides::of(side).both()?;
    let moving = told.moving.as_ref();
    let jack_sweep = moving.map(|m| sweep_of(&geometry, shape.height_mm, m)).unwrap_or_default();
    Some(AxleBase {
        geometry,
        knowledge: shape.knowledge,
        jack_sweep,
        design_height_mm: shape.height_mm,
        adjusters,
        adjusters_told: told.adjusters_told,
        upper_shaft: told.upper_shaft,
        read,
        axle_offset_mm,
        wheelbases_mm,
        limits: told.limits,
    })
}

/// What a job gives a plan.
#[must_use]
pub fn base_of(f: &VehicleFacts, readings: &[Reading], done: &[Done], seen: &[Seen]) -> CarBase {
    let c = &f.car;
    CarBase {
        wheelbase_mm: f.wheelbase_mm,
        lock_deg: c.lock_deg,
        steering_ratio: c.steering_ratio,
        class_rules: f.class_rules.clone(),
        levels: c.levels.clone(),
        stands: stands(f, readings),
        turns: c.turns.clone(),
        tyre_gain_mm: c.axles.as_ref().map(|a| a.tyre_gain_mm),
        inspected: c.axles.as_ref().map(|a| a.inspected.clone()),
        worked_since: done.iter().map(|d| d.done_at).min(),
        turned: Axles::default(),
        axles: Axles::of(|a| axle_base(f, readings, seen, a)),
    }
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
        sizes: Axles::of(|a| f.tyre_size_of(a).to_owned()),
        class: f.tyre_class,
        depth_mm: f.tread_depth_mm,
        limit_mm,
        load_n: c.axles.as_ref().map(|a| a.load_n),
        pressure_kpa: f.axles.as_ref().map(|a| a.pressure_kpa.unwrap_or(f.pressure_kpa)),
        placard_kpa: f.axles.as_ref().map(|a| a.placard_kpa.unwrap_or(f.placard_kpa)),
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
        roll_camber: f.axles.as_ref().map(|a| roll_camber(a.geometry.as_ref())),
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
