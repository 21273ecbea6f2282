//! A hidden car to learn on: what each tool shows of it on the floor it stands on, what work does to it, and what was missed.
//!
//! What is true of the car never leaves this crate before the debrief; what leaves is what a person in the bay could see.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod floor;
mod hand;
mod instrument;
mod standing;

pub use floor::Floor;
pub use hand::{Face, Hand, Shown};
pub use instrument::{Blind, Look, Tools, shows, truth_of};
pub use standing::{RunOut, Standing, Swing, WheelStands};
