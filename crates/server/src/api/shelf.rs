//! The towel and the shelf.

use actix_web::{HttpResponse, get, put, web};
use bodega_core::findings::Finding;
use bodega_store::{ShelfGroup, StoreError, Towel};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::app::{Shared, change, read};
use crate::json::Json;
use crate::judging::towel_findings;
use crate::problem::{ApiError, Problem};

/// Whether some lids hold.
#[derive(Debug, Deserialize, ToSchema)]
pub struct SealRequest {
    /// The jars.
    pub jars: Vec<i64>,
    /// `true` they hold, `false` they failed, `null` takes the judgement back.
    pub holds: Option<bool>,
}

/// A load on the towel and what the judge has to say of it.
#[derive(Debug, Serialize, ToSchema)]
pub struct TowelView {
    /// The load.
    #[serde(flatten)]
    pub towel: Towel,
    /// Whether its last unbroken boil was long enough; lids of a load that was not are no use.
    pub processed: bool,
    /// Findings, stops first.
    pub findings: Vec<Finding>,
}

fn towels(shared: &Shared) -> Result<Vec<TowelView>, StoreError> {
    let kitchen = shared.store.kitchen()?;
    let now = shared.clock.now();
    let view = |towel: Towel| {
        let load = shared.store.load(towel.load_id)?;
        let findings = towel_findings(&towel, &load, &kitchen);
        Ok(TowelView { processed: load.clock.is_processed(now), findings, towel })
    };
    shared.store.towel()?.into_iter().map(view).collect()
}

/// Loads that cool.
#[utoipa::path(responses((status = 200, body = Vec<TowelView>)))]
#[get("/api/towel")]
pub async fn list_towel(shared: web::Data<Shared>) -> Result<web::Json<Vec<TowelView>>, ApiError> {
    Ok(web::Json(read(&shared, towels).await?))
}

/// Records whether lids hold, for all of the jars or none.
#[utoipa::path(request_body = SealRequest,
    responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/seals")]
pub async fn judge_seals(
    shared: web::Data<Shared>,
    Json(request): Json<SealRequest>,
) -> Result<HttpResponse, ApiError> {
    change(&shared, move |shared| shared.store.judge_seals(&request.jars, request.holds, shared.clock.now()))
        .await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Jars on the shelf by product and date, oldest first.
#[utoipa::path(responses((status = 200, body = Vec<ShelfGroup>)))]
#[get("/api/shelf")]
pub async fn list_shelf(shared: web::Data<Shared>) -> Result<web::Json<Vec<ShelfGroup>>, ApiError> {
    Ok(web::Json(read(&shared, |shared| shared.store.shelf()).await?))
}
