//! The forward model: energy put into each of 21 strips, and what it wears.

use super::parameters::Parameters;
use super::tyre::{Tread, Tyre, TyreClass, tread_of};
use super::uses::{UseMix, mix_rows};
use bold_stance_car::vehicle::Rotated;
use bold_stance_car::vehicle::Use;
use bold_stance_units::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// Strips across the tread, inner edge first.
pub const STRIPS: usize = 21;

/// Wheel load, pressure and how the axle is driven.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Wheel {
    /// Wheel load, N.
    #[cfg_attr(feature = "openapi", schema(minimum = 200.0, maximum = 40_000.0))]
    pub load_n: f64,
    /// Pressure, kPa.
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 900.0))]
    pub pressure_kpa: f64,
    /// Placard pressure, kPa.
    #[cfg_attr(feature = "openapi", schema(minimum = 50.0, maximum = 900.0))]
    pub placard_kpa: f64,
    /// Load the placard is for, N; the wheel load when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(minimum = 200.0, maximum = 40_000.0))]
    pub placard_load_n: Option<f64>,
    /// The axle's share of the weight.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.05, maximum = 0.95))]
    pub axle_share: f64,
    /// 1 this axle drives, 0.5 both do, 0 neither.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 1.0))]
    pub drive_share: f64,
    /// The axle's share of braking.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 1.0))]
    pub brake_share: f64,
    /// 1, or 1.5 for high torque.
    #[serde(default = "one")]
    #[cfg_attr(feature = "openapi", schema(minimum = 0.5, maximum = 3.0))]
    pub torque_factor: f64,
    /// Whether lifting off brakes through the driven wheels.
    #[serde(default)]
    pub regen: bool,
    /// Load transfer per g.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 2.0))]
    pub load_transfer_per_g: f64,
    /// Camber from body roll, degrees per g.
    #[cfg_attr(feature = "openapi", schema(minimum = -10.0, maximum = 10.0))]
    pub roll_camber_deg_per_g: f64,
    /// Caster when steered, degrees.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(minimum = -15.0, maximum = 20.0))]
    pub caster_deg: f64,
    /// Measured loaded radius, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(minimum = 100.0, maximum = 900.0))]
    pub loaded_radius_mm: Option<f64>,
}

fn one() -> f64 {
    1.0
}

/// Camber and toe for a share of the time (ride-height levels, before and after settling).
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Setup {
    /// Degrees, top out positive.
    pub camber_deg: f64,
    /// Half the axle's total toe, degrees, toe-in positive.
    pub toe_deg: f64,
    /// Weight in time.
    #[serde(default = "one")]
    pub share: f64,
}

const E0: f64 = 10.0;

/// Position of strip `i` across the tread, −1 inner to +1 outer.
#[must_use]
pub fn eta(i: usize) -> f64 {
    (2.0 * i as f64 + 1.0) / STRIPS as f64 - 1.0
}

/// Sums of the forward model before the wear constant.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Raw {
    pub damage: [f64; STRIPS],
    pub energy: [f64; STRIPS],
    pub lateral: f64,
    pub radius_m: f64,
}

impl Raw {
    /// mm per 1000 km at wear constant `k`.
    pub fn rate(&self, k: f64) -> [f64; STRIPS] {
        let passes = 1e6 / (std::f64::consts::TAU * self.radius_m);
        self.damage.map(|d| k * d * passes)
    }
}

/// Brush force over load at slip `s`.
pub(crate) fn brush(c: f64, mu: f64, s: f64) -> f64 {
    let q = (c * s / (3.0 * mu)).min(1.0);
    mu * (1.0 - (1.0 - q).powi(3))
}

/// Slip that makes brush force `d`.
pub(crate) fn brush_inverse(c: f64, mu: f64, d: f64) -> f64 {
    3.0 * mu / c * (1.0 - (1.0 - d.min(0.9 * mu) / mu).cbrt())
}

/// Load of every strip over the mean load: bulged by pressure (`bulge`, shoulders up when positive), tilted by camber and
/// side force (`tilt`, outer edge up when positive). Never below zero, mean 1.
pub(crate) fn strip_loads(etas: &[f64; STRIPS], bulge: f64, tilt: f64) -> [f64; STRIPS] {
    let load = etas.map(|e| (1.0 + bulge * (3.0 * e * e - 1.0) / 2.0 + tilt * e).max(0.0));
    let scale = STRIPS as f64 / load.iter().sum::<f64>();
    load.map(|l| l * scale)
}

/// Runs the forward model on one wheel. The use severity `p.sev` scales events after they are told apart.
pub(crate) fn raw(tread: &Tread, w: &Wheel, setups: &[Setup], mix: &UseMix, p: &Parameters) -> Raw {
    let width = tread.w * p.width_scale;
    let c = tread.c * p.c_scale;
    let mu = p.mu;
    let kz = tread.stiffness(w.pressure_kpa) * p.kz_scale;
    let kz_ref = tread.stiffness(w.placard_kpa) * p.kz_scale;
    let delta0 = w.load_n / kz;
    let x = (delta0 / (w.placard_load_n.unwrap_or(w.load_n) / kz_ref) - 1.0).clamp(-0.6, 1.0);
    let radius_m = w.loaded_radius_mm.map_or(tread.od / 2.0 - delta0, |r| r * 1e-3);
    let delta = (tread.od / 2.0 - radius_m).max(0.004);
    let qbar = w.load_n / width;
    let sf = p.sig_free_deg.to_radians();
    let total: f64 = setups.iter().map(|s| s.share).sum();
    let etas: [f64; STRIPS] = std::array::from_fn(eta);
    let mut out = Raw { damage: [0.0; STRIPS], energy: [0.0; STRIPS], lateral: 0.0, radius_m };
    for row in mix_rows(mix) {
        let event = row.ax.abs() >= 0.1;
        let ay = row.ay * p.sev;
        let ax = if event { row.ax * p.sev } else { row.ax };
        let dx = if ax > 0.0 {
            ax * if event { w.torque_factor } else { 1.0 } * w.drive_share / w.axle_share
        } else if w.regen {
            ax * (0.5 * w.brake_share + 0.5 * w.drive_share) / w.axle_share
        } else {
            ax * w.brake_share / w.axle_share
        };
        let demand = dx.hypot(ay);
        let s0 = brush_inverse(c, mu, demand);
        let lt = (w.load_transfer_per_g * ay).clamp(-0.9, 0.9);
        let sides: &[f64] = if ay > 0.0 { &[1.0, -1.0] } else { &[1.0] };
        for &side in sides {
            let (ux, uy) = if demand > 0.0 { (dx / demand, side * ay / demand) } else { (0.0, 0.0) };
            for s in setups {
                let g = (s.camber_deg
                    + side * (w.roll_camber_deg_per_g * ay - w.caster_deg * row.steer.sin()))
                .to_radians();
                let sx0 = s0 * ux;
                let sy = s0 * uy + s.toe_deg.to_radians() * (1.0 - side * lt);
                let sm = (sx0 * sx0 + sy * sy + sf * sf).sqrt();
                let fy = brush(c, mu, sm) * sy / sm;
                let tau = p.kappa_g * (width / 2.0) * g.tan() / delta + p.k_f * fy;
                let load = strip_loads(&etas, p.b_p * x, tau);
                let half = width / 2.0;
                let y0 = load.iter().zip(etas).map(|(l, e)| l * e * half).sum::<f64>() / STRIPS as f64;
                let weight = row.share * s.share / total / sides.len() as f64;
                let sin_g = g.sin();
                let mut lateral = 0.0;
                for i in 0..STRIPS {
                    let sx = sx0 - p.spin * sin_g * (etas[i] * half - y0) / radius_m;
                    let slip = (sx * sx + sy * sy + sf * sf).sqrt();
                    let per_load = qbar * (1.0 + side * lt) * load[i] * brush(c, mu, slip);
                    let e = per_load * slip;
                    out.damage[i] += weight * row.abr * (e / E0).powf(p.n);
                    out.energy[i] += weight * e;
                    lateral += per_load * sy * sy.abs() / slip;
                }
                out.lateral += weight * lateral / STRIPS as f64;
            }
        }
    }
    out
}

/// Wear constant of a class: the reference car reaches the class life (`docs/TREAD_MODEL.md` section 3).
#[must_use]
pub fn calibrate(class: TyreClass) -> f64 {
    calibrate_with(class, &Parameters::default())
}

pub(crate) fn calibrate_with(class: TyreClass, p: &Parameters) -> f64 {
    let tyre = Tyre {
        section_mm: 215.0,
        aspect: 55.0,
        rim_in: 17.0,
        class,
        new_depth_mm: None,
        tread_width_mm: None,
    };
    let tread = tread_of(&tyre);
    let base = Wheel {
        load_n: 4600.0,
        pressure_kpa: 230.0,
        placard_kpa: 230.0,
        placard_load_n: None,
        axle_share: 0.6,
        drive_share: 1.0,
        brake_share: 0.70,
        torque_factor: 1.0,
        regen: false,
        load_transfer_per_g: 0.7,
        roll_camber_deg_per_g: 2.5,
        caster_deg: 5.0,
        loaded_radius_mm: None,
    };
    let rear = Wheel {
        load_n: 3070.0,
        axle_share: 0.4,
        drive_share: 0.0,
        brake_share: 0.30,
        caster_deg: 0.0,
        ..base.clone()
    };
    let flat = [Setup { camber_deg: 0.0, toe_deg: 0.0, share: 1.0 }];
    let at = Parameters { sev: 1.0, ..*p };
    let mix = UseMix::One(Use::Mixed);
    let a = raw(&tread, &base, &flat, &mix, &at).rate(1.0);
    let b = raw(&tread, &rear, &flat, &mix, &at).rate(1.0);
    let worst = (0..STRIPS).map(|i| 0.5 * (a[i] + b[i])).fold(0.0, f64::max);
    let (_, life, depth) = class.constants();
    (depth - 1.6) / (life / 1000.0 * worst)
}

/// A tyre's forecast.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Forecast {
    /// mm per 1000 km, inner edge first, 21 strips.
    pub rate_mm_per_1000km: Vec<f64>,
    /// Wheel centre above the ground, m.
    pub loaded_radius_m: f64,
    /// Distance until the worst strip meets the limit, km.
    pub life_km: f64,
    /// The same over the grooves only, where wear bars are, km.
    pub groove_life_km: f64,
    /// −1…1; above 0.15 in size the ribs feather, toe-in positive.
    pub feather: f64,
    /// Mean energy per contact pass, J/m².
    pub mean_energy_j_m2: f64,
}

/// Share of the placard pressure below which the model is not to be believed on a driven wheel: drive slip on a tyre
/// pressed so flat outweighs the lean, and the side that leans comes out as the one that lasts (a judgement of this
/// project, no source).
const LOW_PRESSURE: f64 = 0.75;

/// Whether a wheel and its settings lie outside what the model was set for: past 5° of camber in, past 1° of toe, or
/// driven on less than three quarters of the placard pressure.
#[must_use]
pub(crate) fn is_outside(w: &Wheel, setups: &[Setup]) -> bool {
    let flat = w.drive_share > 0.0 && w.pressure_kpa < LOW_PRESSURE * w.placard_kpa;
    flat || setups.iter().any(|s| s.camber_deg < -5.0 || s.toe_deg.abs() > 1.0)
}

/// Forecast from a given wear constant.
#[must_use]
pub fn forecast(tyre: &Tyre, w: &Wheel, setups: &[Setup], mix: &UseMix, k: f64, limit_mm: f64) -> Forecast {
    let r = raw(&tread_of(tyre), w, setups, mix, &Parameters::default());
    let rate = r.rate(k);
    let left = (tyre.new_depth() - limit_mm).max(0.0);
    let worst = rate.iter().copied().fold(0.0, f64::max);
    let groove = (0..STRIPS).filter(|i| eta(*i).abs() <= 0.75).map(|i| rate[i]).fold(0.0, f64::max);
    let mean = r.energy.iter().sum::<f64>() / STRIPS as f64;
    Forecast {
        rate_mm_per_1000km: rate.to_vec(),
        loaded_radius_m: r.radius_m,
        life_km: 1000.0 * left / worst,
        groove_life_km: 1000.0 * left / groove,
        feather: r.lateral / mean,
        mean_energy_j_m2: mean,
    }
}

/// Why the worst strip wears: Shapley shares that sum to 1; a helpful cause is negative.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Shares {
    /// What wears anyway.
    #[serde(rename = "use")]
    pub use_: f64,
    /// Toe.
    pub toe: f64,
    /// Camber.
    pub camber: f64,
    /// Pressure against the placard.
    pub pressure: f64,
}

/// Shapley shares at the worst strip.
#[must_use]
pub fn shares(tyre: &Tyre, w: &Wheel, setups: &[Setup], mix: &UseMix) -> Shares {
    shares_both(tyre, w, setups, mix).0
}

/// Shapley shares at the worst strip, and of the mean over the tread.
#[must_use]
pub fn shares_both(tyre: &Tyre, w: &Wheel, setups: &[Setup], mix: &UseMix) -> (Shares, Shares) {
    let tread = tread_of(tyre);
    let p = Parameters::default();
    let value = |toe: bool, camber: bool, pressure: bool| {
        let s: Vec<Setup> = setups
            .iter()
            .map(|s| Setup {
                camber_deg: if camber { s.camber_deg } else { 0.0 },
                toe_deg: if toe { s.toe_deg } else { 0.0 },
                share: s.share,
            })
            .collect();
        let mut wheel = w.clone();
        if !pressure {
            wheel.pressure_kpa = w.placard_kpa;
            wheel.placard_load_n = Some(w.load_n);
        }
        // As a rate, since the rolling radius differs with pressure.
        raw(&tread, &wheel, &s, mix, &p).rate(1.0)
    };
    let v: [[f64; STRIPS]; 8] = std::array::from_fn(|i| value(i & 1 != 0, i & 2 != 0, i & 4 != 0));
    let worst = (0..STRIPS).fold(0, |b, i| if v[7][i] > v[7][b] { i } else { b });
    (shapley(&v.map(|r| r[worst])), shapley(&v.map(|r| r.iter().sum::<f64>() / STRIPS as f64)))
}

/// Shapley shares of toe (bit 1), camber (bit 2) and pressure (bit 4) from the values of every coalition.
fn shapley(v: &[f64; 8]) -> Shares {
    let share = |bit: usize| {
        let (a, b) = match bit {
            1 => (2, 4),
            2 => (1, 4),
            _ => (1, 2),
        };
        (v[bit] - v[0]) / 3.0
            + (v[bit | a] - v[a]) / 6.0
            + (v[bit | b] - v[b]) / 6.0
            + (v[7] - v[a | b]) / 3.0
    };
    Shares { use_: v[0] / v[7], toe: share(1) / v[7], camber: share(2) / v[7], pressure: share(4) / v[7] }
}

/// Risk of irregular wear: points, not physics.
#[derive(Debug, Clone, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Irregular {
    /// 0 to 100.
    pub points: f64,
    /// `low`, `watch` or `high`.
    pub word: String,
    /// Points by cause.
    pub parts: Vec<(String, f64)>,
}

/// How the tyres and the car are looked after, as far as it bears on irregular wear.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Upkeep {
    /// Rotation record.
    pub rotated: Rotated,
    /// Dampers are worn.
    pub worn_dampers: bool,
}

impl Default for Upkeep {
    /// Nothing told: rotated now and then, sound dampers, as the specification counts a case that says nothing.
    fn default() -> Self {
        Self { rotated: Rotated::Some, worn_dampers: false }
    }
}

/// Scores irregular wear.
#[must_use]
pub fn irregular(tyre: &Tyre, w: &Wheel, setups: &[Setup], mix: &UseMix, upkeep: &Upkeep) -> Irregular {
    let total: f64 = setups.iter().map(|s| s.share).sum();
    let rms = |f: &dyn Fn(&Setup) -> f64| {
        (setups.iter().map(|s| s.share * f(s).powi(2)).sum::<f64>() / total).sqrt()
    };
    let toe = rms(&|s| s.toe_deg);
    let camber = rms(&|s| s.camber_deg);
    let tread = tread_of(tyre);
    let fz_ref = w.placard_load_n.unwrap_or(w.load_n);
    let x = (w.load_n / tread.stiffness(w.pressure_kpa)) / (fz_ref / tread.stiffness(w.placard_kpa)) - 1.0;
    let k = if w.drive_share > 0.0 { 40.0 } else { 160.0 };
    let all = [
        ("toe", (k * (toe - 0.05).max(0.0)).min(40.0)),
        ("pressure", (75.0 * (x.clamp(-0.6, 1.0).abs() - 0.05).max(0.0)).min(15.0)),
        match upkeep.rotated {
            Rotated::Never => ("no rotation record", 15.0),
            Rotated::Some => ("rotated now and then", 7.0),
            Rotated::Regular => ("rotated", 0.0),
        },
        ("light axle", if w.load_n < 0.7 * fz_ref { 10.0 } else { 0.0 }),
        ("camber", (5.0 * (camber - 1.0).max(0.0)).min(10.0)),
        ("open tread", if tyre.class == TyreClass::AllTerrain { 10.0 } else { 0.0 }),
        ("use", if mix.is_hard() { 5.0 } else { 0.0 }),
        ("worn dampers", if upkeep.worn_dampers { 20.0 } else { 0.0 }),
    ];
    let points = all.iter().map(|p| p.1).sum::<f64>().min(100.0);
    let word = if points < 20.0 {
        "low"
    } else if points < 45.0 {
        "watch"
    } else {
        "high"
    };
    let parts = all.iter().filter(|p| p.1 > 0.0).map(|p| (p.0.to_owned(), p.1)).collect();
    Irregular { points, word: word.into(), parts }
}

impl Wheel {
    /// What is wrong with it, by field under `wheel`.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        let mut check = |f: &str, v: f64, low: f64, high: f64, unit: &str| {
            out.extend(in_range(&format!("wheel.{f}"), v, low, high, unit).err());
        };
        check("load_n", self.load_n, 200.0, 40_000.0, "N");
        check("pressure_kpa", self.pressure_kpa, 50.0, 900.0, "kPa");
        check("placard_kpa", self.placard_kpa, 50.0, 900.0, "kPa");
        check("placard_load_n", self.placard_load_n.unwrap_or(self.load_n), 200.0, 40_000.0, "N");
        check("axle_share", self.axle_share, 0.05, 0.95, "of the weight");
        check("drive_share", self.drive_share, 0.0, 1.0, "of the drive");
        check("brake_share", self.brake_share, 0.0, 1.0, "of the braking");
        check("torque_factor", self.torque_factor, 0.5, 3.0, "");
        check("load_transfer_per_g", self.load_transfer_per_g, 0.0, 2.0, "per g");
        check("roll_camber_deg_per_g", self.roll_camber_deg_per_g, -10.0, 10.0, "° per g");
        check("caster_deg", self.caster_deg, -15.0, 20.0, "°");
        check("loaded_radius_mm", self.loaded_radius_mm.unwrap_or(300.0), 100.0, 900.0, "mm");
        out
    }
}

#[cfg(test)]
#[path = "forecast_tests.rs"]
mod tests;
