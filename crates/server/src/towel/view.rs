//! Loads that cool, and jars kept cold, as the towel shows them.

use bodega_core::judge::Finding;
use bodega_core::judge::records::towel_findings;
use bodega_core::records::towel::{Rescued, Towel};
use bodega_store::{StoreError, if_readable};
use serde::Serialize;
use utoipa::ToSchema;

use crate::state::Shared;

/// A load on the towel and what the judge has to say of it.
#[derive(Debug, Serialize, ToSchema)]
pub struct TowelView {
    /// The load.
    #[serde(flatten)]
    pub towel: Towel,
    /// Whether its last unbroken boil was long enough; lids of a load that was not are no use.
    pub processed: bool,
    /// Findings, stops first.
    pub findings: Vec<Finding>,
}

pub(crate) fn towels(shared: &Shared) -> Result<Vec<TowelView>, StoreError> {
    let kitchen = shared.store.kitchen()?;
    let now = shared.clock.now();
    let view = |towel: Towel| {
        let load = if_readable(shared.store.load(towel.load_id))?;
        Ok(load.map(|load| {
            let findings = towel_findings(&towel, &load, kitchen.altitude());
            TowelView { processed: load.clock.is_processed(now), findings, towel }
        }))
    };
    shared.store.towel()?.into_iter().filter_map(|towel| view(towel).transpose()).collect()
}

/// Jars kept cold, and how much room a frozen one needs.
#[derive(Debug, Serialize, ToSchema)]
pub struct ColdView {
    /// The jars, oldest first.
    pub jars: Vec<Rescued>,
    /// Headspace of a frozen jar in inches.
    pub freezer_headspace_in: f64,
}
