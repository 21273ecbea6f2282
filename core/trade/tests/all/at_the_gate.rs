//! The gate of heights: what is left to turn there, what a turn taught, and orders at the height somebody went on at. And the
//! steering wheel after the road test.

use crate::shop::{Shop, clock};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::job::{AfterAct, AsDone, CameToRest, CornerBack, OpenVisit};
use bold_stance_trade::plan::Turned;
use bold_stance_trade::reading::{Method, Visit, shipped_prepare};
use bold_stance_trade::sheet::{CouldNot, GateAbout, Mark, StepId, Tick};
use bold_stance_units::LengthUnit;
use bold_stance_words::English;
use chrono::Duration;

const ALL: [(Axle, Side); 4] = [
    (Axle::Front, Side::Left),
    (Axle::Front, Side::Right),
    (Axle::Rear, Side::Left),
    (Axle::Rear, Side::Right),
];

fn planned(shop: &Shop, axle: Axle, side: Side) -> f64 {
    let answer = shop.sheet().answer;
    let r = answer.axles[axle].as_ref().unwrap();
    if side == Side::Left { r.left.planned_height_mm } else { r.right.planned_height_mm }
}

fn tape(shop: &mut Shop, axle: Axle, side: Side, mm: f64) {
    shop.read(Visit::Settled, axle, side, Method::HeightHub, "value", &format!("{mm:.1} mm"));
}

fn corner(shop: &Shop, axle: Axle, side: Side) -> CornerBack {
    shop.sheet().settled.into_iter().find(|c| c.axle == axle && c.side == side).unwrap()
}

/// A shop at its gate of heights, every step before it done, corners off the plan by so much.
fn at_gate(off: impl Fn(Axle, Side) -> f64) -> Shop {
    let mut shop = Shop::new();
    for step in [StepId::Support, StepId::Height(Axle::Rear), StepId::Height(Axle::Front)] {
        if shop.sheet().steps.iter().any(|s| s.id == step) {
            shop.mark(Mark::Step(step), None).unwrap();
        }
    }
    for (axle, side) in ALL {
        let mm = planned(&shop, axle, side) + off(axle, side);
        tape(&mut shop, axle, side, mm);
    }
    for t in [Tick::Roll, Tick::Bounce] {
        shop.mark(Mark::Tick(StepId::Settled, t), None).unwrap();
    }
    shop
}

#[test]
fn a_corner_25_mm_low_is_turned_up_at_the_gate_and_the_turns_teach_the_next() {
    let low = |a, s| if (a, s) == (Axle::Front, Side::Right) { -25.0 } else { 0.0 };
    let mut shop = at_gate(low);
    let c = corner(&shop, Axle::Front, Side::Right);
    assert_eq!(c.rest, CameToRest::TooFar);
    assert!((c.off_mm + 25.0).abs() < 0.1, "{c:?}");
    for (axle, side) in ALL.into_iter().filter(|w| *w != (Axle::Front, Side::Right)) {
        assert_eq!(corner(&shop, axle, side).rest, CameToRest::AsSaid);
    }
    // Against 25 mm the gate does not open without a reason.
    assert!(shop.mark(Mark::Step(StepId::Settled), None).unwrap_err().starts_with("reason"));

    let by = Some(Turned::Collar { pitch_mm: Some(2.0), motion_ratio: Some(0.8) });
    shop.act(AfterAct::TurnsBy { axle: Axle::Front, turned: by }).unwrap();
    let order = corner(&shop, Axle::Front, Side::Right).trim.unwrap();
    assert!((order.by_mm - 25.0).abs() <= order.mm_per_turn / 8.0 + 1e-9, "{order:?}");
    assert!(order.turns > 0.0 && order.words.en().ends_with("up") && order.records == 0);
    // Six turns of it, really; and one that could not be turned leaves the tapes true.
    let trim = |amount: &str, could_not| AfterAct::Trimmed {
        axle: Axle::Front,
        side: Side::Right,
        amount: amount.into(),
        could_not,
    };
    shop.act(trim("", Some(CouldNot::Seized))).unwrap();
    assert_eq!(corner(&shop, Axle::Front, Side::Right).rest, CameToRest::TooFar);
    assert!(shop.act(trim("many", None)).unwrap_err().starts_with("amount"));
    shop.act(trim("6", None)).unwrap();
    assert_eq!(corner(&shop, Axle::Front, Side::Right).rest, CameToRest::Stale);
    // The other side of the axle moved with it: both are taped again before anything opens.
    let gate = shop.sheet().gates.into_iter().find(|g| g.id == StepId::Settled).unwrap();
    let stale: Vec<_> = gate.off.iter().filter(|f| f.stale && f.about == GateAbout::Height).collect();
    assert_eq!(stale.len(), 2, "{:?}", gate.off);
    assert!(stale.iter().all(|f| f.axle == Some(Axle::Front)));

    // Each turn gave 1 mm, where 1.6 or more was thought.
    let high = planned(&shop, Axle::Front, Side::Left);
    tape(&mut shop, Axle::Front, Side::Left, high);
    let to = planned(&shop, Axle::Front, Side::Right);
    tape(&mut shop, Axle::Front, Side::Right, to - 25.0 + 6.0);
    let c = corner(&shop, Axle::Front, Side::Right);
    let next = c.trim.unwrap();
    assert!((c.off_mm + 19.0).abs() < 0.1 && c.trims.len() == 2);
    assert!(next.records == 1 && next.mm_per_turn < order.mm_per_turn, "{next:?}");
    // Followed as it says, in a car whose turns give what it believes, the corner comes to the plan.
    shop.act(trim("", None)).unwrap();
    tape(&mut shop, Axle::Front, Side::Left, high);
    tape(&mut shop, Axle::Front, Side::Right, next.to_mm);
    let gate = shop.sheet().gates.into_iter().find(|g| g.id == StepId::Settled).unwrap();
    assert!(gate.off.is_empty(), "{:?}", gate.off);
    assert!(shop.sheet().settled.iter().all(|c| c.trim.is_none()));
    shop.mark(Mark::Step(StepId::Settled), None).unwrap();
    assert!(shop.sheet().settled.is_empty(), "the gate is behind");
}

/// The same figures once as a plan made for that height.
#[test]
fn whoever_goes_on_at_another_height_gets_the_orders_of_that_height() {
    let low = |a, _| if a == Axle::Front { -12.0 } else { 0.0 };
    let mut shop = at_gate(low);
    let before = shop.sheet().answer;
    shop.mark(Mark::Step(StepId::Settled), Some("springs are what they are")).unwrap();
    let sheet = shop.sheet();

    let mut made = Shop::new();
    made.bundle.plans[0].document.axles.front.height_change_mm -= 12.0;
    let wanted = made.sheet().answer;
    let of = |a: &bold_stance_trade::plan::CarAnswer| -> Vec<(String, f64)> {
        a.orders
            .iter()
            .map(|o| (format!("{:?} {:?} {}", o.axle, o.side, o.line.name), o.line.position))
            .collect()
    };
    let (was, is, wants) = (of(&before), of(&sheet.answer), of(&wanted));
    assert_eq!(is.len(), wants.len());
    for ((name, p), (other, q)) in is.iter().zip(&wants) {
        assert!(name == other && (p - q).abs() < 1e-6, "{name}: {p} against {q}");
    }
    assert!(was.iter().zip(&is).any(|(a, b)| (a.1 - b.1).abs() > 0.1), "12 mm turn nothing here: no test");
    let front = sheet.answer.axles.front.as_ref().unwrap();
    let plan = wanted.axles.front.as_ref().unwrap();
    assert!((front.left.set.camber_deg - plan.left.set.camber_deg).abs() < 1e-6);
    // The reason and what it was against stay in the record.
    let kept = &shop.bundle.done.last().unwrap().record;
    assert!(kept.reason.is_some() && kept.off.iter().any(|f| f.about == GateAbout::Height));
    // Taken back, the plan stands as it was made.
    shop.bundle.done.retain(|d| d.step != Mark::Step(StepId::Settled));
    assert_eq!(of(&shop.sheet().answer), was);
}

/// Work for one plan stays on the car: another plan of the job orders from where the adjusters stand, not from as found.
#[test]
fn a_second_plan_starts_where_the_first_left_the_adjusters() {
    let mut shop = at_gate(|_, _| 0.0);
    shop.mark(Mark::Step(StepId::Settled), None).unwrap();
    let fits =
        shop.sheet().steps.into_iter().map(|s| s.id).filter(|s| matches!(s, StepId::Fit(Axle::Rear, _)));
    for step in fits.collect::<Vec<_>>() {
        shop.mark(Mark::Step(step), None).unwrap();
    }
    let arms = |shop: &Shop| -> Vec<bold_stance_trade::plan::Order> {
        let all = shop.sheet().answer.orders;
        all.into_iter().filter(|o| o.axle == Axle::Rear && !o.line.sets_toe).collect()
    };
    let ordered = arms(&shop);
    let left = ordered.iter().find(|o| o.side == Some(Side::Left) && o.line.moves()).unwrap();
    assert!(left.line.movement > 1.5, "too few turns for a test: {left:?}");
    // The left one is turned once, really; the right one as ordered.
    let once = AsDone {
        side: left.side,
        name: left.line.name.clone(),
        amount: "1".into(),
        unit: LengthUnit::Mm,
        could_not: None,
    };
    shop.mark_as(Mark::Step(StepId::Arms(Axle::Rear)), &[once]).unwrap();
    let turned = shop.bundle.done.last().unwrap().record.rounds[0].turned.clone();

    // Another plan of the job, the same one again: the right arm stands there already, the left one has the rest to go.
    let mut second = shop.bundle.plans[0].clone();
    second.id = uuid::Uuid::from_u128(8);
    shop.bundle.chosen_plan = Some(second.id);
    shop.bundle.plans.push(second);
    let rest = arms(&shop);
    for o in &rest {
        let t = turned.iter().find(|t| t.name == o.line.name && t.side == o.side);
        let stands = t.map_or(0.0, |t| t.position);
        assert!((o.line.position - o.line.movement - stands).abs() < 1e-9, "{o:?} {t:?}");
    }
    let of = |list: &[bold_stance_trade::plan::Order], side| {
        list.iter().find(|o| o.side == Some(side) && o.line.name == left.line.name).unwrap().line.clone()
    };
    let more = of(&rest, Side::Left);
    assert!((more.movement - (left.line.movement - 1.0)).abs() < 0.05, "{more:?}");
    assert!(of(&rest, Side::Right).movement.abs() < 0.05);
    // Before it, the wheel stands as one turn leaves it, not as found.
    let hand = more.in_hand.unwrap();
    let first = left.line.in_hand.as_ref().unwrap();
    let (from, to, now) = (first.before.unwrap()[0], first.after.unwrap()[0], hand.before.unwrap()[0]);
    assert!(now > from + 0.1 && now < to - 0.1, "{from} {now} {to}");
    assert!((hand.after.unwrap()[0] - to).abs() < 0.05, "it comes where the first plan said");
}

fn toe_with(shop: &Shop, side: Side, turns: f64) -> f64 {
    let shape = &shop.bundle.vehicle.axles.front;
    let g = shape.geometry.as_ref().unwrap();
    let own = &shop.bundle.vehicle.car.axles.front.adjusters;
    let rod = own.iter().map(|a| a.on(side)).find(|a| a.is_tie_rod()).unwrap();
    let edits: Vec<Edit> = rod.edits_at(rod.position + turns);
    Corner::of(g, side).edited(&edits).wheel(0.0, 0.0).unwrap().toe_deg
}

#[test]
fn a_steering_wheel_that_stands_off_is_put_straight_by_both_rods_and_total_toe_stays() {
    let mut shop = Shop::new();
    assert!(shop.sheet().road.is_none());
    let test = |off: &str, side| AfterAct::RoadTested { wheel_off: off.into(), side, felt: "no pull".into() };
    assert!(shop.act(test("6", None)).unwrap_err().starts_with("side"));
    assert!(shop.act(test("a lot", Some(Side::Left))).unwrap_err().starts_with("wheel_off"));
    assert!(shop.act(AfterAct::WheelTurned).unwrap_err().starts_with("act"));
    shop.act(test("1", Some(Side::Left))).unwrap();
    let road = shop.sheet().road.unwrap();
    assert!(road.orders.is_empty() && road.headline.en().contains("straight"), "{road:?}");

    for side in Side::BOTH {
        shop.read(Visit::Proved, Axle::Front, side, Method::ToeConvert, "value", "0.1 deg");
    }
    // Farther off than the rods have thread, nothing is ordered.
    shop.act(test("170", Some(Side::Left))).unwrap();
    let far = shop.sheet().road.unwrap();
    assert!(far.orders.is_empty() && far.headline.en().contains("runs out of thread"), "{far:?}");
    shop.act(test("8", Some(Side::Left))).unwrap();
    let road = shop.sheet().road.unwrap();
    let [l, r] = [Side::Left, Side::Right]
        .map(|s| road.orders.iter().find(|o| o.side == Some(s)).unwrap_or_else(|| panic!("{road:?}")).turns);
    // Held straight, its wheel stands 8 degrees to the left: both road wheels go 8 over the ratio to the left, the left one
    // out, the right one in (plane geometry, by hand).
    let ratio = shop.bundle.vehicle.car.steering_ratio;
    let [dl, dr] =
        [(Side::Left, l), (Side::Right, r)].map(|(s, t)| toe_with(&shop, s, t) - toe_with(&shop, s, 0.0));
    assert!((dl + 8.0 / ratio).abs() < 0.06 && (dr - 8.0 / ratio).abs() < 0.06, "{dl} {dr} {ratio}");
    assert!((dl + dr).abs() < 0.08, "total toe moves by {}", dl + dr);
    assert!(l * r < 0.0, "one longer, one shorter");
    shop.act(AfterAct::WheelTurned).unwrap();
    let road = shop.sheet().road.unwrap();
    assert!(road.turned && road.headline.en().contains("drive it again"), "{road:?}");
    // Both front wheels' toe moved: what was read before it is stale at the last gate.
    let toe = |shop: &Shop| {
        let gate = shop.sheet().gates.into_iter().find(|g| g.id == StepId::Proved).unwrap();
        Side::BOTH.map(|s| gate.read.front[s].toe.unwrap().stale)
    };
    assert_eq!(toe(&shop), [true, true]);
    for side in Side::BOTH {
        shop.read(Visit::Proved, Axle::Front, side, Method::ToeConvert, "value", "0.1 deg");
    }
    assert_eq!(toe(&shop), [false, false]);
    assert!(shop.act(AfterAct::WheelTurned).is_err(), "turned once");
    // The other way it goes the other way.
    shop.act(test("8", Some(Side::Right))).unwrap();
    let other = shop.sheet().road.unwrap();
    assert!(other.orders[0].turns * l < 0.0);
}

/// A rod whose turns were found to do half as much again as they are said to is turned less for the steering wheel.
#[test]
fn what_a_rod_was_found_to_do_is_in_the_turns_for_the_steering_wheel() {
    let mut shop = Shop::new();
    shop.act(AfterAct::RoadTested { wheel_off: "12".into(), side: Some(Side::Left), felt: String::new() })
        .unwrap();
    let turns = |shop: &Shop| {
        let orders = shop.sheet().road.unwrap().orders;
        Side::BOTH.map(|s| orders.iter().find(|o| o.side == Some(s)).unwrap().turns)
    };
    let said = turns(&shop);
    let of = |shop: &Shop, side: Side| {
        let a = shop.sheet().answer;
        let line = a.orders.iter().find(|o| o.axle == Axle::Front && o.side == Some(side) && o.line.sets_toe);
        let front = a.axles.front.as_ref().unwrap();
        let plan = if side == Side::Left { &front.left } else { &front.right };
        let line = line.unwrap().line.clone();
        let per = plan.sensitivity.iter().find(|s| s.name == line.name).unwrap().toe_deg;
        (line.movement, per, plan.after.toe_deg)
    };
    let stood = Side::BOTH.map(|s| of(&shop, s));
    shop.mark(Mark::Step(StepId::Toe(Axle::Front)), None).unwrap();
    for (side, (turned, per, toe)) in Side::BOTH.into_iter().zip(stood) {
        assert!(turned.abs() > 0.2, "turned far enough to tell: {turned}");
        let came = format!("{:.3} deg", toe + 1.5 * turned * per);
        shop.read(Visit::Proved, Axle::Front, side, Method::ToeConvert, "value", &came);
    }
    let now = turns(&shop);
    for k in 0..2 {
        let share = now[k] / said[k];
        assert!((0.6..0.95).contains(&share), "{share}: {now:?} for {said:?}");
    }
}

#[test]
fn a_gate_shows_the_days_answers_that_hold_at_it_and_of_another_day_none() {
    let mut shop = Shop::new();
    let answers =
        |list: &[(&str, &str)]| list.iter().map(|(k, v)| ((*k).to_owned(), (*v).to_owned())).collect();
    let found = |hours: i64, shop: &mut Shop| {
        shop.bundle.visits = vec![OpenVisit {
            kind: Visit::Found,
            version: 1,
            answers: answers(&[
                ("floor_front", "0.2"),
                ("pressures", "yes"),
                ("settled", "yes"),
                ("fuel", " "),
            ]),
            author: "Specialist A".into(),
            opened_at: clock(shop.minute) - Duration::hours(hours),
        }];
        let gate = shop.sheet().gates.into_iter().find(|g| g.id == StepId::Read(Axle::Front)).unwrap();
        gate.holds.into_iter().map(|h| (h.ask, h.answer)).collect::<Vec<_>>()
    };
    let today = found(2, &mut shop);
    assert!(today.iter().any(|(ask, a)| ask.contains("loor") && a == "0.2"), "{today:?}");
    assert!(today.iter().all(|(_, a)| !a.trim().is_empty()));
    let settled = shipped_prepare().unwrap().into_iter().find(|i| i.id == "settled").unwrap();
    assert!(today.iter().all(|(ask, _)| *ask != settled.ask), "work on the car changes that: {today:?}");
    assert_eq!(found(30, &mut shop), Vec::new());
}
