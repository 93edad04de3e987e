//! Records of batches over HTTP: pH readings, and what left a batch beside its jars.

use actix_web::{get, post, web};
use bodega_model::jars::ph::{PhSample, Remedy};
use bodega_model::ledger::food::Food;
use bodega_model::measures::ids::BatchId;
use bodega_model::measures::limits::{CELSIUS, PH};
use bodega_model::plan::making::product_brix;
use bodega_model::records::jar::PhRecord;
use bodega_model::records::moved::Source;
use serde::Deserialize;
use utoipa::ToSchema;

use crate::created::Created;
use crate::food::{FoodMoveRequest, Here};
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::shelf::record_view::{BatchRecord, record};
use crate::state::{Shared, change, read};

/// A batch from the crate to the table.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = BatchRecord), (status = 404, body = Problem)))]
#[get("/api/batches/{id}/record")]
pub async fn get_record(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
) -> Result<web::Json<BatchRecord>, ApiError> {
    Ok(web::Json(read(&shared, move |shared| record(shared, *id)).await?))
}

/// A reading of a pH meter.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PhRequest {
    /// The value, 0 to 14.
    pub ph: f64,
    /// What was read; the dosed product when nobody says.
    pub sample: Option<PhSample>,
    /// What was done about an earlier reading above 4.6; without it that one stands.
    pub did: Option<Remedy>,
    /// Temperature of the sample in degrees Celsius.
    pub sample_c: Option<f64>,
    /// Whether the meter allows for it.
    pub compensated: Option<bool>,
    /// Whether it was calibrated today in buffers 4.01 and 7.00.
    pub calibrated_today: Option<bool>,
}

/// Writes a pH reading down; it never replaces the acid and never shortens the time.
#[utoipa::path(params(("id" = i64, Path)), request_body = PhRequest,
    responses((status = 201, body = BatchRecord), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/batches/{id}/ph")]
pub async fn add_ph(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
    Json(request): Json<PhRequest>,
) -> Result<Created<BatchRecord>, ApiError> {
    let ph = PH.check(request.ph).named("ph")?;
    let sample_c = request.sample_c.map(|celsius| CELSIUS.check(celsius).named("sample_c")).transpose()?;
    let done = change(&shared, Topic::Ph, move |shared| {
        let reading = PhRecord {
            at: shared.clock.now(),
            ph,
            sample: request.sample,
            did: request.did,
            sample_c,
            compensated: request.compensated,
            calibrated_today: request.calibrated_today,
        };
        shared.store.add_ph_reading(*id, &reading)?;
        record(shared, *id)
    });
    let body = done.await?;
    Ok(Created { at: format!("/api/batches/{}/record", body.batch.id), body })
}

/// Writes down what left a batch beside its jars.
#[utoipa::path(params(("id" = i64, Path)), request_body = FoodMoveRequest,
    responses((status = 201, body = BatchRecord), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/batches/{id}/moves")]
pub async fn add_move(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
    Json(request): Json<FoodMoveRequest>,
) -> Result<Created<BatchRecord>, ApiError> {
    let id = *id;
    let batch = read(&shared, move |shared| shared.store.batch(id)).await?;
    let here = Here {
        from: Source::Batch(id),
        food: Food::Product,
        product: Some(batch.product),
        left: None,
        product_brix: product_brix(&batch.making()),
    };
    let new = request.checked(&here)?;
    let done = change(&shared, Topic::Everything, move |shared| {
        shared.store.add_move(&new, shared.clock.now(), shared.clock.today())?;
        record(shared, id)
    });
    let body = done.await?;
    Ok(Created { at: format!("/api/batches/{}/record", body.batch.id), body })
}
