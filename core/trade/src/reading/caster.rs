//! Caster: sweep by formula, by exact rotation about the axis, and on the car's own linkage; joint line.

use super::entries::Given;
use super::raw::{Correction, CorrectionKind, Known, Raw, SweptCar};
use bold_stance_car::vehicle::{Measured, anchor};
use bold_stance_kinematics::geometry::Side;
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_kinematics::wheel::{Alignment, camber as camber_of, spin_axis, toe as toe_of};
use bold_stance_units::numbers::Secant;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use nalgebra::{Rotation3, SMatrix, SVector, Unit, Vector3};

/// Usual SAI and how far cars lie from it, degrees (common practice, no source): what an uneven sweep is
/// doubted by when nothing better is known.
const USUAL_SAI: f64 = 12.0;

/// A left wheel on its steering axis, straight ahead.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Turned {
    /// Degrees, top rearward positive.
    pub caster_deg: f64,
    /// Degrees, top inboard positive.
    pub sai_deg: f64,
    /// Degrees, straight ahead.
    pub camber_deg: f64,
    /// Degrees, straight ahead.
    pub toe_deg: f64,
}

/// Unit vector of the axis of a left wheel from its caster and SAI (model definitions: both are angles of
/// the projections).
fn axis(caster_deg: f64, sai_deg: f64) -> Unit<Vector3<f64>> {
    Unit::new_normalize(Vector3::new(-caster_deg.to_radians().tan(), -sai_deg.to_radians().tan(), 1.0))
}

impl Turned {
    /// Camber (degrees) and the fore-aft tilt of a line that is level straight ahead (degrees, nose up
    /// positive, the wheel braked to its knuckle) once the wheel is steered to the left by `steer_deg`: a
    /// rigid rotation about the axis (Rodrigues), whose angle is found from the wheel's heading.
    #[must_use]
    pub fn at(&self, steer_deg: f64) -> (f64, f64) {
        let k = axis(self.caster_deg, self.sai_deg);
        let spin = spin_axis(self.camber_deg.to_radians(), self.toe_deg.to_radians());
        let want = (self.toe_deg - steer_deg).to_radians();
        let turned = |phi: f64| Rotation3::from_axis_angle(&k, phi) * spin;
        let (mut phi, mut step) = (steer_deg.to_radians(), 1e-4);
        // Secant: the heading follows the turn nearly one to one.
        let mut off = toe_of(&turned(phi)) - want;
        for _ in 0..30 {
            if off.abs() < 1e-13 {
                break;
            }
            let rate = (toe_of(&turned(phi + step)) - toe_of(&turned(phi))) / step;
            step = 1e-6;
            if rate.abs() < 0.05 {
                break;
            }
            phi -= off / rate;
            off = toe_of(&turned(phi)) - want;
        }
        let r = Rotation3::from_axis_angle(&k, phi);
        // The level line in the wheel's plane, straight ahead.
        let fore = Unit::new_normalize(spin.cross(&Vector3::z()));
        let tilt = (r * fore.into_inner()).z.clamp(-1.0, 1.0).asin();
        (camber_of(&(r * spin)).to_degrees(), tilt.to_degrees())
    }
}

/// Newton with a numeric Jacobian; at most 40 steps to 1e-10.
fn newton<const N: usize>(
    mut x: SVector<f64, N>,
    f: impl Fn(&SVector<f64, N>) -> Option<SVector<f64, N>>,
) -> Option<SVector<f64, N>> {
    for _ in 0..40 {
        let y = f(&x)?;
        if y.amax() < 1e-10 {
            return Some(x);
        }
        let mut j = SMatrix::<f64, N, N>::zeros();
        for c in 0..N {
            let mut moved = x;
            moved[c] += 1e-5;
            j.set_column(c, &((f(&moved)? - y) / 1e-5));
        }
        let d = j.lu_solve(&y)?;
        x -= d.map(|v| v.clamp(-5.0, 5.0));
    }
    None
}

trait LuSolve<const N: usize> {
    fn lu_solve(&self, b: &SVector<f64, N>) -> Option<SVector<f64, N>>;
}

impl<const N: usize> LuSolve<N> for SMatrix<f64, N, N> {
    fn lu_solve(&self, b: &SVector<f64, N>) -> Option<SVector<f64, N>> {
        self.try_inverse().map(|i| i * b)
    }
}

/// Caster and SAI from two cambers and two fore-aft tilts of a braked wheel, by exact rotation. Degrees; `d`
/// are the swings of a left wheel, left positive.
#[must_use]
pub fn axis_from_sweep(g: [f64; 2], t: [f64; 2], d: [f64; 2]) -> Option<Turned> {
    let start = SVector::<f64, 3>::new(3.0, 10.0, f64::midpoint(g[0], g[1]));
    let solve = |x: &SVector<f64, 3>| {
        let w = Turned { caster_deg: x[0], sai_deg: x[1], camber_deg: x[2], toe_deg: 0.0 };
        let ((g1, t1), (g2, t2)) = (w.at(d[0]), w.at(d[1]));
        // The line on the wheel need not be level straight ahead: only the change of tilt counts.
        Some(SVector::<f64, 3>::new(g1 - g[0], g2 - g[1], (t1 - t2) - (t[0] - t[1])))
    };
    let x = newton(start, solve)?;
    Some(Turned { caster_deg: x[0], sai_deg: x[1], camber_deg: x[2], toe_deg: 0.0 })
}

/// Camber of the linkage once its wheel is steered to the left by `steer_deg` from straight ahead, by moving
/// the rack.
fn camber_on_car(corner: &Corner, travel: f64, straight_toe: f64, steer_deg: f64) -> Option<f64> {
    let toe = |rack: f64| corner.wheel(travel, rack).ok().map(|w| w.toe_deg);
    let want = straight_toe - steer_deg;
    let start = [0.0, if steer_deg > 0.0 { 20.0 } else { -20.0 }];
    let search = Secant::to(1e-10, 1e-9, 40).stepping(60.0);
    let rack = search.root(start, |r| toe(r).map(|t| t - want).ok_or(())).ok()?;
    (rack.miss.abs() < 1e-6).then(|| corner.wheel(travel, rack.at).ok().map(|w| w.camber_deg)).flatten()
}

/// Caster and straight-ahead camber with which this car's linkage shows both cambers of the sweep.
fn on_car(car: &SweptCar, g: [f64; 2], d: [f64; 2], start: f64) -> Option<Alignment> {
    let corner = |caster: f64, camber: f64| {
        let m = Measured { camber_deg: camber, caster_deg: caster, toe_deg: car.toe_deg };
        anchor(&car.points, &car.wheel, car.travel_mm, &[], &m).ok().map(|a| a.corner)
    };
    let straight = f64::midpoint(g[0], g[1]);
    let x = newton(SVector::<f64, 2>::new(start, straight), |x| {
        let c = corner(x[0], x[1])?;
        let at = |i: usize| Some(camber_on_car(&c, car.travel_mm, car.toe_deg, d[i])? - g[i]);
        Some(SVector::<f64, 2>::new(at(0)?, at(1)?))
    })?;
    corner(x[0], x[1])?.wheel(car.travel_mm, 0.0).ok()?.alignment()
}

/// Sweep: by formula (camber 1 − camber 2)/(sin steer 1 − sin steer 2), side-signed; by the car's own linkage
/// when its geometry is there; by exact rotation when the axis readings are.
pub fn sweep(g: &Given, known: &Known) -> Result<Raw, Problem> {
    let side = match g.word("side") {
        Some("right") => Side::Right,
        Some(_) => Side::Left,
        None => known.side.unwrap_or(Side::Left),
    };
    let sign = if side == Side::Left { 1.0 } else { -1.0 };
    let cambers = [g.num("camber-1")?, g.num("camber-2")?];
    let swings = [g.num("steer-1")?, g.num("steer-2")?].map(|d| sign * d);
    let reach = swings[0].to_radians().sin() - swings[1].to_radians().sin();
    if reach.abs() < 0.15 {
        return Err(Problem::new(
            "steer-2",
            said("swings-close").deg("within", 9.0, 0),
            said("swings-close-right"),
        ));
    }
    let approx = (cambers[0] - cambers[1]) / reach;
    if approx.abs() > 25.0 {
        return Err(Problem::new(
            "camber-2",
            said("too-much-caster").deg("caster", approx, 0),
            said("too-much-caster-right").deg("most", 25.0, 0),
        ));
    }
    let mut out = Raw::of(approx);
    // What an uneven sweep picks up from the SAI, and what the formula leaves out (0.1-0.25° for much SAI or
    // camber).
    let uneven = (swings[1].to_radians().cos() - swings[0].to_radians().cos()) / reach * USUAL_SAI;
    let largest = cambers[0].abs().max(cambers[1].abs());
    out.model_sigma = (0.15 + 0.03 * (largest - 2.0).clamp(0.0, 3.3)).hypot(uneven);
    out.model_words = Some(said("doubt-formula"));
    if let (Some(a), Some(b)) = (g.opt("axis-1"), g.opt("axis-2")) {
        match axis_from_sweep(cambers, [a, b], swings) {
            Some(w) => {
                out.value = w.caster_deg;
                out.model_sigma = 0.05;
                out = out.with("sai_deg", said("also-sai"), w.sai_deg).with(
                    "camber_straight_deg",
                    said("also-straight-camber"),
                    w.camber_deg,
                );
                out.notes.push(said("note-exact-axis"));
            }
            None => {
                return Err(Problem::new("axis-2", said("no-such-axis"), said("no-such-axis-right")));
            }
        }
    } else if let Some(a) = known.swept.as_ref().and_then(|c| on_car(c, cambers, swings, approx)) {
        out.value = a.caster_deg;
        out.model_sigma = 0.1;
        out.model_words = Some(said("doubt-linkage"));
        out = out.with("camber_straight_deg", said("also-straight-camber"), a.camber_deg);
        out.notes.push(said("note-exact-linkage"));
    } else {
        out.notes.push(said("note-factor").plain("factor", 1.0 / reach.abs(), 3));
        if uneven.abs() > 0.1 {
            out.notes.push(said("note-uneven"));
        }
    }
    if (cambers[0] - cambers[1]).abs() < 1e-9 {
        out.notes.push(said("note-no-difference"));
    }
    Ok(out.with("approx_deg", said("also-by-formula"), approx))
}

/// An angle gauge on the straightedge through both joint centres; nose-up pitch of the body on its stands is
/// Caster as a gauge's own scale or a rack's screen gives it, with the lean of the axis where it gives that too. What it was
/// swept by is not known, so nothing of it is worked out anew.
pub fn scale(g: &Given) -> Result<Raw, Problem> {
    let out = Raw::of(g.num("angle")?);
    Ok(match g.opt("sai") {
        Some(sai) => out.with("sai_deg", said("also-sai"), sai),
        None => out,
    })
}

/// taken off when it was read.
pub fn joint_line(g: &Given) -> Result<Raw, Problem> {
    let angle = g.num("angle")?;
    let Some(pitch) = g.opt("body-pitch").filter(|p| *p != 0.0) else {
        return Ok(Raw::of(angle).noting(said("note-body-level")));
    };
    let mut out = Raw::of(angle - pitch);
    out.corrections.push(Correction::applied(
        CorrectionKind::BodyPitch,
        -pitch,
        said("corrected-pitch")
            .deg("pitch", pitch.abs(), 1)
            .word("nose", if pitch > 0.0 { "up" } else { "down" }),
        said("corrected-pitch-why"),
    ));
    Ok(out)
}
