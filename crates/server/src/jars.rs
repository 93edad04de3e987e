//! The bench: acid first, then every step of each jar, and the count as the pot gives it.

use actix_web::{post, put, web};
use bodega_core::jars::bench::JarStep;
use bodega_core::jars::size::JarSize;
use bodega_core::measures::ids::{BatchId, JarId, LoadId};
use bodega_core::measures::limits::{CELSIUS, JAR_COUNT, POT_DOSE};
use bodega_core::records::batch::Batch;
use bodega_core::records::jar::Jar;
use serde::Deserialize;
use utoipa::ToSchema;

use crate::canner::routes::changed;
use crate::canner::view::LoadView;
use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change};

/// A step of one jar, done or taken back.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JarStepRequest {
    /// Which step.
    pub step: JarStep,
    /// Done, or taken back.
    pub done: bool,
}

/// A step of every jar of a load.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LoadStepRequest {
    /// Which step.
    pub step: JarStep,
}

/// Ticks a step of one jar, with those before it but the acid, or takes it back.
#[utoipa::path(params(("id" = i64, Path)), request_body = JarStepRequest,
    responses((status = 200, body = Jar), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[post("/api/jars/{id}/steps")]
pub async fn tick_jar(
    shared: web::Data<Shared>,
    id: web::Path<JarId>,
    Json(request): Json<JarStepRequest>,
) -> Result<web::Json<Jar>, ApiError> {
    let done = change(&shared, move |shared| {
        shared.store.tick_jar(*id, request.step, request.done, shared.clock.now())
    });
    Ok(web::Json(done.await?))
}

/// Ticks a step of every jar of a load that is ready for it.
#[utoipa::path(params(("id" = i64, Path)), request_body = LoadStepRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem)))]
#[post("/api/loads/{id}/steps")]
pub async fn tick_load(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    Json(request): Json<LoadStepRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    changed(&shared, move |shared, now| {
        shared.store.tick_load(*id, request.step, now)?;
        shared.store.load(*id)
    })
    .await
}

/// Jars of one size in a load.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecountRequest {
    /// The batch whose pot gave more or fewer; the load's own when it is not said.
    pub batch: Option<BatchId>,
    /// Size.
    pub jar: JarSize,
    /// How many there really are, 0 to 1,000.
    pub count: u32,
}

/// Recounts the jars of a load on the bench: acid, lids and yield follow.
#[utoipa::path(params(("id" = i64, Path)), request_body = RecountRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/loads/{id}/jars")]
pub async fn recount_load(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    Json(request): Json<RecountRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    JAR_COUNT.check(f64::from(request.count)).named("count")?;
    changed(&shared, move |shared, _| {
        let batch = match request.batch {
            Some(batch) => batch,
            None => shared.store.load(*id)?.batch.id,
        };
        shared.store.recount(*id, batch, request.jar, request.count)?;
        shared.store.load(*id)
    })
    .await
}

/// How warm the empty jars are.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WarmthRequest {
    /// Degrees Celsius, -30 to 200.
    pub jars_c: f64,
}

/// Says how warm the empty jars are, so that cold glass and hot food are warned of.
#[utoipa::path(params(("id" = i64, Path)), request_body = WarmthRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/loads/{id}/warmth")]
pub async fn set_warmth(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    Json(request): Json<WarmthRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    let jars_c = CELSIUS.check(request.jars_c).named("jars_c")?;
    changed(&shared, move |shared, _| shared.store.set_jar_warmth(*id, jars_c)).await
}

/// Acid stirred into the pot.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PotDoseRequest {
    /// Teaspoons, above 0 to 4,000; `null` takes it back.
    pub tsp: Option<f64>,
}

/// Writes down how much acid was stirred into a batch's pot; the bench shows what each jar still lacks.
#[utoipa::path(params(("id" = i64, Path)), request_body = PotDoseRequest,
    responses((status = 200, body = Batch), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/batches/{id}/pot_dose")]
pub async fn set_pot_dose(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
    Json(request): Json<PotDoseRequest>,
) -> Result<web::Json<Batch>, ApiError> {
    let tsp = request.tsp.map(|tsp| POT_DOSE.check(tsp).named("tsp")).transpose()?;
    if tsp.is_some_and(|tsp| tsp <= 0.0) {
        return Err(ApiError::field(
            "tsp",
            "give the teaspoons that were stirred in, or null when none were",
        ));
    }
    Ok(web::Json(change(&shared, move |shared| shared.store.set_pot_dose(*id, tsp)).await?))
}
