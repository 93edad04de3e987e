//! The book: every move of food between two places, with what it weighs and how sure that is.
//!
//! What is somewhere is what came there less what left it; over all places together that is nothing, always. A place that
//! gave more than it got is a fault in what was told, and is named rather than mended.

use std::collections::BTreeSet;

use bodega_model::ledger::food::{Figure, Food, FoodPlace};
use bodega_model::measures::ids::{BatchId, LotId, MoveId};
use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::{Mass, kilograms};

/// Somewhere food is, came from or went to.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Place {
    /// Where fruit comes from: the garden, the market, the freezer of another year.
    Garden,
    /// A crate, or whatever else waits on the line.
    Crate(LotId),
    /// A batch, from the sink to the jars.
    Batch(BatchId),
    /// The jars of a batch.
    Jars(BatchId),
    /// The refrigerator or the freezer, by the move that brought it there.
    Cold(MoveId),
    /// Boiled away.
    Steam,
    /// Gone: eaten, given, dried, thrown away.
    Gone(FoodPlace),
    /// Somewhere, and nobody wrote down where: records from before that was asked.
    NotRecorded,
}

/// One move.
#[derive(Debug, Clone, PartialEq)]
pub struct Flow {
    /// Where it was.
    pub from: Place,
    /// Where it is then.
    pub to: Place,
    /// In what form it left.
    pub food: Food,
    /// What it weighs.
    pub figure: Figure,
    /// When.
    pub at: Option<Moment>,
    /// What was told of it, by which it is taken back.
    pub told: Option<(MoveId, String)>,
    /// Where it went, of food that goes elsewhere than into jars.
    pub place: Option<FoodPlace>,
}

impl Flow {
    /// What went where, as a person reads it.
    #[must_use]
    pub fn words(&self) -> String {
        match (self.to, self.place) {
            (Place::Jars(_), _) => "in jars".to_owned(),
            (Place::Steam, _) => "boiled away".to_owned(),
            (Place::NotRecorded, _) => format!("{} taken off; where it went was not recorded", self.food),
            (_, Some(place)) => format!("{}, {place}", self.food),
            (..) => self.food.to_string(),
        }
    }
}

/// Moves, in any order.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Book {
    flows: Vec<Flow>,
}

impl Book {
    /// Writes a move down.
    pub fn add(&mut self, flow: Flow) {
        self.flows.push(flow);
    }

    /// Every move.
    #[must_use]
    pub fn flows(&self) -> &[Flow] {
        &self.flows
    }

    /// Moves into a place.
    pub fn into_place(&self, place: Place) -> impl Iterator<Item = &Flow> {
        self.flows.iter().filter(move |flow| flow.to == place)
    }

    /// Moves out of a place.
    pub fn out_of(&self, place: Place) -> impl Iterator<Item = &Flow> {
        self.flows.iter().filter(move |flow| flow.from == place)
    }

    /// What is somewhere: what came less what left, and how sure that is. Below nothing where food comes from.
    #[must_use]
    pub fn there(&self, place: Place) -> Figure {
        let came: Mass = weight(self.into_place(place));
        let left: Mass = weight(self.out_of(place));
        let doubts = self.into_place(place).chain(self.out_of(place)).map(|flow| flow.figure.doubt);
        Figure::with_doubt_of(doubts, came - left)
    }

    /// Every place of the book.
    #[must_use]
    pub fn places(&self) -> BTreeSet<Place> {
        self.flows.iter().flat_map(|flow| [flow.from, flow.to]).collect()
    }

    /// Places that gave more than they got, beyond any doubt: something was told wrong, or not at all.
    #[must_use]
    pub fn overdrawn(&self) -> Vec<Place> {
        let is_short = |place: &Place| {
            let there = self.there(*place);
            !matches!(place, Place::Garden) && there.mass + there.doubt < kilograms(0.0)
        };
        self.places().into_iter().filter(is_short).collect()
    }
}

/// What flows weigh together.
pub(super) fn weight<'a>(flows: impl Iterator<Item = &'a Flow>) -> Mass {
    flows.fold(kilograms(0.0), |sum, flow| sum + flow.figure.mass)
}
