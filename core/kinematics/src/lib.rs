//! Points, linkages, wheels, and what an edit does to them: pure computation.
//!
//! Units are millimetres and, at every public edge, degrees; radians stay inside functions.
//! Signs follow ISO 8855 axes (x forward, y left, z up) and the LEFT wheel: camber positive with
//! the top out, toe positive toe-in, caster positive with the top rearward, steering-axis
//! inclination positive with the top inboard. The right side is the mirror image.
#![cfg_attr(test, allow(clippy::unwrap_used, clippy::expect_used, clippy::panic))]

pub mod edit;
pub mod geometry;
mod layout;
pub mod linkage;
pub mod wheel;

/// A point or direction in vehicle axes, mm (or unitless for directions).
pub type Vec3 = nalgebra::Vector3<f64>;
