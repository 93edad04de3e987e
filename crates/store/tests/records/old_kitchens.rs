//! Kitchens and exports that an earlier build wrote open unchanged. The files were written once and stay as they are.

use std::path::{Path, PathBuf};

use bodega_model::canner::events::Phase;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::{BatchId, LoadId};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::plan::making::Thickness;
use bodega_model::records::shelf::ShelfSearch;
use bodega_model::tables::process::Product;
use bodega_model::towel::seal::LidVerdict;
use bodega_store::{FILE_NAME, Store, check_file};

use crate::taken_in::take;
use serde_json::Value;

use crate::common::{exported, told};

const EXPORT: &str = include_str!("../data/export-v9.json");

fn old_file() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/data/kitchen-v9.db")
}

/// A copy of the old kitchen in a directory of its own.
fn opened() -> (tempfile::TempDir, Store) {
    let directory = tempfile::tempdir().unwrap();
    std::fs::copy(old_file(), directory.path().join(FILE_NAME)).unwrap();
    let store = Store::open(directory.path()).unwrap();
    (directory, store)
}

#[test]
fn an_old_kitchen_opens_with_every_record_it_had() {
    check_file(&old_file()).unwrap();
    let (_directory, store) = opened();
    let kitchen = store.kitchen().unwrap();
    assert_eq!((kitchen.name.as_str(), kitchen.altitude_ft), ("Saltbrook Terrace", Some(2640.0)));
    assert_eq!((kitchen.turnaround_minutes, kitchen.people, kitchen.burners), (25, 2, 4));
    assert_eq!((kitchen.day_ends, kitchen.break_at, kitchen.break_minutes), (1260, Some(780), 30));
    assert_eq!(kitchen.canners.len(), 1);
    let canner = &kitchen.canner;
    assert_eq!((canner.capacity[&JarSize::Quart], canner.capacity[&JarSize::HalfPint]), (7, 12));
    assert_eq!(canner.pot.map(|pot| pot.inner_diameter_mm), Some(305.0));

    let batches: Vec<(String, Product, u32, u32)> = told(|tell| store.all_batches(tell))
        .unwrap()
        .into_iter()
        .map(|batch| (batch.code, batch.product, batch.jars, batch.jars_lifted))
        .collect();
    let batch = |code: &str, product, jars, lifted| (code.to_owned(), product, jars, lifted);
    assert_eq!(
        batches,
        [
            batch("260912-4", Product::Juice, 6, 0),
            batch("260912-3", Product::Sauce, 16, 0),
            batch("260912-2", Product::Whole, 18, 7),
            batch("260912-1", Product::Sauce, 14, 13),
            batch("260903-1", Product::Crushed, 18, 18),
            batch("260827-1", Product::Whole, 21, 21),
            batch("260822-1", Product::Juice, 14, 14),
            batch("251002-1", Product::Sauce, 9, 9),
        ]
    );
    assert_eq!(store.batch(BatchId(5)).unwrap().thickness, Some(Thickness::Thick));
    let lots: Vec<(i64, i64)> =
        store.lots().unwrap().into_iter().map(|lot| (lot.weight_g, lot.left_g)).collect();
    assert_eq!(lots, [(13_608, 13_608), (8_200, 8_200), (4_100, 4_100)]);
    assert_eq!(told(|tell| store.all_jars(tell)).unwrap().len(), 116);
    assert_eq!(store.goals().unwrap().len(), 3);
    assert_eq!(store.containers().unwrap().len(), 2);
    assert_eq!(store.kettles().unwrap().len(), 3);
    assert_eq!(store.cooks().unwrap()[0].log.len(), 4);
    assert!(store.broken().unwrap().is_empty());
}

#[test]
fn an_old_load_stands_where_it_stood() {
    let (_directory, store) = opened();
    let loads: Vec<(i64, String, usize, u32)> = store
        .open_loads()
        .unwrap()
        .into_iter()
        .map(|load| (load.id.0, load.batch.code.clone(), load.jars.len(), load.clock.required().0))
        .collect();
    let load = |id, code: &str, jars, minutes| (id, code.to_owned(), jars, minutes);
    assert_eq!(
        loads,
        [
            load(17, "260912-1", 1, 40),
            load(12, "260912-2", 7, 50),
            load(13, "260912-2", 4, 50),
            load(14, "260912-3", 9, 40),
            load(15, "260912-3", 7, 40),
            load(16, "260912-4", 6, 45),
        ]
    );
    let boiling = store.load(LoadId(12)).unwrap();
    let boiled_from = boiling.clock.happened().last().unwrap().at;
    let minute = |minutes| boiling.clock.phase(boiled_from.plus_minutes(minutes));
    assert!(matches!(minute(1), Phase::Counting { .. }), "{:?}", minute(1));
    assert!(matches!(minute(50), Phase::TimeUp { .. }));
    let lifted = store.last_lifted(3).unwrap();
    assert!(lifted.iter().all(|load| matches!(load.clock.phase(Moment(i64::MAX)), Phase::Lifted { .. })));
    assert!(lifted.iter().all(|load| load.clock.required() >= Minutes(40)));
}

#[test]
fn old_jars_keep_their_verdicts_and_their_place() {
    let (_directory, store) = opened();
    let towel: Vec<Vec<Option<LidVerdict>>> = store
        .towel()
        .unwrap()
        .into_iter()
        .map(|load| load.jars.into_iter().map(|jar| jar.verdict).collect())
        .collect();
    assert_eq!(towel.iter().map(Vec::len).collect::<Vec<_>>(), [9, 4, 7]);
    assert_eq!(towel[1][0], Some(LidVerdict::Doubtful));
    assert_eq!(towel[2].iter().filter(|verdict| **verdict == Some(LidVerdict::Holds)).count(), 3);
    let shelf: Vec<(String, u32)> = store
        .shelf(&ShelfSearch::default())
        .unwrap()
        .into_iter()
        .map(|group| (group.code, group.count))
        .collect();
    let group = |code: &str, count| (code.to_owned(), count);
    assert_eq!(
        shelf,
        [
            group("251002-1", 3),
            group("260822-1", 14),
            group("260827-1", 21),
            group("260903-1", 18),
            group("260912-2", 3)
        ]
    );
    assert_eq!(store.rescued().unwrap().len(), 1);
    let again = store.batch_jars(BatchId(5)).unwrap();
    assert_eq!(again.iter().filter(|jar| !jar.earlier_loads.is_empty()).count(), 1);
}

#[test]
fn an_old_export_comes_in_and_goes_out_the_same() {
    let document: Value = serde_json::from_str(EXPORT).unwrap();
    let store = Store::in_memory().unwrap();
    take(&store, &document).unwrap();
    let out = exported(&store).unwrap();
    // What it had is there unchanged; what has been asked since is beside it.
    for (table, rows) in document["records"].as_object().unwrap() {
        for (row, now) in rows.as_array().unwrap().iter().zip(out["records"][table].as_array().unwrap()) {
            for (column, value) in row.as_object().unwrap() {
                assert_eq!(now[column], *value, "{table}.{column}");
            }
        }
        assert_eq!(out["records"][table].as_array().map(Vec::len), rows.as_array().map(Vec::len), "{table}");
    }
    assert!(told(|tell| store.all_batches(tell)).unwrap().iter().all(|batch| !batch.additions_asked));
    // The file and its export are the same kitchen.
    let (_directory, opened) = opened();
    assert_eq!(exported(&opened).unwrap()["records"], out["records"]);
}

#[test]
fn work_goes_on_in_an_old_kitchen() {
    let (directory, store) = opened();
    let load = store.load(LoadId(12)).unwrap();
    let up = load.clock.happened().last().unwrap().at.plus(load.clock.required());
    store.add_event(load.id, bodega_model::canner::events::BoilEvent::HeatOff, up).unwrap();
    drop(store);
    let again = Store::open(directory.path()).unwrap().load(LoadId(12)).unwrap();
    assert!(again.clock.is_processed(up));
}

/// A kitchen of the build before jars had a standing: eight batches of two jars that all stand on its shelf, though half of them
/// went past a stop. Since then it has moved from 2,640 ft to 6,200.
fn past_its_stops() -> (tempfile::TempDir, Store) {
    let directory = tempfile::tempdir().unwrap();
    let old = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/data/kitchen-v22.db");
    std::fs::copy(old, directory.path().join(FILE_NAME)).unwrap();
    let store = Store::open(directory.path()).unwrap();
    (directory, store)
}

/// What is said of the first jar of each batch.
fn said(store: &Store) -> Vec<String> {
    let at_home = store.standings().unwrap();
    let first = |batch: i64| store.batch_jars(BatchId(batch)).unwrap()[0].id;
    (1..=8).map(|batch| at_home.of(first(batch)).in_a_line()).collect()
}

const SAID: [&str; 8] = [
    "fine",
    "not fine: garlic in it",
    "not fine: time too short",
    "not fine: no tested process",
    "not fine: wrong jar",
    "not fine: water too low",
    // Recorded before anybody asked: no alarm and no claim.
    "fine",
    "cannot tell: what else went in",
];

#[test]
fn jars_that_went_past_a_stop_are_found_on_an_old_shelf_and_called_for() {
    let (_directory, store) = past_its_stops();
    assert_eq!(said(&store), SAID);
    assert_eq!(store.on_shelf().unwrap(), 6, "moving condemns nothing");
    let shelf = store.shelf(&ShelfSearch::default()).unwrap();
    let open: Vec<(i64, Option<&str>)> =
        shelf.iter().map(|group| (group.batch.0, group.open.as_deref())).collect();
    assert_eq!(open, [(1, None), (7, None), (8, Some("what else went in"))]);
    let towel = store.towel().unwrap();
    let called: Vec<&str> = towel.iter().map(|load| load.code.as_str()).collect();
    assert_eq!(called, ["260912-2", "260912-3", "260912-4", "260912-5", "260912-6"]);
    assert!(towel.iter().flat_map(|load| &load.jars).all(|jar| jar.is_open() && jar.tidy));
}

#[test]
fn a_document_of_that_build_says_the_same() {
    let store = Store::in_memory().unwrap();
    let document = include_str!("../data/export-v22.json");
    take(&store, &serde_json::from_str::<Value>(document).unwrap()).unwrap();
    assert_eq!(said(&store), SAID);
    assert_eq!(store.on_shelf().unwrap(), 6);
}
