//! Copies of the records, checked before they are trusted.

use std::path::Path;

use rusqlite::Connection;

use crate::StoreError;
use crate::copy::{copy_file, copy_to_file};
use crate::files::{FILE_NAME, FOLDER, TAILS, private_directory, put_in_place, remove, with_tail};
use crate::integrity::{check_file, digest_file, keep_digest};
use crate::restore::is_same;

/// Writes a copy to a file that appears whole or not at all.
pub(crate) fn write_copy(
    file: &Path,
    copy: impl FnOnce(&Path) -> Result<(), StoreError>,
) -> Result<(), StoreError> {
    let unfinished = with_tail(file, ".unfinished");
    copy(&unfinished)?;
    check_file(&unfinished)?;
    // The digest of the file that was there is not this one's.
    remove(&digest_file(file))?;
    put_in_place(&unfinished, file)
}

/// Writes a backup of a directory's records to a file, whether a program has them open or not.
///
/// # Errors
/// [`StoreError::NoRecords`]; [`StoreError::FileExists`] when the file is there and may not be written over, and always
/// when it is the records' own; [`StoreError::BadBackup`] when the copy is not whole; [`StoreError::Directory`] when it
/// cannot be written.
pub fn backup(directory: &Path, file: &Path, write_over: bool) -> Result<(), StoreError> {
    let records = directory.join(FILE_NAME);
    if !records.is_file() {
        return Err(StoreError::NoRecords { directory: directory.display().to_string() });
    }
    let is_own = std::iter::once("").chain(TAILS).any(|tail| is_same(file, &with_tail(&records, tail)));
    if is_own || (file.exists() && !write_over) {
        return Err(StoreError::FileExists { file: file.display().to_string(), is_own });
    }
    write_copy(file, |unfinished| copy_file(&records, unfinished))
}

/// Keeps the records as they are before a newer program changes their form.
pub(crate) fn backup_before(
    connection: &Connection,
    directory: &Path,
    version: usize,
) -> Result<(), StoreError> {
    let folder = directory.join(FOLDER);
    private_directory(&folder)?;
    let first = folder.join(format!("version-{version:02}.db"));
    let others = (2..).map(|turn| folder.join(format!("version-{version:02}-{turn}.db")));
    let Some(file) = std::iter::once(first).chain(others).find(|file| !file.exists()) else { return Ok(()) };
    write_copy(&file, |unfinished| copy_to_file(connection, unfinished))?;
    keep_digest(&file)
}
