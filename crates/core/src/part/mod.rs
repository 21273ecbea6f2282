//! Parts and adjusters as geometry edits: a part is data, not code.

mod adjuster;
mod edit;
mod part_data;

pub use adjuster::{Adjuster, AdjusterKind, ThreadLink, adjuster_problems, default_adjusters};
pub use edit::{EccentricPoint, Edit, JointPoint};
pub use part_data::{Part, shipped_parts};
