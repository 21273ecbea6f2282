//! The sets that are set exactly: chosen, set, worn, doubted, ranked and named for what they are best at.

use super::super::tread::driven;
use super::pool::{Pool, Set};
use super::{SetPart, SetPlan, SetSide};
use crate::part::{Part, Purpose};
use crate::plan::READABLE_DEG;
use crate::plan::answer::toe_swing;
use crate::plan::quick::Quick;
use crate::plan::reach::LockTurn;
use crate::plan::states::{StateSide, states};
use crate::plan::suits::extra;
use crate::plan::work::{Work, misfits, provided};
use bold_stance_car::fit::Doubt;
use bold_stance_car::vehicle::StateKind;
use bold_stance_kinematics::linkage::Linkage;
use bold_stance_kinematics::wheel::Alignment;
use bold_stance_tread::{Band, CarTyres, axle_band, axle_life};
use bold_stance_units::said::{Said, said};

/// A set and how it was judged.
pub(super) type Posed = (Set, Quick);

/// The sets nobody beats on everything at once, nearest first, and every single part that reaches: another way to
/// the same angles is a choice even when it costs more (of each part the size that moves the axis least). The second
/// list is what was left, in the same order.
pub(super) fn front(mut posed: Vec<(Set, Quick)>, most: usize, pool: &Pool<'_>) -> (Vec<Posed>, Vec<Posed>) {
    let figures = |(s, q): &(Set, Quick)| {
        [(q.short() / 0.02).round(), s.money, (s.bump / 0.02).round(), (s.axis / 0.25).round()]
    };
    posed.sort_by(|a, b| {
        let (x, y) = (figures(a), figures(b));
        x[0].total_cmp(&y[0]).then(x[1].total_cmp(&y[1])).then(a.0.parts.cmp(&b.0.parts))
    });
    let mut out: Vec<(Set, Quick)> = Vec::new();
    let mut families: Vec<&str> = Vec::new();
    let mut singles: Vec<usize> =
        (0..posed.len()).filter(|i| posed[*i].0.parts.count == 1 && figures(&posed[*i])[0] < 1.5).collect();
    singles.sort_by(|a, b| posed[*a].0.axis.total_cmp(&posed[*b].0.axis));
    singles.retain(|i| {
        let family = pool.of(&posed[*i].0.parts).first().map_or("", |p| p.family());
        let new = !families.contains(&family);
        families.push(family);
        new
    });
    let mut rest: Vec<(Set, Quick)> = Vec::new();
    for (i, p) in posed.into_iter().enumerate() {
        let mine = figures(&p);
        let beaten = out.iter().any(|o| figures(o).iter().zip(&mine).all(|(a, b)| a <= b));
        if singles.contains(&i) || p.0.parts.count == 0 || (!beaten && out.len() < most) {
            out.push(p);
        } else {
            rest.push(p);
        }
    }
    (out, rest)
}

/// Sets the parts exactly.
pub(super) fn set_plan(
    work: &Work<'_>,
    parts: &[&Part],
    needs: &[Purpose],
    tyres: Option<&CarTyres>,
    turn: Option<&LockTurn>,
) -> Option<SetPlan> {
    let (benches, set) = work.settings(parts, false)?;
    let side = |i: usize| SetSide {
        angles: set[i].angles,
        shortfall: set[i].shortfall.readable(),
        doubt: Doubt::default(),
        setting: benches[i].lines(&set[i].positions),
        positions: set[i].positions.clone(),
        lock: turn.and_then(|t| benches[i].at_lock(&set[i].positions, t)),
    };
    let mut fouls: Vec<Said> = Vec::new();
    for c in (0..2).flat_map(|i| work.checks(i, parts, &set[i].positions)).filter(|c| !c.ok) {
        if !fouls.contains(&c.words) {
            fouls.push(c.words);
        }
    }
    let has = provided(work.input, benches[0].toe_by.is_some());
    fouls.extend(misfits(parts, work.input, &has));
    let short_deg = set.iter().map(|s| s.shortfall.readable().worst()).fold(0.0, f64::max);
    let mean = |f: &dyn Fn(&Alignment) -> f64| {
        let was = |i: usize| {
            work.sides[i].found.wheel(work.sides[i].travel, 0.0).ok().map(|w| f(&w.or_unsteered()))
        };
        let now = 0.5 * (f(&set[0].angles) + f(&set[1].angles));
        now - 0.5 * (was(0).unwrap_or(now) + was(1).unwrap_or(now))
    };
    let positions = [set[0].positions.clone(), set[1].positions.clone()];
    let heights = states(work, parts, &positions);
    let life = tyres.and_then(|t| {
        let scene = driven(&heights, &t.heights, &set[0].angles, &set[1].angles);
        let km = axle_life(t, work.input.geometry.axle, &scene)?;
        Some(Band { low: km, median: km, high: km })
    });
    let elsewhere = heights
        .into_iter()
        .filter(|s| !s.judged && s.kind != StateKind::Arrived)
        .map(|s| {
            let off = |x: &Option<StateSide>| {
                x.as_ref().map_or(0.0, |x| x.verdicts.iter().map(|v| v.off_deg.abs()).fold(0.0, f64::max))
            };
            (s.name, off(&s.left).max(off(&s.right)))
        })
        .collect();
    Some(SetPlan {
        parts: parts.iter().map(|p| SetPart { id: p.id.clone(), name: p.name.clone() }).collect(),
        cost: parts.iter().map(|p| p.cost).fold(0.0, |a, b| a + b),
        labour_minutes: parts.iter().map(|p| p.labour_minutes).sum(),
        reached: short_deg < 1e-6 && work.cross_ok(&set[0].angles, &set[1].angles),
        short_deg,
        left: side(0),
        right: side(1),
        bump_toe_deg: 0.5 * (0..2).map(|i| toe_swing(&benches[i], &set[i].positions)).sum::<f64>(),
        sai_change_deg: mean(&|a| a.sai_deg),
        scrub_change_mm: mean(&|a| a.scrub_radius_mm),
        wheel_x_mm: mean(&|a| a.wheel_x_mm),
        elsewhere,
        life_km: life,
        fouls,
        best_at: Vec::new(),
        reasons: Vec::new(),
        extra: extra(parts.iter().copied(), needs),
    })
}

/// What reaches and fouls nothing first, then what reaches, then by what is left; among equals less money, fewer parts.
/// Misses that a shop cannot tell apart are equal: money and work decide between them.
pub(super) fn order(p: &SetPlan, rate: f64) -> f64 {
    let money = p.cost + rate * f64::from(p.labour_minutes) / 60.0;
    let foul = p.fouls.len() as f64;
    let short = if p.reached { 0.0 } else { 0.2 + READABLE_DEG * (p.short_deg / READABLE_DEG).round() };
    1e6 * short + 3e5 * foul.min(3.0) + money + p.extra + 40.0 * p.bump_toe_deg
}

/// Whether a set has a part in it that adds nothing: with fewer of its own parts the car is set as well, and what the rest
/// would better is less than anybody can measure or notice (judgement, no source).
fn adds_nothing(p: &SetPlan, plans: &[SetPlan]) -> bool {
    let life = |p: &SetPlan| p.life_km.as_ref().map_or(0.0, |l| l.median);
    plans.iter().any(|q| {
        let fewer =
            q.parts.len() < p.parts.len() && q.parts.iter().all(|x| p.parts.iter().any(|y| x.id == y.id));
        fewer
            && (q.reached || !p.reached && q.short_deg < p.short_deg + READABLE_DEG)
            && q.fouls.len() <= p.fouls.len()
            && q.bump_toe_deg - p.bump_toe_deg < READABLE_DEG
            && q.scrub_change_mm.abs() - p.scrub_change_mm.abs() < 5.0
            && q.sai_change_deg.abs() - p.sai_change_deg.abs() < 0.5
            && q.wheel_x_mm.abs() - p.wheel_x_mm.abs() < 5.0
            && life(p) - life(q) <= 0.03 * life(q)
    })
}

/// Whether two sets are the same parts in other sizes.
fn same_families(p: &SetPlan, q: &SetPlan) -> bool {
    let of = |p: &SetPlan| -> Vec<String> {
        let mut ids: Vec<String> =
            p.parts.iter().map(|x| x.id.split('@').next().unwrap_or(&x.id).to_owned()).collect();
        ids.sort();
        ids
    };
    !p.parts.is_empty() && of(p) == of(q)
}

/// Drops sets with a part that adds nothing and plans that another beats in everything, and orders the rest.
pub(super) fn ranked(mut plans: Vec<SetPlan>, rate: f64) -> Vec<SetPlan> {
    let idle: Vec<bool> = plans.iter().map(|p| adds_nothing(p, &plans)).collect();
    let mut idle = idle.into_iter();
    plans.retain(|_| !idle.next().unwrap_or(false));
    plans.sort_by(|a, b| order(a, rate).total_cmp(&order(b, rate)));
    let figures = |p: &SetPlan| {
        let life = p.life_km.as_ref().map_or(0.0, |l| l.median);
        [
            if p.reached { 0.0 } else { (p.short_deg / 0.05).ceil() },
            p.fouls.len() as f64,
            p.cost,
            f64::from(p.labour_minutes),
            (p.bump_toe_deg / 0.02).round(),
            (p.scrub_change_mm.abs() / 5.0).round() + (p.sai_change_deg.abs() / 0.5).round(),
            (p.wheel_x_mm.abs() / 5.0).round(),
            -(life / 1000.0).round(),
        ]
    };
    let mut out: Vec<SetPlan> = Vec::new();
    for p in plans {
        let mine = figures(&p);
        let beaten = out.iter().any(|o| figures(o).iter().zip(&mine).all(|(a, b)| a <= b));
        let single = p.parts.len() == 1 && p.reached;
        // Of the sizes of a set the best is enough.
        let sized = p.reached && out.iter().any(|o| o.reached && same_families(o, &p));
        if !sized && (single || !beaten) {
            out.push(p);
        }
    }
    // Enough ways reach: what does not is left out, but the car as built stays to be compared with.
    if out.iter().filter(|p| p.reached && p.fouls.is_empty()).count() >= 3 {
        out.retain(|p| p.reached || p.parts.is_empty());
    }
    out
}

/// Bands of the angles and of the tyre's distance.
pub(super) fn with_bands(work: &Work<'_>, p: &SetPlan, pool: &[Part], tyres: Option<&CarTyres>) -> SetPlan {
    let mut out = p.clone();
    let parts: Vec<&Part> = p.parts.iter().filter_map(|n| pool.iter().find(|q| q.id == n.id)).collect();
    for i in 0..2 {
        let bench = work.bench(i, &parts);
        let set = if i == 0 { &p.left.positions } else { &p.right.positions };
        let d = work.doubt_set(i, &bench, set, &parts).unwrap_or_default();
        if i == 0 { out.left.doubt = d } else { out.right.doubt = d }
    }
    out.life_km = tyres.and_then(|t| {
        let positions = [p.left.positions.clone(), p.right.positions.clone()];
        let heights = states(work, &parts, &positions);
        let scene = driven(&heights, &t.heights, &p.left.angles, &p.right.angles);
        axle_band(t, work.input.geometry.axle, &scene)
    });
    out
}

pub(super) fn name_the_best(plans: &mut [SetPlan]) {
    let good: Vec<usize> =
        (0..plans.len()).filter(|i| plans[*i].reached && plans[*i].fouls.is_empty()).collect();
    if good.len() < 2 {
        return;
    }
    let least = |f: &dyn Fn(&SetPlan) -> f64| {
        let best = good.iter().copied().min_by(|a, b| f(&plans[*a]).total_cmp(&f(&plans[*b])))?;
        let alone = good.iter().all(|i| *i == best || f(&plans[*i]) > f(&plans[best]) + 1e-9);
        alone.then_some(best)
    };
    let titles: [(&'static str, Option<usize>); 6] = [
        ("best-money", least(&|p| p.cost)),
        ("best-labour", least(&|p| f64::from(p.labour_minutes))),
        ("best-bump", least(&|p| (p.bump_toe_deg / 0.01).round())),
        ("best-axis", least(&|p| p.sai_change_deg.abs() + p.scrub_change_mm.abs() / 10.0)),
        ("best-central", least(&|p| p.wheel_x_mm.abs())),
        ("best-life", least(&|p| -p.life_km.as_ref().map_or(0.0, |l| (l.median / 200.0).round()))),
    ];
    for (title, at) in titles {
        if let Some(i) = at {
            plans[i].best_at.push(said(title));
        }
    }
}
