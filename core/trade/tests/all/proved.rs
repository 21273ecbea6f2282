//! What was said against what came: a rear axle from nothing turned to a car that somebody stands for.

use crate::shop::{Shop, clock};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::job::{Proved, WheelProved, WheelStands};
use bold_stance_trade::memory::{Memory, ProvedCar, SaidCame};
use bold_stance_trade::plan::AngleName;
use bold_stance_trade::reading::{Method, Visit};
use bold_stance_trade::sheet::{GateReading, Mark, StepId, StepKind, Tick};
use bold_stance_words::English;

fn wheel(p: &Proved, axle: Axle, side: Side) -> &WheelProved {
    p.wheels.iter().find(|w| w.axle == axle && w.side == side).unwrap()
}

fn said(w: &WheelProved, angle: AngleName) -> f64 {
    w.angles.iter().find(|a| a.angle == angle).unwrap().said_deg
}

/// Reads a wheel at a visit as said, moved by so much camber.
fn read(shop: &mut Shop, visit: Visit, axle: Axle, side: Side, off: f64) {
    let p = shop.sheet().proved;
    let w = wheel(&p, axle, side).clone();
    let camber = said(&w, AngleName::Camber) + off;
    shop.read(visit, axle, side, Method::CamberGauge, "angle", &format!("{camber:.3}"));
    if axle == Axle::Front {
        let caster = said(&w, AngleName::Caster);
        shop.read(visit, axle, side, Method::CasterJointLine, "angle", &format!("{caster:.3}"));
    }
    if let Some(toe) = w.angles.iter().find(|a| a.angle == AngleName::Toe) {
        shop.read(visit, axle, side, Method::ToeConvert, "value", &format!("{:.3} deg", toe.said_deg));
    }
}

#[test]
fn a_car_is_proved_by_what_came_since_it_was_turned_and_by_a_name() {
    let mut shop = Shop::new();
    let p = shop.sheet().proved;
    assert_eq!(p.headline.en(), "Nothing is turned yet");
    assert!(!p.on_aim && p.wheels.iter().all(|w| w.stands == WheelStands::NotRead), "{p:?}");
    // Toe that has its turn yet to come is not held against where it will be.
    assert!(wheel(&p, Axle::Rear, Side::Left).angles.iter().all(|a| a.angle != AngleName::Toe));

    // The whole sheet as ordered, every gate read as said, until the last.
    for _ in 0..40 {
        let sheet = shop.sheet();
        let done = |id: &StepId| shop.bundle.done.iter().any(|d| d.step == Mark::Step(id.clone()));
        let Some(next) = sheet.steps.iter().find(|s| !done(&s.id)).cloned() else { break };
        if next.id == StepId::Proved {
            break;
        }
        if next.kind == StepKind::Gate {
            for t in &next.ticks {
                shop.mark(Mark::Tick(next.id.clone(), t.id), None).unwrap();
            }
            let visit = sheet.gates.iter().find(|g| g.id == next.id).unwrap().visit.unwrap();
            for n in next.needs.iter().filter(|n| n.quantity == GateReading::Height) {
                let r = sheet.answer.axles[n.axle].as_ref().unwrap();
                for (side, s) in [(Side::Left, &r.left), (Side::Right, &r.right)] {
                    let mm = format!("{:.1} mm", s.planned_height_mm);
                    shop.read(visit, n.axle, side, Method::HeightHub, "value", &mm);
                }
            }
            if let Some(axle) = next.axle {
                Side::BOTH.into_iter().for_each(|side| read(&mut shop, visit, axle, side, 0.0));
            }
        }
        shop.mark(Mark::Step(next.id), Some("as it stands")).unwrap();
    }
    let p = shop.sheet().proved;
    assert!(p.waits.is_empty(), "{:?}", p.waits);
    for axle in [Axle::Rear, Axle::Front] {
        for side in Side::BOTH {
            read(&mut shop, Visit::Proved, axle, side, 0.0);
        }
    }
    let p = shop.sheet().proved;
    for w in &p.wheels {
        assert!(w.angles.iter().all(|a| a.as_said == Some(true)), "{w:?}");
        assert!(w.angles.iter().all(|a| a.said_band_deg >= a.came.unwrap().band_deg), "{w:?}");
    }
    let all_in = p.wheels.iter().all(|w| w.stands == WheelStands::OnAim);
    assert_eq!(p.on_aim, all_in && p.off.iter().all(|f| f.off_aim == 0.0), "{p:?}");
    let thrust = 0.5
        * (said(wheel(&p, Axle::Rear, Side::Left), AngleName::Toe)
            - said(wheel(&p, Axle::Rear, Side::Right), AngleName::Toe));
    assert!((p.thrust_deg.unwrap() - thrust).abs() < 1e-3);

    // One wheel comes a degree out: it is named with side, angle and by how much, before the others.
    read(&mut shop, Visit::Proved, Axle::Rear, Side::Right, -1.5);
    let p = shop.sheet().proved;
    let w = wheel(&p, Axle::Rear, Side::Right);
    assert_eq!(w.stands, WheelStands::Off);
    let camber = w.angles.iter().find(|a| a.angle == AngleName::Camber).unwrap();
    assert!(camber.as_said == Some(false) && camber.off_aim_deg < 0.0, "{camber:?}");
    let by = format!("{:.1}°", camber.off_aim_deg.abs());
    let said_so = p.headline.en();
    assert!(said_so.starts_with("Right rear camber") && said_so.contains(&by), "{said_so} {by}");
    assert!(p.off[0].off_aim != 0.0 && !p.on_aim);

    // Against it the car is accepted on a reason and a name; in order on a name alone.
    for t in [Tick::Roll, Tick::WheelStraight] {
        shop.mark(Mark::Tick(StepId::Proved, t), None).unwrap();
    }
    let step = Mark::Step(StepId::Proved);
    assert!(shop.mark(step.clone(), None).unwrap_err().starts_with("reason"));
    assert!(
        shop.mark_signed(step.clone(), Some("owner takes it so"), " ").unwrap_err().starts_with("signed")
    );
    shop.mark_signed(step, Some("owner takes it so"), " Specialist A ").unwrap();
    let kept = &shop.bundle.done.last().unwrap().record;
    assert_eq!(kept.signed.as_deref(), Some("Specialist A"));
    assert!(kept.reason.is_some() && !kept.off.is_empty());
    // What it taught is kept with it: every angle that was said and came, the far one outside its ring.
    let taught = kept.taught.as_ref().unwrap();
    let far = |s: &&SaidCame| s.axle == Axle::Rear && s.side == Side::Right && s.angle == AngleName::Camber;
    let s = taught.said.iter().find(far).unwrap();
    assert!(
        taught.said.len() >= 10 && (s.miss_deg + 1.5).abs() < 0.01 && s.miss_deg.abs() > s.band_deg,
        "{s:?}"
    );
    // Each arm that was turned is a trial of its part, as far as its readings say something of it.
    assert!(taught.trials.iter().all(|t| t.sd > 0.0), "{:?}", taught.trials);
    let memory = Memory::of(&[ProvedCar { ticket: 421, at: clock(0), taught: taught.clone() }], None);
    assert_eq!(memory.cars, 1);
    assert!(memory.how_well.iter().any(|h| h.axle == Axle::Rear && h.inside.contains(&false)));
}
