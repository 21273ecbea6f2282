//! What the owner of the car is told: what came in and why, what was changed, before and after, what it means for the tyres,
//! what to watch. Nothing that was not read is claimed.

use super::aftercare::{Aftercare, NextLook, Trim};
use super::facts::VehicleFacts;
use super::gates::Sheet;
use super::height::height_at;
use super::proved::{Placed, Since};
use super::record::{Done, Reading};
use crate::inspect::found_first;
use crate::plan::{AngleName, CarInput};
use crate::reading::Visit;
use crate::sheet::{CouldNot, GateFinding, GateReading, Mark, StepId, StepKind};
use bold_stance_car::vehicle::{Axles, Sides};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_tread::{AxleScene, CarTyres, RatioBand, Run, Scenes, TreadLog, TyrePlace, car_wear};
use bold_stance_units::Sigma;
use bold_stance_units::said::{Said, said};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

/// A figure as found and now.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct BeforeAfter {
    /// As found, mm or degrees; none where it was not read.
    pub found: Option<f64>,
    /// Now, read after the last work; none where it was not.
    pub now: Option<f64>,
    /// 90 % half width of the reading now.
    pub band: f64,
}

/// One wheel, before and after.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct WheelTold {
    /// Axle.
    pub axle: Axle,
    /// Side.
    pub side: Side,
    /// Hub to arch, mm.
    pub height_mm: BeforeAfter,
    /// Camber, degrees, top out positive.
    pub camber_deg: BeforeAfter,
    /// Caster, degrees; none of a wheel that does not steer.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub caster_deg: Option<BeforeAfter>,
    /// Toe of one wheel, degrees, in positive.
    pub toe_deg: BeforeAfter,
}

/// Something that was done.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct DoneTold {
    /// What.
    pub title: Said,
    /// Settings as really done.
    pub turned: Vec<Said>,
}

/// A gate that was passed against a reading.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct PassedOff {
    /// Which.
    pub title: Said,
    /// What was off.
    pub off: Vec<GateFinding>,
    /// Why it went on.
    pub reason: String,
    /// Who stands for it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub signed: Option<String>,
}

/// What it means for the tyre that gains or loses most of those that were read before and after.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct TyreTold {
    /// Where.
    pub place: TyrePlace,
    /// Distance now over distance as it came.
    pub times: RatioBand,
    /// Whether the band holds no change at all.
    pub too_close: bool,
    /// Where it wears out first, now.
    pub worst: Said,
    /// From now to the limit: low, likeliest, high, km.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub km: [f64; 3],
    /// The limit, mm.
    pub limit_mm: f64,
    /// Depth now, inner edge, centre, outer edge, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub depth_mm: [f64; 3],
}

/// One page for the owner.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Handover {
    /// In one line.
    pub headline: Said,
    /// How it came in, beside the owner's own words.
    pub came: Vec<Said>,
    /// Wheels, front first.
    pub wheels: Vec<WheelTold>,
    /// How axles lie under the car, as found and as measured since the work.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub lies: Vec<Said>,
    /// Mean change of each axle's height, mm; none where it was not read before and after.
    pub moved_mm: Axles<Option<f64>>,
    /// What was done, in order.
    pub done: Vec<DoneTold>,
    /// What it means for the tyres; none where too little was read before and after.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub tyre: Option<TyreTold>,
    /// How it drove; none where nobody drove it since it was worked on.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub road: Option<Said>,
    /// What to watch.
    pub watch: Vec<Said>,
    /// When it is looked at next.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub next_look: Option<NextLook>,
    /// Gates that were passed against a reading.
    pub passed_off: Vec<PassedOff>,
    /// What was not read or looked at, and is not promised.
    pub not_read: Vec<Said>,
    /// Who stands for it; none before it was accepted.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub signed: Option<String>,
    /// When it was accepted, UTC.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub signed_at: Option<DateTime<Utc>>,
}

/// Sides this far apart in height are told of, mm (common practice, no source).
const APART_MM: f64 = 5.0;
/// Caster this far apart is (the stricter school's cross limit, common practice).
const CASTER_APART_DEG: f64 = 0.5;
/// A height that moved by this much moves headlights and sensors, mm (judgement, no source).
const MOVED_MM: f64 = 5.0;

/// What a page is made from.
#[derive(Debug, Clone, Copy)]
pub struct HandoverOf<'a> {
    /// The car.
    pub facts: &'a VehicleFacts,
    /// Everything that was read.
    pub readings: &'a [Reading],
    /// What was done of the plan.
    pub done: &'a [&'a Done],
    /// What happened since.
    pub care: &'a Aftercare,
    /// The plan.
    pub input: &'a CarInput,
    /// Its sheet as the job stands.
    pub sheet: &'a Sheet,
    /// The tyres.
    pub tyres: &'a CarTyres,
    /// Their logs.
    pub log: &'a TreadLog,
}

impl HandoverOf<'_> {
    fn angle(&self, since: &Since<'_>, axle: Axle, side: Side, angle: AngleName) -> BeforeAfter {
        let found = self.input.axle(axle).filter(|i| i.is_read(angle)).and_then(|_| {
            let b = self.input.base.axles[axle].as_ref()?;
            let a = &b.read[side].angles;
            Some(match angle {
                AngleName::Camber => a.camber_deg,
                AngleName::Caster => a.caster_deg,
                _ => a.toe_deg,
            })
        });
        let back = self.sheet.returned.iter().flat_map(|r| &r.angles);
        let today = back
            .filter(|a| a.axle == axle && a.side == side && a.angle == angle)
            .find_map(|a| a.now_deg.map(|v| (v, a.band_deg)));
        // A corner trimmed since has moved: what was read before that is no longer claimed.
        let trimmed = self
            .sheet
            .returned
            .as_ref()
            .is_some_and(|r| r.corners.iter().any(|c| c.trims.iter().any(|t| t.moved())));
        let proved = || {
            let (v, s, at) = since.newest(axle, side, angle).filter(|_| !trimmed)?;
            let stale = since.worked_at(axle, angle).is_some_and(|t| at < t);
            (!stale).then_some((v, Sigma(s).half_width().0))
        };
        let now = today.or_else(proved);
        BeforeAfter { found, now: now.map(|n| n.0), band: now.map_or(0.0, |n| n.1) }
    }

    fn height(&self, axle: Axle, side: Side) -> BeforeAfter {
        let at = |v| height_at(self.facts, self.readings, v, axle, side);
        let back = self.sheet.returned.as_ref().and_then(|r| {
            let c = r.corners.iter().find(|c| c.axle == axle && c.side == side)?;
            Some((c.now_mm, c.trims.iter().any(|t| t.moved())))
        });
        let now = match back {
            Some((Some(mm), _)) => Some(mm),
            // Trimmed and not taped since.
            Some((None, true)) => None,
            _ => [Visit::Proved, Visit::Reswept, Visit::Settled].into_iter().find_map(at).map(|h| h.mm),
        };
        BeforeAfter { found: at(Visit::Found).map(|h| h.mm), now, band: 0.0 }
    }

    fn wheels(&self) -> Vec<WheelTold> {
        let since = Since::of(self.readings, self.done, self.care);
        let mut out = Vec::new();
        for axle in [Axle::Front, Axle::Rear] {
            if self.input.base.axles[axle].is_none() {
                continue;
            }
            for side in Side::BOTH {
                let of = |angle| self.angle(&since, axle, side, angle);
                out.push(WheelTold {
                    axle,
                    side,
                    height_mm: self.height(axle, side),
                    camber_deg: of(AngleName::Camber),
                    caster_deg: (axle == Axle::Front).then(|| of(AngleName::Caster)),
                    toe_deg: of(AngleName::Toe),
                });
            }
        }
        out
    }

    /// What was turned at a step, every time, in workshop words.
    fn turned(d: &Done) -> Vec<Said> {
        let mut out = Vec::new();
        for (k, r) in d.record.rounds.iter().enumerate() {
            for t in &r.turned {
                let id = match (t.could_not, &t.typed, k) {
                    (Some(_), None, _) => "told-not-turned",
                    (_, Some(_), _) => "told-turned-really",
                    (_, None, 0) => "told-turned",
                    _ => "told-turned-again",
                };
                let mut s = said(id).name("name", t.name.clone()).say("order", t.words.clone());
                s = match t.side {
                    Some(side) => s.word("side", side.word()),
                    None => s.word("side", "both"),
                };
                out.push(match &t.typed {
                    Some(text) => s.name("really", text.clone()),
                    None => s,
                });
            }
        }
        out
    }

    fn done_told(&self) -> Vec<DoneTold> {
        let gates: Vec<&StepId> =
            self.sheet.steps.iter().filter(|s| s.kind == StepKind::Gate).map(|s| &s.id).collect();
        let is_work = |d: &&&Done| match &d.step {
            Mark::Tick(..) => false,
            Mark::Step(s) => {
                !gates.contains(&s) && !matches!(s, StepId::Support | StepId::Proved | StepId::Fouls)
            }
        };
        let mut out: Vec<DoneTold> = self
            .done
            .iter()
            .filter(is_work)
            .map(|d| DoneTold { title: d.record.title.clone(), turned: Self::turned(d) })
            .collect();
        let trim = |t: &Trim| {
            let id = match (t.could_not, &t.typed) {
                (Some(CouldNot::Seized | CouldNot::NoRoom | CouldNot::AtEnd), None) => "told-not-turned",
                (_, Some(_)) => "told-turned-really",
                _ => "told-turned",
            };
            let s = said(id)
                .word("side", t.side.word())
                .say("name", said("told-height-of").word("axle", t.axle.word()));
            let s = s.say("order", t.words.clone());
            match &t.typed {
                Some(text) => s.name("really", text.clone()),
                None => s,
            }
        };
        let returned = self.care.returns.iter().flat_map(|r| &r.trims);
        let trims: Vec<Said> = self.care.at_gate.iter().chain(returned).map(trim).collect();
        if !trims.is_empty() {
            out.push(DoneTold { title: said("told-trimmed"), turned: trims });
        }
        out
    }

    /// Every axle of which camber of both wheels and toe were read before and after.
    fn scenes(&self, wheels: &[WheelTold]) -> Scenes {
        let axles = Axles::of(|axle| {
            let own = |side: Side| wheels.iter().find(|w| w.axle == axle && w.side == side);
            let (l, r) = (own(Side::Left)?, own(Side::Right)?);
            let scene = |id: &str, of: fn(&BeforeAfter) -> Option<f64>| {
                let camber = Sides { left: of(&l.camber_deg)?, right: of(&r.camber_deg)? };
                let toe = Sides { left: of(&l.toe_deg)?, right: of(&r.toe_deg)? };
                let caster = |w: &WheelTold| w.caster_deg.as_ref().and_then(of).unwrap_or(0.0);
                let run = Run { camber_deg: camber, toe_deg: 0.5 * (toe.left + toe.right), share: 1.0 };
                let caster_deg = Sides { left: caster(l), right: caster(r) };
                Some(AxleScene { id: id.into(), title: said("scene-set"), runs: vec![run], caster_deg })
            };
            Some(vec![scene("found", |b| b.found)?, scene("set", |b| b.now)?])
        });
        Scenes { axles, ..Scenes::default() }
    }

    fn tyre(&self, wheels: &[WheelTold]) -> Option<TyreTold> {
        let scenes = self.scenes(wheels);
        if scenes.axles.each().iter().all(|(_, a)| a.is_none()) {
            return None;
        }
        let wear = car_wear(self.tyres, &scenes, self.log).ok()?;
        let told = |t: &bold_stance_tread::TyreForecast| {
            let now = t.scenes.get(t.lead)?;
            let times = t.scenes.iter().find(|s| s.id == "found")?.ratio_to_lead;
            let depth = &t.depth_now_mm;
            Some(TyreTold {
                place: t.place,
                times,
                too_close: times.low < 1.0 && times.high > 1.0,
                worst: now.worst_words.clone(),
                km: [now.band_km.low, now.band_km.median, now.band_km.high],
                limit_mm: self.tyres.limit_mm,
                depth_mm: [*depth.first()?, depth[depth.len() / 2], *depth.last()?],
            })
        };
        let all: Vec<TyreTold> = wear.tyres.iter().filter_map(told).collect();
        // The one that changed most, of those that are told apart.
        all.into_iter().max_by(|a, b| {
            let size = |t: &TyreTold| (!t.too_close, t.times.ratio.ln().abs());
            let (x, y) = (size(a), size(b));
            x.0.cmp(&y.0).then(x.1.total_cmp(&y.1))
        })
    }

    fn came(&self, wheels: &[WheelTold]) -> Vec<Said> {
        let mut out = Vec::new();
        for axle in [Axle::Front, Axle::Rear] {
            let own = |side: Side| wheels.iter().find(|w| w.axle == axle && w.side == side);
            let (Some(l), Some(r)) = (own(Side::Left), own(Side::Right)) else { continue };
            if let (Some(a), Some(b)) = (l.height_mm.found, r.height_mm.found)
                && (a - b).abs() > APART_MM
            {
                let high = if a > b { "left" } else { "right" };
                out.push(
                    said("came-high").word("side", high).word("axle", axle.word()).mm("by", (a - b).abs()),
                );
            }
            let caster = |w: &WheelTold| w.caster_deg.and_then(|c| c.found);
            if let (Some(a), Some(b)) = (caster(l), caster(r))
                && (a - b).abs() > CASTER_APART_DEG
            {
                let less = if a < b { "left" } else { "right" };
                out.push(said("came-caster").word("side", less).deg("by", (a - b).abs(), 1));
            }
        }
        let thrust = |of: fn(&BeforeAfter) -> Option<f64>| {
            let toe = |side: Side| wheels.iter().find(|w| w.axle == Axle::Rear && w.side == side);
            Some(0.5 * (of(&toe(Side::Left)?.toe_deg)? - of(&toe(Side::Right)?.toe_deg)?))
        };
        if let Some(t) = thrust(|b| b.found).filter(|t| t.abs() >= 0.1) {
            out.push(said("came-thrust").word("side", if t > 0.0 { "right" } else { "left" }).deg(
                "by",
                t.abs(),
                2,
            ));
        }
        out
    }

    /// Mean change of an axle's height, mm.
    fn moved(wheels: &[WheelTold], axle: Axle) -> Option<f64> {
        let own = wheels.iter().filter(|w| w.axle == axle);
        let each: Vec<f64> = own.filter_map(|w| Some(w.height_mm.now? - w.height_mm.found?)).collect();
        (!each.is_empty()).then(|| each.iter().sum::<f64>() / each.len() as f64)
    }

    fn watch(&self, wheels: &[WheelTold]) -> Vec<Said> {
        let mut out = Vec::new();
        let opened = self
            .done
            .iter()
            .any(|d| matches!(&d.step, Mark::Step(StepId::Arms(_) | StepId::Fit(..) | StepId::Toe(_))));
        if opened {
            out.push(said("watch-torque"));
        }
        let [front, rear] = [Axle::Front, Axle::Rear].map(|a| Self::moved(wheels, a).unwrap_or(0.0));
        let nose = front - rear;
        if front.abs() > MOVED_MM || rear.abs() > MOVED_MM {
            out.push(if nose.abs() > 1.0 {
                said("watch-headlights")
                    .word("way", if nose < 0.0 { "lower" } else { "higher" })
                    .mm("by", nose.abs())
            } else {
                said("watch-headlights-level")
            });
            out.push(said("watch-sensors"));
            out.push(said("watch-approval"));
        } else if opened {
            out.push(said("watch-sensors"));
        }
        out.extend(
            found_first(&self.input.base.inspected)
                .iter()
                .map(|f| said("watch-found").say("what", f.named())),
        );
        out
    }

    /// How it drove, where it was driven after the last work: acceptance is none.
    fn road(&self) -> Option<Said> {
        let work = self.done.iter().filter(|d| d.step != Mark::Step(StepId::Proved));
        let last = work.map(|d| d.last_at()).max();
        let test = self.care.road.last().filter(|t| last.is_none_or(|l| t.at >= l))?;
        let how = self.sheet.road.as_ref()?.headline.clone();
        Some(match test.felt.as_str() {
            "" => how,
            felt => said("told-road").say("how", how).name("felt", felt),
        })
    }

    /// How an axle lies, where it was measured since the work; what was not is among what is not promised.
    fn lies(&self) -> (Vec<Said>, Vec<Said>) {
        let (told, not): (Vec<&Placed>, Vec<&Placed>) =
            self.sheet.proved.placed.iter().partition(|p| p.came_mm.is_some() && !p.stale);
        let of = |p: &Placed| {
            let square = p.what == GateReading::Wheelbase;
            let id = match (square, p.found_mm.is_some()) {
                (true, true) => "lies-wheelbase",
                (true, false) => "lies-wheelbase-now",
                (false, true) => "lies-centre",
                (false, false) => "lies-centre-now",
            };
            let s = said(id).word("axle", p.axle.word()).mm("now", p.came_mm.unwrap_or_default().abs());
            match p.found_mm {
                Some(was) => s.mm("was", was.abs()),
                None => s,
            }
        };
        let missed = |p: &Placed| {
            let id = if p.what == GateReading::Wheelbase { "lies-untaped" } else { "lies-unmeasured" };
            said(id).word("axle", p.axle.word())
        };
        (told.into_iter().map(of).collect(), not.into_iter().map(missed).collect())
    }

    fn not_read(wheels: &[WheelTold], driven: bool) -> Vec<Said> {
        let mut out = Vec::new();
        for w in wheels {
            let mut each: Vec<Said> = Vec::new();
            for (angle, b) in
                [("camber", Some(w.camber_deg)), ("caster", w.caster_deg), ("toe", Some(w.toe_deg))]
            {
                if b.is_some_and(|b| b.now.is_none()) {
                    each.push(said("angle-named").word("angle", angle));
                }
            }
            if w.height_mm.now.is_none() {
                each.push(said("angle-named").word("angle", "height"));
            }
            if !each.is_empty() {
                out.push(
                    said("not-read-of")
                        .word("side", w.side.word())
                        .word("axle", w.axle.word())
                        .list("each", each),
                );
            }
        }
        if !driven {
            out.push(said("not-read-road"));
        }
        out.push(said("not-read-brakes"));
        out.push(said("not-read-holds"));
        out
    }

    /// The page.
    #[must_use]
    pub fn page(&self) -> Handover {
        let wheels = self.wheels();
        let accepted = self.done.iter().find(|d| d.step == Mark::Step(StepId::Proved));
        let passed = |d: &&&Done| !d.record.off.is_empty() && d.record.reason.is_some();
        let p = &self.sheet.proved;
        // Accepted off plan, it is not called on aim.
        let headline = match (accepted, &self.sheet.returned) {
            (_, Some(r)) => r.headline.clone(),
            (Some(d), None) if d.record.off.is_empty() => p.headline.clone(),
            (Some(_), None) => said("told-off-plan").say("what", p.headline.clone()),
            (None, None) => said("told-not-finished"),
        };
        let road = self.road();
        let (lies, not_lies) = self.lies();
        Handover {
            headline,
            came: self.came(&wheels),
            moved_mm: Axles::of(|a| Self::moved(&wheels, a)),
            done: self.done_told(),
            tyre: self.tyre(&wheels),
            watch: self.watch(&wheels),
            next_look: self.care.next_look,
            passed_off: self
                .done
                .iter()
                .filter(passed)
                .map(|d| PassedOff {
                    title: d.record.title.clone(),
                    off: d.record.off.clone(),
                    reason: d.record.reason.clone().unwrap_or_default(),
                    signed: d.record.signed.clone(),
                })
                .collect(),
            not_read: not_lies.into_iter().chain(Self::not_read(&wheels, road.is_some())).collect(),
            lies,
            road,
            wheels,
            signed: accepted.and_then(|d| d.record.signed.clone()),
            signed_at: accepted.map(|d| d.done_at),
        }
    }
}
