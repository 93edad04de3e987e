//! Loads that cool, and jars kept cold, as the towel shows them.

use bodega_core::judge::records::{Judged, judge_towel};
use bodega_core::judge::standing::altitude_for;
use bodega_core::towel::moment::{Lids, TowelSaid, lids, sayings};
use bodega_core::towel::seal::{Cooling, Wrong, freezer_headspace};
use bodega_core::towel::ways_out::{WaysOut, again_until, alarm, ways_out};
use bodega_model::judge::standing::Mending;
use bodega_model::measures::moment::Moment;
use bodega_model::records::towel::{Rescued, Towel};
use bodega_model::towel::seal::Rescue;
use bodega_store::{StoreError, if_readable};
use serde::Serialize;
use uom::si::length::inch;
use utoipa::ToSchema;

use crate::state::Shared;

/// A load on the towel and what the judge has to say of it.
#[derive(Debug, Serialize, ToSchema)]
pub struct TowelView {
    /// The load.
    #[serde(flatten)]
    pub towel: Towel,
    /// Whether every jar of it had its full time; while one had not, no lid is said to hold.
    pub processed: bool,
    /// What it says, in the order of time: the last whose moment has come holds.
    pub says: Vec<TowelSaid>,
    /// Its lids, by what is to be done with them.
    pub lids: Lids,
    /// What somebody has to decide about, jars that are not processed first.
    pub ways_out: Vec<WaysOut>,
    /// What the judge has to say.
    pub judged: Judged,
}

pub(crate) fn towels(shared: &Shared) -> Result<Vec<TowelView>, StoreError> {
    let kitchen = shared.store.kitchen()?;
    let now = shared.clock.now();
    let altitudes = shared.store.altitudes()?;
    let view = |towel: Towel| {
        let Some(load) = if_readable(shared.store.load(towel.load_id))? else { return Ok(None) };
        let altitude = altitude_for(&load, kitchen.altitude(), &altitudes);
        let judged = judge_towel(&towel, &load, &shared.store.facts_of(&load)?, altitude);
        let ways_out = ways_out(&towel, &load, now);
        let alarm = alarm(&towel, &ways_out);
        let processed = !ways_out.iter().any(|way| way.wrong == Wrong::Unprocessed);
        let lids = lids(&towel, processed);
        let says = sayings(&towel, alarm.as_ref(), &ways_out, &lids);
        // What cannot wait lies on top.
        let place = (processed, alarm.is_none());
        Ok(Some((place, TowelView { processed, says, lids, ways_out, judged, towel })))
    };
    let views = shared.store.towel()?.into_iter().filter_map(|towel| view(towel).transpose());
    let mut views = views.collect::<Result<Vec<_>, StoreError>>()?;
    views.sort_by_key(|(place, _)| *place);
    Ok(views.into_iter().map(|(_, view)| view).collect())
}

/// A jar that is kept cold.
#[derive(Debug, Serialize, ToSchema)]
pub struct ColdJar {
    /// The jar.
    #[serde(flatten)]
    pub jar: Rescued,
    /// Until when it can still be processed again; `null` when it cannot, or need not.
    pub again_until: Option<Moment>,
}

/// Jars kept cold, oldest first.
pub(crate) fn cold(shared: &Shared) -> Result<ColdView, StoreError> {
    let (at_home, now) = (shared.store.standings()?, shared.clock.now());
    let one = |jar: Rescued| {
        let load = match jar.rescue {
            Rescue::Refrigerator => if_readable(shared.store.load(jar.load))?,
            Rescue::Freezer | Rescue::Reprocess => None,
        };
        let cooling = load.and_then(|load| {
            let standing = at_home.of(jar.id);
            Some(
                Cooling {
                    verdict: jar.verdict,
                    processed: load.is_processed(jar.id, now),
                    dosed: jar.dosed,
                    mending: Mending::Nothing,
                    lifted_at: load.lifted_at()?,
                    chilled_at: Some(jar.since),
                }
                .with(&standing),
            )
        });
        Ok(ColdJar { again_until: cooling.and_then(|cooling| again_until(&cooling, now)), jar })
    };
    let jars = shared.store.rescued()?.into_iter().map(one).collect::<Result<_, StoreError>>()?;
    Ok(ColdView { jars, freezer_headspace_in: freezer_headspace().get::<inch>() })
}

/// Jars kept cold, and how much room a frozen one needs.
#[derive(Debug, Serialize, ToSchema)]
pub struct ColdView {
    /// The jars, oldest first.
    pub jars: Vec<ColdJar>,
    /// Headspace of a frozen jar in inches.
    pub freezer_headspace_in: f64,
}
