//! Which sets of parts are worth posing: reach to first order as support functions, which add up over parts.
//!
//! A reach is nearly a zonotope; its support in a direction is where it is now plus the most each adjuster gives that
//! way. Supports of parts add, so a set costs a few sums, and the gap between two convex sets is the largest gap seen
//! in any direction (separating axis; any textbook on convex geometry). Sixteen directions are looked at.

use crate::part::Part;
use crate::plan::quick::{Linear, WEIGHT, linear};
use crate::plan::reach::Plane;
use crate::plan::solver::Target;
use crate::plan::work::Work;

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
            figures[0] += 0.5 * crate::plan::answer::toe_swing(&b, &toe);
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

#[cfg(test)]
mod tests {
    use super::*;
    use crate::plan::quick::quick;
    use crate::plan::{Aim, PlanInput, SideReadings, shipped_aims};
    use crate::vehicle::Measured;
    use proptest::prelude::*;

    fn input(aim: Aim) -> PlanInput {
        let read = |h, camber_deg, caster_deg| SideReadings {
            height_mm: h,
            angles: Measured { camber_deg, caster_deg, toe_deg: 0.05 },
            sigma: crate::fit::Doubt::default(),
        };
        PlanInput {
            height_change_mm: 60.0,
            ..PlanInput::unchanged(
                crate::geometry::tests::sample(),
                3220.0,
                498.0,
                crate::part::default_adjusters(3.2),
                [read(496.0, -0.15, 3.35), read(500.0, 0.0, 3.5)],
                aim,
            )
        }
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(24))]
        /// What adds up to first order is near what is posed: a set that reaches is not screened out, one that is
        /// far off is not let in. Sets of two parts of different places, aims anywhere about the car.
        #[test]
        fn the_screen_agrees_with_the_pose(
            a in 0usize..200, b in 0usize..200, camber in -1.5f64..1.5, caster in 1.0f64..7.0,
        ) {
            let mut aim = shipped_aims().unwrap().remove(0);
            aim.camber_deg = [camber - 0.2, camber + 0.2];
            aim.caster_deg = [caster - 0.4, caster + 0.4];
            let i = input(aim);
            let work = Work::new(&i).unwrap();
            let parts = crate::part::parts_for(&crate::part::shipped_parts().unwrap(), &i.geometry);
            let (a, b) = (a % parts.len(), b % parts.len());
            prop_assume!(parts[a].fits.replaces != parts[b].fits.replaces);
            let e = effects(&work, &parts, &[]).unwrap();
            prop_assume!(e.parts[a].is_some() && e.parts[b].is_some());
            let gap = e.gap(&[a as u16, b as u16]);
            let Some(q) = quick(&work, &[&parts[a], &parts[b]]) else { return Ok(()) };
            // Misses of camber and caster alone: toe is not screened on a steered wheel.
            let miss: f64 = q.sides.iter().map(|s| (s.out[0] * 2.0).hypot(s.out[1])).sum();
            prop_assert!(gap <= 1.25 * miss + 0.35, "screen {} posed {}", gap, miss);
            prop_assert!(miss <= 1.45 * gap + 0.5, "screen {} posed {}", gap, miss);
        }
    }
}
