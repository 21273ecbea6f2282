//! The setting solver: which adjuster, which way, how far.
//!
//! Window violations first, then knobs that need not move, then distance to window centres, then movement
//! ([`super::score`]). A few settings are tried one by one
//! with exact kinematics; of many, a second-order surrogate through exact poses picks those worth trying. Toe is
//! solved last, with the steering wheel straight; at a rear wheel whose toe is set by an arm or a cam it is solved
//! together with camber, since such an adjuster moves both.

use super::bench::Bench;
use super::judge::{SolvedSetting, better, combinations, is_moved, judge, outside};
use super::surrogate::Surrogate;
use crate::aim::Target;
use bold_stance_car::adjuster::{Adjuster, AdjusterKind};
use bold_stance_units::numbers::Secant;

/// Most settings that are all posed exactly.
const EXACT: usize = 40;
/// Most settings that are ranked by the surrogate.
const RANKED: usize = 8_000;
/// Settings refined with exact toe.
const KEEP: usize = 14;
/// The same where only the best matters: a part looked at as a candidate.
pub(crate) const FEW: usize = 6;

/// Steps of one size along the edge of what fouls.
const EDGE_ROUNDS: u32 = 16;

/// Positions an adjuster can take, where it stands among them; the second value says whether they are only a first
/// net.
pub(crate) fn grid(a: &Adjuster) -> (Vec<f64>, bool) {
    let [low, high] = a.range();
    let (mut all, loose): (Vec<f64>, bool) = match a.step() {
        Some(s) => {
            let first = (low / s - 1e-9).ceil() as i64;
            let last = (high / s + 1e-9).floor() as i64;
            ((first..=last).map(|k| k as f64 * s).collect(), false)
        }
        None => ((0..=24).map(|k| low + (high - low) * f64::from(k) / 24.0).collect(), true),
    };
    // It may be left where it stands, between notches too.
    if (low - 1e-9..=high + 1e-9).contains(&a.position) || all.is_empty() {
        let at = all.partition_point(|v| *v < a.position - 1e-9);
        match all.get_mut(at) {
            Some(v) if (*v - a.position).abs() < 1e-9 => *v = a.position,
            _ => all.insert(at, a.position),
        }
    }
    (all, loose)
}

/// The settings worth having for one wheel, best first; empty when none can be posed.
#[must_use]
pub fn solve(bench: &Bench, t: &Target) -> Vec<SolvedSetting> {
    solve_keeping(bench, t, KEEP)
}

/// The same with so many of the settings refined.
pub(crate) fn solve_keeping(bench: &Bench, t: &Target, keep: usize) -> Vec<SolvedSetting> {
    let joint = toe_joins_in(bench);
    let mut start = bench.start();
    if !joint {
        toe_turns(bench, &mut start, t, false);
    }
    let free: Vec<usize> = (0..start.len())
        .filter(|i| (joint || Some(*i) != bench.toe_by) && !bench.adjusters[*i].is_fixed())
        .collect();
    let grids: Vec<(Vec<f64>, bool)> = free.iter().map(|i| grid(&bench.adjusters[*i])).collect();
    // As it stands, and with toe alone turned: elsewhere the rod may put what is just inside just outside.
    let untouched = bench.start();
    let mut toe_alone = untouched.clone();
    toe_turns(bench, &mut toe_alone, t, true);
    let mut out: Vec<SolvedSetting> = [untouched, toe_alone]
        .into_iter()
        .filter_map(|p| bench.angles(&p).ok().map(|a| judge(bench, p, a, t, true)))
        .collect();
    for _ in 0..3 {
        let (found, rod_moves) = round(bench, t, &start, &free, &grids, keep);
        out.extend(found);
        out.sort_by(better);
        let (Some(best), Some(i)) = (out.first(), bench.toe_by) else { break };
        // An arm that turns the wheel far takes the rod along, and the rod moves camber and caster a little: what was
        // ranked with the rod elsewhere is ranked again with it here.
        if joint || best.shortfall.worst() == 0.0 || rod_moves < 0.01 {
            break;
        }
        start[i] = best.positions[i];
    }
    out
}

/// One round: the settings worth having with the toe adjuster where `start` has it, each then given its own toe; and
/// how far that moved camber and caster of the best, degrees.
fn round(
    bench: &Bench,
    t: &Target,
    start: &[f64],
    free: &[usize],
    grids: &[(Vec<f64>, bool)],
    keep: usize,
) -> (Vec<SolvedSetting>, f64) {
    let joint = toe_joins_in(bench);
    let loose = grids.iter().any(|g| g.1);
    let mut found = worth_trying(bench, t, start, free, grids, keep);
    found.sort_by(better);
    if loose {
        found = few_of_each_kind(bench, found, free, keep);
    } else {
        found.truncate(keep);
    }
    let mut rod_moves = 0.0f64;
    let mut out: Vec<SolvedSetting> = Vec::new();
    for mut s in found.into_iter().map(|s| refine(bench, t, s, free, grids)) {
        if joint {
            out.push(in_finer_turns(bench, t, s, free));
            continue;
        }
        let before = s.angles;
        toe_turns(bench, &mut s.positions, t, true);
        let Ok(mut a) = bench.angles(&s.positions) else { continue };
        rod_moves = rod_moves
            .max((a.camber_deg - before.camber_deg).abs())
            .max((a.caster_deg - before.caster_deg).abs());
        let mut p = s.positions;
        if loose {
            // Bring plain cams back once.
            let again = judge(bench, p, a, t, false);
            p = refine(bench, t, again, free, grids).positions;
            toe_turns(bench, &mut p, t, true);
            match bench.angles(&p) {
                Ok(now) => a = now,
                Err(_) => continue,
            }
        }
        out.push(judge(bench, p, a, t, true));
    }
    out.sort_by(better);
    (out, rod_moves)
}

/// Whether toe is solved together with camber: no tie rod sets it, so whatever moves it moves both.
fn toe_joins_in(bench: &Bench) -> bool {
    !bench.toe_by.is_some_and(|i| bench.adjusters[i].is_tie_rod())
}

/// Of settings whose adjusters take any position, the best four, and the best of each one or two knobs moved alone:
/// refined, one of these may reach with less undone. Fewer of them tell all than of whole notches.
fn few_of_each_kind(
    bench: &Bench,
    found: Vec<SolvedSetting>,
    free: &[usize],
    keep: usize,
) -> Vec<SolvedSetting> {
    let which = |s: &SolvedSetting| -> Vec<usize> {
        free.iter().copied().filter(|i| is_moved(&bench.adjusters[*i], s.positions[*i])).collect()
    };
    let mut kinds: Vec<Vec<usize>> = Vec::new();
    let mut out: Vec<SolvedSetting> = Vec::new();
    for (n, s) in found.into_iter().enumerate() {
        let kind = which(&s);
        let new = !kinds.contains(&kind);
        if n < keep.min(4) || (new && kind.len() <= 2 && kinds.len() < 10) {
            out.push(s);
        }
        if new {
            kinds.push(kind);
        }
    }
    out
}

/// Threads brought to finer fractions of a turn (sixths, twelfths, twenty-fourths) where quarters do not land, two at a
/// time, since each moves both angles.
fn in_finer_turns(bench: &Bench, t: &Target, mut best: SolvedSetting, free: &[usize]) -> SolvedSetting {
    let threads: Vec<usize> = free
        .iter()
        .copied()
        .filter(|i| matches!(bench.adjusters[*i].kind, AdjusterKind::Thread { .. }))
        .collect();
    for den in [6.0, 12.0, 24.0] {
        let mut moved = true;
        while moved && best.shortfall.worst() > 0.0 {
            moved = false;
            for (k, i) in threads.iter().enumerate() {
                for j in &threads[k..] {
                    let around = best.positions.clone();
                    let at = |n: usize, by: i32| {
                        let a = &bench.adjusters[n];
                        let [low, high] = a.range();
                        let whole = ((around[n] - a.position) * den).round() + f64::from(by);
                        (a.position + whole / den).clamp(low, high)
                    };
                    for (a, b) in (-2..=2).flat_map(|a| (-2..=2).map(move |b| (a, b))) {
                        if i == j && b != 0 {
                            continue;
                        }
                        let mut p = around.clone();
                        p[*i] = at(*i, a);
                        if i != j {
                            p[*j] = at(*j, b);
                        }
                        let Ok(angles) = bench.angles(&p) else { continue };
                        let s = judge(bench, p, angles, t, true);
                        if s.score() < best.score() {
                            (best, moved) = (s, true);
                        }
                    }
                }
            }
        }
    }
    best
}

/// Settings posed exactly: all of them when they are few, else those the surrogate ranks highest.
fn worth_trying(
    bench: &Bench,
    t: &Target,
    start: &[f64],
    free: &[usize],
    grids: &[(Vec<f64>, bool)],
    keep: usize,
) -> Vec<SolvedSetting> {
    let joint = toe_joins_in(bench);
    let try_one = |p: Vec<f64>| bench.angles(&p).ok().map(|a| judge(bench, p, a, t, joint));
    let count = grids.iter().try_fold(1usize, |n, g| n.checked_mul(g.0.len()));
    // A clocked sleeve goes round: no second order follows it.
    let round = free.iter().any(|i| matches!(bench.adjusters[*i].kind, AdjusterKind::Sleeve { .. }));
    if count.is_some_and(|n| n <= if round { 4000 } else { EXACT }) {
        let lists: Vec<&[f64]> = grids.iter().map(|g| g.0.as_slice()).collect();
        let mut out = Vec::new();
        combinations(&lists, |pick| {
            let mut p = start.to_vec();
            free.iter().zip(pick).for_each(|(i, v)| p[*i] = *v);
            out.extend(try_one(p));
        });
        return out;
    }
    let Some(s) = Surrogate::of(bench, start, free, joint) else {
        return try_one(start.to_vec()).into_iter().collect();
    };
    let mut lists: Vec<Vec<f64>> = grids.iter().map(|g| g.0.clone()).collect();
    if count.is_none_or(|n| n > RANKED) {
        // Too many: only those near the best place of each adjuster in turn.
        let centre = s.descend(bench, t, &lists);
        let mut reach = 1usize;
        while (2.0 * (reach + 1) as f64 + 1.0).powi(lists.len() as i32) < RANKED as f64 && reach < 60 {
            reach += 1;
        }
        for (list, c) in lists.iter_mut().zip(&centre) {
            let at = list.partition_point(|v| *v < *c - 1e-9);
            let (from, to) = (at.saturating_sub(reach), (at + reach + 1).min(list.len()));
            *list = list[from..to].to_vec();
        }
    }
    let views: Vec<&[f64]> = lists.iter().map(Vec::as_slice).collect();
    let mut picks = s.best_of(bench, t, &views, 2 * keep);
    // Between the points of the net one or two knobs alone may land where only more of them land on it.
    if grids.iter().any(|g| g.1) {
        let stands: Vec<[f64; 1]> = free.iter().map(|i| [start[*i]]).collect();
        for k in 0..free.len() {
            for l in k..free.len() {
                let of = |n: usize| if n == k || n == l { grids[n].0.as_slice() } else { &stands[n] };
                let alone: Vec<&[f64]> = (0..free.len()).map(of).collect();
                for p in s.best_of(bench, t, &alone, 1) {
                    if !picks.contains(&p) {
                        picks.push(p);
                    }
                }
            }
        }
    }
    picks
        .into_iter()
        .filter_map(|pick| {
            let mut p = start.to_vec();
            free.iter().zip(pick).for_each(|(i, v)| p[*i] = v);
            try_one(p)
        })
        .collect()
}

impl Bench {
    /// Start positions but with toe set to `toe` degrees a wheel.
    #[must_use]
    pub fn with_toe(&self, toe: f64) -> Vec<f64> {
        let mut p = self.start();
        toe_turns(self, &mut p, &Target { camber: [0.0; 2], caster: [0.0; 2], toe: [toe, toe] }, false);
        p
    }
}

/// Shrinking steps for adjusters without notches.
fn refine(
    bench: &Bench,
    t: &Target,
    mut best: SolvedSetting,
    free: &[usize],
    grids: &[(Vec<f64>, bool)],
) -> SolvedSetting {
    // What is left where it stands stays there: a setting with it moved is another one.
    let moves = |i: usize| is_moved(&bench.adjusters[i], best.positions[i]);
    let loose: Vec<usize> =
        free.iter().zip(grids).filter(|(i, g)| g.1 && moves(**i)).map(|(i, _)| *i).collect();
    if loose.is_empty() {
        return best;
    }
    let joint = toe_joins_in(bench);
    let mut scale = 1.0 / 24.0;
    let mut rounds = 0;
    while scale > 1e-5 {
        let mut moved = false;
        rounds += 1;
        for &i in &loose {
            let [low, high] = bench.adjusters[i].range();
            for sign in [-1.0, 1.0] {
                let mut p = best.positions.clone();
                p[i] = (p[i] + sign * scale * (high - low)).clamp(low, high);
                if let Ok(a) = bench.angles(&p) {
                    let s = judge(bench, p, a, t, joint);
                    if s.score() < best.score() {
                        best = s;
                        moved = true;
                    }
                }
            }
        }
        // Along the edge of what fouls small steps could go on and on.
        if !moved || (bench.guard.is_some() && rounds > EDGE_ROUNDS) {
            scale *= 0.5;
            rounds = 0;
        }
    }
    best
}

/// Sets the adjuster of toe: left where it stands when that is inside the window, else the coarsest fraction of a turn
/// that lands in it (quarters, then flats of a hexagon, then twelfths, then twenty-fourths), or the nearest possible.
pub(crate) fn toe_turns(bench: &Bench, p: &mut [f64], t: &Target, in_steps: bool) {
    let Some(i) = bench.toe_by else { return };
    let [low, high] = bench.adjusters[i].range();
    let middle = (t.toe[0] + t.toe[1]) / 2.0;
    let toe_at = |turns: f64, p: &[f64]| {
        let mut q = p.to_vec();
        q[i] = turns;
        bench.angles(&q).ok().map(|a| a.toe_deg)
    };
    let from = bench.adjusters[i].position;
    if in_steps && toe_at(from, p).is_some_and(|toe| outside(toe, t.toe) == 0.0) {
        p[i] = from;
        return;
    }
    // A first step inside the range, so that it can always be posed.
    let step = 0.02 * (high - low);
    let start = [p[i], if p[i] + step > high { p[i] - step } else { p[i] + step }];
    let search = Secant::to(1e-9, 1e-12, 12).within(low - 1.0, high + 1.0);
    let Ok(found) = search.root(start, |x| toe_at(x, p).map(|toe| toe - middle).ok_or(())) else { return };
    let exact = found.at.clamp(low, high);
    if !in_steps {
        p[i] = exact;
        return;
    }
    let mut best = (f64::INFINITY, exact);
    // Turns are counted from where the rod stands; other adjusters go in their own steps.
    let tries: Vec<f64> = match (&bench.adjusters[i].kind, bench.adjusters[i].step()) {
        (AdjusterKind::Thread { .. }, _) => {
            [4.0, 6.0, 12.0, 24.0].iter().map(|den| from + ((exact - from) * den).round() / den).collect()
        }
        (_, Some(s)) => vec![(exact / s).round() * s, (exact / s).floor() * s, (exact / s).ceil() * s],
        (_, None) => vec![exact],
    };
    for v in tries {
        let v = v.clamp(low, high);
        let Some(f) = toe_at(v, p) else { continue };
        let miss = outside(f, t.toe);
        if miss < best.0 - 1e-12 {
            best = (miss, v);
        }
        if miss == 0.0 {
            break;
        }
    }
    p[i] = best.1;
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sample::sample;
    use bold_stance_car::adjuster::default_adjusters;
    use bold_stance_car::vehicle::Attitude;
    use bold_stance_kinematics::linkage::Corner;

    fn bench() -> Bench {
        let g = sample();
        Bench::new(Corner::new(&g.points, &g.wheel), default_adjusters(5.0), -30.0, Attitude::default())
    }

    const AIM: Target = Target { camber: [-0.4, 0.2], caster: [3.0, 4.2], toe: [0.0, 0.1] };

    #[test]
    fn beats_every_other_whole_notch() {
        let b = bench();
        let best = &solve(&b, &AIM)[0];
        assert_eq!(best.shortfall.worst(), 0.0);
        // Brute force, independent of the search order: no whole-notch setting lies closer to the centres.
        for f in -4..=4 {
            for r in -4..=4 {
                let mut p = vec![f64::from(f) * 22.5, f64::from(r) * 22.5, best.positions[2]];
                toe_turns(&b, &mut p, &AIM, true);
                let s = judge(&b, p.clone(), b.angles(&p).unwrap(), &AIM, true);
                assert!(better(best, &s).is_le(), "{f} {r}");
            }
        }
    }

    #[test]
    fn toe_is_solved_last_and_in_turns_a_spanner_can_follow() {
        let b = bench();
        let s = &solve(&b, &AIM)[0];
        let toe = s.angles.toe_deg;
        assert!((0.0..=0.1).contains(&toe), "{toe}");
        assert!(((s.positions[2] * 24.0).round() - s.positions[2] * 24.0).abs() < 1e-9);
    }

    #[test]
    fn an_aim_out_of_reach_is_said_to_be_short() {
        let far = Target { caster: [9.0, 10.0], ..AIM };
        let s = &solve(&bench(), &far)[0];
        assert!(s.shortfall.caster_deg > 1.0);
        assert!(bench().lines(&s.positions)[..2].iter().any(|l| l.at_end), "a cam is used up");
    }

    #[test]
    fn a_cam_without_notches_meets_the_centre() {
        let mut b = bench();
        for a in &mut b.adjusters {
            if let AdjusterKind::Eccentric { notches_per_half_turn, .. } = &mut a.kind {
                *notches_per_half_turn = None;
            }
        }
        let s = &solve(&b, &AIM)[0];
        assert!(
            (s.angles.camber_deg + 0.1).abs() < 0.01 && (s.angles.caster_deg - 3.6).abs() < 0.02,
            "{:?}",
            s.angles
        );
    }

    #[test]
    fn one_turn_of_an_upper_link_has_the_common_order() {
        // Common practice, no source (CP14): a turn of 1.5–2 mm pitch on a small car's upper link moves
        // camber about 0.5°. Order of magnitude: atan(1.75 / 270 mm of joint spacing) = 0.37°.
        let mut b = bench();
        b.adjusters[0].kind = AdjusterKind::Thread {
            link: bold_stance_car::adjuster::ThreadLink::Upper,
            pitch_mm: 1.75,
            ends: 1,
            turns: [-5.0, 5.0],
            engaged_mm: None,
            min_engaged_mm: None,
            left_hand: None,
        };
        let s = b.sensitivity(&b.start());
        assert!((0.25..0.75).contains(&s[0].camber_deg.abs()), "{}", s[0].camber_deg);
    }
}
