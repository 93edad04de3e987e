//! Where a batch's or a day's food went, as the record shows it.

use bodega_core::ledger::balance::{Balance, BalanceVerdict, balance};
use bodega_core::ledger::book::Flow;
use bodega_core::ledger::page::BatchPage;
use bodega_model::measures::ids::MoveId;
use bodega_model::measures::units::Mass;
use serde::Serialize;
use uom::si::mass::gram;
use utoipa::ToSchema;

/// A part of the food and where it came from or went.
#[derive(Debug, Clone, Serialize, ToSchema)]
pub struct PartView {
    /// What and where, in words.
    pub words: String,
    /// Grams.
    pub grams: f64,
    /// How far off that may be either way, in grams.
    pub doubt_g: f64,
    /// The amount as somebody told it.
    pub told: Option<String>,
    /// Number of what was told, by which it is taken back.
    pub id: Option<MoveId>,
}

/// The books of a batch: `came_in_g` is the sum of `parts` and of the remainder, and of `came`.
#[derive(Debug, Serialize, ToSchema)]
pub struct BalanceView {
    /// Grams that came in.
    pub came_in_g: f64,
    /// What came in.
    pub came: Vec<PartView>,
    /// Where it went, as far as it was told or measured.
    pub parts: Vec<PartView>,
    /// What nobody told: trimmings, skins and seeds, steam. Below 0 when more came out than went in.
    pub remainder_g: f64,
    /// How far off that may be.
    pub remainder_doubt_g: f64,
    /// What it most likely is.
    pub rest: &'static str,
    /// What this way of working leaves at least.
    pub usual_low_g: f64,
    /// What it leaves at most.
    pub usual_high_g: f64,
    /// Whether it adds up.
    pub verdict: BalanceVerdict,
    /// The verdict in a sentence.
    pub text: String,
}

pub(crate) fn in_grams(mass: Mass) -> f64 {
    mass.get::<gram>()
}

impl PartView {
    fn new(flow: &Flow, words: String) -> Self {
        Self {
            words,
            grams: in_grams(flow.figure.mass),
            doubt_g: in_grams(flow.figure.doubt),
            told: flow.told.as_ref().map(|(_, told)| told.clone()),
            id: flow.told.as_ref().map(|(id, _)| *id),
        }
    }
}

/// Makes up the books of a batch.
pub(crate) fn books(page: &BatchPage) -> BalanceView {
    let Balance { came_in, came, went, remainder, rest, usual, verdict, text } =
        balance(&page.made(), &page.book());
    let came = came.iter().zip(&page.fruit).map(|(flow, (lot, _))| PartView::new(flow, lot.words()));
    BalanceView {
        came_in_g: in_grams(came_in.mass),
        came: came.collect(),
        parts: went.iter().map(|flow| PartView::new(flow, flow.words())).collect(),
        remainder_g: in_grams(remainder.mass),
        remainder_doubt_g: in_grams(remainder.doubt),
        rest,
        usual_low_g: in_grams(usual.0),
        usual_high_g: in_grams(usual.1),
        verdict,
        text,
    }
}
