//! Crates: weigh-ins by weight or by counted container.

use actix_web::{get, patch, post, web};
use bodega_core::findings::Finding;
use bodega_core::fruit::{Condition, Fault, KNOWN_CONTAINERS, Kind, SILL_DAYS};
use bodega_core::limits::{CONTAINERS, RIPE_SHARE, WEIGHT};
use bodega_core::units::{Mass, kilograms, pounds};
use bodega_store::{Lot, LotChange, NewLot};
use serde::{Deserialize, Serialize};
use uom::si::mass::{gram, kilogram};
use utoipa::ToSchema;

use crate::app::{Shared, change, read};
use crate::clock::day_of;
use crate::json::Json;
use crate::judging::lot_findings;
use crate::problem::{ApiError, NameField, Problem};

const MINUTES_A_DAY: i64 = 24 * 60;

/// Unit a person reads off a scale.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WeightUnit {
    /// Pounds.
    Lb,
    /// Kilograms.
    Kg,
}

/// A weight as it was read.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
pub struct Weight {
    /// The number on the scale.
    pub value: f64,
    /// Its unit.
    pub unit: WeightUnit,
}

/// How much fruit: weighed, or counted in containers.
#[derive(Debug, Clone, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Amount {
    /// Read off a scale.
    Weighed(Weight),
    /// So many containers of one kind, known or taught.
    Counted {
        /// Name of the container.
        container: String,
        /// How many, 0.01 to 500.
        count: f64,
    },
}

/// A weigh-in.
#[derive(Debug, Deserialize, ToSchema)]
pub struct LotRequest {
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
    /// Day it was picked, `YYYY-MM-DD`; today when left out.
    pub picked_on: Option<String>,
}

/// A correction; absent fields stay.
#[derive(Debug, Deserialize, ToSchema)]
pub struct LotChangeRequest {
    /// New weight of the whole lot.
    pub weight: Option<Weight>,
    /// New kind.
    pub kind: Option<Kind>,
    /// New condition.
    pub condition: Option<Condition>,
    /// Taken off the line, or put back.
    pub removed: Option<bool>,
}

fn mass(weight: Weight, field: &str) -> Result<Mass, ApiError> {
    let mass = match weight.unit {
        WeightUnit::Lb => pounds(weight.value),
        WeightUnit::Kg => kilograms(weight.value),
    };
    WEIGHT.check(mass.get::<kilogram>()).named(&format!("{field}.value"))?;
    Ok(mass)
}

/// Whole grams of a checked mass; half a gram is below any kitchen scale.
fn whole_grams(mass: Mass) -> i64 {
    // Limited to 5,000 kg, far inside i64.
    #[allow(clippy::cast_possible_truncation)]
    let grams = mass.get::<gram>().round() as i64;
    grams
}

/// Whole grams of a weight as it was read.
///
/// # Errors
/// [`ApiError::Field`] when it is outside the limit.
pub(crate) fn grams(weight: Weight, field: &str) -> Result<i64, ApiError> {
    mass(weight, field).map(whole_grams)
}

async fn weigh(shared: &web::Data<Shared>, amount: Amount) -> Result<i64, ApiError> {
    let (container, count) = match amount {
        Amount::Weighed(weight) => return grams(weight, "amount.weighed"),
        Amount::Counted { container, count } => {
            (container, CONTAINERS.check(count).named("amount.counted.count")?)
        }
    };
    let one = match KNOWN_CONTAINERS.iter().find(|known| known.name == container) {
        Some(known) => known.weight(),
        None => {
            let taught = read(shared, |shared| shared.store.containers()).await?;
            let found = taught.into_iter().find(|taught| taught.name == container).ok_or_else(|| {
                let message = format!("there is no container called \"{container}\"; teach it first");
                ApiError::field("amount.counted.container", message)
            })?;
            #[allow(clippy::cast_precision_loss)] // grams of one container, far below 2^53
            let grams = found.weight_g as f64;
            Mass::new::<gram>(grams)
        }
    };
    let all = one * count;
    WEIGHT.check(all.get::<kilogram>()).named("amount.counted.count")?;
    Ok(whole_grams(all))
}

/// A lot and what the judge has to say of its fruit.
#[derive(Debug, Serialize, ToSchema)]
pub struct LotView {
    /// The lot.
    #[serde(flatten)]
    pub lot: Lot,
    /// Findings, stops first.
    pub findings: Vec<Finding>,
}

/// Lots with fruit left, oldest first.
#[utoipa::path(responses((status = 200, body = Vec<LotView>)))]
#[get("/api/lots")]
pub async fn list_lots(shared: web::Data<Shared>) -> Result<web::Json<Vec<LotView>>, ApiError> {
    let lots = read(&shared, |shared| shared.store.lots()).await?;
    Ok(web::Json(lots.into_iter().map(|lot| LotView { findings: lot_findings(&lot), lot }).collect()))
}

/// The day fruit was picked: today when it was not said.
fn picked_on(given: Option<&str>, today: &str) -> Result<String, ApiError> {
    let Some(day) = given else { return Ok(today.to_owned()) };
    let parsed: jiff::civil::Date = day.parse().map_err(|_| {
        ApiError::field("picked_on", format!("\"{day}\" is not a day; write it as 2026-09-12"))
    })?;
    if parsed.to_string().as_str() > today {
        return Err(ApiError::field(
            "picked_on",
            format!("{parsed} has not come yet; give today or earlier"),
        ));
    }
    Ok(parsed.to_string())
}

/// Weighs fruit in: one lot, or two when a share of it is not ripe and goes to the sill.
#[utoipa::path(request_body = LotRequest, responses((status = 200, body = Vec<Lot>), (status = 422, body = Problem)))]
#[post("/api/lots")]
pub async fn add_lot(
    shared: web::Data<Shared>,
    Json(request): Json<LotRequest>,
) -> Result<web::Json<Vec<Lot>>, ApiError> {
    let picked_on = picked_on(request.picked_on.as_deref(), &shared.clock.today())?;
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
    let weight_g = weigh(&shared, request.amount).await?;
    #[allow(clippy::cast_precision_loss, clippy::cast_possible_truncation)] // limited to 5,000 kg
    let ripe_g = (weight_g as f64 * ripe / 100.0).round() as i64;
    let back_on = day_of(shared.clock.now().plus_minutes(SILL_DAYS * MINUTES_A_DAY));
    let lot = |condition: Condition, weight_g| NewLot {
        picked_on: picked_on.clone(),
        kind: request.kind,
        condition,
        fault: request.fault,
        back_on: (condition == Condition::Unripe).then(|| back_on.clone()),
        frozen: request.frozen,
        weight_g,
    };
    let lots: Vec<NewLot> = [lot(request.condition, ripe_g), lot(Condition::Unripe, weight_g - ripe_g)]
        .into_iter()
        .filter(|lot| lot.weight_g > 0)
        .collect();
    Ok(web::Json(change(&shared, move |shared| shared.store.add_lots(&lots, shared.clock.now())).await?))
}

/// Corrects a lot, takes it off the line or puts it back.
#[utoipa::path(params(("id" = i64, Path)), request_body = LotChangeRequest,
    responses((status = 200, body = Lot), (status = 404, body = Problem), (status = 409, body = Problem),
              (status = 422, body = Problem)))]
#[patch("/api/lots/{id}")]
pub async fn change_lot(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<LotChangeRequest>,
) -> Result<web::Json<Lot>, ApiError> {
    let wanted = LotChange {
        kind: request.kind,
        condition: request.condition,
        weight_g: request.weight.map(|weight| grams(weight, "weight")).transpose()?,
        removed: request.removed,
    };
    Ok(web::Json(
        change(&shared, move |shared| shared.store.change_lot(*id, &wanted, shared.clock.now())).await?,
    ))
}
