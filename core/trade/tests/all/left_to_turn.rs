//! What was really done of a sheet, and what is left to turn after it was read.

use crate::shop::Shop;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::job::{AsDone, JobBundle};
use bold_stance_trade::reading::{Method, Visit};
use bold_stance_trade::sheet::{Mark, StepId};
use bold_stance_units::LengthUnit;
use bold_stance_words::English;

/// A rear camber arm turned a way the wrong way: the reading says so, the next order goes from where it really stands,
/// what was read before it is stale, and nothing is left after it.
#[test]
fn an_arm_turned_the_wrong_way_is_walked_back_by_what_was_read() {
    let mut shop = Shop::new();
    let step = |s| Mark::Step(s);
    for s in [StepId::Support, StepId::Height(Axle::Rear), StepId::Height(Axle::Front)] {
        shop.mark(step(s), None).unwrap();
    }
    let arms = shop.sheet().steps.into_iter().find(|s| s.id == StepId::Arms(Axle::Rear)).unwrap();
    let ordered =
        arms.orders.iter().find(|o| o.side == Some(Side::Left) && o.line.moves()).unwrap().line.clone();
    let told = |amount: &str| AsDone {
        side: Some(Side::Left),
        name: ordered.name.clone(),
        amount: amount.into(),
        unit: LengthUnit::Mm,
        could_not: None,
    };
    assert!(shop.again(Axle::Rear, &[]).unwrap_err().starts_with("axle"));
    let bad = shop.mark_as(step(StepId::Arms(Axle::Rear)), &[told("two or so")]).unwrap_err();
    assert!(bad.starts_with("as_done.0.amount"), "{bad}");
    // What it has no thread for is refused, and told what it has.
    let bad = shop.mark_as(step(StepId::Arms(Axle::Rear)), &[told("300")]).unwrap_err();
    assert!(bad.starts_with("as_done.0.amount") && bad.contains("past its end"), "{bad}");
    assert!(shop.mark_as(step(StepId::Support), &[told("1")]).unwrap_err().starts_with("as_done.0.name"));
    let other = AsDone { name: "no such arm".into(), ..told("1") };
    assert!(
        shop.mark_as(step(StepId::Arms(Axle::Rear)), &[other]).unwrap_err().starts_with("as_done.0.name")
    );
    let really = -0.5 * ordered.steps.abs();
    shop.mark_as(step(StepId::Arms(Axle::Rear)), &[told(&format!("{really}"))]).unwrap();
    let kept = &shop.bundle.done.last().unwrap().record.rounds[0].turned;
    let left = kept.iter().find(|t| t.side == Some(Side::Left) && t.name == ordered.name).unwrap().clone();
    assert!((left.position - left.from + 0.5 * ordered.movement).abs() < 1e-6, "{left:?}");
    assert!(kept.iter().filter(|t| t.side == Some(Side::Right)).all(|t| t.position == t.ordered));
    assert!(shop.sheet().left.is_empty());

    let wheel = |shop: &Shop, side: Side| shop.sheet().left[0].sides[side].clone().unwrap();
    let read = |shop: &mut Shop, side: Side, a: [f64; 3]| {
        shop.read(Visit::Reswept, Axle::Rear, side, Method::CamberGauge, "angle", &format!("{:.3}", a[0]));
        shop.read(Visit::Reswept, Axle::Rear, side, Method::ToeConvert, "value", &format!("{:.3} deg", a[2]));
    };
    for side in Side::BOTH {
        // What a car that does what the model says shows as it was really turned.
        read(&mut shop, side, [-1.0, 0.0, 0.1]);
        let shows = wheel(&shop, side).expected;
        read(&mut shop, side, shows);
    }
    let l = wheel(&shop, Side::Left);
    assert!(l.odd.is_empty() && l.headline.en().starts_with("Left to turn"), "{l:?}");
    let back = l.orders.iter().find(|o| o.name == ordered.name).unwrap();
    assert!(back.moves() && back.movement * ordered.movement > 0.0, "{back:?}");
    assert!((back.movement - back.position + left.position).abs() < 1e-9, "from where it stands");
    let gate =
        |shop: &Shop| shop.sheet().gates.into_iter().find(|g| g.id == StepId::Read(Axle::Rear)).unwrap().off;
    assert!(gate(&shop).iter().any(|f| f.side == Some(Side::Left)), "{:?}", gate(&shop));

    // Toe that waits is ordered by what was read: in words, in the figure and on the step alike.
    let sheet = shop.sheet();
    let waits = sheet.steps.iter().find(|s| s.id == StepId::Toe(Axle::Rear));
    for o in waits.iter().flat_map(|s| &s.orders).filter(|o| o.line.moves()) {
        let words = o.line.words.en();
        assert!(waits.unwrap().detail.en().contains(&words), "{words} in {}", waits.unwrap().detail.en());
        // The arms stand where they stand when it is turned.
        let own = sheet.left[0].toe.iter().find(|l| l.side == o.side && l.line.name == o.line.name);
        assert_eq!(own.unwrap().line.words.en(), words);
    }

    shop.again(Axle::Rear, &[]).unwrap();
    assert!(shop.sheet().left.iter().all(|l| l.sides.left.is_none()));
    assert!(gate(&shop).iter().any(|f| f.stale));
    for side in Side::BOTH {
        read(&mut shop, side, [-1.0, 0.0, 0.1]);
        let shows = wheel(&shop, side).expected;
        read(&mut shop, side, shows);
    }
    let l = wheel(&shop, Side::Left);
    assert!(l.rounds == 2 && l.orders.iter().filter(|o| !o.sets_toe).all(|o| !o.moves()), "{l:?}");
    let off = gate(&shop);
    assert!(off.iter().all(|f| !f.stale && f.off_expected == 0.0), "{off:?}");
    // The job's file carries it.
    let file = serde_json::to_value(&shop.bundle).unwrap();
    let again: JobBundle = serde_json::from_value(file).unwrap();
    assert_eq!(again, shop.bundle);
}
