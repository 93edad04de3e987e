//! The line on top of every screen: everything is somewhere.

use bodega_core::canner::probe::{Suggestion, suggestion};
use bodega_core::counter::{Call, of_bench, of_canner, of_kettle, of_lids, of_towel};
use bodega_core::jars::bench::next_load;
use bodega_core::jars::doses::has_acid;
use bodega_core::kettle::goal::hold_between;
use bodega_core::towel::seal::Wrong;
use bodega_core::towel::ways_out::ways_out;
use bodega_model::canner::events::Phase;
use bodega_model::ledger::food::Food;
use bodega_model::measures::ids::LoadId;
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::load::CannerLoad;
use bodega_model::records::towel::Towel;
use bodega_store::{StoreError, if_readable};
use serde::Serialize;
use utoipa::ToSchema;

use crate::canner::view::dosed_pots;
use crate::clock::zone;
use crate::kettle::view::on_stove;
use crate::state::Shared;

/// The line.
#[derive(Debug, Serialize, ToSchema)]
pub struct Counter {
    /// The kitchen's clock.
    pub now: Moment,
    /// How many times as fast as the wall it runs; 1 but in a demo.
    pub pace: u32,
    /// Name of the time zone that every screen shows; `null` for the screen's own.
    pub zone: Option<String>,
    /// The kitchen.
    pub kitchen: Kitchen,
    /// Nothing has come in yet.
    pub is_new: bool,
    /// Grams that can go on to jars.
    pub waiting_g: i64,
    /// Grams of fruit among them.
    pub waiting_fruit_g: i64,
    /// Grams held on the sill until they are ripe.
    pub held_g: i64,
    /// Batches on the line.
    pub batches: usize,
    /// The kettle that is done first.
    pub kettle: Option<OnStove>,
    /// Jars of the load on the bench.
    pub bench: Option<Bench>,
    /// Loads in canners, the one that calls for somebody first before the others.
    pub canners: Vec<InCanner>,
    /// Jars on the towel that nobody has judged.
    pub cooling: usize,
    /// When the next seals may be checked.
    pub next_check: Option<Moment>,
    /// Jars on the towel that are not processed and that nobody has decided about.
    pub unprocessed: usize,
    /// How far the machine's clock was set while a canner counts, in minutes, behind it below 0; the count goes on by the
    /// steady clock.
    pub clock_stepped_minutes: Option<f64>,
    /// What the disk refuses, in sentences; it stands on every screen until it is over.
    pub troubles: Vec<String>,
    /// Jars on the towel that have no dose of acid.
    pub undosed: usize,
    /// Jars out of the canner that something else stands against.
    pub stopped: usize,
    /// Jars on the shelf; none that something stands against.
    pub shelved: u32,
    /// What calls somebody back, now or from a moment on; the most urgent first.
    pub calls: Vec<Call>,
}

/// The kettle that is done first.
#[derive(Debug, Serialize, ToSchema)]
pub struct OnStove {
    /// Kettles on the stove.
    pub kettles: usize,
    /// Share of the way, 0 to 1.
    pub done: f64,
    /// When it is expected to be done.
    pub finish: Moment,
    /// One in ten is done after it.
    pub finish_high: Moment,
    /// Whether that is known so little that only its later bound is worth saying.
    pub vague: bool,
    /// The hottest probe in a kettle, in degrees Celsius.
    pub temp_c: Option<f64>,
}

/// The load on the bench.
#[derive(Debug, Serialize, ToSchema)]
pub struct Bench {
    /// The load.
    pub load: LoadId,
    /// Jars in it.
    pub jars: usize,
    /// Jars with acid.
    pub acid: usize,
    /// Jars with their lids on.
    pub ready: usize,
}

/// A load in a canner.
#[derive(Debug, Serialize, ToSchema)]
pub struct InCanner {
    /// Where it stands.
    pub now: Phase,
    /// Minutes it must boil.
    pub minutes: Minutes,
    /// Jars in it.
    pub jars: usize,
    /// Name of the canner.
    pub name: String,
    /// The heat went off before the time was full: not processed until it was counted again.
    pub not_processed: bool,
    /// What a probe in it suggests.
    pub suggestion: Option<Suggestion>,
}

/// When the next lids may be looked at.
fn next_check(towel: &[Towel]) -> Option<Moment> {
    let unseen =
        |load: &&Towel| load.jars.iter().any(|jar| jar.verdict.is_none() || jar.second_look.is_some());
    towel.iter().filter(unseen).map(|load| load.check_from).min()
}

/// Jars on the towel that are not processed or have no acid: what is wrong, how many, since when.
fn amiss(shared: &Shared, towel: &[Towel], now: Moment) -> Result<Vec<(Wrong, usize, Moment)>, StoreError> {
    let mut found = Vec::new();
    for lying in towel {
        let Some(load) = if_readable(shared.store.load(lying.load_id))? else { continue };
        let ways = ways_out(lying, &load, now).into_iter().filter(|way| way.wrong != Wrong::Lid);
        found.extend(ways.map(|way| (way.wrong, way.jars.len(), lying.lifted_at)));
    }
    Ok(found)
}

/// When a load calls for somebody: at once when a hand is wanted, else at the end of what runs.
pub(crate) const fn calls_at(phase: Phase) -> Moment {
    match phase {
        Phase::Counting { ends, .. } | Phase::Resting { ends, .. } | Phase::Venting { ends, .. } => ends,
        Phase::TimeUp { at }
        | Phase::Rested { at }
        | Phase::Vented { at }
        | Phase::BoilLost { at }
        | Phase::Unwatched { at, .. } => at,
        Phase::Heating { since } | Phase::Dropping { since } => since,
        Phase::Waiting | Phase::Lifted { .. } => Moment(i64::MAX),
    }
}

pub(crate) fn count(shared: &Shared) -> Result<Counter, StoreError> {
    let now = shared.clock.now();
    let store = &shared.store;
    let lots = store.lots()?;
    let grams = |wanted: fn(&bodega_model::records::lot::Lot) -> bool| {
        lots.iter().filter(|lot| wanted(lot)).map(|lot| lot.left_g).sum::<i64>()
    };
    let loads = store.open_loads()?;
    let kitchen = store.kitchen()?;
    let altitude = kitchen.altitude();
    let mut canners: Vec<InCanner> = loads
        .iter()
        .filter(|load| load.clock.has_begun())
        .map(|load| InCanner {
            now: load.clock.phase(now),
            minutes: load.clock.required(),
            jars: load.jars.len(),
            name: load.canner.name.clone(),
            not_processed: load.clock.ended_short(now),
            suggestion: suggestion(load, altitude),
        })
        .collect();
    canners.sort_by_key(|canner| calls_at(canner.now));
    let on_bench = next_load(&loads);
    let towel = store.towel()?;
    let stove = on_stove(shared)?;
    let kettle = stove.iter().min_by_key(|cook| cook.finish).map(|first| OnStove {
        kettles: stove.len(),
        done: first.done,
        finish: first.finish,
        finish_high: first.finish_high,
        vague: first.vague,
        temp_c: stove.iter().filter_map(|cook| cook.temp_c).reduce(f64::max),
    });
    let next_check = next_check(&towel);
    let in_canner: Vec<&CannerLoad> = loads.iter().filter(|load| load.clock.has_begun()).collect();
    let is_one = in_canner.len() == 1;
    let mut calls: Vec<Call> =
        in_canner.iter().flat_map(|load| of_canner(load, suggestion(load, altitude), is_one, now)).collect();
    let (between, one) = (hold_between(altitude), stove.len() == 1);
    calls.extend(
        stove.iter().flat_map(|cook| of_kettle(&cook.cooking(), between, kitchen.ways.heat, one, now)),
    );
    calls.extend(loads.iter().filter_map(of_bench));
    calls.extend(next_check.map(of_lids));
    let amiss = amiss(shared, &towel, now)?;
    let jars_of = |wrong: Wrong| amiss.iter().filter(|item| item.0 == wrong).map(|item| item.1).sum();
    calls.extend(Wrong::ALL.iter().filter_map(|wrong| {
        let since = amiss.iter().filter(|item| item.0 == *wrong).map(|item| item.2).min()?;
        of_towel(*wrong, since)
    }));
    let pots = match on_bench {
        Some(load) => dosed_pots(&shared.store.facts_of(load)?),
        None => Vec::new(),
    };
    Ok(Counter {
        now,
        calls,
        kettle,
        pace: shared.clock.pace(),
        zone: zone(),
        is_new: store.is_new()?,
        kitchen,
        waiting_g: grams(|lot| lot.condition.can_be_canned()),
        waiting_fruit_g: grams(|lot| lot.condition.can_be_canned() && lot.food == Food::Fruit),
        held_g: grams(|lot| lot.condition == bodega_model::crates::fruit::Condition::Unripe),
        batches: store.open_batches()?.len(),
        bench: on_bench.map(|load| Bench {
            load: load.id,
            jars: load.jars.len(),
            acid: load.jars.iter().filter(|jar| has_acid(jar, &pots)).count(),
            ready: load.jars.iter().filter(|jar| jar.lid).count(),
        }),
        canners,
        cooling: towel.iter().flat_map(|load| &load.jars).filter(|jar| jar.verdict.is_none()).count(),
        next_check,
        unprocessed: jars_of(Wrong::Unprocessed),
        undosed: jars_of(Wrong::Undosed),
        stopped: jars_of(Wrong::Stopped),
        #[expect(clippy::cast_precision_loss, reason = "a century of milliseconds stays below 2^53")]
        clock_stepped_minutes: shared.clock.stepped().map(|step| step as f64 / 60_000.0),
        troubles: shared.troubles.said(),
        shelved: store.on_shelf()?,
    })
}
