//! The shipped catalogue: generic parts, invented, validated on load.

use super::Edit;
use crate::geometry::{Axle, Layout};
use crate::problem::{Problem, in_range, parse_json};
use serde::{Deserialize, Serialize};

/// One generic correction part.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Part {
    /// Stable word for plans and requests.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What it moves, in a few words.
    pub summary: String,
    /// Layout it fits.
    pub layout: Layout,
    /// Axle it fits.
    pub axle: Axle,
    /// What it takes the place of, so that two cannot be fitted at once.
    pub replaces: String,
    /// What it moves.
    pub edits: Vec<Edit>,
    /// The cost that the geometry does not show, one sentence.
    pub side_effect: String,
    /// Minutes of labour for the axle.
    pub labour_minutes: u32,
    /// Price for the axle in the shop's currency (invented).
    pub cost: f64,
    /// Cautions of this part.
    pub cautions: Vec<String>,
}

const SHIPPED: &str = include_str!("../../../../data/parts/wishbone_front.json");

/// The parts that ship with the program, checked.
///
/// # Errors
/// The first [`Problem`], with the path in `data/parts`.
pub fn shipped_parts() -> Result<Vec<Part>, Problem> {
    let parts: Vec<Part> = parse_json(SHIPPED.as_bytes())?;
    for (i, p) in parts.iter().enumerate() {
        let at = |f: &str| format!("{i}.{f}");
        if p.id.is_empty() || p.name.is_empty() {
            return Err(Problem::new(at("id"), "empty", "a word and a name"));
        }
        if parts.iter().skip(i + 1).any(|q| q.id == p.id) {
            return Err(Problem::new(at("id"), format!("\"{}\" stands twice", p.id), "one of each"));
        }
        if p.edits.is_empty() {
            return Err(Problem::new(at("edits"), "moves nothing", "at least one edit"));
        }
        in_range(&at("cost"), p.cost, 0.0, 1e5, "in the shop's currency")?;
    }
    Ok(parts)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::tests::sample;
    use crate::linkage::{Corner, Linkage};

    #[test]
    fn every_shipped_part_leaves_a_linkage_that_closes() {
        let g = sample();
        let parts = shipped_parts().unwrap();
        assert!(parts.len() >= 4);
        for part in parts {
            let c = Corner::new(&g.points, &g.wheel).edited(&part.edits);
            for t in [-70.0, 0.0, 60.0] {
                c.alignment(t, 0.0).unwrap_or_else(|e| panic!("{}: {e}", part.id));
            }
        }
    }

    #[test]
    fn a_joint_set_rearward_adds_caster() {
        let g = sample();
        let base = Corner::new(&g.points, &g.wheel);
        let arm = Edit::ReshapeArm { arm: crate::linkage::Arm::Upper, longer_mm: 0.0, forward_mm: -10.0 };
        let c = base.edited(&[arm]);
        let (a, b) = (base.alignment(0.0, 0.0).unwrap(), c.alignment(0.0, 0.0).unwrap());
        // atan(10 / 270 mm joint spacing) = 2.1°, by hand.
        assert!((b.caster_deg - a.caster_deg - 2.1).abs() < 0.1, "{}", b.caster_deg - a.caster_deg);
    }
}
