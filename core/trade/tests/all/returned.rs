//! A car that comes back: what fell, the turns that bring it up, what a turn taught, a second time, and the file.

use crate::shop::{Shop, clock};
use bold_stance_car::vehicle::Spring;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::job::{AfterAct, CameToRest, CornerBack, JobBundle, OpenVisit, Returned};
use bold_stance_trade::memory::KnownHeights;
use bold_stance_trade::plan::{AngleName, Turned};
use bold_stance_trade::reading::{Method, Visit};
use bold_stance_trade::sheet::CouldNot;
use bold_stance_words::English;

const ALL: [(Axle, Side); 4] = [
    (Axle::Front, Side::Left),
    (Axle::Front, Side::Right),
    (Axle::Rear, Side::Left),
    (Axle::Rear, Side::Right),
];

fn tape(shop: &mut Shop, visit: Visit, axle: Axle, side: Side, mm: f64) {
    shop.read(visit, axle, side, Method::HeightHub, "value", &format!("{mm:.1} mm"));
}

fn back(shop: &Shop) -> Returned {
    shop.sheet().returned.unwrap()
}

fn corner(shop: &Shop, axle: Axle, side: Side) -> CornerBack {
    back(shop).corners.into_iter().find(|c| c.axle == axle && c.side == side).unwrap()
}

fn came(driven_km: f64) -> AfterAct {
    AfterAct::CameBack { driven_km: Some(driven_km) }
}

fn trim(side: Side, amount: &str) -> AfterAct {
    AfterAct::Trimmed { axle: Axle::Front, side, amount: amount.into(), could_not: None }
}

/// A car set at 340 in front and 335 behind, said to settle 4 and 3 mm.
fn set() -> Shop {
    let mut shop = Shop::new();
    let plan = &mut shop.bundle.plans[0].document;
    (plan.axles.front.settle_mm, plan.axles.rear.settle_mm) = (4.0, 3.0);
    for kind in [Visit::Settled, Visit::Returned] {
        let yes = ["settled", "pressures"].map(|i| (i.to_owned(), "yes".to_owned()));
        let none = ["fuel", "seats", "cargo"].map(|i| (i.to_owned(), "0".to_owned()));
        let answers = yes.into_iter().chain(none).collect();
        let author = "Specialist A".to_owned();
        shop.bundle.visits.push(OpenVisit { kind, version: 1, answers, author, opened_at: clock(0) });
    }
    for (axle, side) in ALL {
        tape(&mut shop, Visit::Settled, axle, side, if axle == Axle::Front { 340.0 } else { 335.0 });
    }
    shop
}

#[test]
fn nine_millimetres_lost_at_one_corner_are_turned_back() {
    let mut shop = set();
    assert!(shop.sheet().returned.is_none());
    assert!(shop.act(trim(Side::Right, "")).unwrap_err().starts_with("side"));
    shop.act(came(610.0)).unwrap();
    assert!(back(&shop).headline.en().starts_with("Roll it"));
    // Pressed twice is once.
    let care = shop.bundle.aftercare.clone();
    let again = care.after(&came(0.0), &[], (clock(shop.minute + 1), "Specialist A"));
    assert!(again.is_err());

    for (axle, side) in ALL {
        let fell = match (axle, side) {
            (Axle::Front, Side::Right) => 13.0,
            (Axle::Front, Side::Left) => 4.0,
            (Axle::Rear, _) => 3.0,
        };
        let was = if axle == Axle::Front { 340.0 } else { 335.0 };
        tape(&mut shop, Visit::Returned, axle, side, was - fell);
    }
    let r = back(&shop);
    assert_eq!(r.headline.en(), "Right front settled 9 mm too far");
    assert!(
        r.sentence.en().contains("610 km") && r.sentence.en().contains("The other 3"),
        "{}",
        r.sentence.en()
    );
    let c = corner(&shop, Axle::Front, Side::Right);
    assert_eq!((c.rest, c.said_mm, c.back_mm), (CameToRest::TooFar, Some(336.0), Some(327.0)));
    // The ring is the forecast's own doubt and both tapes together.
    // What nobody told of (here the floor) is the same at both: a millimetre of tape each is left.
    let ring = (4.0f64.powi(2) + 2.0 * 1.644_853_627f64.powi(2)).sqrt();
    assert!((c.ring_mm - ring).abs() < 1e-3, "{} {ring}", c.ring_mm);
    // Nobody said what is turned there: no turns are told.
    assert!(c.trim.is_none() && r.sentence.en().contains("what is turned"), "{}", r.sentence.en());

    let by = |pitch_mm| AfterAct::TurnsBy {
        axle: Axle::Front,
        turned: Some(Turned::Collar { pitch_mm, motion_ratio: Some(0.8) }),
    };
    assert!(shop.act(by(Some(40.0))).unwrap_err().starts_with("turned.pitch_mm"));
    // A ratio nobody told is believed to a third, the car's own spring's to a tenth: the promise is as wide as that.
    let plain = AfterAct::TurnsBy {
        axle: Axle::Front,
        turned: Some(Turned::Collar { pitch_mm: Some(2.0), motion_ratio: None }),
    };
    shop.act(plain).unwrap();
    let trim_now = |shop: &Shop| corner(shop, Axle::Front, Side::Right).trim.unwrap();
    let rough = trim_now(&shop);
    assert!(rough.mm_per_turn == 2.0 && rough.band_mm > 0.5 * rough.by_mm, "{rough:?}");
    shop.bundle.vehicle.car.axles.front.spring = Some(Spring { rate_n_mm: 40.0, motion_ratio: 0.8 });
    let own = trim_now(&shop);
    assert!((own.mm_per_turn - 2.5).abs() < 1e-9 && own.band_mm < 0.5 * rough.band_mm, "{own:?}");
    assert!(
        !own.clockwise && matches!(own.by, Turned::Collar { .. }),
        "a collar rises counter-clockwise from above"
    );
    shop.act(by(Some(2.0))).unwrap();
    let order = corner(&shop, Axle::Front, Side::Right).trim.unwrap();
    // 9 mm at 2 mm a turn over 0.8: 3.6 turns, in quarters.
    assert_eq!(order.turns, 3.5);
    assert!((order.mm_per_turn - 2.5).abs() < 1e-9 && (order.by_mm - 8.75).abs() < 1e-9);
    assert_eq!(order.words.en(), "3 1/2 turns up");
    assert!(order.moves_deg[0].abs() > 0.01, "{order:?}");
    assert!(!back(&shop).cautions.is_empty());
    assert!(corner(&shop, Axle::Front, Side::Left).trim.is_none());

    // Turned really three: what was read before is stale, then what it gave is learned.
    assert!(shop.act(trim(Side::Right, "three")).unwrap_err().starts_with("amount"));
    shop.act(trim(Side::Right, "3")).unwrap();
    let c = corner(&shop, Axle::Front, Side::Right);
    assert_eq!((c.rest, c.back_mm, c.now_mm), (CameToRest::Stale, Some(327.0), None));
    assert_eq!(back(&shop).headline.en(), "Trimmed: roll it, bounce it, tape it again");
    shop.minute += 20;
    tape(&mut shop, Visit::Returned, Axle::Front, Side::Right, 330.0);
    let c = corner(&shop, Axle::Front, Side::Right);
    assert_eq!((c.back_mm, c.now_mm, c.rest), (Some(327.0), Some(330.0), CameToRest::TooFar));
    // Three turns gave three millimetres: a turn is taken for less than the usual worth, as far as one tape tells.
    let order = c.trim.unwrap();
    assert!(order.records == 1 && order.mm_per_turn < 2.4 && order.turns == 2.5, "{order:?}");

    // Two weeks on it comes again: held against how it left, nothing more said of settling.
    shop.minute += 14 * 24 * 60;
    shop.act(came(900.0)).unwrap();
    for (axle, side) in ALL {
        tape(&mut shop, Visit::Returned, axle, side, if axle == Axle::Front { 320.0 } else { 332.0 });
    }
    let r = back(&shop);
    assert_eq!((r.time, r.days, r.forecast), (2, 14, false));
    let c = corner(&shop, Axle::Front, Side::Right);
    assert_eq!((c.set_mm, c.said_mm), (Some(330.0), Some(330.0)));
    let order = c.trim.unwrap();
    assert!(order.records == 1 && order.mm_per_turn < 2.4, "{order:?}");
    assert!(r.headline.en().contains("fell"), "{}", r.headline.en());
    // Could not: kept, with nothing turned.
    let stuck = AfterAct::Trimmed {
        axle: Axle::Front,
        side: Side::Left,
        amount: String::new(),
        could_not: Some(CouldNot::Seized),
    };
    shop.act(stuck).unwrap();
    let kept = shop.bundle.aftercare.returns[1].trims.last().unwrap();
    assert!(kept.turns == 0.0 && kept.could_not == Some(CouldNot::Seized) && kept.ordered_turns != 0.0);
    // It moved nothing: its tape stands, and so does what is off.
    let c = corner(&shop, Axle::Front, Side::Left);
    assert!(c.rest == CameToRest::TooFar && c.now_mm == Some(320.0) && c.trim.is_some(), "{c:?}");

    // The file carries all of it.
    let file = serde_json::to_vec(&shop.bundle).unwrap();
    assert_eq!(JobBundle::from_json(&file).unwrap(), shop.bundle);
}

#[test]
fn angles_then_and_today_are_those_of_this_return() {
    let mut shop = set();
    shop.read(Visit::Proved, Axle::Front, Side::Left, Method::CamberGauge, "angle", "-0.8");
    shop.act(came(500.0)).unwrap();
    shop.read(Visit::Returned, Axle::Front, Side::Left, Method::CamberGauge, "angle", "-1.1");
    let of = |shop: &Shop| {
        let all = back(shop).angles;
        *all.iter()
            .find(|a| (a.axle, a.side, a.angle) == (Axle::Front, Side::Left, AngleName::Camber))
            .unwrap()
    };
    let a = of(&shop);
    assert!((a.set_deg.unwrap() + 0.8).abs() < 1e-9 && (a.now_deg.unwrap() + 1.1).abs() < 1e-9);
    shop.minute += 60 * 24 * 20;
    shop.act(came(2500.0)).unwrap();
    assert!(of(&shop).now_deg.is_none(), "what was read the time before is none of today's");
    assert!(back(&shop).angles.iter().all(|a| a.axle == Axle::Front || a.angle != AngleName::Caster));
}

#[test]
fn a_job_is_looked_at_again_on_a_day_closed_by_a_name_and_reopened() {
    let mut shop = set();
    let day = clock(0).date_naive();
    let next = |on| AfterAct::LookNext { on, after_km: Some(5000.0) };
    assert!(shop.act(next(day.pred_opt())).unwrap_err().starts_with("on"));
    shop.act(next(Some(day))).unwrap();
    assert_eq!(shop.bundle.aftercare.next_look.unwrap().after_km, Some(5000.0));
    assert!(shop.act(AfterAct::Reopen).is_err());
    assert!(shop.act(AfterAct::Close { signed: " x ".into() }).unwrap_err().starts_with("signed"));
    shop.act(AfterAct::Close { signed: " Specialist A ".into() }).unwrap();
    assert_eq!(shop.bundle.aftercare.closed.as_ref().unwrap().signed, "Specialist A");
    shop.act(AfterAct::Reopen).unwrap();
    shop.act(AfterAct::Close { signed: "Specialist A".into() }).unwrap();
    // Here again it is open, and no longer due.
    shop.act(came(100.0)).unwrap();
    let care = &shop.bundle.aftercare;
    assert!(care.closed.is_none() && care.next_look.is_none() && care.returns.len() == 1);
    // Nothing of it is left in a file that names nonsense.
    let mut bad = shop.bundle.clone();
    bad.aftercare.returns[0].driven_km = Some(-1.0);
    let fault = JobBundle::from_json(&serde_json::to_vec(&bad).unwrap()).unwrap_err();
    assert_eq!(fault[0].field, "aftercare.returns.0.driven_km");
}

/// What one car taught of turns and settling is used by the next, unless its plan takes things as sold.
#[test]
fn what_a_car_taught_of_height_is_used_by_the_next() {
    let mut shop = set();
    for axle in [Axle::Front, Axle::Rear] {
        shop.bundle.plans[0].document.axles[axle].settle_mm = 0.0;
    }
    shop.act(came(600.0)).unwrap();
    for (axle, side) in ALL {
        let was = if axle == Axle::Front { 340.0 } else { 335.0 };
        tape(&mut shop, Visit::Returned, axle, side, was - 7.0);
    }
    // Said to settle by nothing, it is off; six turns a side of a collar give 12 mm where 15 were reckoned.
    let by = Some(Turned::Collar { pitch_mm: Some(2.0), motion_ratio: Some(0.8) });
    shop.act(AfterAct::TurnsBy { axle: Axle::Front, turned: by }).unwrap();
    let usual = corner(&shop, Axle::Front, Side::Left).trim.unwrap();
    assert!((usual.mm_per_turn - 2.5).abs() < 1e-9 && usual.why.id == "trim-usual", "{usual:?}");
    for side in Side::BOTH {
        shop.act(trim(side, "6")).unwrap();
    }
    for side in Side::BOTH {
        tape(&mut shop, Visit::Returned, Axle::Front, side, 345.0);
    }
    let act = AfterAct::LookNext { on: None, after_km: Some(1000.0) };
    assert!(act.teaches() && !came(1.0).teaches());
    let taught = shop.sheet().taught;
    shop.act(act).unwrap();
    let care = shop.bundle.aftercare.clone().having_taught(taught, clock(shop.minute));
    let kept = care.taught.clone().unwrap();
    assert_eq!(kept.settled.len(), 4);
    assert!(kept.settled.iter().all(|s| (s.mm - 7.0).abs() < 1e-9 && s.way.is_none()), "{kept:?}");
    let [t] = &kept.turns[..] else { panic!("{kept:?}") };
    assert!((t.ln_times - 0.8f64.ln()).abs() < 1e-6, "{t:?}");
    // Kept with the job, and read back as it was.
    let text = serde_json::to_string(&care).unwrap();
    assert_eq!(serde_json::from_str::<bold_stance_trade::job::Aftercare>(&text).unwrap(), care);

    let mut next = set();
    for axle in [Axle::Front, Axle::Rear] {
        next.bundle.plans[0].document.axles[axle].settle_mm = 0.0;
    }
    next.act(came(600.0)).unwrap();
    for (axle, side) in ALL {
        let was = if axle == Axle::Front { 340.0 } else { 335.0 };
        tape(&mut next, Visit::Returned, axle, side, was - if axle == Axle::Front { 30.0 } else { 7.0 });
    }
    next.act(AfterAct::TurnsBy { axle: Axle::Front, turned: by }).unwrap();
    assert_eq!(corner(&next, Axle::Rear, Side::Left).said_mm, Some(335.0));
    next.bundle.memory.heights = KnownHeights::of(&[kept], None);
    let rear = corner(&next, Axle::Rear, Side::Left);
    assert!(rear.rest == CameToRest::AsSaid && (rear.said_mm.unwrap() - 328.9).abs() < 0.9, "{rear:?}");
    let known = corner(&next, Axle::Front, Side::Left).trim.unwrap();
    assert!(known.mm_per_turn < 2.3 && known.why.id == "trim-shop", "{known:?}");
    assert!(known.why.en().contains("on one car of the shop"), "{}", known.why.en());
    // Switched off for a job, everything is as sold.
    next.bundle.plans[0].document.as_sold = true;
    assert_eq!(corner(&next, Axle::Rear, Side::Left).said_mm, Some(335.0));
    assert!((corner(&next, Axle::Front, Side::Left).trim.unwrap().mm_per_turn - 2.5).abs() < 1e-9);
}
