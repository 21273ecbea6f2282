//! The car round its linkages: tyre, attitude, springs, height states, anchoring, doubt, archetypes, whole-car quantities.
//!
//! Units are millimetres and, at every public edge, degrees; radians stay inside functions.
//! Signs follow ISO 8855 axes (x forward, y left, z up) and the LEFT wheel: camber positive with
//! the top out, toe positive toe-in, caster positive with the top rearward, steering-axis
//! inclination positive with the top inboard. The right side is the mirror image.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

pub mod adjuster;
pub mod archetype;
pub mod draw;
pub mod fit;
pub mod metrics;
#[cfg(test)]
mod sample;
pub mod vehicle;
