//! Acid stirred into a batch's pot, and the jars that have theirs from it.

use bodega_core::jars::doses::DosedPot;
use bodega_model::jars::size::JarSize;
use bodega_model::measures::ids::BatchId;
use bodega_model::measures::moment::Moment;
use bodega_model::tables::process::Product;
use rusqlite::{Connection, params};

use crate::StoreError;
use crate::rows::word;

/// Sizes of a batch's jars, with how many there are of each.
pub(crate) fn sizes(connection: &Connection, batch: BatchId) -> Result<Vec<(JarSize, u32)>, StoreError> {
    let mut statement = connection
        .prepare_cached("SELECT size, count(*) AS count FROM jar WHERE batch_id = ?1 GROUP BY size")?;
    let rows = statement.query_map([batch.0], |row| Ok((word(row, "size")?, row.get("count")?)))?;
    Ok(rows.collect::<Result<_, _>>()?)
}

/// The pot of a batch, when acid was stirred into it.
pub(crate) fn dosed_pot(connection: &Connection, batch: BatchId) -> Result<Option<DosedPot>, StoreError> {
    let sql = "SELECT pot_dose_tsp FROM batch WHERE id = ?1";
    let given: Option<f64> = connection.query_row(sql, [batch.0], |row| row.get(0))?;
    let Some(given_tsp) = given else { return Ok(None) };
    Ok(Some(DosedPot { batch, given_tsp, jars: sizes(connection, batch)? }))
}

/// Marks the jars that have their acid from the pot, when the pot turns out to have too little for all of them, and takes
/// the mark off again when it has enough.
pub(crate) fn settle_pot(connection: &Connection, batch: BatchId, now: Moment) -> Result<(), StoreError> {
    let sql = "SELECT agent, product FROM batch WHERE id = ?1";
    let (agent, product): (_, Product) =
        connection.query_row(sql, [batch.0], |row| Ok((word(row, "agent")?, word(row, "product")?)))?;
    if product.brings_its_acid() {
        return Ok(());
    }
    let enough = dosed_pot(connection, batch)?.is_some_and(|pot| pot.is_enough(agent));
    connection.execute(
        "UPDATE jar SET undosed_at = iif(?2, NULL, coalesce(undosed_at, ?3)) WHERE batch_id = ?1 AND acid_from_pot",
        params![batch.0, enough, now.0],
    )?;
    Ok(())
}
