//! A recipe that is made and not canned: for the refrigerator, the freezer or the table.

use actix_web::{post, web};
use bodega_core::plan::by_recipe::tomatoes;
use bodega_core::recipe::page::parts_of;
use bodega_core::recipe::scale::scaled;
use bodega_model::measures::amounts::exact;
use bodega_model::measures::ids::{BowlsId, LotId, RecipeId};
use bodega_model::measures::limits::RECIPE_TIMES;
use bodega_model::records::batch::Batch;
use serde::Deserialize;
use utoipa::ToSchema;

use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::recipe::begin::{Begin, fruit};
use crate::state::{Shared, answer};

/// A recipe to make without canning it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ColdRequest {
    /// How many times, 0.01 to 1,000; of bowls that stand out already, what they were set out for counts.
    pub factor: f64,
    /// Lots that its tomatoes come from, as much of each as it takes; none when they were not weighed in.
    #[serde(default)]
    pub lots: Vec<LotId>,
    /// Bowls that stand out already; new ones are set out when they are left out.
    pub bowls: Option<BowlsId>,
}

/// Begins a batch by a recipe of which nothing is canned: its tomatoes are drawn and its bowls set out, and where it went is told
/// as moves of the batch. Any recipe can be made so, tested or not.
#[utoipa::path(params(("id" = i64, Path)), request_body = ColdRequest,
    responses((status = 201, body = Batch), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
#[post("/api/recipes/{id}/cold")]
pub async fn begin_cold(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
    Json(request): Json<ColdRequest>,
) -> Result<Created<Batch>, ApiError> {
    RECIPE_TIMES.check(request.factor).named("factor")?;
    let begun = answer(&shared, move |shared| {
        let store = &shared.store;
        let (recipe, kitchen) = (store.recipe(*id)?, store.kitchen()?);
        let bowls = request.bowls.map(|bowls| store.bowls(bowls)).transpose()?;
        if bowls.as_ref().is_some_and(|bowls| bowls.recipe != *id) {
            return Err(ApiError::field("bowls", "these bowls are of another recipe; choose its own"));
        }
        let factor = bowls.as_ref().map_or(request.factor, |bowls| bowls.factor);
        let scaled = scaled(&parts_of(&recipe.text), &exact(factor));
        let lots = fruit(&store.lots()?, &request.lots)?;
        let begin = Begin {
            id: recipe.id,
            text: &recipe.text,
            process: None,
            canner: &kitchen.canner,
            // Nothing is looked up for it.
            altitude_ft: kitchen.altitude().map_or(0.0, |altitude| altitude.feet()),
            draws: tomatoes(&scaled, &lots).draws,
            loads: Vec::new(),
            factor,
            scaled: &scaled,
            bowls: bowls.map(|bowls| bowls.id),
        };
        Ok(store.add_batch(&begin.batch(shared.clock.today()), shared.clock.now())?)
    });
    let body = begun.await?;
    shared.live.changed(Topic::Everything);
    Ok(Created { at: format!("/api/batches/{}", body.id), body })
}
