//! What handlers share, and every route on one screen.

use std::collections::{HashMap, HashSet};
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use actix_web::{middleware, web};
use bodega_core::altitude::Altitude;
use bodega_core::moment::Moment;
use bodega_store::{Kitchen, Store, StoreError};

use crate::api::cooks::Simulation;
use crate::api::day::LastDay;
use crate::clock::Clock;
use crate::live::{Live, live};
use crate::problem::{ApiError, NameField};
use crate::{api, assets};

/// Shared by all handlers.
pub struct Shared {
    /// The records.
    pub store: Store,
    /// The kitchen's clock.
    pub clock: Clock,
    /// Open screens.
    pub live: Live,
    /// Kettles with a simulated scale under them.
    pub simulated: Simulated,
    /// Canners with a simulated probe in them.
    pub simulated_canners: SimulatedCanners,
    /// The day as it was laid out last.
    pub last_day: LastDay,
}

/// Which records a simulated device stands beside; forgotten when the program ends, as a device would be switched off.
#[derive(Debug, Default)]
pub struct Simulated {
    running: Mutex<HashSet<(i64, Simulation)>>,
}

impl Simulated {
    fn lock(&self) -> MutexGuard<'_, HashSet<(i64, Simulation)>> {
        self.running.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Whether one stands there.
    #[must_use]
    pub fn has(&self, id: i64, which: Simulation) -> bool {
        self.lock().contains(&(id, which))
    }

    /// Puts one there; `false` when there is one already.
    pub fn begin(&self, id: i64, which: Simulation) -> bool {
        self.lock().insert((id, which))
    }

    /// Takes it away.
    pub fn end(&self, id: i64, which: Simulation) {
        self.lock().remove(&(id, which));
    }
}

/// Which loads a simulated probe stands in, and when the flame under each went off and on.
#[derive(Debug, Default)]
pub struct SimulatedCanners {
    running: Mutex<HashMap<i64, Vec<(Moment, bool)>>>,
}

impl SimulatedCanners {
    fn lock(&self) -> MutexGuard<'_, HashMap<i64, Vec<(Moment, bool)>>> {
        self.running.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Whether the flame is on; `None` when no simulated probe stands there.
    #[must_use]
    pub fn flame(&self, load: i64) -> Option<bool> {
        self.lock().get(&load).map(|turns| turns.last().is_none_or(|(_, on)| *on))
    }

    /// When the flame was turned.
    #[must_use]
    pub fn turns(&self, load: i64) -> Vec<(Moment, bool)> {
        self.lock().get(&load).cloned().unwrap_or_default()
    }

    /// Turns the flame; `true` when the probe was not there yet and now is.
    pub fn turn(&self, load: i64, now: Moment, on: bool) -> bool {
        let mut running = self.lock();
        let is_new = !running.contains_key(&load);
        running.entry(load).or_default().push((now, on));
        is_new
    }

    /// Takes the probe away.
    pub fn end(&self, load: i64) {
        self.lock().remove(&load);
    }
}

impl Shared {
    /// Puts the parts together.
    #[must_use]
    pub fn new(store: Store, clock: Clock) -> Self {
        Self {
            store,
            clock,
            live: Live::default(),
            simulated: Simulated::default(),
            simulated_canners: SimulatedCanners::default(),
            last_day: LastDay::default(),
        }
    }
}

/// Runs work on the records off the async threads.
///
/// # Errors
/// What the store says, or [`ApiError::Internal`] when the work panicked.
pub async fn read<T: Send + 'static>(
    shared: &web::Data<Shared>,
    work: impl FnOnce(&Shared) -> Result<T, StoreError> + Send + 'static,
) -> Result<T, ApiError> {
    let shared = shared.clone();
    Ok(off_thread(move || work(&shared)).await??)
}

/// Does work that takes its time on a thread that nobody's request waits on.
///
/// # Errors
/// [`ApiError::Internal`] when that thread fails.
pub async fn off_thread<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> Result<T, ApiError> {
    web::block(work).await.map_err(|error| ApiError::Internal(error.to_string()))
}

/// Like [`read`], and tells every open screen when it is done.
///
/// # Errors
/// As [`read`].
pub async fn change<T: Send + 'static>(
    shared: &web::Data<Shared>,
    work: impl FnOnce(&Shared) -> Result<T, StoreError> + Send + 'static,
) -> Result<T, ApiError> {
    let done = read(shared, work).await?;
    shared.live.changed();
    Ok(done)
}

/// Lets a simulated device measure at every glance, off the async threads, until `measure` says that there is nothing
/// left to measure or it fails.
pub async fn run_device(
    shared: &web::Data<Shared>,
    glance: Duration,
    measure: impl Fn(&Shared) -> Result<bool, StoreError> + Clone + Send + 'static,
) {
    loop {
        actix_web::rt::time::sleep(glance).await;
        let (inner, measure) = (shared.clone(), measure.clone());
        match web::block(move || measure(&inner)).await {
            Ok(Ok(true)) => {}
            Ok(Ok(false)) => break,
            failed => {
                tracing::error!(?failed, "a simulated device stops");
                break;
            }
        }
    }
}

/// The kitchen's altitude, as far as it is known.
#[must_use]
pub fn known_altitude(kitchen: &Kitchen) -> Option<Altitude> {
    kitchen.altitude_ft.and_then(|feet| Altitude::from_feet(feet).ok())
}

/// The kitchen's altitude, without which nothing is timed.
///
/// # Errors
/// [`ApiError::AltitudeMissing`].
pub fn altitude_of(kitchen: &Kitchen) -> Result<Altitude, ApiError> {
    Altitude::from_feet(kitchen.altitude_ft.ok_or(ApiError::AltitudeMissing)?).named("altitude_ft")
}

/// All routes.
pub fn routes(config: &mut web::ServiceConfig) {
    config
        .app_data(
            web::QueryConfig::default().error_handler(|error, _| ApiError::field("query", error).into()),
        )
        .service(api::health::health)
        .service(api::describe)
        .service(live)
        .service(api::counter::get_counter)
        .service(api::almanac::get_almanac)
        .service(api::places::find_towns)
        .service(api::places::near)
        .service(api::places::compute_altitude)
        .service(api::kitchen::get_kitchen)
        .service(api::kitchen::change_kitchen)
        .service(api::kitchen::list_containers)
        .service(api::kitchen::add_container)
        .service(api::kitchen::remove_container)
        .service(api::lots::list_lots)
        .service(api::lots::add_lot)
        .service(api::lots::change_lot)
        .service(api::harvest::export_harvest)
        .service(api::harvest::import_harvest)
        .service(api::stock::get_stock)
        .service(api::stock::count_stock)
        .service(api::stock::open_bottle)
        .service(api::stock::get_goals)
        .service(api::stock::set_goals)
        .service(api::split::compare)
        .service(api::split::best_split)
        .service(api::split::accept_split)
        .service(api::plan::preview_plan)
        .service(api::plan::accept_plan)
        .service(api::batches::list_batches)
        .service(api::batches::change_batch)
        .service(api::batches::get_checklist)
        .service(api::cooks::list_kettles)
        .service(api::cooks::add_kettle)
        .service(api::cooks::list_cooks)
        .service(api::cooks::start_cook)
        .service(api::cooks::add_cook_event)
        .service(api::cooks::undo_cook_event)
        .service(api::cooks::end_cook)
        .service(api::cooks::calibrate_kettle)
        .service(api::cooks::simulate)
        .service(api::canners::add_canner)
        .service(api::canners::change_canner)
        .service(api::bench::tick_jar)
        .service(api::bench::tick_load)
        .service(api::bench::recount_load)
        .service(api::bench::set_warmth)
        .service(api::bench::set_pot_dose)
        .service(api::loads::list_loads)
        .service(api::loads::list_lifted)
        .service(api::loads::get_grouping)
        .service(api::loads::regroup)
        .service(api::loads::add_event)
        .service(api::loads::undo_event)
        .service(api::loads::retime_load)
        .service(api::loads::move_load)
        .service(api::loads::add_reading)
        .service(api::loads::simulate_canner)
        .service(api::day::get_day)
        .service(api::day::slip_block)
        .service(api::day::mark_block)
        .service(api::day::export_day)
        .service(api::compute::day::compute_day)
        .service(api::towel::list_towel)
        .service(api::towel::judge_seals)
        .service(api::towel::tidy_jars)
        .service(api::towel::rescue_jar)
        .service(api::towel::list_cold)
        .service(api::shelf::list_shelf)
        .service(api::shelf::leave_shelf)
        .service(api::shelf::bring_back)
        .service(api::shelf::get_jar)
        .service(api::shelf::get_pantry)
        .service(api::shelf::set_pantry_goals)
        .service(api::record::get_record)
        .service(api::record::list_all_batches)
        .service(api::record::add_ph)
        .service(api::labels::get_labels)
        .service(api::labels::get_labels_pdf)
        .service(api::exchange::export_all)
        .service(api::exchange::import_all)
        .service(api::exchange::export_jars)
        .service(api::exchange::export_batches)
        .service(api::exchange::export_calendar)
        .service(api::exchange::export_recipe)
        .service(api::backups::list_backups)
        .service(api::compute::audit::compute_audit)
        .service(api::compute::canner::compute_canner)
        .service(api::compute::kettle::compute_kettle)
        .service(api::compute::process::compute_process)
        .service(api::compute::acid::compute_acid)
        .service(api::compute::yields::compute_yield)
        .service(api::compute::loads::compute_loads)
        .default_service(web::route().to(assets::serve).wrap(middleware::Compress::default()));
}
