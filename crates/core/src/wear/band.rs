//! How sure a forecast is, before and after tread has been measured.
//!
//! The log of the true rate over the model's is a level, a slope and a crown across the tread
//! (`[1, eta, P2(eta)]`), with a prior from each doubtful constant, updated by tread depths
//! (an extended Kalman step iterated six times).

use super::forecast::{Parameters, STRIPS, Setup, Wheel, calibrate_with, eta, raw};
use super::tyre::{Tyre, tread_of};
use super::uses::UseMix;
use nalgebra::{Matrix3, Matrix4, Vector3, Vector4};
use serde::{Deserialize, Serialize};

const DISC: [f64; 3] = [0.06, 0.06, 0.05];
const NEW_DEPTH_SD: f64 = 0.25;
const READ_SD: f64 = 0.25;
const PROCESS: f64 = 0.06;
const SHAPE_SD: f64 = 0.06;
const FUTURE_SD: f64 = 0.12;
const WORST_ALLOW: f64 = 0.97;
/// 80 % band of a normal.
const Z80: f64 = 1.2816;
const LIFE_SD_CLASS: f64 = 0.30;
const SEVERITY_SD_CLASS: f64 = 0.20;
const TOE_SD: f64 = 0.05;
const CAMBER_SD: f64 = 0.20;
const PRESSURE_SD: f64 = 0.05;

fn phi(e: f64) -> Vector3<f64> {
    Vector3::new(1.0, e, (3.0 * e * e - 1.0) / 2.0)
}

/// Low, median and high distance, km: an 80 % band.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Band {
    /// One in ten is below.
    pub low: f64,
    /// Even odds.
    pub median: f64,
    /// One in ten is above.
    pub high: f64,
}

/// Ratio of two setups' distances (other over this one) with its 80 % band.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct RatioBand {
    /// Ratio.
    pub ratio: f64,
    /// Low end.
    pub low: f64,
    /// High end.
    pub high: f64,
}

/// Depths read across one tyre at a distance.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct TreadReading {
    /// Distance on this tyre, km.
    pub km: f64,
    /// Inner, centre and outer main groove, mm.
    pub depths_mm: [f64; 3],
}

/// What is believed of one tyre's rate.
#[derive(Debug, Clone)]
pub struct Belief {
    rate: [f64; STRIPS],
    directions: Vec<(&'static str, [f64; STRIPS])>,
    mean: Vector4<f64>,
    cov: Matrix4<f64>,
    worn: [f64; STRIPS],
    km: f64,
    depth: f64,
    limit: f64,
}

/// Evaluates the rates with doubt directions for a wheel on class basis.
fn directions(
    tyre: &Tyre,
    w: &Wheel,
    setups: &[Setup],
    mix: &UseMix,
) -> ([f64; STRIPS], Vec<(&'static str, [f64; STRIPS])>) {
    let tread = tread_of(tyre);
    let base = Parameters::default();
    let k0 = calibrate_with(tyre.class, &base);
    let ln = |p: &Parameters, w: &Wheel, s: &[Setup], k: f64| {
        raw(&tread, w, s, mix, p).rate(k).map(|r| r.max(1e-9).ln())
    };
    let half =
        |a: [f64; STRIPS], b: [f64; STRIPS]| std::array::from_fn(|i| ((a[i] - b[i]) / 2.0).clamp(-2.0, 2.0));
    let mut out: Vec<(&'static str, [f64; STRIPS])> = Vec::with_capacity(15);
    type Step = (&'static str, f64, fn(&mut Parameters, f64));
    let steps: [Step; 8] = [
        ("n", 0.12, |p, d| p.n += d),
        ("c_scale", 0.15, |p, d| p.c_scale *= d.exp()),
        ("mu", 0.08, |p, d| p.mu *= d.exp()),
        ("kappa_g", 0.30, |p, d| p.kappa_g *= d.exp()),
        ("spin", 0.50, |p, d| p.spin *= d.exp()),
        ("k_f", 0.35, |p, d| p.k_f *= d.exp()),
        ("b_p", 0.35, |p, d| p.b_p *= d.exp()),
        ("sig_free", 0.30, |p, d| p.sig_free_deg *= d.exp()),
    ];
    for (name, sd, step) in steps {
        let at = |d: f64| {
            let mut p = base;
            step(&mut p, d);
            ln(&p, w, setups, calibrate_with(tyre.class, &p))
        };
        out.push((name, half(at(sd), at(-sd))));
    }
    let sev = |d: f64| ln(&Parameters { sev: d.exp(), ..base }, w, setups, k0);
    out.push(("sev", half(sev(SEVERITY_SD_CLASS), sev(-SEVERITY_SD_CLASS))));
    let roll = |d: f64| {
        let w = Wheel { roll_camber_deg_per_g: w.roll_camber_deg_per_g * d.exp(), ..w.clone() };
        ln(&base, &w, setups, k0)
    };
    out.push(("roll_camber", half(roll(0.40), roll(-0.40))));
    let shifted = |camber: f64, toe: f64| -> [f64; STRIPS] {
        let s: Vec<Setup> = setups
            .iter()
            .map(|s| Setup { camber_deg: s.camber_deg + camber, toe_deg: s.toe_deg + toe, ..*s })
            .collect();
        ln(&base, w, &s, k0)
    };
    let zero = shifted(0.0, 0.0);
    let (up, down) = (shifted(0.0, TOE_SD), shifted(0.0, -TOE_SD));
    out.push(("toe", half(up, down)));
    out.push((
        "toe2",
        std::array::from_fn(|i| {
            ((up[i] + down[i] - 2.0 * zero[i]) / std::f64::consts::SQRT_2).clamp(-2.0, 2.0)
        }),
    ));
    out.push(("camber", half(shifted(CAMBER_SD, 0.0), shifted(-CAMBER_SD, 0.0))));
    let pressure = |d: f64| {
        let w = Wheel { pressure_kpa: w.pressure_kpa * d.exp(), ..w.clone() };
        ln(&base, &w, setups, k0)
    };
    out.push(("pressure", half(pressure(PRESSURE_SD), pressure(-PRESSURE_SD))));
    out.push(("life", [-LIFE_SD_CLASS; STRIPS]));
    (raw(&tread, w, setups, mix, &base).rate(k0), out)
}

/// Weighted least-squares projection on level, slope and crown.
fn project(rate: &[f64; STRIPS], v: &[f64; STRIPS]) -> Vector3<f64> {
    let mean = rate.iter().sum::<f64>() / STRIPS as f64;
    let mut a = Matrix3::zeros();
    let mut b = Vector3::zeros();
    for i in 0..STRIPS {
        let (p, w) = (phi(eta(i)), rate[i] / mean);
        a += p * p.transpose() * w;
        b += p * (w * v[i]);
    }
    a.try_inverse().map_or_else(Vector3::zeros, |inv| inv * b)
}

impl Belief {
    /// The prior for a new tyre on class basis, limit in mm.
    #[must_use]
    pub fn prior(tyre: &Tyre, w: &Wheel, setups: &[Setup], mix: &UseMix, limit_mm: f64) -> Self {
        let (rate, directions) = directions(tyre, w, setups, mix);
        let mut s0 = Matrix3::from_diagonal(&Vector3::from(DISC.map(|d| d * d)));
        let mut m0 = Vector3::zeros();
        for (name, v) in &directions {
            let t = project(&rate, v);
            s0 += t * t.transpose();
            if *name == "toe2" {
                m0 = t / std::f64::consts::SQRT_2;
            }
        }
        let mut cov = Matrix4::zeros();
        cov.fixed_view_mut::<3, 3>(0, 0).copy_from(&s0);
        cov[(3, 3)] = NEW_DEPTH_SD * NEW_DEPTH_SD;
        Self {
            rate,
            directions,
            mean: Vector4::new(m0.x, m0.y, m0.z, 0.0),
            cov,
            worn: [0.0; STRIPS],
            km: 0.0,
            depth: tyre.new_depth(),
            limit: limit_mm,
        }
    }

    /// Mean of level, slope, crown and new-depth error.
    #[must_use]
    pub fn mean(&self) -> [f64; 4] {
        self.mean.into()
    }

    /// Standard deviations of the same.
    #[must_use]
    pub fn sd(&self) -> [f64; 4] {
        self.cov.diagonal().map(f64::sqrt).into()
    }

    /// Covariance entry.
    #[must_use]
    pub fn covariance(&self, i: usize, j: usize) -> f64 {
        self.cov[(i, j)]
    }

    /// The doubt direction of one constant at one strip, as a change of ln rate.
    #[must_use]
    pub fn direction(&self, name: &str, strip: usize) -> Option<f64> {
        self.directions.iter().find(|(n, _)| *n == name).and_then(|(_, v)| v.get(strip).copied())
    }

    /// Rate per 1000 km at a place across the tread.
    fn rate_at(&self, e: f64) -> f64 {
        let f = ((e + 1.0) * STRIPS as f64 - 1.0) / 2.0;
        let i = (f.floor().max(0.0) as usize).min(STRIPS - 2);
        let t = (f - i as f64).clamp(0.0, 1.0);
        self.rate[i] * (1.0 - t) + self.rate[i + 1] * t
    }
}

/// Takes tread depths into the belief.
#[must_use]
pub fn update(prior: &Belief, readings: &[TreadReading]) -> Belief {
    let mut out = prior.clone();
    let Some(precision) = prior.cov.try_inverse() else { return out };
    let mut th = prior.mean;
    for _ in 0..6 {
        let mut a = precision;
        let mut b = precision * (prior.mean - th);
        for r in readings {
            for (e, depth) in [-0.65, 0.0, 0.65].into_iter().zip(r.depths_mm) {
                let p = phi(e);
                let model = r.km * prior.rate_at(e) / 1000.0;
                let level = th.fixed_rows::<3>(0).dot(&p).clamp(-3.0, 3.0);
                let worn = model * level.exp();
                let j = Vector4::new(-worn * p.x, -worn * p.y, -worn * p.z, 1.0);
                let miss = depth - (prior.depth + th[3] - worn);
                let v = READ_SD * READ_SD + (PROCESS * worn).powi(2);
                a += j * j.transpose() / v;
                b += j * (miss / v);
            }
        }
        let Some(inv) = a.try_inverse() else { break };
        out.cov = inv;
        th += (inv * b).map(|d| d.clamp(-1.0, 1.0));
    }
    out.mean = th;
    out.km = readings.iter().map(|r| r.km).fold(0.0, f64::max);
    out.worn = prior.rate.map(|r| r * out.km / 1000.0);
    out
}

/// Distance at which the worst strip meets the limit, with its 80 % band, km since new.
#[must_use]
pub fn band_km(b: &Belief) -> Band {
    let m = b.mean.fixed_rows::<3>(0).into_owned();
    let s = b.cov.fixed_view::<3, 3>(0, 0).into_owned();
    let cross = Vector3::new(b.cov[(0, 3)], b.cov[(1, 3)], b.cov[(2, 3)]);
    let mut best = (f64::INFINITY, 0, 1.0, 1.0);
    for i in 0..STRIPS {
        let mult = phi(eta(i)).dot(&m).exp();
        let left = b.depth + b.mean[3] - b.limit - b.worn[i] * mult;
        let rem = WORST_ALLOW * left.max(0.0) / (b.rate[i] * mult / 1000.0);
        if rem < best.0 {
            best = (rem, i, mult, left);
        }
    }
    let (rem, i, mult, left) = best;
    let left = left.max(1e-6);
    let g = -1.0 - b.worn[i] * mult / left;
    let p = phi(eta(i));
    let var = g * g * (p.dot(&(s * p)) + SHAPE_SD * SHAPE_SD)
        + b.cov[(3, 3)] / (left * left)
        + 2.0 * g * p.dot(&cross) / left
        + FUTURE_SD * FUTURE_SD;
    let f = (Z80 * var.max(0.0).sqrt()).exp();
    Band { low: b.km + rem / f, median: b.km + rem, high: b.km + rem * f }
}

/// Distance of `other` over distance of `this`, same car, tyre and use: severity and base life cancel.
#[must_use]
pub fn ratio_band(this: &Belief, other: &Belief) -> RatioBand {
    let worst = |b: &Belief| (0..STRIPS).fold(0, |w, i| if b.rate[i] > b.rate[w] { i } else { w });
    let (i, j) = (worst(this), worst(other));
    let q = this.rate[i] / other.rate[j];
    let mut var = 2.0 * (1.0 - 0.7) * DISC[0] * DISC[0];
    for ((_, a), (_, b)) in this.directions.iter().zip(&other.directions) {
        var += (b[j] - a[i]).powi(2);
    }
    let f = (Z80 * var.sqrt()).exp();
    RatioBand { ratio: q, low: q / f, high: q * f }
}
