//! One corner over the ground, as it is drawn; from the same model as the figures.

use crate::vehicle::Attitude;
use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::linkage::{Bar, Corner, Linkage, Unreachable};
use bold_stance_kinematics::wheel::contact_point;
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
    let shift = Vec3::new(c.design_x() - pose.centre.x, 0.0, -contact.z);
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
