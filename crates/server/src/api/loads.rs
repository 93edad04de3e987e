//! Loads in the canner and before it: water, clock, what happened to the boil and to single jars, and how loads are put
//! together.

use std::time::Duration;

use actix_web::{delete, get, post, put, web};
use bodega_core::acid;
use bodega_core::altitude::Altitude;
use bodega_core::boil_clock::probe::{Suggestion, suggest};
use bodega_core::boil_clock::{BoilEvent, Fate, Phase};
use bodega_core::canner::{
    Charge, Place, Pot, TAP_C, USUAL_EFFICIENCY, USUAL_POWER_W, come_up, fill, food_at_c, heat_to_boil_kj,
    overhangs, standing, topping_up, water_before_c,
};
use bodega_core::checklist::wash_up;
use bodega_core::findings::Finding;
use bodega_core::jar::JarSize;
use bodega_core::limits::PROBE;
use bodega_core::loads::{Group, LoadPlan, group, why};
use bodega_core::moment::{Minutes, Moment};
use bodega_core::plan::salt_per_jar;
use bodega_core::process::{Method, Product, headspace_in};
use bodega_core::units::{Length, Power, Temperature, Time, Volume, litres, millimetres};
use bodega_devices::{Device, Reading, SimulatedCanner};
use bodega_store::{
    Batch, Canner, CannerLoad, CannerReading, Jar, JarMoment, Kitchen, NewGroup, StoreError, count_sizes,
};
use serde::{Deserialize, Serialize};
use uom::si::length::{inch, millimeter};
use uom::si::power::watt;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::minute;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::app::{Shared, altitude_of, change, known_altitude, read, run_device};
use crate::json::Json;
use crate::judging::load_findings;
use crate::problem::{ApiError, NameField, Problem};

/// Dose for one jar of one size of one batch.
#[derive(Debug, Serialize, ToSchema)]
pub struct Dose {
    /// The batch.
    pub batch: i64,
    /// Its code.
    pub code: String,
    /// What goes in.
    pub product: Product,
    /// Size.
    pub jar: JarSize,
    /// Jars of it in the load.
    pub count: u32,
    /// Acid of choice.
    pub agent: acid::Agent,
    /// Acid, as measured out: `2 Tbsp`.
    pub acid: String,
    /// Salt, as measured out; `null` when none is wanted.
    pub salt: Option<String>,
    /// Headspace in inches.
    pub headspace_in: f64,
    /// Of acid stirred into the pot: what each of these jars still lacks, `null` when nothing is stirred in or enough is.
    pub still_lacks: Option<String>,
}

/// One thing that happened to a load.
#[derive(Debug, Serialize, ToSchema)]
pub struct EventView {
    /// What.
    pub event: BoilEvent,
    /// In this canner's words.
    pub says: &'static str,
    /// Number of the jar it is about, in its batch.
    pub jar_number: Option<u32>,
    /// When.
    pub at: Moment,
}

/// What may be said of the canner, in its own words.
#[derive(Debug, Serialize, ToSchema)]
pub struct Saying {
    /// The event.
    pub event: BoilEvent,
    /// The words on the button.
    pub says: &'static str,
}

/// What a probe in the canner says.
#[derive(Debug, Serialize, ToSchema)]
pub struct ProbeView {
    /// Degrees Celsius.
    pub temp_c: f64,
    /// When.
    pub at: Moment,
    /// From a simulated probe.
    pub simulated: bool,
    /// What it suggests.
    pub suggestion: Option<Suggestion>,
}

/// A jar that did not stay with its load.
#[derive(Debug, Serialize, ToSchema)]
pub struct GoneJar {
    /// Its record.
    pub jar: i64,
    /// Its number in its batch.
    pub number: u32,
    /// What became of it.
    pub fate: Fate,
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
    /// The batch it is counted with.
    pub batch: Batch,
    /// Number of its canner.
    pub canner: i64,
    /// Name of its canner.
    pub canner_name: String,
    /// How that heats.
    pub method: Method,
    /// Minutes one unbroken boil must last.
    pub minutes: Minutes,
    /// Minutes the jars rest before they are lifted.
    pub rest_minutes: Minutes,
    /// Pressure, if any.
    pub psi: Option<u32>,
    /// Dose for each batch and jar size in the load.
    pub doses: Vec<Dose>,
    /// Its jars.
    pub jars: Vec<Jar>,
    /// Where they stand, from above, in the order of the jars.
    pub standing: Vec<Place>,
    /// How warm the empty jars are, in degrees Celsius, as somebody judged.
    pub jars_c: Option<f64>,
    /// Where it stands now.
    pub now: Phase,
    /// What happened, oldest first.
    pub events: Vec<EventView>,
    /// Every event in this canner's words.
    pub sayings: Vec<Saying>,
    /// Jars that broke or were lifted early.
    pub gone: Vec<GoneJar>,
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
    /// Minutes from the jars going in to the boil, when it can be worked out.
    pub come_up_minutes: Option<f64>,
    /// Litres to keep boiling beside it for topping up; `null` in steam and under pressure.
    pub topping_up_l: Option<f64>,
    /// The probe, when there is one.
    pub probe: Option<ProbeView>,
    /// Whether a simulated probe stands in it, and whether its flame is on.
    pub simulated_flame: Option<bool>,
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
/// Inner width of a usual canner, for the picture of one that nobody measured.
const USUAL_DIAMETER_MM: f64 = 305.0;
/// Walls and rim beside the inner width of a canner.
const WALLS_MM: f64 = 6.0;

const OVERHANG: &str = "The canner stands more than 2 in over its burner on a side: its edge will not boil. Take a larger \
    burner or a smaller pot.";

/// Inner width of a canner; a usual one's until somebody measured it.
pub(crate) fn inner_width(canner: &Canner) -> Length {
    millimetres(canner.pot.map_or(USUAL_DIAMETER_MM, |pot| pot.inner_diameter_mm))
}

fn water_of(load: &CannerLoad, kitchen: &Kitchen) -> Option<WaterView> {
    let pot = load.canner.pot.filter(|_| load.batch.method == Method::BoilingWater)?;
    let inside = Pot {
        inner_diameter: millimetres(pot.inner_diameter_mm),
        inner_height: millimetres(pot.inner_height_mm),
        rack_height: millimetres(pot.rack_height_mm),
    };
    let filling = fill(&inside, &count_sizes(&load.jars), Length::new::<inch>(COVER_IN), &kitchen.outsides());
    let mut cautions: Vec<String> = filling.cautions.iter().map(ToString::to_string).collect();
    let outside = millimetres(pot.inner_diameter_mm + WALLS_MM);
    if load.canner.burner_mm.is_some_and(|burner| overhangs(outside, millimetres(burner))) {
        cautions.push(OVERHANG.to_owned());
    }
    Some(WaterView {
        level_before_mm: filling.level_before.get::<millimeter>(),
        water_l: filling.water.get::<liter>(),
        headroom_mm: filling.headroom.get::<millimeter>(),
        cover_in: COVER_IN,
        water_c: water_before_c(load.batch.pack),
        cautions,
    })
}

/// What the canner has to heat once the jars are in so much water.
fn charge(load: &CannerLoad, water_l: f64) -> Charge {
    let celsius = Temperature::new::<degree_celsius>;
    Charge {
        water: litres(water_l),
        water_at: celsius(water_before_c(load.batch.pack)),
        food: load.jars.iter().fold(Volume::default(), |sum, jar| sum + jar.size.volume()),
        food_at: celsius(food_at_c(load.batch.pack)),
    }
}

fn power(load: &CannerLoad) -> Power {
    Power::new::<watt>(load.canner.power_w.unwrap_or(USUAL_POWER_W))
}

fn doses(load: &CannerLoad, pots: &Pots) -> Vec<Dose> {
    let mut lines: Vec<Dose> = Vec::new();
    for jar in &load.jars {
        if let Some(line) = lines.iter_mut().find(|line| line.batch == jar.batch && line.jar == jar.size) {
            line.count += 1;
            continue;
        }
        lines.push(Dose {
            batch: jar.batch,
            code: jar.code.clone(),
            product: jar.product,
            jar: jar.size,
            count: 1,
            agent: jar.agent,
            acid: acid::per_jar(jar.agent, jar.size).label(),
            salt: jar.wants_salt.then(|| salt_per_jar(jar.size).label()),
            headspace_in: headspace_in(jar.product),
            still_lacks: pots.lacks(jar),
        });
    }
    lines.sort_by_key(|line| (line.batch, std::cmp::Reverse(line.jar)));
    lines
}

/// Acid stirred into one batch's pot, and all the jars it has to reach.
#[derive(Debug)]
struct DosedPot {
    batch: i64,
    given_tsp: f64,
    jars: Vec<(JarSize, u32)>,
}

/// The dosed pots of a load's batches.
#[derive(Debug)]
struct Pots(Vec<DosedPot>);

impl Pots {
    fn of(shared: &Shared, load: &CannerLoad) -> Result<Self, StoreError> {
        let mut batches: Vec<i64> = load.jars.iter().map(|jar| jar.batch).collect();
        batches.dedup();
        let mut pots = Vec::new();
        for id in batches {
            if let Some(given) = shared.store.batch(id)?.pot_dose_tsp {
                let jars = shared.store.batch_sizes(id)?;
                pots.push(DosedPot { batch: id, given_tsp: given, jars });
            }
        }
        Ok(Self(pots))
    }

    /// What a jar still lacks after its share of the pot's acid.
    fn lacks(&self, jar: &Jar) -> Option<String> {
        let pot = self.0.iter().find(|pot| pot.batch == jar.batch)?;
        let needed = acid::total(jar.agent, &pot.jars);
        let short = acid::LeastDose { needed, given_tsp: pot.given_tsp }.short_tsp();
        let share = acid::per_jar(jar.agent, jar.size).as_f64() / needed.as_f64();
        (short > 0.0).then(|| acid::label_of(short * share))
    }
}

/// What the probe in a load's canner says.
pub(crate) fn probe(load: &CannerLoad, altitude: Option<Altitude>) -> Option<ProbeView> {
    let last = load.readings.last()?;
    let celsius = |reading: &CannerReading| Temperature::new::<degree_celsius>(reading.temp_c);
    let readings: Vec<(Moment, Temperature)> =
        load.readings.iter().map(|reading| (reading.at, celsius(reading))).collect();
    // What boils under pressure is hotter than in the open, and a canner that vents is not there yet: its gauge decides.
    let boils_at =
        altitude.filter(|_| !load.batch.method.is_pressure()).map(|altitude| altitude.boiling_point());
    Some(ProbeView {
        temp_c: last.temp_c,
        at: last.at,
        simulated: last.simulated,
        suggestion: boils_at.and_then(|boils_at| suggest(&readings, boils_at)),
    })
}

fn gone(load: &CannerLoad) -> Vec<GoneJar> {
    let gone = load.jars.iter().map(|jar| GoneJar { jar: jar.id, number: jar.number, fate: load.fate(jar) });
    gone.filter(|jar| jar.fate != Fate::Stayed).collect()
}

/// Time from the jars going in to the boil, when the canner's inside and the altitude are known.
pub(crate) fn come_up_of(load: &CannerLoad, kitchen: &Kitchen) -> Option<Time> {
    Some(come_up_with(load, &water_of(load, kitchen)?, known_altitude(kitchen)?))
}

fn come_up_with(load: &CannerLoad, water: &WaterView, altitude: Altitude) -> Time {
    come_up(&charge(load, water.water_l), altitude.boiling_point(), power(load), USUAL_EFFICIENCY)
}

/// Time to heat the canner's water from the tap until the jars may go in, when its inside is known.
pub(crate) fn warm_up_of(load: &CannerLoad, kitchen: &Kitchen) -> Option<Time> {
    let water = water_of(load, kitchen)?;
    let celsius = Temperature::new::<degree_celsius>;
    let cold = Charge {
        water: litres(water.water_l),
        water_at: celsius(TAP_C),
        food: Volume::default(),
        food_at: celsius(TAP_C),
    };
    Some(come_up(&cold, celsius(water.water_c), power(load), USUAL_EFFICIENCY))
}

impl LoadView {
    /// A load as its stations show it at a moment.
    pub(crate) fn new(
        shared: &Shared,
        load: CannerLoad,
        kitchen: &Kitchen,
        now: Moment,
    ) -> Result<Self, StoreError> {
        let altitude = known_altitude(kitchen);
        let method = load.batch.method;
        let water = water_of(&load, kitchen);
        let come_up =
            water.as_ref().zip(altitude).map(|(water, altitude)| come_up_with(&load, water, altitude));
        let sizes: Vec<JarSize> = load.jars.iter().map(|jar| jar.size).collect();
        let number = |id: Option<i64>| load.jars.iter().find(|jar| Some(jar.id) == id).map(|jar| jar.number);
        Ok(Self {
            id: load.id,
            position: load.position,
            of: load.of,
            canner: load.canner.id,
            canner_name: load.canner.name.clone(),
            method,
            minutes: load.clock.required(),
            rest_minutes: load.clock.rest(),
            psi: load.psi,
            doses: doses(&load, &Pots::of(shared, &load)?),
            standing: standing(inner_width(&load.canner), &sizes, &kitchen.outsides()),
            jars_c: load.jars_c,
            now: load.clock.phase(now),
            events: load
                .clock
                .happened()
                .iter()
                .map(|item| EventView {
                    event: item.event,
                    says: item.event.says(method),
                    jar_number: number(item.jar),
                    at: item.at,
                })
                .collect(),
            sayings: BoilEvent::ALL
                .iter()
                .map(|event| Saying { event: *event, says: event.says(method) })
                .collect(),
            gone: gone(&load),
            times_lost: load.clock.times_lost(),
            unbroken_minutes: load.clock.unbroken_ms(now) / Minutes(1).ms(),
            processed: load.clock.is_processed(now),
            findings: load_findings(&load, kitchen),
            come_up_minutes: come_up.map(|time| time.get::<minute>()),
            topping_up_l: (method == Method::BoilingWater)
                .then(|| topping_up(load.clock.required()).get::<liter>()),
            water,
            probe: probe(&load, altitude),
            simulated_flame: shared.simulated_canners.flame(load.id),
            jars: load.jars,
            batch: load.batch,
        })
    }
}

/// Something seen or done at the canner.
#[derive(Debug, Deserialize, ToSchema)]
pub struct EventRequest {
    /// What.
    pub event: BoilEvent,
    /// The jar that broke or was taken out.
    pub jar: Option<i64>,
    /// Size of the jar that was put in late, with its acid.
    pub size: Option<JarSize>,
}

/// A change to a load, answered with the load as it is then.
pub(crate) async fn changed(
    shared: &web::Data<Shared>,
    work: impl FnOnce(&Shared, Moment) -> Result<CannerLoad, StoreError> + Send + 'static,
) -> Result<web::Json<LoadView>, ApiError> {
    let now = shared.clock.now();
    let done = change(shared, move |shared| {
        let load = work(shared, now)?;
        LoadView::new(shared, load, &shared.store.kitchen()?, now)
    });
    Ok(web::Json(done.await?))
}

fn views(shared: &Shared, loads: Vec<CannerLoad>) -> Result<Vec<LoadView>, StoreError> {
    let (now, kitchen) = (shared.clock.now(), shared.store.kitchen()?);
    loads.into_iter().map(|load| LoadView::new(shared, load, &kitchen, now)).collect()
}

/// Loads still to be lifted, in working order.
#[utoipa::path(responses((status = 200, body = Vec<LoadView>)))]
#[get("/api/loads")]
pub async fn list_loads(shared: web::Data<Shared>) -> Result<web::Json<Vec<LoadView>>, ApiError> {
    Ok(web::Json(read(&shared, |shared| views(shared, shared.store.open_loads()?)).await?))
}

/// Today's lifted loads, and what is left to do after the last one.
#[derive(Debug, Serialize, ToSchema)]
pub struct AfterView {
    /// What was lifted in the last twelve hours, oldest first.
    pub lifted: Vec<LoadView>,
    /// The wash-up list, in working order.
    pub wash_up: Vec<&'static str>,
}

/// How far back today's loads go.
const TODAY: Minutes = Minutes(12 * 60);

/// What was lifted today: done against required; and the wash-up list.
#[utoipa::path(responses((status = 200, body = AfterView)))]
#[get("/api/loads/lifted")]
pub async fn list_lifted(shared: web::Data<Shared>) -> Result<web::Json<AfterView>, ApiError> {
    let after = read(&shared, |shared| {
        let since = Moment(shared.clock.now().0 - TODAY.ms());
        let method = shared.store.kitchen()?.canner.method;
        Ok(AfterView { lifted: views(shared, shared.store.lifted_since(since)?)?, wash_up: wash_up(method) })
    });
    Ok(web::Json(after.await?))
}

/// The one jar that an event is about, as far as it is about one.
fn jar_moment(request: &EventRequest) -> Result<Option<JarMoment>, ApiError> {
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

/// Records what somebody saw or did at the canner.
#[utoipa::path(params(("id" = i64, Path)), request_body = EventRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem),
        (status = 422, body = Problem)))]
#[post("/api/loads/{id}/events")]
pub async fn add_event(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<EventRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    let moment = jar_moment(&request)?;
    changed(&shared, move |shared, now| match moment {
        Some(moment) => shared.store.add_jar_event(*id, moment, now),
        None => shared.store.add_event(*id, request.event, now),
    })
    .await
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
    let altitude = altitude_of(&kitchen)?;
    let tested = load.jars.iter().map(|jar| load.own_process(jar, altitude));
    let tested = tested.collect::<Result<Vec<_>, _>>();
    let option = tested
        .map_err(|refusal| ApiError::field("altitude_ft", refusal.message))?
        .into_iter()
        .max_by_key(|option| option.minutes)
        .ok_or_else(|| ApiError::field("id", "the load has no jars"))?;
    changed(&shared, move |shared, _| shared.store.retime_load(id, option.minutes, option.psi)).await
}

/// Which canner a load goes into.
#[derive(Debug, Deserialize, ToSchema)]
pub struct MoveRequest {
    /// Number of the canner.
    pub canner: i64,
}

/// Puts a waiting load into another canner of the same kind.
#[utoipa::path(params(("id" = i64, Path)), request_body = MoveRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[put("/api/loads/{id}/canner")]
pub async fn move_load(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<MoveRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    changed(&shared, move |shared, _| shared.store.move_load(*id, request.canner)).await
}

/// The waiting loads of one canner, put together anew.
#[derive(Debug, Serialize, ToSchema)]
pub struct GroupingView {
    /// Loads as they are.
    pub loads_now: usize,
    /// Canner minutes as they are, turnarounds with them.
    pub minutes_now: u32,
    /// Loads put together anew.
    pub loads_best: usize,
    /// Canner minutes of those.
    pub minutes_best: u32,
    /// Proven: no grouping takes less.
    pub lower_bound_minutes: u32,
    /// Why this grouping, in one line.
    pub why: String,
}

struct Grouping {
    loads: Vec<i64>,
    now: u32,
    best: Vec<NewGroup>,
    plan: LoadPlan,
    why: String,
}

/// Jars of the waiting loads in the canner that is planned for; under pressure only those at the first one's pressure.
fn work_out_grouping(kitchen: &Kitchen, all: Vec<CannerLoad>) -> Result<Option<Grouping>, ApiError> {
    let altitude = altitude_of(kitchen)?;
    let mut loads: Vec<CannerLoad> = all
        .into_iter()
        .filter(|load| load.canner.id == kitchen.canner.id && !load.clock.has_begun())
        .filter(|load| !load.jars.is_empty())
        .collect();
    let psi = loads.first().and_then(|load| load.psi);
    loads.retain(|load| load.psi == psi);
    let mut groups: Vec<Group> = Vec::new();
    let mut members: Vec<Vec<&Jar>> = Vec::new();
    for (load, jar) in loads.iter().flat_map(|load| load.jars.iter().map(move |jar| (load, jar))) {
        let tested = load
            .own_process(jar, altitude)
            .map_err(|refusal| ApiError::field("altitude_ft", refusal.message))?;
        let like = Group { jar: jar.size, minutes: tested.minutes, count: 0 };
        let place = groups.iter().position(|group| group.jar == like.jar && group.minutes == like.minutes);
        let place = place.unwrap_or_else(|| {
            groups.push(like);
            members.push(Vec::new());
            groups.len() - 1
        });
        groups[place].count += 1;
        members[place].push(jar);
    }
    let capacity = kitchen.canner.capacities();
    let turnaround = Minutes(kitchen.turnaround_minutes);
    let plan = group(&groups, &capacity, turnaround).map_err(|error| ApiError::field("capacity", error))?;
    let mut waiting: Vec<std::vec::IntoIter<&Jar>> = members.into_iter().map(Vec::into_iter).collect();
    let best = plan
        .loads
        .iter()
        .filter_map(|load| {
            let jars: Vec<&Jar> = load
                .jars
                .iter()
                .flat_map(|(place, count)| waiting[*place].by_ref().take(*count as usize).collect::<Vec<_>>())
                .collect();
            let batch = jars.first()?.batch;
            let jars = jars.iter().map(|jar| jar.id).collect();
            Some(NewGroup { batch, minutes: load.minutes, psi, jars })
        })
        .collect();
    let now = loads.iter().map(|load| load.clock.required().0 + turnaround.0).sum();
    let why = why(&groups, &plan, &capacity, turnaround);
    Ok((!loads.is_empty()).then(|| Grouping {
        loads: loads.iter().map(|load| load.id).collect(),
        now,
        best,
        plan,
        why,
    }))
}

async fn grouping(shared: &web::Data<Shared>) -> Result<Option<Grouping>, ApiError> {
    let (kitchen, loads) =
        read(shared, |shared| Ok((shared.store.kitchen()?, shared.store.open_loads()?))).await?;
    work_out_grouping(&kitchen, loads)
}

/// How the waiting loads of every batch would go together in the least time; `null` when none waits.
#[utoipa::path(responses((status = 200, body = Option<GroupingView>), (status = 409, body = Problem)))]
#[get("/api/loads/grouping")]
pub async fn get_grouping(shared: web::Data<Shared>) -> Result<web::Json<Option<GroupingView>>, ApiError> {
    let view = grouping(&shared).await?.map(|grouping| GroupingView {
        loads_now: grouping.loads.len(),
        minutes_now: grouping.now,
        loads_best: grouping.best.len(),
        minutes_best: grouping.plan.total.0,
        lower_bound_minutes: grouping.plan.lower_bound.0,
        why: grouping.why,
    });
    Ok(web::Json(view))
}

/// Puts the waiting loads together anew.
#[utoipa::path(responses((status = 200, body = Vec<LoadView>), (status = 409, body = Problem)))]
#[post("/api/loads/grouping")]
pub async fn regroup(shared: web::Data<Shared>) -> Result<web::Json<Vec<LoadView>>, ApiError> {
    let grouping = grouping(&shared).await?;
    let done = change(&shared, move |shared| {
        if let Some(grouping) = grouping {
            shared.store.regroup(&grouping.loads, &grouping.best)?;
        }
        views(shared, shared.store.open_loads()?)
    });
    Ok(web::Json(done.await?))
}

/// What a probe in the canner read.
#[derive(Debug, Deserialize, ToSchema)]
pub struct ReadingRequest {
    /// Degrees Celsius, 1 to 130.
    pub temp_c: f64,
}

/// Writes down what a probe in the canner read; a device posts here as a hand does.
#[utoipa::path(params(("id" = i64, Path)), request_body = ReadingRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 422, body = Problem)))]
#[post("/api/loads/{id}/readings")]
pub async fn add_reading(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<ReadingRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    let temp_c = PROBE.check(request.temp_c).named("temp_c")?;
    changed(&shared, move |shared, at| {
        shared.store.add_canner_reading(*id, &CannerReading { at, temp_c, simulated: false })
    })
    .await
}

/// The flame under a simulated canner.
#[derive(Debug, Deserialize, ToSchema)]
pub struct FlameRequest {
    /// On, or off so that the boil is lost.
    pub flame: bool,
}

/// Milliseconds of kitchen time between two readings of the simulated probe.
const PROBE_EVERY_MS: i64 = 20_000;
/// How often it looks at the clock.
const GLANCE: Duration = Duration::from_millis(400);

/// Puts a simulated probe into a load's canner, or turns the flame under it off and on. For practice and demo only.
#[utoipa::path(params(("id" = i64, Path)), request_body = FlameRequest,
    responses((status = 200, body = LoadView), (status = 404, body = Problem), (status = 409, body = Problem)))]
#[post("/api/loads/{id}/simulated")]
pub async fn simulate_canner(
    shared: web::Data<Shared>,
    id: web::Path<i64>,
    Json(request): Json<FlameRequest>,
) -> Result<web::Json<LoadView>, ApiError> {
    let id = *id;
    let (load, kitchen) =
        read(&shared, move |shared| Ok((shared.store.load(id)?, shared.store.kitchen()?))).await?;
    let boils_at = altitude_of(&kitchen)?.boiling_point();
    let now = shared.clock.now();
    if shared.simulated_canners.turn(id, now, request.flame) {
        // Without a measured pot the water is a usual one's.
        let water = water_of(&load, &kitchen).map_or(12.0, |water| water.water_l);
        let charge = charge(&load, water);
        let device = SimulatedCanner {
            start: charge.water_at,
            since: load.clock.happened().first().map_or(now, |first| first.at),
            heat_kj: heat_to_boil_kj(&charge, boils_at),
            power: power(&load) * USUAL_EFFICIENCY,
            boils_at,
            flame: Vec::new(),
        };
        actix_web::rt::spawn(run_simulated_canner(shared.clone(), id, device));
    }
    changed(&shared, move |shared, _| shared.store.load(id)).await
}

/// One reading of the simulated probe; `false` when its load is out.
fn measure(shared: &Shared, id: i64, mut device: SimulatedCanner) -> Result<bool, StoreError> {
    let load = shared.store.load(id)?;
    let now = shared.clock.now();
    if matches!(load.clock.phase(now), Phase::Resting { .. } | Phase::Rested { .. } | Phase::Lifted { .. }) {
        return Ok(false);
    }
    if load.readings.last().is_some_and(|last| now.since_ms(last.at) < PROBE_EVERY_MS) {
        return Ok(true);
    }
    device.flame = shared.simulated_canners.turns(id);
    if let Some(Reading::Temperature(temperature)) = device.read(now) {
        let temp_c = temperature.get::<degree_celsius>();
        shared
            .store
            .add_canner_reading(id, &CannerReading { at: now, temp_c, simulated: device.is_simulated() })?;
        shared.live.changed();
    }
    Ok(true)
}

async fn run_simulated_canner(shared: web::Data<Shared>, id: i64, device: SimulatedCanner) {
    run_device(&shared, GLANCE, move |shared| measure(shared, id, device.clone())).await;
    shared.simulated_canners.end(id);
    shared.live.changed();
}
