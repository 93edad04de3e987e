//! One open file of records: how it is opened, who holds it, and what lists leave out.

use std::path::{Path, PathBuf};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use rusqlite::Connection;

use crate::error::StoreError;
use crate::files::{FILE_NAME, damage, newest_good};
use crate::rows;
use crate::schema::bring_up;

/// How long a statement waits for another process that holds the file, such as a backup.
const BUSY_TIMEOUT: Duration = Duration::from_secs(5);

/// An open kitchen.
pub struct Store {
    connection: Mutex<Connection>,
    /// Whether a record may have been left out of a list because it cannot be read; nobody has looked at first.
    pub(crate) left_out: AtomicBool,
    directory: Option<PathBuf>,
}

impl Store {
    /// Opens the kitchen in a directory, creating both when absent.
    ///
    /// # Errors
    /// [`StoreError::DamagedFile`] when the file is not whole, with the newest good backup if there is one;
    /// [`StoreError::Newer`] when a newer program wrote it; [`StoreError::Sqlite`] when it cannot be opened.
    pub fn open(directory: &Path) -> Result<Self, StoreError> {
        std::fs::create_dir_all(directory).map_err(|cause| StoreError::Directory { cause })?;
        let file = directory.join(FILE_NAME);
        let opened = Connection::open(&file).map_err(StoreError::from).and_then(|connection| {
            match damage(&connection, "PRAGMA quick_check")? {
                None => Ok(connection),
                Some(what) => Err(StoreError::Damaged(what)),
            }
        });
        match opened {
            Ok(connection) => Self::prepare(connection, Some(directory.to_owned())),
            Err(error) => Err(StoreError::DamagedFile {
                file: file.display().to_string(),
                what: error.to_string(),
                backup: newest_good(directory)?.map(|file| file.display().to_string()),
            }),
        }
    }

    /// Opens a kitchen in memory, for tests and for trying things out.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when SQLite itself fails.
    pub fn in_memory() -> Result<Self, StoreError> {
        Self::prepare(Connection::open_in_memory()?, None)
    }

    fn prepare(mut connection: Connection, directory: Option<PathBuf>) -> Result<Self, StoreError> {
        connection.busy_timeout(BUSY_TIMEOUT)?;
        connection.pragma_update(None, "journal_mode", "WAL")?;
        connection.pragma_update(None, "synchronous", "FULL")?;
        // A new column looks at every row of its table, and one that is broken must not keep the kitchen shut.
        connection.pragma_update(None, "ignore_check_constraints", true)?;
        bring_up(&mut connection).map_err(|error| match error {
            rusqlite_migration::Error::MigrationDefinition(_) => StoreError::Newer,
            other => StoreError::Migration(other.to_string()),
        })?;
        connection.pragma_update(None, "ignore_check_constraints", false)?;
        let store = Self::of(connection, directory);
        store.settle_kitchen()?;
        Ok(store)
    }

    pub(crate) const fn of(connection: Connection, directory: Option<PathBuf>) -> Self {
        Self { connection: Mutex::new(connection), left_out: AtomicBool::new(true), directory }
    }

    /// Where the records lie; `None` in memory.
    pub(crate) fn directory(&self) -> Option<&Path> {
        self.directory.as_deref()
    }

    /// The records of a list that can be read, remembering whether one could not.
    pub(crate) fn readable<T, E: Into<StoreError>>(
        &self,
        read: impl Iterator<Item = Result<T, E>>,
    ) -> Result<Vec<T>, StoreError> {
        rows::readable(read.inspect(|one| {
            if one.is_err() {
                self.left_out.store(true, Ordering::Relaxed);
            }
        }))
    }

    /// A panic in another thread leaves SQLite's own transaction rolled back, so the connection stays usable.
    pub(crate) fn lock(&self) -> MutexGuard<'_, Connection> {
        self.connection.lock().unwrap_or_else(PoisonError::into_inner)
    }
}
