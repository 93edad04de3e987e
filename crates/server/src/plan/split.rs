//! The best split over HTTP: what the waiting fruit should become.

use actix_web::{post, web};
use bodega_core::plan::split::{NoSplit, Question, Split, split};
use bodega_model::records::batch::Batch;

use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::plan::split_model::{answer, batch_of, question, refuse, shared_loads};
use crate::plan::split_view::{SplitAnswer, SplitRequest};
use crate::plan::table::{Table, set_table};
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, change, off_thread};

/// Works the best split out; off the async threads, because it is solved several times.
pub(crate) async fn solve<T: Send + 'static>(
    table: Table,
    request: SplitRequest,
    then: impl FnOnce(&Table, &Question<'_>, &Split) -> Result<T, NoSplit> + Send + 'static,
) -> Result<T, ApiError> {
    let work = move || {
        let question = question(&table, &request)?;
        let found = split(&question).map_err(|error| refuse(&error))?;
        then(&table, &question, &found).map_err(|error| refuse(&error))
    };
    off_thread(work).await?
}

/// How much of each lot should go to which product in which jars.
#[utoipa::path(request_body = SplitRequest,
    responses((status = 200, body = SplitAnswer), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/plan/split")]
pub async fn best_split(
    shared: web::Data<Shared>,
    Json(request): Json<SplitRequest>,
) -> Result<web::Json<SplitAnswer>, ApiError> {
    let table = set_table(&shared, &request.lots).await?;
    Ok(web::Json(solve(table, request, answer).await?))
}

/// Accepts the best split: a batch for every choice that has jars, all of them or none.
#[utoipa::path(request_body = SplitRequest,
    responses((status = 201, body = Vec<Batch>), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/batches/split")]
pub async fn accept_split(
    shared: web::Data<Shared>,
    Json(request): Json<SplitRequest>,
) -> Result<Created<Vec<Batch>>, ApiError> {
    let table = set_table(&shared, &request.lots).await?;
    let agent = request.agent;
    let day = shared.clock.today();
    let (batches, loads) = solve(table, request, move |table, question, found| {
        let batches = question
            .choices
            .iter()
            .zip(&found.shares)
            .filter(|(_, share)| share.jars > 0)
            .map(|(choice, share)| batch_of(table, choice, share, agent, day))
            .collect::<Result<Vec<_>, _>>()?;
        Ok((batches, shared_loads(found)))
    })
    .await?;
    if batches.is_empty() {
        return Err(ApiError::field("lots", "the split fills no jar; take more fruit, jars or hours"));
    }
    let done = change(&shared, Topic::Everything, move |shared| {
        shared.store.add_batches(&batches, &loads, shared.clock.now())
    });
    let body = done.await?;
    Ok(Created { at: "/api/batches".to_owned(), body })
}
