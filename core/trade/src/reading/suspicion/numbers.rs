//! Numbers that do not fit: each other, the unit, the sign, the model.

use super::super::entries::parse_entries;
use super::super::method::{EntryKind, Method};
use super::super::quantity::{Place, Quantity, Unit};
use super::super::scene::{Scene, Seen};
use super::{Found, Rule, is_angle, standing};
use bold_stance_kinematics::geometry::Side;
use bold_stance_units::LengthUnit;
use bold_stance_units::Sigma;
use bold_stance_units::said::{Measure, Said, said};

/// The newest reading of the visit by every other method of the same thing.
pub(super) fn by_other_methods<'a>(s: &Scene<'a>, r: &Seen) -> Vec<&'a Seen> {
    let mut out: Vec<&'a Seen> = Vec::new();
    for o in s.readings.iter().rev() {
        let same = o.visit == r.visit && o.quantity == r.quantity && o.place == r.place;
        if same && o.method != r.method && !out.iter().any(|x| x.method == o.method) {
            out.push(o);
        }
    }
    out
}

pub(super) fn methods_disagree(f: &mut Found<'_, '_>) {
    let s = f.scene;
    // Both stood on the same floor under the same car, so what the prepare list adds is in neither's difference.
    let own = |x: &Seen| if is_angle(x.quantity) { x.sigma.min(0.2) } else { x.sigma.min(3.0) };
    for r in standing(s) {
        let least = if is_angle(r.quantity) { 0.15 } else { 3.0 };
        let worst = by_other_methods(s, r)
            .into_iter()
            .filter(|o| s.changed_after(o).is_none())
            .map(|o| (o, (r.value - o.value).abs()))
            .filter(|(o, apart)| *apart > (2.5 * own(r).hypot(own(o))).max(least))
            .max_by(|a, b| a.1.total_cmp(&b.1));
        let Some((o, apart)) = worst else { continue };
        let title = |m: Method| {
            f.methods.iter().find(|x| x.id == m).map_or_else(String::new, |x| x.title.to_lowercase())
        };
        let says = said("odd-methods").name("one", title(r.method)).name("other", title(o.method));
        let says = match r.quantity.unit() {
            Unit::Deg => says.deg("apart", apart, 2),
            Unit::Mm => says.mm("apart", apart),
            Unit::Kpa => says.of("apart", Measure::Kpa, apart, 0),
        };
        f.at(r, says, said("odd-methods-why"), said("odd-methods-settle"));
    }
}

pub(super) fn repeats(rule: Rule, f: &mut Found<'_, '_>) {
    for r in standing(f.scene) {
        let Some(m) = f.methods.iter().find(|m| m.id == r.method) else { continue };
        let Ok((_, _, all)) = parse_entries(m, &r.raw, r.unit) else { continue };
        for x in all {
            let base = x.name.split('@').next().unwrap_or_default();
            let Some(e) = m.entries.iter().find(|e| e.name == base) else { continue };
            let about = |s: Said, by: f64| {
                let s = s.name("entry", e.label.to_lowercase());
                match e.kind {
                    EntryKind::Length => s.fine_mm("by", by),
                    EntryKind::Angle => s.deg("by", by, 1),
                    EntryKind::Pressure => s.of("by", Measure::Kpa, by, 1),
                    EntryKind::Toe | EntryKind::Nominal | EntryKind::Choice => s.plain("by", by, 1),
                }
            };
            if rule == Rule::OddOne
                && let Some(i) = x.odd
            {
                f.at(
                    r,
                    about(said("odd-one").count("n", x.values.len()), x.odd_by.abs()),
                    said("odd-one-why"),
                    said("odd-one-settle").count("number", i + 1),
                );
            }
            if rule == Rule::RepeatSpread && x.odd.is_none() && e.sigma > 0.0 && x.spread > 5.0 * e.sigma {
                f.at(
                    r,
                    about(said("odd-repeats"), x.spread),
                    said("odd-repeats-why"),
                    said("odd-repeats-settle"),
                );
            }
        }
    }
}

/// Whether an angle was typed as a bare number.
pub(super) fn bare(text: &str) -> bool {
    !text.is_empty() && text.chars().all(|c| c.is_ascii_digit() || "+-−., ".contains(c))
}

pub(super) fn model(rule: Rule, f: &mut Found<'_, '_>) {
    let s = f.scene;
    for r in standing(s) {
        if rule == Rule::UnitInch {
            unit_inch(f, r);
            continue;
        }
        let Some((axle, side)) = r.place.as_wheel() else { continue };
        if !matches!(r.quantity, Quantity::Camber | Quantity::Caster | Quantity::Toe) {
            continue;
        }
        let Some(e) = s.expected(r.quantity, axle, side) else { continue };
        let tol = r.sigma.hypot(e.sigma);
        let off = (r.value - e.value).abs();
        let minutes = r.raw.iter().filter(|x| !x.dropped).any(|x| bare(&x.text))
            && r.value.abs() >= 4.0
            && r.quantity != Quantity::Caster
            && (r.value / 60.0 - e.value).abs() < off / 2.0
            && off > 2.0 * tol;
        let other = Place::wheel(axle, if side == Side::Left { Side::Right } else { Side::Left });
        let mirrored = s
            .standing(s.visit, r.quantity, other)
            .is_some_and(|o| (o.value + r.value).abs() < 0.3 && (o.value - r.value).abs() > 1.2);
        let flipped = !minutes
            && r.value.abs() > 0.5
            && ((off > 3.0 * tol && (r.value + e.value).abs() < 1.5 * tol)
                || (mirrored && (r.value + e.value).abs() < off));
        match rule {
            Rule::UnitMinutes if minutes => f.at(
                r,
                said("odd-minutes").deg("read", r.value, 1).word("quantity", r.quantity.word()),
                said("odd-minutes-why").plain("minutes", r.value.abs(), 0).deg("expected", e.value, 1),
                said("odd-minutes-settle"),
            ),
            Rule::SignFlipped if flipped => f.at(
                r,
                said("odd-sign"),
                said("odd-sign-why").deg("expected", e.value, 1),
                said("odd-sign-settle"),
            ),
            Rule::FarFromModel if off > 3.0 * tol && !flipped && !minutes => f.at(
                r,
                said("odd-far").deg("by", off, 1),
                said("odd-far-why")
                    .deg("expected", e.value, 1)
                    .deg("half", Sigma(e.sigma).half_width().0, 1)
                    .say("from", if e.anchored { said("odd-far-anchored") } else { said("odd-far-blind") }),
                said("odd-far-settle"),
            ),
            _ => {}
        }
    }
}

pub(super) fn unit_inch(f: &mut Found<'_, '_>, r: &Seen) {
    let Some(m) = f.methods.iter().find(|m| m.id == r.method) else { return };
    let odd = r.raw.iter().filter(|x| !x.dropped).find(|x| {
        let base = x.name.split('@').next().unwrap_or_default();
        let length = m.entries.iter().any(|e| e.name == base && e.kind == EntryKind::Length);
        let decimals = x.text.trim().split_once(['.', ',']).map_or(0, |(_, d)| d.len());
        length && r.unit == LengthUnit::Mm && bare(&x.text) && decimals >= 3
    });
    if let Some(x) = odd {
        f.at(
            r,
            said("odd-inches").name("typed", x.text.trim()),
            said("odd-inches-why"),
            said("odd-inches-settle"),
        );
    }
}
