//! Lots: one weigh-in of one kind of fruit, drawn down by batches.

use bodega_model::crates::fruit::{Condition, Fault, Kind};
use bodega_model::measures::ids::LotId;
use bodega_model::measures::moment::Moment;
use bodega_model::records::lot::{Lot, LotChange, NewLot};
use rusqlite::{Connection, params};

use crate::rows::lot::{SELECT, one, read};
use crate::{Store, StoreError};

pub(crate) fn insert(connection: &Connection, lot: &NewLot, now: Moment) -> Result<Lot, StoreError> {
    connection.execute(
        "INSERT INTO lot (picked_on, kind, condition, fault, back_on, frozen, weight_g, added_at, food, amount, measure)
         VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10, ?11)",
        params![
            lot.picked_on.to_string(),
            lot.kind.word(),
            lot.condition.word(),
            lot.fault.map(Fault::word),
            lot.back_on.map(|day| day.to_string()),
            lot.frozen,
            lot.weight_g,
            now.0,
            lot.food.word(),
            lot.told.map(|told| told.amount),
            lot.told.map(|told| told.measure.word())
        ],
    )?;
    one(connection, LotId(connection.last_insert_rowid()))
}

/// Lots that say what usually comes in.
const RECENT_LOTS: u32 = 30;

impl Store {
    /// One lot.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn lot(&self, id: LotId) -> Result<Lot, StoreError> {
        one(&*self.read()?, id)
    }

    /// Lots with fruit left, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn lots(&self) -> Result<Vec<Lot>, StoreError> {
        self.caches.lots.ask(self.version()?, (), || self.read_lots())
    }

    fn read_lots(&self) -> Result<Vec<Lot>, StoreError> {
        let connection = self.read()?;
        let sql =
            format!("{SELECT} WHERE lot.id IN (SELECT lot_id FROM open_lot) ORDER BY picked_on, lot.id");
        let mut statement = connection.prepare_cached(&sql)?;
        self.readable(statement.query_map([], read)?)
    }

    /// Whether nothing has ever come in: no lot.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn is_new(&self) -> Result<bool, StoreError> {
        let sql = "SELECT NOT EXISTS (SELECT 1 FROM lot LIMIT 1)";
        Ok(self.read()?.prepare_cached(sql)?.query_row([], |row| row.get(0))?)
    }

    /// Weights of the last lots of fruit that came in, in grams, the newest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn recent_weights(&self) -> Result<Vec<i64>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(
            "SELECT weight_g FROM (SELECT weight_g, food, removed_at FROM lot ORDER BY id DESC LIMIT ?1)
             WHERE removed_at IS NULL AND food = 'fruit'",
        )?;
        let rows = statement.query_map([RECENT_LOTS], |row| row.get(0))?;
        Ok(rows.collect::<Result<_, _>>()?)
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

    /// Tells everything that was weighed in, used up lots too, oldest first; what another batch gave is no harvest.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read; [`StoreError::NotTaken`].
    pub fn harvest(&self, tell: impl FnMut(Lot) -> std::io::Result<()>) -> Result<(), StoreError> {
        let sql =
            format!("{SELECT} WHERE lot.removed_at IS NULL AND NOT moved_in ORDER BY picked_on, lot.id");
        self.look_long(|connection| self.tell(connection.prepare(&sql)?.query_map([], read)?, tell))
    }

    /// What came onto the line between two moments, used up or not, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn lots_between(&self, from: Moment, before: Moment) -> Result<Vec<Lot>, StoreError> {
        let connection = self.read()?;
        let sql = format!(
            "{SELECT} WHERE lot.removed_at IS NULL AND added_at >= ?1 AND added_at < ?2 ORDER BY lot.id"
        );
        let mut statement = connection.prepare_cached(&sql)?;
        self.readable(statement.query_map([from.0, before.0], read)?)
    }

    /// Names a lot and writes a note beside it; nothing takes either away.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn name_lot(&self, id: LotId, name: Option<&str>, note: Option<&str>) -> Result<Lot, StoreError> {
        let connection = self.lock();
        connection
            .execute("UPDATE lot SET name = ?2, note = ?3 WHERE id = ?1", params![id.0, name, note])
            .map_err(StoreError::from_write)?;
        one(&connection, id)
    }

    /// Corrects a lot, takes it off the line or puts it back.
    ///
    /// # Errors
    /// [`StoreError::NotFound`]; [`StoreError::BelowZero`] when batches have drawn more than the new weight.
    pub fn change_lot(&self, id: LotId, change: &LotChange, now: Moment) -> Result<Lot, StoreError> {
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
                    id.0,
                    change.kind.map(Kind::word),
                    change.condition.map(Condition::word),
                    change.weight_g
                ],
            )
            .map_err(StoreError::from_write)?;
        for (column, since) in [("chilled_at", change.chilled), ("thawed_at", change.thawed)] {
            let Some(since) = since else { continue };
            transaction.execute(
                &format!("UPDATE lot SET {column} = ?2 WHERE id = ?1"),
                params![id.0, since.then_some(now.0)],
            )?;
        }
        if let Some(removed) = change.removed {
            transaction.execute(
                "UPDATE lot SET removed_at = ?2 WHERE id = ?1",
                params![id.0, removed.then_some(now.0)],
            )?;
        }
        let lot = one(&transaction, id)?;
        transaction.commit()?;
        Ok(lot)
    }
}
