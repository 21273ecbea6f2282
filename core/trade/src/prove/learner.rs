//! A corner that is turned and read, again and again: what was expected, what came, what it taught, what is left to turn.

use super::belief::{Belief, Innovation};
use crate::aim::{Cross, Target, Window, off_window};
use crate::plan::{Bench, READABLE_DEG, READABLE_TOE_DEG, SettingLine, in_hand, solve, solve_both};
use bold_stance_car::adjuster::{Adjuster, AdjusterKind, Learned};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::Points;
use bold_stance_kinematics::linkage::Corner;
use bold_stance_units::Sigma;
use bold_stance_units::numbers::normal_below;
use nalgebra::{DMatrix, DVector};

/// What lies between two readings with work in between, standard deviations of camber, caster, toe, degrees: settling
/// and stiction (judgement, no source).
const SETTLE_DEG: [f64; 3] = [0.02, 0.04, 0.01];
/// How far off the model is in what a turn of an adjuster changes, for points that are 4 mm off, standard deviations of camber,
/// caster, toe, of the change's size (camber, half of caster and toe as one length): somewhat over the middle of all shipped shapes,
/// moved by each of their points.
const OTHER_POINTS: [f64; 3] = [0.04, 0.06, 0.08];
/// What the same points leave open of the slope of one adjuster, a share.
pub(super) const SLOPE: f64 = 0.06;
/// What a part may do against its claim: standard deviation of ln gain (judgement, no source).
pub(super) const OTHER_GAIN: f64 = 0.4;
/// Points told wrong, or a bent part: what a change is off by, degrees of camber, caster, toe (judgement, no source).
pub(super) const POINTS_DEG: [f64; 3] = [0.5, 0.8, 0.3];
/// How well a hand sets a cam, degrees of its angle; a thread, turns; a slot, mm; a knuckle in its clamp, degrees of camber
/// (judgement, no source).
const HAND: (f64, f64, f64, f64) = (1.5, 1.0 / 48.0, 0.2, 0.1);
/// Where the windows cannot be had, so much nearer to them an order has to bring it to be worth a spanner, degrees weighed
/// as the solver weighs them: what a shop can read of camber and caster. Less would be turned to and fro by every reading.
const NEARER: f64 = 2.0 * READABLE_DEG + READABLE_DEG;
/// Odds from which a corner is left as it stands.
const LEAVE_ODDS: f64 = 0.9;
/// A gain is told from this far off what was said, as a share, and from as many standard deviations (judgement, no
/// source).
pub(super) const GAIN_TOLD: (f64, f64) = (0.1, 1.0);
/// Step of ln gain for slopes.
const GAIN_STEP: f64 = 0.02;

/// What a hand leaves of an order, in positions of the adjuster, standard deviation; whole shims and wedges leave none.
fn hand(a: &Adjuster) -> f64 {
    let (cam, turn, slot, knuckle) = HAND;
    match &a.kind {
        AdjusterKind::Eccentric { .. } | AdjusterKind::CamBolt { .. } => cam,
        AdjusterKind::Thread { .. } => turn,
        AdjusterKind::Slide { .. } => slot,
        // What goes from tooth to tooth or is a shim of its own thickness lands where it is put.
        AdjusterKind::Tilt { step_deg: None, .. } => knuckle,
        AdjusterKind::Tilt { .. }
        | AdjusterKind::Shims { .. }
        | AdjusterKind::Wedge { .. }
        | AdjusterKind::Sleeve { .. } => 0.0,
    }
}

/// Camber, caster and toe as read, degrees, with their standard deviations; none where it was not read.
#[derive(Debug, Clone, Copy, PartialEq, Default)]
pub struct AnglesRead {
    /// Values.
    pub value: [Option<f64>; 3],
    /// Standard deviations.
    pub sigma: [f64; 3],
}

/// What was expected before a reading.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Expected {
    /// Camber, caster, toe, degrees.
    pub value: [f64; 3],
    /// Standard deviations.
    pub sd: [f64; 3],
}

/// A reading once it came.
#[derive(Debug, Clone)]
pub struct Came {
    /// What was expected.
    pub expected: Expected,
    /// Read less expected of what was read; which of the three they are.
    pub innovation: Innovation,
    /// Index of each angle that was read.
    pub which: Vec<usize>,
    /// Whether the model took it in; what is odder than once in a hundred teaches nothing.
    pub learned: bool,
}

impl Came {
    /// Whether an angle came as predicted: inside the 90 % band of expecting and reading together. None where it was not
    /// read.
    #[must_use]
    pub fn as_predicted(&self, angle: usize) -> Option<bool> {
        let k = self.which.iter().position(|w| *w == angle)?;
        Some(self.innovation.off[k].abs() <= Sigma::of_variance(self.innovation.cov[(k, k)]).half_width().0)
    }
}

/// The next orders, on what was learned.
#[derive(Debug, Clone)]
pub struct Next {
    /// Where each adjuster is to end.
    pub positions: Vec<f64>,
    /// Orders from where each stands.
    pub lines: Vec<SettingLine>,
    /// What comes of it.
    pub expect: Expected,
    /// Probability that every angle lands in its window, as well as a shop can read it.
    pub odds: f64,
    /// Where the corner stands now, by everything that was read.
    pub now: Expected,
    /// Whether every angle is believed inside its window then.
    pub reaches: bool,
}

/// A corner with its adjusters, and what is believed of it.
#[derive(Debug, Clone)]
pub struct Learner<'a> {
    /// Anchored to the readings as found, adjusters standing where they stood then; its travel is not used.
    pub bench: &'a Bench,
    /// What is believed.
    pub belief: Belief,
    /// Where every adjuster stands.
    pub at: Vec<f64>,
    /// Travel at which it stands, mm, bump positive.
    pub travel_mm: f64,
    /// What the last reading was off by where nothing was learned of it, degrees; none where it was not read.
    odd: Option<[Option<f64>; 3]>,
    /// Places of what was turned since something was learned last.
    turned: Vec<usize>,
    /// Points its corner was made of, where its orders are to be held in hand.
    points: Option<&'a Points>,
    /// The other wheel of a steered live axle: one tie rod turns one wheel by it all, and the steering wheel is put straight.
    across: Option<&'a Bench>,
}

impl<'a> Learner<'a> {
    /// Before anything was turned. `offset_variance`: of the readings as found and of the model's change since, degrees
    /// squared; `gains`: mean and standard deviation of ln gain of each adjuster.
    #[must_use]
    pub fn new(bench: &'a Bench, offset_variance: [f64; 3], gains: &[(f64, f64)]) -> Self {
        let belief = Belief::of(offset_variance, gains);
        Self {
            bench,
            belief,
            at: bench.start(),
            travel_mm: bench.travel_mm,
            odd: None,
            turned: Vec::new(),
            points: None,
            across: None,
        }
    }

    /// The same, its orders with what is held in hand of each: `points` are those its corner was made of.
    #[must_use]
    pub fn with_points(self, points: &'a Points) -> Self {
        Self { points: Some(points), ..self }
    }

    /// The same, toe being half of both wheels': `across` is the other wheel of a steered live axle, its adjusters in the
    /// same order.
    #[must_use]
    pub fn with_across(self, across: Option<&'a Bench>) -> Self {
        Self { across, ..self }
    }

    /// What the adjusters are usually worth: each as it is said, with its own doubt.
    #[must_use]
    pub fn usual_gains(bench: &Bench) -> Vec<(f64, f64)> {
        bench.adjusters.iter().map(|a| (0.0, a.gain_sd())).collect()
    }

    /// Angles of the model with the adjusters at `positions`, each doing `gains` times what it is said to do.
    pub(super) fn model(&self, positions: &[f64], travel_mm: f64, gains: &[f64]) -> Option<[f64; 3]> {
        let of = |bench: &Bench| {
            let adjusters = bench.adjusters.iter().zip(positions).zip(gains);
            let edits: Vec<Edit> = adjusters.flat_map(|((a, p), g)| a.edits_with_gain(*p, *g)).collect();
            bench.angles_at(&bench.corner.edited(&edits), travel_mm).ok()
        };
        let a = of(self.bench)?;
        let toe_deg = match self.across {
            Some(b) => f64::midpoint(a.toe_deg, of(b)?.toe_deg),
            None => a.toe_deg,
        };
        Some([a.camber_deg, a.caster_deg, toe_deg])
    }

    /// What a state expects at positions, and its slopes by every part of the state.
    pub(super) fn slopes(&self, x: &DVector<f64>, positions: &[f64]) -> Option<([f64; 3], DMatrix<f64>)> {
        let gains: Vec<f64> = x.iter().skip(3).map(|g| g.exp()).collect();
        let mut h = DMatrix::zeros(3, x.len());
        let here = self.model(positions, self.travel_mm, &gains)?;
        for i in 0..3 {
            h[(i, i)] = 1.0;
        }
        for (k, a) in self.bench.adjusters.iter().enumerate() {
            if (positions[k] - a.position).abs() < 1e-9 {
                continue;
            }
            let moved = |by: f64| {
                let mut g = gains.clone();
                g[k] *= by.exp();
                self.model(positions, self.travel_mm, &g)
            };
            let (up, down) = (moved(GAIN_STEP)?, moved(-GAIN_STEP)?);
            for i in 0..3 {
                h[(i, 3 + k)] = (up[i] - down[i]) / (2.0 * GAIN_STEP);
            }
        }
        Some(([0, 1, 2].map(|i| here[i] + x[i]), h))
    }

    /// What the hand, settling and points that are not where they were told leave open where the adjusters in `moved` are turned
    /// to `positions`: a covariance, degrees squared.
    fn disturbance(&self, positions: &[f64], moved: impl Fn(usize) -> bool) -> [[f64; 3]; 3] {
        let mut q = [[0.0; 3]; 3];
        for (i, s) in SETTLE_DEG.iter().enumerate() {
            q[i][i] = s * s;
        }
        let gains = self.belief.gains();
        let start = self.bench.start();
        // What the points leave open of the first work is in the offsets as they were given.
        let first = self.at.iter().zip(&start).all(|(a, b)| (a - b).abs() < 1e-9);
        for (k, a) in self.bench.adjusters.iter().enumerate() {
            if !moved(k) {
                continue;
            }
            let with = |p: f64| {
                let mut all = positions.to_vec();
                all[k] = p;
                self.model(&all, self.travel_mm, &gains)
            };
            if !first && let Some((to, from)) = with(positions[k]).zip(with(self.at[k])) {
                let [camber, caster, toe] = [0, 1, 2].map(|i| to[i] - from[i]);
                let size = (camber * camber + 0.25 * caster * caster + toe * toe).sqrt();
                // Of what sets toe most of it is along what it is learned to do.
                let part = if self.bench.toe_by == Some(k) { 0.5 } else { 1.0 };
                for (i, share) in OTHER_POINTS.iter().enumerate() {
                    q[i][i] += (part * share * size).powi(2);
                }
            }
            let sd = hand(a);
            if sd == 0.0 {
                continue;
            }
            let Some((up, down)) = with(positions[k] + sd).zip(with(positions[k] - sd)) else { continue };
            let d = [0, 1, 2].map(|i| 0.5 * (up[i] - down[i]));
            for (i, row) in q.iter_mut().enumerate() {
                for (j, v) in row.iter_mut().enumerate() {
                    *v += d[i] * d[j];
                }
            }
        }
        q
    }

    /// The adjusters were turned to `positions` and the corner came to stand at a travel.
    pub fn turned(&mut self, positions: &[f64], travel_mm: f64) {
        self.travel_mm = travel_mm;
        let was = self.at.clone();
        let q = self.disturbance(positions, |k| (positions[k] - was[k]).abs() > 1e-9);
        self.turned.extend((0..was.len()).filter(|k| (positions[*k] - was[*k]).abs() > 1e-9));
        self.at = positions.to_vec();
        self.belief.disturb(&q);
    }

    /// What a reading taken now would show; none where the corner does not close.
    #[must_use]
    pub fn expected(&self) -> Option<Expected> {
        self.expected_at(&self.at, &[[0.0; 3]; 3])
    }

    fn expected_at(&self, positions: &[f64], more: &[[f64; 3]; 3]) -> Option<Expected> {
        let (value, h) = self.slopes(&self.belief.mean, positions)?;
        let v = &h * &self.belief.cov * h.transpose();
        Some(Expected { value, sd: [0, 1, 2].map(|i| (v[(i, i)] + more[i][i]).max(0.0).sqrt()) })
    }

    /// Whether a reading is off by the same as the one before it, of which nothing was learned: two readings that agree
    /// are no slip of one, the car is another than was told.
    fn confirms(&self, off: &DVector<f64>, which: &[usize], variance: &[f64]) -> bool {
        let Some(before) = self.odd else { return false };
        which.iter().zip(off.iter()).zip(variance).all(|((i, off), v)| {
            before[*i].is_none_or(|b| (off - b).abs() <= 3.0 * (2.0 * v).sqrt() + 0.25 * b.abs())
        })
    }

    /// How well the gain of one adjuster is known, standard deviation of ln gain: what points that are not where they were told
    /// make of its slope is in it, which this car's readings cannot part from it.
    #[must_use]
    pub fn gain_sd(&self, k: usize) -> f64 {
        self.belief.cov[(3 + k, 3 + k)].max(0.0).sqrt().hypot(SLOPE)
    }

    /// Takes a reading in: always judged; learned from unless it is odder than once in a hundred and the first of its
    /// kind.
    pub fn read(&mut self, r: &AnglesRead) -> Option<Came> {
        let which: Vec<usize> = (0..3).filter(|i| r.value[*i].is_some()).collect();
        let z = DVector::from_iterator(which.len(), r.value.iter().flatten().copied());
        let variance: Vec<f64> = which.iter().map(|i| r.sigma[*i].powi(2).max(1e-12)).collect();
        let rows = |(value, h): ([f64; 3], DMatrix<f64>)| {
            (DVector::from_iterator(which.len(), which.iter().map(|i| value[*i])), h.select_rows(&which))
        };
        let expected = self.expected()?;
        let (e, h) = rows(self.slopes(&self.belief.mean, &self.at)?);
        let innovation = self.belief.innovation(&h, &z - e, &variance);
        let odd = innovation.is_odd();
        let confirmed = odd && self.confirms(&innovation.off, &which, &variance);
        if confirmed {
            // As wide as what else explains it: points that are another car's, and parts that do another thing than is said.
            for (i, off) in which.iter().zip(innovation.off.iter()) {
                self.belief.cov[(*i, *i)] += POINTS_DEG[*i].max(0.3 * off.abs()).powi(2);
            }
            self.turned.sort_unstable();
            self.turned.dedup();
            for k in &self.turned {
                self.belief.cov[(3 + k, 3 + k)] += OTHER_GAIN.powi(2);
            }
        }
        let learned = !which.is_empty() && (!odd || confirmed);
        self.odd = (odd && !confirmed).then(|| {
            let mut out = [None; 3];
            for (i, off) in which.iter().zip(innovation.off.iter()) {
                out[*i] = Some(*off);
            }
            out
        });
        if learned {
            self.turned.clear();
            let next = self.belief.updated(&z, &variance, |x| self.slopes(x, &self.at).map(rows));
            self.belief = next?;
        }
        Some(Came { expected, innovation, which, learned })
    }

    /// What is left to turn so that every angle comes into its window at `travel_mm`, on the model as it was learned;
    /// none where nothing closes. What is believed inside, nine times in ten, is left alone.
    #[must_use]
    pub fn next(&self, target: &Target, travel_mm: f64) -> Option<Next> {
        let solved = |inner: bool| {
            let asked = self.asked(target, travel_mm, inner)?;
            let best = solve(&asked.bench, &asked.target).into_iter().next()?;
            self.told(target, asked, &best.positions)
        };
        let next = solved(true).filter(|n| n.reaches).or_else(|| solved(false))?;
        if next.reaches {
            return Some(next);
        }
        // It is turned in any case.
        let toe = self.next_of_toe(target, travel_mm)?;
        let nearer = self.miss(&toe.expect, target) - self.miss(&next.expect, target) > NEARER;
        Some(if nearer { next } else { toe })
    }

    /// The same of what sets toe alone, everything else standing where it stands.
    #[must_use]
    pub fn next_of_toe(&self, target: &Target, travel_mm: f64) -> Option<Next> {
        let solved = |inner: bool| {
            let toe = self.asked(target, travel_mm, inner)?.of_toe_alone();
            let best = solve(&toe.bench, &toe.target).into_iter().next()?;
            self.told(target, toe, &best.positions)
        };
        // As far inside as the doubt asks, where that can be had.
        let inside = |n: &Next| off_window(n.expect.value[2], target.toe).abs() < 1e-9;
        solved(true).filter(inside).or_else(|| solved(false))
    }

    /// Nothing turned: where it stands, by everything that was learned.
    #[must_use]
    pub fn stays(&self, target: &Target, travel_mm: f64) -> Option<Next> {
        let asked = self.asked(target, travel_mm, false)?;
        let here: Vec<f64> = self.at.iter().zip(&asked.scales).map(|(p, s)| p * s).collect();
        self.told(target, asked, &here)
    }

    /// The corner as it was learned, and windows to solve it for; `inner`: what stands near an edge is brought farther in,
    /// which is no aim where the windows themselves cannot be had.
    fn asked(&self, target: &Target, travel_mm: f64, inner: bool) -> Option<Asked<'a>> {
        let learned: Vec<Learned> =
            self.bench.adjusters.iter().zip(self.belief.gains()).map(|(a, g)| a.learned(g)).collect();
        let rest: Vec<Edit> = learned.iter().flat_map(|l| l.rest.iter().cloned()).collect();
        let adjusters: Vec<Adjuster> = learned
            .iter()
            .zip(&self.at)
            .map(|(l, p)| Adjuster { position: p * l.scale, ..l.adjuster.clone() })
            .collect();
        let bench =
            Bench { corner: self.bench.corner.edited(&rest), adjusters, travel_mm, ..self.bench.clone() };
        let there = Self { travel_mm, ..self.clone() };
        let now = there.expected()?;
        // As far as the doubt reaches and half the window lets it.
        let sure = !inner || self.odds(&now, target) >= LEAVE_ODDS;
        let d = self.belief.offsets();
        let window = |w: [f64; 2], i: usize| {
            let by = if sure { 0.0 } else { Sigma(now.sd[i]).half_width().0.min((w[1] - w[0]) / 4.0) };
            [w[0] + by - d[i], w[1] - by - d[i]]
        };
        let shifted = Target {
            camber: window(target.camber, 0),
            caster: window(target.caster, 1),
            toe: window(target.toe, 2),
        };
        let scales = learned.iter().map(|l| l.scale).collect();
        Some(Asked { bench, target: shifted, scales, there, now })
    }

    /// The windows that count here, each with the index of its angle, wider by what a shop cannot read.
    fn windows(&self, t: &Target) -> Vec<(usize, Window)> {
        let steers = self.bench.corner_steers();
        let all = [(t.camber, READABLE_DEG), (t.caster, READABLE_DEG), (t.toe, READABLE_TOE_DEG)];
        let of = |(i, ([low, high], by)): (usize, (Window, f64))| (i, [low - by, high + by]);
        all.into_iter().enumerate().filter(|(i, _)| *i != 1 || steers).map(of).collect()
    }

    /// Probability that every angle is in its window, as well as a shop can read it.
    fn odds(&self, e: &Expected, target: &Target) -> f64 {
        let of = |(i, [low, high]): (usize, Window)| {
            let (m, s) = (e.value[i], e.sd[i].max(1e-9));
            normal_below((high - m) / s) - normal_below((low - m) / s)
        };
        self.windows(target).into_iter().map(of).product()
    }

    /// How far camber and caster are outside their windows, weighed as the solver weighs them, degrees.
    fn miss(&self, e: &Expected, target: &Target) -> f64 {
        let out = |i: usize, w: Window| off_window(e.value[i], w).abs();
        let caster = if self.bench.corner_steers() { out(1, target.caster) } else { 0.0 };
        2.0 * out(0, target.camber) + caster
    }

    /// A solution in orders of the adjusters as they are.
    fn told(&self, target: &Target, asked: Asked<'_>, best: &[f64]) -> Option<Next> {
        let positions: Vec<f64> = best.iter().zip(&asked.scales).map(|(p, s)| p / s).collect();
        let moved = |k: usize| (positions[k] - self.at[k]).abs() > 1e-9;
        let turns = (0..positions.len()).any(moved);
        let more = if turns { asked.there.disturbance(&positions, moved) } else { [[0.0; 3]; 3] };
        let expect = asked.there.expected_at(&positions, &more)?;
        let stands = self.bench.adjusters.iter().zip(&self.at);
        let real = Bench {
            adjusters: stands.map(|(a, p)| Adjuster { position: *p, ..a.clone() }).collect(),
            ..self.bench.clone()
        };
        let reaches =
            self.windows(target).into_iter().all(|(i, w)| off_window(expect.value[i], w).abs() < 1e-9);
        let odds = self.odds(&expect, target);
        let angles = |at: &[f64]| asked.there.expected_at(at, &[[0.0; 3]; 3]).map(|e| e.value);
        let lines = real.lines(&positions);
        let lines = match self.points {
            Some(points) => in_hand(&real, points, lines, angles),
            None => lines,
        };
        Some(Next { lines, positions, expect, odds, now: asked.now, reaches })
    }
}

/// The same for both wheels of an axle, within the aim's left-to-right limits.
#[must_use]
pub fn next_of_both(
    wheels: &[Learner<'_>; 2],
    targets: &[Target; 2],
    travels_mm: [f64; 2],
    cross: Cross,
) -> Option<[Next; 2]> {
    let apart = |n: &[Next; 2]| {
        let [l, r] = [&n[0].expect.value, &n[1].expect.value];
        let off = cross.off(l[0] - r[0], l[1] - r[1]);
        (off[0].abs() - cross.camber).max(0.0) + (off[1].abs() - cross.caster).max(0.0)
    };
    // Each in its own windows and too far from the other is not there yet.
    let held = |n: [Next; 2]| {
        let together = apart(&n) <= READABLE_DEG;
        Some(n.map(|n| Next { reaches: n.reaches && together, ..n }))
    };
    let solved = |inner: bool| {
        let l = wheels[0].asked(&targets[0], travels_mm[0], inner)?;
        let r = wheels[1].asked(&targets[1], travels_mm[1], inner)?;
        // The solver sees the wheels without their offsets.
        let [a, b] = [0, 1].map(|i| wheels[i].belief.offsets());
        let middle = [0, 1].map(|k| cross.middle[k] - (a[k] - b[k]));
        let benches = [l.bench.clone(), r.bench.clone()];
        let [x, y] = solve_both(&benches, &[l.target, r.target], Cross { middle, ..cross })?;
        held([wheels[0].told(&targets[0], l, &x.positions)?, wheels[1].told(&targets[1], r, &y.positions)?])
    };
    let next = solved(true).filter(|n| n.iter().all(|n| n.reaches)).or_else(|| solved(false))?;
    if next.iter().all(|n| n.reaches) {
        return Some(next);
    }
    let toe = held(toe_of_both(wheels, targets, travels_mm, cross)?)?;
    let miss =
        |n: &[Next; 2]| apart(n) + (0..2).map(|i| wheels[i].miss(&n[i].expect, &targets[i])).sum::<f64>();
    Some(if miss(&toe) - miss(&next) > NEARER { next } else { toe })
}

/// What is left to turn of what sets toe alone, everything else of both wheels standing where it stands.
fn toe_of_both(
    wheels: &[Learner<'_>; 2],
    targets: &[Target; 2],
    travels_mm: [f64; 2],
    cross: Cross,
) -> Option<[Next; 2]> {
    // Two tie rods each for its own wheel; one is turned for both.
    if !matches!(wheels[0].bench.corner, Corner::Axle(_)) {
        let one = |i: usize| wheels[i].next_of_toe(&targets[i], travels_mm[i]);
        return Some([one(0)?, one(1)?]);
    }
    let asked = |i: usize| Some(wheels[i].asked(&targets[i], travels_mm[i], false)?.of_toe_alone());
    let (l, r) = (asked(0)?, asked(1)?);
    let benches = [l.bench.clone(), r.bench.clone()];
    let [x, y] = solve_both(&benches, &[l.target, r.target], cross)?;
    Some([wheels[0].told(&targets[0], l, &x.positions)?, wheels[1].told(&targets[1], r, &y.positions)?])
}

/// A corner as it was learned, and what is asked of it.
struct Asked<'a> {
    bench: Bench,
    target: Target,
    /// Positions of the learned adjusters over those that are read on the car.
    scales: Vec<f64>,
    /// The corner at the height it is asked for.
    there: Learner<'a>,
    /// How it stands there.
    now: Expected,
}

impl Asked<'_> {
    /// The same with everything but toe left where it stands.
    fn of_toe_alone(mut self) -> Self {
        let toe = self.bench.toe_by;
        for (k, a) in self.bench.adjusters.iter_mut().enumerate() {
            a.locked |= Some(k) != toe;
        }
        self
    }
}
