//! Safe keeping: a backup of every day and week while the program runs.

use std::path::PathBuf;

use serde::Serialize;

use crate::backup::write_copy;
use crate::copy::copy_to_file;
use crate::files::{FILE_NAME, FOLDER, backups, directory_error, private_directory, remove, with_tail};
use crate::integrity::{check_file, digest_file, fullness, keep_digest, look_through};
use crate::{Store, StoreError};

/// Daily backups that are kept.
const DAILY: usize = 7;
/// Weekly ones.
const WEEKLY: usize = 4;

/// A backup file.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BackupFile {
    /// Name of the file in the folder of backups.
    pub name: String,
    /// Its size in bytes.
    pub bytes: u64,
    /// Whether it was found not to be whole, and another made in its place.
    pub set_aside: bool,
}

/// Ending of a backup that was found not to be whole.
const NOT_WHOLE: &str = ".not-whole";

impl Store {
    /// Looks through records that were too long to be looked through before they were opened; says what is wrong with them.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read, which is no damage of it.
    pub fn look_through(&self) -> Result<Option<String>, StoreError> {
        let Some(directory) = self.directory() else { return Ok(None) };
        look_through(&directory.join(FILE_NAME), &self.second_connection(directory)?)
    }

    /// Makes today's and this week's backup when they are not there yet or not whole any more, and lets the oldest go,
    /// but never the fullest: a kitchen that shrank may be one that was lost. Nothing happens to records in memory.
    ///
    /// # Errors
    /// As [`backup`].
    pub fn keep_backups(&self, day: &str, week: &str) -> Result<(), StoreError> {
        let Some(directory) = self.directory() else { return Ok(()) };
        let folder = directory.join(FOLDER);
        private_directory(&folder)?;
        for file in backups(&folder, "")? {
            if matches!(check_file(&file), Err(StoreError::BadBackup { .. })) {
                std::fs::rename(&file, with_tail(&file, NOT_WHOLE)).map_err(directory_error)?;
                remove(&digest_file(&file))?;
            }
        }
        for (prefix, name, keep) in [("daily-", day, DAILY), ("weekly-", week, WEEKLY)] {
            let file = folder.join(format!("{prefix}{name}.db"));
            if !file.exists() {
                let from = self.second_connection(directory)?;
                write_copy(&file, |unfinished| copy_to_file(&from, unfinished))?;
                keep_digest(&file)?;
            }
            let all = backups(&folder, prefix)?;
            let beyond = all.len().saturating_sub(keep);
            if beyond == 0 {
                continue;
            }
            // Of those that hold the same, the newest.
            let fullest = all.iter().max_by_key(|file| fullness(file));
            for old in all.iter().take(beyond).filter(|old| Some(*old) != fullest) {
                remove(old)?;
                remove(&digest_file(old))?;
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
        let folder = directory.join(FOLDER);
        if !folder.is_dir() {
            return Ok(Vec::new());
        }
        let entries = std::fs::read_dir(&folder).map_err(directory_error)?;
        let describe = |path: PathBuf| {
            let name = path.file_name()?.to_string_lossy().into_owned();
            let set_aside = name.ends_with(NOT_WHOLE);
            let bytes = std::fs::metadata(&path).ok()?.len();
            (set_aside || name.ends_with(".db")).then_some(BackupFile { name, bytes, set_aside })
        };
        let mut all: Vec<BackupFile> =
            entries.filter_map(Result::ok).filter_map(|entry| describe(entry.path())).collect();
        all.sort_by(|one, other| other.name.cmp(&one.name));
        Ok(all)
    }
}
