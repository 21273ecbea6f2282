//! The vehicle round the linkage: tyre, body attitude, springs, height states, anchoring to what was measured.

mod anchor;
mod attitude;
mod axle_facts;
mod axles;
mod car;
mod doubt;
mod facts;
mod height_by;
mod likely;
mod limits;
mod moving;
mod springs;
mod states;
mod tyre;
mod tyre_facts;

pub use anchor::{Anchor, Anchored, Measured, anchor, anchor_wheel};
pub use attitude::Attitude;
pub use axle_facts::{AxleFacts, Inspected};
pub use axles::{Axles, Sides};
pub use car::{Car, CarState, Gains, THRUST_SEEN_DEG, WheelOnGround};
pub use doubt::{Doubt, Sigmas, ToldSigmas, USUAL_SIGMAS};
pub use facts::{AirLevel, CarFacts, Payload, TurnRecord, USUAL_STEERING_RATIO};
pub use height_by::{HeightBy, HeightKind};
pub use likely::{UNSEEN_PLACE_SD, likely_positions};
pub use limits::Limits;
pub use moving::{FEWEST_HEIGHTS, MOST_HEIGHTS, MovedRow, Moving};
pub use springs::{
    GRAVITY, PerTurn, SETTLED_SD_MM, Spring, TORSION_BOLT, learn_per_turn, motion_ratio, payload_loads,
};
pub use states::{HeightState, PlannedHeight, PlannedHeights, StateKind, height_states};
pub use tyre::{TyreSize, loaded_radius_mm};
pub use tyre_facts::{HeightShare, Rotated, Use, UseShare, WearFacts};
