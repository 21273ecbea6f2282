//! A hidden car to learn on: what each tool shows of it on the floor it stands on, what work does to it, and what was missed.
//!
//! What is true of the car never leaves this crate before the debrief; what leaves is what a person in the bay could see.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod act;
mod bay;
mod debrief;
mod floor;
mod hand;
mod hidden;
mod instrument;
mod jig;
mod scenario;
mod standing;
mod trap;

pub use act::{Act, At, Felt, Ready, minutes_of};
pub use bay::{Bay, Outcome};
pub use debrief::{Believed, Debrief, TrapSeen, debrief};
pub use floor::Floor;
pub use hand::{Face, Hand, Shown};
pub use hidden::{HiddenCar, Work};
pub use instrument::{Blind, Look, Tools, shows, truth_of};
pub use jig::{CamberAt, JigAsked, JigMade, JigSetting, JigShape, JigStands, JigTurn, jig};
pub use scenario::{Found, MOST_TRAPS, Scenario, shipped_scenarios};
pub use standing::{RunOut, Standing, Swing, WheelStands};
pub use trap::Trap;
