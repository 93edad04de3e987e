//! Batches as rows.

use bodega_model::measures::ids::{BatchId, BowlsId};
use bodega_model::records::batch::Batch;
use bodega_model::records::recipe::BatchRecipe;
use rusqlite::{Connection, Row};
use serde::Serialize;
use serde::de::DeserializeOwned;

use super::{found, from_json, moment, optional_word, row_of, to_json, word};
use crate::StoreError;

pub(crate) const SELECT: &str = "SELECT batch.*,
    (SELECT coalesce(sum(weight_g), 0) FROM batch_lot WHERE batch_id = batch.id) AS drawn_g,
    (SELECT count(*) FROM jar WHERE batch_id = batch.id) AS jars,
    (SELECT count(*) FROM jar WHERE batch_id = batch.id
     AND load_id NOT IN (SELECT load_id FROM open_load)) AS jars_lifted
    FROM batch";

/// Whether a batch has jars and all of them are out of the canner.
macro_rules! all_lifted {
    () => {
        "EXISTS (SELECT 1 FROM jar WHERE batch_id = batch.id)
            AND NOT EXISTS (SELECT 1 FROM open_load CROSS JOIN jar ON jar.load_id = open_load.load_id
                WHERE jar.batch_id = batch.id)"
    };
}
pub(crate) use all_lifted;

pub(crate) fn read(row: &Row<'_>) -> rusqlite::Result<Batch> {
    Ok(Batch {
        id: BatchId(row.get("id")?),
        code: row.get("code")?,
        name: row.get("name")?,
        note: row.get("note")?,
        liked: optional_word(row, "liked")?,
        recipe: kept(row, "recipe")?,
        bowls: row.get::<_, Option<i64>>("bowls_id")?.map(BowlsId),
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
        pot_said: kept(row, "pot_said")?.unwrap_or_default(),
        additions: kept(row, "additions")?,
        additions_asked: row.get("additions_asked")?,
        chilled_at: moment(row, "chilled_at")?,
    })
}

/// A list that is kept as JSON; `NULL` while nobody said.
fn kept<T: DeserializeOwned>(row: &Row<'_>, column: &str) -> rusqlite::Result<Option<T>> {
    let stored: Option<String> = row.get(column)?;
    stored.map(|text| from_json(&text)).transpose()
}

/// As it is kept.
pub(crate) fn stored<T: Serialize>(list: Option<&T>) -> Result<Option<String>, StoreError> {
    list.map(to_json).transpose()
}

/// Refuses a batch that was taken off the line.
pub(crate) fn check_on_line(connection: &Connection, id: BatchId) -> Result<(), StoreError> {
    let sql = "SELECT 1 FROM batch WHERE id = ?1 AND removed_at IS NULL";
    found(row_of(connection, sql, [id.0], |_| Ok(())), "batch on the line", id.0)
}

/// One batch, removed or not.
pub(crate) fn one(connection: &Connection, id: BatchId) -> Result<Batch, StoreError> {
    found(row_of(connection, &format!("{SELECT} WHERE batch.id = ?1"), [id.0], read), "batch", id.0)
}

/// The recipes of batches, of those that are made by one.
pub(crate) fn recipes(
    connection: &Connection,
    batches: impl IntoIterator<Item = BatchId>,
) -> Result<Vec<(BatchId, BatchRecipe)>, StoreError> {
    let mut statement = connection.prepare_cached("SELECT recipe FROM batch WHERE id = ?1")?;
    let mut found = Vec::new();
    for id in batches {
        if let Some(recipe) = statement.query_row([id.0], |row| kept(row, "recipe"))? {
            found.push((id, recipe));
        }
    }
    Ok(found)
}
