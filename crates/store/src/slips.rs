//! What takes longer, or less long, than the day's plan thought.

use rusqlite::params;

use crate::{Store, StoreError};

/// A block that took longer than thought.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Slip {
    /// Its lasting name.
    pub block: String,
    /// Minutes longer.
    pub minutes: i64,
    /// Minutes that were thought.
    pub thought: u32,
}

impl Store {
    /// Minutes that blocks of the day slip by, by their lasting names.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn slips(&self) -> Result<Vec<Slip>, StoreError> {
        let connection = self.lock();
        let mut statement = connection.prepare_cached("SELECT * FROM day_slip ORDER BY block")?;
        let rows = statement.query_map([], |row| {
            Ok(Slip { block: row.get("block")?, minutes: row.get("minutes")?, thought: row.get("thought")? })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Says that a block takes so many minutes longer than was thought; zero takes it back.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written.
    pub fn set_slip(&self, slip: &Slip) -> Result<(), StoreError> {
        let connection = self.lock();
        if slip.minutes == 0 {
            connection.execute("DELETE FROM day_slip WHERE block = ?1", [&slip.block])?;
        } else {
            connection.execute(
                "INSERT OR REPLACE INTO day_slip (block, minutes, thought) VALUES (?1, ?2, ?3)",
                params![slip.block, slip.minutes, slip.thought],
            )?;
        }
        Ok(())
    }
}
