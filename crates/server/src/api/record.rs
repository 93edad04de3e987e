//! The record of a batch: fruit to shelf on one page.

use actix_web::{get, post, web};
use bodega_core::findings::case::{Case, PhReading};
use bodega_core::findings::{Code, Finding, judge};
use bodega_core::limits::{CELSIUS, PH};
use bodega_core::units::Temperature;
use bodega_store::{Batch, JarRecord, Lot, PhRecord, StoreError};
use serde::{Deserialize, Serialize};
use uom::si::thermodynamic_temperature::degree_celsius;
use utoipa::ToSchema;

use crate::api::loads::LoadView;
use crate::app::{Shared, change, read};
use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};

/// Fruit of a batch.
#[derive(Debug, Serialize, ToSchema)]
pub struct Drawn {
    /// The lot.
    pub lot: Lot,
    /// Grams of it.
    pub weight_g: i64,
}

/// A pH reading and what the judge has to say of it.
#[derive(Debug, Serialize, ToSchema)]
pub struct PhView {
    /// The reading.
    #[serde(flatten)]
    pub reading: PhRecord,
    /// Findings; a reading can only add caution.
    pub findings: Vec<Finding>,
}

/// A batch from the crate to the table.
#[derive(Debug, Serialize, ToSchema)]
pub struct BatchRecord {
    /// The batch.
    pub batch: Batch,
    /// The household.
    pub household: String,
    /// Its fruit.
    pub fruit: Vec<Drawn>,
    /// Every load its jars went through, oldest first.
    pub loads: Vec<LoadView>,
    /// Its jars.
    pub jars: Vec<JarRecord>,
    /// pH readings.
    pub ph: Vec<PhView>,
}

/// What the judge says of a reading by itself.
const OF_PH: [Code; 3] = [Code::PhHigh, Code::PhUncalibrated, Code::PhUncompensated];

fn ph_view(reading: PhRecord) -> PhView {
    let case = Case {
        ph: Some(PhReading {
            value: reading.ph,
            temperature: reading.sample_c.map(Temperature::new::<degree_celsius>),
            compensated: reading.compensated,
            calibrated_today: reading.calibrated_today,
        }),
        ..Case::default()
    };
    // The rest of the case was not asked about here.
    let mut findings = judge(&case).findings;
    findings.retain(|finding| OF_PH.contains(&finding.code));
    PhView { reading, findings }
}

/// Puts a batch's record together.
pub(crate) fn record(shared: &Shared, id: i64) -> Result<BatchRecord, StoreError> {
    let store = &shared.store;
    let (kitchen, now) = (store.kitchen()?, shared.clock.now());
    let jars = store.batch_jars(id)?;
    let mut loads: Vec<i64> =
        jars.iter().flat_map(|jar| jar.earlier_loads.iter().copied().chain([jar.load])).collect();
    loads.sort_unstable();
    loads.dedup();
    let loads = loads
        .into_iter()
        .map(|load| LoadView::new(shared, store.load(load)?, &kitchen, now))
        .collect::<Result<_, StoreError>>()?;
    Ok(BatchRecord {
        batch: store.batch(id)?,
        household: kitchen.name,
        fruit: store.batch_lots(id)?.into_iter().map(|(lot, weight_g)| Drawn { lot, weight_g }).collect(),
        loads,
        jars,
        ph: store.ph_readings(id)?.into_iter().map(ph_view).collect(),
    })
}

/// A batch from the crate to the table.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = BatchRecord), (status = 404, body = Problem)))]
#[get("/api/batches/{id}/record")]
pub async fn get_record(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
) -> Result<web::Json<BatchRecord>, ApiError> {
    Ok(web::Json(read(&shared, move |shared| record(shared, *id)).await?))
}

/// Every batch, newest first.
#[utoipa::path(responses((status = 200, body = Vec<Batch>)))]
#[get("/api/batches/all")]
pub async fn list_all_batches(shared: web::Data<Shared>) -> Result<web::Json<Vec<Batch>>, ApiError> {
    Ok(web::Json(read(&shared, |shared| shared.store.all_batches()).await?))
}

/// A reading of a pH meter.
#[derive(Debug, Deserialize, ToSchema)]
pub struct PhRequest {
    /// The value, 0 to 14.
    pub ph: f64,
    /// Temperature of the sample in degrees Celsius.
    pub sample_c: Option<f64>,
    /// Whether the meter allows for it.
    pub compensated: Option<bool>,
    /// Whether it was calibrated today in buffers 4.01 and 7.00.
    pub calibrated_today: Option<bool>,
}

/// Writes a pH reading down; it never replaces the acid and never shortens the time.
#[utoipa::path(params(("id" = i64, Path)), request_body = PhRequest,
    responses((status = 200, body = BatchRecord), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/batches/{id}/ph")]
pub async fn add_ph(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<PhRequest>,
) -> Result<web::Json<BatchRecord>, ApiError> {
    let ph = PH.check(request.ph).named("ph")?;
    let sample_c = request.sample_c.map(|celsius| CELSIUS.check(celsius).named("sample_c")).transpose()?;
    let done = change(&shared, move |shared| {
        let reading = PhRecord {
            at: shared.clock.now(),
            ph,
            sample_c,
            compensated: request.compensated,
            calibrated_today: request.calibrated_today,
        };
        shared.store.add_ph_reading(*id, &reading)?;
        record(shared, *id)
    });
    Ok(web::Json(done.await?))
}
