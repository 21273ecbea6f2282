//! What happens to a job once it is set: every time the car comes back, what was trimmed then, when it is looked at next,
//! and that it is closed.

use crate::memory::HeightsTaught;
use crate::plan::Turned;
use crate::sheet::CouldNot;
use bold_stance_car::vehicle::Axles;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};
use bold_stance_units::{parse_angle_deg, parse_count};
use chrono::{DateTime, Duration, NaiveDate, Utc};
use serde::{Deserialize, Serialize};

/// A corner trimmed by its collar or bolt.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Trim {
    /// When, UTC.
    pub at: DateTime<Utc>,
    /// Who.
    pub author: String,
    /// Which axle.
    pub axle: Axle,
    /// Which side.
    pub side: Side,
    /// What was ordered, turns, up positive.
    pub ordered_turns: f64,
    /// What was really turned, turns, up positive.
    pub turns: f64,
    /// The order in workshop words.
    pub words: Said,
    /// What was typed where it was not as ordered.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub typed: Option<String>,
    /// Why it was not.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub could_not: Option<CouldNot>,
}

impl Trim {
    /// Whether it moved the corner: what could not be turned left every tape as true as it was.
    #[must_use]
    pub fn moved(&self) -> bool {
        self.turns != 0.0
    }
}

/// What a corner is ordered to be turned, for its record.
#[derive(Debug, Clone, PartialEq)]
pub struct TrimToDo {
    /// Which axle.
    pub axle: Axle,
    /// Which side.
    pub side: Side,
    /// Turns, up positive.
    pub turns: f64,
    /// The order in workshop words.
    pub words: Said,
}

/// The car came back.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct CarBack {
    /// When, UTC.
    pub at: DateTime<Utc>,
    /// Who took it in.
    pub author: String,
    /// Driven since it left, km; none where nobody knows.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub driven_km: Option<f64>,
    /// What was trimmed, oldest first: nothing later rewrites it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub trims: Vec<Trim>,
}

/// A drive after the setting.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct RoadTest {
    /// When, UTC.
    pub at: DateTime<Utc>,
    /// Who.
    pub author: String,
    /// How far the steering wheel stands off on a straight road, degrees, to the left positive.
    pub wheel_off_deg: f64,
    /// What was felt: pull, return to centre, vibration.
    #[serde(default, skip_serializing_if = "String::is_empty")]
    pub felt: String,
    /// When both rods were turned for it.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub turned_at: Option<DateTime<Utc>>,
}

/// When it is looked at next: at whichever comes first.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct NextLook {
    /// On a day.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub on: Option<NaiveDate>,
    /// After a distance from now, km.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub after_km: Option<f64>,
}

/// A job that is done with.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Closed {
    /// When, UTC.
    pub at: DateTime<Utc>,
    /// Who closed it.
    pub signed: String,
}

/// Everything after the setting.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct Aftercare {
    /// What was trimmed at the gate of heights, oldest first.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub at_gate: Vec<Trim>,
    /// What it taught of height, as of when its next look was set or its job closed last.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub taught: Option<HeightsTaught>,
    /// Every drive after the setting, oldest first.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub road: Vec<RoadTest>,
    /// Every time it came back, oldest first.
    #[serde(skip_serializing_if = "Vec::is_empty")]
    pub returns: Vec<CarBack>,
    /// What is turned for height on each axle, where somebody said so.
    pub turned: Axles<Option<Turned>>,
    /// When it is looked at next.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub next_look: Option<NextLook>,
    /// Set once it is closed.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub closed: Option<Closed>,
}

/// Something done after the setting.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(tag = "act", rename_all = "snake_case", deny_unknown_fields)]
pub enum AfterAct {
    /// The car came back.
    CameBack {
        /// Driven since it left, km.
        #[serde(default)]
        driven_km: Option<f64>,
    },
    /// What is turned for height on an axle.
    TurnsBy {
        /// Which axle.
        axle: Axle,
        /// What; none where nothing is.
        #[serde(default)]
        turned: Option<Turned>,
    },
    /// A corner was trimmed as its order says.
    Trimmed {
        /// Which axle.
        axle: Axle,
        /// Which side.
        side: Side,
        /// Turns as the order counts, where it was not as ordered; the other way with a minus.
        #[serde(default)]
        amount: String,
        /// Why it was not turned as ordered.
        #[serde(default)]
        could_not: Option<CouldNot>,
    },
    /// The car was driven.
    RoadTested {
        /// How far the steering wheel stands off on a straight road, degrees; empty or 0 where it is straight.
        #[serde(default)]
        wheel_off: String,
        /// To which side.
        #[serde(default)]
        side: Option<Side>,
        /// What was felt.
        #[serde(default)]
        felt: String,
    },
    /// Both rods were turned as the road test ordered.
    WheelTurned,
    /// When it is looked at next; nothing named takes it back.
    LookNext {
        /// On a day.
        #[serde(default)]
        on: Option<NaiveDate>,
        /// After a distance, km.
        #[serde(default)]
        after_km: Option<f64>,
    },
    /// The job is closed.
    Close {
        /// By whom.
        signed: String,
    },
    /// A closed job is open again.
    Reopen,
}

impl AfterAct {
    /// Whether what the car taught of height is written down with it.
    #[must_use]
    pub fn teaches(&self) -> bool {
        matches!(self, Self::LookNext { .. } | Self::Close { .. })
    }

    /// What it is called among the events of a job.
    #[must_use]
    pub fn event(&self) -> &'static str {
        match self {
            Self::CameBack { .. } => "came back",
            Self::TurnsBy { .. } => "height turned by",
            Self::Trimmed { .. } => "trimmed",
            Self::RoadTested { .. } => "road test",
            Self::WheelTurned => "steering wheel set straight",
            Self::LookNext { .. } => "next look",
            Self::Close { .. } => "closed",
            Self::Reopen => "reopened",
        }
    }
}

/// Most returns of one job.
const MOST_RETURNS: usize = 100;
/// Two of them nearer than this are one pressed twice, minutes.
const APART_MIN: i64 = 5;
/// A steering wheel farther off than this was put on wrong, degrees.
const MOST_WHEEL_DEG: f64 = 180.0;
/// Longest note of what was felt, characters.
const MOST_FELT: usize = 300;
/// Turns more than this are no trim.
const MOST_TURNS: f64 = 40.0;

impl Aftercare {
    /// The time it came back last.
    #[must_use]
    pub fn last(&self) -> Option<&CarBack> {
        self.returns.last()
    }

    /// The same with what the car taught of height; nothing is kept where it taught nothing.
    #[must_use]
    pub fn having_taught(mut self, taught: HeightsTaught, now: DateTime<Utc>) -> Self {
        self.taught = Some(HeightsTaught { at: now, ..taught })
            .filter(|t| !t.turns.is_empty() || !t.settled.is_empty());
        self
    }

    /// Everything wrong with it, by field.
    pub(super) fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        for (k, r) in self.road.iter().enumerate() {
            let f = format!("{at}.road.{k}.wheel_off_deg");
            out.extend(in_range(&f, r.wheel_off_deg, -MOST_WHEEL_DEG, MOST_WHEEL_DEG, "°").err());
        }
        for (k, t) in self.at_gate.iter().enumerate() {
            let f = format!("{at}.at_gate.{k}.turns");
            out.extend(in_range(&f, t.turns, -MOST_TURNS, MOST_TURNS, "turns").err());
        }
        for (i, r) in self.returns.iter().enumerate() {
            if let Some(km) = r.driven_km {
                out.extend(in_range(&format!("{at}.returns.{i}.driven_km"), km, 0.0, 1e6, "km").err());
            }
            for (k, t) in r.trims.iter().enumerate() {
                let f = format!("{at}.returns.{i}.trims.{k}.turns");
                out.extend(in_range(&f, t.turns, -MOST_TURNS, MOST_TURNS, "turns").err());
            }
        }
        out
    }

    /// The same after something was done. `to_do` is what is ordered: at the gate of heights while the car never left, else as it
    /// came back.
    ///
    /// # Errors
    /// A [`Problem`] at the field of the act that is wrong.
    pub fn after(
        mut self,
        act: &AfterAct,
        to_do: &[TrimToDo],
        (now, author): (DateTime<Utc>, &str),
    ) -> Result<Self, Problem> {
        match act {
            AfterAct::CameBack { driven_km } => {
                if let Some(km) = driven_km {
                    in_range("driven_km", *km, 0.0, 1e6, "km")?;
                }
                let again = self.last().is_some_and(|r| now - r.at < Duration::minutes(APART_MIN));
                if again || self.returns.len() >= MOST_RETURNS {
                    return Err(Problem::new("act", said("back-already"), said("back-already-right")));
                }
                let (at, author) = (now, author.to_owned());
                self.returns.push(CarBack { at, author, driven_km: *driven_km, trims: Vec::new() });
                // It is here: what was due is met, and the job is open.
                (self.next_look, self.closed) = (None, None);
            }
            AfterAct::TurnsBy { axle, turned } => {
                if let Some(Turned::Collar { pitch_mm, motion_ratio }) = turned {
                    if let Some(p) = pitch_mm {
                        in_range("turned.pitch_mm", *p, 0.5, 6.0, "mm a turn")?;
                    }
                    if let Some(r) = motion_ratio {
                        in_range("turned.motion_ratio", *r, 0.2, 1.5, "of the wheel's travel")?;
                    }
                }
                self.turned[*axle] = *turned;
            }
            AfterAct::Trimmed { axle, side, amount, could_not } => {
                let Some(order) = to_do.iter().find(|t| t.axle == *axle && t.side == *side) else {
                    return Err(Problem::new("side", said("trim-not-there"), said("trim-not-there-right")));
                };
                let typed = amount.trim();
                let way = order.turns.signum();
                let turns = match (typed, could_not) {
                    ("", None) => order.turns,
                    ("", Some(_)) => 0.0,
                    _ => way * parse_count("amount", typed)?,
                };
                in_range("amount", turns, -MOST_TURNS, MOST_TURNS, "turns")?;
                let kept = self.returns.last_mut().map_or(&mut self.at_gate, |r| &mut r.trims);
                kept.push(Trim {
                    at: now,
                    author: author.to_owned(),
                    axle: *axle,
                    side: *side,
                    ordered_turns: order.turns,
                    turns,
                    words: order.words.clone(),
                    typed: (!typed.is_empty()).then(|| typed.to_owned()),
                    could_not: *could_not,
                });
            }
            AfterAct::RoadTested { wheel_off, side, felt } => {
                let typed = wheel_off.trim();
                let off = if typed.is_empty() { 0.0 } else { parse_angle_deg("wheel_off", typed)? };
                in_range("wheel_off", off, 0.0, MOST_WHEEL_DEG, "°")?;
                if off != 0.0 && side.is_none() {
                    return Err(Problem::new("side", said("road-no-side"), said("road-no-side-right")));
                }
                if felt.trim().chars().count() > MOST_FELT {
                    let right = said("fault-characters-right").count("n", MOST_FELT);
                    let wrong = said("fault-characters").count("n", felt.trim().chars().count());
                    return Err(Problem::new("felt", wrong, right));
                }
                if self.road.len() >= MOST_RETURNS {
                    return Err(Problem::new("act", said("back-already"), said("back-already-right")));
                }
                self.road.push(RoadTest {
                    at: now,
                    author: author.to_owned(),
                    wheel_off_deg: if *side == Some(Side::Right) { -off } else { off },
                    felt: felt.trim().to_owned(),
                    turned_at: None,
                });
            }
            AfterAct::WheelTurned => match self.road.last_mut() {
                Some(r) if r.turned_at.is_none() && r.wheel_off_deg != 0.0 => r.turned_at = Some(now),
                _ => return Err(Problem::new("act", said("road-not-off"), said("road-not-off-right"))),
            },
            AfterAct::LookNext { on, after_km } => {
                if let Some(km) = after_km {
                    in_range("after_km", *km, 1.0, 200_000.0, "km")?;
                }
                if on.is_some_and(|d| d < now.date_naive()) {
                    return Err(Problem::new("on", said("look-past"), said("look-past-right")));
                }
                self.next_look =
                    (on.is_some() || after_km.is_some()).then_some(NextLook { on: *on, after_km: *after_km });
            }
            AfterAct::Close { signed } => {
                let name = signed.trim();
                if !(2..=60).contains(&name.chars().count()) {
                    return Err(Problem::new("signed", said("not-signed"), said("not-signed-right")));
                }
                self.closed = Some(Closed { at: now, signed: name.to_owned() });
            }
            AfterAct::Reopen => {
                if self.closed.take().is_none() {
                    return Err(Problem::new("act", said("not-closed"), said("not-closed-right")));
                }
            }
        }
        Ok(self)
    }
}
