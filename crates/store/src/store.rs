//! One open file of records: how it is opened, who holds it, and what lists leave out.

use std::ops::{Deref, DerefMut};
use std::path::{Path, PathBuf};
use std::sync::atomic::{AtomicBool, Ordering};
use std::sync::{Arc, Mutex, MutexGuard, OnceLock, PoisonError};
use std::time::Duration;

use rusqlite::Connection;
use rusqlite::trace::{TraceEvent, TraceEventCodes};

use crate::backup::backup_before;
use crate::cache::Caches;
use crate::copy::open_new;
use crate::error::{StoreError, if_readable};
use crate::files::{FILE_NAME, open_private, sweep};
use crate::integrity::{Standing, newest_good, standing, version_of};
use crate::lock::DataLock;
use crate::rows::{self, row_of};
use crate::schema::{MIGRATIONS, bring_up};
use crate::standings::{Changes, Standings};

/// How long a statement waits for another process that holds the file, such as a backup.
const BUSY_TIMEOUT: Duration = Duration::from_secs(5);

/// Kilobytes of the file that a connection which reads keeps at hand.
const AT_HAND_KB: i64 = 8_000;

/// Statements that a connection keeps prepared: more than there are in the program.
const KEPT_STATEMENTS: usize = 256;

/// Connections that are kept for whoever reads next; a screen asks for a handful of things at once.
const KEPT_READERS: usize = 4;

/// An open kitchen.
pub struct Store {
    connection: Mutex<Connection>,
    /// Connections that only read, each free at the moment.
    readers: Mutex<Vec<Connection>>,
    /// Whether a record may have been left out of a list because it cannot be read; nobody has looked at first.
    pub(crate) left_out: AtomicBool,
    /// What was read last of what is asked for again and again.
    pub(crate) caches: Caches,
    /// What stands against the jars at home.
    pub(crate) standings: Standings,
    /// What was written since that was asked.
    pub(crate) changes: Arc<Changes>,
    /// Tells whether something was written since.
    versions: Mutex<Option<Connection>>,
    /// Who is told of every statement.
    watcher: OnceLock<fn(TraceEvent<'_>)>,
    place: Option<Place>,
}

/// Where the records lie; nobody else has them meanwhile.
pub(crate) struct Place {
    directory: PathBuf,
    _lock: DataLock,
}

/// The one connection that writes, while somebody has it.
pub(crate) struct Writer<'a> {
    connection: MutexGuard<'a, Connection>,
    changes: &'a Changes,
}

impl Deref for Writer<'_> {
    type Target = Connection;

    fn deref(&self) -> &Connection {
        &self.connection
    }
}

impl DerefMut for Writer<'_> {
    fn deref_mut(&mut self) -> &mut Connection {
        &mut self.connection
    }
}

impl Drop for Writer<'_> {
    /// What was written is on disk, and the next one does not have the connection yet.
    fn drop(&mut self) {
        self.changes.settle();
    }
}

/// A connection to read with: nobody who writes waits for it, and it waits for nobody. In memory there is only one.
pub(crate) enum Reader<'a> {
    Only(Writer<'a>),
    Own { connection: Option<Connection>, readers: &'a Mutex<Vec<Connection>> },
}

impl Deref for Reader<'_> {
    type Target = Connection;

    fn deref(&self) -> &Connection {
        match self {
            Self::Only(connection) => connection,
            Self::Own { connection, .. } => connection.as_ref().expect("it is given back when it is dropped"),
        }
    }
}

impl Drop for Reader<'_> {
    fn drop(&mut self) {
        if let Self::Own { connection, readers } = self {
            let mut free = readers.lock().unwrap_or_else(PoisonError::into_inner);
            if free.len() < KEPT_READERS {
                free.extend(connection.take());
            }
        }
    }
}

impl Store {
    /// Opens the kitchen in a directory, creating both when absent. The directory is this program's while it is open.
    ///
    /// # Errors
    /// [`StoreError::InUse`] when another program has it; [`StoreError::NotWhole`] when records should stand there and do
    /// not, with the newest good backup if there is one; [`StoreError::Newer`] when a newer program wrote them;
    /// [`StoreError::Sqlite`] or [`StoreError::Directory`] when the disk will not have it.
    pub fn open(directory: &Path) -> Result<Self, StoreError> {
        let lock = DataLock::take(directory)?;
        sweep(directory)?;
        let file = directory.join(FILE_NAME);
        let connection = match standing(directory)? {
            Standing::Whole(connection) => connection,
            Standing::Nothing => open_new(&file)?,
            Standing::NotWhole(what) => {
                return Err(StoreError::NotWhole {
                    file: file.display().to_string(),
                    what,
                    backup: newest_good(directory)?.map(|file| file.display().to_string()),
                });
            }
        };
        open_private(&file)?;
        Self::prepare(connection, Some(Place { directory: directory.to_owned(), _lock: lock }))
    }

    /// Opens a kitchen in memory, for tests and for trying things out.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when SQLite itself fails.
    pub fn in_memory() -> Result<Self, StoreError> {
        Self::prepare(Connection::open_in_memory()?, None)
    }

    fn prepare(mut connection: Connection, place: Option<Place>) -> Result<Self, StoreError> {
        connection.busy_timeout(BUSY_TIMEOUT)?;
        connection.pragma_update(None, "journal_mode", "WAL")?;
        connection.pragma_update(None, "synchronous", "FULL")?;
        if let Some(place) = &place {
            let version = version_of(&connection)?;
            if version > 0 && version < MIGRATIONS.len() {
                backup_before(&connection, &place.directory, version)?;
            }
        }
        // A new column looks at every row of its table, and one that is broken must not keep the kitchen shut.
        connection.pragma_update(None, "ignore_check_constraints", true)?;
        bring_up(&mut connection)?;
        connection.pragma_update(None, "ignore_check_constraints", false)?;
        let store = Self::of(connection, place)?;
        store.settle_kitchen()?;
        Ok(store)
    }

    pub(crate) fn of(connection: Connection, place: Option<Place>) -> Result<Self, StoreError> {
        connection.set_prepared_statement_cache_capacity(KEPT_STATEMENTS);
        let changes = Arc::new(Changes::default());
        changes.hear(&connection)?;
        Ok(Self {
            connection: Mutex::new(connection),
            readers: Mutex::default(),
            left_out: AtomicBool::new(true),
            caches: Caches::default(),
            standings: Standings::default(),
            changes,
            versions: Mutex::default(),
            watcher: OnceLock::new(),
            place,
        })
    }

    /// Where the records lie; `None` in memory.
    pub(crate) fn directory(&self) -> Option<&Path> {
        self.place.as_ref().map(|place| place.directory.as_path())
    }

    /// Tells somebody of every statement once it is done, with how long it took. Once: whoever comes later is told nothing.
    pub fn watch(&self, watcher: fn(TraceEvent<'_>)) {
        if self.watcher.set(watcher).is_ok() {
            self.lock().trace_v2(TraceEventCodes::SQLITE_TRACE_PROFILE, Some(watcher));
            // Whoever reads next takes a connection that tells.
            self.readers.lock().unwrap_or_else(PoisonError::into_inner).clear();
        }
    }

    /// Looks long at the records, at one moment of them: nobody's touch waits for it. In memory there is one connection.
    pub(crate) fn look_long<T>(
        &self,
        look: impl FnOnce(&Connection) -> Result<T, StoreError>,
    ) -> Result<T, StoreError> {
        let Some(directory) = self.directory() else { return look(&self.lock()) };
        let connection = self.second_connection(directory)?;
        let moment = connection.unchecked_transaction()?;
        look(&moment)
    }

    /// Another connection to the same file.
    pub(crate) fn second_connection(&self, directory: &Path) -> Result<Connection, StoreError> {
        let connection = Connection::open(directory.join(FILE_NAME))?;
        connection.busy_timeout(BUSY_TIMEOUT)?;
        Ok(connection)
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

    /// A number that is another one after everything that is written, whoever wrote it. It waits for nobody.
    pub(crate) fn version(&self) -> Result<i64, StoreError> {
        let Some(directory) = self.directory() else {
            return Ok(i64::try_from(self.lock().total_changes()).unwrap_or(i64::MAX));
        };
        let mut looking = self.versions.lock().unwrap_or_else(PoisonError::into_inner);
        // The same connection for ever: the numbers of two have nothing to do with one another.
        let connection = match &mut *looking {
            Some(connection) => connection,
            none => none.insert(self.second_connection(directory)?),
        };
        Ok(row_of(connection, "PRAGMA data_version", [], |row| row.get(0))?)
    }

    /// A connection to read with. It sees what was acknowledged before it was asked for.
    pub(crate) fn read(&self) -> Result<Reader<'_>, StoreError> {
        let Some(directory) = self.directory() else { return Ok(Reader::Only(self.lock())) };
        let free = self.readers.lock().unwrap_or_else(PoisonError::into_inner).pop();
        let connection = match free {
            Some(connection) => connection,
            None => {
                let connection = self.second_connection(directory)?;
                connection.pragma_update(None, "query_only", true)?;
                connection.pragma_update(None, "cache_size", -AT_HAND_KB)?;
                connection.set_prepared_statement_cache_capacity(KEPT_STATEMENTS);
                if let Some(watcher) = self.watcher.get() {
                    connection.trace_v2(TraceEventCodes::SQLITE_TRACE_PROFILE, Some(*watcher));
                }
                connection
            }
        };
        Ok(Reader::Own { connection: Some(connection), readers: &self.readers })
    }

    /// Tells the records of a long list one after the other; one that cannot be read is left out.
    pub(crate) fn tell<T>(
        &self,
        read: impl Iterator<Item = rusqlite::Result<T>>,
        mut tell: impl FnMut(T) -> std::io::Result<()>,
    ) -> Result<(), StoreError> {
        for one in read {
            match if_readable(one.map_err(StoreError::from))? {
                Some(one) => tell(one)?,
                None => self.left_out.store(true, Ordering::Relaxed),
            }
        }
        Ok(())
    }

    /// A panic in another thread leaves SQLite's own transaction rolled back, so the connection stays usable.
    pub(crate) fn lock(&self) -> Writer<'_> {
        let connection = self.connection.lock().unwrap_or_else(PoisonError::into_inner);
        Writer { connection, changes: &self.changes }
    }
}
