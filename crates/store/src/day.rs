//! What is said of the blocks of the day: that they take longer, begin, and are done. The household's own pace is learned
//! from those that were said to begin and to be done, and from the jars.

use bodega_model::measures::moment::Moment;
use bodega_model::records::day::{BlockNote, Mark};
use rusqlite::{Connection, params};

use crate::rows::moment;
use crate::{Store, StoreError};

/// Loads of jars, the newest first, that the pace of filling is learned from.
const FILLED_LOADS: u32 = 30;

impl Store {
    /// What was said of the blocks of the day.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn block_notes(&self) -> Result<Vec<BlockNote>, StoreError> {
        self.caches.block_notes.ask(self.version()?, (), || self.read_block_notes())
    }

    fn read_block_notes(&self) -> Result<Vec<BlockNote>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached("SELECT * FROM day_slip ORDER BY block")?;
        let rows = statement.query_map([], |row| {
            Ok(BlockNote {
                block: row.get("block")?,
                slip: row.get("minutes")?,
                usual: row.get("thought")?,
                began_at: moment(row, "began_at")?,
                ended_at: moment(row, "ended_at")?,
            })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Says that a block takes so many minutes longer than planned; zero takes it back.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written.
    pub fn set_slip(&self, block: &str, usual: u32, slip: i64) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        transaction.execute(
            "INSERT INTO day_slip (block, thought, minutes) VALUES (?1, ?2, ?3)
             ON CONFLICT (block) DO UPDATE SET minutes = excluded.minutes",
            params![block, usual, slip],
        )?;
        forget_empty(&transaction)?;
        Ok(transaction.commit()?)
    }

    /// Says how far a block is. What was begun before keeps the moment at which it began.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written.
    pub fn mark_block(&self, block: &str, usual: u32, mark: Mark, now: Moment) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        transaction.execute(
            "INSERT INTO day_slip (block, thought, minutes) VALUES (?1, ?2, 0)
             ON CONFLICT (block) DO UPDATE SET thought = excluded.thought",
            params![block, usual],
        )?;
        let began_at: Option<i64> =
            transaction
                .query_row("SELECT began_at FROM day_slip WHERE block = ?1", [block], |row| row.get(0))?;
        let (began_at, ended_at) = match mark {
            Mark::Waits => (None, None),
            Mark::Begun => (began_at.or(Some(now.0)), None),
            Mark::Done => (began_at, Some(now.0)),
        };
        transaction.execute(
            "UPDATE day_slip SET began_at = ?2, ended_at = ?3 WHERE block = ?1",
            params![block, began_at, ended_at],
        )?;
        forget_empty(&transaction)?;
        Ok(transaction.commit()?)
    }

    /// Jars of past loads, and how long each load took to fill, from the first acid to the last lid.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn filling_times(&self) -> Result<Vec<(u32, Moment, Moment)>, StoreError> {
        self.caches.filling_times.ask(self.version()?, (), || self.read_filling_times())
    }

    fn read_filling_times(&self) -> Result<Vec<(u32, Moment, Moment)>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(
            "SELECT count(*), min(acid_at), max(lid_at) FROM jar
             WHERE load_id > (SELECT max(id) FROM canner_load) - ?1 AND NOT EXISTS (
                 SELECT 1 FROM jar_past WHERE jar_past.jar_id = jar.id)
             GROUP BY load_id HAVING min(lid_at IS NOT NULL) = 1 AND min(acid_at IS NOT NULL) = 1",
        )?;
        let rows = statement
            .query_map([FILLED_LOADS], |row| Ok((row.get(0)?, Moment(row.get(1)?), Moment(row.get(2)?))))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

/// A block of which nothing is said has no record.
fn forget_empty(connection: &Connection) -> Result<(), StoreError> {
    connection
        .execute("DELETE FROM day_slip WHERE minutes = 0 AND began_at IS NULL AND ended_at IS NULL", [])?;
    Ok(())
}
