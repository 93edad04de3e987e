//! Copies of records through SQLite's own backup interface, which takes in what still stands in the write-ahead log.

use std::path::Path;
use std::time::Duration;

use rusqlite::backup::Backup;
use rusqlite::{Connection, OpenFlags};

use crate::StoreError;
use crate::files::{TAILS, open_private, remove, with_tail};

/// Pages copied at a stretch, so that nobody waits for long.
const PAGES: i32 = 512;

/// Opens a new file that only its owner reads, in the place of one that was left half done.
pub(crate) fn open_new(file: &Path) -> Result<Connection, StoreError> {
    for tail in ["", "-journal"].iter().chain(&TAILS) {
        remove(&with_tail(file, tail))?;
    }
    open_private(file)?;
    Ok(Connection::open(file)?)
}

/// Copies the records of one connection to a new file, while both go on.
pub(crate) fn copy_to_file(from: &Connection, file: &Path) -> Result<(), StoreError> {
    let mut to = open_new(file)?;
    Backup::new(from, &mut to)?.run_to_completion(PAGES, Duration::ZERO, None)?;
    // One file that can be carried away, without a log beside it.
    Ok(to.pragma_update(None, "journal_mode", "DELETE")?)
}

/// Copies the records of one file to a new one.
pub(crate) fn copy_file(from: &Path, file: &Path) -> Result<(), StoreError> {
    let from = Connection::open_with_flags(from, OpenFlags::SQLITE_OPEN_READ_ONLY)?;
    copy_to_file(&from, file)
}
