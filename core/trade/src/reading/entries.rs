//! What was typed, as typed; repeats, their mean and their spread.

use super::method::{EntryInfo, EntryKind, MethodInfo};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use bold_stance_units::{LengthUnit, MM_PER_INCH, parse_angle_deg, parse_length_mm, parse_pressure_kpa};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// One thing as typed. The same name again is a repeat; a name ending in [`HALF_TURN`] was read with the
/// wheel half a turn on.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct RawEntry {
    /// What it is, e.g. `top-gap`.
    pub name: String,
    /// As typed.
    pub text: String,
    /// Put aside by the reader: kept on record, left out of the mean.
    #[serde(default)]
    pub dropped: bool,
}

impl RawEntry {
    /// An entry that counts.
    #[must_use]
    pub fn new(name: &str, text: &str) -> Self {
        Self { name: name.into(), text: text.into(), dropped: false }
    }
}

/// Ending of the names of entries read half a turn on.
pub const HALF_TURN: &str = "@half-turn";
/// Most entries of a reading.
pub const MOST_ENTRIES: usize = 60;
/// Most characters of one entry.
pub const LONGEST_ENTRY: usize = 64;

/// A number with its doubt, from one or more repeats.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Num {
    /// Mean, in mm, degrees, inches (stamped sizes) or kPa.
    pub value: f64,
    /// Standard deviation of the mean.
    pub sigma: f64,
}

/// How the repeats of one entry lie.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Repeats {
    /// Entry name.
    pub name: String,
    /// Every value in the order typed; dropped ones too.
    pub values: Vec<f64>,
    /// Which of them count.
    pub counts: Vec<bool>,
    /// Mean of those that count.
    pub mean: f64,
    /// Largest minus smallest of those that count.
    pub spread: f64,
    /// Position of one that stands apart from the others.
    pub odd: Option<usize>,
    /// How far it stands from the mean of the others.
    pub odd_by: f64,
}

/// Numbers and words of one method.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Given {
    nums: BTreeMap<String, Num>,
    words: BTreeMap<String, String>,
}

impl Given {
    /// A number that must be there.
    ///
    /// # Errors
    /// A [`Problem`] at the name.
    pub fn num(&self, name: &str) -> Result<f64, Problem> {
        self.opt(name)
            .ok_or_else(|| Problem::new(name, said("nothing-entered"), said("fault-number-its-unit")))
    }

    /// A number that may be there.
    #[must_use]
    pub fn opt(&self, name: &str) -> Option<f64> {
        self.nums.get(name).map(|n| n.value)
    }

    /// A choice, when it was made.
    #[must_use]
    pub fn word(&self, name: &str) -> Option<&str> {
        self.words.get(name).map(String::as_str)
    }

    /// Puts a number in.
    pub fn put(&mut self, name: &str, value: f64, sigma: f64) {
        self.nums.insert(name.to_owned(), Num { value, sigma });
    }

    /// Puts a choice in.
    pub fn say(&mut self, name: &str, word: &str) {
        self.words.insert(name.to_owned(), word.to_owned());
    }

    /// Takes a number out.
    #[must_use]
    pub fn without(&self, name: &str) -> Self {
        let mut g = self.clone();
        g.nums.remove(name);
        g
    }

    /// The same with one number moved, for rates and trials.
    #[must_use]
    pub fn moved(&self, name: &str, by: f64) -> Self {
        let mut g = self.clone();
        if let Some(n) = g.nums.get_mut(name) {
            n.value += by;
        }
        g
    }

    /// Every number with its name.
    pub fn numbers(&self) -> impl Iterator<Item = (&str, Num)> {
        self.nums.iter().map(|(k, n)| (k.as_str(), *n))
    }
}

/// One text as a number of the entry's kind; a toe length is divided later, so its kind is told.
fn number(e: &EntryInfo, text: &str, unit: LengthUnit) -> Result<(f64, bool), Problem> {
    let field = e.name.as_str();
    let v = match e.kind {
        EntryKind::Length => parse_length_mm(field, text, unit)?,
        EntryKind::Angle => parse_angle_deg(field, text)?,
        EntryKind::Pressure => parse_pressure_kpa(field, text)?,
        EntryKind::Nominal => parse_length_mm(field, text, LengthUnit::In)? / MM_PER_INCH,
        EntryKind::Toe => {
            return match parse_angle_deg(field, text) {
                Ok(v) => Ok((v, false)),
                Err(_) => Ok((parse_length_mm(field, text, unit)?, true)),
            };
        }
        EntryKind::Choice => 0.0,
    };
    Ok((v, false))
}

/// Decimals a number was typed with, up to three.
fn decimals(v: f64) -> u8 {
    (0u8..3).find(|d| (v * 10f64.powi(i32::from(*d))).fract().abs() < 1e-9).unwrap_or(3)
}

/// What a value outside the range most likely is.
fn range(e: &EntryInfo, v: f64, unit: LengthUnit) -> Result<(), Problem> {
    let shown = match e.kind {
        EntryKind::Length => "mm",
        EntryKind::Pressure => "kPa",
        EntryKind::Nominal => "in",
        _ => "°",
    };
    in_range(&e.name, v, e.low, e.high, shown).map_err(|mut p| {
        if e.kind == EntryKind::Length && unit == LengthUnit::Mm {
            let inches = v * MM_PER_INCH;
            if v > 0.0 && inches >= e.low && inches <= e.high {
                p.right = said("inch-as-mm").plain("inches", v, decimals(v)).say("else", p.right);
            }
        }
        if e.kind == EntryKind::Angle && (e.low * 60.0..=e.high * 60.0).contains(&v) {
            p.right = said("minutes-written").say("range", p.right).plain("minutes", v.abs(), decimals(v));
        }
        p
    })
}

/// Reads every entry of a method; half-turn entries into the second.
///
/// # Errors
/// Every [`Problem`], each at its entry's name.
pub fn parse_entries(
    method: &MethodInfo,
    raw: &[RawEntry],
    unit: LengthUnit,
) -> Result<(Given, Option<Given>, Vec<Repeats>), Vec<Problem>> {
    if raw.len() > MOST_ENTRIES || raw.iter().any(|r| r.text.chars().count() > LONGEST_ENTRY) {
        let right = said("fault-entries-most").count("n", MOST_ENTRIES).count("long", LONGEST_ENTRY);
        return Err(vec![Problem::new("entries", said("fault-more-than-reading"), right)]);
    }
    let mut problems = Vec::new();
    for r in raw {
        let base = r.name.strip_suffix(HALF_TURN);
        let known = method.entries.iter().any(|e| e.name == base.unwrap_or(&r.name));
        if !known || (base.is_some() && !method.half_turn) {
            let names: Vec<&str> = method.entries.iter().map(|e| e.name.as_str()).collect();
            problems.push(Problem::new(
                r.name.chars().take(40).collect::<String>(),
                said("fault-no-such-entry").name("method", method.id.word()),
                names.join(", "),
            ));
        }
    }
    let (mut given, mut turned) = (Given::default(), Given::default());
    let mut repeats = Vec::new();
    for e in &method.entries {
        for half in [false, true] {
            let name = if half { format!("{}{HALF_TURN}", e.name) } else { e.name.clone() };
            let typed: Vec<&RawEntry> =
                raw.iter().filter(|r| r.name == name && !r.text.trim().is_empty()).collect();
            let target = if half { &mut turned } else { &mut given };
            match one(e, &name, &typed, unit, target) {
                Ok(r) => repeats.extend(r),
                Err(p) => problems.extend(p),
            }
        }
    }
    // What was not read again half a turn on holds for both.
    let half = (turned != Given::default()).then(|| {
        let mut both = given.clone();
        both.nums.extend(turned.nums);
        both
    });
    if problems.is_empty() { Ok((given, half, repeats)) } else { Err(problems) }
}

fn one(
    e: &EntryInfo,
    name: &str,
    typed: &[&RawEntry],
    unit: LengthUnit,
    into: &mut Given,
) -> Result<Option<Repeats>, Vec<Problem>> {
    let at = |mut p: Problem| {
        name.clone_into(&mut p.field);
        p
    };
    if e.kind == EntryKind::Choice {
        let Some(last) = typed.iter().rev().find(|t| !t.dropped) else { return Ok(None) };
        let word = last.text.trim();
        if !e.choices.iter().any(|c| c == word) {
            return Err(vec![Problem::new(
                name,
                said("fault-no-choice").name("word", word),
                e.choices.join(", "),
            )]);
        }
        into.say(&e.name, word);
        return Ok(None);
    }
    if typed.is_empty() {
        return Ok(None);
    }
    let mut values = Vec::new();
    let mut problems = Vec::new();
    let mut lengths = Vec::new();
    for t in typed {
        match number(e, &t.text, unit).and_then(|(v, len)| {
            if !len {
                range(e, v, unit)?;
            }
            Ok((v, len))
        }) {
            Ok((v, len)) => {
                values.push(v);
                lengths.push(len);
            }
            Err(p) => problems.push(at(p)),
        }
    }
    if lengths.iter().any(|l| *l != lengths[0]) {
        problems.push(Problem::new(
            name,
            said("fault-angles-lengths-mixed"),
            said("fault-all-repeats-one-kind"),
        ));
    }
    if !problems.is_empty() {
        return Err(problems);
    }
    let counts: Vec<bool> = typed.iter().map(|t| !t.dropped).collect();
    let kept: Vec<f64> = values.iter().zip(&counts).filter(|(_, k)| **k).map(|(v, _)| *v).collect();
    if kept.is_empty() {
        return Err(vec![Problem::new(
            name,
            said("fault-every-repeat-was-dropped"),
            said("fault-at-least-one-counts"),
        )]);
    }
    let n = kept.len() as f64;
    let mean = kept.iter().sum::<f64>() / n;
    let sd = if kept.len() > 1 {
        (kept.iter().map(|v| (v - mean).powi(2)).sum::<f64>() / (n - 1.0)).sqrt()
    } else {
        0.0
    };
    let spread = kept.iter().fold(f64::MIN, |a, v| a.max(*v)) - kept.iter().fold(f64::MAX, |a, v| a.min(*v));
    let is_length = lengths[0];
    // Half a millimetre of tape on one wheel's circle (common practice, no source).
    let single = if is_length { 0.8 } else { e.sigma };
    let sigma = single.max(sd) / n.sqrt();
    into.put(if is_length { "value-mm" } else { &e.name }, mean, sigma);
    let (odd, odd_by) = stands_apart(&values, &counts, single);
    Ok(Some(Repeats { name: name.to_owned(), values, counts, mean, spread, odd, odd_by }))
}

/// The repeat furthest from the mean of the others, when it is more than four times as far as one reading
/// holds (a third reading is needed to tell which of two is wrong).
fn stands_apart(values: &[f64], counts: &[bool], single: f64) -> (Option<usize>, f64) {
    let kept: Vec<usize> = (0..values.len()).filter(|i| counts[*i]).collect();
    if kept.len() < 3 {
        return (None, 0.0);
    }
    let from_others = |i: usize| {
        let others: Vec<f64> = kept.iter().filter(|k| **k != i).map(|k| values[*k]).collect();
        values[i] - others.iter().sum::<f64>() / others.len() as f64
    };
    let worst = kept.iter().copied().max_by(|a, b| from_others(*a).abs().total_cmp(&from_others(*b).abs()));
    match worst {
        Some(i) if from_others(i).abs() > 4.0 * single.max(1e-9) => (Some(i), from_others(i)),
        _ => (None, 0.0),
    }
}
