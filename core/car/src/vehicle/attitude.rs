//! The body's pitch and roll over the ground, which turn every chassis-fixed angle with them.

use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::wheel::Pose;
use serde::{Deserialize, Serialize};

/// Attitude of the body relative to the readings the model is anchored to, radians.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
pub struct Attitude {
    /// Nose up positive.
    pub pitch: f64,
    /// This side of the body up positive (left-hand coordinates; the other side has the opposite sign).
    pub roll: f64,
}

impl Attitude {
    /// Pitch alone: atan((front rise − rear rise) / wheelbase), all mm.
    #[must_use]
    pub fn from_rises(front_mm: f64, rear_mm: f64, wheelbase_mm: f64) -> Self {
        Self { pitch: ((front_mm - rear_mm) / wheelbase_mm).atan(), roll: 0.0 }
    }

    /// The same body seen from its other side.
    #[must_use]
    pub fn other_side(self) -> Self {
        Self { pitch: self.pitch, roll: -self.roll }
    }

    /// Turns a chassis vector into ground axes: roll first, then pitch; nose up lifts what is ahead.
    #[must_use]
    pub fn turn(&self, v: &Vec3) -> Vec3 {
        let (sr, cr) = self.roll.sin_cos();
        let (y, z) = (cr * v.y - sr * v.z, sr * v.y + cr * v.z);
        let (s, c) = self.pitch.sin_cos();
        Vec3::new(c * v.x - s * z, y, s * v.x + c * z)
    }

    /// A chassis pose seen from the ground.
    #[must_use]
    pub fn apply(&self, pose: &Pose) -> Pose {
        pose.map(|v| self.turn(v))
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use bold_stance_kinematics::wheel::{Axis, spin_axis};
    use nalgebra::{Rotation3, Vector3};

    #[test]
    fn nose_up_adds_to_caster_one_to_one() {
        let pose = Pose {
            centre: Vec3::new(0.0, 800.0, 400.0),
            spin: spin_axis(0.0, 0.0),
            up: Vec3::z(),
            axis: Some(Axis {
                lower: Vec3::new(0.0, 700.0, 250.0),
                upper: Vec3::new(-15.0, 670.0, 550.0),
                tie: Vec3::new(150.0, 690.0, 300.0),
            }),
        };
        let caster = |p: &Pose| p.wheel(400.0, 0.0).steer.unwrap().caster_deg;
        let flat = caster(&pose);
        let a = Attitude::from_rises(65.0, 0.0, 3220.0);
        let nose_up = caster(&a.apply(&pose));
        assert!((nose_up - flat - a.pitch.to_degrees()).abs() < 1e-9);
        // atan(65/3220) = 1.1564°, by hand.
        assert!((a.pitch.to_degrees() - 1.1564).abs() < 1e-3);
    }

    #[test]
    fn is_the_rigid_rotation_of_a_general_library() {
        // nalgebra: rotation by −pitch about +y raises +x, by roll about +x raises +y.
        let a = Attitude { pitch: 0.21, roll: 0.07 };
        let r = Rotation3::from_axis_angle(&Vector3::y_axis(), -0.21)
            * Rotation3::from_axis_angle(&Vector3::x_axis(), 0.07);
        for v in [Vec3::x(), Vec3::z(), Vec3::new(3.0, -2.0, 7.0)] {
            assert!((a.turn(&v) - r * v).norm() < 1e-12);
        }
    }

    #[test]
    fn a_body_raised_on_one_side_leans_its_wheels_in_there() {
        let pose = Pose {
            centre: Vec3::new(0.0, 800.0, 400.0),
            spin: spin_axis(0.0, 0.0),
            up: Vec3::z(),
            axis: None,
        };
        let a = Attitude { pitch: 0.0, roll: 0.02 };
        let camber = |p: &Pose| p.wheel(400.0, 0.0).camber_deg;
        assert!((camber(&a.apply(&pose)) + 0.02f64.to_degrees()).abs() < 1e-9);
        assert!((camber(&a.other_side().apply(&pose)) - 0.02f64.to_degrees()).abs() < 1e-9);
    }
}
