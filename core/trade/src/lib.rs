//! The trade: aims, parts, readings and what is suspicious in them, the plan of a car, the search, the sheet, the job.
//!
//! Units are millimetres and, at every public edge, degrees; radians stay inside functions.
//! Signs follow ISO 8855 axes (x forward, y left, z up) and the LEFT wheel: camber positive with
//! the top out, toe positive toe-in, caster positive with the top rearward, steering-axis
//! inclination positive with the top inboard. The right side is the mirror image.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

pub mod aim;
pub mod inspect;
pub mod job;
pub mod memory;
pub mod offer;
pub mod part;
pub mod plan;
pub mod prove;
pub mod reading;
#[cfg(test)]
mod sample;
pub mod sheet;
pub mod shop;
