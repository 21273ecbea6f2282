//! How a car came back: what each corner fell by against what was said, what turns bring it back, and its angles then and
//! today.

use super::aftercare::{Aftercare, CarBack, Trim};
use super::facts::VehicleFacts;
use super::height::{HeightRead, height_at};
use super::record::Reading;
use crate::memory::KnownHeights;
use crate::plan::{
    AngleName, CarAnswer, CarInput, CurvePoint, SidePlan, Turned, WayKind, on_clock, per_turn, turns_in_words,
};
use crate::reading::{Jack, Place, Quantity, Visit, toe_of};
use crate::sheet::held;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::Sigma;
use bold_stance_units::said::{Measure, Said, said, sentences};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

/// How a corner came back.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum CameToRest {
    /// Its height was not read since it came back, or not when it was set.
    NotRead,
    /// It was trimmed since it was read.
    Stale,
    /// Where it was said, as well as a tape tells.
    AsSaid,
    /// Lower than said.
    TooFar,
    /// Higher than said.
    TooHigh,
}

impl CameToRest {
    /// How a corner rests that is off by so much, mm; none where that is not known, because it was `trimmed` since or not read.
    pub(super) fn of(off_mm: Option<f64>, trimmed: bool) -> Self {
        match off_mm {
            None if trimmed => Self::Stale,
            None => Self::NotRead,
            Some(v) if v < 0.0 => Self::TooFar,
            Some(v) if v > 0.0 => Self::TooHigh,
            Some(_) => Self::AsSaid,
        }
    }
}

/// Turns that bring a corner back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TrimOrder {
    /// Turns of the collar or bolt in quarters, up positive.
    pub turns: f64,
    /// How far it is to rise, mm.
    pub by_mm: f64,
    /// Height after it, mm.
    pub to_mm: f64,
    /// 90 % half width of that, mm.
    pub band_mm: f64,
    /// Settled height a turn gives, mm.
    pub mm_per_turn: f64,
    /// Turns of this car it was learned from; 0 is the usual value alone.
    pub records: usize,
    /// The order in workshop words.
    pub words: Said,
    /// Where a turn's worth is from.
    pub why: Said,
    /// What is turned.
    pub by: Turned,
    /// Which way it is turned on a right-hand thread: a collar as seen from above, a bolt as seen from its head.
    pub clockwise: bool,
    /// The original mark.
    pub from: Said,
    /// The new mark.
    pub to: Said,
    /// The turns without their way, as they are counted: `1 3/4`.
    pub amount: Said,
    /// What it moves: camber, caster, toe of the wheel, degrees.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub moves_deg: [f64; 3],
}

/// One corner.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CornerBack {
    /// Axle.
    pub axle: Axle,
    /// Side.
    pub side: Side,
    /// As it left, mm; none where it was not read.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub set_mm: Option<f64>,
    /// Where it was said to come to rest, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub said_mm: Option<f64>,
    /// 90 % half width of what was said, mm.
    pub said_band_mm: f64,
    /// The same with both tapes in, mm: the ring.
    pub ring_mm: f64,
    /// As it came back, before any trim, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub back_mm: Option<f64>,
    /// As it stands, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub now_mm: Option<f64>,
    /// How it came back.
    pub rest: CameToRest,
    /// Signed miss of what was said, mm: lower negative; 0 inside the ring.
    pub off_mm: f64,
    /// Turns that bring it back; none where it is in the ring or nothing is known to turn.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub trim: Option<TrimOrder>,
    /// What is turned for height here; none where nobody said.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turned_by: Option<Turned>,
    /// What was trimmed of it this time.
    pub trims: Vec<Trim>,
}

/// An angle then and today.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct AngleBack {
    /// Axle.
    pub axle: Axle,
    /// Side.
    pub side: Side,
    /// Which.
    pub angle: AngleName,
    /// As it left, degrees.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub set_deg: Option<f64>,
    /// Today, degrees.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub now_deg: Option<f64>,
    /// Today's own 90 % half width, degrees.
    pub band_deg: f64,
    /// How far outside its window, signed; 0 inside or not read.
    pub off_aim_deg: f64,
}

/// How a car came back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Returned {
    /// Which time.
    pub time: usize,
    /// Days since it left.
    pub days: i64,
    /// Driven since, km.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub driven_km: Option<f64>,
    /// Whether a settle was said at all; else it is held against as it was set.
    pub forecast: bool,
    /// Corners, front first.
    pub corners: Vec<CornerBack>,
    /// Angles, front first.
    pub angles: Vec<AngleBack>,
    /// In one line.
    pub headline: Said,
    /// What to make of it.
    pub sentence: Said,
    /// Whether it was driven too little for depths of tread to tell anything.
    pub too_short: bool,
    /// Cautions where a corner is trimmed.
    pub cautions: Vec<Said>,
}

/// When a car is usually looked at next.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct UsualLook {
    /// In so many days.
    pub days: i64,
    /// After such a distance, km; the sooner of both.
    pub after_km: f64,
}

/// Once it was set or trimmed: springs and bushings settle anew (common practice, no source).
const AFTER_WORK: UsualLook = UsualLook { days: 14, after_km: 500.0 };
/// Once it came to rest: when tyres are usually moved round (common practice, no source).
const AT_REST: UsualLook = UsualLook { days: 84, after_km: 5000.0 };
/// Distance under which depths tell nothing, km: at a tenth of a millimetre a thousand kilometres they are what a gauge is off by
/// (judgement, no source).
const SHORT_KM: f64 = 1500.0;
/// Least ring, mm (common practice, no source: what a tape at the arch tells for certain).
const LEAST_RING_MM: f64 = 2.0;

/// Readings of the returned visit between two times, and everything of before.
fn window(readings: &[Reading], from: DateTime<Utc>, to: Option<DateTime<Utc>>) -> Vec<Reading> {
    let own = |r: &&Reading| {
        r.visit != Visit::Returned || (r.taken_at >= from && to.is_none_or(|t| r.taken_at < t))
    };
    readings.iter().filter(own).cloned().collect()
}

/// The height of a corner taped at a gate's visit between two times.
pub(super) fn height_at_gate(
    facts: &VehicleFacts,
    readings: &[Reading],
    visit: Visit,
    (axle, side): (Axle, Side),
    (from, to): (Option<DateTime<Utc>>, Option<DateTime<Utc>>),
) -> Option<HeightRead> {
    let within = |r: &&Reading| {
        r.visit != visit || (from.is_none_or(|f| r.taken_at >= f) && to.is_none_or(|t| r.taken_at < t))
    };
    let own: Vec<Reading> = readings.iter().filter(within).cloned().collect();
    height_at(facts, &own, visit, axle, side)
}

/// What a corner's heights and trims are looked up in.
pub(super) struct Look<'a> {
    pub facts: &'a VehicleFacts,
    pub readings: &'a [Reading],
    pub care: &'a Aftercare,
    /// What the shop knows of turns and settling.
    pub known: &'a KnownHeights,
}

impl Look<'_> {
    /// The height of a corner read at a return between two times within it.
    fn height_in(
        &self,
        time: usize,
        (axle, side): (Axle, Side),
        after: Option<DateTime<Utc>>,
        before: Option<DateTime<Utc>>,
    ) -> Option<HeightRead> {
        let from = self.care.returns.get(time)?.at;
        let next = self.care.returns.get(time + 1).map(|r| r.at);
        let to = [before, next].into_iter().flatten().min();
        let own = window(self.readings, after.map_or(from, |a| a.max(from)), to);
        height_at(self.facts, &own, Visit::Returned, axle, side)
    }

    /// As the corner left before a return: the end of the return before, else the newest after the setting.
    fn left_at(&self, time: usize, (axle, side): (Axle, Side), changed: bool) -> Option<HeightRead> {
        let before = (0..time).rev().find_map(|k| {
            let trimmed = self.trims(k, axle, side).iter().rfind(|t| t.moved()).map(|t| t.at);
            self.height_in(k, (axle, side), trimmed, None)
        });
        before.or_else(|| {
            // An axle whose height nobody changed left as it was found.
            [Visit::Proved, Visit::Reswept, Visit::Settled, Visit::Found]
                .into_iter()
                .filter(|v| *v != Visit::Found || !changed)
                .find_map(|v| height_at(self.facts, self.readings, v, axle, side))
        })
    }

    /// How far a corner settled before it came back first, mm; none where it was not taped before and after.
    pub fn settled_first(&self, (axle, side): (Axle, Side)) -> Option<f64> {
        let set = self.left_at(0, (axle, side), true)?;
        let trimmed = self.trims(0, axle, side).iter().find(|t| t.moved()).map(|t| t.at);
        Some(set.mm - self.height_in(0, (axle, side), None, trimmed)?.mm)
    }

    fn trims(&self, time: usize, axle: Axle, side: Side) -> Vec<&Trim> {
        let all = self.care.returns.get(time).map_or(&[][..], |r| &r.trims);
        all.iter().filter(|t| t.axle == axle && t.side == side).collect()
    }

    /// What was trimmed of a corner at the gate that is read at a visit: behind its arms once heights were taped there.
    pub fn at_gate(&self, (axle, side): (Axle, Side), visit: Visit) -> Vec<&'_ Trim> {
        let again = |t: &Trim| {
            let taped = |r: &Reading| {
                let height =
                    matches!(r.quantity, Quantity::Height | Quantity::FloorToArch | Quantity::FloorToFrame);
                height && r.visit == Visit::Reswept && r.axle == axle.into() && r.taken_at < t.at
            };
            self.readings.iter().any(taped)
        };
        let of = |t: &&Trim| t.axle == axle && t.side == side && again(t) == (visit == Visit::Reswept);
        self.care.at_gate.iter().filter(of).collect()
    }

    /// What the trims of one look gave: turns and settled mm of each; `at` is the height between two times.
    fn gave(
        trims: &[&Trim],
        at: impl Fn(Option<DateTime<Utc>>, Option<DateTime<Utc>>) -> Option<HeightRead>,
    ) -> Vec<(f64, f64)> {
        // What could not be turned parts no tape from another.
        let moved: Vec<&&Trim> = trims.iter().filter(|t| t.moved()).collect();
        let of = |(i, t): (usize, &&&Trim)| {
            let earlier = i.checked_sub(1).map(|j| moved[j].at);
            let later = moved.get(i + 1).map(|n| n.at);
            let (was, is) = (at(earlier, Some(t.at))?, at(Some(t.at), later)?);
            Some((t.turns, is.mm - was.mm))
        };
        moved.iter().enumerate().filter_map(of).collect()
    }

    /// What turns on this car gave: turns and settled mm of each.
    pub fn records(&self, axle: Axle) -> Vec<(f64, f64)> {
        let mut out = Vec::new();
        for side in Side::BOTH {
            for visit in [Visit::Settled, Visit::Reswept] {
                out.extend(Self::gave(&self.at_gate((axle, side), visit), |from, to| {
                    height_at_gate(self.facts, self.readings, visit, (axle, side), (from, to))
                }));
            }
            for k in 0..self.care.returns.len() {
                let trims = self.trims(k, axle, side);
                out.extend(Self::gave(&trims, |from, to| self.height_in(k, (axle, side), from, to)));
            }
        }
        out
    }

    /// Turns that bring a corner from where it stands to a height; none where nothing is known to turn, or it is nearer than a
    /// quarter of a turn tells.
    pub fn trim_order(
        &self,
        input: &CarInput,
        plan: Option<&SidePlan>,
        (axle, side): (Axle, Side),
        now: &HeightRead,
        to_mm: f64,
    ) -> Option<TrimOrder> {
        let turned = turned_by(self.facts, self.care, input, axle)?;
        let mut records: Vec<(f64, f64)> = match axle {
            // Turns with the plan are recorded of the front axle.
            Axle::Front => input.base.turns.iter().map(|r| (r.turns, r.height_change_mm)).collect(),
            Axle::Rear => Vec::new(),
        };
        records.extend(self.records(axle));
        let of_shop = self.known.turns.of(turned);
        let per = per_turn(turned, of_shop, &records);
        let turns = ((to_mm - now.mm) / per.mm * 4.0).round() / 4.0;
        if turns == 0.0 {
            return None;
        }
        let by_mm = turns * per.mm;
        let amount = turns_in_words(turns.abs());
        let words = said("trim-order")
            .name("turns", amount.clone())
            .count("n", if turns.abs() > 1.0 { 2 } else { 1 })
            .word("way", if turns > 0.0 { "up" } else { "down" });
        let why = match of_shop {
            _ if per.records > 0 => said("trim-learned").count("n", per.records),
            Some(k) => said("trim-shop").count("n", k.cars as usize),
            None => said("trim-usual"),
        };
        // The plan's curves count from as found.
        let found = input.base.axles[axle].as_ref().map(|b| b.read[side].height_mm);
        // Looked at along its thread a right-hand nut goes away clockwise: a collar seen from above goes down, a bolt seen from
        // its head winds its bar up.
        let clockwise = matches!(turned, Turned::TorsionBolt) == (turns > 0.0);
        let (from, to) = on_clock(turns, clockwise);
        Some(TrimOrder {
            turns,
            by_mm,
            to_mm: now.mm + by_mm,
            band_mm: Sigma((per.sigma_mm * turns).hypot(now.against_sigma)).half_width().0,
            mm_per_turn: per.mm,
            records: per.records,
            words,
            by: turned,
            clockwise,
            from,
            to,
            amount: Said::text(amount),
            why: why.fine_mm("mm", per.mm),
            moves_deg: plan.zip(found).map_or([0.0; 3], |(p, f)| moves(p, now.mm - f, by_mm)),
        })
    }
}

/// What is turned for height on an axle: as told, else by the way its plan goes; a collar's ratio where nobody told it here
/// by the car's own spring.
pub(super) fn turned_by(
    facts: &VehicleFacts,
    care: &Aftercare,
    input: &CarInput,
    axle: Axle,
) -> Option<Turned> {
    let told = care.turned[axle].or_else(|| {
        input.plan.axles[axle].ways.iter().find_map(|w| match w.kind {
            WayKind::Collar => Some(Turned::Collar { pitch_mm: None, motion_ratio: None }),
            WayKind::TorsionBar => Some(Turned::TorsionBolt),
            _ => None,
        })
    })?;
    Some(match told {
        Turned::Collar { pitch_mm, motion_ratio } => {
            let own = facts.car.axles[axle].spring.as_ref().map(|s| s.motion_ratio);
            Turned::Collar { pitch_mm, motion_ratio: motion_ratio.or(own) }
        }
        bolt @ Turned::TorsionBolt => bolt,
    })
}

/// What a rise moves, by the plan's own curve about the height it stands at: camber, caster, toe, degrees.
fn moves(plan: &SidePlan, gain_mm: f64, by_mm: f64) -> [f64; 3] {
    let at = |h: f64| -> Option<[f64; 3]> {
        let pair = plan.curve.windows(2).find(|w| (w[0].height_mm..=w[1].height_mm).contains(&h))?;
        let [a, b] = [&pair[0], &pair[1]];
        let f = (h - a.height_mm) / (b.height_mm - a.height_mm);
        let pick = |c: &CurvePoint| [c.camber_deg, c.caster_deg, c.toe_deg];
        let (p, q) = (pick(a), pick(b));
        Some([0, 1, 2].map(|k| p[k] + f * (q[k] - p[k])))
    };
    match (at(gain_mm), at(gain_mm + by_mm)) {
        (Some(a), Some(b)) => [0, 1, 2].map(|k| b[k] - a[k]),
        _ => [0.0; 3],
    }
}

fn corner(
    look: &Look<'_>,
    (input, answer): (&CarInput, &CarAnswer),
    time: usize,
    (axle, side): (Axle, Side),
) -> CornerBack {
    let result = answer.axles[axle].as_ref();
    let plan = result.map(|r| if side == Side::Left { &r.left } else { &r.right });
    let set = look.left_at(time, (axle, side), input.plan.axles[axle].changes_height());
    // Springs settle once: what was trimmed since is held against as it stood then.
    let (settle_mm, said_band_mm) = if time == 0 { settle_of(look, input, axle) } else { (0.0, 0.0) };
    let trims = look.trims(time, axle, side);
    // What could not be turned moved nothing: what was read before it stands.
    let moved: Vec<&&Trim> = trims.iter().filter(|t| t.moved()).collect();
    let back = look.height_in(time, (axle, side), None, moved.first().map(|t| t.at));
    let now = look.height_in(time, (axle, side), moved.last().map(|t| t.at), None);
    let said_mm = set.map(|s| s.mm - settle_mm);
    let tape = |h: Option<HeightRead>| h.map_or(0.0, |h| Sigma(h.against_sigma).half_width().0);
    let ring_mm = said_band_mm.hypot(tape(set)).hypot(tape(now.or(back))).max(LEAST_RING_MM);
    let miss = now.zip(said_mm).map(|(n, s)| n.mm - s);
    let off_mm = miss.filter(|m| m.abs() > ring_mm + 1e-9).unwrap_or(0.0);
    let rest = CameToRest::of(miss.map(|_| off_mm), now.is_none() && !moved.is_empty());
    let trim = now.zip(said_mm).filter(|_| off_mm != 0.0);
    let trim = trim.and_then(|(n, s)| look.trim_order(input, plan, (axle, side), &n, s));
    CornerBack {
        axle,
        side,
        set_mm: set.map(|s| s.mm),
        said_mm,
        said_band_mm,
        ring_mm,
        back_mm: back.map(|h| h.mm),
        now_mm: now.map(|h| h.mm),
        rest,
        off_mm,
        trim,
        turned_by: turned_by(look.facts, look.care, input, axle),
        trims: trims.into_iter().cloned().collect(),
    }
}

/// What the springs of an axle were said to settle and its band, mm: by the plan, else where its height changes by the car's
/// facts, else as the shop's cars did whose height was had so. Of what somebody said a settle of nothing to twice as much is
/// covered (common practice, no source).
fn settle_of(look: &Look<'_>, input: &CarInput, axle: Axle) -> (f64, f64) {
    let plan = &input.plan.axles[axle];
    let facts = look.facts.car.axles[axle].settle_mm;
    match plan.settle_mm {
        s if s != 0.0 => (s, s.abs()),
        _ if !plan.changes_height() => (0.0, 0.0),
        _ if facts != 0.0 => (facts, facts.abs()),
        _ => look.known.settle(&plan.ways).map_or((0.0, 0.0), |k| (k.mm, Sigma(k.sd).half_width().0)),
    }
}

/// An angle of a wheel within readings that are told.
fn angle_in(own: &[&Reading], axle: Axle, side: Side, angle: AngleName) -> Option<(f64, f64)> {
    let place = Place::wheel(axle, side);
    let of = |q| own.iter().rev().find(|r| r.quantity == q && r.place() == place).map(|r| (r.value, r.sigma));
    match angle {
        AngleName::Camber => of(Quantity::Camber),
        AngleName::Caster => of(Quantity::Caster),
        AngleName::Toe => {
            let seen: Vec<_> = own.iter().map(|r| r.seen()).collect();
            let at = |v| toe_of(&seen, v, axle, side).map(|(v, s, _)| (v, s));
            Visit::ALL.into_iter().rev().find_map(at)
        }
        AngleName::CrossCamber | AngleName::CrossCaster => None,
    }
}

fn angles(
    (input, answer): (&CarInput, &CarAnswer),
    readings: &[Reading],
    back: &CarBack,
    next: Option<DateTime<Utc>>,
) -> Vec<AngleBack> {
    let flat = |r: &&Reading| r.jack != Jack::Jacked;
    let then: Vec<&Reading> =
        readings.iter().filter(|r| !matches!(r.visit, Visit::Found | Visit::Returned)).filter(flat).collect();
    // Of today only what was read after the last trim: a height that moved moves the angles.
    let from = back.trims.iter().filter(|t| t.moved()).map(|t| t.at).max().unwrap_or(back.at);
    let today: Vec<&Reading> = readings
        .iter()
        .filter(|r| r.visit == Visit::Returned && r.taken_at >= from && next.is_none_or(|t| r.taken_at < t))
        .filter(flat)
        .collect();
    let mut out = Vec::new();
    for axle in [Axle::Front, Axle::Rear] {
        let (Some(own), Some(result)) = (input.axle(axle), answer.axles[axle].as_ref()) else { continue };
        for side in Side::BOTH {
            for angle in [AngleName::Camber, AngleName::Caster, AngleName::Toe] {
                if angle == AngleName::Caster && axle == Axle::Rear {
                    continue;
                }
                let now = angle_in(&today, axle, side, angle);
                let h = held(&own, result, side, angle, None);
                out.push(AngleBack {
                    axle,
                    side,
                    angle,
                    set_deg: angle_in(&then, axle, side, angle).map(|v| v.0),
                    now_deg: now.map(|v| v.0),
                    band_deg: now.map_or(0.0, |v| Sigma(v.1).half_width().0),
                    off_aim_deg: now.zip(h).map_or(0.0, |(v, h)| h.off_aim(v.0)),
                });
            }
        }
    }
    out
}

fn says(corners: &[CornerBack], back: &CarBack, days: i64, forecast: bool) -> (Said, Said) {
    let after = match back.driven_km {
        Some(km) => said("back-after-far").count("days", days.max(0) as usize).of("far", Measure::Km, km, 0),
        None => said("back-after").count("days", days.max(0) as usize),
    };
    let worst =
        corners.iter().filter(|c| c.off_mm != 0.0).max_by(|a, b| a.off_mm.abs().total_cmp(&b.off_mm.abs()));
    let open = corners.iter().filter(|c| matches!(c.rest, CameToRest::NotRead | CameToRest::Stale)).count();
    let rest = corners.iter().filter(|c| c.rest == CameToRest::AsSaid).count();
    let mut more = vec![after];
    let headline = if let Some(c) = worst {
        let id = match (c.off_mm < 0.0, forecast) {
            (true, true) => "back-too-far",
            (true, false) => "back-fell",
            (false, _) => "back-high",
        };
        if rest > 0 {
            more.push(said(if forecast { "back-others" } else { "back-others-stand" }).count("n", rest));
        }
        let fell = c.set_mm.zip(c.now_mm).map_or(c.off_mm.abs(), |(s, n)| (s - n).abs());
        let mm = if id == "back-fell" {
            fell
        } else {
            c.now_mm.zip(c.said_mm).map_or(0.0, |(n, s)| (n - s).abs())
        };
        said(id).word("side", c.side.word()).word("axle", c.axle.word()).mm("by", mm)
    } else if corners.iter().any(|c| c.rest == CameToRest::Stale) {
        said("back-trimmed")
    } else if rest == 0 {
        said("back-tape")
    } else if open > 0 {
        said("back-so-far").count("n", rest).count("of", corners.len())
    } else if forecast {
        said("back-at-rest")
    } else {
        said("back-stands")
    };
    if open > 0 && rest > 0 {
        more.push(said("back-open").count("n", open));
    }
    if worst.is_some_and(|c| c.trim.is_none()) {
        more.push(said("back-turned-by-what"));
    }
    (headline, sentences(more))
}

/// Cautions where a corner is to be trimmed.
pub(super) fn trim_cautions(corners: &[CornerBack]) -> Vec<Said> {
    if corners.iter().any(|c| c.trim.is_some()) {
        ["caution-jack", "caution-spring"].map(said).to_vec()
    } else {
        Vec::new()
    }
}

/// When the car is usually looked at next, as it stands.
#[must_use]
pub(super) fn usual_look(returned: Option<&Returned>) -> UsualLook {
    let rests = |r: &Returned| r.corners.iter().all(|c| c.trim.is_none() && c.trims.is_empty());
    if returned.is_some_and(rests) { AT_REST } else { AFTER_WORK }
}

/// How the car came back last; none while it did not.
#[must_use]
pub(super) fn returned_of(
    look: &Look<'_>,
    (input, answer): (&CarInput, &CarAnswer),
    left_at: Option<DateTime<Utc>>,
) -> Option<Returned> {
    let (care, readings) = (look.care, look.readings);
    let time = care.returns.len().checked_sub(1)?;
    let back = &care.returns[time];
    let mut corners = Vec::new();
    for axle in [Axle::Front, Axle::Rear] {
        corners.extend(Side::BOTH.map(|side| corner(look, (input, answer), time, (axle, side))));
    }
    let before = time.checked_sub(1).map(|k| care.returns[k].at).or(left_at);
    let days = before.map_or(0, |t| (back.at - t).num_days());
    let forecast = corners.iter().any(|c| c.said_band_mm > 0.0);
    let (headline, sentence) = says(&corners, back, days, forecast);
    let cautions = trim_cautions(&corners);
    Some(Returned {
        time: time + 1,
        days,
        driven_km: back.driven_km,
        forecast,
        angles: angles((input, answer), readings, back, None),
        corners,
        headline,
        sentence,
        too_short: back.driven_km.is_some_and(|km| km < SHORT_KM),
        cautions,
    })
}
