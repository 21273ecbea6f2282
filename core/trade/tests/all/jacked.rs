//! The aim while a wheel hangs on the jack, against the corner posed at that height by itself.

use crate::shop::facts;
use bold_stance_car::fit::Sigmas;
use bold_stance_car::vehicle::Measured;
use bold_stance_kinematics::geometry::Side;
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::aim::shipped_aims;
use bold_stance_trade::plan::{OnJack, PlanInput, SideReadings, Unread, on_jack, plan};
use bold_stance_words::English;

fn input() -> PlanInput {
    let g = facts().axles.front.geometry.unwrap();
    let at = |side| {
        let a = Corner::of(&g, side).wheel(0.0, 0.0).unwrap().or_unsteered();
        SideReadings {
            height_mm: 360.0,
            angles: Measured { camber_deg: a.camber_deg, caster_deg: a.caster_deg, toe_deg: a.toe_deg },
            sigma: Sigmas::default(),
            unread: Unread::default(),
        }
    };
    let read = [at(Side::Left), at(Side::Right)];
    PlanInput::unchanged(g.clone(), 2900.0, 360.0, Vec::new(), read, shipped_aims().unwrap().remove(0))
}

#[test]
fn what_a_hanging_wheel_shows_comes_back_into_its_window_on_the_floor() {
    let i = input();
    let r = plan(&i, &[]).unwrap();
    for side in Side::BOTH {
        let at = |height_mm, lean_deg| on_jack(&i, &[], &r, &OnJack { side, height_mm, lean_deg }).unwrap();
        // At its own height, level, the aim is the aim.
        let here = at(360.0, 0.0);
        let t = i.target(side);
        assert!((here.camber_deg[0] - t.camber[0]).abs() < 1e-9 && (here.toe_deg[1] - t.toe[1]).abs() < 1e-9);
        // Hanging 60 mm lower, as the corner posed by itself does; readings are the shape's own, so nothing was bent to them.
        let hangs = at(420.0, 0.0);
        let posed = Corner::of(&i.geometry, side).wheel(-60.0, 0.0).unwrap();
        let stands = Corner::of(&i.geometry, side).wheel(0.0, 0.0).unwrap();
        let by = posed.camber_deg - stands.camber_deg;
        assert!(by.abs() > 0.2, "{by}");
        assert!((hangs.camber_deg[0] - t.camber[0] - by).abs() < 0.01, "{hangs:?} {by}");
        assert!((hangs.toe_deg[0] - t.toe[0] - (posed.toe_deg - stands.toe_deg)).abs() < 0.01, "{hangs:?}");
        assert!((hangs.floor.camber_deg - stands.camber_deg).abs() < 0.01);
        // The body lifted by 3 degrees at this side leans the wheel's top in by as much (plane geometry).
        let leant = at(420.0, 3.0);
        assert!((leant.camber_deg[0] - hangs.camber_deg[0] + 3.0).abs() < 0.05, "{leant:?} {hangs:?}");
    }
}

#[test]
fn a_height_it_cannot_hang_at_and_a_lean_no_jack_makes_are_refused_at_their_fields() {
    let i = input();
    let r = plan(&i, &[]).unwrap();
    let at = |height_mm, lean_deg| {
        on_jack(&i, &[], &r, &OnJack { side: Side::Left, height_mm, lean_deg }).unwrap_err().remove(0)
    };
    let far = at(900.0, 0.0);
    assert_eq!(far.field, "height");
    assert!(far.wrong.en().contains("900 mm"), "{}", far.wrong.en());
    assert_eq!(at(400.0, 45.0).field, "lean");
}
