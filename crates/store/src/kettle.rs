//! Kettles, and what cooks down in them: the start and the log of each, nothing derived.

use bodega_model::measures::ids::{BatchId, CookId, KettleId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::batch::Draw;
use bodega_model::records::cook::{Cook, CookEvent, Kettle, NewCook, NewKettle};
use bodega_model::records::moved::NewMove;
use jiff::civil::Date;
use rusqlite::{Connection, OptionalExtension, params};

use crate::rows::cook::{one, read_kettle};
use crate::rows::{batch, check_name_free, found, ids, lot};
use crate::{Store, StoreError, moves};

/// Adds a line to the log; gives its number.
fn insert_event(
    connection: &Connection,
    cook: CookId,
    event: &CookEvent,
    drawn: Option<Draw>,
) -> Result<i64, StoreError> {
    connection.execute(
        "INSERT INTO cook_event (cook_id, at, what, value, simulated, sure, lot_id, lot_g) VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8)",
        params![
            cook.0,
            event.at.0,
            event.what.word(),
            event.value,
            event.simulated,
            event.sure,
            drawn.map(|drawn| drawn.lot.0),
            drawn.map(|drawn| drawn.weight_g)
        ],
    )?;
    Ok(connection.last_insert_rowid())
}

impl Store {
    /// One kettle.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn kettle(&self, id: KettleId) -> Result<Kettle, StoreError> {
        let connection = self.read()?;
        let kettle = connection.query_row("SELECT * FROM kettle WHERE id = ?1", [id.0], read_kettle);
        found(kettle, "kettle", id.0)
    }

    /// Kettles by name.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn kettles(&self) -> Result<Vec<Kettle>, StoreError> {
        self.caches.kettles.ask(self.version()?, (), || self.read_kettles())
    }

    fn read_kettles(&self) -> Result<Vec<Kettle>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached("SELECT * FROM kettle ORDER BY name")?;
        self.readable(statement.query_map([], read_kettle)?)
    }

    /// Adds a kettle.
    ///
    /// # Errors
    /// [`StoreError::NameTaken`] when one is called that already.
    pub fn add_kettle(&self, new: &NewKettle) -> Result<Kettle, StoreError> {
        let connection = self.lock();
        let name = new.name.as_str();
        check_name_free(&connection, "kettle", name, None)?;
        Ok(connection.query_row(
            "INSERT INTO kettle (name, inner_diameter_mm, depth_mm, heat, top_diameter_mm) VALUES (?1, ?2, ?3, ?4, ?5) RETURNING *",
            params![name, new.inner_diameter_mm, new.depth_mm, new.heat.word(), new.top_diameter_mm],
            read_kettle,
        )?)
    }

    /// Calibrates a kettle by pouring like measures into it, or takes the calibration back with no depths.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn calibrate_kettle(
        &self,
        id: KettleId,
        pour_l: f64,
        depths_mm: &[f64],
    ) -> Result<Kettle, StoreError> {
        let text = depths_mm.iter().map(ToString::to_string).collect::<Vec<_>>().join(" ");
        let straight = depths_mm.is_empty();
        found(
            self.lock().query_row(
                "UPDATE kettle SET pour_l = ?2, pour_depths_mm = ?3 WHERE id = ?1 RETURNING *",
                params![id.0, (!straight).then_some(pour_l), (!straight).then_some(text)],
                read_kettle,
            ),
            "kettle",
            id.0,
        )
    }

    /// Puts a kettle on.
    ///
    /// # Errors
    /// [`StoreError::KettleBusy`] while something cooks in it.
    pub fn start_cook(&self, new: &NewCook, now: Moment) -> Result<Cook, StoreError> {
        let connection = self.lock();
        let busy: Option<i64> = connection
            .query_row(
                "SELECT id FROM cook WHERE kettle_id = ?1 AND ended_at IS NULL AND removed_at IS NULL",
                [new.kettle.0],
                |row| row.get(0),
            )
            .optional()?;
        if busy.is_some() {
            return Err(StoreError::KettleBusy);
        }
        let thickens = new.shown.and_then(|shown| shown.thickens);
        connection.execute(
            "INSERT INTO cook (kettle_id, started_at, volume_l, brix, target, target_value, litres_per_hour, batch_id, setting,
                 start_c, rate_doubt, thickens, thickens_doubt)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10, ?11, ?12, ?13)",
            params![
                new.kettle.0,
                now.0,
                new.volume_l,
                new.brix,
                new.target.word(),
                new.target_value,
                new.litres_per_hour,
                new.batch.map(|batch| batch.0),
                new.setting.word(),
                new.start_c,
                new.shown.map(|shown| shown.rate_doubt),
                thickens.map(|(mean, _)| mean),
                thickens.map(|(_, doubt)| doubt),
            ],
        )?;
        one(&connection, CookId(connection.last_insert_rowid()))
    }

    /// One cook-down.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn cook(&self, id: CookId) -> Result<Cook, StoreError> {
        one(&*self.read()?, id)
    }

    /// Whether a batch has been on the stove and is off it.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn has_cooked(&self, batch: BatchId) -> Result<bool, StoreError> {
        let sql = "SELECT EXISTS (SELECT 1 FROM cook
            WHERE batch_id = ?1 AND ended_at IS NOT NULL AND removed_at IS NULL)";
        Ok(self.read()?.query_row(sql, [batch.0], |row| row.get(0))?)
    }

    /// Cook-downs on the stove.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn cooks(&self) -> Result<Vec<Cook>, StoreError> {
        self.caches.cooks.ask(self.version()?, (), || self.read_cooks())
    }

    fn read_cooks(&self) -> Result<Vec<Cook>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(
            "SELECT id FROM cook WHERE removed_at IS NULL AND ended_at IS NULL ORDER BY started_at, id",
        )?;
        let ids = ids(&mut statement, [], CookId)?;
        self.readable(ids.into_iter().map(|id| one(&connection, id)))
    }

    /// The last cook-downs of a kettle that were taken off, the latest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn last_cooks(&self, kettle: KettleId, most: usize) -> Result<Vec<Cook>, StoreError> {
        self.caches.last_cooks.ask(self.version()?, (kettle, most), || self.read_last_cooks(kettle, most))
    }

    fn read_last_cooks(&self, kettle: KettleId, most: usize) -> Result<Vec<Cook>, StoreError> {
        let connection = self.read()?;
        let mut statement = connection.prepare_cached(
            "SELECT id FROM cook WHERE removed_at IS NULL AND ended_at IS NOT NULL AND kettle_id = ?1
             ORDER BY ended_at DESC, id DESC LIMIT ?2",
        )?;
        let ids = ids(&mut statement, params![kettle.0, i64::try_from(most).unwrap_or(i64::MAX)], CookId)?;
        self.readable(ids.into_iter().map(|id| one(&connection, id)))
    }

    /// Every cook-down of a batch, on the stove or off it.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_cooks(&self, batch: BatchId) -> Result<Vec<Cook>, StoreError> {
        let connection = self.read()?;
        let sql = "SELECT id FROM cook WHERE batch_id = ?1 AND removed_at IS NULL ORDER BY started_at, id";
        let mut statement = connection.prepare_cached(sql)?;
        let ids = ids(&mut statement, [batch.0], CookId)?;
        self.readable(ids.into_iter().map(|id| one(&connection, id)))
    }

    /// Writes a reading or a touch down.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn add_cook_event(&self, cook: CookId, event: &CookEvent) -> Result<Cook, StoreError> {
        let connection = self.lock();
        one(&connection, cook)?;
        insert_event(&connection, cook, event, None)?;
        one(&connection, cook)
    }

    /// Writes down that something was taken off, and where it went.
    ///
    /// # Errors
    /// As [`Self::add_move`].
    pub fn take_off(
        &self,
        cook: CookId,
        event: &CookEvent,
        went: Option<&NewMove>,
        day: Date,
    ) -> Result<Cook, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        one(&transaction, cook)?;
        let line = insert_event(&transaction, cook, event, None)?;
        if let Some(went) = went {
            moves::add(&transaction, went, Some(line), event.at, day)?;
        }
        let done = one(&transaction, cook)?;
        transaction.commit()?;
        Ok(done)
    }

    /// Writes down that more went in, drawn from a lot for the kettle's batch.
    ///
    /// # Errors
    /// [`StoreError::Overdrawn`] when the lot does not hold so much; [`StoreError::NotFound`].
    pub fn add_more(&self, cook: CookId, event: &CookEvent, drawn: Option<Draw>) -> Result<Cook, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let batch = one(&transaction, cook)?.batch;
        if let (Some(drawn), Some(batch)) = (drawn, batch) {
            batch::check_on_line(&transaction, batch)?;
            let lot = lot::on_line(&transaction, drawn.lot)?;
            if lot.left_g < drawn.weight_g {
                return Err(StoreError::Overdrawn {
                    lot: lot.id,
                    left_g: lot.left_g,
                    wanted_g: drawn.weight_g,
                });
            }
            transaction.execute(
                "INSERT INTO batch_lot (batch_id, lot_id, weight_g) VALUES (?1, ?2, ?3)
                 ON CONFLICT (batch_id, lot_id) DO UPDATE SET weight_g = weight_g + excluded.weight_g",
                params![batch.0, drawn.lot.0, drawn.weight_g],
            )?;
        }
        insert_event(&transaction, cook, event, drawn.filter(|_| batch.is_some()))?;
        let done = one(&transaction, cook)?;
        transaction.commit()?;
        Ok(done)
    }

    /// Takes the last line of a moment out of the log; the record of it stays. What it moved goes back with it.
    ///
    /// # Errors
    /// [`StoreError::NothingToUndo`]; [`StoreError::MovedOn`] when some of what was taken off went further;
    /// [`StoreError::NotFound`].
    pub fn undo_cook_event(&self, cook: CookId, at: Moment, now: Moment) -> Result<Cook, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let batch = one(&transaction, cook)?.batch;
        let sql =
            "SELECT id, undone_at IS NOT NULL, lot_id, lot_g FROM cook_event WHERE cook_id = ?1 AND at = ?2
            ORDER BY id DESC LIMIT 1";
        let line = transaction.query_row(sql, params![cook.0, at.0], |row| {
            Ok((row.get(0)?, row.get(1)?, row.get(2)?, row.get(3)?))
        });
        let (line, is_undone, lot, lot_g): (i64, bool, Option<i64>, Option<i64>) =
            line.optional()?.ok_or(StoreError::NothingToUndo)?;
        if !is_undone {
            if let Some(moved) = moves::of_event(&transaction, line)? {
                moves::undo(&transaction, &moved, now)?;
            }
            if let (Some(lot), Some(lot_g), Some(batch)) = (lot, lot_g, batch) {
                // A draw that comes to nothing is none.
                transaction.execute(
                    "DELETE FROM batch_lot WHERE batch_id = ?1 AND lot_id = ?2 AND weight_g <= ?3",
                    params![batch.0, lot, lot_g],
                )?;
                transaction.execute(
                    "UPDATE batch_lot SET weight_g = weight_g - ?3 WHERE batch_id = ?1 AND lot_id = ?2",
                    params![batch.0, lot, lot_g],
                )?;
            }
            transaction
                .execute("UPDATE cook_event SET undone_at = ?2 WHERE id = ?1", params![line, now.0])?;
        }
        let done = one(&transaction, cook)?;
        transaction.commit()?;
        Ok(done)
    }

    /// Writes down whether somebody stands by the last line of a moment.
    ///
    /// # Errors
    /// [`StoreError::NothingToUndo`] when there is none; [`StoreError::NotFound`].
    pub fn stand_by_reading(&self, cook: CookId, at: Moment, sure: bool) -> Result<Cook, StoreError> {
        let connection = self.lock();
        one(&connection, cook)?;
        let done = connection.execute(
            "UPDATE cook_event SET sure = ?3 WHERE id = (SELECT id FROM cook_event
                 WHERE cook_id = ?1 AND at = ?2 AND undone_at IS NULL ORDER BY id DESC LIMIT 1)",
            params![cook.0, at.0, sure],
        )?;
        if done == 0 {
            return Err(StoreError::NothingToUndo);
        }
        one(&connection, cook)
    }

    /// Takes a kettle off the stove, or puts it back.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn end_cook(&self, cook: CookId, ended: bool, now: Moment) -> Result<Cook, StoreError> {
        let connection = self.lock();
        connection.execute(
            "UPDATE cook SET ended_at = ?2 WHERE id = ?1",
            params![cook.0, ended.then_some(now.0)],
        )?;
        one(&connection, cook)
    }
}
