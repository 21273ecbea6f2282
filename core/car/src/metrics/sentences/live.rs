//! What height does to a live axle.

use super::super::live_axle::LivePoint;
use super::super::page::{Area, CornerQuantity};
use super::{Input, Put, Values, add};
use crate::vehicle::Gains;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::said::said;

pub(super) fn live(i: &Input<'_>, out: &mut Vec<CornerQuantity>) {
    if i.live.is_empty() {
        return;
    }
    let front = i.live_axle == Axle::Front;
    let area = if front { Area::Front } else { Area::Rear };
    let put = |id, label, unit, digits, usual| Put { area, id, label, unit, digits, usual };
    let height = |g: &Gains| {
        if front {
            f64::midpoint(g.left_front, g.right_front)
        } else {
            f64::midpoint(g.left_rear, g.right_rear)
        }
    };
    // Linear between the curve's heights, which lie close together.
    let at = |h: f64, f: &dyn Fn(&LivePoint) -> Option<f64>| -> Option<f64> {
        let j = i.live.partition_point(|p| p.height_mm < h).clamp(1, i.live.len() - 1);
        let (a, b) = (i.live.get(j - 1)?, i.live.get(j)?);
        let t = (h - a.height_mm) / (b.height_mm - a.height_mm);
        Some(f(a)? + (f(b)? - f(a)?) * t)
    };
    let value = |f: &dyn Fn(&LivePoint) -> Option<f64>| -> Values {
        let zero = at(height(&i.arrived), f);
        let against = |h: f64| Some(at(h, f)? - zero?);
        (zero.map(|_| 0.0), i.planned.and_then(|g| against(height(&g))))
    };
    // Where it was read to stand comes first; the bar's arc says what height adds.
    let stands = i.axle_offset_mm.map(|to_left| -to_left);
    let (now, then) = value(&|p| Some(p.lateral_shift_mm));
    let shift = |v: Option<f64>| v.map(|v| v + stands.unwrap_or(0.0));
    add(
        out,
        put("axle_shift", said("q-axle-shift"), "mm", 1, [-8.0, 8.0]),
        (shift(now), shift(then)),
        |_, v| {
            let side = if v >= 0.0 { "left" } else { "right" };
            (
                match (stands, v.abs() < 0.5) {
                    (None, true) => said("q-axle-shift-same"),
                    (Some(_), true) => said("q-axle-shift-central"),
                    (Some(_), false) => said("q-axle-shift-off").mm("by", v.abs()).word("side", side),
                    (None, false) => said("q-axle-shift-arc").mm("by", v.abs()).word("side", side),
                },
                "q-axle-shift-look",
            )
        },
    );
    add(
        out,
        put("axle_pitch", said("q-axle-pitch"), "°", 1, [-1.5, 1.5]),
        value(&|p| Some(p.pitch_deg)),
        |_, v| {
            (
                if v.abs() < 0.05 {
                    said("q-axle-pitch-same")
                } else if front {
                    said("q-axle-pitch-caster")
                        .deg("by", v.abs(), 1)
                        .word("way", if v > 0.0 { "less" } else { "more" })
                } else {
                    said("q-axle-pitch-pinion")
                        .deg("by", v.abs(), 1)
                        .word("way", if v > 0.0 { "down" } else { "up" })
                },
                "q-axle-pitch-look",
            )
        },
    );
    add(
        out,
        put("steering_wheel", said("q-steering-wheel"), "°", 0, [-8.0, 8.0]),
        value(&|p| p.steering_wheel_deg),
        |_, v| {
            (
                if v.abs() < 0.5 {
                    said("q-steering-wheel-same")
                } else {
                    said("q-steering-wheel-off")
                        .deg("by", v.abs(), 0)
                        .word("side", if v >= 0.0 { "right" } else { "left" })
                },
                "q-steering-wheel-look",
            )
        },
    );
}
