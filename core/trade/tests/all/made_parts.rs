//! Parts made from construction aids, put on the exact model: the wheel stands at design as it did, and what the aid promised is
//! left over and no more.

use bold_stance_car::archetype::shipped_archetypes;
use bold_stance_car::metrics::aids;
use bold_stance_kinematics::geometry::{Geometry, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_kinematics::wheel::contact_point;
use bold_stance_trade::part::{Aid, Made, made_parts, part_problems};

const TRAVEL: f64 = 50.0;

fn shape(id: &str) -> Geometry {
    shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry
}

fn made(id: &str) -> (Corner, Vec<Made>) {
    let g = shape(id);
    let a = aids(&g.points, &g.wheel, TRAVEL, 34.0, 2900.0);
    (Corner::of(&g, Side::Left), made_parts(&g, &a, 417))
}

/// Largest less smallest of a figure over the travel.
fn swing(c: &Corner, f: impl Fn(&Corner, f64) -> f64) -> f64 {
    let all: Vec<f64> = (-10..=10).map(|k| f(c, f64::from(k) * TRAVEL / 10.0)).collect();
    all.iter().copied().fold(f64::MIN, f64::max) - all.iter().copied().fold(f64::MAX, f64::min)
}

fn toe(c: &Corner, travel: f64) -> f64 {
    c.wheel(travel, 0.0).unwrap().toe_deg
}

fn contact(c: &Corner, travel: f64) -> f64 {
    let p = c.pose(travel, 0.0).unwrap();
    contact_point(&p.centre, &p.spin, c.loaded_radius()).y
}

#[test]
fn on_the_exact_model_they_leave_over_what_was_promised_and_move_nothing_at_design() {
    let mut seen = 0;
    for id in
        ["half_ton_front", "sports_front", "tall_knuckle_front", "compact_strut_front", "crossover_front"]
    {
        let (was, parts) = made(id);
        assert!(parts.len() >= 4, "{id}: {}", parts.len());
        for m in parts {
            let now = was.edited(&m.part.edits);
            let (a, b) = (was.wheel(0.0, 0.0).unwrap(), now.wheel(0.0, 0.0).unwrap());
            let name = format!("{id} {}", m.part.id);
            assert!(
                (a.camber_deg - b.camber_deg).abs() < 1e-6,
                "{name}: camber {} {}",
                a.camber_deg,
                b.camber_deg
            );
            // A joint moved on the steering arm leaves the wheel where it is by the rod's own length.
            assert!((a.toe_deg - b.toe_deg).abs() < 1e-6, "{name}: toe {} {}", a.toe_deg, b.toe_deg);
            match m.aid {
                Aid::TieRod => {
                    let left = swing(&now, toe);
                    assert!(
                        (left - m.left_over).abs() < 0.02 + 0.1 * m.left_over,
                        "{name}: {left} {}",
                        m.left_over
                    );
                    assert!(left < 0.5 * swing(&was, toe) + 0.02, "{name}: {left}");
                }
                Aid::UpperPivot => {
                    let left = swing(&now, contact);
                    assert!(
                        (left - m.left_over).abs() < 0.5 + 0.1 * m.left_over,
                        "{name}: {left} {}",
                        m.left_over
                    );
                }
                Aid::Ackermann => assert!(m.left_over <= m.left_over_now + 1e-9, "{name}"),
            }
            assert!(m.length_mm > 50.0 && m.was_mm > 50.0);
            seen += 1;
        }
    }
    assert!(seen >= 22, "{seen}");
}

#[test]
fn named_they_are_parts_like_any_other_and_two_ways_to_one_place_do_not_both_go_on() {
    let (_, parts) = made("half_ton_front");
    for m in &parts {
        let mut p = m.part.clone();
        assert!(!part_problems(&p).is_empty(), "nameless");
        (p.name, p.summary, p.side_effect) = ("A".into(), "b".into(), "c".into());
        assert_eq!(part_problems(&p), Vec::new());
    }
    let ties: Vec<&Made> = parts.iter().filter(|m| m.aid == Aid::TieRod).collect();
    assert_eq!((ties.len(), &ties[0].part.fits.replaces), (2, &ties[1].part.fits.replaces));
    // A live axle has none of these points.
    assert!(made("live_front").1.is_empty());
}
