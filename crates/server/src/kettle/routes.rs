//! Kettles and cook-downs over HTTP.

use actix_web::{delete, get, patch, post, put, web};
use bodega_core::crates::fruit::Kind;
use bodega_core::kettle::cooking::{expected_rate, learned, vessel};
use bodega_core::kettle::{Contents, CookWhat, HeatSetting, KettleHeat, Target, TargetKind};
use bodega_core::measures::ids::{BatchId, CookId, KettleId};
use bodega_core::measures::limits::{
    BRIX, DEPTH_READ, KETTLE_VOLUME, PROBE, VESSEL_DIAMETER, VESSEL_HEIGHT, WEIGHT,
};
use bodega_core::measures::moment::Moment;
use bodega_core::measures::units::{in_litres_per_hour, kilograms, litres};
use bodega_core::plan::outlook::juice_brix;
use bodega_core::plan::yields;
use bodega_core::records::cook::{Cook, CookEvent, Kettle, NewCook, NewKettle};
use bodega_core::tables::process::Product;
use bodega_store::StoreError;
use serde::Deserialize;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::age::Age;
use crate::compute::kettle::{KettleReading, KettleTarget, sight, target};
use crate::created::Created;
use crate::json::Json;
use crate::kettle::view::{CookView, KettleView, on_stove, view};
use crate::kitchen::names::clean_name;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, change, read};

/// A kettle to add.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct NewKettleRequest {
    /// Name, 1 to 80 letters.
    pub name: String,
    /// Inner width, 80 to 1,000 mm.
    pub inner_diameter_mm: f64,
    /// Inner depth, 50 to 1,000 mm.
    pub depth_mm: f64,
    /// Where it stands while it cooks down.
    pub heat: KettleHeat,
}

/// Pouring like measures into a kettle and reading the stick after each.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CalibrationRequest {
    /// Litres of one measure, 0.05 to 500.
    pub pour_l: f64,
    /// Depth after each measure, rising, in millimetres; none makes the walls straight again.
    pub depths_mm: Vec<f64>,
}

/// A cook-down to begin.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CookRequest {
    /// In which kettle.
    pub kettle: KettleId,
    /// The batch on the line that it is for.
    pub batch: Option<BatchId>,
    /// Litres that go in; or the weight of the raw fruit.
    pub volume_l: Option<f64>,
    /// Kilograms of raw fruit that were milled, when nobody measured the juice.
    pub weight_kg: Option<f64>,
    /// Their °Brix, when somebody measured it.
    pub brix: Option<f64>,
    /// Kind of fruit, from which the °Brix is taken when nobody did.
    pub kind: Kind,
    /// How far the heat is turned up; full when nothing is said.
    pub setting: Option<HeatSetting>,
    /// Where it stops.
    pub target: KettleTarget,
}

/// A reading, a drain, or a hand on the lid or the heat: one of them.
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
    /// Litres drained off.
    pub drain_l: Option<f64>,
    /// Temperature in degrees Celsius.
    pub temp_c: Option<f64>,
    /// The lid went on (`true`) or came off.
    pub lid_on: Option<bool>,
    /// The heat was turned to this setting.
    pub setting: Option<HeatSetting>,
}

/// Kettles by name, with the rate each has shown.
#[utoipa::path(responses((status = 200, body = Vec<KettleView>)))]
#[get("/api/kettles")]
pub async fn list_kettles(shared: web::Data<Shared>) -> Result<web::Json<Vec<KettleView>>, ApiError> {
    let views = read(&shared, |shared| {
        let (ended, open) = (shared.store.cooks(true)?, shared.store.cooks(false)?);
        let view = |kettle: Kettle| {
            Ok(KettleView {
                brim_l: vessel(&kettle).brim().get::<liter>(),
                rates: learned(&ended, &kettle),
                busy: open.iter().any(|cook| cook.kettle.id == kettle.id),
                kettle,
            })
        };
        shared.store.kettles()?.into_iter().map(view).collect::<Result<Vec<_>, StoreError>>()
    });
    Ok(web::Json(views.await?))
}

/// Adds a kettle.
#[utoipa::path(request_body = NewKettleRequest,
    responses((status = 201, body = Kettle), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/kettles")]
pub async fn add_kettle(
    shared: web::Data<Shared>,
    Json(request): Json<NewKettleRequest>,
) -> Result<Created<Kettle>, ApiError> {
    let name = clean_name(&request.name, "name")?;
    let diameter = VESSEL_DIAMETER.check(request.inner_diameter_mm).named("inner_diameter_mm")?;
    let depth = VESSEL_HEIGHT.check(request.depth_mm).named("depth_mm")?;
    let new = NewKettle { name, inner_diameter_mm: diameter, depth_mm: depth, heat: request.heat };
    let body = change(&shared, move |shared| shared.store.add_kettle(&new)).await?;
    Ok(Created { at: format!("/api/kettles/{}", body.id), body })
}

/// Calibrates a kettle whose walls are not straight.
#[utoipa::path(params(("id" = i64, Path)), request_body = CalibrationRequest,
    responses((status = 200, body = Kettle), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/kettles/{id}/calibration")]
pub async fn calibrate_kettle(
    shared: web::Data<Shared>,
    id: web::Path<KettleId>,
    Json(request): Json<CalibrationRequest>,
) -> Result<web::Json<Kettle>, ApiError> {
    let pour = KETTLE_VOLUME.check(request.pour_l).named("pour_l")?;
    for (place, depth) in request.depths_mm.iter().enumerate() {
        let field = format!("depths_mm[{place}]");
        DEPTH_READ.check(*depth).named(&field)?;
        if place > 0 && *depth <= request.depths_mm[place - 1] {
            return Err(ApiError::field(
                field,
                "each measure must stand higher than the one before; read it again",
            ));
        }
    }
    let done = change(&shared, move |shared| shared.store.calibrate_kettle(*id, pour, &request.depths_mm));
    Ok(web::Json(done.await?))
}

/// Kettles on the stove.
#[utoipa::path(responses((status = 200, body = Vec<CookView>)))]
#[get("/api/cooks")]
pub async fn list_cooks(shared: web::Data<Shared>) -> Result<web::Json<Vec<CookView>>, ApiError> {
    Ok(web::Json(read(&shared, on_stove).await?))
}

/// Puts a kettle on.
#[utoipa::path(request_body = CookRequest,
    responses((status = 201, body = CookView), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/cooks")]
pub async fn start_cook(
    shared: web::Data<Shared>,
    Json(request): Json<CookRequest>,
) -> Result<Created<CookView>, ApiError> {
    let (kettles, ended) =
        read(&shared, |shared| Ok((shared.store.kettles()?, shared.store.cooks(true)?))).await?;
    let kettle = kettles.into_iter().find(|kettle| kettle.id == request.kettle).ok_or_else(|| {
        ApiError::field("kettle", format!("there is no kettle {}; add it first", request.kettle))
    })?;
    let (volume, field) = match (request.volume_l, request.weight_kg) {
        (Some(volume), None) => (litres(KETTLE_VOLUME.check(volume).named("volume_l")?), "volume_l"),
        (None, Some(weight)) => {
            let weight = kilograms(WEIGHT.check(weight).named("weight_kg")?);
            // Skins and seeds stay in the mill: the published yield of juice allows for them.
            (yields::expect(Product::Juice, None, weight).expected, "weight_kg")
        }
        _ => return Err(ApiError::field("volume_l", "give volume_l or weight_kg, one of them")),
    };
    let brim = vessel(&kettle).brim();
    if volume > brim {
        let brim = brim.get::<liter>();
        let message = format!(
            "{} holds {brim:.1} L to the brim, and this is {:.1} L; take less or a larger kettle",
            kettle.name,
            volume.get::<liter>()
        );
        return Err(ApiError::field(field, message));
    }
    let brix = BRIX.check(request.brix.unwrap_or_else(|| juice_brix(request.kind))).named("brix")?;
    let goal = target(request.target)?;
    let start = Contents::of_volume(volume, brix);
    if goal.contents(start, start.solids).mass >= start.mass {
        return Err(ApiError::field("target", "boiling only thickens: choose less than what goes in"));
    }
    let (kind, value) = match goal {
        Target::FractionLeft(share) => (TargetKind::FractionLeft, share),
        Target::Brix(brix) => (TargetKind::Brix, brix),
        Target::Volume(volume) => (TargetKind::VolumeL, volume.get::<liter>()),
    };
    let setting = request.setting.unwrap_or(HeatSetting::High);
    let litres_per_hour = in_litres_per_hour(expected_rate(&ended, &kettle, setting));
    let batch = request.batch;
    if let Some(batch) = batch {
        read(&shared, move |shared| shared.store.batch(batch)).await?;
    }
    let new = NewCook {
        kettle: kettle.id,
        batch,
        volume_l: volume.get::<liter>(),
        brix,
        target: kind,
        target_value: value,
        setting,
        litres_per_hour,
    };
    let done =
        change(&shared, move |shared| view(shared, shared.store.start_cook(&new, shared.clock.now())?));
    let body = done.await?;
    Ok(Created { at: format!("/api/cooks/{}", body.id), body })
}

/// The one thing that was read or drained, checked against the kettle.
pub(crate) fn checked(request: CookEventRequest, cook: &Cook) -> Result<(CookWhat, f64), ApiError> {
    if let Some(on) = request.lid_on {
        return Ok((if on { CookWhat::LidOn } else { CookWhat::LidOff }, 1.0));
    }
    if let Some(temperature) = request.temp_c {
        return Ok((CookWhat::TempC, PROBE.check(temperature).named("temp_c")?));
    }
    if let Some(drained) = request.drain_l {
        let value = KETTLE_VOLUME.check(drained).named("drain_l")?;
        let before: f64 =
            cook.log.iter().filter(|event| event.what == CookWhat::DrainL).map(|event| event.value).sum();
        if before + value >= cook.volume_l {
            return Err(ApiError::field("drain_l", "that is all that went in; check the litres"));
        }
        return Ok((CookWhat::DrainL, value));
    }
    let reading = KettleReading {
        minute: 0.0,
        volume_l: request.volume_l,
        depth_mm: request.depth_mm,
        mass_kg: request.mass_kg,
        brix: request.brix,
    };
    let start = Contents::of_volume(litres(cook.volume_l), cook.brix);
    sight(reading, "reading", start, &vessel(&cook.kettle))?;
    let given = [
        (CookWhat::VolumeL, request.volume_l),
        (CookWhat::DepthMm, request.depth_mm),
        (CookWhat::MassKg, request.mass_kg),
        (CookWhat::Brix, request.brix),
    ];
    given.into_iter().find_map(|(what, value)| Some((what, value?))).ok_or_else(|| {
        ApiError::field(
            "reading",
            "give one of: volume_l, depth_mm, mass_kg, brix, drain_l, temp_c, lid_on, setting",
        )
    })
}

/// Writes a reading or a drain down; a device posts here as a hand does.
#[utoipa::path(params(("id" = i64, Path), ("bodega-age-ms" = Option<i64>, Header)), request_body = CookEventRequest,
    responses((status = 201, body = CookView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/cooks/{id}/events")]
pub async fn add_cook_event(
    shared: web::Data<Shared>,
    id: web::Path<CookId>,
    age: Age,
    Json(request): Json<CookEventRequest>,
) -> Result<Created<CookView>, ApiError> {
    let id = *id;
    let (cook, ended) =
        read(&shared, move |shared| Ok((shared.store.cook(id)?, shared.store.cooks(true)?))).await?;
    let (what, value) = match request.setting {
        Some(setting) => {
            (CookWhat::turned(setting), in_litres_per_hour(expected_rate(&ended, &cook.kettle, setting)))
        }
        None => checked(request, &cook)?,
    };
    let done = change(&shared, move |shared| {
        let event = CookEvent { at: age.touched(&shared.clock).at, what, value, simulated: false };
        view(shared, shared.store.add_cook_event(id, &event)?)
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
    let done = change(&shared, move |shared| {
        view(shared, shared.store.undo_cook_event(id, at, shared.clock.now())?)
    });
    Ok(web::Json(done.await?))
}

/// Whether a kettle is off the stove.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CookEndRequest {
    /// Off, or back on.
    pub ended: bool,
}

/// Takes a kettle off the stove, or puts it back.
#[utoipa::path(params(("id" = i64, Path)), request_body = CookEndRequest,
    responses((status = 200, body = CookView), (status = 404, body = Problem)))]
#[patch("/api/cooks/{id}")]
pub async fn end_cook(
    shared: web::Data<Shared>,
    id: web::Path<CookId>,
    Json(request): Json<CookEndRequest>,
) -> Result<web::Json<CookView>, ApiError> {
    let done = change(&shared, move |shared| {
        view(shared, shared.store.end_cook(*id, request.ended, shared.clock.now())?)
    });
    Ok(web::Json(done.await?))
}

/// One cook-down.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = CookView), (status = 404, body = Problem)))]
#[get("/api/cooks/{id}")]
pub async fn get_cook(
    shared: web::Data<Shared>,
    id: web::Path<CookId>,
) -> Result<web::Json<CookView>, ApiError> {
    Ok(web::Json(read(&shared, move |shared| view(shared, shared.store.cook(*id)?)).await?))
}

/// One kettle.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = Kettle), (status = 404, body = Problem)))]
#[get("/api/kettles/{id}")]
pub async fn get_kettle(
    shared: web::Data<Shared>,
    id: web::Path<KettleId>,
) -> Result<web::Json<Kettle>, ApiError> {
    Ok(web::Json(read(&shared, move |shared| shared.store.kettle(*id)).await?))
}
