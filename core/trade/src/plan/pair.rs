//! One setting for each side: left and right independent where they are, one arm for both on a live axle.

use super::bench::Bench;
use super::locates::{is_drag_link, is_one_arm, locates_only};
use super::score::Score;
use super::solver::{FEW, grid, solve_keeping};
use crate::aim::{Cross, Target};
use crate::plan::judge::{READABLE_DEG, SolvedSetting, judge, knob, outside};
use bold_stance_kinematics::linkage::Corner;
use bold_stance_units::numbers::Secant;
use serde::{Deserialize, Serialize};

/// Two sides together: cross limits count as violations, sameness as distance to the middle.
fn together(l: &SolvedSetting, r: &SolvedSetting, cross: Cross) -> Score {
    let off = cross.off(l.angles.camber_deg - r.angles.camber_deg, l.angles.caster_deg - r.angles.caster_deg);
    let [camber, caster] = off.map(f64::abs);
    // Where nothing is turned only what a shop can read is too far apart.
    let least = if l.knobs + r.knobs == 0 { READABLE_DEG } else { 0.0 };
    let apart = |v: f64, most: f64| if v - most > least { v - most } else { 0.0 };
    let over = apart(camber, cross.camber) + apart(caster, cross.caster);
    let same = (camber / cross.camber).powi(2) + (caster / cross.caster).powi(2);
    Score {
        foul: l.foul.and(r.foul),
        over: l.told().sum() + r.told().sum() + if over < 1e-9 { 0.0 } else { over },
        knobs: l.knobs + r.knobs,
        centre: l.centre + r.centre + same,
        movement: l.movement + r.movement,
    }
}

/// Picks one setting a side: violations first (cross limits among them), then knobs left alone, then centres and
/// sameness, then movement.
#[must_use]
pub fn pair<'a>(
    left: &'a [SolvedSetting],
    right: &'a [SolvedSetting],
    cross: Cross,
) -> Option<(&'a SolvedSetting, &'a SolvedSetting)> {
    let all = left.iter().flat_map(|l| right.iter().map(move |r| (together(l, r, cross), (l, r))));
    all.min_by(|a, b| a.0.cmp(&b.0)).map(|(_, p)| p)
}

/// Solves both sides together.
#[must_use]
pub fn solve_both(benches: &[Bench; 2], t: &[Target; 2], cross: Cross) -> Option<[SolvedSetting; 2]> {
    let whole = solve_sides(benches, t, cross, FEW)?;
    let apart = |s: &[SolvedSetting; 2]| {
        let (l, r) = (s[0].angles, s[1].angles);
        let off = cross.off(l.camber_deg - r.camber_deg, l.caster_deg - r.caster_deg);
        off[0].abs() > cross.camber || off[1].abs() > cross.caster
    };
    if !apart(&whole) || matches!(benches[0].corner, Corner::Axle(_)) {
        return Some(whole);
    }
    // Sides too far apart: more settings to pair from, and each side asked to come to the other, or both half way.
    // What is wanted of a side where the other one stands: as far apart as the aim has it.
    let beside = |i: usize, v: f64, k: usize| if i == 0 { v + cross.middle[k] } else { v - cross.middle[k] };
    let narrow = |i: usize, camber: f64, caster: f64, by: f64| Target {
        camber: narrowed(t[i].camber, camber, by * cross.camber),
        caster: narrowed(t[i].caster, caster, by * cross.caster),
        toe: t[i].toe,
    };
    let near = |i: usize| {
        let a = &whole[1 - i].angles;
        narrow(i, beside(i, a.camber_deg, 0), beside(i, a.caster_deg, 1), 0.98)
    };
    let half = |i: usize| {
        let (own, other) = (&whole[i].angles, &whole[1 - i].angles);
        let camber = 0.5 * (own.camber_deg + beside(i, other.camber_deg, 0));
        let caster = 0.5 * (own.caster_deg + beside(i, other.caster_deg, 1));
        narrow(i, camber, caster, 0.49)
    };
    let mut lists = [0, 1].map(|i| solve_keeping(&benches[i], &t[i], 4 * FEW));
    for (i, bench) in benches.iter().enumerate() {
        for narrow in [near(i), half(i)] {
            lists[i].extend(
                solve_keeping(bench, &narrow, FEW)
                    .into_iter()
                    .map(|s| judge(bench, s.positions, s.angles, &t[i], true)),
            );
        }
    }
    let (l, r) = pair(&lists[0], &lists[1], cross)?;
    Some([l.clone(), r.clone()])
}

/// The part of a window within `by` of a value; the end nearest to it where there is none.
fn narrowed(w: [f64; 2], about: f64, by: f64) -> [f64; 2] {
    let out = [w[0].max(about - by), w[1].min(about + by)];
    if out[0] <= out[1] { out } else { [about.clamp(w[0], w[1]); 2] }
}

/// The same with so many settings of each side to pair from.
fn solve_sides(
    benches: &[Bench; 2],
    t: &[Target; 2],
    cross: Cross,
    keep: usize,
) -> Option<[SolvedSetting; 2]> {
    if matches!(benches[0].corner, Corner::Axle(_)) {
        return live_axle(benches, t, cross);
    }
    let found = [0, 1].map(|i| solve_keeping(&benches[i], &t[i], keep));
    let (l, r) = pair(&found[0], &found[1], cross)?;
    Some([l.clone(), r.clone()])
}

/// Arms, wedges, track bar and tie rod are one for both wheels: their positions are searched for both sides'
/// sake, each side's own sleeves and shims within.
fn live_axle(benches: &[Bench; 2], t: &[Target; 2], cross: Cross) -> Option<[SolvedSetting; 2]> {
    let shared: Vec<usize> = (0..benches[0].adjusters.len())
        .filter(|i| {
            let a = &benches[0].adjusters[*i];
            a.is_shared_on_axle() && !a.is_fixed() && benches[0].toe_by != Some(*i) && !locates_only(a)
        })
        .collect();
    let lists: Vec<Vec<f64>> = shared.iter().map(|i| grid(&benches[0].adjusters[*i]).0).collect();
    let with = |pick: &[f64]| -> Option<(Score, [SolvedSetting; 2])> {
        let held = [0, 1].map(|s| hold(&benches[s], &shared, pick));
        let found = [0, 1].map(|s| solve_keeping(&held[s], &t[s], FEW));
        let (l, r) = pair(&found[0], &found[1], cross)?;
        let moved: f64 = shared
            .iter()
            .zip(pick)
            .map(|(i, p)| {
                let a = &benches[0].adjusters[*i];
                let [low, high] = a.range();
                (p - a.position).abs() / (high - low).max(1e-9)
            })
            .sum();
        let pair = together(l, r, cross);
        let touched: u32 = shared.iter().zip(pick).map(|(i, p)| knob(&benches[0], *i, *p)).sum();
        let score = Score { knobs: pair.knobs + touched, movement: pair.movement + moved, ..pair };
        Some((score, [l.clone(), r.clone()]))
    };
    let mut pick: Vec<f64> = shared.iter().map(|i| benches[0].adjusters[*i].position).collect();
    let mut best = with(&pick)?;
    for _ in 0..4 {
        let before = pick.clone();
        for (k, list) in lists.iter().enumerate() {
            // One hollow along each adjuster: a golden-section walk over the list finds its bottom.
            let (mut low, mut high) = (0usize, list.len().saturating_sub(1));
            let at = |n: usize, pick: &[f64]| {
                let mut p = pick.to_vec();
                p[k] = list[n];
                with(&p).map(|r| (r, p))
            };
            while high - low > 2 {
                let (a, b) = (low + (high - low) / 3, high - (high - low) / 3);
                match (at(a, &pick), at(b, &pick)) {
                    (Some((x, _)), Some((y, _))) if y.0 < x.0 => low = a + 1,
                    (None, Some(_)) => low = a + 1,
                    _ => high = b,
                }
            }
            for n in low..=high.min(list.len().saturating_sub(1)) {
                if let Some((r, p)) = at(n, &pick)
                    && r.0 < best.0
                {
                    (best, pick) = (r, p);
                }
            }
        }
        if pick == before {
            break;
        }
    }
    let mut out = best.1;
    one_tie_rod(benches, &t[0], &mut out);
    for (i, a) in benches[0].adjusters.iter().enumerate() {
        if locates_only(a) && !is_one_arm(a) && !a.is_fixed() {
            let p = recentre(&benches[0], i, &out[0].positions);
            out.iter_mut().for_each(|s| s.positions[i] = p);
        }
    }
    for (s, b) in out.iter_mut().zip(benches) {
        if let Ok(a) = b.angles(&s.positions) {
            s.angles = a;
        }
    }
    // The drag link puts the steering wheel straight, so both wheels carry half of the total; an axle that does not steer
    // keeps the direction it points, where it points anywhere that can be read.
    let half = 0.5 * (out[0].angles.toe_deg + out[1].angles.toe_deg);
    let aside = 0.5 * (out[0].angles.toe_deg - out[1].angles.toe_deg);
    let steers = benches[0].corner.is_steered() || aside.abs() < READABLE_THRUST_DEG;
    for ((s, b), t) in out.iter_mut().zip(benches).zip(t) {
        if steers {
            s.angles.toe_deg = half;
        }
        *s = judge(b, s.positions.clone(), s.angles, t, true);
    }
    Some(out)
}

/// The bench with some adjusters held at positions.
fn hold(bench: &Bench, which: &[usize], at: &[f64]) -> Bench {
    let mut out = bench.clone();
    for (i, p) in which.iter().zip(at) {
        out.adjusters[*i].position = *p;
        out.adjusters[*i].locked = true;
    }
    for (i, a) in out.adjusters.iter_mut().enumerate() {
        if locates_only(a) && !which.contains(&i) {
            a.locked = true;
        }
    }
    out
}

/// One tie rod for both wheels: the turns that put half the total toe nearest the middle of the window, in the
/// coarsest fraction that lands inside it.
fn one_tie_rod(benches: &[Bench; 2], t: &Target, set: &mut [SolvedSetting; 2]) {
    let Some(i) = benches[0].toe_by else { return };
    let a = &benches[0].adjusters[i];
    let [low, high] = a.range();
    let exact = 0.5 * (set[0].positions[i] + set[1].positions[i]);
    let mean = |v: f64| {
        let toe = |s: usize| {
            let mut p = set[s].positions.clone();
            p[i] = v;
            benches[s].angles(&p).ok().map(|x| x.toe_deg)
        };
        Some(0.5 * (toe(0)? + toe(1)?))
    };
    let mut best = (f64::INFINITY, exact);
    for den in [4.0, 6.0, 12.0, 24.0] {
        let v = (a.position + ((exact - a.position) * den).round() / den).clamp(low, high);
        let Some(f) = mean(v) else { continue };
        let miss = outside(f, t.toe);
        if miss < best.0 - 1e-12 {
            best = (miss, v);
        }
        if miss == 0.0 {
            break;
        }
    }
    set.iter_mut().for_each(|s| s.positions[i] = best.1);
}

/// Direction of an axle that nobody reads off its wheels, degrees (common practice, no source).
const READABLE_THRUST_DEG: f64 = 0.1;
/// Axle off centre that a tape at the arches cannot tell, mm (common practice, no source).
const READABLE_SHIFT_MM: f64 = 1.5;
/// Turn of the road wheels by the drag link that nobody sees at the steering wheel, degrees (common practice, no source).
const READABLE_WHEEL_DEG: f64 = 0.05;

/// Turns of a track bar that bring the axle back under the middle, or of a drag link that put the steering wheel
/// straight; where it stands when that cannot be posed.
pub(crate) fn recentre(bench: &Bench, i: usize, positions: &[f64]) -> f64 {
    let a = &bench.adjusters[i];
    let drag = is_drag_link(a);
    let miss = |v: f64| {
        let mut p = positions.to_vec();
        p[i] = v;
        let Corner::Axle(c) = bench.set(&p) else { return None };
        let pose = c.axle_pose(bench.travel_mm, 0.0).ok()?;
        if drag {
            c.drag_link_turn(&pose).map(f64::to_degrees)
        } else {
            Some(pose.midpoint.y - bench.centre_mm)
        }
    };
    // What a tape or the driver cannot tell is left.
    let readable = if drag { READABLE_WHEEL_DEG } else { READABLE_SHIFT_MM };
    if miss(a.position).is_some_and(|m| m.abs() < readable) {
        return a.position;
    }
    let [low, high] = a.range();
    let start = [a.position, a.position + 0.02 * (high - low)];
    let search = Secant::to(1e-6, 1e-12, 12).within(low, high);
    let Ok(found) = search.root(start, |x| miss(x).ok_or(())) else { return a.position };
    let step = a.step().unwrap_or(0.1);
    (a.position + ((found.at - a.position) / step).round() * step).clamp(low, high)
}

/// What a drag link does to the steering.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DragLink {
    /// The adjuster.
    pub name: String,
    /// What a turn longer adds to toe of the left wheel and takes from the right one's, degrees, steering wheel held.
    pub left_toe_deg: f64,
}

/// What the drag link of a live axle does in a turn from where it is set; none where there is none that turns.
pub(crate) fn steered_by(bench: &Bench, positions: &[f64]) -> Option<DragLink> {
    let i = bench.adjusters.iter().position(|a| is_drag_link(a) && !a.is_fixed())?;
    let turn = |by: f64| {
        let mut p = positions.to_vec();
        p[i] += by;
        let Corner::Axle(c) = bench.set(&p) else { return None };
        c.drag_link_turn(&c.axle_pose(bench.travel_mm, 0.0).ok()?)
    };
    let left_toe_deg = (turn(0.5)? - turn(-0.5)?).to_degrees();
    Some(DragLink { name: bench.adjusters[i].name.clone(), left_toe_deg })
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sample::sample;
    use bold_stance_car::adjuster::default_adjusters;
    use bold_stance_car::vehicle::Attitude;

    const AIM: Target = Target { camber: [-0.4, 0.2], caster: [3.0, 4.2], toe: [0.0, 0.1] };

    fn bench() -> Bench {
        let g = sample();
        Bench::new(Corner::new(&g.points, &g.wheel), default_adjusters(5.0), -30.0, Attitude::default())
    }

    #[test]
    fn pairs_prefer_sides_that_agree() {
        let b = bench();
        let all = solve_keeping(&b, &AIM, 20);
        let (l, r) = pair(&all, &all, Cross::alike(0.5, 0.5)).unwrap();
        assert_eq!(l.positions, r.positions);
    }
}
