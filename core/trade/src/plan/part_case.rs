//! The `bold-stance.part/1` case of the command line: what one part, or one adjuster at one position, does.

use super::settings_case::{SettingsError, as_geometry};
use crate::part::{Part, parts_for, shipped_parts};
use bold_stance_car::adjuster::{Adjuster, adjuster_problems, adjusters_not_there};
use bold_stance_kinematics::edit::Edit;
use bold_stance_kinematics::geometry::{Axle, Geometry, Side};
use bold_stance_kinematics::linkage::{self, Corner, Linkage};
use bold_stance_units::problem::{Problem, in_range};
use bold_stance_units::said::said;
use serde::{Deserialize, Serialize};

/// The case: a part of the shipped catalogue, or an adjuster with a position.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(deny_unknown_fields)]
pub struct PartCase {
    /// Always `bold-stance.part/1`.
    pub format: String,
    /// The axle.
    pub geometry: Geometry,
    /// Height gained at hub-to-arch, mm; 0 when absent.
    #[serde(default)]
    pub height_change_mm: f64,
    /// Id of a shipped part.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub part: Option<String>,
    /// One of its sizes; of a part that is turned (a cam bolt, a slot, a plate), what it is set to in its own
    /// measure: degrees between knuckle and strut, mm moved.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub size: Option<f64>,
    /// An adjuster instead of a part.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub adjuster: Option<Adjuster>,
    /// Where the adjuster (or the one the part brings) is set: degrees of a cam, turns, mm.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub position: Option<f64>,
    /// Free remark.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub note: Option<String>,
}

/// Changes of the left corner, relative to the chassis; caster and SAI are absent for a wheel that does not steer.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct PartResult {
    /// Top out positive.
    pub camber_deg: f64,
    /// Top rearward positive.
    pub caster_deg: Option<f64>,
    /// Top inboard positive.
    pub sai_deg: Option<f64>,
    /// Toe-in positive; the tie rod keeps its length.
    pub toe_deg: f64,
    /// Contact point outboard.
    pub half_track_mm: f64,
    /// Wheel centre forward.
    pub wheel_x_mm: f64,
    /// The corner with it, as a file of its own.
    pub geometry_after: Geometry,
}

/// What is done before and after, as edits.
struct Change {
    before: Vec<Edit>,
    after: Vec<Edit>,
}

impl PartCase {
    fn problems(&self) -> Vec<Problem> {
        let mut out = Vec::new();
        if self.format != "bold-stance.part/1" {
            out.push(Problem::new(
                "format",
                said("fault-quoted").name("value", self.format.clone()),
                said("fault-bold-stance-part-1"),
            ));
        }
        out.extend(
            linkage::problems(&self.geometry)
                .into_iter()
                .map(|p| Problem::new(format!("geometry.{}", p.field), p.wrong, p.right)),
        );
        out.extend(in_range("height_change_mm", self.height_change_mm, -400.0, 400.0, "mm").err());
        if self.part.is_some() == self.adjuster.is_some() {
            let both = self.part.is_some();
            let wrong = said(if both { "fault-part-and-adjuster" } else { "fault-neither-part" });
            out.push(Problem::new("part", wrong, said("fault-one-two")));
        }
        out
    }

    fn change(&self) -> Result<Change, Problem> {
        if let Some(a) = &self.adjuster {
            let one = std::slice::from_ref(a);
            let wrong = [adjuster_problems(one), adjusters_not_there(one, &self.geometry.points)].concat();
            if let Some(p) = wrong.into_iter().next() {
                return Err(Problem::new(p.field.replacen("adjusters.0", "adjuster", 1), p.wrong, p.right));
            }
            let position = self.position.ok_or_else(|| {
                Problem::new("position", said("nothing-entered"), said("fault-where-adjuster-set"))
            })?;
            within("position", a, position)?;
            return Ok(Change { before: a.edits_at(a.position), after: a.edits_at(position) });
        }
        let id = self.part.as_deref().unwrap_or_default();
        let catalogue = shipped_parts()?;
        let family: Vec<Part> =
            parts_for(&catalogue, &self.geometry).into_iter().filter(|p| p.family() == id).collect();
        let part = self.sized(id, &catalogue, family)?;
        let mut after = part.edits.clone();
        if let [a] = part.adjusters.as_slice() {
            let position = match (self.position, self.size) {
                (Some(p), _) => p,
                (None, Some(amount)) => a.position_of(amount),
                (None, None) => a.position,
            };
            within("position", a, position)?;
            let given = a.amount(position);
            if let (None, Some(amount)) = (self.position, self.size)
                && (given - amount).abs() > 1e-9
            {
                let [low, high] = a.range().map(|p| a.amount(p));
                in_range("size", amount, low.min(high), low.max(high), "in its own measure")?;
            }
            after.extend(a.edits_at(position));
        } else if self.position.is_some() {
            let n = part.adjusters.len();
            return Err(Problem::new(
                "position",
                said("fault-part-brings").count("n", n),
                said("fault-no-position"),
            ));
        }
        Ok(Change { before: Vec::new(), after })
    }

    /// The part in the size asked for.
    fn sized(&self, id: &str, catalogue: &[Part], family: Vec<Part>) -> Result<Part, Problem> {
        let Some(whole) = catalogue.iter().find(|p| p.id == id) else {
            return Err(Problem::new(
                "part",
                said("fault-no-part-id").name("id", id),
                said("fault-id-shipped-part"),
            ));
        };
        let Some(sizes) = &whole.sizes else {
            let turned = whole.adjusters.len() == 1;
            return match family.into_iter().next() {
                Some(_) if self.size.is_some() && !turned => {
                    Err(Problem::new("size", said("fault-this-part-comes-one-size"), said("fault-no-size")))
                }
                Some(p) => Ok(p),
                None => {
                    Err(Problem::new("part", said("fault-not-fit").name("id", id), said("fault-part-fits")))
                }
            };
        };
        if family.is_empty() {
            return Err(Problem::new("part", said("fault-not-fit").name("id", id), said("fault-part-fits")));
        }
        let wanted = self.size.map(|v| format!("{id}@{v}"));
        family.into_iter().find(|p| Some(&p.id) == wanted.as_ref()).ok_or_else(|| {
            let made = |v: f64| said("fault-size-not-made").name("size", v.to_string());
            let wrong = self.size.map_or_else(|| said("nothing-entered"), made);
            Problem::new("size", wrong, said("fault-one-of").name("list", format!("{:?}", sizes.values)))
        })
    }
}

fn within(field: &str, a: &Adjuster, position: f64) -> Result<(), Problem> {
    let [low, high] = a.built_range();
    in_range(field, position, low, high, "as the adjuster is built")
}

/// Answers a case.
///
/// # Errors
/// [`SettingsError::Bad`] names the field; [`SettingsError::NoAnswer`] when the corner cannot be posed.
pub fn run_part(case: &PartCase) -> Result<PartResult, SettingsError> {
    if let Some(p) = case.problems().into_iter().next() {
        return Err(p.into());
    }
    let change = case.change()?;
    let g = &case.geometry;
    let travel = -case.height_change_mm;
    let corner = Corner::of(g, Side::Left);
    let no_answer = |e: bold_stance_kinematics::linkage::Unreachable| SettingsError::NoAnswer(e.to_string());
    let (from, to) = (corner.edited(&change.before), corner.edited(&change.after));
    let (before, after) =
        (from.wheel(travel, 0.0).map_err(no_answer)?, to.wheel(travel, 0.0).map_err(no_answer)?);
    let pose = to.pose(travel, 0.0).map_err(no_answer)?;
    let steers = g.axle == Axle::Front;
    let steer = before.steer.zip(after.steer).filter(|_| steers);
    Ok(PartResult {
        camber_deg: after.camber_deg - before.camber_deg,
        caster_deg: steer.map(|(b, a)| a.caster_deg - b.caster_deg),
        sai_deg: steer.map(|(b, a)| a.sai_deg - b.sai_deg),
        toe_deg: after.toe_deg - before.toe_deg,
        half_track_mm: after.half_track_mm - before.half_track_mm,
        wheel_x_mm: after.wheel_x_mm - before.wheel_x_mm,
        geometry_after: as_geometry(g, &to, &pose, travel),
    })
}
