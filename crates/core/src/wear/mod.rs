//! Tread forecast: where a tyre wears, how fast, and how sure that is.
//!
//! The model has met no measured tyre. Ratios between two settings are good to ×/÷ 1.1–1.4;
//! absolute distance carries its band. Screens lead with the ratio.

mod axle;
mod band;
mod case;
mod forecast;
mod tyre;
mod uses;

pub use axle::{AxleWear, AxleWearCase, TyreWear, axle_wear, life_band, life_of};
pub use band::{Band, Belief, RatioBand, TreadReading, band_km, ratio_band, update};
pub use case::{WearCase, WearOther, WearResult, run};
pub use forecast::{
    Basis, Forecast, Irregular, STRIPS, Setup, Shares, Wheel, calibrate, forecast, irregular, shares,
};
pub use tyre::{Tread, Tyre, TyreClass, tread_of};
pub use uses::{Use, UseMix, mix_rows};
