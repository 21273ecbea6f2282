//! Height curves and the two-joint drawing, from the same model as the figures.

use super::bench::Bench;
use super::height::PlanState;
use super::work::Work;
use crate::fit::Doubt;
use crate::linkage::{Bar, Corner, Linkage, Unreachable};
use crate::vehicle::Attitude;
use crate::wheel::contact_point;
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

/// One corner over the ground, mm: x forward, y outboard, z up, tyre at z = 0.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Drawing {
    /// Arms, links, knuckle.
    pub bars: Vec<Bar>,
    /// Wheel centre.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub centre: [f64; 3],
    /// Unit spin axis, outboard.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub spin: [f64; 3],
    /// Tyre on the ground.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub contact: [f64; 3],
    /// Lower and upper point of the steering axis, when it steers.
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub axis: Option<[[f64; 3]; 2]>,
    /// Where the steering axis meets the ground.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub pierce: Option<[f64; 3]>,
    /// Wheel centre above the ground, mm.
    pub loaded_radius_mm: f64,
}

/// Draws a corner at a travel.
///
/// # Errors
/// [`Unreachable`] when it does not close there.
pub fn draw(c: &Corner, travel: f64, attitude: Attitude) -> Result<Drawing, Unreachable> {
    draw_steered(c, travel, 0.0, attitude)
}

/// Draws a corner at a travel and a rack position.
///
/// # Errors
/// [`Unreachable`] when it does not close there.
pub fn draw_steered(c: &Corner, travel: f64, rack: f64, attitude: Attitude) -> Result<Drawing, Unreachable> {
    let (pose, mut bars) = c.bars(travel, rack)?;
    let pose = attitude.apply(&pose);
    let contact = contact_point(&pose.centre, &pose.spin, c.loaded_radius());
    // The wheel stays where it is on the floor; the frame moves.
    let shift = crate::Vec3::new(c.design_x() - pose.centre.x, 0.0, -contact.z);
    let at = |v: &crate::Vec3| -> [f64; 3] { (v + shift).into() };
    for b in &mut bars {
        b.from = at(&attitude.turn(&b.from.into()));
        b.to = at(&attitude.turn(&b.to.into()));
    }
    Ok(Drawing {
        bars,
        centre: at(&pose.centre),
        spin: pose.spin.into(),
        contact: at(&contact),
        axis: pose.axis.map(|a| [at(&a.lower), at(&a.upper)]),
        pierce: pose.axis.map(|a| at(&a.pierce(contact.z))),
        loaded_radius_mm: c.loaded_radius(),
    })
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
            let state = PlanState { own_mm: *h, ..work.state.clone() };
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
