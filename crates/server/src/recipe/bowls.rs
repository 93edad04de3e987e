//! What stands in the bowls of a recipe, over HTTP.

use actix_web::{get, patch, post, web};
use bodega_core::recipe::back::{changed, ways_back_filled};
use bodega_core::recipe::bowls::{as_planned, empty, with_strength};
use bodega_core::recipe::page::parts_of;
use bodega_core::recipe::scale::scaled;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::amounts::exact;
use bodega_model::measures::ids::{BowlsId, RecipeId};
use bodega_model::measures::limits::{RECIPE_AMOUNT, RECIPE_PARTS, RECIPE_TIMES};
use bodega_model::recipe::part::{Part, Strength};
use bodega_model::records::recipe::Bowls;
use bodega_store::StoreError;
use serde::Deserialize;
use utoipa::ToSchema;

use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::recipe::view::{BowlsView, bowls_view};
use crate::state::{Shared, answer, change, read};

/// Bowls to set out.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BowlsRequest {
    /// How many times the recipe is made, 0.01 to 1,000.
    pub factor: f64,
}

/// How much is in one bowl.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BowlAmount {
    /// Which, by its place from 0 on.
    pub place: usize,
    /// How much, in its measure, 0 to 100,000; `null` while nobody has measured it.
    pub amount: Option<f64>,
}

/// What is to be written down of bowls; what is left out stays.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BowlsChange {
    /// How much is in some of them.
    pub amounts: Option<Vec<BowlAmount>>,
    /// Everything is in as the card says: what nobody measured yet is written down so.
    #[serde(default)]
    pub as_planned: bool,
    /// How strong the vinegar in them is.
    pub strength: Option<Strength>,
    /// Something else that went in.
    pub add: Option<Part>,
    /// Whether it is mixed.
    pub mixed: Option<bool>,
    /// A way back that is taken, by its place.
    pub way: Option<usize>,
    /// Whether they are put away.
    pub away: Option<bool>,
}

impl BowlsChange {
    /// What is in the bowls then.
    fn on(&self, bowls: &Bowls, jars: &[(JarSize, u32)], mixed: bool) -> Result<Vec<Part>, ApiError> {
        let mut actual = bowls.actual.clone();
        if self.as_planned {
            actual = as_planned(bowls, actual);
        }
        if let Some(strength) = self.strength {
            actual = with_strength(strength, actual);
        }
        for (at, said) in self.amounts.iter().flatten().enumerate() {
            let part = actual.get_mut(said.place).ok_or_else(|| {
                ApiError::field(
                    format!("amounts[{at}].place"),
                    "there is no such bowl; look at the bowls again",
                )
            })?;
            part.amount = said.amount;
        }
        actual.extend(self.add.clone());
        #[allow(clippy::cast_precision_loss)] // a count
        RECIPE_PARTS.check(actual.len() as f64).named("add")?;
        if let Some(place) = self.way {
            let ways = ways_back_filled(&bowls.base, &actual, jars, mixed);
            let way = ways.get(place).ok_or_else(|| {
                ApiError::field("way", "this way back is not open any more; look at the bowls again")
            })?;
            actual = changed(&bowls.base, &actual, way);
        }
        Ok(actual)
    }

    fn check(&self) -> Result<(), ApiError> {
        for (place, said) in self.amounts.iter().flatten().enumerate() {
            if let Some(amount) = said.amount {
                RECIPE_AMOUNT.check(amount).named(format_args!("amounts[{place}].amount"))?;
            }
        }
        let Some(part) = &self.add else { return Ok(()) };
        part.check().map_err(|error| ApiError::field(format!("add.{}", error.field()), error))
    }
}

/// The bowls of a recipe that are not put away.
#[utoipa::path(params(("id" = i64, Path)),
    responses((status = 200, body = Vec<BowlsView>), (status = 404, body = Problem)))]
#[get("/api/recipes/{id}/bowls")]
pub async fn list_bowls(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
) -> Result<web::Json<Vec<BowlsView>>, ApiError> {
    let found = read(&shared, move |shared| {
        let all = shared.store.bowls_of(*id)?;
        all.into_iter().map(|bowls| bowls_view(shared, bowls)).collect::<Result<Vec<_>, StoreError>>()
    });
    Ok(web::Json(found.await?))
}

/// Sets bowls out: each part with nothing measured yet.
#[utoipa::path(params(("id" = i64, Path)), request_body = BowlsRequest,
    responses((status = 201, body = BowlsView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/recipes/{id}/bowls")]
pub async fn add_bowls(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
    Json(request): Json<BowlsRequest>,
) -> Result<Created<BowlsView>, ApiError> {
    let factor = RECIPE_TIMES.check(request.factor).named("factor")?;
    let body = change(&shared, Topic::Everything, move |shared| {
        let base = parts_of(&shared.store.recipe(*id)?.text);
        let empty = empty(&scaled(&base, &exact(factor)));
        let bowls = shared.store.add_bowls(*id, factor, (&base, &empty), shared.clock.now())?;
        bowls_view(shared, bowls)
    })
    .await?;
    Ok(Created { at: format!("/api/bowls/{}", body.id), body })
}

/// Bowls of a recipe.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = BowlsView), (status = 404, body = Problem)))]
#[get("/api/bowls/{id}")]
pub async fn get_bowls(
    shared: web::Data<Shared>,
    id: web::Path<BowlsId>,
) -> Result<web::Json<BowlsView>, ApiError> {
    let found = read(&shared, move |shared| bowls_view(shared, shared.store.bowls(*id)?));
    Ok(web::Json(found.await?))
}

/// Writes down what is in the bowls, that it is mixed, that a way back was taken, or that they are put away: `null` then.
#[utoipa::path(params(("id" = i64, Path)), request_body = BowlsChange,
    responses((status = 200, body = Option<BowlsView>), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[patch("/api/bowls/{id}")]
pub async fn change_bowls(
    shared: web::Data<Shared>,
    id: web::Path<BowlsId>,
    Json(request): Json<BowlsChange>,
) -> Result<web::Json<Option<BowlsView>>, ApiError> {
    request.check()?;
    let kept = answer(&shared, move |shared| {
        if let Some(away) = request.away {
            shared.store.remove_bowls(*id, away, shared.clock.now())?;
            if away {
                return Ok(None);
            }
        }
        let jars = shared.store.jars_of_bowls(*id)?;
        let kept = shared.store.change_bowls(*id, |bowls| {
            let mixed_at = match request.mixed {
                Some(true) => bowls.mixed_at.or_else(|| Some(shared.clock.now())),
                Some(false) => None,
                None => bowls.mixed_at,
            };
            Ok::<_, ApiError>((request.on(&bowls, &jars, mixed_at.is_some())?, mixed_at))
        })?;
        Ok(Some(bowls_view(shared, kept)?))
    });
    let kept = kept.await?;
    shared.live.changed(Topic::Everything);
    Ok(web::Json(kept))
}
