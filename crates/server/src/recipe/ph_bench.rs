//! The pH bench over HTTP: readings of parts and of a mix, and a simulated meter to practise with.

use actix_web::{HttpResponse, get, patch, post, put, web};
use bodega_core::judge::ph_bench::findings_of;
use bodega_core::judge::ph_bench::{WaterBath, may_water_bath};
use bodega_core::judge::recipe_page::may_can;
use bodega_devices::{Device, Reading, SimulatedPhMeter};
use bodega_model::judge::finding::Finding;
use bodega_model::measures::ids::{BenchPhId, BowlsId};
use bodega_model::measures::limits::{CELSIUS, PH};
use bodega_model::measures::moment::Moment;
use bodega_model::measures::names::clean_name;
use bodega_model::measures::units::celsius;
use bodega_model::recipe::part::Role;
use bodega_model::recipe::weights;
use bodega_model::records::recipe::BenchPh;
use bodega_store::StoreError;
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

use crate::clock::day_of;
use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change, read};

/// A reading with what is to be said of it.
#[derive(Debug, Serialize, ToSchema)]
pub struct BenchPhView {
    /// The reading.
    #[serde(flatten)]
    pub reading: BenchPh,
    /// Findings; a reading can only add caution.
    pub findings: Vec<Finding>,
}

/// A meter for practice.
#[derive(Debug, Serialize, ToSchema)]
pub struct MeterView {
    /// What it is: simulated.
    pub name: String,
    /// When it was last set in the buffer of 7.00; `null` when never.
    pub zero_set: Option<Moment>,
    /// When it was last set in the buffer of 4.01; `null` when never.
    pub slope_set: Option<Moment>,
    /// Whether it was set in both today.
    pub calibrated_today: bool,
}

/// The bench.
#[derive(Debug, Serialize, ToSchema)]
pub struct PhBenchView {
    /// The last hundred readings, newest first. A mix is measured, never worked out from its parts.
    pub readings: Vec<BenchPhView>,
    /// Whether it may go into the water bath: by rule and recipe, never by the meter.
    pub may_water_bath: WaterBath,
    /// The simulated meter.
    pub meter: MeterView,
}

/// Which bowls are on the bench.
#[derive(Debug, Clone, Copy, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct PhBenchQuery {
    /// The bowls of a recipe; everything that was read when it is left out.
    pub bowls: Option<BowlsId>,
}

/// A reading of a pH meter at the bench.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BenchPhRequest {
    /// The bowls it was read of, if any.
    pub bowls: Option<BowlsId>,
    /// The part, 1 to 80 letters; `null` for the mix.
    pub part: Option<String>,
    /// The value, 0 to 14.
    pub ph: f64,
    /// Temperature of the sample in degrees Celsius, -30 to 200.
    pub sample_c: Option<f64>,
    /// Whether the meter allows for it.
    pub compensated: Option<bool>,
    /// Whether it was calibrated today in buffers 4.01 and 7.00.
    pub calibrated_today: Option<bool>,
    /// Whether the sample was drained of its juice.
    pub drained: Option<bool>,
}

/// A sample for the simulated meter.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SampleRequest {
    /// The bowls it is taken from, if any.
    pub bowls: Option<BowlsId>,
    /// The part, 1 to 80 letters; `null` for the mix.
    pub part: Option<String>,
    /// Temperature of the sample in degrees Celsius, -30 to 200; room temperature when it is left out.
    pub sample_c: Option<f64>,
}

/// A buffer that a meter is set in.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, ToSchema)]
pub enum Buffer {
    /// 7.00: its zero.
    #[serde(rename = "7.00")]
    Zero,
    /// 4.01: its slope.
    #[serde(rename = "4.01")]
    Slope,
}

/// Setting the simulated meter.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BufferRequest {
    /// In which buffer.
    pub buffer: Buffer,
}

/// Whether a reading stands.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BenchPhChange {
    /// Taken away.
    pub removed: bool,
}

fn meter(shared: &Shared) -> MeterView {
    let (zero_set, slope_set) = shared.simulated_meter.set();
    let today = shared.clock.today();
    let is_today = |set: Option<Moment>| set.is_some_and(|set| day_of(set) == today);
    MeterView {
        name: "simulated pH meter".to_owned(),
        zero_set,
        slope_set,
        calibrated_today: is_today(zero_set) && is_today(slope_set),
    }
}

fn bench(shared: &Shared, bowls: Option<BowlsId>) -> Result<PhBenchView, StoreError> {
    let store = &shared.store;
    let readings = store.bench_ph(bowls)?;
    let of_recipe = bowls
        .map(|bowls| {
            let bowls = store.any_bowls(bowls)?;
            let recipe = store.any_recipe(bowls.recipe)?;
            let altitude = store.kitchen()?.altitude();
            Ok::<_, StoreError>(may_can(&recipe.text, altitude, &bowls, &store.jars_of_bowls(bowls.id)?))
        })
        .transpose()?;
    // Readings of everything are of different pots.
    let of_this = if bowls.is_some() { readings.as_slice() } else { &[] };
    Ok(PhBenchView {
        may_water_bath: may_water_bath(of_recipe.as_ref(), of_this),
        meter: meter(shared),
        readings: readings
            .into_iter()
            .map(|reading| BenchPhView { findings: findings_of(&reading), reading })
            .collect(),
    })
}

/// The readings at the bench, and whether it may go into the water bath.
#[utoipa::path(params(PhBenchQuery), responses((status = 200, body = PhBenchView), (status = 404, body = Problem)))]
#[get("/api/ph_bench")]
pub async fn get_ph_bench(
    shared: web::Data<Shared>,
    query: web::Query<PhBenchQuery>,
) -> Result<web::Json<PhBenchView>, ApiError> {
    Ok(web::Json(read(&shared, move |shared| bench(shared, query.bowls)).await?))
}

fn part_name(part: Option<&String>) -> Result<Option<String>, ApiError> {
    let named = part.map(|part| clean_name(part)).transpose();
    Ok(named.map_err(|error| ApiError::field("part", error))?.map(str::to_owned))
}

/// Writes a reading down: of a part, or of the mix.
#[utoipa::path(request_body = BenchPhRequest,
    responses((status = 201, body = PhBenchView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/ph_bench")]
pub async fn add_bench_ph(
    shared: web::Data<Shared>,
    Json(request): Json<BenchPhRequest>,
) -> Result<Created<PhBenchView>, ApiError> {
    let reading = BenchPh {
        id: BenchPhId(0),
        at: shared.clock.now(),
        bowls: request.bowls,
        part: part_name(request.part.as_ref())?,
        ph: PH.check(request.ph).named("ph")?,
        sample_c: request.sample_c.map(|degrees| CELSIUS.check(degrees).named("sample_c")).transpose()?,
        compensated: request.compensated,
        calibrated_today: request.calibrated_today,
        drained: request.drained,
        simulated: false,
    };
    keep(&shared, reading).await
}

async fn keep(shared: &web::Data<Shared>, reading: BenchPh) -> Result<Created<PhBenchView>, ApiError> {
    let kept = change(shared, Topic::Ph, move |shared| {
        let kept = shared.store.add_bench_ph(&reading)?;
        Ok((kept.id, bench(shared, kept.bowls)?))
    });
    let (id, body) = kept.await?;
    Ok(Created { at: format!("/api/ph_bench/{id}"), body })
}

/// Takes a reading away, or puts it back.
#[utoipa::path(params(("id" = i64, Path)), request_body = BenchPhChange,
    responses((status = 204), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[patch("/api/ph_bench/{id}")]
pub async fn change_bench_ph(
    shared: web::Data<Shared>,
    id: web::Path<BenchPhId>,
    Json(request): Json<BenchPhChange>,
) -> Result<HttpResponse, ApiError> {
    change(&shared, Topic::Ph, move |shared| {
        shared.store.remove_bench_ph(*id, request.removed, shared.clock.now())
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Sets the simulated meter in a buffer. For practice and demo only.
#[utoipa::path(request_body = BufferRequest, responses((status = 200, body = MeterView), (status = 422, body = Problem)))]
#[put("/api/ph_bench/meter")]
pub async fn set_meter(
    shared: web::Data<Shared>,
    Json(request): Json<BufferRequest>,
) -> Result<web::Json<MeterView>, ApiError> {
    shared.simulated_meter.set_in(request.buffer == Buffer::Zero, shared.clock.now());
    shared.live.changed(Topic::Ph);
    Ok(web::Json(meter(&shared)))
}

/// Room temperature of a sample that nobody measured, in degrees Celsius.
const ROOM_C: f64 = 22.0;

/// What a simulated sample has. Made up for practice: nothing is worked out of it.
fn pretended(part: Option<&str>) -> f64 {
    match part.map(|part| weights::kind(part).map(|(role, _)| role)) {
        None => 4.15,
        Some(Some(Role::Tomato)) => 4.4,
        Some(Some(Role::Acid)) => 2.5,
        Some(Some(Role::LowAcid)) => 5.6,
        Some(_) => 6.2,
    }
}

/// Reads a sample with the simulated meter and writes it down. For practice and demo only.
#[utoipa::path(request_body = SampleRequest,
    responses((status = 201, body = PhBenchView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/ph_bench/meter")]
pub async fn read_meter(
    shared: web::Data<Shared>,
    Json(request): Json<SampleRequest>,
) -> Result<Created<PhBenchView>, ApiError> {
    let sample_c = CELSIUS.check(request.sample_c.unwrap_or(ROOM_C)).named("sample_c")?;
    let part = part_name(request.part.as_ref())?;
    let (zero_set, slope_set) = shared.simulated_meter.set();
    let mut device = SimulatedPhMeter {
        zero_set,
        slope_set,
        compensates: false,
        sample: pretended(part.as_deref()),
        sample_at: celsius(sample_c),
    };
    let now = shared.clock.now();
    let Some(Reading::Ph(ph)) = device.read(now) else {
        return Err(ApiError::Internal("the simulated meter has nothing to say".to_owned()));
    };
    let reading = BenchPh {
        id: BenchPhId(0),
        at: now,
        bowls: request.bowls,
        part,
        ph,
        sample_c: Some(sample_c),
        compensated: Some(device.compensates),
        calibrated_today: Some(meter(&shared).calibrated_today),
        drained: None,
        simulated: device.is_simulated(),
    };
    keep(&shared, reading).await
}
