//! The floor a car stands on: it slopes, and it is not even.

use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::{Axle, Side};
use nalgebra::Vector3;
use serde::{Deserialize, Serialize};

/// A floor under four wheels.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[serde(default, deny_unknown_fields)]
pub struct Floor {
    /// Degrees, falls to the left positive.
    pub across_deg: f64,
    /// Degrees, falls to the front positive.
    pub along_deg: f64,
    /// Each wheel's patch over the plane, mm.
    pub wave_mm: Axles<Sides<f64>>,
}

impl Floor {
    /// Slope under one axle, degrees, falls to the left positive: the plane's, and what the patches add over the track.
    #[must_use]
    pub fn under(&self, axle: Axle, track_mm: f64) -> f64 {
        let wave = &self.wave_mm[axle];
        self.across_deg + ((wave[Side::Right] - wave[Side::Left]) / track_mm).atan().to_degrees()
    }

    /// Straight up, in the axes of a wheel that is mirrored to the left (x forward, y outboard, z up, square to the floor).
    #[must_use]
    pub fn up(&self, axle: Axle, side: Side, track_mm: f64) -> Vector3<f64> {
        let across = self.under(axle, track_mm).to_radians().tan();
        let along = self.along_deg.to_radians().tan();
        // Falling to the left, a left wheel's outboard is downhill; falling to the front, forward is.
        let outboard = if side == Side::Left { -across } else { across };
        Vector3::new(-along, outboard, 1.0).normalize()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_patch_that_is_low_on_the_left_falls_to_the_left() {
        let mut f = Floor::default();
        f.wave_mm[Axle::Front][Side::Left] = -15.0;
        // 15 mm over 1500 mm: atan(0.01).
        assert!((f.under(Axle::Front, 1500.0) - 0.572_938_7).abs() < 1e-6);
        assert_eq!(f.under(Axle::Rear, 1500.0), 0.0);
        let up = f.up(Axle::Front, Side::Left, 1500.0);
        assert!(up.y < 0.0 && up.x == 0.0);
        assert!(f.up(Axle::Front, Side::Right, 1500.0).y > 0.0);
    }
}
