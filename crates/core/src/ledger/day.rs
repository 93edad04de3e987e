//! The books of a day: what was weighed in and drawn, through its batches, to where it all is now.

use bodega_model::ledger::food::{Figure, Food, FoodPlace};
use bodega_model::measures::ids::{BatchId, LotId};
use bodega_model::measures::units::{Mass, grams, kilograms};
use bodega_model::records::lot::Lot;
use bodega_model::records::moved::Moved;

use super::balance::balance;
use super::book::{Flow, Place};
use super::page::BatchPage;
use crate::ledger::page::moved_flow;

/// A place on the drawing of a day; like places stand together.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub enum Stop {
    /// Weighed in that day.
    WeighedIn,
    /// On the line from before.
    FromBefore,
    /// What a batch gave for other jars.
    Given(LotId, String),
    /// A batch.
    Batch(BatchId, String),
    /// In jars.
    Jars,
    /// In the refrigerator, the freezer, or gone.
    Went(FoodPlace),
    /// Boiled away.
    Steam,
    /// Still on the line, to become something.
    Waiting,
    /// Used since, on another day.
    Later,
    /// What nobody told.
    Rest(&'static str),
    /// More came out than went in.
    Untold,
    /// Taken off, and nobody wrote down where to.
    NotRecorded,
}

impl Stop {
    /// As a person reads it.
    #[must_use]
    pub fn words(&self) -> String {
        match self {
            Self::WeighedIn => "weighed in".to_owned(),
            Self::FromBefore => "from before".to_owned(),
            Self::Given(_, words) | Self::Batch(_, words) => words.clone(),
            Self::Jars => "in jars".to_owned(),
            Self::Went(place) => place.to_string(),
            Self::Steam => "boiled away".to_owned(),
            Self::Waiting => "waits on the line".to_owned(),
            Self::Later => "used on another day".to_owned(),
            Self::Rest(rest) => (*rest).to_owned(),
            Self::Untold => "not told".to_owned(),
            Self::NotRecorded => "taken off, not recorded".to_owned(),
        }
    }
}

/// So much went from one stop to another.
#[derive(Debug, Clone, PartialEq)]
pub struct Link {
    /// From where.
    pub from: Stop,
    /// To where.
    pub to: Stop,
    /// How much.
    pub figure: Figure,
}

/// A day as it is drawn.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct DayFlow {
    /// Every link once.
    pub links: Vec<Link>,
}

impl DayFlow {
    /// Adds to a link.
    fn add(&mut self, from: Stop, to: Stop, figure: Figure) {
        if figure.mass <= kilograms(0.0) {
            return;
        }
        match self.links.iter_mut().find(|link| link.from == from && link.to == to) {
            Some(link) => {
                let doubts = [link.figure.doubt, figure.doubt];
                link.figure = Figure::with_doubt_of(doubts, link.figure.mass + figure.mass);
            }
            None => self.links.push(Link { from, to, figure }),
        }
    }

    /// Stops, those that food comes from first.
    #[must_use]
    pub fn stops(&self) -> Vec<Stop> {
        let mut stops: Vec<Stop> =
            self.links.iter().flat_map(|link| [link.from.clone(), link.to.clone()]).collect();
        stops.sort();
        stops.dedup();
        stops
    }

    /// What came into a stop less what left it.
    #[must_use]
    pub fn there(&self, stop: &Stop) -> Mass {
        self.links.iter().fold(kilograms(0.0), |sum, link| {
            let came = if link.to == *stop { link.figure.mass } else { kilograms(0.0) };
            let left = if link.from == *stop { link.figure.mass } else { kilograms(0.0) };
            sum + came - left
        })
    }
}

/// What a day is drawn from: batches that were begun that day, lots that came onto the line that day, and moves of that day
/// that left lots or the cold.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct DayPage {
    /// Batches.
    pub batches: Vec<BatchPage>,
    /// Lots, with what is left of each.
    pub lots: Vec<Lot>,
    /// Moves.
    pub moves: Vec<Moved>,
}

impl DayPage {
    /// Where a lot's food comes from on the drawing.
    fn origin(&self, lot: &Lot) -> Stop {
        match (lot.moved_in, self.lots.iter().any(|one| one.id == lot.id)) {
            (true, _) => Stop::Given(lot.id, lot.words()),
            (false, true) => Stop::WeighedIn,
            (false, false) => Stop::FromBefore,
        }
    }

    /// Grams of a lot that went into the day's batches, or elsewhere on that day.
    fn used_g(&self, id: LotId) -> i64 {
        let drawn = self.batches.iter().flat_map(|page| &page.fruit).filter(|(lot, _)| lot.id == id);
        let moved = self.moves.iter().filter(|moved| moved.from_lot == Some(id));
        drawn.map(|(_, weight_g)| weight_g).sum::<i64>() + moved.map(|moved| moved.weight_g).sum::<i64>()
    }

    fn lot(&self, id: LotId) -> Option<&Lot> {
        let drawn = self.batches.iter().flat_map(|page| page.fruit.iter().map(|(lot, _)| lot));
        self.lots.iter().chain(drawn).find(|lot| lot.id == id)
    }

    /// Where a flow of a batch or a lot goes on the drawing.
    fn goal(&self, flow: &Flow) -> Stop {
        match flow.to {
            Place::Jars(_) => Stop::Jars,
            Place::Steam => Stop::Steam,
            Place::NotRecorded => Stop::NotRecorded,
            Place::Crate(id) => match self.lot(id) {
                Some(lot) => self.origin(lot),
                None => Stop::Waiting,
            },
            _ => flow.place.map_or(Stop::Waiting, Stop::Went),
        }
    }

    /// The drawing of the day.
    #[must_use]
    pub fn flow(&self) -> DayFlow {
        let mut flow = DayFlow::default();
        for page in &self.batches {
            let here = Stop::Batch(page.batch.id, page.batch.words());
            let books = balance(&page.made(), &page.book());
            for (came, (lot, _)) in books.came.iter().zip(&page.fruit) {
                flow.add(self.origin(lot), here.clone(), came.figure);
            }
            for went in &books.went {
                flow.add(here.clone(), self.goal(went), went.figure);
            }
            let short = Figure { mass: -books.remainder.mass, ..books.remainder };
            flow.add(here.clone(), Stop::Rest(books.rest), books.remainder);
            flow.add(Stop::Untold, here, short);
        }
        for moved in self.moves.iter().filter(|moved| moved.food != Food::Water || moved.from_lot.is_some()) {
            let (Some(line), Some(lot)) = (moved_flow(moved), moved.from_lot.and_then(|lot| self.lot(lot)))
            else {
                continue;
            };
            flow.add(self.origin(lot), self.goal(&line), line.figure);
        }
        for lot in &self.lots {
            let later = lot.weight_g - self.used_g(lot.id) - lot.left_g;
            flow.add(self.origin(lot), Stop::Waiting, Figure::weighed(grams(lot.left_g)));
            flow.add(self.origin(lot), Stop::Later, Figure::weighed(grams(later)));
        }
        flow
    }
}
