//! Which sets of parts are worth posing: reach to first order as support functions, which add up over parts.
//!
//! A reach is nearly a zonotope; its support in a direction is where it is now plus the most each adjuster gives that
//! way. Supports of parts add, so a set costs a few sums, and the gap between two convex sets is the largest gap seen
//! in any direction (separating axis; any textbook on convex geometry). Sixteen directions are looked at.

use crate::part::Part;
use crate::plan::quick::{Linear, WEIGHT, linear};
use crate::plan::reach::Plane;
use crate::plan::work::Work;
use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::linkage::BarKind;
use rayon::prelude::*;

const DIRECTIONS: usize = 16;
type Support = [f64; DIRECTIONS];

/// Turn of an arm from which a part is one the others are measured on, degrees.
const TURNS_ARMS: f64 = 1.0;

/// Turns this near are served by one table, degrees, and how many tables there are at most: a catalogue ten times
/// as large brings more sizes of the same, not more kinds.
const ALIKE_DEG: f64 = 1.0;
const TABLES: usize = 12;

/// What parts do to both sides, to first order.
pub(crate) struct Effects {
    here: [Support; 2],
    /// What each part does on the car as it is, then on the car with a part that turns the arms: a part does
    /// something else to arms that stand at another angle. `None` where it does not close.
    tables: Vec<Vec<Option<Deltas>>>,
    /// The table of a part that turns the arms, and by how much.
    brings: Vec<Option<(usize, f64)>>,
    windows: [Support; 2],
}

/// One part's share.
struct Deltas {
    support: [Support; 2],
    figures: Figures,
}

/// Changes that need no posing to be ranked by.
#[derive(Debug, Clone, Copy, Default)]
pub(crate) struct Figures {
    /// Change of the toe swing over height, degrees; lower is better.
    pub bump: f64,
    /// Change of scrub radius, mm.
    pub scrub_mm: f64,
    /// Change of axis lean, degrees.
    pub sai_deg: f64,
}

impl Figures {
    fn and(self, by: Self, times: f64) -> Self {
        Self {
            bump: self.bump + times * by.bump,
            scrub_mm: self.scrub_mm + times * by.scrub_mm,
            sai_deg: self.sai_deg + times * by.sai_deg,
        }
    }
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
        for c in &l.clocked {
            let along = |(_, by): &(f64, [f64; 3])| {
                let (a, b) = weigh(by, plane);
                a * x + b * y
            };
            h += c.places.iter().map(along).fold(f64::NEG_INFINITY, f64::max).max(-1e3);
        }
        h
    })
}

/// Supports and figures of both sides with some parts; `None` when it does not close.
fn measure(work: &Work<'_>, list: &[&Part]) -> Option<([Support; 2], Figures)> {
    let mut out = [[0.0; DIRECTIONS]; 2];
    let mut figures = Figures::default();
    for (i, o) in out.iter_mut().enumerate() {
        let b = work.bench(i, list);
        let l = linear(&b)?;
        *o = support(&l, work.plane, b.toe_by);
        let toe = b.with_toe(0.0);
        let a = b.angles(&toe).ok()?;
        let bump = crate::plan::answer::toe_swing(&b, &toe);
        figures = figures.and(Figures { bump, scrub_mm: a.scrub_radius_mm, sai_deg: a.sai_deg }, 0.5);
    }
    Some((out, figures))
}

/// Directions of the arms and links of the left side; a strut is not one of them, it follows.
fn arms(work: &Work<'_>, list: &[&Part]) -> Option<Vec<Vec3>> {
    let b = work.bench(0, list);
    let (_, bars) = b.set(&b.start()).bars(b.travel_mm, 0.0).ok()?;
    let arm = |k| matches!(k, BarKind::UpperArm | BarKind::LowerArm | BarKind::Link | BarKind::SwingArm);
    Some(bars.iter().filter(|x| arm(x.kind)).map(|x| Vec3::from(x.to) - Vec3::from(x.from)).collect())
}

/// Most any arm is turned up or down against how it was, degrees.
fn turn(was: &[Vec3], now: &[Vec3]) -> f64 {
    let slope = |v: &Vec3| v.z.atan2(v.x.hypot(v.y)).to_degrees();
    was.iter().zip(now).map(|(w, v)| (slope(v) - slope(w)).abs()).fold(0.0, f64::max)
}

/// Effects of every part on the car as it is and on the car with parts that turn the arms; `None` when the car as
/// it is does not close.
pub(crate) fn effects(work: &Work<'_>, parts: &[Part]) -> Option<Effects> {
    let (here, _) = measure(work, &[])?;
    let table = |on: Option<&Part>| -> Option<Vec<Option<Deltas>>> {
        let base: Vec<&Part> = on.into_iter().collect();
        let (was, before) = measure(work, &base)?;
        let one = |p: &Part| -> Option<Deltas> {
            if on.is_some_and(|o| o.fits.replaces == p.fits.replaces) {
                return None;
            }
            let list: Vec<&Part> = on.into_iter().chain([p]).collect();
            let (s, now) = measure(work, &list)?;
            let support: [Support; 2] = [0, 1].map(|i| std::array::from_fn(|k| s[i][k] - was[i][k]));
            Some(Deltas { support, figures: now.and(before, -1.0) })
        };
        Some(parts.par_iter().map(one).collect())
    };
    let mut tables = vec![table(None)?];
    let mut brings = vec![None; parts.len()];
    let stand = arms(work, &[])?;
    let mut turners: Vec<(usize, f64)> = parts
        .par_iter()
        .enumerate()
        .filter_map(|(i, p)| Some((i, turn(&stand, &arms(work, &[p])?))))
        .filter(|(_, t)| *t > TURNS_ARMS)
        .collect();
    turners.sort_by(|a, b| b.1.total_cmp(&a.1));
    // (place, turn, table) of the parts that were measured on.
    let mut kinds: Vec<(&str, f64, usize)> = Vec::new();
    for (i, by) in turners {
        let place = parts[i].fits.replaces.as_str();
        let alike = |k: &&(&str, f64, usize)| k.0 == place && (k.1 - by).abs() < ALIKE_DEG;
        let near = |k: &&(&str, f64, usize)| k.0 == place || kinds.iter().all(|o| o.0 != place);
        let shared = kinds.iter().find(alike).or_else(|| {
            let full = kinds.len() >= TABLES;
            let off = |k: &&(&str, f64, usize)| (k.1 - by).abs();
            kinds.iter().filter(|_| full).filter(near).min_by(|a, b| off(a).total_cmp(&off(b)))
        });
        if let Some(k) = shared {
            brings[i] = Some((k.2, by));
        } else if let Some(t) = table(Some(&parts[i])) {
            brings[i] = Some((tables.len(), by));
            kinds.push((place, by, tables.len()));
            tables.push(t);
        }
    }
    let windows = work.targets.map(|t| {
        let (x, y) = match work.plane {
            Plane::CamberCaster => (t.camber.map(|v| v * WEIGHT[0]), t.caster.map(|v| v * WEIGHT[1])),
            Plane::CamberToe => (t.camber.map(|v| v * WEIGHT[0]), t.toe.map(|v| v * WEIGHT[2])),
        };
        std::array::from_fn(|k| {
            let (a, b) = direction(k);
            (a * x[0]).max(a * x[1]) + (b * y[0]).max(b * y[1])
        })
    });
    Some(Effects { here, tables, brings, windows })
}

impl Effects {
    /// Whether a part closes on any of the cars it was measured on.
    pub(crate) fn closes(&self, part: usize) -> bool {
        self.tables.iter().any(|t| t[part].is_some())
    }

    /// Weighed degrees both sides stay short of the window with these parts, to first order, and what changes
    /// besides; the gap is infinite where a part does not close. The part that turns the arms most counts as on the
    /// car as it is, the others as on the car with it.
    pub(crate) fn of(&self, set: &[u16]) -> (f64, Figures) {
        let brought = |p: &u16| self.brings[usize::from(*p)].map(|(t, by)| (*p, t, by));
        let first = set.iter().filter_map(brought).max_by(|a, b| a.2.total_cmp(&b.2));
        let mut figures = Figures::default();
        let mut reach = self.here;
        for p in set {
            let table = first.filter(|(f, _, _)| f != p).map_or(0, |(_, t, _)| t);
            // Measured nowhere near: a rival for the place of the part the table is for.
            let on = |t: usize| self.tables[t][usize::from(*p)].as_ref();
            let Some(d) = on(table).or_else(|| on(0)) else { return (f64::INFINITY, figures) };
            figures = figures.and(d.figures, 1.0);
            for (h, d) in reach.iter_mut().zip(&d.support) {
                h.iter_mut().zip(d).for_each(|(h, d)| *h += d);
            }
        }
        // Nearest of the reach in each direction against the farthest of the window.
        let short = |(h, window): (&Support, &Support)| {
            (0..DIRECTIONS).map(|k| -h[(k + DIRECTIONS / 2) % DIRECTIONS] - window[k]).fold(0.0f64, f64::max)
        };
        (reach.iter().zip(&self.windows).map(short).sum(), figures)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::aim::{Aim, shipped_aims};
    use crate::plan::quick::{Quick, quick};
    use crate::plan::{Budget, PlanInput, SideReadings, Unread};
    use bold_stance_car::vehicle::Measured;

    fn input(aim: Aim) -> PlanInput {
        let read = |h, camber_deg, caster_deg| SideReadings {
            height_mm: h,
            angles: Measured { camber_deg, caster_deg, toe_deg: 0.05 },
            sigma: bold_stance_car::fit::Sigmas::default(),
            unread: Unread::default(),
        };
        PlanInput::unchanged(
            crate::sample::sample(),
            3220.0,
            498.0,
            bold_stance_car::adjuster::default_adjusters(3.2),
            [read(496.0, -0.15, 3.35), read(500.0, 0.0, 3.5)],
            aim,
        )
        .lifted(60.0)
    }

    /// Sets of two parts of different places, all of them, at aims about the car: with each the gap to first order
    /// and the miss as posed, weighed degrees of both sides (toe is not screened on a steered wheel).
    fn pairs(camber: f64, caster: f64) -> Vec<(f64, f64)> {
        let mut aim = shipped_aims().unwrap().remove(0);
        aim.camber_deg = [camber - 0.2, camber + 0.2];
        aim.caster_deg = [caster - 0.4, caster + 0.4];
        let i = input(aim);
        let work = Work::new(&i, Budget::default()).unwrap();
        let parts = crate::part::parts_for(&crate::part::shipped_parts().unwrap(), &i.geometry);
        let e = effects(&work, &parts).unwrap();
        let miss = |q: &Quick| q.sides.iter().map(|s| (s.out[0] * 2.0).hypot(s.out[1])).sum::<f64>();
        // The car as it is: near on both sides.
        let (bare, posed) = (e.of(&[]).0, quick(&work, &[]).map_or(0.0, |q| miss(&q)));
        assert!(bare <= 1.25 * posed + 0.35 && posed <= 1.45 * bare + 0.5, "screen {bare} posed {posed}");
        let all: Vec<(usize, usize)> =
            (0..parts.len()).flat_map(|a| (a + 1..parts.len()).map(move |b| (a, b))).collect();
        all.par_iter()
            .filter(|(a, b)| parts[*a].fits.replaces != parts[*b].fits.replaces)
            .filter_map(|(a, b)| {
                let q = quick(&work, &[&parts[*a], &parts[*b]])?;
                Some((e.of(&[*a as u16, *b as u16]).0, miss(&q)))
            })
            .collect()
    }

    /// What reaches is not screened out, and what is far off is not let in. One let in wrongly costs a pose and
    /// nothing else.
    #[test]
    fn the_screen_agrees_with_the_pose() {
        for (camber, caster) in [(0.0, 4.2), (0.0, 4.9), (-0.7, 3.0), (-1.0, 6.0), (0.5, 2.5), (-0.3, 5.5)] {
            let all = pairs(camber, caster);
            let share = |of: &dyn Fn(f64) -> bool, have: &dyn Fn(f64) -> bool| {
                let of: Vec<f64> = all.iter().filter(|x| of(x.1)).map(|x| x.0).collect();
                assert!(of.len() > 80, "{camber} {caster}: {} pairs", of.len());
                of.iter().filter(|g| have(**g)).count() as f64 / of.len() as f64
            };
            let reaches = |miss: f64| miss < 0.05;
            assert!(share(&reaches, &|gap| gap <= 0.15) >= 0.98, "{camber} {caster}");
            assert!(share(&reaches, &|gap| gap <= 1.0) == 1.0, "{camber} {caster}");
            assert!(share(&|miss| miss > 2.0, &|gap| gap > 0.5) >= 0.97, "{camber} {caster}");
        }
    }
}
