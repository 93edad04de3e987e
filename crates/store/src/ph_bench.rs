//! Readings at the pH bench.

use bodega_model::measures::ids::{BenchPhId, BowlsId};
use bodega_model::measures::moment::Moment;
use bodega_model::records::batch::Batch;
use bodega_model::records::jar::PhRecord;
use bodega_model::records::recipe::BenchPh;
use rusqlite::{Connection, Row, params};

use crate::ph::readings;
use crate::recipe::put_away;
use crate::rows::found;
use crate::rows::recipe::any_bowls;
use crate::{Store, StoreError};

/// Readings that are shown: the latest.
const LATEST: u32 = 100;

fn read(row: &Row<'_>) -> rusqlite::Result<BenchPh> {
    Ok(BenchPh {
        id: BenchPhId(row.get("id")?),
        at: Moment(row.get("at")?),
        bowls: row.get::<_, Option<i64>>("bowls_id")?.map(BowlsId),
        part: row.get("part")?,
        ph: row.get("ph")?,
        sample_c: row.get("sample_c")?,
        compensated: row.get("compensated")?,
        calibrated_today: row.get("calibrated_today")?,
        drained: row.get("drained")?,
        simulated: row.get("simulated")?,
    })
}

fn latest(connection: &Connection, bowls: Option<BowlsId>) -> Result<Vec<BenchPh>, StoreError> {
    let of_bowls = if bowls.is_some() { "bowls_id = ?1" } else { "?1 IS NULL" };
    let sql = format!(
        "SELECT * FROM bench_ph WHERE removed_at IS NULL AND {of_bowls} ORDER BY at DESC, id DESC LIMIT ?2"
    );
    let mut statement = connection.prepare_cached(&sql)?;
    let rows = statement.query_map(params![bowls.map(|bowls| bowls.0), LATEST], read)?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// Every pH reading of a batch, oldest first.
pub(crate) fn of_batch(connection: &Connection, batch: &Batch) -> Result<Vec<PhRecord>, StoreError> {
    let mut all = readings(connection, batch.id)?;
    if let Some(bowls) = batch.bowls {
        let of_mix = latest(connection, Some(bowls))?.into_iter().filter(|reading| reading.part.is_none());
        all.extend(of_mix.map(|reading| reading.as_record()));
        all.sort_by_key(|reading| reading.at);
    }
    Ok(all)
}

impl Store {
    /// The last hundred readings at the bench, of these bowls or of all, newest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn bench_ph(&self, bowls: Option<BowlsId>) -> Result<Vec<BenchPh>, StoreError> {
        latest(&*self.read()?, bowls)
    }

    /// Every pH reading of a batch, oldest first: what was read of its mix before there was a batch is one of it.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn ph_of(&self, batch: &Batch) -> Result<Vec<PhRecord>, StoreError> {
        of_batch(&*self.read()?, batch)
    }

    /// Writes a reading down; its number is given.
    ///
    /// # Errors
    /// [`StoreError::NotFound`] when there are no such bowls.
    pub fn add_bench_ph(&self, reading: &BenchPh) -> Result<BenchPh, StoreError> {
        let connection = self.lock();
        if let Some(bowls) = reading.bowls {
            any_bowls(&connection, bowls)?;
        }
        connection
            .execute(
                "INSERT INTO bench_ph (at, bowls_id, part, ph, sample_c, compensated, calibrated_today, simulated,
                 drained) VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8, ?9)",
                params![
                    reading.at.0,
                    reading.bowls.map(|bowls| bowls.0),
                    reading.part,
                    reading.ph,
                    reading.sample_c,
                    reading.compensated,
                    reading.calibrated_today,
                    reading.simulated,
                    reading.drained
                ],
            )
            .map_err(StoreError::from_write)?;
        let id = connection.last_insert_rowid();
        found(connection.query_row("SELECT * FROM bench_ph WHERE id = ?1", [id], read), "reading", id)
    }

    /// Takes a reading away, or puts it back.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn remove_bench_ph(&self, id: BenchPhId, removed: bool, now: Moment) -> Result<(), StoreError> {
        let sql = "UPDATE bench_ph SET removed_at = ?2 WHERE id = ?1";
        put_away(&self.lock(), sql, ("reading", id.0), removed.then_some(now))
    }
}
