//! The one look or reading that tells explanations apart best: by how much it is expected to lessen what is open about
//! them (entropy, Shannon 1948, from memory).

use super::explain::Explained;
use bold_stance_units::said::{Said, said};
use serde::{Deserialize, Serialize};

/// A look or reading that settles something.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct Look {
    /// What to look at or read.
    pub what: Said,
    /// How long it takes, minutes.
    pub minutes: u32,
    /// By how much it is expected to lessen what is open, bits.
    pub bits: f64,
}

impl Look {
    /// Places of the explanations that it shows to be so or not.
    #[must_use]
    pub fn shows(&self, all: &[Explained]) -> Vec<usize> {
        settled_by(all, LOOKS.iter().find(|(id, ..)| *id == self.what.id).map_or(&[][..], |l| l.1))
    }
}

/// Looks, the explanations each of them shows to be so, and minutes (common practice, no source).
const LOOKS: [(&str, &[&str], u32); 8] = [
    ("look-marks", &["explain-reversed", "explain-miscounted", "explain-slipped", "explain-mixed"], 2),
    ("look-throw", &["explain-gain"], 5),
    ("look-height", &["explain-height"], 4),
    ("look-rolled", &["explain-jacked"], 4),
    ("look-sweep", &["explain-caster-old"], 8),
    ("look-zero", &["explain-zero", "explain-sign"], 3),
    ("look-steering", &["explain-steering"], 3),
    ("look-part", &["explain-points"], 10),
];
/// What a look has to settle to be worth its minutes, bits (judgement, no source).
const LEAST_BITS: f64 = 0.005;
/// A look shows what is so with these odds, and what is not so with those (judgement, no source).
const SHOWS: (f64, f64) = (0.9, 0.03);

fn bits(odds: impl Iterator<Item = f64>) -> f64 {
    odds.filter(|p| *p > 0.0).map(|p| -p * p.log2()).sum()
}

/// Odds once a look was taken and showed one of these explanations to be so, or none of those it can show.
#[must_use]
pub fn after_look(all: &[Explained], look: &Look, shown: Option<usize>) -> Vec<f64> {
    let shows = look.shows(all);
    let joint: Vec<f64> = all.iter().enumerate().map(|(t, e)| e.odds * likely(&shows, shown, t)).collect();
    let total: f64 = joint.iter().sum();
    joint.into_iter().map(|p| if total > 0.0 { p / total } else { 0.0 }).collect()
}

/// Places of what a look can show to be so.
fn settled_by(all: &[Explained], settles: &[&str]) -> Vec<usize> {
    (0..all.len()).filter(|k| settles.contains(&all[*k].what.id.as_ref())).collect()
}

/// How likely a look that can show `shows` shows one of them, or nothing, where `truth` is so.
fn likely(shows: &[usize], shown: Option<usize>, truth: usize) -> f64 {
    let (right, wrong) = SHOWS;
    let wrong = wrong / shows.len().max(1) as f64;
    match shown {
        Some(s) if s == truth => right,
        Some(_) => wrong,
        None if shows.contains(&truth) => 1.0 - right - wrong * (shows.len() - 1) as f64,
        None => 1.0 - wrong * shows.len() as f64,
    }
}

/// Open bits that are expected to be left once a look was taken that shows the explanations of these places.
fn left_after(odds: &[f64], shows: &[usize]) -> f64 {
    shows
        .iter()
        .map(|s| Some(*s))
        .chain([None])
        .map(|shown| {
            let joint: Vec<f64> = odds.iter().enumerate().map(|(t, p)| p * likely(shows, shown, t)).collect();
            let all: f64 = joint.iter().sum();
            if all > 0.0 { all * bits(joint.iter().map(|p| p / all)) } else { 0.0 }
        })
        .sum()
}

/// The looks that tell these explanations apart, the best of them first; none where there is nothing to tell apart.
#[must_use]
pub fn looks(all: &[Explained]) -> Vec<Look> {
    let odds: Vec<f64> = all.iter().map(|e| e.odds).collect();
    let open = bits(odds.iter().copied());
    let of = |(id, settles, minutes): &(&'static str, &[&str], u32)| {
        let shows = settled_by(all, settles);
        let bits = open - left_after(&odds, &shows);
        (!shows.is_empty() && bits > LEAST_BITS).then(|| Look { what: said(id), minutes: *minutes, bits })
    };
    let mut out: Vec<Look> = LOOKS.iter().filter_map(of).collect();
    out.sort_by(|a, b| b.bits.total_cmp(&a.bits));
    out
}

#[cfg(test)]
mod tests {
    use super::*;

    fn told(list: &[(&'static str, f64)]) -> Vec<Explained> {
        list.iter()
            .map(|(id, odds)| Explained { what: said(id), odds: *odds, given: [0.0; 3], alike: false })
            .collect()
    }

    #[test]
    fn the_look_is_at_what_is_most_open() {
        let of = |list: &[(&'static str, f64)]| looks(&told(list)).first().map(|l| l.what.id.to_string());
        assert_eq!(
            of(&[("explain-gain", 0.6), ("explain-height", 0.3), ("explain-nothing", 0.1)]).unwrap(),
            "look-throw"
        );
        assert_eq!(
            of(&[("explain-reversed", 0.5), ("explain-miscounted", 0.4), ("explain-gain", 0.1)]).unwrap(),
            "look-marks"
        );
        assert_eq!(of(&[("explain-jacked", 0.5), ("explain-nothing", 0.5)]).unwrap(), "look-rolled");
        assert!(of(&[("explain-nothing", 1.0)]).is_none());
        assert!(of(&[]).is_none());
    }

    #[test]
    fn what_a_look_leaves_open_is_its_conditional_entropy() {
        // Two that are alike in odds, a look at one: H(X|Y) by hand from the joint table.
        let (r, w) = SHOWS;
        let [a, b] = [0.5 * r, 0.5 * w];
        let [c, d] = [0.5 * (1.0 - r), 0.5 * (1.0 - w)];
        let h = |p: f64, q: f64| bits([p / (p + q), q / (p + q)].into_iter());
        let by_hand = (a + b) * h(a, b) + (c + d) * h(c, d);
        assert!((left_after(&[0.5, 0.5], &[0]) - by_hand).abs() < 1e-12);
    }

    #[test]
    fn a_look_that_shows_something_makes_it_likelier_by_how_well_it_shows() {
        let all = told(&[("explain-nothing", 0.6), ("explain-gain", 0.3), ("explain-height", 0.1)]);
        let throw = looks(&all).into_iter().find(|l| l.what.id == "look-throw").unwrap();
        assert_eq!(throw.shows(&all), [1]);
        // By hand: 0.3 x 0.9 beside 0.6 x 0.03 and 0.1 x 0.03.
        let after = after_look(&all, &throw, Some(1));
        assert!((after[1] - 0.27 / (0.27 + 0.018 + 0.003)).abs() < 1e-12, "{after:?}");
        // Nothing shown: 0.3 x 0.1 beside 0.6 x 0.97 and 0.1 x 0.97.
        let after = after_look(&all, &throw, None);
        assert!((after[1] - 0.03 / (0.03 + 0.582 + 0.097)).abs() < 1e-12, "{after:?}");
        assert!((after.iter().sum::<f64>() - 1.0).abs() < 1e-12);
    }
}
