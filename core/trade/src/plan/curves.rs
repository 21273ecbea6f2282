//! Height curves and the two-joint drawing, from the same model as the figures.

use super::bench::Bench;
use super::work::Work;
use bold_stance_car::fit::Doubt;
use bold_stance_kinematics::linkage::Linkage;
use serde::{Deserialize, Serialize};

/// One height on the curves.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CurvePoint {
    /// Front hub-to-arch gain from as found, mm.
    pub height_mm: f64,
    /// Degrees, top out positive.
    pub camber_deg: f64,
    /// Degrees, top rearward positive.
    pub caster_deg: f64,
    /// Degrees, one wheel, toe-in positive.
    pub toe_deg: f64,
    /// Half widths of the 90 % bands.
    pub doubt: Doubt,
}

/// Angles over height with the adjusters at `positions`; heights that do not close are left out.
#[must_use]
pub(crate) fn curve(
    work: &Work<'_>,
    side: usize,
    bench: &Bench,
    positions: &[f64],
    heights: &[f64],
    doubts: &[(f64, Option<Doubt>)],
) -> Vec<CurvePoint> {
    let c = bench.set(positions);
    heights
        .iter()
        .filter_map(|h| {
            let state = work.state.at_own(work.input.geometry.axle, *h);
            let travel = work.travel(side, &state);
            let a = work
                .attitude(side, &state)
                .apply(&c.pose(travel, 0.0).ok()?)
                .wheel(c.loaded_radius(), c.design_x())
                .or_unsteered();
            Some(CurvePoint {
                height_mm: *h,
                camber_deg: a.camber_deg,
                caster_deg: a.caster_deg,
                toe_deg: a.toe_deg,
                doubt: doubt_at(doubts, *h),
            })
        })
        .collect()
}

/// Linear between the heights at which doubt was worked out.
#[must_use]
pub fn doubt_at(doubts: &[(f64, Option<Doubt>)], h: f64) -> Doubt {
    let known: Vec<(f64, Doubt)> = doubts.iter().filter_map(|(x, d)| d.map(|d| (*x, d))).collect();
    let Some(last) = known.last() else { return Doubt::default() };
    let i = known.partition_point(|(x, _)| *x < h);
    if i == 0 {
        return known[0].1;
    }
    let Some(b) = known.get(i) else { return last.1 };
    let a = &known[i - 1];
    let t = (h - a.0) / (b.0 - a.0);
    let mix = |p: f64, q: f64| p + (q - p) * t;
    Doubt {
        camber_deg: mix(a.1.camber_deg, b.1.camber_deg),
        caster_deg: mix(a.1.caster_deg, b.1.caster_deg),
        toe_deg: mix(a.1.toe_deg, b.1.toe_deg),
    }
}
