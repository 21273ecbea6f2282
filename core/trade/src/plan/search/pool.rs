//! Which sets of parts there are, and which are worth posing.

use super::Filters;
use super::linear::Effects;
use crate::part::Part;
use rayon::prelude::*;
use std::sync::atomic::{AtomicBool, Ordering};

/// Most sets screened one by one; beyond them only the promising ones grow.
const SCREENED: usize = 600_000;
/// Sets kept of each size when there are too many.
const BEAM: usize = 600;
/// Sets posed.
const POSED: usize = 900;

/// A set of parts: indexes into the pool, ascending, at most four.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Default)]
pub(super) struct Ids {
    pub(super) count: u8,
    pub(super) at: [u16; 4],
}

impl Ids {
    pub(super) fn list(&self) -> &[u16] {
        &self.at[..usize::from(self.count)]
    }

    /// With one more part in its place; the caller sees to room and order of growth.
    fn with(&self, part: u16) -> Self {
        let mut out = *self;
        let n = usize::from(self.count);
        out.at[n] = part;
        out.count += 1;
        out.at[..=n].sort_unstable();
        out
    }
}

/// A set with its first-order figures.
#[derive(Debug, Clone, Copy)]
pub(super) struct Set {
    pub(super) parts: Ids,
    pub(super) gap: f64,
    pub(super) money: f64,
    pub(super) bump: f64,
    pub(super) axis: f64,
}

pub(super) struct Pool<'a> {
    pub(super) parts: Vec<Part>,
    filters: &'a Filters,
    effects: Effects,
    /// Which pairs cannot stand together.
    clash: Vec<Vec<bool>>,
    /// For each part, groups of parts of which one has to be there too; empty where the vehicle brings it.
    needs: Vec<Vec<Vec<u16>>>,
    /// For each pin, the parts that stand for it.
    pins: Vec<Vec<u16>>,
}

impl<'a> Pool<'a> {
    pub(super) fn new(
        parts: Vec<Part>,
        filters: &'a Filters,
        effects: Effects,
        has: &dyn Fn(&str) -> bool,
    ) -> Self {
        let rules_out = |p: &Part, q: &Part| {
            p.fits.replaces == q.fits.replaces
                || p.conflicts.iter().any(|c| c == q.family())
                || q.conflicts.iter().any(|c| c == p.family())
        };
        let clash = parts.iter().map(|p| parts.iter().map(|q| rules_out(p, q)).collect()).collect();
        let which = |f: &dyn Fn(&Part) -> bool| -> Vec<u16> {
            parts.iter().enumerate().filter(|(_, q)| f(q)).map(|(i, _)| i as u16).collect()
        };
        let needs = parts
            .iter()
            .map(|p| {
                let given = |t: &str| {
                    which(&|q| q.id != p.id && (q.family() == t || q.provides.iter().any(|x| x == t)))
                };
                p.requires.iter().filter(|t| !has(t)).map(|t| given(t)).collect()
            })
            .collect();
        let pins = filters.pinned.iter().map(|n| which(&|p| p.id == *n || p.family() == n)).collect();
        Self { filters, effects, clash, needs, pins, parts }
    }

    pub(super) fn of(&self, set: &Ids) -> Vec<&Part> {
        set.list().iter().map(|i| &self.parts[usize::from(*i)]).collect()
    }

    /// The set with its figures, when it is whole: pins in it, needs met, money and time enough.
    fn set(&self, parts: &Ids) -> Option<Set> {
        let list = parts.list();
        let one_of = |group: &Vec<u16>| group.iter().any(|g| list.contains(g));
        if !self.pins.iter().all(one_of)
            || !list.iter().all(|i| self.needs[usize::from(*i)].iter().all(one_of))
        {
            return None;
        }
        let of = || list.iter().map(|i| &self.parts[usize::from(*i)]);
        let cost: f64 = of().map(|p| p.cost).sum();
        let minutes: u32 = of().map(|p| p.labour_minutes).sum();
        self.filters.affords(cost, minutes).then(|| {
            let (gap, change) = self.effects.of(list);
            let money = cost + self.filters.rate() * f64::from(minutes) / 60.0;
            let axis = change.scrub_mm.abs() / 10.0 + change.sai_deg.abs();
            Set { gap, money, bump: change.bump, axis, parts: *parts }
        })
    }

    /// Every allowed set with its first-order figures, how many were looked at, and whether they were all.
    pub(super) fn screen(&self, cancelled: &AtomicBool) -> (Vec<Set>, usize, bool) {
        let usable: Vec<u16> =
            (0..self.parts.len()).filter(|i| self.effects.closes(*i)).map(|i| i as u16).collect();
        let most = self.filters.most_parts.unwrap_or(4).min(4);
        let mut level: Vec<Ids> = vec![Ids::default()];
        let mut out: Vec<Set> = Vec::new();
        let (mut considered, mut exhaustive) = (0usize, true);
        for size in 0..=most {
            if cancelled.load(Ordering::Relaxed) {
                break;
            }
            considered += level.len();
            out.par_extend(level.par_iter().filter_map(|s| self.set(s)));
            if size == most {
                break;
            }
            if level.len().saturating_mul(usable.len()) / (size + 1) > SCREENED {
                // Too many to look at all: only the most promising ones grow.
                exhaustive = false;
                level.par_sort_by_cached_key(|s| ((self.effects.of(s.list()).0 / 0.05).round() as i64, *s));
                level.truncate(BEAM);
            }
            // Parts after the last of a set, so that each set comes once; any of them once sets were left out.
            let grow_all = !exhaustive;
            let grown = |s: &Ids| -> Vec<Ids> {
                let last = s.list().last().copied();
                usable
                    .iter()
                    .filter(|p| grow_all || last.is_none_or(|l| **p > l))
                    .filter(|p| !s.list().iter().any(|q| self.clash[usize::from(*q)][usize::from(**p)]))
                    .map(|p| s.with(*p))
                    .collect()
            };
            let mut next: Vec<Ids> = level.par_iter().flat_map_iter(grown).collect();
            if grow_all {
                next.par_sort_unstable();
                next.dedup();
            }
            level = next;
        }
        (out, considered, exhaustive)
    }
}

/// The sets to pose: nearest first, and among those that reach alike the cheapest, the least bump steer, the least
/// change of the axis, the fewest parts. Single parts come in any case: what is simple must not be missed by a
/// first-order screen.
pub(super) fn worth_posing(mut sets: Vec<Set>) -> Vec<Set> {
    type Key = fn(&Set) -> f64;
    let keys: [(usize, Key); 4] = [
        (POSED / 2, |s| s.money),
        (POSED / 6, |s| s.bump + 1e-6 * s.money),
        (POSED / 6, |s| s.axis + 1e-6 * s.money),
        (POSED / 6, |s| f64::from(s.parts.count) * 1e6 + s.money),
    ];
    let mut out: Vec<Set> = sets.iter().filter(|s| s.parts.count <= 1).copied().collect();
    let mut seen: std::collections::HashSet<Ids> = out.iter().map(|s| s.parts).collect();
    for (count, key) in keys {
        let near = |s: &Set| (s.gap / 0.05).round();
        let cmp = |a: &Set, b: &Set| {
            near(a).total_cmp(&near(b)).then(key(a).total_cmp(&key(b))).then(a.parts.cmp(&b.parts))
        };
        let count = count.min(sets.len());
        if sets.len() > count {
            sets.select_nth_unstable_by(count, cmp);
        }
        out.extend(sets.iter().take(count).filter(|s| seen.insert(s.parts)).copied());
    }
    out.sort_by_key(|s| s.parts);
    out
}
