//! Facts of the trade the planner has to get right. Common practice, no source, unless one is named.

use crate::common;
use bold_stance_car::adjuster::{Adjuster, AdjusterKind, ThreadLink, adjusters_not_there, default_adjusters};
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::vehicle::{Attitude, Car, CarFacts, Gains, Measured, Sides};
use bold_stance_kinematics::edit::{EccentricPoint, Edit};
use bold_stance_kinematics::geometry::{Geometry, Side, WheelAtDesign, WishbonePoints};
use bold_stance_kinematics::linkage::{Arm, Corner, Linkage};
use bold_stance_trade::aim::Target;
use bold_stance_trade::part::{parts_for, shipped_parts};
use bold_stance_trade::plan::{
    Bench, Filters, LockTurn, PlanInput, SetPlan, Way, WayKind, plan, search, solve,
};
use bold_stance_words::English;
use common::truck;

fn shape(id: &str) -> Geometry {
    shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry
}

fn cam(name: &str, point: EccentricPoint) -> Adjuster {
    Adjuster {
        name: name.into(),
        position: 0.0,
        unseen: false,
        locked: false,
        held: None,
        measured: false,
        known: None,
        kind: AdjusterKind::Eccentric {
            point,
            direction: [0.0, 1.0, 0.0],
            eccentricity_mm: 5.0,
            min_deg: -90.0,
            max_deg: 90.0,
            notches_per_half_turn: Some(8),
        },
    }
}

#[test]
fn each_pivot_has_the_side_effect_the_trade_knows() {
    for id in ["half_ton_front", "one_ton_front", "sports_front"] {
        let g = shape(id);
        use EccentricPoint::{LowerFront, LowerRear, UpperFront, UpperRear};
        let mut list: Vec<Adjuster> =
            [LowerFront, LowerRear, UpperFront, UpperRear].map(|p| cam("Cam", p)).to_vec();
        list.push(default_adjusters(5.0).remove(2));
        let b = Bench::new(Corner::of(&g, Side::Left), list, 0.0, Attitude::default());
        // A notch outboard each, toe put back by the tie rod as the shop does.
        let here = b.angles(&b.with_toe(0.0)).unwrap();
        let effect = |i: usize, notches: f64| {
            let mut moved = b.clone();
            moved.adjusters[i].position = 22.5 * notches;
            let a = moved.angles(&moved.with_toe(0.0)).unwrap();
            (a.camber_deg - here.camber_deg, a.caster_deg - here.caster_deg)
        };
        let (camber, caster) = effect(0, 1.0);
        assert!(camber < -0.02 && caster < -0.02, "{id}: lower front outboard {camber} {caster}");
        let (camber, caster) = effect(1, -1.0);
        assert!(camber > 0.02 && caster < -0.02, "{id}: lower rear inboard {camber} {caster}");
        // For an upper arm everything is the other way round.
        let (camber, caster) = effect(2, 1.0);
        assert!(camber > 0.02 && caster > 0.02, "{id}: upper front outboard {camber} {caster}");
        let (camber, caster) = effect(3, -1.0);
        assert!(camber < -0.02 && caster > 0.02, "{id}: upper rear inboard {camber} {caster}");
    }
}

#[test]
fn correcting_camber_at_the_upper_arms_moves_height_by_the_order_known() {
    // CP10: it cost about half an inch of front height. At the same lower-arm angle (torsion bar untouched) taking
    // 3° of positive camber out at both upper pivots lowers the frame over the ground by millimetres.
    let g = shape("one_ton_front");
    let c = Corner::of(&g, Side::Left);
    let height = |c: &Corner| {
        // Travel at which the lower joint stands where it stood: the bar holds it there.
        let want = Corner::of(&g, Side::Left).pose(0.0, 0.0).unwrap().axis.unwrap().lower.z;
        let (mut low, mut high) = (-60.0, 60.0);
        for _ in 0..60 {
            let mid = f64::midpoint(low, high);
            if c.pose(mid, 0.0).unwrap().axis.unwrap().lower.z < want { low = mid } else { high = mid }
        }
        let p = c.pose(low, 0.0).unwrap();
        let ground = bold_stance_kinematics::wheel::contact_point(&p.centre, &p.spin, c.loaded_radius()).z;
        (-ground, p.wheel(c.loaded_radius(), c.design_x()).camber_deg)
    };
    let inboard = |mm: f64| {
        c.edited(
            &[EccentricPoint::UpperFront, EccentricPoint::UpperRear]
                .map(|point| Edit::MovePivot { point, by: [0.0, -mm, 0.0] }),
        )
    };
    let (h0, camber0) = height(&c);
    let (h1, camber1) = height(&inboard(15.0));
    assert!(camber1 - camber0 < -2.0, "{}", camber1 - camber0);
    assert!((-16.0..-1.5).contains(&(h1 - h0)), "{} mm", h1 - h0);
}

#[test]
fn a_longer_lower_arm_than_the_top_is_moved_leans_the_axis() {
    // CP11: lower arm +75 mm with only +50 mm at the top raises SAI by 2–3° on a strut of usual height.
    let g = shape("compact_strut_front");
    let c = Corner::of(&g, Side::Left);
    let was = c.alignment(0.0, 0.0).unwrap();
    let longer = c.edited(&[
        Edit::ReshapeArm { arm: Arm::Lower, longer_mm: 75.0, forward_mm: 0.0 },
        Edit::MovePivot { point: EccentricPoint::StrutTop, by: [0.0, 50.0, 0.0] },
        Edit::LengthenTie { by_mm: 75.0 },
    ]);
    let now = longer.alignment(0.0, 0.0).unwrap();
    let rise = now.sai_deg - was.sai_deg;
    assert!((1.8..3.2).contains(&rise), "{rise}");
    // Both moved alike, the axis keeps its lean.
    let alike = c.edited(&[
        Edit::ReshapeArm { arm: Arm::Lower, longer_mm: 75.0, forward_mm: 0.0 },
        Edit::MovePivot { point: EccentricPoint::StrutTop, by: [0.0, 75.0, 0.0] },
        Edit::LengthenTie { by_mm: 75.0 },
    ]);
    assert!((alike.alignment(0.0, 0.0).unwrap().sai_deg - was.sai_deg).abs() < 0.6);
}

/// A corner with a given axis lean, at −8° of camber and 5° of caster.
fn drift_corner(sai: f64) -> Bench {
    let lower = [6.0, 690.0, 190.0];
    let h = 330.0;
    let t = |d: f64| d.to_radians().tan();
    let points = WishbonePoints {
        lower_front: [170.0, 330.0, 205.0],
        lower_rear: [-190.0, 330.0, 205.0],
        lower_outer: lower,
        upper_front: [120.0, 400.0, 520.0],
        upper_rear: [-140.0, 400.0, 515.0],
        upper_outer: [lower[0] - h * t(5.0), lower[1] - h * t(sai), lower[2] + h],
        tie_inner: [-130.0, 320.0, 230.0],
        tie_outer: [-140.0, 680.0, 215.0],
    };
    let wheel = WheelAtDesign {
        center: [0.0, 760.0, 310.0],
        camber_deg: -8.0,
        toe_deg: 0.0,
        loaded_radius_mm: 310.0,
    };
    let c = Corner::new(&bold_stance_kinematics::geometry::Points::DoubleWishbone(points), &wheel);
    Bench::new(c, default_adjusters(4.0), 0.0, Attitude::default())
}

#[test]
fn the_same_camber_over_another_axis_lean_is_another_car_at_full_lock() {
    // CP13: all at −8° camber and 5° caster; SAI 14° gave +5°/−6° at the two locks, SAI 8° gave 0°/−10°.
    let turn = LockTurn { inner_deg: 60.0, outer_deg: 50.0 };
    for (sai, inner, outer) in [(14.0, 5.0, -6.0), (8.0, 0.0, -10.0)] {
        let b = drift_corner(sai);
        let a = b.angles(&b.start()).unwrap();
        assert!((a.sai_deg - sai).abs() < 0.1 && (a.caster_deg - 5.0).abs() < 0.1);
        let l = b.at_lock(&b.start(), &turn).unwrap();
        assert!((l.inner_deg - inner).abs() < 2.0 && (l.outer_deg - outer).abs() < 2.0, "{sai}: {l:?}");
    }
}

#[test]
fn turns_of_a_tie_rod_have_the_order_known() {
    // CP15: about 1.6 turns of one rod took 7–8 mm out at the rim of a small front-drive car; the last sixth of a
    // turn was worth 1 mm. Rim of 15 in: 406 mm over the flanges.
    let g = shape("compact_strut_front");
    let rod = Adjuster { name: "Tie rod".into(), ..default_adjusters(4.0).remove(2) };
    let b = Bench::new(Corner::of(&g, Side::Left), vec![rod], 0.0, Attitude::default());
    let at = |turns: f64| 406.0 * b.angles(&[turns]).unwrap().toe_deg.to_radians().sin();
    let moved = (at(1.6) - at(0.0)).abs();
    assert!((5.5..9.0).contains(&moved), "{moved}");
    let sixth = (at(1.6) - at(1.6 - 1.0 / 6.0)).abs();
    assert!((0.5..1.2).contains(&sixth), "{sixth}");
}

#[test]
fn a_cam_bolt_turns_as_a_sine_and_its_real_range_can_be_learned() {
    // CP12: a bolt sold as ±1.75° moved 2.5° on one car: the range is data of this car's part, not of the label.
    let g = shape("compact_strut_front");
    let bolt = |amplitude_deg| Adjuster {
        name: "Strut cam bolt".into(),
        position: 0.0,
        unseen: false,
        locked: false,
        held: None,
        measured: false,
        known: None,
        kind: AdjusterKind::CamBolt {
            amplitude_deg,
            min_deg: -90.0,
            max_deg: 90.0,
            notches_per_half_turn: Some(16),
        },
    };
    for amplitude in [1.75, 2.5] {
        let b = Bench::new(Corner::of(&g, Side::Left), vec![bolt(amplitude)], 0.0, Attitude::default());
        let (a, z, h) = (b.angles(&[90.0]).unwrap(), b.angles(&[0.0]).unwrap(), b.angles(&[30.0]).unwrap());
        // The ordered angle is the one between knuckle and strut: the wheel gets about 1 − h/L of it.
        let share = (a.camber_deg - z.camber_deg) / amplitude;
        assert!((0.55..0.85).contains(&share), "{share}");
        assert!((h.camber_deg - z.camber_deg - 0.5 * (a.camber_deg - z.camber_deg)).abs() < 0.03);
        // The axis hardly moves, so the included angle changes; the steering arm goes along, so toe does too.
        assert!((a.sai_deg - z.sai_deg).abs() < 0.2, "{}", a.sai_deg - z.sai_deg);
        assert!((a.toe_deg - z.toe_deg).abs() > 0.3 * (a.camber_deg - z.camber_deg).abs());
    }
}

#[test]
fn lowering_past_level_reverses_the_camber_gain_of_a_strut() {
    let g = shape("compact_strut_front");
    let c = Corner::of(&g, Side::Left);
    let camber = |t: f64| c.alignment(t, 0.0).unwrap().camber_deg;
    // Lowering adds negative camber at first, then less and less, then gives it back.
    assert!(camber(20.0) < camber(0.0));
    let lowest = (0..=110).map(f64::from).min_by(|a, b| camber(*a).total_cmp(&camber(*b))).unwrap();
    assert!((15.0..110.0).contains(&lowest), "{lowest}");
    assert!(camber(110.0) > camber(lowest));
}

#[test]
fn a_rear_camber_arm_alone_moves_toe_and_is_not_offered_alone() {
    let g = shape("ev_multilink_rear");
    let parts = parts_for(&shipped_parts().unwrap(), &g);
    let arm = parts.iter().find(|p| p.id == "rear-camber-arm").unwrap();
    assert!(arm.requires.contains(&"toe_adjuster".to_owned()));
    let b = Bench::new(Corner::of(&g, Side::Left), arm.adjusters.clone(), 0.0, Attitude::default());
    let s = &b.sensitivity(&b.start())[0];
    assert!(s.camber_deg.abs() > 0.1 && s.toe_deg.abs() > 0.03, "{s:?}");
    assert_eq!(b.toe_by, None, "a camber arm sets no toe");
    // With a toe arm beside it, that one sets toe.
    let toe = parts.iter().find(|p| p.id == "rear-toe-arm").unwrap();
    let both = [arm.adjusters.clone(), toe.adjusters.clone()].concat();
    let b = Bench::new(Corner::of(&g, Side::Left), both, 0.0, Attitude::default());
    assert_eq!(b.toe_by, Some(1));
}

#[test]
fn each_way_to_change_height_moves_what_it_really_moves() {
    let mut i = truck();
    i.own_mut().height_change_mm = 50.0;
    i.moves.rear.height_change_mm = 50.0;
    let by = |kind| {
        let mut j = i.clone();
        j.ways = vec![Way { kind, gain_mm: 50.0 }];
        plan(&j, &[]).unwrap().left.after
    };
    let spring = by(WayKind::Spring);
    let found = plan(&truck(), &[]).unwrap().left.before;
    assert!((spring.camber_deg - found.camber_deg).abs() > 0.2, "springs move the arms");
    // A body lift moves no suspension; brackets keep every arm's angle and take the rack along.
    for kind in [WayKind::BodyLift, WayKind::Bracket] {
        let a = by(kind);
        assert!((a.camber_deg - found.camber_deg).abs() < 1e-6, "{kind:?}");
        assert!((a.caster_deg - found.caster_deg).abs() < 1e-6 && (a.toe_deg - found.toe_deg).abs() < 1e-6);
    }
    // A knuckle keeps the arms' angles; only what hangs on the wheel centre changes.
    let knuckle = by(WayKind::Knuckle);
    assert!((knuckle.camber_deg - found.camber_deg).abs() < 1e-6);
    assert!((knuckle.scrub_radius_mm - found.scrub_radius_mm).abs() > 2.0);
    // Half one way, half another: between the two.
    let mut j = i.clone();
    j.ways = vec![Way { kind: WayKind::Bracket, gain_mm: 25.0 }];
    let half = plan(&j, &[]).unwrap().left.after;
    assert!((spring.camber_deg..found.camber_deg).contains(&half.camber_deg), "{}", half.camber_deg);
}

#[test]
fn leaf_blocks_keep_the_arms_and_move_the_axle_on_its_track_bar() {
    let g = shape("live_front");
    let c = Corner::of(&g, Side::Left);
    let Corner::Axle(found) = &c else { panic!() };
    let caster = |c: &Corner, t: f64| c.alignment(t, 0.0).unwrap().caster_deg;
    let block = Way { kind: WayKind::LeafBlock, gain_mm: 60.0 }.edits(&g.points);
    let blocked = c.edited(&block);
    let Corner::Axle(lifted) = &blocked else { panic!() };
    // Springs alone swing the arms and change caster; blocks hardly do.
    assert!((caster(&c, -60.0) - caster(&c, 0.0)).abs() > 1.0);
    assert!((caster(&blocked, -60.0) - caster(&c, 0.0)).abs() < 0.15);
    // The track bar is not on the blocks: the axle walks on it all the same.
    let walk = |a: &bold_stance_kinematics::linkage::SolidAxleCorner, t: f64| {
        a.axle_pose(t, 0.0).unwrap().midpoint.y
    };
    assert!((walk(lifted, -60.0) - walk(found, -60.0)).abs() < 3.0);
    assert!(walk(lifted, -60.0).abs() > 5.0);
}

#[test]
fn tabs_still_in_hold_the_cams_and_taking_them_out_frees_them() {
    // Scenario 9 of the trade: knock-out tabs left in, no adjustment possible.
    let parts = shipped_parts().unwrap();
    let mut i = truck();
    i.own_mut().height_change_mm = 15.0;
    for a in i.adjusters.each_mut().into_iter().flat_map(|l| &mut l[..2]) {
        a.locked = true;
    }
    let held = plan(&i, &parts).unwrap();
    assert!(held.left.reach.is_none());
    assert!(held.left.setting.iter().filter(|l| l.name.contains("cam")).all(|l| l.direction == "leave"));
    i.fitted = vec!["tabs-out".into()];
    let free = plan(&i, &parts).unwrap();
    assert_eq!(free.left.reach.unwrap().by.len(), 2);
}

#[test]
fn a_thread_on_any_link_of_a_multi_link_axle_can_be_turned() {
    let g = shape("ev_multilink_rear");
    let thread = |name: &str| Adjuster {
        name: name.into(),
        position: 0.0,
        unseen: false,
        locked: false,
        held: None,
        measured: false,
        known: None,
        kind: AdjusterKind::Thread {
            link: ThreadLink::from(name.to_owned()),
            pitch_mm: 1.5,
            ends: 2,
            turns: [-2.0, 2.0],
            engaged_mm: None,
            min_engaged_mm: None,
            left_hand: None,
        },
    };
    let names = ["upper_front", "upper_rear", "lower_front", "spring_link", "toe_link"];
    let b = Bench::new(Corner::of(&g, Side::Left), names.map(thread).to_vec(), 0.0, Attitude::default());
    for s in b.sensitivity(&b.start()) {
        assert!(s.camber_deg.abs() + s.toe_deg.abs() > 0.02, "{s:?}");
    }
}

#[test]
fn a_setting_made_on_the_jack_to_half_a_degree_ends_at_zero_on_its_wheels() {
    // Scenario 1 of the trade and CP8: jacked by the arm the wheel reads about half a degree more positive; set to zero
    // there it drives off at half a degree in, set to what is predicted there it drives off at zero.
    let c = Corner::of(&shape("compact_strut_front"), Side::Left);
    let camber = |t: f64| c.alignment(t, 0.0).unwrap().camber_deg;
    let hangs = (1..=120).map(|t| -f64::from(t)).find(|t| camber(*t) - camber(0.0) >= 0.5).unwrap();
    let bolt = Adjuster {
        name: "Strut cam bolt".into(),
        position: 0.0,
        unseen: false,
        locked: false,
        held: None,
        measured: false,
        known: None,
        kind: AdjusterKind::CamBolt {
            amplitude_deg: 2.5,
            min_deg: -90.0,
            max_deg: 90.0,
            notches_per_half_turn: None,
        },
    };
    let at = |travel: f64| Bench::new(c.clone(), vec![bolt.clone()], travel, Attitude::default());
    let set_there = |want: f64| {
        let aim = Target { camber: [want - 0.01, want + 0.01], caster: [-20.0, 20.0], toe: [-20.0, 20.0] };
        let set = solve(&at(hangs), &aim).remove(0);
        assert!(set.shortfall.worst() < 1e-9, "{:?}", set.shortfall);
        at(0.0).angles(&set.positions).unwrap().camber_deg
    };
    let predicted = camber(hangs) - camber(0.0);
    assert!((0.5..0.53).contains(&predicted), "{predicted}");
    assert!(set_there(predicted).abs() < 0.03, "{}", set_there(predicted));
    assert!((set_there(0.0) + 0.5).abs() < 0.06, "{}", set_there(0.0));
}

#[test]
fn eccentrics_at_the_pivot_of_a_semi_trailing_arm_set_camber_and_toe_together() {
    let g = shape("semi_trailing_rear");
    let parts = parts_for(&shipped_parts().unwrap(), &g);
    let p = parts.iter().find(|p| p.id == "arm-pivot-eccentrics").unwrap();
    let b = Bench::new(Corner::of(&g, Side::Left), p.adjusters.clone(), 20.0, Attitude::default());
    let here = b.angles(&b.start()).unwrap();
    let (up, aft) = (b.sensitivity(&b.start())[0].clone(), b.sensitivity(&b.start())[1].clone());
    // Up and down tips the wheel, fore and aft turns it; neither does one thing only.
    assert!(up.camber_deg.abs() > 0.1 && aft.toe_deg.abs() > 0.1, "{up:?} {aft:?}");
    // Any pair of angles inside their reach is found again: here that of both turned by some notches.
    let want = b.angles(&[56.25, -33.75]).unwrap();
    assert!((want.camber_deg - here.camber_deg).hypot(want.toe_deg - here.toe_deg) > 0.15);
    let around = |v: f64| [v - 0.03, v + 0.03];
    let aim = Target { camber: around(want.camber_deg), caster: [-90.0, 90.0], toe: around(want.toe_deg) };
    let set = solve(&b, &aim).remove(0);
    assert!(set.shortfall.worst() < 1e-9, "{:?}", set.shortfall);
    let a = b.angles(&set.positions).unwrap();
    assert!((a.camber_deg - want.camber_deg).abs() < 0.031 && (a.toe_deg - want.toe_deg).abs() < 0.031);
}

/// Levelling a lean, or trimming one side, rolls the body: the wheels lean with it. The whole-car model, which rolls
/// the body by all four heights, is the other way to the same angles.
#[test]
fn trim_rolls_the_body_and_both_wheels_lean_with_it() {
    let mut plan_of = truck();
    (plan_of.own_mut().height_change_mm, plan_of.own_mut().settle_mm, plan_of.own_mut().load_mm) =
        (0.0, 0.0, 0.0);
    plan_of.adjusters = Sides::default();
    let g = plan_of.geometry.clone();
    let car = Car {
        front: g.clone(),
        rear: Some(shape("leaf_rear")),
        wheelbase_mm: 3220.0,
        facts: CarFacts::default(),
    };
    let corners = car.corners();
    // As read on the drawn car itself, so that nothing is anchored away.
    for (s, corner) in [(0, Side::Left), (1, Side::Right)] {
        let w = Corner::of(&g, corner).wheel(0.0, 0.0).unwrap().or_unsteered();
        let side = if s == 0 { &mut plan_of.left } else { &mut plan_of.right };
        side.height_mm = plan_of.design_height_mm;
        side.angles = Measured { camber_deg: w.camber_deg, caster_deg: w.caster_deg, toe_deg: w.toe_deg };
    }
    for trim in [[10.0, 0.0], [20.0, -20.0], [-8.0, 15.0]] {
        plan_of.trim_mm = Sides { left: trim[0], right: trim[1] };
        let a = plan(&plan_of, &[]).unwrap();
        let planned = a.states.iter().find(|s| s.own_mm == 0.0 && s.name == "planned").unwrap();
        // The rear rolls as far as the front does: no twist between the axles.
        let rear = car.rear.as_ref().unwrap().wheel.center[1] / g.wheel.center[1];
        let mid = 0.5 * (trim[0] + trim[1]);
        let gains = Gains {
            left_front: trim[0],
            right_front: trim[1],
            left_rear: (trim[0] - mid) * rear,
            right_rear: (trim[1] - mid) * rear,
        };
        let other = car.state(&corners, &gains, bold_stance_car::vehicle::Axles::default());
        // The plan's pitch is of the planned height alone; half the trims' sum is 10 mm at most on 3220 mm.
        let pitch = (mid / 3220.0).atan().to_degrees();
        for (i, s) in [&planned.left, &planned.right].into_iter().enumerate() {
            let (said, whole) = (s.as_ref().unwrap().angles, other.wheels[i].wheel.unwrap());
            assert!((said.camber_deg - whole.camber_deg).abs() < 0.02, "{trim:?} {i}: {said:?} {whole:?}");
            let caster = whole.steer.unwrap().caster_deg;
            assert!((said.caster_deg - caster).abs() < 0.02 + pitch.abs(), "{trim:?} {i}: {said:?} {caster}");
        }
        let lean = ((trim[0] - trim[1]) / (2.0 * g.wheel.center[1])).atan().to_degrees();
        let still =
            plan(&PlanInput { trim_mm: Sides { left: mid, right: mid }, ..plan_of.clone() }, &[]).unwrap();
        let flat = still.states.iter().find(|s| s.name == "planned").unwrap();
        let camber = |s: &Option<bold_stance_trade::plan::StateSide>| s.as_ref().unwrap().angles.camber_deg;
        assert!(lean.abs() > 0.3 && (camber(&planned.left) - camber(&flat.left)).abs() > 0.02);
    }
}

/// A live axle on coil springs is offered nothing that goes under a leaf, as a part or as a way to height; one on leaves is.
#[test]
fn leaf_parts_go_on_leaf_springs() {
    let parts = shipped_parts().unwrap();
    let get = shape;
    let offered = |id: &str| -> Vec<String> {
        let all = parts_for(&parts, &get(id));
        all.iter()
            .map(|p| p.family().to_owned())
            .filter(|f| f == "caster-wedges" || f == "leaf-blocks")
            .collect()
    };
    assert!(offered("live_front").is_empty() && offered("triangulated_rear").is_empty());
    assert!(offered("leaf_rear").contains(&"leaf-blocks".to_owned()));
    assert!(offered("leaf_rear").contains(&"caster-wedges".to_owned()));
    let mut i = truck();
    i.geometry = get("triangulated_rear");
    let fault = |i: &PlanInput| i.problems().into_iter().find(|p| p.field == "ways.0.kind");
    i.ways = vec![Way { kind: WayKind::LeafBlock, gain_mm: 25.0 }];
    assert!(fault(&i).unwrap().wrong.en().contains("not on leaf springs"));
    i.geometry = get("leaf_rear");
    assert!(fault(&i).is_none());
}

/// No set has a part in it that could be left out: with fewer of its own parts the car is set worse, or something that can
/// be measured or noticed is worse.
#[test]
fn every_part_of_a_set_earns_its_place() {
    let parts = shipped_parts().unwrap();
    let mut sets = 0;
    for (id, height) in [
        ("half_ton_front", 40.0),
        ("compact_strut_front", -30.0),
        ("sports_front", -20.0),
        ("compact_off_roader_front", 60.0),
        ("strut_coupe_front", -30.0),
    ] {
        let mut i = truck();
        i.geometry = shape(id);
        let points = i.geometry.points.clone();
        for list in i.adjusters.each_mut() {
            list.retain(|a| adjusters_not_there(std::slice::from_ref(a), &points).is_empty());
        }
        i.own_mut().height_change_mm = height;
        let Ok(found) = search(&i, &Filters::default(), None, &parts, &|_| true) else { panic!("{id}") };
        for p in found.plans.iter().filter(|p| !p.parts.is_empty()) {
            sets += 1;
            let ids = |p: &SetPlan| p.parts.iter().map(|x| x.id.clone()).collect::<Vec<_>>();
            for q in &found.plans {
                let (a, b) = (ids(q), ids(p));
                if a.len() >= b.len() || !a.iter().all(|x| b.contains(x)) {
                    continue;
                }
                let better = (!q.reached && (p.reached || q.short_deg - p.short_deg >= 0.05))
                    || q.fouls.len() > p.fouls.len()
                    || q.bump_toe_deg - p.bump_toe_deg >= 0.05
                    || q.scrub_change_mm.abs() - p.scrub_change_mm.abs() >= 5.0
                    || q.sai_change_deg.abs() - p.sai_change_deg.abs() >= 0.5
                    || q.wheel_x_mm.abs() - p.wheel_x_mm.abs() >= 5.0;
                assert!(better, "{id}: {b:?} does no more than {a:?}");
            }
        }
    }
    assert!(sets > 5, "{sets}");
}
