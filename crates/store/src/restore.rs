//! One file of records put in the place of another, so that at every instant either is whole under its name.

use std::path::{Path, PathBuf};
use std::time::Duration;

use rusqlite::{Connection, OpenFlags};

use crate::copy::{copy_file, open_new};
use crate::error::StoreError;
use crate::files::{FILE_NAME, TAILS, directory_error, put_in_place, sync_names, with_tail};
use crate::integrity::{Standing, check_file, standing};
use crate::lock::DataLock;
use crate::schema::bring_up;

/// How long another program's look at the file is waited for.
const PATIENCE: Duration = Duration::from_secs(2);

/// Puts a backup in the place of the records; what was there is kept beside it, under the name that is returned.
///
/// # Errors
/// As [`check_file`]; [`StoreError::InUse`] while another Bodega has the directory; [`StoreError::Directory`] when a file
/// cannot be moved. The records are untouched then.
pub fn restore(file: &Path, directory: &Path, stamp: &str) -> Result<Option<PathBuf>, StoreError> {
    let records = directory.join(FILE_NAME);
    if is_same(file, &records) {
        let what = "these are the records themselves".to_owned();
        return Err(StoreError::BadBackup { file: file.display().to_string(), what });
    }
    check_file(file)?;
    let _lock = DataLock::take(directory)?;
    let arriving = with_tail(&records, ".arriving");
    copy_file(file, &arriving)?;
    check_file(&arriving)?;
    let kept = set_aside(&records, stamp)?;
    put_in_place(&arriving, &records)?;
    Ok(kept)
}

/// Sets records aside that are not whole, so that a kitchen can begin anew in their place.
///
/// # Errors
/// [`StoreError::StillWhole`] when there is nothing wrong with them; as [`restore`] otherwise.
pub fn begin_anew(directory: &Path, stamp: &str) -> Result<Option<PathBuf>, StoreError> {
    let _lock = DataLock::take(directory)?;
    match standing(directory)? {
        Standing::Whole(_) => Err(StoreError::StillWhole { directory: directory.display().to_string() }),
        Standing::Nothing => Ok(None),
        Standing::NotWhole(_) => {
            let records = directory.join(FILE_NAME);
            let arriving = with_tail(&records, ".arriving");
            bring_up(&mut open_new(&arriving)?)?;
            let kept = set_aside(&records, stamp)?;
            put_in_place(&arriving, &records)?;
            Ok(kept)
        }
    }
}

/// Whether two names are the same file.
pub(crate) fn is_same(one: &Path, other: &Path) -> bool {
    match (one.canonicalize(), other.canonicalize()) {
        (Ok(one), Ok(other)) => one == other,
        _ => false,
    }
}

/// Folds the write-ahead log into the file, so that it is whole alone.
fn fold(records: &Path) -> rusqlite::Result<()> {
    let connection = Connection::open_with_flags(records, OpenFlags::SQLITE_OPEN_READ_WRITE)?;
    connection.busy_timeout(PATIENCE)?;
    connection.pragma_update(None, "journal_mode", "DELETE")
}

/// Gives the records a second name beside them; the first stays until another file takes it.
fn set_aside(records: &Path, stamp: &str) -> Result<Option<PathBuf>, StoreError> {
    let logs = TAILS.map(|tail| (with_tail(records, tail), tail));
    if !records.exists() && !logs.iter().any(|(log, _)| log.exists()) {
        return Ok(None);
    }
    let kept = free_name(records, stamp);
    if records.exists() {
        match fold(records).map_err(StoreError::from) {
            Err(error) if !error.is_damage() => return Err(error),
            // What cannot be folded is kept as it is, with its log.
            _ => {}
        }
        if std::fs::hard_link(records, &kept).is_err() {
            std::fs::copy(records, &kept).map_err(directory_error)?;
        }
        sync_names(&kept)?;
    }
    // A log that stayed would be taken for that of the file that comes.
    for (log, tail) in logs.iter().filter(|(log, _)| log.exists()) {
        std::fs::rename(log, with_tail(&kept, tail)).map_err(directory_error)?;
    }
    sync_names(&kept)?;
    Ok(Some(kept))
}

/// A name for what was there that nothing else has.
fn free_name(records: &Path, stamp: &str) -> PathBuf {
    let first = with_tail(records, &format!(".before-{stamp}"));
    let others = (2..).map(|turn| with_tail(records, &format!(".before-{stamp}-{turn}")));
    std::iter::once(first)
        .chain(others)
        .find(|name| !name.exists())
        .unwrap_or_else(|| with_tail(records, ".before"))
}
