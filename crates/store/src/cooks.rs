//! Kettles, and what cooks down in them: the start and the log of each, nothing derived.

use bodega_core::kettle::{CookWhat, HeatSetting, KettleHeat, TargetKind};
use bodega_core::moment::Moment;
use rusqlite::{Connection, OptionalExtension, Row, params};
use serde::Serialize;

use crate::rows::{check_name_free, found, moment, word};
use crate::{Store, StoreError};

/// A kettle of the household.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Kettle {
    /// Number of the record.
    pub id: i64,
    /// What the household calls it.
    pub name: String,
    /// Inner width in millimetres.
    pub inner_diameter_mm: f64,
    /// Inner depth in millimetres.
    pub depth_mm: f64,
    /// Where it stands while it cooks down.
    pub heat: KettleHeat,
    /// Litres of one poured measure, when it was calibrated.
    pub pour_l: Option<f64>,
    /// Depth in millimetres after each poured measure; empty for straight walls.
    pub pour_depths_mm: Vec<f64>,
}

/// A kettle to add.
#[derive(Debug, Clone, PartialEq)]
pub struct NewKettle {
    /// What the household calls it.
    pub name: String,
    /// Inner width in millimetres.
    pub inner_diameter_mm: f64,
    /// Inner depth in millimetres.
    pub depth_mm: f64,
    /// Where it stands while it cooks down.
    pub heat: KettleHeat,
}

/// A line of the log.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct CookEvent {
    /// When.
    pub at: Moment,
    /// What.
    pub what: CookWhat,
    /// How much.
    pub value: f64,
    /// From a simulated device.
    pub simulated: bool,
}

/// A cook-down to begin.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct NewCook {
    /// In which kettle.
    pub kettle: i64,
    /// The batch it is for.
    pub batch: Option<i64>,
    /// Litres that go in.
    pub volume_l: f64,
    /// Their °Brix.
    pub brix: f64,
    /// What the target means.
    pub target: TargetKind,
    /// The target.
    pub target_value: f64,
    /// How far the heat is turned up.
    pub setting: HeatSetting,
    /// Litres of water an hour, as far as it is known.
    pub litres_per_hour: f64,
}

/// A cook-down with its log.
#[derive(Debug, Clone, PartialEq)]
pub struct Cook {
    /// Number of the record.
    pub id: i64,
    /// The kettle.
    pub kettle: Kettle,
    /// The batch it is for.
    pub batch: Option<i64>,
    /// When the heat came on.
    pub started_at: Moment,
    /// Litres that went in.
    pub volume_l: f64,
    /// Their °Brix.
    pub brix: f64,
    /// What the target means.
    pub target: TargetKind,
    /// The target.
    pub target_value: f64,
    /// How far the heat was turned up at the start.
    pub setting: HeatSetting,
    /// Litres of water an hour, as it was thought at the start.
    pub litres_per_hour: f64,
    /// When it was taken off.
    pub ended_at: Option<Moment>,
    /// The log, oldest first.
    pub log: Vec<CookEvent>,
}

fn read_kettle(row: &Row<'_>) -> rusqlite::Result<Kettle> {
    Ok(Kettle {
        id: row.get("id")?,
        name: row.get("name")?,
        inner_diameter_mm: row.get("inner_diameter_mm")?,
        depth_mm: row.get("depth_mm")?,
        heat: word(row, "heat")?,
        pour_l: row.get("pour_l")?,
        pour_depths_mm: row
            .get::<_, Option<String>>("pour_depths_mm")?
            .iter()
            .flat_map(|text| text.split(' '))
            .filter_map(|depth| depth.parse().ok())
            .collect(),
    })
}

fn one(connection: &Connection, id: i64) -> Result<Cook, StoreError> {
    let sql = "SELECT cook.id AS cook_id, batch_id, started_at, volume_l, brix, target, target_value, setting, litres_per_hour, ended_at,
        kettle.* FROM cook JOIN kettle ON kettle.id = kettle_id WHERE cook.id = ?1";
    let mut cook = found(
        connection.query_row(sql, [id], |row| {
            Ok(Cook {
                id: row.get("cook_id")?,
                kettle: read_kettle(row)?,
                batch: row.get("batch_id")?,
                started_at: Moment(row.get("started_at")?),
                volume_l: row.get("volume_l")?,
                brix: row.get("brix")?,
                target: word(row, "target")?,
                target_value: row.get("target_value")?,
                setting: word(row, "setting")?,
                litres_per_hour: row.get("litres_per_hour")?,
                ended_at: moment(row, "ended_at")?,
                log: Vec::new(),
            })
        }),
        "cook-down",
        id,
    )?;
    let mut statement = connection.prepare_cached(
        "SELECT at, what, value, simulated FROM cook_event WHERE cook_id = ?1 AND undone_at IS NULL ORDER BY at, id",
    )?;
    let rows = statement.query_map([id], |row| {
        Ok(CookEvent {
            at: Moment(row.get("at")?),
            what: word(row, "what")?,
            value: row.get("value")?,
            simulated: row.get("simulated")?,
        })
    })?;
    cook.log = rows.collect::<Result<_, _>>()?;
    Ok(cook)
}

impl Store {
    /// Kettles by name.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn kettles(&self) -> Result<Vec<Kettle>, StoreError> {
        let connection = self.lock();
        let mut statement = connection.prepare_cached("SELECT * FROM kettle ORDER BY name")?;
        Ok(statement.query_map([], read_kettle)?.collect::<Result<_, _>>()?)
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
    pub fn calibrate_kettle(&self, id: i64, pour_l: f64, depths_mm: &[f64]) -> Result<Kettle, StoreError> {
        let text = depths_mm.iter().map(ToString::to_string).collect::<Vec<_>>().join(" ");
        let straight = depths_mm.is_empty();
        found(
            self.lock().query_row(
                "UPDATE kettle SET pour_l = ?2, pour_depths_mm = ?3 WHERE id = ?1 RETURNING *",
                params![id, (!straight).then_some(pour_l), (!straight).then_some(text)],
                read_kettle,
            ),
            "kettle",
            id,
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
                [new.kettle],
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
                new.kettle,
                now.0,
                new.volume_l,
                new.brix,
                new.target.word(),
                new.target_value,
                new.litres_per_hour,
                new.batch,
                new.setting.word()
            ],
        )?;
        one(&connection, connection.last_insert_rowid())
    }

    /// One cook-down.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn cook(&self, id: i64) -> Result<Cook, StoreError> {
        one(&self.lock(), id)
    }

    /// Whether a batch has been on the stove and is off it.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn has_cooked(&self, batch: i64) -> Result<bool, StoreError> {
        let sql = "SELECT EXISTS (SELECT 1 FROM cook
            WHERE batch_id = ?1 AND ended_at IS NOT NULL AND removed_at IS NULL)";
        Ok(self.lock().query_row(sql, [batch], |row| row.get(0))?)
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
        let ids = statement.query_map([ended], |row| row.get(0))?.collect::<Result<Vec<i64>, _>>()?;
        ids.into_iter().map(|id| one(&connection, id)).collect()
    }

    /// Writes a reading or a drain down.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn add_cook_event(&self, cook: i64, event: &CookEvent) -> Result<Cook, StoreError> {
        let connection = self.lock();
        one(&connection, cook)?;
        connection.execute(
            "INSERT INTO cook_event (cook_id, at, what, value, simulated) VALUES (?1, ?2, ?3, ?4, ?5)",
            params![cook, event.at.0, event.what.word(), event.value, event.simulated],
        )?;
        one(&connection, cook)
    }

    /// Takes the last line of the log back; the record of it stays.
    ///
    /// # Errors
    /// [`StoreError::NothingToUndo`]; [`StoreError::NotFound`].
    pub fn undo_cook_event(&self, cook: i64, now: Moment) -> Result<Cook, StoreError> {
        let connection = self.lock();
        let changed = connection.execute(
            "UPDATE cook_event SET undone_at = ?2 WHERE id =
             (SELECT max(id) FROM cook_event WHERE cook_id = ?1 AND undone_at IS NULL)",
            params![cook, now.0],
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
    pub fn end_cook(&self, cook: i64, ended: bool, now: Moment) -> Result<Cook, StoreError> {
        let connection = self.lock();
        connection
            .execute("UPDATE cook SET ended_at = ?2 WHERE id = ?1", params![cook, ended.then_some(now.0)])?;
        one(&connection, cook)
    }
}
