//! What the front wheels do when the steering wheel is turned, as found and as set: camber, the corner it lifts, the wheel's
//! way in the arch; and what caster does to the effort.

use super::bench::Bench;
use super::work::Work;
use crate::plan::judge::SolvedSetting;
use bold_stance_car::metrics::{rack_for_lock, steering};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_kinematics::wheel::{Pose, contact_point};
use serde::{Deserialize, Serialize};

/// Places of the steering wheel from one lock to the other.
const PLACES: usize = 17;
/// Pneumatic trail of a car or light-truck tyre, mm: about 20 to 40 (from memory; Milliken and Milliken, Race Car Vehicle
/// Dynamics, 1995).
const PNEUMATIC_MM: f64 = 30.0;

/// One front wheel at one place of the steering wheel.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TurnSide {
    /// Turn of the wheel from straight ahead, degrees, to the left positive.
    pub turn_deg: f64,
    /// Camber over the ground, the body level, degrees.
    pub camber_deg: f64,
    /// How far this corner of the body rises over straight ahead, mm: the wheel goes down in the body.
    pub rise_mm: f64,
    /// How far the wheel goes forward in the arch, mm.
    pub forward_mm: f64,
}

/// Both front wheels at one place of the steering wheel.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TurnPoint {
    /// Mean turn of both wheels, degrees, to the left positive; times the steering ratio it is the steering wheel's.
    pub mean_deg: f64,
    /// Left wheel.
    pub left: TurnSide,
    /// Right wheel.
    pub right: TurnSide,
}

/// The steering from lock to lock.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TurnPath {
    /// As found.
    pub found: Vec<TurnPoint>,
    /// As planned and set.
    pub set: Vec<TurnPoint>,
    /// Effort to hold the wheel in a bend against as found: mechanical and pneumatic trail as set over as found.
    pub effort_ratio: f64,
}

/// A corner standing still with its knuckle turned.
fn side(c: &Corner, straight: &Pose, turn_deg: f64, sign: f64) -> TurnSide {
    let turned = straight.turned_to(turn_deg.to_radians());
    let r = c.loaded_radius();
    let contact = |p: &Pose| contact_point(&p.centre, &p.spin, r);
    TurnSide {
        // Toe-in of the left wheel points right, of the right wheel left.
        turn_deg: sign * turn_deg,
        camber_deg: bold_stance_kinematics::wheel::camber(&turned.spin).to_degrees(),
        rise_mm: contact(straight).z - contact(&turned).z,
        forward_mm: turned.centre.x - straight.centre.x,
    }
}

/// Both wheels over the rack's way; empty where it does not steer or cannot be followed.
fn path(
    corners: [&Corner; 2],
    travels: [f64; 2],
    straight: [&Pose; 2],
    lock_deg: f64,
    wheelbase: f64,
) -> Vec<TurnPoint> {
    let Some(full) = rack_for_lock(corners[0], travels[0], lock_deg) else { return Vec::new() };
    (0..PLACES)
        .filter_map(|k| {
            // From full right to full left.
            let share = 2.0 * k as f64 / (PLACES - 1) as f64 - 1.0;
            let s = steering(corners, travels, full * share, wheelbase).ok()?;
            let left = side(corners[0], straight[0], -s.inner_deg, -1.0);
            let right = side(corners[1], straight[1], s.outer_deg, 1.0);
            Some(TurnPoint { mean_deg: 0.5 * (left.turn_deg + right.turn_deg), left, right })
        })
        .collect()
}

impl Work<'_> {
    /// The steering as found and as set; none for an axle that does not steer or whose rack cannot be followed.
    pub(crate) fn steer_path(&self, benches: &[Bench; 2], set: &[SolvedSetting; 2]) -> Option<TurnPath> {
        if !self.input.steered() || matches!(self.sides[0].found, Corner::Axle(_)) {
            return None;
        }
        let (lock, base) = (self.input.lock_deg, self.input.wheelbase_mm);
        let found: [&Corner; 2] = [0, 1].map(|i| &self.sides[i].found);
        let travels = [0, 1].map(|i| self.sides[i].travel);
        let was = [found[0].pose(travels[0], 0.0).ok()?, found[1].pose(travels[1], 0.0).ok()?];
        let corners = [0, 1].map(|i| benches[i].set(&set[i].positions));
        let heights = [0, 1].map(|i| benches[i].travel_mm);
        let now =
            [0, 1].map(|i| corners[i].pose(heights[i], 0.0).ok().map(|p| benches[i].attitude.apply(&p)));
        let [Some(l), Some(r)] = now else { return None };
        let trail = |c: &Corner, p: &Pose| {
            let steer = p.wheel(c.loaded_radius(), c.design_x()).steer;
            steer.map_or(0.0, |s| s.mechanical_trail_mm) + PNEUMATIC_MM
        };
        let mean = |of: [f64; 2]| 0.5 * (of[0] + of[1]);
        let before = mean([trail(found[0], &was[0]), trail(found[1], &was[1])]);
        let after = mean([trail(&corners[0], &l), trail(&corners[1], &r)]);
        let out = TurnPath {
            found: path(found, travels, [&was[0], &was[1]], lock, base),
            set: path([&corners[0], &corners[1]], heights, [&l, &r], lock, base),
            effort_ratio: if before.abs() < 1.0 { 1.0 } else { after / before },
        };
        (!out.set.is_empty() && !out.found.is_empty()).then_some(out)
    }
}
