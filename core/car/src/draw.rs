//! One corner over the ground, as it is drawn; from the same model as the figures.

use crate::adjuster::{Adjuster, spot_of};
use crate::vehicle::Attitude;
use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::geometry::Points;
use bold_stance_kinematics::linkage::{Bar, Corner, Linkage, Unreachable};
use bold_stance_kinematics::wheel::{Pose, contact_point};
use serde::{Deserialize, Serialize};

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

/// Where a posed tyre meets the ground, and what brings that onto the floor of a drawing: the wheel stays where it is, the
/// frame moves.
fn on_floor(c: &Corner, pose: &Pose) -> (Vec3, Vec3) {
    let contact = contact_point(&pose.centre, &pose.spin, c.loaded_radius());
    (contact, Vec3::new(c.design_x() - pose.centre.x, 0.0, -contact.z))
}

/// Where an adjuster sits in the drawing of a corner at a travel, mm; none where the layout has no such place or the corner
/// does not close there. `points` are those the corner was made of.
#[must_use]
pub fn spot_drawn(
    (c, points): (&Corner, &Points),
    travel: f64,
    attitude: Attitude,
    a: &Adjuster,
) -> Option<[f64; 3]> {
    let pose = c.pose(travel, 0.0).ok()?;
    let spot = spot_of(a, &c.as_points(&pose, travel, points), pose.centre.into())?;
    let (_, shift) = on_floor(c, &attitude.apply(&pose));
    Some((attitude.turn(&spot.into()) + shift).into())
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
    let (contact, shift) = on_floor(c, &pose);
    let at = |v: &Vec3| -> [f64; 3] { (v + shift).into() };
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
