//! How much a weight of tomatoes makes.

use std::collections::BTreeMap;

use actix_web::{post, web};
use bodega_core::plan::yields;
use bodega_core::plan::yields::full_jars;
use bodega_model::crates::fruit::Kind;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::limits::WEIGHT;
use bodega_model::measures::range::Range;
use bodega_model::measures::units::{in_quarts, kilograms};
use bodega_model::plan::making::Thickness;
use bodega_model::published::source::Source;
use bodega_model::tables::process::Product;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::json::Json;
use crate::plan::ground::check_plain;
use crate::problem::{ApiError, NameField, Problem};

/// What is asked.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct YieldRequest {
    /// What the tomatoes become.
    pub product: Product,
    /// For sauce; has no bearing on other products.
    pub thickness: Option<Thickness>,
    /// Kind of tomato. Published yields do not tell kinds apart.
    pub kind: Kind,
    /// Raw weight in kilograms, 0.01 to 5,000.
    pub weight_kg: f64,
}

/// The yield.
#[derive(Debug, Serialize, ToSchema)]
pub struct YieldAnswer {
    /// US quarts of product.
    pub quarts: Range<f64>,
    /// Full jars when all goes into one size.
    #[schema(value_type = BTreeMap<String, Range<u32>>)]
    pub jars: BTreeMap<JarSize, Range<u32>>,
    /// Where it comes from.
    pub source: Source,
}

/// Works out the yield.
#[utoipa::path(request_body = YieldRequest, responses((status = 200, body = YieldAnswer), (status = 422, body = Problem)))]
#[post("/api/compute/yield")]
pub async fn compute_yield(Json(request): Json<YieldRequest>) -> Result<web::Json<YieldAnswer>, ApiError> {
    let weight = kilograms(WEIGHT.check(request.weight_kg).named("weight_kg")?);
    check_plain(request.product, "product")?;
    if request.product == Product::Sauce && request.thickness.is_none() {
        return Err(ApiError::field("thickness", "sauce needs a thickness; use one of: thin, thick"));
    }
    let made = yields::expect(request.product, request.thickness, weight);
    let quarts =
        Range { low: in_quarts(made.low), expected: in_quarts(made.expected), high: in_quarts(made.high) };
    let jars = JarSize::ALL
        .iter()
        .map(|jar| {
            let full = |volume| full_jars(volume, *jar);
            (*jar, Range { low: full(made.low), expected: full(made.expected), high: full(made.high) })
        })
        .collect();
    Ok(web::Json(YieldAnswer { quarts, jars, source: yields::source(request.product) }))
}
