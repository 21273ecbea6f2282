//! A wheel of which not everything was read: what is missing is what the model expects at its height.

use super::facts::VehicleFacts;
use crate::plan::{SideReadings, Unread};
use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::fit::{Knowledge, Sigmas};
use bold_stance_car::vehicle::{Measured, UNSEEN_PLACE_SD};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};

/// What was read of one wheel: a value with its standard deviation, mm or degrees.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub(super) struct WheelSeen {
    pub height: Option<f64>,
    pub camber: Option<(f64, f64)>,
    pub caster: Option<(f64, f64)>,
    pub toe: Option<(f64, f64)>,
}

fn angles(g: &Geometry, side: Side, list: &[Adjuster], travel: f64) -> Option<[f64; 3]> {
    let edits: Vec<Edit> = list.iter().flat_map(|a| a.edits_at(a.position)).collect();
    let w = Corner::of(g, side).edited(&edits).wheel(travel, 0.0).ok()?;
    Some([w.camber_deg, w.steer.map_or(0.0, |s| s.caster_deg), w.toe_deg])
}

/// How far the car's own angles may lie from the shape's: builds of a kind, and adjusters nobody looked at.
fn width(g: &Geometry, side: Side, list: &[Adjuster], travel: f64, knowledge: Knowledge) -> Sigmas {
    let own = knowledge.own_angles();
    let mut var = [own.camber_deg, own.caster_deg, own.toe_deg].map(|s| s * s);
    for (i, a) in list.iter().enumerate().filter(|(_, a)| a.unseen && !a.is_tie_rod()) {
        let [low, high] = a.built_range();
        let mut moved = list.to_vec();
        moved[i].position =
            a.position_of(a.amount(a.position) + UNSEEN_PLACE_SD * (a.amount(high) - a.amount(low)));
        if let Some((x, y)) = angles(g, side, list, travel).zip(angles(g, side, &moved, travel)) {
            for (v, (p, q)) in var.iter_mut().zip(x.iter().zip(&y)) {
                *v += (q - p).powi(2);
            }
        }
    }
    let [camber_deg, caster_deg, toe_deg] = var.map(|v| v.sqrt().min(5.0));
    Sigmas { camber_deg, caster_deg, toe_deg }
}

/// A wheel with what was read of it, the rest as expected; none where nothing was read or the axle does not close there.
pub(super) fn side_with(
    f: &VehicleFacts,
    g: &Geometry,
    list: &[Adjuster],
    (axle, side): (Axle, Side),
    seen: &WheelSeen,
) -> Option<SideReadings> {
    let shape = &f.axles[axle];
    let steered = axle == Axle::Front;
    let unread = Unread {
        height: seen.height.is_none(),
        camber: seen.camber.is_none(),
        caster: steered && seen.caster.is_none(),
        toe: seen.toe.is_none(),
    };
    let height_mm = seen.height.unwrap_or(shape.height_mm);
    let of = |(v, s): (f64, f64)| (v, s);
    let (mut camber, mut caster, mut toe) =
        (seen.camber.map(of), seen.caster.map(of).filter(|_| steered), seen.toe.map(of));
    if unread.camber || unread.caster || unread.toe {
        let travel = shape.height_mm - height_mm;
        let here = angles(g, side, list, travel)?;
        let wide = width(g, side, list, travel, shape.knowledge);
        camber = camber.or(Some((here[0], wide.camber_deg)));
        caster = caster.or(Some((here[1], wide.caster_deg)));
        toe = toe.or(Some((here[2], wide.toe_deg)));
    }
    let ((camber_deg, sc), (toe_deg, st)) = (camber?, toe?);
    let (caster_deg, sk) = if steered { caster? } else { (0.0, 0.0) };
    Some(SideReadings {
        height_mm,
        angles: Measured { camber_deg, caster_deg, toe_deg },
        sigma: Sigmas { camber_deg: sc, caster_deg: sk, toe_deg: st },
        unread,
    })
}
