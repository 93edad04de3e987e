//! The book of recipes over HTTP.

use actix_web::{HttpResponse, get, patch, post, put, web};
use bodega_core::recipe::line::{ReadLine, read as read_line};
use bodega_core::recipe::page::parts_of;
use bodega_core::recipe::scale::{by_scarcest, by_tomatoes, copy, tomatoes_of};
use bodega_core::recipe::shipped;
use bodega_model::kitchen::ways::Decimal;
use bodega_model::measures::ids::RecipeId;
use bodega_model::measures::limits::{RECIPE_JARS, RECIPE_TIMES, WEIGHT};
use bodega_model::recipe::part::Part;
use bodega_model::records::recipe::{Recipe, RecipeLine, RecipeText};
use bodega_store::StoreError;
use serde::Deserialize;
use serde_json::{Value, json};
use utoipa::ToSchema;

use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::recipe::view::{ReadText, RecipeBook, RecipeScale, RecipeView, scale, shipped_view, view};
use crate::state::{Shared, answer, change, read};

/// Where a recipe file holds its lines as they are written down.
const OWN_LINES: &str = "bodega:lines";

/// Lines that are read at once.
const MOST_LINES: usize = 300;

/// A recipe to write down.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewRecipe {
    /// What is written down.
    pub text: RecipeText,
    /// The recipe it is a copy of.
    pub parent: Option<RecipeId>,
}

/// A text to read lines out of.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct TextToRead {
    /// Lines as people write them, or a schema.org Recipe as JSON-LD; up to 300 lines.
    pub text: String,
}

/// How often a recipe is to be made: one of the four.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ScaleRequest {
    /// So many times, 0.01 to 1,000.
    pub factor: Option<f64>,
    /// By the tomatoes there are, 0.01 to 5,000 kg.
    pub tomatoes_kg: Option<f64>,
    /// By the jars that are wanted, 0.25 to 1,000.
    pub jars: Option<f64>,
    /// By the scarcest of what there is.
    pub have: Option<Vec<Part>>,
}

fn in_kitchen(shared: &Shared, recipe: Recipe) -> Result<RecipeView, StoreError> {
    Ok(view(recipe, shared.store.kitchen()?.altitude()))
}

/// The book of recipes.
#[utoipa::path(responses((status = 200, body = RecipeBook)))]
#[get("/api/recipes")]
pub async fn list_recipes(shared: web::Data<Shared>) -> Result<web::Json<RecipeBook>, ApiError> {
    let book = read(&shared, |shared| {
        let altitude = shared.store.kitchen()?.altitude();
        Ok(RecipeBook {
            own: shared.store.recipes()?.into_iter().map(|recipe| view(recipe, altitude)).collect(),
            shipped: shipped::all().iter().map(shipped_view).collect(),
        })
    });
    Ok(web::Json(book.await?))
}

/// One recipe.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = RecipeView), (status = 404, body = Problem)))]
#[get("/api/recipes/{id}")]
pub async fn get_recipe(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
) -> Result<web::Json<RecipeView>, ApiError> {
    let found = read(&shared, move |shared| in_kitchen(shared, shared.store.recipe(*id)?));
    Ok(web::Json(found.await?))
}

fn checked(text: RecipeText) -> Result<RecipeText, ApiError> {
    text.check().map_err(|error| ApiError::field(format!("text.{}", error.field), &error))?;
    Ok(text)
}

/// Writes a recipe down.
#[utoipa::path(request_body = NewRecipe,
    responses((status = 201, body = RecipeView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/recipes")]
pub async fn add_recipe(
    shared: web::Data<Shared>,
    Json(request): Json<NewRecipe>,
) -> Result<Created<RecipeView>, ApiError> {
    let text = checked(request.text)?;
    let body = change(&shared, Topic::Everything, move |shared| {
        in_kitchen(shared, shared.store.add_recipe(&text, request.parent, shared.clock.now())?)
    })
    .await?;
    Ok(Created { at: format!("/api/recipes/{}", body.id), body })
}

/// Writes a recipe down anew: its lines, its ticks, its process.
#[utoipa::path(params(("id" = i64, Path)), request_body = RecipeText,
    responses((status = 200, body = RecipeView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/recipes/{id}")]
pub async fn set_recipe(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
    Json(text): Json<RecipeText>,
) -> Result<web::Json<RecipeView>, ApiError> {
    text.check().map_err(|error| ApiError::field(error.field.clone(), &error))?;
    let kept = change(&shared, Topic::Everything, move |shared| {
        in_kitchen(shared, shared.store.set_recipe(*id, &text)?)
    });
    Ok(web::Json(kept.await?))
}

/// Whether a recipe is in the book.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecipeChange {
    /// Taken out of the book.
    pub removed: bool,
}

/// Takes a recipe out of the book, or puts it back.
#[utoipa::path(params(("id" = i64, Path)), request_body = RecipeChange,
    responses((status = 204), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[patch("/api/recipes/{id}")]
pub async fn change_recipe(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
    Json(request): Json<RecipeChange>,
) -> Result<HttpResponse, ApiError> {
    change(&shared, Topic::Everything, move |shared| {
        shared.store.remove_recipe(*id, request.removed, shared.clock.now())
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}

/// A schema.org Recipe, wherever it stands in a JSON-LD document.
fn schema_org(document: &Value) -> Option<&Value> {
    let is_recipe = |kind: &Value| kind == "Recipe";
    match document {
        Value::Array(items) => items.iter().find_map(schema_org),
        Value::Object(fields) => {
            let kind = fields.get("@type");
            let is_it = kind.is_some_and(|kind| {
                is_recipe(kind) || kind.as_array().is_some_and(|kinds| kinds.iter().any(is_recipe))
            });
            if is_it { Some(document) } else { fields.get("@graph").and_then(schema_org) }
        }
        _ => None,
    }
}

fn read_text(text: &str, decimal: Decimal) -> Result<ReadText, ApiError> {
    let read_line = |line: &str| read_line(line, decimal);
    let trimmed = text.trim();
    if !trimmed.starts_with(['{', '[']) {
        let lines = trimmed.lines().filter(|line| !line.trim().is_empty());
        return Ok(ReadText::of(None, lines.take(MOST_LINES).map(read_line).collect()));
    }
    let document: Value = serde_json::from_str(trimmed)
        .map_err(|error| ApiError::field("text", format!("this is no JSON: {error}; paste lines instead")))?;
    let recipe = schema_org(&document).ok_or_else(|| {
        ApiError::field("text", "there is no schema.org Recipe in it; paste its lines instead")
    })?;
    if let Ok(own) = serde_json::from_value::<Vec<RecipeLine>>(recipe[OWN_LINES].clone()) {
        for (place, line) in own.iter().enumerate() {
            line.part.check().map_err(|error| {
                ApiError::field("text", format!("{OWN_LINES}[{place}].{}: {error}", error.field()))
            })?;
        }
        let lines = own.into_iter().take(MOST_LINES).map(ReadLine::from).collect();
        return Ok(ReadText::of(recipe["name"].as_str().map(str::to_owned), lines));
    }
    let ingredients = recipe["recipeIngredient"].as_array().into_iter().flatten();
    let lines: Vec<ReadLine> =
        ingredients.filter_map(Value::as_str).take(MOST_LINES).map(read_line).collect();
    Ok(ReadText::of(recipe["name"].as_str().map(str::to_owned), lines))
}

/// Reads lines of a recipe, their numbers as the household writes them; what cannot be read for certain is asked.
#[utoipa::path(request_body = TextToRead, responses((status = 200, body = ReadText), (status = 422, body = Problem)))]
#[post("/api/recipes/read")]
pub async fn read_recipe(
    shared: web::Data<Shared>,
    Json(request): Json<TextToRead>,
) -> Result<web::Json<ReadText>, ApiError> {
    let ways = read(&shared, |shared| shared.store.kitchen()).await?.ways;
    Ok(web::Json(read_text(&request.text, ways.decimal)?))
}

/// How many times, and the part that decided it.
fn times(text: &RecipeText, request: &ScaleRequest) -> Result<(f64, Option<String>), ApiError> {
    let cannot = |field: &str, says: &str| ApiError::field(field, says);
    match (request.factor, request.tomatoes_kg, request.jars, &request.have) {
        (Some(factor), None, None, None) => Ok((RECIPE_TIMES.check(factor).named("factor")?, None)),
        (None, Some(kilograms), None, None) => {
            let there = tomatoes_of(WEIGHT.check(kilograms).named("tomatoes_kg")? * 1000.0);
            let factor = by_tomatoes(&parts_of(text), &[there]);
            let factor =
                factor.ok_or_else(|| cannot("tomatoes_kg", "the recipe does not say how many tomatoes"))?;
            Ok((RECIPE_TIMES.check(factor).named("tomatoes_kg")?, None))
        }
        (None, None, Some(jars), None) => {
            let jars = RECIPE_JARS.check(jars).named("jars")?;
            let makes = text.makes.ok_or_else(|| cannot("jars", "the recipe does not say what it fills"))?;
            Ok((RECIPE_TIMES.check(jars / makes.low).named("jars")?, None))
        }
        (None, None, None, Some(have)) => {
            for (place, part) in have.iter().enumerate() {
                part.check()
                    .map_err(|error| ApiError::field(format!("have[{place}].{}", error.field()), error))?;
            }
            let (factor, name) = by_scarcest(&parts_of(text), have)
                .ok_or_else(|| cannot("have", "none of it can be held against the recipe; give amounts"))?;
            Ok((RECIPE_TIMES.check(factor).named("have")?, Some(name)))
        }
        _ => Err(cannot("factor", "give one of factor, tomatoes_kg, jars and have")),
    }
}

/// A recipe made more or less often than once.
#[utoipa::path(params(("id" = i64, Path)), request_body = ScaleRequest,
    responses((status = 200, body = RecipeScale), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/recipes/{id}/scale")]
pub async fn scale_recipe(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
    Json(request): Json<ScaleRequest>,
) -> Result<web::Json<RecipeScale>, ApiError> {
    let scaled = answer(&shared, move |Shared { store, .. }| {
        let text = store.recipe(*id)?.text;
        Ok(scale(store, &text, times(&text, &request)?)?)
    });
    Ok(web::Json(scaled.await?))
}

/// How often a copy is made.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CopyRequest {
    /// So many times, 0.01 to 1,000.
    pub factor: f64,
}

/// Keeps a recipe made so many times as one of its own, which remembers what it was made from.
#[utoipa::path(params(("id" = i64, Path)), request_body = CopyRequest,
    responses((status = 201, body = RecipeView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/recipes/{id}/copies")]
pub async fn copy_recipe(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
    Json(request): Json<CopyRequest>,
) -> Result<Created<RecipeView>, ApiError> {
    let factor = RECIPE_TIMES.check(request.factor).named("factor")?;
    let made = answer(&shared, move |shared| {
        let text = copy(&shared.store.recipe(*id)?.text, factor);
        text.check().map_err(|error| ApiError::field("factor", format!("{}: {error}", error.field)))?;
        Ok(in_kitchen(shared, shared.store.add_recipe(&text, Some(*id), shared.clock.now())?)?)
    });
    let body = made.await?;
    shared.live.changed(Topic::Everything);
    Ok(Created { at: format!("/api/recipes/{}", body.id), body })
}

/// A recipe as schema.org Recipe, JSON-LD.
#[utoipa::path(params(("id" = i64, Path)),
    responses((status = 200, content_type = "application/ld+json"), (status = 404, body = Problem)))]
#[get("/api/recipes/{id}/recipe.jsonld")]
pub async fn export_own_recipe(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
) -> Result<HttpResponse, ApiError> {
    let text = read(&shared, move |shared| shared.store.recipe(*id)).await?.text;
    let line = |line: &RecipeLine| match &line.preparation {
        Some(preparation) => format!("{}, {preparation}", line.part.says()),
        None => line.part.says(),
    };
    let document = json!({
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": text.name,
        "recipeIngredient": text.lines.iter().map(line).collect::<Vec<_>>(),
        // What a line of text cannot hold: which acid goes into each jar, what a packet's label says.
        OWN_LINES: text.lines.iter().map(|line| RecipeLine { ticked: false, ..line.clone() }).collect::<Vec<_>>(),
        "recipeYield": text.makes.map(|makes| format!("{} to {} {}", makes.low, makes.high, makes.jar.plural())),
        "isBasedOn": format!("{} {} {}", text.title, text.edition, text.page).trim(),
    });
    Ok(HttpResponse::Ok().content_type("application/ld+json").body(document.to_string()))
}
