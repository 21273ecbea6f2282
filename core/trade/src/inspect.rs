//! What was looked at before any reading (`data/inspect.json`): worn, bent, broken. An answer widens the doubt of what it
//! touches, says what comes first, and may stop the plan.

use bold_stance_car::fit::Sigmas;
use bold_stance_car::vehicle::{Axles, Inspected};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_units::problem::{Problem, parse_json};
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};
use std::sync::OnceLock;

/// What an item is answered of.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum InspectEach {
    /// Of each wheel.
    Wheel,
    /// Of each axle.
    Axle,
}

/// What an answer adds to the doubt of an angle read over it, standard deviations, degrees (judgement, no source).
#[derive(Debug, Clone, Copy, PartialEq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(default, deny_unknown_fields)]
pub struct InspectWiden {
    /// Camber.
    pub camber: f64,
    /// Caster.
    pub caster: f64,
    /// Toe of one wheel.
    pub toe: f64,
}

/// An answer and what it does.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct InspectAnswer {
    /// Id.
    pub id: String,
    /// What the screen says.
    pub label: String,
    /// What it adds to the doubt.
    #[serde(default)]
    pub widen: InspectWiden,
    /// Nothing is planned over it.
    #[serde(default)]
    pub stops: bool,
    /// What comes first because of it; empty when it is all right.
    #[serde(default)]
    pub first: String,
}

/// One thing to look at.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct InspectItem {
    /// Id.
    pub id: String,
    /// Of each wheel or each axle.
    pub each: InspectEach,
    /// What is looked at.
    pub ask: String,
    /// Answers, the good one first.
    pub answers: Vec<InspectAnswer>,
}

/// The list.
///
/// # Errors
/// A [`Problem`] of a damaged file.
pub fn shipped_inspection() -> Result<Vec<InspectItem>, Problem> {
    parse_json(include_bytes!("../../../data/inspect.json"))
}

/// The list, read once; an empty one when the file is damaged, which a test of it would show.
fn list() -> &'static [InspectItem] {
    static LIST: OnceLock<Vec<InspectItem>> = OnceLock::new();
    LIST.get_or_init(|| shipped_inspection().unwrap_or_default())
}

/// Something that was found and comes first.
#[derive(Debug, Clone, PartialEq)]
pub struct FoundFirst {
    /// On which axle.
    pub axle: Axle,
    /// On which side; none where it is of both.
    pub side: Option<Side>,
    /// Whether nothing is planned over it.
    pub stops: bool,
    /// What is to be done.
    pub first: String,
    /// What was looked at.
    pub looked_at: String,
    /// What was found of it.
    pub found: String,
}

impl FoundFirst {
    /// Where it is and what was found, short.
    #[must_use]
    pub fn named(&self) -> Said {
        let what = |id| {
            said(id)
                .word("axle", self.axle.word())
                .name("item", self.looked_at.clone())
                .name("found", self.found.clone())
        };
        match self.side {
            Some(s) => what("named-at-wheel").word("side", s.word()),
            None => what("named-at-axle"),
        }
    }

    /// With its place before it.
    #[must_use]
    pub fn says(&self) -> Said {
        let what = |id| said(id).word("axle", self.axle.word()).name("what", self.first.clone());
        match self.side {
            Some(s) => what("found-at-wheel").word("side", s.word()),
            None => what("found-at-axle"),
        }
    }
}

fn answered(i: &Inspected) -> Option<&'static InspectAnswer> {
    list().iter().find(|x| x.id == i.item)?.answers.iter().find(|a| a.id == i.answer)
}

/// Everything found that comes first, what stops the plan before the rest.
#[must_use]
pub fn found_first(inspected: &Axles<Vec<Inspected>>) -> Vec<FoundFirst> {
    let mut out: Vec<FoundFirst> = inspected
        .each()
        .into_iter()
        .flat_map(|(axle, list)| list.iter().map(move |i| (axle, i)))
        .filter_map(|(axle, i)| {
            let a = answered(i)?;
            let item = list().iter().find(|x| x.id == i.item)?;
            let found = FoundFirst {
                axle,
                side: i.side,
                stops: a.stops,
                first: a.first.clone(),
                looked_at: item.ask.clone(),
                found: a.label.clone(),
            };
            (!a.first.is_empty()).then_some(found)
        })
        .collect();
    out.sort_by_key(|f| !f.stops);
    out
}

/// Everything found that comes first, with its place, in words.
#[must_use]
pub fn comes_first(inspected: &Axles<Vec<Inspected>>) -> Vec<Said> {
    found_first(inspected).iter().map(FoundFirst::says).collect()
}

/// What was found at a wheel adds to the doubt of what was read there.
#[must_use]
pub fn widened(sigma: Sigmas, inspected: &[Inspected], side: Side) -> Sigmas {
    let at = inspected.iter().filter(|i| i.side.is_none_or(|s| s == side)).filter_map(answered);
    at.fold(sigma, |s, a| Sigmas {
        camber_deg: s.camber_deg.hypot(a.widen.camber),
        caster_deg: if s.caster_deg > 0.0 { s.caster_deg.hypot(a.widen.caster) } else { 0.0 },
        toe_deg: s.toe_deg.hypot(a.widen.toe),
    })
}

/// What is wrong with answers, by field under `at`.
#[must_use]
pub fn inspected_problems(at: &str, inspected: &[Inspected]) -> Vec<Problem> {
    let one = |(n, i): (usize, &Inspected)| {
        let field = |f: &str| format!("{at}{n}.{f}");
        let Some(item) = list().iter().find(|x| x.id == i.item) else {
            let ids: Vec<&str> = list().iter().map(|x| x.id.as_str()).collect();
            return Some(Problem::new(field("item"), said("fault-no-such-item"), ids.join(", ")));
        };
        if !item.answers.iter().any(|a| a.id == i.answer) {
            let ids: Vec<&str> = item.answers.iter().map(|x| x.id.as_str()).collect();
            return Some(Problem::new(
                field("answer"),
                said("fault-no-answer-word").name("word", i.answer.clone()),
                ids.join(", "),
            ));
        }
        let sided = item.each == InspectEach::Wheel;
        (sided != i.side.is_some()).then(|| {
            let right = if sided { "fault-of-each-wheel" } else { "fault-of-the-axle" };
            Problem::new(field("side"), said("fault-side-not-fit"), said(right))
        })
    };
    inspected.iter().enumerate().filter_map(one).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn at(item: &str, side: Option<Side>, answer: &str) -> Inspected {
        Inspected { item: item.into(), side, answer: answer.into() }
    }

    #[test]
    fn the_list_is_whole_and_its_good_answers_do_nothing() {
        let all = shipped_inspection().unwrap();
        assert!(all.len() >= 10);
        for i in &all {
            let good = &i.answers[0];
            assert!(i.answers.len() >= 2 && good.first.is_empty() && !good.stops, "{}", i.id);
            assert_eq!(good.widen, InspectWiden::default(), "{}", i.id);
            // Whatever stops a plan says what comes first.
            assert!(i.answers.iter().all(|a| !a.stops || !a.first.is_empty()), "{}", i.id);
        }
    }

    #[test]
    fn a_loose_joint_widens_its_wheel_alone_and_what_stops_is_told_first() {
        let read = Sigmas { camber_deg: 0.06, caster_deg: 0.16, toe_deg: 0.03 };
        let found =
            vec![at("ball_joints", Some(Side::Left), "play"), at("tyres", Some(Side::Right), "cords")];
        assert!((widened(read, &found, Side::Left).camber_deg - 0.06f64.hypot(0.3)).abs() < 1e-12);
        assert_eq!(widened(read, &found, Side::Right), read);
        let first = found_first(&Axles { front: found, rear: vec![at("bushings", None, "sound")] });
        assert_eq!(
            first.iter().map(|f| (f.side, f.stops)).collect::<Vec<_>>(),
            [(Some(Side::Right), true), (Some(Side::Left), false)]
        );
    }

    #[test]
    fn what_is_no_item_no_answer_or_no_side_of_it_is_named() {
        let list = [
            at("horn", None, "ok"),
            at("tyres", Some(Side::Left), "flat"),
            at("dampers", Some(Side::Left), "sound"),
        ];
        let fields: Vec<_> = inspected_problems("x.", &list).into_iter().map(|p| p.field).collect();
        assert_eq!(fields, ["x.0.item", "x.1.answer", "x.2.side"]);
    }
}
