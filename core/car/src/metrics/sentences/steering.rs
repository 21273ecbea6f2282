//! Steering: the axis, full lock, Ackermann.

use super::super::FullLock;
use super::super::page::{Area, CornerQuantity};
use super::{Input, Put, add, both};

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
        put("caster", "Caster, left", "°", 1, [2.0, 8.0]),
        both(now, then, |m| m.left.steer.map(|s| s.caster_deg)),
        |_, v| {
            (
                if v > 4.0 {
                    "The wheels come back to straight by themselves.".into()
                } else {
                    "The steering is light and comes back slowly.".to_string()
                },
                "Steering feel will change: correct caster before the road test.",
            )
        },
    );
    add(
        out,
        put("sai", "Steering-axis inclination, left", "°", 1, [6.0, 17.0]),
        both(now, then, |m| m.left.steer.map(|s| s.sai_deg)),
        |_, v| {
            (
                format!("At lock this lean takes camber toward positive on both wheels; {v:.1}° here."),
                "Compare the included angle of both sides: a lean far from usual points to a bent part or a moved mount.",
            )
        },
    );
    add(
        out,
        put("included_angle", "Included angle, left", "°", 1, [5.0, 17.0]),
        both(now, then, |m| m.included_angle_deg),
        |_, v| {
            let other = then.unwrap_or(now).included_angle_right_deg.unwrap_or(v);
            (
                format!(
                    "Lean of the axis and camber together, a size of the knuckle; {:.1}° between left and right.",
                    (v - other).abs()
                ),
                "Compare both sides before setting anything: this angle does not change by adjustment.",
            )
        },
    );
    add(
        out,
        put("scrub_radius", "Scrub radius, left", "mm", 0, [-25.0, 70.0]),
        both(now, then, |m| m.left.steer.map(|s| s.scrub_radius_mm)),
        |_, v| {
            (
                format!(
                    "The tyre meets the road {:.0} mm {} the steering axis.",
                    v.abs(),
                    if v >= 0.0 { "outside" } else { "inside" }
                ),
                "Braking and ruts tug at the wheel: check wheel offset before parts.",
            )
        },
    );
    add(
        out,
        put("trail", "Mechanical trail, left", "mm", 0, [4.0, 45.0]),
        both(now, then, |m| m.left.steer.map(|s| s.mechanical_trail_mm)),
        |_, v| {
            let moment = (v + PNEUMATIC_TRAIL) / 1000.0 * i.car.facts.front_load_n * 0.3;
            (
                format!(
                    "With the tyre's own trail it turns the wheel back with about {moment:.0} N·m at 0.3 g."
                ),
                "Trail this far from usual is felt as a dead or a heavy wheel.",
            )
        },
    );
    let lock = |f: fn(&FullLock) -> f64| both(now, then, move |m| m.full_lock.as_ref().map(f));
    add(
        out,
        put("ackermann", "Ackermann at half lock", "%", 0, [10.0, 120.0]),
        both(now, then, |m| m.ackermann_percent),
        |_, _| {
            let e = then.unwrap_or(now).ackermann_error_deg.unwrap_or(0.0);
            (
                format!(
                    "In a tight turn the inner wheel turns {:.1}° {} than rolling freely asks.",
                    e.abs(),
                    if e < 0.0 { "less" } else { "more" }
                ),
                "The front tyres fight each other in tight turns: look at the tie-rod joints' place.",
            )
        },
    );
    add(
        out,
        put("lock_inner_camber", "Inner wheel camber at full lock", "°", 1, [-3.0, 9.0]),
        lock(|f| f.inner_camber_deg),
        |_, v| {
            (
                format!("At full lock the inner wheel stands {:.1}° {} at the top.", v.abs(), lean(v)),
                "It turns on its edge: more caster or less lean of the axis keeps it flatter.",
            )
        },
    );
    add(
        out,
        put("lock_outer_camber", "Outer wheel camber at full lock", "°", 1, [-9.0, 1.0]),
        lock(|f| f.outer_camber_deg),
        |_, v| {
            (
                format!("The loaded wheel stands {:.1}° {} at the top at full lock.", v.abs(), lean(v)),
                "A loaded wheel that leans out runs on its shoulder in tight bends.",
            )
        },
    );
    add(
        out,
        put("lock_lift", "Body lift over the inner wheel at full lock", "mm", 1, [-5.0, 16.0]),
        lock(|f| f.inner_lift_mm),
        |_, v| {
            (
                format!(
                    "Turning to full lock raises that corner {v:.0} mm; the wheel falls back from it by itself."
                ),
                "Heavy to hold at lock: check effort with the engine idling.",
            )
        },
    );
    add(
        out,
        put("lock_forward", "Inner wheel moves forward at full lock", "mm", 0, [-70.0, 70.0]),
        lock(|f| f.inner_forward_mm),
        |_, v| {
            (
                format!(
                    "The hub swings {:.0} mm {} as the wheel turns.",
                    v.abs(),
                    if v >= 0.0 { "forward" } else { "rearward" }
                ),
                "Turn to lock with the body at bump height and look at arch and liner.",
            )
        },
    );
    let drag = i.car.facts.tyre_width_mm * i.car.facts.lock_deg.to_radians();
    add(
        out,
        put("turning_scrub", "Tread dragged turning on the spot", "mm", 0, [0.0, 220.0]),
        (Some(drag), None),
        |_, v| {
            (
                format!(
                    "A {:.0} mm tread turned to full lock standing still is dragged {v:.0} mm edge to edge.",
                    i.car.facts.tyre_width_mm
                ),
                "Wide tyres wear when parked under lock: let it roll while turning.",
            )
        },
    );
}

fn lean(v: f64) -> &'static str {
    if v >= 0.0 { "out" } else { "in" }
}
