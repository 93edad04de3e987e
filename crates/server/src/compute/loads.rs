//! Which jars go into the canner together.

use std::collections::BTreeMap;

use actix_web::{post, web};
use bodega_core::canner::loads::{Group, group};
use bodega_core::canner::room::Capacity;
use bodega_core::canner::room::{CannerRoom, Room};
use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::limits::{CAPACITY, JAR_COUNT, TURNAROUND};
use bodega_model::measures::moment::Minutes;
use bodega_model::records::canner::PotSize;
use bodega_model::tables::process::{Medium, Method, Pack, Product, Query, check_medium, look_up};
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::json::Json;
use crate::kitchen::canners::check_pot;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::off_thread;

/// Like jars to process.
#[derive(Debug, Clone, Copy, Serialize, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LoadLine {
    /// What is in them.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Size.
    pub jar: JarSize,
    /// How many, 0 to 1,000.
    pub count: u32,
}

/// What is asked: the canner by capacity or by its inside.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct LoadsRequest {
    /// Jars that fit when all are of one size, 1 to 100.
    #[schema(value_type = Option<BTreeMap<String, u32>>)]
    pub capacity: Option<BTreeMap<JarSize, u32>>,
    /// The pot, when the capacity is not known.
    pub vessel: Option<PotSize>,
    /// How the jars are heated.
    pub method: Method,
    /// Height of the kitchen in feet.
    pub altitude_ft: f64,
    /// Minutes added to each load, 0 to 240.
    pub turnaround_minutes: u32,
    /// Jars to process.
    pub jars: Vec<LoadLine>,
}

/// One load.
#[derive(Debug, Serialize, ToSchema)]
pub struct LoadAnswer {
    /// What goes in.
    pub jars: Vec<LoadLine>,
    /// The longest time among its jars.
    pub minutes: Minutes,
}

/// The loads.
#[derive(Debug, Serialize, ToSchema)]
pub struct LoadsAnswer {
    /// Longest first.
    pub loads: Vec<LoadAnswer>,
    /// Sum of the loads' minutes and one turnaround for each.
    pub total_minutes: Minutes,
    /// Proven: no grouping takes less.
    pub lower_bound_minutes: Minutes,
}

/// A pot of one calculator: where jars can stand, whatever a household counted.
fn room(request: &LoadsRequest) -> Result<Box<dyn Room + Send>, ApiError> {
    let pot = request.vessel.map(|vessel| check_pot(vessel, "vessel")).transpose()?;
    if let Some(capacity) = &request.capacity {
        let counted = capacity.iter().map(|(jar, count)| {
            CAPACITY.check(f64::from(*count)).named(format_args!("capacity.{}", jar.word()))?;
            Ok(Capacity { jar: *jar, count: *count })
        });
        return Ok(Box::new(counted.collect::<Result<Vec<_>, ApiError>>()?));
    }
    let pot = pot.ok_or_else(|| ApiError::field("capacity", "give the canner's capacity, or its vessel"))?;
    Ok(Box::new(CannerRoom::of_pot(pot, request.method)))
}

/// Whether so few jars are grouped that a thread of its own would cost more: of two sizes a canner has a handful of fillings.
fn is_quick(groups: &[Group]) -> bool {
    /// Jars in all.
    const FEW: u32 = 100;
    let mut sizes: Vec<JarSize> = groups.iter().map(|group| group.jar).collect();
    sizes.sort_unstable();
    sizes.dedup();
    sizes.len() <= 2 && groups.iter().map(|group| group.count).sum::<u32>() <= FEW
}

/// Groups the jars into loads of least total time.
#[utoipa::path(request_body = LoadsRequest, responses((status = 200, body = LoadsAnswer), (status = 422, body = Problem)))]
#[post("/api/compute/loads")]
pub async fn compute_loads(Json(request): Json<LoadsRequest>) -> Result<web::Json<LoadsAnswer>, ApiError> {
    let altitude = Altitude::from_feet(request.altitude_ft).named("altitude_ft")?;
    TURNAROUND.check(f64::from(request.turnaround_minutes)).named("turnaround_minutes")?;
    let room = room(&request)?;
    let mut groups = Vec::new();
    for (place, line) in request.jars.iter().enumerate() {
        JAR_COUNT.check(f64::from(line.count)).named(format_args!("jars[{place}].count"))?;
        check_medium(line.product, line.medium)
            .map_err(|error| ApiError::field(format!("jars[{place}].medium"), error))?;
        let query = Query {
            product: line.product,
            medium: line.medium,
            pack: line.pack,
            method: request.method,
            jar: line.jar,
            altitude,
        };
        // Without pressure there is one option; under pressure the lowest one is common to every product.
        let tested =
            look_up(&query).map_err(|refusal| ApiError::field(format!("jars[{place}]"), refusal.message))?;
        groups.push(Group { jar: line.jar, minutes: tested.options[0].minutes, count: line.count });
    }
    let turnaround = Minutes(request.turnaround_minutes);
    let lines = request.jars;
    let grouped = if is_quick(&groups) {
        group(&groups, &*room, turnaround)
    } else {
        off_thread(move || group(&groups, &*room, turnaround)).await?
    };
    let plan = grouped.map_err(|error| {
        ApiError::field(if request.vessel.is_some() { "vessel" } else { "capacity" }, error)
    })?;
    let loads = plan
        .loads
        .into_iter()
        .map(|load| LoadAnswer {
            jars: load
                .jars
                .iter()
                .map(|(index, count)| LoadLine { count: *count, ..lines[*index] })
                .collect(),
            minutes: load.minutes,
        })
        .collect();
    Ok(web::Json(LoadsAnswer { loads, total_minutes: plan.total, lower_bound_minutes: plan.lower_bound }))
}
