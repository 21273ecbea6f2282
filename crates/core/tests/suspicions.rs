//! Readings that lie: every rule with a case it must find and a near miss it must leave alone. Scenario numbers
//! are those of the trade's list of mistakes; limits are common practice, no source.
#![allow(clippy::unwrap_used, clippy::panic, missing_docs)]

mod common;
mod stage;

use bold_stance_core::geometry::{Axle, Side};
use bold_stance_core::reading::{
    ChangeKind, Jack, Method, Place, Quantity, RawEntry, ReadAxle, ReadSide, Rule, Visit, heights_of,
    picture, suspicions, taped_heights_of,
};
use bold_stance_core::units::LengthUnit;
use stage::{FRONT, LEFT, REAR_LEFT, REAR_RIGHT, RIGHT, Stage};
use std::collections::BTreeMap;

type Play = fn(&mut Stage);
/// One side of the car, for what is read hub to hub.
const LEFT_SIDE: Place = Place { axle: ReadAxle::Both, side: ReadSide::Left };

/// For every rule: scenes it must find, scenes it must leave alone.
fn cases() -> BTreeMap<Rule, (Vec<Play>, Vec<Play>)> {
    let mut m: BTreeMap<Rule, (Vec<Play>, Vec<Play>)> = BTreeMap::new();
    let mut add = |r: Rule, yes: Vec<Play>, no: Vec<Play>| {
        m.insert(r, (yes, no));
    };
    // 1: set to zero on the jack.
    add(
        Rule::Jacked,
        vec![|s| {
            s.put(Method::CamberGauge, LEFT, &[RawEntry::new("angle", "0")], Jack::Jacked, "");
        }],
        vec![|s| {
            s.camber(LEFT, "0");
        }],
    );
    // 2: angles before the height settled.
    add(
        Rule::HeightNotSettled,
        vec![
            |s| {
                s.answer("settled", "no").height(LEFT, "500").camber(LEFT, "-0.3");
            },
            |s| {
                s.height(LEFT, "500").camber(LEFT, "-0.3").height(LEFT, "512");
            },
        ],
        vec![|s| {
            s.height(LEFT, "500").camber(LEFT, "-0.3").height(LEFT, "501");
        }],
    );
    // 3: a sloping floor, not zeroed there.
    add(
        Rule::FloorUnknown,
        vec![|s| {
            s.answer("floor_front", "").camber(LEFT, "-0.3");
        }],
        vec![
            |s| {
                s.answer("floor_front", "0.4").camber(LEFT, "-0.3");
            },
            |s| {
                s.answer("floor_front", "").read(
                    Method::CamberGauge,
                    LEFT,
                    &[("angle", "-0.3"), ("zeroed-on-floor", "true")],
                );
            },
            |s| {
                s.answer("floor_front", "").read(Method::CamberForm, LEFT, &[("offset", "-2")]);
            },
        ],
    );
    add(
        Rule::FloorChanged,
        vec![|s| {
            s.answer("floor_front", "0").camber(LEFT, "-0.3").answer("floor_front", "0.4");
        }],
        vec![|s| {
            s.answer("floor_front", "0.4").camber(LEFT, "-0.3").answer("floor_front", "0.42");
        }],
    );
    add(
        Rule::FloorPattern,
        vec![|s| {
            s.camber(LEFT, "0.5").camber(RIGHT, "-0.5").camber(REAR_LEFT, "0.5").camber(REAR_RIGHT, "-0.4");
        }],
        vec![|s| {
            s.camber(LEFT, "0.5").camber(RIGHT, "-0.5").camber(REAR_LEFT, "0").camber(REAR_RIGHT, "0");
        }],
    );
    // 4: rear wheel read with the body tilted.
    add(
        Rule::BodyTilted,
        vec![|s| {
            s.put(Method::CamberGauge, REAR_LEFT, &[RawEntry::new("angle", "-0.9")], Jack::OneSide, "");
        }],
        vec![|s| {
            s.put(Method::CamberGauge, REAR_LEFT, &[RawEntry::new("angle", "-0.9")], Jack::Rolled, "");
        }],
    );
    // 6: camber changed, toe not read again.
    add(
        Rule::ToeStale,
        vec![
            |s| {
                s.toe(LEFT, "0.05").did(ChangeKind::Cams);
            },
            |s| {
                s.camber(LEFT, "-0.9").toe(LEFT, "0.05").camber(LEFT, "0.1");
            },
            |s| {
                s.height(LEFT, "500")
                    .read(Method::ToeRimGauge, FRONT, &[("difference", "1")])
                    .height(LEFT, "520");
            },
        ],
        vec![
            |s| {
                s.did(ChangeKind::Cams).toe(LEFT, "0.05");
            },
            |s| {
                s.camber(LEFT, "-0.9").toe(LEFT, "0.05").camber(LEFT, "-0.85");
            },
        ],
    );
    // 7: caster not swept again.
    add(
        Rule::CasterStale,
        vec![|s| {
            s.caster(LEFT, "3.2").did(ChangeKind::Cams);
        }],
        vec![|s| {
            s.caster(LEFT, "3.2").did(ChangeKind::TieRods);
        }],
    );
    add(
        Rule::CasterUnchanged,
        vec![|s| {
            s.caster(LEFT, "3.2").did(ChangeKind::Cams).at(Visit::Reswept).caster(LEFT, "3.2");
        }],
        vec![
            |s| {
                s.caster(LEFT, "3.2").did(ChangeKind::Cams).at(Visit::Reswept).caster(LEFT, "3.6");
            },
            |s| {
                s.caster(LEFT, "3.2").at(Visit::Settled).caster(LEFT, "3.2");
            },
        ],
    );
    // 12: string toe with different tracks.
    add(
        Rule::StringTracks,
        vec![|s| {
            s.car.track_mm = [1540.0, 1580.0];
            s.read(Method::ToeString, LEFT, &[("front-gap", "150"), ("rear-gap", "150")]);
        }],
        vec![
            |s| {
                s.car.track_mm = [1540.0, 1580.0];
                s.read(
                    Method::ToeString,
                    LEFT,
                    &[("front-gap", "150"), ("rear-gap", "150"), ("strung", "rear-wheels")],
                );
            },
            |s| {
                s.read(Method::ToeString, LEFT, &[("front-gap", "150"), ("rear-gap", "150")]);
            },
        ],
    );
    // 13: the same marks on a bent truck.
    add(
        Rule::EqualMarks,
        vec![|s| {
            s.answer("marks", "yes").camber(LEFT, "0.7").camber(RIGHT, "-0.5");
        }],
        vec![
            |s| {
                s.camber(LEFT, "0.7").camber(RIGHT, "-0.5");
            },
            |s| {
                s.answer("marks", "yes").camber(LEFT, "0.2").camber(RIGHT, "-0.1");
            },
        ],
    );
    // 14: the front lifted, caster compared without the body's turn.
    add(
        Rule::PitchCompare,
        vec![|s| {
            s.heights("500", "560")
                .caster(LEFT, "3.2")
                .at(Visit::Settled)
                .heights("550", "560")
                .caster(LEFT, "4.0");
        }],
        vec![|s| {
            s.heights("500", "560")
                .caster(LEFT, "3.2")
                .at(Visit::Settled)
                .heights("550", "610")
                .caster(LEFT, "3.4");
        }],
    );
    // 16: the stamped size for the minutes chart.
    add(
        Rule::NominalCircle,
        vec![|s| {
            s.read(Method::CamberCalliper, LEFT, &[("gap", "2"), ("nominal", "17")]);
        }],
        vec![|s| {
            s.read(Method::CamberCalliper, LEFT, &[("gap", "2"), ("diameter", "466")]);
        }],
    );
    // 17: toe blamed for camber wear at the low height, and the reverse.
    add(
        Rule::ToeOrCamber,
        vec![
            |s| {
                s.camber(LEFT, "-1.6").read(
                    Method::TreadDepth,
                    LEFT,
                    &[("inner", "3"), ("centre", "5"), ("outer", "6"), ("feather", "smooth")],
                );
            },
            |s| {
                s.camber(LEFT, "0").read(
                    Method::TreadDepth,
                    LEFT,
                    &[("inner", "3"), ("centre", "5"), ("outer", "6"), ("feather", "sharp stroking in")],
                );
            },
        ],
        vec![
            |s| {
                s.camber(LEFT, "-1.6").read(
                    Method::TreadDepth,
                    LEFT,
                    &[("inner", "5.8"), ("centre", "6"), ("outer", "6"), ("feather", "smooth")],
                );
            },
            |s| {
                s.camber(LEFT, "-0.2").read(
                    Method::TreadDepth,
                    LEFT,
                    &[("inner", "3"), ("centre", "5"), ("outer", "6"), ("feather", "smooth")],
                );
            },
        ],
    );
    // What makes a reading lie.
    add(
        Rule::Bulge,
        vec![|s| {
            s.read(Method::CamberGap, LEFT, &[("top-gap", "6"), ("span", "640")]);
        }],
        vec![
            |s| {
                s.read(Method::CamberGap, LEFT, &[("top-gap", "6"), ("span", "640"), ("bulge", "2")]);
            },
            |s| {
                s.read(Method::CamberGap, LEFT, &[("top-gap", "6"), ("span", "460")]);
            },
        ],
    );
    add(
        Rule::Weight,
        vec![|s| {
            s.car.car.facts.front_spring = None;
            s.answer("fuel", "20 l").height(LEFT, "500");
        }],
        vec![
            |s| {
                s.answer("fuel", "20 l").height(LEFT, "500");
            },
            |s| {
                s.car.car.facts.front_spring = None;
                s.height(LEFT, "500");
            },
        ],
    );
    add(
        Rule::ReLevels,
        vec![|s| {
            s.answer("auto_level", "no").height(LEFT, "500");
        }],
        vec![|s| {
            s.height(LEFT, "500");
        }],
    );
    add(
        Rule::SteeringOff,
        vec![|s| {
            s.answer("steering", "no").toe(LEFT, "0.4");
        }],
        vec![
            |s| {
                s.toe(LEFT, "0.4");
            },
            |s| {
                s.answer("steering", "no");
            },
        ],
    );
    add(
        Rule::PlatesStick,
        vec![|s| {
            s.answer("plates", "no").camber(LEFT, "-0.4");
        }],
        vec![|s| {
            s.answer("plates", "").camber(LEFT, "-0.4");
        }],
    );
    add(
        Rule::NotRocked,
        vec![|s| {
            s.answer("rocked", "no").camber(LEFT, "-0.4");
        }],
        vec![|s| {
            s.camber(LEFT, "-0.4");
        }],
    );
    add(
        Rule::SpringsSettled,
        vec![|s| {
            s.at(Visit::Proved).height(LEFT, "540").at(Visit::Returned).height(LEFT, "534");
        }],
        vec![
            |s| {
                s.at(Visit::Proved).height(LEFT, "540").at(Visit::Returned).height(LEFT, "538.5");
            },
            |s| {
                s.height(LEFT, "480").at(Visit::Settled).height(LEFT, "540");
            },
        ],
    );
    add(
        Rule::BentRim,
        vec![
            |s| {
                s.read(Method::RimRunout, LEFT, &[("high", "2.4"), ("low", "0")]);
            },
            |s| {
                s.read(Method::CamberRunout, LEFT, &[("first", "-0.9"), ("second", "-0.3")]);
            },
        ],
        vec![
            |s| {
                s.read(Method::RimRunout, LEFT, &[("high", "0.6"), ("low", "0")]);
            },
            |s| {
                s.read(Method::CamberRunout, LEFT, &[("first", "-0.6"), ("second", "-0.5")]);
            },
        ],
    );
    add(Rule::IncludedAngle, vec![|s| included(s, 12.0, 10.5)], vec![|s| included(s, 12.0, 11.7)]);
    add(
        Rule::CasterApart,
        vec![|s| {
            s.caster(LEFT, "2.5").caster(RIGHT, "4.2");
        }],
        vec![|s| {
            s.caster(LEFT, "3.0").caster(RIGHT, "3.9");
        }],
    );
    add(
        Rule::RearSteers,
        vec![|s| {
            s.toe(REAR_LEFT, "0.35").toe(REAR_RIGHT, "-0.15");
        }],
        vec![|s| {
            s.toe(REAR_LEFT, "0.15").toe(REAR_RIGHT, "0.10");
        }],
    );
    add(
        Rule::WheelbasesApart,
        vec![|s| {
            let side = |side| Place { side, ..LEFT_SIDE };
            s.read(Method::Wheelbase, side(ReadSide::Left), &[("value", "106 1/2 in")]).read(
                Method::Wheelbase,
                side(ReadSide::Right),
                &[("value", "106 1/4 in")],
            );
        }],
        vec![|s| {
            let side = |side| Place { side, ..LEFT_SIDE };
            s.read(Method::Wheelbase, side(ReadSide::Left), &[("value", "2705")]).read(
                Method::Wheelbase,
                side(ReadSide::Right),
                &[("value", "2702")],
            );
        }],
    );
    add(
        Rule::MethodsDisagree,
        vec![|s| {
            s.camber(LEFT, "-2.25").read(
                Method::CamberLaser,
                LEFT,
                &[("top", "75"), ("bottom", "53"), ("span", "466")],
            );
        }],
        vec![|s| {
            s.camber(LEFT, "-2.25").read(Method::CamberGap, LEFT, &[("top-gap", "19"), ("span", "466")]);
        }],
    );
    add(
        Rule::RepeatSpread,
        vec![|s| {
            s.read(Method::CamberGauge, LEFT, &[("angle", "-0.2"), ("angle", "-0.9")]);
        }],
        vec![|s| {
            s.read(Method::CamberGauge, LEFT, &[("angle", "-0.2"), ("angle", "-0.35")]);
        }],
    );
    add(
        Rule::OddOne,
        vec![|s| {
            s.read(Method::CamberGauge, LEFT, &[("angle", "-0.2"), ("angle", "-0.9"), ("angle", "-0.25")]);
        }],
        vec![|s| {
            s.read(Method::CamberGauge, LEFT, &[("angle", "-0.2"), ("angle", "-0.3"), ("angle", "-0.25")]);
        }],
    );
    add(
        Rule::SignFlipped,
        vec![|s| {
            // Read before, then the same wheel with the sign turned.
            s.heights("500", "560")
                .camber(LEFT, "-1.4")
                .at(Visit::Settled)
                .heights("500", "560")
                .camber(LEFT, "1.4");
        }],
        vec![|s| {
            s.heights("500", "560")
                .camber(LEFT, "-1.4")
                .at(Visit::Settled)
                .heights("500", "560")
                .camber(LEFT, "-1.3");
        }],
    );
    add(
        Rule::UnitMinutes,
        vec![|s| {
            s.heights("500", "560").camber(LEFT, "24");
        }],
        vec![
            |s| {
                s.heights("500", "560").camber(LEFT, "24'");
            },
            |s| {
                s.heights("500", "560").camber(LEFT, "0.4");
            },
        ],
    );
    add(
        Rule::UnitInch,
        vec![|s| {
            s.read(Method::CamberGap, LEFT, &[("top-gap", "0.245"), ("span", "460")]);
        }],
        vec![
            |s| {
                s.read(Method::CamberGap, LEFT, &[("top-gap", "0.245in"), ("span", "460")]);
            },
            |s| {
                s.unit = LengthUnit::In;
                s.read(Method::CamberGap, LEFT, &[("top-gap", "0.245"), ("span", "18 1/8")]);
            },
        ],
    );
    add(
        Rule::FarFromModel,
        vec![
            |s| {
                let v = s.model(Quantity::Camber, Side::Left) + 3.3;
                s.heights("500", "560").camber(LEFT, &format!("{v:.1}deg"));
            },
            |s| {
                s.heights("500", "560")
                    .caster(LEFT, "3")
                    .at(Visit::Settled)
                    .heights("510", "570")
                    .caster(LEFT, "6");
            },
        ],
        vec![|s| {
            let v = s.model(Quantity::Camber, Side::Left) + 0.6;
            s.heights("500", "560").camber(LEFT, &format!("{v:.1}deg"));
        }],
    );
    m
}

/// Both sides swept with the brakes held, at true inclinations.
fn included(s: &mut Stage, left: f64, right: f64) {
    use bold_stance_core::reading::Turned;
    for (place, sai_deg, side) in [(LEFT, left, "left"), (RIGHT, right, "right")] {
        let w = Turned { caster_deg: 4.0, sai_deg, camber_deg: -0.3, toe_deg: 0.0 };
        let sign = if side == "left" { 1.0 } else { -1.0 };
        let ((a, ta), (b, tb)) = (w.at(20.0), w.at(-20.0));
        let text = |v: f64| format!("{v:.4}");
        s.camber(place, "-0.3").read(
            Method::CasterSweep,
            place,
            &[
                ("camber-1", &text(a)),
                ("steer-1", &text(20.0 * sign)),
                ("camber-2", &text(b)),
                ("steer-2", &text(-20.0 * sign)),
                ("axis-1", &text(ta)),
                ("axis-2", &text(tb)),
            ],
        );
    }
}

#[test]
fn every_rule_finds_its_case_and_leaves_the_near_miss() {
    let all = cases();
    for rule in Rule::ALL {
        let (yes, no) = all.get(&rule).unwrap_or_else(|| panic!("{rule:?} has no case"));
        assert!(!yes.is_empty() && !no.is_empty());
        for (i, play) in yes.iter().enumerate() {
            let mut s = Stage::new();
            play(&mut s);
            let found = s.found(rule);
            assert!(!found.is_empty(), "{rule:?}: case {i} was not found");
            for f in found {
                assert!(f.says.len() > 12 && !f.why.is_empty() && !f.settle.is_empty(), "{f:?}");
            }
        }
        for (i, play) in no.iter().enumerate() {
            let mut s = Stage::new();
            play(&mut s);
            assert!(s.found(rule).is_empty(), "{rule:?}: near miss {i} was accused: {:?}", s.found(rule));
        }
    }
}

#[test]
fn a_careful_visit_raises_nothing() {
    let mut s = Stage::new();
    let (l, r) = (s.model(Quantity::Camber, Side::Left), s.model(Quantity::Camber, Side::Right));
    let caster = s.model(Quantity::Caster, Side::Left);
    let text = |v: f64| format!("{v:.2}deg");
    s.heights("500", "560")
        .camber(REAR_LEFT, "-0.05deg")
        .camber(REAR_RIGHT, "0")
        .toe(REAR_LEFT, "0.02")
        .toe(REAR_RIGHT, "0.03")
        .camber(LEFT, &text(l - 0.1))
        .camber(RIGHT, &text(r + 0.05))
        .caster(LEFT, &text(caster + 0.2))
        .caster(RIGHT, &text(caster - 0.1))
        .read(Method::ToeRimGauge, FRONT, &[("difference", "1"), ("diameter", "466")]);
    let odd = s.with(|x| suspicions(x, &s.methods));
    assert!(odd.is_empty(), "{odd:?}");
}

#[test]
fn a_jacked_reading_is_put_right_by_the_rule_and_never_without_the_roll_of_the_body() {
    // 1 and CP8: zero on the jack drives off at half a degree in.
    let mut s = Stage::new();
    s.heights("500", "560").put(Method::CamberGauge, LEFT, &[RawEntry::new("angle", "0")], Jack::Jacked, "");
    assert!((s.readings.last().unwrap().value + 0.5).abs() < 1e-9);
    let rule = s.readings.last().unwrap().sigma;
    assert!((rule - 0.1f64.hypot(0.2).hypot(0.05)).abs() < 1e-6, "{rule}");
    // The height on the jack tells travel, not how far the raised corner rolls the body: it is kept, and makes nothing
    // worse.
    s.put(Method::CamberGauge, LEFT, &[RawEntry::new("angle", "0")], Jack::Jacked, "545");
    let last = s.readings.last().unwrap();
    assert!((last.value + 0.5).abs() < 1e-9, "{}", last.value);
    assert_eq!(last.height_mm, Some(545.0));
    assert!(
        last.corrections.iter().any(|c| c.label.contains("545 mm on the jack")),
        "{:?}",
        last.corrections
    );
}

#[test]
fn fuel_and_load_are_taken_out_over_the_cars_springs() {
    let mut s = Stage::new();
    s.answer("cargo", "200 kg").heights("500", "560");
    let rear = s.readings.last().unwrap();
    // By hand: 200 kg at 0.95 of the wheelbase, springs of 60 N/mm at a motion ratio of 0.7.
    let wheel = 60.0 * 0.7 * 0.7;
    let want = 560.0 + 200.0 * 9.806_65 * 0.95 / 2.0 / wheel;
    assert!((rear.value - want).abs() < 1e-6, "{} {want}", rear.value);
    assert!((rear.as_taped() - 560.0).abs() < 1e-9);
    s.camber(LEFT, "-0.3");
    let camber = s.readings.last().unwrap();
    // It was read as the car stood, loaded; what is put right is the way from there to empty, taken once.
    assert_eq!(camber.height_mm, Some(500.0));
    let empty = s.car.gains(&heights_of(&s.readings, Visit::Found));
    let stood = s.car.gains(&taped_heights_of(&s.readings, Visit::Found));
    let model = |g| s.car.model(Quantity::Camber, Axle::Front, Side::Left, g).unwrap();
    assert!((camber.value - (-0.3 + model(&empty) - model(&stood))).abs() < 1e-9, "{camber:?}");
    assert!(s.found(Rule::HeightNotSettled).is_empty(), "the load is no change of height");
}

#[test]
fn the_order_is_heights_then_rear_then_front_and_a_missing_one_is_named() {
    let mut s = Stage::new();
    let p = s.with(picture);
    assert_eq!(p.decision, "Plan");
    assert_eq!(p.missing.len(), 8);
    assert_eq!(p.missing[0], "left front height");
    let first = &p.order[p.next.unwrap()];
    assert_eq!((first.quantity, first.place), (Quantity::Height, LEFT));
    let at = |q, place| p.order.iter().position(|i| i.quantity == q && i.place == place).unwrap();
    assert!(at(Quantity::Height, REAR_RIGHT) < at(Quantity::Camber, REAR_LEFT));
    assert!(at(Quantity::Toe, REAR_RIGHT) < at(Quantity::Camber, LEFT));
    assert!(at(Quantity::Caster, RIGHT) < at(Quantity::Toe, LEFT));
    s.heights("500", "560").camber(LEFT, "-0.3").camber(RIGHT, "-0.2").caster(LEFT, "4").caster(RIGHT, "4.2");
    s.read(Method::ToeRimGauge, FRONT, &[("difference", "2"), ("diameter", "466")]);
    let p = s.with(picture);
    assert!(p.missing.is_empty(), "toe of both wheels stands for each");
    let toe = p.order.iter().find(|i| i.quantity == Quantity::Toe && i.place == LEFT).unwrap();
    assert!(toe.figure.as_ref().unwrap().shared);
    let total = p.derived.iter().find(|d| d.id == "total_toe_front").unwrap();
    assert!((total.value - (2.0f64 / 466.0).asin().to_degrees()).abs() < 1e-9);
    assert!((total.sigma - s.readings.last().unwrap().sigma).abs() < 1e-12, "one reading, not two");
    // The cams move: caster, camber and toe are stale, the heights are not.
    s.did(ChangeKind::Cams);
    let p = s.with(picture);
    let stale: Vec<Quantity> = p.current.iter().filter(|f| f.stale.is_some()).map(|f| f.quantity).collect();
    assert!(stale.contains(&Quantity::Caster) && stale.contains(&Quantity::Toe));
    assert!(!stale.contains(&Quantity::Height));
    assert_eq!(p.order[p.next.unwrap()].quantity, Quantity::Camber);
}

#[test]
fn a_later_visit_expects_what_the_linkage_does_with_the_height() {
    let mut s = Stage::new();
    let c = s.model(Quantity::Camber, Side::Left);
    s.heights("500", "560").camber(LEFT, &format!("{:.2}deg", c - 0.4));
    s.did(ChangeKind::Height).at(Visit::Settled).heights("540", "560");
    let e = s.with(|x| x.expected(Quantity::Camber, Axle::Front, Side::Left)).unwrap();
    assert!(e.anchored);
    let moved = {
        let h = heights_of(&s.readings, Visit::Settled);
        s.car.model(Quantity::Camber, Axle::Front, Side::Left, &s.car.gains(&h)).unwrap() - c
    };
    assert!((e.value - (c - 0.4 + moved)).abs() < 0.006, "{e:?}");
}
