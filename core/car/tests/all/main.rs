//! Checks of the layouts and notations through the public face of the crate.
//!
//! One binary for all of them: each more costs a link of the whole crate.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

mod as_drawn;
mod layout_properties;
mod notation;
