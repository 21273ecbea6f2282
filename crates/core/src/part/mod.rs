//! Parts and adjusters as geometry edits: a part is data, not code.

mod adjuster;
mod adjuster_check;
mod catalogue;
mod check;
mod edit;
mod on_car;
mod part_data;
mod table;

pub use adjuster::{Adjuster, AdjusterKind, ThreadLink, default_adjusters};
pub use adjuster_check::{MOST_ADJUSTERS, adjuster_problems};
pub use catalogue::{parts_for, parts_from_json, shipped_parts};
pub use check::{MOST_PARTS, list_problems, part_problems};
pub use edit::{EccentricPoint, Edit, JointPoint, SetEdits};
pub use on_car::{adjusters_not_there, edits_not_there};
pub use part_data::{Fits, Part, PartGroup, PartLimits, Rule, Sizes, Springs};
pub use table::{parts_from_csv, parts_to_csv};
