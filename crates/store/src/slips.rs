//! What takes longer, or less long, than the day's plan thought.

use rusqlite::params;

use crate::{Store, StoreError};

impl Store {
    /// Minutes that blocks of the day slip by, by their lasting names.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn slips(&self) -> Result<Vec<(String, i64)>, StoreError> {
        let connection = self.lock();
        let mut statement =
            connection.prepare_cached("SELECT block, minutes FROM day_slip ORDER BY block")?;
        let rows = statement.query_map([], |row| Ok((row.get(0)?, row.get(1)?)))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Says that a block takes so many minutes longer than was thought; zero takes it back.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written.
    pub fn set_slip(&self, block: &str, minutes: i64) -> Result<(), StoreError> {
        let connection = self.lock();
        if minutes == 0 {
            connection.execute("DELETE FROM day_slip WHERE block = ?1", [block])?;
        } else {
            connection.execute(
                "INSERT OR REPLACE INTO day_slip (block, minutes) VALUES (?1, ?2)",
                params![block, minutes],
            )?;
        }
        Ok(())
    }
}
