//! Lots: one weigh-in of one kind of fruit, drawn down by batches.

use bodega_core::fruit::{Condition, Kind};
use bodega_core::moment::Moment;
use rusqlite::{Connection, Row, params};
use serde::Serialize;

use crate::rows::{found, word};
use crate::{Store, StoreError};

/// A lot with what is left of it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Lot {
    /// Number of the record.
    pub id: i64,
    /// Day it was picked or bought, `YYYY-MM-DD`.
    pub picked_on: String,
    /// Kind of tomato.
    pub kind: Kind,
    /// Condition at sorting.
    pub condition: Condition,
    /// Frozen fruit thaws with free water and slips its skins.
    pub frozen: bool,
    /// Grams weighed in.
    pub weight_g: i64,
    /// Grams no batch has drawn.
    pub left_g: i64,
}

/// A weigh-in.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NewLot {
    /// Day it was picked, `YYYY-MM-DD`.
    pub picked_on: String,
    /// Kind of tomato.
    pub kind: Kind,
    /// Condition at sorting.
    pub condition: Condition,
    /// Frozen or fresh.
    pub frozen: bool,
    /// Grams.
    pub weight_g: i64,
}

/// A correction; absent fields stay.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct LotChange {
    /// New kind.
    pub kind: Option<Kind>,
    /// New condition.
    pub condition: Option<Condition>,
    /// New weight in grams.
    pub weight_g: Option<i64>,
    /// Taken off the line, or put back.
    pub removed: Option<bool>,
}

const SELECT: &str = "SELECT lot.id, picked_on, kind, condition, frozen, weight_g, left_g
                      FROM lot JOIN lot_left ON lot_left.lot_id = lot.id";

fn read(row: &Row<'_>) -> rusqlite::Result<Lot> {
    Ok(Lot {
        id: row.get("id")?,
        picked_on: row.get("picked_on")?,
        kind: word(row, "kind")?,
        condition: word(row, "condition")?,
        frozen: row.get("frozen")?,
        weight_g: row.get("weight_g")?,
        left_g: row.get("left_g")?,
    })
}

/// One lot, removed or not.
pub(crate) fn one(connection: &Connection, id: i64) -> Result<Lot, StoreError> {
    found(connection.query_row(&format!("{SELECT} WHERE lot.id = ?1"), [id], read), "lot", id)
}

impl Store {
    /// Lots with fruit left, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn lots(&self) -> Result<Vec<Lot>, StoreError> {
        let connection = self.lock();
        let sql = format!("{SELECT} WHERE removed_at IS NULL AND left_g > 0 ORDER BY picked_on, lot.id");
        let mut statement = connection.prepare_cached(&sql)?;
        Ok(statement.query_map([], read)?.collect::<Result<_, _>>()?)
    }

    /// Weighs a lot in.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be written or a value breaks the schema.
    pub fn add_lot(&self, lot: &NewLot, now: Moment) -> Result<Lot, StoreError> {
        let connection = self.lock();
        connection.execute(
            "INSERT INTO lot (picked_on, kind, condition, frozen, weight_g, added_at) VALUES (?1, ?2, ?3, ?4, ?5, ?6)",
            params![lot.picked_on, lot.kind.word(), lot.condition.word(), lot.frozen, lot.weight_g, now.0],
        )?;
        one(&connection, connection.last_insert_rowid())
    }

    /// Corrects a lot, takes it off the line or puts it back.
    ///
    /// # Errors
    /// [`StoreError::NotFound`]; [`StoreError::BelowZero`] when batches have drawn more than the new weight.
    pub fn change_lot(&self, id: i64, change: &LotChange, now: Moment) -> Result<Lot, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        one(&transaction, id)?;
        transaction
            .execute(
                "UPDATE lot SET kind = coalesce(?2, kind), condition = coalesce(?3, condition),
                 weight_g = coalesce(?4, weight_g) WHERE id = ?1",
                params![
                    id,
                    change.kind.map(Kind::word),
                    change.condition.map(Condition::word),
                    change.weight_g
                ],
            )
            .map_err(StoreError::from_write)?;
        if let Some(removed) = change.removed {
            transaction.execute(
                "UPDATE lot SET removed_at = ?2 WHERE id = ?1",
                params![id, removed.then_some(now.0)],
            )?;
        }
        let lot = one(&transaction, id)?;
        transaction.commit()?;
        Ok(lot)
    }
}
