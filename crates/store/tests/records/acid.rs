//! Acid in its order: before the food, after it, not at all, found out later.

use bodega_core::jars::bench::JarStep;
use bodega_core::towel::seal::NoRescue;
use bodega_model::canner::events::BoilEvent;
use bodega_model::crates::fruit::Condition;
use bodega_model::jars::size::JarSize;
use bodega_model::jars::spoons::{DoseMeasure, Measured};
use bodega_model::measures::ids::{BatchId, JarId, LoadId};
use bodega_model::records::batch::Draw;
use bodega_model::records::shelf::ShelfSearch;
use bodega_model::towel::seal::{LidVerdict, Rescue};
use bodega_store::{Store, StoreError, ToldBy};

use crate::common::{NOW, batch, lot, make_ready};
use crate::undo::undo;

/// Quarts of whole tomatoes with citric acid on the bench, two in the first load and one in the second.
fn bench() -> (Store, BatchId, [LoadId; 2], [JarId; 2]) {
    let store = Store::in_memory().unwrap();
    let id = lot(&store, 10_000, Condition::FirmRipe);
    let batch = store.add_batch(&batch(vec![Draw { lot: id, weight_g: 4_000 }]), NOW).unwrap().id;
    let loads = store.batch_loads(batch).unwrap();
    let jars = [loads[0].jars[0].id, loads[0].jars[1].id];
    (store, batch, [loads[0].id, loads[1].id], jars)
}

/// Teaspoons of acid as somebody stirred them into a pot.
pub fn tsp(amount: f64) -> Vec<Measured> {
    vec![Measured { amount, measure: DoseMeasure::Tsp, bottle_ml: None }]
}

/// Boils a load for its full 50 minutes and lifts it.
fn process(store: &Store, load: LoadId, from: i64) {
    for (event, minute) in
        [(BoilEvent::JarsIn, 0), (BoilEvent::Boils, 20), (BoilEvent::HeatOff, 70), (BoilEvent::Lifted, 76)]
    {
        store.add_event(load, event, NOW.plus_minutes(from + minute)).unwrap();
    }
}

fn on_shelf(store: &Store) -> u32 {
    store.shelf(&ShelfSearch::default()).unwrap().iter().map(|group| group.count).sum()
}

#[test]
fn acid_after_the_food_and_before_the_lid_is_recorded_as_it_was() {
    let (store, batch, [load, _], [first, second]) = bench();
    let filled = store.fill_before_acid(first, NOW).unwrap();
    assert!(filled.filled && !filled.acid && !filled.lid);
    for step in [JarStep::Bubbles, JarStep::Rim, JarStep::Lid] {
        assert!(matches!(store.tick_jar(first, step, true, NOW), Err(StoreError::AcidFirst(_))), "{step}");
    }
    store.tick_load(load, JarStep::Acid, NOW.plus_minutes(1)).unwrap();
    store.tick_load(load, JarStep::Lid, NOW.plus_minutes(2)).unwrap();
    let after: Vec<bool> = store.batch_jars(batch).unwrap().iter().map(|jar| jar.acid_after_food).collect();
    assert_eq!(after, [true, false, false]);
    assert!(store.load(load).unwrap().jars.iter().all(|jar| jar.acid && jar.lid));
    // Not in after all: the food stays where it is, the lid comes off.
    let back = store.tick_jar(second, JarStep::Acid, false, NOW.plus_minutes(3)).unwrap();
    assert!(back.filled && !back.acid && !back.rim && !back.lid);
}

#[test]
fn one_touch_is_taken_back_whole_and_no_other_with_it() {
    let (store, _, [load, other], [first, second]) = bench();
    store.tick_jar(first, JarStep::Acid, true, NOW).unwrap();
    let (acid, lids) = (NOW.plus_minutes(1), NOW.plus_minutes(2));
    store.tick_load(load, JarStep::Acid, acid).unwrap();
    store.tick_load(other, JarStep::Acid, acid).unwrap();
    store.tick_load(load, JarStep::Lid, lids).unwrap();
    store.untick_load(load, lids).unwrap();
    let jars = store.load(load).unwrap().jars;
    assert!(jars.iter().all(|jar| jar.acid && !jar.filled && !jar.lid), "all that the touch implied is back");

    store.tick_load(load, JarStep::Lid, lids).unwrap();
    store.untick_load(load, acid).unwrap();
    let jars = store.load(load).unwrap().jars;
    let of = |id| jars.iter().find(|jar| jar.id == id).unwrap();
    assert!(of(first).acid && of(first).lid, "its own touch stands");
    assert!(!of(second).acid && !of(second).lid && of(second).filled);
    assert!(store.load(other).unwrap().jars[0].acid, "another load is not asked");
    store.untick_load(load, acid).unwrap();
    assert!(store.load(load).unwrap().jars[0].acid, "twice takes back once");
}

#[test]
fn nothing_is_ticked_or_taken_back_in_silence_in_the_canner() {
    let (store, _, [load, _], [first, _]) = bench();
    make_ready(&store, load, NOW);
    assert!(matches!(
        store.set_undosed(&[first], true, &ToldBy::here(NOW)),
        Err(StoreError::OnBench { number: 1 })
    ));
    store.add_event(load, BoilEvent::JarsIn, NOW).unwrap();
    for done in [true, false] {
        assert!(matches!(store.tick_jar(first, JarStep::Acid, done, NOW), Err(StoreError::LoadBegun)));
    }
    assert!(matches!(store.tick_load(load, JarStep::Acid, NOW), Err(StoreError::LoadBegun)));
    assert!(matches!(store.untick_load(load, NOW), Err(StoreError::LoadBegun)));
    assert!(matches!(store.fill_before_acid(first, NOW), Err(StoreError::LoadBegun)));
    assert!(store.load(load).unwrap().jars.iter().all(|jar| jar.acid));
    undo(&store, load, NOW).unwrap();
    store.tick_jar(first, JarStep::Acid, false, NOW).unwrap();
}

#[test]
fn a_jar_without_its_dose_is_not_on_the_shelf_and_comes_back_for_it_within_the_day() {
    let (store, _, [load, _], [first, second]) = bench();
    make_ready(&store, load, NOW);
    process(&store, load, 0);
    let (morning, later) = (NOW.plus_minutes(14 * 60), NOW.plus_minutes(76 + 24 * 60 + 1));
    store.judge_seals(&[first, second], Some(LidVerdict::Holds), morning).unwrap();
    store.tidy(&[first, second], true, morning).unwrap();
    assert_eq!((on_shelf(&store), store.towel().unwrap().len()), (2, 0));

    store.set_undosed(&[first], true, &ToldBy::here(morning)).unwrap();
    assert_eq!(on_shelf(&store), 1, "it is off the shelf");
    let towel = store.towel().unwrap();
    assert!(towel[0].jars.iter().any(|jar| jar.id == first && !jar.dosed), "and back on the towel");
    let refused = store.judge_seals(&[first], Some(LidVerdict::Holds), morning).unwrap_err();
    assert!(matches!(refused, StoreError::NotDosed { number: 1 }), "{refused}");
    assert!(store.jar(first).unwrap().whereabouts(None).contains("without its acid"));
    let late = store.rescue(&[first], Some(Rescue::Reprocess), None, later).unwrap_err();
    assert!(matches!(late, StoreError::NoRescue { reason: NoRescue::TooLate, .. }), "{late}");

    store.set_undosed(&[first], false, &ToldBy::here(morning)).unwrap();
    assert_eq!(on_shelf(&store), 2, "said by mistake");
    store.set_undosed(&[first], true, &ToldBy::here(morning)).unwrap();
    store.rescue(&[first], Some(Rescue::Reprocess), None, morning).unwrap();
    let again = store.jar(first).unwrap();
    let on_bench = store.load(again.load).unwrap();
    let jar = on_bench.jars.iter().find(|jar| jar.id == first).unwrap();
    assert!(jar.filled && !jar.acid && !jar.lid, "open, with its food and without its dose");
    // Changed their mind: it is what it was, and still not for the shelf.
    store.rescue(&[first], None, None, morning).unwrap();
    assert!(store.jar(first).unwrap().undosed);
    assert_eq!(on_shelf(&store), 1);

    store.rescue(&[first], Some(Rescue::Reprocess), None, morning).unwrap();
    let again = store.jar(first).unwrap().load;
    make_ready(&store, again, morning);
    process(&store, again, 14 * 60);
    store.judge_seals(&[first], Some(LidVerdict::Holds), NOW.plus_minutes(30 * 60)).unwrap();
    assert!(!store.jar(first).unwrap().undosed);
    assert_eq!(on_shelf(&store), 2);
}

#[test]
fn a_pot_that_turns_out_short_takes_its_jars_off_the_shelf() {
    let (store, batch, [load, second_load], [first, second]) = bench();
    // Three quarts need 1.5 tsp of citric acid.
    store.set_pot_dose(batch, &tsp(1.5), NOW).unwrap();
    store.tick_load(load, JarStep::Lid, NOW).unwrap();
    assert!(matches!(store.untick_load(load, NOW.plus_minutes(9)), Ok(())));
    process(&store, load, 0);
    let morning = NOW.plus_minutes(14 * 60);
    store.judge_seals(&[first, second], Some(LidVerdict::Holds), morning).unwrap();
    assert_eq!(on_shelf(&store), 2);
    assert!(matches!(
        store.set_undosed(&[first], true, &ToldBy::here(morning)),
        Err(StoreError::InPot { number: 1 })
    ));
    // The pot gave one jar more than it was dosed for: every jar got less.
    store.recount(second_load, batch, JarSize::Quart, 2, morning).unwrap();
    assert_eq!(on_shelf(&store), 0);
    store.recount(second_load, batch, JarSize::Quart, 1, morning).unwrap();
    assert_eq!(on_shelf(&store), 2);
    for short in [tsp(1.4), Vec::new()] {
        store.set_pot_dose(batch, &short, morning).unwrap();
        assert_eq!(on_shelf(&store), 0, "{short:?}");
        let back = store.set_undosed(&[first], false, &ToldBy::here(morning));
        assert!(matches!(back, Err(StoreError::PotShort { number: 1 })), "no touch makes up for the pot");
        let refused = store.judge_seals(&[first], Some(LidVerdict::Holds), morning).unwrap_err();
        assert!(matches!(refused, StoreError::NotDosed { .. }), "{refused}");
    }
    store.set_pot_dose(batch, &tsp(1.5), morning).unwrap();
    assert_eq!(on_shelf(&store), 2);
}

#[test]
fn what_is_said_twice_is_taken_back_once() {
    let (store, _, [load, _], _) = bench();
    make_ready(&store, load, NOW);
    let [seen, later] = [NOW.plus_minutes(1), NOW.plus_minutes(20)];
    store.add_event(load, BoilEvent::JarsIn, seen).unwrap();
    store.add_event(load, BoilEvent::Boils, later).unwrap();
    let refused = store.undo_event(load, seen, NOW).unwrap_err();
    assert!(matches!(refused, StoreError::NotTheLast), "{refused}");
    store.undo_event(load, later, NOW).unwrap();
    let twice = store.undo_event(load, later, NOW).unwrap();
    assert_eq!(twice.clock.happened().len(), 1, "a second press on the same thing takes nothing else back");
    assert!(matches!(store.undo_event(load, NOW, NOW), Err(StoreError::NothingToUndo)));
}
