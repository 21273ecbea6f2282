//! The plan of a whole car: one document, one answer for both axles, one list of orders.

mod answer;
mod document;
mod input;
mod orders;
mod stance;
mod verdict;

pub use super::input::Picked;
pub use answer::{CarAnswer, car_fitted_parts, plan_car, plan_car_within};
pub use document::{AxlePlan, CarPlan, PLAN_FORMAT, USUAL_LIMIT_MM};
pub(crate) use input::other;
pub use input::{AxleBase, CarBase, CarInput};
pub use orders::{Order, orders};
pub use stance::{CarStance, Stands};
pub use verdict::{CarVerdict, Standing, Thrust, WhatIsIn, Worst, WorstKind};
