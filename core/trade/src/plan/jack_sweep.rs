//! A plan's points brought to readings at several heights, and what those left to doubt.

use super::input::PlanInput;
use super::swept::Swept;
use bold_stance_car::fit::{FitCase, FitError, fit};
use bold_stance_units::problem::Problem;
use bold_stance_units::said::said;
use std::borrow::Cow;

/// The document with its points as the sweep says. A sweep that does not go with the points moves nothing and is told of.
///
/// # Errors
/// The [`Problem`] of the sweep, under `jack_sweep`.
pub(crate) fn fitted_to_sweep(input: &PlanInput) -> Result<Cow<'_, PlanInput>, Problem> {
    if input.jack_sweep.is_empty() || input.swept.is_some() {
        return Ok(Cow::Borrowed(input));
    }
    let case = FitCase {
        format: "bold-stance.fit/1".into(),
        geometry: input.geometry.clone(),
        knowledge: input.knowledge,
        readings: input.jack_sweep.clone(),
        predict_at_mm: Vec::new(),
        note: None,
    };
    let found = fit(&case).map_err(|e| match e {
        FitError::Bad(p) => Problem { field: p.field.replacen("readings", "jack_sweep", 1), ..p },
        FitError::NoAnswer(why) => {
            Problem::new("jack_sweep", why, said("fault-heights-at-which-axle-closes"))
        }
    })?;
    let said = found.result;
    let mut out = input.clone();
    let notes = said.notes.into_iter().chain(said.questions).collect();
    let spreads = said.whole.fits.then_some(found.spreads);
    if spreads.is_some() {
        out.geometry.points = said.geometry.points;
    }
    out.swept = Some(Swept { spreads, notes });
    Ok(Cow::Owned(out))
}
