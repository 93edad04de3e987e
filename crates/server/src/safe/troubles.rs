//! What the disk refuses, said on every screen until it is over.

use std::sync::{Mutex, MutexGuard, PoisonError};

use bodega_store::{StoreError, Trouble};

/// What stands.
#[derive(Debug, Default)]
struct Standing {
    disk: Option<Trouble>,
    backup: Option<String>,
}

/// What the disk refused last.
#[derive(Debug, Default)]
pub struct Troubles {
    standing: Mutex<Standing>,
}

impl Troubles {
    fn lock(&self) -> MutexGuard<'_, Standing> {
        self.standing.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Remembers a refusal of the disk; `true` when it is a new one. A file that is held for a moment is none.
    pub fn met(&self, error: &StoreError) -> bool {
        let Some(trouble) = error.trouble().filter(|trouble| *trouble != Trouble::Held) else { return false };
        self.lock().disk.replace(trouble) != Some(trouble)
    }

    /// Whether the disk refused to write the last time.
    #[must_use]
    pub fn has_disk(&self) -> bool {
        self.lock().disk.is_some()
    }

    /// The disk writes again.
    pub fn disk_is_well(&self) {
        self.lock().disk = None;
    }

    /// How the daily backup went; `true` when that is news.
    pub fn backup_went(&self, failed: Option<String>) -> bool {
        let mut standing = self.lock();
        let is_news = standing.backup != failed;
        standing.backup = failed;
        is_news
    }

    /// What stands, as a person reads it.
    #[must_use]
    pub fn said(&self) -> Vec<String> {
        let standing = self.lock();
        let disk = standing.disk.map(|trouble| {
            let words = trouble.words();
            let first = words.chars().next().map(char::to_uppercase).into_iter().flatten();
            format!("{}.", first.chain(words.chars().skip(1)).collect::<String>())
        });
        let backup = standing
            .backup
            .as_ref()
            .map(|why| format!("Today's backup could not be made: {why}. It is tried again every minute."));
        disk.into_iter().chain(backup).collect()
    }
}
