//! Safe keeping: copies of the records while the program runs, checked before they are trusted.

use std::path::{Path, PathBuf};
use std::time::Duration;

use rusqlite::backup::Backup;
use rusqlite::{Connection, OpenFlags};
use serde::Serialize;

use crate::schema::MIGRATIONS;
use crate::{FILE_NAME, Store, StoreError};

/// Directory of the automatic backups, beside the records.
const FOLDER: &str = "backups";
/// Daily backups that are kept.
const DAILY: usize = 7;
/// Weekly ones.
const WEEKLY: usize = 4;
/// Pages copied at a stretch, so that nobody waits for long.
const PAGES: i32 = 512;

/// A backup file.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BackupFile {
    /// Name of the file in the folder of backups.
    pub name: String,
    /// Its size in bytes.
    pub bytes: u64,
}

fn directory_error(cause: std::io::Error) -> StoreError {
    StoreError::Directory { cause }
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
    let whole: String =
        connection.query_row("PRAGMA integrity_check", [], |row| row.get(0)).map_err(damaged)?;
    if whole != "ok" {
        return Err(bad(format!("it is damaged: {whole}")));
    }
    Ok(())
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

fn files(folder: &Path, prefix: &str) -> Result<Vec<PathBuf>, StoreError> {
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
pub fn newest_good(directory: &Path) -> Result<Option<PathBuf>, StoreError> {
    let folder = directory.join(FOLDER);
    let mut all = files(&folder, "weekly-")?;
    all.extend(files(&folder, "daily-")?);
    Ok(all.into_iter().rev().find(|file| check_file(file).is_ok()))
}

/// Copies the records of one connection over another's, while both go on.
fn copy(from: &Connection, to: &mut Connection) -> Result<(), StoreError> {
    Ok(Backup::new(from, to)?.run_to_completion(PAGES, Duration::ZERO, None)?)
}

impl Store {
    /// Copies these records over another store's.
    pub(crate) fn copy_to(&self, other: &Self) -> Result<(), StoreError> {
        copy(&self.lock(), &mut other.lock())
    }

    /// Writes a backup to a file, while the kitchen goes on. The file appears whole or not at all.
    ///
    /// # Errors
    /// [`StoreError::BadBackup`] when the copy is not whole; [`StoreError::Directory`] when it cannot be written.
    pub fn backup_to(&self, file: &Path) -> Result<(), StoreError> {
        let unfinished = PathBuf::from(format!("{}.unfinished", file.display()));
        if unfinished.exists() {
            std::fs::remove_file(&unfinished).map_err(directory_error)?;
        }
        {
            let mut to = Connection::open(&unfinished)?;
            copy(&self.lock(), &mut to)?;
            // One file that can be carried away, without a log beside it.
            to.pragma_update(None, "journal_mode", "DELETE")?;
        }
        check_file(&unfinished)?;
        std::fs::rename(&unfinished, file).map_err(directory_error)
    }

    /// Makes today's and this week's backup when they are not there yet, and lets the oldest go. Nothing happens to
    /// records in memory.
    ///
    /// # Errors
    /// As [`Self::backup_to`].
    pub fn keep_backups(&self, day: &str, week: &str) -> Result<(), StoreError> {
        let Some(directory) = self.directory() else { return Ok(()) };
        let folder = directory.join(FOLDER);
        std::fs::create_dir_all(&folder).map_err(directory_error)?;
        for (prefix, name, keep) in [("daily-", day, DAILY), ("weekly-", week, WEEKLY)] {
            let file = folder.join(format!("{prefix}{name}.db"));
            if !file.exists() {
                self.backup_to(&file)?;
            }
            let all = files(&folder, prefix)?;
            for old in all.iter().take(all.len().saturating_sub(keep)) {
                std::fs::remove_file(old).map_err(directory_error)?;
            }
        }
        Ok(())
    }

    /// Automatic backups, newest first.
    ///
    /// # Errors
    /// [`StoreError::Directory`] when the folder cannot be read.
    pub fn backups(&self) -> Result<Vec<BackupFile>, StoreError> {
        let Some(directory) = self.directory() else { return Ok(Vec::new()) };
        let mut all = files(&directory.join(FOLDER), "")?;
        all.reverse();
        let describe = |file: PathBuf| {
            let bytes = std::fs::metadata(&file).map_err(directory_error)?.len();
            let name = file.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default();
            Ok(BackupFile { name, bytes })
        };
        all.into_iter().map(describe).collect()
    }
}
