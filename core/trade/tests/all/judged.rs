//! What the search answers first, held against what a good specialist fits first in forty judged cases
//! (`judged/cases.json`: common practice, no source). The cases are not adjusted to the program; how many agree is
//! reported, and may not fall.

use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::fit::{Knowledge, Sigmas};
use bold_stance_car::vehicle::{Measured, Sides};
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::{Filters, PlanInput, SearchResult, SideReadings, Unread, search};
use bold_stance_words::English;
use serde::Deserialize;

/// Cases that have to agree; raised whenever more do.
const AGREE: usize = 31;

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Cases {
    #[allow(dead_code)]
    about: String,
    cases: Vec<Case>,
}

#[derive(Deserialize)]
#[serde(deny_unknown_fields)]
struct Case {
    id: String,
    shape: String,
    #[serde(default)]
    adjusters: Option<String>,
    lift: f64,
    read: [f64; 3],
    #[serde(default)]
    read_right: Option<[f64; 3]>,
    aim: String,
    first: Vec<Vec<String>>,
    #[serde(default)]
    holds: Vec<String>,
    why: String,
}

fn input(c: &Case) -> PlanInput {
    let shape = shipped_archetypes().unwrap().into_iter().find(|a| a.id == c.shape).unwrap();
    let side = |[camber_deg, caster_deg, toe_deg]: [f64; 3]| SideReadings {
        height_mm: shape.usual.height_mm,
        angles: Measured { camber_deg, caster_deg, toe_deg },
        sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.2, toe_deg: 0.05 },
        unread: Unread::default(),
    };
    let mut adjusters: Vec<Adjuster> = shape.usual_adjusters().into_iter().map(|o| o.adjuster).collect();
    if c.adjusters.as_deref() == Some("none") {
        adjusters.retain(Adjuster::is_tie_rod);
    }
    let aim = shipped_aims().unwrap().into_iter().find(|a| a.id == c.aim).unwrap();
    let sides = [side(c.read), side(c.read_right.unwrap_or(c.read))];
    let mut i =
        PlanInput::unchanged(shape.geometry.clone(), 2900.0, shape.usual.height_mm, Vec::new(), sides, aim);
    i.adjusters = Sides { left: adjusters.clone(), right: adjusters };
    i.knowledge = Knowledge::Taped;
    i.upper_shaft = shape.usual.upper_shaft;
    i.lifted(c.lift)
}

fn families(r: &SearchResult) -> Vec<String> {
    let first = r.plans.first().map(|p| p.parts.as_slice()).unwrap_or_default();
    let mut out: Vec<String> =
        first.iter().map(|p| p.id.split('@').next().unwrap_or(&p.id).to_owned()).collect();
    out.sort();
    out
}

#[test]
fn the_first_answer_is_the_one_a_specialist_would_name() {
    let cases: Cases = serde_json::from_str(include_str!("judged/cases.json")).unwrap();
    assert_eq!(cases.cases.len(), 40);
    let parts = shipped_parts().unwrap();
    let mut agree = 0;
    for c in &cases.cases {
        let r = search(&input(c), &Filters::default(), None, &parts, &|_| true).unwrap();
        let got = families(&r);
        let mut wanted = c.first.clone();
        wanted.iter_mut().for_each(|w| w.sort());
        let ok = wanted.contains(&got) || c.holds.iter().any(|h| got.contains(h));
        agree += usize::from(ok);
        if !ok {
            println!(
                "{}: answers {got:?} ({}); a specialist {wanted:?} {:?}: {}",
                c.id,
                r.headline.en(),
                c.holds,
                c.why
            );
            for p in r.plans.iter().take(4) {
                let ids: Vec<&str> = p.parts.iter().map(|x| x.id.as_str()).collect();
                println!(
                    "    {ids:?} reached {} short {:.2} cost {} {} min fouls {}",
                    p.reached,
                    p.short_deg,
                    p.cost,
                    p.labour_minutes,
                    p.fouls.len()
                );
            }
        }
    }
    println!("{agree} of {} agree", cases.cases.len());
    assert!(agree >= AGREE, "{agree} of {} agree", cases.cases.len());
}
