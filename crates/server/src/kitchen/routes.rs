//! The kitchen over HTTP.

use std::collections::BTreeMap;

use actix_web::{get, patch, web};
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::Spoons;
use bodega_model::kitchen::altitudes::AltitudeReason;
use bodega_model::kitchen::ways::{Days, Decimal, HeatIn, HeightIn, HoursIn};
use bodega_model::measures::ids::CannerId;
use bodega_model::measures::limits::{
    ALTITUDE, HELP, JAR_DIAMETER, JAR_HEIGHT, MINUTES, PLANT_YIELD, TURNAROUND,
};
use bodega_model::records::kitchen::{JarMeasure, Kitchen, KitchenChange, Units};
use serde::Deserialize;
use utoipa::ToSchema;

use crate::json::Json;
use crate::live::Topic;
use crate::named::clean_name;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change, read};
use crate::who::Who;

/// A change to the kitchen; absent fields stay.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct KitchenRequest {
    /// New name, 1 to 80 letters.
    pub name: Option<String>,
    /// Height above sea level in feet, -2,000 to 30,000.
    pub altitude_ft: Option<f64>,
    /// Why it is another one: asked for once jars stand at home that were put up by the one before.
    pub altitude_reason: Option<AltitudeReason>,
    /// Units to show.
    pub units: Option<Units>,
    /// Spoons and cups that doses are measured with.
    pub spoons: Option<Spoons>,
    /// How times of day are written.
    pub hours: Option<HoursIn>,
    /// How days are written.
    pub days: Option<Days>,
    /// How numbers are written.
    pub decimal: Option<Decimal>,
    /// What heat is read in, whatever the units.
    pub heat: Option<HeatIn>,
    /// What heights are read in, whatever the units.
    pub height: Option<HeightIn>,
    /// Minutes between two loads, 0 to 240.
    pub turnaround_minutes: Option<u32>,
    /// Pairs of hands, 1 to 20.
    pub people: Option<u32>,
    /// Burners, 1 to 20.
    pub burners: Option<u32>,
    /// When the day's work is to be done, in minutes after midnight, 0 to 1,440.
    pub day_ends: Option<u32>,
    /// When everybody sits down, in minutes after midnight, 0 to 1,440.
    pub break_at: Option<u32>,
    /// Takes the break off the day.
    #[serde(default)]
    pub no_break: bool,
    /// Pounds of fruit to expect of one plant, 0.5 to 100.
    pub pounds_per_plant: Option<f64>,
    /// The canner to plan for.
    pub canner: Option<CannerId>,
    /// Jars measured from outside, by size: 30 to 300 mm wide, 30 to 500 mm high.
    #[serde(default)]
    #[schema(value_type = BTreeMap<String, JarMeasure>)]
    pub jar_outsides: BTreeMap<JarSize, JarMeasure>,
}

/// The kitchen.
#[utoipa::path(responses((status = 200, body = Kitchen)))]
#[get("/api/kitchen")]
pub async fn get_kitchen(shared: web::Data<Shared>) -> Result<web::Json<Kitchen>, ApiError> {
    Ok(web::Json(read(&shared, |shared| shared.store.kitchen()).await?))
}

/// Changes the kitchen.
#[utoipa::path(request_body = KitchenRequest, responses((status = 200, body = Kitchen), (status = 422, body = Problem)))]
#[patch("/api/kitchen")]
pub async fn change_kitchen(
    shared: web::Data<Shared>,
    who: Who,
    Json(request): Json<KitchenRequest>,
) -> Result<web::Json<Kitchen>, ApiError> {
    for (jar, measure) in &request.jar_outsides {
        JAR_DIAMETER
            .check(measure.diameter_mm)
            .named(format_args!("jar_outsides.{}.diameter_mm", jar.word()))?;
        JAR_HEIGHT.check(measure.height_mm).named(format_args!("jar_outsides.{}.height_mm", jar.word()))?;
    }
    for (field, count) in [("people", request.people), ("burners", request.burners)] {
        count.map(|count| HELP.check(f64::from(count)).named(field)).transpose()?;
    }
    request.day_ends.map(|minutes| MINUTES.check(f64::from(minutes)).named("day_ends")).transpose()?;
    request.break_at.map(|minutes| MINUTES.check(f64::from(minutes)).named("break_at")).transpose()?;
    let wanted = KitchenChange {
        people: request.people,
        burners: request.burners,
        day_ends: request.day_ends,
        break_at: if request.no_break { Some(None) } else { request.break_at.map(Some) },
        name: request.name.map(|name| clean_name(&name, "name")).transpose()?,
        altitude_ft: request.altitude_ft.map(|feet| ALTITUDE.check(feet).named("altitude_ft")).transpose()?,
        altitude_reason: request.altitude_reason,
        units: request.units,
        spoons: request.spoons,
        hours: request.hours,
        days: request.days,
        decimal: request.decimal,
        heat: request.heat,
        height: request.height,
        turnaround_minutes: request.turnaround_minutes,
        pounds_per_plant: request
            .pounds_per_plant
            .map(|pounds| PLANT_YIELD.check(pounds).named("pounds_per_plant"))
            .transpose()?,
        canner: request.canner,
        jar_outsides: request.jar_outsides,
    };
    if let Some(minutes) = wanted.turnaround_minutes {
        TURNAROUND.check(f64::from(minutes)).named("turnaround_minutes")?;
    }
    Ok(web::Json(
        change(&shared, Topic::Everything, move |shared| {
            shared.store.change_kitchen(&wanted, &who.tells(shared.clock.now()))
        })
        .await?,
    ))
}
