//! The shelf: what stands there, how jars leave it, and what to put up next season.

use actix_web::{HttpResponse, get, post, web};
use bodega_core::fruit::Kind;
use bodega_core::jar::JarSize;
use bodega_core::limits::SHELF_YEAR;
use bodega_core::moment::Moment;
use bodega_core::pantry::{BEFORE_OPENING, Discard, Leaving, forecast, plants};
use bodega_core::process::{Medium, Pack, Product};
use bodega_core::units::in_quarts;
use bodega_core::yields::Thickness;
use bodega_core::yields::learn::Household;
use bodega_store::{Goal, Gone, JarRecord, ShelfGroup, ShelfSearch, Stocked, StoreError};
use serde::{Deserialize, Serialize};
use utoipa::{IntoParams, ToSchema};

use crate::app::{Shared, change, read};
use crate::clock::start_of_year;
use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};

/// What to look for; absent fields ask for nothing.
#[derive(Debug, Clone, Deserialize, IntoParams)]
#[into_params(parameter_in = Query)]
pub struct ShelfQuery {
    /// Part of a batch code.
    pub code: Option<String>,
    /// What is in the jars.
    pub product: Option<Product>,
    /// Year in which they were put up.
    pub year: Option<i16>,
}

/// Jars on the shelf by product and date, oldest first.
#[utoipa::path(params(ShelfQuery), responses((status = 200, body = Vec<ShelfGroup>), (status = 422, body = Problem)))]
#[get("/api/shelf")]
pub async fn list_shelf(
    shared: web::Data<Shared>,
    query: web::Query<ShelfQuery>,
) -> Result<web::Json<Vec<ShelfGroup>>, ApiError> {
    if let Some(year) = query.year {
        SHELF_YEAR.check(f64::from(year)).named("year")?;
    }
    let search = ShelfSearch {
        code: query.code.clone().filter(|code| !code.trim().is_empty()),
        product: query.product,
        from: query.year.and_then(start_of_year),
        before: query.year.and_then(|year| start_of_year(year + 1)),
    };
    Ok(web::Json(read(&shared, move |shared| shared.store.shelf(&search)).await?))
}

/// A jar that leaves.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
pub struct LeaveRequest {
    /// The jar; or the batch and size of which the first one is taken.
    pub jar: Option<i64>,
    /// The batch to take from.
    pub batch: Option<i64>,
    /// The size to take.
    pub size: Option<JarSize>,
    /// How it leaves.
    pub how: Leaving,
    /// Why, when it is thrown away.
    pub why: Option<Discard>,
}

/// A jar that left, and where its sisters are when it had spoiled.
#[derive(Debug, Serialize, ToSchema)]
pub struct LeaveAnswer {
    /// The jar.
    pub jar: JarRecord,
    /// The other jars of its batch, when its contents spoiled; empty otherwise.
    pub sisters: Vec<JarRecord>,
}

fn leave(shared: &Shared, request: LeaveRequest) -> Result<LeaveAnswer, StoreError> {
    let jar = match (request.jar, request.batch, request.size) {
        (Some(jar), ..) => jar,
        (None, Some(batch), Some(size)) => shared.store.next_jar(batch, size)?,
        (None, ..) => return Err(StoreError::WhichJar),
    };
    shared.store.leave(jar, Some(Gone { how: request.how, why: request.why }), shared.clock.now())?;
    let jar = shared.store.jar(jar)?;
    let spoiled = request.why.is_some_and(Discard::is_spoilage);
    let sisters = if spoiled { shared.store.batch_jars(jar.batch)? } else { Vec::new() };
    Ok(LeaveAnswer { sisters: sisters.into_iter().filter(|sister| sister.id != jar.id).collect(), jar })
}

/// A jar leaves: eaten, given away, or thrown away with a reason.
#[utoipa::path(request_body = LeaveRequest,
    responses((status = 200, body = LeaveAnswer), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
#[post("/api/shelf/leave")]
pub async fn leave_shelf(
    shared: web::Data<Shared>,
    Json(request): Json<LeaveRequest>,
) -> Result<web::Json<LeaveAnswer>, ApiError> {
    if (request.how == Leaving::Discarded) != request.why.is_some() {
        return Err(ApiError::field(
            "why",
            "a reason goes with a jar that is thrown away, and only with one",
        ));
    }
    Ok(web::Json(change(&shared, move |shared| leave(shared, request)).await?))
}

/// Brings a jar back that had left.
#[utoipa::path(params(("id" = i64, Path)),
    responses((status = 200, body = JarRecord), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[post("/api/jars/{id}/back")]
pub async fn bring_back(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
) -> Result<web::Json<JarRecord>, ApiError> {
    let done = change(&shared, move |shared| {
        shared.store.leave(*id, None, shared.clock.now())?;
        shared.store.jar(*id)
    });
    Ok(web::Json(done.await?))
}

/// One jar, as its label's code opens it.
#[derive(Debug, Serialize, ToSchema)]
pub struct JarCard {
    /// The jar.
    pub jar: JarRecord,
    /// Whether a sister of its batch spoiled.
    pub recalled: bool,
    /// What to look at before it is opened.
    pub before_opening: Vec<&'static str>,
}

/// One jar.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = JarCard), (status = 404, body = Problem)))]
#[get("/api/jars/{id}")]
pub async fn get_jar(shared: web::Data<Shared>, id: web::Path<i64>) -> Result<web::Json<JarCard>, ApiError> {
    let card = read(&shared, move |shared| {
        let jar = shared.store.jar(*id)?;
        let spoiled = |sister: &JarRecord| sister.gone_why.is_some_and(Discard::is_spoilage);
        let recalled = shared.store.batch_jars(jar.batch)?.iter().any(spoiled);
        Ok(JarCard { jar, recalled, before_opening: BEFORE_OPENING.to_vec() })
    });
    Ok(web::Json(card.await?))
}

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
    /// In which jars.
    pub jar: JarSize,
    /// On the shelf now.
    pub on_shelf: u32,
    /// Left to be eaten in the months that were counted.
    pub eaten: u32,
    /// Those months.
    pub months: f64,
    /// Jars a month.
    pub per_month: f64,
    /// When they run out; `null` while none is eaten.
    pub runs_out: Option<Moment>,
    /// Jars that last from one harvest to the next.
    pub next_season: u32,
    /// Pounds of fruit for those, by the household's own yields.
    pub pounds: f64,
}

/// Next season from what was eaten.
#[derive(Debug, Serialize, ToSchema)]
pub struct PantryView {
    /// By product and jar.
    pub lines: Vec<PantryLine>,
    /// Pounds of fruit for all of it.
    pub pounds: f64,
    /// Plants for that.
    pub plants: u32,
    /// Pounds to expect of one plant.
    pub pounds_per_plant: f64,
}

fn pantry(shared: &Shared) -> Result<PantryView, StoreError> {
    let household = Household { finished: shared.store.finished()? };
    let now = shared.clock.now();
    let line = |stocked: Stocked| {
        let forecast = forecast(stocked.on_shelf, &stocked.left_at, stocked.first_on, now);
        let quarts = in_quarts(stocked.size.volume()) * f64::from(forecast.next_season);
        let learned = household.learn(stocked.product, stocked.thickness, Kind::Paste);
        PantryLine {
            product: stocked.product,
            medium: stocked.medium,
            pack: stocked.pack,
            thickness: stocked.thickness,
            jar: stocked.size,
            on_shelf: stocked.on_shelf,
            eaten: forecast.eaten,
            months: forecast.months,
            per_month: forecast.per_month,
            runs_out: forecast.runs_out,
            next_season: forecast.next_season,
            pounds: quarts * learned.pounds_per_quart.expected,
        }
    };
    let lines: Vec<PantryLine> = shared.store.stocked()?.into_iter().map(line).collect();
    let pounds = lines.iter().map(|line| line.pounds).sum();
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
const PREFERENCE: u32 = 2;

/// Makes next season's jars the Plan's goals.
#[utoipa::path(responses((status = 204)))]
#[post("/api/pantry/goals")]
pub async fn set_pantry_goals(shared: web::Data<Shared>) -> Result<HttpResponse, ApiError> {
    change(&shared, |shared| {
        let goal = |line: &PantryLine| Goal {
            product: line.product,
            medium: line.medium,
            pack: line.pack,
            thickness: line.thickness,
            jar: line.jar,
            count: line.next_season.saturating_sub(line.on_shelf).min(1000),
            preference: PREFERENCE,
        };
        let goals: Vec<Goal> = pantry(shared)?.lines.iter().map(goal).filter(|goal| goal.count > 0).collect();
        shared.store.set_goals(&goals)
    })
    .await?;
    Ok(HttpResponse::NoContent().finish())
}
