//! The day over HTTP.

use actix_web::{HttpResponse, get, post, web};
use bodega_model::measures::limits::DAY_SLIP;
use bodega_model::records::day::Mark;
use serde::Deserialize;
use utoipa::ToSchema;

use crate::day::last;
use crate::day::reading::ground;
use crate::day::view::{BlockView, DayView};
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::safe::exchange::{Meeting, calendar_of};
use crate::state::{Shared, change, off_thread, read};

pub(crate) async fn laid_out(shared: &web::Data<Shared>) -> Result<DayView, ApiError> {
    let ground = read(shared, ground).await?;
    let inner = shared.clone();
    off_thread(move || last::view(&inner.last_day, ground)).await
}

/// The day from now on, laid out and proven as far as the time allows.
#[utoipa::path(responses((status = 200, body = DayView)))]
#[get("/api/day")]
pub async fn get_day(shared: web::Data<Shared>) -> Result<web::Json<DayView>, ApiError> {
    Ok(web::Json(laid_out(&shared).await?))
}

/// A block that takes longer.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SlipRequest {
    /// Its lasting name.
    pub block: String,
    /// Minutes longer than thought in all, -600 to 600; 0 takes it back.
    pub minutes: i64,
}

/// Says that a block takes longer; what depends on it moves.
#[utoipa::path(request_body = SlipRequest, responses((status = 200, body = DayView), (status = 422, body = Problem)))]
#[post("/api/day/slips")]
pub async fn slip_block(
    shared: web::Data<Shared>,
    Json(request): Json<SlipRequest>,
) -> Result<web::Json<DayView>, ApiError> {
    #[allow(clippy::cast_precision_loss)] // checked against ten hours
    DAY_SLIP.check(request.minutes as f64).named("minutes")?;
    let ground = read(&shared, ground).await?;
    let (block, planned) = ground.find(&request.block).ok_or_else(no_such_block)?;
    let usual = ground.usual(&block.key).unwrap_or(planned);
    change(&shared, Topic::Day, move |shared| shared.store.set_slip(&block.key, usual, request.minutes))
        .await?;
    Ok(web::Json(laid_out(&shared).await?))
}

pub(crate) fn no_such_block() -> ApiError {
    ApiError::field("block", "the day has no such block; name it as the day does")
}

/// How far a block at the sink is.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MarkRequest {
    /// Its lasting name.
    pub block: String,
    /// How far it is.
    pub mark: Mark,
}

/// Says that work at the sink begins, is done, or waits after all. The kettle, the jars and the canner tell theirs.
#[utoipa::path(request_body = MarkRequest, responses((status = 200, body = DayView), (status = 422, body = Problem)))]
#[post("/api/day/marks")]
pub async fn mark_block(
    shared: web::Data<Shared>,
    Json(request): Json<MarkRequest>,
) -> Result<web::Json<DayView>, ApiError> {
    let ground = read(&shared, ground).await?;
    let MarkRequest { block, mark } = request;
    if ground.find(&block).is_some_and(|(block, _)| !block.is_said) {
        return Err(ApiError::field("block", "the kettle, the jars and the canner tell this themselves"));
    }
    let usual = ground.usual(&block).ok_or_else(no_such_block)?;
    change(&shared, Topic::Day, move |shared| {
        shared.store.mark_block(&block, usual, mark, shared.clock.now())
    })
    .await?;
    Ok(web::Json(laid_out(&shared).await?))
}

/// The day as iCalendar.
#[utoipa::path(responses((status = 200, content_type = "text/calendar")))]
#[get("/api/day.ics")]
pub async fn export_day(shared: web::Data<Shared>) -> Result<HttpResponse, ApiError> {
    let view = laid_out(&shared).await?;
    let meeting = |block: &BlockView| Meeting {
        uid: format!("day-{}@bodega", block.block.key.replace(' ', "-")),
        summary: [
            Some(block.block.work.label().to_owned()),
            block.block.name.clone(),
            block.block.batch.clone(),
        ]
        .into_iter()
        .flatten()
        .collect::<Vec<_>>()
        .join(", "),
        span: (block.starts, block.ends),
    };
    let meetings: Vec<Meeting> = view.blocks.iter().map(meeting).collect();
    Ok(calendar_of(&meetings, view.now))
}
