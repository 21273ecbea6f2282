//! What can be turned on the car, what it does to the geometry, and whether the car has it.

mod check;
mod found;
mod kind;
mod learned;
mod offer;
mod on_car;
mod thread;

pub use check::{MOST_ADJUSTERS, adjuster_problems};
pub use found::{FoundAdjuster, Stands, found_problems};
pub use kind::{Adjuster, AdjusterKind, Held, Known, LEAST_ENGAGED_MM, default_adjusters};
pub use learned::Learned;
pub use offer::{Offer, Offered, TurnKind, USUAL_THROW_MM, offers, spot_of};
pub use on_car::{adjusters_not_there, edits_not_there};
pub use thread::{LeftHand, ThreadLink};
