//! Next season from what was eaten.

use actix_web::{HttpResponse, get, put, web};
use bodega_core::plan::yields::learn::Household;
use bodega_core::shelf::pantry::{asked_from, forecast, plants};
use bodega_model::crates::fruit::Kind;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::in_quarts;
use bodega_model::plan::making::Thickness;
use bodega_model::records::jar::Stocked;
use bodega_model::records::shelf::Goal;
use bodega_model::tables::process::{Medium, Pack, Product};
use bodega_store::StoreError;
use serde::Serialize;
use utoipa::ToSchema;

use crate::live::Topic;
use crate::problem::ApiError;
use crate::state::{Shared, change, read};

/// What the shelf says of one product in one size of jar.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct PantryLine {
    /// What.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// Of a recipe, what it is called.
    pub named: Option<String>,
    /// In which jars.
    pub jar: JarSize,
    /// On the shelf now.
    pub on_shelf: u32,
    /// Eaten in the months that were counted.
    pub eaten: u32,
    /// Given away in them.
    pub given: u32,
    /// Those months of the last year in which there was some.
    pub months: f64,
    /// Jars a month.
    pub per_month: f64,
    /// When they run out; `null` while none is eaten.
    pub runs_out: Option<Moment>,
    /// Jars that are eaten from one harvest to the next.
    pub next_season: u32,
    /// At least so many, nine times in ten.
    pub next_season_low: u32,
    /// At most so many, nine times in ten.
    pub next_season_high: u32,
    /// Pounds of fruit for those, by the household's own yields; `null` of a recipe, which takes its tomatoes by its own
    /// amounts.
    pub pounds: Option<f64>,
}

/// Next season from what was eaten.
#[derive(Debug, Serialize, ToSchema)]
pub struct PantryView {
    /// By product and jar.
    pub lines: Vec<PantryLine>,
    /// Pounds of fruit for all of it but recipes.
    pub pounds: f64,
    /// Plants for that.
    pub plants: u32,
    /// Pounds to expect of one plant.
    pub pounds_per_plant: f64,
}

pub(crate) fn pantry(shared: &Shared) -> Result<PantryView, StoreError> {
    let household = Household { finished: shared.store.finished()? };
    let now = shared.clock.now();
    let line = |stocked: Stocked| {
        let forecast = forecast(&stocked.history, now);
        let quarts = in_quarts(stocked.size.volume()) * f64::from(forecast.next_season.expected);
        let learned = household.learn(stocked.product, stocked.thickness, Kind::Paste);
        PantryLine {
            product: stocked.product,
            medium: stocked.medium,
            pack: stocked.pack,
            thickness: stocked.thickness,
            named: stocked.named,
            jar: stocked.size,
            on_shelf: stocked.on_shelf,
            eaten: forecast.eaten,
            months: forecast.months,
            per_month: forecast.per_month,
            runs_out: forecast.runs_out,
            given: forecast.given,
            next_season: forecast.next_season.expected,
            next_season_low: forecast.next_season.low,
            next_season_high: forecast.next_season.high,
            pounds: (stocked.product != Product::Recipe)
                .then_some(quarts * learned.pounds_per_quart.expected),
        }
    };
    let lines: Vec<PantryLine> = shared.store.stocked(asked_from(now))?.into_iter().map(line).collect();
    let pounds = lines.iter().filter_map(|line| line.pounds).sum();
    let pounds_per_plant = shared.store.kitchen()?.pounds_per_plant;
    Ok(PantryView { lines, pounds, plants: plants(pounds, pounds_per_plant), pounds_per_plant })
}

/// When each product runs out, and what to put up next season.
#[utoipa::path(responses((status = 200, body = PantryView)))]
#[get("/api/pantry")]
pub async fn get_pantry(shared: web::Data<Shared>) -> Result<web::Json<PantryView>, ApiError> {
    Ok(web::Json(read(&shared, pantry).await?))
}

/// Preference of a goal that comes from what was eaten: the middle.
pub(crate) const PREFERENCE: u32 = 2;

/// Makes next season's jars the Plan's goals; a recipe is planned from the book.
#[utoipa::path(responses((status = 204)))]
#[put("/api/goals/pantry")]
pub async fn set_pantry_goals(shared: web::Data<Shared>) -> Result<HttpResponse, ApiError> {
    change(&shared, Topic::Goals, |shared| {
        let goal = |line: &PantryLine| Goal {
            product: line.product,
            medium: line.medium,
            pack: line.pack,
            thickness: line.thickness,
            jar: line.jar,
            count: line.next_season.saturating_sub(line.on_shelf).min(1000),
            preference: PREFERENCE,
        };
        let is_wanted = |goal: &Goal| goal.count > 0 && goal.product != Product::Recipe;
        let goals: Vec<Goal> = pantry(shared)?.lines.iter().map(goal).filter(is_wanted).collect();
        shared.store.set_goals(&goals)
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}
