//! Safe keeping: copies of the records while the program runs, checked before they are trusted.

use std::path::{Path, PathBuf};
use std::time::Duration;

use rusqlite::Connection;
use rusqlite::backup::Backup;
use serde::Serialize;

use crate::files::{FOLDER, check_file, directory_error, files};
use crate::{Store, StoreError};

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
