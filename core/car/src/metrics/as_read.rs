//! The corner file's car bent to what was read on it, and how far its angles may be off.

use super::page::CornerFileRequest;
use crate::fit::{Doubt, Doubted, Sigmas, doubt, spreads};
use crate::vehicle::{Anchored, Axles, Gains, HeightState, Measured, StateKind, anchor, anchor_wheel};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Points, Side, WheelAtDesign};
use bold_stance_kinematics::linkage::{Corner, Linkage, Loop, Unreachable};
use bold_stance_kinematics::wheel::WheelState;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};

/// Every known corner of the car; once it is bent to its readings without what was turned at it then.
pub(super) type Corners = Vec<(Axle, Side, Corner)>;

/// The corners as they came in and as the plan sets them.
pub(super) fn before_and_after(r: &CornerFileRequest, bent: &Corners) -> [Corners; 2] {
    let with = |edits: &dyn Fn(Axle, Side) -> Option<Vec<Edit>>| -> Corners {
        let one = |(axle, side, c): &(Axle, Side, Corner)| {
            (*axle, *side, edits(*axle, *side).map_or_else(|| c.clone(), |e| c.edited(&e)))
        };
        bent.iter().map(one).collect()
    };
    [
        // An axle that nobody read stands as its points were taken.
        with(&|axle, side| r.reads(axle).then(|| r.start(axle, side).to_vec())),
        with(&|axle, side| r.edits(axle, side).map(|e| e.set.clone())),
    ]
}

/// Bends one front corner so that the car, standing as it arrived with its own lean and rake, shows what was
/// read over the ground. `None` when it does not steer.
fn on_ground(
    r: &CornerFileRequest,
    points: &Points,
    wheel: &WheelAtDesign,
    side: Side,
    read: &Measured,
    start: &[Edit],
) -> Result<Option<Anchored>, Unreachable> {
    let travel = -r.arrived.at(Axle::Front, side);
    let mut target = *read;
    let mut found = None;
    // The body turns angles by nearly as much as it leans: a few rounds reach the last digit.
    for _ in 0..6 {
        let a = match anchor(points, wheel, travel, start, &target) {
            Ok(a) => a,
            Err(e) if e.blocked == Loop::Unsteered => return Ok(None),
            Err(e) => return Err(e),
        };
        let here = [(Axle::Front, side, a.corner.edited(start))];
        let seen = r.car.state(&here, &r.arrived, Axles::default()).wheels.first().and_then(|w| w.wheel);
        found = Some(a);
        let Some((w, s)) = seen.and_then(|w| w.steer.map(|s| (w, s))) else { break };
        target.camber_deg += read.camber_deg - w.camber_deg;
        target.toe_deg += read.toe_deg - w.toe_deg;
        target.caster_deg += read.caster_deg - s.caster_deg;
    }
    Ok(found)
}

/// A corner whose readings sit far from its points, degrees.
fn bent(side: Side, axle: Axle, by_deg: f64) -> Said {
    said("car-bent").word("side", side.word()).word("axle", axle.word()).deg("by", by_deg, 1)
}

/// Bends the rear corners to what was read over the ground, like [`on_ground`].
pub(super) fn bend_rear(
    r: &CornerFileRequest,
    corners: &mut Corners,
    watch: &mut Vec<Said>,
) -> Result<(), Problem> {
    let (Some(read), Some(rear)) = (&r.read.rear, &r.car.rear) else { return Ok(()) };
    for (side, m) in read.each() {
        let m = &m.angles;
        let travel = -r.arrived.at(Axle::Rear, side);
        let (points, wheel) = rear.side(side);
        let start = r.start(Axle::Rear, side);
        let (mut camber, mut toe) = (m.camber_deg, m.toe_deg);
        let mut found = None;
        for _ in 0..6 {
            let a = anchor_wheel(&points, &wheel, travel, start, camber, toe).map_err(|e| {
                Problem::new(
                    format!("car.rear.{}", e.field()),
                    said("fault-open-at-height")
                        .word("side", side.word())
                        .word("axle", "rear")
                        .say("why", e.says()),
                    said("fault-measure-joint"),
                )
            })?;
            let here = [(Axle::Rear, side, a.corner.edited(start))];
            let seen = r.car.state(&here, &r.arrived, Axles::default()).wheels.first().and_then(|w| w.wheel);
            found = Some(a);
            let Some(w) = seen else { break };
            camber += m.camber_deg - w.camber_deg;
            toe += m.toe_deg - w.toe_deg;
        }
        let Some(found) = found else { continue };
        if found.anchor.largest_deg() > r.knowledge.rear.most_bent_deg() {
            watch.push(bent(side, Axle::Rear, found.anchor.largest_deg()));
        }
        if let Some(slot) = corners.iter_mut().find(|(a, s, _)| *a == Axle::Rear && *s == side) {
            slot.2 = found.corner;
        }
    }
    Ok(())
}

/// Bends the front corners to the readings; says what is suspicious.
pub(super) fn bend_front(
    r: &CornerFileRequest,
    corners: &mut Corners,
    watch: &mut Vec<Said>,
) -> Result<(), Problem> {
    let Some(read) = &r.read.front else { return Ok(()) };
    for (side, m) in read.each() {
        let m = &m.angles;
        let (points, wheel) = r.car.front.side(side);
        let found = match on_ground(r, &points, &wheel, side, m, r.start(Axle::Front, side)) {
            Ok(Some(f)) => f,
            // A front axle without a steering axis keeps its own angles.
            Ok(None) => return Ok(()),
            Err(e) => {
                return Err(Problem::new(
                    format!("car.front.{}", e.field()),
                    said("fault-open-at-height")
                        .word("side", side.word())
                        .word("axle", "front")
                        .say("why", e.says()),
                    said("fault-measure-joint"),
                ));
            }
        };
        if found.anchor.largest_deg() > r.knowledge.front.most_bent_deg() {
            watch.push(bent(side, Axle::Front, found.anchor.largest_deg()));
        }
        if let Some(slot) = corners.iter_mut().find(|(a, s, _)| *a == Axle::Front && *s == side) {
            slot.2 = found.corner;
        }
    }
    Ok(())
}

/// Standard deviation of the angles of a wheel nobody has read, degrees (judgement, no source).
const UNREAD: Sigmas = Sigmas { camber_deg: 0.4, caster_deg: 0.6, toe_deg: 0.15 };

/// Doubt of each corner at each state, in the order of the states.
pub(super) fn doubts(
    r: &CornerFileRequest,
    corners: &Corners,
    states: &[HeightState],
) -> Vec<Vec<Option<Doubt>>> {
    corners
        .iter()
        .map(|(axle, side, c)| {
            let at = |g: &Gains| -g.at(*axle, *side);
            let Some(geometry) = r.car.axle(*axle) else { return vec![None; states.len()] };
            let (points, wheel) = geometry.side(*side);
            let read_at = at(&r.arrived);
            let Ok(w) = c.wheel(read_at, 0.0) else { return vec![None; states.len()] };
            let start = if r.reads(*axle) { r.start(*axle, *side) } else { &[] };
            let planned = r.edits(*axle, *side).map_or(start, |e| &e.set);
            let own = Measured {
                camber_deg: w.camber_deg,
                toe_deg: w.toe_deg,
                caster_deg: w.steer.map_or(0.0, |s| s.caster_deg),
            };
            let sigma = r.read[*axle].map_or(UNREAD, |read| read[*side].sigma);
            let d = Doubted {
                points: &points,
                wheel: &wheel,
                read_at,
                start,
                planned: start,
                measured: &own,
                sigma,
                spreads: &spreads(&points, r.knowledge[*axle]),
                height_sigma_mm: 0.0,
                throws: &[],
            };
            let travels: Vec<f64> = states.iter().map(|s| at(&s.gains) + s.body_mm[*axle]).collect();
            let nothing = || vec![None; states.len()];
            let came = doubt(&d, &travels).unwrap_or_else(|_| nothing());
            let leaves = doubt(&Doubted { planned, ..d }, &travels).unwrap_or_else(|_| nothing());
            let both = states.iter().zip(came.into_iter().zip(leaves));
            let found = both.map(|(s, (a, b))| if s.kind == StateKind::Arrived { a } else { b });
            // The height's own doubt comes on top, by the slope of each angle there.
            found
                .zip(states)
                .map(|(d, s)| {
                    let d = d?;
                    let ends = [-s.band_mm, s.band_mm].map(|b| c.wheel(at(&s.gains) + b, 0.0).ok());
                    let [Some(low), Some(high)] = ends else { return Some(d) };
                    let caster = |w: &WheelState| w.steer.map_or(0.0, |s| s.caster_deg);
                    let with = |own: f64, a: f64, b: f64| own.hypot(0.5 * (b - a));
                    Some(Doubt {
                        camber_deg: with(d.camber_deg, low.camber_deg, high.camber_deg),
                        caster_deg: with(d.caster_deg, caster(&low), caster(&high)),
                        toe_deg: with(d.toe_deg, low.toe_deg, high.toe_deg),
                    })
                })
                .collect()
        })
        .collect()
}
