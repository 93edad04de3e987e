//! Whether a file of records is whole, before it is trusted.

use std::fs::File;
use std::io::{BufRead, BufReader};
use std::path::{Path, PathBuf};

use rusqlite::{Connection, OpenFlags};
use sha2::{Digest, Sha256};

use crate::error::StoreError;
use crate::files::{FILE_NAME, FOLDER, TAILS, backups, directory_error, with_tail, write_private};
use crate::schema::MIGRATIONS;

/// Ending of the file beside a backup that holds its digest, as `sha256sum` writes it.
const DIGEST: &str = ".sha256";

/// The first thing that a check of the file's structure finds; `None` when it is whole.
///
/// A value that the schema would not take is no damage of the file: it is one record's, and stands on a card of its own
/// ([`crate::Store::broken`]).
fn damage(connection: &Connection, check: &str) -> rusqlite::Result<Option<String>> {
    let mut statement = connection.prepare(check)?;
    let said = statement.query_map([], |row| row.get(0))?.collect::<Result<Vec<String>, _>>()?;
    Ok(said.into_iter().find(|line| line != "ok" && !line.starts_with("CHECK constraint failed")))
}

/// Which form the records are in.
pub(crate) fn version_of(connection: &Connection) -> rusqlite::Result<usize> {
    let version: u32 = connection.query_row("PRAGMA user_version", [], |row| row.get(0))?;
    Ok(version as usize)
}

fn holds_kitchen(connection: &Connection) -> rusqlite::Result<bool> {
    let sql = "SELECT EXISTS (SELECT 1 FROM sqlite_master WHERE name = 'kitchen')";
    connection.query_row(sql, [], |row| row.get(0))
}

/// Records up to so many bytes are looked through before they are opened; longer ones beside the work, because a kitchen
/// of many years would wait seconds for it.
const LOOKED_THROUGH_FIRST: u64 = 16 << 20;

/// What stands in a data directory.
pub(crate) enum Standing {
    /// Nothing yet: a kitchen begins here.
    Nothing,
    /// Records, open.
    Whole(Connection),
    /// Records should stand here and do not.
    NotWhole(String),
}

/// Looks at the records of a directory, without changing any.
///
/// # Errors
/// [`StoreError::Newer`]; [`StoreError::Sqlite`] when the file cannot be read, which is no damage of it.
pub(crate) fn standing(directory: &Path) -> Result<Standing, StoreError> {
    let file = directory.join(FILE_NAME);
    let bytes = |path: &Path| std::fs::metadata(path).map_or(0, |data| data.len());
    let has_log = bytes(&with_tail(&file, TAILS[0])) > 0;
    let has_past = has_log || !backups(&directory.join(FOLDER), "")?.is_empty();
    if bytes(&file) == 0 {
        if !has_past {
            return Ok(Standing::Nothing);
        }
        let what = if file.exists() { "are an empty file" } else { "are missing" };
        return Ok(Standing::NotWhole(what.to_owned()));
    }
    let flags = OpenFlags::SQLITE_OPEN_READ_WRITE | OpenFlags::SQLITE_OPEN_NO_MUTEX;
    let looked = Connection::open_with_flags(&file, flags).and_then(|connection| {
        let version = version_of(&connection)?;
        let holds = holds_kitchen(&connection)?;
        let is_short = bytes(&file) <= LOOKED_THROUGH_FIRST;
        let what = if is_short { damage(&connection, "PRAGMA quick_check")? } else { None };
        Ok((connection, version, holds, what))
    });
    match looked {
        Ok((_, version, ..)) if version > MIGRATIONS.len() => Err(StoreError::Newer),
        Ok((.., Some(what))) => Ok(Standing::NotWhole(format!("are damaged ({what})"))),
        // A kitchen whose very first second was cut short.
        Ok((connection, 0, false, None)) if !has_past => Ok(Standing::Whole(connection)),
        Ok((_, _, false, None)) => Ok(Standing::NotWhole("hold no kitchen".to_owned())),
        Ok((connection, ..)) => Ok(Standing::Whole(connection)),
        Err(error) => {
            let said = error.to_string();
            let error = StoreError::from(error);
            if error.is_damage() {
                Ok(Standing::NotWhole(format!("are damaged ({said})")))
            } else {
                Err(error)
            }
        }
    }
}

/// What is wrong with records that were too long to be looked through before they were opened.
///
/// # Errors
/// [`StoreError::Sqlite`] when the file cannot be read, which is no damage of it.
pub(crate) fn look_through(file: &Path, connection: &Connection) -> Result<Option<String>, StoreError> {
    if std::fs::metadata(file).map_or(0, |data| data.len()) <= LOOKED_THROUGH_FIRST {
        return Ok(None);
    }
    match damage(connection, "PRAGMA quick_check").map_err(StoreError::from) {
        Err(error) if error.is_damage() => Ok(Some(error.to_string())),
        looked => looked,
    }
}

/// Checks that a file is a whole and readable kitchen that this program understands, and, where its digest was kept, the
/// very bytes that were written.
///
/// # Errors
/// [`StoreError::BadBackup`] says what is wrong; [`StoreError::Newer`] when a newer program wrote it.
pub fn check_file(file: &Path) -> Result<(), StoreError> {
    let bad = |what: String| StoreError::BadBackup { file: file.display().to_string(), what };
    if !file.is_file() {
        return Err(bad("there is no such file".to_owned()));
    }
    if !keeps_digest(file)? {
        return Err(bad("it is damaged: its bytes are not those that were written".to_owned()));
    }
    let connection = Connection::open_with_flags(file, OpenFlags::SQLITE_OPEN_READ_ONLY)?;
    let damaged = |error: rusqlite::Error| bad(format!("it cannot be read: {error}"));
    let version = version_of(&connection).map_err(damaged)?;
    if version > MIGRATIONS.len() {
        return Err(StoreError::Newer);
    }
    if version == 0 || !holds_kitchen(&connection).map_err(damaged)? {
        return Err(bad("it holds no kitchen's records".to_owned()));
    }
    match damage(&connection, "PRAGMA integrity_check").map_err(damaged)? {
        Some(what) => Err(bad(format!("it is damaged: {what}"))),
        None => Ok(()),
    }
}

fn digest(file: &Path) -> Result<String, StoreError> {
    let mut hash = Sha256::new();
    let mut reader = BufReader::with_capacity(1 << 16, File::open(file).map_err(directory_error)?);
    loop {
        let bytes = reader.fill_buf().map_err(directory_error)?;
        if bytes.is_empty() {
            break;
        }
        hash.update(bytes);
        let read = bytes.len();
        reader.consume(read);
    }
    Ok(hash.finalize().iter().map(|byte| format!("{byte:02x}")).collect())
}

/// Where the digest of a backup is kept.
pub(crate) fn digest_file(backup: &Path) -> PathBuf {
    with_tail(backup, DIGEST)
}

/// Keeps the digest of a backup beside it.
pub(crate) fn keep_digest(backup: &Path) -> Result<(), StoreError> {
    let name = backup.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default();
    let line = format!("{}  {name}\n", digest(backup)?);
    write_private(&digest_file(backup), line.as_bytes())
}

/// Whether a file is as its digest says; one without a digest is.
fn keeps_digest(file: &Path) -> Result<bool, StoreError> {
    let Ok(kept) = std::fs::read_to_string(digest_file(file)) else { return Ok(true) };
    // A digest that was cut short while it was written says nothing.
    match kept.split_whitespace().next() {
        Some(kept) if kept.len() == 64 => Ok(kept == digest(file)?),
        _ => Ok(true),
    }
}

/// The newest automatic backup of a data directory that is whole.
///
/// # Errors
/// [`StoreError::Directory`] when the folder cannot be read.
pub fn newest_good(directory: &Path) -> Result<Option<PathBuf>, StoreError> {
    let folder = directory.join(FOLDER);
    let mut all = Vec::new();
    for prefix in ["version-", "weekly-", "daily-"] {
        all.extend(backups(&folder, prefix)?);
    }
    Ok(all.into_iter().rev().find(|file| check_file(file).is_ok()))
}

/// How many records a backup holds of what a kitchen does; none when it cannot be read.
pub(crate) fn fullness(file: &Path) -> i64 {
    let count = || -> rusqlite::Result<i64> {
        let connection = Connection::open_with_flags(file, OpenFlags::SQLITE_OPEN_READ_ONLY)?;
        let sql =
            "SELECT (SELECT count(*) FROM lot) + (SELECT count(*) FROM batch) + (SELECT count(*) FROM jar)";
        connection.query_row(sql, [], |row| row.get(0))
    };
    count().unwrap_or(0)
}
