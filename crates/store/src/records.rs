//! What is kept of a batch for good: its fruit, its jars from the bench to the table, its pH readings.

use bodega_core::acid::Agent;
use bodega_core::jar::JarSize;
use bodega_core::moment::Moment;
use bodega_core::pantry::{Discard, Leaving};
use bodega_core::process::{Medium, Pack, Product};
use bodega_core::seal::{LidVerdict, Rescue};
use bodega_core::yields::Thickness;
use rusqlite::{Connection, Row, params};
use serde::Serialize;

use crate::rows::{found, moment, optional_word, word};
use crate::shelf::read_verdict;
use crate::{Batch, Lot, Store, StoreError, batches, lots};

/// A jar with everything that became of it.
#[derive(Debug, Clone, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct JarRecord {
    /// Number of the record.
    pub id: i64,
    /// Its batch.
    pub batch: i64,
    /// Code of its batch.
    pub code: String,
    /// Number in its batch.
    pub number: u32,
    /// Size.
    pub size: JarSize,
    /// What is in it.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// Its acid.
    pub agent: Agent,
    /// The load it was processed in.
    pub load: i64,
    /// Loads it went through before, oldest first.
    pub earlier_loads: Vec<i64>,
    /// When it came out of the canner.
    pub lifted_at: Option<Moment>,
    /// It broke in the canner.
    pub broke: bool,
    /// What was found at its lid.
    pub verdict: Option<LidVerdict>,
    /// When.
    pub judged_at: Option<Moment>,
    /// What was decided when it failed.
    pub rescue: Option<Rescue>,
    /// Ring off, washed and dry.
    pub tidy: bool,
    /// When it left.
    pub gone_at: Option<Moment>,
    /// How it left.
    pub gone_how: Option<Leaving>,
    /// Why it was thrown away.
    pub gone_why: Option<Discard>,
}

/// A reading of a pH meter.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct PhRecord {
    /// When.
    pub at: Moment,
    /// The value.
    pub ph: f64,
    /// Temperature of the sample in degrees Celsius.
    pub sample_c: Option<f64>,
    /// Whether the meter allows for it.
    pub compensated: Option<bool>,
    /// Whether it was calibrated that day.
    pub calibrated_today: Option<bool>,
}

/// Like jars that were ever on the shelf, and when those left that were eaten or given away.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Stocked {
    /// What is in them.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// Size.
    pub size: JarSize,
    /// Jars on the shelf now.
    pub on_shelf: u32,
    /// When the first of them came out of the canner.
    pub first_on: Moment,
    /// When each left that was eaten or given away.
    pub left_at: Vec<Moment>,
}

const JARS: &str = "SELECT jar.*, code, product, medium, pack, thickness, agent, load_event.at AS lifted_at,
    EXISTS (SELECT 1 FROM load_event AS broke
        WHERE broke.jar_id = jar.id AND broke.event = 'jar_broken' AND broke.undone_at IS NULL) AS broke
    FROM jar JOIN batch ON batch.id = jar.batch_id
    LEFT JOIN load_event ON load_event.load_id = jar.load_id AND load_event.event = 'lifted'
        AND load_event.undone_at IS NULL";

fn read(row: &Row<'_>) -> rusqlite::Result<JarRecord> {
    Ok(JarRecord {
        id: row.get("id")?,
        batch: row.get("batch_id")?,
        code: row.get("code")?,
        number: row.get("number")?,
        size: word(row, "size")?,
        product: word(row, "product")?,
        medium: optional_word(row, "medium")?,
        pack: word(row, "pack")?,
        thickness: optional_word(row, "thickness")?,
        agent: word(row, "agent")?,
        load: row.get("load_id")?,
        earlier_loads: Vec::new(),
        lifted_at: moment(row, "lifted_at")?,
        broke: row.get("broke")?,
        verdict: read_verdict(row)?,
        judged_at: moment(row, "seal_at")?,
        rescue: optional_word(row, "rescue")?,
        tidy: moment(row, "tidy_at")?.is_some(),
        gone_at: moment(row, "gone_at")?,
        gone_how: optional_word(row, "gone_how")?,
        gone_why: optional_word(row, "gone_why")?,
    })
}

fn with_past(connection: &Connection, mut jar: JarRecord) -> Result<JarRecord, StoreError> {
    let mut statement =
        connection.prepare_cached("SELECT load_id FROM jar_past WHERE jar_id = ?1 ORDER BY id")?;
    jar.earlier_loads = statement.query_map([jar.id], |row| row.get(0))?.collect::<Result<_, _>>()?;
    Ok(jar)
}

impl Store {
    /// Every batch that was not taken off the line, newest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn all_batches(&self) -> Result<Vec<Batch>, StoreError> {
        let connection = self.lock();
        let mut statement =
            connection.prepare_cached("SELECT id FROM batch WHERE removed_at IS NULL ORDER BY id DESC")?;
        let ids = statement.query_map([], |row| row.get(0))?.collect::<Result<Vec<i64>, _>>()?;
        ids.into_iter().map(|id| batches::one(&connection, id)).collect()
    }

    /// The jars of a batch with what became of each.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_jars(&self, batch: i64) -> Result<Vec<JarRecord>, StoreError> {
        let connection = self.lock();
        let mut statement =
            connection.prepare_cached(&format!("{JARS} WHERE jar.batch_id = ?1 ORDER BY number"))?;
        let jars = statement.query_map([batch], read)?.collect::<Result<Vec<_>, _>>()?;
        jars.into_iter().map(|jar| with_past(&connection, jar)).collect()
    }

    /// Every jar of every batch on the line or done, in the order of batches.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn all_jars(&self) -> Result<Vec<JarRecord>, StoreError> {
        let connection = self.lock();
        let sql = format!("{JARS} WHERE batch.removed_at IS NULL ORDER BY jar.batch_id, number");
        let mut statement = connection.prepare_cached(&sql)?;
        Ok(statement.query_map([], read)?.collect::<Result<_, _>>()?)
    }

    /// One jar.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn jar(&self, id: i64) -> Result<JarRecord, StoreError> {
        let connection = self.lock();
        let jar = connection.query_row(&format!("{JARS} WHERE jar.id = ?1"), [id], read);
        with_past(&connection, found(jar, "jar", id)?)
    }

    /// Fruit that a batch drew: the lot, and grams of it.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_lots(&self, batch: i64) -> Result<Vec<(Lot, i64)>, StoreError> {
        let connection = self.lock();
        let mut statement = connection
            .prepare_cached("SELECT lot_id, weight_g FROM batch_lot WHERE batch_id = ?1 ORDER BY lot_id")?;
        let drawn = statement
            .query_map([batch], |row| Ok((row.get(0)?, row.get(1)?)))?
            .collect::<Result<Vec<(i64, i64)>, _>>()?;
        drawn.into_iter().map(|(lot, grams)| Ok((lots::one(&connection, lot)?, grams))).collect()
    }

    /// pH readings of a batch, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn ph_readings(&self, batch: i64) -> Result<Vec<PhRecord>, StoreError> {
        let connection = self.lock();
        let mut statement =
            connection.prepare_cached("SELECT * FROM ph_reading WHERE batch_id = ?1 ORDER BY at, id")?;
        let rows = statement.query_map([batch], |row| {
            Ok(PhRecord {
                at: Moment(row.get("at")?),
                ph: row.get("ph")?,
                sample_c: row.get("sample_c")?,
                compensated: row.get("compensated")?,
                calibrated_today: row.get("calibrated_today")?,
            })
        })?;
        Ok(rows.collect::<Result<_, _>>()?)
    }

    /// Writes a pH reading down.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn add_ph_reading(&self, batch: i64, reading: &PhRecord) -> Result<(), StoreError> {
        let connection = self.lock();
        batches::one(&connection, batch)?;
        connection.execute(
            "INSERT INTO ph_reading (batch_id, at, ph, sample_c, compensated, calibrated_today)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6)",
            params![
                batch,
                reading.at.0,
                reading.ph,
                reading.sample_c,
                reading.compensated,
                reading.calibrated_today
            ],
        )?;
        Ok(())
    }

    /// What was ever shelved, by product and size, with when it left.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn stocked(&self) -> Result<Vec<Stocked>, StoreError> {
        let connection = self.lock();
        let mut statement = connection.prepare_cached(
            "SELECT product, medium, pack, thickness, size, load_event.at AS lifted_at, gone_at, gone_how
             FROM jar JOIN batch ON batch.id = jar.batch_id
             JOIN load_event ON load_event.load_id = jar.load_id AND event = 'lifted' AND undone_at IS NULL
             WHERE removed_at IS NULL AND seal = 'holds'
             ORDER BY product, medium, pack, thickness, size, lifted_at",
        )?;
        let mut rows = statement.query([])?;
        let mut all: Vec<Stocked> = Vec::new();
        while let Some(row) = rows.next()? {
            let like = Stocked {
                product: word(row, "product")?,
                medium: optional_word(row, "medium")?,
                pack: word(row, "pack")?,
                thickness: optional_word(row, "thickness")?,
                size: word(row, "size")?,
                on_shelf: 0,
                first_on: Moment(row.get("lifted_at")?),
                left_at: Vec::new(),
            };
            let key = |stocked: &Stocked| {
                (stocked.product, stocked.medium, stocked.pack, stocked.thickness, stocked.size)
            };
            if all.last().is_none_or(|last| key(last) != key(&like)) {
                all.push(like);
            }
            let how: Option<Leaving> = optional_word(row, "gone_how")?;
            let gone_at = moment(row, "gone_at")?;
            if let Some(last) = all.last_mut() {
                match (gone_at, how) {
                    (None, _) => last.on_shelf += 1,
                    (Some(at), Some(Leaving::Eaten | Leaving::Given)) => last.left_at.push(at),
                    (Some(_), _) => {}
                }
            }
        }
        Ok(all)
    }
}
