//! Loads over HTTP: what is seen and done at the canner.

use actix_web::{delete, get, post, put, web};
use bodega_core::canner::beside::AlsoHow;
use bodega_core::plan::checklist::wash_up;
use bodega_model::canner::cover::{UnderJars, WaterOver};
use bodega_model::canner::events::BoilEvent;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{CannerId, JarId, LoadId};
use bodega_model::measures::limits::{POUNDS, PROBE};
use bodega_model::measures::moment::Moment;
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::load::{AlsoIn, CannerLoad, CannerReading, JarMoment};
use bodega_store::StoreError;
use serde::{Deserialize, Serialize};
use utoipa::ToSchema;

use crate::age::Age;
use crate::canner::view::{LoadView, TODAY};
use crate::created::Created;
use crate::json::Json;
use crate::live::Topic;
use crate::problem::{ApiError, NameField, Problem};
use crate::state::{Shared, altitude_of, answer, read};
use crate::who::Who;

/// Something seen or done at the canner.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct EventRequest {
    /// What.
    pub event: BoilEvent,
    /// The jar that broke or was taken out.
    pub jar: Option<JarId>,
    /// Size of the jar that was put in late, with its acid.
    pub size: Option<JarSize>,
    /// How much water stands over the lids as the jars go in; asked for later while it is left out.
    pub water: Option<WaterOver>,
}

/// A change to a load, answered with the load as it is then.
pub(crate) async fn changed<E: Into<ApiError>>(
    shared: &web::Data<Shared>,
    topic: Topic,
    work: impl FnOnce(&Shared, Moment) -> Result<CannerLoad, E> + Send + 'static,
) -> Result<web::Json<LoadView>, ApiError> {
    let now = shared.clock.now();
    let done = answer(shared, move |shared| {
        let load = work(shared, now).map_err(Into::into)?;
        Ok(LoadView::new(shared, load, &shared.store.kitchen()?, now)?)
    });
    let view = done.await?;
    shared.live.changed(topic);
    Ok(web::Json(view))
}

pub(crate) fn views(shared: &Shared, loads: Vec<CannerLoad>) -> Result<Vec<LoadView>, StoreError> {
    let (now, kitchen) = (shared.clock.now(), shared.store.kitchen()?);
    loads.into_iter().map(|load| LoadView::new(shared, load, &kitchen, now)).collect()
}

/// Loads still to be lifted, in working order.
#[utoipa::path(responses((status = 200, body = Vec<LoadView>)))]
#[get("/api/loads")]
pub async fn list_loads(shared: web::Data<Shared>) -> Result<web::Json<Vec<LoadView>>, ApiError> {
    Ok(web::Json(read(&shared, |shared| views(shared, shared.store.open_loads()?)).await?))
}

/// One load.
#[utoipa::path(params(("id" = i64, Path)), responses((status = 200, body = LoadView), (status = 404, body = Problem)))]
#[get("/api/loads/{id}")]
pub async fn get_load(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
) -> Result<web::Json<LoadView>, ApiError> {
    let view = read(&shared, move |shared| {
        LoadView::new(shared, shared.store.load(*id)?, &shared.store.kitchen()?, shared.clock.now())
    });
    Ok(web::Json(view.await?))
}

/// Today's lifted loads, and what is left to do after the last one.
#[derive(Debug, Serialize, ToSchema)]
pub struct AfterView {
    /// What was lifted in the last twelve hours, oldest first.
    pub lifted: Vec<LoadView>,
    /// The wash-up list, in working order.
    pub wash_up: Vec<&'static str>,
}

/// What was lifted today: done against required; and the wash-up list.
#[utoipa::path(responses((status = 200, body = AfterView)))]
#[get("/api/wash_up")]
pub async fn list_lifted(shared: web::Data<Shared>) -> Result<web::Json<AfterView>, ApiError> {
    let after = read(&shared, |shared| {
        let since = Moment(shared.clock.now().0 - TODAY.ms());
        let method = shared.store.kitchen()?.canner.method;
        Ok(AfterView { lifted: views(shared, shared.store.lifted_since(since)?)?, wash_up: wash_up(method) })
    });
    Ok(web::Json(after.await?))
}

/// The jar an event names, if it names one.
pub(crate) fn jar_moment(request: &EventRequest) -> Result<Option<JarMoment>, ApiError> {
    let jar = || request.jar.ok_or_else(|| ApiError::field("jar", "say which jar of the load it is"));
    Ok(match request.event {
        BoilEvent::JarBroken => Some(JarMoment::Broken(jar()?)),
        BoilEvent::JarOut => Some(JarMoment::Out(jar()?)),
        BoilEvent::JarAdded => Some(JarMoment::Added(
            request.size.ok_or_else(|| ApiError::field("size", "say what size of jar was put in"))?,
        )),
        _ => None,
    })
}

/// Records what somebody saw or did at the canner; a page that kept it for want of a connection says how old it is.
#[utoipa::path(params(("id" = i64, Path), ("bodega-age-ms" = Option<i64>, Header)), request_body = EventRequest,
    responses((status = 201, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
#[post("/api/loads/{id}/events")]
pub async fn add_event(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    age: Age,
    Json(request): Json<EventRequest>,
) -> Result<Created<LoadView>, ApiError> {
    let moment = jar_moment(&request)?;
    if request.water.is_some() && request.event != BoilEvent::JarsIn {
        return Err(ApiError::field(
            "water",
            "leave it out: it goes with jars_in, or by itself to the load's water",
        ));
    }
    let touched = age.touched(&shared.clock);
    // A jar that comes to a load or leaves it changes what is in the cupboard and what a pot fills.
    let topic = if moment.is_some() { Topic::Everything } else { Topic::Canner };
    let web::Json(body) = changed(&shared, topic, move |shared, _| match (moment, request.water) {
        (Some(moment), _) => shared.store.add_jar_event(*id, moment, touched),
        (None, Some(water)) => shared.store.jars_in(*id, water, touched),
        (None, None) => shared.store.add_event(*id, request.event, touched),
    })
    .await?;
    Ok(Created { at: format!("/api/loads/{}", body.id), body })
}

/// Water over the lids, as somebody sees it.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct WaterRequest {
    /// How much.
    pub water: WaterOver,
}

/// Says how much water stands over the lids of a load, now or, once it is out, while it boiled.
#[utoipa::path(params(("id" = i64, Path), ("bodega-age-ms" = Option<i64>, Header)), request_body = WaterRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/loads/{id}/water")]
pub async fn set_water(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    who: Who,
    age: Age,
    Json(request): Json<WaterRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    let told = who.tells(age.touched(&shared.clock).at);
    changed(&shared, Topic::Everything, move |shared, _| shared.store.set_water(*id, request.water, &told))
        .await
}

/// What a load's jars stand on.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct UnderRequest {
    /// What is under them.
    pub under_jars: UnderJars,
}

/// Says what stands under the jars of a load.
#[utoipa::path(params(("id" = i64, Path)), request_body = UnderRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem)))]
#[put("/api/loads/{id}/under_jars")]
pub async fn set_under_jars(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    Json(request): Json<UnderRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    changed(&shared, Topic::Canner, move |shared, _| shared.store.set_under_jars(*id, request.under_jars))
        .await
}

/// Takes the event of a moment back, as long as it is the last; said twice, it takes back one.
#[utoipa::path(params(("id" = i64, Path), ("at" = i64, Path)),
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[delete("/api/loads/{id}/events/{at}")]
pub async fn undo_event(
    shared: web::Data<Shared>,
    path: web::Path<(LoadId, Moment)>,
) -> Result<web::Json<LoadView>, ApiError> {
    let (id, at) = *path;
    changed(&shared, Topic::Everything, move |shared, now| shared.store.undo_event(id, at, now)).await
}

/// What a load's time is looked up by.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct RetimeRequest {
    /// Pounds to hold from now on under pressure, 0 to 30; the load's own when left out.
    pub psi: Option<u32>,
}

/// Looks a load's time up again, after the kitchen's altitude was corrected. Raising the pounds of a load that counts
/// starts its time again.
#[utoipa::path(params(("id" = i64, Path)), request_body = RetimeRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
#[put("/api/loads/{id}/time")]
pub async fn retime_load(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    Json(request): Json<RetimeRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    request.psi.map(|psi| POUNDS.check(f64::from(psi)).named("psi")).transpose()?;
    let time = move |load: &CannerLoad, kitchen: &Kitchen| {
        let at_pounds = CannerLoad { psi: request.psi.or(load.psi), ..load.clone() };
        let longest = at_pounds
            .longest_process(altitude_of(kitchen)?)
            .map_err(|refusal| ApiError::field("altitude_ft", refusal.message))?
            .ok_or_else(|| ApiError::field("id", "the load has no jars"))?;
        if request.psi.is_some() && longest.psi > request.psi {
            return Err(ApiError::field("psi", "fewer pounds than every tested pressure here"));
        }
        Ok(longest)
    };
    changed(&shared, Topic::Canner, move |shared, now| shared.store.retime_load(*id, time, now)).await
}

/// What else stands in a load's canner.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct AlsoRequest {
    /// Jars of something else; empty for none.
    pub also: Vec<AlsoIn>,
    /// How there come to be other jars than before; asked for while the clock counts.
    pub how: Option<AlsoHow>,
}

/// Says what else stands in a load's canner: it takes room and water, and everything gets the longest time. Bodega neither
/// approves nor times it.
#[utoipa::path(params(("id" = i64, Path)), request_body = AlsoRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
#[put("/api/loads/{id}/also")]
pub async fn set_also(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    Json(request): Json<AlsoRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    let AlsoRequest { also, how } = request;
    let checked = also.into_iter().enumerate().map(|(place, line)| {
        line.checked().map_err(|error| ApiError::field(format!("also[{place}].{}", error.field()), error))
    });
    let also: Vec<AlsoIn> = checked.collect::<Result<_, _>>()?;
    changed(&shared, Topic::Canner, move |shared, now| shared.store.set_also(*id, &also, how, now)).await
}

/// Which canner a load goes into.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct MoveRequest {
    /// Number of the canner.
    pub canner: CannerId,
}

/// Puts a waiting load into another canner of the same kind.
#[utoipa::path(params(("id" = i64, Path)), request_body = MoveRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/loads/{id}/canner")]
pub async fn move_load(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    Json(request): Json<MoveRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    changed(&shared, Topic::Canner, move |shared, _| shared.store.move_load(*id, request.canner)).await
}

/// What a probe in the canner read.
#[derive(Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct ReadingRequest {
    /// Degrees Celsius, 1 to 130.
    pub temp_c: f64,
}

/// Writes down what a probe in the canner read; a device posts here as a hand does.
#[utoipa::path(params(("id" = i64, Path)), request_body = ReadingRequest,
    responses((status = 201, body = LoadView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/loads/{id}/readings")]
pub async fn add_reading(
    shared: web::Data<Shared>,
    id: web::Path<LoadId>,
    Json(request): Json<ReadingRequest>,
) -> Result<Created<LoadView>, ApiError> {
    let temp_c = PROBE.check(request.temp_c).named("temp_c")?;
    let web::Json(body) = changed(&shared, Topic::Probe, move |shared, at| {
        shared.store.add_canner_reading(*id, &CannerReading { at, temp_c, simulated: false })
    })
    .await?;
    Ok(Created { at: format!("/api/loads/{}", body.id), body })
}
