//! Which tested process covers a jar.

use actix_web::{post, web};
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::published::source::Source;
use bodega_model::tables::process::{
    Medium, Method, Pack, ProcessOption, Product, Query, Refusal, check_medium, headspace, look_up,
};
use serde::{Deserialize, Serialize};
use uom::si::length::inch;
use utoipa::ToSchema;

use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};

/// What is asked.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ProcessRequest {
    /// What the tomatoes became.
    pub product: Product,
    /// What whole tomatoes are packed in; `null` for every other product.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// How the jars are heated.
    pub method: Method,
    /// Size of the jar.
    pub jar: JarSize,
    /// Height of the kitchen in feet, -2,000 to 30,000.
    pub altitude_ft: f64,
}

/// A tested process, or a refusal with empty options.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProcessAnswer {
    /// Ways to run it, all of equal standing.
    pub options: Vec<ProcessOption>,
    /// Published headspace in inches; `null` for a recipe, which has its own.
    pub headspace_in: Option<f64>,
    /// What to mind.
    pub cautions: Vec<String>,
    /// Where it comes from.
    pub source: Source,
    /// Why there is none.
    pub refusal: Option<Refusal>,
}

/// Looks up the tested process.
#[utoipa::path(request_body = ProcessRequest, responses((status = 200, body = ProcessAnswer), (status = 422, body = Problem)))]
#[post("/api/compute/process")]
pub async fn compute_process(
    Json(request): Json<ProcessRequest>,
) -> Result<web::Json<ProcessAnswer>, ApiError> {
    check_medium(request.product, request.medium).map_err(|error| ApiError::field("medium", error))?;
    let query = Query {
        product: request.product,
        medium: request.medium,
        pack: request.pack,
        method: request.method,
        jar: request.jar,
        altitude: Altitude::from_feet(request.altitude_ft).named("altitude_ft")?,
    };
    let headspace_in = headspace(request.product).map(|space| space.get::<inch>());
    Ok(web::Json(match look_up(&query) {
        Ok(tested) => ProcessAnswer {
            options: tested.options,
            headspace_in,
            cautions: tested.cautions.iter().map(ToString::to_string).collect(),
            source: tested.source,
            refusal: None,
        },
        Err(refusal) => ProcessAnswer {
            options: Vec::new(),
            headspace_in,
            cautions: Vec::new(),
            source: Source::usda_guide_3(),
            refusal: Some(refusal),
        },
    }))
}
