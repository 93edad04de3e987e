//! Every route of the API on one screen, and its description made of the same list.

use std::collections::{BTreeMap, BTreeSet};
use std::io::Read;
use std::sync::LazyLock;

use actix_web::http::Method;
use actix_web::{HttpRequest, HttpResponse, ResponseError, get, web};
use flate2::read::GzDecoder;
use serde::Deserialize;
use serde::de::IgnoredAny;
use utoipa::OpenApi;

use crate::problem::{ApiError, Problem};
use crate::{
    almanac, answers, assets, bounds, canner, compute, counter, crates, day, health, jars, kettle, kitchen,
    network, plan, recipe, safe, shelf, towel, words,
};

/// Serves and describes the same handlers.
macro_rules! api {
    ($( $($part:ident)::+, )+) => {
        fn services(config: &mut web::ServiceConfig) {
            config $( .service($($part)::+) )+;
        }

        #[derive(OpenApi)]
        #[openapi(
            info(title = "Bodega", description = "The counter of a tomato canning kitchen."),
            paths($( $($part)::+, )+),
            // Words that only questions in an address use.
            components(schemas(
                Problem,
                plan::batches::BatchState,
                bodega_core::shelf::label_sheet::Paper,
                bodega_core::shelf::label_sheet::Shape
            ))
        )]
        struct Description;
    };
}

api! {
    // The first is found first, and no record stands between a question to a calculator and its answer.
    compute::acid::compute_acid,
    compute::day::compute_day,
    compute::process::compute_process,
    compute::canner::compute_canner,
    compute::loads::compute_loads,
    compute::jar::compute_jar,
    compute::audit::compute_audit,
    compute::kettle::compute_kettle,
    compute::recipe::compute_recipe,
    compute::yields::compute_yield,
    health::health,
    counter::routes::get_counter,
    counter::live::live,
    almanac::routes::get_almanac,
    almanac::routes::list_figures,
    kitchen::canners::add_canner,
    kitchen::canners::get_canner,
    kitchen::canners::change_canner,
    kitchen::places::find_towns,
    kitchen::places::near,
    kitchen::places::compute_altitude,
    kitchen::cupboard::get_stock,
    kitchen::cupboard::count_stock,
    kitchen::cupboard::open_bottle,
    kitchen::routes::get_kitchen,
    kitchen::routes::change_kitchen,
    kitchen::containers::list_containers,
    kitchen::containers::get_container,
    kitchen::containers::add_container,
    kitchen::containers::remove_container,
    crates::harvest::export_harvest,
    crates::harvest::import_harvest,
    crates::routes::list_lots,
    crates::routes::get_lot,
    crates::routes::add_lot,
    crates::routes::name_lot,
    crates::routes::change_lot,
    crates::moves::move_lot,
    plan::goals::get_goals,
    plan::goals::set_goals,
    plan::batches::list_batches,
    plan::batches::get_batch,
    plan::batches::change_batch,
    plan::batches::set_additions,
    plan::batches::name_batch,
    plan::batches::like_batch,
    plan::batches::get_checklist,
    plan::batches::tick_checklist,
    plan::split::best_split,
    plan::split::accept_split,
    plan::first::first_answer,
    plan::routes::preview_plan,
    plan::routes::accept_plan,
    plan::compare::compare,
    recipe::routes::list_recipes,
    recipe::routes::read_recipe,
    recipe::routes::get_recipe,
    recipe::routes::add_recipe,
    recipe::routes::set_recipe,
    recipe::routes::change_recipe,
    recipe::routes::scale_recipe,
    recipe::routes::copy_recipe,
    recipe::routes::export_own_recipe,
    recipe::plan::plan_recipe,
    recipe::plan::begin_recipe,
    recipe::cold::begin_cold,
    recipe::history::get_recipe_history,
    recipe::ph_bench::get_ph_bench,
    recipe::ph_bench::add_bench_ph,
    recipe::ph_bench::set_meter,
    recipe::ph_bench::read_meter,
    recipe::ph_bench::change_bench_ph,
    recipe::bowls::list_bowls,
    recipe::bowls::add_bowls,
    recipe::bowls::get_bowls,
    recipe::bowls::change_bowls,
    kettle::routes::list_kettles,
    kettle::routes::get_kettle,
    kettle::routes::add_kettle,
    kettle::routes::calibrate_kettle,
    kettle::routes::list_cooks,
    kettle::routes::get_cook,
    kettle::start::start_cook,
    kettle::events::add_cook_event,
    kettle::events::undo_cook_event,
    kettle::events::stand_by_reading,
    kettle::routes::end_cook,
    kettle::simulated::simulate,
    jars::tick_jar,
    jars::tick_load,
    jars::untick_load,
    jars::set_undosed,
    towel::routes::set_liquid_lost,
    jars::set_claims,
    jars::recount_load,
    jars::set_warmth,
    jars::set_pot_dose,
    canner::grouping::get_grouping,
    canner::grouping::regroup,
    canner::routes::list_loads,
    canner::routes::list_lifted,
    canner::routes::get_load,
    canner::routes::add_event,
    canner::routes::undo_event,
    canner::routes::set_water,
    canner::routes::set_under_jars,
    canner::routes::retime_load,
    canner::routes::set_also,
    canner::routes::move_load,
    canner::routes::add_reading,
    canner::simulated::simulate_canner,
    day::routes::get_day,
    day::routes::slip_block,
    day::routes::mark_block,
    day::routes::export_day,
    towel::routes::list_towel,
    towel::routes::judge_seals,
    towel::routes::tidy_jars,
    towel::routes::rescue_jars,
    towel::routes::list_cold,
    shelf::record::get_record,
    shelf::record::add_ph,
    shelf::record::add_move,
    shelf::cold::list_cold_food,
    shelf::cold::move_cold_food,
    shelf::cold::get_move,
    shelf::cold::undo_move,
    shelf::day_books::get_day_books,
    shelf::routes::list_shelf,
    shelf::routes::leave_shelf,
    shelf::routes::discard_jars,
    shelf::routes::bring_back,
    shelf::routes::get_jar,
    shelf::pantry::get_pantry,
    shelf::pantry::set_pantry_goals,
    shelf::labels::get_labels,
    shelf::labels::get_labels_pdf,
    network::routes::get_network,
    network::routes::make_code,
    network::routes::set_passcode,
    network::routes::let_in,
    network::routes::sign_out,
    safe::exchange::export_all,
    safe::exchange::import_all,
    safe::exchange::export_jars,
    safe::exchange::export_batches,
    safe::exchange::export_calendar,
    safe::exchange::export_recipe,
    safe::backups::list_backups,
    safe::broken::list_broken,
    safe::broken::mend_record,
}

/// The API's description in `openapi.json`, as "cargo xtask types" made it and packed when the program is built: what makes it
/// is a fifth of the code and no part of what runs.
const DESCRIPTION: &[u8] = include_bytes!(concat!(env!("OUT_DIR"), "/openapi.json.gz"));

/// Of a description, the addresses and what stands under each of them.
#[derive(Deserialize)]
struct Addresses {
    paths: BTreeMap<String, BTreeMap<String, IgnoredAny>>,
}

static ADDRESSES: LazyLock<Addresses> = LazyLock::new(|| {
    let text = description().expect("the description was packed as one file");
    serde_json::from_slice(&text).expect("the description was written as JSON")
});

fn description() -> std::io::Result<Vec<u8>> {
    let mut text = Vec::new();
    GzDecoder::new(DESCRIPTION).read_to_end(&mut text)?;
    Ok(text)
}

/// Methods that an address of the API takes, by its description; none when there is no such address.
fn methods_at(path: &str) -> Vec<&'static str> {
    let is_at = |template: &str| {
        let (mut said, mut asked) = (template.split('/'), path.split('/'));
        loop {
            match (said.next(), asked.next()) {
                (None, None) => return true,
                (Some(said), Some(asked)) if said == asked || said.starts_with('{') => {}
                _ => return false,
            }
        }
    };
    let all = &ADDRESSES.paths;
    // An address of its own is none of another's records, whatever that one would take.
    let own = all.get(path);
    let items =
        all.iter().filter(|(template, _)| own.is_none() && is_at(template)).map(|(_, item)| item).chain(own);
    let taken: BTreeSet<&str> = items.flat_map(BTreeMap::keys).map(String::as_str).collect();
    ["DELETE", "GET", "PATCH", "POST", "PUT"]
        .into_iter()
        .filter(|method| taken.contains(method.to_lowercase().as_str()))
        .collect()
}

/// Makes the API's description from the handlers, as JSON.
///
/// # Errors
/// When it cannot be encoded.
pub fn description_json() -> Result<String, serde_json::Error> {
    let mut description = serde_json::to_value(Description::openapi())?;
    bounds::describe(&mut description);
    words::describe(&mut description);
    answers::describe(&mut description);
    // Beside crates that keep the order in which fields were written, it reads the same.
    description.sort_all_objects();
    serde_json::to_string_pretty(&description)
}

#[get("/api/openapi.json")]
async fn describe() -> Result<HttpResponse, ApiError> {
    let text = description().map_err(|error| ApiError::Internal(error.to_string()))?;
    Ok(HttpResponse::Ok().content_type("application/json").body(text))
}

/// Why an address does not answer: it is none, or takes other methods.
fn no_such(request: &HttpRequest) -> ApiError {
    let methods = methods_at(request.match_info().as_str());
    let is_taken = methods.contains(&request.method().as_str());
    if methods.is_empty() || is_taken { ApiError::NoSuchRoute } else { ApiError::NoSuchMethod(methods) }
}

/// What no route takes: an address or a method that the API does not have, else a file of the front end or its page.
async fn otherwise(request: HttpRequest) -> HttpResponse {
    let path = request.match_info().as_str();
    if path == "/api" || path.starts_with("/api/") {
        return no_such(&request).error_response();
    }
    if !matches!(*request.method(), Method::GET | Method::HEAD) {
        return ApiError::NoSuchMethod(vec!["GET", "HEAD"]).error_response();
    }
    assets::serve(&request).unwrap_or_else(|error| error.error_response())
}

/// All routes; what none of them takes is a file of the front end or its page.
pub fn routes(config: &mut web::ServiceConfig) {
    config
        .app_data(web::PathConfig::default().error_handler(|_, request| no_such(request).into()))
        .app_data(
            web::QueryConfig::default().error_handler(|error, _| ApiError::field("query", error).into()),
        )
        .service(describe)
        .configure(services)
        .default_service(web::to(otherwise));
}
