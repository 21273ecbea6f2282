//! How a car came back: what each corner fell by against what was said, what turns bring it back, and its angles then and
//! today.

use super::aftercare::{CarBack, Trim};
use super::height::HeightRead;
use super::record::Reading;
use super::trim::{CameToRest, CornerBack, Look, trim_cautions, turned_by};
use crate::plan::{AngleName, CarAnswer, CarInput};
use crate::reading::{Jack, Place, Quantity, Visit, toe_of};
use crate::sheet::held;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::Sigma;
use bold_stance_units::said::{Measure, Said, said, sentences};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

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
