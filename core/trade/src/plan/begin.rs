//! What every answer begins with: the document checked, the parts that fit, both sides brought to their readings.

use super::budget::Budget;
use super::input::PlanInput;
use super::suits::has_place;
use super::work::Work;
use crate::part::{Part, parts_for};
use bold_stance_car::adjuster::Adjuster;
use bold_stance_kinematics::geometry::Layout;
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;

/// Checks the document and anchors both sides; the parts of the catalogue that fit come with it. All of it together may
/// cost the budget.
pub(crate) fn begin<'a>(
    input: &'a PlanInput,
    catalogue: &[Part],
    budget: &Budget,
) -> Result<(Work<'a>, Vec<Part>), Vec<Problem>> {
    let mut problems = input.problems();
    if problems.iter().any(|p| p.field.starts_with("geometry")) {
        return Err(problems);
    }
    let mut parts = here(input, catalogue);
    let family = |id: &str| id.split('@').next().unwrap_or(id).to_owned();
    for (i, id) in input.fitted.iter().enumerate() {
        let field = format!("fitted.{i}");
        if parts.iter().any(|p| p.id == *id || p.family() == id) {
            continue;
        }
        problems.push(match catalogue.iter().find(|p| p.id == family(id)) {
            None => Problem::new(
                field,
                said("fault-no-part-id").name("id", id.clone()),
                said("fault-id-part-catalogue"),
            ),
            Some(p)
                if p.fits.layouts.contains(&input.geometry.layout())
                    && p.fits.axles.contains(&input.geometry.axle) =>
            {
                let sizes = p.sizes.as_ref().map(|s| s.values.clone()).unwrap_or_default();
                Problem::new(
                    field,
                    said("fault-not-made-here").name("id", id.clone()),
                    said("fault-sizes").name("list", format!("{sizes:?}")),
                )
            }
            Some(_) => Problem::new(
                field,
                said("fault-other-axle").name("id", id.clone()),
                said("fault-part-for").name("layout", input.geometry.layout().word()),
            ),
        });
    }
    for p in parts.iter().filter(|p| p.only.is_some() && input.fitted.contains(&p.id)) {
        // An arm of a live axle carries both of its wheels.
        let shared = !p.edits.is_empty() || p.adjusters.iter().any(Adjuster::is_shared_on_axle);
        if input.geometry.layout() == Layout::SolidAxle && shared {
            let wrong = said("fault-part-carries-both").name("part", p.name.clone());
            problems.push(Problem::new(format!("only.{}", p.id), wrong, said("fault-part-on-both")));
        }
    }
    if !problems.is_empty() {
        return Err(problems);
    }
    // What the car has no place for and what its class forbids is not offered; fitted all the same it is told of.
    let on = |p: &Part| input.fitted.iter().any(|id| p.id == *id || p.family() == id);
    let forbidden = |p: &Part| input.class_rules.as_ref().is_some_and(|c| c.broken_by(p).is_some());
    parts.retain(|p| on(p) || (has_place(p, input) && !forbidden(p)));
    let work = Work::new(input, budget.clone()).map_err(|p| vec![p])?;
    Ok((work, parts))
}

/// The parts that fit the axle. What goes on one side only is half the parts and half the work (judgement, no source: the
/// catalogue has both for the axle).
fn here(input: &PlanInput, catalogue: &[Part]) -> Vec<Part> {
    let mut parts = parts_for(catalogue, &input.geometry);
    for p in &mut parts {
        if let Some(side) = input.only.get(&p.id) {
            (p.only, p.cost, p.labour_minutes) = (Some(*side), 0.5 * p.cost, p.labour_minutes.div_ceil(2));
        }
    }
    parts
}

/// The fitted parts of a plan, in the size and with the links of this axle.
#[must_use]
pub fn fitted_parts(input: &PlanInput, catalogue: &[Part]) -> Vec<Part> {
    let parts = here(input, catalogue);
    let find = |id: &String| {
        parts.iter().find(|p| p.id == *id).or_else(|| parts.iter().find(|p| p.family() == id)).cloned()
    };
    input.fitted.iter().filter_map(find).collect()
}
