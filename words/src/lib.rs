//! Words: what the core says as data, printed in a language and in the units asked for.
//!
//! A language is one file of `lang/` in Fluent's notation: its messages by the ids the core uses. Quantities arrive already
//! printed, whichever message they stand in, so no message can print one in another unit.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

mod print;
mod units;
mod voice;

pub use print::print;
pub use units::{AngleForm, DecimalSign, DistanceUnit, LoadUnit, PressureUnit, TreadUnit, Units};
pub use voice::{Voice, english, plain, said_of};

/// Words of what is said, for whoever holds it: tests and programs that print in English.
pub trait English {
    /// In English, in millimetres and decimal degrees.
    fn en(&self) -> String;
}

impl English for bold_stance_units::said::Said {
    fn en(&self) -> String {
        plain(self)
    }
}

impl English for String {
    fn en(&self) -> String {
        self.clone()
    }
}
