//! What was changed after it was read.

use super::super::quantity::{Place, Quantity, Visit};
use super::super::scene::{ChangeKind, Scene, Seen};
use super::super::take::Jack;
use super::{Found, Rule, name, standing};
use crate::geometry::{Axle, Side};
use crate::units::print_degrees;

pub(super) fn stale(rule: Rule, f: &mut Found<'_, '_>) {
    let s = f.scene;
    let wanted = |q| match rule {
        Rule::CasterStale => q == Quantity::Caster,
        _ => matches!(q, Quantity::Toe | Quantity::TotalToe),
    };
    for r in standing(s).into_iter().filter(|r| wanted(r.quantity)) {
        if let Some(why) = stale_because(s, r) {
            let settle = if rule == Rule::CasterStale {
                "Sweep it again, brakes held."
            } else {
                "Read toe again, steering locked straight."
            };
            f.at(
                r,
                format!("{}: {why}.", name(r)),
                "Camber and caster moves always move toe, and caster is not live.",
                settle,
            );
        }
    }
}

/// Why a reading no longer holds: something was done, or camber or height read differently, after it.
#[must_use]
pub fn stale_because(s: &Scene<'_>, r: &Seen) -> Option<String> {
    if let Some(c) = s.changed_after(r) {
        return Some(format!("{} after it was read", c.words()));
    }
    if !matches!(r.quantity, Quantity::Toe | Quantity::TotalToe) {
        return None;
    }
    let axle = r.place.one_axle()?;
    let sides = r.place.one_side().map_or(Side::BOTH.to_vec(), |x| vec![x]);
    for side in sides {
        for (q, least, what) in [(Quantity::Camber, 0.1, "camber"), (Quantity::Height, 2.0, "height")] {
            let place = Place::wheel(axle, side);
            let of = |after: bool| {
                s.readings.iter().rev().find(|x| {
                    x.quantity == q && x.place == place && (x.at > r.at) == after && x.jack == Jack::Rolled
                })
            };
            if let (Some(now), Some(then)) = (of(true), of(false))
                && (now.value - then.value).abs() > (2.0 * now.sigma.hypot(then.sigma)).max(least)
            {
                return Some(format!("{} {what} changed after it was read", side.word()));
            }
        }
    }
    None
}

pub(super) fn caster_unchanged(f: &mut Found<'_, '_>) {
    let s = f.scene;
    for side in Side::BOTH {
        let Some(now) = s.here(Quantity::Caster, Axle::Front, side) else { continue };
        let before = s.readings.iter().rev().find(|r| {
            r.quantity == Quantity::Caster && r.place == now.place && r.at < now.at && r.id != now.id
        });
        let Some(before) = before else { continue };
        let moved = s.changes.iter().any(|c| {
            c.kind == ChangeKind::Cams && c.axle == Axle::Front && c.at > before.at && c.at < now.at
        });
        let same = before.raw.iter().filter(|e| !e.dropped).map(|e| &e.text).eq(now
            .raw
            .iter()
            .filter(|e| !e.dropped)
            .map(|e| &e.text));
        if moved && same {
            f.at(
                now,
                format!("{} reads exactly as before the cams were moved.", name(now)),
                "Caster is not live: it shows a change only once it is swept again.",
                "Sweep it again from the first swing.",
            );
        }
    }
}

pub(super) fn pitch_compare(f: &mut Found<'_, '_>) {
    let s = f.scene;
    let Some(car) = s.car else { return };
    for side in Side::BOTH {
        let Some(now) = s.here(Quantity::Caster, Axle::Front, side) else { continue };
        let before = Visit::ALL
            .iter()
            .rev()
            .filter(|v| **v < s.visit)
            .find_map(|v| s.standing(*v, Quantity::Caster, now.place).map(|r| (*v, r)));
        let Some((visit, _)) = before else { continue };
        let pitch = |v| car.car.attitude(&car.gains(&s.heights(v)), [0.0; 2]).0.pitch.to_degrees();
        let turned = pitch(s.visit) - pitch(visit);
        if turned.abs() > 0.25 {
            f.at(
                now,
                format!(
                    "{}: the body turned {} {} since the visit before.",
                    name(now),
                    print_degrees(turned.abs(), 1),
                    if turned > 0.0 { "nose up" } else { "nose down" }
                ),
                "That much of the change in caster is the body's, not the suspension's.",
                "Take the body's turn off before comparing with the old value.",
            );
        }
    }
}
