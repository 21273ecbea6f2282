//! The front axle's tread before and after setting, from a plan answer.

use super::band::{Band, Belief, RatioBand, band_km, ratio_band};
use super::forecast::{Basis, Setup, Shares, Wheel, calibrate, forecast};
use super::tyre::{Tyre, TyreClass};
use super::uses::{Use, UseMix};
use super::{WearCase, run};
use crate::plan::{PlanResult, SidePlan};
use crate::problem::Problem;
use crate::vehicle::TyreSize;
use crate::wheel::Alignment;
use serde::{Deserialize, Serialize};

/// What the forecast needs beside the angles.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AxleWearCase {
    /// Nominal size.
    pub tyre_size: String,
    /// Compound.
    pub tyre_class: TyreClass,
    /// Depth it starts from, mm.
    pub tread_depth_mm: f64,
    /// Depth at which the tyre is done, mm.
    pub limit_mm: f64,
    /// Load on one wheel, N.
    pub load_n: f64,
    /// Pressure, kPa.
    pub pressure_kpa: f64,
    /// Placard pressure, kPa.
    pub placard_kpa: f64,
    /// 1 front drive, 0.5 both, 0 rear.
    pub drive_share: f64,
    /// How it is driven.
    #[serde(rename = "use")]
    pub use_: Use,
    /// Load transfer per g: 0.85 pickup, 0.7 car, 0.6 low sports.
    pub load_transfer_per_g: f64,
}

/// One tyre at one state.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TyreWear {
    /// Camber, degrees.
    pub camber_deg: f64,
    /// Half the axle's total toe, degrees.
    pub toe_deg: f64,
    /// mm per 1000 km, inner edge first, 21 strips.
    pub rate_mm_per_1000km: Vec<f64>,
    /// Until the worst strip meets the limit, 80 % band, km.
    pub band_km: Band,
    /// The worst strip: `inner edge`, `centre`, `outer edge`.
    pub worst: String,
    /// Why it wears there.
    pub shares: Shares,
    /// Feathering, −1…1.
    pub feather: f64,
    /// Irregular-wear word: `low`, `watch`, `high`.
    pub irregular: String,
    /// Distance of the set state over this one.
    pub ratio_to_set: RatioBand,
}

/// Both tyres as found, planned but not set, and set.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AxleWear {
    /// Left: as found, not set, set.
    pub left: Vec<TyreWear>,
    /// Right: as found, not set, set.
    pub right: Vec<TyreWear>,
    /// What the model cannot tell.
    pub notes: Vec<String>,
}

fn place(strip: usize) -> &'static str {
    match strip {
        0..=6 => "inner edge",
        7..=13 => "centre",
        _ => "outer edge",
    }
}

fn wheel(c: &AxleWearCase, caster_deg: f64) -> Wheel {
    Wheel {
        load_n: c.load_n,
        pressure_kpa: c.pressure_kpa,
        placard_kpa: c.placard_kpa,
        placard_load_n: None,
        axle_share: 0.57,
        drive_share: c.drive_share,
        brake_share: 0.68,
        torque_factor: 1.0,
        regen: false,
        load_transfer_per_g: c.load_transfer_per_g,
        roll_camber_deg_per_g: 2.5,
        caster_deg,
        loaded_radius_mm: None,
    }
}

fn tyre_of(c: &AxleWearCase) -> Result<Tyre, Problem> {
    let size = TyreSize::parse("tyres.tyre_size", &c.tyre_size)?;
    Ok(Tyre {
        section_mm: size.section_mm,
        aspect: size.aspect,
        rim_in: size.rim_in,
        class: c.tyre_class,
        new_depth_mm: Some(c.tread_depth_mm),
        tread_width_mm: None,
    })
}

/// Distance until one tyre's worst strip meets the limit, km, without a band; `None` for a size that is none.
#[must_use]
pub fn life_of(c: &AxleWearCase, camber_deg: f64, toe_deg: f64, caster_deg: f64) -> Option<f64> {
    let tyre = tyre_of(c).ok()?;
    let setups = [Setup { camber_deg, toe_deg, share: 1.0 }];
    let k = calibrate(c.tyre_class);
    Some(forecast(&tyre, &wheel(c, caster_deg), &setups, &UseMix::One(c.use_), k, c.limit_mm).life_km)
}

/// The same with its 80 % band.
#[must_use]
pub fn life_band(c: &AxleWearCase, camber_deg: f64, toe_deg: f64, caster_deg: f64) -> Option<Band> {
    let tyre = tyre_of(c).ok()?;
    let setups = [Setup { camber_deg, toe_deg, share: 1.0 }];
    let belief = Belief::prior(&tyre, &wheel(c, caster_deg), &setups, &UseMix::One(c.use_), c.limit_mm);
    Some(band_km(&belief))
}

/// Forecasts a plan's front tyres.
///
/// # Errors
/// The first [`Problem`], by field.
pub fn axle_wear(c: &AxleWearCase, plan: &PlanResult) -> Result<AxleWear, Problem> {
    let tyre = tyre_of(c)?;
    let states: [fn(&SidePlan) -> &Alignment; 3] = [|s| &s.before, |s| &s.after, |s| &s.set];
    let side = |s: &SidePlan| -> Result<Vec<TyreWear>, Problem> {
        let cases: Vec<WearCase> = states
            .iter()
            .map(|of| {
                // Running straight the car crabs until both slip alike: each tyre gets half the total.
                let toe_deg = 0.5 * (of(&plan.left).toe_deg + of(&plan.right).toe_deg);
                let a = of(s);
                WearCase {
                    format: "bold-stance.wear/1".into(),
                    tyre: tyre.clone(),
                    wheel: wheel(c, a.caster_deg),
                    use_: UseMix::One(c.use_),
                    limit_mm: c.limit_mm,
                    basis: Basis::Class,
                    setups: vec![Setup { camber_deg: a.camber_deg, toe_deg, share: 1.0 }],
                    readings: None,
                    compare_to: None,
                    note: None,
                }
            })
            .collect();
        for case in &cases {
            if let Some(p) = case.problems().into_iter().next() {
                return Err(Problem::new(format!("tyres.{}", p.field), p.wrong, p.right));
            }
        }
        let beliefs: Vec<Belief> =
            cases.iter().map(|k| Belief::prior(&k.tyre, &k.wheel, &k.setups, &k.use_, k.limit_mm)).collect();
        cases
            .iter()
            .zip(&beliefs)
            .map(|(case, b)| {
                let r = run(case)?;
                let rate = &r.rate_mm_per_1000km;
                let worst = (0..rate.len()).fold(0, |w, i| if rate[i] > rate[w] { i } else { w });
                Ok(TyreWear {
                    camber_deg: case.setups[0].camber_deg,
                    toe_deg: case.setups[0].toe_deg,
                    worst: place(worst).into(),
                    shares: r.shares,
                    feather: r.feather,
                    irregular: r.irregular.word,
                    band_km: band_km(b),
                    ratio_to_set: ratio_band(b, &beliefs[2]),
                    rate_mm_per_1000km: r.rate_mm_per_1000km,
                })
            })
            .collect()
    };
    Ok(AxleWear {
        left: side(&plan.left)?,
        right: side(&plan.right)?,
        notes: vec![
            "Ratios between settings are firmer than distances.".into(),
            "Does not see: heel-and-toe, cupping, flat spots, worn joints, ageing, a tyre that wore under an old alignment.".into(),
        ],
    })
}
