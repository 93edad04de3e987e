//! What left a batch beside its jars.

use bodega_core::ledger::{Food, FoodPlace, Told};
use bodega_core::measures::ids::{BatchId, MoveId};
use bodega_core::measures::moment::Moment;
use bodega_core::records::moved::Moved;
use rusqlite::{Row, params};

use crate::rows::{batch, word};
use crate::{Store, StoreError};

fn read(row: &Row<'_>) -> rusqlite::Result<Moved> {
    Ok(Moved {
        id: MoveId(row.get("id")?),
        at: Moment(row.get("at")?),
        food: word(row, "food")?,
        place: word(row, "place")?,
        told: Told { amount: row.get("amount")?, measure: word(row, "measure")? },
    })
}

impl Store {
    /// What left a batch, oldest first; what was taken back is left out.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn moves(&self, of: BatchId) -> Result<Vec<Moved>, StoreError> {
        let connection = self.lock();
        let sql = "SELECT * FROM food_move WHERE batch_id = ?1 AND undone_at IS NULL ORDER BY id";
        let mut statement = connection.prepare_cached(sql)?;
        self.readable(statement.query_map([of.0], read)?)
    }

    /// Writes down what left a batch.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is no such batch.
    pub fn add_move(
        &self,
        of: BatchId,
        (food, place): (Food, FoodPlace),
        told: Told,
        now: Moment,
    ) -> Result<MoveId, StoreError> {
        let connection = self.lock();
        batch::one(&connection, of)?;
        connection.execute(
            "INSERT INTO food_move (batch_id, at, food, place, amount, measure) VALUES (?1, ?2, ?3, ?4, ?5, ?6)",
            params![of.0, now.0, food.word(), place.word(), told.amount, told.measure.word()],
        )?;
        Ok(MoveId(connection.last_insert_rowid()))
    }

    /// Takes one back; it stays in the file.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is none that counts.
    pub fn undo_move(&self, id: MoveId, now: Moment) -> Result<(), StoreError> {
        let sql = "UPDATE food_move SET undone_at = ?2 WHERE id = ?1 AND undone_at IS NULL";
        match self.lock().execute(sql, params![id.0, now.0])? {
            0 => Err(StoreError::NotFound { what: "part that went elsewhere", id: id.0 }),
            _ => Ok(()),
        }
    }
}
