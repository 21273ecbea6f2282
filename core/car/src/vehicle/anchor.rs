//! Anchoring: the model never contradicts the gauge.
//!
//! Given camber, caster and toe read at a known height and adjuster position, a fixed rotation of
//! the spin axis in the knuckle (camber, toe) and a fore-aft shift of the upper ball joint (caster)
//! are found so that the model reproduces the readings. Their size is shown: a large one says that a
//! part is bent or the geometry is not this car's.

use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Points, WheelAtDesign};
use bold_stance_kinematics::linkage::{Corner, Linkage, Loop, Unreachable};
use serde::{Deserialize, Serialize};

/// What was read on one wheel, degrees.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Measured {
    /// Top out positive.
    pub camber_deg: f64,
    /// Top rearward positive.
    pub caster_deg: f64,
    /// Per wheel, toe-in positive.
    pub toe_deg: f64,
}

/// How far the geometry had to be bent to agree with the readings.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Anchor {
    /// Rotation of the spin axis in the knuckle, degrees of camber.
    pub camber_deg: f64,
    /// Rotation of the spin axis in the knuckle, degrees of toe.
    pub toe_deg: f64,
    /// Forward shift of the upper ball joint, mm.
    pub upper_shift_mm: f64,
    /// The caster that this shift stands for, degrees.
    pub caster_deg: f64,
}

impl Anchor {
    /// Largest of the three corrections, degrees.
    #[must_use]
    pub fn largest_deg(&self) -> f64 {
        self.camber_deg.abs().max(self.toe_deg.abs()).max(self.caster_deg.abs())
    }

    /// Above 1.5° the geometry is suspect (`bent part or wrong geometry`).
    #[must_use]
    pub fn suspicious(&self) -> bool {
        self.largest_deg() > 1.5
    }
}

/// A corner that reproduces its readings, before any adjuster or part.
#[derive(Debug, Clone)]
pub struct Anchored {
    /// The corner with the fitted parts of the readings but without the adjusters' start position.
    pub corner: Corner,
    /// The correction that was needed.
    pub anchor: Anchor,
}

/// What is asked of a corner: caster only where the wheel steers.
#[derive(Debug, Clone, Copy)]
struct Wanted {
    camber_deg: f64,
    toe_deg: f64,
    caster_deg: Option<f64>,
}

/// Solves the anchor of a steered wheel. `travel` is where the readings were taken (mm, bump positive);
/// `start` are the edits present then (adjusters at their start position).
///
/// # Errors
/// [`Unreachable`] when the corner cannot be posed at that travel, or does not steer.
pub fn anchor(
    points: &Points,
    wheel: &WheelAtDesign,
    travel: f64,
    start: &[Edit],
    measured: &Measured,
) -> Result<Anchored, Unreachable> {
    let wanted = Wanted {
        camber_deg: measured.camber_deg,
        toe_deg: measured.toe_deg,
        caster_deg: Some(measured.caster_deg),
    };
    bend(points, wheel, travel, start, wanted)
}

/// Solves the anchor of a wheel from camber and toe alone (degrees): a rear wheel, or a front one whose
/// caster was not read.
///
/// # Errors
/// [`Unreachable`] when the corner cannot be posed at that travel.
pub fn anchor_wheel(
    points: &Points,
    wheel: &WheelAtDesign,
    travel: f64,
    start: &[Edit],
    camber_deg: f64,
    toe_deg: f64,
) -> Result<Anchored, Unreachable> {
    bend(points, wheel, travel, start, Wanted { camber_deg, toe_deg, caster_deg: None })
}

fn bend(
    points: &Points,
    wheel: &WheelAtDesign,
    travel: f64,
    start: &[Edit],
    wanted: Wanted,
) -> Result<Anchored, Unreachable> {
    let mut w = wheel.clone();
    let mut a = Anchor::default();
    let height = points.axis_height();
    let mut corner = Corner::new(points, wheel);
    for _ in 0..40 {
        let now = if start.is_empty() {
            corner.wheel(travel, 0.0)?
        } else {
            corner.edited(start).wheel(travel, 0.0)?
        };
        let caster = match (wanted.caster_deg, now.steer) {
            (Some(c), Some(s)) => Some((c - s.caster_deg, s.caster_deg)),
            (Some(_), None) => return Err(Unreachable::at(Loop::Unsteered, travel)),
            (None, _) => None,
        };
        let miss = [wanted.camber_deg - now.camber_deg, wanted.toe_deg - now.toe_deg];
        if miss.iter().all(|m| m.abs() < 1e-10) && caster.is_none_or(|(m, _)| m.abs() < 1e-10) {
            return Ok(Anchored { corner, anchor: a });
        }
        a.camber_deg += miss[0];
        a.toe_deg += miss[1];
        if let Some((m, now)) = caster {
            a.caster_deg += m;
            if !matches!(points, Points::SolidAxle(_)) {
                a.upper_shift_mm -= m.to_radians() * height / now.to_radians().cos().powi(2);
            }
            // The knuckle itself changes: its sizes are taken again.
            w.camber_deg = wheel.camber_deg + a.camber_deg;
            w.toe_deg = wheel.toe_deg + a.toe_deg;
            let mut p = points.clone();
            p.lean_axis(a.upper_shift_mm, a.caster_deg);
            corner = Corner::new(&p, &w);
        } else {
            corner.turn_spin(miss[0].to_radians(), miss[1].to_radians());
        }
        if !a.upper_shift_mm.is_finite() || a.upper_shift_mm.abs() > 400.0 || a.caster_deg.abs() > 60.0 {
            break;
        }
    }
    // The fixed point did not settle: the geometry cannot be this car's.
    Err(Unreachable::at(Loop::UpperArm, travel))
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sample::sample;
    use bold_stance_kinematics::edit::EccentricPoint;

    #[test]
    fn reproduces_the_readings_at_their_height() {
        let g = sample();
        let m = Measured { camber_deg: 0.9, caster_deg: 2.7, toe_deg: 0.12 };
        for travel in [-40.0, 0.0, 25.0] {
            let got = anchor(&g.points, &g.wheel, travel, &[], &m).unwrap();
            let now = got.corner.alignment(travel, 0.0).unwrap();
            assert!((now.camber_deg - 0.9).abs() < 1e-8);
            assert!((now.caster_deg - 2.7).abs() < 1e-8);
            assert!((now.toe_deg - 0.12).abs() < 1e-8);
        }
    }

    #[test]
    fn design_angles_need_no_anchor() {
        let g = sample();
        let d = Corner::new(&g.points, &g.wheel).alignment(0.0, 0.0).unwrap();
        let m = Measured { camber_deg: d.camber_deg, caster_deg: d.caster_deg, toe_deg: d.toe_deg };
        let got = anchor(&g.points, &g.wheel, 0.0, &[], &m).unwrap();
        assert!(got.anchor.largest_deg() < 1e-9);
    }

    #[test]
    fn start_positions_of_the_adjusters_count() {
        let g = sample();
        let start = [Edit::MovePivot { point: EccentricPoint::LowerFront, by: [0.0, 3.0, 0.0] }];
        let m = Measured { camber_deg: -0.4, caster_deg: 3.0, toe_deg: 0.0 };
        let got = anchor(&g.points, &g.wheel, -20.0, &start, &m).unwrap();
        let c = got.corner.edited(&start);
        assert!((c.alignment(-20.0, 0.0).unwrap().caster_deg - 3.0).abs() < 1e-8);
    }

    #[test]
    fn a_bent_car_is_said_to_be() {
        let g = sample();
        let m = Measured { camber_deg: -2.2, caster_deg: 3.0, toe_deg: 0.0 };
        assert!(anchor(&g.points, &g.wheel, 0.0, &[], &m).unwrap().anchor.suspicious());
        let m = Measured { camber_deg: -0.2, caster_deg: 3.0, toe_deg: 0.0 };
        assert!(!anchor(&g.points, &g.wheel, 0.0, &[], &m).unwrap().anchor.suspicious());
    }
}
