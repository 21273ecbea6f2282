//! The answer for a car: each axle's, one verdict, one list of orders.

use super::input::CarInput;
use super::orders::{Order, orders};
use super::stance::CarStance;
use super::verdict::{CarVerdict, verdict};
use crate::part::Part;
use crate::plan::answer::plan_within;
use crate::plan::begin::fitted_parts;
use crate::plan::budget::Budget;
use crate::plan::result::PlanResult;
use bold_stance_car::vehicle::Axles;
use bold_stance_kinematics::geometry::Axle;
use bold_stance_units::problem::Problem;
use serde::{Deserialize, Serialize};

/// What a plan of a car comes to.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "openapi", derive(utoipa::ToSchema))]
pub struct CarAnswer {
    /// Version of the computation, for snapshots.
    pub core_version: String,
    /// Each axle; none where it was not read or cannot be worked out.
    pub axles: Axles<Option<PlanResult>>,
    /// Why an axle that was read cannot be worked out, by field.
    pub refused: Axles<Vec<Problem>>,
    /// How the car stands as found.
    pub found: CarStance,
    /// How it stands as planned; an axle that stops short stands where it stops.
    pub stands: CarStance,
    /// The car in one verdict.
    pub verdict: CarVerdict,
    /// Everything to turn, in order.
    pub orders: Vec<Order>,
}

/// Works a car out. `catalogue` are the parts to choose from, as written.
///
/// # Errors
/// Every [`Problem`] of the document; where no axle can be worked out, those of the axles.
pub fn plan_car(input: &CarInput, catalogue: &[Part]) -> Result<CarAnswer, Vec<Problem>> {
    plan_car_within(input, catalogue, &Budget::default())
}

/// The same within a budget that somebody else can end. Each axle may take as much.
///
/// # Errors
/// As of [`plan_car`].
pub fn plan_car_within(
    input: &CarInput,
    catalogue: &[Part],
    budget: &Budget,
) -> Result<CarAnswer, Vec<Problem>> {
    let mut said = input.problems();
    let one = |axle: Axle| {
        input.axle(axle).map(|i| {
            let at_home = |p| CarInput::at_home(axle, p);
            plan_within(&i, catalogue, &budget.another())
                .map_err(|list| list.into_iter().map(at_home).collect::<Vec<_>>())
        })
    };
    let (front, rear) = rayon::join(|| one(Axle::Front), || one(Axle::Rear));
    let mut refused = Axles::<Vec<Problem>>::default();
    let mut split = |axle: Axle, r: Option<Result<PlanResult, Vec<Problem>>>| match r? {
        Ok(r) => Some(r),
        Err(list) => {
            refused[axle] = list;
            None
        }
    };
    let axles = Axles { front: split(Axle::Front, front), rear: split(Axle::Rear, rear) };
    // One axle that cannot be worked out is told beside the other; a document that is wrong is refused.
    if !said.is_empty() || (axles.front.is_none() && axles.rear.is_none()) {
        for p in refused.front.into_iter().chain(refused.rear) {
            if !said.iter().any(|q| q.field == p.field) {
                said.push(p);
            }
        }
        return Err(said);
    }
    let gained = |a: Axle| {
        let stop = axles[a].as_ref().and_then(|r| r.stop.as_ref());
        stop.map_or(input.plan.axles[a].height_change_mm, |s| s.used_mm)
    };
    let told = Axles::of(|a| input.base.axles[a].is_some());
    Ok(CarAnswer {
        core_version: env!("CARGO_PKG_VERSION").into(),
        found: input.found(),
        stands: input.stands_at(Axles::of(gained)),
        verdict: verdict(input, &axles, told),
        orders: orders(&axles),
        axles,
        refused,
    })
}

/// The fitted parts of each axle, in the size and with the links they have there.
#[must_use]
pub fn car_fitted_parts(input: &CarInput, catalogue: &[Part]) -> Axles<Vec<Part>> {
    Axles::of(|a| input.axle(a).map(|i| fitted_parts(&i, catalogue)).unwrap_or_default())
}
