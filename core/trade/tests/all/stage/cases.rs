//! For every rule about readings that lie: scenes it must find, scenes it must leave alone.

use crate::stage::{FRONT, LEFT, REAR_LEFT, REAR_RIGHT, RIGHT, Stage};
use bold_stance_kinematics::geometry::Side;
use bold_stance_trade::reading::{
    ChangeKind, Jack, Method, Place, Quantity, RawEntry, ReadAxle, ReadSide, Rule, Visit,
};
use bold_stance_units::LengthUnit;
use std::collections::BTreeMap;

pub type Play = fn(&mut Stage);
/// One side of the car, for what is read hub to hub.
const LEFT_SIDE: Place = Place { axle: ReadAxle::Both, side: ReadSide::Left };

/// For every rule: scenes it must find, scenes it must leave alone.
pub fn cases() -> BTreeMap<Rule, (Vec<Play>, Vec<Play>)> {
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
            s.car.car.facts.axles.front.spring = None;
            s.answer("fuel", "20 l").height(LEFT, "500");
        }],
        vec![
            |s| {
                s.answer("fuel", "20 l").height(LEFT, "500");
            },
            |s| {
                s.car.car.facts.axles.front.spring = None;
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
            s.caster(LEFT, "2.5").caster(RIGHT, "4.6");
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
    use bold_stance_trade::reading::Turned;
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
