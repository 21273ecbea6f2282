//! Heights looked at again behind arms that can have moved them: at the axle's own gate, with the turns that bring a corner
//! back, and what goes on from there.

use crate::shop::Shop;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::job::{AfterAct, CameToRest, CornerBack, GateView};
use bold_stance_trade::plan::Turned;
use bold_stance_trade::reading::{Method, Visit};
use bold_stance_trade::sheet::{GateAbout, GateReading, Mark, StepId, StepKind};

const GATE: StepId = StepId::Read(Axle::Rear);

fn planned(shop: &Shop, axle: Axle, side: Side) -> f64 {
    let answer = shop.sheet().answer;
    let r = answer.axles[axle].as_ref().unwrap();
    if side == Side::Left { r.left.planned_height_mm } else { r.right.planned_height_mm }
}

fn tape(shop: &mut Shop, visit: Visit, (axle, side): (Axle, Side), mm: f64) {
    shop.read(visit, axle, side, Method::HeightHub, "value", &format!("{mm:.1} mm"));
}

fn rear_gate(shop: &Shop) -> GateView {
    shop.sheet().gates.into_iter().find(|g| g.id == GATE).unwrap()
}

fn corner(shop: &Shop, side: Side) -> CornerBack {
    shop.sheet().settled.into_iter().find(|c| c.axle == Axle::Rear && c.side == side).unwrap()
}

/// A shop whose rear arms are turned, the gate of heights behind it; heights stood as planned there.
fn at_the_rear_gate() -> Shop {
    let mut shop = Shop::new();
    for _ in 0..12 {
        let sheet = shop.sheet();
        let done = |id: &StepId| shop.bundle.done.iter().any(|d| d.step == Mark::Step(id.clone()));
        let next = sheet.steps.iter().find(|s| !done(&s.id)).cloned().unwrap();
        if next.id == GATE {
            return shop;
        }
        if next.kind == StepKind::Gate {
            assert_eq!(next.id, StepId::Settled);
            for t in &next.ticks {
                shop.mark(Mark::Tick(next.id.clone(), t.id), None).unwrap();
            }
            for n in &next.needs {
                for side in Side::BOTH {
                    let mm = planned(&shop, n.axle, side);
                    tape(&mut shop, Visit::Settled, (n.axle, side), mm);
                }
            }
        }
        shop.mark(Mark::Step(next.id), None).unwrap();
    }
    panic!("no rear gate")
}

fn angles(shop: &mut Shop) {
    let sheet = shop.sheet();
    let r = sheet.answer.axles.rear.as_ref().unwrap();
    for (side, s) in [(Side::Left, &r.left), (Side::Right, &r.right)] {
        let camber = format!("{:.2}", s.set.camber_deg);
        shop.read(Visit::Reswept, Axle::Rear, side, Method::CamberGauge, "angle", &camber);
        let toe = format!("{:.3} deg", s.set.toe_deg);
        shop.read(Visit::Reswept, Axle::Rear, side, Method::ToeConvert, "value", &toe);
    }
}

#[test]
fn a_corner_that_came_down_with_its_arms_is_turned_back_up_and_its_angles_read_again() {
    let mut shop = at_the_rear_gate();
    assert!(shop.sheet().settled.is_empty(), "nothing was taped behind the arms yet");
    let waits = rear_gate(&shop).missing.len();
    angles(&mut shop);
    let missing = rear_gate(&shop).missing;
    assert_eq!(waits - missing.len(), 4, "{missing:?}");

    for side in Side::BOTH {
        let low = if side == Side::Right { 12.0 } else { 0.0 };
        let mm = planned(&shop, Axle::Rear, side) - low;
        tape(&mut shop, Visit::Reswept, (Axle::Rear, side), mm);
    }
    let off = rear_gate(&shop).off;
    assert!(off.iter().any(|f| f.about == GateAbout::Height && f.side == Some(Side::Right)), "{off:?}");
    // The rear's corners alone, the front's gate of heights is behind.
    assert!(shop.sheet().settled.iter().all(|c| c.axle == Axle::Rear));
    assert_eq!(corner(&shop, Side::Right).rest, CameToRest::TooFar);
    assert_eq!(corner(&shop, Side::Left).rest, CameToRest::AsSaid);

    let by = Some(Turned::Collar { pitch_mm: Some(2.0), motion_ratio: Some(0.8) });
    shop.act(AfterAct::TurnsBy { axle: Axle::Rear, turned: by }).unwrap();
    let order = corner(&shop, Side::Right).trim.unwrap();
    assert!((order.by_mm - 12.0).abs() <= order.mm_per_turn / 8.0 + 1e-9, "{order:?}");
    let trim =
        AfterAct::Trimmed { axle: Axle::Rear, side: Side::Right, amount: String::new(), could_not: None };
    shop.act(trim).unwrap();
    // Both tapes and every angle of the axle were taken at another height.
    let off = rear_gate(&shop).off;
    let stale = |about: &[GateAbout]| off.iter().filter(|f| f.stale && about.contains(&f.about)).count();
    assert_eq!(stale(&[GateAbout::Height]), 2, "{off:?}");
    assert_eq!(stale(&[GateAbout::Camber, GateAbout::Toe]), 4, "{off:?}");
    assert_eq!(corner(&shop, Side::Right).rest, CameToRest::Stale);

    for side in Side::BOTH {
        let mm = planned(&shop, Axle::Rear, side);
        tape(&mut shop, Visit::Reswept, (Axle::Rear, side), mm);
    }
    angles(&mut shop);
    let off = rear_gate(&shop).off;
    assert!(off.iter().all(|f| !f.stale && f.off_expected == 0.0), "{off:?}");
    // What the turns gave here is known at the next look.
    let tapes = corner(&shop, Side::Right);
    assert!(tapes.trims.len() == 1 && tapes.trim.is_none(), "{tapes:?}");
}

#[test]
fn a_toe_arm_turned_leaves_the_heights_as_they_were_taped() {
    let mut shop = at_the_rear_gate();
    for side in Side::BOTH {
        let mm = planned(&shop, Axle::Rear, side);
        tape(&mut shop, Visit::Reswept, (Axle::Rear, side), mm);
    }
    angles(&mut shop);
    let toe = Mark::Step(StepId::Toe(Axle::Rear));
    shop.bundle.done.retain(|d| d.step != toe);
    // It is not where it should be: there is something to turn.
    for side in Side::BOTH {
        shop.read(Visit::Reswept, Axle::Rear, side, Method::ToeConvert, "value", "0.5 deg");
    }
    shop.mark(toe, None).unwrap();
    let off = rear_gate(&shop).off;
    let stale = |height: bool| off.iter().any(|f| f.stale && (f.about == GateAbout::Height) == height);
    assert!(stale(false) && !stale(true), "{off:?}");
}

#[test]
fn whoever_goes_on_behind_the_arms_goes_on_at_the_heights_read_there() {
    let mut shop = at_the_rear_gate();
    let plan = [Side::Left, Side::Right].map(|s| planned(&shop, Axle::Rear, s));
    for (side, mm) in Side::BOTH.into_iter().zip(plan) {
        tape(&mut shop, Visit::Reswept, (Axle::Rear, side), mm - 11.0);
    }
    angles(&mut shop);
    let gate = shop.sheet().steps.into_iter().find(|s| s.id == GATE).unwrap();
    for t in gate.ticks {
        shop.mark(Mark::Tick(GATE, t.id), None).unwrap();
    }
    assert!(shop.mark(Mark::Step(GATE), None).unwrap_err().starts_with("reason"));
    shop.mark(Mark::Step(GATE), Some("springs are what they are")).unwrap();
    assert!(shop.sheet().settled.is_empty(), "the gate is behind");
    for (side, mm) in Side::BOTH.into_iter().zip(plan) {
        assert!((planned(&shop, Axle::Rear, side) - (mm - 11.0)).abs() < 0.06);
    }
    // The front was not read again: it stands where it was planned.
    let needs = |axle| {
        let steps = shop.sheet().steps;
        let gate = steps.into_iter().find(|s| s.id == StepId::Read(axle)).unwrap();
        gate.needs.iter().any(|n| n.quantity == GateReading::Height)
    };
    assert!(needs(Axle::Rear));
}

/// Both wheels of an axle are weighed together: a gauge whose zero is off shows at both, a bolt that was turned otherwise at
/// one.
#[test]
fn what_comes_to_both_wheels_is_told_by_both() {
    let odds = |off: [f64; 2]| {
        let mut shop = at_the_rear_gate();
        let r = shop.sheet().answer.axles.rear.unwrap();
        for (side, s, off) in [(Side::Left, &r.left, off[0]), (Side::Right, &r.right, off[1])] {
            let camber = format!("{:.2}", s.set.camber_deg + off);
            shop.read(Visit::Reswept, Axle::Rear, side, Method::CamberGauge, "angle", &camber);
            let toe = format!("{:.3} deg", s.set.toe_deg);
            shop.read(Visit::Reswept, Axle::Rear, side, Method::ToeConvert, "value", &toe);
        }
        let sheet = shop.sheet();
        let left = sheet.left[0].sides.left.clone().unwrap();
        let of = |id: &str| left.odd.iter().find(|e| e.what.id == id).map_or(0.0, |e| e.odds);
        (of("explain-zero"), left.odd)
    };
    let (one, alone) = odds([0.9, 0.0]);
    let (both, together) = odds([0.9, 0.9]);
    assert!(!alone.is_empty() && both > 1.5 * one, "{one} {both} {alone:?} {together:?}");
    assert!(together.iter().map(|e| e.odds).sum::<f64>() <= 1.0 + 1e-9);
}
