//! The bench: acid first, then every step of each jar, and the count as the pot gives it.

use actix_web::{HttpResponse, delete, post, put, web};
use bodega_core::jars::bench::JarStep;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::Measured;
use bodega_model::measures::ids::{BatchId, JarId, LoadId};
use bodega_model::measures::limits::{CELSIUS, HEADSPACE, JAR_COUNT};
use bodega_model::measures::moment::Moment;
use bodega_model::records::batch::Batch;
use bodega_model::records::claims::Claims;
use bodega_model::records::jar::Jar;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::age::Age;
use crate::canner::routes::changed;
use crate::canner::view::LoadView;
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change};
use crate::who::Who;

/// A step of one jar, done or taken back.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JarStepRequest {
    /// Which step.
    pub step: JarStep,
    /// Done, or taken back.
    pub done: bool,
    /// Of `filled`: the food is in, and the acid is not yet.
    #[serde(default)]
    pub food_first: bool,
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
    age: Age,
    Json(request): Json<JarStepRequest>,
) -> Result<web::Json<Jar>, ApiError> {
    if request.food_first && !(request.step == JarStep::Filled && request.done) {
        return Err(ApiError::field("food_first", "say it of the step filled that is done, or leave it out"));
    }
    let done = change(&shared, Topic::Bench, move |shared| {
        let now = age.touched(&shared.clock).at;
        if request.food_first {
            return shared.store.fill_before_acid(*id, now);
        }
        shared.store.tick_jar(*id, request.step, request.done, now)
    });
    Ok(web::Json(done.await?))
}

/// What one touch ticked.
#[derive(Debug, Serialize, ToSchema)]
pub struct Ticked {
    /// When, by which it is taken back.
    pub at: Moment,
    /// Jars that have the step now by it or had it before.
    pub jars: usize,
}

/// Ticks a step of every jar of a load that is ready for it.
#[utoipa::path(params(("id" = i64, Path)), request_body = LoadStepRequest,
    responses((status = 200, body = Ticked), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[post("/api/loads/{id}/steps")]
pub async fn tick_load(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    age: Age,
    Json(request): Json<LoadStepRequest>,
) -> Result<web::Json<Ticked>, ApiError> {
    let ticked = change(&shared, Topic::Bench, move |shared| {
        let at = age.touched(&shared.clock).at;
        shared.store.tick_load(*id, request.step, at).map(|jars| Ticked { at, jars })
    });
    Ok(web::Json(ticked.await?))
}

/// Takes back what one touch ticked on a load's jars, and nothing else.
#[utoipa::path(params(("id" = i64, Path), ("at" = i64, Path)),
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/api/loads/{id}/steps/{at}")]
pub async fn untick_load(
    shared: web::Data<Shared>,
    path: web::Path<(LoadId, Moment)>,
) -> Result<web::Json<LoadView>, ApiError> {
    let (id, at) = *path;
    changed(&shared, Topic::Bench, move |shared, _| {
        shared.store.untick_load(id, at)?;
        shared.store.load(id)
    })
    .await
}

/// Jars that were found to be without their dose.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UndosedRequest {
    /// The jars, in the canner or out of it.
    pub jars: Vec<JarId>,
    /// Their acid is not in them; `false` takes that back.
    pub undosed: bool,
}

/// Says of jars that their dose of acid is not in them, for all of them or none: they are not for the shelf until they were
/// opened, dosed and processed again.
#[utoipa::path(request_body = UndosedRequest,
    responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/undosed")]
pub async fn set_undosed(
    shared: web::Data<Shared>,
    who: Who,
    Json(request): Json<UndosedRequest>,
) -> Result<HttpResponse, ApiError> {
    change(&shared, Topic::Everything, move |shared| {
        shared.store.set_undosed(&request.jars, request.undosed, &who.tells(shared.clock.now()))
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
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
    changed(&shared, Topic::Everything, move |shared, now| {
        let batch = match request.batch {
            Some(batch) => batch,
            None => shared.store.load(*id)?.batch.id,
        };
        shared.store.recount(*id, batch, request.jar, request.count, now)?;
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
    changed(&shared, Topic::Bench, move |shared, _| shared.store.set_jar_warmth(*id, jars_c)).await
}

/// Says what was seen of a load's jars, for all of them: its card. What differs is changed, and judged.
#[utoipa::path(params(("id" = i64, Path)), request_body = Claims,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/loads/{id}/claims")]
pub async fn set_claims(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    who: Who,
    Json(claims): Json<Claims>,
) -> Result<web::Json<LoadView>, ApiError> {
    claims.headspace_in.map(|inches| HEADSPACE.check(inches).named("headspace_in")).transpose()?;
    claims.water_c.map(|degrees| CELSIUS.check(degrees).named("water_c")).transpose()?;
    // Of jars that are out it decides whether they stand on the shelf.
    changed(&shared, Topic::Everything, move |shared, now| {
        shared.store.set_claims(*id, &claims, &who.tells(now))
    })
    .await
}

/// Acid stirred into the pot.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct PotDoseRequest {
    /// All that went in, line by line, in the household's spoons or any other measure; empty for nothing.
    pub said: Vec<Measured>,
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
    let dosed = change(&shared, Topic::Bench, move |shared| {
        shared.store.set_pot_dose(*id, &request.said, shared.clock.now())
    });
    Ok(web::Json(dosed.await?))
}
