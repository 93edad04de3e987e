//! Loads that cool, and jars kept cold, as the towel shows them.

use bodega_core::judge::Subject;
use bodega_core::judge::records::{Judged, judge_towel};
use bodega_core::records::towel::{Rescued, Towel};
use bodega_core::towel::seal::Wrong;
use bodega_core::towel::ways_out::{WaysOut, ways_out};
use bodega_store::{StoreError, if_readable};
use serde::Serialize;
use utoipa::ToSchema;

use crate::canner::view::facts;
use crate::state::Shared;

/// A load on the towel and what the judge has to say of it.
#[derive(Debug, Serialize, ToSchema)]
pub struct TowelView {
    /// The load.
    #[serde(flatten)]
    pub towel: Towel,
    /// Whether every jar of it had its full time; while one had not, no lid is said to hold.
    pub processed: bool,
    /// What somebody has to decide about, jars that are not processed first.
    pub ways_out: Vec<WaysOut>,
    /// What the judge has to say.
    pub judged: Judged,
}

pub(crate) fn towels(shared: &Shared) -> Result<Vec<TowelView>, StoreError> {
    let kitchen = shared.store.kitchen()?;
    let now = shared.clock.now();
    let view = |towel: Towel| {
        let Some(load) = if_readable(shared.store.load(towel.load_id))? else { return Ok(None) };
        let mut judged = judge_towel(&towel, &load, &facts(shared, &load)?, kitchen.altitude());
        let ways_out = ways_out(&towel, &load, now);
        if ways_out.iter().any(|way| way.wrong == Wrong::Undosed) {
            // The way out says it, with what to do.
            judged.findings.retain(|found| found.subject != Subject::Acid);
        }
        let processed = !ways_out.iter().any(|way| way.wrong == Wrong::Unprocessed);
        Ok(Some(TowelView { processed, ways_out, judged, towel }))
    };
    let views = shared.store.towel()?.into_iter().filter_map(|towel| view(towel).transpose());
    let mut views = views.collect::<Result<Vec<TowelView>, StoreError>>()?;
    // What cannot wait lies on top.
    views.sort_by_key(|view| view.processed);
    Ok(views)
}

/// Jars kept cold, and how much room a frozen one needs.
#[derive(Debug, Serialize, ToSchema)]
pub struct ColdView {
    /// The jars, oldest first.
    pub jars: Vec<Rescued>,
    /// Headspace of a frozen jar in inches.
    pub freezer_headspace_in: f64,
}
