//! Whether a car has what an adjuster or an edit turns: a point, link or joint that is not there is a fault.

use super::{Adjuster, AdjusterKind, ThreadLink};
use bold_stance_kinematics::edit::{EccentricPoint, Edit, JointPoint};
use bold_stance_kinematics::geometry::Points;
use bold_stance_kinematics::linkage::Arm;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// Pivots that can be moved, by their word in a file.
fn pivots(p: &Points) -> Vec<String> {
    let own = |words: &[&str]| words.iter().map(|w| (*w).to_owned()).collect();
    match p {
        Points::DoubleWishbone(_) => {
            own(&["lower_front", "lower_rear", "upper_front", "upper_rear", "tie_inner"])
        }
        Points::Strut(_) => own(&["lower_front", "lower_rear", "strut_top", "tie_inner"]),
        Points::SingleArm(_) | Points::TwistBeam(_) => own(&["lower_front", "lower_rear"]),
        Points::FiveLink(_) | Points::SolidAxle(_) => links(p),
    }
}

/// Links that go by a name: rods of a multi-link; links of a solid axle, pairs by their common name.
fn links(p: &Points) -> Vec<String> {
    match p {
        Points::FiveLink(f) => f.rods.iter().map(|r| r.name.clone()).collect(),
        Points::SolidAxle(a) => {
            let mut out: Vec<String> = a.links.iter().map(|l| l.name.clone()).collect();
            for side in ["_left", "_right"] {
                for stem in a.links.iter().filter_map(|l| l.name.strip_suffix(side)) {
                    if !out.iter().any(|n| n == stem) {
                        out.push(stem.to_owned());
                    }
                }
            }
            if a.drag_link.is_some() {
                out.push("drag_link".into());
            }
            out
        }
        _ => Vec::new(),
    }
}

/// Words of a thread that lengthen something here.
fn threads(p: &Points) -> Vec<String> {
    let own = |words: &[&str]| words.iter().map(|w| (*w).to_owned()).collect::<Vec<_>>();
    let lower = ["lower", "lower_front", "lower_rear"];
    match p {
        Points::DoubleWishbone(_) => {
            [own(&["tie", "upper", "upper_front", "upper_rear"]), own(&lower)].concat()
        }
        Points::Strut(_) => [own(&["tie"]), own(&lower)].concat(),
        Points::SingleArm(_) | Points::TwistBeam(_) => Vec::new(),
        Points::FiveLink(_) => {
            let mut out = links(p);
            for arm in ["upper", "lower"] {
                let there = |end: &str| out.contains(&format!("{arm}_{end}"));
                if there("front") || there("rear") {
                    out.push(arm.into());
                }
            }
            out
        }
        Points::SolidAxle(a) => {
            let mut out = links(p);
            out.extend(a.tie_rod.is_some().then(|| "tie".to_owned()));
            out
        }
    }
}

fn missing(field: String, word: &str, has: &[String]) -> Problem {
    let right = if has.is_empty() { "nothing of this kind on this layout".into() } else { has.join(", ") };
    Problem::new(field, format!("this layout has no \"{word}\""), right)
}

fn listed(field: String, word: &str, has: &[String], out: &mut Vec<Problem>) {
    if !has.iter().any(|h| h == word) {
        out.push(missing(field, word, has));
    }
}

/// A rod of a multi-link may be asked for as the tie rod.
fn pivot(field: String, point: &EccentricPoint, p: &Points, out: &mut Vec<Problem>) {
    let word = match (point, p) {
        (EccentricPoint::TieInner, Points::FiveLink(_)) => "tie",
        _ => point.word(),
    };
    listed(field, word, &pivots(p), out);
}

fn leans(p: &Points) -> bool {
    matches!(p, Points::SolidAxle(a) if a.steering_axis.is_some())
}

fn kind(field: String, what: &str, right: &str) -> Problem {
    Problem::new(field, format!("{what} is not on this layout"), right)
}

/// What a car with these points has not of a list of adjusters, by field under `adjusters`.
#[must_use]
pub fn adjusters_not_there(list: &[Adjuster], p: &Points) -> Vec<Problem> {
    let mut out = Vec::new();
    for (i, a) in list.iter().enumerate() {
        let at = |f: &str| format!("adjusters.{i}.{f}");
        match &a.kind {
            AdjusterKind::Eccentric { point, .. }
            | AdjusterKind::Slide { point, .. }
            | AdjusterKind::Shims { point, .. } => pivot(at("point"), point, p, &mut out),
            AdjusterKind::Thread { link, .. } => listed(at("link"), link.word(), &threads(p), &mut out),
            AdjusterKind::CamBolt { .. } if !matches!(p, Points::Strut(_)) => {
                out.push(kind(at("kind"), "a cam bolt at the strut", "an adjuster of a strut only"));
            }
            AdjusterKind::Tilt { toe_per_camber, .. }
                if *toe_per_camber != 0.0 && matches!(p, Points::Strut(_)) =>
            {
                out.push(Problem::new(
                    at("toe_per_camber"),
                    said("fault-toe-strut-slot-follows-from"),
                    said("fault-0-left-out"),
                ));
            }
            AdjusterKind::Wedge { .. } if !matches!(p, Points::SolidAxle(_)) => {
                out.push(kind(at("kind"), "a wedge", "an adjuster of a live axle only"));
            }
            AdjusterKind::Sleeve { .. } if !leans(p) => {
                out.push(kind(at("kind"), "an axle-end sleeve", "a live axle that steers"));
            }
            _ => {}
        }
    }
    out
}

/// What a car with these points has not of a list of edits, by field under `edits`.
#[must_use]
pub fn edits_not_there(list: &[Edit], p: &Points) -> Vec<Problem> {
    let mut out = Vec::new();
    for (i, e) in list.iter().enumerate() {
        let at = |f: &str| format!("edits.{i}.{f}");
        match e {
            Edit::MovePivot { point, .. } => pivot(at("point"), point, p, &mut out),
            Edit::ReplaceEccentric { points, .. } | Edit::FreeEccentrics { points } => {
                for (k, q) in points.iter().enumerate() {
                    pivot(at(&format!("points.{k}")), q, p, &mut out);
                }
            }
            Edit::ShiftKnucklePoint { point, .. } => match (p, point) {
                (Points::DoubleWishbone(_), _) | (Points::Strut(_), JointPoint::Lower | JointPoint::Tie) => {}
                _ => out.push(kind(at("point"), "this joint of a knuckle", "a joint that the knuckle has")),
            },
            Edit::ReshapeArm { arm, .. } => match (p, arm) {
                (Points::DoubleWishbone(_), _) | (Points::Strut(_), Arm::Lower) => {}
                _ => out.push(kind(at("arm"), "this arm", "an arm of three points")),
            },
            Edit::LengthenLinks { arm, front_mm, rear_mm } => {
                let word = if *arm == Arm::Upper { "upper" } else { "lower" };
                listed(at("arm"), word, &threads(p), &mut out);
                if matches!(p, Points::SolidAxle(_)) && front_mm != rear_mm {
                    out.push(Problem::new(
                        at("rear_mm"),
                        said("fault-arm-live-axle-one-length"),
                        said("fault-same-front-link"),
                    ));
                }
            }
            Edit::LengthenTie { .. } => {
                listed(at("kind"), ThreadLink::Tie.word(), &threads(p), &mut out);
            }
            Edit::LengthenLink { name, .. } => listed(at("name"), name, &links(p), &mut out),
            Edit::MoveWheelEnd { link, .. } => {
                let mut has = links(p);
                has.push("all".into());
                listed(at("link"), link, &has, &mut out);
            }
            Edit::OffsetUpperJoint { .. } if !leans(p) => {
                out.push(kind(at("kind"), "an offset of an axle-end joint", "a live axle that steers"));
            }
            Edit::LeanKingpin { .. } if !matches!(p, Points::SolidAxle(_)) => {
                out.push(kind(at("kind"), "a kingpin to lean", "a live axle"));
            }
            _ => {}
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::archetype::shipped_archetypes;

    fn points(id: &str) -> Points {
        shipped_archetypes().unwrap().into_iter().find(|a| a.id == id).unwrap().geometry.points
    }

    fn adjuster(json: &str) -> Adjuster {
        serde_json::from_str(json).unwrap()
    }

    #[test]
    fn what_is_not_on_the_layout_is_refused_at_its_field() {
        let cam = |point: &str| {
            adjuster(&format!(
                r#"{{"name":"a","kind":"eccentric","point":"{point}","direction":[0,1,0],"eccentricity_mm":5,
                "min_deg":-90,"max_deg":90}}"#
            ))
        };
        let thread = |link: &str| {
            adjuster(&format!(
                r#"{{"name":"a","kind":"thread","link":"{link}","pitch_mm":1.5,"ends":1,"turns":[-4,4]}}"#
            ))
        };
        let bolt =
            adjuster(r#"{"name":"a","kind":"cam_bolt","amplitude_deg":1.75,"min_deg":-90,"max_deg":90}"#);
        let sleeve = adjuster(r#"{"name":"a","kind":"sleeve","amount_deg":1,"positions":12}"#);
        let slot = adjuster(r#"{"name":"a","kind":"tilt","camber_deg":[-2,0.5],"toe_per_camber":0.3}"#);
        for (id, a, field) in [
            ("half_ton_front", cam("upper_frnt"), Some("adjusters.0.point")),
            ("half_ton_front", cam("upper_front"), None),
            ("live_front", cam("upper_front"), Some("adjusters.0.point")),
            ("live_front", cam("upper"), None),
            ("live_front", thread("upper_rear"), Some("adjusters.0.link")),
            ("live_front", thread("track_bar"), None),
            ("live_front", sleeve.clone(), None),
            ("half_ton_front", sleeve, Some("adjusters.0.kind")),
            ("compact_strut_front", cam("upper_front"), Some("adjusters.0.point")),
            ("compact_strut_front", bolt.clone(), None),
            ("compact_strut_front", slot, Some("adjusters.0.toe_per_camber")),
            ("ev_multilink_rear", bolt, Some("adjusters.0.kind")),
            ("ev_multilink_rear", thread("camber_lnk"), Some("adjusters.0.link")),
            ("semi_trailing_rear", thread("tie"), Some("adjusters.0.link")),
        ] {
            let found = adjusters_not_there(std::slice::from_ref(&a), &points(id));
            assert_eq!(found.first().map(|p| p.field.as_str()), field, "{id} {a:?}");
        }
    }

    #[test]
    fn edits_too_and_half_a_shim_pair_on_a_live_axle() {
        let pair = |rear_mm| Edit::LengthenLinks { arm: Arm::Upper, front_mm: 3.0, rear_mm };
        let p = points("live_front");
        assert_eq!(edits_not_there(&[pair(0.0)], &p)[0].field, "edits.0.rear_mm");
        assert!(edits_not_there(&[pair(3.0)], &p).is_empty());
        let spacer = Edit::ShiftKnucklePoint { point: JointPoint::Upper, by: [0.0; 3] };
        assert_eq!(
            edits_not_there(std::slice::from_ref(&spacer), &points("compact_strut_front"))[0].field,
            "edits.0.point"
        );
        assert!(edits_not_there(&[spacer], &points("half_ton_front")).is_empty());
    }
}
