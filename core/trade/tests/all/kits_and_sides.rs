//! What does not stand alone comes with what it needs; what goes on one side only moves that side only.

use crate::common;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::part::{Part, shipped_parts};
use bold_stance_trade::plan::{
    CandidateStatus, CarInput, PlanInput, PlanResult, car_fitted_parts, plan, plan_car,
};
use bold_stance_trade::sheet::{StepId, sheet};
use bold_stance_words::English;
use common::{car, electric_rear, truck};

fn parts() -> Vec<Part> {
    shipped_parts().unwrap()
}

fn fitted(i: &PlanInput, ids: &[&str]) -> PlanInput {
    PlanInput { fitted: ids.iter().map(|s| (*s).to_owned()).collect(), ..i.clone() }
}

fn only(mut i: PlanInput, id: &str, side: Side) -> PlanInput {
    i.only.insert(id.to_owned(), side);
    i
}

fn answer(i: &PlanInput) -> PlanResult {
    plan(i, &parts()).unwrap()
}

#[test]
fn a_camber_arm_comes_with_the_toe_arm_it_does_not_stand_without() {
    let bare = electric_rear();
    let r = answer(&bare);
    let arm = r.candidates.iter().find(|c| c.part.family() == "rear-camber-arm").unwrap();
    let kit: Vec<&str> = arm.kit.iter().map(|k| k.id.as_str()).collect();
    assert_eq!(kit.len(), 1, "{kit:?}");
    assert!(matches!(arm.status, CandidateStatus::Reaches | CandidateStatus::Short), "{:?}", arm.status);
    // Both fitted it is what the candidate said it would be, and nothing is missing.
    let all = parts();
    let short =
        |r: &PlanResult| [&r.left, &r.right].map(|s| s.shortfall.worst()).into_iter().fold(0.0, f64::max);
    let on = plan(&fitted(&bare, &[&arm.part.id, kit[0]]), &all).unwrap();
    assert_eq!((short(&on), on.misfits.len()), (arm.short_deg, 0), "{}", on.verdict.headline.en());
    // No other that brings a toe adjuster leaves less that a shop could tell.
    let bring = r.candidates.iter().filter(|c| c.part.provides.contains(&"toe_adjuster".to_owned()));
    let mut others = 0;
    for c in bring {
        for id in c.sizes.iter().chain([&c.part.id]).filter(|id| *id != kit[0]) {
            let other = plan(&fitted(&bare, &[&arm.part.id, id]), &all).unwrap();
            assert!(short(&other) > arm.short_deg - 0.03, "{id}: {} {}", short(&other), arm.short_deg);
            others += 1;
        }
    }
    assert!(others > 0);
    // Beside a toe arm that is on already it needs none.
    let with = answer(&fitted(&bare, &[kit[0]]));
    let arm = with.candidates.iter().find(|c| c.part.family() == "rear-camber-arm").unwrap();
    assert!(arm.kit.is_empty());
    // Where nothing that brings one is to be had it is said what is missing.
    let without: Vec<Part> =
        all.iter().filter(|p| !p.provides.contains(&"toe_adjuster".into())).cloned().collect();
    let r = plan(&bare, &without).unwrap();
    let arm = r.candidates.iter().find(|c| c.part.family() == "rear-camber-arm").unwrap();
    assert_eq!((arm.status, arm.kit.len()), (CandidateStatus::Needs, 0));
}

#[test]
fn a_part_on_one_side_moves_that_side_and_costs_half() {
    let bare = truck();
    let r = answer(&bare);
    // Every part of the truck that is not for both wheels at once, one after the other.
    let (mut moved, mut lone) = (0, 0);
    for c in r.candidates.iter().filter(|c| c.kit.is_empty() && c.status != CandidateStatus::Needs) {
        let id = c.part.id.as_str();
        let Ok(both) = plan(&fitted(&bare, &[id]), &parts()) else { continue };
        for side in Side::BOTH {
            let one = answer(&only(fitted(&bare, &[id]), id, side));
            let of = |r: &PlanResult, s: Side| if s == Side::Left { r.left.after } else { r.right.after };
            let other = if side == Side::Left { Side::Right } else { Side::Left };
            assert_eq!(of(&one, side), of(&both, side), "{id} {side:?}");
            assert_eq!(of(&one, other), of(&r, other), "{id} {side:?}");
            moved += usize::from(of(&both, side) != of(&r, side));
            let here = one.candidates.iter().find(|c| c.part.id == id).unwrap();
            assert_eq!(here.status, CandidateStatus::Fitted);
            assert_eq!(
                (here.part.cost, here.part.labour_minutes),
                (0.5 * c.part.cost, c.part.labour_minutes.div_ceil(2))
            );
            // What only that side's part can turn is ordered on that side alone, and said to be none on the other.
            for new in &c.part.adjusters {
                let line = |r: &PlanResult, s: Side| {
                    let of = if s == Side::Left { &r.left } else { &r.right };
                    of.setting.iter().find(|l| l.name == new.name).cloned()
                };
                assert_eq!(line(&one, side).is_some(), line(&both, side).is_some(), "{id}");
                if !bare.adjusters.left.iter().any(|a| a.name == new.name || a.turns_with(new)) {
                    let there = line(&one, other).unwrap();
                    assert!(!there.moves(), "{id}");
                    assert_eq!(there.words.en(), "none on this side", "{id}");
                    lone += 1;
                }
            }
        }
    }
    assert!(moved >= 6 && lone >= 2, "{moved} sides were moved by a part, {lone} adjusters were on one side");
}

fn planned(c: &CarInput) -> Vec<(StepId, String)> {
    let all = parts();
    let a = plan_car(c, &all).unwrap();
    let steps = sheet(c, &a, &car_fitted_parts(c, &all));
    steps.into_iter().map(|s| (s.id, s.title.en())).collect()
}

#[test]
fn the_sheet_says_which_side_and_a_live_axles_arm_is_refused_on_one() {
    let arm = "offset-upper-arm@10";
    let i = fitted(&truck(), &[arm]);
    let fit = |i: &PlanInput| {
        let steps = planned(&car(Some(i), None));
        steps.into_iter().find(|(id, _)| *id == StepId::Fit(Axle::Front, arm.into())).unwrap().1
    };
    assert!(fit(&i).starts_with("Fit "), "{}", fit(&i));
    assert!(fit(&only(i.clone(), arm, Side::Right)).starts_with("Right side only: fit "));
    // A word of a part that is not on is of no account.
    assert_eq!(fit(&only(i.clone(), "some-other", Side::Left)), fit(&i));

    let shapes = bold_stance_car::archetype::shipped_archetypes().unwrap();
    let live = shapes.into_iter().find(|s| s.id == "live_front").unwrap().geometry;
    let base = truck();
    let live = PlanInput::unchanged(
        live,
        2900.0,
        base.design_height_mm,
        Vec::new(),
        [base.left, base.right],
        base.aim.clone(),
    );
    let mut refused = 0;
    for c in answer(&live).candidates {
        let id = c.part.id.as_str();
        let one = only(fitted(&live, &[id]), id, Side::Left);
        let Err(list) = plan_car(&car(Some(&one), None), &parts()) else { continue };
        assert_eq!(list[0].field, format!("plan.axles.front.only.{id}"));
        refused += 1;
    }
    assert!(refused > 1, "{refused} parts of a live axle refused on one side");
    // A sleeve in the knuckle is each wheel's own: on one side it moves that wheel's camber and is ordered there alone.
    let sleeve = answer(&live).candidates.into_iter().find(|c| {
        c.part.edits.is_empty()
            && !c.part.adjusters.is_empty()
            && !c.part.adjusters.iter().any(|a| a.is_shared_on_axle())
    });
    let id = sleeve.unwrap().part.id;
    let bar = PlanInput { fitted: vec![id.clone(), "adjustable-track-bar".into()], ..live };
    let r = answer(&only(bar, &id, Side::Right));
    let turned = |s: &bold_stance_trade::plan::SidePlan| {
        s.setting.iter().filter(|l| l.moves() && l.words.en() != "leave").count()
    };
    let own =
        |s: &bold_stance_trade::plan::SidePlan| s.setting.iter().any(|l| l.words.en() == "none on this side");
    assert!(own(&r.left) && !own(&r.right), "{:?} {:?}", turned(&r.left), turned(&r.right));
}
