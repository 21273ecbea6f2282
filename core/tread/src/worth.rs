//! What one change is worth, in distance and in money a year.

use super::band::{Band, Belief, RatioBand, Running, ratio_band};
use super::basis::Basis;
use super::forecast::{Setup, Wheel};
use super::tyre::Tyre;
use super::uses::UseMix;
use bold_stance_units::said::{Measure, Said, said};
use serde::{Deserialize, Serialize};

/// Toe a tyre is held to when nothing else counts, degrees a wheel in (common practice, no source).
const CALM_TOE: f64 = 0.05;
/// Step of camber whose worth is told, degrees.
const CAMBER_STEP: f64 = 0.2;

/// Price of a tyre and distance a year.
#[derive(Debug, Clone, Copy)]
pub struct Money {
    /// Of one tyre, in the shop's currency.
    pub price: f64,
    /// km a year.
    pub yearly_km: f64,
}

/// One change and what it is worth.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Lever {
    /// `toe`, `camber`, `pressure`, `use`.
    pub id: String,
    /// What is done.
    pub title: Said,
    /// From what to what.
    pub detail: Said,
    /// Distance with the change over distance without, 80 % band.
    pub ratio: RatioBand,
    /// Distance gained on this tyre, km; may be negative.
    pub gain_km: f64,
    /// Money saved a year on this tyre, in the shop's currency; none without price and yearly distance.
    pub saves_a_year: Option<f64>,
}

/// Toe of one wheel, degrees: how much, and which way.
fn toe(v: f64) -> Said {
    said(if v < -0.004 { "toe-out" } else { "toe-in" }).deg("toe", v.abs(), 2)
}

/// Every change looked at, most worth first; those that move nothing are left out.
#[allow(clippy::too_many_arguments)]
pub(crate) fn levers(
    tyre: &Tyre,
    wheel: &Wheel,
    setups: &[Setup],
    mix: &UseMix,
    now: &Belief,
    left: &Band,
    money: &Money,
    basis: &Basis,
    limit_mm: f64,
) -> Vec<Lever> {
    let total: f64 = setups.iter().map(|s| s.share).sum();
    let mean = |f: fn(&Setup) -> f64| setups.iter().map(|s| s.share * f(s)).sum::<f64>() / total;
    let (camber, toe_now) = (mean(|s| s.camber_deg), mean(|s| s.toe_deg));
    let shifted = |d_camber: f64, d_toe: f64| -> Vec<Setup> {
        setups
            .iter()
            .map(|s| Setup {
                camber_deg: s.camber_deg + d_camber,
                toe_deg: s.toe_deg + d_toe,
                share: s.share,
            })
            .collect()
    };
    let mut out = Vec::new();
    let mut add = |id: &str, title: Said, detail: Said, w: Wheel, s: Vec<Setup>| {
        let run = Running { wheel: w, setups: s, share: 1.0, flipped: false };
        let then = Belief::of(tyre, &[run], mix, limit_mm, basis);
        let ratio = ratio_band(now, &then);
        let life = left.median.max(0.0);
        let gain_km = life * (ratio.ratio - 1.0);
        let saves_a_year = (money.price > 0.0 && money.yearly_km > 0.0 && life > 0.0)
            .then(|| money.price * money.yearly_km * (1.0 / life - 1.0 / (life + gain_km)));
        out.push(Lever { id: id.into(), title, detail, ratio, gain_km, saves_a_year });
    };
    let calm = CALM_TOE;
    if (toe_now - calm).abs() > 0.02 {
        add(
            "toe",
            said("lever-toe").say("toe", toe(calm)),
            said("lever-toe-now").say("toe", toe(toe_now)),
            wheel.clone(),
            shifted(0.0, calm - toe_now),
        );
    }
    let step = if camber < 0.0 { CAMBER_STEP.min(-camber) } else { -CAMBER_STEP.min(camber) };
    if step.abs() > 0.04 {
        let id = if camber < 0.0 { "lever-camber-less-negative" } else { "lever-camber-less-positive" };
        add(
            "camber",
            said(id).deg("by", step.abs(), 1),
            said("lever-from-to").change_deg("from", camber, 1).change_deg("to", camber + step, 1),
            wheel.clone(),
            shifted(step, 0.0),
        );
    }
    if (wheel.pressure_kpa / wheel.placard_kpa - 1.0).abs() > 0.02 {
        add(
            "pressure",
            said("lever-pressure"),
            said("lever-pressure-from-to").of("from", Measure::Kpa, wheel.pressure_kpa, 0).of(
                "to",
                Measure::Kpa,
                wheel.placard_kpa,
                0,
            ),
            Wheel { pressure_kpa: wheel.placard_kpa, ..wheel.clone() },
            setups.to_vec(),
        );
    }
    if setups.len() > 1 {
        // All of the distance at the height that is kindest.
        let best = setups.iter().copied().max_by(|a, b| {
            let of = |s: &Setup| {
                let run = Running { wheel: wheel.clone(), setups: vec![*s], share: 1.0, flipped: false };
                let r = Belief::rates(tyre, &[run], mix, basis);
                -r.into_iter().fold(0.0, f64::max)
            };
            of(a).total_cmp(&of(b))
        });
        if let Some(s) = best {
            add(
                "height",
                said("lever-height"),
                said("lever-height-at").change_deg("camber", s.camber_deg, 1).say("toe", toe(s.toe_deg)),
                wheel.clone(),
                vec![Setup { share: 1.0, ..s }],
            );
        }
    }
    out.sort_by(|a, b| b.gain_km.total_cmp(&a.gain_km));
    out
}
