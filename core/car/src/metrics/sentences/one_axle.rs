//! What height does at one axle.

use super::super::axle::AxleMetrics;
use super::super::page::{Area, CornerQuantity};
use super::{Input, Put, add, both, moved};
use crate::vehicle::Gains;
use bold_stance_kinematics::geometry::{Axle, Layout};

/// Body roll at which corner camber is shown, degrees.
const ROLL: f64 = 3.0;

pub(super) fn axle(i: &Input<'_>, out: &mut Vec<CornerQuantity>, which: Axle) {
    let (now, then, area) = match (which, i.rear) {
        (Axle::Front, _) => (i.front, i.front_planned, Area::Front),
        (Axle::Rear, Some(r)) => (r, i.rear_planned, Area::Rear),
        (Axle::Rear, None) => return,
    };
    let front = which == Axle::Front;
    let live = now.layout == Layout::SolidAxle.word();
    let name = |f: &'static str, r: &'static str| if front { f } else { r };
    let put = |id, label, unit, digits, usual| Put { area, id, label, unit, digits, usual };
    let rc_usual = match (live, front) {
        (true, _) => [200.0, 600.0],
        (false, true) => [-20.0, 140.0],
        (false, false) => [10.0, 220.0],
    };
    add(
        out,
        put(name("front_roll_centre", "rear_roll_centre"), "Roll centre height", "mm", 0, rc_usual),
        both(now, then, |m| m.roll_centre.map(|r| r.z_mm)),
        |a, v| {
            let s = moved(
                a,
                v,
                3.0,
                "rises: the body leans less, and the tyre is pushed sideways more over a bump",
                "falls: the body leans more on it in a bend",
                "stays where it is",
            );
            (
                format!("The axle's roll centre {s}."),
                "Look at the slope of the arms: a roll centre far from usual makes the end lean or jack.",
            )
        },
    );
    if !live {
        add(
            out,
            put(
                name("front_camber_gain", "rear_camber_gain"),
                "Camber per 50 mm of bump",
                "°",
                2,
                [-2.2, -0.1],
            ),
            both(now, then, |m| Some(m.camber_gain_deg_per_50mm)),
            |_, v| {
                let outer = ROLL + v / 50.0 * (0.5 * now.track_mm) * ROLL.to_radians().tan();
                (
                    format!(
                        "At {ROLL:.0}° of body roll the outside wheel ends {outer:.1}° further out at the top than standing."
                    ),
                    "The wheel goes the wrong way over bumps here: check the height against the curve.",
                )
            },
        );
    }
    let toe_usual = if front { [-0.25, 0.25] } else { [-0.1, 0.4] };
    add(
        out,
        put(name("bump_steer", "rear_bump_steer"), "Toe per 50 mm of bump", "°", 2, toe_usual),
        both(now, then, |m| Some(m.bump_steer_deg_per_50mm)),
        |_, v| {
            let way = if v.abs() < 0.03 {
                "keeps its direction over bumps"
            } else if v > 0.0 {
                "toes in as it is pushed up"
            } else {
                "toes out as it is pushed up"
            };
            (
                format!("Each {} wheel {way}.", name("front", "rear")),
                name(
                    "It will wander on rough roads: level the tie rods (rack spacer, tie-rod-end spacer) before setting toe.",
                    "It steers from the rear over bumps: fit or set a toe link at this height.",
                ),
            )
        },
    );
    add(
        out,
        put(name("bump_scrub", "rear_bump_scrub"), "Tyre walks per 50 mm of bump", "mm", 1, [-12.0, 12.0]),
        both(now, then, |m| Some(m.bump_scrub_mm_per_50mm)),
        |_, v| {
            let way = if v >= 0.0 { "outward" } else { "inward" };
            (
                format!("The contact patch is dragged {:.0} mm {way} for each 50 mm of bump.", v.abs()),
                "Steep arms drag the tyre sideways: the tread scrubs on every bump at this height.",
            )
        },
    );
    add(
        out,
        put(
            name("anti_dive", "anti_lift"),
            name("Anti-dive", "Anti-lift under braking"),
            "%",
            0,
            match (live, front) {
                (true, _) => [-10.0, 140.0],
                (false, true) => [-25.0, 60.0],
                (false, false) => [-10.0, 120.0],
            },
        ),
        both(now, then, |m| Some(m.anti_brake_percent)),
        |_, v| {
            (
                if v >= 0.0 {
                    format!(
                        "The links carry {v:.0} % of what braking would {} the body.",
                        name("sink", "raise")
                    )
                } else {
                    format!(
                        "Braking pulls the body {} even more through the links.",
                        name("down in front", "up at the rear")
                    )
                },
                "Tilted pivots make the brakes work the suspension: check the side view.",
            )
        },
    );
    if !front {
        add(
            out,
            put(
                "anti_squat",
                "Anti-squat under drive",
                "%",
                0,
                if live { [-20.0, 180.0] } else { [-20.0, 130.0] },
            ),
            both(now, then, |m| Some(m.anti_drive_percent)),
            |_, v| {
                (
                    format!("Under drive the links carry {v:.0} % of the squat, if this axle is driven."),
                    "Past 100 % the rear rises under power and the tyres can hop: look at the link angles.",
                )
            },
        );
    }
    for (n, joint) in now.joints.iter().enumerate() {
        let upper = joint.joint == "upper";
        let label = if upper { "Upper ball joint swing" } else { "Lower ball joint swing" };
        let id = if upper { "upper_joint" } else { "lower_joint" };
        add(
            out,
            put(id, label, "°", 1, [-9.0, 9.0]),
            both(now, then, |m| m.joints.get(n).map(|j| j.change_deg)),
            |_, v| {
                (
                    format!(
                        "The joint stands {:.0}° {} where it was designed to.",
                        v.abs(),
                        if v >= 0.0 { "above" } else { "below" }
                    ),
                    "Little swing is left before the stud meets its cone: measure the joint's angle at full droop.",
                )
            },
        );
    }
    add(
        out,
        put(
            name("front_shaft", "rear_shaft"),
            "Drive shaft angle, outer joint",
            "°",
            1,
            [0.0, if front { 9.0 } else { 8.0 }],
        ),
        both(now, then, |m| m.shaft.map(|s| s.outer_deg)),
        |a, v| {
            let s = moved(a, v, 0.2, "steeper than it came", "flatter than it came", "as it came");
            (
                format!("The shaft runs {s}, straight ahead."),
                "A steep shaft wears its joint and pulls under power: check the boots at full droop and lock.",
            )
        },
    );
    add(
        out,
        put(
            name("front_track_change", "rear_track_change"),
            "Track against as it came",
            "mm",
            1,
            [-20.0, 20.0],
        ),
        (Some(0.0), then.map(|m| m.track_mm - now.track_mm)),
        |_, v| {
            (
                if v.abs() < 0.5 {
                    "The track stays as it is.".into()
                } else {
                    format!(
                        "The wheels stand {:.0} mm {} together.",
                        v.abs(),
                        if v > 0.0 { "wider" } else { "narrower" }
                    )
                },
                "Check the tyres against arch and strut on both sides.",
            )
        },
    );
    let room = |m: &AxleMetrics, gains: Option<Gains>| {
        gains.map(|g| {
            let travel = if front {
                -f64::midpoint(g.left_front, g.right_front)
            } else {
                -f64::midpoint(g.left_rear, g.right_rear)
            };
            travel - m.travel_range_mm[0]
        })
    };
    add(
        out,
        put(name("droop_left", "rear_droop_left"), "Droop the links leave", "mm", 0, [50.0, 400.0]),
        (room(now, Some(i.arrived)), room(now, i.planned)),
        |_, v| {
            (
                format!(
                    "The wheel can hang {v:.0} mm lower before a link is stretched out; dampers and hoses may stop it sooner."
                ),
                "Little droop is left: the end tops out over crests. Check hose, sensor wire and shaft at full droop.",
            )
        },
    );
}
