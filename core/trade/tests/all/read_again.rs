//! A reading that is odd orders nothing before it was read again; toe is read before what sets it is turned.

use crate::shop::Shop;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::plan::SettingLine;
use bold_stance_trade::prove::SideLeft;
use bold_stance_trade::reading::{Method, Visit};
use bold_stance_trade::sheet::{GateReading, Mark, SheetStep, StepId};
use bold_stance_words::English;

fn up_to(shop: &mut Shop, ids: &[StepId]) {
    for id in ids {
        shop.mark(Mark::Step(id.clone()), None).unwrap();
    }
}

fn lowered() -> Shop {
    let mut shop = Shop::new();
    up_to(&mut shop, &[StepId::Support, StepId::Height(Axle::Rear), StepId::Height(Axle::Front)]);
    shop
}

fn read(shop: &mut Shop, axle: Axle, side: Side, camber: f64, toe: f64) {
    shop.read(Visit::Reswept, axle, side, Method::CamberGauge, "angle", &format!("{camber:.3}"));
    shop.read(Visit::Reswept, axle, side, Method::ToeConvert, "value", &format!("{toe:.3} deg"));
}

fn wheel(shop: &Shop, side: Side) -> SideLeft {
    shop.sheet().left[0].sides[side].clone().unwrap()
}

fn step(shop: &Shop, id: StepId) -> SheetStep {
    shop.sheet().steps.into_iter().find(|s| s.id == id).unwrap()
}

/// The turns of one side's rod at a step.
fn rod(shop: &Shop, id: StepId, side: Side) -> SettingLine {
    step(shop, id).orders.into_iter().find(|o| o.side == Some(side)).unwrap().line
}

#[test]
fn nothing_is_ordered_by_an_odd_reading_until_it_was_read_twice() {
    let mut shop = lowered();
    up_to(&mut shop, &[StepId::Arms(Axle::Rear)]);
    let toe_as_planned = rod(&shop, StepId::Toe(Axle::Rear), Side::Left);
    // As expected on the right, a degree and more off on the left.
    read(&mut shop, Axle::Rear, Side::Right, -1.0, 0.1);
    let [camber, _, toe] = wheel(&shop, Side::Right).expected;
    read(&mut shop, Axle::Rear, Side::Right, camber, toe);
    read(&mut shop, Axle::Rear, Side::Left, -1.0, 0.1);
    let [camber, _, toe] = wheel(&shop, Side::Left).expected;
    // What came meanwhile was corrected: only the newest counts, and it agrees with nothing before it.
    read(&mut shop, Axle::Rear, Side::Left, camber + 2.2, toe + 0.9);
    let odd = wheel(&shop, Side::Left);
    assert!(odd.again, "{odd:?}");
    assert!(odd.headline.en().starts_with("Read it again"), "{}", odd.headline.en());
    assert!(odd.orders.iter().all(|o| !o.moves()), "{odd:?}");
    assert!(!odd.odd.is_empty() && odd.look.is_some());
    // It says nothing of what waits either: toe was odd as well, its turn stays as it was planned.
    assert_eq!(rod(&shop, StepId::Toe(Axle::Rear), Side::Left), toe_as_planned);
    assert_eq!(step(&shop, StepId::Toe(Axle::Rear)).read_again, [Side::Left], "and that is said");
    // Toe that came as it could is gone by, whatever camber says.
    let mut other = Shop { bundle: shop.bundle.clone(), minute: shop.minute };
    other.read(
        Visit::Reswept,
        Axle::Rear,
        Side::Left,
        Method::ToeConvert,
        "value",
        &format!("{:.3} deg", toe + 0.1),
    );
    assert!(wheel(&other, Side::Left).again);
    assert_ne!(rod(&other, StepId::Toe(Axle::Rear), Side::Left), toe_as_planned);
    assert!(step(&other, StepId::Toe(Axle::Rear)).read_again.is_empty());
    assert!(!wheel(&shop, Side::Right).again);
    assert!(shop.again(Axle::Rear, &[]).is_err(), "there is nothing to turn");

    // The same again: the car is another than was told, and what is left goes by it.
    read(&mut shop, Axle::Rear, Side::Left, camber + 2.15, toe + 0.92);
    let sure = wheel(&shop, Side::Left);
    assert!(!sure.again, "{sure:?}");
    assert!(sure.orders.iter().any(|o| o.moves() && !o.sets_toe), "{sure:?}");
    assert!(!sure.headline.en().starts_with("Read it again"));
}

#[test]
fn toe_is_turned_by_what_it_is_before_its_step() {
    for axle in [Axle::Rear, Axle::Front] {
        let mut shop = lowered();
        let id = StepId::Toe(axle);
        let sheet = shop.sheet();
        if sheet.steps.iter().any(|s| s.id == StepId::Arms(axle)) {
            up_to(&mut shop, &[StepId::Arms(axle)]);
        }
        let asked = step(&shop, id.clone()).helps;
        assert!(asked.iter().all(|n| n.axle == axle && n.quantity == GateReading::Toe) && !asked.is_empty());
        let view = |shop: &Shop| shop.sheet().gates.into_iter().find(|g| g.id == id).unwrap();
        assert!(view(&shop).missing.is_empty(), "it waits for nothing");
        // As far off as the plan's own order says, and a little more and again on the left: as many turns more each time, and
        // none on the right.
        let stands = |shop: &Shop| {
            let answer = shop.sheet().answer;
            let r = answer.axles[axle].clone().unwrap();
            let turns = step(shop, id.clone()).orders;
            let order = turns.iter().find(|o| o.side == Some(Side::Left)).unwrap().line.clone();
            let s = r.left.sensitivity.iter().find(|s| s.name == order.name).unwrap().toe_deg;
            r.left.set.toe_deg - s * order.steps
        };
        let from = stands(&shop);
        let mut orders = Vec::new();
        for by in [0.0, 0.08, 0.16] {
            let text = |v: f64| format!("{v:.3} deg");
            shop.read(Visit::Reswept, axle, Side::Left, Method::ToeConvert, "value", &text(from + by));
            shop.read(Visit::Reswept, axle, Side::Right, Method::ToeConvert, "value", &text(from));
            assert!(view(&shop).read.axle(axle).left.toe.is_some());
            orders.push(Side::BOTH.map(|s| rod(&shop, id.clone(), s).position));
        }
        let by = |n: usize, k: usize| orders[n + 1][k] - orders[n][k];
        assert!(by(0, 0).abs() > 0.02 && (by(1, 0) / by(0, 0) - 1.0).abs() < 0.25, "{axle:?}: {orders:?}");
        assert!(by(0, 1).abs() < 1e-9 && by(1, 1).abs() < 1e-9, "{axle:?}: {orders:?}");
    }
}
