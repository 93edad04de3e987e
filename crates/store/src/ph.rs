//! pH readings of a batch.

use bodega_model::jars::ph::{PhSample, Remedy};
use bodega_model::measures::ids::BatchId;
use bodega_model::measures::moment::Moment;
use bodega_model::records::jar::PhRecord;
use rusqlite::{Connection, params};

use crate::rows::batch::one;
use crate::rows::optional_word;
use crate::{Store, StoreError};

/// pH readings of a batch, oldest first.
pub(crate) fn readings(connection: &Connection, batch: BatchId) -> Result<Vec<PhRecord>, StoreError> {
    let mut statement =
        connection.prepare_cached("SELECT * FROM ph_reading WHERE batch_id = ?1 ORDER BY at, id")?;
    let rows = statement.query_map([batch.0], |row| {
        Ok(PhRecord {
            at: Moment(row.get("at")?),
            ph: row.get("ph")?,
            sample: optional_word(row, "sample")?,
            did: optional_word(row, "did")?,
            sample_c: row.get("sample_c")?,
            compensated: row.get("compensated")?,
            calibrated_today: row.get("calibrated_today")?,
        })
    })?;
    Ok(rows.collect::<Result<_, _>>()?)
}

impl Store {
    /// pH readings of a batch, oldest first.
    ///
    /// # Errors
    /// [`StoreError::Sqlite`] when the file cannot be read.
    pub fn ph_readings(&self, batch: BatchId) -> Result<Vec<PhRecord>, StoreError> {
        readings(&*self.read()?, batch)
    }

    /// Writes a pH reading down.
    ///
    /// # Errors
    /// [`StoreError::NotFound`].
    pub fn add_ph_reading(&self, batch: BatchId, reading: &PhRecord) -> Result<(), StoreError> {
        let connection = self.lock();
        one(&connection, batch)?;
        connection.execute(
            "INSERT INTO ph_reading (batch_id, at, ph, sample_c, compensated, calibrated_today, sample, did)
             VALUES (?1, ?2, ?3, ?4, ?5, ?6, ?7, ?8)",
            params![
                batch.0,
                reading.at.0,
                reading.ph,
                reading.sample_c,
                reading.compensated,
                reading.calibrated_today,
                reading.sample.map(PhSample::word),
                reading.did.map(Remedy::word)
            ],
        )?;
        Ok(())
    }
}
