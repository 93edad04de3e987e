//! The shelf over HTTP: what stands there, and how jars leave it.

use actix_web::{HttpResponse, delete, get, post, put, web};
use bodega_core::shelf::pantry::BEFORE_OPENING;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{BatchId, JarId};
use bodega_model::measures::limits::SHELF_YEAR;
use bodega_model::records::jar::JarRecord;
use bodega_model::records::shelf::{Gone, ShelfGroup, ShelfSearch};
use bodega_model::shelf::leaving::{Discard, Leaving};
use bodega_model::tables::process::Product;
use bodega_store::StoreError;
use serde::Deserialize;
use utoipa::{IntoParams, ToSchema};

use crate::clock::start_of_year;
use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::shelf::view::{JarCard, JarRecordView, LeaveAnswer};
use crate::state::{Shared, change, read};

/// What to look for; absent fields ask for nothing.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct ShelfQuery {
    /// Part of a batch code, or of its name.
    pub code: Option<String>,
    /// What is in the jars.
    pub product: Option<Product>,
    /// Year in which they were put up.
    pub year: Option<i16>,
}

/// Jars on the shelf by product and date, oldest first.
#[utoipa::path(params(ShelfQuery), responses((status = 200, body = Vec<ShelfGroup>), (status = 422, body = Problem)))]
#[get("/api/shelf")]
pub async fn list_shelf(
    shared: web::Data<Shared>,
    query: web::Query<ShelfQuery>,
) -> Result<web::Json<Vec<ShelfGroup>>, ApiError> {
    if let Some(year) = query.year {
        SHELF_YEAR.check(f64::from(year)).named("year")?;
    }
    let search = ShelfSearch {
        code: query.code.clone().filter(|code| !code.trim().is_empty()),
        product: query.product,
        from: query.year.and_then(start_of_year),
        before: query.year.and_then(|year| start_of_year(year + 1)),
    };
    Ok(web::Json(read(&shared, move |shared| shared.store.shelf(&search)).await?))
}

/// A jar that leaves.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LeaveRequest {
    /// The jar; or the batch and size of which the first one is taken.
    pub jar: Option<JarId>,
    /// The batch to take from.
    pub batch: Option<BatchId>,
    /// The size to take.
    pub size: Option<JarSize>,
    /// How it leaves.
    pub how: Leaving,
    /// Why, when it is thrown away.
    pub why: Option<Discard>,
}

pub(crate) fn leave(shared: &Shared, request: LeaveRequest) -> Result<LeaveAnswer, StoreError> {
    let jar = match (request.jar, request.batch, request.size) {
        (Some(jar), ..) => jar,
        (None, Some(batch), Some(size)) => shared.store.next_jar(batch, size)?,
        (None, ..) => return Err(StoreError::WhichJar),
    };
    shared.store.leave(&[jar], Some(Gone { how: request.how, why: request.why }), shared.clock.now())?;
    let at_home = shared.store.standings()?;
    let jar = shared.store.jar(jar)?;
    let spoiled = request.why.is_some_and(Discard::is_spoilage);
    let sisters = if spoiled { shared.store.batch_jars(jar.batch)? } else { Vec::new() };
    Ok(LeaveAnswer {
        sisters: sisters
            .into_iter()
            .filter(|sister| sister.id != jar.id)
            .map(|sister| JarRecordView::new(sister, &at_home))
            .collect(),
        jar: JarRecordView::new(jar, &at_home),
    })
}

/// A jar leaves: eaten, given away, or thrown away with a reason.
#[utoipa::path(request_body = LeaveRequest,
    responses((status = 201, body = LeaveAnswer), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
#[post("/api/departures")]
pub async fn leave_shelf(
    shared: web::Data<Shared>,
    Json(request): Json<LeaveRequest>,
) -> Result<Created<LeaveAnswer>, ApiError> {
    if (request.how == Leaving::Discarded) != request.why.is_some() {
        return Err(ApiError::field(
            "why",
            "a reason goes with a jar that is thrown away, and only with one",
        ));
    }
    let body = change(&shared, Topic::Shelf, move |shared| leave(shared, request)).await?;
    Ok(Created { at: format!("/api/jars/{}", body.jar.jar.id), body })
}

/// Jars that are thrown away together.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct DiscardRequest {
    /// The jars.
    pub jars: Vec<JarId>,
    /// Why; `null` brings them back.
    pub why: Option<Discard>,
}

/// Throws jars away together, all of them or none, or brings them back.
#[utoipa::path(request_body = DiscardRequest,
    responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/discards")]
pub async fn discard_jars(
    shared: web::Data<Shared>,
    Json(request): Json<DiscardRequest>,
) -> Result<HttpResponse, ApiError> {
    change(&shared, Topic::Shelf, move |shared| {
        let gone = request.why.map(|why| Gone { how: Leaving::Discarded, why: Some(why) });
        shared.store.leave(&request.jars, gone, shared.clock.now())
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}

/// Brings a jar back that had left.
#[utoipa::path(params(("id" = i64, Path)),
    responses((status = 200, body = JarRecord), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/api/jars/{id}/departure")]
pub async fn bring_back(
    shared: web::Data<Shared>,
    id: web::Path<JarId>,
) -> Result<web::Json<JarRecord>, ApiError> {
    let done = change(&shared, Topic::Shelf, move |shared| {
        shared.store.leave(&[*id], None, shared.clock.now())?;
        shared.store.jar(*id)
    });
    Ok(web::Json(done.await?))
}

/// One jar.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = JarCard), (status = 404, body = Problem)))]
#[get("/api/jars/{id}")]
pub async fn get_jar(
    shared: web::Data<Shared>,
    id: web::Path<JarId>,
) -> Result<web::Json<JarCard>, ApiError> {
    let card = read(&shared, move |shared| {
        let jar = shared.store.jar(*id)?;
        let spoiled = |sister: &JarRecord| sister.gone_why.is_some_and(Discard::is_spoilage);
        let recalled = shared.store.batch_jars(jar.batch)?.iter().any(spoiled);
        let jar = JarRecordView::new(jar, &*shared.store.standings()?);
        Ok(JarCard { jar, recalled, before_opening: BEFORE_OPENING.to_vec() })
    });
    Ok(web::Json(card.await?))
}
