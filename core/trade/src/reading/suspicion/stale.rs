//! What was changed after it was read.

use super::super::quantity::{Place, Quantity, Visit};
use super::super::scene::{ChangeKind, Scene, Seen};
use super::super::take::Jack;
use super::{Found, Rule, standing};
use bold_stance_car::vehicle::Axles;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::said::{Said, said};

pub(super) fn stale(rule: Rule, f: &mut Found<'_, '_>) {
    let s = f.scene;
    let wanted = |q| match rule {
        Rule::CasterStale => q == Quantity::Caster,
        _ => matches!(q, Quantity::Toe | Quantity::TotalToe),
    };
    for r in standing(s).into_iter().filter(|r| wanted(r.quantity)) {
        if let Some(why) = stale_because(s, r) {
            let settle =
                if rule == Rule::CasterStale { said("odd-stale-sweep") } else { said("odd-stale-toe") };
            f.at(r, said("odd-stale").say("why", why), said("odd-stale-why"), settle);
        }
    }
}

/// Why a reading no longer holds: something was done, or camber or height read differently, after it.
#[must_use]
pub fn stale_because(s: &Scene<'_>, r: &Seen) -> Option<Said> {
    if let Some(c) = s.changed_after(r) {
        return Some(said("stale-after").say("what", c.said()));
    }
    if !matches!(r.quantity, Quantity::Toe | Quantity::TotalToe) {
        return None;
    }
    let axle = r.place.one_axle()?;
    let sides = r.place.one_side().map_or(Side::BOTH.to_vec(), |x| vec![x]);
    for side in sides {
        for (q, least) in [(Quantity::Camber, 0.1), (Quantity::Height, 2.0)] {
            let place = Place::wheel(axle, side);
            let of = |after: bool| {
                s.readings.iter().rev().find(|x| {
                    x.quantity == q && x.place == place && (x.at > r.at) == after && x.jack == Jack::Rolled
                })
            };
            if let (Some(now), Some(then)) = (of(true), of(false))
                && (now.value - then.value).abs() > (2.0 * now.sigma.hypot(then.sigma)).max(least)
            {
                return Some(said("stale-changed").word("side", side.word()).word("quantity", q.word()));
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
            f.at(now, said("odd-unchanged"), said("odd-unchanged-why"), said("odd-unchanged-settle"));
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
        let pitch = |v| car.car.attitude(&car.gains(&s.heights(v)), Axles::default()).0.pitch.to_degrees();
        let turned = pitch(s.visit) - pitch(visit);
        if turned.abs() > 0.25 {
            f.at(
                now,
                said("odd-pitch")
                    .deg("by", turned.abs(), 1)
                    .word("nose", if turned > 0.0 { "up" } else { "down" }),
                said("odd-pitch-why"),
                said("odd-pitch-settle"),
            );
        }
    }
}
