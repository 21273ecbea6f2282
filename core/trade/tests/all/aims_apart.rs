//! Aims of the two sides apart, and aims that count at an air level.

use crate::common;

use bold_stance_car::vehicle::{AirLevel, Axles, StateKind};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::aim::{RightAim, shipped_aims};
use bold_stance_trade::plan::{PlanInput, plan};
use proptest::prelude::*;

fn wanted() -> PlanInput {
    let mut i = common::truck();
    i.aim.camber_deg = [-0.7, 0.3];
    i.aim.caster_deg = [2.6, 4.0];
    i
}

/// The kerb side of a crowned road takes less caster: the right is set half a degree under the left, and being apart as
/// wanted is no fault.
#[test]
fn sides_aimed_apart_come_to_stand_apart_and_that_is_on_aim() {
    let mut i = wanted();
    i.aim.cross_caster_deg = 0.3;
    i.aim.right = Some(RightAim { caster_deg: Some([1.9, 3.3]), camber_deg: None });
    let cross = i.aim.cross(Axle::Front);
    assert!((cross.middle[1] - 0.7).abs() < 1e-9 && cross.middle[0] == 0.0);
    let r = plan(&i, &[]).unwrap();
    let apart = r.left.set.caster_deg - r.right.set.caster_deg;
    assert!((apart - 0.7).abs() <= 0.3 + 1e-6, "{apart}");
    assert!(r.verdict.reached, "{:?}", r.verdict.headline);
    let judged = r.states.iter().find(|s| s.judged).unwrap();
    let cross = judged.cross.iter().find(|c| c.value_deg == apart).unwrap();
    assert!(cross.off_deg == 0.0 && (cross.window_deg[0] - 0.4).abs() < 1e-9, "{cross:?}");
    // Judged as if alike, the same setting would be too far apart.
    assert!(apart > 0.3);
}

#[test]
fn a_window_of_the_right_that_runs_backwards_is_named_there() {
    let mut a = shipped_aims().unwrap().remove(0);
    a.right = Some(RightAim { camber_deg: Some([0.5, -0.5]), caster_deg: None });
    assert_eq!(a.problems()[0].field, "aim.right.camber_deg.1");
    a.right = None;
    a.level = Some("  ".into());
    assert_eq!(a.problems()[0].field, "aim.level");
}

#[test]
fn an_aim_counts_at_the_air_level_it_names() {
    let mut i = wanted();
    i.levels = vec![
        AirLevel { name: "Access".into(), mm: Axles { front: -30.0, rear: -30.0 } },
        AirLevel { name: "Trail".into(), mm: Axles { front: 20.0, rear: 20.0 } },
    ];
    i.aim.level = Some("Trail".into());
    let state = i.judged();
    assert_eq!((state.kind, state.name.as_str(), state.own_mm), (StateKind::Air, "Trail", 20.0));
    let r = plan(&i, &[]).unwrap();
    assert!(r.states.iter().any(|s| s.judged && s.name == "Trail"));
    // A level the car has not leaves the aim where it was judged before.
    i.aim.level = Some("Moon".into());
    assert_eq!(i.judged().kind, StateKind::Planned);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(24))]
    /// Both sides' windows moved alike are the same as no aim apart.
    #[test]
    fn a_right_aim_like_the_left_changes_nothing(camber in -1.0f64..0.5, caster in 2.0f64..5.0) {
        let mut i = common::truck();
        i.aim.camber_deg = [camber - 0.3, camber + 0.3];
        i.aim.caster_deg = [caster - 0.5, caster + 0.5];
        let plain = plan(&i, &[]).unwrap();
        let right = i.aim.target(Axle::Front, Side::Right);
        i.aim.right = Some(RightAim { camber_deg: Some(right.camber), caster_deg: Some(right.caster) });
        let told = plan(&i, &[]).unwrap();
        prop_assert_eq!(&plain.left.setting, &told.left.setting);
        prop_assert_eq!(&plain.right.setting, &told.right.setting);
    }
}
