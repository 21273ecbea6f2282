//! Generic axles to start from, each scaled to a car by a few tape measurements.
//!
//! The shapes are invented and typical of their kind. The fit is the most probable shape given the tape:
//! every coordinate may move by what an archetype does not know ([`crate::fit::spreads`]) and the whole by a
//! tenth in each direction, and the measurements pull it (maximum a posteriori, Gauss–Newton in the dual
//! form, e.g. Gelb, Applied Optimal Estimation; Bishop, Pattern Recognition and Machine Learning).

mod fit;

pub use bold_stance_kinematics::geometry::Measure;
pub use fit::{Fitted, Taped, TapedResult, fit_archetype};

use bold_stance_kinematics::geometry::Geometry;
use bold_stance_units::problem::{Problem, parse_json};
use serde::{Deserialize, Serialize};

/// A generic axle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Archetype {
    /// Stable word.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// What is seen under the car.
    pub seen: String,
    /// What is worth knowing about its kind.
    pub note: String,
    /// The shape.
    pub geometry: Geometry,
}

impl Archetype {
    /// What the tape can tell about it, with the shape's own values.
    #[must_use]
    pub fn measures(&self) -> Vec<(Measure, f64)> {
        Measure::ALL
            .into_iter()
            .filter_map(|m| m.of(&self.geometry.points, &self.geometry.wheel).map(|v| (m, v)))
            .collect()
    }
}

macro_rules! shipped {
    ($($name:literal),* $(,)?) => {
        [$((
            $name,
            include_bytes!(concat!("../../../../data/archetypes/", $name, ".json")).as_slice(),
        )),*]
    };
}

/// The shipped archetypes, in the order they are offered.
///
/// # Errors
/// The first [`Problem`] of a damaged file.
pub fn shipped_archetypes() -> Result<Vec<Archetype>, Problem> {
    shipped![
        "half_ton_front",
        "one_ton_front",
        "compact_off_roader_front",
        "sports_front",
        "hot_rod_front",
        "compact_strut_front",
        "strut_coupe_front",
        "crossover_front",
        "live_front",
        "ev_multilink_rear",
        "wishbone_rear",
        "semi_trailing_rear",
        "triangulated_rear",
        "leaf_rear",
        "twist_beam_rear",
    ]
    .into_iter()
    .map(|(name, text)| {
        let a: Archetype = parse_json(text)?;
        match bold_stance_kinematics::linkage::problems(&a.geometry).into_iter().next() {
            Some(p) => Err(Problem::new(format!("{name}.{}", p.field), p.wrong, p.right)),
            None => Ok(a),
        }
    })
    .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use bold_stance_kinematics::geometry::{Axle, Layout, Side};
    use bold_stance_kinematics::linkage::{Corner, Linkage};

    #[test]
    fn every_shape_moves_over_its_usual_travel_and_stands_on_the_ground() {
        let all = shipped_archetypes().unwrap();
        assert!(all.len() >= 12);
        for a in &all {
            assert!(a.geometry.remarks().is_empty(), "{}", a.id);
            for side in Side::BOTH {
                let c = Corner::of(&a.geometry, side);
                for t in [-80.0, -40.0, 0.0, 40.0, 70.0] {
                    c.wheel(t, 0.0).unwrap_or_else(|e| panic!("{}: {e}", a.id));
                }
            }
            let steers = Corner::of(&a.geometry, Side::Left).is_steered();
            assert!(a.geometry.axle == Axle::Rear || steers, "{} steers", a.id);
        }
        for l in Layout::ALL {
            assert!(all.iter().any(|a| a.geometry.layout() == l), "{l:?}");
        }
    }

    #[test]
    fn each_can_be_taped_in_at_least_four_places() {
        for a in shipped_archetypes().unwrap() {
            assert!(a.measures().len() >= 4, "{}: {:?}", a.id, a.measures());
        }
    }
}
