//! Whether the server and its records answer.

use actix_web::{get, web};
use serde::Serialize;
use utoipa::ToSchema;

use crate::problem::ApiError;
use crate::state::{Shared, read};

/// A sign of life.
#[derive(Debug, Serialize, ToSchema)]
pub struct Health {
    /// Always `open`.
    pub status: &'static str,
    /// Version of the program.
    pub version: &'static str,
}

/// Answers when the records can be read.
#[utoipa::path(responses((status = 200, body = Health)))]
#[get("/api/health")]
pub async fn health(shared: web::Data<Shared>) -> Result<web::Json<Health>, ApiError> {
    read(&shared, |shared| shared.store.kitchen()).await?;
    Ok(web::Json(Health { status: "open", version: env!("CARGO_PKG_VERSION") }))
}
