//! Moves of food: what left a lot, a batch or the cold, and where it went.

use bodega_model::crates::fruit::{Condition, Kind, common_kind};
use bodega_model::ledger::food::{FoodPlace, Told};
use bodega_model::measures::ids::{BatchId, LotId, MoveId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::lot::NewLot;
use bodega_model::records::moved::{ColdFood, Moved, NewMove, Source};
use jiff::civil::Date;
use rusqlite::{Connection, OptionalExtension, Row, Transaction, params};

use crate::rows::{batch, found, lot, optional_word, row_of, word};
use crate::{Store, StoreError, crates};

fn read(row: &Row<'_>) -> rusqlite::Result<Moved> {
    Ok(Moved {
        id: MoveId(row.get("id")?),
        at: Moment(row.get("at")?),
        from_lot: row.get::<_, Option<i64>>("lot_id")?.map(LotId),
        from_batch: row.get::<_, Option<i64>>("batch_id")?.map(BatchId),
        from_cold: row.get::<_, Option<i64>>("cold_id")?.map(MoveId),
        food: word(row, "food")?,
        place: word(row, "place")?,
        told: Told { amount: row.get("amount")?, measure: word(row, "measure")? },
        weight_g: row.get("weight_g")?,
        packs: row.get("packs")?,
        to_lot: row.get::<_, Option<i64>>("to_lot")?.map(LotId),
    })
}

/// One move that counts.
fn one(connection: &Connection, id: MoveId) -> Result<Moved, StoreError> {
    let sql = "SELECT * FROM food_move WHERE id = ?1 AND undone_at IS NULL";
    found(row_of(connection, sql, [id.0], read), "part that went elsewhere", id.0)
}

/// Grams and packs that are left of what a move brought into the cold.
fn left_of(connection: &Connection, moved: &Moved) -> Result<(i64, Option<u32>), StoreError> {
    let sql = "SELECT coalesce(sum(weight_g), 0), coalesce(sum(packs), 0) FROM food_move
        WHERE cold_id = ?1 AND undone_at IS NULL";
    let (grams, packs): (i64, u32) =
        row_of(connection, sql, [moved.id.0], |row| Ok((row.get(0)?, row.get(1)?)))?;
    Ok((moved.weight_g - grams, moved.packs.map(|all| all.saturating_sub(packs))))
}

/// The kind of tomato that a batch was made of.
fn kind_of(connection: &Connection, of: BatchId) -> Result<Kind, StoreError> {
    let sql = "SELECT DISTINCT kind FROM batch_lot JOIN lot ON lot.id = lot_id WHERE batch_id = ?1";
    let mut statement = connection.prepare_cached(sql)?;
    let kinds = statement.query_map([of.0], |row| word(row, "kind"))?.collect::<Result<Vec<Kind>, _>>()?;
    Ok(common_kind(kinds).unwrap_or(Kind::Mixed))
}

/// The lot that food becomes which waits for other jars.
fn lot_of(connection: &Connection, new: &NewMove, now: Moment, day: Date) -> Result<LotId, StoreError> {
    let (kind, picked_on, from, frozen) = match new.from {
        Source::Batch(of) => (kind_of(connection, of)?, day, Some(of), false),
        Source::Lot(of) => {
            let of = lot::one(connection, of)?;
            (of.kind, of.picked_on, of.from_batch, of.frozen)
        }
        Source::Cold(of) => {
            let of = one(connection, of)?;
            let frozen = of.place == FoodPlace::Freezer;
            match (of.from_batch, of.from_lot) {
                (Some(batch), _) => (kind_of(connection, batch)?, day, Some(batch), frozen),
                (None, Some(of)) => {
                    let of = lot::one(connection, of)?;
                    (of.kind, of.picked_on, of.from_batch, frozen)
                }
                (None, None) => (Kind::Mixed, day, None, frozen),
            }
        }
    };
    let lot = NewLot {
        food: new.food,
        told: new.told.volume().map(|_| new.told),
        picked_on,
        kind,
        condition: Condition::FirmRipe,
        fault: None,
        back_on: None,
        frozen,
        weight_g: new.weight_g,
    };
    let id = crates::insert(connection, &lot, now)?.id;
    connection
        .execute("UPDATE lot SET from_batch = ?2 WHERE id = ?1", params![id.0, from.map(|from| from.0)])?;
    Ok(id)
}

/// Refuses to take more out of the cold than is there.
fn check_there(connection: &Connection, new: &NewMove) -> Result<(), StoreError> {
    match new.from {
        Source::Batch(of) => batch::check_on_line(connection, of),
        Source::Lot(of) => {
            let of = lot::on_line(connection, of)?;
            if of.left_g < new.weight_g {
                return Err(StoreError::Overdrawn { lot: of.id, left_g: of.left_g, wanted_g: new.weight_g });
            }
            Ok(())
        }
        Source::Cold(of) => {
            let there = one(connection, of)?;
            if !there.place.keeps() {
                return Err(StoreError::NotFound { what: "food in the cold", id: of.0 });
            }
            let (left_g, packs) = left_of(connection, &there)?;
            if left_g < new.weight_g || packs.zip(new.packs).is_some_and(|(left, wanted)| left < wanted) {
                return Err(StoreError::ColdShort { left_g, packs });
            }
            Ok(())
        }
    }
}

/// Writes a move down; what waits for other jars becomes a lot.
pub(crate) fn add(
    transaction: &Transaction<'_>,
    new: &NewMove,
    event: Option<i64>,
    now: Moment,
    day: Date,
) -> Result<Moved, StoreError> {
    check_there(transaction, new)?;
    let to_lot = (new.place == FoodPlace::Line).then(|| lot_of(transaction, new, now, day)).transpose()?;
    let (lot, of, cold) = match new.from {
        Source::Lot(lot) => (Some(lot.0), None, None),
        Source::Batch(of) => (None, Some(of.0), None),
        Source::Cold(cold) => (None, None, Some(cold.0)),
    };
    transaction.execute(
        "INSERT INTO food_move (lot_id, batch_id, cold_id, at, food, place, amount, measure, weight_g, packs, to_lot,
             cook_event_id) VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10, ?11, ?12)",
        params![
            lot,
            of,
            cold,
            now.0,
            new.food.word(),
            new.place.word(),
            new.told.amount,
            new.told.measure.word(),
            new.weight_g,
            new.packs,
            to_lot.map(|lot| lot.0),
            event
        ],
    )?;
    one(transaction, MoveId(transaction.last_insert_rowid()))
}

/// Takes a move back, with the lot that it became.
pub(crate) fn undo(transaction: &Transaction<'_>, moved: &Moved, now: Moment) -> Result<(), StoreError> {
    if moved.place.keeps() && left_of(transaction, moved)?.0 < moved.weight_g {
        return Err(StoreError::MovedOn);
    }
    if let Some(lot) = moved.to_lot {
        let lot = lot::one(transaction, lot)?;
        if lot.left_g < lot.weight_g {
            return Err(StoreError::MovedOn);
        }
        transaction.execute("UPDATE lot SET removed_at = ?2 WHERE id = ?1", params![lot.id.0, now.0])?;
    }
    transaction.execute("UPDATE food_move SET undone_at = ?2 WHERE id = ?1", params![moved.id.0, now.0])?;
    Ok(())
}

/// The move that says where what an entry of a kettle's log took off went.
pub(crate) fn of_event(connection: &Connection, event: i64) -> Result<Option<Moved>, StoreError> {
    let sql = "SELECT * FROM food_move WHERE cook_event_id = ?1 AND undone_at IS NULL";
    Ok(row_of(connection, sql, [event], read).optional()?)
}

impl Store {
    /// What left a batch, oldest first; what was taken back is left out.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn moves(&self, of: BatchId) -> Result<Vec<Moved>, StoreError> {
        let connection = self.read()?;
        let sql = "SELECT * FROM food_move WHERE batch_id = ?1 AND undone_at IS NULL ORDER BY id";
        let mut statement = connection.prepare_cached(sql)?;
        self.readable(statement.query_map([of.0], read)?)
    }

    /// One move that was not taken back.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn moved(&self, id: MoveId) -> Result<Moved, StoreError> {
        one(&*self.read()?, id)
    }

    /// Moves that left lots or the cold between two moments, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn moves_between(&self, from: Moment, before: Moment) -> Result<Vec<Moved>, StoreError> {
        let connection = self.read()?;
        let sql =
            "SELECT * FROM food_move WHERE batch_id IS NULL AND undone_at IS NULL AND at >= ?1 AND at < ?2
            ORDER BY id";
        let mut statement = connection.prepare_cached(sql)?;
        self.readable(statement.query_map([from.0, before.0], read)?)
    }

    /// Writes a move down.
    ///
    /// # Errors
    /// [`StoreError::NotFound`]; [`StoreError::Overdrawn`], [`StoreError::ColdShort`] when there is not so much.
    pub fn add_move(&self, new: &NewMove, now: Moment, day: Date) -> Result<Moved, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let moved = add(&transaction, new, None, now, day)?;
        transaction.commit()?;
        Ok(moved)
    }

    /// Takes one back; it stays in the file. What a kettle's log says of it goes with it.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there is none that counts; [`StoreError::MovedOn`] when some of it went further.
    pub fn undo_move(&self, id: MoveId, now: Moment) -> Result<(), StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let moved = one(&transaction, id)?;
        undo(&transaction, &moved, now)?;
        transaction.execute(
            "UPDATE cook_event SET undone_at = ?2 WHERE id = (SELECT cook_event_id FROM food_move WHERE id = ?1)",
            params![id.0, now.0],
        )?;
        Ok(transaction.commit()?)
    }

    /// Food in the refrigerator and the freezer, oldest first, with what is left of it.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn cold_food(&self) -> Result<Vec<ColdFood>, StoreError> {
        let connection = self.read()?;
        let sql = "SELECT food_move.*, code, product, thickness, name,
            food_move.weight_g - coalesce((SELECT sum(gone.weight_g) FROM food_move AS gone
                WHERE gone.cold_id = food_move.id AND gone.undone_at IS NULL), 0) AS left_g,
            food_move.packs - coalesce((SELECT sum(gone.packs) FROM food_move AS gone
                WHERE gone.cold_id = food_move.id AND gone.undone_at IS NULL), 0) AS left_packs
            FROM open_cold CROSS JOIN food_move ON food_move.id = move_id
            -- What went from the refrigerator into the freezer is still food of its batch.
            LEFT JOIN batch ON batch.id = (
                WITH RECURSIVE before (batch_id, cold_id) AS (
                    VALUES (food_move.batch_id, food_move.cold_id)
                    UNION ALL SELECT earlier.batch_id, earlier.cold_id
                    FROM before JOIN food_move AS earlier ON earlier.id = before.cold_id)
                SELECT batch_id FROM before WHERE batch_id IS NOT NULL)
            ORDER BY food_move.at, food_move.id";
        let mut statement = connection.prepare_cached(sql)?;
        let rows = statement.query_map([], |row| {
            let moved = read(row)?;
            Ok(ColdFood {
                id: moved.id,
                at: moved.at,
                food: moved.food,
                place: moved.place,
                left_g: row.get("left_g")?,
                told: moved.told,
                weight_g: moved.weight_g,
                packs: row.get("left_packs")?,
                code: row.get("code")?,
                named: row.get("name")?,
                product: optional_word(row, "product")?,
                thickness: optional_word(row, "thickness")?,
            })
        })?;
        self.readable(rows)
    }
}
