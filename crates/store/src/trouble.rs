//! What a disk refuses, each with its own words and its own advice.

use std::fmt::Display;
use std::io::ErrorKind;

use rusqlite::ErrorCode;
use serde::Serialize;

/// What a disk refuses.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[serde(rename_all = "snake_case")]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub enum Trouble {
    /// No room.
    Full,
    /// Nothing may be written.
    ReadOnly,
    /// The program may not.
    NotAllowed,
    /// The disk itself fails.
    Fails,
    /// The file itself is damaged.
    Damaged,
    /// Another program holds the file.
    Held,
}

impl Trouble {
    /// What is the matter and what to do.
    #[must_use]
    pub const fn words(self) -> &'static str {
        match self {
            Self::Full => "the disk is full; nothing was written. Make room on it, then say it again",
            Self::ReadOnly => {
                "the disk or the file is read-only; nothing was written. Make it writable, or move the records' folder"
            }
            Self::NotAllowed => {
                "this user may not open the file; give the records' folder to the user who runs Bodega"
            }
            Self::Fails => "the disk fails to read or write; copy the newest backup to another disk now",
            Self::Damaged => {
                "the file of the records is damaged; stop Bodega and start it again, it then says what to bring back"
            }
            Self::Held => "another program holds the file; close it and say it again",
        }
    }
}

/// What the disk refused when SQLite said so.
pub(crate) fn trouble_of_records(error: &rusqlite::Error) -> Option<Trouble> {
    match error.sqlite_error_code()? {
        ErrorCode::DiskFull => Some(Trouble::Full),
        ErrorCode::ReadOnly => Some(Trouble::ReadOnly),
        ErrorCode::CannotOpen | ErrorCode::PermissionDenied => Some(Trouble::NotAllowed),
        ErrorCode::SystemIoFailure | ErrorCode::FileLockingProtocolFailed => Some(Trouble::Fails),
        ErrorCode::DatabaseCorrupt | ErrorCode::NotADatabase => Some(Trouble::Damaged),
        ErrorCode::DatabaseBusy | ErrorCode::DatabaseLocked => Some(Trouble::Held),
        _ => None,
    }
}

/// What the disk refused when the system said so.
pub(crate) fn trouble_of_disk(error: &std::io::Error) -> Option<Trouble> {
    match error.kind() {
        ErrorKind::StorageFull | ErrorKind::QuotaExceeded => Some(Trouble::Full),
        ErrorKind::ReadOnlyFilesystem => Some(Trouble::ReadOnly),
        ErrorKind::PermissionDenied => Some(Trouble::NotAllowed),
        _ => None,
    }
}

/// The words of a trouble, else of what was said.
pub(crate) fn said(trouble: Option<Trouble>, error: &impl Display) -> String {
    trouble.map_or_else(|| error.to_string(), |trouble| trouble.words().to_owned())
}
