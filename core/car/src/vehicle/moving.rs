//! A wheel measured moving: its angles at several heights on a jack.

use super::ToldSigmas;
use bold_stance_kinematics::geometry::Side;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// Most heights one wheel is measured at.
pub const MOST_HEIGHTS: usize = 7;
/// Fewest that say more than a reading does.
pub const FEWEST_HEIGHTS: usize = 3;

/// A wheel at one height.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct MovedRow {
    /// Hub centre to arch lip as it was held, mm.
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 1500.0))]
    pub height_mm: f64,
    /// Top out positive, degrees.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(minimum = -20.0, maximum = 20.0))]
    pub camber_deg: Option<f64>,
    /// Top rearward positive, degrees; where it was swept.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(minimum = -20.0, maximum = 20.0))]
    pub caster_deg: Option<f64>,
    /// Of this wheel, toe-in positive, degrees.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(minimum = -20.0, maximum = 20.0))]
    pub toe_deg: Option<f64>,
    /// Standard deviations of the readings, degrees; the usual ones where they are not told.
    #[serde(default)]
    pub sigma: ToldSigmas,
}

/// One wheel of an axle measured moving.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Moving {
    /// Which wheel.
    pub side: Side,
    /// At each height.
    pub rows: Vec<MovedRow>,
}

impl Moving {
    /// Everything out of range, by field under `at`; `steers` says whether it has a caster.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.rows.len() > MOST_HEIGHTS {
            let right = said("fault-heights-moving").count("few", FEWEST_HEIGHTS).count("most", MOST_HEIGHTS);
            out.push(Problem::new(
                format!("{at}rows"),
                said("fault-heights").count("n", self.rows.len()),
                right,
            ));
        }
        for (i, r) in self.rows.iter().enumerate() {
            let mut check = |f: &str, v: Option<f64>, low: f64, high: f64, unit: &str| {
                out.extend(v.and_then(|v| in_range(&format!("{at}rows.{i}.{f}"), v, low, high, unit).err()));
            };
            check("height_mm", Some(r.height_mm), 50.0, 1500.0, "mm");
            check("camber_deg", r.camber_deg, -20.0, 20.0, "°");
            check("caster_deg", r.caster_deg, -20.0, 20.0, "°");
            check("toe_deg", r.toe_deg, -20.0, 20.0, "°");
            for (f, s) in [
                ("sigma.camber_deg", r.sigma.camber_deg),
                ("sigma.caster_deg", r.sigma.caster_deg),
                ("sigma.toe_deg", r.sigma.toe_deg),
            ] {
                check(f, s, 0.001, 5.0, "°");
            }
        }
        out
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::vehicle::{Sigmas, USUAL_SIGMAS};

    #[test]
    fn too_many_heights_and_wild_angles_are_named() {
        let sigma = ToldSigmas { camber_deg: Some(0.2), ..ToldSigmas::default() };
        assert_eq!(sigma.or_usual(), Sigmas { camber_deg: 0.2, ..USUAL_SIGMAS });
        let row =
            MovedRow { height_mm: 500.0, camber_deg: Some(0.1), caster_deg: None, toe_deg: None, sigma };
        let m = Moving { side: Side::Left, rows: vec![row; 8] };
        assert_eq!(m.problems("moving.")[0].field, "moving.rows");
        let wild = MovedRow { camber_deg: Some(80.0), height_mm: 3.0, ..row };
        let m = Moving { side: Side::Left, rows: vec![row, wild] };
        let fields: Vec<String> = m.problems("m.").into_iter().map(|p| p.field).collect();
        assert_eq!(fields, ["m.rows.1.height_mm", "m.rows.1.camber_deg"]);
    }
}
