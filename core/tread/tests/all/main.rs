//! Checks of the tread model against integrals, published figures and properties.
//!
//! One binary for all of them: each more costs a link of the whole crate.
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic, missing_docs)]

mod caster_wear;
mod footprint;
mod tread_integrals;
mod tread_log;
mod wear_facts;
mod wear_golden;
mod wear_properties;
