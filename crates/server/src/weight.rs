//! Weights as they are read off a scale, or counted in containers.

use actix_web::web;
use bodega_model::crates::fruit::KNOWN_CONTAINERS;
use bodega_model::ledger::food::{Food, Told};
use bodega_model::measures::limits::{CONTAINERS, FOOD_AMOUNT, WEIGHT};
use bodega_model::measures::units::{Mass, kilograms, pounds};
use serde::Deserialize;
use uom::si::mass::{gram, kilogram};
use utoipa::ToSchema;

use crate::problem::{ApiError, NameField};
use crate::state::{Shared, read};

/// Solids of finished food that somebody measures in, in °Brix: thin sauce. Common practice, no source.
const PRODUCT_BRIX: f64 = 7.5;

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
#[serde(deny_unknown_fields)]
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
    /// Measured by volume, or told in another unit of weight.
    Measured(Told),
}

pub(crate) fn mass(weight: Weight, field: &str) -> Result<Mass, ApiError> {
    let mass = match weight.unit {
        WeightUnit::Lb => pounds(weight.value),
        WeightUnit::Kg => kilograms(weight.value),
    };
    WEIGHT.check(mass.get::<kilogram>()).named(format_args!("{field}.value"))?;
    Ok(mass)
}

/// Whole grams of a checked mass; half a gram is below any kitchen scale.
pub(crate) fn whole_grams(mass: Mass) -> i64 {
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

pub(crate) async fn weigh(shared: &web::Data<Shared>, food: Food, amount: Amount) -> Result<i64, ApiError> {
    let (container, count) = match amount {
        Amount::Weighed(weight) => return grams(weight, "amount.weighed"),
        Amount::Measured(told) => {
            FOOD_AMOUNT.check(told.amount).named("amount.measured.amount")?;
            let mass = told.mass(food, PRODUCT_BRIX);
            WEIGHT.check(mass.get::<kilogram>()).named("amount.measured.amount")?;
            return Ok(whole_grams(mass));
        }
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
