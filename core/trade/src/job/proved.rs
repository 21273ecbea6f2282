//! Whether what was said came: every wheel as found, as said, as read since the work and as wanted; what is off, and the car
//! in one line.

use super::aftercare::Aftercare;
use super::record::{Done, Reading};
use super::road::rods_turned_at;
use super::settled::trimmed_at;
use crate::aim::off_window;
use crate::memory::{SaidCame, Taught, Trial};
use crate::plan::{AngleName, CENTRE_MM, CarAnswer, CarInput, PlanInput, SQUARE_MM};
use crate::prove::{AxleLeft, Explained, side_left};
use crate::reading::{Jack, Place, Quantity, ReadAxle, ReadSide, Visit, toe_of};
use crate::sheet::{
    CarRead, Expectation, GateAbout, GateFinding, GateRead, GateReading, GateSide, Mark, SheetStep, StepId,
    held, judge_gate,
};
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::Sigma;
use bold_stance_units::said::{Said, said, sentences};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

/// An angle as it was read since the work.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CameAngle {
    /// Degrees.
    pub value_deg: f64,
    /// The reading's own 90 % half width, degrees.
    pub band_deg: f64,
    /// Read before something was turned that moves it.
    pub stale: bool,
    /// When, UTC.
    pub at: DateTime<Utc>,
}

/// One angle of a wheel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AngleProved {
    /// Which.
    pub angle: AngleName,
    /// As found, degrees; none where it was not read.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub found_deg: Option<f64>,
    /// Expected at this height before it was turned last, degrees.
    pub before_deg: f64,
    /// Expected of what was really turned, degrees.
    pub said_deg: f64,
    /// 90 % half width of saying and reading together, degrees.
    pub said_band_deg: f64,
    /// As it came; none where it was not read since the work.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub came: Option<CameAngle>,
    /// Where it should be, low and high end, degrees at the height it stands at; toe is wanted of both wheels.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    #[cfg_attr(feature = "openapi", schema(min_items = 2, max_items = 2))]
    pub aim_deg: Option<[f64; 2]>,
    /// Whether it came as said; none where it was not read since.
    pub as_said: Option<bool>,
    /// How far outside where it should be, signed; 0 inside or not read.
    pub off_aim_deg: f64,
    /// Whether it was turned through its window and stands behind it.
    pub past: bool,
}

/// How a wheel stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum WheelStands {
    /// Something that is asked of it was not read since the work.
    NotRead,
    /// Something was read before the last work.
    Stale,
    /// Inside every window.
    OnAim,
    /// Outside one.
    Off,
}

/// One wheel.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WheelProved {
    /// Axle.
    pub axle: Axle,
    /// Side.
    pub side: Side,
    /// Camber, caster of a wheel that steers, toe; only what is asked of it.
    pub angles: Vec<AngleProved>,
    /// How it stands.
    pub stands: WheelStands,
}

/// The car against what was said of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Proved {
    /// Wheels, rear first; those of which nothing is asked are not in it.
    pub wheels: Vec<WheelProved>,
    /// How axles lie under the car, where that is asked.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub placed: Vec<Placed>,
    /// What is off, the worst first.
    pub off: Vec<GateFinding>,
    /// Half of left minus right rear toe as read, degrees, to the right positive; none until both were read.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub thrust_deg: Option<f64>,
    /// Steps and gates before the last one that are not done.
    pub waits: Vec<StepId>,
    /// Whether everything that is asked was read since the work, and all of it is in.
    pub on_aim: bool,
    /// In one line.
    pub headline: Said,
    /// What to make of it.
    pub sentence: Said,
}

/// Which step moves an angle of an axle.
fn moves(step: &StepId, axle: Axle, angle: AngleName) -> bool {
    match step {
        // A height of either axle turns the body, and with it every caster.
        StepId::Height(_) => true,
        StepId::Fit(a, _) | StepId::Arms(a) => *a == axle,
        // Toe of a front wheel is turned at its rod, which moves nothing else; a rear arm moves camber too.
        StepId::Toe(a) => *a == axle && (angle == AngleName::Toe || axle == Axle::Rear),
        _ => false,
    }
}

/// Readings since a car was worked on, and that work.
pub(super) struct Since<'a> {
    own: Vec<&'a Reading>,
    done: &'a [&'a Done],
    /// When a corner of an axle was trimmed last before the car left.
    trimmed: Axles<Option<DateTime<Utc>>>,
    /// When both rods were turned after a road test.
    rods_at: Option<DateTime<Utc>>,
}

impl<'a> Since<'a> {
    /// What counts of a job's readings: not as found, not of a return, not on a jack.
    pub(super) fn of(readings: &'a [Reading], done: &'a [&'a Done], care: &Aftercare) -> Self {
        let rolls =
            |r: &&Reading| !matches!(r.visit, Visit::Found | Visit::Returned) && r.jack != Jack::Jacked;
        let trimmed = Axles::of(|axle| trimmed_at(care, axle));
        Self { own: readings.iter().filter(rolls).collect(), done, trimmed, rods_at: rods_turned_at(care) }
    }

    /// When an angle of an axle was last worked on.
    pub(super) fn worked_at(&self, axle: Axle, angle: AngleName) -> Option<DateTime<Utc>> {
        let own = |d: &&&Done| matches!(&d.step, Mark::Step(s) if moves(s, axle, angle));
        let rods = self.rods_at.filter(|_| axle == Axle::Front && angle == AngleName::Toe);
        let trimmed = self.trimmed[axle];
        self.done.iter().filter(own).map(|d| d.last_at()).chain(trimmed).chain(rods).max()
    }

    /// The newest reading of an angle since the car was worked on: value, standard deviation, when.
    pub(super) fn newest(
        &self,
        axle: Axle,
        side: Side,
        angle: AngleName,
    ) -> Option<(f64, f64, DateTime<Utc>)> {
        let place = Place::wheel(axle, side);
        let of = |q: Quantity| {
            let r = self.own.iter().rev().find(|r| r.quantity == q && r.place() == place)?;
            Some((r.value, r.sigma, r.taken_at))
        };
        match angle {
            AngleName::Camber => of(Quantity::Camber),
            AngleName::Caster => of(Quantity::Caster),
            AngleName::Toe => {
                let seen: Vec<_> = self.own.iter().map(|r| r.seen()).collect();
                let (v, s, r) =
                    Visit::ALL.into_iter().rev().find_map(|visit| toe_of(&seen, visit, axle, side))?;
                let at = self.own.iter().find(|o| o.id.to_string() == r.id).map(|o| o.taken_at)?;
                Some((v, s, at))
            }
            AngleName::CrossCamber | AngleName::CrossCaster => None,
        }
    }
}

const ANGLES: [(AngleName, GateReading, usize); 3] = [
    (AngleName::Camber, GateReading::Camber, 0),
    (AngleName::Caster, GateReading::Caster, 1),
    (AngleName::Toe, GateReading::Toe, 2),
];

/// What was read since the work, as a gate takes it.
fn as_read(since: &Since<'_>, axle: Axle) -> Sides<GateSide> {
    Sides::of(|side| {
        let of = |angle| {
            let (value, sigma, at) = since.newest(axle, side, angle)?;
            let stale = since.worked_at(axle, angle).is_some_and(|t| at < t);
            Some(GateRead { value, sigma, stale })
        };
        let placed = |q, place| {
            let r = since.own.iter().rev().find(|r| r.quantity == q && r.place() == place)?;
            // Whatever moves camber of an axle moves it under the car.
            let stale = since.worked_at(axle, AngleName::Camber).is_some_and(|t| r.taken_at < t);
            Some(GateRead { value: r.value, sigma: r.sigma, stale })
        };
        let taped = Place { axle: ReadAxle::Both, side: side.into() };
        let measured = Place { axle: axle.into(), side: ReadSide::Both };
        GateSide {
            camber: of(AngleName::Camber),
            caster: of(AngleName::Caster),
            toe: of(AngleName::Toe),
            wheelbase: placed(Quantity::Wheelbase, taped),
            centre: placed(Quantity::AxleOffset, measured),
            height: None,
        }
    })
}

fn wheel(
    since: &Since<'_>,
    (input, answer): (&CarInput, &CarAnswer),
    left: &[AxleLeft],
    (axle, side): (Axle, Side),
    asked: &[GateReading],
) -> Option<WheelProved> {
    let (own, result) = (input.axle(axle)?, answer.axles[axle].as_ref()?);
    let plan = if side == Side::Left { &result.left } else { &result.right };
    let worked = side_left(left, axle, side);
    // What is believed now knows every round; before a reading came the plan's own word stands.
    let turned = worked.map(|w| Expectation { value: w.expected, half: w.expected_band });
    let mut angles = Vec::new();
    for (angle, q, k) in ANGLES {
        if !asked.contains(&q) {
            continue;
        }
        let h = held(&own, result, side, angle, turned.as_ref())?;
        let plain = held(&own, result, side, angle, None)?;
        let pick = |a: &bold_stance_kinematics::wheel::Alignment| [a.camber_deg, a.caster_deg, a.toe_deg][k];
        // Untouched at the height it stands at: the plan's own, moved as its setting is.
        let untouched = pick(&plan.after) + plain.expected - pick(&plan.set);
        let before_deg = worked.map_or(untouched, |w| w.before[k]);
        let newest = since.newest(axle, side, angle);
        let came = newest.map(|(v, s, at)| CameAngle {
            value_deg: v,
            band_deg: Sigma(s).half_width().0,
            stale: since.worked_at(axle, angle).is_some_and(|t| at < t),
            at,
        });
        let fresh = newest.zip(came).filter(|(_, c)| !c.stale).map(|(n, _)| n);
        let off_aim_deg = fresh.map_or(0.0, |(v, ..)| h.off_aim(v));
        angles.push(AngleProved {
            angle,
            found_deg: own.is_read(angle).then(|| pick(&plan.before)),
            before_deg,
            said_deg: h.expected,
            said_band_deg: h.band(newest.map_or(0.0, |n| n.1)),
            came,
            aim_deg: h.aim,
            as_said: fresh.map(|(v, s, _)| h.off_expected(v, s) == 0.0),
            off_aim_deg,
            past: off_aim_deg != 0.0
                && h.aim.is_some_and(|w| off_window(before_deg, w) * off_aim_deg <= 0.0)
                && fresh.is_some_and(|(v, ..)| (v - before_deg) * off_aim_deg > 0.0),
        });
    }
    let stands = if angles.iter().any(|a| a.came.is_none()) {
        WheelStands::NotRead
    } else if angles.iter().any(|a| a.came.is_some_and(|c| c.stale)) {
        WheelStands::Stale
    } else if angles.iter().any(|a| a.off_aim_deg != 0.0) {
        WheelStands::Off
    } else {
        WheelStands::OnAim
    };
    (!angles.is_empty()).then_some(WheelProved { axle, side, angles, stands })
}

/// Half of left minus right rear toe, degrees, to the right positive.
fn thrust(read: &CarRead) -> Option<f64> {
    let toe = |s: &GateSide| s.toe.filter(|t| !t.stale).map(|t| t.value);
    Some(0.5 * (toe(&read.rear.left)? - toe(&read.rear.right)?))
}

/// The worst of what is off: outside the aim before outside what was said.
fn weight(f: &GateFinding) -> (bool, f64) {
    let off = if f.off_aim == 0.0 { f.off_expected } else { f.off_aim };
    let size = match f.about {
        GateAbout::Toe | GateAbout::TotalToe => 2.0,
        // A centimetre as a degree.
        GateAbout::Askew | GateAbout::OffCentre => 0.1,
        _ => 1.0,
    };
    (f.off_aim != 0.0, off.abs() * size)
}

fn finding_says(f: &GateFinding, wheels: &[WheelProved]) -> Said {
    let by = f.off_aim.abs();
    let digits = if by < 0.1 || matches!(f.about, GateAbout::Toe | GateAbout::TotalToe) { 2 } else { 1 };
    let axle = f.axle.map_or("front", Axle::word);
    let of_wheel = |angle: AngleName| {
        let own = |w: &&WheelProved| Some(w.axle) == f.axle && Some(w.side) == f.side;
        wheels.iter().find(own).and_then(|w| w.angles.iter().find(|a| a.angle == angle))
    };
    let wheel = |angle: AngleName| {
        let past = of_wheel(angle).is_some_and(|a| a.past);
        said("proved-wheel-off")
            .word("axle", axle)
            .word("side", f.side.map_or("left", Side::word))
            .word("angle", angle.word())
            .deg("by", by, digits)
            .word(
                "way",
                if past {
                    "past"
                } else if f.off_aim > 0.0 {
                    "over"
                } else {
                    "under"
                },
            )
    };
    match f.about {
        GateAbout::Camber => wheel(AngleName::Camber),
        GateAbout::Caster => wheel(AngleName::Caster),
        GateAbout::CrossCamber => {
            said("proved-apart").word("axle", axle).word("angle", "camber").deg("by", by, digits)
        }
        GateAbout::CrossCaster => {
            said("proved-apart").word("axle", axle).word("angle", "caster").deg("by", by, digits)
        }
        GateAbout::Askew => said("proved-askew").word("axle", axle).mm("by", f.read.abs()),
        GateAbout::OffCentre => said("proved-off-centre").word("axle", axle).mm("by", f.read.abs()),
        _ => said("proved-toe-off").word("axle", axle).deg("by", by, digits),
    }
}

/// How an axle lies under the car, as far as it is asked.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Placed {
    /// Which axle.
    pub axle: Axle,
    /// Wheelbase or centre.
    pub what: GateReading,
    /// As found: left less right wheelbase, or how far the axle stands to the right, mm; none where it was not read.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub found_mm: Option<f64>,
    /// The same as it came; none where it was not measured since the work.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub came_mm: Option<f64>,
    /// Measured before something was turned that moves it.
    pub stale: bool,
    /// As far as it may be either way, mm.
    pub most_mm: f64,
}

impl Placed {
    fn of(input: &PlanInput, what: GateReading, read: &Sides<GateSide>) -> Self {
        let now = read.as_ref().map(|s| s.of(what));
        let (found_mm, came_mm, most_mm) = match what {
            GateReading::Centre => (input.axle_offset_mm, now.left.map(|r| r.value), CENTRE_MM),
            _ => {
                let came = now.left.zip(now.right).map(|(l, r)| l.value - r.value);
                (input.wheelbases_mm.map(|w| w.left - w.right), came, SQUARE_MM)
            }
        };
        let stale = now.each().iter().any(|(_, r)| r.is_some_and(|r| r.stale));
        Self { axle: input.geometry.axle, what, found_mm, came_mm, stale, most_mm }
    }

    fn fresh(&self) -> bool {
        self.came_mm.is_some() && !self.stale
    }
}

fn says(
    (wheels, placed): (&[WheelProved], &[Placed]),
    off: &[GateFinding],
    left: &[AxleLeft],
    worked: bool,
) -> (Said, Said) {
    let count = |s: WheelStands| wheels.iter().filter(|w| w.stands == s).count();
    let open = count(WheelStands::NotRead) + count(WheelStands::Stale);
    let worst = off.iter().find(|f| f.off_aim != 0.0);
    let lesson =
        left.iter().flat_map(|l| l.sides.each()).find_map(|(_, s)| s.as_ref()?.taught.first().cloned());
    let otherwise = wheels.iter().filter(|w| w.angles.iter().any(|a| a.as_said == Some(false))).count();
    let mut more: Vec<Said> = lesson.into_iter().collect();
    let unmeasured = placed.iter().find(|p| !p.fresh());
    let headline = if wheels.is_empty() && placed.is_empty() {
        said("proved-nothing-asked")
    } else if !worked {
        said("proved-not-worked")
    } else if let Some(f) = worst {
        let on = count(WheelStands::OnAim);
        if on > 0 && f.side.is_some() {
            more.push(said("proved-others-on-aim").count("n", on));
        }
        finding_says(f, wheels)
    } else if open == wheels.len() && (open > 0 || placed.iter().all(|p| !p.fresh())) {
        said("proved-read-it")
    } else if open > 0 {
        said("proved-so-far").count("n", wheels.len() - open).count("of", wheels.len())
    } else if let Some(p) = unmeasured {
        said("proved-not-placed").word("axle", p.axle.word()).word("what", p.what.word())
    } else if wheels.is_empty() {
        said("proved-placed")
    } else {
        said("proved-all-in").count("n", wheels.len())
    };
    if worked && open > 0 {
        more.push(said("proved-open").count("n", open));
    }
    if worst.is_none() && otherwise > 0 {
        more.push(said("proved-otherwise").count("n", otherwise));
    } else if worst.is_none() && open == 0 && worked && !wheels.is_empty() {
        more.push(said("proved-as-said"));
    }
    (headline, sentences(more))
}

/// The car against what was said of it, as the job stands.
#[must_use]
pub(super) fn proved_of(
    readings: &[Reading],
    (done, care): (&[&Done], &Aftercare),
    (input, answer): (&CarInput, &CarAnswer),
    left: &[AxleLeft],
    steps: &[SheetStep],
) -> Proved {
    let since = Since::of(readings, done, care);
    let is_done = |s: &SheetStep| done.iter().any(|d| d.step == Mark::Step(s.id.clone()));
    let last = steps.iter().find(|s| s.id == StepId::Proved);
    let asked = |axle: Axle| -> Vec<GateReading> {
        let needs = last.iter().flat_map(|s| &s.needs);
        needs.filter(|n| n.axle == axle).map(|n| n.quantity).collect()
    };
    let mut wheels = Vec::new();
    let mut off = Vec::new();
    let mut read = CarRead::default();
    let mut placed = Vec::new();
    for axle in [Axle::Rear, Axle::Front] {
        let mut needs = asked(axle);
        // Toe that has its turn yet to come is not held against where it will be.
        let toe = steps.iter().find(|s| s.id == StepId::Toe(axle));
        if toe.is_some_and(|s| !is_done(s)) {
            needs.retain(|q| *q != GateReading::Toe);
        }
        needs.retain(|q| *q != GateReading::Height);
        let own = as_read(&since, axle);
        match axle {
            Axle::Front => read.front = own,
            Axle::Rear => read.rear = own,
        }
        let lies = needs.iter().filter(|q| matches!(q, GateReading::Wheelbase | GateReading::Centre));
        placed.extend(lies.filter_map(|q| Some(Placed::of(&input.axle(axle)?, *q, &own))));
        for side in Side::BOTH {
            wheels.extend(wheel(&since, (input, answer), left, (axle, side), &needs));
        }
        if let (Some(i), Some(r)) = (input.axle(axle), &answer.axles[axle]) {
            let turned = Sides::of(|side| {
                let w = side_left(left, axle, side)?;
                Some(Expectation { value: w.expected, half: w.expected_band })
            });
            off.extend(judge_gate(&i, r, &needs, &own.into_pair(), &turned).into_iter().filter(|f| !f.stale));
        }
    }
    off.sort_by(|a, b| weight(b).0.cmp(&weight(a).0).then(weight(b).1.total_cmp(&weight(a).1)));
    let work = |s: &&SheetStep| {
        matches!(s.id, StepId::Height(_) | StepId::Fit(..) | StepId::Arms(_) | StepId::Toe(_))
    };
    let to_do: Vec<&SheetStep> = steps.iter().filter(work).collect();
    let worked = to_do.is_empty() || to_do.iter().any(|s| is_done(s));
    let waits =
        steps.iter().filter(|s| s.id != StepId::Proved && !is_done(s)).map(|s| s.id.clone()).collect();
    let on_aim = worked
        && !(wheels.is_empty() && placed.is_empty())
        && placed.iter().all(Placed::fresh)
        && wheels.iter().all(|w| w.stands == WheelStands::OnAim)
        && off.iter().all(|f| f.off_aim == 0.0);
    let (headline, sentence) = says((&wheels, &placed), &off, left, worked);
    let thrust_deg = thrust(&read);
    Proved { wheels, placed, off, thrust_deg, waits, on_aim, headline, sentence }
}

/// What a car that is accepted teaches the shop.
pub(super) fn taught_of(left: &[AxleLeft], proved: &Proved) -> Taught {
    let mut trials = Vec::new();
    for l in left {
        for (side, s) in l.sides.each() {
            let Some(s) = s else { continue };
            // A gain is believed while nothing else explains the last reading better.
            let other = |e: &&Explained| !matches!(e.what.id.as_ref(), "explain-nothing" | "explain-gain");
            let explained = s.odd.first().filter(other).map(|e| e.what.clone());
            trials.extend(s.found.iter().map(|g| Trial {
                part: g.part.clone(),
                adjuster: g.name.clone(),
                axle: l.axle,
                side,
                ln_times: g.ln_times,
                sd: g.sd,
                explained: explained.clone(),
            }));
        }
    }
    let mut said = Vec::new();
    for w in &proved.wheels {
        for a in &w.angles {
            if let Some(c) = a.came.filter(|c| !c.stale) {
                said.push(SaidCame {
                    axle: w.axle,
                    side: w.side,
                    angle: a.angle,
                    miss_deg: c.value_deg - a.said_deg,
                    band_deg: a.said_band_deg,
                });
            }
        }
    }
    Taught { trials, said }
}
