//! The vehicle round the linkage: tyre, body attitude, anchoring to what was measured.

mod anchor;
mod attitude;
mod tyre;

pub use anchor::{Anchor, Anchored, Measured, anchor, anchor_wheel};
pub use attitude::Attitude;
pub use tyre::{TyreSize, loaded_radius_mm};
