//! How sure a forecast is, before and after tread has been measured.
//!
//! The log of the true rate over the model's is a level, a slope and a crown across the tread
//! (`[1, eta, P2(eta)]`), with a prior from each doubtful constant, updated by tread depths
//! (an extended Kalman step iterated six times), and carried over to another setup of the same car.

use super::basis::Basis;
use super::forecast::{STRIPS, Setup, Wheel, eta, raw};
use super::parameters::{Parameters, STEPS};
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
/// How far what the model misses at one setup is missed at another of the same car.
const SAME_CAR: f64 = 0.7;
/// 80 % band of a normal.
const Z80: f64 = 1.2816;
/// Widest band told, ln of times and divided by.
const WIDEST: f64 = 3.0;
const TOE_SD: f64 = 0.05;
const CAMBER_SD: f64 = 0.20;
const PRESSURE_SD: f64 = 0.05;
/// Where depths are read across the tread: outer main grooves and the centre.
pub(crate) const GROOVES: [f64; 3] = [-0.65, 0.0, 0.65];

fn phi(e: f64) -> Vector3<f64> {
    Vector3::new(1.0, e, (3.0 * e * e - 1.0) / 2.0)
}

/// ln of true over model rate at a place across the tread for a mean of level, slope and crown.
pub(crate) fn level_at(mean: &[f64; 4], e: f64) -> f64 {
    phi(e).dot(&Vector3::new(mean[0], mean[1], mean[2]))
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
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub depths_mm: [f64; 3],
}

/// Where and how a tyre runs, for a share of its distance.
#[derive(Debug, Clone)]
pub struct Running {
    /// Load and drive.
    pub wheel: Wheel,
    /// Camber and toe with time weights.
    pub setups: Vec<Setup>,
    /// Share of the distance; shares need not sum to 1.
    pub share: f64,
    /// The tyre was turned on its rim since: what was inside is outside now.
    pub flipped: bool,
}

/// What is believed of one tyre's rate.
#[derive(Debug, Clone)]
pub struct Belief {
    pub(crate) rate: [f64; STRIPS],
    directions: Vec<(&'static str, [f64; STRIPS])>,
    prior_mean: Vector3<f64>,
    prior_cov: Matrix3<f64>,
    mean: Vector4<f64>,
    cov: Matrix4<f64>,
    pub(crate) worn: [f64; STRIPS],
    km: f64,
    depth: f64,
    limit: f64,
}

/// Rates in mm per 1000 km over everything a tyre ran on, weighted by distance.
fn mean_rate(
    tyre: &Tyre,
    running: &[Running],
    mix: &UseMix,
    p: &Parameters,
    k: f64,
    change: &dyn Fn(&mut Wheel, &mut Vec<Setup>),
) -> [f64; STRIPS] {
    let tread = tread_of(tyre);
    let total: f64 = running.iter().map(|r| r.share).sum();
    let mut out = [0.0; STRIPS];
    for r in running {
        let (mut wheel, mut setups) = (r.wheel.clone(), r.setups.clone());
        change(&mut wheel, &mut setups);
        let rate = raw(&tread, &wheel, &setups, mix, p).rate(k);
        for (i, o) in out.iter_mut().enumerate() {
            *o += r.share / total * rate[if r.flipped { STRIPS - 1 - i } else { i }];
        }
    }
    out
}

type Directions = Vec<(&'static str, [f64; STRIPS])>;

/// The rates and how each doubtful quantity moves their logarithm (`docs/TREAD_MODEL.md` section 4).
fn directions(tyre: &Tyre, running: &[Running], mix: &UseMix, basis: &Basis) -> ([f64; STRIPS], Directions) {
    let base = Parameters::default();
    let first = &running[0].wheel;
    let k0 = basis.constant(tyre, first, None, &base);
    let ln = |p: &Parameters, k: f64, change: &dyn Fn(&mut Wheel, &mut Vec<Setup>)| {
        mean_rate(tyre, running, mix, p, k, change).map(|r| r.max(1e-9).ln())
    };
    let same = |_: &mut Wheel, _: &mut Vec<Setup>| {};
    let half =
        |a: [f64; STRIPS], b: [f64; STRIPS]| std::array::from_fn(|i| ((a[i] - b[i]) / 2.0).clamp(-2.0, 2.0));
    let mut out: Directions = Vec::with_capacity(15);
    for (i, (name, sd, step)) in STEPS.iter().enumerate() {
        let at = |up: bool| {
            let mut p = base;
            step(&mut p, if up { *sd } else { -sd });
            ln(&p, basis.constant(tyre, first, Some((i, up)), &p), &same)
        };
        out.push((name, half(at(true), at(false))));
    }
    let sd = basis.severity_sd();
    let sev = |d: f64| ln(&Parameters { sev: d.exp(), ..base }, k0, &same);
    out.push(("sev", half(sev(sd), sev(-sd))));
    let roll = |d: f64| {
        ln(&base, k0, &move |w: &mut Wheel, _: &mut Vec<Setup>| w.roll_camber_deg_per_g *= f64::exp(d))
    };
    out.push(("roll_camber", half(roll(0.40), roll(-0.40))));
    let shifted = |camber: f64, toe: f64| {
        let by = move |_: &mut Wheel, s: &mut Vec<Setup>| {
            s.iter_mut().for_each(|s| {
                s.camber_deg += camber;
                s.toe_deg += toe;
            });
        };
        ln(&base, k0, &by)
    };
    let zero = shifted(0.0, 0.0);
    let (up, down) = (shifted(0.0, TOE_SD), shifted(0.0, -TOE_SD));
    out.push(("toe", half(up, down)));
    let bend = |i: usize| ((up[i] + down[i] - 2.0 * zero[i]) / std::f64::consts::SQRT_2).clamp(-2.0, 2.0);
    out.push(("toe2", std::array::from_fn(bend)));
    out.push(("camber", half(shifted(CAMBER_SD, 0.0), shifted(-CAMBER_SD, 0.0))));
    let pressure =
        |d: f64| ln(&base, k0, &move |w: &mut Wheel, _: &mut Vec<Setup>| w.pressure_kpa *= f64::exp(d));
    out.push(("pressure", half(pressure(PRESSURE_SD), pressure(-PRESSURE_SD))));
    out.push(("life", [-basis.life_sd(); STRIPS]));
    (mean_rate(tyre, running, mix, &base, k0, &same), out)
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

/// Value at a place across the tread, between strip middles.
pub(crate) fn at_place(strips: &[f64; STRIPS], e: f64) -> f64 {
    let f = ((e + 1.0) * STRIPS as f64 - 1.0) / 2.0;
    let i = (f.floor().max(0.0) as usize).min(STRIPS - 2);
    let t = (f - i as f64).clamp(0.0, 1.0);
    strips[i] * (1.0 - t) + strips[i + 1] * t
}

impl Belief {
    /// The prior for a new tyre on class basis, limit in mm.
    #[must_use]
    pub fn prior(tyre: &Tyre, w: &Wheel, setups: &[Setup], mix: &UseMix, limit_mm: f64) -> Self {
        let running = Running { wheel: w.clone(), setups: setups.to_vec(), share: 1.0, flipped: false };
        Self::of(tyre, &[running], mix, limit_mm, &Basis::Class)
    }

    /// The prior for a new tyre that runs in one or more places (at least one), limit in mm.
    #[must_use]
    pub fn of(tyre: &Tyre, running: &[Running], mix: &UseMix, limit_mm: f64, basis: &Basis) -> Self {
        let (rate, directions) = directions(tyre, running, mix, basis);
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
            prior_mean: m0,
            prior_cov: s0,
            mean: Vector4::new(m0.x, m0.y, m0.z, 0.0),
            cov,
            worn: [0.0; STRIPS],
            km: 0.0,
            depth: tyre.new_depth(),
            limit: limit_mm,
        }
    }

    /// The model's rates alone, mm per 1000 km, over everything a tyre ran on.
    #[must_use]
    pub fn rates(tyre: &Tyre, running: &[Running], mix: &UseMix, basis: &Basis) -> [f64; STRIPS] {
        let p = Parameters::default();
        let k = basis.constant(tyre, &running[0].wheel, None, &p);
        mean_rate(tyre, running, mix, &p, k, &|_, _| {})
    }

    /// Mean of level, slope, crown and new-depth error.
    #[must_use]
    pub fn mean(&self) -> [f64; 4] {
        self.mean.into()
    }

    /// Standard deviations of the same.
    #[must_use]
    pub fn sd(&self) -> [f64; 4] {
        self.cov.diagonal().map(|v| v.max(0.0).sqrt()).into()
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

    /// How many times faster than the model a strip wears, by what is believed.
    #[must_use]
    pub fn factor(&self, strip: usize) -> f64 {
        phi(eta(strip)).dot(&self.mean.fixed_rows::<3>(0)).exp()
    }

    /// The same at a place across the tread, −1 inner to +1 outer.
    #[must_use]
    pub fn factor_at(&self, e: f64) -> f64 {
        phi(e).dot(&self.mean.fixed_rows::<3>(0)).exp()
    }

    /// Depth when new by what is believed, mm.
    #[must_use]
    pub fn depth_when_new(&self) -> f64 {
        self.depth + self.mean[3]
    }

    /// The tyre as it stands after `km`, worn by the model `worn` mm at every strip.
    #[must_use]
    pub(crate) fn driven(mut self, km: f64, worn: [f64; STRIPS]) -> Self {
        self.km = km;
        self.worn = worn;
        self
    }
}

/// Depths read where the model alone wore the tyre by `worn` mm at every strip.
#[derive(Debug, Clone)]
pub struct ReadAt {
    /// Model wear at every strip, mm.
    pub worn: [f64; STRIPS],
    /// Inner, centre and outer main groove, mm.
    pub depths_mm: [f64; 3],
}

/// Takes tread depths into the belief; distance counts from new at one unchanged setup.
#[must_use]
pub fn update(prior: &Belief, readings: &[TreadReading]) -> Belief {
    let worn = |km: f64| prior.rate.map(|r| r * km / 1000.0);
    let read: Vec<ReadAt> =
        readings.iter().map(|r| ReadAt { worn: worn(r.km), depths_mm: r.depths_mm }).collect();
    let km = readings.iter().map(|r| r.km).fold(0.0, f64::max);
    learn(prior, &read).driven(km, worn(km))
}

/// Takes tread depths into the belief, wherever the tyre ran before each.
#[must_use]
pub fn learn(prior: &Belief, readings: &[ReadAt]) -> Belief {
    let mut out = prior.clone();
    let Some(precision) = prior.cov.try_inverse() else { return out };
    let mut th = prior.mean;
    for _ in 0..6 {
        let mut a = precision;
        let mut b = precision * (prior.mean - th);
        for r in readings {
            for (e, depth) in GROOVES.into_iter().zip(r.depths_mm) {
                let p = phi(e);
                let level = th.fixed_rows::<3>(0).dot(&p).clamp(-3.0, 3.0);
                let worn = at_place(&r.worn, e) * level.exp();
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
    out
}

/// Distance left at the strip that gets there first, km, with that strip and what it wears on.
fn first_at_limit(left: impl Fn(usize) -> f64, rate: impl Fn(usize) -> f64) -> (f64, usize) {
    (0..STRIPS)
        .map(|i| (WORST_ALLOW * left(i).max(0.0) / (rate(i) / 1000.0), i))
        .fold((f64::INFINITY, 0), |best, x| if x.0 < best.0 { x } else { best })
}

fn band(km: f64, rem: f64, var: f64) -> Band {
    // At the limit what is left has no logarithm: its doubt grows without bound and means nothing there.
    let f = (Z80 * var.max(0.0).sqrt()).min(WIDEST).exp();
    Band { low: km + rem / f, median: km + rem, high: km + rem * f }
}

/// Distance at which the worst strip meets the limit, with its 80 % band, km since new.
#[must_use]
pub fn band_km(b: &Belief) -> Band {
    let s = b.cov.fixed_view::<3, 3>(0, 0).into_owned();
    let cross = b.cov.fixed_view::<3, 1>(0, 3).into_owned();
    let left = |i: usize| b.depth_when_new() - b.limit - b.worn[i] * b.factor(i);
    let (rem, i) = first_at_limit(left, |i| b.rate[i] * b.factor(i));
    let left = left(i).max(1e-6);
    let g = -1.0 - b.worn[i] * b.factor(i) / left;
    let p = phi(eta(i));
    let var = g * g * (p.dot(&(s * p)) + SHAPE_SD * SHAPE_SD)
        + b.cov[(3, 3)] / (left * left)
        + 2.0 * g * p.dot(&cross) / left
        + FUTURE_SD * FUTURE_SD;
    band(b.km, rem, var)
}

/// A belief carried over to another setup of the same car.
#[derive(Debug, Clone)]
pub struct Carried {
    /// Mean of level, slope and crown at the new setup.
    pub mean: [f64; 3],
    /// Distance at which the worst strip meets the limit, km since new.
    pub band: Band,
    /// The strip that gets there first.
    pub strip: usize,
}

/// Carries what depths taught at setup `a` (with its distance and wear) over to setup `b` of the same car, by its
/// prior. A realigned car brings none of the reading errors of camber and toe along. (`docs/TREAD_MODEL.md` section 5.)
#[must_use]
pub fn carry(a: &Belief, b: &Belief, realigned: bool) -> Carried {
    let mut c = Matrix3::from_diagonal(&Vector3::from(DISC.map(|d| SAME_CAR * d * d)));
    for ((name, va), (_, vb)) in a.directions.iter().zip(&b.directions) {
        if !(realigned && matches!(*name, "toe" | "toe2" | "camber")) {
            c += project(&b.rate, vb) * project(&a.rate, va).transpose();
        }
    }
    let g = a.prior_cov.try_inverse().map_or_else(Matrix3::zeros, |inv| c * inv);
    let (ma, sa) = (a.mean.fixed_rows::<3>(0).into_owned(), a.cov.fixed_view::<3, 3>(0, 0).into_owned());
    let mb = b.prior_mean + g * (ma - a.prior_mean);
    let sb = b.prior_cov - g * (a.prior_cov - sa) * g.transpose();
    let s_d = a.cov.fixed_view::<3, 1>(0, 3).into_owned();
    let ea = |i: usize| phi(eta(i)).dot(&ma).exp();
    let eb = |i: usize| phi(eta(i)).dot(&mb).exp();
    let left = |i: usize| a.depth_when_new() - b.limit - a.worn[i] * ea(i);
    let (rem, i) = first_at_limit(left, |i| b.rate[i] * eb(i));
    let left = left(i).max(1e-6);
    let p = phi(eta(i));
    let h = -a.worn[i] * ea(i) / left;
    let var = h * h * (p.dot(&(sa * p)) + SHAPE_SD * SHAPE_SD) + p.dot(&(sb * p)) + SHAPE_SD * SHAPE_SD
        - 2.0 * h * p.dot(&(sa * g.transpose() * p))
        + a.cov[(3, 3)] / (left * left)
        + 2.0 * h * p.dot(&s_d) / left
        - 2.0 * p.dot(&(g * s_d)) / left
        + FUTURE_SD * FUTURE_SD;
    Carried { mean: mb.into(), band: band(a.km, rem, var), strip: i }
}

/// Distance of `other` over distance of `this`, same car, tyre and use: severity and base life cancel.
#[must_use]
pub fn ratio_band(this: &Belief, other: &Belief) -> RatioBand {
    let worst = |b: &Belief| (0..STRIPS).fold(0, |w, i| if b.rate[i] > b.rate[w] { i } else { w });
    let (i, j) = (worst(this), worst(other));
    let q = this.rate[i] / other.rate[j];
    let mut var = 2.0 * (1.0 - SAME_CAR) * DISC[0] * DISC[0];
    for ((_, a), (_, b)) in this.directions.iter().zip(&other.directions) {
        var += (b[j] - a[i]).powi(2);
    }
    let f = (Z80 * var.sqrt()).exp();
    RatioBand { ratio: q, low: q / f, high: q * f }
}
