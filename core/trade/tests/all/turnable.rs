//! What can be turned as found: every shape with its usual adjusters, and what tabs, a seized bolt and one side alone do.

use bold_stance_car::adjuster::{FoundAdjuster, Held, Stands};
use bold_stance_car::archetype::{Archetype, shipped_archetypes};
use bold_stance_kinematics::geometry::Layout;
use bold_stance_trade::job::{Turnable, TurnableRequest, turnable};
use bold_stance_words::English;

fn shape(id: &str) -> Archetype {
    shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap()
}

fn usual(a: &Archetype) -> Vec<FoundAdjuster> {
    a.usual_adjusters()
        .into_iter()
        .map(|o| {
            let mut f = FoundAdjuster::from(o.adjuster);
            f.adjuster.name = o.name.en();
            f
        })
        .collect()
}

fn look(a: &Archetype, adjusters: Vec<FoundAdjuster>, told: bool) -> Turnable {
    turnable(&TurnableRequest { geometry: a.geometry.clone(), adjusters, told }).unwrap()
}

#[test]
fn every_shape_is_looked_at_with_what_it_usually_has() {
    for a in shipped_archetypes().unwrap() {
        let t = look(&a, usual(&a), true);
        for r in &t.rows {
            assert!(r.spot.is_some() && !r.size.en().is_empty(), "{}", a.id);
            let s = r.sides.left.step.as_ref().unwrap_or_else(|| panic!("{} has no step", a.id));
            // A notch does something; links of a live axle move the axle, and a drag link the steering wheel alone.
            if a.geometry.layout() == Layout::SolidAxle && !s.name.ends_with("tie rod") {
                continue;
            }
            assert!(s.camber_deg.abs() + s.caster_deg.abs() + s.toe_deg.abs() > 1e-6, "{} {}", a.id, s.name);
        }
        assert!(t.tabs_out.left.is_some() == a.usual.tabs, "{}", a.id);
    }
}

#[test]
fn tabs_in_leave_the_rods_and_tabs_out_give_the_weave() {
    let a = shape("upper_torsion_front");
    let t = look(&a, usual(&a), true);
    assert!(t.reach.left.is_none(), "nothing moves camber or caster with the tabs in");
    assert!(t.tabs_out.left.as_ref().is_some_and(|r| r.threads.len() > 8));
    let says = t.nothing.unwrap().en();
    assert!(says.contains("Camber") && says.contains("caster") && !says.contains("toe"), "{says}");
    // One cam free: a line, and the caster it takes with it.
    let mut one = usual(&a);
    one[1].adjuster.held = None;
    one[1].right = Some(Stands { held: Some(Held::Seized), position: 22.5, ..Stands::default() });
    let t = look(&a, one, true);
    assert!(t.reach.left.is_some() && t.reach.right.is_none());
    assert_eq!((t.rows[1].sides.left.held, t.rows[1].sides.right.held), (None, Some(Held::Seized)));
    assert_eq!(t.rows[1].sides.right.stands.en(), "1 outboard");
}

#[test]
fn nothing_turns_it_is_only_said_once_it_was_looked_at() {
    let a = shape("twist_beam_rear");
    assert_eq!(look(&a, Vec::new(), true).nothing.unwrap().en(), "Camber and toe: nothing turns them.");
    let says = look(&a, Vec::new(), false).nothing.unwrap().en();
    assert_eq!(says, "Camber and toe: nothing ticked turns them. Look, then tick.");
}

#[test]
fn what_the_layout_has_not_is_refused_at_its_field() {
    let cams = usual(&shape("half_ton_front"));
    let geometry = shape("compact_strut_front").geometry;
    let mut bad = cams.clone();
    bad.push(usual(&shape("classic_equal_front")).remove(0));
    let p = turnable(&TurnableRequest { geometry, adjusters: bad, told: false }).unwrap_err();
    assert_eq!(p[0].field, "adjusters.3.point");
}
