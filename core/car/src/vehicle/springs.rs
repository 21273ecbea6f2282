//! Springs, motion ratio, payload by moments, collar and torsion-bolt turns.

use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::linkage::{Linkage, Unreachable};
use serde::{Deserialize, Serialize};

/// Standard gravity, m/s² (ISO 80000-3).
pub const GRAVITY: f64 = 9.806_65;

/// A spring of one wheel.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Spring {
    /// Spring rate, N per mm of spring.
    pub rate_n_mm: f64,
    /// Spring travel over wheel travel.
    pub motion_ratio: f64,
}

impl Spring {
    /// Rate at the wheel, N/mm: spring rate × motion ratio² (any vehicle-dynamics textbook).
    #[must_use]
    pub fn wheel_rate(&self) -> f64 {
        self.rate_n_mm * self.motion_ratio * self.motion_ratio
    }

    /// Height gained at the wheel for `turns` of a collar of `pitch_mm` a turn, load unchanged, mm.
    #[must_use]
    pub fn collar_height(&self, turns: f64, pitch_mm: f64) -> f64 {
        turns * pitch_mm / self.motion_ratio
    }

    /// Height lost at the wheel for an extra load of `newton`, mm.
    #[must_use]
    pub fn sinks(&self, newton: f64) -> f64 {
        newton / self.wheel_rate()
    }
}

/// Spring travel over wheel travel from the geometry: `seat` is fixed to the body, `foot` rides on the
/// knuckle (both at design, mm). Central difference of the spring's length about `travel`; positive when
/// the spring shortens in bump.
///
/// # Errors
/// [`Unreachable`] when the corner cannot be posed there.
pub fn motion_ratio(
    corner: &impl Linkage,
    seat: [f64; 3],
    foot: [f64; 3],
    travel: f64,
) -> Result<f64, Unreachable> {
    let design = corner.pose(0.0, 0.0)?;
    // The knuckle's own frame from its spin axis and its upright direction.
    let frame = |spin: &Vec3, up: &Vec3| {
        let z = (up - spin * spin.dot(up)).normalize();
        [*spin, z.cross(spin), z]
    };
    let own = frame(&design.spin, &design.up);
    let arm = Vec3::from(foot) - design.centre;
    let local = own.map(|e| e.dot(&arm));
    let length = |t: f64| -> Result<f64, Unreachable> {
        let p = corner.pose(t, 0.0)?;
        let [a, b, c] = frame(&p.spin, &p.up);
        let at = p.centre + a * local[0] + b * local[1] + c * local[2];
        Ok((at - Vec3::from(seat)).norm())
    };
    let h = 0.5;
    Ok((length(travel - h)? - length(travel + h)?) / (2.0 * h))
}

/// Extra load of each wheel (left front, right front, left rear, right rear), N, for a mass at a place:
/// moments about the rear axle and about the centre line.
#[must_use]
pub fn payload_loads(
    mass_kg: f64,
    behind_front_axle_mm: f64,
    left_of_centre_mm: f64,
    wheelbase_mm: f64,
    front_track_mm: f64,
    rear_track_mm: f64,
) -> [f64; 4] {
    let weight = mass_kg * GRAVITY;
    let rear = weight * behind_front_axle_mm / wheelbase_mm;
    let front = weight - rear;
    let left = |axle: f64, track: f64| axle * (0.5 + left_of_centre_mm / track);
    let (lf, lr) = (left(front, front_track_mm), left(rear, rear_track_mm));
    [lf, front - lf, lr, rear - lr]
}

/// Height per turn of a torsion bolt, learned from records, mm.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PerTurn {
    /// Best estimate, mm a turn.
    pub mm: f64,
    /// Standard deviation, mm a turn.
    pub sigma_mm: f64,
    /// Records it rests on.
    pub records: usize,
}

/// Settled height a turn of a torsion bar's bolt gives, mm, and its standard deviation (common practice, no source: two
/// turns gave about 3/8 in).
pub const TORSION_BOLT: (f64, f64) = (4.8, 2.0);

/// Doubt of a settled height against another of the same corner, standard deviation, mm (common practice, no source).
pub const SETTLED_SD_MM: f64 = 2.0;

/// Height per turn from `(turns, settled height change)` pairs: least squares with a prior (mean and standard deviation, mm
/// a turn) and [`SETTLED_SD_MM`] of doubt in each settled height.
#[must_use]
pub fn learn_per_turn(prior: (f64, f64), records: &[(f64, f64)]) -> PerTurn {
    let (mut weight, mut sum) = (prior.1.powi(-2), prior.0 * prior.1.powi(-2));
    for (turns, mm) in records {
        weight += turns * turns / (SETTLED_SD_MM * SETTLED_SD_MM);
        sum += turns * mm / (SETTLED_SD_MM * SETTLED_SD_MM);
    }
    PerTurn { mm: sum / weight, sigma_mm: weight.powf(-0.5), records: records.len() }
}

#[cfg(test)]
mod tests {
    use super::*;
    use bold_stance_kinematics::geometry::WheelAtDesign;
    use bold_stance_kinematics::linkage::HingeCorner;
    use proptest::prelude::*;

    #[test]
    fn wheel_rate_and_collar_follow_the_motion_ratio() {
        let s = Spring { rate_n_mm: 90.0, motion_ratio: 0.6 };
        assert!((s.wheel_rate() - 32.4).abs() < 1e-12);
        assert!((s.collar_height(2.0, 2.0) - 6.667).abs() < 1e-3);
        assert!((s.sinks(324.0) - 10.0).abs() < 1e-12);
    }

    #[test]
    fn motion_ratio_of_a_trailing_arm_is_its_lever() {
        // Hinge at x = -2200, wheel 400 mm behind it, spring upright half way: lever 1/2 when level.
        let w = WheelAtDesign {
            center: [-2600.0, 740.0, 310.0],
            camber_deg: 0.0,
            toe_deg: 0.0,
            loaded_radius_mm: 310.0,
        };
        let c = HingeCorner::new([-2200.0, 300.0, 310.0], [-2200.0, 650.0, 310.0], &w);
        let r = motion_ratio(&c, [-2400.0, 600.0, 700.0], [-2400.0, 600.0, 310.0], 0.0).unwrap();
        assert!((r - 0.5).abs() < 1e-6, "{r}");
    }

    proptest! {
        /// Payload moments sum: the wheels carry the weight, and its moments about both axes.
        #[test]
        fn payload_loads_carry_the_weight_and_its_moments(m in 0.0f64..2000.0, x in -500.0f64..4500.0, y in -600.0f64..600.0) {
            let f = payload_loads(m, x, y, 3200.0, 1600.0, 1650.0);
            let w = m * GRAVITY;
            prop_assert!((f.iter().sum::<f64>() - w).abs() < 1e-6);
            prop_assert!(((f[2] + f[3]) * 3200.0 - w * x).abs() < 1e-3);
            let roll = (f[0] - f[1]) * 800.0 + (f[2] - f[3]) * 825.0;
            prop_assert!((roll - w * y).abs() < 1e-3);
        }
    }

    #[test]
    fn turns_are_learned_from_what_happened() {
        let none = learn_per_turn(TORSION_BOLT, &[]);
        assert!((none.mm - 4.8).abs() < 1e-12 && (none.sigma_mm - 2.0).abs() < 1e-12);
        let some = learn_per_turn(TORSION_BOLT, &[(2.0, 6.0), (3.0, 9.5), (-2.0, -6.4)]);
        assert!(some.mm < 3.4 && some.mm > 3.0 && some.sigma_mm < 0.6, "{some:?}");
        // Against a plain least-squares slope (any statistics textbook): the prior fades with records.
        let many: Vec<(f64, f64)> =
            (0..200).map(|i| (f64::from(i % 7) - 3.0, 3.1 * (f64::from(i % 7) - 3.0))).collect();
        assert!((learn_per_turn(TORSION_BOLT, &many).mm - 3.1).abs() < 0.01);
    }
}
