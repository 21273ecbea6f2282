//! Which of two sets that do the same a specialist would fit first: what it costs, and whether it is the part for it.

use super::input::PlanInput;
use super::judge::SolvedSetting;
use crate::part::{BuiltWith, Part, Purpose};
use bold_stance_car::adjuster::AdjusterKind;
use bold_stance_kinematics::edit::{EccentricPoint, Edit};

/// What an hour of labour counts where the shop told no rate, in its currency (invented).
pub const USUAL_RATE: f64 = 90.0;
/// What each part more counts beside its price: fitting, ordering, one more thing to work loose (judgement, no source).
const EACH_PART: f64 = 30.0;
/// What a part counts that cannot be set to what comes: it fits the model, the car may be half a degree off (judgement).
const NOT_SET: f64 = 40.0;
/// What a part counts that is for something else and only happens to do this (judgement).
const OFF_PURPOSE: f64 = 250.0;

/// What a plan needs: the angles that nothing as built brings in, and height where it changes.
pub(crate) fn needed(input: &PlanInput, set: &[SolvedSetting; 2]) -> Vec<Purpose> {
    let short = set.each_ref().map(|s| s.shortfall.readable());
    let any = |f: fn(&super::judge::Shortfall) -> f64| short.iter().any(|s| f(s) > 0.0);
    let mut out = Vec::new();
    if any(|s| s.camber_deg) {
        out.push(Purpose::Camber);
    }
    if any(|s| s.caster_deg) {
        out.push(Purpose::Caster);
    }
    if any(|s| s.toe_deg) {
        out.push(Purpose::Toe);
    }
    if input.own().height_change_mm != 0.0 {
        out.push(Purpose::Height);
    }
    out
}

/// What a set counts beside its price and labour; less is fitted first.
pub(crate) fn extra<'p>(parts: impl Iterator<Item = &'p Part>, needed: &[Purpose]) -> f64 {
    parts
        .map(|p| {
            // What gives the car's own cams room is set by them.
            let by_cams = |e: &Edit| matches!(e, Edit::ReplaceEccentric { .. } | Edit::FreeEccentrics { .. });
            let set = !p.adjusters.is_empty() || p.edits.iter().any(by_cams);
            let fixed = if set { 0.0 } else { NOT_SET };
            let off = !p.purposes.is_empty() && !p.purposes.iter().any(|x| needed.contains(x));
            EACH_PART + fixed + if off { OFF_PURPOSE } else { 0.0 }
        })
        .sum()
}

/// Whether the car has the place a part goes to; what nobody looked at may have it.
pub(crate) fn has_place(p: &Part, input: &PlanInput) -> bool {
    match p.fits.place {
        None => true,
        Some(BuiltWith::UpperShaft) => input.upper_shaft.unwrap_or_else(|| {
            // Shims behind it or slots in its seat are themselves a cross shaft; cams there are its opposite.
            let upper =
                |p: &EccentricPoint| matches!(p, EccentricPoint::UpperFront | EccentricPoint::UpperRear);
            let cams = input.adjusters.each().iter().any(|(_, l)| {
                l.iter().any(|a| matches!(&a.kind, AdjusterKind::Eccentric { point, .. } if upper(point)))
            });
            !cams
        }),
    }
}
