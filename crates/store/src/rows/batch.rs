//! Batches as rows.

use bodega_core::jars::contents::Added;
use bodega_core::measures::ids::BatchId;
use bodega_core::records::batch::Batch;
use rusqlite::{Connection, Row};

use super::{found, moment, optional_word, word};
use crate::StoreError;

pub(crate) const SELECT: &str = "SELECT batch.*,
    (SELECT coalesce(sum(weight_g), 0) FROM batch_lot WHERE batch_id = batch.id) AS drawn_g,
    (SELECT count(*) FROM jar WHERE batch_id = batch.id) AS jars,
    (SELECT count(*) FROM jar WHERE batch_id = batch.id AND EXISTS (SELECT 1 FROM load_event
     WHERE load_event.load_id = jar.load_id AND event = 'lifted' AND undone_at IS NULL)) AS jars_lifted
    FROM batch";

pub(crate) fn read(row: &Row<'_>) -> rusqlite::Result<Batch> {
    Ok(Batch {
        id: BatchId(row.get("id")?),
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
        additions: read_additions(row)?,
        additions_asked: row.get("additions_asked")?,
        chilled_at: moment(row, "chilled_at")?,
    })
}

fn read_additions(row: &Row<'_>) -> rusqlite::Result<Option<Vec<Added>>> {
    let stored: Option<String> = row.get("additions")?;
    stored.map(|text| serde_json::from_str(&text)).transpose().map_err(|error| {
        rusqlite::Error::FromSqlConversionFailure(0, rusqlite::types::Type::Text, Box::new(error))
    })
}

/// As it is kept: `NULL` while nobody said.
pub(crate) fn stored_additions(additions: Option<&Vec<Added>>) -> Result<Option<String>, StoreError> {
    let text = additions.map(serde_json::to_string).transpose();
    text.map_err(|error| StoreError::Damaged(error.to_string()))
}

/// One batch, removed or not.
pub(crate) fn one(connection: &Connection, id: BatchId) -> Result<Batch, StoreError> {
    found(connection.query_row(&format!("{SELECT} WHERE batch.id = ?1"), [id.0], read), "batch", id.0)
}
