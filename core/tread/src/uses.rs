//! How the vehicle is driven: six kinds of running for each named use (hand-set, no source).

use bold_stance_car::vehicle::Use;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// One use, or several with weights.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(untagged)]
pub enum UseMix {
    /// One name.
    One(Use),
    /// Names and weights.
    Blend(Vec<(Use, f64)>),
}

#[cfg(feature = "openapi")]
impl utoipa::PartialSchema for UseMix {
    fn schema() -> utoipa::openapi::RefOr<utoipa::openapi::Schema> {
        use utoipa::openapi::schema::{ArrayBuilder, OneOfBuilder};
        // A pair of a name and its weight, told as a list: a client's types lose what is written as a pair.
        let pair = ArrayBuilder::new()
            .items(OneOfBuilder::new().item(Use::schema()).item(f64::schema()))
            .min_items(Some(2))
            .max_items(Some(2));
        OneOfBuilder::new().item(Use::schema()).item(ArrayBuilder::new().items(pair)).into()
    }
}

#[cfg(feature = "openapi")]
impl utoipa::ToSchema for UseMix {
    fn name() -> std::borrow::Cow<'static, str> {
        "UseMix".into()
    }
}

/// Share of distance, lateral g, longitudinal g, wheel steer in radians, abrasion.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Row {
    pub(crate) share: f64,
    pub(crate) ay: f64,
    pub(crate) ax: f64,
    pub(crate) steer: f64,
    pub(crate) abr: f64,
}

type Rows = [(f64, f64, f64, f64); 6];

const HIGHWAY: Rows = [
    (0.855, 0.0, 0.022, 0.0),
    (0.105, 0.06, 0.022, 1.0),
    (0.020, 0.18, 0.02, 3.0),
    (0.004, 0.15, 0.02, 15.0),
    (0.008, 0.0, 0.12, 0.0),
    (0.008, 0.0, -0.15, 0.0),
];
const MIXED: Rows = [
    (0.700, 0.0, 0.020, 0.0),
    (0.180, 0.08, 0.02, 1.0),
    (0.050, 0.20, 0.02, 3.0),
    (0.015, 0.15, 0.02, 15.0),
    (0.028, 0.0, 0.12, 0.0),
    (0.027, 0.0, -0.15, 0.0),
];
const CORNER_HEAVY: Rows = [
    (0.540, 0.0, 0.020, 0.0),
    (0.270, 0.10, 0.02, 1.0),
    (0.110, 0.25, 0.02, 3.0),
    (0.030, 0.17, 0.02, 15.0),
    (0.025, 0.0, 0.15, 0.0),
    (0.025, 0.0, -0.18, 0.0),
];
const TRAIL: Rows = [
    (0.600, 0.0, 0.050, 0.0),
    (0.180, 0.08, 0.05, 2.0),
    (0.060, 0.18, 0.05, 5.0),
    (0.080, 0.12, 0.05, 20.0),
    (0.040, 0.0, 0.12, 0.0),
    (0.040, 0.0, -0.12, 0.0),
];

impl UseMix {
    /// Names with weights that sum to 1.
    fn weights(&self) -> Vec<(Use, f64)> {
        match self {
            Self::One(u) => vec![(*u, 1.0)],
            Self::Blend(b) => {
                let sum: f64 = b.iter().map(|(_, w)| w).sum();
                b.iter().map(|(u, w)| (*u, w / sum)).collect()
            }
        }
    }

    /// Whether cornering or trail driving is part of it.
    #[must_use]
    pub fn is_hard(&self) -> bool {
        self.weights().iter().any(|(u, w)| *w >= 0.5 && matches!(u, Use::CornerHeavy | Use::Trail))
    }

    /// What is wrong with the weights.
    #[must_use]
    pub fn problem(&self) -> Option<Problem> {
        let Self::Blend(b) = self else { return None };
        let bad = b.is_empty()
            || b.len() > 8
            || b.iter().any(|(_, w)| !w.is_finite() || *w < 0.0 || *w > 1e6)
            || b.iter().map(|(_, w)| w).sum::<f64>() <= 0.0;
        bad.then(|| {
            Problem::new("use", said("fault-weights-cannot-used"), said("fault-names-weights-zero-more-do"))
        })
    }
}

/// The rows of a mix, shares scaled by the weights.
#[must_use]
pub fn mix_rows(mix: &UseMix) -> Vec<Row> {
    let mut out = Vec::with_capacity(12);
    for (name, weight) in mix.weights() {
        let (rows, abr) = match name {
            Use::Highway => (HIGHWAY, 1.0),
            Use::Mixed => (MIXED, 1.0),
            Use::CornerHeavy => (CORNER_HEAVY, 1.0),
            Use::Trail => (TRAIL, 1.5),
        };
        out.extend(rows.into_iter().map(|(share, ay, ax, steer)| Row {
            share: share * weight,
            ay,
            ax,
            steer: steer.to_radians(),
            abr,
        }));
    }
    out
}
