//! A tyre's log: where it ran, how deep it was, and what does not agree.

use super::band::{Belief, GROOVES, ReadAt, Running, at_place, learn};
use super::basis::Basis;
use super::forecast::STRIPS;
use super::tyre::Tyre;
use super::uses::UseMix;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Measure, Said, said};
use serde::{Deserialize, Serialize};

/// A depth that grew by more than this against the one before is not the gauge's scatter, mm (three times 0.25 mm).
const GREW_MM: f64 = 0.75;
/// A reading this far from what everything else says is worth a second look, mm.
const ODD_MM: f64 = 0.9;

/// A place on the car.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum TyrePlace {
    /// Left front.
    LeftFront,
    /// Right front.
    RightFront,
    /// Left rear.
    LeftRear,
    /// Right rear.
    RightRear,
}

impl TyrePlace {
    /// All four.
    pub const ALL: [Self; 4] = [Self::LeftFront, Self::RightFront, Self::LeftRear, Self::RightRear];

    /// Whether on the front axle.
    #[must_use]
    pub fn front(self) -> bool {
        self.axle() == Axle::Front
    }

    /// Its axle.
    #[must_use]
    pub fn axle(self) -> Axle {
        match self {
            Self::LeftFront | Self::RightFront => Axle::Front,
            Self::LeftRear | Self::RightRear => Axle::Rear,
        }
    }

    /// Whether on the left.
    #[must_use]
    pub fn left(self) -> bool {
        matches!(self, Self::LeftFront | Self::LeftRear)
    }

    /// What the shop calls it.
    #[must_use]
    pub fn name(self) -> &'static str {
        match self {
            Self::LeftFront => "left front",
            Self::RightFront => "right front",
            Self::LeftRear => "left rear",
            Self::RightRear => "right rear",
        }
    }

    /// A place as written in a table: `left front`, `LF`, `left_front`.
    #[must_use]
    pub fn parse(text: &str) -> Option<Self> {
        let t = text.trim().to_lowercase().replace(['_', '-'], " ");
        let short = |p: &Self| p.name().split(' ').filter_map(|w| w.chars().next()).collect::<String>();
        Self::ALL.into_iter().find(|p| p.name() == t || short(p) == t)
    }
}

/// One line of a tyre's log: depths as it came, and where it runs from here on.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct LogEntry {
    /// Odometer, km.
    pub odometer_km: f64,
    /// Where it runs from here on; none when it is off the car.
    pub place: Option<TyrePlace>,
    /// Turned on its rim here: what was inside is outside from now on.
    #[serde(default)]
    pub flipped: bool,
    /// Inner, centre and outer main groove as it came, before it was moved, mm.
    #[serde(default)]
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub depths_mm: Option<[f64; 3]>,
    /// Day, e.g. `2026-11-24`.
    #[serde(default)]
    pub day: String,
    /// Free remark.
    #[serde(default)]
    pub note: String,
}

/// A tyre with its log, in the order it was written.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct LoggedTyre {
    /// Serial or chalk mark.
    pub mark: String,
    /// Depth when new, mm; of the class when absent.
    #[serde(default)]
    pub new_depth_mm: Option<f64>,
    /// Lines, as written.
    pub entries: Vec<LogEntry>,
}

/// All tyres of a car.
#[derive(Debug, Clone, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct TreadLog {
    /// Tyres.
    pub tyres: Vec<LoggedTyre>,
    /// Odometer at which the car was set as planned, km; none while it still runs as found.
    pub set_at_km: Option<f64>,
}

/// Something in a log that does not agree.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct LogWarning {
    /// Mark of the tyre.
    pub mark: String,
    /// Line, from 0.
    pub entry: usize,
    /// What does not agree.
    pub wrong: Said,
    /// What to do.
    pub right: Said,
}

/// Depths read at one time, with what was expected.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct ReadPoint {
    /// Line of the log it was read in, from 0: lines whose odometer ran back are left out.
    pub entry: usize,
    /// Distance on this tyre, km.
    pub km: f64,
    /// Inner, centre, outer, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub read_mm: [f64; 3],
    /// What the model alone expects, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub before_mm: [f64; 3],
    /// What is expected after learning, mm.
    #[cfg_attr(feature = "openapi", schema(min_items = 3, max_items = 3))]
    pub after_mm: [f64; 3],
}

impl LoggedTyre {
    /// What is wrong with the figures, by field under `at`.
    #[must_use]
    pub fn problems(&self, at: &str) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.mark.trim().is_empty() || self.mark.len() > 40 {
            out.push(Problem::new(
                format!("{at}.mark"),
                said("fault-no-mark"),
                said("fault-serial-chalk-mark-1-40"),
            ));
        }
        let depth = self.new_depth_mm.unwrap_or(8.0);
        out.extend(in_range(&format!("{at}.new_depth_mm"), depth, 2.0, 25.0, "mm").err());
        if self.entries.len() > 500 {
            out.push(Problem::new(
                format!("{at}.entries"),
                said("fault-more-than-500-lines"),
                said("fault-one-tyre-life"),
            ));
        }
        for (i, e) in self.entries.iter().enumerate() {
            let odometer = format!("{at}.entries.{i}.odometer_km");
            out.extend(in_range(&odometer, e.odometer_km, 0.0, 3_000_000.0, "km").err());
            for (j, d) in e.depths_mm.iter().flatten().enumerate() {
                let field = format!("{at}.entries.{i}.depths_mm.{j}");
                out.extend(in_range(&field, *d, 0.0, 30.0, "mm").err());
            }
        }
        out
    }

    /// Lines whose odometer does not run back.
    fn forward(&self) -> Vec<(usize, &LogEntry)> {
        let mut out: Vec<(usize, &LogEntry)> = Vec::new();
        for (i, e) in self.entries.iter().enumerate() {
            if out.last().is_none_or(|(_, o)| e.odometer_km >= o.odometer_km) {
                out.push((i, e));
            }
        }
        out
    }

    /// Where it runs now.
    #[must_use]
    pub fn place(&self) -> Option<TyrePlace> {
        self.forward().last().and_then(|(_, e)| e.place)
    }

    /// Mean depth of its first line where the tyre was worn already by then, mm: what it is counted from, since nobody
    /// knows how far it had run. None when it was new, or not read there.
    #[must_use]
    pub fn worn_at_start(&self, new_depth_mm: f64) -> Option<f64> {
        let kept = self.forward();
        let depths = kept.first().and_then(|(_, e)| e.depths_mm)?;
        let mean = depths.iter().sum::<f64>() / 3.0;
        (mean < new_depth_mm - GREW_MM).then_some(mean)
    }

    /// What does not agree within this tyre's log.
    #[must_use]
    pub fn warnings(&self, new_depth_mm: f64) -> Vec<LogWarning> {
        let mut out = Vec::new();
        let mut say = |entry: usize, wrong: Said, right: &'static str| {
            out.push(LogWarning { mark: self.mark.clone(), entry, wrong, right: said(right) });
        };
        let kept = self.forward();
        for (i, e) in self.entries.iter().enumerate() {
            if !kept.iter().any(|(k, _)| *k == i) {
                let before = kept.iter().rev().find(|(k, _)| *k < i).map_or(0.0, |(_, b)| b.odometer_km);
                say(
                    i,
                    said("log-ran-back").of("at", Measure::Km, e.odometer_km, 0).of(
                        "after",
                        Measure::Km,
                        before,
                        0,
                    ),
                    "log-ran-back-right",
                );
            }
        }
        let mut last: Option<[f64; 3]> = None;
        for (i, e) in &kept {
            let Some(d) = e.depths_mm else { continue };
            let was = last.unwrap_or([new_depth_mm; 3]);
            for (j, name) in ["inner", "centre", "outer"].into_iter().enumerate() {
                if d[j] > was[j] + GREW_MM {
                    let id = if last.is_some() { "log-grew" } else { "log-grew-new" };
                    say(
                        *i,
                        said(id).word("groove", name).of("now", Measure::TreadMm, d[j], 1).of(
                            "was",
                            Measure::TreadMm,
                            was[j],
                            1,
                        ),
                        "log-grew-right",
                    );
                }
            }
            last = Some(if e.flipped { [d[2], d[1], d[0]] } else { d });
        }
        out
    }
}

/// Tyres that claim one place at the same time.
#[must_use]
pub fn place_warnings(log: &TreadLog) -> Vec<LogWarning> {
    let mut out = Vec::new();
    for (i, t) in log.tyres.iter().enumerate() {
        let Some(p) = t.place() else { continue };
        if let Some(o) = log.tyres[..i].iter().find(|o| o.place() == Some(p)) {
            out.push(LogWarning {
                mark: t.mark.clone(),
                entry: t.entries.len().saturating_sub(1),
                wrong: said("log-both")
                    .name("one", o.mark.clone())
                    .name("other", t.mark.clone())
                    .word("side", if p.left() { "left" } else { "right" })
                    .word("axle", if p.front() { "front" } else { "rear" }),
                right: said("log-both-right"),
            });
        }
    }
    out
}

/// What a tyre's log taught.
#[derive(Debug, Clone)]
pub(crate) struct Taught {
    /// Prior over everything it ran on.
    pub prior: Belief,
    /// After its depths, as it stands now.
    pub now: Belief,
    /// Distance on this tyre, km.
    pub km: f64,
    /// Model wear up to now at every strip, as it sits now, mm.
    pub worn: [f64; STRIPS],
    /// Readings with what was expected.
    pub points: Vec<ReadPoint>,
    /// Whether it ran in one place at one setup all along.
    pub one_setup: bool,
    /// Readings far from the rest.
    pub odd: Vec<LogWarning>,
}

/// Where a tyre ran: from and to, km on this tyre, how, and how many times it was turned on its rim later.
struct Leg {
    from: f64,
    km: f64,
    running: Running,
    rate: [f64; STRIPS],
}

/// Learns from a tyre's log. `running` says how the car ran at a place, as found or as set; `rate` its plain rates.
/// `None` when the log has no place to start from.
pub(crate) fn taught(
    t: &LoggedTyre,
    set_at_km: Option<f64>,
    tyre: &Tyre,
    mix: &UseMix,
    limit_mm: f64,
    basis: &Basis,
    running: &dyn Fn(TyrePlace, bool) -> Option<(Running, [f64; STRIPS])>,
) -> Option<Taught> {
    let kept = t.forward();
    let flips_after = |i: usize| kept.iter().filter(|(k, e)| *k > i && e.flipped).count() % 2 == 1;
    let mut legs: Vec<Leg> = Vec::new();
    let mut km = 0.0;
    for (n, (i, e)) in kept.iter().enumerate() {
        let Some(place) = e.place else { continue };
        let to = kept.get(n + 1).map_or(e.odometer_km, |(_, x)| x.odometer_km);
        let cut = set_at_km.unwrap_or(f64::INFINITY).clamp(e.odometer_km, to);
        for (a, b, set) in [(e.odometer_km, cut, false), (cut, to, true)] {
            let last = kept.get(n + 1).is_none() && set == (set_at_km.is_some_and(|s| s <= e.odometer_km));
            if b <= a && !last {
                continue;
            }
            let (r, rate) = running(place, set)?;
            let flipped = flips_after(*i);
            let mut rate = rate;
            if flipped {
                rate.reverse();
            }
            legs.push(Leg { from: km, km: b - a, running: Running { share: b - a, flipped, ..r }, rate });
            km += b - a;
        }
    }
    if legs.is_empty() {
        return None;
    }
    if km <= 0.0 {
        legs.iter_mut().for_each(|l| l.running.share = 1.0);
    }
    let worn_at = |at: f64| -> [f64; STRIPS] {
        std::array::from_fn(|s| {
            legs.iter().map(|l| l.rate[s] * (at - l.from).clamp(0.0, l.km) / 1000.0).sum()
        })
    };
    // Distance on this tyre at a line of the log: time off the car does not count.
    let driven_at = |line: usize| -> f64 {
        kept.windows(2)
            .take_while(|w| w[1].0 <= line)
            .filter(|w| w[0].1.place.is_some())
            .map(|w| w[1].1.odometer_km - w[0].1.odometer_km)
            .sum()
    };
    let ran: Vec<Running> =
        legs.iter().filter(|l| l.running.share > 0.0).map(|l| l.running.clone()).collect();
    let prior = Belief::of(tyre, &ran, mix, limit_mm, basis);
    let read: Vec<(usize, f64, [f64; 3])> = kept
        .iter()
        .filter_map(|(i, e)| {
            let d = e.depths_mm?;
            // Read before it was turned on its rim here, so this turn counts too.
            let turned = flips_after(*i) ^ e.flipped;
            Some((*i, driven_at(*i), if turned { [d[2], d[1], d[0]] } else { d }))
        })
        .collect();
    let at: Vec<ReadAt> = read.iter().map(|(_, k, d)| ReadAt { worn: worn_at(*k), depths_mm: *d }).collect();
    let now = learn(&prior, &at).driven(km, worn_at(km));
    let points: Vec<ReadPoint> = read
        .iter()
        .zip(&at)
        .map(|((entry, k, d), r)| ReadPoint {
            entry: *entry,
            km: *k,
            read_mm: *d,
            before_mm: GROOVES.map(|e| tyre.new_depth() - at_place(&r.worn, e)),
            after_mm: GROOVES.map(|e| now.depth_when_new() - at_place(&r.worn, e) * now.factor_at(e)),
        })
        .collect();
    let odd = read
        .iter()
        .zip(&points)
        .flat_map(|((i, _, _), p)| {
            ["inner", "centre", "outer"].into_iter().enumerate().filter_map(move |(j, name)| {
                let off = p.read_mm[j] - p.after_mm[j];
                (off.abs() > ODD_MM).then_some((*i, name, off))
            })
        })
        .map(|(entry, name, off)| LogWarning {
            mark: t.mark.clone(),
            entry,
            wrong: said(if off > 0.0 { "log-deeper" } else { "log-shallower" }).word("groove", name).of(
                "by",
                Measure::TreadMm,
                off.abs(),
                1,
            ),
            right: said("log-odd-right"),
        })
        .collect();
    let first = &legs[0];
    let one_setup = legs.iter().all(|l| l.rate == first.rate);
    Some(Taught { worn: worn_at(km), prior, now, km, points, one_setup, odd })
}
