//! What is left to turn on a car: every wheel that was worked on and read since, on the model that its readings taught.

use super::axle_odds::weighed_together;
use super::explain::{Explained, Weighed, weigh};
use super::learner::{AnglesRead, Came, GAIN_TOLD, Learner, Next, SLOPE, next_of_both};
use super::live::{as_one, of_angles, tell};
use super::look::{Look, looks};
use super::whole::{WholeLeft, whole_left};
use super::work_loop::WorkLoop;
use crate::part::Part;
use crate::plan::{Bench, Budget, CarInput, Order, PlanInput, PlanState, SettingLine, Work, begin};
use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::vehicle::{Axles, Sides, StateKind};
use bold_stance_kinematics::geometry::{Axle, Points, Side};
use bold_stance_kinematics::linkage::Corner;
use bold_stance_units::said::{Said, said};
use bold_stance_units::{HalfWidth, Sigma};
use serde::{Deserialize, Serialize};

/// What an adjuster was found to do.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct FoundGain {
    /// The adjuster.
    pub name: String,
    /// The part it belongs to, by the id of its family; none for the car's own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub part: Option<String>,
    /// ln of what it does over what it is sold to do.
    pub ln_times: f64,
    /// Standard deviation of that.
    pub sd: f64,
}

/// What is left to turn at one wheel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct SideLeft {
    /// In one line.
    pub headline: Said,
    /// Everything that can be turned, from where it stands.
    pub orders: Vec<SettingLine>,
    /// What the last reading was expected to be, camber, caster, toe, degrees, at the height it was read at.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub expected: [f64; 3],
    /// 90 % half widths of that, without the reading's own.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub expected_band: [f64; 3],
    /// Camber, caster, toe after the orders, degrees, at the height the aim counts at.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub expect: [f64; 3],
    /// 90 % half widths of that.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub band: [f64; 3],
    /// Probability that every angle lands.
    pub odds: f64,
    /// Whether the aim is believed reached by it.
    pub reaches: bool,
    /// What the readings taught of what can be turned here.
    pub taught: Vec<Said>,
    /// What each adjuster that was turned was found to do, by this car's readings alone.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub found: Vec<FoundGain>,
    /// What may explain the last reading, where it was odd: likeliest first, three at most, that nothing is odd among them.
    pub odd: Vec<Explained>,
    /// The one look or reading that tells those apart best.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub look: Option<Look>,
    /// Looks after that one, where it showed nothing.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub next_looks: Vec<Look>,
    /// What is not ruled out beside those told in `odd`.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub also: Vec<Said>,
    /// What was expected of it just before it was turned last, camber, caster, toe, degrees, at the height it was read at.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub before: [f64; 3],
    /// Whether its last reading taught nothing, being odder than once in a hundred: nothing is ordered before it was read again.
    #[serde(default)]
    pub again: bool,
    /// How often it was turned and read.
    pub rounds: u32,
    /// Whether it stands otherwise than first ordered: turned again, or not as ordered.
    pub as_done: bool,
}

/// What is left to turn on an axle.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AxleLeft {
    /// Which.
    pub axle: Axle,
    /// Each wheel that was read after work.
    pub sides: Sides<Option<SideLeft>>,
    /// What is one for both wheels; none where each wheel has its own.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub whole: Option<WholeLeft>,
    /// What sets toe, everything else standing where it stands: what its own step turns. Empty on a live axle.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub toe: Vec<Order>,
    /// Wheels whose toe was read last and taught nothing: what sets it waits for another reading.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub toe_again: Vec<Side>,
    /// Whether it was turned at all; else it is what was read before its first work.
    pub worked: bool,
    /// That a reading belongs between these orders, where toe is turned behind something that moves it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub between: Option<Said>,
}

impl AxleLeft {
    /// The same with what is said of a reading in between.
    fn with_reading_between(self) -> Self {
        let moves = |toe: bool| self.orders().iter().any(|o| o.line.sets_toe == toe && o.line.moves());
        let between = (moves(false) && moves(true)).then(|| match self.axle {
            Axle::Front => said("left-between-front"),
            Axle::Rear => said("left-between-rear"),
        });
        Self { between, ..self }
    }

    /// Everything that can be turned, from where it stands: what is one for both wheels first.
    #[must_use]
    pub fn orders(&self) -> Vec<Order> {
        let whole = self.whole.iter().flat_map(|w| w.orders.iter().cloned());
        let of = |(side, w): (Side, &Option<SideLeft>)| {
            let lines = w.iter().flat_map(|w| &w.orders).cloned();
            lines.map(|line| Order { axle: self.axle, side: Some(side), line }).collect::<Vec<_>>()
        };
        whole.chain(self.sides.each().into_iter().flat_map(of)).collect()
    }
}

/// Explanations that are told.
const MOST_ODD: usize = 3;
/// Odds under which an explanation is not worth a line.
const LEAST_ODDS: f64 = 0.05;

/// What a reading is explained by: how it stood before, and how it was told to stand.
struct Turned<'a> {
    before: Learner<'a>,
    at: Vec<f64>,
    travel_mm: f64,
    read: AnglesRead,
    was: [Option<f64>; 3],
}

/// What came of the last loop of a wheel.
struct Last<'a> {
    came: Came,
    /// Whether anything came off the prediction.
    missed: bool,
    /// What it was turned from and to, at which travel, mm, and what was read before and after.
    turned: Turned<'a>,
    /// How often it had been turned.
    rounds: u32,
    before: [f64; 3],
    /// Travel at the height the aim counts at, as far off the plan as the last height was, mm.
    travel_mm: f64,
}

impl Last<'_> {
    /// Whether it was read and nothing was learned of it.
    fn refused(&self) -> bool {
        !self.came.learned && !self.came.which.is_empty()
    }
}

/// One wheel as its readings are taken in.
struct Wheel<'a> {
    learner: Learner<'a>,
    i: usize,
    planned: PlanState,
    planned_mm: f64,
    /// As read last, camber, caster, toe, degrees.
    read: [Option<f64>; 3],
    last: Option<Last<'a>>,
    /// The same with toe alone taken in of a reading that taught nothing.
    toe: Option<Learner<'a>>,
}

/// One wheel once everything that was read of it, and of the other one of a live axle, was taken in.
struct Taught<'a> {
    learner: Learner<'a>,
    /// The same for what sets toe: by its own reading where the others taught nothing; none where that is odd as well.
    toe: Option<Learner<'a>>,
    last: Last<'a>,
    /// What explains what was read, by this wheel alone.
    weighed: Vec<Weighed>,
}

impl<'a> Wheel<'a> {
    fn new(
        work: &Work<'_>,
        i: usize,
        parts: &[&Part],
        (bench, points): (&'a Bench, &'a Points),
        across: Option<&'a Bench>,
    ) -> Option<Self> {
        let input = work.input;
        let planned = input.states().into_iter().find(|s| s.kind == StateKind::Planned)?;
        let planned_mm = work.sides[i].readings.height_mm + planned.own_mm + input.trim_mm[Side::BOTH[i]];
        let own = work.state.own_mm;
        let doubt = work.doubts(i, bench, &bench.start(), parts, own, own).ok()?;
        let doubt = doubt.first()?.1?;
        let variance =
            [doubt.camber_deg, doubt.caster_deg, doubt.toe_deg].map(|h| HalfWidth(h).sigma().0.powi(2));
        let learner = Learner::new(bench, variance, &Learner::usual_gains(bench));
        let learner = learner.with_points(points).with_across(across);
        let found = &work.sides[i].readings.angles;
        let read = [Some(found.camber_deg), Some(found.caster_deg), Some(found.toe_deg)];
        Some(Self { learner, i, planned, planned_mm, read, last: None, toe: None })
    }

    /// Work on it and what was read after.
    fn step(&mut self, work: &Work<'_>, l: &WorkLoop) -> Option<()> {
        let before = self.learner.clone();
        let off_mm = l.height_mm.unwrap_or(self.planned_mm) - self.planned_mm;
        let travel = work.travel(self.i, &self.planned) - off_mm;
        let adjusters = self.learner.bench.adjusters.iter();
        let at: Vec<f64> =
            adjusters.zip(&before.at).map(|(a, p)| l.stands.get(&a.name).copied().unwrap_or(*p)).collect();
        let mut unturned = before.clone();
        unturned.turned(&before.at, travel);
        let stood = unturned.expected()?.value;
        self.learner.turned(&at, travel);
        let turned = self.learner.clone();
        let mut came = self.learner.read(&l.read)?;
        self.toe = None;
        // What is odd and came the same before is no slip of one reading.
        if !came.learned && l.earlier.value.iter().any(Option::is_some) {
            let mut twice = turned.clone();
            let first = twice.read(&l.earlier)?;
            let second = twice.read(&l.read)?;
            if !first.learned && second.learned {
                self.learner = twice;
                came.learned = true;
            }
        }
        if !came.learned && l.read.value[2].is_some() {
            let mut alone = turned;
            let toe = AnglesRead { value: [None, None, l.read.value[2]], sigma: l.read.sigma };
            self.toe = alone.read(&toe)?.learned.then_some(alone);
        }
        let missed = (0..3).any(|k| came.as_predicted(k) == Some(false));
        let was = self.read;
        for (was, v) in self.read.iter_mut().zip(l.read.value) {
            *was = v.or(*was);
        }
        let travel_mm = work.travel(self.i, &work.state) - off_mm;
        let turned = Turned { before, at, travel_mm: travel, read: l.read, was };
        self.last = Some(Last { came, missed, turned, rounds: l.rounds, before: stood, travel_mm });
        Some(())
    }

    /// Whether it was read after the last work.
    fn is_read(&self) -> bool {
        self.last.as_ref().is_some_and(|l| !l.came.which.is_empty())
    }

    /// What is known of it after the last work.
    fn taught(self) -> Option<Taught<'a>> {
        let last = self.last?;
        let t = &last.turned;
        let weighed = weigh(&t.before, &t.at, t.travel_mm, &t.read, t.was);
        let toe = if last.refused() { self.toe } else { Some(self.learner.clone()) };
        Some(Taught { learner: self.learner, toe, last, weighed })
    }
}

/// What the readings taught of each adjuster that was turned, where it is worth a word.
fn lessons(t: &Learner<'_>) -> Vec<Said> {
    let (least, sds) = GAIN_TOLD;
    let of = |(k, g): (usize, f64)| {
        let ln = t.belief.mean[3 + k];
        let sd = t.belief.cov[(3 + k, 3 + k)].max(0.0).sqrt();
        let a = &t.bench.adjusters[k];
        let turned = (t.at[k] - a.position).abs() > 1e-9;
        (turned && ln.abs() > least && ln.abs() > sds * sd)
            .then(|| said("left-gain").name("name", a.name.clone()).plain("times", g, 1))
    };
    t.belief.gains().into_iter().enumerate().filter_map(of).collect()
}

/// What the readings say by themselves of each adjuster that was turned: what is believed less what was believed before.
fn found_gains(t: &Learner<'_>, parts: &[&Part]) -> Vec<FoundGain> {
    let before = Learner::usual_gains(t.bench);
    let of = |(k, a): (usize, &Adjuster)| {
        let (mean, var) = (t.belief.mean[3 + k], t.belief.cov[(3 + k, 3 + k)].max(1e-12));
        let (mean_was, sd_was) = before[k];
        let precision = 1.0 / var - sd_was.powi(-2);
        let turned = (t.at[k] - a.position).abs() > 1e-9;
        if !turned || precision <= 1e-3 {
            return None;
        }
        let own = (mean / var - mean_was * sd_was.powi(-2)) / precision;
        // What points that are not where they were told make of its slope goes to no other car.
        let sd = precision.powf(-0.5).hypot(SLOPE);
        let known = a.known.map_or(0.0, |k| k.times.ln());
        let part = parts.iter().find(|p| p.adjusters.iter().any(|x| x.name == a.name));
        let family = part.map(|p| p.id.split('@').next().unwrap_or(&p.id).to_owned());
        Some(FoundGain { name: a.name.clone(), part: family, ln_times: known + own, sd })
    };
    t.bench.adjusters.iter().enumerate().filter_map(of).collect()
}

fn told_left(
    t: &Taught<'_>,
    other: Option<&Taught<'_>>,
    next: Next,
    loops: &[WorkLoop],
    parts: &[&Part],
) -> SideLeft {
    let moves = next.lines.iter().any(SettingLine::moves);
    // Never ten of ten: nothing here is certain.
    let tens = (next.odds * 10.0).floor().clamp(0.0, 9.0) as usize;
    let again = t.last.refused();
    let headline = match (moves, next.reaches) {
        _ if again => said("left-again"),
        (false, true) => said("left-nothing"),
        (false, false) => said("left-short"),
        (true, true) => said("left-turn").count("n", tens),
        (true, false) => said("left-nearest"),
    };
    let half = |sd: [f64; 3]| sd.map(|s| Sigma(s).half_width().0);
    // What the other wheel showed after the same work speaks of causes that come to both.
    let there = other.filter(|o| o.last.rounds == t.last.rounds).map_or(&[][..], |o| &o.weighed);
    let odd = if t.last.missed { weighed_together(&t.weighed, there) } else { Vec::new() };
    let mut looks = looks(&odd).into_iter();
    let likely = odd.iter().filter(|e| e.odds >= LEAST_ODDS).take(MOST_ODD);
    let also = odd.iter().skip(likely.clone().count()).filter(|e| e.alike).map(|e| e.what.clone());
    SideLeft {
        headline,
        orders: next.lines,
        expected: t.last.came.expected.value,
        expected_band: half(t.last.came.expected.sd),
        expect: next.expect.value,
        band: half(next.expect.sd),
        odds: next.odds,
        reaches: next.reaches,
        taught: lessons(&t.learner),
        found: found_gains(&t.learner, parts),
        odd: likely.cloned().collect(),
        look: looks.next(),
        next_looks: looks.collect(),
        also: also.collect(),
        before: t.last.before,
        again,
        rounds: loops.len() as u32,
        as_done: loops.len() > 1 || loops.iter().any(|l| l.otherwise),
    }
}

/// What is left to turn at a wheel.
#[must_use]
pub fn side_left(left: &[AxleLeft], axle: Axle, side: Side) -> Option<&SideLeft> {
    left.iter().find(|l| l.axle == axle).and_then(|l| l.sides[side].as_ref())
}

/// Both wheels with all their loops taken in. Wheels of a live axle tell each other what they learned of their arms.
fn both_taught<'a>(
    work: &Work<'_>,
    parts: &[&Part],
    (benches, points): (&'a [Bench; 2], &'a [Points; 2]),
    loops: &Sides<Vec<WorkLoop>>,
    live: bool,
) -> [Option<Taught<'a>>; 2] {
    let steers = live && benches[0].corner_steers();
    let of = |i: usize| {
        let across = steers.then_some(&benches[1 - i]);
        Wheel::new(work, i, parts, (&benches[i], &points[i]), across)
    };
    let mut wheels = [of(0), of(1)];
    let last = loops.each().into_iter().flat_map(|(_, l)| l).map(|l| l.rounds).max().unwrap_or(0);
    for n in 0..=last {
        for (i, side) in Side::BOTH.into_iter().enumerate() {
            for l in loops[side].iter().filter(|l| l.rounds == n) {
                let [a, b] = &mut wheels;
                let (own, other) = if i == 0 { (a, b) } else { (b, a) };
                let Some(w) = own else { continue };
                let before = w.learner.clone();
                if w.step(work, l).is_none() {
                    *own = None;
                    continue;
                }
                if let Some(o) = other.as_mut().filter(|_| live) {
                    tell(&before, &w.learner, &mut o.learner);
                }
            }
        }
    }
    // What one wheel of a live axle showed is known of the other one too.
    let told = live && wheels.iter().flatten().any(Wheel::is_read);
    wheels.map(|w| w.filter(|w| told || w.is_read()).and_then(Wheel::taught))
}

fn axle_left(input: &PlanInput, catalogue: &[Part], loops: &Sides<Vec<WorkLoop>>) -> Option<AxleLeft> {
    // Everything that was turned is in the loops: they begin as found.
    let input = &PlanInput { turned: Sides::default(), ..input.clone() };
    let (work, all) = begin(input, catalogue, &Budget::default()).ok()?;
    let work = work.with_work_for_each_set();
    let parts = work.named(&input.fitted, &all);
    let live = matches!(work.sides[0].found, Corner::Axle(_));
    let benches = [0, 1].map(|i| {
        let bench = work.bench(i, &parts);
        work.guarded(i, &parts, if live { of_angles(bench) } else { bench })
    });
    let points = [0, 1].map(|i| input.geometry.side(Side::BOTH[i]).0);
    let steers = live && benches[0].corner_steers();
    let seen = if live { as_one(loops, work.square.as_ref(), steers) } else { loops.clone() };
    let found = both_taught(&work, &parts, (&benches, &points), &seen, live);
    let next = match &found {
        [Some(l), Some(r)] => {
            let travels = [l.last.travel_mm, r.last.travel_mm];
            let wheels = [l.learner.clone(), r.learner.clone()];
            next_of_both(&wheels, &work.targets, travels, input.cross())?.map(Some)
        }
        // Nothing was worked on at one of them: what is one for both is not turned by the other alone.
        _ if live => [None, None],
        _ => [0, 1].map(|i| {
            let t = found[i].as_ref()?;
            t.learner.next(&work.targets[i], t.last.travel_mm)
        }),
    };
    // Nothing is turned by a reading that taught nothing; both wheels of a live axle hang on what was read of either.
    let refused = |i: usize| {
        let own = found[i].as_ref().is_some_and(|t| t.last.refused());
        own || live && found.iter().flatten().any(|t| t.last.refused())
    };
    let [l, r] = [0, 1].map(|i| match &found[i] {
        Some(t) if refused(i) => t.learner.stays(&work.targets[i], t.last.travel_mm),
        _ => next[i].clone(),
    });
    let of_toe = |i: usize| {
        let t = found[i].as_ref().filter(|_| !live)?;
        t.toe.as_ref()?.next_of_toe(&work.targets[i], t.last.travel_mm)
    };
    let toe: Vec<Order> = [0, 1]
        .into_iter()
        .filter_map(|i| Some((i, of_toe(i)?)))
        .flat_map(|(i, n)| n.lines.into_iter().map(move |line| (i, line)))
        .filter(|(_, line)| line.sets_toe)
        .map(|(i, line)| Order { axle: input.geometry.axle, side: Some(Side::BOTH[i]), line })
        .collect();
    let odd_toe = |i: &usize| {
        found[*i].as_ref().is_some_and(|t| t.toe.is_none() && t.last.turned.read.value[2].is_some())
    };
    let toe_again: Vec<Side> = [0, 1].into_iter().filter(odd_toe).map(|i| Side::BOTH[i]).collect();
    let told = |i: usize, n: Option<Next>| {
        // What is a wheel's own waits until it is read itself.
        let read = |t: &&Taught<'_>| !t.last.came.which.is_empty();
        let own = found[i].as_ref().filter(read)?;
        let other = found[1 - i].as_ref().filter(read);
        Some(told_left(own, other, n?, &seen[Side::BOTH[i]], &parts))
    };
    let mut out = Sides { left: told(0, l), right: told(1, r) };
    let whole = live.then(|| {
        let shared = |w: &Option<SideLeft>| {
            let lines = w.iter().flat_map(|w| &w.orders).filter(|l| l.shared).cloned();
            lines.collect::<Vec<SettingLine>>()
        };
        let lines = if out.left.is_some() { shared(&out.left) } else { shared(&out.right) };
        for w in out.each_mut().into_iter().flatten() {
            w.orders.retain(|l| !l.shared);
        }
        // What both hang on is found once.
        let own =
            |a: &FoundGain| benches[1].adjusters.iter().any(|b| b.name == a.name && !b.is_shared_on_axle());
        if let Some(r) = &mut out.right {
            r.found.retain(own);
        }
        whole_left(input, &work, &parts, loops, lines)
    });
    let whole = whole.flatten();
    let worked = loops.each().iter().any(|(_, l)| l.iter().any(|l| l.rounds > 0));
    let left =
        AxleLeft { axle: input.geometry.axle, sides: out, whole, toe, toe_again, worked, between: None };
    let some = left.sides.each().iter().any(|(_, w)| w.is_some()) || left.whole.is_some();
    some.then(|| left.with_reading_between())
}

/// What is left to turn on every axle of which a wheel was read since it came: after work, or at its new height before it.
#[must_use]
pub fn left_to_turn(
    input: &CarInput,
    catalogue: &[Part],
    loops: &Axles<Sides<Vec<WorkLoop>>>,
) -> Vec<AxleLeft> {
    let mut out = Vec::new();
    for axle in [Axle::Rear, Axle::Front] {
        let some = loops[axle].each().iter().any(|(_, l)| !l.is_empty());
        let left = input.axle(axle).filter(|_| some);
        out.extend(left.and_then(|i| axle_left(&i, catalogue, &loops[axle])));
    }
    out
}
