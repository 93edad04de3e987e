//! Who has a data directory: one program at a time.

use std::fs::{File, TryLockError};
use std::path::Path;
use std::time::Duration;

use crate::StoreError;
use crate::files::{open_private, private_directory};

/// Name of the file that is locked; it stays, and says nothing by being there.
const LOCK: &str = "bodega.lock";

/// How often the lock is tried for, a pause apart.
const TRIES: u32 = 20;
const PAUSE: Duration = Duration::from_millis(25);

/// A data directory that is this program's until the value is dropped. The system lets go of it when the program ends,
/// however it ends.
#[derive(Debug)]
pub struct DataLock {
    _file: File,
}

impl DataLock {
    /// Takes a directory, making it when absent.
    ///
    /// # Errors
    /// [`StoreError::InUse`] when another program has it; [`StoreError::Directory`] when it cannot be used.
    pub fn take(directory: &Path) -> Result<Self, StoreError> {
        private_directory(directory)?;
        let file = open_private(&directory.join(LOCK))?;
        for _ in 0..TRIES {
            match file.try_lock() {
                Ok(()) => return Ok(Self { _file: file }),
                // A program that has just ended lets go in a moment.
                Err(TryLockError::WouldBlock) => std::thread::sleep(PAUSE),
                Err(TryLockError::Error(cause)) => return Err(StoreError::Directory { cause }),
            }
        }
        Err(StoreError::InUse { directory: directory.display().to_string() })
    }
}
