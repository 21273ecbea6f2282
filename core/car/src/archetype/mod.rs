//! Generic axles to start from, each scaled to a car by a few tape measurements.
//!
//! The shapes are invented and typical of their kind. The fit is the most probable shape given the tape:
//! every coordinate may move by what an archetype does not know ([`crate::fit::spreads`]) and the whole by a
//! tenth in each direction, and the measurements pull it (maximum a posteriori, Gauss–Newton in the dual
//! form, e.g. Gelb, Applied Optimal Estimation; Bishop, Pattern Recognition and Machine Learning).

mod fit;

pub use bold_stance_kinematics::geometry::Measure;
pub use fit::{Fitted, Taped, TapedResult, fit_archetype};

use crate::adjuster::{Held, Offered, TurnKind, offers};
use crate::vehicle::HeightKind;
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
    /// What such a car usually is.
    pub usual: UsualCar,
    /// The shape.
    pub geometry: Geometry,
}

/// What a car of such an axle usually is, until it is told (common practice, no source).
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct UsualCar {
    /// What can be turned as built, each as a kind and a place: `cam lower_front`.
    pub adjusters: Vec<String>,
    /// Knock-out tabs are usually still in the slots of its cams.
    #[serde(default)]
    pub tabs: bool,
    /// Whether the upper arm sits on a cross shaft, behind which shims go.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub upper_shaft: Option<bool>,
    /// Tyre size.
    pub tyre_size: String,
    /// Tread compound, by its word.
    pub tyre_class: String,
    /// Depth of a new tyre of it, mm.
    pub tread_depth_mm: f64,
    /// Axle to axle, mm; of a front shape.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wheelbase_mm: Option<f64>,
    /// Load of one of its wheels, N.
    pub load_n: f64,
    /// Hub-to-arch height, mm.
    pub height_mm: f64,
    /// Driven axle, by its word.
    pub drive: String,
    /// Outline, by its word.
    pub silhouette: String,
    /// Aim, by its id.
    pub aim: String,
    /// What its height is turned by.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub height_by: Option<HeightKind>,
}

impl Archetype {
    /// What can usually be turned on it, each with what it is called; all where nobody looked yet.
    #[must_use]
    pub fn usual_adjusters(&self) -> Vec<Offered> {
        let offers = offers(&self.geometry.points);
        let find = |text: &String| {
            let (kind, place) = text.split_once(' ')?;
            let offer = offers.iter().find(|o| o.kind.word() == kind)?;
            let mut out = offer.places.iter().find(|p| p.adjuster.name == place)?.clone();
            if self.usual.tabs && offer.kind == TurnKind::Cam {
                // Tabs hold it in the middle of its slot.
                (out.adjuster.held, out.adjuster.unseen) = (Some(Held::TabsIn), false);
            }
            Some(out)
        };
        self.usual.adjusters.iter().filter_map(find).collect()
    }

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
        "upper_torsion_front",
        "lower_torsion_front",
        "classic_equal_front",
        "tall_knuckle_front",
        "slotted_hot_rod_front",
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
        "plain_multilink_rear",
        "rear_strut",
        "trailing_arm_rear",
        "swing_axle_rear",
        "track_bar_rear",
        "parallel_four_link_rear",
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
    fn each_has_the_adjusters_it_names_and_the_tyre_it_stands_on() {
        let all = shipped_archetypes().unwrap();
        assert!(all.len() >= 23, "{}", all.len());
        for a in &all {
            assert_eq!(a.usual_adjusters().len(), a.usual.adjusters.len(), "{}", a.id);
            let size = crate::vehicle::TyreSize::parse("t", &a.usual.tyre_size).unwrap();
            let fault = size.loaded_radius_problem("r", a.geometry.wheel.loaded_radius_mm);
            assert!(fault.is_none(), "{}: {fault:?}", a.id);
            assert_eq!(a.usual.adjusters.is_empty(), a.usual_adjusters().is_empty(), "{}", a.id);
        }
        let torsion = all.iter().find(|a| a.id == "upper_torsion_front").unwrap().usual_adjusters();
        assert_eq!(torsion[0].adjuster.held, Some(Held::TabsIn));
        assert_eq!(torsion[2].adjuster.held, None, "a rod has no tabs");
    }

    #[test]
    fn each_can_be_taped_in_at_least_four_places() {
        for a in shipped_archetypes().unwrap() {
            assert!(a.measures().len() >= 4, "{}: {:?}", a.id, a.measures());
        }
    }
}
