//! What is wrong with adjusters, by field.

use super::{Adjuster, AdjusterKind, LeftHand};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};

/// Most adjusters of one side.
pub const MOST_ADJUSTERS: usize = 12;

/// What is wrong with a list of adjusters, by field.
#[must_use]
pub fn adjuster_problems(list: &[Adjuster]) -> Vec<Problem> {
    let mut out = Vec::new();
    if list.len() > MOST_ADJUSTERS {
        out.push(Problem::new(
            "adjusters",
            said("fault-more-than-twelve"),
            said("fault-twelve-adjusters-fewer"),
        ));
    }
    for (i, a) in list.iter().enumerate() {
        one(&format!("adjusters.{i}"), a, &mut out);
    }
    out
}

fn one(field: &str, a: &Adjuster, out: &mut Vec<Problem>) {
    let at = |f: &str| format!("{field}.{f}");
    let [low, high] = a.built_range();
    let (mut short_thread, mut same_hand): (Option<Said>, bool) = (None, false);
    let mut check = |f: &str, v: f64, low: f64, high: f64, unit: &str| {
        out.extend(in_range(&at(f), v, low, high, unit).err());
    };
    let n = a.name.trim().chars().count();
    check("name", n as f64, 1.0, 60.0, "characters");
    check("position", a.position, -360.0, 360.0, "° , turns or mm");
    let long = |d: &[f64; 3]| d.iter().map(|c| c * c).sum::<f64>().sqrt();
    let ends = match &a.kind {
        AdjusterKind::Eccentric { direction, eccentricity_mm, notches_per_half_turn, .. } => {
            check("eccentricity_mm", *eccentricity_mm, 0.1, 60.0, "mm");
            check("direction", long(direction), 1e-6, 1e6, "long");
            check(
                "notches_per_half_turn",
                f64::from(notches_per_half_turn.unwrap_or(8)),
                1.0,
                90.0,
                "notches",
            );
            ("min_deg", "max_deg", 180.0, "°")
        }
        AdjusterKind::CamBolt { amplitude_deg, notches_per_half_turn, .. } => {
            check("amplitude_deg", *amplitude_deg, 0.05, 10.0, "°");
            check(
                "notches_per_half_turn",
                f64::from(notches_per_half_turn.unwrap_or(8)),
                1.0,
                90.0,
                "notches",
            );
            ("min_deg", "max_deg", 180.0, "°")
        }
        AdjusterKind::Thread { pitch_mm, ends, engaged_mm, min_engaged_mm, left_hand, .. } => {
            check("pitch_mm", *pitch_mm, 0.1, 10.0, "mm a turn");
            check("ends", f64::from(*ends), 1.0, 2.0, "threaded ends");
            check("engaged_mm", engaged_mm.unwrap_or(20.0), 0.0, 300.0, "mm");
            check("min_engaged_mm", min_engaged_mm.unwrap_or(10.0), 0.0, 200.0, "mm");
            if let (Some(has), Some(least)) = (engaged_mm, min_engaged_mm)
                && has < least
            {
                short_thread = Some(said("fault-thread-short").fine_mm("least", *least).fine_mm("has", *has));
            }
            same_hand = *ends == 2 && *left_hand == Some(LeftHand::Neither);
            ("turns", "turns", 60.0, "turns")
        }
        AdjusterKind::Slide { direction, step_mm, .. } => {
            check("direction", long(direction), 1e-6, 1e6, "long");
            check("step_mm", step_mm.unwrap_or(1.0), 0.05, 50.0, "mm");
            ("range_mm", "range_mm", 150.0, "mm")
        }
        AdjusterKind::Shims { direction, step_mm, .. } => {
            check("direction", long(direction), 1e-6, 1e6, "long");
            check("step_mm", *step_mm, 0.05, 20.0, "mm");
            ("range_mm", "range_mm", 60.0, "mm")
        }
        AdjusterKind::Tilt { step_deg, toe_per_camber, .. } => {
            check("step_deg", step_deg.unwrap_or(0.25), 0.01, 5.0, "°");
            check("toe_per_camber", *toe_per_camber, -5.0, 5.0, "° a degree");
            ("camber_deg", "camber_deg", 8.0, "°")
        }
        AdjusterKind::Wedge { step_deg, .. } => {
            check("step_deg", *step_deg, 0.05, 5.0, "°");
            ("caster_deg", "caster_deg", 12.0, "°")
        }
        AdjusterKind::Sleeve { amount_deg, positions } => {
            check("amount_deg", *amount_deg, 0.05, 5.0, "°");
            check("positions", f64::from(*positions), 2.0, 36.0, "positions");
            ("positions", "positions", 360.0, "°")
        }
    };
    check(ends.0, low, -ends.2, ends.2, ends.3);
    check(ends.1, high, -ends.2, ends.2, ends.3);
    if let Some(wrong) = short_thread {
        out.push(Problem::new(at("min_engaged_mm"), wrong, said("fault-no-more-than-engaged-comes")));
    }
    if same_hand {
        out.push(Problem::new(at("left_hand"), said("fault-same-hand"), said("fault-same-hand-right")));
    }
    if low >= high && !matches!(a.kind, AdjusterKind::Sleeve { .. }) {
        out.push(Problem::new(
            at(ends.1),
            said("fault-range-empty"),
            said("fault-highest-value-above-lowest"),
        ));
    }
}

#[cfg(test)]
mod tests {
    use super::super::default_adjusters;
    use super::*;

    #[test]
    fn empty_ranges_and_wild_numbers_are_named() {
        let mut a = default_adjusters(8.0);
        if let AdjusterKind::Eccentric { max_deg, eccentricity_mm, .. } = &mut a[1].kind {
            *max_deg = -90.0;
            *eccentricity_mm = f64::NAN;
        }
        let fields: Vec<_> = adjuster_problems(&a).into_iter().map(|p| p.field).collect();
        assert_eq!(fields, ["adjusters.1.eccentricity_mm", "adjusters.1.max_deg"]);
    }
}
