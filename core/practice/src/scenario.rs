//! Lessons: a shape, what is drawn of it, what it hides, and one thing to learn.

use crate::trap::Trap;
use bold_stance_car::archetype::{Archetype, shipped_archetypes};
use bold_stance_car::vehicle::Axles;
use bold_stance_trade::aim::{Aim, shipped_aims};
use bold_stance_units::problem::{Problem, in_range, parse_json};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// Bounds that something is drawn from, evenly.
pub type Drawn = [f64; 2];

/// How the car came.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Found {
    /// Front camber of each side, degrees.
    pub camber_deg: Drawn,
    /// Front caster of each side, degrees.
    pub caster_deg: Drawn,
    /// Front toe of each wheel, degrees.
    pub toe_deg: Drawn,
}

/// A lesson.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct Scenario {
    /// Stable word.
    pub id: String,
    /// Its place on the ladder.
    pub number: u8,
    /// What it is called.
    pub title: String,
    /// The one thing it teaches.
    pub learn: String,
    /// What the customer says.
    pub complaint: String,
    /// Front shape, by its id.
    pub front: String,
    /// What the height is to change by, mm, front and rear.
    #[serde(default)]
    pub height_change_mm: Axles<f64>,
    /// Aim, by its id.
    pub aim: String,
    /// How it came.
    pub found: Found,
    /// What it hides, at most three.
    pub traps: Vec<Trap>,
    /// Minutes somebody needs who knows.
    pub par_minutes: f64,
    /// Rounds of turning somebody needs who knows.
    pub par_cycles: u32,
    /// Asked for one after the other; each costs points.
    pub hints: Vec<String>,
}

/// Most traps of a car.
pub const MOST_TRAPS: usize = 3;

impl Scenario {
    /// The shape it is drawn from.
    ///
    /// # Errors
    /// A problem at `front` where there is none of that id, or of the shipped shapes themselves.
    pub fn shape(&self) -> Result<Archetype, Problem> {
        let all = shipped_archetypes()?;
        let known: Vec<String> = all.iter().map(|a| a.id.clone()).collect();
        all.into_iter()
            .find(|a| a.id == self.front)
            .ok_or_else(|| Problem::new("front", said("fault-no-data"), known.join(", ")))
    }

    /// What is aimed at.
    ///
    /// # Errors
    /// A problem at `aim` where there is none of that id, or of the shipped aims themselves.
    pub fn aim(&self) -> Result<Aim, Problem> {
        let all = shipped_aims()?;
        let known: Vec<String> = all.iter().map(|a| a.id.clone()).collect();
        all.into_iter()
            .find(|a| a.id == self.aim)
            .ok_or_else(|| Problem::new("aim", said("fault-no-data"), known.join(", ")))
    }

    /// Everything wrong with it, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        out.extend(self.shape().err());
        out.extend(self.aim().err());
        for (name, d, most) in [
            ("found.camber_deg", self.found.camber_deg, 6.0),
            ("found.caster_deg", self.found.caster_deg, 12.0),
            ("found.toe_deg", self.found.toe_deg, 2.0),
        ] {
            out.extend(d.iter().filter_map(|v| in_range(name, *v, -most, most, "°").err()));
            if d[0] > d[1] {
                out.push(Problem::new(
                    name,
                    said("below-lowest").plain("high", d[1], 2).plain("low", d[0], 2),
                    said("below-lowest-right"),
                ));
            }
        }
        if self.traps.is_empty() || self.traps.len() > MOST_TRAPS {
            out.push(Problem::new(
                "traps",
                said("practice-traps").count("n", self.traps.len()),
                said("practice-traps-right").count("most", MOST_TRAPS),
            ));
        }
        out.extend(in_range("par_minutes", self.par_minutes, 10.0, 600.0, "min").err());
        for (name, text) in [("title", &self.title), ("learn", &self.learn), ("complaint", &self.complaint)] {
            if text.trim().is_empty() {
                out.push(Problem::new(name, said("nothing-entered"), said("practice-sentence-right")));
            }
        }
        out
    }
}

macro_rules! shipped {
    ($($name:literal),* $(,)?) => {
        [$(($name, include_bytes!(concat!("../../../data/practice/", $name, ".json")).as_slice())),*]
    };
}

/// The lessons that ship, in the order of the ladder.
///
/// # Errors
/// The first [`Problem`] of a file, with its name before the field.
pub fn shipped_scenarios() -> Result<Vec<Scenario>, Problem> {
    let files = shipped![
        "01-zero-on-this-floor",
        "02-let-it-settle",
        "03-both-sides-alike",
        "04-soft-tyre",
        "05-half-a-turn",
        "06-what-the-stamp-says",
        "07-straight-ahead",
        "08-string-and-tracks",
        "09-plates",
        "10-tabs",
        "11-twice-is-not-thrice",
        "12-the-bolt-that-lies",
        "13-the-other-hand",
        "14-seized",
        "15-it-settles-on",
        "16-bent",
        "17-gauge-and-floor",
        "18-three-at-once",
    ];
    let mut out = Vec::new();
    for (name, bytes) in files {
        let at = |p: Problem| Problem { field: format!("{name}.{}", p.field), ..p };
        let s: Scenario = parse_json(bytes).map_err(at)?;
        if let Some(p) = s.problems().into_iter().next() {
            return Err(at(p));
        }
        out.push(s);
    }
    Ok(out)
}
