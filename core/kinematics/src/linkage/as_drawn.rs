//! A drawn position must be the solved one: at travel 0 and rack 0 a corner answers the wheel its file draws.
//! Where the drawing stands at a dead point, or on a branch the solver cannot know, the file is refused there.

use super::{Corner, Linkage, Loop, Unreachable};
use crate::geometry::{Geometry, Side};
use crate::wheel::spin_axis;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// Most by which the solved wheel may differ from the drawn one: mm of its centre, and of a unit spin axis.
const SAME: f64 = 1e-6;

/// Everything wrong with a geometry: what can be seen without moving it, then what the drawn position itself does
/// not answer. Empty when it is usable.
#[must_use]
pub fn problems(g: &Geometry) -> Vec<Problem> {
    let out = g.problems();
    if !out.is_empty() {
        return out;
    }
    let sides: &[(Side, &str)] =
        if g.right.is_some() { &[(Side::Left, ""), (Side::Right, "right.")] } else { &[(Side::Left, "")] };
    sides.iter().filter_map(|(s, at)| side_problem(g, *s, at)).collect()
}

/// Reads a geometry file and refuses it where it cannot be used.
///
/// # Errors
/// The first [`Problem`], with the path of the field.
pub fn read_geometry(text: &[u8]) -> Result<Geometry, Problem> {
    let g = Geometry::from_json(text)?;
    match problems(&g).into_iter().next() {
        Some(p) => Err(p),
        None => Ok(g),
    }
}

fn side_problem(g: &Geometry, side: Side, at: &str) -> Option<Problem> {
    let (points, wheel) = g.side(side);
    let (blocked, link) = match Corner::of(g, side).pose(0.0, 0.0) {
        Err(Unreachable { blocked, link, .. }) => (blocked, link),
        Ok(p) => {
            let centre = (p.centre - crate::Vec3::from(wheel.center)).norm();
            let spin = spin_axis(wheel.camber_deg.to_radians(), wheel.toe_deg.to_radians());
            if centre <= SAME && (p.spin - spin).norm() <= SAME {
                return None;
            }
            (Loop::DeadPoint, None)
        }
    };
    Some(Problem::new(
        format!(
            "{at}{}",
            link.map_or_else(|| points.likeliest(blocked).to_owned(), |l| format!("links.{l}"))
        ),
        said("fault-dead-point").word("what", blocked.word()),
        said("fault-points-few-millimetres-away-from"),
    ))
}
