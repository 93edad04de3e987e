//! Kettles, and what cooks down in them: the start and the log of each, nothing derived.

use bodega_core::measures::ids::{BatchId, CookId, KettleId};
use bodega_core::measures::moment::Moment;
use bodega_core::records::cook::{Cook, CookEvent, Kettle, NewCook, NewKettle};
use rusqlite::{OptionalExtension, params};

use crate::rows::cook::{one, read_kettle};
use crate::rows::{check_name_free, found, ids};
use crate::{Store, StoreError};

impl Store {
    /// One kettle.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn kettle(&self, id: KettleId) -> Result<Kettle, StoreError> {
        let connection = self.lock();
        let kettle = connection.query_row("SELECT * FROM kettle WHERE id = ?1", [id.0], read_kettle);
        found(kettle, "kettle", id.0)
    }

    /// Kettles by name.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn kettles(&self) -> Result<Vec<Kettle>, StoreError> {
        let connection = self.lock();
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
            "INSERT INTO kettle (name, inner_diameter_mm, depth_mm, heat) VALUES (?1, ?2, ?3, ?4) RETURNING *",
            params![name, new.inner_diameter_mm, new.depth_mm, new.heat.word()],
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
        connection.execute(
            "INSERT INTO cook (kettle_id, started_at, volume_l, brix, target, target_value, litres_per_hour, batch_id, setting)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9)",
            params![
                new.kettle.0,
                now.0,
                new.volume_l,
                new.brix,
                new.target.word(),
                new.target_value,
                new.litres_per_hour,
                new.batch.map(|batch| batch.0),
                new.setting.word()
            ],
        )?;
        one(&connection, CookId(connection.last_insert_rowid()))
    }

    /// One cook-down.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn cook(&self, id: CookId) -> Result<Cook, StoreError> {
        one(&self.lock(), id)
    }

    /// Whether a batch has been on the stove and is off it.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn has_cooked(&self, batch: BatchId) -> Result<bool, StoreError> {
        let sql = "SELECT EXISTS (SELECT 1 FROM cook
            WHERE batch_id = ?1 AND ended_at IS NOT NULL AND removed_at IS NULL)";
        Ok(self.lock().query_row(sql, [batch.0], |row| row.get(0))?)
    }

    /// Cook-downs on the stove (`ended` false), or all that were taken off.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn cooks(&self, ended: bool) -> Result<Vec<Cook>, StoreError> {
        let connection = self.lock();
        let mut statement = connection.prepare_cached(
            "SELECT id FROM cook WHERE removed_at IS NULL AND (ended_at IS NOT NULL) = ?1 ORDER BY started_at, id",
        )?;
        let ids = ids(&mut statement, [ended], CookId)?;
        self.readable(ids.into_iter().map(|id| one(&connection, id)))
    }

    /// Every cook-down of a batch, on the stove or off it.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_cooks(&self, batch: BatchId) -> Result<Vec<Cook>, StoreError> {
        let connection = self.lock();
        let sql = "SELECT id FROM cook WHERE batch_id = ?1 AND removed_at IS NULL ORDER BY started_at, id";
        let mut statement = connection.prepare_cached(sql)?;
        let ids = ids(&mut statement, [batch.0], CookId)?;
        self.readable(ids.into_iter().map(|id| one(&connection, id)))
    }

    /// Writes a reading or a drain down.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn add_cook_event(&self, cook: CookId, event: &CookEvent) -> Result<Cook, StoreError> {
        let connection = self.lock();
        one(&connection, cook)?;
        connection.execute(
            "INSERT INTO cook_event (cook_id, at, what, value, simulated) VALUES (?1, ?2, ?3, ?4, ?5)",
            params![cook.0, event.at.0, event.what.word(), event.value, event.simulated],
        )?;
        one(&connection, cook)
    }

    /// Takes the last line of the log back; the record of it stays.
    ///
    /// # Errors
    /// [`StoreError::NothingToUndo`]; [`StoreError::NotFound`].
    pub fn undo_cook_event(&self, cook: CookId, at: Moment, now: Moment) -> Result<Cook, StoreError> {
        let connection = self.lock();
        let changed = connection.execute(
            "UPDATE cook_event SET undone_at = coalesce(undone_at, ?3) WHERE id =
             (SELECT max(id) FROM cook_event WHERE cook_id = ?1 AND at = ?2)",
            params![cook.0, at.0, now.0],
        )?;
        if changed == 0 {
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
