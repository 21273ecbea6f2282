//! Whether a car has what an adjuster or an edit turns: a point, link or joint that is not there is a fault.

use super::{Adjuster, AdjusterKind, ThreadLink};
use bold_stance_kinematics::edit::{EccentricPoint, Edit};
use bold_stance_kinematics::geometry::{OnIt, Points};
use bold_stance_kinematics::linkage::Arm;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::{Said, said};

/// A word this layout has not among those it has.
fn listed(field: String, word: &str, has: &[String], out: &mut Vec<Problem>) {
    if has.iter().any(|h| h == word) {
        return;
    }
    let right = if has.is_empty() { said("fault-none-of-it") } else { Said::text(has.join(", ")) };
    out.push(Problem::new(field, said("fault-layout-has-no").name("word", word), right));
}

/// A rod of a multi-link may be asked for as the tie rod.
fn pivot(field: String, point: &EccentricPoint, on: &OnIt, out: &mut Vec<Problem>) {
    let word = if *point == EccentricPoint::TieInner { on.tie_pivot } else { point.word() };
    listed(field, word, &on.pivots, out);
}

/// What a car with these points has not of a list of adjusters, by field under `adjusters`.
#[must_use]
pub fn adjusters_not_there(list: &[Adjuster], p: &Points) -> Vec<Problem> {
    let on = p.on_it();
    let mut out = Vec::new();
    for (i, a) in list.iter().enumerate() {
        let at = |f: &str| format!("adjusters.{i}.{f}");
        let mut only = |there: bool, wrong: &'static str, right: &'static str| {
            if !there {
                out.push(Problem::new(at("kind"), said(wrong), said(right)));
            }
        };
        match &a.kind {
            AdjusterKind::Eccentric { point, .. }
            | AdjusterKind::Slide { point, .. }
            | AdjusterKind::Shims { point, .. } => pivot(at("point"), point, &on, &mut out),
            AdjusterKind::Thread { link, .. } => listed(at("link"), link.word(), &on.threads, &mut out),
            AdjusterKind::CamBolt { .. } => only(on.clamp, "fault-no-cam-bolt", "fault-strut-only"),
            AdjusterKind::Tilt { toe_per_camber, .. } => {
                if *toe_per_camber != 0.0 && on.clamp {
                    out.push(Problem::new(
                        at("toe_per_camber"),
                        said("fault-toe-strut-slot-follows-from"),
                        said("fault-0-left-out"),
                    ));
                }
            }
            AdjusterKind::Wedge { .. } => only(on.kingpin, "fault-no-wedge", "fault-live-axle-only"),
            AdjusterKind::Sleeve { .. } => only(on.axle_end, "fault-no-sleeve", "fault-steered-live-axle"),
        }
    }
    out
}

/// What a car with these points has not of a list of edits, by field under `edits`.
#[must_use]
pub fn edits_not_there(list: &[Edit], p: &Points) -> Vec<Problem> {
    let on = p.on_it();
    let mut out = Vec::new();
    for (i, e) in list.iter().enumerate() {
        let at = |f: &str| format!("edits.{i}.{f}");
        let mut only = |there: bool, field: &str, wrong: &'static str, right: &'static str| {
            if !there {
                out.push(Problem::new(at(field), said(wrong), said(right)));
            }
        };
        match e {
            Edit::MovePivot { point, .. } => pivot(at("point"), point, &on, &mut out),
            Edit::ReplaceEccentric { points, .. } | Edit::FreeEccentrics { points } => {
                for (k, q) in points.iter().enumerate() {
                    pivot(at(&format!("points.{k}")), q, &on, &mut out);
                }
            }
            Edit::ShiftKnucklePoint { point, .. } => {
                only(on.joints.contains(point), "point", "fault-no-joint", "fault-joint-it-has");
            }
            Edit::ReshapeArm { arm, .. } => {
                only(on.arms.contains(arm), "arm", "fault-no-arm", "fault-arm-of-three");
            }
            Edit::LengthenLinks { arm, front_mm, rear_mm } => {
                let word = if *arm == Arm::Upper { "upper" } else { "lower" };
                listed(at("arm"), word, &on.threads, &mut out);
                if on.one_length && front_mm != rear_mm {
                    out.push(Problem::new(
                        at("rear_mm"),
                        said("fault-arm-live-axle-one-length"),
                        said("fault-same-front-link"),
                    ));
                }
            }
            Edit::LengthenTie { .. } => {
                listed(at("kind"), ThreadLink::Tie.word(), &on.threads, &mut out);
            }
            Edit::LengthenLink { name, .. } => listed(at("name"), name, &on.links, &mut out),
            Edit::MoveWheelEnd { link, .. } => {
                let mut has = on.links.clone();
                has.push("all".into());
                listed(at("link"), link, &has, &mut out);
            }
            Edit::OffsetUpperJoint { .. } => {
                only(on.axle_end, "kind", "fault-no-offset", "fault-steered-live-axle");
            }
            Edit::LeanKingpin { .. } => only(on.kingpin, "kind", "fault-no-kingpin", "fault-live-axle"),
            // A wheel can be turned and moved on every layout.
            Edit::KnuckleTilt { .. } | Edit::TurnSpin { .. } | Edit::ShiftWheel { .. } => {}
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::archetype::shipped_archetypes;
    use bold_stance_kinematics::edit::JointPoint;

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
