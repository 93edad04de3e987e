//! The line over HTTP.

use actix_web::{get, web};

use crate::counter::view::{Counter, count};
use crate::problem::ApiError;
use crate::state::{Shared, read};

/// The line, live.
#[utoipa::path(responses((status = 200, body = Counter)))]
#[get("/api/counter")]
pub async fn get_counter(shared: web::Data<Shared>) -> Result<web::Json<Counter>, ApiError> {
    Ok(web::Json(read(&shared, count).await?))
}
