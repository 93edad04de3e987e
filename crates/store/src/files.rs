//! The files of a data directory: their names, whose they are, and that they are on disk.

use std::fs::{File, OpenOptions};
use std::io::Write;
use std::path::{Path, PathBuf};

use crate::error::StoreError;

/// Name of the database file inside the data directory.
pub const FILE_NAME: &str = "bodega.db";
/// Directory of the automatic backups, beside the records.
pub(crate) const FOLDER: &str = "backups";
/// How the names of files begin that are on their way in.
pub(crate) const ARRIVING: &str = "bodega-arriving-";
/// What SQLite keeps beside a file: the log of what was written last, and who reads it.
pub(crate) const TAILS: [&str; 2] = ["-wal", "-shm"];

pub(crate) fn directory_error(cause: std::io::Error) -> StoreError {
    StoreError::Directory { cause }
}

/// A name with an ending.
pub(crate) fn with_tail(path: &Path, tail: &str) -> PathBuf {
    PathBuf::from(format!("{}{tail}", path.display()))
}

/// A directory that only its owner reads, made when absent.
pub(crate) fn private_directory(directory: &Path) -> Result<(), StoreError> {
    std::fs::create_dir_all(directory).map_err(directory_error)?;
    only_owner(directory, 0o700)
}

/// A file that only its owner reads, made empty when absent.
pub(crate) fn open_private(file: &Path) -> Result<File, StoreError> {
    let mut options = OpenOptions::new();
    options.read(true).write(true).create(true).truncate(false);
    #[cfg(unix)]
    std::os::unix::fs::OpenOptionsExt::mode(&mut options, 0o600);
    let opened = options.open(file).map_err(directory_error)?;
    only_owner(file, 0o600)?;
    Ok(opened)
}

/// Writes a file that only its owner reads, whole or not at all, in a folder that only its owner reads.
///
/// # Errors
/// [`StoreError::Directory`] when it cannot be written.
pub fn write_private(file: &Path, bytes: &[u8]) -> Result<(), StoreError> {
    if let Some(folder) = file.parent() {
        private_directory(folder)?;
    }
    let unfinished = with_tail(file, ".unfinished");
    let mut written = open_private(&unfinished)?;
    written.set_len(0).and_then(|()| written.write_all(bytes)).map_err(directory_error)?;
    put_in_place(&unfinished, file)
}

/// Takes a path from everyone but its owner. What is not ours to change stays as it is.
fn only_owner(path: &Path, mode: u32) -> Result<(), StoreError> {
    #[cfg(unix)]
    {
        use std::os::unix::fs::PermissionsExt;
        let is = std::fs::metadata(path).map_err(directory_error)?.permissions().mode() & 0o777;
        if is != mode
            && let Err(error) = std::fs::set_permissions(path, PermissionsExt::from_mode(mode))
            && error.kind() != std::io::ErrorKind::PermissionDenied
        {
            return Err(directory_error(error));
        }
    }
    Ok(())
}

/// Waits until a file is on disk.
pub(crate) fn sync(file: &Path) -> Result<(), StoreError> {
    File::open(file).and_then(|file| file.sync_all()).map_err(directory_error)
}

/// Waits until the names in the directory of a file are on disk.
pub(crate) fn sync_names(file: &Path) -> Result<(), StoreError> {
    let directory = file.parent().filter(|parent| !parent.as_os_str().is_empty());
    sync(directory.unwrap_or_else(|| Path::new(".")))
}

/// Gives a finished file the name that it is to have, in one step, and waits until that is on disk.
pub(crate) fn put_in_place(finished: &Path, name: &Path) -> Result<(), StoreError> {
    sync(finished)?;
    std::fs::rename(finished, name).map_err(directory_error)?;
    sync_names(name)
}

/// Removes a file, if it is there.
pub(crate) fn remove(file: &Path) -> Result<(), StoreError> {
    match std::fs::remove_file(file) {
        Err(error) if error.kind() != std::io::ErrorKind::NotFound => Err(directory_error(error)),
        _ => Ok(()),
    }
}

/// Removes what was on its way in when a program was cut short.
pub(crate) fn sweep(directory: &Path) -> Result<(), StoreError> {
    let entries = std::fs::read_dir(directory).map_err(directory_error)?;
    for entry in entries.filter_map(Result::ok) {
        let name = entry.file_name();
        let name = name.to_string_lossy();
        if name.starts_with(ARRIVING) || name.starts_with(&format!("{FILE_NAME}.arriving")) {
            remove(&entry.path())?;
        }
    }
    Ok(())
}

/// The backups whose names start so, oldest first.
pub(crate) fn backups(folder: &Path, prefix: &str) -> Result<Vec<PathBuf>, StoreError> {
    if !folder.is_dir() {
        return Ok(Vec::new());
    }
    let entries = std::fs::read_dir(folder).map_err(directory_error)?;
    let mut found: Vec<PathBuf> = entries
        .filter_map(Result::ok)
        .map(|entry| entry.path())
        .filter(|path| path.extension().is_some_and(|end| end == "db"))
        .filter(|path| path.file_name().is_some_and(|name| name.to_string_lossy().starts_with(prefix)))
        .collect();
    // Names carry the day, so the newest sort last.
    found.sort();
    Ok(found)
}
