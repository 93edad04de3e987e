//! Records go out and come back the same, and backups are checked before they are trusted.

use std::path::Path;

use bodega_model::canner::events::BoilEvent;
use bodega_model::crates::fruit::Condition;
use bodega_model::records::batch::Draw;
use bodega_model::records::jar::PhRecord;
use bodega_store::{Store, StoreError};
use serde_json::{Value, json};

use crate::common::{NOW, batch, exported, lot, make_ready};
use crate::taken_in::take;

/// A kitchen with a batch in the canner, a kettle and a pH reading.
fn busy(directory: &Path) -> Store {
    let store = Store::open(directory).unwrap();
    let lot = lot(&store, 4_100, Condition::FirmRipe);
    let batch = store.add_batch(&batch(vec![Draw { lot, weight_g: 4_000 }]), NOW).unwrap().id;
    let load = store.batch_loads(batch).unwrap()[0].id;
    make_ready(&store, load, NOW);
    store.add_event(load, BoilEvent::Boils, NOW).unwrap();
    let reading = PhRecord {
        at: NOW,
        ph: 4.21,
        sample: None,
        did: None,
        sample_c: Some(25.0),
        compensated: None,
        calibrated_today: Some(true),
    };
    store.add_ph_reading(batch, &reading).unwrap();
    store
}

#[test]
fn export_import_export_is_identical() {
    let directory = tempfile::tempdir().unwrap();
    let out = exported(&busy(directory.path())).unwrap();
    let other = Store::in_memory().unwrap();
    take(&other, &out).unwrap();
    assert_eq!(exported(&other).unwrap(), out);
    assert_eq!(other.open_loads().unwrap()[0].clock.happened().len(), 1, "and the clock runs on");
    assert!(matches!(take(&other, &out), Err(StoreError::NotEmpty)));
}

#[test]
fn a_bad_document_is_refused_whole_with_every_fault() {
    let directory = tempfile::tempdir().unwrap();
    let good = exported(&busy(directory.path())).unwrap();
    let faults_of = |document: &Value| {
        let store = Store::in_memory().unwrap();
        let before = exported(&store).unwrap();
        let Err(StoreError::BadDocument { faults }) = take(&store, document) else { panic!("it was taken") };
        assert_eq!(exported(&store).unwrap(), before, "nothing was changed");
        faults
    };
    let changed = |path: &str, value: Value| {
        let mut document = good.clone();
        *document.pointer_mut(path).unwrap() = value;
        document
    };
    assert_eq!(faults_of(&changed("/format", json!("other"))), ["format must be \"bodega-records\""]);
    assert!(faults_of(&changed("/version", json!(99)))[0].contains("a newer one needs a newer Bodega"));
    let word = faults_of(&changed("/records/lot/0/kind", json!("melon")));
    assert!(word[0].contains("unknown kind \"melon\""), "{word:?}");
    let lost = faults_of(&changed("/records/lot", json!([])));
    assert!(
        lost.iter().any(|fault| fault == "records.batch_lot: refers to a lot that is not there"),
        "{lost:?}"
    );
    let mut two = changed("/records/jar/0/size", json!(["quart"]));
    two["records"]["jar"][1]["batch_id"] = json!("one");
    assert_eq!(faults_of(&two).iter().filter(|fault| fault.starts_with("records.jar[")).count(), 2);
}

#[test]
fn a_document_of_the_first_version_is_brought_up_to_date() {
    let kitchen = json!({"id": 1, "name": "Old kitchen", "altitude_ft": 500.0, "units": "us", "turnaround_minutes": 20});
    let canner = json!({"id": 1, "name": "Canner", "method": "boiling_water"});
    let document = json!({"format": "bodega-records", "version": 1, "records": {"canner": [canner], "kitchen": [kitchen]}});
    let store = Store::in_memory().unwrap();
    take(&store, &document).unwrap();
    assert_eq!(store.kitchen().unwrap().name, "Old kitchen");
}

#[test]
fn a_backup_comes_back_and_what_was_there_is_kept() {
    let directory = tempfile::tempdir().unwrap();
    let store = busy(directory.path());
    let file = directory.path().join("carried-away.db");
    bodega_store::backup(directory.path(), &file, true).unwrap();
    let then = exported(&store).unwrap();
    lot(&store, 9_000, Condition::FirmRipe);
    drop(store);
    let kept = bodega_store::restore(&file, directory.path(), "now").unwrap().unwrap();
    assert!(kept.is_file());
    assert_eq!(exported(&Store::open(directory.path()).unwrap()).unwrap(), then);
}

#[test]
fn truncated_future_and_foreign_files_are_refused_and_touch_nothing() {
    let directory = tempfile::tempdir().unwrap();
    let store = busy(directory.path());
    let file = directory.path().join("backup.db");
    bodega_store::backup(directory.path(), &file, true).unwrap();
    let before = exported(&store).unwrap();
    drop(store);
    let whole = std::fs::read(&file).unwrap();
    let refused = |file: &Path| bodega_store::restore(file, directory.path(), "now").unwrap_err().to_string();

    std::fs::write(&file, &whole[..whole.len() / 2]).unwrap();
    assert!(refused(&file).contains("is no good backup"), "{}", refused(&file));
    std::fs::write(&file, "a shopping list").unwrap();
    assert!(refused(&file).contains("is no good backup"), "{}", refused(&file));
    std::fs::write(&file, &whole).unwrap();
    let raw = rusqlite::Connection::open(&file).unwrap();
    raw.pragma_update(None, "user_version", 99).unwrap();
    drop(raw);
    assert!(refused(&file).contains("written by a newer Bodega"), "{}", refused(&file));
    assert!(refused(&directory.path().join("nowhere.db")).contains("there is no such file"));
    assert_eq!(exported(&Store::open(directory.path()).unwrap()).unwrap(), before);
}

#[test]
fn seven_days_and_four_weeks_are_kept_and_a_damaged_file_is_noticed() {
    let directory = tempfile::tempdir().unwrap();
    let store = busy(directory.path());
    for day in 10..20 {
        let week = format!("2026-W{:02}", 30 + day / 2);
        store.keep_backups(&format!("2026-09-{day}"), &week).unwrap();
    }
    let names: Vec<String> = store.backups().unwrap().into_iter().map(|file| file.name).collect();
    assert_eq!(names.iter().filter(|name| name.starts_with("daily-")).count(), 7, "{names:?}");
    assert_eq!(names.iter().filter(|name| name.starts_with("weekly-")).count(), 4, "{names:?}");
    assert!(
        names.contains(&"daily-2026-09-19.db".to_owned())
            && !names.contains(&"daily-2026-09-12.db".to_owned())
    );
    drop(store);
    let file = directory.path().join(bodega_store::FILE_NAME);
    let mut bytes = std::fs::read(&file).unwrap();
    for byte in bytes.iter_mut().skip(4096).take(8192) {
        *byte = 0xA5;
    }
    std::fs::write(&file, bytes).unwrap();
    let error = Store::open(directory.path()).err().expect("it is damaged").to_string();
    assert!(error.contains("daily-2026-09-19.db") && error.contains("bodega restore"), "{error}");
    assert!(file.is_file(), "the damaged file is kept");
}
