//! A gauge held on a simulated car: noise, drift, a zero of its own, and a hold button.

use crate::protocol::{Command, GaugePlace, Line, Looking};
use bold_stance_kinematics::geometry::{Geometry, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::reading::Turned;
use rand::SeedableRng;
use rand_distr::{Distribution, Normal};
use rand_pcg::Pcg64;

/// What is wrong with the gauge and the floor under it.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct GaugeFaults {
    /// Standard deviation of one shown angle, degrees.
    pub noise_deg: f64,
    /// Drift, degrees a minute.
    pub drift_deg_min: f64,
    /// Error of its gravity zero, degrees.
    pub offset_deg: f64,
    /// Slope of the floor, falls to the left positive, degrees.
    pub floor_deg: f64,
}

impl Default for GaugeFaults {
    fn default() -> Self {
        Self { noise_deg: 0.04, drift_deg_min: 0.01, offset_deg: 0.0, floor_deg: 0.2 }
    }
}

/// The car the gauge is held on: its axles and how each wheel really stands against them.
#[derive(Debug, Clone)]
pub struct SimulatedCar {
    /// Front axle.
    pub front: Geometry,
    /// Rear axle, when there is one.
    pub rear: Option<Geometry>,
    /// Camber each wheel really has beyond its points: left front, right front, left rear, right rear, degrees.
    pub camber_off_deg: [f64; 4],
}

impl SimulatedCar {
    /// The true angle at a place relative to the floor, degrees; none where no wheel is or it cannot reach.
    #[must_use]
    pub fn angle(&self, p: &GaugePlace) -> Option<f64> {
        let side = if p.left { Side::Left } else { Side::Right };
        let geometry = if p.front { Some(&self.front) } else { self.rear.as_ref() }?;
        let w = Corner::of(geometry, side).wheel(-p.gain_mm, 0.0).ok()?;
        let camber_deg = w.camber_deg + self.camber_off_deg[usize::from(!p.front) * 2 + usize::from(!p.left)];
        let Some(s) = w.steer.filter(|_| p.front) else {
            return (p.looking == Looking::Camber).then_some(camber_deg);
        };
        let turned = Turned { caster_deg: s.caster_deg, sai_deg: s.sai_deg, camber_deg, toe_deg: w.toe_deg };
        let (camber, tilt) = turned.at(if p.left { p.steer_deg } else { -p.steer_deg });
        Some(if p.looking == Looking::Camber { camber } else { tilt })
    }
}

/// The gauge.
#[derive(Debug)]
pub struct SimGauge {
    car: SimulatedCar,
    faults: GaugeFaults,
    place: GaugePlace,
    zero: Option<f64>,
    held: Option<f64>,
    seconds: f64,
    seq: u64,
    noise: Pcg64,
}

/// Smallest step it shows, degrees.
const STEP: f64 = 0.05;

impl SimGauge {
    /// A gauge on the left front hub.
    #[must_use]
    pub fn new(car: SimulatedCar, faults: GaugeFaults, seed: u64) -> Self {
        let place =
            GaugePlace { front: true, left: true, looking: Looking::Camber, steer_deg: 0.0, gain_mm: 0.0 };
        let noise = Pcg64::seed_from_u64(seed);
        Self { car, faults, place, zero: None, held: None, seconds: 0.0, seq: 0, noise }
    }

    /// Its greeting.
    #[must_use]
    pub fn hello(&self) -> Line {
        Line::Hello { name: "Simulated gauge".into(), resolution_deg: STEP, simulated: true }
    }

    /// What it would show now without its own zero.
    fn raw(&mut self) -> f64 {
        let floor = match (self.place.looking, self.place.left) {
            (Looking::Camber, true) => self.faults.floor_deg,
            (Looking::Camber, false) => -self.faults.floor_deg,
            (Looking::ForeAft, _) => 0.0,
        };
        let noise =
            Normal::new(0.0, self.faults.noise_deg.max(0.0)).map_or(0.0, |n| n.sample(&mut self.noise));
        self.car.angle(&self.place).unwrap_or(0.0)
            + floor
            + self.faults.offset_deg
            + self.faults.drift_deg_min * self.seconds / 60.0
            + noise
    }

    /// Time goes on by `dt` seconds; what it shows then.
    pub fn tick(&mut self, dt: f64) -> Line {
        self.seconds += dt;
        self.seq += 1;
        let live = self.raw() - self.zero.unwrap_or(0.0);
        let shown = self.held.unwrap_or((live / STEP).round() * STEP);
        Line::Angle { deg: shown, held: self.held.is_some(), zeroed: self.zero.is_some(), seq: self.seq }
    }

    /// Does as it is told. `zero` counts from the floor: the gauge lies on a bar across it then.
    pub fn told(&mut self, c: &Command) -> Line {
        match c {
            Command::Zero => {
                // On a bar across the contact patches it sees the floor, its offset and its drift, no wheel.
                let wheel = self.car.angle(&self.place).unwrap_or(0.0);
                self.zero = Some(self.raw() - wheel);
            }
            Command::Unzero => self.zero = None,
            Command::Hold => {
                if let Line::Angle { deg, .. } = self.tick(0.0) {
                    self.held = Some(deg);
                }
            }
            Command::Release => self.held = None,
            Command::Place(p) => {
                if self.car.angle(p).is_none() {
                    return Line::No("nothing to read there".into());
                }
                self.place = *p;
                self.held = None;
            }
        }
        Line::Ok
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use bold_stance_car::archetype::shipped_archetypes;

    fn gauge(faults: GaugeFaults) -> SimGauge {
        let shapes = shipped_archetypes().unwrap();
        let get = |id: &str| shapes.iter().find(|a| a.id == id).unwrap().geometry.clone();
        let car = SimulatedCar {
            front: get("half_ton_front"),
            rear: Some(get("leaf_rear")),
            camber_off_deg: [0.3, -0.2, 0.0, 0.0],
        };
        SimGauge::new(car, faults, 11)
    }

    fn shown(g: &mut SimGauge, n: usize) -> Vec<f64> {
        (0..n)
            .map(|_| match g.tick(0.1) {
                Line::Angle { deg, .. } => deg,
                other => panic!("{other:?}"),
            })
            .collect()
    }

    fn mean(v: &[f64]) -> f64 {
        v.iter().sum::<f64>() / v.len() as f64
    }

    #[test]
    fn it_reads_its_wheel_with_noise_and_drift() {
        let mut g = gauge(GaugeFaults { drift_deg_min: 0.6, floor_deg: 0.0, ..GaugeFaults::default() });
        let truth = g.car.angle(&g.place).unwrap();
        let early = shown(&mut g, 50);
        assert!((mean(&early) - truth).abs() < 0.06, "{} {truth}", mean(&early));
        assert!(early.iter().any(|v| *v != early[0]), "noise shows");
        shown(&mut g, 550);
        let late = shown(&mut g, 50);
        assert!((mean(&late) - truth - 0.6).abs() < 0.08, "a minute of drift: {}", mean(&late) - truth);
    }

    #[test]
    fn zeroed_on_the_floor_it_no_longer_sees_the_slope() {
        let mut g = gauge(GaugeFaults { floor_deg: 0.8, ..GaugeFaults::default() });
        let truth = g.car.angle(&g.place).unwrap();
        assert!((mean(&shown(&mut g, 40)) - truth - 0.8).abs() < 0.05);
        assert_eq!(g.told(&Command::Zero), Line::Ok);
        assert!((mean(&shown(&mut g, 40)) - truth).abs() < 0.12);
        // The other side leans the other way on the same floor.
        g.told(&Command::Unzero);
        let right = GaugePlace { left: false, ..g.place };
        g.told(&Command::Place(right));
        let truth = g.car.angle(&right).unwrap();
        assert!((mean(&shown(&mut g, 40)) - truth + 0.8).abs() < 0.05);
    }

    #[test]
    fn hold_keeps_what_it_shows_and_release_follows() {
        let mut g = gauge(GaugeFaults::default());
        g.told(&Command::Hold);
        let held = shown(&mut g, 20);
        assert!(held.iter().all(|v| *v == held[0]));
        g.told(&Command::Release);
        let free = shown(&mut g, 60);
        assert!(free.iter().any(|v| *v != free[0]));
    }

    #[test]
    fn a_sweep_on_it_gives_the_cars_caster_back() {
        let mut g = gauge(GaugeFaults { drift_deg_min: 0.0, ..GaugeFaults::default() });
        let mut at = |steer_deg: f64| {
            g.told(&Command::Place(GaugePlace { steer_deg, ..g.place }));
            mean(&shown(&mut g, 200))
        };
        let (out, inward) = (at(20.0), at(-20.0));
        let caster = (out - inward) / (2.0 * 20f64.to_radians().sin());
        let truth = Corner::of(&g.car.front, Side::Left).wheel(0.0, 0.0).unwrap().steer.unwrap().caster_deg;
        assert!((caster - truth).abs() < 0.3, "{caster} {truth}");
    }

    #[test]
    fn a_place_without_a_wheel_is_refused_and_the_gauge_stays() {
        let mut g = gauge(GaugeFaults::default());
        g.car.rear = None;
        let before = g.place;
        let rear = GaugePlace { front: false, ..before };
        assert!(matches!(g.told(&Command::Place(rear)), Line::No(_)));
        assert_eq!(g.place, before);
    }
}
