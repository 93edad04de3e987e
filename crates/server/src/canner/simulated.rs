//! A simulated probe in a canner. For practice and demo only.

use std::time::Duration;

use actix_web::{put, web};
use bodega_core::canner::heat::{USUAL_EFFICIENCY, heat_to_boil};
use bodega_core::canner::water::{charge, filling, power};
use bodega_devices::{Device, Reading, SimulatedCanner};
use bodega_model::canner::events::Phase;
use bodega_model::measures::ids::LoadId;
use bodega_model::records::load::CannerReading;
use bodega_store::StoreError;
use serde::Deserialize;
use uom::si::thermodynamic_temperature::degree_celsius;
use utoipa::ToSchema;

use crate::canner::routes::changed;
use crate::canner::view::LoadView;
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, altitude_of, read, run_device};

/// The flame under a simulated canner.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FlameRequest {
    /// On, or off so that the boil is lost.
    pub flame: bool,
}

/// Milliseconds of kitchen time between two readings of the simulated probe.
pub(crate) const PROBE_EVERY_MS: i64 = 20_000;

/// How often it looks at the clock.
pub(crate) const GLANCE: Duration = Duration::from_millis(400);

/// Puts a simulated probe into a load's canner, or turns the flame under it off and on. For practice and demo only.
#[utoipa::path(params(("id" = i64, Path)), request_body = FlameRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/loads/{id}/simulation")]
pub async fn simulate_canner(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    Json(request): Json<FlameRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    let id = *id;
    let (load, kitchen) =
        read(&shared, move |shared| Ok((shared.store.load(id)?, shared.store.kitchen()?))).await?;
    let boils_at = altitude_of(&kitchen)?.boiling_point();
    let now = shared.clock.now();
    if shared.simulated_canners.turn(id, now, request.flame) {
        let charge = charge(&load, filling(&load, &kitchen).as_ref());
        let device = SimulatedCanner {
            start: charge.water_at,
            since: load.clock.happened().first().map_or(now, |first| first.at),
            heat: heat_to_boil(&charge, boils_at),
            power: power(&load) * USUAL_EFFICIENCY,
            boils_at,
            flame: Vec::new(),
        };
        actix_web::rt::spawn(run_simulated_canner(shared.clone(), id, device));
    }
    changed(&shared, Topic::Probe, move |shared, _| shared.store.load(id)).await
}

/// One reading of the simulated probe; `false` when its load is out.
pub(crate) fn measure(shared: &Shared, id: LoadId, mut device: SimulatedCanner) -> Result<bool, StoreError> {
    let load = shared.store.load(id)?;
    let now = shared.clock.now();
    if matches!(load.clock.phase(now), Phase::Resting { .. } | Phase::Rested { .. } | Phase::Lifted { .. }) {
        return Ok(false);
    }
    if load.readings.last().is_some_and(|last| now.since_ms(last.at) < PROBE_EVERY_MS) {
        return Ok(true);
    }
    device.flame = shared.simulated_canners.turns(id);
    if let Some(Reading::Temperature(temperature)) = device.read(now) {
        let temp_c = temperature.get::<degree_celsius>();
        shared
            .store
            .add_canner_reading(id, &CannerReading { at: now, temp_c, simulated: device.is_simulated() })?;
        shared.live.changed(Topic::Probe);
    }
    Ok(true)
}

pub(crate) async fn run_simulated_canner(shared: web::Data<Shared>, id: LoadId, device: SimulatedCanner) {
    run_device(&shared, GLANCE, move |shared| measure(shared, id, device.clone())).await;
    shared.simulated_canners.end(id);
    shared.live.changed(Topic::Probe);
}
