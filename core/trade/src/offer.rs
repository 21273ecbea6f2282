//! What a shop hands to another as a file: its parts, aims and shapes, and what its cars taught. Nothing of a customer, no ticket,
//! and nothing another shop could look up: it takes in what it is given, and can put it out again.

use crate::aim::Aim;
use crate::memory::{HeightsTaught, ProvedCar, Taught, Trial};
use crate::part::{MOST_PARTS, Part, part_problems};
use bold_stance_car::archetype::Archetype;
use bold_stance_kinematics::linkage::problems as geometry_problems;
use bold_stance_units::problem::{Problem, in_range, parse_json};
use bold_stance_units::said::said;
use chrono::{DateTime, Utc};
use serde::{Deserialize, Serialize};

/// What such a file is.
pub const OFFER_FORMAT: &str = "bold-stance.shop/1";
/// Most aims, shapes and cars of one file.
const MOST: usize = 2000;
/// No part does more than so many times what it is said to, or less than one of so many: ln of it.
const MOST_LN: f64 = 3.0;

/// A car as it is handed on: when it was accepted, and what its parts did.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct OfferedCar {
    /// When it was accepted, UTC.
    pub at: DateTime<Utc>,
    /// What was turned on it, and what that did.
    pub trials: Vec<Trial>,
}

/// What a shop hands to another.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct ShopOffer {
    /// [`OFFER_FORMAT`].
    pub format: String,
    /// Version of the program that wrote it.
    pub written_by: String,
    /// When, UTC.
    pub at: DateTime<Utc>,
    /// Name of the shop.
    pub shop: String,
    /// What the shop is known by from one file to its next: nothing it could be asked with.
    pub origin: String,
    /// Its own parts, and those it changed.
    #[serde(default)]
    pub parts: Vec<Part>,
    /// Its own aims.
    #[serde(default)]
    pub aims: Vec<Aim>,
    /// Shapes of cars it measured.
    #[serde(default)]
    pub shapes: Vec<Archetype>,
    /// What its accepted cars taught of parts; how well it predicted is its own affair.
    #[serde(default)]
    pub cars: Vec<OfferedCar>,
    /// What its cars taught of height.
    #[serde(default)]
    pub heights: Vec<HeightsTaught>,
}

/// What cars taught, as it goes into a file: without tickets, without what something else explains, without how well was said.
#[must_use]
pub fn offered_cars(proved: &[ProvedCar]) -> Vec<OfferedCar> {
    let counts = |t: &&Trial| t.explained.is_none();
    let cars = proved
        .iter()
        .map(|c| OfferedCar { at: c.at, trials: c.taught.trials.iter().filter(counts).cloned().collect() });
    cars.filter(|c| !c.trials.is_empty()).collect()
}

impl OfferedCar {
    /// As it counts among the cars of the shop that took it in: ticket 0 is another shop's.
    #[must_use]
    pub fn proved(&self) -> ProvedCar {
        ProvedCar { ticket: 0, at: self.at, taught: Taught { trials: self.trials.clone(), said: Vec::new() } }
    }
}

/// What one file of another shop brought, and from when until when it counts here.
#[derive(Debug, Clone, PartialEq)]
pub struct Lent {
    /// When it was taken in, UTC.
    pub from: DateTime<Utc>,
    /// When it was put out, or a later file of the same shop came; none while it counts.
    pub until: Option<DateTime<Utc>>,
    /// What its cars taught of parts.
    pub cars: Vec<OfferedCar>,
    /// What they taught of height.
    pub heights: Vec<HeightsTaught>,
}

impl Lent {
    /// Whether it counts for a car work began on at a time; for one nothing was done on yet where none is told. What is taken in
    /// or put out later rewrites nothing of a sheet somebody works by.
    #[must_use]
    pub fn counts(&self, worked_since: Option<DateTime<Utc>>) -> bool {
        match worked_since {
            None => self.until.is_none(),
            Some(t) => self.from < t && self.until.is_none_or(|u| t <= u),
        }
    }
}

impl ShopOffer {
    /// Reads a file.
    ///
    /// # Errors
    /// Every [`Problem`] found, by its field.
    pub fn from_json(text: &[u8]) -> Result<Self, Vec<Problem>> {
        let out: Self = parse_json(text).map_err(|p| vec![p])?;
        let problems = out.problems();
        if problems.is_empty() { Ok(out) } else { Err(problems) }
    }

    /// Everything wrong with it, by field.
    #[must_use]
    pub fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.format != OFFER_FORMAT {
            let wrong = said("fault-another-format").name("value", self.format.clone());
            out.push(Problem::new("format", wrong, said("fault-quoted").name("value", OFFER_FORMAT)));
        }
        for (field, text) in [("shop", &self.shop), ("origin", &self.origin)] {
            let n = text.trim().chars().count();
            if !(1..=80).contains(&n) || text.contains('\0') {
                let wrong = said("fault-characters").count("n", n);
                out.push(Problem::new(field, wrong, said("fault-characters-right").count("n", 80)));
            }
        }
        let lengths = [
            ("parts", self.parts.len(), MOST_PARTS),
            ("aims", self.aims.len(), MOST),
            ("shapes", self.shapes.len(), MOST),
            ("cars", self.cars.len(), MOST),
            ("heights", self.heights.len(), MOST),
        ];
        for (field, n, most) in lengths {
            if n > most {
                out.push(Problem::new(field, said("fault-too-many"), said("fault-shorter-list")));
            }
        }
        if !out.is_empty() {
            return out;
        }
        let mut under = |at: String, list: Vec<Problem>| {
            out.extend(list.into_iter().map(|p| Problem { field: format!("{at}.{}", p.field), ..p }));
        };
        for (i, p) in self.parts.iter().enumerate() {
            under(format!("parts.{i}"), part_problems(p));
        }
        for (i, a) in self.aims.iter().enumerate() {
            let own = |p: Problem| Problem { field: p.field.trim_start_matches("aim.").to_owned(), ..p };
            under(format!("aims.{i}"), a.problems().into_iter().map(own).collect());
        }
        for (i, s) in self.shapes.iter().enumerate() {
            under(format!("shapes.{i}.geometry"), geometry_problems(&s.geometry));
        }
        for (i, c) in self.cars.iter().enumerate() {
            for (k, t) in c.trials.iter().enumerate() {
                under(format!("cars.{i}.trials.{k}"), times_problems(t.ln_times, t.sd));
            }
        }
        for (i, h) in self.heights.iter().enumerate() {
            for (k, t) in h.turns.iter().enumerate() {
                under(format!("heights.{i}.turns.{k}"), times_problems(t.ln_times, t.sd));
            }
            for (k, t) in h.settled.iter().enumerate() {
                let fault = in_range("mm", t.mm, -100.0, 200.0, "mm").err();
                under(format!("heights.{i}.settled.{k}"), fault.into_iter().collect());
            }
        }
        out
    }
}

fn times_problems(ln_times: f64, sd: f64) -> Vec<Problem> {
    let times = in_range("ln_times", ln_times, -MOST_LN, MOST_LN, "").err();
    // What is certain to the last digit would count for more than every car of one's own.
    times.into_iter().chain(in_range("sd", sd, 0.01, 10.0, "").err()).collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::aim::shipped_aims;
    use crate::memory::Memory;
    use crate::part::shipped_parts;
    use bold_stance_car::archetype::shipped_archetypes;
    use bold_stance_kinematics::geometry::{Axle, Side};

    fn trial(ln_times: f64) -> Trial {
        Trial {
            part: Some("cam-bolt".into()),
            adjuster: "cam".into(),
            axle: Axle::Front,
            side: Side::Left,
            ln_times,
            sd: 0.1,
            explained: None,
        }
    }

    fn offer() -> ShopOffer {
        ShopOffer {
            format: OFFER_FORMAT.into(),
            written_by: "0.1.0".into(),
            at: Utc::now(),
            shop: "Larkspur Axle & Arm".into(),
            origin: "a1".into(),
            parts: shipped_parts().unwrap().into_iter().take(3).collect(),
            aims: shipped_aims().unwrap().into_iter().take(2).collect(),
            shapes: shipped_archetypes().unwrap().into_iter().take(2).collect(),
            cars: vec![OfferedCar { at: Utc::now(), trials: vec![trial(0.3)] }],
            heights: Vec::new(),
        }
    }

    #[test]
    fn what_is_handed_on_is_taken_in_as_it_was_and_counts() {
        let o = offer();
        let back = ShopOffer::from_json(&serde_json::to_vec(&o).unwrap()).unwrap();
        assert_eq!(back, o);
        let m = Memory::of(&[back.cars[0].proved()], None);
        assert_eq!((m.cars, m.parts[0].cars[0].ticket), (1, 0));
        assert!(m.parts[0].times > 1.0, "it does more than it is sold for: {}", m.parts[0].times);
    }

    #[test]
    fn what_is_taken_in_or_put_out_later_changes_no_car_that_is_worked_on() {
        let at = |minute: i64| DateTime::<Utc>::UNIX_EPOCH + chrono::Duration::minutes(minute);
        let lent = |until| Lent { from: at(10), until, cars: Vec::new(), heights: Vec::new() };
        for (until, worked_since, counts) in [
            (None, None, true),
            (None, Some(at(9)), false),
            (None, Some(at(11)), true),
            (Some(at(20)), None, false),
            (Some(at(20)), Some(at(15)), true),
            (Some(at(20)), Some(at(21)), false),
        ] {
            assert_eq!(lent(until).counts(worked_since), counts, "{until:?} {worked_since:?}");
        }
    }

    #[test]
    fn nothing_of_a_customer_and_nothing_explained_goes_into_it() {
        let odd = Trial { explained: Some("turned the other way".into()), ..trial(-0.9) };
        let taught = |trials| Taught { trials, said: Vec::new() };
        let car = |trials| ProvedCar { ticket: 417, at: Utc::now(), taught: taught(trials) };
        let out = offered_cars(&[car(vec![trial(0.2), odd.clone()]), car(vec![odd])]);
        assert_eq!(out.len(), 1);
        assert_eq!(out[0].trials, vec![trial(0.2)]);
        assert!(!serde_json::to_string(&out).unwrap().contains("417"));
    }

    #[test]
    fn what_is_wrong_is_named_at_its_field() {
        let fields = |o: &ShopOffer| o.problems().into_iter().map(|p| p.field).collect::<Vec<_>>();
        assert_eq!(fields(&offer()), Vec::<String>::new());
        assert_eq!(fields(&ShopOffer { format: "x".into(), ..offer() }), ["format"]);
        assert_eq!(fields(&ShopOffer { shop: " ".into(), ..offer() }), ["shop"]);
        let mut o = offer();
        o.cars[0].trials[0].ln_times = 9.0;
        o.cars[0].trials[0].sd = 0.0;
        o.parts[1].cost = -1.0;
        o.aims[0].camber_deg = [5.0, -5.0];
        o.shapes[0].geometry.format = "none".into();
        let told = fields(&o);
        for f in [
            "parts.1.cost",
            "aims.0.camber_deg.1",
            "shapes.0.geometry.format",
            "cars.0.trials.0.ln_times",
            "cars.0.trials.0.sd",
        ] {
            assert!(told.iter().any(|t| t == f), "{f} is not in {told:?}");
        }
    }
}
