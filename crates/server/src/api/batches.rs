//! Batches on the line.

use actix_web::{get, patch, web};
use bodega_store::Batch;
use serde::Deserialize;
use utoipa::ToSchema;

use crate::app::{Shared, change, read};
use crate::json::Json;
use crate::problem::{ApiError, Problem};

/// Taking a batch off the line, or putting it back.
#[derive(Debug, Deserialize, ToSchema)]
pub struct BatchChangeRequest {
    /// Whether it is off the line.
    pub removed: bool,
}

/// Batches that still have jars to process.
#[utoipa::path(responses((status = 200, body = Vec<Batch>)))]
#[get("/api/batches")]
pub async fn list_batches(shared: web::Data<Shared>) -> Result<web::Json<Vec<Batch>>, ApiError> {
    Ok(web::Json(read(&shared, |shared| shared.store.open_batches()).await?))
}

/// Takes a batch off the line, giving its fruit back, or puts it back.
#[utoipa::path(params(("id" = i64, Path)), request_body = BatchChangeRequest,
    responses((status = 200, body = Batch), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[patch("/api/batches/{id}")]
pub async fn change_batch(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<BatchChangeRequest>,
) -> Result<web::Json<Batch>, ApiError> {
    let done =
        change(&shared, move |shared| shared.store.remove_batch(*id, request.removed, shared.clock.now()))
            .await?;
    Ok(web::Json(done))
}
