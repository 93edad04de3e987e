//! Batches on the line.

use actix_web::{get, patch, put, web};
use bodega_core::plan::checklist::{Sheet, SheetRecipe, Step, Thawed, steps};
use bodega_core::recipe::bowls::planned;
use bodega_model::contents::Added;
use bodega_model::ledger::food::Food;
use bodega_model::measures::ids::BatchId;
use bodega_model::recipe::part::Part;
use bodega_model::records::batch::{Batch, Liking};
use bodega_model::records::jar::count_sizes;
use bodega_model::records::recipe::Bowls;
use bodega_store::{Store, StoreError};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

use crate::json::Json;
use crate::live::Topic;
use crate::named::NameRequest;
use crate::plan::ground::check_additions;
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, change, read};
use crate::who::Who;

/// A batch with its checklist.
#[derive(Debug, Serialize, ToSchema)]
pub struct BatchSheet {
    /// The batch.
    pub batch: Batch,
    /// What to do, in working order.
    pub steps: Vec<Step>,
    /// Words of those that are ticked.
    pub ticks: Vec<String>,
}

/// Taking a batch off the line, or putting it back; what waits until tomorrow. Absent fields stay.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BatchChangeRequest {
    /// Whether it is off the line.
    pub removed: Option<bool>,
    /// Whether its fruit is in the freezer then; together with `removed`.
    pub frozen: Option<bool>,
    /// Whether its juice waits overnight in the refrigerator.
    pub chilled: Option<bool>,
}

/// Which batches to list.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum BatchState {
    /// Those that still have jars to process, in the order in which they were planned.
    #[default]
    Open,
    /// Those that were not taken off the line, newest first, at most 200 at a time.
    All,
}

/// What to look for.
#[derive(Debug, Clone, Copy, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct BatchQuery {
    /// Which ones; the open ones when nothing is said.
    #[serde(default)]
    pub state: BatchState,
    /// Of all: only those before this one; the last of the page before.
    pub before: Option<i64>,
}

/// Batches of one page of all of them.
const PAGE: u32 = 200;

/// Batches.
#[utoipa::path(params(BatchQuery), responses((status = 200, body = Vec<Batch>), (status = 422, body = Problem)))]
#[get("/api/batches")]
pub async fn list_batches(
    shared: web::Data<Shared>,
    query: web::Query<BatchQuery>,
) -> Result<web::Json<Vec<Batch>>, ApiError> {
    let batches = read(&shared, move |shared| match query.state {
        BatchState::Open => shared.store.open_batches(),
        BatchState::All => shared.store.batches_before(query.before.map(BatchId), PAGE),
    });
    Ok(web::Json(batches.await?))
}

/// One batch.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = Batch), (status = 404, body = Problem)))]
#[get("/api/batches/{id}")]
pub async fn get_batch(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
) -> Result<web::Json<Batch>, ApiError> {
    Ok(web::Json(read(&shared, move |shared| shared.store.batch(*id)).await?))
}

/// Takes a batch off the line, giving its fruit back, or puts it back; or has its juice wait overnight.
#[utoipa::path(params(("id" = i64, Path)), request_body = BatchChangeRequest,
    responses((status = 200, body = Batch), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[patch("/api/batches/{id}")]
pub async fn change_batch(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
    Json(request): Json<BatchChangeRequest>,
) -> Result<web::Json<Batch>, ApiError> {
    let BatchChangeRequest { removed, frozen, chilled } = request;
    if frozen.is_some() && removed.is_none() {
        return Err(ApiError::field(
            "frozen",
            "goes with removed: the fruit of a batch that leaves the line",
        ));
    }
    if removed.is_none() && chilled.is_none() {
        return Err(ApiError::field("removed", "say whether it is removed or chilled"));
    }
    let done = change(&shared, Topic::Everything, move |shared| {
        let now = shared.clock.now();
        if let Some(removed) = removed {
            shared.store.remove_batch(*id, removed, frozen, now)?;
        }
        chilled.map_or_else(|| shared.store.batch(*id), |chilled| shared.store.chill_batch(*id, chilled, now))
    });
    Ok(web::Json(done.await?))
}

/// Names a batch, on its labels too, and writes a note beside it.
#[utoipa::path(params(("id" = i64, Path)), request_body = NameRequest,
    responses((status = 200, body = Batch), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/batches/{id}/name")]
pub async fn name_batch(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
    Json(request): Json<NameRequest>,
) -> Result<web::Json<Batch>, ApiError> {
    let (name, note) = request.checked()?;
    let done = change(&shared, Topic::Everything, move |shared| {
        shared.store.name_batch(*id, name.as_deref(), note.as_deref())
    });
    Ok(web::Json(done.await?))
}

/// Whether a batch would be made again.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LikingRequest {
    /// `null` when nobody knows.
    pub liked: Option<Liking>,
}

/// Says whether a batch would be made again; why stands in its note.
#[utoipa::path(params(("id" = i64, Path)), request_body = LikingRequest,
    responses((status = 200, body = Batch), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/batches/{id}/liked")]
pub async fn like_batch(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
    Json(request): Json<LikingRequest>,
) -> Result<web::Json<Batch>, ApiError> {
    let done = change(&shared, Topic::Everything, move |shared| shared.store.like_batch(*id, request.liked));
    Ok(web::Json(done.await?))
}

/// What else goes into a batch.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AdditionsRequest {
    /// An empty list for nothing.
    pub additions: Vec<Added>,
}

/// Says what else goes into a batch: at the plan, or later when it was not said then.
#[utoipa::path(params(("id" = i64, Path)), request_body = AdditionsRequest,
    responses((status = 200, body = Batch), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/batches/{id}/additions")]
pub async fn set_additions(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
    who: Who,
    Json(request): Json<AdditionsRequest>,
) -> Result<web::Json<Batch>, ApiError> {
    check_additions(Some(&request.additions))?;
    let done = change(&shared, Topic::Everything, move |shared| {
        shared.store.set_additions(*id, &request.additions, &who.tells(shared.clock.now()))
    });
    Ok(web::Json(done.await?))
}

/// What a batch's checklist is made of.
pub(crate) fn sheet(store: &Store, batch: &Batch) -> Result<Sheet, StoreError> {
    let bowls = batch.bowls.map(|bowls| store.any_bowls(bowls)).transpose()?;
    let parts = |bowls: &Bowls| planned(bowls).iter().map(Part::says).collect();
    let loads = store.batch_loads(batch.id)?;
    let lots = store.batch_lots(batch.id)?;
    Ok(Sheet {
        foods: lots.iter().map(|(lot, _)| lot.food).collect(),
        thawed: Thawed::of(lots.iter().filter(|(lot, _)| lot.food == Food::Fruit).map(|(lot, _)| lot.frozen)),
        making: batch.making(),
        recipe: batch.recipe.as_ref().map(|recipe| SheetRecipe {
            name: recipe.name.clone(),
            source: recipe.source.clone(),
            parts: bowls.as_ref().map(parts).unwrap_or_default(),
            doses: recipe.doses.iter().map(Part::says).collect(),
            headspace_in: recipe.headspace_in(),
        }),
        jars: count_sizes(loads.iter().flat_map(|load| &load.jars).filter(|jar| jar.batch == batch.id)),
        additions: batch.additions.clone(),
        agent: batch.agent,
        spoons: store.kitchen()?.spoons,
        salt: batch.salt,
        rest: batch.rest,
        method: batch.method,
        loads: loads
            .iter()
            .map(|load| {
                let count = u32::try_from(load.jars.len()).unwrap_or(u32::MAX);
                (count, load.clock.required(), load.psi)
            })
            .collect(),
    })
}

/// The checklist of a batch.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = BatchSheet), (status = 404, body = Problem)))]
#[get("/api/batches/{id}/checklist")]
pub async fn get_checklist(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
) -> Result<web::Json<BatchSheet>, ApiError> {
    let (sheet, ticks, batch) = read(&shared, move |Shared { store, .. }| {
        let batch = store.batch(*id)?;
        Ok((sheet(store, &batch)?, store.ticks(*id)?, batch))
    })
    .await?;
    Ok(web::Json(BatchSheet { steps: steps(&sheet), ticks, batch }))
}

/// A line of a checklist.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TickRequest {
    /// Its words, as the list has them.
    pub line: String,
    /// Whether it is done.
    pub done: bool,
}

/// Ticks a line of a batch's checklist, or takes its tick off; gives the ticked lines.
#[utoipa::path(params(("id" = i64, Path)), request_body = TickRequest,
    responses((status = 200, body = Vec<String>), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/batches/{id}/checklist")]
pub async fn tick_checklist(
    shared: web::Data<Shared>,
    id: web::Path<BatchId>,
    Json(request): Json<TickRequest>,
) -> Result<web::Json<Vec<String>>, ApiError> {
    let id = *id;
    let known =
        read(&shared, move |Shared { store, .. }| Ok(steps(&sheet(store, &store.batch(id)?)?))).await?;
    if !known.iter().any(|step| step.text == request.line) {
        return Err(ApiError::field("line", "the list has no such line; name it in the list's own words"));
    }
    Ok(web::Json(
        change(&shared, Topic::Checklist, move |shared| shared.store.tick(id, &request.line, request.done))
            .await?,
    ))
}
