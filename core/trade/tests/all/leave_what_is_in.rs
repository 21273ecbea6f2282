//! A car inside every window gets no order, whatever it is and whatever can be turned on it; one angle outside is brought
//! in with as few knobs as can bring it in, and what is in stays in.

use bold_stance_car::adjuster::Adjuster;
use bold_stance_car::archetype::{Archetype, shipped_archetypes};
use bold_stance_car::fit::Sigmas;
use bold_stance_car::vehicle::{Measured, Sides};
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_trade::aim::{Aim, shipped_aims};
use bold_stance_trade::plan::{CandidateStatus, PlanInput, SideReadings, Unread, plan};
use bold_stance_words::English;
use proptest::prelude::*;

fn shapes() -> Vec<Archetype> {
    shipped_archetypes().unwrap()
}

/// A car of a shape with its usual adjusters, read at `share` of the way through every window of an aim, left and right
/// as far apart as the cross limits let them.
fn inside(shape: &Archetype, aim: &Aim, share: [f64; 3], apart: [f64; 3]) -> PlanInput {
    let axle = shape.geometry.axle;
    let cross = aim.cross(axle);
    let read = |side: Side| {
        let t = aim.target(axle, side);
        let sign = if side == Side::Left { 0.5 } else { -0.5 };
        let within = |w: [f64; 2], share: f64, apart: f64| {
            (w[0] + share * (w[1] - w[0]) + sign * apart).clamp(w[0], w[1])
        };
        SideReadings {
            height_mm: shape.usual.height_mm,
            angles: Measured {
                camber_deg: within(t.camber, share[0], apart[0] * cross.camber),
                caster_deg: if axle == Axle::Front {
                    within(t.caster, share[1], apart[1] * cross.caster)
                } else {
                    0.0
                },
                toe_deg: within(t.toe, share[2], apart[2] * (t.toe[1] - t.toe[0])),
            },
            sigma: Sigmas { camber_deg: 0.1, caster_deg: 0.2, toe_deg: 0.05 },
            unread: Unread::default(),
        }
    };
    let g = shape.geometry.clone();
    let mut i = PlanInput::unchanged(
        g,
        2800.0,
        shape.usual.height_mm,
        Vec::new(),
        [read(Side::Left), read(Side::Right)],
        aim.clone(),
    );
    let usual: Vec<Adjuster> = shape.usual_adjusters().into_iter().map(|o| o.adjuster).collect();
    i.adjusters = Sides { left: usual.clone(), right: usual };
    i
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 200, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn a_car_inside_all_its_windows_is_left_alone(
        which in any::<prop::sample::Index>(),
        aim in any::<prop::sample::Index>(),
        share in prop::array::uniform3(0.0f64..=1.0),
        apart in prop::array::uniform3(-0.9f64..0.9),
    ) {
        let shapes = shapes();
        let shape = which.get(&shapes);
        let aims = shipped_aims().unwrap();
        // Where as much caster is wanted as can be had, the car is turned for more of it.
        let aim = Aim { caster_most: false, ..aim.get(&aims).clone() };
        let i = inside(shape, &aim, share, apart);
        let r = match plan(&i, &[]) {
            Ok(r) => r,
            // A shape that cannot be brought to these angles at all (a live axle asked for other camber left and right).
            Err(_) => return Ok(()),
        };
        for (name, s) in [("left", &r.left), ("right", &r.right)] {
            let moved: Vec<String> =
                s.setting.iter().filter(|l| l.moves()).map(|l| format!("{}: {}", l.name, l.words.en())).collect();
            prop_assert!(
                moved.is_empty(),
                "{} {name}: {moved:?}; read {:?}, untouched {:?}, cross {:?}",
                shape.id,
                (i.left.angles, i.right.angles),
                (r.left.after, r.right.after),
                i.cross()
            );
        }
        prop_assert!(r.verdict.reached, "{}: {}", shape.id, r.verdict.headline.en());
        prop_assert!(r.verdict.sentence.en().contains("leave everything"), "{}", r.verdict.sentence.en());
        prop_assert!(r.candidates.iter().all(|c| c.status != CandidateStatus::Short));
    }

    #[test]
    fn toe_alone_outside_turns_toe_alone(
        which in any::<prop::sample::Index>(),
        share in prop::array::uniform3(0.3f64..=0.7),
        toe in -0.4f64..0.6,
    ) {
        let shapes: Vec<Archetype> =
            shapes().into_iter().filter(|s| s.geometry.axle == Axle::Front).collect();
        let shape = which.get(&shapes);
        let aim = shipped_aims().unwrap().remove(0);
        let mut i = inside(shape, &aim, share, [0.0; 3]);
        (i.left.angles.toe_deg, i.right.angles.toe_deg) = (toe, toe);
        let Ok(r) = plan(&i, &[]) else { return Ok(()) };
        for s in [&r.left, &r.right] {
            let turned: Vec<&str> =
                s.setting.iter().filter(|l| l.moves() && !l.sets_toe).map(|l| l.name.as_str()).collect();
            prop_assert!(
                turned.is_empty(),
                "{}: {turned:?}; read {:?} set {:?} target {:?}",
                shape.id,
                i.left.angles,
                s.set,
                i.target(Side::Left)
            );
        }
    }
}
