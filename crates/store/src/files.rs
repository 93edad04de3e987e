//! The files of a data directory: checked before they are trusted, and one put in the place of another.

use std::path::{Path, PathBuf};

use rusqlite::{Connection, OpenFlags};

use crate::error::StoreError;
use crate::schema::MIGRATIONS;

/// Name of the database file inside the data directory.
pub const FILE_NAME: &str = "bodega.db";
/// Directory of the automatic backups, beside the records.
pub(crate) const FOLDER: &str = "backups";

pub(crate) fn directory_error(cause: std::io::Error) -> StoreError {
    StoreError::Directory { cause }
}

/// The first thing that a check of the file's structure finds; `None` when it is whole.
///
/// A value that the schema would not take is no damage of the file: it is one record's, and stands on a card of its own
/// ([`crate::Store::broken`]).
pub(crate) fn damage(connection: &Connection, check: &str) -> rusqlite::Result<Option<String>> {
    let mut statement = connection.prepare(check)?;
    let said = statement.query_map([], |row| row.get(0))?.collect::<Result<Vec<String>, _>>()?;
    Ok(said.into_iter().find(|line| line != "ok" && !line.starts_with("CHECK constraint failed")))
}

/// Checks that a file is a whole and readable kitchen that this program understands.
///
/// # Errors
/// [`StoreError::BadBackup`] says what is wrong; [`StoreError::Newer`] when a newer program wrote it.
pub fn check_file(file: &Path) -> Result<(), StoreError> {
    let bad = |what: String| StoreError::BadBackup { file: file.display().to_string(), what };
    if !file.is_file() {
        return Err(bad("there is no such file".to_owned()));
    }
    let connection = Connection::open_with_flags(file, OpenFlags::SQLITE_OPEN_READ_ONLY)?;
    let damaged = |error: rusqlite::Error| bad(format!("it cannot be read: {error}"));
    let version: u32 = connection.query_row("PRAGMA user_version", [], |row| row.get(0)).map_err(damaged)?;
    if version as usize > MIGRATIONS.len() {
        return Err(StoreError::Newer);
    }
    let kitchens: i64 = connection
        .query_row("SELECT count(*) FROM sqlite_master WHERE name = 'kitchen'", [], |row| row.get(0))
        .map_err(damaged)?;
    if version == 0 || kitchens == 0 {
        return Err(bad("it holds no kitchen's records".to_owned()));
    }
    match damage(&connection, "PRAGMA integrity_check").map_err(damaged)? {
        Some(what) => Err(bad(format!("it is damaged: {what}"))),
        None => Ok(()),
    }
}

/// Puts a backup in the place of the records; what was there is kept beside it.
///
/// # Errors
/// As [`check_file`]; [`StoreError::Directory`] when a file cannot be moved. The records are untouched then.
pub fn restore(file: &Path, directory: &Path, stamp: &str) -> Result<Option<PathBuf>, StoreError> {
    check_file(file)?;
    std::fs::create_dir_all(directory).map_err(directory_error)?;
    let records = directory.join(FILE_NAME);
    let arriving = directory.join(format!("{FILE_NAME}.arriving"));
    std::fs::copy(file, &arriving).map_err(directory_error)?;
    check_file(&arriving)?;
    let kept = directory.join(format!("{FILE_NAME}.before-{stamp}"));
    let mut before = None;
    for tail in ["", "-wal", "-shm"] {
        let name = |path: &Path| PathBuf::from(format!("{}{tail}", path.display()));
        if name(&records).exists() {
            std::fs::rename(name(&records), name(&kept)).map_err(directory_error)?;
            before = Some(kept.clone());
        }
    }
    std::fs::rename(&arriving, &records).map_err(directory_error)?;
    Ok(before)
}

/// The backups whose names start so, oldest first.
pub(crate) fn files(folder: &Path, prefix: &str) -> Result<Vec<PathBuf>, StoreError> {
    if !folder.is_dir() {
        return Ok(Vec::new());
    }
    let entries = std::fs::read_dir(folder).map_err(directory_error)?;
    let mut found: Vec<PathBuf> = entries
        .filter_map(Result::ok)
        .map(|entry| entry.path())
        .filter(|path| path.extension().is_some_and(|end| end == "db"))
        .filter(|path| path.file_name().is_some_and(|name| name.to_string_lossy().starts_with(prefix)))
        .collect();
    // Names carry the day, so the newest sort last.
    found.sort();
    Ok(found)
}

/// The newest automatic backup of a data directory that is whole.
///
/// # Errors
/// [`StoreError::Directory`] when the folder cannot be read.
pub(crate) fn newest_good(directory: &Path) -> Result<Option<PathBuf>, StoreError> {
    let folder = directory.join(FOLDER);
    let mut all = files(&folder, "weekly-")?;
    all.extend(files(&folder, "daily-")?);
    Ok(all.into_iter().rev().find(|file| check_file(file).is_ok()))
}
