//! The prepare list: what must hold before a number means anything. An unanswered item widens the doubt
//! instead of blocking.

use super::convert::DoubtPart;
use super::quantity::{Quantity, ReadAxle};
use bold_stance_units::problem::{Problem, parse_json};
use bold_stance_units::said::{Said, said};
use bold_stance_units::{LengthUnit, parse_angle_deg, parse_fuel_kg, parse_length_mm, parse_mass_kg};
use serde::{Deserialize, Serialize};
use std::collections::BTreeMap;

/// What an item is answered with.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PrepareKind {
    /// `yes` or `no`.
    YesNo,
    /// An angle, or a drop per run.
    Slope,
    /// A volume of fuel.
    Fuel,
    /// A mass.
    Mass,
}

/// What an item does to the doubt, standard deviations in mm or degrees (common practice, no source).
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct Widens {
    /// Camber, degrees.
    pub camber: f64,
    /// Caster, degrees.
    pub caster: f64,
    /// Toe of one wheel, degrees.
    pub toe: f64,
    /// Hub-to-arch height, mm.
    pub height: f64,
    /// Heights from the floor, mm.
    pub floor: f64,
}

/// One item of the list.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PrepareItem {
    /// Stable word.
    pub id: String,
    /// What is asked.
    pub ask: String,
    /// What it is answered with.
    pub kind: PrepareKind,
    /// What a right answer looks like.
    pub right: String,
    /// Why it matters.
    pub why: String,
    /// What can hurt someone here.
    #[serde(default)]
    pub caution: Option<String>,
    /// Whether an answer holds for the visits of a day: floor, load, tools; not what work on the car changes.
    #[serde(default)]
    pub holds_day: bool,
    /// `air`: only asked of a car with air levels.
    #[serde(default)]
    pub only: Option<String>,
    /// What not knowing it does.
    #[serde(default)]
    pub unanswered: Widens,
    /// What `no` does.
    #[serde(default)]
    pub no: Widens,
}

const SHIPPED: &str = include_str!("../../../../data/prepare.json");

/// The list of `data/prepare.json`.
///
/// # Errors
/// A [`Problem`] naming the path, when the shipped file is wrong.
pub fn shipped_prepare() -> Result<Vec<PrepareItem>, Problem> {
    parse_json(SHIPPED.as_bytes())
}

/// Answers as typed, by item id.
pub type Answers = BTreeMap<String, String>;

/// How long the answers of a visit hold for the next ones, seconds: a working day.
const DAY_S: i64 = 18 * 3600;

/// What holds at a visit: of earlier visits of the day (when each was opened, s, and what was answered), oldest first,
/// the items that hold for it; then the visit's own answers.
#[must_use]
pub fn answers_of_day<'a>(
    earlier: impl Iterator<Item = (i64, &'a Answers)>,
    own: &Answers,
    at: i64,
    items: &[PrepareItem],
) -> Answers {
    let holds = |id: &str| items.iter().any(|i| i.id == id && i.holds_day);
    let mut out = Answers::new();
    for (_, answers) in earlier.filter(|(opened, _)| (at - opened).abs() <= DAY_S) {
        out.extend(
            answers
                .iter()
                .filter(|(id, t)| holds(id) && !t.trim().is_empty())
                .map(|(i, t)| (i.clone(), t.clone())),
        );
    }
    out.extend(own.iter().filter(|(_, t)| !t.trim().is_empty()).map(|(i, t)| (i.clone(), t.clone())));
    out
}

/// Answers understood.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Prepared {
    numbers: BTreeMap<String, f64>,
    yes_no: BTreeMap<String, bool>,
}

/// A slope: an angle, or a drop `per` a run.
fn slope(field: &str, text: &str) -> Result<f64, Problem> {
    let t = text.to_lowercase();
    let Some((drop, run)) = t.split_once(" per ").or_else(|| t.split_once(" over ")) else {
        return parse_angle_deg(field, text);
    };
    let drop = parse_length_mm(field, drop, LengthUnit::Mm)?;
    let run = parse_length_mm(field, run, LengthUnit::Mm)?;
    if run <= 0.0 {
        return Err(Problem::new(field, said("run-of-nothing"), said("run-of-nothing-right")));
    }
    Ok((drop / run).atan().to_degrees())
}

impl Prepared {
    /// Understands answers; empty ones count as unanswered.
    ///
    /// # Errors
    /// Every [`Problem`], each at its item.
    pub fn of(answers: &Answers, items: &[PrepareItem]) -> Result<Self, Vec<Problem>> {
        let mut out = Self::default();
        let mut problems = Vec::new();
        for (id, text) in answers {
            let text = text.trim();
            let Some(item) = items.iter().find(|i| i.id == *id) else {
                let known: Vec<&str> = items.iter().map(|i| i.id.as_str()).collect();
                let shown: String = id.chars().take(40).collect();
                problems.push(Problem::new(shown, said("no-such-item"), Said::text(known.join(", "))));
                continue;
            };
            if text.is_empty() {
                continue;
            }
            let bounded = |v: Result<f64, Problem>, low: f64, high: f64| {
                v.and_then(|v| {
                    if (low..=high).contains(&v) {
                        Ok(v)
                    } else {
                        Err(Problem::new(id, said("out-of-reach").name("typed", text), item.right.as_str()))
                    }
                })
            };
            let number = match item.kind {
                PrepareKind::YesNo => {
                    match text {
                        "yes" => drop(out.yes_no.insert(id.clone(), true)),
                        "no" => drop(out.yes_no.insert(id.clone(), false)),
                        _ => problems.push(Problem::new(
                            id,
                            said("neither").name("typed", text),
                            said("yes-or-no"),
                        )),
                    }
                    continue;
                }
                PrepareKind::Slope => bounded(slope(id, text), -10.0, 10.0),
                PrepareKind::Fuel => bounded(parse_fuel_kg(id, text), 0.0, 600.0),
                PrepareKind::Mass => bounded(parse_mass_kg(id, text), 0.0, 5000.0),
            };
            match number {
                Ok(v) => drop(out.numbers.insert(id.clone(), v)),
                Err(p) => problems.push(Problem { right: item.right.as_str().into(), ..p }),
            }
        }
        if problems.is_empty() { Ok(out) } else { Err(problems) }
    }

    /// A number that was answered: degrees or kg.
    #[must_use]
    pub fn number(&self, id: &str) -> Option<f64> {
        self.numbers.get(id).copied()
    }

    /// A yes or no that was answered.
    #[must_use]
    pub fn yes_no(&self, id: &str) -> Option<bool> {
        self.yes_no.get(id).copied()
    }

    /// Whether an item was answered.
    #[must_use]
    pub fn answered(&self, id: &str) -> bool {
        self.numbers.contains_key(id) || self.yes_no.contains_key(id)
    }

    /// Slope of the floor under an axle, degrees, falls to the left positive.
    #[must_use]
    pub fn floor(&self, axle: ReadAxle) -> Option<f64> {
        match axle {
            ReadAxle::Front => self.number("floor_front"),
            ReadAxle::Rear => self.number("floor_rear"),
            ReadAxle::Both => None,
        }
    }

    /// What the list adds to the doubt of a quantity on an axle. `zeroed` says that the floor does not count.
    #[must_use]
    pub fn widens(
        &self,
        items: &[PrepareItem],
        quantity: Quantity,
        axle: ReadAxle,
        zeroed: bool,
        air: bool,
    ) -> Vec<DoubtPart> {
        items
            .iter()
            .filter(|i| i.only.is_none() || air)
            .filter(|i| match i.id.as_str() {
                "floor_front" => axle == ReadAxle::Front && !zeroed,
                "floor_rear" => axle == ReadAxle::Rear && !zeroed,
                // Rear wheels do not hang on the steering.
                "steering" | "rocked" => axle != ReadAxle::Rear,
                _ => true,
            })
            .filter_map(|i| {
                let (w, name) = match self.yes_no(&i.id) {
                    Some(true) => return None,
                    Some(false) => (i.no, said("doubt-answered-no")),
                    None if self.answered(&i.id) => return None,
                    None => (i.unanswered, said("doubt-not-answered")),
                };
                // The steering wheel shifts toe from side to side; the total stays.
                let sigma = match quantity {
                    Quantity::Camber => w.camber,
                    Quantity::Caster => w.caster,
                    Quantity::Toe => w.toe,
                    Quantity::TotalToe if i.id == "steering" => 0.0,
                    Quantity::TotalToe => w.toe * std::f64::consts::SQRT_2,
                    Quantity::Height => w.height,
                    Quantity::FloorToArch | Quantity::FloorToFrame => w.height.hypot(w.floor),
                    _ => 0.0,
                };
                (sigma > 0.0).then(|| DoubtPart { name: name.name("ask", i.ask.as_str()), sigma })
            })
            .collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn answers_of_the_day_hold_for_the_day_and_what_work_changes_does_not() {
        let items = shipped_prepare().unwrap();
        let a = |pairs: &[(&str, &str)]| -> Answers {
            pairs.iter().map(|(k, v)| ((*k).to_owned(), (*v).to_owned())).collect()
        };
        let first = a(&[("floor_front", "0.6"), ("settled", "yes"), ("steering", "yes"), ("fuel", "20 l")]);
        let own = a(&[("fuel", "0"), ("plates", "")]);
        let now = 100_000;
        let got = answers_of_day([(now - 7200, &first)].into_iter(), &own, now, &items);
        assert_eq!(got, a(&[("floor_front", "0.6"), ("fuel", "0")]));
        // The next week it is asked again.
        let late = answers_of_day([(now - 7200, &first)].into_iter(), &own, now + 7 * 86_400, &items);
        assert_eq!(late, a(&[("fuel", "0")]));
    }

    fn answers(list: &[(&str, &str)]) -> Answers {
        list.iter().map(|(k, v)| ((*k).to_owned(), (*v).to_owned())).collect()
    }

    fn prepared(list: &[(&str, &str)]) -> Prepared {
        Prepared::of(&answers(list), &shipped_prepare().unwrap()).unwrap()
    }

    #[test]
    fn slopes_masses_and_fuel_are_understood_as_told() {
        let p = prepared(&[
            ("floor_front", "1/8 in per 12 in"),
            ("fuel", "5 gal"),
            ("seats", "180 lb"),
            ("cargo", " "),
        ]);
        // Common practice: 1/8 in per foot is about 0.6°; 6 lb a gallon.
        assert!((p.floor(ReadAxle::Front).unwrap() - 0.597).abs() < 1e-3);
        assert!((p.number("fuel").unwrap() - 13.608).abs() < 1e-3);
        assert!((p.number("seats").unwrap() - 81.647).abs() < 1e-3);
        assert!(!p.answered("cargo"));
    }

    #[test]
    fn bad_answers_are_named_at_their_item() {
        let items = shipped_prepare().unwrap();
        let bad = answers(&[
            ("floor_front", "steep"),
            ("plates", "maybe"),
            ("fuel", "-3 l"),
            ("moon", "full"),
            ("floor_rear", "40"),
        ]);
        let mut fields: Vec<String> =
            Prepared::of(&bad, &items).unwrap_err().into_iter().map(|p| p.field).collect();
        fields.sort();
        assert_eq!(fields, ["floor_front", "floor_rear", "fuel", "moon", "plates"]);
    }

    #[test]
    fn every_unanswered_item_widens_something_and_yes_closes_it() {
        let items = shipped_prepare().unwrap();
        let nothing = Prepared::default();
        let every =
            [Quantity::Camber, Quantity::Caster, Quantity::Toe, Quantity::Height, Quantity::FloorToArch];
        // Equal marks are no state of the floor or the car: they only let the rules compare both sides.
        for i in items.iter().filter(|i| i.id != "marks") {
            let word = said("doubt-not-answered").name("ask", i.ask.as_str());
            let hit = [ReadAxle::Front, ReadAxle::Rear].iter().any(|a| {
                every
                    .iter()
                    .any(|q| nothing.widens(&items, *q, *a, false, true).iter().any(|d| d.name == word))
            });
            assert!(hit, "{} widens nothing", i.id);
        }
        let total = |p: &Prepared, zeroed| {
            super::super::convert::together(&p.widens(
                &items,
                Quantity::Camber,
                ReadAxle::Front,
                zeroed,
                false,
            ))
        };
        let yes: Vec<(&str, &str)> = items
            .iter()
            .map(|i| (i.id.as_str(), if i.kind == PrepareKind::YesNo { "yes" } else { "0" }))
            .collect();
        assert_eq!(total(&prepared(&yes), false), 0.0);
        assert!(total(&nothing, false) > total(&nothing, true), "zeroing takes the floor out");
        assert!(total(&prepared(&[("settled", "no")]), false) > total(&nothing, false));
        assert!(
            nothing.widens(&items, Quantity::Camber, ReadAxle::Front, false, true).len()
                > nothing.widens(&items, Quantity::Camber, ReadAxle::Front, false, false).len(),
            "air is asked of air"
        );
    }

    #[test]
    fn a_turned_steering_wheel_leaves_the_total_alone() {
        let items = shipped_prepare().unwrap();
        let p = prepared(&[("plates", "yes"), ("settled", "yes"), ("steering", "no")]);
        assert!(p.widens(&items, Quantity::TotalToe, ReadAxle::Front, false, false).is_empty());
        assert!(!p.widens(&items, Quantity::Toe, ReadAxle::Front, false, false).is_empty());
        // Nor does it move a rear wheel, answered or not.
        assert!(p.widens(&items, Quantity::Toe, ReadAxle::Rear, false, false).is_empty());
    }
}
