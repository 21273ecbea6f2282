//! What a job knows already of the tyre that is asked about: answers to questions of the diagnosis nobody has to press.

use super::car_tyres::CarTyres;
use super::case::setup_problems;
use super::diagnosis::Seen;
use super::forecast::{Setup, Shares};
use bold_stance_car::vehicle::Rotated;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::problem::Problem;
use serde::{Deserialize, Serialize};

/// Pressure this far from the placard, as a share of it, is low or high (common practice, no source).
const PRESSURE_OFF: f64 = 0.05;
/// Camber past this is told as negative or positive, degrees (common practice, no source).
pub(crate) const CAMBER_NEAR_DEG: f64 = 0.75;
/// Toe of a wheel past this is told as in or out, degrees (common practice, no source).
pub(crate) const TOE_NEAR_DEG: f64 = 0.15;
/// A cause with less of the worst strip's wear than this is not blamed (judgement: the forecast's own shares scatter
/// by about as much between two readings of camber).
const BLAME: f64 = 0.12;
/// A front axle with more than this of the drive is driven.
const DRIVEN: f64 = 0.0;

/// A tyre as it ran before anything was set.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct RanAs {
    /// Camber and toe as found, with their shares of the time.
    pub setups: Vec<Setup>,
    /// Why its worst strip wore.
    pub shares: Shares,
}

/// What the job tells of the tyre asked about.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct AskedTyre {
    /// The tyres of the car.
    pub tyres: CarTyres,
    /// Its axle, once one is chosen.
    #[serde(default)]
    pub axle: Option<Axle>,
    /// How it ran as found, where its axle was read.
    #[serde(default)]
    pub found: Option<RanAs>,
}

impl AskedTyre {
    /// What is wrong, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = self.tyres.problems();
        if let Some(f) = &self.found {
            setup_problems("found", &f.setups, &mut out);
        }
        out
    }
}

/// Mean over the time of what `f` gives.
fn mean(setups: &[Setup], f: fn(&Setup) -> f64) -> Option<f64> {
    let total: f64 = setups.iter().map(|s| s.share).sum();
    (total > 0.0).then(|| setups.iter().map(|s| s.share * f(s)).sum::<f64>() / total)
}

/// `low` under −`near`, `high` over it, else `between`.
fn third(v: f64, near: f64, [low, between, high]: [&'static str; 3]) -> &'static str {
    if v < -near {
        low
    } else if v > near {
        high
    } else {
        between
    }
}

/// What the job knows, by question.
#[must_use]
pub fn known(asked: &AskedTyre) -> Seen {
    let mut out = Seen::new();
    let mut say = |q: &str, a: &str| out.insert(q.to_owned(), a.to_owned());
    let t = &asked.tyres;
    if t.rotated == Rotated::Regular {
        say("rotation", "regular");
    }
    // The front tyres speak for the car until an axle is chosen.
    let axle = asked.axle.unwrap_or(Axle::Front);
    let off = t.pressure_kpa[axle] / t.placard_kpa[axle] - 1.0;
    say("pressure", third(off, PRESSURE_OFF, ["low", "placard", "high"]));
    if let Some(axle) = asked.axle {
        say("axle", axle.word());
        let share = match axle {
            Axle::Front => t.drive_front,
            Axle::Rear => 1.0 - t.drive_front,
        };
        say("driven", if share > DRIVEN { "yes" } else { "no" });
    }
    if let Some(found) = &asked.found {
        if let Some(c) = mean(&found.setups, |s| s.camber_deg) {
            say("camber", third(c, CAMBER_NEAR_DEG, ["negative", "near_zero", "positive"]));
        }
        if let Some(toe) = mean(&found.setups, |s| s.toe_deg) {
            say("toe", third(toe, TOE_NEAR_DEG, ["out", "near_zero", "in"]));
        }
        let s = &found.shares;
        let blamed = [("camber", s.camber), ("toe", s.toe), ("pressure", s.pressure)]
            .into_iter()
            .max_by(|a, b| a.1.total_cmp(&b.1))
            .filter(|(_, share)| *share > BLAME);
        say("forecast", blamed.map_or("none", |(cause, _)| cause));
    }
    out
}

/// What was pressed over what is known, without the questions whose known answer was taken out.
#[must_use]
pub fn pressed_over(known: &Seen, pressed: &Seen, taken_out: &[String]) -> Seen {
    let kept = known.iter().filter(|(q, _)| !taken_out.contains(q));
    kept.chain(pressed).map(|(q, a)| (q.clone(), a.clone())).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::diagnosis::{diagnose, shipped_diagnosis};

    fn asked(camber_deg: f64, toe_deg: f64) -> AskedTyre {
        let tyres: CarTyres = serde_json::from_str(
            r#"{"sizes":{"front":"235/45R18","rear":"255/40R18"},"class":"all_season","depth_mm":6,"limit_mm":3,
            "load_n":{"front":4500,"rear":4000},"pressure_kpa":{"front":250,"rear":200},
            "placard_kpa":{"front":250,"rear":250},"drive_front":0,"brake_front":0.65,"use":"mixed",
            "load_transfer_per_g":0.7,"roll_camber":{"front":3,"rear":3},"rotated":"regular"}"#,
        )
        .unwrap();
        let shares = Shares { use_: 0.4, toe: 0.1, camber: 0.5, pressure: 0.0 };
        let setups = vec![
            Setup { camber_deg: camber_deg - 1.0, toe_deg, share: 1.0 },
            Setup { camber_deg: camber_deg + 0.5, toe_deg, share: 2.0 },
        ];
        AskedTyre { tyres, axle: Some(Axle::Rear), found: Some(RanAs { setups, shares }) }
    }

    fn answers(a: &AskedTyre) -> Vec<(String, String)> {
        known(a).into_iter().collect()
    }

    #[test]
    fn a_job_answers_for_its_axle_what_nobody_has_to_press() {
        let a = asked(-1.2, -0.3);
        let told: Vec<String> = answers(&a).into_iter().map(|(q, a)| format!("{q} {a}")).collect();
        let want = "axle rear, camber negative, driven yes, forecast camber, pressure low, rotation regular, toe out";
        assert_eq!(told.join(", "), want);
        // The front of the same car: not driven, at its placard.
        let front = AskedTyre { axle: Some(Axle::Front), found: None, ..a.clone() };
        let told: Vec<String> = answers(&front).into_iter().map(|(q, a)| format!("{q} {a}")).collect();
        assert_eq!(told.join(", "), "axle front, driven no, pressure placard, rotation regular");
        // Nothing is said of an axle nobody chose.
        let none = AskedTyre { axle: None, ..front };
        assert!(known(&none).keys().all(|q| q == "pressure" || q == "rotation"));
    }

    #[test]
    fn what_is_pressed_stands_over_what_is_known_and_what_is_taken_out_is_gone() {
        let known = known(&asked(-1.2, -0.3));
        let pressed = Seen::from([("pressure".to_owned(), "high".to_owned())]);
        let seen = pressed_over(&known, &pressed, &["camber".to_owned()]);
        assert_eq!((seen.get("pressure").map(String::as_str), seen.get("camber")), (Some("high"), None));
        assert_eq!(seen.len(), known.len() - 1);
    }

    #[test]
    fn what_is_known_are_answers_the_rules_have_and_their_labels_name_the_same_limits() {
        let data = shipped_diagnosis().unwrap();
        for camber in [-2.0, 0.0, 2.0] {
            for toe in [-0.4, 0.0, 0.4] {
                assert!(diagnose(&data, &known(&asked(camber, toe)), None).is_ok(), "{camber} {toe}");
            }
        }
        let labels = |q: &str| {
            let of = data.questions.iter().find(|x| x.id == q).unwrap();
            of.answers.iter().map(|a| a.label.clone()).collect::<Vec<_>>()
        };
        assert!(labels("camber").iter().all(|l| l.contains(&format!("{CAMBER_NEAR_DEG}°"))));
        assert!(labels("toe").iter().all(|l| l.contains(&format!("{TOE_NEAR_DEG}°"))));
    }
}
