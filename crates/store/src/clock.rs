//! The kitchen's clock from one run of the program to the next, and loads that nobody timed in between.

use bodega_model::canner::events::{BoilEvent, Phase};
use bodega_model::measures::ids::LoadId;
use bodega_model::measures::moment::Moment;
use rusqlite::{OptionalExtension, params};

use crate::{Store, StoreError};

/// What is kept of a clock.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct KeptClock {
    /// Which run of the machine: another one after each start.
    pub run: String,
    /// What the clock shows beyond the machine's steady clock, in milliseconds.
    pub offset: i64,
    /// What it showed when it was written down.
    pub seen: Moment,
}

impl Store {
    /// The clock as it was kept last; `None` in records that never had one.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn kept_clock(&self) -> Result<Option<KeptClock>, StoreError> {
        let read = |row: &rusqlite::Row<'_>| {
            Ok(KeptClock { run: row.get(0)?, offset: row.get(1)?, seen: Moment(row.get(2)?) })
        };
        Ok(self.read()?.query_row("SELECT run, offset, seen FROM kept_clock", [], read).optional()?)
    }

    /// Keeps the clock.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written.
    pub fn keep_clock(&self, clock: &KeptClock) -> Result<(), StoreError> {
        self.lock().execute(
            "INSERT OR REPLACE INTO kept_clock (id, run, offset, seen) VALUES (1, ?1, ?2, ?3)",
            params![clock.run, clock.offset, clock.seen.0],
        )?;
        Ok(())
    }

    /// Writes down of every load in a canner that the machine's clock was set meanwhile.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read or written.
    pub fn note_clock_set(&self, now: Moment) -> Result<(), StoreError> {
        for load in self.open_loads()?.iter().filter(|load| load.clock.has_begun()) {
            self.note(load.id, BoilEvent::ClockSet, now)?;
        }
        Ok(())
    }

    fn note(&self, load: LoadId, event: BoilEvent, now: Moment) -> Result<(), StoreError> {
        let sql = "INSERT INTO load_event (load_id, event, at) VALUES (?1, ?2, ?3)";
        self.lock().execute(sql, params![load.0, event.word(), now.0])?;
        Ok(())
    }

    /// Writes down of every load that counted when the machine was last seen that nobody timed it since; one whose time was
    /// full by then is done. Returns which.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read or written.
    pub fn mark_unwatched(&self, seen: Option<Moment>, now: Moment) -> Result<Vec<LoadId>, StoreError> {
        let mut marked = Vec::new();
        for load in self.open_loads()? {
            let was_full = seen.is_some_and(|seen| matches!(load.clock.phase(seen), Phase::TimeUp { .. }));
            let counts = matches!(
                load.clock.phase(now),
                Phase::Counting { .. } | Phase::TimeUp { .. } | Phase::Venting { .. } | Phase::Vented { .. }
            );
            if counts && !was_full {
                self.note(load.id, BoilEvent::Unwatched, now)?;
                marked.push(load.id);
            }
        }
        Ok(marked)
    }
}
