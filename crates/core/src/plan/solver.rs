//! The setting solver: which adjuster, which way, how far.
//!
//! Window violations first, then distance to window centres, then movement, with exact kinematics
//! for every candidate setting. Toe is solved last, at the tie rod, with the steering wheel straight.

use super::aim::Window;
use crate::linkage::{Corner, Linkage, Loop, Unreachable};
use crate::part::{Adjuster, AdjusterKind, Edit};
use crate::vehicle::Attitude;
use crate::wheel::Alignment;
use serde::{Deserialize, Serialize};

/// Most settings that are tried one by one before the search turns to stepping along each adjuster.
const ENUMERATE: usize = 40_000;
/// Settings refined with exact toe.
const KEEP: usize = 24;

/// A corner at a height with its adjusters: what the solver turns.
#[derive(Debug, Clone)]
pub struct Bench {
    /// The anchored corner with its parts, adjusters at zero.
    pub corner: Corner,
    /// What can be turned.
    pub adjusters: Vec<Adjuster>,
    /// Wheel-centre travel, mm, bump positive.
    pub travel_mm: f64,
    /// Body pitch.
    pub attitude: Attitude,
}

/// Windows of one wheel, degrees.
#[derive(Debug, Clone, Copy)]
pub struct Target {
    /// Top out positive.
    pub camber: Window,
    /// Top rearward positive.
    pub caster: Window,
    /// Per wheel, toe-in positive.
    pub toe: Window,
}

/// Distance outside each window, degrees, never negative.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Shortfall {
    /// Camber.
    pub camber_deg: f64,
    /// Caster.
    pub caster_deg: f64,
    /// Toe, per wheel.
    pub toe_deg: f64,
}

impl Shortfall {
    /// Largest of the three.
    #[must_use]
    pub fn worst(&self) -> f64 {
        self.camber_deg.max(self.caster_deg).max(self.toe_deg)
    }
    /// Weighed sum: a tenth of camber or toe matters as much as two of caster (common practice:
    /// caster does not need the precision of camber), so a gap is left to caster where it can be.
    fn sum(&self) -> f64 {
        2.0 * self.camber_deg + self.caster_deg + 2.0 * self.toe_deg
    }
}

/// One adjuster's order.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SettingLine {
    /// What the specialist calls it.
    pub name: String,
    /// Where it ends: degrees of a cam, turns of a thread.
    pub position: f64,
    /// From where it stood: degrees or turns.
    pub movement: f64,
    /// The same in notches or turns, signed.
    pub steps: f64,
    /// Movement of the pivot or growth of the link, mm.
    pub movement_mm: f64,
    /// `outboard`, `inboard`, `longer`, `shorter`, … or `leave`.
    pub direction: String,
    /// The order in workshop words.
    pub words: String,
    /// Whether the last notch or turn is used up.
    pub at_end: bool,
}

/// What one notch or turn does.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Sensitivity {
    /// Adjuster.
    pub name: String,
    /// What the step is.
    pub step: String,
    /// Degrees of camber.
    pub camber_deg: f64,
    /// Degrees of caster.
    pub caster_deg: f64,
    /// Degrees of toe, one wheel.
    pub toe_deg: f64,
}

/// A setting and what it gives.
#[derive(Debug, Clone)]
pub struct SolvedSetting {
    /// Position of each adjuster, in their order.
    pub positions: Vec<f64>,
    /// Resulting angles, relative to the ground.
    pub angles: Alignment,
    /// How far outside the windows.
    pub shortfall: Shortfall,
    centre: f64,
    movement: f64,
}

impl Bench {
    /// Where every adjuster stands now.
    #[must_use]
    pub fn start(&self) -> Vec<f64> {
        self.adjusters.iter().map(|a| a.position).collect()
    }

    /// The corner with the adjusters at `positions`.
    #[must_use]
    pub fn set(&self, positions: &[f64]) -> Corner {
        let edits: Vec<Edit> = self.adjusters.iter().zip(positions).map(|(a, p)| a.edit_at(*p)).collect();
        self.corner.edited(&edits)
    }

    /// Angles relative to the ground with the adjusters at `positions`.
    ///
    /// # Errors
    /// [`Unreachable`] when the corner does not close there.
    pub fn angles(&self, positions: &[f64]) -> Result<Alignment, Unreachable> {
        let c = self.set(positions);
        let pose = self.attitude.apply(&c.pose(self.travel_mm, 0.0)?);
        let wheel = pose.wheel(c.loaded_radius(), c.design_x());
        wheel.alignment().ok_or_else(|| Unreachable::at(Loop::Unsteered, self.travel_mm))
    }

    /// Start positions but with the tie rod turned to give `toe` degrees a wheel.
    #[must_use]
    pub fn with_toe(&self, toe: f64) -> Vec<f64> {
        let mut p = self.start();
        toe_turns(self, &mut p, &Target { camber: [0.0; 2], caster: [0.0; 2], toe: [toe, toe] }, false);
        p
    }

    /// Index of the tie rod.
    fn tie(&self) -> Option<usize> {
        self.adjusters.iter().position(Adjuster::is_tie_rod)
    }

    /// One notch (or 5° of a plain cam, or a quarter turn) outward of each adjuster from `positions`.
    #[must_use]
    pub fn sensitivity(&self, positions: &[f64]) -> Vec<Sensitivity> {
        let Ok(here) = self.angles(positions) else { return Vec::new() };
        let mut out = Vec::new();
        for (i, a) in self.adjusters.iter().enumerate() {
            let (step, words) = match (&a.kind, a.step()) {
                (AdjusterKind::Thread { .. }, _) => (1.0, "one turn".to_owned()),
                (_, Some(s)) => (s, format!("one notch ({s:.4}°)").replace(".0000", "")),
                (_, None) => (5.0, "5°".to_owned()),
            };
            let [_, high] = a.range();
            // At the end of its range the step is taken backward, and counted as forward.
            let sign = if positions[i] + step > high + 1e-9 { -1.0 } else { 1.0 };
            let mut p = positions.to_vec();
            p[i] += sign * step;
            if let Ok(there) = self.angles(&p) {
                out.push(Sensitivity {
                    name: a.name.clone(),
                    step: words,
                    camber_deg: sign * (there.camber_deg - here.camber_deg),
                    caster_deg: sign * (there.caster_deg - here.caster_deg),
                    toe_deg: sign * (there.toe_deg - here.toe_deg),
                });
            }
        }
        out
    }

    /// Orders for a setting.
    #[must_use]
    pub fn lines(&self, positions: &[f64]) -> Vec<SettingLine> {
        self.adjusters.iter().zip(positions).map(|(a, p)| line(a, *p)).collect()
    }
}

fn line(a: &Adjuster, position: f64) -> SettingLine {
    let movement = position - a.position;
    let movement_mm = a.displacement_mm(position) - a.displacement_mm(a.position);
    let thread = matches!(a.kind, AdjusterKind::Thread { .. });
    let steps = match (thread, a.step()) {
        (true, _) | (_, None) => movement,
        (false, Some(s)) => movement / s,
    };
    let direction = a.direction_word(movement_mm).to_owned();
    let amount = if thread {
        format!("{} turn{}", turns(movement.abs()), if movement.abs() > 1.0 { "s" } else { "" })
    } else if a.step().is_some() {
        let n = steps.abs().round();
        format!("{n} notch{}", if n == 1.0 { "" } else { "es" })
    } else {
        format!("{:.1}°", movement.abs())
    };
    let words = if direction == "leave" { "leave".to_owned() } else { format!("{amount} {direction}") };
    let [low, high] = a.range();
    let margin = a.step().unwrap_or(0.5) / 2.0;
    let at_end = position - low < margin || high - position < margin;
    SettingLine { name: a.name.clone(), position, movement, steps, movement_mm, direction, words, at_end }
}

/// `1 3/4`, `2/3`, `1/12`, `2`: turns in the fractions a spanner can follow.
fn turns(t: f64) -> String {
    for den in [1u32, 4, 6, 12, 24] {
        let n = (t * f64::from(den)).round();
        if (t * f64::from(den) - n).abs() < 1e-6 {
            let (n, mut d) = (n as u64, u64::from(den));
            let (whole, mut rest) = (n / d, n % d);
            for p in [2, 3] {
                while rest > 0 && rest % p == 0 && d % p == 0 {
                    rest /= p;
                    d /= p;
                }
            }
            return match (whole, rest) {
                (w, 0) => w.to_string(),
                (0, r) => format!("{r}/{d}"),
                (w, r) => format!("{w} {r}/{d}"),
            };
        }
    }
    format!("{t:.2}")
}

fn outside(v: f64, w: Window) -> f64 {
    let d = (w[0] - v).max(v - w[1]).max(0.0);
    if d < 1e-9 { 0.0 } else { d }
}

fn off_centre(v: f64, w: Window) -> f64 {
    let half = ((w[1] - w[0]) / 2.0).max(0.05);
    ((v - (w[0] + w[1]) / 2.0) / half).powi(2)
}

fn judge(bench: &Bench, positions: Vec<f64>, angles: Alignment, t: &Target, with_toe: bool) -> SolvedSetting {
    let shortfall = Shortfall {
        camber_deg: outside(angles.camber_deg, t.camber),
        caster_deg: outside(angles.caster_deg, t.caster),
        toe_deg: if with_toe { outside(angles.toe_deg, t.toe) } else { 0.0 },
    };
    let centre = off_centre(angles.camber_deg, t.camber)
        + off_centre(angles.caster_deg, t.caster)
        + if with_toe { off_centre(angles.toe_deg, t.toe) } else { 0.0 };
    let movement = bench
        .adjusters
        .iter()
        .zip(&positions)
        .map(|(a, p)| {
            let [l, h] = a.range();
            (p - a.position).abs() / (h - l)
        })
        .sum();
    SolvedSetting { positions, angles, shortfall, centre, movement }
}

fn better(a: &SolvedSetting, b: &SolvedSetting) -> std::cmp::Ordering {
    let coarse = |v: f64, grain: f64| (v / grain).round();
    coarse(a.shortfall.sum(), 1e-6)
        .total_cmp(&coarse(b.shortfall.sum(), 1e-6))
        .then(coarse(a.centre, 1e-6).total_cmp(&coarse(b.centre, 1e-6)))
        .then(a.movement.total_cmp(&b.movement))
}

/// Positions an adjuster can take; the second value says whether they are only a first net.
fn grid(a: &Adjuster) -> (Vec<f64>, bool) {
    let [low, high] = a.range();
    match a.step() {
        Some(s) => {
            let first = (low / s - 1e-9).ceil() as i64;
            let last = (high / s + 1e-9).floor() as i64;
            let all: Vec<f64> = (first..=last).map(|k| k as f64 * s).collect();
            (if all.is_empty() { vec![a.position] } else { all }, false)
        }
        None => ((0..=24).map(|k| low + (high - low) * f64::from(k) / 24.0).collect(), true),
    }
}

/// The settings worth having for one wheel, best first; empty when none can be posed.
#[must_use]
pub fn solve(bench: &Bench, t: &Target) -> Vec<SolvedSetting> {
    let tie = bench.tie();
    let mut start = bench.start();
    toe_turns(bench, &mut start, t, false);
    let free: Vec<usize> = (0..start.len()).filter(|i| Some(*i) != tie).collect();
    let grids: Vec<(Vec<f64>, bool)> = free.iter().map(|i| grid(&bench.adjusters[*i])).collect();
    let count = grids.iter().try_fold(1usize, |n, g| n.checked_mul(g.0.len()));
    let try_one = |p: Vec<f64>| bench.angles(&p).ok().map(|a| judge(bench, p, a, t, false));
    let mut found: Vec<SolvedSetting> = Vec::new();
    if count.is_some_and(|n| n <= ENUMERATE) {
        let mut index = vec![0usize; free.len()];
        'all: loop {
            let mut p = start.clone();
            for (k, i) in free.iter().enumerate() {
                p[*i] = grids[k].0[index[k]];
            }
            found.extend(try_one(p));
            for k in 0..index.len() {
                index[k] += 1;
                if index[k] < grids[k].0.len() {
                    continue 'all;
                }
                index[k] = 0;
            }
            break;
        }
    } else {
        found.extend(descend(bench, t, &start, &free, &grids));
    }
    found.sort_by(better);
    found.truncate(KEEP);
    let mut out: Vec<SolvedSetting> = found
        .into_iter()
        .map(|s| refine(bench, t, s, &free, &grids))
        .filter_map(|mut s| {
            toe_turns(bench, &mut s.positions, t, true);
            if !grids.iter().any(|g| g.1) {
                return bench.angles(&s.positions).ok().map(|a| judge(bench, s.positions, a, t, true));
            }
            // Turning the rod moves camber and caster a little: bring plain cams back once.
            let a = bench.angles(&s.positions).ok()?;
            let again = judge(bench, s.positions, a, t, false);
            let mut p = refine(bench, t, again, &free, &grids).positions;
            toe_turns(bench, &mut p, t, true);
            bench.angles(&p).ok().map(|a| judge(bench, p, a, t, true))
        })
        .collect();
    out.sort_by(better);
    out
}

/// Steps each adjuster in turn to its best value, from the start and from the middle of the ranges.
fn descend(
    bench: &Bench,
    t: &Target,
    start: &[f64],
    free: &[usize],
    grids: &[(Vec<f64>, bool)],
) -> Vec<SolvedSetting> {
    let mut out = Vec::new();
    for middle in [false, true] {
        let mut p = start.to_vec();
        if middle {
            for (k, i) in free.iter().enumerate() {
                p[*i] = grids[k].0[grids[k].0.len() / 2];
            }
        }
        for _ in 0..12 {
            let before = p.clone();
            for (k, i) in free.iter().enumerate() {
                let best = grids[k]
                    .0
                    .iter()
                    .filter_map(|v| {
                        let mut q = p.clone();
                        q[*i] = *v;
                        bench.angles(&q).ok().map(|a| judge(bench, q, a, t, false))
                    })
                    .min_by(better);
                if let Some(b) = best {
                    p = b.positions;
                }
            }
            if p == before {
                break;
            }
        }
        out.extend(bench.angles(&p).ok().map(|a| judge(bench, p, a, t, false)));
    }
    out
}

/// Shrinking steps for adjusters without notches.
fn refine(
    bench: &Bench,
    t: &Target,
    mut best: SolvedSetting,
    free: &[usize],
    grids: &[(Vec<f64>, bool)],
) -> SolvedSetting {
    let loose: Vec<usize> = free.iter().zip(grids).filter(|(_, g)| g.1).map(|(i, _)| *i).collect();
    if loose.is_empty() {
        return best;
    }
    let mut scale = 1.0 / 24.0;
    while scale > 1e-5 {
        let mut moved = false;
        for &i in &loose {
            let [low, high] = bench.adjusters[i].range();
            for sign in [-1.0, 1.0] {
                let mut p = best.positions.clone();
                p[i] = (p[i] + sign * scale * (high - low)).clamp(low, high);
                if let Ok(a) = bench.angles(&p) {
                    let s = judge(bench, p, a, t, false);
                    if better(&s, &best).is_lt() {
                        best = s;
                        moved = true;
                    }
                }
            }
        }
        if !moved {
            scale *= 0.5;
        }
    }
    best
}

/// Sets the tie rod for toe: the coarsest fraction of a turn that lands in the window (quarters,
/// then flats of a hexagon, then twelfths, then twenty-fourths), or the nearest possible.
fn toe_turns(bench: &Bench, p: &mut [f64], t: &Target, in_steps: bool) {
    let Some(i) = bench.tie() else { return };
    let [low, high] = bench.adjusters[i].range();
    let middle = (t.toe[0] + t.toe[1]) / 2.0;
    let toe_at = |turns: f64, p: &[f64]| {
        let mut q = p.to_vec();
        q[i] = turns;
        bench.angles(&q).ok().map(|a| a.toe_deg)
    };
    let (mut a, mut b) = (p[i], p[i] + 0.5);
    let (Some(mut fa), Some(mut fb)) = (toe_at(a, p), toe_at(b, p)) else { return };
    for _ in 0..12 {
        if (fb - middle).abs() < 1e-9 || (fb - fa).abs() < 1e-12 {
            break;
        }
        let next = b + (middle - fb) * (b - a) / (fb - fa);
        let next = next.clamp(low - 1.0, high + 1.0);
        let Some(f) = toe_at(next, p) else { break };
        (a, fa, b, fb) = (b, fb, next, f);
    }
    let exact = b.clamp(low, high);
    if !in_steps {
        p[i] = exact;
        return;
    }
    let mut best = (f64::INFINITY, exact);
    for den in [4.0, 6.0, 12.0, 24.0] {
        // Turns are counted from where the rod stands.
        let from = bench.adjusters[i].position;
        let v = (from + ((exact - from) * den).round() / den).clamp(low, high);
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

/// A pair of settings with its score: violations, centres and sameness, movement.
type Scored<'a> = ((f64, f64, f64), (&'a SolvedSetting, &'a SolvedSetting));

/// Picks one setting a side: violations first (cross limits among them), then centres and sameness, then movement.
#[must_use]
pub fn pair<'a>(
    left: &'a [SolvedSetting],
    right: &'a [SolvedSetting],
    cross: (f64, f64),
) -> Option<(&'a SolvedSetting, &'a SolvedSetting)> {
    let score = |l: &SolvedSetting, r: &SolvedSetting| {
        let camber = (l.angles.camber_deg - r.angles.camber_deg).abs();
        let caster = (l.angles.caster_deg - r.angles.caster_deg).abs();
        let over = (camber - cross.0).max(0.0) + (caster - cross.1).max(0.0);
        let same = (camber / cross.0).powi(2) + (caster / cross.1).powi(2);
        (
            ((l.shortfall.sum() + r.shortfall.sum() + over) / 1e-6).round(),
            l.centre + r.centre + same,
            l.movement + r.movement,
        )
    };
    let mut best: Option<Scored<'a>> = None;
    for l in left {
        for r in right {
            let s = score(l, r);
            let wins = best.as_ref().is_none_or(|(b, _)| {
                s.0.total_cmp(&b.0).then(s.1.total_cmp(&b.1)).then(s.2.total_cmp(&b.2)).is_lt()
            });
            if wins {
                best = Some((s, (l, r)));
            }
        }
    }
    best.map(|(_, p)| p)
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::geometry::tests::sample;
    use crate::part::default_adjusters;

    fn bench() -> Bench {
        let g = sample();
        Bench {
            corner: Corner::new(&g.points, &g.wheel),
            adjusters: default_adjusters(5.0),
            travel_mm: -30.0,
            attitude: Attitude::default(),
        }
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
            link: crate::part::ThreadLink::Upper,
            pitch_mm: 1.75,
            ends: 1,
            turns: [-5.0, 5.0],
        };
        let s = b.sensitivity(&b.start());
        assert!((0.25..0.75).contains(&s[0].camber_deg.abs()), "{}", s[0].camber_deg);
    }

    #[test]
    fn turns_read_like_a_workshop() {
        for (t, w) in
            [(1.75, "1 3/4"), (2.0 / 3.0, "2/3"), (0.5, "1/2"), (3.0, "3"), (1.0 / 24.0, "1/24"), (0.0, "0")]
        {
            assert_eq!(turns(t), w);
        }
    }

    #[test]
    fn pairs_prefer_sides_that_agree() {
        let b = bench();
        let all = solve(&b, &AIM);
        let (l, r) = pair(&all, &all, (0.5, 0.5)).unwrap();
        assert_eq!(l.positions, r.positions);
    }
}
