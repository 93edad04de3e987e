//! Records of a canning kitchen in one SQLite file: what came in, what was planned, what happened to every jar.
//!
//! What is acknowledged is on disk: WAL with `synchronous=FULL`. The store keeps records and refuses what would break
//! them; the rules of the job are `bodega-core`'s.

pub mod backup;
mod batches;
mod canners;
mod cooks;
mod day_notes;
mod error;
pub mod exchange;
mod goals;
mod jars;
mod kitchen;
mod loads;
mod lots;
mod records;
mod rows;
mod shelf;
mod stock;

use std::path::{Path, PathBuf};
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use rusqlite::Connection;
use rusqlite_migration::{M, Migrations};

pub use backup::BackupFile;
pub use batches::{Batch, Draw, NewBatch, NewLoad};
pub use canners::{Canner, CannerChange, PotSize};
pub use cooks::{Cook, CookEvent, Kettle, NewCook, NewKettle};
pub use day_notes::{BlockNote, Mark};
pub use error::StoreError;
pub use goals::Goal;
pub use jars::{Jar, JarStep, count_sizes};
pub use kitchen::{Container, JarMeasure, Kitchen, KitchenChange, Units};
pub use loads::{CannerLoad, CannerReading, JarMoment, NewGroup};
pub use lots::{Lot, LotChange, NewLot};
pub use records::{JarRecord, PhRecord, Stocked};
pub use shelf::{Gone, Rescued, ShelfGroup, ShelfSearch, Towel, TowelJar};
pub use stock::{AcidStock, Cupboard, Item, JarStock, LidStock};

/// Go up only: there is no way down, a newer file is refused instead.
const MIGRATIONS: &[M<'static>] = &[
    M::up(include_str!("../migrations/01-first-kitchen.sql")),
    M::up(include_str!("../migrations/02-harvest-and-stock.sql")),
    M::up(include_str!("../migrations/03-kettles-and-canner.sql")),
    M::up(include_str!("../migrations/04-heat-settings.sql")),
    M::up(include_str!("../migrations/05-bench-and-canners.sql")),
    M::up(include_str!("../migrations/06-towel-and-shelf.sql")),
    M::up(include_str!("../migrations/07-the-day.sql")),
    M::up(include_str!("../migrations/08-doubt-kept.sql")),
    M::up(include_str!("../migrations/09-sink-and-night.sql")),
];

/// Name of the database file inside the data directory.
pub const FILE_NAME: &str = "bodega.db";

/// How long a statement waits for another process that holds the file, such as a backup.
const BUSY_TIMEOUT: Duration = Duration::from_secs(5);

/// An open kitchen.
pub struct Store {
    connection: Mutex<Connection>,
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
            let whole: String = connection.query_row("PRAGMA quick_check", [], |row| row.get(0))?;
            if whole == "ok" { Ok(connection) } else { Err(StoreError::Damaged(whole)) }
        });
        match opened {
            Ok(connection) => Self::prepare(connection, Some(directory.to_owned())),
            Err(error) => Err(StoreError::DamagedFile {
                file: file.display().to_string(),
                what: error.to_string(),
                backup: backup::newest_good(directory)?.map(|file| file.display().to_string()),
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
        connection.pragma_update(None, "foreign_keys", true)?;
        Migrations::from_slice(MIGRATIONS).to_latest(&mut connection).map_err(|error| match error {
            rusqlite_migration::Error::MigrationDefinition(_) => StoreError::Newer,
            other => StoreError::Migration(other.to_string()),
        })?;
        let store = Self::of(connection, directory);
        store.settle_kitchen()?;
        Ok(store)
    }

    pub(crate) const fn of(connection: Connection, directory: Option<PathBuf>) -> Self {
        Self { connection: Mutex::new(connection), directory }
    }

    /// Where the records lie; `None` in memory.
    pub(crate) fn directory(&self) -> Option<&Path> {
        self.directory.as_deref()
    }

    /// A panic in another thread leaves SQLite's own transaction rolled back, so the connection stays usable.
    pub(crate) fn lock(&self) -> MutexGuard<'_, Connection> {
        self.connection.lock().unwrap_or_else(PoisonError::into_inner)
    }
}
