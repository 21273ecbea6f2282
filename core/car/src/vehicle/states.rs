//! Named height states: as arrived, planned, settled, loaded, and the levels of an air suspension.

use super::axles::{Axles, Sides};
use super::car::{Car, Gains};
use super::springs::payload_loads;
use serde::{Deserialize, Serialize};

/// Which state.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum StateKind {
    /// As it came in.
    Arrived,
    /// As it will leave.
    Planned,
    /// After springs and bushings have settled.
    Settled,
    /// With the usual payload.
    Loaded,
    /// A level of an air suspension.
    Air,
}

/// One named height of the car.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct HeightState {
    /// Which.
    pub kind: StateKind,
    /// What the screen calls it.
    pub name: String,
    /// Gains over design, mm.
    pub gains: Gains,
    /// Half width of the 90 % band of the heights, mm.
    pub band_mm: f64,
    /// How far the body stands higher on its frame than as arrived, mm: no suspension moves with it.
    pub body_mm: Axles<f64>,
    /// Loaded radius gained by the tyres it stands on, mm.
    pub tyres: Axles<f64>,
}

/// What is planned of an axle's height, against as arrived, mm.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct PlannedHeight {
    /// Gain, mm.
    pub gain_mm: f64,
    /// Lost as it settles, mm; what the axle's facts say where this is 0 and something is gained.
    pub settle_mm: f64,
    /// Lost under the usual load, when it was typed instead of worked out, mm.
    pub load_mm: f64,
    /// Each side on top of the gain, mm.
    pub trim_mm: Sides<f64>,
    /// What of the gain the body has on its frame, mm.
    pub body_mm: f64,
}

/// What is planned, against as arrived.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PlannedHeights {
    /// Of each axle.
    pub axles: Axles<PlannedHeight>,
}

impl PlannedHeights {
    /// Nothing but a gain of each axle, mm.
    #[must_use]
    pub fn gains(front: f64, rear: f64) -> Self {
        let of = |gain_mm| PlannedHeight { gain_mm, ..PlannedHeight::default() };
        Self { axles: Axles { front: of(front), rear: of(rear) } }
    }

    /// The same with a settle in front, mm.
    #[must_use]
    pub fn settling(mut self, front: f64) -> Self {
        self.axles.front.settle_mm = front;
        self
    }
}

/// Half width of the 90 % band of an expected settle: a settle of 0 to twice the expected value covers the
/// prior (common practice, no source: 0 to 6 mm).
fn settle_band(expected: f64) -> f64 {
    expected.abs()
}

/// Every height state that exists, as arrived first. `arrived` are the gains over design as read.
#[must_use]
pub fn height_states(car: &Car, arrived: &Gains, planned: Option<&PlannedHeights>) -> Vec<HeightState> {
    let new_tyres = car.facts.axles.as_ref().map(|a| a.tyre_gain_mm);
    let body = planned.map_or_else(Axles::default, |p| p.axles.map(|a| a.body_mm));
    let state = |kind, name: &str, gains: Gains, band_mm| HeightState {
        kind,
        name: name.to_owned(),
        gains,
        band_mm,
        body_mm: if kind == StateKind::Arrived { Axles::default() } else { body },
        tyres: if planned.is_none() || kind == StateKind::Arrived { Axles::default() } else { new_tyres },
    };
    let mut out = vec![state(StateKind::Arrived, "as arrived", *arrived, 0.0)];
    let mut leaves = *arrived;
    let mut band = 0.0;
    if let Some(p) = planned {
        let (f, r) = (&p.axles.front, &p.axles.rear);
        let trim = Gains {
            left_front: f.trim_mm.left,
            right_front: f.trim_mm.right,
            left_rear: r.trim_mm.left,
            right_rear: r.trim_mm.right,
        };
        leaves = arrived.plus(&Gains::level(f.gain_mm, r.gain_mm)).plus(&trim);
        out.push(state(StateKind::Planned, "planned", leaves, 0.0));
        let settles = Axles::of(|a| match p.axles[a] {
            PlannedHeight { settle_mm, .. } if settle_mm != 0.0 => settle_mm,
            PlannedHeight { gain_mm, .. } if gain_mm != 0.0 => car.facts.axles[a].settle_mm,
            _ => 0.0,
        });
        if settles != Axles::default() {
            leaves = leaves.plus(&Gains::level(-settles.front, -settles.rear));
            band = settle_band(settles.front.max(settles.rear));
            out.push(state(StateKind::Settled, "settled", leaves, band));
        }
    }
    if let Some(sink) = load_sink(car, planned) {
        out.push(state(StateKind::Loaded, "loaded", leaves.plus(&sink), band));
    }
    for l in &car.facts.levels {
        let gains = arrived.plus(&Gains::level(l.mm.front, l.mm.rear));
        out.push(state(StateKind::Air, &l.name, gains, 0.0));
    }
    out
}

/// How far each corner sinks under the payload: from springs where they are known, else what was typed.
fn load_sink(car: &Car, planned: Option<&PlannedHeights>) -> Option<Gains> {
    let loads = planned.map(|p| p.axles.map(|a| a.load_mm)).filter(|l| *l != Axles::default());
    let typed = loads.map(|l| Gains::level(-l.front, -l.rear));
    let Some(p) = &car.facts.payload else { return typed };
    let (Some(f), Some(r)) = (&car.facts.axles.front.spring, &car.facts.axles.rear.spring) else {
        return typed;
    };
    let track = |y: f64| 2.0 * y;
    let front_track = track(car.front.wheel.center[1]);
    let rear_track = car.rear.as_ref().map_or(front_track, |g| track(g.wheel.center[1]));
    let loads = payload_loads(
        p.mass_kg,
        p.behind_front_axle_mm,
        p.left_of_centre_mm,
        car.wheelbase_mm,
        front_track,
        rear_track,
    );
    Some(Gains {
        left_front: -f.sinks(loads[0]),
        right_front: -f.sinks(loads[1]),
        left_rear: -r.sinks(loads[2]),
        right_rear: -r.sinks(loads[3]),
    })
}

#[cfg(test)]
mod tests {
    use super::super::springs::Spring;
    use super::*;
    use crate::vehicle::{AirLevel, Axles, CarFacts, Payload};
    use bold_stance_kinematics::geometry::{Axle, Side};

    fn car() -> Car {
        Car { front: crate::sample::sample(), rear: None, wheelbase_mm: 3200.0, facts: CarFacts::default() }
    }

    #[test]
    fn states_appear_only_when_they_exist() {
        let mut c = car();
        let found = Gains::default();
        assert_eq!(height_states(&c, &found, None).len(), 1);
        let plan = PlannedHeights::gains(60.0, 0.0).settling(5.0);
        let names: Vec<_> = height_states(&c, &found, Some(&plan))
            .into_iter()
            .map(|s| (s.kind, s.gains.left_front))
            .collect();
        assert_eq!(
            names,
            [(StateKind::Arrived, 0.0), (StateKind::Planned, 60.0), (StateKind::Settled, 55.0)]
        );
        c.facts.levels.push(AirLevel { name: "Access".into(), mm: Axles { front: -40.0, rear: -40.0 } });
        assert_eq!(height_states(&c, &found, Some(&plan)).last().unwrap().name, "Access");
    }

    #[test]
    fn a_load_behind_the_rear_axle_lifts_the_front() {
        let mut c = car();
        let s = Spring { rate_n_mm: 60.0, motion_ratio: 0.8 };
        c.facts.axles.front.spring = Some(s);
        c.facts.axles.rear.spring = Some(s);
        c.facts.payload =
            Some(Payload { mass_kg: 300.0, behind_front_axle_mm: 4000.0, left_of_centre_mm: 0.0 });
        let loaded = height_states(&c, &Gains::default(), None).pop().unwrap();
        assert_eq!(loaded.kind, StateKind::Loaded);
        assert!(loaded.gains.left_front > 0.0 && loaded.gains.left_rear < -20.0);
    }

    #[test]
    fn nose_up_adds_to_caster_one_to_one_on_the_whole_car() {
        let c = car();
        let corners = c.corners();
        let flat = c.state(&corners, &Gains::default(), Axles::default());
        // The rear lowered: the front suspension stays where it is and only the body turns.
        let up = c.state(&corners, &Gains::level(0.0, -50.0), Axles::default());
        let caster = |s: &crate::vehicle::CarState| s.wheels[0].wheel.unwrap().steer.unwrap().caster_deg;
        assert!((caster(&up) - caster(&flat) - up.pitch_deg).abs() < 1e-9);
        assert!((up.pitch_deg - (50.0f64 / 3200.0).atan().to_degrees()).abs() < 1e-12);
    }

    #[test]
    fn taller_front_tyres_turn_the_body_and_nothing_else() {
        let c = car();
        let corners = c.corners();
        let flat = c.state(&corners, &Gains::default(), Axles::default());
        let tall = c.state(&corners, &Gains::default(), Axles { front: 20.0, rear: 0.0 });
        let w = |s: &crate::vehicle::CarState| s.wheels[0].wheel.unwrap();
        let (a, b) = (w(&flat), w(&tall));
        assert!((tall.pitch_deg - (20.0f64 / 3200.0).atan().to_degrees()).abs() < 1e-12);
        let caster = b.steer.unwrap().caster_deg - a.steer.unwrap().caster_deg;
        assert!((caster - tall.pitch_deg).abs() < 1e-9);
        // The axis meets the ground 20 mm lower: scrub falls by 20 tan(SAI).
        let scrub = a.steer.unwrap().scrub_radius_mm - b.steer.unwrap().scrub_radius_mm;
        assert!((scrub - 20.0 * a.steer.unwrap().sai_deg.to_radians().tan()).abs() < 0.3, "{scrub}");
    }

    #[test]
    fn a_live_axle_stays_level_under_a_leaning_body() {
        let shapes = crate::archetype::shipped_archetypes().unwrap();
        let get = |id: &str| shapes.iter().find(|a| a.id == id).unwrap().geometry.clone();
        let c = Car { rear: Some(get("leaf_rear")), front: get("live_front"), ..car() };
        let corners = c.corners();
        let high = Gains { left_front: 24.0, left_rear: 24.0, ..Gains::default() };
        let s = c.state(&corners, &high, Axles::default());
        assert!(s.roll_deg > 0.6);
        for w in &s.wheels {
            assert!((w.travel_mm + 12.0).abs() < 1e-12, "the axle hangs at the mean");
            assert!(w.wheel.unwrap().camber_deg.abs() < 0.01, "{w:?}");
        }
    }

    #[test]
    fn mirror_images_read_alike_and_a_side_high_changes_them() {
        let c = car();
        let corners = c.corners();
        let s = c.state(&corners, &Gains::level(30.0, 0.0), Axles::default());
        assert_eq!(s.wheels[0].wheel, s.wheels[1].wheel);
        let tilted = c.state(
            &corners,
            &Gains { left_front: 20.0, left_rear: 20.0, ..Gains::default() },
            Axles::default(),
        );
        assert!(tilted.roll_deg > 0.5 && tilted.warp_deg.abs() < 0.1);
        let camber = |i: usize| tilted.wheels[i].wheel.unwrap().camber_deg;
        assert!(camber(0) < camber(1));
        assert_eq!(tilted.wheels[1].side, Side::Right);
        assert_eq!(tilted.wheels[1].axle, Axle::Front);
    }
}
