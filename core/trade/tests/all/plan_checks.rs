//! What a plan must not foul, and the sentences that say why: each against a figure worked out by hand here.

use crate::common;
use bold_stance_car::adjuster::{Adjuster, default_adjusters};
use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::fit::Sigmas;
use bold_stance_car::vehicle::Measured;
use bold_stance_kinematics::geometry::Points;
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::{Check, CheckKind, PlanInput, PlanResult, SideReadings, Unread, plan};
use bold_stance_words::English;
use common::truck;

fn on(id: &str, adjusters: Vec<Adjuster>, caster: f64) -> PlanInput {
    let g = shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry;
    let read = SideReadings {
        height_mm: 400.0,
        angles: Measured { camber_deg: -0.3, caster_deg: caster, toe_deg: 0.05 },
        sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.15, toe_deg: 0.05 },
        unread: Unread::default(),
    };
    let aim = shipped_aims().unwrap().remove(1);
    PlanInput::unchanged(g, 2700.0, 400.0, adjusters, [read, read], aim)
}

fn of(r: &PlanResult, kind: CheckKind) -> &Check {
    r.left.checks.iter().find(|c| c.kind == kind).unwrap_or_else(|| panic!("{kind:?}: {:?}", r.left.checks))
}

fn worked(i: &PlanInput) -> PlanResult {
    plan(i, &shipped_parts().unwrap()).unwrap()
}

#[test]
fn droop_and_bump_are_what_was_left_less_what_the_springs_use() {
    let mut i = truck();
    (i.limits.droop_mm, i.limits.bump_mm) = (Some(90.0), Some(60.0));
    let r = worked(&i);
    // 65 mm higher by the springs: droop 90 − 65, bump 60 + 65.
    assert!((of(&r, CheckKind::Droop).value - 25.0).abs() < 1e-9 && of(&r, CheckKind::Droop).ok);
    assert!((of(&r, CheckKind::Bump).value - 125.0).abs() < 1e-9);
    // By brackets instead, the springs stay where they are and nothing is used.
    i.ways = serde_json::from_str(r#"[{"kind":"bracket","gain_mm":65}]"#).unwrap();
    let r = worked(&i);
    assert!((of(&r, CheckKind::Droop).value - 90.0).abs() < 1e-9);
    assert!((of(&r, CheckKind::Bump).value - 60.0).abs() < 1e-9);
}

#[test]
fn a_tie_rod_that_hangs_is_said_with_the_angle_it_had() {
    let i = truck();
    let r = worked(&i);
    let c = of(&r, CheckKind::TieRod);
    // By hand from the drawing of the same answer: inner to outer joint, seen from the front.
    let lean = |d: &bold_stance_car::draw::Drawing| {
        let b = d.bars.iter().find(|b| b.name == "tie").unwrap();
        ((b.to[2] - b.from[2]) / (b.to[1] - b.from[1]).abs()).atan().to_degrees()
    };
    let (was, now) = (lean(&r.left.drawing_before), lean(&r.left.drawing_set));
    assert!((c.value - now.abs()).abs() < 0.6, "{} against {now}", c.value);
    assert!(c.words.en().contains(&format!("was {:.0}°", was.abs())), "{} {was}", c.words.en());
    // Lifted, it hangs more to the wheel.
    assert!(now < was);
}

#[test]
fn a_drive_shaft_bends_by_the_triangle_it_stands_in() {
    let mut i = truck();
    let wheel = i.geometry.wheel.clone();
    // A shaft that runs level at design, 500 mm long: lifting 65 mm bends both joints by about atan(65/500).
    i.limits.shaft_inner = Some([wheel.center[0], wheel.center[1] - 560.0, wheel.center[2]]);
    i.limits.shaft_deg = Some(22.0);
    i.limits.droop_mm = Some(66.0);
    let r = worked(&i);
    let c = of(&r, CheckKind::Shaft);
    let by_hand = (64.0f64 / 500.0).atan().to_degrees();
    assert!((c.value - by_hand).abs() < 2.0 && c.ok && c.measured, "{} {by_hand}", c.words.en());
}

#[test]
fn a_bucket_in_the_way_of_the_arm_is_found_at_full_droop() {
    let mut i = truck();
    i.limits.droop_mm = Some(90.0);
    let free = {
        i.limits.bucket = Some([0.0, 300.0, 800.0]);
        of(&worked(&i), CheckKind::Bucket).value
    };
    assert!(free > 60.0, "{free}");
    // On the arm's own pivot nothing is left but minus its half thickness (18 mm), whatever its angle.
    let Points::DoubleWishbone(p) = &i.geometry.points else { panic!() };
    i.limits.bucket = Some(p.upper_front);
    let r = worked(&i);
    let tight = of(&r, CheckKind::Bucket).value;
    assert!(!of(&r, CheckKind::Bucket).ok && (tight + 18.0).abs() < 1e-6, "{tight}");
    i.fitted = vec!["offset-upper-arm@7".into()];
    let r = worked(&i);
    assert!(of(&r, CheckKind::Bucket).value < tight - 2.0);
}

#[test]
fn a_top_tilted_in_comes_nearer_the_strut_and_stops_at_the_limit() {
    let mut i = on("compact_strut_front", vec![default_adjusters(4.0).remove(2)], 3.2);
    i.limits.strut_gap_mm = Some(9.0);
    let found = of(&worked(&i), CheckKind::StrutGap).value;
    assert!((found - 9.0).abs() < 0.2, "nothing changed: {found}");
    // Slotted holes at −1.5° of camber: the tyre's top moves by about its radius times the tilt.
    i.fitted = vec!["slotted-strut".into()];
    i.aim.camber_deg = [-1.9, -1.7];
    let r = worked(&i);
    let gap = of(&r, CheckKind::StrutGap);
    let tilt = r.left.set.camber_deg - r.left.before.camber_deg;
    let by_hand = 9.0 + 0.95 * i.geometry.wheel.loaded_radius_mm * tilt.to_radians();
    assert!((gap.value - by_hand).abs() < 1.5, "{} against {by_hand}", gap.value);
    assert_eq!(gap.ok, gap.value >= 3.0);
}

#[test]
fn thread_left_in_is_what_was_in_less_what_was_turned_out() {
    let mut i = truck();
    i.fitted = vec!["adjustable-upper-arm".into()];
    i.aim.camber_deg = [1.4, 1.8];
    let r = worked(&i);
    let threads: Vec<&Check> = r.left.checks.iter().filter(|c| c.kind == CheckKind::Thread).collect();
    assert_eq!(threads.len(), 2);
    for (c, name) in threads.iter().zip(["Upper arm, front link", "Upper arm, rear link"]) {
        let turns = r.left.setting.iter().find(|l| l.name == name).unwrap().position;
        assert!((c.value - (24.0 - 1.5 * turns.max(0.0))).abs() < 1e-9, "{}", c.words.en());
    }
}

#[test]
fn a_crossed_drag_link_is_said_in_degrees() {
    let mut i = on("live_front", vec![default_adjusters(4.0).remove(2)], 5.0);
    let level = of(&worked(&i), CheckKind::Parallel).value;
    // The track bar's axle end 60 mm up over about 930 mm of bar: some 3.7° more or less.
    i.fitted = vec!["track-bar-bracket@60".into()];
    let raised = of(&worked(&i), CheckKind::Parallel).value;
    let turned = (60.0f64 / 930.0).atan().to_degrees();
    assert!(
        ((raised - level).abs() - turned).abs() < 0.8 || (raised + level - turned).abs() < 0.8,
        "{level} {raised}"
    );
}

#[test]
fn the_solver_says_why_it_took_one_cam_and_not_the_other() {
    let mut i = truck();
    i.own_mut().height_change_mm = 0.0;
    i.right = i.left;
    // More caster and camber a little out: the front cam inboard does both, the rear one would give camber away.
    let found = worked(&i).left.before;
    let b = worked(&i).left.sensitivity;
    let (c, k) = (-2.0 * b[0].camber_deg, -2.0 * b[0].caster_deg);
    assert!(c > 0.1 && k > 0.2, "{c} {k}");
    i.aim.camber_deg = [found.camber_deg + c - 0.05, found.camber_deg + c + 0.05];
    i.aim.caster_deg = [found.caster_deg + k - 0.1, found.caster_deg + k + 0.1];
    let r = worked(&i);
    let front = r.left.setting.iter().find(|l| l.name == "Front cam").unwrap();
    let rear = r.left.setting.iter().find(|l| l.name == "Rear cam").unwrap();
    assert_eq!((front.words.en().as_str(), rear.words.en().as_str()), ("2 notches inboard", "leave"));
    assert!(
        r.left.why[0].en().starts_with("Front cam, not rear cam: with each 1° of camber it brings +"),
        "{:?}",
        r.left.why
    );
    assert!(r.left.why[0].en().contains("° of caster; the other would bring −"), "{:?}", r.left.why);
    // Two share the work: each says what it brings.
    let two = worked(&truck());
    assert!(
        two.left.why[0].en().contains("Front cam: camber ")
            && two.left.why[0].en().contains("Rear cam: camber "),
        "{:?}",
        two.left.why
    );
}
