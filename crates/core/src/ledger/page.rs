//! Pages of the book out of the records: what lots, batches, kettles and jars say, and what was told.

use bodega_model::crates::fruit::common_kind;
use bodega_model::jars::size::JarSize;
use bodega_model::kettle::contents::density;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::ledger::food::{Figure, Food, FoodMeasure, THIN_BRIX};
use bodega_model::measures::units::{grams, in_pounds, litres};
use bodega_model::records::batch::Batch;
use bodega_model::records::cook::Cook;
use bodega_model::records::jar::{JarRecord, sum_sizes};
use bodega_model::records::lot::Lot;
use bodega_model::records::moved::{Moved, Source};
use uom::si::volume::liter;

use super::balance::{BalanceVerdict, Made, balance, boiled_away, in_jars, quarts_out};
use super::book::{Book, Flow, Place};
use crate::kettle::cooking::{boiled_off, drained_unbooked};
use crate::plan::yields::learn::Finished;

/// Everything that the records say of one batch.
#[derive(Debug, Clone, PartialEq)]
pub struct BatchPage {
    /// The batch.
    pub batch: Batch,
    /// Lots it drew on, with grams of each.
    pub fruit: Vec<(Lot, i64)>,
    /// Its jars.
    pub jars: Vec<JarRecord>,
    /// Its cook-downs.
    pub cooks: Vec<Cook>,
    /// What was told to have left it.
    pub moves: Vec<Moved>,
}

/// What a lot's weight is worth: a scale's doubt, or that of the measure it was told in.
fn of_lot(lot: &Lot, weight_g: i64) -> Figure {
    match lot.told {
        Some(told) => Figure::measured(grams(weight_g), told.measure),
        None => Figure::weighed(grams(weight_g)),
    }
}

/// A move as a line of the book.
#[must_use]
pub fn moved_flow(moved: &Moved) -> Option<Flow> {
    let from = match moved.source()? {
        Source::Lot(lot) => Place::Crate(lot),
        Source::Batch(batch) => Place::Batch(batch),
        Source::Cold(cold) => Place::Cold(cold),
    };
    let to = match moved.to_lot {
        Some(lot) => Place::Crate(lot),
        None if moved.place.keeps() => Place::Cold(moved.id),
        None => Place::Gone(moved.place),
    };
    Some(Flow {
        from,
        to,
        food: moved.food,
        figure: Figure::measured(grams(moved.weight_g), moved.told.measure),
        at: Some(moved.at),
        told: Some((moved.id, moved.told.words())),
        place: Some(moved.place),
    })
}

/// Fruit as it came onto the line; what another batch gave or came out of the cold came by a move.
#[must_use]
pub fn lot_flow(lot: &Lot) -> Option<Flow> {
    (!lot.moved_in).then(|| Flow {
        from: Place::Garden,
        to: Place::Crate(lot.id),
        food: lot.food,
        figure: of_lot(lot, lot.weight_g),
        at: Some(lot.added_at),
        told: None,
        place: None,
    })
}

impl BatchPage {
    /// Jars that came out of the canner, by size.
    #[must_use]
    pub fn jars_out(&self) -> Vec<(JarSize, u32)> {
        let out = self.jars.iter().filter(|jar| jar.lifted_at.is_some());
        sum_sizes(out.map(|jar| (jar.size, 1)))
    }

    /// What the verdict has to know.
    #[must_use]
    pub fn made(&self) -> Made {
        Made {
            batch: self.batch.id,
            making: self.batch.making(),
            stuff: self.fruit.iter().map(|(lot, weight_g)| lot.stuff(*weight_g)).collect(),
            holds_others: self.batch.recipe.is_some()
                || self.batch.additions.iter().flatten().any(|added| !added.what.is_free()),
            is_over: self.batch.is_cold()
                || (!self.jars.is_empty() && self.jars.iter().all(|jar| jar.lifted_at.is_some())),
        }
    }

    /// Its page of the book: what it drew, its jars, what its kettles told, and what was told of the rest.
    #[must_use]
    pub fn book(&self) -> Book {
        let here = Place::Batch(self.batch.id);
        let plain =
            |from, to, food, figure| Flow { from, to, food, figure, at: None, told: None, place: None };
        let mut book = Book::default();
        for (lot, weight_g) in &self.fruit {
            book.add(plain(Place::Crate(lot.id), here, lot.food, of_lot(lot, *weight_g)));
        }
        let jars = in_jars(&self.batch.making(), &self.jars_out());
        book.add(plain(here, Place::Jars(self.batch.id), Food::Product, jars));
        let altitude = Altitude::from_feet(self.batch.altitude_ft).ok();
        let unbooked = self.cooks.iter().fold(litres(0.0), |sum, cook| sum + drained_unbooked(cook));
        if unbooked.get::<liter>() > 0.0 {
            // Records from before it was asked where drained juice went.
            let figure = Figure::measured(unbooked * density(THIN_BRIX), FoodMeasure::Litre);
            book.add(plain(here, Place::NotRecorded, Food::ThinJuice, figure));
        }
        let ended = self.cooks.iter().filter(|cook| cook.ended_at.is_some());
        let steam = ended.clone().fold(litres(0.0), |sum, cook| sum + boiled_off(cook, altitude));
        if ended.count() > 0 {
            book.add(plain(here, Place::Steam, Food::Water, boiled_away(steam)));
        }
        for flow in self.moves.iter().filter_map(moved_flow) {
            book.add(flow);
        }
        book
    }

    /// What it says of the household's yields: pounds of fruit to a quart of food that came out. Only a batch that adds up,
    /// of nothing but tomatoes that all became this product, says anything.
    #[must_use]
    pub fn finished(&self) -> Option<Finished> {
        let (made, book) = (self.made(), self.book());
        let all_fruit = made.stuff.iter().all(|stuff| stuff.food == Food::Fruit);
        // Juice that was taken off is fruit too, and became something else.
        let became_more = book
            .out_of(Place::Batch(self.batch.id))
            .any(|flow| matches!(flow.food, Food::Juice | Food::ThinJuice | Food::Cooked));
        if !all_fruit || became_more || balance(&made, &book).verdict != BalanceVerdict::AddsUp {
            return None;
        }
        let drawn = made.stuff.iter().fold(grams(0), |sum, stuff| sum + stuff.mass + stuff.poured_off);
        // Fruit that was left over became nothing.
        let left = book.out_of(Place::Batch(self.batch.id)).filter(|flow| flow.food == Food::Fruit);
        let raw = left.fold(drawn, |sum, flow| sum - flow.figure.mass);
        Some(Finished {
            product: self.batch.product,
            thickness: self.batch.thickness,
            kind: common_kind(made.stuff.iter().map(|stuff| stuff.kind))?,
            pounds_per_quart: in_pounds(raw) / quarts_out(&made, &book, &self.jars_out())?,
        })
    }
}
