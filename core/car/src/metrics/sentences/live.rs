//! What height does to a live axle.

use super::super::live_axle::LivePoint;
use super::super::page::{Area, CornerQuantity};
use super::{Input, Put, Values, add};
use crate::vehicle::Gains;
use bold_stance_kinematics::geometry::Axle;

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
        put("axle_shift", "Axle to the left", "mm", 1, [-8.0, 8.0]),
        (shift(now), shift(then)),
        |_, v| {
            let side = if v >= 0.0 { "left" } else { "right" };
            (
                match (stands, v.abs() < 0.5) {
                    (None, true) => "The axle stands where it stood.".into(),
                    (Some(_), true) => "The axle stands central.".into(),
                    (Some(_), false) => {
                        format!("The axle stands {:.0} mm to the {side} of the middle.", v.abs())
                    }
                    (None, false) => {
                        format!(
                            "On the track bar's arc the axle comes to stand {:.0} mm to the {side}.",
                            v.abs()
                        )
                    }
                },
                "Centre the axle with an adjustable track bar or a bracket, at ride height.",
            )
        },
    );
    add(
        out,
        put("axle_pitch", "Axle turns, nose down", "°", 1, [-1.5, 1.5]),
        value(&|p| Some(p.pitch_deg)),
        |_, v| {
            (
                if v.abs() < 0.05 {
                    "The axle keeps its angle, and the pinion with it.".into()
                } else if front {
                    format!(
                        "Caster goes with it, {:.1}° {}; so does the pinion.",
                        v.abs(),
                        if v > 0.0 { "less" } else { "more" }
                    )
                } else {
                    format!("The pinion goes {:.1}° {}.", v.abs(), if v > 0.0 { "down" } else { "up" })
                },
                "Check the propeller shaft's joint angles against each other; they should stay equal.",
            )
        },
    );
    add(
        out,
        put("steering_wheel", "Steering wheel off centre, right", "°", 0, [-8.0, 8.0]),
        value(&|p| p.steering_wheel_deg),
        |_, v| {
            (
                if v.abs() < 0.5 {
                    "The steering wheel stays where it is.".into()
                } else {
                    format!(
                        "Drag link and track bar do not move alike: the wheel stands {:.0}° to the {} going straight.",
                        v.abs(),
                        if v >= 0.0 { "right" } else { "left" }
                    )
                },
                "Keep drag link and track bar at one angle and length; then centre the wheel at the drag link.",
            )
        },
    );
}
