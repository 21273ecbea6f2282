//! States an axle's tyres run in, each with camber and caster of both wheels and half the total toe.

use super::forecast::Setup;
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_units::said::Said;

/// Where an axle's wheels stand for a share of the distance.
#[derive(Debug, Clone, PartialEq)]
pub struct Run {
    /// Camber of each wheel, degrees, top out positive.
    pub camber_deg: Sides<f64>,
    /// Half the total toe, degrees, toe-in positive: running straight the car crabs until both tyres slip alike.
    pub toe_deg: f64,
    /// Share of the distance, 0 to 1.
    pub share: f64,
}

/// A state of an axle.
#[derive(Debug, Clone, PartialEq)]
pub struct AxleScene {
    /// `found`, `unset`, `set`, `at-…` for a height, `mix`, `other` for a second plan.
    pub id: String,
    /// What the screen calls it.
    pub title: Said,
    /// Where its wheels stand, with shares.
    pub runs: Vec<Run>,
    /// Caster of each wheel, degrees.
    pub caster_deg: Sides<f64>,
}

/// States of a car's tyres.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Scenes {
    /// Of each axle; none where it was not read.
    pub axles: Axles<Option<Vec<AxleScene>>>,
    /// A second plan's leading state of each axle.
    pub other: Axles<Option<AxleScene>>,
    /// Names of the heights a mix can be made of.
    pub heights: Vec<String>,
}

/// The state that leads: the mix of heights, else set.
#[must_use]
pub fn leading(scenes: &[AxleScene]) -> usize {
    let at = |id: &str| scenes.iter().position(|s| s.id == id);
    at("mix").or_else(|| at("set")).unwrap_or(0)
}

impl AxleScene {
    /// What the forward model takes, of the left (0) or right (1) tyre.
    pub(crate) fn setups(&self, side: usize) -> Vec<Setup> {
        let camber = |r: &Run| if side == 0 { r.camber_deg.left } else { r.camber_deg.right };
        self.runs
            .iter()
            .map(|r| Setup { camber_deg: camber(r), toe_deg: r.toe_deg, share: r.share })
            .collect()
    }

    /// Caster of the left (0) or right (1) wheel, degrees.
    pub(crate) fn caster(&self, side: usize) -> f64 {
        if side == 0 { self.caster_deg.left } else { self.caster_deg.right }
    }
}
