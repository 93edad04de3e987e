//! The same fruit as every product, side by side.

use actix_web::{post, web};
use bodega_core::kitchen::cupboard::missing;
use bodega_core::plan::outlook;
use bodega_core::plan::outlook::Ground;
use bodega_core::plan::stuff::{can_become, cannot_become, is_refused};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::ledger::food::Stuff;
use bodega_model::measures::ids::LotId;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::range::Range;
use bodega_model::measures::words::capital;
use bodega_model::plan::making::{Making, Thickness, usual_jar};
use bodega_model::records::lot::Lot;
use bodega_model::tables::process::{Medium, Pack, Product};
use serde::{Deserialize, Serialize};
use uom::si::mass::gram;
use uom::si::time::hour;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::json::Json;
use crate::plan::ground::stuff_of;
use crate::plan::table::set_table;
use crate::problem::{ApiError, Problem};
use crate::state::Shared;

/// Fruit to look at.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CompareRequest {
    /// Lots, all of what is left of each.
    pub lots: Vec<LotId>,
    /// Acid of choice.
    pub agent: Agent,
}

/// The same fruit as one product.
#[derive(Debug, Serialize, ToSchema)]
pub struct Compared {
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
    /// Grams of fruit in a jar.
    pub weight_per_jar_g: f64,
    /// Litres boiled away.
    pub boiled_away_l: f64,
    /// Hours of one burner.
    pub stove_hours: f64,
    /// Hands-on minutes.
    pub hands_minutes: Minutes,
    /// Canner loads.
    pub loads: u32,
    /// Minutes of the canner, turnarounds included.
    pub canner_minutes: Minutes,
    /// Tested minutes of a load; `null` when there is no tested process.
    pub minutes: Option<Minutes>,
    /// Acid for all jars, as measured out.
    pub acid: String,
    /// Household batches that the yield was learned from.
    pub learned_from: usize,
    /// What it needs that is not there, in words.
    pub missing: Vec<String>,
    /// Why some of the fruit cannot become this, and what would do; `null` when all of it can.
    pub refused: Option<String>,
}

/// Why some of the lots cannot become a product.
pub(crate) fn refused(lots: &[Lot], product: Product) -> Option<String> {
    let lot = lots.iter().find(|lot| is_refused(&lot.stuff(lot.left_g), product))?;
    Some(capital(&cannot_become(&lot.words(), &lot.stuff(lot.left_g), product)))
}

/// The waiting fruit as every product, side by side.
#[utoipa::path(request_body = CompareRequest,
    responses((status = 200, body = Vec<Compared>), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/plan/compare")]
pub async fn compare(
    shared: web::Data<Shared>,
    Json(request): Json<CompareRequest>,
) -> Result<web::Json<Vec<Compared>>, ApiError> {
    let table = set_table(&shared, &request.lots).await?;
    let ground = Ground {
        method: table.kitchen.canner.method,
        altitude: table.altitude,
        room: &table.room,
        turnaround: Minutes(table.kitchen.turnaround_minutes),
        agent: request.agent,
        household: &table.household,
    };
    let fruit = stuff_of(&table.lots);
    let compared = Making::ALL
        .into_iter()
        .filter(|making| {
            let may = |stuff: &Stuff| can_become(stuff, making.product) || is_refused(stuff, making.product);
            fruit.iter().any(may)
        })
        .map(|making| {
            let seen = outlook::outlook(making, usual_jar(&making), &fruit, &ground);
            Compared {
                product: making.product,
                medium: making.medium,
                pack: making.pack,
                thickness: making.thickness,
                jar: seen.jar,
                jars: seen.jars,
                weight_per_jar_g: seen.weight_per_jar.get::<gram>(),
                boiled_away_l: seen.boiled_away.get::<liter>(),
                stove_hours: seen.stove.get::<hour>(),
                hands_minutes: seen.hands,
                loads: seen.loads,
                canner_minutes: seen.canner,
                minutes: seen.process.as_ref().ok().map(|option| option.minutes),
                acid: table.kitchen.spoons.amount_with_volume(request.agent, seen.acid.as_f64()),
                learned_from: seen.learned_from,
                refused: refused(&table.lots, making.product),
                missing: missing(&table.cupboard, request.agent, seen.jar, seen.jars.expected),
            }
        })
        .collect();
    Ok(web::Json(compared))
}
