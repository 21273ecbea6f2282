//! Which sets of parts are worth posing: reach to first order as support functions, which add up over parts.
//!
//! A reach is nearly a zonotope; its support in a direction is where it is now plus the most each adjuster gives that
//! way. Supports of parts add, so a set costs a few sums, and the gap between two convex sets is the largest gap seen
//! in any direction (separating axis; any textbook on convex geometry). Sixteen directions are looked at.

use super::quick::{Linear, WEIGHT, linear};
use super::reach::Plane;
use super::solver::Target;
use super::work::Work;
use crate::part::Part;

const DIRECTIONS: usize = 16;
type Support = [f64; DIRECTIONS];

/// What a part does to both sides, to first order.
pub(crate) struct Effects {
    pub base: [Support; 2],
    pub parts: Vec<Option<Deltas>>,
    window: Support,
}

/// One part's share.
#[derive(Debug, Clone)]
pub(crate) struct Deltas {
    pub support: [Support; 2],
    /// Change of the toe swing over height, degrees; lower is better.
    pub bump: f64,
    /// Change of scrub and axis lean, mm and degrees.
    pub scrub_mm: f64,
    pub sai_deg: f64,
}

fn direction(k: usize) -> (f64, f64) {
    let a = std::f64::consts::TAU * k as f64 / DIRECTIONS as f64;
    (a.cos(), a.sin())
}

/// Weighed plane coordinates: the second axis is caster, or toe where the wheel does not steer.
fn weigh(v: &[f64; 3], plane: Plane) -> (f64, f64) {
    match plane {
        Plane::CamberCaster => (v[0] * WEIGHT[0], v[1] * WEIGHT[1]),
        Plane::CamberToe => (v[0] * WEIGHT[0], v[2] * WEIGHT[2]),
    }
}

fn support(l: &Linear, plane: Plane, toe_by: Option<usize>) -> Support {
    let here = weigh(&l.here, plane);
    std::array::from_fn(|k| {
        let (x, y) = direction(k);
        let mut h = here.0 * x + here.1 * y;
        for ((s, room), i) in l.slopes.iter().zip(&l.room).zip(&l.which) {
            // On a steered wheel the tie rod is kept for toe.
            if plane == Plane::CamberCaster && toe_by == Some(*i) {
                continue;
            }
            let (a, b) = weigh(s, plane);
            let d = a * x + b * y;
            h += (d * room[0]).max(d * room[1]);
        }
        h
    })
}

/// Effects of every part alone; `None` for one that does not close.
pub(crate) fn effects(work: &Work<'_>, parts: &[Part], with: &[&Part]) -> Option<Effects> {
    let plane = work.plane;
    let one = |list: &[&Part]| -> Option<([Support; 2], [f64; 3])> {
        let mut out = [[0.0; DIRECTIONS]; 2];
        let mut figures = [0.0; 3];
        for (i, o) in out.iter_mut().enumerate() {
            let b = work.bench(i, list);
            let l = linear(&b)?;
            *o = support(&l, plane, b.toe_by);
            let toe = b.with_toe(0.0);
            let a = b.angles(&toe).ok()?;
            figures[0] += 0.5 * super::answer::toe_swing(&b, &toe);
            figures[1] += 0.5 * a.scrub_radius_mm;
            figures[2] += 0.5 * a.sai_deg;
        }
        Some((out, figures))
    };
    let (base, was) = one(with)?;
    let parts = parts
        .iter()
        .map(|p| {
            let mut list = with.to_vec();
            list.push(p);
            let (s, now) = one(&list)?;
            let support: [Support; 2] = [0, 1].map(|i| std::array::from_fn(|k| s[i][k] - base[i][k]));
            Some(Deltas {
                support,
                bump: now[0] - was[0],
                scrub_mm: now[1] - was[1],
                sai_deg: now[2] - was[2],
            })
        })
        .collect();
    let t: &Target = &work.target;
    let (x, y) = match plane {
        Plane::CamberCaster => (t.camber.map(|v| v * WEIGHT[0]), t.caster.map(|v| v * WEIGHT[1])),
        Plane::CamberToe => (t.camber.map(|v| v * WEIGHT[0]), t.toe.map(|v| v * WEIGHT[2])),
    };
    let window = std::array::from_fn(|k| {
        let (a, b) = direction(k);
        (a * x[0]).max(a * x[1]) + (b * y[0]).max(b * y[1])
    });
    Some(Effects { base, parts, window })
}

impl Effects {
    /// Weighed degrees both sides stay short of the window with these parts, to first order.
    pub(crate) fn gap(&self, set: &[u16]) -> f64 {
        let mut total = 0.0;
        for side in 0..2 {
            let mut h = self.base[side];
            for d in set.iter().filter_map(|p| self.parts[usize::from(*p)].as_ref()) {
                h.iter_mut().zip(&d.support[side]).for_each(|(h, d)| *h += d);
            }
            let mut gap = 0.0f64;
            for k in 0..DIRECTIONS {
                // Nearest of the reach in direction k against the farthest of the window.
                let back = h[(k + DIRECTIONS / 2) % DIRECTIONS];
                gap = gap.max(-back - self.window[k]);
            }
            total += gap;
        }
        total
    }
}
