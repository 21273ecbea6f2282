//! The whole Plan answer: both sides, their reach, their setting, and what each part would do.

use super::aim::Aim;
use super::curves::{CurvePoint, Drawing, curve, doubt_at, draw};
use super::input::{PlanInput, SideReadings};
use super::reach::{Reach, reach};
use super::solver::{Bench, Sensitivity, SettingLine, Shortfall, SolvedSetting, Target, pair, solve};
use super::words;
use crate::fit::{Doubt, Doubted, doubt};
use crate::geometry::Side as SideName;
use crate::linkage::{Linkage, Unreachable};
use crate::part::{Adjuster, Edit, Part};
use crate::problem::Problem;
use crate::vehicle::{Anchor, Anchored, Attitude, anchor};
use crate::wheel::Alignment;
use serde::{Deserialize, Serialize};

/// Heights of a curve.
const HEIGHTS: usize = 41;

/// The planned height cannot be reached: the answer is worked out at the last good height instead.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Stop {
    /// The height gain asked for, mm.
    pub asked_mm: f64,
    /// The height gain the answer is for, mm.
    pub used_mm: f64,
    /// Which loop stops, and where.
    pub words: String,
}

/// One front corner.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SidePlan {
    /// As found, from the readings.
    pub before: Alignment,
    /// At the planned height with the fitted parts, adjusters untouched.
    pub after: Alignment,
    /// The same with the setting applied.
    pub set: Alignment,
    /// Planned hub-to-arch height, mm.
    pub planned_height_mm: f64,
    /// Half widths of the 90 % bands at the planned height.
    pub doubt: Doubt,
    /// How far the geometry was bent to meet the readings.
    pub anchor: Anchor,
    /// Reach of the cams with the fitted parts.
    pub reach: Option<Reach>,
    /// Reach without any part, when parts are fitted.
    pub bare_reach: Option<Reach>,
    /// Orders that come nearest to the aim.
    pub setting: Vec<SettingLine>,
    /// How far the setting stays outside the aim.
    pub shortfall: Shortfall,
    /// What one notch or turn does from the untouched adjusters.
    pub sensitivity: Vec<Sensitivity>,
    /// Adjusters untouched, over height, with the fitted parts.
    pub curve: Vec<CurvePoint>,
    /// As found.
    pub drawing_before: Drawing,
    /// Planned, adjusters untouched.
    pub drawing_after: Drawing,
    /// Planned, set.
    pub drawing_set: Drawing,
}

/// What a part changes with everything else as planned, average of the two sides.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Effect {
    /// Degrees.
    pub camber_deg: f64,
    /// Degrees.
    pub caster_deg: f64,
    /// Degrees, one wheel.
    pub toe_deg: f64,
    /// Wheel centre forward, mm.
    pub wheel_x_mm: f64,
    /// Half track, mm.
    pub half_track_mm: f64,
    /// Scrub radius, mm.
    pub scrub_mm: f64,
    /// Range of toe over ±30 mm about the planned height, with the part over without it.
    pub bump_toe_ratio: f64,
}

/// How a part does against the aim.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CandidateStatus {
    /// In the plan.
    Fitted,
    /// Both sides can be set inside the windows.
    Reaches,
    /// Still short.
    Short,
    /// Leaves camber and caster as they are.
    ToeOnly,
    /// Takes the place of a part that is fitted.
    Clash,
    /// The linkage does not close with it at the planned height.
    Stops,
}

/// One part of the catalogue against this plan.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Candidate {
    /// The part.
    pub part: Part,
    /// How it does.
    pub status: CandidateStatus,
    /// Largest gap left, degrees.
    pub short_deg: f64,
    /// What it changes; none when it cannot be fitted.
    pub effect: Option<Effect>,
    /// Left reach outline with it.
    pub left_outline: Vec<[f64; 2]>,
    /// Right reach outline with it.
    pub right_outline: Vec<[f64; 2]>,
    /// One line: what it does.
    pub does: String,
    /// One sentence: what it costs.
    pub costs: String,
}

/// The answer in words.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Verdict {
    /// Whether both sides can be set inside every window.
    pub reached: bool,
    /// One line.
    pub headline: String,
    /// What to do about it.
    pub sentence: String,
    /// Left minus right after setting, camber, degrees.
    pub cross_camber_deg: f64,
    /// Left minus right after setting, caster, degrees.
    pub cross_caster_deg: f64,
    /// Remarks: doubt, suspicion.
    pub watch: Vec<String>,
}

/// The Plan answer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PlanResult {
    /// Version of the computation, for snapshots.
    pub core_version: String,
    /// Set when the planned height cannot be reached.
    pub stop: Option<Stop>,
    /// Body pitch against as found, degrees, nose up positive.
    pub pitch_deg: f64,
    /// Left front.
    pub left: SidePlan,
    /// Right front.
    pub right: SidePlan,
    /// In words.
    pub verdict: Verdict,
    /// The catalogue against this plan, best first.
    pub candidates: Vec<Candidate>,
}

/// One side being worked on.
struct Side<'a> {
    readings: &'a SideReadings,
    anchored: Anchored,
    travel: f64,
    start: Vec<Edit>,
}

struct Work<'a> {
    input: &'a PlanInput,
    sides: [Side<'a>; 2],
    used_mm: f64,
    attitude: Attitude,
    target: Target,
}

/// Works a plan out. `catalogue` are the parts to choose from.
///
/// # Errors
/// Every [`Problem`] of the document; also when the geometry cannot be brought to the readings.
pub fn plan(input: &PlanInput, catalogue: &[Part]) -> Result<PlanResult, Vec<Problem>> {
    let mut problems = input.problems();
    for (i, id) in input.fitted.iter().enumerate() {
        if !catalogue.iter().any(|p| p.id == *id) {
            problems.push(Problem::new(
                format!("fitted.{i}"),
                format!("no part \"{id}\""),
                "the id of a part in the catalogue",
            ));
        } else if !catalogue.iter().any(|p| p.id == *id && p.layout == input.geometry.layout()) {
            problems.push(Problem::new(
                format!("fitted.{i}"),
                format!("\"{id}\" is for another layout"),
                format!("a part for a {}", input.geometry.layout().word()),
            ));
        }
    }
    if !problems.is_empty() {
        return Err(problems);
    }
    let left = side(input, &input.left, SideName::Left).map_err(|p| vec![p])?;
    let right = side(input, &input.right, SideName::Right).map_err(|p| vec![p])?;
    let mut work = Work {
        input,
        sides: [left, right],
        used_mm: input.height_change_mm,
        attitude: Attitude::default(),
        target: target(&input.aim),
    };
    let fitted: Vec<&Part> = catalogue.iter().filter(|p| input.fitted.contains(&p.id)).collect();
    let stop = work.hold_within_travel(&fitted);
    work.attitude = Attitude::from_rises(work.used_mm, input.rear_change_mm, input.wheelbase_mm);
    work.answer(&fitted, catalogue, stop).map_err(|e| {
        vec![Problem::new("height_change_mm", e.to_string(), "a height at which both sides close")]
    })
}

fn target(aim: &Aim) -> Target {
    Target { camber: aim.camber_deg, caster: aim.caster_deg, toe: aim.wheel_toe() }
}

fn side<'a>(input: &'a PlanInput, r: &'a SideReadings, name: SideName) -> Result<Side<'a>, Problem> {
    let (points, wheel) = &input.geometry.side(name);
    let start: Vec<Edit> = input.adjusters.iter().map(|a| a.edit_at(a.position)).collect();
    let travel = input.design_height_mm - r.height_mm;
    let anchored = anchor(points, wheel, travel, &start, &r.angles).map_err(|e| {
        Problem::new(
            format!("geometry.{}", e.field()),
            format!("{}: at the {} height read ({:.0} mm) {}", words::LOOP_OPEN, name.word(), r.height_mm, e),
            "points that close at the height that was read; measure that joint again",
        )
    })?;
    Ok(Side { readings: r, anchored, travel, start })
}

impl<'a> Work<'a> {
    fn bench(&self, i: usize, parts: &[&Part], height: f64) -> Bench {
        let edits: Vec<Edit> = parts.iter().flat_map(|p| p.edits.iter().cloned()).collect();
        let adjusters: Vec<Adjuster> = self
            .input
            .adjusters
            .iter()
            .map(|a| edits.iter().fold(a.clone(), |a, e| a.with_edit(e)))
            .collect();
        Bench {
            corner: self.sides[i].anchored.corner.edited(&edits),
            adjusters,
            travel_mm: self.sides[i].travel - height,
            attitude: self.attitude,
        }
    }

    /// Brings an unreachable planned height back to the last good one on both sides.
    fn hold_within_travel(&mut self, parts: &[&Part]) -> Option<Stop> {
        let asked = self.input.height_change_mm;
        let mut stop: Option<Stop> = None;
        for i in 0..2 {
            let b = self.bench(i, parts, asked);
            if let Err(e) = b.set(&b.start()).pose(b.travel_mm, 0.0) {
                let Unreachable { blocked, limit_travel_mm, .. } = e;
                let limit = self.sides[i].travel - limit_travel_mm;
                // Two millimetres inside the limit, where the adjusters can still be turned a little.
                let used = if asked > limit { (limit - 2.0).floor() } else { (limit + 2.0).ceil() };
                if stop.as_ref().is_none_or(|s| used.abs() < s.used_mm.abs()) {
                    stop = Some(Stop { asked_mm: asked, used_mm: used, words: words::stop(blocked, limit) });
                }
            }
        }
        if let Some(s) = &stop {
            self.used_mm = s.used_mm;
        }
        stop
    }

    fn settings(&self, parts: &[&Part]) -> Option<([Bench; 2], [SolvedSetting; 2])> {
        let benches = [0, 1].map(|i| self.bench(i, parts, self.used_mm));
        let found = [0, 1].map(|i| solve(&benches[i], &self.target));
        let aim = &self.input.aim;
        let (l, r) = pair(&found[0], &found[1], (aim.cross_camber_deg, aim.cross_caster_deg))?;
        let chosen = [l.clone(), r.clone()];
        Some((benches, chosen))
    }

    fn answer(
        &self,
        fitted: &[&Part],
        catalogue: &[Part],
        stop: Option<Stop>,
    ) -> Result<PlanResult, Unreachable> {
        let nothing = Unreachable::at(crate::linkage::Loop::UpperArm, 0.0);
        let (benches, set) = self.settings(fitted).ok_or(nothing)?;
        let left = self.side_plan(0, &benches[0], &set[0], fitted)?;
        let right = self.side_plan(1, &benches[1], &set[1], fitted)?;
        // A part for another layout is no candidate: it would change nothing.
        let fits = |p: &&Part| p.layout == self.input.geometry.layout() && p.axle == self.input.geometry.axle;
        let mut candidates: Vec<Candidate> =
            catalogue.iter().filter(fits).map(|p| self.candidate(p, fitted, &set)).collect();
        candidates.sort_by(|a, b| rank(a).total_cmp(&rank(b)));
        let verdict = words::verdict(self.input, self.used_mm, &left, &right, &candidates, stop.as_ref());
        Ok(PlanResult {
            core_version: env!("CARGO_PKG_VERSION").into(),
            stop,
            pitch_deg: self.attitude.pitch.to_degrees(),
            left,
            right,
            verdict,
            candidates,
        })
    }

    fn side_plan(
        &self,
        i: usize,
        bench: &Bench,
        set: &SolvedSetting,
        fitted: &[&Part],
    ) -> Result<SidePlan, Unreachable> {
        let s = &self.sides[i];
        let found = s.anchored.corner.edited(&s.start);
        let before = found.alignment(s.travel, 0.0)?;
        let start = bench.start();
        let after = bench.angles(&start)?;
        let reach_now = reach(bench, &set.positions, true);
        let bare_reach = if fitted.is_empty() {
            None
        } else {
            let b = self.bench(i, &[], self.used_mm);
            reach(&b, &b.start(), false)
        };
        let (low, high) = self.span();
        let heights: Vec<f64> =
            (0..HEIGHTS).map(|k| low + (high - low) * k as f64 / (HEIGHTS - 1) as f64).collect();
        let doubts = self.doubts(i, bench, fitted, low, high)?;
        Ok(SidePlan {
            before,
            after,
            set: set.angles,
            planned_height_mm: s.readings.height_mm + self.used_mm,
            doubt: doubt_at(&doubts, self.used_mm),
            anchor: s.anchored.anchor,
            reach: reach_now,
            bare_reach,
            setting: bench.lines(&set.positions),
            shortfall: set.shortfall,
            sensitivity: bench.sensitivity(&start),
            curve: curve(
                bench,
                &start,
                s.travel,
                self.input.rear_change_mm,
                self.input.wheelbase_mm,
                &heights,
                &doubts,
            ),
            drawing_before: draw(&found, s.travel, Attitude::default())?,
            drawing_after: draw(&bench.set(&start), bench.travel_mm, self.attitude)?,
            drawing_set: draw(&bench.set(&set.positions), bench.travel_mm, self.attitude)?,
        })
    }

    /// Heights the curves cover: as found and planned with room on both sides.
    fn span(&self) -> (f64, f64) {
        (self.used_mm.min(0.0).min(-15.0) - 25.0, self.used_mm.max(0.0).max(15.0) + 25.0)
    }

    fn doubts(
        &self,
        i: usize,
        bench: &Bench,
        fitted: &[&Part],
        low: f64,
        high: f64,
    ) -> Result<Vec<(f64, Option<Doubt>)>, Unreachable> {
        let s = &self.sides[i];
        let (points, wheel) = &self.input.geometry.side(SideName::BOTH[i]);
        let mut planned: Vec<Edit> = fitted.iter().flat_map(|p| p.edits.iter().cloned()).collect();
        planned.extend(bench.adjusters.iter().map(|a| a.edit_at(a.position)));
        let at: Vec<f64> = (0..=8).map(|k| low + (high - low) * f64::from(k) / 8.0).collect();
        let travels: Vec<f64> = at.iter().map(|h| s.travel - h).collect();
        let d = doubt(
            &Doubted {
                points,
                wheel,
                read_at: s.travel,
                start: &s.start,
                planned: &planned,
                measured: &s.readings.angles,
                sigma: s.readings.sigma,
                knowledge: self.input.knowledge,
            },
            &travels,
        )?;
        Ok(at.into_iter().zip(d).collect())
    }

    fn candidate(&self, part: &Part, fitted: &[&Part], now: &[SolvedSetting; 2]) -> Candidate {
        let is_fitted = fitted.iter().any(|p| p.id == part.id);
        let without: Vec<&Part> = fitted.iter().copied().filter(|p| p.id != part.id).collect();
        let mut with = without.clone();
        with.push(part);
        let mut out = Candidate {
            part: part.clone(),
            status: CandidateStatus::Stops,
            short_deg: f64::MAX,
            effect: None,
            left_outline: Vec::new(),
            right_outline: Vec::new(),
            does: String::new(),
            costs: part.side_effect.clone(),
        };
        if let Some(other) = without.iter().find(|p| p.replaces == part.replaces) {
            out.status = CandidateStatus::Clash;
            out.does = format!("takes the place of {}", other.name.to_lowercase());
            return out;
        }
        let solved = if is_fitted {
            let benches = [0, 1].map(|i| self.bench(i, &with, self.used_mm));
            Some((benches, now.clone()))
        } else {
            self.settings(&with)
        };
        let Some((benches, set)) = solved else {
            out.does = "the linkage does not close with it here".into();
            return out;
        };
        let outline =
            |i: usize| reach(&benches[i], &set[i].positions, false).map(|r| r.outline).unwrap_or_default();
        (out.left_outline, out.right_outline) = (outline(0), outline(1));
        out.short_deg = set.iter().map(|s| s.shortfall.worst()).fold(0.0, f64::max);
        out.effect = self.effect(&without, &benches);
        let toe_only = out.effect.is_some_and(|e| {
            e.camber_deg.abs() < 0.05
                && e.caster_deg.abs() < 0.05
                && part.edits.iter().all(|e| !matches!(e, Edit::ReplaceEccentric { .. }))
        });
        out.status = if is_fitted {
            CandidateStatus::Fitted
        } else if toe_only {
            CandidateStatus::ToeOnly
        } else if out.short_deg < 1e-6 {
            CandidateStatus::Reaches
        } else {
            CandidateStatus::Short
        };
        out.does = words::does(part, out.effect.as_ref(), self.input);
        out.costs = words::costs(part, out.effect.as_ref());
        out
    }

    fn effect(&self, without: &[&Part], with: &[Bench; 2]) -> Option<Effect> {
        let mut sum = Effect {
            camber_deg: 0.0,
            caster_deg: 0.0,
            toe_deg: 0.0,
            wheel_x_mm: 0.0,
            half_track_mm: 0.0,
            scrub_mm: 0.0,
            bump_toe_ratio: 0.0,
        };
        for (i, bench) in with.iter().enumerate() {
            let base = self.bench(i, without, self.used_mm);
            let (a, b) = (base.angles(&base.start()).ok()?, bench.angles(&bench.start()).ok()?);
            // Camber and caster are compared with toe put back, as it will be.
            let reset = bench.angles(&bench.with_toe(a.toe_deg)).ok()?;
            sum.camber_deg += 0.5 * (reset.camber_deg - a.camber_deg);
            sum.caster_deg += 0.5 * (reset.caster_deg - a.caster_deg);
            sum.toe_deg += 0.5 * (b.toe_deg - a.toe_deg);
            sum.wheel_x_mm += 0.5 * (reset.wheel_x_mm - a.wheel_x_mm);
            sum.half_track_mm += 0.5 * (reset.half_track_mm - a.half_track_mm);
            sum.scrub_mm += 0.5 * (reset.scrub_radius_mm - a.scrub_radius_mm);
            let swing = |bench: &Bench| {
                let c = bench.set(&bench.with_toe(0.0));
                let toe: Vec<f64> = [-30.0, -15.0, 0.0, 15.0, 30.0]
                    .iter()
                    .filter_map(|d| c.alignment(bench.travel_mm + d, 0.0).ok().map(|a| a.toe_deg))
                    .collect();
                let top = toe.iter().copied().fold(f64::MIN, f64::max);
                let bottom = toe.iter().copied().fold(f64::MAX, f64::min);
                top - bottom
            };
            sum.bump_toe_ratio += 0.5 * swing(bench) / swing(&base).max(1e-6);
        }
        Some(sum)
    }
}

/// Fitted first, then what reaches, then by the gap left.
fn rank(c: &Candidate) -> f64 {
    match c.status {
        CandidateStatus::Fitted => 0.0,
        CandidateStatus::Reaches => 1.0 + c.part.cost / 1e6,
        CandidateStatus::Short => 10.0 + c.short_deg,
        CandidateStatus::ToeOnly => 100.0,
        CandidateStatus::Clash => 200.0,
        CandidateStatus::Stops => 300.0,
    }
}
