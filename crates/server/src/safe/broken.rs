//! Records that cannot be read, over HTTP: what stands in them, and putting them right.

use actix_web::{HttpResponse, get, put, web};
use bodega_store::BrokenRecord;
use serde::Deserialize;
use utoipa::ToSchema;

use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, change, read};

/// Records that cannot be read; they stand in no list.
#[utoipa::path(responses((status = 200, body = Vec<BrokenRecord>)))]
#[get("/api/broken")]
pub async fn list_broken(shared: web::Data<Shared>) -> Result<web::Json<Vec<BrokenRecord>>, ApiError> {
    Ok(web::Json(read(&shared, |shared| shared.store.broken()).await?))
}

/// What a field should have held.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MendRequest {
    /// One of the record's choices, or a day.
    pub value: String,
}

/// Puts a field right that cannot be read.
#[utoipa::path(params(("table" = String, Path), ("id" = i64, Path), ("field" = String, Path)),
    request_body = MendRequest,
    responses((status = 204), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/broken/{table}/{id}/{field}")]
pub async fn mend_record(
    shared: web::Data<Shared>,
    path: web::Path<(String, i64, String)>,
    Json(request): Json<MendRequest>,
) -> Result<HttpResponse, ApiError> {
    let (table, id, field) = path.into_inner();
    change(&shared, Topic::Everything, move |shared| shared.store.mend(&table, id, &field, &request.value))
        .await?;
    Ok(HttpResponse::NoContent().finish())
}
