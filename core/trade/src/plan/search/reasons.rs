//! Why a found plan, in plain sentences, and what to say when none reaches.

use super::SetPlan;
use crate::plan::quick::Quick;
use crate::plan::reach::Plane;
use crate::plan::stop::Stop;
use crate::plan::words::state_named;
use crate::plan::work::Work;
use bold_stance_units::said::{Said, said};

/// What the plan gains and what it costs.
pub(crate) fn of(work: &Work<'_>, p: &SetPlan, base: Option<&Quick>) -> Vec<Said> {
    let mut out = Vec::new();
    if let Some(b) = base {
        let was = |k: usize| b.sides.iter().map(|s| s.out[k]).fold(0.0, f64::max);
        let now = misses(p);
        let won: Vec<Said> = now
            .iter()
            .enumerate()
            .filter(|(k, n)| was(*k) - n.1 > 0.04)
            .map(|(k, n)| said("of-angle").miss_deg("by", was(k) - n.1).word("angle", n.0))
            .collect();
        if !won.is_empty() {
            out.push(said("reason-recovers").list("each", won));
        }
    }
    if p.parts.is_empty() {
        out.push(said("reason-as-built"));
    }
    let mut costs = Vec::new();
    let more = |v: f64| if v > 0.0 { "more" } else { "less" };
    if p.wheel_x_mm.abs() >= 2.0 {
        let way = if p.wheel_x_mm > 0.0 { "forward" } else { "back" };
        costs.push(said("cost-wheel").mm("by", p.wheel_x_mm.abs()).word("way", way));
    }
    if work.plane == Plane::CamberCaster {
        if p.sai_change_deg.abs() >= 0.5 {
            costs.push(
                said("cost-lean").miss_deg("by", p.sai_change_deg.abs()).word("way", more(p.sai_change_deg)),
            );
        }
        if p.scrub_change_mm.abs() >= 5.0 {
            costs.push(
                said("cost-scrub").mm("by", p.scrub_change_mm.abs()).word("way", more(p.scrub_change_mm)),
            );
        }
    }
    if p.bump_toe_deg >= 0.35 {
        costs.push(said("cost-bump").miss_deg("by", p.bump_toe_deg).mm("over", 30.0));
    }
    if !costs.is_empty() {
        out.push(said("reason-costs").list("each", costs));
    }
    if let Some((name, off)) = p.elsewhere.iter().max_by(|a, b| a.1.total_cmp(&b.1))
        && *off > 0.04
    {
        out.push(said("reason-elsewhere").say("state", state_named(name)).miss_deg("by", *off));
    }
    if !p.reached {
        let (name, by) = misses(p).into_iter().fold(("", 0.0), |a, b| if b.1 > a.1 { b } else { a });
        if by > 0.0 {
            out.push(said("reason-short").miss_deg("by", by).word("angle", name));
        } else {
            out.push(said("reason-apart"));
        }
    }
    out
}

/// The larger miss of both sides, of each angle.
fn misses(p: &SetPlan) -> [(&'static str, f64); 3] {
    let (l, r) = (&p.left.shortfall, &p.right.shortfall);
    [
        ("camber", l.camber_deg.max(r.camber_deg)),
        ("caster", l.caster_deg.max(r.caster_deg)),
        ("toe", l.toe_deg.max(r.toe_deg)),
    ]
}

fn named(p: &SetPlan) -> Said {
    if p.parts.is_empty() {
        return said("car-as-built");
    }
    let names: Vec<Said> = p.parts.iter().map(|x| said("part-named").name("name", x.name.clone())).collect();
    match names.as_slice() {
        [a, b, rest @ ..] if rest.len() > 1 => {
            said("parts-and-more").say("first", a.clone()).say("second", b.clone()).count("n", rest.len())
        }
        all => all[1..].iter().fold(all[0].clone(), |so_far, next| {
            said("parts-with").say("first", so_far).say("second", next.clone())
        }),
    }
}

/// Headline and sentence of a search.
pub(crate) fn verdict(plans: &[SetPlan], stop: Option<&Stop>) -> (Said, Said) {
    if let Some(s) = stop {
        let sentence = said("searched-at").say("stop", s.words.clone()).change_mm("used", s.used_mm);
        return (said("verdict-stop"), sentence);
    }
    let clean = plans.iter().filter(|p| p.reached && p.fouls.is_empty()).count();
    let Some(first) = plans.first() else {
        return (said("search-nothing-left"), said("search-loosen"));
    };
    if clean > 0 {
        return (said("search-lands").count("n", clean), said("search-first").say("set", named(first)));
    }
    if first.reached {
        let foul = first.fouls.first().cloned().unwrap_or_else(|| Said::text(""));
        return (
            said("search-fouls"),
            said("search-nearest-fouls").say("set", named(first)).say("foul", foul),
        );
    }
    (said("search-none").miss_deg("by", first.short_deg), said("search-nearest").say("set", named(first)))
}

/// How plans that land on the same angles differ at full lock (an axis that leans more stands the leading wheel up).
pub(crate) fn ways_differ(plans: &[SetPlan]) -> Vec<Said> {
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
            out.push(
                said("ways-differ")
                    .change_deg("outer", lu.outer_deg, 1)
                    .say("set", named(up))
                    .change_deg("other-outer", lf.outer_deg, 1)
                    .say("other", named(flat))
                    .deg("lean", up.left.angles.sai_deg, 1)
                    .deg("other-lean", flat.left.angles.sai_deg, 1),
            );
        }
    }
    out.truncate(3);
    out
}
