//! Tread forecast: where a tyre wears, how fast, and how sure that is.
//!
//! The model has met no measured tyre. Ratios between two settings are good to ×/÷ 1.1–1.4;
//! absolute distance carries its band. Screens lead with the ratio.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod axle;
mod band;
mod basis;
mod car;
mod car_tyres;
mod case;
mod diagnosis;
mod footprint;
mod forecast;
mod known;
mod limits;
mod log;
mod log_table;
mod parameters;
mod rotation;
mod scene;
mod trial;
mod tyre;
mod uses;
mod worth;

pub use axle::{axle_band, axle_life};
pub use band::{
    Band, Belief, Carried, RatioBand, ReadAt, Running, TreadReading, band_km, carry, learn, ratio_band,
    update,
};
pub use basis::{Basis, OwnLife};
pub use car::{CarWear, IrregularPart, LearnedTyre, SceneWear, TyreForecast, car_wear};
pub use car_tyres::CarTyres;
pub use case::{WearCase, WearOther, WearResult, run};
pub use diagnosis::{
    Answer, Cause, Diagnosis, DiagnosisData, Finding, Question, Ranked, Seen, diagnose, pattern_of_depths,
    shipped_diagnosis,
};
pub use footprint::{AxlePatches, AxleSetting, Bend, Footprint, PatchStrip, axle_patches};
pub use forecast::{
    Forecast, Irregular, STRIPS, Setup, Shares, Upkeep, Wheel, calibrate, eta, forecast, irregular, shares,
    shares_both,
};
pub use known::{AskedTyre, RanAs, known, pressed_over};
pub use limits::{TreadLimit, shipped_limits};
pub use log::{LogEntry, LogWarning, LoggedTyre, ReadPoint, TreadLog, TyrePlace, place_warnings};
pub use log_table::{LogUnits, log_from_csv, log_to_csv};
pub use rotation::{Rotation, RotationPlan, rotation_plans};
pub use scene::{AxleScene, Run, Scenes, leading};
pub use trial::{TrialRow, tread_trial};
pub use tyre::{Tread, Tyre, TyreClass, tread_of};
pub use uses::{UseMix, mix_rows};
pub use worth::Lever;
