//! The bowls against a recipe over HTTP, without any records.

use actix_web::{post, web};
use bodega_core::recipe::back::{Change, instead, ways_back_filled};
use bodega_core::recipe::compare::{Proportion, compare_filled};
use bodega_core::recipe::scale::scaled;
use bodega_core::recipe::swap::Swap;
use bodega_model::judge::finding::Ruling;
use bodega_model::measures::amounts::exact;
use bodega_model::measures::limits::{RECIPE_PARTS, RECIPE_TIMES};
use bodega_model::recipe::part::Part;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::json::Json;
use crate::plan::ground::checked_mix;
use crate::plan::view::JarCount;
use crate::problem::{ApiError, NameField, Problem};

/// Parts of a recipe, or what is in the bowls.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Parts {
    /// The parts, 1 to 100.
    pub parts: Vec<Part>,
}

impl Parts {
    /// The parts, checked; `field` is what the list is called.
    ///
    /// # Errors
    /// Names the part and the field that is wrong.
    pub fn checked(self, field: &str) -> Result<Vec<Part>, ApiError> {
        #[allow(clippy::cast_precision_loss)] // a count
        RECIPE_PARTS.check(self.parts.len() as f64).named(format_args!("{field}.parts"))?;
        for (place, part) in self.parts.iter().enumerate() {
            part.check().map_err(|error| {
                ApiError::field(format!("{field}.parts[{place}].{}", error.field()), error)
            })?;
        }
        Ok(self.parts)
    }
}

/// What is asked.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecipeRequest {
    /// The recipe, made once.
    pub base: Parts,
    /// What is in the bowls; left out, the recipe made `factor` times.
    pub actual: Option<Parts>,
    /// How many times the recipe is to be made, 0.01 to 1,000; once when it is left out.
    pub factor: Option<f64>,
    /// Jars that are filled; left out while nobody knows. Only what goes into each jar needs them.
    #[serde(default)]
    pub jars: Vec<JarCount>,
    /// Whether it is mixed already, so that nothing can be taken out.
    #[serde(default)]
    pub mixed: bool,
}

/// What is said of the bowls in one word.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum RecipeVerdict {
    /// Every proportion is the recipe's, or on the safe side of it.
    Safe,
    /// At least one is not.
    Unsafe,
    /// Something has to be said or measured first.
    CannotTell,
}

impl From<Ruling> for RecipeVerdict {
    fn from(ruling: Ruling) -> Self {
        match ruling {
            Ruling::Fine => Self::Safe,
            Ruling::NotFine => Self::Unsafe,
            Ruling::CannotTell => Self::CannotTell,
        }
    }
}

/// The bowls against the recipe.
#[derive(Debug, Serialize, ToSchema)]
pub struct RecipeAnswer {
    /// How many times the recipe's tomatoes there are; `null` when nobody can tell.
    pub tomato_factor: Option<f64>,
    /// Each proportion to the tomatoes.
    pub proportions: Vec<Proportion>,
    /// Things that stand for others.
    pub swaps: Vec<Swap>,
    /// What has to be said before it can be told.
    pub missing: Vec<String>,
    /// Safe, unsafe, or nobody can tell.
    pub verdict: RecipeVerdict,
    /// Whether the verdict is safe.
    pub safe: bool,
    /// Ways back to the recipe, the nearest first.
    pub ways_back: Vec<Vec<Change>>,
    /// What to do instead when there is no way back; empty while it is not unsafe.
    pub instead: Vec<String>,
    /// The recipe made `factor` times, in whole kitchen measures.
    pub scaled: Vec<Part>,
}

/// Holds what is in the bowls against a tested recipe.
///
/// # Errors
/// 422 names the field that is wrong.
#[utoipa::path(request_body = RecipeRequest, responses((status = 200, body = RecipeAnswer), (status = 422, body = Problem)))]
#[post("/api/compute/recipe")]
pub async fn compute_recipe(Json(request): Json<RecipeRequest>) -> Result<web::Json<RecipeAnswer>, ApiError> {
    let RecipeRequest { base, actual, factor, jars, mixed } = request;
    let jars = checked_mix(Some(&jars))?.unwrap_or_default();
    let base = base.checked("base")?;
    let factor = factor.map(|factor| RECIPE_TIMES.check(factor).named("factor")).transpose()?;
    let scaled = scaled(&base, &exact(factor.unwrap_or(1.0)));
    let actual = match actual {
        Some(actual) => actual.checked("actual")?,
        None => scaled.clone(),
    };
    let seen = compare_filled(&base, &actual, &jars, true);
    let ways_back = ways_back_filled(&base, &actual, &jars, mixed);
    let instead = instead(&seen);
    Ok(web::Json(RecipeAnswer {
        tomato_factor: seen.tomato_factor,
        proportions: seen.proportions,
        swaps: seen.swaps,
        missing: seen.missing,
        safe: seen.verdict == Ruling::Fine,
        verdict: seen.verdict.into(),
        ways_back,
        instead,
        scaled,
    }))
}
