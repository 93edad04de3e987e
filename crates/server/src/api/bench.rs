//! Loads on the bench and in the canner: acid, filling, and what happened at the boil.

use actix_web::{delete, get, post, web};
use bodega_core::acid;
use bodega_core::altitude::Altitude;
use bodega_core::boil_clock::{BoilEvent, Phase};
use bodega_core::canner::{Pot, fill, water_before_c};
use bodega_core::findings::Finding;
use bodega_core::jar::JarSize;
use bodega_core::limits::JAR_COUNT;
use bodega_core::moment::{Minutes, Moment};
use bodega_core::plan::salt_per_jar;
use bodega_core::process::{Method, ProcessOption, Query, Refusal, headspace_in, look_up};
use bodega_core::units::Length;
use bodega_store::{Batch, CannerLoad, Jar, JarStep, Kitchen, StoreError, count_sizes};
use serde::{Deserialize, Serialize};
use uom::si::length::{inch, millimeter};
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::app::{Shared, altitude_of, change, read};
use crate::json::Json;
use crate::judging::load_findings;
use crate::problem::{ApiError, NameField, Problem};

/// Dose for one jar size.
#[derive(Debug, Serialize, ToSchema)]
pub struct Dose {
    /// Size.
    pub jar: JarSize,
    /// Acid, as measured out: `2 Tbsp`.
    pub acid: String,
    /// Salt, as measured out; `null` when none is wanted.
    pub salt: Option<String>,
}

/// One thing that happened to a load.
#[derive(Debug, Serialize, ToSchema)]
pub struct EventView {
    /// What.
    pub event: BoilEvent,
    /// When.
    pub at: Moment,
}

/// A load with all that its stations show.
#[derive(Debug, Serialize, ToSchema)]
pub struct LoadView {
    /// Number of the record.
    pub id: i64,
    /// Place among its batch's loads.
    pub position: u32,
    /// Loads of its batch.
    pub of: u32,
    /// Its batch.
    pub batch: Batch,
    /// Minutes one unbroken boil must last.
    pub minutes: Minutes,
    /// Pressure, if any.
    pub psi: Option<u32>,
    /// Headspace in inches.
    pub headspace_in: f64,
    /// Dose for each jar size in the load.
    pub doses: Vec<Dose>,
    /// Its jars.
    pub jars: Vec<Jar>,
    /// Where it stands now.
    pub now: Phase,
    /// What happened, oldest first.
    pub events: Vec<EventView>,
    /// How often the boil was lost.
    pub times_lost: usize,
    /// Minutes the last unbroken boil has lasted, rounded down.
    pub unbroken_minutes: i64,
    /// Whether the last unbroken boil was long enough.
    pub processed: bool,
    /// What the judge has to say.
    pub findings: Vec<Finding>,
    /// Water in the canner, when its inside is known and the jars stand under water.
    pub water: Option<WaterView>,
}

/// Water to have in the canner before the jars go in.
#[derive(Debug, Serialize, ToSchema)]
pub struct WaterView {
    /// Level to fill to before the jars go in, in millimetres.
    pub level_before_mm: f64,
    /// The same in litres.
    pub water_l: f64,
    /// From the water to the rim once the jars are in, in millimetres.
    pub headroom_mm: f64,
    /// Water over the lids that this gives, in inches.
    pub cover_in: f64,
    /// How warm it should be when the jars go in, in degrees Celsius.
    pub water_c: f64,
    /// What to mind.
    pub cautions: Vec<String>,
}

/// Water over the lids to aim at: the middle of 1 to 2 in. Source: USDA Guide 1, from memory.
const COVER_IN: f64 = 1.5;

fn water_of(load: &CannerLoad, kitchen: &Kitchen) -> Option<WaterView> {
    let pot = kitchen.canner.pot.filter(|_| load.batch.method == Method::BoilingWater)?;
    let millimetres = Length::new::<millimeter>;
    let inside = Pot {
        inner_diameter: millimetres(pot.inner_diameter_mm),
        inner_height: millimetres(pot.inner_height_mm),
        rack_height: millimetres(pot.rack_height_mm),
    };
    let filling = fill(&inside, &count_sizes(&load.jars), Length::new::<inch>(COVER_IN));
    Some(WaterView {
        level_before_mm: filling.level_before.get::<millimeter>(),
        water_l: filling.water.get::<liter>(),
        headroom_mm: filling.headroom.get::<millimeter>(),
        cover_in: COVER_IN,
        water_c: water_before_c(load.batch.pack),
        cautions: filling.cautions.iter().map(ToString::to_string).collect(),
    })
}

impl LoadView {
    fn new(load: CannerLoad, kitchen: &Kitchen, now: Moment) -> Self {
        let mut sizes: Vec<JarSize> = load.jars.iter().map(|jar| jar.size).collect();
        sizes.sort_unstable_by(|a, b| b.cmp(a));
        sizes.dedup();
        let findings = load_findings(&load, kitchen);
        let water = water_of(&load, kitchen);
        let doses = sizes
            .into_iter()
            .map(|jar| Dose {
                jar,
                acid: acid::per_jar(load.batch.agent, jar).label(),
                salt: load.batch.salt.then(|| salt_per_jar(jar).label()),
            })
            .collect();
        Self {
            id: load.id,
            position: load.position,
            of: load.of,
            minutes: load.clock.required(),
            psi: load.psi,
            headspace_in: headspace_in(load.batch.product),
            doses,
            jars: load.jars,
            now: load.clock.phase(now),
            events: load
                .clock
                .happened()
                .iter()
                .map(|item| EventView { event: item.event, at: item.at })
                .collect(),
            times_lost: load.clock.times_lost(),
            unbroken_minutes: load.clock.unbroken_ms(now) / Minutes(1).ms(),
            processed: load.clock.is_processed(now),
            findings,
            water,
            batch: load.batch,
        }
    }
}

/// A step of one jar, done or taken back.
#[derive(Debug, Deserialize, ToSchema)]
pub struct JarStepRequest {
    /// Which step.
    pub step: JarStep,
    /// Done, or taken back.
    pub done: bool,
}

/// A step of every jar of a load.
#[derive(Debug, Deserialize, ToSchema)]
pub struct LoadStepRequest {
    /// Which step.
    pub step: JarStep,
}

/// Something seen or done at the canner.
#[derive(Debug, Deserialize, ToSchema)]
pub struct EventRequest {
    /// What.
    pub event: BoilEvent,
}

/// A change to a load, answered with the load as it is then.
async fn changed(
    shared: &web::Data<Shared>,
    work: impl FnOnce(&Shared, Moment) -> Result<CannerLoad, StoreError> + Send + 'static,
) -> Result<web::Json<LoadView>, ApiError> {
    let now = shared.clock.now();
    let done = change(shared, move |shared| Ok((work(shared, now)?, shared.store.kitchen()?))).await?;
    Ok(web::Json(LoadView::new(done.0, &done.1, now)))
}

/// Loads still to be lifted, in working order.
#[utoipa::path(responses((status = 200, body = Vec<LoadView>)))]
#[get("/api/loads")]
pub async fn list_loads(shared: web::Data<Shared>) -> Result<web::Json<Vec<LoadView>>, ApiError> {
    let now = shared.clock.now();
    let (loads, kitchen) =
        read(&shared, |shared| Ok((shared.store.open_loads()?, shared.store.kitchen()?))).await?;
    Ok(web::Json(loads.into_iter().map(|load| LoadView::new(load, &kitchen, now)).collect()))
}

/// Ticks a step of one jar, or takes the tick back.
#[utoipa::path(params(("id" = i64, Path)), request_body = JarStepRequest,
    responses((status = 200, body = Jar), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[post("/api/jars/{id}/steps")]
pub async fn tick_jar(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<JarStepRequest>,
) -> Result<web::Json<Jar>, ApiError> {
    let done = change(&shared, move |shared| {
        shared.store.tick_jar(*id, request.step, request.done, shared.clock.now())
    });
    Ok(web::Json(done.await?))
}

/// Ticks a step of every jar of a load that is ready for it.
#[utoipa::path(params(("id" = i64, Path)), request_body = LoadStepRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem)))]
#[post("/api/loads/{id}/steps")]
pub async fn tick_load(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<LoadStepRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    changed(&shared, move |shared, now| {
        shared.store.tick_load(*id, request.step, now)?;
        shared.store.load(*id)
    })
    .await
}

/// Records what somebody saw or did at the canner.
#[utoipa::path(params(("id" = i64, Path)), request_body = EventRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[post("/api/loads/{id}/events")]
pub async fn add_event(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<EventRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    changed(&shared, move |shared, now| shared.store.add_event(*id, request.event, now)).await
}

/// Takes the last event of a load back.
#[utoipa::path(params(("id" = i64, Path)),
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/api/loads/{id}/events/last")]
pub async fn undo_event(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
) -> Result<web::Json<LoadView>, ApiError> {
    changed(&shared, move |shared, now| shared.store.undo_event(*id, now)).await
}

/// Jars of one size in a load.
#[derive(Debug, Deserialize, ToSchema)]
pub struct RecountRequest {
    /// Size.
    pub jar: JarSize,
    /// How many there really are, 0 to 1,000.
    pub count: u32,
}

/// Recounts the jars of a load on the bench: acid, lids and yield follow.
#[utoipa::path(params(("id" = i64, Path)), request_body = RecountRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[post("/api/loads/{id}/recount")]
pub async fn recount_load(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<RecountRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    JAR_COUNT.check(f64::from(request.count)).named("count")?;
    changed(&shared, move |shared, _| {
        shared.store.recount(*id, request.jar, request.count)?;
        shared.store.load(*id)
    })
    .await
}

/// The longest tested process among a load's jars at an altitude.
fn tested_for(load: &CannerLoad, altitude: Altitude) -> Result<Option<ProcessOption>, Refusal> {
    let batch = &load.batch;
    let mut longest: Option<ProcessOption> = None;
    for jar in &load.jars {
        let query = Query {
            product: batch.product,
            medium: batch.medium,
            pack: batch.pack,
            method: batch.method,
            jar: jar.size,
            altitude,
        };
        let option = look_up(&query)?.options[0];
        if longest.is_none_or(|so_far| option.minutes > so_far.minutes) {
            longest = Some(option);
        }
    }
    Ok(longest)
}

/// Looks a load's time up again, after the kitchen's altitude was corrected.
#[utoipa::path(params(("id" = i64, Path)),
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
#[post("/api/loads/{id}/retime")]
pub async fn retime_load(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
) -> Result<web::Json<LoadView>, ApiError> {
    let id = *id;
    let (load, kitchen) =
        read(&shared, move |shared| Ok((shared.store.load(id)?, shared.store.kitchen()?))).await?;
    let option = tested_for(&load, altitude_of(&kitchen)?)
        .map_err(|refusal| ApiError::field("altitude_ft", refusal.message))?
        .ok_or_else(|| ApiError::field("id", "the load has no jars"))?;
    changed(&shared, move |shared, _| shared.store.retime_load(id, option.minutes, option.psi)).await
}
