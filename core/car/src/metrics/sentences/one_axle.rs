//! What height does at one axle.

use super::super::axle::AxleMetrics;
use super::super::page::{Area, CornerQuantity};
use super::{Input, Put, add, both, moved};
use crate::vehicle::Gains;
use bold_stance_kinematics::geometry::{Axle, Layout};
use bold_stance_units::said::said;

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
        put(name("front_roll_centre", "rear_roll_centre"), said("q-roll-centre"), "mm", 0, rc_usual),
        both(now, then, |m| m.roll_centre.map(|r| r.z_mm)),
        |a, v| {
            let s = moved(a, v, 3.0, "q-roll-centre-up", "q-roll-centre-down", "q-roll-centre-same");
            (said(s), "q-roll-centre-look")
        },
    );
    if !live {
        add(
            out,
            put(
                name("front_camber_gain", "rear_camber_gain"),
                said("q-camber-gain").travel_mm("per", 50.0),
                "°",
                2,
                [-2.2, -0.1],
            ),
            both(now, then, |m| Some(m.camber_gain_deg_per_50mm)),
            |_, v| {
                let outer = ROLL + v / 50.0 * (0.5 * now.track_mm) * ROLL.to_radians().tan();
                (said("q-camber-gain-means").deg("roll", ROLL, 0).deg("out", outer, 1), "q-camber-gain-look")
            },
        );
    }
    let toe_usual = if front { [-0.25, 0.25] } else { [-0.1, 0.4] };
    add(
        out,
        put(
            name("bump_steer", "rear_bump_steer"),
            said("q-bump-steer").travel_mm("per", 50.0),
            "°",
            2,
            toe_usual,
        ),
        both(now, then, |m| Some(m.bump_steer_deg_per_50mm)),
        |_, v| {
            let way = if v.abs() < 0.03 {
                "q-bump-steer-straight"
            } else if v > 0.0 {
                "q-bump-steer-in"
            } else {
                "q-bump-steer-out"
            };
            (
                said(way).word("axle", name("front", "rear")),
                name("q-bump-steer-look", "q-bump-steer-look-rear"),
            )
        },
    );
    add(
        out,
        put(
            name("bump_scrub", "rear_bump_scrub"),
            said("q-bump-scrub").travel_mm("per", 50.0),
            "mm",
            1,
            [-12.0, 12.0],
        ),
        both(now, then, |m| Some(m.bump_scrub_mm_per_50mm)),
        |_, v| {
            let way = if v >= 0.0 { "outboard" } else { "inboard" };
            (
                said("q-bump-scrub-means").mm("by", v.abs()).word("way", way).travel_mm("per", 50.0),
                "q-bump-scrub-look",
            )
        },
    );
    add(
        out,
        put(
            name("anti_dive", "anti_lift"),
            said(name("q-anti-dive", "q-anti-lift")),
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
                    said(name("q-anti-dive-carries", "q-anti-lift-carries")).plain("share", v, 0)
                } else {
                    said(name("q-anti-dive-pulls", "q-anti-lift-pulls"))
                },
                "q-anti-look",
            )
        },
    );
    if !front {
        add(
            out,
            put(
                "anti_squat",
                said("q-anti-squat"),
                "%",
                0,
                if live { [-20.0, 180.0] } else { [-20.0, 130.0] },
            ),
            both(now, then, |m| Some(m.anti_drive_percent)),
            |_, v| (said("q-anti-squat-means").plain("share", v, 0), "q-anti-squat-look"),
        );
    }
    for (n, joint) in now.joints.iter().enumerate() {
        let upper = joint.joint == "upper";
        let label = said(if upper { "q-upper-joint" } else { "q-lower-joint" });
        let id = if upper { "upper_joint" } else { "lower_joint" };
        add(
            out,
            put(id, label, "°", 1, [-9.0, 9.0]),
            both(now, then, |m| m.joints.get(n).map(|j| j.change_deg)),
            |_, v| {
                (
                    said(if v >= 0.0 { "q-joint-above" } else { "q-joint-below" }).deg("by", v.abs(), 0),
                    "q-joint-look",
                )
            },
        );
    }
    add(
        out,
        put(name("front_shaft", "rear_shaft"), said("q-shaft"), "°", 1, [0.0, if front { 9.0 } else { 8.0 }]),
        both(now, then, |m| m.shaft.map(|s| s.outer_deg)),
        |a, v| {
            let s = moved(a, v, 0.2, "q-shaft-steeper", "q-shaft-flatter", "q-shaft-same");
            (said(s), "q-shaft-look")
        },
    );
    add(
        out,
        put(name("front_track_change", "rear_track_change"), said("q-track"), "mm", 1, [-20.0, 20.0]),
        (Some(0.0), then.map(|m| m.track_mm - now.track_mm)),
        |_, v| {
            (
                if v.abs() < 0.5 {
                    said("q-track-same")
                } else {
                    said(if v > 0.0 { "q-track-wider" } else { "q-track-narrower" }).mm("by", v.abs())
                },
                "q-track-look",
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
        put(name("droop_left", "rear_droop_left"), said("q-droop"), "mm", 0, [50.0, 400.0]),
        (room(now, Some(i.arrived)), room(now, i.planned)),
        |_, v| (said("q-droop-means").mm("by", v), "q-droop-look"),
    );
}
