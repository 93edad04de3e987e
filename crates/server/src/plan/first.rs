//! The first answer over HTTP: nothing has to be recorded for it.

use actix_web::{post, web};
use bodega_core::canner::room::room_of;
use bodega_core::plan::first;
use bodega_core::plan::first::FirstGround;
use bodega_core::plan::yields::learn::Household;
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::limits::WEIGHT;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::range::Range;
use bodega_model::measures::units::kilograms;
use bodega_model::plan::making::{Making, Thickness};
use bodega_model::tables::process::{Medium, Method, Pack, Product};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::json::Json;
use crate::plan::ground::check_plain;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, read};

/// What somebody says before anything else is known.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct FirstRequest {
    /// Height above sea level in feet, -2,000 to 30,000; the kitchen's own when left out, and every tested altitude when that is
    /// not known either.
    pub altitude_ft: Option<f64>,
    /// Kilograms of fresh tomatoes in hand, 0.01 to 5,000.
    pub weight_kg: f64,
    /// What is wanted; everything when left out.
    pub product: Option<Product>,
    /// Acid of choice.
    pub agent: Agent,
}

/// What the tomatoes could be as one product.
#[derive(Debug, Serialize, ToSchema)]
pub struct FirstLine {
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
    /// Full jars.
    pub jars: Range<u32>,
    /// Acid for one jar, as measured out.
    pub acid: String,
    /// Least minutes of a load; `null` when there is no tested process.
    pub minutes_from: Option<Minutes>,
    /// Most minutes of a load: the same when the altitude is known.
    pub minutes_to: Option<Minutes>,
    /// Why there is no tested process, and what to do instead.
    pub refusal: Option<String>,
    /// Canner loads.
    pub loads: u32,
    /// Least minutes of the canner, turnarounds included.
    pub canner_from: Minutes,
    /// Most minutes of the canner.
    pub canner_to: Minutes,
    /// Hands-on minutes.
    pub hands: Minutes,
    /// Minutes of one burner.
    pub stove: Minutes,
}

/// Everything the tomatoes could be.
#[derive(Debug, Serialize, ToSchema)]
pub struct FirstAnswerView {
    /// The altitude that was answered for, in feet; `null` for all that have a tested process.
    pub altitude_ft: Option<f64>,
    /// How the jars would be heated.
    pub method: Method,
    /// One line each, in the order people think of them.
    pub lines: Vec<FirstLine>,
}

/// What so many tomatoes could be: jars, acid, minutes, loads and hours, with nothing recorded.
#[utoipa::path(request_body = FirstRequest,
    responses((status = 200, body = FirstAnswerView), (status = 422, body = Problem)))]
#[post("/api/plan/first")]
pub async fn first_answer(
    shared: web::Data<Shared>,
    Json(request): Json<FirstRequest>,
) -> Result<web::Json<FirstAnswerView>, ApiError> {
    let mass = kilograms(WEIGHT.check(request.weight_kg).named("weight_kg")?);
    if let Some(product) = request.product {
        check_plain(product, "product")?;
    }
    let (kitchen, finished) =
        read(&shared, |shared| Ok((shared.store.kitchen()?, shared.store.finished()?))).await?;
    let altitude_ft = request.altitude_ft.or(kitchen.altitude_ft);
    let room = room_of(&kitchen.canner, &kitchen.outsides());
    let ground = FirstGround {
        method: kitchen.canner.method,
        altitude: altitude_ft.map(Altitude::from_feet).transpose().named("altitude_ft")?,
        room: &room,
        turnaround: Minutes(kitchen.turnaround_minutes),
        agent: request.agent,
        household: &Household { finished },
    };
    let lines = Making::ALL
        .into_iter()
        .filter(|making| request.product.is_none_or(|product| product == making.product))
        .map(|making| {
            let seen = first::first_answer(making, mass, &ground);
            let (times, refusal) = match seen.minutes {
                Ok(times) => (Some(times), None),
                Err(refusal) => (None, Some(refusal.message)),
            };
            FirstLine {
                product: making.product,
                medium: making.medium,
                pack: making.pack,
                thickness: making.thickness,
                jar: seen.jar,
                jars: seen.jars,
                acid: kitchen.spoons.dose(request.agent, seen.acid),
                minutes_from: times.map(|(least, _)| least),
                minutes_to: times.map(|(_, most)| most),
                refusal,
                loads: seen.loads,
                canner_from: seen.canner.0,
                canner_to: seen.canner.1,
                hands: seen.hands,
                stove: seen.stove,
            }
        })
        .collect();
    Ok(web::Json(FirstAnswerView { altitude_ft, method: kitchen.canner.method, lines }))
}
