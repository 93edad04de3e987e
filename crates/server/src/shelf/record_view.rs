//! The record of a batch: fruit to shelf on one page.

use bodega_core::judge::recipe_page::acid_words;
use bodega_core::judge::records::ph_findings;
use bodega_model::judge::finding::Finding;
use bodega_model::kitchen::altitudes::AltitudeSaid;
use bodega_model::measures::ids::{BatchId, LoadId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::batch::Batch;
use bodega_model::records::correction::Correction;
use bodega_model::records::jar::PhRecord;
use bodega_model::records::lot::Lot;
use bodega_store::{StoreError, if_readable};
use serde::Serialize;
use utoipa::ToSchema;

use crate::canner::view::LoadView;
use crate::recipe::view::{BowlsView, bowls_view};
use crate::shelf::books::{BalanceView, books};
use crate::shelf::view::JarRecordView;
use crate::state::Shared;

/// Fruit of a batch.
#[derive(Debug, Serialize, ToSchema)]
pub struct Drawn {
    /// The lot.
    pub lot: Lot,
    /// What it is, in words.
    pub words: String,
    /// What is to be known of it.
    pub note: Option<&'static str>,
    /// Grams of it.
    pub weight_g: i64,
}

/// A pH reading and what the judge has to say of it.
#[derive(Debug, Serialize, ToSchema)]
pub struct PhView {
    /// The reading.
    #[serde(flatten)]
    pub reading: PhRecord,
    /// Findings; a reading can only add caution.
    pub findings: Vec<Finding>,
}

/// A batch from the crate to the table.
#[derive(Debug, Serialize, ToSchema)]
pub struct BatchRecord {
    /// The batch.
    pub batch: Batch,
    /// What was in the bowls of its recipe; `null` of plain tomatoes.
    pub bowls: Option<BowlsView>,
    /// What the acid of its recipe is; `null` of plain tomatoes, of one without acid, and when nothing of it is canned.
    pub recipe_acid: Option<String>,
    /// The household.
    pub household: String,
    /// Its fruit.
    pub fruit: Vec<Drawn>,
    /// Every load its jars went through, oldest first.
    pub loads: Vec<LoadView>,
    /// Its jars.
    pub jars: Vec<JarRecordView>,
    /// pH readings.
    pub ph: Vec<PhView>,
    /// What was said of it and corrected once its jars were out, oldest first.
    pub corrections: Vec<Correction>,
    /// What was said of the kitchen's altitude since its first jars were out, oldest first.
    pub altitudes: Vec<AltitudeSaid>,
    /// Where its food went.
    pub balance: BalanceView,
}

impl From<PhRecord> for PhView {
    fn from(reading: PhRecord) -> Self {
        Self { findings: ph_findings(&reading), reading }
    }
}

/// What was said of the altitude after a moment.
fn altitudes_since(said: &[AltitudeSaid], lifted: Option<Moment>) -> Vec<AltitudeSaid> {
    said.iter().filter(|said| lifted.is_some_and(|lifted| said.at > lifted)).cloned().collect()
}

/// Puts a batch's record together.
pub(crate) fn record(shared: &Shared, id: BatchId) -> Result<BatchRecord, StoreError> {
    let store = &shared.store;
    let (kitchen, now) = (store.kitchen()?, shared.clock.now());
    let page = store.page(id)?;
    let balance = books(&page);
    let jars = page.jars;
    let at_home = store.standings()?;
    let first_lifted = jars.iter().filter_map(|jar| jar.lifted_at).min();
    let mut loads: Vec<LoadId> =
        jars.iter().flat_map(|jar| jar.earlier_loads.iter().copied().chain([jar.load])).collect();
    loads.sort_unstable();
    loads.dedup();
    let loads = loads
        .into_iter()
        .filter_map(|load| if_readable(store.load(load)).transpose())
        .map(|load| LoadView::new(shared, load?, &kitchen, now))
        .collect::<Result<_, StoreError>>()?;
    let ph = store.ph_of(&page.batch)?;
    let bowls = page.batch.bowls.map(|bowls| store.any_bowls(bowls)).transpose()?;
    let recipe_acid =
        bowls.as_ref().filter(|_| !page.batch.is_cold()).and_then(|bowls| acid_words(&bowls.base));
    let bowls = bowls.map(|bowls| bowls_view(shared, bowls)).transpose()?;
    Ok(BatchRecord {
        recipe_acid,
        balance,
        bowls,
        batch: page.batch,
        household: kitchen.name,
        fruit: page
            .fruit
            .into_iter()
            .map(|(lot, weight_g)| Drawn { words: lot.words(), note: lot.food.note(), lot, weight_g })
            .collect(),
        loads,
        jars: jars.into_iter().map(|jar| JarRecordView::new(jar, &at_home)).collect(),
        corrections: store.corrections(id)?,
        altitudes: altitudes_since(&store.altitudes()?, first_lifted),
        ph: ph.into_iter().map(PhView::from).collect(),
    })
}
