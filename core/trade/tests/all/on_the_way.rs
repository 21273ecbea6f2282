//! What a gauge shows while an adjuster is loose: the way of the wheel from where it stands to where it is ordered, against the
//! linkage itself.

use crate::common::{electric_rear, truck};
use bold_stance_car::vehicle::{Attitude, anchor, anchor_wheel};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_trade::part::shipped_parts;
use bold_stance_trade::plan::{OnTheWay, PlanInput, SettingLine, plan};

/// The corner of a side, bent to what was read of it as found.
fn corner(i: &PlanInput, side: Side) -> Corner {
    let read = if side == Side::Left { &i.left } else { &i.right };
    let (points, wheel) = i.geometry.side(side);
    // Travel is into bump: the wheel goes up as the height goes down.
    let (at, angles) = (i.design_height_mm - read.height_mm, &read.angles);
    let list = if side == Side::Left { &i.adjusters.left } else { &i.adjusters.right };
    let start: Vec<Edit> = list.iter().flat_map(|a| a.edits_at(a.position)).collect();
    let bent = if i.geometry.axle == Axle::Rear {
        anchor_wheel(&points, &wheel, at, &start, angles.camber_deg, angles.toe_deg)
    } else {
        anchor(&points, &wheel, at, &start, angles)
    };
    bent.unwrap().corner
}

/// Camber and toe of the linkage with every order before `at` done and that one done in part, degrees.
fn linkage(
    i: &PlanInput,
    side: Side,
    lines: &[SettingLine],
    (at, share): (usize, f64),
    tilt: Attitude,
) -> [f64; 2] {
    let list = if side == Side::Left { &i.adjusters.left } else { &i.adjusters.right };
    let edits: Vec<Edit> = list
        .iter()
        .flat_map(|a| {
            let order = lines[..=at].iter().position(|l| l.name == a.name);
            let to = order.map_or(a.position, |k| {
                let share = if k == at { share } else { 1.0 };
                a.position + share * (lines[k].position - a.position)
            });
            a.edits_at(to)
        })
        .collect();
    let found = if side == Side::Left { i.left.height_mm } else { i.right.height_mm };
    let gain = if i.geometry.axle == Axle::Rear { &i.moves.rear } else { &i.moves.front }.height_change_mm;
    let travel = i.design_height_mm - found - gain;
    let c = corner(i, side).edited(&edits);
    let w = tilt.apply(&c.pose(travel, 0.0).unwrap()).wheel(c.loaded_radius(), c.design_x());
    [w.camber_deg, w.toe_deg]
}

/// As the screen reads between two of them.
fn between(path: &[OnTheWay], share: f64) -> [f64; 2] {
    let k = path.iter().position(|p| p.share >= share).unwrap().max(1);
    let (a, b) = (path[k - 1], path[k]);
    let t = (share - a.share) / (b.share - a.share);
    [a.camber_deg + t * (b.camber_deg - a.camber_deg), a.toe_deg + t * (b.toe_deg - a.toe_deg)]
}

#[test]
fn what_the_gauge_shows_on_the_way_is_what_the_linkage_does() {
    let mut seen = 0;
    let mut low = truck();
    low.moves.front.height_change_mm = -40.0;
    for i in [truck(), low, electric_rear()] {
        let r = plan(&i, &shipped_parts().unwrap()).unwrap();
        let tilt = Attitude { pitch: r.pitch_deg.to_radians(), roll: 0.0 };
        for (side, plan) in [(Side::Left, &r.left), (Side::Right, &r.right)] {
            let moved: Vec<SettingLine> = plan.setting.iter().filter(|l| l.moves()).cloned().collect();
            for (at, l) in moved.iter().enumerate() {
                let hand = l.in_hand.as_ref().unwrap();
                let path = &hand.path;
                assert!(path.len() >= 5, "{}: {path:?}", l.name);
                assert_eq!(path[0].camber_deg, hand.before.unwrap()[0]);
                let last = path.iter().find(|p| (p.share - 1.0).abs() < 1e-9).unwrap();
                assert_eq!(last.toe_deg, hand.after.unwrap()[2]);
                let start = linkage(&i, side, &moved, (at, 0.0), tilt);
                for n in 1..=16 {
                    let share = f64::from(n) / 16.0;
                    let [camber, toe] = linkage(&i, side, &moved, (at, share), tilt);
                    let [c, t] = between(path, share);
                    let off = (
                        (c - path[0].camber_deg) - (camber - start[0]),
                        (t - path[0].toe_deg) - (toe - start[1]),
                    );
                    assert!(off.0.abs() < 0.01 && off.1.abs() < 0.01, "{} at {share}: {off:?}", l.name);
                    seen += 1;
                }
            }
        }
    }
    assert!(seen >= 140, "{seen}");
}
