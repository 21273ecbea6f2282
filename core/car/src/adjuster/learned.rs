//! An adjuster that does what readings taught of it, for solvers that know no gain.

use super::{Adjuster, AdjusterKind, Known, LEAST_ENGAGED_MM};
use bold_stance_kinematics::edit::Edit;

/// An adjuster that does what it was learned to do.
#[derive(Debug, Clone)]
pub struct Learned {
    /// It, in positions that do what they say.
    pub adjuster: Adjuster,
    /// Its positions over those that are read on the car.
    pub scale: f64,
    /// What stays on the car of the throw it was said to have.
    pub rest: Vec<Edit>,
}

impl Adjuster {
    /// The adjuster as a shop knows it: a throw that was found to be other than claimed. What is counted in its own measure
    /// (a thread, a slot, shims) does what it says and stays.
    #[must_use]
    pub fn as_known(&self, known: Known) -> Self {
        let mut of = self.clone();
        match &mut of.kind {
            AdjusterKind::Eccentric { eccentricity_mm: throw, .. }
            | AdjusterKind::CamBolt { amplitude_deg: throw, .. }
            | AdjusterKind::Sleeve { amount_deg: throw, .. } => {
                *throw *= known.times;
                of.known = Some(known);
            }
            _ => {}
        }
        of
    }

    /// The adjuster as it was learned to be: it does `gain` times what it is said to do, counted from where it stands.
    #[must_use]
    pub fn learned(&self, gain: f64) -> Learned {
        let mut of = self.clone();
        let (mut scale, stands) = (1.0, self.position);
        let by = |r: &mut [f64; 2]| *r = r.map(|v| v * gain);
        match &mut of.kind {
            AdjusterKind::Eccentric { eccentricity_mm: throw, .. }
            | AdjusterKind::CamBolt { amplitude_deg: throw, .. }
            | AdjusterKind::Sleeve { amount_deg: throw, .. } => *throw *= gain,
            AdjusterKind::Thread { pitch_mm, engaged_mm, min_engaged_mm, .. } => {
                *pitch_mm *= gain;
                // Turns left stay as many as they are.
                let least = min_engaged_mm.unwrap_or(LEAST_ENGAGED_MM);
                if let Some(e) = engaged_mm {
                    (*e, *min_engaged_mm) = (*e * gain, Some(least * gain));
                }
            }
            AdjusterKind::Slide { range_mm, step_mm, .. } => {
                by(range_mm);
                *step_mm = step_mm.map(|s| s * gain);
                scale = gain;
            }
            AdjusterKind::Shims { range_mm, step_mm, .. } => {
                by(range_mm);
                *step_mm *= gain;
                scale = gain;
            }
            AdjusterKind::Tilt { camber_deg, step_deg, .. } => {
                by(camber_deg);
                *step_deg = step_deg.map(|s| s * gain);
                scale = gain;
            }
            AdjusterKind::Wedge { caster_deg, step_deg } => {
                by(caster_deg);
                *step_deg *= gain;
                scale = gain;
            }
        }
        of.position = stands * scale;
        let zero = Self { position: 0.0, ..self.clone() };
        // Where it stands it does what it did: the rest of the throw there is not the gain's.
        let rest = match &self.kind {
            AdjusterKind::Sleeve { amount_deg, .. } => {
                let (sin, cos) = stands.to_radians().sin_cos();
                let left = amount_deg * (1.0 - gain);
                vec![Edit::OffsetUpperJoint { out_deg: left * cos, back_deg: left * sin }]
            }
            _ if stands == 0.0 || gain == 1.0 => Vec::new(),
            _ => zero.edits_with_gain(stands, 1.0 - gain),
        };
        Learned { adjuster: of, scale, rest }
    }
}
