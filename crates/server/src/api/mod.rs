//! The HTTP API: one file per resource, its types beside its handlers.

pub mod almanac;
pub mod backups;
pub mod batches;
pub mod bench;
pub mod canners;
pub mod compute;
pub mod cooks;
pub mod counter;
pub mod day;
pub mod exchange;
pub mod harvest;
pub mod health;
pub mod kitchen;
pub mod labels;
pub mod loads;
pub mod lots;
pub mod places;
pub mod plan;
pub mod record;
pub mod shelf;
pub mod split;
pub mod stock;
pub mod towel;

use actix_web::{HttpResponse, get};
use utoipa::OpenApi;

use crate::problem::{ApiError, Problem};

#[derive(OpenApi)]
#[openapi(
    info(title = "Bodega", description = "The counter of a tomato canning kitchen."),
    paths(
        health::health,
        crate::live::live,
        counter::get_counter,
        almanac::get_almanac,
        places::find_towns,
        places::near,
        places::compute_altitude,
        kitchen::get_kitchen,
        kitchen::change_kitchen,
        kitchen::list_containers,
        kitchen::add_container,
        kitchen::remove_container,
        lots::list_lots,
        lots::add_lot,
        lots::change_lot,
        harvest::export_harvest,
        harvest::import_harvest,
        stock::get_stock,
        stock::count_stock,
        stock::open_bottle,
        stock::get_goals,
        stock::set_goals,
        split::compare,
        split::best_split,
        split::accept_split,
        plan::preview_plan,
        plan::accept_plan,
        batches::list_batches,
        batches::change_batch,
        batches::get_checklist,
        cooks::list_kettles,
        cooks::add_kettle,
        cooks::list_cooks,
        cooks::start_cook,
        cooks::add_cook_event,
        cooks::undo_cook_event,
        cooks::end_cook,
        cooks::calibrate_kettle,
        cooks::simulate,
        canners::add_canner,
        canners::change_canner,
        bench::tick_jar,
        bench::tick_load,
        bench::recount_load,
        bench::set_warmth,
        bench::set_pot_dose,
        loads::list_loads,
        loads::list_lifted,
        loads::get_grouping,
        loads::regroup,
        loads::add_event,
        loads::undo_event,
        loads::retime_load,
        loads::move_load,
        loads::add_reading,
        loads::simulate_canner,
        day::get_day,
        day::slip_block,
        day::mark_block,
        day::export_day,
        compute::day::compute_day,
        towel::list_towel,
        towel::judge_seals,
        towel::tidy_jars,
        towel::rescue_jar,
        towel::list_cold,
        shelf::list_shelf,
        shelf::leave_shelf,
        shelf::bring_back,
        shelf::get_jar,
        shelf::get_pantry,
        shelf::set_pantry_goals,
        record::get_record,
        record::list_all_batches,
        record::add_ph,
        labels::get_labels,
        labels::get_labels_pdf,
        exchange::export_all,
        exchange::import_all,
        exchange::export_jars,
        exchange::export_batches,
        exchange::export_calendar,
        exchange::export_recipe,
        backups::list_backups,
        compute::audit::compute_audit,
        compute::canner::compute_canner,
        compute::kettle::compute_kettle,
        compute::process::compute_process,
        compute::acid::compute_acid,
        compute::yields::compute_yield,
        compute::loads::compute_loads,
    ),
    // Paper and Shape are words that only questions in an address use.
    components(schemas(Problem, bodega_core::label_sheet::Paper, bodega_core::label_sheet::Shape))
)]
struct Description;

/// The API's description as JSON.
///
/// # Errors
/// When it cannot be encoded.
pub fn description_json() -> Result<String, serde_json::Error> {
    Description::openapi().to_pretty_json()
}

#[get("/api/openapi.json")]
pub async fn describe() -> Result<HttpResponse, ApiError> {
    let text = description_json().map_err(|error| ApiError::Internal(error.to_string()))?;
    Ok(HttpResponse::Ok().content_type("application/json").body(text))
}
