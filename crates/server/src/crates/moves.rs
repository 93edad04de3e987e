//! What leaves a crate other than for jars: a part for the freezer, water off thawed fruit, some for the neighbour.

use actix_web::{post, web};
use bodega_model::ledger::food::{Food, FoodMeasure, FoodPlace, Told};
use bodega_model::measures::ids::LotId;
use bodega_model::measures::units::{Mass, grams};
use bodega_model::plan::making::juice_brix;
use bodega_model::records::lot::{Lot, LotChange};
use bodega_model::records::moved::{Moved, Source};
use uom::si::mass::kilogram;

use crate::created::Created;
use crate::food::{FoodMoveRequest, Here};
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, Problem};
use crate::state::{Shared, change, read};

/// A weight as somebody would tell it.
pub(crate) fn as_told(mass: Mass) -> Told {
    Told { amount: mass.get::<kilogram>(), measure: FoodMeasure::Kilogram }
}

/// What there is of a lot.
fn here(lot: &Lot) -> Here {
    let left = as_told(grams(lot.left_g));
    // Of juice that was told in quarts, the rest is told in quarts.
    let told = lot.told.map_or(left, |told| {
        #[allow(clippy::cast_precision_loss)] // grams of a lot
        let share = lot.left_g as f64 / lot.weight_g as f64;
        Told { amount: told.amount * share, ..told }
    });
    Here {
        from: Source::Lot(lot.id),
        food: lot.food,
        product: None,
        left: Some((lot.left_g, told)),
        product_brix: juice_brix(lot.kind),
    }
}

/// Writes down what leaves a lot; water poured off says that it thawed.
#[utoipa::path(params(("id" = i64, Path)), request_body = FoodMoveRequest,
    responses((status = 201, body = Moved), (status = 404, body = Problem), (status = 409, body = Problem),
              (status = 422, body = Problem)))]
#[post("/api/lots/{id}/moves")]
pub async fn move_lot(
    shared: web::Data<Shared>,
    id: web::Path<LotId>,
    Json(request): Json<FoodMoveRequest>,
) -> Result<Created<Moved>, ApiError> {
    let id = *id;
    let lot = read(&shared, move |shared| shared.store.lot(id)).await?;
    let is_water = request.food == Some(Food::Water);
    if is_water && !lot.frozen {
        return Err(ApiError::field(
            "food",
            "water is poured off frozen fruit that thaws; this was never frozen",
        ));
    }
    if is_water && request.told.is_none() {
        return Err(ApiError::field("told", "say how much ran off, such as 1.5 quarts"));
    }
    if request.place == FoodPlace::Line {
        return Err(ApiError::field("place", "it waits on the line already"));
    }
    let new = request.checked(&here(&lot))?;
    let done = change(&shared, Topic::Everything, move |shared| {
        let (now, today) = (shared.clock.now(), shared.clock.today());
        let moved = shared.store.add_move(&new, now, today)?;
        if is_water && lot.thawed_at.is_none() {
            let thawed = LotChange { thawed: Some(true), ..LotChange::default() };
            shared.store.change_lot(id, &thawed, now)?;
        }
        Ok(moved)
    });
    let body = done.await?;
    Ok(Created { at: format!("/api/moves/{}", body.id), body })
}
