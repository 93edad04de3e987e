//! What the disk refuses, said on every screen until it is over.

use std::sync::{Mutex, MutexGuard, PoisonError};

use bodega_model::measures::words::capital;
use bodega_store::{StoreError, Trouble};

/// What stands.
#[derive(Debug, Default)]
struct Standing {
    disk: Option<Trouble>,
    backup: Option<String>,
    damage: Option<String>,
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

    /// The records were found to be damaged.
    pub fn damaged(&self, what: String) {
        self.lock().damage = Some(what);
    }

    /// What stands, as a person reads it.
    #[must_use]
    pub fn said(&self) -> Vec<String> {
        let standing = self.lock();
        let disk = standing.disk.map(|trouble| format!("{}.", capital(trouble.words())));
        let backup = standing
            .backup
            .as_ref()
            .map(|why| format!("Today's backup could not be made: {why}. It is tried again every minute."));
        let damage = standing.damage.as_ref().map(|what| {
            format!(
                "The records are damaged ({what}). Stop Bodega and bring a backup back with \"bodega restore\"; the \
                 backups are listed in Kitchen."
            )
        });
        damage.into_iter().chain(disk).chain(backup).collect()
    }
}

#[cfg(test)]
mod tests {
    use bodega_store::StoreError;

    use super::Troubles;

    fn disk(kind: std::io::ErrorKind) -> StoreError {
        StoreError::Directory { cause: kind.into() }
    }

    #[test]
    fn what_stands_is_said_until_it_is_over_and_is_news_once() {
        use std::io::ErrorKind::{NotFound, StorageFull};
        let troubles = Troubles::default();
        assert!(!troubles.met(&disk(NotFound)) && !troubles.has_disk(), "this is no refusal of the disk");
        assert!(troubles.met(&disk(StorageFull)) && !troubles.met(&disk(StorageFull)));
        assert!(troubles.backup_went(Some("the disk is full".to_owned())));
        assert!(!troubles.backup_went(Some("the disk is full".to_owned())), "said once");
        assert_eq!(troubles.said().len(), 2);
        assert!(troubles.said()[0].starts_with("The disk is full; nothing was written."));
        troubles.disk_is_well();
        assert!(troubles.backup_went(None) && troubles.said().is_empty());
        troubles.damaged("page 7 is never used".to_owned());
        assert!(troubles.said()[0].contains("page 7"), "damage stands until the program is started anew");
    }
}
