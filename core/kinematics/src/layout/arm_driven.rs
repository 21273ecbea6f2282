//! The search shared by every layout that hangs on one swinging arm: the arm's angle is the only
//! unknown, the rest is closed form, and the wheel height is met by Newton with the exact rate. Where
//! Newton leaves the branch, the branch is followed from design in small steps to the travel asked for
//! or to the point where it ends.

use crate::linkage::{Loop, Unreachable};
use crate::wheel::Pose;
use bold_stance_units::numbers::edge;

/// Largest swing of the arm that is searched, rad.
const MAX_SWING: f64 = 1.3;
/// Marching step of the continuation, rad (about 2 mm of travel).
const MARCH: f64 = 0.005;
/// Wheel height counts as met below this, mm.
const CLOSE: f64 = 1e-10;

/// A pose at an arm angle and the rate of wheel height per radian there.
pub(super) struct At {
    pub pose: Pose,
    pub rate: f64,
}

/// A corner whose pose is a closed form of its arm's angle, zero at design.
pub(super) trait ArmDriven {
    /// The pose at `theta` rad.
    fn at(&self, theta: f64, rack: f64) -> Result<At, Loop>;
    /// Rate (mm/rad) and curvature (mm/rad²) of wheel height near design: the first guess.
    fn slope_and_bend(&self) -> (f64, f64);
    /// z of the wheel centre at design, mm.
    fn design_z(&self) -> f64;
}

/// Rate and curvature of wheel height from two poses either side of design; `radius` when they do not close.
pub(super) fn slope_and_bend(a: &impl ArmDriven, radius: f64) -> (f64, f64) {
    let (Ok(low), Ok(high)) = (a.at(-0.05, 0.0), a.at(0.05, 0.0)) else {
        return (radius, 0.0);
    };
    (f64::midpoint(low.rate, high.rate), (high.rate - low.rate) / 0.1)
}

/// The pose at a travel.
pub(super) fn solve(a: &impl ArmDriven, travel: f64, rack: f64) -> Result<Pose, Unreachable> {
    let target = a.design_z() + travel;
    match newton(a, target, rack, travel) {
        Some(p) => Ok(p),
        None => march(a, target, rack),
    }
}

/// Newton on the wheel height; `None` when it leaves the branch or does not settle.
pub(super) fn newton(a: &impl ArmDriven, target: f64, rack: f64, travel: f64) -> Option<Pose> {
    let (slope, bend) = a.slope_and_bend();
    let linear = travel / slope;
    let mut theta = linear - 0.5 * bend * linear * linear / slope;
    if !theta.is_finite() || theta.abs() > MAX_SWING {
        theta = linear.clamp(-0.8, 0.8);
    }
    for _ in 0..10 {
        let at = a.at(theta, rack).ok()?;
        if at.rate <= 0.0 {
            return None;
        }
        let miss = at.pose.centre.z - target;
        if miss.abs() < CLOSE {
            return Some(at.pose);
        }
        theta -= miss / at.rate;
        if theta.abs() > MAX_SWING {
            return None;
        }
    }
    None
}

/// Follows the branch from design in small steps; says where and why it ends.
pub(super) fn march(a: &impl ArmDriven, target: f64, rack: f64) -> Result<Pose, Unreachable> {
    let z0 = a.design_z();
    let stop = |blocked, z: f64| Unreachable::at(blocked, z - z0);
    let start = a.at(0.0, rack).map_err(|l| stop(l, z0))?;
    let step = if target >= start.pose.centre.z { MARCH } else { -MARCH };
    let (mut good, mut height) = (0.0, start.pose.centre.z);
    loop {
        let next = good + step;
        let tried = a.at(next, rack);
        match tried {
            Ok(at) if at.rate > 0.0 && f64::abs(next) <= MAX_SWING => {
                if (at.pose.centre.z - target) * step >= 0.0 {
                    return between(a, good, next, target, rack).map_err(|l| stop(l, height));
                }
                good = next;
                height = at.pose.centre.z;
            }
            other => {
                let blocked = other.err().unwrap_or(Loop::DeadPoint);
                // Where it ends, unless the target is met on the way there.
                let mut met = None;
                let _ = edge(good, next, 50, |mid| {
                    let Ok(at) = a.at(mid, rack) else { return false };
                    if at.rate <= 0.0 || met.is_some() {
                        return met.is_some();
                    }
                    height = at.pose.centre.z;
                    if (height - target) * step >= 0.0 {
                        met = Some(mid);
                    }
                    true
                });
                if let Some(mid) = met {
                    return between(a, good, mid, target, rack).map_err(|l| stop(l, height));
                }
                return Err(stop(blocked, height));
            }
        }
    }
}

/// Bisection between two arm angles that bracket the target height.
fn between(a: &impl ArmDriven, from: f64, to: f64, target: f64, rack: f64) -> Result<Pose, Loop> {
    let (low, high) = if from < to { (from, to) } else { (to, from) };
    let mut open = None;
    let [low, high] = edge(low, high, 80, |mid| match a.at(mid, rack) {
        Ok(at) => at.pose.centre.z < target,
        Err(e) => {
            open.get_or_insert(e);
            false
        }
    });
    if let Some(e) = open {
        return Err(e);
    }
    a.at(f64::midpoint(low, high), rack).map(|at| at.pose)
}
