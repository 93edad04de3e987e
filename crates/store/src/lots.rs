//! Lots: one weigh-in of one kind of fruit, drawn down by batches.

use bodega_core::fruit::{Condition, Fault, Kind};
use bodega_core::moment::Moment;
use rusqlite::{Connection, Row, params};
use serde::Serialize;

use crate::rows::{found, optional_word, word};
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
    /// Why it is not for jars.
    pub fault: Option<Fault>,
    /// Day that fruit on the sill is looked at again, `YYYY-MM-DD`.
    pub back_on: Option<String>,
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
    /// Why it is not for jars.
    pub fault: Option<Fault>,
    /// Day that fruit on the sill is looked at again.
    pub back_on: Option<String>,
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

const SELECT: &str = "SELECT lot.id, picked_on, kind, condition, fault, back_on, frozen, weight_g, left_g
                      FROM lot JOIN lot_left ON lot_left.lot_id = lot.id";

fn read(row: &Row<'_>) -> rusqlite::Result<Lot> {
    Ok(Lot {
        id: row.get("id")?,
        picked_on: row.get("picked_on")?,
        kind: word(row, "kind")?,
        condition: word(row, "condition")?,
        fault: optional_word(row, "fault")?,
        back_on: row.get("back_on")?,
        frozen: row.get("frozen")?,
        weight_g: row.get("weight_g")?,
        left_g: row.get("left_g")?,
    })
}

/// One lot, removed or not.
pub(crate) fn one(connection: &Connection, id: i64) -> Result<Lot, StoreError> {
    found(connection.query_row(&format!("{SELECT} WHERE lot.id = ?1"), [id], read), "lot", id)
}

fn insert(connection: &Connection, lot: &NewLot, now: Moment) -> Result<Lot, StoreError> {
    connection.execute(
        "INSERT INTO lot (picked_on, kind, condition, fault, back_on, frozen, weight_g, added_at)
         VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8)",
        params![
            lot.picked_on,
            lot.kind.word(),
            lot.condition.word(),
            lot.fault.map(Fault::word),
            lot.back_on,
            lot.frozen,
            lot.weight_g,
            now.0
        ],
    )?;
    one(connection, connection.last_insert_rowid())
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
        insert(&self.lock(), lot, now)
    }

    /// Weighs several lots in, all of them or none.
    ///
    /// # Errors
    /// As [`Self::add_lot`].
    pub fn add_lots(&self, lots: &[NewLot], now: Moment) -> Result<Vec<Lot>, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let added = lots.iter().map(|lot| insert(&transaction, lot, now)).collect::<Result<Vec<_>, _>>()?;
        transaction.commit()?;
        Ok(added)
    }

    /// Every lot that was weighed in, used up ones too, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn harvest(&self) -> Result<Vec<Lot>, StoreError> {
        let connection = self.lock();
        let sql = format!("{SELECT} WHERE removed_at IS NULL ORDER BY picked_on, lot.id");
        let mut statement = connection.prepare_cached(&sql)?;
        Ok(statement.query_map([], read)?.collect::<Result<_, _>>()?)
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
                // A lot that is sorted again is neither held nor out for its old reason.
                "UPDATE lot SET kind = coalesce(?2, kind), condition = coalesce(?3, condition),
                 fault = iif(?3 IS NULL, fault, NULL), back_on = iif(?3 IS NULL, back_on, NULL),
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
