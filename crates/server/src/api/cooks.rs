//! Kettles on the stove: how thick, how long, where is the mark.

use std::time::Duration;

use actix_web::{delete, get, post, put, web};
use bodega_core::acid::{self, Agent};
use bodega_core::altitude::Altitude;
use bodega_core::fruit::Kind;
use bodega_core::jar::JarSize;
use bodega_core::kettle::finish::{CookDown, Forecast, Happened, UNDER_LID};
use bodega_core::kettle::{
    Contents, CookWhat, Heat, HeatSetting, KettleHeat, Target, TargetKind, Vessel, WATER_KG_PER_L, mark_mm,
    oven_litres_per_hour, rate_at, water_litres,
};
use bodega_core::limits::{BRIX, DEPTH_READ, KETTLE_VOLUME, PROBE, VESSEL_DIAMETER, VESSEL_HEIGHT, WEIGHT};
use bodega_core::moment::{Minutes, Moment};
use bodega_core::outlook::{BOILS_AWAY_L_PER_H, juice_brix};
use bodega_core::process::Product;
use bodega_core::units::{Time, kilograms, litres, millimetres};
use bodega_core::yields::{self, full_jars};
use bodega_devices::{Device, Hand, Instrument, Reading, SimulatedKettle};
use bodega_store::{Batch, Cook, CookEvent, Kettle, NewCook, NewKettle, Store, StoreError};
use serde::{Deserialize, Serialize};
use uom::si::mass::kilogram;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::minute;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::api::compute::kettle::{KettleReading, KettleTarget, sight, target};
use crate::api::kitchen::clean_name;
use crate::app::{Shared, change, known_altitude, read, run_device};
use crate::json::Json;
use crate::problem::{ApiError, NameField, Problem};

/// Kitchen minutes between two readings of a simulated device.
const SIMULATED_EVERY: Minutes = Minutes(8);
/// How often the simulated device looks at the clock.
const GLANCE: Duration = Duration::from_millis(500);
/// Share of the kettle that "drain first" is worked out for.
const DRAIN_SHARE: f64 = 0.2;
/// Share of the way from which it sticks to the bottom.
const STIR_FROM: f64 = 0.7;

/// A kettle with the rate it has shown.
#[derive(Debug, Serialize, ToSchema)]
pub struct KettleView {
    /// The kettle.
    #[serde(flatten)]
    pub kettle: Kettle,
    /// What it holds to the brim, in litres.
    pub brim_l: f64,
    /// What to plan with at each setting of the heat.
    pub rates: Vec<KettleRate>,
    /// Whether something cooks in it.
    pub busy: bool,
}

/// How fast water leaves a kettle at one setting of the heat.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct KettleRate {
    /// The setting.
    pub setting: HeatSetting,
    /// Litres of water an hour.
    pub litres_per_hour: f64,
    /// Stretches at this setting that it was learned from; 0 when it is only expected.
    pub learned_from: usize,
}

/// A kettle to add.
#[derive(Debug, Deserialize, ToSchema)]
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
pub struct CalibrationRequest {
    /// Litres of one measure, 0.05 to 500.
    pub pour_l: f64,
    /// Depth after each measure, rising, in millimetres; none makes the walls straight again.
    pub depths_mm: Vec<f64>,
}

/// A cook-down to begin.
#[derive(Debug, Deserialize, ToSchema)]
pub struct CookRequest {
    /// In which kettle.
    pub kettle: i64,
    /// The batch on the line that it is for.
    pub batch: Option<i64>,
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

/// A moment and what is in the kettle then.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct CookPoint {
    /// When.
    pub at: Moment,
    /// Litres.
    pub volume_l: f64,
}

/// What draining thin juice now would change.
#[derive(Debug, Clone, Copy, Serialize, ToSchema)]
pub struct DrainFirst {
    /// Litres to drain.
    pub drain_l: f64,
    /// Minutes it spares.
    pub spares_minutes: f64,
    /// Litres less at the end.
    pub less_l: f64,
}

/// A kettle on the stove.
#[derive(Debug, Serialize, ToSchema)]
pub struct CookView {
    /// Number of the record.
    pub id: i64,
    /// The kettle.
    pub kettle: Kettle,
    /// The batch it is for.
    pub batch: Option<Batch>,
    /// Temperature as last read, in degrees Celsius.
    pub temp_c: Option<f64>,
    /// Whether the lid is on.
    pub lid_on: bool,
    /// How far the heat is turned up.
    pub setting: HeatSetting,
    /// When the heat came on.
    pub started_at: Moment,
    /// Litres that went in.
    pub start_l: f64,
    /// Litres in it now, as far as it is known.
    pub now_l: f64,
    /// Depth now, in millimetres.
    pub level_mm: f64,
    /// The mark on the stick, in millimetres.
    pub mark_mm: f64,
    /// Litres at the end.
    pub target_l: f64,
    /// °Brix at the end.
    pub final_brix: f64,
    /// Share of the way, 0 to 1.
    pub done: f64,
    /// Litres of water an hour.
    pub rate_l_per_h: f64,
    /// Expected finish.
    pub finish: Moment,
    /// One in ten finish before it.
    pub finish_low: Moment,
    /// One in ten finish after it.
    pub finish_high: Moment,
    /// Whether the mark is reached.
    pub reached: bool,
    /// Whether it thickens so far that it sticks.
    pub stir: bool,
    /// Level over time, what was and what is expected.
    pub curve: Vec<CookPoint>,
    /// The log.
    pub log: Vec<CookEvent>,
    /// Places in the log that lie too far off and were not obeyed.
    pub flagged: Vec<usize>,
    /// Draining first, beside boiling it all.
    pub drain_first: Option<DrainFirst>,
    /// Full pints it will fill.
    pub pints: u32,
    /// Lemon juice for a pint, as measured out.
    pub acid_per_pint: String,
    /// Simulated instruments that stand at it.
    pub simulated: Vec<Simulation>,
}

/// A simulated instrument.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Simulation {
    /// A scale under the kettle.
    Scale,
    /// A probe in it.
    Probe,
    /// A refractometer beside it.
    Refractometer,
}

impl Simulation {
    const ALL: [Self; 3] = [Self::Scale, Self::Probe, Self::Refractometer];

    const fn instrument(self) -> Instrument {
        match self {
            Self::Scale => Instrument::Scale,
            Self::Probe => Instrument::Probe,
            Self::Refractometer => Instrument::Refractometer,
        }
    }

    const fn writes(self) -> CookWhat {
        match self {
            Self::Scale => CookWhat::MassKg,
            Self::Probe => CookWhat::TempC,
            Self::Refractometer => CookWhat::Brix,
        }
    }
}

fn vessel(kettle: &Kettle) -> Vessel {
    let measures = (1..).map(|count| litres(kettle.pour_l.unwrap_or_default() * f64::from(count)));
    Vessel {
        inner_diameter: millimetres(kettle.inner_diameter_mm),
        depth: millimetres(kettle.depth_mm),
        poured: kettle.pour_depths_mm.iter().map(|depth| millimetres(*depth)).zip(measures).collect(),
    }
}

/// Time since the heat came on, none before it.
fn span(from: Moment, to: Moment) -> Time {
    to.since(from).max(Time::default())
}

fn moment(from: Moment, span: Time) -> Moment {
    #[allow(clippy::cast_possible_truncation, clippy::cast_precision_loss)] // far below 2^53
    let ms = (span.get::<minute>() * Minutes(1).ms() as f64).round() as i64;
    Moment(from.0 + ms)
}

fn target_of(cook: &Cook) -> Target {
    match cook.target {
        TargetKind::FractionLeft => Target::FractionLeft(cook.target_value),
        TargetKind::Brix => Target::Brix(cook.target_value),
        TargetKind::VolumeL => Target::Volume(litres(cook.target_value)),
    }
}

/// The records of a cook-down in the core's terms.
fn cook_down(cook: &Cook, altitude: Option<Altitude>) -> Result<CookDown, StoreError> {
    use bodega_core::kettle::finish::Sight;
    let sea = || Altitude::from_feet(0.0).map_err(|error| StoreError::Damaged(error.to_string()));
    let happened = |event: &CookEvent| match event.what {
        // A temperature moves no water.
        CookWhat::TempC => None,
        CookWhat::LidOn => Some(Happened::Lid(true)),
        CookWhat::LidOff => Some(Happened::Lid(false)),
        CookWhat::HeatLow | CookWhat::HeatMedium | CookWhat::HeatHigh => {
            Some(Happened::Turned { litres_per_hour: event.value })
        }
        CookWhat::VolumeL => Some(Happened::Read(Sight::Volume(litres(event.value)))),
        CookWhat::DepthMm => Some(Happened::Read(Sight::Depth(millimetres(event.value)))),
        CookWhat::MassKg => Some(Happened::Read(Sight::Mass(kilograms(event.value)))),
        CookWhat::Brix => Some(Happened::Read(Sight::Brix(event.value))),
        CookWhat::DrainL => Some(Happened::Drained(litres(event.value))),
    };
    Ok(CookDown {
        start: Contents::of_volume(litres(cook.volume_l), cook.brix),
        target: target_of(cook),
        vessel: vessel(&cook.kettle),
        heat: Heat::Rate { litres_per_hour: cook.litres_per_hour },
        // With a known rate the altitude moves nothing; it may still be unknown.
        altitude: altitude.map_or_else(sea, Ok)?,
        log: cook
            .log
            .iter()
            .filter_map(|event| Some((span(cook.started_at, event.at), happened(event)?)))
            .collect(),
    })
}

fn drain_first(down: &CookDown, forecast: &Forecast, now: Time, here_l: f64) -> Option<DrainFirst> {
    let drain_l = here_l * DRAIN_SHARE;
    if now >= forecast.finish.expected {
        return None;
    }
    let mut drained = down.clone();
    drained.log.push((now, Happened::Drained(litres(drain_l))));
    let other = drained.forecast();
    Some(DrainFirst {
        drain_l,
        spares_minutes: (forecast.finish.expected - other.finish.expected).get::<minute>(),
        less_l: (forecast.goal.volume() - other.goal.volume()).get::<liter>(),
    })
}

fn view(shared: &Shared, cook: Cook) -> Result<CookView, StoreError> {
    let altitude = known_altitude(&shared.store.kitchen()?);
    let down = cook_down(&cook, altitude)?;
    let forecast = down.forecast();
    let now = span(cook.started_at, shared.clock.now());
    let here = forecast.volume_at(now);
    let (here_l, goal_l) = (here.get::<liter>(), forecast.goal.volume().get::<liter>());
    let done = ((cook.volume_l - here_l) / (cook.volume_l - goal_l).max(1e-6)).clamp(0.0, 1.0);
    let reached = now >= forecast.finish.expected;
    Ok(CookView {
        id: cook.id,
        started_at: cook.started_at,
        start_l: cook.volume_l,
        now_l: here_l,
        level_mm: mark_mm(&down.vessel, here),
        mark_mm: mark_mm(&down.vessel, forecast.goal.volume()),
        target_l: goal_l,
        final_brix: forecast.goal.brix(),
        done,
        rate_l_per_h: water_litres(forecast.kg_per_hour),
        finish: moment(cook.started_at, forecast.finish.expected),
        finish_low: moment(cook.started_at, forecast.finish.low),
        finish_high: moment(cook.started_at, forecast.finish.high),
        reached,
        stir: done >= STIR_FROM && !reached,
        drain_first: drain_first(&down, &forecast, now, here_l),
        pints: full_jars(forecast.goal.volume(), JarSize::Pint),
        acid_per_pint: acid::per_jar(Agent::BottledLemonJuice, JarSize::Pint).label(),
        curve: forecast
            .curve
            .iter()
            .map(|(at, volume)| CookPoint {
                at: moment(cook.started_at, *at),
                volume_l: volume.get::<liter>(),
            })
            .collect(),
        flagged: forecast.flagged,
        simulated: Simulation::ALL
            .into_iter()
            .filter(|simulation| shared.simulated.has(cook.id, *simulation))
            .collect(),
        batch: cook.batch.map(|batch| shared.store.batch(batch)).transpose()?,
        temp_c: cook.log.iter().rfind(|event| event.what == CookWhat::TempC).map(|event| event.value),
        lid_on: cook
            .log
            .iter()
            .rfind(|event| matches!(event.what, CookWhat::LidOn | CookWhat::LidOff))
            .is_some_and(|event| event.what == CookWhat::LidOn),
        setting: settings(&cook).last().unwrap_or(cook.setting),
        log: cook.log,
        kettle: cook.kettle,
    })
}

/// Settings of the heat in a cook-down, from its start on.
fn settings(cook: &Cook) -> impl Iterator<Item = HeatSetting> {
    std::iter::once(cook.setting).chain(cook.log.iter().filter_map(|event| event.what.setting()))
}

/// What a kettle does at a setting: learned from its finished cook-downs, over stretches with at least two readings.
fn learned(ended: &[Cook], kettle: &Kettle) -> Result<Vec<KettleRate>, StoreError> {
    const ENOUGH_READINGS: usize = 2;
    let mut shown = Vec::new();
    for cook in ended.iter().filter(|cook| cook.kettle.id == kettle.id) {
        let stretches = cook_down(cook, None)?.forecast().stretches;
        let enough = settings(cook).zip(stretches).filter(|(_, stretch)| stretch.readings >= ENOUGH_READINGS);
        shown.extend(enough.map(|(setting, stretch)| (setting, water_litres(stretch.kg_per_hour))));
    }
    let usual = match kettle.heat {
        KettleHeat::Burner => BOILS_AWAY_L_PER_H,
        KettleHeat::Oven => oven_litres_per_hour(&vessel(kettle)),
    };
    let rate = |setting: &HeatSetting| {
        let (litres_per_hour, learned_from) = rate_at(*setting, &shown, usual);
        KettleRate { setting: *setting, litres_per_hour, learned_from }
    };
    Ok(HeatSetting::ALL.iter().map(rate).collect())
}

/// Litres an hour to expect of a kettle at a setting.
fn expected_rate(ended: &[Cook], kettle: &Kettle, setting: HeatSetting) -> Result<f64, StoreError> {
    let rates = learned(ended, kettle)?;
    Ok(rates
        .iter()
        .find(|rate| rate.setting == setting)
        .map_or(BOILS_AWAY_L_PER_H, |rate| rate.litres_per_hour))
}

/// Litres an hour that the household's quickest kettle boils away at full heat, as far as it is known.
pub(crate) fn best_rate(store: &Store) -> Result<f64, StoreError> {
    let ended = store.cooks(true)?;
    let mut best: f64 = 0.0;
    for kettle in store.kettles()? {
        best = best.max(expected_rate(&ended, &kettle, HeatSetting::High)?);
    }
    Ok(if best > 0.0 { best } else { BOILS_AWAY_L_PER_H })
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
                rates: learned(&ended, &kettle)?,
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
    responses((status = 200, body = Kettle), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/kettles")]
pub async fn add_kettle(
    shared: web::Data<Shared>,
    Json(request): Json<NewKettleRequest>,
) -> Result<web::Json<Kettle>, ApiError> {
    let name = clean_name(&request.name, "name")?;
    let diameter = VESSEL_DIAMETER.check(request.inner_diameter_mm).named("inner_diameter_mm")?;
    let depth = VESSEL_HEIGHT.check(request.depth_mm).named("depth_mm")?;
    let new = NewKettle { name, inner_diameter_mm: diameter, depth_mm: depth, heat: request.heat };
    Ok(web::Json(change(&shared, move |shared| shared.store.add_kettle(&new)).await?))
}

/// Calibrates a kettle whose walls are not straight.
#[utoipa::path(params(("id" = i64, Path)), request_body = CalibrationRequest,
    responses((status = 200, body = Kettle), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[put("/api/kettles/{id}/calibration")]
pub async fn calibrate_kettle(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
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

/// Every kettle on the stove, as it stands now.
pub(crate) fn on_stove(shared: &Shared) -> Result<Vec<CookView>, StoreError> {
    shared.store.cooks(false)?.into_iter().map(|cook| view(shared, cook)).collect()
}

/// Kettles on the stove.
#[utoipa::path(responses((status = 200, body = Vec<CookView>)))]
#[get("/api/cooks")]
pub async fn list_cooks(shared: web::Data<Shared>) -> Result<web::Json<Vec<CookView>>, ApiError> {
    Ok(web::Json(read(&shared, on_stove).await?))
}

/// Puts a kettle on.
#[utoipa::path(request_body = CookRequest,
    responses((status = 200, body = CookView), (status = 409, body = Problem), (status = 422, body = Problem)))]
#[post("/api/cooks")]
pub async fn start_cook(
    shared: web::Data<Shared>,
    Json(request): Json<CookRequest>,
) -> Result<web::Json<CookView>, ApiError> {
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
    let litres_per_hour = expected_rate(&ended, &kettle, setting)?;
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
    Ok(web::Json(done.await?))
}

/// The one thing that was read or drained, checked against the kettle.
fn checked(request: CookEventRequest, cook: &Cook) -> Result<(CookWhat, f64), ApiError> {
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
#[utoipa::path(params(("id" = i64, Path)), request_body = CookEventRequest,
    responses((status = 200, body = CookView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/cooks/{id}/events")]
pub async fn add_cook_event(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<CookEventRequest>,
) -> Result<web::Json<CookView>, ApiError> {
    let id = *id;
    let (cook, ended) =
        read(&shared, move |shared| Ok((shared.store.cook(id)?, shared.store.cooks(true)?))).await?;
    let (what, value) = match request.setting {
        Some(setting) => (CookWhat::turned(setting), expected_rate(&ended, &cook.kettle, setting)?),
        None => checked(request, &cook)?,
    };
    let done = change(&shared, move |shared| {
        let event = CookEvent { at: shared.clock.now(), what, value, simulated: false };
        view(shared, shared.store.add_cook_event(id, &event)?)
    });
    Ok(web::Json(done.await?))
}

/// Takes the last line of the log back.
#[utoipa::path(params(("id" = i64, Path)),
    responses((status = 200, body = CookView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/api/cooks/{id}/events/last")]
pub async fn undo_cook_event(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
) -> Result<web::Json<CookView>, ApiError> {
    let done =
        change(&shared, move |shared| view(shared, shared.store.undo_cook_event(*id, shared.clock.now())?));
    Ok(web::Json(done.await?))
}

/// Whether a kettle is off the stove.
#[derive(Debug, Deserialize, ToSchema)]
pub struct CookEndRequest {
    /// Off, or back on.
    pub ended: bool,
}

/// Takes a kettle off the stove, or puts it back.
#[utoipa::path(params(("id" = i64, Path)), request_body = CookEndRequest,
    responses((status = 200, body = CookView), (status = 404, body = Problem)))]
#[post("/api/cooks/{id}/end")]
pub async fn end_cook(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<CookEndRequest>,
) -> Result<web::Json<CookView>, ApiError> {
    let done = change(&shared, move |shared| {
        view(shared, shared.store.end_cook(*id, request.ended, shared.clock.now())?)
    });
    Ok(web::Json(done.await?))
}

/// What hands did at a kettle, for the simulated one to follow.
fn hands(cook: &Cook) -> Vec<(Moment, Hand)> {
    let (mut rate, mut covered) = (cook.litres_per_hour, false);
    let mut seen = Vec::new();
    for event in &cook.log {
        match event.what {
            CookWhat::DrainL => {
                seen.push((event.at, Hand::Drained(litres(event.value))));
                continue;
            }
            CookWhat::LidOn | CookWhat::LidOff => covered = event.what == CookWhat::LidOn,
            CookWhat::HeatLow | CookWhat::HeatMedium | CookWhat::HeatHigh => rate = event.value,
            _ => continue,
        }
        let open = if covered { UNDER_LID } else { 1.0 };
        seen.push((event.at, Hand::Rate(rate * WATER_KG_PER_L * open)));
    }
    seen
}

/// One reading of a simulated instrument; `false` when the kettle is off.
fn measure(
    shared: &Shared,
    id: i64,
    what: CookWhat,
    mut device: SimulatedKettle,
) -> Result<bool, StoreError> {
    let cook = shared.store.cook(id)?;
    device.hands = hands(&cook);
    if cook.ended_at.is_some() {
        return Ok(false);
    }
    let now = shared.clock.now();
    let last = cook.log.iter().rfind(|event| event.what == what).map_or(cook.started_at, |event| event.at);
    if now < last.plus(SIMULATED_EVERY) {
        return Ok(true);
    }
    let value = match device.read(now) {
        Some(Reading::Mass(mass)) => mass.get::<kilogram>(),
        Some(Reading::Temperature(temperature)) => temperature.get::<degree_celsius>(),
        Some(Reading::Brix(brix)) => brix,
        None => return Ok(true),
    };
    let simulated = device.is_simulated();
    shared.store.add_cook_event(id, &CookEvent { at: now, what, value, simulated })?;
    shared.live.changed();
    Ok(true)
}

/// Which instrument to simulate.
#[derive(Debug, Deserialize, ToSchema)]
pub struct SimulateRequest {
    /// The instrument.
    pub instrument: Simulation,
}

/// Puts a simulated instrument at a kettle; it measures until the kettle is off. For practice and demo only.
#[utoipa::path(params(("id" = i64, Path)), request_body = SimulateRequest,
    responses((status = 200, body = CookView), (status = 404, body = Problem)))]
#[post("/api/cooks/{id}/simulated")]
pub async fn simulate(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<SimulateRequest>,
) -> Result<web::Json<CookView>, ApiError> {
    let id = *id;
    let simulation = request.instrument;
    let (cook, kitchen) =
        read(&shared, move |shared| Ok((shared.store.cook(id)?, shared.store.kitchen()?))).await?;
    let altitude = known_altitude(&kitchen);
    let down = cook_down(&cook, altitude)?;
    if shared.simulated.begin(id, simulation) {
        let device = SimulatedKettle {
            instrument: simulation.instrument(),
            start: down.start,
            least: down.forecast().goal.mass * 0.9,
            since: cook.started_at,
            kg_per_hour: cook.litres_per_hour * WATER_KG_PER_L,
            hands: Vec::new(),
            boils_at: down.altitude.boiling_point(),
        };
        actix_web::rt::spawn(run_simulation(shared.clone(), id, simulation, device));
    }
    let done = change(&shared, move |shared| view(shared, shared.store.cook(id)?));
    Ok(web::Json(done.await?))
}

async fn run_simulation(shared: web::Data<Shared>, id: i64, simulation: Simulation, device: SimulatedKettle) {
    let what = simulation.writes();
    run_device(&shared, GLANCE, move |shared| measure(shared, id, what, device.clone())).await;
    shared.simulated.end(id, simulation);
    shared.live.changed();
}
