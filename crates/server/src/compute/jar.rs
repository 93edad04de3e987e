//! What size a jar of unknown size is taken for.

use actix_web::{post, web};
use bodega_core::jars::unknown::{JarByWater, by_water};
use bodega_model::measures::limits::JAR_WATER;
use bodega_model::measures::units::kilograms;
use serde::Deserialize;
use utoipa::ToSchema;

use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};

/// Water that fills a jar to the rim.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct JarRequest {
    /// Its weight in kilograms, 0.02 to 20.
    pub water_kg: f64,
}

/// Finds the size whose time and dose a jar of unknown size gets.
#[utoipa::path(request_body = JarRequest, responses((status = 200, body = JarByWater), (status = 422, body = Problem)))]
#[post("/api/compute/jar")]
pub async fn compute_jar(Json(request): Json<JarRequest>) -> Result<web::Json<JarByWater>, ApiError> {
    Ok(web::Json(by_water(kilograms(JAR_WATER.check(request.water_kg).named("water_kg")?))))
}
