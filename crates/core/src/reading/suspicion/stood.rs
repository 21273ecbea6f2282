//! How the car and the floor stood: jack, height, slope, weight, plates, steering.

use super::super::camber::floor_correction;
use super::super::convert::CorrectionKind;
use super::super::method::Method;
use super::super::prepare::PrepareKind;
use super::super::quantity::{Place, Quantity, Visit};
use super::super::take::Jack;
use super::super::wheel::lip_circle_mm;
use super::Rule;
use super::{Found, WHEELS, is_angle, name, standing};
use crate::geometry::{Axle, Side};
use crate::units::print_degrees;

pub(super) fn stood(rule: Rule, f: &mut Found<'_, '_>) {
    for r in standing(f.scene) {
        match (rule, r.jack) {
            (Rule::Jacked, Jack::Jacked) => f.at(
                r,
                format!("{}: jacked, not rolled since.", name(r)),
                "A wheel let down from a jack stands on scrubbed tyres: camber reads about half a degree out. \
                 Set to zero like that, it drives off at half a degree in.",
                "Roll it 3 m, bounce it, and read again.",
            ),
            (Rule::BodyTilted, Jack::OneSide) => f.at(
                r,
                format!("{}: read with a jack under the other side.", name(r)),
                "A tilted body leans its wheels with it and moves one side of the suspension.",
                "Let it down on all four, roll it, and read again.",
            ),
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
                f.at(
                    r,
                    format!("{}: read before it had settled.", name(r)),
                    "Every angle hangs on the height, and the height had not come to rest.",
                    "Roll and bounce it, re-read the height, then this.",
                );
            } else if let Some(h) = height
                && r.height_mm.is_some_and(|was| r.jack == Jack::Rolled && (was - h.as_taped()).abs() > 3.0)
            {
                f.at(
                    r,
                    format!(
                        "{}: read at {:.0} mm, it stands at {:.0} mm now.",
                        name(r),
                        r.height_mm.unwrap_or_default(),
                        h.as_taped()
                    ),
                    "Every angle hangs on the height.",
                    "Read it again at the height it stands at.",
                );
            }
        }
    }
}

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
                format!(
                    "{} axle camber counts against gravity, and the floor was not measured.",
                    if axle == Axle::Front { "Front" } else { "Rear" }
                ),
                "A floor falling 1/8 in a foot is 0.6° of camber, out on one side and in on the other.",
                "Zero the gauge on a bar across both contact patches, or read the floor with a level.",
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
                format!("{}: the floor was told otherwise after it was read.", name(r)),
                &format!(
                    "With the floor as it is told now it would read {}. What is kept stays as it was worked out then.",
                    print_degrees(r.value + off, 2)
                ),
                "Read it again, or type the same number again: the floor told now is taken out of it.",
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
            &format!("Both axles lean to the {way}: {} in front, {} behind.", print_degrees(front.abs(), 1), print_degrees(rear.abs(), 1)),
            "Two axles rarely go out by the same amount the same way. A floor, a soft tyre or a jack leans both.",
            "Turn the car round on the same spot and read one wheel again: a floor turns the sign.",
        );
    }
}

pub(super) fn weight(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let r = standing(s)
        .into_iter()
        .find(|r| r.corrections.iter().any(|c| c.kind == CorrectionKind::Weight && !c.applied));
    if let Some(r) = r {
        f.at(
            r,
            "Fuel or load is not as it should be, and it could not be taken out.".into(),
            "Without spring rates, weight cannot be turned into height.",
            "Fill the tank and empty the car, or enter both spring rates.",
        );
    }
}

pub(super) fn answered_no(rule: Rule, f: &mut Found<'_, '_>) {
    let (id, says, settle) = match rule {
        Rule::ReLevels => (
            "auto_level",
            "Doors open or auto-level on: the height moves between readings.",
            "Shut the doors, switch levelling off, and read a height twice.",
        ),
        Rule::SteeringOff => (
            "steering",
            "Steering not centred: toe of each wheel is off, the total is not.",
            "Centre and lock the wheel, then read one toe again.",
        ),
        Rule::PlatesStick => (
            "plates",
            "Plates stick: the tyres hold the wheels where they were put.",
            "Grease the plates, roll off and on, and read one camber again.",
        ),
        _ => (
            "rocked",
            "Steering was not rocked: joints hold some camber back.",
            "Rock it lock to lock and read camber again.",
        ),
    };
    if f.scene.prepared.yes_no(id) != Some(false)
        || !standing(f.scene).iter().any(|r| is_angle(r.quantity) || r.quantity == Quantity::Height)
    {
        return;
    }
    let item = f.scene.items.iter().find(|i| i.id == id && i.kind == PrepareKind::YesNo);
    let why = item.map_or_else(String::new, |i| i.why.clone());
    f.visit(says, &why, settle);
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
                format!("{} lost {lost:.0} mm since it was set.", name(now)),
                "New springs and bushings settle in the first weeks; the angles read then were at another height.",
                "Set the height back, roll it, and read camber, caster and toe again.",
            );
        }
    }
}

pub(super) fn bulge(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for r in standing(s).into_iter().filter(|r| r.method == Method::CamberGap) {
        let span = r.typed("span").and_then(|t| crate::units::parse_length_mm("span", t, r.unit).ok());
        let Some(span) = span else { continue };
        let lip = s.car.map_or(520.0, |c| lip_circle_mm(c.tyre.rim_in, false) + 25.0);
        let none = r.typed("bulge").is_none_or(|b| b.trim().is_empty());
        if none && span > lip {
            f.at(
                r,
                format!("{}: a span of {span:.0} mm is on the tyre, and no bulge was taken out.", name(r)),
                "The bottom of a tyre bulges a couple of mm where it stands.",
                "Measure lip to lip, or measure the bulge against the rim.",
            );
        }
    }
}

pub(super) fn nominal_circle(f: &mut Found<'_, '_>) {
    for r in standing(f.scene) {
        if r.corrections.iter().any(|c| c.kind == CorrectionKind::RimLip) {
            f.at(
                r,
                format!("{}: the circle comes from the stamped size.", name(r)),
                "The lip you touch is larger than the stamped size, by about an inch and a third.",
                "Measure the rim lip to lip once.",
            );
        }
    }
}
