//! What is read and done at a kettle over HTTP: readings, touches, what goes in and what comes out.

use actix_web::{delete, patch, post, web};
use bodega_core::kettle::cooking::{taken_off, vessel, went_in};
use bodega_core::plan::stuff::in_kettle;
use bodega_model::kettle::contents::Contents;
use bodega_model::kettle::words::{CookWhat, HeatSetting};
use bodega_model::ledger::food::{Food, FoodMeasure, FoodPlace, Told};
use bodega_model::measures::ids::{CookId, LotId};
use bodega_model::measures::limits::{KETTLE_VOLUME, PROBE};
use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::{in_litres_per_hour, litres};
use bodega_model::records::batch::{Batch, Draw};
use bodega_model::records::cook::{Cook, CookEvent};
use bodega_model::records::kitchen::Units;
use bodega_model::records::lot::Lot;
use bodega_model::records::moved::{NewMove, Source};
use bodega_store::StoreError;
use serde::Deserialize;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::age::Age;
use crate::compute::kettle::observation;
use crate::compute::kettle::shapes::KettleReading;
use crate::created::Created;
use crate::json::Json;
use crate::kettle::learned::learned;
use crate::kettle::view::{CookView, view};
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change, read};
use crate::weight::whole_grams;

/// A reading, something that went in or came out, or a hand on the lid or the heat: one of them.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CookEventRequest {
    /// Litres in the kettle.
    pub volume_l: Option<f64>,
    /// Depth on the stick.
    pub depth_mm: Option<f64>,
    /// Net kilograms on a scale.
    pub mass_kg: Option<f64>,
    /// °Brix of a sample.
    pub brix: Option<f64>,
    /// Litres taken off, well mixed.
    pub drain_l: Option<f64>,
    /// Litres of thin juice ladled off; the pulp stays.
    pub ladle_l: Option<f64>,
    /// Where what was taken off goes: for other jars when nobody says.
    pub place: Option<FoodPlace>,
    /// Litres that went in; with a lot, all that is left of it when they are not said.
    pub add_l: Option<f64>,
    /// The lot that they came from.
    pub lot: Option<LotId>,
    /// Temperature in degrees Celsius.
    pub temp_c: Option<f64>,
    /// The lid went on (`true`) or came off.
    pub lid_on: Option<bool>,
    /// It boils now (`true`), or not yet.
    pub boils: Option<bool>,
    /// It is as hot as it is to be held.
    pub hot_enough: Option<bool>,
    /// The heat was turned to this setting.
    pub setting: Option<HeatSetting>,
    /// The moment of a reading that this explains: it happened before that.
    pub before: Option<Moment>,
    /// Whether somebody stands by the reading though it surprises.
    #[serde(default)]
    pub sure: bool,
}

/// A touch without a number, if it is one.
const fn touch(request: CookEventRequest) -> Option<CookWhat> {
    match (request.lid_on, request.boils, request.hot_enough) {
        (Some(true), ..) => Some(CookWhat::LidOn),
        (Some(false), ..) => Some(CookWhat::LidOff),
        (None, Some(true), _) => Some(CookWhat::Boils),
        (None, Some(false), _) => Some(CookWhat::NotYet),
        (None, _, Some(true)) => Some(CookWhat::HotEnough),
        _ => None,
    }
}

/// The one thing that was read or touched, checked against the kettle.
fn checked(request: CookEventRequest, cook: &Cook, units: Units) -> Result<(CookWhat, f64), ApiError> {
    if let Some(what) = touch(request) {
        return Ok((what, 1.0));
    }
    if let Some(temperature) = request.temp_c {
        return Ok((CookWhat::TempC, PROBE.check(temperature).named("temp_c")?));
    }
    let taken =
        [(CookWhat::DrainL, request.drain_l, "drain_l"), (CookWhat::LadleL, request.ladle_l, "ladle_l")];
    for (what, given, field) in taken {
        let Some(given) = given else { continue };
        let value = KETTLE_VOLUME.check(given).named(field)?;
        // All of it is all of it, whichever way it was added up.
        if went_in(cook) - taken_off(cook) - litres(value) <= litres(1e-9) {
            return Err(ApiError::field(field, "that is all that went in; check how much it was"));
        }
        return Ok((what, value));
    }
    let reading = KettleReading {
        minute: 0.0,
        volume_l: request.volume_l,
        depth_mm: request.depth_mm,
        mass_kg: request.mass_kg,
        brix: request.brix,
        temperature_c: None,
        boils: None,
        sure: false,
    };
    let start = Contents::of_volume(went_in(cook), cook.brix);
    observation(reading, "reading", start, &vessel(&cook.kettle), units)?;
    let given = [
        (CookWhat::VolumeL, request.volume_l),
        (CookWhat::DepthMm, request.depth_mm),
        (CookWhat::MassKg, request.mass_kg),
        (CookWhat::Brix, request.brix),
    ];
    given.into_iter().find_map(|(what, value)| Some((what, value?))).ok_or_else(|| {
        ApiError::field(
            "reading",
            "give one of: volume_l, depth_mm, mass_kg, brix, drain_l, ladle_l, add_l, temp_c, lid_on, boils, \
             hot_enough, setting",
        )
    })
}

/// Where what is taken off a kettle goes, as a move of its batch.
fn goes_to(
    (cook, batch): (&Cook, &Batch),
    what: CookWhat,
    value: f64,
    place: Option<FoodPlace>,
) -> Result<NewMove, ApiError> {
    let food = if what == CookWhat::LadleL { Food::ThinJuice } else { Food::Juice };
    let told = Told { amount: value, measure: FoodMeasure::Litre };
    let place = place.unwrap_or(FoodPlace::Line);
    food.may_go(place, Some(batch.product)).map_err(|error| ApiError::field("place", error))?;
    Ok(NewMove {
        from: Source::Batch(batch.id),
        food,
        place,
        told,
        weight_g: whole_grams(told.mass(food, cook.brix)),
        packs: None,
    })
}

/// What goes in while it cooks: litres, and what of a lot that is.
fn more(request: CookEventRequest, cook: &Cook, lot: Option<&Lot>) -> Result<(f64, Option<Draw>), ApiError> {
    let all = lot.map(|lot| in_kettle(&lot.stuff(lot.left_g)).get::<liter>());
    let added = match (request.add_l, all) {
        (Some(added), _) => KETTLE_VOLUME.check(added).named("add_l")?,
        (None, Some(all)) => KETTLE_VOLUME.check(all).named("lot")?,
        (None, None) => return Err(ApiError::field("add_l", "say how much goes in, or from which lot")),
    };
    let drawn = lot.zip(all).map(|(lot, all)| {
        #[allow(clippy::cast_precision_loss, clippy::cast_possible_truncation)]
        // within the weight of the lot
        let weight_g = ((lot.left_g as f64) * (added / all).min(1.0)).round() as i64;
        Draw { lot: lot.id, weight_g: weight_g.max(1) }
    });
    let brim = vessel(&cook.kettle).brim().get::<liter>();
    if added > brim {
        return Err(ApiError::field("add_l", "that is more than the kettle holds; check how much it was"));
    }
    Ok((added, drawn))
}

/// How long before a reading that surprised was done what explains it, in milliseconds.
const BEFORE_MS: i64 = 60_000;

/// When something happened that explains a reading: shortly before it, and after what was written down before that.
fn explains(cook: &Cook, reading: Moment) -> Result<Moment, ApiError> {
    let place = cook.log.iter().position(|event| event.at == reading);
    let place = place.ok_or_else(|| ApiError::field("before", "there is no reading of that moment"))?;
    let last = place.checked_sub(1).map_or(cook.started_at, |last| cook.log[last].at);
    Ok(Moment((reading.0 - BEFORE_MS).max(last.0 + 1).min(reading.0)))
}

/// Whether somebody stands by a reading.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct SureRequest {
    /// Stands by it, or not.
    pub sure: bool,
}

/// Stands by a reading though it surprises, or no longer.
#[utoipa::path(params(("id" = i64, Path), ("at" = i64, Path)), request_body = SureRequest,
    responses((status = 200, body = CookView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[patch("/api/cooks/{id}/events/{at}")]
pub async fn stand_by_reading(
    shared: web::Data<Shared>,
    path: web::Path<(CookId, Moment)>,
    Json(request): Json<SureRequest>,
) -> Result<web::Json<CookView>, ApiError> {
    let (id, at) = *path;
    let done = change(&shared, Topic::Reading, move |shared| {
        view(shared, shared.store.stand_by_reading(id, at, request.sure)?)
    });
    Ok(web::Json(done.await?))
}

/// Writes a reading or a touch down; a device posts here as a hand does.
#[utoipa::path(params(("id" = i64, Path), ("bodega-age-ms" = Option<i64>, Header)), request_body = CookEventRequest,
    responses((status = 201, body = CookView), (status = 404, body = Problem), (status = 409, body = Problem),
              (status = 422, body = Problem)))]
#[post("/api/cooks/{id}/events")]
pub async fn add_cook_event(
    shared: web::Data<Shared>,
    id: web::Path<CookId>,
    age: Age,
    Json(request): Json<CookEventRequest>,
) -> Result<Created<CookView>, ApiError> {
    let id = *id;
    let wanted = request.lot;
    let (turned, before) = (request.setting, request.before);
    let (cook, rate, lot, units) = read(&shared, move |shared| {
        let store = &shared.store;
        let lot = wanted.map(|lot| store.lot(lot)).transpose()?;
        let cook = store.cook(id)?;
        let rate = |setting| Ok::<_, StoreError>(learned(shared, &cook.kettle)?.at(setting).rate);
        let rate = turned.map(rate).transpose()?;
        Ok((cook, rate, lot, store.kitchen()?.units))
    })
    .await?;
    if let Some(lot) = lot.as_ref().filter(|lot| !lot.condition.can_be_canned()) {
        return Err(ApiError::field("lot", format!("lot {} is {} and is not canned", lot.id, lot.condition)));
    }
    let adds = request.add_l.is_some() || request.lot.is_some();
    let (what, value, drawn) = match request.setting.zip(rate) {
        Some((setting, rate)) => (CookWhat::turned(setting), in_litres_per_hour(rate), None),
        None if adds => {
            let (added, drawn) = more(request, &cook, lot.as_ref())?;
            (CookWhat::AddL, added, drawn)
        }
        None => {
            let (what, value) = checked(request, &cook, units)?;
            (what, value, None)
        }
    };
    let before = before.map(|reading| explains(&cook, reading)).transpose()?;
    let went = match cook.batch.filter(|_| what.takes_off()) {
        Some(batch) => {
            let batch = read(&shared, move |shared| shared.store.batch(batch)).await?;
            Some(goes_to((&cook, &batch), what, value, request.place)?)
        }
        None => None,
    };
    // What went in or was taken off is food that is elsewhere now.
    let moves_food = matches!(what, CookWhat::AddL | CookWhat::LadleL | CookWhat::DrainL);
    let topic = if moves_food { Topic::Everything } else { Topic::Reading };
    let done = change(&shared, topic, move |shared| {
        let at = before.unwrap_or_else(|| age.touched(&shared.clock).at);
        let event = CookEvent { at, what, value, simulated: false, sure: request.sure, booked: false };
        let store = &shared.store;
        let cook = match what {
            CookWhat::AddL => store.add_more(id, &event, drawn)?,
            what if what.takes_off() => store.take_off(id, &event, went.as_ref(), shared.clock.today())?,
            _ => store.add_cook_event(id, &event)?,
        };
        view(shared, cook)
    });
    let body = done.await?;
    Ok(Created { at: format!("/api/cooks/{}", body.id), body })
}

/// Takes the line of a moment out of the log; said twice, it takes out one.
#[utoipa::path(params(("id" = i64, Path), ("at" = i64, Path)),
    responses((status = 200, body = CookView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/api/cooks/{id}/events/{at}")]
pub async fn undo_cook_event(
    shared: web::Data<Shared>,
    path: web::Path<(CookId, Moment)>,
) -> Result<web::Json<CookView>, ApiError> {
    let (id, at) = *path;
    let done = change(&shared, Topic::Everything, move |shared| {
        view(shared, shared.store.undo_cook_event(id, at, shared.clock.now())?)
    });
    Ok(web::Json(done.await?))
}
