//! The household's canners.

use std::collections::BTreeMap;

use actix_web::{get, patch, post, web};
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::CannerId;
use bodega_model::measures::limits::{
    CAPACITY, GAUGE_YEAR, RACK_HEIGHT, VESSEL_DIAMETER, VESSEL_HEIGHT, WATTS,
};
use bodega_model::records::canner::{Canner, CannerChange, PotSize};
use bodega_model::tables::process::Method;
use serde::Deserialize;
use utoipa::ToSchema;

use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::named::clean_name;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change, read};

/// A canner to add.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewCannerRequest {
    /// Name, 1 to 80 letters.
    pub name: String,
    /// How it heats.
    pub method: Method,
}

/// A change to a canner; absent fields stay.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CannerChangeRequest {
    /// New name, 1 to 80 letters.
    pub name: Option<String>,
    /// How it heats.
    pub method: Option<Method>,
    /// From inside: 80 to 1,000 mm wide, 50 to 1,000 mm high, rack 0 to 200 mm.
    pub pot: Option<PotSize>,
    /// Jars that fit, by size, 1 to 100 each; `null` for a size it does not hold. Sizes that are not named stay.
    #[schema(value_type = Option<BTreeMap<String, Option<u32>>>)]
    pub capacity: Option<BTreeMap<JarSize, Option<u32>>>,
    /// Power of its burner, 50 to 30,000 W.
    pub power_w: Option<f64>,
    /// Width of its burner, 80 to 1,000 mm.
    pub burner_mm: Option<f64>,
    /// Whether it is an electric multi-cooker.
    pub multi_cooker: Option<bool>,
    /// Year in which its dial gauge was tested last, 1900 to this one.
    pub gauge_tested_in: Option<i16>,
}

/// A pot as somebody measured it, when its numbers are those of a pot; `field` names it.
pub(crate) fn check_pot(pot: PotSize, field: &str) -> Result<PotSize, ApiError> {
    VESSEL_DIAMETER.check(pot.inner_diameter_mm).named(format_args!("{field}.inner_diameter_mm"))?;
    if let Some(length) = pot.inner_length_mm {
        let name = format!("{field}.inner_length_mm");
        if VESSEL_DIAMETER.check(length).named(&name)? < pot.inner_diameter_mm {
            return Err(ApiError::field(name, "give the longer of the two inner measures as the length"));
        }
    }
    VESSEL_HEIGHT.check(pot.inner_height_mm).named(format_args!("{field}.inner_height_mm"))?;
    RACK_HEIGHT.check(pot.rack_height_mm).named(format_args!("{field}.rack_height_mm"))?;
    Ok(pot)
}

/// Adds a canner.
#[utoipa::path(request_body = NewCannerRequest,
    responses((status = 201, body = Canner), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/canners")]
pub async fn add_canner(
    shared: web::Data<Shared>,
    Json(request): Json<NewCannerRequest>,
) -> Result<Created<Canner>, ApiError> {
    let name = clean_name(&request.name, "name")?;
    let done =
        change(&shared, Topic::Everything, move |shared| shared.store.add_canner(&name, request.method));
    let body = done.await?;
    Ok(Created { at: format!("/api/canners/{}", body.id), body })
}

/// Changes a canner.
#[utoipa::path(params(("id" = i64, Path)), request_body = CannerChangeRequest,
    responses((status = 200, body = Canner), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
#[patch("/api/canners/{id}")]
pub async fn change_canner(
    shared: web::Data<Shared>,
    id: web::Path<CannerId>,
    Json(request): Json<CannerChangeRequest>,
) -> Result<web::Json<Canner>, ApiError> {
    for (jar, count) in request.capacity.iter().flatten().filter_map(|(jar, count)| Some((jar, (*count)?))) {
        CAPACITY.check(f64::from(count)).named(format_args!("capacity.{}", jar.word()))?;
    }
    let this_year = shared.clock.today().year();
    if let Some(year) = request.gauge_tested_in {
        GAUGE_YEAR.check(f64::from(year)).named("gauge_tested_in")?;
        if year > this_year {
            let message = format!("{year} is still to come; give a year up to {this_year}");
            return Err(ApiError::field("gauge_tested_in", message));
        }
    }
    request.pot.map(|pot| check_pot(pot, "pot")).transpose()?;
    let wanted = CannerChange {
        name: request.name.map(|name| clean_name(&name, "name")).transpose()?,
        method: request.method,
        pot: request.pot,
        capacity: request.capacity,
        power_w: request.power_w.map(|power| WATTS.check(power).named("power_w")).transpose()?,
        burner_mm: request
            .burner_mm
            .map(|wide| VESSEL_DIAMETER.check(wide).named("burner_mm"))
            .transpose()?,
        multi_cooker: request.multi_cooker,
        gauge_tested_in: request.gauge_tested_in,
    };
    Ok(web::Json(
        change(&shared, Topic::Everything, move |shared| shared.store.change_canner(*id, &wanted)).await?,
    ))
}

/// One canner.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = Canner), (status = 404, body = Problem)))]
#[get("/api/canners/{id}")]
pub async fn get_canner(
    shared: web::Data<Shared>,
    id: web::Path<CannerId>,
) -> Result<web::Json<Canner>, ApiError> {
    Ok(web::Json(read(&shared, move |shared| shared.store.canner(*id)).await?))
}
