//! The records hold together whatever is asked of them.

use bodega_core::jars::bench::{AcidFirst, JarStep};
use bodega_core::towel::seal::NoRescue;
use bodega_model::canner::events::{BoilEvent, Phase};
use bodega_model::contents::{Added, Ingredient};
use bodega_model::crates::fruit::Condition;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{BatchId, JarId, LoadId};
use bodega_model::measures::moment::Minutes;
use bodega_model::records::batch::{Draw, NewBatch};
use bodega_model::records::jar::Jar;
use bodega_model::records::load::CannerLoad;
use bodega_model::records::lot::LotChange;
use bodega_model::records::shelf::ShelfSearch;
use bodega_model::towel::seal::{LidVerdict, Rescue};
use bodega_store::{Store, StoreError, ToldBy};

use crate::common::{NOW, batch, lot, make_ready};
use crate::undo::undo;

/// A kitchen with one batch of two quarts and one quart; returns the ids of its two loads.
pub fn with_batch(store: &Store) -> (BatchId, LoadId, LoadId) {
    let lot = lot(store, 10_000, Condition::FirmRipe);
    let batch = store.add_batch(&batch(vec![Draw { lot, weight_g: 4000 }]), NOW).unwrap();
    let loads = store.open_loads().unwrap();
    (batch.id, loads[0].id, loads[1].id)
}

#[test]
fn lots_are_drawn_down_and_never_below_zero() {
    let store = Store::in_memory().unwrap();
    let id = lot(&store, 10_000, Condition::FirmRipe);
    let first = store.add_batch(&batch(vec![Draw { lot: id, weight_g: 6000 }]), NOW).unwrap();
    assert_eq!(store.lots().unwrap()[0].left_g, 4000);

    let error = store.add_batch(&batch(vec![Draw { lot: id, weight_g: 4001 }]), NOW).unwrap_err();
    assert!(matches!(error, StoreError::Overdrawn { left_g: 4000, wanted_g: 4001, .. }), "{error}");
    assert_eq!(store.open_batches().unwrap().len(), 1, "nothing of the refused batch is stored");

    let less = LotChange { weight_g: Some(5999), ..LotChange::default() };
    assert!(matches!(store.change_lot(id, &less, NOW), Err(StoreError::BelowZero)));

    store.remove_batch(first.id, true, None, NOW).unwrap();
    assert_eq!(store.lots().unwrap()[0].left_g, 10_000, "a removed batch gives its fruit back");
    store.add_batch(&batch(vec![Draw { lot: id, weight_g: 9000 }]), NOW).unwrap();
    assert!(matches!(store.remove_batch(first.id, false, None, NOW), Err(StoreError::BelowZero)));
}

#[test]
fn fruit_that_is_held_or_out_is_not_drawn() {
    let store = Store::in_memory().unwrap();
    for condition in [Condition::Unripe, Condition::Out] {
        let id = lot(&store, 5000, condition);
        let error = store.add_batch(&batch(vec![Draw { lot: id, weight_g: 100 }]), NOW).unwrap_err();
        assert!(matches!(error, StoreError::NotForJars { .. }), "{error}");
    }
}

#[test]
fn codes_of_a_day_are_never_used_twice() {
    let store = Store::in_memory().unwrap();
    let id = lot(&store, 10_000, Condition::FirmRipe);
    let draw = || batch(vec![Draw { lot: id, weight_g: 1000 }]);
    let first = store.add_batch(&draw(), NOW).unwrap();
    store.remove_batch(first.id, true, None, NOW).unwrap();
    assert_eq!(store.add_batch(&draw(), NOW).unwrap().code, "260912-2");
}

#[test]
fn food_waits_for_acid_and_the_canner_for_both() {
    let store = Store::in_memory().unwrap();
    let (batch, load, _) = with_batch(&store);
    let jar = store.load(load).unwrap().jars[0].id;
    assert!(matches!(
        store.tick_jar(jar, JarStep::Filled, true, NOW),
        Err(StoreError::AcidFirst(AcidFirst { number: 1 }))
    ));

    let error = store.add_event(load, BoilEvent::JarsIn, NOW).unwrap_err();
    assert_eq!(error.to_string(), "2 of 2 jars are not ready: 2 without acid");

    make_ready(&store, load, NOW);
    let emptied = store.tick_jar(jar, JarStep::Acid, false, NOW).unwrap();
    assert!(!emptied.acid && !emptied.lid, "without its acid no lid is on");
    assert!(matches!(
        store.add_event(load, BoilEvent::JarsIn, NOW),
        Err(StoreError::JarsNotReady { unready: 1, .. })
    ));
    assert!(matches!(store.remove_batch(batch, true, None, NOW), Err(StoreError::BatchBegun { .. })));
}

#[test]
fn jars_are_recounted_on_the_bench_and_the_yield_follows() {
    let store = Store::in_memory().unwrap();
    let (batch, first, second) = with_batch(&store);
    store.recount(first, batch, JarSize::Quart, 4, NOW).unwrap();
    let numbers: Vec<u32> = store.load(first).unwrap().jars.iter().map(|jar| jar.number).collect();
    assert_eq!(numbers, [1, 2, 4, 5], "new jars get numbers nobody has");
    // The canner holds seven quarts: of ten, three go into the next load, which has room for them.
    store.recount(first, batch, JarSize::Quart, 10, NOW).unwrap();
    let counts = |store: &Store| -> Vec<usize> {
        store.batch_loads(batch).unwrap().iter().map(|load| load.jars.len()).collect()
    };
    assert_eq!(counts(&store), [7, 4]);
    // Five more than both hold: a load of their own.
    store.recount(second, batch, JarSize::Quart, 12, NOW).unwrap();
    assert_eq!(counts(&store), [7, 7, 5]);
    let third = store.batch_loads(batch).unwrap()[2].id;
    store.recount(third, batch, JarSize::Quart, 0, NOW).unwrap();
    store.recount(second, batch, JarSize::Quart, 1, NOW).unwrap();
    store.recount(first, batch, JarSize::Quart, 4, NOW).unwrap();
    assert!(matches!(store.recount(first, batch, JarSize::HalfGallon, 1, NOW), Err(StoreError::NoRoom(_))));
    make_ready(&store, first, NOW);
    assert!(matches!(store.recount(first, batch, JarSize::Quart, 3, NOW), Err(StoreError::JarFilled { .. })));
    assert_eq!(store.load(first).unwrap().jars.len(), 4, "nothing is taken by half");
    store.recount(second, batch, JarSize::Quart, 2, NOW).unwrap();
    make_ready(&store, second, NOW);
    for (load, start) in [(first, 0), (second, 100)] {
        for (event, minute) in [(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 50), (BoilEvent::Lifted, 56)] {
            store.add_event(load, event, NOW.plus_minutes(start + minute)).unwrap();
        }
    }
    assert!(matches!(store.recount(first, batch, JarSize::Quart, 5, NOW), Err(StoreError::LoadBegun)));
    // Six quarts out of 4 kg do not add up, and teach nothing.
    assert_eq!(store.page(batch).unwrap().jars_out(), [(JarSize::Quart, 6)]);
    assert_eq!(store.finished().unwrap(), []);
    assert_eq!(store.batch(batch).unwrap().jars, 6);
}

#[test]
fn one_canner_takes_one_load_and_undo_keeps_it_so() {
    let store = Store::in_memory().unwrap();
    let (_, first, second) = with_batch(&store);
    make_ready(&store, first, NOW);
    make_ready(&store, second, NOW);
    for (event, minute) in [
        (BoilEvent::JarsIn, 0),
        (BoilEvent::Boils, 20),
        (BoilEvent::BoilLost, 30),
        (BoilEvent::Boils, 35),
        (BoilEvent::HeatOff, 85),
    ] {
        store.add_event(first, event, NOW.plus_minutes(minute)).unwrap();
        assert!(matches!(
            store.add_event(second, BoilEvent::JarsIn, NOW),
            Err(StoreError::CannerBusy { .. })
        ));
    }
    store.add_event(first, BoilEvent::Lifted, NOW.plus_minutes(91)).unwrap();
    store.add_event(second, BoilEvent::JarsIn, NOW.plus_minutes(100)).unwrap();
    assert!(matches!(undo(&store, first, NOW), Err(StoreError::CannerBusy { .. })));
    let second = undo(&store, second, NOW.plus_minutes(101)).unwrap();
    assert_eq!(second.clock.phase(NOW), Phase::Waiting);
    assert!(matches!(undo(&store, second.id, NOW), Err(StoreError::NothingToUndo)));
}

#[test]
fn acknowledged_events_survive_reopening() {
    let directory = tempfile::tempdir().unwrap();
    let store = Store::open(directory.path()).unwrap();
    let (_, load, _) = with_batch(&store);
    make_ready(&store, load, NOW);
    store.add_event(load, BoilEvent::Boils, NOW).unwrap();
    // The files as they are while the program has them open: a crash does not close them.
    let crashed = tempfile::tempdir().unwrap();
    for tail in ["", "-wal"] {
        let name = format!("{}{tail}", bodega_store::FILE_NAME);
        std::fs::copy(directory.path().join(&name), crashed.path().join(&name)).unwrap();
    }
    drop(store);
    let again = Store::open(crashed.path()).unwrap().load(load).unwrap();
    assert_eq!(
        again.clock.phase(NOW.plus_minutes(31)),
        Phase::Counting { since: NOW, ends: NOW.plus_minutes(50) }
    );
    assert!(again.jars.iter().all(|jar| jar.acid && jar.filled));
}

#[test]
fn towel_then_shelf() {
    let store = Store::in_memory().unwrap();
    let (_, load, _) = with_batch(&store);
    make_ready(&store, load, NOW);
    let jar = store.load(load).unwrap().jars[0].id;
    assert!(matches!(
        store.judge_seals(&[jar], Some(LidVerdict::Holds), NOW),
        Err(StoreError::NotOnTowel { number: 1 })
    ));
    for (event, minute) in [(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 50), (BoilEvent::Lifted, 56)] {
        store.add_event(load, event, NOW.plus_minutes(minute)).unwrap();
    }
    let towel = store.towel().unwrap().remove(0);
    assert_eq!(towel.check_from, NOW.plus_minutes(56 + 12 * 60));
    let [first, second] = [towel.jars[0].id, towel.jars[1].id];
    let all = ShelfSearch::default();
    let later = towel.check_from;
    store.judge_seals(&[first], Some(LidVerdict::Holds), later).unwrap();
    store.judge_seals(&[second], Some(LidVerdict::Failed), later).unwrap();
    assert_eq!(store.shelf(&all).unwrap()[0].count, 1, "a failed lid does not reach the shelf");
    assert_eq!(store.towel().unwrap().len(), 1, "the load stays until every jar is settled");
    assert!(store.judge_seals(&[second, JarId(9999)], Some(LidVerdict::Holds), later).is_err());
    assert_eq!(store.towel().unwrap()[0].jars[1].verdict, Some(LidVerdict::Failed), "all of them or none");
    store.judge_seals(&[first, second], Some(LidVerdict::Holds), later).unwrap();
    assert_eq!(store.towel().unwrap().len(), 1, "until they are washed and dry");
    store.tidy(&[first, second], true, later).unwrap();
    assert!(store.towel().unwrap().is_empty());
    store.judge_seals(&[first, second], None, later).unwrap();
    assert_eq!(store.towel().unwrap()[0].jars.len(), 2, "judgements are taken back");
}

#[test]
fn a_lid_judged_too_early_is_not_on_the_shelf_before_its_second_look() {
    let store = Store::in_memory().unwrap();
    let (_, load, _) = with_batch(&store);
    make_ready(&store, load, NOW);
    for (event, minute) in [(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 50), (BoilEvent::Lifted, 56)] {
        store.add_event(load, event, NOW.plus_minutes(minute)).unwrap();
    }
    let towel = store.towel().unwrap().remove(0);
    let jars: Vec<JarId> = towel.jars.iter().map(|jar| jar.id).collect();
    let all = ShelfSearch::default();
    store.judge_seals(&jars, Some(LidVerdict::Holds), NOW.plus_minutes(120)).unwrap();
    assert!(store.shelf(&all).unwrap().is_empty());
    assert!(store.towel().unwrap()[0].jars.iter().all(|jar| jar.second_look == Some(towel.check_from)));
    let washed = store.tidy(&jars, true, NOW.plus_minutes(121));
    assert!(matches!(washed, Err(StoreError::SecondLook { .. })), "{washed:?}");
    store.judge_seals(&jars, Some(LidVerdict::Holds), towel.check_from).unwrap();
    assert!(store.towel().unwrap()[0].jars.iter().all(|jar| jar.second_look.is_none()));
    let shelved: u32 = store.shelf(&all).unwrap().iter().map(|group| group.count).sum();
    assert_eq!(shelved as usize, jars.len());
}

#[test]
fn jars_that_are_not_processed_go_back_together_hot_as_they_are_or_cooled_to_new_lids() {
    for (minutes, keep_their_lids) in [(20, true), (200, false)] {
        let store = Store::in_memory().unwrap();
        let (batch, load, _) = with_batch(&store);
        make_ready(&store, load, NOW);
        for (event, minute) in [(BoilEvent::Boils, 0), (BoilEvent::HeatOff, 30), (BoilEvent::Lifted, 36)] {
            store.add_event(load, event, NOW.plus_minutes(minute)).unwrap();
        }
        let jars: Vec<JarId> = store.towel().unwrap()[0].jars.iter().map(|jar| jar.id).collect();
        let judged = store.judge_seals(&jars, Some(LidVerdict::Holds), NOW.plus_minutes(40));
        assert!(matches!(judged, Err(StoreError::NotProcessed { .. })), "no lid makes up for the time");
        let at = NOW.plus_minutes(36 + minutes);
        if !keep_their_lids {
            // Two hours is as long as they stand; in the refrigerator before that, they have their day.
            let warm = store.rescue(&jars, Some(Rescue::Reprocess), None, at).unwrap_err();
            assert!(matches!(warm, StoreError::NoRescue { reason: NoRescue::WasItCold { hours: 2 }, .. }));
            store.rescue(&jars, Some(Rescue::Refrigerator), None, NOW.plus_minutes(36 + 120)).unwrap();
        }
        store.rescue(&jars, Some(Rescue::Reprocess), None, at).unwrap();
        let holds = |other: &CannerLoad| other.jars.iter().any(|jar| jar.id == jars[0]);
        let again = store.open_loads().unwrap().into_iter().find(holds).unwrap();
        assert_eq!(again.clock.required(), Minutes(50), "the full time");
        let gone_on: Vec<&Jar> = again.jars.iter().filter(|jar| jars.contains(&jar.id)).collect();
        assert_eq!(gone_on.len(), jars.len(), "all of them in one load");
        assert!(gone_on.iter().all(|jar| jar.acid && jar.filled && jar.lid == keep_their_lids));
        assert!(store.towel().unwrap().is_empty());
        assert!(store.batch_jars(batch).unwrap()[..2].iter().all(|jar| jar.earlier_loads == [load]));
        if keep_their_lids {
            store.add_event(again.id, BoilEvent::JarsIn, at).unwrap();
        } else {
            // Taken back, they lie on the towel as they did, and nobody has looked at a lid.
            store.rescue(&jars, None, None, at).unwrap();
            assert!(store.towel().unwrap()[0].jars.iter().all(|jar| jar.verdict.is_none()));
        }
    }
}

#[test]
fn what_else_goes_in_is_kept_with_the_batch() {
    let store = Store::in_memory().unwrap();
    let lot = lot(&store, 10_000, Condition::FirmRipe);
    let unsaid = NewBatch { additions: None, ..batch(vec![Draw { lot, weight_g: 1_000 }]) };
    let added = store.add_batch(&unsaid, NOW).unwrap();
    assert_eq!((added.additions, added.additions_asked), (None, true));
    let said = vec![Added::in_cups(Ingredient::Onion, 1.5), Added::in_leaves(7.0)];
    store.set_additions(added.id, &said, &ToldBy::here(NOW)).unwrap();
    assert_eq!(store.batch(added.id).unwrap().additions, Some(said.clone()));
    assert_eq!(store.facts(added.id).unwrap().batch.additions, Some(said));
    store.set_additions(added.id, &Vec::new(), &ToldBy::here(NOW)).unwrap();
    assert_eq!(store.batch(added.id).unwrap().additions, Some(Vec::new()));
    let nowhere = store.set_additions(BatchId(99), &Vec::new(), &ToldBy::here(NOW));
    assert!(matches!(nowhere, Err(StoreError::NotFound { .. })));
}

#[test]
fn a_file_from_a_newer_program_is_left_alone() {
    let directory = tempfile::tempdir().unwrap();
    drop(Store::open(directory.path()).unwrap());
    let raw = rusqlite::Connection::open(directory.path().join(bodega_store::FILE_NAME)).unwrap();
    raw.pragma_update(None, "user_version", 99).unwrap();
    drop(raw);
    assert!(matches!(Store::open(directory.path()), Err(StoreError::Newer)));
}
