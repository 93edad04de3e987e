//! Records of a canning kitchen in one SQLite file: what came in, what was planned, what happened to every jar.
//!
//! What is acknowledged is on disk: WAL with `synchronous=FULL`. The store keeps records and refuses what would break
//! them; the rules of the job are `bodega-core`'s.

mod batches;
mod canners;
mod cooks;
mod error;
mod goals;
mod jars;
mod kitchen;
mod loads;
mod lots;
mod rows;
mod shelf;
mod stock;

use std::path::Path;
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::time::Duration;

use rusqlite::Connection;
use rusqlite_migration::{M, Migrations};

pub use batches::{Batch, Draw, NewBatch, NewLoad};
pub use canners::{Canner, CannerChange, PotSize};
pub use cooks::{Cook, CookEvent, Kettle, NewCook, NewKettle};
pub use error::StoreError;
pub use goals::Goal;
pub use jars::{Jar, JarStep, count_sizes};
pub use kitchen::{Container, JarMeasure, Kitchen, KitchenChange, Units};
pub use loads::{CannerLoad, CannerReading, JarMoment, NewGroup};
pub use lots::{Lot, LotChange, NewLot};
pub use shelf::{ShelfGroup, Towel, TowelJar};
pub use stock::{AcidStock, Cupboard, Item, JarStock, LidStock};

/// Go up only: there is no way down, a newer file is refused instead.
const MIGRATIONS: &[M<'static>] = &[
    M::up(include_str!("../migrations/01-first-kitchen.sql")),
    M::up(include_str!("../migrations/02-harvest-and-stock.sql")),
    M::up(include_str!("../migrations/03-kettles-and-canner.sql")),
    M::up(include_str!("../migrations/04-heat-settings.sql")),
    M::up(include_str!("../migrations/05-bench-and-canners.sql")),
];

/// Name of the database file inside the data directory.
pub const FILE_NAME: &str = "bodega.db";

/// How long a statement waits for another process that holds the file, such as a backup.
const BUSY_TIMEOUT: Duration = Duration::from_secs(5);

/// An open kitchen.
pub struct Store {
    connection: Mutex<Connection>,
}

impl Store {
    /// Opens the kitchen in a directory, creating both when absent.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be opened or is not a database; [`StoreError::Newer`] when a newer
    /// program wrote it.
    pub fn open(directory: &Path) -> Result<Self, StoreError> {
        std::fs::create_dir_all(directory).map_err(|cause| StoreError::Directory { cause })?;
        Self::prepare(Connection::open(directory.join(FILE_NAME))?)
    }

    /// Opens a kitchen in memory, for tests and for trying things out.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when SQLite itself fails.
    pub fn in_memory() -> Result<Self, StoreError> {
        Self::prepare(Connection::open_in_memory()?)
    }

    fn prepare(mut connection: Connection) -> Result<Self, StoreError> {
        connection.busy_timeout(BUSY_TIMEOUT)?;
        connection.pragma_update(None, "journal_mode", "WAL")?;
        connection.pragma_update(None, "synchronous", "FULL")?;
        connection.pragma_update(None, "foreign_keys", true)?;
        Migrations::from_slice(MIGRATIONS).to_latest(&mut connection).map_err(|error| match error {
            rusqlite_migration::Error::MigrationDefinition(_) => StoreError::Newer,
            other => StoreError::Migration(other.to_string()),
        })?;
        let store = Self { connection: Mutex::new(connection) };
        store.settle_kitchen()?;
        Ok(store)
    }

    /// A panic in another thread leaves SQLite's own transaction rolled back, so the connection stays usable.
    pub(crate) fn lock(&self) -> MutexGuard<'_, Connection> {
        self.connection.lock().unwrap_or_else(PoisonError::into_inner)
    }
}
