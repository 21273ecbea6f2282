//! The corner file's planned column is the plan's: with its parts, as it is set, at its heights, over the ground.

use crate::common;
use bold_stance_car::metrics::{CornerFile, CornerFileRequest, WheelRead, corner_file};
use bold_stance_car::vehicle::{
    Axles, Car, CarFacts, Gains, PlannedHeight, PlannedHeights, Sides, StateKind,
};
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::{Moves, PlanInput, PlanResult, SidePlan, Way, WayKind, plan, set_edits};
use common::{electric_rear, truck};

fn front(change: impl Fn(&mut PlanInput)) -> PlanInput {
    let mut i = truck();
    (i.left.height_mm, i.right.height_mm) = (498.0, 498.0);
    change(&mut i);
    i
}

fn planned(i: &PlanInput) -> PlannedHeights {
    let body = i.ways.iter().filter(|w| w.kind == WayKind::BodyLift).map(|w| w.gain_mm).sum();
    let own = i.geometry.axle;
    let axles = Axles::of(|a| {
        let Moves { height_change_mm: gain_mm, settle_mm, load_mm, .. } = i.moves[a];
        if a == own {
            PlannedHeight { gain_mm, settle_mm, load_mm, trim_mm: i.trim_mm, body_mm: body }
        } else {
            PlannedHeight { gain_mm, settle_mm, ..PlannedHeight::default() }
        }
    });
    PlannedHeights { axles }
}

/// A plan and the corner file of the car it is for; the other axle is of no account.
fn both(i: &PlanInput, other: &Geometry) -> (PlanResult, CornerFile) {
    let parts = shipped_parts().unwrap();
    let r = plan(i, &parts).unwrap();
    let edits = set_edits(i, &parts, &r).unwrap();
    let [f, rear] = if i.steered() { [&i.geometry, other] } else { [other, &i.geometry] };
    let car = Car {
        front: f.clone(),
        rear: Some(rear.clone()),
        wheelbase_mm: i.wheelbase_mm,
        facts: CarFacts::default(),
    };
    let mut request = CornerFileRequest {
        car,
        arrived: Gains::default(),
        planned: Some(planned(i)),
        read: Axles::default(),
        axle_offset_mm: None,
        wheelbases_mm: None,
        set: Axles::default(),
        knowledge: Axles { front: i.knowledge, rear: i.knowledge },
    };
    let axle = if i.steered() { Axle::Front } else { Axle::Rear };
    let [left, right] = [&i.left, &i.right].map(|s| WheelRead { angles: s.angles, sigma: s.sigma });
    request.read[axle] = Some(Sides { left, right });
    let [left, right] = edits;
    request.set[axle] = Some(Sides { left, right });
    (r, corner_file(&request).unwrap())
}

fn same(i: &PlanInput, other: &Geometry) -> (PlanResult, CornerFile) {
    let (r, file) = both(i, other);
    let axle = if i.steered() { Axle::Front } else { Axle::Rear };
    let row = file.states.iter().find(|s| s.kind == r.judged.kind).unwrap();
    for (side, plan) in [(Side::Left, &r.left), (Side::Right, &r.right)] {
        let w = row.wheels.iter().find(|w| w.axle == axle && w.side == side).unwrap();
        let seen = w.wheel.unwrap_or_else(|| panic!("{:?}", w.stops));
        let mut pairs =
            vec![("camber", seen.camber_deg, plan.set.camber_deg), ("toe", seen.toe_deg, plan.set.toe_deg)];
        if let Some(s) = seen.steer {
            pairs.push(("caster", s.caster_deg, plan.set.caster_deg));
        }
        for (name, a, b) in pairs {
            assert!((a - b).abs() < 0.02, "{side:?} {name}: corner file {a:.3}, plan {b:.3}");
        }
    }
    (r, file)
}

fn quantity<'a>(f: &'a CornerFile, id: &str) -> &'a bold_stance_car::metrics::CornerQuantity {
    f.quantities.iter().find(|q| q.id == id).unwrap()
}

fn caster(s: &SidePlan) -> f64 {
    s.set.caster_deg
}

#[test]
fn fitted_parts_and_the_setting_are_in_the_planned_column() {
    let rear = electric_rear().geometry;
    let bare = same(&front(|_| ()), &rear);
    let with = same(&front(|i| i.fitted = vec!["offset-upper-arm".into()]), &rear);
    // The part is what makes the difference, in both.
    let q = |x: &(PlanResult, CornerFile)| quantity(&x.1, "caster").planned.unwrap();
    assert!((q(&with) - q(&bare)).abs() > 0.3, "{} {}", q(&with), q(&bare));
    // Its curve goes through the same wheel, over the body's own axes.
    let curve = with.1.set_curves.front.as_ref().unwrap();
    assert!(bare.1.set_curves.front.is_some() && with.1.set_curves.rear.is_none());
    let gain = with.0.judged.own_mm;
    let near =
        curve.left.iter().min_by(|a, b| (a.height_mm - gain).abs().total_cmp(&(b.height_mm - gain).abs()));
    let near = near.unwrap();
    assert!((near.camber_deg - with.0.left.set.camber_deg).abs() < 0.15, "{near:?}");
    let trail = quantity(&with.1, "trail");
    assert!((trail.planned.unwrap() - trail.arrived).abs() > 2.0);
}

#[test]
fn pitch_is_in_caster_and_trail() {
    let rear = electric_rear().geometry;
    let level = same(&front(|i| i.own_mut().settle_mm = 0.0), &rear);
    let raked = same(
        &front(|i| {
            i.own_mut().settle_mm = 0.0;
            i.moves.rear.height_change_mm = 65.0;
        }),
        &rear,
    );
    assert_eq!(level.0.judged.kind, StateKind::Planned);
    // Cams are set to the same aim; what is left is the pitch, and trail follows caster over the ground.
    for x in [&level, &raked] {
        let c = quantity(&x.1, "caster").planned.unwrap();
        assert!((c - caster(&x.0.left)).abs() < 0.02, "{c} {}", caster(&x.0.left));
    }
    let (a, b) = (&level.1.states[1], &raked.1.states[1]);
    assert!((a.pitch_deg - b.pitch_deg - (65.0f64 / 3220.0).atan().to_degrees()).abs() < 0.01);
}

#[test]
fn a_body_lift_moves_no_arm() {
    let rear = electric_rear().geometry;
    let x = front(|i| {
        i.own_mut().height_change_mm = 50.0;
        i.moves.rear.height_change_mm = 50.0;
        i.own_mut().settle_mm = 0.0;
        i.own_mut().load_mm = 0.0;
        i.ways = vec![Way { kind: WayKind::BodyLift, gain_mm: 50.0 }];
    });
    let (_, file) = same(&x, &rear);
    for id in ["sai", "scrub_radius", "included_angle"] {
        let q = quantity(&file, id);
        let tolerance = if q.unit == "°" { 0.5 } else { 3.0 };
        assert!((q.planned.unwrap() - q.arrived).abs() < tolerance, "{id}: {} {:?}", q.arrived, q.planned);
    }
}

#[test]
fn a_rear_axle_and_its_trim_are_the_plans() {
    let shape = truck().geometry;
    let mut i = electric_rear();
    (i.left.height_mm, i.right.height_mm) = (i.design_height_mm, i.design_height_mm);
    (i.own_mut().settle_mm, i.own_mut().load_mm, i.moves.rear.settle_mm, i.moves.rear.load_mm) =
        (0.0, 0.0, 0.0, 0.0);
    i.fitted = vec!["rear-camber-arm".into()];
    same(&i, &shape);
}
