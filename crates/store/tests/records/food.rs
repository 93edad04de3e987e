//! Food that moves: whatever is done in whatever order, as much is there as came, and nothing is taken twice.

use bodega_core::ledger::balance::BalanceVerdict;
use bodega_model::crates::fruit::{Condition, Kind};
use bodega_model::kettle::words::{CookWhat, HeatSetting, KettleHeat, TargetKind};
use bodega_model::ledger::food::{Food, FoodMeasure, FoodPlace, Told};
use bodega_model::measures::ids::{BatchId, CookId, LotId, MoveId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::batch::Draw;
use bodega_model::records::cook::{CookEvent, NewCook, NewKettle};
use bodega_model::records::lot::{LotChange, NewLot};
use bodega_model::records::moved::{NewMove, Source};
use bodega_store::{Store, StoreError};
use jiff::civil::{Date, date};
use proptest::prelude::*;

use crate::common::{NOW, exported, told};
use crate::store::with_batch;

const DAY: Date = date(2026, 9, 12);

fn lot(food: Food, frozen: bool, weight_g: i64) -> NewLot {
    NewLot {
        food,
        told: None,
        picked_on: DAY,
        kind: Kind::Paste,
        condition: Condition::FirmRipe,
        fault: None,
        back_on: None,
        frozen,
        weight_g,
    }
}

fn part(from: Source, food: Food, place: FoodPlace, weight_g: i64, packs: Option<u32>) -> NewMove {
    #[allow(clippy::cast_precision_loss)] // grams of a test
    let told = Told { amount: weight_g as f64 / 1000.0, measure: FoodMeasure::Kilogram };
    NewMove { from, food, place, told, weight_g, packs }
}

fn at(minute: i64) -> Moment {
    NOW.plus_minutes(minute)
}

fn on_the_stove(store: &Store, batch: BatchId) -> CookId {
    let kettle = NewKettle {
        name: "blue".to_owned(),
        inner_diameter_mm: 300.0,
        top_diameter_mm: None,
        depth_mm: 260.0,
        heat: KettleHeat::Burner,
    };
    let kettle = store.add_kettle(&kettle).unwrap().id;
    let cook = NewCook {
        kettle,
        batch: Some(batch),
        volume_l: 8.0,
        brix: 5.0,
        target: TargetKind::FractionLeft,
        target_value: 0.5,
        setting: HeatSetting::High,
        start_c: 20.0,
        litres_per_hour: 2.0,
        shown: None,
    };
    store.start_cook(&cook, NOW).unwrap().id
}

fn event(minute: i64, what: CookWhat, value: f64) -> CookEvent {
    CookEvent { at: at(minute), what, value, simulated: false, sure: false, booked: false }
}

#[test]
fn frozen_fruit_thaws_its_water_runs_off_and_what_goes_to_the_freezer_comes_back() {
    let store = Store::in_memory().unwrap();
    let bags = store.add_lot(&lot(Food::Fruit, true, 9_000), NOW).unwrap().id;
    let water = part(Source::Lot(bags), Food::Water, FoodPlace::Discarded, 1_500, None);
    store.add_move(&water, at(1), DAY).unwrap();
    let thawed = LotChange { thawed: Some(true), ..LotChange::default() };
    store.change_lot(bags, &thawed, at(1)).unwrap();
    let after = store.lot(bags).unwrap();
    assert_eq!((after.left_g, after.poured_g, after.thawed_at), (7_500, 1_500, Some(at(1))));
    let too_much = part(Source::Lot(bags), Food::Fruit, FoodPlace::Table, 7_501, None);
    assert!(matches!(store.add_move(&too_much, at(2), DAY), Err(StoreError::Overdrawn { .. })));
    // Four packs go back, one is eaten, two come out again as frozen fruit.
    let packs = part(Source::Lot(bags), Food::Fruit, FoodPlace::Freezer, 4_000, Some(4));
    let packs = store.add_move(&packs, at(3), DAY).unwrap().id;
    let eaten = part(Source::Cold(packs), Food::Fruit, FoodPlace::Table, 1_000, Some(1));
    store.add_move(&eaten, at(4), DAY).unwrap();
    let out = part(Source::Cold(packs), Food::Fruit, FoodPlace::Line, 2_000, Some(2));
    let back = store.add_move(&out, at(5), DAY).unwrap();
    let back_lot = store.lot(back.to_lot.unwrap()).unwrap();
    assert_eq!((back_lot.left_g, back_lot.frozen, back_lot.kind), (2_000, true, Kind::Paste));
    let cold = store.cold_food().unwrap();
    assert_eq!((cold.len(), cold[0].left_g, cold[0].packs), (1, 1_000, Some(1)));
    let more = part(Source::Cold(packs), Food::Fruit, FoodPlace::Table, 500, Some(2));
    assert!(matches!(store.add_move(&more, at(6), DAY), Err(StoreError::ColdShort { .. })));
    // What went further is not taken back from under it.
    assert!(matches!(store.undo_move(packs, at(7)), Err(StoreError::MovedOn)));
    store.undo_move(back.id, at(8)).unwrap();
    assert!(store.lots().unwrap().iter().all(|lot| lot.id != back_lot.id));
    // Nothing of it is harvest but what was weighed in.
    assert_eq!(told(|tell| store.harvest(tell)).unwrap().iter().map(|lot| lot.weight_g).sum::<i64>(), 9_000);
}

#[test]
fn ladled_juice_waits_as_food_of_its_batch_and_goes_back_with_its_line() {
    let store = Store::in_memory().unwrap();
    let (batch, ..) = with_batch(&store);
    let cook = on_the_stove(&store, batch);
    let juice = part(Source::Batch(batch), Food::ThinJuice, FoodPlace::Line, 1_000, None);
    let after = store.take_off(cook, &event(10, CookWhat::LadleL, 1.0), Some(&juice), DAY).unwrap();
    assert!(after.log[0].booked);
    let waits = store.lots().unwrap().into_iter().find(|lot| lot.food == Food::ThinJuice).unwrap();
    assert_eq!((waits.left_g, waits.from_batch, waits.moved_in), (1_000, Some(batch), true));
    assert!(waits.words().starts_with("thin juice of 2609"), "{}", waits.words());
    // Some of it was drunk: the line stays until that is taken back.
    let drunk = part(Source::Lot(waits.id), Food::ThinJuice, FoodPlace::Table, 200, None);
    let drunk = store.add_move(&drunk, at(20), DAY).unwrap().id;
    assert!(matches!(store.undo_cook_event(cook, at(10), at(21)), Err(StoreError::MovedOn)));
    store.undo_move(drunk, at(22)).unwrap();
    let undone = store.undo_cook_event(cook, at(10), at(23)).unwrap();
    assert!(undone.log.is_empty() && store.moves(batch).unwrap().is_empty());
    assert!(store.lots().unwrap().iter().all(|lot| lot.food != Food::ThinJuice));
    // The other way round: the move is taken back, and the line goes with it.
    store.take_off(cook, &event(30, CookWhat::LadleL, 1.0), Some(&juice), DAY).unwrap();
    store.undo_move(store.moves(batch).unwrap()[0].id, at(31)).unwrap();
    assert!(store.cook(cook).unwrap().log.is_empty());
}

#[test]
fn more_that_goes_in_is_drawn_from_its_lot_and_given_back() {
    let store = Store::in_memory().unwrap();
    let (batch, ..) = with_batch(&store);
    let cook = on_the_stove(&store, batch);
    let crate_of = store.add_lot(&lot(Food::Fruit, false, 3_000), NOW).unwrap().id;
    let before = store.batch(batch).unwrap().weight_g;
    let drawn = |weight_g| Some(Draw { lot: crate_of, weight_g });
    store.add_more(cook, &event(5, CookWhat::AddL, 1.0), drawn(2_000)).unwrap();
    store.add_more(cook, &event(6, CookWhat::AddL, 0.4), drawn(900)).unwrap();
    let refused = store.add_more(cook, &event(7, CookWhat::AddL, 0.1), drawn(200));
    assert!(matches!(refused, Err(StoreError::Overdrawn { .. })));
    assert_eq!(store.batch(batch).unwrap().weight_g, before + 2_900);
    assert_eq!(store.lot(crate_of).unwrap().left_g, 100);
    store.undo_cook_event(cook, at(6), at(8)).unwrap();
    store.undo_cook_event(cook, at(6), at(8)).unwrap();
    assert_eq!(store.lot(crate_of).unwrap().left_g, 1_000, "said twice, it takes back one line");
    store.undo_cook_event(cook, at(5), at(9)).unwrap();
    assert_eq!((store.lot(crate_of).unwrap().left_g, store.batch(batch).unwrap().weight_g), (3_000, before));
}

#[test]
fn a_batch_cannot_tell_before_its_jars_are_out() {
    let store = Store::in_memory().unwrap();
    let (batch, ..) = with_batch(&store);
    let page = store.page(batch).unwrap();
    let books = bodega_core::ledger::balance::balance(&page.made(), &page.book());
    assert_eq!((books.verdict, page.finished()), (BalanceVerdict::CannotTell, None));
}

#[test]
fn moves_go_out_and_come_in_as_they_are() {
    let mut walk = Walk::new();
    for deed in [
        Deed::Ladle(800),
        Deed::FromLot(0, FoodPlace::Freezer, 2_000),
        Deed::FromCold(1, FoodPlace::Line, 500),
        Deed::More(0, 700),
        Deed::FromBatch(FoodPlace::Neighbour, 300),
    ] {
        walk.act(&deed);
    }
    assert_eq!(walk.moves.len(), 4, "every deed was done");
    let document = serde_json::to_vec(&exported(&walk.store).unwrap()).unwrap();
    let other = Store::in_memory().unwrap();
    other.import(&mut std::io::Cursor::new(document)).unwrap();
    assert_eq!(exported(&other).unwrap(), exported(&walk.store).unwrap());
}

/// One thing that somebody does.
#[derive(Debug, Clone)]
enum Deed {
    WeighIn(i64),
    FromLot(usize, FoodPlace, i64),
    FromBatch(FoodPlace, i64),
    FromCold(usize, FoodPlace, i64),
    Ladle(i64),
    More(usize, i64),
    Undo(usize),
    UndoLine(usize),
    OffTheLine(bool),
}

fn any_deed() -> impl Strategy<Value = Deed> {
    let place = || prop::sample::select(FoodPlace::ALL);
    prop_oneof![
        (1..5_000_i64).prop_map(Deed::WeighIn),
        (0..6_usize, place(), 1..3_000_i64).prop_map(|(lot, place, grams)| Deed::FromLot(lot, place, grams)),
        (place(), 1..1_000_i64).prop_map(|(place, grams)| Deed::FromBatch(place, grams)),
        (0..6_usize, place(), 1..1_500_i64)
            .prop_map(|(cold, place, grams)| Deed::FromCold(cold, place, grams)),
        (1..900_i64).prop_map(Deed::Ladle),
        (0..6_usize, 1..2_000_i64).prop_map(|(lot, grams)| Deed::More(lot, grams)),
        (0..12_usize).prop_map(Deed::Undo),
        (0..12_usize).prop_map(Deed::UndoLine),
        any::<bool>().prop_map(Deed::OffTheLine),
    ]
}

struct Walk {
    store: Store,
    batch: BatchId,
    cook: CookId,
    lots: Vec<LotId>,
    moves: Vec<MoveId>,
    lines: Vec<Moment>,
    weighed_in: i64,
    minute: i64,
    /// The batch is off the line, and its fruit back in the crates.
    off: bool,
}

impl Walk {
    fn new() -> Self {
        let store = Store::in_memory().unwrap();
        let (batch, ..) = with_batch(&store);
        let cook = on_the_stove(&store, batch);
        let lots: Vec<LotId> = told(|tell| store.harvest(tell)).unwrap().iter().map(|lot| lot.id).collect();
        let weighed_in = told(|tell| store.harvest(tell)).unwrap().iter().map(|lot| lot.weight_g).sum();
        Self {
            store,
            batch,
            cook,
            lots,
            moves: Vec::new(),
            lines: Vec::new(),
            weighed_in,
            minute: 0,
            off: false,
        }
    }

    fn moved(&mut self, new: &NewMove) {
        // Whether it is refused is no matter here: what it leaves behind is.
        if let Ok(moved) = self.store.add_move(new, at(self.minute), DAY) {
            self.lots.extend(moved.to_lot);
            self.moves.push(moved.id);
        }
    }

    fn act(&mut self, deed: &Deed) {
        self.minute += 1;
        let (now, store) = (at(self.minute), &self.store);
        match *deed {
            Deed::WeighIn(grams) => {
                self.lots.push(store.add_lot(&lot(Food::Fruit, false, grams), now).unwrap().id);
                self.weighed_in += grams;
            }
            Deed::FromLot(which, place, grams) => {
                let lot = self.lots[which % self.lots.len()];
                self.moved(&part(Source::Lot(lot), Food::Fruit, place, grams, None));
            }
            Deed::FromBatch(place, grams) => {
                self.moved(&part(Source::Batch(self.batch), Food::Product, place, grams, None));
            }
            Deed::FromCold(which, place, grams) => {
                if let Some(cold) = self.moves.get(which) {
                    self.moved(&part(Source::Cold(*cold), Food::Product, place, grams, None));
                }
            }
            Deed::Ladle(grams) => {
                let juice = part(Source::Batch(self.batch), Food::ThinJuice, FoodPlace::Line, grams, None);
                #[allow(clippy::cast_precision_loss)] // grams of a test
                let line = event(self.minute, CookWhat::LadleL, grams as f64 / 1000.0);
                if store.take_off(self.cook, &line, Some(&juice), DAY).is_err() {
                    assert!(self.off, "a batch on the line gives its juice");
                    return;
                }
                let moved = store.moves(self.batch).unwrap().pop().unwrap();
                self.lots.extend(moved.to_lot);
                self.moves.push(moved.id);
                self.lines.push(now);
            }
            Deed::More(which, weight_g) => {
                let lot = self.lots[which % self.lots.len()];
                let line = event(self.minute, CookWhat::AddL, 0.5);
                if store.add_more(self.cook, &line, Some(Draw { lot, weight_g })).is_ok() {
                    self.lines.push(now);
                }
            }
            Deed::OffTheLine(removed) => {
                if store.remove_batch(self.batch, removed, None, now).is_ok() {
                    self.off = removed;
                }
            }
            Deed::Undo(which) => {
                if let Some(moved) = self.moves.get(which) {
                    let _refused_or_not = store.undo_move(*moved, now);
                }
            }
            Deed::UndoLine(which) => {
                if let Some(line) = self.lines.get(which) {
                    let _refused_or_not = store.undo_cook_event(self.cook, *line, now);
                }
            }
        }
    }

    /// Everything that is anywhere, by what the records say.
    fn everywhere(&self) -> i64 {
        let store = &self.store;
        let waits: i64 = store.lots().unwrap().iter().map(|lot| lot.left_g).sum();
        let cold: i64 = store.cold_food().unwrap().iter().map(|food| food.left_g).sum();
        let moved = store.moves(self.batch).unwrap();
        let drawn = if self.off { 0 } else { store.batch(self.batch).unwrap().weight_g };
        let batch = drawn - moved.iter().map(|one| one.weight_g).sum::<i64>();
        let mut gone: i64 = 0;
        for id in &self.moves {
            let Ok(one) = store.moved(*id) else { continue };
            if !one.place.keeps() && one.place != FoodPlace::Line {
                gone += one.weight_g;
            }
        }
        waits + cold + batch + gone
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 40, ..ProptestConfig::default() })]

    #[test]
    fn no_walk_makes_or_loses_a_gram(deeds in prop::collection::vec(any_deed(), 1..40)) {
        let mut walk = Walk::new();
        for deed in &deeds {
            walk.act(deed);
            prop_assert_eq!(walk.everywhere(), walk.weighed_in, "after {:?}", deed);
            for lot in walk.store.lots().unwrap() {
                prop_assert!(lot.left_g > 0 && lot.left_g <= lot.weight_g);
            }
        }
    }
}

/// A document of version 16, as the build of that day wrote it: moves left batches only, and knew neither weight nor goal.
fn version_16(store: &Store) -> serde_json::Value {
    let mut document = exported(store).unwrap();
    document["version"] = 16.into();
    let younger = [
        (
            "lot",
            ["food", "amount", "measure", "from_batch", "chilled_at", "thawed_at", "name", "note"].as_slice(),
        ),
        ("batch", &["liked", "name", "note", "recipe", "bowls_id", "ticks"]),
        ("kitchen", &["hours", "days", "decimal", "heat", "height", "agent", "salt"]),
        ("food_move", &["lot_id", "cold_id", "weight_g", "packs", "to_lot", "cook_event_id"]),
        ("cook_event", &["lot_id", "lot_g", "sure"]),
        ("cook", &["start_c", "rate_doubt", "thickens", "thickens_doubt"]),
        ("kettle", &["top_diameter_mm"]),
        ("canner", &["multi_cooker", "gauge_tested_in"]),
        ("canner_load", &["water_over", "water_at", "water_asked", "under_jars"]),
        ("jar", &["liquid_lost", "liquid_lost_at"]),
    ];
    for (table, columns) in younger {
        for row in document["records"][table].as_array_mut().unwrap() {
            for column in columns {
                row.as_object_mut().unwrap().remove(*column);
            }
        }
    }
    document
}

#[test]
fn an_earlier_document_comes_in_with_what_was_told_then_and_no_more() {
    let store = Store::in_memory().unwrap();
    let (batch, ..) = with_batch(&store);
    let cook = on_the_stove(&store, batch);
    store.add_cook_event(cook, &event(10, CookWhat::DrainL, 1.0)).unwrap();
    let told = Told { amount: 2.0, measure: FoodMeasure::Quart };
    let moved = NewMove {
        from: Source::Batch(batch),
        food: Food::ThinJuice,
        place: FoodPlace::Table,
        told,
        weight_g: 1,
        packs: None,
    };
    store.add_move(&moved, at(5), DAY).unwrap();
    let document = serde_json::to_vec(&version_16(&store)).unwrap();
    let other = Store::in_memory().unwrap();
    other.import(&mut std::io::Cursor::new(document)).unwrap();
    let page = other.page(batch).unwrap();
    // Two quarts at the density of juice, and a drain of which nobody said where it went.
    assert_eq!((page.moves[0].told, page.moves[0].weight_g), (told, 1_928));
    assert!(page.fruit.iter().all(|(lot, _)| lot.food == Food::Fruit && !lot.moved_in && lot.poured_g == 0));
    let words: Vec<String> = page.book().flows().iter().map(bodega_core::ledger::book::Flow::words).collect();
    assert!(words.contains(&"thin juice taken off; where it went was not recorded".to_owned()), "{words:?}");
}
