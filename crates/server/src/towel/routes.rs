//! The towel over HTTP: what was found at each lid, what is done about a failed one, washing.

use actix_web::{HttpResponse, get, put, web};
use bodega_core::measures::ids::JarId;
use bodega_core::towel::seal::{LidVerdict, Rescue};
use serde::Deserialize;
use utoipa::ToSchema;

use crate::age::Age;
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, change, read};
use crate::towel::view::{ColdView, TowelView, cold, towels};

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

/// Jars that did not seal and are kept cold.
#[utoipa::path(responses((status = 200, body = ColdView)))]
#[get("/api/cold")]
pub async fn list_cold(shared: web::Data<Shared>) -> Result<web::Json<ColdView>, ApiError> {
    Ok(web::Json(read(&shared, cold).await?))
}
