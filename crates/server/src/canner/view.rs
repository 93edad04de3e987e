//! A load as its stations show it: doses, water, clock, what happened, what the judge says.

use bodega_core::canner::clock::{BoilEvent, Fate, Phase};
use bodega_core::canner::pot::{
    Charge, Place, Pot, TAP_C, USUAL_EFFICIENCY, USUAL_POWER_W, come_up, fill, food_at_c, overhangs,
    standing, topping_up, water_before_c,
};
use bodega_core::canner::probe::{Suggestion, suggest};
use bodega_core::jars::acid;
use bodega_core::jars::size::JarSize;
use bodega_core::judge::Finding;
use bodega_core::kitchen::altitude::Altitude;
use bodega_core::measures::ids::{BatchId, CannerId, JarId, LoadId};
use bodega_core::measures::moment::{Minutes, Moment};
use bodega_core::measures::units::{Length, Power, Temperature, Time, Volume, litres, millimetres};
use bodega_core::plan::batch::salt_per_jar;
use bodega_core::records::batch::Batch;
use bodega_core::records::canner::Canner;
use bodega_core::records::jar::{Jar, count_sizes};
use bodega_core::records::kitchen::Kitchen;
use bodega_core::records::load::{CannerLoad, CannerReading};
use bodega_core::tables::process::{Method, Product, headspace_in};
use bodega_store::StoreError;
use serde::Serialize;
use uom::si::length::{inch, millimeter};
use uom::si::power::watt;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::minute;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::judging::load_findings;
use crate::state::Shared;

/// Dose for one jar of one size of one batch.
#[derive(Debug, Serialize, ToSchema)]
pub struct Dose {
    /// The batch.
    pub batch: BatchId,
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
    pub jar: JarId,
    /// Its number in its batch.
    pub number: u32,
    /// What became of it.
    pub fate: Fate,
}

/// A load with all that its stations show.
#[derive(Debug, Serialize, ToSchema)]
pub struct LoadView {
    /// Number of the record.
    pub id: LoadId,
    /// Place among its batch's loads.
    pub position: u32,
    /// Loads of its batch.
    pub of: u32,
    /// The batch it is counted with.
    pub batch: Batch,
    /// Number of its canner.
    pub canner: CannerId,
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
pub(crate) const COVER_IN: f64 = 1.5;

/// Inner width of a usual canner, for the picture of one that nobody measured.
pub(crate) const USUAL_DIAMETER_MM: f64 = 305.0;

/// Walls and rim beside the inner width of a canner.
pub(crate) const WALLS_MM: f64 = 6.0;

pub(crate) const OVERHANG: &str = "The canner stands more than 2 in over its burner on a side: its edge will not boil. Take a larger \
    burner or a smaller pot.";

/// Inner width of a canner; a usual one's until somebody measured it.
pub(crate) fn inner_width(canner: &Canner) -> Length {
    millimetres(canner.pot.map_or(USUAL_DIAMETER_MM, |pot| pot.inner_diameter_mm))
}

pub(crate) fn water_of(load: &CannerLoad, kitchen: &Kitchen) -> Option<WaterView> {
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
pub(crate) fn charge(load: &CannerLoad, water_l: f64) -> Charge {
    let celsius = Temperature::new::<degree_celsius>;
    Charge {
        water: litres(water_l),
        water_at: celsius(water_before_c(load.batch.pack)),
        food: load.jars.iter().fold(Volume::default(), |sum, jar| sum + jar.size.volume()),
        food_at: celsius(food_at_c(load.batch.pack)),
    }
}

pub(crate) fn power(load: &CannerLoad) -> Power {
    Power::new::<watt>(load.canner.power_w.unwrap_or(USUAL_POWER_W))
}

pub(crate) fn doses(load: &CannerLoad, pots: &Pots) -> Vec<Dose> {
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
pub(crate) struct DosedPot {
    pub(crate) batch: BatchId,
    pub(crate) given_tsp: f64,
    pub(crate) jars: Vec<(JarSize, u32)>,
}

/// The dosed pots of a load's batches.
#[derive(Debug)]
pub(crate) struct Pots(Vec<DosedPot>);

impl Pots {
    pub(crate) fn of(shared: &Shared, load: &CannerLoad) -> Result<Self, StoreError> {
        let mut batches: Vec<BatchId> = load.jars.iter().map(|jar| jar.batch).collect();
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
    pub(crate) fn lacks(&self, jar: &Jar) -> Option<String> {
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

pub(crate) fn gone(load: &CannerLoad) -> Vec<GoneJar> {
    let gone = load.jars.iter().map(|jar| GoneJar { jar: jar.id, number: jar.number, fate: load.fate(jar) });
    gone.filter(|jar| jar.fate != Fate::Stayed).collect()
}

/// Time from the jars going in to the boil, when the canner's inside and the altitude are known.
pub(crate) fn come_up_of(load: &CannerLoad, kitchen: &Kitchen) -> Option<Time> {
    Some(come_up_with(load, &water_of(load, kitchen)?, kitchen.altitude()?))
}

pub(crate) fn come_up_with(load: &CannerLoad, water: &WaterView, altitude: Altitude) -> Time {
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
        let altitude = kitchen.altitude();
        let method = load.batch.method;
        let water = water_of(&load, kitchen);
        let come_up =
            water.as_ref().zip(altitude).map(|(water, altitude)| come_up_with(&load, water, altitude));
        let sizes: Vec<JarSize> = load.jars.iter().map(|jar| jar.size).collect();
        let number =
            |id: Option<JarId>| load.jars.iter().find(|jar| Some(jar.id) == id).map(|jar| jar.number);
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
