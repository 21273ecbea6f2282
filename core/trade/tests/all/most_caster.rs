//! As much caster as its window lets: more than the middle of it, nothing else worse, held against every whole-notch setting.

use crate::common;

use bold_stance_car::vehicle::{Attitude, anchor};
use bold_stance_kinematics::geometry::Side;
use bold_stance_kinematics::linkage::Corner;
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::{Bench, PlanInput, PlanResult, plan};
use common::truck;

fn with(most: bool) -> (PlanInput, PlanResult) {
    let mut i = truck();
    (i.moves.front.height_change_mm, i.moves.front.settle_mm, i.moves.front.load_mm) = (20.0, 0.0, 0.0);
    i.aim.camber_deg = [-1.0, 0.5];
    i.aim.caster_deg = [2.0, 7.0];
    i.aim.caster_most = most;
    let r = plan(&i, &shipped_parts().unwrap()).unwrap();
    (i, r)
}

#[test]
fn it_finds_more_and_keeps_everything_else_in() {
    let (_, usual) = with(false);
    let (i, most) = with(true);
    assert!(usual.verdict.reached && most.verdict.reached);
    for (a, b) in [(&usual.left, &most.left), (&usual.right, &most.right)] {
        assert!(b.set.caster_deg > a.set.caster_deg + 0.2, "{} {}", a.set.caster_deg, b.set.caster_deg);
        assert_eq!(b.shortfall.worst(), 0.0);
    }
    assert!((most.verdict.cross_caster_deg).abs() <= i.aim.cross_caster_deg + 1e-9);
    // Brute force over both cams in whole notches, the rod set for each: no side gets more with its camber inside.
    for (side, set) in [(Side::Left, &most.left), (Side::Right, &most.right)] {
        let read = if side == Side::Left { &i.left } else { &i.right };
        let (points, wheel) = i.geometry.side(side);
        let travel = i.design_height_mm - read.height_mm;
        let own = &i.adjusters[side];
        let start: Vec<_> = own.iter().flat_map(|a| a.edits_at(a.position)).collect();
        let anchored = anchor(&points, &wheel, travel, &start, &read.angles).unwrap();
        let bench = Bench::new(
            Corner::clone(&anchored.corner),
            own.clone(),
            travel - 20.0,
            Attitude::from_rises(20.0, 0.0, i.wheelbase_mm),
        );
        let t = i.aim.target(bold_stance_kinematics::geometry::Axle::Front, side);
        let best = (-4..=4)
            .flat_map(|f| (-4..=4).map(move |r| (f, r)))
            .filter_map(|(f, r)| {
                let mut p = bench.start();
                (p[0], p[1]) = (f64::from(f) * 22.5, f64::from(r) * 22.5);
                let mut turned = bench.clone();
                (turned.adjusters[0].position, turned.adjusters[1].position) = (p[0], p[1]);
                let a = bench.angles(&turned.with_toe(0.05)).ok()?;
                let inside =
                    a.camber_deg >= t.camber[0] && a.camber_deg <= t.camber[1] && a.caster_deg <= t.caster[1];
                inside.then_some(a.caster_deg)
            })
            .fold(f64::MIN, f64::max);
        assert!(set.set.caster_deg > best - 0.2, "{side:?}: {} of {best}", set.set.caster_deg);
        assert!(set.set.caster_deg < best + 0.2, "{side:?}: {} of {best}", set.set.caster_deg);
    }
}
