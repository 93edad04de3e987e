//! The cupboard and the list of what the shelf asks for.

use actix_web::{get, post, put, web};
use bodega_core::acid::Agent;
use bodega_core::jar::{JarSize, Mouth};
use bodega_core::limits::{ACID_STOCK, JAR_COUNT, JAR_STOCK, PREFERENCE};
use bodega_core::process::{Product, check_medium};
use bodega_store::{Cupboard, Goal, Item};
use serde::Deserialize;
use utoipa::ToSchema;

use crate::app::{Shared, change, read};
use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};

/// A count of one thing.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(tag = "item", rename_all = "snake_case")]
pub enum CountRequest {
    /// Empty jars.
    Jar {
        /// Size.
        jar: JarSize,
        /// How many stand there, 0 to 10,000.
        count: u32,
        /// Their mouth; stays as it was when left out.
        mouth: Option<Mouth>,
    },
    /// New lids.
    Lid {
        /// Mouth.
        mouth: Mouth,
        /// How many there are, 0 to 10,000.
        count: u32,
    },
    /// Acid.
    Acid {
        /// Which.
        agent: Agent,
        /// Millilitres, or grams of citric acid, 0 to 100,000.
        amount: f64,
    },
}

/// The cupboard.
#[utoipa::path(responses((status = 200, body = Cupboard)))]
#[get("/api/stock")]
pub async fn get_stock(shared: web::Data<Shared>) -> Result<web::Json<Cupboard>, ApiError> {
    Ok(web::Json(read(&shared, |shared| shared.store.cupboard()).await?))
}

/// Counts one thing of the cupboard.
#[utoipa::path(request_body = CountRequest, responses((status = 200, body = Cupboard), (status = 422, body = Problem)))]
#[put("/api/stock")]
pub async fn count_stock(
    shared: web::Data<Shared>,
    Json(request): Json<CountRequest>,
) -> Result<web::Json<Cupboard>, ApiError> {
    let (item, amount, mouth) = match request {
        CountRequest::Jar { jar, count, mouth } => {
            (Item::Jar(jar), JAR_STOCK.check(f64::from(count)).named("count")?, mouth)
        }
        CountRequest::Lid { mouth, count } => {
            (Item::Lid(mouth), JAR_STOCK.check(f64::from(count)).named("count")?, None)
        }
        CountRequest::Acid { agent, amount } => {
            (Item::Acid(agent), ACID_STOCK.check(amount).named("amount")?, None)
        }
    };
    let done =
        change(&shared, move |shared| shared.store.count_stock(item, amount, mouth, shared.clock.now()))
            .await?;
    Ok(web::Json(done))
}

/// A bottle that is opened.
#[derive(Debug, Deserialize, ToSchema)]
pub struct OpenRequest {
    /// Of which acid.
    pub agent: Agent,
}

/// Says that a bottle was opened today.
#[utoipa::path(request_body = OpenRequest, responses((status = 200, body = Cupboard), (status = 409, body = Problem)))]
#[post("/api/stock/opened")]
pub async fn open_bottle(
    shared: web::Data<Shared>,
    Json(request): Json<OpenRequest>,
) -> Result<web::Json<Cupboard>, ApiError> {
    let today = shared.clock.today();
    Ok(web::Json(change(&shared, move |shared| shared.store.open_bottle(request.agent, &today)).await?))
}

/// What the shelf asks for.
#[utoipa::path(responses((status = 200, body = Vec<Goal>)))]
#[get("/api/goals")]
pub async fn get_goals(shared: web::Data<Shared>) -> Result<web::Json<Vec<Goal>>, ApiError> {
    Ok(web::Json(read(&shared, |shared| shared.store.goals()).await?))
}

/// Checks one goal; `field` is where it stands.
fn check_goal(goal: &Goal, field: &str) -> Result<(), ApiError> {
    check_medium(goal.product, goal.medium)
        .map_err(|error| ApiError::field(format!("{field}.medium"), error))?;
    if (goal.product == Product::Sauce) != goal.thickness.is_some() {
        return Err(ApiError::field(
            format!("{field}.thickness"),
            "thickness goes with sauce, and only with sauce: thin or thick",
        ));
    }
    JAR_COUNT.check(f64::from(goal.count)).named(&format!("{field}.count"))?;
    PREFERENCE.check(f64::from(goal.preference)).named(&format!("{field}.preference"))?;
    Ok(())
}

/// Replaces what the shelf asks for.
#[utoipa::path(request_body = Vec<Goal>, responses((status = 200, body = Vec<Goal>), (status = 422, body = Problem)))]
#[put("/api/goals")]
pub async fn set_goals(
    shared: web::Data<Shared>,
    Json(goals): Json<Vec<Goal>>,
) -> Result<web::Json<Vec<Goal>>, ApiError> {
    for (place, goal) in goals.iter().enumerate() {
        check_goal(goal, &format!("[{place}]"))?;
    }
    let kept = change(&shared, move |shared| {
        shared.store.set_goals(&goals)?;
        shared.store.goals()
    });
    Ok(web::Json(kept.await?))
}
