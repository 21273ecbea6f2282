//! Wheel plane and steering axis → camber, toe, caster, SAI, scrub radius, mechanical trail.
//!
//! Definitions after ISO 8855 / SAE J670 for the left wheel; see the crate page for the signs.

use crate::Vec3;
use bold_stance_units::numbers::follow;
use serde::{Deserialize, Serialize};

/// The steering axis of a wheel, in left-hand vehicle axes (mm).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Axis {
    /// Lower point of the axis.
    pub lower: Vec3,
    /// Upper point of the axis.
    pub upper: Vec3,
    /// Outer end of the tie rod (a point of the axis where there is none).
    pub tie: Vec3,
}

/// Where one wheel and its steering axis are, in left-hand vehicle axes (mm).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pose {
    /// Wheel centre.
    pub centre: Vec3,
    /// Unit spin axis, pointing outboard.
    pub spin: Vec3,
    /// Unit direction fixed in the knuckle (arm, axle), upright at design.
    pub up: Vec3,
    /// Steering axis; none for a wheel that does not steer.
    pub axis: Option<Axis>,
}

/// The angles and lengths a specialist speaks of, for one wheel.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Alignment {
    /// Degrees, top out positive.
    pub camber_deg: f64,
    /// Degrees per wheel, toe-in positive.
    pub toe_deg: f64,
    /// Degrees, top rearward positive.
    pub caster_deg: f64,
    /// Steering-axis inclination, degrees, top inboard positive.
    pub sai_deg: f64,
    /// Contact point from the centre line, mm.
    pub half_track_mm: f64,
    /// Wheel centre forward of its design place, mm.
    pub wheel_x_mm: f64,
    /// Contact outboard of the axis positive, mm.
    pub scrub_radius_mm: f64,
    /// Axis ahead of the contact positive, mm.
    pub mechanical_trail_mm: f64,
}

/// What the steering axis adds.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SteerState {
    /// Degrees, top rearward positive.
    pub caster_deg: f64,
    /// Steering-axis inclination, degrees, top inboard positive.
    pub sai_deg: f64,
    /// Contact outboard of the axis positive, mm.
    pub scrub_radius_mm: f64,
    /// Axis ahead of the contact positive, mm.
    pub mechanical_trail_mm: f64,
}

/// One wheel, steered or not.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WheelState {
    /// Degrees, top out positive.
    pub camber_deg: f64,
    /// Degrees per wheel, toe-in positive.
    pub toe_deg: f64,
    /// Contact point from the centre line, mm.
    pub half_track_mm: f64,
    /// Wheel centre forward of its design place, mm.
    pub wheel_x_mm: f64,
    /// None for a wheel that does not steer.
    pub steer: Option<SteerState>,
}

impl WheelState {
    /// The full list; caster, SAI, scrub and trail are 0 where the wheel does not steer and mean nothing there.
    #[must_use]
    pub fn or_unsteered(&self) -> Alignment {
        self.alignment().unwrap_or(Alignment {
            camber_deg: self.camber_deg,
            toe_deg: self.toe_deg,
            caster_deg: 0.0,
            sai_deg: 0.0,
            half_track_mm: self.half_track_mm,
            wheel_x_mm: self.wheel_x_mm,
            scrub_radius_mm: 0.0,
            mechanical_trail_mm: 0.0,
        })
    }

    /// The full list of a steered wheel.
    #[must_use]
    pub fn alignment(&self) -> Option<Alignment> {
        let s = self.steer?;
        Some(Alignment {
            camber_deg: self.camber_deg,
            toe_deg: self.toe_deg,
            caster_deg: s.caster_deg,
            sai_deg: s.sai_deg,
            half_track_mm: self.half_track_mm,
            wheel_x_mm: self.wheel_x_mm,
            scrub_radius_mm: s.scrub_radius_mm,
            mechanical_trail_mm: s.mechanical_trail_mm,
        })
    }
}

/// Unit spin axis of a left wheel from camber and toe in radians.
#[must_use]
pub fn spin_axis(camber: f64, toe: f64) -> Vec3 {
    let (sc, cc) = camber.sin_cos();
    let (st, ct) = toe.sin_cos();
    Vec3::new(cc * st, cc * ct, -sc)
}

/// Point of the tyre on the ground: centre − R·w, w the unit vector in the wheel plane most nearly up.
#[must_use]
pub fn contact_point(centre: &Vec3, spin: &Vec3, loaded_radius: f64) -> Vec3 {
    let up = Vec3::z() - spin * spin.z;
    centre - up * (loaded_radius / up.norm())
}

/// Camber of a spin axis in radians.
#[must_use]
pub fn camber(spin: &Vec3) -> f64 {
    -spin.z.clamp(-1.0, 1.0).asin()
}

/// Toe of a spin axis in radians.
#[must_use]
pub fn toe(spin: &Vec3) -> f64 {
    spin.x.atan2(spin.y)
}

impl Axis {
    /// Caster in radians.
    #[must_use]
    pub fn caster(&self) -> f64 {
        let u = self.upper - self.lower;
        (-u.x).atan2(u.z)
    }

    /// Unit direction, upward.
    #[must_use]
    pub fn direction(&self) -> Vec3 {
        (self.upper - self.lower).normalize()
    }

    /// Where the axis meets the horizontal plane at `z`.
    #[must_use]
    pub fn pierce(&self, z: f64) -> Vec3 {
        let u = self.upper - self.lower;
        self.lower + u * ((z - self.lower.z) / u.z)
    }
}

impl Pose {
    /// Measures the pose. `design_x` is the x of the wheel centre at design, mm.
    #[must_use]
    pub fn wheel(&self, loaded_radius: f64, design_x: f64) -> WheelState {
        let contact = contact_point(&self.centre, &self.spin, loaded_radius);
        let steer = self.axis.map(|axis| {
            let u = axis.upper - axis.lower;
            let flat = self.spin.x.hypot(self.spin.y);
            let (ox, oy) = (self.spin.x / flat, self.spin.y / flat);
            let d = contact - axis.pierce(contact.z);
            SteerState {
                caster_deg: axis.caster().to_degrees(),
                sai_deg: (-u.y).atan2(u.z).to_degrees(),
                scrub_radius_mm: d.x * ox + d.y * oy,
                mechanical_trail_mm: -(d.x * oy - d.y * ox),
            }
        });
        WheelState {
            camber_deg: camber(&self.spin).to_degrees(),
            toe_deg: toe(&self.spin).to_degrees(),
            half_track_mm: contact.y,
            wheel_x_mm: self.centre.x - design_x,
            steer,
        }
    }

    /// The same pose with every vector turned by `f`.
    #[must_use]
    pub fn map(&self, f: impl Fn(&Vec3) -> Vec3) -> Self {
        Self {
            centre: f(&self.centre),
            spin: f(&self.spin),
            up: f(&self.up),
            axis: self.axis.map(|a| Axis { lower: f(&a.lower), upper: f(&a.upper), tie: f(&a.tie) }),
        }
    }

    /// The wheel turned by `angle` rad about the steering axis, the axis and everything inboard held:
    /// what turning the steering wheel does on a standing spring. Positive turns a left wheel toe-in.
    #[must_use]
    pub fn steered(&self, angle: f64) -> Self {
        let Some(axis) = self.axis else { return *self };
        // Toe-in swings the outboard end of the spin axis forward: negative about the upward axis.
        let r = nalgebra::Rotation3::from_axis_angle(
            &nalgebra::Unit::new_normalize(axis.upper - axis.lower),
            -angle,
        );
        Self {
            centre: axis.lower + r * (self.centre - axis.lower),
            spin: r * self.spin,
            up: r * self.up,
            axis: Some(Axis { tie: axis.lower + r * (axis.tie - axis.lower), ..axis }),
        }
    }

    /// The same until its toe has changed by `turn` rad, toe-in positive.
    #[must_use]
    pub fn turned_to(&self, turn: f64) -> Self {
        let want = toe(&self.spin) + turn;
        self.steered(follow(turn, 1e-12, 20, |angle| toe(&self.steered(angle).spin) - want))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn upright() -> Pose {
        Pose {
            centre: Vec3::new(0.0, 800.0, 400.0),
            spin: spin_axis(0.0, 0.0),
            up: Vec3::z(),
            axis: Some(Axis {
                lower: Vec3::new(0.0, 700.0, 250.0),
                upper: Vec3::new(0.0, 700.0, 550.0),
                tie: Vec3::new(150.0, 690.0, 300.0),
            }),
        }
    }

    #[test]
    fn signs_follow_iso_8855() {
        // ISO 8855: positive camber leans the top outward, toe-in turns the front inward.
        let top_out = spin_axis(1f64.to_radians(), 0.0);
        assert!(top_out.z < 0.0, "outboard axis dips when the top leans out");
        assert!((camber(&top_out).to_degrees() - 1.0).abs() < 1e-12);
        let toe_in = spin_axis(0.0, 1f64.to_radians());
        assert!(toe_in.x > 0.0, "left outboard axis swings forward when the front turns in");
        let mut p = upright();
        let axis = p.axis.as_mut().unwrap();
        axis.upper.x -= 20.0;
        axis.upper.y -= 40.0;
        let a = p.wheel(400.0, 0.0).alignment().unwrap();
        assert!(a.caster_deg > 0.0 && a.sai_deg > 0.0);
        assert!(a.mechanical_trail_mm > 0.0, "axis meets the ground ahead of the contact");
    }

    #[test]
    fn scrub_is_axis_to_contact() {
        let a = upright().wheel(400.0, 0.0).alignment().unwrap();
        assert!((a.scrub_radius_mm - 100.0).abs() < 1e-9);
        assert!(a.mechanical_trail_mm.abs() < 1e-9);
        assert!((a.half_track_mm - 800.0).abs() < 1e-9);
    }

    #[test]
    fn a_cambered_wheel_touches_the_ground_out_of_its_centre_plane() {
        let c = contact_point(&Vec3::new(0.0, 800.0, 400.0), &spin_axis(0.1, 0.0), 400.0);
        // Top out: the bottom goes inboard by R sin(camber).
        assert!((c.y - (800.0 - 400.0 * 0.1f64.sin())).abs() < 1e-9);
    }

    #[test]
    fn steering_about_an_upright_axis_is_pure_toe() {
        let p = upright().steered(0.3);
        assert!((toe(&p.spin) - 0.3).abs() < 1e-12 && camber(&p.spin).abs() < 1e-12);
        // The wheel swings round the kingpin: 100 mm arm.
        assert!((p.centre.y - (700.0 + 100.0 * 0.3f64.cos())).abs() < 1e-9);
    }

    #[test]
    fn a_wheel_without_an_axis_has_no_caster() {
        let p = Pose { axis: None, ..upright() };
        let w = p.wheel(400.0, 0.0);
        assert!(w.steer.is_none() && w.alignment().is_none());
        assert_eq!(p.steered(0.2), p);
    }
}
