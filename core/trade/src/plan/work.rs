//! A plan being worked on: both sides anchored to their readings, and benches of them with any parts at any height.

use super::bench::{Bench, Watch};
use super::budget::Budget;
use super::checks::{Check, Checked, together};
use super::guard::Guard;
use super::height::{PlanState, WayKind, gain};
use super::input::{Picked, PlanInput, SideReadings};
use super::pair::{pair, solve_both};
use super::reach::{LockTurn, Plane};
use super::solver::solve;
use super::square::{Square, square};
use super::stop::{Stop, stopped};
use super::suits::has_place;
use crate::aim::Aim;
use crate::aim::Target;
use crate::part::Part;
use crate::plan::judge::{READABLE_DEG, SolvedSetting, judge};
use bold_stance_car::adjuster::{Adjuster, Held};
use bold_stance_car::fit::{Spread, spreads};
use bold_stance_car::metrics::full_lock;
use bold_stance_car::vehicle::{
    Anchored, Attitude, Axles, Sides, StateKind, anchor, anchor_wheel, likely_positions,
};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::Side as SideName;
use bold_stance_kinematics::linkage::{Corner, Linkage, Unreachable};
use bold_stance_kinematics::wheel::Alignment;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};
use std::sync::Arc;

/// Halvings of the search for the most caster: a thirty-second of its window is less than a shop reads.
const MOST_STEPS: u32 = 5;

/// One side being worked on.
pub(crate) struct Side<'a> {
    pub readings: &'a SideReadings,
    pub anchored: Anchored,
    /// Travel as found, mm.
    pub travel: f64,
    /// The car's own adjusters, each where it stands or, where nobody looked, most likely stands.
    pub own: Vec<Adjuster>,
    /// They as edits.
    pub start: Vec<Edit>,
    /// The corner as found.
    pub found: Corner,
}

pub(crate) struct Work<'a> {
    pub input: &'a PlanInput,
    pub sides: [Side<'a>; 2],
    /// Height the plan is worked out at: the judged state, held within travel.
    pub state: PlanState,
    /// Windows of each side.
    pub targets: [Target; 2],
    pub plane: Plane,
    /// What is doubted of the points of each side.
    pub spreads: [Vec<Spread>; 2],
    /// Edits of the ways in which height is gained, and of the arms that square the axle.
    ways: Vec<Edit>,
    /// How the axle is squared, where it stands askew.
    pub square: Option<Square>,
    /// What a plan may cost; a search has one for each set instead.
    budget: Option<Budget>,
}

impl<'a> Work<'a> {
    pub(crate) fn new(input: &'a PlanInput, budget: Budget) -> Result<Self, Problem> {
        let sides = [side(input, &input.left, SideName::Left)?, side(input, &input.right, SideName::Right)?];
        let square = square(input, &sides[0].found, sides[0].travel);
        let mut ways: Vec<Edit> = input.ways.iter().flat_map(|w| w.edits(&input.geometry.points)).collect();
        ways.extend(square.iter().flat_map(Square::edits));
        Ok(Self {
            input,
            sides,
            state: input.judged(),
            targets: SideName::BOTH.map(|s| input.target(s)),
            plane: if input.steered() { Plane::CamberCaster } else { Plane::CamberToe },
            spreads: SideName::BOTH.map(|side| {
                let swept = input.swept.as_ref().and_then(|s| s.of_side(&input.geometry, side));
                swept.unwrap_or_else(|| spreads(&input.geometry.side(side).0, input.knowledge))
            }),
            ways,
            square,
            budget: Some(budget),
        })
    }

    /// Travel of a side at a height state, mm: a raised body on its frame moves no suspension.
    pub(crate) fn travel(&self, i: usize, state: &PlanState) -> f64 {
        let body = gain(&self.input.ways, |k| k == WayKind::BodyLift);
        let extra = if state.kind == StateKind::Arrived { 0.0 } else { self.trim(i) - body };
        self.sides[i].travel - state.own_mm - extra
    }

    /// What a side stands over the gain, mm.
    fn trim(&self, i: usize) -> f64 {
        self.input.trim_mm[SideName::BOTH[i]]
    }

    /// Each set gets work of its own, so that many of them can be tried.
    pub(crate) fn with_work_for_each_set(mut self) -> Self {
        self.budget = None;
        self
    }

    /// What is wrong when the plan has had all the work it may take.
    pub(crate) fn too_much(&self) -> Option<Problem> {
        let spent = self.budget.as_ref().is_some_and(Budget::is_spent);
        let free = self.input.adjusters.left.iter().filter(|a| !a.is_fixed()).count();
        spent.then(|| {
            let wrong = said("fault-too-many-free").count("n", free);
            Problem::new("adjusters", wrong, said("fault-lock-some-them-fit-fewer"))
        })
    }

    /// Pitch of the body at a height state, this side's tyres' gain in it.
    pub(crate) fn pitch(&self, state: &PlanState) -> Attitude {
        let tyres = self.input.moves.as_ref().map(|m| m.tyre_gain_mm);
        self.input.attitude(Axles::of(|a| state.gain_mm[a] + tyres[a]))
    }

    /// How the body stands over one of the wheels at a height state: pitched by front against rear, and rolled by
    /// this axle's trim. The roll is atan(own trim less the other side's / track), this side up positive: independent
    /// wheels ride on the body and lean with it. A solid axle stands on its tyres and does not.
    pub(crate) fn attitude(&self, i: usize, state: &PlanState) -> Attitude {
        let pitch = self.pitch(state);
        if state.kind == StateKind::Arrived || matches!(self.sides[i].found, Corner::Axle(_)) {
            return pitch;
        }
        let track = 2.0 * self.input.geometry.wheel.center[1];
        Attitude { roll: ((self.trim(i) - self.trim(1 - i)) / track).atan(), ..pitch }
    }

    /// One side with parts at the height the plan is worked out at.
    pub(crate) fn bench(&self, i: usize, parts: &[&Part]) -> Bench {
        self.bench_at(i, parts, &self.state)
    }

    /// One side with parts at a height state.
    pub(crate) fn bench_at(&self, i: usize, parts: &[&Part], state: &PlanState) -> Bench {
        let attitude = self.attitude(i, state);
        let bench =
            Bench::new(self.corner(i, parts), self.adjusters(i, parts), self.travel(i, state), attitude);
        let budget = self.budget.clone().unwrap_or_else(Budget::of_a_set);
        Bench { centre_mm: self.centre_mm(), budget, ..bench }
    }

    /// Where a live axle stands central in the model: where it stood as found and what was read beside it, else as
    /// drawn. The reading goes before the model's arc, which only says what height changes.
    fn centre_mm(&self) -> f64 {
        let Some(to_left) = self.input.axle_offset_mm else { return 0.0 };
        let Corner::Axle(c) = &self.sides[0].found else { return 0.0 };
        c.axle_pose(self.sides[0].travel, 0.0).map_or(0.0, |a| a.midpoint.y + to_left)
    }

    /// The corner with ways and parts, adjusters at zero.
    pub(crate) fn corner(&self, i: usize, parts: &[&Part]) -> Corner {
        let edits: Vec<Edit> = self.ways.iter().cloned().chain(edits_on(SideName::BOTH[i], parts)).collect();
        self.sides[i].anchored.corner.edited(&edits)
    }

    /// The vehicle's adjusters as the parts leave them, and those of the parts: as many on either side and in the same order,
    /// what is on the other side only as not here.
    pub(crate) fn adjusters(&self, i: usize, parts: &[&Part]) -> Vec<Adjuster> {
        let side = SideName::BOTH[i];
        let edits = || parts.iter().filter(|p| p.is_on(side)).flat_map(|p| &p.edits);
        let everywhere = || parts.iter().filter(|p| p.only.is_none()).flat_map(|p| &p.adjusters);
        // What a part brings in the place of one of the car's own is not there twice.
        let kept: Vec<&Adjuster> =
            self.sides[i].own.iter().filter(|a| !everywhere().any(|b| a.turns_with(b))).collect();
        let mut out: Vec<Adjuster> = kept
            .iter()
            .map(|a| {
                let mut a = edits().fold((*a).clone(), |a, e| a.with_edit(e));
                if let Some(s) = &self.square {
                    s.leave_room(&mut a);
                }
                a
            })
            .chain(everywhere().cloned())
            .collect();
        let not_here = |a: &Adjuster| Adjuster { held: Some(Held::NotHere), position: 0.0, ..a.clone() };
        for p in parts.iter().filter(|p| p.only.is_some()) {
            for new in &p.adjusters {
                let replaces: Vec<usize> = (0..kept.len()).filter(|k| kept[*k].turns_with(new)).collect();
                match (replaces.as_slice(), p.is_on(side)) {
                    ([], true) => out.push(new.clone()),
                    ([], false) => out.push(not_here(new)),
                    // Its own stays on the other side.
                    (_, false) => {}
                    ([first, rest @ ..], true) => {
                        out[*first] = new.clone();
                        rest.iter().for_each(|k| out[*k] = not_here(&out[*k]));
                    }
                }
            }
        }
        let turned = &self.input.turned[side];
        let stands = |mut a: Adjuster| {
            if a.held == Some(Held::NotHere) {
                return a;
            }
            if let Some(p) = turned.get(&a.name) {
                let squares = self.square.as_ref().map_or(0.0, |s| s.turned_by(&a, side));
                (a.position, a.unseen) = (*p - squares, false);
            }
            a
        };
        out.into_iter().map(stands).collect()
    }

    /// Brings an unreachable height back to the last good one on both sides.
    pub(crate) fn hold_within_travel(&mut self, parts: &[&Part]) -> Option<Stop> {
        let asked = self.state.own_mm;
        let mut stop: Option<Stop> = None;
        for i in 0..2 {
            let b = self.bench(i, parts);
            if let Err(e) = b.set(&b.start()).pose(b.travel_mm, 0.0) {
                let Unreachable { blocked, limit_travel_mm, .. } = e;
                let limit = asked + (b.travel_mm - limit_travel_mm);
                // Two millimetres inside the limit, where the adjusters can still be turned a little.
                let used = if asked > limit { (limit - 2.0).floor() } else { (limit + 2.0).ceil() };
                if stop.as_ref().is_none_or(|s| used.abs() < s.used_mm.abs()) {
                    stop = Some(Stop { asked_mm: asked, used_mm: used, words: stopped(blocked, limit) });
                }
            }
        }
        if let Some(s) = &stop {
            self.state = self.state.at_own(self.input.geometry.axle, s.used_mm);
        }
        stop
    }

    /// Edits of the ways in which height is gained.
    pub(crate) fn way_edits(&self) -> &[Edit] {
        &self.ways
    }

    /// Whether both sides are within the aim's left-to-right limits; caster counts where it steers.
    pub(crate) fn cross_ok(&self, left: &Alignment, right: &Alignment) -> bool {
        self.apart_deg(left, right) == 0.0
    }

    /// By how much the sides are farther apart than the aim allows, degrees: the larger of camber and caster; 0 where a
    /// shop could not read it.
    pub(crate) fn apart_deg(&self, left: &Alignment, right: &Alignment) -> f64 {
        let cross = self.input.cross();
        let off = cross.off(left.camber_deg - right.camber_deg, left.caster_deg - right.caster_deg);
        let (camber, caster) = (off[0].abs() - cross.camber, off[1].abs() - cross.caster);
        let over = if self.input.steered() { camber.max(caster) } else { camber };
        if over <= READABLE_DEG + 1e-9 { 0.0 } else { over }
    }

    pub(crate) fn aim(&self) -> &Aim {
        &self.input.aim
    }

    /// The best setting of both sides with parts; what was picked by hand on the map goes before the aim.
    pub(crate) fn settings(
        &self,
        parts: &[&Part],
        by_hand: bool,
    ) -> Option<([Bench; 2], [SolvedSetting; 2])> {
        // What is picked by hand may foul, and is told of it; what is worked out may not where it can do otherwise.
        let benches = [0, 1].map(|i| {
            let bench = self.bench(i, parts);
            let by_hand = by_hand && self.input.picked[SideName::BOTH[i]].is_some();
            if by_hand { bench } else { self.guarded(i, parts, bench) }
        });
        let cross = self.input.cross();
        if !by_hand || self.input.picked == Sides::default() {
            let set = solve_both(&benches, &self.targets, cross)?;
            // For the answer alone: a part is judged by whether it reaches.
            let most = by_hand && self.aim().caster_most && self.input.steered();
            let set = if most { self.most_caster(&benches, set) } else { set };
            return Some((benches, set));
        }
        let found = [0, 1].map(|i| match self.input.picked[SideName::BOTH[i]] {
            None => solve(&benches[i], &self.targets[i]),
            Some(Picked { camber_deg: x, second_deg: y }) => {
                let toe = if self.plane == Plane::CamberToe { [y; 2] } else { self.targets[i].toe };
                let caster = if self.plane == Plane::CamberToe { self.targets[i].caster } else { [y; 2] };
                let t = Target { camber: [x; 2], caster, toe };
                let mut list = solve(&benches[i], &t);
                list.truncate(1);
                list
            }
        });
        let (l, r) = pair(&found[0], &found[1], cross)?;
        let set = [0, 1].map(|i| {
            let s = [l, r][i];
            super::judge::judge(&benches[i], s.positions.clone(), s.angles, &self.targets[i], true)
        });
        Some((benches, set))
    }

    /// The setting with the most caster that is as good as `set` in everything else: the low end of caster's window is
    /// raised as long as nothing comes out of its own.
    fn most_caster(&self, benches: &[Bench; 2], set: [SolvedSetting; 2]) -> [SolvedSetting; 2] {
        let miss = |s: &[SolvedSetting; 2]| {
            s.iter().map(|s| s.told().sum()).sum::<f64>() + self.apart_deg(&s[0].angles, &s[1].angles)
        };
        let least = |s: &[SolvedSetting; 2]| s[0].angles.caster_deg.min(s[1].angles.caster_deg);
        let fouls = |s: &[SolvedSetting; 2]| s[0].foul.and(s[1].foul).left;
        let (allowed, met) = (miss(&set) + 1e-6, fouls(&set) + 1e-6);
        let mut best = set;
        let (mut low, mut high) = (0.0, 1.0);
        for _ in 0..MOST_STEPS {
            let share = f64::midpoint(low, high);
            let targets = self.targets.map(|t| {
                let [a, b] = t.caster;
                Target { caster: [a + share * (b - a), b], ..t }
            });
            let found = solve_both(benches, &targets, self.input.cross()).map(|found| {
                [0, 1].map(|i| {
                    let s = &found[i];
                    judge(&benches[i], s.positions.clone(), s.angles, &self.targets[i], true)
                })
            });
            let holds = |s: &[SolvedSetting; 2]| {
                let floor = targets.iter().map(|t| t.caster[0]).fold(f64::INFINITY, f64::min);
                miss(s) <= allowed && fouls(s) <= met && least(s) >= floor - READABLE_DEG
            };
            match found.filter(holds) {
                Some(s) => {
                    low = share;
                    if least(&s) > least(&best) {
                        best = s;
                    }
                }
                None => high = share,
            }
        }
        best
    }

    /// Turn of both wheels at full lock; Ackermann of the linkage as found where it can be followed.
    pub(crate) fn lock_turn(&self) -> Option<LockTurn> {
        if !self.input.steered() {
            return None;
        }
        let inner_deg = self.input.lock_deg;
        // Left and right turns give the outside wheel of either side; their mean serves both.
        let outer = |inside: usize| {
            let order = [inside, 1 - inside];
            let corners = order.map(|i| &self.sides[i].found);
            let travels = order.map(|i| self.sides[i].travel);
            full_lock(corners, travels, inner_deg, self.input.wheelbase_mm)
                .map_or(inner_deg * 0.86, |l| l.steering.outer_deg.abs())
        };
        let outer_deg = 0.5 * (outer(0) + outer(1));
        Some(LockTurn { inner_deg, outer_deg })
    }

    /// Every check of one side at the planned height.
    pub(crate) fn checks(&self, i: usize, parts: &[&Part], positions: &[f64]) -> Vec<Check> {
        let bench = self.bench(i, parts);
        let travel = self.checked_travel(i, &bench, positions);
        self.checked(i, parts, &bench, travel, positions).run()
    }

    /// Travel at the planned height, at which something may meet; at the height the plan is worked out at where that
    /// cannot be posed.
    fn checked_travel(&self, i: usize, bench: &Bench, positions: &[f64]) -> f64 {
        let planned = self.input.states().into_iter().nth(1).unwrap_or_else(|| self.state.clone());
        let travel = self.travel(i, &planned);
        if bench.set(positions).pose(travel, 0.0).is_ok() { travel } else { bench.travel_mm }
    }

    /// The bench with a watch over what was measured on this car.
    pub(crate) fn guarded(&self, i: usize, parts: &[&Part], bench: Bench) -> Bench {
        let start = bench.start();
        let travel = self.checked_travel(i, &bench, &start);
        let guard = Guard::of(&self.checked(i, parts, &bench, travel, &start));
        Bench { guard: guard.map(|g| Arc::new(g) as Arc<dyn Watch>), ..bench }
    }

    /// The same on a bench at any height.
    pub(crate) fn checks_on(
        &self,
        i: usize,
        parts: &[&Part],
        bench: &Bench,
        positions: &[f64],
    ) -> Vec<Check> {
        self.checked(i, parts, bench, bench.travel_mm, positions).run()
    }

    fn checked<'b>(
        &'b self,
        i: usize,
        parts: &[&Part],
        bench: &'b Bench,
        travel_mm: f64,
        positions: &'b [f64],
    ) -> Checked<'b> {
        let s = &self.sides[i];
        Checked {
            found: &s.found,
            found_travel: s.travel,
            bench,
            travel_mm,
            positions,
            free_gain: gain(&self.input.ways, |k| !k.uses_travel() && k != WayKind::BodyLift),
            limits: &self.input.limits,
            parts: together(parts.iter().filter(|p| p.is_on(SideName::BOTH[i])).map(|p| &p.limits)),
            tyre_gain: self.input.own().tyre_gain_mm,
        }
    }

    /// The parts of a list that are asked for, by id; a sized part asked for without its size is its first.
    pub(crate) fn named<'p>(&self, ids: &[String], catalogue: &'p [Part]) -> Vec<&'p Part> {
        ids.iter()
            .filter_map(|id| {
                catalogue.iter().find(|p| p.id == *id).or_else(|| catalogue.iter().find(|p| p.family() == id))
            })
            .collect()
    }
}

/// What fitted parts move on a side.
pub(crate) fn edits_on<'p>(side: SideName, parts: &'p [&Part]) -> impl Iterator<Item = Edit> + 'p {
    parts.iter().filter(move |p| p.is_on(side)).flat_map(|p| p.edits.iter().cloned())
}

fn side<'a>(input: &'a PlanInput, r: &'a SideReadings, name: SideName) -> Result<Side<'a>, Problem> {
    let (points, wheel) = &input.geometry.side(name);
    let travel = input.design_height_mm - r.height_mm;
    let own = likely_positions(
        &input.adjusters[name],
        points,
        wheel,
        travel,
        input.steered(),
        (&r.angles, &r.sigma),
        &input.knowledge.own_angles(),
    );
    let start: Vec<Edit> = own.iter().flat_map(|a| a.edits_at(a.position)).collect();
    let bent = if input.steered() {
        anchor(points, wheel, travel, &start, &r.angles)
    } else {
        anchor_wheel(points, wheel, travel, &start, r.angles.camber_deg, r.angles.toe_deg)
    };
    let anchored = bent.map_err(|e| {
        Problem::new(
            format!("geometry.{}", e.field()),
            said("fault-open-at-read").word("side", name.word()).mm("at", r.height_mm).say("why", e.says()),
            said("fault-measure-joint"),
        )
    })?;
    let found = anchored.corner.edited(&start);
    Ok(Side { readings: r, anchored, travel, own, start, found })
}

/// Why a list of parts cannot stand together on this vehicle: taken places, missing companions, what rules each
/// other out. Empty when it can.
pub(crate) fn misfits(parts: &[&Part], input: &PlanInput, has: &dyn Fn(&str) -> bool) -> Vec<Said> {
    let mut out = Vec::new();
    for p in parts {
        if !has_place(p, input) {
            out.push(said("misfit-build").name("part", p.name.clone()));
        }
        if let Some((book, rule)) = input.class_rules.as_ref().and_then(|c| Some((c, c.broken_by(p)?))) {
            let says = said("misfit-rule").name("part", p.name.clone()).name("book", book.name.clone());
            out.push(says.word("rule", rule.word()));
        }
    }
    for (i, p) in parts.iter().enumerate() {
        for q in &parts[i + 1..] {
            if p.fits.replaces == q.fits.replaces {
                out.push(two("misfit-place", p, q));
            } else if p.conflicts.iter().any(|c| c == q.family())
                || q.conflicts.iter().any(|c| c == p.family())
            {
                out.push(two("misfit-beside", p, q));
            }
        }
        for tag in &p.requires {
            let given = has(tag)
                || parts.iter().any(|q| q.id != p.id && (q.family() == tag || q.provides.contains(tag)));
            if !given {
                out.push(said("misfit-needs").name("part", p.name.clone()).say("what", tag_words(tag)));
            }
        }
    }
    out
}

fn two(id: &'static str, p: &Part, q: &Part) -> Said {
    said(id).name("part", p.name.clone()).name("other", q.name.clone())
}

fn tag_words(tag: &str) -> Said {
    match tag {
        "toe_adjuster" => said("needs-toe-adjuster"),
        "cams" => said("needs-cams"),
        "no_cams" => said("needs-no-cams"),
        other => Said::text(other.replace(['_', '-'], " ")),
    }
}

/// Whether a part only frees cams that are free already, so that it is no choice here.
pub(crate) fn frees_nothing(p: &Part, input: &PlanInput) -> bool {
    p.adjusters.is_empty()
        && !p.edits.is_empty()
        && p.edits.iter().all(|e| match e {
            Edit::FreeEccentrics { .. } => input
                .adjusters
                .each()
                .iter()
                .all(|(_, l)| l.iter().all(|a| !a.is_fixed() || &a.with_edit(e) == a)),
            _ => false,
        })
}

/// What the vehicle brings by itself.
pub(crate) fn provided(input: &PlanInput, has_toe: bool) -> impl Fn(&str) -> bool {
    let cams = input
        .adjusters
        .left
        .iter()
        .any(|a| matches!(a.kind, bold_stance_car::adjuster::AdjusterKind::Eccentric { .. }));
    move |tag: &str| match tag {
        "toe_adjuster" => has_toe,
        "cams" => cams,
        "no_cams" => !cams,
        _ => false,
    }
}
