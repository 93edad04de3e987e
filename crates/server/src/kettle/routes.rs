//! Kettles and cook-downs over HTTP.

use actix_web::{delete, get, patch, post, put, web};
use bodega_core::crates::fruit::{Kind, common_kind};
use bodega_core::kettle::cooking::{expected_rate, learned, thickens, vessel};
use bodega_core::kettle::{Contents, CookWhat, HeatSetting, KettleHeat, Target, TargetKind};
use bodega_core::ledger::food::{Food, FoodMeasure, FoodPlace, Told};
use bodega_core::measures::ids::{BatchId, CookId, KettleId, LotId};
use bodega_core::measures::limits::{
    BRIX, COOK_MINUTES, DEPTH_READ, KETTLE_VOLUME, PROBE, VESSEL_DIAMETER, VESSEL_HEIGHT, WEIGHT,
};
use bodega_core::measures::moment::Moment;
use bodega_core::measures::units::{Volume, in_litres_per_hour, kilograms, litres};
use bodega_core::plan::making::juice_brix;
use bodega_core::plan::stuff::in_kettle;
use bodega_core::plan::yields;
use bodega_core::records::batch::Draw;
use bodega_core::records::cook::{Cook, CookEvent, Kettle, NewCook, NewKettle};
use bodega_core::records::kitchen::Units;
use bodega_core::records::lot::Lot;
use bodega_core::records::moved::{NewMove, Source};
use bodega_core::tables::process::Product;
use bodega_store::StoreError;
use serde::Deserialize;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::age::Age;
use crate::compute::kettle::{KettleReading, KettleTarget, sight, target as target_of};
use crate::crates::weight::whole_grams;
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

/// Where a cook-down ends: one of them.
#[derive(Debug, Clone, Copy, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CookGoal {
    /// Share of the start volume that is left.
    pub fraction_left: Option<f64>,
    /// °Brix.
    pub brix: Option<f64>,
    /// Litres that are left.
    pub volume_l: Option<f64>,
    /// Minutes of simmering, from the boil on.
    pub boil_minutes: Option<f64>,
    /// Minutes held hot without boiling.
    pub hold_minutes: Option<f64>,
    /// Only brought to the boil.
    pub to_boil: Option<bool>,
}

/// A cook-down to begin.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct CookRequest {
    /// In which kettle.
    pub kettle: KettleId,
    /// The batch on the line that it is for.
    pub batch: Option<BatchId>,
    /// Litres that go in; or the weight of the raw fruit; or neither, for all of the batch that is not on the stove yet.
    pub volume_l: Option<f64>,
    /// Kilograms of raw fruit that were milled, when nobody measured the juice.
    pub weight_kg: Option<f64>,
    /// Their °Brix, when somebody measured it.
    pub brix: Option<f64>,
    /// Kind of fruit, from which the °Brix is taken when nobody did; that of the batch when it is not said.
    pub kind: Option<Kind>,
    /// How far the heat is turned up; full when nothing is said.
    pub setting: Option<HeatSetting>,
    /// Where it stops.
    pub target: CookGoal,
}

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
    /// It boils now.
    pub boils: Option<bool>,
    /// It is as hot as it is to be held.
    pub hot_enough: Option<bool>,
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

/// The goal as it is kept, checked.
fn goal(given: CookGoal) -> Result<(TargetKind, f64), ApiError> {
    let mark = [given.fraction_left, given.brix, given.volume_l].into_iter().flatten().count();
    let times = usize::from(given.boil_minutes.is_some())
        + usize::from(given.hold_minutes.is_some())
        + usize::from(given.to_boil == Some(true));
    let names = "fraction_left, brix, volume_l, boil_minutes, hold_minutes, to_boil";
    match mark + times {
        0 => return Err(ApiError::field("target", format!("give one of: {names}"))),
        1 => {}
        _ => return Err(ApiError::field("target", format!("give only one of: {names}"))),
    }
    let minutes = |given: f64, field: &str| COOK_MINUTES.check(given).named(field);
    if let Some(given) = given.boil_minutes {
        return Ok((TargetKind::BoilMinutes, minutes(given, "target.boil_minutes")?));
    }
    if let Some(given) = given.hold_minutes {
        return Ok((TargetKind::HoldMinutes, minutes(given, "target.hold_minutes")?));
    }
    if given.to_boil == Some(true) {
        return Ok((TargetKind::ToBoil, 1.0));
    }
    let CookGoal { fraction_left, brix, volume_l, .. } = given;
    match target_of(KettleTarget { fraction_left, brix, volume_l })? {
        Target::FractionLeft(share) => Ok((TargetKind::FractionLeft, share)),
        Target::Volume(volume) => Ok((TargetKind::VolumeL, volume.get::<liter>())),
        Target::Brix(brix) => Ok((TargetKind::Brix, brix)),
        Target::At(_) => Err(ApiError::Internal("a mark is no time".to_owned())),
    }
}

/// A batch that a kettle is put on for, with what it drew and what of it is on the stove or was.
struct ForBatch {
    fruit: Vec<(Lot, i64)>,
    cooks: Vec<Cook>,
}

impl ForBatch {
    fn kind(&self) -> Option<Kind> {
        common_kind(self.fruit.iter().map(|(lot, _)| lot.kind))
    }

    /// What of it was in no kettle yet.
    fn left(&self) -> Volume {
        let all =
            self.fruit.iter().fold(litres(0.0), |sum, (lot, grams)| sum + in_kettle(&lot.stuff(*grams)));
        let on = self.cooks.iter().fold(all, |left, cook| left - litres(cook.volume_l));
        on.max(litres(0.0))
    }
}

/// Puts a kettle on.
#[utoipa::path(request_body = CookRequest,
    responses((status = 201, body = CookView), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/cooks")]
pub async fn start_cook(
    shared: web::Data<Shared>,
    Json(request): Json<CookRequest>,
) -> Result<Created<CookView>, ApiError> {
    let batch = request.batch;
    let (kettles, ended, of) = read(&shared, move |shared| {
        let store = &shared.store;
        let of = batch
            .map(|id| {
                store.batch(id)?;
                Ok::<_, StoreError>(ForBatch { fruit: store.batch_lots(id)?, cooks: store.batch_cooks(id)? })
            })
            .transpose()?;
        Ok((store.kettles()?, store.cooks(true)?, of))
    })
    .await?;
    let kettle = kettles.into_iter().find(|kettle| kettle.id == request.kettle).ok_or_else(|| {
        ApiError::field("kettle", format!("there is no kettle {}; add it first", request.kettle))
    })?;
    let (volume, field) = match (request.volume_l, request.weight_kg, &of) {
        (Some(volume), None, _) => (litres(KETTLE_VOLUME.check(volume).named("volume_l")?), "volume_l"),
        (None, Some(weight), _) => {
            let weight = kilograms(WEIGHT.check(weight).named("weight_kg")?);
            // Skins and seeds stay in the mill: the published yield of juice allows for them.
            (yields::expect(Product::Juice, None, weight).expected, "weight_kg")
        }
        (None, None, Some(of)) if of.left() > litres(0.05) => (of.left(), "volume_l"),
        (None, None, Some(_)) => {
            return Err(ApiError::field(
                "volume_l",
                "all of this batch is on the stove; say how much goes in",
            ));
        }
        _ => return Err(ApiError::field("volume_l", "give volume_l or weight_kg, one of them")),
    };
    let brim = vessel(&kettle).brim();
    if volume > brim {
        let units = read(&shared, |shared| Ok(shared.store.kitchen()?.units)).await?;
        let message = format!(
            "{} holds {} to the brim, and this is {}; put a part of it into another kettle",
            kettle.name,
            units.volume(brim),
            units.volume(volume)
        );
        return Err(ApiError::field(field, message));
    }
    let kind = request.kind.or_else(|| of.as_ref().and_then(ForBatch::kind)).unwrap_or(Kind::Mixed);
    let brix = BRIX.check(request.brix.unwrap_or_else(|| juice_brix(kind))).named("brix")?;
    let (target, target_value) = goal(request.target)?;
    let setting = request.setting.unwrap_or(HeatSetting::High);
    let new = NewCook {
        kettle: kettle.id,
        batch,
        volume_l: volume.get::<liter>(),
        brix,
        target,
        target_value,
        setting,
        litres_per_hour: in_litres_per_hour(expected_rate(&ended, &kettle, setting)),
    };
    if target.starts_with().is_none() && !thickens(&new) {
        return Err(ApiError::field("target", "boiling only thickens: choose less than what goes in"));
    }
    let done =
        change(&shared, move |shared| view(shared, shared.store.start_cook(&new, shared.clock.now())?));
    let body = done.await?;
    Ok(Created { at: format!("/api/cooks/{}", body.id), body })
}

/// What is in the kettle at most: what went in at the start and since.
fn most_in(cook: &Cook) -> f64 {
    let added = cook.log.iter().filter(|event| event.what == CookWhat::AddL);
    added.fold(cook.volume_l, |sum, event| sum + event.value)
}

/// A touch without a number, if it is one.
const fn touch(request: CookEventRequest) -> Option<CookWhat> {
    match (request.lid_on, request.boils, request.hot_enough) {
        (Some(true), ..) => Some(CookWhat::LidOn),
        (Some(false), ..) => Some(CookWhat::LidOff),
        (None, Some(true), _) => Some(CookWhat::Boils),
        (None, _, Some(true)) => Some(CookWhat::HotEnough),
        _ => None,
    }
}

/// The one thing that was read or touched, checked against the kettle.
pub(crate) fn checked(
    request: CookEventRequest,
    cook: &Cook,
    units: Units,
) -> Result<(CookWhat, f64), ApiError> {
    if let Some(what) = touch(request) {
        return Ok((what, 1.0));
    }
    if let Some(temperature) = request.temp_c {
        return Ok((CookWhat::TempC, PROBE.check(temperature).named("temp_c")?));
    }
    let taken =
        [(CookWhat::DrainL, request.drain_l, "drain_l"), (CookWhat::LadleL, request.ladle_l, "ladle_l")];
    for (what, litres, field) in taken {
        let Some(litres) = litres else { continue };
        let value = KETTLE_VOLUME.check(litres).named(field)?;
        let before: f64 =
            cook.log.iter().filter(|event| event.what.takes_off()).map(|event| event.value).sum();
        if before + value >= most_in(cook) {
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
    };
    let start = Contents::of_volume(litres(most_in(cook)), cook.brix);
    sight(reading, "reading", start, &vessel(&cook.kettle), units)?;
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

/// Where what is taken off a kettle goes, as a move of its batch; `None` when it cooks for no batch.
fn taken_off(cook: &Cook, what: CookWhat, value: f64, place: Option<FoodPlace>) -> Option<NewMove> {
    let food = if what == CookWhat::LadleL { Food::ThinJuice } else { Food::Juice };
    let told = Told { amount: value, measure: FoodMeasure::Litre };
    Some(NewMove {
        from: Source::Batch(cook.batch?),
        food,
        place: place.unwrap_or(FoodPlace::Line),
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
    let (cook, ended, lot, units) = read(&shared, move |shared| {
        let store = &shared.store;
        let lot = wanted.map(|lot| store.lot(lot)).transpose()?;
        Ok((store.cook(id)?, store.cooks(true)?, lot, store.kitchen()?.units))
    })
    .await?;
    if let Some(lot) = lot.as_ref().filter(|lot| !lot.condition.can_be_canned()) {
        return Err(ApiError::field("lot", format!("lot {} is {} and is not canned", lot.id, lot.condition)));
    }
    let adds = request.add_l.is_some() || request.lot.is_some();
    let (what, value, drawn) = match request.setting {
        Some(setting) => {
            let rate = expected_rate(&ended, &cook.kettle, setting);
            (CookWhat::turned(setting), in_litres_per_hour(rate), None)
        }
        None if adds => {
            let (added, drawn) = more(request, &cook, lot.as_ref())?;
            (CookWhat::AddL, added, drawn)
        }
        None => {
            let (what, value) = checked(request, &cook, units)?;
            (what, value, None)
        }
    };
    let went = what.takes_off().then(|| taken_off(&cook, what, value, request.place)).flatten();
    let done = change(&shared, move |shared| {
        let at = age.touched(&shared.clock).at;
        let event = CookEvent { at, what, value, simulated: false, booked: false };
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
