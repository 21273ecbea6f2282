//! Parts as geometry edits: a part is data, not code.

mod catalogue;
mod check;
mod class_rules;
mod made;
mod order_list;
mod part_data;
mod table;

pub use catalogue::{parts_for, parts_from_json, shipped_parts};
pub use check::{MOST_PARTS, list_problems, part_problems};
pub use class_rules::{ClassRules, rule_books_problems};
pub use made::{Aid, Made, PlacedBy, made_parts};
pub use order_list::{ORDER_COLUMNS, OrderLine, order_list, order_list_csv};
pub use part_data::{BuiltWith, Fits, Part, PartGroup, PartLimits, Purpose, Rule, Sizes, Springs};
pub use table::{parts_from_csv, parts_to_csv};
