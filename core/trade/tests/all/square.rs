//! A live axle that stands askew is squared by its lower arms alone, to the mean of both wheelbases.

use bold_stance_car::adjuster::{Adjuster, AdjusterKind, offers};
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::vehicle::{Axles, Measured, Sides};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::Corner;
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::plan::{PlanInput, PlanResult, SideReadings, Square, Unread, orders, plan};

const INCH: f64 = 25.4;

fn shape(id: &str) -> Geometry {
    shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry
}

/// The thread a live axle is offered at a place.
fn thread(g: &Geometry, place: &str) -> Adjuster {
    let all = offers(&g.points).into_iter().flat_map(|o| o.places);
    all.map(|p| p.adjuster)
        .find(|a| matches!(&a.kind, AdjusterKind::Thread { link, .. } if link.word() == place))
        .unwrap_or_else(|| panic!("no thread at {place}"))
}

fn input(g: &Geometry, adjusters: Vec<Adjuster>, wheelbases: Option<[f64; 2]>) -> PlanInput {
    let front = g.axle == Axle::Front;
    let angles = Measured { camber_deg: 0.0, caster_deg: if front { 4.0 } else { 0.0 }, toe_deg: 0.0 };
    let read = SideReadings {
        height_mm: 500.0,
        angles,
        sigma: Default::default(),
        unread: Unread { height: false, camber: true, caster: true, toe: true },
    };
    PlanInput {
        wheelbases_mm: wheelbases.map(|[left, right]| Sides { left, right }),
        ..PlanInput::unchanged(
            g.clone(),
            2700.0,
            500.0,
            adjusters,
            [read, read],
            shipped_aims().unwrap().remove(0),
        )
    }
}

fn worked(i: &PlanInput) -> PlanResult {
    plan(i, &[]).unwrap_or_else(|e| panic!("{:?}", e.first()))
}

/// Where both wheel centres are along the car with the lower arms longer by so much, mm forward: posed here, link by
/// link.
fn ends(g: &Geometry, by: [f64; 2]) -> [f64; 2] {
    let edits: Vec<Edit> = ["lower_left", "lower_right"]
        .into_iter()
        .zip(by)
        .map(|(name, by_mm)| Edit::LengthenLink { name: name.into(), by_mm })
        .collect();
    let Corner::Axle(c) = Corner::of(g, Side::Left).edited(&edits) else { panic!("a live axle") };
    let a = c.axle_pose(0.0, 0.0).unwrap();
    let left = c.left_wheel(&a).centre;
    [left.x, (a.midpoint * 2.0 - left).x]
}

fn longer(s: &Square) -> [f64; 2] {
    s.arms.as_ref().map(|l| l.as_ref().map_or(0.0, |l| l.movement_mm)).into_pair()
}

#[test]
fn an_axle_a_quarter_inch_askew_comes_to_the_mean_by_its_lower_arms() {
    for id in ["triangulated_rear", "parallel_four_link_rear", "track_bar_rear", "live_front"] {
        let g = shape(id);
        let i = input(&g, vec![thread(&g, "lower")], Some([106.5 * INCH, 106.25 * INCH]));
        let r = worked(&i);
        let s = r.square.as_ref().unwrap_or_else(|| panic!("{id} is not squared"));
        assert!(s.squared && (s.to_mm - 106.375 * INCH).abs() < 1e-9, "{id} {s:?}");
        // Turned to the letter, both ends stand at the mean.
        let forward = if g.axle == Axle::Front { 1.0 } else { -1.0 };
        let (before, after) = (ends(&g, [0.0; 2]), ends(&g, longer(s)));
        for (k, read) in [106.5, 106.25].into_iter().enumerate() {
            let comes = read * INCH + forward * (after[k] - before[k]);
            assert!((comes - 106.375 * INCH).abs() <= 0.5, "{id} {k}: {comes}");
        }
        // One arm longer, the other shorter, and nothing else is turned.
        let [l, rr] = longer(s);
        assert!(l * rr < 0.0, "{id} {l} {rr}");
        let all = orders(&if g.axle == Axle::Front {
            Axles { front: Some(r.clone()), rear: None }
        } else {
            Axles { front: None, rear: Some(r.clone()) }
        });
        let moved: Vec<_> = all.iter().filter(|o| o.line.moves()).collect();
        assert_eq!(moved.len(), 2, "{id} {moved:?}");
        assert_eq!(moved.iter().map(|o| o.side).collect::<Vec<_>>(), [Some(Side::Left), Some(Side::Right)]);
        // Each is held in hand like any other, at its place in the drawing.
        assert!(moved.iter().all(|o| o.line.in_hand.as_ref().is_some_and(|h| h.spot.is_some())), "{id}");
        // Turned for another plan already, they are not turned again.
        let mut again = i.clone();
        for (side, l) in s.arms.each() {
            let l = l.as_ref().unwrap();
            again.turned[side].insert(l.name.clone(), l.position);
        }
        let stands = worked(&again).square.unwrap();
        assert!(stands.arms.each().iter().all(|(_, l)| !l.as_ref().unwrap().moves()), "{id} {stands:?}");
    }
}

#[test]
fn a_car_whose_arms_were_turned_apart_gets_them_back() {
    // The truth: somebody turned the left arm longer and the right one shorter.
    for (id, apart) in [("triangulated_rear", 4.5), ("parallel_four_link_rear", 6.0), ("track_bar_rear", 6.0)]
    {
        let g = shape(id);
        let askew = ends(&g, [apart, -apart]);
        let square = ends(&g, [0.0; 2]);
        let read = [0, 1].map(|k| 2700.0 - (askew[k] - square[k]));
        let s = worked(&input(&g, vec![thread(&g, "lower")], Some(read))).square.unwrap();
        let [l, r] = longer(&s);
        assert!((l + apart).abs() < 0.6 && (r - apart).abs() < 0.6, "{id}: {l} {r} for {apart}");
    }
}

#[test]
fn each_arm_with_a_thread_of_its_own_is_ordered_by_its_name() {
    let g = shape("triangulated_rear");
    let arms = ["lower_left", "lower_right"].map(|p| thread(&g, p)).to_vec();
    let names: Vec<String> = arms.iter().map(|a| a.name.clone()).collect();
    let s = worked(&input(&g, arms, Some([2706.0, 2696.0]))).square.unwrap();
    assert!(s.squared && s.pair.is_none());
    let told: Vec<_> = s.arms.each().iter().map(|(_, l)| l.as_ref().unwrap().name.clone()).collect();
    assert_eq!(told, names);
}

#[test]
fn one_arm_alone_brings_both_sides_to_one_length() {
    let g = shape("triangulated_rear");
    let s = worked(&input(&g, vec![thread(&g, "lower_left")], Some([2706.0, 2696.0]))).square.unwrap();
    assert!(s.squared && s.arms.right.is_none(), "{s:?}");
    assert!((s.come_mm.left - s.come_mm.right).abs() <= 1.0, "{:?}", s.come_mm);
}

#[test]
fn what_nothing_turns_or_a_short_thread_leaves_askew_does_not_land() {
    let g = shape("triangulated_rear");
    let mut seized = thread(&g, "lower");
    seized.locked = true;
    let r = worked(&input(&g, vec![seized], Some([2706.0, 2696.0])));
    assert!(!r.verdict.reached && !r.square.unwrap().squared);
    let mut short = thread(&g, "lower");
    if let AdjusterKind::Thread { turns, .. } = &mut short.kind {
        *turns = [-0.5, 0.5];
    }
    let r = worked(&input(&g, vec![short], Some([2712.0, 2690.0])));
    let s = r.square.unwrap();
    assert!(!s.squared && !r.verdict.reached && s.arms.left.unwrap().at_end);
}

#[test]
fn a_square_axle_and_one_nobody_taped_are_left_alone() {
    let g = shape("triangulated_rear");
    assert!(worked(&input(&g, vec![thread(&g, "lower")], None)).square.is_none());
    assert!(worked(&input(&g, vec![thread(&g, "lower")], Some([2700.0, 2703.0]))).square.is_none());
    let wishbone = shape("wishbone_rear");
    assert!(worked(&input(&wishbone, Vec::new(), Some([2710.0, 2690.0]))).square.is_none());
}

#[test]
fn squared_the_rear_wheels_point_ahead_again() {
    // Toe as read on an axle that stands askew: both wheels point to one side.
    let g = shape("triangulated_rear");
    let apart: f64 = 12.0;
    let track = 2.0 * g.wheel.center[1];
    // The left end stands farther back: the axle is turned to the left seen from above, its wheels steer left.
    let thrust = (apart / track).atan().to_degrees();
    let mut i = input(&g, vec![thread(&g, "lower")], Some([2700.0 + apart / 2.0, 2700.0 - apart / 2.0]));
    for (s, sign) in [(&mut i.left, -1.0), (&mut i.right, 1.0)] {
        s.unread = Unread { height: false, camber: false, caster: true, toe: false };
        s.angles.toe_deg = sign * thrust;
    }
    let r = worked(&i);
    assert!(r.square.as_ref().unwrap().squared);
    let aside = 0.5 * (r.left.set.toe_deg - r.right.set.toe_deg);
    assert!(aside.abs() < 0.02, "{aside} of {thrust}");
    assert!(thrust > 0.3, "{thrust}");
}
