//! Ticks of a batch's checklist.

use bodega_model::measures::ids::BatchId;
use rusqlite::{Connection, params};

use crate::rows::batch::stored;
use crate::rows::{found, row_of};
use crate::{Store, StoreError};

impl Store {
    /// Words of the lines of a batch's checklist that are ticked.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn ticks(&self, id: BatchId) -> Result<Vec<String>, StoreError> {
        ticks_of(&*self.read()?, id)
    }

    /// Ticks a line of a batch's checklist, or takes its tick off.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn tick(&self, id: BatchId, line: &str, done: bool) -> Result<Vec<String>, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let mut ticks = ticks_of(&transaction, id)?;
        ticks.retain(|ticked| ticked != line);
        if done {
            ticks.push(line.to_owned());
        }
        let kept = stored(Some(&ticks))?;
        transaction.execute("UPDATE batch SET ticks = ?2 WHERE id = ?1", params![id.0, kept])?;
        transaction.commit()?;
        Ok(ticks)
    }
}

/// Ticks that cannot be read are none: a list to work through stops nobody.
fn ticks_of(connection: &Connection, id: BatchId) -> Result<Vec<String>, StoreError> {
    let kept: Option<String> = found(
        row_of(connection, "SELECT ticks FROM batch WHERE id = ?1", [id.0], |row| row.get(0)),
        "batch",
        id.0,
    )?;
    Ok(kept.and_then(|kept| serde_json::from_str(&kept).ok()).unwrap_or_default())
}
