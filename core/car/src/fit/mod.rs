//! How sure a predicted angle is.
//!
//! Linear propagation from hardpoint coordinates and readings, with the model re-anchored for every
//! disturbed coordinate: at the height of the readings only the readings' own doubt remains.

pub(crate) mod estimate;
mod hardpoints;
mod samples;
mod spread;
mod whole;

pub use hardpoints::{
    Fit, FitCase, FitError, FitResult, Prediction, Residual, SweepReading, fit, fit_hardpoints,
};
pub use samples::{SAMPLES, sampled_doubt};
pub use spread::{Spread, SpreadOf, spreads};
pub use whole::{Build, Difference, Whole};

use crate::vehicle::{Anchored, Measured, anchor, anchor_wheel};
pub use crate::vehicle::{Doubt, Sigmas};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Points, WheelAtDesign};
use bold_stance_kinematics::linkage::{Linkage, Unreachable};
use bold_stance_units::Sigma;
use serde::{Deserialize, Serialize};

/// How well the hardpoints are known.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize, Default)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Knowledge {
    /// A generic shape: σ 12 mm a coordinate.
    Archetype,
    /// Measured with a tape: σ 4 mm.
    #[default]
    Taped,
    /// Surveyed: σ 1.5 mm.
    Surveyed,
}

impl Knowledge {
    /// How far readings may sit from the points before the points are doubted, degrees; never for a generic shape, since
    /// healthy cars of a kind differ by as much (judgement, no source).
    #[must_use]
    pub fn most_bent_deg(self) -> f64 {
        match self {
            Self::Archetype => f64::INFINITY,
            Self::Taped => 2.5,
            Self::Surveyed => 1.5,
        }
    }

    /// How far a healthy car's own angles lie from these points', with every adjuster where the points have it: standard
    /// deviations, degrees; toe hangs on the tie rod alone (judgement, no source).
    #[must_use]
    pub fn own_angles(self) -> Sigmas {
        let (camber_deg, caster_deg, toe_deg) = match self {
            Self::Archetype => (0.5, 0.8, 0.5),
            Self::Taped => (0.3, 0.4, 0.5),
            Self::Surveyed => (0.15, 0.2, 0.5),
        };
        Sigmas { camber_deg, caster_deg, toe_deg }
    }

    /// Standard deviation of one coordinate, mm.
    #[must_use]
    pub fn sigma_mm(self) -> f64 {
        match self {
            Self::Archetype => 12.0,
            Self::Taped => 4.0,
            Self::Surveyed => 1.5,
        }
    }
}

/// One corner whose predictions are doubted.
#[derive(Debug, Clone, Copy)]
pub struct Doubted<'a> {
    /// Points at design.
    pub points: &'a Points,
    /// Wheel at design.
    pub wheel: &'a WheelAtDesign,
    /// Travel of the readings, mm.
    pub read_at: f64,
    /// Edits present when it was read.
    pub start: &'a [Edit],
    /// Edits present in the prediction (parts and adjusters).
    pub planned: &'a [Edit],
    /// The readings.
    pub measured: &'a Measured,
    /// Standard deviations of the readings, degrees.
    pub sigma: Sigmas,
    /// Every independent error of the points ([`spreads`], or what a fit left of them).
    pub spreads: &'a [Spread],
    /// Standard deviation of a height, mm: of the one it was read at, and of the one that is predicted.
    pub height_sigma_mm: f64,
    /// The planned edits with one adjuster one standard deviation of its throw farther, for each that is moved: what an
    /// adjuster really does is doubted too.
    pub throws: &'a [Vec<Edit>],
}

/// Standard deviation of one tape reading of a height where a method says none, mm (common practice, no source).
pub const TAPE_HEIGHT_SIGMA_MM: f64 = 2.5;

/// Half widths at each travel; `None` where the corner does not close.
///
/// # Errors
/// [`Unreachable`] when the undisturbed corner cannot be anchored.
pub fn doubt(d: &Doubted<'_>, travels: &[f64]) -> Result<Vec<Option<Doubt>>, Unreachable> {
    let nominal = d.sweep(d.points, d.measured, travels)?;
    let read = [d.sigma.camber_deg, d.sigma.caster_deg, d.sigma.toe_deg];
    let mut variance: Vec<[f64; 3]> = vec![read.map(|s| s * s); travels.len()];
    for spread in d.spreads {
        // Half a σ each step keeps the difference in the linear range of a short arm.
        let mut p = d.points.clone();
        spread.shift(&mut p, 0.5 * spread.sigma_mm);
        let Ok(moved) = d.sweep(&p, d.measured, travels) else { continue };
        for ((v, a), b) in variance.iter_mut().zip(&nominal).zip(&moved) {
            if let (Some(a), Some(b)) = (a, b) {
                for k in 0..3 {
                    v[k] += (2.0 * (b[k] - a[k])).powi(2);
                }
            }
        }
    }
    let mut add = |moved: &[Option<[f64; 3]>], scale: f64| {
        for ((v, a), b) in variance.iter_mut().zip(&nominal).zip(moved) {
            if let (Some(a), Some(b)) = (a, b) {
                for k in 0..3 {
                    v[k] += (scale * (b[k] - a[k])).powi(2);
                }
            }
        }
    };
    if d.height_sigma_mm > 0.0 {
        // The height that was read: the car is anchored elsewhere on its curve; and the height it is brought to.
        let step = 0.5 * d.height_sigma_mm;
        let elsewhere = Doubted { read_at: d.read_at + step, ..*d };
        if let Ok(moved) = elsewhere.sweep(d.points, d.measured, travels) {
            add(&moved, 2.0);
        }
        let off: Vec<f64> = travels.iter().map(|t| t + step).collect();
        add(&d.sweep(d.points, d.measured, &off)?, 2.0);
    }
    for farther in d.throws {
        let other = Doubted { planned: farther, ..*d };
        if let Ok(moved) = other.sweep(d.points, d.measured, travels) {
            add(&moved, 1.0);
        }
    }
    Ok(nominal.iter().zip(variance).map(|(n, v)| n.map(|_| half_widths(v))).collect())
}

/// 90 % half widths from variances of camber, caster, toe.
fn half_widths(v: [f64; 3]) -> Doubt {
    let [camber_deg, caster_deg, toe_deg] = v.map(|x| Sigma::of_variance(x).0);
    Sigmas { camber_deg, caster_deg, toe_deg }.half_widths()
}

impl Doubted<'_> {
    /// Camber, caster, toe at each travel, the points bent to the readings; caster 0 for a wheel that does
    /// not steer; `None` where the corner does not close.
    fn sweep(
        &self,
        points: &Points,
        read: &Measured,
        travels: &[f64],
    ) -> Result<Vec<Option<[f64; 3]>>, Unreachable> {
        let corner = self.anchored(points, read)?.corner.edited(self.planned);
        Ok(travels
            .iter()
            .map(|t| {
                let w = corner.wheel(*t, 0.0).ok()?;
                Some([w.camber_deg, w.steer.map_or(0.0, |s| s.caster_deg), w.toe_deg])
            })
            .collect())
    }

    fn anchored(&self, points: &Points, read: &Measured) -> Result<Anchored, Unreachable> {
        match anchor(points, self.wheel, self.read_at, self.start, read) {
            Err(e) if e.blocked == bold_stance_kinematics::linkage::Loop::Unsteered => {
                anchor_wheel(points, self.wheel, self.read_at, self.start, read.camber_deg, read.toe_deg)
            }
            other => other,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sample::sample;

    const READ: Measured = Measured { camber_deg: -0.2, caster_deg: 3.4, toe_deg: 0.05 };

    fn at(knowledge: Knowledge, travels: &[f64]) -> Vec<Option<Doubt>> {
        let g = sample();
        let spreads = spreads(&g.points, knowledge);
        let d = Doubted {
            points: &g.points,
            wheel: &g.wheel,
            read_at: 0.0,
            start: &[],
            planned: &[],
            measured: &READ,
            sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.2, toe_deg: 0.05 },
            spreads: &spreads,
            height_sigma_mm: 0.0,
            throws: &[],
        };
        doubt(&d, travels).unwrap()
    }

    #[test]
    fn only_the_gauge_is_doubted_at_the_height_of_the_readings() {
        let d = at(Knowledge::Taped, &[0.0])[0].unwrap();
        assert!((d.camber_deg - 0.16449).abs() < 1e-6);
        assert!((d.caster_deg - 0.32898).abs() < 1e-6);
    }

    #[test]
    fn doubt_grows_with_distance_and_with_ignorance() {
        let t = at(Knowledge::Taped, &[-20.0, -60.0]);
        let a = at(Knowledge::Archetype, &[-60.0]);
        let (near, far, vague) = (t[0].unwrap(), t[1].unwrap(), a[0].unwrap());
        assert!(near.camber_deg < far.camber_deg && far.camber_deg < vague.camber_deg);
        assert!(at(Knowledge::Taped, &[-500.0])[0].is_none());
    }

    /// On simulated cars (true points drawn with the taped σ) the 90 % band must hold the truth in
    /// 85–95 % of cases. Deterministic generator.
    #[test]
    fn the_band_is_honest_on_simulated_cars() {
        let g = sample();
        let known = spreads(&g.points, Knowledge::Taped);
        let mut normal = samples::normals(7);
        let (mut hits, mut all) = ([0u32; 3], 0u32);
        for _ in 0..400 {
            let mut p = g.points.clone();
            for spread in &known {
                spread.shift(&mut p, spread.sigma_mm * normal());
            }
            let truth = anchor(&p, &g.wheel, 0.0, &[], &READ).unwrap().corner.alignment(-60.0, 0.0).unwrap();
            let gauge = Measured {
                camber_deg: READ.camber_deg + 0.1 * normal(),
                caster_deg: READ.caster_deg + 0.2 * normal(),
                toe_deg: READ.toe_deg + 0.05 * normal(),
            };
            let d = Doubted {
                points: &g.points,
                wheel: &g.wheel,
                read_at: 0.0,
                start: &[],
                planned: &[],
                measured: &gauge,
                sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.2, toe_deg: 0.05 },
                spreads: &known,
                height_sigma_mm: 0.0,
                throws: &[],
            };
            let band = doubt(&d, &[-60.0]).unwrap()[0].unwrap();
            let said =
                anchor(&g.points, &g.wheel, 0.0, &[], &gauge).unwrap().corner.alignment(-60.0, 0.0).unwrap();
            all += 1;
            hits[0] += u32::from((said.camber_deg - truth.camber_deg).abs() <= band.camber_deg);
            hits[1] += u32::from((said.caster_deg - truth.caster_deg).abs() <= band.caster_deg);
            hits[2] += u32::from((said.toe_deg - truth.toe_deg).abs() <= band.toe_deg);
        }
        for h in hits {
            let share = f64::from(h) / f64::from(all);
            assert!((0.85..=0.95).contains(&share), "{share}");
        }
    }
}
