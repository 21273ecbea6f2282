//! The contact patch of one wheel, straight ahead or in a bend: how the load lies across the tread and how long it touches.
//! The pressures are those of the forecast (docs/TREAD_MODEL.md, section 2); the length is the chord that the tread's circle
//! cuts off the road where it is pressed in.

use super::car_tyres::CarTyres;
use super::forecast::{STRIPS, Wheel, brush, brush_inverse, eta, strip_loads};
use super::parameters::Parameters;
use super::tyre::{Tyre, tread_of};
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::problem::{Problem, in_range};
use serde::{Deserialize, Serialize};

/// A bend.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Bend {
    /// Lateral acceleration, g; 0 straight ahead.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 1.5))]
    pub ay_g: f64,
    /// Turn of the front wheels into the bend, degrees.
    #[cfg_attr(feature = "openapi", schema(minimum = 0.0, maximum = 45.0))]
    pub steer_deg: f64,
}

impl Bend {
    /// What is wrong, by field under `bend`.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let g = in_range("bend.ay_g", self.ay_g, 0.0, 1.5, "g").err();
        g.into_iter().chain(in_range("bend.steer_deg", self.steer_deg, 0.0, 45.0, "°").err()).collect()
    }
}

/// How one axle is set.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AxleSetting {
    /// Camber straight ahead, degrees, top out positive.
    #[cfg_attr(feature = "openapi", schema(minimum = -30.0, maximum = 30.0))]
    pub camber_deg: f64,
    /// Half the axle's total toe, degrees, toe-in positive.
    #[cfg_attr(feature = "openapi", schema(minimum = -30.0, maximum = 30.0))]
    pub toe_deg: f64,
    /// Caster of a front axle, degrees.
    #[cfg_attr(feature = "openapi", schema(minimum = -15.0, maximum = 20.0))]
    pub caster_deg: f64,
}

/// One strip of the patch.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PatchStrip {
    /// Across the tread, −1 inner edge to +1 outer.
    pub eta: f64,
    /// How long it touches, mm; 0 where it is off the road.
    pub length_mm: f64,
    /// Mean pressure on it, kPa.
    pub pressure_kpa: f64,
}

/// The contact patch of one wheel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Footprint {
    /// Load, N.
    pub load_n: f64,
    /// Camber against the road there, degrees.
    pub camber_deg: f64,
    /// Width of the tread, mm.
    pub width_mm: f64,
    /// Strips, inner edge first.
    pub strips: Vec<PatchStrip>,
    /// Share of the load on the inner, middle and outer third.
    pub thirds: [f64; 3],
    /// Share of the tread's width that touches.
    pub touching: f64,
}

/// Both wheels of an axle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AxlePatches {
    /// Straight ahead.
    pub straight: Footprint,
    /// Outside the bend.
    pub outside: Footprint,
    /// Inside it.
    pub inside: Footprint,
}

/// The patch of one wheel; `side` is +1 outside the bend, −1 inside, 0 straight ahead.
fn footprint(tyre: &Tyre, w: &Wheel, s: &AxleSetting, bend: &Bend, side: f64) -> Footprint {
    let p = Parameters::default();
    let tread = tread_of(tyre);
    let (width, c, mu) = (tread.w, tread.c, p.mu);
    let (ay, steer) = if side == 0.0 { (0.0, 0.0) } else { (bend.ay_g, bend.steer_deg.to_radians()) };
    let lt = (w.load_transfer_per_g * ay).clamp(-0.9, 0.9);
    let load_n = w.load_n * (1.0 + side * lt);
    let (kz, kz_ref) = (tread.stiffness(w.pressure_kpa), tread.stiffness(w.placard_kpa));
    let delta0 = w.load_n / kz;
    let x = (delta0 / (w.placard_load_n.unwrap_or(w.load_n) / kz_ref) - 1.0).clamp(-0.6, 1.0);
    let camber_deg = s.camber_deg + side * (w.roll_camber_deg_per_g * ay - w.caster_deg * steer.sin());
    let g = camber_deg.to_radians();
    let sf = p.sig_free_deg.to_radians();
    let sy = brush_inverse(c, mu, ay) * side + s.toe_deg.to_radians() * (1.0 - side * lt);
    let sm = sy.hypot(sf);
    let fy = brush(c, mu, sm) * sy / sm;
    let tilt = p.kappa_g * (width / 2.0) * g.tan() / delta0.max(0.004) + p.k_f * fy;
    let etas: [f64; STRIPS] = std::array::from_fn(eta);
    let loads = strip_loads(&etas, p.b_p * x, tilt);
    // Pressed in by the load it carries there, tilted by the camber about the tread's middle.
    let (radius, pressed) = (tread.od / 2.0, load_n / kz);
    let strips: Vec<PatchStrip> = loads
        .iter()
        .zip(etas)
        .map(|(load, eta)| {
            let deep = (pressed + eta * width / 2.0 * g.tan()).max(0.15 * pressed);
            let length = if *load > 0.0 { 2.0 * (2.0 * radius * deep - deep * deep).sqrt() } else { 0.0 };
            let pressure = if length > 0.0 { load_n / width * load / length } else { 0.0 };
            PatchStrip { eta, length_mm: 1e3 * length, pressure_kpa: 1e-3 * pressure }
        })
        .collect();
    let third = |k: usize| loads[7 * k..7 * (k + 1)].iter().sum::<f64>() / STRIPS as f64;
    let on = loads.iter().filter(|l| **l > 0.0).count();
    Footprint {
        load_n,
        camber_deg,
        width_mm: 1e3 * width,
        strips,
        thirds: [third(0), third(1), third(2)],
        touching: on as f64 / STRIPS as f64,
    }
}

/// The patches of an axle's wheels straight ahead and in a bend.
///
/// # Errors
/// A [`Problem`] of the tyres, the bend or the setting, by field.
pub fn axle_patches(
    tyres: &CarTyres,
    axle: Axle,
    setting: &AxleSetting,
    bend: &Bend,
) -> Result<AxlePatches, Vec<Problem>> {
    let mut out = tyres.problems();
    out.extend(bend.problems());
    for (f, v, low, high) in [
        ("camber_deg", setting.camber_deg, -30.0, 30.0),
        ("toe_deg", setting.toe_deg, -30.0, 30.0),
        ("caster_deg", setting.caster_deg, -15.0, 20.0),
    ] {
        out.extend(in_range(&format!("setting.{f}"), v, low, high, "°").err());
    }
    if !out.is_empty() {
        return Err(out);
    }
    let tyre = tyres.tyre(axle, tyres.depth_mm).map_err(|p| vec![p])?;
    let wheel = tyres.wheel(axle, setting.caster_deg);
    let of = |side: f64| footprint(&tyre, &wheel, setting, bend, side);
    Ok(AxlePatches { straight: of(0.0), outside: of(1.0), inside: of(-1.0) })
}
