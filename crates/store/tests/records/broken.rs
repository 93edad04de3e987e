//! A record that cannot be read stands on a card of its own and takes no other with it; a person puts it right.

use std::path::Path;

use bodega_model::canner::events::BoilEvent;
use bodega_model::measures::moment::Moment;
use bodega_model::records::shelf::ShelfSearch;
use bodega_store::{FILE_NAME, Store, StoreError};

use crate::common::told;

/// The demo-like kitchen of an earlier build, with one field overwritten.
fn with(sql: &str) -> (tempfile::TempDir, Store) {
    let directory = tempfile::tempdir().unwrap();
    let old = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/data/kitchen-v9.db");
    std::fs::copy(old, directory.path().join(FILE_NAME)).unwrap();
    let raw = rusqlite::Connection::open(directory.path().join(FILE_NAME)).unwrap();
    // A flipped byte asks for no constraint.
    raw.pragma_update(None, "ignore_check_constraints", true).unwrap();
    raw.execute_batch(sql).unwrap();
    drop(raw);
    let store = Store::open(directory.path()).unwrap();
    (directory, store)
}

/// Every list that a screen reads.
fn every_list(store: &Store) -> Result<[usize; 12], StoreError> {
    Ok([
        store.lots()?.len(),
        told(|tell| store.all_batches(tell))?.len(),
        store.open_batches()?.len(),
        store.open_loads()?.len(),
        store.last_lifted(10)?.len(),
        store.towel()?.len(),
        store.rescued()?.len(),
        store.shelf(&ShelfSearch::default())?.len(),
        store.stocked(Moment(0))?.len(),
        store.kettles()?.len(),
        store.cooks()?.len(),
        store.goals()?.len(),
    ])
}

/// What is overwritten, in which table and field, and a word that puts it right.
const BROKEN: &[(&str, &str, &str, &str)] = &[
    ("UPDATE lot SET kind = 'plum' WHERE id = 1", "lot", "kind", "paste"),
    ("UPDATE lot SET condition = 'fine' WHERE id = 2", "lot", "condition", "firm_ripe"),
    ("UPDATE lot SET fault = 'sad' WHERE id = 2", "lot", "fault", "bruised"),
    ("UPDATE lot SET picked_on = '2026-02-31' WHERE id = 1", "lot", "picked_on", "2026-02-28"),
    ("UPDATE batch SET product = 'jam' WHERE id = 6", "batch", "product", "whole"),
    ("UPDATE batch SET agent = 'soda' WHERE id = 6", "batch", "agent", "citric_acid"),
    ("UPDATE batch SET method = 'oven' WHERE id = 6", "batch", "method", "boiling_water"),
    ("UPDATE canner SET method = 'oven' WHERE id = 1", "canner", "method", "boiling_water"),
    ("UPDATE jar SET size = 'bucket' WHERE id = 1", "jar", "size", "pint"),
    ("UPDATE jar SET gone_how = 'lost' WHERE id = 1", "jar", "gone_how", "eaten"),
    ("UPDATE load_event SET event = 'sang' WHERE id = 1", "load_event", "event", "jars_in"),
    ("UPDATE kettle SET heat = 'sun' WHERE id = 1", "kettle", "heat", "burner"),
    ("UPDATE cook SET setting = 'mad' WHERE id = 1", "cook", "setting", "high"),
    ("UPDATE cook_event SET what = 'sang' WHERE id = 1", "cook_event", "what", "depth_mm"),
    (
        "UPDATE goal SET product = 'jam' WHERE position = (SELECT min(position) FROM goal)",
        "goal",
        "product",
        "sauce",
    ),
];

#[test]
fn one_broken_field_leaves_every_list_readable_and_is_put_right() {
    let whole = every_list(&with("").1).unwrap();
    for (sql, table, field, word) in BROKEN {
        let (directory, store) = with(sql);
        let lists = every_list(&store).unwrap_or_else(|error| panic!("{sql}: {error}"));
        let missing: usize = whole.iter().zip(lists).map(|(before, now)| before.saturating_sub(now)).sum();
        assert!(missing <= 20, "{sql} takes {missing} others with it");
        // A kitchen whose only canner cannot be read has nothing to plan for until it is put right.
        assert_eq!(store.kitchen().is_err(), *table == "canner", "{sql}");

        let broken = store.broken().unwrap();
        assert_eq!(broken.len(), 1, "{sql}: {broken:?}");
        let found = &broken[0];
        assert_eq!((found.table, found.field), (*table, *field));
        assert!(sql.contains(&found.stored), "{}", found.stored);
        let offered = found.choices.iter().any(|choice| choice.word == *word);
        assert!(offered || found.choices.is_empty(), "{word} is offered for {field}");
        assert_eq!(store.broken().unwrap().len(), 1, "it stays until it is put right");

        let refused = store.mend(table, found.id, field, "nonsense").unwrap_err();
        assert!(matches!(refused, StoreError::NoSuchWord { .. }), "{refused}");
        store.mend(table, found.id, field, word).unwrap();
        assert!(store.broken().unwrap().is_empty(), "{sql}");
        assert_eq!(every_list(&store).unwrap(), whole, "{sql}");
        let again = store.mend(table, found.id, field, word).unwrap_err();
        assert!(matches!(again, StoreError::NotBroken), "what can be read is left alone: {again}");
        drop(store);
        assert_eq!(every_list(&Store::open(directory.path()).unwrap()).unwrap(), whole);
    }
}

#[test]
fn a_canner_that_cannot_be_read_leaves_the_others() {
    let (_directory, store) = with(
        "INSERT INTO canner (name, method) VALUES ('tall pot', 'boiling_water');
         UPDATE canner SET method = 'oven' WHERE id = 1;",
    );
    let kitchen = store.kitchen().unwrap();
    assert_eq!(kitchen.canner.name, "tall pot");
    assert_eq!(kitchen.canners.len(), 1);
    assert_eq!(store.broken().unwrap()[0].id, 1);
}

#[test]
fn only_fields_that_hold_words_or_days_are_mended() {
    let (_directory, store) = with("");
    for (table, field) in
        [("lot", "weight_g"), ("sqlite_master", "sql"), ("kitchen", "name"), ("lot; DROP", "kind")]
    {
        let refused = store.mend(table, 1, field, "paste").unwrap_err();
        assert!(matches!(refused, StoreError::NotBroken), "{table}.{field}: {refused}");
    }
    for day in ["2026-02-30", "yesterday", "2026-2-3", ""] {
        let refused = store.mend("lot", 1, "picked_on", day).unwrap_err();
        assert!(matches!(refused, StoreError::NoSuchWord { .. }), "{day}: {refused}");
    }
}

#[test]
fn a_history_that_makes_no_sense_is_read_all_the_same() {
    // Lifted before anything else, boils twice, a jar that was never there: written by who knows whom.
    let (_directory, store) = with(
        "UPDATE load_event SET event = 'lifted' WHERE load_id = 12;
         UPDATE load_event SET event = 'pressure_down', at = -5 WHERE load_id = 9;
         UPDATE canner_load SET minutes = 999 WHERE id = 10;",
    );
    assert!(store.broken().unwrap().is_empty());
    assert_eq!(told(|tell| store.all_jars(tell)).unwrap().len(), 116);
    let lists = every_list(&store).unwrap();
    assert!(lists[3] + lists[4] >= 6, "{lists:?}");
    let odd = store.load(bodega_model::measures::ids::LoadId(12)).unwrap();
    assert!(!odd.clock.is_processed(Moment(i64::MAX / 2)));
    // A new event is still held against where the load stands.
    let refused = store.add_event(odd.id, BoilEvent::Boils, Moment(1_800_000_000_000)).unwrap_err();
    assert!(matches!(refused, StoreError::OutOfOrder(_)), "{refused}");
}
