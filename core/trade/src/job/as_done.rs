//! What was really done of orders, as it is typed beside the car, and the round of work it makes.

use crate::plan::{CountedIn, Order, SettingLine};
use crate::sheet::{AsTurned, CouldNot, Round};
use bold_stance_kinematics::geometry::Side;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Measure, Said, said};
use bold_stance_units::{LengthUnit, parse_angle_deg, parse_count, parse_length_mm};
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

/// What was really done of an order, as typed; an order that is not named was done as ordered.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AsDone {
    /// Side; none for what is one for both wheels.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub side: Option<Side>,
    /// What was turned.
    pub name: String,
    /// How far, counted as the order counts, the ordered way; the other way with a minus. Nothing where it could not be
    /// turned at all.
    #[serde(default)]
    pub amount: String,
    /// What a bare length of it means.
    #[serde(default = "mm")]
    pub unit: LengthUnit,
    /// Why it was not turned as ordered.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub could_not: Option<CouldNot>,
}

fn mm() -> LengthUnit {
    LengthUnit::Mm
}

/// What an order is counted in.
#[derive(Debug, Clone, Copy, PartialEq)]
enum Counted {
    /// Notches or positions, each so many degrees.
    Steps(f64),
    /// Turns of a thread.
    Turns,
    /// A length, mm.
    Length,
    /// Degrees.
    Degrees,
}

impl Counted {
    fn of(line: &SettingLine) -> Self {
        match CountedIn::of(line) {
            CountedIn::Notches => Self::Steps((line.movement / line.steps).abs()),
            CountedIn::Turns => Self::Turns,
            CountedIn::Length => Self::Length,
            CountedIn::Degrees => Self::Degrees,
        }
    }

    /// A typed amount, in positions of the adjuster.
    fn read(self, field: &str, text: &str, unit: LengthUnit) -> Result<f64, Problem> {
        match self {
            Self::Steps(each) => parse_count(field, text).map(|n| n * each),
            Self::Turns => parse_count(field, text),
            Self::Length => parse_length_mm(field, text, unit),
            Self::Degrees => parse_angle_deg(field, text),
        }
    }

    /// A position's worth as it is counted.
    fn count(self, positions: f64) -> Said {
        match self {
            Self::Steps(each) => said("as-done-count").plain("n", positions / each, 0),
            Self::Turns => said("as-done-count").plain("n", positions, 2),
            Self::Length => said("as-done-length").of("mm", Measure::Mm, positions, 1),
            Self::Degrees => said("as-done-degrees").plain("n", positions, 1),
        }
    }
}

/// Slack at an adjuster's end, in its own positions (degrees, turns, mm): what is typed is rounded.
const SLACK: f64 = 0.5;

/// Where an adjuster stands once an amount of an order was done.
fn position(line: &SettingLine, field: &str, d: &AsDone) -> Result<f64, Problem> {
    let counted = Counted::of(line);
    let way = line.movement.signum();
    let from = line.position - line.movement;
    let to = from + way * counted.read(field, d.amount.trim(), d.unit)?;
    let [low, high] = line.ends;
    if low < high && !(low - SLACK..=high + SLACK).contains(&to) {
        let (a, b) = (way * (low - from), way * (high - from));
        let right =
            said("as-done-between").say("low", counted.count(a.min(b))).say("high", counted.count(a.max(b)));
        return Err(Problem::new(field, said("as-done-past-end").name("text", d.amount.trim()), right));
    }
    Ok(to)
}

/// As typed, with the unit that a bare length had.
fn as_typed(line: &SettingLine, d: &AsDone) -> String {
    let text = d.amount.trim();
    let bare = !text.chars().any(|c| c.is_alphabetic() || c == '"' || c == '″' || c == '”');
    match (Counted::of(line), d.unit) {
        (Counted::Length, LengthUnit::Mm) if bare => format!("{text} mm"),
        (Counted::Length, LengthUnit::In) if bare => format!("{text} in"),
        _ => text.to_owned(),
    }
}

/// The orders that turn something as they were really done.
///
/// # Errors
/// A problem at `as_done.N.amount` for what is no count, at `as_done.N.name` for what was not ordered.
pub(super) fn round_of(
    orders: &[Order],
    as_done: &[AsDone],
    at: DateTime<Utc>,
    author: &str,
) -> Result<Round, Problem> {
    let ordered: Vec<&Order> = orders.iter().filter(|o| o.line.moves()).collect();
    let is = |o: &Order, d: &AsDone| o.side == d.side && o.line.name == d.name;
    for (k, d) in as_done.iter().enumerate() {
        if !ordered.iter().any(|o| is(o, d)) {
            let right: Vec<&str> = ordered.iter().map(|o| o.line.name.as_str()).collect();
            let wrong = said("as-done-not-ordered").name("name", d.name.clone());
            return Err(Problem::new(format!("as_done.{k}.name"), wrong, right.join(", ")));
        }
    }
    let mut turned = Vec::new();
    for o in ordered {
        let from = o.line.position - o.line.movement;
        let mut one = AsTurned {
            axle: o.axle,
            side: o.side,
            name: o.line.name.clone(),
            from,
            ordered: o.line.position,
            position: o.line.position,
            words: o.line.words.clone(),
            typed: None,
            could_not: None,
        };
        if let Some((k, d)) = as_done.iter().enumerate().find(|(_, d)| is(o, d)) {
            let text = d.amount.trim();
            one.could_not = d.could_not;
            one.position = match (text, d.could_not) {
                ("", Some(_)) => from,
                ("", None) => o.line.position,
                _ => position(&o.line, &format!("as_done.{k}.amount"), d)?,
            };
            let other = !text.is_empty() && (one.position - one.ordered).abs() > 1e-9;
            one.typed = other.then(|| as_typed(&o.line, d));
        }
        turned.push(one);
    }
    Ok(Round { at, author: author.to_owned(), turned })
}

#[cfg(test)]
mod tests {
    use super::*;

    fn line(amount: &'static str, movement: f64, steps: f64, ends: [f64; 2]) -> SettingLine {
        SettingLine {
            name: "it".into(),
            position: 1.0 + movement,
            movement,
            steps,
            movement_mm: 0.0,
            direction: "outboard".into(),
            amount: said(amount),
            way: said("way"),
            words: said("order"),
            ends,
            at_end: false,
            sets_toe: false,
            is_cam: false,
            notch_deg: None,
            shared: false,
            in_hand: None,
        }
    }

    fn typed(amount: &str, unit: LengthUnit) -> AsDone {
        AsDone { side: None, name: "it".into(), amount: amount.into(), unit, could_not: None }
    }

    #[test]
    fn an_amount_is_counted_as_its_order_counts_in_the_units_of_the_shop() {
        let at = |l: &SettingLine, t: &str, u| position(l, "f", &typed(t, u)).map(|p| p - 1.0);
        let (mm, inch) = (LengthUnit::Mm, LengthUnit::In);
        // Notches of 22.5 degrees, ordered inboard.
        let cam = line("amount-notches", -45.0, -2.0, [-90.0, 90.0]);
        assert_eq!(at(&cam, "3", mm).unwrap(), -67.5);
        assert_eq!(at(&cam, "-1", mm).unwrap(), 22.5);
        let thread = line("amount-turns", 1.75, 1.75, [-6.0, 6.0]);
        assert_eq!(at(&thread, "1 1/2", inch).unwrap(), 1.5);
        let plate = line("amount-mm", 4.0, 4.0, [-10.0, 10.0]);
        assert_eq!(at(&plate, "3", mm).unwrap(), 3.0);
        assert!((at(&plate, "1/8", inch).unwrap() - 3.175).abs() < 1e-9);
        assert!((at(&plate, "1/8 in", mm).unwrap() - 3.175).abs() < 1e-9);
        let slot = line("amount-degrees", -0.5, -0.5, [-2.0, 2.0]);
        assert!((at(&slot, "0°24'", mm).unwrap() + 0.4).abs() < 1e-9);
        assert_eq!(as_typed(&plate, &typed("1/8", inch)), "1/8 in");
        assert_eq!(as_typed(&plate, &typed("1/8\"", mm)), "1/8\"");
        assert_eq!(as_typed(&cam, &typed("3", mm)), "3");
    }

    #[test]
    fn what_is_past_the_end_is_refused_with_what_would_be_right() {
        let cam = line("amount-notches", -45.0, -2.0, [-90.0, 90.0]);
        let p = position(&cam, "as_done.0.amount", &typed("9", LengthUnit::Mm)).unwrap_err();
        assert_eq!((p.field.as_str(), p.wrong.id.as_ref()), ("as_done.0.amount", "as-done-past-end"));
        assert!(position(&cam, "f", &typed("300 mm", LengthUnit::Mm)).is_err());
        assert!(position(&cam, "f", &typed("4", LengthUnit::Mm)).is_ok());
    }
}
