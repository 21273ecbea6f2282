//! What the specialist wants the angles to be, as windows with a reason.

use crate::problem::{Problem, in_range, parse_json};
use serde::{Deserialize, Serialize};

/// Low and high end, degrees.
pub type Window = [f64; 2];

/// A school of aims; all windows are editable.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Aim {
    /// Stable word.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Why one would want it.
    pub reason: String,
    /// Front camber, degrees, each side.
    pub camber_deg: [f64; 2],
    /// Front caster, degrees, each side.
    pub caster_deg: [f64; 2],
    /// Front total toe, degrees, toe-in positive.
    pub toe_total_deg: [f64; 2],
    /// Most left-minus-right camber in size, degrees.
    pub cross_camber_deg: f64,
    /// Most left-minus-right caster in size, degrees.
    pub cross_caster_deg: f64,
}

impl Aim {
    /// Toe window of one wheel: half the total.
    #[must_use]
    pub fn wheel_toe(&self) -> Window {
        [self.toe_total_deg[0] / 2.0, self.toe_total_deg[1] / 2.0]
    }

    /// What is wrong with it, by field under `aim`.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        for (name, w, low, high) in [
            ("camber_deg", self.camber_deg, -12.0, 12.0),
            ("caster_deg", self.caster_deg, -10.0, 20.0),
            ("toe_total_deg", self.toe_total_deg, -6.0, 6.0),
        ] {
            window_problem(&format!("aim.{name}"), w, low, high, &mut out);
        }
        for (name, v) in
            [("cross_camber_deg", self.cross_camber_deg), ("cross_caster_deg", self.cross_caster_deg)]
        {
            out.extend(in_range(&format!("aim.{name}"), v, 0.05, 10.0, "°").err());
        }
        out
    }
}

/// Checks a window's numbers and order.
pub(crate) fn window_problem(field: &str, w: Window, low: f64, high: f64, out: &mut Vec<Problem>) {
    for (i, v) in w.iter().enumerate() {
        out.extend(in_range(&format!("{field}.{i}"), *v, low, high, "°").err());
    }
    if w[0] > w[1] {
        out.push(Problem::new(
            format!("{field}.1"),
            format!("the window runs backwards, {} to {}", w[0], w[1]),
            "a high end at or above the low end",
        ));
    }
}

/// The aims that ship with the program.
///
/// # Errors
/// The first [`Problem`], with the path in `data/aims.json`.
pub fn shipped_aims() -> Result<Vec<Aim>, Problem> {
    let aims: Vec<Aim> = parse_json(include_bytes!("../../../../data/aims.json"))?;
    match aims.iter().flat_map(Aim::problems).next() {
        Some(p) => Err(p),
        None => Ok(aims),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn three_aims_ship_and_are_sound() {
        let aims = shipped_aims().unwrap();
        let ids: Vec<_> = aims.iter().map(|a| a.id.as_str()).collect();
        assert_eq!(ids, ["loaded-truck", "even-wear", "trail"]);
    }

    #[test]
    fn a_backward_window_is_named() {
        let mut a = shipped_aims().unwrap().remove(0);
        a.caster_deg = [5.0, 3.0];
        assert_eq!(a.problems()[0].field, "aim.caster_deg.1");
    }
}
