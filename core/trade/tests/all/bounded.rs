//! No plan takes for ever: work is counted, and what would take too much is told which knob to leave alone.

use crate::common;
use bold_stance_car::adjuster::{Adjuster, AdjusterKind};
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::fit::Sigmas;
use bold_stance_car::vehicle::Measured;
use bold_stance_kinematics::edit::EccentricPoint;
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::{Filters, PlanInput, SideReadings, Unread, plan, search};
use bold_stance_words::English;
use common::truck;

fn slide(name: &str, point: EccentricPoint, direction: [f64; 3]) -> Adjuster {
    let kind = AdjusterKind::Slide { point, direction, range_mm: [-12.0, 12.0], step_mm: None };
    Adjuster {
        name: name.into(),
        position: 0.0,
        unseen: false,
        locked: false,
        held: None,
        measured: false,
        known: None,
        kind,
    }
}

#[test]
fn twelve_free_adjusters_are_answered_or_told_to_be_locked() {
    use EccentricPoint::{LowerFront, UpperFront, UpperRear};
    let mut i = truck();
    for (n, p) in [LowerFront, UpperFront, UpperRear].into_iter().enumerate() {
        for (m, d) in [[1.0, 0.0, 0.0], [0.0, 1.0, 0.0], [0.0, 0.0, 1.0]].into_iter().enumerate() {
            for list in i.adjusters.each_mut() {
                list.push(slide(&format!("Slide {n} {m}"), p.clone(), d));
            }
        }
    }
    let parts = shipped_parts().unwrap();
    // Twelve free ones are answered within what a plan may cost, or it says that they are too many.
    if let Err(p) = plan(&i, &parts) {
        assert_eq!(p[0].field, "adjusters", "{p:?}");
        assert!(p[0].wrong.en().contains("too many adjusters") && p[0].right.en().contains("lock"), "{p:?}");
    }
    // A search sets each set with a share of its own, and comes to an end.
    assert!(search(&i, &Filters::default(), None, &parts, &|_| true).is_ok());
    // With all but the tie rod and two locked it is answered.
    let tie = i.adjusters.left.iter().position(Adjuster::is_tie_rod).unwrap();
    for (k, a) in i.adjusters.each_mut().into_iter().flat_map(|l| l.iter_mut().enumerate()) {
        a.locked = k > 1 && k != tie;
    }
    let fewer = plan(&i, &parts).map(|a| a.left.set.camber_deg);
    assert!(fewer.is_ok(), "{fewer:?}");
}

/// A live front axle with many things that turn, in plan and in search.
#[test]
fn a_live_axle_with_many_adjusters_is_answered_or_told_to_be_locked() {
    let g = shipped_archetypes().unwrap().into_iter().find(|a| a.id == "live_front").unwrap().geometry;
    let read = SideReadings {
        height_mm: 500.0,
        angles: Measured { camber_deg: 0.4, caster_deg: 3.0, toe_deg: 0.05 },
        sigma: Sigmas::default(),
        unread: Unread::default(),
    };
    let aim = shipped_aims().unwrap().remove(0);
    let parts = shipped_parts().unwrap();
    let mut list: Vec<Adjuster> = Vec::new();
    for p in &parts {
        for a in p.adjusters.iter().filter(|_| p.fits.layouts.contains(&g.layout())) {
            if bold_stance_car::adjuster::adjusters_not_there(std::slice::from_ref(a), &g.points).is_empty() {
                list.push(Adjuster { name: format!("{} {}", p.id, list.len()), ..a.clone() });
            }
        }
    }
    assert!(list.len() >= 4, "{}", list.len());
    list.truncate(12);
    let i = PlanInput::unchanged(g, 2900.0, 500.0, list, [read, read], aim).lifted(80.0);
    match plan(&i, &parts) {
        Ok(a) => assert!(a.left.set.caster_deg.is_finite()),
        Err(p) => assert_eq!(p[0].field, "adjusters", "{p:?}"),
    }
    match search(&i, &Filters::default(), None, &parts, &|_| true) {
        Ok(s) => assert!(!s.headline.en().is_empty()),
        Err(p) => assert_eq!(p[0].field, "adjusters", "{p:?}"),
    }
}
