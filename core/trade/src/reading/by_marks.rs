//! What adjusters, as they were found, do to the angles of a wheel: part of what a model expects, and of what left and
//! right may lie apart by.

use super::quantity::Quantity;
use super::take::ReadingCar;
use bold_stance_car::adjuster::{Adjuster, AdjusterKind};
use bold_stance_car::vehicle::UNSEEN_PLACE_SD;
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};

/// How far left lies from right by the marks alone.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(crate) struct Apart {
    /// Left minus right, degrees.
    pub by: f64,
    /// What is not known of it: throws by their claim, places nobody looked at.
    pub sigma: f64,
    /// Every adjuster that moves the angle was looked at.
    pub seen: bool,
}

fn of(q: Quantity, c: &Corner) -> Option<f64> {
    let w = c.wheel(0.0, 0.0).ok()?;
    match q {
        Quantity::Camber => Some(w.camber_deg),
        Quantity::Caster => Some(w.steer?.caster_deg),
        _ => None,
    }
}

impl ReadingCar {
    /// What can be turned on a side, as found.
    fn adjusters(&self, axle: Axle, side: Side) -> Vec<Adjuster> {
        self.car.facts.axles[axle].adjusters.iter().map(|f| f.on(side)).collect()
    }

    /// Edits of the adjusters of a side where somebody looked.
    pub(crate) fn as_found(&self, axle: Axle, side: Side) -> Vec<Edit> {
        let list = self.adjusters(axle, side);
        list.iter().filter(|a| !a.unseen).flat_map(|a| a.edits_at(a.position)).collect()
    }

    /// How far camber or caster of left and right may lie apart by the marks; none of an axle that is not known.
    pub(crate) fn apart_by_marks(&self, q: Quantity, axle: Axle) -> Option<Apart> {
        let g = self.car.axle(axle)?;
        let mut out = Apart { seen: true, ..Apart::default() };
        let mut var = 0.0;
        for (side, sign) in [(Side::Left, 1.0), (Side::Right, -1.0)] {
            let list = self.adjusters(axle, side);
            let bare = Corner::of(g, side);
            let here = bare.edited(&self.as_found(axle, side));
            let plain = of(q, &bare)?;
            out.by += sign * (of(q, &here)? - plain);
            for a in list.iter().filter(|a| !a.is_tie_rod()) {
                let moved = |p: f64| Some(of(q, &bare.edited(&a.edits_at(p)))? - plain);
                if a.unseen && !matches!(a.kind, AdjusterKind::Thread { .. } | AdjusterKind::Shims { .. }) {
                    let [low, high] = a.built_range().map(|p| moved(p).unwrap_or(0.0));
                    out.seen = out.seen && (high - low).abs() < 0.1;
                    var += (UNSEEN_PLACE_SD * (high - low)).powi(2);
                } else {
                    var += (a.gain_sd() * moved(a.position).unwrap_or(0.0)).powi(2);
                }
            }
        }
        out.sigma = var.sqrt();
        Some(out)
    }
}

impl Apart {
    /// By how much what was read (left minus right, with its standard deviation) lies beyond the marks, and two standard
    /// deviations of it, degrees.
    pub(crate) fn beyond(&self, read: f64, sigma: f64) -> (f64, f64) {
        (read - self.by, 2.0 * sigma.hypot(self.sigma))
    }
}
