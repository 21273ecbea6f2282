//! One axle's tyres at given angles, for ranking sets of parts.

use super::band::{Band, Belief, band_km};
use super::forecast::{Setup, Wheel, calibrate, forecast};
use super::tyre::{Tyre, TyreClass};
use super::uses::{Use, UseMix};
use crate::problem::Problem;
use crate::vehicle::TyreSize;
use serde::{Deserialize, Serialize};

/// What the forecast needs beside the angles.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AxleWearCase {
    /// Nominal size.
    pub tyre_size: String,
    /// Compound.
    pub tyre_class: TyreClass,
    /// Depth it starts from, mm.
    pub tread_depth_mm: f64,
    /// Depth at which the tyre is done, mm.
    pub limit_mm: f64,
    /// Load on one wheel, N.
    pub load_n: f64,
    /// Pressure, kPa.
    pub pressure_kpa: f64,
    /// Placard pressure, kPa.
    pub placard_kpa: f64,
    /// 1 front drive, 0.5 both, 0 rear.
    pub drive_share: f64,
    /// How it is driven.
    #[serde(rename = "use")]
    pub use_: Use,
    /// Load transfer per g: 0.85 pickup, 0.7 car, 0.6 low sports.
    pub load_transfer_per_g: f64,
}

fn wheel(c: &AxleWearCase, caster_deg: f64) -> Wheel {
    Wheel {
        load_n: c.load_n,
        pressure_kpa: c.pressure_kpa,
        placard_kpa: c.placard_kpa,
        placard_load_n: None,
        axle_share: 0.57,
        drive_share: c.drive_share,
        brake_share: 0.68,
        torque_factor: 1.0,
        regen: false,
        load_transfer_per_g: c.load_transfer_per_g,
        roll_camber_deg_per_g: 2.5,
        caster_deg,
        loaded_radius_mm: None,
    }
}

fn tyre_of(c: &AxleWearCase) -> Result<Tyre, Problem> {
    let size = TyreSize::parse("tyres.tyre_size", &c.tyre_size)?;
    Ok(Tyre {
        section_mm: size.section_mm,
        aspect: size.aspect,
        rim_in: size.rim_in,
        class: c.tyre_class,
        new_depth_mm: Some(c.tread_depth_mm),
        tread_width_mm: None,
    })
}

/// Distance until one tyre's worst strip meets the limit, km, without a band; `None` for a size that is none.
#[must_use]
pub fn life_of(c: &AxleWearCase, camber_deg: f64, toe_deg: f64, caster_deg: f64) -> Option<f64> {
    let tyre = tyre_of(c).ok()?;
    let setups = [Setup { camber_deg, toe_deg, share: 1.0 }];
    let k = calibrate(c.tyre_class);
    Some(forecast(&tyre, &wheel(c, caster_deg), &setups, &UseMix::One(c.use_), k, c.limit_mm).life_km)
}

/// The same with its 80 % band.
#[must_use]
pub fn life_band(c: &AxleWearCase, camber_deg: f64, toe_deg: f64, caster_deg: f64) -> Option<Band> {
    let tyre = tyre_of(c).ok()?;
    let setups = [Setup { camber_deg, toe_deg, share: 1.0 }];
    let belief = Belief::prior(&tyre, &wheel(c, caster_deg), &setups, &UseMix::One(c.use_), c.limit_mm);
    Some(band_km(&belief))
}
