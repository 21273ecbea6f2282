//! Gates judge everything they take: against what was expected and against the aim; the sheet and the headline say
//! what fouls; what is inside is left alone. Limits are common practice, no source.

use crate::common;
use bold_stance_car::adjuster::{Adjuster, AdjusterKind, default_adjusters};
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::vehicle::Attitude;
use bold_stance_car::vehicle::Sides;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage, SolidAxleCorner};
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::part::{Part, shipped_parts};
use bold_stance_trade::plan::{
    Bench, PlanInput, PlanResult, SideReadings, Unread, car_fitted_parts, fitted_parts, plan, plan_car,
};
use bold_stance_trade::sheet::{
    Expectation, GateAbout, GateFinding, GateRead, GateReading, GateSide, SheetStep, StepId, StepKind,
    judge_gate, sheet,
};
use bold_stance_words::English;
use common::{car, truck};
use proptest::prelude::*;

const ALL: [GateReading; 4] =
    [GateReading::Height, GateReading::Camber, GateReading::Caster, GateReading::Toe];

fn read(value: f64, sigma: f64) -> Option<GateRead> {
    Some(GateRead { value, sigma, stale: false })
}

/// What would be read if all came as expected.
fn as_expected(r: &PlanResult) -> [GateSide; 2] {
    [&r.left, &r.right].map(|p| GateSide {
        height: read(p.planned_height_mm, 2.5),
        camber: read(p.set.camber_deg, 0.06),
        caster: read(p.set.caster_deg, 0.16),
        toe: read(p.set.toe_deg, 0.03),
        wheelbase: None,
        centre: None,
    })
}

fn reaching() -> (PlanInput, PlanResult) {
    let mut i = truck();
    i.fitted = vec!["offset-upper-arm@20".into()];
    let parts = shipped_parts().unwrap();
    let arm = parts.iter().find(|p| p.id == "offset-upper-arm").unwrap();
    for v in &arm.sizes.as_ref().unwrap().values {
        i.fitted = vec![format!("offset-upper-arm@{v}")];
        let r = plan(&i, &parts).unwrap();
        if r.verdict.reached {
            return (i, r);
        }
    }
    panic!("no size of the arm reaches: {:?}", plan(&i, &parts).unwrap().verdict);
}

/// The sheet of a car whose front is this one.
fn steps_of(i: &PlanInput) -> Vec<SheetStep> {
    let (c, parts) = (car(Some(i), None), shipped_parts().unwrap());
    sheet(&c, &plan_car(&c, &parts).unwrap(), &car_fitted_parts(&c, &parts))
}

fn about(f: &[GateFinding]) -> Vec<(GateAbout, Option<Side>)> {
    f.iter().map(|x| (x.about, x.side)).collect()
}

/// A wheel turned otherwise than ordered is held against how it really stands: read as the plan had it, it is off.
#[test]
fn a_wheel_turned_otherwise_is_held_against_how_it_stands() {
    let (i, r) = reaching();
    let good = as_expected(&r);
    let camber = good[0].camber.unwrap().value;
    let turned = Expectation { value: [camber - 1.5, 0.0, 0.0], half: [0.1; 3] };
    let turned = Sides { left: Some(turned), right: None };
    let f = judge_gate(&i, &r, &[GateReading::Camber], &good, &turned);
    assert_eq!(about(&f), [(GateAbout::Camber, Some(Side::Left))]);
    assert!(f[0].off_expected > 1.0 && f[0].off_aim == 0.0 && f[0].expected == Some(camber - 1.5), "{f:?}");
    // Read as it stands, the aim alone is against it.
    let mut there = good;
    there[0].camber = read(camber - 1.5, 0.06);
    let f = judge_gate(&i, &r, &[GateReading::Camber], &there, &turned);
    assert!(f.iter().all(|x| x.off_expected == 0.0) && f.iter().any(|x| x.off_aim < 0.0), "{f:?}");
}

#[test]
fn as_expected_opens_and_each_thing_off_is_named_with_its_amount() {
    let (i, r) = reaching();
    let good = as_expected(&r);
    assert!(
        judge_gate(&i, &r, &ALL, &good, &Sides::default()).is_empty(),
        "{:?}",
        judge_gate(&i, &r, &ALL, &good, &Sides::default())
    );
    // The case that once opened without a word: camber -1.4 left and +1.2 right.
    let mut off = good;
    off[0].camber = read(-1.4, 0.06);
    off[1].camber = read(1.2, 0.06);
    let f = judge_gate(&i, &r, &[GateReading::Camber, GateReading::Caster], &off, &Sides::default());
    assert_eq!(
        about(&f),
        [
            (GateAbout::Camber, Some(Side::Left)),
            (GateAbout::Camber, Some(Side::Right)),
            (GateAbout::CrossCamber, None)
        ]
    );
    assert!(
        (f[0].off_aim - (-1.4 - i.aim.camber_deg[0])).abs() < 1e-9 && f[0].off_expected < -0.5,
        "{:?}",
        f[0]
    );
    assert!((f[2].off_aim - (-2.6 + i.aim.cross_camber_deg)).abs() < 1e-9, "{:?}", f[2]);
    // Toe 0.44° a wheel.
    let mut off = good;
    (off[0].toe, off[1].toe) = (read(0.44, 0.03), read(0.44, 0.03));
    let f = judge_gate(&i, &r, &[GateReading::Toe], &off, &Sides::default());
    assert!(f.iter().any(|x| x.about == GateAbout::TotalToe && x.off_aim > 0.5), "{f:?}");
    assert!(f.iter().filter(|x| x.about == GateAbout::Toe).count() == 2, "{f:?}");
    // Heights 25 mm off plan, and 22 mm apart.
    let mut off = good;
    let h = r.left.planned_height_mm;
    (off[0].height, off[1].height) = (read(h - 25.0, 2.5), read(h - 3.0, 2.5));
    let f = judge_gate(&i, &r, &[GateReading::Height], &off, &Sides::default());
    assert!(about(&f).contains(&(GateAbout::Height, Some(Side::Left))), "{f:?}");
    let apart = f.iter().find(|x| x.about == GateAbout::HeightApart).unwrap();
    assert!((apart.read + 22.0).abs() < 1e-9, "{apart:?}");
    // Caster inside the aim on both sides but too far apart.
    let mut off = good;
    let [low, high] = i.aim.caster_deg;
    (off[0].caster, off[1].caster) = (read(low, 0.16), read(high, 0.16));
    let mut strict = i.clone();
    strict.aim.cross_caster_deg = 0.3;
    let f = judge_gate(&strict, &r, &[GateReading::Caster], &off, &Sides::default());
    assert!(about(&f).contains(&(GateAbout::CrossCaster, None)), "{f:?}");
    // A tape's width is not named, a reading taken before the work is.
    let mut off = good;
    off[0].height = read(h + 4.0, 2.5);
    off[1].height = read(h + 4.0, 2.5);
    assert!(judge_gate(&i, &r, &[GateReading::Height], &off, &Sides::default()).is_empty());
    off[0].camber = good[0].camber.map(|c| GateRead { stale: true, ..c });
    assert!(judge_gate(&i, &r, &[GateReading::Camber], &off, &Sides::default()).iter().any(|x| x.stale));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]
    /// Nothing wrong passes: whatever is outside the aim by more than can be read is named, whatever is inside by as
    /// much is not named for the aim.
    #[test]
    fn nothing_outside_the_aim_passes(camber in -3.0f64..3.0, caster in 0.0f64..9.0, toe in -1.0f64..1.0, other in -0.3f64..0.3) {
        let (i, r) = sample();
        let side = |d: f64| GateSide {
            height: None,
            camber: read(camber + d, 0.06),
            caster: read(caster + d, 0.16),
            toe: read(toe + 0.2 * d, 0.03),
            wheelbase: None,
            centre: None,
        };
        let f = judge_gate(&i, &r, &ALL, &[side(0.0), side(other)], &Sides::default());
        let named = |a: GateAbout| f.iter().any(|x| x.about == a && x.off_aim != 0.0);
        let out = |v: f64, w: [f64; 2], by: f64| v < w[0] - by || v > w[1] + by;
        let toe_total = 2.0 * toe + 0.2 * other;
        for (a, v, w) in [
            (GateAbout::Camber, [camber, camber + other], i.aim.camber_deg),
            (GateAbout::Caster, [caster, caster + other], i.aim.caster_deg),
            (GateAbout::TotalToe, [toe_total, toe_total], i.aim.toe_total_deg),
        ] {
            if v.iter().any(|v| out(*v, w, 0.06)) {
                prop_assert!(named(a), "{a:?} {v:?} {w:?}");
            }
            if !v.iter().any(|v| out(*v, w, 0.0)) {
                prop_assert!(!named(a), "{a:?} {v:?} {w:?}");
            }
        }
        prop_assert_eq!(named(GateAbout::CrossCamber), other.abs() > i.aim.cross_camber_deg + 0.05);
    }

    /// Leave what is in: a car inside all its windows gets no order.
    #[test]
    fn a_car_inside_its_windows_gets_no_order(
        camber in 0.0f64..1.0, caster in 0.0f64..1.0, toe in 0.0f64..1.0, cross in -0.2f64..0.2
    ) {
        let mut i = truck();
        i.own_mut().height_change_mm = 0.0;
        i.moves.rear.height_change_mm = 0.0;
        let at = |w: [f64; 2], t: f64| w[0] + 0.02 * (w[1] - w[0]) + t * 0.96 * (w[1] - w[0]);
        let wheel = i.aim.wheel_toe();
        for (k, s) in [&mut i.left, &mut i.right].into_iter().enumerate() {
            let d = if k == 0 { 0.0 } else { cross };
            s.angles.camber_deg = at(i.aim.camber_deg, (camber + d).clamp(0.0, 1.0));
            s.angles.caster_deg = at(i.aim.caster_deg, (caster + d).clamp(0.0, 1.0));
            s.angles.toe_deg = at(wheel, toe);
        }
        let r = plan(&i, &[]).unwrap();
        for s in [&r.left, &r.right] {
            prop_assert!(s.setting.iter().all(|l| !l.moves()), "{:?}", s.setting);
        }
        prop_assert!(r.verdict.reached && r.verdict.sentence.en().contains("leave everything"), "{:?}", r.verdict);
        // Nothing to turn, no step that turns.
        let steps = steps_of(&i);
        let turns = |s: &SheetStep| matches!(s.id, StepId::Arms(_) | StepId::Toe(_) | StepId::Height(_));
        prop_assert!(!steps.iter().any(turns), "{steps:?}");
    }
}

fn sample() -> (PlanInput, PlanResult) {
    static SAMPLE: std::sync::OnceLock<(PlanInput, PlanResult)> = std::sync::OnceLock::new();
    SAMPLE.get_or_init(reaching).clone()
}

#[test]
fn a_foul_is_in_the_headline_on_the_sheet_and_never_on_aim() {
    let (mut i, r) = reaching();
    assert!(r.verdict.fouls.is_empty());
    // The arch is nearer than the arm moves the wheel.
    i.limits.arch_rear_mm = Some(12.0);
    i.limits.arch_front_mm = Some(12.0);
    let parts = shipped_parts().unwrap();
    let r = plan(&i, &parts).unwrap();
    assert!(!r.verdict.reached && !r.verdict.fouls.is_empty(), "{:?}", r.verdict);
    assert_eq!(r.verdict.headline.en(), "On aim, but it fouls");
    assert!(r.verdict.sentence.en().contains("arch"), "{}", r.verdict.sentence.en());
    let steps = steps_of(&i);
    assert_eq!((&steps[0].id, steps[0].kind), (&StepId::Fouls, StepKind::Gate));
    assert!(steps[0].detail.en().contains("arch"));
}

#[test]
fn what_is_short_is_named_and_a_cross_limit_is_not_short_nothing() {
    // Caster outside by less than a shop can read, as built.
    let mut i = truck();
    i.own_mut().height_change_mm = 0.0;
    i.adjusters.each_mut().into_iter().for_each(|l| l.retain(Adjuster::is_tie_rod));
    for s in [&mut i.left, &mut i.right] {
        s.angles.camber_deg = 0.5 * (i.aim.camber_deg[0] + i.aim.camber_deg[1]);
        s.angles.caster_deg = i.aim.caster_deg[0] - 0.03;
    }
    let r = plan(&i, &[]).unwrap();
    assert!(r.verdict.reached, "less than a shop can read: {}", r.verdict.headline.en());
    assert_eq!(r.left.shortfall.worst(), 0.0);
    for s in [&mut i.left, &mut i.right] {
        s.angles.caster_deg = i.aim.caster_deg[0] - 0.08;
    }
    let r = plan(&i, &[]).unwrap();
    assert!(r.verdict.headline.en().contains("caster short 0.08°"), "{}", r.verdict.headline.en());
    // Inside, but farther apart than the aim allows.
    i.aim.cross_caster_deg = 0.3;
    (i.left.angles.caster_deg, i.right.angles.caster_deg) =
        (i.aim.caster_deg[0] + 0.01, i.aim.caster_deg[1] - 0.01);
    let r = plan(&i, &shipped_parts().unwrap()).unwrap();
    assert_eq!(r.verdict.headline.en(), "Sides stay too far apart");
    assert!(!r.candidates.iter().any(|c| c.status == bold_stance_trade::plan::CandidateStatus::Short
        && c.short_deg == 0.0
        && c.apart_deg == 0.0));
}

#[test]
fn a_cam_between_notches_is_ordered_to_a_notch_by_name_and_gives_what_it_says() {
    let mut i = truck();
    i.own_mut().height_change_mm = 0.0;
    for a in i.adjusters.each_mut().into_iter().flatten() {
        if a.name == "Front cam" {
            a.position = -10.0;
        }
    }
    // Out of the window, so that it has to be turned.
    for s in [&mut i.left, &mut i.right] {
        s.angles.caster_deg = i.aim.caster_deg[0] - 0.5;
    }
    let r = plan(&i, &[]).unwrap();
    let l = r.left.setting.iter().find(|l| l.name == "Front cam").unwrap();
    let notch = l.notch_deg.unwrap();
    if l.moves() {
        assert!((l.position / notch - (l.position / notch).round()).abs() < 1e-9, "{l:?}");
        assert!(
            l.words.en().contains("to the centre mark") || l.words.en().contains("of centre"),
            "{}",
            l.words.en()
        );
        // Followed to the letter: the words name the notch, and the notch is the position.
        let at = if l.words.en().contains("the centre mark") {
            0.0
        } else {
            let n: f64 =
                l.words.en().split("notch ").nth(1).unwrap().split(' ').next().unwrap().parse().unwrap();
            if l.words.en().contains("inboard of centre") { -n * notch } else { n * notch }
        };
        assert!((at - l.position).abs() < 1e-9, "{} {}", l.words.en(), l.position);
    }
    // Left where it stands when that will do.
    for s in [&mut i.left, &mut i.right] {
        s.angles.caster_deg = 0.5 * (i.aim.caster_deg[0] + i.aim.caster_deg[1]);
        s.angles.camber_deg = 0.5 * (i.aim.camber_deg[0] + i.aim.camber_deg[1]);
    }
    let r = plan(&i, &[]).unwrap();
    let l = r.left.setting.iter().find(|l| l.name == "Front cam").unwrap();
    assert_eq!((l.position, l.words.en().as_str()), (-10.0, "leave"));
}

fn live(offset: Option<f64>) -> (PlanInput, PlanResult) {
    let g = shipped_archetypes().unwrap().into_iter().find(|a| a.id == "live_front").unwrap().geometry;
    let own = Corner::of(&g, Side::Left).alignment(0.0, 0.0).unwrap();
    let read = SideReadings {
        height_mm: 500.0,
        angles: bold_stance_car::vehicle::Measured {
            camber_deg: own.camber_deg,
            caster_deg: own.caster_deg,
            toe_deg: 0.05,
        },
        sigma: bold_stance_car::fit::Sigmas::default(),
        unread: Unread::default(),
    };
    let parts: Vec<Part> = shipped_parts().unwrap();
    let rod = default_adjusters(4.0).remove(2);
    let i = PlanInput {
        axle_offset_mm: offset,
        fitted: vec!["adjustable-track-bar".into()],
        ..PlanInput::unchanged(g, 2700.0, 500.0, vec![rod], [read, read], shipped_aims().unwrap().remove(0))
    };
    let r = plan(&i, &parts).unwrap();
    (i, r)
}

#[test]
fn the_track_bar_is_ordered_from_the_read_centring_and_once() {
    // 3 5/8 in left, 5 1/4 in right: the axle has to go 20.6 mm to the right.
    let to_left = (3.625 - 5.25) * 25.4 / 2.0;
    let (i, r) = live(Some(to_left));
    let bar = r.left.setting.iter().find(|l| l.name.to_lowercase().contains("track bar")).unwrap();
    assert!(bar.shared && bar.moves(), "{bar:?}");
    // Turned by as much, the axle comes to stand where the reading asks for.
    let c = Corner::of(&i.geometry, Side::Left);
    let Corner::Axle(before) = &c else { panic!("a live axle") };
    let part = fitted_parts(&i, &shipped_parts().unwrap()).remove(0);
    let Corner::Axle(after) = c.edited(&part.adjusters[0].edits_at(bar.position)) else { panic!() };
    let y = |c: &SolidAxleCorner| c.axle_pose(0.0, 0.0).unwrap().midpoint.y;
    assert!((y(&after) - y(before) - to_left).abs() < 0.6, "{} {to_left}", y(&after) - y(before));
    // Not read: nothing to move at this height.
    let (_, r) = live(None);
    let bar = r.left.setting.iter().find(|l| l.name.to_lowercase().contains("track bar")).unwrap();
    assert!(!bar.moves(), "{bar:?}");
    let (i, _) = live(Some(to_left));
    let steps = steps_of(&i);
    let said = steps.iter().find(|s| s.id == StepId::Arms(Axle::Front)).unwrap();
    assert_eq!(said.detail.en().matches("track bar").count(), 1, "{}", said.detail.en());
}

#[test]
fn a_drag_link_swings_the_knuckle_it_sits_on() {
    // The joint on the right knuckle, the pitman ahead: solved here by bisection on both knuckles with nothing of the
    // program's own but the axle's pose.
    let g = shipped_archetypes().unwrap().into_iter().find(|a| a.id == "live_front").unwrap().geometry;
    for ahead in [0.0, 180.0] {
        let mut g = g.clone();
        let bold_stance_kinematics::geometry::Points::SolidAxle(p) = &mut g.points else { panic!() };
        let (s, tie) = (p.steering_axis.unwrap(), p.tie_rod.unwrap());
        let d = p.drag_link.as_mut().unwrap();
        d.chassis[0] += ahead;
        assert!(d.axle[1] < 0.0, "the joint sits on the right");
        let (d0, d1) = (nalgebra::Vector3::from(d.chassis), nalgebra::Vector3::from(d.axle));
        let Corner::Axle(c) = Corner::of(&g, Side::Left) else { panic!() };
        for height in [-60.0, 60.0, 100.0] {
            let a = c.axle_pose(-height, 0.0).unwrap();
            let mid0 = nalgebra::Vector3::new(0.0, 0.0, g.wheel.center[2]);
            let place = |v: nalgebra::Vector3<f64>| a.midpoint + a.turn * (v - mid0);
            let kingpin = |side: f64| {
                let hub = nalgebra::Vector3::new(0.0, side * (g.wheel.center[1] - 100.0), g.wheel.center[2]);
                let u = nalgebra::Vector3::new(
                    -s.caster_deg.to_radians().tan(),
                    -side * s.sai_deg.to_radians().tan(),
                    1.0,
                );
                (place(hub), nalgebra::Unit::new_normalize(a.turn * u))
            };
            let swing =
                |k: &(nalgebra::Vector3<f64>, nalgebra::Unit<nalgebra::Vector3<f64>>),
                 p: nalgebra::Vector3<f64>,
                 t: f64| { k.0 + nalgebra::Rotation3::from_axis_angle(&k.1, -t) * (p - k.0) };
            let bisect = |f: &dyn Fn(f64) -> f64| {
                let (mut low, mut high) = (-0.45f64, 0.45f64);
                assert!(f(low) * f(high) < 0.0);
                for _ in 0..80 {
                    let m = 0.5 * (low + high);
                    if f(m) * f(low) > 0.0 { low = m } else { high = m }
                }
                0.5 * (low + high)
            };
            let (right, left) = (kingpin(-1.0), kingpin(1.0));
            let drag = (d1 - d0).norm();
            let beta = bisect(&|t| (swing(&right, place(d1), t) - d0).norm() - drag);
            let (tl, tr) = (place(tie[0].into()), place(tie[1].into()));
            let rod = (tl - tr).norm();
            let alpha = bisect(&|t| (swing(&left, tl, t) - swing(&right, tr, beta)).norm() - rod);
            let got = c.drag_link_turn(&a).unwrap();
            assert!((got - alpha).abs() < 1e-6, "ahead {ahead} height {height}: {got} {alpha}");
        }
    }
}

#[test]
fn toe_and_camber_of_a_rear_wheel_are_set_together() {
    // Two cams on freely chosen rods: no whole-notch neighbour lies nearer than what is answered.
    let g = shipped_archetypes().unwrap().into_iter().find(|a| a.id == "ev_multilink_rear").unwrap().geometry;
    let bold_stance_kinematics::geometry::Points::FiveLink(p) = &g.points else { panic!() };
    let names: Vec<String> = p.rods.iter().map(|r| r.name.clone()).collect();
    let cam = |name: &str| Adjuster {
        name: name.into(),
        position: 0.0,
        unseen: false,
        locked: false,
        held: None,
        measured: false,
        known: None,
        kind: AdjusterKind::Eccentric {
            point: name.to_owned().into(),
            direction: [0.0, 1.0, 0.0],
            eccentricity_mm: 6.0,
            min_deg: -90.0,
            max_deg: 90.0,
            notches_per_half_turn: Some(16),
        },
    };
    let mut tried = 0;
    for a in 0..names.len() {
        for b in a + 1..names.len() {
            let bench = Bench::new(
                Corner::of(&g, Side::Left),
                vec![cam(&names[a]), cam(&names[b])],
                10.0,
                Attitude::default(),
            );
            // An aim that one whole-notch pair meets.
            let want = bench.angles(&[33.75, -22.5]).unwrap();
            let around = |v: f64| [v - 0.02, v + 0.02];
            let t = bold_stance_trade::aim::Target {
                camber: around(want.camber_deg),
                caster: [-90.0, 90.0],
                toe: around(want.toe_deg),
            };
            let set = bold_stance_trade::plan::solve(&bench, &t).remove(0);
            // A miss that nobody can read is left as it stands.
            let left = set.positions == bench.start() && set.shortfall.readable().worst() == 0.0;
            assert!(left || set.shortfall.worst() < 1e-9, "{} {}: {:?}", names[a], names[b], set.shortfall);
            tried += 1;
        }
    }
    assert_eq!(tried, 10);
}

#[test]
fn an_axle_that_stays_askew_keeps_the_gate_shut() {
    let (i, r) = live(None);
    let taped = |mm: f64| GateSide { wheelbase: read(mm, 2.0), ..GateSide::default() };
    let judged = |l: f64, rr: f64| {
        judge_gate(&i, &r, &[GateReading::Wheelbase], &[taped(l), taped(rr)], &Sides::default())
    };
    assert!(judged(2702.0, 2701.0).is_empty());
    let f = judged(2706.0, 2699.0);
    assert!(f.len() == 1 && f[0].about == GateAbout::Askew && (f[0].off_aim - 3.0).abs() < 1e-9, "{f:?}");
}
