//! The plan search and the setting solver against brute force, constructed cases and their own promises.

use crate::common;
use bold_stance_car::adjuster::{Adjuster, AdjusterKind, ThreadLink, default_adjusters};
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::fit::{Sigmas, SweepReading};
use bold_stance_car::vehicle::{Attitude, Axles, Sides, StateKind};
use bold_stance_kinematics::geometry::{Geometry, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::aim::{Cross, Target};
use bold_stance_trade::part::{Part, shipped_parts};
use bold_stance_trade::plan::{
    Bench, CandidateStatus, CheckKind, Filters, Moves, Picked, PlanCase, PlanCaseError, PlanInput,
    SearchResult, SettingLine, SolvedSetting, Unread, plan, run_plan, search, solve, solve_both,
};
use bold_stance_tread::{CarTyres, TreadLog};
use bold_stance_words::English;
use common::{electric_rear as rear, truck};

fn find(i: &PlanInput, f: &Filters, parts: &[Part]) -> SearchResult {
    search(i, f, None, parts, &|_| true).unwrap()
}

fn some(ids: &[&str]) -> Vec<Part> {
    let mut out: Vec<Part> =
        shipped_parts().unwrap().into_iter().filter(|p| ids.contains(&p.id.as_str())).collect();
    // One size each keeps brute force small.
    for p in &mut out {
        if let Some(s) = &mut p.sizes {
            s.values.truncate(2);
        }
    }
    out
}

fn shape(id: &str) -> Geometry {
    shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry
}

fn thread(name: &str, link: &str, turns: f64) -> Adjuster {
    Adjuster {
        name: name.into(),
        position: 0.0,
        unseen: false,
        locked: false,
        held: None,
        measured: false,
        known: None,
        kind: AdjusterKind::Thread {
            link: ThreadLink::from(link.to_owned()),
            pitch_mm: 1.75,
            ends: 2,
            turns: [-turns, turns],
            engaged_mm: None,
            min_engaged_mm: None,
            left_hand: None,
        },
    }
}

#[test]
fn the_solver_meets_brute_force_with_three_adjusters() {
    let g = truck().geometry;
    let mut list = default_adjusters(3.2);
    list.insert(2, Adjuster { name: "Upper rear link".into(), ..thread("", "upper_rear", 1.0) });
    for (travel, aim) in [
        (-60.0, Target { camber: [-0.3, 0.3], caster: [3.7, 4.7], toe: [0.0, 0.1] }),
        (-30.0, Target { camber: [-0.1, 0.1], caster: [2.0, 2.2], toe: [0.0, 0.1] }),
        (20.0, Target { camber: [-1.5, -1.2], caster: [6.0, 7.0], toe: [0.0, 0.1] }),
    ] {
        let b = Bench::new(Corner::of(&g, Side::Left), list.clone(), travel, Attitude::default());
        let out = |s: &SolvedSetting| {
            2.0 * s.shortfall.camber_deg + s.shortfall.caster_deg + 2.0 * s.shortfall.toe_deg
        };
        let got = &solve(&b, &aim)[0];
        let mut best = f64::INFINITY;
        for f in -4..=4 {
            for r in -4..=4 {
                for q in -4..=4 {
                    let mut one = b.clone();
                    for (k, v) in
                        [(0, 22.5 * f64::from(f)), (1, 22.5 * f64::from(r)), (2, 0.25 * f64::from(q))]
                    {
                        one.adjusters[k].position = v;
                        one.adjusters[k].locked = true;
                    }
                    best = best.min(solve(&one, &aim).first().map_or(f64::INFINITY, out));
                }
            }
        }
        assert!(out(got) <= best + 0.012, "travel {travel}: {} against {best}", out(got));
    }
}

#[test]
fn the_search_finds_the_cheapest_set_that_reaches() {
    let ids = [
        "offset-upper-arm",
        "upper-joint-spacer",
        "wide-throw-cams",
        "tie-rod-end-spacer",
        "rear-pivot-bushing",
    ];
    let parts = some(&ids);
    let i = truck();
    // Every set, one by one, through the whole Plan answer.
    let all: Vec<Part> = parts.iter().flat_map(Part::variants).collect();
    let mut best: Option<(f64, Vec<String>)> = None;
    for mask in 0u32..1 << all.len() {
        let set: Vec<&Part> =
            all.iter().enumerate().filter(|(k, _)| mask >> k & 1 == 1).map(|(_, p)| p).collect();
        let taken = |p: &Part| set.iter().filter(|q| q.fits.replaces == p.fits.replaces).count() > 1;
        if set.len() > 4 || set.iter().any(|p| taken(p)) {
            continue;
        }
        let mut j = i.clone();
        j.fitted = set.iter().map(|p| p.id.clone()).collect();
        let r = plan(&j, &parts).unwrap();
        let clean = r.misfits.is_empty() && r.left.checks.iter().chain(&r.right.checks).all(|c| c.ok);
        let money: f64 = set.iter().map(|p| p.cost + 1.5 * f64::from(p.labour_minutes)).sum();
        if r.verdict.reached && clean && best.as_ref().is_none_or(|(m, _)| money < *m) {
            best = Some((money, j.fitted));
        }
    }
    let (_, want) = best.unwrap();
    let found = find(&i, &Filters::default(), &parts);
    assert!(found.exhaustive && found.plans[0].reached, "{}", found.headline.en());
    // Sizes of a part cost the same, so several sets may be cheapest: the same parts, whatever size.
    let family = |id: &str| id.split('@').next().unwrap().to_owned();
    let mut got: Vec<String> = found.plans[0].parts.iter().map(|p| family(&p.id)).collect();
    let mut want: Vec<String> = want.iter().map(|id| family(id)).collect();
    want.sort();
    got.sort();
    assert_eq!(got, want);
}

#[test]
fn plans_found_set_up_as_the_plan_page_shows_them() {
    let parts = shipped_parts().unwrap();
    let mut i = truck();
    let found = find(&i, &Filters::default(), &parts);
    assert!(found.considered >= 10_000 && found.plans.len() >= 4);
    for p in found.plans.iter().filter(|p| p.reached).take(4) {
        i.fitted = p.parts.iter().map(|x| x.id.clone()).collect();
        let r = plan(&i, &parts).unwrap();
        assert!(r.verdict.reached, "{:?}", i.fitted);
        assert!((r.left.set.caster_deg - p.left.angles.caster_deg).abs() < 1e-9);
        // What is held in hand is worked out for the plan alone.
        let bare = |l: &SettingLine| SettingLine { in_hand: None, ..l.clone() };
        assert_eq!(r.left.setting.iter().map(bare).collect::<Vec<_>>(), p.left.setting);
        assert!(r.left.setting.iter().all(|l| l.in_hand.is_some() == l.moves()));
        assert!(p.left.doubt.camber_deg > 0.1 && !p.reasons.is_empty());
    }
}

#[test]
fn mirrored_readings_give_mirrored_plans() {
    let parts = shipped_parts().unwrap();
    let i = truck();
    let mut j = i.clone();
    std::mem::swap(&mut j.left, &mut j.right);
    let (a, b) = (find(&i, &Filters::default(), &parts), find(&j, &Filters::default(), &parts));
    assert_eq!(a.plans.len(), b.plans.len());
    for (p, q) in a.plans.iter().zip(&b.plans) {
        assert_eq!(p.parts, q.parts);
        assert_eq!((&p.left, &p.right), (&q.right, &q.left));
    }
}

#[test]
fn what_cannot_be_reached_is_said_with_the_gap_and_the_nearest() {
    let mut i = truck();
    i.aim.caster_deg = [14.0, 15.0];
    let r = find(&i, &Filters::default(), &some(&["tie-rod-end-spacer", "offset-upper-arm"]));
    assert!(
        r.headline.en().starts_with("Nothing in the catalogue reaches it: short by "),
        "{}",
        r.headline.en()
    );
    assert!(r.sentence.en().contains("offset upper arm"), "{}", r.sentence.en());
    assert!(r.plans.iter().all(|p| !p.reached) && r.plans[0].short_deg > 3.0);
}

#[test]
fn filters_pins_and_exclusions_are_kept() {
    let parts = shipped_parts().unwrap();
    let i = truck();
    let f: Filters =
        serde_json::from_str(r#"{"forbid":["aftermarket_arms","welding"],"budget":200}"#).unwrap();
    for p in find(&i, &f, &parts).plans {
        assert!(p.cost <= 200.0);
        assert!(
            !p.parts.iter().any(|x| x.id.contains("upper-arm") || x.id.contains("subframe")),
            "{:?}",
            p.parts
        );
    }
    let f = Filters {
        pinned: vec!["upper-joint-spacer".into()],
        excluded: vec!["upper-pivot-shims".into()],
        ..Filters::default()
    };
    let r = find(&i, &f, &parts);
    assert!(!r.plans.is_empty());
    for p in &r.plans {
        assert!(p.parts.iter().any(|x| x.id.starts_with("upper-joint-spacer@")), "{:?}", p.parts);
        assert!(!p.parts.iter().any(|x| x.id == "upper-pivot-shims"));
    }
    let f = Filters { most_parts: Some(1), ..Filters::default() };
    assert!(find(&i, &f, &parts).plans.iter().all(|p| p.parts.len() <= 1));
    let bad = Filters { pinned: vec!["no-such".into()], budget: Some(-3.0), ..Filters::default() };
    let fields: Vec<String> =
        search(&i, &bad, None, &parts, &|_| true).unwrap_err().into_iter().map(|p| p.field).collect();
    assert_eq!(fields, ["filters.budget", "filters.pinned.0"]);
}

#[test]
fn a_search_can_be_stopped() {
    let r = search(&truck(), &Filters::default(), None, &shipped_parts().unwrap(), &|p| p.doing != "posing")
        .unwrap();
    assert!(r.cancelled && r.posed < 700, "{}", r.posed);
}

#[test]
fn a_large_catalogue_is_searched_by_its_promising_sets() {
    // Ten copies of every part under other names: far too many sets to look at one by one.
    let parts = shipped_parts().unwrap();
    let many: Vec<Part> = (0..10)
        .flat_map(|n| {
            parts.iter().map(move |p| Part {
                id: format!("{}-{n}", p.id),
                cost: p.cost + f64::from(n),
                ..p.clone()
            })
        })
        .collect();
    let (small, large) =
        (find(&truck(), &Filters::default(), &parts), find(&truck(), &Filters::default(), &many));
    assert!(small.exhaustive && !large.exhaustive);
    assert!(large.plans[0].reached && (large.plans[0].cost - small.plans[0].cost).abs() < 1e-9);
}

#[test]
fn a_rear_axle_is_planned_in_camber_and_toe_with_a_toe_adjuster_in_every_set_that_needs_it() {
    let parts = shipped_parts().unwrap();
    let i = rear();
    let r = plan(&i, &parts).unwrap();
    assert!(!r.verdict.reached && r.left.before.caster_deg == 0.0 && r.left.lock.is_none());
    let found = find(&i, &Filters::default(), &parts);
    assert!(found.plans[0].reached, "{} {}", found.headline.en(), found.sentence.en());
    for p in &found.plans {
        let has = |word: &str| p.parts.iter().any(|x| x.id.contains(word));
        assert!(!has("camber") || has("toe"), "{:?}", p.parts);
    }
    // Fitted alone all the same, it is called out.
    let alone = PlanInput { fitted: vec!["rear-camber-arm".into()], ..i };
    let r = plan(&alone, &parts).unwrap();
    assert_eq!(
        r.misfits.iter().map(English::en).collect::<Vec<_>>(),
        ["adjustable camber arm needs a toe adjuster beside it"]
    );
}

#[test]
fn one_arm_serves_both_wheels_of_a_live_axle() {
    let g = shape("live_front");
    let tie = default_adjusters(3.0).remove(2);
    let list = vec![
        Adjuster { name: "Lower arms".into(), ..thread("", "lower", 6.0) },
        Adjuster { name: "Track bar".into(), ..thread("", "track_bar", 8.0) },
        Adjuster { name: "Drag link".into(), ..thread("", "drag_link", 10.0) },
        tie,
    ];
    let benches = [Side::Left, Side::Right]
        .map(|s| Bench::new(Corner::of(&g, s), list.clone(), -75.0, Attitude::default()));
    let aim = Target { camber: [-0.5, 0.5], caster: [4.5, 5.5], toe: [0.0, 0.1] };
    let before = benches[0].angles(&benches[0].start()).unwrap();
    assert!(before.caster_deg < 4.0, "{}", before.caster_deg);
    let [l, r] = solve_both(&benches, &[aim; 2], Cross::alike(0.5, 0.5)).unwrap();
    assert_eq!(l.positions, r.positions, "arms, bars and rods are one for both wheels");
    assert!(l.shortfall.worst() < 1e-9 && r.shortfall.worst() < 1e-9, "{:?} {:?}", l.shortfall, r.shortfall);
    // The track bar brings the axle back under the middle, the drag link the steering wheel straight.
    let Corner::Axle(c) = benches[0].set(&l.positions) else { panic!() };
    let pose = c.axle_pose(-75.0, 0.0).unwrap();
    assert!(pose.midpoint.y.abs() < 1.0, "{}", pose.midpoint.y);
    assert!(c.drag_link_turn(&pose).unwrap().to_degrees().abs() < 0.3);
}

#[test]
fn a_failed_check_has_the_number_and_the_limit() {
    let mut i = truck();
    i.limits.upper_joint_deg = Some(9.0);
    i.limits.droop_mm = Some(40.0);
    i.limits.arch_front_mm = Some(12.0);
    let r = plan(&i, &shipped_parts().unwrap()).unwrap();
    let get = |k: CheckKind| r.left.checks.iter().find(|c| c.kind == k).unwrap();
    let joint = get(CheckKind::UpperJoint);
    assert!(
        !joint.ok && joint.measured && joint.words.en().starts_with("upper joint at "),
        "{}",
        joint.words.en()
    );
    assert!(joint.words.en().contains("of its 9° at "), "{}", joint.words.en());
    // 65 mm of lift out of 40 mm of droop: 25 mm past the end.
    assert!((get(CheckKind::Droop).value + 25.0).abs() < 1e-9 && !get(CheckKind::Droop).ok);
    assert!(!get(CheckKind::Arch).ok);
    // An arm whose joint is made for more clears it.
    i.fitted = vec!["adjustable-upper-arm".into()];
    let r = plan(&i, &shipped_parts().unwrap()).unwrap();
    assert!(r.left.checks.iter().find(|c| c.kind == CheckKind::UpperJoint).unwrap().ok);
}

#[test]
fn every_height_state_has_its_verdict_and_loaded_can_be_what_counts() {
    let mut i = truck();
    i.fitted = vec!["offset-upper-arm@7".into()];
    i.levels = vec![bold_stance_car::vehicle::AirLevel {
        name: "Access".into(),
        mm: bold_stance_car::vehicle::Axles { front: -40.0, rear: -40.0 },
    }];
    let parts = shipped_parts().unwrap();
    let r = plan(&i, &parts).unwrap();
    let kinds: Vec<StateKind> = r.states.iter().map(|s| s.kind).collect();
    use StateKind::{Air, Arrived, Loaded, Planned, Settled};
    assert_eq!(kinds, [Arrived, Planned, Settled, Loaded, Air]);
    let planned = &r.states[1];
    assert!(planned.judged && planned.left.as_ref().unwrap().verdicts.iter().all(|v| v.off_deg == 0.0));
    let a = planned.left.as_ref().unwrap().angles;
    assert!((a.camber_deg - r.left.set.camber_deg).abs() < 1e-9);
    i.aim.judged_at = bold_stance_trade::aim::JudgedAt::Loaded;
    let r = plan(&i, &parts).unwrap();
    assert_eq!(r.judged.kind, Loaded);
    let loaded = r.states.iter().find(|s| s.kind == Loaded).unwrap();
    assert!(loaded.judged && loaded.left.as_ref().unwrap().verdicts.iter().all(|v| v.off_deg == 0.0));
}

#[test]
fn a_point_picked_on_the_map_is_set_there() {
    let mut i = truck();
    i.picked.left = Some(Picked { camber_deg: -0.8, second_deg: 2.2 });
    let r = plan(&i, &shipped_parts().unwrap()).unwrap();
    // Within a notch of it; the other side follows the aim as before.
    assert!(
        (r.left.set.camber_deg + 0.8).abs() < 0.12 && (r.left.set.caster_deg - 2.2).abs() < 0.25,
        "{:?}",
        r.left.set
    );
    i.picked = Sides::default();
    let free = plan(&i, &shipped_parts().unwrap()).unwrap();
    assert!((free.right.set.camber_deg - r.right.set.camber_deg).abs() < 0.3);
}

#[test]
fn a_case_of_the_command_line_comes_back_as_geometry_that_solves_to_its_angles() {
    for input in [truck(), rear()] {
        let case = PlanCase {
            format: "bold-stance.plan/1".into(),
            input,
            filters: Filters::default(),
            tyres: None,
            parts: None,
            note: None,
        };
        let r = run_plan(&case).unwrap();
        assert!(r.reached && r.plans.len() > 2);
        for p in &r.plans {
            for side in [&p.left_after, &p.right_after] {
                let s = side.as_ref().unwrap();
                assert!(s.geometry_after.problems().is_empty());
                let w = Corner::of(&s.geometry_after, Side::Left).wheel(0.0, 0.0).unwrap();
                assert!((w.camber_deg - s.angles.camber_deg).abs() < 0.005);
                assert!((w.toe_deg - s.angles.toe_deg).abs() < 0.005);
                let caster = w.steer.map_or(0.0, |x| x.caster_deg);
                assert!((caster - s.angles.caster_deg.unwrap_or(0.0)).abs() < 0.005);
            }
        }
        // Over the ground the body's pitch is in the caster.
        let first = &r.plans[0];
        if let Some(c) = first.left_after.as_ref().unwrap().angles.caster_deg {
            assert!((first.plan.left.angles.caster_deg - c - r.pitch_deg).abs() < 0.02);
        }
    }
}

#[test]
fn bad_cases_name_their_fields() {
    let case = || PlanCase {
        format: "bold-stance.plan/1".into(),
        input: truck(),
        filters: Filters::default(),
        tyres: None,
        parts: Some(some(&["offset-upper-arm", "upper-joint-spacer"])),
        note: None,
    };
    let field = |c: &PlanCase| match run_plan(c) {
        Err(PlanCaseError::Bad(p)) => p.field,
        other => panic!("{other:?}"),
    };
    let mut c = case();
    c.input.own_mut().height_change_mm = f64::NAN;
    assert_eq!(field(&c), "input.moves.front.height_change_mm");
    let mut c = case();
    let parts = c.parts.as_mut().unwrap();
    parts[0].requires = vec![parts[1].id.clone()];
    parts[1].requires = vec![parts[0].id.clone()];
    assert_eq!(field(&c), "parts.0.requires");
    let mut c = case();
    c.parts.as_mut().unwrap()[1].sizes.as_mut().unwrap().values.reverse();
    assert_eq!(field(&c), "parts.1.sizes.values.1");
    let mut c = case();
    let p = &mut c.parts.as_mut().unwrap()[0];
    (p.requires, p.conflicts) = (vec!["x".into()], vec!["x".into()]);
    assert_eq!(field(&c), "parts.0.conflicts.0");
    let mut c = case();
    c.input.aim.caster_deg = [20.0, 20.0];
    assert!(matches!(run_plan(&c), Err(PlanCaseError::NoneReaches(r)) if !r.plans.is_empty()));
}

/// A sweep that does not go with the points moves nothing and is told of; one that does moves the plan.
#[test]
fn a_jack_sweep_is_judged_before_it_is_used() {
    let parts = some(&["offset-upper-arm"]);
    let run = |jack_sweep: Vec<SweepReading>| {
        let case = PlanCase {
            format: "bold-stance.plan/1".into(),
            input: PlanInput { jack_sweep, ..truck() },
            filters: Filters::default(),
            tyres: None,
            parts: Some(parts.clone()),
            note: None,
        };
        match run_plan(&case) {
            Ok(r) => Ok(r),
            Err(PlanCaseError::NoneReaches(r)) => Ok(*r),
            Err(PlanCaseError::Bad(p)) => Err(p),
        }
    };
    let sigma = Sigmas { camber_deg: 0.06, caster_deg: 0.16, toe_deg: 0.03 };
    let read = |travel_mm: f64, camber: f64| SweepReading {
        travel_mm,
        camber_deg: Some(camber),
        caster_deg: None,
        toe_deg: None,
        sigma,
    };
    let told = run(Vec::new()).unwrap();
    // Camber that grows the wrong way by two degrees over a hand's width is no car of this shape.
    let wrong = run(vec![read(-40.0, -3.0), read(0.0, 0.0), read(40.0, 3.0)]).unwrap();
    assert!(wrong.notes.iter().any(|n| n.en().contains("do not go with this shape")), "{:?}", wrong.notes);
    assert_eq!(told.plans[0].plan.left.angles, wrong.plans[0].plan.left.angles);
    let c = Corner::of(&truck().geometry, Side::Left);
    let slope = |t: f64| c.wheel(t, 0.0).unwrap().camber_deg + 0.004 * t;
    let near = run([-40.0, 0.0, 40.0].iter().map(|t| read(*t, slope(*t))).collect()).unwrap();
    assert!(near.notes.iter().all(|n| n.en().contains("tie rod")), "{:?}", near.notes);
    assert_ne!(told.plans[0].plan.left.angles, near.plans[0].plan.left.angles);
    assert_eq!(run(vec![read(0.0, 45.0)]).unwrap_err().field, "input.jack_sweep.0.camber_deg");
    assert_eq!(run(vec![read(0.0, 0.0); 41]).unwrap_err().field, "input.jack_sweep");
}

/// The distance a found set is ranked by is the one the tread bench then shows for it.
#[test]
fn the_search_and_the_tread_bench_tell_one_distance() {
    let parts = shipped_parts().unwrap();
    let mut i = truck();
    for heights in [r#"[]"#, r#"[{"state":"Settled","share":80},{"state":"Loaded","share":20}]"#] {
        let tyres: CarTyres = serde_json::from_str(&format!(
            r#"{{"sizes":{{"front":"285/70R17","rear":"285/70R17"}},"class":"all_terrain","depth_mm":10.0,"limit_mm":3.0,
            "load_n":{{"front":7000,"rear":5600}},"pressure_kpa":{{"front":240,"rear":240}},"placard_kpa":{{"front":260,"rear":260}},"drive_front":0.5,"brake_front":0.64,
            "use":"trail","load_transfer_per_g":0.85,"roll_camber":{{"front":2.5,"rear":0}},"own_life_km":50000,"heights":{heights}}}"#
        ))
        .unwrap();
        let found = search(&i, &Filters::default(), Some(&tyres), &parts, &|_| true).unwrap();
        let first = &found.plans[0];
        i.fitted = first.parts.iter().map(|p| p.id.clone()).collect();
        let shown = plan(&i, &parts).unwrap();
        let wear = common::worn(&tyres, [Some(&shown), None], None, &TreadLog::default()).unwrap();
        let shorter = wear
            .tyres
            .iter()
            .map(|t| t.scenes[t.lead].band_km)
            .min_by(|a, b| a.median.total_cmp(&b.median))
            .unwrap();
        let told = first.life_km.unwrap();
        assert!((told.median / shorter.median - 1.0).abs() < 1e-6, "{told:?} {shorter:?}");
        assert!((told.low / shorter.low - 1.0).abs() < 1e-6 && (told.high / shorter.high - 1.0).abs() < 1e-6);
        i.fitted.clear();
    }
    // Tyres that are none are refused at their field before anything is searched.
    let mut bad: CarTyres = serde_json::from_str(
        r#"{"sizes":{"front":"285/70R17","rear":"285/70R17"},"class":"all_terrain","depth_mm":10.0,"limit_mm":3.0,"load_n":{"front":7000,"rear":5600},
        "pressure_kpa":{"front":240,"rear":240},"placard_kpa":{"front":260,"rear":260},"drive_front":0.5,"brake_front":0.64,"use":"trail",
        "load_transfer_per_g":0.85,"roll_camber":{"front":2.5,"rear":0}}"#,
    )
    .unwrap();
    bad.sizes.front = "wide".into();
    let e = search(&i, &Filters::default(), Some(&bad), &parts, &|_| true).unwrap_err();
    assert_eq!(e[0].field, "tyres.sizes.front");
}

/// What is answered is a front: no plan is beaten by another that reaches as well, fouls as little, costs and labours
/// no more and swings toe no more, unless it is a single part (another way to the same angles is a choice).
#[test]
fn no_answered_plan_is_beaten_in_everything() {
    let parts = shipped_parts().unwrap();
    for caster in [[3.7, 4.7], [4.5, 5.5], [2.0, 3.0]] {
        let mut i = truck();
        i.aim.caster_deg = caster;
        let r = find(&i, &Filters::default(), &parts);
        assert!(!r.plans.is_empty());
        for p in r.plans.iter().filter(|p| p.parts.len() > 1) {
            let beats = |o: &&bold_stance_trade::plan::SetPlan| {
                o.parts != p.parts
                    && o.reached >= p.reached
                    && o.short_deg <= p.short_deg
                    && o.fouls.len() <= p.fouls.len()
                    && o.cost < p.cost
                    && o.labour_minutes < p.labour_minutes
                    && o.bump_toe_deg < p.bump_toe_deg - 0.02
                    && o.scrub_change_mm.abs() < p.scrub_change_mm.abs() - 5.0
                    && o.sai_change_deg.abs() < p.sai_change_deg.abs() - 0.5
                    && o.wheel_x_mm.abs() < p.wheel_x_mm.abs() - 5.0
            };
            let by = r.plans.iter().find(beats);
            assert!(by.is_none(), "{:?} is beaten by {:?}", p.parts, by.map(|o| &o.parts));
        }
        // Best first: what reaches and fouls nothing before what does not.
        let rank = |p: &bold_stance_trade::plan::SetPlan| (!p.reached, p.fouls.len().min(1));
        assert!(r.plans.windows(2).all(|w| rank(&w[0]) <= rank(&w[1])));
    }
}

/// A filter only ever takes away: what is found under a tighter one satisfies the looser one too.
#[test]
fn a_tighter_filter_finds_nothing_new_that_is_cheaper() {
    let parts = shipped_parts().unwrap();
    let i = truck();
    let money = |r: &SearchResult| {
        let all = r.plans.iter().filter(|p| p.reached && p.fouls.is_empty());
        all.map(|p| p.cost + 1.5 * f64::from(p.labour_minutes)).fold(f64::INFINITY, f64::min)
    };
    let free = find(&i, &Filters::default(), &parts);
    let mut last = money(&free);
    for excluded in [vec![], vec!["upper-pivot-shims"], vec!["upper-pivot-shims", "front-pivot-bushing"]] {
        let f =
            Filters { excluded: excluded.iter().map(|x| (*x).to_owned()).collect(), ..Filters::default() };
        let r = find(&i, &f, &parts);
        assert!(r.considered <= free.considered);
        assert!(money(&r) >= last - 1e-9, "{excluded:?}");
        last = money(&r);
        for p in &r.plans {
            assert!(!p.parts.iter().any(|x| excluded.iter().any(|e| x.id.starts_with(e))));
        }
    }
    for (most, labour) in [(1, 60), (2, 120), (4, 400)] {
        let f = Filters { most_parts: Some(most), labour_minutes: Some(labour), ..Filters::default() };
        for p in find(&i, &f, &parts).plans {
            assert!(p.parts.len() <= most && p.labour_minutes <= labour);
            assert!((p.cost - p.parts.iter().map(|x| cost_of(&parts, &x.id)).sum::<f64>()).abs() < 1e-9);
        }
    }
}

fn cost_of(parts: &[Part], id: &str) -> f64 {
    parts.iter().find(|p| id.split('@').next() == Some(p.id.as_str())).unwrap().cost
}

/// The same set reached in different ways is another car at full lock, and the search says how.
#[test]
fn ways_that_differ_at_full_lock_are_told_apart() {
    let parts = shipped_parts().unwrap();
    let r = find(&truck(), &Filters::default(), &parts);
    let locks: Vec<f64> =
        r.plans.iter().filter(|p| p.reached).filter_map(|p| p.left.lock.map(|l| l.outer_deg)).collect();
    assert!(locks.len() >= 2);
    let spread = locks.iter().copied().fold(f64::NEG_INFINITY, f64::max)
        - locks.iter().copied().fold(f64::INFINITY, f64::min);
    assert_eq!(spread >= 0.5, !r.ways_differ.is_empty(), "{spread} {:?}", r.ways_differ);
    for w in &r.ways_differ {
        let w = w.en();
        assert!(w.contains("At full lock") && w.contains("axis lean"), "{w}");
    }
}

/// A case as it was first written means what it means in the present form, of either axle, with every field told.
#[test]
fn a_case_in_its_first_form_is_read_as_the_present_one() {
    for (given, axle, other) in [(truck(), "front", "rear"), (common::electric_rear(), "rear", "front")] {
        let mut input = given;
        input.trim_mm = Sides { left: 3.0, right: -2.0 };
        input.picked.right = Some(Picked { camber_deg: -0.8, second_deg: 0.1 });
        input.moves = Axles::of(|a| {
            let up = if a == input.geometry.axle { 1.0 } else { 2.0 };
            Moves {
                height_change_mm: 10.0 * up,
                settle_mm: 3.0 * up,
                load_mm: 4.0 * up,
                tyre_gain_mm: 5.0 * up,
            }
        });
        let case = PlanCase {
            format: "bold-stance.plan/1".into(),
            input,
            filters: Filters::default(),
            tyres: None,
            parts: None,
            note: None,
        };
        let now = serde_json::to_value(&case).unwrap();
        let mut first = now.clone();
        let of = first["input"].as_object_mut().unwrap();
        let moves = of.remove("moves").unwrap();
        for (key, off) in [
            ("height_change_mm", "other_change_mm"),
            ("settle_mm", "other_settle_mm"),
            ("load_mm", "other_load_mm"),
        ] {
            of.insert(key.into(), moves[axle][key].clone());
            of.insert(off.into(), moves[other][key].clone());
        }
        of.insert("tyre_gain_mm".into(), serde_json::json!([5.0, 10.0]));
        of.insert("trim_mm".into(), serde_json::json!([3.0, -2.0]));
        of.insert("picked".into(), serde_json::json!([null, [-0.8, 0.1]]));
        for form in [now, first] {
            assert_eq!(PlanCase::read(form.to_string().as_bytes()).unwrap(), case, "{axle}");
        }
    }
    // What is no case is told as ever.
    assert_eq!(PlanCase::read(br#"{"format":1}"#).unwrap_err().field, "format");
}

/// Sets are ranked by what was read: by nothing they are not, and by a part of it that is said.
#[test]
fn sets_are_not_ranked_by_angles_nobody_read() {
    let mut i = truck();
    for side in [&mut i.left, &mut i.right] {
        side.unread = Unread { height: false, camber: true, caster: true, toe: true };
    }
    let parts = some(&["offset-upper-arm"]);
    let p = search(&i, &Filters::default(), None, &parts, &|_| true).unwrap_err();
    assert_eq!(p[0].field, "left.angles");
    let answer = plan(&i, &parts).unwrap();
    assert!(
        !answer.verdict.reached && answer.candidates.iter().all(|c| c.status != CandidateStatus::Reaches)
    );
    i.left.unread.camber = false;
    i.right.unread.camber = false;
    let r = search(&i, &Filters::default(), None, &parts, &|_| true).unwrap();
    assert!(r.sentence.en().starts_with("Judged by what was read alone."), "{}", r.sentence.en());
    assert_ne!(plan(&i, &parts).unwrap().verdict.headline.en(), "Both sides land on aim");
}
