//! From what is seen and felt to ranked causes, by the rules of `data/diagnosis.json`.
//!
//! A cause's score is its prior plus what each answer adds, like the logarithm of odds; shares are those odds over
//! all causes. The weights are judgement, so the share only orders and separates.

use bold_stance_units::problem::{Problem, in_range, parse_json};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// Every answer a rule does not name.
const OTHER: &str = "*";
/// A cause this far behind the first, in share, is not worth naming.
const WORTH_NAMING: f64 = 0.01;
/// Grooves this far apart are a pattern and not the gauge's scatter, mm (a depth gauge holds 0.25 mm; common practice,
/// no source).
const APART_MM: f64 = 0.8;

/// An answer to choose.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Answer {
    /// Id.
    pub id: String,
    /// What the screen says.
    pub label: String,
}

/// A question about what is seen or felt.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Question {
    /// Id.
    pub id: String,
    /// What the screen asks.
    pub ask: String,
    /// What its answers speak of, before an answer that does not say so itself; may be empty.
    #[serde(default)]
    pub about: String,
    /// Answers to choose from.
    pub answers: Vec<Answer>,
}

/// A cause and its rules.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Cause {
    /// Id.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Which path of work it belongs to: `alignment`, `pressure`, `tyre`, `use`, `repair`, `balance`, `brake`.
    pub path: String,
    /// How it wears the tyre.
    pub why: String,
    /// The reading that separates it from the others.
    pub separates: String,
    /// What to do then.
    pub then: String,
    /// The tyres have to be replaced before anything is set.
    pub replace_first: bool,
    /// What can hurt, if anything.
    pub caution: String,
    /// Weight before any answer.
    pub prior: f64,
    /// What each answer adds, by question and answer; `*` for answers not named.
    pub evidence: BTreeMap<String, BTreeMap<String, f64>>,
}

/// The whole file.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct DiagnosisData {
    /// Where the rules come from.
    pub about: String,
    /// Questions, in the order they are asked.
    pub questions: Vec<Question>,
    /// Causes.
    pub causes: Vec<Cause>,
}

/// What was seen: answers by question.
pub type Seen = BTreeMap<String, String>;

/// One answer's say in a cause.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Finding {
    /// Question.
    pub question: String,
    /// The answer as the screen says it.
    pub label: String,
    /// What it adds; negative speaks against.
    pub weight: f64,
}

/// A cause, ranked.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Ranked {
    /// Id of the cause.
    pub id: String,
    /// What it is called.
    pub name: String,
    /// Path of work.
    pub path: String,
    /// How it wears the tyre.
    pub why: String,
    /// The reading that separates it.
    pub separates: String,
    /// What to do then.
    pub then: String,
    /// Replace the tyres first.
    pub replace_first: bool,
    /// What can hurt.
    pub caution: String,
    /// Share of the odds, 0 to 1.
    pub share: f64,
    /// What speaks for it.
    pub speaks_for: Vec<Finding>,
    /// What speaks against it.
    pub speaks_against: Vec<Finding>,
}

/// What comes of it.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Diagnosis {
    /// Causes, likeliest first.
    pub causes: Vec<Ranked>,
    /// One line.
    pub headline: Said,
    /// The question whose answer would separate the first two best; none when it is plain.
    pub ask_next: Option<String>,
    /// The pattern that measured depths show, taken as seen where none was pressed.
    pub measured_pattern: Option<String>,
    /// Stop: do not drive on it.
    pub stop: Option<Said>,
    /// Replace tyres before aligning, and why.
    pub replace: Option<Said>,
}

/// The shipped rules.
///
/// # Errors
/// A [`Problem`] naming the cause and answer that does not exist.
pub fn shipped_diagnosis() -> Result<DiagnosisData, Problem> {
    let d: DiagnosisData = parse_json(include_bytes!("../../../data/diagnosis.json"))?;
    d.check()?;
    Ok(d)
}

impl DiagnosisData {
    fn question(&self, id: &str) -> Option<&Question> {
        self.questions.iter().find(|q| q.id == id)
    }

    fn check(&self) -> Result<(), Problem> {
        for c in &self.causes {
            for (q, answers) in &c.evidence {
                let at = format!("causes.{}.evidence.{q}", c.id);
                let question = self
                    .question(q)
                    .ok_or_else(|| Problem::new(&at, said("fault-no-question"), said("fault-id-question")))?;
                for (a, w) in answers {
                    let known = a == OTHER || question.answers.iter().any(|x| x.id == *a);
                    if !known {
                        return Err(Problem::new(
                            format!("{at}.{a}"),
                            said("fault-no-answer"),
                            said("fault-answer-question"),
                        ));
                    }
                    if !w.is_finite() || w.abs() > 10.0 {
                        return Err(Problem::new(
                            format!("{at}.{a}"),
                            said("fault-bare").name("value", w.to_string()),
                            said("fault-weight-from-10-10"),
                        ));
                    }
                }
            }
        }
        Ok(())
    }
}

impl Cause {
    fn weight(&self, question: &str, answer: &str) -> f64 {
        self.evidence
            .get(question)
            .map_or(0.0, |a| a.get(answer).or_else(|| a.get(OTHER)).copied().unwrap_or(0.0))
    }
}

/// The pattern that depths of the inner, centre and outer groove show, mm; none when they are alike.
#[must_use]
pub fn pattern_of_depths([inner, centre, outer]: [f64; 3]) -> Option<&'static str> {
    let less = |a: f64, b: f64| b - a >= APART_MM;
    if less(inner, centre) && less(outer, centre) {
        Some("both_edges")
    } else if less(centre, inner) && less(centre, outer) {
        Some("centre")
    } else if less(inner, outer) && inner < centre {
        Some("inner_edge")
    } else if less(outer, inner) && outer < centre {
        Some("outer_edge")
    } else {
        None
    }
}

/// Ranks the causes by what was seen and, where no pattern was pressed, by depths of the inner, centre and outer
/// groove, mm.
///
/// # Errors
/// Every [`Problem`] of the answers, by field under `seen`, and of the depths under `depths_mm`.
pub fn diagnose(
    data: &DiagnosisData,
    seen: &Seen,
    depths_mm: Option<[f64; 3]>,
) -> Result<Diagnosis, Vec<Problem>> {
    let mut problems = Vec::new();
    for (i, d) in depths_mm.iter().flatten().enumerate() {
        problems.extend(in_range(&format!("depths_mm.{i}"), *d, 0.0, 30.0, "mm").err());
    }
    for (q, a) in seen {
        match data.question(q) {
            None => problems.push(Problem::new(
                format!("seen.{q}"),
                said("fault-no-question"),
                said("fault-one-questions-listed"),
            )),
            Some(x) if !x.answers.iter().any(|y| y.id == *a) => {
                let right = x.answers.iter().map(|y| y.id.as_str()).collect::<Vec<_>>().join(", ");
                problems.push(Problem::new(
                    format!("seen.{q}"),
                    said("fault-no-answer-word").name("word", a.clone()),
                    right,
                ));
            }
            Some(_) => {}
        }
    }
    if !problems.is_empty() {
        return Err(problems);
    }
    let measured_pattern = depths_mm.and_then(pattern_of_depths);
    let with_depths: Seen;
    let seen = match measured_pattern {
        Some(p) if !seen.contains_key("pattern") => {
            with_depths = seen
                .iter()
                .map(|(q, a)| (q.clone(), a.clone()))
                .chain([("pattern".into(), p.into())])
                .collect();
            &with_depths
        }
        _ => seen,
    };
    let stop = (seen.get("cords").is_some_and(|a| a == "yes")).then(|| said("diagnosis-stop"));
    let score = |c: &Cause, seen: &Seen| c.prior + seen.iter().map(|(q, a)| c.weight(q, a)).sum::<f64>();
    let most = data.causes.iter().map(|c| score(c, seen)).fold(f64::NEG_INFINITY, f64::max);
    let total: f64 = data.causes.iter().map(|c| (score(c, seen) - most).exp()).sum();
    let label = |q: &str, a: &str| {
        data.question(q)
            .and_then(|x| x.answers.iter().find(|y| y.id == a).map(|y| (x, y)))
            .map_or_else(|| a.to_owned(), |(x, y)| format!("{} {}", x.about, y.label).trim().to_owned())
    };
    let mut causes: Vec<Ranked> = data
        .causes
        .iter()
        .map(|c| {
            let mut findings: Vec<Finding> = seen
                .iter()
                .map(|(q, a)| Finding { question: q.clone(), label: label(q, a), weight: c.weight(q, a) })
                .filter(|f| f.weight.abs() > 0.05)
                .collect();
            findings.sort_by(|a, b| b.weight.abs().total_cmp(&a.weight.abs()));
            let (speaks_for, speaks_against) = findings.into_iter().partition(|f| f.weight > 0.0);
            Ranked {
                id: c.id.clone(),
                name: c.name.clone(),
                path: c.path.clone(),
                why: c.why.clone(),
                separates: c.separates.clone(),
                then: c.then.clone(),
                replace_first: c.replace_first,
                caution: c.caution.clone(),
                share: (score(c, seen) - most).exp() / total,
                speaks_for,
                speaks_against,
            }
        })
        .collect();
    causes.sort_by(|a, b| b.share.total_cmp(&a.share).then(a.id.cmp(&b.id)));
    // The open question on whose answers the first two differ most.
    let ask_next = match causes.as_slice() {
        [a, b, ..] if a.share < 0.8 => {
            let by = |id: &str| data.causes.iter().find(|c| c.id == *id);
            by(&a.id).zip(by(&b.id)).and_then(|(x, y)| {
                let apart = |q: &Question| {
                    q.answers
                        .iter()
                        .map(|n| (x.weight(&q.id, &n.id) - y.weight(&q.id, &n.id)).abs())
                        .fold(0.0, f64::max)
                };
                data.questions
                    .iter()
                    .filter(|q| !seen.contains_key(&q.id) && apart(q) > 0.5)
                    .max_by(|p, q| apart(p).total_cmp(&apart(q)))
                    .map(|q| q.id.clone())
            })
        }
        _ => None,
    };
    let headline = if stop.is_some() {
        said("diagnosis-stop-headline")
    } else if seen.is_empty() {
        said("diagnosis-start")
    } else {
        match causes.as_slice() {
            [a, ..] if a.share >= 0.6 => Said::text(a.name.clone()),
            [a, b, ..] => said("diagnosis-two").name("first", a.name.clone()).name("second", low(&b.name)),
            _ => said("diagnosis-none"),
        }
    };
    let replace = causes
        .first()
        .filter(|c| c.replace_first && c.share >= 0.4 && !seen.is_empty())
        .map(|c| said("diagnosis-replace").name("cause", c.name.clone()).name("then", c.then.clone()));
    causes.retain(|c| c.share >= WORTH_NAMING);
    let measured_pattern = measured_pattern.map(str::to_owned);
    Ok(Diagnosis { causes, headline, ask_next, measured_pattern, stop, replace })
}

/// First letter small, unless it is one word of capitals.
fn low(s: &str) -> String {
    let mut c = s.chars();
    c.next().map_or_else(String::new, |f| f.to_lowercase().collect::<String>() + c.as_str())
}
