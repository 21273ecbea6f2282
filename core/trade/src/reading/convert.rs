//! From the numbers of a method to its value: one place for what every conversion gives back.

use super::entries::Given;
use super::method::Method;
use super::raw::{Known, Raw};
use super::{axle, camber, caster, toe, wheel};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// Converts numbers to the value of a method.
///
/// # Errors
/// A [`Problem`] at the entry that is missing or impossible.
pub fn value(method: Method, g: &Given, known: &Known) -> Result<Raw, Problem> {
    match method {
        Method::HeightHub
        | Method::HeightFloor
        | Method::HeightFrame
        | Method::Wheelbase
        | Method::Diagonal
        | Method::Pressure => Ok(Raw::of(g.num("value")?)),
        Method::CamberGauge | Method::CamberBar => camber::gauge(g, known.side),
        Method::CamberOffsets | Method::CamberLaser => camber::offsets(g),
        Method::CamberGap => camber::gap(g),
        Method::CamberCalliper => camber::over_circle(g, "gap", -1.0),
        Method::CamberForm => camber::over_circle(g, "offset", 1.0),
        Method::CamberRunout => camber::runout(g),
        Method::CamberLevel => camber::level(g),
        Method::CasterScale => caster::scale(g),
        Method::CasterSweep => caster::sweep(g, known),
        Method::CasterJointLine => caster::joint_line(g),
        Method::ToeDistance | Method::ToeScribed | Method::ToeBars | Method::ToePlates => toe::distance(g),
        Method::ToeRimGauge => toe::rim_gauge(g),
        Method::ToeString => toe::string(g),
        Method::ToeConvert => toe::convert(g),
        Method::RimRunout => wheel::rim_runout(g),
        Method::TreadDepth => wheel::tread(g),
        Method::RimCircle => wheel::rim_circle(g),
        Method::AxleCentring => axle::centring(g),
        Method::SetBack => axle::set_back(g),
        Method::Thrust => axle::thrust(g),
        Method::FloorSlope => axle::floor_slope(g),
    }
}

/// One part of a value's doubt.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DoubtPart {
    /// What it comes from; plain text in readings kept before.
    pub name: Said,
    /// Its standard deviation, in the value's unit.
    pub sigma: f64,
}

/// Standard deviation of a value from those of its numbers: every number moved by its own standard deviation
/// both ways (first-order propagation, as in the Guide to the Expression of Uncertainty in Measurement,
/// JCGM 100:2008, 5.1.2), plus the doubt of the formula.
///
/// # Errors
/// As [`value`].
pub fn doubt_parts(
    method: Method,
    g: &Given,
    known: &Known,
    label: &dyn Fn(&str) -> Said,
) -> Result<(Raw, Vec<DoubtPart>), Problem> {
    let raw = value(method, g, known)?;
    let mut parts = Vec::new();
    for (name, n) in g.numbers().filter(|(_, n)| n.sigma > 0.0) {
        let ends = [-1.0, 1.0].map(|s| value(method, &g.moved(name, s * n.sigma), known).map(|r| r.value));
        let sigma = match ends {
            [Ok(a), Ok(b)] => 0.5 * (b - a).abs(),
            [Ok(a), Err(_)] | [Err(_), Ok(a)] => (a - raw.value).abs(),
            [Err(_), Err(_)] => 0.0,
        };
        parts.push(DoubtPart { name: label(name), sigma });
    }
    if raw.model_sigma > 0.0 {
        parts.push(DoubtPart {
            name: raw.model_words.clone().unwrap_or_else(|| said("doubt-formula")),
            sigma: raw.model_sigma,
        });
    }
    Ok((raw, parts))
}

/// Parts together: the root of the sum of squares.
#[must_use]
pub fn together(parts: &[DoubtPart]) -> f64 {
    parts.iter().map(|p| p.sigma * p.sigma).sum::<f64>().sqrt()
}
