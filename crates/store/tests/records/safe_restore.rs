//! Records that are lost, locked, cut or flipped: what is there is never written over, and the newest good backup is found.

use std::path::{Path, PathBuf};

use bodega_model::crates::fruit::Condition;
use bodega_store::{FILE_NAME, Store, StoreError, backup, begin_anew, check_file, restore};

use crate::common::{lot, told};

fn kitchen(directory: &Path, lots: i64) -> Store {
    let store = Store::open(directory).unwrap();
    for grams in 1..=lots {
        lot(&store, 1_000 * grams, Condition::FirmRipe);
    }
    store
}

fn lots_in(directory: &Path) -> usize {
    told(|tell| Store::open(directory).unwrap().harvest(tell)).unwrap().len()
}

fn not_whole(directory: &Path) -> (String, Option<String>) {
    match Store::open(directory) {
        Err(StoreError::NotWhole { what, backup, .. }) => (what, backup),
        Err(other) => panic!("{other}"),
        Ok(_) => panic!("it opened"),
    }
}

fn files(directory: &Path) -> Vec<PathBuf> {
    let mut all: Vec<PathBuf> =
        std::fs::read_dir(directory).unwrap().map(|entry| entry.unwrap().path()).collect();
    all.sort();
    all
}

#[test]
fn one_program_at_a_time_has_the_records_and_a_backup_is_made_beside_it() {
    let directory = tempfile::tempdir().unwrap();
    let aside = tempfile::tempdir().unwrap();
    let file = aside.path().join("carried.db");
    let store = kitchen(directory.path(), 2);
    assert!(matches!(Store::open(directory.path()), Err(StoreError::InUse { .. })));
    backup(directory.path(), &file, false).unwrap();
    let refused = restore(&file, directory.path(), "now").unwrap_err();
    assert!(matches!(refused, StoreError::InUse { .. }), "{refused}");
    assert!(refused.to_string().contains("stop that one first"), "{refused}");
    lot(&store, 500, Condition::FirmRipe);
    drop(store);
    restore(&file, directory.path(), "now").unwrap();
    assert_eq!(lots_in(directory.path()), 2);
}

#[test]
fn what_was_there_is_kept_whole_with_its_log_folded_in() {
    let directory = tempfile::tempdir().unwrap();
    let store = kitchen(directory.path(), 3);
    let file = directory.path().join("carried.db");
    backup(directory.path(), &file, false).unwrap();
    lot(&store, 9_000, Condition::FirmRipe);
    // What a program leaves behind that was ended at once: the last weigh-in stands in the log alone.
    let cut = tempfile::tempdir().unwrap();
    for tail in ["", "-wal"] {
        let name = format!("{FILE_NAME}{tail}");
        std::fs::copy(directory.path().join(&name), cut.path().join(&name)).unwrap();
    }
    drop(store);
    let kept = restore(&file, cut.path(), "now").unwrap().unwrap();
    let again = restore(&file, cut.path(), "now").unwrap().unwrap();
    assert_ne!(kept, again, "what was kept first is not written over");
    assert_eq!(lots_in(cut.path()), 3);
    let alone = tempfile::tempdir().unwrap();
    std::fs::copy(&kept, alone.path().join(FILE_NAME)).unwrap();
    assert_eq!(lots_in(alone.path()), 4, "the weigh-in of the log is in the file that was kept");
}

#[test]
fn records_that_are_lost_beside_backups_are_never_begun_anew_by_themselves() {
    for (how, said) in [
        ("gone", "are missing"),
        ("empty", "are an empty file"),
        ("cut", "are damaged"),
        ("other", "hold no kitchen"),
    ] {
        let directory = tempfile::tempdir().unwrap();
        let store = kitchen(directory.path(), 40);
        store.keep_backups("2026-09-14", "2026-W38").unwrap();
        drop(store);
        let file = directory.path().join(FILE_NAME);
        let whole = std::fs::read(&file).unwrap();
        match how {
            "gone" => std::fs::remove_file(&file).unwrap(),
            "empty" => std::fs::write(&file, "").unwrap(),
            "cut" => std::fs::write(&file, &whole[..whole.len() / 3]).unwrap(),
            _ => {
                std::fs::remove_file(&file).unwrap();
                rusqlite::Connection::open(&file)
                    .unwrap()
                    .execute_batch("CREATE TABLE list (item TEXT)")
                    .unwrap();
            }
        }
        let before = std::fs::read(&file).ok();
        let (what, newest) = not_whole(directory.path());
        assert!(what.contains(said), "{how}: {what}");
        let newest = newest.unwrap();
        assert!(newest.ends_with("daily-2026-09-14.db"), "{how}: {newest}");
        assert_eq!(std::fs::read(&file).ok(), before, "{how}: nothing was touched");

        let words = Store::open(directory.path()).err().unwrap().to_string();
        assert!(words.contains("bodega restore") && words.contains("--new"), "{words}");
        let kept = begin_anew(directory.path(), "now").unwrap();
        assert_eq!(kept.as_ref().and_then(|kept| std::fs::read(kept).ok()), before, "{how}: it is kept");
        assert_eq!(lots_in(directory.path()), 0, "{how}");
        restore(Path::new(&newest), directory.path(), "later").unwrap();
        assert_eq!(lots_in(directory.path()), 40, "{how}");
    }
}

#[test]
fn a_kitchen_that_is_whole_is_not_begun_anew_and_an_empty_folder_is() {
    let directory = tempfile::tempdir().unwrap();
    assert_eq!(begin_anew(directory.path(), "now").unwrap(), None);
    drop(kitchen(directory.path(), 1));
    let refused = begin_anew(directory.path(), "now").unwrap_err().to_string();
    assert!(refused.contains("leave --new out"), "{refused}");
    assert_eq!(lots_in(directory.path()), 1);
}

#[test]
fn a_log_without_its_file_is_kept_and_not_taken_for_another_files() {
    let directory = tempfile::tempdir().unwrap();
    let aside = tempfile::tempdir().unwrap();
    let store = kitchen(directory.path(), 5);
    backup(directory.path(), &aside.path().join("five.db"), false).unwrap();
    let cut = tempfile::tempdir().unwrap();
    let log = cut.path().join(format!("{FILE_NAME}-wal"));
    std::fs::copy(directory.path().join(format!("{FILE_NAME}-wal")), &log).unwrap();
    drop(store);
    assert_eq!(not_whole(cut.path()).0, "are missing");
    restore(&aside.path().join("five.db"), cut.path(), "now").unwrap();
    assert!(cut.path().join(format!("{FILE_NAME}.before-now-wal")).exists(), "{:?}", files(cut.path()));
    assert_eq!(lots_in(cut.path()), 5);
}

#[test]
fn a_backup_is_written_over_nothing_that_is_there() {
    let directory = tempfile::tempdir().unwrap();
    let store = kitchen(directory.path(), 1);
    let file = directory.path().join("mine.db");
    std::fs::write(&file, "a letter").unwrap();
    let refused = backup(directory.path(), &file, false).unwrap_err().to_string();
    assert!(refused.contains("--force"), "{refused}");
    assert_eq!(std::fs::read_to_string(&file).unwrap(), "a letter");
    backup(directory.path(), &file, true).unwrap();
    check_file(&file).unwrap();
    for tail in ["", "-wal", "-shm"] {
        let own = directory.path().join(format!("{FILE_NAME}{tail}"));
        let refused = backup(directory.path(), &own, true).unwrap_err().to_string();
        assert!(refused.contains("the records' own"), "{refused}");
    }
    assert_eq!(told(|tell| store.harvest(tell)).unwrap().len(), 1);
}

#[cfg(unix)]
#[test]
fn nobody_else_reads_the_folder_or_the_files() {
    use std::os::unix::fs::PermissionsExt;
    let above = tempfile::tempdir().unwrap();
    let directory = above.path().join("kitchen");
    std::fs::create_dir(&directory).unwrap();
    std::fs::set_permissions(&directory, PermissionsExt::from_mode(0o755)).unwrap();
    let store = kitchen(&directory, 1);
    store.keep_backups("2026-09-14", "2026-W38").unwrap();
    let mode = |path: &Path| std::fs::metadata(path).unwrap().permissions().mode() & 0o777;
    assert_eq!((mode(&directory), mode(&directory.join("backups"))), (0o700, 0o700));
    for file in files(&directory).iter().chain(&files(&directory.join("backups"))) {
        let expected = if file.is_dir() { 0o700 } else { 0o600 };
        assert_eq!(mode(file), expected, "{}", file.display());
    }
}

/// Changes one letter of a word inside a file, which no check of its structure sees.
fn flip(file: &Path) {
    let mut bytes = std::fs::read(file).unwrap();
    let word = b"firm_ripe";
    let place = bytes.windows(word.len()).position(|at| at == word).expect("a weigh-in is in it");
    bytes[place] ^= 1;
    std::fs::write(file, bytes).unwrap();
}

#[test]
fn a_flipped_bit_in_a_backup_is_found_and_another_is_made() {
    let directory = tempfile::tempdir().unwrap();
    let store = kitchen(directory.path(), 2);
    store.keep_backups("2026-09-13", "2026-W37").unwrap();
    store.keep_backups("2026-09-14", "2026-W38").unwrap();
    let folder = directory.path().join("backups");
    let today = folder.join("daily-2026-09-14.db");
    flip(&today);
    let found = check_file(&today).unwrap_err().to_string();
    assert!(found.contains("its bytes are not those that were written"), "{found}");
    let newest = bodega_store::newest_good(directory.path()).unwrap().unwrap();
    assert!(newest.ends_with("daily-2026-09-13.db"), "{}", newest.display());
    store.keep_backups("2026-09-14", "2026-W38").unwrap();
    check_file(&today).unwrap();
    let aside: Vec<_> = store.backups().unwrap().into_iter().filter(|file| file.set_aside).collect();
    assert_eq!(aside.len(), 1);
    assert_eq!(aside[0].name, "daily-2026-09-14.db.not-whole");
}

#[test]
fn the_last_backup_of_a_kitchen_that_shrank_outlives_the_week() {
    let directory = tempfile::tempdir().unwrap();
    let store = kitchen(directory.path(), 30);
    store.keep_backups("2026-09-01", "2026-W36").unwrap();
    drop(store);
    std::fs::remove_file(directory.path().join(FILE_NAME)).unwrap();
    begin_anew(directory.path(), "now").unwrap();
    let store = kitchen(directory.path(), 2);
    for day in 2..=28 {
        store.keep_backups(&format!("2026-09-{day:02}"), &format!("2026-W{}", 36 + day / 7)).unwrap();
    }
    let names: Vec<String> = store.backups().unwrap().into_iter().map(|file| file.name).collect();
    assert!(names.contains(&"daily-2026-09-01.db".to_owned()), "{names:?}");
    assert_eq!(names.iter().filter(|name| name.starts_with("daily-")).count(), 8, "{names:?}");
    // As soon as the kitchen is as full again, the old one may go.
    for grams in 1..=40 {
        lot(&store, grams * 100, Condition::FirmRipe);
    }
    for day in 1..=9 {
        store.keep_backups(&format!("2026-10-{day:02}"), "2026-W41").unwrap();
    }
    let names: Vec<String> = store.backups().unwrap().into_iter().map(|file| file.name).collect();
    assert!(!names.contains(&"daily-2026-09-01.db".to_owned()), "{names:?}");
}

#[test]
fn records_of_an_older_form_are_backed_up_before_they_are_brought_up() {
    let directory = tempfile::tempdir().unwrap();
    let old = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/data/kitchen-v9.db");
    std::fs::copy(&old, directory.path().join(FILE_NAME)).unwrap();
    drop(Store::open(directory.path()).unwrap());
    let kept = directory.path().join("backups/version-09.db");
    check_file(&kept).unwrap();
    let version: u32 = rusqlite::Connection::open(&kept)
        .unwrap()
        .query_row("PRAGMA user_version", [], |row| row.get(0))
        .unwrap();
    assert_eq!(version, 9);
    drop(Store::open(directory.path()).unwrap());
    assert_eq!(files(&directory.path().join("backups")).len(), 2, "one copy with its digest, once");
}

#[test]
fn what_the_disk_refuses_has_words_of_its_own() {
    use bodega_store::Trouble;
    let of =
        |code: i32| StoreError::Sqlite(rusqlite::Error::SqliteFailure(rusqlite::ffi::Error::new(code), None));
    // Result codes of SQLite, https://www.sqlite.org/rescode.html, from memory.
    for (code, trouble) in [
        (13, Trouble::Full),
        (8, Trouble::ReadOnly),
        (14, Trouble::NotAllowed),
        (10, Trouble::Fails),
        (11, Trouble::Damaged),
        (26, Trouble::Damaged),
        (5, Trouble::Held),
    ] {
        let error = of(code);
        assert_eq!(error.trouble(), Some(trouble), "{code}");
        assert!(error.to_string().contains(trouble.words()), "{error}");
    }
    assert_eq!(of(1).trouble(), None, "a mistake of the program is no disk's");
    let full = StoreError::Directory { cause: std::io::ErrorKind::StorageFull.into() };
    assert_eq!(full.trouble(), Some(Trouble::Full));
}
