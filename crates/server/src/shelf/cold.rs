//! Food in the refrigerator and the freezer over HTTP: what is there and until when, and how it leaves.

use actix_web::{HttpResponse, delete, get, post, web};
use bodega_model::ledger::food::{FoodPlace, Told};
use bodega_model::ledger::keep::{Wait, cold_keeps};
use bodega_model::measures::ids::MoveId;
use bodega_model::records::moved::{ColdFood, Moved, Source};
use serde::Serialize;
use utoipa::ToSchema;

use crate::clock::day_of;
use crate::created::Created;
use crate::food::{FoodMoveRequest, Here};
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, change, read};

/// Food in the cold and until when it keeps.
#[derive(Debug, Serialize, ToSchema)]
pub struct ColdFoodView {
    /// The food.
    #[serde(flatten)]
    pub food: ColdFood,
    /// What it is, by its name.
    pub words: String,
    /// Whether it may go back onto the line for other jars.
    pub may_wait: bool,
    /// Until when it keeps.
    pub wait: Option<Wait>,
    /// Whether that is over.
    pub is_late: bool,
}

/// Food in the refrigerator and the freezer, oldest first.
#[utoipa::path(responses((status = 200, body = Vec<ColdFoodView>)))]
#[get("/api/cold_food")]
pub async fn list_cold_food(shared: web::Data<Shared>) -> Result<web::Json<Vec<ColdFoodView>>, ApiError> {
    let now = shared.clock.now();
    let view = move |food: ColdFood| {
        let wait = cold_keeps(food.food, food.place, food.at);
        let is_late = wait.is_some_and(|wait| wait.is_over(now, day_of(now)));
        ColdFoodView {
            words: food.words(),
            may_wait: food.food.can_wait(food.product).is_ok(),
            food,
            wait,
            is_late,
        }
    };
    let foods = read(&shared, |shared| shared.store.cold_food()).await?;
    Ok(web::Json(foods.into_iter().map(view).collect()))
}

/// What there is of something in the cold; packs that are taken out weigh their share.
fn here(food: &ColdFood, packs: Option<u32>) -> Result<Here, ApiError> {
    let (left_g, share) = match (packs, food.packs) {
        (None, _) | (_, None) => (food.left_g, 1.0),
        (Some(out), Some(left)) if out <= left => {
            let share = f64::from(out) / f64::from(left);
            #[allow(clippy::cast_precision_loss, clippy::cast_possible_truncation)] // grams of a household
            let grams = if out == left { food.left_g } else { (food.left_g as f64 * share).round() as i64 };
            (grams.max(1), share)
        }
        (Some(_), Some(left)) => {
            return Err(ApiError::field("packs", format!("{left} packs are left; take as many or fewer")));
        }
    };
    #[allow(clippy::cast_precision_loss)] // grams of a household
    let of_all = food.left_g as f64 / food.weight_g as f64 * share;
    let told = Told { amount: food.told.amount * of_all, ..food.told };
    Ok(Here {
        from: Source::Cold(food.id),
        food: food.food,
        product: food.product,
        left: Some((left_g, told)),
        product_brix: 5.0,
    })
}

/// Something leaves the refrigerator or the freezer: eaten, given away, thrown away, or back onto the line.
#[utoipa::path(params(("id" = i64, Path)), request_body = FoodMoveRequest,
    responses((status = 201, body = Moved), (status = 404, body = Problem), (status = 409, body = Problem),
              (status = 422, body = Problem)))]
#[post("/api/cold_food/{id}/moves")]
pub async fn move_cold_food(
    shared: web::Data<Shared>,
    id: web::Path<MoveId>,
    Json(request): Json<FoodMoveRequest>,
) -> Result<Created<Moved>, ApiError> {
    let id = *id;
    let foods = read(&shared, |shared| shared.store.cold_food()).await?;
    let food = foods
        .into_iter()
        .find(|food| food.id == id)
        .ok_or(ApiError::Store(bodega_store::StoreError::NotFound { what: "food in the cold", id: id.0 }))?;
    if request.food.is_some_and(|other| other != food.food) {
        return Err(ApiError::field("food", format!("this is {}; leave the food out", food.food)));
    }
    if request.place == food.place {
        return Err(ApiError::field("place", "it is there already"));
    }
    if request.place == FoodPlace::Dried {
        return Err(ApiError::field("place", "what is dried comes fresh from a batch; choose another place"));
    }
    let new = request.checked(&here(&food, request.packs)?)?;
    let body = change(&shared, Topic::Everything, move |shared| {
        shared.store.add_move(&new, shared.clock.now(), shared.clock.today())
    })
    .await?;
    Ok(Created { at: format!("/api/moves/{}", body.id), body })
}

/// One move of food.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = Moved), (status = 404, body = Problem)))]
#[get("/api/moves/{id}")]
pub async fn get_move(
    shared: web::Data<Shared>,
    id: web::Path<MoveId>,
) -> Result<web::Json<Moved>, ApiError> {
    Ok(web::Json(read(&shared, move |shared| shared.store.moved(*id)).await?))
}

/// Takes back what was told of a part; what became of it goes with it.
#[utoipa::path(params(("id" = i64, Path)),
    responses((status = 204), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/api/moves/{id}")]
pub async fn undo_move(shared: web::Data<Shared>, id: web::Path<MoveId>) -> Result<HttpResponse, ApiError> {
    change(&shared, Topic::Everything, move |shared| shared.store.undo_move(*id, shared.clock.now())).await?;
    Ok(HttpResponse::NoContent().finish())
}
