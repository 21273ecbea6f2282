//! How the car and the floor stood: jack, height, slope, weight, plates, steering.

use super::super::camber::floor_correction;
use super::super::method::Method;
use super::super::prepare::PrepareKind;
use super::super::quantity::{Place, Quantity, Visit};
use super::super::take::{JACKED_RULE_DEG, Jack, ROLL_M};
use super::super::wheel::{FLANGE_MM, lip_circle_mm};
use super::Rule;
use super::{Found, WHEELS, is_angle, standing};
use crate::reading::raw::CorrectionKind;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::said::{Measure, Said, said};

pub(super) fn stood(rule: Rule, f: &mut Found<'_, '_>) {
    for r in standing(f.scene) {
        match (rule, r.jack) {
            (Rule::Jacked, Jack::Jacked) => f.at(
                r,
                said("odd-jacked"),
                said("odd-jacked-why").deg("by", JACKED_RULE_DEG, 1),
                said("odd-jacked-settle").of("far", Measure::M, ROLL_M, 0),
            ),
            (Rule::BodyTilted, Jack::OneSide) => {
                f.at(r, said("odd-tilted"), said("odd-tilted-why"), said("odd-tilted-settle"))
            }
            _ => {}
        }
    }
}

pub(super) fn height_not_settled(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for (axle, side) in WHEELS {
        let wheel = Place::wheel(axle, side);
        let height = s.here(Quantity::Height, axle, side);
        for q in [Quantity::Camber, Quantity::Caster, Quantity::Toe] {
            let Some(r) = s.standing(s.visit, q, wheel) else { continue };
            if s.prepared.yes_no("settled") == Some(false) {
                f.at(r, said("odd-unsettled"), said("odd-unsettled-why"), said("odd-unsettled-settle"));
            } else if let Some(h) = height
                && r.height_mm.is_some_and(|was| r.jack == Jack::Rolled && (was - h.as_taped()).abs() > 3.0)
            {
                f.at(
                    r,
                    said("odd-height").mm("was", r.height_mm.unwrap_or_default()).mm("now", h.as_taped()),
                    said("odd-height-why"),
                    said("odd-height-settle"),
                );
            }
        }
    }
}

/// A floor to tell by, mm: 1/8 in over a foot.
const FLOOR_DROP_MM: f64 = 3.175;
const FLOOR_RUN_MM: f64 = 304.8;

pub(super) fn floor_unknown(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for axle in [Axle::Front, Axle::Rear] {
        let place = Place::wheel(axle, Side::Left);
        if s.prepared.floor(place.axle).is_some() {
            continue;
        }
        let bare = standing(s).into_iter().find(|r| {
            r.quantity == Quantity::Camber
                && r.place.axle == place.axle
                && f.methods.iter().any(|m| m.id == r.method && m.gravity)
                && r.typed("zeroed-on-floor") != Some("true")
        });
        if let Some(r) = bare {
            f.at(
                r,
                said("odd-floor-unknown").word("axle", axle.word()),
                said("odd-floor-unknown-why").fine_mm("drop", FLOOR_DROP_MM).mm("run", FLOOR_RUN_MM).deg(
                    "lean",
                    (FLOOR_DROP_MM / FLOOR_RUN_MM).atan().to_degrees(),
                    1,
                ),
                said("odd-floor-unknown-settle"),
            );
        }
    }
}

/// Change of the told floor below which a kept reading stands, degrees.
const FLOOR_CHANGED_DEG: f64 = 0.05;

pub(super) fn floor_changed(f: &mut Found<'_, '_>) {
    for r in standing(f.scene) {
        let (Some(side), Some(slope)) = (r.place.one_side(), f.scene.prepared.floor(r.place.axle)) else {
            continue;
        };
        let gravity = f.methods.iter().any(|m| m.id == r.method && m.gravity);
        // A slope typed with the reading is its own.
        let own = r.typed("zeroed-on-floor") == Some("true") || r.raw.iter().any(|e| e.name == "floor-slope");
        if r.quantity != Quantity::Camber || !gravity || own {
            continue;
        }
        let taken = r
            .corrections
            .iter()
            .filter(|c| c.kind == CorrectionKind::FloorSlope && c.applied)
            .map(|c| c.amount)
            .sum::<f64>();
        let off = floor_correction(slope, side, false).amount - taken;
        if off.abs() > FLOOR_CHANGED_DEG {
            f.at(
                r,
                said("odd-floor-changed"),
                said("odd-floor-changed-why").deg("now", r.value + off, 2),
                said("odd-floor-changed-settle"),
            );
        }
    }
}

pub(super) fn floor_pattern(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let cross = |axle| {
        let at = |side| s.here(Quantity::Camber, axle, side).map(|r| r.value);
        Some(at(Side::Left)? - at(Side::Right)?)
    };
    let (Some(front), Some(rear)) = (cross(Axle::Front), cross(Axle::Rear)) else { return };
    if front.abs() > 0.5 && rear.abs() > 0.5 && (front - rear).abs() < 0.4 {
        let way = if front > 0.0 { "left" } else { "right" };
        f.visit(
            said("odd-floor-pattern").word("way", way).deg("front", front.abs(), 1).deg(
                "rear",
                rear.abs(),
                1,
            ),
            said("odd-floor-pattern-why"),
            said("odd-floor-pattern-settle"),
        );
    }
}

pub(super) fn weight(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let r = standing(s)
        .into_iter()
        .find(|r| r.corrections.iter().any(|c| c.kind == CorrectionKind::Weight && !c.applied));
    if let Some(r) = r {
        f.at(r, said("odd-weight"), said("odd-weight-why"), said("odd-weight-settle"));
    }
}

pub(super) fn answered_no(rule: Rule, f: &mut Found<'_, '_>) {
    let (id, says, settle) = match rule {
        Rule::ReLevels => ("auto_level", said("odd-levels"), said("odd-levels-settle")),
        Rule::SteeringOff => ("steering", said("odd-steering"), said("odd-steering-settle")),
        Rule::PlatesStick => ("plates", said("odd-plates"), said("odd-plates-settle")),
        _ => ("rocked", said("odd-rocked"), said("odd-rocked-settle")),
    };
    if f.scene.prepared.yes_no(id) != Some(false)
        || !standing(f.scene).iter().any(|r| is_angle(r.quantity) || r.quantity == Quantity::Height)
    {
        return;
    }
    let item = f.scene.items.iter().find(|i| i.id == id && i.kind == PrepareKind::YesNo);
    f.visit(says, Said::text(item.map_or("", |i| i.why.as_str())), settle);
}

pub(super) fn springs_settled(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for (axle, side) in WHEELS {
        let Some(now) = s.here(Quantity::Height, axle, side) else { continue };
        let after = [Visit::Settled, Visit::Reswept, Visit::Proved];
        let set = after
            .iter()
            .rev()
            .filter(|v| **v < s.visit)
            .find_map(|v| s.standing(*v, Quantity::Height, now.place));
        let Some(set) = set else { continue };
        let lost = set.value - now.value;
        if lost > (2.0 * now.sigma.hypot(set.sigma)).max(3.0) {
            f.at(
                now,
                said("odd-lost-height").mm("lost", lost),
                said("odd-lost-height-why"),
                said("odd-lost-height-settle"),
            );
        }
    }
}

pub(super) fn bulge(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for r in standing(s).into_iter().filter(|r| r.method == Method::CamberGap) {
        let span = r.typed("span").and_then(|t| bold_stance_units::parse_length_mm("span", t, r.unit).ok());
        let Some(span) = span else { continue };
        let lip = s.car.map_or(520.0, |c| lip_circle_mm(c.tyre.rim_in, false) + 25.0);
        let none = r.typed("bulge").is_none_or(|b| b.trim().is_empty());
        if none && span > lip {
            f.at(
                r,
                said("odd-bulge").mm("span", span),
                said("odd-bulge-why").mm("bulge", 2.0),
                said("odd-bulge-settle"),
            );
        }
    }
}

pub(super) fn nominal_circle(f: &mut Found<'_, '_>) {
    for r in standing(f.scene) {
        if r.corrections.iter().any(|c| c.kind == CorrectionKind::RimLip) {
            f.at(
                r,
                said("odd-circle"),
                said("odd-circle-why").mm("more", 2.0 * FLANGE_MM),
                said("odd-circle-settle"),
            );
        }
    }
}
