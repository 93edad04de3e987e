//! Kettles and cook-downs over HTTP.

use actix_web::{get, patch, post, put, web};
use bodega_core::kettle::cooking::vessel;
use bodega_model::kettle::words::KettleHeat;
use bodega_model::measures::ids::{CookId, KettleId};
use bodega_model::measures::limits::{DEPTH_READ, KETTLE_VOLUME, VESSEL_DIAMETER, VESSEL_HEIGHT};
use bodega_model::records::cook::{Kettle, NewKettle};
use bodega_store::StoreError;
use serde::Deserialize;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::created::Created;
use crate::json::Json;
use crate::kettle::learned::learned;
use crate::kettle::view::{CookView, KettleView, on_stove, view};
use crate::live::Topic;
use crate::named::clean_name;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change, read};

/// A kettle to add.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewKettleRequest {
    /// Name, 1 to 80 letters.
    pub name: String,
    /// Inner width, 80 to 1,000 mm, at the bottom when the walls lean.
    pub inner_diameter_mm: f64,
    /// Inner width at the top, 80 to 1,000 mm, when the walls lean.
    pub top_diameter_mm: Option<f64>,
    /// Inner depth, 50 to 1,000 mm.
    pub depth_mm: f64,
    /// Where it stands while it cooks down.
    pub heat: KettleHeat,
}

/// Pouring like measures into a kettle and reading the stick after each.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CalibrationRequest {
    /// Litres of one measure, 0.05 to 500.
    pub pour_l: f64,
    /// Depth after each measure, rising, in millimetres; none makes the walls straight again.
    pub depths_mm: Vec<f64>,
}

/// Kettles by name, with the rate each has shown.
#[utoipa::path(responses((status = 200, body = Vec<KettleView>)))]
#[get("/api/kettles")]
pub async fn list_kettles(shared: web::Data<Shared>) -> Result<web::Json<Vec<KettleView>>, ApiError> {
    let views = read(&shared, |shared| {
        let open = shared.store.cooks()?;
        let view = |kettle: Kettle| {
            let learned = learned(shared, &kettle)?;
            Ok(KettleView {
                brim_l: vessel(&kettle).brim().get::<liter>(),
                rates: learned.rates(),
                promises: learned.promises,
                busy: open.iter().any(|cook| cook.kettle.id == kettle.id),
                kettle,
            })
        };
        shared.store.kettles()?.into_iter().map(view).collect::<Result<Vec<_>, StoreError>>()
    });
    Ok(web::Json(views.await?))
}

/// Adds a kettle.
#[utoipa::path(request_body = NewKettleRequest,
    responses((status = 201, body = Kettle), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/kettles")]
pub async fn add_kettle(
    shared: web::Data<Shared>,
    Json(request): Json<NewKettleRequest>,
) -> Result<Created<Kettle>, ApiError> {
    let name = clean_name(&request.name, "name")?;
    let diameter = VESSEL_DIAMETER.check(request.inner_diameter_mm).named("inner_diameter_mm")?;
    let depth = VESSEL_HEIGHT.check(request.depth_mm).named("depth_mm")?;
    let top =
        request.top_diameter_mm.map(|top| VESSEL_DIAMETER.check(top).named("top_diameter_mm")).transpose()?;
    let new = NewKettle {
        name,
        inner_diameter_mm: diameter,
        top_diameter_mm: top,
        depth_mm: depth,
        heat: request.heat,
    };
    let body = change(&shared, Topic::Everything, move |shared| shared.store.add_kettle(&new)).await?;
    Ok(Created { at: format!("/api/kettles/{}", body.id), body })
}

/// Calibrates a kettle whose walls are not straight.
#[utoipa::path(params(("id" = i64, Path)), request_body = CalibrationRequest,
    responses((status = 200, body = Kettle), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/kettles/{id}/calibration")]
pub async fn calibrate_kettle(
    shared: web::Data<Shared>,
    id: web::Path<KettleId>,
    Json(request): Json<CalibrationRequest>,
) -> Result<web::Json<Kettle>, ApiError> {
    let pour = KETTLE_VOLUME.check(request.pour_l).named("pour_l")?;
    for (place, depth) in request.depths_mm.iter().enumerate() {
        let field = format!("depths_mm[{place}]");
        DEPTH_READ.check(*depth).named(&field)?;
        if place > 0 && *depth <= request.depths_mm[place - 1] {
            return Err(ApiError::field(
                field,
                "each measure must stand higher than the one before; read it again",
            ));
        }
    }
    let done = change(&shared, Topic::Everything, move |shared| {
        shared.store.calibrate_kettle(*id, pour, &request.depths_mm)
    });
    Ok(web::Json(done.await?))
}

/// Kettles on the stove.
#[utoipa::path(responses((status = 200, body = Vec<CookView>)))]
#[get("/api/cooks")]
pub async fn list_cooks(shared: web::Data<Shared>) -> Result<web::Json<Vec<CookView>>, ApiError> {
    Ok(web::Json(read(&shared, on_stove).await?))
}

/// Whether a kettle is off the stove.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CookEndRequest {
    /// Off, or back on.
    pub ended: bool,
}

/// Takes a kettle off the stove, or puts it back.
#[utoipa::path(params(("id" = i64, Path)), request_body = CookEndRequest,
    responses((status = 200, body = CookView), (status = 404, body = Problem)))]
#[patch("/api/cooks/{id}")]
pub async fn end_cook(
    shared: web::Data<Shared>,
    id: web::Path<CookId>,
    Json(request): Json<CookEndRequest>,
) -> Result<web::Json<CookView>, ApiError> {
    let done = change(&shared, Topic::Everything, move |shared| {
        view(shared, shared.store.end_cook(*id, request.ended, shared.clock.now())?)
    });
    Ok(web::Json(done.await?))
}

/// One cook-down.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = CookView), (status = 404, body = Problem)))]
#[get("/api/cooks/{id}")]
pub async fn get_cook(
    shared: web::Data<Shared>,
    id: web::Path<CookId>,
) -> Result<web::Json<CookView>, ApiError> {
    Ok(web::Json(read(&shared, move |shared| view(shared, shared.store.cook(*id)?)).await?))
}

/// One kettle.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = Kettle), (status = 404, body = Problem)))]
#[get("/api/kettles/{id}")]
pub async fn get_kettle(
    shared: web::Data<Shared>,
    id: web::Path<KettleId>,
) -> Result<web::Json<Kettle>, ApiError> {
    Ok(web::Json(read(&shared, move |shared| shared.store.kettle(*id)).await?))
}
