//! What was made by a recipe, over HTTP: how often, from what, what was changed, what it became, and whether it was liked.

use actix_web::{get, web};
use bodega_core::recipe::bowls::changes;
use bodega_model::measures::ids::RecipeId;
use bodega_model::records::batch::Batch;
use bodega_store::{Store, StoreError};
use serde::Serialize;
use utoipa::ToSchema;

use crate::plan::view::JarCount;
use crate::problem::{ApiError, Problem};
use crate::recipe::view::{Went, went};
use crate::state::{Shared, read};

/// Batches of a recipe that are told at once.
const MOST: u32 = 20;

/// A batch that was made by a recipe.
#[derive(Debug, Serialize, ToSchema)]
pub struct MadeBatch {
    /// The batch, with its name, its note and whether it was liked.
    pub batch: Batch,
    /// How many times the recipe it was.
    pub factor: f64,
    /// The lots that its tomatoes came from; empty when they were not weighed in.
    pub from: Vec<String>,
    /// What went in otherwise than the card asks.
    pub changed: Vec<String>,
    /// Its jars, by size.
    pub jars: Vec<JarCount>,
    /// What went elsewhere.
    pub went: Vec<Went>,
    /// The last pH that was read of it.
    pub ph: Option<f64>,
}

/// A recipe's history.
#[derive(Debug, Serialize, ToSchema)]
pub struct RecipeHistory {
    /// How often it was made.
    pub times: u32,
    /// The last of them, newest first.
    pub made: Vec<MadeBatch>,
}

fn made(store: &Store, batch: Batch) -> Result<MadeBatch, StoreError> {
    let bowls = batch.bowls.map(|bowls| store.any_bowls(bowls)).transpose()?;
    Ok(MadeBatch {
        factor: bowls.as_ref().map_or(1.0, |bowls| bowls.factor),
        from: store.batch_lots(batch.id)?.iter().map(|(lot, _)| lot.words()).collect(),
        changed: bowls.as_ref().map(changes).unwrap_or_default(),
        jars: store.batch_sizes(batch.id)?.into_iter().map(|(jar, count)| JarCount { jar, count }).collect(),
        went: went(store, batch.id)?,
        ph: store.ph_of(&batch)?.last().map(|reading| reading.ph),
        batch,
    })
}

/// What was made by a recipe: how often, and the last twenty times.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = RecipeHistory), (status = 404, body = Problem)))]
#[get("/api/recipes/{id}/history")]
pub async fn get_recipe_history(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
) -> Result<web::Json<RecipeHistory>, ApiError> {
    let history = read(&shared, move |Shared { store, .. }| {
        store.any_recipe(*id)?;
        let all = store.batches_by(*id, MOST)?;
        Ok(RecipeHistory {
            times: store.times_made(*id)?,
            made: all.into_iter().map(|batch| made(store, batch)).collect::<Result<_, _>>()?,
        })
    });
    Ok(web::Json(history.await?))
}
