//! What was measured on the car is a condition of the setting solver, not a remark behind it.

use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::fit::Sigmas;
use bold_stance_car::vehicle::Measured;
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::plan::{CheckKind, PlanInput, PlanResult, SideReadings, Unread, plan};
use bold_stance_words::English;

/// A slot at the clamp and a plate at the top: two ways to camber, one of which brings the tyre to the strut.
const SLOT_AND_PLATE: &str = r#"[
  {"name":"Slot","kind":"tilt","camber_deg":[-4,4]},
  {"name":"Plate","kind":"slide","point":"strut_top","direction":[0,-1,0],"range_mm":[0,14]},
  {"name":"Tie rod","kind":"thread","link":"tie","pitch_mm":1.5,"ends":1,"turns":[-12,12]}
]"#;

fn strut(adjusters: &str, camber: [f64; 2]) -> PlanInput {
    let g =
        shipped_archetypes().unwrap().into_iter().find(|a| a.id == "compact_strut_front").unwrap().geometry;
    let read = SideReadings {
        height_mm: 380.0,
        angles: Measured { camber_deg: -0.5, caster_deg: 3.0, toe_deg: 0.05 },
        sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.15, toe_deg: 0.05 },
        unread: Unread::default(),
    };
    let mut aim = shipped_aims().unwrap().remove(0);
    aim.camber_deg = camber;
    aim.caster_deg = [0.0, 9.0];
    let adjusters: Vec<Adjuster> = serde_json::from_str(adjusters).unwrap();
    PlanInput::unchanged(g, 2600.0, 380.0, adjusters, [read, read], aim)
}

fn gap(r: &PlanResult) -> f64 {
    r.left.checks.iter().find(|c| c.kind == CheckKind::StrutGap).unwrap().value
}

fn moved(r: &PlanResult, name: &str) -> f64 {
    r.left.setting.iter().find(|l| l.name == name).unwrap().movement
}

#[test]
fn the_slot_goes_to_its_three_millimetres_and_the_plate_does_the_rest() {
    let mut i = strut(SLOT_AND_PLATE, [-2.6, -2.4]);
    // Nothing measured: one knob does it, whatever the tyre does.
    let free = plan(&i, &[]).unwrap();
    assert!(free.verdict.reached && moved(&free, "Plate") == 0.0, "{:?}", free.left.setting);
    i.limits.strut_gap_mm = Some(11.0);
    let r = plan(&i, &[]).unwrap();
    assert!(r.verdict.reached, "{}", r.verdict.headline.en());
    assert!(gap(&r) >= 3.0, "{}", gap(&r));
    assert!(moved(&r, "Plate").abs() > 1.0, "{:?}", r.left.setting);
    // The slot alone would have gone past.
    i.adjusters = i.adjusters.map(|l| l.into_iter().filter(|a| a.name != "Plate").collect());
    let alone = plan(&i, &[]).unwrap();
    assert!(gap(&alone) >= 3.0 - 1e-9, "{}", gap(&alone));
    assert!(!alone.verdict.reached && alone.verdict.fouls.is_empty());
    // As far as it may, and no farther short than the gap asks.
    assert!(gap(&alone) < 3.3, "{}", gap(&alone));
    assert!(alone.left.shortfall.camber_deg > 0.1);
}

#[test]
fn what_fouls_before_anything_is_turned_does_not_spoil_the_aim_and_is_told() {
    let mut i = strut(SLOT_AND_PLATE, [-1.2, -0.8]);
    // Already too near as it stands.
    i.limits.strut_gap_mm = Some(2.0);
    let r = plan(&i, &[]).unwrap();
    // Freed where it can be with the aim reached: the plate moves the top, the tyre goes nowhere near.
    assert!(r.left.shortfall.worst() < 1e-6, "{:?}", r.left.setting);
    assert!(gap(&r) >= 1.5, "{}", gap(&r));
    if gap(&r) < 3.0 {
        assert!(!r.verdict.reached && !r.verdict.fouls.is_empty());
    }
}

#[test]
fn a_thread_is_turned_no_farther_out_than_it_must_stay_in() {
    let rod = |engaged: &str| {
        format!(
            r#"[{{"name":"Tie rod","kind":"thread","link":"tie","pitch_mm":1.5,"ends":1,"turns":[-12,12]{engaged}}}]"#
        )
    };
    let toe_in = |rods: &str, toe: f64| {
        let mut i = strut(rods, [-3.0, 3.0]);
        (i.left.angles.toe_deg, i.right.angles.toe_deg) = (toe, toe);
        plan(&i, &[]).unwrap()
    };
    // Whichever way lengthens: one of both needs the rod longer by some turns.
    let free = [-2.0, 2.0].map(|t| toe_in(&rod(""), t));
    let (way, r) = free.iter().enumerate().find(|(_, r)| moved(r, "Tie rod") > 2.0).unwrap();
    assert!(r.left.shortfall.toe_deg < 1e-6);
    // 18 mm in, 15 to stay: two turns of 1.5 mm.
    let held = toe_in(&rod(r#","engaged_mm":18"#), [-2.0, 2.0][way]);
    assert!((moved(&held, "Tie rod") - 2.0).abs() < 1e-9, "{:?}", held.left.setting);
    assert!(held.left.setting.iter().any(|l| l.name == "Tie rod" && l.at_end));
    assert!(held.left.shortfall.toe_deg > 0.1 && held.verdict.fouls.is_empty());
    let c = held.left.checks.iter().find(|c| c.kind == CheckKind::Thread).unwrap();
    assert!(c.ok && (c.value - 15.0).abs() < 1e-9, "{}", c.value);
}

#[test]
fn a_brake_hose_loses_what_lets_the_wheel_hang_lower_but_not_the_springs_lift() {
    let mut i = strut(SLOT_AND_PLATE, [-1.5, 1.5]);
    i.limits.hose_mm = Some(40.0);
    let of = |i: &PlanInput| {
        let r = plan(i, &[]).unwrap();
        let c = r.left.checks.iter().find(|c| c.kind == CheckKind::Hose).unwrap().clone();
        (c.value, c.ok, r)
    };
    i.own_mut().height_change_mm = 40.0;
    let (value, ok, _) = of(&i);
    assert!((value - 40.0).abs() < 1e-9 && ok);
    i.ways = serde_json::from_str(r#"[{"kind":"bracket","gain_mm":40}]"#).unwrap();
    let (value, ok, r) = of(&i);
    assert!(value.abs() < 1e-9 && !ok);
    assert!(!r.verdict.reached && !r.verdict.fouls.is_empty(), "{}", r.verdict.headline.en());
}

/// Every figure that can be measured, past its limit: in the verdict, first on the sheet of its car, and never called on aim.
#[test]
fn every_foul_is_told_and_none_is_on_aim() {
    let near = |f: fn(&mut PlanInput)| {
        let mut i = strut(SLOT_AND_PLATE, [-3.5, 2.5]);
        i.own_mut().height_change_mm = 45.0;
        f(&mut i);
        i
    };
    let cases: Vec<(CheckKind, PlanInput)> = vec![
        (CheckKind::LowerJoint, near(|i| i.limits.lower_joint_deg = Some(6.0))),
        (
            CheckKind::Shaft,
            near(|i| {
                let c = i.geometry.wheel.center;
                i.limits.shaft_inner = Some([c[0], c[1] - 500.0, c[2] + 60.0]);
                i.limits.shaft_deg = Some(8.0);
            }),
        ),
        (CheckKind::Arch, near(|i| i.limits.arch_front_mm = Some(10.0))),
        (CheckKind::StrutGap, near(|i| i.limits.strut_gap_mm = Some(0.5))),
        (CheckKind::Droop, near(|i| i.limits.droop_mm = Some(50.0))),
        (
            CheckKind::Bump,
            near(|i| {
                i.own_mut().height_change_mm = -45.0;
                i.limits.bump_mm = Some(60.0);
            }),
        ),
        (
            CheckKind::Hose,
            near(|i| {
                i.limits.hose_mm = Some(20.0);
                i.ways = serde_json::from_str(r#"[{"kind":"bracket","gain_mm":45}]"#).unwrap();
            }),
        ),
    ];
    for (kind, i) in cases {
        let r = plan(&i, &[]).unwrap();
        let foul = r
            .left
            .checks
            .iter()
            .find(|c| c.kind == kind)
            .unwrap_or_else(|| panic!("{kind:?} is not checked"));
        assert!(foul.fouls(), "{kind:?}: {}", foul.words.en());
        assert!(!r.verdict.reached, "{kind:?}: {}", r.verdict.headline.en());
        let says = r.verdict.sentence.en();
        assert!(says.contains(&foul.words.en()), "{kind:?}: {says}");
    }
}
