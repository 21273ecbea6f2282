//! Steering: the axis, full lock, Ackermann.

use super::super::FullLock;
use super::super::page::{Area, CornerQuantity};
use super::{Input, Put, add, both};
use bold_stance_units::said::{Measure, said};

/// Pneumatic trail of a road tyre, mm: about a sixth of the contact length (textbook order; common practice).
const PNEUMATIC_TRAIL: f64 = 28.0;

pub(super) fn steering(i: &Input<'_>, out: &mut Vec<CornerQuantity>) {
    let (now, then) = (i.front, i.front_planned);
    if now.left.steer.is_none() {
        return;
    }
    let put = |id, label, unit, digits, usual| Put { area: Area::Steering, id, label, unit, digits, usual };
    add(
        out,
        put("caster", said("q-caster"), "°", 1, [2.0, 8.0]),
        both(now, then, |m| m.left.steer.map(|s| s.caster_deg)),
        |_, v| (if v > 4.0 { said("q-caster-returns") } else { said("q-caster-light") }, "q-caster-look"),
    );
    add(
        out,
        put("sai", said("q-sai"), "°", 1, [6.0, 17.0]),
        both(now, then, |m| m.left.steer.map(|s| s.sai_deg)),
        |_, v| (said("q-sai-means").deg("value", v, 1), "q-sai-look"),
    );
    add(
        out,
        put("included_angle", said("q-included"), "°", 1, [5.0, 17.0]),
        both(now, then, |m| m.included_angle_deg),
        |_, v| {
            let other = then.unwrap_or(now).included_angle_right_deg.unwrap_or(v);
            (said("q-included-means").deg("apart", (v - other).abs(), 1), "q-included-look")
        },
    );
    add(
        out,
        put("scrub_radius", said("q-scrub"), "mm", 0, [-25.0, 70.0]),
        both(now, then, |m| m.left.steer.map(|s| s.scrub_radius_mm)),
        |_, v| {
            (
                said(if v >= 0.0 { "q-scrub-outside" } else { "q-scrub-inside" }).mm("by", v.abs()),
                "q-scrub-look",
            )
        },
    );
    add(
        out,
        put("trail", said("q-trail"), "mm", 0, [4.0, 45.0]),
        both(now, then, |m| m.left.steer.map(|s| s.mechanical_trail_mm)),
        |_, v| {
            let moment = (v + PNEUMATIC_TRAIL) / 1000.0 * i.car.facts.axles.front.load_n * 0.3;
            (said("q-trail-means").of("moment", Measure::Nm, moment, 0), "q-trail-look")
        },
    );
    let lock = |f: fn(&FullLock) -> f64| both(now, then, move |m| m.full_lock.as_ref().map(f));
    add(
        out,
        put("ackermann", said("q-ackermann"), "%", 0, [10.0, 120.0]),
        both(now, then, |m| m.ackermann_percent),
        |_, _| {
            let e = then.unwrap_or(now).ackermann_error_deg.unwrap_or(0.0);
            (
                said(if e < 0.0 { "q-ackermann-less" } else { "q-ackermann-more" }).deg("by", e.abs(), 1),
                "q-ackermann-look",
            )
        },
    );
    add(
        out,
        put("lock_inner_camber", said("q-lock-inner"), "°", 1, [-3.0, 9.0]),
        lock(|f| f.inner_camber_deg),
        |_, v| {
            (
                said(if v >= 0.0 { "q-lock-inner-out" } else { "q-lock-inner-in" }).deg("by", v.abs(), 1),
                "q-lock-inner-look",
            )
        },
    );
    add(
        out,
        put("lock_outer_camber", said("q-lock-outer"), "°", 1, [-9.0, 1.0]),
        lock(|f| f.outer_camber_deg),
        |_, v| {
            (
                said(if v >= 0.0 { "q-lock-outer-out" } else { "q-lock-outer-in" }).deg("by", v.abs(), 1),
                "q-lock-outer-look",
            )
        },
    );
    add(
        out,
        put("lock_lift", said("q-lock-lift"), "mm", 1, [-5.0, 16.0]),
        lock(|f| f.inner_lift_mm),
        |_, v| (said("q-lock-lift-means").mm("by", v), "q-lock-lift-look"),
    );
    add(
        out,
        put("lock_forward", said("q-lock-forward"), "mm", 0, [-70.0, 70.0]),
        lock(|f| f.inner_forward_mm),
        |_, v| {
            (
                said("q-lock-forward-means")
                    .mm("by", v.abs())
                    .word("way", if v >= 0.0 { "forward" } else { "rearward" }),
                "q-lock-forward-look",
            )
        },
    );
    let drag = i.car.facts.tyre_width_mm * i.car.facts.lock_deg.to_radians();
    add(
        out,
        put("turning_scrub", said("q-turning-scrub"), "mm", 0, [0.0, 220.0]),
        (Some(drag), None),
        |_, v| {
            (
                said("q-turning-scrub-means").mm("width", i.car.facts.tyre_width_mm).mm("by", v),
                "q-turning-scrub-look",
            )
        },
    );
}
