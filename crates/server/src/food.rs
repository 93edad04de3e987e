//! Food that moves, as it is asked for over HTTP, whatever it leaves.

use bodega_model::ledger::food::{Food, FoodPlace, Told};
use bodega_model::measures::limits::{FOOD_AMOUNT, PACKS, WEIGHT};
use bodega_model::records::moved::{NewMove, Source};
use bodega_model::tables::process::Product;
use serde::Deserialize;
use uom::si::mass::kilogram;
use utoipa::ToSchema;

use crate::problem::{ApiError, NameField};
use crate::weight::whole_grams;

/// A told amount may exceed the recorded amount by this share and still mean all of it.
const ALL_OF_IT: f64 = 0.02;

/// A part that goes elsewhere.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FoodMoveRequest {
    /// What; the food itself when it is not said.
    pub food: Option<Food>,
    /// Where it goes.
    pub place: FoodPlace,
    /// How much; all that is left when it is not said.
    pub told: Option<Told>,
    /// Packs or jars it is put into, or that are taken out.
    pub packs: Option<u32>,
}

/// What there is of a food that is to be moved.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Here {
    pub(crate) from: Source,
    pub(crate) food: Food,
    /// What its batch became, when it comes from one.
    pub(crate) product: Option<Product>,
    /// Grams that are left, where that is known.
    pub(crate) left: Option<(i64, Told)>,
    /// How thick finished food of its batch is, in °Brix.
    pub(crate) product_brix: f64,
}

impl FoodMoveRequest {
    /// The move, checked against what there is.
    ///
    /// # Errors
    /// [`ApiError::Field`].
    pub(crate) fn checked(&self, here: &Here) -> Result<NewMove, ApiError> {
        let food = self.food.unwrap_or(here.food);
        food.may_go(self.place, here.product).map_err(|error| ApiError::field("place", error))?;
        if let Some(packs) = self.packs {
            PACKS.check(f64::from(packs)).named("packs")?;
        }
        let (told, weight_g) = match (self.told, here.left) {
            (Some(told), left) => {
                FOOD_AMOUNT.check(told.amount).named("told.amount")?;
                let mass = told.mass(food, here.product_brix);
                WEIGHT.check(mass.get::<kilogram>()).named("told.amount")?;
                let weight_g = whole_grams(mass).max(1);
                #[allow(clippy::cast_precision_loss)] // grams of a household
                let is_all = left.is_some_and(|(left, _)| weight_g as f64 <= left as f64 * (1.0 + ALL_OF_IT));
                (told, left.filter(|_| is_all).map_or(weight_g, |(left, _)| weight_g.min(left)))
            }
            (None, Some((left, _))) if left <= 0 => {
                return Err(ApiError::field("told", "nothing is left of it"));
            }
            (None, Some((left, told))) => (told, left),
            (None, None) => return Err(ApiError::field("told", "say how much, such as 2 quarts")),
        };
        Ok(NewMove { from: here.from, food, place: self.place, told, weight_g, packs: self.packs })
    }
}
