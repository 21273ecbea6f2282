//! The bars a corner is drawn with.

use crate::Vec3;
use serde::{Deserialize, Serialize};

/// What a bar of a drawing is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum BarKind {
    /// Upper arm: pivot to ball joint.
    UpperArm,
    /// Lower arm: pivot to ball joint.
    LowerArm,
    /// A rod with a joint at each end.
    Link,
    /// Tie rod or drag link.
    TieRod,
    /// Strut: mount to lower end.
    Strut,
    /// Part of the knuckle.
    Knuckle,
    /// Swinging arm: hinge to wheel.
    SwingArm,
    /// Axle tube or twist beam.
    Beam,
}

/// A bar of a drawing: from its body (or inner) end to its wheel end.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Bar {
    /// Name of the part, as in the file.
    pub name: String,
    /// What it is.
    pub kind: BarKind,
    /// x, y, z, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub from: [f64; 3],
    /// x, y, z, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub to: [f64; 3],
    /// Whether `from` is fixed to the body.
    pub on_body: bool,
}

impl Bar {
    /// A bar between two points.
    pub(crate) fn new(name: &str, kind: BarKind, from: &Vec3, to: &Vec3, on_body: bool) -> Self {
        Self { name: name.into(), kind, from: (*from).into(), to: (*to).into(), on_body }
    }
}
