//! The body's pitch over the ground, which turns every chassis-fixed angle with it.

use crate::Vec3;
use crate::wheel::Pose;
use serde::{Deserialize, Serialize};

/// Pitch of the body relative to the readings the model is anchored to, radians, nose up positive.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
pub struct Attitude {
    /// Radians, nose up positive.
    pub pitch: f64,
}

impl Attitude {
    /// atan((front rise − rear rise) / wheelbase), all mm.
    #[must_use]
    pub fn from_rises(front_mm: f64, rear_mm: f64, wheelbase_mm: f64) -> Self {
        Self { pitch: ((front_mm - rear_mm) / wheelbase_mm).atan() }
    }

    /// Turns a chassis vector into ground axes: nose up lifts what is ahead.
    #[must_use]
    pub fn turn(&self, v: &Vec3) -> Vec3 {
        let (s, c) = self.pitch.sin_cos();
        Vec3::new(c * v.x - s * v.z, v.y, s * v.x + c * v.z)
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
    use crate::wheel::{Axis, spin_axis};
    use nalgebra::{Rotation3, Vector3};

    #[test]
    fn nose_up_adds_to_caster_one_to_one() {
        let pose = Pose {
            centre: Vec3::new(0.0, 800.0, 400.0),
            spin: spin_axis(0.0, 0.0),
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
        // nalgebra: rotation by −pitch about +y raises +x.
        let a = Attitude { pitch: 0.21 };
        let r = Rotation3::from_axis_angle(&Vector3::y_axis(), -0.21);
        for v in [Vec3::x(), Vec3::z(), Vec3::new(3.0, -2.0, 7.0)] {
            assert!((a.turn(&v) - r * v).norm() < 1e-12);
        }
    }
}
