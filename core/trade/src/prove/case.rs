//! The `bold-stance.prove/1` case of the command line: a corner as found, what was done to it and what was read, again and
//! again; what that taught, and what is left to turn.

use super::explain::{Explained, explain};
use super::learner::{AnglesRead, Came, Expected, Learner};
use crate::aim::{Target, off_window};
use crate::plan::{Bench, CornerAim, SettingsError};
use bold_stance_car::adjuster::{Adjuster, adjuster_problems, adjusters_not_there};
use bold_stance_car::fit::{Doubted, Knowledge, Sigmas, TAPE_HEIGHT_SIGMA_MM, doubt, spreads};
use bold_stance_car::vehicle::{Attitude, Measured, anchor, anchor_wheel};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{self, Corner};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};
use bold_stance_units::{HalfWidth, Sigma};
use serde::{Deserialize, Serialize};

/// Most cycles of a case.
const MOST_CYCLES: usize = 50;

/// Camber, caster, toe, degrees: values, standard deviations or half widths; caster left out of a wheel that does not
/// steer.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ThreeAngles {
    /// Top out positive.
    pub camber_deg: f64,
    /// Top rearward positive.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub caster_deg: Option<f64>,
    /// Per wheel, toe-in positive.
    pub toe_deg: f64,
}

/// What a reading of a cycle holds: what was not read is left out.
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[serde(deny_unknown_fields, default)]
pub struct SomeAngles {
    /// Top out positive.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub camber_deg: Option<f64>,
    /// Top rearward positive.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub caster_deg: Option<f64>,
    /// Per wheel, toe-in positive.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub toe_deg: Option<f64>,
}

/// An adjuster, with what is known of what it really does.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct ProveAdjuster {
    /// The adjuster.
    #[serde(flatten)]
    pub adjuster: Adjuster,
    /// What it does over what it is said to do, where the shop has learned it; 1 when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gain: Option<f64>,
    /// Standard deviation of the logarithm of that; by the adjuster's kind when absent.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub gain_sd: Option<f64>,
}

/// The corner as found.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct AsFound {
    /// Hub to arch over the geometry's own, mm.
    #[serde(default)]
    pub height_mm: f64,
    /// Where each adjuster stood; where it says it stands when absent.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub positions: Vec<f64>,
    /// What was read.
    pub readings: ThreeAngles,
    /// Standard deviations of it.
    pub sigma: ThreeAngles,
}

/// Work, then readings.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ProveCycle {
    /// Where each adjuster stands after it, as really done.
    pub as_done: Vec<f64>,
    /// Hub to arch over the geometry's own as read settled, mm.
    #[serde(default)]
    pub height_mm: f64,
    /// What was read.
    pub readings: SomeAngles,
    /// Standard deviations of it.
    pub sigma: SomeAngles,
}

/// The case.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct ProveCase {
    /// Always `bold-stance.prove/1`.
    pub format: String,
    /// The corner: its left side.
    pub geometry: Geometry,
    /// Axle to axle, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub wheelbase_mm: Option<f64>,
    /// What can be turned.
    pub adjusters: Vec<ProveAdjuster>,
    /// What is wanted.
    pub aim: CornerAim,
    /// As found.
    pub anchor: AsFound,
    /// What was done and read since, oldest first.
    #[serde(default)]
    pub cycles: Vec<ProveCycle>,
    /// How well the points are known.
    #[serde(default)]
    pub knowledge: Knowledge,
    /// Free remark.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// Angles with their 90 % half widths.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct Banded {
    /// The angles.
    #[serde(flatten)]
    pub angles: ThreeAngles,
    /// 90 % half widths.
    pub band: ThreeAngles,
}

/// Verdict of one angle.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct ProvedAngle {
    /// Whether it came inside the band of prediction and reading together; none where it was not read.
    pub as_predicted: Option<bool>,
    /// How far what was read is outside the aim, degrees, signed; 0 inside, none where it was not read.
    pub off_aim_deg: Option<f64>,
}

/// Verdict of a cycle.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
pub struct ProvedCycle {
    /// Camber.
    pub camber: ProvedAngle,
    /// Caster; none for a wheel that does not steer.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub caster: Option<ProvedAngle>,
    /// Toe.
    pub toe: ProvedAngle,
    /// Whether it was learned from: what is odder than once in a hundred is not.
    pub learned: bool,
}

/// What an adjuster was learned to do.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct LearnedGain {
    /// The adjuster.
    pub name: String,
    /// Times what it is said to do.
    pub gain: f64,
    /// Standard deviation of that.
    pub sd: f64,
}

/// What is left to turn.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct LeftToTurn {
    /// Where each adjuster is to end.
    pub positions: Vec<f64>,
    /// The orders in workshop words, in the order in which they are turned.
    pub orders: Vec<Said>,
    /// What comes of it.
    pub expect: ThreeAngles,
    /// 90 % half widths of that.
    pub band: ThreeAngles,
    /// Probability that it lands.
    pub odds: f64,
    /// Whether the aim is believed reached by it.
    pub reaches: bool,
}

/// The answer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct ProveResult {
    /// What was expected of each cycle before it was read.
    pub predicted: Vec<Banded>,
    /// Verdict of each cycle.
    pub verdict: Vec<ProvedCycle>,
    /// χ² of each cycle's innovation.
    pub innovation: Vec<f64>,
    /// What explains the last cycle, likeliest first; empty where it was not odd.
    pub explains: Vec<Explained>,
    /// What each adjuster was learned to do.
    pub gains: Vec<LearnedGain>,
    /// What is left to turn.
    pub next: LeftToTurn,
}

impl ProveCase {
    fn steers(&self) -> bool {
        self.geometry.axle == Axle::Front && Corner::of(&self.geometry, Side::Left).is_steered()
    }

    fn list(&self) -> Vec<Adjuster> {
        self.adjusters.iter().map(|a| a.adjuster.clone()).collect()
    }

    /// Everything wrong with the case, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.format != "bold-stance.prove/1" {
            let wrong = said("fault-quoted").name("value", self.format.clone());
            out.push(Problem::new(
                "format",
                wrong,
                said("fault-quoted").name("value", "bold-stance.prove/1"),
            ));
        }
        let under = |p: Problem| Problem { field: format!("geometry.{}", p.field), ..p };
        out.extend(linkage::problems(&self.geometry).into_iter().map(under));
        let n = self.adjusters.len();
        let count = |field: String, len: usize, may_be_empty: bool, out: &mut Vec<Problem>| {
            if len != n && !(may_be_empty && len == 0) {
                let wrong = said("fault-quoted").name("value", len.to_string());
                out.push(Problem::new(field, wrong, said("fault-quoted").name("value", n.to_string())));
            }
        };
        out.extend(in_range("anchor.height_mm", self.anchor.height_mm, -400.0, 400.0, "mm").err());
        count("anchor.positions".into(), self.anchor.positions.len(), true, &mut out);
        if self.cycles.len() > MOST_CYCLES {
            let wrong = said("fault-quoted").name("value", self.cycles.len().to_string());
            out.push(Problem::new(
                "cycles",
                wrong,
                said("fault-quoted").name("value", MOST_CYCLES.to_string()),
            ));
        }
        let some = |a: &ThreeAngles| SomeAngles {
            camber_deg: Some(a.camber_deg),
            caster_deg: a.caster_deg,
            toe_deg: Some(a.toe_deg),
        };
        let angles = |at: String, a: &SomeAngles, s: &SomeAngles, out: &mut Vec<Problem>| {
            for (f, v, sd) in [
                ("camber_deg", a.camber_deg, s.camber_deg),
                ("caster_deg", a.caster_deg, s.caster_deg),
                ("toe_deg", a.toe_deg, s.toe_deg),
            ] {
                let Some(v) = v else { continue };
                out.extend(in_range(&format!("{at}.readings.{f}"), v, -20.0, 20.0, "°").err());
                out.extend(in_range(&format!("{at}.sigma.{f}"), sd.unwrap_or(f64::NAN), 0.0, 5.0, "°").err());
            }
        };
        angles("anchor".into(), &some(&self.anchor.readings), &some(&self.anchor.sigma), &mut out);
        for (i, c) in self.cycles.iter().enumerate() {
            count(format!("cycles.{i}.as_done"), c.as_done.len(), false, &mut out);
            for (k, p) in c.as_done.iter().enumerate() {
                out.extend(in_range(&format!("cycles.{i}.as_done.{k}"), *p, -400.0, 400.0, "").err());
            }
            out.extend(in_range(&format!("cycles.{i}.height_mm"), c.height_mm, -400.0, 400.0, "mm").err());
            angles(format!("cycles.{i}"), &c.readings, &c.sigma, &mut out);
        }
        for (i, a) in self.adjusters.iter().enumerate() {
            out.extend(in_range(&format!("adjusters.{i}.gain"), a.gain.unwrap_or(1.0), 0.1, 10.0, "").err());
            out.extend(
                in_range(&format!("adjusters.{i}.gain_sd"), a.gain_sd.unwrap_or(0.1), 0.0, 2.0, "").err(),
            );
        }
        if out.is_empty() && self.steers() {
            for (f, there) in [
                ("anchor.readings.caster_deg", self.anchor.readings.caster_deg.is_some()),
                ("aim.caster_deg", self.aim.caster_deg.is_some()),
            ] {
                if !there {
                    let wrong = said("fault-left-out-but-this-wheel");
                    out.push(Problem::new(f, wrong, said("fault-degrees-top-rearward-positive")));
                }
            }
        }
        out.extend(adjuster_problems(&self.list()));
        out.extend(adjusters_not_there(&self.list(), &self.geometry.points));
        self.aim.problems(&mut out);
        out
    }

    /// Variances of what the model says of the change since it was anchored, degrees squared: its points, and heights by
    /// tape where the height changed.
    fn change_variance(&self, list: &[Adjuster], start: &[Edit], read: &Measured) -> [f64; 3] {
        let Some(c) = self.cycles.first() else { return [0.0; 3] };
        let planned: Vec<Edit> = list.iter().zip(&c.as_done).flat_map(|(a, p)| a.edits_at(*p)).collect();
        let higher = (c.height_mm - self.anchor.height_mm).abs() > 0.5;
        let d = doubt(
            &Doubted {
                points: &self.geometry.points,
                wheel: &self.geometry.wheel,
                read_at: -self.anchor.height_mm,
                start,
                planned: &planned,
                measured: read,
                sigma: Sigmas { camber_deg: 0.0, caster_deg: 0.0, toe_deg: 0.0 },
                spreads: &spreads(&self.geometry.points, self.knowledge),
                height_sigma_mm: if higher { TAPE_HEIGHT_SIGMA_MM } else { 0.0 },
                throws: &[],
            },
            &[-c.height_mm],
        );
        let d = d.ok().and_then(|d| d.into_iter().next().flatten());
        d.map_or([0.0; 3], |d| {
            [d.camber_deg, d.caster_deg, d.toe_deg].map(|h| HalfWidth(h).sigma().0.powi(2))
        })
    }
}

/// Works a case out.
///
/// # Errors
/// [`SettingsError::Bad`] names the field; [`SettingsError::NoAnswer`] when the corner cannot be posed.
pub fn run_prove(case: &ProveCase) -> Result<ProveResult, SettingsError> {
    if let Some(p) = case.problems().into_iter().next() {
        return Err(p.into());
    }
    let steers = case.steers();
    let mut list = case.list();
    for (a, p) in list.iter_mut().zip(&case.anchor.positions) {
        a.position = *p;
    }
    let start: Vec<Edit> = list.iter().flat_map(|a| a.edits_at(a.position)).collect();
    let (r, s) = (&case.anchor.readings, &case.anchor.sigma);
    let (g, travel) = (&case.geometry, -case.anchor.height_mm);
    let read =
        Measured { camber_deg: r.camber_deg, caster_deg: r.caster_deg.unwrap_or(0.0), toe_deg: r.toe_deg };
    let anchored = if steers {
        anchor(&g.points, &g.wheel, travel, &start, &read)
    } else {
        anchor_wheel(&g.points, &g.wheel, travel, &start, r.camber_deg, r.toe_deg)
    }
    .map_err(|e| SettingsError::NoAnswer(e.to_string()))?;
    let change = case.change_variance(&list, &start, &read);
    let found = [s.camber_deg, s.caster_deg.unwrap_or(0.0), s.toe_deg];
    let gains: Vec<(f64, f64)> = case
        .adjusters
        .iter()
        .map(|a| (a.gain.unwrap_or(1.0).ln(), a.gain_sd.unwrap_or_else(|| a.adjuster.gain_sd())))
        .collect();
    let bench = Bench::new(anchored.corner, list, travel, Attitude::default());
    let no_answer = || {
        let why = bench.angles(&bench.start()).err();
        SettingsError::NoAnswer(why.map_or("no setting closes".into(), |e| e.to_string()))
    };
    let mut l = Learner::new(&bench, [0, 1, 2].map(|i| found[i].powi(2) + change[i]), &gains);
    let three =
        |v: [f64; 3]| ThreeAngles { camber_deg: v[0], caster_deg: steers.then_some(v[1]), toe_deg: v[2] };
    let half = |sd: [f64; 3]| three(sd.map(|s| Sigma(s).half_width().0));
    let windows = [case.aim.camber_deg, case.aim.caster_deg.unwrap_or([-90.0, 90.0]), case.aim.toe_deg];
    let (mut predicted, mut verdict, mut innovation) = (Vec::new(), Vec::new(), Vec::new());
    let mut explains: Vec<Explained> = Vec::new();
    let mut last = [Some(r.camber_deg), r.caster_deg, Some(r.toe_deg)];
    for c in &case.cycles {
        let before = l.clone();
        l.turned(&c.as_done, -c.height_mm);
        let seen = AnglesRead {
            value: [c.readings.camber_deg, c.readings.caster_deg.filter(|_| steers), c.readings.toe_deg],
            sigma: [c.sigma.camber_deg, c.sigma.caster_deg, c.sigma.toe_deg].map(|s| s.unwrap_or(0.0)),
        };
        let came: Came = l.read(&seen).ok_or_else(no_answer)?;
        let Expected { value, sd } = came.expected;
        predicted.push(Banded { angles: three(value), band: half(sd) });
        let of = |i: usize| ProvedAngle {
            as_predicted: came.as_predicted(i),
            off_aim_deg: seen.value[i].map(|v| off_window(v, windows[i])),
        };
        let caster = steers.then(|| of(1));
        verdict.push(ProvedCycle { camber: of(0), caster, toe: of(2), learned: came.learned });
        innovation.push(came.innovation.chi2);
        let odd =
            !came.learned && !came.which.is_empty() || (0..3).any(|i| came.as_predicted(i) == Some(false));
        explains = if odd { explain(&before, &c.as_done, -c.height_mm, &seen, last) } else { Vec::new() };
        for (l, v) in last.iter_mut().zip(seen.value) {
            *l = v.or(*l);
        }
    }
    let target = Target { camber: windows[0], caster: windows[1], toe: windows[2] };
    // Nothing is turned by a reading that taught nothing.
    let taught = verdict.last().is_none_or(|v| v.learned || explains.is_empty());
    let next = if taught { l.next(&target, l.travel_mm) } else { l.stays(&target, l.travel_mm) };
    let next = next.ok_or_else(no_answer)?;
    let gain = |(k, g): (usize, f64)| LearnedGain {
        name: bench.adjusters[k].name.clone(),
        gain: g,
        sd: g * l.gain_sd(k),
    };
    Ok(ProveResult {
        predicted,
        verdict,
        innovation,
        explains,
        gains: l.belief.gains().into_iter().enumerate().map(gain).collect(),
        next: LeftToTurn {
            positions: next.positions,
            orders: next
                .lines
                .into_iter()
                .map(|l| said("name-order").name("name", l.name).say("order", l.words))
                .collect(),
            expect: three(next.expect.value),
            band: half(next.expect.sd),
            odds: next.odds,
            reaches: next.reaches,
        },
    })
}
