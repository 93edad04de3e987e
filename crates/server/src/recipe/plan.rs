//! A recipe on its way to jars, over HTTP: what it fills, what is to be bought, in which pots and loads; and the batch.

use actix_web::{post, web};
use bodega_core::judge::recipe_page::{Standing, Stands, stands};
use bodega_core::kitchen::cupboard::missing_glass;
use bodega_core::plan::batch::{BatchPlan, MixLine};
use bodega_core::plan::by_recipe::{NoJars, Tomatoes, Wanted, canner, shopping, tomatoes, wish};
use bodega_core::recipe::page::parts_of;
use bodega_core::recipe::scale::scaled;
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::amounts::exact;
use bodega_model::measures::ids::{BowlsId, LotId, RecipeId};
use bodega_model::measures::limits::RECIPE_TIMES;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::range::Range;
use bodega_model::recipe::part::Part;
use bodega_model::records::batch::Batch;
use bodega_model::records::canner::Canner;
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::recipe::Recipe;
use bodega_model::tables::process::{Method, ProcessOption, Refusal};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::plan::ground::{checked_mix, planned_loads, work_out};
use crate::plan::view::{JarCount, PlanLoad};
use crate::problem::{ApiError, NameField, Problem};
use crate::recipe::begin::{Begin, fruit};
use crate::state::{Shared, altitude_of, answer};

/// How often a recipe is made, and in which jars.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RecipePlanRequest {
    /// How many times, 0.01 to 1,000.
    pub factor: f64,
    /// Lots that its tomatoes come from, as much of each as it takes; none when they were not weighed in.
    #[serde(default)]
    pub lots: Vec<LotId>,
    /// Jar most of it goes into; the recipe's own when it is left out.
    pub jar: Option<JarSize>,
    /// Jars by size when the person has decided; `null` lets the plan propose.
    pub jars: Option<Vec<JarCount>>,
    /// Bowls that stand out already; new ones are set out when they are left out, and a plan needs none.
    pub bowls: Option<BowlsId>,
}

/// Like jars of a recipe's plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct RecipeLineView {
    /// Size.
    pub jar: JarSize,
    /// How many.
    pub count: u32,
    /// The printed time.
    pub option: ProcessOption,
    /// What to mind.
    pub cautions: Vec<String>,
}

/// A recipe's jars and loads.
#[derive(Debug, Serialize, ToSchema)]
pub struct RecipeJars {
    /// Full jars of the main size.
    pub full_jars: Range<u32>,
    /// Jars to set out.
    pub lines: Vec<RecipeLineView>,
    /// Canner loads.
    pub loads: Vec<PlanLoad>,
    /// Minutes the canner is busy, turnarounds included.
    pub canner_minutes: Minutes,
    /// Whether no other grouping of these jars is shorter.
    pub shortest: bool,
    /// Why they are grouped so, in one line.
    pub why: String,
    /// Headspace in inches.
    pub headspace_in: f64,
    /// Jars and lids that the cupboard lacks.
    pub missing: Vec<String>,
}

/// A recipe worked out before anything is cut.
#[derive(Debug, Serialize, ToSchema)]
pub struct RecipePlan {
    /// Whether it may be canned, and what is missing.
    pub stands: Stands,
    /// Name of the canner.
    pub canner_name: String,
    /// How that heats.
    pub method: Method,
    /// Jars and loads; `null` when there is no time for them.
    pub jars: Option<RecipeJars>,
    /// Why there are none.
    pub refusal: Option<Refusal>,
    /// The same when it is not a jar's time that is missing.
    pub no_jars: Option<String>,
    /// What is to be bought or fetched.
    pub shopping: Vec<String>,
    /// Grams of tomatoes that it takes, about; `null` when they cannot be weighed.
    pub tomatoes_g: Option<f64>,
    /// Grams that the lots do not have; `null` when they have enough.
    pub short_g: Option<f64>,
}

/// What a recipe's plan stands on.
struct Ground {
    recipe: Recipe,
    /// Its parts, so many times.
    scaled: Vec<Part>,
    kitchen: Kitchen,
    altitude: Altitude,
    canner: Canner,
    tomatoes: Tomatoes,
    /// Bowls that stand out already.
    bowls: Option<BowlsId>,
    factor: f64,
    plan: Result<BatchPlan, NoBatch>,
}

/// Why there is no plan.
enum NoBatch {
    Jars(NoJars),
    Refused(Refusal),
}

fn ground(shared: &Shared, id: RecipeId, request: &RecipePlanRequest) -> Result<Ground, ApiError> {
    RECIPE_TIMES.check(request.factor).named("factor")?;
    let mix = checked_mix(request.jars.as_ref())?;
    let store = &shared.store;
    let (recipe, kitchen) = (store.recipe(id)?, store.kitchen()?);
    let altitude = altitude_of(&kitchen)?;
    let lots = fruit(&store.lots()?, &request.lots)?;
    let canner = canner(recipe.text.process.as_ref(), &kitchen.canner, &kitchen.canners).clone();
    let bowls = request.bowls.map(|bowls| store.bowls(bowls)).transpose()?;
    if bowls.as_ref().is_some_and(|bowls| bowls.recipe != id || bowls.base != parts_of(&recipe.text)) {
        let words = "the recipe was changed since these bowls were set out; set out new ones";
        return Err(ApiError::field("bowls", words));
    }
    // What stands in the bowls was measured out so many times.
    let factor = bowls.as_ref().map_or(request.factor, |bowls| bowls.factor);
    let wanted = Wanted { factor, jar: request.jar, mix };
    let plan = match wish(&recipe.text, &wanted, &canner, altitude) {
        Err(none) => Err(NoBatch::Jars(none)),
        Ok(wish) => work_out(&wish, &canner, &kitchen)?.map_err(NoBatch::Refused),
    };
    let scaled = scaled(&parts_of(&recipe.text), &exact(factor));
    let tomatoes = tomatoes(&scaled, &lots);
    let bowls = bowls.map(|bowls| bowls.id);
    Ok(Ground { recipe, scaled, kitchen, altitude, canner, tomatoes, bowls, factor, plan })
}

fn jars_view(shared: &Shared, ground: &Ground, plan: &BatchPlan) -> Result<RecipeJars, ApiError> {
    let cupboard = shared.store.cupboard()?;
    let line = |line: &MixLine| RecipeLineView {
        jar: line.jar,
        count: line.count,
        option: line.tested.options[0],
        cautions: line.tested.cautions.iter().map(ToString::to_string).collect(),
    };
    Ok(RecipeJars {
        full_jars: plan.full_jars,
        lines: plan.mix.iter().map(line).collect(),
        loads: planned_loads(plan, &ground.canner, &ground.kitchen.outsides()),
        canner_minutes: plan.loads.total,
        shortest: plan.loads.total == plan.loads.lower_bound,
        why: plan.why.clone(),
        headspace_in: ground.recipe.text.process.as_ref().map_or(0.0, |process| process.headspace_in),
        missing: plan.mix.iter().flat_map(|line| missing_glass(&cupboard, line.jar, line.count)).collect(),
    })
}

/// Works a recipe out without keeping it: jars and loads at this altitude, what is to be bought, which pots hold it.
#[utoipa::path(params(("id" = i64, Path)), request_body = RecipePlanRequest,
    responses((status = 200, body = RecipePlan), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
#[post("/api/recipes/{id}/plan")]
pub async fn plan_recipe(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
    Json(request): Json<RecipePlanRequest>,
) -> Result<web::Json<RecipePlan>, ApiError> {
    let worked = answer(&shared, move |shared| {
        let ground = ground(shared, *id, &request)?;
        let (jars, refusal, no_jars) = match &ground.plan {
            Ok(plan) => (Some(jars_view(shared, &ground, plan)?), None, None),
            Err(NoBatch::Refused(refusal)) => (None, Some(refusal.clone()), None),
            Err(NoBatch::Jars(none)) => (None, None, Some(none.to_string())),
        };
        Ok(RecipePlan {
            stands: stands(&ground.recipe.text, Some(ground.altitude)),
            canner_name: ground.canner.name.clone(),
            method: ground.canner.method,
            jars,
            refusal,
            no_jars,
            shopping: shopping(&ground.scaled, &ground.tomatoes, ground.kitchen.units),
            tomatoes_g: ground.tomatoes.needed_g,
            short_g: ground.tomatoes.short_g(),
        })
    });
    Ok(web::Json(worked.await?))
}

/// Begins a batch by a recipe: bowls, jars and loads are set out, the tomatoes are drawn. Only a recipe that was checked
/// against a copy is canned.
#[utoipa::path(params(("id" = i64, Path)), request_body = RecipePlanRequest,
    responses((status = 201, body = Batch), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
#[post("/api/recipes/{id}/batches")]
pub async fn begin_recipe(
    shared: web::Data<Shared>,
    id: web::Path<RecipeId>,
    Json(request): Json<RecipePlanRequest>,
) -> Result<Created<Batch>, ApiError> {
    let begun = answer(&shared, move |shared| {
        let ground = ground(shared, *id, &request)?;
        let text = &ground.recipe.text;
        let stands = stands(text, Some(ground.altitude));
        if stands.standing != Standing::Checked {
            let says: Vec<String> = std::iter::once(stands.says).chain(stands.missing).collect();
            return Err(ApiError::NotCanned(says.join(" ")));
        }
        let plan = match &ground.plan {
            Ok(plan) => plan,
            Err(NoBatch::Refused(refusal)) => return Err(ApiError::field("jar", &refusal.message)),
            Err(NoBatch::Jars(none)) => return Err(ApiError::field("jars", none)),
        };
        let loads = plan.new_loads();
        if loads.is_empty() {
            return Err(ApiError::field(
                "jars",
                "this fills no jar; make it more often or take a smaller jar",
            ));
        }
        let begin = Begin {
            text,
            id: ground.recipe.id,
            process: text.process.clone(),
            canner: &ground.canner,
            altitude_ft: ground.altitude.feet(),
            draws: ground.tomatoes.draws,
            loads,
            factor: ground.factor,
            scaled: &ground.scaled,
            bowls: ground.bowls,
        };
        let batch = begin.batch(shared.clock.today());
        Ok(shared.store.add_batch(&batch, shared.clock.now())?)
    });
    let body = begun.await?;
    shared.live.changed(Topic::Everything);
    Ok(Created { at: format!("/api/batches/{}", body.id), body })
}
