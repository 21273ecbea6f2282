//! No false "nothing": aims that a set of parts is known to reach, because they were made from one, over every layout
//! and kind of adjuster. The aim comes from poses at drawn positions, so the solver has no say in what is reachable.

use super::{Filters, search};
use crate::aim::{Aim, shipped_aims};
use crate::part::{Part, PartGroup, parts_for, shipped_parts};
use crate::plan::locates_only;
use crate::plan::work::{Work, misfits, provided};
use crate::plan::{Budget, PlanInput, SideReadings, Unread};
use bold_stance_car::adjuster::{Adjuster, AdjusterKind, default_adjusters};
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::fit::Sigmas;
use bold_stance_car::vehicle::Measured;
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use rand::Rng;
use rand::SeedableRng;
use rand::seq::IndexedRandom;
use rand_pcg::Pcg64Mcg;
use rayon::prelude::*;

const CASES: u64 = 200;

fn own_adjusters(g: &Geometry) -> Vec<Adjuster> {
    let mut list = default_adjusters(3.2);
    if !matches!(g.points, bold_stance_kinematics::geometry::Points::DoubleWishbone(_)) {
        list.drain(..2);
    }
    list.retain(|a| {
        bold_stance_car::adjuster::adjusters_not_there(std::slice::from_ref(a), &g.points).is_empty()
    });
    if g.axle == Axle::Rear { Vec::new() } else { list }
}

/// Readings about the shape's own angles, two sides a little apart.
fn input(g: &Geometry, rng: &mut Pcg64Mcg) -> PlanInput {
    let design = Corner::of(g, Side::Left).wheel(0.0, 0.0).unwrap().or_unsteered();
    let common = [rng.random_range(-0.5..0.5), rng.random_range(-0.7..0.7), rng.random_range(-0.1..0.1)];
    let mut read = || SideReadings {
        height_mm: 500.0,
        angles: Measured {
            camber_deg: design.camber_deg + common[0] + rng.random_range(-0.15..0.15),
            caster_deg: design.caster_deg + common[1] + rng.random_range(-0.2..0.2),
            toe_deg: design.toe_deg + common[2],
        },
        sigma: Sigmas::default(),
        unread: Unread::default(),
    };
    let sides = [read(), read()];
    let aim = shipped_aims().unwrap().remove(0);
    PlanInput::unchanged(g.clone(), 2900.0, 500.0, own_adjusters(g), sides, aim)
        .lifted(f64::from(rng.random_range(-4..=5)) * 10.0)
}

/// A position it can be turned to in whole steps.
fn drawn(a: &Adjuster, rng: &mut Pcg64Mcg) -> f64 {
    let [low, high] = a.range();
    match a.step() {
        _ if a.locked => a.position,
        Some(s) => {
            let (first, last) = ((low / s - 1e-9).ceil() as i64, (high / s + 1e-9).floor() as i64);
            rng.random_range(first..=last) as f64 * s
        }
        None => rng.random_range(low..=high),
    }
}

/// A small catalogue, a set of it, and an aim made from a setting of the set; `None` when the draw is no case.
fn case(g: &Geometry, all: &[Part], seed: u64) -> Option<(PlanInput, Vec<Part>, Vec<String>)> {
    let mut rng = Pcg64Mcg::seed_from_u64(seed);
    let mut i = input(g, &mut rng);
    let mut families: Vec<&Part> =
        all.iter().filter(|p| p.group != PartGroup::Wheel && p.fits.axles.contains(&g.axle)).collect();
    families.retain(|p| p.fits.layouts.contains(&g.layout()));
    let catalogue: Vec<Part> = families
        .choose_multiple(&mut rng, 4)
        .map(|p| {
            let mut p = (*p).clone();
            if let Some(s) = &mut p.sizes {
                let at = rng.random_range(0..s.values.len());
                s.values = vec![s.values[at]];
            }
            p
        })
        .collect();
    let parts = parts_for(&catalogue, g);
    let set: Vec<&Part> = parts.iter().filter(|_| rng.random_range(0..2) == 0).collect();
    let work = Work::new(&i, Budget::default()).ok()?;
    let benches = [0, 1].map(|s| work.bench(s, &set));
    if !misfits(&set, &i, &provided(&i, work.bench(0, &[]).toe_by.is_some())).is_empty() {
        return None;
    }
    let live = matches!(benches[0].corner, Corner::Axle(_));
    let mut at = [benches[0].start(), benches[1].start()];
    for (k, a) in benches[0].adjusters.iter().enumerate() {
        if locates_only(a) {
            continue;
        }
        let p = drawn(a, &mut rng);
        at[0][k] = p;
        // The right side a step or none off; one arm is one for both wheels of a live axle.
        at[1][k] = if live && a.is_shared_on_axle() || a.is_tie_rod() || rng.random_range(0..2) == 0 {
            p
        } else if matches!(a.kind, AdjusterKind::Sleeve { .. }) {
            drawn(a, &mut rng)
        } else {
            let [low, high] = a.range();
            (p + a.step().unwrap_or(0.1) * f64::from(rng.random_range(-1..=1))).clamp(low, high)
        };
    }
    let angles: Vec<_> = (0..2).filter_map(|s| benches[s].angles(&at[s]).ok()).collect();
    let [l, r] = angles.as_slice() else { return None };
    let mut toes = [l.toe_deg, r.toe_deg];
    if live {
        toes = [0.5 * (toes[0] + toes[1]); 2];
    }
    // A window that holds both sides, and not far apart.
    let window = |a: f64, b: f64, margin: f64| [a.min(b) - margin, a.max(b) + margin];
    let near = (l.camber_deg - r.camber_deg).abs() < 0.6 && (l.caster_deg - r.caster_deg).abs() < 0.9;
    let usual = l.camber_deg.abs() < 6.0 && toes[0].abs() < 2.5 && (-8.0..18.0).contains(&l.caster_deg);
    if !near || !usual {
        return None;
    }
    let toe = window(toes[0], toes[1], 0.06).map(|v| 2.0 * v);
    let camber = window(l.camber_deg, r.camber_deg, 0.1);
    i.aim = Aim {
        camber_deg: camber,
        caster_deg: window(l.caster_deg, r.caster_deg, 0.2),
        toe_total_deg: toe,
        rear_camber_deg: Some(camber),
        rear_toe_total_deg: Some(toe),
        cross_camber_deg: (l.camber_deg - r.camber_deg).abs() + 0.1,
        cross_caster_deg: (l.caster_deg - r.caster_deg).abs() + 0.2,
        lock: None,
        ..i.aim
    };
    i.aim.problems().is_empty().then(|| (i, catalogue, set.iter().map(|p| p.id.clone()).collect()))
}

/// Cases of a shape that were missed, as seeds.
fn missed(id: &str) -> (usize, Vec<(u64, Vec<String>, String)>) {
    let g = shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry;
    let all = shipped_parts().unwrap();
    let cases: Vec<_> =
        (0..40 * CASES).into_par_iter().filter_map(|seed| Some((seed, case(&g, &all, seed)?))).collect();
    let cases: Vec<_> = cases.into_iter().take(CASES as usize).collect();
    let n = cases.len();
    let wrong = cases
        .into_par_iter()
        .filter_map(|(seed, (i, catalogue, set))| {
            let found = search(&i, &Filters::default(), None, &catalogue, &|_| true).unwrap();
            let reached = found.plans.iter().any(|p| p.reached);
            (!reached || !found.exhaustive).then_some((seed, set, found.headline.id.to_string()))
        })
        .collect();
    (n, wrong)
}

macro_rules! no_false_nothing {
    ($($name:ident: $id:literal),* $(,)?) => {$(
        #[test]
        fn $name() {
            let (n, wrong) = missed($id);
            assert_eq!(n, CASES as usize, "too few cases");
            assert!(wrong.is_empty(), "{} of {n} missed: {:?}", wrong.len(), &wrong[..wrong.len().min(6)]);
        }
    )*};
}

no_false_nothing! {
    wishbone_front: "half_ton_front",
    wishbone_rear: "wishbone_rear",
    strut_front: "compact_strut_front",
    live_front: "live_front",
    multilink_rear: "ev_multilink_rear",
    semi_trailing_rear: "semi_trailing_rear",
    twist_beam_rear: "twist_beam_rear",
    triangulated_rear: "triangulated_rear",
}

#[test]
fn misses_a_shop_cannot_tell_apart_are_decided_by_money_and_work() {
    let g = shipped_archetypes().unwrap().into_iter().find(|a| a.id == "half_ton_front").unwrap().geometry;
    let all = shipped_parts().unwrap();
    let (input, catalogue, _) = (0..1000).find_map(|seed| case(&g, &all, seed)).unwrap();
    let any = search(&input, &Filters::default(), None, &catalogue, &|_| true).unwrap().plans.remove(0);
    let miss = |short_deg: f64, cost: f64| super::SetPlan {
        reached: false,
        short_deg,
        cost,
        fouls: Vec::new(),
        ..any.clone()
    };
    let order = super::finalists::order;
    assert!(order(&miss(0.302, 100.0), 90.0) < order(&miss(0.3, 600.0), 90.0));
    assert!(order(&miss(0.3, 600.0), 90.0) < order(&miss(0.4, 100.0), 90.0), "a tenth is a miss of its own");
}
