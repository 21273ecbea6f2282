//! What can be turned on the car, what it does to the geometry, and whether the car has it.

mod check;
mod kind;
mod on_car;

pub use check::{MOST_ADJUSTERS, adjuster_problems};
pub use kind::{Adjuster, AdjusterKind, ThreadLink, default_adjusters};
pub use on_car::{adjusters_not_there, edits_not_there};
