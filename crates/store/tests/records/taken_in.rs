//! A document that is taken in: as a stream, checked as the API checks, and never over something written down meanwhile.

use std::cell::Cell;
use std::io::{Cursor, Read, Seek, SeekFrom};

use bodega_model::crates::fruit::Condition;
use bodega_model::records::batch::Draw;
use bodega_store::{Store, StoreError};
use serde_json::{Value, json};

use crate::common::{NOW, batch, exported, lot, told};

/// Takes a document into a kitchen.
pub fn take(store: &Store, document: &Value) -> Result<(), StoreError> {
    store.import(&mut Cursor::new(document.to_string()))
}

fn document() -> Value {
    let store = Store::in_memory().unwrap();
    let lot = lot(&store, 4_100, Condition::FirmRipe);
    store.add_batch(&batch(vec![Draw { lot, weight_g: 4_000 }]), NOW).unwrap();
    exported(&store).unwrap()
}

fn faults(document: &Value) -> Vec<String> {
    match take(&Store::in_memory().unwrap(), document) {
        Err(StoreError::BadDocument { faults }) => faults,
        other => panic!("{other:?}"),
    }
}

/// A document during whose reading somebody weighs in.
struct Meanwhile<'a> {
    document: Cursor<String>,
    store: &'a Store,
    weighed: &'a Cell<bool>,
}

impl Read for Meanwhile<'_> {
    fn read(&mut self, into: &mut [u8]) -> std::io::Result<usize> {
        if !self.weighed.replace(true) {
            lot(self.store, 7_000, Condition::FirmRipe);
        }
        self.document.read(into)
    }
}

impl Seek for Meanwhile<'_> {
    fn seek(&mut self, to: SeekFrom) -> std::io::Result<u64> {
        self.document.seek(to)
    }
}

#[test]
fn what_was_weighed_in_meanwhile_is_not_lost() {
    let store = Store::in_memory().unwrap();
    let weighed = Cell::new(false);
    let document = Cursor::new(document().to_string());
    let refused = store.import(&mut Meanwhile { document, store: &store, weighed: &weighed });
    assert!(matches!(refused, Err(StoreError::NotEmpty)), "{refused:?}");
    let left: Vec<i64> = told(|tell| store.harvest(tell)).unwrap().iter().map(|lot| lot.weight_g).collect();
    assert_eq!(left, [7_000]);
}

#[test]
fn the_parts_of_a_document_stand_in_any_order() {
    let whole = document();
    // Children before their parents, the records before what says which form they are in.
    let tables: Vec<String> = whole["records"]
        .as_object()
        .unwrap()
        .iter()
        .collect::<Vec<_>>()
        .into_iter()
        .rev()
        .map(|(name, rows)| format!("\"{name}\": {rows}"))
        .collect();
    let text = format!(
        "{{\"records\": {{{}}}, \"version\": {}, \"more\": [1, {{}}], \"format\": \"bodega-records\"}}",
        tables.join(", "),
        whole["version"]
    );
    let store = Store::in_memory().unwrap();
    store.import(&mut Cursor::new(text)).unwrap();
    assert_eq!(exported(&store).unwrap(), whole);
}

#[test]
fn numbers_names_and_years_are_asked_for_as_the_api_asks() {
    for (path, value, said) in [
        ("/records/lot/0/weight_g", json!(9_000_000_000_i64), "records.lot: weight_g: weight is 9000000 kg"),
        (
            "/records/kitchen/0/altitude_ft",
            json!(90_000.0),
            "records.kitchen: altitude_ft: altitude is 90000 ft",
        ),
        (
            "/records/kitchen/0/name",
            json!("North\u{202E}kitchen"),
            "records.kitchen, id 1: name: a name stands on one line",
        ),
        (
            "/records/canner/0/name",
            json!("Big\nblue"),
            "records.canner, id 1: name: a name stands on one line",
        ),
        (
            "/records/lot/0/picked_on",
            json!("1026-09-11"),
            "records.lot: picked_on \"1026-09-11\" is not between",
        ),
        (
            "/records/lot/0/added_at",
            json!(i64::MAX),
            "records.lot: added_at 9223372036854775807 is not between",
        ),
        ("/records/batch/0/additions", json!("[{\"what\": 1}]"), "records.batch, id 1"),
        (
            "/records/canner_load/0/also",
            json!("[{\"size\":\"quart\",\"count\":900,\"minutes\":10}]"),
            "also: count is 900",
        ),
    ] {
        let mut changed = document();
        *changed.pointer_mut(path).unwrap_or_else(|| panic!("{path}")) = value;
        let faults = faults(&changed);
        assert!(faults.iter().any(|fault| fault.contains(said)), "{path}: {faults:?}");
    }
}

#[test]
fn text_that_is_no_document_is_refused_in_words() {
    let store = Store::in_memory().unwrap();
    for text in [
        "",
        "a shopping list",
        "[]",
        "{\"format\": \"bodega-records\"}",
        "{\"format\": \"bodega-records\", \"version\": 1, \"records\": []}",
        "{\"format\": \"bodega-records\", \"version\": 1, \"records\": {\"lot\": 3}}",
    ] {
        let refused = store.import(&mut Cursor::new(text));
        assert!(matches!(refused, Err(StoreError::BadDocument { .. })), "{text}: {refused:?}");
    }
    let cut = document().to_string();
    let refused = store.import(&mut Cursor::new(&cut[..cut.len() / 2]));
    assert!(matches!(refused, Err(StoreError::BadDocument { .. })), "{refused:?}");
    assert!(store.is_empty().unwrap());
}
