//! What is wrong with a part or a list of parts, by field.

use super::Part;
use bold_stance_car::adjuster::adjuster_problems;
use bold_stance_car::adjuster::{AdjusterKind, ThreadLink};
use bold_stance_kinematics::edit::{EccentricPoint, Edit};
use bold_stance_kinematics::geometry::Layout;
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::{Said, said};

/// Most parts one shop keeps.
pub const MOST_PARTS: usize = 5000;

/// Everything wrong with one part, by field.
#[must_use]
pub fn part_problems(p: &Part) -> Vec<Problem> {
    let mut out = Vec::new();
    for (f, text, most) in [
        ("id", &p.id, 60),
        ("name", &p.name, 80),
        ("summary", &p.summary, 160),
        ("side_effect", &p.side_effect, 300),
        ("fits.replaces", &p.fits.replaces, 60),
    ] {
        let n = text.trim().chars().count();
        if n == 0 || n > most {
            let wrong = if n == 0 { said("nothing-entered") } else { said("fault-characters").count("n", n) };
            out.push(Problem::new(f, wrong, said("fault-characters-right").count("n", most)));
        }
    }
    for (f, text) in [("access", &p.access), ("sockets", &p.sockets), ("torque", &p.torque)] {
        if text.chars().count() > 300 {
            out.push(Problem::new(f, said("fault-longer-than-300-characters"), said("fault-one-sentence")));
        }
    }
    if p.order_number.chars().count() > 60 {
        let (wrong, right) = (said("fault-longer-than-60-characters"), said("fault-order-number"));
        out.push(Problem::new("order_number", wrong, right));
    }
    if !p.id.chars().all(|c| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-') {
        let right = said("fault-id-letters");
        out.push(Problem::new("id", said("fault-quoted").name("value", p.id.clone()), right));
    }
    if p.fits.layouts.is_empty() {
        out.push(Problem::new(
            "fits.layouts",
            said("fault-fits-no-layout"),
            said("fault-at-least-one-layout"),
        ));
    }
    if p.fits.axles.is_empty() {
        out.push(Problem::new("fits.axles", said("fault-fits-no-axle"), said("fault-front-rear-both")));
    }
    if p.edits.is_empty() && p.adjusters.is_empty() && p.provides.is_empty() {
        out.push(Problem::new(
            "edits",
            said("fault-moves-nothing"),
            said("fault-at-least-one-edit-adjuster"),
        ));
    }
    out.extend(in_range("cost", p.cost, 0.0, 1e5, "in the shop's currency").err());
    out.extend(in_range("labour_minutes", f64::from(p.labour_minutes), 0.0, 10_000.0, "minutes").err());
    for (name, long) in [
        ("edits", p.edits.len() > 16),
        ("purposes", p.purposes.len() > 7),
        ("requires", p.requires.len() > 8),
        ("provides", p.provides.len() > 8),
        ("conflicts", p.conflicts.len() > 30),
        ("cautions", p.cautions.len() > 12),
    ] {
        if long {
            out.push(Problem::new(name, said("fault-too-many"), said("fault-shorter-list")));
        }
    }
    p.edits.iter().enumerate().for_each(|(i, e)| edit_problems(&format!("edits.{i}"), e, &mut out));
    unknown_points(p, &mut out);
    out.extend(adjuster_problems(&p.adjusters));
    // A part is kept as it is sold; what it was found to do is worked out from cars, never typed.
    for (i, _) in p.adjusters.iter().enumerate().filter(|(_, a)| a.known.is_some()) {
        let field = format!("adjusters.{i}.known");
        out.push(Problem::new(field, said("fault-known-typed"), said("fault-known-typed-right")));
    }
    let l = &p.limits;
    for (f, v, high, unit) in [
        ("upper_joint_deg", l.upper_joint_deg, 60.0, "°"),
        ("lower_joint_deg", l.lower_joint_deg, 60.0, "°"),
        ("shaft_deg", l.shaft_deg, 60.0, "°"),
        ("bucket_mm", l.bucket_mm, 100.0, "mm"),
        ("droop_mm", l.droop_mm, 300.0, "mm"),
    ] {
        out.extend(v.and_then(|v| in_range(&format!("limits.{f}"), v, 0.0, high, unit).err()));
    }
    if let Some(s) = &p.sizes {
        if s.values.is_empty() || s.values.len() > 24 {
            let wrong = said("fault-sizes-count").count("n", s.values.len());
            out.push(Problem::new("sizes.values", wrong, said("fault-1-24-sizes")));
        }
        for (i, v) in s.values.iter().enumerate() {
            out.extend(in_range(&format!("sizes.values.{i}"), *v, -500.0, 500.0, &s.unit).err());
            if i > 0 && s.values[i - 1] >= *v {
                let wrong = said("fault-after")
                    .name("now", v.to_string())
                    .name("before", s.values[i - 1].to_string());
                out.push(Problem::new(
                    format!("sizes.values.{i}"),
                    wrong,
                    said("fault-sizes-rising-order-each-once"),
                ));
            }
        }
        if s.unit.trim().is_empty() || s.unit.chars().count() > 8 {
            out.push(Problem::new(
                "sizes.unit",
                said("fault-quoted").name("value", s.unit.clone()),
                said("fault-mm"),
            ));
        }
    }
    for (i, c) in p.conflicts.iter().enumerate().filter(|(_, c)| p.requires.contains(c)) {
        let wrong = said("fault-required-and-out").name("id", c.clone());
        out.push(Problem::new(format!("conflicts.{i}"), wrong, said("fault-one-other")));
    }
    for (i, r) in p.requires.iter().enumerate().filter(|(_, r)| **r == p.id) {
        out.push(Problem::new(
            format!("requires.{i}"),
            said("fault-part-itself").name("id", r.clone()),
            said("fault-another-part"),
        ));
    }
    out
}

fn edit_problems(at: &str, e: &Edit, out: &mut Vec<Problem>) {
    let mut check = |f: &str, v: f64, most: f64, unit: &str| {
        out.extend(in_range(&format!("{at}.{f}"), v, -most, most, unit).err());
    };
    match e {
        Edit::MovePivot { by, .. }
        | Edit::ShiftKnucklePoint { by, .. }
        | Edit::MoveWheelEnd { by, .. }
        | Edit::ShiftWheel { by } => {
            by.iter().enumerate().for_each(|(i, v)| check(&format!("by.{i}"), *v, 300.0, "mm"));
        }
        Edit::ReshapeArm { longer_mm, forward_mm, .. } => {
            check("longer_mm", *longer_mm, 150.0, "mm");
            check("forward_mm", *forward_mm, 150.0, "mm");
        }
        Edit::LengthenLinks { front_mm, rear_mm, .. } => {
            check("front_mm", *front_mm, 150.0, "mm");
            check("rear_mm", *rear_mm, 150.0, "mm");
        }
        Edit::LengthenTie { by_mm } | Edit::LengthenLink { by_mm, .. } => check("by_mm", *by_mm, 150.0, "mm"),
        Edit::TurnSpin { camber_deg, toe_deg } | Edit::KnuckleTilt { camber_deg, toe_deg } => {
            check("camber_deg", *camber_deg, 8.0, "°");
            check("toe_deg", *toe_deg, 8.0, "°");
        }
        Edit::OffsetUpperJoint { out_deg, back_deg } => {
            check("out_deg", *out_deg, 8.0, "°");
            check("back_deg", *back_deg, 8.0, "°");
        }
        Edit::LeanKingpin { caster_deg } => check("caster_deg", *caster_deg, 15.0, "°"),
        Edit::ReplaceEccentric { points, eccentricity_mm, notches_per_half_turn } => {
            check("eccentricity_mm", *eccentricity_mm, 60.0, "mm");
            let n = f64::from(*notches_per_half_turn);
            out.extend(in_range(&format!("{at}.notches_per_half_turn"), n, 1.0, 90.0, "notches").err());
            if points.is_empty() {
                out.push(Problem::new(
                    format!("{at}.points"),
                    said("fault-no-pivot"),
                    said("fault-at-least-one-pivot"),
                ));
            }
        }
        Edit::FreeEccentrics { points } => {
            if points.is_empty() {
                out.push(Problem::new(
                    format!("{at}.points"),
                    said("fault-no-pivot"),
                    said("fault-at-least-one-pivot"),
                ));
            }
        }
    }
}

/// Points and links that no layout the part fits has. Links of a multi-link or live axle go by the names of its own
/// file, so there any plain word may be one.
fn unknown_points(p: &Part, out: &mut Vec<Problem>) {
    let has = |l: Layout| p.fits.layouts.contains(&l);
    let named = has(Layout::FiveLink) || has(Layout::SolidAxle);
    let plain = |n: &str| {
        !n.is_empty()
            && n.len() <= 40
            && n.chars().all(|c| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '_')
    };
    use Layout::{DoubleWishbone, SingleArm, Strut, TwistBeam};
    let mut known: Vec<&str> = Vec::new();
    for (layouts, points) in [
        (&[DoubleWishbone, Strut, SingleArm, TwistBeam][..], &["lower_front", "lower_rear"][..]),
        (&[DoubleWishbone], &["upper_front", "upper_rear"]),
        (&[DoubleWishbone, Strut], &["tie_inner"]),
        (&[Strut], &["strut_top"]),
    ] {
        if layouts.iter().any(|l| has(*l)) {
            known.extend(points);
        }
    }
    let mut say = |field: String, name: &str, known: &[&str]| {
        let right = match (known, named) {
            ([], _) => said("fault-name-of-link"),
            (k, true) => said("fault-or-name-of-link").name("list", k.join(", ")),
            (k, false) => Said::text(k.join(", ")),
        };
        out.push(Problem::new(field, said("fault-no-point-on-fits").name("name", name), right));
    };
    let mut point = |field: String, q: &EccentricPoint| {
        let w = q.word();
        if !(known.contains(&w) || (named && plain(w))) {
            say(field, w, &known);
        }
    };
    for (i, e) in p.edits.iter().enumerate() {
        match e {
            Edit::MovePivot { point: q, .. } => point(format!("edits.{i}.point"), q),
            Edit::ReplaceEccentric { points, .. } | Edit::FreeEccentrics { points } => {
                for (k, q) in points.iter().enumerate() {
                    point(format!("edits.{i}.points.{k}"), q);
                }
            }
            _ => {}
        }
    }
    for (i, a) in p.adjusters.iter().enumerate() {
        if let AdjusterKind::Eccentric { point: q, .. }
        | AdjusterKind::Slide { point: q, .. }
        | AdjusterKind::Shims { point: q, .. } = &a.kind
        {
            point(format!("adjusters.{i}.point"), q);
        }
    }
    for (i, e) in p.edits.iter().enumerate() {
        let (field, name) = match e {
            Edit::LengthenLink { name, .. } => ("name", name),
            Edit::MoveWheelEnd { link, .. } => ("link", link),
            _ => continue,
        };
        if !(named && plain(name)) {
            say(format!("edits.{i}.{field}"), name, &[]);
        }
    }
    for (i, a) in p.adjusters.iter().enumerate() {
        if let AdjusterKind::Thread { link: ThreadLink::Named(n), .. } = &a.kind
            && !(named && plain(n))
        {
            say(format!("adjusters.{i}.link"), n, &["tie", "upper", "lower"]);
        }
    }
}

/// What is wrong with a whole list, by index: ids twice, and parts that need each other in a ring.
#[must_use]
pub fn list_problems(parts: &[Part]) -> Vec<Problem> {
    let mut out = Vec::new();
    if parts.len() > MOST_PARTS {
        let wrong = said("fault-parts").count("n", parts.len());
        out.push(Problem::new("parts", wrong, said("fault-parts-most").count("n", MOST_PARTS)));
        return out;
    }
    let mut seen = std::collections::HashMap::new();
    for (i, p) in parts.iter().enumerate() {
        out.extend(
            part_problems(p).into_iter().map(|q| Problem::new(format!("{i}.{}", q.field), q.wrong, q.right)),
        );
        if let Some(first) = seen.insert(p.id.as_str(), i) {
            let wrong = said("fault-stands-twice").name("id", p.id.clone()).count("first", first);
            out.push(Problem::new(format!("{i}.id"), wrong, said("fault-one-each")));
        }
    }
    if let Some(ring) = ring(parts) {
        let names: Vec<&str> = ring.iter().map(|i| parts[*i].id.as_str()).collect();
        let wrong = said("fault-ring").name("names", names.join(" → "));
        out.push(Problem::new(format!("{}.requires", ring[0]), wrong, said("fault-chain-ends")));
    }
    out
}

/// Parts of which each can only be had with the next, back to the first.
fn ring(parts: &[Part]) -> Option<Vec<usize>> {
    // What a part needs and only one other part gives.
    let needs = |i: usize| -> Vec<usize> {
        parts[i]
            .requires
            .iter()
            .filter_map(|tag| {
                let mut givers =
                    (0..parts.len()).filter(|j| parts[*j].id == *tag || parts[*j].provides.contains(tag));
                let first = givers.next()?;
                givers.next().is_none().then_some(first)
            })
            .collect()
    };
    let mut state = vec![0u8; parts.len()];
    for root in (0..parts.len()).filter(|i| !parts[*i].requires.is_empty()) {
        let mut path: Vec<(usize, Vec<usize>)> = vec![(root, needs(root))];
        while let Some((at, left)) = path.last_mut() {
            state[*at] = 1;
            match left.pop() {
                Some(next) if state[next] == 1 => {
                    if let Some(from) = path.iter().position(|(i, _)| *i == next) {
                        return Some(path[from..].iter().map(|(i, _)| *i).collect());
                    }
                }
                Some(next) if state[next] == 0 => path.push((next, needs(next))),
                Some(_) => {}
                None => {
                    state[*at] = 2;
                    path.pop();
                }
            }
        }
    }
    None
}
