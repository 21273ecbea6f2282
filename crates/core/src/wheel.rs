//! Wheel plane and steering axis → camber, toe, caster, SAI, scrub radius, mechanical trail.
//!
//! Definitions after ISO 8855 / SAE J670 for the left wheel; see the crate page for the signs.

use crate::Vec3;
use serde::{Deserialize, Serialize};

/// Where one wheel and its steering axis are, in left-hand vehicle axes (mm).
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pose {
    /// Wheel centre.
    pub centre: Vec3,
    /// Unit spin axis, pointing outboard.
    pub spin: Vec3,
    /// Lower point of the steering axis.
    pub lower: Vec3,
    /// Upper point of the steering axis.
    pub upper: Vec3,
    /// Outer end of the tie rod.
    pub tie: Vec3,
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

impl Pose {
    /// Caster in radians.
    #[must_use]
    pub fn caster(&self) -> f64 {
        let u = self.upper - self.lower;
        (-u.x).atan2(u.z)
    }

    /// Measures the pose. `design_x` is the x of the wheel centre at design, mm.
    #[must_use]
    pub fn measure(&self, loaded_radius: f64, design_x: f64) -> Alignment {
        let u = self.upper - self.lower;
        let contact = contact_point(&self.centre, &self.spin, loaded_radius);
        let pierce = self.lower + u * ((contact.z - self.lower.z) / u.z);
        let flat = self.spin.x.hypot(self.spin.y);
        let (ox, oy) = (self.spin.x / flat, self.spin.y / flat);
        let d = contact - pierce;
        Alignment {
            camber_deg: camber(&self.spin).to_degrees(),
            toe_deg: toe(&self.spin).to_degrees(),
            caster_deg: self.caster().to_degrees(),
            sai_deg: (-u.y).atan2(u.z).to_degrees(),
            half_track_mm: contact.y,
            wheel_x_mm: self.centre.x - design_x,
            scrub_radius_mm: d.x * ox + d.y * oy,
            mechanical_trail_mm: -(d.x * oy - d.y * ox),
        }
    }

    /// The same pose with every vector turned by `f`.
    #[must_use]
    pub fn map(&self, f: impl Fn(&Vec3) -> Vec3) -> Self {
        Self {
            centre: f(&self.centre),
            spin: f(&self.spin),
            lower: f(&self.lower),
            upper: f(&self.upper),
            tie: f(&self.tie),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn upright() -> Pose {
        Pose {
            centre: Vec3::new(0.0, 800.0, 400.0),
            spin: spin_axis(0.0, 0.0),
            lower: Vec3::new(0.0, 700.0, 250.0),
            upper: Vec3::new(0.0, 700.0, 550.0),
            tie: Vec3::new(150.0, 690.0, 300.0),
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
        p.upper.x -= 20.0;
        p.upper.y -= 40.0;
        let a = p.measure(400.0, 0.0);
        assert!(a.caster_deg > 0.0 && a.sai_deg > 0.0);
        assert!(a.mechanical_trail_mm > 0.0, "axis meets the ground ahead of the contact");
    }

    #[test]
    fn scrub_is_axis_to_contact() {
        let a = upright().measure(400.0, 0.0);
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
}
