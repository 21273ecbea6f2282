//! The `bold-stance.wear/1` case: one tyre in, one forecast out.

use super::band::{Band, Belief, RatioBand, Running, TreadReading, band_km, carry, ratio_band, update};
use super::basis::Basis;
use super::forecast::{Irregular, Setup, Shares, Upkeep, Wheel, forecast, irregular, is_outside, shares};
use super::parameters::Parameters;
use super::tyre::Tyre;
use super::uses::UseMix;
use bold_stance_car::vehicle::Rotated;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// Another setup of the same wheel to compare with.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct WearOther {
    /// Its camber and toe.
    pub setups: Vec<Setup>,
    /// The car was realigned to it, so that reading errors of the old setup do not carry over.
    #[serde(default)]
    pub realigned: bool,
}

/// One tyre on one wheel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct WearCase {
    /// Always `bold-stance.wear/1`.
    pub format: String,
    /// Size and compound.
    pub tyre: Tyre,
    /// Load and drive.
    pub wheel: Wheel,
    /// Named use or a weighted list.
    #[serde(rename = "use")]
    pub use_: UseMix,
    /// Depth at which the tyre is done, mm.
    pub limit_mm: f64,
    /// What the wear constant is fixed by.
    #[serde(default)]
    pub basis: Basis,
    /// Camber and toe with time weights.
    pub setups: Vec<Setup>,
    /// Depths measured on this tyre.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub readings: Option<Vec<TreadReading>>,
    /// Another setup of the same wheel.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub compare_to: Option<WearOther>,
    /// Rotation record, for the irregular-wear score; now and then when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub rotated: Option<Rotated>,
    /// Worn dampers, for the irregular-wear score.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub worn_dampers: bool,
    /// Free remark.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// What comes of a case.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WearResult {
    /// mm per 1000 km, inner edge first, 21 strips.
    pub rate_mm_per_1000km: Vec<f64>,
    /// Wheel centre above the ground, m.
    pub loaded_radius_m: f64,
    /// Until the worst strip meets the limit, km.
    pub life_km: f64,
    /// The same over the grooves.
    pub groove_life_km: f64,
    /// −1…1, toe-in positive.
    pub feather: f64,
    /// J/m² per contact pass.
    pub mean_energy_j_m2: f64,
    /// Why the worst strip wears.
    pub shares: Shares,
    /// 80 % band of the worst strip's distance, km.
    pub band_km: Band,
    /// Irregular-wear score.
    pub irregular: Irregular,
    /// Distance at which the worst strip meets the limit when the car runs at `compare_to` after the last reading, km
    /// since new; only with readings.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub changed_band_km: Option<Band>,
    /// Distance of `compare_to` over this setup's.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub ratio_band: Option<RatioBand>,
    /// Depth when new, mm.
    pub new_depth_mm: f64,
    /// Remarks: outside what the model was set for.
    pub notes: Vec<String>,
}

pub(crate) fn setup_problems(at: &str, setups: &[Setup], out: &mut Vec<Problem>) {
    if setups.is_empty() || setups.len() > 12 {
        out.push(Problem::new(
            at,
            said("fault-setups").count("n", setups.len()),
            said("fault-one-twelve-setups"),
        ));
        return;
    }
    for (i, s) in setups.iter().enumerate() {
        out.extend(in_range(&format!("{at}.{i}.camber_deg"), s.camber_deg, -12.0, 12.0, "°").err());
        out.extend(in_range(&format!("{at}.{i}.toe_deg"), s.toe_deg, -3.0, 3.0, "°").err());
        out.extend(in_range(&format!("{at}.{i}.share"), s.share, 0.0, 1e6, "").err());
    }
    if setups.iter().map(|s| s.share).sum::<f64>() <= 0.0 {
        out.push(Problem::new(
            format!("{at}.0.share"),
            said("fault-all-shares-zero"),
            said("fault-share-above-zero"),
        ));
    }
}

impl WearCase {
    /// Everything wrong with the case, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.format != "bold-stance.wear/1" {
            out.push(Problem::new(
                "format",
                said("fault-quoted").name("value", self.format.clone()),
                said("fault-bold-stance-wear-1"),
            ));
        }
        out.extend(self.tyre.problems());
        out.extend(self.wheel.problems());
        out.extend(self.use_.problem());
        out.extend(self.basis.problems(&self.tyre));
        out.extend(in_range("limit_mm", self.limit_mm, 0.0, self.tyre.new_depth().max(0.1), "mm").err());
        setup_problems("setups", &self.setups, &mut out);
        if let Some(c) = &self.compare_to {
            setup_problems("compare_to.setups", &c.setups, &mut out);
        }
        for (i, r) in self.readings.iter().flatten().enumerate() {
            out.extend(in_range(&format!("readings.{i}.km"), r.km, 0.0, 500_000.0, "km").err());
            for (j, d) in r.depths_mm.iter().enumerate() {
                out.extend(in_range(&format!("readings.{i}.depths_mm.{j}"), *d, 0.0, 30.0, "mm").err());
            }
        }
        out
    }
}

/// Computes a case.
///
/// # Errors
/// The first [`Problem`] of the case.
pub fn run(case: &WearCase) -> Result<WearResult, Problem> {
    if let Some(p) = case.problems().into_iter().next() {
        return Err(p);
    }
    let k = case.basis.constant(&case.tyre, &case.wheel, None, &Parameters::default());
    let f = forecast(&case.tyre, &case.wheel, &case.setups, &case.use_, k, case.limit_mm);
    let belief_of = |setups: &[Setup]| {
        let r = Running { wheel: case.wheel.clone(), setups: setups.to_vec(), share: 1.0, flipped: false };
        Belief::of(&case.tyre, &[r], &case.use_, case.limit_mm, &case.basis)
    };
    let prior = belief_of(&case.setups);
    let read = case.readings.as_deref().filter(|r| !r.is_empty());
    let belief = read.map_or_else(|| prior.clone(), |r| update(&prior, r));
    let other = case.compare_to.as_ref().map(|o| (belief_of(&o.setups), o.realigned));
    let ratio = other.as_ref().map(|(o, _)| ratio_band(&prior, o));
    let changed = other.as_ref().and_then(|(o, r)| read.map(|_| carry(&belief, o, *r).band));
    let upkeep = Upkeep {
        rotated: case.rotated.unwrap_or(Upkeep::default().rotated),
        worn_dampers: case.worn_dampers,
    };
    let mut notes = Vec::new();
    if is_outside(&case.wheel, &case.setups) {
        notes.push(
            "outside what the model was set for: camber past −5°, toe past 1° a wheel, or driven below 75 % of the \
             placard pressure"
                .into(),
        );
    }
    Ok(WearResult {
        rate_mm_per_1000km: f.rate_mm_per_1000km,
        loaded_radius_m: f.loaded_radius_m,
        life_km: f.life_km,
        groove_life_km: f.groove_life_km,
        feather: f.feather,
        mean_energy_j_m2: f.mean_energy_j_m2,
        shares: shares(&case.tyre, &case.wheel, &case.setups, &case.use_),
        band_km: band_km(&belief),
        irregular: irregular(&case.tyre, &case.wheel, &case.setups, &case.use_, &upkeep),
        changed_band_km: changed,
        ratio_band: ratio,
        new_depth_mm: case.tyre.new_depth(),
        notes,
    })
}
