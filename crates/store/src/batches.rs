//! Batches: a plan that was accepted, with the fruit it draws, its jars and its canner loads.

use bodega_core::acid::Agent;
use bodega_core::checklist::Rest;
use bodega_core::fruit::Kind;
use bodega_core::jar::JarSize;
use bodega_core::moment::{Minutes, Moment};
use bodega_core::outlook::Making;
use bodega_core::overnight::waits_as_juice;
use bodega_core::process::{Medium, Method, Pack, Product};
use bodega_core::units::{Volume, grams, in_pounds, in_quarts};
use bodega_core::yields::Thickness;
use bodega_core::yields::learn::Finished;
use rusqlite::{Connection, Row, Transaction, params};
use serde::Serialize;

use crate::rows::{found, moment, optional_word, word};
use crate::{Store, StoreError, loads, lots};

/// A batch on the line.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Batch {
    /// Number of the record.
    pub id: i64,
    /// Code on the label: the day and the batch of the day.
    pub code: String,
    /// What it becomes.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// How the jars are heated.
    pub method: Method,
    /// Acid in every jar.
    pub agent: Agent,
    /// Salt wanted.
    pub salt: bool,
    /// Where the rest goes that fills no jar.
    pub rest: Option<Rest>,
    /// Altitude the times were looked up for, in feet.
    pub altitude_ft: f64,
    /// Grams of fruit drawn.
    pub weight_g: i64,
    /// Jars in the batch.
    pub jars: u32,
    /// Jars that have come out of the canner.
    pub jars_lifted: u32,
    /// Acid stirred into the pot instead of the jars, in teaspoons.
    pub pot_dose_tsp: Option<f64>,
    /// When it was agreed that its juice waits overnight in the refrigerator.
    pub chilled_at: Option<Moment>,
}

impl Batch {
    /// What its fruit becomes.
    #[must_use]
    pub const fn making(&self) -> Making {
        Making { product: self.product, medium: self.medium, pack: self.pack, thickness: self.thickness }
    }
}

/// Fruit drawn from a lot.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Draw {
    /// The lot.
    pub lot: i64,
    /// Grams.
    pub weight_g: i64,
}

/// One canner load of a new batch.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NewLoad {
    /// Jars in it, by size.
    pub jars: Vec<(JarSize, u32)>,
    /// Tested minutes.
    pub minutes: Minutes,
    /// Tested pressure.
    pub psi: Option<u32>,
}

/// An accepted plan.
#[derive(Debug, Clone, PartialEq)]
pub struct NewBatch {
    /// Day of the batch, `YYYY-MM-DD`; the code is made from it.
    pub day: String,
    /// What it becomes.
    pub product: Product,
    /// What whole tomatoes are packed in.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// How the jars are heated.
    pub method: Method,
    /// Acid in every jar.
    pub agent: Agent,
    /// Salt wanted.
    pub salt: bool,
    /// Where the rest goes that fills no jar.
    pub rest: Option<Rest>,
    /// Altitude the times were looked up for, in feet.
    pub altitude_ft: f64,
    /// Fruit it draws.
    pub draws: Vec<Draw>,
    /// Canner loads in order.
    pub loads: Vec<NewLoad>,
    /// The canner they go into.
    pub canner: i64,
}

const SELECT: &str = "SELECT batch.*,
    (SELECT coalesce(sum(weight_g), 0) FROM batch_lot WHERE batch_id = batch.id) AS drawn_g,
    (SELECT count(*) FROM jar WHERE batch_id = batch.id) AS jars,
    (SELECT count(*) FROM jar JOIN load_event USING (load_id)
     WHERE batch_id = batch.id AND event = 'lifted' AND undone_at IS NULL) AS jars_lifted
    FROM batch";

fn read(row: &Row<'_>) -> rusqlite::Result<Batch> {
    Ok(Batch {
        id: row.get("id")?,
        code: row.get("code")?,
        product: word(row, "product")?,
        medium: optional_word(row, "medium")?,
        pack: word(row, "pack")?,
        thickness: optional_word(row, "thickness")?,
        method: word(row, "method")?,
        agent: word(row, "agent")?,
        salt: row.get("salt")?,
        rest: optional_word(row, "rest")?,
        altitude_ft: row.get("altitude_ft")?,
        weight_g: row.get("drawn_g")?,
        jars: row.get("jars")?,
        jars_lifted: row.get("jars_lifted")?,
        pot_dose_tsp: row.get("pot_dose_tsp")?,
        chilled_at: moment(row, "chilled_at")?,
    })
}

/// Whether a batch on the line other than the first parameter's draws on a lot.
macro_rules! drawn_on_by_others {
    () => {
        "EXISTS (SELECT 1 FROM batch_lot AS other JOIN batch AS drawer ON drawer.id = other.batch_id
            WHERE other.lot_id = lot.id AND other.batch_id <> ?1 AND drawer.removed_at IS NULL)"
    };
}

/// One batch, removed or not.
pub(crate) fn one(connection: &Connection, id: i64) -> Result<Batch, StoreError> {
    found(connection.query_row(&format!("{SELECT} WHERE batch.id = ?1"), [id], read), "batch", id)
}

impl Store {
    /// Batches that still have jars to process, in the order they were planned.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn open_batches(&self) -> Result<Vec<Batch>, StoreError> {
        let connection = self.lock();
        let sql = format!("{SELECT} WHERE removed_at IS NULL ORDER BY batch.id");
        let mut statement = connection.prepare_cached(&sql)?;
        let batches = statement.query_map([], read)?.collect::<Result<Vec<_>, _>>()?;
        Ok(batches.into_iter().filter(|batch| batch.jars_lifted < batch.jars).collect())
    }

    /// One batch.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn batch(&self, id: i64) -> Result<Batch, StoreError> {
        one(&self.lock(), id)
    }

    /// Accepts a plan: draws the fruit, sets out the jars and the loads, all or nothing.
    ///
    /// # Errors
    /// [`StoreError::Overdrawn`] names the lot that does not hold enough; [`StoreError::NotForJars`] one that is held
    /// or out.
    pub fn add_batch(&self, new: &NewBatch, now: Moment) -> Result<Batch, StoreError> {
        let mut added = self.add_batches(std::slice::from_ref(new), now)?;
        added.pop().ok_or_else(|| StoreError::Damaged("a batch was not kept".to_owned()))
    }

    /// Accepts several plans that belong together, all or nothing.
    ///
    /// # Errors
    /// As [`Self::add_batch`].
    pub fn add_batches(&self, batches: &[NewBatch], now: Moment) -> Result<Vec<Batch>, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let added =
            batches.iter().map(|new| accept(&transaction, new, now)).collect::<Result<Vec<_>, _>>()?;
        transaction.commit()?;
        Ok(added)
    }

    /// Finished batches of one kind of fruit, with what they took and gave: the household's own yields.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn finished(&self) -> Result<Vec<Finished>, StoreError> {
        let connection = self.lock();
        let mut statement = connection.prepare_cached(
            "SELECT batch.id, product, thickness, min(kind) AS kind, count(DISTINCT kind) AS kinds,
             sum(batch_lot.weight_g) AS drawn_g
             FROM batch JOIN batch_lot ON batch_id = batch.id JOIN lot ON lot.id = lot_id
             WHERE batch.removed_at IS NULL GROUP BY batch.id",
        )?;
        let mut rows = statement.query([])?;
        let mut finished = Vec::new();
        while let Some(row) = rows.next()? {
            let Some(volume) = finished_volume(&connection, row.get("id")?)? else { continue };
            let kinds: u32 = row.get("kinds")?;
            let drawn = grams(row.get("drawn_g")?);
            finished.push(Finished {
                product: word(row, "product")?,
                thickness: optional_word(row, "thickness")?,
                kind: if kinds == 1 { word(row, "kind")? } else { Kind::Mixed },
                pounds_per_quart: in_pounds(drawn) / in_quarts(volume),
            });
        }
        Ok(finished)
    }

    /// Takes a batch off the line, giving its fruit back, or puts it back. Its fruit goes into the freezer, or comes out
    /// of it, when that is said; fruit that another batch draws on stays as it is.
    ///
    /// # Errors
    /// [`StoreError::BatchBegun`] when a jar has been touched; [`StoreError::BelowZero`] when the fruit has gone
    /// elsewhere meanwhile.
    pub fn remove_batch(
        &self,
        id: i64,
        removed: bool,
        frozen: Option<bool>,
        now: Moment,
    ) -> Result<Batch, StoreError> {
        let mut connection = self.lock();
        let transaction = connection.transaction()?;
        let batch = one(&transaction, id)?;
        if removed {
            check_untouched(&transaction, &batch)?;
        }
        if let Some(frozen) = frozen {
            let sql = concat!(
                "UPDATE lot SET frozen = ?2
                 WHERE id IN (SELECT lot_id FROM batch_lot WHERE batch_id = ?1) AND NOT ",
                drawn_on_by_others!()
            );
            transaction.execute(sql, params![id, frozen])?;
        }
        transaction
            .execute("UPDATE batch SET removed_at = ?2 WHERE id = ?1", params![id, removed.then_some(now.0)])
            .map_err(StoreError::from_write)?;
        if removed {
            loads::hand_over(&transaction, id)?;
        }
        transaction.commit()?;
        Ok(batch)
    }

    /// Whether another batch on the line draws on the same lots.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn shares_fruit(&self, id: i64) -> Result<bool, StoreError> {
        let sql = concat!(
            "SELECT EXISTS (SELECT 1 FROM lot JOIN batch_lot ON lot.id = lot_id WHERE batch_id = ?1 AND ",
            drawn_on_by_others!(),
            ")"
        );
        Ok(self.lock().query_row(sql, [id], |row| row.get(0))?)
    }

    /// Writes down that the juice of a batch waits overnight in the refrigerator, or that it does not.
    ///
    /// # Errors
    /// [`StoreError::NotJuice`] when it is not on its way through the mill; [`StoreError::BatchBegun`] when a jar has been
    /// touched; [`StoreError::OnStove`] while it cooks.
    pub fn chill_batch(&self, id: i64, chilled: bool, now: Moment) -> Result<Batch, StoreError> {
        let connection = self.lock();
        let batch = one(&connection, id)?;
        if chilled {
            if !waits_as_juice(batch.product, batch.pack) {
                return Err(StoreError::NotJuice { code: batch.code });
            }
            check_untouched(&connection, &batch)?;
            let cooks = "SELECT EXISTS (SELECT 1 FROM cook WHERE batch_id = ?1 AND removed_at IS NULL)";
            if connection.query_row(cooks, [id], |row| row.get(0))? {
                return Err(StoreError::OnStove { code: batch.code });
            }
        }
        let at = chilled.then_some(now.0);
        connection.execute("UPDATE batch SET chilled_at = ?2 WHERE id = ?1", params![id, at])?;
        one(&connection, id)
    }

    /// Writes down how much acid was stirred into the pot of a batch, or that none was.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn set_pot_dose(&self, id: i64, tsp: Option<f64>) -> Result<Batch, StoreError> {
        let connection = self.lock();
        connection.execute("UPDATE batch SET pot_dose_tsp = ?2 WHERE id = ?1", params![id, tsp])?;
        one(&connection, id)
    }

    /// Sizes of a batch's jars, with how many there are of each.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn batch_sizes(&self, id: i64) -> Result<Vec<(JarSize, u32)>, StoreError> {
        let connection = self.lock();
        let mut statement = connection
            .prepare_cached("SELECT size, count(*) AS count FROM jar WHERE batch_id = ?1 GROUP BY size")?;
        let rows = statement.query_map([id], |row| Ok((word(row, "size")?, row.get("count")?)))?;
        Ok(rows.collect::<Result<_, _>>()?)
    }
}

/// Refuses a batch of which a jar has been touched.
fn check_untouched(connection: &Connection, batch: &Batch) -> Result<(), StoreError> {
    let sql = "SELECT EXISTS (SELECT 1 FROM jar WHERE batch_id = ?1 AND acid_at IS NOT NULL)";
    if connection.query_row(sql, [batch.id], |row| row.get(0))? {
        return Err(StoreError::BatchBegun { code: batch.code.clone() });
    }
    Ok(())
}

/// What a batch's jars hold, once every one of them is out of the canner.
fn finished_volume(connection: &Connection, batch: i64) -> Result<Option<Volume>, StoreError> {
    let mut statement = connection.prepare_cached(
        "SELECT size, EXISTS (SELECT 1 FROM load_event WHERE load_event.load_id = jar.load_id
             AND event = 'lifted' AND undone_at IS NULL) AS lifted
         FROM jar WHERE batch_id = ?1",
    )?;
    let jars = statement
        .query_map([batch], |row| Ok((word::<JarSize>(row, "size")?, row.get::<_, bool>("lifted")?)))?
        .collect::<Result<Vec<_>, _>>()?;
    let done = !jars.is_empty() && jars.iter().all(|(_, lifted)| *lifted);
    Ok(done.then(|| jars.iter().fold(Volume::default(), |sum, (size, _)| sum + size.volume())))
}

fn accept(transaction: &Transaction<'_>, new: &NewBatch, now: Moment) -> Result<Batch, StoreError> {
    for draw in &new.draws {
        let lot = lots::one(transaction, draw.lot)?;
        if !lot.condition.can_be_canned() {
            return Err(StoreError::NotForJars { lot: lot.id, condition: lot.condition.label() });
        }
        if lot.left_g < draw.weight_g {
            return Err(StoreError::Overdrawn { lot: lot.id, left_g: lot.left_g, wanted_g: draw.weight_g });
        }
    }
    let id = insert_batch(transaction, new, now)?;
    for draw in &new.draws {
        transaction.execute(
            "INSERT INTO batch_lot (batch_id, lot_id, weight_g) VALUES (?1, ?2, ?3)",
            params![id, draw.lot, draw.weight_g],
        )?;
    }
    set_out_jars(transaction, id, new)?;
    one(transaction, id)
}

fn insert_batch(transaction: &Transaction<'_>, new: &NewBatch, now: Moment) -> Result<i64, StoreError> {
    let compact = new.day.replace('-', "");
    let day = compact.get(2..).unwrap_or(&compact);
    // The highest number of the day plus one, counting removed batches: a code is never used twice.
    let number: i64 = transaction.query_row(
        "SELECT coalesce(max(CAST(substr(code, instr(code, '-') + 1) AS INTEGER)), 0) + 1
         FROM batch WHERE code LIKE ?1 || '-%'",
        [day],
        |row| row.get(0),
    )?;
    transaction.execute(
        "INSERT INTO batch (code, product, medium, pack, thickness, method, agent, salt, altitude_ft, planned_at, rest)
         VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9, ?10, ?11)",
        params![
            format!("{day}-{number}"),
            new.product.word(),
            new.medium.map(Medium::word),
            new.pack.word(),
            new.thickness.map(Thickness::word),
            new.method.word(),
            new.agent.word(),
            new.salt,
            new.altitude_ft,
            now.0,
            new.rest.map(Rest::word)
        ],
    )?;
    Ok(transaction.last_insert_rowid())
}

fn set_out_jars(transaction: &Transaction<'_>, batch: i64, new: &NewBatch) -> Result<(), StoreError> {
    let mut number = 0;
    for (position, load) in (1..).zip(&new.loads) {
        transaction.execute(
            "INSERT INTO canner_load (canner_id, batch_id, position, minutes, psi) VALUES (?1, ?2, ?3, ?4, ?5)",
            params![new.canner, batch, position, load.minutes.0, load.psi],
        )?;
        let load_id = transaction.last_insert_rowid();
        for (size, _) in load.jars.iter().flat_map(|(size, count)| (0..*count).map(move |jar| (size, jar))) {
            number += 1;
            transaction.execute(
                "INSERT INTO jar (batch_id, load_id, number, size) VALUES (?1, ?2, ?3, ?4)",
                params![batch, load_id, number, size.word()],
            )?;
        }
    }
    Ok(())
}
