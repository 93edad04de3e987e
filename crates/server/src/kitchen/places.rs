//! How high a place lies: by its name, by its position, or by the temperature of boiling water.

use actix_web::{get, post, web};
use bodega_core::kitchen::places::{self, Position};
use bodega_model::kitchen::altitude::{Altitude, WaterBand, from_boil_test};
use bodega_model::kitchen::ways::HeightIn;
use bodega_model::measures::limits::{CELSIUS, LATITUDE, LONGITUDE, THERMOMETER_ERROR};
use bodega_model::measures::units::Temperature;
use serde::{Deserialize, Serialize};
use uom::si::f64::TemperatureInterval;
use uom::si::length::kilometer;
use uom::si::temperature_interval::kelvin as kelvin_apart;
use uom::si::thermodynamic_temperature::degree_celsius;
use utoipa::{IntoParams, ToSchema};

use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};

/// Towns offered for what was typed.
const TOWNS: usize = 8;
/// Airfields shown around a place.
const NEAR: usize = 4;
/// Error of a kitchen thermometer when it was not said: 1 °F.
const KITCHEN_THERMOMETER_K: f64 = 1.0 / 1.8;

/// An altitude with its band of the boiling-water table.
#[derive(Debug, Serialize, ToSchema)]
pub struct Height {
    /// Feet above sea level.
    pub altitude_ft: f64,
    /// The band in words, in feet, or that none was tested.
    pub band: String,
    /// The same in metres.
    pub band_m: String,
}

impl Height {
    fn of(altitude: Altitude) -> Self {
        let band = |height| {
            let named = altitude
                .water_band()
                .and_then(|band| WaterBand::labels(height).into_iter().nth(band.column()));
            named.unwrap_or_else(|| "no tested process".to_owned())
        };
        Self {
            altitude_ft: altitude.feet().round(),
            band: band(HeightIn::Feet),
            band_m: band(HeightIn::Metres),
        }
    }
}

/// A town to choose.
#[derive(Debug, Serialize, ToSchema)]
pub struct Town {
    /// `Town, Region, CC`.
    pub place: String,
    /// Degrees north.
    pub lat: f64,
    /// Degrees east.
    pub lon: f64,
}

/// An airfield nearby.
#[derive(Debug, Serialize, ToSchema)]
pub struct NearField {
    /// Its name.
    pub name: String,
    /// Its town.
    pub place: String,
    /// Kilometres from the place asked for.
    pub distance_km: f64,
    /// How high it lies.
    pub height: Height,
}

/// The nearest airfields and what they say together.
#[derive(Debug, Serialize, ToSchema)]
pub struct NearAnswer {
    /// Nearest first.
    pub airfields: Vec<NearField>,
    /// The highest of them, the safe one to use when they straddle a band's edge.
    pub highest: Option<Height>,
    /// Whether they fall into different bands.
    pub straddles: bool,
}

/// What was typed.
#[derive(Debug, Deserialize, IntoParams)]
pub struct TownQuery {
    /// A town, or `town, region`.
    pub name: String,
}

/// A position.
#[derive(Debug, Deserialize, IntoParams)]
pub struct NearQuery {
    /// Degrees north, -90 to 90.
    pub lat: f64,
    /// Degrees east, -180 to 180.
    pub lon: f64,
}

/// A thermometer in boiling water.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct BoilTestRequest {
    /// What it reads, in degrees Celsius.
    pub boils_at_c: f64,
    /// How wrong it may be either way, in degrees Celsius, 0 to 3; 1 °F when left out.
    pub thermometer_error_c: Option<f64>,
}

/// The altitude that goes with the reading.
#[derive(Debug, Serialize, ToSchema)]
pub struct BoilTestAnswer {
    /// If the thermometer reads too low by its error.
    pub low: Height,
    /// If it reads right.
    pub expected: Height,
    /// If it reads too high by its error: the one to use.
    pub high: Height,
    /// Whether the three fall into different bands.
    pub straddles: bool,
}

/// Towns with an airfield, for what was typed.
#[utoipa::path(params(TownQuery), responses((status = 200, body = Vec<Town>), (status = 422, body = Problem)))]
#[get("/api/places")]
pub async fn find_towns(query: web::Query<TownQuery>) -> Result<web::Json<Vec<Town>>, ApiError> {
    let towns = places::towns(&query.name, TOWNS)
        .into_iter()
        .map(|field| Town {
            place: field.place(),
            lat: field.position.lat.get::<uom::si::angle::degree>(),
            lon: field.position.lon.get::<uom::si::angle::degree>(),
        })
        .collect();
    Ok(web::Json(towns))
}

/// The nearest airfields and their bands.
#[utoipa::path(params(NearQuery), responses((status = 200, body = NearAnswer), (status = 422, body = Problem)))]
#[get("/api/places/near")]
pub async fn near(query: web::Query<NearQuery>) -> Result<web::Json<NearAnswer>, ApiError> {
    let from =
        Position::degrees(LATITUDE.check(query.lat).named("lat")?, LONGITUDE.check(query.lon).named("lon")?);
    let found = places::nearest(from, NEAR);
    let highest = found.iter().map(|(_, field)| field.altitude).reduce(|a, b| if b > a { b } else { a });
    let straddles =
        found.windows(2).any(|pair| pair[0].1.altitude.water_band() != pair[1].1.altitude.water_band());
    Ok(web::Json(NearAnswer {
        highest: highest.map(Height::of),
        straddles,
        airfields: found
            .into_iter()
            .map(|(distance, field)| NearField {
                name: field.name.clone(),
                place: field.place(),
                distance_km: (distance.get::<kilometer>() * 10.0).round() / 10.0,
                height: Height::of(field.altitude),
            })
            .collect(),
    }))
}

/// Altitude from a boil test.
#[utoipa::path(request_body = BoilTestRequest, responses((status = 200, body = BoilTestAnswer), (status = 422, body = Problem)))]
#[post("/api/compute/altitude")]
pub async fn compute_altitude(
    Json(request): Json<BoilTestRequest>,
) -> Result<web::Json<BoilTestAnswer>, ApiError> {
    let reading = CELSIUS.check(request.boils_at_c).named("boils_at_c")?;
    let error = request.thermometer_error_c.unwrap_or(KITCHEN_THERMOMETER_K);
    let error = THERMOMETER_ERROR.check(error).named("thermometer_error_c")?;
    let found = from_boil_test(
        Temperature::new::<degree_celsius>(reading),
        TemperatureInterval::new::<kelvin_apart>(error),
    )
    .map_err(|error| ApiError::field("boils_at_c", error))?;
    let straddles = found.low.water_band() != found.high.water_band();
    Ok(web::Json(BoilTestAnswer {
        low: Height::of(found.low),
        expected: Height::of(found.expected),
        high: Height::of(found.high),
        straddles,
    }))
}
