//! The towel and the shelf.

use actix_web::{HttpResponse, get, put, web};
use bodega_store::{ShelfGroup, Towel};
use serde::Deserialize;
use utoipa::ToSchema;

use crate::app::{Shared, change, read};
use crate::json::Json;
use crate::problem::{ApiError, Problem};

/// Whether a lid holds.
#[derive(Debug, Deserialize, ToSchema)]
pub struct SealRequest {
    /// `true` holds, `false` failed, `null` takes the judgement back.
    pub holds: Option<bool>,
}

/// Loads that cool.
#[utoipa::path(responses((status = 200, body = Vec<Towel>)))]
#[get("/api/towel")]
pub async fn list_towel(shared: web::Data<Shared>) -> Result<web::Json<Vec<Towel>>, ApiError> {
    Ok(web::Json(read(&shared, |shared| shared.store.towel()).await?))
}

/// Records whether a lid holds.
#[utoipa::path(params(("id" = i64, Path)), request_body = SealRequest,
    responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/jars/{id}/seal")]
pub async fn judge_seal(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<SealRequest>,
) -> Result<HttpResponse, ApiError> {
    change(&shared, move |shared| shared.store.judge_seal(*id, request.holds, shared.clock.now())).await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Jars on the shelf by product and date, oldest first.
#[utoipa::path(responses((status = 200, body = Vec<ShelfGroup>)))]
#[get("/api/shelf")]
pub async fn list_shelf(shared: web::Data<Shared>) -> Result<web::Json<Vec<ShelfGroup>>, ApiError> {
    Ok(web::Json(read(&shared, |shared| shared.store.shelf()).await?))
}
