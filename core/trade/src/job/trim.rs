//! A corner's height by its tapes, then and now, and the turns of collar or bolt that bring it where it should be: at the gates
//! that read heights and at a return.

use super::aftercare::{Aftercare, Trim};
use super::facts::VehicleFacts;
use super::height::{HeightRead, height_at};
use super::record::Reading;
use crate::memory::KnownHeights;
use crate::plan::{CarInput, CurvePoint, SidePlan, Turned, WayKind, on_clock, per_turn, turns_in_words};
use crate::reading::{Quantity, Visit};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::Sigma;
use bold_stance_units::said::{Said, said};
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
    pub fn height_in(
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
    pub fn left_at(&self, time: usize, (axle, side): (Axle, Side), changed: bool) -> Option<HeightRead> {
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

    pub fn trims(&self, time: usize, axle: Axle, side: Side) -> Vec<&Trim> {
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

/// Cautions where a corner is to be trimmed.
pub(super) fn trim_cautions(corners: &[CornerBack]) -> Vec<Said> {
    if corners.iter().any(|c| c.trim.is_some()) {
        ["caution-jack", "caution-spring"].map(said).to_vec()
    } else {
        Vec::new()
    }
}
