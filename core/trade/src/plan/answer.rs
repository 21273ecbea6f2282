//! The whole Plan answer: both sides, their reach, their setting, and what each part would do.

use super::angle::AngleName;
use super::begin::begin;
use super::bench::Bench;
use super::budget::Budget;
use super::checks::Check;
use super::curves::{curve, doubt_at};
use super::expected::expected;
use super::in_hand::{arm_in_hand, in_hand};
use super::input::PlanInput;
use super::jack_sweep::fitted_to_sweep;
use super::line::SettingLine;
use super::pair::steered_by;
use super::quick::quick;
use super::reach::{LockTurn, Plane, lock_reach, reach};
use super::result::{Candidate, CandidateStatus, Effect, KitPart, LockPlan, PlanResult, SidePlan};
use super::states::states;
use super::suits::{extra, needed};
use super::words;
use super::work::{Work, edits_on, frees_nothing, misfits, provided};
use crate::part::{Part, Purpose};
use crate::plan::judge::{SolvedSetting, is_moved};
use crate::plan::stop::Stop;
use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::draw::draw;
use bold_stance_car::fit::{Doubt, Doubted, TAPE_HEIGHT_SIGMA_MM, doubt};
use bold_stance_car::vehicle::{Attitude, StateKind};
use bold_stance_kinematics::edit::{Edit, SetEdits};
use bold_stance_kinematics::geometry::Side as SideName;
use bold_stance_kinematics::linkage::{Linkage, Loop, Unreachable};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};
use rayon::prelude::*;

/// Heights of a curve.
const HEIGHTS: usize = 41;

/// Works a plan out. `catalogue` are the parts to choose from, as written; those that fit the axle are used.
///
/// # Errors
/// Every [`Problem`] of the document; also when the geometry cannot be brought to the readings.
pub fn plan(input: &PlanInput, catalogue: &[Part]) -> Result<PlanResult, Vec<Problem>> {
    plan_within(input, catalogue, &Budget::default())
}

/// The same within a budget that somebody else can end: then the answer is that it was too much.
///
/// # Errors
/// As of [`plan`].
pub fn plan_within(
    input: &PlanInput,
    catalogue: &[Part],
    budget: &Budget,
) -> Result<PlanResult, Vec<Problem>> {
    let input = &fitted_to_sweep(input).map_err(|p| vec![p])?;
    let (mut work, parts) = begin(input, catalogue, budget)?;
    let fitted = work.named(&input.fitted, &parts);
    let stop = work.hold_within_travel(&fitted);
    let answer = work.answer(&fitted, &parts, stop);
    if let Some(p) = work.too_much() {
        return Err(vec![p]);
    }
    answer.map_err(|e| {
        vec![Problem::new("height_change_mm", e.to_string(), said("fault-height-at-which-both-sides"))]
    })
}

/// What a plan does to both corners of its axle, for whoever poses the car as it will stand.
///
/// # Errors
/// As of [`plan`].
pub fn set_edits(
    input: &PlanInput,
    catalogue: &[Part],
    result: &PlanResult,
) -> Result<[SetEdits; 2], Vec<Problem>> {
    let (work, parts) = begin(input, catalogue, &Budget::default())?;
    let fitted = work.named(&input.fitted, &parts);
    let sides = [&result.left, &result.right];
    Ok([0, 1].map(|i| {
        let at = |a: &Adjuster| {
            sides[i].setting.iter().find(|l| l.name == a.name).map_or(a.position, |l| l.position)
        };
        let turned = work.adjusters(i, &fitted).into_iter().flat_map(|a| a.edits_at(at(&a)));
        let set = work.way_edits().iter().cloned().chain(edits_on(SideName::BOTH[i], &fitted));
        SetEdits { start: work.sides[i].start.clone(), set: set.chain(turned).collect() }
    }))
}

impl Work<'_> {
    fn answer(
        &self,
        fitted: &[&Part],
        catalogue: &[Part],
        stop: Option<Stop>,
    ) -> Result<PlanResult, Unreachable> {
        let (benches, set) = self.settings(fitted, true).ok_or_else(|| self.why_nothing_closes(fitted))?;
        let turn = self.lock_turn();
        let side = |i: usize| self.side_plan(i, &benches[i], &set[i], fitted, turn.as_ref());
        let (left, right) = rayon::join(|| side(0), || side(1));
        let (left, right) = (left?, right?);
        let has_toe = benches[0].toe_by.is_some();
        let mut families: Vec<&str> = Vec::new();
        for p in catalogue {
            if !families.contains(&p.family()) {
                families.push(p.family());
            }
        }
        let mut candidates: Vec<Candidate> = families
            .par_iter()
            .filter_map(|f| {
                let sizes: Vec<&Part> = catalogue.iter().filter(|p| p.family() == *f).collect();
                self.best_size(&sizes, fitted, &set, (catalogue, has_toe))
            })
            .collect();
        let needs = needed(self.input, &set);
        candidates.sort_by(|a, b| rank(a, &needs).total_cmp(&rank(b, &needs)));
        let positions = [set[0].positions.clone(), set[1].positions.clone()];
        let misfits = misfits(fitted, self.input, &provided(self.input, has_toe));
        let verdict = words::verdict(self, [&left, &right], &candidates, &misfits, stop.as_ref());
        Ok(PlanResult {
            core_version: env!("CARGO_PKG_VERSION").into(),
            stop,
            plane: self.plane,
            judged: self.state.clone(),
            states: states(self, fitted, &positions),
            misfits,
            pitch_deg: self.pitch(&self.state).pitch.to_degrees(),
            square: self.square.clone().map(|s| {
                let s = self.sides[0].own.iter().fold(s, |s, a| {
                    let at = benches[0].adjusters.iter().position(|b| b.name == a.name);
                    s.with_pair(a, at.map_or(a.position, |i| set[0].positions[i]))
                });
                s.with_arms(|side, l| {
                    // What is one thing of the axle is drawn with its left wheel.
                    let i = usize::from(side == SideName::Right && !l.shared);
                    let (points, _) = self.input.geometry.side(SideName::BOTH[i]);
                    arm_in_hand(&benches[i], &points, l, &self.input.turned[side])
                })
            }),
            drag_link: steered_by(&benches[0], &set[0].positions),
            steer: self.steer_path(&benches, &set),
            expected: expected(self, &left, &right),
            left,
            right,
            verdict,
            candidates,
        })
    }

    /// The reason that is found where no setting closes: the first side that does not close as it stands.
    fn why_nothing_closes(&self, fitted: &[&Part]) -> Unreachable {
        let stands = |i: usize| {
            let b = self.bench(i, fitted);
            b.angles(&b.start()).err()
        };
        stands(0)
            .or_else(|| stands(1))
            .unwrap_or_else(|| Unreachable::at(Loop::NoSetting, self.bench(0, fitted).travel_mm))
    }

    fn side_plan(
        &self,
        i: usize,
        bench: &Bench,
        set: &SolvedSetting,
        fitted: &[&Part],
        turn: Option<&LockTurn>,
    ) -> Result<SidePlan, Unreachable> {
        let s = &self.sides[i];
        let flat = |c: &bold_stance_kinematics::linkage::Corner, t: f64| Ok(c.wheel(t, 0.0)?.or_unsteered());
        let before = flat(&s.found, s.travel)?;
        let start = bench.start();
        let after = bench.angles(&start)?;
        let bare_reach = if fitted.is_empty() {
            None
        } else {
            let b = self.bench(i, &[]);
            reach(&b, &b.start(), self.plane, false)
        };
        let (low, high) = self.span();
        let heights: Vec<f64> =
            (0..HEIGHTS).map(|k| low + (high - low) * k as f64 / (HEIGHTS - 1) as f64).collect();
        let doubts = self.doubts(i, bench, &start, fitted, low, high)?;
        let lock = turn.and_then(|t| {
            let found = Bench::new(s.found.clone(), Vec::new(), s.travel, Attitude::default());
            Some(LockPlan {
                turn: *t,
                before: found.at_lock(&[], t)?,
                after: bench.at_lock(&start, t)?,
                set: bench.at_lock(&set.positions, t)?,
                outline: lock_reach(bench, &set.positions, t),
            })
        });
        Ok(SidePlan {
            before,
            after,
            set: set.angles,
            planned_height_mm: s.readings.height_mm
                + self.planned_mm()
                + self.input.trim_mm[SideName::BOTH[i]],
            doubt: self.doubt_set(i, bench, &set.positions, fitted)?,
            anchor: s.anchored.anchor,
            reach: reach(bench, &set.positions, self.plane, true),
            bare_reach,
            why: words::why(bench, &self.targets[i], set),
            lock,
            checks: self.checks(i, fitted, &set.positions),
            setting: self.in_hand(i, bench, &set.positions),
            shortfall: set.shortfall.readable(),
            sensitivity: bench.sensitivity(&start),
            curve: curve(self, i, bench, &start, &heights, &doubts),
            drawing_before: draw(&s.found, s.travel, Attitude::default())?,
            drawing_after: draw(&bench.set(&start), bench.travel_mm, bench.attitude)?,
            drawing_set: draw(&bench.set(&set.positions), bench.travel_mm, bench.attitude)?,
        })
    }

    /// Orders of a side, each with what to expect after it.
    fn in_hand(&self, i: usize, bench: &Bench, positions: &[f64]) -> Vec<SettingLine> {
        let (points, _) = &self.input.geometry.side(SideName::BOTH[i]);
        let angles = |at: &[f64]| {
            let a = bench.angles(at).ok()?;
            Some([a.camber_deg, a.caster_deg, a.toe_deg])
        };
        in_hand(bench, points, bench.lines(positions), angles)
    }

    /// The planned gain; held within travel where that is what is judged.
    fn planned_mm(&self) -> f64 {
        match self.state.kind {
            StateKind::Planned => self.state.own_mm,
            _ => self.input.own().height_change_mm,
        }
    }

    /// Heights the curves cover: as found and planned with room on both sides.
    fn span(&self) -> (f64, f64) {
        let at = self.state.own_mm;
        (at.min(0.0).min(-15.0) - 25.0, at.max(0.0).max(15.0) + 25.0)
    }

    pub(crate) fn doubts(
        &self,
        i: usize,
        bench: &Bench,
        positions: &[f64],
        fitted: &[&Part],
        low: f64,
        high: f64,
    ) -> Result<Vec<(f64, Option<Doubt>)>, Unreachable> {
        let s = &self.sides[i];
        let (points, wheel) = &self.input.geometry.side(SideName::BOTH[i]);
        // One adjuster does a standard deviation more than it is said to; none where nothing is turned.
        let edits = |farther: Option<usize>| -> Vec<Edit> {
            let mut out: Vec<Edit> = self.way_edits().to_vec();
            out.extend(edits_on(SideName::BOTH[i], fitted));
            out.extend(bench.adjusters.iter().zip(positions).enumerate().flat_map(|(k, (a, p))| {
                a.edits_with_gain(*p, if farther == Some(k) { 1.0 + a.gain_sd() } else { 1.0 })
            }));
            out
        };
        let planned = edits(None);
        let throws: Vec<Vec<Edit>> = (0..positions.len())
            .filter(|k| is_moved(&bench.adjusters[*k], positions[*k]))
            .map(|k| edits(Some(k)))
            .collect();
        let steps = if high > low { 8 } else { 0 };
        let at: Vec<f64> =
            (0..=steps).map(|k| low + (high - low) * f64::from(k) / f64::from(steps.max(1))).collect();
        let travels: Vec<f64> = at.iter().map(|h| bench.travel_mm + self.state.own_mm - h).collect();
        let d = doubt(
            &Doubted {
                points,
                wheel,
                read_at: s.travel,
                start: &s.start,
                planned: &planned,
                measured: &s.readings.angles,
                sigma: s.readings.sigma,
                spreads: &self.spreads[i],
                height_sigma_mm: TAPE_HEIGHT_SIGMA_MM,
                throws: &throws,
            },
            &travels,
        )?;
        Ok(at.into_iter().zip(d).collect())
    }

    /// Half widths of the bands at the height the plan is worked out at, as set.
    pub(crate) fn doubt_set(
        &self,
        i: usize,
        bench: &Bench,
        positions: &[f64],
        fitted: &[&Part],
    ) -> Result<Doubt, Unreachable> {
        let at = self.state.own_mm;
        Ok(doubt_at(&self.doubts(i, bench, positions, fitted, at, at)?, at))
    }

    /// The size that comes nearest, judged as a candidate; the fitted one when one is fitted.
    fn best_size(
        &self,
        sizes: &[&Part],
        fitted: &[&Part],
        now: &[SolvedSetting; 2],
        (catalogue, has_toe): (&[Part], bool),
    ) -> Option<Candidate> {
        let without: Vec<&Part> = fitted
            .iter()
            .copied()
            .filter(|p| p.family() != sizes.first().map_or("", |s| s.family()))
            .collect();
        let on = sizes.iter().find(|s| fitted.iter().any(|f| f.id == s.id));
        if on.is_none() && sizes.iter().all(|p| frees_nothing(p, self.input)) {
            return None;
        }
        let chosen: &Part = match on {
            Some(p) => p,
            None if sizes.len() == 1 => sizes[0],
            None => {
                sizes
                    .iter()
                    .map(|p| {
                        let mut with = without.clone();
                        with.push(p);
                        with.extend(self.kit_of(p, &without, (catalogue, has_toe), Judged::Quickly));
                        (*p, quick(self, &with).map_or(f64::MAX, |q| q.short()))
                    })
                    .min_by(|a, b| (a.1 / 0.02).round().total_cmp(&(b.1 / 0.02).round()))?
                    .0
            }
        };
        let mut out = self.candidate(chosen, &without, on.is_some(), now, (catalogue, has_toe));
        out.sizes = sizes.iter().filter(|s| s.id != chosen.id).map(|s| s.id.clone()).collect();
        Some(out)
    }

    fn candidate(
        &self,
        part: &Part,
        without: &[&Part],
        is_fitted: bool,
        now: &[SolvedSetting; 2],
        (catalogue, has_toe): (&[Part], bool),
    ) -> Candidate {
        let kit = if is_fitted {
            Vec::new()
        } else {
            self.kit_of(part, without, (catalogue, has_toe), Judged::AsSet)
        };
        let mut with = without.to_vec();
        with.push(part);
        with.extend(&kit);
        let mut out = Candidate {
            part: part.clone(),
            sizes: Vec::new(),
            kit: kit.iter().map(|p| kit_part(p)).collect(),
            status: CandidateStatus::Stops,
            short_deg: f64::MAX,
            apart_deg: 0.0,
            effect: None,
            left_outline: Vec::new(),
            right_outline: Vec::new(),
            does: Said::text(""),
            costs: Said::text(part.side_effect.clone()),
            fouls: Vec::new(),
        };
        if let Some(other) = without.iter().find(|p| p.fits.replaces == part.fits.replaces) {
            out.status = CandidateStatus::Clash;
            out.does = said("does-clash").name("other", other.name.clone());
            return out;
        }
        let solved = if is_fitted {
            let benches = [0, 1].map(|i| self.bench(i, &with));
            (benches[0].adjusters.len() == now[0].positions.len()).then(|| (benches, now.clone()))
        } else {
            self.settings(&with, false)
        };
        let Some((benches, set)) = solved else {
            out.does = said("does-stops");
            return out;
        };
        let outline = |i: usize| {
            reach(&benches[i], &set[i].positions, self.plane, false).map(|r| r.outline).unwrap_or_default()
        };
        (out.left_outline, out.right_outline) = (outline(0), outline(1));
        out.short_deg = set.iter().map(|s| s.shortfall.readable().worst()).fold(0.0, f64::max);
        out.apart_deg = self.apart_deg(&set[0].angles, &set[1].angles);
        out.effect = self.effect(without, &benches);
        // What other parts lack or break is theirs, and the verdict's, as with the checks below.
        let has = provided(self.input, has_toe);
        let theirs = misfits(without, self.input, &has);
        let mut missing = misfits(&with, self.input, &has);
        missing.retain(|m| !theirs.contains(m));
        let was: Vec<Check> =
            (0..2).flat_map(|i| self.checks(i, without, &self.bench(i, without).start())).collect();
        let fails: Vec<Said> = (0..2)
            .flat_map(|i| self.checks(i, &with, &set[i].positions))
            .filter(|c| !c.ok && !was.iter().any(|w| w.kind == c.kind && !w.ok))
            .map(|c| c.words)
            .collect();
        let second = if self.plane == Plane::CamberToe { AngleName::Toe } else { AngleName::Caster };
        let toe_only = part.adjusters.is_empty()
            && out.effect.is_some_and(|e| {
                e.camber_deg.abs() < 0.05
                    && e.caster_deg.abs() < 0.05
                    && part
                        .edits
                        .iter()
                        .all(|e| !matches!(e, Edit::ReplaceEccentric { .. } | Edit::FreeEccentrics { .. }))
            });
        out.status = if is_fitted {
            CandidateStatus::Fitted
        } else if !missing.is_empty() {
            CandidateStatus::Needs
        } else if !fails.is_empty() {
            CandidateStatus::Fouls
        } else if toe_only {
            CandidateStatus::ToeOnly
        } else if !self.input.is_read(AngleName::Camber) && !self.input.is_read(second) {
            CandidateStatus::NotJudged
        } else if out.short_deg < 1e-6 && out.apart_deg == 0.0 {
            CandidateStatus::Reaches
        } else {
            CandidateStatus::Short
        };
        out.fouls = missing.into_iter().chain(fails).collect();
        let mut once: Vec<Said> = Vec::new();
        for f in std::mem::take(&mut out.fouls) {
            if !once.contains(&f) {
                once.push(f);
            }
        }
        out.fouls = once;
        out.does = words::does(part, out.effect.as_ref(), self);
        out.costs = words::costs(part, out.effect.as_ref());
        out
    }

    /// What has to come along with a part: for everything it asks for that neither the car has nor what is fitted brings,
    /// one that brings it and stands here itself: the one that leaves least, of equals the least costly. Nothing where one of
    /// them is not to be had.
    fn kit_of<'p>(
        &self,
        part: &Part,
        without: &[&Part],
        (catalogue, has_toe): (&'p [Part], bool),
        judged: Judged,
    ) -> Vec<&'p Part> {
        let has = provided(self.input, has_toe);
        let mut kit: Vec<&Part> = Vec::new();
        for tag in &part.requires {
            let brings = |q: &Part| q.family() == tag || q.provides.contains(tag);
            if has(tag) || without.iter().chain(&kit).any(|q| brings(q)) {
                continue;
            }
            let stands = |q: &&Part| {
                let mut with: Vec<&Part> =
                    without.iter().copied().chain([part]).chain(kit.iter().copied()).collect();
                let before = misfits(&with, self.input, &has).len();
                with.push(q);
                q.family() != part.family() && misfits(&with, self.input, &has).len() < before
            };
            let found = catalogue.iter().filter(|q| brings(q)).filter(stands).map(|q| {
                let with: Vec<&Part> =
                    without.iter().copied().chain([part, q]).chain(kit.iter().copied()).collect();
                // What a shop cannot tell apart is equal, as with the sizes.
                let short = match judged {
                    Judged::Quickly => quick(self, &with).map(|q| q.short()),
                    Judged::AsSet => self.settings(&with, false).map(|(_, set)| {
                        set.iter().map(|s| s.shortfall.readable().worst()).fold(0.0, f64::max)
                    }),
                };
                let short = short.map_or(f64::MAX, |s| (s / 0.02).round());
                (q, short)
            });
            let best = found.min_by(|a, b| a.1.total_cmp(&b.1).then(a.0.cost.total_cmp(&b.0.cost)));
            match best {
                Some((q, _)) => kit.push(q),
                None => return Vec::new(),
            }
        }
        kit
    }

    pub(crate) fn effect(&self, without: &[&Part], with: &[Bench; 2]) -> Option<Effect> {
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
            let base = self.bench(i, without);
            let (a, b) = (base.angles(&base.start()).ok()?, bench.angles(&bench.start()).ok()?);
            // Camber and caster are compared with toe put back, as it will be.
            let reset = bench.angles(&bench.with_toe(a.toe_deg)).ok()?;
            sum.camber_deg += 0.5 * (reset.camber_deg - a.camber_deg);
            sum.caster_deg += 0.5 * (reset.caster_deg - a.caster_deg);
            sum.toe_deg += 0.5 * (b.toe_deg - a.toe_deg);
            sum.wheel_x_mm += 0.5 * (reset.wheel_x_mm - a.wheel_x_mm);
            sum.half_track_mm += 0.5 * (reset.half_track_mm - a.half_track_mm);
            sum.scrub_mm += 0.5 * (reset.scrub_radius_mm - a.scrub_radius_mm);
            let swing = |bench: &Bench| toe_swing(bench, &bench.with_toe(0.0));
            sum.bump_toe_ratio += 0.5 * swing(bench) / swing(&base).max(1e-6);
        }
        Some(sum)
    }
}

/// Range of toe over ±30 mm of travel about the bench's height, degrees.
pub(crate) fn toe_swing(bench: &Bench, positions: &[f64]) -> f64 {
    let c = bench.set(positions);
    let toe: Vec<f64> = [-30.0, -15.0, 0.0, 15.0, 30.0]
        .iter()
        .filter_map(|d| c.wheel(bench.travel_mm + d, 0.0).ok().map(|a| a.toe_deg))
        .collect();
    let top = toe.iter().copied().fold(f64::MIN, f64::max);
    let bottom = toe.iter().copied().fold(f64::MAX, f64::min);
    if toe.is_empty() { 0.0 } else { top - bottom }
}

/// Fitted first, then what reaches, then by the gap left.
/// How closely what comes along is chosen: among many sizes as if everything turned without steps, for the one that is shown
/// as it can really be set.
#[derive(Clone, Copy)]
enum Judged {
    Quickly,
    AsSet,
}

fn kit_part(p: &Part) -> KitPart {
    KitPart { id: p.id.clone(), name: p.name.clone(), cost: p.cost, labour_minutes: p.labour_minutes }
}

fn rank(c: &Candidate, needs: &[Purpose]) -> f64 {
    let kit: f64 = c.kit.iter().map(|p| p.cost).sum();
    match c.status {
        CandidateStatus::Fitted => 0.0,
        CandidateStatus::Reaches => 1.0 + (c.part.cost + kit + extra(std::iter::once(&c.part), needs)) / 1e6,
        CandidateStatus::Short => 10.0 + c.short_deg + c.apart_deg,
        CandidateStatus::NotJudged => 50.0,
        CandidateStatus::ToeOnly => 100.0,
        CandidateStatus::Needs => 110.0 + c.short_deg.min(50.0),
        CandidateStatus::Fouls => 170.0 + c.short_deg.min(20.0),
        CandidateStatus::Clash => 200.0,
        CandidateStatus::Stops => 300.0,
    }
}
