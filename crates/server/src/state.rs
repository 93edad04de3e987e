//! What handlers share: the records, the clock, open screens, simulated devices.

pub mod day_search;
pub mod forecasts;
pub mod instruments;
pub mod last_answer;
pub mod looked_back;
pub mod troubles;

use std::collections::{HashMap, HashSet};
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use actix_web::web;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::ids::{CookId, LoadId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::kitchen::Kitchen;
use bodega_store::{Store, StoreError};
use tokio::sync::oneshot;

use crate::admission::Admission;
use crate::clock::Clock;
use crate::live::{Live, Topic};
use crate::problem::{ApiError, NameField};
use crate::state::day_search::Search;
use crate::state::forecasts::Forecasts;
use crate::state::instruments::Simulation;
use crate::state::looked_back::LookedBack;
use crate::state::troubles::Troubles;
use last_answer::LastAnswer;

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
    /// The pH meter for practice.
    pub simulated_meter: SimulatedMeter,
    /// What is expected of the kettles on the stove.
    pub forecasts: Forecasts,
    /// What finished cook-downs have shown.
    pub looked_back: LookedBack,
    /// The day as it was laid out last.
    pub last_day: LastAnswer,
    /// How long a day is searched for.
    pub search: Search,
    /// What the disk refused.
    pub troubles: Troubles,
    /// The home network.
    pub network: Admission,
}

/// Which records a simulated device stands beside; forgotten when the program ends, as a device would be switched off.
#[derive(Debug, Default)]
pub struct Simulated {
    running: Mutex<HashSet<(CookId, Simulation)>>,
}

impl Simulated {
    fn lock(&self) -> MutexGuard<'_, HashSet<(CookId, Simulation)>> {
        self.running.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Whether one stands there.
    #[must_use]
    pub fn has(&self, id: CookId, which: Simulation) -> bool {
        self.lock().contains(&(id, which))
    }

    /// Puts one there; `false` when there is one already.
    pub fn begin(&self, id: CookId, which: Simulation) -> bool {
        self.lock().insert((id, which))
    }

    /// Takes it away.
    pub fn end(&self, id: CookId, which: Simulation) {
        self.lock().remove(&(id, which));
    }
}

/// Which loads a simulated probe stands in, and when the flame under each went off and on.
#[derive(Debug, Default)]
pub struct SimulatedCanners {
    running: Mutex<HashMap<LoadId, Vec<(Moment, bool)>>>,
}

impl SimulatedCanners {
    fn lock(&self) -> MutexGuard<'_, HashMap<LoadId, Vec<(Moment, bool)>>> {
        self.running.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Whether the flame is on; `None` when no simulated probe stands there.
    #[must_use]
    pub fn flame(&self, load: LoadId) -> Option<bool> {
        self.lock().get(&load).map(|turns| turns.last().is_none_or(|(_, on)| *on))
    }

    /// When the flame was turned.
    #[must_use]
    pub fn turns(&self, load: LoadId) -> Vec<(Moment, bool)> {
        self.lock().get(&load).cloned().unwrap_or_default()
    }

    /// Turns the flame; `true` when the probe was not there yet and now is.
    pub fn turn(&self, load: LoadId, now: Moment, on: bool) -> bool {
        let mut running = self.lock();
        let is_new = !running.contains_key(&load);
        running.entry(load).or_default().push((now, on));
        is_new
    }

    /// Takes the probe away.
    pub fn end(&self, load: LoadId) {
        self.lock().remove(&load);
    }
}

/// When the simulated pH meter was set in its buffers; forgotten when the program ends, as a meter dries out.
#[derive(Debug, Default)]
pub struct SimulatedMeter {
    set: Mutex<(Option<Moment>, Option<Moment>)>,
}

impl SimulatedMeter {
    fn lock(&self) -> MutexGuard<'_, (Option<Moment>, Option<Moment>)> {
        self.set.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// When its zero and its slope were set.
    #[must_use]
    pub fn set(&self) -> (Option<Moment>, Option<Moment>) {
        *self.lock()
    }

    /// Sets its zero, or its slope.
    pub fn set_in(&self, zero: bool, now: Moment) {
        let mut set = self.lock();
        if zero {
            set.0 = Some(now);
        } else {
            set.1 = Some(now);
        }
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
            simulated_meter: SimulatedMeter::default(),
            forecasts: Forecasts::default(),
            looked_back: LookedBack::default(),
            last_day: LastAnswer::default(),
            search: Search::default(),
            troubles: Troubles::default(),
            network: Admission::default(),
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
    answer(shared, |shared| Ok(work(shared)?)).await
}

/// Like [`read`], for work that may refuse in the words of the API.
///
/// # Errors
/// What the work says, or [`ApiError::Internal`] when it panicked.
pub async fn answer<T: Send + 'static>(
    shared: &web::Data<Shared>,
    work: impl FnOnce(&Shared) -> Result<T, ApiError> + Send + 'static,
) -> Result<T, ApiError> {
    let inner = shared.clone();
    let done = off_thread(move || work(&inner)).await?;
    if let Err(ApiError::Store(error)) = &done
        && shared.troubles.met(error)
    {
        shared.live.changed(Topic::Troubles);
    }
    done
}

/// Does work that takes its time on a thread that nobody's request waits on.
///
/// # Errors
/// [`ApiError::Internal`] when that thread fails.
pub async fn off_thread<T: Send + 'static>(work: impl FnOnce() -> T + Send + 'static) -> Result<T, ApiError> {
    let (tell, told) = oneshot::channel();
    // One kind of task for all work: a kind for each would be a twentieth of the program.
    let task: Box<dyn FnOnce() + Send> = Box::new(move || {
        // Who asked may have gone.
        let _ = tell.send(work());
    });
    web::block(task).await.map_err(|error| ApiError::Internal(error.to_string()))?;
    told.await.map_err(|error| ApiError::Internal(error.to_string()))
}

/// Like [`read`], and tells every open screen what changed when it is done.
///
/// # Errors
/// As [`read`].
pub async fn change<T: Send + 'static>(
    shared: &web::Data<Shared>,
    topic: Topic,
    work: impl FnOnce(&Shared) -> Result<T, StoreError> + Send + 'static,
) -> Result<T, ApiError> {
    let done = read(shared, work).await?;
    shared.live.changed(topic);
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
        match off_thread(move || measure(&inner)).await {
            Ok(Ok(true)) => {}
            Ok(Ok(false)) => break,
            failed => {
                tracing::error!(?failed, "a simulated device stops");
                break;
            }
        }
    }
}

/// The kitchen's altitude, without which nothing is timed.
///
/// # Errors
/// [`ApiError::AltitudeMissing`].
pub fn altitude_of(kitchen: &Kitchen) -> Result<Altitude, ApiError> {
    Altitude::from_feet(kitchen.altitude_ft.ok_or(ApiError::AltitudeMissing)?).named("altitude_ft")
}
