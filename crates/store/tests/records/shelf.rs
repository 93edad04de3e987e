//! From the towel to the table: failed lids, jars that leave, batches that are recalled.

use bodega_core::towel::seal::NoRescue;
use bodega_model::canner::events::BoilEvent;
use bodega_model::crates::fruit::Condition;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{BatchId, JarId, LoadId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::batch::Draw;
use bodega_model::records::shelf::{Gone, ShelfSearch};
use bodega_model::shelf::leaving::{Discard, Leaving};
use bodega_model::tables::process::Product;
use bodega_model::towel::seal::{LidVerdict, Rescue};
use bodega_store::{Store, StoreError};

use crate::common::{NOW, batch, lot, make_ready};

/// When the load came out of the canner.
const LIFTED: i64 = 56;

fn at(hours: i64) -> Moment {
    NOW.plus_minutes(LIFTED + hours * 60)
}

fn process(store: &Store, load: LoadId, start: i64) {
    make_ready(store, load, NOW);
    for (event, minute) in [(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 50), (BoilEvent::Lifted, LIFTED)] {
        store.add_event(load, event, NOW.plus_minutes(start + minute)).unwrap();
    }
}

/// A batch of three quarts in two loads, lifted and cooling; returns the batch and its jars.
fn cooling(store: &Store) -> (BatchId, Vec<JarId>) {
    let lot = lot(store, 4_000, Condition::FirmRipe);
    let batch = store.add_batch(&batch(vec![Draw { lot, weight_g: 4_000 }]), NOW).unwrap();
    for load in store.batch_loads(batch.id).unwrap() {
        process(store, load.id, 0);
    }
    (batch.id, store.batch_jars(batch.id).unwrap().iter().map(|jar| jar.id).collect())
}

#[test]
fn a_failed_jar_goes_through_the_canner_again_and_keeps_its_history() {
    let store = Store::in_memory().unwrap();
    let (batch, jars) = cooling(&store);
    let first_load = store.jar(jars[0]).unwrap().load;
    assert!(matches!(
        store.rescue(&[jars[0]], Some(Rescue::Reprocess), None, at(13)),
        Err(StoreError::NoRescue { reason: NoRescue::NothingWrong, .. })
    ));
    store.judge_seals(&[jars[0]], Some(LidVerdict::Doubtful), at(13)).unwrap();
    assert!(matches!(
        store.rescue(&[jars[0]], Some(Rescue::Reprocess), None, at(25)),
        Err(StoreError::NoRescue { reason: NoRescue::TooLate, .. })
    ));
    assert_eq!(store.jar(jars[0]).unwrap().rescue, None, "nothing is kept by half");
    store.rescue(&[jars[0]], Some(Rescue::Reprocess), None, at(14)).unwrap();
    let again = store.open_loads().unwrap().remove(0);
    let jar = &again.jars[0];
    assert!(
        jar.id == jars[0] && jar.filled && !jar.rim && !jar.lid,
        "it waits for a clean rim and a new lid"
    );
    assert_eq!(again.clock.required().0, 50, "the full time");
    // Taken back, the new load is gone and the jar lies on the towel with the doubt that was found.
    store.rescue(&[jars[0]], None, None, at(14)).unwrap();
    assert!(store.open_loads().unwrap().is_empty());
    assert_eq!(store.jar(jars[0]).unwrap().verdict, Some(LidVerdict::Doubtful));
    store.rescue(&[jars[0]], Some(Rescue::Reprocess), None, at(14)).unwrap();
    let again = store.open_loads().unwrap().remove(0).id;
    process(&store, again, 15 * 60);
    let record = store.jar(jars[0]).unwrap();
    assert_eq!((record.load, record.earlier_loads), (again, vec![first_load]));
    store.judge_seals(&[jars[0]], Some(LidVerdict::Holds), at(40)).unwrap();
    assert_eq!(store.shelf(&ShelfSearch::default()).unwrap()[0].batch, batch);
}

#[test]
fn a_jar_kept_cold_is_listed_until_it_is_eaten() {
    let store = Store::in_memory().unwrap();
    let (_, jars) = cooling(&store);
    store.judge_seals(&jars[..2], Some(LidVerdict::Doubtful), at(13)).unwrap();
    store.rescue(&[jars[0]], Some(Rescue::Refrigerator), None, at(13)).unwrap();
    store.rescue(&[jars[1]], Some(Rescue::Freezer), None, at(13)).unwrap();
    let cold = store.rescued().unwrap();
    assert_eq!(cold[0].until, Some(at(13 + 4 * 24)), "within days");
    assert_eq!((cold[1].rescue, cold[1].until), (Rescue::Freezer, None));
    store.leave(&[jars[0]], Some(Gone { how: Leaving::Eaten, why: None }), at(30)).unwrap();
    assert_eq!(store.rescued().unwrap().len(), 1);
    store.leave(&[jars[0]], None, at(30)).unwrap();
    assert_eq!(store.rescued().unwrap().len(), 2, "and comes back");
    // Broken glass leaves nothing to decide.
    store.judge_seals(&[jars[2]], Some(LidVerdict::Broken), at(13)).unwrap();
    assert!(matches!(
        store.rescue(&[jars[2]], Some(Rescue::Freezer), None, at(13)),
        Err(StoreError::NoRescue { reason: NoRescue::NothingWrong, .. })
    ));
    assert!(store.towel().unwrap().is_empty());
}

#[test]
fn jars_leave_the_shelf_oldest_first_and_a_spoiled_one_recalls_its_sisters() {
    let store = Store::in_memory().unwrap();
    let (batch, jars) = cooling(&store);
    assert!(matches!(store.next_jar(batch, JarSize::Quart), Err(StoreError::ShelfEmpty)));
    store.judge_seals(&jars, Some(LidVerdict::Holds), at(13)).unwrap();
    assert_eq!(store.next_jar(batch, JarSize::Quart).unwrap(), jars[0]);
    let eaten = Gone { how: Leaving::Eaten, why: None };
    store.leave(&[jars[0]], Some(eaten), at(100)).unwrap();
    assert!(matches!(
        store.leave(&[jars[0]], Some(eaten), at(101)),
        Err(StoreError::AlreadyGone { number: 1 })
    ));
    assert_eq!(store.next_jar(batch, JarSize::Quart).unwrap(), jars[1]);
    let stocked = store.stocked(at(0)).unwrap().remove(0);
    assert_eq!((stocked.on_shelf, stocked.history.left), (2, vec![(at(100), Leaving::Eaten, 1)]));
    let spoiled = |why| Gone { how: Leaving::Discarded, why: Some(why) };
    store.leave(&[jars[1]], Some(spoiled(Discard::Dropped)), at(200)).unwrap();
    let all = ShelfSearch::default();
    assert!(!store.shelf(&all).unwrap()[0].recalled, "a dropped jar says nothing of the others");
    store.leave(&[jars[1]], None, at(200)).unwrap();
    store.leave(&[jars[1]], Some(spoiled(Discard::Bulge)), at(201)).unwrap();
    assert!(store.shelf(&all).unwrap()[0].recalled);
}

#[test]
fn the_shelf_is_searched_by_code_product_and_time() {
    let store = Store::in_memory().unwrap();
    let (_, jars) = cooling(&store);
    store.judge_seals(&jars, Some(LidVerdict::Holds), at(13)).unwrap();
    let found = |search: ShelfSearch| store.shelf(&search).unwrap().len();
    let code = |code: &str| ShelfSearch { code: Some(code.to_owned()), ..ShelfSearch::default() };
    assert_eq!((found(code("0912")), found(code("1999"))), (1, 0));
    let product = |product| ShelfSearch { product: Some(product), ..ShelfSearch::default() };
    assert_eq!((found(product(Product::Whole)), found(product(Product::Juice))), (1, 0));
    let before = |before| ShelfSearch { before: Some(before), ..ShelfSearch::default() };
    assert_eq!((found(before(at(0))), found(before(at(1)))), (0, 1));
}
