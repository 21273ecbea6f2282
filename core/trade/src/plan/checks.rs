//! What a plan must not foul: joint angles, shafts, bucket, tyre, travel, thread, parallel bars.
//!
//! A figure is only as good as what was measured: where nothing was, the check says what it assumes or that it was
//! not measured. Limits where the car's own are not known are common practice, no source.

use super::bench::Bench;
use crate::part::PartLimits;
use bold_stance_car::adjuster::{AdjusterKind, LEAST_ENGAGED_MM};
use bold_stance_car::vehicle::Limits;
use bold_stance_kinematics::Vec3;
use bold_stance_kinematics::linkage::{BarKind, Corner, Linkage};
use bold_stance_kinematics::wheel::Pose;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// Ball joint from its middle, degrees.
const USUAL_JOINT: f64 = 30.0;
/// Outer drive-shaft joint running straight, degrees.
const USUAL_SHAFT: f64 = 23.0;
/// Droop taken where it was not measured, mm.
const USUAL_DROOP: f64 = 70.0;
/// Bump travel that should be left, mm.
const LEAST_TRAVEL: f64 = 25.0;
/// Upper arm to spring bucket, mm.
const LEAST_BUCKET_GAP: f64 = 3.0;
/// Tyre to strut, mm.
const LEAST_STRUT_GAP: f64 = 3.0;
/// Brake hose that should be slack at full droop, mm.
const LEAST_HOSE: f64 = 10.0;
/// Tyre to arch, mm.
const LEAST_ARCH_GAP: f64 = 15.0;
/// Track bar against drag link in front view, degrees.
const MOST_CROSSED: f64 = 3.0;
/// Tie rod from level seen from the front, degrees: past it toe follows every movement of the springs.
const MOST_TIE_ROD: f64 = 15.0;
/// Shaft joint inboard of the wheel centre, mm.
const SHAFT_INSET: f64 = 60.0;

/// What is checked.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CheckKind {
    /// Upper ball joint.
    UpperJoint,
    /// Lower ball joint.
    LowerJoint,
    /// Drive-shaft joint.
    Shaft,
    /// Arm to bucket.
    Bucket,
    /// Tyre to strut.
    StrutGap,
    /// Tyre to arch.
    Arch,
    /// Brake hose left at full droop.
    Hose,
    /// Droop left.
    Droop,
    /// Bump left.
    Bump,
    /// Thread engagement.
    Thread,
    /// Track bar and drag link.
    Parallel,
    /// Tie rod against level.
    TieRod,
}

/// One check.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Check {
    /// What.
    pub kind: CheckKind,
    /// Whether it holds.
    pub ok: bool,
    /// Whether a figure of this car stands behind it, or only a usual one.
    pub measured: bool,
    /// Figure found.
    pub value: f64,
    /// Figure it is held against.
    pub limit: f64,
    /// `°` or `mm`.
    pub unit: String,
    /// In words, with number and limit.
    pub words: Said,
}

impl Check {
    /// Whether something meets something, by a figure measured on this car or stated for the part; a usual limit, or
    /// an angle that only steers badly, is a remark.
    #[must_use]
    pub fn fouls(&self) -> bool {
        !self.ok && self.measured && !matches!(self.kind, CheckKind::TieRod | CheckKind::Parallel)
    }
}

/// A corner as set at the two heights at which something may meet.
struct Poses {
    droop: Option<Pose>,
    planned: Option<Pose>,
    droop_measured: bool,
}

/// Which of the two.
#[derive(Debug, Clone, Copy)]
enum At {
    Droop,
    Planned,
}

impl Poses {
    /// The larger of a figure at both.
    fn worst(&self, f: impl Fn(&Pose) -> Option<f64>) -> Option<(f64, At)> {
        [(&self.droop, At::Droop), (&self.planned, At::Planned)]
            .into_iter()
            .filter_map(|(p, at)| Some((f(p.as_ref()?)?, at)))
            .max_by(|a, b| a.0.total_cmp(&b.0))
    }

    fn words(&self, at: At) -> Said {
        match at {
            At::Planned => said("at-planned-height"),
            At::Droop if self.droop_measured => said("at-full-droop"),
            At::Droop => said("at-full-droop-taken").mm("taken", USUAL_DROOP),
        }
    }
}

/// How far one figure is past its limit.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Past {
    /// Mm of a gap, degrees of a joint; at most 0 where it holds.
    pub by: f64,
    /// Where a gap is closed; 0 for a joint.
    pub touches: f64,
}

impl Past {
    fn gap(gap: Option<f64>, least: f64) -> Self {
        Self { by: gap.map_or(0.0, |g| least - g), touches: least }
    }

    fn joint(by: f64) -> Self {
        Self { by, touches: 0.0 }
    }
}

/// Tyre to arch at one end of it, mm.
#[derive(Clone, Copy)]
struct ArchGap {
    place: &'static str,
    was: f64,
    now: f64,
}

/// One side of a plan to be checked.
pub(crate) struct Checked<'a> {
    /// Corner as found, adjusters where they stood.
    pub found: &'a Corner,
    /// Travel as found, mm.
    pub found_travel: f64,
    /// The plan's bench.
    pub bench: &'a Bench,
    /// Travel at the height that is checked, mm.
    pub travel_mm: f64,
    /// Its positions.
    pub positions: &'a [f64],
    /// Gain by ways that do not use travel, mm.
    pub free_gain: f64,
    /// What was measured.
    pub limits: &'a Limits,
    /// What the fitted parts change of it.
    pub parts: PartLimits,
    /// Loaded radius gained by the tyre, mm.
    pub tyre_gain: f64,
}

impl Checked<'_> {
    /// The corner as set, at full droop and at the planned height. Full droop is where the damper ends, at a travel that
    /// only ways outside the suspension move.
    fn poses(&self, c: &Corner) -> Poses {
        let droop_left = self.limits.droop_mm.unwrap_or(USUAL_DROOP) + self.parts.droop_mm.unwrap_or(0.0);
        let full_droop = self.found_travel - droop_left - self.free_gain;
        Poses {
            droop: c.pose(full_droop, 0.0).ok(),
            planned: c.pose(self.travel_mm, 0.0).ok(),
            droop_measured: self.limits.droop_mm.is_some(),
        }
    }

    /// How far each figure that was measured, and that a setting can change, is past its limit. The list is as long for
    /// every setting of a corner.
    pub(crate) fn past(&self) -> Vec<Past> {
        let c = self.bench.set(self.positions);
        let poses = self.poses(&c);
        let mut out = Vec::new();
        for (upper, own, part) in [
            (true, self.limits.upper_joint_deg, self.parts.upper_joint_deg),
            (false, self.limits.lower_joint_deg, self.parts.lower_joint_deg),
        ] {
            if let Some(limit) = part.or(own) {
                out.push(Past::joint(self.most_leant(&c, &poses, upper).map_or(0.0, |(v, _)| v - limit)));
            }
        }
        if let Some(limit) = self.parts.shaft_deg.or(self.limits.shaft_deg) {
            out.push(Past::joint(self.most_bent(&poses).map_or(0.0, |(v, _)| v - limit)));
        }
        if self.limits.bucket.is_some() {
            out.push(Past::gap(self.bucket_gap(&c, &poses), LEAST_BUCKET_GAP));
        }
        let measured = [self.limits.arch_front_mm, self.limits.arch_rear_mm];
        for (gap, _) in self.arch_gaps(&poses).into_iter().zip(measured).filter(|(_, m)| m.is_some()) {
            out.push(Past::gap(gap.map(|g| g.now), LEAST_ARCH_GAP));
        }
        if self.limits.strut_gap_mm.is_some() {
            out.push(Past::gap(self.strut_gap(&c, &poses), LEAST_STRUT_GAP));
        }
        out
    }

    /// Whether anything was measured that a setting can foul.
    pub(crate) fn can_foul(limits: &Limits, parts: &PartLimits) -> bool {
        let l = limits;
        let joints = [l.upper_joint_deg, l.lower_joint_deg, parts.upper_joint_deg, parts.lower_joint_deg];
        let shaft = l.shaft_inner.is_some() && l.shaft_deg.or(parts.shaft_deg).is_some();
        let gaps = [l.arch_front_mm, l.arch_rear_mm, l.strut_gap_mm];
        shaft || l.bucket.is_some() || joints.iter().chain(&gaps).any(Option::is_some)
    }

    /// Every check this layout has.
    pub(crate) fn run(&self) -> Vec<Check> {
        let mut out = Vec::new();
        let c = self.bench.set(self.positions);
        let planned = self.travel_mm;
        let poses = self.poses(&c);
        for (upper, kind, name, own, part) in [
            (true, CheckKind::UpperJoint, "upper", self.limits.upper_joint_deg, self.parts.upper_joint_deg),
            (false, CheckKind::LowerJoint, "lower", self.limits.lower_joint_deg, self.parts.lower_joint_deg),
        ] {
            let limit = part.or(own).unwrap_or(USUAL_JOINT);
            let worst = self.most_leant(&c, &poses, upper).map(|(v, at)| (v, poses.words(at)));
            if let Some((value, at)) = worst {
                let words = said("check-joint")
                    .word("which", name)
                    .deg("value", value, 0)
                    .deg("limit", limit, 0)
                    .say("at", at);
                out.push(check(kind, value <= limit, own.or(part).is_some(), value, limit, "°", words));
            }
        }
        self.shaft(&poses, &mut out);
        self.bucket(&c, &poses, &mut out);
        self.tyre(&c, &poses, &mut out);
        self.hose(&mut out);
        let gain = self.found_travel - planned - self.free_gain;
        for (kind, name, was, now) in [
            (
                CheckKind::Droop,
                "droop",
                self.limits.droop_mm,
                self.limits.droop_mm.map(|d| d + self.parts.droop_mm.unwrap_or(0.0) - gain),
            ),
            (CheckKind::Bump, "bump", self.limits.bump_mm, self.limits.bump_mm.map(|b| b + gain)),
        ] {
            if let (Some(was), Some(now)) = (was, now) {
                let words = said("check-travel")
                    .word("which", name)
                    .mm("now", now)
                    .mm("was", was)
                    .mm("least", LEAST_TRAVEL);
                out.push(check(kind, now >= LEAST_TRAVEL, true, now, LEAST_TRAVEL, "mm", words));
            }
        }
        self.threads(&mut out);
        self.parallel(&c, planned, &mut out);
        self.tie_rod(&c, planned, &mut out);
        out
    }

    fn tie_rod(&self, c: &Corner, planned: f64, out: &mut Vec<Check>) {
        // A live axle's tie rod rides with the axle: its height says nothing there.
        if matches!(c, Corner::Axle(_)) {
            return;
        }
        let lean = |c: &Corner, travel: f64| -> Option<f64> {
            let (_, bars) = c.bars(travel, 0.0).ok()?;
            let rod = bars.into_iter().find(|b| b.kind == BarKind::TieRod)?;
            let d = Vec3::from(rod.to) - Vec3::from(rod.from);
            Some(d.z.atan2(d.y.abs()).to_degrees())
        };
        let (Some(was), Some(now)) = (lean(self.found, self.found_travel), lean(c, planned)) else { return };
        let way = |lean: f64| if lean < 0.0 { "down" } else { "up" };
        let words = said("check-tie-rod")
            .deg("now", now.abs(), 0)
            .word("way", way(now))
            .deg("was", was.abs(), 0)
            .word("before", way(was))
            .deg("most", MOST_TIE_ROD, 0);
        let ok = now.abs() <= MOST_TIE_ROD;
        out.push(check(CheckKind::TieRod, ok, false, now.abs(), MOST_TIE_ROD, "°", words));
    }

    /// Lean of a ball joint's stud from the middle of its housing, taken as upright as found at design.
    fn joint_lean(&self, c: &Corner, now: &Pose, upper: bool) -> Option<f64> {
        let base = self.found.pose(0.0, 0.0).ok()?;
        let frame = |corner: &Corner, p: &Pose| -> Option<[Vec3; 3]> {
            let axis = p.axis?;
            let (pivots, joint) = match (corner, upper) {
                (Corner::Wishbone(w), true) => (&w.upper_pivots, axis.upper),
                (Corner::Wishbone(w), false) => (&w.lower_pivots, axis.lower),
                (Corner::Strut(s), false) => (&s.lower_pivots, axis.lower),
                _ => return None,
            };
            let x = (pivots[1] - pivots[0]).normalize();
            let off = joint - pivots[0];
            let y = (off - x * x.dot(&off)).normalize();
            Some([x, y, x.cross(&y)])
        };
        let stud = |p: &Pose| p.axis.map(|a| a.direction());
        let (was, is) = (frame(self.found, &base)?, frame(c, now)?);
        let (s0, s1) = (stud(&base)?, stud(now)?);
        let housing = is[0] * was[0].dot(&s0) + is[1] * was[1].dot(&s0) + is[2] * was[2].dot(&s0);
        Some(housing.dot(&s1).clamp(-1.0, 1.0).acos().to_degrees())
    }

    /// The worse of both heights: how far a ball joint leans, degrees.
    fn most_leant(&self, c: &Corner, poses: &Poses, upper: bool) -> Option<(f64, At)> {
        poses.worst(|p| self.joint_lean(c, p, upper))
    }

    /// The worse of both heights: how far the drive shaft's more bent joint bends, degrees.
    fn most_bent(&self, poses: &Poses) -> Option<(f64, At)> {
        let inner = self.limits.shaft_inner.map(Vec3::from)?;
        poses.worst(|p| {
            let d = (p.centre - p.spin * SHAFT_INSET - inner).normalize();
            let outer = d.dot(&p.spin).clamp(-1.0, 1.0).acos();
            let at_box = d.dot(&Vec3::y()).abs().clamp(0.0, 1.0).acos();
            Some(outer.max(at_box).to_degrees())
        })
    }

    fn shaft(&self, poses: &Poses, out: &mut Vec<Check>) {
        let limit = self.parts.shaft_deg.or(self.limits.shaft_deg).unwrap_or(USUAL_SHAFT);
        if let Some((value, at)) = self.most_bent(poses) {
            let words =
                said("check-shaft").deg("value", value, 0).deg("limit", limit, 0).say("at", poses.words(at));
            let measured = self.limits.shaft_deg.or(self.parts.shaft_deg).is_some();
            out.push(check(CheckKind::Shaft, value <= limit, measured, value, limit, "°", words));
        }
    }

    /// Upper arm to bucket at full droop, mm.
    fn bucket_gap(&self, c: &Corner, poses: &Poses) -> Option<f64> {
        let point = self.limits.bucket.map(Vec3::from)?;
        let (pivots, axis) = (c.upper_pivots()?, poses.droop.as_ref()?.axis?);
        // Centre line of the nearer leg of the arm; the arm's own half thickness is taken as 18 mm.
        const HALF_ARM: f64 = 18.0;
        let to_leg = |from: Vec3, to: Vec3| {
            let d = to - from;
            let t = ((point - from).dot(&d) / d.norm_squared()).clamp(0.0, 1.0);
            (point - (from + d * t)).norm()
        };
        let nearest = pivots.iter().map(|q| to_leg(*q, axis.upper)).fold(f64::INFINITY, f64::min);
        Some(nearest - HALF_ARM - self.parts.bucket_mm.unwrap_or(0.0))
    }

    fn bucket(&self, c: &Corner, poses: &Poses, out: &mut Vec<Check>) {
        let Some(gap) = self.bucket_gap(c, poses) else { return };
        let words = said("check-bucket").mm("gap", gap).mm("least", LEAST_BUCKET_GAP);
        out.push(check(CheckKind::Bucket, gap >= LEAST_BUCKET_GAP, true, gap, LEAST_BUCKET_GAP, "mm", words));
    }

    /// Tyre to arch ahead and behind at the planned height, where each was measured.
    fn arch_gaps(&self, poses: &Poses) -> [Option<ArchGap>; 2] {
        let back = match (&poses.planned, self.found.pose(self.found_travel, 0.0)) {
            (Some(p), Ok(was)) => p.centre.x - was.centre.x,
            _ => return [None; 2],
        };
        [("ahead", self.limits.arch_front_mm, back), ("behind", self.limits.arch_rear_mm, -back)].map(
            |(place, was, moved)| was.map(|was| ArchGap { place, was, now: was - moved - self.tyre_gain }),
        )
    }

    /// The tyre's inner shoulder at its top against the strut's line, mm, at the planned height.
    fn strut_gap(&self, c: &Corner, poses: &Poses) -> Option<f64> {
        let gap = self.limits.strut_gap_mm?;
        let (p, was) = (poses.planned.as_ref()?, self.found.pose(self.found_travel, 0.0).ok()?);
        let distance = |s: &Corner, p: &Pose, grown: f64| {
            let top = p.axis.map_or(p.centre, |a| a.upper);
            let line = (top - s.strut_foot(p)?).normalize();
            // Upright in the plane of the wheel: it leans with the tilt in the knuckle, the knuckle does not.
            let up = (p.up - p.spin * p.spin.dot(&p.up)).normalize();
            let shoulder = p.centre + up * ((c.loaded_radius() + grown) * 0.95);
            let d = shoulder - top;
            Some((d - line * d.dot(&line)).norm())
        };
        Some(gap + distance(c, p, self.tyre_gain)? - distance(self.found, &was, 0.0)?)
    }

    fn tyre(&self, c: &Corner, poses: &Poses, out: &mut Vec<Check>) {
        for ArchGap { place, was, now } in self.arch_gaps(poses).into_iter().flatten() {
            let words = said("check-arch")
                .mm("now", now)
                .word("where", place)
                .mm("was", was)
                .mm("least", LEAST_ARCH_GAP);
            out.push(check(CheckKind::Arch, now >= LEAST_ARCH_GAP, true, now, LEAST_ARCH_GAP, "mm", words));
        }
        let (Some(was), Some(value)) = (self.limits.strut_gap_mm, self.strut_gap(c, poses)) else { return };
        let words =
            said("check-strut").fine_mm("now", value).fine_mm("was", was).mm("least", LEAST_STRUT_GAP);
        let ok = value >= LEAST_STRUT_GAP;
        out.push(check(CheckKind::StrutGap, ok, true, value, LEAST_STRUT_GAP, "mm", words));
    }

    /// What is left of the brake hose at full droop: a part that lets the wheel droop farther and brackets that lower it
    /// from the body use it up; the springs' own travel does not.
    fn hose(&self, out: &mut Vec<Check>) {
        let Some(was) = self.limits.hose_mm else { return };
        let now = was - self.parts.droop_mm.unwrap_or(0.0) - self.free_gain;
        let words = said("check-hose").mm("now", now).mm("was", was).mm("least", LEAST_HOSE);
        out.push(check(CheckKind::Hose, now >= LEAST_HOSE, true, now, LEAST_HOSE, "mm", words));
    }

    fn threads(&self, out: &mut Vec<Check>) {
        for (a, p) in self.bench.adjusters.iter().zip(self.positions) {
            if let AdjusterKind::Thread { pitch_mm, engaged_mm: Some(engaged), min_engaged_mm, .. } = &a.kind
            {
                let limit = min_engaged_mm.unwrap_or(LEAST_ENGAGED_MM);
                let value = engaged - pitch_mm * p.max(0.0);
                let words =
                    said("check-thread").name("name", a.name.clone()).mm("now", value).mm("least", limit);
                out.push(check(CheckKind::Thread, value >= limit - 1e-9, true, value, limit, "mm", words));
            }
        }
    }

    fn parallel(&self, c: &Corner, planned: f64, out: &mut Vec<Check>) {
        let Corner::Axle(axle) = c else { return };
        let Ok(pose) = axle.axle_pose(planned, 0.0) else { return };
        let bar = axle.link_ends(&pose).into_iter().find(|(n, _, _)| n == "track_bar");
        let (Some((_, a, b)), Some([d0, d1])) = (bar, axle.drag_ends(&pose)) else { return };
        let lean = |from: Vec3, to: Vec3| {
            let v = if to.y > from.y { to - from } else { from - to };
            v.z.atan2(v.y).to_degrees()
        };
        let value = (lean(a, b) - lean(d0, d1)).abs();
        let words = said("check-parallel").deg("value", value, 1).deg("most", MOST_CROSSED, 0);
        out.push(check(CheckKind::Parallel, value <= MOST_CROSSED, true, value, MOST_CROSSED, "°", words));
    }
}

fn check(
    kind: CheckKind,
    ok: bool,
    measured: bool,
    value: f64,
    limit: f64,
    unit: &str,
    words: Said,
) -> Check {
    Check { kind, ok, measured, value, limit, unit: unit.into(), words }
}

/// What several parts change together: the weakest joint, clearances added up.
pub(crate) fn together<'a>(parts: impl Iterator<Item = &'a PartLimits>) -> PartLimits {
    let mut out = PartLimits::default();
    let least = |a: Option<f64>, b: Option<f64>| match (a, b) {
        (Some(a), Some(b)) => Some(a.min(b)),
        (a, b) => a.or(b),
    };
    let sum = |a: Option<f64>, b: Option<f64>| match (a, b) {
        (Some(a), Some(b)) => Some(a + b),
        (a, b) => a.or(b),
    };
    for p in parts {
        out.upper_joint_deg = least(out.upper_joint_deg, p.upper_joint_deg);
        out.lower_joint_deg = least(out.lower_joint_deg, p.lower_joint_deg);
        out.shaft_deg = least(out.shaft_deg, p.shaft_deg);
        out.bucket_mm = sum(out.bucket_mm, p.bucket_mm);
        out.droop_mm = sum(out.droop_mm, p.droop_mm);
    }
    out
}
