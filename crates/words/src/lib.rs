//! Words: what the core says as data, printed in a language and in the units asked for.
//!
//! A language is one file of `lang/` in Fluent's notation: its messages by the ids the core uses. Quantities arrive already
//! printed, whichever message they stand in, so no message can print one in another unit.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod print;
mod units;
mod voice;

pub use print::print;
pub use units::{AngleForm, DistanceUnit, LoadUnit, PressureUnit, TreadUnit, Units};
pub use voice::{Voice, english, plain};
