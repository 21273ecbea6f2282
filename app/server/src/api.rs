//! The OpenAPI description, from which the front end's client is generated.

use crate::described::Common;
use crate::{problem, routes};
use bold_stance_trade::plan::{AxleBase, AxlePlan, Picked, PlanResult, SideReadings, Standing};
use bold_stance_trade::sheet::GateSide;
use bold_stance_units::problem::Problem;
use utoipa::OpenApi;

#[derive(OpenApi)]
#[openapi(
    info(
        title = "Bold Stance",
        description = "Plan ride height, caster and camber; select parts; predict alignment and tyre wear."
    ),
    paths(
        routes::health,
        routes::door::who_is_there,
        routes::door::by_pin,
        routes::door::by_passphrase,
        routes::door::leave_bench,
        routes::door::pick_member,
        routes::first_run::claim_shop,
        routes::first_run::by_slip,
        routes::door::own_pin,
        routes::door::own_units,
        routes::devices::make_code,
        routes::devices::by_code,
        routes::devices::here,
        routes::devices::remove,
        routes::devices::sheet_code,
        routes::people::list,
        routes::people::add,
        routes::people::save,
        routes::people::set_pin,
        routes::people::set_passphrase,
        routes::people::end_sessions,
        routes::people::sessions,
        routes::people::end_session,
        routes::people::save_trust,
        routes::records::list,
        routes::records::csv,
        routes::records::erase_personal,
        routes::customers::tickets,
        routes::customers::file,
        routes::customers::erase,
        routes::events::follow,
        routes::shop::info,
        routes::shop::save_settings,
        routes::jobs::list,
        routes::jobs::create,
        routes::bundles::import,
        routes::bundles::export,
        routes::jobs::get,
        routes::jobs::save_vehicle,
        routes::notes::save_ticket,
        routes::notes::add,
        routes::notes::strike,
        routes::notes::picture,
        routes::readings::add,
        routes::readings::preview,
        routes::readings::form,
        routes::readings::methods,
        routes::visits::open,
        routes::gauge::info,
        routes::gauge::stream,
        routes::gauge::tell,
        routes::visits::save,
        routes::visits::put_right,
        routes::visits::export,
        routes::visits::export_xlsx,
        routes::visits::import,
        routes::plans::create,
        routes::plans::save,
        routes::plans_table::csv,
        routes::plans_table::xlsx,
        routes::plans_table::import,
        routes::plans::copy,
        routes::plans::remove,
        routes::plans::choose,
        routes::plans::mark,
        routes::plans::turned,
        routes::plans::jacked,
        routes::aftercare::do_after,
        routes::memory::memory,
        routes::handover::handover,
        routes::parts::list,
        routes::parts::keep,
        routes::parts::look,
        routes::parts::made,
        routes::parts::csv,
        routes::parts::xlsx,
        routes::orders::list,
        routes::orders::csv,
        routes::orders::xlsx,
        routes::desk::away,
        routes::desk::same_car_again,
        routes::desk::story,
        routes::booked::book,
        routes::desk::jobs_table,
        routes::desk::jobs_workbook,
        routes::parts::json,
        routes::parts::import,
        routes::aims::list,
        routes::aims::window,
        routes::aims::keep,
        routes::aims::remove,
        routes::search::plans,
        routes::search::whole_car,
        routes::search::height_ladders,
        routes::search::height_target,
        routes::compute::predict,
        routes::compute::geometry,
        routes::wear::forecast,
        routes::jig::turn,
        routes::wear::patches,
        routes::wear::data,
        routes::wear::diagnosis,
        routes::wear::tread_log,
        routes::wear::write,
        routes::wear::strike,
        routes::wear::export,
        routes::wear::export_xlsx,
        routes::wear::import,
        routes::plans::sheet,
        routes::offers::offer,
        routes::offers::take,
        routes::offers::lenders,
        routes::offers::put_out,
        routes::shapes::look,
        routes::shapes::keep,
        routes::shapes::remove,
        routes::car::archetypes,
        routes::car::fit,
        routes::car::what_turns,
        routes::car::inspection,
        routes::car::drawing,
        routes::car::file
    ),
    components(schemas(
        problem::ProblemDocument,
        // What stands only inside a pair of axles or sides is written out there: it has a name all the same.
        AxlePlan,
        AxleBase,
        PlanResult,
        SideReadings,
        Picked,
        GateSide,
        Problem,
        Standing
    )),
    modifiers(&Common)
)]
struct Api;

/// The description.
#[must_use]
pub fn description() -> utoipa::openapi::OpenApi {
    Api::openapi()
}

/// The description as JSON.
#[must_use]
pub fn openapi_json() -> String {
    description().to_pretty_json().unwrap_or_default()
}
