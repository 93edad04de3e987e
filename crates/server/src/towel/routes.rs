//! The towel over HTTP: what was found at each lid, what is done about a failed one, washing.

use actix_web::{HttpResponse, get, put, web};
use bodega_model::measures::ids::JarId;
use bodega_model::towel::liquid::LiquidLost;
use bodega_model::towel::seal::{LidVerdict, Rescue};
use serde::Deserialize;
use utoipa::ToSchema;

use crate::age::Age;
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, change, read};
use crate::towel::view::{ColdView, TowelView, cold, towels};
use crate::who::Who;

/// What was found at some lids.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SealRequest {
    /// The jars.
    pub jars: Vec<JarId>,
    /// What was found; `null` takes the judgement back.
    pub verdict: Option<LidVerdict>,
}

/// Loads that cool.
#[utoipa::path(responses((status = 200, body = Vec<TowelView>)))]
#[get("/api/towel")]
pub async fn list_towel(shared: web::Data<Shared>) -> Result<web::Json<Vec<TowelView>>, ApiError> {
    Ok(web::Json(read(&shared, towels).await?))
}

/// Records what was found at lids, for all of the jars or none.
#[utoipa::path(request_body = SealRequest,
    responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/seals")]
pub async fn judge_seals(
    shared: web::Data<Shared>,
    age: Age,
    Json(request): Json<SealRequest>,
) -> Result<HttpResponse, ApiError> {
    change(&shared, Topic::Towel, move |shared| {
        shared.store.judge_seals(&request.jars, request.verdict, age.touched(&shared.clock).at)
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Rings off, washed and dry.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TidyRequest {
    /// The jars.
    pub jars: Vec<JarId>,
    /// Done, or taken back.
    pub done: bool,
}

/// Records that rings are off and jars washed and dry, for all of them or none.
#[utoipa::path(request_body = TidyRequest,
    responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/rings")]
pub async fn tidy_jars(
    shared: web::Data<Shared>,
    age: Age,
    Json(request): Json<TidyRequest>,
) -> Result<HttpResponse, ApiError> {
    change(&shared, Topic::Towel, move |shared| {
        shared.store.tidy(&request.jars, request.done, age.touched(&shared.clock).at)
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}

/// What is done with jars that are not processed, or whose lids failed.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RescueRequest {
    /// The jars.
    pub jars: Vec<JarId>,
    /// The decision; `null` takes it back.
    pub rescue: Option<Rescue>,
    /// Whether they were kept cold all the time; needed once more than a day has passed.
    pub kept_cold: Option<bool>,
}

/// Decides about jars that are not processed, or whose lids failed, for all of them or none. To be processed again they go
/// to the bench for new lids; straight into the canner as long as they are hot.
#[utoipa::path(request_body = RescueRequest,
    responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/rescues")]
pub async fn rescue_jars(
    shared: web::Data<Shared>,
    age: Age,
    Json(request): Json<RescueRequest>,
) -> Result<HttpResponse, ApiError> {
    let RescueRequest { jars, rescue, kept_cold } = request;
    change(&shared, Topic::Towel, move |shared| {
        shared.store.rescue(&jars, rescue, kept_cold, age.touched(&shared.clock).at)
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Jars that lost some of their liquid in the canner.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LiquidRequest {
    /// The jars.
    pub jars: Vec<JarId>,
    /// How much; `null` takes it back.
    pub lost: Option<LiquidLost>,
}

/// Says how much of their liquid jars lost in the canner, for all of them or none. With half of it gone or more they are not for
/// the shelf.
#[utoipa::path(request_body = LiquidRequest,
    responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/liquids")]
pub async fn set_liquid_lost(
    shared: web::Data<Shared>,
    who: Who,
    age: Age,
    Json(request): Json<LiquidRequest>,
) -> Result<HttpResponse, ApiError> {
    let told = who.tells(age.touched(&shared.clock).at);
    change(&shared, Topic::Everything, move |shared| {
        shared.store.set_liquid_lost(&request.jars, request.lost, &told)
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Jars that did not seal and are kept cold.
#[utoipa::path(responses((status = 200, body = ColdView)))]
#[get("/api/cold")]
pub async fn list_cold(shared: web::Data<Shared>) -> Result<web::Json<ColdView>, ApiError> {
    Ok(web::Json(read(&shared, cold).await?))
}
