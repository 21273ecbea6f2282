//! Why a found plan, in plain sentences, and what to say when none reaches.

use super::SetPlan;
use crate::plan::quick::Quick;
use crate::plan::reach::Plane;
use crate::plan::work::{Stop, Work};

fn degrees(v: f64) -> String {
    let v = if v.abs() < 0.095 { (v * 100.0).round() / 100.0 } else { (v * 10.0).round() / 10.0 };
    format!("{v}°")
}

/// What the plan gains and what it costs.
pub(crate) fn of(work: &Work<'_>, p: &SetPlan, base: Option<&Quick>) -> Vec<String> {
    let mut out = Vec::new();
    if let Some(b) = base {
        let was = |k: usize| b.sides.iter().map(|s| s.out[k]).fold(0.0, f64::max);
        let now = [
            p.left.shortfall.camber_deg.max(p.right.shortfall.camber_deg),
            p.left.shortfall.caster_deg.max(p.right.shortfall.caster_deg),
            p.left.shortfall.toe_deg.max(p.right.shortfall.toe_deg),
        ];
        let said: Vec<String> = ["camber", "caster", "toe"]
            .iter()
            .enumerate()
            .filter(|(k, _)| was(*k) - now[*k] > 0.04)
            .map(|(k, name)| format!("{} of {name}", degrees(was(k) - now[k])))
            .collect();
        if !said.is_empty() {
            out.push(format!("Recovers {}.", said.join(" and ")));
        }
    }
    if p.parts.is_empty() {
        out.push("As built: nothing to buy.".into());
    }
    let mut costs = Vec::new();
    if p.wheel_x_mm.abs() >= 2.0 {
        let way = if p.wheel_x_mm > 0.0 { "forward" } else { "back" };
        costs.push(format!("the wheel {:.0} mm {way} in the arch", p.wheel_x_mm.abs()));
    }
    if work.plane == Plane::CamberCaster {
        if p.sai_change_deg.abs() >= 0.5 {
            let way = if p.sai_change_deg > 0.0 { "more" } else { "less" };
            costs.push(format!("{} {way} axis lean", degrees(p.sai_change_deg.abs())));
        }
        if p.scrub_change_mm.abs() >= 5.0 {
            let way = if p.scrub_change_mm > 0.0 { "more" } else { "less" };
            costs.push(format!("{:.0} mm {way} scrub", p.scrub_change_mm.abs()));
        }
    }
    if p.bump_toe_deg >= 0.35 {
        costs.push(format!("{} of toe swing over ±30 mm", degrees(p.bump_toe_deg)));
    }
    if !costs.is_empty() {
        out.push(format!("Costs: {}.", costs.join(", ")));
    }
    if let Some((name, off)) = p.elsewhere.iter().max_by(|a, b| a.1.total_cmp(&b.1))
        && *off > 0.04
    {
        out.push(format!("{} it is {} outside.", capital(name), degrees(*off)));
    }
    if !p.reached {
        let worst = [
            ("camber", p.left.shortfall.camber_deg.max(p.right.shortfall.camber_deg)),
            ("caster", p.left.shortfall.caster_deg.max(p.right.shortfall.caster_deg)),
            ("toe", p.left.shortfall.toe_deg.max(p.right.shortfall.toe_deg)),
        ];
        let (name, by) = worst.into_iter().fold(("", 0.0), |a, b| if b.1 > a.1 { b } else { a });
        if by > 0.0 {
            out.push(format!("Stays {} short of {name}.", degrees(by)));
        } else {
            out.push("Sides stay too far apart.".into());
        }
    }
    out
}

fn capital(t: &str) -> String {
    let mut c = t.chars();
    c.next().map_or_else(String::new, |f| f.to_uppercase().chain(c).collect())
}

fn named(p: &SetPlan) -> String {
    if p.parts.is_empty() {
        return "the car as built".into();
    }
    let names: Vec<String> = p.parts.iter().map(|x| x.name.to_lowercase()).collect();
    match names.as_slice() {
        [a, b, rest @ ..] if rest.len() > 1 => format!("{a} with {b} and {} more", rest.len()),
        all => all.join(" with "),
    }
}

/// Headline and sentence of a search.
pub(crate) fn verdict(plans: &[SetPlan], stop: Option<&Stop>) -> (String, String) {
    if let Some(s) = stop {
        let sentence = format!("{} Searched at {:+.0} mm.", s.words, s.used_mm);
        return ("Height runs out of travel".into(), sentence);
    }
    let clean = plans.iter().filter(|p| p.reached && p.fouls.is_empty()).count();
    let Some(first) = plans.first() else {
        return (
            "Nothing left to choose from".into(),
            "Loosen a filter, or measure a part of your own.".into(),
        );
    };
    if clean > 0 {
        let ways = if clean == 1 { "One way lands".to_owned() } else { format!("{clean} ways land") };
        return (format!("{ways} both sides on aim"), format!("First: {}.", named(first)));
    }
    if first.reached {
        let foul = first.fouls.first().cloned().unwrap_or_default();
        return (
            "What reaches fouls something".into(),
            format!("Nearest: {}: {foul}.", capital(&named(first))),
        );
    }
    let short = degrees(first.short_deg);
    (
        format!("Nothing in the catalogue reaches it: short by {short}"),
        format!("The nearest is {}.", named(first)),
    )
}

/// How plans that land on the same angles differ at full lock (an axis that leans more stands the leading wheel up).
pub(crate) fn ways_differ(plans: &[SetPlan]) -> Vec<String> {
    let good: Vec<&SetPlan> = plans.iter().filter(|p| p.reached && p.left.lock.is_some()).collect();
    let mut out = Vec::new();
    for (i, a) in good.iter().enumerate() {
        for b in &good[i + 1..] {
            let (Some(la), Some(lb)) = (a.left.lock, b.left.lock) else { continue };
            let gap = la.outer_deg - lb.outer_deg;
            if gap.abs() < 0.5 {
                continue;
            }
            let (up, flat, lu, lf) = if gap > 0.0 { (a, b, la, lb) } else { (b, a, lb, la) };
            out.push(format!(
                "At full lock the outside wheel stands at {:+.1}° with {} and {:+.1}° with {}: axis lean {:.1}° against {:.1}°.",
                lu.outer_deg,
                named(up),
                lf.outer_deg,
                named(flat),
                up.left.angles.sai_deg,
                flat.left.angles.sai_deg,
            ));
        }
    }
    out.truncate(3);
    out
}
