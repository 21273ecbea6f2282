//! The whole car: tread on the ground, rake, wheelbase, thrust.

use super::super::axle::AxleMetrics;
use super::super::page::{Area, CornerQuantity};
use super::{Input, Put, add};

/// Share of the tread on the ground when a stiff tread of `width` is leaned by `camber` degrees: an edge
/// lifts once the lean takes more than the tyre's own deflection (3.5 % of its diameter; an estimate).
fn contact_share(width: f64, loaded_radius: f64, camber: f64) -> f64 {
    let deflection = loaded_radius * 0.035 / (1.0 - 0.035);
    let lean = camber.to_radians().sin();
    if 0.5 * width * lean <= deflection {
        return 1.0;
    }
    (0.5 * width + deflection / lean) / width
}

pub(super) fn car(i: &Input<'_>, out: &mut Vec<CornerQuantity>) {
    let width = i.car.facts.tyre_width_mm;
    let contact = |m: &AxleMetrics| {
        let camber = m.left.camber_deg.abs().max(m.right.camber_deg.abs());
        Some(100.0 * contact_share(width, i.car.front.wheel.loaded_radius_mm, camber))
    };
    add(
        out,
        Put {
            area: Area::Car,
            id: "contact_width",
            label: "Front tread on the ground, standing",
            unit: "%",
            digits: 0,
            usual: [75.0, 100.0],
        },
        (contact(i.front), i.front_planned.and_then(contact)),
        |_, v| {
            (
                format!(
                    "Of a {width:.0} mm tread about {:.0} mm carry, by the lean of the worse wheel alone.",
                    width * v / 100.0
                ),
                "One edge of the tread hangs free when it stands: set camber before judging the tyre.",
            )
        },
    );
    let row = |kind| i.rows.iter().find(|r| r.kind == kind);
    let (now, then) = (row(crate::vehicle::StateKind::Arrived), row(crate::vehicle::StateKind::Planned));
    let Some(now) = now else { return };
    let put = |id, label, unit, digits, usual| Put { area: Area::Car, id, label, unit, digits, usual };
    add(
        out,
        put("pitch", "Body pitch against design, nose up", "°", 2, [-1.5, 1.5]),
        (Some(now.pitch_deg), then.map(|r| r.pitch_deg)),
        |a, v| {
            (
                if (v - a).abs() < 0.02 {
                    "The body keeps its rake; caster gets nothing from it.".into()
                } else {
                    format!(
                        "The change of rake alone {} {:.1}° of caster.",
                        if v > a { "adds" } else { "takes" },
                        (v - a).abs()
                    )
                },
                "Headlights, camera and radar look elsewhere at this rake: have them set.",
            )
        },
    );
    add(
        out,
        put("wheelbase", "Wheelbase, left", "mm", 1, [i.car.wheelbase_mm - 15.0, i.car.wheelbase_mm + 15.0]),
        (Some(now.wheelbase_left_mm), then.map(|r| r.wheelbase_left_mm)),
        |a, v| {
            (
                if (v - a).abs() < 0.5 {
                    "The axles stay the same distance apart.".into()
                } else {
                    format!(
                        "The axles move {:.0} mm {}.",
                        (v - a).abs(),
                        if v > a { "apart" } else { "together" }
                    )
                },
                "Look where the tyres stand in their arches, front and rear.",
            )
        },
    );
    if let Some(t) = now.thrust_deg {
        add(
            out,
            put("thrust", "Thrust angle, to the right", "°", 2, [-0.12, 0.12]),
            (Some(t), then.and_then(|r| r.thrust_deg)),
            |_, v| {
                (
                    if let Some([l, r]) = i.wheelbases_mm
                        && (l - r).abs() >= WHEELBASES_APART
                    {
                        format!(
                            "Wheelbases read {:.0} mm apart, shorter on the {}: an axle is skewed, whatever toe says.",
                            (l - r).abs(),
                            if l < r { "left" } else { "right" }
                        )
                    } else if !i.rear_was_read {
                        "Rear toe was not read: this is the drawing's, not the car's.".into()
                    } else if v.abs() < 0.02 {
                        "The rear axle points straight ahead.".into()
                    } else {
                        format!(
                            "The rear axle points {:.2}° to the {}.",
                            v.abs(),
                            if v > 0.0 { "right" } else { "left" }
                        )
                    },
                    "Set the rear first: the front is steered to this line.",
                )
            },
        );
    }
}

/// Taped wheelbases this far apart are not taken for alike, mm (common practice, no source).
const WHEELBASES_APART: f64 = 4.0;

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_tread_stays_down_until_the_lean_takes_its_deflection() {
        assert!((contact_share(265.0, 390.0, 0.0) - 1.0).abs() < 1e-12);
        assert!((contact_share(265.0, 390.0, 3.0) - 1.0).abs() < 1e-12);
        let leaned = contact_share(265.0, 390.0, 8.0);
        assert!(leaned < 0.9 && leaned > 0.5, "{leaned}");
        assert!(contact_share(265.0, 390.0, 12.0) < leaned);
    }
}
