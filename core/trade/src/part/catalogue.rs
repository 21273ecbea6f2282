//! The catalogue: shipped parts, checked on load with the line that is wrong, and what of it fits an axle.

use super::check::list_problems;
use super::{Part, Springs};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Geometry, Points, Side};
use bold_stance_kinematics::linkage::{Corner, Linkage};
use bold_stance_units::problem::{Problem, parse_json};
use bold_stance_units::said::said;

const SHIPPED: [(&str, &str); 5] = [
    ("wishbone.json", include_str!("../../../../data/parts/wishbone.json")),
    ("strut.json", include_str!("../../../../data/parts/strut.json")),
    ("multilink.json", include_str!("../../../../data/parts/multilink.json")),
    ("live_axle.json", include_str!("../../../../data/parts/live_axle.json")),
    ("any.json", include_str!("../../../../data/parts/any.json")),
];

/// The parts that ship with the program, checked.
///
/// # Errors
/// The first [`Problem`]; its field names the file, the line, the part and the field.
pub fn shipped_parts() -> Result<Vec<Part>, Problem> {
    let mut out = Vec::new();
    for (file, text) in SHIPPED {
        let at = |p: Problem| Problem::new(format!("{file}: {}", p.field), p.wrong, p.right);
        out.extend(parts_from_json(text).map_err(|p| {
            p.into_iter()
                .next()
                .map_or_else(|| Problem::new(file, said("fault-unreadable"), said("fault-list-parts")), at)
        })?);
    }
    match list_problems(&out).into_iter().next() {
        Some(p) => Err(p),
        None => Ok(out),
    }
}

/// Parts out of a JSON list.
///
/// # Errors
/// Every [`Problem`]; fields read `line 12, part "id", field`.
pub fn parts_from_json(text: &str) -> Result<Vec<Part>, Vec<Problem>> {
    let parts: Vec<Part> = parse_json(text.as_bytes()).map_err(|p| {
        // The parser's own line stands in its message; the field is the path.
        let line =
            p.wrong.bare().rsplit_once(" at line ").and_then(|(_, l)| l.split(' ').next()).map(str::to_owned);
        let field = line.map_or_else(|| p.field.clone(), |l| format!("line {l}, {}", p.field));
        vec![Problem::new(field, p.wrong, p.right)]
    })?;
    let problems = list_problems(&parts);
    if problems.is_empty() {
        return Ok(parts);
    }
    Err(problems
        .into_iter()
        .map(|p| {
            let (index, field) = p.field.split_once('.').unwrap_or((p.field.as_str(), ""));
            let part = index.parse::<usize>().ok().and_then(|i| parts.get(i).map(|q| (i, q)));
            match part {
                Some((i, q)) => {
                    let line = line_of(text, i, &q.id, field);
                    Problem::new(format!("line {line}, part \"{}\", {field}", q.id), p.wrong, p.right)
                }
                None => p,
            }
        })
        .collect())
}

/// The line a field of the part at an index stands on; that of its id when the field is not written out.
fn line_of(text: &str, index: usize, id: &str, field: &str) -> usize {
    let quoted = format!("\"{id}\"");
    let starts: Vec<usize> = text
        .lines()
        .enumerate()
        .filter(|(_, l)| l.contains("\"id\"") && l.contains(&quoted))
        .map(|(n, _)| n)
        .collect();
    let ids = text.lines().enumerate().filter(|(_, l)| l.contains("\"id\"")).map(|(n, _)| n);
    let from = ids.clone().nth(index).filter(|n| starts.contains(n)).or(starts.first().copied()).unwrap_or(0);
    let to = ids.clone().find(|n| *n > from).unwrap_or(usize::MAX);
    let leaf = field.split('.').rfind(|f| f.parse::<usize>().is_err()).unwrap_or("id");
    let quoted = format!("\"{leaf}\"");
    let line = text
        .lines()
        .enumerate()
        .skip(from)
        .take_while(|(n, _)| *n < to)
        .find(|(_, l)| l.contains(&quoted))
        .map_or(from, |(n, _)| n);
    line + 1
}

/// Every part of a list that fits an axle, each size a part of its own, links named as the geometry names them.
#[must_use]
pub fn parts_for(parts: &[Part], g: &Geometry) -> Vec<Part> {
    let roles = Roles::of(g);
    parts
        .iter()
        .filter(|p| p.fits.layouts.contains(&g.layout()) && p.fits.axles.contains(&g.axle))
        .filter(|p| p.fits.springs != Some(Springs::Leaf) || g.points.on_leaves())
        .filter_map(|p| roles.resolve(p))
        .flat_map(|p| p.variants())
        .collect()
}

/// Which link of a multi-link axle does what, found by lengthening each.
struct Roles {
    names: Option<Vec<String>>,
    toe: Option<String>,
    camber: Option<String>,
    trailing: Option<String>,
}

impl Roles {
    fn of(g: &Geometry) -> Self {
        let nothing = Self { names: None, toe: None, camber: None, trailing: None };
        match &g.points {
            Points::FiveLink(p) => {
                let names: Vec<String> = p.rods.iter().map(|r| r.name.clone()).collect();
                let c = Corner::of(g, Side::Left);
                let Ok(here) = c.wheel(0.0, 0.0) else { return Self { names: Some(names), ..nothing } };
                type Moves = (usize, f64, f64, f64);
                let effects: Vec<Moves> = names
                    .iter()
                    .enumerate()
                    .filter_map(|(i, name)| {
                        let e = Edit::LengthenLink { name: name.clone(), by_mm: 1.0 };
                        let w = c.edited(&[e]).wheel(0.0, 0.0).ok()?;
                        let d = |a: f64, b: f64| (a - b).abs();
                        Some((
                            i,
                            d(w.camber_deg, here.camber_deg),
                            d(w.toe_deg, here.toe_deg),
                            d(w.wheel_x_mm, here.wheel_x_mm),
                        ))
                    })
                    .collect();
                let by = |f: &dyn Fn(&Moves) -> f64, not: &[Option<usize>]| {
                    effects
                        .iter()
                        .filter(|e| !not.contains(&Some(e.0)))
                        .max_by(|a, b| f(a).total_cmp(&f(b)))
                        .map(|e| e.0)
                };
                let exact = |n: &[&str]| names.iter().position(|x| n.contains(&x.as_str()));
                let toe = exact(&["toe_link", "tie", "toe_arm", "toe"]).or_else(|| by(&|e| e.2 - e.1, &[]));
                // A camber arm sits high: the upper link that tips the wheel most for the toe it costs.
                let high = |i: usize| p.rods[i].outer[2] > g.wheel.center[2];
                let camber = by(&|e| if high(e.0) { e.1 - 0.2 * e.2 } else { 0.1 * e.1 - 1.0 }, &[toe]);
                let trailing = exact(&["trailing", "trailing_link", "trailing_arm"]).or_else(|| {
                    // A link that mostly moves the wheel fore and aft; where there is none, none trails.
                    by(&|e| e.3 - 2.0 * e.1, &[toe, camber])
                        .filter(|i| effects.iter().any(|e| e.0 == *i && e.3 > 0.5))
                });
                let name = |i: Option<usize>| i.map(|i| names[i].clone());
                Self { toe: name(toe), camber: name(camber), trailing: name(trailing), names: Some(names) }
            }
            Points::SolidAxle(p) => {
                let mut names: Vec<String> = p.links.iter().map(|l| l.name.clone()).collect();
                for side in ["_left", "_right"] {
                    let pairs: Vec<String> =
                        names.iter().filter_map(|n| n.strip_suffix(side).map(str::to_owned)).collect();
                    names.extend(pairs);
                }
                names.push("all".into());
                if p.drag_link.is_some() {
                    names.push("drag_link".into());
                }
                Self { names: Some(names), ..nothing }
            }
            _ => nothing,
        }
    }

    /// The part with its links named as in the geometry; `None` when it has no such link.
    fn resolve(&self, p: &Part) -> Option<Part> {
        let mut out = p.clone();
        let Some(names) = &self.names else { return Some(out) };
        for name in out.links_mut() {
            if names.contains(name) {
                continue;
            }
            let role = match name.as_str() {
                "toe_link" => &self.toe,
                "camber_link" => &self.camber,
                "trailing_link" => &self.trailing,
                _ => &None,
            };
            *name = role.clone()?;
        }
        // A live axle without a tie rod has no toe to set.
        Some(out)
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::sample::sample;
    use bold_stance_car::adjuster::{adjusters_not_there, edits_not_there};

    #[test]
    fn at_least_forty_parts_ship_and_every_layout_is_served() {
        let parts = shipped_parts().unwrap();
        assert!(parts.len() >= 40, "{}", parts.len());
        for l in bold_stance_kinematics::geometry::Layout::ALL {
            assert!(parts.iter().any(|p| p.fits.layouts.contains(&l)), "{l:?}");
        }
        // Both angles of every rear layout can be set by something that is not a wheel; a part that needs toe put back
        // finds one.
        for a in bold_stance_car::archetype::shipped_archetypes().unwrap() {
            if a.geometry.axle != bold_stance_kinematics::geometry::Axle::Rear {
                continue;
            }
            let fits = parts_for(&parts, &a.geometry);
            for need in fits.iter().filter(|p| p.requires.iter().any(|r| r == "toe_adjuster")) {
                let given = fits.iter().any(|q| q.provides.iter().any(|x| x == "toe_adjuster"));
                assert!(given, "{} on {} has no toe adjuster to go with", need.id, a.id);
            }
            let turned = fits.iter().filter(|p| !p.adjusters.is_empty() || !p.edits.is_empty());
            assert!(turned.filter(|p| p.group != crate::part::PartGroup::Wheel).count() >= 2, "{}", a.id);
        }
    }

    #[test]
    fn every_shipped_part_leaves_a_linkage_that_closes() {
        for a in bold_stance_car::archetype::shipped_archetypes().unwrap() {
            let fits = parts_for(&shipped_parts().unwrap(), &a.geometry);
            assert!(!fits.is_empty(), "{}", a.id);
            for part in fits {
                let c = Corner::of(&a.geometry, Side::Left).edited(&part.edits);
                for t in [-30.0, 0.0, 30.0] {
                    c.wheel(t, 0.0).unwrap_or_else(|e| panic!("{} on {}: {e}", part.id, a.id));
                }
            }
        }
    }

    #[test]
    fn a_joint_set_rearward_adds_caster() {
        let g = sample();
        let base = Corner::new(&g.points, &g.wheel);
        let arm = Edit::ReshapeArm {
            arm: bold_stance_kinematics::linkage::Arm::Upper,
            longer_mm: 0.0,
            forward_mm: -10.0,
        };
        let c = base.edited(&[arm]);
        let (a, b) = (base.alignment(0.0, 0.0).unwrap(), c.alignment(0.0, 0.0).unwrap());
        // atan(10 / 270 mm joint spacing) = 2.1°, by hand.
        assert!((b.caster_deg - a.caster_deg - 2.1).abs() < 0.1, "{}", b.caster_deg - a.caster_deg);
    }

    #[test]
    fn messages_name_the_line_and_the_field() {
        let text = SHIPPED[0].1;
        let bad = text.replacen("\"labour_minutes\": ", "\"labour_minutes\": -", 1);
        let p = parts_from_json(&bad).unwrap_err().remove(0);
        let line = 1 + text.lines().position(|l| l.contains("labour_minutes")).unwrap();
        assert!(p.field.starts_with(&format!("line {line}, ")), "{}", p.field);
        assert!(p.field.contains("labour_minutes"), "{}", p.field);
        let first = text.lines().position(|l| l.contains("\"cost\"")).unwrap();
        let bad: Vec<String> = text
            .lines()
            .enumerate()
            .map(|(n, l)| if n == first { "    \"cost\": 9e9,".to_owned() } else { l.to_owned() })
            .collect();
        let p = parts_from_json(&bad.join("\n")).unwrap_err().remove(0);
        assert!(p.field.starts_with(&format!("line {}, part \"", first + 1)), "{}", p.field);
        assert!(p.field.ends_with("cost"));
    }

    #[test]
    fn shipped_parts_ask_only_for_what_their_layouts_have() {
        let parts = shipped_parts().unwrap();
        for a in bold_stance_car::archetype::shipped_archetypes().unwrap() {
            for p in parts_for(&parts, &a.geometry) {
                let found = [
                    edits_not_there(&p.edits, &a.geometry.points),
                    adjusters_not_there(&p.adjusters, &a.geometry.points),
                ]
                .concat();
                assert!(found.is_empty(), "{} on {}: {found:?}", p.id, a.id);
            }
        }
    }
}
