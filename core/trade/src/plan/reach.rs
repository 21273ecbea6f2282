//! Reach: every camber and caster (camber and toe at the rear) the adjusters can give at a height, traced with
//! exact kinematics, and what each of those settings shows at full lock.

use super::bench::Bench;
use super::locates::locates_only;
use bold_stance_car::adjuster::AdjusterKind;
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_kinematics::wheel::Alignment;
use serde::{Deserialize, Serialize};

/// Points along one adjuster's sweep of a woven outline.
const EDGE: usize = 16;
/// Most whole-step settings drawn.
const MOST_DOTS: usize = 400;
/// An adjuster that moves the plane less than this over its range is not part of the reach, degrees.
const IDLE: f64 = 0.03;

/// What the second axis of the plane is.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Plane {
    /// Camber and caster: a steered wheel.
    CamberCaster,
    /// Camber and toe: a wheel that does not steer.
    CamberToe,
}

/// Whether it is an area or only a line.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum ReachShape {
    /// A closed outline.
    Area,
    /// A line from end to end.
    Line,
}

/// Outline, threads (one a notch) and whole-notch dots; every point is `[camber, caster]`, or `[camber, toe]`, in
/// degrees.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Reach {
    /// Area or line.
    pub shape: ReachShape,
    /// The second axis.
    pub plane: Plane,
    /// Closed outline, last point joins the first; open for a line.
    pub outline: Vec<[f64; 2]>,
    /// One polyline per inner notch of each of the two strongest adjusters.
    pub threads: Vec<Vec<[f64; 2]>>,
    /// Whole-notch settings of those two.
    pub dots: Vec<[f64; 2]>,
    /// What moves it, strongest first.
    pub by: Vec<String>,
}

fn second(plane: Plane, a: &Alignment) -> [f64; 2] {
    match plane {
        Plane::CamberCaster => [a.camber_deg, a.caster_deg],
        Plane::CamberToe => [a.camber_deg, a.toe_deg],
    }
}

/// Positions along the edge of everything the adjusters can reach, and whether they close a ring.
struct Boundary {
    path: Vec<Vec<f64>>,
    shape: ReachShape,
    /// Movers, strongest first.
    movers: Vec<usize>,
}

/// The boundary of a nearly linear image of a box: adjusters flipped from end to end in the order of their
/// directions (the outline of a zonotope), each flip swept exactly.
fn boundary(bench: &Bench, positions: &[f64], plane: Plane, edge: usize) -> Option<Boundary> {
    let at = |p: &[f64]| bench.angles(p).ok().map(|a| second(plane, &a));
    let mut generators: Vec<(usize, [f64; 2])> = Vec::new();
    let centre: Vec<f64> = bench
        .adjusters
        .iter()
        .zip(positions)
        .map(|(a, p)| {
            let [low, high] = a.range();
            if matches!(a.kind, AdjusterKind::Sleeve { .. }) { *p } else { f64::midpoint(low, high) }
        })
        .collect();
    for (i, a) in bench.adjusters.iter().enumerate() {
        let toe_setter = bench.toe_by == Some(i) && plane == Plane::CamberCaster;
        if toe_setter || a.is_fixed() || locates_only(a) || matches!(a.kind, AdjusterKind::Sleeve { .. }) {
            continue;
        }
        let [low, high] = a.range();
        let with = |v: f64| {
            let mut p = centre.clone();
            p[i] = v;
            at(&p)
        };
        if let (Some(x), Some(y)) = (with(low), with(high)) {
            let d = [y[0] - x[0], y[1] - x[1]];
            if d[0].hypot(d[1]) > IDLE {
                generators.push((i, d));
            }
        }
    }
    let mut movers: Vec<(usize, f64)> = generators.iter().map(|(i, d)| (*i, d[0].hypot(d[1]))).collect();
    movers.sort_by(|a, b| b.1.total_cmp(&a.1));
    let movers: Vec<usize> = movers.into_iter().map(|m| m.0).collect();
    if generators.is_empty() {
        return None;
    }
    // Start with everything at the end that points down, then flip upward in the order of directions.
    let mut p = positions.to_vec();
    let mut flips: Vec<(usize, f64, f64, f64)> = generators
        .iter()
        .map(|(i, d)| {
            let [low, high] = bench.adjusters[*i].range();
            let up = d[1] > 0.0 || (d[1] == 0.0 && d[0] > 0.0);
            let angle = if up { d[1].atan2(d[0]) } else { (-d[1]).atan2(-d[0]) };
            if up { (*i, low, high, angle) } else { (*i, high, low, angle) }
        })
        .collect();
    flips.sort_by(|a, b| a.3.total_cmp(&b.3));
    flips.iter().for_each(|f| p[f.0] = f.1);
    let first = flips.first().map_or(0.0, |f| f.3);
    let spread = flips.iter().map(|f| (f.3 - first).sin().abs()).fold(0.0, f64::max);
    let shape = if flips.len() < 2 || spread < 0.03 { ReachShape::Line } else { ReachShape::Area };
    let mut path = Vec::new();
    let mut sweep = |p: &mut Vec<f64>, i: usize, from: f64, to: f64| {
        for k in 0..edge {
            let mut q = p.clone();
            q[i] = from + (to - from) * k as f64 / edge as f64;
            path.push(q);
        }
        p[i] = to;
    };
    for (i, from, to, _) in &flips {
        sweep(&mut p, *i, *from, *to);
    }
    if shape == ReachShape::Line {
        path.push(p);
    } else {
        for (i, from, to, _) in &flips {
            sweep(&mut p, *i, *to, *from);
        }
    }
    Some(Boundary { path, shape, movers })
}

/// Traces what the adjusters of the bench reach, the toe setter and locked ones where `positions` has them. `woven`
/// adds threads and dots. `None` when nothing moves it; settings that do not close are left out.
#[must_use]
pub fn reach(bench: &Bench, positions: &[f64], plane: Plane, woven: bool) -> Option<Reach> {
    let b = boundary(bench, positions, plane, if woven { EDGE } else { 6 })?;
    let at = |p: &[f64]| bench.angles(p).ok().map(|x| second(plane, &x));
    let outline: Vec<[f64; 2]> = b.path.iter().filter_map(|p| at(p)).collect();
    let by = b.movers.iter().map(|i| bench.adjusters[*i].name.clone()).collect();
    let mut out = Reach { shape: b.shape, plane, outline, threads: Vec::new(), dots: Vec::new(), by };
    if !woven {
        return Some(out);
    }
    let steps = |i: usize| -> Vec<f64> {
        let a = &bench.adjusters[i];
        let [l, h] = a.range();
        // Whole turns of a thread: quarters would hide the plane.
        let s = match a.kind {
            AdjusterKind::Thread { .. } => 1.0,
            _ => a.step().unwrap_or((h - l) / 8.0),
        };
        let (first, last) = ((l / s - 1e-9).ceil() as i64, (h / s + 1e-9).floor() as i64);
        (first..=last).map(|k| k as f64 * s).collect()
    };
    let put = |i: usize, v: f64, j: usize, w: f64| {
        let mut p = positions.to_vec();
        p[i] = v;
        p[j] = w;
        at(&p)
    };
    match b.movers.as_slice() {
        [only] => out.dots = steps(*only).iter().filter_map(|v| put(*only, *v, *only, *v)).collect(),
        [a, c, ..] => {
            let (na, nc) = (steps(*a), steps(*c));
            for (i, own, j) in [(*a, &na, *c), (*c, &nc, *a)] {
                let ([l, h], [l2, h2]) = (bench.adjusters[i].range(), bench.adjusters[j].range());
                for v in own.iter().filter(|v| **v > l + 1e-6 && **v < h - 1e-6) {
                    let line =
                        (0..=EDGE).filter_map(|k| put(i, *v, j, l2 + (h2 - l2) * k as f64 / EDGE as f64));
                    out.threads.push(line.collect());
                }
            }
            if na.len() * nc.len() <= MOST_DOTS {
                for v in &na {
                    out.dots.extend(nc.iter().filter_map(|w| put(*a, *v, *c, *w)));
                }
            }
        }
        [] => {}
    }
    Some(out)
}

/// Camber of a wheel at full lock.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LockCamber {
    /// On the outside of the turn, degrees, top out positive.
    pub outer_deg: f64,
    /// On the inside of the turn, degrees.
    pub inner_deg: f64,
}

/// Both wheels' turn at full lock, degrees, both positive.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LockTurn {
    /// Outside wheel, toe-in way.
    pub outer_deg: f64,
    /// Inside wheel, toe-out way.
    pub inner_deg: f64,
}

impl Bench {
    /// Camber of the wheel turned to full lock both ways about its steering axis, the arms standing still; `None`
    /// for a wheel that does not steer.
    #[must_use]
    pub fn at_lock(&self, positions: &[f64], turn: &LockTurn) -> Option<LockCamber> {
        let c: Corner = self.set(positions);
        let p = self.attitude.apply(&c.pose(self.travel_mm, 0.0).ok()?);
        p.axis?;
        let camber = |deg: f64| {
            bold_stance_kinematics::wheel::camber(&p.turned_to(deg.to_radians()).spin).to_degrees()
        };
        Some(LockCamber { outer_deg: camber(turn.outer_deg), inner_deg: camber(-turn.inner_deg) })
    }
}

/// The reach once more on the plane of camber at full lock: `[outside wheel, inside wheel]`, degrees.
#[must_use]
pub fn lock_reach(bench: &Bench, positions: &[f64], turn: &LockTurn) -> Vec<[f64; 2]> {
    let Some(b) = boundary(bench, positions, Plane::CamberCaster, 6) else { return Vec::new() };
    b.path.iter().filter_map(|p| bench.at_lock(p, turn).map(|l| [l.outer_deg, l.inner_deg])).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sample::sample;
    use bold_stance_car::adjuster::{Adjuster, ThreadLink, default_adjusters};
    use bold_stance_car::vehicle::Attitude;
    use proptest::prelude::*;

    /// Distance outside a ring, degrees; 0 inside.
    fn outside(p: [f64; 2], ring: &[[f64; 2]]) -> f64 {
        let (mut hit, mut near) = (false, f64::INFINITY);
        for (i, a) in ring.iter().enumerate() {
            let b = ring[(i + 1) % ring.len()];
            if (a[1] > p[1]) != (b[1] > p[1]) && p[0] < (b[0] - a[0]) * (p[1] - a[1]) / (b[1] - a[1]) + a[0] {
                hit = !hit;
            }
            let d = [b[0] - a[0], b[1] - a[1]];
            let t = (((p[0] - a[0]) * d[0] + (p[1] - a[1]) * d[1]) / (d[0] * d[0] + d[1] * d[1]).max(1e-12))
                .clamp(0.0, 1.0);
            near = near.min((p[0] - a[0] - t * d[0]).hypot(p[1] - a[1] - t * d[1]));
        }
        if hit { 0.0 } else { near }
    }

    fn bench(extra: bool) -> Bench {
        let g = sample();
        let mut a = default_adjusters(6.0);
        if extra {
            a.push(Adjuster {
                name: "Upper arm, rear link".into(),
                position: 0.0,
                unseen: false,
                locked: false,
                held: None,
                measured: false,
                known: None,
                kind: AdjusterKind::Thread {
                    link: ThreadLink::UpperRear,
                    pitch_mm: 1.5,
                    ends: 1,
                    turns: [-4.0, 4.0],
                    engaged_mm: None,
                    min_engaged_mm: None,
                    left_hand: None,
                },
            });
        }
        Bench::new(Corner::new(&g.points, &g.wheel), a, -40.0, Attitude::default())
    }

    #[test]
    fn two_cams_weave_an_area() {
        let b = bench(false);
        let r = reach(&b, &b.start(), Plane::CamberCaster, true).unwrap();
        assert_eq!((r.shape, r.outline.len(), r.dots.len(), r.threads.len()), (ReachShape::Area, 64, 81, 14));
        assert!(outside([5.0, 5.0], &r.outline) > 1.0);
    }

    #[test]
    fn one_cam_is_a_line_and_none_is_nothing() {
        let mut b = bench(false);
        b.adjusters[0].locked = true;
        let r = reach(&b, &b.start(), Plane::CamberCaster, true).unwrap();
        assert_eq!((r.shape, r.by.clone(), r.dots.len()), (ReachShape::Line, vec!["Rear cam".to_owned()], 9));
        b.adjusters[1].locked = true;
        assert!(reach(&b, &b.start(), Plane::CamberCaster, true).is_none());
    }

    proptest! {
        /// Two adjusters or three: no setting lies outside the outline, and the outline is made of settings.
        #[test]
        fn every_setting_lies_inside_and_the_boundary_is_attained(
            f in -90.0f64..90.0, q in -90.0f64..90.0, t in -4.0f64..4.0, extra: bool,
        ) {
            let b = bench(extra);
            let r = reach(&b, &b.start(), Plane::CamberCaster, true).unwrap();
            let mut p = b.start();
            (p[0], p[1]) = (f, q);
            if extra { p[3] = t; }
            let a = b.angles(&p).unwrap();
            // 1/16 of a cam's sweep is drawn straight; with three adjusters the flips follow mean directions: a grid of
            // 45 000 settings lies out by 0.043° at the most.
            let out = outside([a.camber_deg, a.caster_deg], &r.outline);
            prop_assert!(out < if extra { 0.05 } else { 0.006 }, "{}", out);
            let path = boundary(&b, &b.start(), Plane::CamberCaster, EDGE).unwrap().path;
            for (p, drawn) in path.iter().zip(&r.outline) {
                let [low, high] = b.adjusters[0].range();
                prop_assert!((low..=high).contains(&p[0]));
                let a = b.angles(p).unwrap();
                prop_assert!((a.camber_deg - drawn[0]).abs() < 1e-12 && (a.caster_deg - drawn[1]).abs() < 1e-12);
            }
        }
    }

    #[test]
    fn full_lock_turns_about_the_steering_axis() {
        // Rodrigues' rotation to first order in the axis's tilts (any kinematics textbook): turning by δ changes
        // camber by SAI (1 − cos δ) − caster sin δ on the outside wheel, + caster sin δ on the inside one.
        let b = bench(false);
        let here = b.angles(&b.start()).unwrap();
        let l = b.at_lock(&b.start(), &LockTurn { outer_deg: 30.0, inner_deg: 35.0 }).unwrap();
        let by_hand = |deg: f64, sign: f64| {
            let d = f64::to_radians(deg);
            here.camber_deg + here.sai_deg * (1.0 - d.cos()) - sign * here.caster_deg * d.sin()
        };
        assert!((l.outer_deg - by_hand(30.0, 1.0)).abs() < 0.15, "{l:?}");
        assert!((l.inner_deg - by_hand(35.0, -1.0)).abs() < 0.15, "{l:?}");
        let ring = lock_reach(&b, &b.start(), &LockTurn { outer_deg: 30.0, inner_deg: 35.0 });
        assert!(outside([l.outer_deg, l.inner_deg], &ring) < 1e-9);
    }
}
