//! Simulated vehicles whose tyres wear by constants, errors and shapes the forecast does not know: how often the true
//! life lies inside the 80 % band, before and after tread was read. (`docs/TREAD_MODEL.md` section 5; the spreads are chosen, so
//! this shows that the arithmetic is honest, not that real cars are spread like that.)

use super::band::{Belief, ReadAt, Running, at_place, band_km, learn};
use super::basis::{Basis, OwnLife};
use super::forecast::{STRIPS, Setup, Wheel, calibrate_with, eta, raw};
use super::parameters::Parameters;
use super::parameters::STEPS;
use super::tyre::{Tyre, TyreClass, tread_of};
use super::uses::UseMix;
use bold_stance_car::vehicle::Use;
use rand::{Rng, SeedableRng};
use rand_distr::{Distribution, Normal, StandardNormal, StudentT};
use rand_pcg::Pcg64Mcg;

/// Shares of the true life at which tread is read.
const READ_AT: [f64; 4] = [0.16, 0.32, 0.48, 0.64];
const STEP_KM: f64 = 250.0;
const LIMIT: f64 = 1.6;

/// What came of a run, after no reading, one, two, three and four.
#[derive(Debug, Clone, Copy, Default, PartialEq)]
pub struct TrialRow {
    /// Share of cars whose true life lies inside the 80 % band.
    pub coverage: f64,
    /// Root mean square of ln(median / true life).
    pub rms: f64,
    /// Geometric mean of high over median.
    pub spread: f64,
}

struct Car {
    tyre: Tyre,
    wheel: Wheel,
    setup: Setup,
    mix: UseMix,
    basis: Basis,
}

fn car(rng: &mut Pcg64Mcg) -> Car {
    let class = [TyreClass::LongLife, TyreClass::AllSeason, TyreClass::SoftSummer, TyreClass::AllTerrain]
        [rng.random_range(0..4)];
    let tyre = Tyre {
        section_mm: rng.random_range(195.0..285.0),
        aspect: rng.random_range(40.0..70.0),
        rim_in: f64::from(rng.random_range(16..20)),
        class,
        new_depth_mm: None,
        tread_width_mm: None,
    };
    let load_n = rng.random_range(3000.0..6800.0);
    let front = rng.random_bool(0.5);
    let p = rng.random_range(210.0..300.0);
    let wheel = Wheel {
        load_n,
        pressure_kpa: p,
        placard_kpa: p,
        placard_load_n: None,
        axle_share: if front { 0.57 } else { 0.43 },
        drive_share: [0.0, 0.5, 1.0][rng.random_range(0..3)],
        brake_share: if front { 0.66 } else { 0.34 },
        torque_factor: 1.0,
        regen: false,
        load_transfer_per_g: 0.7,
        roll_camber_deg_per_g: 2.5,
        caster_deg: if front { 5.0 } else { 0.0 },
        loaded_radius_mm: None,
    };
    let setup =
        Setup { camber_deg: rng.random_range(-2.5..0.5), toe_deg: rng.random_range(-0.25..0.3), share: 1.0 };
    let mix = UseMix::One([Use::Highway, Use::Mixed, Use::CornerHeavy][rng.random_range(0..3)]);
    let basis = if rng.random_bool(0.5) {
        Basis::Class
    } else {
        let life_km = rng.random_range(28_000.0..60_000.0);
        Basis::Own(OwnLife { life_km, limit_mm: LIMIT, new_depth_mm: None, positions: vec![wheel.clone()] })
    };
    Car { tyre, wheel, setup, mix, basis }
}

/// The wear of one car at every step until its first strip is at the limit: step by step, mm by strip.
fn truth(c: &Car, rng: &mut Pcg64Mcg) -> (f64, Vec<[f64; STRIPS]>, f64) {
    let mut normal = |sd: f64| -> f64 { sd * Distribution::<f64>::sample(&StandardNormal, rng) };
    let mut p = Parameters::default();
    for (_, sd, change) in STEPS {
        let d = normal(sd).clamp(-2.5 * sd, 2.5 * sd);
        change(&mut p, d);
    }
    p.n = p.n.clamp(0.8, 1.6);
    let k = match &c.basis {
        Basis::Class => calibrate_with(c.tyre.class, &p),
        other => other.constant(&c.tyre, &c.wheel, None, &p),
    } * normal(c.basis.life_sd()).exp();
    p.sev = normal(c.basis.severity_sd()).exp();
    let setup = [Setup {
        camber_deg: c.setup.camber_deg + normal(0.20),
        toe_deg: c.setup.toe_deg + normal(0.05),
        share: 1.0,
    }];
    let wheel = Wheel {
        pressure_kpa: c.wheel.pressure_kpa * normal(0.05).exp(),
        roll_camber_deg_per_g: c.wheel.roll_camber_deg_per_g * normal(0.40).exp(),
        ..c.wheel.clone()
    };
    let rate = raw(&tread_of(&c.tyre), &wheel, &setup, &c.mix, &p).rate(k);
    let (cubic, wave) = (normal(0.03), normal(0.03));
    let disc = [normal(0.06), normal(0.06), normal(0.05)];
    let rate: [f64; STRIPS] = std::array::from_fn(|i| {
        let e = eta(i);
        let shape = disc[0] + disc[1] * e + disc[2] * (3.0 * e * e - 1.0) / 2.0;
        let outside =
            cubic * (5.0 * e * e * e - 3.0 * e) / 2.0 + wave * (3.0 * std::f64::consts::PI * e).cos();
        rate[i] * (shape + outside).exp()
    });
    let new = c.tyre.new_depth() + normal(0.25);
    let keep: f64 = (-STEP_KM / 6000.0f64).exp();
    let mut wander = normal(0.15);
    let (mut worn, mut out, mut km) = ([0.0; STRIPS], vec![[0.0; STRIPS]], 0.0);
    while worn.iter().all(|w| new - w > LIMIT) && km < 400_000.0 {
        wander = keep * wander + normal(0.15) * (1.0 - keep * keep).sqrt();
        let mean = worn.iter().sum::<f64>() / STRIPS as f64;
        for i in 0..STRIPS {
            // What stands proud carries more and wears faster.
            let feedback = 1.0 + 0.03 * (mean - worn[i]);
            worn[i] += rate[i] * feedback.max(0.5) * wander.exp() * STEP_KM / 1000.0;
        }
        km += STEP_KM;
        out.push(worn);
    }
    (km, out, new)
}

/// Runs `cars` vehicles. The same seed gives the same cars.
#[must_use]
pub fn tread_trial(cars: usize, seed: u64) -> [TrialRow; 5] {
    let mut rng = Pcg64Mcg::seed_from_u64(seed);
    let mut rows = [TrialRow::default(); 5];
    // Heavy tails, scaled to a standard deviation of 0.25 mm.
    let gauge = StudentT::new(4.0).ok();
    let small = Normal::new(0.0, 0.25).ok();
    for _ in 0..cars {
        let c = car(&mut rng);
        let (life, path, new) = truth(&c, &mut rng);
        let run = Running { wheel: c.wheel.clone(), setups: vec![c.setup], share: 1.0, flipped: false };
        let prior = Belief::of(&c.tyre, std::slice::from_ref(&run), &c.mix, LIMIT, &c.basis);
        let mut read: Vec<ReadAt> = Vec::new();
        for (n, row) in rows.iter_mut().enumerate() {
            let mut b = prior.clone();
            if n > 0 {
                let km = (READ_AT[n - 1] * life / STEP_KM).round() * STEP_KM;
                let worn = path[((km / STEP_KM) as usize).min(path.len() - 1)];
                let mut noise = || match (&gauge, &small) {
                    (Some(t), _) => t.sample(&mut rng) * 0.25 / std::f64::consts::SQRT_2,
                    (None, Some(s)) => s.sample(&mut rng),
                    (None, None) => 0.0,
                };
                let depths_mm = super::band::GROOVES.map(|e| (new - at_place(&worn, e) + noise()).max(0.0));
                let model = prior.rate.map(|r| r * km / 1000.0);
                read.push(ReadAt { worn: model, depths_mm });
                b = learn(&prior, &read).driven(km, model);
            }
            let band = band_km(&b);
            row.coverage += f64::from(u8::from((band.low..=band.high).contains(&life)));
            row.rms += (band.median / life).ln().powi(2);
            row.spread += (band.high / band.median).ln();
        }
    }
    let n = cars.max(1) as f64;
    rows.map(|r| TrialRow { coverage: r.coverage / n, rms: (r.rms / n).sqrt(), spread: (r.spread / n).exp() })
}
