//! Where adjusters most likely stand that nobody looked at.
//!
//! A reading differs from a generic shape because the car is built otherwise and because its cams stand off centre. Both
//! are solved together: adjusters' amounts and the shape's own offset are Gaussian, the readings pull them (the linear
//! update of a state with prior covariance, e.g. Gelb, Applied Optimal Estimation, chapter 4).

use super::Measured;
use crate::adjuster::{Adjuster, AdjusterKind, Held};
use crate::vehicle::Sigmas;
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Points, WheelAtDesign};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use nalgebra::{DMatrix, DVector};

/// Share of an adjuster's whole range that one standard deviation of its place is, before anything was read: cars come in
/// with cams all over their slots, but more near the middle (judgement, no source).
pub const UNSEEN_PLACE_SD: f64 = 0.25;

/// Whether its place is looked for: threads and stacks are counted from where they stand, a wedge or sleeve is seen.
fn is_looked_for(a: &Adjuster) -> bool {
    let counted_from_centre = matches!(
        a.kind,
        AdjusterKind::Eccentric { .. }
            | AdjusterKind::CamBolt { .. }
            | AdjusterKind::Slide { .. }
            | AdjusterKind::Tilt { .. }
    );
    // Tabs hold it in the middle of its slot.
    a.unseen && counted_from_centre && a.held != Some(Held::TabsIn) && a.held != Some(Held::NotHere)
}

/// The adjusters with those nobody looked at where they most likely stand: to whole notches where they have them.
///
/// `read` is what was read at `travel` (mm, bump positive) with its standard deviations; `shape` how far such a car's own
/// angles lie from these points', degrees; caster is left out where `steered` is false.
#[must_use]
pub fn likely_positions(
    own: &[Adjuster],
    points: &Points,
    wheel: &WheelAtDesign,
    travel: f64,
    steered: bool,
    (read, sigma): (&Measured, &Sigmas),
    shape: &Sigmas,
) -> Vec<Adjuster> {
    let mut out = own.to_vec();
    let which: Vec<usize> = (0..own.len()).filter(|i| is_looked_for(&own[*i])).collect();
    if which.is_empty() {
        return out;
    }
    let corner = Corner::new(points, wheel);
    let pose = |list: &[Adjuster]| -> Option<Vec<f64>> {
        let edits: Vec<Edit> = list.iter().flat_map(|a| a.edits_at(a.position)).collect();
        let w = corner.edited(&edits).wheel(travel, 0.0).ok()?;
        let mut v = vec![w.camber_deg, w.toe_deg];
        if steered {
            v.push(w.steer?.caster_deg);
        }
        Some(v)
    };
    let Some(here) = pose(own) else { return out };
    let (mut seen, mut doubt) = (vec![read.camber_deg, read.toe_deg], Vec::new());
    for (s, d) in [(sigma.camber_deg, shape.camber_deg), (sigma.toe_deg, shape.toe_deg)] {
        doubt.push(s * s + d * d);
    }
    if steered {
        seen.push(read.caster_deg);
        doubt.push(sigma.caster_deg * sigma.caster_deg + shape.caster_deg * shape.caster_deg);
    }
    let rows = here.len();
    let mut slopes = DMatrix::zeros(rows, which.len());
    let mut prior = DMatrix::zeros(which.len(), which.len());
    for (k, i) in which.iter().enumerate() {
        let a = &own[*i];
        let [low, high] = a.built_range().map(|p| a.amount(p));
        let half = 0.25 * (high - low).abs();
        let at = a.amount(a.position);
        let moved = |by: f64| {
            let mut list = own.to_vec();
            list[*i].held = None;
            list[*i].locked = false;
            list[*i].position = list[*i].position_of(at + by);
            let by = list[*i].amount(list[*i].position) - at;
            pose(&list).map(|v| (v, by))
        };
        let (Some((up, a1)), Some((down, a0))) = (moved(half), moved(-half)) else { return out };
        if (a1 - a0).abs() < 1e-9 {
            return out;
        }
        for r in 0..rows {
            slopes[(r, k)] = (up[r] - down[r]) / (a1 - a0);
        }
        prior[(k, k)] = (UNSEEN_PLACE_SD * (high - low)).powi(2);
    }
    let miss = DVector::from_iterator(rows, seen.iter().zip(&here).map(|(z, h)| z - h));
    let doubt = DMatrix::from_diagonal(&DVector::from_vec(doubt));
    let cross = &prior * slopes.transpose();
    let Some(solved) = (&slopes * &cross + doubt).cholesky().map(|c| c.solve(&miss)) else { return out };
    let by = cross * solved;
    for (k, i) in which.iter().enumerate() {
        let a = &own[*i];
        let [low, high] = a.built_range();
        let to = a.position_of(a.amount(a.position) + by[k]);
        let whole = match (&a.kind, a.step()) {
            (AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. }, Some(s)) => (to / s).round() * s,
            _ => to,
        };
        out[*i].position = whole.clamp(low, high);
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::adjuster::default_adjusters;
    use crate::sample::sample;
    use crate::vehicle::anchor;

    /// As found on the car: the front cam three notches out, the rear one two in, nobody looked.
    fn read(positions: [f64; 2]) -> (Vec<Adjuster>, Measured) {
        let g = sample();
        let mut list = default_adjusters(3.2);
        list.iter_mut().for_each(|a| a.unseen = true);
        let edits: Vec<Edit> = list.iter().zip(positions).flat_map(|(a, p)| a.edits_at(p)).collect();
        let w = Corner::new(&g.points, &g.wheel).edited(&edits).alignment(0.0, 0.0).unwrap();
        (list, Measured { camber_deg: w.camber_deg, caster_deg: w.caster_deg, toe_deg: w.toe_deg })
    }

    const SIGMA: Sigmas = Sigmas { camber_deg: 0.06, caster_deg: 0.16, toe_deg: 0.03 };
    const SHAPE: Sigmas = Sigmas { camber_deg: 0.3, caster_deg: 0.4, toe_deg: 0.5 };

    #[test]
    fn what_a_cam_gave_is_the_cams_and_not_a_bent_part() {
        let g = sample();
        for positions in [[67.5, -45.0], [-67.5, 22.5], [45.0, 45.0]] {
            let (list, m) = read(positions);
            let got = likely_positions(&list, &g.points, &g.wheel, 0.0, true, (&m, &SIGMA), &SHAPE);
            // Nearer to where they stand than the middle of the slot, by a good part of the way.
            for (a, p) in got.iter().zip(positions) {
                assert!(
                    (a.amount(a.position) - a.amount(p)).abs() < 0.6 * a.amount(p).abs(),
                    "{p}: {}",
                    a.position
                );
            }
            assert_eq!(got[2].position, 0.0, "a rod counts from where it stands");
            let bent = |l: &[Adjuster]| {
                let start: Vec<Edit> = l.iter().flat_map(|a| a.edits_at(a.position)).collect();
                let a = anchor(&g.points, &g.wheel, 0.0, &start, &m).unwrap().anchor;
                a.camber_deg.abs() + a.caster_deg.abs()
            };
            assert!(bent(&got) < 0.6 * bent(&list), "{positions:?}: {} of {}", bent(&got), bent(&list));
        }
    }

    #[test]
    fn what_was_looked_at_and_what_tabs_hold_stays() {
        let g = sample();
        let (mut list, m) = read([67.5, -45.0]);
        list[0].unseen = false;
        list[1].held = Some(Held::TabsIn);
        let got = likely_positions(&list, &g.points, &g.wheel, 0.0, true, (&m, &SIGMA), &SHAPE);
        assert_eq!(got, list);
    }
}
