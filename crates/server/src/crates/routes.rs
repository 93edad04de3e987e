//! Crates over HTTP: weigh-ins by weight or by counted container.

use actix_web::{get, patch, post, put, web};
use bodega_core::crates::slip::{IsItSo, far_below};
use bodega_model::crates::fruit::{Condition, Fault, Kind, SILL_DAYS};
use bodega_model::ledger::food::Food;
use bodega_model::measures::ids::LotId;
use bodega_model::measures::limits::RIPE_SHARE;
use bodega_model::measures::names::check_day;
use bodega_model::records::lot::{Lot, LotChange, NewLot};
use jiff::civil::Date;
use serde::Deserialize;
use utoipa::ToSchema;

use crate::clock::day_of;
use crate::crates::view::LotView;
use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::named::NameRequest;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change, read};
use crate::weight::{Amount, Weight, grams, weigh};

pub(crate) const MINUTES_A_DAY: i64 = 24 * 60;

/// What is weighed in when nobody says.
const fn fruit() -> Food {
    Food::Fruit
}

/// A weigh-in.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LotRequest {
    /// In what form; fruit when it is not said.
    #[serde(default = "fruit")]
    pub food: Food,
    /// How much.
    pub amount: Amount,
    /// Kind of tomato.
    pub kind: Kind,
    /// Condition at sorting.
    pub condition: Condition,
    /// Why it is not for jars; goes with `out`.
    pub fault: Option<Fault>,
    /// Share of it that is ripe, 0 to 100; the rest goes to the sill as a lot of its own. All of it when left out.
    pub ripe_percent: Option<f64>,
    /// Frozen or fresh.
    #[serde(default)]
    pub frozen: bool,
    /// It is as much as was said, though far less than what usually comes in; asked for then.
    #[serde(default)]
    pub sure: bool,
    /// Day it was picked, `YYYY-MM-DD`; today when left out.
    #[schema(value_type = Option<String>, format = Date)]
    pub picked_on: Option<Date>,
}

/// A correction; absent fields stay.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LotChangeRequest {
    /// New weight of the whole lot.
    pub weight: Option<Weight>,
    /// New kind.
    pub kind: Option<Kind>,
    /// New condition.
    pub condition: Option<Condition>,
    /// Taken off the line, or put back.
    pub removed: Option<bool>,
    /// Put into the refrigerator, or out of it.
    pub chilled: Option<bool>,
    /// Thawed, or frozen after all.
    pub thawed: Option<bool>,
}

/// Lots with something left, those that must go first before those that may wait.
#[utoipa::path(responses((status = 200, body = Vec<LotView>)))]
#[get("/api/lots")]
pub async fn list_lots(shared: web::Data<Shared>) -> Result<web::Json<Vec<LotView>>, ApiError> {
    let (lots, now) = read(&shared, |shared| Ok((shared.store.lots()?, shared.clock.now()))).await?;
    let mut views: Vec<LotView> = lots.into_iter().map(|lot| LotView::new(lot, now)).collect();
    views.sort_by_key(LotView::goes);
    Ok(web::Json(views))
}

/// The day fruit was picked: today when it was not said.
fn picked_on(given: Option<Date>, today: Date) -> Result<Date, ApiError> {
    if let Some(day) = given {
        check_day(day).map_err(|error| ApiError::field("picked_on", error))?;
    }
    let day = given.unwrap_or(today);
    if day > today {
        return Err(ApiError::field("picked_on", format!("{day} has not come yet; give today or earlier")));
    }
    Ok(day)
}

/// Where the first of some lots is.
fn lot_address(lots: &[Lot]) -> String {
    lots.first().map_or_else(|| "/api/lots".to_owned(), |lot| format!("/api/lots/{}", lot.id))
}

/// Weighs fruit in: one lot, or two when a share of it is not ripe and goes to the sill.
#[utoipa::path(request_body = LotRequest, responses((status = 201, body = Vec<Lot>), (status = 422, body = Problem)))]
#[post("/api/lots")]
pub async fn add_lot(
    shared: web::Data<Shared>,
    Json(request): Json<LotRequest>,
) -> Result<Created<Vec<Lot>>, ApiError> {
    let picked_on = picked_on(request.picked_on, shared.clock.today())?;
    if request.fault.is_some() && request.condition != Condition::Out {
        return Err(ApiError::field(
            "fault",
            "a fault goes with fruit that is not for jars; leave it out here",
        ));
    }
    let ripe = RIPE_SHARE.check(request.ripe_percent.unwrap_or(100.0)).named("ripe_percent")?;
    if ripe < 100.0 && !request.condition.can_be_canned() {
        return Err(ApiError::field("ripe_percent", "a ripe share goes with fruit that goes on to jars"));
    }
    if request.food.can_wait(None).is_err() {
        let message = format!("{} fills no jar; weigh in tomatoes, juice or cooked food", request.food);
        return Err(ApiError::field("food", message));
    }
    if request.food != Food::Fruit && (request.condition != Condition::FirmRipe || ripe < 100.0) {
        return Err(ApiError::field(
            "condition",
            "only fruit is sorted; leave the condition at firm and ripe",
        ));
    }
    let told = match &request.amount {
        Amount::Measured(told) if told.volume().is_some() => Some(*told),
        _ => None,
    };
    let weight_g = weigh(&shared, request.food, request.amount).await?;
    if request.food == Food::Fruit && !request.sure {
        let past = read(&shared, |shared| shared.store.recent_weights()).await?;
        if let Some(usual_g) = far_below(weight_g, &past) {
            let message = IsItSo { usual_g }.to_string();
            return Err(ApiError::SaySure { field: "amount".to_owned(), message });
        }
    }
    #[allow(clippy::cast_precision_loss, clippy::cast_possible_truncation)] // limited to 5,000 kg
    let ripe_g = (weight_g as f64 * ripe / 100.0).round() as i64;
    let back_on = day_of(shared.clock.now().plus_minutes(SILL_DAYS * MINUTES_A_DAY));
    let lot = |condition: Condition, weight_g| NewLot {
        food: request.food,
        told,
        picked_on,
        kind: request.kind,
        condition,
        fault: request.fault,
        back_on: (condition == Condition::Unripe).then_some(back_on),
        frozen: request.frozen,
        weight_g,
    };
    let lots: Vec<NewLot> = [lot(request.condition, ripe_g), lot(Condition::Unripe, weight_g - ripe_g)]
        .into_iter()
        .filter(|lot| lot.weight_g > 0)
        .collect();
    let body =
        change(&shared, Topic::Everything, move |shared| shared.store.add_lots(&lots, shared.clock.now()))
            .await?;
    Ok(Created { at: lot_address(&body), body })
}

/// Corrects a lot, takes it off the line or puts it back.
#[utoipa::path(params(("id" = i64, Path)), request_body = LotChangeRequest,
    responses((status = 200, body = Lot), (status = 404, body = Problem), (status = 409, body = Problem),
              (status = 422, body = Problem)))]
#[patch("/api/lots/{id}")]
pub async fn change_lot(
    shared: web::Data<Shared>,
    id: web::Path<LotId>,
    Json(request): Json<LotChangeRequest>,
) -> Result<web::Json<Lot>, ApiError> {
    let wanted = LotChange {
        kind: request.kind,
        condition: request.condition,
        weight_g: request.weight.map(|weight| grams(weight, "weight")).transpose()?,
        removed: request.removed,
        chilled: request.chilled,
        thawed: request.thawed,
    };
    Ok(web::Json(
        change(&shared, Topic::Everything, move |shared| {
            shared.store.change_lot(*id, &wanted, shared.clock.now())
        })
        .await?,
    ))
}

/// Names a lot, and writes a note beside it.
#[utoipa::path(params(("id" = i64, Path)), request_body = NameRequest,
    responses((status = 200, body = Lot), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/lots/{id}/name")]
pub async fn name_lot(
    shared: web::Data<Shared>,
    id: web::Path<LotId>,
    Json(request): Json<NameRequest>,
) -> Result<web::Json<Lot>, ApiError> {
    let (name, note) = request.checked()?;
    let done = change(&shared, Topic::Everything, move |shared| {
        shared.store.name_lot(*id, name.as_deref(), note.as_deref())
    });
    Ok(web::Json(done.await?))
}

/// One lot.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = LotView), (status = 404, body = Problem)))]
#[get("/api/lots/{id}")]
pub async fn get_lot(
    shared: web::Data<Shared>,
    id: web::Path<LotId>,
) -> Result<web::Json<LotView>, ApiError> {
    let (lot, now) = read(&shared, move |shared| Ok((shared.store.lot(*id)?, shared.clock.now()))).await?;
    Ok(web::Json(LotView::new(lot, now)))
}
