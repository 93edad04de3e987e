//! Simulated instruments at a kettle. For practice and demo only.

use std::time::Duration;

use actix_web::{post, web};
use bodega_core::kettle::cooking::cook_down;
use bodega_core::kettle::heat::by_weight;
use bodega_core::kettle::pot::UNDER_LID;
use bodega_devices::{Device, Hand, Reading, SimulatedKettle};
use bodega_model::kettle::contents::Contents;
use bodega_model::kettle::words::{CookWhat, ROOM_C};
use bodega_model::measures::ids::CookId;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::measures::units::{celsius, litres, litres_per_hour};
use bodega_model::records::cook::{Cook, CookEvent};
use bodega_store::StoreError;
use serde::Deserialize;
use uom::si::mass::kilogram;
use uom::si::thermodynamic_temperature::degree_celsius;
use utoipa::ToSchema;

use crate::created::Created;
use crate::json::Json;
use crate::kettle::view::{CookView, view};
use crate::live::Topic;
use crate::problem::{ApiError, Problem};
use crate::state::instruments::Simulation;
use crate::state::{Shared, change, read, run_device};

/// Kitchen minutes between two readings of a simulated device.
pub(crate) const SIMULATED_EVERY: Minutes = Minutes(8);

/// How often the simulated device looks at the clock.
pub(crate) const GLANCE: Duration = Duration::from_millis(500);

/// What hands did at a kettle, for the simulated one to follow.
pub(crate) fn hands(cook: &Cook) -> Vec<(Moment, Hand)> {
    let (mut rate, mut covered) = (cook.litres_per_hour, false);
    let mut seen = Vec::new();
    for event in &cook.log {
        match event.what {
            CookWhat::DrainL | CookWhat::LadleL => {
                seen.push((event.at, Hand::Drained(litres(event.value))));
                continue;
            }
            CookWhat::AddL => {
                let more = Contents::of_volume(litres(event.value), cook.brix);
                seen.push((event.at, Hand::Added(more)));
                continue;
            }
            CookWhat::LidOn | CookWhat::LidOff => covered = event.what == CookWhat::LidOn,
            CookWhat::HeatLow | CookWhat::HeatMedium | CookWhat::HeatHigh => rate = event.value,
            _ => continue,
        }
        let open = if covered { UNDER_LID } else { 1.0 };
        seen.push((event.at, Hand::Rate(by_weight(litres_per_hour(rate)) * open)));
    }
    seen
}

/// One reading of a simulated instrument; `false` when the kettle is off.
pub(crate) fn measure(
    shared: &Shared,
    id: CookId,
    what: CookWhat,
    mut device: SimulatedKettle,
) -> Result<bool, StoreError> {
    let cook = shared.store.cook(id)?;
    device.hands = hands(&cook);
    if cook.ended_at.is_some() {
        return Ok(false);
    }
    let now = shared.clock.now();
    let last = cook.log.iter().rfind(|event| event.what == what).map_or(cook.started_at, |event| event.at);
    if now < last.plus(SIMULATED_EVERY) {
        return Ok(true);
    }
    let value = match device.read(now) {
        Some(Reading::Mass(mass)) => mass.get::<kilogram>(),
        Some(Reading::Temperature(temperature)) => temperature.get::<degree_celsius>(),
        Some(Reading::Brix(brix)) => brix,
        Some(Reading::Ph(_)) | None => return Ok(true),
    };
    let simulated = device.is_simulated();
    shared
        .store
        .add_cook_event(id, &CookEvent { at: now, what, value, simulated, sure: false, booked: false })?;
    shared.live.changed(Topic::Reading);
    Ok(true)
}

/// Which instrument to simulate.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SimulateRequest {
    /// The instrument.
    pub instrument: Simulation,
}

/// Puts a simulated instrument at a kettle; it measures until the kettle is off. For practice and demo only.
#[utoipa::path(params(("id" = i64, Path)), request_body = SimulateRequest,
    responses((status = 201, body = CookView), (status = 404, body = Problem)))]
#[post("/api/cooks/{id}/simulations")]
pub async fn simulate(
    shared: web::Data<Shared>,
    id: web::Path<CookId>,
    Json(request): Json<SimulateRequest>,
) -> Result<Created<CookView>, ApiError> {
    let id = *id;
    let simulation = request.instrument;
    let (cook, kitchen) =
        read(&shared, move |shared| Ok((shared.store.cook(id)?, shared.store.kitchen()?))).await?;
    let altitude = kitchen.altitude();
    let down = cook_down(&cook, altitude);
    if shared.simulated.begin(id, simulation) {
        let device = SimulatedKettle {
            instrument: simulation.instrument(),
            start: down.start,
            since: cook.started_at,
            rate: by_weight(litres_per_hour(cook.litres_per_hour)),
            hands: Vec::new(),
            starts_at: down.starts_at.unwrap_or_else(|| celsius(ROOM_C)),
            boils_at: down.altitude.boiling_point(),
        };
        actix_web::rt::spawn(run_simulation(shared.clone(), id, simulation, device));
    }
    let done = change(&shared, Topic::Reading, move |shared| view(shared, shared.store.cook(id)?));
    let body = done.await?;
    Ok(Created { at: format!("/api/cooks/{}", body.id), body })
}

pub(crate) async fn run_simulation(
    shared: web::Data<Shared>,
    id: CookId,
    simulation: Simulation,
    device: SimulatedKettle,
) {
    let what = simulation.writes();
    run_device(&shared, GLANCE, move |shared| measure(shared, id, what, device.clone())).await;
    shared.simulated.end(id, simulation);
    shared.live.changed(Topic::Reading);
}
