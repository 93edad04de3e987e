//! The cupboard over HTTP.

use actix_web::{get, put, web};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::{JarSize, Mouth};
use bodega_model::measures::limits::{ACID_STOCK, JAR_STOCK};
use bodega_model::records::stock::{Cupboard, Item};
use serde::Deserialize;
use utoipa::ToSchema;

use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change, read};

/// A count of one thing.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(tag = "item", rename_all = "snake_case", deny_unknown_fields)]
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
    let done = change(&shared, Topic::Stock, move |shared| {
        shared.store.count_stock(item, amount, mouth, shared.clock.now())
    })
    .await?;
    Ok(web::Json(done))
}

/// A bottle that is opened.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct OpenRequest {
    /// Of which acid.
    pub agent: Agent,
}

/// Says that a bottle was opened today.
#[utoipa::path(request_body = OpenRequest, responses((status = 200, body = Cupboard), (status = 409, body = Problem)))]
#[put("/api/stock/bottle")]
pub async fn open_bottle(
    shared: web::Data<Shared>,
    Json(request): Json<OpenRequest>,
) -> Result<web::Json<Cupboard>, ApiError> {
    let today = shared.clock.today();
    Ok(web::Json(
        change(&shared, Topic::Stock, move |shared| shared.store.open_bottle(request.agent, today)).await?,
    ))
}
