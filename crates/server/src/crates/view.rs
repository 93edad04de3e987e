//! Lots as the crates show them.

use bodega_core::judge::records::lot_findings;
use bodega_core::plan::stuff::can_become;
use bodega_model::judge::finding::Finding;
use bodega_model::ledger::keep::Wait;
use bodega_model::measures::moment::Moment;
use bodega_model::records::lot::Lot;
use bodega_model::tables::process::Product;
use jiff::civil::Date;
use serde::Serialize;
use utoipa::ToSchema;

use crate::clock::day_of;

/// A lot and what the judge has to say of its fruit.
#[derive(Debug, Serialize, ToSchema)]
pub struct LotView {
    /// The lot.
    #[serde(flatten)]
    pub lot: Lot,
    /// What it is, in words.
    pub words: String,
    /// What it can become.
    pub becomes: Vec<Product>,
    /// What is to be known of it.
    pub note: Option<&'static str>,
    /// Until when it may wait, and what is to be done by then.
    pub wait: Option<Wait>,
    /// Whether that is over.
    pub is_late: bool,
    /// Findings, stops first.
    pub findings: Vec<Finding>,
}

impl LotView {
    pub(crate) fn new(lot: Lot, now: Moment) -> Self {
        let wait = lot.waits();
        let is_late = wait.is_some_and(|wait| wait.is_over(now, day_of(now)));
        let stuff = lot.stuff(lot.left_g);
        let becomes = Product::ALL.iter().copied().filter(|product| can_become(&stuff, *product)).collect();
        Self {
            words: lot.words(),
            becomes,
            note: lot.food.note(),
            wait,
            is_late,
            findings: lot_findings(&lot),
            lot,
        }
    }

    /// What sorts lots that must go first before those that may wait.
    pub(crate) fn goes(&self) -> (Option<Date>, i64) {
        let wait = self.wait.map(|wait| (wait.day.or(wait.moment.map(day_of)), wait.moment));
        let (day, moment) = wait.unwrap_or((None, None));
        // What never goes stands at the end.
        (day.or(Some(Date::MAX)), moment.map_or(i64::MAX, |moment| moment.0))
    }
}
