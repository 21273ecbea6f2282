//! The whole car: tread on the ground, rake, wheelbase, thrust.

use super::super::axle::AxleMetrics;
use super::super::page::{Area, CornerQuantity};
use super::{Input, Put, add};
use crate::vehicle::Sides;
use bold_stance_units::said::said;

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
            label: said("q-contact"),
            unit: "%",
            digits: 0,
            usual: [75.0, 100.0],
        },
        (contact(i.front), i.front_planned.and_then(contact)),
        |_, v| (said("q-contact-means").mm("width", width).mm("carry", width * v / 100.0), "q-contact-look"),
    );
    let row = |kind| i.rows.iter().find(|r| r.kind == kind);
    let (now, then) = (row(crate::vehicle::StateKind::Arrived), row(crate::vehicle::StateKind::Planned));
    let Some(now) = now else { return };
    let put = |id, label, unit, digits, usual| Put { area: Area::Car, id, label, unit, digits, usual };
    add(
        out,
        put("pitch", said("q-pitch"), "°", 2, [-1.5, 1.5]),
        (Some(now.pitch_deg), then.map(|r| r.pitch_deg)),
        |a, v| {
            (
                if (v - a).abs() < 0.02 {
                    said("q-pitch-same")
                } else {
                    said(if v > a { "q-pitch-adds" } else { "q-pitch-takes" }).deg("by", (v - a).abs(), 1)
                },
                "q-pitch-look",
            )
        },
    );
    add(
        out,
        put(
            "wheelbase",
            said("q-wheelbase"),
            "mm",
            1,
            [i.car.wheelbase_mm - 15.0, i.car.wheelbase_mm + 15.0],
        ),
        (Some(now.wheelbase_left_mm), then.map(|r| r.wheelbase_left_mm)),
        |a, v| {
            (
                if (v - a).abs() < 0.5 {
                    said("q-wheelbase-same")
                } else {
                    said(if v > a { "q-wheelbase-apart" } else { "q-wheelbase-together" })
                        .mm("by", (v - a).abs())
                },
                "q-wheelbase-look",
            )
        },
    );
    if let Some(t) = now.thrust_deg {
        add(
            out,
            put("thrust", said("q-thrust"), "°", 2, [-0.12, 0.12]),
            (Some(t), then.and_then(|r| r.thrust_deg)),
            |_, v| {
                (
                    if let Some(Sides { left: l, right: r }) = i.wheelbases_mm
                        && (l - r).abs() >= WHEELBASES_APART
                    {
                        said("q-thrust-skewed")
                            .mm("apart", (l - r).abs())
                            .word("side", if l < r { "left" } else { "right" })
                    } else if !i.rear_was_read {
                        said("q-thrust-drawn")
                    } else if v.abs() < 0.02 {
                        said("q-thrust-straight")
                    } else {
                        said("q-thrust-points")
                            .deg("by", v.abs(), 2)
                            .word("side", if v > 0.0 { "right" } else { "left" })
                    },
                    "q-thrust-look",
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
