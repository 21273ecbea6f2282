//! A drawn position is the solved one, or the file is refused at the loop it stands wrong in (the model's own rule).

use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_kinematics::geometry::{Geometry, Points, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage, problems};
use bold_stance_kinematics::wheel::spin_axis;
use rand::{Rng, SeedableRng};

/// Whether the wheel solved at travel 0 is the drawn one.
fn as_drawn(g: &Geometry) -> bool {
    let (_, w) = g.side(Side::Left);
    let spin = spin_axis(w.camber_deg.to_radians(), w.toe_deg.to_radians());
    Corner::of(g, Side::Left).pose(0.0, 0.0).is_ok_and(|p| {
        (p.centre - nalgebra::Vector3::from(w.center)).norm() < 1e-6 && (p.spin - spin).norm() < 1e-6
    })
}

#[test]
fn every_file_that_is_taken_answers_the_wheel_it_draws() {
    let mut rng = rand_pcg::Pcg64::seed_from_u64(20_261_128);
    let (mut taken, mut refused) = (0, 0);
    for a in shipped_archetypes().unwrap() {
        for k in 0..400 {
            let mut g = a.geometry.clone();
            let spread = [5.0, 60.0, 200.0][k % 3];
            for (_, _, p) in g.points.named_mut() {
                for c in p {
                    *c += rng.random_range(-spread..spread);
                }
            }
            g.wheel.camber_deg = rng.random_range(-4.0..4.0);
            g.wheel.toe_deg = rng.random_range(-2.0..2.0);
            if !g.problems().is_empty() {
                continue;
            }
            let said = problems(&g);
            assert_eq!(said.is_empty(), as_drawn(&g), "{} {k}: {said:?}", a.id);
            taken += usize::from(said.is_empty());
            refused += usize::from(!said.is_empty());
        }
    }
    assert!(taken > 1000, "{taken} taken, {refused} refused");
}

#[test]
fn a_wishbone_drawn_at_its_dead_point_is_refused_at_the_joint() {
    let mut g =
        shipped_archetypes().unwrap().into_iter().find(|a| a.id == "half_ton_front").unwrap().geometry;
    let Points::DoubleWishbone(p) = &mut g.points else { panic!() };
    // The upper joint in one line with its arm's foot and the lower joint: the arm drawn fully extended.
    let (f, r): (nalgebra::Vector3<f64>, nalgebra::Vector3<f64>) =
        (p.upper_front.into(), p.upper_rear.into());
    let axis = (r - f).normalize();
    let lower = nalgebra::Vector3::from(p.lower_outer);
    let foot = f + axis * axis.dot(&(lower - f));
    p.upper_outer = (foot + (lower - foot) * 0.4).into();
    let said = problems(&g);
    assert_eq!(said.iter().map(|p| p.field.as_str()).collect::<Vec<_>>(), ["points.upper_outer"], "{said:?}");
    // And a tie rod in line with its own arm.
    let mut g =
        shipped_archetypes().unwrap().into_iter().find(|a| a.id == "half_ton_front").unwrap().geometry;
    let Points::DoubleWishbone(p) = &mut g.points else { panic!() };
    let (l, u): (nalgebra::Vector3<f64>, nalgebra::Vector3<f64>) =
        (p.lower_outer.into(), p.upper_outer.into());
    let kingpin = (u - l).normalize();
    let tie = nalgebra::Vector3::from(p.tie_outer);
    let hub = l + kingpin * kingpin.dot(&(tie - l));
    p.tie_inner = (hub + (tie - hub) * 3.0).into();
    let said = problems(&g);
    assert_eq!(said.iter().map(|p| p.field.as_str()).collect::<Vec<_>>(), ["points.tie_outer"], "{said:?}");
}
