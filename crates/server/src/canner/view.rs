//! A load as its stations show it: doses, water, clock, what happened, what the judge says.

use bodega_core::canner::beside::{rides_along, waits_too_long_from};
use bodega_core::canner::heat::water_before;
use bodega_core::canner::moment::{Said, said};
use bodega_core::canner::over::{cover_of, is_cover_open, look_again_words};
use bodega_core::canner::pot::Filling;
use bodega_core::canner::probe::{Suggestion, suggestion};
use bodega_core::canner::standing::{Place, standing};
use bodega_core::canner::water::{
    OVERHANG, at_the_end, come_up_of, filling, outline, pace_of, stands_over, topping_up, unmeasured,
};
use bodega_core::jars::bench::{
    BenchStep, JarStep, before_filling, bench_steps, last_step, next_step, state_of,
};
use bodega_core::jars::doses::{Dose, DosedPot, doses, has_acid};
use bodega_core::judge::records::{BatchFacts, Judged, judge_load};
use bodega_core::judge::standing::altitude_for;
use bodega_core::recipe::bowls::seen;
use bodega_model::canner::cover::{UnderJars, WaterOver};
use bodega_model::canner::events::{BoilEvent, Phase};
use bodega_model::jars::acid::Agent;
use bodega_model::jars::size::JarSize;
use bodega_model::judge::finding::Ruling;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::ids::{BatchId, BowlsId, CannerId, JarId, LoadId, RecipeId};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::records::batch::Batch;
use bodega_model::records::claims::{Claims, asks_acid, asks_hot, asks_liquid, asks_skins};
use bodega_model::records::jar::{Jar, count_sizes};
use bodega_model::records::kitchen::{Kitchen, Units};
use bodega_model::records::load::{AlsoIn, CannerLoad, GoneJar};
use bodega_model::records::recipe::BatchRecipe;
use bodega_model::tables::process::Method;
use bodega_store::StoreError;
use serde::Serialize;
use uom::si::length::{inch, millimeter};
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::minute;
use uom::si::volume::liter;
use utoipa::ToSchema;

use crate::state::Shared;

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

impl ProbeView {
    fn of(load: &CannerLoad, altitude: Option<Altitude>) -> Option<Self> {
        let last = load.readings.last()?;
        let suggestion = suggestion(load, altitude);
        Some(Self { temp_c: last.temp_c, at: last.at, simulated: last.simulated, suggestion })
    }
}

/// A jar on the bench, what was done to it last and what comes next.
#[derive(Debug, Serialize, ToSchema)]
pub struct JarView {
    /// The jar.
    #[serde(flatten)]
    pub jar: Jar,
    /// What was done last, or that it needs acid.
    pub state: String,
    /// What one more touch says of it; `null` once it is ready for the canner.
    pub next: Option<JarStep>,
    /// What was ticked on it last, to take back; `null` when nothing was.
    pub last: Option<JarStep>,
    /// Its acid is in, in the jar or in the pot.
    pub has_acid: bool,
}

impl JarView {
    fn new(jar: Jar, pots: &[DosedPot]) -> Self {
        Self {
            state: state_of(&jar, pots),
            next: next_step(&jar, pots),
            last: last_step(&jar),
            has_acid: has_acid(&jar, pots),
            jar,
        }
    }
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
    /// Batches in it that are made by a recipe.
    pub recipes: Vec<RecipeInLoad>,
    /// Dose for each batch and jar size in the load.
    pub doses: Vec<Dose>,
    /// Its jars.
    pub jars: Vec<JarView>,
    /// Where they stand, from above, in the order of the jars; empty when no place was found for all of them.
    pub standing: Vec<Place>,
    /// Length of the canner over its width: 1 for a round one.
    pub stretch: f64,
    /// Jars of something else in the same canner.
    pub also: Vec<AlsoIn>,
    /// What is said of them; `null` when there are none.
    pub rides_along: Option<String>,
    /// From when on its filled jars have waited too long on the bench; `null` when none wait.
    pub waits_too_long_from: Option<Moment>,
    /// How warm the empty jars are, in degrees Celsius, as somebody judged.
    pub jars_c: Option<f64>,
    /// What somebody saw of its jars; `null` while nobody looked.
    pub claims: Option<Claims>,
    /// The card in words: what was seen, or what is to be looked at.
    pub claims_words: String,
    /// Whether any of its jars is to be covered with a liquid.
    pub asks_liquid: bool,
    /// Whether the card asks how the food was packed.
    pub asks_hot: bool,
    /// What is said of juice before it is filled; `null` when none of the jars is juice, or all of them are filled.
    pub before_filling: Option<&'static str>,
    /// Whether the card asks about skins.
    pub asks_skins: bool,
    /// The acid whose strength the card asks for; `null` when it asks for none.
    pub asks_acid: Option<Agent>,
    /// Where it stands now.
    pub now: Phase,
    /// What that says.
    pub says: Said,
    /// What it turns into by itself when its time is over.
    pub then: Option<Said>,
    /// The steps of its jars on the bench, in working order.
    pub steps: Vec<BenchStep>,
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
    /// The heat went off before the time was full: not processed until it was counted again.
    pub not_processed: bool,
    /// What the judge has to say.
    pub judged: Judged,
    /// Water in the canner, when its inside is known and the jars stand under water.
    pub water: Option<WaterView>,
    /// What is said of the water where the inside is not known; `null` where it is.
    pub water_says: Option<String>,
    /// How much water somebody saw over its lids; `null` while nobody was asked.
    pub water_over: Option<WaterOver>,
    /// Whether that is still to be said.
    pub asks_water: bool,
    /// What is said when it is looked at again; `null` where it need not be.
    pub look_again_words: Option<String>,
    /// What its jars stand on; `null` while nobody said.
    pub under_jars: Option<UnderJars>,
    /// Whether that is asked: of a pot's first load of the day, before it goes in.
    pub asks_under: bool,
    /// Minutes from the jars going in to the boil, when it can be worked out.
    pub come_up_minutes: Option<f64>,
    /// Litres to keep boiling beside it for topping up; `null` in steam and under pressure.
    pub topping_up_l: Option<f64>,
    /// The probe, when there is one.
    pub probe: Option<ProbeView>,
    /// Whether a simulated probe stands in it, and whether its flame is on.
    pub simulated_flame: Option<bool>,
}

/// A batch of a load that is made by a recipe.
#[derive(Debug, Serialize, ToSchema)]
pub struct RecipeInLoad {
    /// The batch.
    pub batch: BatchId,
    /// Its code.
    pub code: String,
    /// What it is called.
    pub name: String,
    /// The recipe in the book.
    pub recipe: RecipeId,
    /// Its bowls; `null` when they are not known.
    pub bowls: Option<BowlsId>,
    /// Whether what is in them keeps the jars from being filled.
    pub stops: bool,
    /// Whose recipe it is, and its own minutes and headspace.
    pub says: Option<String>,
}

impl RecipeInLoad {
    fn of(load: &CannerLoad, facts: &[BatchFacts], units: Units) -> Vec<Self> {
        let one = |(batch, recipe): &(BatchId, BatchRecipe)| {
            let facts = facts.iter().find(|facts| facts.batch.id == *batch);
            let bowls = facts.and_then(|facts| facts.bowls.as_ref());
            let jars = facts.map(|facts| facts.sizes.as_slice()).unwrap_or_default();
            Self {
                batch: *batch,
                code: facts.map(|facts| facts.batch.code.clone()).unwrap_or_default(),
                name: facts.and_then(|facts| facts.batch.name.clone()).unwrap_or_else(|| recipe.name.clone()),
                recipe: recipe.recipe,
                bowls: bowls.map(|bowls| bowls.id),
                says: facts.and_then(|facts| {
                    let own = load.jars.iter().filter(|jar| jar.batch == *batch);
                    let sizes: Vec<JarSize> = count_sizes(own).into_iter().map(|(size, _)| size).collect();
                    facts.batch.printed_of(&sizes, units)
                }),
                stops: bowls.is_none_or(|bowls| seen(bowls, jars).verdict != Ruling::Fine),
            }
        };
        load.recipes.iter().map(one).collect()
    }
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
    /// Water over the lids that this gives when the jars are in, in inches.
    pub cover_in: f64,
    /// Water over the lids that the process takes to its end, in inches.
    pub least_cover_in: f64,
    /// What is left over the lids when the time is over.
    pub at_the_end: String,
    /// How warm it should be when the jars go in, in degrees Celsius.
    pub water_c: f64,
    /// Whether the jars stand side by side and under water; if not, there is nothing to fill.
    pub fits: bool,
    /// What to mind.
    pub cautions: Vec<String>,
}

impl WaterView {
    fn new(load: &CannerLoad, filling: &Filling) -> Self {
        let mut cautions: Vec<String> = filling.cautions.iter().map(ToString::to_string).collect();
        if stands_over(&load.canner) {
            cautions.push(OVERHANG.to_owned());
        }
        Self {
            level_before_mm: filling.level_before.get::<millimeter>(),
            water_l: filling.water.get::<liter>(),
            headroom_mm: filling.headroom.get::<millimeter>(),
            cover_in: cover_of(load) + filling.spare.get::<inch>(),
            least_cover_in: cover_of(load),
            at_the_end: at_the_end(load, filling),
            fits: filling.fits,
            water_c: water_before(load.batch.pack).get::<degree_celsius>(),
            cautions,
        }
    }
}

/// The altitude that a load is judged by: what was said of it over time is asked only of one that was lifted.
fn altitude_of(
    shared: &Shared,
    load: &CannerLoad,
    today: Option<Altitude>,
) -> Result<Option<Altitude>, StoreError> {
    match load.lifted_at() {
        None => Ok(today),
        Some(_) => Ok(altitude_for(load, today, &shared.store.altitudes()?)),
    }
}

/// Those of them whose pot was dosed.
pub(crate) fn dosed_pots(facts: &[BatchFacts]) -> Vec<DosedPot> {
    let pot = |facts: &BatchFacts| {
        let given_tsp = facts.batch.pot_dose_tsp?;
        Some(DosedPot { batch: facts.batch.id, given_tsp, jars: facts.sizes.clone() })
    };
    facts.iter().filter_map(pot).collect()
}

/// Loads of a canner that its pace is learned from.
const PACE_FROM: u32 = 6;

/// How much longer a canner takes to boil than its burner says.
pub(crate) fn pace(shared: &Shared, canner: CannerId, kitchen: &Kitchen) -> Result<f64, StoreError> {
    Ok(pace_of(&shared.store.last_of_canner(canner, PACE_FROM)?, kitchen))
}

/// How far back today's loads go.
pub(crate) const TODAY: Minutes = Minutes(12 * 60);

/// Whether somebody should look at what stands in the pot before the jars go in: it is their pot's first load of the day.
fn asks_under(shared: &Shared, load: &CannerLoad, now: Moment) -> Result<bool, StoreError> {
    if load.batch.method != Method::BoilingWater || load.clock.has_begun() {
        return Ok(false);
    }
    let last = shared.store.last_of_canner(load.canner.id, PACE_FROM)?;
    let today = |at: Moment| now.since_ms(at) < TODAY.ms();
    Ok(!last.iter().filter_map(CannerLoad::lifted_at).any(today))
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
        let facts = shared.store.facts_of(&load)?;
        let pots = dosed_pots(&facts);
        let filled = filling(&load, kitchen);
        let water = filled.as_ref().map(|filling| WaterView::new(&load, filling));
        let asks_under = asks_under(shared, &load, now)?;
        let heats = matches!(load.clock.phase(now), Phase::Waiting | Phase::Heating { .. });
        let pace = if heats { pace(shared, load.canner.id, kitchen)? } else { 1.0 };
        let come_up = come_up_of(&load, kitchen, pace);
        let (says, then) = said(&load, come_up, now);
        let outline = outline(&load.canner);
        let beside = load.also.iter().flat_map(|also| vec![also.size; also.count as usize]);
        let sizes: Vec<JarSize> = load.jars.iter().map(|jar| jar.size).chain(beside).collect();
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
            recipes: RecipeInLoad::of(&load, &facts, kitchen.units),
            doses: doses(&load, &pots, kitchen.spoons),
            standing: standing(outline, &sizes, &kitchen.outsides()).unwrap_or_default(),
            stretch: outline.stretch(),
            rides_along: rides_along(&load),
            waits_too_long_from: waits_too_long_from(&load),
            jars_c: load.jars_c,
            claims: load.claims,
            claims_words: load.claims.unwrap_or(Claims::USUAL).words(&load.jars),
            asks_liquid: asks_liquid(&load.jars),
            asks_hot: asks_hot(&load.jars),
            before_filling: before_filling(&load),
            asks_skins: asks_skins(&load.jars),
            asks_acid: asks_acid(&load.jars),
            now: load.clock.phase(now),
            says,
            then,
            steps: bench_steps(&load.jars, &pots),
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
            gone: load.gone(),
            times_lost: load.clock.times_lost(),
            unbroken_minutes: load.clock.unbroken_ms(now) / Minutes(1).ms(),
            processed: load.clock.is_processed(now),
            not_processed: load.clock.ended_short(now),
            judged: judge_load(&load, &facts, altitude_of(shared, &load, altitude)?),
            come_up_minutes: come_up.map(|time| time.get::<minute>()),
            topping_up_l: topping_up(&load, filled.as_ref()).map(|water| water.get::<liter>()),
            water_says: filled.is_none().then(|| unmeasured(&load)),
            water,
            water_over: load.water_over,
            asks_water: is_cover_open(&load),
            look_again_words: look_again_words(&load),
            under_jars: load.under_jars,
            asks_under,
            probe: ProbeView::of(&load, altitude),
            simulated_flame: shared.simulated_canners.flame(load.id),
            jars: load.jars.into_iter().map(|jar| JarView::new(jar, &pots)).collect(),
            also: load.also,
            batch: load.batch,
        })
    }
}
