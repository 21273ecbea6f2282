//! One plan for the car: what one axle's answer was it still is, the verdict names the worst of both, every order is told
//! once and rear before front, and the sheet of a car sets them in that order.

use crate::common;
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::fit::Sigmas;
use bold_stance_car::vehicle::{Axles, Inspected, Measured};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::part::{Part, shipped_parts};
use bold_stance_trade::plan::{
    AngleName, CarAnswer, CarInput, PlanInput, SideReadings, Standing, Unread, WorstKind, car_fitted_parts,
    plan, plan_car,
};
use bold_stance_trade::sheet::{GateReading, SheetStep, StepId, StepKind, sheet};
use bold_stance_words::English;
use common::{both_axles, car, electric_rear, truck};

fn parts() -> Vec<Part> {
    shipped_parts().unwrap()
}

fn worked(c: &CarInput) -> (CarAnswer, Vec<SheetStep>) {
    let parts = parts();
    let answer = plan_car(c, &parts).unwrap();
    let steps = sheet(c, &answer, &car_fitted_parts(c, &parts));
    (answer, steps)
}

fn ids(steps: &[SheetStep]) -> Vec<String> {
    steps.iter().map(|s| s.id.to_string()).collect()
}

#[test]
fn each_axle_of_a_car_is_worked_out_as_it_is_alone() {
    let c = both_axles();
    let (answer, _) = worked(&c);
    for a in [Axle::Front, Axle::Rear] {
        let alone = plan(&c.axle(a).unwrap(), &parts()).unwrap();
        assert_eq!(answer.axles[a].as_ref().unwrap(), &alone, "{a:?}");
    }
    // The other axle's height is in it: the body pitches.
    let front = c.axle(Axle::Front).unwrap();
    assert_eq!((front.moves.front.height_change_mm, front.moves.rear.height_change_mm), (65.0, 40.0));
    let rear = c.axle(Axle::Rear).unwrap();
    assert_eq!(
        (rear.own().height_change_mm, rear.moves.front.height_change_mm, rear.moves.front.settle_mm),
        (40.0, 65.0, 9.0)
    );
}

#[test]
fn the_verdict_names_the_worst_axle_side_and_angle_and_what_is_in() {
    let c = both_axles();
    let (answer, _) = worked(&c);
    let v = &answer.verdict;
    let w = v.worst.unwrap();
    // By hand: the largest number outside any window of either axle.
    let mut most = (0.0, Axle::Front, Side::Left, AngleName::Camber);
    for (axle, r) in answer.axles.each() {
        let r = r.as_ref().unwrap();
        for (side, s) in [(Side::Left, &r.left), (Side::Right, &r.right)] {
            for (n, off) in [
                (AngleName::Camber, s.shortfall.camber_deg),
                (AngleName::Caster, s.shortfall.caster_deg),
                (AngleName::Toe, s.shortfall.toe_deg),
            ] {
                if off > most.0 {
                    most = (off, axle, side, n);
                }
            }
        }
    }
    assert!(most.0 > 0.0, "the case is short somewhere");
    assert_eq!((w.axle, w.side, w.kind), (most.1, Some(most.2), WorstKind::Angle(most.3)), "{v:?}");
    assert!((w.off_deg - most.0).abs() < 1e-12);
    assert!(!v.reached && v.axles.each().iter().all(|(_, s)| **s != Standing::NotRead));
    assert!(
        v.headline.en().starts_with(if w.axle == Axle::Front { "Front: " } else { "Rear: " }),
        "{}",
        v.headline.en()
    );
    // The other axle is spoken of too.
    let other = if w.axle == Axle::Front { "rear" } else { "front" };
    assert!(v.sentence.en().to_lowercase().contains(other), "{}", v.sentence.en());
    for i in &v.already_in {
        let r = answer.axles[i.axle].as_ref().unwrap();
        let t = c.plan.aim.target(i.axle, Side::Left);
        for s in [&r.left.after, &r.right.after] {
            let (x, w) = match i.angle {
                AngleName::Camber => (s.camber_deg, t.camber),
                AngleName::Caster => (s.caster_deg, t.caster),
                _ => (s.toe_deg, t.toe),
            };
            assert!(x >= w[0] - 1e-9 && x <= w[1] + 1e-9, "{i:?}");
        }
    }
}

#[test]
fn an_axle_nobody_read_is_said_so_and_a_foul_goes_before_a_gap() {
    let (alone, _) = worked(&car(Some(&truck()), None));
    assert_eq!(alone.verdict.axles.rear, Standing::NotRead);
    assert!(alone.verdict.sentence.en().contains("rear was not read"), "{}", alone.verdict.sentence.en());
    // A front that lands is not "the car lands".
    let mut i = truck();
    (i.own_mut().height_change_mm, i.own_mut().settle_mm, i.own_mut().load_mm) = (0.0, 0.0, 0.0);
    for s in [&mut i.left, &mut i.right] {
        s.angles.camber_deg = 0.5 * (i.aim.camber_deg[0] + i.aim.camber_deg[1]);
        s.angles.caster_deg = 0.5 * (i.aim.caster_deg[0] + i.aim.caster_deg[1]);
        s.angles.toe_deg = 0.25 * (i.aim.toe_total_deg[0] + i.aim.toe_total_deg[1]);
    }
    let (lands, _) = worked(&car(Some(&i), None));
    assert!(lands.verdict.reached, "{:?}", lands.verdict);
    assert_eq!(lands.verdict.headline.en(), "Front lands on aim; the rear was not read");
    // A rear that cannot stand where it was read is refused at its field, and the front is still answered.
    let mut c = both_axles();
    c.base.axles.rear.as_mut().unwrap().read.left.height_mm = 900.0;
    let (a, _) = worked(&c);
    assert!(a.axles.rear.is_none() && a.axles.front.is_some());
    assert!(a.refused.rear.iter().all(|p| p.field.starts_with("base.axles.rear.")), "{:?}", a.refused.rear);
    assert_eq!(a.verdict.worst.unwrap().kind, WorstKind::Refused);
    assert_eq!(a.verdict.headline.en(), "Rear cannot be worked out");
    // What fouls in front goes before what is short behind.
    let mut c = both_axles();
    c.base.axles.front.as_mut().unwrap().limits.droop_mm = Some(5.0);
    let (a, steps) = worked(&c);
    if a.axles.front.as_ref().unwrap().verdict.fouls.is_empty() {
        panic!("the case fouls: {:?}", a.axles.front.unwrap().left.checks);
    }
    assert_eq!(
        (a.verdict.worst.unwrap().kind, a.verdict.worst.unwrap().axle),
        (WorstKind::Foul, Axle::Front)
    );
    assert_eq!(steps[0].id, StepId::Fouls);
    assert!(steps[0].detail.en().contains("front"), "{}", steps[0].detail.en());
}

#[test]
fn faults_are_told_at_their_fields_of_the_cars_document() {
    let mut c = both_axles();
    c.plan.axles.front.height_change_mm = 900.0;
    c.plan.axles.rear.trim_mm.right = 99.0;
    c.plan.aim.caster_deg = [5.0, 3.0];
    c.base.axles.rear.as_mut().unwrap().read.right.sigma.camber_deg = -1.0;
    c.base.tyre_gain_mm.rear = 999.0;
    let list = plan_car(&c, &parts()).unwrap_err();
    let said: Vec<&str> = list.iter().map(|p| p.field.as_str()).collect();
    for f in [
        "plan.axles.front.height_change_mm",
        "plan.axles.rear.trim_mm.right",
        "plan.aim.caster_deg.1",
        "base.axles.rear.read.right.sigma.camber_deg",
        "base.tyre_gain_mm.rear",
    ] {
        assert!(said.contains(&f), "{f} in {said:?}");
    }
    let mut once = said.clone();
    once.sort_unstable();
    once.dedup();
    assert_eq!(once.len(), said.len(), "each fault once: {said:?}");
    let mut none = both_axles();
    (none.base.axles.front, none.base.axles.rear) = (None, None);
    assert_eq!(plan_car(&none, &[]).unwrap_err()[0].field, "base.axles");
    let mut wrong = both_axles();
    wrong.base.axles.rear = wrong.base.axles.front.clone();
    assert!(plan_car(&wrong, &[]).unwrap_err().iter().any(|p| p.field == "base.axles.rear.geometry.axle"));
}

/// Every order of every side of both axles is in the list once, rear before front, toe last of its axle.
fn orders_hold(a: &CarAnswer) {
    let mut told = Vec::new();
    for (axle, r) in a.axles.rear_first() {
        let Some(r) = r else { continue };
        for (side, s) in [(Side::Left, &r.left), (Side::Right, &r.right)] {
            for l in &s.setting {
                if !l.shared || side == Side::Left {
                    told.push((axle, (!l.shared).then_some(side), l.name.clone()));
                }
            }
        }
    }
    let mut listed: Vec<_> = a.orders.iter().map(|o| (o.axle, o.side, o.line.name.clone())).collect();
    assert_eq!(listed.len(), told.len());
    listed.sort();
    told.sort();
    assert_eq!(listed, told);
    let order: Vec<(bool, bool)> =
        a.orders.iter().map(|o| (o.axle == Axle::Front, o.line.sets_toe)).collect();
    assert!(order.is_sorted(), "{order:?}");
}

#[test]
fn a_rear_with_two_arms_shows_both_and_is_set_before_the_front() {
    let mut c = both_axles();
    c.plan.axles.rear.height_change_mm = -25.0;
    c.plan.axles.rear.fitted = vec!["rear-camber-arm".into(), "rear-toe-arm".into()];
    let (a, steps) = worked(&c);
    orders_hold(&a);
    let rear: Vec<&str> =
        a.orders.iter().filter(|o| o.axle == Axle::Rear).map(|o| o.line.name.as_str()).collect();
    assert!(rear.len() >= 4, "both arms of both sides: {rear:?}");
    let at = |id: StepId| {
        steps.iter().position(|s| s.id == id).unwrap_or_else(|| panic!("{id} in {:?}", ids(&steps)))
    };
    let order = [
        at(StepId::Support),
        at(StepId::Height(Axle::Rear)),
        at(StepId::Height(Axle::Front)),
        at(StepId::Fit(Axle::Rear, "rear-camber-arm".into())),
        at(StepId::Fit(Axle::Rear, "rear-toe-arm".into())),
        at(StepId::Settled),
        at(StepId::Arms(Axle::Rear)),
        at(StepId::Toe(Axle::Rear)),
        at(StepId::Read(Axle::Rear)),
        at(StepId::Read(Axle::Front)),
        at(StepId::Toe(Axle::Front)),
        at(StepId::Tighten),
        at(StepId::Proved),
    ];
    assert!(order.is_sorted(), "{:?}", ids(&steps));
    // Each step carries every order of its part of the list, and the gates ask at the wheels they judge.
    for (step, toe) in [(StepId::Arms(Axle::Rear), false), (StepId::Toe(Axle::Rear), true)] {
        let step = &steps[at(step)];
        let of: Vec<_> =
            a.orders.iter().filter(|o| o.axle == Axle::Rear && o.line.sets_toe == toe).cloned().collect();
        assert_eq!(step.orders, of);
    }
    let needs = |id| steps[at(id)].needs.iter().map(|n| (n.axle, n.quantity)).collect::<Vec<_>>();
    assert_eq!(
        needs(StepId::Settled),
        [(Axle::Rear, GateReading::Height), (Axle::Front, GateReading::Height)]
    );
    assert_eq!(
        needs(StepId::Read(Axle::Rear)),
        [GateReading::Height, GateReading::Camber, GateReading::Toe].map(|q| (Axle::Rear, q)),
        "arms that move camber by degrees move heights too"
    );
    let detail = steps[at(StepId::Read(Axle::Rear))].detail.en();
    assert!(detail.starts_with("Heights within 5 mm of the plan"), "{detail}");
    assert_eq!(needs(StepId::Proved).len(), 5);
    // A gate tells its window as it judges it: toe's is narrower than a tenth of a degree tells.
    c.plan.aim.rear_toe_total_deg = Some([0.0, 0.15]);
    let (_, steps) = worked(&c);
    let gate = steps.iter().find(|s| s.id == StepId::Read(Axle::Rear)).unwrap();
    assert!(gate.detail.en().contains("total toe 0.0° to 0.15°"), "{}", gate.detail.en());
}

fn axle_of(id: &str, change: f64, fitted: &[&str]) -> PlanInput {
    let shape = shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap();
    let own = Corner::of(&shape.geometry, Side::Left).wheel(0.0, 0.0).unwrap().or_unsteered();
    let read = SideReadings {
        height_mm: 560.0,
        angles: Measured { camber_deg: own.camber_deg, caster_deg: own.caster_deg, toe_deg: 0.05 },
        sigma: Sigmas::default(),
        unread: Unread::default(),
    };
    let aim = shipped_aims().unwrap().remove(0);
    PlanInput {
        fitted: fitted.iter().map(|s| (*s).to_owned()).collect(),
        ..PlanInput::unchanged(shape.geometry, 3300.0, 560.0, Vec::new(), [read, read], aim)
    }
    .lifted(change)
}

#[test]
fn what_is_one_for_an_axle_is_ordered_once_and_only_what_changes_is_on_the_sheet() {
    // A live front with its track bar, read 20 mm off the middle.
    let mut front = axle_of("live_front", 40.0, &["adjustable-track-bar"]);
    front.axle_offset_mm = Some(-20.0);
    let (a, steps) = worked(&car(Some(&front), None));
    orders_hold(&a);
    let bars: Vec<_> = a.orders.iter().filter(|o| o.line.name.to_lowercase().contains("track bar")).collect();
    assert_eq!((bars.len(), bars[0].side, bars[0].line.moves()), (1, None, true), "{:?}", a.orders);
    let step = steps.iter().find(|s| s.id == StepId::Arms(Axle::Front)).unwrap();
    assert_eq!(step.detail.en().matches("track bar").count(), 1, "{}", step.detail.en());
    assert!(step.detail.en().starts_with("both wheels"), "{}", step.detail.en());
    assert_eq!(a.orders.iter().filter(|o| o.line.sets_toe && o.line.moves()).count(), 0, "{:?}", a.orders);
    let gate = steps.iter().find(|s| s.id == StepId::Read(Axle::Front)).unwrap();
    assert!(gate.needs.iter().any(|n| n.quantity == GateReading::Centre), "{:?}", gate.needs);
    // A rear one as well: its bar centres it and is no toe, and its gate measures the centre.
    let mut rear = axle_of("track_bar_rear", 40.0, &["adjustable-track-bar"]);
    rear.axle_offset_mm = Some(-20.0);
    let (a, steps) = worked(&car(None, Some(&rear)));
    orders_hold(&a);
    assert!(!steps.iter().any(|s| s.id == StepId::Toe(Axle::Rear)), "{:?}", ids(&steps));
    let gate = steps.iter().find(|s| s.id == StepId::Read(Axle::Rear)).unwrap();
    assert!(gate.needs.iter().any(|n| n.quantity == GateReading::Centre), "{:?}", gate.needs);
    let (a, steps) = worked(&car(None, Some(&electric_rear())));
    orders_hold(&a);
    // A car whose front was not read has no front steps, and proves its rear.
    assert!(!steps.iter().any(|s| s.axle == Some(Axle::Front)), "{:?}", ids(&steps));
    assert!(steps.last().unwrap().needs.iter().all(|n| n.axle == Axle::Rear));
    // A front that is left alone: no front height, no front parts.
    let front = PlanInput { moves: Axles::default(), ..truck() };
    let (_, steps) = worked(&car(Some(&front), Some(&electric_rear())));
    assert!(!steps.iter().any(|s| s.id == StepId::Height(Axle::Front)));
    assert!(steps.iter().any(|s| s.id == StepId::Height(Axle::Rear)));
    // A rear height pitches the body: caster is swept again all the same.
    assert!(steps.iter().any(|s| s.id == StepId::Read(Axle::Front) && s.kind == StepKind::Gate));
}

#[test]
fn what_was_found_worn_stops_the_plan_or_comes_first_on_its_sheet() {
    let found = |item: &str, side, answer: &str| Inspected { item: item.into(), side, answer: answer.into() };
    let mut c = both_axles();
    c.base.inspected.rear = vec![found("bushings", None, "torn"), found("dampers", None, "sound")];
    let (a, steps) = worked(&c);
    assert!(a.verdict.sentence.en().starts_with("Rear: Bushings are torn"), "{}", a.verdict.sentence.en());
    assert!(!a.verdict.headline.en().starts_with("Stop"), "torn bushings stop nothing");
    assert_eq!(steps[0].id, StepId::Repair);
    assert!(steps[0].detail.en().contains("Bushings are torn") && !steps[0].detail.en().contains("Dampers"));
    // Cords are said before anything else, whatever the angles do.
    c.base.inspected.front = vec![found("tyres", Some(Side::Left), "cords")];
    let (a, _) = worked(&c);
    assert!(!a.verdict.reached);
    assert!(
        a.verdict.headline.en().starts_with("Stop: left front, tyre: cords seen"),
        "{}",
        a.verdict.headline.en()
    );
}
